"""A bought bar with a pin behind and a loop at each end: a brooch hangs from it."""

from typing import Literal

from jamreel.core.choices import choice
from jamreel.core.closures.base import Closure, Fastened, closure_step
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import Bought, End, Made, size_of
from jamreel.core.parts.pictures import box, ring
from jamreel.core.parts.weights import CLASP_G_PER_MM
from jamreel.core.values import Length, Stroke

# So much of the bar is drawn beside a loop [mm].
STUB_MM = 8.0


class BarPin(Closure):
    """It takes no length of the line: the line hangs between the insides of its two loops."""

    kind: Literal["bar_pin"] = "bar_pin"
    bar: Length = choice(50.0, 10, 200)
    bar_thickness: Length = choice(3.0, 0.5, 12)
    bar_loop: Length = choice(2.5, 0.8, 12)

    def make(self, wires: Palette) -> Fastened:
        """Return both ends of the bar; what it bears is not known."""
        wire = min(1.0, self.bar_thickness / 2)
        end = End(self.bar_loop, wire, False)
        bought = Bought("bar_pin", size_of(self.bar), 1, CLASP_G_PER_MM * self.bar, self.bar)
        half = Made(
            length=0.0,
            thickness=self.bar_thickness,
            width=self.bar_loop + 2 * wire,
            ends=(end, end),
            strokes=self._end(wire, -1),
        )
        first = half.but(
            bought=(bought,), steps=(closure_step("bar_pin", bar=self.bar),), minutes=1.0
        )
        return Fastened(first, half.but(strokes=self._end(wire, 1)), one_hand=True)

    def _end(self, wire: float, side: int) -> tuple[Stroke, ...]:
        """Return one loop, and as much of the bar behind it as shows where it goes on."""
        near, far = self.bar_loop + wire, self.bar_loop + wire + STUB_MM
        left, right = sorted((side * near, side * far))
        return (
            box(left, right, self.bar_thickness, "bought"),
            ring(side * self.bar_loop / 2, self.bar_loop, wire, 0.0, "bought"),
        )
