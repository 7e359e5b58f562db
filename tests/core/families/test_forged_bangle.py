"""The forged bangle: back from the wrist to the bar."""

import math
from typing import Any

import pytest

from jamreel.core.plan import BriefRefused, Plan, plan_raw
from jamreel.core.shop import Shop
from tests.core.families import advice, example, figure, ledger, planned, steps

BRIEF = example("forged_bangle")
STRIP = 1.6 * 1.9 + math.pi * 1.9**2 / 4  # 3.5 by 1.9 with round edges
BAR = math.pi * 3.0**2 / 4
FORGE = Shop.model_validate(
    {"outfit": {"torch": True, "pickle": True, "mill": True, "punches": [5, 6.5, 8]}}
)


def forged(shop: Shop = FORGE, wire: dict[str, Any] | None = None, **own: Any) -> Plan:
    piece = {**BRIEF["piece"], **own}
    return plan_raw({**BRIEF, "piece": piece, "wire": wire or BRIEF["wire"]}, shop)


def test_a_plain_one_back_to_its_bar() -> None:
    plan = forged(ends="plain")
    # 165 + 13 of ease, pi times the strip's thickness, 10 over each other.
    strip = 178 + math.pi * 1.9 + 10
    assert figure(plan, "strip") == pytest.approx(strip)
    assert figure(plan, "bar") == pytest.approx(strip * STRIP / BAR)
    assert plan.cuts[0].length_mm == pytest.approx(strip * STRIP / BAR + 3)
    assert ledger(plan, "cut") == pytest.approx(plan.cuts[0].length_mm)


def test_paddles_gain_length_and_width() -> None:
    plan, plain = forged(ends="paddles", paddle_length="8"), forged(ends="plain")
    wide = 3.5 * math.sqrt(1.9 / 1.0)
    area = (wide - 1.0) * 1.0 + math.pi / 4
    strip = figure(plan, "strip")
    bar = (strip - 16) * STRIP / BAR + 2 * 8 * area / BAR
    assert figure(plan, "bar") == pytest.approx(bar)
    assert figure(plan, "bar") < figure(plain, "bar")
    said = next(step for step in plan.steps if step.id == "paddles")
    assert said.figures["width"] == pytest.approx(wide, abs=1e-3)


def test_cups_are_domed_from_round_blanks_for_pearls() -> None:
    plan = forged(ends="cups", pearl="6")
    # A fifth up a ball of 6: 1.2 deep, 4.8 across; its face is that of a disc of 5.37.
    across, blank = 2 * math.sqrt(3**2 - 1.8**2), 2 * math.sqrt(6 * 1.2)
    bar = (figure(plan, "strip") - 2 * across) * STRIP / BAR
    bar += 2 * math.pi / 4 * blank**2 * 1.0 / BAR
    assert figure(plan, "bar") == pytest.approx(bar)
    by_id = {step.id: step for step in plan.steps}
    assert by_id["dome"].figures["punch"] == 6.5
    assert by_id["pearls"].waits == 60
    assert by_id["pearls"].cautions == ("glue",)
    order = steps(plan)
    # Hammered, annealed, domed; pegs on the shaped piece; everything before glue.
    ends = [order.index(one) for one in ("cups", "soft", "dome", "drill", "file", "shape")]
    assert ends == sorted(ends)
    assert order.index("shape") < order.index("peg") < order.index("try_on") < order.index("pearls")
    finished = plan_raw({**BRIEF, "making": {"finish": ["polish", "tumble"]}}, FORGE)
    polished = steps(finished)
    assert polished.index("peg") < polished.index("tumble") < polished.index("pearls")
    assert {need.label: need.quantity for need in plan.needs} == {"pearls": 2, "pegs": 2}


def test_every_pass_gives_a_tenth_and_what_cracks_is_annealed_before() -> None:
    thin = forged(ends="plain", strip_width="4", strip_thickness="1")
    passes = [step for step in thin.steps if step.id.startswith("roll_")]
    area = 3 * 1.0 + math.pi / 4
    assert len(passes) == math.ceil(math.log(BAR / area) / 0.1)
    gaps = [step.figures["rollers"] for step in passes]
    assert gaps == sorted(gaps, reverse=True)
    assert gaps[-1] == pytest.approx(1.0)
    # Soft copper bears 0.5, a hundredth of it for drawing it straight: the fifth pass, and no more.
    anneals = [name for name in steps(thin) if name.startswith("anneal")]
    share = math.log(BAR / area) / len(passes)
    first = next(n for n in range(1, 9) if 0.01 + n * share > 0.5)
    assert anneals[0] == f"anneal_roll_{first}"


def test_rolled_hard_the_strip_springs_further_than_one_soldered_soft() -> None:
    hard, soft = forged(ends="plain"), forged(ends="cups")
    assert hard.formers[0].target_mm == pytest.approx(178 / math.pi)
    assert hard.formers[0].former_mm < soft.formers[0].former_mm
    assert "forged_soft" in advice(soft)
    assert "forged_soft" not in advice(hard)


@pytest.mark.parametrize(
    ("own", "key", "field"),
    [
        ({"strip_width": "6", "strip_thickness": "1.9"}, "strip_over_bar", "piece.strip_width"),
        ({"ends": "paddles", "paddle_thickness": "1.9"}, "paddle_thick", "piece.paddle_thickness"),
        ({"strip_width": "1.5", "strip_thickness": "2"}, "flat_on_edge", ""),
        ({"ends": "paddles", "paddle_length": "40", "overlap": "1"}, "", ""),
    ],
)
def test_what_can_not_be_forged_is_refused(own: dict[str, Any], key: str, field: str) -> None:
    if not key:
        assert forged(**own).cuts
        return
    with pytest.raises(BriefRefused) as refused:
        forged(**own)
    (problem,) = refused.value.problems
    assert problem.key == key
    assert problem.field.startswith(field)


def test_any_section_of_bar_will_do() -> None:
    square = {"size": "3 mm", "metal": "copper", "temper": "dead_soft"}
    section = {"shape": "square", "side": "2.6"}
    plan = forged(ends="plain", wire={**square, "section": section})
    assert figure(plan, "bar") == pytest.approx(figure(plan, "strip") * STRIP / 2.6**2)


def test_a_bench_that_lacks_mill_and_punch_is_told() -> None:
    told = advice(planned(BRIEF))
    assert {"lacks", "no_punch", "no_torch"} <= set(told)
    assert "rolling mill" in told["lacks"]
    assert not {"lacks", "no_punch", "no_torch"} & set(advice(forged()))
