"""The rack: stock, its movements, and the tables it comes from."""

from collections.abc import Sequence
from datetime import datetime
from pathlib import Path
from typing import Any, Literal

from django.http import HttpRequest, HttpResponse
from ninja import Router, Schema, Status
from pydantic import Field

from jamreel.api.auth import bench_of
from jamreel.api.errors import EVERY_ERROR
from jamreel.api.texts import Lines, Typed, WireTyped
from jamreel.api.throttles import IMPORTS_BY_BENCH
from jamreel.core.wire.sense import Near, nearest_gauges, two_wires
from jamreel.core.words import say
from jamreel.workshop import stock as racks
from jamreel.workshop.csv_text import MOST_TEXT
from jamreel.workshop.models import Movement, Stock, Workshop
from jamreel.workshop.ownership import row
from jamreel.workshop.stock_csv import StockImport, import_stock, stock_csv
from jamreel.workshop.trials import note_trial

router = Router(tags=["stock"])
FONTS = Path(racks.__file__).parent / "papers" / "fonts"


class MovementView(Schema):
    """A gain or a use."""

    id: int
    amount: float
    reason: str
    note: str
    at: datetime
    undone: bool


class TrialView(Schema):
    """What the wire came off a former at [mm], and the yield that tells of it [MPa]."""

    former: float
    came_off: float
    yield_mpa: float


class TrialIn(Schema):
    """What the wire was wound on and came off at, as typed; both blank takes a trial back."""

    former: Typed = Field(default="", max_length=40)
    came_off: Typed = Field(default="", max_length=40)


class StockView(Schema):
    """Something on the rack, with what there is of it and its last movements.

    ``problem`` says why its wire can't be read any more, such as for a metal that was taken off.
    """

    id: int
    kind: str
    name: str
    said: str
    key: str
    wire: WireTyped
    problem: str
    amount: float
    is_low: bool
    tare_g: float
    price: float | None
    low: float
    size_mm: float | None
    hole_mm: float | None
    diameter_mm: float | None
    mass_g: float | None
    awg: Near | None
    swg: Near | None
    trial: TrialView | None
    movements: list[MovementView]


class RackView(Schema):
    """Everything on the rack, and words that stand for two wires on it."""

    stock: list[StockView]
    two_diameters: list[str]


class StockIn(Schema):
    """Stock as typed."""

    stock: dict[str, Any]


class MoveIn(Schema):
    """A gain or use as typed; ``counted`` says how much there is."""

    amount: Typed = Field(min_length=1, max_length=40)
    reason: Literal["bought", "counted", "used", "spoiled", "scrapped"]
    note: Lines = Field(default="", max_length=200)


class WeighIn(Schema):
    """What the scale sent, and its last digit."""

    reading: Typed = Field(min_length=1, max_length=40)
    resolution: float = Field(default=0.1, gt=0, le=100)


class WeighedView(Schema):
    """What is left on the reel."""

    length_mm: float
    plus_minus_mm: float
    stock: StockView


class StockCsvIn(Schema):
    """A CSV of stock, to be looked at or brought in."""

    text: Typed = Field(max_length=MOST_TEXT)
    commit: bool = Field(default=False, strict=True)


TRIAL = ("former", "came_off", "yield_mpa")


def _stock_view(stock: Stock, amount: float, last: Sequence[Movement]) -> StockView:
    wire, problem = racks.wire_or_why(stock)
    # Only round wire goes by gauge.
    near = nearest_gauges(wire.d) if wire and wire.section is None else (None, None)
    return StockView(
        id=stock.pk,
        kind=stock.kind,
        name=stock.name,
        said=stock.said,
        key=stock.key,
        wire=stock.wire if isinstance(stock.wire, dict) else {},
        problem=problem,
        amount=amount,
        is_low=stock.low > 0 and amount < stock.low,
        tare_g=stock.tare_g,
        price=stock.price,
        low=stock.low,
        size_mm=stock.size_mm,
        hole_mm=stock.hole_mm,
        diameter_mm=wire.d if wire else None,
        mass_g=wire.mass(amount) if wire else None,
        awg=near[0],
        swg=near[1],
        trial=TrialView(**{k: stock.trial[k] for k in TRIAL}) if stock.trial else None,
        movements=[
            MovementView(
                id=m.pk,
                amount=m.amount,
                reason=m.reason,
                note=m.note,
                at=m.at,
                undone=hasattr(m, "undone_by"),
            )
            for m in last
        ],
    )


