"""The coil: wire wound close on a core, slid off, and strung as a tube."""

import math
from typing import Literal

from jamreel.core.choices import choice
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import Made, Role, WireUse, part_step
from jamreel.core.parts.drawn import drawn, laid
from jamreel.core.parts.winding import Wound
from jamreel.core.path.moves import Wrap


class Coiled(Wound):
    """Base of close coils, so many turns on a core; those longer than the rod are wound in goes."""

    turns: int = choice(10, 1, 600)

    @property
    def role(self) -> Role:
        """Shares a string."""
        return "strung"

    def make(self, wires: Palette) -> Made:
        """Return the coil; its hole is its core. Raises Refusal like ``looser``."""
        w = wires.of("winding", self.wire)
        outer, long = self.core + 2 * w.d, self.turns * w.d
        goes = math.ceil(long / self.rod)
        stretches = (
            ("body", (Wrap(turns=self.turns, core=self.core, label="coil"),)),
            *self.looser(w, self.turns),
        )
        key, more = ("coil", {}) if goes == 1 else ("coil_goes", {"goes": goes, "rod": self.rod})
        use = laid(WireUse(self.kind, w, stretches, wound=True), middle=long / 2, low=True)
        return Made(
            length=long,
            lies="bead",
            pieces=self.turns,
            thickness=outer,
            width=outer,
            hole=self.core,
            wires=(use,),
            strokes=drawn(use),
            steps=(
                part_step(
                    key,
                    name="coil",
                    cautions=("whip",),
                    core=self.core,
                    turns=self.turns,
                    check=True,
                    **more,
                ),
                part_step(
                    f"coil_ends_{self.coil_ends}", name="coil_ends", cautions=("eyes", "ends")
                ),
            ),
            minutes=1.0 + 0.05 * self.turns,
            advice=self.winding_advice(w, self.turns),
        )


class Coil(Coiled):
    """A close coil on its core."""

    kind: Literal["coil"] = "coil"
