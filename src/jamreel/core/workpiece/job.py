"""The job at hand, and what is the same for every piece made of one wire."""

import math
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property
from typing import Any

from jamreel.core.body.outline import Outline, measured_outline, usual_outline
from jamreel.core.body.readings import BodyMeasure
from jamreel.core.cutting.cuts import Cut, Cutting
from jamreel.core.errors import Refusal
from jamreel.core.fit.ease import Ease, EaseChoice, EaseTable, ease_of
from jamreel.core.fit.tryon import TryOn
from jamreel.core.forming.band import Band, doubt_of, former_of, opens_to
from jamreel.core.forming.chosen import Known, Wire, chosen
from jamreel.core.forming.palette import Palette, WovenHand, palette_of
from jamreel.core.forming.springback import former_diameter, sprung_diameter
from jamreel.core.forming.tools import (
    NEAR,
    Former,
    Place,
    choose_former,
    flat_pliers,
    nearest_place,
)
from jamreel.core.hand.hand import NEW_HAND, Hand
from jamreel.core.path.moves import BendAt
from jamreel.core.result import BendPlaces, PlannedBend
from jamreel.core.shop import Shop
from jamreel.core.wire.metals import WireChoice
from jamreel.core.wire.palette import PaletteChoice
from jamreel.core.words import say
from jamreel.core.workpiece.making import Making, WhoseHand
from jamreel.core.workpiece.straight import CutsBy, StraightWire

__all__ = ["Job", "Wire"]

# What is bent over an edge or closed between flat jaws.
FLAT_MOVES = frozenset({"corner", "fold"})
# So many wires that are bent alike are told by name.
MOST_NAMED = 2
# Girth, breadth and depth of each part of the body that has an outline.
PART_SITES: dict[str, tuple[str, str, str]] = {
    "wrist": ("wrist_girth", "wrist_breadth", "wrist_depth"),
    "head": ("head_girth", "head_breadth", "head_length"),
}


