"""The log: what goes in, searching it, another like it, photographs, and how quick it stays."""

import io
import os
import threading
import unicodedata
from datetime import UTC, date, datetime
from pathlib import Path
from typing import Any

import pytest
from django.db import connections
from django.http import Http404
from PIL import Image
from PIL.ExifTags import Base

from jamreel.core.bench.price import Pricing, cost_of, price_of
from jamreel.core.plan import BriefRefused
from jamreel.workshop import clock, finishing, log, photos
from jamreel.workshop.models import LogEntry, TryOnRecord, Wearer, Workshop
from jamreel.workshop.pieces import start_piece
from jamreel.workshop.slots import alone
from jamreel.workshop.turns import Busy
from jamreel.workshop.wearers import keep_readings
from tests.conftest import samples
from tests.counting import steps_of_database

Brief = dict[str, Any]
AT = datetime(2026, 10, 3, 17, 0, tzinfo=UTC)


def entry(bench: Workshop, name: str = "Crown", **fields: Any) -> LogEntry:
    what = {"finished_on": AT.date(), "finished_at": AT, "wearer": "Marn", "metals": "brass"}
    made = LogEntry.objects.create(workshop=bench, name=name, **{**what, **fields})
    log.know_words(bench, [made])
    return made


def names(found: log.Page) -> list[str]:
    return [one.name for one in found.entries]


def test_every_word_is_looked_for_from_its_start_in_all_that_is_known(bench: Workshop) -> None:
    entry(bench, "Reed crown", made_of="Crown band · 16 AWG brass", kind="crown_band")
    entry(bench, "Ferry cuff", wearer="Oda Quill", metals="fine silver", reels="silver, big reel")
    entry(bench, "Öle’s ring", note="came out loose")
    assert names(log.entries(bench)) == ["Öle’s ring", "Ferry cuff", "Reed crown"]
    for words, found in {
        "crown": ["Reed crown"],
        "QUI silv": ["Ferry cuff"],
        "ole": ["Öle’s ring"],
        "loose": ["Öle’s ring"],
        "2026-10-03 reed": ["Reed crown"],
        "brass cuff": [],
        'cuff" OR name:*': [],
        "bench b1": [],
        "   ": ["Öle’s ring", "Ferry cuff", "Reed crown"],
    }.items():
        assert names(log.entries(bench, words)) == found, words


def test_dates_are_found_by_the_names_of_months_and_by_days(bench: Workshop) -> None:
    for name, on in (
        ("Old cuff", date(2025, 11, 20)),
        ("Cuff", date(2026, 11, 5)),
        ("Ring", date(2026, 5, 20)),
    ):
        entry(bench, name, finished_on=on)
    for words, found in {
        "november": ["Cuff", "Old cuff"],
        "5 Nov": ["Cuff"],
        "20 nov 2025": ["Old cuff"],
        "Nov ring": [],
        "20": ["Ring", "Old cuff"],
        "may": ["Ring"],
        "no": [],
    }.items():
        assert names(log.entries(bench, words)) == found, words
    # However many names begin like the month.
    for n in range(log.MOST_ALIKE + 1):
        entry(bench, f"May{n}wire", finished_on=date(2026, 11, 5))
    assert len(log.entries(bench, "may").entries) == log.MOST_ALIKE + 2
    assert names(log.entries(bench, "may 20")) == ["Ring"]


def test_what_is_changed_or_opened_again_is_searched_as_it_is_now(bench: Workshop) -> None:
    one = entry(bench, "Reed crown")
    log.note(bench, one.pk, "kept for the herons")
    assert names(log.entries(bench, "herons")) == ["Reed crown"]
    one.refresh_from_db()
    one.opened_at = AT
    one.save()
    assert names(log.entries(bench, "herons")) == []
    assert names(log.entries(bench)) == []


def test_pages_follow_each_other_without_gap_or_repeat(bench: Workshop) -> None:
    for n in range(23):
        entry(bench, f"Cuff {n}")
    other = Workshop.objects.create(name="Sedge")
    entry(other, "Cuff of another bench")
    for words in ("", "cuff"):
        found: list[str] = []
        before: int | None = None
        while True:
            page = log.entries(bench, words, before, most=10)
            found += names(page)
            before = page.before
            if before is None:
                break
        assert found == [f"Cuff {n}" for n in range(22, -1, -1)]


def test_another_like_this_takes_new_measures_and_keeps_the_choices(
    bench: Workshop, brief: Brief
) -> None:
    piece = start_piece(bench, "Bangle", brief)
    finishing.finish(bench, piece.pk, finished=True)
    made = LogEntry.objects.get()
    wearer = Wearer.objects.create(workshop=bench, name="Oda Quill")
    readings = [{"value": "171", "method": "tape", "taken": AT.isoformat()}] * 2
    keep_readings(bench, wearer.pk, "wrist_girth", readings)
    keep_readings(bench, wearer.pk, "hand_pass_girth", readings)
    again = log.again(bench, made.pk, "Bangle for Oda", wearer)
    assert again.head is not None
    assert piece.head is not None
    new, old = again.head.brief, piece.head.brief
    assert new["piece"] == old["piece"]
    assert new["wire"] == old["wire"]
    assert new["measures"]["wrist_girth"]["readings"][0]["value"] == "171"
    same = log.again(bench, made.pk, "Once more", None)
    assert same.head is not None
    assert same.head.brief["measures"] == old["measures"]
    gone = entry(bench, "Old one")
    with pytest.raises(BriefRefused):
        log.again(bench, gone.pk, "Like that", None)


