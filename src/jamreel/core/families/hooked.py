"""Rings of one wire that fasten with a hook and an eye: the base of bracelets and neck rings."""

import math
from abc import ABC
from collections.abc import Iterator
from typing import ClassVar

from jamreel.core.advice import Advice
from jamreel.core.advice.closing import hook_passes, opens_easily
from jamreel.core.advice.opening import falls_off, opened_to_go_on
from jamreel.core.advice.sliding import pin_missing
from jamreel.core.advice.wire import keeps_shape
from jamreel.core.bench.steps import Step, step
from jamreel.core.choices import choice
from jamreel.core.families.base import Job
from jamreel.core.families.one_wire import Along, OnBench, OneWire, Sized
from jamreel.core.fit.tryon import PuttingRight, TryOn
from jamreel.core.forming.chosen import Wire
from jamreel.core.parts.base import Hold, opens_at
from jamreel.core.path.bearings import EYES, EyeBearing, EyeSits
from jamreel.core.path.hook import Crook
from jamreel.core.path.loops import centred
from jamreel.core.path.moves import Bend, Move, PlaneTurn, developed_length
from jamreel.core.result import Feel
from jamreel.core.values import Length, PlusMinus, Sheet
from jamreel.core.words import say
from jamreel.core.workpiece.assemble import Fit
from jamreel.core.workpiece.drawing import (
    across,
    loop_at,
    pin_sheet,
    ring_round,
    section_sheet,
    wire_along,
)
from jamreel.core.workpiece.feel import pressed
from jamreel.core.workpiece.ledger import Book
from jamreel.core.workpiece.steps import shape_step
from jamreel.core.workpiece.straight import Stretch
from jamreel.core.workpiece.verdicts import by_inside_girth, felt

TURN = 2 * math.pi


