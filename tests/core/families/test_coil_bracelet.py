import math

import pytest

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
