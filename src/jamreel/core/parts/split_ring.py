"""The split ring: bought, two turns of hard wire."""

from typing import Literal

from jamreel.core.choices import choice
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import Bought, End, Hold, Made, Part, Role, part_step, size_of
from jamreel.core.parts.pictures import ring
from jamreel.core.parts.weights import split_ring_mass
from jamreel.core.values import Length

# Two turns of hard wire hold some tens of newtons; from memory, ask the seller.
HOLDS_N = 60.0


class SplitRing(Part):
    """Holds better than a jump ring, and stands twice as thick."""

    kind: Literal["split_ring"] = "split_ring"
    inner: Length = choice(4.0, 1, 40)
    ring_wire: Length = choice(0.7, 0.3, 3)

    @property
    def role(self) -> Role:
        """Links with its neighbours."""
        return "link"

    def make(self, wires: Palette) -> Made:
        """Return the ring: it adds its inner diameter to the piece."""
        d = self.ring_wire
        end = End(self.inner, 2 * d, True, "any")
        turns = (
            ring(self.inner / 2, self.inner, d, 0.0, "bought"),
            ring(self.inner / 2 + 0.25 * d, self.inner, d, 0.0, "bought"),
        )
        return Made(
            length=self.inner,
            thickness=2 * d,
            width=self.inner + 2 * d,
            ends=(end, end),
            one_loop=True,
            bought=(
                Bought(
                    self.kind,
                    size_of(self.inner),
                    1,
                    split_ring_mass(self.inner, d),
                    self.inner,
                ),
            ),
            holds=(Hold("split_ring", HOLDS_N),),
            strokes=turns,
            steps=(part_step("split_ring", check=True),),
            minutes=1.0,
        )
