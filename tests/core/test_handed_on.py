"""A ladder whose bars are handed on, each once round the next, to one that ends in a loop."""

import math
from typing import Any

import pytest

from jamreel.core.interlace.ladder.part import Ladder
from jamreel.core.path.moves import developed_length
from jamreel.core.plan import Plan, plan_raw
from jamreel.core.shop import Shop
from tests.core.test_first_principles import PALETTE

LOOP = {"pin": 3, "loop_wraps": 2, "tail": 12}


def stretch(use: Any, name: str) -> float:
    return sum(developed_length(moves, use.wire.d) for key, moves in use.stretches if key == name)


@pytest.mark.parametrize("bars", [3, 4, 5, 8, 12])
def test_every_bar_ends_above_the_one_that_is_wound_round_it(bars: int) -> None:
    own = {"bars": bars, "bead": 4, "rows": 20, **LOOP}
    eyes = Ladder.model_validate({**own, "ends": "eyes"}).make(PALETTE)
    made = Ladder.model_validate({**own, "ends": "to_one"}).make(PALETTE)
    by_key = {use.key: use for use in made.wires}
    d = by_key["ladder_last"].wire.d
    handed = [by_key[key] for key in by_key if key.startswith("ladder_handed")]
    # Every bar but one, the outermost first: from both edges to the middle.
    assert [use.quantity for use in handed] == [
        sum(min(n, bars - 1 - n) == step for n in range(bars) if n != bars // 2)
        if step < (bars - 1) // 2
        else bars - 1 - sum(u.quantity for u in handed[:step])
        for step in range(bars // 2)
    ]
    assert sum(use.quantity for use in handed) == bars - 1
    rows = stretch(handed[0], "body")
    # A bend of a wire's radius, one turn, and half a wire of air.
    up = d + 1.5 * d
    for step, use in enumerate(handed):
        assert stretch(use, "body") == pytest.approx(rows + 2 * step * up)
        # A quarter bend, the tangent to the next bar, once round it.
        apart = 4 + d + 2 * by_key["ladder_working"].wire.d
        end = math.pi / 2 * d + math.sqrt((apart - d) ** 2 - d**2)
        once = math.hypot(math.pi * 2 * d, d)
        assert stretch(use, "outer_end_left") == pytest.approx(end + once)
    last = by_key["ladder_last"]
    assert stretch(last, "body") == pytest.approx(rows + 2 * len(handed) * up)
    # Two wraps on its stem, the loop, and it bears inside the loop.
    assert made.length == pytest.approx(rows + 2 * (len(handed) * up + 2 * d + 3 + d))
    assert made.ends is not None
    assert {end.count for end in made.ends} == {1}
    assert made.holds[0].key == "wrapped_loop"
    assert made.width == pytest.approx(eyes.width)


def planned(**part: Any) -> Plan:
    entry = {"id": "e1", "part": {"kind": "ladder", "ends": "to_one", **part}, "fill": True}
    piece = {
        "kind": "linked_bracelet", "counted": True, "entries": [entry],
        "closure": {"kind": "folded_hook"},
    }  # fmt: skip
    brief = {
        "measures": {"wrist_girth": {"readings": [{"value": "165"}]}},
        "piece": piece,
        "wire": {"size": "1.2 mm", "temper": "half_hard"},
        "palette": {"winding": {"size": "0.4 mm", "temper": "dead_soft"}},
    }
    return plan_raw(brief, Shop())


def test_it_goes_into_a_single_loop_and_is_walked() -> None:
    plan = planned(bars=4)
    order = [one.id for one in plan.steps]
    assert order.index("e1/ladder_return") < order.index("e1/ladder_hand_on")
    assert order.index("e1/ladder_hand_on") < order.index("e1/first_open")
    assert order.index("e1/wrapped_open") < order.index("e1/wrapped_second")
    # Eyes in a row don't go into one loop; one loop does.
    said = {one.id for one in plan.advice}
    assert not said & {"row_into_one", "rows_unlike", "bare_end"}
    row = {one.id for one in planned(ends="eyes", bars=4).advice}
    assert "row_into_one" in row
