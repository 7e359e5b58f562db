"""The log: every finished piece as it came out, found by its words, made anew, as CSV."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from typing import Any

from django.db import connection
from django.db.models import Min, QuerySet

from jamreel.core.errors import Refusal
from jamreel.core.words import catalogue
from jamreel.workshop import clock
from jamreel.workshop.csv_text import write_rows
from jamreel.workshop.models import LogEntry, LogWord, Photo, Piece, Wearer, Workshop
from jamreel.workshop.ownership import row, rows
from jamreel.workshop.pieces import start_piece
from jamreel.workshop.planning import refuse, shop_of
from jamreel.workshop.searching import as_ascii, words_of
from jamreel.workshop.wearers import measures_of

# So many entries are on one page of the log.
PAGE = 50
# A word of a search is looked for from its start; so many of them are.
MOST_WORDS = 8
# Words that begin alike are looked for one by one up to so many.
MOST_ALIKE = 40
# Before this nothing was put into a log.
FIRST_YEAR = 2000


@dataclass(frozen=True)
class Page:
    """Some entries of the log, the newest first, and where the next page goes on."""

    entries: list[LogEntry]
    before: int | None


def in_log(workshop: Workshop) -> "QuerySet[LogEntry]":
    """Return what stands in a log: neither opened again nor put away."""
    return rows(LogEntry, workshop).filter(opened_at=None, put_away_at=None)


def entries(
    workshop: Workshop, words: str = "", before: int | None = None, most: int = PAGE
) -> Page:
    """Return a page of the log.

    Args:
        workshop: whose log.
        words: all of which an entry has, each from its start: names, wearers, metals,
            constructions, reels, dates; every entry where none are given.
        before: the page goes on below this entry.
        most: how many are on it.

    Source: SQLite's full text, read backwards; what was finished last has the highest number.
    """
    found = in_log(workshop).order_by("-id")
    searched = words_of(words)[:MOST_WORDS]
    if searched:
        numbers = _numbers(workshop, searched, before, most + 1)
        by_number = found.in_bulk(numbers)
        listed = [by_number[n] for n in numbers if n in by_number]
    else:
        listed = list((found.filter(pk__lt=before) if before else found)[: most + 1])
    more = len(listed) > most
    return Page(listed[:most], listed[most - 1].pk if more else None)


def _numbers(
    workshop: Workshop, searched: Sequence[str], before: int | None, most: int
) -> list[int]:
    """Return the numbers of entries that have all words, the highest first."""
    wanted = [_match(workshop, word) for word in searched]
    if not all(wanted):
        return []
    match = f"bench : b{workshop.pk} AND words : ({' AND '.join(wanted)})"
    return _numbers_of(match, before or 2**62, most)


def _numbers_of(match: str, before: int, most: int) -> list[int]:
    sql = "SELECT rowid FROM workshop_logwords WHERE workshop_logwords MATCH %s AND rowid < %s"
    with connection.cursor() as cursor:
        cursor.execute(f"{sql} ORDER BY rowid DESC LIMIT %s", [match, before, most])
        return [number for (number,) in cursor.fetchall()]


def _match(workshop: Workshop, word: str) -> str:
    """Return a word as full text looks for it: whole words that begin so are read backwards one by
    one; what begins too many is gathered first. Of numbers as short as a day's none begins so."""
    if word.isdecimal() and len(word) <= len("31"):
        return f"({_quoted(word)} OR {_quoted(word.zfill(2))})"
    begins = rows(LogWord, workshop).filter(word__gte=word, word__lt=word + "\U0010ffff")
    found = list(begins.values_list("word", flat=True)[: MOST_ALIKE + 1])
    alike = [f"{_quoted(word)}*"] if len(found) > MOST_ALIKE else [_quoted(one) for one in found]
    either = [*alike, *map(_quoted, _months(workshop, word))]
    return f"({' OR '.join(either)})" if either else ""


def _months(workshop: Workshop, word: str) -> list[str]:
    """Return the year and month of every month that a word begins the name of, as they stand in
    full text: a word of its own, which is found as quickly as any."""
    names = catalogue(shop_of(workshop).language)["log.months"].split()
    months = [n for n, name in enumerate(names, 1) if len(word) >= 3 and name.startswith(word)]
    if not months:
        return []
    ever = range(FIRST_YEAR, clock.now().year + 1)
    month_words = [_month_word(date(year, month, 1)) for year in ever for month in months]
    known = rows(LogWord, workshop).filter(word__in=month_words)
    return list(known.values_list("word", flat=True))


