"""Formers, worked metal and open rings against what is known outside.

- Sprung back numerically: every place of a former's curve is let go by a moment integrated with
  scipy.integrate.quad (BSD), and drawn again by the trapezium rule.
- Outlines as parallel curves by shapely (BSD): offset polygons.
- A bar of 3.0 round, 175 long, rolled to 1.9 by 3.5 with round edges comes to 210.5: common
  practice, no source: makers expect about 210.
- Split ring: Castigliano's theorem integrated numerically; any text on statics.
- Tubes: a tube that is flattened keeps its perimeter; plain geometry, by shapely.
"""

import math

import numpy as np
import pytest
from scipy.integrate import quad
from scipy.optimize import brentq
from shapely.geometry import LineString, Polygon, box
from shapely.geometry import Point as MapPoint

from jamreel.core.body.outline import Outline, usual_outline
from jamreel.core.forming.law import Law
from jamreel.core.forming.oval import (
    Course,
    bent_to_spring,
    block,
    course_along,
    let_go,
    nearest_by_rounds,
)
from jamreel.core.forming.stiffness import (
    closed_gives,
    elastic_opening,
    open_gives,
    opening_pull,
    opening_strain,
)
from jamreel.core.forming.tools import Tool
from jamreel.core.forming.volume import (
    cup_blank,
    hull_perimeter,
    length_to_work,
    tube_stretch,
    worked_length,
    worked_strain,
)
from jamreel.core.wire.sections import Flat, Round, Square, round_area

BODIES = [("wrist", 160.0, 2.0), ("neck", 360.0, 3.0), ("head", 560.0, 2.0)]


def quadrature_sprung(bent: float, r: float, law: Law) -> float:
    """Curvature left of a round wire, its moment integrated with quad."""

    def stress(y: float) -> float:
        return min(law.youngs * y * bent, law.yield_mpa) * 2 * math.sqrt(r * r - y * y) * y

    knee = min(r, law.gives_at / bent)
    moment = 2 * (quad(stress, 0, knee)[0] + quad(stress, knee, r)[0])
    return bent - moment / (law.youngs * math.pi * r**4 / 4)


def drawn(course: Course) -> np.ndarray:
    """One half of a course drawn with small steps of heading, by the trapezium rule."""
    fine = 40
    lengths = np.repeat(course.lengths / fine, fine)
    turns = lengths * np.repeat(course.curvatures, fine)
    heading = np.concatenate([[0.0], np.cumsum(turns)])
    middle = (heading[1:] + heading[:-1]) / 2
    steps = np.column_stack([lengths * np.cos(middle), -lengths * np.sin(middle)])
    return np.vstack([[(0.0, 0.0)], np.cumsum(steps, axis=0)])[::fine]


@pytest.mark.parametrize(("part", "girth", "d"), BODIES)
@pytest.mark.parametrize("strength", [70.0, 210.0])
def test_the_former_sprung_back_lands_on_its_target(
    part: str, girth: float, d: float, strength: float
) -> None:
    outline, law, r = usual_outline(part, girth), Law(117e3, strength), d / 2
    target = course_along(outline, 1.5 + r, 0.8 * (girth + 2 * math.pi * (1.5 + r)))
    bent = bent_to_spring(target, Round(diameter=d), law)
    assert np.all(bent.curvatures >= target.curvatures)
    left = np.array([max(0.0, quadrature_sprung(float(k), r, law)) for k in bent.curvatures])
    sprung = drawn(Course(bent.lengths, left))
    # The target itself, as shapely offsets the outline.
    points, _ = outline.points(2880)
    ring = Polygon(points).buffer(1.5 + r, quad_segs=200).exterior
    top = points[0] + (0.0, 1.5 + r)
    off = [ring.distance(MapPoint(p)) for p in sprung + top]
    assert max(off) < 0.05


def test_a_round_body_takes_a_round_former() -> None:
    """The former's curve of a circle is the circle that springs to it, 54.66 for 60 in copper."""
    ring = Outline(30.0, 30.0, 2.0)
    bent = bent_to_spring(course_along(ring, 1.0, 150.0), Round(diameter=2), Law(117e3, 210))
    assert 2 / bent.curvatures - 2 == pytest.approx(54.66, abs=0.02)


@pytest.mark.parametrize("kept", [0.3, 1.0])
def test_letting_go_is_bending_the_other_way_round(kept: float) -> None:
    target = course_along(usual_outline("wrist", 170), 3.0, 150.0)
    section, law = Flat(width=4, thickness=1.2), Law(117e3, 210)
    back = let_go(bent_to_spring(target, section, law, kept), section, law, kept)
    assert back.points() == pytest.approx(target.points(), abs=0.01)


@pytest.mark.parametrize(("part", "girth", "d"), BODIES)
def test_the_wooden_former_lies_half_a_wire_inside_its_wire(
    part: str, girth: float, d: float
) -> None:
    bent = course_along(usual_outline(part, girth), 2.0, 0.75 * girth)
    wood = Polygon(block(bent, d / 2))
    assert wood.is_valid
    line = LineString(bent.points())
    # Along the wire the wood's edge is half a wire away; only across the gap it is further.
    near = np.array([line.distance(MapPoint(p)) for p in block(bent, d / 2)])
    assert near == pytest.approx(d / 2, abs=0.01)
    assert wood.area == pytest.approx(Polygon(bent.points()).area - d / 2 * bent.length, rel=0.03)


