"""At the bench: ticking off cuts and steps, try-ons, finishing."""

from typing import Any

from django.db import IntegrityError, transaction
from django.utils import timezone

from jamreel.core.errors import Refusal
from jamreel.core.plan import BriefRefused
from jamreel.core.units import parse_length
from jamreel.core.words import problem, speaking
from jamreel.workshop.models import Piece, Tick, TryOnRecord, Workshop
from jamreel.workshop.ownership import row, rows
from jamreel.workshop.pieces import (
    StaleSave,
    brief_for_planning,
    save_brief,
    settle,
    shop_of,
    work_out,
)


class NothingToTick(Exception):
    """The plan has no such cut or step, or there is no plan."""


class AlreadyTicked(Exception):
    """Another tab was first."""


@transaction.atomic
def tick(workshop: Workshop, piece_id: int, kind: str, key: str, actual: str = "") -> Piece:
    """Tick off a cut (with its actual length as typed) or a step.

    The first cut freezes the plan it is cut from.

    Raises:
        NothingToTick: the plan has no such cut or step.
        AlreadyTicked: it is ticked already.
        BriefRefused: the actual length can't be read.
    """
    piece = row(Piece, workshop, piece_id)
    shop = shop_of(workshop)
    planned = work_out(brief_for_planning(piece), shop)
    if planned.plan is None:
        raise NothingToTick
    if kind == "cut":
        lengths = {cut.id: cut.length_mm for cut in planned.plan.cuts}
        known = set(lengths)
    else:
        lengths, known = {}, {step.id for step in planned.plan.steps}
    if key not in known:
        raise NothingToTick
    length = lengths.get(key)
    measured = length
    if actual.strip() and length is not None:
        with speaking(shop.language, shop.unit):
            try:
                measured = parse_length(actual, shop.unit)
            except Refusal as refusal:
                raise BriefRefused((problem(refusal.at(f"made.{key}")),)) from None
    try:
        with transaction.atomic():
            Tick.objects.create(
                workshop=workshop,
                piece=piece,
                kind=kind,
                key=key,
                planned_mm=length,
                actual_mm=measured,
                ticked_at=timezone.now(),
            )
    except IntegrityError:
        raise AlreadyTicked from None
    if kind == "cut":
        piece.frozen_plan = planned.plan.model_dump(mode="json", by_alias=True)
    settle(piece, shop, planned)
    return piece


@transaction.atomic
def untick(workshop: Workshop, piece_id: int, kind: str, key: str) -> Piece:
    """Take a tick back; without any cut left the plan is no longer frozen."""
    piece = row(Piece, workshop, piece_id)
    standing = rows(Tick, workshop).filter(piece=piece, kind=kind, key=key, undone_at__isnull=True)
    if not standing.update(undone_at=timezone.now()):
        raise NothingToTick
    if not piece.ticks.filter(kind="cut", undone_at__isnull=True).exists():
        piece.frozen_plan = None
    settle(piece, shop_of(workshop))
    return piece


@transaction.atomic
def record_tryon(workshop: Workshop, piece_id: int, version: int) -> Piece:
    """Keep the try-on that stands in the brief, with its answer, and clear it there.

    Raises:
        StaleSave: the brief has moved on.
        NothingToTick: nothing was noted, or there is no plan to judge it by.
    """
    piece = row(Piece, workshop, piece_id)
    if piece.version != version:
        raise StaleSave(piece)
    shop = shop_of(workshop)
    brief: dict[str, Any] = dict(piece.head.brief) if piece.head else {}
    plan = work_out(brief_for_planning(piece), shop).plan
    if plan is None or plan.putting_right is None:
        raise NothingToTick
    TryOnRecord.objects.create(
        workshop=workshop,
        piece=piece,
        noted=brief["tryon"],
        answer=plan.putting_right.model_dump(mode="json"),
        noted_at=timezone.now(),
    )
    # The note is history now; the brief goes back to what is decided.
    piece, _ = save_brief(workshop, piece_id, version, {**brief, "tryon": None})
    return piece


@transaction.atomic
def mark_put_right(workshop: Workshop, piece_id: int, tryon_id: int) -> Piece:
    """Say that what a try-on asked for is done; the piece waits for the next try-on."""
    piece = row(Piece, workshop, piece_id)
    record = row(TryOnRecord, workshop, tryon_id)
    record.done = True
    record.save(update_fields=["done"])
    settle(piece, shop_of(workshop))
    return piece


@transaction.atomic
def finish(workshop: Workshop, piece_id: int, *, finished: bool) -> Piece:
    """Close a piece as done, or open it again."""
    piece = row(Piece, workshop, piece_id)
    piece.finished_at = timezone.now() if finished else None
    settle(piece, shop_of(workshop))
    return piece
