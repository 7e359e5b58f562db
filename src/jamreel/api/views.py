"""What the API hands out of pieces and wearers, made from rows."""

from datetime import date, datetime
from typing import Annotated, Any, Literal

from ninja import Schema

from jamreel.api.texts import BriefTyped, MeasureTyped, TryOnTyped, meant_as
from jamreel.core.plan import Plan
from jamreel.core.result import Figure
from jamreel.core.shop import Shop
from jamreel.core.words import Problem
from jamreel.core.workpiece.records import Standing
from jamreel.workshop.models import Piece, Tick, Wearer
from jamreel.workshop.pieces import can_move, plan_before, shown, sites_of
from jamreel.workshop.planning import Planned, standing_ticks
from jamreel.workshop.wearers import measures_of


class WearerLine(Schema):
    """A wearer's name and part."""

    id: int
    name: str
    part: str
    is_child: bool


class StationView(Schema):
    """A station's state and the words under its name."""

    state: Literal["settled", "needs", "stale", "waiting"]
    says: str


class TickView(Schema):
    """A standing tick; planned and actual are lengths [mm] of a wire, counts of what is fetched."""

    kind: str
    key: str
    planned: float | None
    actual: float | None
    ticked_at: datetime


class TryOnView(Schema):
    """A try-on on record."""

    id: int
    noted: TryOnTyped
    answer: Annotated[dict[str, Any], meant_as("PuttingRight")]
    done: bool
    noted_at: datetime


class PieceView(Schema):
    """A piece in full: its brief as typed, its plan or problems, and where it stands.

    Where what is typed gives no plan, ``before`` is the last one that there was: to be looked at,
    not to be worked by. ``noting`` is a try-on that was being noted when pieces still kept it.

    Where a brief that was kept once is not ``readable``, the problems say why, and it is shown
    without what can't be read.
    """

    id: int
    name: str
    wearer: WearerLine | None
    wearer_measures: dict[str, MeasureTyped]
    due: date | None
    version: int
    brief: BriefTyped
    readable: bool
    sites: list[str]
    helps: list[str]
    plan: Plan | None
    before: Plan | None
    problems: list[Problem]
    noting: dict[str, Any]
    stations: dict[str, StationView]
    waits_for: str
    answer_now: Figure | None
    can_undo: bool
    can_redo: bool
    ticks: list[TickView]
    tryons: list[TryOnView]
    standing: Standing
    finished_at: datetime | None


class ReadingView(Schema):
    """A kept reading, as typed."""

    site: str
    unit: str
    typed: dict[str, str]
    replaced: bool


def wearer_line(wearer: Wearer | None) -> WearerLine | None:
    """Return a wearer's line, or None."""
    if wearer is None:
        return None
    return WearerLine(id=wearer.pk, name=wearer.name, part=wearer.part, is_child=wearer.is_child)


def piece_view(piece: Piece, planned: Planned, shop: Shop) -> PieceView:
    """Return a piece in full."""
    brief = shown(piece, planned)
    unit = brief.get("unit") or shop.unit
    sites, helps = sites_of(brief, shop)
    can_undo, can_redo = can_move(piece)
    return PieceView(
        id=piece.pk,
        name=piece.name,
        wearer=wearer_line(piece.wearer),
        wearer_measures=measures_of(piece.wearer, unit) if piece.wearer else {},
        due=piece.due,
        version=piece.version,
        brief=brief,
        readable=planned.sound,
        sites=list(sites),
        helps=list(helps),
        plan=planned.plan,
        before=plan_before(piece, planned, shop),
        problems=list(planned.problems),
        noting=_noting(piece),
        stations=piece.state.get("stations", {}),
        waits_for=piece.waits_for,
        answer_now=piece.state.get("answer"),
        can_undo=can_undo,
        can_redo=can_redo,
        ticks=[_tick_view(t) for t in standing_ticks(piece)],
        tryons=[
            TryOnView(id=r.pk, noted=r.noted, answer=r.answer, done=r.done, noted_at=r.noted_at)
            for r in piece.tryons.all()
        ],
        standing=planned.standing,
        finished_at=piece.finished_at,
    )


def _noting(piece: Piece) -> dict[str, Any]:
    brief = piece.head.brief if piece.head else None
    kept = brief.get("tryon") if isinstance(brief, dict) else None
    return kept if isinstance(kept, dict) else {}


def _tick_view(tick: Tick) -> TickView:
    return TickView(
        kind=tick.kind,
        key=tick.key,
        planned=tick.planned,
        actual=tick.actual,
        ticked_at=tick.ticked_at,
    )


def readings_of(wearer: Wearer) -> list[ReadingView]:
    """Return all of a wearer's readings, newest first, replaced ones too."""
    return [
        ReadingView(
            site=r.site, unit=r.unit, typed={"value": r.value, **r.beside}, replaced=r.replaced
        )
        for r in reversed(wearer.readings.all())
    ]
