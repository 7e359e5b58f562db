"""Bench mode: clocks, waits and repeats by the server's clock; what is told; two pieces in turn."""

import json
from collections.abc import Callable
from datetime import UTC, datetime, timedelta
from typing import Any

import pytest
from django.http import Http404

from jamreel.core.plan import BriefRefused
from jamreel.workshop import at_bench, clock, finishing, log, making
from jamreel.workshop.at_bench import AtBench, done, end_wait, go_to, in_hand, tell, waits_of
from jamreel.workshop.making import AlreadyTicked, NothingToTick
from jamreel.workshop.models import HandRecord, LogEntry, Piece, Workshop
from jamreel.workshop.pieces import start_piece
from jamreel.workshop.planning import shop_of
from jamreel.workshop.shops import change_hand, change_settings
from jamreel.workshop.stock import add_stock
from tests.conftest import EXAMPLES

Brief = dict[str, Any]
BEGIN = datetime(2026, 11, 2, 9, 0, tzinfo=UTC)


@pytest.fixture
def set_clock(monkeypatch: pytest.MonkeyPatch) -> Callable[[float], None]:
    """Set the server's clock to so many minutes after nine."""
    at = {"now": BEGIN}
    monkeypatch.setattr(clock, "now", lambda: at["now"])

    def set_to(minutes: float) -> None:
        at["now"] = BEGIN + timedelta(minutes=minutes)

    return set_to


@pytest.fixture
def bangle(bench: Workshop, brief: Brief) -> Piece:
    return start_piece(bench, "Bangle", brief)


def caps(bench: Workshop) -> Piece:
    """Return a piece whose glue has to set."""
    change_settings(bench, lambda typed: {"outfit": {"torch": True}})
    brief = {
        "schema": "0.2",
        "measures": {"wrist_girth": {"readings": [{"value": "158"}, {"value": "158"}]}},
        "piece": {
            "kind": "linked_bracelet",
            "entries": [{"id": "e1", "part": {"kind": "ladder", "ends": "bare"}, "times": 1}],
            "closure": {"kind": "end_caps"},
        },
        "wire": {"size": "0.8", "metal": "copper", "temper": "dead_soft"},
    }
    return start_piece(bench, "Caps", brief)


def ids(found: AtBench) -> list[str]:
    return [one.step.id for one in found.steps]


def test_a_clock_runs_while_its_step_is_in_hand_and_stands_still_in_pauses(
    bench: Workshop, bangle: Piece, set_clock: Callable[[float], None]
) -> None:
    first, second = ids(at_bench.at_bench(bench, bangle.pk))[:2]
    go_to(bench, bangle.pk, first)
    set_clock(3)
    at_bench.pause(bench)
    set_clock(60)
    go_to(bench, bangle.pk, first)
    set_clock(62)
    now = at_bench.at_bench(bench, bangle.pk)
    assert (now.at, now.steps[0].seconds, now.steps[0].running) == (first, 300.0, True)
    done(bench, bangle.pk, first)
    set_clock(63)
    after = at_bench.at_bench(bench, bangle.pk)
    assert after.at == second
    assert after.steps[0].done
    assert (after.steps[0].seconds, after.steps[1].seconds) == (300.0, 60.0)


def test_a_clock_that_was_forgotten_counts_four_hours_and_one_set_back_nothing(
    bench: Workshop, bangle: Piece, set_clock: Callable[[float], None]
) -> None:
    step = ids(at_bench.at_bench(bench, bangle.pk))[0]
    go_to(bench, bangle.pk, step)
    set_clock(60 * 20)
    at_bench.pause(bench)
    assert at_bench.at_bench(bench, bangle.pk).steps[0].seconds == 4 * 3600
    go_to(bench, bangle.pk, step)
    set_clock(60)
    at_bench.pause(bench)
    assert at_bench.at_bench(bench, bangle.pk).steps[0].seconds == 4 * 3600


def test_two_pieces_are_in_hand_in_turn_and_one_clock_runs(
    bench: Workshop, bangle: Piece, brief: Brief, set_clock: Callable[[float], None]
) -> None:
    other = start_piece(bench, "Other", brief)
    first = ids(at_bench.at_bench(bench, bangle.pk))[0]
    go_to(bench, bangle.pk, first)
    set_clock(2)
    go_to(bench, other.pk, first)
    set_clock(7)
    assert at_bench.at_bench(bench, bangle.pk).steps[0].seconds == 120
    assert not at_bench.at_bench(bench, bangle.pk).steps[0].running
    assert at_bench.at_bench(bench, other.pk).steps[0].seconds == 300
    assert [one.name for one in in_hand(bench)] == ["Bangle", "Other"]
    at_bench.lay_down(bench, bangle.pk)
    assert [one.name for one in in_hand(bench)] == ["Other"]


