"""Pieces: start, save, undo, tick, try on, print."""

from datetime import date
from typing import Any, Literal

from django.http import Http404, HttpRequest, HttpResponse
from ninja import Router, Schema, Status
from pydantic import Field

from jamreel.api.auth import bench_of
from jamreel.api.errors import EVERY_ERROR, Stale
from jamreel.api.texts import BriefTyped, Line, RowId, TryOnTyped, Typed
from jamreel.api.throttles import CLOSE_BY_BENCH
from jamreel.api.views import PieceView, piece_view
from jamreel.core.draft import unsound
from jamreel.core.fit.tryon import PuttingRight
from jamreel.core.plan import BriefRefused, Plan, in_words, propose_raw
from jamreel.core.result import Proposal, WovenBody
from jamreel.core.shop import Shop
from jamreel.core.units import Unit
from jamreel.core.words import Problem
from jamreel.core.workpiece.stages import WireShown, shown
from jamreel.core.workpiece.woven import (
    GoesSoFar,
    WovenShown,
    goes_so_far,
    kept_for,
    sample_of,
    sampled_sum,
    shown_woven,
)
from jamreel.workshop import finishing, making, pieces
from jamreel.workshop.close_views import pulls_for
from jamreel.workshop.models import Piece, Wearer
from jamreel.workshop.ownership import row
from jamreel.workshop.papers.bench_strip import Paper, bench_strip, paper_of
from jamreel.workshop.papers.board import board_paper, has_board
from jamreel.workshop.papers.former_files import FORMER_TYPES, former_dxf, former_svg
from jamreel.workshop.papers.making_card import making_card
from jamreel.workshop.papers.outline import former_paper, outline, outline_strokes
from jamreel.workshop.planning import Planned, brief_for_planning, plan_of, shop_of
from jamreel.workshop.resolving import resolve
from jamreel.workshop.trials import keep_sample
from jamreel.workshop.turns import whole_piece
from jamreel.workshop.wearers import measures_of

router = Router(tags=["pieces"])
PIECE: dict[int, Any] = {200: PieceView, **EVERY_ERROR}
PIECE_OR_STALE: dict[int, Any] = {**PIECE, 409: Stale}


class NewPiece(Schema):
    """A piece to start; the wearer's standing readings go in where the brief has none."""

    name: Line = Field(min_length=1, max_length=120)
    brief: BriefTyped
    wearer_id: RowId | None = None
    due: date | None = None


class Card(Schema):
    """What a piece is called, for whom, and by when."""

    name: Line = Field(min_length=1, max_length=120)
    wearer_id: RowId | None = None
    due: date | None = None


class Save(Schema):
    """A brief as typed, and the version it was made from."""

    version: int = Field(strict=True, ge=1, le=2**31)
    brief: BriefTyped


class At(Schema):
    """The version that a move is made from."""

    version: int = Field(strict=True, ge=1, le=2**31)


class TryOnIn(Schema):
    """A try-on as noted, by what was asked."""

    noted: TryOnTyped


class TryOnAnswer(Schema):
    """What to do about a try-on, or what is wrong with what was noted of it."""

    answer: PuttingRight | None
    problems: list[Problem]


class TickIn(Schema):
    """A cut, a step, or beads or findings to fetch: to tick, or to untick.

    A length far from the planned one is asked about, and taken when its maker is ``sure``.
    """

    kind: Literal["cut", "step", "need"]
    key: Typed = Field(min_length=1, max_length=140)
    actual: Typed = Field(default="", max_length=40)
    ticked: bool = True
    stock_id: RowId | None = None
    scrap_rest: bool = Field(default=False, strict=True)
    sure: bool = Field(default=False, strict=True)


class Settle(Schema):
    """What becomes of a wire that was cut, or of beads that were fetched."""

    key: Typed = Field(min_length=1, max_length=140)
    way: Literal["trim", "keep", "offcut", "serve", "put_back"]
    to: Typed = Field(default="", max_length=140)


# So many wires are drawn in one answer: of one entry there are a few.
MOST_WIRES = 12


class Wires(Schema):
    """Wires of a piece through all their steps."""

    wires: list[WireShown]


class Bodies(Schema):
    """Woven bodies in space."""

    bodies: list[WovenShown]


class SampleIn(Schema):
    """The entry of a woven body, and whether its sample is kept for such wire or forgotten."""

    entry: Typed = Field(default="", max_length=40)
    kept: bool = Field(default=True, strict=True)


