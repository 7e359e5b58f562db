"""At the bench: ticking off cuts and steps, try-ons, finishing."""

from typing import Any

from django.db import IntegrityError, transaction
from django.db.models import Q
from django.utils import timezone

from jamreel.core.cutting.cuts import wire_keys
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
from jamreel.workshop.stock import give_back, use


class NothingToTick(Exception):
    """The plan has no such cut or step, or there is no plan."""


class AlreadyTicked(Exception):
    """Another tab was first."""


@transaction.atomic
def tick(
    workshop: Workshop,
    piece_id: int,
    kind: str,
    key: str,
    actual: str = "",
    stock_id: int | None = None,
    *,
    scrap_rest: bool = False,
) -> Piece:
    """Tick off a cut (with its actual length as typed) or a step.

    The first cut freezes the plan it is cut from. Cut and stock move together or not at all.

    Args:
        workshop: whose piece.
        piece_id: the piece.
        kind: ``cut`` or ``step``.
        key: of the step, or of one wire of a cut; a cut's own id ticks all of its wires.
        actual: length as cut, as typed; as planned when empty.
        stock_id: what it was cut from, when it came off the rack.
        scrap_rest: whether what is left of that is scrap.

    Raises:
        NothingToTick: the plan has no such cut or step.
        AlreadyTicked: it is ticked already.
        BriefRefused: the actual length can't be read, or is more than the rack has.
    """
    piece = row(Piece, workshop, piece_id)
    shop = shop_of(workshop)
    planned = work_out(brief_for_planning(piece), shop)
    if planned.plan is None:
        raise NothingToTick
    if kind == "cut":
        lengths: dict[str, float | None] = {
            k: cut.length_mm for cut in planned.plan.cuts for k in wire_keys(cut)
        }
        whole = {cut.id: wire_keys(cut) for cut in planned.plan.cuts}
        keys = whole.get(key, (key,))
    else:
        lengths, keys = {step.id: None for step in planned.plan.steps}, (key,)
    if any(one not in lengths for one in keys):
        raise NothingToTick
    if len(keys) > 1:
        ticked = {t.key for t in piece.ticks.all() if t.kind == kind and t.undone_at is None}
        keys = tuple(one for one in keys if one not in ticked)
        if not keys:
            raise AlreadyTicked
    key = keys[0]
    length = lengths.get(key)
    measured = length
    if actual.strip() and length is not None:
        with speaking(shop.language, shop.unit):
            try:
                measured = parse_length(actual, shop.unit)
            except Refusal as refusal:
                raise BriefRefused((problem(refusal.at(f"made.{key}")),)) from None
    for one in keys:
        try:
            with transaction.atomic():
                made = Tick.objects.create(
                    workshop=workshop,
                    piece=piece,
                    kind=kind,
                    key=one,
                    planned_mm=length,
                    actual_mm=measured,
                    ticked_at=timezone.now(),
                )
        except IntegrityError:
            raise AlreadyTicked from None
        if stock_id is not None and measured is not None:
            use(workshop, stock_id, measured, made, scrap_rest=scrap_rest)
    if kind == "cut":
        piece.frozen_plan = planned.plan.model_dump(mode="json", by_alias=True)
    settle(piece, shop, planned)
    return piece


@transaction.atomic
def untick(workshop: Workshop, piece_id: int, kind: str, key: str) -> Piece:
    """Take a tick back, and what it took off the rack; without any cut left the plan is no longer
    frozen."""
    piece = row(Piece, workshop, piece_id)
    standing = rows(Tick, workshop).filter(piece=piece, kind=kind, undone_at__isnull=True)
    # A cut's own id takes back all of its wires.
    found = list(standing.filter(Q(key=key) | Q(key__startswith=f"{key}#")))
    if not found:
        raise NothingToTick
    for one in found:
        one.undone_at = timezone.now()
        one.save(update_fields=["undone_at"])
        give_back(one)
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
