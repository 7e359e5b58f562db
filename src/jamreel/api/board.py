"""The cut board: what is to be cut and fetched for some pieces, what to buy, strips and labels."""

import re
from pathlib import Path
from typing import Any

from django.db.models import F
from django.http import HttpRequest, HttpResponse
from ninja import Router, Schema

from jamreel.api.auth import bench_of
from jamreel.api.errors import EVERY_ERROR
from jamreel.core.errors import Refusal
from jamreel.core.path.moves import MarkAt
from jamreel.core.units import format_length
from jamreel.core.words import say
from jamreel.devices.label_printer import LabelPrinter
from jamreel.workshop import stock as racks
from jamreel.workshop.accounts import outbox_of
from jamreel.workshop.board import (
    MOST_ON_BOARD,
    Fetch,
    Group,
    Lane,
    Outstanding,
    cost_of,
    fits_need,
    lay_out,
    short_of,
    to_fetch,
    unpriced,
)
from jamreel.workshop.csv_text import write_rows
from jamreel.workshop.models import Piece, Workshop
from jamreel.workshop.ownership import row, rows
from jamreel.workshop.papers.bench_strip import Paper, paper_of, strip_of
from jamreel.workshop.pieces import refresh
from jamreel.workshop.planning import refuse, shop_of

router = Router(tags=["board"])
FONTS = Path(racks.__file__).parent / "papers" / "fonts"


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
    first_fit_scrap_mm: float
    saved_mm: float
    saved_lengths: int
    saved: float | None
    cost: float | None
    opened: int
    first_fit_opened: int
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
    """The cut board of some pieces, and what they take beside wire.

    Of all pieces that are to be cut, so many are ``left_out``: too many for one board.
    """

    groups: list[GroupView]
    fetch: list[FetchView]
    fetch_cost: float
    unpriced: list[str]
    currency: str
    short: list[ShortView]
    pieces: list[str]
    left_out: int


class Printed(Schema):
    """Labels that were printed, by the name of their picture."""

    labels: list[str]


# What working out pieces anew may take before a board is laid out [s].
WORK_OUT_S = 1.5


def _chosen(request: HttpRequest, pieces: str) -> tuple[Workshop, list[Piece], int]:
    """Return the bench, the pieces of a list of numbers, each once, and how many are left out.

    Every piece to be cut, the soonest due first, where the list is empty.

    Raises:
        BriefRefused: a list that is none, or of more pieces than one board has.
    """
    workshop = bench_of(request)
    wanted = list(dict.fromkeys(part.strip() for part in pieces.split(",") if part.strip()))
    if not wanted:
        refresh(workshop, WORK_OUT_S)
        standing = rows(Piece, workshop).filter(put_away_at__isnull=True, finished_at__isnull=True)
        found = list(standing.filter(waits_for="cut").order_by(F("due").asc(nulls_last=True), "pk"))
        return workshop, found[:MOST_ON_BOARD], max(0, len(found) - MOST_ON_BOARD)
    wrong = [part for part in wanted if not _ROW.fullmatch(part)]
    if wrong:
        refuse(workshop, Refusal("piece_list", got=wrong[0], field="pieces"))
    if len(wanted) > MOST_ON_BOARD:
        many = Refusal("board_full", got=len(wanted), field="pieces", most=MOST_ON_BOARD)
        refuse(workshop, many)
    return workshop, [row(Piece, workshop, int(part)) for part in wanted], 0


_ROW = re.compile("[0-9]{1,18}")


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
        first_fit_scrap_mm=found.first_fit_scrap,
        saved_mm=group.saved_mm,
        saved_lengths=group.saved_lengths,
        saved=group.saved,
        cost=group.cost,
        opened=found.opened,
        first_fit_opened=found.first_fit_opened,
        buy_count=group.buy_count,
        buy_each_mm=group.buy_each_mm,
        mass_g=group.mass_g,
        scrap_g=group.scrap_g,
    )


@router.get("/board", response={200: BoardView, **EVERY_ERROR})
def board(request: HttpRequest, pieces: str = "") -> BoardView:
    """Return what is to be cut for some pieces, laid out on the rack."""
    workshop, chosen, left_out = _chosen(request, pieces)
    fetch = to_fetch(workshop, chosen)
    have = racks.amounts(workshop)
    groups = lay_out(workshop, chosen)
    return BoardView(
        groups=[_group_view(g) for g in groups],
        unpriced=unpriced(groups, fetch),
        currency=shop_of(workshop).pricing.currency,
        fetch=[_fetch_view(one, have) for one in fetch],
        fetch_cost=cost_of(fetch),
        short=[ShortView.model_validate(vars(one)) for one in short_of(workshop, fetch)],
        pieces=[p.name for p in chosen],
        left_out=left_out,
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
    workshop, chosen, _ = _chosen(request, pieces)
    lines: list[list[object]] = []
    for group in lay_out(workshop, chosen):
        if group.buy_count:
            each, price = group.buy_each_mm, group.price_per_m
            whole = None if price is None else f"{price * each * group.buy_count / 1000:.2f}"
            lines.append([group.label, group.buy_count, f"{each:g}", price, whole])
    for short in short_of(workshop, to_fetch(workshop, chosen)):
        lines.append([f"{short.label}, {short.size}", short.count, None, None, None])
    header = ["what", "how many", "each [mm]", "price a metre", "price"]
    response = HttpResponse(write_rows(header, lines), content_type="text/csv; charset=utf-8")
    response["Content-Disposition"] = 'attachment; filename="buy.csv"'
    return response


@router.get("/board/strip.pdf", response={200: Any, **EVERY_ERROR})
def board_strip(request: HttpRequest, pieces: str = "", paper: Paper | None = None) -> HttpResponse:
    """Return the bench strips of all cuts of some pieces as one PDF at 1:1."""
    workshop, chosen, _ = _chosen(request, pieces)
    cuts = [
        (one.piece.name, one.cut)
        for group in lay_out(workshop, chosen)
        for one in {(o.piece.pk, o.cut.alike): o for ln in group.lanes for o in ln.cuts}.values()
    ]
    shop = shop_of(workshop)
    body = strip_of(cuts, say("paper.batch"), paper or paper_of(shop), shop)
    response = HttpResponse(body, content_type="application/pdf")
    response["Content-Disposition"] = 'inline; filename="bench-strips.pdf"'
    return response


@router.post("/board/labels", response={200: Printed, **EVERY_ERROR})
def labels(request: HttpRequest, pieces: str = "") -> Printed:
    """Print a label for each bundle of cuts on the label printer."""
    workshop, chosen, _ = _chosen(request, pieces)
    shop = shop_of(workshop)
    printer = LabelPrinter(
        outbox_of(workshop), FONTS / "SchibstedGrotesk-Bold.ttf", FONTS / "SometypeMono-Medium.ttf"
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
