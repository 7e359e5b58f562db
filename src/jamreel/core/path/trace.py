"""The line that a path of moves draws in space, and where a shape made of it pulls."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from jamreel.core.path.moves import (
    Bend,
    Corner,
    Flatten,
    Fold,
    Kink,
    Mark,
    Move,
    PlaneTurn,
    Spiral,
    Straight,
    Wrap,
    corner_radius,
    move_length,
)

Array = npt.NDArray[np.float64]
# No curve is drawn with fewer or more chords than this.
FEWEST, MOST = 8, 20_000
# Of more points than this only those on the hull are compared with one another.
FEW_POINTS = 300


@dataclass(frozen=True)
class _Curve:
    """A curve in a frame of its own: points, and tangent and inward normal at both ends.

    It starts at the origin; columns of ``start`` and ``end`` are tangent, normal, binormal.
    """

    points: Array
    start: Array
    end: Array


def _cross(a: Array, b: Array) -> Array:
    """Return the vector product of two vectors; numpy's own is made for many at once."""
    (ax, ay, az), (bx, by, bz) = a.tolist(), b.tolist()
    return np.array([ay * bz - az * by, az * bx - ax * bz, ax * by - ay * bx])


def _frame(tangent: Array, normal: Array) -> Array:
    return np.column_stack([tangent, normal, _cross(tangent, normal)])


def _arc(radius: float, angle: float, count: int) -> _Curve:
    a = np.linspace(0, angle, count + 1)
    points = np.column_stack([radius * np.sin(a), radius * (1 - np.cos(a)), np.zeros_like(a)])
    c, s = math.cos(angle), math.sin(angle)
    end = _frame(np.array([c, s, 0.0]), np.array([-s, c, 0.0]))
    return _Curve(points, np.eye(3), end)


def _helix(radius: float, pitch: float, turns: float, count: int) -> _Curve:
    rise, last = pitch / (2 * math.pi), 2 * math.pi * turns
    a = np.linspace(0, last, count + 1)
    points = np.column_stack([radius * np.cos(a) - radius, radius * np.sin(a), rise * a])

    def frame(at: float) -> Array:
        tangent = np.array([-radius * math.sin(at), radius * math.cos(at), rise])
        return _frame(
            tangent / math.hypot(radius, rise), np.array([-math.cos(at), -math.sin(at), 0.0])
        )

    return _Curve(points, frame(0), frame(last))


def _spiral(move: Spiral, wire: float, count: int) -> _Curve:
    growth, inner = wire + move.gap, (move.pin + wire) / 2
    last = 2 * math.pi * move.turns
    b = growth / (2 * math.pi) * (1 if move.outward else -1)
    first = inner if move.outward else inner + growth * move.turns
    a = np.linspace(0, last, count + 1)
    r = first + b * a
    points = np.column_stack([r * np.cos(a) - first, r * np.sin(a), np.zeros_like(a)])

    def frame(at: float) -> Array:
        rad = first + b * at
        tangent = np.array(
            [b * math.cos(at) - rad * math.sin(at), b * math.sin(at) + rad * math.cos(at), 0.0]
        ) / math.hypot(b, rad)
        return _frame(tangent, np.array([-tangent[1], tangent[0], 0.0]))

    return _Curve(points, frame(0), frame(last))


def _curve(move: Move, wire: float, step: float) -> _Curve | None:
    """Return the curve of a bending move, or None for one that goes straight or takes no wire."""
    length = move_length(move, wire)

    def count(angle: float) -> int:
        by_step = math.ceil(length / step)
        return min(MOST, max(FEWEST, by_step, math.ceil(angle / 0.6)))

    match move:
        case Bend():
            return _arc((move.pin + wire) / 2, move.angle, count(move.angle))
        case Corner():
            return _arc(corner_radius(move.radius, wire), move.angle, count(move.angle))
        case Fold():
            return _arc(wire / 2, math.pi, count(math.pi))
        case Wrap():
            radius, turn = (move.core + wire) / 2, 2 * math.pi * move.turns
            return _helix(radius, move.pitch or wire, move.turns, count(turn))
        case Spiral():
            return _spiral(move, wire, count(2 * math.pi * move.turns))
        case _:
            return None


