"""Coils, and wraps round a bundle: how much wire lies in how much length."""

import math


def flat_row_perimeter(count: int, wire: float) -> float:
    """Return the perimeter of the convex hull of round wires side by side, 2 (m - 1) d + pi d.

    Args:
        count: m wires, one or more.
        wire: d [mm].

    Returns:
        Perimeter [mm].

    Example:
        >>> round(flat_row_perimeter(5, 1.0), 2)
        11.14

    Source: plain geometry.
    """
    return 2 * (count - 1) * wire + math.pi * wire


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
        >>> round(binding_length(1, flat_row_perimeter(5, 1.0), 0.424 * 0.5, 0), 2)
        12.47

    Source: Steiner's formula for parallel curves; published.
    """
    return turns * math.hypot(perimeter + 2 * math.pi * offset, pitch)