class Finish(Schema):
    """Whether the piece is finished."""

    finished: bool


def _full(
    request: HttpRequest, piece: Piece, planned: Planned | None = None, status: int = 200
) -> HttpResponse:
    """Return a piece in full, as a `PieceView` already written out.

    ninja would check and convert the whole plan once more, which a keystroke has no time for; that
    the answer is as declared is what tests/api/test_contract.py checks.
    """
    planned = planned or pieces.bring_up_to_date(piece)
    view = piece_view(piece, planned, shop_of(bench_of(request)))
    return HttpResponse(
        view.model_dump_json(by_alias=True), status=status, content_type="application/json"
    )


@router.post("/pieces", response={201: PieceView, **EVERY_ERROR}, by_alias=True)
def start(request: HttpRequest, payload: NewPiece) -> HttpResponse:
    """Start a piece."""
    workshop = bench_of(request)
    wearer = row(Wearer, workshop, payload.wearer_id) if payload.wearer_id else None
    brief = payload.brief
    unit: Unit = "in" if (brief.get("unit") or shop_of(workshop).unit) == "in" else "mm"
    typed = brief.get("measures", {})
    # Measures that are none are refused below, by name.
    if wearer is not None and isinstance(typed, dict):
        brief = {**brief, "measures": {**measures_of(wearer, unit), **typed}}
    piece = pieces.start_piece(workshop, payload.name, brief, wearer, payload.due)
    return _full(request, piece, status=201)


@router.get("/pieces/{int:piece_id}", response=PIECE, by_alias=True)
def read(request: HttpRequest, piece_id: int) -> HttpResponse:
    """Return a piece in full."""
    return _full(request, whole_piece(bench_of(request), piece_id))


@router.put("/pieces/{int:piece_id}/brief", response=PIECE_OR_STALE, by_alias=True)
def save(request: HttpRequest, piece_id: int, payload: Save) -> HttpResponse:
    """Save a brief as typed, whether or not it gives a plan yet."""
    workshop = bench_of(request)
    piece, planned = pieces.save_brief(workshop, piece_id, payload.version, payload.brief)
    return _full(request, piece, planned)


@router.post("/pieces/{int:piece_id}/undo", response=PIECE_OR_STALE, by_alias=True)
def undo(request: HttpRequest, piece_id: int, payload: At) -> HttpResponse:
    """Step back."""
    piece, planned = pieces.undo(bench_of(request), piece_id, payload.version)
    return _full(request, piece, planned)


@router.post("/pieces/{int:piece_id}/redo", response=PIECE_OR_STALE, by_alias=True)
def redo(request: HttpRequest, piece_id: int, payload: At) -> HttpResponse:
    """Step forward."""
    piece, planned = pieces.redo(bench_of(request), piece_id, payload.version)
    return _full(request, piece, planned)


@router.put("/pieces/{int:piece_id}/card", response=PIECE, by_alias=True)
def card(request: HttpRequest, piece_id: int, payload: Card) -> HttpResponse:
    """Change a piece's name, wearer or date."""
    workshop = bench_of(request)
    piece, planned = pieces.change_card(
        workshop, piece_id, payload.name, payload.wearer_id, payload.due
    )
    return _full(request, piece, planned)


@router.post("/pieces/{int:piece_id}/ticks", response=PIECE, by_alias=True)
def tick(request: HttpRequest, piece_id: int, payload: TickIn) -> HttpResponse:
    """Tick a cut, a step or a fetched need off, or take the tick back."""
    workshop = bench_of(request)
    if payload.ticked:
        making.tick(
            workshop,
            piece_id,
            payload.kind,
            payload.key,
            payload.actual,
            payload.stock_id,
            scrap_rest=payload.scrap_rest,
            sure=payload.sure,
        )
    else:
        making.untick(workshop, piece_id, payload.kind, payload.key)
    return _full(request, whole_piece(workshop, piece_id))


@router.post("/pieces/{int:piece_id}/settle", response=PIECE, by_alias=True)
def settle(request: HttpRequest, piece_id: int, payload: Settle) -> HttpResponse:
    """Settle a wire that was cut, or beads that were fetched, with the plan of now."""
    workshop = bench_of(request)
    resolve(workshop, piece_id, payload.key, payload.way, payload.to)
    return _full(request, whole_piece(workshop, piece_id))


