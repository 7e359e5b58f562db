"""Thickness: the mistake that shortens every bulky piece.

The inside girth of a fastened flexible piece is less than its finished length, because its parts
stand out from the skin.
"""

import math
from collections.abc import Sequence

from pydantic import Field

from jamreel.core.roots import root
from jamreel.core.values import Frozen


class Segment(Frozen):
    """A stretch of a flexible piece: length along it and radial thickness [mm]."""

    length: float = Field(ge=0)
    thickness: float = Field(ge=0)


def inside_girth_of(segments: Sequence[Segment]) -> float:
    """Return the inside girth of a fastened flexible piece on a round body.

        the inner radius R solves  sum L_i / (R + t_i / 2) = 2 pi

    For one thickness t this is finished length - pi t, and then holds on every convex outline.

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

    Source: plain geometry; Steiner's formula for one thickness, published.
    """
    finished = sum(s.length for s in segments)
    if finished <= 0:
        raise ValueError("a piece needs some length")

    def turned(radius: float) -> float:
        return sum(s.length / (radius + s.thickness / 2) for s in segments) - 2 * math.pi

    # With the thinnest parts at the skin the radius could be no larger than this.
    widest = finished / (2 * math.pi)
    if all(s.thickness > 0 for s in segments) and turned(0.0) <= 0:
        raise ValueError("the parts are too thick to leave an opening")
    return 2 * math.pi * root(turned, 1e-9, widest)


def body_length_for(inside_girth: float, fixed: Sequence[Segment], thickness: float) -> float:
    """Return the length of body that, with the fixed parts, gives a wanted inside girth.

        x = (2 pi - sum L_i / (R + t_i / 2)) (R + t / 2),  R = inside girth / 2 pi

    Args:
        inside_girth: wanted [mm].
        fixed: closure halves, focal and other parts that are given.
        thickness: radial thickness of the body [mm].

    Returns:
        Body length [mm]; negative when the fixed parts alone are too long.

    Example:
        >>> round(body_length_for(186.47, [Segment(length=20, thickness=3)], 8), 1)
        190.0

    Source: plain geometry.
    """
    radius = inside_girth / (2 * math.pi)
    left = 2 * math.pi - sum(s.length / (radius + s.thickness / 2) for s in fixed)
    return left * (radius + thickness / 2)


def polygon_inside_girth(pitch: float, count: int, thickness: float) -> float:
    """Return the girth of the circle that a ring of rigid round beads leaves free.

        the centres lie at p / (2 sin(pi / n)); the beads reach t / 2 inwards from there

    Args:
        pitch: from bead centre to bead centre [mm].
        count: number of beads, 3 or more.
        thickness: of a bead [mm].

    Returns:
        Inside girth [mm]; approaches count * pitch - pi * thickness for many beads.

    Example:
        >>> round(polygon_inside_girth(8.0, 26, 8.0), 2)
        183.37

    Source: plain geometry.
    """
    return 2 * math.pi * (pitch / (2 * math.sin(math.pi / count)) - thickness / 2)


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
