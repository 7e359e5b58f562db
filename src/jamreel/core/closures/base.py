"""What every closure declares: a receiving half, a holding half, and how they mate."""

from abc import ABC, abstractmethod
from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any, ClassVar, Literal

from jamreel.core.advice import Advice
from jamreel.core.advice.joining import bare_end
from jamreel.core.bench.steps import Step, step
from jamreel.core.choices import Asking
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import Hold, Made, Varies
from jamreel.core.tagged_union import Kinds
from jamreel.core.words import say

Lies = Literal["flat", "standing"]
CLOSURES: Kinds["Closure"] = Kinds()


@dataclass(frozen=True)
class Passes:
    """What has to go through the receiving half to fasten: a hook, so ``width`` folded as it is,
    or the wire of a bar, ``bar`` long [mm]."""

    width: float
    bar: float = 0.0


@dataclass(frozen=True)
class Fastened:
    """A closure as made. The holding half's bearing point meets the receiving half's, so that the
    two inside lengths add up. ``adds_range`` is how much further it can be fastened [mm], in
    steps of ``range_step``; ``passes`` is what must go through the receiving half to fasten it, or
    through the body's own last loop where there is none."""

    receiving: Made
    holding: Made
    mates: tuple[Advice | None, ...] = ()
    one_hand: bool = False
    adds_range: float = 0.0
    range_step: float = 0.0
    passes: Passes | None = None

    @property
    def hold(self) -> Hold | None:
        """The place of it that gives first, or None where nothing is known to give."""
        holds = (*self.receiving.holds, *self.holding.holds)
        return min(holds, key=lambda hold: hold.newtons, default=None)

    @property
    def length(self) -> float:
        """What the closure adds to the piece [mm]."""
        return self.receiving.length + self.holding.length


class Closure(Asking, ABC):
    """A way to fasten a piece: its own choices as fields, both halves in ``make``."""

    kind: str
    # Whether it fastens, so that rings may be added before it; and whether a new piece has it.
    fastens: ClassVar[bool] = True
    usual: ClassVar[bool] = False
    # Whether a string can go on through its halves and back.
    strung_through: ClassVar[bool] = True
    # Whether the body's own hook fastens it; whether its halves are put over bare ends.
    by_body: ClassVar[bool] = False
    swallows: ClassVar[bool] = False

    @classmethod
    def __pydantic_init_subclass__(cls, **kwargs: Any) -> None:
        CLOSURES.add(cls)

    @abstractmethod
    def make(self, wires: Palette) -> Fastened:
        """Return the closure as made of a palette's wires.

        Raises:
            Refusal: halves that can't be made.
        """

    def varies(self) -> tuple[Varies, ...]:
        """Return what of it may be set anew to reach a length."""
        return ()

    def others(self) -> tuple["Closure", ...]:
        """Return what could stand in for it to reach a length."""
        return ()

    def as_typed(self) -> dict[str, str]:
        """Return it as a maker would type it: its kind, and what was chosen of it."""
        usual = type(self).model_fields
        chosen = {
            name: value
            for name in usual
            if name != "kind" and (value := getattr(self, name)) != usual[name].default
        }
        # A wire size is typed by what it is called, without what that is in mm.
        typed = {k: str(getattr(v, "label", v)) for k, v in chosen.items() if v is not None}
        return {"kind": self.kind, **{k: v.partition(" (")[0] for k, v in typed.items()}}

    def over(self, width: float, thickness: float) -> "Closure":
        """Return it as it is made over bare ends so wide and thick [mm]."""
        return self

    def takes_in(self, name: str, width: float, thickness: float) -> tuple[Advice | None, ...]:
        """Return whether a bare end of the body goes into its halves.

        Args:
            name: of the part that ends bare.
            width: of it [mm].
            thickness: of it [mm].
        """
        return (bare_end(name),)

    @property
    def in_cap(self) -> float | None:
        """How far bare ends go into its caps [mm], None where it has none."""
        return None

    @property
    def says(self) -> str:
        """What it is called."""
        return say(f"closure.{self.kind}.name")


def registered_closures() -> Mapping[str, type[Closure]]:
    """Return all closures by kind."""
    return CLOSURES.every()


def lying(made: Made, lies: Lies) -> Made:
    """Return a half lying flat against the skin, or standing on edge.

    Args:
        made: the half lying flat.
        lies: as chosen.
    """
    if lies == "flat":
        return made
    return replace(made, thickness=made.width, width=made.thickness)


def closure_step(key: str, *, name: str = "", cautions: tuple[str, ...] = (), **v: Any) -> Step:
    """Return a step of making a closure, under ``step.closure.<key>``; each ends in a look."""
    v.setdefault("what", say("join.neighbour"))
    return step(f"closure.{key}", "form", name=name, cautions=cautions, check=True, **v)


NOTHING = Made(length=0.0, thickness=0.0, width=0.0)
