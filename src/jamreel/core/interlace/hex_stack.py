"""Sums of wound rings: turns piled on a former in rows, the hull of the pile, its bindings."""

import math
from dataclasses import dataclass
from functools import cached_property

ROW = math.sqrt(3) / 2


def hull_of(wires: int, wire: float) -> float:
    """Return the hull of wires packed as close as can be, d (ceil(sqrt(12 N - 3)) - 3 + pi).

    Args:
        wires: N.
        wire: d [mm].

    Returns:
        Perimeter [mm].

    Example:
        >>> round(hull_of(7, 1.0), 2), round(hull_of(12, 0.8), 2)
        (9.14, 9.71)

    Source: least boundary of N touching discs; published, from memory.
    """
    return wire * (math.ceil(math.sqrt(12 * wires - 3) - 1e-9) - 3 + math.pi)


def rows_of_pile(wires: int) -> tuple[int, ...]:
    """Return how many turns lie in each row of a pile, from the former outward.

    Each row is one longer or shorter than the last; of those with the least hull the one that lies
    nearest the former.

    Args:
        wires: N, 1 or more.

    Example:
        >>> [rows_of_pile(n) for n in (5, 7, 12, 19)]
        [(3, 2), (2, 3, 2), (3, 4, 3, 2), (3, 4, 5, 4, 3)]

    Source: plain counting.
    """
    best: tuple[float, float, tuple[int, ...]] | None = None
    for first in range(1, min(wires, math.ceil(2 * math.sqrt(wires)) + 1) + 1):
        for rows in _piled(wires, first):
            found = (_around(rows), sum(n * j for j, n in enumerate(rows)), rows)
            best = found if best is None or found < best else best
    assert best is not None  # by ``wires``
    return best[2]


def _piled(left: int, first: int) -> list[tuple[int, ...]]:
    """Return all piles that begin with a row: they grow, then shrink, row by row."""
    found: list[tuple[int, ...]] = []

    def grow(rows: tuple[int, ...], left: int, grows: bool) -> None:
        if left == 0:
            found.append(rows)
            return
        if grows and rows[-1] + 1 <= left:
            grow((*rows, rows[-1] + 1), left - rows[-1] - 1, True)
        if rows[-1] - 1 >= 1:
            fewer = min(rows[-1] - 1, left)
            grow((*rows, fewer), left - fewer, False)

    if first <= left:
        grow((first,), left - first, True)
    return found


def _around(rows: tuple[int, ...]) -> int:
    """Return the hull of a pile less pi, in wires: first and last row, and both slopes."""
    return (rows[0] - 1) + (rows[-1] - 1) + 2 * (len(rows) - 1) + _steep(rows)


def _steep(rows: tuple[int, ...]) -> int:
    """Return what the last row lacks where it is shorter than its row has room for."""
    return sum(max(0, rows[j] - 1 - rows[j + 1]) for j in range(len(rows) - 1))


@dataclass(frozen=True)
class Pile:
    """A wound ring, lengths in mm: ``turns`` of a wire on a former of inner diameter D."""

    turns: int
    wire: float
    former: float

    @cached_property
    def rows(self) -> tuple[int, ...]:
        """How many turns lie in each row, from the former outward."""
        return rows_of_pile(self.turns)

    @property
    def takes(self) -> float:
        """Return the wire of its turns, pi sum m (D + d + j sqrt3 d).

        Returns:
            Length [mm], without tails.

        Example:
            >>> round(Pile(7, 1.0, 17.0).takes + 2 * 30, 2)
            493.93

        Source: circles; plain geometry, steps between turns within 0.29 %.
        """
        d = self.wire
        return math.pi * sum(
            m * (self.former + d + j * math.sqrt(3) * d) for j, m in enumerate(self.rows)
        )

    @property
    def high(self) -> float:
        """H = d (1 + (rows - 1) sqrt3 / 2), of the pile over the former [mm]."""
        return self.wire * (1 + (len(self.rows) - 1) * ROW)

    @property
    def outside(self) -> float:
        """D + 2 H, over all [mm]."""
        return self.former + 2 * self.high

    @property
    def wide(self) -> float:
        """Of the pile along its former [mm]."""
        return max(self.rows) * self.wire

    @property
    def hull(self) -> float:
        """P, of the pile [mm]."""
        return hull_of(self.turns, self.wire)

    def bound(self, places: int, turns: int, binding: float) -> float:
        """Return the wire of bindings round the pile.

            q [n sqrt((P + pi d)^2 + d^2) + (P + pi d)/2]

        Args:
            places: q, round the ring.
            turns: n, of each.
            binding: d of the binding wire [mm].

        Returns:
            Length in all [mm], without tails.

        Example:
            >>> round(Pile(7, 1.0, 17.0).bound(3, 4, 0.5) / 3, 2)
            48.25

        Source: length of a hull; plain geometry.
        """
        round_ = self.hull + math.pi * binding
        return places * (turns * math.hypot(round_, binding) + round_ / 2)

    @property
    def girth(self) -> float:
        """Of the ring's middle [mm]: bindings may cover half of it at most; common practice."""
        return math.pi * (self.former + self.high)
