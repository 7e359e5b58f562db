"""Open rings: an arc of one wire round part of the body. The base of cuffs, circlets, tiaras."""

import math
from abc import ABC, abstractmethod
from dataclasses import dataclass
from typing import ClassVar

from jamreel.core.advice import Advice
from jamreel.core.advice.sliding import pin_missing
from jamreel.core.advice.wire import keeps_shape
from jamreel.core.bench.steps import Step, step
from jamreel.core.body.outline import Outline
from jamreel.core.body.readings import Girth
from jamreel.core.cutting.cuts import Cut
from jamreel.core.families.base import Choice, Construction, Job
from jamreel.core.fit.ease import Ease
from jamreel.core.fit.thickness import arc_centre_length
from jamreel.core.fit.tryon import PuttingRight
from jamreel.core.forming.tools import Former
from jamreel.core.path.moves import Bend, Move, bend_length
from jamreel.core.result import Plan
from jamreel.core.values import Dimension, Drawings, Length, PlusMinus, Sheet
from jamreel.core.words import say
from jamreel.core.workpiece.assemble import Fit, as_cut, assemble
from jamreel.core.workpiece.drawing import (
    across,
    former_sheet,
    loop_at,
    pin_sheet,
    point_on,
    ring_round,
    section_sheet,
    wire_along,
)
from jamreel.core.workpiece.job import Wire
from jamreel.core.workpiece.ledger import Book
from jamreel.core.workpiece.steps import cutting_steps, press_in_step, shape_step
from jamreel.core.workpiece.straight import Stretch, lay_straight

TURN = 2 * math.pi


@dataclass(frozen=True)
class Arc:
    """What an open ring covers: its measure and ease, the whole inside girth that it is a part
    of, the arc along its inside, and what it leaves open [mm]."""

    girth: Girth
    ease: Ease | None
    inside_girth: float
    inner_arc: float
    opening: float | None


