"""Each piece of advice comes at its limit and not before."""

import math
from typing import Any

import pytest

from jamreel.core.advice import Advice
from jamreel.core.advice.closing import (
    bar_holds,
    bar_passes,
    frail,
    hook_passes,
    opens_easily,
    should_release,
    stronger_than_loops,
    two_hands,
)
from jamreel.core.advice.cutting import longer_than_handled, no_record
from jamreel.core.advice.forming import former_near
from jamreel.core.advice.joining import (
    ends_differ,
    heavy_earring,
    loop_admits,
    not_to_length,
    nothing_in_it,
)
from jamreel.core.advice.making import cut_differs
from jamreel.core.advice.opening import falls_off, hangs_loose, opened_to_go_on, round_radius
from jamreel.core.advice.parts import few_wraps, hole_passes
from jamreel.core.cutting.cuts import Cutting
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.strength import Weakest
from jamreel.core.forming.tools import Former
from jamreel.core.plan import plan_raw
from jamreel.core.shop import Shop
from jamreel.core.wire.metals import metals
from jamreel.core.words import speaking


@pytest.fixture(autouse=True)
def in_words() -> Any:
    with speaking("en", "mm"):
        yield


def name(advice: Advice | None) -> str | None:
    return advice.id if advice else None


@pytest.mark.parametrize(
    ("advice", "wanted"),
    [
        (lambda: hook_passes(2.0, 2.3), None),
        (lambda: hook_passes(2.0, 2.29), "hook_wide"),
        (lambda: bar_holds(20.1, 15.0), None),
        (lambda: bar_holds(19.9, 15.0), "bar_short"),
        # A bar of 1.2 beside a bead of 6: 7.5 of room with what is to spare.
        (lambda: bar_passes(7.51, 1.2, 6.0), None),
        (lambda: bar_passes(7.49, 1.2, 6.0), "bar_stuck"),
        (lambda: opens_easily(10.0), None),
        (lambda: opens_easily(9.9), "hook_weak"),
        (lambda: should_release(5.0, False), None),
        (lambda: should_release(None, True), "never_releases"),
        (lambda: should_release(20.0, True), "releases"),
        (lambda: should_release(20.1, True), "releases_late"),
        (lambda: stronger_than_loops(10.0, 10.0, "ring"), None),
        (lambda: stronger_than_loops(10.0, 9.9, "ring"), "parts_open_first"),
        (lambda: two_hands(True), None),
        (lambda: two_hands(False), "two_hands"),
        (lambda: loop_admits(1.2, (1.0,), "a", "b"), None),
        (lambda: loop_admits(1.19, (1.0,), "a", "b"), "loop_small"),
        (lambda: ends_differ("bead", "bead", False), None),
        (lambda: ends_differ("bead", "ring", True), None),
        (lambda: ends_differ("bead", "ring", False), "ends_differ"),
        (lambda: heavy_earring(10.0), None),
        (lambda: heavy_earring(10.1), "heavy_earring"),
        (lambda: not_to_length(4.0, 1.0, 8.0, "bead", (9, 8)), None),
        (lambda: not_to_length(4.1, 1.0, 8.0, "bead", (9, 8)), "make_up_long"),
        (lambda: not_to_length(-4.1, 1.0, 8.0, "bead", (9, 8)), "make_up_short"),
        (lambda: not_to_length(-4.1, 5.0, 8.0, "bead", (9, 8)), None),
        (lambda: nothing_in_it(1), None),
        (lambda: nothing_in_it(0), "empty_sequence"),
        (lambda: cut_differs(None, 80.0), None),
        (lambda: cut_differs(80.5, 80.0), None),
        (lambda: cut_differs(80.6, 80.0), "cut_longer"),
        (lambda: cut_differs(79.4, 80.0), "cut_shorter"),
        (lambda: hangs_loose(200.0, 150.0), None),
        (lambda: hangs_loose(200.1, 150.0), "hangs_loose"),
        (lambda: falls_off(205.0, None), None),
        (lambda: falls_off(204.9, 205.0), None),
        (lambda: falls_off(205.0, 205.0), "falls_off"),
        (lambda: few_wraps(2), None),
        (lambda: few_wraps(1), "few_wraps"),
        (lambda: hole_passes(1.05, 1.0), None),
        (lambda: hole_passes(1.04, 1.0), "hole_small"),
        # Two wires side by side want twice their thickness, and a little to run.
        (lambda: hole_passes(2.05, 1.0, 2), None),
        (lambda: hole_passes(2.04, 1.0, 2), "hole_small_for_more"),
        (lambda: no_record(Cutting(), True, 0), None),
        (lambda: no_record(Cutting(school="record"), True, 0), "no_record"),
        (lambda: no_record(Cutting(school="record"), True, 1), None),
    ],
)
def test_advice_comes_at_its_limit_and_not_before(advice: Any, wanted: str | None) -> None:
    assert name(advice()) == wanted


