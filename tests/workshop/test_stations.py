"""Where a piece stands: every state of every station, and what the piece then waits for."""

import json
from typing import Any

import pytest

from jamreel.core.plan import BriefRefused, Plan, plan_raw
from jamreel.core.shop import Shop
from jamreel.core.words import Problem
from jamreel.core.workpiece.records import Record, Standing, done_steps, record_of_step, standing
from jamreel.workshop.stations import Facts, station_states, waits_for
from tests.conftest import EXAMPLES, WORKED

FORM = ("loop_up", "shape", "thread", "loop_down")
PLAN = plan_raw(WORKED, Shop())
CUT = (Record(kind="cut", key="bangle", planned=PLAN.cuts[0].length_mm, actual=245.5),)


def formed(plan: Plan, *names: str) -> tuple[Record, ...]:
    steps = [step for step in plan.steps if step.id in names]
    return tuple(record_of_step(plan.steps, step, step.id) for step in steps)


SHAPED = (*CUT, *formed(PLAN, *FORM))


def facts(plan: Plan | None, done: tuple[Record, ...] = (), **happened: bool) -> Facts:
    nothing = {"tried": False, "put_right": False, "finished": False}
    return Facts(
        standing=standing(plan, done) if plan else Standing(),
        steps=done_steps(plan, done) if plan else frozenset(),
        **{**nothing, **happened},
    )


def states(
    plan: Plan | None,
    problems: tuple[Problem, ...] = (),
    done: tuple[Record, ...] = (),
    **happened: bool,
) -> list[str]:
    found = station_states(plan, problems, facts(plan, done, **happened))
    return [state.state for state in found.values()]


def waits(
    plan: Plan | None,
    problems: tuple[Problem, ...] = (),
    done: tuple[Record, ...] = (),
    **happened: bool,
) -> str:
    known = facts(plan, done, **happened)
    return waits_for(station_states(plan, problems, known), known)


def problems_of(**parts: Any) -> tuple[Problem, ...]:
    try:
        plan_raw({**WORKED, **parts}, Shop())
    except BriefRefused as refused:
        return refused.problems
    raise AssertionError("not refused")


@pytest.mark.parametrize(
    ("happened", "wanted", "next_up"),
    [
        ({}, ["settled", "settled", "needs", "waiting", "waiting"], "cut"),
        ({"done": CUT}, ["settled", "settled", "settled", "needs", "waiting"], "form"),
        ({"done": SHAPED}, ["settled", "settled", "settled", "settled", "needs"], "try_on"),
        (
            {"done": SHAPED, "tried": True, "put_right": True},
            ["settled", "settled", "settled", "settled", "needs"],
            "put_right",
        ),
        (
            {"done": SHAPED, "finished": True},
            ["settled", "settled", "settled", "settled", "settled"],
            "done",
        ),
    ],
)
def test_from_plan_to_done(happened: dict[str, Any], wanted: list[str], next_up: str) -> None:
    assert states(PLAN, **happened) == wanted
    assert waits(PLAN, **happened) == next_up


def test_nothing_measured_waits_for_measuring() -> None:
    missing = problems_of(measures={})
    assert states(None, missing) == ["needs", "settled", "waiting", "waiting", "waiting"]
    assert waits(None, missing) == "measure"
    said = station_states(None, missing, facts(None))["measure"].says
    assert said == "needs a reading"


def test_a_wire_that_can_not_be_waits_for_a_decision() -> None:
    wrong = problems_of(wire={"size": "0.08"})
    assert states(None, wrong)[:2] == ["waiting", "needs"]
    assert waits(None, wrong) == "make_up"


def test_advice_to_mend_keeps_make_up_open() -> None:
    brief = json.loads((EXAMPLES / "hook-bracelet.json").read_text())
    brief["piece"]["eye_pin"] = "3"
    assert states(plan_raw(brief, Shop()))[1] == "needs"


def test_a_guess_waits_for_a_reading_until_the_wire_is_cut() -> None:
    brief = {**WORKED, "measures": dict(WORKED["measures"])}
    brief["measures"]["wrist_girth"] = {"guess": {"population": "wrist_men"}}
    plan = plan_raw(brief, Shop())
    assert waits(plan) == "measure"
    length = plan.cuts[0].length_mm
    cut = Record(kind="cut", key="bangle", planned=length, actual=length)
    assert waits(plan, done=(cut,)) == "form"
    # Cut for a plan that has moved on since, it no longer settles anything.
    old = cut.model_copy(update={"planned": 240.0, "actual": 240.0})
    assert states(plan, done=(old,))[2] == "stale"
    assert waits(plan, done=(old,)) == "measure"


def test_a_cut_goes_stale_when_its_length_moves_and_forming_when_its_former_does() -> None:
    longer = plan_raw({**WORKED, "cutting": {"trim": "2"}}, Shop())
    assert states(longer, done=CUT)[2] == "stale"
    assert waits(longer, done=CUT) == "cut"
    tools = Shop.model_validate(
        {"formers": [{"name": "tin", "kind": "household", "diameters": ["47"]}]}
    )
    other = plan_raw(WORKED, tools)
    assert states(other, done=SHAPED)[3] == "stale"
    assert "1 made to an older plan" in station_states(other, (), facts(other, SHAPED))["form"].says


def test_what_is_still_to_cut_is_counted() -> None:
    brief = json.loads((EXAMPLES / "linked-bracelet.json").read_text())
    plan = plan_raw(brief, Shop())
    wires = sum(cut.quantity for cut in plan.cuts)
    first = next(cut for cut in plan.cuts if cut.quantity > 1)
    done = Record(kind="cut", key=f"{first.id}#1", planned=first.length_mm, actual=first.length_mm)
    bare, begun = (station_states(plan, (), facts(plan, d))["cut"] for d in ((), (done,)))
    assert bare.says == "not cut yet"
    assert begun.says == f"{wires - 1} still to cut"
