"""What is on record of a maker's hand: samples and finished pieces, summed up for the plans.

A record is never deleted; one that is set aside no longer counts, and says why.
"""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Any

from django.db import transaction
from django.db.models import Count, F, Max, QuerySet, Sum

from jamreel.core.errors import Refusal
from jamreel.core.forming.chosen import Wire
from jamreel.core.hand.hand import MOST_LINES
from jamreel.core.path.loops import loop_takes
from jamreel.core.path.moves import Wrap, developed_length
from jamreel.core.units import Mm
from jamreel.core.workpiece.questions import LEAST_RATIO, MOST_RATIO, Told
from jamreel.workshop import clock
from jamreel.workshop.models import HandRecord, Piece, Stock, Workshop
from jamreel.workshop.ownership import row, rows
from jamreel.workshop.planning import refuse, shop_of
from jamreel.workshop.quotas import room_for
from jamreel.workshop.shops import change_hand
from jamreel.workshop.stock import WIRE_KINDS, length_typed, parse_count, wire_of

# Minutes beside these say that a clock was forgotten, not how somebody works.
LEAST_PACE, MOST_PACE = 0.05, 20.0
# So many turns are wound for a sample where nobody says otherwise.
USUAL_TURNS = 10


@dataclass(frozen=True)
class Sample:
    """A sample as typed: which, of what wire, what it was made on, how often, and what it took."""

    kind: str
    stock_id: int
    typed: dict[str, str]
    note: str = ""


def note_sample(workshop: Workshop, sample: Sample) -> HandRecord:
    """Put a sample on record: a trial loop unrolled, or so many turns of a coil.

    Args:
        workshop: whose hand.
        sample: ``loop`` on a pin, ``wrapped_loop`` with its wraps, ``coil`` of so many turns.

    Raises:
        BriefRefused: naming the field that can't be used.
    """
    stock, shop = row(Stock, workshop, sample.stock_id), shop_of(workshop)
    if stock.kind not in WIRE_KINDS:
        refuse(workshop, Refusal("trial_no_wire_here", got=stock.name, field="stock"))
    wire = wire_of(stock.wire, shop)
    pin, took = (_given(workshop, sample.typed, name) for name in ("pin", "took"))
    if pin <= 0:
        refuse(workshop, Refusal("sample_pin", got=Mm(pin), field="pin"))
    turns = _turns(workshop, sample.typed)
    planned = _PLANNED[sample.kind](pin, turns, wire)
    if not LEAST_RATIO <= took / planned <= MOST_RATIO:
        refuse(workshop, Refusal("sample_far", got=Mm(took), field="took", likely=planned))
    record = HandRecord(
        workshop=workshop,
        kind="wire",
        technique=sample.kind,
        stock=wire.key,
        planned=planned,
        took=took,
        source="sample",
        reel=stock,
        note=sample.note.strip()[:200],
    )
    put_on_record(workshop, [record])
    return record


_PLANNED = {
    "loop": lambda pin, turns, wire: loop_takes(pin, wire.bend_adds),
    "wrapped_loop": lambda pin, turns, wire: (
        loop_takes(pin, wire.bend_adds) + _wound(wire.d, turns, wire)
    ),
    "coil": lambda pin, turns, wire: _wound(pin, turns, wire),
}


def _wound(core: float, turns: float, wire: Wire) -> float:
    return developed_length((Wrap(turns=turns, core=core),), wire.bend_adds)


def _given(workshop: Workshop, typed: dict[str, str], name: str) -> float:
    found = length_typed(dict(typed), name, shop_of(workshop))
    if found is None:
        refuse(workshop, Refusal("missing", got=None, field=name))
    return found


def _turns(workshop: Workshop, typed: dict[str, str]) -> float:
    given = typed.get("turns", "").strip()
    if not given:
        return float(USUAL_TURNS)
    try:
        turns = parse_count(given)
    except Refusal as refusal:
        refuse(workshop, refusal.at("turns"))
    if not 1 <= turns <= 2000:
        refuse(workshop, Refusal("sample_turns", got=given, field="turns"))
    return turns


def of_piece(piece: Piece, told: Iterable[Told], source: str) -> list[HandRecord]:
    """Return what a piece told, as records of its maker's hand, not kept yet."""
    return [
        HandRecord(
            workshop=piece.workshop,
            kind=one.kind,
            technique=one.technique,
            stock=one.stock,
            planned=one.planned,
            took=one.took,
            source=source,
            piece=piece,
        )
        for one in told
    ]


def put_on_record(workshop: Workshop, records: Sequence[HandRecord]) -> None:
    """Keep records, and count with them from now on.

    Raises:
        BriefRefused: no room for as many.
    """
    if not records:
        return
    room_for(workshop, HandRecord, len(records))
    now = clock.now()
    for one in records:
        one.at = one.at or now
        one.ratio = one.ratio or one.took / one.planned
    with transaction.atomic():
        HandRecord.objects.bulk_create(records)
    sum_up(workshop, records)


