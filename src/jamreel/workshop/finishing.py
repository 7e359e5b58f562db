"""What happens when a piece is finished: its entry in the log, and what it teaches of the hand."""

from collections.abc import Iterator, Sequence
from contextlib import suppress
from functools import partial
from typing import Any

from jamreel.core.cutting.cuts import of_cut
from jamreel.core.errors import Refusal
from jamreel.core.plan import BriefRefused, Plan
from jamreel.core.units import Unit, parse_length
from jamreel.core.words import say
from jamreel.core.workpiece.ledger import ALLOWANCES
from jamreel.core.workpiece.questions import ROWS_OVER_MM, Told, told_by_leftover
from jamreel.core.workpiece.woven import sample_by_rows
from jamreel.workshop import clock
from jamreel.workshop.at_bench import actual_of, told_of
from jamreel.workshop.hands import LEAST_PACE, MOST_PACE, aside_of, of_piece, put_on_record, sum_up
from jamreel.workshop.log import know_words
from jamreel.workshop.models import (
    HandRecord,
    LogEntry,
    Movement,
    Piece,
    StepClock,
    Stock,
    Workshop,
)
from jamreel.workshop.ownership import rows
from jamreel.workshop.planning import Planned, shop_for, shop_of
from jamreel.workshop.quotas import room_for
from jamreel.workshop.trials import former_record, keep_sample, trial_of
from jamreel.workshop.turns import Turn, take_turn


def finish(workshop: Workshop, piece_id: int, *, finished: bool) -> None:
    """Close a piece as done: it goes into the log, and what it told goes on record. Or open it
    again: it leaves the log, and what it told is set aside.

    Raises:
        BriefRefused: a log that is full.
    """
    room_for(workshop, LogEntry, 1 if finished else 0)

    def change(turn: Turn) -> None:
        turn.piece.finished_at = clock.now() if finished else None
        turn.piece.in_hand_since = None if finished else turn.piece.in_hand_since
        turn.changed = True
        if finished:
            entry = _entry(turn.piece, turn.planned)
            turn.then(partial(_keep, entry))
        else:
            gone = rows(LogEntry, workshop).filter(piece=turn.piece)
            turn.then(lambda: gone.update(opened_at=clock.now()))

    piece, planned = take_turn(workshop, piece_id, change)
    about = rows(HandRecord, workshop).filter(piece=piece)
    said = "finished_anew" if finished else "opened_again"
    sum_up(workshop, aside_of(workshop, about, say(f"hand.{said}")))
    if finished and planned.plan is not None:
        _learn(workshop, piece, planned, planned.plan)


def _keep(entry: LogEntry) -> None:
    """Write an entry, in place of an earlier one of its piece."""
    mine = rows(LogEntry, entry.workshop).filter(piece=entry.piece)
    before = mine.values_list("pk", flat=True).first()
    if before is not None:
        entry.pk = before
    entry.save(force_update=before is not None)
    know_words(entry.workshop, [entry])


def _entry(piece: Piece, planned: Planned) -> LogEntry:
    """Return a piece as it goes into the log."""
    plan = planned.plan
    told = told_of(piece, plan) if plan else {}
    made_mm, inside_mm = _as_made(piece, told)
    used = list(
        rows(Movement, piece.workshop)
        .filter(tick__piece=piece, undone_by=None)
        .exclude(reason="undone")
        .select_related("stock", "tick")
    )
    minutes = sum(one.seconds for one in rows(StepClock, piece.workshop).filter(piece=piece)) / 60
    brief = piece.head.brief if piece.head else {}
    waste_mm, waste_g = _waste(planned, told)
    return LogEntry(
        workshop=piece.workshop,
        piece=piece,
        name=piece.name,
        wearer=piece.wearer.name if piece.wearer else "",
        kind=str((brief.get("piece") or {}).get("kind", ""))[:40],
        made_of=f"{plan.says} · {plan.wire} {plan.metal}"[:200] if plan else "",
        metals=", ".join(sorted({cut.metal for cut in plan.cuts}))[:200] if plan else "",
        reels=", ".join(sorted({one.stock.name for one in used}))[:400],
        finished_on=clock.now().date(),
        finished_at=clock.now(),
        planned_mm=plan.finished_length_mm.value if plan and plan.finished_length_mm else None,
        made_mm=made_mm,
        inside_planned_mm=plan.inside_girth_mm.value if plan and plan.inside_girth_mm else None,
        inside_made_mm=inside_mm,
        tries=len(piece.tryons.all()),
        minutes=minutes or None,
        minutes_planned=(plan.minutes or 0.0) if plan else 0.0,
        wire_mm=sum(one.actual or 0.0 for one in planned.records if one.kind == "cut"),
        waste_mm=waste_mm,
        waste_g=waste_g,
        material=_material(used),
        unpriced=_unpriced(used, planned),
        revision=piece.head,
    )


def _as_made(piece: Piece, told: dict[str, float]) -> tuple[float | None, float | None]:
    """Return what a piece measured: as it was told at the bench, else at the last try-on."""
    noted: dict[str, Any] = next((one.noted for one in reversed(piece.tryons.all())), {})
    brief = piece.head.brief if piece.head else {}
    unit: Unit = "in" if brief.get("unit") == "in" else "mm"
    return told.get("finished"), told.get("inside", _length(noted.get("inside_girth"), unit))


