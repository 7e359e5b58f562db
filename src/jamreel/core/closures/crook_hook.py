"""The crook hook: one wire, a curled tip, a wrapped loop; and a wrapped eye."""

import math
from typing import ClassVar, Literal

from jamreel.core.advice.closing import hook_passes
from jamreel.core.closures.base import Closure, Fastened, Lies, closure_step, lying
from jamreel.core.closures.eye import JOIN_PIN_MM, wrapped_eye
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import End, Made, WireUse, opens_at, ovals_at
from jamreel.core.parts.ends import loop_end
from jamreel.core.parts.pictures import arc_points, edge, ring, wraps
from jamreel.core.path.hook import Crook
from jamreel.core.path.loops import wrapped_loop_reach
from jamreel.core.path.moves import Straight
from jamreel.core.values import Length, Stroke
from jamreel.core.wire.gauges import OptionalSize


class CrookHook(Closure):
    """A hook of single wire, its tip curled outwards so that it guides the eye in."""

    ranges: ClassVar[dict[str, tuple[float, float]]] = {
        "shank": (1, 40),
        "hook_pin": (2, 16),
        "tip_pin": (0.5, 5),
        "wraps": (1, 10),
        "eye_pin": (2, 20),
        "tail": (0, 60),
    }

    kind: Literal["crook_hook"] = "crook_hook"
    shank: Length = 6.0
    hook_pin: Length = 5.0
    tip_pin: Length = 1.0
    wraps: int = 3
    eye_pin: Length = 5.0
    tail: Length = 12.0
    lies: Lies = "flat"
    wire: OptionalSize = None

    def make(self, wires: Palette) -> Fastened:
        """Return both halves; the curled tip is what has to pass the eye."""
        w = wires.of("closure", self.wire)
        reach = wrapped_loop_reach(self.wraps, JOIN_PIN_MM, w.d)
        crook = Crook(self.hook_pin, self.tip_pin)
        length = reach + self.shank + crook.bearing
        tip, bow = crook.moves()
        hook = Made(
            length=length,
            thickness=max(w.d, 3 * w.d if self.wraps else w.d),
            # From the join loop's side to the outside of the curled tip.
            width=(JOIN_PIN_MM + w.d) / 2 + self.hook_pin + self.tip_pin + 3 * w.d,
            ends=(End(JOIN_PIN_MM, w.d, True, "flat"), End(self.hook_pin, w.d, False, "flat")),
            wires=(
                WireUse(
                    "crook_hook",
                    w,
                    (
                        *loop_end("wrapped", w, JOIN_PIN_MM, self.wraps, self.tail, "left"),
                        ("body", (Straight(length=self.shank),)),
                        ("crook", (bow,)),
                        ("tip", (tip,)),
                    ),
                ),
            ),
            holds=(
                opens_at("hook", w, self.hook_pin),
                ovals_at("wrapped_loop", w, JOIN_PIN_MM),
            ),
            strokes=self._picture(w.d, reach),
            steps=(
                closure_step("tip", pin=self.tip_pin),
                closure_step("crook", pin=self.hook_pin),
                closure_step("join_loop", cautions=("ends",), wraps=self.wraps),
            ),
            minutes=6.0,
        )
        eye = wrapped_eye(w, self.eye_pin, 2, self.tail)
        return Fastened(
            lying(eye, self.lies),
            lying(hook, self.lies),
            (hook_passes(crook.width(w.d), self.eye_pin),),
            one_hand=True,
        )

    def _picture(self, d: float, reach: float) -> tuple[Stroke, ...]:
        x, r = reach + self.shank, (self.hook_pin + d) / 2
        tip = (self.tip_pin + d) / 2
        return (
            ring(JOIN_PIN_MM / 2, JOIN_PIN_MM, d),
            edge(JOIN_PIN_MM + d / 2, x, d),
            Stroke(part="wire", points=arc_points(x, -r, r, r, math.pi / 2, -math.pi), width_mm=d),
            Stroke(
                part="wire",
                points=arc_points(x, -2 * r - tip, tip, tip, math.pi / 2, 1.5 * math.pi),
                width_mm=d,
            ),
            *wraps(JOIN_PIN_MM + d, self.wraps, d, 3 * d),
        )
