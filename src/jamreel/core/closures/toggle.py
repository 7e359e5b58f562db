"""The toggle: a bar that goes through a ring end on and lies across it."""

import math
from typing import ClassVar, Literal

from jamreel.core.advice.closing import bar_holds
from jamreel.core.closures.base import Closure, Fastened, Lies, Passes, closure_step, lying
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.heat import solderable
from jamreel.core.forming.palette import Palette
from jamreel.core.forming.strength import bar_force
from jamreel.core.parts.base import End, Hold, Made, WireUse, opens_at, ovals_at
from jamreel.core.parts.pictures import edge, ring
from jamreel.core.path.moves import Bend, Straight
from jamreel.core.values import Length, Stroke
from jamreel.core.wire.gauges import OptionalSize


class Toggle(Closure):
    """Bar and ring of one wire; each has a small loop for the body, the ring perhaps soldered."""

    ranges: ClassVar[dict[str, tuple[float, float]]] = {
        "ring_pin": (4, 30),
        "bar": (6, 60),
        "loop_pin": (1, 8),
    }

    kind: Literal["toggle"] = "toggle"
    ring_pin: Length = 12.0
    bar: Length = 18.0
    loop_pin: Length = 2.5
    soldered: bool = False
    lies: Lies = "flat"
    wire: OptionalSize = None

    def make(self, wires: Palette) -> Fastened:
        """Return both halves: the bar's loop bears on the far inside of the ring.

        Raises:
            Refusal: a ring to be soldered of a metal that can't be.
        """
        w = wires.of("closure", self.wire)
        solderable(w, self.soldered)
        loop = Bend(angle=2 * math.pi, pin=self.loop_pin, label="loop")
        turn = Bend(angle=2 * math.pi, pin=self.ring_pin, label="ring")
        small = self.loop_pin + w.d
        receiving = Made(
            length=self.ring_pin + small,
            thickness=w.d,
            width=self.ring_pin + 2 * w.d,
            ends=(End(self.ring_pin, w.d, False, "flat"), End(self.loop_pin, w.d, True, "flat")),
            wires=(WireUse("toggle_ring", w, (("body", (turn,)), ("loop_right", (loop,)))),),
            holds=self._ring_holds(w),
            strokes=(
                ring(self.ring_pin / 2, self.ring_pin, w.d),
                ring(self.ring_pin + w.d + self.loop_pin / 2, self.loop_pin, w.d),
            ),
            steps=(
                closure_step("toggle_ring", pin=self.ring_pin),
                *((closure_step("solder_ring", cautions=("torch",)),) if self.soldered else ()),
            ),
            minutes=5.0,
        )
        half = Straight(length=self.bar / 2)
        across = Stroke(
            part="wire",
            points=((small + w.d / 2, -self.bar / 2), (small + w.d / 2, self.bar / 2)),
            width_mm=w.d,
        )
        # The bar's middle is turned once round the pin, its loop carries the body.
        holding = Made(
            length=small,
            thickness=2 * w.d,
            width=self.bar,
            ends=(End(self.loop_pin, w.d, True, "flat"), End(0.0, w.d, False, "flat")),
            wires=(
                WireUse(
                    "toggle_bar",
                    w,
                    (("bar_left", (half,)), ("body", (loop,)), ("bar_right", (half,))),
                ),
            ),
            holds=(
                Hold("toggle_bar", bar_force(w.moment, 2 * w.radius_on(self.ring_pin))),
                ovals_at("toggle_loop", w, self.loop_pin),
            ),
            strokes=(
                across,
                ring(self.loop_pin / 2, self.loop_pin, w.d),
                edge(self.loop_pin + w.d / 2, small + w.d / 2, w.d),
            ),
            steps=(
                closure_step("toggle_bar", cautions=("ends",), pin=self.loop_pin, bar=self.bar),
            ),
            minutes=4.0,
        )
        return Fastened(
            lying(receiving, self.lies),
            lying(holding, self.lies),
            (bar_holds(self.bar, self.ring_pin),),
            passes=Passes(self.ring_pin, w.d),
        )

    def _ring_holds(self, w: Wire) -> tuple[Hold, ...]:
        if self.soldered:
            return (ovals_at("soldered_ring", w, self.ring_pin),)
        return (
            opens_at("open_ring", w, self.ring_pin),
            opens_at("plain_loop", w, self.loop_pin),
        )
