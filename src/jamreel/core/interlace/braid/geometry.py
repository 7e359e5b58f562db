"""Sums of three-strand braids, plain and with beads, and how their strands lie."""

import math
from dataclasses import dataclass

import numpy as np

from jamreel.core.interlace.cells import Ball, Cell, Strand
from jamreel.core.interlace.space import STEP_RAD, Array, joined, moved
from jamreel.core.wire.holes import circles_factor

# Length, width and thickness of a braid pulled tight, in strands: fitted to own numerical
# tightening. Tighter than this it jams, looser it gapes (common practice).
TAKES, WIDE, THICK = 6.63, 2.9, 2.0
JAMS, GAPES = 6.5, 15.0
# Strands go side by side past a bead: with a gap of fewer strands they jam.
LEAST_GAP = 1.5
CROSSINGS = 6


def strand_of(wires: int, wire: float) -> float:
    """Return how thick a strand of several wires is.

    Args:
        wires: in a strand.
        wire: d of each [mm].

    Returns:
        Diameter of the circle round them [mm].

    Example:
        >>> round(strand_of(3, 0.5), 2)
        1.08

    Source: circles in a circle; see ``wire.holes.circles_factor``.
    """
    return circles_factor(wires) * wire


@dataclass(frozen=True)
class PlainBraid:
    """Three strands plaited: thickness d of a strand and the length p of six crossings [mm]."""

    strand: float
    pitch: float

    @property
    def take_up(self) -> float:
        """Return strand over braid, sqrt(1 + (6.63 d / p)^2).

        Example:
            >>> round(PlainBraid(1.0, 9.0).take_up, 2)
            1.24

        Source: own numerical tightening, within 0.15 % from six crossings in 7 d on.
        """
        return math.hypot(1.0, TAKES * self.strand / self.pitch)

    @property
    def width(self) -> float:
        """2.9 d [mm]."""
        return WIDE * self.strand

    @property
    def thickness(self) -> float:
        """2 d [mm]."""
        return THICK * self.strand

    def cell(self, wires: int = 1, wire: float | None = None) -> Cell:
        """Return six crossings, its strands laid roughly: they settle when they are pulled.

        Args:
            wires: in a strand, side by side.
            wire: d of each, where a strand is of several [mm].

        Source: a figure of eight seen from the end; plain geometry.
        """
        d = wire or self.strand
        turn = np.linspace(0.0, 2 * math.pi, 97)
        strands = []
        for n in range(3):
            phase = turn + 2 * math.pi * n / 3
            out = (self.width - self.strand) / 2
            middle = np.column_stack(
                [
                    self.pitch * turn / (2 * math.pi),
                    out * np.sin(phase),
                    self.strand / 2 * np.sin(2 * phase),
                ]
            )
            strands += [Strand("working", d, middle + offset) for offset in _beside(wires, d)]
        return Cell(self.pitch, CROSSINGS, tuple(strands), packed=True)


def _beside(wires: int, d: float) -> list[Array]:
    """Return where the wires of a strand lie from its middle: round one in the middle from seven
    on, else on a ring."""
    if wires == 1:
        return [np.zeros(3)]
    ringed = wires - 1 if wires == 7 else wires
    far = d / (2 * math.sin(math.pi / ringed))
    angles = 2 * math.pi * np.arange(ringed) / ringed
    ring = [np.array([0.0, far * math.cos(a), far * math.sin(a)]) for a in angles]
    return ring if wires < 7 else [np.zeros(3), *ring]


