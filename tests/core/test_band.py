"""Bands of several wires bent to the wearer: springback by the sum over wires, and its bounds."""

import math

import numpy as np
import pytest
from scipy.integrate import quad

from jamreel.core.forming.band import (
    Lengthwise,
    doubt_of,
    former_of,
    hand_moment,
    least_radius,
    opens_to,
    sprung_band,
    sprung_stuck,
)
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.springback import sprung_diameter
from jamreel.core.wire.metals import metals
from jamreel.core.wire.sections import Flat, Square


def wire(d: float, metal: str, mpa: float) -> Wire:
    return Wire(d, f"{d:g}", metals()[metal], "half_hard", mpa)


BRASS = [Lengthwise(wire(1.0, "brass", 310.0), 5)]
MIXED = [Lengthwise(wire(2.0, "copper", 210.0), 2), Lengthwise(wire(0.8, "copper", 70.0), 3)]


def test_five_wires_side_by_side_open_as_one_does() -> None:
    # 310 MPa and 110 GPa, mean radius 25: mean diameter 65.52.
    assert 2 / sprung_band(1 / 25, BRASS) == pytest.approx(65.52, abs=0.01)
    one = [Lengthwise(BRASS[0].wire, 1)]
    assert sprung_band(1 / 25, BRASS) == pytest.approx(sprung_band(1 / 25, one))
    # The same by the diameter that one wire opens to: inside and a wire more.
    assert sprung_diameter(49, BRASS[0].wire.shape, BRASS[0].wire.law) + 1 == pytest.approx(
        65.52, abs=0.01
    )


def test_thick_and_thin_share_the_curvature() -> None:
    assert 2 / sprung_band(1 / 27.5, MIXED) == pytest.approx(59.99, abs=0.01)
    assert 2 / sprung_band(1 / 27.5, MIXED[:1]) == pytest.approx(60.02, abs=0.01)
    assert 2 / sprung_band(1 / 27.5, MIXED[1:]) == pytest.approx(59.13, abs=0.01)


def by_quadrature(bent: float, d: float, youngs: float, mpa: float, out: float = 0.0) -> float:
    """Moment of a round wire about a line that lies so far from its middle [N mm]."""

    def pull(h: float) -> float:
        stress = max(-mpa, min(mpa, youngs * bent * (h + out)))
        return stress * (h + out) * 2 * math.sqrt(max(d * d / 4 - h * h, 0.0))

    edges = [s * mpa / youngs / bent - out for s in (-1, 1)]
    points = sorted({min(max(e, -d / 2), d / 2) for e in edges})
    return float(quad(pull, -d / 2, d / 2, points=points, limit=200)[0])


@pytest.mark.parametrize(
    ("rows", "radius"),
    [
        ([(2.0, 117_000, 210.0, 2), (0.8, 117_000, 70.0, 3)], 27.5),
        ([(1.0, 110_000, 310.0, 5)], 25.0),
        ([(1.2, 117_000, 210.0, 4)], 30.0),
        ([(0.5, 117_000, 70.0, 12)], 28.0),
        ([(1.6, 110_000, 450.0, 2), (1.0, 117_000, 70.0, 3)], 26.0),
        ([(0.6, 110_000, 310.0, 11)], 35.0),
        ([(3.0, 117_000, 70.0, 1), (1.0, 110_000, 310.0, 2)], 60.0),
    ],
)
def test_a_band_springs_back_as_its_sections_add_up(
    rows: list[tuple[float, float, float, int]], radius: float
) -> None:
    names = {117_000: "copper", 110_000: "brass"}
    band = [Lengthwise(wire(d, names[int(e)], mpa), n) for d, e, mpa, n in rows]
    assert all(one.wire.metal.youngs == e for one, (_, e, _, _) in zip(band, rows, strict=True))
    moment = sum(n * by_quadrature(1 / radius, d, e, mpa) for d, e, mpa, n in rows)
    stiff = sum(n * e * math.pi * d**4 / 64 for d, e, mpa, n in rows)
    assert sprung_band(1 / radius, band) == pytest.approx(1 / radius - moment / stiff, rel=1e-6)


