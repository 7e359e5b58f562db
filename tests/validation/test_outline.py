"""The wrist's outline against general-purpose libraries.

scipy.special.ellipe (BSD): complete elliptic integral of the second kind, for ellipses.
Ramanujan, S. (1914), Modular equations and approximations to pi: his second formula.
shapely (BSD): perimeters of polygons and of their buffers, for Steiner's formula.
"""

import math

import numpy as np
import pytest
from scipy.special import ellipe
from shapely.geometry import Polygon

from jamreel.core.body.outline import (
    Ring,
    hull_with_finger,
    outline_points,
    semi_axes,
    superellipse_perimeter,
)
from jamreel.core.fit.ease import finger_ease


@pytest.mark.parametrize(("a", "b"), [(35, 25), (30, 22.5), (28, 28), (40, 20)])
def test_an_ellipse_is_the_elliptic_integral(a: float, b: float) -> None:
    exact = 4 * a * ellipe(1 - (b / a) ** 2)
    assert superellipse_perimeter(a, b, 2) == pytest.approx(exact, rel=1e-9)
    h = ((a - b) / (a + b)) ** 2
    ramanujan = math.pi * (a + b) * (1 + 3 * h / (10 + math.sqrt(4 - 3 * h)))
    assert superellipse_perimeter(a, b, 2) == pytest.approx(ramanujan, rel=1e-6)


def test_values_of_the_trade() -> None:
    """35 x 25 and 30 x 22.5 at n = 2; a wrist of 160 by its girth alone: common practice."""
    assert superellipse_perimeter(35, 25, 2) == pytest.approx(189.8068, abs=5e-5)
    assert superellipse_perimeter(30, 22.5, 2) == pytest.approx(165.7762, abs=5e-5)
    assert superellipse_perimeter(35, 25, 2.5) == pytest.approx(197.44, abs=5e-3)
    a, b = semi_axes(160, 1.39, 2.5)
    assert [2 * a, 2 * b] == pytest.approx([56.6, 40.7], abs=0.05)


@pytest.mark.parametrize("n", [1.8, 2.5, 3.3, 4.0])
def test_a_superellipse_against_its_polygon(n: float) -> None:
    points, _ = outline_points(35, 25, n, 4000)
    assert Polygon(points).length == pytest.approx(superellipse_perimeter(35, 25, n), rel=2e-5)


@pytest.mark.parametrize("offset", [0.5, 3.0, 9.0])
def test_a_ring_round_a_wrist_is_longer_by_two_pi_times_its_offset(offset: float) -> None:
    a, b = semi_axes(158, 1.39, 2.5)
    points, normals = outline_points(a, b, 2.5, 720)
    ring = Ring(points, normals, offset)
    assert ring.length == pytest.approx(158 + 2 * math.pi * offset, abs=0.02)
    buffered = Polygon(points).buffer(offset, quad_segs=64)
    assert ring.length == pytest.approx(buffered.exterior.length, abs=0.02)
    drawn = ring.at(np.linspace(0, ring.length, 700))
    assert Polygon(drawn).symmetric_difference(buffered).area < 2.0


def test_the_finger_belt_is_a_convex_hull() -> None:
    """The closed formula of the belt, against the hull of a round wrist and a finger."""
    points, _ = outline_points(80 / math.pi, 80 / math.pi, 2.0, 720)
    belt, _, circle = hull_with_finger(points, 15)
    hull = Polygon(np.vstack([points, circle])).convex_hull
    assert Polygon(belt).length == pytest.approx(hull.length, abs=0.05)
    assert hull.length == pytest.approx(160 + finger_ease(160, 15), abs=0.05)
