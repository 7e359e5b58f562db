"""Woven, knotted and bound wire against figures from outside.

- ``tests/data/weaves``: own numerical tightening. Thick poly-lines made as short as contact allows,
  computed apart from the product; ``tightened.csv`` holds their lengths beside closed forms of
  then, with the error in %, the ``.npz`` files some of their middle lines.
- Open and crossed belts: Machinery's Handbook (approximate rules from memory); open belt by a hull.
- Worked examples: from the tables of the trade's formulas, each to two decimals.
"""

import csv
import math
import re
from collections.abc import Callable
from pathlib import Path

import numpy as np
import pytest
from shapely.geometry import MultiPoint, Point

from jamreel.core.forming.chosen import Wire
from jamreel.core.interlace.channel.part import Leg, nested_pitch
from jamreel.core.interlace.crossed_wrap.part import Repeat
from jamreel.core.interlace.frames import Frame
from jamreel.core.interlace.knot_row.geometry import (
    Knotted,
    both_bow,
    hollow_of_both,
    hollow_of_one,
    knot_takes,
    one_bows,
    row_width,
)
from jamreel.core.interlace.ladder.geometry import (
    LadderRow,
    between_bars,
    between_bars_in_front,
    covering_turns,
    in_front_thick,
    outer_end,
    row_pitch,
)
from jamreel.core.interlace.lattice.part import Beads
from jamreel.core.interlace.relax import settled
from jamreel.core.interlace.space import length_of
from jamreel.core.interlace.turns import crossed_belt, open_belt
from jamreel.core.path.coils import turn
from jamreel.core.path.moves import developed_length
from jamreel.core.wire.metals import metals
from tests.core.clearance import clearance

DATA = Path(__file__).parents[1] / "data" / "weaves"
ROWS = [
    row
    for row in csv.DictReader((DATA / "tightened.csv").read_text().splitlines())
    if row["technique"] in ("1", "2", "3", "4", "6")
]
TWO = 0.0051


def near(value: float) -> object:
    """To two decimals, as the tables give them."""
    return pytest.approx(value, abs=TWO)


# --- lengths of tightened wires


def numbers(case: str) -> dict[str, float]:
    """What a case names as ``name=value``."""
    return {key: float(value) for key, value in re.findall(r"(\w+) ?= ?([\d.]+)", case)}


def ladder(case: str) -> float:
    n = numbers(case)
    row = LadderRow((n["s"], n["s"]), 1.2, 0.4, int(n["n"]), (n["n"] + 1) * 0.4)
    return row.returning() if case.startswith("return") else row.restarting()


def channel(case: str) -> float:
    n = numbers(case)
    if case.startswith("belt"):
        return Leg(n["w"], n["d_c"], n["d_w"], 1).start_takes(1)
    leg = Leg(n["w"], n["d_c"], n["d_w"], int(n["n"]))
    return leg.row_takes(n["l"], n["p"])


def crossed(case: str) -> float:
    found = re.findall(r"(\d+) bars, outside (\d+), inner (\d+)", case)[0]
    bars, outside, inside = (int(x) for x in found)
    n = numbers(case)
    return Repeat(bars, n["S"], n["d_c"], n["d_w"], outside, max(inside, 1)).takes()


def knot(case: str) -> float:
    cores, core = (float(x) for x in re.findall(r"core (\d) x ([\d.]+)", case)[0])
    n = numbers(case)
    return knot_takes(2 * (cores - 1) * core + math.pi * core, n["d_w"], n["p"])


def knot_width(case: str) -> float:
    cores, core = (float(x) for x in re.findall(r"core (\d) x ([\d.]+)", case)[0])
    n = numbers(case)
    return row_width(cores * core, n["d_w"], n["p"])


def lattice(case: str) -> float:
    found = re.findall(r"beads (\d), base ([\d.]+), wire ([\d.]+), gap ([\d.]+), (\d) turn", case)
    if found:
        bead, base, wire, gap, turns = map(float, found[0])
        return Beads(bead, base, wire, gap).takes(turns)
    bead = float(case.split()[1].rstrip(","))
    beads = Beads(6, 0.8, 0.3, 1.2) if bead == 6 else Beads(4, 0.8, 0.25, 1.0)
    return beads.takes(1.5) + beads.takes(0.5)


