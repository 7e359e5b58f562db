"""Loops: the wire that they take and how far they reach."""

import math


def loop_takes(pin: float, wire: float) -> float:
    """Return the wire in a plain loop, pi (D + d).

    Args:
        pin: D, what it is bent on [mm].
        wire: d [mm].

    Returns:
        Length [mm].

    Example:
        >>> round(loop_takes(6.0, 2.05), 1)
        25.3

    Source: mean diameter of spring practice, Shigley; published.
    """
    return math.pi * (pin + wire)


def wrapped_loop_reach(wraps: float, pin: float, wire: float) -> float:
    """Return how far a wrapped loop's bearing point lies beyond its bead, n d + D + d.

    Args:
        wraps: n, 0 for a plain loop.
        pin: D, what the loop is bent on [mm].
        wire: d [mm].

    Returns:
        Distance [mm].

    Example:
        >>> round(wrapped_loop_reach(2, 3.0, 0.812), 3)
        5.436

    Source: plain geometry.
    """
    return wraps * wire + pin + wire
