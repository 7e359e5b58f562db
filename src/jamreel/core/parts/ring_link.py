"""The folded ring link: a ring and two legs, a bead on each, that hook on the next ring."""

import math
from typing import ClassVar, Literal

from jamreel.core.advice.parts import hole_passes
from jamreel.core.errors import Refusal
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import End, Made, Part, Role, WireUse, opens_at, part_step
from jamreel.core.parts.beads import BRITTLE, Colour, Stuff, bought_bead
from jamreel.core.parts.pictures import arc_points, bead, edge, slender
from jamreel.core.path.bearings import hook_bearing
from jamreel.core.path.moves import Bend, Straight
from jamreel.core.units import Mm
from jamreel.core.values import Length, Stroke
from jamreel.core.wire.gauges import OptionalSize


class RingLink(Part):
    """A wire bent round a pin in its middle, legs side by side, their ends turned to hooks."""

    ranges: ClassVar[dict[str, tuple[float, float]]] = {
        "pin": (2, 30),
        "bead": (1, 20),
        "hole": (0.2, 8),
        "hook_pin": (1, 12),
    }

    kind: Literal["ring_link"] = "ring_link"
    pin: Length = 6.0
    bead: Length = 4.0
    hole: Length = 1.1
    hook_pin: Length = 2.0
    stuff: Stuff = "glass"
    colour: Colour = "plum"
    wire: OptionalSize = None

    @property
    def role(self) -> Role:
        """Links with its neighbours."""
        return "link"

    def make(self, wires: Palette) -> Made:
        """Return the link, from the ring's inside to the insides of its hooks.

        Raises:
            Refusal: beads wider than the legs stand apart.
        """
        w = wires.of("body", self.wire)
        apart = self.pin + w.d
        if self.bead > apart:
            raise Refusal("legs_close", got=Mm(self.bead), field="bead", apart=apart)
        leg = self.bead + w.d
        crook = Bend(angle=math.pi, pin=self.hook_pin, label="crook")
        half_ring = Bend(angle=math.pi, pin=self.pin, label="ring")
        length = self.pin / 2 + leg + hook_bearing(self.hook_pin)
        x0 = self.pin / 2
        rows = [(x0 + leg / 2, y) for y in (-apart / 2, apart / 2)]
        ends = [(x0 + leg, y) for y in (-apart / 2, apart / 2)]
        return Made(
            length=length,
            thickness=max(self.bead, self.hook_pin + 2 * w.d),
            width=max(apart + self.bead, apart + w.d),
            ends=(End(self.pin, w.d, True, "flat"), End(self.hook_pin, w.d, True, "square")),
            wires=(
                WireUse(
                    self.kind,
                    w,
                    (
                        ("crook_left", (crook,)),
                        ("leg_left", (Straight(length=leg),)),
                        ("body", (half_ring,)),
                        ("leg_right", (Straight(length=leg),)),
                        ("crook_right", (crook,)),
                    ),
                ),
            ),
            bought=(bought_bead(self.bead, self.bead, self.hole, self.stuff, self.colour, 2),),
            holds=(opens_at("leg_hooks", w, self.hook_pin, 2),),
            strokes=(
                Stroke(
                    part="wire",
                    points=arc_points(x0, 0, apart / 2, apart / 2, math.pi / 2, math.pi),
                    width_mm=w.d,
                ),
                *(edge(x0, x0 + leg, w.d, y) for _, y in ends),
                *(slender(x - w.d / 2, x + self.hook_pin + w.d, w.d, y) for x, y in ends),
                *(bead(x, self.bead, self.bead, self.colour, y) for x, y in rows),
            ),
            steps=(
                part_step("fold_ring", pin=self.pin, check=True),
                part_step("legs", check=True),
                part_step("hook_on_next", pin=self.hook_pin, check=True),
                part_step("tails", cautions=("eyes", "ends"), check=True),
            ),
            minutes=5.0,
            brittle=self.stuff in BRITTLE,
            advice=(hole_passes(self.hole, w.d),),
        )
