"""The dangle: beads on a pin with a head, hung by a wrapped or a plain loop."""

from typing import ClassVar, Literal

from jamreel.core.choices import choice
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import Made, Role, Stretches, WireUse, part_step
from jamreel.core.parts.beads import Beaded, Colour
from jamreel.core.parts.drawn import drawn, laid
from jamreel.core.parts.ends import Looped
from jamreel.core.parts.pictures import edge, hung
from jamreel.core.parts.pins import PIN_LENGTH_RANGE, BoughtPin
from jamreel.core.path.moves import Spiral, Straight
from jamreel.core.values import Length
from jamreel.core.wire.gauges import OptionalSize

HEAD_MM = 0.6


class Dangle(Looped, Beaded):
    """A drop of one bead or several; its foot is a bought pin's head or a curl of the wire."""

    joins: ClassVar[Role] = "drop"

    kind: Literal["dangle"] = "dangle"
    first: ClassVar[tuple[str, ...]] = ("bead", "beads", "loops", "pin", "foot")
    beads: int = choice(1, 1, 20)
    colour: Colour = "brick"
    foot: Literal["head_pin", "curl"] = "head_pin"
    pin_length: Length = choice(50.0, *PIN_LENGTH_RANGE, when=("foot", "head_pin"))
    wire: OptionalSize = None

    def make(self, wires: Palette) -> Made:
        """Return the dangle, hung from the inside of its loop."""
        w = wires.of("body", self.wire)
        loop, row, curled = self.loop_of(w), self.beads_of(self.beads), self.foot == "curl"
        curl: Stretches = (("curl", (Spiral(turns=1.25, pin=w.d, label="curl"),)),)
        stretches = (
            *loop.stretches("left"),
            ("body", (Straight(length=row.length),)),
            *(curl if curled else ()),
        )
        at = loop.reach + row.length
        use = laid(WireUse(self.kind, w, stretches), left=0.0)
        head = () if curled else (edge(at, at + HEAD_MM, w.d), edge(at + 0.3, at + 0.6, 2 * w.d))
        made = Made(
            length=0.0,
            thickness=max(row.widest, loop.thickness),
            width=max(row.widest, self.pin + 2 * w.d),
            hang=at + (3.5 * w.d if curled else HEAD_MM),
            ends=(loop.end(), loop.end()),
            wires=(use,),
            bought=row.bought(),
            holds=(loop.hold,),
            strokes=hung((*drawn(use), *row.strokes(loop.reach), *head)),
            steps=(
                *((part_step("curl_foot", check=True),) if curled else ()),
                part_step("thread", beads=row.count),
                *loop.hung_steps(),
            ),
            minutes=3.0,
            brittle=row.brittle,
            advice=(row.passes(w.d), *loop.advice),
        )
        if curled:
            return made
        pin = BoughtPin("head_pin", w, self.pin_length, stretches)
        return made.but(
            wires=(),
            bought=(*made.bought, pin.bought),
            steps=(*made.steps[:1], pin.snipped, *made.steps[1:]),
            advice=(*made.advice, pin.advice),
        )
