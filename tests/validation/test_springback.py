"""Springback against a worked example and against quadrature.

Kalpakjian, S. & Schmid, S. R., Manufacturing Engineering and Technology, example on springback in
bending (after Gardiner, F. J., 1957, Trans. ASME 79): R_i 0.5 in, Y 40 ksi, E 29 Msi,
T 0.0359 in -> R_f 0.531 in. Values from memory; printed to three figures.
scipy.integrate.quad (BSD) for the bending moment of a round section from first principles.
"""

import math

import pytest
from scipy.integrate import quad

from jamreel.core.forming.springback import (
    former_diameter,
    gardiner_ratio,
    round_bend_moment,
    sprung_diameter,
)


def test_kalpakjians_rectangle() -> None:
    ratio = gardiner_ratio(0.5, 0.0359, 40e3, 29e6)
    assert 0.5 / ratio == pytest.approx(0.531, abs=5e-4)


def integrated(r: float, radius: float, strength: float, youngs: float) -> float:
    """Moment of a round section: stress times width times lever, over the section."""
    # Substituting y = r sin(t) keeps the integrand smooth at the rim.
    elastic_to = min(1.0, strength * radius / youngs / r)

    def moment(t: float) -> float:
        y = r * math.sin(t)
        stress = min(youngs * y / radius, strength)
        return stress * 2 * r * math.cos(t) * y * r * math.cos(t)

    knee = math.asin(elastic_to)
    parts = [(0.0, knee), (knee, math.pi / 2)] if elastic_to < 1 else [(0.0, math.pi / 2)]
    return 2 * sum(quad(moment, a, b, epsabs=0, epsrel=1e-12)[0] for a, b in parts)


@pytest.mark.parametrize("r", [0.25, 0.5, 0.8139, 1.0, 1.6])
@pytest.mark.parametrize("radius", [2.0, 7.5, 29.0, 90.0, 400.0])
@pytest.mark.parametrize(("strength", "youngs"), [(70, 117e3), (210, 117e3), (600, 75e3)])
def test_round_moment_is_the_integral(
    r: float, radius: float, strength: float, youngs: float
) -> None:
    assert round_bend_moment(r, radius, strength, youngs) == pytest.approx(
        integrated(r, radius, strength, youngs), rel=1e-9
    )


def test_limits_of_the_round_moment() -> None:
    plastic = 4 / 3 * 210 * 0.8**3
    assert round_bend_moment(0.8, 0.9, 210, 117e3) == pytest.approx(plastic, rel=1e-4)
    elastic = 117e3 * math.pi * 0.8**4 / 4 / 900
    assert round_bend_moment(0.8, 900, 210, 117e3) == pytest.approx(elastic)


def test_two_millimetre_copper_of_the_trades_table() -> None:
    """Common practice, no source: wound on 56 it opens to 61.6; for 60 on 54.7, soft 58.1."""
    assert sprung_diameter(56, 2.0, 210, 117e3) == pytest.approx(61.6, abs=0.05)
    assert former_diameter(60, 2.0, 210, 117e3) == pytest.approx(54.7, abs=0.05)
    assert former_diameter(60, 2.0, 70, 117e3) == pytest.approx(58.1, abs=0.05)
