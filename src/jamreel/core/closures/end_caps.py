"""End caps: glued or crimped on a bundle or a ribbon, with loops, rings and a clasp.

They are bought, or made of round tube that is flattened over the end of a ribbon or a weave.
"""

import math
from collections.abc import Iterator
from dataclasses import replace
from typing import Any, ClassVar, Literal

from pydantic import PrivateAttr

from jamreel.core.advice import Advice
from jamreel.core.advice.joining import cap_deep, cap_fits
from jamreel.core.advice.tube import tube_fits
from jamreel.core.bench.steps import Step
from jamreel.core.choices import choice
from jamreel.core.closures.base import Closure, Fastened, closure_step
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.heat import solderable
from jamreel.core.forming.palette import Palette
from jamreel.core.forming.volume import hull_perimeter
from jamreel.core.parts.base import Bought, End, Made, WireUse, opens_at, size_of
from jamreel.core.parts.drawn import drawn, laid, moved
from jamreel.core.parts.pictures import box, flipped, ring, wraps
from jamreel.core.parts.rings import ring_turn, sprung_inside
from jamreel.core.parts.weights import CAP_WALL_MM, CLASP_G_PER_MM, end_cap_mass
from jamreel.core.path.loops import centred
from jamreel.core.path.moves import Bend, Wrap
from jamreel.core.values import Length, OptionalLength, Stroke
from jamreel.core.wire.gauges import OptionalSize
from jamreel.core.wire.sections import Flat

# Clear between body and cap on each side, glued or soldered and pressed [mm]; common practice.
CLEAR_GLUED_MM, CLEAR_PRESSED_MM = 0.1, 0.05
# A body that is not there yet [mm]; common practice.
USUAL_WIDE_MM, USUAL_THICK_MM, USUAL_CAP_MM = 12.0, 2.0, 7.0
# Caps are sold in sizes so far apart [mm]; from memory, no source.
SOLD_APART_MM = 0.5


