"""Moves on one round wire, the length they take, and where they lie on the straight wire.

Composition: a path is a sequence of moves; any move may follow any other, an empty path is the
neutral element, and joining paths adds their lengths. A ``PlaneTurn``, ``Kink`` or ``Mark`` takes
no wire.
"""

import math
from collections.abc import Iterator, Sequence
from typing import Annotated, Literal

from pydantic import Field

from jamreel.core.path.coils import turn
from jamreel.core.values import Frozen, Millimetres, Written

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


class Corner(Frozen):
    """A sharp bend of ``angle`` [rad] over a plier's edge of inner radius ``radius`` [mm]."""

    kind: Literal["corner"] = "corner"
    angle: float = Field(gt=0, le=math.pi)
    radius: float = Field(gt=0)
    side: Side = "left"
    label: str = ""


class Fold(Frozen):
    """Wire doubled back on itself and pinched closed: both legs touch."""

    kind: Literal["fold"] = "fold"
    side: Side = "left"
    label: str = ""


class Spiral(Frozen):
    """A flat spiral of ``turns``; ``pin`` is the inner diameter of its tightest turn [mm].

    ``outward`` starts at the middle and grows; otherwise the wire runs inwards. ``gap`` is the air
    between turns [mm].
    """

    kind: Literal["spiral"] = "spiral"
    turns: float = Field(gt=0, le=40)
    pin: float = Field(gt=0)
    gap: float = Field(default=0.0, ge=0)
    outward: bool = False
    side: Side = "left"
    label: str = ""


class Wrap(Frozen):
    """Turns round a core of diameter ``core`` [mm], each ``pitch`` further on; 0 is close.

    With ``on_own`` the core is the wire's own stem, which it goes on from.
    """

    kind: Literal["wrap"] = "wrap"
    turns: float = Field(gt=0, le=2000)
    core: float = Field(gt=0)
    pitch: float = Field(default=0.0, ge=0)
    on_own: bool = False
    side: Side = "left"
    label: str = ""


class Flatten(Frozen):
    """Wire hammered flat over a ``length`` [mm] of it, down to a ``thickness`` [mm]."""

    kind: Literal["flatten"] = "flatten"
    length: float = Field(gt=0)
    thickness: float = Field(gt=0)


class PlaneTurn(Frozen):
    """A turn [rad] of the plane of the next bends about the wire; right-handed, no length."""

    kind: Literal["turn"] = "turn"
    angle: float


class Kink(Frozen):
    """A sharp turn [rad] in the plane of the next bends that takes no wire of its own.

    A loop that sits centred on its stem begins with one: by the trade's sums the wire of the turn
    is counted in the loop.
    """

    kind: Literal["kink"] = "kink"
    angle: float = Field(gt=0, le=math.pi)
    side: Side = "left"


class Mark(Frozen):
    """A mark on the wire."""

    kind: Literal["mark"] = "mark"
    label: str


Move = Annotated[
    Straight | Bend | Corner | Fold | Spiral | Wrap | Flatten | PlaneTurn | Kink | Mark,
    Field(discriminator="kind"),
]


class BendAt(Frozen):
    """A bend with the place on the straight wire where it begins, and the wire it takes."""

    label: str
    move: Literal["bend", "corner", "fold", "spiral", "wrap"]
    pin_mm: float
    angle: float
    side: Side
    position_mm: float
    takes_mm: float


class MarkAt(Written):
    """A mark with its place, from the left end of the path [mm]."""

    label: str
    at_mm: Millimetres


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


def corner_radius(inner: float, wire: float) -> float:
    """Return the neutral radius of a sharp corner, r + k t / 2.

        k = 0.65 + log10(r / t) / 2, at most 1; no more than r / t = 5 counts as sharp

    Args:
        inner: r, of the edge bent over [mm], over 0.
        wire: t, thickness through the bend [mm].

    Returns:
        Radius [mm]; k never falls below 0, where wire has no neutral line left.

    Example:
        >>> corner_radius(1.0, 1.0)
        1.325

    Source: DIN 6935; published. Its k at r/t of 1, 2, 3, 5 is 0.65, 0.80, 0.89, 1.0.
    """
    k = min(1.0, max(0.0, 0.65 + 0.5 * math.log10(inner / wire)))
    return inner + k * wire / 2


