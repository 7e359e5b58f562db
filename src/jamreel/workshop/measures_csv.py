"""Measures in and out: a reading a row, checked as a whole, imported all or not at all.

Columns are documented in docs/format; units stand in the header.
"""

from collections import defaultdict
from collections.abc import Iterable, Iterator
from dataclasses import dataclass

from django.db import transaction

from jamreel.core.plan import BriefRefused, read_girth
from jamreel.core.shop import Shop
from jamreel.core.values import Frozen
from jamreel.core.words import say, speaking
from jamreel.workshop.csv_text import RefusedLine, Unreadable, numbered, read_rows, write_rows
from jamreel.workshop.models import Reading, Wearer, Workshop
from jamreel.workshop.naming import clean_text
from jamreel.workshop.ownership import rows
from jamreel.workshop.planning import shop_of
from jamreel.workshop.quotas import room_for
from jamreel.workshop.readings import (
    Typed,
    as_typed,
    columns,
    from_cells,
    taken_at,
    to_cells,
    too_long,
)
from jamreel.workshop.wearers import LONGEST, keep_all, standing_readings

# What says whose reading it is; then the reading itself, whose columns follow from what it has.
WHOSE = ("name", "part", "child", "site")
COLUMNS = (*WHOSE, *columns().values())
MOST_ROWS = 5000


@dataclass(frozen=True)
class MeasureRow:
    """A reading on its way in, with the line that it stands on."""

    line: int
    name: str
    site: str
    reading: Typed
    part: str = ""
    child: bool = False


class Import(Frozen):
    """What an import would do, or did; with anything refused, nothing is imported."""

    names: list[str]
    new_names: list[str]
    readings: int
    refused: list[RefusedLine]
    imported: bool


def export_csv(workshop: Workshop) -> str:
    """Return every wearer's standing readings as CSV, lengths in mm."""
    return write_rows(COLUMNS, _lines(workshop))


def _lines(workshop: Workshop) -> Iterator[list[str]]:
    for wearer in rows(Wearer, workshop).filter(put_away_at=None).prefetch_related("readings"):
        for reading in (r for of_site in standing_readings(wearer).values() for r in of_site):
            child = "yes" if wearer.is_child else ""
            whose = [wearer.name, wearer.part, child, reading.site]
            yield [*whose, *to_cells(as_typed(reading, "mm"))]


def read_csv(text: str) -> tuple[list[MeasureRow], list[RefusedLine]]:
    """Return the rows of a CSV file, and the lines that are no rows."""
    try:
        header, lines = read_rows(text)
    except Unreadable as error:
        return [], [RefusedLine(line=error.line, says=error.says)]
    missing = {"name", "site", "value [mm]"} - set(header)
    if missing:
        return [], [
            RefusedLine(line=1, says=say("import.header", missing=", ".join(sorted(missing))))
        ]
    found: list[MeasureRow] = []
    refused: list[RefusedLine] = []
    for line, row in numbered(lines):
        if line > MOST_ROWS:
            refused.append(RefusedLine(line=line, says=say("import.too_long", most=MOST_ROWS)))
            break
        cell = {key: row.get(key, "") for key in COLUMNS}
        if not cell["name"]:
            refused.append(RefusedLine(line=line, says=say("import.no_name")))
            continue
        found.append(
            MeasureRow(
                line=line,
                name=cell["name"],
                part=cell["part"],
                child=cell["child"].lower() in ("yes", "1", "true"),
                site=cell["site"],
                reading=from_cells(cell),
            )
        )
    return found, refused


def import_rows(
    workshop: Workshop, found: Iterable[MeasureRow], refused: Iterable[RefusedLine], *, commit: bool
) -> Import:
    """Check readings and, when asked and nothing is refused, make them the standing ones.

    Wearers are found by name; a name that is not there yet becomes a new wearer.
    """
    shop = shop_of(workshop)
    groups: dict[tuple[str, str], list[MeasureRow]] = defaultdict(list)
    for row in found:
        groups[_name(row), row.site].append(row)
    with speaking(shop.language, shop.unit):
        wrong = list(refused)
        for (_, site), readings in groups.items():
            wrong += _refusals(site, readings, shop)
    known = {w.name: w for w in rows(Wearer, workshop)}
    names = sorted({name for name, _ in groups})
    fresh = [name for name in names if name not in known]
    done = commit and not wrong and bool(groups)
    if done:
        room_for(workshop, Wearer, len(fresh))
        room_for(workshop, Reading, sum(len(group) for group in groups.values()))
        _keep(workshop, groups, fresh, shop)
    return Import(
        names=names,
        new_names=fresh,
        readings=sum(len(group) for group in groups.values()),
        refused=sorted(wrong, key=lambda row: row.line),
        imported=done,
    )


def _name(row: MeasureRow) -> str:
    """Return the name of a row as wearers are kept by; one that can't be kept is refused below."""
    try:
        return clean_text(row.name)
    except ValueError:
        return row.name


def _refusals(site: str, readings: list[MeasureRow], shop: Shop) -> list[RefusedLine]:
    """Return why a wearer's readings of one site can't be taken, at the lines they concern."""
    for row in readings:
        wrong = _text_refused(row)
        if wrong:
            return [RefusedLine(line=row.line, says=wrong)]
    if len(readings) > 3:
        return [RefusedLine(line=readings[3].line, says=say("import.four", site=site))]
    try:
        read_girth(site, {"readings": [row.reading for row in readings]}, shop)
    except BriefRefused as several:
        return [
            RefusedLine(line=_line_of(p.field, readings), says=p.says) for p in several.problems
        ]
    return []


def _line_of(field: str, readings: list[MeasureRow]) -> int:
    index = next((int(part) for part in field.split(".") if part.isdecimal()), 0)
    return readings[index].line


def _text_refused(row: MeasureRow) -> str:
    """Return what is wrong with the texts of a row, '' for nothing."""
    for text, most in ((row.name, LONGEST["name"]), (row.part, LONGEST["part"])):
        if len(text) > most:
            return say("import.text_long", got=len(text), most=most)
    long = too_long(row.reading)
    if long:
        return say("import.text_long", got=long[1], most=long[2])
    for text in (row.name, row.part, *row.reading.values()):
        try:
            clean_text(str(text))
        except ValueError as error:
            return say("import.name", why=str(error))
    taken = row.reading.get("taken")
    if taken and taken_at(taken) is None:
        return say("import.taken", got=taken)
    return ""


def _keep(
    workshop: Workshop,
    groups: dict[tuple[str, str], list[MeasureRow]],
    fresh: Iterable[str],
    shop: Shop,
) -> None:
    """Write it all at once. What two imports at once both bring is one wearer."""
    first = {name: readings[0] for (name, _), readings in reversed(groups.items())}
    wearers = [
        Wearer(workshop=workshop, name=name, part=first[name].part, is_child=first[name].child)
        for name in fresh
    ]
    typed = [
        (name, site, [row.reading for row in readings]) for (name, site), readings in groups.items()
    ]
    with transaction.atomic():
        Wearer.objects.bulk_create(wearers, ignore_conflicts=True)
        keep_all(workshop, typed, shop.unit)
