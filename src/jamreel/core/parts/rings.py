"""Rings cut from a coil: they are as wide as the coil sprang open when it came off its pin."""

import math

from jamreel.core.errors import Refusal
from jamreel.core.forming.chosen import Wire
from jamreel.core.path.moves import Bend
from jamreel.core.units import Mm


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
