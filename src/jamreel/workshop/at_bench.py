"""Bench mode: one step after the other, each with its own clock; waits that run on by themselves.

One pair of hands: while a step's clock runs, those of all other steps stand still. What is ticked
here is ticked as everywhere else (``making``).
"""

from collections.abc import Container, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any

from django.db import transaction
from django.db.models import Q

from jamreel.core.bench.steps import Step
from jamreel.core.cutting.cuts import Cut, of_cut
from jamreel.core.cutting.problem import Rack, nearly_used_up_first
from jamreel.core.errors import Refusal
from jamreel.core.plan import Plan, in_words
from jamreel.core.shop import Shop
from jamreel.core.units import parse_length
from jamreel.core.workpiece.questions import ROWS_OVER_MM, Question, questions_at, told_by_leftover
from jamreel.core.workpiece.records import done_steps
from jamreel.core.workpiece.woven import sample_by_rows
from jamreel.workshop import clock
from jamreel.workshop.making import NothingToTick, tick, untick
from jamreel.workshop.models import Piece, StepClock, Stock, Wait, Workshop
from jamreel.workshop.ownership import row, rows
from jamreel.workshop.pieces import bring_up_to_date
from jamreel.workshop.planning import Planned, plan_of, shop_of
from jamreel.workshop.stock import NOTHING, WIRE_KINDS, amounts, on_rack, parse_count
from jamreel.workshop.turns import PutAway, whole_piece

# A clock that ran longer at a stretch was left running; so much of it counts.
LONGEST_STRETCH = timedelta(hours=4)


@dataclass(frozen=True)
class Doing:
    """A step in bench mode: whether it is done, its clock, its repeats, what is asked and told.

    ``cuts`` are the wires that are still to be cut at it, each by its key.
    """

    step: Step
    done: bool
    seconds: float
    running: bool
    counted: int
    asks: tuple[Question, ...]
    told: dict[str, float]
    cuts: tuple[tuple[str, Cut], ...] = ()


@dataclass(frozen=True)
class AtBench:
    """A piece in bench mode: its steps in order, and the one that it is at."""

    piece: Piece
    planned: Planned
    steps: tuple[Doing, ...]
    at: str


def at_bench(workshop: Workshop, piece_id: int) -> AtBench:
    """Return a piece as bench mode shows it.

    Raises:
        NothingToTick: a piece without a plan.
    """
    piece = whole_piece(workshop, piece_id)
    planned = bring_up_to_date(piece)
    if planned.plan is None:
        raise NothingToTick
    clocks = {one.key: one for one in rows(StepClock, workshop).filter(piece=piece)}
    done = done_steps(planned.plan, planned.records)
    done |= _cut_elsewhere(planned, clocks.keys())
    steps = tuple(_doing(planned, step, clocks.get(step.id), done) for step in planned.plan.steps)
    return AtBench(piece, planned, steps, _at(piece, steps))


def _cut_elsewhere(planned: Planned, begun: Container[str]) -> frozenset[str]:
    """Return the steps up to cutting of a piece whose wires were all cut on the board, not here."""
    plan = planned.plan
    assert plan is not None  # by its caller
    upto = [n for n, step in enumerate(plan.steps) if "cut" in step.asks]
    before = [step.id for step in plan.steps[: upto[0] + 1]] if upto else []
    whole = planned.standing.wires and not planned.standing.open_wires
    if not whole or any(key in begun for key in before):
        return frozenset()
    return frozenset(before)


def _doing(planned: Planned, step: Step, kept: StepClock | None, done: frozenset[str]) -> Doing:
    plan = planned.plan
    assert plan is not None  # by its caller
    seconds = kept.seconds if kept else 0.0
    running = kept is not None and kept.since is not None
    if kept is not None and kept.since is not None:
        seconds += _stretch(kept.since, clock.now())
    return Doing(
        step=step,
        done=step.id in done,
        seconds=seconds,
        running=running,
        counted=kept.counted if kept else 0,
        asks=questions_at(plan, step),
        told=dict(kept.told) if kept else {},
        cuts=_to_cut(planned) if "cut" in step.asks else (),
    )


def _to_cut(planned: Planned) -> tuple[tuple[str, Cut], ...]:
    assert planned.plan is not None
    cuts = {cut.id: cut for cut in planned.plan.cuts}
    wanted = [(key, cuts[of_cut(key)[0]]) for key in planned.standing.open_wires]
    # The longest first: a mistake on it leaves wire for a shorter one.
    return tuple(sorted(wanted, key=lambda one: -one[1].length_mm))