SUMS: dict[str, Callable[[str], float]] = {
    "1": ladder,
    "2": channel,
    "3": crossed,
    "4": knot,
    "6": lattice,
}


@pytest.mark.parametrize("row", ROWS, ids=[f"{r['technique']}: {r['case']}" for r in ROWS])
def test_sums_are_as_near_to_tightened_wires_as_they_are_said_to_be(row: dict[str, str]) -> None:
    case, tight, error = row["case"], float(row["tightened_mm"]), float(row["error_percent"])
    if "bound" in row["quantity"]:
        found = re.findall(r"beads (\d), base ([\d.]+), wire ([\d.]+), gap ([\d.]+), (\d)", case)
        bead, base, wire, gap, turns = map(float, found[0])
        got = Beads(bead, base, wire, gap).bound(turns)
    elif row["quantity"] == "width":
        got = knot_width(case)
    else:
        got = SUMS[row["technique"]](case)
    # 0.02: both figures are rounded.
    assert 100 * abs(got / tight - 1) <= abs(error) + 0.02


def long(name: str, wire: str = "a") -> float:
    return length_of(np.load(DATA / f"{name}.npz")[wire])


@pytest.mark.parametrize("name", ["ladder_return_3_1", "ladder_return_3_2"])
def test_the_kept_middle_line_of_a_ladder_is_two_rows_long(name: str) -> None:
    curve = np.load(DATA / f"{name}.npz")
    turns = int(curve["n"])
    row = LadderRow((5.0, 5.0), 1.2, 0.4, turns, (turns + 1) * 0.4)
    assert float(curve["T"]) == pytest.approx(2 * row.pitch)
    assert long(name) == pytest.approx(2 * row.returning(), rel=0.005)


def test_kept_middle_lines_of_wraps_and_lattices_are_as_long_as_the_sums() -> None:
    for name in ("cross_2_1_0_1_0.3_4", "cross_2_1_0_1_0.4_1.45", "cross_3_1_1_1_0.4_2"):
        curve = np.load(DATA / f"{name}.npz")
        bars = int(name.split("_")[1])
        repeat = Repeat(bars, float(curve["S"]), float(curve["dc"]), float(curve["dw"]))
        assert repeat.pitch == pytest.approx(float(curve["p"]))
        # Chords of the tightest one are the coarsest.
        assert long(name) == pytest.approx(repeat.takes(), rel=0.01)
    assert long("lattice_6_0.8_0.3_1.2_1") == pytest.approx(
        Beads(6, 0.8, 0.3, 1.2).takes(1), rel=0.005
    )


def test_a_knot_pulled_tight_here_comes_out_like_the_one_kept() -> None:
    curve = np.load(DATA / "sq_f2x2_4.0.npz")
    kept = (long("sq_f2x2_4.0") + long("sq_f2x2_4.0", "b")) / 2
    cell = settled(Knotted(2, 2.0, 1.0, float(curve["p"])).cell())
    lines = [one.length for one in cell.strands if one.role == "working"]
    assert sum(lines) / 2 == pytest.approx(kept, rel=0.02)
    assert clearance(cell) > 0.985


def test_crossed_wraps_packed_close_settle_to_what_was_tightened_elsewhere() -> None:
    curve = np.load(DATA / "cross_2_3_0_1_0.4_2.npz")
    repeat = Repeat(2, float(curve["S"]), float(curve["dc"]), float(curve["dw"]), 3)
    cell = settled(repeat.cell())
    assert cell.length_of("working") == pytest.approx(long("cross_2_3_0_1_0.4_2"), rel=0.03)
    assert cell.length_of("working") > repeat.takes()


# --- belts


