"""The jump ring: one turn of wire, closed end to end."""

from typing import ClassVar, Literal

from jamreel.core.advice.parts import thin_for_links
from jamreel.core.choices import choice
from jamreel.core.forming.heat import solderable
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import Made, Part, Role, WireUse, opens_at, ovals_at, part_step
from jamreel.core.parts.drawn import drawn, laid
from jamreel.core.parts.rings import ring_made, ring_turn, soldered_steps, sprung_inside
from jamreel.core.values import Length
from jamreel.core.wire.gauges import OptionalSize


class JumpRing(Part):
    """A ring that opens sideways; soldered it holds as its wire does."""

    lengthens: ClassVar[bool] = True
    joins: ClassVar[Role] = "link"

    kind: Literal["jump_ring"] = "jump_ring"
    pin: Length = choice(4.0, 1, 60)
    soldered: bool = False
    wire: OptionalSize = None

    def make(self, wires: Palette) -> Made:
        """Return the ring: it adds its inner diameter, as sprung, to the piece.

        Raises:
            Refusal: a metal that can't be soldered, or wire that does not stay wound.
        """
        w = wires.of("rings", self.wire)
        solderable(w, self.soldered)
        inner = sprung_inside(w, self.pin, "pin")
        bears = ovals_at("soldered_ring", w, inner)
        turn = (("body", (ring_turn(w, self.pin, inner),)),)
        use = laid(WireUse(self.kind, w, turn, off_coil=True), middle=inner / 2, low=True)
        return ring_made(
            inner,
            w.d,
            opens=not self.soldered,
            wires=(use,),
            holds=(bears if self.soldered else opens_at("jump_ring", w, inner),),
            strokes=drawn(use),
            steps=(
                part_step("rings", cautions=("eyes",), pin=self.pin, inner=inner),
                part_step("ring_in"),
                part_step("ring_close", check=True),
                *(soldered_steps(w.metal) if self.soldered else ()),
            ),
            minutes=3.0 if self.soldered else 0.7,
            advice=(None if self.soldered else thin_for_links(w.d, self.pin),),
        )
