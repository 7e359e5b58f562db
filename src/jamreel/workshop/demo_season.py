"""The demo's season: what the bench made since summer, from a fixed seed. Invented throughout."""

import io
import random
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import UTC, date, datetime, time, timedelta
from typing import Any

from PIL import Image, ImageDraw

from jamreel.core.cutting.cuts import wire_key
from jamreel.core.plan import Plan
from jamreel.core.workpiece.ledger import ALLOWANCES
from jamreel.core.workpiece.questions import questions_at
from jamreel.core.workpiece.records import record_of_step
from jamreel.workshop import at_bench, clock, finishing, log, photos
from jamreel.workshop.day import USUAL_HOURS, USUAL_RESOURCES, Chosen, plan_day
from jamreel.workshop.hands import Sample, note_sample
from jamreel.workshop.models import (
    LogEntry,
    Movement,
    Piece,
    StepClock,
    Stock,
    Tick,
    Wearer,
    Workshop,
)
from jamreel.workshop.pieces import start_piece
from jamreel.workshop.planning import plan_of, shop_of
from jamreel.workshop.wearers import measures_of

SEED = 1913
PIECES = 64
SEASON_DAYS = 150
# What every sort of piece can be made to.
NEEDED = {"wrist_girth", "hand_pass_girth"}
# This maker's hand: ratio and spread of each technique, and of the minutes.
HAND = {
    "loop": (1.035, 0.016),
    "bend": (1.02, 0.02),
    "wrapped_loop": (1.06, 0.022),
    "coil": (1.015, 0.012),
}
PACE = (1.15, 0.25)
# The demo stands still at a wait that is long enough to be looked at.
LONG_WAIT_MIN = 45


@dataclass(frozen=True)
class Made:
    """A sort of piece that the bench makes: what it is called, its make-up and its wire."""

    names: tuple[str, ...]
    piece: dict[str, Any]
    wire: dict[str, str]


_COPPER, _BRASS = (
    {"size": "14 awg", "metal": metal, "temper": "half_hard"} for metal in ("copper", "brass")
)
MADE = (
    Made(
        ("Sluice bangle", "Towpath bangle", "Rope bangle", "Weir bangle"),
        {"kind": "sliding_bangle", "loop_pin": "2.6"},
        _COPPER,
    ),
    Made(
        ("Boathook bracelet", "Cleat bracelet", "Punter's bracelet"),
        {"kind": "hook_bracelet"},
        _COPPER,
    ),
    Made(("Lock ring", "Winch ring", "Mooring ring"), {"kind": "closed_bangle"}, _BRASS),
    Made(
        ("Raindrop pair", "Reed pair", "Lantern pair"),
        {"kind": "drop_earring"},
        {"size": "20 awg", "metal": "brass", "temper": "half_hard"},
    ),
)
NOTES = (
    "Worn through the whole of the dress rehearsal.",
    "The second loop is a little fuller than the first.",
    "Came out looser than the one before; the mandrel was cold.",
)


