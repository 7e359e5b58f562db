"""The rack: what there is, and every gain and use of it as a movement.

Stock is the sum of its movements and never negative. What is typed is read before anything is
locked; writes run in one immediate transaction each (see settings), so that the sum which is read
before a movement still stands when it is written.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from django.db import transaction
from django.db.models import F, QuerySet, Sum, Window
from django.db.models.functions import RowNumber
from django.utils import timezone

from jamreel.core.errors import Refusal
from jamreel.core.forming.chosen import Known, Wire, chosen, length_of_mass
from jamreel.core.plan import BriefRefused, in_words, refuse_in_words
from jamreel.core.shop import Shop
from jamreel.core.units import parse_length, plain_number
from jamreel.core.wire.metals import WireChoice
from jamreel.devices.readings import parse_mass
from jamreel.workshop.models import Movement, Stock, Tick, Workshop
from jamreel.workshop.naming import clean_text
from jamreel.workshop.ownership import row, rows
from jamreel.workshop.planning import shop_of
from jamreel.workshop.quotas import room_for

WIRE_KINDS = ("reel", "length", "offcut")
PIECE_KINDS = ("bead", "finding")
REASONS = ("bought", "counted", "weighed", "used", "spoiled", "scrapped", "undone", "returned")
# What is left of a length is nothing when it is less than a tenth of a millimetre.
NOTHING = 0.05
LONGEST_NAME = 80


@dataclass(frozen=True)
class Weighed:
    """What a scale says is left on a reel: length [mm], and ± by the scale's last digit."""

    length_mm: float
    plus_minus_mm: float


def amounts(workshop: Workshop) -> dict[int, float]:
    """Return what there is of everything on the rack, by stock."""
    summed = rows(Movement, workshop).values_list("stock").annotate(total=Sum("amount"))
    return {stock: total or 0.0 for stock, total in summed}


def amount_of(stock: Stock) -> float:
    """Return what there is of one thing: the sum of its movements."""
    total = rows(Movement, stock.workshop).filter(stock=stock).aggregate(total=Sum("amount"))
    return float(total["total"] or 0.0)


def last_movements(workshop: Workshop, count: int = 8) -> dict[int, list[Movement]]:
    """Return the last gains and uses of everything on the rack, the newest first, by stock."""
    place = Window(RowNumber(), partition_by=F("stock"), order_by=F("id").desc())
    newest = rows(Movement, workshop).annotate(place=place).filter(place__lte=count)
    found: dict[int, list[Movement]] = {}
    for movement in newest.select_related("undone_by").order_by("-id"):
        found.setdefault(movement.stock_id, []).append(movement)
    return found


def on_rack(workshop: Workshop) -> QuerySet[Stock]:
    """Return everything on the rack that was not put away."""
    return rows(Stock, workshop).filter(put_away_at__isnull=True)


def wire_of(typed: dict[str, Any], shop: Shop) -> Wire:
    """Return the wire of a piece of stock as typed. Raises BriefRefused."""
    context = {"unit": shop.unit, "gauge_system": shop.gauge_system}

    def read() -> Wire:
        return chosen(WireChoice.model_validate(typed, context=context), Known(shop.metals))

    return in_words(read, shop, ("wire",))


def wire_or_why(stock: Stock) -> tuple[Wire | None, str]:
    """Return the wire of a piece of stock, or None and why it can't be read any more."""
    if not stock.wire or stock.kind not in WIRE_KINDS:
        return None, ""
    try:
        return wire_of(stock.wire, shop_of(stock.workshop)), ""
    except BriefRefused as refused:
        return None, " ".join(problem.says for problem in refused.problems)


def add_stock(workshop: Workshop, typed: dict[str, Any]) -> Stock:
    """Return a new piece of stock with what there is of it.

    Args:
        workshop: whose rack.
        typed: kind, name, wire, amount, tare, price, low, size, hole, as typed.

    Raises:
        BriefRefused: naming the field that can't be used, or no room for one more.
    """
    stock, amount = read_stock(workshop, typed)
    room_for(workshop, Stock)
    with transaction.atomic():
        return hang(stock, amount)


def read_stock(workshop: Workshop, typed: dict[str, Any]) -> tuple[Stock, float]:
    """Return a new piece of stock and how much of it there is, not on the rack yet.

    Args and errors as for ``add_stock``.
    """
    shop = shop_of(workshop)
    stock = Stock(workshop=workshop)
    _fill(stock, typed, shop)
    return stock, _amount(stock, typed.get("amount", ""), shop)


def hang(stock: Stock, amount: float) -> Stock:
    """Put new stock on the rack, inside a transaction."""
    stock.save()
    _move(stock, amount, "counted")
    return stock


