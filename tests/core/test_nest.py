"""Nesting: nothing longer than it is, everything once, and as good as it can be."""

import math
import random
from itertools import product

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import ValidationError

from jamreel.core.cutting.fullest import fullest, powers
from jamreel.core.cutting.nest import Nest, nest
from jamreel.core.cutting.problem import Rack, StockKind, Wanted
from jamreel.core.errors import Refusal

lengths = st.floats(5, 400).map(lambda x: round(x, 1))
cuts = st.lists(lengths, min_size=1, max_size=14)
kinds = st.sampled_from(["offcut", "length", "reel"])
racks = st.lists(st.tuples(kinds, st.floats(20, 900).map(lambda x: round(x, 1))), max_size=6)


def laid_out(
    wanted: list[float],
    rack: list[tuple[StockKind, float]],
    keep: float = 60.0,
    kerf: float = 0.0,
    work: float = 1.0,
) -> Nest:
    return nest(
        [Wanted(id=str(i), length=n) for i, n in enumerate(wanted)],
        [Rack(id=f"r{i}", kind=kind, length=n) for i, (kind, n) in enumerate(rack)],
        keep,
        kerf,
        work,
    )


@settings(max_examples=40)
@given(cuts, racks, st.sampled_from([0.0, 1.5]))
def test_no_wire_is_cut_longer_than_it_is_and_every_cut_is_placed_once(
    wanted: list[float], rack: list[tuple[StockKind, float]], kerf: float
) -> None:
    plan = laid_out(wanted, rack, kerf=kerf, work=0.3)
    placed = [cut for one in plan.laid for cut in one.cuts]
    assert sorted([*placed, *plan.unplaced]) == sorted(str(i) for i in range(len(wanted)))
    for one in plan.laid:
        total = sum(wanted[int(cut)] + kerf for cut in one.cuts)
        assert total <= one.rack.length + 0.11
        assert one.used + one.left == pytest.approx(one.rack.length, abs=0.11)
        assert one.scrap == (0 if one.rack.kind == "reel" or one.left >= 60 else one.left)
        assert [wanted[int(c)] for c in one.cuts] == sorted(
            (wanted[int(c)] for c in one.cuts), reverse=True
        )
    assert plan.weight <= plan.first_fit_weight + 1e-6
    assert plan.bound <= plan.weight + 1e-6


def test_offcuts_go_first_unless_that_scraps_more_than_it_saves() -> None:
    saves = laid_out([95.0], [("reel", 5000.0), ("offcut", 100.0)])
    assert [one.rack.kind for one in saves.laid] == ["offcut"]
    assert saves.scrap == 5.0
    # 62 off a 100 would scrap the 38 that is left: still less than 62 of new wire weighs.
    less = laid_out([20.0], [("reel", 5000.0), ("offcut", 79.0)])
    assert [one.rack.kind for one in less.laid] == ["reel"]
    assert less.scrap == 0


def test_one_long_remnant_is_left_rather_than_two() -> None:
    # On one length both would leave 50, which is scrap: better two remnants worth keeping.
    apart = laid_out([200.0, 150.0], [("length", 400.0), ("length", 400.0)])
    assert [one.left for one in apart.laid] == [200.0, 250.0]
    assert (apart.scrap, apart.first_fit_scrap) == (0, 50.0)
    roomy = laid_out([200.0, 100.0], [("length", 400.0), ("length", 400.0)])
    assert [one.left for one in roomy.laid] == [100.0]


def test_what_is_too_long_for_everything_is_named() -> None:
    plan = laid_out([300.0, 40.0], [("offcut", 120.0)])
    assert plan.unplaced == ("0",)
    empty = laid_out([300.0], [])
    assert empty.unplaced == ("0",)
    assert laid_out([], [("reel", 100.0)]).laid == ()


def test_the_hands_plan_is_beaten_where_first_fit_wastes() -> None:
    # Longest first puts 60 with 30 and leaves no place for the pair of 50s and 40s.
    plan = laid_out([60.0, 50.0, 50.0, 40.0], [("length", 100.0)] * 2, keep=1e6)
    assert plan.opened == 2
    thirds = [44.0, 44.0, 44.0, 27.0, 27.0, 27.0, 29.0, 29.0, 29.0]
    tight = laid_out(thirds, [("length", 100.0)] * 4, 1e6)
    assert tight.opened == 3
    assert tight.first_fit_opened == 4
    assert tight.optimal


def test_nonsense_is_refused() -> None:
    for wrong in (0.0, -3.0, math.nan, math.inf):
        with pytest.raises((Refusal, ValidationError)):
            laid_out([wrong], [("reel", 100.0)])
        if wrong != 0:
            with pytest.raises((Refusal, ValidationError)):
                laid_out([10.0], [("reel", wrong)])


def test_the_same_input_gives_the_same_plan() -> None:
    wanted = [81.3, 81.3, 44.0, 120.5, 33.3, 61.0, 61.0]
    rack: list[tuple[StockKind, float]] = [("offcut", 170.0), ("offcut", 130.0), ("reel", 4000.0)]
    one, two = (laid_out(wanted, rack) for _ in range(2))
    assert one.optimal
    assert one.laid == two.laid


small = st.lists(st.tuples(st.integers(3, 40), st.integers(1, 3)), min_size=1, max_size=5)


@given(small, st.integers(5, 120), st.integers(0, 30))
def test_a_piece_is_filled_as_brute_force_fills_it(
    kinds: list[tuple[int, int]], room: int, keep: int
) -> None:
    kinds = sorted(kinds, reverse=True)
    takes, counts = [t for t, _ in kinds], [n for _, n in kinds]

    def worth(used: float) -> float:
        committed = room if room - used < keep else used
        return 100 * used - 40 * committed

    found = fullest(takes, counts, room, lambda used: np.vectorize(worth)(used))
    sums = [
        sum(n * t for n, t in zip(pick, takes, strict=True))
        for pick in product(*(range(n + 1) for n in counts))
    ]
    best = max((worth(s) for s in sums if 0 < s <= room), default=0.0)
    if best <= 0:
        assert found is None
    else:
        assert found is not None
        assert all(0 <= a <= b for a, b in zip(found, counts, strict=True))
        assert worth(sum(n * t for n, t in zip(found, takes, strict=True))) == best


def test_long_cuts_go_before_short_ones_where_both_would_do() -> None:
    assert fullest([60, 40, 20], [1, 1, 5], 100, lambda used: used) == (1, 1, 0)
    assert fullest([60, 40], [1, 1], 30, lambda used: used) is None


@given(st.integers(1, 500))
def test_powers_add_up_to_every_count(count: int) -> None:
    parts = powers(count)
    assert sum(parts) == count
    reached = {0}
    for part in parts:
        reached |= {n + part for n in reached}
    assert reached == set(range(count + 1))


@pytest.mark.parametrize(("count", "pieces"), [(60, 12), (200, 30), (400, 60)])
def test_many_mixed_cuts_come_within_a_thousandth_of_the_bound_in_time(
    count: int, pieces: int
) -> None:
    pick = random.Random(count)
    rack: list[tuple[StockKind, float]] = [
        (pick.choice(["offcut", "length"]), float(pick.randint(200, 1000))) for _ in range(pieces)
    ]
    wanted = [round(pick.uniform(30, 320), 1) for _ in range(count)]
    plan = laid_out(wanted, [*rack, ("reel", 200_000.0)], work=2.0)
    assert plan.gap < 0.001
    assert plan.scrap < plan.first_fit_scrap
    assert plan.weight < plan.first_fit_weight
