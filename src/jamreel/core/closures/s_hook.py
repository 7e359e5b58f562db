"""The S-hook: one half bound shut, the other open; hammered flat."""

import math
from typing import ClassVar, Literal

from jamreel.core.choices import choice
from jamreel.core.closures.base import NOTHING, Fastened, Passes, closure_step
from jamreel.core.closures.receiving import Hook, IntoOther, body_in
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import End, Made, WireUse, opens_at
from jamreel.core.parts.drawn import drawn_round, laid
from jamreel.core.path.coils import row_hull
from jamreel.core.path.moves import Bend, Straight, Wrap
from jamreel.core.values import Length, OptionalLength

# Held at each end of the binding while it is wound, and trimmed off [mm]; common practice.
TAIL_MM = 15.0
# How far the bows go round [rad]; common practice, no source.
CLOSED, OPEN = 1.85 * math.pi, 1.35 * math.pi
# At its middle the wire of an S crosses the line through its bows square [rad].
BOW_TURN = math.pi / 2


class SHook(Hook):
    """An S on one pin: one half is bound shut round the body's last loop, the other takes the loop
    at the far end, or a ring where one is chosen."""

    kind: Literal["s_hook"] = "s_hook"
    first: ClassVar[tuple[str, ...]] = ("hook_pin", "wraps", "into", "fixed", "wire")
    hook_pin: Length = choice(6.0, 2, 20)
    join_pin: OptionalLength = choice(None, 1, 20)
    wraps: int = choice(3, 1, 10)
    into: IntoOther = "last_loop"

    def make(self, wires: Palette) -> Fastened:
        """Return both halves: the S bears at the insides of its two bows.

        Raises:
            Refusal: a ring to be soldered of a metal that can't be.
        """
        w = wires.of("closure", self.wire)
        fine = wires.of("winding", None, usual=max(0.3, w.d / 2))
        return self.fastens_by(
            # It has no eye of its own.
            self.into_what(w, wires, lambda: NOTHING),
            self.on_body(self._hook(w, fine), wires),
            Passes(1.5 * w.d),
        )

    def _hook(self, w: Wire, fine: Wire) -> Made:
        """Return the S; finer wire binds the tip of its closed half to the middle."""
        # Bound shut its tip comes back to the middle; the other half stays open for the loop.
        join = self.hook_pin if self.join_pin is None else self.join_pin
        bow = Bend(angle=CLOSED, pin=join, label="bow")
        other = Bend(angle=OPEN, pin=self.hook_pin, side="right", label="bow")
        length = join + self.hook_pin + w.d
        tips = Straight(length=1.5 * w.d)
        core = row_hull(2, w.d) / math.pi
        tail = Straight(length=TAIL_MM)
        bows = (("tip_left", (tips,)), ("crook", (bow,)), ("body", (other,)), ("tip", (tips,)))
        # Laid so that its two bows lie one behind the other.
        use = laid(WireUse("s_hook", w, bows, turn=BOW_TURN), middle=length / 2, low=True)
        turns = Wrap(turns=self.wraps, core=core, label="wraps")
        bound = (("tail_left", (tail,)), ("binding", (turns,)), ("tail_right", (tail,)))
        finer = WireUse("s_hook_binding", fine, bound, held="binding", wound=True)
        binding = laid(finer, middle=length / 2, low=True)
        return Made(
            length=length,
            thickness=max(0.8 * w.d, w.d + 2 * fine.d),
            width=max(join, self.hook_pin) + 2 * w.d,
            ends=(End(join, w.d), End(self.hook_pin, w.d, False)),
            wires=(use, binding),
            holds=(opens_at("hook", w, self.hook_pin),),
            strokes=drawn_round(use, binding),
            steps=(
                closure_step("s_bows", pin=self.hook_pin)
                if join == self.hook_pin
                else closure_step("s_bows_unlike", name="s_bows", pin=self.hook_pin, join=join),
                closure_step("hammer_hook", cautions=("hammer",)),
                body_in(),
                closure_step("bind_half", cautions=("ends",), wraps=self.wraps),
            ),
            minutes=6.0,
        )
