"""Nesting: which cut comes off which reel, offcut or length, with the least waste.

What is weighed: wire that is used or scrapped, each millimetre by where it lies. Offcuts weigh
least, so they go first unless that scraps more than it saves; then lengths that are cut already,
then reels. What has to be bought weighs all of its length besides: never more is bought than the
least that will do. A remnant of the keep-length or more is no scrap. Every piece that is opened
weighs a little besides, so that one long remnant is left rather than several short ones.

How long is searched is counted in work, not read off a clock: the same cuts and the same rack give
the same plan on any machine, busy or not.
"""

import math
from collections.abc import Sequence

from jamreel.core.cutting.columns import Column, relax, whole_plan
from jamreel.core.cutting.problem import TENTHS, WEIGHT, Plan, Problem, Rack, Wanted, in_tenths
from jamreel.core.cutting.search import few_at_a_time, piece_by_piece
from jamreel.core.cutting.starts import filled, first_fit
from jamreel.core.cutting.work import Work
from jamreel.core.values import Frozen

# A plan this near to its bound is not searched any further: less wire than a file takes off.
NEAR_ENOUGH = 1e-4
# Up to so many cells all pieces are searched together; from so many, or so many pieces alike,
# patterns come first.
FEW_CELLS, MANY_CELLS, ALIKE = 100, 100, 4
# Of more unlike lengths, or more wire [tenths], than this the plan that comes at once is the plan.
MOST_LENGTHS, MOST_WIRE = 400, 5_000_000


class Laid(Frozen):
    """One piece of wire with what is cut from it, longest first, and what is left [mm].

    ``scrap`` is a remnant too short to keep.
    """

    rack: Rack
    cuts: tuple[str, ...]
    used: float
    left: float
    scrap: float


class Nest(Frozen):
    """A cutting plan, how good it is known to be, and first fit's beside it.

    ``weight`` and ``bound`` compare plans [mm of reel wire]; ``gap`` is what a better plan could
    still save, as a share. ``unplaced`` did not fit on anything; ``bought`` lengths are not on the
    rack.
    """

    laid: tuple[Laid, ...]
    unplaced: tuple[str, ...]
    scrap: float
    weight: float
    bound: float
    gap: float
    optimal: bool
    bought: int
    first_fit_scrap: float
    first_fit_weight: float
    first_fit_opened: int
    first_fit_bought: int
    first_fit_placed: int
    opened: int


def nest(
    cuts: Sequence[Wanted], racks: Sequence[Rack], keep: float, kerf: float = 0.0, work: float = 2.0
) -> Nest:
    """Return the best plan found for cutting some lengths from some pieces of wire.

    Args:
        cuts: what is wanted.
        racks: what there is; all of one metal, section, size and temper.
        keep: a shorter remnant is scrap [mm]. Of a reel nothing is.
        kerf: lost at each cut [mm].
        work: to spend at most [s of a machine of the common sort].

    Returns:
        The plan, proven or within ``NEAR_ENOUGH`` of its bound where the work allows; the same
        one for the same input.

    Raises:
        Refusal: a length or a piece of wire that is none.

    Source: the one-dimensional cutting-stock problem, solved by column generation and constraint
        programming (OR-Tools CP-SAT); optimality is proven by its bound.
    """
    problem = in_tenths(cuts, racks, keep, kerf)
    laid_simply = first_fit(problem)
    start = min(laid_simply, filled(problem), key=problem.weight)
    best, bound = _best(problem, start, Work(work))
    weight = problem.weight(best)
    bound = min(max(bound, problem.least()), weight)
    laid, unplaced = _as_laid(problem, best)
    first_laid, _ = _as_laid(problem, laid_simply)
    return Nest(
        laid=laid,
        unplaced=unplaced,
        scrap=sum(one.scrap for one in laid),
        weight=_mm(weight),
        bound=_mm(bound),
        gap=0.0 if weight == 0 else max(0.0, (weight - bound) / weight),
        optimal=weight - bound < 0.5,
        bought=_bought(laid),
        first_fit_bought=_bought(first_laid),
        first_fit_placed=sum(len(one.cuts) for one in first_laid),
        first_fit_scrap=sum(one.scrap for one in first_laid),
        first_fit_weight=_mm(problem.weight(laid_simply)),
        first_fit_opened=len(first_laid),
        opened=len(laid),
    )


