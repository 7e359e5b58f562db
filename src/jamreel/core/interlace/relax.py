"""Wires laid roughly come to lie as they do when they are pulled: as short as what they touch
allows.

Closed forms give a path that is taut by itself; where strands are packed without a gap they step
aside for each other, which no closed form says.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
import numpy.typing as npt

from jamreel.core.interlace.cells import Cell
from jamreel.core.interlace.space import Array, spaced

# Points lie so many wires apart; what is nearer than so many along a wire is the same stretch.
APART, SAME = 0.25, 2.6
ROUNDS, PULLS, PULLED = 600, 0.45, 0.75
# Points are laid out evenly anew, and neighbours looked for anew, after so many rounds; sooner if
# something has moved by half of the skin [wires]: what lies within it is watched.
EVEN, SKIN = 12, 0.2
# What a look for neighbours costs, and a round for each point and each pair that is watched, in
# microseconds of a machine of the common sort; so much may be spent on a cell, and no fewer rounds
# are gone than these.
LOOK_COSTS, ROUND_COSTS, POINT_COSTS, PAIR_COSTS = 6.0, 300.0, 0.7, 0.09
WORK, FEWEST = 750_000.0, 60
# A cell with more points stays as it is laid.
MOST_POINTS = 6000
# Points miss each other's nearest places by up to a part of their distance: so much is added.
WIDER, FIRM = 1.004, 1.6
# y, z and how near the middle of a wire comes to it [mm].
Bar = tuple[float, float, float]
Indices = npt.NDArray[np.intp]


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
    fixed = _Fixed(tuple(bars), tuple(balls), period)
    turn, spent, rounds = 0, 0.0, ROUNDS
    while turn < rounds:
        bodies = _Bodies.of(wires, d * WIDER, period)
        # What this many rounds will cost is known once neighbours are.
        spent += bodies.costs(0)
        rounds = min(rounds, turn + max(FEWEST - turn, int((WORK - spent) / bodies.costs(1))))
        for _ in range(min(EVEN, rounds - turn)):
            # Pulled first, let go in the end: so that nothing is left lying in another.
            bodies.pull(PULLS * max(0.0, 1 - turn / (rounds * PULLED)))
            bodies.push_apart()
            bodies.at = fixed.off(bodies.at)
            spent += bodies.costs(1)
            turn += 1
            if bodies.moved_far():
                break
        wires = bodies.lines()
        if turn < rounds:
            wires = [spaced(line, APART * d) for line in wires]
    laid = iter(wires)
    strands = tuple(
        replace(one, line=next(laid)) if one.role == "working" else one for one in cell.strands
    )
    return replace(cell, strands=strands, packed=False)


@dataclass
class _Bodies:
    """All points of all wires of a cell, without the ones at which they begin anew; each with the
    points before and behind it, and the pairs that are near each other."""

    at: Array
    starts: list[int]
    before: Indices
    behind: Indices
    shift: Array
    d: float
    period: float
    began: Array
    one: Indices
    other: Indices
    between: Array

    @classmethod
    def of(cls, wires: Sequence[Array], d: float, period: float) -> "_Bodies":
        counts = [len(line) - 1 for line in wires]
        ends = np.cumsum(counts)
        starts = [int(end - count) for end, count in zip(ends, counts, strict=True)]
        at = np.vstack([line[:-1] for line in wires])
        number = np.arange(len(at))
        before, behind = number - 1, number + 1
        shift = np.zeros(len(at))
        for start, end in zip(starts, ends, strict=True):
            before[start], behind[end - 1] = end - 1, start
            # The point before the first one lies a cell back, the one behind the last a cell on:
            # together they shift the middle of both by nothing, but not where a wire is one point.
            shift[start] -= period
            shift[end - 1] += period
        found = cls(at, starts, before, behind, shift, d, period, at.copy(), number, number, at[:0])
        found._watch(np.repeat(np.arange(len(counts)), counts), np.array(counts))
        return found

    def _watch(self, wire: Indices, many: Indices) -> None:
        """Find the pairs that are near each other, on one wire only where they are not the same
        stretch of it."""
        count = len(self.at)
        number = np.concatenate([np.arange(n) for n in many])
        within = self.d * (1 + SKIN)
        reach = max(1, int(np.ceil(within / self.period)) + 1)
        # Whatever is a cell back of something has that a cell on: each pair is looked for once.
        images = [self.at + np.array([n * self.period, 0.0, 0.0]) for n in range(reach + 1)]
        # Loaded when a body is first pulled tight: no plan needs it.
        from scipy.spatial import cKDTree

        near = cKDTree(np.vstack(images))
        found = cKDTree(self.at).sparse_distance_matrix(near, within, output_type="coo_matrix")
        i, j, image = found.row, found.col % count, found.col // count
        ahead = number[j] + image * many[wire[i]] - number[i]
        same = (wire[i] == wire[j]) & (np.abs(ahead) * APART < SAME)
        keep = ~same & (found.data > 1e-9) & ((image > 0) | (i < j))
        self.one, self.other = i[keep], j[keep]
        self.between = np.zeros((int(keep.sum()), 3))
        self.between[:, 0] = image[keep] * self.period

    def costs(self, rounds: int) -> float:
        """Return what looking for neighbours costs, or so many rounds [microseconds]."""
        if rounds == 0:
            return LOOK_COSTS * len(self.at)
        each = ROUND_COSTS + POINT_COSTS * len(self.at) + PAIR_COSTS * len(self.one)
        return rounds * each + LOOK_COSTS * len(self.at) / EVEN

    def pull(self, pull: float) -> None:
        """Move every point towards the middle of its neighbours on its wire."""
        middle = 0.5 * (self.at[self.before] + self.at[self.behind])
        middle[:, 0] += 0.5 * self.shift
        self.at = self.at + pull * (middle - self.at)

    def push_apart(self) -> None:
        """Move points apart that are nearer than a wire."""
        if not len(self.one):
            return
        away = self.at[self.one] - self.at[self.other] - self.between
        apart = np.sqrt(np.einsum("ij,ij->i", away, away))
        met = (apart < self.d) & (apart > 1e-9)
        if not met.any():
            return
        i, j, apart = self.one[met], self.other[met], apart[met]
        push = away[met] * (0.5 * (self.d - apart) / apart)[:, np.newaxis]
        count = len(self.at)
        often = np.bincount(i, minlength=count) + np.bincount(j, minlength=count)
        share = FIRM / np.maximum(often, 1)
        for k in range(3):
            moves = np.bincount(i, push[:, k], count) - np.bincount(j, push[:, k], count)
            self.at[:, k] += moves * share

    def moved_far(self) -> bool:
        """Return whether something may have come near that is not watched."""
        moved = self.at - self.began
        return bool(np.einsum("ij,ij->i", moved, moved).max() > (0.5 * SKIN * self.d) ** 2)

    def lines(self) -> list[Array]:
        """Return the wires, each ending where it begins, a cell further on."""
        bodies = np.split(self.at, self.starts[1:])
        step = np.array([self.period, 0.0, 0.0])
        return [np.vstack([body, body[0] + step]) for body in bodies]


@dataclass(frozen=True)
class _Fixed:
    """What does not move: bars along a cell, and round beads."""

    bars: tuple[Bar, ...]
    balls: tuple[tuple[Array, float], ...]
    period: float

    def off(self, points: Array) -> Array:
        """Return points moved out of bars and beads."""
        return _off_balls(_off_bars(points, self.bars), self.balls, self.period)


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
