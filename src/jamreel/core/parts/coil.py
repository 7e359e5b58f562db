"""The coil: wire wound close on a core, slid off, and strung as a tube."""

import math
from typing import Any, ClassVar, Literal

from jamreel.core.choices import choice
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import Made, part_step
from jamreel.core.parts.winding import Wound


class Coiled(Wound):
    """Base of close coils, so many turns on a core; those longer than the rod are wound in goes."""

    turns: int = choice(10, 1, 600)

    def make(self, wires: Palette) -> Made:
        """Return the coil. Raises Refusal like ``looser``."""
        made = self.wound(wires.of("winding", self.wire), self.turns)
        goes = math.ceil(made.length / self.rod)
        more: dict[str, Any] = {"core": self.core, "turns": self.turns}
        if goes > 1:
            more |= {"goes": goes, "rod": self.rod}
        key = "coil" if goes == 1 else "coil_goes"
        ends = f"coil_ends_{self.coil_ends}"
        return made.but(
            steps=(
                part_step(key, name="coil", cautions=("whip",), check=True, **more),
                part_step(ends, name="coil_ends", cautions=("eyes", "ends")),
            ),
            minutes=1.0 + 0.05 * self.turns,
        )


class Coil(Coiled):
    """A close coil on its core."""

    kind: Literal["coil"] = "coil"
    first: ClassVar[tuple[str, ...]] = ("turns", "core", "rod", "coil_ends", "wire")
