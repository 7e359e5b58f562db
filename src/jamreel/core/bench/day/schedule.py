"""The door: an order of work for some pieces, and how good it is."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from jamreel.core.bench.day.calm import MOST_EXACT, calmer, first_guess, in_blocks, steadiest
from jamreel.core.bench.day.case import Case, Hours, Job, case_of
from jamreel.core.bench.day.model import calmest, leave_out, solve
from jamreel.core.bench.day.placed import (
    Late,
    Placed,
    Starts,
    at_starts,
    changes,
    in_order,
    late,
    run,
    score,
    starts_of,
)
from jamreel.core.bench.steps import Resource
from jamreel.core.cutting.work import Work

# Work that a plan may cost [s of a common machine].
WORK_S = 2.0
# However large it is, the solver is stopped after so long [s].
WALL_S = 3.0
# So much of it is kept for what to leave out [s].
LEAVE_S = 1.0


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
    case = case_of(jobs, hours, there_is, first)
    if not case.goes:
        return Scheduled((), 0.0, (), (), 0, True, 0.0)
    budget = Work(work, WALL_S - LEAVE_S)
    guess = starts_of(run(case, first_guess(case)) or ())
    starts, proven, bound = solve(case, guess, budget)
    placed = _calm(case, starts, budget)
    too_late = tuple(late(case, placed))
    # What is late whatever comes first is helped by leaving nothing out.
    helped = any(not one.anyhow for one in too_late)
    budget.wall = max(budget.wall or 0.0, 0.0) + LEAVE_S
    return Scheduled(
        placed=placed,
        end=max(one.free for one in placed),
        late=too_late,
        leave_out=leave_out(case, budget) if helped else (),
        changes=changes(placed),
        proven=proven,
        bound=bound,
    )


def _calm(case: Case, starts: Starts, budget: Work) -> tuple[Placed, ...]:
    """Return the goes in a calm order that is as early and no later as given starts."""
    order, solved = in_order(case, starts), at_starts(case, starts)
    if case.has["hands"] == 1 and len(case.goes) <= MOST_EXACT:
        order = calmest(case, order, budget)
    else:
        order = calmer(case, in_blocks(case, steadiest(case, order), budget))
    placed = run(case, order)
    if placed is None or score(case, placed)[:2] > score(case, solved)[:2]:
        return solved
    return placed
