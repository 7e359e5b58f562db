"""The strung bracelet: beads and a closure, flexible; thickness is what shortens it."""

import math
from collections.abc import Mapping
from typing import ClassVar, Literal

from jamreel.core.advice import Advice, advise
from jamreel.core.advice.opening import falls_off
from jamreel.core.bench.steps import Step, step
from jamreel.core.cutting.cuts import Cut
from jamreel.core.families.base import Construction, Job, usually
from jamreel.core.fit.ease import Ease
from jamreel.core.fit.thickness import (
    Segment,
    body_length_for,
    inside_girth_of,
    polygon_inside_girth,
)
from jamreel.core.fit.tryon import PuttingRight
from jamreel.core.path.moves import Straight
from jamreel.core.result import Plan
from jamreel.core.values import Drawings, Length, PlusMinus, Sheet, Stroke
from jamreel.core.words import say
from jamreel.core.workpiece.assemble import Fit, as_cut, assemble
from jamreel.core.workpiece.drawing import across, circle, point_on, ring_round, section_sheet
from jamreel.core.workpiece.job import Wire
from jamreel.core.workpiece.ledger import Book
from jamreel.core.workpiece.righting import verdict
from jamreel.core.workpiece.steps import cutting_steps, press_in_step
from jamreel.core.workpiece.straight import Stretch, lay_straight

# Above this the polygon on which rigid beads sit is worth saying [mm].
POLYGON_MATTERS_MM = 0.5


