"""What a technique makes by repeating: the cell, its strands in space, its beads."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from jamreel.core.interlace.space import Array, length_of, moved


@dataclass(frozen=True, eq=False)
class Strand:
    """A stretch of wire in space: its role, d [mm], and its middle line, n by 3 [mm].

    What ``runs_on`` goes on in the next cell where it ends in this one. ``row`` counts the rows of
    a cell, for a strand that is laid at a row.
    """

    role: str
    d: float
    line: Array
    runs_on: bool = True
    row: int = 0

    @property
    def length(self) -> float:
        """Its length [mm]."""
        return length_of(self.line)


@dataclass(frozen=True)
class Ball:
    """A bead in space: its middle, how wide and how long it is along its hole [mm], the axis of
    its hole, its colour, and the row at which it is threaded, with the share of it that is laid
    then."""

    at: tuple[float, float, float]
    across: float
    along: float
    axis: tuple[float, float, float] = (0.0, 1.0, 0.0)
    colour: str = ""
    row: float = 0


@dataclass(frozen=True, eq=False)
class Cell:
    """What repeats along a body: how far it goes on [mm], how many rows it has, what lies in it.

    Where strands are ``packed`` without a gap they are laid roughly: before they are looked at
    closely they have to settle. Beads lie ``under`` the wires that go over them, else over those
    that run through them. Behind what is ``opaque`` nothing is seen of its own wires.
    """

    advance: float
    rows: int
    strands: tuple[Strand, ...]
    balls: tuple[Ball, ...] = ()
    packed: bool = False
    under: bool = False
    opaque: bool = False

    def length_of(self, role: str) -> float:
        """Return the wire of a role in one cell [mm]."""
        return sum(one.length for one in self.strands if one.role == role)

    def repeated(self, times: int) -> "Cell":
        """Return so many of it one after the other, as one."""
        strands, balls = [], []
        for n in range(times):
            x = n * self.advance
            for one in self.strands:
                line = moved(one.line, x)
                strands.append(replace(one, line=line, row=one.row + n * self.rows))
            for ball in self.balls:
                at = (ball.at[0] + x, *ball.at[1:])
                balls.append(replace(ball, at=at, row=ball.row + n * self.rows))
        return replace(
            self,
            advance=times * self.advance,
            rows=times * self.rows,
            strands=tuple(strands),
            balls=tuple(balls),
        )


def bars_of(places: Sequence[tuple[float, float]], d: float, long: float) -> tuple[Strand, ...]:
    """Return bars that lie along x.

    Args:
        places: y and z of each [mm].
        d: their thickness [mm].
        long: how long they are in a cell [mm].
    """
    return tuple(Strand("bar", d, np.array([[0.0, y, z], [long, y, z]])) for y, z in places)


def stretched(cell: Cell, times: float) -> Cell:
    """Return a cell drawn out along x.

    Args:
        cell: as it packs.
        times: how many times as long.
    """
    if abs(times - 1) < 1e-9:
        return cell
    along = np.array([times, 1.0, 1.0])
    strands = tuple(replace(one, line=one.line * along) for one in cell.strands)
    balls = tuple(replace(b, at=(b.at[0] * times, *b.at[1:])) for b in cell.balls)
    return replace(cell, advance=cell.advance * times, strands=strands, balls=balls)
