"""Sums of meshed coils on rods."""

import math
from dataclasses import dataclass

import numpy as np

from jamreel.core.interlace.cells import Cell, Strand, bars_of
from jamreel.core.interlace.space import Array, moved

# Coils nearer than so many wires from turn to turn don't mesh.
LEAST_PITCH = 2.1
# Round a turn so many chords.
CHORDS = 96


@dataclass(frozen=True)
class Mesh:
    """Coils side by side, lengths in mm: how many, their wire d, the mandrel D they were wound on,
    the pitch P of their turns, the rod between two of them, 0 where they are screwed into each
    other, and the thickness t they are pressed to, None where they stay round."""

    coils: int
    wire: float
    mandrel: float
    pitch: float
    rod: float = 0.0
    pressed: float | None = None

    @property
    def mean(self) -> float:
        """D_m = D + d, of a turn's middle line [mm]."""
        return self.mandrel + self.wire

    @property
    def high(self) -> float:
        """h, of a turn's middle line: t - d pressed, else D_m [mm]."""
        return self.mean if self.pressed is None else self.pressed - self.wire

    @property
    def wide(self) -> float:
        """W_e = h + (pi D_m - pi h) / 2, of a turn's middle line [mm]."""
        return self.high + (math.pi * self.mean - math.pi * self.high) / 2

    @property
    def overlap(self) -> float:
        """o, of neighbouring turns: d and the rod in the lens between them [mm]."""
        return self.wire + self.rod

    @property
    def width(self) -> float:
        """Return the width of the band, (C - 1)(W_e - o) + W_e + d.

        Example:
            >>> round(Mesh(5, 0.8, 5.0, 1.8, 2.0, 2.4).width, 2)
            30.59

        Source: a turn keeps its length when it is pressed; plain geometry.
        """
        return (self.coils - 1) * (self.wide - self.overlap) + self.wide + self.wire

    @property
    def thickness(self) -> float:
        """t, or that of a round coil [mm]."""
        return self.high + self.wire

    @property
    def turn(self) -> float:
        """Wire of one turn of one coil, sqrt((pi D_m)^2 + P^2) [mm]."""
        return math.hypot(math.pi * self.mean, self.pitch)

    @property
    def held(self) -> float:
        """Return how much longer it would get if it could not widen.

            sqrt(P^2 + (pi D_m)^2 - (2 (D_m - h) + pi h)^2) / P

        Example:
            >>> round(Mesh(5, 0.8, 5.0, 1.8, 2.0, 2.4).held, 2)
            6.92

        Source: a turn keeps its length; plain geometry. So much that pressing always widens.
        """
        girth = 2 * (self.mean - self.high) + math.pi * self.high
        return math.sqrt(self.pitch**2 + (math.pi * self.mean) ** 2 - girth**2) / self.pitch

    def _turn(self, right: bool) -> Array:
        """Return a turn of a coil, flattened as it is pressed: an outline of two straights and two
        half rounds, gone along evenly."""
        run = np.linspace(0.0, 1.0, CHORDS + 1)
        r, flat = self.high / 2, (self.wide - self.high) / 2
        half = math.pi * r
        # From the middle of the front: half a straight, round, the back, round, half a straight.
        at = run * math.pi * self.mean
        first, second = np.clip(at - flat, 0, half), np.clip(at - 3 * flat - half, 0, half)
        angle = (first + second) / r
        along = np.clip(at, 0, flat) - np.clip(at - flat - half, 0, 2 * flat)
        along = along + np.clip(at - 3 * flat - 2 * half, 0, flat)
        y, z = along + r * np.sin(angle), r * np.cos(angle)
        return np.column_stack([self.pitch * run, y if right else -y, z])

    def cell(self) -> Cell:
        """Return one turn of every coil, right and left handed by turns, and the rods between."""
        apart = self.wide - self.overlap
        middle = apart * (self.coils - 1) / 2
        strands = []
        for n in range(self.coils):
            line = moved(self._turn(n % 2 == 0), 0.0, n * apart - middle)
            # Each lies in the gaps of its neighbour.
            strands.append(Strand("working", self.wire, _begun(line, n % 2 == 1, self.pitch)))
        rods = [((n + 0.5) * apart - middle, 0.0) for n in range(self.coils - 1)]
        bars = bars_of(rods, self.rod, self.pitch) if self.rod else ()
        return Cell(self.pitch, 1, (*bars, *strands))


def _begun(line: Array, half: bool, pitch: float) -> Array:
    """Return a turn that begins half a turn later, where it is to."""
    if not half:
        return line
    middle = (len(line) - 1) // 2
    later = np.vstack([line[middle:-1], moved(line[: middle + 1], pitch)])
    return moved(later, -pitch / 2)
