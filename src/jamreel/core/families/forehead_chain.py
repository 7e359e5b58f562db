"""The forehead chain: two chains across the brow, one down the parting, one ring."""

import math
from typing import ClassVar, Literal

from jamreel.core.bench.steps import step
from jamreel.core.body.readings import Girth
from jamreel.core.errors import Refusal
from jamreel.core.families.base import Construction, Job
from jamreel.core.fit.fall import hang
from jamreel.core.fit.tryon import PuttingRight
from jamreel.core.result import Plan
from jamreel.core.values import (
    Dimension,
    Drawings,
    Label,
    Length,
    PlusMinus,
    RuleDrawing,
    Sheet,
    Span,
    Stroke,
)
from jamreel.core.words import say
from jamreel.core.workpiece.assemble import assemble
from jamreel.core.workpiece.chain import MASS_RANGE, PITCH_RANGE, chain_cut, whole_links
from jamreel.core.workpiece.drawing import circle, points_of
from jamreel.core.workpiece.job import Wire
from jamreel.core.workpiece.ledger import Book
from jamreel.core.workpiece.righting import verdict
from jamreel.core.workpiece.steps import press_in_step


class ForeheadChain(Construction):
    """Two chains across the brow and one down the parting; the three meet at one ring."""

    family: ClassVar[str] = "headpiece"
    part: ClassVar[str] = "head"
    sites: ClassVar[tuple[str, ...]] = ("brow_arc", "parting_arc")
    asks: ClassVar[tuple[str, ...]] = ("comfortable", "stays_on")
    ranges: ClassVar[dict[str, tuple[float, float]]] = {
        "pitch": PITCH_RANGE,
        "thickness": (0.4, 15),
        "ring": (2, 20),
        "drape": (0, 80),
        "pendant_drop": (0, 120),
        "mass_per_m": MASS_RANGE,
    }
    eases: ClassVar[bool] = False
    wired: ClassVar[bool] = False

    kind: Literal["forehead_chain"] = "forehead_chain"
    pitch: Length = 3.0
    thickness: Length = 1.6
    ring: Length = 5.0
    drape: Length = 10.0
    pendant_drop: Length = 20.0
    mass_per_m: float = 7.0

    def solve(self, job: Job) -> Plan:
        """Return the plan: each chain ends at the ring, whose width it need not cover."""
        brow, parting = job.girths["brow_arc"], job.girths["parting_arc"]
        wire = job.wire_facts()
        side = (brow.value_mm + self.drape - self.ring) / 2
        centre = parting.value_mm - self.ring / 2
        if min(side, centre) < self.pitch:
            raise Refusal("ring_wide", got=f"{self.ring:g} mm", field="piece.ring")
        sides, drop = whole_links(side, self.pitch), whole_links(centre, self.pitch)
        book, rule = Book(self.thickness), "workpiece.chain.whole_links"
        book.girth(brow, "side_chains")
        book.term("drape", self.drape, "families.forehead_chain", "chosen", "side_chains")
        book.term("less_ring", -self.ring, "families.forehead_chain", "chosen", "side_chains")
        spare = 2 * sides * self.pitch - 2 * side
        book.term("to_links", spare, rule, "geometry", "side_chains", pitch=self.pitch)
        both = book.total("side_chains", rule)
        book.girth(parting, "parting_chain")
        book.term(
            "less_half_ring", -self.ring / 2, "families.forehead_chain", "chosen", "parting_chain"
        )
        spare = drop * self.pitch - centre
        book.term("to_links_drop", spare, rule, "geometry", "parting_chain", pitch=self.pitch)
        down = book.total("parting_chain", rule)
        metal = wire.metal.name
        chains = both + down
        return assemble(
            job,
            wire,
            kind=self.kind,
            family=self.family,
            finished=PlusMinus(value=both + self.ring, plus_minus=brow.plus_minus_mm),
            inside=None,
            fit=None,
            ledger=book.lines,
            rows=[
                ("side_chain", both / 2, None),
                ("parting_chain", down, None),
                ("brow_line", both + self.ring, brow.plus_minus_mm),
                ("chains", chains, None),
            ],
            answers={
                "measure": "brow_line",
                "make_up": "chains",
                "cut": "side_chain",
                "form": "side_chain",
                "fit": "parting_chain",
            },
            cuts=(
                chain_cut("side", sides, self.pitch, self.thickness, metal, 2),
                chain_cut("parting", drop, self.pitch, self.thickness, metal),
            ),
            steps=(
                step(
                    "forehead.count", "cut", cautions=("eyes",), check=True, sides=sides, drop=drop
                ),
                step("forehead.join", "form", check=True),
                step("forehead.try_on", "fit", cautions=("head",), check=True),
                press_in_step(),
            ),
            drawings=Drawings(
                rule=self._rule(both / 2, brow), sheets=(self._sheet(brow.value_mm, down, wire),)
            ),
            righting=self._put_right(job),
            mass_g=self.mass_per_m * chains / 1000,
        )

    def _rule(self, side: float, brow: Girth) -> RuleDrawing:
        ends = (0.0, side, side + self.ring, 2 * side + self.ring)
        keys = ("chain_side", "ring", "chain_side_right")
        spans = tuple(
            Span(
                id=key,
                label=say(f"part.{key}"),
                from_mm=ends[i],
                to_mm=ends[i + 1],
                kind="part" if key == "ring" else "body",
                ledger=("less_ring",) if key == "ring" else ("side_chains",),
            )
            for i, key in enumerate(keys)
        )
        return RuleDrawing(
            length_mm=ends[-1],
            spans=spans,
            ticks_mm=ends,
            band=PlusMinus(value=ends[-1], plus_minus=brow.plus_minus_mm),
            width_mm=self.thickness,
        )

    def _sheet(self, brow: float, down: float, wire: Wire) -> Sheet:
        """Return the forehead from the front: two chains, the parting, the ring and the pendant."""
        half = brow * 0.46
        fall = hang(2 * half, 2 * half + max(self.drape, 4.0) + 6)
        line = fall.points()
        low = -fall.sag
        head = [
            (half * 1.12 * math.cos(t), 24 + half * 1.25 * math.sin(t) - half * 0.25)
            for t in [math.radians(a) for a in range(-30, 211, 6)]
        ]
        top = low + down
        return Sheet(
            id="brow",
            title=say("drawing.brow"),
            stations=("measure", "make_up", "fit"),
            strokes=(
                Stroke(part="skin", points=tuple((round(x, 2), round(y, 2)) for x, y in head)),
                Stroke(part="side_chains", points=points_of(line), width_mm=self.thickness),
                Stroke(
                    part="parting_chain",
                    points=((0.0, low + self.ring / 2), (0.0, top)),
                    width_mm=self.thickness,
                ),
                Stroke(
                    part="less_ring",
                    points=circle((0.0, low), self.ring / 2),
                    closed=True,
                    width_mm=1.0,
                ),
                Stroke(
                    part="pendant",
                    points=circle(
                        (0.0, low - self.ring / 2 - self.pendant_drop / 2), self.pendant_drop / 2
                    ),
                    closed=True,
                ),
            ),
            dimensions=(
                Dimension(
                    a=(-half, 0.0),
                    b=(half, 0.0),
                    value_mm=brow,
                    label=say("drawing.brow_arc"),
                    offset_mm=-(fall.sag + self.pendant_drop + 14),
                ),
            ),
            labels=(
                Label(at=(5.0, top - 12), text=say("drawing.parting", length=down), anchor="start"),
            ),
        )

    def _put_right(self, job: Job) -> PuttingRight | None:
        tryon = job.tryon
        if tryon is None or tryon.says_nothing:
            return None
        if tryon.comfortable is False:
            return verdict("forehead_tight", pitch=self.pitch)
        if tryon.stays_on is False:
            return verdict("forehead_slips", pitch=self.pitch)
        return verdict("fits", settled=True)
