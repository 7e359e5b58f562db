"""Sums of a ladder: what a row takes between its bars, and how it lies in space."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from itertools import pairwise

import numpy as np

from jamreel.core.interlace.cells import Ball, Cell, Strand, bars_of
from jamreel.core.interlace.space import (
    Array,
    inner_tangent,
    joined,
    packed_round,
    round_bar,
    straight,
)
from jamreel.core.path.coils import turn

# Beside the place where strands come and go, turns lie square to the bar [rad].
FLAT = 0.45
# Behind the bars a line home keeps off the turns by so many wires, along them and outwards.
OFF_TURNS, OUT = 0.6, 0.4
# Gaps that differ less are laid out as one [mm].
SAME_MM = 0.05


def between_bars(along: float, bar: float, wire: float) -> float:
    """Return the distance of bars with a bead between their turns, s = l + D + 2 d.

    Args:
        along: l, of the bead along its hole [mm].
        bar: D [mm].
        wire: d, of the working wire [mm].

    Returns:
        From middle to middle [mm].

    Example:
        >>> between_bars(4.0, 1.2, 0.4)
        6.0

    Source: plain geometry; flat-ended beads, or beads in the plane of the bars.
    """
    return along + bar + 2 * wire


def between_bars_in_front(across: float, bar: float, wire: float) -> float:
    """Return the distance of bars with a round bead in front of them.

        s = 2 sqrt((b/2 + D/2 + d)^2 - r^2), r = (D + d) / 2

    Args:
        across: b, of the bead [mm].
        bar: D [mm].
        wire: d, of the working wire [mm].

    Returns:
        From middle to middle [mm], 1 to 7 % less than ``between_bars``.

    Example:
        >>> round(between_bars_in_front(3.0, 1.5, 0.5), 2)
        5.12

    Source: plain geometry.
    """
    return 2 * math.sqrt((across / 2 + bar / 2 + wire) ** 2 - ((bar + wire) / 2) ** 2)


def covering_turns(across: float, wire: float) -> int:
    """Return how many turns hide a bar beside a bead, floor(b / d) - 1.

    Args:
        across: b, of the bead [mm].
        wire: d [mm].

    Returns:
        Turns, 1 at least; more of them push the beads apart.

    Example:
        >>> covering_turns(4.0, 0.4)
        9

    Source: plain counting.
    """
    return max(1, math.floor(across / wire + 1e-9) - 1)


def row_pitch(turns: float, wire: float, across: float) -> float:
    """Return the pitch of rows, max((n + 1) d, b): n turns, and a strand for the crossing.

    Args:
        turns: n on each bar.
        wire: d [mm].
        across: b, of the bead [mm].

    Returns:
        Pitch [mm].

    Example:
        >>> row_pitch(3, 0.4, 4.0)
        4.0

    Source: plain counting.
    """
    return max((turns + 1) * wire, across)


@dataclass(frozen=True)
class LadderRow:
    """A row of a ladder, lengths in mm: the distances ``gaps`` of its bars, their thickness, the
    working wire, the turns on each bar, and the pitch of rows."""

    gaps: tuple[float, ...]
    bar: float
    wire: float
    turns: int
    pitch: float

    @property
    def radius(self) -> float:
        """r, of the working wire's middle round a bar [mm]."""
        return (self.bar + self.wire) / 2

    @property
    def _back(self) -> float:
        """How far a crossing steps back along the bars: its turns went on as far [mm]."""
        return self.turns * self.wire

    @property
    def _turned(self) -> float:
        return (len(self.gaps) + 1) * self.turns * turn(self.bar, self.wire, self.wire)

    def returning(self) -> float:
        """Return the wire of a row that is worked back from the side where the last one ended.

            N n H + sum of C + sqrt((s1 cos a)^2 + (n d)^2) + 2 a r + sqrt((pi r)^2 + (p - n d)^2)

        C = sqrt(s^2 + (n d)^2) is a crossing in front; the first one comes from behind, as half a
        turn led on to the row.

        Returns:
            Length [mm].

        Example:
            >>> row = LadderRow((6.0, 6.0, 6.0), 1.2, 0.4, 3, 4.0)
            >>> round(row.returning(), 2)
            82.85

        Source: helix and crossed belt; published.
        """
        r, a = self.radius, inner_tangent(self.gaps[0], self.radius)
        first = math.hypot(self.gaps[0] * math.cos(a), self._back) + 2 * a * r
        half = math.hypot(math.pi * r, self.pitch - self._back)
        return self._turned + sum(math.hypot(s, self._back) for s in self.gaps[1:]) + first + half

    def restarting(self) -> float:
        """Return the wire of a row that is begun from the same side as all: the wire goes back
        behind the bars.

            N n H + sum of C + sqrt((2 pi r + sum of s)^2 + (p - n d)^2)

        Returns:
            Length [mm].

        Example:
            >>> round(LadderRow((5.5, 5.5), 1.5, 0.5, 2, 3.0).restarting(), 2)
            66.4

        Source: helix; published.
        """
        behind = 2 * math.pi * self.radius + sum(self.gaps)
        home = math.hypot(behind, self.pitch - self._back)
        return self._turned + sum(math.hypot(s, self._back) for s in self.gaps) + home

    @cached_property
    def places(self) -> tuple[float, ...]:
        """y of every bar, their middle at 0 [mm]."""
        half = sum(self.gaps) / 2
        return tuple(sum(self.gaps[:n]) - half for n in range(len(self.gaps) + 1))

    def _turns_on(self, y: float, x: float, sense: int, start: float, leaves: float) -> Array:
        """Return the turns on a bar; strands come and go at the angle of ``start``, or ``leaves``
        [rad] further round."""
        angle = (start, start + sense * 2 * math.pi * self.turns)
        flat = (start + sense * leaves / 2, FLAT + abs(leaves) / 2)
        return packed_round((y, 0.0), self.radius, angle, (x, x + self._back), flat)

    def _crossing(self, x: float, one: float, two: float) -> Array:
        """Return a crossing in front: beside a bar it lies square to it, like the turns there."""
        r = self.radius
        return self._squared(np.array([x + self._back, one, r]), np.array([x, two, r]))

    def _squared(self, one: Array, two: Array) -> Array:
        """Return a crossing between two points that goes along the bars in its middle only."""
        clear = min(0.8 * self.radius / float(np.linalg.norm(two[1:] - one[1:])), 0.25)
        points = [one + (two - one) * share for share in (0.0, clear, 1 - clear, 1.0)]
        points[1][0], points[2][0] = one[0], two[0]
        return np.array(points)

    def across(self, x: float, sense: int, *, behind: bool) -> Array:
        """Return the middle line of a row's turns and crossings.

        Args:
            x: where it begins [mm].
            sense: 1 towards +y, -1 towards -y.
            behind: whether it begins behind its first bar, as half a turn led on to it.

        Source: plain geometry.
        """
        r, back = self.radius, self._back
        bars = self.places[::sense]
        # Led on from the front of the same bar, it still turns the way in which it came.
        first = -sense if behind else sense
        start = first * math.pi if behind else 0.0
        leaves = inner_tangent(self.gaps[::sense][0], r) if behind else 0.0
        lines = [self._turns_on(bars[0], x, first, start, leaves)]
        for n, (one, two) in enumerate(pairwise(bars)):
            if n == 0 and behind:
                left = (start, start + first * leaves)
                lines.append(round_bar((one, 0), r, left, (x + back,) * 2))
                arrived = round_bar((two, 0), r, (-sense * leaves, 0.0), (x, x))
                lines += [self._squared(lines[-1][-1], arrived[0]), arrived]
                came = -leaves
            else:
                lines.append(self._crossing(x, one, two))
                came = 0.0
            lines.append(self._turns_on(two, x, sense, 0.0, came))
        return joined(*lines)

    def home(self, x: float) -> Array:
        """Return the line from the front of the last bar behind all bars to the front of the first
        one, where the next row begins.

        It goes on evenly; where rows are close, it lies behind the bars between the turns of both
        rows, a little further out than these.

        Args:
            x: where the row began [mm].
        """
        r, d, (first, *_, last) = self.radius, self.wire, self.places
        begins, ends = x + self._back, x + self.pitch
        step = ends - begins
        even = step * math.pi * r / (2 * math.pi * r + last - first)
        to = begins + max(even, min(step / 2, OFF_TURNS * d))
        back, out, aside, front = begins + ends - to, OUT * d, r / 5, (0.0, FLAT)
        return joined(
            packed_round((last, 0), r, (0.0, math.pi), (begins, to), front),
            straight((to, last - aside, -r - out), (back, first + aside, -r - out)),
            packed_round((first, 0), r, (math.pi, 2 * math.pi), (back, ends), front),
        )

    def on(self, x: float, sense: int) -> Array:
        """Return half a turn on from the front of the last bar of a row to its back, where the row
        back begins."""
        y = self.places[::sense][-1]
        along = (x + self._back, x + self.pitch)
        return round_bar((y, 0.0), self.radius, (0.0, sense * math.pi), along)

    def cell(self, beads: Sequence[Ball], *, restart: bool) -> Cell:
        """Return what repeats: one row that is restarted, or a row there and one back.

        Args:
            beads: of a row, from the bar of least y on, at x 0 [mm].
            restart: whether rows are begun from one side.
        """
        if restart:
            lines = [joined(self.across(0.0, 1, behind=False), self.home(0.0))]
        else:
            there = joined(self.across(0.0, 1, behind=True), self.on(0.0, 1))
            back = joined(self.across(self.pitch, -1, behind=True), self.on(self.pitch, -1))
            lines = [there, back]
        rows = len(lines)
        strands = tuple(Strand("working", self.wire, line, row=n) for n, line in enumerate(lines))
        return Cell(
            rows * self.pitch,
            rows,
            (*bars_of([(y, 0.0) for y in self.places], self.bar, rows * self.pitch), *strands),
            tuple(beads),
        )


