"""The cut board: what is still to be cut for some pieces, laid out on what the rack has."""

import math
from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

from jamreel.core.cutting.cuts import Cut, of_cut
from jamreel.core.cutting.nest import Laid, Nest, nest
from jamreel.core.cutting.problem import Rack, Wanted
from jamreel.core.result import Need
from jamreel.core.shop import Shop
from jamreel.core.workpiece.records import lacking
from jamreel.core.workpiece.trays import size_apart, tray_fits
from jamreel.workshop.models import Piece, Stock, Workshop
from jamreel.workshop.planning import plan_of, shop_of
from jamreel.workshop.stock import NOTHING, PIECE_KINDS, WIRE_KINDS, amounts, on_rack

# Work spent on one kind of wire, and on a whole board at most [s of a common machine].
WORK_EACH, WORK_ALL = 1.5, 4.0
MOST_BOUGHT = 40
# Pieces on one board: nobody cuts for more at a time.
MOST_ON_BOARD = 60


@dataclass(frozen=True)
class Outstanding:
    """A wire that is still to be cut: for which piece, its tick's key, the cut it is one of."""

    piece: Piece
    key: str
    cut: Cut

    @property
    def id(self) -> str:
        """A name of its own on the board."""
        return f"{self.piece.pk}/{self.key}"


@dataclass(frozen=True)
class Lane:
    """One piece of wire on the board, with what is cut from it, longest first [mm].

    ``stock`` is None for wire that has to be bought.
    """

    stock: Stock | None
    kind: str
    length: float
    cuts: tuple[Outstanding, ...]
    left: float
    scrap: float


@dataclass(frozen=True)
class Group:
    """Everything of one wire: its lanes, how good the plan is, money and mass.

    Lengths in mm; ``saved_mm`` is what first fit would scrap more, ``saved_lengths`` how many
    lengths more it would have bought.
    """

    key: str
    label: str
    colour: str
    wire_mm: float
    lanes: tuple[Lane, ...]
    unplaced: tuple[Outstanding, ...]
    found: Nest
    saved_mm: float
    saved_lengths: int
    buy_count: int
    buy_each_mm: float
    price_per_m: float | None
    mass_g: float
    scrap_g: float

    @property
    def cost(self) -> float | None:
        """What the wire costs: of the rack what is cut or scrapped, of what is bought all of it.

        None where its price is not known.
        """
        if self.price_per_m is None:
            return None
        paid = sum(lane.length if lane.stock is None else _used(lane) for lane in self.lanes)
        return paid / 1000 * self.price_per_m

    @property
    def saved(self) -> float | None:
        """What the nesting saved, in money."""
        if self.price_per_m is None:
            return None
        less = self.saved_lengths * self.buy_each_mm + self.saved_mm
        return less / 1000 * self.price_per_m


def _used(lane: Lane) -> float:
    return sum(one.cut.length_mm for one in lane.cuts) + lane.scrap


def outstanding(pieces: Sequence[Piece], shop: Shop) -> list[Outstanding]:
    """Return all wires of some pieces that are planned and not yet cut, plan by plan."""
    found = []
    for piece in pieces:
        planned = plan_of(piece, shop)
        cuts = {cut.id: cut for cut in planned.plan.cuts} if planned.plan else {}
        wanted = planned.standing.open_wires
        found += [Outstanding(piece, key, cuts[of_cut(key)[0]]) for key in wanted]
    return found


def lay_out(workshop: Workshop, pieces: Sequence[Piece]) -> list[Group]:
    """Return what is to be cut for some pieces, laid out on the rack, one group a wire.

    Args:
        workshop: whose rack.
        pieces: of the same workshop.

    Source: ``cutting.nest.nest``, group by group.
    """
    shop = shop_of(workshop)
    groups: dict[str, list[Outstanding]] = defaultdict(list)
    for one in outstanding(pieces, shop):
        groups[one.cut.stock].append(one)
    have = amounts(workshop)
    stocks = [s for s in on_rack(workshop) if s.kind in WIRE_KINDS]
    each = min(WORK_EACH, WORK_ALL / max(1, len(groups)))
    laid = [
        _group(wanted, [s for s in stocks if s.key == key], have, shop, each)
        for key, wanted in groups.items()
    ]
    # What the rack has comes first, and of that what is most work.
    return sorted(laid, key=lambda g: (g.buy_count > 0, -sum(len(n.cuts) for n in g.lanes)))


