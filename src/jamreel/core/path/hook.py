"""The crook hook of single wire: a curled tip, a leg, a crook. Bracelets and closures share it."""

import math
from dataclasses import dataclass

from jamreel.core.path.bearings import hook_bearing
from jamreel.core.path.moves import Bend, Move, Straight


@dataclass(frozen=True)
class Crook:
    """A crook on ``pin``, a straight leg, and a tip curled outwards on ``tip_pin`` [mm]."""

    pin: float
    tip_pin: float
    leg: float = 0.0

    def moves(self, crook: str = "crook") -> tuple[Move, ...]:
        """Return the hook as moves from its tip to its shank; ``crook`` is the bend's key."""
        tip = Bend(angle=1.5 * math.pi, pin=self.tip_pin, side="right", label="tip")
        bend = Bend(angle=math.pi, pin=self.pin, side="left", label=crook)
        return (tip, Straight(length=self.leg), bend) if self.leg else (tip, bend)

    @property
    def bearing(self) -> float:
        """How far the inside of its crook lies beyond its shank [mm]."""
        return hook_bearing(self.pin)

    def width(self, wire: float) -> float:
        """Return the widest of it that has to pass an eye: the curled tip, tip pin + 2 d [mm]."""
        return self.tip_pin + 2 * wire
