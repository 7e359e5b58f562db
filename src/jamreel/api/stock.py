"""The rack and the cut board: stock, movements, scale and calliper, nesting, labels."""

import csv
import io
import re
from collections.abc import Sequence
from datetime import datetime
from pathlib import Path
from typing import Any, Literal

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from ninja import Router, Schema, Status
from pydantic import Field

from jamreel.api.auth import bench_of
from jamreel.api.errors import EVERY_ERROR
from jamreel.core.path.moves import MarkAt
from jamreel.core.units import format_length
from jamreel.core.wire.sense import (
    GaugeRow,
    Near,
    Through,
    gauge_chart,
    nearest_gauges,
    passes,
    two_wires,
)
from jamreel.core.words import say
from jamreel.devices.calliper import Calliper
from jamreel.devices.label_printer import LabelPrinter
from jamreel.devices.scale import Scale
from jamreel.workshop import stock as racks
from jamreel.workshop.board import (
    Fetch,
    Group,
    Lane,
    Outstanding,
    cost_of,
    fits_need,
    lay_out,
    short_of,
    to_fetch,
)
from jamreel.workshop.models import Piece, Stock, Workshop
from jamreel.workshop.ownership import row, rows
from jamreel.workshop.papers.bench_strip import Paper, strip_of
from jamreel.workshop.pieces import shop_of
from jamreel.workshop.stock_csv import StockImport, import_stock, stock_csv

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


class StockView(Schema):
    """Something on the rack, with what there is of it and its last movements."""

    id: int
    kind: str
    name: str
    said: str
    wire: dict[str, Any]
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

    amount: str = Field(min_length=1, max_length=40)
    reason: Literal["bought", "counted", "used", "spoiled", "scrapped"]
    note: str = Field(default="", max_length=200)


class WeighIn(Schema):
    """What the scale sent, and its last digit."""

    reading: str = Field(min_length=1, max_length=40)
    resolution: float = Field(default=0.1, gt=0, le=100)


class WeighedView(Schema):
    """What is left on the reel."""

    length_mm: float
    plus_minus_mm: float
    stock: StockView


class ReadingLine(Schema):
    """What a device sent: plain text as it comes off the cable."""

    text: str


class Sense(Schema):
    """What a diameter is called, and how often it passes a hole."""

    diameter_mm: float
    awg: Near
    swg: Near
    through: Through | None


class SenseIn(Schema):
    """A size, and perhaps a hole, as typed."""

    size: str = Field(min_length=1, max_length=40)
    hole: str = Field(default="", max_length=40)


class StockCsvIn(Schema):
    """A CSV of stock, to be looked at or brought in."""

    text: str = Field(max_length=200_000)
    commit: bool = Field(default=False, strict=True)


class LineRefused(Schema):
    """A line that can't be brought in, and why."""

    line: int
    says: str


class StockImportView(Schema):
    """What an import would do, or did; with anything refused, nothing is brought in."""

    count: int
    refused: list[LineRefused]
    imported: bool


class CutOnBoard(Schema):
    """A wire to cut: for which piece, its tick's key, its length and marks."""

    piece_id: int
    piece: str
    key: str
    label: str
    length_mm: float
    marks: list[MarkAt]
    off_reel: bool


class LaneView(Schema):
    """A piece of wire with what is cut from it, longest first."""

    stock_id: int | None
    name: str
    kind: str
    length_mm: float
    cuts: list[CutOnBoard]
    left_mm: float
    scrap_mm: float


class GroupView(Schema):
    """All of one wire, and how good the plan is."""

    label: str
    colour: str
    wire_mm: float
    lanes: list[LaneView]
    unplaced: list[CutOnBoard]
    optimal: bool
    gap: float
    scrap_mm: float
    hand_scrap_mm: float
    saved_mm: float
    saved: float | None
    cost: float | None
    opened: int
    hand_opened: int
    buy_count: int
    buy_each_mm: float
    mass_g: float
    scrap_g: float


