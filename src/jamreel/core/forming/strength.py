"""When a hook or an unsoldered ring opens, a bar bends through, and a closed loop goes oval.

All by plastic hinges: a wire gives where its bending moment reaches what its section bears.
"""

from dataclasses import dataclass

STANDARD_GRAVITY = 9.80665


def plastic_moment(plastic_modulus: float, yield_mpa: float) -> float:
    """Return the bending moment at which a wire gives, M_p = sigma Z_p.

    Args:
        plastic_modulus: Z_p [mm3], d^3 / 6 for round wire.
        yield_mpa: sigma [MPa].

    Returns:
        Moment [N mm].

    Example:
        >>> round(plastic_moment(1.0**3 / 6, 210.0))
        35

    Source: fully plastic bending; published, any text on plasticity.
    """
    return yield_mpa * plastic_modulus


def opening_force(moment: float, radius: float, wires: int = 1) -> float:
    """Return the force at which a hook or an open ring begins to open, n M_p / R.

    Args:
        moment: M_p of one wire [N mm].
        radius: R of the bend's centre-line [mm].
        wires: n side by side.

    Returns:
        Force [N].

    Example:
        A wire of 1.0 at 210 MPa on a pin of 6.

        >>> round(opening_force(plastic_moment(1 / 6, 210.0), 3.5), 1)
        10.0

    Source: plastic moment over the lever of a curved beam; statics textbooks.
    """
    return wires * moment / radius


def bar_force(moment: float, span: float) -> float:
    """Return the force at which a bar that lies across a ring bends through, 4 M_p / span.

    Args:
        moment: M_p of the bar [N mm].
        span: between its supports: the ring's mean diameter [mm].

    Returns:
        Force [N].

    Example:
        20 AWG at 210 MPa across 12.8.

        >>> round(bar_force(plastic_moment(0.8118**3 / 6, 210.0), 12.81), 1)
        5.8

    Source: plastic hinge of a simply supported beam loaded in its middle; published.
    """
    return 4 * moment / span


def oval_force(moment: float, radius: float) -> float:
    """Return the pull across a closed ring or wrapped loop at which it goes oval, 4 M_p / R.

    Args:
        moment: M_p of the wire [N mm].
        radius: R of the centre-line [mm].

    Returns:
        Force [N], far under what stretches its two sides.

    Example:
        A ring of 12 inside in 20 AWG at 210 MPa, soldered.

        >>> round(oval_force(plastic_moment(0.8118**3 / 6, 210.0), 6.406), 1)
        11.7

    Source: four plastic hinges of a ring pulled across; published, any text on plasticity.
    """
    return 4 * moment / radius


def pulling_force(area: float, yield_mpa: float, strands: int = 1) -> float:
    """Return the force at which straight wire begins to stretch, n sigma A.

    Args:
        area: A of one wire [mm2].
        yield_mpa: sigma [MPa].
        strands: n that share the pull.

    Returns:
        Force [N].

    Example:
        >>> round(pulling_force(0.5178, 210.0))
        109

    Source: yield in tension; statics textbooks.
    """
    return strands * yield_mpa * area


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
    """The place of a piece that gives first: its name, the pull that it bears [N], and its key;
    hardened by work since it was soft it bears up to so much [N]."""

    says: str
    newtons: float
    key: str
    up_to: float = 0.0

    @property
    def grams(self) -> float:
        """The same as a weight hung on it [g]."""
        return grams_of(self.newtons)
