"""What nesting is put together from: weights, bounds, prices of patterns, work that is counted."""

import itertools
import math
import random
from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from ortools.sat.python import cp_model

from jamreel.core.cutting.columns import Class, Column, _price, relax, whole_plan
from jamreel.core.cutting.nest import nest
from jamreel.core.cutting.problem import (
    MISSING,
    OPEN,
    Plan,
    Problem,
    Rack,
    StockKind,
    Wanted,
    in_tenths,
)
from jamreel.core.cutting.search import few_at_a_time, piece_by_piece
from jamreel.core.cutting.starts import filled, first_fit
from jamreel.core.cutting.work import Work

Stock = list[tuple[StockKind, float]]


def problem(cuts: list[float], stock: Stock, keep: float = 60.0, kerf: float = 0.0) -> Problem:
    return in_tenths(
        [Wanted(id=str(i), length=n) for i, n in enumerate(cuts)],
        [Rack(id=f"r{i}", kind=kind, length=n) for i, (kind, n) in enumerate(stock)],
        keep,
        kerf,
    )


def every_plan(one: Problem) -> Any:
    """Yield every way to lay the cuts of a small problem out, brute force."""
    rows = [
        [
            row
            for row in itertools.product(*(range(count + 1) for count in one.counts))
            if one.used(row) <= room
        ]
        for room in one.rooms
    ]
    for plan in itertools.product(*rows):
        if all(n >= 0 for n in one.missing([list(row) for row in plan])):
            yield [list(row) for row in plan]


small_cuts = st.lists(st.sampled_from([30.0, 41.5, 52.0, 75.0]), min_size=1, max_size=5)
small_stock: Any = st.lists(
    st.tuples(
        st.sampled_from(["offcut", "length", "reel", "buy"]),
        st.sampled_from([60.0, 95.0, 130.0, 150.0]),
    ),
    min_size=1,
    max_size=3,
)


def test_lengths_are_rounded_up_and_stock_down_to_tenths() -> None:
    one = problem([80.01], [("length", 99.99)], keep=60.04, kerf=0.11)
    assert (one.lengths, one.rooms, one.keep, one.kerf) == ([801], [999], 600, 2)
    assert one.takes == [803]


def test_kinds_come_longest_first_and_stock_nearly_used_up_first() -> None:
    one = problem([40, 90, 40], [("reel", 500), ("offcut", 90), ("buy", 10), ("offcut", 70)])
    assert one.lengths == [900, 400]
    assert one.counts == [1, 2]
    assert one.ids == [["1"], ["0", "2"]]
    assert [(r.kind, r.length) for r in one.racks] == [
        ("offcut", 70),
        ("offcut", 90),
        ("reel", 500),
        ("buy", 10),
    ]


@pytest.mark.parametrize(
    ("kind", "room", "cut", "weight"),
    [
        # 40 off a 90: 50 is left, too short to keep; all of it weighs.
        ("offcut", 90, 40, OPEN + 40 * 900),
        # 40 off a 200: 160 is kept, only what is used weighs.
        ("length", 200, 40, OPEN + 90 * 400),
        # Of a reel nothing is scrap.
        ("reel", 90, 40, OPEN + 100 * 400),
        # What is bought weighs all of its length besides; exactly the keep-length is left.
        ("buy", 100, 40, OPEN + 250 * 1000 + 100 * 400),
        ("buy", 99.9, 40, OPEN + 250 * 999 + 100 * 999),
    ],
)
def test_what_a_piece_weighs(kind: StockKind, room: float, cut: float, weight: int) -> None:
    one = problem([cut], [(kind, room)])
    assert one.weighs(0, [1]) == weight
    assert one.weight([[1]]) == weight
    assert one.weighs(0, [0]) == 0


def test_what_is_left_out_weighs_more_than_any_wire() -> None:
    one = problem([40], [("buy", 1000)])
    assert one.weight([[0]]) == MISSING * 400


