"""The tassel: strands of beaded sections, hung in the lower loop of a head."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import ClassVar, Literal

from pydantic import Field

from jamreel.core.advice.joining import loop_admits
from jamreel.core.advice.parts import strands_jostle
from jamreel.core.bench.steps import Step
from jamreel.core.choices import choice
from jamreel.core.errors import Refusal
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import Made, Part, Role, WireUse, part_step, size_of
from jamreel.core.parts.beads import BRITTLE, MOST_LISTED, BeadList, BeadRow, OneBead
from jamreel.core.parts.drawn import drawn, laid
from jamreel.core.parts.ends import PIN_RANGE, TAIL_RANGE, WRAPS_RANGE, Loop
from jamreel.core.parts.pictures import hung, repeated, shifted
from jamreel.core.path.moves import Straight
from jamreel.core.values import Frozen, Length, Stroke
from jamreel.core.wire.gauges import OptionalSize
from jamreel.core.words import say

MOST_SECTIONS, MOST_BEADS, MOST_SORTS = 40, 400, 36
# Of more strands than this the others hang behind.
MOST_SEEN, CROWDED = 5, 60


class Section(Frozen):
    """Beads on one fine wire between two wrapped loops, ``times`` of it one below the other."""

    row: BeadList = Field(default=(OneBead(),), min_length=1, max_length=MOST_LISTED)
    times: int = Field(default=1, ge=1, le=MOST_SECTIONS)


@dataclass(frozen=True)
class _Rows:
    """Sections alike, one below the other: their beads, how many, on how many strands."""

    row: BeadRow
    times: int
    strands: int


class Tassel(Part):
    """Strands, each of so many sections, taken by the head's lower loop before it is closed.

    Every second strand is ``shorter`` by so many sections.
    """

    joins: ClassVar[Role] = "drop"

    kind: Literal["tassel"] = "tassel"
    first: ClassVar[tuple[str, ...]] = ("strands", "shorter", "strand_loop", "head_pin", "tail")
    head: BeadList = Field(
        default=(OneBead(bead=8.0, hole=1.5, colour="amber"),), max_length=MOST_LISTED
    )
    strands: int = choice(3, 2, 24)
    sections: tuple[Section, ...] = Field(default=(Section(times=4),), min_length=1, max_length=8)
    shorter: int = choice(0, 0, MOST_SECTIONS)
    head_pin: Length = choice(3.0, *PIN_RANGE)
    strand_loop: Length = choice(3.5, *PIN_RANGE)
    pin: Length = choice(1.5, *PIN_RANGE)
    above: int = choice(3, *WRAPS_RANGE)
    below: int = choice(4, *WRAPS_RANGE)
    tail: Length = choice(10.0, *TAIL_RANGE)
    wire: OptionalSize = None
    strand_wire: OptionalSize = None

    @property
    def stuffs(self) -> frozenset[str]:
        """What its beads are made of."""
        return BeadRow((*self.head, *(one for s in self.sections for one in s.row))).stuffs

    def make(self, wires: Palette) -> Made:
        """Return the tassel, hung from its head's upper loop down to its lowest section.

        Raises:
            Refusal: more beads on a strand, or more sorts of them, than anybody hangs.
        """
        beads = sum(BeadRow(one.row).count * one.times for one in self.sections)
        if beads > MOST_BEADS:
            raise Refusal("too_many_parts", got=beads, field="sections", most=MOST_BEADS)
        sorts = sum(len(one.row) for one in self.sections)
        if sorts > MOST_SORTS:
            raise Refusal("too_many_kinds", got=sorts, field="sections", most=MOST_SORTS)
        w = wires.of("body", self.wire)
        fine = wires.of("winding", self.strand_wire, usual=0.5)
        upper = Loop("wrapped", w, self.head_pin, self.above, self.tail)
        lower = Loop("wrapped", w, self.strand_loop, self.below, self.tail)
        head, rows = BeadRow(self.head), self._rows()
        neck = upper.reach + head.length + lower.reach
        links = [self._section(fine, one.row) for one in rows]
        widest = max(one.row.widest for one in rows)
        used = [one.times * one.strands for one in rows]
        stretches = (
            *upper.stretches("left"),
            ("body", (Straight(length=head.length),)),
            *lower.stretches("right"),
        )
        use = laid(WireUse("tassel_head", w, stretches), left=0.0)
        return Made(
            length=0.0,
            thickness=max(2 * widest, head.widest, lower.thickness),
            width=max(self.strand_loop + 2 * w.d, head.widest, self.strands * widest / 2),
            hang=neck
            + sum(long * one.times for (_, long), one in zip(links, rows, strict=True))
            + fine.d,
            ends=(upper.end(), upper.end()),
            wires=(use, *_counted(links, used)),
            bought=(
                *head.bought(),
                *(b for one, n in zip(rows, used, strict=True) for b in one.row.bought(n)),
            ),
            holds=(upper.hold, self._loops(fine)[0].hold),
            strokes=hung(self._picture(use, upper.reach, fine, neck)),
            steps=self._steps(upper, head.count),
            minutes=4.0 * (1 + sum(used)),
            brittle=bool(self.stuffs & BRITTLE),
            advice=(
                head.passes(w.d),
                *(one.row.passes(fine.d) for one in rows),
                loop_admits(
                    self.strand_loop,
                    (fine.d,) * self.strands,
                    self.says,
                    say("part.strands", count=self.strands),
                ),
                strands_jostle(self.strands, widest, self.shorter > 0),
            ),
        )

    def _steps(self, upper: Loop, beads: int) -> tuple[Step, ...]:
        return (
            *self._section_steps(),
            part_step("tassel_head", pin=self.head_pin),
            part_step("tassel_in"),
            part_step("tassel_top", beads=beads),
            part_step("tassel_open", pin=self.strand_loop),
            part_step("tassel_hang", strands=self.strands, check=True),
            part_step("tassel_close", wraps=self.below, check=True),
            upper.finish_step,
        )

    def _section_steps(self) -> Iterator[Step]:
        """Yield a step for each sort of section, from the top: every section's upper loop takes the
        finished one above it before it is wound shut."""
        for n, one in enumerate(self._rows()):
            made = part_step(
                "tassel_section" if n else "tassel_first",
                name=f"section_{n + 1}",
                check=True,
                number=n + 1,
                count=one.times * one.strands,
                strands=one.strands,
                in_turn=one.times,
                beads=one.row.count,
                row=", ".join(_bead_said(bead) for bead in one.row.beads),
                pin=self.pin,
                above=self.above,
                below=self.below,
            )
            yield made.model_copy(update={"times": one.times * one.strands})

    def _rows(self) -> list[_Rows]:
        """Return the sections of the longest strand from above, alike ones together; of those that
        every second strand stops short of, only the others have any."""
        every = max(1, sum(one.times for one in self.sections) - self.shorter)
        found = []
        for one in self.sections:
            row, above = BeadRow(one.row), min(one.times, max(every, 0))
            every -= one.times
            if above:
                found.append(_Rows(row, above, self.strands))
            if one.times > above:
                found.append(_Rows(row, one.times - above, (self.strands + 1) // 2))
        return found

    def _loops(self, fine: Wire) -> tuple[Loop, Loop]:
        return (
            Loop("wrapped", fine, self.pin, self.above, self.tail),
            Loop("wrapped", fine, self.pin, self.below, self.tail),
        )

    def _section(self, fine: Wire, row: BeadRow) -> tuple[WireUse, float]:
        """Return the wire of a section, and how far it hangs [mm]."""
        above, below = self._loops(fine)
        stretches = (
            *above.stretches("left"),
            ("body", (Straight(length=row.length),)),
            *below.stretches("right"),
        )
        return WireUse("tassel_section", fine, stretches), above.reach + row.length + below.reach

    def _picture(self, use: WireUse, reach: float, fine: Wire, neck: float) -> list[Stroke]:
        above, below = self._loops(fine)
        head, rows = BeadRow(self.head), self._rows()
        strokes = [*drawn(use), *head.strokes(reach)]
        # Many sections with many beads each would be drawn too small to tell apart.
        crowded = sum(len(one.row.beads) + 8 for one in rows) >= CROWDED
        seen, at = min(self.strands, 2 if crowded else MOST_SEEN), neck
        apart = max(max(one.row.widest for one in rows), fine.d * 3)
        for one in rows:
            long = above.reach + one.row.length + below.reach
            use = laid(self._section(fine, one.row)[0], left=0.0)
            section = [*drawn(use, front=True), *one.row.strokes(above.reach)]
            column = list(repeated(section, one.times, (long, 0.0)))
            for k in range(0, seen, 1 if one.strands == self.strands else 2):
                strokes += shifted(column, at, (k - (seen - 1) / 2) * apart)
            at += long * one.times
        return strokes


def _bead_said(one: OneBead) -> str:
    """Return a bead of a section in words: how many, and how big."""
    size = size_of(one.bead).says
    return say("part.so_many", count=one.times, name=size) if one.times > 1 else size


def _counted(links: list[tuple[WireUse, float]], used: list[int]) -> tuple[WireUse, ...]:
    """Return the wires of sections, alike ones together, each under a name of its own."""
    counts: dict[WireUse, int] = {}
    for (use, _), count in zip(links, used, strict=True):
        counts[use] = counts.get(use, 0) + count
    return tuple(
        WireUse(use.key if i == 0 else f"{use.key}~{i + 1}", use.wire, use.stretches, count)
        for i, (use, count) in enumerate(counts.items())
    )
