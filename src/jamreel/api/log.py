"""The log: what was made, searched and paged, its photographs, and another like it."""

from datetime import date, datetime
from typing import Any

from django.http import HttpRequest, HttpResponse
from ninja import File, Router, Schema, Status
from ninja.files import UploadedFile
from pydantic import Field

from jamreel.api.auth import bench_of
from jamreel.api.errors import EVERY_ERROR
from jamreel.api.texts import Line, Lines, RowId, Typed
from jamreel.api.throttles import PHOTOS_BY_BENCH
from jamreel.core.bench.price import Pricing, cost_of, missing_for_price, price_of
from jamreel.core.words import say
from jamreel.workshop import log, photos
from jamreel.workshop.models import LogEntry, Wearer, Workshop
from jamreel.workshop.ownership import row
from jamreel.workshop.planning import shop_of

router = Router(tags=["log"])


class EntryLine(Schema):
    """A finished piece in short. Lengths in mm, minutes; money is the bench's own."""

    id: int
    piece_id: int | None
    name: str
    wearer: str
    made_of: str
    finished_on: date
    planned_mm: float | None
    made_mm: float | None
    inside_planned_mm: float | None
    inside_made_mm: float | None
    tries: int
    minutes: float | None
    minutes_planned: float
    waste_mm: float
    photo: int | None


class EntryView(EntryLine):
    """A finished piece in full: what it was made of, what it cost, what it could be sold for."""

    kind: str
    metals: str
    reels: str
    finished_at: datetime
    wire_mm: float
    waste_g: float
    material: float | None
    hours: float
    overheads: float
    share: float
    cost: float | None
    price: float | None
    missing: list[str]
    unpriced: str
    currency: str
    note: str
    photos: list[int]


class LogView(Schema):
    """A page of the log, the newest first; the next page goes on ``before``."""

    entries: list[EntryLine]
    before: int | None


class NoteIn(Schema):
    """A note with an entry."""

    note: Lines = Field(default="", max_length=500)


class Again(Schema):
    """Another like this: for whom, called what, by when."""

    name: Line = Field(min_length=1, max_length=120)
    wearer_id: RowId | None = None
    due: date | None = None


class Started(Schema):
    """The piece that was started."""

    id: int


def _line(one: LogEntry, photo: int | None) -> dict[str, Any]:
    names = (name for name in EntryLine.model_fields if name != "photo")
    return {
        **{name: getattr(one, "pk" if name == "id" else name) for name in names},
        "photo": photo,
    }


def _view(workshop: Workshop, entry_id: int) -> EntryView:
    one = row(LogEntry, workshop, entry_id)
    pricing = shop_of(workshop).pricing
    minutes = one.minutes or one.minutes_planned
    shown = [n for (n,) in one.photos.values_list("pk")]
    cost, price = _money(one, minutes, pricing)
    return EntryView(
        **_line(one, shown[0] if shown else None),
        kind=say(f"family.{one.kind}") if one.kind else "",
        metals=one.metals,
        reels=one.reels,
        finished_at=one.finished_at,
        wire_mm=one.wire_mm,
        waste_g=one.waste_g,
        material=one.material,
        hours=minutes / 60 * pricing.hour,
        overheads=pricing.overheads,
        share=pricing.share,
        cost=cost,
        price=price,
        missing=list(missing_for_price(pricing, one.unpriced, one.material)),
        unpriced=one.unpriced,
        currency=pricing.currency,
        note=one.note,
        photos=shown,
    )


def _money(one: LogEntry, minutes: float, pricing: Pricing) -> tuple[float | None, float | None]:
    """Return cost and price: a cost of what is known, a price only where nothing is missing."""
    if one.material is None and not pricing.hour and not pricing.overheads:
        return None, None
    known = one.material or 0.0
    whole = not missing_for_price(pricing, one.unpriced, one.material)
    return cost_of(known, minutes, pricing), price_of(known, minutes, pricing) if whole else None


@router.get("/log", response={200: LogView, **EVERY_ERROR})
def read(request: HttpRequest, words: Typed = "", before: RowId | None = None) -> LogView:
    """Return a page of the log: all entries, or those that have all words."""
    workshop = bench_of(request)
    page = log.entries(workshop, words[:200], before)
    first = log.first_photos(workshop, page.entries)
    lines = [EntryLine(**_line(one, first.get(one.pk))) for one in page.entries]
    return LogView(entries=lines, before=page.before)


@router.get("/log.csv", response={200: Any, **EVERY_ERROR})
def as_csv(request: HttpRequest) -> Any:
    """Return the whole log as CSV."""
    body = log.as_csv(bench_of(request))
    response = HttpResponse(body, content_type="text/csv; charset=utf-8")
    response["Content-Disposition"] = 'attachment; filename="log.csv"'
    return response


@router.get("/log/{int:entry_id}", response={200: EntryView, **EVERY_ERROR})
def entry(request: HttpRequest, entry_id: int) -> EntryView:
    """Return a finished piece in full."""
    return _view(bench_of(request), entry_id)


@router.put("/log/{int:entry_id}/note", response={200: EntryView, **EVERY_ERROR})
def note(request: HttpRequest, entry_id: int, payload: NoteIn) -> EntryView:
    """Keep a note with an entry."""
    workshop = bench_of(request)
    log.note(workshop, entry_id, payload.note)
    return _view(workshop, entry_id)


@router.post("/log/{int:entry_id}/again", response={201: Started, **EVERY_ERROR})
def again(request: HttpRequest, entry_id: int, payload: Again) -> Status[Started]:
    """Start another piece like this one."""
    workshop = bench_of(request)
    wearer = row(Wearer, workshop, payload.wearer_id) if payload.wearer_id else None
    piece = log.again(workshop, entry_id, payload.name, wearer, payload.due)
    return Status(201, Started(id=piece.pk))


@router.post(
    "/log/{int:entry_id}/photos",
    response={200: EntryView, **EVERY_ERROR},
    throttle=[PHOTOS_BY_BENCH],
)
def add_photo(request: HttpRequest, entry_id: int, photo: File[UploadedFile]) -> EntryView:
    """Keep a photograph with an entry; it is drawn anew."""
    workshop = bench_of(request)
    photos.add_photo(workshop, entry_id, photo.read(photos.MOST_BYTES + 1))
    return _view(workshop, entry_id)


@router.get("/log/photos/{int:photo_id}.jpg", response={200: Any, **EVERY_ERROR})
def photo(request: HttpRequest, photo_id: int) -> Any:
    """Return a photograph, to its own bench only."""
    response = HttpResponse(
        photos.picture_of(bench_of(request), photo_id), content_type="image/jpeg"
    )
    response["Cache-Control"] = "private, max-age=3600"
    return response


@router.delete("/log/photos/{int:photo_id}", response={204: None, **EVERY_ERROR})
def drop_photo(request: HttpRequest, photo_id: int) -> Status[None]:
    """Take a photograph out of the log."""
    photos.drop_photo(bench_of(request), photo_id)
    return Status(204, None)
