"""Where a piece stands: the state of each station, and what the piece waits for."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal, cast

from jamreel.core.plan import Plan
from jamreel.core.words import Problem, say
from jamreel.core.workpiece.records import Standing

State = Literal["settled", "needs", "stale", "waiting"]
WaitsFor = Literal["measure", "make_up", "cut", "form", "try_on", "put_right", "done"]

STATIONS = ("measure", "make_up", "cut", "form", "fit")


@dataclass(frozen=True)
class Facts:
    """What has happened to a piece, beside its brief."""

    standing: Standing
    steps: frozenset[str]
    tried: bool
    put_right: bool
    finished: bool


@dataclass(frozen=True)
class StationState:
    """One station's state and the words under its name."""

    state: State
    says: str


def station_states(
    plan: Plan | None, problems: tuple[Problem, ...], facts: Facts
) -> dict[str, StationState]:
    """Return the state of every station, in bench order."""
    return {
        "measure": _measure(plan, problems),
        "make_up": _make_up(plan, problems),
        "cut": _cut(plan, facts),
        "form": _form(plan, facts),
        "fit": _fit(plan, facts),
    }


def waits_for(states: Mapping[str, StationState], facts: Facts) -> WaitsFor:
    """Return what a piece waits for: the first station that is not settled.

    A fit to put right comes before all else. Once the wire is cut and the cut still holds, a
    doubtful measure no longer holds it up.
    """
    if facts.finished:
        return "done"
    if facts.put_right:
        return "put_right"
    underway = states["cut"].state == "settled"
    wanting = ("needs", "stale")
    for station in STATIONS[2:] if underway else STATIONS:
        if states[station].state in wanting:
            return "try_on" if station == "fit" else cast(WaitsFor, station)
    return "try_on" if underway else "make_up"


def _measure(plan: Plan | None, problems: tuple[Problem, ...]) -> StationState:
    wrong = [p for p in problems if p.field.startswith("measures")]
    if wrong:
        missing = all(p.key == "no_reading" for p in wrong)
        return StationState(
            "needs", say("station.no_reading" if missing else "station.ask_another")
        )
    if plan is None:
        return StationState("waiting", say("station.wait"))
    for key, met in (
        ("guessed", any(g.guessed for g in plan.girths)),
        ("ask_another", any(g.ask_another for g in plan.girths)),
    ):
        if met:
            return StationState("needs", say(f"station.{key}"))
    alone = any(g.count == 1 for g in plan.girths)
    return StationState("settled", say("station.one_reading" if alone else "station.agree"))


def _make_up(plan: Plan | None, problems: tuple[Problem, ...]) -> StationState:
    if any(not p.field.startswith("measures") for p in problems):
        return StationState("needs", say("station.to_decide"))
    if plan and any(a.severity == "fix" and a.field != "cut" for a in plan.advice):
        return StationState("needs", say("station.to_decide"))
    return StationState("settled", say("station.decided"))


def _cut(plan: Plan | None, facts: Facts) -> StationState:
    if plan is None:
        return StationState("waiting", say("station.wait"))
    off = [wire for wire in facts.standing.wires if not wire.settled]
    if off:
        return StationState("stale", say("station.cut_stale", count=len(off)))
    wanted = len(facts.standing.open_wires)
    if wanted:
        key = "station.still_to_cut" if facts.standing.wires else "station.to_cut"
        return StationState("needs", say(key, count=wanted))
    return StationState("settled", say("station.cut"))


def _form(plan: Plan | None, facts: Facts) -> StationState:
    if plan is None:
        return StationState("waiting", say("station.wait"))
    wanted = {s.id: s.stands_for for s in plan.steps if s.station == "form"}
    keys = {key for stands_for in wanted.values() for key in stands_for}
    changed = [s for s in facts.standing.steps if s.verdict == "changed" and s.key in keys]
    if changed:
        return StationState("stale", say("station.formed_stale", count=len(changed)))
    done = sum(1 for step in wanted if step in facts.steps)
    if done < len(wanted):
        state: State = "needs" if facts.standing.wires else "waiting"
        return StationState(state, say("station.to_form", done=done, all=len(wanted)))
    return StationState("settled", say("station.formed"))


def _fit(plan: Plan | None, facts: Facts) -> StationState:
    if facts.finished:
        return StationState("settled", say("station.done"))
    if facts.put_right:
        return StationState("needs", say("station.put_right"))
    if facts.tried:
        return StationState("needs", say("station.tried"))
    formed = plan is not None and all(
        s.id in facts.steps for s in plan.steps if s.station == "form"
    )
    return StationState("needs" if formed else "waiting", say("station.not_tried"))
