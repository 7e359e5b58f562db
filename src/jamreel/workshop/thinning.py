"""Old revisions of a piece are thinned out, so that what a bench keeps stays bounded.

What stays: the first, the head, what a tick, try-on, log entry or day went by, and all of the last
day. Of those of the last week one an hour stays, of older ones one a day: the last. Undo goes on
from what stays to what stays.
"""

from collections.abc import Iterable
from datetime import datetime, timedelta
from typing import Any

from django.db import transaction

from jamreel.workshop import clock
from jamreel.workshop.models import DayPlan, LogEntry, Piece, Revision, Tick, TryOnRecord
from jamreel.workshop.ownership import rows
from jamreel.workshop.quotas import count_bytes

# A piece is thinned out after so many saves, of so many revisions at a time at most.
EVERY, AT_ONCE = 50, 400
WHOLE, HOURLY = timedelta(days=1), timedelta(days=7)


def thin(piece: Piece) -> int:
    """Thin a piece's old revisions out, and return how many went.

    Args:
        piece: whose; what is worked out beforehand is written in one short transaction.
    """
    now = clock.now()
    named = _named(piece)
    about = rows(Revision, piece.workshop).filter(piece=piece).order_by("pk")
    listed = list(about.values_list("pk", "parent_id", "burst_id", "saved_at", "size"))
    going = _superfluous([(pk, saved) for pk, _, _, saved, _ in listed], named, now)[:AT_ONCE]
    if not going:
        return 0
    gone = set(going)
    parents: dict[int, int | None] = {pk: parent for pk, parent, _, _, _ in listed}
    changed = []
    firsts: dict[int, int] = {}
    for pk, parent, burst, _, _ in listed:
        if pk in gone:
            continue
        new_parent: int | None = parent
        while new_parent is not None and new_parent in gone:
            new_parent = parents[new_parent]
        new_burst: int | None = burst
        if burst in gone:
            # The first of a run that stays stands for the run.
            new_burst = firsts.get(burst)
            firsts.setdefault(burst, pk)
        if (new_parent, new_burst) != (parent, burst):
            changed.append(Revision(pk=pk, parent_id=new_parent, burst_id=new_burst))
    sizes = sum(size for pk, _, _, _, size in listed if pk in gone)
    with transaction.atomic():
        # Who saved meanwhile has a head that goes on from one that stays: the newest always does.
        Revision.objects.bulk_update(changed, ["parent", "burst"], batch_size=200)
        rows(Revision, piece.workshop).filter(pk__in=going)._raw_delete("default")
        count_bytes(piece.workshop, -sizes)
    return len(going)


def _named(piece: Piece) -> set[int]:
    """Return the revisions that something names."""
    found = {piece.head_id or 0}
    by_it: tuple[Any, ...] = (
        rows(Tick, piece.workshop),
        rows(TryOnRecord, piece.workshop),
        rows(LogEntry, piece.workshop),
    )
    for about in by_it:
        going_by = about.filter(piece=piece, revision__isnull=False)
        found |= set(going_by.values_list("revision_id", flat=True))
    days = rows(DayPlan, piece.workshop).values_list("worked_for", flat=True)
    for worked_for in days:
        found.add((worked_for.get("revisions") or {}).get(str(piece.pk), 0))
    return found


def _superfluous(
    revisions: list[tuple[int, datetime]], named: Iterable[int], now: datetime
) -> list[int]:
    """Return which revisions go: by their numbers and when they were saved, the oldest first."""
    keep = {*named, revisions[0][0], revisions[-1][0]} if revisions else set()
    last: dict[object, int] = {}
    for pk, saved in revisions:
        age = now - saved
        if age < WHOLE:
            keep.add(pk)
            continue
        form = "%Y-%m-%d %H" if age < HOURLY else "%Y-%m-%d"
        last[saved.strftime(form)] = pk
    keep |= set(last.values())
    return [pk for pk, _ in revisions if pk not in keep]