def test_belts_against_machinerys_handbook() -> None:
    # From memory: open 2 C + pi (D + d) / 2 + (D - d)^2 / 4 C; crossed with (D + d)^2 / 4 C.
    for apart, radius in ((3.0, 0.7), (10.0, 1.0), (40.0, 2.5)):
        d = 2 * radius
        assert open_belt(apart, radius) == pytest.approx(2 * apart + math.pi * (d + d) / 2)
        rule = 2 * apart + math.pi * (d + d) / 2 + (d + d) ** 2 / (4 * apart)
        # The rule leaves out powers of r / S.
        assert crossed_belt(apart, radius) == pytest.approx(rule, rel=0.002 + (radius / apart) ** 4)
        # Exact: 2 C cos f + (D + d)/2 (pi + 2 f), sin f = (D + d) / 2 C.
        f = math.asin((d + d) / (2 * apart))
        exact = 2 * apart * math.cos(f) + (d + d) / 2 * (math.pi + 2 * f)
        assert crossed_belt(apart, radius) == pytest.approx(exact, rel=1e-12)


def test_an_open_belt_is_the_hull_of_its_pulleys() -> None:
    discs = [Point(0, 0).buffer(0.7, 256), Point(3, 0).buffer(0.7, 256)]
    hull = MultiPoint([xy for one in discs for xy in one.exterior.coords]).convex_hull
    assert open_belt(3.0, 0.7) == pytest.approx(hull.length, rel=1e-4)


def test_belts_of_the_tables() -> None:
    assert open_belt(3, 0.7) == near(10.40)
    assert crossed_belt(3, 0.7) == near(11.06)


# --- worked examples


def test_a_ladder_that_is_returned() -> None:
    apart = between_bars(4, 1.2, 0.4)
    pitch = row_pitch(3, 0.4, 4)
    row = LadderRow((apart,) * 3, 1.2, 0.4, 3, pitch)
    assert (apart, pitch) == (near(6.00), near(4.00))
    assert row.returning() == near(82.85)
    rows = math.floor(150 / pitch)
    assert rows == 37
    # Rows without their tails: the sum is rounded once, at the end.
    assert rows * row.returning() == pytest.approx(3065.35, abs=0.01)
    assert row.places[-1] - row.places[0] + 1.2 + 2 * 0.4 == near(20.00)
    assert in_front_thick(1.2, 0.4, 4) == near(4.00)
    assert rows * 3 == 111
    assert covering_turns(4, 0.4) == 9
    end = outer_end(1.0, 1.2, apart, 3)
    assert end == near(29.65)
    assert 150 + 2 * end == near(209.30)


def test_a_ladder_that_is_restarted() -> None:
    apart = between_bars(3, 1.5, 0.5)
    pitch = row_pitch(2, 0.5, 3)
    row = LadderRow((apart,) * 2, 1.5, 0.5, 2, pitch)
    assert (apart, pitch) == (near(5.50), near(3.00))
    assert row.restarting() == near(66.40)
    assert math.floor(160 / pitch) * row.restarting() == pytest.approx(3519.05, abs=0.01)
    assert row.places[-1] - row.places[0] + 1.5 + 2 * 0.5 == near(13.50)
    assert in_front_thick(1.5, 0.5, 3) == near(3.75)
    assert between_bars_in_front(3, 1.5, 0.5) == near(5.12)


def framed(bar: float, leg: float, width: float, corner: float | None = None) -> float:
    """A frame's wire without the eyes of its legs, pi (D + d) each."""
    wire = Wire(bar, f"{bar:g} mm", metals()["copper"], "half_hard", 210.0)
    use = Frame(wire, 3.0, width, corner).use("frame", leg)
    whole = sum(developed_length(moves, bar) for _, moves in use.stretches)
    return whole - 2 * math.pi * (3.0 + bar)


def test_a_channel_with_rows_by_turns() -> None:
    leg = Leg(12.5, 1.2, 0.3, 3)
    of_two, of_three = leg.row_takes(8, 4), leg.row_takes(12, 4)
    assert (of_two, of_three) == (near(52.11), near(53.03))
    assert 19 * of_three + 18 * of_two == pytest.approx(1945.61, abs=0.01)
    assert framed(1.2, 150, 12.5) == near(321.52)
    assert leg.start_takes(3) == near(96.85)


