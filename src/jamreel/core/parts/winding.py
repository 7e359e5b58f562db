"""What wound parts have in common: a core, a rod, and a sample that tells how a hand winds."""

from typing import ClassVar, Literal

from jamreel.core.advice import Advice
from jamreel.core.advice.parts import no_core, wound_by_hand
from jamreel.core.choices import choice
from jamreel.core.errors import Refusal
from jamreel.core.forming.chosen import Wire
from jamreel.core.parts.base import Made, Part, Role, Stretches, WireUse
from jamreel.core.parts.drawn import drawn, laid
from jamreel.core.path.coils import effective_core
from jamreel.core.path.moves import Straight, Wrap, wrap_length
from jamreel.core.units import Mm
from jamreel.core.values import Length, OptionalLength
from jamreel.core.wire.gauges import CoreSize, OptionalSize

CoilEnds = Literal["flush", "slanting"]


class Wound(Part):
    """Base of what is wound on a core.

    ``rod`` is how much of the winding rod can be wound full. A sample, so much wire in and so long
    a coil out, tells how much this hand takes beyond the sum.
    """

    core: CoreSize = choice(1.6, 0.3, 40)
    rod: Length = choice(150.0, 20, 1000)
    coil_ends: CoilEnds = "flush"
    sample_wire: OptionalLength = choice(None, 50, 20000)
    sample_coil: OptionalLength = choice(None, 5, 5000)
    wire: OptionalSize = None

    joins: ClassVar[Role] = "strung"

    def wound(self, wire: Wire, turns: int, lost: float = 0.0, *, off_coil: bool = False) -> Made:
        """Return so many close turns; its hole is its core.

        Args:
            wire: that is wound.
            turns: of the coil.
            lost: further ones that its cut loses.
            off_coil: whether it is cut from a longer coil.

        Raises:
            Refusal: like ``looser``.
        """
        outer, long = self.core + 2 * wire.d, turns * wire.d
        stretches = (
            ("body", (Wrap(turns=turns, core=self.core, label="coil"),)),
            *((("lost", (Wrap(turns=lost, core=self.core),)),) if lost else ()),
            *self.looser(wire, turns + lost),
        )
        coil = WireUse(self.kind, wire, stretches, off_coil=off_coil, wound=True)
        use = laid(coil, middle=long / 2, low=True)
        return Made(
            length=long,
            lies="bead",
            pieces=turns,
            thickness=outer,
            width=outer,
            hole=self.core,
            wires=(use,),
            strokes=drawn(use),
            advice=self.winding_advice(wire, turns + lost),
        )

    def looser(self, wire: Wire, turns: float) -> Stretches:
        """Return what this hand takes beyond the sum for some turns, as a stretch of its own.

        Raises:
            Refusal: half a sample, or one that gives more coil than its wire can make.
        """
        core = self._sampled(wire)
        if core is None:
            return ()
        more = wrap_length(turns, core, 0, wire.d) - wrap_length(turns, self.core, 0, wire.d)
        return (("looser", (Straight(length=more),)),) if more > 1e-9 else ()

    def _sampled(self, wire: Wire) -> float | None:
        return sampled_core((self.sample_wire, self.sample_coil), self.core, wire.d)

    def winding_advice(self, wire: Wire, turns: float) -> tuple[Advice | None, ...]:
        """Return whether its core is wide enough, and how far a hand may be off the sum."""
        takes = wrap_length(turns, self.core, 0, wire.d)
        sampled = self.sample_wire is not None
        return (no_core(self.core, wire.d), wound_by_hand(takes, sampled))


def sampled_core(
    sample: tuple[float | None, float | None],
    core: float,
    wire: float,
    fields: tuple[str, str] = ("sample_wire", "sample_coil"),
) -> float | None:
    """Return the core that a sample tells of [mm], None where there is none.

    Args:
        sample: how much went in, and how long the coil came out [mm].
        core: that it was wound on [mm].
        wire: what was wound, across [mm]: a wire, or a coil that is wound in its turn.
        fields: the choices that the two stand in.

    Raises:
        Refusal: half a sample, or one that gives more coil than what went in can make.

    Source: ``effective_core``.
    """
    took, gave = sample
    if took is None and gave is None:
        return None
    if took is None or gave is None:
        raise Refusal("sample_half", got=None, field=fields[took is not None])
    found = effective_core(took, gave, wire)
    if found < 0.5 * core:
        least = wrap_length(gave / wire, core, 0, wire)
        raise Refusal("sample_short", got=Mm(took), field=fields[0], coil=gave, least=least)
    return found
