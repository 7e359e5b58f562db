"""Beads: what they are made of, how heavy they are, what breaks."""

import math
from typing import Literal

from jamreel.core.parts.base import Bought, size_of
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
BRITTLE: frozenset[Stuff] = frozenset({"glass", "stone", "pearl"})


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


def bought_bead(
    diameter: float, length: float, hole: float, stuff: Stuff, colour: Colour, count: int
) -> Bought:
    """Return beads to buy. Arguments as for ``bead_mass``, their colour, and how many."""
    sizes = (diameter, length) if abs(length - diameter) > 0.05 else (diameter,)
    words = f"{{}} {say(f'choice_option.colour.{colour}')} {say(f'stuff.{stuff}')}"
    mass = bead_mass(diameter, length, hole, stuff)
    return Bought("bead", size_of(*sizes, words=words), count, mass, diameter)
