"""A link or drop of the maker's own, described as moves on one wire."""

from typing import ClassVar, Literal

from pydantic import Field

from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import End, Made, Part, Role, WireUse, opens_at, part_step
from jamreel.core.parts.drawn import drawn
from jamreel.core.parts.own_shape import OwnMove, moves_in_words, own_shape
from jamreel.core.parts.pictures import hung
from jamreel.core.wire.gauges import OptionalSize


class OwnLink(Part):
    """A shape of the maker's own; it bears at the insides of its two furthest points."""

    joins: ClassVar[Role] = "link"

    kind: Literal["own_link"] = "own_link"
    name: str = Field(default="", max_length=60)
    moves: tuple[OwnMove, ...] = Field(
        default=(
            OwnMove(move="bend", degrees=360, pin=4),
            OwnMove(move="straight", length=10),
            OwnMove(move="bend", degrees=360, pin=4, side="right"),
        ),
        min_length=1,
        max_length=40,
    )
    hangs: bool = False
    wire: OptionalSize = None

    @property
    def says(self) -> str:
        """The maker's own name for it, or the shelf's."""
        return self.name or super().says

    def make(self, wires: Palette) -> Made:
        """Return the shape as made. Raises Refusal for moves that give none."""
        w = wires.of("body", self.wire)
        shape = own_shape(self.moves, w.d)
        end = End(min(shape.pins), w.d)
        stretches = (("body", shape.moves),)
        use = WireUse(self.kind, w, stretches, eye=shape.eye, at=shape.at)
        strokes = drawn(use)
        return Made(
            length=0.0 if self.hangs else shape.length,
            thickness=shape.depth,
            width=shape.width,
            hang=shape.length + w.d if self.hangs else 0.0,
            ends=(end, end),
            wires=(use,),
            holds=(opens_at("plain_loop", w, max(shape.pins)),),
            strokes=hung(strokes) if self.hangs else strokes,
            steps=(part_step("own_moves", check=True, moves=moves_in_words(self.moves, w.d)),),
            minutes=0.6 * len(self.moves),
        )
