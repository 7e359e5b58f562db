"""What shows early of a piece, and the rest planned from there."""

import json
import math
from itertools import pairwise
from typing import Any

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from jamreel.core.errors import Refusal
from jamreel.core.families import registered
from jamreel.core.interlace.working import going_on
from jamreel.core.parts.so_far import SoFar
from jamreel.core.plan import BriefRefused, Plan, go_on_raw, plan_raw
from jamreel.core.result import GoneOn
from jamreel.core.shop import Shop
from jamreel.core.workpiece.records import Record
from tests.core.families import example


def links(count: int = 10) -> dict[str, Any]:
    brief = example("linked_bracelet")
    row = {"id": "e1", "part": {"kind": "linked_bead"}, "times": count, "fill": True}
    return {**brief, "piece": {**brief["piece"], "entries": [row], "counted": False}}


def ladder(**part: Any) -> dict[str, Any]:
    brief = example("linked_bracelet")
    row = {"id": "e1", "part": {"kind": "ladder", "bars": 4, **part}}
    return {**brief, "piece": {**brief["piece"], "entries": [row], "counted": True}}


def went(brief: dict[str, Any], done: tuple[Record, ...] = (), **told: Any) -> GoneOn:
    return go_on_raw(brief, Shop(), {"entry": "e1", **told}, done)


def then(brief: dict[str, Any], gone: GoneOn) -> dict[str, Any]:
    """The brief with what was found set in it, as it is kept."""
    found: dict[str, Any] = json.loads(json.dumps(brief))
    for edit in gone.edits:
        at: Any = found["piece"]
        for step in edit.path[:-1]:
            at = at[step]
        at[edit.path[-1]] = edit.value
    return found


def off(plan: Plan) -> float:
    return next((one.value_mm for one in plan.figures if one.id == "off_length"), 0.0)


@pytest.mark.parametrize("over", [60.0, 66.0, 72.0, 80.0])
def test_links_that_come_out_otherwise_change_how_many_are_made(over: float) -> None:
    brief = links()
    plan = plan_raw(brief, Shop())
    assert plan.finished_length_mm is not None
    gone = went(brief, count=4, over=f"{over}")
    assert gone.each_mm == over / 4
    assert gone.done == 4
    # Wanted is what the piece comes to less what it is off; the closure's share stays.
    body = next(one.value_mm for one in plan.figures if one.id == "body")
    closure = plan.finished_length_mm.value - body
    new = plan_raw(then(brief, gone), Shop())
    assert new.finished_length_mm is not None
    assert new.finished_length_mm.value == pytest.approx(gone.in_all * over / 4 + closure, abs=0.01)
    # No other count comes nearer.
    for other in (gone.in_all - 1, gone.in_all + 1):
        less = then(brief, gone)
        less["piece"]["entries"][0]["times"] = other
        assert off(plan_raw(less, Shop())) > off(new)


def test_never_fewer_than_are_made_already() -> None:
    gone = went(links(12), count=12, over="216")
    assert gone.in_all == 12
    assert "No more are needed" in " ".join(gone.says)


def test_rows_by_what_is_woven_and_the_wire_in_hand() -> None:
    brief = ladder()
    plan = plan_raw(brief, Shop())
    (body,) = plan.woven
    (wire,) = body.wires
    gone = went(brief, count=5, over="22", left="420")
    assert gone.each_mm == pytest.approx(4.4)
    new = plan_raw(then(brief, gone), Shop())
    (woven,) = new.woven
    assert woven.pitch_mm == pytest.approx(4.4)
    assert woven.rows == gone.in_all < body.rows
    # The first wire was cut for so many rows; what is not left of it went into five.
    first = next(one for one in plan.cuts if one.id == "e1/ladder_working")
    took = first.length_mm - 2 * 1.5 - wire.tails_mm + 5 + turns_fast(wire) - 420
    a_row = took / 5
    more = math.floor((420 - 5 - turns_fast(wire)) / a_row)
    assert gone.reaches == 5 + more
    assert gone.joins_after[0] == gone.reaches
    assert woven.wires[0].starts_after[:2] == (0, gone.reaches)
    # What is cut already stays as it was cut.
    kept = next(one for one in new.cuts if one.id == "e1/ladder_working")
    assert kept.length_mm == pytest.approx(first.length_mm, abs=0.01)


