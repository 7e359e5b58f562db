"""A band of several wires bent to the wearer: side by side they slide, and share the curvature.

Each answers by its own section and temper, and the band springs back by the sum of their moments
over the sum of their stiffnesses. Layers that stick to each other are stiffer: that bounds the
doubt.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.law import YIELD_SPREAD
from jamreel.core.forming.springback import bend_moment
from jamreel.core.roots import root
from jamreel.core.wire.sections import Round

# A section is summed in so many strips where its wires stick together.
STRIPS = 400


@dataclass(frozen=True)
class Lengthwise:
    """Wires of a body that run along it: which, how many, and how far they lie out from the middle
    of the body, away from the wearer [mm]."""

    wire: Wire
    count: int
    out: float = 0.0

    def worn(self, times: float) -> "Lengthwise":
        """Return them of so many times the yield."""
        return replace(self, wire=replace(self.wire, yield_mpa=self.wire.yield_mpa * times))


Band = Sequence[Lengthwise]


def stiffness(band: Band) -> float:
    """Return the sum of E I over a band's wires, each about its own middle [N mm2]."""
    return sum(one.count * one.wire.metal.youngs * one.wire.shape.second_moment for one in band)


def hand_moment(band: Band) -> float:
    """Return the moment at which all of its wires give, sum of Z_p sigma [N mm]."""
    return sum(one.count * one.wire.moment for one in band)


def sprung_band(bent: float, band: Band) -> float:
    """Return the curvature that is left when a band is let go.

        kappa - sum M_i(kappa) / sum E_i I_i

    Args:
        bent: curvature kappa of its middle while held [1/mm], not negative.
        band: its wires, each of which slides on the others.

    Returns:
        Curvature [1/mm], 0 of a bend that was elastic throughout.

    Source: elastic recovery of an elastic-plastic bend (``bend_moment``), summed over wires that
        share the curvature.
    """
    if bent <= 0:
        return 0.0
    moment = sum(one.count * bend_moment(one.wire.shape, 1 / bent, one.wire.law) for one in band)
    left = bent - moment / stiffness(band)
    return 0.0 if left < 1e-9 * bent else left


def sprung_stuck(bent: float, band: Band) -> float:
    """Return the curvature that is left of a band whose layers can't slide on each other.

    Args:
        bent: curvature of its middle while held [1/mm].
        band: its wires.

    Source: plane sections of the whole band, elastic then perfectly plastic, about the middle of
        its stiffness; summed over strips.
    """
    if bent <= 0:
        return 0.0
    rows = [(one, *_strips(one.wire)) for one in band]
    young = [one.wire.metal.youngs for one, _, _ in rows]
    stiff = [e * one.count * one.wire.area for e, (one, _, _) in zip(young, rows, strict=True)]
    middle = sum(s * one.out for s, (one, _, _) in zip(stiff, rows, strict=True)) / sum(stiff)
    moment = bends = 0.0
    for (one, at, area), e in zip(rows, young, strict=True):
        lever = at + one.out - middle
        stress = np.clip(e * bent * lever, -one.wire.yield_mpa, one.wire.yield_mpa)
        moment += one.count * float(np.sum(stress * lever * area))
        bends += one.count * e * float(np.sum(lever**2 * area))
    left = bent - moment / bends
    return 0.0 if left < 1e-9 * bent else left


def _strips(wire: Wire) -> tuple[np.ndarray, np.ndarray]:
    """Return how far strips of a section lie from its middle [mm], and their areas [mm2]; what is
    not round counts as a strip of its area."""
    half = wire.shape.thickness / 2
    at = (np.arange(STRIPS) + 0.5) / STRIPS * 2 * half - half
    wide = np.sqrt(half**2 - at**2) if isinstance(wire.shape, Round) else np.ones(STRIPS)
    return at, wide / wide.sum() * wire.area


def opens_to(former: float, thick: float, band: Band, *, stuck: bool = False) -> float:
    """Return the inside diameter that a band opens to off a former.

    Args:
        former: that its inner face is bent round [mm].
        thick: all through, so that its wires lie half of that out [mm].
        band: its wires.
        stuck: whether its layers can't slide on each other.

    Returns:
        Inside diameter [mm]; infinite when the bend was elastic throughout.

    Source: ``sprung_band``.
    """
    spring = sprung_stuck if stuck else sprung_band
    left = spring(2 / (former + thick), band)
    return 2 / left - thick if left > 0 else math.inf


def former_of(inside: float, thick: float, band: Band) -> float:
    """Return the former off which a band opens to an inside diameter.

    Args:
        inside: wanted [mm].
        thick: all through [mm].
        band: its wires.

    Raises:
        ValueError: a band that no former bends so far.

    Source: ``sprung_band``, solved by ``roots.root``.
    """
    wanted = 2 / (inside + thick)

    def miss(former: float) -> float:
        return wanted - sprung_band(2 / (former + thick), band)

    least = max(one.wire.shape.thickness for one in band)
    if not inside > least:
        raise ValueError(f"no former bends the band to {inside:g} mm")
    if miss(inside) == 0:
        return inside
    return root(miss, least, inside, within=1e-9)


def doubt_of(former: float, thick: float, band: Band, harder: Band | None = None) -> float:
    """Return how far what a band opens to may lie from the sum [mm]: for wires a little softer or
    harder than tabled, and for layers that stick to each other.

    Args:
        former: that it is bent round [mm].
        thick: all through [mm].
        band: its wires, as soft as they are at least.
        harder: as hard as work may have made them since, None where nothing did.

    Returns:
        Half of the range, infinite where it may spring straight.

    Source: ``opens_to``; yields by 10 % either way, from memory, no source.
    """
    found = [
        opens_to(former, thick, [one.worn(1 + share) for one in wires])
        for wires, share in ((band, -YIELD_SPREAD), (harder or band, YIELD_SPREAD))
    ]
    if len({one.out for one in band}) > 1:
        found.append(opens_to(former, thick, band, stuck=True))
    return (max(found) - min(found)) / 2


def least_radius(band: Band, pitch: float, bears: float) -> float:
    """Return the least radius that a band's middle may be bent to [mm].

    Args:
        band: its wires.
        pitch: from bead to bead, 0 without any [mm]: rows of beads make no tighter bend.
        bears: the strain that its stiffest wire bears.

    Source: plane sections, t / 2R = strain; the pitch by common practice, no source.
    """
    thickest = max(one.wire.fibre for one in band)
    return max(pitch, thickest / 2 / bears)
