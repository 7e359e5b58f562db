"""Springback: a wire let go opens by the elastic part of its bend.

Elastic-plastic bending: bent to curvature 1/R it recovers M / (E I).
"""

import math

from jamreel.core.roots import root
from jamreel.core.wire.sections import (
    Flat,
    HalfRound,
    Patterned,
    Round,
    Section,
    Square,
    Twisted,
    round_second_moment,
)


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


def strip_bend_moment(
    width: float, thickness: float, radius: float, yield_mpa: float, youngs: float
) -> float:
    """Return the moment that holds a strip bent to a centre-line radius.

        w sigma (t^2 / 4 - y^2 / 3), y = sigma R / E < t / 2, and E I / R while all is elastic

    Args:
        width: w, across the bend [mm].
        thickness: t, through it [mm].
        radius: R of the centre-line [mm].
        yield_mpa: sigma [MPa].
        youngs: E [MPa].

    Returns:
        Moment [N mm]; its elastic recovery is Gardiner's 4 x^3 - 3 x + 1, x = R sigma / (E t).

    Source: elastic-plastic bending of a rectangle; published, any text on plasticity.
    """
    y = yield_mpa * radius / youngs
    if y >= thickness / 2:
        return youngs * width * thickness**3 / 12 / radius
    return width * yield_mpa * (thickness**2 / 4 - y * y / 3)


def half_disc_bend_moment(r: float, radius: float, yield_mpa: float, youngs: float) -> float:
    """Return the moment that holds half-round wire bent to a radius, its flat inwards.

    The neutral line wanders from the centroid as metal yields: it lies where the stresses on both
    of its sides add up to nothing.

    Args:
        r: half of the flat [mm].
        radius: R of the line through the centroid [mm].
        yield_mpa: sigma [MPa].
        youngs: E [MPa].

    Returns:
        Moment [N mm].

    Source: elastic-plastic bending integrated over the section; plain statics, checked by
    quadrature in tests/validation.
    """

    def integrals(h: float) -> tuple[float, float, float]:
        """Of the width 2 sqrt(r^2 - h^2) times 1, h and h^2, from the flat up to h."""
        root, turn = math.sqrt(max(0.0, r * r - h * h)), math.asin(min(1.0, h / r))
        return (
            h * root + r * r * turn,
            2 / 3 * (r**3 - root**3),
            r**4 / 4 * turn - h / 4 * (r * r - 2 * h * h) * root,
        )

    def stresses(neutral: float) -> tuple[float, float]:
        """Force and moment over the section when the neutral line lies so far from the flat."""
        y = yield_mpa * radius / youngs
        low, high = (min(max(neutral + side * y, 0.0), r) for side in (-1, 1))
        a, b, whole = integrals(low), integrals(high), integrals(r)
        slope = youngs / radius
        force = slope * (b[1] - a[1] - neutral * (b[0] - a[0]))
        moment = slope * (b[2] - a[2] - neutral * (b[1] - a[1]))
        return (
            force + yield_mpa * (whole[0] - b[0] - a[0]),
            moment + yield_mpa * (whole[1] - b[1] - a[1]),
        )

    return stresses(root(lambda h: stresses(h)[0], 0.0, r, within=1e-10 * r))[1]


def bend_moment(section: Section, radius: float, yield_mpa: float, youngs: float) -> float:
    """Return the moment [N mm] that holds wire of any section bent.

    Args:
        section: a patterned strip counts as its share of a strip, twisted strands as lying side
            by side.
        radius: R of the line through the centroid [mm].
        yield_mpa: sigma [MPa].
        youngs: E [MPa].

    Source: ``round_bend_moment``, ``strip_bend_moment`` and ``half_disc_bend_moment``.
    """
    bent = (radius, yield_mpa, youngs)
    match section:
        case Round():
            return round_bend_moment(section.diameter / 2, *bent)
        case Square():
            return strip_bend_moment(section.side, section.side, *bent)
        case Flat(width=w, thickness=t, edges="sharp"):
            return strip_bend_moment(w, t, *bent)
        case Flat(width=w, thickness=t):
            return strip_bend_moment(w - t, t, *bent) + round_bend_moment(t / 2, *bent)
        case Patterned():
            strip = strip_bend_moment(section.width, section.thickness, *bent)
            return section.fills * strip
        case Twisted():
            return section.strands * round_bend_moment(section.strand / 2, *bent)
        case HalfRound():
            return half_disc_bend_moment(section.thickness, *bent)


def sprung_diameter(former: float, section: Section, yield_mpa: float, youngs: float) -> float:
    """Return the inside diameter that wire opens to when it comes off a former.

    Args:
        former: diameter of mandrel or pin [mm].
        section: of the wire.
        yield_mpa: [MPa].
        youngs: [MPa].

    Returns:
        Inside diameter [mm]; infinite when the bend was elastic throughout.

    Example:
        >>> round(sprung_diameter(56.0, Round(diameter=2.0), 210.0, 117000.0), 1)
        61.6

    Source: elastic recovery of an elastic-plastic bend (``bend_moment``).
    """
    radius = former / 2 + section.neutral_offset
    moment = bend_moment(section, radius, yield_mpa, youngs)
    left = 1 / radius - moment / (youngs * section.second_moment)
    # Rounding leaves a hair of curvature on a wholly elastic bend: that is straight, not huge.
    return math.inf if left * radius < 1e-9 else 2 / left - 2 * section.neutral_offset


def former_diameter(target: float, section: Section, yield_mpa: float, youngs: float) -> float:
    """Return the former on which wire springs open to a wanted inside diameter.

    Args:
        target: inside diameter wanted [mm].
        section: of the wire.
        yield_mpa: [MPa].
        youngs: [MPa].

    Returns:
        Former diameter [mm], smaller than the target.

    Raises:
        ValueError: a target not wider than the wire is thick.

    Example:
        >>> round(former_diameter(60.0, Round(diameter=2.0), 210.0, 117000.0), 1)
        54.7

    Source: ``sprung_diameter`` solved by ``roots.root``.
    """
    offset = 2 * section.neutral_offset

    def miss(former: float) -> float:
        # Curvatures, since the sprung diameter is infinite where the bend is elastic.
        sprung = sprung_diameter(former, section, yield_mpa, youngs)
        return 1 / (target + offset) - (0.0 if math.isinf(sprung) else 1 / (sprung + offset))

    if not target > section.thickness > 0:
        thick = section.thickness
        raise ValueError(
            f"no former bends {thick:g} mm wire to an inside diameter of {target:g} mm"
        )
    return root(miss, section.thickness, target, within=1e-9)
