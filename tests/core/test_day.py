"""The day plan against every order there is, and against what must hold of any plan."""

import itertools
import random
from collections.abc import Mapping, Sequence

import pytest

from jamreel.core.bench.day.case import Hours, Job, Task
from jamreel.core.bench.day.placed import Placed
from jamreel.core.bench.day.schedule import Scheduled, schedule
from jamreel.core.bench.steps import Resource
from jamreel.core.errors import Refusal

# From nine to half past twelve, from a quarter past one to five: minutes from nine.
HOURS = Hours(((0, 210), (255, 480)), ((0, 210), (255, 480)))
ONE: Mapping[Resource, int] = {"pickle": 1, "tumbler": 1}


def case(seed: int) -> list[Job]:
    """Return a few pieces of a few steps, some of which wait, some in the one pickle pot."""
    pick = random.Random(seed)
    jobs = []
    for n in range(pick.randint(1, 4)):
        tasks = []
        for k in range(pick.randint(1, 4)):
            torch: tuple[Resource, ...] = ("hands", "torch") if pick.random() < 0.3 else ("hands",)
            waits = float(pick.choice([0, 0, 10, 30, 60])) if pick.random() < 0.6 else 0.0
            tasks.append(
                Task(
                    f"s{k}",
                    f"step {k}",
                    float(pick.choice([5, 10, 20, 40])),
                    torch,
                    waits,
                    "pickle" if waits and pick.random() < 0.6 else None,
                )
            )
        due = float(pick.choice([40, 80, 120, 200])) if pick.random() < 0.6 else None
        jobs.append(Job(n, f"piece {n}", tuple(tasks), due, float(pick.choice([0, 0, 15]))))
    return jobs


# Steps done of each, hands free, pieces free, pot free, last piece.
State = tuple[tuple[int, ...], float, tuple[float, ...], float, int]


def best_of_all(jobs: Sequence[Job], most: tuple[float, float]) -> tuple[float, float, int]:
    """Return the least lateness, end and changes over every order of the hands.

    Orders that come to the same place with nothing better are followed once, those that are worse
    than ``most`` already not at all.
    """
    windows = [(a + d * 1440, b + d * 1440) for d in range(4) for a, b in HOURS.later]
    # Of each state late, end, changes.
    states: dict[State, set[tuple[float, float, int]]] = {
        ((0,) * len(jobs), 0.0, tuple(job.ready for job in jobs), 0.0, -1): {(0.0, 0.0, 0)}
    }
    for _ in range(sum(len(job.tasks) for job in jobs)):
        following: dict[State, set[tuple[float, float, int]]] = {}
        for (done, now, free, pot, last), scores in states.items():
            for n, job in enumerate(jobs):
                if done[n] == len(job.tasks):
                    continue
                task = job.tasks[done[n]]
                into_pot = task.waits > 0 and task.waits_in is not None
                start = max(now, free[n], pot - task.minutes if into_pot else 0.0)
                start = next(max(start, a) for a, b in windows if max(start, a) + task.minutes <= b)
                out = start + task.minutes + task.waits
                whole = done[n] + 1 == len(job.tasks)
                by = max(0.0, out - job.due) if whole and job.due is not None else 0.0
                state = (
                    tuple(d + (k == n) for k, d in enumerate(done)),
                    # What is free before the hands are matters no more.
                    (hands := start + task.minutes),
                    tuple(max(hands, out if k == n else f) for k, f in enumerate(free)),
                    max(hands, out if into_pot else pot),
                    n,
                )
                more = {
                    (late + by, max(end, out), changes + (last not in (-1, n)))
                    for late, end, changes in scores
                    if (late + by, max(end, out)) <= most
                }
                if more:
                    following.setdefault(state, set()).update(more)
        states = {
            state: {s for s in scores if not any(_beats(o, s) for o in scores)}
            for state, scores in following.items()
        }
    return min(itertools.chain.from_iterable(states.values()))


def _beats(one: tuple[float, float, int], other: tuple[float, float, int]) -> bool:
    return one != other and all(a <= b for a, b in zip(one, other, strict=True))


