"""The database held against itself: what must be so, whatever happened."""

from collections.abc import Callable, Iterator

from django.db import connection
from django.db.models import F, Sum

from jamreel.core.words import say
from jamreel.workshop.models import (
    HandRecord,
    LogEntry,
    Movement,
    Owned,
    Photo,
    Piece,
    Reading,
    Revision,
    StepClock,
    Tick,
    TryOnRecord,
    Wait,
    Workshop,
)
from jamreel.workshop.planning import plan_of, shop_of
from jamreel.workshop.stock import NOTHING
from jamreel.workshop.turns import derived, facts_of, whole_piece, worked_by


def file_is_whole() -> Iterator[str]:
    """Yield what the database says is wrong with its own file."""
    with connection.cursor() as cursor:
        cursor.execute("PRAGMA integrity_check")
        yield from (row[0] for row in cursor.fetchall() if row[0] != "ok")


def rows_are_whose_they_say() -> Iterator[str]:
    """Yield rows that refer to what is not there, or to another bench's."""
    with connection.cursor() as cursor:
        cursor.execute("PRAGMA foreign_key_check")
        for row in cursor:
            yield say("check.gone", table=row[0], row=row[1], other=row[2])
    links: tuple[tuple[type[Owned], str], ...] = (
        (Reading, "wearer"), (Piece, "wearer"), (Piece, "head"), (Revision, "piece"),
        (Revision, "parent"), (Tick, "piece"), (TryOnRecord, "piece"), (Movement, "stock"),
        (Movement, "tick"), (Movement, "undoes"), (StepClock, "piece"), (Wait, "piece"),
        (HandRecord, "piece"), (HandRecord, "reel"), (LogEntry, "piece"), (Photo, "entry"),
    )  # fmt: skip
    for model, link in links:
        strangers = model._default_manager.filter(**{f"{link}__isnull": False}).exclude(
            **{f"{link}__workshop": F("workshop")}
        )
        for pk in strangers.values_list("pk", flat=True):
            yield say("check.stranger", table=model.__name__.lower(), row=pk, link=link)


def stock_is_the_sum_of_its_movements() -> Iterator[str]:
    """Yield stock of which less than nothing is left, and movements that undo something else."""
    sums = Movement.objects.values("stock", "stock__name").annotate(total=Sum("amount"))
    for row in sums.filter(total__lt=-2 * NOTHING):
        name, total = row["stock__name"], row["total"]
        yield say("check.less_than_none", row=row["stock"], name=name, total=total)
    undone = Movement.objects.filter(undoes__isnull=False).select_related("undoes")
    for movement in undone.iterator():
        of = movement.undoes
        if of is not None and (of.stock_id, of.amount) != (movement.stock_id, -movement.amount):
            yield say("check.not_opposite", row=movement.pk, other=of.pk)


def ticks_have_their_wires() -> Iterator[str]:
    """Yield ticks of which the rack says something else than the tick."""
    sums = dict(
        Movement.objects.filter(tick__isnull=False)
        .exclude(reason="scrapped")
        .exclude(undoes__reason="scrapped")
        .values_list("tick")
        .annotate(total=Sum("amount"))
    )
    for tick in Tick.objects.filter(pk__in=sums).iterator():
        total = sums[tick.pk]
        if tick.undone_at is not None and abs(total) > NOTHING and tick.kind == "need":
            yield say("check.still_off", row=tick.pk, total=-total)
        if tick.undone_at is None and total > NOTHING:
            yield say("check.never_took", row=tick.pk, total=total)
    heads = Piece.objects.filter(head__isnull=True, workshop__closed_at__isnull=True)
    for pk in heads.values_list("pk", flat=True):
        yield say("check.no_brief", row=pk)


def pieces_stand_where_they_say() -> Iterator[str]:
    """Yield pieces whose state is not what follows from them; what waits to be worked out is so."""
    for workshop in Workshop.objects.filter(closed_at__isnull=True).iterator():
        shop, now = shop_of(workshop), worked_by(workshop)
        standing = Piece.objects.filter(workshop=workshop, worked_by=now, put_away_at__isnull=True)
        for pk in standing.values_list("pk", flat=True):
            piece = whole_piece(workshop, pk)
            planned, tryons = plan_of(piece, shop), list(piece.tryons.all())
            state = derived(planned, shop, facts_of(piece, planned, tryons), tryons)
            if (state.pop("waits_for"), state) != (piece.waits_for, piece.state):
                yield say(
                    "check.says_otherwise", row=pk, name=piece.name, waits_for=piece.waits_for
                )


CHECKS: dict[str, Callable[[], Iterator[str]]] = {
    "file": file_is_whole,
    "rows": rows_are_whose_they_say,
    "stock": stock_is_the_sum_of_its_movements,
    "ticks": ticks_have_their_wires,
    "pieces": pieces_stand_where_they_say,
}
