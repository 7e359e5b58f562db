"""Nothing is deleted by being put away; what is deleted for good was in the archive first."""

from typing import Any

import pytest
from django.http import Http404

from jamreel.workshop import archive, finishing, log, making
from jamreel.workshop.models import (
    LogEntry,
    LogWord,
    Movement,
    Piece,
    Reading,
    Revision,
    Stock,
    Tick,
    Wearer,
    Workshop,
)
from jamreel.workshop.pieces import save_brief, start_piece
from jamreel.workshop.planning import shop_of
from jamreel.workshop.shops import change_shop
from jamreel.workshop.stock import add_stock, amount_of
from jamreel.workshop.wearers import add_wearer, keep_readings

Brief = dict[str, Any]


def names(bench: Workshop) -> list[tuple[str, str]]:
    return [(one.what, one.name) for one in archive.listed(bench)]


def away(bench: Workshop, what: archive.What, number: int) -> str:
    """Put something away, and return what is said of its going."""
    archive.put_away(bench, what, number)
    return archive.listed(bench)[0].goes


def test_what_is_put_away_comes_back_as_it_was(bench: Workshop, brief: Brief) -> None:
    wearer = add_wearer(bench, "Alder")
    keep_readings(bench, wearer.pk, "wrist_girth", [{"value": "158"}])
    piece = start_piece(bench, "Bangle", brief, wearer)
    reel = add_stock(bench, {"kind": "reel", "wire": brief["wire"], "amount": "10 m"})
    things: list[tuple[archive.What, int]] = [
        ("piece", piece.pk),
        ("wearer", wearer.pk),
        ("stock", reel.pk),
    ]
    for what, number in things:
        archive.put_away(bench, what, number)
    assert {what for what, _ in names(bench)} == {"piece", "wearer", "stock"}
    for what, number in things:
        archive.bring_back(bench, what, number)
    assert names(bench) == []
    piece.refresh_from_db()
    assert (piece.put_away_at, piece.wearer) == (None, wearer)
    assert amount_of(reel) == 10_000
    assert Reading.objects.count() == 1
    for what, number in things:
        with pytest.raises(Http404):
            archive.bring_back(bench, what, number)
        # What is in use is not deleted, whoever asks.
        with pytest.raises(Http404):
            archive.delete_for_good(bench, what, number)


def test_a_piece_goes_with_its_history_and_the_rack_keeps_what_it_took(
    bench: Workshop, brief: Brief
) -> None:
    reel = add_stock(bench, {"kind": "reel", "wire": brief["wire"], "amount": "10 m"})
    piece = start_piece(bench, "Bangle", brief)
    stays = start_piece(bench, "Another", brief)
    for n in range(3):
        save_brief(bench, piece.pk, n + 1, {**brief, "cutting": {"trim": str(n + 2)}})
    making.tick(bench, piece.pk, "cut", "bangle", "245", reel.pk)
    left = amount_of(reel)
    says = away(bench, "piece", piece.pk)
    assert "saved changes 4, ticks 1, try-ons 0" in says
    archive.delete_for_good(bench, "piece", piece.pk)
    assert list(Piece.objects.all()) == [stays]
    assert Revision.objects.get().piece == stays
    assert not Tick.objects.exists()
    assert amount_of(reel) == left == 10_000 - 245


def test_a_wearer_goes_and_their_pieces_stay(bench: Workshop, brief: Brief) -> None:
    wearer = add_wearer(bench, "Alder")
    keep_readings(bench, wearer.pk, "wrist_girth", [{"value": "158"}, {"value": "159"}])
    piece = start_piece(bench, "Bangle", brief, wearer)
    assert "readings 2" in away(bench, "wearer", wearer.pk)
    archive.delete_for_good(bench, "wearer", wearer.pk)
    piece.refresh_from_db()
    assert piece.wearer is None
    assert not Wearer.objects.exists()
    assert not Reading.objects.exists()


def test_who_is_measured_anew_comes_out_of_the_archive(bench: Workshop) -> None:
    wearer = add_wearer(bench, "Alder")
    archive.put_away(bench, "wearer", wearer.pk)
    keep_readings(bench, wearer.pk, "wrist_girth", [{"value": "158"}])
    assert names(bench) == []


def test_a_reel_goes_with_its_movements(bench: Workshop, brief: Brief) -> None:
    reel = add_stock(bench, {"kind": "reel", "wire": brief["wire"], "amount": "10 m"})
    piece = start_piece(bench, "Bangle", brief)
    making.tick(bench, piece.pk, "cut", "bangle", "", reel.pk)
    making.untick(bench, piece.pk, "cut", "bangle")
    assert "gains and uses 3" in away(bench, "stock", reel.pk)
    archive.delete_for_good(bench, "stock", reel.pk)
    assert not Stock.objects.exists()
    assert not Movement.objects.exists()


def test_an_entry_of_the_log_goes_with_the_words_that_only_it_had(
    bench: Workshop, brief: Brief
) -> None:
    for name in ("Ferryman's bangle", "Lockkeeper's bangle"):
        piece = start_piece(bench, name, brief)
        finishing.finish(bench, piece.pk, finished=True)
    gone, stays = LogEntry.objects.order_by("pk")
    log.note(bench, gone.pk, "a secret gift")
    archive.put_away(bench, "entry", gone.pk)
    assert [one.pk for one in log.entries(bench, "bangle").entries] == [stays.pk]
    assert log.entries(bench, "secret").entries == []
    assert "Ferryman" not in log.as_csv(bench)
    archive.bring_back(bench, "entry", gone.pk)
    assert [one.pk for one in log.entries(bench, "secret").entries] == [gone.pk]
    archive.put_away(bench, "entry", gone.pk)
    archive.delete_for_good(bench, "entry", gone.pk)
    kept = set(LogWord.objects.values_list("word", flat=True))
    assert kept.isdisjoint({"secret", "gift", "ferryman"})
    assert {"bangle", "lockkeeper"} <= kept


def test_a_tool_taken_off_the_settings_comes_back_from_the_archive(bench: Workshop) -> None:
    punch = {"name": "punch", "kind": "dowels", "diameters": [4]}
    rod = {"name": "rod", "kind": "dowels", "diameters": [6]}
    before = {"pins": [punch, rod]}
    change_shop(bench, 1, before)
    bench.refresh_from_db()
    change_shop(bench, 2, {"pins": [rod]})
    bench.refresh_from_db()
    archive.note_tools_gone(bench, before, {"pins": [rod]})
    assert names(bench) == [("tool", "punch")]
    (tool,) = archive.listed(bench)
    archive.bring_back(bench, "tool", tool.id)
    bench.refresh_from_db()
    assert [one.name for one in shop_of(bench).pins] == ["rod", "punch"]
    assert names(bench) == []
    archive.note_tools_gone(bench, before, {"pins": []})
    for one in archive.listed(bench):
        archive.delete_for_good(bench, "tool", one.id)
    assert names(bench) == []
