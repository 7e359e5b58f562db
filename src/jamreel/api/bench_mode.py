"""Bench mode: a piece step by step, the waits that run, what is in hand."""

from collections.abc import Sequence
from datetime import datetime
from typing import Any

from django.http import HttpRequest
from ninja import Router, Schema, Status
from pydantic import Field

from jamreel.api.auth import bench_of
from jamreel.api.errors import EVERY_ERROR
from jamreel.api.texts import Typed
from jamreel.core.bench.steps import Caution, Step
from jamreel.core.path.moves import MarkAt
from jamreel.core.result import GoneOn, Way
from jamreel.core.workpiece.questions import OneFigure, Question, figure_at
from jamreel.devices.calliper import Calliper
from jamreel.workshop import at_bench, clock, on_the_way
from jamreel.workshop.making import NothingToTick
from jamreel.workshop.models import Stock, Wait, Workshop
from jamreel.workshop.planning import shop_of

router = Router(tags=["bench mode"])


class MayServe(Schema):
    """Something on the rack that a wire may be cut from, and how much of it there is [mm]."""

    id: int
    name: str
    amount_mm: float


class WireToCut(Schema):
    """A wire that is still to be cut at a step: the key of its tick, what it is, and what on the
    rack it may be cut from, what wastes least first."""

    key: str
    label: str
    wire: str
    metal: str
    colour: str
    length_mm: float
    marks: list[MarkAt]
    may_serve: list[MayServe]


class StepAtBench(Schema):
    """A step in bench mode: its one number, its clock [s], its repeats, what is asked of it and
    what was told."""

    step: Step
    figure: OneFigure | None
    done: bool
    seconds: float
    running: bool
    counted: int
    asks: list[Question]
    told: dict[str, float]
    cuts: list[WireToCut]
    cautions: list[Caution]


class WaitView(Schema):
    """A piece that is left alone: after which step, since when and until when."""

    id: int
    piece_id: int
    piece: str
    key: str
    title: str
    began_at: datetime
    ends_at: datetime


class InHand(Schema):
    """A piece in hand."""

    id: int
    name: str


class AtBenchView(Schema):
    """A piece in bench mode, with all waits that run, and what else is in hand; ``ways`` are the
    entries that can be told how far they are, ``now`` is what the server's clock says."""

    id: int
    name: str
    wearer: str
    version: int
    finished: bool
    at: str
    steps: list[StepAtBench]
    ways: list[Way]
    waits: list[WaitView]
    in_hand: list[InHand]
    now: datetime


class Waits(Schema):
    """All waits that run on a bench, and what is in hand."""

    waits: list[WaitView]
    in_hand: list[InHand]
    now: datetime


class AtStep(Schema):
    """One step of a piece."""

    key: Typed = Field(min_length=1, max_length=140)


class Counted(AtStep):
    """How many repeats of a step are done."""

    counted: int = Field(strict=True, ge=0, le=100_000)


class ToldIn(AtStep):
    """What a maker tells of a step, as typed, by what is asked."""

    told: dict[str, Typed] = Field(max_length=8)


class SoFarIn(Schema):
    """What a maker tells on the way, as typed: of which entry so many are made, over so long, what
    is left of the wire in hand, and what happened."""

    entry: Typed = Field(min_length=1, max_length=16)
    count: Typed = ""
    over: Typed
    left: Typed = ""
    happened: Typed = "going_on"
    in_all: Typed = ""


class SoFarKept(SoFarIn):
    """What is told on the way, to be planned on from: of the piece at this version."""

    version: int


class WiresView(Schema):
    """Wires of one cut: what it is called, its length, how many."""

    label: str
    length_mm: float
    count: int


class MoreToBuy(Schema):
    """What is to be bought more of: what, in which size, how many."""

    label: str
    size: str
    count: int


class OnTheWayView(Schema):
    """What follows from what is made so far: in words, the wires that serve as they were cut, those
    still to be cut, and what is to be bought more."""

    gone: GoneOn
    serves: list[WiresView]
    to_cut: list[WiresView]
    to_buy: list[MoreToBuy]