class OpenArc(Construction, ABC):
    """An arc with filed ends, or with end loops for ribbon, elastic, pins or combs."""

    looped: ClassVar[bool] = True
    loop_pin: Length = 3.0

    @classmethod
    def choices(cls) -> tuple[Choice, ...]:
        """Return what is asked; no pin where there are no loops."""
        return tuple(c for c in super().choices() if cls.looped or c.name != "loop_pin")

    @abstractmethod
    def arc(self, job: Job, book: Book) -> Arc:
        """Return the arc, writing its terms up to the total ``inner_arc`` in the book."""

    @abstractmethod
    def try_on_steps(self, job: Job, arc: Arc) -> list[Step]:
        """Return the steps at the Fit station."""

    @abstractmethod
    def put_right(self, job: Job, arc: Arc) -> PuttingRight | None:
        """Return what a try-on asks for."""

    def own_advice(self, job: Job, arc: Arc, wire: Wire) -> tuple[Advice | None, ...]:
        """Return judgement calls of this construction."""
        return ()

    def ends_moves(self, label: str) -> tuple[Move, ...]:
        """Return an end loop, turned outwards."""
        return (Bend(angle=TURN, pin=self.loop_pin, side="right", label=label),)

    def solve(self, job: Job) -> Plan:
        """Return the plan. Raises Refusal for choices that leave no arc."""
        wire, book = job.wire_facts(), Book(job.wire_facts().neutral)
        arc = self.arc(job, book)
        centre = arc_centre_length(arc.inner_arc, arc.inside_girth, wire.neutral)
        book.term(
            "half_wire_arc",
            centre - arc.inner_arc,
            "fit.thickness.arc_centre_length",
            "published",
            "body",
        )
        book.total("body", "fit.thickness.arc_centre_length", "cut")
        target = arc.inside_girth / math.pi
        bow = Bend(angle=centre / ((target + wire.neutral) / 2), pin=target, label=say("bend.body"))
        stretches = [Stretch("body", (bow,), "body", ("body", "half_wire_arc", "inner_arc"))]
        if self.looped:
            loop = bend_length(TURN, self.loop_pin, wire.neutral)
            for key in ("loop_left", "loop_right"):
                rule = "path.moves.bend_length"
                book.term(key, loop, rule, "published", "cut", pin=self.loop_pin)
            left = Stretch("loop_left", self.ends_moves(say("bend.loop_left")))
            right = Stretch("loop_right", self.ends_moves(say("bend.loop_right")))
            stretches = [left, *stretches, right]
        laid = lay_straight("arc", stretches, wire, job.cutting)
        book.trims(laid.cut)
        cut = book.total("cut", "path.moves.developed_length")
        former = job.former(wire, target)
        pm = arc.girth.plus_minus_mm
        inside = PlusMinus(value=arc.inside_girth, plus_minus=pm) if arc.ease else None
        return assemble(
            job,
            wire,
            kind=self.kind,
            family=self.family,
            finished=PlusMinus(value=centre, plus_minus=pm),
            inside=inside,
            fit=Fit(arc.girth, arc.ease, self.part) if arc.ease else None,
            ledger=book.lines,
            rows=[
                ("cut", cut, None),
                ("centre_line", centre, pm),
                ("inner_arc", arc.inner_arc, pm),
                ("worn", inside.value if inside else None, pm),
                ("opening", arc.opening, None),
                ("former", former.former_mm, None),
                ("step", former.tool_mm, None),
                ("step_result", former.result_mm, None),
            ],
            answers={
                "measure": "worn" if inside else "inner_arc",
                "make_up": "centre_line",
                "cut": "cut",
                "form": "former" if former.tool_mm is None else "step",
                "fit": "inner_arc" if arc.opening is None else "opening",
            },
            cuts=(laid.cut,),
            bends=tuple(job.on_pin(wire, bend) for bend in laid.bends),
            formers=(former,),
            steps=self._steps(job, wire, laid.cut, former, arc),
            advice=(
                as_cut(job, laid.cut),
                *self.own_advice(job, arc, wire),
                keeps_shape(job.wire),
                pin_missing(self.loop_pin, job.nearest_pin(self.loop_pin)) if self.looped else None,
            ),
            drawings=Drawings(
                rule=laid.rule(pm),
                sheets=(
                    self.section(job, arc, wire.d),
                    *([pin_sheet(self.loop_pin, wire.d, say("drawing.end_loop"))] * self.looped),
                    former_sheet(former, wire.d),
                ),
            ),
            righting=self.put_right(job, arc),
        )

    def _steps(self, job: Job, wire: Wire, cut: Cut, former: Former, arc: Arc) -> tuple[Step, ...]:
        """Return the order of work."""
        return (
            *cutting_steps(cut, job.cutting, hard=wire.metal.hard),
            *self.end_steps(),
            shape_step(former),
            step(f"arc.{self.part}", "form", check=True),
            *self.try_on_steps(job, arc),
            press_in_step(),
        )

    def end_steps(self) -> list[Step]:
        """Return the making of the ends."""
        if self.looped:
            return [step("arc.loops", "form", pin=self.loop_pin, check=True)]
        return [step("arc.rounded", "form", cautions=("ends",), check=True)]

    def outline(self, job: Job, arc: Arc) -> Outline:
        """Return the outline that the arc lies round."""
        return job.outline(self.part, arc.girth.value_mm)

    def section(self, job: Job, arc: Arc, d: float) -> Sheet:
        """Return the body in section with the arc round it, open at the bottom."""
        outline = self.outline(job, arc)
        gap = (arc.ease.value_mm if arc.ease else 0.0) / TURN
        ring, strokes, low = ring_round(outline, arc.ease, gap, d)
        centre = arc_centre_length(arc.inner_arc, arc.inside_girth, d)
        strokes.append(wire_along(ring, -centre / 2, centre / 2, d, "body"))
        if self.looped:
            off = (self.loop_pin + d) / 2
            strokes += [
                loop_at(ring, sign * (centre / 2 + off), self.loop_pin, d, key)
                for key, sign in (("loop_left", -1), ("loop_right", 1))
            ]
        dims = []
        if arc.opening is not None and arc.inner_arc > arc.inside_girth / 2:
            dims = [
                Dimension(
                    a=point_on(ring, -centre / 2),
                    b=point_on(ring, centre / 2),
                    value_mm=arc.opening,
                    label=say("drawing.opening"),
                    offset_mm=-(self.loop_pin + 7 if self.looped else 6),
                ),
            ]
        return section_sheet(
            say(f"drawing.on_the_{self.part}"),
            strokes,
            [
                across(outline, low + (18 if dims else 0), d, say(f"drawing.{self.part}_across")),
                *dims,
            ],
            say(f"drawing.{self.part}", girth=arc.girth.value_mm),
        )