@router.post("/pieces/{int:piece_id}/tryons/answer", response={200: TryOnAnswer, **EVERY_ERROR})
def answer_try_on(request: HttpRequest, piece_id: int, payload: TryOnIn) -> TryOnAnswer:
    """Return what a try-on as it is being noted is answered; nothing is kept."""
    workshop = bench_of(request)
    try:
        found = making.judge(whole_piece(workshop, piece_id), payload.noted, shop_of(workshop))
    except BriefRefused as refused:
        return TryOnAnswer(answer=None, problems=list(refused.problems))
    except making.NothingToTick:
        return TryOnAnswer(answer=None, problems=[])
    return TryOnAnswer(answer=found, problems=[])


@router.post("/pieces/{int:piece_id}/tryons", response=PIECE, by_alias=True)
def try_on(request: HttpRequest, piece_id: int, payload: TryOnIn) -> HttpResponse:
    """Keep a try-on as noted, with its answer."""
    making.record_tryon(bench_of(request), piece_id, payload.noted)
    return _full(request, whole_piece(bench_of(request), piece_id))


@router.post("/pieces/{int:piece_id}/tryons/{int:tryon_id}/done", response=PIECE, by_alias=True)
def put_right(request: HttpRequest, piece_id: int, tryon_id: int) -> HttpResponse:
    """Say that what a try-on asked for is done."""
    making.mark_put_right(bench_of(request), piece_id, tryon_id)
    return _full(request, whole_piece(bench_of(request), piece_id))


@router.post("/pieces/{int:piece_id}/finish", response=PIECE, by_alias=True)
def finish(request: HttpRequest, piece_id: int, payload: Finish) -> HttpResponse:
    """Close a piece as done, or open it again."""
    finishing.finish(bench_of(request), piece_id, finished=payload.finished)
    return _full(request, whole_piece(bench_of(request), piece_id))


class Proposals(Schema):
    """Ways to bring a make-up to its length, the best first."""

    proposals: list[Proposal]


@router.get("/pieces/{int:piece_id}/proposals", response={200: Proposals, **EVERY_ERROR})
def proposals(request: HttpRequest, piece_id: int) -> Proposals:
    """Return what would fit better; none while the brief gives no plan."""
    workshop = bench_of(request)
    piece = row(Piece, workshop, piece_id)
    try:
        brief, shop = brief_for_planning(piece), shop_of(workshop)
        found = () if unsound(brief, shop) else propose_raw(brief, shop)
    except BriefRefused:
        found = ()
    return Proposals(proposals=list(found))


@router.get("/pieces/{int:piece_id}/card.pdf", response={200: Any, **EVERY_ERROR})
def making_card_pdf(request: HttpRequest, piece_id: int, paper: Paper | None = None) -> Any:
    """Return the making card as PDF, one page."""
    piece, plan, shop = _planned_on(request, piece_id)
    whom = piece.wearer.name if piece.wearer else ""
    return _paper(
        making_card(plan, piece.name, whom, paper or paper_of(shop), shop),
        f"making-card-{piece.pk}",
    )


@router.get("/pieces/{int:piece_id}/strip.pdf", response={200: Any, **EVERY_ERROR})
def strip(request: HttpRequest, piece_id: int, paper: Paper | None = None) -> Any:
    """Return the bench strip as PDF at 1:1."""
    piece, plan, shop = _planned_on(request, piece_id)
    return _paper(
        bench_strip(plan, piece.name, paper or paper_of(shop), shop), f"bench-strip-{piece.pk}"
    )


@router.get("/pieces/{int:piece_id}/outline.pdf", response={200: Any, **EVERY_ERROR})
def outline_pdf(request: HttpRequest, piece_id: int, paper: Paper | None = None) -> Any:
    """Return the outline of a piece that is shaped as PDF at 1:1; 404 for one that is not."""
    piece, plan, shop = _planned_on(request, piece_id)
    if not outline_strokes(plan):
        raise Http404
    return _paper(outline(plan, piece.name, paper or paper_of(shop), shop), f"outline-{piece.pk}")


@router.get("/pieces/{int:piece_id}/board.pdf", response={200: Any, **EVERY_ERROR})
def board_pdf(request: HttpRequest, piece_id: int, paper: Paper | None = None) -> Any:
    """Return the board of a woven or bound piece as PDF at 1:1; 404 for one that has none."""
    piece, plan, shop = _planned_on(request, piece_id)
    if not any(map(has_board, plan.woven)):
        raise Http404
    return _paper(board_paper(plan, piece.name, paper or paper_of(shop), shop), f"board-{piece.pk}")


