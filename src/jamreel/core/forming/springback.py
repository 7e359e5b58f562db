"""Springback: a wire let go opens by the elastic part of its bend.

Elastic-plastic bending: bent to curvature 1/R it recovers M / (E I). What is hammered on its
mandrel recovers less: the share of it that is left is ``kept``.
"""

import math
from collections.abc import Callable

import numpy as np

from jamreel.core.forming.law import Array, Law
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


def half_disc_bend_moment(r: float, radius: float, law: Law) -> float:
    """Return the moment that holds half-round wire bent to a radius, its flat inwards.

    The neutral line wanders from the centroid as metal yields: it lies where the stresses on both
    of its sides add up to nothing.

    Args:
        r: half of the flat [mm].
        radius: R of the line through the centroid [mm].
        law: of its metal.

    Returns:
        Moment [N mm].

    Source: elastic-plastic bending integrated over the section; plain statics, checked by
    quadrature in tests/validation.
    """
    yield_mpa, slope = law.yield_mpa, law.youngs / radius

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
        y = yield_mpa / slope
        low, high = (min(max(neutral + side * y, 0.0), r) for side in (-1, 1))
        a, b, whole = integrals(low), integrals(high), integrals(r)
        force = slope * (b[1] - a[1] - neutral * (b[0] - a[0]))
        moment = slope * (b[2] - a[2] - neutral * (b[1] - a[1]))
        force += yield_mpa * (whole[0] - b[0] - a[0])
        moment += yield_mpa * (whole[1] - b[1] - a[1])
        for sign, start, end in ((-1, low, 0.0), (1, high, r)) if law.hardens else ():

            def more(h: Array, sign: int = sign) -> Array:
                return sign * law.beyond(sign * (h - neutral) / radius) * _round_width(h, r)

            force += sign * _rim(more, start, end, r)
            moment += sign * _rim(lambda h, more=more: more(h) * h, start, end, r)  # type: ignore[misc]
        return force, moment

    return stresses(root(lambda h: stresses(h)[0], 0.0, r, within=1e-10 * r))[1]


# Points of Gauss and Legendre: what metal adds beyond its yield has no closed form.
_AT, _WEIGHT = np.polynomial.legendre.leggauss(48)


def _round_width(h: Array, r: float) -> Array:
    return 2 * np.sqrt(np.maximum(r * r - h * h, 0.0))


def _rim(what: Callable[[Array], Array], start: float, end: float, r: float) -> float:
    """Return an integral over the heights of a round section, smooth at its rim and steep at the
    place where metal begins to give."""
    first, last = (math.asin(min(1.0, h / r)) for h in (start, end))
    share = ((_AT + 1) / 2) ** 3
    turn = first + (last - first) * share
    step = (last - first) * 3 * ((_AT + 1) / 2) ** 2 / 2
    return float(np.sum(_WEIGHT * step * what(r * np.sin(turn)) * r * np.cos(turn)))


def _hardened_round(r: float, radius: float, law: Law) -> float:
    """Return what hardening adds to the moment of round wire [N mm]."""
    start = law.gives_at * radius
    if not law.hardens or start >= r:
        return 0.0
    return 2 * _rim(lambda h: law.beyond(h / radius) * _round_width(h, r) * h, start, r, r)


def _hardened_strip(width: float, thickness: float, radius: float, law: Law) -> float:
    """Return what hardening adds to the moment of a strip [N mm].

    With u the strain beyond the yield: K (eps_0 + u)^n - sigma, times the lever, has a primitive.
    """
    start, half = law.gives_at * radius, thickness / 2
    if law.k is None or law.n is None or start >= half:
        return 0.0
    k, n, worked = law.k, law.n, law.worked
    u = (half - start) / radius

    def powers(x: float) -> float:
        """Primitive of x^n (x - eps_0 + eps_y)."""
        return float(x ** (n + 2) / (n + 2) + (law.gives_at - worked) * x ** (n + 1) / (n + 1))

    raised = k * (powers(worked + u) - powers(worked)) * radius**2
    return 2 * width * (raised - law.yield_mpa * (half**2 - start**2) / 2)


