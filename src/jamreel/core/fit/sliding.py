"""The arithmetic of the sliding-loop bangle.

One wire; each end is a loop that runs on the opposite side. Opened as far as it goes the loops
meet; closing slides them apart, and the overlap between them grows.

Assumption: meeting loops stand one outer loop width apart, centre to centre, measured along the
centre-line.
"""

import math


def loop_outer_width(pin: float, wire: float) -> float:
    """Return the outer width of a loop, D + 2 d.

    Args:
        pin: the loop's inner diameter D [mm].
        wire: wire diameter d [mm].

    Returns:
        Outer width [mm].

    Example:
        >>> loop_outer_width(3.0, 1.5)
        6.0

    Source: plain geometry.
    """
    return pin + 2 * wire


def centre_length(open_inside_girth: float, wire: float, loop_width: float) -> float:
    """Return S, the centre-line length between the loop centres.

        S = inside girth when fully open + pi d + one loop's outer width

    Args:
        open_inside_girth: what must pass the hand [mm].
        wire: wire diameter d [mm].
        loop_width: one loop's outer width [mm].

    Returns:
        S [mm].

    Example:
        >>> round(centre_length(205.0, 1.6277, 5.8555), 2)
        215.97

    Source: Steiner's formula (parallel curves), published; loops that meet, plain geometry.
    """
    return open_inside_girth + math.pi * wire + loop_width


def inside_girth(centre: float, wire: float, overlap: float) -> float:
    """Return the inside girth at some overlap, S - pi d - overlap.

    Args:
        centre: S, loop centre to loop centre [mm].
        wire: wire diameter d [mm].
        overlap: between the loop centres [mm].

    Returns:
        Inside girth [mm].

    Example:
        >>> round(inside_girth(215.97, 1.6277, 39.86), 1)
        171.0

    Source: Steiner's formula (parallel curves); published.
    """
    return centre - math.pi * wire - overlap


def overlap_at(centre: float, wire: float, inside: float) -> float:
    """Return the overlap at some inside girth: ``inside_girth`` solved the other way.

    Args:
        centre: S [mm].
        wire: wire diameter d [mm].
        inside: inside girth [mm].

    Returns:
        Overlap [mm]; under one loop's outer width the loops would have to pass each other.

    Example:
        >>> round(overlap_at(215.97, 1.6277, 171.0), 2)
        39.86

    Source: Steiner's formula (parallel curves); published.
    """
    return centre - math.pi * wire - inside


def gain_of_smaller_loops(pin: float, smaller_pin: float) -> float:
    """Return what both loops, made again on a smaller pin, add to the fully open inside girth.

    Each loop frees pi (D - D') of wire, and the loops meet D - D' nearer: the wire that both
    free goes into S, and the width that is saved comes on top.

    Args:
        pin: D, the pin that the loops are on [mm].
        smaller_pin: D' [mm], not over D.

    Returns:
        Gain of inside girth [mm].

    Example:
        >>> round(gain_of_smaller_loops(3.0, 2.0), 2)
        7.28

    Source: plain geometry.
    """
    return (2 * math.pi + 1) * (pin - smaller_pin)
