"""The demo bench: a made-up barge theatre and its cast. Invented from end to end."""

import copy
from collections.abc import Sequence
from datetime import date, datetime, time, timedelta
from typing import Any

from django.conf import settings
from django.contrib.auth.models import User
from django.db import transaction
from django.utils import timezone

from jamreel.core.plan import propose_raw, read_brief
from jamreel.core.shop import Shop
from jamreel.workshop import finishing, making
from jamreel.workshop.demo_files import Extra, Role, cast, extras, read
from jamreel.workshop.demo_season import at_work, season
from jamreel.workshop.models import Piece, Stock, Wearer, Workshop
from jamreel.workshop.pieces import refresh, save_brief, start_piece
from jamreel.workshop.planning import plan_of, shop_of
from jamreel.workshop.stock import add_stock
from jamreel.workshop.trials import note_trial
from jamreel.workshop.wearers import keep_readings, measures_of

# What is left alone at the bench just now, and what else is in the day.
WAITING = "Landing-stage bangle"
WHILE_S = 30.0
FORM_STEPS = ("loop_up", "shape", "thread", "loop_down")
# What makes wire soft before it is formed.
FIRE = ("anneal", "quench", "pickle")
OF_THE_DAY = ("Mooring bracelet", "Quill ear cuff", "Sluice bracelet", "Towpath braid")


@transaction.atomic
def build(today: date, *, whole: bool = True) -> Workshop:
    """Return the demo bench, made for a given day; one that is there is kept as it is.

    Args:
        today: what pieces are due after.
        whole: whether it has a season's log, a hand, and a piece at work.
    """
    user, new = User.objects.get_or_create(username=settings.DEMO_USER)
    if not new:
        return Workshop.objects.get(members=user)
    user.set_unusable_password()
    user.save()
    workshop = Workshop.objects.create(name="Heron Barge", shop=read("shop"))
    workshop.members.add(user)
    for stock in read("rack"):
        add_stock(workshop, stock)
    # What was wound on a former to try it.
    for trial in read("trials"):
        reel = Stock.objects.get(workshop=workshop, name=trial["reel"])
        wound = {"former": trial["former"], "came_off": trial["came_off"]}
        note_trial(workshop, reel.pk, wound)
    workshop.refresh_from_db()
    pieces = {role.part: _start(workshop, role, today) for role in cast()}
    _work_on(workshop, pieces)
    made = {extra.name: (_make(workshop, extra, today), extra) for extra in extras()}
    if whole:
        season(workshop, today)
        workshop.refresh_from_db()
    for piece in (pieces["the Heron"], *(one for one, extra in made.values() if extra.finished)):
        finishing.finish(workshop, piece.pk, finished=True)
    workshop.refresh_from_db()
    if not whole:
        return workshop
    at_work(workshop, *_in_hand({name: one for name, (one, _) in made.items()}, pieces))
    workshop.refresh_from_db()
    # What the season taught is in every plan from the first look on.
    refresh(workshop, WHILE_S)
    return workshop


def _in_hand(
    made: dict[str, Piece], pieces: dict[str, Piece]
) -> tuple[Piece, Piece, tuple[Piece, ...]]:
    """Return the piece that waits, the one in hand beside it, and those of the day."""
    waiting, beside = made[WAITING], pieces["the Ferryman"]
    return waiting, beside, (waiting, beside, *(made[name] for name in OF_THE_DAY))


def _start(workshop: Workshop, role: Role, today: date) -> Piece:
    wearer = Wearer.objects.create(
        workshop=workshop, name=role.name, part=role.part, is_child=role.child, note=role.note
    )
    day = today - timedelta(days=role.measured_days_ago)
    taken = {"wrist_girth": role.wrist, "hand_pass_girth": role.hand, **role.more}
    for site, values in taken.items():
        if values:
            method = "calliper" if site.startswith("ear") else "tape"
            keep_readings(workshop, wearer.pk, site, _readings(values, day, method))
    measures: dict[str, Any] = {
        site: kept
        for site, kept in measures_of(wearer, "mm").items()
        if site in ("wrist_girth", "hand_pass_girth")
    }
    if not measures:
        measures = {
            "wrist_girth": {"guess": {"population": "wrist_women", "percentile": 50}},
            "hand_pass_girth": {"guess": {"population": "hand_women", "percentile": 50}},
        }
    brief = {
        "schema": "0.2",
        "measures": measures,
        "side": "right",
        "ease": role.ease,
        "piece": {"kind": "sliding_bangle", "loop_pin": role.pin},
        "wire": role.wire,
        "cutting": {"trim": "1.5", "margin": "0"},
    }
    due = today + timedelta(days=role.due_in)
    return start_piece(workshop, role.piece, brief, wearer, due)


