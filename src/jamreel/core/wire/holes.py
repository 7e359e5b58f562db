"""What passes through a bead's hole."""

# Smallest circle round k equal circles, over their diameter; proven optimal packings.
CIRCLES = (1.0, 2.0, 1 + 2 / 3**0.5, 1 + 2**0.5, 2.7013, 3.0, 3.0)
CLEARANCE_MM = 0.05


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