def hang_all(found: Sequence[tuple[Stock, float]]) -> None:
    """Put much new stock on the rack at once, inside a transaction."""
    Stock.objects.bulk_create([stock for stock, _ in found])
    now = timezone.now()
    Movement.objects.bulk_create(
        Movement(workshop=stock.workshop, stock=stock, amount=amount, reason="counted", at=now)
        for stock, amount in found
        if amount
    )


def change_stock(workshop: Workshop, stock_id: int, typed: dict[str, Any]) -> Stock:
    """Change what is known of a piece of stock; what there is of it moves by movements only."""
    stock = row(Stock, workshop, stock_id)
    _fill(stock, typed, shop_of(workshop))
    stock.save(update_fields=FILLED)
    return stock


# What is known of stock, beside what there is of it.
FILLED = ("kind", "name", "wire", "key", "said", "tare_g", "price", "low", "size_mm", "hole_mm")


def _fill(stock: Stock, typed: dict[str, Any], shop: Shop) -> None:
    kind = str(typed.get("kind", ""))
    if kind not in (*WIRE_KINDS, *PIECE_KINDS):
        refuse_in_words(
            Refusal("stock_kind", got=kind, field="kind", known=", ".join(WIRE_KINDS)), shop
        )
    stock.kind = kind
    stock.tare_g = _number(typed, "tare", shop, mass=True) or 0.0
    stock.price = _number(typed, "price", shop)
    low = length_typed(typed, "low", shop) if kind in WIRE_KINDS else _number(typed, "low", shop)
    stock.low = low or 0.0
    stock.size_mm, stock.hole_mm = (
        length_typed(typed, "size", shop),
        length_typed(typed, "hole", shop),
    )
    if kind in WIRE_KINDS:
        wire_typed = typed.get("wire") or {}
        stock.wire = wire_typed if isinstance(wire_typed, dict) else {"size": wire_typed}
        wire = wire_of(stock.wire, shop)
        stock.key = wire.key
        stock.said = f"{wire.label} {wire.metal.name}"
    stock.name = _name(str(typed.get("name") or stock.said), shop)


def _name(typed: str, shop: Shop) -> str:
    try:
        name = clean_text(typed)
    except ValueError as error:
        refuse_in_words(Refusal("name", got=typed, field="name", detail=str(error)), shop)
    if not name:
        refuse_in_words(Refusal("missing", got=None, field="name"), shop)
    if len(name) > LONGEST_NAME:
        refuse_in_words(Refusal("name_long", got=len(name), field="name", most=LONGEST_NAME), shop)
    return name


def length_typed(typed: dict[str, Any], name: str, shop: Shop) -> float | None:
    """Return a length as typed, None where none was. Raises BriefRefused at its name."""
    given = typed.get(name)
    if given in (None, ""):
        return None

    def read() -> float:
        try:
            return parse_length(given, shop.unit)
        except Refusal as refusal:
            raise refusal.at(name) from None

    return in_words(read, shop)


def _number(typed: dict[str, Any], name: str, shop: Shop, *, mass: bool = False) -> float | None:
    given = typed.get(name)
    if given in (None, ""):
        return None

    def read() -> float:
        try:
            return parse_mass(given) if mass else parse_price(given)
        except Refusal as refusal:
            raise refusal.at(name) from None

    return in_words(read, shop)


def parse_price(given: object) -> float:
    """Return a price or a count as typed, in the maker's own money. Raises Refusal."""
    try:
        value = plain_number(str(given))
    except ValueError:
        raise Refusal("number", got=given) from None
    if not 0 <= value < 1e7:
        raise Refusal("number", got=given)
    return value


def parse_count(given: object) -> float:
    """Return a whole number of pieces as typed. Raises Refusal."""
    value = parse_price(given)
    if value != round(value):
        raise Refusal("whole_number", got=given)
    return value


def _amount(stock: Stock, given: object, shop: Shop) -> float:
    """Return an amount as typed: a length of wire, or a count of pieces."""
    if given in (None, ""):
        return 0.0
    typed = {"amount": given}
    if stock.kind in WIRE_KINDS:
        return length_typed(typed, "amount", shop) or 0.0
    return float(round(_number(typed, "amount", shop) or 0.0))


def move(workshop: Workshop, stock_id: int, given: str, reason: str, note: str = "") -> Stock:
    """Write a gain or a use of stock, as typed.

    Args:
        workshop: whose rack.
        stock_id: of what.
        given: length or count; ``counted`` says how much there is now, the others how much moves.
        reason: one of ``REASONS`` that a maker may give.
        note: why, in the maker's words.

    Raises:
        BriefRefused: an amount that can't be read, or more than there is.
    """
    stock, shop = row(Stock, workshop, stock_id), shop_of(workshop)
    amount = _amount(stock, given, shop)
    room_for(workshop, Movement)
    with transaction.atomic():
        if reason == "counted":
            amount -= amount_of(stock)
        elif reason in ("spoiled", "scrapped", "used"):
            amount = -amount
        _take(stock, amount, reason, shop, note=note)
    return stock


