"""The plain loop: a stem with one loop that opens, to hang something bare from."""

import math
from typing import Literal

from jamreel.core.choices import choice
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import Made, Part, Role, WireUse, part_step
from jamreel.core.parts.drawn import drawn, laid
from jamreel.core.parts.ends import PIN_RANGE, Loop
from jamreel.core.parts.pictures import bead, hung
from jamreel.core.path.moves import Flatten
from jamreel.core.values import Length
from jamreel.core.wire.gauges import OptionalSize


class PlainLoop(Part):
    """A drop of bare wire: a loop, a stem, its end hammered to a paddle."""

    kind: Literal["plain_loop"] = "plain_loop"
    stem: Length = choice(20.0, 1, 150)
    pin: Length = choice(3.0, *PIN_RANGE)

    wire: OptionalSize = None

    @property
    def role(self) -> Role:
        """Hangs."""
        return "drop"

    def make(self, wires: Palette) -> Made:
        """Return the drop; the paddle at its end is as thick as half its wire."""
        w = wires.of("body", self.wire)
        loop = Loop("plain", w, self.pin)
        hang = loop.reach + self.stem
        paddle = min(self.stem, 4 * w.d)
        # Hammered to half its thickness, and all of it gone to the sides.
        wide = math.pi * w.d / 2
        stretches = (
            *loop.stretches("left"),
            ("body", (Flatten(length=self.stem, thickness=w.d / 2),)),
        )
        use = laid(WireUse(self.kind, w, stretches), left=0.0)
        end = bead(hang - paddle / 2, paddle, wide, "wire")
        return Made(
            length=0.0,
            thickness=w.d,
            width=max(self.pin + 2 * w.d, wide),
            hang=hang,
            ends=(loop.end(), loop.end()),
            wires=(use,),
            holds=(loop.hold,),
            strokes=hung((*drawn(use), end)),
            steps=(
                part_step("paddle", cautions=("hammer",), check=True),
                *loop.hung_steps(),
            ),
            minutes=2.5,
            advice=loop.advice,
        )
