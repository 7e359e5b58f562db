"""What every construction declares, and what it must answer."""

from abc import ABC, abstractmethod
from collections.abc import Mapping
from typing import Any, ClassVar

from jamreel.core.choices import Asking, Choice
from jamreel.core.errors import Refusal
from jamreel.core.parts.so_far import ToldSoFar
from jamreel.core.result import GoneOn, Plan, Proposal
from jamreel.core.tagged_union import Kinds
from jamreel.core.values import Frozen
from jamreel.core.workpiece.job import Job

__all__ = ["Choice", "Construction", "Job", "Preset", "registered", "usually"]

CONSTRUCTIONS: Kinds["Construction"] = Kinds(lambda row: (not row[1].suggested, row[0]))


def usually(size: str, metal: str = "copper", temper: str = "half_hard") -> Mapping[str, str]:
    """Return a wire as typed, for a piece to start with. Source of all: common practice."""
    return {"size": size, "metal": metal, "temper": temper}


class Preset(Frozen):
    """A way to start a construction with choices made: what it is called under ``family`` in the
    words, the choices as a brief would say them, and the wire."""

    name: str
    piece: dict[str, Any]
    wire: dict[str, str]


class Construction(Asking, ABC):
    """A way to build a piece: its own choices as fields, and the arithmetic in ``solve``.

    ``sites`` are the measures it needs, ``helps`` those it uses when they were read; ``ranges``
    bound its choices [mm]; ``asks`` is what a try-on of it notes; ``eases`` tells whether the
    maker's ease is a choice here, ``wired`` whether the wire is, ``any_section`` whether wire that
    is not round can be made into it. ``usual_wire`` is what a new one starts with, as typed;
    ``presets`` are further ways to start; ``suggested`` marks what a new piece is until another
    construction is chosen.
    """

    kind: str
    family: ClassVar[str]
    worn_on: ClassVar[str]
    sites: ClassVar[tuple[str, ...]]
    helps: ClassVar[tuple[str, ...]] = ()
    asks: ClassVar[tuple[str, ...]] = ("goes_on", "inside_girth")
    eases: ClassVar[bool] = True
    wired: ClassVar[bool] = True
    any_section: ClassVar[bool] = False
    suggested: ClassVar[bool] = False
    usual_wire: ClassVar[Mapping[str, str]] = usually("14 awg")
    presets: ClassVar[tuple[Preset, ...]] = ()

    @classmethod
    def __pydantic_init_subclass__(cls, **kwargs: Any) -> None:
        CONSTRUCTIONS.add(cls)

    @property
    def in_cap(self) -> float | None:
        """How far bare ends go into its caps [mm], None where it has none."""
        return None

    def wants(self) -> tuple[str, ...]:
        """Return the sites that this piece needs measured."""
        return self.sites

    @abstractmethod
    def solve(self, job: Job) -> Plan:
        """Return the plan of this construction.

        Raises:
            Refusal: measures or choices that this construction can't be made from.
        """

    def propose(self, job: Job) -> tuple[Proposal, ...]:
        """Return ways to come nearer to the length; most constructions have none to propose."""
        return ()

    def go_on(self, job: Job, told: ToldSoFar) -> GoneOn:
        """Return what follows from what is made so far.

        Raises:
            Refusal: most constructions are of one wire, and have nothing to count.
        """
        raise Refusal("so_far_entry", got=told.entry, field="entry")


def registered() -> Mapping[str, type[Construction]]:
    """Return all constructions by kind, the suggested one first."""
    return CONSTRUCTIONS.every()
