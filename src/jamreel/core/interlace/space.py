"""Lines in space: arcs round bars that lie along x, straights between them, how long a line is.

A body lies along x; y runs across it and z towards the eye. Round a bar an angle counts from the
front (+z) towards +y.
"""

import math
from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]
# An arc is drawn by so many radians a step: chords of it lie 0.1 % of its radius within.
STEP_RAD = 0.09


def round_bar(
    bar: tuple[float, float], radius: float, turn: tuple[float, float], along: tuple[float, float]
) -> Array:
    """Return a helix round a bar.

        (x, y + r sin t, z + r cos t), t and x going on evenly

    Args:
        bar: y and z of its middle [mm].
        radius: r, of the wire's middle round it [mm].
        turn: angle at which it begins and ends [rad].
        along: x at which it begins and ends [mm].

    Returns:
        Points, n by 3 [mm].

    Source: plain geometry.
    """
    steps = max(2, math.ceil(abs(turn[1] - turn[0]) / STEP_RAD))
    angle = np.linspace(*turn, steps + 1)
    x = np.linspace(*along, steps + 1)
    y = bar[0] + radius * np.sin(angle)
    return np.column_stack([x, y, bar[1] + radius * np.cos(angle)])


def packed_round(
    bar: tuple[float, float],
    radius: float,
    turn: tuple[float, float],
    along: tuple[float, float],
    flat: tuple[float, float],
) -> Array:
    """Return turns that lie close round a bar where another strand comes or goes at one place.

    A helix that goes on evenly would cut into the strand that leaves it straight: near that angle
    turns lie square to the bar, and go on along it elsewhere.

    Args:
        bar: y and z of its middle [mm].
        radius: r, of the wire's middle round it [mm].
        turn: angle at which they begin and end [rad].
        along: x at which they begin and end [mm].
        flat: the angle at which strands come and go, and how far to both sides of it turns lie
            square [rad].

    Source: plain geometry; how turns lie beside a straight end.
    """
    line = round_bar(bar, radius, turn, along)
    angle = np.linspace(*turn, len(line))
    goes = _goes_on(angle, *flat)
    whole = goes[-1] - goes[0]
    if abs(whole) > 1e-9:
        line[:, 0] = along[0] + (along[1] - along[0]) * (goes - goes[0]) / whole
    return line


def _goes_on(angle: Array, at: float, wide: float) -> Array:
    """Return how far round one has come, the stretches that lie flat not counted [rad]."""
    turns, rest = np.divmod(angle - at + wide, 2 * math.pi)
    share = np.clip((rest - 2 * wide) / (2 * math.pi - 2 * wide), 0.0, 1.0)
    return (turns + share) * 2 * math.pi


def joined(*lines: Array) -> Array:
    """Return lines as one, points at which one ends and the next begins once.

    Args:
        lines: n by 3 each [mm]; those that don't meet are joined straight.

    Source: plain geometry.
    """
    every = np.vstack(lines)
    apart = np.linalg.norm(np.diff(every, axis=0), axis=1) > 1e-9
    line: Array = every[np.concatenate([[True], apart])]
    return line


def straight(*points: Sequence[float]) -> Array:
    """Return a line of straight stretches between points [mm]."""
    return np.array(points, dtype=float)


def length_of(line: Array) -> float:
    """Return the length of a line [mm]."""
    return float(np.linalg.norm(np.diff(line, axis=0), axis=1).sum())


def spaced(line: Array, apart: float) -> Array:
    """Return a line in points that lie evenly, no further apart than so much [mm].

    Args:
        line: n by 3 [mm].
        apart: over 0 [mm].

    Source: linear interpolation along the arc; plain geometry.
    """
    run = np.concatenate([[0.0], np.cumsum(np.linalg.norm(np.diff(line, axis=0), axis=1))])
    at = np.linspace(0.0, run[-1], max(2, math.ceil(run[-1] / apart) + 1))
    return np.column_stack([np.interp(at, run, line[:, n]) for n in range(3)])


def turned_over(line: Array) -> Array:
    """Return a line turned half round the x axis: what went over goes under, left is right."""
    over: Array = line * np.array([1.0, -1.0, -1.0])
    return over


def moved(line: Array, x: float, y: float = 0.0, z: float = 0.0) -> Array:
    """Return a line that lies so much further on [mm]."""
    further: Array = line + np.array([x, y, z])
    return further


def inner_tangent(apart: float, radius: float) -> float:
    """Return the angle at which a crossing leaves a bar, sin a = 2 r / S.

    Args:
        apart: S, between the middles of two bars [mm], at least 2 r.
        radius: r, of the wire's middle round a bar [mm].

    Returns:
        Angle [rad]; a quarter turn where the wire only just fits between them.

    Raises:
        ValueError: bars too near for the wire to pass between.

    Example:
        >>> round(inner_tangent(3.0, 0.7), 4)
        0.4855

    Source: crossed belt, Machinery's Handbook; published.
    """
    if 2 * radius > apart:
        raise ValueError("no wire passes between bars that near")
    return math.asin(2 * radius / apart)