def outer_end(corner: float, bar: float, apart: float, turns: float) -> float:
    """Return the wire with which an outer bar ends, wound round its neighbour.

        (pi/2) R + sqrt((s - R)^2 - D^2) + m H(D, D, D),  R = rho + D / 2

    Args:
        corner: rho, inner radius of its bend [mm].
        bar: D [mm].
        apart: s, of the bars from middle to middle [mm].
        turns: m round the neighbour.

    Returns:
        Length [mm].

    Raises:
        ValueError: bars too near for the end to reach round.

    Example:
        >>> round(outer_end(1.0, 1.2, 6.0, 3), 2)
        29.65

    Source: tangent to a circle and helix; plain geometry.
    """
    radius = corner + bar / 2
    if apart - radius < bar:
        raise ValueError("the end does not reach round its neighbour")
    reach = math.sqrt((apart - radius) ** 2 - bar**2)
    return math.pi / 2 * radius + reach + turns * turn(bar, bar, bar)


def in_front_thick(bar: float, wire: float, bead: float) -> float:
    """Return how far a ladder stands out with its beads in front of the bars.

        max(D/2 + d, r + b/2) + max(D/2 + d, b/2 - r)

    Args:
        bar: D [mm].
        wire: d [mm].
        bead: b [mm].

    Returns:
        Thickness [mm].

    Example:
        >>> in_front_thick(1.2, 0.4, 4.0), in_front_thick(1.5, 0.5, 3.0)
        (4.0, 3.75)

    Source: plain geometry.
    """
    r, half = (bar + wire) / 2, bar / 2 + wire
    return max(half, r + bead / 2) + max(half, bead / 2 - r)
