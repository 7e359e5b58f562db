"""Thickness: the mistake that shortens every bulky piece.

The inside girth of a fastened flexible piece is less than its finished length, because its parts
stand out from the skin; and rigid parts lie on a polygon, not on a circle.
"""

import math
from collections.abc import Sequence
from typing import Literal

from pydantic import Field

from jamreel.core.roots import root
from jamreel.core.values import Frozen

Lies = Literal["bends", "straight", "bead"]


class Segment(Frozen):
    """So many alike of a flexible piece: length of one along it and radial thickness [mm].

    What ``bends`` follows the body. What lies ``straight`` touches it at its middle and turns in
    its neighbours' loops at its ends. A ``bead`` is rigid and round, its middle at a corner of the
    string.
    """

    length: float = Field(ge=0)
    thickness: float = Field(ge=0)
    count: int = Field(default=1, ge=1)
    lies: Lies = "bends"

    @property
    def total(self) -> float:
        """Length of all of them [mm]."""
        return self.length * self.count

    def turns(self, radius: float) -> float:
        """Return the angle [rad] that all of them take round a body of a radius [mm]."""
        middle = radius + self.thickness / 2
        if self.lies == "bends":
            return self.total / middle
        share = self.length / (2 * middle)
        if self.lies == "straight":
            return self.count * 2 * math.atan(share)
        return self.count * 2 * math.asin(min(1.0, share))

    @property
    def bending(self) -> "Segment":
        """The same, as if it bent."""
        return self.model_copy(update={"lies": "bends"})


def inside_girth_of(segments: Sequence[Segment]) -> float:
    """Return the inside girth of a fastened flexible piece on a round body.

        the inner radius R solves
        sum of L / (R + t/2)              over what bends
          + 2 atan(L / (2 (R + t/2)))     over each straight part
          + 2 asin(L / (2 (R + t/2)))     over each bead    = 2 pi

    For one thickness t of what bends this is finished length - pi t, and then holds on every
    convex outline. Straight parts make the inside smaller than that, beads on a string larger; on
    an oval the same correction is taken.

    Args:
        segments: all of the piece, closure included.

    Returns:
        Inside girth [mm].

    Raises:
        ValueError: no length, or parts so thick that they leave no opening.

    Example:
        >>> round(inside_girth_of([Segment(length=190, thickness=8),
        ...                        Segment(length=20, thickness=3)]), 2)
        186.47
        >>> round(inside_girth_of([Segment(length=16.87, thickness=6, count=10,
        ...                                lies="straight")]), 2)
        144.26
        >>> round(inside_girth_of([Segment(length=8, thickness=8, count=22, lies="bead")]), 2)
        151.47

    Source: plain geometry; Steiner's formula for one thickness, published.
    """
    finished = sum(s.total for s in segments)
    if finished <= 0:
        raise ValueError("a piece needs some length")

    def turned(radius: float) -> float:
        return sum(s.turns(radius) for s in segments) - 2 * math.pi

    # No chord turns by more than a quarter circle to each side of its middle: past this radius
    # all of them together don't come round.
    widest = finished / 4
    if all(s.thickness > 0 for s in segments) and turned(0.0) <= 0:
        raise ValueError("the parts are too thick to leave an opening")
    return 2 * math.pi * root(turned, 1e-9, widest)


def arc_centre_length(inner_arc: float, inside_girth: float, wire: float) -> float:
    """Return the centre-line length of an open ring from the arc that it covers inside.

        inner arc * (1 + pi d / inside girth): the same share of a turn, half a wire further out

    Args:
        inner_arc: along the inside of the wire [mm].
        inside_girth: of the whole opening, gap included [mm].
        wire: d [mm].

    Returns:
        Centre-line length [mm].

    Example:
        >>> round(arc_centre_length(523, 563, 1.6277), 2)
        527.75

    Source: Steiner's formula; published.
    """
    return inner_arc * (1 + math.pi * wire / inside_girth)
