"""The bench: pieces by what they wait for, and planning without keeping."""

from datetime import date, timedelta

from django.db.models import Q
from django.http import HttpRequest
from ninja import Router, Schema, Status

from jamreel.api.auth import bench_of
from jamreel.api.errors import EVERY_ERROR
from jamreel.api.texts import BriefTyped
from jamreel.api.views import StationView, WearerLine, wearer_line
from jamreel.core.plan import Plan
from jamreel.core.result import Figure
from jamreel.core.words import Problem
from jamreel.workshop import clock
from jamreel.workshop.board import MOST_ON_BOARD
from jamreel.workshop.models import Piece
from jamreel.workshop.ownership import rows
from jamreel.workshop.pieces import refresh
from jamreel.workshop.planning import shop_of, work_out
from jamreel.workshop.quotas import nearly_full

router = Router(tags=["bench"])
# A finished piece stays on the bench for so long.
LATELY = timedelta(days=7)


class PieceLine(Schema):
    """A piece on the bench, with the one figure it waits for."""

    id: int
    name: str
    wearer: WearerLine | None
    due: date | None
    waits_for: str
    stations: dict[str, StationView]
    answer: Figure | None
    made_of: str
    guessed: bool


class Bench(Schema):
    """Everything on the bench, soonest due first.

    So many are ``still_to_work_out`` with the settings of now: asking again goes on. One board has
    room for ``most_on_board``.
    """

    workshop: str
    pieces: list[PieceLine]
    still_to_work_out: int
    most_on_board: int
    kept_mb: float | None
    most_mb: float | None


class Worked(Schema):
    """A brief as far as it goes."""

    plan: Plan | None
    problems: list[Problem]


class BriefIn(Schema):
    """A brief as typed."""

    brief: BriefTyped


@router.get("/bench", response={200: Bench, **EVERY_ERROR}, by_alias=True)
def bench(request: HttpRequest) -> Bench:
    """Return the pieces on the bench."""
    workshop = bench_of(request)
    still = refresh(workshop)
    # What was finished a while ago is the log's.
    lately = Q(finished_at=None) | Q(finished_at__gte=clock.now() - LATELY)
    found = (
        rows(Piece, workshop)
        .filter(lately, put_away_at=None)
        .select_related("wearer")
        .defer("hand")
    )
    order = sorted(found, key=lambda p: (p.due is None, p.due or date.max, p.pk))
    lines = [_line(piece) for piece in order]
    full = nearly_full(workshop)
    return Bench(
        workshop=workshop.name,
        pieces=lines,
        still_to_work_out=still,
        most_on_board=MOST_ON_BOARD,
        kept_mb=full[0] if full else None,
        most_mb=full[1] if full else None,
    )


def _line(piece: Piece) -> PieceLine:
    return PieceLine(
        id=piece.pk,
        name=piece.name,
        wearer=wearer_line(piece.wearer),
        due=piece.due,
        waits_for=piece.waits_for,
        stations=piece.state.get("stations", {}),
        answer=piece.state.get("answer"),
        made_of=piece.state.get("made_of", ""),
        guessed=piece.state.get("guessed", False),
    )


@router.post("/plan", response={200: Worked, **EVERY_ERROR}, by_alias=True)
def plan_only(request: HttpRequest, payload: BriefIn) -> Worked:
    """Return what follows from a brief, keeping nothing."""
    planned = work_out(payload.brief, shop_of(bench_of(request)))
    return Worked(plan=planned.plan, problems=list(planned.problems))


@router.get("/empty", response={204: None, **EVERY_ERROR})
def empty(request: HttpRequest) -> Status[None]:
    """Return nothing: what an answer costs by itself, for `make bench`."""
    bench_of(request)
    return Status(204, None)
