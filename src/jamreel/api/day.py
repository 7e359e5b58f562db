"""The day plan: what is chosen for a day, the order that ends soonest, as a calendar too."""

from datetime import UTC, date, datetime, timedelta
from typing import Any, Literal

from django.http import Http404, HttpRequest, HttpResponse
from ninja import Router, Schema
from pydantic import Field

from jamreel.api.auth import bench_of
from jamreel.api.errors import EVERY_ERROR
from jamreel.api.texts import RowId, Typed
from jamreel.api.throttles import DAYS_BY_BENCH
from jamreel.core.words import speaking
from jamreel.workshop import clock, day
from jamreel.workshop.models import DayPlan, Piece, Workshop
from jamreel.workshop.ownership import rows
from jamreel.workshop.planning import shop_of

router = Router(tags=["day"])


class Candidate(Schema):
    """A piece that may be chosen for a day."""

    id: int
    name: str
    due: date | None
    waits_for: str


class PlacedView(Schema):
    """A step, or one go of it, at its time; its piece is left alone until ``free``."""

    task: str
    title: str
    start: datetime
    end: datetime
    free: datetime
    part: int
    parts: int


class Lane(Schema):
    """A piece on its lane; ``late_by`` is how long after its date it is done [min], and
    ``late_anyhow`` that it would be late if it were the only one."""

    piece_id: int
    name: str
    due: date | None
    late_by: float | None
    late_anyhow: bool
    leave_out: bool
    placed: list[PlacedView]


class Stretch(Schema):
    """A stretch of time with hands at the bench, as typed."""

    start: Typed = Field(max_length=10)
    end: Typed = Field(max_length=10)


class DayView(Schema):
    """A day at the bench. Where no order was proven the best, none ends before ``bound``; ``stale``
    says why it is to be worked out anew."""

    day: date
    pieces: list[int]
    first: int | None
    hours: list[Stretch]
    there_is: dict[str, int]
    zone: str
    candidates: list[Candidate]
    lanes: list[Lane]
    begins: datetime | None
    ends: datetime | None
    bound: datetime | None
    proven: bool
    changes: int
    stale: str
    now: datetime


class DayIn(Schema):
    """What is chosen for a day."""

    pieces: list[RowId] = Field(max_length=60)
    first: RowId | None = None
    hours: list[Stretch] = Field(max_length=12)
    there_is: dict[Literal["hands", "torch", "pickle", "tumbler"], int]
    zone: Typed = Field(default="UTC", max_length=60)


DAY: dict[int, Any] = {200: DayView, **EVERY_ERROR}
MOST_CANDIDATES = 200


def _view(workshop: Workshop, on: date, kept: DayPlan | None) -> DayView:
    chosen = day.chosen_for(workshop, on)
    candidates = rows(Piece, workshop).filter(finished_at=None, put_away_at=None).defer("hand")
    listed = sorted(candidates[:MOST_CANDIDATES], key=lambda p: (p.due is None, p.due or on, p.pk))
    shop = shop_of(workshop)
    with speaking(shop.language, shop.unit):
        stale = day.why_stale(workshop, kept) if kept and kept.found else ""
    found = kept.found if kept else {}
    placed = day.moments(kept) if kept and found else []
    bound = None
    if placed and kept is not None and not found["proven"]:
        first = min(one["start"] for one in kept.found["placed"])
        begins = min(one["start"] for one in placed)
        on_one_line = begins.astimezone(UTC) + timedelta(minutes=found["bound"] - first)
        bound = on_one_line.astimezone(begins.tzinfo)
    return DayView(
        day=on,
        pieces=list(chosen.pieces),
        first=chosen.first,
        hours=[Stretch(start=a, end=b) for a, b in chosen.hours],
        there_is=chosen.there_is,
        zone=chosen.zone,
        candidates=[
            Candidate(id=one.pk, name=one.name, due=one.due, waits_for=one.waits_for)
            for one in listed
        ],
        lanes=_lanes(workshop, chosen.pieces, found, placed),
        begins=min((one["start"] for one in placed), default=None),
        ends=max((one["free"] for one in placed), default=None),
        bound=bound,
        proven=bool(found.get("proven", True)),
        changes=int(found.get("changes", 0)),
        stale=stale,
        now=clock.now(),
    )


def _lanes(
    workshop: Workshop, pieces: tuple[int, ...], found: dict[str, Any], placed: list[dict[str, Any]]
) -> list[Lane]:
    names = {p.pk: p for p in rows(Piece, workshop).filter(pk__in=pieces)}
    late = {one["job"]: one for one in found.get("late", [])}
    return [
        Lane(
            piece_id=pk,
            name=names[pk].name,
            due=names[pk].due,
            late_by=late.get(pk, {}).get("by"),
            # A plan that was kept before this was known says nothing of it.
            late_anyhow=late.get(pk, {}).get("anyhow", False),
            leave_out=pk in found.get("leave_out", []),
            placed=[PlacedView(**one) for one in placed if one["job"] == pk],
        )
        for pk in pieces
        if pk in names
    ]


@router.get("/day", response=DAY)
def read(request: HttpRequest, on: date | None = None) -> DayView:
    """Return the plan of a day, today's where none is named."""
    workshop = bench_of(request)
    on = on or clock.now().date()
    return _view(workshop, on, rows(DayPlan, workshop).filter(day=on).first())


@router.put("/day", response=DAY, throttle=[DAYS_BY_BENCH])
def plan(request: HttpRequest, payload: DayIn, on: date | None = None) -> DayView:
    """Choose for a day, and work its plan out with what is done by now."""
    workshop = bench_of(request)
    on = on or clock.now().date()
    chosen = day.Chosen(
        pieces=tuple(payload.pieces),
        first=payload.first,
        hours=tuple((one.start, one.end) for one in payload.hours),
        there_is={str(name): count for name, count in payload.there_is.items()},
        zone=payload.zone,
    )
    return _view(workshop, on, day.plan_day(workshop, on, chosen))


@router.get("/day.ics", response={200: Any, **EVERY_ERROR})
def as_ics(request: HttpRequest, on: date | None = None) -> Any:
    """Return the plan of a day as a calendar; 404 where there is none."""
    workshop = bench_of(request)
    on = on or clock.now().date()
    kept = rows(DayPlan, workshop).filter(day=on).first()
    if kept is None or not kept.found:
        raise Http404
    response = HttpResponse(day.as_ics(workshop, kept), content_type="text/calendar; charset=utf-8")
    response["Content-Disposition"] = f'attachment; filename="day-{on}.ics"'
    return response
