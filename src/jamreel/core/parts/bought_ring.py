"""A closed ring, bought: cast or soldered, it does not open."""

import math
from typing import ClassVar, Literal

from jamreel.core.choices import choice
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import Bought, Made, Part, Role, part_step, size_of
from jamreel.core.parts.pictures import ring
from jamreel.core.parts.rings import ring_made
from jamreel.core.parts.weights import BRASS
from jamreel.core.values import Length


class BoughtRing(Part):
    """Its neighbours have to open, or be closed round it."""

    joins: ClassVar[Role] = "link"

    kind: Literal["bought_ring"] = "bought_ring"
    inner: Length = choice(8.0, 1, 60)
    ring_wire: Length = choice(1.5, 0.3, 8)

    def make(self, wires: Palette) -> Made:
        """Return the ring: it adds its inner diameter; what it bears is not known."""
        d = self.ring_wire
        mass = BRASS * 1e-3 * math.pi * (self.inner + d) * math.pi * d**2 / 4
        return ring_made(
            self.inner,
            d,
            opens=False,
            bought=(Bought("ring", size_of(self.inner), 1, mass, self.inner),),
            strokes=(ring(self.inner / 2, self.inner, d, 0.0, "bought"),),
            steps=(part_step("measure_ring", check=True, inner=self.inner),),
            minutes=0.3,
        )
