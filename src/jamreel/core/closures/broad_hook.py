"""The broad hook and catch for bundled bracelets, both curved to the wrist."""

import math
from typing import ClassVar, Literal

from jamreel.core.choices import choice
from jamreel.core.closures.base import Fastened, Passes, closure_step
from jamreel.core.closures.receiving import Hook
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import End, Made, WireUse, opens_at
from jamreel.core.parts.drawn import drawn, laid
from jamreel.core.path.bearings import hook_bearing
from jamreel.core.path.loops import centred, turned_over
from jamreel.core.path.moves import Bend, Straight
from jamreel.core.values import Length


class BroadHook(Hook):
    """A U turned over into a broad hook, and a wider U as its catch, looped to the bundle."""

    one_loop: ClassVar[bool] = False

    kind: Literal["broad_hook"] = "broad_hook"
    shank: Length = choice(12.7, 4, 40)
    hook_pin: Length = choice(6.35, 2, 16)
    catch_leg: Length = choice(8.0, 2, 40)
    catch_pin: Length = choice(9.5, 3, 30)
    loop_pin: Length = choice(3.2, 1, 12)

    def make(self, wires: Palette) -> Fastened:
        """Return both halves; the hook is as broad as the pin its U is bent on lets pass."""
        w = wires.of("closure", self.wire)
        broad = max(self.catch_pin - 2 * w.d - 1.0, 2 * w.d)
        return self.fastens_by(
            self.into_what(w, wires, lambda: self._catch(w)),
            self.on_body(self._hook(w, broad), wires),
            Passes(broad + 2 * w.d),
        )

    @property
    def _loop(self) -> Bend:
        return Bend(angle=2 * math.pi, pin=self.loop_pin, label="loop")

    def _hook(self, w: Wire, broad: float) -> Made:
        """Return the hook: a U as broad as the catch lets pass, turned over."""
        reach, loop = self.loop_pin + w.d, self._loop
        shank = Straight(length=self.shank)
        # Both legs go over the pin, and the bow comes to lie underneath.
        crook = turned_over(Bend(angle=math.pi, pin=self.hook_pin, label="crook"))
        stretches = (
            ("loop_left", centred(loop, first=True)),
            ("leg_left", (shank, *crook)),
            ("body", (Bend(angle=math.pi, pin=broad, label="bow"),)),
            ("leg_right", (*crook, shank)),
            ("loop_right", centred(loop, first=False)),
        )
        hook = WireUse("broad_hook", w, stretches, held="leg_left")
        use = laid(hook, left=0.0, low=True)
        return Made(
            length=reach + self.shank + hook_bearing(self.hook_pin),
            thickness=self.hook_pin + 2 * w.d,
            width=broad + w.d + self.loop_pin + 2 * w.d,
            ends=(End(self.loop_pin, w.d, True, "flat"), End(self.hook_pin, w.d, False, "flat")),
            wires=(use,),
            holds=(
                opens_at("hook", w, self.hook_pin, 2),
                opens_at("plain_loop", w, self.loop_pin, 2),
            ),
            strokes=drawn(use),
            steps=(
                closure_step("broad_u", pin=broad),
                closure_step("turn_over", pin=self.hook_pin),
                closure_step("curve_to_wrist"),
            ),
            minutes=7.0,
        )

    def _catch(self, w: Wire) -> Made:
        """Return the catch: a wider U."""
        reach, loop = self.loop_pin + w.d, self._loop
        length = reach + self.catch_leg + hook_bearing(self.catch_pin)
        leg = (Straight(length=self.catch_leg),)
        stretches = (
            ("loop_left", centred(loop, first=True)),
            ("leg_left", leg),
            ("body", (Bend(angle=math.pi, pin=self.catch_pin, label="catch"),)),
            ("leg_right", leg),
            ("loop_right", centred(loop, first=False)),
        )
        catch = WireUse("broad_catch", w, stretches, held="leg_left", turn=math.pi)
        use = laid(catch, middle=length / 2, low=True)
        return Made(
            length=length,
            thickness=w.d,
            width=self.catch_pin + w.d + self.loop_pin + 2 * w.d,
            ends=(End(self.catch_pin, w.d, False, "flat"), End(self.loop_pin, w.d, True, "flat")),
            wires=(use,),
            holds=(opens_at("plain_loop", w, self.loop_pin, 2),),
            strokes=drawn(use),
            steps=(closure_step("catch", pin=self.catch_pin, apart=self.catch_pin),),
            minutes=4.0,
        )