def test_layers_that_stick_together_are_a_bound() -> None:
    """Two layers of 1.0 copper, their middles 1.0 apart."""
    copper = wire(1.0, "copper", 210.0)
    layers = [Lengthwise(copper, 5, -0.5), Lengthwise(copper, 5, 0.5)]
    moment = sum(5 * by_quadrature(1 / 28, 1.0, 117_000, 210.0, out) for out in (-0.5, 0.5))
    stiff = 10 * 117_000 * (math.pi / 64 + 0.5**2 * math.pi / 4)
    stuck = sprung_stuck(1 / 28, layers)
    assert stuck == pytest.approx(1 / 28 - moment / stiff, rel=2e-4)
    # Twice as deep it keeps more of the bend.
    assert stuck > sprung_band(1 / 28, layers)
    # In one layer both are the same, give or take the strips.
    single = [Lengthwise(copper, 10)]
    assert sprung_stuck(1 / 28, single) == pytest.approx(sprung_band(1 / 28, single), rel=2e-4)
    assert doubt_of(50.0, 2.0, layers) > doubt_of(50.0, 2.0, [Lengthwise(copper, 10)])


@pytest.mark.parametrize("band", [BRASS, MIXED])
def test_the_former_is_what_opens_to_the_inside(band: list[Lengthwise]) -> None:
    former = former_of(58.0, 3.0, band)
    assert former < 58.0
    assert opens_to(former, 3.0, band) == pytest.approx(58.0, abs=1e-6)


def test_no_former_bends_a_band_to_less_than_it_is_thick() -> None:
    with pytest.raises(ValueError, match="no former"):
        former_of(0.9, 1.0, BRASS)


def test_a_bend_that_stays_elastic_springs_straight() -> None:
    spring = [Lengthwise(wire(0.3, "brass", 450.0), 4)]
    # Elastic as long as d / 2R stays under sigma / E.
    radius = 0.15 * 110_000 / 450
    assert sprung_band(0.99 / radius, spring) == 0.0
    assert sprung_band(1.2 / radius, spring) > 0.0
    assert math.isinf(opens_to(2 * radius, 1.0, spring))
    assert sprung_band(0.0, spring) == sprung_stuck(0.0, spring) == 0.0


def test_sections_that_are_not_round_add_up_too() -> None:
    """Square and flat strands: sigma w (t^2 / 4 - y^2 / 3) each."""
    copper = metals()["copper"]
    shapes: list[tuple[Square | Flat, float, float]] = [
        (Square(side=1.0), 1.0, 1.0),
        (Flat(width=3.0, thickness=0.8, edges="sharp"), 3.0, 0.8),
    ]
    band = [
        Lengthwise(Wire(t, "x", copper, "half_hard", 210.0, section), 2) for section, _, t in shapes
    ]
    y = 210 * 27 / copper.youngs
    moment = sum(2 * w * 210 * (t**2 / 4 - y**2 / 3) for _, w, t in shapes)
    stiff = sum(2 * copper.youngs * w * t**3 / 12 for _, w, t in shapes)
    assert sprung_band(1 / 27, band) == pytest.approx(1 / 27 - moment / stiff, rel=1e-9)
    assert np.isclose(sprung_stuck(1 / 27, band), sprung_band(1 / 27, band), rtol=1e-3)
    assert hand_moment(band) == pytest.approx(sum(2 * w * t**2 / 4 * 210 for _, w, t in shapes))


def test_beads_and_the_thickest_wire_say_how_tight_it_may_be_bent() -> None:
    # 2.0 wire that bears 5 %: radius 20; beads 25 apart make no tighter bend than 25.
    assert least_radius(MIXED, 0.0, 0.05) == pytest.approx(20.0)
    assert least_radius(MIXED, 25.0, 0.05) == pytest.approx(25.0)