def test_a_wait_runs_by_the_servers_clock_beside_others_until_its_maker_goes_on(
    bench: Workshop, set_clock: Callable[[float], None]
) -> None:
    piece = caps(bench)
    steps = at_bench.at_bench(bench, piece.pk).steps
    glued = next(one.step for one in steps if one.step.waits_in == "glue")
    done(bench, piece.pk, glued.id)
    other = caps_again(bench)
    set_clock(30)
    done(bench, other.pk, glued.id)
    first, second = waits_of(bench)
    assert (first.piece_id, second.piece_id) == (piece.pk, other.pk)
    assert first.ends_at == BEGIN + timedelta(minutes=glued.waits)
    assert second.ends_at - first.ends_at == timedelta(minutes=30)
    # The day after, in whatever browser, it is still there and long over.
    set_clock(24 * 60)
    assert len(waits_of(bench)) == 2
    end_wait(bench, first.pk)
    assert [one.pk for one in waits_of(bench)] == [second.pk]
    # A step that is taken back takes its wait along.
    at_bench.undone(bench, other.pk, glued.id)
    assert waits_of(bench) == []


def caps_again(bench: Workshop) -> Piece:
    piece = caps(bench)
    piece.name = "Caps again"
    piece.save()
    return piece


def test_a_piece_resumes_where_it_was_left_and_at_the_first_open_step_otherwise(
    bench: Workshop, bangle: Piece, set_clock: Callable[[float], None]
) -> None:
    every = ids(at_bench.at_bench(bench, bangle.pk))
    assert at_bench.at_bench(bench, bangle.pk).at == every[0]
    go_to(bench, bangle.pk, every[3])
    at_bench.lay_down(bench, bangle.pk)
    assert at_bench.at_bench(bench, bangle.pk).at == every[3]
    making.tick(bench, bangle.pk, "step", every[3])
    assert at_bench.at_bench(bench, bangle.pk).at == every[0]


def test_a_second_tab_that_ticks_first_wins_and_the_other_is_told(
    bench: Workshop, bangle: Piece
) -> None:
    first = ids(at_bench.at_bench(bench, bangle.pk))[0]
    done(bench, bangle.pk, first)
    with pytest.raises(AlreadyTicked):
        done(bench, bangle.pk, first)
    with pytest.raises(NothingToTick):
        done(bench, bangle.pk, "no-such-step")
    with pytest.raises(NothingToTick):
        go_to(bench, bangle.pk, "no-such-step")


def test_repeats_are_counted_and_wires_are_cut_longest_first(bench: Workshop) -> None:
    piece = caps(bench)
    cutting = next(s for s in at_bench.at_bench(bench, piece.pk).steps if "cut" in s.step.asks)
    lengths = [cut.length_mm for _, cut in cutting.cuts]
    assert lengths == sorted(lengths, reverse=True)
    assert len(lengths) == cutting.step.times
    at_bench.count(bench, piece.pk, cutting.step.id, 2)
    making.tick(bench, piece.pk, "cut", cutting.cuts[0][0])
    again = next(s for s in at_bench.at_bench(bench, piece.pk).steps if "cut" in s.step.asks)
    assert again.counted == 2
    assert [key for key, _ in again.cuts] == [key for key, _ in cutting.cuts[1:]]


def test_a_round_is_gone_through_part_by_part(bench: Workshop) -> None:
    brief = json.loads((EXAMPLES / "linked-bracelet.json").read_text())
    rows = [{"id": "a", "part": {"kind": "linked_bead"}, "times": 3}]
    brief["piece"] = {**brief["piece"], "entries": rows, "counted": False}
    piece = start_piece(bench, "Three links", brief, None)
    at = [one.step for one in at_bench.at_bench(bench, piece.pk).steps if one.step.round]
    ids = [one.id for one in at]
    assert ids[:3] == ["a/first_open", "a/first_in", "a/wrapped_first"]
    assert [one.times for one in at[:3]] == [3, 2, 3]
    # One part: every step but hanging it in the last one, of which there is none.
    for key in (ids[0], *ids[2:]):
        at_bench.count(bench, piece.pk, key, 1)
    assert at_bench.at_bench(bench, piece.pk).at == ids[0]
    at_bench.count(bench, piece.pk, ids[0], 2)
    assert at_bench.at_bench(bench, piece.pk).at == ids[1]
    # A clock that is told late of a step moves nothing.
    go_to(bench, piece.pk, ids[0])
    assert at_bench.at_bench(bench, piece.pk).at == ids[1]
    # A count of before this order means the first so many.
    at_bench.count(bench, piece.pk, ids[1], 1)
    assert at_bench.at_bench(bench, piece.pk).at == ids[2]


