"""Links bent at the end of the reel and cut afterwards."""

import math
from typing import Any

import pytest

from jamreel.core.plan import Plan, plan_raw
from jamreel.core.shop import Shop
from jamreel.core.wire.gauges import awg_diameter
from tests.core.families import example

D = awg_diameter(20)


def of(part: dict[str, Any], *, off_reel: bool = True, **cutting: Any) -> Plan:
    brief = example("linked_bracelet")
    piece = {**brief["piece"], "entries": [{"part": part, "times": 8}], "counted": False}
    cutting = {**brief["cutting"], **cutting, "off_reel": off_reel}
    return plan_raw({**brief, "piece": piece, "cutting": cutting}, Shop())


def steps(plan: Plan) -> list[str]:
    return [one.id.partition("/")[2] for one in plan.steps if one.id.startswith("e1/")]


# Two plain loops on a 3 mm pin, with a bead or a stem between them, and both flush cuts.
@pytest.mark.parametrize(
    ("part", "between"),
    [
        ({"kind": "linked_bead", "loops": "plain", "pin": 3, "bead": 6}, 6.0),
        ({"kind": "eye_link", "loops": "plain", "pin": 3, "stem": 11}, 11.0),
        ({"kind": "figure_eight", "pin": 3}, 0.0),
    ],
)
def test_the_pull_is_every_link_with_both_its_flush_cuts(
    part: dict[str, Any], between: float
) -> None:
    each = 2 * math.pi * (3 + D) + between + 2 * 1.5
    cut = next(one for one in of(part, margin="7").cuts if one.id.startswith("e1/"))
    assert (cut.off_reel, cut.quantity) == (True, 1)
    # What is cut when it is bent needs no margin.
    assert cut.length_mm == pytest.approx(8 * each, abs=0.01)
    assert sum(line.value_mm for line in cut.lines) == pytest.approx(cut.length_mm)


def test_a_link_of_the_reel_is_threaded_first_and_cut_between_its_loops() -> None:
    told = steps(of({"kind": "linked_bead"}))
    order = ["thread", "first_open", "first_in", "wrapped_first", "snip_reel", "wrapped_open"]
    assert [one for one in told if one in order] == order
    first = steps(of({"kind": "linked_bead"}, off_reel=False))
    assert "snip_reel" not in first
    assert first.index("thread") > first.index("wrapped_first")


def test_what_is_left_for_the_second_loop_is_told() -> None:
    plan = of({"kind": "linked_bead", "wraps": 2, "tail": 12})
    snip = next(one for one in plan.steps if one.id == "e1/snip_reel")
    # Stem under two wraps, a loop on the pin, two turns round the wire itself, the tail.
    turns = 2 * math.hypot(math.pi * 2 * D, D)
    assert snip.figures["left"] == pytest.approx(2 * D + math.pi * (3 + D) + turns + 12, abs=0.05)
    bare = of({"kind": "eye_link", "loops": "plain", "stem": 11})
    snip = next(one for one in bare.steps if one.id == "e1/snip_reel")
    assert snip.figures["left"] == pytest.approx(11 + math.pi * (3 + D), abs=0.01)


def test_only_the_rest_is_cut_beforehand() -> None:
    plan = of({"kind": "linked_bead"})
    told = {one.id: one for one in plan.steps}
    assert told["off_reel"].asks == ("cut",)
    beside = [one for one in plan.cuts if not one.off_reel]
    assert told["cut"].figures["count"] == sum(one.quantity for one in beside) > 0


def test_a_bought_eye_pin_comes_off_no_reel() -> None:
    plan = of({"kind": "linked_bead", "stock": "eye_pin", "loops": "plain"})
    assert not [one for one in plan.cuts if one.id.startswith("e1/")]
    assert "snip_reel" not in steps(plan)