def _readings(values: Sequence[str], day: date, method: str) -> list[dict[str, Any]]:
    return [
        {"value": value, "method": method, "taken": _moment(day, i).isoformat()}
        for i, value in enumerate(values)
    ]


def _moment(day: date, index: int) -> datetime:
    return timezone.make_aware(datetime.combine(day, time(14, 10 + 2 * index)))


def _work_on(workshop: Workshop, pieces: dict[str, Piece]) -> None:
    """Bring the pieces to where they stand: every station has one, one came out too big."""
    for part in ("the Lock-keeper", "the Heron", "the Toll Clerk", "the Miller's Widow"):
        making.tick(workshop, pieces[part].pk, "cut", "bangle")
    for part in ("the Lock-keeper", "the Heron", "the Miller's Widow"):
        _formed(workshop, pieces[part], FORM_STEPS)
    _formed(workshop, pieces["the Toll Clerk"], FORM_STEPS[:2])
    _try_on(
        workshop, pieces["the Lock-keeper"], {"passes_hand": True, "open_inside_girth": "206.5"}
    )
    _try_on(
        workshop,
        pieces["the Heron"],
        {"passes_hand": True, "finger_under": True, "open_inside_girth": "187"},
    )
    # The Weathercock's was cut, then a looser fit was asked for: the cut has gone stale.
    piece = pieces["the Weathercock"]
    making.tick(workshop, piece.pk, "cut", "bangle", "238")
    _change(workshop, piece, {"piece": {"kind": "sliding_bangle", "loop_pin": "3.0"}})


def _formed(workshop: Workshop, piece: Piece, steps: Sequence[str]) -> None:
    """Tick steps off, and the fire before them where the piece has one."""
    plan = plan_of(piece, shop_of(workshop)).plan
    there = {step.id for step in plan.steps} if plan else set()
    for step in (*(one for one in FIRE if one in there), *steps) if steps else ():
        making.tick(workshop, piece.pk, "step", step)


def _make(workshop: Workshop, extra: Extra, today: date) -> Piece:
    """Return a piece for its wearer, brought to where it stands."""
    wearer = Wearer.objects.get(workshop=workshop, part=extra.part)
    brief = {
        "schema": "0.2",
        "measures": measures_of(wearer, "mm"),
        "ease": {"school": "fixed", "word": "comfortable"},
        "piece": extra.piece,
        "wire": extra.wire,
        "palette": extra.palette,
        "cutting": {"trim": "1.5", "margin": "0"},
    }
    if extra.fitted:
        brief["piece"] = _fitted(brief, shop_of(workshop))
    piece = start_piece(workshop, extra.name, brief, wearer, today + timedelta(days=extra.due_in))
    if extra.cut:
        plan = plan_of(piece, shop_of(workshop)).plan
        for cut in plan.cuts if plan else ():
            if cut.alike == cut.id:
                making.tick(workshop, piece.pk, "cut", cut.id)
    _formed(workshop, piece, extra.steps)
    if extra.tryon:
        _try_on(workshop, piece, extra.tryon)
    return piece


def _fitted(brief: dict[str, Any], shop: Shop) -> dict[str, Any]:
    """Return the piece with the best of what fits its wearer."""
    best = propose_raw(brief, shop)[0]
    whole: dict[str, Any] = read_brief(brief, shop).piece.model_dump(mode="json")
    fitted: dict[str, Any] = copy.deepcopy(brief["piece"])
    for edit in best.edits:
        *steps, last = edit.path
        at: Any = fitted
        top = str(edit.path[0])
        at.setdefault(top, whole[top])
        for step in steps:
            at = at[step]
        at[last] = edit.value
    return fitted


def _try_on(workshop: Workshop, piece: Piece, noted: dict[str, Any]) -> None:
    making.record_tryon(workshop, piece.pk, noted)


def _change(workshop: Workshop, piece: Piece, part: dict[str, Any]) -> Piece:
    piece.refresh_from_db()
    brief = piece.head.brief if piece.head else {}
    changed, _ = save_brief(workshop, piece.pk, piece.version, {**brief, **part})
    return changed
