"""Braids, plaits, meshes, bundles, wound rings, cages and cords against figures from outside.

- ``tests/data/weaves``: own numerical tightening, as in ``test_weaves``.
- Elliptic integrals and lengths of curves: SciPy. Hulls: Shapely. Ellipses: SciPy.
- A tight closed trefoil takes 16.37 of its thickness (ropelength, from memory): the lower bound of
  any knot that is tied and closed; an open overhand knot lets go of its closing arc.
- Worked examples: from the tables of the trade's formulas, each to two decimals.
"""

import csv
import math
import re
from collections.abc import Callable
from pathlib import Path

import numpy as np
import pytest
from scipy.integrate import quad
from shapely.geometry import MultiPoint, Point

from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.palette import Palette
from jamreel.core.forming.volume import (
    bore_for,
    hull_perimeter,
    paddle_stock,
    tube_stretch,
    widest,
    worked_length,
)
from jamreel.core.interlace.bindings import Binding, stacked_longer, twisted_left
from jamreel.core.interlace.braid.geometry import BeadedBraid, PlainBraid, strand_of
from jamreel.core.interlace.coil_mesh.geometry import Mesh
from jamreel.core.interlace.cord.geometry import KNOT_TIGHT, larks_head, least_insert
from jamreel.core.interlace.cord.part import Cord
from jamreel.core.interlace.flat_plait.geometry import Lacing, Plait, wavy, width_by_rule
from jamreel.core.interlace.hex_stack import Pile, hull_of, rows_of_pile
from jamreel.core.interlace.relax import settled
from jamreel.core.interlace.space import length_of
from jamreel.core.interlace.stone_cage.geometry import (
    Cage,
    bail_tail,
    least_lip,
    neck_turn,
    oval_girth,
    pear_girth,
    strands_to_cover,
)
from jamreel.core.path.coils import row_hull
from jamreel.core.path.moves import developed_length
from jamreel.core.wire.metals import metals
from jamreel.core.wire.sections import Flat, HalfRound, Round, twist_take_up
from tests.core.clearance import clearance

DATA = Path(__file__).parents[1] / "data" / "weaves"
ROWS = [
    row
    for row in csv.DictReader((DATA / "tightened.csv").read_text().splitlines())
    # A width that is measured has to be told.
    if row["technique"] in ("5", "7", "12") and not row["case"].endswith("W measured")
]
TWO = 0.0051
COPPER = Wire(1.0, "1 mm", metals()["copper"], "half_hard", 210.0)


def near(value: float) -> object:
    """To two decimals, as the tables give them."""
    return pytest.approx(value, abs=TWO)


# --- lengths of tightened wires


def braid(case: str, quantity: str) -> float:
    if "beads" in case:
        bead, strand, gap = map(
            float, re.findall(r"beads (\d) in the middle, d=([\d.]+), gap ([\d.]+)", case)[0]
        )
        return sum(BeadedBraid(bead, strand, gap).takes)
    one = PlainBraid(1.0, float(re.findall(r"crossings in ([\d.]+)", case)[0]))
    return one.width if quantity == "width" else one.pitch * one.take_up


def plait(case: str, quantity: str) -> float:
    strands, loop = re.findall(r"plait of (\d+), d=1, loop pitch ([\d.]+)", case)[0]
    by_rule = width_by_rule(int(strands), 1.0, float(loop))
    if quantity == "ideal width":
        return by_rule
    measured = re.findall(r"W measured ([\d.]+)", case)
    width = float(measured[0]) if measured else by_rule
    return Plait(int(strands), 1.0, float(loop), width).take_up


def cord(case: str, quantity: str) -> float:
    if case.startswith("overhand"):
        return KNOT_TIGHT
    if case.startswith("doubled"):
        # From the ring's axis straight down, twice.
        return 2 * 18 + larks_head(6, 1.5)
    return larks_head(float(re.findall(r"ring ([\d.]+) thick", case)[0]), 1.0)


SUMS: dict[str, Callable[[str, str], float]] = {"5": braid, "7": plait, "12": cord}


@pytest.mark.parametrize("row", ROWS, ids=[f"{r['technique']}: {r['case']}" for r in ROWS])
def test_sums_are_as_near_to_tightened_wires_as_they_are_said_to_be(row: dict[str, str]) -> None:
    case, tight, error = row["case"], float(row["tightened_mm"]), float(row["error_percent"])
    got = SUMS[row["technique"]](case, row["quantity"])
    # 0.04: widths of plaits are rounded to hundredths.
    assert 100 * abs(got / tight - 1) <= abs(error) + 0.04