class EndCaps(Closure):
    """Two caps that swallow the ends of the body, each with a loop; rings; a clasp between.

    A ribbon end is a folded strip, ``cap_width`` wide and ``cap_opening`` open; left blank caps are
    as wide as what goes into them, to the next half millimetre that is sold. Tube of an inner
    diameter ``tube`` keeps its perimeter when it is flattened over a body of
    the body that it goes over, or has to be stretched.
    """

    kind: Literal["end_caps"] = "end_caps"
    strung_through: ClassVar[bool] = False
    swallows: ClassVar[bool] = True
    first: ClassVar[tuple[str, ...]] = ("clasp", "cap_of", "depth", "fixed_by", "ring_pin")
    cap: Length = choice(9.0, 2, 30, when=("cap_of", "bought", "ribbon_end", "tube"))
    cap_width: OptionalLength = choice(None, 1, 40, when=("cap_of", "bought", "ribbon_end"))
    depth: Length = choice(6.0, 0, 20)
    clasp: Length = choice(11.0, 0, 40)
    ring_pin: Length = choice(3.5, 2, 12)
    fixed_by: Literal["glued", "crimped", "soldered"] = "glued"
    cap_of: Literal["bought", "ribbon_end", "tube", "coil"] = "bought"
    cap_opening: Length = choice(2.5, 0.3, 20, when=("cap_of", "ribbon_end"))
    plate: Literal["none", "flat", "domed"] = choice("none", when=("cap_of", "tube"))
    tube: Length = choice(9.5, 2, 40, when=("cap_of", "tube"))
    wire: OptionalSize = None
    _over: Flat | None = PrivateAttr(default=None)

    def over(self, width: float, thickness: float) -> "EndCaps":
        """Return them over an end so wide and thick [mm], whichever way it lies."""
        found = self.model_copy()
        # As wide as the body is: it is no wire, whose width has a limit.
        found._over = Flat.model_construct(
            width=max(width, thickness), thickness=min(width, thickness)
        )
        return found

    def make(self, wires: Palette) -> Fastened:
        """Return both halves; what the body goes into the caps by is no length of its own."""
        w = wires.of("rings", self.wire)
        outside = max(self.cap - self.depth, 0.5)
        inner = sprung_inside(w, self.ring_pin, "ring_pin")
        turn = ring_turn(w, self.ring_pin, inner)
        ringed = WireUse("closure_ring", w, (("body", (turn,)),), off_coil=True)
        use = laid(ringed, middle=inner / 2, low=True)
        hold = opens_at("jump_ring", w, inner)
        solderable(w, self.fixed_by == "soldered", "fixed_by")
        solderable(w, self._plated, "plate")
        fixed = self._fixed()
        coil = self._coil(w) if self.cap_of == "coil" else None
        outside = self.ring_pin + w.d if coil else outside
        fits = (
            tube_fits(w, self.tube, self._goes_in, self._clear) if self.cap_of == "tube" else None
        )
        cap, steps, wide, thick = self._cap(fits)
        # No flame is held to a ring beside glue, and none to a ring that is on: solder softens it.
        key = "cap_clasp" if self.clasp else "cap_ring"
        ring_on = closure_step(key, name="cap_ring", cautions=("eyes",), pin=self.ring_pin)
        soldered = self.fixed_by == "soldered"
        steps = (*steps, fixed, ring_on) if soldered else (*steps, ring_on, fixed)
        end = End(inner, w.d)

        def half(extra: float, *more: Bought) -> Made:
            length = inner + outside + extra
            picture = [*drawn(use), *(coil.shown if coil else ())]
            if not coil:
                picture.append(box(inner, inner + outside + self.depth, wide, "bought"))
            return Made(
                length=length,
                thickness=thick,
                width=wide,
                ends=(end, end),
                goes_last=self.fixed_by == "soldered",
                wires=(use, coil) if coil else (use,),
                bought=(*((cap,) if cap else ()), *more),
                holds=(hold,),
                strokes=tuple(picture),
                steps=steps,
                advice=(fits,) if fits else (),
                minutes=4.0,
            )

        clasp = Bought("clasp", size_of(self.clasp), 1, CLASP_G_PER_MM * self.clasp, self.clasp)
        holding = half(self.clasp, clasp)
        at = holding.length - self.clasp
        outer = flipped(holding.strokes, at)
        tail = box(holding.length - self.clasp + 0.3, holding.length, 5.0, "bought")
        return Fastened(
            half(0.0),
            replace(
                holding,
                strokes=(*outer, tail),
                wires=(moved(use, at - 2 * use.at[0]), *holding.wires[1:]),
            ),
        )

    @property
    def _wide(self) -> float:
        """How wide a bought cap is inside [mm]."""
        if self.cap_width is not None:
            return self.cap_width
        if self._over is None:
            return USUAL_CAP_MM
        over = self._over
        across = over.width if self.cap_of == "ribbon_end" else max(over.width, over.thickness)
        return math.ceil((across + 2 * self._clear) / SOLD_APART_MM - 1e-9) * SOLD_APART_MM

    @property
    def in_cap(self) -> float:
        """Its depth [mm]."""
        return self.depth

    def takes_in(self, name: str, width: float, thickness: float) -> tuple[Advice | None, ...]:
        """Return whether a bare end goes into its caps, and is held by them."""
        deep = cap_deep(name, self.depth, width)
        if self.cap_of in ("tube", "coil"):
            # Made over the body as it is.
            return (deep,)
        wide, thick = (self if self._over else self.over(width, thickness))._mouth
        return (cap_fits(name, width, thickness, wide, thick), deep)

    @property
    def _mouth(self) -> tuple[float, float]:
        """The widest and the thickest body that goes into its caps [mm]; a round cap takes one as
        thick as it is wide."""
        if self.cap_of in ("tube", "coil"):
            return self._goes_in.width, self._goes_in.thickness
        return self._wide, self.cap_opening if self.cap_of == "ribbon_end" else self._wide

    def _coil(self, w: Wire) -> WireUse:
        """Return an end wound from wire: turns round the body, and a loop of its own."""
        over = self._goes_in
        turns = max(3, math.ceil(self.depth / w.d))
        core = hull_perimeter(over) / math.pi + 2 * self._clear
        loop = centred(Bend(angle=2 * math.pi, pin=self.ring_pin, label="loop"), first=False)
        inner = sprung_inside(w, self.ring_pin, "ring_pin")
        use = WireUse(
            "cord_end",
            w,
            (("body", (Wrap(turns=turns, core=core, label="coil"),)), ("loop_right", loop)),
            wound=True,
        )
        placed = laid(use, left=inner, low=True)
        return replace(placed, shown=tuple(self._coiled(w, inner, turns, core)))

    def _coiled(self, w: Wire, at: float, turns: int, core: float) -> Iterator[Stroke]:
        """Yield a wound end as it is seen: its loop, then the turns."""
        yield ring(at + self.ring_pin / 2, self.ring_pin, w.d)
        yield from wraps(at + self.ring_pin + w.d, turns, w.d, core + w.d)

    @property
    def _clear(self) -> float:
        """Between body and cap on each side [mm]."""
        return CLEAR_PRESSED_MM if self.fixed_by == "crimped" else CLEAR_GLUED_MM

    @property
    def _plated(self) -> bool:
        return self.cap_of == "tube" and self.plate != "none"

    @property
    def _goes_in(self) -> Flat:
        return self._over or Flat(width=USUAL_WIDE_MM, thickness=USUAL_THICK_MM)

    def _fixed(self) -> Step:
        """Return the step in which the caps are fixed."""
        cautions = {"glued": ("glue",), "crimped": ("ends",), "soldered": ("torch",)}
        ribbon = self.cap_of == "ribbon_end" and self.fixed_by == "glued"
        key = "glued_ribbon" if ribbon else self.fixed_by
        return closure_step(
            key, name=self.fixed_by, cautions=cautions[self.fixed_by], depth=self.depth
        )

    def _cap(self, fits: Advice | None) -> tuple[Bought | None, tuple[Step, ...], float, float]:
        """Return a cap: what is bought for it, its own steps, how wide and how thick it is [mm]."""
        if self.cap_of == "coil":
            step = closure_step("cord_coil", cautions=("eyes", "ends"), pin=self.ring_pin)
            return None, (step,), self._goes_in.width, self._goes_in.thickness
        if self.cap_of != "tube":
            size = size_of(self._wide, self.cap)
            mass = end_cap_mass(self._wide, self.cap)
            key = "ribbon_end" if self.cap_of == "ribbon_end" else "end_cap"
            thick = self._mouth[1] + 2 * CAP_WALL_MM if key == "ribbon_end" else self._wide
            return Bought(key, size, 1, mass), (), self._wide, thick
        size, over = size_of(self.tube, self.cap), self._goes_in
        tube = Bought("tube", size, 1, end_cap_mass(self.tube, self.cap))
        opened = _opened(fits.id if fits else "", over)
        wide, thick = over.width + 2 * CAP_WALL_MM, over.thickness + 2 * CAP_WALL_MM
        if not self._plated:
            return tube, opened, wide, thick
        plate = closure_step(f"plate_{self.plate}", cautions=("torch",), wide=wide, thick=thick)
        return tube, (*opened, plate), wide, thick


def _opened(fits: str, over: Flat) -> tuple[Step, ...]:
    """Return how a round tube is opened for a body: flattened over a strip as wide as it where it
    goes over that, else stretched over it, soft before each pull where it is too hard for one.

    Args:
        fits: the advice on tube and body.
        over: the body's section.

    Source: common practice.
    """
    strip: dict[str, Any] = {"wide": over.width, "thick": over.thickness}
    if fits == "tube_goes_in":
        return (closure_step("tube", cautions=("hammer",), **strip),)
    last = closure_step("tube_open", cautions=("hammer",), **strip)
    if fits == "tube_stretch":
        return (last,)
    soft, again = (
        closure_step("tube_soft", name=name, cautions=("torch", "pickle"))
        for name in ("tube_soft", "tube_soft_again")
    )
    return (soft, closure_step("tube_half", cautions=("hammer",), **strip), again, last)
