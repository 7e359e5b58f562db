"""The bought spring clasp, its rings, and an extender chain."""

import math
from typing import ClassVar, Literal

from jamreel.core.closures.base import Closure, Fastened, closure_step
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import Bought, End, Hold, Made, Varies, WireUse, opens_at
from jamreel.core.parts.pictures import box, ring, shifted
from jamreel.core.path.moves import Bend
from jamreel.core.units import format_length
from jamreel.core.values import Length
from jamreel.core.wire.gauges import OptionalSize


class SpringClasp(Closure):
    """A clasp on its ring at one end, a ring at the other; the extender hangs from that ring."""

    ranges: ClassVar[dict[str, tuple[float, float]]] = {
        "clasp": (4, 40),
        "clasp_width": (1, 20),
        "clasp_thickness": (0.5, 12),
        "ring_pin": (2, 12),
        "extender": (0, 30),
        "extender_pitch": (1, 12),
    }

    usual: ClassVar[bool] = True

    kind: Literal["spring_clasp"] = "spring_clasp"
    clasp: Length = 11.0
    clasp_width: Length = 5.0
    clasp_thickness: Length = 3.0
    ring_pin: Length = 3.5
    extender: int = 0
    extender_pitch: Length = 3.5
    wire: OptionalSize = None

    def varies(self) -> tuple[Varies, ...]:
        """Return its extender: none, a short one, a long one."""
        return (Varies("extender", "extender", self.extender, (0, 8, 12)),)

    def make(self, wires: Palette) -> Fastened:
        """Return both halves: clasp and rings count, the extender only adds range."""
        w = wires.of("rings", self.wire)
        turn = Bend(angle=2 * math.pi, pin=self.ring_pin, label="ring")
        use = WireUse("closure_ring", w, (("body", (turn,)),), off_coil=True)
        hold = opens_at("jump_ring", w, self.ring_pin)
        end = End(self.ring_pin, w.d, True, "any")
        links = tuple(
            Bought("extender", format_length(self.extender * self.extender_pitch))
            for _ in range(1 if self.extender else 0)
        )
        receiving = Made(
            length=self.ring_pin,
            thickness=w.d,
            width=self.ring_pin + 2 * w.d,
            ends=(end, end),
            wires=(use,),
            bought=links,
            holds=(hold,),
            strokes=(ring(self.ring_pin / 2, self.ring_pin, w.d),),
            steps=(closure_step("clasp_rings", cautions=("eyes",), pin=self.ring_pin),),
            minutes=1.0,
        )
        nose = ring(self.ring_pin + self.clasp - 1.2, 1.6, 0.8, 0.0, "bought")
        holding = Made(
            length=self.ring_pin + self.clasp,
            thickness=self.clasp_thickness,
            width=self.clasp_width,
            ends=(end, End(0.0, 1.0, True, "any")),
            wires=(use,),
            bought=(Bought("clasp", format_length(self.clasp), 1, 0.6, self.clasp),),
            holds=(hold,),
            strokes=(
                ring(self.ring_pin / 2, self.ring_pin, w.d),
                *shifted((box(0.4, self.clasp - 1.6, self.clasp_width, "bought"),), self.ring_pin),
                nose,
            ),
            steps=(closure_step("clasp_on", length=self.clasp),),
            minutes=1.0,
        )
        return Fastened(
            receiving,
            holding,
            Hold("jump_ring", hold.newtons),
            one_hand=False,
            adds_range=self.extender * self.extender_pitch,
        )
