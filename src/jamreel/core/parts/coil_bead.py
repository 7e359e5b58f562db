"""Coil over coil: a fine coil wound as wire round a core again, into a bead."""

from collections.abc import Iterator
from typing import ClassVar, Literal

from jamreel.core.advice.parts import no_core
from jamreel.core.choices import choice
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import Made, Part, Role, Stretches, WireUse, part_step
from jamreel.core.parts.pictures import edge, shifted, wraps
from jamreel.core.path.moves import Move, Straight, Wrap, wrap_length
from jamreel.core.values import Length, Stroke
from jamreel.core.wire.gauges import CoreSize, OptionalSize

# Several wound on one rod stand so far from each other [mm]; common practice.
APART_MM = 6.0


class CoilBead(Part):
    """A coil of wire on a core wire, wound ``turns`` times round a second core."""

    joins: ClassVar[Role] = "strung"

    kind: Literal["coil_bead"] = "coil_bead"
    core_wire: CoreSize = choice(0.8, 0.3, 3)
    core: CoreSize = choice(2.0, 0.5, 30)
    turns: int = choice(5, 1, 60)
    bare_turns: int = choice(3, 0, 8)
    lead: Length = choice(15.0, 0, 60)
    rod: Length = choice(150.0, 20, 1000)
    wire: OptionalSize = None

    def make(self, wires: Palette) -> Made:
        """Return the bead: the second core's coil is as long as its turns take of the first.

        Its core wire goes on at each end in ``bare_turns`` of its own, and a ``lead`` to hold by.
        """
        w = wires.of("winding", self.wire)
        cord = self.core_wire + 2 * w.d
        along = wrap_length(self.turns, self.core, 0, cord)
        outer = self.core + 2 * cord
        turns = along / w.d
        # The core wire lies in the middle of the cord, the fine coil between it and the core.
        inside = self.core + 2 * w.d
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
                    (("body", (Wrap(turns=turns, core=self.core_wire, label="coil"),)),),
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
            steps=(
                part_step("first_coil", cautions=("whip",), core=self.core_wire, long=along),
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
            ),
            minutes=4.0 + 0.03 * turns,
            advice=(no_core(self.core_wire, w.d),),
        )

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
