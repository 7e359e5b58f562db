"""Lines as they are drawn: with no more points than the eye wants."""

import math
from collections.abc import Iterator, Sequence

import numpy as np

from jamreel.core.body.outline import Array
from jamreel.core.values import Point

# From one point of a drawing to the next its line turns so far at most [rad], and goes so much of
# its own extent. Shorter lines are left as they are. What draws it goes round from one to the next;
# where it turns further at once, it has a corner.
MOST_TURN, MOST_RUN, SHORT = 0.14, 0.25, 6
CORNER = 0.4


def points_of(line: Array) -> tuple[Point, ...]:
    """Return points of a line to hundredths of a millimetre, finer than any line on screen or
    paper, and no closer together than the eye wants them.

    Args:
        line: points, shape (n, 2) [mm].

    Source: a curve through points of a circle that turns along the line from the point before to
        the one behind is off it by 1e-5 of its radius, 8° apart (``curves``).
    """
    return whole(line if len(line) <= SHORT else _thinned(line))


# A circle as the eye wants it.
ROUND = tuple((math.cos(n * math.pi / 12), math.sin(n * math.pi / 12)) for n in range(24))


def circle(centre: Point, radius: float) -> tuple[Point, ...]:
    """Return points of a circle [mm]."""
    x, y = centre
    return tuple((round(x + radius * c, 2), round(y + radius * s, 2)) for c, s in ROUND)


def whole(line: Array) -> tuple[Point, ...]:
    """Return all points of a line to hundredths of a millimetre: what is cut or bent along it goes
    by it.

    Args:
        line: points, shape (n, 2) [mm].

    Source: plain rounding.
    """
    return tuple((x, y) for x, y in np.round(line, 2).tolist())


Curve = tuple[Point, Point, Point]


def curves(points: Sequence[Point], closed: bool) -> Iterator[Curve]:
    """Yield cubic curves through points, one after the other: two handles, and where each ends.

    Args:
        points: the first is where the line begins [mm].
        closed: whether it comes back to the first.

    Source: at a point the line goes as from the point before to the one behind, but at corners;
        handles a third of the chord long, as near to an arc.
    """
    n = len(points)
    steps = zip(points, [*points[1:], points[0]], strict=True)
    ways = [math.atan2(v - y, u - x) for (x, y), (u, v) in steps]

    def heads(i: int, along: float) -> float:
        """Which way the line goes at a point."""
        if not closed and i in (0, n - 1):
            return along
        before, behind = points[i - 1], points[(i + 1) % n]
        turn = math.remainder(ways[i % n] - ways[i - 1], math.tau)
        if abs(turn) >= CORNER:
            return along
        return math.atan2(behind[1] - before[1], behind[0] - before[0])

    for i in range(n if closed else n - 1):
        (x, y), (u, v) = points[i], points[(i + 1) % n]
        far = math.hypot(u - x, v - y) / 3
        out, into = heads(i, ways[i]), heads((i + 1) % n, ways[i])
        yield (
            (x + far * math.cos(out), y + far * math.sin(out)),
            (u - far * math.cos(into), v - far * math.sin(into)),
            (u, v),
        )


def _thinned(line: Array) -> Array:
    steps = line[1:] - line[:-1]
    x, y = steps[:, 0], steps[:, 1]
    turns = np.zeros(len(steps))
    turns[1:] = np.arctan2(x[:-1] * y[1:] - y[:-1] * x[1:], x[:-1] * x[1:] + y[:-1] * y[1:])
    turns = abs(turns)
    bent = turns > MOST_TURN / 1000
    extent = float((line.max(axis=0) - line.min(axis=0)).max())
    if not bent.any() or extent == 0:
        return line[[0, -1]]
    passed = np.cumsum(turns / MOST_TURN + bent * np.hypot(x, y) / (MOST_RUN * extent)) // 1
    kept = np.ones(len(line), dtype=bool)
    kept[1:-1] = passed[1:] > passed[:-1]
    # How far it reaches is drawn as it is.
    kept[[*line.argmin(axis=0), *line.argmax(axis=0)]] = True
    return line[kept]
