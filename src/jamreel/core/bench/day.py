"""A day at the bench: the steps of several pieces in an order that ends soonest.

Every step takes hands (and perhaps the torch) for its minutes, and may then be left alone for a
while, in the pickle, the tumbler, a clamp or nothing. Due dates come first: least lateness, then
the earliest end, then the fewest changes between pieces.
"""

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from itertools import pairwise

from ortools.sat.python import cp_model

from jamreel.core.bench.steps import Resource
from jamreel.core.cutting.work import Work
from jamreel.core.errors import Refusal

# Times are counted in quarters of a minute.
UNITS = 4
DAY_MIN = 24 * 60
# A step that is longer is done in several goes, with a break between if need be [min].
MOST_AT_ONCE = 45.0
# Of so many goes the calmest order is found for sure; of more a calmer one is looked for.
MOST_EXACT = 24
# Goes that are run through in search of a calmer order.
CALM_TRIES = 150_000
MOST_TASKS, MOST_JOBS, MOST_DAYS = 240, 20, 45
# Work that a plan may cost [s of a common machine].
WORK_S = 2.0
# However large it is, the solver is stopped after so long [s].
WALL_S = 3.0
Has = Mapping[Resource, int]
# What can be in use without limit unless the bench says otherwise.
PLENTY = 99


@dataclass(frozen=True)
class Task:
    """A step of a piece: so many minutes with some resources, then left alone for a while."""

    id: str
    title: str
    minutes: float
    takes: tuple[Resource, ...] = ("hands",)
    waits: float = 0.0
    waits_in: Resource | None = None


@dataclass(frozen=True)
class Job:
    """A piece with its steps in order, all in minutes from the first moment of the plan: when it is
    ``due``, None for whenever, and from when it is ``ready``, where it is left alone just now."""

    id: int
    name: str
    tasks: tuple[Task, ...]
    due: float | None = None
    ready: float = 0.0


@dataclass(frozen=True)
class Hours:
    """When there are hands at the bench [min from the first moment of the plan], one stretch after
    the other on the first day, and the same on every day behind it."""

    today: tuple[tuple[float, float], ...]
    later: tuple[tuple[float, float], ...]


@dataclass(frozen=True)
class Placed:
    """A step, or one go of it, at its time [min]; its piece is left alone until ``free``."""

    job: int
    task: str
    title: str
    start: float
    end: float
    free: float
    part: int = 1
    parts: int = 1


@dataclass(frozen=True)
class Late:
    """A piece that is not done when it is due, and by how much [min]."""

    job: int
    name: str
    by: float


@dataclass(frozen=True)
class Scheduled:
    """An order of work: what is done when, when the last piece is done [min], what is late, and
    what to leave out so that the rest is not; how sure it is that nothing ends sooner.

    ``proven`` says that no order is better; otherwise none ends before ``bound`` [min].
    """

    placed: tuple[Placed, ...]
    end: float
    late: tuple[Late, ...]
    leave_out: tuple[int, ...]
    changes: int
    proven: bool
    bound: float


@dataclass(frozen=True)
class _Go:
    """One go of a step, in units of time."""

    job: int
    at: int
    task: Task
    long: int
    wait: int
    part: int
    parts: int


@dataclass
class _Model:
    """The steps as a problem for the solver."""

    model: cp_model.CpModel
    starts: dict[tuple[int, int], cp_model.IntVar]
    end: cp_model.IntVar
    late: list[cp_model.IntVar]
    kept: dict[int, cp_model.IntVar] = field(default_factory=dict)


