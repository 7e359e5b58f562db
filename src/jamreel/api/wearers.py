"""Wearers and their readings."""

from typing import Any

from django.http import HttpRequest, HttpResponse
from ninja import Router, Schema, Status
from pydantic import Field

from jamreel.api.auth import bench_of
from jamreel.api.errors import EVERY_ERROR
from jamreel.api.texts import Line, Lines, MeasureTyped, ReadingTyped, Typed
from jamreel.api.throttles import IMPORTS_BY_BENCH
from jamreel.api.views import ReadingView, readings_of
from jamreel.core.body.readings import BodyMeasure, SiteId
from jamreel.core.plan import BriefRefused, read_girth
from jamreel.core.units import Unit
from jamreel.core.words import Problem
from jamreel.workshop.csv_text import MOST_TEXT
from jamreel.workshop.measures_csv import Import, MeasureRow, export_csv, import_rows, read_csv
from jamreel.workshop.models import Wearer
from jamreel.workshop.ownership import rows
from jamreel.workshop.planning import shop_of
from jamreel.workshop.wearers import (
    add_wearer,
    change_wearer,
    check_readings,
    keep_readings,
    measures_of,
)

router = Router(tags=["wearers"])


class WearerIn(Schema):
    """Who is measured."""

    name: Line = Field(min_length=1, max_length=80)
    part: Line = Field(default="", max_length=80)
    is_child: bool = Field(default=False, strict=True)
    note: Lines = Field(default="", max_length=500)


class PieceName(Schema):
    """A piece's name and what it waits for."""

    id: int
    name: str
    waits_for: str


class WearerView(WearerIn):
    """A wearer with girths as they stand, and the problems of those that don't."""

    id: int
    girths: list[BodyMeasure]
    problems: list[Problem]
    measures: dict[str, MeasureTyped]
    readings: list[ReadingView]
    pieces: list[PieceName]


class ReadingsIn(Schema):
    """The readings that stand for a site from now on, as typed."""

    site: SiteId
    readings: list[ReadingTyped] = Field(max_length=3)
    unit: Unit | None = None


def _view(wearer: Wearer) -> WearerView:
    shop = shop_of(wearer.workshop)
    measures = measures_of(wearer, shop.unit)
    girths: list[BodyMeasure] = []
    problems: list[Problem] = []
    for site, typed in measures.items():
        try:
            girths.append(read_girth(site, typed, shop))
        except BriefRefused as refused:
            problems.extend(refused.problems)
    return WearerView(
        id=wearer.pk,
        name=wearer.name,
        part=wearer.part,
        is_child=wearer.is_child,
        note=wearer.note,
        girths=girths,
        problems=problems,
        measures=measures,
        readings=readings_of(wearer),
        pieces=[
            PieceName(id=p.pk, name=p.name, waits_for=p.waits_for)
            for p in wearer.pieces.all()
            if p.put_away_at is None
        ],
    )


@router.get("/wearers", response={200: list[WearerView], **EVERY_ERROR})
def all_wearers(request: HttpRequest) -> list[WearerView]:
    """Return all wearers with their girths."""
    found = rows(Wearer, bench_of(request)).filter(put_away_at=None)
    found = found.prefetch_related("readings", "pieces")
    return [_view(w) for w in found.select_related("workshop")]


@router.post("/wearers", response={201: WearerView, **EVERY_ERROR})
def add(request: HttpRequest, payload: WearerIn) -> Status[WearerView]:
    """Add a wearer."""
    return Status(201, _view(add_wearer(bench_of(request), **payload.dict())))


@router.put("/wearers/{int:wearer_id}", response={200: WearerView, **EVERY_ERROR})
def change(request: HttpRequest, wearer_id: int, payload: WearerIn) -> WearerView:
    """Change a wearer's name, part or note."""
    return _view(change_wearer(bench_of(request), wearer_id, **payload.dict()))


@router.put("/wearers/{int:wearer_id}/readings", response={200: WearerView, **EVERY_ERROR})
def readings(request: HttpRequest, wearer_id: int, payload: ReadingsIn) -> WearerView:
    """Make these the wearer's readings of a site, once they can be read."""
    workshop = bench_of(request)
    shop = shop_of(workshop)
    if payload.unit:
        shop = shop.model_copy(update={"unit": payload.unit})
    check_readings(workshop, payload.readings)
    if any(str(r.get("value") or "").strip() for r in payload.readings):
        read_girth(payload.site, {"readings": payload.readings}, shop)
    wearer = keep_readings(workshop, wearer_id, payload.site, payload.readings, shop.unit)
    return _view(wearer)


class CsvIn(Schema):
    """A CSV file of measures, and whether to import it or only to look."""

    text: Typed = Field(max_length=MOST_TEXT)
    commit: bool = Field(default=False, strict=True)


class CastCell(Schema):
    """One reading of one wearer, whole, as typed."""

    name: Line = Field(min_length=1, max_length=80)
    part: Line = Field(default="", max_length=80)
    site: Typed = Field(max_length=40)
    reading: ReadingTyped


class CastIn(Schema):
    """A cast's readings, typed on one screen."""

    cells: list[CastCell] = Field(max_length=500)
    commit: bool = Field(default=False, strict=True)


@router.get("/measures.csv", response={200: Any, **EVERY_ERROR})
def measures_out(request: HttpRequest) -> Any:
    """Return all standing readings as CSV."""
    response = HttpResponse(export_csv(bench_of(request)), content_type="text/csv; charset=utf-8")
    response["Content-Disposition"] = 'attachment; filename="measures.csv"'
    return response


@router.post("/measures", response={200: Import, **EVERY_ERROR}, throttle=[IMPORTS_BY_BENCH])
def measures_in(request: HttpRequest, payload: CsvIn) -> Import:
    """Look at a CSV file of measures, or import it when nothing in it is refused."""
    found, refused = read_csv(payload.text)
    return import_rows(bench_of(request), found, refused, commit=payload.commit)


@router.post("/cast", response={200: Import, **EVERY_ERROR})
def cast_in(request: HttpRequest, payload: CastIn) -> Import:
    """Check or keep a whole cast's readings; ``line`` is the cell's place in the list."""
    found = [
        MeasureRow(line=i, name=c.name, part=c.part, site=c.site, reading=c.reading)
        for i, c in enumerate(payload.cells)
    ]
    return import_rows(bench_of(request), found, [], commit=payload.commit)
