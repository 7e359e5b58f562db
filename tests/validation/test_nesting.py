"""Cutting plans against known optima and another solver.

- Three small sets with optima that can be counted by hand.
- A steel-cutting order with stock of 5,180: material alone needs 32.3 lengths, the relaxation over
  patterns 32.83; 33 is optimal.
- HiGHS (scipy.optimize.milp), a mixed-integer solver of its own, on the same model in the same run.
"""

import math
import random

import numpy as np
import pytest
from scipy.optimize import Bounds, LinearConstraint, milp
from tools.highs import laid_out_by_highs, mixed_stock

from jamreel.core.cutting.nest import Nest, nest
from jamreel.core.cutting.problem import Rack, StockKind, Wanted
from tests.conftest import some_of

ALL_SCRAP = 1e6


def opened(stock: float, cuts: list[tuple[float, int]], pieces: int, work: float = 5) -> Nest:
    return nest(
        [Wanted(id=str(i), length=n, quantity=q) for i, (n, q) in enumerate(cuts)],
        [Rack(id=f"b{i}", kind="length", length=stock) for i in range(pieces)],
        ALL_SCRAP,
        work=work,
    )


def test_small_sets_by_hand() -> None:
    one = opened(250, [(187, 1), (119, 2), (74, 2), (90, 1)], 6)
    assert (one.opened, one.optimal) == (3, True)
    two = opened(100, [(50, 1), (60, 1), (30, 1), (70, 1), (50, 1), (40, 1)], 6)
    assert (two.opened, two.optimal, two.scrap) == (3, True, 0)


def test_an_order_of_198_cuts_is_proven_at_33() -> None:
    order = [(1120, 9), (1250, 5), (520, 91), (1066, 18), (1000, 11), (1150, 64)]
    plan = opened(5180, [(float(n), q) for n, q in order], 40)
    assert plan.opened == 33
    assert plan.optimal
    material = sum(n * q for n, q in order) / 5180
    assert math.ceil(material) == 33
    assert plan.first_fit_opened > 33


def test_what_is_bought_counts_whole() -> None:
    # 998.35 in all: one metre of a thousand has it, with a millimetre or so to spare.
    lengths = [80.86] * 10 + [81.14, 64.30, 44.31]
    cuts = [Wanted(id=str(n), length=length) for n, length in enumerate(lengths)]
    racks = [Rack(id=f"buy{n}", kind="buy", length=1000) for n in range(4)]
    plan = nest(cuts, racks, keep=60)
    assert sum(lengths) < 1000
    assert (plan.bought, plan.optimal) == (1, True)
    # What is on the rack is used before more is bought, and what is bought is used whole.
    rack = Rack(id="offcut", kind="offcut", length=70)
    both = nest(cuts, [rack, *racks], keep=60)
    assert both.bought == 1
    assert [one.used for one in both.laid if one.rack.kind == "offcut"] == [pytest.approx(64.3)]
    # A short cut is bought for rather than left out.
    alone = nest([Wanted(id="a", length=2.0)], racks, keep=60)
    assert (alone.bought, alone.unplaced) == (1, ())


MIXED = [(n, 5 + n % 3) for n in range(6, 16)] + [(15, 9)]


@pytest.mark.parametrize(("count", "pieces"), some_of(MIXED, 2))
def test_mixed_stock_is_within_half_a_percent_of_highs(count: int, pieces: int) -> None:
    cuts, racks = mixed_stock(count, pieces)
    plan = nest(cuts, racks, keep=60, work=1.5)
    best = laid_out_by_highs(cuts, racks, 60, seconds=60)
    assert plan.weight <= 1.005 * best
    # The bound is one: nothing weighs less.
    assert plan.bound <= best * (1 + 1e-6)
    assert plan.gap <= 0.01


def highs_optimum(stock: int, cuts: list[tuple[int, int]], pieces: int) -> int:
    """Fewest lengths by HiGHS: x[k, b] of kind k on piece b, y[b] opened."""
    kinds = len(cuts)
    size = kinds * pieces + pieces
    cost = np.concatenate([np.zeros(kinds * pieces), np.ones(pieces)])
    rows: list[np.ndarray] = []
    low: list[float] = []
    high: list[float] = []
    for k, (_, count) in enumerate(cuts):
        row = np.zeros(size)
        row[k * pieces : (k + 1) * pieces] = 1
        rows.append(row)
        low.append(count)
        high.append(count)
    for b in range(pieces):
        row = np.zeros(size)
        for k, (length, _) in enumerate(cuts):
            row[k * pieces + b] = length
        row[kinds * pieces + b] = -stock
        rows.append(row)
        low.append(-np.inf)
        high.append(0)
    found = milp(
        cost,
        constraints=LinearConstraint(np.array(rows), low, high),
        integrality=np.ones(size, dtype=int),
        bounds=Bounds(0, np.concatenate([np.full(kinds * pieces, 99), np.ones(pieces)])),
    )
    assert found.fun is not None
    return round(found.fun)


@pytest.mark.parametrize(
    ("stock", "cuts"),
    [
        (250, [(187, 1), (119, 2), (74, 2), (90, 1)]),
        (1000, [(410, 3), (330, 4), (270, 2), (195, 5), (88, 6)]),
        (600, [(205, 5), (195, 5), (310, 3), (101, 7)]),
    ],
)
def test_the_same_optimum_as_highs(stock: int, cuts: list[tuple[int, int]]) -> None:
    plan = opened(stock, [(float(n), q) for n, q in cuts], 9)
    assert plan.optimal
    assert plan.opened == highs_optimum(stock, cuts, 9)


def test_sixty_mixed_cuts_over_twelve_pieces_in_two_seconds() -> None:
    pick = random.Random(60)
    cuts = [Wanted(id=str(i), length=round(pick.uniform(30, 320), 1)) for i in range(60)]
    kinds: list[StockKind] = ["offcut", "length"]
    racks = [
        Rack(id=f"r{i}", kind=pick.choice(kinds), length=round(pick.uniform(200, 1000)))
        for i in range(11)
    ]
    racks.append(Rack(id="reel", kind="reel", length=60_000))
    plan = nest(cuts, racks, keep=60, work=2)
    assert plan.unplaced == ()
    assert plan.optimal or plan.gap < 0.01
    # Beside the hand's plan, and beside what the wire alone weighs.
    assert plan.weight <= plan.first_fit_weight
    assert plan.bound > 0.97 * plan.weight
