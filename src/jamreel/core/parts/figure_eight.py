"""The figure-eight link: two loops on opposite sides of one wire."""

import math
from typing import ClassVar, Literal

from jamreel.core.advice.parts import thin_for_links
from jamreel.core.choices import choice
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import End, Made, Part, Role, WireUse, opens_at, part_step
from jamreel.core.parts.drawn import drawn, laid
from jamreel.core.path.moves import Bend
from jamreel.core.values import Length
from jamreel.core.wire.gauges import OptionalSize


class FigureEight(Part):
    """Two plain loops that touch, one to each side."""

    joins: ClassVar[Role] = "link"

    kind: Literal["figure_eight"] = "figure_eight"
    pin: Length = choice(4.0, 1, 30)
    hammered: bool = True
    wire: OptionalSize = None

    def make(self, wires: Palette) -> Made:
        """Return the link: two inner diameters and the wire where the loops cross."""
        w = wires.of("body", self.wire)
        end = End(self.pin, w.d)
        length = 2 * self.pin + w.d
        # The wires cross in the middle, one over the other.
        thick = 1.4 * w.d if self.hammered else 2 * w.d
        first = Bend(angle=2 * math.pi, pin=self.pin, label="loop")
        second = Bend(angle=2 * math.pi, pin=self.pin, side="right", label="loop")
        hammer = (part_step("hammer_flat", cautions=("hammer",)),) if self.hammered else ()
        stretches = (("loop_left", (first,)), ("body", (second,)))
        eight = WireUse(self.kind, w, stretches, turn=math.pi / 2, off_reel=wires.off_reel)
        snip = part_step("snip_eight", name="snip_reel", cautions=("eyes", "whip"), check=True)
        use = laid(eight, middle=length / 2)
        return Made(
            length=length,
            thickness=thick,
            width=self.pin + 2 * w.d,
            ends=(end, end),
            wires=(use,),
            holds=(opens_at("plain_loop", w, self.pin),),
            strokes=drawn(use),
            steps=(
                part_step("plain_first", pin=self.pin),
                part_step("other_side", pin=self.pin, check=True),
                *((snip,) if wires.off_reel else ()),
                *hammer,
            ),
            minutes=2.0,
            advice=(thin_for_links(w.d, self.pin),),
        )
