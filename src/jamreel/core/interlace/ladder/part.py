"""The ladder: beads between bars, a fine wire turned round every bar in rows."""

import math
from collections.abc import Sequence
from dataclasses import replace
from typing import ClassVar, Literal

from jamreel.core.advice.weaving import bar_shows, thin_bar, turns_push
from jamreel.core.bench.steps import Step
from jamreel.core.choices import choice, like
from jamreel.core.errors import Refusal
from jamreel.core.forming.band import Lengthwise
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.palette import Palette
from jamreel.core.interlace.base import OnBars, at_height, passes
from jamreel.core.interlace.body import Body, BodySize, BodyWires, Look, Takes, Work
from jamreel.core.interlace.cells import Ball
from jamreel.core.interlace.endings import Ending
from jamreel.core.interlace.ladder.geometry import (
    SAME_MM,
    LadderRow,
    between_bars,
    between_bars_in_front,
    covering_turns,
    in_front_thick,
    outer_end,
    row_pitch,
)
from jamreel.core.interlace.ladder.handed_on import HandedOn, handed_on
from jamreel.core.interlace.ladder.outer import outer_bar
from jamreel.core.parts.base import WireUse, part_step
from jamreel.core.parts.beads import Beaded, OneBead
from jamreel.core.parts.drawn import drawn, laid
from jamreel.core.parts.ends import TAIL_RANGE
from jamreel.core.path.coils import turn
from jamreel.core.path.moves import Bend, Straight, Wrap
from jamreel.core.units import Mm, format_length
from jamreel.core.values import Length, Stroke
from jamreel.core.words import voice