@dataclass(frozen=True)
class Job:
    """A brief with its measures worked out, the shop it is made in, and by cut the length [mm] that
    its first wire really has. Bare ends go ``in_cap`` so far [mm]."""

    girths: Mapping[str, BodyMeasure]
    ease: EaseChoice
    wire: WireChoice
    palette: PaletteChoice
    cutting: Cutting
    cut: Mapping[str, float]
    tryon: TryOn | None
    shop: Shop
    child: bool = False
    in_cap: float | None = None
    making: Making = field(default_factory=Making)

    @cached_property
    def known(self) -> Known:
        """What the bench knows of its metals, as this piece counts with it."""
        return self._known_by(self.making.hand)

    def _known_by(self, hand: WhoseHand) -> Known:
        measured = self.shop.measured if hand == "own" else ()
        return Known(
            self.shop.metals,
            {one.stock: one.yield_mpa for one in measured},
            self.making.springback == "hardening",
        )

    def body_by(self, hand: WhoseHand) -> Wire:
        """Return the body's wire as trials show it, or as it usually is."""
        return chosen(self.wire, self._known_by(hand))

    @property
    def goes_by_record(self) -> bool:
        """Whether the piece goes by what is known of its maker's hand."""
        return self.making.hand == "own"

    @property
    def hand(self) -> Hand:
        """What the piece counts with of its maker's hand."""
        return self.shop.hand if self.goes_by_record else NEW_HAND

    @property
    def cuts_by(self) -> CutsBy:
        """The maker's allowances, with the hand where a margin is taken from its record."""
        by_record = self.cutting.school == "record"
        sampled = self.cutting.sample_wire
        of = sampled.diameter_mm if sampled else chosen(self.wire, self.known).d
        return CutsBy(self.cutting, self.hand if by_record else NEW_HAND, of)

    @property
    def kept(self) -> float:
        """Share of a body's springback that is left when it was malleted on its former."""
        return 1.0 if self.making.shaped_by == "hands" else 1.0 - self.shop.malleting

    @cached_property
    def wires(self) -> Palette:
        """The piece's wires by what they are for. Raises Refusal for a metal that is not known."""
        hands = tuple(
            WovenHand(one.technique, one.stock, one.pitch, one.tight)
            for one in (self.shop.woven if self.goes_by_record else ())
        )
        found = palette_of(self.wire, self.palette, self.known, self.cutting.handled, hands)
        return replace(found, off_reel=self.cutting.off_reel, in_cap=self.in_cap)

    def ratio_of(self, finished: float) -> float:
        """Return what a margin by ratio multiplies [mm]: the piece, or the girth it goes round.

        Args:
            finished: length of the piece [mm], taken where no girth was measured.
        """
        girth = next(iter(self.girths.values()), None)
        by_girth = self.cutting.ratio_of == "girth" and girth is not None
        return girth.value_mm if by_girth and girth is not None else finished

    @property
    def tried(self) -> TryOn | None:
        """The try-on, where it says anything."""
        return None if self.tryon is None or self.tryon.says_nothing else self.tryon

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
        ideal = former_diameter(target, wire.shape, wire.law, self.kept)

        def sprung(former: float) -> float:
            return sprung_diameter(former, wire.shape, wire.law, self.kept)

        return choose_former(target, ideal, (*self.shop.formers, *self.shop.pins), sprung)

    def former_of_band(
        self, band: Band, thick: float, target: float, harder: Band | None = None
    ) -> Former:
        """Return what to bend a band on, ``thick`` all through, that is to spring to an inside
        diameter ``target`` [mm]; work may have made it ``harder``. Raises ValueError for one that
        no former bends so far."""
        ideal = former_of(target, thick, band)
        tools = (*self.shop.formers, *self.shop.pins)
        found = choose_former(target, ideal, tools, lambda one: opens_to(one, thick, band))
        doubt = doubt_of(found.tool_mm or ideal, thick, band, harder)
        known = None if math.isinf(doubt) or math.isnan(doubt) else doubt
        return found.model_copy(update={"doubt_mm": known, "band": True})

    def on_pins(
        self, wires: Iterable[tuple[StraightWire, Cut]], *, named: bool
    ) -> Iterator[PlannedBend]:
        """Yield the bends of wires with the maker's nearest pin for each and what it opens to.

        Bends of one key that are alike in pin, angle and side are one bend at several places, on
        wires of one name too; unlike ones of a wire are told apart by a number.

        Args:
            wires: each kind once, with its cut as it is told apart from others of its name.
            named: whether the wires go before the bend's own name.
        """
        alike: dict[object, list[tuple[Cut, list[BendAt]]]] = {}
        firsts: list[tuple[StraightWire, str, str]] = []
        for laid, cut in wires:
            for key, number, bends in _unlike(laid.bends):
                first = bends[0]
                made = (round(first.pin_mm, 4), round(first.angle, 4), round(first.takes_mm, 4))
                like = (laid.cut.label, laid.wire, key, number, first.side, first.move, *made)
                if like not in alike:
                    alike[like] = []
                    firsts.append((laid, key, number))
                alike[like].append((cut, bends))
        for (laid, key, number), rows in zip(firsts, alike.values(), strict=True):
            cut, (first, *_) = rows[0]
            before = f"{_all_of([one.label for one, _ in rows])}: " if named else ""
            yield PlannedBend(
                id=f"{cut.id}/{key}" + (f"~{number}" if number not in ("", "1") else ""),
                label=f"{before}{say(f'bend.{key}')}" + (f" {number}" if number else ""),
                pin=first.pin_mm,
                angle=first.angle,
                side=first.side,
                places=tuple(
                    BendPlaces(cut=one.id, at_mm=tuple(bend.position_mm for bend in bends))
                    for one, bends in rows
                ),
                takes_mm=first.takes_mm,
                **self._on_pin(laid.wire, first),
            )

    def _on_pin(self, wire: Wire, bend: BendAt) -> dict[str, Any]:
        """Return what a bend opens to, and what is told of the maker's tool for it."""
        pin = bend.pin_mm
        opens = wire.sprung(pin) if pin > 0 else 0.0
        if bend.move in FLAT_MOVES:
            # Over an edge or pinched closed: it has no pin, and stays where the pliers left it.
            flat = flat_pliers(self.shop.pins)
            return {"opens_to_mm": opens, "tool": flat.name if flat else None}
        place = self._place_for(pin)
        if place is None:
            return {"opens_to_mm": opens, "tool": None}
        return {
            "opens_to_mm": opens,
            "tool": place.tool.name,
            "tool_mm": place.step,
            "at_mm": place.at,
            "result_mm": wire.sprung(place.step),
            "more_mm": bend.angle * (place.step - pin) / 2,
        }

    def _place_for(self, pin: float) -> Place | None:
        """Return the maker's place nearest to a pin; what is far from it is none."""
        if pin not in self._places:
            self._places[pin] = self._found_for(pin)
        return self._places[pin]

    @cached_property
    def _places(self) -> dict[float, Place | None]:
        return {}

    def _found_for(self, pin: float) -> Place | None:
        for tools in (self.shop.pins, (*self.shop.pins, *self.shop.formers)):
            found = nearest_place(pin, tools)
            if found is not None and NEAR[0] <= found.diameter / pin <= NEAR[1]:
                return found
        return None

    def nearest_pin(self, pin: float) -> float | None:
        """Return the diameter of the maker's pin nearest to a wanted one [mm], or None."""
        found = nearest_place(pin, self.shop.pins)
        return found.step if found else None


def _unlike(bends: Iterable[BendAt]) -> Iterator[tuple[str, str, list[BendAt]]]:
    """Yield the bends of a wire by key, those that are unlike numbered, alike ones together. Wraps
    go round the wire's own stem: there is nothing to bend them on."""
    by_key: dict[str, dict[tuple[float, float, str], list[BendAt]]] = {}
    for bend in bends:
        if bend.label != "wraps":
            made = (round(bend.pin_mm, 4), round(bend.angle, 4), bend.side)
            by_key.setdefault(bend.label, {}).setdefault(made, []).append(bend)
    for key, unlike in by_key.items():
        for n, rows in enumerate(unlike.values(), 1):
            yield key, str(n) if len(unlike) > 1 else "", rows


def _all_of(labels: Sequence[str]) -> str:
    """Return the names of wires, many of them as the first and how many more."""
    if len(labels) <= MOST_NAMED:
        return ", ".join(labels)
    return say("bend.and_more", first=labels[0], count=len(labels) - 1)
