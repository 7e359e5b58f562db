"""The ear wire: a hook through the ear with a loop for the drop."""

import math
from typing import ClassVar, Literal

from jamreel.core.choices import choice
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import End, Made, Part, Role, WireUse, opens_at, part_step
from jamreel.core.parts.drawn import drawn, laid
from jamreel.core.path.bearings import hook_bearing
from jamreel.core.path.loops import centred
from jamreel.core.path.moves import Bend, Straight
from jamreel.core.values import Length
from jamreel.core.wire.gauges import OptionalSize


class EarWire(Part):
    """A bow on a pin, a tail behind the ear, a plain loop in front."""

    joins: ClassVar[Role] = "link"

    kind: Literal["ear_wire"] = "ear_wire"
    bow_pin: Length = choice(9.0, 4, 20)
    front: Length = choice(4.0, 1, 30)
    back: Length = choice(14.0, 4, 40)
    pin: Length = choice(2.0, 1, 6)
    wire: OptionalSize = None

    def make(self, wires: Palette) -> Made:
        """Return the ear wire, from where it rests in the ear to the inside of its loop."""
        w = wires.of("body", self.wire)
        length = hook_bearing(self.bow_pin) + self.front + self.pin + w.d
        bow = Bend(angle=math.pi, pin=self.bow_pin, label="bow")
        loop = Bend(angle=2 * math.pi, pin=self.pin, side="right", label="loop")
        stretches = (
            ("back", (Straight(length=self.back),)),
            ("crook", (bow,)),
            ("body", (Straight(length=self.front),)),
            ("loop_right", centred(loop, first=False)),
        )
        use = laid(WireUse(self.kind, w, stretches), left=0.0)
        return Made(
            length=length,
            thickness=w.d,
            width=self.bow_pin + 2 * w.d,
            ends=(End(self.bow_pin, w.d, False), End(self.pin, w.d)),
            wires=(use,),
            holds=(opens_at("plain_loop", w, self.pin),),
            strokes=drawn(use),
            steps=(
                part_step("plain_first", opening="right", pin=self.pin),
                part_step("ear_bow", pin=self.bow_pin, check=True),
                part_step("ear_tip", cautions=("ends", "skin"), check=True),
            ),
            minutes=3.0,
        )
