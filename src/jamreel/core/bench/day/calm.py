"""Orders in which the hands stay with a piece as long as they can."""

from collections.abc import Iterator, Sequence
from dataclasses import replace

from jamreel.core.bench.day.case import MOST_AT_ONCE, UNITS, Case, Go
from jamreel.core.bench.day.model import calmest
from jamreel.core.bench.day.placed import run, score
from jamreel.core.cutting.work import Work

# Of so many goes the calmest order is found for sure; of more a calmer one is looked for.
MOST_EXACT = 24
# Goes that are run through in search of a calmer order.
CALM_TRIES = 150_000


def steadiest(case: Case, order: list[Go]) -> list[Go]:
    """Return the best of an order and of those in which hands stay with a piece as long as it can
    be gone on with, whichever piece they begin with."""
    placed = run(case, order)
    if placed is None:
        return order
    best, found = score(case, placed), order
    for begin in case.by_date:
        if case.first is not None and begin.id != case.first:
            continue
        ranks = [begin.id, *(job.id for job in case.by_date if job.id != begin.id)]
        steady = _staying(case, ranks)
        again = run(case, steady)
        if again is not None and score(case, again) < best:
            best, found = score(case, again), steady
    return found


def first_guess(case: Case) -> list[Go]:
    """Return an order to start from: what is due first goes first, hands stay with it."""
    rank = {job.id: (job.id != case.first, n) for n, job in enumerate(case.by_date)}
    return steadiest(case, sorted(case.goes, key=lambda one: (rank[one.job], one.at)))


def _staying(case: Case, ranks: Sequence[int]) -> list[Go]:
    """Return an order in which hands stay with a piece until it is left alone; then the next by
    rank that can be gone on with, else the one that can be soonest."""
    left = {job: list(goes) for job, goes in case.by_job.items()}
    free = {job.id: job.ready_at for job in case.jobs}
    order: list[Go] = []
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


def in_blocks(case: Case, order: list[Go], budget: Work) -> list[Go]:
    """Return an order in which what can be done in one go is, where that is as early and calmer;
    the blocks are few enough to find the calmest order of them.

    Args:
        case: what is to be done.
        order: one of its orders.
        budget: what it may cost.
    """
    placed = run(case, order)
    blocks, holds = _blocks(case.goes)
    if placed is None or len(blocks) > MOST_EXACT:
        return order
    as_blocks = replace(case, goes=tuple(blocks))
    ordered = calmest(as_blocks, blocks, budget, score(case, placed)[:2])
    found = [go for block in ordered for go in holds[block.job, block.at]]
    again = run(case, found)
    return found if again is not None and score(case, again) < score(case, placed) else order


def _blocks(goes: Sequence[Go]) -> tuple[list[Go], dict[tuple[int, int], list[Go]]]:
    """Return goes put together up to their next wait, as long as one go may be, and what each
    holds."""
    blocks: list[Go] = []
    holds: dict[tuple[int, int], list[Go]] = {}
    for one in goes:
        last = blocks[-1] if blocks and blocks[-1].job == one.job else None
        if last and not last.wait and last.long + one.long <= MOST_AT_ONCE * UNITS:
            task = replace(one.task, takes=tuple({*last.task.takes, *one.task.takes}))
            blocks[-1] = replace(one, at=last.at, task=task, long=last.long + one.long)
        else:
            blocks.append(replace(one, at=last.at + 1 if last else 0))
        holds.setdefault((one.job, blocks[-1].at), []).append(one)
    return blocks, holds


def calmer(case: Case, order: list[Go]) -> list[Go]:
    """Return an order with fewer changes between pieces that is as early and no later."""
    tries = CALM_TRIES // max(1, len(order))
    found = order
    while tries > 0:
        better, spent = _one_calmer(case, found, tries)
        tries -= spent
        if better is None:
            break
        found = better
    return found


def _one_calmer(case: Case, order: list[Go], tries: int) -> tuple[list[Go] | None, int]:
    """Return an order that is better by one go moved beside another of its piece, None where so
    many tries find none, and how many tries it took."""
    placed = run(case, order)
    if placed is None:
        return None, 0
    best, spent = score(case, placed), 0
    for moved in _moves(case, order):
        if spent == tries:
            break
        spent += 1
        again = run(case, moved)
        if again is not None and score(case, again) < best:
            return moved, spent
    return None, spent


def _moves(case: Case, order: list[Go]) -> Iterator[list[Go]]:
    """Yield orders with one go moved beside another of its piece, in turn still."""
    for n, one in enumerate(order):
        for to in _beside_own(order, n):
            moved = [x for k, x in enumerate(order) if k != n]
            moved.insert(to, one)
            if _in_turn(moved) and case.first in (None, moved[0].job):
                yield moved


def _beside_own(order: Sequence[Go], n: int) -> Iterator[int]:
    """Yield the places at which a go stands beside another of its piece."""
    job = order[n].job
    for k, other in enumerate(order):
        if other.job == job and k != n:
            # Taken out before it is put in: what lies behind it has moved up by one.
            yield k + 1 if k < n else k - 1


def _in_turn(order: Sequence[Go]) -> bool:
    at: dict[int, int] = {}
    for one in order:
        if one.at < at.get(one.job, 0):
            return False
        at[one.job] = one.at
    return True