def schedule(
    jobs: Sequence[Job],
    hours: Hours,
    there_is: Mapping[Resource, int],
    first: int | None = None,
    work: float = WORK_S,
) -> Scheduled:
    """Return an order of work for some pieces.

    Args:
        jobs: the pieces.
        hours: when there are hands.
        there_is: how much of each resource; what is not named there is plenty of, but of hands and
            torch one.
        first: the piece that goes first, where the maker wants one to.
        work: that it may cost [s of a common machine].

    Raises:
        Refusal: too much for one plan, no hours, a step that needs what the bench has none of.

    Source: job-shop scheduling, published; solved by OR-Tools' CP-SAT.
    """
    goes = _goes(jobs)
    windows = _windows(jobs, goes, hours)
    has: Has = {"hands": 1, "torch": 1, **there_is}
    _possible(jobs, goes, has, windows)
    if not goes:
        return Scheduled((), 0.0, (), (), 0, True, 0.0)
    budget = Work(work, WALL_S)
    starts, proven, bound = _solved(jobs, goes, windows, has, first, budget)
    order = sorted(goes, key=lambda one: (starts[one.job, one.at], one.job, one.at))
    if has["hands"] == 1 and len(goes) <= MOST_EXACT:
        order = _calmest(jobs, goes, order, windows, has, first, budget)
    else:
        order = _steadiest(jobs, goes, order, windows, has, first)
        order = _in_blocks(jobs, order, goes, windows, has, first, budget)
        order = _calmer(jobs, order, windows, has, first)
    placed = _run(jobs, order, windows, has)
    if (
        placed is None
        or _score(jobs, placed)[:2] > _score(jobs, _as_placed(jobs, goes, starts))[:2]
    ):
        placed = _as_placed(jobs, goes, starts)
    late = tuple(_late(jobs, placed))
    out = _leave_out(jobs, goes, windows, has, budget) if late else ()
    return Scheduled(
        placed=placed,
        end=max(one.free for one in placed),
        late=late,
        leave_out=out,
        changes=_changes(placed),
        proven=proven,
        bound=bound,
    )


def _goes(jobs: Sequence[Job]) -> list[_Go]:
    """Return every step in goes that fit between two breaks."""
    found = []
    for job in jobs:
        at = 0
        for task in job.tasks:
            parts = max(1, math.ceil(task.minutes / MOST_AT_ONCE))
            long = max(1, math.ceil(task.minutes / parts * UNITS - 1e-9))
            for part in range(1, parts + 1):
                wait = math.ceil(task.waits * UNITS - 1e-9) if part == parts else 0
                found.append(_Go(job.id, at, task, long, wait, part, parts))
                at += 1
    return found


def _windows(jobs: Sequence[Job], goes: Sequence[_Go], hours: Hours) -> list[tuple[int, int]]:
    """Return when there are hands, as far ahead as the work can last, in units."""
    each = sum(b - a for a, b in hours.later)
    if not hours.today and not hours.later:
        raise Refusal("day_hours", got=None, field="hours")
    total = sum(one.long for one in goes) / UNITS
    alone = sum(one.wait for one in goes) / UNITS + max((job.ready for job in jobs), default=0.0)
    days = 3 + math.ceil(2 * total / max(each, 1.0)) + math.ceil(alone / DAY_MIN)
    if days > MOST_DAYS:
        raise Refusal("day_much", got=f"{days} days", field="pieces", most=MOST_DAYS)
    every = list(hours.today)
    for day in range(1, days):
        every += [(a + day * DAY_MIN, b + day * DAY_MIN) for a, b in hours.later]
    whole = [(math.ceil(a * UNITS), math.floor(b * UNITS)) for a, b in sorted(every)]
    return [(a, b) for a, b in whole if b > a]


def _possible(
    jobs: Sequence[Job],
    goes: Sequence[_Go],
    has: Has,
    windows: Sequence[tuple[int, int]],
) -> None:
    if len(jobs) > MOST_JOBS or len(goes) > MOST_TASKS:
        raise Refusal("day_much", got=len(goes), field="pieces", most=MOST_TASKS)
    for one in goes:
        for what in (*one.task.takes, *((one.task.waits_in,) if one.task.waits_in else ())):
            if has.get(what, PLENTY) < 1:
                raise Refusal("day_lacks", got=what, field=f"there_is.{what}", step=one.task.title)
    longest = max((one.long for one in goes), default=0)
    if goes and max((b - a for a, b in windows), default=0) < longest:
        raise Refusal("day_short", got=None, field="hours", least=math.ceil(longest / UNITS))