def test_csv_has_every_entry_and_runs_nothing_in_a_spreadsheet(bench: Workshop) -> None:
    entry(bench, "=1+1", planned_mm=188.456, minutes=90.0)
    entry(bench, "Cuff")
    lines = log.as_csv(bench).splitlines()
    assert lines[0].startswith("finished_on,name,wearer")
    assert lines[1].startswith("2026-10-03,'=1+1,Marn")
    assert ",188.46," in lines[1]
    assert len(lines) == 3


def test_cost_and_price_go_by_the_makers_own_figures() -> None:
    figures = Pricing(hour=18, overheads=2.5, share=0.25)
    assert cost_of(7.5, 40, figures) == pytest.approx(7.5 + 12 + 2.5)
    assert price_of(7.5, 40, figures) == pytest.approx(22 * 1.25)


def picture(kind: str, size: tuple[int, int], **more: Any) -> bytes:
    out = io.BytesIO()
    Image.new("RGB", size, (13, 110, 99)).save(out, kind, **more)
    return out.getvalue()


@pytest.mark.parametrize("kind", ["JPEG", "PNG", "WEBP"])
def test_a_photograph_is_drawn_anew_without_what_came_with_it(bench: Workshop, kind: str) -> None:
    made = entry(bench)
    exif = Image.Exif()
    exif[Base.Make] = "camera of a stranger"
    exif[Base.Orientation] = 6
    file = picture(kind, (2000, 1000), exif=exif)
    kept = photos.add_photo(bench, made.pk, file)
    again = Image.open(io.BytesIO(photos.picture_of(bench, kept.pk)))
    # Turned upright, and no longer than it is kept.
    assert again.size == (800, 1600) == (kept.width, kept.height)
    assert again.format == "JPEG"
    assert not again.getexif()
    assert b"stranger" not in bytes(kept.picture)
    red, green, _ = again.convert("RGB").getpixel((400, 800))  # type: ignore[misc]
    assert abs(red - 13) < 8
    assert abs(green - 110) < 8


def test_what_is_no_picture_is_refused_in_a_sentence(bench: Workshop) -> None:
    made = entry(bench)
    gif = picture("GIF", (10, 10))
    # 27 MB when unpacked: a browser makes it smaller before it is sent.
    bomb = picture("PNG", (3000, 3000))
    cut_off = picture("PNG", (400, 400))[:200]
    for file, says in (
        (b"", "can't be read as a picture"),
        (b"<svg/>", "can't be read as a picture"),
        (gif, "can't be read as a picture"),
        (cut_off, "can't be read as a picture"),
        (bomb, "3000 × 3000"),
        (b"x" * (photos.MOST_BYTES + 1), "up to 8 MB"),
    ):
        with pytest.raises(BriefRefused) as refused:
            photos.add_photo(bench, made.pk, file)
        assert says in refused.value.problems[0].says
    for _ in range(photos.MOST_PHOTOS):
        photos.add_photo(bench, made.pk, picture("PNG", (8, 8)))
    with pytest.raises(BriefRefused):
        photos.add_photo(bench, made.pk, picture("PNG", (8, 8)))
    shown = made.photos.all()[0]
    with pytest.raises(Http404):
        photos.picture_of(Workshop.objects.create(name="Sedge"), shown.pk)
    photos.drop_photo(bench, shown.pk)
    assert made.photos.count() == photos.MOST_PHOTOS - 1


def _many(bench: Workshop, count: int) -> None:
    kinds = ("cuff", "crown", "bangle", "ring")
    made = LogEntry.objects.bulk_create(
        LogEntry(
            workshop=bench,
            name=f"{kinds[n % 4]} {n}",
            wearer=f"Wearer {n % 97}",
            made_of="Sliding bangle · 14 AWG copper",
            metals="copper" if n % 3 else "brass",
            finished_on=AT.date(),
            finished_at=AT,
        )
        for n in range(count)
    )
    log.know_words(bench, made)


def _work(bench: Workshop, words: str, before: int | None = None) -> int:
    """Return the database's work for a page that both logs fill."""

    def opens() -> None:
        assert len(log.entries(bench, words, before, most=8).entries) == 8

    return steps_of_database(opens)


