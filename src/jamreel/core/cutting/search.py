"""Searching for a lighter cutting plan: over all pieces of wire, or over a few at a time."""

from __future__ import annotations

import math
import random
from collections.abc import Sequence
from typing import TYPE_CHECKING

from jamreel.core.cutting.problem import WEIGHT, Plan, Problem, is_reel
from jamreel.core.cutting.work import MODEL, Work
from jamreel.core.late import late

if TYPE_CHECKING:
    from ortools.sat.python import cp_model
else:
    cp_model = late("ortools.sat.python.cp_model")

# So many pieces are emptied and laid out anew together: more take too long, fewer find nothing.
TOGETHER = (4, 5, 6)
# Work on one lot of them.
EACH = 0.3
SEED = 1


def piece_by_piece(problem: Problem, hint: Plan, work: Work, most: float) -> tuple[Plan, float]:
    """Return the best plan that a search over every piece finds, and a bound on any plan.

    Args:
        problem: what is to be cut from what.
        hint: a plan to begin with.
        work: what the search costs is taken off this.
        most: work to spend.

    Source: constraint programming (OR-Tools CP-SAT).
    """
    model = cp_model.CpModel()
    takes = problem.takes
    cells: list[list[cp_model.IntVar]] = []
    terms: list[cp_model.LinearExpr] = []
    opened: list[cp_model.IntVar] = []
    for b, room in enumerate(problem.rooms):
        row = [
            model.new_int_var(0, min(count, room // take), f"x{b}_{k}")
            for k, (take, count) in enumerate(zip(takes, problem.counts, strict=True))
        ]
        used = cp_model.LinearExpr.weighted_sum(row, takes)
        is_open = model.new_bool_var(f"open{b}")
        model.add(used <= room).only_enforce_if(is_open)
        model.add(used == 0).only_enforce_if(is_open.negated())
        opened.append(is_open)
        cells.append(row)
        terms.append(_weighs(model, problem, b, used, is_open, hint))
        for x, n in zip(row, hint[b], strict=True):
            model.add_hint(x, n)
        model.add_hint(is_open, any(hint[b]))
    left_out = problem.missing(hint)
    for k, (take, count) in enumerate(zip(takes, problem.counts, strict=True)):
        missing = model.new_int_var(0, count, f"missing{k}")
        model.add(sum(row[k] for row in cells) + missing == count)
        model.add_hint(missing, left_out[k])
        terms.append(problem.leaving_out * take * missing)
    _break_ties(model, problem, cells, opened)
    model.minimize(sum(terms))
    solver = work.solve(model, most)
    if solver is None:
        return hint, -math.inf
    plan = [[solver.value(x) for x in row] for row in cells]
    return plan, solver.best_objective_bound


def _weighs(
    model: cp_model.CpModel,
    problem: Problem,
    b: int,
    used: cp_model.LinearExpr,
    is_open: cp_model.IntVar,
    hint: Plan,
) -> cp_model.LinearExpr:
    """Return what a piece of wire weighs in the search: all of it, unless its remnant is kept."""
    rack, room = problem.racks[b], problem.rooms[b]
    if is_reel(rack):
        return WEIGHT[rack.kind] * used + problem.opening(b) * is_open
    kept = model.new_bool_var(f"kept{b}")
    committed = model.new_int_var(0, room, f"committed{b}")
    model.add(used <= room - problem.keep).only_enforce_if(kept)
    model.add(committed >= used)
    model.add(committed >= room).only_enforce_if(kept.negated(), is_open)
    spent = problem.used(hint[b])
    keeps = room - spent >= problem.keep
    model.add_hint(kept, keeps)
    model.add_hint(committed, spent if keeps or not spent else room)
    return cp_model.LinearExpr.weighted_sum(
        [is_open, committed], [problem.opening(b), WEIGHT[rack.kind]]
    )


def _break_ties(
    model: cp_model.CpModel,
    problem: Problem,
    cells: list[list[cp_model.IntVar]],
    opened: Sequence[cp_model.IntVar],
) -> None:
    """Let pieces that are alike be opened in order, the fuller first: one of many equal plans."""
    for b in range(1, len(problem.racks)):
        one, two = problem.racks[b - 1], problem.racks[b]
        if (one.kind, problem.rooms[b - 1]) == (two.kind, problem.rooms[b]):
            model.add(opened[b - 1] >= opened[b])
            first, second = (
                sum(x * n for x, n in zip(cells[i], problem.lengths, strict=True))
                for i in (b - 1, b)
            )
            model.add(first >= second)


def few_at_a_time(problem: Problem, plan: Plan, bound: float, work: Work) -> Plan:
    """Return a plan no heavier than one at hand, laying out a few pieces anew time after time.

    Args:
        problem: what is to be cut from what.
        plan: to begin with.
        bound: stop where the plan weighs no more.
        work: all of it may be spent.

    Source: Shaw 1998, using constraint programming and local search methods to solve vehicle
        routing problems: large neighbourhood search.
    """
    pick = random.Random(SEED)
    best = [list(row) for row in plan]
    weight = problem.weight(best)
    pieces = range(len(problem.racks))
    while work.left > EACH / 2 and weight - bound >= 0.5 and len(pieces) > min(TOGETHER):
        lot = sorted(pick.sample(pieces, min(pick.choice(TOGETHER), len(pieces))))
        held = [sum(best[b][k] for b in lot) for k in range(len(problem.lengths))]
        counts = [a + b for a, b in zip(held, problem.missing(best), strict=True)]
        if not any(counts):
            work.spend(MODEL)
            continue
        kinds = [k for k, count in enumerate(counts) if count]
        part = problem.part(lot, counts)
        before = [[best[b][k] for k in kinds] for b in lot]
        after, _ = piece_by_piece(part, before, work, EACH)
        gain = part.weight(before) - part.weight(after)
        if gain > 0:
            for b, row in zip(lot, after, strict=True):
                best[b] = [0] * len(problem.lengths)
                for k, n in zip(kinds, row, strict=True):
                    best[b][k] = n
            weight -= gain
    return best
