"""Square-knot rows: two wires knotted round a core bundle, one always in front, the other behind;
rows straight, or bowed round beads."""

import math
from dataclasses import dataclass

import numpy as np

from jamreel.core.interlace.cells import Cell, Strand, bars_of
from jamreel.core.interlace.space import STEP_RAD, Array, joined, moved, round_bar

# What the hooks of a knot take beyond the bundle's hull, in wires; fitted to tightened wires.
HOOKS = 8.6
# Pushed together under the natural pitch of 4 wires a knot takes more; least pitch in wires.
NATURAL, LEAST, DENSER = 4.0, 3.0, 0.85
# How much longer than the middle of both the wire behind may come out, a knot, in wires.
UNEVEN = 1.7


def knot_takes(hull: float, wire: float, pitch: float) -> float:
    """Return the wire of a square knot, the middle of both wires.

        P + (pi + 8.6) d + x;  x = p - 4 d for p >= 4 d, else 0.85 (4 d - p)

    Args:
        hull: P, perimeter of the core bundle [mm].
        wire: d [mm].
        pitch: p, from knot to knot [mm], at least 3 d.

    Returns:
        Length [mm], least at p = 4 d; P for very fine wire.

    Example:
        >>> round(knot_takes(5.1416, 0.5, 2.0), 2)
        11.01

    Source: fitted to own numerical tightening, within 1.5 %; 0.5 % for cores of 1.5 d and more at
    4 d and more.
    """
    loose = pitch - NATURAL * wire
    return hull + (math.pi + HOOKS) * wire + (loose if loose >= 0 else -DENSER * loose)


def row_width(core: float, wire: float, pitch: float) -> float:
    """Return the width of a row, core + 4 d + max(0, 4 d - p).

    Args:
        core: width of the bundle [mm].
        wire: d [mm].
        pitch: p, from knot to knot [mm].

    Returns:
        Width [mm].

    Example:
        >>> row_width(2.0, 0.4, 1.6)
        3.6

    Source: own numerical tightening, within 1.1 %.
    """
    return core + NATURAL * wire + max(0.0, NATURAL * wire - pitch)


@dataclass(frozen=True)
class Bow:
    """A row that bows round beads, lengths in mm: radius of the hollow bends between them, pitch of
    beads along the piece, and the length of one arc from bend to bend."""

    hollow: float
    pitch: float
    arc: float

    def knots(self, pitch: float) -> int:
        """Return how many knots an arc has, ceil(arc / p); they lie a little closer for it."""
        return math.ceil(self.arc / pitch - 1e-9)


def both_bow(bead: float, width: float, hollow: float) -> Bow:
    """Return the bow of rows on both sides of a row of beads.

        p_b = sqrt(b (b + 2 W + 4 rho)),  arc = 2 ((b + W)/2 + rho) atan2(p_b / 2, W/2 + rho)

    Args:
        bead: b [mm].
        width: W, of a row of knots [mm].
        hollow: rho, of the bends between beads, at the row's middle line [mm]; at least W / 2.

    Example:
        >>> bow = both_bow(6.0, 3.6, 2.7)
        >>> round(bow.pitch, 2), round(bow.arc, 2), bow.knots(1.6)
        (12.0, 13.91, 9)

    Source: two arcs that touch; plain geometry.
    """
    pitch = math.sqrt(bead * (bead + 2 * width + 4 * hollow))
    turn = math.atan2(pitch / 2, width / 2 + hollow)
    return Bow(hollow, pitch, 2 * ((bead + width) / 2 + hollow) * turn)


def one_bows(bead: float, width: float, hollow: float) -> Bow:
    """Return the bow of a row round beads that lie along a straight one.

        p_b = 2 sqrt(b (W + 2 rho)),  arc = 2 ((b + W)/2 + rho) atan2(p_b / 2, W/2 + rho - b/2)

    Args:
        bead: b [mm].
        width: W, of a row of knots [mm].
        hollow: rho, of the bends between beads, at the row's middle line [mm]; at least W / 2.

    Example:
        >>> bow = one_bows(6.0, 3.6, 1.8)
        >>> round(bow.pitch, 2), round(bow.arc, 2)
        (13.15, 19.53)

    Source: two arcs that touch; plain geometry.
    """
    pitch = 2 * math.sqrt(bead * (width + 2 * hollow))
    turn = math.atan2(pitch / 2, width / 2 + hollow - bead / 2)
    return Bow(hollow, pitch, 2 * ((bead + width) / 2 + hollow) * turn)


def hollow_of_both(pitch: float, bead: float, width: float) -> float:
    """Return rho for beads so far apart between rows that both bow, (p_b^2 / b - b - 2 W) / 4.

    Args:
        pitch: p_b, of the beads [mm].
        bead: b [mm].
        width: W, of a row of knots [mm].

    Returns:
        Radius [mm]; less than W / 2 can't be bent.

    Example:
        >>> round(hollow_of_both(12.0, 6.0, 3.6), 2)
        2.7

    Source: ``both_bow`` solved for rho.
    """
    return (pitch**2 / bead - bead - 2 * width) / 4


def hollow_of_one(pitch: float, bead: float, width: float) -> float:
    """Return rho for beads so far apart along a straight row, (p_b^2 / 4 b - W) / 2; see
    ``hollow_of_both``."""
    return (pitch**2 / (4 * bead) - width) / 2


