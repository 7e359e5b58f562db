"""The tassel: strands of linked beads from one loop."""

import math
from dataclasses import replace
from typing import ClassVar, Literal

from jamreel.core.advice.parts import jostling
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import End, Made, Part, Role, WireUse, opens_at, part_step
from jamreel.core.parts.beads import Colour, Stuff
from jamreel.core.parts.ends import PIN_RANGE
from jamreel.core.parts.linked_bead import LinkedBead
from jamreel.core.parts.pictures import hung, ring, shifted
from jamreel.core.parts.rings import ring_turn, sprung_inside
from jamreel.core.values import Length
from jamreel.core.wire.gauges import OptionalSize


class Tassel(Part):
    """Several strands, each of so many linked beads, hung on one ring."""

    ranges: ClassVar[dict[str, tuple[float, float]]] = {
        "strands": (2, 24),
        "beads": (1, 40),
        "bead": (1, 20),
        "hole": (0.2, 8),
        "pin": PIN_RANGE,
        "ring": (2, 30),
    }
    grades: ClassVar[str | None] = "bead"

    kind: Literal["tassel"] = "tassel"
    strands: int = 5
    beads: int = 4
    bead: Length = 4.0
    hole: Length = 1.0
    stuff: Stuff = "glass"
    colour: Colour = "slate"
    pin: Length = 1.5
    ring: Length = 6.0
    wire: OptionalSize = None

    @property
    def role(self) -> Role:
        """Hangs."""
        return "drop"

    def make(self, wires: Palette) -> Made:
        """Return the tassel: the ring, then its longest strand; the first loop takes the ring."""
        w = wires.of("body", self.wire)
        link = LinkedBead(
            bead=self.bead,
            hole=self.hole,
            stuff=self.stuff,
            colour=self.colour,
            loops="plain",
            pin=self.pin,
            tail=0.0,
        ).make(Palette(w))
        count = self.strands * self.beads
        rings = wires.of("rings", self.wire)
        inner = sprung_inside(rings, self.ring, "ring")
        turn = ring_turn(rings, self.ring, inner)
        half = math.ceil(self.strands / 2)
        spread = [(i - (half - 1) / 2) * min(self.bead, 2.4 * inner / half) for i in range(half)]
        drawn = [ring(inner / 2, inner, rings.d)]
        for y in spread:
            for i in range(self.beads):
                drawn += shifted(link.strokes, inner + i * link.length, y)
        use = link.wires[0]
        return Made(
            length=0.0,
            thickness=2 * self.bead,
            width=max(inner + 2 * rings.d, half * self.bead),
            hang=inner + self.beads * link.length,
            ends=(End(inner, rings.d), End(inner, rings.d)),
            wires=(
                WireUse("tassel_link", w, use.stretches, count),
                WireUse(
                    "tassel_ring",
                    rings,
                    (("body", (turn,)),),
                    off_coil=True,
                ),
            ),
            bought=tuple(replace(b, quantity=b.quantity * count) for b in link.bought),
            holds=(opens_at("plain_loop", w, self.pin), opens_at("jump_ring", rings, inner)),
            strokes=hung(drawn),
            steps=(
                part_step("strand_links", beads=self.beads, strands=self.strands, check=True),
                part_step("tassel_hang", strands=self.strands, check=True),
            ),
            minutes=count * link.minutes,
            brittle=link.brittle,
            advice=(
                *link.advice,
                jostling(self.bead, self.strands, math.pi * (inner + self.bead)),
            ),
        )
