"""Sections against outside packages and figures done by hand.

- sectionproperties 3 (van Leeuwen, JOSS 2024): finite-element section properties. Warping-free
  geometric and plastic properties to 1e-5, on geometry from shapely.
- shapely: area and centroid of the same outlines.
- Density x area by hand: copper 8.94, sterling 10.36, aluminium 2.71 g/cm3, as in data/metals.toml.
"""

import math
from typing import Any

import pytest
from sectionproperties.analysis.section import Section as Mesh
from sectionproperties.pre.geometry import Geometry
from shapely import Polygon, box

from jamreel.core.forming.chosen import chosen, length_of_mass
from jamreel.core.wire.gauges import WireSize
from jamreel.core.wire.metals import WireChoice
from jamreel.core.wire.sections import (
    Flat,
    HalfRound,
    Round,
    Section,
    Square,
    Twisted,
    twist_take_up,
)
from tests.conftest import some_of

# Circles as polygons of so many corners fall short by about (2 pi / n)^2 / 6.
CORNERS = 2400


def arc(radius: float, start: float, end: float, x: float = 0.0) -> list[tuple[float, float]]:
    angles = [start + (end - start) * i / CORNERS for i in range(CORNERS + 1)]
    return [(x + radius * math.cos(a), radius * math.sin(a)) for a in angles]


def outline(section: Section) -> Polygon:
    """The section's outline, bent through y, drawn by its own geometry."""
    match section:
        case Round():
            # The last point is the first: meshing wants each once.
            return Polygon(arc(section.diameter / 2, 0, 2 * math.pi)[:-1])
        case Square():
            return box(0, 0, section.side, section.side)
        case HalfRound():
            return Polygon(arc(section.flat / 2, 0, math.pi))
        case Flat(edges="sharp"):
            return box(0, 0, section.width, section.thickness)
        case Flat():
            r, half = section.thickness / 2, (section.width - section.thickness) / 2
            right = arc(r, -math.pi / 2, math.pi / 2, half)
            return Polygon([*right, *arc(r, math.pi / 2, 3 * math.pi / 2, -half)])
    raise AssertionError(section)


SECTIONS: list[Any] = [
    Round(diameter=2.0),
    Square(side=2.0),
    HalfRound(flat=4.6),
    Flat(width=3.5, thickness=1.9),
    Flat(width=5.0, thickness=1.2, edges="sharp"),
]


@pytest.mark.parametrize("section", some_of(SECTIONS, 1), ids=lambda s: s.label)
def test_against_shapely_and_sectionproperties(section: Any) -> None:
    shape = outline(section)
    assert section.area == pytest.approx(shape.area, rel=1e-5)
    low = shape.bounds[1]
    assert section.neutral_offset == pytest.approx(shape.centroid.y - low, rel=1e-5)
    assert shape.bounds[3] - low == pytest.approx(section.thickness, rel=1e-5)
    assert shape.bounds[2] - shape.bounds[0] == pytest.approx(section.width, rel=1e-5)
    geometry = Geometry(shape)
    geometry.create_mesh(mesh_sizes=[0.05 * section.area])
    mesh = Mesh(geometry)
    mesh.calculate_geometric_properties()
    mesh.calculate_plastic_properties()
    assert section.second_moment == pytest.approx(mesh.get_ic()[0], rel=1e-5)
    assert section.plastic_modulus == pytest.approx(mesh.get_s()[0], rel=2e-5)


def test_figures_of_the_trade() -> None:
    assert Round(diameter=2).plastic_modulus == pytest.approx(1.3333, abs=5e-5)
    assert Square(side=2).plastic_modulus == 2.0
    stadium = Flat(width=3.5, thickness=1.9)
    assert (stadium.area, stadium.plastic_modulus) == pytest.approx((5.8753, 2.5872), abs=5e-5)
    half = HalfRound(flat=2)
    assert half.plastic_modulus == pytest.approx(0.35398, abs=5e-6)
    assert half.neutral_offset == pytest.approx(0.42441, abs=5e-6)


def test_three_strands_twisted() -> None:
    assert twist_take_up(3, 0.5, 5) == pytest.approx(
        math.sqrt(1 + (2 * math.pi * 0.5 / math.sqrt(3) / 5) ** 2)
    )
    assert twist_take_up(3, 0.5, 5) == pytest.approx(1.0638, abs=5e-5)
    assert Twisted(strands=3, strand=0.5, pitch=5).width == pytest.approx(1.077, abs=5e-4)
    assert Twisted(strands=4, strand=1, pitch=20).width == pytest.approx(2.414, abs=5e-4)
    assert Twisted(strands=2, strand=1, pitch=20).width == 2.0


@pytest.mark.parametrize(
    ("metal", "d", "grams"),
    [("copper", 1.0, 7.0215), ("sterling", 0.812, 5.3650), ("aluminium", 2.0, 8.5137)],
)
def test_a_metre_by_hand(metal: str, d: float, grams: float) -> None:
    wire = chosen(WireChoice(size=WireSize(diameter_mm=d), metal=metal))
    # density [g/cm3] x pi d^2 / 4 [mm2] is grams a metre.
    assert wire.mass(1000) == pytest.approx(grams, abs=5e-4)
    assert length_of_mass(50 + grams, 50, wire.area, wire.metal.density) == pytest.approx(
        1000, abs=0.2
    )
