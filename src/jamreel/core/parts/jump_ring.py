"""The jump ring: one turn of wire, closed end to end."""

from typing import ClassVar, Literal

from jamreel.core.advice.parts import thin_for_links
from jamreel.core.bench.steps import Step, step
from jamreel.core.choices import choice
from jamreel.core.forming.heat import solderable
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import (
    End,
    Made,
    Part,
    Role,
    WireUse,
    opens_at,
    ovals_at,
    part_step,
)
from jamreel.core.parts.drawn import drawn, laid
from jamreel.core.parts.rings import ring_turn, sprung_inside
from jamreel.core.values import Length
from jamreel.core.wire.gauges import OptionalSize
from jamreel.core.wire.metals import Metal


def _soldered(metal: Metal) -> tuple[Step, ...]:
    """Return how a closed ring is soldered: in one heat, then quenched, or left to cool where water
    would crack it, and pickled."""
    cooled = (
        step("heat.quench", "form", name="ring_quench", cautions=("torch",), metal=metal.name)
        if metal.quench
        else step("heat.cool", "form", name="ring_quench", metal=metal.name)
    )
    return (
        part_step("ring_solder", cautions=("torch",), check=True),
        cooled,
        step("heat.pickle", "form", name="ring_pickle", cautions=("pickle",), check=True),
    )


class JumpRing(Part):
    """A ring that opens sideways; soldered it holds as its wire does."""

    lengthens: ClassVar[bool] = True

    kind: Literal["jump_ring"] = "jump_ring"
    pin: Length = choice(4.0, 1, 60)
    soldered: bool = False
    wire: OptionalSize = None

    @property
    def role(self) -> Role:
        """Links with its neighbours."""
        return "link"

    def make(self, wires: Palette) -> Made:
        """Return the ring: it adds its inner diameter, as sprung, to the piece.

        Raises:
            Refusal: a metal that can't be soldered, or wire that does not stay wound.
        """
        w = wires.of("rings", self.wire)
        solderable(w, self.soldered)
        inner = sprung_inside(w, self.pin, "pin")
        end = End(inner, w.d, not self.soldered, "any")
        bears = ovals_at("soldered_ring", w, inner)
        hold = bears if self.soldered else opens_at("jump_ring", w, inner)
        turn = (("body", (ring_turn(w, self.pin, inner),)),)
        use = laid(WireUse(self.kind, w, turn, off_coil=True), middle=inner / 2, low=True)
        return Made(
            length=inner,
            thickness=w.d,
            width=inner + 2 * w.d,
            ends=(end, end),
            one_loop=True,
            wires=(use,),
            holds=(hold,),
            strokes=drawn(use),
            steps=(
                part_step("rings", cautions=("eyes",), pin=self.pin, inner=inner),
                part_step("ring_close", check=True),
                *(_soldered(w.metal) if self.soldered else ()),
            ),
            minutes=3.0 if self.soldered else 0.7,
            advice=(None if self.soldered else thin_for_links(w.d, self.pin),),
        )
