"""The spacer coil: one long coil cut into pieces of a few turns."""

from typing import Literal

from jamreel.core.choices import choice
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import Made, Role, WireUse, part_step
from jamreel.core.parts.drawn import drawn, laid
from jamreel.core.parts.winding import Wound
from jamreel.core.path.moves import Wrap


class SpacerCoil(Wound):
    """A short piece of a long coil; ``lost`` turns are lost at every cut."""

    kind: Literal["spacer_coil"] = "spacer_coil"
    turns: int = choice(3, 1, 60)
    lost: float = choice(0.5, 0, 3)

    @property
    def role(self) -> Role:
        """Shares a string."""
        return "strung"

    def make(self, wires: Palette) -> Made:
        """Return one spacer, with its share of what the cuts lose. Raises Refusal like
        ``looser``."""
        w = wires.of("winding", self.wire)
        outer, in_all = self.core + 2 * w.d, self.turns + self.lost
        stretches = (
            ("body", (Wrap(turns=self.turns, core=self.core, label="coil"),)),
            *((("lost", (Wrap(turns=self.lost, core=self.core),)),) if self.lost else ()),
            *self.looser(w, in_all),
        )
        spacer = WireUse(self.kind, w, stretches, off_coil=True, wound=True)
        use = laid(spacer, middle=self.turns * w.d / 2, low=True)
        # As many as a rod holds are wound in one go.
        per_go = max(1, int(self.rod / (in_all * w.d)))
        return Made(
            length=self.turns * w.d,
            lies="bead",
            pieces=self.turns,
            thickness=outer,
            width=outer,
            hole=self.core,
            wires=(use,),
            strokes=drawn(use),
            steps=(
                part_step(
                    "coil_long", cautions=("whip",), core=self.core, per_go=per_go, rod=self.rod
                ),
                part_step(
                    f"coil_cut_{self.coil_ends}",
                    name="coil_cut",
                    cautions=("eyes",),
                    turns=self.turns,
                    check=True,
                ),
            ),
            minutes=0.6,
            advice=self.winding_advice(w, in_all),
        )
