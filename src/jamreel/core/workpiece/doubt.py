"""How far a piece of parts may come out longer or shorter than its sum: hands and beads spread."""

import math
from collections import Counter
from collections.abc import Iterator

from jamreel.core.hand.hand import Hand
from jamreel.core.hand.technique import techniques_of
from jamreel.core.interlace.base import Weaving
from jamreel.core.makeup.compose import Composition
from jamreel.core.parts.base import Made

# Beads of one size differ by so much among themselves; from memory, no source.
BEAD_SPREAD = 0.02
# Within so many spreads 19 times in 20 (normal).
SURE_SPREADS = 1.96


def finished_doubt(laid: Composition, hand: Hand) -> float:
    """Return how far the finished length may lie from its sum, 19 times in 20 [mm].

        1.96 sqrt(sum n (spread L)^2): each of n alike comes out by itself

    Args:
        laid: the piece laid out.
        hand: how this maker's loops and rows spread; a new hand as most do.

    Source: variances of things made one by one add up; spreads by ``hand.belief``, of beads from
        memory.
    """
    # What is made alike is looked at once.
    alike = {id(part.made): part.made for part in laid.parts}
    times = Counter(id(part.made) for part in laid.parts if not part.drop)
    every = [(alike[key], count) for key, count in times.items()]
    every += [(half, 1) for half in (laid.fastened.receiving, laid.fastened.holding)]
    if laid.runs:
        every.append((laid.string_end, 2 * len(laid.runs)))
    variance = sum(
        count * (spread * long) ** 2
        for made, so_many in every
        for spread, long, count in _made_by_hand(made, so_many, hand)
    )
    return SURE_SPREADS * math.sqrt(variance)


def _made_by_hand(made: Made, times: int, hand: Hand) -> Iterator[tuple[float, float, int]]:
    """Yield what of a part spreads: by how much, how long each is [mm], how many."""
    if isinstance(made.weaving, Weaving):
        body = made.weaving.body
        spread = hand.of(made.weaving.part.kind, body.wires.working.key).belief.spread
        yield spread, body.size.pitch, times * made.weaving.rows
        return
    beads = [one for one in made.bought if one.key == "bead" and one.size_mm]
    strung = 0.0
    for one in beads:
        yield BEAD_SPREAD, one.size_mm or 0.0, times * one.quantity
        strung += (one.size_mm or 0.0) * one.quantity
    found = _technique(made)
    if found is not None:
        yield hand.of(*found).belief.spread, max(made.length - strung, 0.0), times


def _technique(made: Made) -> tuple[str, str] | None:
    """Return the technique that most of a part's wire goes through, and that wire's key; None of
    what is bought, or lies straight."""
    most: dict[tuple[str, str], float] = {}
    for use in made.wires:
        moves = [move for _, row in use.stretches for move in row]
        for name, takes in techniques_of(moves, use.wire.bend_adds).items():
            key = (name, use.wire.key)
            most[key] = most.get(key, 0.0) + takes
    return max(most, key=lambda one: most[one], default=None)
