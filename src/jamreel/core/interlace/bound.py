"""Bodies that are bound, not woven row by row: what is looked at of them, and their bindings."""

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from jamreel.core.choices import choice
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.palette import Palette
from jamreel.core.interlace.base import USUAL_FINE_MM
from jamreel.core.interlace.bindings import Binding
from jamreel.core.interlace.cells import Cell, Strand
from jamreel.core.interlace.space import Array
from jamreel.core.parts.base import Interlacing, Part
from jamreel.core.values import Stroke
from jamreel.core.wire.gauges import OptionalSize
from jamreel.core.wire.sections import HalfRound, Patterned, Round, Section, Square

SectionKind = Literal["square", "round", "half_round", "patterned", "twisted"]
# A corner of a hull is drawn by so many chords.
CHORDS = 6


@dataclass(frozen=True, eq=False)
class Bound(Interlacing):
    """A bound body as it is looked at from all sides: all of it in space, its wires by their role,
    and its bounds [mm]; laid straight its strands are so ``long``, bound at their ``marks``, where
    they are marked at all [mm]."""

    whole: Callable[[], Cell]
    wires: Mapping[str, Wire]
    long: float
    width: float
    thickness: float
    marks: tuple[float, ...] = ()

    def wire_of(self, role: str) -> Wire:
        """Return the wire of a role."""
        return self.wires[role]


class WithBindings(Part):
    """Base of parts whose wires are bound: turns, and the binding wire, its flat side inwards."""

    bindings: int = choice(3, 1, 15)
    turns: int = choice(4, 1, 40)
    binding_section: Literal["half_round", "round", "square"] = "half_round"
    binding_wire: OptionalSize = None

    def binding(self, wires: Palette) -> Wire:
        """Return the wire that binds: its own, else the winding wire of the piece."""
        w = wires.of("winding", self.binding_wire, usual=USUAL_FINE_MM)
        if self.binding_section == "half_round":
            # Half-round wire goes by its flat.
            return sectioned(w, HalfRound(flat=max(w.d, 0.2)))
        return sectioned(w, Square(side=w.d)) if self.binding_section == "square" else w


def sectioned(wire: Wire, section: Section) -> Wire:
    """Return wire of the same metal and temper in some section, which it is called by."""
    return replace(wire, d=section.thickness, section=section, label=section.label)


def strand_wire(wire: Wire, kind: SectionKind) -> Wire:
    """Return a strand of a bundle, as wide as a wire is thick.

    Args:
        wire: round, as thick as the strand.
        kind: of section; a twisted one is square wire.
    """
    d = wire.d
    sections: dict[str, Section] = {
        "square": Square(side=d),
        "twisted": Square(side=d),
        "half_round": HalfRound(flat=max(d, 0.2)),
        "patterned": Patterned(width=d, thickness=max(d / 2, 0.1)),
        "round": Round(diameter=d),
    }
    return wire if kind == "round" else sectioned(wire, sections[kind])


def wide_of(wire: Wire, kind: SectionKind) -> float:
    """Return how wide a strand lies [mm]; twisted square wire turns on its corners."""
    return wire.d * math.sqrt(2) if kind == "twisted" else wire.shape.width


def hull_line(width: float, thickness: float, out: float, turns: float, pitch: float) -> Array:
    """Return a binding round a flat bundle, from the middle of its back on.

    Args:
        width: of the bundle [mm].
        thickness: of it [mm].
        out: of the binding's middle from its face [mm].
        turns: how often it goes round.
        pitch: from turn to turn [mm].

    Returns:
        Points, n by 3 [mm], from x = 0 on.

    Source: a rectangle with round corners; plain geometry.
    """
    w, t = width / 2, thickness / 2
    corners = []
    for n, (y, z) in enumerate(((w, -t), (w, t), (-w, t), (-w, -t))):
        start = -math.pi / 2 + n * math.pi / 2
        angle = np.linspace(start, start + math.pi / 2, CHORDS + 1)
        corners.append(np.column_stack([y + out * np.cos(angle), z + out * np.sin(angle)]))
    once = np.vstack([[[0.0, -t - out]], *corners])
    every = np.vstack([once] * (math.floor(turns) + 1) + [[[0.0, -t - out]]])
    run = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(every, axis=0).T))])
    round_ = run[len(once)]
    x = run / round_ * pitch
    upto = x <= turns * pitch + 1e-9
    line: Array = np.column_stack([x, every])[upto]
    return line


def binding_strand(one: Binding, width: float, thickness: float, at: float) -> Strand:
    """Return a binding in space, its middle at a place of the bundle [mm]."""
    out, b = one.wire.thickness / 2, one.wire.width
    line = hull_line(width, thickness, out, one.turns - 0.5, b)
    line = line + np.array([at - one.band / 2 + b / 4, 0.0, 0.0])
    return Strand("binding", min(b, 2 * out), line, runs_on=False)


def binding_strokes(
    one: Binding, width: float, at: float, tone: str, y: float = 0.0
) -> tuple[Stroke, ...]:
    """Return a binding as it is drawn from the face, its middle at a place [mm]."""
    b, half = one.wire.width, width / 2 + one.wire.thickness
    first = at - one.band / 2 + b / 2
    turn = Stroke(
        part="wire",
        points=((round(first, 2), round(y - half, 2)), (round(first, 2), round(y + half, 2))),
        width_mm=b,
        tone=tone,
        times=one.turns,
        step=(round(b, 4), 0.0),
    )
    return (turn,)
