"""The curved wrapped link: bent on a pin, one loop in plane, one square, beads wrapped on."""

import math
from collections.abc import Iterator
from typing import ClassVar, Literal

from jamreel.core.advice.parts import links_twist
from jamreel.core.bench.steps import Step
from jamreel.core.choices import choice, like
from jamreel.core.errors import Refusal
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import End, Made, Role, Stretches, WireUse, opens_at, part_step
from jamreel.core.parts.beads import Beaded, BeadRow, Colour
from jamreel.core.parts.drawn import drawn_round, laid
from jamreel.core.parts.ends import PIN_RANGE, TAIL_RANGE, Stand, face_step
from jamreel.core.parts.pictures import bead
from jamreel.core.path.loops import centred
from jamreel.core.path.moves import Bend, Kink, Move, PlaneTurn, Straight, Wrap
from jamreel.core.units import Mm
from jamreel.core.values import Length, Stroke
from jamreel.core.wire.gauges import OptionalSize


class CurvedLink(Beaded):
    """An arc of wire with a loop at each end, a finer wire wound on with beads between turns.

    The winding has ``end_turns`` at both ends and ``turns_between`` two beads. All links of a row
    are bent to one ``hand``, or they don't lie alike.
    """

    joins: ClassVar[Role] = "link"

    kind: Literal["curved_link"] = "curved_link"
    first: ClassVar[tuple[str, ...]] = ("bead", "beads", "form", "arc", "pin")
    form: Length = choice(30.0, 8, 200)
    arc: Length = choice(26.0, 5, 150)
    pin: Length = choice(2.5, *PIN_RANGE)
    stand: Stand = "square"
    hand: Literal["right", "left"] = "right"
    bead: Length = like(Beaded, "bead", 3.0)
    hole: Length = like(Beaded, "hole", 0.8)
    beads: int = choice(3, 0, 20)
    end_turns: int = choice(5, 1, 40)
    turns_between: int = choice(3, 0, 40)
    hammered: bool = True
    colour: Colour = "amber"
    tail: Length = choice(15.0, *TAIL_RANGE)
    wire: OptionalSize = None
    wrapping_wire: OptionalSize = None

    def make(self, wires: Palette) -> Made:
        """Return the link; it bears across its chord.

        Raises:
            Refusal: more turns and beads than the arc is long, or an arc of more than a turn.
        """
        w = wires.of("body", self.wire)
        fine = wires.of("winding", self.wrapping_wire, usual=0.4)
        row = self.beads_of(self.beads)
        wound = self._turns(row) * fine.d + row.length
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
        main = WireUse(self.kind, w, self._main(w.d), turn=min(angle, math.pi) / 2)
        use = laid(main, middle=length / 2)
        winding = WireUse(
            "curved_link_wrapping",
            fine,
            self._wrapping(row, w.d),
            wound=True,
            arc=radius,
            at=(length / 2, sagitta),
        )
        return Made(
            length=length,
            thickness=max(w.d + 2 * fine.d, row.widest),
            width=sagitta + self.bead + w.d,
            ends=(End(self.pin, w.d), End(self.pin, w.d)),
            wires=(use, winding),
            bought=row.bought(),
            holds=(opens_at("plain_loop", w, self.pin),),
            strokes=(
                *drawn_round(use, winding),
                *self._beads(row, w.d, fine.d, length, radius, sagitta),
            ),
            steps=self._steps(row.count),
            minutes=8.0 + 0.8 * row.count,
            brittle=row.brittle,
            advice=(row.passes(fine.d), links_twist(self.stand == "alike")),
        )

    def _steps(self, beads: int) -> tuple[Step, ...]:
        hammer = part_step("hammer_middle", cautions=("hammer",), check=True)
        turns, between = self.end_turns, self.turns_between
        return (
            part_step("plain_first", pin=self.pin),
            part_step("curve", form=self.form),
            part_step(f"turn_plane_{self.stand}", name="turn_plane", check=True, pin=self.pin),
            *((hammer,) if self.hammered else ()),
            part_step("wind_on", turns=turns, between=between, beads=beads, check=True),
            part_step("tails", cautions=("eyes", "ends"), check=True),
            part_step("hang_sideways", check=True),
            face_step(self.stand),
        )

    def _turns(self, row: BeadRow) -> int:
        """Return the turns of its winding in all."""
        return 2 * self.end_turns + max(row.count - 1, 0) * self.turns_between

    def _main(self, d: float) -> Stretches:
        loop = Bend(angle=2 * math.pi, pin=self.pin, label="loop")
        side = 1 if self.hand == "right" else -1
        turn = () if self.stand == "alike" else (PlaneTurn(angle=side * math.pi / 2),)
        angle = self.arc / ((self.form + d) / 2)
        curve = Bend(angle=angle, pin=self.form, side="right", label="curve")
        return (
            ("loop_left", centred(loop, first=True)),
            ("body", (curve,)),
            ("loop_right", (*turn, *centred(loop, first=False))),
        )

    def _wrapping(self, row: BeadRow, core: float) -> Stretches:
        """Return the winding as it is wound: turns, a bead, turns … and turns."""
        body: list[Move] = [Wrap(turns=self.end_turns, core=core, label="wraps")]
        for i, one in enumerate(row.each):
            if i and self.turns_between:
                body.append(Wrap(turns=self.turns_between, core=core, label="wraps"))
            # Through a bead it runs along the arc, and then goes on round it.
            body += [
                PlaneTurn(angle=math.pi / 2),
                Kink(angle=math.pi / 2),
                Straight(length=one.along),
                Kink(angle=math.pi / 2, side="right"),
                PlaneTurn(angle=-math.pi / 2),
            ]
        body.append(Wrap(turns=self.end_turns, core=core, label="wraps"))
        tail = (Straight(length=self.tail),)
        return (
            *((("tail_left", tail),) if self.tail else ()),
            ("body", tuple(body)),
            *((("tail_right", tail),) if self.tail else ()),
        )

    def _beads(
        self, row: BeadRow, d: float, fine: float, length: float, radius: float, sagitta: float
    ) -> Iterator[Stroke]:
        """Yield the beads where they lie on the arc, each on the winding wire beside it."""
        at = self.end_turns * fine - (self._turns(row) * fine + row.length) / 2
        for i, one in enumerate(row.each):
            if i:
                at += self.turns_between * fine
            a, out = (at + one.along / 2) / radius, radius + (d + one.bead) / 4
            x, y = length / 2 + out * math.sin(a), out * math.cos(a) - radius + sagitta
            yield bead(x, one.along, one.bead, one.colour, y)
            at += one.along
