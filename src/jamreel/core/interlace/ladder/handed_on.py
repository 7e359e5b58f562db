"""Ends of a ladder handed on: every bar once round the next, until one is left, which ends in a
wrapped loop."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property

from jamreel.core.forming.chosen import Wire
from jamreel.core.interlace.base import at_height
from jamreel.core.interlace.body import Body
from jamreel.core.interlace.ladder.geometry import outer_end
from jamreel.core.interlace.ladder.outer import outer_bar
from jamreel.core.parts.base import Stretches, WireUse, ovals_at, part_step
from jamreel.core.parts.drawn import drawn, laid
from jamreel.core.parts.ends import Loop
from jamreel.core.path.coils import turn
from jamreel.core.path.moves import Bend, Straight, Wrap
from jamreel.core.values import Stroke


@dataclass(frozen=True)
class HandedOn:
    """Bars at ``places`` across the body, ``rows`` long between their ends, that are handed on from
    both sides to the middle one, which ends in loops on a ``pin`` with so many ``wraps`` and so
    long a ``tail`` [mm]."""

    bar: Wire
    places: tuple[float, ...]
    rows: float
    pin: float
    wraps: int
    tail: float

    @cached_property
    def loop(self) -> Loop:
        """The loop of the bar that is left."""
        return Loop("wrapped", self.bar, self.pin, self.wraps, self.tail)

    @property
    def middle(self) -> int:
        """The bar that is left; of an even count the one to the right of the middle."""
        return len(self.places) // 2

    @property
    def higher(self) -> float:
        """How much further out each bar ends than the one that is wound round it [mm]: its bend,
        a turn, and half a wire of air."""
        d = self.bar.d
        return d / 2 + d / 2 + 1.5 * d

    def step_of(self, n: int) -> int:
        """Return how many bars are handed on before one, from its side."""
        return n if n < self.middle else len(self.places) - 1 - n

    @property
    def room(self) -> float:
        """What all of it takes beyond the rows, up to the loop's stem [mm]."""
        return self.middle * self.higher

    @property
    def reach(self) -> float:
        """How far the loop bears beyond the rows [mm]."""
        return self.room + self.loop.reach

    def wires(self) -> tuple[WireUse, ...]:
        """Return the bars, alike ones once, the one that is left last."""
        d = self.bar.d
        bend = Bend(angle=math.pi / 2, pin=d, label="outer_end")
        found = []
        for step in range(self.middle):
            bars = [n for n in self._handed if self.step_of(n) == step]
            apart = min(abs(self.places[n] - self.places[self._next(n)]) for n in bars)
            over = outer_end(d / 2, d, apart, 1) - math.pi / 2 * d - turn(d, d, d)
            wound = Wrap(turns=1, core=d, label="outer_wraps")
            end: Stretches = (
                ("outer_end_left", (wound, Straight(length=over), bend)),
                ("body", (Straight(length=self.rows + 2 * step * self.higher),)),
                ("outer_end_right", (bend, Straight(length=over), wound)),
            )
            strokes = tuple(stroke for n in bars for stroke in self._drawn(n))
            key = f"ladder_handed_{step + 1}"
            found.append(WireUse(key, self.bar, end, quantity=len(bars), shown=strokes))
        long = self.rows + 2 * self.room
        body = ("body", (Straight(length=long),))
        stretches = (*self.loop.stretches("left"), body, *self.loop.stretches("right"))
        use = laid(WireUse("ladder_last", self.bar, stretches), middle=self.loop.reach + long / 2)
        return (*found, at_height(use, self.places[self.middle]))

    @property
    def _handed(self) -> Sequence[int]:
        return [n for n in range(len(self.places)) if n != self.middle]

    def _next(self, n: int) -> int:
        return n + 1 if n < self.middle else n - 1

    def _drawn(self, n: int) -> tuple[Stroke, ...]:
        out = self.step_of(n) * self.higher
        y, inner = self.places[n], self.places[self._next(n)]
        start, long = self.reach - out, self.rows + 2 * out
        return tuple(outer_bar(y, inner, start, long, self.bar.d, self.bar.d, 1))


def handed_on(body: Body, ends: HandedOn) -> Body:
    """Return a ladder whose bars were bare with its ends handed on to one loop.

    Args:
        body: with bare ends.
        ends: of its bars.

    Source: order of the hands, common practice; lengths by ``outer_end``.
    """
    wires = ends.wires()
    strokes = (s for use in wires for s in (use.shown or drawn(use)))
    one = part_step("ladder_hand_on", cautions=("eyes", "ends"), check=True, bars=len(ends.places))
    rest = tuple(step for step in body.work.finish if step.id != "woven_bound")
    end = ends.loop.end()
    return replace(
        body,
        size=replace(body.size, before=ends.reach, behind=ends.reach, ends=(end, end)),
        wires=replace(body.wires, frame=wires),
        look=replace(body.look, frame_strokes=tuple(strokes)),
        work=replace(body.work, finish=(*rest, one, *ends.loop.made_steps())),
        holds=(ovals_at("wrapped_loop", ends.bar, ends.pin),),
    )
