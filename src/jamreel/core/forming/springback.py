"""Springback: a wire let go opens by the elastic part of its bend.

Elastic-plastic bending: bent to curvature 1/R it recovers M / (E I).
"""

import math

from scipy.optimize import brentq

from jamreel.core.wire.sections import round_second_moment


def gardiner_ratio(radius: float, thickness: float, yield_mpa: float, youngs: float) -> float:
    """Return R_i / R_f for a rectangular section, by Gardiner's equation.

        4 x^3 - 3 x + 1, x = R_i sigma / (E t)

    Args:
        radius: R_i, bent on [mm].
        thickness: t of the strip through the bend [mm].
        yield_mpa: sigma [MPa].
        youngs: E [MPa].

    Returns:
        Bent radius over sprung radius, 0 to 1.

    Raises:
        ValueError: x over 1/2, where the strip springs straight again.

    Example:
        >>> round(0.5 / gardiner_ratio(0.5, 0.0359, 40e3, 29e6), 3)
        0.531

    Source: Gardiner 1957, as given by Kalpakjian & Schmid, Manufacturing Engineering and
    Technology; published, worked example from memory.
    """
    x = radius * yield_mpa / (youngs * thickness)
    if x > 0.5:
        raise ValueError(f"springs straight: R sigma / (E t) = {x:.3f} is over 1/2")
    return 4 * x**3 - 3 * x + 1


def round_bend_moment(wire_radius: float, radius: float, yield_mpa: float, youngs: float) -> float:
    """Return the moment that holds a round wire bent to a centre-line radius.

        with y = sigma R / E < r:  (4 sigma / y) F(y) + (4/3) sigma (r^2 - y^2)^(3/2),
        F(y) = (r^4 / 8) asin(y / r) - (y / 8)(r^2 - 2 y^2) sqrt(r^2 - y^2)
        and E I / R while the whole section is elastic (y >= r)

    Args:
        wire_radius: r [mm].
        radius: R of the centre-line [mm].
        yield_mpa: sigma [MPa].
        youngs: E [MPa].

    Returns:
        Moment [N mm]; approaches (4/3) sigma r^3 (fully plastic) as R goes to 0.

    Notes:
        Elastic, perfectly plastic; plane sections stay plane; no hardening.

    Example:
        >>> round(round_bend_moment(1.0, 29.0, 210.0, 117000.0), 1)
        279.6

    Source: elastic-plastic bending integrated over the section; plain statics, checked by
    quadrature in tests/validation.
    """
    r, y = wire_radius, yield_mpa * radius / youngs
    if y >= r:
        return youngs * round_second_moment(2 * r) / radius
    root = math.sqrt(r * r - y * y)
    core = (r**4 / 8) * math.asin(y / r) - (y / 8) * (r * r - 2 * y * y) * root
    return 4 * yield_mpa / y * core + 4 / 3 * yield_mpa * root**3


def sprung_diameter(former: float, wire: float, yield_mpa: float, youngs: float) -> float:
    """Return the inside diameter that round wire opens to when it comes off a former.

    Args:
        former: diameter of mandrel or pin [mm].
        wire: wire diameter [mm].
        yield_mpa: [MPa].
        youngs: [MPa].

    Returns:
        Inside diameter [mm]; infinite when the bend was elastic throughout.

    Example:
        >>> round(sprung_diameter(56.0, 2.0, 210.0, 117000.0), 1)
        61.6

    Source: elastic recovery of an elastic-plastic bend (``round_bend_moment``).
    """
    radius = (former + wire) / 2
    moment = round_bend_moment(wire / 2, radius, yield_mpa, youngs)
    left = 1 / radius - moment / (youngs * round_second_moment(wire))
    # Rounding leaves a hair of curvature on a wholly elastic bend: that is straight, not huge.
    return math.inf if left * radius < 1e-12 else 2 / left - wire


def former_diameter(target: float, wire: float, yield_mpa: float, youngs: float) -> float:
    """Return the former on which round wire springs open to a wanted inside diameter.

    Args:
        target: inside diameter wanted [mm].
        wire: wire diameter [mm].
        yield_mpa: [MPa].
        youngs: [MPa].

    Returns:
        Former diameter [mm], smaller than the target.

    Raises:
        ValueError: a target not wider than the wire.

    Example:
        >>> round(former_diameter(60.0, 2.0, 210.0, 117000.0), 1)
        54.7

    Source: ``sprung_diameter`` solved by Brent's method (scipy).
    """

    def miss(former: float) -> float:
        # Curvatures, since the sprung diameter is infinite where the bend is elastic.
        sprung = sprung_diameter(former, wire, yield_mpa, youngs)
        return 1 / (target + wire) - (0.0 if math.isinf(sprung) else 1 / (sprung + wire))

    if not target > wire > 0:
        raise ValueError(f"no former bends {wire:g} mm wire to an inside diameter of {target:g} mm")
    return float(brentq(miss, wire, target, xtol=1e-9))
