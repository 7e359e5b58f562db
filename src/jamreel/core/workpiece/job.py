"""The job at hand, and what is the same for every piece made of one wire."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from functools import cached_property

from jamreel.core.body.outline import Outline, measured_outline, usual_outline
from jamreel.core.body.readings import BodyMeasure
from jamreel.core.cutting.cuts import Cutting
from jamreel.core.errors import Refusal
from jamreel.core.fit.ease import Ease, EaseChoice, EaseTable, ease_of
from jamreel.core.fit.tryon import TryOn
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.palette import Palette, palette_of
from jamreel.core.forming.springback import former_diameter
from jamreel.core.forming.tools import Former, choose_former, nearest_step
from jamreel.core.path.moves import BendAt
from jamreel.core.result import PlannedBend
from jamreel.core.shop import Shop
from jamreel.core.wire.metals import WireChoice
from jamreel.core.wire.palette import PaletteChoice
from jamreel.core.words import say
from jamreel.core.workpiece.making import Making
from jamreel.core.workpiece.straight import Laid

__all__ = ["Job", "Wire"]

# Girth, breadth and depth of each part of the body that has an outline.
PART_SITES: dict[str, tuple[str, str, str]] = {
    "wrist": ("wrist_girth", "wrist_breadth", "wrist_depth"),
    "head": ("head_girth", "head_breadth", "head_length"),
}


@dataclass(frozen=True)
class Job:
    """A brief with its measures worked out, the shop it is made in, and by cut the length [mm] that
    its first wire really has."""

    girths: Mapping[str, BodyMeasure]
    ease: EaseChoice
    wire: WireChoice
    palette: PaletteChoice
    cutting: Cutting
    cut: Mapping[str, float]
    tryon: TryOn | None
    shop: Shop
    child: bool = False
    making: Making = field(default_factory=Making)

    @cached_property
    def wires(self) -> Palette:
        """The piece's wires by what they are for. Raises Refusal for a metal that is not known."""
        return palette_of(self.wire, self.palette, self.shop.metals)

    def ratio_of(self, finished: float) -> float:
        """Return what a margin by ratio multiplies [mm]: the piece, or the girth it goes round.

        Args:
            finished: length of the piece [mm], taken where no girth was measured.
        """
        girth = next(iter(self.girths.values()), None)
        by_girth = self.cutting.ratio_of == "girth" and girth is not None
        return girth.value_mm if by_girth and girth is not None else finished

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

    def on_pins(self, laid: Laid, named: str = "") -> Iterator[PlannedBend]:
        """Yield the bends of a wire with the maker's nearest pin for each and what it opens to.

        Bends of one key are one bend at several places. Wraps go round the wire's own stem: there
        is nothing to bend them on.

        Args:
            laid: the wire.
            named: what goes before the bend's own name.
        """
        by_key: dict[str, list[BendAt]] = {}
        for bend in laid.bends:
            if bend.label != "wraps":
                by_key.setdefault(bend.label, []).append(bend)
        for key, bends in by_key.items():
            first = bends[0].model_copy(update={"label": named + say(f"bend.{key}")})
            places = tuple(bend.position_mm for bend in bends)
            yield self._on_pin(laid.wire, first, f"{laid.cut.id}/{key}", places)

    def _on_pin(
        self, wire: Wire, bend: BendAt, name: str, places: tuple[float, ...]
    ) -> PlannedBend:
        # What is pinched closed has no pin, and stays where the pliers left it.
        if bend.pin_mm <= 0:
            return PlannedBend.of(bend, 0.0, None, None, name, places)
        found = nearest_step(bend.pin_mm, self.shop.pins)
        tool, tool_mm = (found[0].name, found[1]) if found else (None, None)
        return PlannedBend.of(bend, wire.sprung(bend.pin_mm), tool, tool_mm, name, places)

    def nearest_pin(self, pin: float) -> float | None:
        """Return the diameter of the maker's pin nearest to a wanted one [mm], or None."""
        found = nearest_step(pin, self.shop.pins)
        return found[1] if found else None
