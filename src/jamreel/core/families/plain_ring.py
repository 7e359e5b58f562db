"""Bangles without loops or hooks: closed, and open with ends that overlap."""

import math
from abc import ABC, abstractmethod
from collections.abc import Mapping
from dataclasses import dataclass
from typing import ClassVar, Literal

from jamreel.core.advice import Advice
from jamreel.core.advice.opening import hangs_loose, opened_to_go_on, round_radius
from jamreel.core.advice.wire import keeps_shape
from jamreel.core.bench.steps import Step, step
from jamreel.core.body.readings import Girth
from jamreel.core.errors import Refusal
from jamreel.core.families.base import Construction, Job, usually
from jamreel.core.fit.ease import Ease
from jamreel.core.fit.tryon import PuttingRight
from jamreel.core.path.moves import Bend
from jamreel.core.result import Plan
from jamreel.core.values import Dimension, Drawings, Length, PlusMinus, Sheet
from jamreel.core.words import say
from jamreel.core.workpiece.assemble import Fit, as_cut, assemble
from jamreel.core.workpiece.drawing import (
    across,
    former_sheet,
    point_on,
    ring_round,
    section_sheet,
    wire_along,
)
from jamreel.core.workpiece.job import Wire
from jamreel.core.workpiece.ledger import Book
from jamreel.core.workpiece.righting import by_inside_girth, verdict
from jamreel.core.workpiece.steps import cutting_steps, press_in_step, shape_step
from jamreel.core.workpiece.straight import Stretch, lay_straight


@dataclass(frozen=True)
class Round:
    """A ring: the wrist, its ease there, the inside girth, which measure that rests on, and how
    far the ends lie over each other [mm]."""

    wrist: Girth
    ease: Ease
    inside: float
    rests_on: Girth
    overlap: float = 0.0


