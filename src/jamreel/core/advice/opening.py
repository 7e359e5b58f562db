"""Can it be opened far enough to go on, and spring back?"""

import math

from jamreel.core.advice import Advice, Severity, advise
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.stiffness import elastic_opening, opening_strain


def opened_to_go_on(
    keys: tuple[str, str | None],
    *,
    wire: Wire,
    inside: float,
    needed: float,
    gap: float = 0.0,
    severity: Severity = "check",
    field: str = "piece",
    **more: float,
) -> Advice | None:
    """Return how a ring is opened to go on, or a warning when that would leave it bent.

    Args:
        keys: the sentences of a ring that stays bent, and of one that springs back; None says
            nothing of that.
        wire: that it is made of.
        inside: inside girth [mm].
        needed: opening that the body wants [mm].
        gap: opening that is there [mm].
        severity: of the sentence of a ring that stays bent; a note where there is another way on.
        field: the choice that it belongs to.
        more: what the sentences say besides.

    Source: split ring by Castigliano's theorem; published.
    """
    pulled = needed - gap
    if pulled <= 0:
        return None
    bent = (wire.fibre, round_radius(inside, wire.bend_adds))
    springs = elastic_opening(*bent, wire.law.gives_at)
    set_in, back = keys
    key = back if pulled <= springs else set_in
    if key is None:
        return None
    return advise(
        key,
        "note" if key == back else severity,
        field,
        pulled=pulled,
        springs=springs,
        strain=100 * opening_strain(*bent, pulled),
        limit=100 * wire.law.gives_at,
        needed=needed,
        gap=gap,
        wide=needed - springs,
        **more,
    )


def over_thin_side(depth: float, flesh: float) -> float:
    """Return the opening that a wrist's thin side wants, its depth less what flesh gives.

    Args:
        depth: of the wrist [mm].
        flesh: share of the depth that gives way.

    Returns:
        Opening [mm].

    Example:
        >>> round(over_thin_side(40.0, 0.1), 1)
        36.0

    Source: a tenth; from memory, the maker's to change.
    """
    return depth * (1 - flesh)


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
