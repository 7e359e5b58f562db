"""The linked bead: a loop, a bead or several, a loop."""

from typing import ClassVar, Literal

from jamreel.core.advice.parts import few_wraps, hole_passes, thin_for_links
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import Made, Part, Role, Varies, WireUse, part_step
from jamreel.core.parts.beads import BRITTLE, Colour, Stuff, bought_bead
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
from jamreel.core.parts.pictures import bead, edge, flipped, shifted
from jamreel.core.path.moves import Straight
from jamreel.core.values import Length, OptionalLength
from jamreel.core.wire.gauges import OptionalSize


class LinkedBead(Part):
    """One bead, or several, on a wire with a loop at each end."""

    ranges: ClassVar[dict[str, tuple[float, float]]] = {
        "bead": (1, 40),
        "bead_length": (0.5, 60),
        "hole": (0.2, 10),
        "beads": (1, 20),
        "pin": PIN_RANGE,
        "wraps": WRAPS_RANGE,
        "tail": TAIL_RANGE,
    }

    grades: ClassVar[str | None] = "bead"

    kind: Literal["linked_bead"] = "linked_bead"
    bead: Length = 6.0
    bead_length: OptionalLength = None
    hole: Length = 1.0
    beads: int = 1
    stuff: Stuff = "glass"
    colour: Colour = "reed"
    loops: LoopKind = "wrapped"
    pin: Length = 3.0
    wraps: int = 2
    tail: Length = 12.0
    wire: OptionalSize = None

    @property
    def role(self) -> Role:
        """Links with its neighbours."""
        return "link"

    def varies(self) -> tuple[Varies, ...]:
        """Return its wraps, where it has any."""
        return wraps_vary(self.loops, self.wraps)

    def make(self, wires: Palette) -> Made:
        """Return the linked bead: loops square to each other, so that links lie flat."""
        w = wires.of("body", self.wire)
        long = self.bead_length or self.bead
        reaches = reach(self.loops, w, self.pin, self.wraps)
        body = self.beads * long
        stretches = (
            *loop_end(self.loops, w, self.pin, self.wraps, self.tail, "left"),
            ("body", (Straight(length=body),)),
            *loop_end(self.loops, w, self.pin, self.wraps, self.tail, "right"),
        )
        length = body + 2 * reaches
        left = loop_picture(self.loops, w, self.pin, self.wraps)
        right = loop_picture(self.loops, w, self.pin, self.wraps, square=True)
        row = [
            bead(reaches + (i + 0.5) * long, long, self.bead, self.colour)
            for i in range(self.beads)
        ]
        wrapped = self.loops == "wrapped"
        return Made(
            length=length,
            thickness=max(self.bead, 3 * w.d if wrapped else w.d),
            width=max(self.bead, self.pin + 2 * w.d),
            ends=(end_of(self.loops, w, self.pin), end_of(self.loops, w, self.pin)),
            wires=(WireUse(self.kind, w, stretches),),
            bought=(bought_bead(self.bead, long, self.hole, self.stuff, self.colour, self.beads),),
            holds=(hold_of(self.loops, w, self.pin),),
            strokes=(
                edge(reaches - 0.1, length - reaches + 0.1, w.d),
                *shifted(left, 0),
                *flipped(right, length),
                *row,
            ),
            steps=loop_steps(
                self.loops, self.pin, self.wraps, part_step("thread", beads=self.beads)
            ),
            minutes=4.0 if wrapped else 2.0,
            brittle=self.stuff in BRITTLE,
            advice=(
                hole_passes(self.hole, w.d),
                few_wraps(self.wraps) if wrapped else None,
                None if wrapped else thin_for_links(w.d, self.pin),
            ),
        )
