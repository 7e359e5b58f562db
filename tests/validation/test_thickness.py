"""Thickness of what goes round a body, against shapely's buffers and against a table of the trade.

shapely (BSD): the perimeter of a polygon's buffer, for Steiner's formula on ovals.
Common practice, no source: 210 of 8 mm beads leaves 184.87 inside; 190 of them and a closure of
20 that is 3 thick leave 186.47.
"""

import math

import pytest
from shapely.geometry import Point, Polygon

from jamreel.core.body.outline import usual_outline
from jamreel.core.fit.thickness import Lies, Segment, arc_centre_length, inside_girth_of


def segments(*pairs: tuple[float, float]) -> list[Segment]:
    return [Segment(length=length, thickness=thick) for length, thick in pairs]


def rigid(lies: Lies, length: float, thickness: float, count: int) -> Segment:
    return Segment(length=length, thickness=thickness, count=count, lies=lies)


def test_beads_of_the_trades_table() -> None:
    assert inside_girth_of(segments((210, 8))) == pytest.approx(184.87, abs=0.005)
    assert inside_girth_of(segments((190, 8), (20, 3))) == pytest.approx(186.47, abs=0.005)


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
    found = inside_girth_of([rigid("bead", 8, 8, 12)])
    assert found == pytest.approx(2 * math.pi * (around - 4))
    # Looser than the string is long less the thickness, by n b (pi / n) / sin(pi / n) in all.
    assert found == pytest.approx(12 * 8 * (math.pi / 12) / math.sin(math.pi / 12) - 8 * math.pi)
    assert inside_girth_of([rigid("bead", 8, 8, 400)]) == pytest.approx(3200 - 8 * math.pi, abs=0.1)
    # The trade's figure, common practice, no source.
    assert inside_girth_of([rigid("bead", 8, 8, 22)]) == pytest.approx(151.47, abs=0.005)


def test_straight_links_touch_the_skin_at_their_middles() -> None:
    # Figures of the trade, common practice, no source.
    assert inside_girth_of([rigid("straight", 16.87, 6, 10)]) == pytest.approx(144.26, abs=0.005)
    assert inside_girth_of([rigid("straight", 40, 2, 3)]) == pytest.approx(66.27, abs=0.005)
    # With a clasp of 11 on rings of 3.5 in 20 AWG: 98.1, where bending links would leave 131.5.
    clasp = [rigid("straight", 3.5, 0.812, 1), rigid("straight", 14.5, 3, 1)]
    three = [rigid("straight", 40, 2, 3), *clasp]
    assert inside_girth_of(three) == pytest.approx(98.1, abs=0.06)
    assert inside_girth_of([one.bending for one in three]) == pytest.approx(131.5, abs=0.05)
    assert inside_girth_of(segments((168.7, 6))) == pytest.approx(149.85, abs=0.005)
    assert inside_girth_of(segments((120, 2))) == pytest.approx(113.72, abs=0.005)


@pytest.mark.parametrize(("length", "count"), [(16.87, 10), (40.0, 3), (9.5, 17)])
def test_links_as_a_polygon_in_shapely(length: float, count: int) -> None:
    """The largest circle inside a regular polygon of links laid flat on their inner faces."""
    thick = 3.0
    corner = length / 2 / math.sin(math.pi / count)
    turns = [2 * math.pi * k / count for k in range(count)]
    links = Polygon([(corner * math.cos(t), corner * math.sin(t)) for t in turns])
    free = links.exterior.distance(Point(0, 0)) - thick / 2
    found = inside_girth_of([rigid("straight", length, thick, count)])
    assert found == pytest.approx(2 * math.pi * free)


def test_links_and_beads_mixed_close_their_polygon() -> None:
    mixed = [rigid("straight", 21, 5, 4), rigid("bead", 7, 7, 9), rigid("bends", 30, 2, 1)]
    inner = inside_girth_of(mixed) / (2 * math.pi)
    turned = 4 * 2 * math.atan(21 / 2 / (inner + 2.5)) + 9 * 2 * math.asin(7 / 2 / (inner + 3.5))
    assert turned + 30 / (inner + 1) == pytest.approx(2 * math.pi)
    # As many short links of the same length nearly bend.
    short = inside_girth_of([rigid("straight", 2, 5, 90)])
    assert short == pytest.approx(inside_girth_of(segments((180, 5))), abs=0.1)


def test_parts_too_thick_leave_no_opening() -> None:
    with pytest.raises(ValueError, match="too thick"):
        inside_girth_of(segments((20, 14)))
    with pytest.raises(ValueError, match="some length"):
        inside_girth_of([])