class StrungBracelet(Construction):
    """Round beads of one size on one wire, a closure, and tails to finish with."""

    usual_wire: ClassVar[Mapping[str, str]] = usually("0.5 mm", "copper", "dead_soft")
    family: ClassVar[str] = "bracelet"
    part: ClassVar[str] = "wrist"
    sites: ClassVar[tuple[str, ...]] = ("wrist_girth",)
    helps: ClassVar[tuple[str, ...]] = ("wrist_breadth", "wrist_depth", "hand_pass_girth")
    asks: ClassVar[tuple[str, ...]] = ("inside_girth", "comfortable", "stays_on")
    ranges: ClassVar[dict[str, tuple[float, float]]] = {
        "bead": (1, 40),
        "closure_length": (0, 80),
        "closure_thickness": (0, 20),
        "tail": (5, 150),
    }

    kind: Literal["strung_bracelet"] = "strung_bracelet"
    bead: Length = 8.0
    closure_length: Length = 20.0
    closure_thickness: Length = 3.0
    tail: Length = 50.0
    brittle: bool = False

    def solve(self, job: Job) -> Plan:
        """Return the plan: the string's length for the wrist, then whole beads."""
        wire, wrist = job.wire_facts(), job.girths["wrist_girth"]
        ease, notch = job.ease_on("wrist", wrist.value_mm), self._notch(job)
        closure = Segment(length=self.closure_length, thickness=self.closure_thickness)
        book = Book(wire.d)
        book.girth(wrist, "wanted")
        book.ease(ease, "wanted")
        if notch:
            book.term("brittle", notch, "fit.ease.EaseTable", "common practice", "wanted")
        wanted = book.total("wanted", "fit.ease", "string")
        rule = "fit.thickness.body_length_for"
        body = body_length_for(wanted, [closure], self.bead)
        thick = body + self.closure_length - wanted
        book.term("thickness", thick, rule, "published", "string", bead=self.bead)
        book.total("string", rule, "body")
        book.term("less_closure", -self.closure_length, rule, "chosen", "body")
        beads = max(1, round(body / self.bead))
        spare = beads * self.bead - body
        book.term("whole_beads", spare, rule, "geometry", "body", beads=beads, bead=self.bead)
        made = book.total("body", rule, "cut")
        for key in ("tail_left", "tail_right"):
            book.term(key, self.tail, "families.strung_bracelet", "chosen", "cut")
        book.term("through_closure", self.closure_length, rule, "chosen", "cut")
        string = [Segment(length=made, thickness=self.bead), closure]
        inside = inside_girth_of(string)
        finished = made + self.closure_length
        stretches = [
            Stretch("tail_left", (Straight(length=self.tail),)),
            Stretch(
                "beads", (Straight(length=made),), "body", ("body", "whole_beads", "thickness")
            ),
            Stretch("closure", (Straight(length=self.closure_length),), "part", ("less_closure",)),
            Stretch("tail_right", (Straight(length=self.tail),)),
        ]
        laid = lay_straight("string", stretches, wire, job.cutting)
        book.trims(laid.cut)
        cut = book.total("cut", "families.strung_bracelet")
        pm = wrist.plus_minus_mm
        got = ease.model_copy(update={"value_mm": inside - wrist.value_mm})
        hand = job.girths.get("hand_pass_girth")
        slides = hand is not None and inside >= hand.value_mm
        return assemble(
            job,
            wire,
            kind=self.kind,
            family=self.family,
            finished=PlusMinus(value=finished, plus_minus=pm),
            inside=PlusMinus(value=inside, plus_minus=pm),
            fit=Fit(wrist, got, "wrist", "falls_off" if slides else None),
            ledger=book.lines,
            rows=[
                ("cut", cut, None),
                ("finished", finished, pm),
                ("worn", inside, pm),
                ("beads", made, None),
                ("lost", finished - inside, None),
            ],
            answers={
                "measure": "worn",
                "make_up": "finished",
                "cut": "cut",
                "form": "beads",
                "fit": "worn",
            },
            cuts=(laid.cut,),
            steps=self._steps(job, wire, laid.cut, beads, inside),
            advice=(
                as_cut(job, laid.cut),
                advise(
                    "bead_count", "note", "piece.bead", beads=beads, bead=self.bead, inside=inside
                ),
                self._polygon(beads),
                falls_off(inside, hand.value_mm if hand else None),
            ),
            drawings=Drawings(
                rule=laid.rule(pm), sheets=(self._section(job, wrist.value_mm, got, beads, wire.d),)
            ),
            righting=self._put_right(job, inside),
            mass_g=None,
        )

    def _steps(self, job: Job, wire: Wire, cut: Cut, beads: int, inside: float) -> tuple[Step, ...]:
        """Return the order of work: tried on before it is finished."""
        return (
            *cutting_steps(cut, job.cutting, hard=wire.metal.hard),
            step("strung.string", "form", beads=beads, check=True),
            step("strung.try_first", "form", check=True, inside=inside),
            step("strung.finish", "form", tail=self.tail, check=True),
            step("strung.try_on", "fit", cautions=("beads",), check=True),
            press_in_step(),
        )

    def _notch(self, job: Job) -> float:
        return job.table("wrist").brittle_mm if self.brittle else 0.0

    def _polygon(self, beads: int) -> Advice | None:
        """Return a note when straight beads on a bend leave less room than a smooth ring would."""
        if beads < 3:
            return None
        smooth = beads * self.bead - math.pi * self.bead
        off = smooth - polygon_inside_girth(self.bead, beads, self.bead)
        if abs(off) < POLYGON_MATTERS_MM:
            return None
        return advise("polygon", "note", "piece.bead", off=abs(off))

    def _section(self, job: Job, girth: float, ease: Ease, beads: int, d: float) -> Sheet:
        outline = job.outline("wrist", girth)
        gap = ease.value_mm / (2 * math.pi)
        ring, strokes, low = ring_round(outline, None, gap + self.bead / 2 - d / 2, d)
        start = self.closure_length / 2
        for i in range(beads):
            at = point_on(ring, start + (i + 0.5) * (ring.length - self.closure_length) / beads)
            strokes.append(
                Stroke(part=f"bead {i}", points=circle(at, self.bead / 2, 24), closed=True)
            )
        run = [point_on(ring, start * k / 6) for k in range(-6, 7)]
        strokes.append(
            Stroke(part="closure", points=tuple(run), width_mm=max(0.5, self.closure_thickness))
        )
        dims = [across(outline, low + self.bead, d, say("drawing.wrist_across"))]
        label = say("drawing.wrist", girth=girth)
        return section_sheet(
            say("drawing.on_the_wrist"), strokes, dims, label, ("measure", "make_up", "fit")
        )

    def _put_right(self, job: Job, inside: float) -> PuttingRight | None:
        tryon = job.tryon
        if tryon is None or tryon.says_nothing:
            return None
        if tryon.inside_girth is not None:
            off = tryon.inside_girth - inside
            if abs(off) <= self.bead / 2:
                return verdict("as_planned", settled=True, open=tryon.inside_girth)
            beads = max(1, round(abs(off) / self.bead))
            key = "beads_off" if off > 0 else "beads_on"
            return verdict(key, amount=beads * self.bead, beads=beads, off=abs(off))
        if tryon.comfortable is False:
            return verdict("beads_on", amount=self.bead, beads=1, off=self.bead)
        if tryon.stays_on is False:
            return verdict("beads_off", amount=self.bead, beads=1, off=self.bead)
        return verdict("fits", settled=True)
