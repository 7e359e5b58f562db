"""The bare drop: a stem of wire with one loop, its end hammered to a paddle."""

import math
from typing import ClassVar, Literal

from jamreel.core.choices import choice
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import Made, Role, WireUse, part_step
from jamreel.core.parts.drawn import drawn, laid
from jamreel.core.parts.ends import Looped
from jamreel.core.parts.pictures import bead, hung
from jamreel.core.path.moves import Flatten
from jamreel.core.values import Length
from jamreel.core.wire.gauges import OptionalSize


class BareDrop(Looped):
    """A drop of bare wire: a loop, a stem, its end hammered to a paddle."""

    joins: ClassVar[Role] = "drop"

    kind: Literal["bare_drop"] = "bare_drop"
    stem: Length = choice(20.0, 1, 150)
    wire: OptionalSize = None

    def make(self, wires: Palette) -> Made:
        """Return the drop; the paddle at its end is as thick as half its wire."""
        w = wires.of("body", self.wire)
        loop = self.loop_of(w)
        hang = loop.reach + self.stem
        paddle = min(self.stem, 4 * w.d)
        # Hammered to half its thickness, and all of it gone to the sides.
        wide = math.pi * w.d / 2
        stem = Flatten(length=self.stem, thickness=w.d / 2)
        use = laid(WireUse(self.kind, w, (*loop.stretches("left"), ("body", (stem,)))), left=0.0)
        return Made(
            length=0.0,
            thickness=loop.thickness,
            width=max(self.pin + 2 * w.d, wide),
            hang=hang,
            ends=(loop.end(), loop.end()),
            wires=(use,),
            holds=(loop.hold,),
            strokes=hung((*drawn(use), bead(hang - paddle / 2, paddle, wide, "wire"))),
            steps=(part_step("paddle", cautions=("hammer",), check=True), *loop.hung_steps()),
            minutes=4.0 if loop.wrapped else 2.5,
            advice=loop.advice,
        )
