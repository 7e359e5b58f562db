"""Coil over coil: a fine coil wound as wire round a core again, into a bead."""

from collections.abc import Iterator
from typing import ClassVar, Literal

from jamreel.core.advice.parts import no_core
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import Made, Part, Role, WireUse, part_step
from jamreel.core.parts.pictures import edge, wraps
from jamreel.core.path.moves import Straight, Wrap, wrap_length
from jamreel.core.values import Length, Stroke
from jamreel.core.wire.gauges import OptionalSize


class CoilBead(Part):
    """A coil of wire on a core wire, wound ``turns`` times round a second core."""

    ranges: ClassVar[dict[str, tuple[float, float]]] = {
        "core_wire": (0.3, 3),
        "core": (0.5, 30),
        "turns": (1, 60),
        "lead": (0, 60),
    }

    kind: Literal["coil_bead"] = "coil_bead"
    core_wire: Length = 0.8
    core: Length = 2.0
    turns: int = 5
    lead: Length = 15.0
    wire: OptionalSize = None

    @property
    def role(self) -> Role:
        """Shares a string."""
        return "strung"

    def make(self, wires: Palette) -> Made:
        """Return the bead: the second core's coil is as long as its turns take of the first.

        A ``lead`` of bare core wire stands out at each end, to hold by.
        """
        w = wires.of("winding", self.wire)
        cord = self.core_wire + 2 * w.d
        along = wrap_length(self.turns, self.core, 0, cord)
        outer = self.core + 2 * cord
        turns = along / w.d
        # The core wire lies in the middle of the cord, the fine coil between it and the core.
        inside = self.core + 2 * w.d
        return Made(
            length=self.turns * cord,
            lies="bead",
            pieces=self.turns,
            thickness=outer,
            width=outer,
            hole=self.core,
            wires=(
                WireUse(
                    "coil_bead_outer",
                    w,
                    (("body", (Wrap(turns=turns, core=self.core_wire, label="coil"),)),),
                ),
                WireUse(
                    "coil_bead_core",
                    wires.body.of_diameter(self.core_wire),
                    (
                        *((("lead_left", (Straight(length=self.lead),)),) if self.lead else ()),
                        ("body", (Wrap(turns=self.turns, core=inside, pitch=cord, label="coil"),)),
                        *((("lead_right", (Straight(length=self.lead),)),) if self.lead else ()),
                    ),
                ),
            ),
            strokes=tuple(_cord(self.turns, cord, outer, w.d)),
            steps=(
                part_step("first_coil", cautions=("whip",), core=self.core_wire, long=along),
                part_step("coil", cautions=("whip",), core=self.core, turns=self.turns, check=True),
                part_step("coil_ends", cautions=("eyes", "ends")),
            ),
            minutes=4.0 + 0.03 * turns,
            advice=(no_core(self.core_wire, w.d), no_core(self.core, cord)),
        )


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
