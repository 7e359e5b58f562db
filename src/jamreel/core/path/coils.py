"""Coils, and wraps round a bundle: how much wire lies in how much length."""

import math

from jamreel.core.path.moves import wrap_length


def coil_length_from(cut: float, core: float, wire: float) -> float:
    """Return the length of a close coil that a cut of wire makes.

        N d, with N = cut / sqrt((pi (D + d))^2 + d^2)

    Args:
        cut: of wire [mm].
        core: D, what it is wound on [mm].
        wire: d [mm].

    Returns:
        Coil length [mm].

    Example:
        >>> round(coil_length_from(3000, 1.8, 0.812), 1)
        295.4

    Source: length of a helix; published.
    """
    return cut / wrap_length(1, core, 0, wire) * wire


def coil_wire_for(length: float, core: float, wire: float) -> float:
    """Return the wire in a close coil of some length, ``coil_length_from`` the other way.

    Args:
        length: of the coil [mm].
        core: D, what it is wound on [mm].
        wire: d [mm].

    Returns:
        Wire [mm].

    Example:
        >>> round(coil_wire_for(0.812, 1.6, 0.812), 3)
        7.621

    Source: length of a helix; published.
    """
    return wrap_length(length / wire, core, 0, wire)


def core_from_sample(cut: float, length: float, wire: float) -> float:
    """Return the core on which a sample coil was in effect wound.

        D = sqrt((cut d / length)^2 - d^2) / pi - d

    Args:
        cut: wire in the sample [mm].
        length: that the coil came out at [mm].
        wire: d [mm].

    Returns:
        Effective core [mm]: larger than the mandrel for a hand that winds loosely.

    Raises:
        ValueError: more coil than that much wire can make.

    Example:
        >>> round(core_from_sample(914, 76, 0.644), 2)
        1.81

    Source: length of a helix solved for the diameter; published.
    """
    turn = cut * wire / length
    if turn <= wire:
        raise ValueError("that much wire can't make so long a coil")
    core = math.sqrt(turn**2 - wire**2) / math.pi - wire
    if core <= 0:
        raise ValueError("that much wire can't make so long a coil")
    return core


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
