"""The swag: strands between the same two points, each falling a distance below the one above."""

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace
from itertools import pairwise
from typing import Annotated, ClassVar, Literal

from pydantic import Field, SerializeAsAny

from jamreel.core.advice.parts import strands_touch
from jamreel.core.choices import choice
from jamreel.core.errors import Refusal
from jamreel.core.fit.fall import hang, length_that_falls
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import PARTS, Bought, Made, Part, Role, part_step
from jamreel.core.parts.chain import BoughtChain
from jamreel.core.parts.pictures import hung_links
from jamreel.core.tagged_union import TaggedUnion
from jamreel.core.values import Length, Stroke
from jamreel.core.words import say

# So many strands are as many as two loops carry.
MOST_STRANDS, MOST_LINKS = 6, 600


@dataclass(frozen=True)
class Strand:
    """One strand: how many links, how long they are, and how far it falls [mm]."""

    links: int
    length: float
    sag: float


class Swag(Part):
    """Strands of chain or links; the shortest carries, the longest is hung first."""

    joins: ClassVar[Role] = "link"

    kind: Literal["swag"] = "swag"
    span: Length = choice(90.0, 10, 600)
    strands: int = choice(2, 1, MOST_STRANDS)
    first_fall: Length = choice(12.0, 0, 300)
    fall_apart: Length = choice(25.0, 3, 200)
    link: SerializeAsAny[Annotated[Part, TaggedUnion(PARTS, Part, but="swag")]] = Field(
        default_factory=lambda: BoughtChain(links=1)
    )

    @property
    def stuffs(self) -> frozenset[str]:
        """What the beads of its links are made of."""
        return self.link.stuffs

    def make(self, wires: Palette) -> Made:
        """Return the swag, as long as its shortest strand pulled straight.

        Raises:
            Refusal: strands of what does not link, or of more links than a piece has.
        """
        if self.link.role != "link":
            raise Refusal("swag_links", got=self.link.kind, field="link")
        try:
            one = self._one_link.make(wires)
        except Refusal as refusal:
            raise refusal.at(f"link.{refusal.field}") from None
        assert one.ends is not None  # of what links
        left, right = (replace(end, strands=end.strands * self.strands) for end in one.ends)
        strands = tuple(self._strands(one))
        count = sum(strand.links for strand in strands)
        falls = [strand.sag for strand in strands]
        listed = " · ".join(say("part.falls", links=s.links, fall=s.sag) for s in strands)
        chain = isinstance(self.link, BoughtChain)
        return Made(
            length=strands[0].length,
            thickness=one.thickness,
            width=falls[-1] + one.width / 2,
            hang=falls[-1],
            lies="bends",
            pieces=strands[0].links,
            ends=(left, right),
            wires=tuple(replace(u, quantity=u.quantity * count) for u in one.wires),
            bought=self._bought(one, strands, wires),
            holds=one.holds,
            strokes=tuple(self._picture(one, strands)),
            steps=(
                *(() if chain else one.steps),
                part_step("swag_count", check=True, falls=listed, strands=len(strands)),
                # Closed links go on while what they hang in is open.
                part_step(
                    "swag_hang" if one.ends[0].opens else "swag_lay",
                    name="swag_hang",
                    check=True,
                    strands=len(strands),
                ),
            ),
            minutes=2.0 * len(strands) if chain else count * one.minutes,
            brittle=one.brittle,
            advice=(
                *one.advice,
                strands_touch(
                    min((low - high for high, low in pairwise(falls)), default=math.inf), one.width
                ),
            ),
        )

    @property
    def _one_link(self) -> Part:
        """What its strands are counted by: of chain one link, however many were written down."""
        if isinstance(self.link, BoughtChain):
            return self.link.model_copy(update={"links": 1})
        return self.link

    def _strands(self, one: Made) -> Iterator[Strand]:
        """Yield the strands from above, each of whole links and longer than the one before."""
        before = 0
        for i in range(self.strands):
            wanted = length_that_falls(self.span, self.first_fall + i * self.fall_apart)
            # It is longer than the way between its ends, or it could not hang.
            least = int(self.span / one.length) + 1
            links = max(round(wanted / one.length), least, before + 1)
            if links > MOST_LINKS:
                raise Refusal("too_many_parts", got=links, field="span", most=MOST_LINKS)
            before, length = links, links * one.length
            yield Strand(links, length, hang(self.span, length).sag)

    def _bought(self, one: Made, strands: tuple[Strand, ...], wires: Palette) -> tuple[Bought, ...]:
        """Return what is bought for it: chain by the strand, anything else by the link."""
        if isinstance(self.link, BoughtChain):
            cut = (self.link.model_copy(update={"links": s.links}).make(wires) for s in strands)
            return tuple(bought for made in cut for bought in made.bought)
        count = sum(strand.links for strand in strands)
        return tuple(replace(b, quantity=b.quantity * count) for b in one.bought)

    def _picture(self, one: Made, strands: tuple[Strand, ...]) -> Iterator[Stroke]:
        """Yield its strands as they hang, drawn over the length of the shortest."""
        wide = strands[0].length / self.span
        links = sum(strand.links for strand in strands)
        for strand in reversed(strands):
            found = hang(self.span, strand.length).points(2 * strand.links + 1)
            line = [(wide * (float(x) + self.span / 2), float(y)) for x, y in found]
            yield from hung_links(one.strokes, line, links, one.thickness)