class Tray(Schema):
    """Something on the rack that beads or findings may be taken from; ``fits`` by its size."""

    stock_id: int
    name: str
    amount: float
    fits: bool


class FetchView(Schema):
    """Beads or findings to fetch for a piece."""

    piece_id: int
    piece: str
    key: str
    label: str
    size: str
    quantity: int
    trays: list[Tray]


class ShortView(Schema):
    """Beads or findings to buy."""

    label: str
    size: str
    count: int


class BoardView(Schema):
    """The cut board of some pieces, and what they take beside wire."""

    groups: list[GroupView]
    fetch: list[FetchView]
    fetch_cost: float
    short: list[ShortView]
    pieces: list[str]


class Printed(Schema):
    """Labels that were printed, by the name of their picture."""

    labels: list[str]


def _stock_view(stock: Stock, amount: float) -> StockView:
    wire = racks.wire_of(stock.wire, shop_of(stock.workshop)) if stock.wire else None
    # Only round wire goes by gauge.
    near = nearest_gauges(wire.d) if wire and wire.section is None else (None, None)
    last = list(stock.movements.select_related("undone_by").order_by("-at", "-id")[:8])
    return StockView(
        id=stock.pk,
        kind=stock.kind,
        name=stock.name,
        said=stock.said,
        wire=stock.wire,
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
        number = "".join(c for c in word if c.isdigit() or c == ".")
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
    views = [_stock_view(stock, have.get(stock.pk, 0.0)) for stock in found]
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


@router.delete("/stock/{int:stock_id}", response={204: None, **EVERY_ERROR})
def put_away(request: HttpRequest, stock_id: int) -> Status[None]:
    """Take something off the rack."""
    racks.put_away(bench_of(request), stock_id)
    return Status(204, None)


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
        stock=_stock_view(stock, racks.amount_of(stock)),
    )


@router.get("/stock.csv", response={200: Any, **EVERY_ERROR})
def export_stock(request: HttpRequest) -> HttpResponse:
    """Return the rack as CSV."""
    response = HttpResponse(stock_csv(bench_of(request)), content_type="text/csv; charset=utf-8")
    response["Content-Disposition"] = 'attachment; filename="rack.csv"'
    return response


@router.post("/stock/import", response={200: StockImportView, **EVERY_ERROR})
def bring_in(request: HttpRequest, payload: StockCsvIn) -> StockImportView:
    """Look at a CSV of stock, or bring it in when nothing in it is refused."""
    found: StockImport = import_stock(bench_of(request), payload.text, commit=payload.commit)
    return StockImportView(
        count=found.count,
        refused=[LineRefused(line=r.line, says=r.says) for r in found.refused],
        imported=found.imported,
    )


@router.get("/devices/scale", response={200: ReadingLine, **EVERY_ERROR})
def scale(request: HttpRequest, stock_id: int, unit: Literal["g", "oz"] = "g") -> ReadingLine:
    """Return what the scale on the bench reads with a reel on it."""
    stock = row(Stock, bench_of(request), stock_id)
    wire = racks.wire_of(stock.wire, shop_of(stock.workshop)) if stock.wire else None
    on_it = stock.tare_g + (wire.mass(racks.amount_of(stock)) if wire else 0.0)
    return ReadingLine(text=Scale(unit=unit).reads(on_it))


@router.get("/devices/calliper", response={200: ReadingLine, **EVERY_ERROR})
def calliper(request: HttpRequest, stock_id: int, unit: Literal["mm", "in"] = "mm") -> ReadingLine:
    """Return what the calliper on the bench reads across a wire."""
    stock = row(Stock, bench_of(request), stock_id)
    wire = racks.wire_of(stock.wire, shop_of(stock.workshop)) if stock.wire else None
    return ReadingLine(text=Calliper(unit=unit).reads(wire.d if wire else stock.size_mm or 0.0))


