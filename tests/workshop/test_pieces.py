"""Revisions: nothing is lost, undo walks back, a stale save is refused."""

from datetime import timedelta
from typing import Any

import pytest

from jamreel.core.families import registered
from jamreel.core.plan import BriefRefused
from jamreel.workshop import finishing, making, turns
from jamreel.workshop.models import Piece, Revision, Tick, Workshop
from jamreel.workshop.pieces import (
    StaleSave,
    changed_field,
    redo,
    refresh,
    save_brief,
    start_piece,
    undo,
)
from jamreel.workshop.shops import StaleShop, change_shop


def save(piece: Piece, brief: dict[str, Any]) -> Piece:
    return save_brief(piece.workshop, piece.pk, piece.version, brief)[0]


def brief_of(piece: Piece) -> dict[str, Any]:
    piece.refresh_from_db()
    assert piece.head is not None
    brief: dict[str, Any] = piece.head.brief
    return brief


def typed(brief: dict[str, Any], wire: str) -> dict[str, Any]:
    return {**brief, "wire": {**brief["wire"], "size": wire}}


@pytest.fixture
def piece(bench: Workshop, brief: dict[str, Any]) -> Piece:
    return start_piece(bench, "Bangle", brief)


def test_a_piece_is_kept_with_every_choice_spelled_out(piece: Piece) -> None:
    whole = brief_of(piece)
    fields = registered()["sliding_bangle"].model_fields
    assert set(whole["piece"]) == set(fields)
    # What leaves a choice open, or unreadable, is completed as soon as it can be read.
    bare = {**whole, "piece": {"kind": "open_cuff"}, "wire": {**whole["wire"], "size": "thick"}}
    save(piece, bare)
    assert brief_of(piece)["piece"] == {"kind": "open_cuff"}
    save(piece, {**bare, "wire": whole["wire"]})
    assert set(brief_of(piece)["piece"]) == set(registered()["open_cuff"].model_fields)


@pytest.fixture
def slow(monkeypatch: pytest.MonkeyPatch) -> None:
    """Every save counts as a change of its own."""
    monkeypatch.setattr(turns, "BURST", timedelta(0))


def test_a_brief_is_kept_as_typed_even_when_it_gives_no_plan(piece: Piece) -> None:
    nonsense = typed(brief_of(piece), "14 whatever")
    saved, planned = save_brief(piece.workshop, piece.pk, piece.version, nonsense)
    assert brief_of(saved) == nonsense
    assert planned.plan is None
    assert planned.problems[0].field == "wire.size"
    assert saved.state["stations"]["make_up"]["state"] == "needs"


@pytest.mark.usefixtures("slow")
def test_undo_and_redo_walk_the_revisions(piece: Piece) -> None:
    first = brief_of(piece)
    for wire in ("12 awg", "16 awg"):
        piece = save(piece, typed(first, wire))
    piece = undo(piece.workshop, piece.pk, piece.version)[0]
    assert brief_of(piece)["wire"]["size"] == "12 awg"
    piece = undo(piece.workshop, piece.pk, piece.version)[0]
    assert brief_of(piece) == first
    piece = undo(piece.workshop, piece.pk, piece.version)[0]
    assert brief_of(piece) == first
    piece = redo(piece.workshop, piece.pk, piece.version)[0]
    piece = redo(piece.workshop, piece.pk, piece.version)[0]
    assert brief_of(piece)["wire"]["size"] == "16 awg"
    # A change after undo makes a new branch; the old one is still on record.
    piece = undo(piece.workshop, piece.pk, piece.version)[0]
    piece = save(piece, typed(first, "18 awg"))
    sizes = {r.brief["wire"]["size"] for r in Revision.objects.filter(piece=piece)}
    assert sizes == {"14 awg", "12 awg", "16 awg", "18 awg"}


def test_a_burst_of_typing_is_undone_at_once_and_redone_at_once(piece: Piece) -> None:
    first = brief_of(piece)
    for wire in ("1", "12", "12 awg"):
        piece = save(piece, typed(first, wire))
    piece = save(piece, {**brief_of(piece), "side": "left"})
    piece = undo(piece.workshop, piece.pk, piece.version)[0]
    assert brief_of(piece)["wire"]["size"] == "12 awg"
    piece = undo(piece.workshop, piece.pk, piece.version)[0]
    assert brief_of(piece) == first
    piece = redo(piece.workshop, piece.pk, piece.version)[0]
    assert brief_of(piece)["wire"]["size"] == "12 awg"