class ReadingAt(Schema):
    """What the calliper sent."""

    text: str


VIEW: dict[int, Any] = {200: AtBenchView, **EVERY_ERROR}


def _view(workshop: Workshop, piece_id: int) -> AtBenchView:
    found = at_bench.at_bench(workshop, piece_id)
    plan = found.planned.plan
    cautions = {one.id: one for one in plan.cautions} if plan else {}
    piece = found.piece
    wanted = {cut.stock for one in found.steps for _, cut in one.cuts}
    rack = at_bench.may_serve(workshop, wanted)
    return AtBenchView(
        id=piece.pk,
        name=piece.name,
        wearer=piece.wearer.name if piece.wearer else "",
        version=piece.version,
        finished=piece.finished_at is not None,
        at=found.at,
        steps=[_step(one, cautions, rack) for one in found.steps],
        ways=list(plan.ways) if plan else [],
        **_beside(workshop),
    )


def _step(
    doing: at_bench.Doing, cautions: dict[str, Caution], rack: Sequence[tuple[Stock, float]]
) -> StepAtBench:
    return StepAtBench(
        step=doing.step,
        figure=figure_at(doing.step),
        done=doing.done,
        seconds=doing.seconds,
        running=doing.running,
        counted=doing.counted,
        asks=list(doing.asks),
        told=doing.told,
        cuts=[
            WireToCut(
                key=key,
                label=cut.label,
                wire=cut.wire,
                metal=cut.metal,
                colour=cut.colour,
                length_mm=cut.length_mm,
                marks=list(cut.marks),
                may_serve=[
                    MayServe(id=stock.pk, name=stock.name, amount_mm=amount)
                    for stock, amount in rack
                    if stock.key == cut.stock and amount >= cut.length_mm
                ],
            )
            for key, cut in doing.cuts
        ],
        cautions=[cautions[key] for key in doing.step.cautions if key in cautions],
    )


def _beside(workshop: Workshop) -> dict[str, Any]:
    return {
        "waits": [_wait(one) for one in at_bench.waits_of(workshop)],
        "in_hand": [InHand(id=one.pk, name=one.name) for one in at_bench.in_hand(workshop)],
        "now": clock.now(),
    }


def _wait(one: Wait) -> WaitView:
    return WaitView(
        id=one.pk,
        piece_id=one.piece_id,
        piece=one.piece.name,
        key=one.key,
        title=one.title,
        began_at=one.began_at,
        ends_at=one.ends_at,
    )


@router.get("/pieces/{int:piece_id}/bench", response=VIEW, by_alias=True)
def read(request: HttpRequest, piece_id: int) -> AtBenchView:
    """Return a piece as bench mode shows it."""
    return _view(bench_of(request), piece_id)


@router.post("/pieces/{int:piece_id}/bench/go", response=VIEW, by_alias=True)
def go(request: HttpRequest, piece_id: int, payload: AtStep) -> AtBenchView:
    """Take a piece in hand at a step: its clock runs, all others stand still."""
    workshop = bench_of(request)
    at_bench.go_to(workshop, piece_id, payload.key)
    return _view(workshop, piece_id)


@router.post("/pieces/{int:piece_id}/bench/done", response=VIEW, by_alias=True)
def done(request: HttpRequest, piece_id: int, payload: AtStep) -> AtBenchView:
    """Tick a step off, start its wait, and go on."""
    workshop = bench_of(request)
    at_bench.done(workshop, piece_id, payload.key)
    return _view(workshop, piece_id)


@router.post("/pieces/{int:piece_id}/bench/undone", response=VIEW, by_alias=True)
def undone(request: HttpRequest, piece_id: int, payload: AtStep) -> AtBenchView:
    """Take a step back that was ticked off, and its wait."""
    workshop = bench_of(request)
    at_bench.undone(workshop, piece_id, payload.key)
    return _view(workshop, piece_id)