def weigh(workshop: Workshop, stock_id: int, given: str, resolution: float = 0.1) -> Weighed:
    """Set a reel to what the scale says is left on it.

    Args:
        workshop: whose rack.
        stock_id: the reel.
        given: what the scale sent, reel and wire together.
        resolution: the scale's last digit [g].

    Returns:
        Remaining length and its ±, half a digit either way.

    Raises:
        BriefRefused: no reading, or less than the empty reel.
    """
    stock, shop = row(Stock, workshop, stock_id), shop_of(workshop)

    def read() -> Weighed:
        try:
            mass = parse_mass(given)
        except Refusal as refusal:
            raise refusal.at("mass") from None
        wire = wire_of(stock.wire, shop)
        try:
            length = length_of_mass(mass, stock.tare_g, wire.area, wire.metal.density)
        except ValueError:
            raise Refusal("under_tare", got=given, field="mass", tare=stock.tare_g) from None
        step = resolution / 2 / wire.mass(1.0)
        return Weighed(length, step)

    if stock.kind not in WIRE_KINDS:
        refuse_in_words(Refusal("not_weighed", got=stock.name, field="mass"), shop)
    found = in_words(read, shop)
    with transaction.atomic():
        more = found.length_mm - amount_of(stock)
        _move(stock, more, "weighed", note=str(given).strip()[:200])
    return found


def _take(stock: Stock, amount: float, reason: str, shop: Shop, **more: Any) -> Movement | None:
    """Write a movement, unless it takes more than there is. Raises BriefRefused."""
    left = amount_of(stock)
    if left + amount < -NOTHING:
        short = Refusal(
            "stock_short", got=f"{-amount:g}", field="stock", name=stock.name, left=round(left, 1)
        )
        refuse_in_words(short, shop)
    return _move(stock, max(amount, -left), reason, **more)


def _move(stock: Stock, amount: float, reason: str, **more: Any) -> Movement | None:
    if amount == 0:
        return None
    return Movement.objects.create(
        workshop=stock.workshop,
        stock=stock,
        amount=amount,
        reason=reason,
        at=timezone.now(),
        **more,
    )


def use(stock: Stock, amount: float, tick: Tick, wanted: str, *, scrap_rest: bool = False) -> None:
    """Take a cut wire, or beads, off a piece of stock, inside the transaction of its tick.

    Args:
        stock: reel, length or offcut; a tray of beads or findings.
        amount: as cut [mm]; of beads how many.
        tick: that it belongs to.
        wanted: key of the wire to cut; of beads and findings their kind.
        scrap_rest: whether what is left is scrap, which goes to no further use.

    Raises:
        BriefRefused: more than there is, something else than is wanted, or stock put away.
    """
    shop = shop_of(stock.workshop)
    kinds, wrong = (PIECE_KINDS, "not_on_tray") if tick.kind == "need" else (WIRE_KINDS, "not_wire")
    if stock.kind not in kinds:
        refuse_in_words(Refusal(wrong, got=stock.name, field="stock"), shop)
    is_of = stock.kind if tick.kind == "need" else stock.key
    if wanted and is_of != wanted:
        of = {"need": "not_this_kind"}.get(tick.kind, "not_this_wire")
        refuse_in_words(Refusal(of, got=stock.name, field="stock", name=stock.name), shop)
    # What the rack says now: it may have been put away since it was looked up.
    if rows(Stock, stock.workshop).filter(pk=stock.pk, put_away_at__isnull=False).exists():
        refuse_in_words(
            Refusal("stock_put_away", got=stock.name, field="stock", name=stock.name), shop
        )
    _take(stock, -amount, "used", shop, tick=tick)
    if scrap_rest and stock.kind != "reel":
        _move(stock, -amount_of(stock), "scrapped", tick=tick)


def give_back(tick: Tick) -> None:
    """Undo all movements of a tick, inside the transaction that takes the tick back."""
    for movement in rows(Movement, tick.workshop).filter(tick=tick, undone_by__isnull=True):
        if movement.undoes_id is None:
            _move(movement.stock, -movement.amount, "undone", tick=tick, undoes=movement)


def return_some(tick: Tick, count: float) -> None:
    """Put some of what a tick took back where it came from, inside its transaction.

    Args:
        tick: that took it.
        count: how many, or how long [mm].
    """
    taken = rows(Movement, tick.workshop).filter(tick=tick, undone_by__isnull=True, amount__lt=0)
    for movement in reversed(taken):
        back = min(count, -movement.amount)
        _move(movement.stock, back, "returned", tick=tick)
        count -= back
        if count <= 0:
            return


def spoil(workshop: Workshop, stock_id: int, given: str, note: str) -> Stock:
    """Write off a length that was cut wrong; what is still wanted is laid out anew."""
    return move(workshop, stock_id, given, "spoiled", note)
