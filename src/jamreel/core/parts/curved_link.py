"""The curved wrapped link: bent on a pin, one loop in plane, one square, beads wrapped on."""

import math
from typing import ClassVar, Literal

from jamreel.core.advice.parts import hole_passes, links_twist
from jamreel.core.errors import Refusal
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import End, Made, Part, Role, Stretches, WireUse, opens_at, part_step
from jamreel.core.parts.beads import BRITTLE, Colour, Stuff, bought_bead
from jamreel.core.parts.pictures import arc_points, bead, ring, slender
from jamreel.core.path.moves import Bend, Straight, Turn, Wrap
from jamreel.core.units import Mm
from jamreel.core.values import Length, Stroke
from jamreel.core.wire.gauges import OptionalSize


class CurvedLink(Part):
    """An arc of wire with a loop at each end, a finer wire wound on with beads between wraps."""

    ranges: ClassVar[dict[str, tuple[float, float]]] = {
        "form": (8, 200),
        "arc": (5, 150),
        "pin": (0.8, 20),
        "bead": (1, 20),
        "hole": (0.2, 8),
        "beads": (0, 20),
        "wraps": (1, 40),
        "tail": (0, 60),
    }

    kind: Literal["curved_link"] = "curved_link"
    form: Length = 30.0
    arc: Length = 26.0
    pin: Length = 2.5
    loops_alike: bool = False
    bead: Length = 3.0
    hole: Length = 0.8
    beads: int = 3
    wraps: int = 6
    stuff: Stuff = "glass"
    colour: Colour = "amber"
    tail: Length = 15.0
    wire: OptionalSize = None
    wrapping_wire: OptionalSize = None

    @property
    def role(self) -> Role:
        """Links with its neighbours."""
        return "link"

    def make(self, wires: Palette) -> Made:
        """Return the link; it bears across its chord.

        Raises:
            Refusal: more wraps and beads than the arc is long, or an arc of more than a turn.
        """
        w = wires.of("body", self.wire)
        fine = wires.of("winding", self.wrapping_wire, usual=0.4)
        wound = (self.beads + 1) * self.wraps * fine.d + self.beads * self.bead
        if wound > self.arc:
            raise Refusal("wraps_over", got=Mm(wound), field="arc", arc=self.arc)
        radius = (self.form + w.d) / 2
        angle = self.arc / radius
        if angle > 2 * math.pi:
            most = 2 * math.pi * radius
            raise Refusal("arc_over_turn", got=Mm(self.arc), field="arc", most=most)
        reach = (self.pin + w.d) * math.cos(min(angle / 2, math.pi / 2))
        chord = 2 * radius * math.sin(min(angle, math.pi) / 2)
        length = chord + 2 * reach
        sagitta = radius * (1 - math.cos(min(angle, math.pi) / 2))
        return Made(
            length=length,
            thickness=max(w.d + 2 * fine.d, self.bead if self.beads else 0),
            width=sagitta + self.bead + w.d,
            ends=(
                End(self.pin, w.d, True, "flat"),
                End(self.pin, w.d, True, "flat" if self.loops_alike else "square"),
            ),
            wires=(
                WireUse(self.kind, w, self._main()),
                WireUse("curved_link_wrapping", fine, self._wrapping(w.d, fine.d)),
            ),
            bought=(
                bought_bead(self.bead, self.bead, self.hole, self.stuff, self.colour, self.beads),
            )
            if self.beads
            else (),
            holds=(opens_at("plain_loop", w, self.pin),),
            strokes=self._picture(w.d, fine.d, length, chord, radius, angle),
            steps=(
                part_step("plain_first", pin=self.pin),
                part_step("curve", form=self.form),
                part_step("turn_plane", check=True),
                part_step("wind_on", wraps=self.wraps, beads=self.beads, check=True),
                part_step("tails", cautions=("eyes", "ends"), check=True),
            ),
            minutes=8.0 + 0.8 * self.beads,
            brittle=self.beads > 0 and self.stuff in BRITTLE,
            advice=(
                hole_passes(self.hole, fine.d) if self.beads else None,
                links_twist(self.loops_alike),
            ),
        )

    def _main(self) -> Stretches:
        loop = Bend(angle=2 * math.pi, pin=self.pin, label="loop")
        turn = () if self.loops_alike else (Turn(angle=math.pi / 2),)
        return (
            ("loop_left", (loop,)),
            ("body", (Straight(length=self.arc),)),
            ("loop_right", (*turn, loop)),
        )

    def _wrapping(self, core: float, d: float) -> Stretches:
        turns = (self.beads + 1) * self.wraps
        body = (
            Wrap(turns=turns, core=core, label="wraps"),
            *((Straight(length=self.beads * self.bead),) if self.beads else ()),
        )
        tails = self.tail > 0
        return (
            *((("tail_left", (Straight(length=self.tail),)),) if tails else ()),
            ("body", body),
            *((("tail_right", (Straight(length=self.tail),)),) if tails else ()),
        )

    def _picture(
        self, d: float, fine: float, length: float, chord: float, radius: float, angle: float
    ) -> tuple[Stroke, ...]:
        half = min(angle, math.pi) / 2
        low = radius * math.cos(half)
        line = [
            (round(length / 2 + radius * math.sin(a), 2), round(radius * math.cos(a) - low, 2))
            for a in (-half + 2 * half * i / 24 for i in range(25))
        ]
        inset = (length - chord) / 2
        strokes = [
            Stroke(part="wire", points=tuple(line), width_mm=d),
            ring(inset - (self.pin + d) / 2, self.pin, d),
            slender(length - self.pin - d, length + d, d),
        ]
        pitch = (self.wraps * fine + self.bead) / radius
        start = -((self.beads - 1) / 2) * pitch
        for i in range(self.beads):
            a = start + i * pitch
            x, y = length / 2 + radius * math.sin(a), radius * math.cos(a) - low
            strokes.append(bead(x, self.bead, self.bead, self.colour, y + (d + self.bead) / 4))
        for i in range(self.beads + 1):
            a = start + (i - 0.5) * pitch
            wide = self.wraps * fine / radius / 2
            points = arc_points(length / 2, -low, radius, radius, math.pi / 2 - a - wide, 2 * wide)
            strokes.append(Stroke(part="wire", points=points, width_mm=d + 2 * fine))
        return tuple(strokes)
