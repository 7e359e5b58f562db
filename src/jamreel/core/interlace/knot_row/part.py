"""Rows of square knots: one by itself, or several with beads between them, straight or bowed."""

import math
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from typing import ClassVar, Literal

import numpy as np

from jamreel.core.advice.weaving import thin_core
from jamreel.core.choices import choice
from jamreel.core.errors import Refusal
from jamreel.core.forming.band import Lengthwise
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.palette import Palette
from jamreel.core.interlace.base import OfRoundBeads, OnBars, passes
from jamreel.core.interlace.body import Body, BodySize, BodyWires, Look, Takes, Work
from jamreel.core.interlace.cells import Ball, Cell, Strand
from jamreel.core.interlace.endings import Ending
from jamreel.core.interlace.knot_row.geometry import (
    LEAST,
    NATURAL,
    UNEVEN,
    Bow,
    Course,
    Knotted,
    Row,
    arc_over,
    both_bow,
    hollow_of_both,
    hollow_of_one,
    knot_takes,
    one_bows,
    row_width,
)
from jamreel.core.interlace.space import joined, moved
from jamreel.core.interlace.working import FAST_TURNS
from jamreel.core.parts.base import WireUse, part_step
from jamreel.core.parts.drawn import drawn, laid
from jamreel.core.parts.pictures import ring
from jamreel.core.path.moves import Straight
from jamreel.core.units import Mm
from jamreel.core.values import OptionalLength, Stroke

# Radius of a hollow between beads in widths of a row where nobody says; between a half and one,
# common practice. A core wire is held on the board by so much at each end [mm].
USUAL_HOLLOW, HELD_MM = 0.75, 10.0


Pattern = Literal["straight", "one_bows", "both_bow", "mirrored", "by_turns"]
WITH_BEADS = ("one_bows", "both_bow", "mirrored", "by_turns")


class KnotRow(OnBars, OfRoundBeads):
    """Square knots round core wires: a row by itself, or rows with beads between them.

    Of rows with beads some lie straight and others bow, round one bead or a pair. ``inlaid`` fine
    wires lie in the core between its outer wires. A pitch that is left blank is the natural one; a
    bead pitch that is left blank bends the hollows to three quarters of a row. Outer rows that bow
    have so many ``arcs_less`` at each end, where the closure wants room.
    """

    only_if: ClassVar[Mapping[str, tuple[str, ...]]] = {
        **dict.fromkeys(("bead", "hole", "stuff", "colour"), ("pattern", *WITH_BEADS))
    }

    kind: Literal["knot_row"] = "knot_row"
    first: ClassVar[tuple[str, ...]] = ("rows", "pattern", "cores", "knot_pitch", "wire")
    pattern: Pattern = "straight"
    cores: int = choice(2, 1, 6)
    inlaid: int = choice(0, 0, 6)
    knot_pitch: OptionalLength = choice(None, 0.3, 20)
    bead_pitch: OptionalLength = choice(
        None, 0.5, 80, when=("pattern", "one_bows", "both_bow", "mirrored")
    )
    arc_beads: int = choice(1, 1, 2, when=("pattern", "one_bows", "both_bow", "mirrored"))
    arcs_less: int = choice(0, 0, 5, when=("pattern", "one_bows", "mirrored"))
    begin: Literal["end", "middle"] = "end"

    @property
    def beaded(self) -> bool:
        """Whether beads lie between its rows."""
        return self.pattern != "straight"

    @property
    def stuffs(self) -> frozenset[str]:
        """What its beads are made of."""
        return super().stuffs if self.beaded else frozenset()

    @property
    def row_key(self) -> str:
        """The key that its knots are named by, or its arcs round beads."""
        return "knot_row_beads" if self.beaded else "knot_row"

    def body(self, wires: Palette) -> Body:
        """Return the rows. Raises Refusal for knots or beads closer than they can lie."""
        core, fine = wires.of("body"), self.working(wires)
        return _Rows(self, wires, core, fine).body