def test_a_stale_save_is_refused_and_changes_nothing(piece: Piece) -> None:
    old = piece.version
    moved = save(piece, typed(brief_of(piece), "12 awg"))
    with pytest.raises(StaleSave) as stale:
        save_brief(piece.workshop, piece.pk, old, typed(brief_of(piece), "18 awg"))
    assert stale.value.piece.version == moved.version
    with pytest.raises(StaleSave):
        undo(piece.workshop, piece.pk, old)
    assert brief_of(moved)["wire"]["size"] == "12 awg"


def test_the_changed_field_is_named() -> None:
    before = {"wire": {"size": "14", "metal": "copper"}, "readings": [{"v": 1}, {"v": 2}]}
    assert (
        changed_field(before, {**before, "wire": {"size": "1", "metal": "copper"}}) == "wire.size"
    )
    after = {**before, "readings": [{"v": 1}, {"v": 3}]}
    assert changed_field(before, after) == "readings.1.v"
    assert changed_field(before, {**after, "wire": {}}) == ""


def test_a_cut_keeps_what_it_was_and_goes_stale_when_the_plan_moves_on(piece: Piece) -> None:
    making.tick(piece.workshop, piece.pk, "cut", "bangle", "245.2")
    piece.refresh_from_db()
    assert piece.waits_for == "form"
    (tick,) = Tick.objects.filter(piece=piece)
    assert tick.planned == pytest.approx(245.53, abs=0.01)
    assert tick.actual == 245.2
    assert tick.what["stock"] == "copper/half_hard/round/1.63x1.63"
    piece = save(piece, {**brief_of(piece), "cutting": {"trim": "3"}})
    assert piece.state["stations"]["cut"]["state"] == "stale"
    assert piece.waits_for == "cut"
    making.untick(piece.workshop, piece.pk, "cut", "bangle")
    piece.refresh_from_db()
    assert piece.state["stations"]["cut"]["state"] == "needs"
    assert Tick.objects.filter(piece=piece).count() == 1  # the undone tick stays on record


def test_ticking_twice_or_what_is_not_there(piece: Piece) -> None:
    making.tick(piece.workshop, piece.pk, "cut", "bangle")
    with pytest.raises(making.AlreadyTicked):
        making.tick(piece.workshop, piece.pk, "cut", "bangle")
    with pytest.raises(making.NothingToTick):
        making.tick(piece.workshop, piece.pk, "step", "solder")
    with pytest.raises(making.NothingToTick):
        making.untick(piece.workshop, piece.pk, "step", "shape")
    making.untick(piece.workshop, piece.pk, "cut", "bangle")
    with pytest.raises(BriefRefused) as refused:
        making.tick(piece.workshop, piece.pk, "cut", "bangle", "long")
    assert refused.value.problems[0].field == "made.bangle"
    assert not Tick.objects.filter(piece=piece, undone_at=None).exists()


def test_from_cut_to_finished(piece: Piece) -> None:
    bench = piece.workshop
    making.tick(bench, piece.pk, "cut", "bangle")
    for step in ("loop_up", "shape", "thread", "loop_down"):
        making.tick(bench, piece.pk, "step", step)
    piece.refresh_from_db()
    assert piece.waits_for == "try_on"
    before = piece.version
    making.record_tryon(bench, piece.pk, {"open_inside_girth": "216"})
    piece.refresh_from_db()
    assert piece.waits_for == "put_right"
    assert piece.state["answer"]["value_mm"] == pytest.approx(11)
    assert piece.version == before
    record = piece.tryons.get()
    assert "24.3" in record.answer["says"]
    with pytest.raises(making.NothingToTick):
        making.record_tryon(bench, piece.pk, {})
    making.mark_put_right(bench, piece.pk, record.pk)
    piece.refresh_from_db()
    assert piece.waits_for == "try_on"
    finishing.finish(bench, piece.pk, finished=True)
    piece.refresh_from_db()
    assert piece.waits_for == "done"


def test_new_tools_work_every_piece_out_anew(piece: Piece) -> None:
    bench = piece.workshop
    only = {"name": "tin", "kind": "household", "diameters": ["52"]}
    making.tick(bench, piece.pk, "cut", "bangle")
    fresh = change_shop(bench, 1, {"formers": [only]})
    # Marked, and worked out when it is next looked at.
    assert refresh(fresh) == 0
    piece.refresh_from_db()
    assert piece.state["answer"]["value_mm"] == 52
    with pytest.raises(StaleShop):
        change_shop(bench, 1, {"formers": []})
    with pytest.raises(BriefRefused) as refused:
        change_shop(bench, 2, {"formers": [{**only, "diameters": ["0.01"]}]})
    assert "formers" in refused.value.problems[0].field
