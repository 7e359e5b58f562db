import math

import pytest

from jamreel.core.plan import BriefRefused
from tests.core.families import advice, example, figure, girths, ledger, loop, planned, steps, tried

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
    # The gap is clear along the inside; along the middle it is wider by (D + d) / D.
    middle = (math.pi * inner - gap) * (inner + D16) / inner
    assert figure(plan, "cut") == pytest.approx(middle + 3)
    assert ledger(plan, "less_ear_gap") == pytest.approx(-gap)
    assert ledger(plan, "less_ear_filed") == pytest.approx(-gap * D16 / inner)


def test_two_rings_climb_by_a_wire_each() -> None:
    one = math.hypot(math.pi * (8.9 + D16), D16)
    plan = planned(BRIEF, rings="2")
    assert figure(plan, "centre_line") == pytest.approx(2 * one - 0.7 * 3.6 * (1 + D16 / 8.9))


def test_ends_take_their_wire() -> None:
    def ends(kind: str) -> float:
        plan = planned(BRIEF, ends=kind)
        return figure(plan, "cut") - figure(plan, "centre_line") - 3

    assert ends("filed") == pytest.approx(0)
    assert ends("curled") == pytest.approx(2 * loop(1.5 * D16, D16, 0.75))
    # Two balls of twice the wire's thickness: volumes are equal.
    each = (4 / 3 * math.pi * D16**3) / (math.pi * D16**2 / 4)
    assert ends("balled") == pytest.approx(2 * each)


@pytest.mark.parametrize(
    ("ends", "wide", "out", "beyond"), [("balled", 2.0, 0.0, 1.0), ("curled", 3.5, 1.25, 0.0)]
)
def test_the_gap_is_clear_between_the_ends_as_they_are(
    ends: str, wide: float, out: float, beyond: float
) -> None:
    """Set both ends down by their coordinates and measure what is free between their rims."""
    plan = planned(BRIEF, ends=ends)
    inner, gap = figure(plan, "ear_inner"), figure(plan, "ear_gap")
    middle = (inner + D16) / 2
    open_half = math.pi - figure(plan, "centre_line") / (2 * middle)
    at = open_half - beyond * D16 / middle
    radius = middle + out * D16
    up, down = ((radius * math.cos(s * at), radius * math.sin(s * at)) for s in (1, -1))
    assert math.dist(up, down) - wide * D16 == pytest.approx(gap)
    assert gap == pytest.approx(0.7 * 3.6)
    drawn = next(d for d in plan.drawings.sheets[0].dimensions if d.label == "clear gap")
    assert drawn.value_mm == pytest.approx(gap)
    says = next(s.says for s in plan.steps if s.id == "gap")
    assert f"{gap:.1f} mm" in says


@pytest.mark.parametrize(
    ("own", "rim", "key"), [({}, 9.0, "ear_rim_thick"), ({"ends": "balled"}, 6.0, "ear_ends_meet")]
)
def test_a_rim_that_leaves_no_ring_is_refused(own: dict[str, str], rim: float, key: str) -> None:
    thick = {**BRIEF, "measures": girths(ear_rim_depth=3.5, ear_rim_middle=rim)}
    with pytest.raises(BriefRefused) as refused:
        planned(thick, grip=0.9, **own)
    (problem,) = refused.value.problems
    assert (problem.field, problem.key) == ("measures.ear_rim_middle", key)
    assert f"{0.9 * rim:.1f} mm" in problem.says


@pytest.mark.parametrize("metal", ["titanium", "brass", "gold_filled"])
def test_a_metal_that_does_not_ball_is_refused_by_name(metal: str) -> None:
    wire = {"size": "18 awg", "metal": metal, "temper": "dead_soft"}
    assert planned({**BRIEF, "wire": wire}, ends="curled").cuts
    with pytest.raises(BriefRefused) as refused:
        planned({**BRIEF, "wire": wire}, ends="balled")
    (problem,) = refused.value.problems
    assert (problem.field, problem.key) == ("piece.ends", "cant_ball")


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
    # Drawn along the middle of the wire, where the clear gap is wider.
    inner = figure(planned(BRIEF), "ear_inner")
    half = 0.7 * 3.6 / inner
    assert abs(y1 - y2) == pytest.approx((inner + D16) * math.sin(half), abs=0.03)
    assert x1 < 0
