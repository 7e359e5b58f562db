"""Sums of bindings round bundles, of twisted square wire, and of strands stacked on a curve."""

import math
from dataclasses import dataclass

from jamreel.core.path.coils import binding_length, row_hull
from jamreel.core.wire.sections import Section

# Fewer strands than this can't be bound by one turn: its ends would lie on each other.
ONE_TURN_WANTS = 4
# Square binding wire is tucked behind two wires, round wire behind one and a half; common practice.
TUCKED_SQUARE, TUCKED_ROUND = 2.0, 1.5


@dataclass(frozen=True)
class Binding:
    """A binding of ``turns`` round wires side by side, of a binding wire of some section; strands
    of several sorts have a hull of their own [mm]."""

    strands: int
    strand: float
    wire: Section
    turns: int
    square: bool = False
    mixed: float | None = None

    @property
    def hull(self) -> float:
        """P, of the strands [mm]."""
        if self.mixed is not None:
            return self.mixed
        return row_hull(self.strands, self.strand, square=self.square)

    @property
    def turn(self) -> float:
        """B = sqrt((P + 2 pi e)^2 + b^2), once round [mm]."""
        return binding_length(1, self.hull, self.wire.neutral_offset, self.wire.width)

    @property
    def tuck(self) -> float:
        """Return what an end takes that is tucked behind the strands.

            square: d/2 + (pi/2) e + 2 d;  round: (pi/2)(d/2 + e) + 1.5 d

        Returns:
            Length [mm].

        Source: plain geometry; how far it is tucked is common practice.
        """
        d, e = self.strand, self.wire.neutral_offset
        if self.square:
            return d / 2 + math.pi / 2 * e + TUCKED_SQUARE * d
        return math.pi / 2 * (d / 2 + e) + TUCKED_ROUND * d

    @property
    def cut(self) -> float:
        """Return the wire of a binding, (2 n - 1) B / 2 + 2 tuck.

        n turns in front, n - 1 behind and the two ends.

        Returns:
            Length [mm].

        Example:
            >>> from jamreel.core.wire.sections import HalfRound
            >>> one = Binding(6, 0.8, HalfRound(flat=1.0), 4, square=True)
            >>> round(one.cut, 2), round(one.band, 2)
            (48.67, 4.0)

        Source: length of a hull; plain geometry, within 0.11 %.
        """
        return (2 * self.turns - 1) * self.turn / 2 + 2 * self.tuck

    @property
    def band(self) -> float:
        """How much of the bundle it covers, n b [mm]."""
        return self.turns * self.wire.width


def twisted_left(side: float, turns: float, kappa: float = 1.0) -> float:
    """Return what is left of square wire twisted t turns a finished metre.

        1 - kappa (1 - 1 / sqrt(1 + w^2 s^2 / 6)),  w = 2 pi t / 1000

    Args:
        side: s [mm].
        turns: t, of a finished metre.
        kappa: 1 where fibres keep their length, 0 where it only shears.

    Returns:
        Share of its length.

    Example:
        200 of square 1.0 at 100 turns a metre are cut from:

        >>> round(200 / twisted_left(1.0, 100), 2)
        206.47

    Source: mean fibre of a square section; plain geometry. Which kappa: from memory.
    """
    w = 2 * math.pi * turns / 1000
    return 1 - kappa * (1 - 1 / math.sqrt(1 + w * w * side * side / 6))


def stacked_longer(wire: float, turned: float = 2 * math.pi) -> float:
    """Return how much longer the outer of two stacked wires is, theta d.

    Args:
        wire: d, between their middles [mm].
        turned: theta that they are bent [rad]; a full ring where nothing else is said.

    Returns:
        Length [mm].

    Example:
        >>> round(stacked_longer(1.0), 2)
        6.28

    Source: plain geometry.
    """
    return turned * wire