class Ladder(OnBars, Beaded):
    """Bars side by side with beads between them; inner bars end in eyes, outer ones are wound
    round their neighbours. Or every bar is
    handed on to the next, ``to_one`` that ends in a wrapped loop.

    ``row_turns`` on each bar in a row, 0 for as many as hide it. A list of beads is one for each
    gap, by turns.
    """

    kind: Literal["ladder"] = "ladder"
    first: ClassVar[tuple[str, ...]] = ("bead", "rows", "bars", "way", "wire")
    bead: Length = like(Beaded, "bead", 4.0)
    bars: int = choice(4, 3, 12)
    way: Literal["return", "restart"] = "return"
    stands: Literal["between", "in_front"] = "between"
    row_turns: int = choice(0, 0, 60)
    ends: Literal["eyes", "to_one", "bare"] = "eyes"  # type: ignore[assignment]
    end_turns: int = choice(3, 1, 6, when=("ends", "eyes"))
    loop_wraps: int = choice(2, 1, 10, when=("ends", "to_one"))
    tail: Length = choice(12.0, *TAIL_RANGE, when=("ends", "to_one"))

    def _beads(self) -> tuple[OneBead, ...]:
        """Return the bead of every gap."""
        each = tuple(self.beads_of().each)
        return tuple(each[n % len(each)] for n in range(self.bars - 1))

    def _row(self, wires: Palette) -> LadderRow:
        bar, wire = wires.of("body").d, self.working(wires).d
        beads = self._beads()
        across = max(one.bead for one in beads)
        turns = self.row_turns or covering_turns(across, wire)
        gaps = tuple(
            between_bars(one.along, bar, wire)
            if self.stands == "between"
            else between_bars_in_front(one.bead, bar, wire)
            for one in beads
        )
        return LadderRow(
            gaps, bar, wire, turns, self.pitched(row_pitch(turns, wire, across), wires)
        )

    def _balls(self, row: LadderRow) -> tuple[Ball, ...]:
        """Return the beads of a cell: in front of the bars, and where a row comes from behind its
        first bar, half way through."""
        found = []
        rows = 1 if self.way == "restart" else 2
        for n in range(rows):
            for gap, one in enumerate(self._beads()):
                y = (row.places[gap] + row.places[gap + 1]) / 2
                first = gap == (0 if n == 0 else len(row.gaps) - 1)
                z = 0.0 if rows == 2 and first else row.radius
                at = (n * row.pitch + row.turns * row.wire / 2, y, z)
                # It comes on the wire when the bar before it is turned round.
                order = gap if n == 0 else len(row.gaps) - 1 - gap
                threaded = n + (order + 0.9) / self.bars
                found.append(Ball(at, one.bead, one.along, colour=one.colour, row=threaded))
        return tuple(found)

    def ending(self, bar: Wire, wires: Palette) -> Ending:
        """Return how its bars end: what is handed on is bare until it is bent."""
        return replace(super().ending(bar, wires), bare=self.ends != "eyes")

    def body(self, wires: Palette) -> Body:
        """Return the ladder. Raises Refusal for bars too near for their ends to reach round."""
        found = self._woven(wires)
        if self.ends != "to_one":
            return found
        row, bar = self._row(wires), wires.of("body")
        rows = self.rows * row.pitch
        ends = HandedOn(bar, tuple(row.places), rows, self.pin, self.loop_wraps, self.tail)
        return handed_on(found, ends)

    def _woven(self, wires: Palette) -> Body:
        bar, working = wires.of("body"), self.working(wires)
        passes(self._beads(), working.d, 1, "row" if self.row else "hole")
        row = self._row(wires)
        corner, loop = bar.d / 2, self.ending(bar, wires)
        try:
            end = outer_end(corner, bar.d, min(row.gaps), self.end_turns)
        except ValueError:
            raise Refusal(
                "bars_near", got=Mm(min(row.gaps)), field="bead", least=2 * bar.d
            ) from None
        wound = corner + bar.d / 2 + (self.end_turns + 0.5) * bar.d
        room = 0.0 if loop.bare else wound
        rows = self.rows * row.pitch
        beads = self._beads()
        across = max(one.bead for one in beads)
        # Of unlike gaps a row back crosses the last one first.
        back = replace(row, gaps=row.gaps[::-1])
        takes = (
            (row.restarting(),)
            if self.way == "restart"
            else (row.returning(), back.returning())[: 1 if row == back else 2]
        )
        # Bare, all bars are alike.
        places = row.places if loop.bare else row.places[1:-1]
        inner, strokes = self._inner(bar, loop, rows + 2 * room, places)
        outer, more = self._outer(bar, row, rows, room, loop.reach, end)
        width = row.places[-1] - row.places[0] + bar.d + 2 * working.d
        return Body(
            size=BodySize(
                pitch=row.pitch,
                width=width,
                thickness=in_front_thick(bar.d, working.d, across),
                before=loop.reach + room,
                behind=room + loop.reach,
                pegs=row.places,
                ends=loop.in_row(self.bars - 2, _between(row.places[1:-1])),
            ),
            wires=BodyWires(
                working=working,
                worked=(Takes("ladder_working", takes),),
                core=bar.d,
                frame=(inner,) if loop.bare else (inner, outer),
                lengthwise=(Lengthwise(bar, self.bars),),
                beads=(beads,),
            ),
            look=Look(
                cell=lambda: row.cell(self._balls(row), restart=self.way == "restart"),
                frame_strokes=strokes if loop.bare else (*strokes, *more),
            ),
            work=self._work(row, loop, width),
            holds=loop.holds,
            advice=(
                bar_shows(across - (row.turns + 1) * working.d),
                turns_push(row.turns, covering_turns(across, working.d)),
                thin_bar(bar.d, working.d),
            ),
        )

    def _work(self, row: LadderRow, loop: Ending, width: float) -> Work:
        """Return its steps."""
        wound_in = part_step("ladder_ends", cautions=("eyes", "ends"), turns=self.end_turns)
        return Work(
            begin=(self._lay_out(row.gaps), part_step("ladder_first", check=True, turns=row.turns)),
            row_steps=(
                part_step(
                    f"ladder_{self.way}", check=True, rows=self.rows, turns=row.turns, width=width
                ),
            ),
            finish=(*(() if loop.bare else (wound_in,)), *loop.steps("ladder_eyes")),
            row_minutes=0.4 * self.bars + 0.1 * self.bars * row.turns,
        )

    def _lay_out(self, gaps: Sequence[float]) -> Step:
        """Return the step in which the bars are laid out; unlike distances are each told."""
        if max(gaps) - min(gaps) < SAME_MM:
            return part_step("ladder_bars", check=True, bars=self.bars, apart=gaps[0])
        told = ", ".join(format_length(one, voice()[1]) for one in gaps)
        key = "ladder_bars_unlike"
        return part_step(key, name="ladder_bars", check=True, bars=self.bars, apart=told)

    def _inner(
        self, bar: Wire, loop: Ending, long: float, places: Sequence[float]
    ) -> tuple[WireUse, tuple[Stroke, ...]]:
        """Return the bars that end in eyes, or bare."""
        body = ("body", (Straight(length=long),))
        stretches = (*loop.stretches("left"), body, *loop.stretches("right"))
        use = laid(
            WireUse("ladder_inner", bar, stretches, quantity=len(places)),
            middle=loop.reach + long / 2,
        )
        every = [at_height(use, y) for y in places]
        return every[0], tuple(stroke for one in every for stroke in drawn(one))

    def _outer(
        self, bar: Wire, row: LadderRow, rows: float, room: float, reach: float, end: float
    ) -> tuple[WireUse, tuple[Stroke, ...]]:
        """Return the outer bars: straight along the rows, wound round their neighbours at both
        ends."""
        corner, d = bar.d / 2, bar.d
        radius = corner + d / 2
        bend = Bend(angle=math.pi / 2, pin=2 * corner, label="outer_end")
        over = end - math.pi / 2 * radius - self.end_turns * turn(d, d, d)
        wound = Wrap(turns=self.end_turns, core=d, label="outer_wraps")
        stretches = (
            ("outer_end_left", (wound, Straight(length=over), bend)),
            ("body", (Straight(length=rows),)),
            ("outer_end_right", (bend, Straight(length=over), wound)),
        )
        strokes = tuple(
            stroke
            for y, inner in ((row.places[0], row.places[1]), (row.places[-1], row.places[-2]))
            for stroke in outer_bar(y, inner, reach + room, rows, radius, d, self.end_turns)
        )
        use = WireUse("ladder_outer", bar, stretches, quantity=2, shown=strokes)
        return use, strokes


def _between(places: Sequence[float]) -> float:
    """Return the middle distance of places side by side [mm], 0 for a single one."""
    return (places[-1] - places[0]) / max(len(places) - 1, 1)