def _bought(laid: Sequence[Laid]) -> int:
    return sum(one.rack.kind == "buy" for one in laid)


def _mm(weight: float) -> float:
    """Return a weight in millimetres of reel wire."""
    return weight / TENTHS / WEIGHT["reel"]


def _best(problem: Problem, start: Plan, work: Work) -> tuple[Plan, float]:
    """Return the best plan that some work finds, and a bound on what any plan weighs.

    Patterns first where pieces are alike or many; a few pieces are searched all together, many a
    few at a time.
    """
    if not problem.lengths or not problem.racks:
        return start, float(problem.weight(start))
    best, bound = start, float(problem.least())
    if _near(problem, best, bound) or _too_much(problem):
        return best, bound
    cells = len(problem.racks) * len(problem.lengths)
    alike = max(each.count for each in problem.classes()[0])
    if cells > MANY_CELLS or alike >= ALIKE:
        found, low = _by_patterns(problem, start, work)
        best, bound = min(best, found, key=problem.weight), max(bound, low)
    if cells <= FEW_CELLS and problem.weight(best) - bound >= 0.5:
        # A good plan to begin with is half of the proof that there is no better one.
        part = work.share(0.4)
        best = few_at_a_time(problem, best, bound, part)
        work.back(part)
        found, low = piece_by_piece(problem, best, work, work.left)
        best, bound = min(best, found, key=problem.weight), max(bound, low)
    if not _near(problem, best, bound):
        best = few_at_a_time(problem, best, bound, work)
    return best, bound


def _too_much(problem: Problem) -> bool:
    """Return whether a search would cost more memory than it could save wire."""
    return len(problem.lengths) > MOST_LENGTHS or problem.used(problem.counts) > MOST_WIRE


def _near(problem: Problem, plan: Plan, bound: float) -> bool:
    return problem.weight(plan) - bound < max(0.5, NEAR_ENOUGH * bound)


def _by_patterns(problem: Problem, start: Plan, work: Work) -> tuple[Plan, float]:
    """Return a plan put together from patterns, and the bound of their relaxation."""
    classes, members = problem.classes()
    of = {b: c for c, found in enumerate(members) for b in found}
    first = {
        Column(of[b], tuple(row), classes[of[b]].cost(problem.used(row)))
        for b, row in enumerate(start)
        if any(row)
    }
    ordered = sorted(first, key=lambda column: (column.of, column.counts))
    part = work.share(0.5)
    takes = problem.takes
    bound, columns = relax(takes, problem.counts, classes, ordered, problem.leaving_out, part)
    work.back(part)
    # Where every piece that is opened weighs all of it, plans differ by whole pieces only.
    grain = problem.grain()
    if grain and math.isfinite(bound):
        bound = float(math.ceil(round(bound / grain, 6)) * grain)
    left_out = problem.leaving_out
    whole = whole_plan(takes, problem.counts, classes, columns, left_out, work, 0.4 * work.left)
    if whole is None:
        return start, bound
    plan = [[0] * len(takes) for _ in problem.racks]
    free = [list(found) for found in members]
    for column in whole:
        plan[free[column.of].pop(0)] = list(column.counts)
    return plan, bound


def _as_laid(problem: Problem, plan: Plan) -> tuple[tuple[Laid, ...], tuple[str, ...]]:
    """Return a plan piece by piece, cuts longest first, and the ids of what was left out."""
    waiting = [list(ids) for ids in problem.ids]
    laid = []
    for b, (rack, room, row) in enumerate(zip(problem.racks, problem.rooms, plan, strict=True)):
        ids = tuple(waiting[k].pop(0) for k, n in enumerate(row) for _ in range(n))
        used = problem.used(row)
        if ids:
            laid.append(
                Laid(
                    rack=rack,
                    cuts=ids,
                    used=used / TENTHS,
                    left=math.floor(round(rack.length * TENTHS, 6) - used) / TENTHS,
                    scrap=problem.scrap(b, room - used) / TENTHS,
                )
            )
    return tuple(laid), tuple(one for ids in waiting for one in ids)
