"""Moves on one round wire, the length they take, and the line they draw in space.

Composition: a path is a sequence of moves; any move may follow any other, an empty path is the
neutral element, and joining paths adds their lengths. A ``Turn`` or ``Mark`` takes no wire.
"""

import math
from collections.abc import Iterator, Sequence
from typing import Annotated, Literal

import numpy as np
import numpy.typing as npt
from pydantic import Field

from jamreel.core.values import Frozen

Array = npt.NDArray[np.float64]
Side = Literal["left", "right"]


class Straight(Frozen):
    """Wire left straight."""

    kind: Literal["straight"] = "straight"
    length: float = Field(ge=0)


class Bend(Frozen):
    """A bend of ``angle`` [rad] on a pin of diameter ``pin`` [mm], to one side."""

    kind: Literal["bend"] = "bend"
    angle: float = Field(gt=0)
    pin: float = Field(gt=0)
    side: Side = "left"
    label: str = ""


class Turn(Frozen):
    """A turn [rad] of the plane of the next bends about the wire; right-handed, no length."""

    kind: Literal["turn"] = "turn"
    angle: float


class Mark(Frozen):
    """A mark on the wire."""

    kind: Literal["mark"] = "mark"
    label: str


Move = Annotated[Straight | Bend | Turn | Mark, Field(discriminator="kind")]


class BendAt(Frozen):
    """A bend with the place on the straight wire where it begins, and the wire it takes."""

    label: str
    pin_mm: float
    angle: float
    side: Side
    position_mm: float
    takes_mm: float


class MarkAt(Frozen):
    """A mark with its place, from the left end of the path [mm]."""

    label: str
    at_mm: float


def bend_length(angle: float, pin: float, wire: float) -> float:
    """Return the wire that a bend takes, along the neutral axis at half the wire's thickness.

        angle * (D + d) / 2

    Args:
        angle: [rad], not negative.
        pin: D, inner diameter of the bend [mm].
        wire: d, wire diameter [mm].

    Returns:
        Length [mm]; a full loop takes pi (D + d).

    Example:
        >>> round(bend_length(2 * math.pi, 6.0, 2.05), 1)
        25.3

    Source: mean diameter of spring practice, Shigley's Mechanical Engineering Design; published.
    """
    return angle * (pin + wire) / 2


def move_length(move: Move, wire: float) -> float:
    """Return the wire [mm] that one move takes, for a wire of some diameter [mm]."""
    if isinstance(move, Straight):
        return move.length
    if isinstance(move, Bend):
        return bend_length(move.angle, move.pin, wire)
    return 0.0


def _placed(moves: Sequence[Move], wire: float) -> Iterator[tuple[float, Move]]:
    at = 0.0
    for move in moves:
        yield at, move
        at += move_length(move, wire)


def developed_length(moves: Sequence[Move], wire: float) -> float:
    """Return the length [mm] of straight wire that a path of moves takes."""
    return sum(move_length(move, wire) for move in moves)


def bends_of(moves: Sequence[Move], wire: float, start: float = 0.0) -> tuple[BendAt, ...]:
    """Return the bends of a path with their places, counted from ``start`` [mm]."""
    return tuple(
        BendAt(
            label=move.label,
            pin_mm=move.pin,
            angle=move.angle,
            side=move.side,
            position_mm=start + at,
            takes_mm=move_length(move, wire),
        )
        for at, move in _placed(moves, wire)
        if isinstance(move, Bend)
    )


def marks_of(moves: Sequence[Move], wire: float, start: float = 0.0) -> tuple[MarkAt, ...]:
    """Return the marks of a path with their places, counted from ``start`` [mm]."""
    return tuple(
        MarkAt(label=move.label, at_mm=start + at)
        for at, move in _placed(moves, wire)
        if isinstance(move, Mark)
    )


def trace(moves: Sequence[Move], wire: float, step: float = 0.5) -> Array:
    """Return the centre-line of a path in space.

    Starts at the origin along +x; the first bends lie in the x-y plane, ``left`` towards +y.

    Args:
        moves: the path.
        wire: wire diameter [mm].
        step: greatest distance between points along the wire [mm], over 0.

    Returns:
        Points of shape (n, 3) [mm].

    Source: plain geometry (a frame carried along circular arcs and straights).
    """
    point = np.zeros(3)
    tangent, normal = np.array([1.0, 0, 0]), np.array([0, 1.0, 0])
    line = [point]
    for move in moves:
        if isinstance(move, Turn):
            across = np.cross(tangent, normal)
            normal = math.cos(move.angle) * normal + math.sin(move.angle) * across
        elif isinstance(move, Straight) and move.length > 0:
            point = point + move.length * tangent
            line.append(point)
        elif isinstance(move, Bend):
            inward = normal if move.side == "left" else -normal
            radius = (move.pin + wire) / 2
            count = max(8, math.ceil(move.angle * radius / step))
            for a in np.linspace(0, move.angle, count + 1)[1:]:
                line.append(point + radius * (math.sin(a) * tangent + (1 - math.cos(a)) * inward))
            point = line[-1]
            c, s = math.cos(move.angle), math.sin(move.angle)
            tangent, inward = c * tangent + s * inward, c * inward - s * tangent
            normal = inward if move.side == "left" else -inward
    return np.array(line)
