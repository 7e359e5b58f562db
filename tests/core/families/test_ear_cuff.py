import math

import pytest

from tests.core.families import advice, example, figure, girths, loop, planned, steps, tried

D16 = 0.127 * 92 ** (20 / 39)
BRIEF = {
    **example("ear_cuff"),
    "measures": girths(ear_rim_depth=7.4, ear_rim_middle=3.6, ear_rim_upper=2.8),
}


def test_one_ring_on_paper() -> None:
    plan = planned(BRIEF, roomier=1.8, grip=0.65)
    inner, gap = 7.4 + 1.8, 0.65 * 3.6
    assert figure(plan, "ear_inner") == pytest.approx(inner)
    assert figure(plan, "ear_gap") == pytest.approx(gap)
    assert figure(plan, "cut") == pytest.approx(math.pi * (inner + D16) - gap + 3)


def test_two_rings_climb_by_a_wire_each() -> None:
    one = math.hypot(math.pi * (8.9 + D16), D16)
    plan = planned(BRIEF, rings="2")
    assert figure(plan, "centre_line") == pytest.approx(2 * one - 0.7 * 3.6)


def test_ends_take_their_wire() -> None:
    filed = figure(planned(BRIEF), "cut")
    curled = figure(planned(BRIEF, ends="curled"), "cut")
    assert curled - filed == pytest.approx(2 * loop(1.5 * D16, D16, 0.75))
    balled = figure(planned(BRIEF, ends="balled"), "cut")
    # Two balls of twice the wire's thickness: volumes are equal.
    each = (4 / 3 * math.pi * D16**3) / (math.pi * D16**2 / 4)
    assert balled - filed == pytest.approx(2 * each)


def test_it_goes_on_where_the_rim_is_thinnest() -> None:
    says = next(s.says for s in planned(BRIEF).steps if s.id == "try_on")
    assert "upper ear rim" in says
    assert "slide it to its middle" in says
    only = {**BRIEF, "measures": girths(ear_rim_depth=7.4, ear_rim_middle=3.6)}
    assert "middle ear rim" in next(s.says for s in planned(only).steps if s.id == "try_on")


def test_grip_is_judged_by_the_usual_share() -> None:
    assert "ear_pinches" in advice(planned(BRIEF, grip=0.5))
    assert "ear_loose" in advice(planned(BRIEF, grip=0.9))
    assert not {"ear_pinches", "ear_loose"} & set(advice(planned(BRIEF, grip=0.62)))


def test_a_cuff_that_numbs_comes_off() -> None:
    caution = next(c for c in planned(BRIEF).cautions if c.id == "ear")
    assert "whitens or numbs" in caution.says
    assert "try_on" in caution.steps
    assert "gap" in steps(planned(BRIEF))


def test_try_ons() -> None:
    assert tried(BRIEF, goes_on=False).verdict == "ear_stuck"
    assert tried(BRIEF, comfortable=False).verdict == "ear_open"
    assert tried(BRIEF, stays_on=False).verdict == "ear_close"


def test_the_ring_is_drawn_open_at_the_groove_by_its_gap() -> None:
    section = planned(BRIEF).drawings.sheets[0]
    ring = next(s for s in section.strokes if s.width_mm > 0)
    (x1, y1), (x2, y2) = ring.points[0], ring.points[-1]
    assert x1 == pytest.approx(x2, abs=0.02)
    assert abs(y1 - y2) == pytest.approx(0.7 * 3.6, abs=0.05)
    assert x1 < 0