@settings(max_examples=40)
@given(small_cuts, small_stock, st.sampled_from([0.0, 2.0]))
def test_no_plan_weighs_less_than_the_bound_says(
    cuts: list[float], stock: Stock, kerf: float
) -> None:
    one = problem(cuts, stock, kerf=kerf)
    lightest = min(one.weight(plan) for plan in every_plan(one))
    assert one.least() <= lightest
    grain = one.grain()
    if grain:
        assert all(
            one.weight(plan) % grain == 0 for plan in every_plan(one) if not any(one.missing(plan))
        )


@settings(max_examples=30)
@given(small_cuts, small_stock)
def test_small_problems_are_laid_out_as_brute_force_lays_them_out(
    cuts: list[float], stock: Stock
) -> None:
    one = problem(cuts, stock)
    lightest = min(one.weight(plan) for plan in every_plan(one))
    found = nest(
        [Wanted(id=str(i), length=n) for i, n in enumerate(cuts)],
        [Rack(id=f"r{i}", kind=kind, length=n) for i, (kind, n) in enumerate(stock)],
        60.0,
    )
    assert found.optimal
    assert found.weight == pytest.approx(lightest / 1000)
    assert found.bound <= found.weight + 1e-9


@settings(max_examples=30)
@given(small_cuts, small_stock)
def test_plans_to_start_from_are_plans(cuts: list[float], stock: Stock) -> None:
    one = problem(cuts, stock)
    for plan in (first_fit(one), filled(one)):
        assert all(one.used(row) <= room for row, room in zip(plan, one.rooms, strict=True))
        assert all(n >= 0 for n in one.missing(plan))


def test_a_part_of_a_problem_has_its_pieces_and_the_cuts_that_are_wanted() -> None:
    one = problem([90, 40, 40, 30], [("offcut", 90), ("length", 200), ("reel", 500)])
    part = one.part([0, 2], [0, 2, 0])
    assert (part.lengths, part.counts) == ([400], [2])
    assert [rack.kind for rack in part.racks] == ["offcut", "reel"]
    # Of the reel no more is looked at than all cuts and the keep-length could need.
    assert part.rooms == [900, 2600]
    assert (part.keep, part.kerf) == (one.keep, one.kerf)


def classes_of(*rows: tuple[int, int, int, bool]) -> list[Class]:
    return [Class(room, count, weight, 600, OPEN, endless) for room, count, weight, endless in rows]


@pytest.mark.parametrize("endless", [False, True])
def test_the_pattern_that_prices_value_most_is_found_as_brute_force_finds_it(endless: bool) -> None:
    pick = random.Random(3)
    for _ in range(25):
        takes = sorted((pick.randint(150, 900) for _ in range(3)), reverse=True)
        wanted = [pick.randint(1, 3) for _ in takes]
        each = Class(pick.randint(800, 2500), 1, pick.choice([40, 90, 250]), 600, OPEN, endless)
        prices = np.array([pick.uniform(20, 400) * take for take in takes])
        share = pick.uniform(0, 5000)
        column, gain = _price(0, each, takes, wanted, prices, share, Work(10))
        best = -math.inf
        for counts in itertools.product(*(range(n + 1) for n in wanted)):
            spent = sum(n * t for n, t in zip(counts, takes, strict=True))
            if 0 < spent <= each.room:
                worth = sum(n * float(p) for n, p in zip(counts, prices, strict=True))
                best = max(best, worth - each.cost(spent) - share)
        if column is None:
            assert best <= 0
        else:
            spent = sum(n * t for n, t in zip(column.counts, takes, strict=True))
            assert gain == pytest.approx(best)
            assert column.cost == each.cost(spent)
            assert spent <= each.room


def test_using_a_piece_costs_its_opening_and_its_scrap() -> None:
    piece, reel = classes_of((1000, 1, 90, False), (1000, 1, 100, True))
    assert piece.cost(400) == OPEN + 90 * 400
    assert piece.cost(401) == OPEN + 90 * 1000
    assert reel.cost(401) == OPEN + 100 * 401


