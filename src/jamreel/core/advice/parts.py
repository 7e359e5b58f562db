"""Judgement calls on single parts: holes, wraps, gauges, tassels."""

from jamreel.core.advice import Advice, advise
from jamreel.core.wire.holes import hole_for, wires_through

FIELD = "piece.entries"


def hole_passes(hole: float, wire: float, passes: int = 1) -> Advice | None:
    """Return a warning when a bead's hole does not pass the wire as often as it has to.

    Args:
        hole: [mm].
        wire: d [mm].
        passes: wires side by side in the hole.

    Source: circles in a circle; published.
    """
    if hole >= hole_for(passes, wire):
        return None
    key = "hole_small" if passes == 1 else "hole_small_for_more"
    return advise(
        key,
        "fix",
        FIELD,
        hole=hole,
        wire=wire,
        least=hole_for(passes, wire),
        passes=passes,
        goes=wires_through(hole, wire),
    )


def few_wraps(wraps: int) -> Advice | None:
    """Return a note on a loop wrapped only once.

    Args:
        wraps: number of wraps.

    Source: two hold, three are the careful habit; common practice.
    """
    return advise("few_wraps", "check", FIELD, wraps=wraps) if wraps < 2 else None


def thin_for_links(wire: float, pin: float) -> Advice | None:
    """Return a warning when a plain loop is wide for its wire and will open.

    Args:
        wire: d [mm].
        pin: D [mm].

    Source: common practice: an inner diameter of at most six wires.
    """
    if pin <= 6 * wire:
        return None
    return advise("thin_for_loop", "check", FIELD, wire=wire, pin=pin, most=6 * wire)


def jostling(width: float, count: int, room: float) -> Advice | None:
    """Return a warning when what hangs from one loop has no room to hang freely.

    Args:
        width: of the widest thing hanging [mm].
        count: how many hang.
        room: round the inside of the loop [mm].

    Source: plain geometry: widths side by side against the way round the loop's lower half and
        the widths' own overlap in depth; common practice.
    """
    hangs = max(1, int(room // width)) if width > 0 else count
    if count <= hangs:
        return None
    return advise("jostling", "check", FIELD, count=count, width=width, hangs=hangs)


def links_twist(same_plane: bool) -> Advice | None:
    """Return a warning when a self-linking part has both loops in one plane.

    Args:
        same_plane: both loops lie alike.

    Source: one in plane and one square to it hang true; common practice.
    """
    return advise("links_twist", "fix", FIELD) if same_plane else None


def no_core(core: float, wire: float) -> Advice | None:
    """Return a warning about a coil wound tighter than its wire bends without harm.

    Args:
        core: D [mm].
        wire: d [mm].

    Source: common practice: a core under one wire cracks hard wire and can't be slid off.
    """
    return advise("core_small", "check", FIELD, core=core, wire=wire) if core < wire else None
