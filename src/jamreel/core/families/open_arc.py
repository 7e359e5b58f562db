"""Open rings: an arc of one wire round part of the body. The base of cuffs, circlets, tiaras."""

import math
from abc import ABC, abstractmethod
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import ClassVar

from jamreel.core.advice import Advice
from jamreel.core.advice.sliding import pin_missing
from jamreel.core.advice.wire import keeps_shape
from jamreel.core.bench.steps import Step, step
from jamreel.core.body.outline import Outline, Ring
from jamreel.core.body.readings import BodyMeasure
from jamreel.core.families.base import Choice, Job
from jamreel.core.families.one_wire import Along, OnBench, OneWire, Sized
from jamreel.core.fit.ease import Ease
from jamreel.core.fit.thickness import arc_centre_length
from jamreel.core.forming.chosen import Wire
from jamreel.core.parts.base import Hold, opens_at
from jamreel.core.path.loops import centred
from jamreel.core.path.moves import Bend, bend_length
from jamreel.core.result import Feel
from jamreel.core.values import Dimension, Length, PlusMinus, Sheet, Stroke
from jamreel.core.words import say
from jamreel.core.workpiece.assemble import Fit
from jamreel.core.workpiece.drawing import (
    across,
    loop_at,
    pin_sheet,
    point_on,
    ring_round,
    section_sheet,
    wire_along,
)
from jamreel.core.workpiece.feel import pressed
from jamreel.core.workpiece.ledger import Book
from jamreel.core.workpiece.steps import feel_step, shape_step
from jamreel.core.workpiece.straight import Stretch

TURN = 2 * math.pi
# An opening of which a straight line is less than so much shorter is told as it goes round.
STRAIGHT = 0.03


@dataclass(frozen=True)
class Arc:
    """What an open ring covers: its measure and ease, the whole inside girth that it is a part
    of, the arc along its inside, and what it leaves open [mm]."""

    girth: BodyMeasure
    ease: Ease | None
    inside_girth: float
    inner_arc: float
    opening: float | None