@dataclass(frozen=True)
class Knotted:
    """A straight row of knots, lengths in mm: so many core wires of a thickness side by side, the
    knotting wire, the pitch of knots."""

    cores: int
    core: float
    wire: float
    pitch: float

    @property
    def _flat(self) -> float:
        """Half the flat part of the bundle's hull [mm]."""
        return (self.cores - 1) * self.core / 2

    @property
    def _radius(self) -> float:
        return (self.core + self.wire) / 2

    def _crossing(self) -> tuple[float, float]:
        """Return where a wire leaves the edge of the core [rad], and how far straight on its hook
        lies [mm]: as near as the other's leg lets it."""
        f, r, d = math.radians(36), self._radius, self.wire
        return f, (d / (2 * math.sin(f)) + r * math.sin(f)) / math.cos(f)

    def _half(self, x: tuple[float, float], span: float) -> Array:
        """Return a pass in front of the core from its edge of least y, and the hook at the other
        edge, which ends where the pass back begins.

        Args:
            x: where the pass begins and ends [mm].
            span: of the hook along the row [mm].
        """
        f, out = self._crossing()
        r, y, d = self._radius, self._flat, self.wire
        quarter = math.pi / 2 - f
        pass_ = joined(
            round_bar((-y, 0.0), r, (-quarter, 0.0), (x[0], x[0])),
            round_bar((y, 0.0), r, (0.0, quarter), (x[1], x[1])),
        )
        side = np.array([0.0, math.cos(quarter), -math.sin(quarter)])
        hook = pass_[-1] + out * side
        bend = hook - d * side
        return joined(
            pass_,
            np.array([bend]),
            np.array([hook, hook]) + np.outer([0.4 * d, span - 0.4 * d], [1.0, 0.0, 0.0]),
            moved(bend[np.newaxis], span),
        )

    def rough(self) -> tuple[Array, Array]:
        """Return both wires of a knot as they are laid: the one in front, the one behind."""
        e = min(self.wire, self.pitch / 4) / 2
        half = self.pitch / 2
        there = self._half((e, -e), half + 2 * e)
        over = np.array([1.0, -1.0, 1.0])
        # The pass back begins where the hook ended, and ends at the other edge.
        back = self._half((half + e, half - e), half + 2 * e) * over
        front = joined(there, back)
        front = joined(front, moved(front[:1], self.pitch))
        behind = front * np.array([1.0, -1.0, -1.0])
        return front, behind

    def cell(self) -> Cell:
        """Return a knot with its piece of core, laid roughly."""
        cores = bars_of(
            [(self.core * n - self._flat, 0.0) for n in range(self.cores)], self.core, self.pitch
        )
        working = tuple(Strand("working", self.wire, line) for line in self.rough())
        return Cell(self.pitch, 1, (*cores, *working), packed=True)


@dataclass(frozen=True, eq=False)
class Course:
    """Where a row of knots runs from bead to bead: points of its middle line, n by 2 [mm]."""

    points: Array

    @property
    def _run(self) -> Array:
        steps = np.linalg.norm(np.diff(self.points, axis=0), axis=1)
        return np.concatenate([[0.0], np.cumsum(steps)])

    @property
    def length(self) -> float:
        """Its length [mm]."""
        return float(self._run[-1])

    def bent(self, line: Array) -> Array:
        """Return a line of a straight row as it lies along the course.

        Args:
            line: x along the row, y across it, z; n by 3 [mm].
        """
        run = self._run
        s = np.clip(line[:, 0], 0.0, run[-1])
        x, y = (np.interp(s, run, self.points[:, n]) for n in (0, 1))
        way = np.gradient(self.points, run, axis=0)
        way /= np.linalg.norm(way, axis=1)[:, np.newaxis]
        cos, sin = (np.interp(s, run, way[:, n]) for n in (0, 1))
        over = line[:, 0] - s
        across = line[:, 1]
        return np.column_stack(
            [x + over * cos - across * sin, y + over * sin + across * cos, line[:, 2]]
        )


def arc_over(bow: Bow, bead: float, width: float, *, straight_by: float, span: int) -> Course:
    """Return the course of a row that bows over a bead or more, from hollow to hollow.

    The beads' middles lie at y = 0.

    Args:
        bow: of the row.
        bead: b [mm].
        width: W, of a row [mm].
        straight_by: how far below the beads' middles the row would touch its neighbour at its own
            middle line [mm]: less than 0 where the hollows lie above them.
        span: beads under one arc.

    Source: two arcs that touch; plain geometry.
    """
    over, hollow, half = (bead + width) / 2, bow.hollow, bow.pitch / 2
    up = hollow - straight_by
    turn = math.atan2(half, up)
    steps = max(3, math.ceil(turn / STEP_RAD))
    angle = np.linspace(0.0, turn, steps + 1)
    rise = np.column_stack([hollow * np.sin(angle), up - hollow * np.cos(angle)])
    back = angle[::-1]
    crest = np.column_stack([half - over * np.sin(back), over * np.cos(back)])
    left = np.vstack([rise, crest[1:]])
    # Beads under one arc touch; the row lies straight over them.
    long = bow.pitch + (span - 1) * bead
    right = left[::-1] * [-1.0, 1.0] + [long, 0.0]
    return Course(np.vstack([left, right[1:] if span == 1 else right]))


@dataclass(frozen=True)
class Row:
    """A row of knots in its pattern: whether it bows, its height in the body [mm], to which side it
    bows, and whether its core ends in eyes."""

    bows: bool
    y: float
    side: int = 1
    eyes: bool = True
