"""How the bars of a body end: in eyes of their own, or bare, to go into a cap."""

from dataclasses import dataclass
from functools import cached_property

from jamreel.core.bench.steps import Step
from jamreel.core.forming.chosen import Wire
from jamreel.core.parts.base import End, Hold, Stretches, opens_at, part_step
from jamreel.core.parts.ends import Loop, Side
from jamreel.core.path.moves import Straight

# So much of each bar stands over where it ends bare and no cap is chosen [mm]; common practice.
BARE_MM = 8.0


@dataclass(frozen=True)
class Ending:
    """How the bars of a body end: each in an eye on a ``pin`` [mm], or bare, bound together, so
    much of them ``over`` that goes into a cap [mm]."""

    bar: Wire
    pin: float
    bare: bool
    over: float = BARE_MM

    @cached_property
    def _loop(self) -> Loop:
        return Loop("plain", self.bar, self.pin)

    @property
    def reach(self) -> float:
        """How far an eye's bearing point lies beyond the body [mm]; what is in a cap is no length
        of its own."""
        return 0.0 if self.bare else self._loop.reach

    def stretches(self, side: Side) -> Stretches:
        """Return what it takes of a bar on one side."""
        if self.bare:
            return ((f"tail_{side}", (Straight(length=self.over),)),)
        return self._loop.stretches(side)

    def in_row(self, count: int, apart: float) -> tuple[End, End] | None:
        """Return what joins see of both ends of the body: so many eyes.

        Args:
            count: side by side.
            apart: from middle to middle [mm].
        """
        end = self._loop.end().in_row(count, apart)
        return None if self.bare else (end, end)

    @property
    def holds(self) -> tuple[Hold, ...]:
        """What an eye holds before it opens."""
        return () if self.bare else (eye_hold(self.bar, self.pin),)

    def steps(self, key: str) -> tuple[Step, ...]:
        """Return the last steps of the body: its eyes, or its ends bound for a cap."""
        if self.bare:
            return (part_step("woven_bound", cautions=("eyes",), check=True, long=self.over),)
        return (part_step(key, cautions=("ends",), check=True, pin=self.pin),)


def eye_hold(wire: Wire, pin: float) -> Hold:
    """Return what a bar's eye holds before it opens."""
    return opens_at("plain_loop", wire, pin)