@pytest.mark.parametrize(
    ("told", "field"),
    [
        ({"inside": "900"}, "told.inside"),
        ({"inside": "soft"}, "told.inside"),
        ({"left/bangle": "300"}, "told.left/bangle"),
        ({"left/bangle": "120"}, "told.left/bangle"),
    ],
)
def test_what_can_not_have_been_measured_is_refused_at_its_field(
    bench: Workshop, bangle: Piece, told: dict[str, str], field: str
) -> None:
    steps = at_bench.at_bench(bench, bangle.pk).steps
    asked = next(s for s in steps if {a.id for a in s.asks} >= told.keys())
    with pytest.raises(BriefRefused) as refused:
        tell(bench, bangle.pk, asked.step.id, told)
    assert refused.value.problems[0].field == field
    with pytest.raises(NothingToTick):
        tell(bench, bangle.pk, asked.step.id, {"weight": "3"})


def _asking(bench: Workshop, piece: Piece, what: str) -> str:
    steps = at_bench.at_bench(bench, piece.pk).steps
    return next(one.step.id for one in steps if what in {a.id for a in one.asks})


def test_a_finished_piece_goes_on_record_and_opened_again_it_is_set_aside(
    bench: Workshop, brief: Brief, set_clock: Callable[[float], None]
) -> None:
    add_stock(
        bench, {"kind": "reel", "wire": brief["wire"], "amount": "10 m", "price": "4", "name": "R"}
    )
    reel_id = add_stock(bench, {"kind": "reel", "wire": brief["wire"], "amount": "2 m"}).pk
    piece = start_piece(bench, "Bangle", {**brief, "cutting": {"school": "record"}})
    go_to(bench, piece.pk, ids(at_bench.at_bench(bench, piece.pk))[0])
    making.tick(bench, piece.pk, "cut", "bangle", stock_id=reel_id)
    found = at_bench.at_bench(bench, piece.pk)
    cut = found.planned.plan.cuts[0] if found.planned.plan else None
    assert cut is not None
    # The loops took 4 % more than their sum: so much less than the margin is left.
    loops = sum(one.by_sum for one in cut.techniques)
    spare = sum(n.value_mm for n in cut.lines if n.id in ("trim_right", "record", "margin"))
    left = spare - 0.04 * loops
    tell(bench, piece.pk, _asking(bench, piece, "left/bangle"), {"left/bangle": f"{left:.3f}"})
    tell(bench, piece.pk, _asking(bench, piece, "inside"), {"inside": "188"})
    minute = 0.0
    for one in found.steps:
        go_to(bench, piece.pk, one.step.id)
        minute += 2 * one.step.minutes
        set_clock(minute)
        done(bench, piece.pk, one.step.id)
    finishing.finish(bench, piece.pk, finished=True)
    entry = LogEntry.objects.get()
    assert entry.inside_made_mm == 188
    assert entry.minutes == pytest.approx(2 * entry.minutes_planned)
    assert entry.wire_mm == pytest.approx(cut.length_mm)
    assert entry.waste_mm == pytest.approx(1.5 + left, abs=1e-2)
    bench.refresh_from_db()
    hand = shop_of(bench).hand
    assert hand.of("loop", cut.stock).mean == pytest.approx(1.04, abs=1e-4)
    assert hand.pace_of("sliding.cut")[1] == 1
    assert hand.pace_of("sliding.cut")[0] == pytest.approx((0.36 + 2) / 1.36)
    kinds = set(HandRecord.objects.values_list("kind", flat=True))
    assert kinds == {"wire", "pace", "length"}
    finishing.finish(bench, piece.pk, finished=False)
    assert log.entries(bench).entries == []
    bench.refresh_from_db()
    assert shop_of(bench).hand.lines == ()
    assert not HandRecord.objects.filter(set_aside_at=None).exists()
    finishing.finish(bench, piece.pk, finished=True)
    assert LogEntry.objects.count() == 1
    assert len(log.entries(bench).entries) == 1


