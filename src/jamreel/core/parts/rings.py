"""Rings: what all of them have in common, how one is soldered, and those cut from a coil, which
are as wide as the coil sprang open when it came off its pin."""

import math
from typing import Any

from jamreel.core.bench.steps import Step, step
from jamreel.core.errors import Refusal
from jamreel.core.forming.chosen import Wire
from jamreel.core.parts.base import End, Made, part_step
from jamreel.core.path.moves import Bend
from jamreel.core.units import Mm
from jamreel.core.wire.metals import Metal


def ring_made(inner: float, d: float, *, opens: bool, turns: int = 1, **more: Any) -> Made:
    """Return a ring as made: it adds its inside to the piece, and holds all at once what hangs in
    it.

    Args:
        inner: diameter [mm].
        d: thickness of its wire [mm].
        opens: whether it can be opened to be joined.
        turns: of the wire, side by side.
        more: of what it is made, what it holds, how it is drawn and done.
    """
    end = End(inner, turns * d, opens)
    wide = inner + 2 * d
    return Made(inner, turns * d, wide, ends=(end, end), one_loop=True, **more)


def soldered_steps(metal: Metal) -> tuple[Step, ...]:
    """Return how a closed ring is soldered: in one heat, then quenched, or left to cool where water
    would crack it, and pickled.

    Args:
        metal: of the ring.

    Source: common practice.
    """
    cooled = (
        step("heat.quench", "form", name="ring_quench", cautions=("torch",), metal=metal.name)
        if metal.quench
        else step("heat.cool", "form", name="ring_quench", metal=metal.name)
    )
    return (
        part_step("ring_solder", cautions=("torch",), check=True),
        cooled,
        step("heat.pickle", "form", name="ring_pickle", cautions=("pickle",), check=True),
    )


def sprung_inside(wire: Wire, pin: float, field: str) -> float:
    """Return the inside diameter of a ring cut from a coil.

    Args:
        wire: that it is made of.
        pin: that the coil is wound on [mm].
        field: the choice that the pin is.

    Returns:
        Inside diameter [mm], a little over the pin.

    Raises:
        Refusal: wire so springy, or a pin so wide, that no coil stays wound on it.

    Source: ``forming.springback.sprung_diameter``.
    """
    inside = wire.sprung(pin)
    # Twice as wide as its pin is no coil to cut rings from.
    if not inside <= 2 * pin:
        raise Refusal("ring_springs", got=Mm(pin), field=field, wire=wire.label)
    return inside


def ring_turn(wire: Wire, pin: float, inside: float) -> Bend:
    """Return one ring of a coil as the bend that it was on its pin.

    A coil that springs open has fewer turns than were wound, so each ring is a little more than a
    turn on the pin: its wire is pi (D + d) with D as sprung.

    Args:
        wire: that it is made of.
        pin: that the coil is wound on [mm].
        inside: as sprung [mm].

    Source: plain geometry: the wire in the coil stays as long as it is.
    """
    more = (inside + wire.bend_adds) / (pin + wire.bend_adds)
    return Bend(angle=2 * math.pi * more, pin=pin, label="ring")
