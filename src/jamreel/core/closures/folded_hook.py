"""The folded hook: wire doubled, pinched, turned over into a hook and bound; and a wrapped eye."""

import math
from typing import ClassVar, Literal

from jamreel.core.advice.parts import few_wraps
from jamreel.core.choices import choice
from jamreel.core.closures.base import Fastened, closure_step
from jamreel.core.closures.hook_and_eye import JOIN_PIN_MM, JOIN_RANGE, HookAndEye
from jamreel.core.closures.receiving import body_in
from jamreel.core.errors import Refusal
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import End, Made, Stretches, WireUse, opens_at
from jamreel.core.parts.drawn import drawn, laid
from jamreel.core.path.bearings import hook_bearing
from jamreel.core.path.coils import row_hull
from jamreel.core.path.loops import centred, turned_over
from jamreel.core.path.moves import Bend, Fold, Kink, PlaneTurn, Straight, Wrap
from jamreel.core.units import Mm
from jamreel.core.values import Length


class FoldedHook(HookAndEye):
    """A hook of doubled wire: strong, smooth at its tip, at home in a wrapped eye."""

    kind: Literal["folded_hook"] = "folded_hook"
    first: ClassVar[tuple[str, ...]] = ("hook_pin", "fold", "wraps", "into", "eye_pin")
    fold: Length = choice(30.0, 12, 80)
    hook_pin: Length = choice(5.0, 2, 16)
    join_pin: Length = choice(JOIN_PIN_MM, *JOIN_RANGE)
    wraps: int = choice(3, 1, 10)

    def make(self, wires: Palette) -> Fastened:
        """Return both halves; the hook's shank is what the fold leaves after its crook and tip.

        Raises:
            Refusal: a fold too short for its crook, tip and wraps.
        """
        w = wires.of("closure", self.wire)
        crook = math.pi * (self.hook_pin + w.d) / 2
        tip = 2.5 * w.d
        shank, least = self.fold - crook - tip, self.wraps * w.d
        if shank < least:
            needs = crook + tip + least
            raise Refusal("fold_short", got=Mm(self.fold), field="fold", least=needs)
        length = self.join_pin + w.d + shank + hook_bearing(self.hook_pin)
        stretches = self._stretches(w, Straight(length=shank), Straight(length=tip))
        # Seen from the side: both legs behind each other, the crook in the paper.
        folded = WireUse("folded_hook", w, stretches, held="leg_left", roll=math.pi / 2)
        use = laid(folded, left=0.0)
        hook = Made(
            length=length,
            thickness=2 * w.d,
            # From the join loop's side to the outside of the doubled crook.
            width=self.join_pin / 2 + self.hook_pin + 3 * w.d,
            ends=(End(self.join_pin, w.d), End(self.hook_pin, w.d, False)),
            wires=(use,),
            holds=(opens_at("hook", w, self.hook_pin, 2), opens_at("plain_loop", w, self.join_pin)),
            strokes=drawn(use),
            steps=(
                closure_step("fold", fold=self.fold),
                closure_step("join_open", pin=self.join_pin),
                body_in(),
                closure_step("bind", cautions=("ends",), wraps=self.wraps),
                closure_step("crook", pin=self.hook_pin),
            ),
            minutes=8.0,
        )
        return self.with_eye(w, wires, hook, 2 * w.d, few_wraps(self.wraps - 1))

    def _stretches(self, w: Wire, leg: Straight, tip: Straight) -> Stretches:
        """Return its wire: loop, leg, crook, tip; folded back the same way, and bound round both
        legs from the end of the second one."""
        join = Bend(angle=2 * math.pi, pin=self.join_pin, label="loop")
        core = row_hull(2, w.d) / math.pi
        binding = (
            Kink(angle=math.pi / 2, side="left"),
            PlaneTurn(angle=-math.pi / 2),
            Wrap(turns=self.wraps, core=core, label="wraps", on_own=True),
        )
        over = turned_over(Bend(angle=math.pi, pin=self.hook_pin, label="crook"))
        return (
            ("loop_left", centred(join, first=True)),
            ("leg_left", (leg, *over, tip)),
            ("body", (Fold(label="fold"),)),
            ("leg_right", (tip, *over, leg)),
            ("binding", binding),
            *((("tail_right", (Straight(length=self.tail),)),) if self.tail else ()),
        )