def _two_diameters(stocks: Sequence[StockView]) -> list[str]:
    """Return sentences on gauge words that stand for two wires on this rack."""
    named: dict[str, list[StockView]] = {}
    for one in stocks:
        word = str(one.wire.get("size", "")).lower()
        number = "".join(c for c in word if c in "0123456789.")
        if one.diameter_mm is not None and ("awg" in word or "swg" in word):
            named.setdefault(number, []).append(one)
    found = []
    for number, same in named.items():
        sizes = sorted({round(s.diameter_mm or 0.0, 3) for s in same})
        if len(sizes) > 1 and two_wires(sizes[0], sizes[-1]):
            said = ", ".join(f"{size:.2f} mm ({', '.join(_names(same, size))})" for size in sizes)
            found.append(say("rack.two_wires", number=number, said=said))
    return found


def _names(same: Sequence[StockView], size: float) -> list[str]:
    """Return what hangs on the rack in one size, each name once."""
    return list(dict.fromkeys(s.name for s in same if round(s.diameter_mm or 0.0, 3) == size))


def _rack(workshop: Workshop) -> RackView:
    have = racks.amounts(workshop)
    found = racks.on_rack(workshop).select_related("workshop")
    last = racks.last_movements(workshop)
    views = [_stock_view(s, have.get(s.pk, 0.0), last.get(s.pk, ())) for s in found]
    return RackView(stock=views, two_diameters=_two_diameters(views))


@router.get("/stock", response={200: RackView, **EVERY_ERROR})
def rack(request: HttpRequest) -> RackView:
    """Return everything on the rack."""
    return _rack(bench_of(request))


@router.post("/stock", response={201: RackView, **EVERY_ERROR})
def add(request: HttpRequest, payload: StockIn) -> Status[RackView]:
    """Put something on the rack."""
    workshop = bench_of(request)
    racks.add_stock(workshop, payload.stock)
    return Status(201, _rack(workshop))


@router.put("/stock/{int:stock_id}", response={200: RackView, **EVERY_ERROR})
def change(request: HttpRequest, stock_id: int, payload: StockIn) -> RackView:
    """Change what is known of something on the rack."""
    workshop = bench_of(request)
    racks.change_stock(workshop, stock_id, payload.stock)
    return _rack(workshop)


@router.post("/stock/{int:stock_id}/movements", response={200: RackView, **EVERY_ERROR})
def move(request: HttpRequest, stock_id: int, payload: MoveIn) -> RackView:
    """Write a gain or a use."""
    workshop = bench_of(request)
    racks.move(workshop, stock_id, payload.amount, payload.reason, payload.note)
    return _rack(workshop)


@router.post("/stock/{int:stock_id}/weigh", response={200: WeighedView, **EVERY_ERROR})
def weigh(request: HttpRequest, stock_id: int, payload: WeighIn) -> WeighedView:
    """Set a reel to what the scale says is left on it."""
    workshop = bench_of(request)
    found = racks.weigh(workshop, stock_id, payload.reading, payload.resolution)
    stock = row(Stock, workshop, stock_id)
    return WeighedView(
        length_mm=found.length_mm,
        plus_minus_mm=found.plus_minus_mm,
        stock=_stock_view(
            stock, racks.amount_of(stock), racks.last_movements(workshop).get(stock.pk, ())
        ),
    )


@router.post("/stock/{int:stock_id}/trial", response={200: RackView, **EVERY_ERROR})
def trial(request: HttpRequest, stock_id: int, payload: TrialIn) -> RackView:
    """Keep what a wire came off a former at with its reel: springback goes by it from then on."""
    workshop = bench_of(request)
    note_trial(workshop, stock_id, payload.dict())
    return _rack(workshop)


@router.get("/stock.csv", response={200: Any, **EVERY_ERROR})
def export_stock(request: HttpRequest) -> HttpResponse:
    """Return the rack as CSV."""
    response = HttpResponse(stock_csv(bench_of(request)), content_type="text/csv; charset=utf-8")
    response["Content-Disposition"] = 'attachment; filename="rack.csv"'
    return response


@router.post(
    "/stock/import", response={200: StockImport, **EVERY_ERROR}, throttle=[IMPORTS_BY_BENCH]
)
def bring_in(request: HttpRequest, payload: StockCsvIn) -> StockImport:
    """Look at a CSV of stock, or bring it in when nothing in it is refused."""
    return import_stock(bench_of(request), payload.text, commit=payload.commit)


class SpoilIn(Schema):
    """A length that was cut wrong, and why."""

    amount: Typed = Field(min_length=1, max_length=40)
    note: Lines = Field(default="", max_length=200)


@router.post("/stock/{int:stock_id}/spoil", response={200: RackView, **EVERY_ERROR})
def spoil(request: HttpRequest, stock_id: int, payload: SpoilIn) -> RackView:
    """Write off a length that was cut wrong; the board lays out the rest anew."""
    workshop = bench_of(request)
    racks.spoil(workshop, stock_id, payload.amount, payload.note)
    return _rack(workshop)