def sound(jobs: Sequence[Job], found: Scheduled, hands: int = 1) -> None:
    """Assert what holds of every plan: all steps in order, hours kept, nothing used twice."""
    by_job = {job.id: [p for p in found.placed if p.job == job.id] for job in jobs}
    for job in jobs:
        mine = by_job[job.id]
        assert [p.task for p in mine if p.part == p.parts] == [t.id for t in job.tasks]
        assert all(a.free <= b.start + 1e-9 for a, b in itertools.pairwise(mine))
        assert not mine or mine[0].start >= job.ready - 1e-9
    day = [(p.start % 1440, p.end - p.start) for p in found.placed]
    assert all(any(a <= s and s + m <= b for a, b in HOURS.later) for s, m in day)
    _never_more(found.placed, hands, lambda p: (p.start, p.end))
    tasks = {(job.id, task.id): task for job in jobs for task in job.tasks}
    potted = [p for p in found.placed if tasks[p.job, p.task].waits_in == "pickle"]
    _never_more(potted, 1, lambda p: (p.end, p.free))


def _never_more(placed: Sequence[Placed], most: int, span: object) -> None:
    spans = [span(p) for p in placed]  # type: ignore[operator]
    for start, _ in spans:
        assert sum(a <= start < b for a, b in spans) <= most


@pytest.mark.parametrize("seed", range(40))
def test_no_order_is_better_than_the_one_that_is_found(seed: int) -> None:
    jobs = case(seed)
    found = schedule(jobs, HOURS, ONE)
    sound(jobs, found)
    by = sum(one.by for one in found.late)
    late, end, changes = best_of_all(jobs, (by, found.end))
    assert found.proven
    assert by == pytest.approx(late)
    assert found.end == pytest.approx(end)
    assert found.changes == changes


def test_eight_pieces_of_twelve_steps_are_solved_or_the_gap_is_told() -> None:
    pick = random.Random(8)
    jobs = []
    for n in range(8):
        tasks = []
        for k in range(12):
            waits = float(pick.choice([0, 0, 0, 15, 60]))
            pot: Resource | None = "pickle" if waits == 15 else "tumbler" if waits == 60 else None
            torch: tuple[Resource, ...] = ("hands", "torch") if pick.random() < 0.2 else ("hands",)
            minutes = float(pick.randint(2, 16))
            tasks.append(Task(f"s{k}", f"step {k}", minutes, torch, waits, pot))
        due = 480.0 + 1440 * (n % 3) if n % 2 else None
        jobs.append(Job(n, f"piece {n}", tuple(tasks), due))
    found = schedule(jobs, HOURS, ONE)
    sound(jobs, found)
    assert found.proven or found.bound < found.end
    assert found.bound > 0


def test_the_most_that_one_plan_can_hold_is_planned() -> None:
    pick = random.Random(3)
    jobs = []
    for n in range(20):
        steps = [
            (f"s{k}", float(pick.randint(2, 16)), float(pick.choice([0, 15]))) for k in range(12)
        ]
        tasks = tuple(
            Task(key, key, minutes, waits=waits, waits_in="pickle" if waits else None)
            for key, minutes, waits in steps
        )
        jobs.append(Job(n, f"piece {n}", tasks, 480.0 if n % 2 else None))
    found = schedule(jobs, HOURS, ONE)
    sound(jobs, found)
    assert found.late
    # What is left out can't be shown to be the least here, but nothing is invented.
    assert set(found.leave_out) <= {job.id for job in jobs}


def test_waits_are_filled_with_the_steps_of_other_pieces() -> None:
    glued = Job(1, "glued", (Task("a", "glue", 10, waits=60.0), Task("b", "polish", 5)))
    wired = Job(2, "wired", (Task("a", "wind", 40), Task("b", "press in", 10)))
    found = schedule([glued, wired], HOURS, ONE)
    # One after the other: 75 and 50 minutes; with the wait filled 75 do.
    assert found.end == pytest.approx(75)
    assert [one.job for one in found.placed] == [1, 2, 2, 1]


def test_a_piece_that_can_not_be_done_in_time_is_told_by_how_much_and_what_to_leave_out() -> None:
    jobs = [
        Job(1, "crown", (Task("a", "weave", 40),), due=45.0),
        Job(2, "cuff", (Task("a", "wind", 30),), due=45.0),
    ]
    found = schedule(jobs, HOURS, ONE)
    # 70 minutes of work in 45: whichever is second is 25 late.
    assert [one.by for one in found.late] == [25.0]
    assert len(found.leave_out) == 1
    kept = [job for job in jobs if job.id not in found.leave_out]
    assert schedule(kept, HOURS, ONE).late == ()


