"""Coils, and wraps round a bundle: how much wire lies in how much length."""

import math


def row_hull(count: int, wire: float, *, square: bool = False) -> float:
    """Return the hull of wires side by side, 2 (k - 1) d + pi d, or 2 (k + 1) s square.

    Args:
        count: k.
        wire: d or s [mm].
        square: whether they are square.

    Returns:
        Perimeter [mm].

    Example:
        >>> round(row_hull(6, 0.8, square=True), 2), round(row_hull(5, 1.0), 2)
        (11.2, 11.14)

    Source: plain geometry.
    """
    if square:
        return 2 * (count + 1) * wire
    return 2 * (count - 1) * wire + math.pi * wire


def turn(core: float, wire: float, pitch: float) -> float:
    """Return the wire in one turn round a bar, H = sqrt((pi (D + d))^2 + p^2).

    Args:
        core: D, thickness of the bar [mm].
        wire: d [mm].
        pitch: p, from turn to turn [mm].

    Returns:
        Length [mm].

    Example:
        >>> round(turn(1.2, 0.4, 0.4), 2)
        5.04

    Source: length of a helix; published.
    """
    return math.hypot(math.pi * (core + wire), pitch)


def binding_length(turns: float, perimeter: float, offset: float, pitch: float) -> float:
    """Return the wire in turns that bind a bundle, sqrt((P + 2 pi e)^2 + p^2) each.

    Args:
        turns: how many.
        perimeter: P, of the bundle's convex hull [mm].
        offset: e, of the binding wire's neutral axis from its inner face [mm]: d / 2 for round.
        pitch: p, from turn to turn [mm].

    Returns:
        Length [mm].

    Example:
        >>> round(binding_length(1, row_hull(5, 1.0), 0.424 * 0.5, 0), 2)
        12.47

    Source: Steiner's formula for parallel curves; published.
    """
    return turns * math.hypot(perimeter + 2 * math.pi * offset, pitch)


def coil_from(wire_in: float, core: float, wire: float) -> float:
    """Return how long a close coil is that some wire makes.

        L / sqrt((pi (D + d))^2 + d^2) turns of d each

    Args:
        wire_in: L [mm].
        core: D [mm].
        wire: d [mm].

    Returns:
        Length of the coil [mm].

    Example:
        >>> round(coil_from(3000, 1.0, 0.812))
        424

    Source: length of a helix on the mean diameter of spring practice; published.
    """
    return wire * wire_in / turn(core, wire, wire)


def effective_core(wire_in: float, coil_out: float, wire: float) -> float:
    """Return the core that a wound sample tells of: turns that lie loose count as a wider one.

    Args:
        wire_in: that went into the sample [mm].
        coil_out: how long the sample came out [mm].
        wire: d [mm].

    Returns:
        Core D [mm] of a close coil that takes as much; ``coil_from`` the other way round.

    Example:
        >>> round(effective_core(3000, 305, 0.812), 2)
        1.72

    Source: ``coil_from`` solved for D; plain algebra.
    """
    per_turn = wire_in * wire / coil_out
    return math.sqrt(max(per_turn**2 - wire**2, 0.0)) / math.pi - wire
