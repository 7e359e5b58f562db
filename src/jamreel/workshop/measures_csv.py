"""Measures in and out: a reading a row, checked as a whole, imported all or not at all.

Columns are documented in docs/format; units stand in the header.
"""

import csv
import io
from collections import defaultdict
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any

from django.db import transaction

from jamreel.core.plan import BriefRefused, read_girth
from jamreel.core.shop import Shop
from jamreel.core.units import with_unit
from jamreel.core.words import say, speaking
from jamreel.workshop.models import Wearer, Workshop
from jamreel.workshop.ownership import rows
from jamreel.workshop.pieces import shop_of
from jamreel.workshop.wearers import as_typed, keep_readings, standing_readings

COLUMNS = (
    "name",
    "part",
    "child",
    "site",
    "value [mm]",
    "method",
    "thickness [mm]",
    "ease [mm]",
    "taken",
)
MOST_ROWS = 5000


@dataclass(frozen=True)
class MeasureRow:
    """A reading on its way in, with the line that it stands on."""

    line: int
    name: str
    site: str
    value: str
    part: str = ""
    child: bool = False
    method: str = "tape"
    thickness: str = ""
    ease: str = ""
    taken: str = ""


@dataclass(frozen=True)
class RefusedRow:
    """A line that can't be imported, and why."""

    line: int
    says: str


@dataclass(frozen=True)
class Import:
    """What an import would do, or did."""

    names: list[str]
    new_names: list[str]
    readings: int
    refused: list[RefusedRow]
    imported: bool


def export_csv(workshop: Workshop) -> str:
    """Return every wearer's standing readings as CSV, lengths in mm."""
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(COLUMNS)
    for wearer in rows(Wearer, workshop).prefetch_related("readings"):
        kept = [r for of_site in standing_readings(wearer).values() for r in of_site]
        for reading in kept:
            typed = as_typed(reading, "mm")
            writer.writerow(
                [
                    wearer.name,
                    wearer.part,
                    "yes" if wearer.is_child else "",
                    reading.site,
                    typed["value"],
                    typed["method"],
                    typed.get("thickness", ""),
                    typed.get("ease", ""),
                    typed["taken"],
                ]
            )
    return out.getvalue()


def read_csv(text: str) -> tuple[list[MeasureRow], list[RefusedRow]]:
    """Return the rows of a CSV file, and the lines that are no rows."""
    reader = csv.DictReader(io.StringIO(text.lstrip("\ufeff")))
    missing = {"name", "site", "value [mm]"} - set(reader.fieldnames or ())
    if missing:
        return [], [RefusedRow(1, say("import.header", missing=", ".join(sorted(missing))))]
    found: list[MeasureRow] = []
    refused: list[RefusedRow] = []
    for line, row in enumerate(reader, start=2):
        if line > MOST_ROWS:
            refused.append(RefusedRow(line, say("import.too_long", most=MOST_ROWS)))
            break
        cell = {key: (row.get(key) or "").strip() for key in COLUMNS}
        if not cell["name"]:
            refused.append(RefusedRow(line, say("import.no_name")))
            continue
        found.append(
            MeasureRow(
                line=line,
                name=cell["name"],
                part=cell["part"],
                child=cell["child"].lower() in ("yes", "1", "true"),
                site=cell["site"],
                value=cell["value [mm]"] and with_unit(cell["value [mm]"], "mm"),
                method=cell["method"] or "tape",
                thickness=cell["thickness [mm]"] and with_unit(cell["thickness [mm]"], "mm"),
                ease=cell["ease [mm]"] and with_unit(cell["ease [mm]"], "mm"),
                taken=cell["taken"],
            )
        )
    return found, refused


def import_rows(
    workshop: Workshop,
    found: Iterable[MeasureRow],
    refused: Iterable[RefusedRow],
    *,
    commit: bool,
) -> Import:
    """Check readings and, when asked and nothing is refused, make them the standing ones.

    Wearers are found by name; a name that is not there yet becomes a new wearer.
    """
    shop = shop_of(workshop)
    groups: dict[tuple[str, str], list[MeasureRow]] = defaultdict(list)
    for row in found:
        groups[row.name, row.site].append(row)
    with speaking(shop.language, shop.unit):
        wrong = list(refused)
        for (_, site), readings in groups.items():
            wrong += _refusals(site, readings, shop)
    known = {w.name: w for w in rows(Wearer, workshop)}
    names = sorted({name for name, _ in groups})
    done = commit and not wrong and bool(groups)
    if done:
        with transaction.atomic():
            _keep(workshop, groups, known, shop)
    return Import(
        names=names,
        new_names=[name for name in names if name not in known],
        readings=sum(len(group) for group in groups.values()),
        refused=sorted(wrong, key=lambda row: row.line),
        imported=done,
    )


def _typed(row: MeasureRow) -> dict[str, Any]:
    typed: dict[str, Any] = {"value": row.value, "method": row.method, "taken": row.taken or None}
    if row.thickness:
        typed["thickness"] = row.thickness
    if row.ease:
        typed["ease"] = row.ease
    return typed


def _refusals(site: str, readings: list[MeasureRow], shop: Shop) -> list[RefusedRow]:
    """Return why a wearer's readings of one site can't be taken, at the lines they concern."""
    if len(readings) > 3:
        return [RefusedRow(readings[3].line, say("import.four", site=site))]
    try:
        read_girth(site, {"readings": [_typed(row) for row in readings]}, shop)
    except BriefRefused as several:
        return [RefusedRow(_line_of(p.field, readings), p.says) for p in several.problems]
    return []


def _line_of(field: str, readings: list[MeasureRow]) -> int:
    index = next((int(part) for part in field.split(".") if part.isdigit()), 0)
    return readings[index].line


def _keep(
    workshop: Workshop,
    groups: dict[tuple[str, str], list[MeasureRow]],
    known: dict[str, Wearer],
    shop: Shop,
) -> None:
    for (name, site), readings in groups.items():
        if name not in known:
            first = readings[0]
            known[name] = Wearer.objects.create(
                workshop=workshop, name=name[:80], part=first.part[:80], is_child=first.child
            )
        typed = [_typed(row) for row in readings]
        keep_readings(workshop, known[name].pk, site, typed, shop.unit)
