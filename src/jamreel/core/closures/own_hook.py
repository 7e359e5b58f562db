"""A hook of the maker's own, described as moves on one wire; and a wrapped eye."""

from typing import ClassVar, Literal

from pydantic import Field

from jamreel.core.choices import choice
from jamreel.core.closures.base import Fastened, closure_step
from jamreel.core.closures.hook_and_eye import HookAndEye
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import End, Made, WireUse, opens_at
from jamreel.core.parts.drawn import drawn
from jamreel.core.parts.own_shape import OwnMove, moves_in_words, own_shape
from jamreel.core.values import Length


class OwnHook(HookAndEye):
    """Made from the loop that joins the body to the tip; its widest bend is taken for the crook.

    ``tip`` is the widest of it that goes through the eye.
    """

    stands_in: ClassVar[bool] = False

    kind: Literal["own_hook"] = "own_hook"
    first: ClassVar[tuple[str, ...]] = ("tip", "into", "eye_pin", "fixed", "tail")
    name: str = Field(default="", max_length=60)
    moves: tuple[OwnMove, ...] = Field(
        default=(
            OwnMove(move="bend", degrees=360, pin=3, side="right"),
            OwnMove(move="straight", length=9),
            OwnMove(move="bend", degrees=190, pin=5),
            OwnMove(move="straight", length=4),
            OwnMove(move="bend", degrees=200, pin=1.5, side="right"),
        ),
        min_length=1,
        max_length=40,
    )
    tip: Length = choice(3.6, 0.3, 20)

    @property
    def says(self) -> str:
        """The maker's own name for it, or the shelf's."""
        return self.name or super().says

    def make(self, wires: Palette) -> Fastened:
        """Return both halves. Raises Refusal for moves that give no shape."""
        w = wires.of("closure", self.wire)
        shape = own_shape(self.moves, w.d)
        # The join may hold anything, the crook whatever the eye is.
        ends = (End(shape.pins[0], w.d), End(max(shape.pins), w.d, False))
        bent = WireUse("own_hook", w, (("body", shape.moves),), eye=shape.eye, at=shape.at)
        hook = Made(
            length=shape.length,
            thickness=shape.depth,
            width=shape.width,
            ends=ends,
            wires=(bent,),
            holds=(opens_at("hook", w, max(shape.pins)), opens_at("plain_loop", w, shape.pins[0])),
            strokes=drawn(bent),
            steps=(
                closure_step(
                    "own_moves", cautions=("ends",), moves=moves_in_words(self.moves, w.d)
                ),
            ),
            minutes=0.6 * len(self.moves),
        )
        return self.with_eye(w, wires, hook, self.tip)