def _length(typed: Any, unit: Unit) -> float | None:
    """Return a length of a try-on as it was typed [mm], None where none was."""
    with suppress(Refusal):
        return parse_length(typed, unit) if typed not in (None, "") else None
    return None


def _waste(planned: Planned, told: dict[str, float]) -> tuple[float, float]:
    """Return what wire was snipped off and lost [mm, g]: as told, or as planned."""
    mm = grams = 0.0
    cuts = {cut.id: cut for cut in planned.plan.cuts} if planned.plan else {}
    for record in planned.records:
        cut = cuts.get(of_cut(record.key)[0]) if record.kind == "cut" else None
        if cut is None:
            continue
        spare = sum(line.value_mm for line in cut.lines if line.id in ALLOWANCES)
        first = next((n.value_mm for n in cut.lines if n.id == "trim_left"), 0.0)
        left = told.get(f"left/{cut.id}")
        lost = max(0.0, spare if left is None else first + left)
        mm += lost
        grams += lost / cut.length_mm * cut.mass_g if cut.length_mm else 0.0
    return mm, grams


def _material(used: Sequence[Movement]) -> float | None:
    """Return what went into a piece, as far as what it came from has a price."""
    found = [
        -one.amount * one.stock.price / (1000 if one.stock.key else 1)
        for one in used
        if one.stock.price is not None
    ]
    return sum(found) if found else None


def _unpriced(used: Sequence[Movement], planned: Planned) -> str:
    """Return what went into a piece and has no price, by name: reels, trays, and what was ticked
    off without saying what it came from."""
    names = {one.stock.name for one in used if one.stock.price is None}
    known = {one.tick.key for one in used if one.tick}
    done = [one for one in planned.records if one.kind in ("cut", "need")]
    elsewhere = {one.says for one in done if one.key not in known and one.says}
    return ", ".join(sorted(names | elsewhere))[:400]


def _learn(workshop: Workshop, piece: Piece, planned: Planned, plan: Plan) -> None:
    """Put on record what a finished piece told: leftovers, lengths, minutes, former, rows."""
    told = told_of(piece, plan)
    cuts = {cut.id: cut for cut in plan.cuts}
    records: list[HandRecord] = []
    for name, value in told.items():
        what, _, about = name.partition("/")
        if what == "left" and about in cuts:
            cut = cuts[about]
            # What was told of a plan that has changed since may be none of this one.
            with suppress(Refusal):
                found = told_by_leftover(cut, actual_of(planned, cut), value)
                records += of_piece(piece, found, "left")
        elif what == "came_off":
            records += _former(workshop, piece, plan, value)
        elif what == "rows":
            body = next((one for one in plan.woven if one.entry == about), None)
            with suppress(Refusal):
                sample = sample_by_rows(body, round(value), ROWS_OVER_MM) if body else None
                if sample is not None:
                    keep_sample(workshop, sample, kept=True)
    records += of_piece(piece, _lengths(piece, plan, told), "length")
    records += of_piece(piece, _paces(piece, plan), "minutes")
    put_on_record(workshop, records)


def _lengths(piece: Piece, plan: Plan, told: dict[str, float]) -> Iterator[Told]:
    made, inside = _as_made(piece, told)
    pairs = (("finished", plan.finished_length_mm, made), ("inside", plan.inside_girth_mm, inside))
    stock = plan.cuts[0].stock if plan.cuts else ""
    for technique, planned, took in pairs:
        if planned is not None and took is not None and planned.value > 0:
            yield Told(
                kind="length", technique=technique, stock=stock, planned=planned.value, took=took
            )


def _paces(piece: Piece, plan: Plan) -> Iterator[Told]:
    """Yield the minutes of each kind of work against the usual ones."""
    seconds = {one.key: one.seconds for one in rows(StepClock, piece.workshop).filter(piece=piece)}
    hand = shop_for(piece, shop_of(piece.workshop)).hand
    by_work: dict[str, tuple[float, float]] = {}
    for step in plan.steps:
        if seconds.get(step.id, 0) > 0 and step.minutes > 0:
            # The plan has the maker's own minutes already, by what was known when it was cut.
            usual = step.minutes / hand.pace_of(step.work)[0]
            planned, took = by_work.get(step.work, (0.0, 0.0))
            by_work[step.work] = planned + usual, took + seconds[step.id] / 60
    for work, (planned, took) in by_work.items():
        if LEAST_PACE <= took / planned <= MOST_PACE:
            yield Told(kind="pace", technique=work, stock="", planned=planned, took=took)


def _former(workshop: Workshop, piece: Piece, plan: Plan, came_off: float) -> list[HandRecord]:
    """Return what the body came off its former at, as a record of its reel; none where the reel is
    not known, or where it was malleted there."""
    former = next((one.tool_mm for one in plan.formers if one.tool_mm is not None), None)
    stock = plan.cuts[0].stock if plan.cuts else ""
    on = rows(Stock, workshop).filter(key=stock).exclude(key="")
    used = on.filter(movements__tick__piece=piece).distinct().first() or on.first()
    malleted = any(step.works == "malleted" for step in plan.steps)
    if former is None or used is None or (malleted and shop_of(workshop).malleting > 0):
        return []
    try:
        mpa = trial_of(workshop, used, former, came_off)
    except BriefRefused:
        return []
    record = former_record(workshop, used, former, came_off, mpa, "piece")
    record.piece = piece
    return [record]
