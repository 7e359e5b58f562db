"""A bead on the string: neighbours with holes share one wire."""

from typing import ClassVar, Literal

from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import Made, Role
from jamreel.core.parts.beads import Beaded

# A bead no longer than this only spaces others [mm]; common practice.
SPACER_MM = 5.0
# Longer than so many times its width a bead is a tube; common practice, no source.
TUBE = 1.5


class StrungBead(Beaded):
    """One bead of a strung run; of a list, each bead in turn."""

    joins: ClassVar[Role] = "strung"

    kind: Literal["bead"] = "bead"

    @property
    def spaces(self) -> bool:
        """Whether it is a spacer."""
        return not self.row and (self.bead_length or self.bead) <= SPACER_MM

    def unfolded(self) -> tuple["StrungBead", ...]:
        """Return the beads of its list one by one: each lies on the body by itself."""
        if not self.row:
            return (self,)
        return tuple(
            StrungBead(**one.model_dump(exclude={"times"})) for one in self.beads_of().each
        )

    def make(self, wires: Palette) -> Made:
        """Return the bead."""
        row = self.beads_of()
        return Made(
            length=row.length,
            # A tube touches the body along its side, as a straight link does.
            lies="straight" if row.length > TUBE * row.widest else "bead",
            thickness=row.widest,
            width=row.widest,
            hole=min(one.hole for one in row.beads),
            bought=row.bought(),
            strokes=row.strokes(0.0),
            minutes=0.1 * row.count,
            brittle=row.brittle,
        )
