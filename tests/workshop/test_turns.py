"""A change of a piece is worked out before anything is locked, and written in its own turn."""

import threading
from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any

import pytest
from django.db import connection, transaction
from django.http import Http404

from jamreel.workshop import finishing, making, pieces, planning, shops, turns, wearers
from jamreel.workshop.archive import put_away
from jamreel.workshop.models import Piece, Stock, Tick, Wearer, Workshop
from jamreel.workshop.pieces import StaleSave, refresh, save_brief, start_piece, undo
from jamreel.workshop.planning import forget_plans
from jamreel.workshop.resolving import resolve
from jamreel.workshop.stock import add_stock, amount_of
from jamreel.workshop.stock_csv import import_stock
from jamreel.workshop.turns import PutAway, Turn, take_turn, whole_piece

Brief = dict[str, Any]


@pytest.fixture
def piece(bench: Workshop, brief: Brief) -> Piece:
    return start_piece(bench, "Bangle", brief)


def reel(bench: Workshop, brief: Brief) -> Stock:
    return add_stock(bench, {"kind": "reel", "wire": brief["wire"], "amount": "10 m"})


@pytest.fixture
def under_lock(monkeypatch: pytest.MonkeyPatch) -> Iterator[list[str]]:
    """What was computed while the database was locked: names of what should be done before."""
    forget_plans()
    found: list[str] = []
    locked = threading.local()
    real = transaction.Atomic.__enter__

    @contextmanager
    def watched(name: str) -> Iterator[None]:
        if getattr(locked, "depth", 0):
            found.append(name)
        yield

    def enters(self: Any) -> None:
        real(self)
        locked.depth = getattr(locked, "depth", 0) + 1

    leaves = transaction.Atomic.__exit__

    def exits(self: Any, *error: Any) -> None:
        locked.depth -= 1
        leaves(self, *error)

    monkeypatch.setattr(transaction.Atomic, "__enter__", enters)
    monkeypatch.setattr(transaction.Atomic, "__exit__", exits)
    for module, name in (
        (planning, "plan_raw"), (planning, "unsound"), (planning, "_hash"), (planning, "standing"),
        (pieces, "derived"), (turns, "derived"),
    ):  # fmt: skip
        one = getattr(module, name)

        def asked(*given: Any, _one: Any = one, _name: str = name) -> Any:
            with watched(_name):
                return _one(*given)

        monkeypatch.setattr(module, name, asked)
    yield found
    forget_plans()


def test_nothing_is_computed_while_the_database_is_locked(
    bench: Workshop, brief: Brief, under_lock: list[str]
) -> None:
    piece = start_piece(bench, "Bangle", brief)
    stock = reel(bench, brief)
    changed, _ = save_brief(bench, piece.pk, 1, {**brief, "cutting": {"trim": "2"}})
    undo(bench, piece.pk, changed.version)
    making.tick(bench, piece.pk, "cut", "bangle", "400", stock.pk, sure=True)
    wire = whole_piece(bench, piece.pk)
    [record] = [tick for tick in wire.ticks.all() if tick.undone_at is None]
    resolve(bench, piece.pk, record.key, "offcut")
    making.tick(bench, piece.pk, "cut", "bangle")
    making.untick(bench, piece.pk, "cut", "bangle")
    finishing.finish(bench, piece.pk, finished=True)
    finishing.finish(bench, piece.pk, finished=False)
    fresh = shops.change_shop(bench, 1, {"unit": "in"})
    refresh(fresh)
    text = "kind,name,wire,metal,amount [mm or pieces]\nreel,,1 mm,copper,4000\n"
    assert import_stock(bench, text, commit=True).imported
    assert under_lock == []


def test_who_comes_second_works_it_out_again_and_nothing_is_lost(
    bench: Workshop, piece: Piece, brief: Brief
) -> None:
    calls = []

    def change(turn: Turn) -> None:
        calls.append(turn.piece.turn)
        if len(calls) == 1:
            # Somebody ticks while this one is being worked out.
            making.tick(bench, piece.pk, "cut", "bangle")
        turn.revise({**brief, "cutting": {"trim": "9"}}, "cutting.trim")

    found, planned = take_turn(bench, piece.pk, change)
    assert calls == [0, 1]
    assert found.version == 2
    assert [wire.verdict for wire in planned.standing.wires] == ["short"]
    assert Tick.objects.filter(undone_at__isnull=True).count() == 1


def test_a_save_meets_a_tick_and_is_not_turned_away(
    bench: Workshop, piece: Piece, brief: Brief
) -> None:
    # A tick changes no version: typing goes on.
    making.tick(bench, piece.pk, "cut", "bangle")
    found, _ = save_brief(bench, piece.pk, 1, {**brief, "cutting": {"trim": "2"}})
    assert found.version == 2
    with pytest.raises(StaleSave):
        save_brief(bench, piece.pk, 1, brief)


def test_what_fails_under_the_lock_leaves_nothing_behind(
    bench: Workshop, piece: Piece, brief: Brief
) -> None:
    short = add_stock(bench, {"kind": "length", "wire": brief["wire"], "amount": "100 mm"})
    before = Piece.objects.values().get(pk=piece.pk)
    with pytest.raises(Exception, match="only"):
        making.tick(bench, piece.pk, "cut", "bangle", "", short.pk)
    assert Piece.objects.values().get(pk=piece.pk) == before
    assert not Tick.objects.exists()
    assert amount_of(short) == 100


