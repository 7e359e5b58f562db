"""The eye link: a straight stem with a loop at each end, no bead."""

from typing import ClassVar, Literal

from jamreel.core.choices import choice
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import Made, Role, WireUse
from jamreel.core.parts.drawn import drawn, laid
from jamreel.core.parts.ends import Looped, LoopKind, Stand, face_step, quarter
from jamreel.core.path.moves import Straight
from jamreel.core.values import Length
from jamreel.core.wire.gauges import OptionalSize


class EyeLink(Looped):
    """A stem of bare wire between two loops."""

    joins: ClassVar[Role] = "link"

    kind: Literal["eye_link"] = "eye_link"
    stem: Length = choice(8.0, 0, 120)
    loops: LoopKind = "plain"
    stand: Stand = "square"
    wire: OptionalSize = None

    def make(self, wires: Palette) -> Made:
        """Return the link; its loops stand alike or square to each other."""
        w = wires.of("body", self.wire)
        loop = self.loop_of(w)
        length = self.stem + 2 * loop.reach
        stretches = (
            *loop.stretches("left"),
            ("body", (Straight(length=self.stem),)),
            *loop.stretches("right", quarter(self.stand)),
        )
        use = laid(WireUse(self.kind, w, stretches, off_reel=wires.off_reel), middle=length / 2)
        return Made(
            length=length,
            thickness=loop.thickness,
            width=self.pin + 2 * w.d,
            ends=(loop.end(), loop.end()),
            wires=(use,),
            holds=(loop.hold,),
            strokes=drawn(use),
            steps=(
                *loop.made_steps(stem=self.stem, off_reel=wires.off_reel),
                face_step(self.stand),
            ),
            minutes=4.0 if loop.wrapped else 2.0,
            advice=loop.advice,
        )