def long(name: str, wire: str = "a") -> float:
    return length_of(np.load(DATA / f"{name}.npz")[wire])


def closed(name: str) -> float:
    """A kept middle line with the chord that leads to where it begins again."""
    curve = np.load(DATA / f"{name}.npz")
    again = curve["a"][0] + [float(curve["p"]), 0.0, 0.0]
    return long(name) + float(np.linalg.norm(again - curve["a"][-1]))


def test_kept_middle_lines_of_braids_are_as_long_as_the_sums() -> None:
    for pitch in (8, 14):
        one = PlainBraid(1.0, pitch)
        assert closed(f"braid3_{pitch}") == pytest.approx(pitch * one.take_up, rel=0.002)


def test_a_braid_pulled_tight_here_comes_out_like_the_one_kept() -> None:
    for pitch in (8, 14):
        cell = settled(PlainBraid(1.0, pitch).cell())
        assert cell.length_of("working") / 3 == pytest.approx(closed(f"braid3_{pitch}"), rel=0.01)
        assert clearance(cell) > 0.985


def test_a_plait_pulled_tight_here_comes_out_like_the_one_kept() -> None:
    for loop, wide in ((3, 8.00), (4, 7.92)):
        one = Plait(8, 1.0, loop, wide)
        cell = settled(one.cell())
        a_strand = cell.length_of("working") / 8
        assert a_strand == pytest.approx(closed(f"plait_8_{loop}"), rel=0.015)
        assert clearance(cell) > 0.985


# Ropelength of the tightest closed trefoil, from memory.
TREFOIL = 16.37


def test_a_knot_that_is_closed_is_no_shorter_than_the_tightest_trefoil() -> None:
    ends = np.load(DATA / "overhand.npz")["a"][[0, -1]]
    apart = float(np.linalg.norm(ends[1] - ends[0]))
    # What the knot takes is what the line is longer than its ends are apart.
    assert long("overhand") - apart == pytest.approx(KNOT_TIGHT, abs=0.02)
    # Closed by the straight way back it is a trefoil.
    assert long("overhand") + apart > TREFOIL
    # As a cord is cut, each strand has its knot, and tied by hand none is as tight as that.
    plain, knotted = (cut_of(Cord(knots=n)) for n in (0, 1))
    assert (knotted - plain) / 2 / 1.5 > KNOT_TIGHT


def cut_of(part: Cord) -> float:
    (use,) = part.make(Palette(COPPER)).wires
    return sum(developed_length(moves, use.wire.bend_adds) for _, moves in use.stretches)


# --- against SciPy and Shapely


def half_arc(x: float, steep: float) -> float:
    return math.hypot(1, steep * math.cos(math.pi * x))


def test_a_wavy_line_against_its_arc_length() -> None:
    for height, half in ((0.4, 1.2), (0.5, 0.6), (0.2, 3.0)):
        # Its slope is pi h / q cos(pi x / q), x in shares of a half wave.
        arc = quad(half_arc, 0, 1, args=(math.pi * height / half,))[0] * half
        assert wavy(height, half) == pytest.approx(arc / half, rel=1e-9)


def test_hulls_of_rows_and_piles_against_shapely() -> None:
    def hull(places: list[tuple[float, float]], d: float) -> float:
        discs = [Point(x, y).buffer(d / 2, 128) for x, y in places]
        points = [xy for one in discs for xy in one.exterior.coords]
        return float(MultiPoint(points).convex_hull.length)

    for count in (2, 5, 9):
        assert row_hull(count, 0.8) == pytest.approx(
            hull([(n * 0.8, 0.0) for n in range(count)], 0.8), rel=1e-3
        )
    for wires in (3, 5, 7, 12, 19):
        rows = rows_of_pile(wires)
        assert sum(rows) == wires
        places = [
            (x - (count - 1) / 2, j * math.sqrt(3) / 2)
            for j, count in enumerate(rows)
            for x in range(count)
        ]
        assert hull_of(wires, 1.0) == pytest.approx(hull(places, 1.0), rel=0.04)


def test_girths_of_stones_against_their_outlines() -> None:
    for length, width in ((30, 22), (40, 12), (80, 8)):
        a, b = length / 2, width / 2
        arc = quad(lambda t, a=a, b=b: math.hypot(a * math.sin(t), b * math.cos(t)), 0, math.tau)[0]
        assert oval_girth(length, width) == pytest.approx(arc, rel=1e-8)
    pear = MultiPoint([*Point(0, 0).buffer(10, 256).exterior.coords, (20, 0)]).convex_hull
    assert pear_girth(30, 20) == pytest.approx(float(pear.length), rel=1e-4)


# --- worked examples


