"""The eye link: a straight stem with a loop at each end, no bead."""

from typing import ClassVar, Literal

from jamreel.core.advice.parts import few_wraps, thin_for_links
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import Made, Part, Role, Varies, WireUse
from jamreel.core.parts.ends import (
    PIN_RANGE,
    TAIL_RANGE,
    WRAPS_RANGE,
    LoopKind,
    end_of,
    hold_of,
    loop_end,
    loop_picture,
    loop_steps,
    reach,
    wraps_vary,
)
from jamreel.core.parts.pictures import edge, flipped
from jamreel.core.path.moves import Straight
from jamreel.core.values import Length
from jamreel.core.wire.gauges import OptionalSize


class EyeLink(Part):
    """A stem of bare wire between two loops."""

    ranges: ClassVar[dict[str, tuple[float, float]]] = {
        "stem": (0, 120),
        "pin": PIN_RANGE,
        "wraps": WRAPS_RANGE,
        "tail": TAIL_RANGE,
    }

    kind: Literal["eye_link"] = "eye_link"
    stem: Length = 8.0
    loops: LoopKind = "plain"
    pin: Length = 3.0
    wraps: int = 2
    tail: Length = 12.0
    square: bool = True
    wire: OptionalSize = None

    @property
    def role(self) -> Role:
        """Links with its neighbours."""
        return "link"

    def varies(self) -> tuple[Varies, ...]:
        """Return its wraps, where it has any."""
        return wraps_vary(self.loops, self.wraps)

    def make(self, wires: Palette) -> Made:
        """Return the link; with ``square`` its second loop stands square to the first."""
        w = wires.of("body", self.wire)
        reaches = reach(self.loops, w, self.pin, self.wraps)
        length = self.stem + 2 * reaches
        stretches = (
            *loop_end(self.loops, w, self.pin, self.wraps, self.tail, "left"),
            ("body", (Straight(length=self.stem),)),
            *loop_end(self.loops, w, self.pin, self.wraps, self.tail, "right"),
        )
        left = loop_picture(self.loops, w, self.pin, self.wraps)
        right = loop_picture(self.loops, w, self.pin, self.wraps, square=self.square)
        wrapped = self.loops == "wrapped"
        return Made(
            length=length,
            thickness=3 * w.d if wrapped else w.d,
            width=self.pin + 2 * w.d,
            ends=(end_of(self.loops, w, self.pin), end_of(self.loops, w, self.pin, self.square)),
            wires=(WireUse(self.kind, w, stretches),),
            holds=(hold_of(self.loops, w, self.pin),),
            strokes=(
                edge(reaches - 0.1, length - reaches + 0.1, w.d),
                *left,
                *flipped(right, length),
            ),
            steps=loop_steps(self.loops, self.pin, self.wraps),
            minutes=4.0 if wrapped else 2.0,
            advice=(
                few_wraps(self.wraps) if wrapped else None,
                None if wrapped else thin_for_links(w.d, self.pin),
            ),
        )
