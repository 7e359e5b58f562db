"""The stone cage: strands bound round a stone's girth that hold it on both faces."""

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace
from functools import cached_property
from itertools import pairwise
from typing import ClassVar, Literal

import numpy as np

from jamreel.core.advice import Advice
from jamreel.core.advice.weaving import cage_open, lip_shallow, pulls_apart
from jamreel.core.bench.steps import Step
from jamreel.core.choices import choice
from jamreel.core.errors import Refusal
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.palette import Palette
from jamreel.core.interlace.bindings import Binding
from jamreel.core.interlace.bound import Bound, WithBindings, strand_wire
from jamreel.core.interlace.cells import Cell, Strand
from jamreel.core.interlace.space import Array
from jamreel.core.interlace.stone_cage.geometry import (
    Cage,
    bail_for,
    bail_tail,
    least_lip,
    neck_turn,
    oval_girth,
    pear_girth,
    strands_to_cover,
)
from jamreel.core.parts.base import (
    Bought,
    End,
    Made,
    Role,
    Stretches,
    WireUse,
    opens_at,
    part_step,
    size_of,
)
from jamreel.core.parts.beads import BRITTLE, DENSITY, Colour, Stuff
from jamreel.core.parts.pictures import edge, hung, ring
from jamreel.core.path.moves import Straight
from jamreel.core.units import Mm
from jamreel.core.values import Length, OptionalLength, Stroke
from jamreel.core.wire.gauges import OptionalSize

CHORDS = 72
# Strands part within such a share of once round beside a binding.
PARTS_WITHIN = 0.06
# Bindings of a cage by how many they are: at the centre, the sides, and half-way from there up.
PLACES: dict[int, tuple[str, ...]] = {
    1: ("centre",),
    2: ("side",),
    3: ("centre", "side"),
    4: ("side", "upper"),
    5: ("centre", "side", "upper"),
}
# A hand bends a pull no sharper than over a base of so many strands, and usually over so much [mm];
# common practice.
LEAST_BASE, USUAL_BASE_MM = 3.0, 4.0


@dataclass(frozen=True)
class Stone:
    """A stone seen from its face, lengths in mm: its shape, from top to bottom, across, its edge,
    and its girth."""

    shape: Literal["oval", "pear"]
    length: float
    width: float
    height: float
    girth: float

    @property
    def mass_volume(self) -> float:
        """Its volume, that of an ellipsoid as large [mm3]."""
        return math.pi / 6 * self.length * self.width * self.height

    @cached_property
    def side(self) -> float:
        """How far its widest place lies from the bottom along its girth, as a share of that: a
        quarter of an oval, less of a pear."""
        if self.shape == "oval":
            return 0.25
        return math.pi * self.width / 4 / pear_girth(self.length, self.width)

    def outline(self, out: float) -> Array:
        """Return its outline so far outside it, from the top round, n by 2: down it and across."""
        if self.shape == "oval":
            t = np.linspace(0.0, 2 * math.pi, CHORDS + 1)
            down = self.length / 2 - (self.length / 2 + out) * np.cos(t)
            return np.column_stack([down, (self.width / 2 + out) * np.sin(t)])
        r = self.width / 2
        far = self.length - r
        lean = math.acos(r / far)
        # Round the end below from one tangent to the other, straight up to the tip on both sides.
        t = np.linspace(lean, 2 * math.pi - lean, CHORDS - 1)
        arc = np.column_stack([far - (r + out) * np.cos(t), (r + out) * np.sin(t)])
        tip = np.array([[-out / math.sin(math.pi / 2 - lean) * 0.5, 0.0]])
        return np.vstack([tip, arc, tip])


