"""The spacer coil: one long coil cut into pieces of a few turns."""

from typing import Any, Literal

from jamreel.core.choices import choice
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import Made, part_step
from jamreel.core.parts.winding import Wound


class SpacerCoil(Wound):
    """A short piece of a long coil; ``lost`` turns are lost at every cut."""

    kind: Literal["spacer_coil"] = "spacer_coil"
    turns: int = choice(3, 1, 60)
    lost: float = choice(0.5, 0, 3)

    def make(self, wires: Palette) -> Made:
        """Return one spacer, with its share of what the cuts lose. Raises Refusal like
        ``looser``."""
        w = wires.of("winding", self.wire)
        # As many as a rod holds are wound in one go.
        per_go = max(1, int(self.rod / ((self.turns + self.lost) * w.d)))
        long: dict[str, Any] = {"core": self.core, "per_go": per_go, "rod": self.rod}
        cut = f"coil_cut_{self.coil_ends}"
        return self.wound(w, self.turns, self.lost, off_coil=True).but(
            steps=(
                part_step("coil_long", cautions=("whip",), **long),
                part_step(cut, name="coil_cut", cautions=("eyes",), turns=self.turns, check=True),
            ),
            minutes=0.6,
        )
