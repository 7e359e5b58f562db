"""The bundle: strands side by side, bound where the maker likes, their ends turned to loops."""

import math
from collections import Counter
from collections.abc import Iterator
from dataclasses import replace
from itertools import pairwise
from typing import Any, ClassVar, Literal

from jamreel.core.advice.weaving import twist_unsampled
from jamreel.core.bench.steps import Step
from jamreel.core.choices import choice
from jamreel.core.errors import Refusal
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.palette import Palette
from jamreel.core.interlace.bindings import ONE_TURN_WANTS, Binding, stacked_longer, twisted_left
from jamreel.core.interlace.bound import (
    Bound,
    SectionKind,
    WithBindings,
    binding_strand,
    binding_strokes,
    strand_wire,
    wide_of,
)
from jamreel.core.interlace.bundle.stacked import BARE_MM, Lane, Stacked, thick_of
from jamreel.core.interlace.cells import Cell, Strand
from jamreel.core.interlace.space import spaced
from jamreel.core.parts.base import End, Made, Role, Stretches, WireUse, opens_at, part_step
from jamreel.core.parts.ends import PIN_RANGE, Loop
from jamreel.core.path.moves import Straight
from jamreel.core.units import Mm
from jamreel.core.values import Length, OptionalLength, Stroke
from jamreel.core.wire.gauges import OptionalSize
from jamreel.core.words import say

MOST_SPAN = 1000
SAMPLE_MM = 100.0
# Looked at closely, a strand has a point every so often [mm].
SHOWN_APART_MM = 0.5


