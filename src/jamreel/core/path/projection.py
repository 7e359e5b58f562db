"""A wire as it is seen when it is laid down: what stands square to the paper leans up a little.

The cabinet projection of workshop drawings: what lies in the paper is to scale, what stands off it
is drawn slanting and shorter.
"""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from jamreel.core.path.moves import Move, Wrap, developed_length
from jamreel.core.path.trace import Array, Run, runs

# So much of what stands off the paper is seen, upwards.
LEAN = 0.3
# Points lie no further apart on a picture [mm], and no wire has more of them.
APART_MM, MOST_POINTS = 0.5, 1500


@dataclass(frozen=True)
class View:
    """Axes of a drawing in space: the point at its origin, and right, up and towards the eye as
    columns; ``turn`` turns the drawing in its own plane [rad]."""

    origin: Array
    axes: Array
    turn: float = 0.0

    @cached_property
    def _through(self) -> Array:
        """From space to what is seen: leaning first, then turned."""
        cos, sin = math.cos(self.turn), math.sin(self.turn)
        leans = np.array([[1, 0, 0], [0, 1, 0], [0, LEAN, 1]], dtype=float)
        turns = np.array([[cos, sin, 0], [-sin, cos, 0], [0, 0, 1]])
        return np.asarray(self.axes @ leans @ turns)

    def seen(self, points: Array) -> Array:
        """Return points of shape (n, 3) as they are seen: x, y and how near, of shape (n, 3)."""
        return np.asarray((points - self.origin) @ self._through)


@dataclass(frozen=True)
class Piece:
    """A piece of a wire as it is seen, shape (n, 2) [mm], how near it is, and how often it is
    repeated, each time a ``step`` further."""

    points: Array
    near: float
    times: int = 1
    step: tuple[float, float] = (0.0, 0.0)


def traced(moves: Sequence[Move], wire: float) -> tuple[Run, ...]:
    """Return a path move by move, as fine as a picture needs it.

    Args:
        moves: the path.
        wire: wire diameter [mm].

    Source: ``path.trace.runs``.
    """
    step = max(APART_MM, developed_length(moves, wire) / MOST_POINTS)
    return runs(moves, wire, step)


def held_at(
    found: Sequence[Run], held: int, turn: float = 0.0, roll: float = 0.0, *, wound: bool = False
) -> View:
    """Return the drawing in which one run begins at the origin and runs to the right.

    Args:
        found: the path.
        held: number of the run.
        turn: by which the drawing is turned afterwards [rad].
        roll: by which it is rolled about that run first [rad].
        wound: whether the axis of its turns runs to the right instead.

    Source: plain geometry.
    """
    run = found[held]
    if not wound or not _winds(run):
        cos, sin = math.cos(roll), math.sin(roll)
        rolled = np.array([[1, 0, 0], [0, cos, -sin], [0, sin, cos]])
        return View(run.points[0], run.frame @ rolled, turn)
    turn_, _ = _one_turn(run)
    axis = (turn_[-1] - turn_[0]) / np.linalg.norm(turn_[-1] - turn_[0])
    # It begins behind, so that the front of every turn is drawn in one piece.
    near = run.frame[:, 1]
    return View(run.points[0], np.column_stack([axis, np.cross(near, axis), near]), turn)


def pieces(found: Sequence[Run], laid: View) -> tuple[Piece, ...]:
    """Return a wire in pieces, the furthest first: turns that pass behind it lie under it.

    Args:
        found: the path.
        laid: how it is looked at.

    Source: painter's algorithm; general knowledge.
    """
    every = [piece for run in found if len(run.points) > 1 for piece in _pieces(run, laid)]
    return tuple(sorted(every, key=lambda one: round(one.near, 3)))


# One turn of what is wound, in so many points: its quarters begin at points of it.
TURN_POINTS = 17


def _one_turn(run: Run) -> tuple[Array, Array]:
    """Return the first turn of what is wound, and what brings its axis to its own stem, where that
    is what it goes round."""
    assert isinstance(run.move, Wrap)
    last = (len(run.points) - 1) / run.move.turns
    turn = _at(run.points, np.linspace(0, last, TURN_POINTS))
    if not run.move.on_own:
        return turn, np.zeros(3)
    axis = turn[-1] - turn[0]
    off = turn[:-1].mean(axis=0) - turn[0]
    return turn, off - axis * (off @ axis) / (axis @ axis)


def _winds(run: Run) -> bool:
    return isinstance(run.move, Wrap) and run.move.turns >= 1


def seen_of(run: Run, laid: View) -> Array:
    """Return the points of a run as they are seen; see ``View.seen``.

    What is wound round its own stem has it in its middle: a path goes on from the stem's middle, so
    that its turns would lie beside it.

    Args:
        run: of a path.
        laid: how it is looked at.

    Source: plain geometry.
    """
    return laid.seen(run.points - _one_turn(run)[1] if _winds(run) else run.points)


def _pieces(run: Run, laid: View) -> Iterator[Piece]:
    if not _winds(run):
        seen = laid.seen(run.points)
        yield Piece(seen[:, :2], float(seen[:, 2].mean()))
        return
    assert isinstance(run.move, Wrap)
    turn, off = _one_turn(run)
    seen = laid.seen(turn - off)
    turns, (dx, dy) = int(run.move.turns + 1e-9), (seen[-1] - seen[0])[:2].tolist()
    # Each turn in three: it begins and ends on one side of what it goes round.
    quarter = TURN_POINTS // 4
    for start, end in ((0, quarter), (quarter, 3 * quarter), (3 * quarter, 4 * quarter)):
        arc = seen[start : end + 1]
        yield Piece(arc[:, :2], float(arc[:, 2].mean()), turns, (dx, dy))
    if run.move.turns > turns + 1e-6:
        first = int((len(run.points) - 1) * turns / run.move.turns)
        rest = laid.seen(run.points[first:] - off)
        yield Piece(rest[:, :2], float(rest[:, 2].mean()))


def _at(points: Array, where: Array) -> Array:
    """Return points between others, by their numbers."""
    low = np.minimum(where.astype(int), len(points) - 2)
    share = (where - low)[:, None]
    return np.asarray(points[low] * (1 - share) + points[low + 1] * share)
