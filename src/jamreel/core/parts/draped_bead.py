"""The draped bead: a linked bead with chain hung in a U from both of its loops."""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import ClassVar, Literal

from jamreel.core.advice.joining import loop_admits
from jamreel.core.advice.parts import strands_touch
from jamreel.core.bench.steps import Step
from jamreel.core.choices import choice, like
from jamreel.core.errors import Refusal
from jamreel.core.fit.fall import hang
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import Made, part_step
from jamreel.core.parts.chain import BoughtChain
from jamreel.core.parts.linked_bead import BeadBetweenLoops
from jamreel.core.parts.pictures import hung_links, shifted
from jamreel.core.values import Length, OptionalLength, Point
from jamreel.core.words import say

MOST_CHAINS = 4
# Behind these steps a loop is made and still open.
OPEN = {"first_open": "drape_first", "wrapped_open": "drape_other"}


@dataclass(frozen=True)
class Drape:
    """A chain in a U: how many links, how long they are, and how far it falls [mm]."""

    links: int
    length: float
    sag: float

    def line(self, span: float) -> list[Point]:
        """Return how it hangs between two points, two places for every link and one [mm]."""
        found = hang(span, self.length).points(2 * self.links + 1)
        return [(float(x), float(y)) for x, y in found]


class DrapedBead(BeadBetweenLoops):
    """A linked bead with one chain or several hung from both of its loops, the shortest above.

    A chain is told by its ``links``, or by its length: then it has as many links as come nearest.
    """

    kind: Literal["draped_bead"] = "draped_bead"
    first: ClassVar[tuple[str, ...]] = ("bead", "loops", "pin", "links", "chain_length")
    chains: int = choice(1, 1, MOST_CHAINS)
    links: int = choice(15, 3, 200)
    chain_length: OptionalLength = choice(None, 5, 600)
    more_links: int = choice(6, 1, 100)
    pitch: Length = like(BoughtChain, "pitch", 3.5)
    thickness: Length = like(BoughtChain, "thickness", 2.0)
    mass_per_m: float = like(BoughtChain, "mass_per_m", 9.0)

    def make(self, wires: Palette) -> Made:
        """Return the bead with its chains.

        Raises:
            Refusal: a chain that is no longer than the bead with its loops.
        """
        bead = super().make(wires)
        drapes = tuple(self._drapes(bead.length))
        made = [self._chain(one.links).make(wires) for one in drapes]
        link = self._chain(1).make(wires)
        assert link.ends is not None  # of what links
        assert bead.ends is not None
        w, ring = wires.of("body", self.wire), link.ends[0].wire
        bead_name, chain_name = say("part.bead_loop"), say("shelf.chain.name")
        falls = [one.sag for one in drapes]
        listed = " · ".join(
            say("part.drape", links=d.links, length=d.length, fall=d.sag) for d in drapes
        )
        links = sum(one.links for one in drapes)
        strokes = [
            stroke
            for one in reversed(drapes)
            for stroke in hung_links(link.strokes, one.line(bead.length), links, self.thickness)
        ]
        return bead.but(
            width=max(bead.width / 2, self.bead / 2) + falls[-1] + link.width / 2,
            hang=falls[-1],
            bought=(*bead.bought, *(bought for one in made for bought in one.bought)),
            strokes=(*shifted(strokes, bead.length / 2), *bead.strokes),
            steps=(
                part_step("drape_cut", check=True, chains=len(drapes), listed=listed),
                *_with_drapes(bead.steps, self.chains),
            ),
            minutes=bead.minutes + 1.5 * len(drapes),
            advice=(
                *bead.advice,
                loop_admits(self.pin, (w.d, *(ring for _ in drapes)), bead_name, chain_name),
                strands_touch(
                    min((low - high for high, low in pairwise(falls)), default=math.inf), link.width
                ),
            ),
        )

    def _chain(self, links: int) -> BoughtChain:
        return BoughtChain(
            links=links, pitch=self.pitch, thickness=self.thickness, mass_per_m=self.mass_per_m
        )

    def _drapes(self, span: float) -> Iterator[Drape]:
        """Yield the chains from above."""
        first = self.links
        if self.chain_length is not None:
            first = max(1, round(self.chain_length / self.pitch))
        for n in range(self.chains):
            links = first + n * self.more_links
            length = links * self.pitch
            if length <= span:
                field = "links" if self.chain_length is None else "chain_length"
                least = math.floor(span / self.pitch) + 1
                raise Refusal(
                    "drape_short", got=links, field=field, span=span, least=least - first + links
                )
            yield Drape(links, length, hang(span, length).sag)


def _with_drapes(steps: Sequence[Step], chains: int) -> Iterator[Step]:
    """Yield the bead's steps with its chains hung in while a loop is open; plain loops are opened
    once more for it."""
    wrapped = any(one.id in OPEN for one in steps)
    bought = all(one.id not in ("first_open", "plain_first") for one in steps)
    for one in steps:
        if one.id == "thread" and wrapped and bought:
            yield part_step("drape_eye", check=True, chains=chains)
        yield one
        if one.id in OPEN:
            yield part_step(OPEN[one.id], check=True, chains=chains)
        if not wrapped and one.id == "plain_second":
            yield part_step("drape_plain", check=True, chains=chains)