def may_serve(workshop: Workshop, keys: Container[str]) -> list[tuple[Stock, float]]:
    """Return what on the rack some wires may be cut from, and how much there is of it [mm], in the
    order in which a layout goes through it.

    Args:
        workshop: whose rack.
        keys: that the wires go by.
    """
    have = amounts(workshop)
    hung = {str(one.pk): one for one in on_rack(workshop) if one.key in keys}
    racks = [
        Rack(id=name, kind=one.kind, length=have.get(one.pk, 0.0))
        for name, one in hung.items()
        if one.kind in WIRE_KINDS and have.get(one.pk, 0.0) > NOTHING
    ]
    return [(hung[one.id], one.length) for one in nearly_used_up_first(racks)]


def _at(piece: Piece, steps: Sequence[Doing]) -> str:
    """Return the step that a piece was left at, the first open one where that is done or gone."""
    left = next((one for one in steps if one.step.id == piece.at_step), None)
    if left is not None and not left.done:
        # In a round the counts say where it is: a clock that was told late moves nothing.
        return _in_round(steps, left.step.round) if left.step.round else left.step.id
    first = next((one.step.id for one in steps if not one.done), None)
    return first or (steps[-1].step.id if steps else "")


def _stretch(since: datetime, until: datetime) -> float:
    """Return the seconds of one run of a clock; one that was set back has not run."""
    return min(max((until - since).total_seconds(), 0.0), LONGEST_STRETCH.total_seconds())


def go_to(workshop: Workshop, piece_id: int, key: str) -> None:
    """Take a piece in hand at a step: its clock runs, all others stand still.

    Raises:
        NothingToTick: the plan has no such step.
        PutAway: the piece was put away.
    """
    now = clock.now()
    found = at_bench(workshop, piece_id)
    if key not in {one.step.id for one in found.steps}:
        raise NothingToTick
    if found.piece.put_away_at is not None:
        raise PutAway
    with transaction.atomic():
        _stand_still(workshop, now)
        rows(Piece, workshop).filter(pk=piece_id).update(at_step=key)
        rows(Piece, workshop).filter(pk=piece_id, in_hand_since=None).update(in_hand_since=now)
        mine, _ = rows(StepClock, workshop).get_or_create(
            workshop=workshop, piece_id=piece_id, key=key
        )
        done = next(one.done for one in found.steps if one.step.id == key)
        if not done:
            mine.since = now
            mine.save(update_fields=["since"])


def pause(workshop: Workshop) -> None:
    """Stand all clocks still: hands are elsewhere."""
    with transaction.atomic():
        _stand_still(workshop, clock.now())


def _stand_still(workshop: Workshop, now: datetime) -> None:
    for one in rows(StepClock, workshop).filter(since__isnull=False):
        assert one.since is not None
        one.seconds, one.since = one.seconds + _stretch(one.since, now), None
        one.save(update_fields=["seconds", "since"])


def lay_down(workshop: Workshop, piece_id: int) -> None:
    """Leave bench mode: the piece is in hand no more, and its clocks stand still."""
    row(Piece, workshop, piece_id)
    with transaction.atomic():
        _stand_still(workshop, clock.now())
        rows(Piece, workshop).filter(pk=piece_id).update(in_hand_since=None)


def count(workshop: Workshop, piece_id: int, key: str, counted: int) -> None:
    """Keep how many repeats of a step are done; in a round the next step of it is in hand then.

    Raises:
        NothingToTick: no step of the piece.
    """
    piece = whole_piece(workshop, piece_id)
    plan = plan_of(piece, shop_of(workshop)).plan
    step = next((one for one in plan.steps if one.id == key), None) if plan else None
    if step is None:
        raise NothingToTick
    rows(StepClock, workshop).update_or_create(
        workshop=workshop, piece_id=piece_id, key=key, defaults={"counted": counted}
    )
    if step.round:
        go_to(workshop, piece_id, _in_round(at_bench(workshop, piece_id).steps, step.round))


def _in_round(steps: Sequence[Doing], name: str) -> str:
    """Return the step of a round that comes next: of the part that is least far, the first."""
    mates = [one for one in steps if one.step.round == name]
    most = max(one.step.times for one in mates)
    still = [one for one in mates if not one.done]
    return min(still, key=lambda one: _parts_done(one, most)).step.id


def _parts_done(one: Doing, most: int) -> int:
    """Return how many parts of a round, of so many, are past a step: those it skips count."""
    parts = [n for n in range(most) if n + 1 not in one.step.skips]
    return parts[one.counted] if one.counted < len(parts) else most


