"""The coil bracelet: turns of tempered memory wire with an end loop each."""

import math
from collections.abc import Mapping
from typing import ClassVar, Literal

from jamreel.core.advice import advise
from jamreel.core.bench.steps import Step, step
from jamreel.core.cutting.cuts import Cut
from jamreel.core.families.base import Construction, Job, usually
from jamreel.core.fit.ease import Ease, word_for
from jamreel.core.fit.tryon import PuttingRight
from jamreel.core.path.moves import Bend, bend_length
from jamreel.core.result import Plan
from jamreel.core.values import Dimension, Drawings, Length, PlusMinus, Sheet
from jamreel.core.words import say
from jamreel.core.workpiece.assemble import Fit, as_cut, assemble
from jamreel.core.workpiece.drawing import (
    across,
    loop_at,
    pin_sheet,
    point_on,
    ring_round,
    section_sheet,
    wire_along,
)
from jamreel.core.workpiece.ledger import Book
from jamreel.core.workpiece.righting import verdict
from jamreel.core.workpiece.steps import cutting_steps, press_in_step
from jamreel.core.workpiece.straight import Stretch, lay_straight

TURN = 2 * math.pi


class CoilBracelet(Construction):
    """Turns worn, the coil as it is bought (its inside diameter), and the pin of the end loops."""

    usual_wire: ClassVar[Mapping[str, str]] = usually("0.6 mm", "memory_steel", "spring")
    family: ClassVar[str] = "bracelet"
    part: ClassVar[str] = "wrist"
    sites: ClassVar[tuple[str, ...]] = ("wrist_girth",)
    helps: ClassVar[tuple[str, ...]] = ("wrist_breadth", "wrist_depth")
    asks: ClassVar[tuple[str, ...]] = ("comfortable", "stays_on")
    ranges: ClassVar[dict[str, tuple[float, float]]] = {
        "turns": (1, 30),
        "coil_diameter": (30, 120),
        "loop_pin": (1.5, 8),
    }
    eases: ClassVar[bool] = False

    kind: Literal["coil_bracelet"] = "coil_bracelet"
    turns: float = 4.0
    coil_diameter: Length = 56.0
    loop_pin: Length = 3.0

    def solve(self, job: Job) -> Plan:
        """Return the plan; the coil's own diameter decides the fit, not the maker's ease."""
        wire, wrist = job.wire_facts(), job.girths["wrist_girth"]
        d = wire.d
        one_turn = math.pi * (self.coil_diameter + d)
        loop = bend_length(TURN, self.loop_pin, d)
        book = Book(d)
        rule = "families.coil_bracelet"
        book.term(
            "turns",
            self.turns * one_turn,
            rule,
            "geometry",
            "cut",
            turns=self.turns,
            coil=self.coil_diameter,
        )
        for key in ("loop_left", "loop_right"):
            book.term(key, loop, "path.moves.bend_length", "published", "cut", pin=self.loop_pin)
        bow = Bend(angle=self.turns * TURN, pin=self.coil_diameter, label=say("bend.body"))
        stretches = [
            Stretch("loop_left", (self._loop(say("bend.loop_left")),)),
            Stretch("body", (bow,), "body", ("turns",)),
            Stretch("loop_right", (self._loop(say("bend.loop_right")),)),
        ]
        laid = lay_straight("coil", stretches, wire, job.cutting)
        book.trims(laid.cut)
        cut = book.total("cut", "path.moves.developed_length")
        inside = math.pi * self.coil_diameter
        hug = Ease(school="fixed", word=None, value_mm=inside - wrist.value_mm, backing="geometry")
        word = word_for(hug.value_mm, job.table("wrist"))
        return assemble(
            job,
            wire,
            kind=self.kind,
            family=self.family,
            finished=PlusMinus(value=self.turns * one_turn, plus_minus=0.0),
            inside=PlusMinus(value=inside, plus_minus=wrist.plus_minus_mm),
            fit=Fit(wrist, hug, "wrist", word),
            offers_ease=False,
            ledger=book.lines,
            rows=[
                ("cut", cut, None),
                ("coil_inside", inside, None),
                ("coil_ease", hug.value_mm, wrist.plus_minus_mm),
                ("one_turn", one_turn, None),
                ("loop", loop, None),
            ],
            answers={
                "measure": "coil_ease",
                "make_up": "coil_inside",
                "cut": "cut",
                "form": "loop",
                "fit": "coil_ease",
            },
            cuts=(laid.cut,),
            bends=tuple(job.on_pin(wire, bend) for bend in laid.bends),
            steps=self._steps(job, laid.cut),
            advice=(
                as_cut(job, laid.cut),
                None if wire.metal.hard else advise("coil_metal", "check", "wire.metal"),
                advise("coil_fit", "check", "piece", off=hug.value_mm)
                if word in ("too_tight", "too_loose")
                else None,
            ),
            drawings=Drawings(
                rule=laid.rule(0.0),
                sheets=(
                    self._section(job, wrist.value_mm, d),
                    pin_sheet(self.loop_pin, d, say("drawing.end_loop")),
                ),
            ),
            righting=self._put_right(job),
        )

    def _steps(self, job: Job, cut: Cut) -> tuple[Step, ...]:
        """Return the order of work."""
        return (
            *cutting_steps(cut, job.cutting, hard=True),
            step("coil.first", "form", cautions=("hard",), pin=self.loop_pin, check=True),
            step("coil.beads", "form"),
            step("coil.last", "form", cautions=("hard",), pin=self.loop_pin, check=True),
            step("coil.try_on", "fit", check=True),
            press_in_step(),
        )

    def _loop(self, label: str) -> Bend:
        return Bend(angle=TURN, pin=self.loop_pin, side="right", label=label)

    def _section(self, job: Job, girth: float, d: float) -> Sheet:
        outline = job.outline("wrist", girth)
        gap = (math.pi * self.coil_diameter - girth) / TURN
        ring, strokes, low = ring_round(outline, None, max(gap, 0.0), d)
        strokes.append(wire_along(ring, 0, ring.length, d, "body"))
        strokes.append(loop_at(ring, -12, self.loop_pin, d, "loop_left", self.loop_pin / 2 + d))
        strokes.append(loop_at(ring, 12, self.loop_pin, d, "loop_right", self.loop_pin / 2 + d))
        coil = Dimension(
            a=point_on(ring, ring.length * 0.75),
            b=point_on(ring, ring.length * 0.25),
            value_mm=self.coil_diameter,
            label=say("drawing.coil"),
            offset_mm=outline.through + 12,
        )
        dims = [across(outline, low, d, say("drawing.wrist_across")), coil]
        label = say("drawing.wrist", girth=girth)
        return section_sheet(say("drawing.on_the_wrist"), strokes, dims, label)

    def _put_right(self, job: Job) -> PuttingRight | None:
        tryon = job.tryon
        if tryon is None or tryon.says_nothing:
            return None
        if tryon.comfortable is False:
            return verdict("coil_tight")
        if tryon.stays_on is False:
            return verdict("coil_loose")
        return verdict("fits", settled=True)