def turns_fast(wire: Any) -> float:
    """Wire of three turns that hold an end: both tails are 25 and 5 mm longer than them."""
    return float((wire.tails_mm - 25 - 5) / 2)


def test_wire_that_ran_out_joins_where_it_ended() -> None:
    gone = went(ladder(), count=7, over="28", happened="ran_out")
    assert gone.reaches == 7
    assert gone.joins_after[0] == 7
    assert "joins here" in " ".join(gone.says)


def test_a_lost_count_is_found_by_the_length() -> None:
    gone = went(ladder(), over="36.2", happened="lost_count")
    assert gone.done == 9
    assert "9 are made" in gone.says[0]
    assert went(links(), over="52", happened="lost_count").done == 3


def test_the_real_length_of_the_wire_counts() -> None:
    brief = ladder()
    cut = next(one for one in plan_raw(brief, Shop()).cuts if one.id == "e1/ladder_working")
    told: dict[str, Any] = {"count": 6, "over": "24", "left": "250"}
    usual = went(brief, **told)
    longer = Record(kind="cut", key="e1/ladder_working", actual=cut.length_mm + 120)
    more = went(brief, (longer,), **told)
    # The same is left of more: six rows took more of it, so that it goes less far.
    assert usual.reaches is not None
    assert more.reaches is not None
    assert more.reaches <= usual.reaches


def test_wires_that_are_cut_may_reach_for_fewer_only() -> None:
    brief = ladder()
    cuts = {one.id: one.length_mm for one in plan_raw(brief, Shop()).cuts}
    bars = tuple(
        Record(kind="cut", key=key, actual=long)
        for key, long in cuts.items()
        if key in ("e1/ladder_inner", "e1/ladder_outer")
    )
    gone = went(brief, bars, count=6, over="27.6")
    new = {one.id: one.length_mm for one in plan_raw(then(brief, gone), Shop()).cuts}
    longer = new["e1/ladder_inner"] - cuts["e1/ladder_inner"]
    fewer = math.ceil((longer - 0.5) / 4.6)
    assert fewer >= 1
    assert f"reach for {gone.in_all - fewer} in all" in gone.says[-1]
    # The maker may say so many.
    own = went(brief, bars, count=6, over="27.6", in_all=f"{gone.in_all - fewer}")
    assert own.in_all == gone.in_all - fewer
    assert "reach" not in own.says[-1]


def test_what_is_told_again_counts_from_the_first_plan() -> None:
    brief = ladder()
    once = then(brief, went(brief, count=6, over="27"))
    twice = went(once, count=20, over="82")
    assert twice.planned_each_mm == pytest.approx(4.0, abs=0.01)
    assert twice.each_mm == pytest.approx(4.1)
    steps = {one.id: one.says for one in plan_raw(once, Shop()).steps}
    rows = plan_raw(once, Shop()).woven[0].rows
    assert f"6 are made: {rows - 6} more, {rows} in all" in steps["e1/ladder_return"]


def test_groups_are_counted_by_their_repeats() -> None:
    brief = links()
    pair = [{"part": {"kind": "linked_bead"}}, {"part": {"kind": "jump_ring"}}]
    brief["piece"]["entries"] = [{"id": "e1", "group": pair, "times": 8, "fill": True}]
    plan = plan_raw(brief, Shop())
    body = next(one.value_mm for one in plan.figures if one.id == "body")
    gone = went(brief, count=2, over=f"{2.2 * body / 8}")
    assert gone.planned_each_mm == pytest.approx(body / 8, abs=0.01)
    assert gone.each_mm == pytest.approx(1.1 * body / 8, abs=0.01)
    assert gone.in_all < 8


def test_of_a_mirrored_make_up_one_half_is_told() -> None:
    brief = links()
    pair = [{"part": {"kind": "linked_bead"}}, {"part": {"kind": "jump_ring"}}]
    for own in ({"group": pair}, {"part": {"kind": "linked_bead"}}):
        entry = {"id": "e1", **own, "times": 4, "fill": True}
        one = {**brief["piece"], "entries": [entry]}
        each = went({**brief, "piece": one}, count=2, over="40").planned_each_mm
        both = {**one, "mirrored": True}
        gone = went({**brief, "piece": both}, count=2, over=f"{2 * each}")
        # One on each side is as long as one of a plain row, and counted once.
        assert gone.planned_each_mm == pytest.approx(each)
        assert gone.planned == 4
        assert "on each side" in gone.label


