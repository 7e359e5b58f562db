"""How much a bench may keep: far more than a maker needs, and not all of the disk."""

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


def room_for_revision(piece: Piece) -> None:
    """Refuse one revision too many of a piece: every change counts its version up."""
    if piece.version >= MOST_REVISIONS:
        more = Refusal("quota", got=piece.version + 1, field="revision", most=MOST_REVISIONS)
        refuse(piece.workshop, more)
