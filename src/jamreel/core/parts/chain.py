"""Bought chain, cut at a whole number of links."""

from typing import ClassVar, Literal

from jamreel.core.choices import choice
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import Bought, End, Made, Part, Role, Varies, near, part_step, size_of
from jamreel.core.parts.pictures import arc_points
from jamreel.core.values import Length, Stroke
from jamreel.core.words import say


class BoughtChain(Part):
    """A stretch of chain: so many links of one pitch."""

    counted_in: ClassVar[str | None] = "links"
    joins: ClassVar[Role] = "link"

    kind: Literal["chain"] = "chain"
    links: int = choice(12, 1, 600)
    pitch: Length = choice(3.5, 0.8, 40)
    thickness: Length = choice(2.0, 0.4, 15)
    mass_per_m: float = choice(9.0, 0.2, 200)
    soldered: bool = True
    links_lost: int = choice(1, 0, 3)

    def varies(self) -> tuple[Varies, ...]:
        """Return its links, a few more or less."""
        return (Varies("links", "links", self.links, near(self.links, 6, 1)),)

    def unit(self, length: float) -> tuple[float, str]:
        """Return one link [mm], and its name."""
        return self.pitch, say("part.chain_link")

    def make(self, wires: Palette) -> Made:
        """Return the chain; a soldered link can't be opened, so a ring or a loop joins it."""
        length = self.links * self.pitch
        d = min(self.thickness / 3, self.pitch / 4)
        end = End(self.pitch - d, d, not self.soldered)
        half = self.pitch / 2
        flat = arc_points(half, 0, half, self.thickness / 2 - d / 2)
        square = ((round(self.pitch - d, 2), 0.0), (round(2 * self.pitch + d, 2), 0.0))
        # Every other link is seen flat, the one between on its edge.
        step = (2 * self.pitch, 0.0)
        drawn = {"part": "wire", "width_mm": round(d, 2), "tone": "bought", "step": step}
        links = (
            Stroke(points=flat, closed=True, times=(self.links + 1) // 2, **drawn),
            *((Stroke(points=square, times=self.links // 2, **drawn),) if self.links > 1 else ()),
        )
        size = size_of(self.pitch, words=say("shelf.chain.size", links=self.links, pitch="{}"))
        return Made(
            length=length,
            pieces=self.links,
            thickness=self.thickness,
            width=self.thickness,
            ends=(end, end),
            bought=(
                Bought(self.kind, size, 1, self.mass_per_m * length / 1000),
                *((self._lost,) if self.links_lost else ()),
            ),
            strokes=links,
            steps=(
                part_step(
                    "count_links" if self.links_lost else "count_links_open",
                    name="count_links",
                    cautions=("eyes",),
                    check=True,
                    links=self.links,
                ),
            ),
            minutes=1.0,
        )

    @property
    def _lost(self) -> Bought:
        """Links that are cut open to take it off the chain; they don't weigh in the piece."""
        words = say("shelf.chain.lost", links=self.links_lost, pitch="{}")
        return Bought("chain_lost", size_of(self.pitch, words=words))