def _build(
    jobs: Sequence[Job],
    goes: Sequence[_Go],
    windows: Sequence[tuple[int, int]],
    has: Has,
    first: int | None,
    *,
    optional: bool = False,
) -> _Model:
    """Return the problem: steps in their order, within the hours, no more in use than there is."""
    model = cp_model.CpModel()
    horizon = windows[-1][1] + sum(one.wait for one in goes)
    kept = {job.id: model.new_bool_var(f"kept {job.id}") for job in jobs} if optional else {}
    starts: dict[tuple[int, int], cp_model.IntVar] = {}
    uses: dict[Resource, list[cp_model.IntervalVar]] = {}
    for one in goes:
        fits = [[a, b - one.long] for a, b in windows if b - a >= one.long]
        name = f"{one.job}/{one.at}"
        start = model.new_int_var_from_domain(cp_model.Domain.from_intervals(fits), name)
        starts[one.job, one.at] = start

        def span(
            begin: object, long: int, job: int = one.job, name: str = name
        ) -> cp_model.IntervalVar:
            if optional:
                return model.new_optional_fixed_size_interval_var(begin, long, kept[job], name)  # type: ignore[arg-type]
            return model.new_fixed_size_interval_var(begin, long, name)  # type: ignore[arg-type]

        for what in one.task.takes:
            uses.setdefault(what, []).append(span(start, one.long))
        if one.wait and one.task.waits_in:
            uses.setdefault(one.task.waits_in, []).append(span(start + one.long, one.wait))
    for what, spans in uses.items():
        most = has.get(what, PLENTY)
        if most == 1:
            model.add_no_overlap(spans)
        elif most < len(spans):
            model.add_cumulative(spans, [1] * len(spans), most)
    end = model.new_int_var(0, horizon, "end")
    late = []
    for job in jobs:
        mine = [one for one in goes if one.job == job.id]
        for before, after in pairwise(mine):
            model.add(
                starts[job.id, after.at] >= starts[job.id, before.at] + before.long + before.wait
            )
        if not mine:
            continue
        model.add(starts[job.id, 0] >= math.ceil(job.ready * UNITS))
        last = mine[-1]
        done = starts[job.id, last.at] + last.long + last.wait
        if not optional:
            model.add(end >= done)
        if job.due is not None:
            due = math.floor(job.due * UNITS)
            if optional:
                model.add(done <= due).only_enforce_if(kept[job.id])
            else:
                by = model.new_int_var(0, max(0, horizon - min(due, 0)), f"late {job.id}")
                model.add(by >= done - due)
                late.append(by)
    if first is not None and (first, 0) in starts:
        for (job_id, _), start in starts.items():
            if job_id != first:
                model.add(starts[first, 0] <= start)
    return _Model(model, starts, end, late, kept)


def _solved(
    jobs: Sequence[Job],
    goes: Sequence[_Go],
    windows: Sequence[tuple[int, int]],
    has: Has,
    first: int | None,
    budget: Work,
) -> tuple[dict[tuple[int, int], int], bool, float]:
    """Return when each go starts, whether none is better, and before when nothing ends [min]."""
    built = _build(jobs, goes, windows, has, first)
    guess = _greedy(jobs, goes, windows, has, first)
    for key, start in guess.items():
        built.model.add_hint(built.starts[key], start)
    lateness = sum(built.late) if built.late else 0
    proven, found = True, guess
    if built.late:
        built.model.minimize(lateness)
        # Half of the time is kept for what comes after the dates.
        kept, budget.wall = (budget.wall or 0.0) / 2, (budget.wall or 0.0) / 2
        solver = budget.solve(built.model, budget.left * 0.5)
        budget.wall += kept
        if solver is not None:
            found = {key: solver.value(start) for key, start in built.starts.items()}
            proven = solver.best_objective_bound >= solver.objective_value - 0.5
            built.model.add(lateness <= round(solver.objective_value))
        built.model.clear_hints()  # type: ignore[no-untyped-call]
        for key, start in found.items():
            built.model.add_hint(built.starts[key], start)
    built.model.minimize(built.end)
    solver = budget.solve(built.model, budget.left * 0.85)
    if solver is None:
        # Hands that never idle: nothing is said of waits and hours.
        return found, False, sum(one.long for one in goes) / UNITS / has["hands"]
    found = {key: solver.value(start) for key, start in built.starts.items()}
    bound = solver.best_objective_bound
    proven = proven and bound >= solver.objective_value - 0.5
    return found, proven, bound / UNITS