def tell(workshop: Workshop, piece_id: int, key: str, told: dict[str, str]) -> None:
    """Keep what a maker tells of a step, as typed; nothing typed takes back what was told.

    Raises:
        BriefRefused: at ``told.<what>``, with what would be likely.
        NothingToTick: no such question stands there.
    """
    found = at_bench(workshop, piece_id)
    doing = next((one for one in found.steps if one.step.id == key), None)
    questions = {one.id: one for one in doing.asks} if doing else {}
    if doing is None or not told.keys() <= questions.keys():
        raise NothingToTick
    values = {
        name: _value(found.planned, questions[name], typed, shop_of(workshop))
        for name, typed in told.items()
    }
    kept = {**doing.told, **{k: v for k, v in values.items() if v is not None}}
    for name, value in values.items():
        if value is None:
            kept.pop(name, None)
    rows(StepClock, workshop).update_or_create(
        workshop=workshop, piece_id=piece_id, key=key, defaults={"told": kept}
    )


def _value(planned: Planned, question: Question, typed: str, shop: Shop) -> float | None:
    if not typed.strip():
        return None

    def read() -> float:
        try:
            value = parse_count(typed) if question.count else parse_length(typed, shop.unit)
            _sane(planned, question, value)
        except Refusal as refusal:
            raise refusal.at(f"told.{question.id}") from None
        return value

    return in_words(read, shop)


def _sane(planned: Planned, question: Question, value: float) -> None:
    """Refuse what can't have been measured: it would teach the hand something wrong."""
    plan = planned.plan
    assert plan is not None
    if question.asks == "left":
        cut = next(one for one in plan.cuts if one.id == question.about)
        told_by_leftover(cut, actual_of(planned, cut), value)
    elif question.asks == "rows":
        body = next(one for one in plan.woven if one.entry == question.about)
        sample_by_rows(body, round(value), ROWS_OVER_MM)
    elif question.expected and not question.expected / 2 <= value <= question.expected * 2:
        raise Refusal("told_far", got=f"{value:g}", field="told", likely=question.expected)


def actual_of(planned: Planned, cut: Cut) -> float:
    """Return the length that the first wire of a cut really has, as planned where none is cut."""
    real = [
        one.actual
        for one in planned.records
        if one.kind == "cut" and of_cut(one.key)[0] == cut.id and one.actual
    ]
    return real[0] if real else cut.length_mm


def done(workshop: Workshop, piece_id: int, key: str) -> None:
    """Tick the step off that is in hand, start its wait, and go on to the next one.

    Raises:
        AlreadyTicked: another tab was first; the piece is where that left it.
        NothingToTick: the plan has no such step.
    """
    found = at_bench(workshop, piece_id)
    doing = next((one for one in found.steps if one.step.id == key), None)
    if doing is None:
        raise NothingToTick
    now = clock.now()
    tick(workshop, piece_id, "step", key)
    with transaction.atomic():
        _stand_still(workshop, now)
        if doing.step.waits > 0:
            Wait.objects.create(
                workshop=workshop,
                piece_id=piece_id,
                key=key,
                title=doing.step.title[:300],
                began_at=now,
                ends_at=now + timedelta(minutes=doing.step.waits),
            )
    following = _next(found.steps, key)
    if following is not None:
        go_to(workshop, piece_id, following)


def _next(steps: Sequence[Doing], key: str) -> str | None:
    ids = [one.step.id for one in steps]
    later = [one.step.id for one in steps[ids.index(key) + 1 :] if not one.done]
    earlier = [one.step.id for one in steps if not one.done and one.step.id != key]
    return next(iter((*later, *earlier)), None)


def undone(workshop: Workshop, piece_id: int, key: str) -> None:
    """Take a step back that was ticked off, with the wait that it began."""
    untick(workshop, piece_id, "step", key)
    now = clock.now()
    rows(Wait, workshop).filter(piece_id=piece_id, key=key, over_at=None).update(over_at=now)
    go_to(workshop, piece_id, key)


def waits_of(workshop: Workshop) -> list[Wait]:
    """Return the waits that nobody has gone on from yet, what ends first before the others."""
    return list(
        rows(Wait, workshop)
        .filter(over_at=None, piece__put_away_at=None, piece__finished_at=None)
        .select_related("piece")
    )


def end_wait(workshop: Workshop, wait_id: int) -> None:
    """Go on after a wait, whether or not its time is up."""
    row(Wait, workshop, wait_id)
    rows(Wait, workshop).filter(pk=wait_id, over_at=None).update(over_at=clock.now())


def in_hand(workshop: Workshop) -> list[Piece]:
    """Return the pieces that are in hand, what was taken up first before the others."""
    held = Q(in_hand_since__isnull=False, finished_at=None, put_away_at=None)
    return list(rows(Piece, workshop).filter(held).order_by("in_hand_since", "pk"))


def told_of(piece: Piece, plan: Plan) -> dict[str, Any]:
    """Return all that was told of a piece, by the id of what was asked."""
    found: dict[str, Any] = {}
    keys = {step.id for step in plan.steps}
    for one in rows(StepClock, piece.workshop).filter(piece=piece):
        if one.key in keys:
            found.update(one.told)
    return found
