"""A shape of the maker's own, described as moves on one wire."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np

from jamreel.core.choices import Asking, choice
from jamreel.core.errors import Refusal
from jamreel.core.path.moves import (
    Bend,
    Corner,
    Flatten,
    Fold,
    Mark,
    Move,
    PlaneTurn,
    Spiral,
    Straight,
    Wrap,
    developed_length,
)
from jamreel.core.path.projection import LEAN
from jamreel.core.path.trace import Array, furthest, inside_length, trace
from jamreel.core.values import Length, Point
from jamreel.core.words import say

# Turns in spirals, wraps and bends of one shape together: more is a coil, and no shape.
MOST_TURNS = 60.0

MoveName = Literal[
    "straight", "bend", "corner", "fold", "spiral", "wrap", "turn", "flatten", "mark"
]


class OwnMove(Asking):
    """One move as a maker gives it; only the fields that the move uses are looked at.

    ``length`` of a straight or flattened stretch; ``pin`` that a bend or spiral is made on, or
    the core of wraps; ``degrees`` of a bend, corner or turn of the plane; ``turns`` of a spiral
    or of wraps.
    """

    move: MoveName = "straight"
    length: Length = choice(10.0, 0, 500)
    pin: Length = choice(3.0, 0.2, 100)
    degrees: float = choice(180.0, -720, 720)
    turns: float = choice(1.5, 0.1, 40)
    side: Literal["left", "right"] = "left"

    @property
    def winds(self) -> float:
        """How many turns of wire it is."""
        if self.move in ("spiral", "wrap"):
            return self.turns
        return abs(self.degrees) / 360 if self.move in ("bend", "corner") else 0.0

    def as_move(self, wire: float) -> Move:
        """Return the move for a wire of some diameter [mm].

        Raises:
            Refusal: a bend of no degrees, or a stretch of no length where one is needed.
        """
        angle = math.radians(abs(self.degrees))
        bending = self.move in ("bend", "corner")
        if bending and angle == 0:
            raise Refusal("no_angle", got="0", field="degrees")
        if self.move == "flatten" and self.length == 0:
            raise Refusal("no_length", got="0 mm", field="length")
        match self.move:
            case "straight":
                return Straight(length=self.length)
            case "bend":
                return Bend(angle=angle, pin=self.pin, side=self.side, label="bend")
            case "corner":
                # An edge as sharp as pliers have: the wire's own radius.
                half = min(angle, math.pi)
                return Corner(angle=half, radius=wire / 2, side=self.side, label="corner")
            case "fold":
                return Fold(side=self.side, label="fold")
            case "spiral":
                return Spiral(turns=self.turns, pin=self.pin, side=self.side, label="spiral")
            case "wrap":
                return Wrap(turns=self.turns, core=self.pin, side=self.side, label="wraps")
            case "turn":
                return PlaneTurn(angle=math.radians(self.degrees))
            case "flatten":
                return Flatten(length=self.length, thickness=wire / 2)
            case _:
                return Mark(label=say("mark.own"))


@dataclass(frozen=True)
class OwnShape:
    """A shape lying with its furthest points on the x-axis, from the outside of the wire at the
    left to its inside [mm]: how long inside, how wide and how deep, and the pins of its bends; and
    how its wire is looked at and where it begins, see ``WireUse``."""

    moves: tuple[Move, ...]
    length: float
    width: float
    depth: float
    pins: tuple[float, ...]
    eye: tuple[tuple[float, float, float], ...]
    at: Point


def own_shape(moves: Sequence[OwnMove], wire: float) -> OwnShape:
    """Return the shape that moves on one wire make.

    Args:
        moves: as the maker gives them.
        wire: wire diameter [mm].

    Raises:
        Refusal: moves that take no wire, that wind too often, or whose ends meet with nothing
            between.

    Source: ``path.trace.trace``.
    """
    turns = sum(own.winds for own in moves)
    if turns > MOST_TURNS:
        raise Refusal("too_many_turns", got=math.ceil(turns), field="moves", most=MOST_TURNS)
    path = _path(moves, wire)
    takes = developed_length(path, wire)
    line = trace(path, wire, step=max(0.12, takes / 500))
    ends = furthest(line)
    length = inside_length(*ends, wire) if takes > 0 else 0.0
    if length <= 0:
        raise Refusal("no_shape", got=len(moves), field="moves")
    flat, deep, eye = _lying(line, *ends)
    # The path begins at the origin, and what stands off the paper leans.
    x, y, near = eye @ -ends[0]
    return OwnShape(
        moves=path,
        length=length,
        width=float(np.ptp(flat[:, 1])) + wire,
        depth=deep + wire,
        pins=tuple(m.pin for m in path if isinstance(m, Bend)) or (2 * wire,),
        eye=tuple((a, b, c) for a, b, c in eye.tolist()),
        at=(float(x) - wire / 2, float(y + LEAN * near)),
    )


def moves_in_words(moves: Sequence[OwnMove], wire: float) -> str:
    """Return moves one after the other in words, each with the place on the straight wire at which
    it begins; straight stretches are what lies between.

    Args:
        moves: as the maker gives them.
        wire: wire diameter [mm].

    Source: ``path.moves.developed_length``.
    """
    at, said = 0.0, ""
    for own in moves:
        move = own.as_move(wire)
        if own.move != "straight":
            values = {"at": at, "degrees": abs(own.degrees), "pin": own.pin, "turns": own.turns}
            side = say(f"own_move.{own.side}")
            one = say(f"own_move.{own.move}", length=own.length, side=side, **values)
            said = say("own_move.then", first=said, then=one) if said else one
        at += developed_length((move,), wire)
    return said


def _path(moves: Sequence[OwnMove], wire: float) -> tuple[Move, ...]:
    """Return the moves on one wire, with a mark where each bend but one at the very end begins."""
    path: list[Move] = []
    bends = 0
    for i, own in enumerate(moves):
        try:
            move = own.as_move(wire)
        except Refusal as refusal:
            raise refusal.at(f"moves.{i}.{refusal.field}") from None
        if own.winds > 0 or own.move == "fold":
            bends += 1
            if path:
                path.append(Mark(label=say("mark.bend_begins", n=bends)))
        path.append(move)
    return tuple(path)


def _lying(line: Array, a: Array, b: Array) -> tuple[Array, float, Array]:
    """Return a line laid with its furthest points on the x-axis, how deep it stands [mm], and the
    axes that it is looked at by: right, up and towards the eye, as rows."""
    moved = line - a
    x_axis = (b - a) / np.linalg.norm(b - a)
    across = moved - np.outer(moved @ x_axis, x_axis)
    # The direction across in which the shape is widest lies in the drawing.
    far = across[np.argmax(np.linalg.norm(across, axis=1))]
    if np.linalg.norm(far) < 1e-9:
        # A straight one has no direction across: any will do.
        far = np.cross(x_axis, np.eye(3)[np.argmin(np.abs(x_axis))])
    y_axis = far / np.linalg.norm(far)
    eye = np.array([x_axis, y_axis, np.cross(x_axis, y_axis)])
    return moved @ eye[:2].T, float(np.ptp(moved @ eye[2])), eye