def test_what_is_late_anyhow_is_told_so_and_leaves_nothing_out() -> None:
    late, soon = (
        Job(1, "crown", (Task("a", "weave", 40),), due=-60.0),
        Job(2, "cuff", (Task("a", "wind", 30),), due=200.0),
    )
    found = schedule([late, soon], HOURS, ONE)
    assert [(one.job, one.by, one.anyhow) for one in found.late] == [(1, 100.0, True)]
    assert found.leave_out == ()
    # Two that could each be in time by itself: one of them goes.
    both = schedule([late, soon, Job(3, "ring", (Task("a", "bend", 30),), due=45.0)], HOURS, ONE)
    assert {one.job: one.anyhow for one in both.late}[1] is True
    crowded = [Job(n, f"p{n}", (Task("a", "bend", 30),), due=45.0) for n in (2, 3)]
    assert [one.anyhow for one in schedule(crowded, HOURS, ONE).late] == [False]


def test_a_piece_without_anything_left_to_do_holds_no_first_place() -> None:
    jobs = [Job(n, f"p{n}", tuple(Task(k, k, 10, waits=15.0) for k in "abc")) for n in (1, 2)]
    free, asked = schedule(jobs, HOURS, ONE), schedule([*jobs, Job(3, "p3", ())], HOURS, ONE, 3)
    assert asked.placed == free.placed


def test_what_is_dragged_first_goes_first_and_long_steps_are_done_in_goes() -> None:
    jobs = [
        Job(1, "due", (Task("a", "form", 30),), due=60.0),
        Job(2, "long", (Task("a", "weave", 100),)),
    ]
    free = schedule(jobs, HOURS, ONE)
    assert free.placed[0].job == 1
    asked = schedule(jobs, HOURS, ONE, first=2)
    assert asked.placed[0].job == 2
    assert [one.parts for one in asked.placed if one.job == 2] == [3, 3, 3]
    sound(jobs, asked)


def test_two_pairs_of_hands_work_side_by_side() -> None:
    jobs = [Job(n, f"p{n}", (Task("a", "form", 30),)) for n in range(2)]
    assert schedule(jobs, HOURS, {"hands": 2}).end == pytest.approx(30)
    assert schedule(jobs, HOURS, {}).end == pytest.approx(60)
    torch = [Job(n, f"p{n}", (Task("a", "solder", 30, ("hands", "torch")),)) for n in range(2)]
    assert schedule(torch, HOURS, {"hands": 2}).end == pytest.approx(60)


def test_glue_sets_overnight_and_work_goes_on_the_day_after() -> None:
    job = Job(1, "caps", (Task("a", "glue", 10, waits=720.0), Task("b", "try on", 5)))
    found = schedule([job], HOURS, ONE)
    assert found.placed[1].start == pytest.approx(1440)


@pytest.mark.parametrize(
    ("jobs", "hours", "there", "key"),
    [
        ([Job(1, "p", (Task("a", "x", 5),))], Hours((), ()), {}, "day_hours"),
        ([Job(1, "p", (Task("a", "x", 40),))], Hours(((0, 20),), ((0, 20),)), {}, "day_short"),
        ([Job(1, "p", (Task("a", "x", 5, ("hands", "torch")),))], HOURS, {"torch": 0}, "day_lacks"),
        ([Job(n, "p", ()) for n in range(21)], HOURS, {}, "day_much"),
    ],
)
def test_what_gives_no_plan_says_why(
    jobs: list[Job], hours: Hours, there: dict[Resource, int], key: str
) -> None:
    with pytest.raises(Refusal) as refused:
        schedule(jobs, hours, there)
    assert refused.value.key == key


def test_a_piece_alone_is_late_by_its_work_and_its_waits() -> None:
    # 20 minutes of hands, 30 left alone, 10 of hands: an hour at the soonest.
    steps = (Task("glue", "glue", 20.0, waits=30.0), Task("file", "file", 10.0))

    def told(due: float) -> list[tuple[float, bool]]:
        found = schedule([Job(1, "ring", steps, due)], HOURS, ONE)
        return [(one.by, one.anyhow) for one in found.late]

    assert told(60.0) == []
    assert told(59.0) == [(1.0, True)]
    # Beside another it is late for the other's sake: alone either would be in time.
    other = Job(2, "urgent", (Task("long", "long", 40.0),), 40.0)
    found = schedule([Job(1, "ring", steps, 65.0), other], HOURS, ONE)
    # Twenty minutes of glueing first, the forty, then the file: 20 and 5 too late.
    assert {one.name: (one.by, one.anyhow) for one in found.late} == {
        "urgent": (20.0, False),
        "ring": (5.0, False),
    }