@router.get("/pieces/{int:piece_id}/former.{form}", response={200: Any, **EVERY_ERROR})
def former_file(
    request: HttpRequest,
    piece_id: int,
    form: Literal["pdf", "svg", "dxf"],
    paper: Paper | None = None,
) -> Any:
    """Return the oval former of a rigid piece at 1:1, to print or to cut; 404 for one without."""
    piece, plan, shop = _planned_on(request, piece_id)
    if plan.oval is None:
        raise Http404
    name = f"former-{piece.pk}"
    if form == "pdf":
        return _paper(former_paper(plan, piece.name, paper or paper_of(shop), shop), name)
    body = former_svg(plan.oval, shop) if form == "svg" else former_dxf(plan.oval)
    response = HttpResponse(body, content_type=FORMER_TYPES[form])
    response["Content-Disposition"] = f'attachment; filename="{name}.{form}"'
    return response


@router.get("/pieces/{int:piece_id}/wires", response={200: Wires, **EVERY_ERROR})
def wires(request: HttpRequest, piece_id: int, entry: Typed = "") -> Wires:
    """Return the wires of one entry as they are after every step; without one, what the steps of
    the whole piece shape."""
    _, plan, shop = _planned_on(request, piece_id)
    found = [one for one in plan.worked if one.is_for(entry)]
    return Wires(wires=in_words(lambda: [shown(one, plan) for one in found[:MOST_WIRES]], shop))


@router.get(
    "/pieces/{int:piece_id}/woven", response={200: Bodies, **EVERY_ERROR}, throttle=[CLOSE_BY_BENCH]
)
def woven(request: HttpRequest, piece_id: int, entry: Typed = "") -> Bodies:
    """Return the woven bodies of one entry in space, strand by strand; without one, the first that
    the piece has. What is still being pulled tight is not ``settled``: ask again."""
    _, plan, shop = _planned_on(request, piece_id)
    pulls = pulls_for(bench_of(request))
    found = in_words(lambda: [shown_woven(one, pulls) for one in _bodies(plan, entry)], shop)
    return Bodies(bodies=found)


@router.get("/pieces/{int:piece_id}/woven/goes", response={200: GoesSoFar, **EVERY_ERROR})
def woven_goes(
    request: HttpRequest, piece_id: int, wire: Typed = "", entry: Typed = ""
) -> GoesSoFar:
    """Return how far a length of working wire goes in a woven body, and where the next one
    joins."""
    _, plan, shop = _planned_on(request, piece_id)
    bodies = _bodies(plan, entry)
    if not bodies:
        raise Http404
    return in_words(lambda: goes_so_far(bodies[0], wire, shop.unit), shop)


@router.post("/pieces/{int:piece_id}/woven/sample", response={204: None, **EVERY_ERROR})
def woven_sample(request: HttpRequest, piece_id: int, payload: SampleIn) -> Status[None]:
    """Keep the sample of a woven body for all such wire of the bench, or forget what is kept."""
    workshop = bench_of(request)
    _, plan, shop = _planned_on(request, piece_id)
    bodies = _bodies(plan, payload.entry)
    if not bodies:
        raise Http404
    sample = in_words(lambda: (sample_of if payload.kept else kept_for)(bodies[0]), shop)
    by_sum = sampled_sum(bodies[0]) if payload.kept else 0.0
    keep_sample(workshop, sample, kept=payload.kept, by_sum=by_sum)
    return Status(204, None)


def _bodies(plan: Plan, entry: str) -> list[WovenBody]:
    """Return what is woven of an entry, or of the piece; graded ones are alike."""
    found = [one for one in plan.woven if one.entry.partition("~")[0] == entry or not entry]
    return found[:1]


def _planned_on(request: HttpRequest, piece_id: int) -> tuple[Piece, Plan, Shop]:
    """Return a piece with its plan, and the settings of its bench.

    Raises:
        BriefRefused: a piece whose brief gives no plan yet.
    """
    workshop = bench_of(request)
    piece, shop = row(Piece, workshop, piece_id), shop_of(workshop)
    planned = plan_of(piece, shop)
    if planned.plan is None:
        raise BriefRefused(planned.problems)
    return piece, planned.plan, shop


def _paper(body: bytes, name: str) -> HttpResponse:
    response = HttpResponse(body, content_type="application/pdf")
    response["Content-Disposition"] = f'inline; filename="{name}.pdf"'
    return response