def bend_moment(section: Section, radius: float, law: Law) -> float:
    """Return the moment [N mm] that holds wire of any section bent.

    Args:
        section: a patterned strip counts as its share of a strip, twisted strands as lying side
            by side.
        radius: R of the line through the centroid [mm].
        law: of its metal.

    Source: ``round_bend_moment``, ``strip_bend_moment`` and ``half_disc_bend_moment``; what metal
    that hardens adds is integrated.
    """
    bent = (radius, law.yield_mpa, law.youngs)

    def round_one(r: float) -> float:
        return round_bend_moment(r, *bent) + _hardened_round(r, radius, law)

    def strip(width: float, thickness: float) -> float:
        added = _hardened_strip(width, thickness, radius, law)
        return strip_bend_moment(width, thickness, *bent) + added

    match section:
        case Round():
            return round_one(section.diameter / 2)
        case Square():
            return strip(section.side, section.side)
        case Flat(width=w, thickness=t, edges="sharp"):
            return strip(w, t)
        case Flat(width=w, thickness=t):
            return strip(w - t, t) + round_one(t / 2)
        case Patterned():
            return section.fills * strip(section.width, section.thickness)
        case Twisted():
            return section.strands * round_one(section.strand / 2)
        case HalfRound():
            return half_disc_bend_moment(section.thickness, radius, law)


def sprung_curvature(bent: float, section: Section, law: Law, kept: float = 1.0) -> float:
    """Return the curvature that is left when wire is let go, kappa - kept M / (E I).

    Args:
        bent: curvature kappa of its centroid line while held [1/mm], not negative.
        section: of the wire.
        law: of its metal.
        kept: share of the springback that malleting on the mandrel leaves, 0 to 1.

    Returns:
        Curvature [1/mm], 0 of a bend that was elastic throughout.

    Source: elastic recovery of an elastic-plastic bend (``bend_moment``).
    """
    if bent <= 0:
        return 0.0
    moment = bend_moment(section, 1 / bent, law)
    left = bent - kept * moment / (law.youngs * section.second_moment)
    # Rounding leaves a hair of curvature on a wholly elastic bend: that is straight, not huge.
    return 0.0 if left < 1e-9 * bent else left


def sprung_diameter(former: float, section: Section, law: Law, kept: float = 1.0) -> float:
    """Return the inside diameter that wire opens to when it comes off a former.

    Args:
        former: diameter of mandrel or pin [mm].
        section: of the wire.
        law: of its metal.
        kept: share of the springback that malleting leaves, 0 to 1.

    Returns:
        Inside diameter [mm]; infinite when the bend was elastic throughout.

    Example:
        >>> round(sprung_diameter(56.0, Round(diameter=2.0), Law(117000.0, 210.0)), 1)
        61.6

    Source: ``sprung_curvature``.
    """
    offset = section.neutral_offset
    left = sprung_curvature(1 / (former / 2 + offset), section, law, kept)
    return 2 / left - 2 * offset if left > 0 else math.inf


def former_diameter(target: float, section: Section, law: Law, kept: float = 1.0) -> float:
    """Return the former on which wire springs open to a wanted inside diameter.

    Args:
        target: inside diameter wanted [mm].
        section: of the wire.
        law: of its metal.
        kept: share of the springback that malleting leaves, 0 to 1.

    Returns:
        Former diameter [mm], smaller than the target.

    Raises:
        ValueError: a target not wider than the wire is thick.

    Example:
        >>> round(former_diameter(60.0, Round(diameter=2.0), Law(117000.0, 210.0)), 1)
        54.7

    Source: ``sprung_curvature`` solved by ``roots.root``.
    """
    offset = section.neutral_offset

    def miss(former: float) -> float:
        left = sprung_curvature(1 / (former / 2 + offset), section, law, kept)
        return 1 / (target / 2 + offset) - left

    if not target > section.thickness > 0:
        thick = section.thickness
        raise ValueError(
            f"no former bends {thick:g} mm wire to an inside diameter of {target:g} mm"
        )
    if miss(target) == 0:
        # Nothing springs back of it.
        return target
    return root(miss, section.thickness, target, within=1e-9)


def effective_yield(former: float, came_off: float, section: Section, youngs: float) -> float:
    """Return the yield that explains what a wire came off a former at.

    Args:
        former: diameter that it was wound on [mm].
        came_off: inside diameter that it opened to [mm].
        section: of the wire.
        youngs: E [MPa].

    Returns:
        Yield [MPa] of a wire that holds it (perfectly plastic); put back into ``sprung_diameter``
        it gives ``came_off``.

    Raises:
        ValueError: a wire that came off no wider than its former.

    Example:
        >>> round(effective_yield(56.0, 61.61, Round(diameter=2.0), 117000.0))
        210

    Source: ``sprung_curvature`` solved by ``roots.root``.
    """
    if not came_off > former:
        raise ValueError(f"wire wound on {former:g} mm can't come off at {came_off:g} mm")
    offset = section.neutral_offset
    bent, left = 1 / (former / 2 + offset), 1 / (came_off / 2 + offset)
    # At this yield the farther fibre of the bend just stays elastic.
    elastic = youngs * bent * max(offset, section.thickness - offset)

    def miss(yield_mpa: float) -> float:
        return sprung_curvature(bent, section, Law(youngs, yield_mpa)) - left

    return root(miss, 1e-5 * elastic, elastic, within=1e-9)