@router.post("/pieces/{int:piece_id}/bench/count", response=VIEW, by_alias=True)
def count(request: HttpRequest, piece_id: int, payload: Counted) -> AtBenchView:
    """Keep how many repeats of a step are done."""
    workshop = bench_of(request)
    at_bench.count(workshop, piece_id, payload.key, payload.counted)
    return _view(workshop, piece_id)


@router.post("/pieces/{int:piece_id}/bench/tell", response=VIEW, by_alias=True)
def tell(request: HttpRequest, piece_id: int, payload: ToldIn) -> AtBenchView:
    """Keep what a maker tells of a step."""
    workshop = bench_of(request)
    at_bench.tell(workshop, piece_id, payload.key, payload.told)
    return _view(workshop, piece_id)


@router.post(
    "/pieces/{int:piece_id}/bench/so-far",
    response={200: OnTheWayView, **EVERY_ERROR},
    by_alias=True,
)
def what_follows(request: HttpRequest, piece_id: int, payload: SoFarIn) -> OnTheWayView:
    """Return what follows from what is made so far of a piece; nothing is kept."""
    found = on_the_way.what_follows(bench_of(request), piece_id, payload.dict())
    return OnTheWayView(
        gone=found.gone,
        serves=[WiresView(**vars(one)) for one in found.serves],
        to_cut=[WiresView(**vars(one)) for one in found.to_cut],
        to_buy=[
            MoreToBuy(label=need.label, size=need.size, count=count) for need, count in found.to_buy
        ],
    )


@router.put("/pieces/{int:piece_id}/bench/so-far", response=VIEW, by_alias=True)
def plan_on(request: HttpRequest, piece_id: int, payload: SoFarKept) -> AtBenchView:
    """Keep what is made so far, and plan the rest from there."""
    workshop = bench_of(request)
    told = payload.dict(exclude={"version"})
    on_the_way.plan_on(workshop, piece_id, payload.version, told)
    return _view(workshop, piece_id)


@router.post("/pieces/{int:piece_id}/bench/lay-down", response={204: None, **EVERY_ERROR})
def lay_down(request: HttpRequest, piece_id: int) -> Status[None]:
    """Leave bench mode: the piece is in hand no more."""
    at_bench.lay_down(bench_of(request), piece_id)
    return Status(204, None)


@router.post("/bench/pause", response={204: None, **EVERY_ERROR})
def pause(request: HttpRequest) -> Status[None]:
    """Stand all clocks of steps still."""
    at_bench.pause(bench_of(request))
    return Status(204, None)


@router.get("/bench/waits", response={200: Waits, **EVERY_ERROR})
def waits(request: HttpRequest) -> Waits:
    """Return the waits that run, and what is in hand."""
    return Waits(**_beside(bench_of(request)))


@router.post("/bench/waits/{int:wait_id}/end", response={200: Waits, **EVERY_ERROR})
def end_wait(request: HttpRequest, wait_id: int) -> Waits:
    """Go on after a wait."""
    workshop = bench_of(request)
    at_bench.end_wait(workshop, wait_id)
    return Waits(**_beside(workshop))


@router.get("/pieces/{int:piece_id}/bench/calliper", response={200: ReadingAt, **EVERY_ERROR})
def calliper(request: HttpRequest, piece_id: int, key: Typed, what: Typed) -> ReadingAt:
    """Return what the calliper reads on what is asked at a step, about as it was planned."""
    workshop = bench_of(request)
    found = at_bench.at_bench(workshop, piece_id)
    doing = next((one for one in found.steps if one.step.id == key), None)
    figures = {a.id: a.expected for a in doing.asks if not a.count} if doing else {}
    if doing and doing.cuts and what == "cut":
        figures["cut"] = doing.cuts[0][1].length_mm
    expected = figures.get(what)
    if expected is None:
        raise NothingToTick
    unit = shop_of(workshop).unit
    return ReadingAt(text=Calliper(f"{piece_id}/{key}/{what}", unit=unit).reads(expected))
