import math

import pytest

from jamreel.core.plan import Plan
from tests.core.families import advice, example, figure, girths, loop, planned, steps, tried

BRIEF = {**example("coil_bracelet"), "measures": girths(wrist_girth=162)}


def test_turns_and_two_loops() -> None:
    plan = planned(BRIEF, turns=3.5, coil_diameter="54", loop_pin="3.2", whole_turns=False)
    turns = 3.5 * math.pi * 54.6
    assert figure(plan, "cut") == pytest.approx(turns + 2 * loop(3.2, 0.6) + 3)
    assert figure(plan, "one_turn") == pytest.approx(math.pi * 54.6)


def test_the_coil_decides_the_fit_not_the_ease() -> None:
    plan = planned(BRIEF, coil_diameter="54")
    assert figure(plan, "coil_ease") == pytest.approx(math.pi * 54 - 162)
    other = planned({**BRIEF, "ease": {"school": "fixed", "word": "loose"}}, coil_diameter="54")
    assert figure(other, "cut") == figure(plan, "cut")
    assert "coil_fit" in advice(planned(BRIEF, coil_diameter="50"))
    assert planned(BRIEF, coil_diameter="50").fit_word == "too_tight"
    assert "coil_fit" in advice(planned(BRIEF, coil_diameter="64"))


def test_hard_wire_is_cut_with_its_own_shears_and_bent_hard() -> None:
    plan = planned(BRIEF)
    assert "own_shears" in advice(plan)
    assert next(s for s in plan.steps if s.id == "cut").cautions[-1] == "hard"
    order = steps(plan)
    assert order.index("first") < order.index("beads") < order.index("last")
    soft = {**BRIEF, "wire": {"size": "0.8 mm", "metal": "copper"}}
    assert "coil_metal" in advice(planned(soft))


def test_try_ons() -> None:
    assert tried(BRIEF, comfortable=False).verdict == "coil_tight"
    assert tried(BRIEF, stays_on=False).verdict == "coil_loose"
    assert tried(BRIEF, stays_on=True).settled


def test_turns_said_cut_and_worn_agree() -> None:
    """Five are counted off, and both loops and trims come out of the fifth."""
    plan = planned(BRIEF, turns=5)
    said = advice_by(plan)["coil_worn"]
    spent = (2 * loop(3, 0.6) + 3) / figure(plan, "one_turn")
    assert f"5 turns are cut and worn as {5 - spent:.1f}" in said
    cut = next(one for one in plan.steps if one.id == "cut")
    assert cut.title == "Cut 5 turns"
    assert figure(plan, "cut") == pytest.approx(5 * figure(plan, "one_turn"))


def test_a_threaded_coil_is_counted_off_and_never_drawn_straight() -> None:
    plan = planned(example("core_coil"))
    ids = [one.id for one in plan.steps]
    count = next(one for one in plan.steps if one.id == "count")
    assert ids.index("count") < ids.index("core") < ids.index("string_last")
    core = next(one for one in plan.cuts if one.id.endswith("string_run"))
    # Five are worn, from loop to loop; what the loops take, and the trims, is more.
    threaded = figure(plan, "finished") - 2 * (2.5 + 0.6)
    turns = (threaded + 2 * loop(2.5, 0.6) + 3) / figure(plan, "one_turn")
    assert figure(plan, "finished") / figure(plan, "one_turn") == pytest.approx(5, abs=0.01)
    assert count.figures["turns"] == pytest.approx(turns, abs=0.01)
    assert count.figures["worn"] == 5
    assert count.figures["length"] == pytest.approx(core.length_mm)
    assert "Don't straighten" in count.says
    assert {"hard"} <= set(count.cautions)
    for one in plan.steps:
        if one.id in ("core", "string_last"):
            assert "heavy pliers" in one.says
            assert "hard" in one.cautions
    # What is cut by length is the coils alone.
    cut = next(one for one in plan.steps if one.id == "cut")
    assert cut.figures["count"] == sum(c.quantity for c in plan.cuts) - core.quantity


def test_wire_that_is_sold_in_no_coil_is_cut_by_its_length() -> None:
    brief = example("core_coil")
    soft = planned({**brief, "wire": {"size": "0.8 mm", "metal": "copper", "temper": "dead_soft"}})
    assert "count" not in {one.id for one in soft.steps}
    cut = next(one for one in soft.steps if one.id == "cut")
    assert cut.figures["count"] == sum(one.quantity for one in soft.cuts)


def advice_by(plan: Plan) -> dict[str, str]:
    return {one.id: one.says for one in plan.advice}
