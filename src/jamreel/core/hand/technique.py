"""Which techniques a wire goes through, read off its moves, and how much of it each takes."""

import math
from collections.abc import Iterable, Sequence

from jamreel.core.path.moves import Bend, Corner, Fold, Move, Spiral, Wrap, developed_length

# A bend of so much is a loop, less of it a bend.
LOOP_FROM = 1.5 * math.pi
# Techniques that are read off moves; each weave goes by its own name beside them.
TECHNIQUES = ("loop", "wrapped_loop", "coil", "bend", "fold", "spiral", "ring")


def techniques_of(moves: Iterable[Move], adds: float) -> dict[str, float]:
    """Return the wire [mm] that each technique takes of a path; what stays straight is in none.

    A loop that runs on into wraps round its own stem is one wrapped loop.

    Args:
        moves: of the path.
        adds: what a bend adds to its pin [mm], see ``Wire.bend_adds``.

    Example:
        >>> from jamreel.core.path.moves import Straight
        >>> path = [Straight(length=20), Bend(angle=2 * math.pi, pin=3, label="loop")]
        >>> {key: round(mm, 2) for key, mm in techniques_of(path, 1.0).items()}
        {'loop': 12.57}

    Source: ``path.moves.developed_length``.
    """
    worked = [one for one in moves if isinstance(one, (Bend, Corner, Fold, Spiral, Wrap))]
    found: dict[str, float] = {}
    for n, move in enumerate(worked):
        key = _technique(worked, n)
        found[key] = found.get(key, 0.0) + developed_length((move,), adds)
    return found


def _technique(worked: Sequence[Move], n: int) -> str:
    move = worked[n]
    if isinstance(move, Wrap):
        return "wrapped_loop" if move.on_own else "coil"
    if isinstance(move, Spiral):
        return "spiral"
    if not isinstance(move, Bend):
        return "fold"
    beside = worked[max(n - 1, 0) : n + 2]
    wrapped = any(isinstance(one, Wrap) and one.on_own for one in beside)
    if move.angle < LOOP_FROM:
        return "bend"
    return "wrapped_loop" if wrapped else "loop"
