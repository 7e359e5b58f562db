"""Sums of stone cages: strands round a stone, their marks, bindings, the lip that holds it."""

import math
from dataclasses import dataclass

from jamreel.core.body.outline import superellipse_perimeter
from jamreel.core.path.coils import binding_length

# A lip stands in over the stone by so much at least [mm], half a strand if that is more; common
# practice.
LEAST_HOLD = 0.4

# A bail where nothing is said of what goes through it; what that has to swing in; the least one
# [mm]; common practice, no source.
USUAL_BAIL_MM, SWINGS_MM, LEAST_BAIL_MM = 5.0, 1.0, 2.0


def oval_girth(length: float, width: float) -> float:
    """Return the perimeter of an ellipse [mm].

    Args:
        length: its long axis [mm].
        width: its short axis [mm].

    Example:
        >>> round(oval_girth(30, 22), 2)
        82.17

    Source: ``body.outline.superellipse_perimeter``, of exponent 2.
    """
    return superellipse_perimeter(length / 2, width / 2, 2.0)


def pear_girth(length: float, width: float) -> float:
    """Return the girth of a pear: a round end, and two straights from it to the tip.

    Args:
        length: from tip to round end [mm].
        width: across the round end [mm], less than the length.

    Returns:
        Perimeter [mm].

    Example:
        >>> round(pear_girth(30, 20), 2)
        76.53

    Source: tangents from a point to a circle; plain geometry.
    """
    r, far = width / 2, length - width / 2
    lean = math.acos(r / far)
    return 2 * math.sqrt(far * far - r * r) + 2 * r * (math.pi - lean)


@dataclass(frozen=True)
class Cage:
    """Strands round a stone, lengths in mm: its girth, how many strands, their thickness, tails at
    both ends, pulls of the lip, its base and its depth."""

    girth: float
    strands: int
    strand: float
    tail: float
    pulls: int = 0
    base: float = 0.0
    lip: float = 0.0

    @property
    def around(self) -> float:
        """G + pi d, once round the stone [mm]."""
        return self.girth + math.pi * self.strand

    @property
    def pulled(self) -> float:
        """n 2 (sqrt(base^2 + lip^2) - base), what the pulls take of a strand [mm]."""
        return self.pulls * 2 * (math.hypot(self.base, self.lip) - self.base)

    def cut(self, tight: float = 1.0) -> float:
        """Return the length of a strand, around + pulls + 2 tails.

        Args:
            tight: wire used over wire computed, round the stone.

        Returns:
            Length [mm].

        Example:
            >>> round(Cage(82, 9, 0.8, 60).cut(), 2), round(Cage(110, 9, 1, 75, 8, 4, 0.9).cut(), 2)
            (204.51, 264.74)

        Source: length round any convex girth; plain geometry.
        """
        return tight * self.around + self.pulled + 2 * self.tail

    def marks(self, side: float = 0.25) -> tuple[float, ...]:
        """Return the marks of a strand from one end: top, side, centre, side, top.

        Args:
            side: how far the sides lie from the centre, as a share of once round: a quarter on
                shapes with two axes.

        Returns:
            Places [mm], alike from both ends.

        Example:
            >>> [round(x, 2) for x in Cage(82, 9, 0.8, 60).marks()[:3]]
            [60.0, 81.13, 102.26]

        Source: plain geometry.
        """
        middle, round_ = self.cut() / 2, self.around
        ways = (-round_ / 2, -side * round_, 0.0, side * round_, round_ / 2)
        return tuple(middle + way for way in ways)


def neck_turn(strands: int, strand: float, width: float, offset: float) -> float:
    """Return a turn round the neck of a cage, two rows of strands.

    Args:
        strands: k.
        strand: d [mm], square.
        width: b of the binding wire [mm].
        offset: e, of its neutral line [mm].

    Returns:
        Length [mm].

    Example:
        >>> round(neck_turn(9, 0.8, 0.8, 4 * 0.4 / (3 * math.pi)), 2)
        18.68

    Source: length of a hull; plain geometry.
    """
    hull = 2 * (strands * strand + 2 * strand)
    return binding_length(1, hull, offset, width)


def bail_for(through: float | None) -> float:
    """Return the pin of a bail: what goes through it, and room to swing.

    Args:
        through: thickness of chain, cord or ring [mm], None where nothing is said.

    Example:
        >>> bail_for(3.0), bail_for(None)
        (4.0, 5.0)

    Source: common practice, no source.
    """
    return USUAL_BAIL_MM if through is None else max(through + SWINGS_MM, LEAST_BAIL_MM)


def bail_tail(neck: float, bail: float, strand: float) -> float:
    """Return the least tail for a bail, 2 neck + pi (D + d).

    Args:
        neck: how long it is bound [mm].
        bail: D, inside of the bail [mm].
        strand: d [mm].

    Example:
        >>> round(bail_tail(6, 5, 0.8), 2)
        30.22

    Source: plain geometry.
    """
    return 2 * neck + math.pi * (bail + strand)


def strands_to_cover(height: float, strand: float) -> int:
    """Return how many strands side by side come over both faces, ceil(h / d) + 2.

    Args:
        height: h of the stone's edge [mm].
        strand: d [mm].

    Source: plain counting.
    """
    return math.ceil(height / strand - 1e-9) + 2


def least_lip(play: float, strand: float) -> float:
    """Return how deep a lip has to be, 2 play + hold, hold = max(d / 2, 0.4).

    Args:
        play: between stone and frame, all round [mm]: slid over, the far edge loses it twice.
        strand: d [mm].

    Returns:
        Depth [mm].

    Example:
        >>> round(least_lip(0.15, 0.8), 2), round(least_lip(0.2, 1.0), 2)
        (0.7, 0.9)

    Source: plain geometry; what holds is common practice.
    """
    return 2 * play + max(strand / 2, LEAST_HOLD)
