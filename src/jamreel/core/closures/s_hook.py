"""The S-hook: one half bound shut, the other open; hammered flat."""

import math
from typing import ClassVar, Literal

from jamreel.core.advice.closing import hook_passes
from jamreel.core.closures.base import Closure, Fastened, Lies, closure_step, lying
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.heat import solderable
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import End, Made, WireUse, opens_at, ovals_at
from jamreel.core.parts.pictures import arc_points, ring, wraps
from jamreel.core.path.coils import binding_length, flat_row_perimeter
from jamreel.core.path.moves import Bend, Straight
from jamreel.core.values import Length, Stroke
from jamreel.core.wire.gauges import OptionalSize

# Held at each end of the binding while it is wound, and trimmed off [mm]; common practice.
TAIL_MM = 15.0


class SHook(Closure):
    """An S on one pin; the closed half stays on the piece, the open half takes a ring."""

    ranges: ClassVar[dict[str, tuple[float, float]]] = {
        "hook_pin": (2, 20),
        "wraps": (1, 10),
        "ring_pin": (2, 20),
    }

    kind: Literal["s_hook"] = "s_hook"
    hook_pin: Length = 6.0
    wraps: int = 3
    ring_pin: Length = 6.0
    soldered: bool = True
    lies: Lies = "flat"
    wire: OptionalSize = None

    def make(self, wires: Palette) -> Fastened:
        """Return both halves: the S bears at the insides of its two bows.

        Raises:
            Refusal: a ring to be soldered of a metal that can't be.
        """
        w = wires.of("closure", self.wire)
        solderable(w, self.soldered)
        fine = wires.of("winding", None, usual=max(0.3, w.d / 2))
        return Fastened(
            lying(self._ring(w), self.lies),
            lying(self._hook(w, fine), self.lies),
            (hook_passes(1.5 * w.d, self.ring_pin),),
            one_hand=True,
        )

    def _hook(self, w: Wire, fine: Wire) -> Made:
        """Return the S; finer wire binds the tip of its closed half to the middle."""
        bow = Bend(angle=1.35 * math.pi, pin=self.hook_pin, label="bow")
        other = Bend(angle=1.35 * math.pi, pin=self.hook_pin, side="right", label="bow")
        length = 2 * self.hook_pin + w.d
        tips = Straight(length=1.5 * w.d)
        binds = binding_length(self.wraps, flat_row_perimeter(2, w.d), fine.d / 2, fine.d)
        tail = Straight(length=TAIL_MM)
        return Made(
            length=length,
            thickness=max(0.8 * w.d, w.d + 2 * fine.d),
            width=self.hook_pin + 2 * w.d,
            ends=(End(self.hook_pin, w.d, True, "flat"), End(self.hook_pin, w.d, False, "flat")),
            wires=(
                WireUse(
                    "s_hook",
                    w,
                    (
                        ("tip_left", (tips,)),
                        ("crook", (bow,)),
                        ("body", (other,)),
                        ("tip", (tips,)),
                    ),
                ),
                WireUse(
                    "s_hook_binding",
                    fine,
                    (
                        ("tail_left", (tail,)),
                        ("binding", (Straight(length=binds),)),
                        ("tail_right", (tail,)),
                    ),
                ),
            ),
            holds=(opens_at("hook", w, self.hook_pin),),
            strokes=self._picture(w.d, fine.d),
            steps=(
                closure_step("s_bows", pin=self.hook_pin),
                closure_step("bind_half", cautions=("ends",), wraps=self.wraps),
                closure_step("hammer_hook", cautions=("hammer",)),
            ),
            minutes=6.0,
        )

    def _ring(self, w: Wire) -> Made:
        """Return the ring that it hooks into."""
        end = End(self.ring_pin, w.d, not self.soldered, "any")
        turn = Bend(angle=2 * math.pi, pin=self.ring_pin, label="ring")
        return Made(
            length=self.ring_pin,
            thickness=w.d,
            width=self.ring_pin + 2 * w.d,
            ends=(end, end),
            wires=(WireUse("hook_ring", w, (("body", (turn,)),)),),
            holds=(
                ovals_at("soldered_ring", w, self.ring_pin)
                if self.soldered
                else opens_at("jump_ring", w, self.ring_pin),
            ),
            strokes=(ring(self.ring_pin / 2, self.ring_pin, w.d),),
            steps=(
                closure_step(
                    "ring", cautions=("torch",) if self.soldered else ("eyes",), pin=self.ring_pin
                ),
            ),
            minutes=3.0,
        )

    def _picture(self, d: float, fine: float) -> tuple[Stroke, ...]:
        r = (self.hook_pin + d) / 2
        middle = self.hook_pin + d / 2
        first = arc_points(self.hook_pin / 2, 0, r, r, 0, 1.85 * math.pi)
        last = arc_points(middle + r, 0, r, r, math.pi, 1.35 * math.pi)
        return (
            Stroke(part="wire", points=first, width_mm=d),
            Stroke(part="wire", points=last, width_mm=d),
            *wraps(middle - self.wraps * fine / 2, self.wraps, fine, 2 * d + 2 * fine),
        )
