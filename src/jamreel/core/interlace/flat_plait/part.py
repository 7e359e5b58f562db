"""The flat plait of eight, twelve or sixteen strands, and the lacing laid over it."""

import math
from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import ClassVar, Literal

import numpy as np

from jamreel.core.advice.weaving import bunches, measure_it, off_the_loops, stiff_strands
from jamreel.core.bench.steps import Step
from jamreel.core.choices import choice
from jamreel.core.errors import Refusal
from jamreel.core.forming.band import Lengthwise
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.palette import Palette
from jamreel.core.interlace.base import USUAL_FINE_MM, Interlaced
from jamreel.core.interlace.body import Body, BodySize, BodyWires, Look, Takes, Work
from jamreel.core.interlace.cells import Cell, Strand
from jamreel.core.interlace.flat_plait.geometry import JAMS, Lacing, Plait, width_by_rule
from jamreel.core.interlace.space import Array, joined, moved, round_bar
from jamreel.core.interlace.strand_ends import HELD_MM, OVER_MM
from jamreel.core.parts.base import WireUse, part_step
from jamreel.core.path.moves import Straight
from jamreel.core.units import Mm
from jamreel.core.values import OptionalLength, Stroke
from jamreel.core.wire.gauges import OptionalSize

# Loops of one edge lie so many strands apart in most hands; strands are held by so much [mm];
# common practice.
USUAL_LOOP, TAIL_MM = 2.7, 60.0
Laced = Literal["none", "front", "both"]


@dataclass(frozen=True)
class Overlay:
    """A lacing along a plait: how it goes, how far along the plait the first crossing goes where it
    differs [mm], how many wires cross to an X, and how long the plait is [mm]."""

    lacing: Lacing
    both: bool
    first: float
    passes: int
    wires: int
    long: float
    thick: float

    @property
    def crossings(self) -> int:
        """How many whole crossings one pass has."""
        left = self.long - self.first
        return 1 + max(0, math.floor(left / self.lacing.advance + 1e-9))

    @property
    def pass_takes(self) -> float:
        """What one pass takes over the whole plait [mm]."""
        first = replace(self.lacing, skipped=round(2 * self.first / self.lacing.loop) - 1).crossing(
            both=self.both
        )
        return first + (self.crossings - 1) * self.lacing.crossing(both=self.both)

    @property
    def cut(self) -> float:
        """One wire, without what it is held by [mm]."""
        return self.pass_takes * self.passes / self.wires

    def crossing_line(self, up: bool) -> Array:
        """Return one crossing in space, from edge to edge, and round or through its loop."""
        one, rho = self.lacing, self.lacing.radius
        half = one.across / 2
        side = 1.0 if up else -1.0
        share = np.linspace(0.0, 1.0, 13)
        # Over the plait's face it rises from the edge strand to the height of two strands.
        high = rho + (self.thick / 2 + one.wire / 2 - rho) * np.sin(math.pi * share)
        inner = half if self.both else half - rho
        over = np.column_stack([one.advance * share, side * inner * (2 * share - 1), high])
        turned = math.pi if self.both else 2 * math.pi
        # Round the edge strand, outwards and under it.
        arc = round_bar((0.0, 0.0), rho, (0.0, turned), (0.0, 0.0))
        arc = arc * [1.0, side, 1.0] + [one.advance, side * half, 0.0]
        return joined(over, arc)

    def strands(self, long: float) -> tuple[Strand, ...]:
        """Return the lacing over so much of the plait [mm]."""
        one = self.lacing
        there = self.crossing_line(up=True)
        if self.both:
            back = self.crossing_line(up=False) * [1.0, 1.0, -1.0]
        else:
            back = self.crossing_line(up=False)
        once = joined(there, moved(back, one.advance))
        times = max(1, round(long / (2 * one.advance)))
        line = joined(*(moved(once, n * 2 * one.advance) for n in range(times)))
        crossed = line * [1.0, -1.0, 1.0]
        lines = (line, crossed) if self.passes == 2 else (line,)
        return tuple(Strand("lacing", one.wire, found) for found in lines)

    def strokes(self, at: float, tone: str) -> tuple[Stroke, ...]:
        """Return what is seen of it on the face, from x on [mm]."""
        one = self.lacing
        half = (one.across + one.wire) / 2
        found = []
        for side in (1.0, -1.0)[: self.passes]:
            x, y = at, -side * half
            points = [(round(x, 2), round(y, 2))]
            for n in range(self.crossings):
                x += self.first if n == 0 else one.advance
                y = -y
                points.append((round(x, 2), round(y, 2)))
            found.append(Stroke(part="wire", points=tuple(points), width_mm=one.wire, tone=tone))
        return tuple(found)


