"""The sliding-loop bangle through the one door."""

from copy import deepcopy
from typing import Any

import numpy as np
import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from jamreel.core.plan import BriefRefused, Plan, plan_raw
from jamreel.core.shop import Shop
from jamreel.core.workpiece.records import Record
from tests.conftest import WORKED


def planned(brief: dict[str, Any], shop: Shop | None = None) -> Plan:
    return plan_raw(brief, shop or Shop())


def figure(plan: Plan, key: str) -> float:
    return next(f.value_mm for f in plan.figures if f.id == key)


def advice(plan: Plan) -> set[str]:
    return {a.id for a in plan.advice}


def changed(brief: dict[str, Any], **parts: Any) -> dict[str, Any]:
    return {**deepcopy(brief), **parts}


def with_girths(wrist: float, hand: float, **parts: Any) -> dict[str, Any]:
    girths = {"wrist_girth": wrist, "hand_pass_girth": hand}
    measures = {site: {"readings": [{"value": girth}]} for site, girth in girths.items()}
    return changed(WORKED, measures=measures, **parts)


def test_the_worked_bangle(brief: dict[str, Any]) -> None:
    plan = planned(brief)
    assert figure(plan, "centre") == pytest.approx(215.97, abs=0.02)
    assert figure(plan, "loop") == pytest.approx(13.28, abs=0.02)
    assert figure(plan, "cut") == pytest.approx(245.53, abs=0.02)
    assert figure(plan, "overlap") == pytest.approx(39.86, abs=0.02)
    assert figure(plan, "closed_diameter") == pytest.approx(54.43, abs=0.02)
    assert plan.formers[0].former_mm == pytest.approx(49.11, abs=0.05)
    assert plan.inside_girth_mm is not None
    assert plan.inside_girth_mm.value == 171
    assert [m.at_mm for m in plan.cuts[0].marks] == pytest.approx(
        [1.5, 14.78, 122.77, 230.75, 244.03], abs=0.01
    )


def test_what_the_nearest_mandrel_step_gives(brief: dict[str, Any]) -> None:
    (former,) = planned(brief).formers
    assert (former.tool, former.tool_mm) == ("bracelet mandrel", 49)
    assert former.result_mm == pytest.approx(54.29, abs=0.01)
    none = planned(brief, Shop(formers=()))
    assert none.formers[0].tool is None
    assert "no_former" in advice(none)
    far = planned(brief, Shop.model_validate({"formers": [tool(54)]}))
    assert "former_wide" in advice(far)
    near = planned(brief, Shop.model_validate({"formers": [tool(45)]}))
    assert "former_tight" in advice(near)


def tool(diameter: float) -> dict[str, Any]:
    return {"name": "tin", "kind": "household", "diameters": [diameter]}


@settings(deadline=None, max_examples=60)
@given(
    st.floats(110, 230),
    st.floats(0, 90),
    st.floats(0.8, 2.6),
    st.floats(0.31, 3),
    st.floats(0, 40),
    st.floats(0, 20),
)
def test_every_ledger_adds_up_and_more_ease_never_shortens_the_cut(
    wrist: float, wider: float, wire: float, clear: float, ease: float, margin: float
) -> None:
    assume(wrist + wider <= 330)
    parts = {
        "wire": {"size": wire},
        "piece": {"kind": "sliding_bangle", "loop_pin": wire + clear},
        "cutting": {"margin": margin},
        "ease": {"school": "fixed", "word": None, "amount": ease},
    }
    plan = planned(with_girths(wrist, wrist + wider, **parts))
    for line in plan.ledger:
        if line.total:
            terms = [other.value_mm for other in plan.ledger if other.adds_to == line.id]
            assert line.value_mm == pytest.approx(sum(terms), abs=1e-9), line.id
    (cut,) = plan.cuts
    assert cut.length_mm == pytest.approx(sum(line.value_mm for line in cut.lines))
    assert figure(plan, "cut") == pytest.approx(cut.length_mm)
    parts["ease"] = {"school": "fixed", "word": None, "amount": ease + 7}
    more = planned(with_girths(wrist, wrist + wider, **parts))
    assert more.cuts[0].length_mm >= cut.length_mm - 1e-9


def test_a_wrist_that_asks_for_more_than_the_hand_opens_for_the_wrist() -> None:
    plan = planned(with_girths(200, 205))
    assert figure(plan, "open") == 213
    assert figure(plan, "overlap") == pytest.approx(2.6 + 2 * 1.6277, abs=0.001)
    assert "overlap_short" in advice(plan)


