"""Thickness of what goes round a body, against shapely's buffers and against a table of the trade.

shapely (BSD): the perimeter of a polygon's buffer, for Steiner's formula on ovals.
Common practice, no source: 210 of 8 mm beads leaves 184.87 inside; 190 of them and a closure of
20 that is 3 thick leave 186.47.
"""

import math

import pytest
from shapely.geometry import Polygon

from jamreel.core.body.outline import usual_outline
from jamreel.core.fit.thickness import (
    Segment,
    arc_centre_length,
    body_length_for,
    inside_girth_of,
    polygon_inside_girth,
)


def segments(*pairs: tuple[float, float]) -> list[Segment]:
    return [Segment(length=length, thickness=thick) for length, thick in pairs]


def test_beads_of_the_trades_table() -> None:
    assert inside_girth_of(segments((210, 8))) == pytest.approx(184.87, abs=0.005)
    assert inside_girth_of(segments((190, 8), (20, 3))) == pytest.approx(186.47, abs=0.005)


def test_the_other_way_gives_the_lengths_back() -> None:
    inside = inside_girth_of(segments((190, 8), (20, 3)))
    assert body_length_for(inside, segments((20, 3)), 8) == pytest.approx(190, abs=1e-6)
    assert body_length_for(inside_girth_of(segments((210, 8))), [], 8) == pytest.approx(210)
    mixed = segments((120, 6), (35, 11), (28, 4), (9, 2.5))
    back = body_length_for(inside_girth_of(mixed), mixed[1:], 6)
    assert back == pytest.approx(120, abs=1e-6)


@pytest.mark.parametrize("part", ["wrist", "neck", "head"])
@pytest.mark.parametrize("thickness", [2.0, 8.0, 14.0])
def test_one_thickness_on_an_oval_is_steiners(part: str, thickness: float) -> None:
    points, _ = usual_outline(part, 171).points(2000)
    body = Polygon(points)
    middle = body.buffer(thickness / 2, quad_segs=90).exterior.length
    assert inside_girth_of(segments((middle, thickness))) == pytest.approx(body.length, abs=0.02)


def test_an_open_arc_is_the_same_share_of_a_turn() -> None:
    points, _ = usual_outline("head", 563).points(4000)
    outer = Polygon(points).buffer(0.8139, quad_segs=90).exterior.length
    assert arc_centre_length(563, 563, 1.6277) == pytest.approx(outer, abs=0.02)
    assert arc_centre_length(281.5, 563, 1.6277) == pytest.approx(outer / 2, abs=0.02)


def test_rigid_beads_sit_on_a_polygon() -> None:
    # Twelve 8 mm spheres touching in a ring, from the coordinates of their centres.
    around = 8 / 2 / math.sin(math.pi / 12)
    a, b = ((around * math.cos(t), around * math.sin(t)) for t in (0, math.pi / 6))
    assert math.dist(a, b) == pytest.approx(8)
    assert polygon_inside_girth(8, 12, 8) == pytest.approx(2 * math.pi * (around - 4))
    assert polygon_inside_girth(8, 400, 8) == pytest.approx(3200 - 8 * math.pi, abs=0.1)


def test_parts_too_thick_leave_no_opening() -> None:
    with pytest.raises(ValueError, match="too thick"):
        inside_girth_of(segments((20, 14)))
    with pytest.raises(ValueError, match="some length"):
        inside_girth_of([])
