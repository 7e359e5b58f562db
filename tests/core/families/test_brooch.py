import math

import numpy as np
import pytest

from jamreel.core.plan import BriefRefused
from tests.core.families import example, figure, planned, tried

BRIEF = example("brooch")


def test_a_line_as_long_as_it_has_to_be_falls_as_chosen() -> None:
    chain = [
        {
            "id": "c",
            "fill": True,
            "part": {"kind": "chain", "pitch": "1", "links": 40, "soldered": False},
        }
    ]
    plan = planned(BRIEF, points_apart="60", line_falls="20", entries=chain, counted=True)
    # To half a link of 1 mm.
    assert figure(plan, "fall_line") == pytest.approx(20, abs=0.7)
    long = figure(plan, "finished")
    # A parabola of the same sag: 100 / 2 + 60^2 / 160 ln (180 / 60), a little under a catenary.
    assert long == pytest.approx(50 + 22.5 * math.log(3), abs=1.0)
    assert any(need.label.startswith("bar") for need in plan.needs)


def test_the_lowest_strand_of_a_swag_hangs_below_the_line() -> None:
    plan = planned(BRIEF)
    line, low = figure(plan, "fall_line"), figure(plan, "fall_pendant")
    # Its two strands fall fourteen apart, from ends that lie a little below the bar.
    assert 14 < low - line < 20
    sheet = next(one for one in plan.drawings.sheets if one.id == "brooch")
    drawn = np.array([p for s in sheet.strokes if s.part != "bar" for p in s.points])
    assert -drawn[:, 1].min() == pytest.approx(low, abs=1.0)
    assert drawn[:, 0].max() - drawn[:, 0].min() == pytest.approx(46, abs=4)


def test_a_bar_takes_no_length_and_its_loops_do_not_open() -> None:
    plan = planned(BRIEF)
    assert {line.id for line in plan.ledger} >= {"leftring", "swag", "in_all"}
    assert "closure" not in {line.id for line in plan.ledger}
    bare = [{"part": {"kind": "chain", "links": 15, "pitch": "3.5"}}]
    with pytest.raises(BriefRefused, match="Neither bar with a pin nor bought chain opens"):
        planned(BRIEF, entries=bare)


def test_a_line_shorter_than_its_points_are_apart_is_told_and_drawn_straight() -> None:
    short = [{"part": {"kind": "chain", "links": 8, "pitch": "3.5", "soldered": False}}]
    plan = planned(BRIEF, entries=short)
    assert "make_up_short" in {one.id for one in plan.advice}
    assert figure(plan, "fall_line") < 2
    assert math.isfinite(figure(plan, "fall_line"))


def test_it_goes_by_no_measure_of_the_body() -> None:
    plan = planned(BRIEF)
    assert plan.fit_word == "free"
    assert "±" not in plan.fit_says
    # An earring neither.
    assert planned(example("drop_earring")).fit_word == "free"


def test_try_ons_and_nonsense() -> None:
    assert tried(BRIEF, comfortable=False).verdict == "lighter_brooch"
    assert tried(BRIEF, comfortable=True).settled
    with pytest.raises(BriefRefused) as refused:
        planned(BRIEF, points_apart="4")
    assert refused.value.problems[0].field == "piece.points_apart"
