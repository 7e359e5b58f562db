"""The wrapped loop: a stem with one loop wound shut on itself."""

import math
from typing import ClassVar, Literal

from jamreel.core.advice.parts import few_wraps
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import Made, Part, Role, WireUse, part_step
from jamreel.core.parts.ends import (
    PIN_RANGE,
    TAIL_RANGE,
    WRAPS_RANGE,
    end_of,
    hold_of,
    loop_end,
    loop_picture,
    reach,
)
from jamreel.core.parts.pictures import bead, edge, hung
from jamreel.core.path.moves import Flatten
from jamreel.core.values import Length
from jamreel.core.wire.gauges import OptionalSize


class WrappedLoop(Part):
    """A drop of bare wire: a loop, a stem, its end hammered to a paddle."""

    ranges: ClassVar[dict[str, tuple[float, float]]] = {
        "stem": (1, 150),
        "pin": PIN_RANGE,
        "wraps": WRAPS_RANGE,
        "tail": TAIL_RANGE,
    }

    kind: Literal["wrapped_loop"] = "wrapped_loop"
    stem: Length = 20.0
    pin: Length = 3.0
    wraps: int = 2
    tail: Length = 12.0
    wire: OptionalSize = None

    @property
    def role(self) -> Role:
        """Hangs."""
        return "drop"

    def make(self, wires: Palette) -> Made:
        """Return the drop; the paddle at its end is as thick as half its wire."""
        w = wires.of("body", self.wire)
        reaches = reach("wrapped", w, self.pin, self.wraps)
        hang = reaches + self.stem
        paddle = min(self.stem, 4 * w.d)
        # Hammered to half its thickness, and all of it gone to the sides.
        wide = math.pi * w.d / 2
        stretches = (
            *loop_end("wrapped", w, self.pin, self.wraps, self.tail, "left"),
            ("body", (Flatten(length=self.stem, thickness=w.d / 2),)),
        )
        drawn = (
            edge(reaches - 0.1, hang - paddle, w.d),
            *loop_picture("wrapped", w, self.pin, self.wraps),
            bead(hang - paddle / 2, paddle, wide, "wire"),
        )
        return Made(
            length=0.0,
            thickness=w.d,
            width=max(self.pin + 2 * w.d, wide),
            hang=hang,
            ends=(end_of("wrapped", w, self.pin), end_of("wrapped", w, self.pin)),
            wires=(WireUse(self.kind, w, stretches),),
            holds=(hold_of("wrapped", w, self.pin),),
            strokes=hung(drawn),
            steps=(
                part_step("paddle", cautions=("hammer",), check=True),
                part_step("hang_wrapped", pin=self.pin, wraps=self.wraps, check=True),
            ),
            minutes=4.0,
            advice=(few_wraps(self.wraps),),
        )