def _greedy(
    jobs: Sequence[Job],
    goes: Sequence[_Go],
    windows: Sequence[tuple[int, int]],
    has: Has,
    first: int | None,
) -> dict[tuple[int, int], int]:
    """Return a first order to start from: what is due first goes first, hands stay with it."""
    due = {job.id: (job.id != first, job.due is None, job.due or 0.0) for job in jobs}
    order = sorted(goes, key=lambda one: (due[one.job], one.job, one.at))
    steady = _steadiest(jobs, goes, order, windows, has, first)
    return _starts_of(_run(jobs, steady, windows, has) or ())


def _run(
    jobs: Sequence[Job],
    order: Sequence[_Go],
    windows: Sequence[tuple[int, int]],
    has: Has,
) -> tuple[Placed, ...] | None:
    """Return goes done in an order by one pair of hands, each as early as can be; None where
    something there is but once stays in use too long, or several pairs of hands are at work."""
    if has["hands"] != 1:
        return None
    free = {job.id: math.ceil(job.ready * UNITS) for job in jobs}
    in_use: dict[Resource, list[int]] = {}
    now, placed = 0, []
    for one in order:
        start = max(now, free[one.job])
        wait_in = one.task.waits_in if one.wait else None
        if wait_in:
            # It goes into the pot as it leaves the hands: there has to be room then.
            busy = sorted(in_use.get(wait_in, []))
            most = has.get(wait_in, PLENTY)
            if len(busy) >= most:
                start = max(start, busy[-most] - one.long)
        start_in = _in_hours(start, one.long, windows)
        if start_in is None:
            return None
        end = start_in + one.long
        if wait_in:
            in_use.setdefault(wait_in, []).append(end + one.wait)
        now, free[one.job] = end, end + one.wait
        placed.append(_placed(one, start_in))
    return tuple(placed)


def _in_hours(start: int, long: int, windows: Sequence[tuple[int, int]]) -> int | None:
    for a, b in windows:
        at = max(start, a)
        if at + long <= b:
            return at
    return None


def _placed(one: _Go, start: int) -> Placed:
    end = start + one.long
    return Placed(
        job=one.job,
        task=one.task.id,
        title=one.task.title,
        start=start / UNITS,
        end=end / UNITS,
        free=(end + one.wait) / UNITS,
        part=one.part,
        parts=one.parts,
    )


def _as_placed(
    jobs: Sequence[Job], goes: Sequence[_Go], starts: Mapping[tuple[int, int], int]
) -> tuple[Placed, ...]:
    order = sorted(goes, key=lambda one: (starts[one.job, one.at], one.job, one.at))
    return tuple(_placed(one, starts[one.job, one.at]) for one in order)


def _score(jobs: Sequence[Job], placed: Sequence[Placed]) -> tuple[float, float, int]:
    """Return what makes an order good: lateness, end, changes; less is better."""
    lateness = sum(one.by for one in _late(jobs, placed))
    return round(lateness, 6), max(one.free for one in placed), _changes(placed)


