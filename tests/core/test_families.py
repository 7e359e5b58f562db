"""What every construction must do, whichever it is; and what is particular to some."""

import importlib
import json
import math
from copy import deepcopy
from typing import Any

import pytest

from jamreel.core.advice.forming import former_near
from jamreel.core.families import registered
from jamreel.core.forming.law import Law
from jamreel.core.forming.springback import sprung_diameter
from jamreel.core.forming.tools import Tool, choose_former
from jamreel.core.plan import BriefRefused, Plan, plan_raw
from jamreel.core.shop import Shop
from jamreel.core.wire.sections import Round
from jamreel.core.workpiece.drawing import former_sheet
from tests.conftest import EXAMPLES

BRIEFS: dict[str, dict[str, Any]] = {
    kind: json.loads((EXAMPLES / f"{kind.replace('_', '-')}.json").read_text())
    for kind in registered()
}
KINDS = sorted(registered())
SHOP = Shop()


def planned(kind: str, **parts: Any) -> Plan:
    brief = {**deepcopy(BRIEFS[kind]), **parts}
    return plan_raw(brief, SHOP)


def advice(plan: Plan) -> set[str]:
    return {a.id for a in plan.advice}


def with_own(kind: str, **own: Any) -> dict[str, Any]:
    return {**BRIEFS[kind]["piece"], **own}


def figure(plan: Plan, key: str) -> float:
    return next(f.value_mm for f in plan.figures if f.id == key)


@pytest.mark.parametrize("kind", KINDS)
def test_totals_are_sums_and_the_cut_is_the_ledgers(kind: str) -> None:
    plan = planned(kind)
    for line in plan.ledger:
        if line.total:
            terms = [other.value_mm for other in plan.ledger if other.adds_to == line.id]
            assert terms, line.id
            assert line.value_mm == pytest.approx(sum(terms), abs=1e-9), line.id
    for cut in plan.cuts:
        assert cut.length_mm == pytest.approx(sum(line.value_mm for line in cut.lines))
        assert all(0 <= mark.at_mm <= cut.length_mm for mark in cut.marks)
        assert [m.at_mm for m in cut.marks] == sorted(m.at_mm for m in cut.marks)
    cuts = [line.value_mm for line in plan.ledger if line.id == "cut"]
    assert cuts == [pytest.approx(plan.cuts[0].length_mm)] * len(cuts)


def names_code(rule: str) -> bool:
    """Tell whether a rule's id is the path of a function or a class of the core."""
    parts = f"jamreel.core.{rule}".split(".")
    for n in range(len(parts), 2, -1):
        try:
            found: Any = importlib.import_module(".".join(parts[:n]))
        except ModuleNotFoundError:
            continue
        there = all((found := getattr(found, part, None)) is not None for part in parts[n:])
        # A module is no rule: several stand in it.
        return there and callable(found)
    return False


@pytest.mark.parametrize("kind", KINDS)
def test_every_number_names_a_rule_that_exists(kind: str) -> None:
    plan = planned(kind, cutting={"trim": "1.5", "margin": "3"})
    rules = {line.rule for line in plan.ledger}
    assert {rule for rule in rules if not names_code(rule)} == set()


def test_wire_that_springs_straight_is_not_drawn_as_if_it_did_not() -> None:
    drum = Tool(name="drum", kind="household", diameters=(62,))
    # Quarter-millimetre spring brass stays elastic on anything wider than 61.

    def sprung(drum: float) -> float:
        return sprung_diameter(drum, Round(diameter=0.25), Law(110000, 450))

    former = choose_former(90, 40, [drum], sprung)
    assert (former.tool_mm, former.result_mm) == (62, None)
    found = former_near(former)
    assert found is not None
    assert found.id == "springs_straight"
    sheet = former_sheet(former, 0.25)
    assert {s.part for s in sheet.strokes} == {"former", "target"}
    assert [d.label for d in sheet.dimensions] == ["bend on"]
    nothing = former_sheet(
        choose_former(
            90, 40, [], lambda d: sprung_diameter(d, Round(diameter=0.25), Law(110000, 450))
        ),
        0.25,
    )
    assert [d.value_mm for d in nothing.dimensions] == [40, 90]


