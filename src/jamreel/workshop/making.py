"""At the bench: ticking off cuts and steps, try-ons, finishing."""

from typing import Any

from django.db import IntegrityError, transaction
from django.db.models import Q
from django.utils import timezone

from jamreel.core.cutting.cuts import wire_keys
from jamreel.core.errors import Refusal
from jamreel.core.plan import BriefRefused, Plan
from jamreel.core.shop import Shop
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
from jamreel.workshop.stock import give_back, parse_count, use


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
    """Tick off a cut (with its actual length as typed), a step, or beads that were fetched.

    The first cut freezes the plan it is cut from. Cut and stock move together or not at all.

    Args:
        workshop: whose piece.
        piece_id: the piece.
        kind: ``cut``, ``step``, or ``need`` for beads and findings.
        key: of the step or need, or of one wire of a cut; a cut's own id ticks all of its wires.
        actual: length as cut, or how many were taken, as typed; as planned when empty.
        stock_id: what it was cut or taken from, when it came off the rack.
        scrap_rest: whether what is left of that is scrap.

    Raises:
        NothingToTick: the plan has no such cut or step.
        AlreadyTicked: it is ticked already.
        BriefRefused: the actual amount can't be read, or is more than the rack has.
    """
    piece = row(Piece, workshop, piece_id)
    shop = shop_of(workshop)
    planned = work_out(brief_for_planning(piece), shop)
    if planned.plan is None:
        raise NothingToTick
    there = _tickable(planned.plan, kind)
    keys = tuple(one for one in there if one == key or one.startswith(f"{key}#"))
    if not keys:
        raise NothingToTick
    ticked = {t.key for t in piece.ticks.all() if t.kind == kind and t.undone_at is None}
    if len(keys) > 1 and not (keys := tuple(one for one in keys if one not in ticked)):
        raise AlreadyTicked
    planned_as = there[keys[0]]
    measured = _as_typed(actual, planned_as, kind, keys[0], shop)
    for one in keys:
        try:
            with transaction.atomic():
                made = Tick.objects.create(
                    workshop=workshop,
                    piece=piece,
                    kind=kind,
                    key=one,
                    planned_mm=planned_as if kind == "cut" else None,
                    actual_mm=measured if kind == "cut" else None,
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


def _tickable(plan: Plan, kind: str) -> dict[str, float | None]:
    """Return what of a kind can be ticked, with the length [mm] or count that it takes."""
    if kind == "cut":
        return {key: cut.length_mm for cut in plan.cuts for key in wire_keys(cut)}
    if kind == "need":
        return {need.id: float(need.quantity) for need in plan.needs}
    return {step.id: None for step in plan.steps}


def _as_typed(actual: str, planned: float | None, kind: str, key: str, shop: Shop) -> float | None:
    """Return the amount as typed, or as planned. Raises BriefRefused at what was made."""
    if not actual.strip() or planned is None:
        return planned
    with speaking(shop.language, shop.unit):
        try:
            return parse_length(actual, shop.unit) if kind == "cut" else parse_count(actual)
        except Refusal as refusal:
            raise BriefRefused((problem(refusal.at(f"made.{key}")),)) from None


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
