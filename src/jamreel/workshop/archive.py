"""The archive: what was put away, brought back, or deleted for good.

Putting away hides and deletes nothing. Only what is in the archive can be deleted for good.
"""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from datetime import datetime
from typing import Any, Literal, cast

from django.db import connection, transaction
from django.db.models import F, QuerySet
from django.http import Http404
from django.utils.dateparse import parse_datetime

from jamreel.core.words import say, speaking
from jamreel.workshop import clock
from jamreel.workshop.log import forget_words
from jamreel.workshop.models import LogEntry, Movement, Owned, Piece, Stock, Tick, Wearer, Workshop
from jamreel.workshop.ownership import row, rows
from jamreel.workshop.planning import shop_of
from jamreel.workshop.shops import change_settings

What = Literal["piece", "wearer", "stock", "tool", "entry"]
KEPT: dict[What, type[Owned]] = {
    "piece": Piece,
    "wearer": Wearer,
    "stock": Stock,
    "entry": LogEntry,
}
# So many of a kind are listed, the last put away first.
MOST_LISTED = 200


@dataclass(frozen=True)
class Away:
    """Something that was put away, and what would go with it if it were deleted for good."""

    what: What
    id: int
    name: str
    put_away_at: datetime
    goes: str


def put_away(workshop: Workshop, what: What, number: int) -> None:
    """Put something away. Raises Http404 for what is not there."""
    if what == "tool":
        raise Http404("tools are put away with the settings")
    found = row(KEPT[what], workshop, number)
    _rows(what, workshop).filter(pk=found.pk, put_away_at=None).update(
        put_away_at=clock.now(), **_turned(what)
    )


def bring_back(workshop: Workshop, what: What, number: int) -> None:
    """Bring something back to where it was. Raises Http404 for what is not in the archive."""
    if what == "tool":
        _bring_tool_back(workshop, number)
        return
    found = _rows(what, workshop).filter(pk=number, put_away_at__isnull=False)
    # What it waits for is worked out anew: settings may have changed meanwhile.
    more = {"worked_by": ""} if what == "piece" else {}
    if not found.update(put_away_at=None, **more, **_turned(what)):
        raise Http404("not in the archive")


def delete_for_good(workshop: Workshop, what: What, number: int) -> None:
    """Delete something that is in the archive, with all that is only about it.

    Raises:
        Http404: it is not in the archive.
    """
    if what == "tool":
        _drop_tool(workshop, number)
        return
    found = _rows(what, workshop).filter(pk=number, put_away_at__isnull=False).first()
    if found is None:
        raise Http404("not in the archive")
    with transaction.atomic():
        _DELETE[what](found)


def listed(workshop: Workshop) -> list[Away]:
    """Return what is in the archive, the last put away first."""
    shop = shop_of(workshop)
    with speaking(shop.language, shop.unit):
        found = [*_all(workshop), *_tools(workshop)]
    return sorted(found, key=lambda one: one.put_away_at, reverse=True)


def note_tools_gone(workshop: Workshop, before: dict[str, Any], after: dict[str, Any]) -> None:
    """Put tools into the archive that settings had before and have not any more."""
    kept = list(workshop.tools_away)
    number = max((one["id"] for one in kept), default=0)
    for place in ("formers", "pins"):
        left = [tool.get("name") for tool in after.get(place) or ()]
        for tool in before.get(place) or () if place in after else ():
            if tool.get("name") in left:
                left.remove(tool.get("name"))
                continue
            number += 1
            at = clock.now().isoformat()
            kept.append({"id": number, "list": place, "tool": tool, "at": at})
    if kept != workshop.tools_away:
        workshop.tools_away = kept[-MOST_LISTED:]
        workshop.save(update_fields=["tools_away"])


def _rows(what: What, workshop: Workshop) -> "QuerySet[Any]":
    return rows(KEPT[what], workshop)


def _turned(what: What) -> dict[str, Any]:
    """Return what a piece counts when it is put away or brought back: it is a turn of it."""
    return {"turn": F("turn") + 1} if what == "piece" else {}


def _all(workshop: Workshop) -> Iterator[Away]:
    for what in KEPT:
        away = _rows(what, workshop).filter(put_away_at__isnull=False).order_by("-put_away_at")
        for one in away[:MOST_LISTED]:
            yield Away(what, one.pk, one.name, one.put_away_at, _goes(what, one))


def _goes(what: What, one: Any) -> str:
    """Return what goes with something that is deleted for good, in words."""
    if what == "piece":
        return say(
            "archive.piece",
            revisions=one.revisions.count(),
            ticks=one.ticks.count(),
            tryons=one.tryons.count(),
        )
    if what == "wearer":
        return say("archive.wearer", readings=one.readings.count(), pieces=one.pieces.count())
    if what == "stock":
        return say("archive.stock", movements=one.movements.count())
    return say("archive.entry", photos=one.photos.count())


def _tools(workshop: Workshop) -> Iterator[Away]:
    for one in workshop.tools_away:
        at = parse_datetime(one["at"]) or clock.now()
        yield Away("tool", one["id"], one["tool"].get("name", ""), at, say("archive.tool"))


def _tool(workshop: Workshop, number: int) -> dict[str, Any]:
    found = next((one for one in workshop.tools_away if one["id"] == number), None)
    if found is None:
        raise Http404("not in the archive")
    return cast(dict[str, Any], found)


def _bring_tool_back(workshop: Workshop, number: int) -> None:
    found = _tool(workshop, number)
    place = found["list"]
    usual = shop_of(workshop).model_dump(mode="json")[place]

    def change(typed: dict[str, Any]) -> dict[str, Any]:
        return {place: [*typed.get(place, usual), found["tool"]]}

    change_settings(workshop, change)
    _drop_tool(workshop, number)


def _drop_tool(workshop: Workshop, number: int) -> None:
    _tool(workshop, number)
    workshop.tools_away = [one for one in workshop.tools_away if one["id"] != number]
    workshop.save(update_fields=["tools_away"])


def _delete_piece(piece: Piece) -> None:
    # What was taken off the rack for it stays taken.
    ticks = rows(Tick, piece.workshop).filter(piece=piece)
    rows(Movement, piece.workshop).filter(tick__in=ticks).update(tick=None)
    rows(Piece, piece.workshop).filter(pk=piece.pk).update(head=None)
    # The newest first: a revision goes before the one that it came from.
    piece.revisions.all()._raw_delete(connection.alias)
    piece.delete()


def _delete_wearer(wearer: Wearer) -> None:
    wearer.delete()


def _delete_stock(stock: Stock) -> None:
    moved = rows(Movement, stock.workshop).filter(stock=stock)
    moved.filter(undoes__isnull=False).delete()
    moved.delete()
    stock.delete()


def _delete_entry(entry: LogEntry) -> None:
    entry.photos.all().delete()
    entry.delete()
    forget_words(entry.workshop, entry)


_DELETE: dict[What, Callable[[Any], None]] = {
    "piece": _delete_piece,
    "wearer": _delete_wearer,
    "stock": _delete_stock,
    "entry": _delete_entry,
}