@pytest.mark.parametrize("kind", KINDS)
def test_every_station_has_its_answer_and_its_work(kind: str) -> None:
    plan = planned(kind)
    ids = {f.id for f in plan.figures}
    assert set(plan.answers.model_dump().values()) <= ids
    assert {s.station for s in plan.steps} == {"cut", "form", "fit"}
    assert len({s.id for s in plan.steps}) == len(plan.steps)
    drawn = [sheet for sheet in plan.drawings.sheets if "fit" in sheet.stations]
    assert drawn
    assert all(len(stroke.points) > 1 for sheet in drawn for stroke in sheet.strokes)
    rule = plan.drawings.rule
    assert rule.spans[-1].to_mm == pytest.approx(rule.length_mm)
    known = {line.id for line in plan.ledger}
    assert all(set(span.ledger) & known for span in rule.spans), [s.ledger for s in rule.spans]


def _sizes(kind: str) -> tuple[float, float]:
    """Return how round a piece is inside (how long it is, where it has none), and how long."""
    plan = planned(kind)
    assert plan.finished_length_mm is not None
    finished = plan.finished_length_mm.value
    return (plan.inside_girth_mm.value if plan.inside_girth_mm else finished), finished


def _readings(kind: str, ask: str) -> list[str]:
    """Return what could be read: little, about right, much."""
    inside, finished = _sizes(kind)
    if ask == "fall":
        return [f"{share * finished:.1f}" for share in (0.1, 0.25, 0.49)]
    if ask.endswith("girth"):
        return [f"{share * inside:.1f}" for share in (0.55, 1.0, 1.9)]
    return [f"{share * inside:.1f}" for share in (0.05, 0.2, 0.9)]


@pytest.mark.parametrize("kind", KINDS)
def test_a_reading_that_the_piece_can_not_give_is_refused_by_name(kind: str) -> None:
    inside, finished = _sizes(kind)
    wrong = {"inside_girth": 2.1 * inside, "gap": 1.1 * inside, "overlap": 1.1 * inside}
    wrong["open_inside_girth"] = inside / 2.2
    wrong["fall"] = 0.51 * finished
    for ask in set(registered()[kind].asks) & set(wrong):
        with pytest.raises(BriefRefused) as refused:
            planned(kind, tryon={ask: f"{wrong[ask]:.1f}"})
        (problem,) = refused.value.problems
        assert (problem.field, problem.key) == (f"tryon.{ask}", "tryon_far")


@pytest.mark.parametrize("kind", KINDS)
def test_every_question_of_a_try_on_is_answered(kind: str) -> None:
    yes_no = {"passes_hand", "goes_on", "finger_under", "stays_on", "comfortable"}
    for ask in registered()[kind].asks:
        for value in [False, True] if ask in yes_no else _readings(kind, ask):
            righting = planned(kind, tryon={ask: value}).putting_right
            assert righting is not None, (ask, value)
            assert righting.settled or value is not True or ask == "finger_under"


@pytest.mark.parametrize("kind", [k for k in KINDS if registered()[k].eases])
def test_more_ease_never_shortens_the_cut(kind: str) -> None:
    lengths = [
        planned(kind, ease={"school": "fixed", "word": None, "amount": str(amount)})
        .cuts[0]
        .length_mm
        for amount in (2, 5, 9, 14, 22)
    ]
    assert lengths == sorted(lengths)


@pytest.mark.parametrize("kind", KINDS)
def test_choices_out_of_range_are_refused_by_name(kind: str) -> None:
    for name, (low, high) in registered()[kind].limits().items():
        whole = registered()[kind].model_fields[name].annotation is int
        for wrong in (high * 1.5 + 1, *([low / 2] if low else [])):
            wrong = math.floor(wrong) if whole else wrong
            with pytest.raises(BriefRefused) as refused:
                planned(kind, piece=with_own(kind, **{name: wrong}))
            assert refused.value.problems[0].field == f"piece.{name}"
            assert refused.value.problems[0].key == "out_of_range"


def test_the_families_of_the_trade_are_there() -> None:
    families = {cls.family for cls in registered().values()}
    assert families == {
        *("bracelet", "bangle", "anklet", "armlet"),
        *("necklace", "ear cuff", "earring", "headpiece"),
        *("brooch", "ring"),
    }


def test_the_hook_must_pass_its_eye() -> None:
    assert "hook_wide" not in advice(planned("hook_bracelet"))
    narrow = planned("hook_bracelet", piece=with_own("hook_bracelet", eye_pin="4"))
    assert narrow.advice[0].id == "hook_wide"


