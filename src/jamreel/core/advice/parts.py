"""Judgement calls on single parts: holes, wraps, gauges, tassels."""

from jamreel.core.advice import Advice, advise
from jamreel.core.wire.holes import hole_for, wires_through

FIELD = "piece.entries"
SPAN_SEEN = 0.1
FREE_STRANDS, SMALL_BEAD_MM, LARGE_BEAD_MM = 3, 3.0, 8.0
FIRM_RING, SOFT_RING = 9.0, 7.0
# What is sold as one size differs by so much.
SOLD_TO_MM = 0.01
# A coil of less wire is off by less than its tails [mm]; common practice.
LONG_COIL_MM = 1000.0
LOOSEST_HAND = 424 / 305


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


def strands_jostle(strands: int, widest: float, unlike: bool) -> Advice | None:
    """Return a warning about a tassel whose strands press against each other.

    Args:
        strands: how many.
        widest: of their beads [mm].
        unlike: whether they are of unlike length.

    Source: three are usual; from four on beads under 3 mm or unlike lengths, and of large beads
        not two at one height; common practice, no source.
    """
    if strands < 2 or unlike:
        return None
    if strands <= FREE_STRANDS and widest >= LARGE_BEAD_MM:
        return advise("large_beads_jostle", "note", FIELD, count=strands, width=widest)
    if strands <= FREE_STRANDS or widest < SMALL_BEAD_MM:
        return None
    return advise(
        "strands_jostle", "check", FIELD, count=strands, width=widest, small=SMALL_BEAD_MM
    )


def strands_touch(apart: float, wide: float) -> Advice | None:
    """Return a warning about strands of a swag that hang on each other.

    Args:
        apart: least distance between two of them at their middle [mm].
        wide: what they are made of, across [mm].

    Source: plain geometry.
    """
    if apart >= wide:
        return None
    return advise("strands_touch", "check", FIELD, apart=apart, width=wide)


def swag_spans(apart: float, span: float) -> Advice | None:
    """Return a warning when a swag's points hang nearer or further than it was planned for.

    Args:
        apart: between its ends as the piece hangs [mm].
        span: that it was planned for [mm].

    Source: plain geometry; a tenth is taken to be seen, common practice.
    """
    if abs(apart - span) <= SPAN_SEEN * span:
        return None
    key = "swag_deeper" if apart < span else "swag_flatter"
    return advise(key, "check", FIELD, apart=apart, span=span)


def ring_soft(pin: float, wire: float, soft: bool) -> Advice | None:
    """Return a note on a folded ring that is wide for its wire: it pulls to an egg.

    Args:
        pin: inner diameter [mm].
        wire: d [mm].
        soft: whether the wire is dead soft.

    Source: nine wires of half-hard, seven of soft wire; common practice, no source.
    """
    most = (SOFT_RING if soft else FIRM_RING) * wire
    return advise("ring_soft", "note", FIELD, pin=pin, wire=wire, most=most) if pin > most else None


def wound_by_hand(takes: float, sampled: bool) -> Advice | None:
    """Return how much more wire than the sum a hand may take for a coil.

    Args:
        takes: wire by the sum [mm].
        sampled: whether a sample of this hand is known.

    Source: 3 m of 20 AWG on 1.0 give 424 mm by sums and some 305 from hands; common practice.
    """
    if sampled or takes < LONG_COIL_MM:
        return None
    return advise("wound_by_hand", "note", FIELD, takes=takes, most=takes * LOOSEST_HAND)


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
        wire: d [mm] of one wire: a coil that is wound in its turn is no solid wire.

    Source: common practice: a core under one wire cracks hard wire and can't be slid off. As thick
        as one another is what both are sold as, to a hundredth.
    """
    small = core < wire - SOLD_TO_MM
    return advise("core_small", "check", FIELD, core=core, wire=wire) if small else None


def rod_loose(rod: float, core: float, room: float) -> Advice | None:
    """Return a note on a coil so wide that it rattles on the wire that it is threaded on.

    Args:
        rod: that it is wound on [mm].
        core: wire that goes through it [mm].
        room: that is usual at most [mm].

    Source: common practice, no source.
    """
    if rod <= core + room + 1e-9:
        return None
    return advise("rod_loose", "note", FIELD, rod=rod, core=core, most=core + room)


def pin_reaches(length: float, takes: float) -> Advice | None:
    """Return a warning when a bought pin is shorter than what is made from it.

    Args:
        length: of the pin [mm].
        takes: beads and loops with their tails [mm].

    Source: plain arithmetic.
    """
    if length >= takes:
        return None
    return advise("pin_short", "fix", FIELD, length=length, takes=takes, lacks=takes - length)
