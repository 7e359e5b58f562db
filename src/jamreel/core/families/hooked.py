"""Rings of one wire that fasten with a hook and an eye: the base of bracelets and neck rings."""

import math
from abc import ABC
from typing import ClassVar

from jamreel.core.advice import Advice
from jamreel.core.advice.opening import eye_takes_hook, falls_off, opened_to_go_on, round_radius
from jamreel.core.advice.sliding import pin_missing
from jamreel.core.advice.wire import keeps_shape
from jamreel.core.bench.steps import Step, step
from jamreel.core.cutting.cuts import Cut
from jamreel.core.families.base import Construction, Job
from jamreel.core.fit.ease import Ease
from jamreel.core.fit.tryon import PuttingRight
from jamreel.core.forming.tools import Former
from jamreel.core.path.bearings import hook_bearing, loop_bearing
from jamreel.core.path.moves import Bend, Move, Straight, Turn, developed_length
from jamreel.core.result import Plan
from jamreel.core.values import Drawings, Length, PlusMinus, Sheet
from jamreel.core.words import say
from jamreel.core.workpiece.assemble import Fit, as_cut, assemble
from jamreel.core.workpiece.drawing import (
    across,
    former_sheet,
    loop_at,
    pin_sheet,
    ring_round,
    section_sheet,
    wire_along,
)
from jamreel.core.workpiece.job import Wire
from jamreel.core.workpiece.ledger import Book
from jamreel.core.workpiece.righting import by_inside_girth, verdict
from jamreel.core.workpiece.steps import cutting_steps, press_in_step, shape_step
from jamreel.core.workpiece.straight import Stretch, lay_straight

TURN = 2 * math.pi


