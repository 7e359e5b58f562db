"""Lines as they are drawn: with no more points than the eye wants."""

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


def whole(line: Array) -> tuple[Point, ...]:
    """Return all points of a line to hundredths of a millimetre: what is cut or bent along it goes
    by it.

    Args:
        line: points, shape (n, 2) [mm].
    """
    return tuple((x, y) for x, y in np.round(line, 2).tolist())


def _thinned(line: Array) -> Array:
    steps = np.diff(line, axis=0)
    runs = np.hypot(steps[:, 0], steps[:, 1])
    ways = np.unwrap(np.arctan2(steps[:, 1], steps[:, 0]))
    turns = np.abs(np.diff(ways, prepend=ways[:1]))
    extent = float(np.ptp(line, axis=0).max())
    bent = turns > MOST_TURN / 1000
    if not bent.any() or extent == 0:
        return line[[0, -1]]
    passed = np.cumsum(turns / MOST_TURN + bent * runs / (MOST_RUN * extent))
    kept = np.diff(np.floor(passed), prepend=0.0, append=np.inf) > 0
    # How far it reaches is drawn as it is.
    kept[[0, *line.argmin(axis=0), *line.argmax(axis=0)]] = True
    return line[kept]
