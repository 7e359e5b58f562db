"""How stiff rings are: what they give when pressed, and the pull that opens them.

An open ring is an arc of half angle alpha from its back to either end; E I is its wire's.
"""

import math

# A hand that tries whether a bangle gives presses with so much; common practice, no source.
PRESS_N = 5.0


def opening_angles(half: float) -> float:
    """Return the integral of (cos phi - cos alpha)^2 from the back to one end.

        alpha / 2 + sin(2 alpha) / 4 - 2 cos(alpha) sin(alpha) + alpha cos(alpha)^2

    Args:
        half: alpha [rad], pi of a ring that is split and hardly open.

    Returns:
        Integral, 3 pi / 2 at alpha = pi.

    Example:
        >>> round(opening_angles(math.pi) / math.pi, 3)
        1.5

    Source: Castigliano's theorem on an arc pulled at its ends; published in statics textbooks.
    """
    c, s = math.cos(half), math.sin(half)
    return half / 2 + s * c / 2 - 2 * c * s + half * c * c


def opening_pull(opened: float, radius: float, rigidity: float, half: float = math.pi) -> float:
    """Return the pull at both ends that opens an arc, delta E I / (2 R^3 I(alpha)).

    Args:
        opened: delta, by which the ends part [mm].
        radius: R of the centre-line [mm].
        rigidity: E I of the wire [N mm2].
        half: alpha [rad].

    Returns:
        Pull [N] while it springs; delta E I / (3 pi R^3) of a split ring.

    Example:
        >>> round(opening_pull(10.0, 29.0, 117000 * math.pi / 4), 2)
        4.0

    Source: ``opening_angles``.
    """
    return opened * rigidity / (2 * radius**3 * opening_angles(half))


def opening_strain(thickness: float, radius: float, opened: float, half: float = math.pi) -> float:
    """Return the strain in the back of an arc that is pulled open.

        t delta (1 - cos alpha) / (4 R^2 I(alpha)), t delta / (3 pi R^2) of a split ring

    Args:
        thickness: t through the bend [mm].
        radius: R of the centre-line [mm].
        opened: delta, by which the ends part [mm].
        half: alpha [rad].

    Returns:
        Strain, as a ratio.

    Example:
        >>> round(100 * opening_strain(2.0, 29.0, 20.0), 2)
        0.5

    Source: deflection of an arc by Castigliano's theorem; published in statics textbooks.
    """
    lever = 1 - math.cos(half)
    return thickness * opened * lever / (4 * radius**2 * opening_angles(half))


def elastic_opening(
    thickness: float, radius: float, yields_at: float, half: float = math.pi
) -> float:
    """Return how far an arc can be pulled open before it takes a set.

    Args:
        thickness: t through the bend [mm].
        radius: R of the centre-line [mm].
        yields_at: strain sigma / E.
        half: alpha [rad].

    Returns:
        Opening [mm]: where ``opening_strain`` reaches the yield.

    Example:
        >>> round(elastic_opening(2.0, 29.0, 210 / 117000), 1)
        7.1

    Source: ``opening_strain`` solved the other way.
    """
    return yields_at / opening_strain(thickness, radius, 1.0, half)


def closed_gives(force: float, radius: float, rigidity: float) -> float:
    """Return by how much a closed ring gives where it is pressed, (pi / 4 - 2 / pi) F R^3 / (E I).

    Args:
        force: F across it [N].
        radius: R of the centre-line [mm].
        rigidity: E I of the wire [N mm2].

    Returns:
        Way [mm] by which its diameter grows less, while it springs.

    Example:
        >>> round(closed_gives(5.0, 31.0, 117000 * math.pi / 4), 2)
        0.24

    Source: thin ring under two forces across; published, Roark's Formulas for Stress and Strain.
    """
    return (math.pi / 4 - 2 / math.pi) * force * radius**3 / rigidity


def open_gives(force: float, radius: float, rigidity: float) -> float:
    """Return by how much an open ring gives where its sides are pressed, pi / 2 F R^3 / (E I).

    Only its back half bears; from the sides to the gap nothing bends.

    Args:
        force: F on both sides, square to the gap's axis [N].
        radius: R of the centre-line [mm].
        rigidity: E I of the wire [N mm2].

    Returns:
        Way [mm] by which its sides come nearer, while it springs.

    Example:
        >>> round(open_gives(5.0, 31.0, 117000 * math.pi / 4), 2)
        2.55

    Source: Castigliano's theorem on a half ring; published in statics textbooks.
    """
    return math.pi / 2 * force * radius**3 / rigidity
