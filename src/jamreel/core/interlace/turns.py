"""Turns and belts round bars, which several techniques share."""

import math

from jamreel.core.interlace.space import inner_tangent


def open_belt(apart: float, radius: float) -> float:
    """Return the wire once round two bars, 2 S + 2 pi r.

    Args:
        apart: S, from middle to middle [mm].
        radius: r, of the wire's middle round a bar [mm].

    Returns:
        Length [mm].

    Example:
        >>> round(open_belt(3.0, 0.7), 2)
        10.4

    Source: open belt on equal pulleys, Machinery's Handbook; published.
    """
    return 2 * apart + 2 * math.pi * radius


def crossed_belt(apart: float, radius: float) -> float:
    """Return the wire once round two bars in a figure of eight.

        X = 2 S cos a + (2 pi + 4 a) r, sin a = 2 r / S

    Args:
        apart: S, from middle to middle [mm].
        radius: r, of the wire's middle round a bar [mm].

    Returns:
        Length [mm]; that of an open belt and 4 r sin a ever more as bars come near.

    Raises:
        ValueError: bars too near for the wire to pass between.

    Example:
        >>> round(crossed_belt(3.0, 0.7), 2)
        11.06

    Source: crossed belt on equal pulleys, Machinery's Handbook; published.
    """
    a = inner_tangent(apart, radius)
    return 2 * apart * math.cos(a) + (2 * math.pi + 4 * a) * radius
