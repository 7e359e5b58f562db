"""Frames bent from one bar: two legs that end in eyes, and a bow between them."""

import math
from dataclasses import dataclass
from functools import cached_property

from jamreel.core.bench.steps import Step
from jamreel.core.forming.chosen import Wire
from jamreel.core.interlace.base import at_height
from jamreel.core.parts.base import End, WireUse, part_step
from jamreel.core.parts.drawn import laid
from jamreel.core.parts.ends import Loop
from jamreel.core.path.moves import Bend, Move, Straight


@dataclass(frozen=True)
class Frame:
    """A frame, lengths in mm: the ``width`` between its legs, their eyes bent on a ``pin``, the
    inner radius of the ``corner`` of a square bow, None for a round one, and the turns of an eye at
    the middle of the bow."""

    bar: Wire
    pin: float
    width: float
    corner: float | None = None
    bow_turns: int = 0

    @cached_property
    def loop(self) -> Loop:
        """The eye of each leg."""
        return Loop("plain", self.bar, self.pin)

    @property
    def apart(self) -> float:
        """From the middle of one leg to that of the other [mm]."""
        return self.width + self.bar.d

    @property
    def _bow(self) -> tuple[Move, ...]:
        turned = 2 * math.pi * self.bow_turns
        eye = (Bend(angle=turned, pin=self.pin, label="bow_eye"),) if turned else ()
        if self.corner is None:
            half = Bend(angle=math.pi / 2, pin=self.width, label="bow")
            return (half, *eye, half)
        corner = Bend(angle=math.pi / 2, pin=2 * self.corner, label="bow")
        flat = Straight(length=(self.width - 2 * self.corner) / 2)
        return (corner, flat, *eye, flat, corner)

    @property
    def behind(self) -> float:
        """How far beyond the legs the bow bears [mm]."""
        deep = self.width / 2 if self.corner is None else self.corner
        return deep + (self.bar.d + self.pin if self.bow_turns else 0.0)

    @property
    def ends(self) -> tuple[End, End]:
        """What joins see: the eyes of the legs, and the bow or its eye."""
        inner = self.pin if self.bow_turns else self.width
        return (self.loop.end().in_row(2, self.apart), End(inner, self.bar.d, False))

    def use(self, key: str, long: float) -> WireUse:
        """Return its wire: an eye, a leg, the bow, the other leg, an eye.

        Args:
            key: that it goes by.
            long: a leg [mm].
        """
        stretches = (
            *self.loop.stretches("left"),
            ("leg", (Straight(length=long),)),
            ("bow", self._bow),
            ("leg_back", (Straight(length=long),)),
            *self.loop.stretches("right"),
        )
        placed = laid(WireUse(key, self.bar, stretches, held="leg"), left=0.0)
        return at_height(placed, -self.apart / 2)

    @property
    def step(self) -> Step:
        """The step in which it is bent."""
        kind = "round" if self.corner is None else "square"
        return part_step(f"channel_bow_{kind}", name="channel_bow", width=self.width, check=True)