@dataclass(frozen=True)
class BeadedBraid:
    """Three strands, of which each by turns comes to the middle and goes through the next bead:
    bead, strand and the gap between beads [mm]."""

    bead: float
    strand: float
    gap: float

    @property
    def pitch(self) -> float:
        """p = b + g [mm]."""
        return self.bead + self.gap

    @property
    def _outside(self) -> float:
        """R, of a strand's middle past a bead [mm]."""
        return (self.bead + self.strand) / 2

    @property
    def _far(self) -> float:
        """D, from the end of a hole to the middle of the next bead [mm]."""
        return self.pitch - self.bead / 2

    @property
    def _leans(self) -> float:
        """beta = acos(R / D) [rad]."""
        return math.acos(self._outside / self._far)

    @property
    def move(self) -> float:
        """m, from the middle of a bead to the side of the next one, seen from its face [mm]."""
        far, out = self._far, self._outside
        free = math.sqrt(far**2 - out**2)
        return self.bead / 2 + free + (math.pi / 2 - self._leans) * out

    @property
    def takes(self) -> tuple[float, float]:
        """Return what each strand takes from bead to bead: what crosses, and what runs straight.

            (2 sqrt(m^2 + d^2) + p) / 3
            m = b/2 + sqrt(D^2 - R^2) + (pi/2 - beta) R,  R = (b + d)/2,  D = p - b/2

        In six beads a strand is twice in the middle, makes four moves and two runs outside.

        Returns:
            Both lengths [mm]; only what crosses is longer in a loose hand.

        Example:
            >>> round(sum(BeadedBraid(6.0, 0.8, 1.6).takes), 2)
            8.51

        Source: tangents and arcs; plain geometry, confirmed by own numerical tightening within
            0.7 % for gaps of one and a half strands and more.
        """
        return 2 * math.hypot(self.move, self.strand) / 3, self.pitch / 3

    @property
    def width(self) -> float:
        """b + 2 d [mm]."""
        return self.bead + 2 * self.strand

    @property
    def thickness(self) -> float:
        """The bead's, two strands' at least [mm]."""
        return max(self.bead, 2 * self.strand)

    def _way_out(self) -> Array:
        """Return the way from the middle of a bead to the side of the next one: x, y, and how far
        one has come, 0 to 1."""
        r, far, lean = self._outside, self._far, self._leans
        # Straight out of the hole, then along the tangent to the circle round the next bead.
        angle = math.pi / 2 - lean
        steps = max(3, math.ceil(angle / STEP_RAD))
        # Angle at the next bead's middle, from its side back to where the tangent touches.
        back = np.linspace(angle, 0.0, steps + 1)
        arc = np.column_stack([self.pitch - r * np.sin(back), r * np.cos(back)])
        free = np.linspace(0.0, 1.0, 9)[:-1, np.newaxis]
        end = np.array([self.pitch - far, 0.0])
        line = np.vstack([[[0.0, 0.0]], end + free * (arc[0] - end), arc])
        run = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(line, axis=0).T))])
        return np.column_stack([line, run / run[-1]])

    def _moves(self) -> tuple[Array, Array]:
        """Return a strand over three beads: out of one, past two, and into the one behind."""
        out, d = self._way_out(), self.strand
        x, y, share = out.T
        # What comes to the middle goes over, what leaves it goes under.
        under = -d * (0.5 - np.abs(share - 0.5))
        leaves = np.column_stack([x, y, under])
        p = self.pitch
        comes = np.column_stack([3 * p - x, y, -under])[::-1]
        return leaves, comes

    def cell(self, colour: str = "", wires: int = 1, wire: float | None = None) -> Cell:
        """Return six beads.

        Args:
            colour: of the beads.
            wires: in a strand, side by side.
            wire: d of each, where a strand is of several [mm].
        """
        d = wire or self.strand
        p, strands = self.pitch, []
        leaves, comes = self._moves()
        once = joined(leaves, comes)
        other = moved(once * [1.0, -1.0, 1.0], 3 * p)
        whole = joined(once, other)
        for n in range(3):
            line = _from(moved(whole, 2 * n * p), 0.0, 6 * p)
            strands += [Strand("working", d, line + offset) for offset in _beside(wires, d)]
        balls = tuple(
            Ball((n * p, 0.0, 0.0), self.bead, self.bead, (1.0, 0.0, 0.0), colour, n)
            for n in range(6)
        )
        return Cell(6 * p, 6, tuple(strands), balls)


def _from(line: Array, x: float, long: float) -> Array:
    """Return a line that repeats every so often [mm] as it runs from an x on."""
    shift = np.array([long, 0.0, 0.0])
    body = line[:-1]
    every = np.vstack([body - 2 * shift, body - shift, body, body + shift])
    begins = int(np.searchsorted(every[:, 0], x - 1e-9))
    rows = every[begins : begins + len(body)]
    return np.vstack([rows, rows[0] + shift])