def _group(
    wanted: list[Outstanding], stocks: list[Stock], have: dict[int, float], shop: Shop, work: float
) -> Group:
    cuts = [Wanted(id=one.id, length=one.cut.length_mm) for one in wanted]
    racks = [
        Rack(id=str(s.pk), kind=s.kind, length=have.get(s.pk, 0.0))
        for s in stocks
        if have.get(s.pk, 0.0) > NOTHING
    ]
    found = _nested(tuple(cuts), tuple(racks), shop.keep_length, work)
    if found.unplaced:
        short = {one.id: one.cut.length_mm for one in wanted if one.id in set(found.unplaced)}
        sold = shop.sold_length * math.ceil(max(short.values()) / shop.sold_length)
        count = min(MOST_BOUGHT, 2 * math.ceil(sum(short.values()) / sold) + 1)
        bought = [Rack(id=f"buy{n}", kind="buy", length=sold) for n in range(count)]
        found = _nested(tuple(cuts), (*racks, *bought), shop.keep_length, work)
    by_id = {one.id: one for one in wanted}
    by_stock = {str(s.pk): s for s in stocks}
    lanes = tuple(_lane(laid, by_stock, by_id) for laid in found.laid)
    # A plan by hand that leaves something out is no like.
    as_many = found.first_fit_placed == sum(len(lane.cuts) for lane in lanes)
    to_buy = [lane for lane in lanes if lane.stock is None]
    cut, prices = wanted[0].cut, [s.price for s in stocks if s.price is not None]
    return Group(
        key=cut.stock,
        label=f"{cut.wire} {cut.metal}, {cut.temper}",
        colour=cut.colour,
        wire_mm=cut.wire_mm,
        lanes=lanes,
        unplaced=tuple(by_id[one] for one in found.unplaced),
        found=found,
        saved_mm=max(0.0, found.first_fit_scrap - found.scrap) if as_many else 0.0,
        saved_lengths=max(0, found.first_fit_bought - found.bought) if as_many else 0,
        buy_count=len(to_buy),
        buy_each_mm=to_buy[0].length if to_buy else 0.0,
        price_per_m=min(prices) if prices else None,
        mass_g=sum(one.cut.mass_g for one in wanted),
        scrap_g=cut.mass_g / cut.length_mm * found.scrap,
    )


def _lane(laid: Laid, stocks: dict[str, Stock], wanted: dict[str, Outstanding]) -> Lane:
    return Lane(
        stock=stocks.get(laid.rack.id),
        kind=laid.rack.kind,
        length=laid.rack.length,
        cuts=tuple(wanted[one] for one in laid.cuts),
        left=laid.left,
        scrap=laid.scrap,
    )


@lru_cache(maxsize=128)
def _nested(cuts: tuple[Wanted, ...], racks: tuple[Rack, ...], keep: float, work: float) -> Nest:
    """Return a plan for a board; while nothing changes a maker is shown the same one."""
    return nest(cuts, racks, keep, work=work)


@dataclass(frozen=True)
class Fetch:
    """Beads or findings that a piece takes, not fetched yet, and what on the rack may serve, the
    nearest in size first; ``count`` is how many are still missing."""

    piece: Piece
    need: Need
    count: int
    may_be: tuple[Stock, ...]


@dataclass(frozen=True)
class Short:
    """What the trays lack for some pieces: what, in which size, how many to buy."""

    label: str
    size: str
    count: int


def to_fetch(workshop: Workshop, pieces: Sequence[Piece]) -> list[Fetch]:
    """Return the beads and findings that some pieces still take, piece by piece.

    Args:
        workshop: whose trays.
        pieces: of the same workshop.

    Source: plain counting; ``workpiece.trays.tray_fits``.
    """
    shop = shop_of(workshop)
    trays = [s for s in on_rack(workshop) if s.kind in PIECE_KINDS]
    found = []
    for piece in pieces:
        planned = plan_of(piece, shop)
        for need in planned.plan.needs if planned.plan else ():
            count = sum(lacking(need, planned.records).values())
            if count:
                found.append(Fetch(piece, need, count, _may_be(need, trays)))
    return found


def _may_be(need: Need, trays: Sequence[Stock]) -> tuple[Stock, ...]:
    """Return what is of the kind of a need, what fits first, the nearest in size before others."""
    kind = [s for s in trays if s.kind == need.kind]
    return tuple(
        sorted(kind, key=lambda s: (not fits_need(need, s), size_apart(need, s.size_mm), s.name))
    )


def fits_need(need: Need, stock: Stock) -> bool:
    """Return whether a tray holds what is needed; see ``workpiece.trays.tray_fits``."""
    return tray_fits(need, stock.size_mm, stock.name)


def cost_of(fetch: Sequence[Fetch]) -> float:
    """Return what beads and findings cost, as far as the trays that fit have a price."""
    return sum(one.count * (_price_of(one) or 0.0) for one in fetch)


def _price_of(one: Fetch) -> float | None:
    """Return what one of it costs, None where no tray that fits has a price."""
    fitting = (tray for tray in one.may_be if fits_need(one.need, tray))
    return next((tray.price for tray in fitting if tray.price is not None), None)


def unpriced(groups: Sequence[Group], fetch: Sequence[Fetch]) -> list[str]:
    """Return what some pieces take that has no price, by name: no sum counts it."""
    wires = [one.label for one in groups if one.price_per_m is None]
    beads = [f"{one.need.size}, {one.need.label}" for one in fetch if _price_of(one) is None]
    return list(dict.fromkeys([*wires, *beads]))


def short_of(workshop: Workshop, fetch: Sequence[Fetch]) -> list[Short]:
    """Return what has to be bought beside wire.

    Args:
        workshop: whose trays.
        fetch: what is to be fetched.

    Source: plain counting; what has no size on the tray counts as missing.
    """
    have = amounts(workshop)
    wanted: dict[tuple[str, str], list[Fetch]] = defaultdict(list)
    for one in fetch:
        wanted[(one.need.label, one.need.size)].append(one)
    found = []
    for (label, size), several in wanted.items():
        need = several[0].need
        there = sum(have.get(s.pk, 0.0) for s in several[0].may_be if fits_need(need, s))
        lacks = sum(one.count for one in several) - round(there)
        if lacks > 0:
            found.append(Short(label, size, lacks))
    return found