def test_the_relaxation_bounds_every_plan_and_stops_when_nothing_gains() -> None:
    takes, wanted = [450, 300, 220], [6, 5, 7]
    classes = classes_of((1000, 12, 250, False))
    work = Work(5)
    bound, columns = relax(takes, wanted, classes, [], MISSING, work)
    assert work.left > 4  # it ended by itself
    whole = whole_plan(takes, wanted, classes, columns, MISSING, work, 2.0)
    assert whole is not None
    weight = sum(column.cost for column in whole)
    assert bound <= weight + 1e-6
    # Wire alone: 6 of 450, 5 of 300, 7 of 220 make 5740, of pieces of 1000.
    assert bound >= 5740 * 250
    made = [sum(column.counts[k] for column in whole) for k in range(3)]
    assert made == wanted


def test_without_work_to_spend_there_is_no_bound() -> None:
    start = [Column(0, (1,), 10)]
    bound, columns = relax([100], [1], classes_of((500, 1, 90, False)), start, MISSING, Work(0.0))
    assert bound == -math.inf
    assert columns == start


def test_a_search_over_all_pieces_proves_what_it_finds() -> None:
    one = problem([60, 50, 50, 40], [("length", 100), ("length", 100), ("length", 100)], keep=1e6)
    hint = first_fit(one)
    plan, bound = piece_by_piece(one, hint, Work(5), 5)
    assert one.weight(plan) == pytest.approx(bound)
    assert sum(any(row) for row in plan) == 2
    assert one.weight(plan) <= one.weight(hint)


def mixed(seed: int, count: int, pieces: int) -> Problem:
    pick = random.Random(seed)
    kinds: list[StockKind] = ["offcut", "length", "reel", "buy"]
    return problem(
        [round(pick.uniform(30, 300), 1) for _ in range(count)],
        [(pick.choice(kinds), round(pick.uniform(100, 900), 1)) for _ in range(pieces)],
    )


@pytest.mark.parametrize("seed", [1, 2])
def test_laying_a_few_pieces_out_anew_never_makes_a_plan_heavier(seed: int) -> None:
    one = mixed(seed, 24, 10)
    start = first_fit(one)
    plan: Plan = few_at_a_time(one, start, float(one.least()), Work(0.6))
    assert one.weight(plan) < one.weight(start)
    assert all(n >= 0 for n in one.missing(plan))
    for row, room in zip(plan, one.rooms, strict=True):
        assert one.used(row) <= room
    # The plan that was given is left as it was.
    assert start == first_fit(one)


def test_it_stops_at_once_where_the_bound_is_met() -> None:
    one = mixed(1, 6, 4)
    plan = first_fit(one)
    work = Work(5)
    assert few_at_a_time(one, plan, float(one.weight(plan)), work) == plan
    assert work.left == 5


def test_a_busy_machine_finds_the_same_plan(monkeypatch: pytest.MonkeyPatch) -> None:
    """Time is not looked at: clocks may run as they like."""
    cuts = [Wanted(id=str(i), length=30 + 7.3 * i) for i in range(18)]
    kinds: list[StockKind] = ["offcut", "length", "reel"]
    racks = [Rack(id=f"r{i}", kind=kinds[i % 3], length=150 + 61 * i) for i in range(8)]
    quick = nest(cuts, racks, 60, work=0.5)
    moments = itertools.count(0, 1000)
    for clock in ("time.time", "time.perf_counter", "time.monotonic", "time.process_time"):
        monkeypatch.setattr(clock, lambda: float(next(moments)))
    assert nest(cuts, racks, 60, work=0.5) == quick


def test_work_is_shared_out_and_given_back() -> None:
    work = Work(2.0)
    part = work.share(0.25)
    assert (part.left, work.left) == (0.5, 1.5)
    part.spend(0.2)
    work.back(part)
    assert work.left == pytest.approx(1.8)
    spent = Work(0.1)
    spent.spend(0.3)
    assert spent.share(0.5).left == 0


def test_a_model_that_can_not_be_solved_gives_nothing() -> None:
    model = cp_model.CpModel()
    x = model.new_bool_var("x")
    model.add(x >= 1)
    model.add(x <= 0)
    work = Work(1.0)
    assert work.solve(model, 1.0) is None
    assert work.left < 1.0
