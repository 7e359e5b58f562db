"""A closed ring, bought: cast or soldered, it does not open."""

import math
from typing import ClassVar, Literal

from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import Bought, End, Made, Part, Role, part_step, size_of
from jamreel.core.parts.pictures import ring
from jamreel.core.parts.weights import BRASS
from jamreel.core.values import Length


class BoughtRing(Part):
    """Its neighbours have to open, or be closed round it."""

    ranges: ClassVar[dict[str, tuple[float, float]]] = {"inner": (1, 60), "ring_wire": (0.3, 8)}

    kind: Literal["bought_ring"] = "bought_ring"
    inner: Length = 8.0
    ring_wire: Length = 1.5

    @property
    def role(self) -> Role:
        """Links with its neighbours."""
        return "link"

    def make(self, wires: Palette) -> Made:
        """Return the ring: it adds its inner diameter; what it bears is not known."""
        d = self.ring_wire
        end = End(self.inner, d, False, "any")
        mass = BRASS * 1e-3 * math.pi * (self.inner + d) * math.pi * d**2 / 4
        return Made(
            length=self.inner,
            thickness=d,
            width=self.inner + 2 * d,
            ends=(end, end),
            one_loop=True,
            bought=(Bought("ring", size_of(self.inner), 1, mass, self.inner),),
            strokes=(ring(self.inner / 2, self.inner, d, 0.0, "bought"),),
            steps=(part_step("measure_ring", check=True, inner=self.inner),),
            minutes=0.3,
        )