def _calmest(
    jobs: Sequence[Job],
    goes: Sequence[_Go],
    order: list[_Go],
    windows: Sequence[tuple[int, int]],
    has: Has,
    first: int | None,
    budget: Work,
    most: tuple[float, float] | None = None,
) -> list[_Go]:
    """Return the order with the fewest changes between pieces among those as early and no later:
    a walk past every go once, on which each begins when the one before it ends."""
    placed = _run(jobs, order, windows, has)
    if placed is None:
        return order
    late, end = most or _score(jobs, placed)[:2]
    built = _build(jobs, goes, windows, has, first)
    model = built.model
    arcs: list[tuple[int, int, cp_model.IntVar]] = []
    changes: list[cp_model.IntVar] = []
    for i, one in enumerate(goes, 1):
        arcs += [(0, i, model.new_bool_var("")), (i, 0, model.new_bool_var(""))]
        for j, other in enumerate(goes, 1):
            if i == j or (one.job == other.job and other.at < one.at):
                continue
            goes_on = model.new_bool_var("")
            arcs.append((i, j, goes_on))
            after = built.starts[other.job, other.at] >= built.starts[one.job, one.at] + one.long
            model.add(after).only_enforce_if(goes_on)
            if one.job != other.job:
                changes.append(goes_on)
    model.add_circuit(arcs)
    model.add(built.end <= round(end * UNITS))
    if built.late:
        model.add(sum(built.late) <= round(late * UNITS))
    model.minimize(sum(changes))
    for key, start in _starts_of(placed).items() if most is None else ():
        model.add_hint(built.starts[key], start)
    solver = budget.solve(model, budget.left)
    if solver is None:
        return order
    return sorted(goes, key=lambda one: solver.value(built.starts[one.job, one.at]))


def _starts_of(placed: Sequence[Placed]) -> dict[tuple[int, int], int]:
    """Return when each go starts, by its piece and its place there, in units."""
    at: dict[int, int] = {}
    found = {}
    for one in placed:
        n = at.get(one.job, 0)
        found[one.job, n] = round(one.start * UNITS)
        at[one.job] = n + 1
    return found


def _in_blocks(
    jobs: Sequence[Job],
    order: list[_Go],
    goes: Sequence[_Go],
    windows: Sequence[tuple[int, int]],
    has: Has,
    first: int | None,
    budget: Work,
) -> list[_Go]:
    """Return an order in which what can be done in one go is, where that is as early and calmer;
    the blocks are few enough to find the calmest order of them."""
    placed = _run(jobs, order, windows, has)
    blocks, holds = _blocks(goes)
    if placed is None or len(blocks) > MOST_EXACT:
        return order
    score = _score(jobs, placed)
    ordered = _calmest(jobs, blocks, list(blocks), windows, has, first, budget, score[:2])
    found = [go for block in ordered for go in holds[block.job, block.at]]
    again = _run(jobs, found, windows, has)
    return found if again is not None and _score(jobs, again) < score else order


def _blocks(goes: Sequence[_Go]) -> tuple[list[_Go], dict[tuple[int, int], list[_Go]]]:
    """Return goes put together up to their next wait, as long as one go may be, and what each
    holds."""
    blocks: list[_Go] = []
    holds: dict[tuple[int, int], list[_Go]] = {}
    for one in goes:
        last = blocks[-1] if blocks and blocks[-1].job == one.job else None
        if last and not last.wait and last.long + one.long <= MOST_AT_ONCE * UNITS:
            task = replace(one.task, takes=tuple({*last.task.takes, *one.task.takes}))
            blocks[-1] = replace(one, at=last.at, task=task, long=last.long + one.long)
        else:
            blocks.append(replace(one, at=last.at + 1 if last else 0))
        holds.setdefault((one.job, blocks[-1].at), []).append(one)
    return blocks, holds


def _steadiest(
    jobs: Sequence[Job],
    goes: Sequence[_Go],
    order: list[_Go],
    windows: Sequence[tuple[int, int]],
    has: Has,
    first: int | None,
) -> list[_Go]:
    """Return the best of an order and of those in which hands stay with a piece as long as it can
    be gone on with, whichever piece they begin with."""
    placed = _run(jobs, order, windows, has)
    if placed is None:
        return order
    best, found = _score(jobs, placed), order
    by_date = sorted(jobs, key=lambda job: (job.due is None, job.due or 0.0, job.id))
    for begin in by_date:
        if first is not None and begin.id != first:
            continue
        ranks = [begin.id, *(job.id for job in by_date if job.id != begin.id)]
        steady = _staying(jobs, goes, ranks)
        again = _run(jobs, steady, windows, has)
        if again is not None and _score(jobs, again) < best:
            best, found = _score(jobs, again), steady
    return found


