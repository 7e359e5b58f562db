"""Parts against figures from outside: standards, workshop tables, what makers report.

- Shigley's Mechanical Engineering Design, helical springs: mean coil diameter D + d, wire length
  pi (D + d) a turn on it. (Figures worked here by hand; the book's notation from memory.)
- DIN 6935, cold bending of flat steel: neutral axis factor k = 0.65 + log10(r / t) / 2, at most 1;
  its table gives k for r / t of 1, 2, 3 and 5.
- Graham 1968 and others: smallest circles round k equal circles.
- Common practice, no source: rolling a trial loop, sample coils, broad hooks.
"""

import math

import pytest

from jamreel.core.closures.broad_hook import BroadHook
from jamreel.core.closures.spring_clasp import SpringClasp
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.palette import Palette
from jamreel.core.forming.strength import grams_of, opening_force
from jamreel.core.parts.jump_ring import JumpRing
from jamreel.core.path.coils import binding_length, row_hull
from jamreel.core.path.loops import loop_takes, wrapped_loop_reach
from jamreel.core.path.moves import Wrap, corner_radius, developed_length
from jamreel.core.wire.holes import CIRCLES, hole_for
from jamreel.core.wire.metals import metals


def wire(d: float) -> Palette:
    return Palette(Wire(d, f"{d} mm", metals()["copper"], "half_hard", 210.0))


def test_loops_and_coils_on_the_mean_diameter() -> None:
    # Common practice, no source: makers unroll this loop and read about an inch.
    assert loop_takes(6.0, 2.05) == pytest.approx(25.29, abs=0.01)
    assert loop_takes(6.0, 2.05) == pytest.approx(25.4, abs=0.2)
    per_turn = developed_length([Wrap(turns=1, core=1.6)], 0.812)
    assert per_turn == pytest.approx(7.621, abs=5e-4)
    # A spring of ten turns at a pitch, mean diameter 8: ten hypotenuses of its unrolled turn.
    spring = developed_length([Wrap(turns=10, core=7, pitch=3)], 1.0)
    assert spring == pytest.approx(10 * math.hypot(8 * math.pi, 3))


def test_din_6935_neutral_axis() -> None:
    for ratio, k in ((1, 0.65), (2, 0.80), (3, 0.889), (5, 1.0)):
        t = 1.3
        found = (corner_radius(ratio * t, t) - ratio * t) / (t / 2)
        assert found == pytest.approx(k, abs=6e-4)
    # Past five thicknesses the neutral axis stays in the middle, where a bend on a pin has it.
    assert corner_radius(10, 1) == pytest.approx(10.5)


def test_a_wrapped_loop_by_hand() -> None:
    assert wrapped_loop_reach(2, 3, 0.812) == pytest.approx(1.624 + 3 + 0.812)
    wraps = developed_length([Wrap(turns=2, core=0.812)], 0.812)
    parts = (2 * 0.812, loop_takes(3, 0.812), wraps)
    assert parts == pytest.approx((1.62, 11.98, 10.33), abs=5e-3)


def test_binding_five_wires() -> None:
    assert row_hull(5, 1.0) == pytest.approx(11.14, abs=2e-3)
    # Half-round of 1.0 width: its centroid lies 0.424 r from the flat.
    extra = binding_length(1, row_hull(5, 1.0), 4 / (3 * math.pi) * 0.5, 0) - 11.1416
    assert extra == pytest.approx(1.33, abs=5e-3)


def test_broad_hook_and_catch_take_what_makers_take_off() -> None:
    # Common practice, no source: body = finished - 38 for 1.3 wire on 1/4 and 3/8 in dowels.
    assert BroadHook().make(wire(1.3)).length == pytest.approx(38, abs=1.5)


def test_a_hook_of_one_millimetre_copper_opens_at_ten_newtons() -> None:
    one = wire(1.0).body
    force = opening_force(one.moment, one.radius_on(6.0))
    assert force == pytest.approx(10.0, abs=5e-3)
    assert grams_of(force) == pytest.approx(1020, abs=1)
    assert opening_force(one.moment, 3.5, wires=2) == pytest.approx(20.0, abs=0.01)


def test_circles_in_a_circle() -> None:
    assert pytest.approx(CIRCLES, abs=6e-4) == (1, 2, 2.155, 2.414, 2.701, 3, 3)
    # Three touching circles by their triangle, four by their square.
    assert CIRCLES[2] == pytest.approx(1 + 2 / math.sqrt(3))
    assert CIRCLES[3] == pytest.approx(1 + math.sqrt(2))
    assert hole_for(2, 0.4) == pytest.approx(0.85)


def test_a_bought_clasp_adds_itself_and_two_rings() -> None:
    made = SpringClasp(clasp=12, ring_pin=4, extender=12).make(wire(0.8))
    # Its rings are as wide as their coil sprang: 0.8 copper at 210 off 4.
    assert made.length == pytest.approx(12 + 2 * 4.09, abs=0.01)


def test_rings_are_as_wide_as_their_coil_springs() -> None:
    """Common practice, no source: a 4 mm pin gives 4.16 in sterling, 4.27 in spring bronze."""
    for metal, temper, d, inside in (
        ("sterling", "half_hard", 0.9, 4.16),
        ("bronze", "spring", 0.9, 4.27),
    ):
        stuff = metals()[metal]
        one = Wire(d, f"{d} mm", stuff, temper, stuff.yields[temper])  # type: ignore[arg-type, index]
        made = JumpRing(pin=4).make(Palette(one))
        assert made.length == pytest.approx(inside, abs=0.05)
        assert made.ends is not None
        assert made.ends[0].inner == made.length
        turn = developed_length(made.wires[0].stretches[0][1], d)
        assert turn == pytest.approx(math.pi * (made.length + d))
