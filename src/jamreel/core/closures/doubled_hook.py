"""The doubled hook with two side loops, for wide or two-loop ends; and a wide catch."""

import math
from typing import ClassVar, Literal

from jamreel.core.advice.closing import hook_passes
from jamreel.core.closures.base import Closure, Fastened, Lies, closure_step, lying
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import End, Made, Stretches, WireUse, opens_at
from jamreel.core.parts.pictures import arc_points, edge, ring
from jamreel.core.path.bearings import hook_bearing
from jamreel.core.path.moves import Bend, Fold, Straight
from jamreel.core.values import Length, Stroke
from jamreel.core.wire.gauges import OptionalSize


class DoubledHook(Closure):
    """A doubled hook whose two ends are turned outwards into loops ``apart`` from each other."""

    ranges: ClassVar[dict[str, tuple[float, float]]] = {
        "shank": (2, 40),
        "hook_pin": (2, 16),
        "apart": (4, 60),
        "loop_pin": (1, 12),
        "catch_pin": (2, 20),
    }

    kind: Literal["doubled_hook"] = "doubled_hook"
    shank: Length = 10.0
    hook_pin: Length = 5.0
    apart: Length = 10.0
    loop_pin: Length = 2.5
    catch_pin: Length = 6.0
    lies: Lies = "flat"
    wire: OptionalSize = None

    def make(self, wires: Palette) -> Fastened:
        """Return both halves: the catch is a U as wide as the loops stand apart."""
        w = wires.of("closure", self.wire)
        loop = Bend(angle=2 * math.pi, pin=self.loop_pin, label="loop")
        side = max(0.0, self.apart / 2 - w.d / 2)
        arm = (Straight(length=self.shank), Bend(angle=math.pi, pin=self.hook_pin, label="crook"))
        tip = Straight(length=2.5 * w.d)
        hook_wire: Stretches = (
            ("loop_left", (loop,)),
            ("leg_left", (Straight(length=side), *arm, tip)),
            ("body", (Fold(label="fold"),)),
            ("leg_right", (tip, *arm[::-1], Straight(length=side))),
            ("loop_right", (loop,)),
        )
        reach = self.loop_pin + w.d
        hook_length = reach + self.shank + hook_bearing(self.hook_pin)
        leg = self.catch_pin / 2
        u_bend = Bend(angle=math.pi, pin=self.catch_pin, label="catch")
        catch_wire: Stretches = (
            ("loop_left", (loop,)),
            ("leg_left", (Straight(length=side + leg),)),
            ("body", (u_bend,)),
            ("leg_right", (Straight(length=side + leg),)),
            ("loop_right", (loop,)),
        )
        catch_length = reach + leg + hook_bearing(self.catch_pin)
        # Each loop's middle lies where its arm ends.
        wide = self.apart + self.loop_pin + 2 * w.d
        hook = Made(
            length=hook_length,
            thickness=2 * w.d,
            width=wide,
            ends=(End(self.loop_pin, w.d, True, "flat"), End(self.hook_pin, w.d, False, "flat")),
            wires=(WireUse("doubled_hook", w, hook_wire),),
            holds=(
                opens_at("hook", w, self.hook_pin, 2),
                opens_at("plain_loop", w, self.loop_pin, 2),
            ),
            strokes=self._hook_picture(w.d, reach),
            steps=(
                closure_step("fold", fold=self.shank + 2.5 * w.d),
                closure_step("crook", pin=self.hook_pin),
                closure_step("side_loops", pin=self.loop_pin, apart=self.apart),
            ),
            minutes=7.0,
        )
        catch = Made(
            length=catch_length,
            thickness=w.d,
            width=wide,
            ends=(End(self.catch_pin, w.d, False, "flat"), End(self.loop_pin, w.d, True, "flat")),
            wires=(WireUse("wide_catch", w, catch_wire),),
            holds=(opens_at("plain_loop", w, self.loop_pin, 2),),
            strokes=self._catch_picture(w.d, catch_length),
            steps=(closure_step("catch", pin=self.catch_pin, apart=self.apart),),
            minutes=4.0,
        )
        return Fastened(
            lying(catch, self.lies),
            lying(hook, self.lies),
            (hook_passes(2 * w.d, self.catch_pin),),
            one_hand=True,
        )

    def _hook_picture(self, d: float, reach: float) -> tuple[Stroke, ...]:
        x, r, y = reach + self.shank, (self.hook_pin + d) / 2, self.apart / 2
        across = Stroke(part="wire", points=((reach, -y), (reach, y)), width_mm=d)
        return (
            across,
            *(ring(self.loop_pin / 2, self.loop_pin, d, side * y) for side in (-1, 1)),
            edge(reach, x, 2 * d),
            Stroke(
                part="wire", points=arc_points(x, -r, r, r, math.pi / 2, -math.pi), width_mm=2 * d
            ),
            edge(x - 2.5 * d, x, 2 * d, -2 * r),
        )

    def _catch_picture(self, d: float, length: float) -> tuple[Stroke, ...]:
        y, r = self.apart / 2, (self.catch_pin + d) / 2
        foot = length - self.loop_pin - d
        bow = arc_points(r - d / 2, 0, r, r, math.pi / 2, math.pi)
        return (
            Stroke(
                part="wire", points=((foot, y), (foot, r), *bow, (foot, -r), (foot, -y)), width_mm=d
            ),
            *(ring(length - self.loop_pin / 2, self.loop_pin, d, side * y) for side in (-1, 1)),
        )
