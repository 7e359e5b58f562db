"""A bead on the string: neighbours with holes share one wire."""

from typing import ClassVar, Literal

from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import Made, Part, Role
from jamreel.core.parts.beads import BRITTLE, Colour, Stuff, bought_bead
from jamreel.core.parts.pictures import bead
from jamreel.core.values import Length, OptionalLength

# A bead no longer than this only spaces others [mm]; common practice.
SPACER_MM = 5.0
# Longer than so many times its width a bead is a tube; common practice, no source.
TUBE = 1.5


class StrungBead(Part):
    """One bead of a strung run."""

    ranges: ClassVar[dict[str, tuple[float, float]]] = {
        "bead": (0.5, 40),
        "bead_length": (0.3, 60),
        "hole": (0.2, 12),
    }
    grades: ClassVar[str | None] = "bead"

    kind: Literal["bead"] = "bead"
    bead: Length = 6.0
    bead_length: OptionalLength = None
    hole: Length = 1.0
    stuff: Stuff = "glass"
    colour: Colour = "reed"

    @property
    def role(self) -> Role:
        """Shares a string."""
        return "strung"

    @property
    def spaces(self) -> bool:
        """Whether it is a spacer."""
        return (self.bead_length or self.bead) <= SPACER_MM

    def make(self, wires: Palette) -> Made:
        """Return the bead."""
        long = self.bead_length or self.bead
        return Made(
            length=long,
            # A tube touches the body along its side, as a straight link does.
            lies="straight" if long > TUBE * self.bead else "bead",
            thickness=self.bead,
            width=self.bead,
            hole=self.hole,
            bought=(bought_bead(self.bead, long, self.hole, self.stuff, self.colour, 1),),
            strokes=(bead(long / 2, long, self.bead, self.colour),),
            minutes=0.1,
            brittle=self.stuff in BRITTLE,
        )
