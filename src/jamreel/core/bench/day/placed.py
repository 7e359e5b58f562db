"""An order of goes laid out in time, and what makes one better than another."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise

from jamreel.core.bench.day.case import PLENTY, UNITS, Case, Go
from jamreel.core.bench.steps import Resource

# When each go starts, by its piece and its place there, in units.
Starts = Mapping[tuple[int, int], int]


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
    """A piece that is not done when it is due, and by how much [min]; ``anyhow`` it would be late
    even if it were the only one."""

    job: int
    name: str
    by: float
    anyhow: bool = False


def run(case: Case, order: Sequence[Go]) -> tuple[Placed, ...] | None:
    """Return goes done in an order by one pair of hands, each as early as can be.

    Args:
        case: whose goes.
        order: in which they are done.

    Returns:
        None where the hours do not last, or several pairs of hands are at work.
    """
    if case.has["hands"] != 1:
        return None
    free = {job.id: job.ready_at for job in case.jobs}
    in_use: dict[Resource, list[int]] = {}
    now, placed = 0, []
    for one in order:
        start = max(now, free[one.job])
        pot = one.task.waits_in if one.wait else None
        if pot:
            # It goes into the pot as it leaves the hands: there has to be room then.
            busy = sorted(in_use.get(pot, []))
            most = case.has.get(pot, PLENTY)
            if len(busy) >= most:
                start = max(start, busy[-most] - one.long)
        found = _in_hours(start, one.long, case.windows)
        if found is None:
            return None
        now = found + one.long
        free[one.job] = now + one.wait
        if pot:
            in_use.setdefault(pot, []).append(now + one.wait)
        placed.append(_placed(one, found))
    return tuple(placed)


def _in_hours(start: int, long: int, windows: Sequence[tuple[int, int]]) -> int | None:
    """Return the first moment from which so much fits into one stretch."""
    for a, b in windows:
        at = max(start, a)
        if at + long <= b:
            return at
    return None


def _placed(one: Go, start: int) -> Placed:
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


def in_order(case: Case, starts: Starts) -> list[Go]:
    """Return the goes of a case in the order in which they start."""
    return sorted(case.goes, key=lambda one: (starts[one.job, one.at], one.job, one.at))


def at_starts(case: Case, starts: Starts) -> tuple[Placed, ...]:
    """Return the goes of a case at given moments, whatever hands they take."""
    return tuple(_placed(one, starts[one.job, one.at]) for one in in_order(case, starts))


def starts_of(placed: Sequence[Placed]) -> Starts:
    """Return when each go starts."""
    at: dict[int, int] = {}
    found = {}
    for one in placed:
        n = at.get(one.job, 0)
        found[one.job, n] = round(one.start * UNITS)
        at[one.job] = n + 1
    return found


def score(case: Case, placed: Sequence[Placed]) -> tuple[float, float, int]:
    """Return what makes an order good: lateness, end, changes; less is better."""
    lateness = sum(one.by for one in late(case, placed))
    return round(lateness, 6), max(one.free for one in placed), changes(placed)


def changes(placed: Sequence[Placed]) -> int:
    """Return how often the hands go over to another piece."""
    return sum(a.job != b.job for a, b in pairwise(placed))


def late(case: Case, placed: Sequence[Placed]) -> Iterator[Late]:
    """Yield the pieces that are done after their date."""
    done: dict[int, float] = {}
    for one in placed:
        done[one.job] = max(done.get(one.job, 0.0), one.free)
    for job in case.jobs:
        if job.due_at is not None and job.id in done and done[job.id] > job.due_at / UNITS:
            by = done[job.id] - job.due_at / UNITS
            yield Late(job.id, job.name, by, _alone(case, job.id) > job.due_at)


def _alone(case: Case, job: int) -> int:
    """Return when a piece could be done if it were the only one, in units."""
    now = next(one.ready_at for one in case.jobs if one.id == job)
    for one in case.by_job[job]:
        start = _in_hours(now, one.long, case.windows)
        # None: past all hours that are looked ahead, which are more than all pieces take.
        now = case.windows[-1][1] if start is None else start + one.long + one.wait
    return now