def test_a_piece_that_was_cut_on_the_board_goes_on_behind_cutting(
    bench: Workshop, bangle: Piece
) -> None:
    making.tick(bench, bangle.pk, "cut", "bangle")
    found = at_bench.at_bench(bench, bangle.pk)
    ahead = [one.step.id for one in found.steps if not one.done]
    assert ahead[0] == found.at == "mark"
    assert [one.step.id for one in found.steps if one.done] == ["straighten", "cut"]


def test_what_came_off_the_former_calibrates_the_reel(
    bench: Workshop, brief: Brief, set_clock: Callable[[float], None]
) -> None:
    reel = add_stock(bench, {"kind": "reel", "wire": brief["wire"], "amount": "10 m"})
    piece = start_piece(bench, "Bangle", brief)
    making.tick(bench, piece.pk, "cut", "bangle", stock_id=reel.pk)
    steps = at_bench.at_bench(bench, piece.pk).steps
    asked = next(a for one in steps for a in one.asks if a.id == "came_off")
    assert asked.expected is not None
    tell(bench, piece.pk, _asking(bench, piece, "came_off"), {"came_off": f"{asked.expected:.3f}"})
    finishing.finish(bench, piece.pk, finished=True)
    bench.refresh_from_db()
    measured = shop_of(bench).measured[0]
    # It came off where the usual yield of half-hard copper has it.
    assert measured.yield_mpa == pytest.approx(210, rel=0.05)
    assert (measured.stock, measured.records) == (reel.key, 1)


def test_the_hand_that_a_piece_is_cut_by_stays_its_own(bench: Workshop, brief: Brief) -> None:
    piece = start_piece(bench, "Bangle", {**brief, "cutting": {"school": "record"}})
    later = start_piece(bench, "Later", {**brief, "cutting": {"school": "record"}})
    making.tick(bench, piece.pk, "cut", "bangle")
    before = at_bench.at_bench(bench, piece.pk).planned.plan
    assert before is not None
    line = {"technique": "loop", "stock": before.cuts[0].stock, "n": 2, "mean": 1.2, "squares": 0}
    change_hand(bench, lambda known: {"hand": {"lines": [line]}})
    same = at_bench.at_bench(bench, piece.pk).planned
    other = at_bench.at_bench(bench, later.pk).planned.plan
    assert same.plan is not None
    assert other is not None
    assert same.plan.cuts[0].length_mm == before.cuts[0].length_mm
    assert same.standing.wires[0].verdict == "right"
    assert other.cuts[0].length_mm > before.cuts[0].length_mm
    # Nothing of it is cut any more: it goes by what is known now.
    making.untick(bench, piece.pk, "cut", "bangle")
    again = at_bench.at_bench(bench, piece.pk).planned.plan
    assert again is not None
    assert again.cuts[0].length_mm == other.cuts[0].length_mm


def test_nobody_reaches_another_bench(bench: Workshop, bangle: Piece) -> None:
    other = Workshop.objects.create(name="Sedge")
    for call in (
        lambda: at_bench.at_bench(other, bangle.pk),
        lambda: go_to(other, bangle.pk, "cut"),
        lambda: at_bench.lay_down(other, bangle.pk),
        lambda: at_bench.count(other, bangle.pk, "cut", 1),
        lambda: end_wait(other, 1),
    ):
        with pytest.raises(Http404):
            call()


def test_a_wire_is_cut_from_the_rack_in_the_order_of_a_layout(
    bench: Workshop, bangle: Piece, brief: Brief
) -> None:
    rack = {
        name: add_stock(
            bench, {"kind": kind, "wire": brief["wire"], "amount": amount, "name": name}
        )
        for name, kind, amount in (
            ("reel", "reel", "9 m"),
            ("long", "offcut", "900"),
            ("short", "offcut", "300"),
            ("bar", "length", "500"),
        )
    }
    add_stock(bench, {"kind": "reel", "wire": {"size": "1 mm"}, "amount": "9 m"})
    add_stock(bench, {"kind": "bead", "name": "jet", "amount": "12"})
    found = at_bench.may_serve(bench, {rack["reel"].key})
    assert [(stock.name, amount) for stock, amount in found] == [
        ("short", 300), ("long", 900), ("bar", 500), ("reel", 9000),
    ]  # fmt: skip
