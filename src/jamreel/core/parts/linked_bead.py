"""The linked bead: a loop, a bead or several, a loop."""

from typing import ClassVar, Literal

from jamreel.core.choices import choice
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import Made, Role, WireUse, opens_at, part_step
from jamreel.core.parts.beads import Beaded
from jamreel.core.parts.drawn import drawn, laid
from jamreel.core.parts.ends import Loop, Looped, Stand, face_step, quarter
from jamreel.core.parts.pins import PIN_LENGTH_RANGE, BoughtPin
from jamreel.core.path.moves import Straight
from jamreel.core.values import Length
from jamreel.core.wire.gauges import OptionalSize


class BeadBetweenLoops(Looped, Beaded):
    """Base of beads on a wire with a loop at each end; on a bought eye pin one of them is there
    already."""

    joins: ClassVar[Role] = "link"

    first: ClassVar[tuple[str, ...]] = ("bead", "beads", "loops", "pin", "wire")
    beads: int = choice(1, 1, 20)
    stand: Stand = "square"
    stock: Literal["wire", "eye_pin"] = "wire"
    pin_length: Length = choice(50.0, *PIN_LENGTH_RANGE, when=("stock", "eye_pin"))
    wire: OptionalSize = None

    def make(self, wires: Palette) -> Made:
        """Return the linked bead; its loops stand square to each other so that links lie flat."""
        w = wires.of("body", self.wire)
        loop, row = self.loop_of(w), self.beads_of(self.beads)
        # A bought eye is a plain one, whatever the other end is.
        eye = Loop("plain", w, self.pin) if self.stock == "eye_pin" else loop
        length = eye.reach + row.length + loop.reach
        body = ("body", (Straight(length=row.length),))
        stretches = (*eye.stretches("left"), body, *loop.stretches("right", quarter(self.stand)))
        reel = wires.off_reel and self.stock == "wire"
        use = laid(WireUse(self.kind, w, stretches, off_reel=reel), middle=length / 2)
        key = "thread_reel" if reel else "thread"
        thread = part_step(key, name="thread", beads=row.count)
        made = Made(
            length=length,
            thickness=max(row.widest, loop.thickness),
            width=max(row.widest, self.pin + 2 * w.d),
            ends=(eye.end(), loop.end()),
            wires=(use,),
            bought=row.bought(),
            holds=(loop.hold,),
            strokes=(*drawn(use), *row.strokes(eye.reach)),
            steps=(*loop.made_steps(thread, off_reel=reel), face_step(self.stand)),
            minutes=4.0 if loop.wrapped else 2.0,
            brittle=row.brittle,
            advice=(row.passes(w.d), *loop.advice),
        )
        return made if self.stock == "wire" else _on_eye_pin(made, w, self.pin_length, loop)


class LinkedBead(BeadBetweenLoops):
    """Beads on a wire with a loop at each end."""

    kind: Literal["linked_bead"] = "linked_bead"


def _on_eye_pin(made: Made, wire: Wire, length: float, loop: Loop) -> Made:
    """Return a linked bead made from an eye pin: nothing is cut, its first eye is there."""
    used = tuple(row for row in made.wires[0].stretches if row[0] != "loop_left")
    pin = BoughtPin("eye_pin", wire, length, used)
    # Without the first loop.
    rest = made.steps[[one.id for one in made.steps].index("thread") :]
    return made.but(
        wires=(),
        bought=(pin.bought, *made.bought),
        holds=(opens_at("plain_loop", wire, loop.pin), *made.holds),
        steps=(pin.snipped, *rest),
        advice=(*made.advice, pin.advice),
    )
