"""The nesting model of the product, given to another solver: HiGHS, through SciPy."""

import random

import numpy as np
from scipy.optimize import Bounds, LinearConstraint, milp
from scipy.sparse import lil_matrix

from jamreel.core.cutting.problem import (
    WEIGHT,
    Problem,
    Rack,
    StockKind,
    Wanted,
    in_tenths,
    is_reel,
)


def mixed_stock(count: int, pieces: int) -> tuple[list[Wanted], list[Rack]]:
    """Return cuts and a rack of offcuts, lengths, reels and lengths to buy, the same each time."""
    pick = random.Random(count)
    cuts = [Wanted(id=str(n), length=round(pick.uniform(30, 320), 1)) for n in range(count)]
    shares: dict[StockKind, int] = {"offcut": 6, "length": 4, "reel": 2, "buy": 4}
    kinds = [kind for kind, share in shares.items() for _ in range(share * pieces // 16)]
    kinds += ["buy"] * (pieces - len(kinds))
    usual = {"length": 500.0, "buy": 1000.0}
    spread = {"offcut": (60, 400), "reel": (400, 1500)}
    racks = [
        Rack(id=f"r{n}", kind=kind, length=usual.get(kind) or round(pick.uniform(*spread[kind]), 1))
        for n, kind in enumerate(kinds)
    ]
    return cuts, racks


class _Columns:
    """Where each unknown stands: cuts by piece, then for each piece opened, kept, committed; then
    what is left out."""

    def __init__(self, problem: Problem) -> None:
        self.pieces, self.kinds = len(problem.racks), len(problem.lengths)
        self.count = self.pieces * self.kinds + 3 * self.pieces + self.kinds

    def cut(self, b: int, k: int) -> int:
        return b * self.kinds + k

    def of(self, b: int, which: int) -> int:
        return self.pieces * self.kinds + which * self.pieces + b

    def missing(self, k: int) -> int:
        return self.pieces * (self.kinds + 3) + k


OPENED, KEPT, COMMITTED = range(3)


def laid_out_by_highs(cuts: list[Wanted], racks: list[Rack], keep: float, seconds: float) -> float:
    """Return the least weight that HiGHS finds in so many seconds [mm of reel wire]."""
    problem = in_tenths(cuts, racks, keep)
    at = _Columns(problem)
    cost, most, whole = np.zeros(at.count), np.ones(at.count), np.ones(at.count)
    rows: list[tuple[dict[int, float], float, float]] = []
    for b, room in enumerate(problem.rooms):
        _piece(problem, at, b, room, rows)
        cost[at.of(b, OPENED)] = problem.opening(b)
        cost[at.of(b, COMMITTED)] = WEIGHT[problem.racks[b].kind]
        most[at.of(b, COMMITTED)], whole[at.of(b, COMMITTED)] = room, 0
        most[at.of(b, KEPT)] = not is_reel(problem.racks[b]) and room >= problem.keep
        for k, length in enumerate(problem.lengths):
            most[at.cut(b, k)] = min(problem.counts[k], room // length)
    for k, count in enumerate(problem.counts):
        most[at.missing(k)], cost[at.missing(k)] = count, problem.leaving_out * problem.lengths[k]
        every = {at.cut(b, k): 1.0 for b in range(at.pieces)}
        rows.append(({**every, at.missing(k): 1.0}, count, count))
    matrix = lil_matrix((len(rows), at.count))
    for i, (row, _, _) in enumerate(rows):
        for j, value in row.items():
            matrix[i, j] = value
    found = milp(
        cost,
        constraints=LinearConstraint(
            matrix.tocsr(), [low for _, low, _ in rows], [high for _, _, high in rows]
        ),
        integrality=whole.astype(int),
        bounds=Bounds(np.zeros(at.count), most),
        options={"time_limit": seconds},
    )
    return float("inf") if found.fun is None else float(found.fun) / 1000


def _piece(
    problem: Problem,
    at: _Columns,
    b: int,
    room: int,
    rows: list[tuple[dict[int, float], float, float]],
) -> None:
    """Add what holds for one piece: it has room, and all of it counts unless its rest is kept."""
    used = {at.cut(b, k): float(length) for k, length in enumerate(problem.lengths)}
    opened, kept, committed = (at.of(b, which) for which in (OPENED, KEPT, COMMITTED))
    rows.append(({**used, opened: -float(room)}, -np.inf, 0))
    rows.append(({**used, committed: -1.0}, -np.inf, 0))
    if not is_reel(problem.racks[b]):
        rows.append(({**used, kept: float(problem.keep)}, -np.inf, room))
        rows.append(({committed: 1.0, opened: -float(room), kept: float(room)}, 0, np.inf))