@pytest.mark.parametrize(
    ("parts", "field", "key"),
    [
        ({"wire": {"size": "0.08 mm"}}, "wire.size", "wire_range"),
        ({"wire": {"size": None}}, "wire.size", "wire_missing"),
        (
            {"piece": {"kind": "sliding_bangle", "loop_pin": "1.9"}},
            "piece.loop_pin",
            "pin_too_thin",
        ),
        ({"piece": {"kind": "sliding_bangle", "loop_pin": "26"}}, "piece.loop_pin", "pin_too_wide"),
        ({"ease": {"school": "fixed", "amount": "much"}}, "ease.amount", "length"),
        ({"ease": {"school": "proportional", "percent": "NaN"}}, "ease.percent", "shape"),
        ({"ease": {"school": "finger", "finger": "2"}}, "ease", "finger"),
        ({"cutting": {"trim": "40"}}, "cutting.trim", "allowance"),
        ({"wire": {"size": "14 awg", "metal": "tin"}}, "wire.metal", "metal"),
        ({"loop_pin": 3}, "loop_pin", "unknown_field"),
        ({"measures": {}}, "measures.wrist_girth", "no_reading"),
    ],
)
def test_nonsense_gets_a_helpful_sentence(
    brief: dict[str, Any], parts: dict[str, Any], field: str, key: str
) -> None:
    with pytest.raises(BriefRefused) as refused:
        planned(changed(brief, **parts))
    problem = refused.value.problems[0]
    assert (problem.field, problem.key) == (field, key)
    assert problem.expected
    assert problem.got
    assert problem.says[0].isupper() or problem.says[0] == "“"


@pytest.mark.parametrize(
    ("wrist", "hand", "field", "says"),
    [
        ("58", "205", "measures.wrist_girth.readings.0.value", "158.0 mm"),
        ("1,580 mm", "205", "measures.wrist_girth.readings.0.value", "thousand"),
        ("1580", "205", "measures.wrist_girth.readings.0.value", "158.0 mm"),
        ("nan", "205", "measures.wrist_girth.readings.0.value", "can't be read"),
        ("158", "150", "measures.hand_pass_girth", "smaller than the wrist"),
    ],
)
def test_measures_that_cannot_be(wrist: str, hand: str, field: str, says: str) -> None:
    with pytest.raises(BriefRefused) as refused:
        planned(with_girths(wrist, hand))  # type: ignore[arg-type]
    assert refused.value.problems[0].field == field
    assert says in refused.value.problems[0].says


def test_all_problems_of_the_measures_come_at_once() -> None:
    with pytest.raises(BriefRefused) as refused:
        planned(with_girths(58, 1580))
    assert [p.field.split(".")[1] for p in refused.value.problems] == [
        "wrist_girth",
        "hand_pass_girth",
    ]


def test_two_readings_far_apart_ask_for_another(brief: dict[str, Any]) -> None:
    brief["measures"]["wrist_girth"]["readings"] = [{"value": "158"}, {"value": "178"}]
    with pytest.raises(BriefRefused, match="Take another reading"):
        planned(brief)


def test_too_big_at_the_try_on(brief: dict[str, Any]) -> None:
    righting = planned(changed(brief, tryon={"open_inside_girth": "216"})).putting_right
    assert righting is not None
    assert righting.amount_mm == pytest.approx(11.0, abs=1e-9)
    assert righting.snip_mm == pytest.approx(24.28, abs=0.01)
    assert "Take 11.0 mm off one end" in righting.says
    assert "snip 24.3 mm" in righting.says
    assert [(c.before_mm, c.after_mm) for c in righting.changes] == [
        (216, 205),
        (pytest.approx(226.97, abs=0.01), pytest.approx(215.97, abs=0.01)),
        (pytest.approx(50.86, abs=0.01), pytest.approx(39.86, abs=0.01)),
    ]


@pytest.mark.parametrize(
    ("tryon", "verdict", "settled"),
    [
        ({"open_inside_girth": "206"}, "as_planned", True),
        ({"open_inside_girth": "205", "passes_hand": False}, "hand_again", False),
        ({"open_inside_girth": "202"}, "smaller_loops", False),
        ({"open_inside_girth": "195"}, "new_wire", False),
        ({"open_inside_girth": "195", "passes_hand": True}, "small_but_passes", True),
        ({"passes_hand": False}, "measure_inside", False),
        ({"finger_under": False}, "open_a_little", False),
        ({"passes_hand": True, "finger_under": True}, "fits", True),
        ({"overlap": "45"}, "worn_at", True),
    ],
)
def test_every_try_on_gets_an_answer(
    brief: dict[str, Any], tryon: dict[str, Any], verdict: str, settled: bool
) -> None:
    righting = planned(changed(brief, tryon=tryon)).putting_right
    assert righting is not None
    assert (righting.verdict, righting.settled) == (verdict, settled)