def test_thousands_of_entries_open_and_search_with_about_the_work_of_a_hundred(
    bench: Workshop,
) -> None:
    searches = ("", "cuff", "brass crown", "wear", "3 oct")
    _many(bench, 100)
    few = {words: _work(bench, words) for words in searches}
    _many(bench, samples(4_900, 19_900))
    # A tree of so many more rows is a few steps deeper; going through them would be thousands.
    for words in searches:
        assert _work(bench, words) <= 3 * few[words], words
    assert _work(bench, "", LogEntry.objects.count() // 2) <= 3 * few[""]


@pytest.mark.parametrize(
    ("unit", "typed", "mm"), [("in", "7 1/2", 190.5), ("mm", "7.5 in", 190.5), ("mm", "", None)]
)
def test_a_try_on_is_read_in_the_unit_that_it_was_typed_in(
    bench: Workshop, brief: Brief, unit: str, typed: str, mm: float | None
) -> None:
    piece = start_piece(bench, "Bangle", {**brief, "unit": unit})
    noted = {"inside_girth": typed}
    TryOnRecord.objects.create(workshop=bench, piece=piece, noted=noted, answer={}, noted_at=AT)
    finishing.finish(bench, piece.pk, finished=True)
    assert LogEntry.objects.get().inside_made_mm == (pytest.approx(mm) if mm else None)


def test_a_large_jpeg_is_read_small_and_costs_the_server_nothing(bench: Workshop) -> None:
    made = entry(bench)
    # 108 million dots, of one colour so that the file is small.
    large = picture("JPEG", (12_000, 9_000))
    before = resident()
    kept = photos.add_photo(bench, made.pk, large)
    assert (kept.width, kept.height) == (1600, 1200)
    assert resident() - before < 30
    over = picture("JPEG", (8, 8)).replace(b"\x00\x08\x00\x08", b"\xff\xff\xff\xff")
    with pytest.raises(BriefRefused) as refused:
        photos.add_photo(bench, made.pk, over)
    assert "65535 × 65535" in refused.value.problems[0].says


def resident() -> float:
    """What this process holds in memory now [MB]."""
    pages = int(Path("/proc/self/statm").read_text().split()[1])
    return pages * os.sysconf("SC_PAGESIZE") / 1e6


def test_one_picture_at_a_time_is_drawn_anew_for_a_bench(bench: Workshop) -> None:
    made = entry(bench)
    with alone("photo", bench.pk), pytest.raises(Busy):
        photos.add_photo(bench, made.pk, picture("PNG", (8, 8)))
    assert photos.add_photo(bench, made.pk, picture("PNG", (8, 8))).pk


@pytest.mark.django_db(transaction=True)
def test_racing_uploads_keep_to_six(bench: Workshop, monkeypatch: pytest.MonkeyPatch) -> None:
    made = entry(bench)
    # All are drawn anew before any of them is kept.
    start = threading.Barrier(8)

    def drawn(workshop: Workshop, file: bytes) -> tuple[bytes, tuple[int, int]]:
        start.wait(60)
        return file, (8, 8)

    monkeypatch.setattr(photos, "_drawn", drawn)
    refused: list[BriefRefused] = []

    def adds() -> None:
        try:
            photos.add_photo(bench, made.pk, b"picture")
        except BriefRefused as no:
            refused.append(no)
        finally:
            connections.close_all()

    hands = [threading.Thread(target=adds) for _ in range(8)]
    for one in hands:
        one.start()
    for one in hands:
        one.join()
    assert (made.photos.count(), len(refused)) == (6, 2)
    bench.refresh_from_db()
    assert bench.kept_bytes >= 6 * len(b"picture")


@pytest.mark.parametrize(
    ("name", "asked"),
    [
        ("한강의 팔찌", "한강의"),
        ("がらすのブレスレット", "がらすの"),
        ("ぱーる", "ぱーる"),
        ("Йога и Ёлка", "Ёлка"),
        ("йод", "йод"),
        ("Ἑλένη", "ελενη"),
        ("Άλφα", "Άλφα"),
        ("สร้อยข้อมือ", "สร้อยข้อมือ"),
        ("½ round cuff", "½"),
        ("ﬁligree ﬂower", "filigree"),
        ("filigree", "ﬁligree"),
        ("Donaudampfschifffahrtselektrizitätenhauptbetriebswerk", None),
        ("Zoë’s", "zoe"),
        ("Ａlpha", "alpha"),
        ("Straße", "STRASSE"),
        ("İstanbul", "istanbul"),
        ("शंख", "शंख"),
        ("naïve zebra", "zebra"),
    ],
)
def test_a_name_of_any_script_is_found_as_it_is_kept(
    bench: Workshop, brief: Brief, name: str, asked: str | None
) -> None:
    # Numbers are looked for among days too: on the 2nd of a month "½" would find them all.
    with clock.standing_at(datetime(2026, 11, 24, 10, tzinfo=UTC)):
        for one in (name, "Bangle"):
            piece = start_piece(bench, one, brief)
            finishing.finish(bench, piece.pk, finished=True)
    wanted = LogEntry.objects.get(name=name).pk
    for words in (name, asked or name, unicodedata.normalize("NFD", name), name.upper()):
        assert [one.pk for one in log.entries(bench, words).entries] == [wanted], words