def spiral_length(inner: float, growth: float, turns: float) -> float:
    """Return the length of an Archimedean spiral.

        integral of sqrt(r^2 + b^2) over the angle, r = inner + b angle, b = growth / 2 pi

    Args:
        inner: radius of its start on the centre-line [mm].
        growth: by which a turn grows [mm], over 0.
        turns: how many.

    Returns:
        Length [mm]; approaches 2 pi inner turns for no growth.

    Example:
        >>> round(spiral_length(2.0, 1.0, 3.0), 3)
        66.046

    Source: arc length of the Archimedean spiral; published in calculus textbooks.
    """
    b = growth / (2 * math.pi)

    def primitive(r: float) -> float:
        return (r * math.hypot(r, b) + b * b * math.asinh(r / b)) / (2 * b)

    return primitive(inner + growth * turns) - primitive(inner)


def wrap_length(turns: float, core: float, pitch: float, wire: float) -> float:
    """Return the wire in turns round a core, sqrt((pi (D + d))^2 + p^2) each.

    Args:
        turns: how many.
        core: D, diameter of the core [mm].
        pitch: p, from turn to turn [mm]; 0 stands for close turns, p = d.
        wire: d [mm].

    Returns:
        Length [mm].

    Example:
        >>> round(wrap_length(1, 1.6, 0, 0.812), 3)
        7.621

    Source: length of a helix on the mean diameter of spring practice; published.
    """
    return turns * turn(core, wire, pitch or wire)


def move_length(move: Move, wire: float) -> float:
    """Return the wire [mm] that one move takes, for a wire of some diameter [mm]."""
    match move:
        case Straight() | Flatten():
            return move.length
        case Bend():
            return bend_length(move.angle, move.pin, wire)
        case Corner():
            return move.angle * corner_radius(move.radius, wire)
        case Fold():
            return math.pi * wire / 2
        case Spiral():
            return spiral_length((move.pin + wire) / 2, wire + move.gap, move.turns)
        case Wrap():
            return wrap_length(move.turns, move.core, move.pitch, wire)
        case _:
            return 0.0


def pin_and_angle(move: Move) -> tuple[float, float] | None:
    """Return what a move is bent on [mm] and how far [rad]; None for a move that is no bend."""
    match move:
        case Bend():
            return move.pin, move.angle
        case Corner():
            return 2 * move.radius, move.angle
        case Fold():
            return 0.0, math.pi
        case Spiral():
            return move.pin, 2 * math.pi * move.turns
        case Wrap():
            return move.core, 2 * math.pi * move.turns
        case _:
            return None


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
    bends = []
    for at, move in _placed(moves, wire):
        bent = pin_and_angle(move)
        if bent is not None and not isinstance(move, (Straight, Flatten, PlaneTurn, Kink, Mark)):
            bends.append(
                BendAt(
                    label=move.label,
                    move=move.kind,
                    pin_mm=bent[0],
                    angle=bent[1],
                    side=move.side,
                    position_mm=start + at,
                    takes_mm=move_length(move, wire),
                )
            )
    return tuple(bends)


def mirrored(moves: Sequence[Move]) -> tuple[Move, ...]:
    """Return a path with left and right exchanged: the same wire, its mirror image in space.

    Args:
        moves: the path.

    Source: plain geometry.
    """
    other: dict[Side, Side] = {"left": "right", "right": "left"}
    out: list[Move] = []
    for move in moves:
        if isinstance(move, PlaneTurn):
            out.append(PlaneTurn(angle=-move.angle))
        elif isinstance(move, (Straight, Flatten, Mark)):
            out.append(move)
        else:
            out.append(move.model_copy(update={"side": other[move.side]}))
    return tuple(out)


def marks_of(moves: Sequence[Move], wire: float, start: float = 0.0) -> tuple[MarkAt, ...]:
    """Return the marks of a path with their places, counted from ``start`` [mm]."""
    return tuple(
        MarkAt(label=move.label, at_mm=start + at)
        for at, move in _placed(moves, wire)
        if isinstance(move, Mark)
    )
