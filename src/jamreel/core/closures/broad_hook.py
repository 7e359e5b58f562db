"""The broad hook and catch for bundled bracelets, both curved to the wrist."""

import math
from typing import ClassVar, Literal

from jamreel.core.choices import choice
from jamreel.core.closures.base import Fastened, closure_step
from jamreel.core.closures.two_legged import TwoLegged, both_sides
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import Made
from jamreel.core.path.loops import centred, turned_over
from jamreel.core.path.moves import Bend, Straight
from jamreel.core.values import Length, OptionalLength


class BroadHook(TwoLegged):
    """A U turned over into a broad hook, and a wider U as its catch, looped to the bundle."""

    kind: Literal["broad_hook"] = "broad_hook"
    first: ClassVar[tuple[str, ...]] = ("hook_pin", "catch_pin", "loop_pin", "shank", "into")
    shank: Length = choice(12.7, 4, 40)
    hook_pin: Length = choice(6.35, 2, 16)
    catch_leg: Length = choice(8.0, 2, 40)
    catch_pin: Length = choice(9.5, 3, 30)
    loop_pin: Length = choice(3.2, 1, 12)
    catch_loop_pin: OptionalLength = choice(None, 1, 12, when=("into", "own"))

    def make(self, wires: Palette) -> Fastened:
        """Return both halves; the hook is as broad as the pin its U is bent on lets pass."""
        w = wires.of("closure", self.wire)
        broad = max(self.catch_pin - 2 * w.d - 1.0, 2 * w.d)
        return self.fastened(w, wires, self._hook(w, broad), broad + 2 * w.d)

    def _hook(self, w: Wire, broad: float) -> Made:
        """Return the hook: a U as broad as the catch lets pass, turned over."""
        # Both legs go over the pin, and the bow comes to lie underneath.
        crook = turned_over(Bend(angle=math.pi, pin=self.hook_pin, label="crook"))
        rows = (
            ("loop", centred(self.loop(self.loop_pin), first=True)),
            ("leg", (Straight(length=self.shank), *crook)),
        )
        return self.hook_half(
            w,
            both_sides(rows, Bend(angle=math.pi, pin=broad, label="bow")),
            self.shank,
            apart=broad + w.d,
            thickness=self.hook_pin + 2 * w.d,
            width=broad + w.d + self.loop_pin + 2 * w.d,
            steps=(
                closure_step("broad_u", pin=broad),
                closure_step("broad_loops", pin=self.loop_pin),
                closure_step("turn_over", pin=self.hook_pin),
            ),
            minutes=7.0,
        )

    def catch(self, w: Wire) -> Made:
        """Return the catch: a wider U."""
        rows = (
            ("loop", centred(self.loop(self.catch_loop), first=True)),
            ("leg", (Straight(length=self.catch_leg),)),
        )
        apart = self.catch_pin + w.d
        wide = apart + self.catch_loop + 2 * w.d
        return self.catch_half("broad_catch", w, rows, leg=self.catch_leg, apart=apart, wide=wide)