def test_smaller_loops_give_back_just_what_is_missing(brief: dict[str, Any]) -> None:
    righting = planned(changed(brief, tryon={"open_inside_girth": "202"})).putting_right
    assert righting is not None
    pin = righting.changes[1].after_mm
    # Made on that pin with the same wire, it opens by the missing 3 mm further.
    smaller = {"kind": "sliding_bangle", "loop_pin": pin}
    same_hand = planned(with_girths(158, 205, piece=smaller))
    assert figure(planned(brief), "cut") - 3 == pytest.approx(figure(same_hand, "cut"), abs=1e-6)


def test_a_wire_cut_short_says_what_it_will_do(brief: dict[str, Any]) -> None:
    def cut_to(length: float) -> Plan:
        done = Record(kind="cut", key="bangle", planned=245.53, actual=length)
        return plan_raw(brief, Shop(), [done])

    short = cut_to(241.5)
    assert short.advice[0].id == "cut_short"
    assert "opens to 201.0 mm" in short.advice[0].says
    assert "cut_long" in advice(cut_to(250))
    assert not {"cut_long", "cut_short"} & advice(cut_to(245.3))
    assert not {"cut_long", "cut_short"} & advice(planned(brief))


def test_advice_that_belongs_to_the_choices(brief: dict[str, Any]) -> None:
    assert advice(planned(brief)) == {"one_reading"}
    # Hard 14 AWG on a 2.6 pin: 1.63 / (2.6 + 1.63) = 39 % where 2 t inside are a fifth.
    hard = planned({**brief, "wire": {**brief["wire"], "temper": "full_hard"}})
    anneal = next(a for a in hard.advice if a.id == "bend_torchless")
    assert anneal.severity == "check"
    assert "asks 39 %" in anneal.says
    assert f"pin of {4 * 1.6277:.1f} mm" in anneal.try_
    assert "overlap_long" in advice(planned(with_girths(140, 220)))
    assert "assumed_system" in advice(planned(changed(brief, wire={"size": "14"})))
    soft = {"size": "14 awg", "temper": "dead_soft"}
    assert "soft" in advice(planned(changed(brief, wire=soft)))
    loose = {"kind": "sliding_bangle", "loop_pin": "4.3"}
    assert {"loop_loose", "pin_missing"} <= advice(planned(changed(brief, piece=loose)))
    assert "no_pins" in advice(planned(brief, Shop(pins=())))


def test_a_guessed_measure_is_marked(brief: dict[str, Any]) -> None:
    brief["measures"]["wrist_girth"] = {"guess": {"population": "wrist_women"}}
    plan = planned(brief)
    assert plan.girths[0].guessed
    assert "guessed" in advice(plan)
    assert "guessed" in next(line.reason for line in plan.ledger if line.id == "wrist")


def test_an_inch_bench_reads_and_speaks_inches(brief: dict[str, Any]) -> None:
    brief["measures"]["wrist_girth"]["readings"] = [{"value": "6 1/4"}]
    brief["measures"]["hand_pass_girth"]["readings"] = [{"value": "8"}]
    brief["cutting"] = {"trim": "1/16"}
    plan = planned(brief, Shop(unit="in"))
    assert plan.inside_girth_mm is not None
    assert plan.inside_girth_mm.value == pytest.approx(158.75 + 13)
    assert plan.steps[1].title == "Cut 9 19/32 in"  # 243.91 mm
    # A brief that says its unit means the same on a metric bench.
    same = planned({**brief, "unit": "in"}, Shop(unit="mm"))
    assert same.cuts[0].length_mm == plan.cuts[0].length_mm


def test_the_drawing_is_as_long_as_the_numbers(brief: dict[str, Any]) -> None:
    plan = planned(brief)
    section = next(s for s in plan.drawings.sheets if s.id == "section")
    wire = next(s for s in section.strokes if s.part == "centre")
    line = np.array(wire.points)
    drawn = np.linalg.norm(np.diff(line, axis=0), axis=1).sum()
    # The first end is drawn a wire further out, past the overlap's curve: a little longer.
    assert 0 < drawn - figure(plan, "centre") < 3
    assert plan.drawings.rule.spans[-1].to_mm == pytest.approx(plan.cuts[0].length_mm)
    for span in plan.drawings.rule.spans:
        assert set(span.ledger) & {line.id for line in plan.ledger}


def test_cautions_stand_at_their_steps(brief: dict[str, Any]) -> None:
    plan = planned(brief)
    steps = {s.id: s for s in plan.steps}
    assert "eyes" in steps["cut"].cautions
    for caution in plan.cautions:
        assert caution.because
        assert all(caution.id in steps[s].cautions for s in caution.steps)
    order = [s.id for s in plan.steps]
    assert order.index("try_on") < order.index("mallet") < order.index("press_in")
    # Charms come last of all, and where there are none no step speaks of them.
    assert "charms" not in order
    with_five = planned({**brief, "piece": {**brief["piece"], "charms": 5}})
    order = [s.id for s in with_five.steps]
    assert order.index("mallet") < order.index("charms") < order.index("press_in")