class HookedRing(OneWire, ABC):
    """A crook hook with a curled tip at one end, an eye at the other, a body between.

    The finished length runs from the hook's inside apex to the eye's, along the wire's middle. The
    eye sits ``centred`` on the wire, bent back before it is rolled, or rolled on a
    ``tangent``, beside it.
    """

    cut_role: ClassVar[str] = "ring"
    girth_site: ClassVar[str]
    family: ClassVar[str]
    asks: ClassVar[tuple[str, ...]] = ("goes_on", "inside_girth", "comfortable")

    hook_pin: Length = choice(5.0, 2, 25)
    eye_pin: Length = choice(6.0, 2, 25)
    tip_pin: Length = choice(2.0, 1, 12)
    leg: Length = choice(6.0, 2, 40)
    eye_sits: EyeSits = "centred"

    @property
    def eye_bearing(self) -> EyeBearing:
        """Return how the eye bears, by how it sits."""
        return EYES[self.eye_sits]

    @property
    def crook(self) -> Crook:
        """The hook."""
        return Crook(self.hook_pin, self.tip_pin, self.leg)

    def eye_moves(self) -> tuple[Move, ...]:
        """Return the eye: one turn, square to the hook."""
        eye = Bend(angle=TURN, pin=self.eye_pin, side="left", label="eye")
        bent = centred(eye, first=False) if self.eye_sits == "centred" else (eye,)
        return (PlaneTurn(angle=TURN / 4), *bent)

    def sized(self, job: Job, wire: Wire, book: Book) -> Sized:
        """Return the sizes. Raises Refusal for an ease that is none."""
        girth = job.girths[self.girth_site]
        ease = job.ease_on(self.worn_on, girth.value_mm)
        book.girth(girth, "worn")
        book.ease(ease, "worn")
        worn = book.total("worn", "fit.ease.ease_of", "finished")
        rule = "fit.thickness.inside_girth_of"
        book.term("half_wire", math.pi * wire.d, rule, "published", "finished")
        finished = book.total("finished", rule, "body")
        body = self._body(wire, book)
        target, pm = worn / math.pi, ease.doubt(girth.plus_minus_mm)
        bow = Bend(angle=body / ((target + wire.d) / 2), pin=target, label="body")
        return Sized(
            stretches=(
                Stretch("hook", self.crook.moves("hook")),
                Stretch("body", (bow,), "body", ("body", "finished", "worn")),
                Stretch("eye", self.eye_moves()),
            ),
            target=target,
            finished=PlusMinus(value=finished, plus_minus=pm),
            inside=PlusMinus(value=worn, plus_minus=pm),
            fit=Fit(girth, ease, self.worn_on, self.word(job, worn)),
            rows=[
                ("finished", finished, pm),
                ("worn", worn, pm),
                ("body", body, pm),
                ("closed_diameter", target, None),
            ],
            answers={
                "measure": "worn",
                "make_up": "finished",
                "cut": "cut",
                "form": "former",
                "fit": "worn",
            },
            doubt=pm,
            own=worn,
        )

    def _body(self, wire: Wire, book: Book) -> float:
        """Return what lies between hook and eye, and write what those two take."""
        bears = self.eye_bearing
        eye_at, rule = bears.beyond(self.eye_pin, wire.d), bears.rule
        book.term("less_eye", -eye_at, rule, "geometry", "body", pin=self.eye_pin)
        rule = "path.bearings.hook_bearing"
        book.term("less_hook", -self.crook.bearing, rule, "geometry", "body", pin=self.hook_pin)
        body = book.total("body", "families.hooked.HookedRing", "cut")
        rule = "path.moves.bend_length"
        hook = developed_length(self.crook.moves(), wire.d)
        book.term("hook", hook, rule, "published", "cut", pin=self.hook_pin, leg=self.leg)
        book.term("eye", self._eye(wire), rule, "published", "cut", pin=self.eye_pin)
        return body

    def _eye(self, wire: Wire) -> float:
        return developed_length(self.eye_moves(), wire.d)

    def forming(self, bench: OnBench) -> Iterator[Step]:
        """Yield the order of work: tip, hook, the shape; tried on, the eye is turned last."""
        assert bench.former is not None  # it has a target
        yield step("hooked.tip", "form", pin=self.tip_pin)
        yield step("hooked.hook", "form", pin=self.hook_pin, check=True)
        bears = self.eye_bearing.beyond(self.eye_pin, bench.wire.d)
        eye = f"hooked.eye_{self.eye_sits}"
        yield shape_step(bench.former)
        worn = bench.own
        yield step("hooked.try_held", "form", name="half", check=True, worn=worn, bears=bears)
        yield step(eye, "form", name="eye", pin=self.eye_pin, bears=bears, check=True)
        yield step(f"hooked.try_on_{self.worn_on}", "fit", check=True, worn=bench.own)

    def hold(self, bench: OnBench) -> Hold:
        """Return what opens first, the hook or the eye."""
        wire = bench.worn
        holds = (opens_at("hook", wire, self.hook_pin), opens_at("eye", wire, self.eye_pin))
        return min(holds, key=lambda hold: hold.newtons)

    def own_advice(self, bench: OnBench) -> Iterator[Advice | None]:
        """Yield whether hook and eye mate, how it goes on, and whether it stays."""
        job, wire, worn = bench.job, bench.wire, bench.own
        yield opens_easily(self.hold(bench).newtons, "piece.hook_pin")
        yield hook_passes(self.crook.width(wire.d), self.eye_pin, "piece.eye_pin")
        yield self.opening(job, wire, worn)
        yield self.sliding_off(job, worn)
        yield keeps_shape(job.wire)
        for name in ("hook_pin", "eye_pin"):
            pin: float = getattr(self, name)
            yield pin_missing(pin, job.nearest_pin(pin), f"piece.{name}")

    def word(self, job: Job, worn: float) -> str | None:
        """Return a word for the fit that overrules the ease's, or None."""
        return None

    def sliding_off(self, job: Job, worn: float) -> Advice | None:
        """Return a warning when the fastened ring would slide off."""
        return None

    def opening(self, job: Job, wire: Wire, worn: float) -> Advice | None:
        """Return a warning when putting it on would leave it bent."""
        outline = job.outline(self.worn_on, job.girths[self.girth_site].value_mm)
        return opened_to_go_on(
            (f"twist_open_{self.worn_on}", None),
            severity="note",
            wire=wire,
            inside=worn,
            needed=2 * min(outline.across, outline.through),
        )

    def sheets(self, bench: OnBench) -> Iterator[Sheet]:
        """Yield the body in section with the ring round it, hook and eye on top; and the eye."""
        job, d = bench.job, bench.wire.d
        girth, fit = job.girths[self.girth_site].value_mm, bench.sized.fit
        assert fit is not None  # it goes round a girth
        outline = job.outline(self.worn_on, girth)
        ring, strokes, low = ring_round(outline, fit.ease, fit.ease.value_mm / TURN, d)
        eye_at = self.eye_bearing.beyond(self.eye_pin, d)
        # Rolled on a tangent it lies beside the line, its middle where the stem ends.
        centred = self.eye_sits == "centred"
        middle = -(self.eye_pin + d) / 2 if centred else -eye_at
        lift = 0.0 if centred else (self.eye_pin + d) / 2
        strokes += [
            wire_along(ring, self.hook_pin / 2, ring.length - eye_at, d, "body"),
            loop_at(ring, middle, self.eye_pin, d, "eye", lift),
            wire_along(ring, -self.hook_pin / 2, self.hook_pin, d, "hook", self.hook_pin / 2),
        ]
        yield section_sheet(
            say(f"drawing.on_the_{self.worn_on}"),
            strokes,
            [across(outline, low, d, say(f"drawing.{self.worn_on}_across"))],
            say(f"drawing.{self.worn_on}", girth=girth),
        )
        yield pin_sheet(self.eye_pin, d, say("drawing.eye"))

    def along(self, bench: OnBench) -> Along:
        """Return the body that it lies along, between hook and eye."""
        girth, fit = bench.job.girths[self.girth_site].value_mm, bench.sized.fit
        assert fit is not None  # it goes round a girth
        (body,) = (one for one in bench.sized.stretches if one.kind == "body")
        length = developed_length(body.moves, bench.wire.bend_adds)
        return Along(bench.job.outline(self.worn_on, girth), fit.ease.value_mm / TURN, length)

    def feels(self, bench: OnBench, mass: float) -> Iterator[Feel]:
        """Yield what it gives, hooked: it is closed all round, but for what plays in the eye."""
        radius = bench.worn.radius_on(bench.own / math.pi)
        yield pressed(bench.worn, radius, closed=True)

    def put_right(self, bench: OnBench, tryon: TryOn) -> PuttingRight | None:
        """Return what a try-on asks for: length comes off at the eye, which is made again."""
        if tryon.inside_girth is not None:
            return by_inside_girth(
                tryon.inside_girth,
                bench.own,
                too_big="hooked_big",
                too_small="hooked_small",
                remade=self._eye(bench.wire),
            )
        return felt(tryon, worn=bench.own, goes_on="open_sideways", comfortable="tape_it")


class WristRing(HookedRing, ABC):
    """A hooked ring for a wrist, which must not slide off over the hand."""

    worn_on: ClassVar[str] = "wrist"
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