def test_another_benchs_piece_is_not_there_and_one_put_away_takes_no_turn(
    bench: Workshop, piece: Piece
) -> None:
    other = Workshop.objects.create(name="Other")
    with pytest.raises(Http404):
        Turn.of(other, piece.pk)
    put_away(bench, "piece", piece.pk)
    with pytest.raises(PutAway):
        Turn.of(bench, piece.pk)


def test_new_settings_mark_pieces_and_looking_works_them_out(
    bench: Workshop, piece: Piece, brief: Brief
) -> None:
    others = [start_piece(bench, f"Bangle {i}", brief) for i in range(3)]
    marked = Piece.objects.get(pk=piece.pk).worked_by
    fresh = shops.change_shop(bench, 1, {"unit": "in"})
    assert Piece.objects.get(pk=piece.pk).worked_by == marked
    # At least one is worked out at every look, however little time there is.
    left = [refresh(fresh, 0.0) for _ in range(4)]
    assert left == [3, 2, 1, 0]
    now = turns.worked_by(fresh)
    assert set(Piece.objects.values_list("worked_by", flat=True)) == {now} != {marked}
    assert Piece.objects.count() == 1 + len(others)


def test_looking_never_overwrites_what_happens_meanwhile(
    bench: Workshop, piece: Piece, brief: Brief
) -> None:
    fresh = shops.change_shop(bench, 1, {"unit": "in"})
    seen = whole_piece(fresh, piece.pk)
    making.tick(bench, piece.pk, "cut", "bangle")
    after = Piece.objects.get(pk=piece.pk)
    pieces.bring_up_to_date(seen)
    now = Piece.objects.get(pk=piece.pk)
    assert (now.waits_for, now.state) == (after.waits_for, after.state)


def test_a_finished_piece_keeps_what_it_said(bench: Workshop, piece: Piece) -> None:
    finishing.finish(bench, piece.pk, finished=True)
    before = Piece.objects.get(pk=piece.pk).state
    fresh = shops.change_shop(bench, 1, {"unit": "in"})
    assert refresh(fresh) == 0
    assert Piece.objects.get(pk=piece.pk).state == before


@pytest.mark.django_db(transaction=True)
def test_many_hands_on_one_piece_lose_nothing(bench: Workshop, brief: Brief) -> None:
    piece = start_piece(bench, "Bangle", brief)
    stock = reel(bench, brief)
    steps = [step.id for step in planning.plan_of(piece, planning.shop_of(bench)).plan.steps]  # type: ignore[union-attr]
    faults: list[BaseException] = []

    def ticks(key: str) -> None:
        try:
            making.tick(bench, piece.pk, "step", key)
        except BaseException as error:
            faults.append(error)
        finally:
            connection.close()

    def cuts() -> None:
        try:
            making.tick(bench, piece.pk, "cut", "bangle", "", stock.pk)
        except making.AlreadyTicked:
            pass
        finally:
            connection.close()

    threads = [threading.Thread(target=ticks, args=(key,)) for key in steps]
    threads += [threading.Thread(target=cuts) for _ in range(4)]
    for one in threads:
        one.start()
    for one in threads:
        one.join()
    assert faults == []
    standing = Tick.objects.filter(undone_at__isnull=True)
    assert standing.filter(kind="cut").count() == 1
    assert standing.filter(kind="step").count() == len(steps)
    assert amount_of(stock) == pytest.approx(10_000 - 245.53, abs=0.01)
    assert Piece.objects.get(pk=piece.pk).turn == len(steps) + 1


def test_a_wearers_readings_are_replaced_whatever_the_clock_says(
    bench: Workshop, brief: Brief
) -> None:
    wearer = Wearer.objects.create(workshop=bench, name="Wren")
    later = "2026-10-03T14:20"
    wearers.keep_readings(bench, wearer.pk, "wrist_girth", [{"value": "170", "taken": later}])
    earlier = "2020-01-01T00:00"
    wearers.keep_readings(bench, wearer.pk, "wrist_girth", [{"value": "158", "taken": earlier}])
    found = wearers.measures_of(wearer, "mm")["wrist_girth"]["readings"]
    assert [one["value"] for one in found] == ["158"]


def test_a_tick_or_a_wearer_that_changes_in_its_place_is_seen(
    bench: Workshop, brief: Brief
) -> None:
    wearer = Wearer.objects.create(workshop=bench, name="Wren")
    piece = start_piece(bench, "Reed bangle", brief, wearer)
    making.tick(bench, piece.pk, "cut", "bangle")
    turn = Turn.of(bench, piece.pk)
    before = turn.planned
    assert turn.planned is before
    turn.ticks[0].actual = 240.0
    cut = turn.planned
    assert [one.actual for one in cut.records] == [240.0] != [r.actual for r in before.records]
    assert turn.piece.wearer is not None
    turn.piece.wearer.is_child = True
    child = turn.planned
    assert cut.plan is not None
    assert child.plan is not None
    more = {one.id for one in child.plan.cautions} - {one.id for one in cut.plan.cautions}
    assert more == {"child"}