@router.get("/gauges", response={200: list[GaugeRow], **EVERY_ERROR})
def gauges(request: HttpRequest) -> list[GaugeRow]:
    """Return both gauge systems side by side."""
    bench_of(request)
    return list(gauge_chart())


@router.post("/gauges/sense", response={200: Sense, **EVERY_ERROR})
def sense(request: HttpRequest, payload: SenseIn) -> Sense:
    """Return what a size is called, and what of it passes a hole."""
    shop = shop_of(bench_of(request))
    wire = racks.wire_of({"size": payload.size}, shop)
    hole = racks.length_typed({"hole": payload.hole}, "hole", shop)
    awg, swg = nearest_gauges(wire.d)
    through = passes(hole, wire.d) if hole is not None else None
    return Sense(diameter_mm=wire.d, awg=awg, swg=swg, through=through)


def _chosen(request: HttpRequest, pieces: str) -> tuple[Workshop, list[Piece]]:
    """Return the bench and the pieces of a list of numbers; every piece to be cut when empty."""
    workshop = bench_of(request)
    wanted = [int(n) for n in pieces.split(",") if n.strip().isdigit()]
    if wanted:
        return workshop, [row(Piece, workshop, n) for n in wanted]
    standing = rows(Piece, workshop).filter(put_away_at__isnull=True, finished_at__isnull=True)
    return workshop, list(standing.filter(waits_for="cut"))


def _on_board(one: Outstanding) -> CutOnBoard:
    return CutOnBoard(
        piece_id=one.piece.pk,
        piece=one.piece.name,
        key=one.key,
        label=one.cut.label,
        length_mm=one.cut.length_mm,
        marks=list(one.cut.marks),
        off_reel=one.cut.off_reel,
    )


def _lane_view(lane: Lane) -> LaneView:
    return LaneView(
        stock_id=lane.stock.pk if lane.stock else None,
        name=lane.stock.name if lane.stock else say("rack.to_buy"),
        kind=lane.kind,
        length_mm=lane.length,
        cuts=[_on_board(one) for one in lane.cuts],
        left_mm=lane.left,
        scrap_mm=lane.scrap,
    )


def _group_view(group: Group) -> GroupView:
    found = group.found
    return GroupView(
        label=group.label,
        colour=group.colour,
        wire_mm=group.wire_mm,
        lanes=[_lane_view(lane) for lane in group.lanes],
        unplaced=[_on_board(one) for one in group.unplaced],
        optimal=found.optimal,
        gap=found.gap,
        scrap_mm=found.scrap,
        hand_scrap_mm=found.hand_scrap,
        saved_mm=group.saved_mm,
        saved=group.saved,
        cost=group.cost,
        opened=found.opened,
        hand_opened=found.hand_opened,
        buy_count=group.buy_count,
        buy_each_mm=group.buy_each_mm,
        mass_g=group.mass_g,
        scrap_g=group.scrap_g,
    )


@router.get("/board", response={200: BoardView, **EVERY_ERROR})
def board(request: HttpRequest, pieces: str = "") -> BoardView:
    """Return what is to be cut for some pieces, laid out on the rack."""
    workshop, chosen = _chosen(request, pieces)
    fetch = to_fetch(workshop, chosen)
    have = racks.amounts(workshop)
    return BoardView(
        groups=[_group_view(g) for g in lay_out(workshop, chosen)],
        fetch=[_fetch_view(one, have) for one in fetch],
        fetch_cost=cost_of(fetch),
        short=[ShortView.model_validate(vars(one)) for one in short_of(workshop, fetch)],
        pieces=[p.name for p in chosen],
    )


def _fetch_view(one: Fetch, have: dict[int, float]) -> FetchView:
    trays = [
        Tray(stock_id=s.pk, name=s.name, amount=have.get(s.pk, 0.0), fits=fits_need(one.need, s))
        for s in one.may_be
    ]
    need = one.need
    return FetchView(
        piece_id=one.piece.pk,
        piece=one.piece.name,
        key=need.id,
        label=need.label,
        size=need.size,
        quantity=one.count,
        trays=trays,
    )


