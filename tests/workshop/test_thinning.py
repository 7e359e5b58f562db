"""Old revisions are thinned out: what was gone by stays, undo goes on, and bytes are counted."""

from datetime import UTC, datetime, timedelta
from typing import Any

import pytest

from jamreel.core.plan import BriefRefused
from jamreel.workshop import clock, making, pieces, quotas
from jamreel.workshop.models import Piece, Revision, Workshop
from jamreel.workshop.pieces import can_move, save_brief, start_piece, undo
from jamreel.workshop.thinning import thin

Brief = dict[str, Any]
NOW = datetime(2026, 11, 30, 12, 30, tzinfo=UTC)


@pytest.fixture
def aged(bench: Workshop, brief: Brief) -> Piece:
    """A piece saved every ten minutes for thirty days."""
    piece = start_piece(bench, "Bangle", brief)
    made = Revision.objects.get()
    Revision.objects.filter(pk=made.pk).update(saved_at=NOW - timedelta(days=30))
    parent = made
    for n in range(1, 30 * 24 * 6):
        parent = Revision(
            workshop=bench,
            piece=piece,
            parent=parent,
            brief={**brief, "cutting": {"trim": f"{1 + n % 50 / 50:.2f}"}},
            size=1000,
            saved_at=NOW - timedelta(days=30) + timedelta(minutes=10 * n),
            pk=made.pk + n,
        )
        rows.append(parent)
    Revision.objects.bulk_create(rows)
    rows.clear()
    Piece.objects.filter(pk=piece.pk).update(head=parent, version=4320)
    Workshop.objects.filter(pk=bench.pk).update(kept_bytes=4_319_000 + made.size)
    piece.refresh_from_db()
    return piece


rows: list[Revision] = []


def thinned(piece: Piece) -> list[Revision]:
    with clock.standing_at(NOW):
        while thin(piece):
            pass
    return list(Revision.objects.order_by("pk"))


def test_what_was_gone_by_the_first_and_the_last_day_stay(aged: Piece) -> None:
    by = Revision.objects.order_by("pk")[777]
    making.tick(aged.workshop, aged.pk, "cut", "bangle")
    tick = aged.ticks.get()
    tick.revision = by
    tick.save()
    before = {one.pk for one in Revision.objects.all()}
    left = thinned(aged)
    kept = {one.pk for one in left}
    ages = {one.pk: NOW - one.saved_at for one in left}
    day = [pk for pk, age in ages.items() if age < timedelta(days=1)]
    week = [pk for pk, age in ages.items() if timedelta(days=1) <= age < timedelta(days=7)]
    older = [pk for pk, age in ages.items() if age >= timedelta(days=7)]
    assert len(day) == 24 * 6 - 1
    # One an hour, then one a day; the first of all and the one that was cut by besides.
    assert 6 * 24 <= len(week) <= 6 * 24 + 1
    assert 23 <= len(older) <= 23 + 3
    assert {min(before), by.pk, aged.head_id} <= kept
    # The whole chain hangs together, each from one that was saved before it.
    for one in left:
        assert one.parent_id is None or one.parent_id in kept
        assert one.parent_id is None or one.parent_id < one.pk
    assert [one.pk for one in left if one.parent_id is None] == [min(before)]


def test_undo_walks_from_the_head_to_the_first_through_what_is_left(aged: Piece) -> None:
    left = thinned(aged)
    version, steps = aged.version, 0
    while can_move(Piece.objects.select_related("head__burst").get(pk=aged.pk))[0]:
        undo(aged.workshop, aged.pk, version)
        version, steps = version + 1, steps + 1
        if steps > 12:
            break
    # Each step is the one before it of those that are left.
    assert Piece.objects.get(pk=aged.pk).head_id == left[-1 - steps].pk


def test_bytes_are_counted_and_given_back(aged: Piece) -> None:
    bench = aged.workshop
    left = thinned(aged)
    bench.refresh_from_db()
    assert bench.kept_bytes == sum(one.size for one in left)
    before = bench.kept_bytes
    brief = {**left[-1].brief, "cutting": {"trim": "3"}}
    piece, _ = save_brief(bench, aged.pk, aged.version, brief)
    bench.refresh_from_db()
    assert piece.head is not None
    assert bench.kept_bytes == before + piece.head.size > before


def test_a_full_bench_says_so_before_and_refuses_in_words(
    bench: Workshop, brief: Brief, monkeypatch: pytest.MonkeyPatch
) -> None:
    piece = start_piece(bench, "Bangle", brief)
    bench.refresh_from_db()
    monkeypatch.setattr(quotas, "MOST_KEPT", int(bench.kept_bytes * 1.05))
    assert quotas.nearly_full(bench) is not None
    with pytest.raises(BriefRefused) as refused:
        save_brief(bench, piece.pk, 1, {**brief, "cutting": {"trim": "2"}})
    assert refused.value.problems[0].key == "quota_bytes"
    monkeypatch.setattr(quotas, "MOST_KEPT", 10 * bench.kept_bytes)
    assert quotas.nearly_full(bench) is None


def test_every_so_many_saves_a_piece_is_thinned(
    bench: Workshop, brief: Brief, monkeypatch: pytest.MonkeyPatch
) -> None:
    thinned: list[int] = []
    monkeypatch.setattr(pieces, "thin", lambda piece: thinned.append(piece.version))
    monkeypatch.setattr(pieces, "EVERY", 3)
    piece = start_piece(bench, "Bangle", brief)
    for n in range(1, 8):
        save_brief(bench, piece.pk, n, {**brief, "cutting": {"trim": f"{1 + n / 10}"}})
    assert thinned == [3, 6]
