"""The closed bangle and the overlapping bangle."""

import math

import pytest

from jamreel.core.body.outline import usual_outline
from tests.core.families import advice, example, figure, girths, ledger, planned, steps, tried

CLOSED = {
    **example("closed_bangle"),
    "measures": girths(wrist_girth=161, hand_pass_girth=207),
    "wire": {"size": "2.4 mm", "metal": "sterling", "temper": "half_hard"},
}
OVERLAP = {
    **example("overlap_bangle"),
    "measures": girths(wrist_girth=161),
    "wire": {"size": "2.4 mm", "metal": "brass", "temper": "half_hard"},
}


def test_a_closed_bangle_is_as_wide_as_the_hand() -> None:
    plan = planned(CLOSED, over_hand="3")
    assert figure(plan, "inside") == 210
    assert figure(plan, "centre_line") == pytest.approx(210 + math.pi * 2.4)
    assert figure(plan, "closed_diameter") == pytest.approx(210 / math.pi)
    assert figure(plan, "hang") == 49
    assert plan.fit_word == "hangs"
    assert plan.ease_options == ()


def test_it_is_tried_on_before_it_is_soldered_with_the_cautions_of_fire_and_acid() -> None:
    plan = planned(CLOSED)
    order = steps(plan)
    assert order.index("try_first") < order.index("solder") < order.index("round")
    solder = next(s for s in plan.steps if s.id == "solder")
    assert {"torch", "pickle"} <= set(solder.cautions)
    assert "qualified" in " ".join(c.because for c in plan.cautions if c.id == "torch")


def test_a_third_over_the_wrist_hangs_loose() -> None:
    assert "hangs_loose" not in advice(planned(CLOSED, over_hand="7"))  # 53 of 161
    assert "hangs_loose" in advice(planned(CLOSED, over_hand="8"))


def test_try_ons_of_a_closed_bangle() -> None:
    assert tried(CLOSED, inside_girth="213").verdict == "closed_big"
    assert tried(CLOSED, inside_girth="213").amount_mm == pytest.approx(6)
    assert tried(CLOSED, inside_girth="201").verdict == "closed_small"
    assert tried(CLOSED, passes_hand=False, inside_girth="207").verdict == "hand_again"
    assert tried(CLOSED, passes_hand=False).verdict == "closed_measure"
    assert tried(CLOSED, stays_on=False).verdict == "closed_slides"
    assert tried(CLOSED, passes_hand=True).settled


def test_an_overlapping_bangle_adds_what_passes() -> None:
    plan = planned(OVERLAP, overlap="12")
    assert figure(plan, "inside") == 174
    assert figure(plan, "centre_line") == pytest.approx(174 + math.pi * 2.4 + 12)
    assert ledger(plan, "ends_over") == 12
    assert figure(plan, "cut") == pytest.approx(figure(plan, "centre_line") + 3)


def test_more_overlap_needs_more_opening_to_go_on() -> None:
    says = [advice(planned(OVERLAP, overlap=str(o)))["spring_side_bends"] for o in (5, 15)]
    pulled = [float(s.split("must part by ")[1].split(" ")[0]) for s in says]
    assert pulled[1] - pulled[0] == pytest.approx(10, abs=0.11)
    # The wrist's thin side, less the tenth that flesh gives, and the ends past each other.
    wrist = OVERLAP["measures"]["wrist_girth"]["readings"][0]["value"]
    thin = 2 * usual_outline("wrist", wrist).through
    assert pulled[0] == pytest.approx(0.9 * thin + 5, abs=0.06)


def test_over_a_known_hand_it_opens_by_what_the_hand_is_more() -> None:
    inside = figure(planned(OVERLAP), "inside")
    known = {**OVERLAP, "measures": {**OVERLAP["measures"], **girths(hand_pass_girth=inside + 20)}}
    plan = planned(known)
    assert "must part by 20.0 mm" in advice(plan)["spring_hand_bends"]
    says = next(s.says for s in plan.steps if s.id == "try_on")
    assert "over the hand; the ends pass each other by 20.0 mm" in says
    thin = {"size": "1 mm", "metal": "bronze", "temper": "spring"}
    assert (
        "spring 20.0 mm apart and close again"
        in advice(planned({**known, "wire": thin}))["spring_hand"]
    )


def test_try_ons_of_an_overlapping_bangle() -> None:
    more = tried(OVERLAP, inside_girth="180")
    assert (more.verdict, more.amount_label) == ("overlap_more", "close by")
    assert more.amount_mm == pytest.approx(6)
    assert tried(OVERLAP, inside_girth="168").verdict == "overlap_less"
    assert tried(OVERLAP, goes_on=False).verdict == "overlap_stuck"


def test_the_ends_are_drawn_one_outside_the_other() -> None:
    section = planned(OVERLAP, overlap="12").drawings.sheets[0]
    outer, inner = (next(s for s in section.strokes if s.part == p) for p in ("body", "body_end"))
    assert outer.points[0][1] > inner.points[-1][1] + 1
    overlap = next(d for d in section.dimensions if d.label == "overlap")
    assert overlap.value_mm == 12