@dataclass(frozen=True)
class _Rows:
    """Rows of knots in some wires."""

    part: KnotRow
    wires: Palette
    core: Wire
    fine: Wire

    @cached_property
    def pitch(self) -> float:
        """From knot to knot along a straight row [mm]."""
        d, part = self.fine.d, self.part
        pitch = part.knot_pitch or NATURAL * d
        if not part.beaded:
            pitch = part.pitched(pitch, self.wires)
        if pitch < LEAST * d - 1e-9:
            field = "knot_pitch" if part.knot_pitch else "sample_rows"
            raise Refusal("knots_close", got=Mm(pitch), field=field, least=LEAST * d)
        return pitch

    @property
    def bundle(self) -> float:
        """Width of the core [mm]."""
        return self.part.cores * self.core.d + self.part.inlaid * self.fine.d

    @property
    def width(self) -> float:
        """Of one row [mm]."""
        return row_width(self.bundle, self.fine.d, self.pitch)

    @cached_property
    def bow(self) -> Bow:
        """How rows bow. Raises Refusal for beads closer than rows can bow between them."""
        part, b, w = self.part, self.part.bead, self.width
        both = part.pattern == "both_bow"
        bows, hollow_of = (both_bow, hollow_of_both) if both else (one_bows, hollow_of_one)
        if part.pattern == "by_turns":
            return one_bows(b, w, (b + w) / 2)
        if part.bead_pitch is None:
            return bows(b, w, USUAL_HOLLOW * w)
        # Of beads that touch under an arc, the pitch is the mean one.
        beside = (self.span - 1) * b
        least = max(bows(b, w, w / 2).pitch, b)
        pitch = self.span * part.bead_pitch - beside
        if pitch < least - 1e-9:
            least = (least + beside) / self.span
            raise Refusal("beads_close", got=Mm(part.bead_pitch), field="bead_pitch", least=least)
        return bows(b, w, hollow_of(pitch, b, w))

    @property
    def span(self) -> int:
        """Beads under one arc."""
        return 1 if self.part.pattern == "by_turns" else self.part.arc_beads

    @cached_property
    def rows(self) -> tuple[Row, ...]:
        """Its rows, from the lowest up, their middle at 0."""
        b, w = self.part.bead, self.width
        match self.part.pattern:
            case "straight":
                return (Row(bows=False, y=0.0),)
            case "one_bows":
                low = -(b + w) / 2
                return (Row(bows=False, y=low), Row(bows=True, y=low, eyes=False))
            case "both_bow":
                return (Row(bows=True, y=0.0, side=-1), Row(bows=True, y=0.0))
            case "mirrored":
                return (
                    Row(bows=True, y=0.0, side=-1, eyes=False),
                    Row(bows=False, y=0.0),
                    Row(bows=True, y=0.0, eyes=False),
                )
            case _:
                low = -(b + 2 * w) / 2
                return (
                    Row(bows=False, y=low),
                    Row(bows=True, y=low, eyes=False),
                    Row(bows=False, y=-low),
                )

    @property
    def left_out(self) -> int:
        """Arcs that outer rows lack at each end; one arc is left at least."""
        part = self.part
        outer = part.pattern in ("one_bows", "mirrored")
        return min(part.arcs_less, (part.rows - 1) // 2) if outer else 0

    @property
    def advance(self) -> float:
        """How far it goes on with each knot, or with the bead or the beads under an arc [mm]."""
        if not self.part.beaded:
            return self.pitch
        return self.bow.pitch + (self.span - 1) * self.part.bead

    def _course(self, row: Row) -> Course:
        if not row.bows:
            return Course(np.array([[0.0, row.y], [self.advance, row.y]]))
        b, w = self.part.bead, self.width
        at = b / 2 + w / 2 if self.part.pattern != "both_bow" else 0.0
        arc = arc_over(self.bow, b, w, straight_by=at - w if at else -w / 2, span=self.span)
        points = (arc.points + np.array([0.0, at])) * [1.0, row.side] + [0.0, row.y]
        return Course(points)

    def _knots(self, row: Row) -> int:
        """Return how many knots of a row lie along one advance, whole ones where it bows."""
        if not self.part.beaded:
            return 1
        if not row.bows:
            return max(1, round(self.advance / self.pitch))
        long = self.arc
        knots = math.ceil(long / self.pitch - 1e-9)
        if long / knots < LEAST * self.fine.d:
            knots = math.floor(long / (LEAST * self.fine.d))
        return max(knots, 1)

    @property
    def arc(self) -> float:
        """Length of the middle line of a bowed row along one advance [mm]."""
        return self.bow.arc + (self.span - 1) * self.part.bead

    def _takes(self, row: Row) -> tuple[float, float]:
        """Return the wire of one advance of a row, the middle of both its wires, and how many knots
        that is."""
        hull = 2 * (self.bundle - self.core.d) + math.pi * self.core.d
        if row.bows:
            knots: float = self._knots(row)
            pitch = self.arc / knots
        else:
            pitch = self.pitch
            knots = self.advance / pitch
        return knots * knot_takes(hull, self.fine.d, pitch), knots

    def _worked(self) -> tuple[Takes, ...]:
        found = []
        for bows in (False, True):
            like = [row for row in self.rows if row.bows == bows]
            if like:
                takes, knots = self._takes(like[0])
                key = "knot_bowed" if bows else "knot_working"
                uneven = UNEVEN * self.fine.d * knots
                middle = self.part.begin == "middle"
                less = self.left_out if bows else 0
                found.append(Takes(key, (takes,), 2 * len(like), 0.0, 0.0, uneven, middle, less))
        return tuple(found)

    def cell(self, pulled: Callable[[Cell], Cell] | None = None) -> Cell:
        """Return what repeats.

        Args:
            pulled: how a knot is pulled tight, where it is looked at closely; its core is shown.
        """
        strands: list[Strand] = []
        for row in self.rows:
            course, knots = self._course(row), self._knots(row)
            strands += self._knotted(course.length / knots, knots, course, pulled)
        balls: list[Ball] = []
        part = self.part
        if part.beaded:
            for row in self.rows:
                balls += self._balls(row)
        return Cell(self.advance, 1, tuple(strands), tuple(balls), opaque=True)

    def _ended(self) -> Cell:
        """Return what repeats at both ends, where the outer rows are left out."""
        straight = replace(self.cell(), balls=())
        rows = [row for row in self.rows if not row.bows]
        strands = [
            strand
            for row in rows
            for strand in self._knotted(
                self.advance / self._knots(row), self._knots(row), self._course(row), None
            )
        ]
        return replace(straight, strands=tuple(strands))

    def _knotted(
        self, pitch: float, knots: int, course: Course, pulled: Callable[[Cell], Cell] | None
    ) -> Iterator[Strand]:
        one = Knotted(self.part.cores, self.bundle / self.part.cores, self.fine.d, pitch)
        rough = one.cell()
        for strand in (pulled(rough) if pulled else rough).strands:
            if strand.role == "working":
                whole = joined(*(moved(strand.line, n * pitch) for n in range(knots)))
                yield replace(strand, line=course.bent(whole))
        if pulled:
            run = np.linspace(0.0, course.length, 60)
            for y in self._places:
                middle = np.column_stack([run, np.full_like(run, y), np.zeros_like(run)])
                yield Strand("bar", self.core.d, course.bent(middle))

    def _balls(self, row: Row) -> Iterator[Ball]:
        """Yield the beads that a bowed row lies over."""
        if not row.bows or (self.part.pattern == "both_bow" and row.side < 0):
            return
        b, w, p = self.part.bead, self.width, self.bow.pitch
        y = row.y + (row.side * (b + w) / 2 if self.part.pattern != "both_bow" else 0.0)
        for n in range(self.span):
            yield Ball((p / 2 + n * b, y, 0.0), b, b, colour=self.part.colour)
        if self.part.pattern == "by_turns":
            # The row bows over one bead and under the next, which touches the row above.
            yield Ball((0.0, y + w, 0.0), b, b, colour=self.part.colour)

    @property
    def beads(self) -> int:
        """Beads in one advance."""
        return len([ball for row in self.rows for ball in self._balls(row)])

    @property
    def _places(self) -> tuple[float, ...]:
        """How far from the middle of a row each of its core wires lies [mm]; inlaid wires lie
        between them."""
        d, cores = self.core.d, self.part.cores
        left = (cores + 1) // 2
        half = self.bundle / 2
        return tuple(
            (n + 0.5) * d - half if n < left else half - (cores - n - 0.5) * d for n in range(cores)
        )

    @property
    def _eyed_core(self) -> int:
        """The core wire that ends in eyes: one in the middle."""
        return (self.part.cores - 1) // 2

    def _cores(self, loop: Ending, long: float) -> Iterator[tuple[WireUse, tuple[Stroke, ...]]]:
        """Yield the core wires, alike ones once, with the strokes that show them."""
        part = self.part
        for bows in (False, True):
            like = [row for row in self.rows if row.bows == bows]
            eyed = [] if loop.bare else [row for row in like if row.eyes]
            name = "knot_core_bowed" if bows else "knot_core"
            rows = part.rows - (2 * self.left_out if bows else 0)
            body = ("body", (Straight(length=rows * (self.arc if bows else self.advance)),))
            if eyed:
                ended = (*loop.stretches("left"), body, *loop.stretches("right"))
                use = WireUse(f"{name}_eyes", self.core, ended, quantity=len(eyed), runs=1)
                yield self._eyed(use, eyed, loop, long)
            plain = len(like) * part.cores - len(eyed)
            if plain:
                held = (Straight(length=HELD_MM),)
                strokes = tuple(
                    stroke
                    for row in like
                    for n in range(part.cores)
                    if not (row in eyed and n == self._eyed_core)
                    for stroke in self._core_strokes(row, loop.reach, n)
                )
                stretches = (("tail_start", held), body, ("tail_finish", held))
                core = WireUse(name, self.core, stretches, plain, shown=strokes, woven=True, runs=1)
                yield core, strokes
            if like and part.inlaid:
                # It lies hidden in the core.
                held = (Straight(length=HELD_MM),)
                stretches = (("tail_start", held), body, ("tail_finish", held))
                seen = tuple(self._core_strokes(like[0], loop.reach, self._eyed_core))
                count = len(like) * part.inlaid
                laid_in = f"{name}_inlaid"
                yield WireUse(laid_in, self.fine, stretches, count, shown=seen, woven=True), ()

    def _eyed(
        self, use: WireUse, rows: Sequence[Row], loop: Ending, long: float
    ) -> tuple[WireUse, tuple[Stroke, ...]]:
        """Return the core wires that end in eyes, and all that is seen of them and of those beside
        them."""
        strokes: list[Stroke] = []
        d, pin = self.core.d, self.part.pin
        for row in rows:
            y = self._end_height(row) + self._places[self._eyed_core]
            if row.bows:
                seen = tuple(self._core_strokes(row, loop.reach, self._eyed_core))
                eyes = (pin / 2, 2 * loop.reach + long - pin / 2)
                seen = (*seen, *(ring(x, pin, d, y) for x in eyes))
                use = replace(use, shown=(*use.shown, *seen))
            else:
                placed = laid(use, middle=loop.reach + long / 2)
                use = replace(placed, at=(placed.at[0], y))
                seen = drawn(use)
            strokes += seen
        return use, tuple(strokes)

    def _end_height(self, row: Row) -> float:
        """Return how high the end of a row lies [mm]."""
        return float(self._course(row).points[0, 1])

    def _core_strokes(self, row: Row, x: float, n: int) -> Iterator[Stroke]:
        """Yield one of a row's core wires as it lies between the ends."""
        course = self._course(row)
        run = np.linspace(0.0, course.length, 25 if row.bows else 2)
        middle = np.column_stack([run, np.full_like(run, self._places[n]), np.zeros_like(run)])
        less = self.left_out if row.bows else 0
        at = x + less * self.advance
        points = np.round(course.bent(middle)[:, :2] + [at, 0.0], 2).tolist()
        yield Stroke(
            part="wire",
            points=tuple((a, b) for a, b in points),
            width_mm=self.core.d,
            times=self.part.rows - 2 * less,
            step=(round(self.advance, 4), 0.0),
        )

    @property
    def body(self) -> Body:
        part, fine = self.part, self.fine
        beads = self.beads if part.beaded else 0
        if part.beaded:
            passes((part.one,), fine.d, 1)
        loop = part.ending(self.core, self.wires)
        long = part.rows * self.advance
        cores = tuple(self._cores(loop, long))
        edges = [
            float(edge)
            for row in self.rows
            for edge in (self._course(row).points[:, 1].min(), self._course(row).points[:, 1].max())
        ]
        eyed = [self._end_height(row) for row in self.rows if row.eyes]
        return Body(
            size=BodySize(
                pitch=self.advance,
                width=max(edges) - min(edges) + self.width,
                thickness=max(self.core.d + 2 * fine.d, part.bead if part.beaded else 0.0),
                before=loop.reach,
                behind=loop.reach,
                pegs=tuple(row.y for row in self.rows if not row.bows) or (0.0,),
                ends=loop.in_row(len(eyed), (max(eyed) - min(eyed)) / max(len(eyed) - 1, 1)),
            ),
            wires=BodyWires(
                working=fine,
                worked=self._worked(),
                core=self.core.d,
                frame=tuple(use for use, _ in cores),
                lengthwise=(
                    Lengthwise(self.core, len(self.rows) * part.cores),
                    Lengthwise(fine, len(self.rows) * part.inlaid),
                ),
                beads=((part.one.model_copy(update={"times": beads}),),) if beads else ((),),
            ),
            look=Look(
                cell=self.cell,
                close=self.cell,
                frame_strokes=tuple(stroke for _, strokes in cores for stroke in strokes),
                left_out=self.left_out,
                ended=(self._ended, ()) if part.arcs_less else None,
            ),
            work=self._work(loop),
            holds=loop.holds,
            advice=(thin_core(self.core.d, fine.d),),
        )

    def _work(self, loop: Ending) -> Work:
        """Return its steps."""
        part = self.part
        knots = {row.bows: self._knots(row) for row in self.rows}
        row_steps = (
            (
                part_step("knot_first", name="knot_row", check=True, knots=self._first_knots()),
                part_step("knot_bows", check=True, knots=knots[True], beads=self.span),
            )
            if part.beaded
            else (part_step("knot_row", name="knot_row", check=True, knots=part.rows),)
        )
        return Work(
            begin=(part_step(f"knot_board_{part.begin}", name="knot_board", cores=part.cores),),
            row_steps=row_steps,
            finish=(
                *((part_step("knot_other_half", check=True),) if part.begin == "middle" else ()),
                part_step("knot_ends", cautions=("eyes", "ends"), turns=FAST_TURNS),
                *loop.steps("knot_eyes"),
            ),
            row_minutes=1.2 * sum(self._takes(row)[1] for row in self.rows),
        )

    def _first_knots(self) -> int:
        """Return how many knots the first row has."""
        knots = self._takes(self.rows[0])[1]
        return math.floor(knots * self.part.rows + 1e-9)