class StoneCage(WithBindings):
    """Strands round a stone, marked from their middles, bound below and at the sides, their tails
    bound to a neck and turned to a bail.

    The girth is as measured, or that of an oval or a pear. Strands side by side have to be higher
    than the stone by two; ``parted`` between the bindings fewer do. ``pulls`` draw the outer
    strands in over each face.
    """

    joins: ClassVar[Role] = "drop"

    kind: Literal["stone_cage"] = "stone_cage"
    first: ClassVar[tuple[str, ...]] = (
        "stone_length",
        "stone_width",
        "stone_height",
        "bindings",
        "turns",
    )
    bindings: int = choice(3, 1, 5)
    girth_by: Literal["oval", "pear", "measured"] = "oval"
    stone_girth: Length = choice(82.0, 15, 400, when=("girth_by", "measured"))
    stone_length: Length = choice(30.0, 4, 120)
    stone_width: Length = choice(22.0, 3, 120)
    stone_height: Length = choice(5.0, 1, 40)
    stuff: Stuff = "stone"
    colour: Colour = "slate"
    side_by_side: int = choice(4, 2, 16)
    section: Literal["square", "round"] = "square"
    parted: bool = True
    pulls: int = choice(4, 0, 16)
    lip: Length = choice(0.8, 0.1, 6)
    base: OptionalLength = choice(None, 1, 20)
    stone_play: Length = choice(0.15, 0, 2)
    tail: Length = choice(60.0, 10, 300)
    neck: Length = choice(6.0, 2, 30)
    bail: OptionalLength = choice(None, 2, 20)
    goes_through: OptionalLength = choice(None, 0.3, 18)
    wire: OptionalSize = None

    @property
    def stuffs(self) -> frozenset[str]:
        """What its stone is made of."""
        return frozenset((self.stuff,))

    def _stone(self) -> Stone:
        """Return the stone. Raises Refusal for a pear no longer than wide, and for a girth that no
        stone of such a size has."""
        length, width = self.stone_length, self.stone_width
        if self.girth_by == "pear":
            if length <= width:
                raise Refusal("pear_short", got=Mm(length), field="stone_length", least=width)
            return Stone("pear", length, width, self.stone_height, pear_girth(length, width))
        oval = oval_girth(length, width)
        if self.girth_by == "oval":
            return Stone("oval", length, width, self.stone_height, oval)
        least, most = 2 * math.hypot(length, width), 2 * (length + width)
        if not least <= self.stone_girth <= most:
            raise Refusal(
                "girth_off",
                got=Mm(self.stone_girth),
                field="stone_girth",
                least=least,
                most=most,
                likely=oval,
            )
        return Stone("oval", length, width, self.stone_height, self.stone_girth)

    def _base(self, d: float) -> float:
        """Return over what a pull is bent [mm]. Raises Refusal for one that no hand bends."""
        if self.base is None:
            return max(USUAL_BASE_MM, LEAST_BASE * d)
        if self.pulls and self.base < LEAST_BASE * d - 1e-9:
            raise Refusal("base_sharp", got=Mm(self.base), field="base", least=LEAST_BASE * d)
        return self.base

    @property
    def on_bail(self) -> float:
        """The pin of its bail [mm]. Raises Refusal for one that nothing so thick goes through."""
        if self.bail is not None and self.bail < (self.goes_through or 0.0):
            raise Refusal("bail_small", got=Mm(self.bail), field="bail", through=self.goes_through)
        return self.bail or bail_for(self.goes_through)

    def make(self, wires: Palette) -> Made:
        """Return the cage with its stone, hung from the inside of its bail.

        Raises:
            Refusal: a girth that is not the stone's, tails too short for the bail, bindings that
                overlap, pulls that no hand bends.
        """
        w = strand_wire(wires.of("body", self.wire), self.section)
        binding, stone, d = self.binding(wires), self._stone(), w.d
        base = self._base(d)
        cage = Cage(stone.girth, self.side_by_side, d, self.tail, self.pulls, base, self.lip)
        least = bail_tail(self.neck, self.on_bail, d)
        if self.tail < least - 1e-9:
            raise Refusal("bail_tail", got=Mm(self.tail), field="tail", least=least)
        one = Binding(
            self.side_by_side, d, binding.shape, self.turns, square=self.section == "square"
        )
        strand = WireUse("cage_strand", w, self._stretches(cage, stone, one), woven=True)
        top = self.on_bail + d + self.neck
        strand = WireUse(
            strand.key,
            w,
            strand.stretches,
            quantity=self.side_by_side,
            woven=True,
            shown=tuple(self._seen(stone, d, top)),
        )
        bound = self._bound(one, binding, stone, top)
        neck = self._neck(w, binding, top)
        mass = DENSITY[self.stuff] * 1e-3 * stone.mass_volume
        size = size_of(stone.length, stone.width, stone.height)
        end = End(self.on_bail, d, False, strands=2)
        shape = self._shape(stone, top)
        return Made(
            length=0.0,
            thickness=max(stone.height, self.side_by_side * d) + 2 * binding.d,
            width=stone.width + 2 * d,
            hang=top + stone.length + d,
            ends=(end, end),
            wires=(strand, bound, neck),
            bought=(Bought("stone", size, 1, mass, stone.length),),
            holds=(opens_at("plain_loop", w, self.on_bail, 2),),
            strokes=hung((shape, *strand.shown, *bound.shown, *neck.shown)),
            steps=tuple(self._steps(cage, stone)),
            minutes=20.0 + 5.0 * self.bindings + 1.5 * self.side_by_side + 1.0 * self.pulls,
            brittle=self.stuff in BRITTLE,
            advice=self._advice(stone, d),
            weaving=Bound(
                lambda: self._whole(stone, w, one, binding),
                {"strand": w, "binding": binding},
                cage.cut(),
                stone.width + 2 * d,
                max(stone.height, self.side_by_side * d),
                cage.marks(stone.side),
            ),
        )

    def _places(self, stone: Stone) -> list[float]:
        """Return where the bindings lie, as shares of once round from the centre mark."""
        far = {"centre": 0.0, "side": stone.side, "upper": (stone.side + 0.5) / 2}
        found = [far[name] for name in PLACES[self.bindings]]
        return sorted({way for share in found for way in (share, -share)})

    def _stretches(self, cage: Cage, stone: Stone, one: Binding) -> Stretches:
        """Return a strand, marked at its centre, its tops, and where bindings begin and end.

        Raises:
            Refusal: bindings that overlap, or reach past the tops.
        """
        middle, round_, half = cage.cut() / 2, cage.around, one.band / 2
        at = [middle + share * round_ for share in self._places(stone)]
        tops = (middle - round_ / 2, middle + round_ / 2)
        near = min(
            (b - a for a, b in zip([tops[0] - half, *at], [*at, tops[1] + half], strict=True))
        )
        if near < one.band - 1e-9:
            most = max(1, math.floor(near / one.wire.width))
            raise Refusal("cage_bound", got=self.turns, field="turns", most=most)
        cuts = sorted(
            {0.0, *tops, middle, cage.cut(), *(x - half for x in at), *(x + half for x in at)}
        )
        rows = []
        for a, b in pairwise(cuts):
            between = (a + b) / 2
            bound = any(abs(between - x) < half for x in at)
            beyond = between < tops[0] or between > tops[1]
            side = "left" if between < middle else "right"
            key = f"neck_{side}" if beyond else "bound" if bound else "free"
            if b - a > 1e-9:
                rows.append((key, (Straight(length=b - a),)))
        return tuple(rows)

    def _seen(self, stone: Stone, d: float, top: float) -> Iterator[Stroke]:
        """Yield the bail, the neck and the strands from the face: those that are parted come in
        over it."""
        yield ring(self.on_bail / 2, self.on_bail, d)
        for side in (-1, 1):
            yield edge(self.on_bail + d / 2, top, d, side * d / 2)
        inner = [0.0, -0.8 * d] if self.parted else [0.0]
        for n, off in enumerate(inner):
            line = stone.outline(d / 2 + off)
            shrunk = 1.0 - 0.06 * n
            mid = stone.length / 2
            points = tuple(
                (round(top + mid + (x - mid) * shrunk, 2), round(y * shrunk, 2)) for x, y in line
            )
            yield Stroke(part="wire", points=points, width_mm=d)

    def _shape(self, stone: Stone, top: float) -> Stroke:
        points = tuple((round(top + x, 2), round(y, 2)) for x, y in stone.outline(0.0))
        return Stroke(part="bead", points=points, closed=True, tone=self.colour)

    def _bound(self, one: Binding, binding: Wire, stone: Stone, top: float) -> WireUse:
        """Return the wires of the bindings round all strands."""
        line = stone.outline(one.strand / 2)
        run = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(line, axis=0).T))])
        b, strokes = one.wire.width, []
        for share in self._places(stone):
            for n in range(self.turns):
                at = (0.5 + share) * run[-1] + (n - (self.turns - 1) / 2) * b
                x, y = (float(np.interp(at, run, line[:, k])) for k in (0, 1))
                ahead = [float(np.interp(at + 0.2, run, line[:, k])) for k in (0, 1)]
                way = np.array([ahead[0] - x, ahead[1] - y])
                nx, ny = np.array([way[1], -way[0]]) / np.hypot(*way) * one.strand * 0.9
                strokes.append(
                    Stroke(
                        part="wire",
                        points=(
                            (round(top + x - nx, 2), round(y - ny, 2)),
                            (round(top + x + nx, 2), round(y + ny, 2)),
                        ),
                        width_mm=b,
                        tone=binding.metal.colour,
                    )
                )
        return WireUse(
            "cage_binding",
            binding,
            (
                ("tuck", (Straight(length=one.tuck),)),
                ("wraps", (Straight(length=one.cut - 2 * one.tuck),)),
                ("tuck", (Straight(length=one.tuck),)),
            ),
            quantity=self.bindings,
            shown=tuple(strokes),
            woven=True,
        )

    def _neck(self, w: Wire, binding: Wire, top: float) -> WireUse:
        """Return the wire that is wound round all tails over the neck."""
        b = binding.shape.width
        turns = max(2, math.ceil(self.neck / b - 1e-9))
        once = neck_turn(self.side_by_side, w.d, b, binding.shape.neutral_offset)
        tail = (Straight(length=once),)
        turn = Stroke(
            part="wire",
            points=(
                (round(top - self.neck + b / 2, 2), -1.6 * w.d),
                (round(top - self.neck + b / 2, 2), 1.6 * w.d),
            ),
            width_mm=b,
            tone=binding.metal.colour,
            times=turns,
            step=(round(b, 4), 0.0),
        )
        return WireUse(
            "cage_neck",
            binding,
            (
                ("tail_start", tail),
                ("wraps", (Straight(length=turns * once),)),
                ("tail_finish", tail),
            ),
            shown=(turn,),
            woven=True,
        )

    def _whole(self, stone: Stone, w: Wire, one: Binding, binding: Wire) -> Cell:
        """Return it in space as it hangs: strands, bindings, neck and bail."""
        d = w.d
        line = stone.outline(d / 2)
        run = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(line, axis=0).T))])
        strands = [
            *(Strand("strand", d, one, runs_on=False) for one in self._parted(stone, d, line, run)),
            *self._seen_bound(stone, one, binding, line, run),
            *self._seen_bail(w, binding),
        ]
        # What hangs down lies along the picture's height.
        far = stone.width / 2 + d
        hung = tuple(
            replace(s, line=np.column_stack([s.line[:, 1] + far, -s.line[:, 0], s.line[:, 2]]))
            for s in strands
        )
        return Cell(2 * far, 1, hung)

    def _parted(self, stone: Stone, d: float, line: Array, run: Array) -> Iterator[Array]:
        """Yield the strands: closed at the bindings and the top, else the outer ones part and come
        in over both faces."""
        share = run / run[-1] - 0.5
        shut = np.array([*self._places(stone), -0.5, 0.5])
        near = np.min(np.abs(share[:, np.newaxis] - shut), axis=1)
        opens = np.clip(near / PARTS_WITHIN, 0.0, 1.0) if self.parted else np.zeros(len(share))
        ways = line - np.array([stone.length / 2, 0.0])
        unit = ways / np.linalg.norm(ways, axis=1)[:, np.newaxis]
        for n in range(self.side_by_side):
            lane = n - (self.side_by_side - 1) / 2
            outer = n in (0, self.side_by_side - 1)
            wide = math.copysign((stone.height + d) / 2, lane) if outer else lane * d
            z = lane * d + opens * (wide - lane * d)
            flat = line - unit * (opens * self.lip if outer else 0 * opens)[:, np.newaxis]
            yield np.column_stack([flat, z])

    def _seen_bound(
        self, stone: Stone, one: Binding, binding: Wire, line: Array, run: Array
    ) -> Iterator[Strand]:
        """Yield the bindings round all strands."""
        b, d = binding.shape.width, one.strand
        for place in self._places(stone):
            at = (0.5 + place) * run[-1]
            here, ahead = (
                np.array([float(np.interp(x, run, line[:, c])) for c in (0, 1)])
                for x in (at, at + 0.2)
            )
            along = (ahead - here) / np.hypot(*(ahead - here))
            out = np.array([along[1], -along[0]])
            turned = np.linspace(0.0, 2 * math.pi * self.turns, 20 * self.turns + 1)
            drift = (turned / (2 * math.pi) - self.turns / 2) * b
            flat = here + np.outer(np.cos(turned) * (d + b) / 2, out) + np.outer(drift, along)
            z = np.sin(turned) * (self.side_by_side * d + b) / 2
            yield Strand("binding", min(b, 2 * binding.d), np.column_stack([flat, z]), False)

    def _seen_bail(self, w: Wire, binding: Wire) -> Iterator[Strand]:
        """Yield two tails through the neck, the bail that they form, and what binds them."""
        d, b = w.d, binding.shape.width
        round_ = np.linspace(0.0, 2 * math.pi, 36)
        radius = (self.on_bail + d) / 2
        for side in (-0.5, 0.5):
            up = np.linspace(0.0, -self.neck, 12)
            yield Strand("strand", d, np.column_stack([up, np.full(12, side * d), 0 * up]), False)
            down = -self.neck - radius + radius * np.cos(round_)
            ring_ = np.column_stack([down, np.full(36, side * d), radius * np.sin(round_)])
            yield Strand("strand", d, ring_, False)
        turns = max(2, math.ceil(self.neck / b - 1e-9))
        turned = np.linspace(0.0, 2 * math.pi * turns, 16 * turns + 1)
        out = (2 * d + b) / 2
        line = np.column_stack(
            [
                -self.neck * turned / turned[-1],
                (out + d / 4) * np.sin(turned),
                (out - d / 4) * np.cos(turned),
            ]
        )
        yield Strand("binding", min(b, 2 * binding.d), line, False)

    def _advice(self, stone: Stone, d: float) -> tuple[Advice | None, ...]:
        wants = strands_to_cover(stone.height, d)
        return (
            None if self.parted else cage_open(self.side_by_side, wants),
            lip_shallow(self.lip, least_lip(self.stone_play, d)) if self.pulls else None,
            pulls_apart(self.pulls),
        )

    def _steps(self, cage: Cage, stone: Stone) -> Iterator[Step]:
        marks = cage.marks(stone.side)
        key = "cage_girth" if self.girth_by == "measured" else "cage_girth_by_size"
        yield part_step(key, name="cage_girth", check=True, girth=stone.girth)
        yield part_step(
            "cage_mark",
            check=True,
            strands=self.side_by_side,
            top=marks[0],
            side=marks[1],
            centre=marks[2],
        )
        key = "cage_bind" if self.bindings % 2 else "cage_bind_sides"
        yield part_step(
            key,
            name="cage_bind",
            cautions=("ends",),
            check=True,
            bindings=self.bindings,
            turns=self.turns,
        )
        yield part_step("cage_form", check=True)
        yield part_step(
            "cage_bail", cautions=("eyes",), check=True, neck=self.neck, bail=self.on_bail
        )
        yield part_step("cage_bail_close", cautions=("eyes", "ends"), check=True)
        if self.pulls:
            yield part_step(
                "cage_pulls", check=True, pulls=self.pulls, lip=self.lip, base=cage.base
            )
        elif self.parted:
            yield part_step("cage_part", check=True)