def test_a_channel_with_a_square_bow() -> None:
    leg = Leg(6.5, 1.0, 0.4, 6)
    row = leg.row_takes(6, 3)
    assert row == near(64.48)
    assert math.floor(140 / 3) * row == pytest.approx(2966.25, abs=0.01)
    assert framed(1.0, 140, 6.5, corner=1.0) == near(289.21)
    assert nested_pitch(4, 4) == near(3.46)


def test_crossed_wraps_on_two_bars_and_on_three() -> None:
    two = Repeat(2, 4.2, 1.2, 0.3)
    assert (two.takes(), two.pitch) == (near(13.67), near(0.60))
    assert two.takes() / two.pitch == near(22.78)
    repeats = math.floor(60 / two.pitch + 1e-9)
    assert repeats == 100
    assert repeats * two.takes() == pytest.approx(1366.92, abs=0.01)
    three = Repeat(3, 3.0, 1.0, 0.4, 2, 1)
    assert (three.takes(), three.pitch) == (near(26.61), near(0.80))
    assert three.takes() / three.pitch == near(33.27)
    assert math.floor(80 / three.pitch) * three.takes() == pytest.approx(2661.22, abs=0.01)
    assert (three.places[-1] - three.places[0]) + 1.0 + 2 * 0.4 == near(7.80)


def test_a_straight_row_of_knots() -> None:
    hull = 2 * 1.0 + math.pi
    assert hull == near(5.14)
    each = knot_takes(hull, 0.5, 2.0)
    assert each == near(11.01)
    assert 80 * each == near(880.99)
    assert 160 * each == near(1761.98)
    assert row_width(2.0, 0.5, 2.0) == near(4.00)


def test_rows_of_knots_that_bow() -> None:
    assert knot_takes(2 * 1.0 + math.pi, 0.4, 1.6) == near(9.84)
    width = row_width(2.0, 0.4, 1.6)
    assert width == near(3.60)
    hollow = hollow_of_both(12, 6, width)
    assert hollow == near(2.70)
    bow = both_bow(6, width, hollow)
    assert (bow.pitch, bow.arc) == (near(12.0), near(13.91))
    assert bow.arc / 1.6 == near(8.69)
    assert bow.knots(1.6) == 9
    # Thirteen beads: a straight row beside them, and a bowed one.
    assert 13 * bow.pitch / 1.6 == near(97.50)
    assert 13 * bow.knots(1.6) == 117
    one = one_bows(6, width, width / 2)
    assert (one.pitch, one.arc) == (near(13.15), near(19.53))
    assert hollow_of_one(one.pitch, 6, width) == pytest.approx(width / 2)


def test_a_lattice_over_beads() -> None:
    beads = Beads(6, 0.8, 0.3, 1.2)
    assert (beads.takes(1), beads.bound(1)) == (near(11.81), near(12.74))
    assert 22 * beads.takes(1) == near(259.92)
    assert 22 * 8 * beads.takes(1) == pytest.approx(2079.35, abs=0.02)
    big = Beads(8, 1.0, 0.4, 2.4)
    assert (big.takes(1.25), big.bound(1.25)) == (near(16.97), near(18.46))
    assert 17 * big.takes(1.25) == pytest.approx(288.41, abs=0.01)
    assert (beads.takes(1.5), beads.takes(0.5)) == (near(13.47), near(10.24))
    assert (beads.takes(1.5) + beads.takes(0.5)) / 2 == near(11.86)


def test_a_turn_is_a_helix_by_its_chords() -> None:
    t = np.linspace(0, 2 * math.pi, 4001)
    line = np.column_stack([0.8 * np.cos(t), 0.8 * np.sin(t), 0.4 * t / (2 * math.pi)])
    assert turn(1.2, 0.4, 0.4) == pytest.approx(length_of(line), rel=1e-6)
