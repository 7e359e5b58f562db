"""What becomes of wire and beads that no longer suit the plan: trimmed, kept, put to other use."""

from collections.abc import Callable
from functools import partial
from typing import Any

from jamreel.core.plan import read_brief
from jamreel.core.wire.metals import as_typed, typed_by_key
from jamreel.core.workpiece.records import NeedNow, WireNow
from jamreel.workshop.making import NothingToTick
from jamreel.workshop.models import Stock, Tick, Workshop
from jamreel.workshop.stock import hang, read_stock, return_some
from jamreel.workshop.turns import Turn, take_turn


def resolve(workshop: Workshop, piece_id: int, key: str, way: str, to: str = "") -> None:
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

    def change(turn: Turn) -> None:
        planned = turn.planned
        kind = "need" if way == "put_back" else "cut"
        tick = next((t for t in turn.ticks if (t.kind, t.key) == (kind, key)), None)
        if tick is None or planned.plan is None:
            raise NothingToTick
        if way == "put_back":
            need = next((n for n in planned.standing.needs if n.key == key), None)
            _put_back(turn, tick, need)
        else:
            wire = next(w for w in planned.standing.wires if w.key == key)
            _WAYS[way](turn, tick, wire, to)

    take_turn(workshop, piece_id, change)


def _trim(turn: Turn, tick: Tick, wire: WireNow, to: str) -> None:
    if wire.verdict != "long" or wire.wanted_mm is None:
        raise NothingToTick
    tick.actual = tick.planned = wire.wanted_mm
    turn.keep(tick)


def _keep(turn: Turn, tick: Tick, wire: WireNow, to: str) -> None:
    if wire.wanted_mm is None or wire.verdict not in ("long", "short"):
        raise NothingToTick
    tick.planned = wire.wanted_mm
    turn.keep(tick)


def _serve(turn: Turn, tick: Tick, wire: WireNow, to: str) -> None:
    other = next((fits for fits in wire.serves if fits.key == to), None)
    if other is None:
        raise NothingToTick
    tick.key, tick.planned = other.key, other.wanted_mm
    tick.what = {**tick.what, "says": other.says}
    turn.keep(tick)


def _offcut(turn: Turn, tick: Tick, wire: WireNow, to: str) -> None:
    """Take the tick back, and hang what was cut on the rack as an offcut of its own."""
    typed = _wire_typed(turn, tick)
    if typed is None:
        raise NothingToTick
    offcut = {"kind": "offcut", "wire": typed, "amount": f"{wire.actual_mm:.3f} mm"}
    stock, amount = read_stock(tick.workshop, offcut)
    turn.then(partial(hang, stock, amount))
    turn.take_back(tick)


_WAYS: dict[str, Callable[[Turn, Tick, WireNow, str], None]] = {
    "trim": _trim,
    "keep": _keep,
    "offcut": _offcut,
    "serve": _serve,
}


def _wire_typed(turn: Turn, tick: Tick) -> dict[str, Any] | None:
    """Return what wire a tick was cut from, as a maker would type it."""
    used = tick.movements.filter(undone_by__isnull=True, amount__lt=0).select_related("stock")
    stock: Stock | None = next((movement.stock for movement in used), None)
    if stock is not None:
        return dict(stock.wire)
    key = str(tick.what.get("stock", ""))
    by_key = typed_by_key(key)
    if by_key is not None or not key:
        return by_key
    return as_typed(read_brief(turn.head.brief, turn.shop).wire)


def _put_back(turn: Turn, tick: Tick, need: NeedNow | None) -> None:
    if need is None or need.verdict not in ("fewer", "not_needed"):
        raise NothingToTick
    turn.then(partial(return_some, tick, need.by))
    tick.actual = tick.planned = float(need.fetched - need.by)
    if need.verdict == "not_needed":
        turn.take_back(tick)
    else:
        turn.keep(tick)