@pytest.mark.parametrize("in_all", ["1000000000", "401"])
def test_no_count_is_laid_out_that_no_piece_can_have(in_all: str) -> None:
    with pytest.raises(BriefRefused) as refused:
        went(links(), count=4, over="66", in_all=in_all)
    assert [one.field for one in refused.value.problems] == ["so_far.in_all"]
    with pytest.raises(BriefRefused) as refused:
        went(ladder(), count=4, over="16", in_all=in_all + "0")
    assert [one.field for one in refused.value.problems] == ["so_far.in_all"]
    with pytest.raises(BriefRefused) as refused:
        went(links(), over="90000000", happened="lost_count")
    assert refused.value.problems[0].field.startswith("so_far.")


@pytest.mark.parametrize(
    ("told", "field", "expected"),
    [
        ({"count": 4, "over": "20"}, "so_far.over", "67.5 mm"),
        ({"count": 0, "over": "20"}, "so_far.count", "1 or more"),
        ({"count": 4, "over": "0"}, "so_far.over", "more than nothing"),
        ({"count": "many", "over": "20"}, "so_far.count", ""),
        ({"count": 4, "over": "long"}, "so_far.over", ""),
        ({"entry": "e9", "count": 4, "over": "60"}, "so_far.entry", "row by row"),
        ({"count": 4, "over": "60", "happened": "fell"}, "so_far.happened", ""),
        ({"count": 4, "over": "66", "in_all": "3"}, "so_far.in_all", "4 or more"),
    ],
)
def test_what_can_not_be_so_is_refused_at_its_field(
    told: dict[str, Any], field: str, expected: str
) -> None:
    with pytest.raises(BriefRefused) as refused:
        went(links(), **told)
    (problem,) = refused.value.problems
    assert problem.field == field
    assert expected in f"{problem.says} {problem.expected}"


def test_more_left_than_there_was_is_refused() -> None:
    with pytest.raises(BriefRefused, match="Measure what is left again"):
        went(ladder(), count=7, over="28", left="1390")
    with pytest.raises(BriefRefused, match="Measure what is left again"):
        went(ladder(), count=2, over="8", left="50")


@pytest.mark.parametrize("kind", sorted(registered()))
def test_every_construction_answers_or_says_that_it_has_nothing_to_count(kind: str) -> None:
    told = {"entry": "e1", "count": 2, "over": "20"}
    try:
        gone = go_on_raw(example(kind), Shop(), told)
    except BriefRefused as refusal:
        wrong = [problem.field for problem in refusal.problems]
        gone = None
    else:
        wrong = []
    assert gone is None or gone.in_all >= gone.done
    assert all(field.startswith("so_far.") for field in wrong)


@given(
    rows=st.integers(2, 60),
    a_row=st.floats(5, 80),
    done=st.integers(1, 59),
    left=st.floats(0, 900),
    ratio=st.floats(0.75, 1.7),
)
def test_rows_are_shared_out_whole_and_in_their_order(
    rows: int, a_row: float, done: int, left: float, ratio: float
) -> None:
    assume(done <= rows)
    took = ratio * a_row * done
    shares = going_on(
        (a_row,) * rows, (30.0, 8.0), 1500.0, SoFar(count=done, over=1.0, left=left, took=took)
    )
    assert sum(one.rows for one in shares) == rows
    assert all(b.first == a.first + a.rows for a, b in pairwise(shares))
    # The wire in hand is as long as it is: what went in, and what is left but for its end.
    assert shares[0].takes == pytest.approx(took + left - 8.0)
    # It goes as far as whole rows go, and no further.
    further = shares[0].rows - done
    assert further * ratio * a_row <= max(left - 8.0, 0.0) + 1e-6
    assert further + done == rows or (further + 1) * ratio * a_row > left - 8.0 - 1e-6
    for one in shares[1:]:
        assert one.takes == pytest.approx(ratio * a_row * one.rows)
        assert one.takes + 38.0 <= 1500.0 + 1e-6 or one.rows == 1


def test_a_hand_that_no_wire_fits_is_refused() -> None:
    for took in (30.0, 2000.0):
        with pytest.raises(Refusal):
            going_on((50.0,) * 10, (30.0, 8.0), 1500.0, SoFar(count=5, over=1, left=9, took=took))
