"""The coil: wire wound close on a core, slid off, and strung as a tube."""

from typing import ClassVar, Literal

from jamreel.core.advice.parts import no_core
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import Made, Part, Role, WireUse, part_step
from jamreel.core.parts.pictures import wraps
from jamreel.core.path.moves import Wrap
from jamreel.core.values import Length
from jamreel.core.wire.gauges import OptionalSize


class Coil(Part):
    """A close coil, so many turns on a core."""

    ranges: ClassVar[dict[str, tuple[float, float]]] = {"core": (0.3, 40), "turns": (1, 600)}

    kind: Literal["coil"] = "coil"
    core: Length = 1.6
    turns: int = 10
    wire: OptionalSize = None

    @property
    def role(self) -> Role:
        """Shares a string."""
        return "strung"

    def make(self, wires: Palette) -> Made:
        """Return the coil; its hole is its core."""
        w = wires.of("winding", self.wire)
        outer = self.core + 2 * w.d
        stretches = (("body", (Wrap(turns=self.turns, core=self.core, label="coil"),)),)
        return Made(
            length=self.turns * w.d,
            lies="bead",
            pieces=self.turns,
            thickness=outer,
            width=outer,
            hole=self.core,
            wires=(WireUse(self.kind, w, stretches),),
            strokes=tuple(wraps(0, self.turns, w.d, outer - w.d)),
            steps=(
                part_step("coil", cautions=("whip",), core=self.core, turns=self.turns, check=True),
                part_step("coil_ends", cautions=("eyes", "ends")),
            ),
            minutes=1.0 + 0.05 * self.turns,
            advice=(no_core(self.core, w.d),),
        )
