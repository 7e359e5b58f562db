import math

import pytest

from tests.core.families import (
    D14,
    advice,
    example,
    figure,
    girths,
    ledger,
    loop,
    planned,
    steps,
    tried,
)

BRIEF = {
    **example("hook_bracelet"),
    "measures": girths(wrist_girth=163, hand_pass_girth=211),
    "wire": {"size": "14 awg", "metal": "brass", "temper": "half_hard"},
    "piece": {"kind": "hook_bracelet", "hook_pin": "5", "eye_pin": "7", "tip_pin": "2", "leg": "9"},
    "cutting": {"trim": "1.2", "margin": "4"},
}


def test_the_sums_on_paper() -> None:
    plan = planned(BRIEF)
    finished = 163 + 13 + math.pi * D14
    assert figure(plan, "finished") == pytest.approx(finished)
    body = finished - (7 + D14) - 5 / 2
    assert figure(plan, "body") == pytest.approx(body)
    hook = loop(2, D14, 0.75) + 9 + loop(5, D14, 0.5)
    assert ledger(plan, "hook") == pytest.approx(hook)
    eye = loop(7, D14)
    assert ledger(plan, "eye") == pytest.approx(eye)
    assert plan.cuts[0].length_mm == pytest.approx(body + hook + eye + 2 * 1.2 + 4)


@pytest.mark.parametrize(("sits", "beyond"), [("centred", 7 + D14), ("tangent", 3.5)])
def test_sum_step_and_drawing_mean_the_same_eye(sits: str, beyond: float) -> None:
    """Its inside lies so far beyond the end of its stem."""
    plan = planned(BRIEF, eye_sits=sits)
    assert ledger(plan, "less_eye") == pytest.approx(-beyond)
    says = next(s.says for s in plan.steps if s.id == "eye")
    assert f"{beyond:.1f} mm beyond the mark" in says
    section = plan.drawings.sheets[0]
    body, eye = (next(s for s in section.strokes if s.part == part) for part in ("body", "eye"))
    stem, before = body.points[-1], body.points[-2]
    ahead = math.dist(stem, before)
    along = [(stem[k] - before[k]) / ahead for k in (0, 1)]
    reach = [(p[0] - stem[0]) * along[0] + (p[1] - stem[1]) * along[1] for p in eye.points]
    # The wire's own half thickness lies between its middle and its inside; the wrist curves away.
    assert max(reach) - D14 / 2 == pytest.approx(
        beyond - (D14 / 2 if sits == "centred" else 0), abs=1
    )


def test_marks_stand_where_the_hook_ends_and_the_eye_begins() -> None:
    plan = planned(BRIEF)
    hook = loop(2, D14, 0.75) + 9 + loop(5, D14, 0.5)
    body = figure(plan, "body")
    places = {mark.label: mark.at_mm for mark in plan.cuts[0].marks}
    assert places["hook ends"] == pytest.approx(1.2 + hook)
    assert places["centre"] == pytest.approx(1.2 + hook + body / 2)
    assert places["body ends"] == pytest.approx(1.2 + hook + body)
    assert plan.cuts[0].marks[-1].at_mm == pytest.approx(plan.cuts[0].length_mm - 1.2 - 4)


def test_bends_come_in_order_with_their_own_pins() -> None:
    bends = planned(BRIEF).bends
    assert [b.pin for b in bends] == [2, 5, 7]
    assert [b.side for b in bends] == ["right", "left", "left"]
    assert bends[1].places[0].at_mm[0] == pytest.approx(1.2 + loop(2, D14, 0.75) + 9)
    assert bends[1].angle == pytest.approx(math.pi)
    assert bends[2].tool_mm == 6  # the nearest that the shop has
    assert "pin_missing" in advice(planned(BRIEF))
    assert bends[2].opens_to_mm > 7


def test_the_tip_is_curled_before_the_hook_is_bent_and_the_eye_comes_last() -> None:
    order = steps(planned(BRIEF))
    turns = [order.index(one) for one in ("tip", "hook", "shape", "half", "eye", "try_on_wrist")]
    assert turns == sorted(turns)


def test_the_curled_tip_needs_room_in_the_eye() -> None:
    least = 2 + 2 * D14 + 0.3
    assert "hook_wide" in advice(planned(BRIEF, eye_pin=least - 0.05))
    assert "hook_wide" not in advice(planned(BRIEF, eye_pin=least + 0.05))


def test_too_big_comes_off_at_the_eye() -> None:
    righting = tried(BRIEF, inside_girth="181.5")
    assert righting.verdict == "hooked_big"
    assert righting.amount_mm == pytest.approx(5.5)
    assert righting.snip_mm == pytest.approx(5.5 + loop(7, D14))
    assert [(c.before_mm, c.after_mm) for c in righting.changes] == [(181.5, 176)]
    assert tried(BRIEF, inside_girth="170").verdict == "hooked_small"
    assert tried(BRIEF, inside_girth="177").settled
    assert tried(BRIEF, goes_on=False).verdict == "open_sideways"
    assert tried(BRIEF, comfortable=False).verdict == "tape_it"


def test_it_is_drawn_with_hook_and_eye_on_the_wrist() -> None:
    (section, eye, former, oval) = planned(BRIEF).drawings.sheets
    assert {s.part for s in section.strokes} == {"skin", "body", "eye", "hook"}
    assert (eye.id, former.id, oval.id) == ("loop", "former", "oval")
