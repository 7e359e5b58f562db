"""Where a piece stands: every state of every station, and what the piece then waits for."""

import json
from typing import Any

import pytest

from jamreel.core.plan import BriefRefused, Plan, plan_raw
from jamreel.core.shop import Shop
from jamreel.core.words import Problem
from jamreel.workshop.stations import Facts, station_states, waits_for
from tests.conftest import EXAMPLES, WORKED

FORM = frozenset({"loop_up", "shape", "thread", "loop_down"})
PLAN = plan_raw(WORKED, Shop())
FROZEN = json.loads(PLAN.model_dump_json())


def facts(**happened: Any) -> Facts:
    nothing: dict[str, Any] = {
        "cut": frozenset(),
        "steps": frozenset(),
        "frozen": None,
        "tried": False,
        "put_right": False,
        "finished": False,
    }
    return Facts(**{**nothing, **happened})


def states(plan: Plan | None, problems: tuple[Problem, ...] = (), **happened: Any) -> list[str]:
    found = station_states(plan, problems, facts(**happened))
    return [state.state for state in found.values()]


def waits(plan: Plan | None, problems: tuple[Problem, ...] = (), **happened: Any) -> str:
    known = facts(**happened)
    return waits_for(station_states(plan, problems, known), known)


def problems_of(**parts: Any) -> tuple[Problem, ...]:
    try:
        plan_raw({**WORKED, **parts}, Shop())
    except BriefRefused as refused:
        return refused.problems
    raise AssertionError("not refused")


CUT = {"cut": frozenset({"bangle"}), "frozen": FROZEN}


@pytest.mark.parametrize(
    ("happened", "wanted", "next_up"),
    [
        ({}, ["settled", "settled", "needs", "waiting", "waiting"], "cut"),
        (CUT, ["settled", "settled", "settled", "needs", "waiting"], "form"),
        ({**CUT, "steps": FORM}, ["settled", "settled", "settled", "settled", "needs"], "try_on"),
        (
            {**CUT, "steps": FORM, "tried": True, "put_right": True},
            ["settled", "settled", "settled", "settled", "needs"],
            "put_right",
        ),
        (
            {**CUT, "steps": FORM, "finished": True},
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
    said = station_states(None, missing, facts())["measure"].says
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
    cut = {"cut": frozenset({"bangle"}), "frozen": json.loads(plan.model_dump_json())}
    assert waits(plan, **cut) == "form"


def test_a_cut_goes_stale_when_its_length_moves_and_forming_when_its_former_does() -> None:
    longer = plan_raw({**WORKED, "cutting": {"trim": "2"}}, Shop())
    assert states(longer, **CUT)[2] == "stale"
    assert waits(longer, **CUT) == "cut"
    tools = Shop.model_validate(
        {"formers": [{"name": "tin", "kind": "household", "diameters": ["47"]}]}
    )
    other = plan_raw(WORKED, tools)
    assert states(other, **CUT, steps=FORM)[3] == "stale"