class OpenArc(OneWire, ABC):
    """An arc with filed ends, or with end loops for ribbon, elastic, pins or combs."""

    cut_role: ClassVar[str] = "arc"
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
    def try_on_steps(self, bench: OnBench) -> Iterator[Step]:
        """Yield the steps at the Fit station."""

    def going_on(self, bench: OnBench) -> Advice | None:
        """Return the judgement on putting it on, where there is one."""
        return None

    def sized(self, job: Job, wire: Wire, book: Book) -> Sized:
        """Return the sizes. Raises Refusal for choices that leave no arc."""
        arc = self.arc(job, book)
        centre = arc_centre_length(arc.inner_arc, arc.inside_girth, wire.bend_adds)
        rule = "fit.thickness.arc_centre_length"
        book.term("half_wire_arc", centre - arc.inner_arc, rule, "published", "body")
        book.total("body", rule, "cut")
        read = arc.girth.plus_minus_mm
        pm = arc.ease.doubt(read) if arc.ease else read
        target = self.bent_to(job, arc)
        bow = Bend(angle=centre / ((target + wire.bend_adds) / 2), pin=target, label="body")
        body = Stretch("body", (bow,), "body", ("body", "half_wire_arc", "inner_arc"))
        inside = PlusMinus(value=arc.inside_girth, plus_minus=pm) if arc.ease else None
        return Sized(
            stretches=self._between_loops(body, wire, book),
            target=target,
            finished=PlusMinus(value=centre, plus_minus=pm),
            inside=inside,
            fit=Fit(arc.girth, arc.ease, self.worn_on) if arc.ease else None,
            rows=[
                ("centre_line", centre, pm),
                ("inner_arc", arc.inner_arc, pm),
                ("worn", inside.value if inside else None, pm),
                ("opening", arc.opening, None),
                ("ends_apart", self.ends_apart(job, arc), None),
            ],
            answers={
                "measure": "worn" if inside else "inner_arc",
                "make_up": "centre_line",
                "cut": "cut",
                "form": "former",
                "fit": "inner_arc" if arc.opening is None else "opening",
            },
            doubt=pm,
            own=arc,
        )

    def _between_loops(self, body: Stretch, wire: Wire, book: Book) -> tuple[Stretch, ...]:
        """Return the body with its end loops, if it has any, and write what those take."""
        if not self.looped:
            return (body,)
        loop = bend_length(TURN, self.loop_pin, wire.bend_adds)
        for key in ("loop_left", "loop_right"):
            rule = "path.moves.bend_length"
            book.term(key, loop, rule, "published", "cut", pin=self.loop_pin)
        left, right = (
            Stretch(key, centred(bend, first=key == "loop_left"))
            for key in ("loop_left", "loop_right")
            for bend in (Bend(angle=TURN, pin=self.loop_pin, side="right", label=key),)
        )
        return (left, body, right)

    def forming(self, bench: OnBench) -> Iterator[Step]:
        """Yield the order of work: the shape, then its loops; ends are rounded first."""
        assert bench.former is not None  # it has a target
        if not self.looped:
            yield step("arc.rounded", "form", cautions=("ends",), check=True)
        yield shape_step(bench.former)
        yield step(f"arc.{self.worn_on}", "form", check=True)
        if self.looped:
            yield step("arc.try_held", "form", name="half", check=True)
            yield step("arc.loops", "form", pin=self.loop_pin, check=True)
        yield from self.try_on_steps(bench)

    def last_steps(self) -> Sequence[Step]:
        """Return the last look at the ends."""
        return super().last_steps() if self.looped else (feel_step(),)

    def hold(self, bench: OnBench) -> Hold:
        """Return what opens its loops, or the arc itself."""
        if self.looped:
            return opens_at("plain_loop", bench.worn, self.loop_pin)
        return opens_at("open_ring", bench.worn, bench.own.inside_girth / math.pi)

    def own_advice(self, bench: OnBench) -> Iterator[Advice | None]:
        """Yield how it goes on, whether it keeps its shape, and whether its pin is there."""
        yield self.going_on(bench)
        yield keeps_shape(bench.job.wire)
        if self.looped:
            yield pin_missing(self.loop_pin, bench.job.nearest_pin(self.loop_pin))

    def outline(self, job: Job, arc: Arc) -> Outline:
        """Return the outline that the arc lies round."""
        return job.outline(self.worn_on, arc.girth.value_mm)

    def along(self, bench: OnBench) -> Along:
        """Return the body that it lies along."""
        arc: Arc = bench.own
        gap = (arc.ease.value_mm if arc.ease else 0.0) / TURN
        return Along(self.outline(bench.job, arc), gap, bench.sized.finished.value)

    def feels(self, bench: OnBench, mass: float) -> Iterator[Feel]:
        """Yield what it gives under finger and thumb."""
        yield pressed(bench.worn, self._radius(bench), closed=False)

    def _radius(self, bench: OnBench) -> float:
        return bench.wire.radius_on(bench.own.inside_girth / math.pi)

    def bent_to(self, job: Job, arc: Arc) -> float:
        """Return the inside diameter that the body is bent to on its former [mm]."""
        return arc.inside_girth / math.pi

    def ends_apart(self, job: Job, arc: Arc) -> float | None:
        """Return how far the ends stand apart inside [mm], where that is set."""
        return None

    def sheets(self, bench: OnBench) -> Iterator[Sheet]:
        """Yield the arc round the body, and one of its end loops."""
        d = bench.wire.d
        yield self.section(bench.own, self.outline(bench.job, bench.own), d)
        if self.looped:
            yield pin_sheet(self.loop_pin, d, say("drawing.end_loop"))

    def section(self, arc: Arc, outline: Outline, d: float) -> Sheet:
        """Return the body in section with the arc round it, open at the bottom."""
        gap = (arc.ease.value_mm if arc.ease else 0.0) / TURN
        ring, strokes, low = ring_round(outline, arc.ease, gap, d)
        centre = arc_centre_length(arc.inner_arc, arc.inside_girth, d)
        strokes += self.wire_round(ring, centre, d)
        dims, wide = self._opening(arc, ring, centre), say(f"drawing.{self.worn_on}_across")
        return section_sheet(
            say(f"drawing.on_the_{self.worn_on}"),
            strokes,
            [across(outline, low + (18 if dims else 0), d, wide), *dims],
            say(f"drawing.{self.worn_on}", girth=arc.girth.value_mm),
        )

    def wire_round(self, ring: Ring, centre: float, d: float) -> Iterator[Stroke]:
        """Yield the wire along a ring, its middle at the top, and its end loops."""
        yield wire_along(ring, -centre / 2, centre / 2, d, "body")
        if self.looped:
            off = (self.loop_pin + d) / 2
            for key, sign in (("loop_left", -1), ("loop_right", 1)):
                yield loop_at(ring, sign * (centre / 2 + off), self.loop_pin, d, key)

    def _opening(self, arc: Arc, ring: Ring, centre: float) -> list[Dimension]:
        """Return the dimension of what it leaves open, where that can be seen."""
        if arc.opening is None or arc.inner_arc <= arc.inside_girth / 2:
            return []
        a, b = point_on(ring, -centre / 2), point_on(ring, centre / 2)
        # What is open goes along the body; far round it, straight across is another length.
        straight = math.dist(a, b)
        goes_round = straight < (1 - STRAIGHT) * arc.opening
        return [
            Dimension(
                a=a,
                b=b,
                value_mm=straight if goes_round else arc.opening,
                label=say("drawing.ends_apart" if goes_round else "drawing.opening"),
                offset_mm=-(self.loop_pin + 7 if self.looped else 6),
            )
        ]
