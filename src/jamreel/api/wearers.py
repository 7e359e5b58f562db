"""Wearers and their readings."""

from typing import Any

from django.http import HttpRequest
from ninja import Router, Schema, Status
from pydantic import Field

from jamreel.api.auth import bench_of
from jamreel.api.errors import EVERY_ERROR
from jamreel.api.views import ReadingView, readings_of
from jamreel.core.body.readings import Girth, SiteId
from jamreel.core.plan import BriefRefused, read_girth
from jamreel.core.units import Unit
from jamreel.core.words import Problem
from jamreel.workshop.models import Wearer
from jamreel.workshop.ownership import row, rows
from jamreel.workshop.pieces import shop_of
from jamreel.workshop.wearers import keep_readings, measures_of

router = Router(tags=["wearers"])


class WearerIn(Schema):
    """Who is measured."""

    name: str = Field(min_length=1, max_length=80)
    part: str = Field(default="", max_length=80)
    is_child: bool = Field(default=False, strict=True)
    note: str = Field(default="", max_length=500)


class PieceName(Schema):
    """A piece's name and what it waits for."""

    id: int
    name: str
    waits_for: str


class WearerView(WearerIn):
    """A wearer with girths as they stand, and the problems of those that don't."""

    id: int
    girths: list[Girth]
    problems: list[Problem]
    measures: dict[str, Any]
    readings: list[ReadingView]
    pieces: list[PieceName]


class ReadingsIn(Schema):
    """The readings that stand for a site from now on, as typed."""

    site: SiteId
    readings: list[dict[str, Any]] = Field(max_length=3)
    unit: Unit | None = None


def _view(wearer: Wearer) -> WearerView:
    shop = shop_of(wearer.workshop)
    measures = measures_of(wearer, shop.unit)
    girths: list[Girth] = []
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
    found = rows(Wearer, bench_of(request)).prefetch_related("readings", "pieces")
    return [_view(w) for w in found.select_related("workshop")]


@router.post("/wearers", response={201: WearerView, **EVERY_ERROR})
def add(request: HttpRequest, payload: WearerIn) -> Status[WearerView]:
    """Add a wearer."""
    wearer = Wearer.objects.create(workshop=bench_of(request), **payload.dict())
    return Status(201, _view(wearer))


@router.put("/wearers/{int:wearer_id}", response={200: WearerView, **EVERY_ERROR})
def change(request: HttpRequest, wearer_id: int, payload: WearerIn) -> WearerView:
    """Change a wearer's name, part or note."""
    wearer = row(Wearer, bench_of(request), wearer_id)
    for key, value in payload.dict().items():
        setattr(wearer, key, value)
    wearer.save()
    return _view(wearer)


@router.put("/wearers/{int:wearer_id}/readings", response={200: WearerView, **EVERY_ERROR})
def readings(request: HttpRequest, wearer_id: int, payload: ReadingsIn) -> WearerView:
    """Make these the wearer's readings of a site, once they can be read."""
    workshop = bench_of(request)
    shop = shop_of(workshop)
    if payload.unit:
        shop = shop.model_copy(update={"unit": payload.unit})
    if any(str(r.get("value") or "").strip() for r in payload.readings):
        read_girth(payload.site, {"readings": payload.readings}, shop)
    wearer = keep_readings(workshop, wearer_id, payload.site, payload.readings, shop.unit)
    return _view(wearer)
