"""Bought chain, cut at a whole number of links."""

from typing import ClassVar, Literal

from jamreel.core.forming.chosen import Wire
from jamreel.core.parts.base import Bought, End, Made, Part, Role, part_step
from jamreel.core.parts.pictures import arc_points
from jamreel.core.units import format_length
from jamreel.core.values import Length, Stroke
from jamreel.core.words import say


class BoughtChain(Part):
    """A stretch of chain: so many links of one pitch."""

    ranges: ClassVar[dict[str, tuple[float, float]]] = {
        "links": (1, 600),
        "pitch": (0.8, 40),
        "thickness": (0.4, 15),
        "mass_per_m": (0.2, 200),
    }

    kind: Literal["chain"] = "chain"
    links: int = 12
    pitch: Length = 3.5
    thickness: Length = 2.0
    mass_per_m: float = 9.0
    soldered: bool = True

    @property
    def role(self) -> Role:
        """Links with its neighbours."""
        return "link"

    def make(self, wire: Wire) -> Made:
        """Return the chain; a soldered link can't be opened, so a ring or a loop joins it."""
        length = self.links * self.pitch
        d = min(self.thickness / 3, self.pitch / 4)
        end = End(self.pitch - d, d, not self.soldered, "any")
        links = tuple(
            Stroke(
                part="wire",
                points=arc_points(
                    (i + 0.5) * self.pitch, 0, self.pitch / 2, self.thickness / 2 - d / 2
                )
                if i % 2 == 0
                else (
                    (round(i * self.pitch - d, 2), 0.0),
                    (round((i + 1) * self.pitch + d, 2), 0.0),
                ),
                closed=i % 2 == 0,
                width_mm=round(d, 2),
                tone="bought",
            )
            for i in range(self.links)
        )
        size = say("shelf.chain.size", links=self.links, pitch=format_length(self.pitch))
        return Made(
            length=length,
            thickness=self.thickness,
            width=self.thickness,
            ends=(end, end),
            bought=(Bought(self.kind, size, 1, self.mass_per_m * length / 1000),),
            strokes=links,
            steps=(part_step("count_links", cautions=("eyes",), check=True, links=self.links),),
            minutes=1.0,
        )
