"""When a hook or an unsoldered ring opens, and what a closed loop bears."""

import math
from dataclasses import dataclass

STANDARD_GRAVITY = 9.80665


def opening_force(wire: float, pin: float, yield_mpa: float, wires: int = 1) -> float:
    """Return the force at which a hook or an open ring begins to open.

        n sigma Z_p / R_m,  Z_p = d^3 / 6,  R_m = (D + d) / 2

    Args:
        wire: d [mm].
        pin: D, inner diameter of the bend [mm].
        yield_mpa: sigma [MPa].
        wires: n side by side.

    Returns:
        Force [N].

    Example:
        >>> round(opening_force(1.0, 6.0, 210.0), 1)
        10.0

    Source: plastic moment of a round section over the lever of a curved beam; statics textbooks.
    """
    return wires * yield_mpa * wire**3 / 6 / ((pin + wire) / 2)


def pulling_force(wire: float, yield_mpa: float, strands: int = 2) -> float:
    """Return the force at which the straight strands of a closed loop begin to stretch.

        n sigma pi d^2 / 4

    Args:
        wire: d [mm].
        yield_mpa: sigma [MPa].
        strands: n that share the pull; both sides of a loop, or a stem alone.

    Returns:
        Force [N].

    Example:
        >>> round(pulling_force(0.812, 210.0, 1))
        109

    Source: yield in tension; statics textbooks.
    """
    return strands * yield_mpa * math.pi * wire**2 / 4


def grams_of(force: float) -> float:
    """Return a force as the mass that hangs with it.

    Args:
        force: [N].

    Returns:
        Mass [g].

    Example:
        >>> round(grams_of(10.0))
        1020

    Source: standard gravity, 9.80665 m/s2, exact (CGPM 1901).
    """
    return force / STANDARD_GRAVITY * 1000


@dataclass(frozen=True)
class Weakest:
    """The place of a piece that gives first: its name, the pull that it bears [N], and its key."""

    says: str
    newtons: float
    key: str

    @property
    def grams(self) -> float:
        """The same as a weight hung on it [g]."""
        return grams_of(self.newtons)
