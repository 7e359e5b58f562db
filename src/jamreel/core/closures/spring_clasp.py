"""The bought spring clasp, its rings, and an extender chain."""

from typing import ClassVar, Literal

from jamreel.core.choices import choice
from jamreel.core.closures.base import NOTHING, Closure, Fastened, closure_step
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import Bought, End, Made, Varies, WireUse, opens_at, size_of
from jamreel.core.parts.drawn import drawn, laid
from jamreel.core.parts.pictures import box, ring, shifted
from jamreel.core.parts.rings import ring_turn, sprung_inside
from jamreel.core.parts.weights import CHAIN_G_PER_M, CLASP_G_PER_MM
from jamreel.core.values import Length
from jamreel.core.wire.gauges import OptionalSize


class SpringClasp(Closure):
    """A clasp on its ring at one end, a ring at the other; the extender hangs from that ring."""

    usual: ClassVar[bool] = True

    kind: Literal["spring_clasp"] = "spring_clasp"
    first: ClassVar[tuple[str, ...]] = ("clasp", "ring_pin", "extender", "extender_pitch", "into")
    clasp: Length = choice(11.0, 4, 40)
    clasp_width: Length = choice(5.0, 1, 20)
    clasp_thickness: Length = choice(3.0, 0.5, 12)
    ring_pin: Length = choice(3.5, 2, 12)
    extender: int = choice(0, 0, 30)
    extender_pitch: Length = choice(3.5, 1, 12)
    into: Literal["own", "last_loop"] = "own"
    wire: OptionalSize = None

    def varies(self) -> tuple[Varies, ...]:
        """Return its extender: none, a short one, a long one."""
        return (Varies("extender", "extender", self.extender, (0, 8, 12)),)

    def make(self, wires: Palette) -> Fastened:
        """Return both halves: clasp and rings count, the extender only adds range."""
        w = wires.of("rings", self.wire)
        inner = sprung_inside(w, self.ring_pin, "ring_pin")
        turn = ring_turn(w, self.ring_pin, inner)
        ringed = WireUse("closure_ring", w, (("body", (turn,)),), off_coil=True)
        use = laid(ringed, middle=inner / 2, low=True)
        hold = opens_at("jump_ring", w, inner)
        end = End(inner, w.d)
        reach = self.extender * self.extender_pitch
        links = tuple(
            Bought("extender", size_of(reach), 1, CHAIN_G_PER_M * reach / 1000, reach)
            for _ in range(1 if self.extender else 0)
        )
        receiving = Made(
            length=inner,
            thickness=w.d,
            width=inner + 2 * w.d,
            ends=(end, end),
            wires=(use,),
            bought=links,
            holds=(hold,),
            strokes=drawn(use),
            steps=(
                closure_step("clasp_rings", cautions=("eyes",), pin=self.ring_pin, inner=inner),
            ),
            minutes=1.0,
        )
        nose = ring(inner + self.clasp - 1.2, 1.6, 0.8, 0.0, "bought")
        holding = Made(
            length=inner + self.clasp,
            thickness=self.clasp_thickness,
            width=self.clasp_width,
            ends=(end, End(0.0, 1.0)),
            wires=(use,),
            bought=(
                Bought("clasp", size_of(self.clasp), 1, CLASP_G_PER_MM * self.clasp, self.clasp),
            ),
            holds=(hold,),
            strokes=(
                *drawn(use),
                *shifted((box(0.4, self.clasp - 1.6, self.clasp_width, "bought"),), inner),
                nose,
            ),
            steps=(closure_step("clasp_on", length=self.clasp),),
            minutes=1.0,
        )
        if self.into == "last_loop":
            # It snaps on what is there, where an extender has nothing to hang from.
            return Fastened(NOTHING, holding)
        return Fastened(
            receiving,
            holding,
            one_hand=False,
            adds_range=reach,
            range_step=self.extender_pitch if self.extender else 0.0,
        )
