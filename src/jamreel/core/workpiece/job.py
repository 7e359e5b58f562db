"""The job at hand, and what is the same for every piece made of one wire."""

from collections.abc import Mapping
from dataclasses import dataclass

from jamreel.core.body.outline import Outline, measured_outline, usual_outline
from jamreel.core.body.readings import Girth
from jamreel.core.cutting.cuts import Cutting
from jamreel.core.errors import Refusal
from jamreel.core.fit.ease import Ease, EaseChoice, EaseTable, ease_of
from jamreel.core.fit.tryon import TryOn
from jamreel.core.forming.chosen import Wire, chosen
from jamreel.core.forming.springback import former_diameter
from jamreel.core.forming.tools import Former, choose_former, nearest_step
from jamreel.core.path.moves import BendAt
from jamreel.core.result import PlannedBend
from jamreel.core.shop import Shop
from jamreel.core.wire.metals import WireChoice, metal_of, wire_mass

__all__ = ["Job", "Wire"]

# Girth, breadth and depth of each part of the body that has an outline.
PART_SITES: dict[str, tuple[str, str, str]] = {
    "wrist": ("wrist_girth", "wrist_breadth", "wrist_depth"),
    "head": ("head_girth", "head_breadth", "head_length"),
}


@dataclass(frozen=True)
class Job:
    """A brief with its measures worked out, and the shop it is made in."""

    girths: Mapping[str, Girth]
    ease: EaseChoice
    wire: WireChoice
    cutting: Cutting
    made: Mapping[str, float]
    tryon: TryOn | None
    shop: Shop
    child: bool = False

    def wire_facts(self) -> Wire:
        """Return the chosen wire. Raises Refusal for a metal that is not known."""
        return chosen(self.wire, self.shop.metals)

    def mass_of(self, diameter: float, length: float) -> float:
        """Return the mass [g] of a length of the chosen metal in some diameter [mm]."""
        return wire_mass(diameter, length, metal_of(self.wire, self.shop.metals).density)

    def ease_on(self, part: str, girth: float) -> Ease:
        """Return the chosen ease on a part of the body."""
        return ease_of(self.ease, girth, self.table(part))

    def table(self, part: str) -> EaseTable:
        """Return the maker's ease words on a part of the body."""
        return self.shop.ease.on(part)

    def outline(self, part: str, girth: float) -> Outline:
        """Return a part's outline: from breadth and depth where both were read, else the usual.

        Raises:
            Refusal: three readings that contradict each other, at the one to take again.
        """
        _, breadth, depth = PART_SITES.get(part, ("", "", ""))
        if breadth not in self.girths or depth not in self.girths:
            return usual_outline(part, girth)
        try:
            return measured_outline(
                part, girth, self.girths[breadth].value_mm, self.girths[depth].value_mm
            )
        except Refusal as refusal:
            sites = dict(zip(("girth", "breadth", "depth"), PART_SITES[part], strict=True))
            raise refusal.at(f"measures.{sites[refusal.values['which']]}") from None

    def former(self, wire: Wire, target: float) -> Former:
        """Return what to bend a body on that is to spring to an inside diameter ``target``."""
        ideal = former_diameter(target, wire.shape, wire.yield_mpa, wire.metal.youngs)
        return choose_former(
            target,
            ideal,
            (*self.shop.formers, *self.shop.pins),
            wire.shape,
            wire.yield_mpa,
            wire.metal.youngs,
        )

    def on_pin(self, wire: Wire, bend: BendAt) -> PlannedBend:
        """Return a bend with the maker's nearest pin for it and what it opens to."""
        # What is pinched closed has no pin, and stays where the pliers left it.
        if bend.pin_mm <= 0:
            return PlannedBend.of(bend, 0.0, None, None)
        found = nearest_step(bend.pin_mm, self.shop.pins)
        tool, tool_mm = (found[0].name, found[1]) if found else (None, None)
        return PlannedBend.of(bend, wire.sprung(bend.pin_mm), tool, tool_mm)

    def nearest_pin(self, pin: float) -> float | None:
        """Return the diameter of the maker's pin nearest to a wanted one [mm], or None."""
        found = nearest_step(pin, self.shop.pins)
        return found[1] if found else None