def season(workshop: Workshop, today: date) -> None:
    """Fill the log of a bench with a season's pieces, their lengths, times and leftovers.

    Args:
        workshop: the demo bench, with its wearers and its rack.
        today: the season ends some days before.
    """
    pick = random.Random(SEED)
    adults = Wearer.objects.filter(workshop=workshop, is_child=False).order_by("pk")
    wearers = [one for one in adults if measures_of(one, "mm").keys() >= NEEDED]
    _samples(workshop, today)
    for n in range(PIECES):
        days = SEASON_DAYS - round(n * (SEASON_DAYS - 4) / (PIECES - 1))
        moment = datetime.combine(today - timedelta(days=days), time(16, 10 + n % 40), UTC)
        made = MADE[pick.choices(range(len(MADE)), (5, 4, 2, 1))[0]]
        wearer = pick.choice(wearers)
        with clock.standing_at(moment):
            _make(workshop, made, wearer, pick, n)
    for n, entry in enumerate(LogEntry.objects.filter(workshop=workshop).order_by("-pk")[:9]):
        if n % 3 == 0:
            log.note(workshop, entry.pk, NOTES[n // 3])
            photos.add_photo(workshop, entry.pk, _picture(n))


def _samples(workshop: Workshop, today: date) -> None:
    reel = Stock.objects.filter(workshop=workshop, key__startswith="copper/half_hard/round/1.63")
    stock = reel.first()
    if stock is None:
        return
    began = datetime.combine(today - timedelta(days=SEASON_DAYS + 3), time(10), UTC)
    with clock.standing_at(began):
        for took in ("13.5", "13.9", "13.7"):
            note_sample(workshop, Sample("loop", stock.pk, {"pin": "2.6", "took": took}))
        note_sample(workshop, Sample("coil", stock.pk, {"pin": "3", "took": "148"}))


def _make(workshop: Workshop, made: Made, wearer: Wearer, pick: random.Random, number: int) -> None:
    """Make one piece from the first cut to the log."""
    brief = {
        "schema": "0.2",
        "measures": measures_of(wearer, "mm"),
        "ease": {"school": "fixed", "word": pick.choice(["comfortable", "snug", "comfortable"])},
        "piece": made.piece,
        "wire": made.wire,
        "cutting": {"school": "fixed", "trim": "1.5", "margin": "6"},
    }
    name = pick.choice(made.names)
    piece = start_piece(workshop, f"{name} {number + 1}", brief, wearer, None)
    plan = plan_of(piece, shop_of(workshop)).plan
    assert plan is not None  # of wearers with all measures
    now = clock.now()
    ticks = [*_cut(piece, plan, now), *_steps(piece, plan, now)]
    Tick.objects.bulk_create(ticks)
    _use(workshop, piece, now)
    StepClock.objects.bulk_create(_clocks(piece, plan, pick))
    finishing.finish(workshop, piece.pk, finished=True)


def _cut(piece: Piece, plan: Plan, now: datetime) -> Iterator[Tick]:
    for cut in plan.cuts:
        for number in range(cut.quantity):
            yield Tick(
                workshop=piece.workshop,
                piece=piece,
                kind="cut",
                key=wire_key(cut, number + 1),
                planned=cut.length_mm,
                actual=cut.length_mm,
                what={"says": cut.label, "stock": cut.stock},
                ticked_at=now,
            )


def _steps(piece: Piece, plan: Plan, now: datetime) -> Iterator[Tick]:
    for step in plan.steps:
        for key in step.stands_for:
            record = record_of_step(plan.steps, step, key)
            yield Tick(
                workshop=piece.workshop,
                piece=piece,
                kind="step",
                key=key,
                what=record.model_dump(include={"says", "figures", "follows"}),
                ticked_at=now,
            )


def _use(workshop: Workshop, piece: Piece, now: datetime) -> None:
    """Take what was cut off a reel, and buy as much again: the rack of today is as it is."""
    for tick in Tick.objects.filter(piece=piece, kind="cut"):
        stock = Stock.objects.filter(
            workshop=workshop, key=tick.what["stock"], kind="reel", put_away_at=None
        ).first()
        if stock is not None and tick.actual:
            moves = {"workshop": workshop, "stock": stock, "at": now}
            Movement.objects.create(amount=tick.actual, reason="counted", **moves)
            Movement.objects.create(amount=-tick.actual, reason="used", tick=tick, **moves)


def _clocks(piece: Piece, plan: Plan, pick: random.Random) -> Iterator[StepClock]:
    """Yield how each step went: its minutes, and what was told when it was done."""
    for step in plan.steps:
        told: dict[str, float] = {}
        for question in questions_at(plan, step):
            if pick.random() < 0.8:
                value = _told(plan, question.id, question.expected, pick)
                if value is not None:
                    told[question.id] = value
        pace = max(0.4, pick.gauss(*PACE))
        yield StepClock(
            workshop=piece.workshop,
            piece=piece,
            key=step.id,
            seconds=round(step.minutes * pace * 60, 1),
            told=told,
        )


def _told(
    plan: Plan, question_id: str, expected: float | None, pick: random.Random
) -> float | None:
    what, _, about = question_id.partition("/")
    if what == "left":
        cut = next(one for one in plan.cuts if one.id == about)
        spare = sum(n.value_mm for n in cut.lines if n.id in ALLOWANCES[1:])
        more = sum(
            one.by_sum * (pick.gauss(*HAND.get(one.technique, (1.02, 0.02))) - 1)
            for one in cut.techniques
        )
        return round(max(0.0, spare - more), 1)
    if expected is None:
        return None
    if what == "came_off":
        former = next(one.tool_mm or expected for one in plan.formers)
        return round(max(former + 0.2, expected + pick.gauss(0, 0.12)), 1)
    return round(expected + pick.gauss(0.4, 1.6), 1)


def _picture(number: int) -> bytes:
    """Return a made-up photograph: a ring of wire on the bench's slate."""
    tones = ("#b0643a", "#c9a24b", "#c4c7c9")
    found = Image.new("RGB", (1200, 900), "#5f6f73")
    pen = ImageDraw.Draw(found)
    pen.ellipse((280, 180, 920, 760), outline="#46545a", width=30)
    pen.ellipse((270, 160, 910, 740), outline=tones[number // 3 % 3], width=26)
    pen.arc((270, 160, 910, 740), 200, 260, fill="#f3e3d3", width=8)
    out = io.BytesIO()
    found.save(out, "JPEG", quality=90)
    return out.getvalue()


def at_work(workshop: Workshop, piece: Piece, other: Piece, chosen: tuple[Piece, ...]) -> None:
    """Leave a piece in the middle of bench mode with a wait running, another one in hand, and a
    plan for the day.

    Args:
        workshop: the demo bench.
        piece: that has a step which waits.
        other: in hand beside it.
        chosen: the pieces of the day.
    """
    for one in at_bench.at_bench(workshop, piece.pk).steps:
        if one.done:
            continue
        at_bench.go_to(workshop, piece.pk, one.step.id)
        at_bench.done(workshop, piece.pk, one.step.id)
        if one.step.waits >= LONG_WAIT_MIN:
            break
        for wait in at_bench.waits_of(workshop):
            at_bench.end_wait(workshop, wait.pk)
    first = next(one.step.id for one in at_bench.at_bench(workshop, other.pk).steps if not one.done)
    at_bench.go_to(workshop, other.pk, first)
    at_bench.pause(workshop)
    pieces = tuple(one.pk for one in chosen)
    plan_day(workshop, clock.now().date(), Chosen(pieces, None, USUAL_HOURS, dict(USUAL_RESOURCES)))
