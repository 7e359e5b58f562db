"""What every closure declares: a receiving half, a holding half, and how they mate."""

from abc import ABC, abstractmethod
from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any, Literal

from jamreel.core.advice import Advice
from jamreel.core.bench.steps import Step, step
from jamreel.core.choices import Asking
from jamreel.core.forming.chosen import Wire
from jamreel.core.parts.base import Hold, Made
from jamreel.core.words import say

Lies = Literal["flat", "standing"]
_registry: dict[str, type["Closure"]] = {}


@dataclass(frozen=True)
class Fastened:
    """A closure as made. The holding half's bearing point meets the receiving half's, so that the
    two inside lengths add up. ``adds_range`` is how much further it can be fastened [mm]."""

    receiving: Made
    holding: Made
    hold: Hold | None
    mates: tuple[Advice | None, ...] = ()
    one_hand: bool = False
    adds_range: float = 0.0

    @property
    def length(self) -> float:
        """What the closure adds to the piece [mm]."""
        return self.receiving.length + self.holding.length


class Closure(Asking, ABC):
    """A way to fasten a piece: its own choices as fields, both halves in ``make``."""

    kind: str

    @classmethod
    def __pydantic_init_subclass__(cls, **kwargs: Any) -> None:
        kind = cls.model_fields["kind"]
        if not kind.is_required():
            _registry[kind.default] = cls

    @abstractmethod
    def make(self, wire: Wire) -> Fastened:
        """Return the closure as made of a wire. Raises Refusal for halves that can't be made."""

    @property
    def says(self) -> str:
        """What it is called."""
        return say(f"closure.{self.kind}.name")


def registered_closures() -> Mapping[str, type[Closure]]:
    """Return all closures by kind."""
    return dict(sorted(_registry.items()))


def lying(made: Made, lies: Lies) -> Made:
    """Return a half lying flat against the skin, or standing on edge.

    Args:
        made: the half lying flat.
        lies: as chosen.
    """
    if lies == "flat":
        return made
    return replace(made, thickness=made.width, width=made.thickness)


def closure_step(key: str, *, cautions: tuple[str, ...] = (), **v: Any) -> Step:
    """Return a step of making a closure, under ``step.closure.<key>``; each ends in a look."""
    return step(f"closure.{key}", "form", cautions=cautions, check=True, **v)


NOTHING = Made(length=0.0, thickness=0.0, width=0.0)
