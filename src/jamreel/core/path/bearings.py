"""Where the next part pulls: how far a bearing point lies beyond the body's end."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal

EyeSits = Literal["centred", "tangent"]


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


def tangent_bearing(pin: float, wire: float) -> float:
    """Return how far the inside of an eye rolled on a tangent lies beyond its stem's end, D / 2.

    Args:
        pin: inner diameter of the eye D [mm].
        wire: wire diameter d [mm]; the eye lies beside the stem, so that it takes nothing along it.

    Returns:
        Bearing distance [mm].

    Example:
        >>> tangent_bearing(6.0, 2.0)
        3.0

    Source: plain geometry.
    """
    return pin / 2


@dataclass(frozen=True)
class EyeBearing:
    """How an eye bears by how it sits on its stem, and the rule that says so."""

    beyond: Callable[[float, float], float]
    rule: str


EYES: dict[EyeSits, EyeBearing] = {
    "centred": EyeBearing(loop_bearing, "path.bearings.loop_bearing"),
    "tangent": EyeBearing(tangent_bearing, "path.bearings.tangent_bearing"),
}
