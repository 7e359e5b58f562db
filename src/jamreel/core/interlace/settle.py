"""Wires laid roughly come to lie as they do when they are pulled: as short as what they touch
allows.

Closed forms give a path that is taut by itself; where strands are packed without a gap they step
aside for each other, which no closed form says.
"""

from collections.abc import Sequence
from dataclasses import replace

import numpy as np
from scipy.spatial import cKDTree

from jamreel.core.interlace.cells import Cell
from jamreel.core.interlace.space import Array, spaced

# Points lie so many wires apart; what is nearer than so many along a wire is the same stretch.
APART, SAME = 0.2, 2.6
ROUNDS, PULLS, PULLED = 1000, 0.45, 0.75
# A wide body has many points: fewer rounds are gone, so that it takes no longer than a second or
# two; no fewer than these.
WORK, FEWEST = 350_000, 60
# A cell with more points stays as it is laid.
MOST_POINTS = 6000
# Points miss each other's nearest places by up to a part of their distance: so much is added.
WIDER, FIRM = 1.004, 1.6
# y, z and how near the middle of a wire comes to it [mm].
Bar = tuple[float, float, float]


def settled(cell: Cell) -> Cell:
    """Return a cell with its working wires pulled taut round its bars and each other.

    A cell of very many turns is left as it was laid.

    Args:
        cell: its working wires pass over and under each other as they are to; each ends where it
            begins, a cell further on.

    Source: own; a chain of points is shortened and pushed apart by turns (position-based
        dynamics, published), a counted number of times.
    """
    working = [one for one in cell.strands if one.role == "working"]
    d, period = working[0].d, cell.advance
    bars = [
        (float(one.line[0, 1]), float(one.line[0, 2]), (one.d + d) / 2)
        for one in cell.strands
        if one.role != "working"
    ]
    balls = [
        (np.array(ball.at), (ball.across + d) / 2)
        for ball in cell.balls
        if cell.under and abs(ball.across - ball.along) < 0.05
    ]
    wires = [spaced(one.line, APART * d) for one in working]
    if sum(map(len, wires)) > MOST_POINTS:
        return cell
    rounds = min(ROUNDS, max(FEWEST, WORK // sum(map(len, wires))))
    for turn in range(rounds):
        # Pulled first, let go in the end: so that nothing is left lying in another.
        pull = PULLS * max(0.0, 1 - turn / (rounds * PULLED))
        wires = [_shortened(line, pull, period) for line in wires]
        _apart(wires, d * WIDER, period, bars, balls)
        if turn % 12 == 11:
            wires = [spaced(line, APART * d) for line in wires]
    laid = iter(wires)
    strands = tuple(
        replace(one, line=next(laid)) if one.role == "working" else one for one in cell.strands
    )
    return replace(cell, strands=strands, packed=False)


def _shortened(line: Array, pull: float, period: float) -> Array:
    """Return a wire of which every point has moved towards the middle of its neighbours."""
    shift = np.array([period, 0.0, 0.0])
    body = line[:-1]
    before = np.vstack([body[-1] - shift, body[:-1]])
    after = np.vstack([body[1:], body[0] + shift])
    body = body + pull * (0.5 * (before + after) - body)
    return np.vstack([body, body[0] + shift])


def _apart(
    wires: list[Array], d: float, period: float, bars: list[Bar], balls: list[tuple[Array, float]]
) -> None:
    """Push points apart that are nearer than a wire, and out of what is fixed."""
    bodies = [line[:-1] for line in wires]
    counts = [len(body) for body in bodies]
    points = np.vstack(bodies)
    wire = np.repeat(np.arange(len(bodies)), counts)
    number = np.concatenate([np.arange(n) for n in counts])
    many = np.array(counts)
    reach = max(1, int(np.ceil(d / period)) + 1)
    images = [points + np.array([n * period, 0.0, 0.0]) for n in range(-reach, reach + 1)]
    near = cKDTree(np.vstack(images))
    found = cKDTree(points).sparse_distance_matrix(near, d, output_type="coo_matrix")
    i, other, apart = found.row, found.col, found.data
    j, image = other % len(points), other // len(points) - reach
    ahead = number[j] + image * many[wire[i]] - number[i]
    same = (wire[i] == wire[j]) & (np.abs(ahead) * APART < SAME)
    keep = ~same & (apart > 1e-9)
    i, j, image, apart = i[keep], j[keep], image[keep], apart[keep]
    if len(i):
        away = points[i] - points[j] - np.outer(image * period, [1.0, 0.0, 0.0])
        push = away * (0.5 * (d - apart) / apart)[:, np.newaxis]
        moves = np.zeros_like(points)
        np.add.at(moves, i, push)
        met = np.bincount(i, minlength=len(points))
        points = points + moves / np.maximum(met, 1)[:, np.newaxis] * FIRM
    points = _off_balls(_off_bars(points, bars), balls, period)
    start = 0
    for n in range(len(wires)):
        body = points[start : start + counts[n]]
        start += counts[n]
        wires[n] = np.vstack([body, body[0] + np.array([period, 0.0, 0.0])])


def _off_bars(points: Array, bars: Sequence[Bar]) -> Array:
    """Return points moved out of bars."""
    for y, z, radius in bars:
        away = points[:, 1:] - [y, z]
        far = np.linalg.norm(away, axis=1)
        inside = (far < radius) & (far > 1e-9)
        points[inside, 1:] = [y, z] + away[inside] * (radius / far[inside])[:, np.newaxis]
    return points


def _off_balls(points: Array, balls: Sequence[tuple[Array, float]], period: float) -> Array:
    """Return points moved out of round beads."""
    for middle, radius in balls:
        away = points - middle
        away[:, 0] -= period * np.round(away[:, 0] / period)
        far = np.linalg.norm(away, axis=1)
        inside = (far < radius) & (far > 1e-9)
        points[inside] += away[inside] * (radius / far[inside] - 1)[:, np.newaxis]
    return points
