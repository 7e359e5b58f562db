"""The doubled hook with two side loops, for wide or two-loop ends; and a wide catch."""

import math
from typing import ClassVar, Literal

from jamreel.core.choices import choice
from jamreel.core.closures.base import Fastened, closure_step
from jamreel.core.closures.receiving import body_in
from jamreel.core.closures.two_legged import TwoLegged, both_sides
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import Made
from jamreel.core.path.loops import turned_over
from jamreel.core.path.moves import Bend, Fold, Kink, Straight
from jamreel.core.values import Length, OptionalLength


class DoubledHook(TwoLegged):
    """A doubled hook whose two ends are turned outwards into loops ``apart`` from each other."""

    kind: Literal["doubled_hook"] = "doubled_hook"
    first: ClassVar[tuple[str, ...]] = ("hook_pin", "loop_pin", "apart", "shank", "into")
    shank: Length = choice(10.0, 2, 40)
    hook_pin: Length = choice(5.0, 2, 16)
    apart: Length = choice(10.0, 4, 60)
    loop_pin: Length = choice(2.5, 1, 12)
    catch_pin: Length = choice(6.0, 2, 20, when=("into", "own"))
    catch_loop_pin: OptionalLength = choice(None, 1, 12, when=("into", "own"))

    def make(self, wires: Palette) -> Fastened:
        """Return both halves: the catch is a U as wide as the loops stand apart."""
        w = wires.of("closure", self.wire)
        return self.fastened(w, wires, self._hook(w), 2 * w.d)

    def _wide(self, w: Wire, pin: float) -> float:
        # Each loop's middle lies where its arm ends.
        return self.apart + pin + 2 * w.d

    def _hook(self, w: Wire) -> Made:
        # How far each loop stands to its side.
        side = Straight(length=max(0.0, self.apart / 2 - w.d / 2))
        crook = turned_over(Bend(angle=math.pi, pin=self.hook_pin, label="crook"))
        rows = (
            ("loop", (self.loop(self.loop_pin),)),
            ("side", (side, Kink(angle=math.pi / 2, side="right"))),
            ("leg", (Straight(length=self.shank), *crook, Straight(length=2.5 * w.d))),
        )
        return self.hook_half(
            w,
            both_sides(rows, Fold(label="fold")),
            self.shank,
            apart=self.apart,
            thickness=2 * w.d,
            width=self._wide(w, self.loop_pin),
            steps=(
                closure_step("fold", fold=self.shank + 2.5 * w.d),
                closure_step("side_loops", pin=self.loop_pin, apart=self.apart),
                body_in(),
                closure_step("loops_close"),
                closure_step("crook", pin=self.hook_pin),
            ),
            minutes=7.0,
        )

    def catch(self, w: Wire) -> Made:
        """Return the catch: its feet run straight, then turn out, or in, to where a loop is."""
        foot = self.catch_pin / 2
        across = self.apart / 2 - (self.catch_pin + w.d) / 2
        turn = Kink(angle=math.pi / 2, side="right" if across >= 0 else "left")
        rows = (
            ("loop", (self.loop(self.catch_loop),)),
            ("side", (Straight(length=abs(across)), turn)),
            ("leg", (Straight(length=foot),)),
        )
        return self.catch_half(
            "wide_catch", w, rows, leg=foot, apart=self.apart, wide=self._wide(w, self.catch_loop)
        )
