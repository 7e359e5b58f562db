"""Judgement calls on closures: do the halves mate, does it hold, does it release?"""

from jamreel.core.advice import Advice, advise
from jamreel.core.forming.strength import Weakest, grams_of

FIELD = "piece.closure"
CLEARANCE_MM = 0.3
# Below this a hook opens when a sleeve catches it; common practice, no source [N].
WEAK_N = 10.0
# Below this anything bends open in a day's wear; common practice, no source [N].
FRAIL_N = 2.0
# What lets go before it hurts; common practice, no source [N].
RELEASES_N = 20.0


def hook_passes(width: float, eye: float, field: str = FIELD) -> Advice | None:
    """Return a warning when a hook does not go through its eye.

    Args:
        width: of what has to pass, folded as it is [mm].
        eye: inner diameter [mm].
        field: the choice that it belongs to.

    Source: common practice: 0.3 mm to spare.
    """
    if eye >= width + CLEARANCE_MM:
        return None
    return advise("hook_wide", "fix", field, width=width, eye=eye, least=width + CLEARANCE_MM)


def nothing_to_hook(what: str) -> Advice:
    """Return what to do where a closure is to go into the last loop, and there is none.

    Args:
        what: the body begins with.

    Source: plain topology.
    """
    return advise("nothing_to_hook", "fix", FIELD, what=what)


def no_own_hook(what: str) -> Advice:
    """Return what to do where the body is to fasten itself, and does not end in a hook.

    Args:
        what: the body ends with.

    Source: plain topology.
    """
    return advise("no_own_hook", "fix", FIELD, what=what)


def solder_spoils() -> Advice:
    """Return a warning about caps that are soldered on where glass, stone or pearl is near.

    Source: common practice.
    """
    return advise("solder_spoils", "fix", FIELD)


def bar_holds(bar: float, ring: float) -> Advice | None:
    """Return a warning when a toggle's bar slips out of its ring.

    Args:
        bar: length of the bar [mm].
        ring: inner diameter of the ring [mm].

    Source: longer than the ring's inside by a third at least; common practice.
    """
    least = ring * 4 / 3
    return advise("bar_short", "fix", FIELD, bar=bar, least=least) if bar < least else None


def bar_passes(ring: float, bar_wire: float, last: float) -> Advice | None:
    """Return a warning when the bar, folded against the last part, does not pass the ring.

    Args:
        ring: inner diameter [mm].
        bar_wire: thickness of the bar [mm].
        last: thickness of the part next to it [mm].

    Source: plain geometry.
    """
    needs = bar_wire + last + CLEARANCE_MM
    if ring >= needs:
        return None
    return advise("bar_stuck", "fix", FIELD, ring=ring, needs=needs, last=last)


def opens_easily(newtons: float, field: str = FIELD) -> Advice | None:
    """Return a warning about a hook that a caught sleeve opens.

    Args:
        newtons: at which it opens [N].
        field: the choice that it belongs to.

    Source: common practice.
    """
    if newtons >= WEAK_N:
        return None
    grams = grams_of(newtons)
    return advise("hook_weak", "check", field, newtons=newtons, grams=grams, least=WEAK_N)


def frail(weakest: Weakest | None) -> Advice | None:
    """Return a warning about a place that gives in a day's wear, whatever it is.

    Args:
        weakest: the place that gives first; an open ring is meant to.

    Source: common practice, no source.
    """
    if weakest is None or weakest.key == "open_ring" or weakest.newtons >= FRAIL_N:
        return None
    return advise(
        "frail", "check", "wire", where=weakest.says, newtons=weakest.newtons, grams=weakest.grams
    )


def should_release(newtons: float | None, must: bool) -> Advice | None:
    """Return what is to be said of a neck piece on a child or a sleeper.

    Args:
        newtons: at which the weakest place lets go [N], None where nothing opens.
        must: worn by a child, or asleep.

    Source: common practice; local rules for children's jewelry come first.
    """
    if not must:
        return None
    if newtons is None:
        return advise("never_releases", "fix", FIELD, limit=RELEASES_N)
    key = "releases" if newtons <= RELEASES_N else "releases_late"
    return advise(
        key, "note" if newtons <= RELEASES_N else "fix", FIELD, newtons=newtons, limit=RELEASES_N
    )


def stronger_than_loops(closure: float, weakest: float, where: str) -> Advice | None:
    """Return a note when something in the piece opens before its closure does.

    Args:
        closure: force at which the closure opens [N].
        weakest: force at which the weakest part opens [N].
        where: what that part is called.

    Source: the closure is meant to be the weakest spot; common practice.
    """
    if weakest >= closure:
        return None
    return advise("parts_open_first", "note", FIELD, closure=closure, weakest=weakest, where=where)


def two_hands(one_hand: bool) -> Advice | None:
    """Return a note on a closure that its wearer can't fasten with one hand.

    Args:
        one_hand: whether one hand is enough.

    Source: a loosely hung hook can be fastened with one hand; common practice.
    """
    return None if one_hand else advise("two_hands", "note", FIELD)