def test_an_oval_of_two_arcs_is_found_again() -> None:
    """An oval drawn with compasses: what was bent on two round places comes out as those two."""
    section, law = Round(diameter=1.0), Law(117e3, 1e-3)
    tools = (Tool(name="tins", kind="household", diameters=(30, 44, 60, 75, 90)),)
    # The ellipse nearest to arcs of 90 and 44; no springback, so diameters are what is drawn.
    found = nearest_by_rounds(Outline(32.0, 26.0, 2.0), 0.5, tools, section, law, 1.0)
    assert found is not None
    assert [place.tool_mm for place in found.places] == [75.0, 44.0]
    assert found.off_mm < 0.4
    # Lengths and angles of a quarter: together a right angle.
    turned = sum((p.to_mm - p.from_mm) / (p.tool_mm / 2 + 0.5) for p in found.places)
    assert turned == pytest.approx(math.pi / 2)
    quarter = (Outline(32.0, 26.0, 2.0).girth + math.pi) / 4
    assert found.places[-1].to_mm == pytest.approx(quarter)


def test_round_tools_that_come_nowhere_near_are_not_offered() -> None:
    section, law = Round(diameter=1.0), Law(117e3, 1e-3)
    far = (Tool(name="tins", kind="household", diameters=(90, 100, 400)),)
    assert nearest_by_rounds(Outline(75.0, 95.0, 2.4), 0.5, far, section, law, 1.0) is None
    assert nearest_by_rounds(Outline(75.0, 95.0, 2.4), 0.5, (), section, law, 1.0) is None


def test_rolled_metal_keeps_its_volume() -> None:
    strip = Flat(width=3.5, thickness=1.9)
    assert worked_length(175, round_area(3.0), strip.area) == pytest.approx(210.5, abs=0.05)
    stadium = LineString([(-0.8, 0), (0.8, 0)]).buffer(0.95, quad_segs=400)
    assert worked_length(175, 7.0686, stadium.area) == pytest.approx(210.5, abs=0.05)
    assert length_to_work(210.5, round_area(3.0), strip.area) == pytest.approx(175, abs=0.05)
    assert worked_length(100, Square(side=2).area, 2.0) == 200
    assert worked_strain(round_area(3.0), strip.area) == pytest.approx(
        math.log(210.5 / 175), abs=1e-3
    )


def test_a_cup_has_the_face_of_its_blank() -> None:
    """A spherical cap by quadrature: rings of 2 pi r ds."""
    face = quad(lambda t: 2 * math.pi * 3.0**2 * math.sin(t), 0, math.acos(1 - 1.2 / 3.0))[0]
    assert math.pi / 4 * cup_blank(6.0, 1.2) ** 2 == pytest.approx(face)


@pytest.mark.parametrize(
    ("width", "thick", "needs", "stretch"),
    [(12, 2, 26.28, 0.0), (14, 2, 30.28, 1.5), (16, 3, 35.42, 18.7)],
)
def test_a_tube_of_9_5_flattened_over_a_strip(
    width: float, thick: float, needs: float, stretch: float
) -> None:
    over = Flat(width=width, thickness=thick)
    assert hull_perimeter(over) == pytest.approx(needs, abs=0.005)
    half = (width - thick) / 2
    shape = LineString([(-half, 0), (half, 0)]).buffer(thick / 2, quad_segs=400)
    assert hull_perimeter(over) == pytest.approx(shape.length, rel=1e-4)
    assert 100 * tube_stretch(9.5, hull_perimeter(over)) == pytest.approx(stretch, abs=0.05)
    assert math.pi * 9.5 == pytest.approx(29.85, abs=0.005)
    sharp = Flat(width=width, thickness=thick, edges="sharp")
    assert hull_perimeter(sharp) == pytest.approx(box(0, 0, width, thick).length)


@pytest.mark.parametrize("half", [math.pi, 2.6, 2.0, 1.2])
def test_open_rings_beside_castigliano(half: float) -> None:
    """delta = d U / d F with M = F R (cos phi - cos alpha), U the strain energy, by quadrature."""
    radius, rigidity, thick = 29.0, 117e3 * math.pi / 4, 2.0

    def moved(force: float) -> float:
        def energy(phi: float) -> float:
            lever = radius * (math.cos(phi) - math.cos(half))
            return force * lever * lever / rigidity * radius

        return 2 * quad(energy, 0, half, epsabs=0, epsrel=1e-11)[0]

    pull = opening_pull(12.0, radius, rigidity, half)
    assert moved(pull) == pytest.approx(12.0, rel=1e-6)
    back = pull * radius * (1 - math.cos(half))
    assert opening_strain(thick, radius, 12.0, half) == pytest.approx(
        back * thick / 2 / rigidity, rel=1e-6
    )
    just = elastic_opening(thick, radius, 210 / 117e3, half)
    assert brentq(
        lambda o: opening_strain(thick, radius, o, half) - 210 / 117e3, 0.01, 500
    ) == pytest.approx(just, rel=1e-6)


def test_rings_that_are_pressed_beside_castigliano() -> None:
    radius, rigidity, force = 31.0, 117e3 * math.pi / 4, 5.0
    # Open: only the half opposite the gap bends, M = F R cos phi.
    gives = quad(
        lambda t: force * radius**3 * math.cos(t) ** 2 / rigidity, -math.pi / 2, math.pi / 2
    )
    assert open_gives(force, radius, rigidity) == pytest.approx(gives[0], rel=1e-6)

    # Closed: the moment at the sides is what leaves them unturned; M = m - F R (1 - cos t) / 2.
    def turned(m: float) -> float:
        return quad(lambda t: m - force * radius * (1 - math.cos(t)) / 2, 0, math.pi / 2)[0]

    at_side = brentq(turned, 0, force * radius)

    def work(t: float) -> float:
        moment = at_side - force * radius * (1 - math.cos(t)) / 2
        return moment * moment * radius / rigidity

    energy = 4 * quad(work, 0, math.pi / 2)[0] / 2
    assert closed_gives(force, radius, rigidity) == pytest.approx(2 * energy / force, rel=1e-6)
