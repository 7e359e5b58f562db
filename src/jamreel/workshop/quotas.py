"""How much a bench may keep: far more than a maker needs, and not all of the disk."""

from django.db.models import F

from jamreel.core.errors import Refusal
from jamreel.workshop.models import (
    HandRecord,
    LogEntry,
    Movement,
    Owned,
    Piece,
    Reading,
    Stock,
    Wearer,
    Workshop,
)
from jamreel.workshop.ownership import rows
from jamreel.workshop.planning import refuse

# So many are listed within two seconds; a maker with a piece a day fills the first in ten years.
MOST: dict[type[Owned], int] = {
    Piece: 5_000,
    LogEntry: 150_000,
    HandRecord: 1_000_000,
    Wearer: 1_000,
    Reading: 100_000,
    Stock: 3_000,
    Movement: 1_000_000,
}
MOST_REVISIONS = 50_000
# What a bench may keep in all of briefs, photographs and days [bytes]; from this share of it on the
# bench says so.
MOST_KEPT, NEARLY = 500_000_000, 0.9


def room_for(workshop: Workshop, model: type[Owned], count: int = 1) -> None:
    """Refuse what would go over the bench's quota of one kind of row. Raises BriefRefused."""
    # A finished piece is the log's: what fills the bench is what is not.
    kept = (
        rows(Piece, workshop).filter(finished_at=None).count()
        if model is Piece
        else rows(model, workshop).count()
    )
    if kept + count > MOST[model]:
        what = model.__name__.lower()
        refuse(workshop, Refusal("quota", got=kept + count, field=what, most=MOST[model]))


def room_for_bytes(workshop: Workshop, size: int) -> None:
    """Refuse what would take more than a bench may keep, as it was read. Raises BriefRefused."""
    kept = workshop.kept_bytes
    if kept + size > MOST_KEPT:
        got, most = (f"{n / 1e6:.1f} MB" for n in (kept + size, MOST_KEPT))
        refuse(workshop, Refusal("quota_bytes", got=got, field="bench", most=most))


def count_bytes(workshop: Workshop, more: int) -> None:
    """Count what is kept more, or less, inside the transaction that keeps it."""
    if more:
        Workshop.objects.filter(pk=workshop.pk).update(kept_bytes=F("kept_bytes") + more)


def nearly_full(workshop: Workshop) -> tuple[float, float] | None:
    """Return what a bench keeps and may keep [MB] where that is nearly all, else None."""
    if workshop.kept_bytes < NEARLY * MOST_KEPT:
        return None
    return workshop.kept_bytes / 1e6, MOST_KEPT / 1e6


def room_for_revision(piece: Piece) -> None:
    """Refuse one revision too many of a piece: every change counts its version up."""
    if piece.version >= MOST_REVISIONS:
        more = Refusal("quota", got=piece.version + 1, field="revision", most=MOST_REVISIONS)
        refuse(piece.workshop, more)
