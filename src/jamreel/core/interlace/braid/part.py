"""The three-strand braid, plain or with a bead at each crossing."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import ClassVar, Literal

from jamreel.core.advice.weaving import braid_gapes, stiff_strands
from jamreel.core.choices import choice, like
from jamreel.core.errors import Refusal
from jamreel.core.forming.band import Lengthwise
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.palette import Palette
from jamreel.core.interlace.base import USUAL_FINE_MM, OfRoundBeads, passes
from jamreel.core.interlace.body import Body, BodySize, BodyWires, Look, Takes, Work
from jamreel.core.interlace.braid.geometry import (
    CROSSINGS,
    GAPES,
    JAMS,
    LEAST_GAP,
    BeadedBraid,
    PlainBraid,
    strand_of,
)
from jamreel.core.interlace.cells import Cell
from jamreel.core.interlace.strand_ends import HELD_MM, OVER_MM, Kind, StrandEnd, bindings
from jamreel.core.parts.base import part_step
from jamreel.core.units import Mm
from jamreel.core.values import Length, OptionalLength
from jamreel.core.wire.holes import circles_factor

# Six crossings of a plain braid in so many strands, and a gap between beads of so many; usual.
USUAL_PITCH, USUAL_GAP = 9.0, 2.0


@dataclass(frozen=True)
class _Plaited:
    """What a row of either sort comes to [mm]: a crossing, or a bead."""

    pitch: float
    takes: float
    firm: float
    width: float
    thickness: float
    cell: Cell


class Braid(OfRoundBeads):
    """Three strands of one wire or several, folded together or hooked on at the start.

    Rows are crossings, or beads. A ``gap`` that is left blank is two strands.
    """

    only_if: ClassVar[Mapping[str, tuple[str, ...]]] = {
        **dict.fromkeys(("bead", "hole", "stuff", "colour"), ("braided", "beads"))
    }

    kind: Literal["braid"] = "braid"
    first: ClassVar[tuple[str, ...]] = ("rows", "braided", "each", "ends", "wire")
    braided: Literal["plain", "beads"] = "plain"
    hole: Length = like(OfRoundBeads, "hole", 2.5)
    each: int = choice(2, 1, 7)
    gap: OptionalLength = choice(None, 0.2, 30, when=("braided", "beads"))
    ends: Literal["own", "bare"] = "own"
    begins: Literal["fold", "hooked"] = choice("fold", when=("ends", "own"))
    finishes: Literal["eye", "hook"] = choice("eye", when=("ends", "own"))
    pin: Length = like(OfRoundBeads, "pin", 4.0, when=("ends", "own"))
    hook_pin: Length = choice(5.0, 1.5, 20, when=("finishes", "hook"))
    shank: Length = choice(10.0, 3, 60, when=("finishes", "hook"))

    def working(self, wires: Palette) -> Wire:
        """Return the wire of its strands: its own, else the body's."""
        return wires.of("body", self.wire)

    @property
    def row_key(self) -> str:
        """A crossing or a bead."""
        return "braid_beads" if self.braided == "beads" else "braid"

    @property
    def stuffs(self) -> frozenset[str]:
        """What its beads are made of."""
        return frozenset((self.stuff,)) if self.braided == "beads" else frozenset()

    def _plain(self, wires: Palette, d: float) -> _Plaited:
        strand = strand_of(self.each, d)
        pitch = self.pitched(USUAL_PITCH * strand / CROSSINGS, wires)
        one = PlainBraid(strand, pitch * CROSSINGS)
        if one.pitch < JAMS * strand - 1e-9:
            raise Refusal("braid_jams", got=Mm(one.pitch), field="sample_rows", least=JAMS * strand)
        cell = one.cell(self.each, d)
        return _Plaited(pitch, one.take_up * pitch, pitch, one.width, one.thickness, cell)

    def _beaded(self, d: float) -> _Plaited:
        strand = strand_of(self.each, d)
        passes((self.one,), strand, 1)
        gap = USUAL_GAP * strand if self.gap is None else self.gap
        if gap < LEAST_GAP * strand - 1e-9:
            raise Refusal("gap_braided", got=Mm(gap), field="gap", least=LEAST_GAP * strand)
        one = BeadedBraid(self.bead, strand, gap)
        crosses, straight = one.takes
        cell = one.cell(self.colour, self.each, d)
        takes = crosses + straight
        return _Plaited(one.pitch, takes, straight, one.width, one.thickness, cell)

    def _folded(self) -> bool:
        """Return whether its wires are folded; raises Refusal for strands that don't come out."""
        if self.ends == "bare" or self.begins != "fold":
            return False
        if self.each % 2:
            raise Refusal(
                "fold_uneven", got=self.each, field="each", fewer=self.each - 1, more=self.each + 1
            )
        return True

    def _ends(self, w: Wire, binding: Wire, wires: Palette) -> tuple[StrandEnd, StrandEnd]:
        count = 3 * self.each
        thick = circles_factor(count) * w.d
        begins: Kind = "bare" if self.ends == "bare" else self.begins
        finishes: Kind = "bare" if self.ends == "bare" else self.finishes
        pin = self.hook_pin if finishes == "hook" else self.pin
        over = wires.in_cap_or(OVER_MM)
        return (
            StrandEnd(begins, w, count, thick, binding, self.pin, over=over),
            StrandEnd(finishes, w, count, thick, binding, pin, self.shank, over=over),
        )

    def body(self, wires: Palette) -> Body:
        """Return the braid. Raises Refusal for crossings or beads that strands jam between, holes
        that don't pass a strand, and wires that can't be folded into three strands."""
        w = self.working(wires)
        binding = wires.of("winding", None, usual=USUAL_FINE_MM)
        folded = self._folded()
        row = self._beaded(w.d) if self.braided == "beads" else self._plain(wires, w.d)
        left, right = self._ends(w, binding, wires)
        times = 2 if folded else 1
        held = (("tail_start", HELD_MM),)
        long, strand = self.rows * row.pitch, strand_of(self.each, w.d)
        beaded = self.braided == "beads"
        both, begins = (left.ends, right.ends), left.reach
        bound = bindings((left, right), (begins, begins + long))
        return Body(
            size=BodySize(
                pitch=row.pitch,
                width=max(row.width, left.thick),
                thickness=max(row.thickness, left.thick),
                before=left.reach,
                behind=right.reach,
                ends=(both[0], both[1]) if both[0] and both[1] else None,
                hooked=right.thick if right.kind == "hook" else 0.0,
                first=row.pitch / 2 if beaded else 0.0,
            ),
            wires=BodyWires(
                working=w,
                worked=(
                    Takes(
                        "braid_strand",
                        (times * row.takes,),
                        3 * self.each // times,
                        folded=folded,
                        firm=times * row.firm,
                        whole=True,
                        runs=times,
                        fore=left.takes if folded else (*held, *left.takes[:-1][::-1]),
                        aft=right.takes,
                    ),
                ),
                core=w.d,
                lengthwise=(Lengthwise(w, 3 * self.each),),
                frame=bound,
                beads=((self.one,),) if beaded else ((),),
            ),
            look=Look(
                cell=lambda: row.cell,
                frame_strokes=(
                    *left.strokes(begins, left=True),
                    *right.strokes(begins + long, left=False),
                    *(stroke for one in bound for stroke in one.shown),
                ),
            ),
            work=self._work(left, right, row.pitch),
            holds=(*left.holds, *right.holds),
            advice=(
                braid_gapes(CROSSINGS * row.pitch, GAPES * strand) if not beaded else None,
                stiff_strands(w, self.spare, counted=self.sample is not None),
            ),
        )

    def _work(self, left: StrandEnd, right: StrandEnd, pitch: float) -> Work:
        """Return its steps."""
        beaded = self.braided == "beads"
        return Work(
            begin=(
                part_step(
                    f"braid_{left.kind}",
                    name="braid_start",
                    check=True,
                    wires=3 * self.each,
                    pin=self.pin,
                ),
            ),
            row_steps=(
                part_step(
                    "braid_beads" if beaded else "braid_plain",
                    name="braid",
                    check=True,
                    rows=self.rows,
                    pitch=CROSSINGS * pitch,
                ),
            ),
            finish=(
                part_step(
                    f"braid_end_{right.kind}",
                    name="braid_end",
                    cautions=("eyes", "ends"),
                    check=True,
                    pin=right.pin,
                    over=right.takes[0][1],
                ),
            ),
            row_minutes=1.0 if beaded else 0.15,
        )