class Bundle(WithBindings):
    """Strands bound from the middle outwards, alike on both sides of it.

    ``along`` is its straight part in whole mm. Every other strand may be of another section than
    the first. ``centre_stops`` of them end under the outermost bindings, the others form the loops.
    Blank, bindings stand evenly and the outermost at the ends.
    """

    counted_in: ClassVar[str | None] = "along"
    joins: ClassVar[Role] = "link"

    kind: Literal["bundle"] = "bundle"
    first: ClassVar[tuple[str, ...]] = ("along", "bindings", "turns", "twist_turns", "ends")
    along: int = choice(100, 10, MOST_SPAN)
    side_by_side: int = choice(5, 2, 12)
    section: SectionKind = "square"
    every_other: Literal["same", "round", "square", "half_round", "patterned", "twisted"] = "same"
    twist_turns: float = choice(100.0, 0, 1000)
    twist_left: OptionalLength = choice(None, 50, 100)
    layers: Literal["one", "two"] = "one"
    binding_apart: OptionalLength = choice(None, 2, 500)
    opened: Length = choice(0.0, 0, 40)
    ends: Literal["loops", "bare"] = "loops"
    pin: Length = choice(3.2, *PIN_RANGE, when=("ends", "loops"))
    centre_stops: int = choice(1, 0, 10, when=("ends", "loops"))
    locked: bool = True
    end_turns: int = choice(0, 0, 20)
    handle: Length = choice(12.0, 0, 100)
    bound_from: Literal["each", "two"] = "each"
    wire: OptionalSize = None

    def unit(self, length: float) -> tuple[float, str]:
        """Return a millimetre: strands are cut to it."""
        return 1.0, say("woven.row_of.bundle")

    def _lanes(self, w: Wire) -> tuple[Lane, ...]:
        other: SectionKind = self.section if self.every_other == "same" else self.every_other
        kinds = [self.section if n % 2 == 0 else other for n in range(self.side_by_side)]
        wires = {kind: strand_wire(w, kind) for kind in {*kinds}}
        wide = [wide_of(wires[kind], kind) for kind in kinds]
        at = -sum(wide) / 2
        first = (self.side_by_side - self._stops) // 2
        found = []
        for n, (kind, each) in enumerate(zip(kinds, wide, strict=True)):
            stops = first <= n < first + self._stops
            found.append(Lane(kind, wires[kind], each, at + each / 2, 0, stops))
            at += each
        if self.layers == "two":
            found += [Lane(o.kind, o.wire, o.wide, o.y, 1, o.stops) for o in tuple(found)]
        return tuple(found)

    @property
    def _stops(self) -> int:
        return 0 if self.ends == "bare" else self.centre_stops

    def _laid(self, w: Wire, binding: Wire) -> Stacked:
        """Return its strands and bindings. Raises Refusal for bindings that overlap or lie beyond
        the ends, for strands of which none is left for the loops, and for a single turn that does
        not hold."""
        if self.ends == "loops" and self._stops > self.side_by_side - 2:
            most = self.side_by_side - 2
            raise Refusal("all_stop", got=self._stops, field="centre_stops", most=most)
        if self.turns == 1 and self.side_by_side < ONE_TURN_WANTS:
            raise Refusal("one_turn", got=self.turns, field="turns", strands=ONE_TURN_WANTS)
        lanes = self._lanes(w)
        thick = max(thick_of(one) for one in lanes)
        flat = all(one.kind not in ("round", "twisted") for one in (lanes[0], lanes[-1]))
        layers = 2 if self.layers == "two" else 1
        width = sum(one.wide for one in lanes if one.layer == 0)
        hull = 2 * (width + layers * thick) if flat else _round_hull(width, thick, layers)
        every = tuple(
            Binding(self.side_by_side, thick, binding.shape, turns, flat, hull)
            for turns in self._every_turns
        )
        at = self._places(every[len(every) // 2].band, every[0].band)
        laid = Stacked(lanes, float(self.along), every, at, self.opened)
        half_round = min(((b - a) / 2 for a, b in laid.gaps), default=float(MOST_SPAN))
        if self.opened > max(half_round, 0.0):
            raise Refusal("opened_wide", got=Mm(self.opened), field="opened", most=half_round)
        return laid

    @property
    def _every_turns(self) -> tuple[int, ...]:
        """The turns of each binding: those at the ends may have others."""
        n = self.bindings
        ends = self.end_turns or self.turns
        return (ends, *((self.turns,) * (n - 2)), ends) if n > 1 else (self.turns,)

    def _places(self, band: float, last: float) -> tuple[float, ...]:
        """Return where the middles of the bindings lie [mm], from the centre outwards alike.

        Args:
            band: how wide those within are.
            last: how wide those at the ends are.
        """
        n, long = self.bindings, float(self.along)
        # Those beside each other, and those within.
        least = last if n == 2 else max((band + last) / 2, band if n > 3 else 0.0)
        most = 1 + math.floor((long - last) / max(least, 1e-9) + 1e-9) if long >= last else 0
        if n > most:
            raise Refusal("bindings_many", got=n, field="bindings", most=max(most, 1), band=band)
        apart = (long - last) / max(n - 1, 1) if self.binding_apart is None else self.binding_apart
        if n > 1 and apart < least - 1e-9:
            raise Refusal("bindings_overlap", got=Mm(apart), field="binding_apart", least=least)
        if n > 1 and (n - 1) * apart + last > long + 1e-9:
            widest = (long - last) / (n - 1)
            raise Refusal("bindings_beyond", got=Mm(apart), field="binding_apart", most=widest)
        return tuple(long / 2 + (k - (n - 1) / 2) * apart for k in range(n))

    def _left(self, lane: Lane) -> float:
        """Return the share of its length that is left of a strand when it is twisted."""
        if lane.kind != "twisted" or not self.twist_turns:
            return 1.0
        if self.twist_left is not None:
            return self.twist_left / SAMPLE_MM
        return twisted_left(lane.wire.d, self.twist_turns)

    def _stretches(self, laid: Stacked, lane: Lane) -> Stretches:
        """Return a strand from left to right, marked where bindings begin and end."""
        more, left = laid.bowed(lane), self._left(lane)
        # The outer layer of a full ring is longer by a turn of what lies under it.
        more += stacked_longer(laid.thickness / 2) if lane.layer else 0.0
        edges = (x for band in laid.bands for x in band)
        cuts = sorted({0.0, laid.long / 2, laid.long, *edges})
        free = sum(b - a for a, b in laid.gaps) or laid.long
        rows = []
        for a, b in pairwise(cuts):
            middle = (a + b) / 2
            bound = any(begins < middle < stops for begins, stops in laid.bands)
            within = any(a >= x - 1e-9 and b <= y + 1e-9 for x, y in laid.gaps) or not laid.gaps
            longer = more * (b - a) / free if within and not bound else 0.0
            if b - a > 1e-9:
                key = "bound" if bound else "free"
                rows.append((key, (Straight(length=(b - a + longer) / left),)))
        ends = self._ends_of(lane, laid.over)
        return (*ends[0], *rows, *ends[1])

    def _ends_of(self, lane: Lane, over: float) -> tuple[Stretches, Stretches]:
        if self.ends == "bare":
            bare = (Straight(length=over),)
            return (("tail_left", bare),), (("tail_right", bare),)
        if lane.stops:
            return (), ()
        loop = self._loop(lane.wire)
        return loop.stretches("left"), loop.stretches("right")

    def _loop(self, wire: Wire) -> Loop:
        """Return the loop that a strand ends in."""
        return Loop("plain", wire, self.pin)

    def make(self, wires: Palette) -> Made:
        """Return the bundle, from where its loops bear to where the others do.

        Raises:
            Refusal: bindings that overlap or lie beyond its ends, strands that open wider than a
                half circle, no strand left for the loops.
        """
        w, binding = wires.of("body", self.wire), self.binding(wires)
        laid = replace(self._laid(w, binding), over=wires.in_cap_or(BARE_MM))
        # Beside strands that stop, loops are rolled back: they bear at the strip's own end; one
        # recorded piece, common practice.
        beyond = self.ends == "loops" and not self._stops
        reach = self._loop(laid.lanes[0].wire).reach if beyond else 0.0
        loops = [one for one in laid.lanes if not one.stops]
        first = loops[0].wire
        end = End(self.pin, first.d, True, strands=len(loops), spreads=True)
        strands = tuple(self._strands(laid, reach))
        bound = tuple(self._bound(laid, binding, reach))
        strokes = tuple(s for one in (*strands, *bound) for s in one.shown)
        wide = laid.width + 2 * self.opened
        return Made(
            length=laid.long + 2 * reach,
            lies="bends",
            thickness=laid.thickness + 2 * binding.d,
            width=wide,
            ends=(end, end) if self.ends == "loops" else None,
            bare=(laid.width, laid.thickness) if self.ends == "bare" else None,
            wires=(*strands, *bound),
            holds=(opens_at("plain_loop", first, self.pin, len(loops)),)
            if self.ends == "loops"
            else (),
            strokes=strokes,
            lengthwise=tuple(laid.lengthwise),
            steps=tuple(self._steps(laid, len(loops))),
            minutes=8.0 + 6.0 * self.bindings + 1.5 * len(laid.lanes),
            advice=(
                twist_unsampled(self.twist_turns)
                if self.twist_left is None and any(o.kind == "twisted" for o in laid.lanes)
                else None,
            ),
            weaving=Bound(
                lambda: self._whole(laid),
                {"strand": w, "binding": binding},
                laid.long,
                wide,
                laid.thickness + 2 * binding.d,
                laid.at,
            ),
        )

    def _strands(self, laid: Stacked, reach: float) -> Iterator[WireUse]:
        """Yield its strands, those that are cut alike once."""
        alike: dict[tuple[Wire, Stretches], list[Lane]] = {}
        for one in laid.lanes:
            alike.setdefault((one.wire, self._stretches(laid, one)), []).append(one)
        for n, ((wire, stretches), lanes) in enumerate(alike.items()):
            key = "bundle_strand" if n == 0 else f"bundle_strand~{n + 1}"
            strokes = tuple(s for one in lanes for s in self._seen(laid, one, reach))
            yield WireUse(key, wire, stretches, quantity=len(lanes), shown=strokes)

    def _seen(self, laid: Stacked, lane: Lane, reach: float) -> tuple[Stroke, ...]:
        """Return a strand from the face: its loops are seen on their edge."""
        line, over = laid.line(lane), reach + lane.wire.d if not lane.stops else 0.0
        if self.ends == "bare":
            over = laid.over
        points = [(round(float(x) + reach, 2), round(float(y), 2)) for x, y, _ in line]
        if over:
            y, far = points[0][1], points[-1][0]
            points = [(round(reach - over, 2), y), *points, (round(far + over, 2), y)]
        return (Stroke(part="wire", points=tuple(points), width_mm=lane.wide),)

    def _bound(self, laid: Stacked, binding: Wire, reach: float) -> Iterator[WireUse]:
        """Yield the wires of its bindings, alike ones once: one each, or one for two of them, with
        what is held while they are wound."""
        tone = binding.metal.colour
        rows = list(zip(laid.at, laid.bindings, strict=True))
        for one, count in Counter(laid.bindings).items():
            strokes = tuple(
                stroke
                for x, other in rows
                if other == one
                for stroke in binding_strokes(one, laid.width, x + reach, tone)
            )
            outer = one.turns != self.turns
            yield from self._alike(laid, one, binding, count, strokes, "_end" if outer else "")

    def _alike(
        self,
        laid: Stacked,
        one: Binding,
        binding: Wire,
        count: int,
        strokes: tuple[Stroke, ...],
        which: str,
    ) -> Iterator[WireUse]:
        """Yield the wires of so many bindings alike."""
        # The start tail of the outermost is passed between the strands.
        lock = laid.thickness + one.tuck if self.locked else 0.0
        held = (("tail_left", (Straight(length=self.handle),)),) if self.handle else ()
        once: Stretches = (
            *held,
            ("tuck", (Straight(length=one.tuck),)),
            *((("locked", (Straight(length=lock),)),) if lock else ()),
            ("wraps", (Straight(length=one.cut - 2 * one.tuck),)),
            ("tuck", (Straight(length=one.tuck),)),
        )
        last = (("tail_right", (Straight(length=self.handle),)),) if self.handle else ()
        pairs = count // 2 if self.bound_from == "two" else 0
        use = WireUse(f"bundle{which}_binding", binding, (*once, *last), shown=strokes, woven=True)
        if pairs:
            key, stretches = f"bundle_two{which}_bindings", (*once, *once, *last)
            yield replace(use, key=key, stretches=stretches, quantity=pairs)
        single = count - 2 * pairs
        if single:
            yield replace(use, quantity=single, shown=use.shown if not pairs else ())

    def _whole(self, laid: Stacked) -> Cell:
        """Return it in space, from one end to a little past its middle: both halves are alike."""
        band = max(one.band for one in laid.bindings)
        upto = min(laid.long, laid.long / 2 + max(2 * band, laid.width))
        strands = []
        for one in laid.lanes:
            line = spaced(laid.line(one), SHOWN_APART_MM)
            thick = one.wide if one.kind == "twisted" else one.wire.d
            strands.append(Strand("strand", thick, line[line[:, 0] <= upto], runs_on=False))
        bound = tuple(
            binding_strand(one, laid.width, laid.thickness, x)
            for x, one in zip(laid.at, laid.bindings, strict=True)
            if x + one.band / 2 <= upto
        )
        return Cell(upto, 1, (*strands, *bound))

    def _steps(self, laid: Stacked, loops: int) -> Iterator[Step]:
        marks = [round(x, 1) for x in laid.at]
        centre = laid.long / 2
        # Twisting takes length: marks come after it.
        if any(one.kind == "twisted" for one in laid.lanes):
            yield part_step("bundle_twist", check=True, turns=self.twist_turns)
        yield part_step(
            "bundle_mark",
            check=True,
            strands=len(laid.lanes),
            marks=len(marks),
            apart=abs(marks[-1] - marks[0]) / max(len(marks) - 1, 1),
        )
        yield part_step("bundle_tape", check=True, strands=self.side_by_side, width=laid.width)
        yield self._first_bound(sorted(marks), centre)
        if len(marks) > 2:
            more: dict[str, Any] = {}
            if self.end_turns not in (0, self.turns):
                more = {"ends": self.end_turns}
            unlike = "_unlike" if more else ""
            key = f"bundle_outwards{unlike}{'_locked' if self.locked else ''}"
            yield part_step(
                key,
                name="bundle_outwards",
                cautions=("ends",),
                check=True,
                bindings=len(marks),
                turns=self.turns,
                **more,
            )
        if self.opened:
            yield part_step("bundle_open", check=True, opened=self.opened)
        if self.ends == "bare":
            yield part_step("bundle_cap", cautions=("eyes",), check=True, long=laid.over)
            return
        yield part_step(
            "bundle_loops" if self._stops else "bundle_loops_all",
            name="bundle_loops",
            cautions=("eyes", "ends"),
            check=True,
            pin=self.pin,
            loops=loops,
            stops=self._stops,
        )

    def _first_bound(self, marks: list[float], centre: float) -> Step:
        """Return binding what is bound first: the middle, or the two next to it where the count is
        even and the middle has none."""
        both: dict[str, Any] = {"cautions": ("ends",), "check": True}
        if len(marks) % 2:
            return part_step("bundle_middle", turns=self.turns, centre=centre, **both)
        one, other = marks[len(marks) // 2 - 1], marks[len(marks) // 2]
        return part_step(
            "bundle_pair", name="bundle_middle", turns=self.turns, one=one, other=other, **both
        )


def _round_hull(width: float, thick: float, layers: int) -> float:
    """Return the hull of a row or two that ends in round strands [mm]."""
    return 2 * (width - thick) + 2 * (layers - 1) * thick + math.pi * thick