def test_a_plain_braid() -> None:
    one = PlainBraid(1.0, 9.0)
    assert (one.take_up, one.width, one.thickness) == (near(1.24), near(2.90), near(2.00))
    assert 180 * one.take_up == near(223.57)
    assert 3 * 180 * one.take_up == near(670.70)


def test_a_braid_with_beads() -> None:
    one = BeadedBraid(6, 0.8, 1.6)
    a_bead = sum(one.takes)
    assert (one.pitch, a_bead, one.width) == (near(7.60), near(8.51), near(7.60))
    beads = math.floor(160 / one.pitch)
    assert beads == 21
    assert beads * a_bead == near(178.67)
    assert a_bead / one.pitch == near(1.12)
    assert strand_of(3, 0.5) == near(1.08)


def test_a_plait_of_eight_measured_and_one_of_twelve_by_rule() -> None:
    eight = Plait(8, 0.8, 2.0, 6.4)
    assert (eight.take_up, eight.thickness) == (near(1.50), near(1.60))
    assert 170 * eight.take_up == near(254.69)
    assert 8 * 170 * eight.take_up == near(2037.51)
    assert math.degrees(eight.angle) == near(34.99)
    assert 170 / eight.loop == near(85.00)
    width = width_by_rule(12, 0.6, 1.6)
    assert width == near(7.20)
    twelve = Plait(12, 0.6, 1.6, width)
    assert (twelve.take_up, 165 * twelve.take_up) == (near(1.46), near(241.27))
    assert math.degrees(twelve.angle) == near(34.51)
    lacing = Lacing(width, 0.6, 1.6, 0.5, 1)
    a_mm = [lacing.crossing(both=both) / lacing.advance for both in (False, True)]
    assert a_mm == [near(5.74), near(5.32)]


def test_a_coil_mesh() -> None:
    screwed, rods = Mesh(5, 0.8, 5, 1.8, 0, 2.4), Mesh(5, 0.8, 5, 1.8, 2, 2.4)
    one = Mesh(1, 0.8, 5, 1.8, 0, 2.4)
    assert (one.width, screwed.width, rods.width) == (near(9.00), near(38.59), near(30.59))
    assert Mesh(5, 0.8, 5, 1.8).width == near(26.60)
    assert Mesh(5, 0.8, 5, 1.8, 2).width == near(18.60)
    assert 160 / 1.8 * screwed.turn == near(1627.55)
    assert 5 * 160 / 1.8 * screwed.turn == near(8137.75)
    assert screwed.held == near(6.92)


def test_caps_from_tube() -> None:
    strip = Flat(width=10, thickness=2.4)
    assert bore_for(strip, 0.1) == near(7.44)
    assert 100 * tube_stretch(7, hull_perimeter(strip) + 2 * math.pi * 0.1) == near(6.26)
    square = Flat(width=10, thickness=2.4, edges="sharp")
    assert bore_for(square, 0.1) == near(8.09)
    assert 100 * tube_stretch(7, hull_perimeter(square) + 2 * math.pi * 0.1) == near(15.63)


SQUARE = (26.42, 31.96, 37.52, 43.09, 48.67, 54.26, 59.84, 65.43, 71.03, 76.62, 82.21)
ROUND = (23.71, 29.23, 34.79, 40.36, 45.93, 51.52, 57.10, 62.69, 68.28, 73.87, 79.47)


@pytest.mark.parametrize("strands", range(2, 13))
def test_bindings_of_two_to_twelve_strands(strands: int) -> None:
    over = HalfRound(flat=1.0)
    assert Binding(strands, 0.8, over, 4, square=True).cut == near(SQUARE[strands - 2])
    assert Binding(strands, 0.8, over, 4).cut == near(ROUND[strands - 2])


def test_bindings_and_twists_of_the_tables() -> None:
    over = HalfRound(flat=1.0)
    six = Binding(6, 0.8, over, 4, square=True)
    assert (over.neutral_offset, six.hull, six.cut, six.band) == (
        near(0.21),
        near(11.20),
        near(48.67),
        near(4.00),
    )
    assert Binding(5, 1.0, Round(diameter=0.4), 4).cut == near(48.62)
    assert 200 / twisted_left(1.0, 100) == near(206.47)
    assert twisted_left(1.0, 100, kappa=0.0) == 1.0
    assert stacked_longer(1.0) == near(6.28)
    assert twist_take_up(2, 0.8, 1000 / 150) == near(1.07)