@dataclass(frozen=True)
class Run:
    """Where one move lies: its points from where the move before ended, shape (n, 3) [mm], tangent,
    normal and binormal as it begins, and the middle of what it is bent on, if it is."""

    move: Move
    points: Array
    frame: Array
    middle: Array | None = None


def runs(moves: Sequence[Move], wire: float, step: float = 0.5) -> tuple[Run, ...]:
    """Return the centre-line of a path in space, move by move.

    Starts at the origin along +x; the first bends lie in the x-y plane, ``left`` towards +y.

    Args:
        moves: the path.
        wire: wire diameter [mm].
        step: greatest distance between points along the wire [mm], over 0.

    Returns:
        One run for each move, also of those that take no wire.

    Source: plain geometry (a frame carried along arcs, helices, spirals and straights).
    """
    point = np.zeros(3)
    tangent, normal = np.array([1.0, 0, 0]), np.array([0, 1.0, 0])
    found: list[Run] = []
    for move in moves:
        laid, middle = point[np.newaxis], None
        frame = np.column_stack([tangent, normal, _cross(tangent, normal)])
        if isinstance(move, PlaneTurn):
            across = _cross(tangent, normal)
            normal = math.cos(move.angle) * normal + math.sin(move.angle) * across
        elif isinstance(move, Kink):
            turn = move.angle if move.side == "left" else -move.angle
            cos, sin = math.cos(turn), math.sin(turn)
            tangent, normal = cos * tangent + sin * normal, cos * normal - sin * tangent
        elif isinstance(move, (Straight, Flatten)):
            laid = np.vstack([point, point + move.length * tangent])
        elif not isinstance(move, Mark) and (curve := _curve(move, wire, step)) is not None:
            sign = 1.0 if move.side == "left" else -1.0
            # A right-hand bend is the mirror image of a left-hand one.
            here = np.column_stack([tangent, sign * normal, sign * _cross(tangent, sign * normal)])
            carry = here @ curve.start.T
            laid = point + curve.points @ carry.T
            if isinstance(move, Bend):
                middle = point + sign * normal * (move.pin + wire) / 2
            tangent, normal = carry @ curve.end[:, 0], sign * (carry @ curve.end[:, 1])
        found.append(Run(move, laid, frame, middle))
        point = laid[-1]
    return tuple(found)


def trace(moves: Sequence[Move], wire: float, step: float = 0.5) -> Array:
    """Return the centre-line of a path in space.

    Args:
        moves: the path.
        wire: wire diameter [mm].
        step: greatest distance between points along the wire [mm], over 0.

    Returns:
        Points of shape (n, 3) [mm].

    Source: ``runs``.
    """
    found = runs(moves, wire, step)
    return np.vstack([np.zeros((1, 3)), *(run.points[1:] for run in found)])


def inside_length(a: Array, b: Array, wire: float) -> float:
    """Return the inside length of a shape: between its two furthest points, less one wire.

    Args:
        a: one of the two, of its centre-line; see ``furthest`` [mm].
        b: the other.
        wire: wire diameter [mm].

    Returns:
        From bearing point to bearing point [mm]; a link with a loop at each end bears at the
        insides of the two, which lie half a wire within the furthest points of the centre-line.

    Source: plain geometry.
    """
    return float(np.linalg.norm(a - b)) - wire


def furthest(line: Array) -> tuple[Array, Array]:
    """Return the two points of a line that lie furthest apart.

    Args:
        line: shape (n, dimensions), n at least 1.

    Source: plain geometry, all pairs of points on the convex hull.
    """
    outer = line[_on_hull(line)] if len(line) > FEW_POINTS else line
    apart = np.linalg.norm(outer[:, None] - outer[None, :], axis=2)
    i, j = np.unravel_index(int(np.argmax(apart)), apart.shape)
    return outer[i], outer[j]


def _on_hull(line: Array) -> npt.NDArray[np.intp]:
    """Return the points that a shape's furthest two are among: those of its convex hull."""
    # Loaded where a line is long: most plans have none.
    from scipy.spatial import ConvexHull, QhullError

    try:
        # Joggled: a flat shape has a hull too.
        return np.asarray(ConvexHull(line, qhull_options="QJ").vertices, dtype=np.intp)
    except QhullError:
        return np.arange(len(line))
