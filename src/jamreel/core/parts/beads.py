"""Beads: what they are made of, how heavy, what breaks; one alone or a list on one wire."""

import math
from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass
from typing import ClassVar, Literal

from pydantic import Field

from jamreel.core.advice import Advice
from jamreel.core.advice.parts import hole_passes
from jamreel.core.choices import Asking, choice
from jamreel.core.parts.base import Bought, Part, size_of
from jamreel.core.parts.pictures import bead
from jamreel.core.values import Length, OptionalLength, Stroke
from jamreel.core.words import say

Stuff = Literal["glass", "stone", "pearl", "wood", "metal"]
# A bead's colour on the drawing.
Colour = Literal["reed", "slate", "amber", "brick", "plum", "chalk", "ink"]

# Densities [g/cm3], from memory: soda glass, quartz, nacre, hardwood, brass.
DENSITY: dict[Stuff, float] = {
    "glass": 2.5,
    "stone": 2.65,
    "pearl": 2.75,
    "wood": 0.7,
    "metal": 8.5,
}
BRITTLE: frozenset[str] = frozenset({"glass", "stone", "pearl"})
# More beads than this on one wire are a string of their own.
MOST_LISTED, MOST_ALIKE = 12, 40


def bead_mass(diameter: float, length: float, hole: float, stuff: Stuff) -> float:
    """Return the mass of a bead: an ellipsoid less its hole.

    Args:
        diameter: across the hole [mm].
        length: along the hole [mm].
        hole: diameter of the hole [mm], smaller than the bead.
        stuff: what it is made of.

    Returns:
        Mass [g].

    Example:
        >>> round(bead_mass(8.0, 8.0, 1.0, "glass"), 2)
        0.65

    Source: plain geometry; densities from memory.
    """
    volume = math.pi * diameter**2 * length / 6 - math.pi * hole**2 * length / 4
    return DENSITY[stuff] * 1e-3 * max(volume, 0.0)


class OneBead(Asking):
    """A bead of a list, ``times`` of it side by side; a round one where it has no length of its
    own."""

    bead: Length = choice(4.0, 0.5, 40)
    bead_length: OptionalLength = choice(None, 0.3, 60)
    hole: Length = choice(1.0, 0.2, 12)
    stuff: Stuff = "glass"
    colour: Colour = "slate"
    times: int = choice(1, 1, MOST_ALIKE)

    @property
    def along(self) -> float:
        """How long it is along its hole [mm]."""
        return self.bead_length or self.bead


BeadList = tuple[OneBead, ...]


@dataclass(frozen=True)
class BeadRow:
    """Beads side by side on one wire, in order."""

    beads: BeadList

    @property
    def length(self) -> float:
        """How much of the wire they cover [mm]."""
        return sum(one.along * one.times for one in self.beads)

    @property
    def count(self) -> int:
        """How many they are."""
        return sum(one.times for one in self.beads)

    @property
    def widest(self) -> float:
        """The widest of them across [mm], 0 where there is none."""
        return max((one.bead for one in self.beads), default=0.0)

    @property
    def brittle(self) -> bool:
        """Whether one of them breaks at a knock."""
        return bool(self.stuffs & BRITTLE)

    @property
    def stuffs(self) -> frozenset[str]:
        """What they are made of."""
        return frozenset(one.stuff for one in self.beads)

    @property
    def each(self) -> Iterator[OneBead]:
        """Every bead by itself."""
        for one in self.beads:
            for _ in range(one.times):
                yield one

    def bought(self, rows: int = 1) -> tuple[Bought, ...]:
        """Return what is bought for so many such rows, alike ones together."""
        alike: Counter[OneBead] = Counter()
        for one in self.beads:
            alike[one.model_copy(update={"times": 1})] += one.times
        return tuple(bought_bead(one, count * rows) for one, count in alike.items() if rows)

    def strokes(self, x: float, y: float = 0.0) -> tuple[Stroke, ...]:
        """Return them drawn from x on, their wire at y."""
        drawn = []
        for one in self.beads:
            stroke = bead(x + one.along / 2, one.along, one.bead, one.colour, y)
            again = {"times": one.times, "step": (one.along, 0.0)} if one.times > 1 else {}
            drawn.append(stroke.model_copy(update=again))
            x += one.along * one.times
        return tuple(drawn)

    def passes(self, wire: float, times: int = 1) -> Advice | None:
        """Return a warning when one of their holes does not pass a wire [mm] so many times."""
        narrowest = min((one.hole for one in self.beads), default=math.inf)
        return hole_passes(narrowest, wire, times)


class Beaded(Part):
    """Base of parts with beads on a wire: one size of bead, or a list where one bead stands."""

    grades: ClassVar[str | None] = "bead"

    bead: Length = choice(6.0, 0.5, 40)
    bead_length: OptionalLength = choice(None, 0.3, 60)
    hole: Length = choice(1.0, 0.2, 12)
    stuff: Stuff = "glass"
    colour: Colour = "reed"
    row: BeadList = Field(default=(), max_length=MOST_LISTED)

    def beads_of(self, count: int = 1) -> BeadRow:
        """Return the beads of its list, or so many of its one size where it has no list."""
        if self.row or not count:
            return BeadRow(self.row)
        # Read once already, and one that is graded may be of any size.
        one = OneBead.model_construct(
            bead=self.bead,
            bead_length=self.bead_length,
            hole=self.hole,
            stuff=self.stuff,
            colour=self.colour,
            times=count,
        )
        return BeadRow((one,))

    @property
    def stuffs(self) -> frozenset[str]:
        """What its beads are made of."""
        return self.beads_of().stuffs


def bought_bead(one: OneBead, count: int) -> Bought:
    """Return beads to buy: which, and how many."""
    along = abs(one.along - one.bead) > 0.05
    sizes = (one.bead, one.along) if along else (one.bead,)
    words = f"{{}} {say(f'choice_option.colour.{one.colour}')} {say(f'stuff.{one.stuff}')}"
    mass = bead_mass(one.bead, one.along, one.hole, one.stuff)
    return Bought("bead", size_of(*sizes, words=words), count, mass, one.bead)
