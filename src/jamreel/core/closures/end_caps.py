"""End caps: glued or crimped on a bundle or a ribbon, with loops, rings and a clasp."""

from dataclasses import replace
from typing import ClassVar, Literal

from jamreel.core.closures.base import Closure, Fastened, closure_step
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import Bought, End, Made, WireUse, opens_at, size_of
from jamreel.core.parts.pictures import box, flipped, ring
from jamreel.core.parts.rings import ring_turn, sprung_inside
from jamreel.core.parts.weights import CLASP_G_PER_MM, end_cap_mass
from jamreel.core.values import Length
from jamreel.core.wire.gauges import OptionalSize


class EndCaps(Closure):
    """Two caps that swallow the ends of the body, each with a loop; rings; a clasp between."""

    ranges: ClassVar[dict[str, tuple[float, float]]] = {
        "cap": (2, 30),
        "cap_width": (1, 40),
        "depth": (0, 20),
        "clasp": (0, 40),
        "ring_pin": (2, 12),
    }

    kind: Literal["end_caps"] = "end_caps"
    cap: Length = 9.0
    cap_width: Length = 7.0
    depth: Length = 6.0
    clasp: Length = 11.0
    ring_pin: Length = 3.5
    fixed_by: Literal["glued", "crimped"] = "glued"
    wire: OptionalSize = None

    def make(self, wires: Palette) -> Fastened:
        """Return both halves; what the body goes into the caps by is no length of its own."""
        w = wires.of("rings", self.wire)
        outside = max(self.cap - self.depth, 0.5)
        inner = sprung_inside(w, self.ring_pin, "ring_pin")
        turn = ring_turn(w, self.ring_pin, inner)
        use = WireUse("closure_ring", w, (("body", (turn,)),), off_coil=True)
        hold = opens_at("jump_ring", w, inner)
        cautions = ("glue",) if self.fixed_by == "glued" else ("ends",)
        step = closure_step(self.fixed_by, cautions=cautions, depth=self.depth)
        size = size_of(self.cap_width, self.cap)
        cap = Bought("end_cap", size, 1, end_cap_mass(self.cap_width, self.cap))
        end = End(inner, w.d, True, "any")

        def half(extra: float, *more: Bought) -> Made:
            length = inner + outside + extra
            drawn = [
                ring(inner / 2, inner, w.d),
                box(inner, inner + outside + self.depth, self.cap_width, "bought"),
            ]
            return Made(
                length=length,
                thickness=self.cap_width,
                width=self.cap_width,
                ends=(end, end),
                wires=(use,),
                bought=(cap, *more),
                holds=(hold,),
                strokes=tuple(drawn),
                steps=(step,),
                minutes=4.0,
            )

        clasp = Bought("clasp", size_of(self.clasp), 1, CLASP_G_PER_MM * self.clasp, self.clasp)
        holding = half(self.clasp, clasp)
        outer = flipped(holding.strokes, holding.length - self.clasp)
        tail = box(holding.length - self.clasp + 0.3, holding.length, 5.0, "bought")
        return Fastened(
            half(0.0),
            replace(holding, strokes=(*outer, tail)),
        )
