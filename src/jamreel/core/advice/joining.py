"""Judgement calls on what hangs in what, and on the piece as a whole."""

from collections.abc import Sequence
from typing import Any, NamedTuple

from jamreel.core.advice import Advice, advise
from jamreel.core.wire.holes import room_for

FIELD = "piece.entries"
CLOSURE = "piece.closure"
# A body that is so much wider than its cap is pressed in; a cap takes so much of it [mm]; common
# practice.
CAP_PLAY_MM, LEAST_DEPTH_MM = 0.2, 4.0
# A play of this between a loop and the wire in it lets both swing [mm]; common practice.
PLAY_MM = 0.2
# Heavier than this pulls on a lobe through a day [g]; common practice, no source.
HEAVY_EARRING_G = 10.0


def loop_admits(inner: float, thick: Sequence[float], loop: str, what: str) -> Advice | None:
    """Return a warning when a loop is too small for all that is to swing in it.

    Args:
        inner: of the loop [mm].
        thick: what hangs in it, each as thick as it is [mm].
        loop: what the loop belongs to.
        what: what hangs in it.

    Source: circles in a circle, published; 0.2 mm of play by common practice.
    """
    least = room_for(thick) + PLAY_MM
    if not thick or inner >= least:
        return None
    key = "loop_small" if len(thick) == 1 else "loop_full"
    return advise(
        key, "fix", FIELD, inner=inner, least=least, loop=loop, what=what, count=len(thick)
    )


class Row(NamedTuple):
    """Openings side by side at an end, one or several, lengths in mm: what it is called, how many,
    from the middle of the first to that of the last, their inside, and their wire."""

    name: str
    openings: int
    span: float
    inner: float
    wire: float


def rows_meet(one: Row, other: Row, field: str) -> Advice | None:
    """Return what to do about two ends that can't be hung in each other opening by opening.

    A row meets a row over as much, give or take what loops can be shifted in each other, and a
    single opening only where that spans it.

    Args:
        one: end.
        other: end that it is to hang in.
        field: the choice that it belongs to.

    Source: plain geometry.
    """
    if one.openings > 1 and other.openings > 1:
        play = min(one.inner - other.wire, other.inner - one.wire)
        if abs(one.span - other.span) <= max(play, 0.0):
            return None
        return advise("rows_unlike", "fix", field, **_told("one", one), **_told("other", other))
    row, single = (one, other) if one.openings > 1 else (other, one)
    if row.openings == 1 or single.inner >= row.span:
        return None
    return advise("row_into_one", "fix", field, **_told("row", row), **_told("single", single))


def _told(which: str, row: Row) -> dict[str, Any]:
    apart = row.span / max(row.openings - 1, 1)
    told = {"count": row.openings, "span": row.span, "apart": apart, "inner": row.inner}
    return {which: row.name, **{f"{which}_{key}": value for key, value in told.items()}}


def hooked_on_nothing(name: str) -> Advice:
    """Return what to do about strands that are to be hooked on at an end where nothing is.

    Args:
        name: of the part.

    Source: plain topology.
    """
    return advise("hooked_on_nothing", "fix", FIELD, name=name)


def spare_hook(name: str, closure: str) -> Advice:
    """Return what to do about a body that ends in a hook, and has a closure beside it.

    Args:
        name: of the body.
        closure: what it is called.

    Source: plain topology.
    """
    return advise("spare_hook", "fix", CLOSURE, name=name, closure=closure)


def eyes_in_cap(name: str) -> Advice:
    """Return what to do about caps over an end that is not bare.

    Args:
        name: of the part.

    Source: plain topology.
    """
    return advise("eyes_in_cap", "fix", CLOSURE, name=name)


def goes_by_so_far(place: int, name: str, count: int, over: float) -> Advice:
    """Return a note that the rest of an entry goes by what is made of it.

    Args:
        place: of the entry.
        name: what it is called.
        count: made so far.
        over: how long they are [mm].
    """
    field = f"piece.entries.{place}.so_far"
    return advise("goes_by_so_far", "note", field, name=name, count=count, over=over)


