"""The folded ring link: a ring, two legs rolled over the ring before it, a bead on each leg."""

import math
from typing import ClassVar, Literal

from jamreel.core.advice.parts import ring_soft
from jamreel.core.choices import choice, like
from jamreel.core.errors import Refusal
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import End, Made, Role, Stretches, WireUse, opens_at, part_step
from jamreel.core.parts.beads import Beaded, BeadRow, Colour
from jamreel.core.parts.pictures import edge, ring, slender
from jamreel.core.path.loops import ring_of_legs
from jamreel.core.path.moves import Bend, Move, Straight
from jamreel.core.units import Mm
from jamreel.core.values import Length, Stroke
from jamreel.core.wire.gauges import OptionalSize

# How far the two legs are rolled together.
ROLL = 1.5 * math.pi


class RingLink(Beaded):
    """The wire's middle once round a pin, both legs turned outwards square and rolled together on
    a small pin, beads on each leg, each end hooked back over its own ring.

    Its roll goes over the ring of the link before, between that link's beads.
    """

    joins: ClassVar[Role] = "link"

    kind: Literal["ring_link"] = "ring_link"
    first: ClassVar[tuple[str, ...]] = ("bead", "beads", "pin", "roll_pin", "wire")
    pin: Length = choice(11.0, 2, 30)
    roll_pin: Length = choice(3.0, 1, 12)
    bead: Length = like(Beaded, "bead", 4.0)
    hole: Length = like(Beaded, "hole", 1.1)
    beads: int = choice(1, 1, 6)
    hook_pin: Length = choice(2.0, 1, 12)
    play: Length = choice(1.0, 0, 10)
    colour: Colour = "plum"
    wire: OptionalSize = None

    def make(self, wires: Palette) -> Made:
        """Return the link, from the inside of its roll to the far inside of its ring.

        Raises:
            Refusal: beads so wide that the legs no longer come down on their own ring.
        """
        w = wires.of("body", self.wire)
        row = self.beads_of(self.beads)
        # Between the beads lies the next link's roll, as wide as its two wires.
        room = self.pin - w.d
        if row.widest > room:
            raise Refusal("legs_close", got=Mm(row.widest), field="bead", apart=room)
        length = self.pin + w.d + self.roll_pin
        picture = self._picture(w, row)
        lines = tuple(stroke for stroke in picture if stroke.part == "wire")
        return Made(
            length=length,
            thickness=max(w.d + row.widest, self.roll_pin + 2 * w.d),
            width=max(self.pin + 2 * w.d, 2 * (row.widest + w.d)),
            ends=(End(self.roll_pin, w.d, True, strands=2), End(self.pin, w.d, False)),
            wires=(WireUse(self.kind, w, self._stretches(w, row), shown=lines),),
            bought=row.bought(2),
            holds=(opens_at("roll", w, self.roll_pin, 2),),
            strokes=picture,
            steps=(
                part_step("fold_ring", pin=self.pin, check=True),
                part_step("turn_out", check=True),
                part_step("roll", pin=self.roll_pin, check=True),
                part_step("roll_over", check=True),
                part_step("roll_close", check=True),
                part_step("legs", beads=row.count, check=True),
                part_step("hook_on_own", pin=self.hook_pin, check=True),
                part_step("tails", cautions=("eyes", "ends"), check=True),
                part_step("face_raised", name="face", check=True),
            ),
            minutes=6.0,
            brittle=row.brittle,
            advice=(row.passes(w.d), ring_soft(self.pin, w.d, w.temper == "dead_soft")),
        )

    def _stretches(self, w: Wire, row: BeadRow) -> Stretches:
        """Return its one wire: hook, leg, roll, corner; the ring; and the same back."""
        crook: tuple[Move, ...] = (Bend(angle=math.pi, pin=self.hook_pin, label="crook"),)
        leg: tuple[Move, ...] = (Straight(length=row.length + self.play),)
        # Turned outwards over a plier's edge as round as the wire itself.
        roll: tuple[Move, ...] = (
            Bend(angle=ROLL, pin=self.roll_pin, label="roll"),
            Bend(angle=math.pi / 2, pin=w.d, label="corner"),
        )
        body = Bend(angle=ring_of_legs(self.pin, w.d), pin=self.pin, label="ring")
        return (
            ("crook_left", crook),
            ("leg_left", leg),
            ("roll_left", roll),
            ("body", (body,)),
            ("roll_right", roll[::-1]),
            ("leg_right", leg),
            ("crook_right", crook),
        )

    def _picture(self, w: Wire, row: BeadRow) -> tuple[Stroke, ...]:
        """Return it from its raised face: roll at the left, beads over the ring."""
        d, p = w.d, self.roll_pin
        middle = p + d + self.pin / 2
        y = (row.widest + 2 * d) / 2
        hooked = middle - math.sqrt(max(((self.pin + d) / 2) ** 2 - y**2, 0.0))
        far = p + d / 2 + row.length
        beads = [row.strokes(p + d / 2, side * y) for side in (-1, 1)]
        return (
            ring(middle, self.pin, d),
            *(edge(-d / 2, p + d, d, side * d / 2) for side in (-1, 1)),
            *(slender(hooked - d, max(far, hooked) + d, d, side * y) for side in (-1, 1)),
            *(edge(p, far, d, side * y) for side in (-1, 1)),
            *beads[0],
            *beads[1],
        )