def _month_word(day: date) -> str:
    """Return the word that a month of a year has in full text."""
    return f"{day:%Y%m}"


def _quoted(word: str) -> str:
    return f'"{as_ascii(word)}"'


def entry_words(one: LogEntry) -> list[str]:
    """Return the words that an entry is found by, in their normal form, each once."""
    texts = (one.name, one.wearer, one.kind, one.made_of, one.metals, one.reels, one.note)
    dates = str(one.finished_on).split("-")
    said = [word for text in texts for word in words_of(text)]
    return list(dict.fromkeys([*said, *dates, _month_word(one.finished_on)]))


def know_words(workshop: Workshop, listed: Sequence[LogEntry]) -> None:
    """Keep the words of entries, so that searches find them, and words by their beginnings."""
    every: set[str] = set()
    for one in listed:
        found = entry_words(one)
        one.words = " ".join(map(as_ascii, found))
        every.update(found)
    LogEntry.objects.bulk_update(listed, ["words"], batch_size=400)
    LogWord.objects.bulk_create(
        (LogWord(workshop=workshop, word=word) for word in sorted(every)), ignore_conflicts=True
    )


def forget_words(workshop: Workshop, gone: LogEntry) -> None:
    """Let go of the words that only an entry had that is deleted."""
    for word in entry_words(gone):
        if not _numbers_of(f"bench : b{workshop.pk} AND words : {_quoted(word)}", 2**62, 1):
            rows(LogWord, workshop).filter(word=word).delete()


def first_photos(workshop: Workshop, listed: Sequence[LogEntry]) -> dict[int, int]:
    """Return the first photograph of each entry that has one, by their numbers."""
    about = rows(Photo, workshop).filter(entry__in=[one.pk for one in listed])
    return dict(about.values_list("entry").annotate(first=Min("pk")))


def note(workshop: Workshop, entry_id: int, says: str) -> LogEntry:
    """Keep a note with an entry."""
    entry = row(LogEntry, workshop, entry_id)
    entry.note = says.strip()[:500]
    entry.save(update_fields=["note"])
    know_words(workshop, [entry])
    return entry


def again(
    workshop: Workshop, entry_id: int, name: str, wearer: Wearer | None, due: date | None = None
) -> Piece:
    """Return a new piece like one of the log: its choices stay, sizes follow the new measures.

    Args:
        workshop: whose log.
        entry_id: like which.
        name: of the new piece.
        wearer: whose measures it takes; as in the brief where nobody is given.
        due: by when.

    Raises:
        BriefRefused: an entry whose piece is gone.
    """
    entry = row(LogEntry, workshop, entry_id)
    if entry.piece is None or entry.piece.head is None:
        refuse(workshop, Refusal("piece_gone", got=entry.name, field="entry"))
    brief = entry.piece.head.brief
    if wearer is not None:
        unit = brief.get("unit") or shop_of(workshop).unit
        brief = {**brief, "measures": measures_of(wearer, unit)}
    return start_piece(workshop, name, brief, wearer, due)


COLUMNS = (
    "finished_on",
    "name",
    "wearer",
    "kind",
    "made_of",
    "metals",
    "reels",
    "planned_mm",
    "made_mm",
    "inside_planned_mm",
    "inside_made_mm",
    "tries",
    "minutes",
    "minutes_planned",
    "wire_mm",
    "waste_mm",
    "waste_g",
    "material",
    "note",
)


def as_csv(workshop: Workshop) -> str:
    """Return the whole log as CSV, the oldest first; lengths in mm, minutes, grams, own money."""
    found: QuerySet[LogEntry] = in_log(workshop).order_by("pk")
    lines = [[_cell(getattr(one, name)) for name in COLUMNS] for one in found.iterator(2000)]
    return write_rows(COLUMNS, lines)


def _cell(value: Any) -> Any:
    return round(value, 2) if isinstance(value, float) else str(value) if value else value