def ends_differ(first: str, last: str, mirrored: bool) -> Advice | None:
    """Return a note when a pattern does not close evenly round the closure.

    Args:
        first: what the left end begins with.
        last: what the right end stops with.
        mirrored: whether the piece is laid out from its middle.

    Source: common practice.
    """
    if first == last or mirrored:
        return None
    return advise("ends_differ", "note", FIELD, first=first, last=last)


def heavy_earring(grams: float) -> Advice | None:
    """Return a warning about an earring that will pull.

    Args:
        grams: mass of one earring [g].

    Source: 10 g; common practice, no source.
    """
    if grams <= HEAVY_EARRING_G:
        return None
    return advise("heavy_earring", "check", FIELD, grams=grams, limit=HEAVY_EARRING_G)


def not_to_length(
    off: float, doubt: float, unit: float, name: str, counts: tuple[int, int], pairs: bool = False
) -> Advice | None:
    """Return what to do about a make-up that does not come to its length.

    Args:
        off: finished less wanted [mm].
        doubt: that the measure leaves [mm].
        unit: length of what is counted [mm].
        name: what it is called.
        counts: how many there are, and how many would do; on one side of a middle with ``pairs``.
        pairs: whether it is counted on both sides at once.

    Source: plain arithmetic.
    """
    if abs(off) <= max(doubt, unit * (1 if pairs else 0.5)):
        return None
    key = "make_up_long" if off > 0 else "make_up_short"
    now, right = counts
    return advise(
        f"{key}_sides" if pairs else key,
        "fix",
        FIELD,
        off=abs(off),
        now=now,
        right=right,
        name=name,
    )


def extends(link: int, shortest: float, right: float, adds: float, step: float) -> Advice | None:
    """Return at which link of its extender a piece is right, and how far it reaches.

    Args:
        link: counted from the clasp's ring, 0 for that ring itself.
        shortest: what it measures there [mm].
        right: what it measures at that link [mm].
        adds: how much further it can be fastened [mm].
        step: from link to link [mm], 0 where there is no extender.

    Source: plain arithmetic.
    """
    if not step:
        return None
    return advise(
        "extends" if link else "extends_none",
        "note",
        "piece.closure",
        link=link,
        of=round(adds / step),
        right=right,
        shortest=shortest,
        longest=shortest + adds,
    )


def nothing_in_it(count: int) -> Advice | None:
    """Return what to do about a sequence without parts."""
    return advise("empty_sequence", "fix", FIELD) if count == 0 else None


def bare_end(name: str) -> Advice:
    """Return a warning about a bare end that has no cap.

    Args:
        name: of the part.

    Source: plain topology.
    """
    return advise("bare_end", "fix", FIELD, name=name)


def cap_fits(name: str, width: float, thickness: float, wide: float, thick: float) -> Advice | None:
    """Return a warning when a bare end does not go into its cap; what goes in at one width and
    thickness goes in at every smaller one.

    Args:
        name: of the part.
        width: of it [mm].
        thickness: of it [mm].
        wide: the widest that the cap takes [mm].
        thick: the thickest [mm].

    Source: plain geometry.
    """
    if width > wide + CAP_PLAY_MM:
        return advise("cap_narrow", "fix", CLOSURE, name=name, width=width, takes=wide)
    if thickness > thick + CAP_PLAY_MM:
        return advise("cap_low", "fix", CLOSURE, name=name, thickness=thickness, takes=thick)
    return None


def cap_deep(name: str, depth: float, width: float) -> Advice | None:
    """Return a warning about a cap so shallow that it does not hold.

    Args:
        name: of the part.
        depth: that goes in [mm].
        width: of the body [mm].

    Source: half its width and 4 mm at least; common practice.
    """
    least = max(LEAST_DEPTH_MM, width / 2)
    if depth >= least - 1e-9:
        return None
    return advise("cap_shallow", "check", CLOSURE, name=name, depth=depth, least=least)
