"""Lines as they are drawn: with no more points than the eye wants."""

import math

import numpy as np

from jamreel.core.body.outline import Array
from jamreel.core.values import Point

# From one point of a drawing to the next its line turns so far at most [rad], and goes so much of
# its own extent. Shorter lines are left as they are.
MOST_TURN, MOST_RUN, SHORT = 0.14, 0.25, 6


def points_of(line: Array) -> tuple[Point, ...]:
    """Return points of a line to hundredths of a millimetre, finer than any line on screen or
    paper, and no closer together than the eye wants them.

    Args:
        line: points, shape (n, 2) [mm].

    Source: an arc's height over its chord is a quarter of the chord times the tangent of a quarter
        of the turn; here a thousandth of the line's extent at most.
    """
    return whole(line if len(line) <= SHORT else _thinned(line))


# A circle as the eye wants it.
ROUND = tuple((math.cos(n * math.pi / 24), math.sin(n * math.pi / 24)) for n in range(48))


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
