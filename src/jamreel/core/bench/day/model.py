"""The day as a problem for a solver.

Every go is a span of time that lies within one stretch of hours. Spans that take the same thing
never overlap where there is one of it, and never more than so many do where there are more; goes of
a piece follow each other, each behind the wait before it. What is asked of the solver in turn: the
least lateness over all pieces, then, with no more of that, the earliest end, then, with no more of
both, the fewest changes between pieces: these are counted on a walk that passes every go once, a
circuit whose steps from one go to the next say that the second begins when the first has ended.

Source: job-shop scheduling with CP-SAT's intervals and circuits, published; OR-Tools.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from itertools import pairwise
from typing import TYPE_CHECKING

from jamreel.core.bench.day.case import PLENTY, UNITS, Case, Go, Job
from jamreel.core.bench.day.placed import Starts, in_order, run, score, starts_of
from jamreel.core.bench.steps import Resource
from jamreel.core.cutting.work import Work
from jamreel.core.late import late

if TYPE_CHECKING:
    from ortools.sat.python import cp_model
else:
    cp_model = late("ortools.sat.python.cp_model")


class Model:
    """A case as a problem for the solver; with ``optional`` a piece may be left out of it, and one
    that is ``kept`` is done by its date."""

    def __init__(self, case: Case, *, optional: bool = False) -> None:
        self.case = case
        self.model = cp_model.CpModel()
        self.horizon = case.windows[-1][1] + sum(one.wait for one in case.goes)
        self.kept: dict[int, cp_model.IntVar] = {}
        if optional:
            self.kept = {job.id: self.model.new_bool_var(f"kept {job.id}") for job in case.jobs}
        self.starts = {(one.job, one.at): self._start(one) for one in case.goes}
        self.end = self.model.new_int_var(0, self.horizon, "end")
        self.late: list[cp_model.IntVar] = []
        for what, spans in self._uses().items():
            self._no_more_than(case.has.get(what, PLENTY), spans)
        for job in case.jobs:
            self._in_turn(job)
            self._by_its_date(job)
        self._first()

    def _start(self, one: Go) -> cp_model.IntVar:
        """Return when a go starts, such that it lies within one stretch."""
        fits = [[a, b - one.long] for a, b in self.case.windows if b - a >= one.long]
        domain = cp_model.Domain.from_intervals(fits)
        return self.model.new_int_var_from_domain(domain, f"{one.job}/{one.at}")

    def _uses(self) -> dict[Resource, list[cp_model.IntervalVar]]:
        """Return when each resource is in use: by hands, then by what waits in it."""
        found: dict[Resource, list[cp_model.IntervalVar]] = {}
        for one in self.case.goes:
            start = self.starts[one.job, one.at]
            for what in one.task.takes:
                found.setdefault(what, []).append(self._span(one, start, one.long))
            if one.wait and one.task.waits_in:
                span = self._span(one, start + one.long, one.wait)
                found.setdefault(one.task.waits_in, []).append(span)
        return found

    def _span(self, one: Go, begin: cp_model.LinearExprT, long: int) -> cp_model.IntervalVar:
        name = f"{one.job}/{one.at}"
        if not self.kept:
            return self.model.new_fixed_size_interval_var(begin, long, name)
        kept = self.kept[one.job]
        return self.model.new_optional_fixed_size_interval_var(begin, long, kept, name)

    def _no_more_than(self, most: int, spans: Sequence[cp_model.IntervalVar]) -> None:
        if most == 1:
            self.model.add_no_overlap(spans)
        elif most < len(spans):
            self.model.add_cumulative(spans, [1] * len(spans), most)

    def _in_turn(self, job: Job) -> None:
        mine = self.case.by_job[job.id]
        for before, after in pairwise(mine):
            begun = self.starts[job.id, before.at]
            self.model.add(self.starts[job.id, after.at] >= begun + before.long + before.wait)
        if mine:
            self.model.add(self.starts[job.id, mine[0].at] >= job.ready_at)

    def _by_its_date(self, job: Job) -> None:
        """Count how late a piece is, or have it kept only if it is not."""
        if not self.case.by_job[job.id]:
            return
        last = self.case.by_job[job.id][-1]
        done = self.starts[job.id, last.at] + last.long + last.wait
        if not self.kept:
            self.model.add(self.end >= done)
        if job.due_at is None:
            return
        if self.kept:
            self.model.add(done <= job.due_at).only_enforce_if(self.kept[job.id])
            return
        most = max(0, self.horizon - min(job.due_at, 0))
        by = self.model.new_int_var(0, most, f"late {job.id}")
        self.model.add(by >= done - job.due_at)
        self.late.append(by)

    def _first(self) -> None:
        if self.case.first is None:
            return
        for (job, _), start in self.starts.items():
            if job != self.case.first:
                self.model.add(self.starts[self.case.first, 0] <= start)

    def hint(self, starts: Starts) -> None:
        """Tell the solver where to begin to look."""
        self.model.clear_hints()  # type: ignore[no-untyped-call]
        for key, start in starts.items():
            self.model.add_hint(self.starts[key], start)

    def found(self, solver: cp_model.CpSolver) -> Mapping[tuple[int, int], int]:
        """Return when each go starts in an answer."""
        return {key: solver.value(start) for key, start in self.starts.items()}


def solve(case: Case, guess: Starts, budget: Work) -> tuple[Starts, bool, float]:
    """Return when each go starts, whether none is better, and before when nothing ends [min].

    Args:
        case: what is to be done.
        guess: where to begin to look; the answer where nothing better is found.
        budget: what it may cost.
    """
    built = Model(case)
    built.hint(guess)
    proven, found = True, guess
    if built.late:
        found, proven = _least_late(built, guess, budget)
        built.hint(found)
    built.model.minimize(built.end)
    solver = budget.solve(built.model, budget.left * 0.85)
    if solver is None:
        # Hands that never idle: nothing is said of waits and of what lies between the hours.
        busy = sum(one.long for one in case.goes) / case.has["hands"]
        return found, False, (case.windows[0][0] + busy) / UNITS
    bound = solver.best_objective_bound
    proven = proven and bound >= solver.objective_value - 0.5
    return built.found(solver), proven, bound / UNITS


def _least_late(built: Model, guess: Starts, budget: Work) -> tuple[Starts, bool]:
    """Return starts with the least lateness, and whether none has less; no later is allowed from
    then on."""
    lateness = sum(built.late)
    built.model.minimize(lateness)
    # Half of the time is kept for what comes after the dates.
    kept, budget.wall = (budget.wall or 0.0) / 2, (budget.wall or 0.0) / 2
    solver = budget.solve(built.model, budget.left * 0.5)
    budget.wall += kept
    if solver is None:
        return guess, False
    built.model.add(lateness <= round(solver.objective_value))
    return built.found(solver), solver.best_objective_bound >= solver.objective_value - 0.5


def calmest(
    case: Case, order: list[Go], budget: Work, most: tuple[float, float] | None = None
) -> list[Go]:
    """Return the order with the fewest changes between pieces among those as early and no later.

    Args:
        case: what is to be done.
        order: one of its orders; the answer where nothing better is found.
        budget: what it may cost.
        most: lateness and end not to be exceeded [min]; those of ``order`` unless given.
    """
    placed = run(case, order)
    if placed is None:
        return order
    late, end = most or score(case, placed)[:2]
    built = Model(case)
    built.model.add(built.end <= round(end * UNITS))
    if built.late:
        built.model.add(sum(built.late) <= round(late * UNITS))
    built.model.minimize(sum(_changes(built)))
    if most is None:
        built.hint(starts_of(placed))
    solver = budget.solve(built.model, budget.left)
    return order if solver is None else in_order(case, built.found(solver))


def _changes(built: Model) -> list[cp_model.IntVar]:
    """Return what says of any two goes of different pieces that one follows the other at once."""
    model, goes = built.model, built.case.goes
    arcs: list[tuple[int, int, cp_model.IntVar]] = []
    found: list[cp_model.IntVar] = []
    for i, one in enumerate(goes, 1):
        # Place 0 stands before the first go and behind the last.
        arcs += [(0, i, model.new_bool_var("")), (i, 0, model.new_bool_var(""))]
        for j, other in enumerate(goes, 1):
            if i == j or (one.job == other.job and other.at < one.at):
                continue
            goes_on = model.new_bool_var("")
            arcs.append((i, j, goes_on))
            done = built.starts[one.job, one.at] + one.long
            model.add(built.starts[other.job, other.at] >= done).only_enforce_if(goes_on)
            if one.job != other.job:
                found.append(goes_on)
    model.add_circuit(arcs)
    return found


def leave_out(case: Case, budget: Work) -> tuple[int, ...]:
    """Return the fewest pieces without which all others with a date are done in time; () where that
    is not found.

    Args:
        case: what is to be done.
        budget: what it may cost.
    """
    built = Model(case, optional=True)
    # A piece without a date is in nobody's way: it goes behind the others.
    dated = [job.id for job in case.jobs if job.due is not None]
    for job in case.jobs:
        if job.due is None:
            built.model.add(built.kept[job.id] == 0)
    built.model.maximize(sum(built.kept[one] for one in dated))
    solver = budget.solve(built.model, budget.left)
    if solver is None:
        return ()
    return tuple(one for one in dated if not solver.value(built.kept[one]))