class PlainRing(Construction, ABC):
    """One bend of wire, ends meeting or passing each other."""

    family: ClassVar[str] = "bangle"
    part: ClassVar[str] = "wrist"

    @abstractmethod
    def ring(self, job: Job, book: Book) -> Round:
        """Return the ring, writing its terms up to the total ``inside`` in the book."""

    @abstractmethod
    def making(self, made: Round) -> list[Step]:
        """Return the steps between shaping and the last look."""

    @abstractmethod
    def own_advice(self, job: Job, wire: Wire, made: Round) -> tuple[Advice | None, ...]:
        """Return judgement calls of this construction."""

    @abstractmethod
    def put_right(self, job: Job, made: Round) -> PuttingRight | None:
        """Return what a try-on asks for."""

    def solve(self, job: Job) -> Plan:
        """Return the plan. Raises Refusal for a hand smaller than the wrist."""
        wire = job.wire_facts()
        book = Book(wire.neutral)
        made = self.ring(job, book)
        steiner = math.pi * wire.neutral
        book.term("half_wire", steiner, "fit.thickness.inside_girth_of", "published", "body")
        if made.overlap:
            book.term(
                "ends_over",
                made.overlap,
                f"families.plain_ring.{type(self).__name__}",
                "chosen",
                "body",
            )
        body = book.total("body", "fit.thickness.inside_girth_of", "cut")
        target = made.inside / math.pi
        bow = Bend(angle=body / ((target + wire.neutral) / 2), pin=target, label=say("bend.body"))
        laid = lay_straight(
            "ring", [Stretch("body", (bow,), "body", ("body", "inside"))], wire, job.cutting
        )
        book.trims(laid.cut)
        cut = book.total("cut", "path.moves.developed_length")
        former = job.former(wire, target)
        pm = made.rests_on.plus_minus_mm
        return assemble(
            job,
            wire,
            kind=self.kind,
            family=self.family,
            finished=PlusMinus(value=body, plus_minus=pm),
            inside=PlusMinus(value=made.inside, plus_minus=pm),
            fit=Fit(made.wrist, made.ease, self.part, None if self.eases else "hangs"),
            offers_ease=self.eases,
            ledger=book.lines,
            rows=[
                ("cut", cut, None),
                ("centre_line", body, pm),
                ("inside", made.inside, pm),
                ("closed_diameter", target, None),
                ("hang", made.inside - made.wrist.value_mm, None),
                ("ends_over", made.overlap or None, None),
                ("former", former.former_mm, None),
                ("step", former.tool_mm, None),
                ("step_result", former.result_mm, None),
            ],
            answers={
                "measure": "inside",
                "make_up": "closed_diameter",
                "cut": "cut",
                "form": "former" if former.tool_mm is None else "step",
                "fit": "inside",
            },
            cuts=(laid.cut,),
            formers=(former,),
            steps=(
                *cutting_steps(laid.cut, job.cutting, hard=wire.metal.hard),
                shape_step(former),
                *self.making(made),
                press_in_step(),
            ),
            advice=(
                as_cut(job, laid.cut),
                *self.own_advice(job, wire, made),
                keeps_shape(job.wire),
            ),
            drawings=Drawings(
                rule=laid.rule(pm),
                sheets=(self.section(job, made, wire.d), former_sheet(former, wire.d)),
            ),
            righting=self.put_right(job, made),
        )

    def section(self, job: Job, made: Round, d: float) -> Sheet:
        """Return the wrist with the ring round it, ends at the top."""
        outline = job.outline("wrist", made.wrist.value_mm)
        gap = (made.inside - made.wrist.value_mm) / (2 * math.pi)
        ring, strokes, low = ring_round(outline, made.ease, gap, d)
        half = made.overlap / 2
        strokes.append(wire_along(ring, -half, ring.length / 2, d, "body", d * 1.1 * bool(half)))
        strokes.append(wire_along(ring, ring.length / 2, ring.length + half, d, "body_end"))
        dims = [across(outline, low, d + 2 * gap, say("drawing.wrist_across"))]
        if half:
            ends = Dimension(
                a=point_on(ring, -half),
                b=point_on(ring, half),
                value_mm=made.overlap,
                label=say("drawing.overlap"),
                offset_mm=4 * d + 2,
            )
            dims.append(ends)
        label = say("drawing.wrist", girth=made.wrist.value_mm)
        return section_sheet(say("drawing.on_the_wrist"), strokes, dims, label)


class ClosedBangle(PlainRing):
    """Soldered or joined into a ring: it must pass the hand, and hangs on the wrist."""

    usual_wire: ClassVar[Mapping[str, str]] = usually("12 awg")
    sites: ClassVar[tuple[str, ...]] = ("wrist_girth", "hand_pass_girth")
    helps: ClassVar[tuple[str, ...]] = ("wrist_breadth", "wrist_depth")
    asks: ClassVar[tuple[str, ...]] = ("passes_hand", "inside_girth", "stays_on")
    ranges: ClassVar[dict[str, tuple[float, float]]] = {"over_hand": (0, 40)}
    eases: ClassVar[bool] = False

    any_section: ClassVar[bool] = True

    kind: Literal["closed_bangle"] = "closed_bangle"
    over_hand: Length = 0.0

    def ring(self, job: Job, book: Book) -> Round:
        """Return the ring that just passes the hand, and whatever more was chosen."""
        wrist, hand = job.girths["wrist_girth"], job.girths["hand_pass_girth"]
        if hand.value_mm < wrist.value_mm:
            raise Refusal(
                "hand_under_wrist",
                got=f"{hand.value_mm:g} mm",
                field="measures.hand_pass_girth",
                wrist=wrist.value_mm,
            )
        book.girth(hand, "inside")
        if self.over_hand:
            book.term(
                "over_hand", self.over_hand, "families.plain_ring.ClosedBangle", "chosen", "inside"
            )
        inside = book.total("inside", "families.plain_ring.ClosedBangle", "body")
        hang = Ease(school="fixed", word=None, value_mm=inside - wrist.value_mm, backing="geometry")
        return Round(wrist, hang, inside, hand)

    def making(self, made: Round) -> list[Step]:
        """Return trying on before the joint is closed for good, soldering, rounding."""
        return [
            step("closed.try_first", "form", check=True, inside=made.inside),
            step("closed.solder", "form", cautions=("torch", "pickle"), check=True),
            step("closed.round", "form", cautions=("hammer",), check=True),
            step("closed.try_on", "fit", check=True),
        ]

    def own_advice(self, job: Job, wire: Wire, made: Round) -> tuple[Advice | None, ...]:
        """Return the note on how far it hangs from the wrist."""
        return (hangs_loose(made.inside, made.wrist.value_mm),)

    def put_right(self, job: Job, made: Round) -> PuttingRight | None:
        """Return what a try-on asks for: take off before soldering, stretch after."""
        tryon = job.tryon
        if tryon is None or tryon.says_nothing:
            return None
        if tryon.inside_girth is not None:
            if tryon.passes_hand is False and tryon.inside_girth >= made.inside - 2:
                return verdict("hand_again", hand=made.rests_on.value_mm)
            return by_inside_girth(
                tryon.inside_girth, made.inside, too_big="closed_big", too_small="closed_small"
            )
        if tryon.passes_hand is False:
            return verdict("closed_measure", inside=made.inside)
        if tryon.stays_on is False:
            return verdict("closed_slides")
        return verdict("fits", settled=True)


