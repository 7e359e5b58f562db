"""Where the next part pulls: how far a bearing point lies beyond the body's end."""


def loop_bearing(pin: float, wire: float) -> float:
    """Return how far a loop's inside apex lies beyond its shoulder, D + d.

    Args:
        pin: inner diameter of the loop D [mm].
        wire: wire diameter d [mm].

    Returns:
        Bearing distance [mm].

    Example:
        >>> loop_bearing(6.0, 2.0)
        8.0

    Source: plain geometry.
    """
    return pin + wire


def hook_bearing(pin: float) -> float:
    """Return how far a crook's inside apex lies beyond the place where its bend begins, D / 2.

    Args:
        pin: inner diameter of the crook D [mm].

    Returns:
        Bearing distance [mm].

    Example:
        >>> hook_bearing(5.0)
        2.5

    Source: plain geometry.
    """
    return pin / 2
