"""Coil over coil: a fine coil wound as wire round a core again, into a bead."""

from collections.abc import Iterator
from typing import ClassVar, Literal

from jamreel.core.advice.parts import no_core, rod_loose
from jamreel.core.bench.steps import Step
from jamreel.core.choices import choice
from jamreel.core.errors import Refusal
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import Made, Part, Role, Stretches, WireUse, part_step
from jamreel.core.parts.pictures import edge, shifted, wraps
from jamreel.core.parts.winding import sampled_core
from jamreel.core.path.moves import Move, Straight, Wrap, wrap_length
from jamreel.core.units import Mm
from jamreel.core.values import Length, OptionalLength, Stroke
from jamreel.core.wire.gauges import CoreSize, OptionalCore, OptionalSize

# How much wider than the core wire the bore of the fine coil is, at least and at most [mm]; common
# practice, no source.
ROOM_MM = (0.1, 0.3)
# Several wound on one rod stand so far from each other [mm]; common practice.
APART_MM = 6.0


class CoilBead(Part):
    """A coil of wire on a core wire, wound ``turns`` times round a second core.

    The fine coil is wound on a rod of its own, so much wider than the core wire that it goes over
    it. Two samples tell how a hand winds: fine wire into coil, coil into bead.
    """

    joins: ClassVar[Role] = "strung"

    kind: Literal["coil_bead"] = "coil_bead"
    core_wire: CoreSize = choice(0.8, 0.3, 3)
    first_rod: OptionalCore = choice(None, 0.3, 4)
    core: CoreSize = choice(2.0, 0.5, 30)
    turns: int = choice(5, 1, 60)
    bare_turns: int = choice(3, 0, 8)
    lead: Length = choice(15.0, 0, 60)
    rod: Length = choice(150.0, 20, 1000)
    sample_wire: OptionalLength = choice(None, 50, 20000)
    sample_coil: OptionalLength = choice(None, 5, 5000)
    sample_cord: OptionalLength = choice(None, 10, 5000)
    sample_bead: OptionalLength = choice(None, 2, 1000)
    wire: OptionalSize = None

    @property
    def on_rod(self) -> float:
        """The rod of the fine coil [mm]. Raises Refusal for one that the core wire fills."""
        least = self.core_wire + ROOM_MM[0]
        if self.first_rod is None:
            return self.core_wire + sum(ROOM_MM) / 2
        if self.first_rod < least - 1e-9:
            raise Refusal("first_rod", got=Mm(self.first_rod), field="first_rod", least=least)
        return self.first_rod

    def make(self, wires: Palette) -> Made:
        """Return the bead: the second core's coil is as long as its turns take of the first.

        Its core wire goes on at each end in ``bare_turns`` of its own, and a ``lead`` to hold by.

        Raises:
            Refusal: a rod that is no wider than the core wire, half a sample, or one that gives
                more than what went in can make.
        """
        w = wires.of("winding", self.wire)
        cord = self.on_rod + 2 * w.d
        core, first = self._hand(w.d, cord)
        along = wrap_length(self.turns, core, 0, cord)
        outer = self.core + 2 * cord
        turns = along / w.d
        # The core wire lies in the middle of the cord.
        inside = core + cord - self.core_wire
        bare = self.bare_turns * self.core_wire
        length = self.turns * cord + 2 * bare
        ends = wraps(0, self.bare_turns, self.core_wire, self.core + self.core_wire)
        bare_seen = (*ends, *shifted(ends, length - bare))
        cord_seen = shifted(_cord(self.turns, cord, outer, w.d), bare)
        return Made(
            length=length,
            lies="bead",
            pieces=self.turns + 2 * self.bare_turns,
            thickness=outer,
            width=outer,
            hole=self.core,
            wires=(
                WireUse(
                    "coil_bead_outer",
                    w,
                    (("body", (Wrap(turns=turns, core=first, label="coil"),)),),
                    shown=cord_seen,
                ),
                WireUse(
                    "coil_bead_core",
                    wires.body.of_diameter(self.core_wire),
                    self._core(inside, cord),
                    shown=bare_seen or cord_seen,
                ),
            ),
            strokes=(*bare_seen, *cord_seen),
            steps=self._steps(along, length),
            minutes=4.0 + 0.03 * turns,
            advice=(no_core(self.on_rod, w.d), rod_loose(self.on_rod, self.core_wire, ROOM_MM[1])),
        )

    def _steps(self, along: float, length: float) -> tuple[Step, ...]:
        """Return how it is made, of so much fine coil, to so long a bead [mm]."""
        return (
            part_step("first_coil", cautions=("whip",), core=self.on_rod, long=along),
            part_step("thread_coils", per_go=self._per_go(length), apart=APART_MM),
            part_step(
                "coil_cord",
                name="coil",
                cautions=("whip",),
                core=self.core,
                turns=self.turns,
                bare=self.bare_turns,
                check=True,
            ),
            part_step("coil_ends_flush", name="coil_ends", cautions=("eyes", "ends")),
        )

    def _hand(self, fine: float, cord: float) -> tuple[float, float]:
        """Return the cores by which this hand winds [mm]: of the cord, and of the fine coil."""
        one = sampled_core((self.sample_wire, self.sample_coil), self.on_rod, fine)
        two = sampled_core(
            (self.sample_cord, self.sample_bead), self.core, cord, ("sample_cord", "sample_bead")
        )
        return self.core if two is None else two, self.on_rod if one is None else one

    def _core(self, inside: float, cord: float) -> Stretches:
        """Return the core wire: lead, bare turns on the second core, cord, and the same back."""
        turns = Wrap(turns=self.turns, core=inside, pitch=cord, label="coil")
        rows: list[tuple[str, tuple[Move, ...]]] = [("body", (turns,))]
        for side, first in (("left", True), ("right", False)):
            ends: list[tuple[str, tuple[Move, ...]]] = []
            if self.lead:
                ends.append((f"lead_{side}", (Straight(length=self.lead),)))
            if self.bare_turns:
                bare = Wrap(turns=self.bare_turns, core=self.core, label="coil")
                ends.append((f"bare_{side}", (bare,)))
            rows = [*ends, *rows] if first else [*rows, *ends[::-1]]
        return tuple(rows)

    def _per_go(self, length: float) -> int:
        """Return how many are wound on one rod, one behind the other."""
        return max(1, int((self.rod + APART_MM) / (length + APART_MM)))


def _cord(turns: int, cord: float, outer: float, d: float) -> Iterator[Stroke]:
    """Yield the turns of a coiled cord, the fine turns across each."""
    yield from wraps(0, turns, cord, outer - cord)
    count = max(3, round(outer / (1.3 * d)))
    again = {"times": turns, "step": (cord, 0.0)}
    for k in range(count):
        y = -outer / 2 + (k + 0.5) * outer / count
        x = 0.5 * cord + cord * 0.2 * (y / outer)
        one = edge(x - 0.43 * cord, x + 0.43 * cord, 0.8 * outer / count, round(y, 2))
        yield one.model_copy(update=again)
