"""The dangle: beads on a pin with a head, hung by a wrapped or a plain loop."""

from typing import ClassVar, Literal

from jamreel.core.advice.parts import few_wraps, hole_passes
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import (
    Bought,
    Made,
    Part,
    Role,
    Stretches,
    Varies,
    WireUse,
    part_step,
    size_of,
)
from jamreel.core.parts.beads import BRITTLE, Colour, Stuff, bought_bead
from jamreel.core.parts.ends import (
    PIN_RANGE,
    TAIL_RANGE,
    WRAPS_RANGE,
    LoopKind,
    end_of,
    hold_of,
    loop_end,
    loop_picture,
    reach,
    wraps_vary,
)
from jamreel.core.parts.pictures import bead, edge, hung, ring
from jamreel.core.path.moves import Spiral, Straight, developed_length
from jamreel.core.values import Length
from jamreel.core.wire.gauges import OptionalSize

HEAD_MM = 0.6


class Dangle(Part):
    """A drop of one bead or several; its foot is a bought pin's head or a curl of the wire."""

    ranges: ClassVar[dict[str, tuple[float, float]]] = {
        "bead": (1, 40),
        "hole": (0.2, 10),
        "beads": (1, 20),
        "pin": PIN_RANGE,
        "wraps": WRAPS_RANGE,
        "tail": TAIL_RANGE,
    }
    grades: ClassVar[str | None] = "bead"

    kind: Literal["dangle"] = "dangle"
    bead: Length = 6.0
    hole: Length = 1.0
    beads: int = 1
    stuff: Stuff = "glass"
    colour: Colour = "brick"
    foot: Literal["head_pin", "curl"] = "head_pin"
    loops: LoopKind = "wrapped"
    pin: Length = 3.0
    wraps: int = 2
    tail: Length = 12.0
    wire: OptionalSize = None

    @property
    def role(self) -> Role:
        """Hangs."""
        return "drop"

    def varies(self) -> tuple[Varies, ...]:
        """Return its wraps, where it has any."""
        return wraps_vary(self.loops, self.wraps)

    def make(self, wires: Palette) -> Made:
        """Return the dangle, hung from the inside of its loop."""
        w = wires.of("body", self.wire)
        reaches = reach(self.loops, w, self.pin, self.wraps)
        beads = self.beads * self.bead
        curl = Spiral(turns=1.25, pin=w.d, label="curl")
        foot = HEAD_MM if self.foot == "head_pin" else 3.5 * w.d
        head: Stretches = () if self.foot == "head_pin" else (("curl", (curl,)),)
        stretches = (
            *loop_end(self.loops, w, self.pin, self.wraps, self.tail, "left"),
            ("body", (Straight(length=beads),)),
            *head,
        )
        bought = [bought_bead(self.bead, self.bead, self.hole, self.stuff, self.colour, self.beads)]
        uses: tuple[WireUse, ...] = (WireUse(self.kind, w, stretches),)
        if self.foot == "head_pin":
            takes = sum(developed_length(moves, w.d) for _, moves in stretches)
            bought.append(
                Bought("head_pin", size_of(takes, words=f"{w.label} × {{}}"), 1, w.mass(takes))
            )
            uses = ()
        at = reaches + beads
        drawn = (
            edge(reaches - 0.1, at + HEAD_MM, w.d),
            *loop_picture(self.loops, w, self.pin, self.wraps),
            *(
                bead(reaches + (i + 0.5) * self.bead, self.bead, self.bead, self.colour)
                for i in range(self.beads)
            ),
            *(
                (ring(at + 1.8 * w.d, 2 * w.d, w.d),)
                if head
                else (edge(at + HEAD_MM / 2, at + HEAD_MM, 2 * w.d),)
            ),
        )
        return Made(
            length=0.0,
            thickness=self.bead,
            width=max(self.bead, self.pin + 2 * w.d),
            hang=at + foot,
            ends=(end_of(self.loops, w, self.pin), end_of(self.loops, w, self.pin)),
            wires=uses,
            bought=tuple(bought),
            holds=(hold_of(self.loops, w, self.pin),),
            strokes=hung(drawn),
            steps=(
                part_step("thread", beads=self.beads),
                part_step("hang_wrapped", pin=self.pin, wraps=self.wraps, check=True)
                if self.loops == "wrapped"
                else part_step("hang_plain", pin=self.pin, check=True),
                part_step("tails", cautions=("eyes", "ends"), check=True),
            ),
            minutes=3.0,
            brittle=self.stuff in BRITTLE,
            advice=(
                hole_passes(self.hole, w.d),
                few_wraps(self.wraps) if self.loops == "wrapped" else None,
            ),
        )
