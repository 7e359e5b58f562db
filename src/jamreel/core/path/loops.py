"""Loops: the wire that they take and how far they reach."""

import math

from jamreel.core.path.moves import Bend, Kink, Move, PlaneTurn, Side


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


def ring_of_legs(pin: float, wire: float) -> float:
    """Return how far a wire goes round a pin until its two legs lie side by side [rad].

        2 pi - 2 asin(d / 2R), R = (D + d) / 2

    Args:
        pin: D, what it is bent on [mm].
        wire: d [mm].

    Returns:
        Angle [rad], a little under a full turn.

    Example:
        >>> round(ring_of_legs(9.0, 1.0), 4)
        6.0829

    Source: plain geometry: the legs leave the ring where they are one wire apart.
    """
    return 2 * math.pi - 2 * math.asin(wire / (pin + wire))


_OTHER: dict[Side, Side] = {"left": "right", "right": "left"}


def centred(loop: Bend, *, first: bool) -> tuple[Move, ...]:
    """Return a loop that sits centred on its stem: the wire turns back sharply before it is rolled.

    Args:
        loop: the bend; it sits beyond the end of its stem.
        first: whether it lies before its stem on the wire.

    Returns:
        The loop with its kink; they take what the loop takes.

    Source: plain geometry.
    """
    kink = Kink(angle=math.pi / 2, side=_OTHER[loop.side])
    return (loop, kink) if first else (kink, loop)


def turned_over(crook: Bend) -> tuple[Move, ...]:
    """Return a bend that lies square to the plane of those before and after it.

    Args:
        crook: the bend.

    Returns:
        The bend between two turns of the plane; a wire doubled to the left makes it on its way
        back with the same moves.

    Source: plain geometry.
    """
    return (PlaneTurn(angle=math.pi / 2), crook, PlaneTurn(angle=-math.pi / 2))