def ring(pulled: float, d: float = 2.0, mpa: float = 210.0, **more: Any) -> str | None:
    """A ring of half-hard copper, its middle on a radius of 30: 2 mm wire springs open by 7.6."""
    wire = Wire(d, f"{d} mm", metals()["copper"], "half_hard", mpa)
    inside = math.pi * (60 - d)
    said = opened_to_go_on(
        ("twist_open_neck", "spring_side"), wire=wire, inside=inside, needed=pulled, **more
    )
    return name(said)


def test_a_ring_pulled_further_than_it_springs_takes_a_set() -> None:
    springs = 210 / 117_000 * 3 * math.pi * 30**2 / 2
    assert ring(springs - 0.01) == "spring_side"
    assert ring(springs + 0.01) == "twist_open_neck"
    # What is open already need not be opened.
    assert ring(springs + 5, gap=5.1) == "spring_side"
    assert ring(4.0, gap=4.0) is None
    # Softer wire gives way sooner, thinner wire later.
    assert ring(springs - 0.01, mpa=150.0) == "twist_open_neck"
    assert ring(springs + 0.01, d=1.0) == "spring_side"


@pytest.mark.parametrize(
    ("newtons", "key", "said"),
    [(1.99, "plain_loop", "frail"), (2.0, "plain_loop", None), (0.5, "open_ring", None)],
)
def test_what_gives_at_a_tug_is_said_unless_it_is_meant_to_open(
    newtons: float, key: str, said: str | None
) -> None:
    assert name(frail(Weakest("a loop", newtons, key))) == said


def test_the_radius_of_a_rings_middle() -> None:
    assert round_radius(math.pi * 60, 2.0) == pytest.approx(31)


def former(tool: float | None, result: float | None, target: float = 60.0) -> Former:
    return Former(
        target_mm=target,
        former_mm=55.0,
        tool=None if tool is None else "mandrel",
        tool_mm=tool,
        result_mm=result,
    )


@pytest.mark.parametrize(
    ("tool", "result", "wanted"),
    [
        (None, None, "no_former"),
        (55.0, None, "springs_straight"),
        # 3 % of 188.5 mm is 5.65 of girth: 1.8 across.
        (55.0, 61.79, None),
        (55.0, 61.81, "former_wide"),
        (55.0, 58.21, None),
        (55.0, 58.19, "former_tight"),
    ],
)
def test_a_former_that_misses_is_said(
    tool: float | None, result: float | None, wanted: str | None
) -> None:
    assert name(former_near(former(tool, result))) == wanted


def cuff(*wrist: float) -> set[str]:
    brief = {
        "measures": {"wrist_girth": {"readings": [{"value": value} for value in wrist]}},
        "piece": {"kind": "open_cuff"},
        "wire": {"size": "14 awg"},
    }
    return {note.id for note in plan_raw(brief, Shop()).advice}


def test_a_measure_vaguer_than_half_a_step_of_ease_limits_the_fit() -> None:
    # From snug to comfortable is 7 mm round a wrist.
    assert "measure_limits" not in cuff(158.3, 161.7)
    assert "measure_limits" in cuff(158.2, 161.8)


def test_a_wire_longer_than_is_handled_is_said_with_its_parts() -> None:
    brief: dict[str, Any] = {
        "measures": {"neck_base_girth": {"readings": [{"value": "380"}]}},
        "piece": {
            "kind": "linked_necklace",
            "length": "1700 mm",
            "counted": False,
            "entries": [{"id": "row", "part": {"kind": "bead", "bead": "8"}, "times": 95}],
        },
        "wire": {"size": "0.5 mm"},
    }
    plan = plan_raw(brief, Shop())
    (note,) = [one for one in plan.advice if one.id == "long_wire"]
    string = max(cut.length_mm for cut in plan.cuts)
    assert 1500 < string < 1700
    assert "2" in note.says + note.try_
    short = {**brief, "cutting": {"longest": "3 m"}}
    assert "long_wire" not in {one.id for one in plan_raw(short, Shop()).advice}
    reel = plan.cuts[0].model_copy(update={"off_reel": True, "length_mm": 5000.0})
    assert longer_than_handled(reel, Cutting()) is None