def test_a_bracelet_as_wide_as_the_hand_falls_off() -> None:
    wide = {"school": "fixed", "word": None, "amount": "50"}
    plan = planned("hook_bracelet", ease=wide)
    assert plan.fit_word == "falls_off"
    assert "falls_off" in advice(plan)
    assert plan.fit_says.startswith("falls off over the hand")


def test_the_fit_is_said_with_the_measures_doubt() -> None:
    assert planned("open_cuff").fit_says == "comfortable; the measure is good to ± 2.0 mm"


def test_copying_a_piece_that_fits() -> None:
    plan = planned("open_cuff", ease={"school": "copy", "inside_girth": "169.5"})
    assert plan.inside_girth_mm is not None
    assert plan.inside_girth_mm.value == 169.5
    with pytest.raises(BriefRefused) as refused:
        planned("open_cuff", ease={"school": "copy", "inside_girth": "110"})
    assert refused.value.problems[0].field == "ease.inside_girth"


def test_breadth_and_depth_shape_the_outline_or_contradict_the_girth() -> None:
    measures = deepcopy(BRIEFS["open_cuff"]["measures"])
    calliper = {"wrist_breadth": "57", "wrist_depth": "40"}
    for site, value in calliper.items():
        measures[site] = {"readings": [{"value": value, "method": "calliper"}]}
    plan = planned("open_cuff", measures=measures)
    across = next(d for d in plan.drawings.sheets[0].dimensions if d.label == "wrist across")
    assert across.value_mm == pytest.approx(57)
    measures["wrist_depth"] = {"readings": [{"value": "62", "method": "calliper"}]}
    with pytest.raises(BriefRefused) as refused:
        planned("open_cuff", measures=measures)
    assert refused.value.problems[0].field == "measures.wrist_depth"
    assert "contradict" in refused.value.problems[0].says


def test_an_ear_cuff_asks_for_the_rim_where_it_sits() -> None:
    with pytest.raises(BriefRefused) as refused:
        planned("ear_cuff", piece=with_own("ear_cuff", place="upper"))
    assert refused.value.problems[0].field == "measures.ear_rim_upper"
    two = planned("ear_cuff", piece=with_own("ear_cuff", rings="2"))
    one = planned("ear_cuff")
    # A second turn, climbing by a wire, and the same gap.
    inner, d = figure(one, "ear_inner"), one.cuts[0].wire_mm
    more = 2 * math.hypot(math.pi * (inner + d), d) - math.pi * (inner + d)
    assert figure(two, "centre_line") - figure(one, "centre_line") == pytest.approx(more)
    balled = planned("ear_cuff", piece=with_own("ear_cuff", ends="balled"))
    assert any(c.id == "torch" for c in balled.cautions)


def test_hard_wire_and_children_get_their_cautions() -> None:
    coil = planned("coil_bracelet")
    assert "own_shears" in advice(coil)
    assert any(c.id == "hard" for c in coil.cautions)
    assert "coil_metal" in advice(planned("coil_bracelet", wire={"size": "1 mm"}))
    child = planned("pendant_chain", child=True)
    assert any(c.id == "child" for c in child.cautions)
    assert {a.id: a.severity for a in child.advice}["child_neck"] == "fix"
    assert not any(c.id == "child" for c in planned("pendant_chain").cautions)


def test_a_rigid_ring_that_needs_pulling_open_says_how_it_goes_on_without() -> None:
    assert "twist_open_neck" in advice(planned("choker"))
    wide = planned("open_cuff", piece=with_own("open_cuff", gap="45"))
    assert not {"gap_narrow", "springs_on"} & set(advice(wide))


def test_a_closed_bangle_is_refused_for_a_hand_smaller_than_the_wrist() -> None:
    measures = deepcopy(BRIEFS["closed_bangle"]["measures"])
    measures["hand_pass_girth"] = {"readings": [{"value": "150"}]}
    with pytest.raises(BriefRefused, match="smaller than the wrist"):
        planned("closed_bangle", measures=measures)
    assert "hangs_loose" not in advice(planned("closed_bangle"))
    measures["hand_pass_girth"] = {"readings": [{"value": "225"}]}
    assert "hangs_loose" in advice(planned("closed_bangle", measures=measures))
