"""The doubled hook with two side loops, for wide or two-loop ends; and a wide catch."""

import math
from typing import ClassVar, Literal

from jamreel.core.choices import choice
from jamreel.core.closures.base import Fastened, Passes, closure_step
from jamreel.core.closures.receiving import Hook, body_in
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import End, Made, Stretches, WireUse, opens_at
from jamreel.core.parts.drawn import drawn, laid
from jamreel.core.path.bearings import hook_bearing
from jamreel.core.path.loops import turned_over
from jamreel.core.path.moves import Bend, Fold, Kink, Straight
from jamreel.core.values import Length


class DoubledHook(Hook):
    """A doubled hook whose two ends are turned outwards into loops ``apart`` from each other."""

    one_loop: ClassVar[bool] = False

    kind: Literal["doubled_hook"] = "doubled_hook"
    shank: Length = choice(10.0, 2, 40)
    hook_pin: Length = choice(5.0, 2, 16)
    apart: Length = choice(10.0, 4, 60)
    loop_pin: Length = choice(2.5, 1, 12)
    catch_pin: Length = choice(6.0, 2, 20, when=("into", "own"))

    def make(self, wires: Palette) -> Fastened:
        """Return both halves: the catch is a U as wide as the loops stand apart."""
        w = wires.of("closure", self.wire)
        return self.fastens_by(
            self.into_what(w, wires, lambda: self._catch(w)),
            self.on_body(self._hook(w), wires),
            Passes(2 * w.d),
        )

    def _loop(self) -> Bend:
        return Bend(angle=2 * math.pi, pin=self.loop_pin, label="loop")

    def _side(self, w: Wire) -> float:
        """Return how far each loop stands to its side [mm]."""
        return max(0.0, self.apart / 2 - w.d / 2)

    def _wide(self, w: Wire) -> float:
        # Each loop's middle lies where its arm ends.
        return self.apart + self.loop_pin + 2 * w.d

    def _hook(self, w: Wire) -> Made:
        side = Straight(length=self._side(w))
        shank = Straight(length=self.shank)
        crook = turned_over(Bend(angle=math.pi, pin=self.hook_pin, label="crook"))
        corner = Kink(angle=math.pi / 2, side="right")
        tip = Straight(length=2.5 * w.d)
        hook_wire: Stretches = (
            ("loop_left", (self._loop(),)),
            ("side_left", (side, corner)),
            ("leg_left", (shank, *crook, tip)),
            ("body", (Fold(label="fold"),)),
            ("leg_right", (tip, *crook, shank)),
            ("side_right", (corner, side)),
            ("loop_right", (self._loop(),)),
        )
        doubled = WireUse("doubled_hook", w, hook_wire, held="leg_left")
        use = laid(doubled, left=0.0, low=True)
        reach = self.loop_pin + w.d
        return Made(
            length=reach + self.shank + hook_bearing(self.hook_pin),
            thickness=2 * w.d,
            width=self._wide(w),
            ends=(End(self.loop_pin, w.d, True, "flat"), End(self.hook_pin, w.d, False, "flat")),
            wires=(use,),
            holds=(
                opens_at("hook", w, self.hook_pin, 2),
                opens_at("plain_loop", w, self.loop_pin, 2),
            ),
            strokes=drawn(use),
            steps=(
                closure_step("fold", fold=self.shank + 2.5 * w.d),
                closure_step("side_loops", pin=self.loop_pin, apart=self.apart),
                body_in(),
                closure_step("loops_close"),
                closure_step("crook", pin=self.hook_pin),
            ),
            minutes=7.0,
        )

    def _catch(self, w: Wire) -> Made:
        leg = self.catch_pin / 2
        # From the end of the bow its foot runs straight, then turns out, or in, to where a loop is.
        across = self.apart / 2 - (self.catch_pin + w.d) / 2
        foot = Straight(length=leg)
        arm = Straight(length=abs(across))
        turn = Kink(angle=math.pi / 2, side="right" if across >= 0 else "left")
        bow = Bend(angle=math.pi, pin=self.catch_pin, label="catch")
        length = self.loop_pin + w.d + leg + hook_bearing(self.catch_pin)
        stretches = (
            ("loop_left", (self._loop(),)),
            ("side_left", (arm, turn)),
            ("leg_left", (foot,)),
            ("body", (bow,)),
            ("leg_right", (foot,)),
            ("side_right", (turn, arm)),
            ("loop_right", (self._loop(),)),
        )
        catch = WireUse("wide_catch", w, stretches, held="leg_left", turn=math.pi)
        use = laid(catch, middle=length / 2, low=True)
        return Made(
            length=length,
            thickness=w.d,
            width=self._wide(w),
            ends=(End(self.catch_pin, w.d, False, "flat"), End(self.loop_pin, w.d, True, "flat")),
            wires=(use,),
            holds=(opens_at("plain_loop", w, self.loop_pin, 2),),
            strokes=drawn(use),
            steps=(closure_step("catch", pin=self.catch_pin, apart=self.apart),),
            minutes=4.0,
        )
