"""Cutting patterns by column generation: a strong bound, and patterns to build a plan from.

The linear relaxation over all patterns is solved by adding, time after time, the pattern that its
prices value most. For many pieces that are alike this says far more than counting wire does.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np
import numpy.typing as npt

from jamreel.core.cutting.fullest import powers
from jamreel.core.cutting.work import CELLS, MATRIX, MODEL, Work
from jamreel.core.late import late

if TYPE_CHECKING:
    from ortools.sat.python import cp_model
else:
    cp_model = late("ortools.sat.python.cp_model")

Floats = npt.NDArray[np.float64]
# Prices differ from true ones by rounding; less than this is no gain.
TOLERANCE = 1e-6
# Cells of one knapsack that are kept at once: 50 MB of them.
MOST_CELLS = 50_000_000


@dataclass(frozen=True)
class Class:
    """Pieces of wire that are alike: how long [tenths], how many, what a tenth of them weighs,
    from what remnant on they are kept, and what opening one weighs; ``endless`` for a reel, of
    which nothing is scrap."""

    room: int
    count: int
    weight: int
    keep: int
    opening: int = 0
    endless: bool = False

    def cost(self, used: int) -> int:
        """Return what it weighs to use so much of one."""
        scraps = not self.endless and self.room - used < self.keep
        return self.opening + self.weight * (self.room if scraps else used)


@dataclass(frozen=True)
class Column:
    """A pattern on one class: how many of each length."""

    of: int
    counts: tuple[int, ...]
    cost: int


def relax(
    takes: Sequence[int],
    wanted: Sequence[int],
    classes: Sequence[Class],
    start: Sequence[Column],
    missing: int,
    work: Work,
) -> tuple[float, list[Column]]:
    """Return a bound on the weight of any plan, and the patterns that gave it.

    Args:
        takes: length of each kind of cut, kerf included [tenths].
        wanted: how many of each.
        classes: pieces of wire.
        start: patterns to begin with, such as first fit's.
        missing: weight of a tenth that is not cut.
        work: what it costs is taken off this; stops when none is left.

    Returns:
        Bound, minus infinity when work ran out before there was one; and all patterns.

    Source: Gilmore and Gomory 1961, a linear programming approach to the cutting-stock problem.
    """
    columns = list(start)
    known = {(c.of, c.counts) for c in columns}
    bound = -np.inf
    while work.left > 0:
        value, prices, shares = _master(takes, wanted, classes, columns, missing)
        cells = (len(takes) + len(classes)) * (len(columns) + len(takes))
        work.spend(MODEL / 4 + cells / MATRIX)
        fresh: list[Column] = []
        slack = 0.0
        for of, each in enumerate(classes):
            if work.left <= 0:
                # Patterns found so far serve; a bound takes the prices of all pieces.
                return bound, columns + fresh
            found, gain = _price(of, each, takes, wanted, prices, shares[of], work)
            slack += each.count * max(0.0, gain)
            if found is not None and gain > TOLERANCE and (of, found.counts) not in known:
                known.add((of, found.counts))
                fresh.append(found)
        # What every piece could still gain by its best pattern bounds what is left to gain.
        bound = max(bound, value - slack)
        if not fresh:
            return bound, columns
        columns += fresh
    return bound, columns


def _master(
    takes: Sequence[int],
    wanted: Sequence[int],
    classes: Sequence[Class],
    columns: Sequence[Column],
    missing: int,
) -> tuple[float, Floats, Floats]:
    """Return the value of the relaxation over some patterns, and the prices of cuts and pieces."""
    kinds = len(takes)
    costs = [c.cost for c in columns] + [missing * t for t in takes]
    cover = np.zeros((kinds, len(costs)))
    per_class = np.zeros((len(classes), len(costs)))
    for j, column in enumerate(columns):
        cover[:, j] = column.counts
        per_class[column.of, j] = 1
    for k in range(kinds):
        cover[k, len(columns) + k] = 1
    from scipy.optimize import linprog

    solved = linprog(
        costs,
        A_ub=np.vstack([-cover, per_class]),
        b_ub=np.concatenate([-np.array(wanted, float), [c.count for c in classes]]),
        method="highs",
    )
    prices = -solved.ineqlin.marginals
    assert solved.fun is not None  # leaving cuts out is always possible
    return float(solved.fun), prices[:kinds], -prices[kinds:]


def _price(
    of: int,
    each: Class,
    takes: Sequence[int],
    wanted: Sequence[int],
    prices: Floats,
    share: float,
    work: Work,
) -> tuple[Column | None, float]:
    """Return the pattern of one class that the prices value most, and its gain over its cost.

    A bounded knapsack over exactly used lengths, because what is left over is not free. Of a reel
    with room for all that pays, all that pays is taken. Where it would take too much memory there
    is no pattern, and no end to what one might gain.
    """
    if each.endless:
        pays = [n if prices[k] > takes[k] * each.weight else 0 for k, n in enumerate(wanted)]
        spent = _spent(pays, takes)
        if spent == 0:
            return None, 0.0
        if spent <= each.room:
            worth = float(sum(n * price for n, price in zip(pays, prices, strict=True)))
            whole = Column(of, tuple(pays), each.cost(spent))
            return whole, worth - whole.cost - share
    # No more can be used than is wanted in all.
    room = min(each.room, _spent(wanted, takes))
    items = [
        (kind, many)
        for kind, count in enumerate(wanted)
        for many in powers(min(count, room // takes[kind]))
    ]
    work.spend(len(items) * room / CELLS)
    if len(items) * room > MOST_CELLS:
        return None, np.inf
    best, took = _filled(items, takes, prices, room)
    used = np.arange(room + 1)
    cost: Floats = (used * each.weight).astype(float)
    if not each.endless:
        cost = np.where(each.room - used < each.keep, each.weight * each.room, cost)
    gains = best - cost - each.opening
    gains[0] = -np.inf
    at = int(np.argmax(gains))
    gain = float(gains[at]) - share
    if not np.isfinite(gain):
        return None, 0.0
    counts = [0] * len(takes)
    for i in range(len(items) - 1, -1, -1):
        if took[i, at]:
            kind, many = items[i]
            counts[kind] += many
            at -= many * takes[kind]
    return Column(of, tuple(counts), each.cost(_spent(counts, takes))), gain


def _filled(
    items: Sequence[tuple[int, int]], takes: Sequence[int], prices: Floats, room: int
) -> tuple[Floats, npt.NDArray[np.bool_]]:
    """Return the best worth of every length that is used exactly, and which items that took."""
    best: Floats = np.full(room + 1, -np.inf)
    best[0] = 0.0
    took = np.zeros((len(items), room + 1), dtype=np.bool_)
    for i, (kind, many) in enumerate(items):
        length = many * takes[kind]
        if length > room:
            continue
        moved = best[: room + 1 - length] + many * prices[kind]
        better = moved > best[length:] + 1e-12
        took[i, length:] = better
        best[length:] = np.where(better, moved, best[length:])
    return best, took


def _spent(counts: Sequence[int], takes: Sequence[int]) -> int:
    """Return what so many of each kind take together."""
    return sum(n * take for n, take in zip(counts, takes, strict=True))


def whole_plan(
    takes: Sequence[int],
    wanted: Sequence[int],
    classes: Sequence[Class],
    columns: Sequence[Column],
    missing: int,
    work: Work,
    most: float,
) -> list[Column] | None:
    """Return the best whole plan that some patterns make, a pattern for each piece used.

    Args:
        takes: length of each kind of cut, kerf included [tenths].
        wanted: how many of each.
        classes: pieces of wire.
        columns: patterns to choose from.
        missing: weight of a tenth that is not cut.
        work: what it costs is taken off this.
        most: work to spend.

    Returns:
        Patterns, cut down to what is wanted; None when the work did not do for any.

    Source: constraint programming (OR-Tools CP-SAT) over given patterns.
    """
    model = cp_model.CpModel()
    uses = [model.new_int_var(0, classes[c.of].count, f"n{j}") for j, c in enumerate(columns)]
    for of, each in enumerate(classes):
        model.add(sum(n for n, c in zip(uses, columns, strict=True) if c.of == of) <= each.count)
    terms = [n * c.cost for n, c in zip(uses, columns, strict=True)]
    for k, count in enumerate(wanted):
        left_out = model.new_int_var(0, count, f"missing{k}")
        made = sum(n * c.counts[k] for n, c in zip(uses, columns, strict=True) if c.counts[k])
        model.add(made + left_out >= count)
        terms.append(left_out * missing * takes[k])
    model.minimize(sum(terms))
    solver = work.solve(model, most)
    if solver is None:
        return None
    left = list(wanted)
    plan = []
    for n, column in zip(uses, columns, strict=True):
        for _ in range(solver.value(n)):
            counts = tuple(min(a, b) for a, b in zip(column.counts, left, strict=True))
            left = [a - b for a, b in zip(left, counts, strict=True)]
            spent = sum(a * t for a, t in zip(counts, takes, strict=True))
            if spent:
                plan.append(Column(column.of, counts, classes[column.of].cost(spent)))
    return plan