class OverlapBangle(PlainRing):
    """Open, its ends passing each other. Source of 5 to 15 overlap: common practice."""

    usual_wire: ClassVar[Mapping[str, str]] = usually("12 awg")
    sites: ClassVar[tuple[str, ...]] = ("wrist_girth",)
    helps: ClassVar[tuple[str, ...]] = ("wrist_breadth", "wrist_depth", "hand_pass_girth")
    asks: ClassVar[tuple[str, ...]] = ("goes_on", "inside_girth", "stays_on")
    ranges: ClassVar[dict[str, tuple[float, float]]] = {"overlap": (1, 60)}

    any_section: ClassVar[bool] = True

    kind: Literal["overlap_bangle"] = "overlap_bangle"
    overlap: Length = 10.0

    def ring(self, job: Job, book: Book) -> Round:
        """Return the ring: wrist and ease, and the ends over each other."""
        wrist = job.girths["wrist_girth"]
        ease = job.ease_on("wrist", wrist.value_mm)
        book.girth(wrist, "inside")
        book.ease(ease, "inside")
        inside = book.total("inside", "fit.ease", "body")
        return Round(wrist, ease, inside, wrist, self.overlap)

    def making(self, made: Round) -> list[Step]:
        """Return rounding the ends and trying on."""
        return [
            step("arc.rounded", "form", cautions=("ends",), check=True),
            step("overlap.try_on", "fit", check=True, overlap=self.overlap),
        ]

    def own_advice(self, job: Job, wire: Wire, made: Round) -> tuple[Advice | None, ...]:
        """Return the warning when opening it to go on would leave it bent."""
        outline = job.outline("wrist", made.wrist.value_mm)
        return (
            opened_to_go_on(
                "roll_on",
                needed=2 * outline.through + self.overlap,
                gap=0.0,
                thickness=wire.fibre,
                radius=round_radius(made.inside, wire.d),
                yield_mpa=wire.yield_mpa,
                youngs=wire.metal.youngs,
            ),
        )

    def put_right(self, job: Job, made: Round) -> PuttingRight | None:
        """Return what a try-on asks for: more or less overlap."""
        tryon = job.tryon
        if tryon is None or tryon.says_nothing:
            return None
        if tryon.inside_girth is not None:
            return by_inside_girth(
                tryon.inside_girth, made.inside, too_big="overlap_more", too_small="overlap_less"
            )
        if tryon.goes_on is False:
            return verdict("cuff_stuck", gap=0.0)
        if tryon.stays_on is False:
            return verdict("cuff_loose")
        return verdict("fits", settled=True)
