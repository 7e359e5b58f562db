"""The crook hook: one wire, a curled tip, a wrapped loop; and a wrapped eye."""

from typing import ClassVar, Literal

from jamreel.core.choices import choice
from jamreel.core.closures.base import Fastened, closure_step
from jamreel.core.closures.hook_and_eye import JOIN_PIN_MM, JOIN_RANGE, HookAndEye
from jamreel.core.closures.receiving import body_in
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import End, Made, WireUse, opens_at
from jamreel.core.parts.drawn import drawn, laid
from jamreel.core.parts.ends import Loop
from jamreel.core.path.hook import Crook
from jamreel.core.path.moves import Straight
from jamreel.core.values import Length


class CrookHook(HookAndEye):
    """A hook of single wire, its tip curled outwards so that it guides the eye in."""

    kind: Literal["crook_hook"] = "crook_hook"
    first: ClassVar[tuple[str, ...]] = ("hook_pin", "tip_pin", "shank", "into", "eye_pin")
    shank: Length = choice(6.0, 1, 40)
    hook_pin: Length = choice(5.0, 2, 16)
    tip_pin: Length = choice(1.0, 0.5, 5)
    join_pin: Length = choice(JOIN_PIN_MM, *JOIN_RANGE)
    wraps: int = choice(3, 1, 10)

    def make(self, wires: Palette) -> Fastened:
        """Return both halves; the curled tip is what has to pass the eye."""
        w = wires.of("closure", self.wire)
        join = Loop("wrapped", w, self.join_pin, self.wraps, self.tail)
        crook = Crook(self.hook_pin, self.tip_pin)
        length = join.reach + self.shank + crook.bearing
        tip, bow = crook.moves()
        stretches = (
            *join.stretches("left"),
            ("body", (Straight(length=self.shank),)),
            ("crook", (bow,)),
            ("tip", (tip,)),
        )
        use = laid(WireUse("crook_hook", w, stretches), left=0.0)
        hook = Made(
            length=length,
            thickness=join.thickness,
            # From the join loop's side to the outside of the curled tip.
            width=(self.join_pin + w.d) / 2 + self.hook_pin + self.tip_pin + 3 * w.d,
            ends=(join.end(), End(self.hook_pin, w.d, False)),
            wires=(use,),
            holds=(opens_at("hook", w, self.hook_pin), join.hold),
            strokes=drawn(use),
            steps=(
                closure_step("join_open", pin=self.join_pin),
                body_in(),
                closure_step("join_loop", cautions=("ends",), wraps=self.wraps),
                closure_step("tip", pin=self.tip_pin),
                closure_step("crook", pin=self.hook_pin),
            ),
            minutes=6.0,
        )
        return self.with_eye(w, wires, hook, crook.width(w.d))
