"""The section Hand: what is on record of the maker, and how sure a plan may be of it."""

from datetime import datetime
from typing import Any, Literal, cast

from django.http import HttpRequest
from ninja import Router, Schema
from pydantic import Field

from jamreel.api.auth import bench_of
from jamreel.api.errors import EVERY_ERROR
from jamreel.api.texts import Line, RowId, Typed
from jamreel.core.bench.named import technique_named, wire_named, work_named
from jamreel.core.hand.belief import Seen, Sureness, believe, long_enough, seen, sureness, t_point
from jamreel.core.hand.hand import OnRecord
from jamreel.core.shop import Shop
from jamreel.core.words import speaking
from jamreel.workshop import hands
from jamreel.workshop.models import HandRecord, Workshop
from jamreel.workshop.planning import shop_of

router = Router(tags=["hand"])
Kind = Literal["wire", "pace", "former", "length"]


class RecordView(Schema):
    """A record: what was planned and taken (mm, minutes; a former and what came off it), its ratio
    or yield, where it comes from, and why it is set aside, where it is."""

    id: int
    planned: float
    took: float
    ratio: float
    source: str
    piece_id: int | None
    piece: str
    reel: str
    note: str
    at: datetime
    aside: bool
    why: str


class TechniqueView(Schema):
    """What is on record of a technique in a class of wire: the ratio that is believed, from where
    to where nine of ten of the next fall, what is long enough 19 times in 20; how many records of
    that wire count, and how many of other sizes. Of lengths and minutes ``stock`` says nothing."""

    kind: Kind
    technique: str
    name: str
    stock: str
    wire: str
    own: int
    near: int
    ratio: float
    spread: float
    low: float
    high: float
    long_enough: float
    sureness: Sureness
    records: list[RecordView]


class HandView(Schema):
    """All that is on record; ``usual`` is what holds of a hand that nothing is known of."""

    techniques: list[TechniqueView]
    usual: float


class HandSampleIn(Schema):
    """A sample as typed: on which pin or core, of how many turns, and the wire that it took."""

    kind: Literal["loop", "wrapped_loop", "coil"]
    stock_id: RowId
    pin: Typed = Field(default="", max_length=40)
    turns: Typed = Field(default="", max_length=10)
    took: Typed = Field(default="", max_length=40)
    note: Line = Field(default="", max_length=200)


class Aside(Schema):
    """Whether a record is set aside, and why."""

    aside: bool = Field(strict=True)
    why: Line = Field(default="", max_length=200)


HAND: dict[int, Any] = {200: HandView, **EVERY_ERROR}
# So often an interval holds what it says: nine times in ten.
INTERVAL = 0.95


def _view(workshop: Workshop) -> HandView:
    shop = shop_of(workshop)
    with speaking(shop.language, shop.unit):
        found = [
            _technique(workshop, shop, cast(Kind, kind), technique, stock)
            for kind, technique, stock in hands.groups(workshop)
        ]
    return HandView(techniques=found, usual=long_enough(believe(Seen())))


def _technique(
    workshop: Workshop, shop: Shop, kind: Kind, technique: str, stock: str
) -> TechniqueView:
    records = hands.newest(workshop, kind, technique, stock)
    known = _known(shop, kind, technique, stock, records)
    belief = believe(known.seen)
    off = t_point(INTERVAL, belief.freedom) * belief.scale
    former = kind == "former" and known.own > 0
    ratio = known.mean if former else belief.mean
    return TechniqueView(
        kind=kind,
        technique=technique,
        name=work_named(technique) if kind == "pace" else technique_named(technique),
        stock=stock,
        wire=wire_named(stock, shop.metals) if stock else "",
        own=known.own,
        near=known.near,
        ratio=ratio,
        spread=0.0 if former else belief.spread,
        low=ratio if former else belief.mean - off,
        high=ratio if former else belief.mean + off,
        long_enough=long_enough(belief),
        sureness=sureness(known.seen),
        records=[_record(one) for one in records],
    )


def _known(
    shop: Shop, kind: str, technique: str, stock: str, records: list[HandRecord]
) -> OnRecord:
    """Return what counts of a technique: of wire with other sizes beside, of all else by itself."""
    if kind == "wire":
        return shop.hand.of(technique, stock)
    if kind == "pace":
        return shop.hand.of_work(technique)
    measured = next((one for one in shop.measured if one.stock == stock), None)
    if kind == "former" and measured is not None:
        return OnRecord(own=measured.records, near=0, mean=measured.yield_mpa, squares=0.0)
    what = seen(one.ratio for one in records if one.set_aside_at is None)
    return OnRecord(own=round(what.n), near=0, mean=what.mean or 1.0, squares=what.squares)


def _record(one: HandRecord) -> RecordView:
    return RecordView(
        id=one.pk,
        planned=one.planned,
        took=one.took,
        ratio=one.ratio,
        source=one.source,
        piece_id=one.piece_id,
        piece=one.piece.name if one.piece else "",
        reel=one.reel.name if one.reel else "",
        note=one.note,
        at=one.at,
        aside=one.set_aside_at is not None,
        why=one.why,
    )


@router.get("/hand", response=HAND)
def read(request: HttpRequest) -> HandView:
    """Return all that is on record of the maker's hand."""
    return _view(bench_of(request))


@router.post("/hand/samples", response=HAND)
def sample(request: HttpRequest, payload: HandSampleIn) -> HandView:
    """Put a sample on record."""
    workshop = bench_of(request)
    typed = {"pin": payload.pin, "turns": payload.turns, "took": payload.took}
    hands.note_sample(workshop, hands.Sample(payload.kind, payload.stock_id, typed, payload.note))
    return _view(workshop)


@router.post("/hand/records/{int:record_id}/aside", response=HAND)
def aside(request: HttpRequest, record_id: int, payload: Aside) -> HandView:
    """Set a record aside with a reason, or let it count again."""
    workshop = bench_of(request)
    hands.set_aside(workshop, record_id, payload.why, aside=payload.aside)
    return _view(workshop)
