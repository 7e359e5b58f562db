"""A part's wire in its picture: drawn from the path of its moves, as every step of it is drawn."""

from dataclasses import dataclass, replace
from functools import cached_property, lru_cache

import numpy as np

from jamreel.core.parts.base import WireUse
from jamreel.core.path.lines import points_of
from jamreel.core.path.moves import Move
from jamreel.core.path.projection import Piece, View, held_at, pieces, seen_of, traced
from jamreel.core.path.trace import Array, Run
from jamreel.core.values import Point, Stroke

# What is held while a wire is worked, and snipped off when it is done.
SNIPPED = ("tail", "lost", "looser")


def kept_moves(use: WireUse) -> tuple[tuple[Move, ...], int]:
    """Return the moves of a wire without what is snipped off in the end, and the number of the one
    that is held where it lies.

    Args:
        use: the wire.

    Source: plain counting.
    """
    moves: list[Move] = []
    held = 0
    for key, row in use.stretches:
        if key.startswith(SNIPPED):
            continue
        if key == use.held:
            held = len(moves)
        moves += row
    return tuple(moves), held


@dataclass(frozen=True)
class Look:
    """A wire as its part's picture looks at it: its path, the way of looking, and the corners of
    what is seen of it [mm]."""

    path: tuple[Run, ...]
    view: View
    low: tuple[float, float]
    high: tuple[float, float]
    arc: float = 0.0

    @cached_property
    def pieces(self) -> tuple[Piece, ...]:
        """What is drawn of it, the furthest first."""
        found = pieces(self.path, self.view)
        if not self.arc:
            return found
        # Along an arc no turn is the last one moved on.
        return tuple(
            Piece(self.bent(one.points + n * np.array(one.step)), one.near)
            for one in found
            for n in range(one.times)
        )

    def bent(self, points: Array) -> Array:
        """Return points of a straight picture as they lie along its arc, its middle on top."""
        if not self.arc:
            return points
        middle = (self.low[0] + self.high[0]) / 2
        turn, out = (points[:, 0] - middle) / self.arc, self.arc + points[:, 1]
        return np.column_stack([out * np.sin(turn), out * np.cos(turn) - self.arc])


def looked_at(use: WireUse) -> Look:
    """Return a wire without what is snipped off, as its part's picture looks at it.

    Args:
        use: the wire.

    Source: ``path.projection``.
    """
    moves, held = kept_moves(use)
    look = (use.turn, use.roll, use.wound, use.arc, use.eye)
    return _looked_at(moves, use.wire.bend_adds, held, look)


# A part is made more than once with the same wire: with every keystroke, and to be laid and drawn.
@lru_cache(maxsize=1024)
def _looked_at(
    moves: tuple[Move, ...],
    wire: float,
    held: int,
    look: tuple[float, float, bool, float, tuple[tuple[float, float, float], ...]],
) -> Look:
    turn, roll, wound, arc, eye = look
    found = traced(moves, wire)
    if eye:
        view = View(found[0].points[0], np.array(eye).T)
    else:
        view = held_at(found, held, turn, roll, wound=wound)
    seen = np.vstack([seen_of(run, view)[:, :2] for run in found])
    (x0, y0), (x1, y1) = seen.min(axis=0).tolist(), seen.max(axis=0).tolist()
    return Look(found, view, (x0, y0), (x1, y1), arc)


def laid(
    use: WireUse, *, left: float | None = None, middle: float | None = None, low: bool = False
) -> WireUse:
    """Return a wire with the place where it lies in its part's picture.

    Args:
        use: the wire; ``held`` and ``turn`` are set.
        left: where the inside of its leftmost bend comes to lie [mm], half a wire within it; or
        middle: where the middle of all of it does.
        low: whether its middle lies on the line across, too; otherwise what is held does.

    Source: plain geometry.
    """
    look = looked_at(use)
    (x0, y0), (x1, y1) = look.low, look.high
    x = left - use.wire.d / 2 - x0 if left is not None else (middle or 0.0) - (x0 + x1) / 2
    return replace(use, at=(x, -(y0 + y1) / 2 if low else 0.0))


def moved(use: WireUse, dx: float) -> WireUse:
    """Return a wire that lies so much further to the right in the picture [mm]."""
    return replace(use, at=(use.at[0] + dx, use.at[1]))


def drawn(use: WireUse, tone: str = "", *, front: bool = False) -> tuple[Stroke, ...]:
    """Return a wire as it is bent in the end, where it lies.

    Args:
        use: the wire.
        tone: of its own, where it is not the part's metal.
        front: leaves out what lies behind: where much is drawn small, nobody sees it.

    Source: ``path.projection.pieces``.
    """
    look = looked_at(use)
    seen = (one for one in look.pieces if not front or one.near >= 0)
    return tuple(_stroke(one, use.at, use.wire.d, tone) for one in seen)


def _stroke(piece: Piece, at: Point, wide: float, tone: str) -> Stroke:
    return Stroke(
        part="wire",
        points=points_of(piece.points + np.array(at)),
        width_mm=wide,
        tone=tone,
        times=piece.times,
        step=piece.step,
    )


def drawn_round(core: WireUse, winding: WireUse) -> tuple[Stroke, ...]:
    """Return a wire with another wound round it: what passes behind it lies under it.

    Args:
        core: the wire within.
        winding: the wire round it.

    Source: painter's algorithm; general knowledge.
    """
    turns = looked_at(winding).pieces
    behind, before = ([one for one in turns if (one.near < 0) == far] for far in (True, False))
    d = winding.wire.d
    return (
        *(_stroke(one, winding.at, d, "") for one in behind),
        *drawn(core),
        *(_stroke(one, winding.at, d, "") for one in before),
    )
