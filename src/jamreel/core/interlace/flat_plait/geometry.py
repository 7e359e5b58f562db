"""Sums of flat plaits of many strands and of the lacing through their edges; how they lie."""

import math
from dataclasses import dataclass

import numpy as np

from jamreel.core.interlace.cells import Cell, Strand
from jamreel.core.interlace.space import Array
from jamreel.core.late import late

special = late("scipy.special")

# Loops nearer than so many strands jam, and can't lie at all.
JAMS, NEVER = 2.2, 1.5
POINTS = 10


def wavy(height: float, half: float) -> float:
    """Return a sine over its straight line, U(h, q) = 2/pi sqrt(1 + B^2) E(B^2 / (1 + B^2)).

    Args:
        height: h, of a wave from its middle [mm].
        half: q, half a wave long [mm]; B = pi h / q.

    Returns:
        Length over length, 1 for a wave of no height.

    Example:
        >>> round(wavy(0.5, 2.0), 4)
        1.1398

    Source: length of a sine; published.
    """
    b = math.pi * height / half
    return 2 / math.pi * math.hypot(1, b) * float(special.ellipe(b * b / (1 + b * b)))


@dataclass(frozen=True)
class Plait:
    """A flat plait over one, under one: how many strands, their thickness, the pitch of the loops
    along one edge, and its width over all [mm]."""

    strands: int
    strand: float
    loop: float
    width: float

    @property
    def angle(self) -> float:
        """phi, of the strands to the plait: tan phi = 2 (W - d) / (N a) [rad]."""
        return math.atan(2 * (self.width - self.strand) / (self.strands * self.loop))

    @property
    def take_up(self) -> float:
        """Return strand over plait, U(d/2, q) / cos phi, q = (a/2) / cos phi.

        Example:
            >>> round(Plait(8, 0.8, 2.0, 6.4).take_up, 2)
            1.5

        Source: a sine from crossing to crossing; plain geometry. Own numerical tightening: up to
            2.1 % more for loops nearer than 3 d.
        """
        cos = math.cos(self.angle)
        return wavy(self.strand / 2, self.loop / 2 / cos) / cos

    @property
    def thickness(self) -> float:
        """2 d [mm]."""
        return 2 * self.strand

    def _line(self) -> Array:
        """Return a strand there and back, from one edge on."""
        n, q = self.strands, self.loop / 2
        out, d = (self.width - self.strand) / 2, self.strand
        step = np.arange(2 * n * POINTS + 1) / POINTS
        up = 1 - np.abs(step / n - 1)
        y = out * (2 * up - 1)
        # Over and under by turns; at an edge it goes from over to under.
        once = step % n
        inner = np.clip((once - 1) / (n - 2), 0.0, 1.0) * (n - 2)
        z = np.cos(math.pi * inner)
        side = np.where(once < 1, np.sin(math.pi / 2 * once), 1.0)
        side = np.where(once > n - 1, np.sin(math.pi / 2 * (n - once)), side)
        flips = np.where(step >= n, -1.0, 1.0)
        return np.column_stack([q * step, y, d / 2 * z * side * flips])

    def cell(self) -> Cell:
        """Return the loops of one edge, once each strand: laid roughly, they settle when pulled."""
        line, long = self._line(), self.strands * self.loop
        strands = []
        for n in range(self.strands):
            shifted = line + np.array([n * self.loop, 0.0, 0.0])
            strands.append(Strand("working", self.strand, _wrapped(shifted, long)))
        return Cell(long, self.strands, tuple(strands), packed=True)


def _wrapped(line: Array, long: float) -> Array:
    """Return a line that repeats every so often [mm], from x = 0 on."""
    body = line[:-1]
    shift = np.array([long, 0.0, 0.0])
    every = np.vstack([body - shift, body])
    begins = int(np.searchsorted(every[:, 0], -1e-9))
    rows = every[begins : begins + len(body)]
    return np.vstack([rows, rows[0] + shift])


def width_by_rule(strands: int, strand: float, loop: float) -> float:
    """Return how wide a plait comes out that nobody has measured.

        sin phi = 1.5 d / a,  W = d + d max(N - 1, 0.75 N / cos phi)

    Args:
        strands: N.
        strand: d [mm].
        loop: a, pitch of the loops along one edge [mm].

    Returns:
        Width [mm].

    Raises:
        ValueError: loops nearer than strands can lie.

    Example:
        >>> round(width_by_rule(12, 0.6, 1.6), 2)
        7.2

    Source: own numerical tightening, within 3 %; pulled tight a plait of twelve and more bunches:
        its width is the hand's.
    """
    if loop < NEVER * strand:
        raise ValueError("strands can't lie that near")
    cos = math.sqrt(1 - (NEVER * strand / loop) ** 2)
    if cos < 1e-6:
        raise ValueError("strands can't lie that near")
    return strand + strand * max(strands - 1, 0.75 * strands / cos)


@dataclass(frozen=True)
class Lacing:
    """A wire laced through the edge loops of a plait: the plait's width, its strand, the pitch of
    its loops, the lacing wire [mm], and how many loops are skipped."""

    width: float
    strand: float
    loop: float
    wire: float
    skipped: int = 1

    @property
    def advance(self) -> float:
        """A, how far a crossing goes on, (s + 1) a / 2 [mm]."""
        return (self.skipped + 1) * self.loop / 2

    @property
    def across(self) -> float:
        """W - d, from one edge strand's middle to the other's [mm]."""
        return self.width - self.strand

    @property
    def radius(self) -> float:
        """rho = (d + d_l) / 2, of its middle round an edge strand [mm]."""
        return (self.strand + self.wire) / 2

    @property
    def opening(self) -> float:
        """Clear in a loop, a - d [mm]."""
        return self.loop - self.strand

    def crossing(self, *, both: bool) -> float:
        """Return what one crossing takes, from edge to edge and through its loop.

            front only      sqrt((W_l - 2 rho)^2 + A^2) + 2 pi rho
            front and back  sqrt(W_l^2 + A^2) + pi rho

        Args:
            both: whether it crosses the back as well, or only dips through the loop and round.

        Returns:
            Length [mm].

        Example:
            >>> one = Lacing(7.2, 0.6, 1.6, 0.5)
            >>> [round(one.crossing(both=both) / one.advance, 2) for both in (False, True)]
            [5.74, 5.32]

        Source: straights and arcs; plain geometry.
        """
        rho, wide = self.radius, self.across
        if both:
            return math.hypot(wide, self.advance) + math.pi * rho
        return math.hypot(wide - 2 * rho, self.advance) + 2 * math.pi * rho