@router.get("/board/buy.csv", response={200: Any, **EVERY_ERROR})
def buy_list(request: HttpRequest, pieces: str = "") -> HttpResponse:
    """Return what has to be bought for some pieces, as CSV."""
    workshop, chosen = _chosen(request, pieces)
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(["what", "how many", "each [mm]", "price a metre", "price"])
    for group in lay_out(workshop, chosen):
        if group.buy_count:
            each, price = group.buy_each_mm, group.price_per_m
            whole = "" if price is None else f"{price * each * group.buy_count / 1000:.2f}"
            writer.writerow([group.label, group.buy_count, f"{each:g}", price or "", whole])
    for short in short_of(workshop, to_fetch(workshop, chosen)):
        writer.writerow([f"{short.label}, {short.size}", short.count, "", "", ""])
    response = HttpResponse(out.getvalue(), content_type="text/csv; charset=utf-8")
    response["Content-Disposition"] = 'attachment; filename="buy.csv"'
    return response


@router.get("/board/strip.pdf", response={200: Any, **EVERY_ERROR})
def board_strip(request: HttpRequest, pieces: str = "", paper: Paper = "a4") -> HttpResponse:
    """Return the bench strips of all cuts of some pieces as one PDF at 1:1."""
    workshop, chosen = _chosen(request, pieces)
    cuts = [
        (one.piece.name, one.cut)
        for group in lay_out(workshop, chosen)
        for one in {(o.piece.pk, o.cut.alike): o for ln in group.lanes for o in ln.cuts}.values()
    ]
    body = strip_of(cuts, say("paper.batch"), paper, shop_of(workshop))
    response = HttpResponse(body, content_type="application/pdf")
    response["Content-Disposition"] = 'inline; filename="bench-strips.pdf"'
    return response


@router.post("/board/labels", response={200: Printed, **EVERY_ERROR})
def labels(request: HttpRequest, pieces: str = "") -> Printed:
    """Print a label for each bundle of cuts on the label printer."""
    workshop, chosen = _chosen(request, pieces)
    shop = shop_of(workshop)
    outbox = Path(settings.DATA) / "outbox" / f"bench-{workshop.pk}"
    printer = LabelPrinter(
        outbox, FONTS / "SchibstedGrotesk-Bold.ttf", FONTS / "SometypeMono-Medium.ttf"
    )
    names = []
    for group in lay_out(workshop, chosen):
        bundles: dict[tuple[int, str], list[Outstanding]] = {}
        for lane in group.lanes:
            for one in lane.cuts:
                bundles.setdefault((one.piece.pk, one.cut.alike), []).append(one)
        for (piece, cut_id), bundle in bundles.items():
            cut = bundle[0].cut
            length = format_length(cut.length_mm, shop.unit)
            lines = [f"{len(bundle)} × {length}", cut.label, f"{cut.wire} {cut.metal}", cut.temper]
            name = re.sub(r"[^a-z0-9]+", "-", cut_id.lower()).strip("-")
            path = printer.prints(f"label-{piece}-{name}", bundle[0].piece.name, lines)
            names.append(path.name)
    return Printed(labels=names)


class SpoilIn(Schema):
    """A length that was cut wrong, and why."""

    amount: str = Field(min_length=1, max_length=40)
    note: str = Field(default="", max_length=200)


@router.post("/stock/{int:stock_id}/spoil", response={200: RackView, **EVERY_ERROR})
def spoil(request: HttpRequest, stock_id: int, payload: SpoilIn) -> RackView:
    """Write off a length that was cut wrong; the board lays out the rest anew."""
    workshop = bench_of(request)
    racks.spoil(workshop, stock_id, payload.amount, payload.note)
    return _rack(workshop)
