"""The split ring: bought, two turns of hard wire."""

from typing import ClassVar, Literal

from jamreel.core.choices import choice
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import Bought, Hold, Made, Part, Role, part_step, size_of
from jamreel.core.parts.pictures import ring
from jamreel.core.parts.rings import ring_made
from jamreel.core.parts.weights import split_ring_mass
from jamreel.core.values import Length

# Two turns of hard wire hold some tens of newtons; from memory, ask the seller.
HOLDS_N = 60.0


class SplitRing(Part):
    """Holds better than a jump ring, and stands twice as thick."""

    joins: ClassVar[Role] = "link"

    kind: Literal["split_ring"] = "split_ring"
    inner: Length = choice(4.0, 1, 40)
    ring_wire: Length = choice(0.7, 0.3, 3)

    def make(self, wires: Palette) -> Made:
        """Return the ring: it adds its inner diameter to the piece."""
        d, mass = self.ring_wire, split_ring_mass(self.inner, self.ring_wire)
        return ring_made(
            self.inner,
            d,
            opens=True,
            turns=2,
            bought=(Bought(self.kind, size_of(self.inner), 1, mass, self.inner),),
            holds=(Hold("split_ring", HOLDS_N),),
            strokes=tuple(
                ring(self.inner / 2 + aside, self.inner, d, 0.0, "bought") for aside in (0, d / 4)
            ),
            steps=(part_step("split_ring", check=True),),
            minutes=1.0,
        )
