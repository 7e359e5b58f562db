"""Can it be opened far enough to go on, and spring back?"""

import math

from jamreel.core.advice import Advice, advise
from jamreel.core.forming.opening import elastic_opening, opening_strain


def opened_to_go_on(
    key: str,
    *,
    needed: float,
    gap: float,
    thickness: float,
    radius: float,
    yield_mpa: float,
    youngs: float,
) -> Advice | None:
    """Return a warning when opening a ring to go on would leave it bent.

    Args:
        key: which sentence says how it goes on without.
        needed: opening that the body's narrow side wants [mm].
        gap: opening that is there [mm].
        thickness: of the wire [mm].
        radius: of the centre-line [mm].
        yield_mpa: [MPa].
        youngs: [MPa].

    Source: split ring by Castigliano's theorem; published.
    """
    pulled = needed - gap
    if pulled <= 0:
        return None
    springs = elastic_opening(thickness, radius, yield_mpa, youngs)
    if pulled <= springs:
        return None
    return advise(
        key,
        "check",
        "piece",
        pulled=pulled,
        springs=springs,
        strain=100 * opening_strain(thickness, radius, pulled),
        limit=100 * yield_mpa / youngs,
        needed=needed,
    )


def hangs_loose(inside: float, girth: float) -> Advice | None:
    """Return a note on how far a rigid ring hangs from the wrist.

    Args:
        inside: inside girth of the ring [mm].
        girth: of the wrist [mm].

    Source: common practice: a third over the girth is much.
    """
    if inside - girth <= girth / 3:
        return None
    return advise("hangs_loose", "note", "piece", hang=inside - girth)


def falls_off(inside: float, hand: float | None) -> Advice | None:
    """Return a warning when a fastened piece would slide off over the hand.

    Args:
        inside: inside girth when fastened [mm].
        hand: hand pass girth [mm], or None when it was not read.

    Source: plain geometry.
    """
    if hand is None or inside < hand:
        return None
    return advise("falls_off", "fix", "ease", inside=inside, hand=hand)


def round_radius(inside_girth: float, wire: float) -> float:
    """Return the centre-line radius of a ring of some inside girth [mm]."""
    return inside_girth / (2 * math.pi) + wire / 2
