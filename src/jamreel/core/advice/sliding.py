"""Judgement calls of loops that slide on the wire they go round."""

from jamreel.core.advice import Advice, advise
from jamreel.core.advice.making import AS_CUT_TOLERANCE_MM

SHORTEST_OVERLAP_MM = 15.0
CHARM_PLAY_MM = 0.2


def overlap_long(overlap: float, girth: float) -> Advice | None:
    """Return a warning when the overlap when worn exceeds a third of the girth.

    Args:
        overlap: when worn [mm].
        girth: of the wrist [mm].

    Source: common practice.
    """
    if overlap <= girth / 3:
        return None
    return advise(
        "overlap_long", "check", "measures.hand_pass_girth", overlap=overlap, third=girth / 3
    )


def overlap_short(overlap: float) -> Advice | None:
    """Return a warning when the overlap when worn leaves no room for charms.

    Args:
        overlap: when worn [mm].

    Source: common practice.
    """
    if overlap >= SHORTEST_OVERLAP_MM:
        return None
    return advise("overlap_short", "check", "ease", overlap=overlap, least=SHORTEST_OVERLAP_MM)


def loop_loose(pin: float, wire: float) -> Advice | None:
    """Return a note when a loop is over two and a half wires wide: it rattles and cants.

    Args:
        pin: inner diameter of the loop [mm].
        wire: wire diameter [mm].

    Source: common practice, no source for the figure.
    """
    if pin <= 2.5 * wire:
        return None
    return advise("loop_loose", "note", "piece.loop_pin", pin=pin, wire=wire)


def charm_slides(ring: float, wire: float) -> Advice | None:
    """Return a warning when a charm's ring does not run on the wire.

    Args:
        ring: its inside diameter [mm].
        wire: d [mm].

    Source: plain geometry, 0.2 mm of play by common practice.
    """
    least = wire + CHARM_PLAY_MM
    if ring > least:
        return None
    return advise("charm_ring", "fix", "piece.charm_ring", ring=ring, wire=wire, least=least)


def charm_wanders(ring: float, loop: float) -> Advice | None:
    """Return a note on a charm's ring that goes over the loops it should stay between.

    Args:
        ring: its inside diameter [mm].
        loop: outside of a sliding loop [mm].

    Source: plain geometry.
    """
    if ring <= loop:
        return None
    return advise("charm_wanders", "check", "piece.charm_ring", ring=ring, loop=loop)


def charms_fit(count: int, width: float, overlap: float) -> Advice | None:
    """Return how many charms fit when there are more than the overlap has room for.

    Args:
        count: of charms.
        width: of one [mm].
        overlap: between the loops as worn [mm].

    Source: plain arithmetic: their widths side by side.
    """
    fit = max(0, int(overlap / width + 1e-9))
    if count <= fit:
        return None
    return advise(
        "charms_many", "fix", "piece.charms", count=count, width=width, fit=fit, overlap=overlap
    )


def pin_missing(pin: float, nearest: float | None, field: str = "piece.loop_pin") -> Advice | None:
    """Return a note when none of the maker's pins is within 0.15 mm of the wanted one.

    Args:
        pin: wanted [mm].
        nearest: the nearest pin the maker has [mm], or None.
        field: the choice that it belongs to.

    Source: common practice.
    """
    if nearest is None:
        return advise("no_pins", "note", field, pin=pin)
    if abs(nearest - pin) <= 0.15:
        return None
    return advise("pin_missing", "note", field, pin=pin, nearest=nearest)


def cut_changes_fit(actual: float, planned: float, opens: float, hand: float) -> Advice | None:
    """Return what a wire cut longer or shorter than planned does to a bangle's fit.

    Args:
        actual: length as cut [mm].
        planned: [mm].
        opens: inside girth that it then opens to [mm].
        hand: hand pass girth [mm].

    Source: plain geometry.
    """
    if abs(actual - planned) <= AS_CUT_TOLERANCE_MM:
        return None
    values = {"actual": actual, "planned": planned, "off": abs(actual - planned), "open": opens}
    if opens < hand - AS_CUT_TOLERANCE_MM:
        return advise("cut_short", "fix", "cut", hand=hand, **values)
    return advise("cut_long", "check", "cut", **values)
