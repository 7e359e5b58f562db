"""A body drawn from its strands as it lies face up: what is behind first, over and under right."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from itertools import pairwise

import numpy as np

from jamreel.core.interlace.cells import Ball, Cell, Strand
from jamreel.core.interlace.space import Array
from jamreel.core.parts.pictures import bead
from jamreel.core.values import Stroke

# Drawn small: by how much of a wire a line may be off, and what is so short that it is drawn with
# what it goes on from, in wires.
PLAIN, SHORT = 0.12, 1.3


@dataclass(frozen=True)
class Face:
    """What is seen of a cell, once: the strokes behind the bars and those before them, beads
    included; how far it goes on [mm], how many rows it has, what is seen of its first rows where a
    body ends within it, and of it at both ends of a body, where something is left out there."""

    advance: float
    rows: int
    behind: tuple[Stroke, ...]
    before: tuple[Stroke, ...]
    begun: tuple["Face", ...] = ()
    ended: "Face | None" = None

    def along(
        self, rows: int, x: float, left_out: int = 0
    ) -> tuple[tuple[Stroke, ...], tuple[Stroke, ...]]:
        """Return what is seen behind and before the bars of a body.

        Args:
            rows: of the body.
            x: where its first row begins [mm].
            left_out: cells at each end at which something is left out.
        """
        times, rest = divmod(rows, self.rows)
        parts = [(self, times, x)] if times else []
        if self.ended and left_out:
            long = left_out * self.advance
            last = x + (times - left_out) * self.advance
            within = (self, times - 2 * left_out, x + long)
            parts = [(self.ended, left_out, x), within, (self.ended, left_out, last)]
        if rest:
            parts.append((self.begun[rest - 1], 1, x + times * self.advance))
        behind = [s for one, again, at in parts for s in one._placed(one.behind, again, at)]
        before = [s for one, again, at in parts for s in one._placed(one.before, again, at)]
        return tuple(behind), tuple(before)

    def _placed(self, strokes: tuple[Stroke, ...], times: int, x: float) -> Iterator[Stroke]:
        step = (round(self.advance, 4), 0.0)
        for one in strokes:
            points = tuple((round(a + x, 2), b) for a, b in one.points)
            yield one.model_copy(update={"points": points, "times": times, "step": step})


def face(cell: Cell, tone: str) -> Face:
    """Return what is seen of a cell that begins at x = 0.

    Args:
        cell: what repeats.
        tone: of the working wire.

    Source: painter's algorithm; general knowledge.
    """
    begun = tuple(_seen(_begun(cell, rows), tone) for rows in range(1, cell.rows))
    return replace(_seen(cell, tone), begun=begun)


def _seen(cell: Cell, tone: str) -> Face:
    """Return what is seen of a cell, whole as it is."""
    fine = max((one.d for one in cell.strands if one.role == "working"), default=0.0)
    bars = [
        (float(one.line[0, 1]), one.d / 2 + 0.55 * fine)
        for one in cell.strands
        if one.role != "working"
    ]
    pieces = [row for one in cell.strands for row in _pieces(one, cell, tone, bars)]
    lines = sorted(pieces, key=lambda row: row[0])
    behind = tuple(s for z, s in lines if z < 0)
    front = [s for z, s in lines if z >= 0]
    beads = [_bead(ball) for ball in cell.balls]
    before = (*beads, *front) if cell.under else (*front, *beads)
    return Face(cell.advance, cell.rows, behind, before)


def _begun(cell: Cell, rows: int) -> Cell:
    """Return the first rows of a cell."""
    by_row = any(one.row for one in cell.strands)
    upto = cell.advance * rows / cell.rows
    strands = []
    for one in cell.strands:
        if by_row and one.row < rows:
            strands.append(one)
        elif not by_row:
            line = one.line[one.line[:, 0] <= upto + one.d / 2]
            strands.append(Strand(one.role, one.d, line))
    balls = tuple(ball for ball in cell.balls if ball.row < rows)
    return Cell(upto, rows, tuple(strands), balls, under=cell.under, opaque=cell.opaque)


def _bead(ball: Ball) -> Stroke:
    along = ball.axis[0] > ball.axis[1]
    wide, high = (ball.along, ball.across) if along else (ball.across, ball.along)
    return bead(ball.at[0], wide, high, ball.colour, ball.at[1])


def _pieces(
    strand: Strand, cell: Cell, tone: str, bars: list[tuple[float, float]]
) -> Iterator[tuple[float, Stroke]]:
    """Yield a working wire in pieces that lie before the bars or behind them.

    Half a turn behind a bar is hidden by it, and by the halves before it; it is left out.
    """
    if strand.role != "working" or len(strand.line) < 2:
        return
    line = strand.line
    for start, end in pairwise(_cuts(line, SHORT * strand.d)):
        piece = line[start : end + 1]
        depth = float(piece[:, 2].mean())
        hidden = (bool((abs(piece[:, 1] - y) < near).all()) for y, near in bars)
        if depth < 0 and (cell.opaque or any(hidden)):
            continue
        points = _plain(piece[:, :2], PLAIN * strand.d)
        points = np.round(points, 2)
        yield (
            depth,
            Stroke(
                part="wire",
                points=tuple((a, b) for a, b in points.tolist()),
                width_mm=strand.d,
                tone=tone,
            ),
        )


def _cuts(line: Array, short: float) -> list[int]:
    """Return where a line passes from before the bars to behind them, both its ends included; what
    is short goes with what came before it."""
    front = (line[1:, 2] + line[:-1, 2]) >= 0
    run = np.concatenate([[0.0], np.cumsum(np.linalg.norm(np.diff(line, axis=0), axis=1))])
    cuts = [0]
    for cut in (np.flatnonzero(np.diff(front)) + 1).tolist():
        if run[cut] - run[cuts[-1]] > short:
            cuts.append(cut)
        elif len(cuts) > 1:
            cuts.pop()
    if len(cuts) > 1 and run[-1] - run[cuts[-1]] <= short:
        cuts.pop()
    return [*cuts, len(front)]


def _plain(points: Array, off: float) -> Array:
    """Return the fewest points of a line from which none of the others is further off.

    Source: Douglas and Peucker 1973; published.
    """
    ways = points[-1] - points[0]
    away = points - points[0]
    long = float(np.hypot(*ways))
    if long > 1e-9:
        away = np.abs(away[:, 0] * ways[1] - away[:, 1] * ways[0]) / long
    else:
        away = np.hypot(away[:, 0], away[:, 1])
    n = int(away.argmax())
    if len(points) < 3 or away[n] <= off:
        return points[[0, -1]]
    return np.vstack([_plain(points[: n + 1], off), _plain(points[n:], off)[1:]])
