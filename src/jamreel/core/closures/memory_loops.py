"""No closure: tempered wire with a loop bent back at each end."""

import math
from typing import ClassVar, Literal

from jamreel.core.choices import choice
from jamreel.core.closures.base import Closure, Fastened, closure_step
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import End, Made, WireUse
from jamreel.core.parts.drawn import drawn, laid
from jamreel.core.path.moves import Bend
from jamreel.core.values import Length


class MemoryLoops(Closure):
    """Loops that keep the beads on; the wire's own spring holds the piece."""

    strung_through: ClassVar[bool] = False

    kind: Literal["memory_loops"] = "memory_loops"
    pin: Length = choice(2.5, 1, 8)

    def make(self, wires: Palette) -> Fastened:
        """Return both ends; nothing fastens, and each loop is wire that the coil loses."""
        w = wires.of("body")
        end = End(self.pin, w.d, False)
        turn = Bend(angle=2 * math.pi, pin=self.pin, label="loop")
        loop = WireUse("memory_loop", w, (("body", (turn,)),))
        use = laid(loop, left=0.0, low=True)
        half = Made(
            length=self.pin + w.d,
            thickness=w.d,
            width=self.pin + 2 * w.d,
            ends=(end, end),
            wires=(use,),
            strokes=drawn(use),
            steps=(closure_step("bend_back", cautions=("hard", "eyes"), pin=self.pin),),
            minutes=2.0,
        )
        return Fastened(half, half, one_hand=True)