def test_wound_rings() -> None:
    assert [rows_of_pile(n) for n in (5, 7, 12, 19)] == [
        (3, 2),
        (2, 3, 2),
        (3, 4, 3, 2),
        (3, 4, 5, 4, 3),
    ]
    seven = Pile(7, 1.0, 17.0)
    assert (seven.takes + 60, seven.hull, seven.outside) == (near(493.93), near(9.14), near(22.46))
    assert seven.bound(3, 4, 0.5) / 3 == near(48.25)
    assert seven.takes + 60 + seven.bound(3, 4, 0.5) == near(638.69)
    twelve = Pile(12, 0.8, 18.0)
    assert (twelve.takes + 50, twelve.hull, twelve.outside) == (
        near(828.39),
        near(9.71),
        near(23.76),
    )
    assert twelve.bound(2, 6, 0.4) / 2 == near(71.35)
    assert twelve.takes + 50 + twelve.bound(2, 6, 0.4) == near(971.09)


def test_stone_cages() -> None:
    one = Cage(82, 9, 0.8, 60)
    assert (one.around, one.cut(), 9 * one.cut()) == (near(84.51), near(204.51), near(1840.62))
    assert one.marks()[:3] == (near(60.00), near(81.13), near(102.26))
    binding = Binding(9, 0.8, HalfRound(flat=0.8), 4, square=True)
    assert (binding.cut, 3 * binding.cut) == (near(64.33), near(193.00))
    assert neck_turn(9, 0.8, 0.8, HalfRound(flat=0.8).neutral_offset) == near(18.68)
    assert bail_tail(6, 5, 0.8) == near(30.22)
    assert strands_to_cover(5, 0.8) == 9
    assert least_lip(0.15, 0.8) == near(0.70)
    two = Cage(110, 9, 1.0, 75, pulls=8, base=4.0, lip=0.9)
    assert (two.around, two.cut(), 9 * two.cut()) == (near(113.14), near(264.74), near(2382.67))
    assert two.marks()[:2] == (near(75.80), near(104.09))
    five = Binding(9, 1.0, HalfRound(flat=1.0), 5, square=True)
    assert (five.cut, 5 * five.cut) == (near(101.77), near(508.86))
    assert neck_turn(9, 1.0, 1.0, HalfRound(flat=1.0).neutral_offset) == near(23.35)
    assert bail_tail(8, 6, 1.0) == near(37.99)
    assert (strands_to_cover(7, 1.0), least_lip(0.2, 1.0)) == (9, near(0.90))


def test_cords() -> None:
    assert larks_head(6, 1.5) == near(45.72)
    # As the part is cut: from the mouth of the cord end to the inside of the ring.
    one = Cord(along=220 - 12 + 3, hangs_on=6, thick=1.5, insert=6)
    assert (cut_of(one), 2 * cut_of(one)) == (near(473.72), near(947.44))
    assert larks_head(4, 1.0) == near(30.48)
    assert cut_of(Cord(along=192, hangs_on=4, thick=1.0, insert=5, knots=3)) == near(492.48)
    assert near(15.23) == KNOT_TIGHT * 1.5
    assert (least_insert(1.5), least_insert(3.0)) == (4.0, 6.0)
    with pytest.raises(ValueError, match="thinner"):
        larks_head(0.7, 1.5)


def test_rolled_and_forged_bars() -> None:
    bar = math.pi * 2.0**2 / 4
    rounded, square = Flat(width=3.0, thickness=0.9), Flat(width=3, thickness=0.9, edges="sharp")
    assert worked_length(100, bar, rounded.area) == near(124.36)
    assert worked_length(100, bar, square.area) == near(116.36)
    assert widest(bar, 0.9) == near(3.68)
    assert 100 * (1 - rounded.area / bar) == near(19.59)
    assert paddle_stock(2.0, 4.0, 0.7, 8, taper=5) == near(12.29)
    assert paddle_stock(2.0, 4.0, 0.7, 8) == near(6.86)
    assert widest(bar, 0.7) == near(4.64)
    assert paddle_stock(1.5, 3.0, 0.5, 6, taper=3) == near(8.12)
    # As wide as it goes its length does not change; the taper is what lies between, by quadrature.
    assert worked_length(100, bar, Flat(width=widest(bar, 0.9), thickness=0.9).area) == near(100)
    taper = quad(tapered, 0, 1, args=(2.0, 4.0, 0.7))[0] * 5 / bar
    assert paddle_stock(2.0, 4.0, 0.7, 8, 5) - paddle_stock(2.0, 4.0, 0.7, 8) == near(taper)


def tapered(share: float, bar: float, width: float, thick: float) -> float:
    """Area of a straight taper from round to a strip with round edges."""
    w, t = bar + share * (width - bar), bar + share * (thick - bar)
    return (w - t) * t + math.pi * t * t / 4