class FlatPlait(Interlaced):
    """Strands over one, under one from edge to edge, cut off and capped; a wire may be laced
    through its edge loops.

    Rows are the loops of one edge. ``plait_width`` is as measured. ``skipped`` are the loops that a
    crossing of the lacing passes by, ``first_skipped`` those of its first crossing, -1 for as many.
    """

    kind: Literal["flat_plait"] = "flat_plait"
    first: ClassVar[tuple[str, ...]] = ("rows", "strands", "plait_width", "lacing", "wire")
    strands: Literal["8", "12", "16"] = "12"
    plait_width: OptionalLength = choice(None, 1, 60)
    lacing: Laced = "none"
    skipped: int = choice(1, 0, 8, when=("lacing", "front", "both"))
    first_skipped: int = choice(-1, -1, 8, when=("lacing", "front", "both"))
    lacing_crosses: Literal["zigzag", "cross_one", "cross_two"] = choice(
        "cross_two", when=("lacing", "front", "both")
    )
    lacing_wire: OptionalSize = choice(None, when=("lacing", "front", "both"))

    def working(self, wires: Palette) -> Wire:
        """Return the wire of its strands: its own, else the body's."""
        return wires.of("body", self.wire)

    def _plait(self, wires: Palette, d: float) -> Plait:
        count = int(self.strands)
        loop = self.pitched(USUAL_LOOP * d, wires)
        if loop < JAMS * d - 1e-9:
            most = math.floor(self.sample_over / (JAMS * d))
            raise Refusal("sample_rows", got=self.sample_rows, field="sample_rows", most=most)
        least = d * (1 + count / 3)
        if self.plait_width is not None and self.plait_width < least:
            raise Refusal(
                "plait_narrow", got=Mm(self.plait_width), field="plait_width", least=least
            )
        width = self.plait_width or width_by_rule(count, d, loop)
        return Plait(count, d, loop, width)

    def _overlay(self, plait: Plait, wires: Palette) -> tuple[Overlay, Wire] | None:
        """Return its lacing. Raises Refusal for a wire that doesn't go through the loops."""
        if self.lacing == "none":
            return None
        wire = wires.of("winding", self.lacing_wire, usual=USUAL_FINE_MM)
        one = Lacing(plait.width, plait.strand, plait.loop, wire.d, self.skipped)
        if one.opening < wire.d - 1e-9:
            raise Refusal("lacing_thick", got=Mm(wire.d), field="lacing_wire", most=one.opening)
        crosses = self.lacing_crosses
        first = self.skipped if self.first_skipped < 0 else self.first_skipped
        overlay = Overlay(
            one,
            self.lacing == "both",
            (first + 1) * plait.loop / 2,
            1 if crosses == "zigzag" else 2,
            2 if crosses == "cross_two" else 1,
            self.rows * plait.loop,
            plait.thickness,
        )
        return overlay, wire

    def body(self, wires: Palette) -> Body:
        """Return the plait. Raises Refusal for loops that jam, a width that its strands don't go
        into, and lacing that doesn't go through the loops."""
        w = self.working(wires)
        plait = self._plait(wires, w.d)
        laced = self._overlay(plait, wires)
        outer = laced[1].d if laced else 0.0
        backs = 2 if self.lacing == "both" else 1
        over = wires.in_cap_or(OVER_MM)
        tails = (("in_cap", over), ("tail_start", TAIL_MM))
        return Body(
            size=BodySize(
                pitch=plait.loop,
                width=plait.width + 2 * outer,
                thickness=plait.thickness + backs * outer,
                before=0.0,
                behind=0.0,
                ends=None,
            ),
            wires=BodyWires(
                working=w,
                worked=(
                    Takes(
                        "plait_strand",
                        (plait.loop * plait.take_up,),
                        plait.strands,
                        firm=plait.loop,
                        whole=True,
                        runs=1,
                        fore=tails[::-1],
                        aft=(tails[0], ("tail_finish", TAIL_MM)),
                    ),
                ),
                core=w.d,
                lengthwise=(Lengthwise(w, plait.strands),),
                frame=(self._laced(*laced),) if laced else (),
            ),
            look=Look(
                cell=plait.cell,
                over=laced[0].strokes(0.0, laced[1].metal.colour) if laced else (),
                close=_closely(plait, laced[0]) if laced else None,
            ),
            work=self._work(plait, laced, over),
            advice=(
                measure_it(plait.width) if self.plait_width is None else None,
                bunches(plait.strands) if self.plait_width is None else None,
                off_the_loops(self.skipped) if laced and self.skipped % 2 else None,
                stiff_strands(w, self.spare, counted=self.sample is not None),
            ),
        )

    def _work(self, plait: Plait, laced: tuple[Overlay, Wire] | None, over: float) -> Work:
        """Return its steps."""
        moves = part_step(
            "plait_move", check=True, strands=plait.strands, width=plait.width, loops=self.rows
        )
        bound = part_step("plait_bind", cautions=("eyes", "ends"), check=True, over=over)
        return Work(
            begin=(part_step("plait_disc", check=True, strands=plait.strands),),
            row_steps=(moves,),
            finish=(bound, *self._lacing_steps(laced)),
            row_minutes=0.12 * plait.strands,
        )

    def _laced(self, overlay: Overlay, wire: Wire) -> WireUse:
        """Return the lacing wire: longer than needed, then cut."""
        more = (self.spare - 1) * overlay.cut
        return WireUse(
            "plait_lacing",
            wire,
            (
                ("tail_start", (Straight(length=HELD_MM),)),
                ("lacing", (Straight(length=overlay.cut),)),
                *((("looser", (Straight(length=more),)),) if more > 1e-9 else ()),
                ("tail_finish", (Straight(length=HELD_MM),)),
            ),
            quantity=overlay.wires,
            woven=True,
        )

    def _lacing_steps(self, laced: tuple[Overlay, Wire] | None) -> tuple[Step, ...]:
        if laced is None:
            return ()
        overlay, _ = laced
        return (
            part_step(
                f"plait_lace_{self.lacing}",
                name="plait_lace",
                cautions=("ends", "kinks"),
                check=True,
                wires=overlay.wires,
                skipped=self.skipped,
                crossings=overlay.crossings,
                first=self.skipped if self.first_skipped < 0 else self.first_skipped,
            ),
        )


def _closely(plait: Plait, overlay: Overlay) -> Callable[[Callable[[Cell], Cell]], Cell]:
    """Return what pulls a plait tight and lays the lacing over it."""

    def pulled(settle: Callable[[Cell], Cell]) -> Cell:
        cell = settle(plait.cell())
        # Both begin anew at the same loop.
        skips = overlay.lacing.skipped + 1
        cell = cell.repeated(math.lcm(plait.strands, skips) // plait.strands)
        return replace(cell, strands=(*cell.strands, *overlay.strands(cell.advance)))

    return pulled
