"""What every construction declares, and what it must answer."""

import typing
from abc import ABC, abstractmethod
from collections.abc import Mapping
from typing import Any, ClassVar, Literal

from pydantic import BeforeValidator, model_validator
from pydantic.fields import FieldInfo

from jamreel.core.errors import Refusal
from jamreel.core.result import Plan
from jamreel.core.values import Frozen, refused
from jamreel.core.workpiece.job import Job

__all__ = ["Choice", "Construction", "Job", "registered"]

_registry: dict[str, type["Construction"]] = {}


class Choice(Frozen):
    """One choice of a construction, for a screen to ask: its type, default, range or options."""

    name: str
    type: Literal["length", "number", "whole", "option", "flag"]
    default: float | str | bool
    low: float | None = None
    high: float | None = None
    options: tuple[str, ...] = ()


class Construction(Frozen, ABC):
    """A way to build a piece: its own choices as fields, and the arithmetic in ``solve``.

    ``sites`` are the measures it needs, ``helps`` those it uses when they were read; ``ranges``
    bound its choices [mm]; ``asks`` is what a try-on of it notes; ``eases`` tells whether the
    maker's ease is a choice here, and ``wired`` whether the wire is.
    """

    kind: str
    family: ClassVar[str]
    part: ClassVar[str]
    sites: ClassVar[tuple[str, ...]]
    helps: ClassVar[tuple[str, ...]] = ()
    ranges: ClassVar[dict[str, tuple[float, float]]] = {}
    asks: ClassVar[tuple[str, ...]] = ("goes_on", "inside_girth")
    eases: ClassVar[bool] = True
    wired: ClassVar[bool] = True

    @classmethod
    def __pydantic_init_subclass__(cls, **kwargs: Any) -> None:
        kind = cls.model_fields["kind"]
        # A base of several constructions has no kind of its own.
        if not kind.is_required():
            _registry[kind.default] = cls

    @model_validator(mode="after")
    def _in_range(self) -> "Construction":
        for name, (low, high) in self.ranges.items():
            value = getattr(self, name)
            if not low <= value <= high:
                raise refused(
                    Refusal("out_of_range", got=f"{value:g}", under=name, low=low, high=high)
                )
        return self

    def wants(self) -> tuple[str, ...]:
        """Return the sites that this piece needs measured."""
        return self.sites

    @abstractmethod
    def solve(self, job: Job) -> Plan:
        """Return the plan of this construction.

        Raises:
            Refusal: measures or choices that this construction can't be made from.
        """

    @classmethod
    def choices(cls) -> tuple[Choice, ...]:
        """Return the construction's own choices, in the order in which they are declared."""
        return tuple(
            _choice(name, field, cls.ranges.get(name, (None, None)))
            for name, field in cls.model_fields.items()
            if name != "kind"
        )


def _choice(name: str, field: FieldInfo, limits: tuple[float | None, float | None]) -> Choice:
    annotation, default = field.annotation, field.default
    low, high = limits
    if typing.get_origin(annotation) is Literal:
        options = tuple(str(o) for o in typing.get_args(annotation))
        return Choice(name=name, type="option", default=str(default), options=options)
    if isinstance(default, bool):
        return Choice(name=name, type="flag", default=default)
    typed = any(isinstance(m, BeforeValidator) for m in field.metadata)
    kind: Literal["length", "number", "whole"] = (
        "whole" if annotation is int else "length" if typed else "number"
    )
    return Choice(name=name, type=kind, default=default, low=low, high=high)


def registered() -> Mapping[str, type[Construction]]:
    """Return all constructions by kind."""
    return dict(sorted(_registry.items()))