def set_aside(workshop: Workshop, record_id: int, why: str, *, aside: bool) -> HandRecord:
    """Set a record aside with a reason, or let it count again.

    Args:
        workshop: whose record.
        record_id: the record.
        why: it does not count, in the maker's words.
        aside: whether it is set aside.

    Raises:
        BriefRefused: no reason given.
    """
    record = row(HandRecord, workshop, record_id)
    if aside and not why.strip():
        refuse(workshop, Refusal("missing", got=None, field="why"))
    record.set_aside_at = clock.now() if aside else None
    record.why = why.strip()[:200] if aside else ""
    record.save(update_fields=["set_aside_at", "why"])
    sum_up(workshop, [record])
    return record


def aside_of(workshop: Workshop, which: QuerySet[HandRecord], why: str) -> list[HandRecord]:
    """Set several records aside for one reason, and return them; nothing is summed up yet."""
    found = list(which.filter(workshop=workshop, set_aside_at__isnull=True))
    rows(HandRecord, workshop).filter(pk__in=[one.pk for one in found]).update(
        set_aside_at=clock.now(), why=why[:200]
    )
    return found


def counting(workshop: Workshop, kind: str) -> QuerySet[HandRecord]:
    """Return the records of a kind that count."""
    return rows(HandRecord, workshop).filter(kind=kind, set_aside_at__isnull=True)


def sum_up(workshop: Workshop, changed: Iterable[HandRecord]) -> None:
    """Sum up anew what some records are about, and keep it with the bench.

    Raises:
        StaleShop: settings that kept changing meanwhile.
    """
    about = {(one.kind, one.technique, one.stock) for one in changed if one.kind != "length"}
    if not about:
        return

    def with_it(typed: dict[str, Any]) -> dict[str, Any]:
        hand = typed.get("hand") or {}
        new = {"lines": list(hand.get("lines", [])), "pace": list(hand.get("pace", []))}
        measured = list(typed.get("measured", []))
        summed = _lines(workshop, about)
        for kind, technique, stock in sorted(about):
            if kind == "former":
                measured = [one for one in measured if one.get("stock") != stock]
                measured += _measured(workshop, stock)
            else:
                key = "pace" if kind == "pace" else "lines"
                new[key] = [
                    n for n in new[key] if (n["technique"], n["stock"]) != (technique, stock)
                ]
                new[key] = [*new[key], *summed.get((kind, technique, stock), [])][-MOST_LINES:]
        return {"hand": new, "measured": measured}

    change_hand(workshop, with_it)


_About = tuple[str, str, str]


def _lines(workshop: Workshop, about: set[_About]) -> dict[_About, list[dict[str, Any]]]:
    """Return lines of the hand by kind, technique and stock: of one ratio and one square less than
    nothing is lost."""
    # About 1 instead of about nought: the squares of ratios near 1 would drown in their number.
    off = F("ratio") - 1.0
    kinds, techniques, stocks = zip(*about, strict=True)
    counts = (
        rows(HandRecord, workshop)
        .filter(set_aside_at__isnull=True)
        .filter(kind__in=kinds, technique__in=techniques, stock__in=stocks)
    )
    groups = counts.values("kind", "technique", "stock").order_by()
    found: dict[_About, list[dict[str, Any]]] = {}
    for one in groups.annotate(n=Count("pk"), off=Sum(off), squared=Sum(off * off)):
        key, n = (one["kind"], one["technique"], one["stock"]), one["n"]
        squares = max(0.0, one["squared"] - one["off"] ** 2 / n)
        line = {"technique": key[1], "stock": key[2], "n": n, "mean": 1 + one["off"] / n}
        found[key] = [{**line, "squares": squares}]
    return found


def _measured(workshop: Workshop, stock: str) -> list[dict[str, Any]]:
    found = counting(workshop, "former").filter(stock=stock)
    about = found.aggregate(n=Count("pk"), yields=Sum("ratio"), last=Max("pk"))
    if not about["n"]:
        return []
    reel = found.get(pk=about["last"]).reel
    mpa = round(about["yields"] / about["n"], 2)
    name = reel.name if reel else ""
    return [{"stock": stock, "reel": name, "yield_mpa": mpa, "records": about["n"]}]


# So many dots are drawn of one technique, so many records listed at once.
MOST_DOTS, PAGE = 80, 50


def newest(workshop: Workshop, kind: str, technique: str, stock: str) -> list[HandRecord]:
    """Return the newest records of a technique in a class of wire, the oldest of them first; those
    that are set aside are among them."""
    about = rows(HandRecord, workshop).filter(kind=kind, technique=technique, stock=stock)
    return list(about.select_related("piece", "reel").order_by("-pk")[:MOST_DOTS])[::-1]


def groups(workshop: Workshop) -> list[tuple[str, str, str]]:
    """Return every technique and class of wire that has a record: kind, technique, stock."""
    found = rows(HandRecord, workshop).values_list("kind", "technique", "stock")
    return sorted(set(found.distinct()))
