"""What passes through a bead's hole, and what lies in a loop."""

import math
from collections.abc import Sequence

# Smallest circle round k equal circles, over their diameter; proven optimal packings.
CIRCLES = (1.0, 2.0, 1 + 2 / 3**0.5, 1 + 2**0.5, 2.7013, 3.0, 3.0)
CLEARANCE_MM = 0.05
# More circles than the table has fill at least so much of the circle round them: the loosest of
# the best packings of 8 to 30 found so far, from memory.
FILLS = 0.68


def circles_factor(wires: int) -> float:
    """Return how many wires wide a circle is that goes round some equal ones.

    Args:
        wires: how many, 1 or more.

    Returns:
        Factor on the wire's diameter; over seven of them an upper bound, sqrt(k / 0.68).

    Example:
        >>> round(circles_factor(3), 3), round(circles_factor(10), 2)
        (2.155, 3.83)

    Source: circles in a circle, Graham 1968 and others; published. The bound is from memory.
    """
    return CIRCLES[wires - 1] if wires <= len(CIRCLES) else math.sqrt(wires / FILLS)


def room_for(thick: Sequence[float]) -> float:
    """Return how wide a loop has to be inside for all that lies in it.

    Args:
        thick: what lies in it, each as thick as it is [mm].

    Returns:
        Inner diameter without any play [mm]: the least that is sure, all side by side in one row
        or packed as if each were as thick as the thickest; 0 for nothing.

    Example:
        >>> room_for([1.0, 0.8]), round(room_for([1.0, 1.0, 1.0]), 3)
        (1.8, 2.155)

    Source: ``circles_factor``; two of them exactly.
    """
    if not thick:
        return 0.0
    return min(sum(thick), circles_factor(len(thick)) * max(thick))


def hole_for(wires: int, wire: float) -> float:
    """Return the smallest hole that passes some wires side by side, factor x d + 0.05.

    Args:
        wires: how many, 1 to 7.
        wire: d [mm].

    Returns:
        Hole [mm].

    Raises:
        ValueError: more wires than the table has.

    Example:
        >>> round(hole_for(3, 1.0), 3)
        2.205

    Source: circles in a circle, Graham 1968 and others; published. The clearance is common
        practice.
    """
    if not 1 <= wires <= len(CIRCLES):
        raise ValueError("the table has one to seven wires")
    return CIRCLES[wires - 1] * wire + CLEARANCE_MM


def wires_through(hole: float, wire: float) -> int:
    """Return how many wires pass a hole, at most seven.

    Args:
        hole: [mm].
        wire: d [mm].

    Returns:
        Number of wires, 0 when not even one passes.

    Example:
        >>> wires_through(1.0, 0.4)
        3

    Source: ``hole_for``.
    """
    return sum(hole_for(k, wire) <= hole for k in range(1, len(CIRCLES) + 1))
