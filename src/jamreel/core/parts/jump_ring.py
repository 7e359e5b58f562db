"""The jump ring: one turn of wire, closed end to end."""

import math
from typing import ClassVar, Literal

from jamreel.core.advice.parts import thin_for_links
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import End, Made, Part, Role, WireUse, opens_at, part_step, pulls_at
from jamreel.core.parts.pictures import ring
from jamreel.core.path.moves import Bend
from jamreel.core.values import Length
from jamreel.core.wire.gauges import OptionalSize


class JumpRing(Part):
    """A ring that opens sideways; soldered it holds as its wire does."""

    ranges: ClassVar[dict[str, tuple[float, float]]] = {"pin": (1, 60)}

    lengthens: ClassVar[bool] = True

    kind: Literal["jump_ring"] = "jump_ring"
    pin: Length = 4.0
    soldered: bool = False
    wire: OptionalSize = None

    @property
    def role(self) -> Role:
        """Links with its neighbours."""
        return "link"

    def make(self, wires: Palette) -> Made:
        """Return the ring: it adds its inner diameter to the piece."""
        w = wires.of("rings", self.wire)
        end = End(self.pin, w.d, not self.soldered, "any")
        hold = pulls_at("soldered_ring", w) if self.soldered else opens_at("jump_ring", w, self.pin)
        cautions = ("torch", "eyes") if self.soldered else ("eyes",)
        return Made(
            length=self.pin,
            thickness=w.d,
            width=self.pin + 2 * w.d,
            ends=(end, end),
            wires=(
                WireUse(
                    self.kind,
                    w,
                    (("body", (Bend(angle=2 * math.pi, pin=self.pin, label="ring"),)),),
                    off_coil=True,
                ),
            ),
            holds=(hold,),
            strokes=(ring(self.pin / 2, self.pin, w.d),),
            steps=(
                part_step("rings", cautions=cautions, pin=self.pin),
                part_step("ring_close", check=True),
            ),
            minutes=3.0 if self.soldered else 0.7,
            advice=(None if self.soldered else thin_for_links(w.d, self.pin),),
        )
