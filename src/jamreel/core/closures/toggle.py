"""The toggle: a bar that goes through a ring end on and lies across it."""

import math
from typing import ClassVar, Literal

from jamreel.core.choices import choice
from jamreel.core.closures.base import Fastened, Passes, closure_step
from jamreel.core.closures.receiving import Received
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.heat import solderable
from jamreel.core.forming.palette import Palette
from jamreel.core.forming.strength import bar_force
from jamreel.core.parts.base import End, Hold, Made, Stretches, WireUse, opens_at, ovals_at
from jamreel.core.parts.drawn import drawn, laid
from jamreel.core.parts.rings import soldered_steps
from jamreel.core.path.moves import Bend, Flatten, Straight
from jamreel.core.values import Length

# A tip is hammered over so many wires before it is curled, on a pin of so many; common practice.
TIP_WIRES, CURL_WIRES = 3.0, 1.5


class Toggle(Received):
    """A bar, and a ring of the same wire or one that is there.

    The bar is plain with one loop, or its tips are flattened and curled and two loops side by side
    carry it.
    """

    kind: Literal["toggle"] = "toggle"
    first: ClassVar[tuple[str, ...]] = ("ring_pin", "bar", "tips", "loop_pin", "into")
    ring_pin: Length = choice(12.0, 4, 30, when=("into", "own"))
    bar: Length = choice(18.0, 6, 60)
    tips: Literal["plain", "curled"] = "plain"
    loop_pin: Length = choice(2.5, 1, 8)
    soldered: bool = choice(False, when=("into", "own"))

    def make(self, wires: Palette) -> Fastened:
        """Return both halves: the bar's loop bears on the far inside of the ring.

        Raises:
            Refusal: a ring to be soldered of a metal that can't be.
        """
        w = wires.of("closure", self.wire)
        solderable(w, self.soldered and self.into == "own")
        return self.fastens_by(
            self.into_what(w, wires, lambda: self._ring(w)),
            self.on_body(self._bar(w), wires),
            Passes(w.d, self.bar),
        )

    @property
    def _loop(self) -> Bend:
        return Bend(angle=2 * math.pi, pin=self.loop_pin, label="loop")

    def _ring(self, w: Wire) -> Made:
        """Return its own ring, a small loop for the body beside it."""
        turn = Bend(angle=2 * math.pi, pin=self.ring_pin, label="ring")
        beside = self._loop.model_copy(update={"side": "right"})
        holds = (
            (ovals_at("soldered_ring", w, self.ring_pin),)
            if self.soldered
            else (opens_at("open_ring", w, self.ring_pin), opens_at("plain_loop", w, self.loop_pin))
        )
        stretches = (("body", (turn,)), ("loop_right", (beside,)))
        length = self.ring_pin + self.loop_pin + w.d
        # Its own start is where both rings touch: the small one lies to the right.
        ringed = WireUse("toggle_ring", w, stretches, turn=math.pi / 2)
        use = laid(ringed, left=0.0)
        solder = soldered_steps(w.metal) if self.soldered else ()
        return Made(
            length=length,
            thickness=w.d,
            width=self.ring_pin + 2 * w.d,
            ends=(End(self.ring_pin, w.d, False), End(self.loop_pin, w.d, not self.soldered)),
            wires=(use,),
            holds=holds,
            strokes=drawn(use),
            steps=(closure_step("toggle_ring", pin=self.ring_pin), *solder),
            minutes=5.0,
        )

    def _bar(self, w: Wire) -> Made:
        """Return the bar: its middle is turned once or twice round the pin, to carry the body."""
        curled = self.tips == "curled"
        loops = 2 if curled else 1
        small = self.loop_pin + w.d
        steps = closure_step(
            "toggle_bar_curled" if curled else "toggle_bar",
            name="toggle_bar",
            cautions=("ends",),
            pin=self.loop_pin,
            bar=self.bar,
        )
        bar = WireUse("toggle_bar", w, self._bar_wire(w, loops), turn=math.pi / 2)
        use = laid(bar, left=0.0, low=True)
        hammer = (
            closure_step("bar_tips", cautions=("hammer",), pin=CURL_WIRES * w.d) if curled else None
        )
        return Made(
            length=small,
            thickness=2 * w.d,
            width=self.bar,
            ends=(End(self.loop_pin, w.d), End(0.0, w.d, False)),
            wires=(use,),
            holds=(
                Hold("toggle_bar", bar_force(w.moment, 2 * w.radius_on(self._opening)), w.key),
                ovals_at("toggle_loop", w, self.loop_pin),
            ),
            strokes=drawn(use),
            steps=(steps,) if hammer is None else (steps, hammer),
            minutes=4.0 + 3.0 * curled,
        )

    @property
    def _opening(self) -> float:
        """What the bar lies across [mm]; of a loop that is there only the body knows."""
        return self.ring_pin if self.into in ("own", "last_loop") else self.into_pin

    def _bar_wire(self, w: Wire, loops: int) -> Stretches:
        half = Straight(length=self.bar / 2)
        middle: Stretches = (
            ("bar_left", (half,)),
            ("body", (self._loop,) * loops),
            ("bar_right", (half,)),
        )
        if loops == 1:
            return middle
        flat = Flatten(length=TIP_WIRES * w.d, thickness=w.d / 2)
        curl = Bend(angle=1.5 * math.pi, pin=CURL_WIRES * w.d, label="tip")
        return (("tip_left", (flat, curl)), *middle, ("tip_right", (curl, flat)))