def _staying(jobs: Sequence[Job], goes: Sequence[_Go], ranks: Sequence[int]) -> list[_Go]:
    """Return an order in which hands stay with a piece until it is left alone; then the next by
    rank that can be gone on with, else the one that can be soonest."""
    left = {job.id: [one for one in goes if one.job == job.id] for job in jobs}
    free = {job.id: math.ceil(job.ready * UNITS) for job in jobs}
    order: list[_Go] = []
    now, at = 0, ranks[0]
    while any(left.values()):
        open_ = [one for one in ranks if left[one]]
        ready = [one for one in open_ if free[one] <= now]
        if at not in ready:
            at = ready[0] if ready else min(open_, key=lambda one: (free[one], ranks.index(one)))
        go = left[at].pop(0)
        now = max(now, free[at]) + go.long
        free[at] = now + go.wait
        order.append(go)
    return order


def _calmer(
    jobs: Sequence[Job],
    order: list[_Go],
    windows: Sequence[tuple[int, int]],
    has: Has,
    first: int | None,
) -> list[_Go]:
    """Return an order with fewer changes between pieces that is as early and no later."""
    placed = _run(jobs, order, windows, has)
    if placed is None:
        return order
    best, found = _score(jobs, placed), order
    # Each try runs through all goes: of many there are fewer tries.
    better, tries = True, CALM_TRIES // max(1, len(order))
    while better and tries > 0:
        better = False
        for n, one in enumerate(found):
            for to in _beside_own(found, n):
                moved = [x for k, x in enumerate(found) if k != n]
                moved.insert(to, one)
                if not _in_order(moved) or (first is not None and moved[0].job != first != -1):
                    continue
                tries -= 1
                if tries <= 0:
                    return found
                again = _run(jobs, moved, windows, has)
                if again is not None and _score(jobs, again) < best:
                    best, found, better = _score(jobs, again), moved, True
                    break
            if better:
                break
    return found


def _beside_own(order: Sequence[_Go], n: int) -> Iterator[int]:
    """Yield the places at which a go stands beside another of its piece."""
    job = order[n].job
    for k, other in enumerate(order):
        if other.job == job and k != n:
            # Taken out before it is put in: what lies behind it has moved up by one.
            yield k + 1 if k < n else k - 1


def _in_order(order: Sequence[_Go]) -> bool:
    at: dict[int, int] = {}
    for one in order:
        if one.at < at.get(one.job, 0):
            return False
        at[one.job] = one.at
    return True


def _changes(placed: Sequence[Placed]) -> int:
    """Return how often the hands go over to another piece."""
    return sum(a.job != b.job for a, b in pairwise(placed))


def _late(jobs: Sequence[Job], placed: Sequence[Placed]) -> Iterator[Late]:
    done: dict[int, float] = {}
    for one in placed:
        done[one.job] = max(done.get(one.job, 0.0), one.free)
    for job in jobs:
        by = done.get(job.id, 0.0) - job.due if job.due is not None and job.id in done else 0.0
        if job.due is not None and by > 1e-9:
            yield Late(job.id, job.name, done[job.id] - math.floor(job.due * UNITS) / UNITS)


def _leave_out(
    jobs: Sequence[Job],
    goes: Sequence[_Go],
    windows: Sequence[tuple[int, int]],
    has: Has,
    budget: Work,
) -> tuple[int, ...]:
    """Return the fewest pieces without which all others with a date are done in time."""
    built = _build(jobs, goes, windows, has, None, optional=True)
    # A piece without a date is in nobody's way: it goes behind the others.
    dated = [job.id for job in jobs if job.due is not None]
    for job in jobs:
        if job.due is None:
            built.model.add(built.kept[job.id] == 0)
    built.model.maximize(sum(built.kept[one] for one in dated))
    solver = budget.solve(built.model, budget.left)
    if solver is None:
        return ()
    return tuple(one for one in dated if not solver.value(built.kept[one]))
