"""What becomes of wire and beads that no longer suit the plan: trimmed, kept, put to other use."""

from typing import Any

from django.db import transaction
from django.utils import timezone

from jamreel.core.plan import read_brief
from jamreel.core.shop import Shop
from jamreel.core.wire.metals import as_typed, typed_by_key
from jamreel.core.workpiece.records import NeedNow, WireNow
from jamreel.workshop.making import NothingToTick
from jamreel.workshop.models import Piece, Stock, Tick, Workshop
from jamreel.workshop.ownership import row, rows
from jamreel.workshop.pieces import settle, shop_of
from jamreel.workshop.planning import Planned, plan_of
from jamreel.workshop.stock import add_stock, return_some


def resolve(workshop: Workshop, piece_id: int, key: str, way: str, to: str = "") -> Piece:
    """Settle one wire that was cut, or beads that were fetched, with the plan of now.

    Args:
        workshop: whose piece.
        piece_id: the piece.
        key: of the wire or of the beads.
        way: ``trim`` a wire that is too long; ``keep`` one as it is; give one back as an
            ``offcut``; let one ``serve`` another need of the piece; ``put_back`` beads too many.
        to: the wire that it is to become, when it serves another need.

    Raises:
        NothingToTick: no such wire stands, or it can't be settled that way.
    """
    shop = shop_of(workshop)
    plan_of(row(Piece, workshop, piece_id), shop)
    with transaction.atomic():
        piece = row(Piece, workshop, piece_id)
        # Ticks of an earlier format get their new names first.
        settle(piece, shop)
        planned = plan_of(piece, shop)
        kind = "need" if way == "put_back" else "cut"
        standing = rows(Tick, workshop).filter(piece=piece, kind=kind, undone_at__isnull=True)
        tick = standing.filter(key=key).first()
        if tick is None or planned.plan is None:
            raise NothingToTick
        if way == "put_back":
            _put_back(tick, next((n for n in planned.standing.needs if n.key == key), None))
        else:
            wire = next(w for w in planned.standing.wires if w.key == key)
            {"trim": _trim, "keep": _keep, "offcut": _offcut, "serve": _serve}[way](
                tick, wire, planned, shop, to
            )
        settle(piece, shop)
    return piece


def _trim(tick: Tick, wire: WireNow, planned: Planned, shop: Shop, to: str) -> None:
    if wire.verdict != "long" or wire.wanted_mm is None:
        raise NothingToTick
    tick.actual = tick.planned = wire.wanted_mm
    tick.save(update_fields=["actual", "planned"])


def _keep(tick: Tick, wire: WireNow, planned: Planned, shop: Shop, to: str) -> None:
    if wire.wanted_mm is None or wire.verdict not in ("long", "short"):
        raise NothingToTick
    tick.planned = wire.wanted_mm
    tick.save(update_fields=["planned"])


def _serve(tick: Tick, wire: WireNow, planned: Planned, shop: Shop, to: str) -> None:
    other = next((fits for fits in wire.serves if fits.key == to), None)
    if other is None:
        raise NothingToTick
    tick.key, tick.planned = other.key, other.wanted_mm
    tick.what = {**tick.what, "says": other.says}
    tick.save(update_fields=["key", "planned", "what"])


def _offcut(tick: Tick, wire: WireNow, planned: Planned, shop: Shop, to: str) -> None:
    """Take the tick back, and hang what was cut on the rack as an offcut of its own."""
    typed = _wire_typed(tick, shop)
    if typed is None:
        raise NothingToTick
    add_stock(
        tick.workshop,
        {"kind": "offcut", "wire": typed, "amount": f"{wire.actual_mm:.3f} mm"},
    )
    tick.undone_at = timezone.now()
    tick.save(update_fields=["undone_at"])


def _wire_typed(tick: Tick, shop: Shop) -> dict[str, Any] | None:
    """Return what wire a tick was cut from, as a maker would type it."""
    used = tick.movements.filter(undone_by__isnull=True, amount__lt=0).select_related("stock")
    stock: Stock | None = next((movement.stock for movement in used), None)
    if stock is not None:
        return dict(stock.wire)
    key = str(tick.what.get("stock", ""))
    by_key = typed_by_key(key)
    if by_key is not None or not key:
        return by_key
    head = tick.piece.head
    return as_typed(read_brief(head.brief, shop).wire) if head else None


def _put_back(tick: Tick, need: NeedNow | None) -> None:
    if need is None or need.verdict not in ("fewer", "not_needed"):
        raise NothingToTick
    return_some(tick, need.by)
    tick.actual = tick.planned = float(need.fetched - need.by)
    if need.verdict == "not_needed":
        tick.undone_at = timezone.now()
    tick.save(update_fields=["actual", "planned", "undone_at"])
