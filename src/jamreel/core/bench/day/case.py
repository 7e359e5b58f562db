"""What is to be done in a day, when there are hands, and what there is."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property

from jamreel.core.bench.steps import Resource
from jamreel.core.errors import Refusal

# Times are counted in quarters of a minute.
UNITS = 4
DAY_MIN = 24 * 60
# A step that is longer is done in several goes, with a break between if need be [min].
MOST_AT_ONCE = 45.0
MOST_TASKS, MOST_JOBS, MOST_DAYS = 240, 20, 45
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

    @property
    def ready_at(self) -> int:
        """From when it is ready, in units."""
        return math.ceil(self.ready * UNITS)

    @property
    def due_at(self) -> int | None:
        """When it is due, in units."""
        return None if self.due is None else math.floor(self.due * UNITS)


@dataclass(frozen=True)
class Hours:
    """When there are hands at the bench [min from the first moment of the plan], one stretch after
    the other on the first day, and the same on every day behind it.

    ``days`` are the stretches of the days behind the first where they are not just 24 hours apart:
    clocks are changed, or the first day was long ago.
    """

    today: tuple[tuple[float, float], ...]
    later: tuple[tuple[float, float], ...]
    days: tuple[tuple[tuple[float, float], ...], ...] = ()

    def on(self, day: int) -> Sequence[tuple[float, float]]:
        """Return the stretches of a day behind the first."""
        if day <= len(self.days):
            return self.days[day - 1]
        return [(a + day * DAY_MIN, b + day * DAY_MIN) for a, b in self.later]


@dataclass(frozen=True)
class Go:
    """One go of a step, in units of time: the ``at``-th of its job, ``long``, with a ``wait``."""

    job: int
    at: int
    task: Task
    long: int
    wait: int
    part: int
    parts: int


@dataclass(frozen=True)
class Case:
    """A day as it is worked on: pieces in goes, the stretches with hands in units, how much of each
    resource there is, and the piece that the maker wants first."""

    jobs: tuple[Job, ...]
    goes: tuple[Go, ...]
    windows: tuple[tuple[int, int], ...]
    has: Mapping[Resource, int]
    first: int | None = None

    @cached_property
    def by_job(self) -> dict[int, list[Go]]:
        """The goes of every piece, in order."""
        found: dict[int, list[Go]] = {job.id: [] for job in self.jobs}
        for one in self.goes:
            found[one.job].append(one)
        return found

    @cached_property
    def by_date(self) -> list[Job]:
        """The pieces, what is due first before the others."""
        return sorted(self.jobs, key=lambda job: (job.due is None, job.due or 0.0, job.id))


def case_of(
    jobs: Sequence[Job], hours: Hours, there_is: Mapping[Resource, int], first: int | None
) -> Case:
    """Return a day as it is worked on.

    Args:
        jobs: the pieces.
        hours: when there are hands.
        there_is: how much of each resource; what is not named there is plenty of, but of hands and
            torch one.
        first: the piece that goes first, where the maker wants one to.

    Raises:
        Refusal: too much for one plan, no hours, a step that needs what the bench has none of.
    """
    goes = tuple(go for job in jobs for go in _goes(job))
    has: dict[Resource, int] = {"hands": 1, "torch": 1, **there_is}
    # A piece of which nothing is left to do can't go first.
    wanted = first if any(one.job == first for one in goes) else None
    case = Case(tuple(jobs), goes, _windows(jobs, goes, hours), has, wanted)
    _few_enough(case)
    _has_all(case)
    _fits(case)
    return case


def _goes(job: Job) -> list[Go]:
    """Return every step of a piece in goes that fit between two breaks."""
    found: list[Go] = []
    for task in job.tasks:
        parts = max(1, math.ceil(task.minutes / MOST_AT_ONCE))
        long = max(1, math.ceil(task.minutes / parts * UNITS - 1e-9))
        for part in range(1, parts + 1):
            wait = math.ceil(task.waits * UNITS - 1e-9) if part == parts else 0
            found.append(Go(job.id, len(found), task, long, wait, part, parts))
    return found


def _windows(jobs: Sequence[Job], goes: Sequence[Go], hours: Hours) -> tuple[tuple[int, int], ...]:
    """Return when there are hands, as far ahead as the work can last, in units."""
    if not hours.today and not hours.later:
        raise Refusal("day_hours", got=None, field="hours")
    each = sum(b - a for a, b in hours.later)
    total = sum(one.long for one in goes) / UNITS
    alone = sum(one.wait for one in goes) / UNITS + max((job.ready for job in jobs), default=0.0)
    days = 3 + math.ceil(2 * total / max(each, 1.0)) + math.ceil(alone / DAY_MIN)
    if days > MOST_DAYS:
        raise Refusal("day_much", got=f"{days} days", field="pieces", most=MOST_DAYS)
    every = list(hours.today)
    for day in range(1, days):
        every += hours.on(day)
    whole = [(math.ceil(a * UNITS), math.floor(b * UNITS)) for a, b in sorted(every)]
    return tuple((a, b) for a, b in whole if b > a)


def _few_enough(case: Case) -> None:
    if len(case.jobs) > MOST_JOBS or len(case.goes) > MOST_TASKS:
        raise Refusal("day_much", got=len(case.goes), field="pieces", most=MOST_TASKS)


def _has_all(case: Case) -> None:
    for one in case.goes:
        for what in (*one.task.takes, *((one.task.waits_in,) if one.task.waits_in else ())):
            if case.has.get(what, PLENTY) < 1:
                raise Refusal("day_lacks", got=what, field=f"there_is.{what}", step=one.task.title)


def _fits(case: Case) -> None:
    longest = max((one.long for one in case.goes), default=0)
    if case.goes and max((b - a for a, b in case.windows), default=0) < longest:
        raise Refusal("day_short", got=None, field="hours", least=math.ceil(longest / UNITS))
