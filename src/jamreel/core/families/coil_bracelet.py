"""The coil bracelet: turns of tempered memory wire with an end loop each."""

import math
from collections.abc import Iterator, Mapping, Sequence
from typing import ClassVar, Literal

from jamreel.core.advice import Advice, advise
from jamreel.core.bench.steps import Step, step
from jamreel.core.families.base import Job, usually
from jamreel.core.families.one_wire import OnBench, OneWire, Sized
from jamreel.core.fit.ease import Ease, word_for
from jamreel.core.fit.tryon import PuttingRight
from jamreel.core.forming.chosen import Wire
from jamreel.core.parts.base import Hold, opens_at
from jamreel.core.path.moves import Bend, bend_length
from jamreel.core.values import Dimension, Length, PlusMinus, Sheet
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
from jamreel.core.workpiece.ledger import Book
from jamreel.core.workpiece.righting import verdict
from jamreel.core.workpiece.steps import cutting_steps
from jamreel.core.workpiece.straight import Stretch

TURN = 2 * math.pi


class CoilBracelet(OneWire):
    """Turns worn, the coil as it is bought (its inside diameter), and the pin of the end loops."""

    usual_wire: ClassVar[Mapping[str, str]] = usually("0.6 mm", "memory_steel", "spring")
    cut_role: ClassVar[str] = "coil"
    family: ClassVar[str] = "bracelet"
    worn_on: ClassVar[str] = "wrist"
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

    def sized(self, job: Job, wire: Wire, book: Book) -> Sized:
        """Return the sizes; the coil's own diameter decides the fit, not the maker's ease."""
        wrist = job.girths["wrist_girth"]
        one_turn = math.pi * (self.coil_diameter + wire.d)
        along, rule = self.turns * one_turn, "families.coil_bracelet.CoilBracelet"
        book.term(
            "turns", along, rule, "geometry", "cut", turns=self.turns, coil=self.coil_diameter
        )
        loop = bend_length(TURN, self.loop_pin, wire.d)
        for key in ("loop_left", "loop_right"):
            book.term(key, loop, "path.moves.bend_length", "published", "cut", pin=self.loop_pin)
        bow = Bend(angle=self.turns * TURN, pin=self.coil_diameter, label="body")
        inside = math.pi * self.coil_diameter
        hug = Ease(school="fixed", word=None, value_mm=inside - wrist.value_mm, backing="geometry")
        word = word_for(hug.value_mm, job.table("wrist"))
        return Sized(
            stretches=(
                self._loop("loop_left"),
                Stretch("body", (bow,), "body", ("turns",)),
                self._loop("loop_right"),
            ),
            target=None,
            finished=PlusMinus(value=along, plus_minus=0.0),
            inside=PlusMinus(value=inside, plus_minus=wrist.plus_minus_mm),
            fit=Fit(wrist, hug, "wrist", word),
            offers_ease=False,
            rows=[
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
            doubt=0.0,
            own=(hug.value_mm, word),
        )

    def first_steps(self, bench: OnBench) -> Sequence[Step]:
        """Return cutting; tempered wire wants its own shears whatever it is called."""
        return cutting_steps(bench.cut, bench.job.cutting, hard=True)

    def forming(self, bench: OnBench) -> Iterator[Step]:
        """Yield the order of work."""
        yield step("coil.first", "form", cautions=("hard",), pin=self.loop_pin, check=True)
        yield step("coil.beads", "form")
        yield step("coil.last", "form", cautions=("hard",), pin=self.loop_pin, check=True)
        yield step("coil.try_on", "fit", check=True)

    def hold(self, bench: OnBench) -> Hold:
        """Return what opens its end loops."""
        return opens_at("plain_loop", bench.wire, self.loop_pin)

    def own_advice(self, bench: OnBench) -> Iterator[Advice | None]:
        """Yield whether the wire is tempered, and whether the coil fits."""
        off, word = bench.own
        if not bench.wire.metal.hard:
            yield advise("coil_metal", "check", "wire.metal")
        if word in ("too_tight", "too_loose"):
            yield advise("coil_fit", "check", "piece", off=off)

    def _loop(self, key: str) -> Stretch:
        return Stretch(key, (Bend(angle=TURN, pin=self.loop_pin, side="right", label=key),))

    def sheets(self, bench: OnBench) -> Iterator[Sheet]:
        """Yield the wrist with the coil round it, and one of its end loops."""
        job, d = bench.job, bench.wire.d
        girth = job.girths["wrist_girth"].value_mm
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
        yield section_sheet(say("drawing.on_the_wrist"), strokes, dims, label)
        yield pin_sheet(self.loop_pin, d, say("drawing.end_loop"))

    def put_right(self, bench: OnBench) -> PuttingRight | None:
        """Return what a try-on asks for: another coil, or the same one opened or closed."""
        tryon = bench.job.tryon
        if tryon is None or tryon.says_nothing:
            return None
        if tryon.comfortable is False:
            return verdict("coil_tight")
        if tryon.stays_on is False:
            return verdict("coil_loose")
        return verdict("fits", settled=True)
