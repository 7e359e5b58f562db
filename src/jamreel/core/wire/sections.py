"""Cross-sections of wire. Round wire so far."""

import math


def round_area(diameter: float) -> float:
    """Return the area of a round section, pi d^2 / 4.

    Args:
        diameter: wire diameter [mm], over 0.

    Returns:
        Area [mm2].

    Example:
        >>> round(round_area(2.0), 4)
        3.1416

    Source: plain geometry.
    """
    return math.pi * diameter**2 / 4


def round_second_moment(diameter: float) -> float:
    """Return the second moment of area of a round section about a diameter, pi d^4 / 64.

    Args:
        diameter: wire diameter [mm], over 0.

    Returns:
        Second moment [mm4].

    Example:
        >>> round(round_second_moment(2.0), 4)
        0.7854

    Source: plain geometry; any statics textbook.
    """
    return math.pi * diameter**4 / 64
