"""The spacer coil: one long coil cut into pieces of a few turns."""

from typing import ClassVar, Literal

from jamreel.core.advice.parts import no_core
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import Made, Part, Role, WireUse, part_step
from jamreel.core.parts.pictures import wraps
from jamreel.core.path.moves import Wrap
from jamreel.core.values import Length
from jamreel.core.wire.gauges import OptionalSize


class SpacerCoil(Part):
    """A short piece of a long coil; ``lost`` turns are lost at every cut."""

    ranges: ClassVar[dict[str, tuple[float, float]]] = {
        "core": (0.3, 40),
        "turns": (1, 60),
        "lost": (0, 3),
    }

    kind: Literal["spacer_coil"] = "spacer_coil"
    core: Length = 1.6
    turns: int = 3
    lost: float = 0.5
    wire: OptionalSize = None

    @property
    def role(self) -> Role:
        """Shares a string."""
        return "strung"

    def make(self, wires: Palette) -> Made:
        """Return one spacer, with its share of what the flush cuts lose."""
        w = wires.of("winding", self.wire)
        outer = self.core + 2 * w.d
        stretches = (
            ("body", (Wrap(turns=self.turns, core=self.core, label="coil"),)),
            *((("lost", (Wrap(turns=self.lost, core=self.core),)),) if self.lost else ()),
        )
        return Made(
            length=self.turns * w.d,
            lies="bead",
            pieces=self.turns,
            thickness=outer,
            width=outer,
            hole=self.core,
            wires=(WireUse(self.kind, w, stretches, off_coil=True),),
            strokes=tuple(wraps(0, self.turns, w.d, outer - w.d)),
            steps=(
                part_step("coil_long", cautions=("whip",), core=self.core),
                part_step("coil_cut", cautions=("eyes",), turns=self.turns, check=True),
            ),
            minutes=0.6,
            advice=(no_core(self.core, w.d),),
        )