class HookedRing(Construction, ABC):
    """A crook hook with a curled tip at one end, an eye at the other, a body between.

    The finished length runs from the hook's inside apex to the eye's, along the wire's middle.
    """

    girth_site: ClassVar[str]
    family: ClassVar[str]
    asks: ClassVar[tuple[str, ...]] = ("goes_on", "inside_girth", "comfortable")
    ranges: ClassVar[dict[str, tuple[float, float]]] = {
        "hook_pin": (2, 25),
        "eye_pin": (2, 25),
        "tip_pin": (1, 12),
        "leg": (2, 40),
    }

    hook_pin: Length = 5.0
    eye_pin: Length = 6.0
    tip_pin: Length = 2.0
    leg: Length = 6.0

    def hook_moves(self) -> tuple[Move, ...]:
        """Return the hook: the tip curled outwards, the return leg, the crook."""
        return (
            Bend(angle=0.75 * TURN, pin=self.tip_pin, side="right", label=say("bend.tip")),
            Straight(length=self.leg),
            Bend(angle=TURN / 2, pin=self.hook_pin, side="left", label=say("bend.hook")),
        )

    def eye_moves(self) -> tuple[Move, ...]:
        """Return the eye: one turn, square to the hook."""
        return (
            Turn(angle=TURN / 4),
            Bend(angle=TURN, pin=self.eye_pin, side="left", label=say("bend.eye")),
        )

    def solve(self, job: Job) -> Plan:
        """Return the plan. Raises Refusal for an ease that is none."""
        wire = job.wire_facts()
        girth = job.girths[self.girth_site]
        ease = job.ease_on(self.part, girth.value_mm)
        book = Book(wire.d)
        book.girth(girth, "worn")
        book.ease(ease, "worn")
        worn = book.total("worn", "fit.ease", "finished")
        steiner = math.pi * wire.d
        book.term("half_wire", steiner, "fit.thickness.inside_girth_of", "published", "finished")
        finished = book.total("finished", "fit.thickness.inside_girth_of", "body")
        eye_at = loop_bearing(self.eye_pin, wire.d)
        book.term(
            "less_eye", -eye_at, "path.bearings.loop_bearing", "geometry", "body", pin=self.eye_pin
        )
        hook_at = hook_bearing(self.hook_pin)
        book.term(
            "less_hook",
            -hook_at,
            "path.bearings.hook_bearing",
            "geometry",
            "body",
            pin=self.hook_pin,
        )
        body = book.total("body", "fit.thickness", "cut")
        target = worn / math.pi
        stretches = [
            Stretch("hook", self.hook_moves()),
            Stretch("body", (_bow(body, target, wire.d),), "body", ("body", "finished", "worn")),
            Stretch("eye", self.eye_moves()),
        ]
        laid = lay_straight("ring", stretches, wire, job.cutting)
        rule = "path.moves.bend_length"
        hook = developed_length(self.hook_moves(), wire.d)
        book.term("hook", hook, rule, "published", "cut", pin=self.hook_pin, leg=self.leg)
        eye = developed_length(self.eye_moves(), wire.d)
        book.term("eye", eye, rule, "published", "cut", pin=self.eye_pin)
        book.trims(laid.cut)
        cut = book.total("cut", "path.moves.developed_length")
        former = job.former(wire, target)
        pm = girth.plus_minus_mm
        return assemble(
            job,
            wire,
            kind=self.kind,
            family=self.family,
            finished=PlusMinus(value=finished, plus_minus=pm),
            inside=PlusMinus(value=worn, plus_minus=pm),
            fit=Fit(girth, ease, self.part, self.word(job, worn)),
            ledger=book.lines,
            rows=[
                ("cut", cut, None),
                ("finished", finished, pm),
                ("worn", worn, pm),
                ("body", body, pm),
                ("closed_diameter", target, None),
                ("former", former.former_mm, None),
                ("step", former.tool_mm, None),
                ("step_result", former.result_mm, None),
            ],
            answers={
                "measure": "worn",
                "make_up": "finished",
                "cut": "cut",
                "form": "former" if former.tool_mm is None else "step",
                "fit": "worn",
            },
            cuts=(laid.cut,),
            bends=tuple(job.on_pin(wire, bend) for bend in laid.bends),
            formers=(former,),
            steps=self._steps(job, wire, laid.cut, former, worn),
            advice=(
                as_cut(job, laid.cut),
                eye_takes_hook(self.eye_pin, self.tip_pin + 2 * wire.d),
                self.opening(job, wire, worn),
                self.sliding_off(job, worn),
                keeps_shape(job.wire),
                pin_missing(self.hook_pin, job.nearest_pin(self.hook_pin), "piece.hook_pin"),
                pin_missing(self.eye_pin, job.nearest_pin(self.eye_pin), "piece.eye_pin"),
            ),
            drawings=Drawings(
                rule=laid.rule(pm),
                sheets=(
                    self.section(job, ease, girth.value_mm, wire.d),
                    pin_sheet(self.eye_pin, wire.d, say("drawing.eye")),
                    former_sheet(former, wire.d),
                ),
            ),
            righting=self.put_right(job, worn, eye),
        )

    def _steps(
        self, job: Job, wire: Wire, cut: Cut, former: Former, worn: float
    ) -> tuple[Step, ...]:
        """Return the order of work: tip, hook, eye, then the shape."""
        return (
            *cutting_steps(cut, job.cutting, hard=wire.metal.hard),
            step("hooked.tip", "form", pin=self.tip_pin),
            step("hooked.hook", "form", pin=self.hook_pin, check=True),
            step("hooked.eye", "form", pin=self.eye_pin, check=True),
            shape_step(former),
            step(f"hooked.try_on_{self.part}", "fit", check=True, worn=worn),
            press_in_step(),
        )

    def word(self, job: Job, worn: float) -> str | None:
        """Return a word for the fit that overrules the ease's, or None."""
        return None

    def sliding_off(self, job: Job, worn: float) -> Advice | None:
        """Return a warning when the fastened ring would slide off."""
        return None

    def opening(self, job: Job, wire: Wire, worn: float) -> Advice | None:
        """Return a warning when putting it on would leave it bent."""
        outline = job.outline(self.part, job.girths[self.girth_site].value_mm)
        return opened_to_go_on(
            f"twist_open_{self.part}",
            needed=2 * min(outline.across, outline.through),
            gap=0.0,
            thickness=wire.d,
            radius=round_radius(worn, wire.d),
            yield_mpa=wire.yield_mpa,
            youngs=wire.metal.youngs,
        )

    def section(self, job: Job, ease: Ease, girth: float, d: float) -> Sheet:
        """Return the body in section with the ring round it, hook and eye on top."""
        outline = job.outline(self.part, girth)
        ring, strokes, low = ring_round(outline, ease, ease.value_mm / TURN, d)
        strokes += [
            wire_along(ring, self.hook_pin / 2, ring.length - self.eye_pin - d, d, "body"),
            loop_at(ring, -(self.eye_pin + d) / 2, self.eye_pin, d, "eye"),
            wire_along(ring, -self.hook_pin / 2, self.hook_pin, d, "hook", self.hook_pin / 2),
        ]
        return section_sheet(
            say(f"drawing.on_the_{self.part}"),
            strokes,
            [across(outline, low, d, say(f"drawing.{self.part}_across"))],
            say(f"drawing.{self.part}", girth=girth),
        )

    def put_right(self, job: Job, worn: float, eye: float) -> PuttingRight | None:
        """Return what a try-on asks for: length comes off at the eye, which is made again."""
        tryon = job.tryon
        if tryon is None or tryon.says_nothing:
            return None
        if tryon.inside_girth is not None:
            return by_inside_girth(
                tryon.inside_girth,
                worn,
                too_big="hooked_big",
                too_small="hooked_small",
                remade=eye,
            )
        if tryon.goes_on is False:
            return verdict("open_sideways")
        if tryon.comfortable is False:
            return verdict("tape_it", worn=worn)
        return verdict("fits", settled=True)


class WristRing(HookedRing, ABC):
    """A hooked ring for a wrist, which must not slide off over the hand."""

    part: ClassVar[str] = "wrist"
    girth_site: ClassVar[str] = "wrist_girth"
    sites: ClassVar[tuple[str, ...]] = ("wrist_girth",)
    helps: ClassVar[tuple[str, ...]] = ("wrist_breadth", "wrist_depth", "hand_pass_girth")

    def word(self, job: Job, worn: float) -> str | None:
        """Return ``falls_off`` when the fastened ring passes the hand."""
        hand = job.girths.get("hand_pass_girth")
        return "falls_off" if hand is not None and worn >= hand.value_mm else None

    def sliding_off(self, job: Job, worn: float) -> Advice | None:
        """Return a warning when the fastened ring passes the hand."""
        hand = job.girths.get("hand_pass_girth")
        return falls_off(worn, hand.value_mm if hand else None)


def _bow(length: float, inside_diameter: float, d: float) -> Move:
    """Return a body of some length as one bend on its target diameter."""
    return Bend(
        angle=length / ((inside_diameter + d) / 2), pin=inside_diameter, label=say("bend.body")
    )
