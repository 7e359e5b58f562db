"""What an arc keeps that was pulled open past its yield: the bend of each place along it.

The moment is greatest at the back and nothing at the ends. Where it passes what its wire bears
springily, the curvature follows the section's own law; let go, all of it springs back.
"""

import math
from dataclasses import replace
from functools import lru_cache

import numpy as np

from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.law import YIELD_SPREAD, Array, Law
from jamreel.core.forming.springback import bend_moment
from jamreel.core.forming.stiffness import opening_angles
from jamreel.core.roots import root

# Places along half an arc, and bends of a section that its law is read at, up to so many times the
# bend at which it gives.
PLACES, BENDS, MOST_BENT = 721, 160, 400.0


@lru_cache(maxsize=64)
def _law_of(wire: Wire) -> tuple[Array, Array]:
    """Return bends of a wire's section [1/mm] and the moments that hold them [N mm], perfectly
    plastic beyond the yield."""
    law = Law(wire.metal.youngs, wire.yield_mpa)
    gives = 2 * law.gives_at / wire.fibre
    # Close where it begins to give: there the law turns off most sharply.
    bends = gives * (1 + np.concatenate([[0.0], np.geomspace(1e-3, MOST_BENT, BENDS)]))
    held = [bend_moment(wire.shape, 1 / bend, law) for bend in bends.tolist()]
    return np.concatenate([[0.0], bends]), np.concatenate([[0.0], held])


def stays_open(wire: Wire, radius: float, opened: float, half: float = math.pi) -> float:
    """Return by how much an arc stays open that its ends were pulled apart.

        delta = 2 R^2 sum kappa(M) (cos phi - cos alpha), M = F R (cos phi - cos alpha);
        let go it closes by 2 F R^3 I(alpha) / (E I)

    Args:
        wire: as hard as it is worn, free of stress before.
        radius: R of its centre-line [mm].
        opened: delta, by which its ends are pulled apart [mm].
        half: alpha, from its back to an end [rad].

    Returns:
        Set [mm], 0 of what springs back whole.

    Notes:
        Elastic then perfectly plastic at the tabled yield; deflections are small.

    Source: moment and curvature along a curved bar; published, any text on plasticity.
    """
    bends, held = _law_of(wire)
    phi = np.linspace(0.0, half, PLACES)
    lever = np.cos(phi) - math.cos(half)
    stiff = wire.metal.youngs * wire.shape.second_moment

    def both(back: float) -> tuple[float, float]:
        """Opening, and the elastic part of it, when the back is bent by so much more."""
        most = float(np.interp(back, bends, held))
        along = most * lever / lever[0]
        bent = np.interp(along, held, bends)
        pull = most / (radius * lever[0])
        springs = 2 * pull * radius**3 * opening_angles(half) / stiff
        return 2 * radius**2 * float(np.trapezoid(bent * lever, phi)), springs

    if both(float(bends[1]))[0] >= opened:
        return 0.0
    most = float(bends[-1])
    if both(most)[0] <= opened:
        return opened - both(most)[1]
    back = root(lambda bend: both(bend)[0] - opened, float(bends[1]), most, within=1e-9)
    return max(0.0, opened - both(back)[1])


def stays_between(
    wire: Wire, radius: float, opened: float, half: float = math.pi
) -> tuple[float, float]:
    """Return the least and the most that an arc stays open [mm]: for wire a little harder or
    softer than tabled; see ``stays_open``."""
    harder, softer = (
        stays_open(replace(wire, yield_mpa=wire.yield_mpa * (1 + share)), radius, opened, half)
        for share in (YIELD_SPREAD, -YIELD_SPREAD)
    )
    return harder, softer
