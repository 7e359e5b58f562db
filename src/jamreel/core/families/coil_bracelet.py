"""The coil bracelet: turns of tempered memory wire with an end loop each."""

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any, ClassVar, Literal

from pydantic import SerializeAsAny, model_validator

from jamreel.core.advice import Advice, advise
from jamreel.core.advice.joining import loop_admits
from jamreel.core.bench.steps import Step, step
from jamreel.core.choices import choice
from jamreel.core.errors import Refusal
from jamreel.core.families.base import Job, usually
from jamreel.core.families.one_wire import HUNG, OnBench, OneWire, Sized
from jamreel.core.fit.ease import Ease, word_for
from jamreel.core.fit.tryon import PuttingRight, TryOn
from jamreel.core.forming.chosen import Wire
from jamreel.core.makeup.compose import in_its_metal
from jamreel.core.parts import AnyPart
from jamreel.core.parts.base import Hold, Made, opens_at
from jamreel.core.parts.pictures import shifted
from jamreel.core.path.moves import Bend, bend_length
from jamreel.core.values import Length, PlusMinus, Sheet, refused
from jamreel.core.words import say
from jamreel.core.workpiece.assemble import Fit
from jamreel.core.workpiece.drawing import coil_round, loop_at, pin_sheet, section_sheet
from jamreel.core.workpiece.ledger import Book
from jamreel.core.workpiece.parts_steps import saying, timed
from jamreel.core.workpiece.steps import cutting_steps
from jamreel.core.workpiece.straight import Stretch
from jamreel.core.workpiece.verdicts import felt

TURN = 2 * math.pi


@dataclass(frozen=True)
class _Coil:
    """How far the coil is off the wrist [mm] and the word for it, one turn [mm], and how many turns
    are cut and worn."""

    off: float
    word: str
    one_turn: float
    cut: float
    worn: float


class CoilBracelet(OneWire):
    """Turns, the coil as it is bought (its inside diameter), the pin of the end loops, and what
    hangs in both.

    With ``whole_turns`` so many are counted off the coil: the loops take of the last one, and what
    is left of it is worn. Otherwise so many are worn. It is never straightened.
    """

    usual_wire: ClassVar[Mapping[str, str]] = usually("0.6 mm", "memory_steel", "spring")
    cut_role: ClassVar[str] = "coil"
    family: ClassVar[str] = "bracelet"
    worn_on: ClassVar[str] = "wrist"
    sites: ClassVar[tuple[str, ...]] = ("wrist_girth",)
    helps: ClassVar[tuple[str, ...]] = ("wrist_breadth", "wrist_depth")
    asks: ClassVar[tuple[str, ...]] = ("comfortable", "stays_on")
    eases: ClassVar[bool] = False

    kind: Literal["coil_bracelet"] = "coil_bracelet"
    turns: float = choice(5.0, 1, 30)
    coil_diameter: Length = choice(56.0, 30, 120)
    loop_pin: Length = choice(3.0, 1.5, 8)
    whole_turns: bool = True
    hung: SerializeAsAny[AnyPart] | None = None

    @model_validator(mode="after")
    def _hung_hangs(self) -> "CoilBracelet":
        if self.hung is not None and self.hung.role != "drop":
            raise refused(Refusal("hung_drop", got=self.hung.kind, under="hung"))
        return self

    @property
    def stuffs(self) -> frozenset[str]:
        """What the beads of its drops are made of."""
        return self.hung.stuffs if self.hung else frozenset()

    def hanging(self, job: Job) -> Made | None:
        """Return its drop, of the closure's wire where the palette has one: tempered wire bends to
        no small loop. Raises Refusal at the choice that it can't be made of."""
        if self.hung is None:
            return None
        try:
            wires = job.wires
            made = self.hung.make(replace(wires, body=wires.of("closure")))
            return in_its_metal(made, wires.body)
        except Refusal as refusal:
            raise refusal.at(f"piece.hung.{refusal.field}") from None

    def _turns_cut(self, job: Job, one_turn: float) -> float:
        """Return how many turns are cut from the coil."""
        if self.whole_turns:
            return math.ceil(self.turns - 1e-9)
        ends = 2 * bend_length(TURN, self.loop_pin, job.wires.body.d) + 2 * job.cutting.trim
        return self.turns + ends / one_turn

    def sized(self, job: Job, wire: Wire, book: Book) -> Sized:
        """Return the sizes; the coil's own diameter decides the fit, not the maker's ease."""
        wrist = job.girths["wrist_girth"]
        one_turn = math.pi * (self.coil_diameter + wire.d)
        loop = bend_length(TURN, self.loop_pin, wire.d)
        cut = self._turns_cut(job, one_turn) * one_turn
        along = cut - 2 * loop - 2 * job.cutting.trim
        turns, rule = along / one_turn, "families.coil_bracelet.CoilBracelet"
        book.term("turns", along, rule, "geometry", "cut", turns=turns, coil=self.coil_diameter)
        for key in ("loop_left", "loop_right"):
            book.term(key, loop, "path.moves.bend_length", "published", "cut", pin=self.loop_pin)
        bow = Bend(angle=turns * TURN, pin=self.coil_diameter, label="body")
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
            own=_Coil(hug.value_mm, word, one_turn, self._turns_cut(job, one_turn), turns),
        )

    def first_steps(self, bench: OnBench) -> Sequence[Step]:
        """Return cutting; tempered wire wants its own shears whatever it is called."""
        if not self.whole_turns:
            return cutting_steps(bench.cut, bench.job.cutting, hard=True)
        trim, turns = bench.job.cutting.trim, round(bench.own.cut)
        return (
            step(
                "coil.cut",
                "cut",
                name="cut",
                cautions=("eyes", "whip", "hard"),
                check=True,
                turns=turns,
                length=bench.cut.length_mm,
            ),
            step("wire.ends", "cut", cautions=("ends",), trim=trim),
        )

    def forming(self, bench: OnBench) -> Iterator[Step]:
        """Yield the order of work."""
        drop = self.hanging(bench.job)
        made = list(self._drop_steps(drop)) if drop else []
        loops: dict[str, Any] = {"pin": self.loop_pin, "cautions": ("hard",), "check": True}
        # What does not open goes into a loop before that is closed; what opens, when both are.
        first = drop is not None and not _joins(drop)
        name = self.hung.says if self.hung is not None else ""
        if first:
            yield from made
            yield step("join.before", "form", name="take_left", check=True, what=name)
        yield step("coil.first", "form", **loops)
        yield step("coil.beads", "form")
        yield step("coil.try_on", "fit", check=True)
        if first and self.hung_times > 1:
            yield step("join.before", "form", name="take_right", check=True, what=name)
        yield step("coil.last", "form", **loops)
        if not first:
            yield from made

    def _drop_steps(self, drop: Made) -> Iterator[Step]:
        """Yield the steps of what hangs from the end loops."""
        rows = [(one, 1) for one in drop.steps]
        for one, _ in timed(rows, drop.minutes, self.hung_times):
            said = saying(one, say("join.end_loops")) if one.takes_in else one
            yield said.model_copy(update={"id": f"{HUNG}/{one.id}"})
        if _joins(drop) and not any(one.takes_in for one in drop.steps):
            what = say("join.end_loops")
            joined = step("join.open", "form", name=f"{HUNG}/take_left", check=True, what=what)
            yield joined.model_copy(update={"times": self.hung_times})

    def hold(self, bench: OnBench) -> Hold:
        """Return what opens its end loops."""
        return opens_at("plain_loop", bench.worn, self.loop_pin)

    def own_advice(self, bench: OnBench) -> Iterator[Advice | None]:
        """Yield whether the wire is tempered, and whether the coil fits."""
        coil: _Coil = bench.own
        if not bench.wire.metal.hard:
            yield advise("coil_metal", "check", "wire.metal")
        if coil.word in ("too_tight", "too_loose"):
            yield advise("coil_fit", "check", "piece", off=coil.off)
        if self.whole_turns:
            yield advise("coil_worn", "note", "piece.turns", cut=coil.cut, worn=coil.worn)
        drop = self.hanging(bench.job)
        if drop is not None and drop.ends:
            assert self.hung is not None
            name, end = self.hung.says, drop.ends[0]
            eye = say("drawing.end_loop")
            yield from drop.advice
            yield loop_admits(self.loop_pin, end.in_loop, eye, name)
            yield loop_admits(end.inner, (bench.wire.d,), name, eye)

    def _loop(self, key: str) -> Stretch:
        return Stretch(key, (Bend(angle=TURN, pin=self.loop_pin, side="right", label=key),))

    def sheets(self, bench: OnBench) -> Iterator[Sheet]:
        """Yield the wrist with the coil round it, and one of its end loops."""
        job, d = bench.job, bench.wire.d
        girth = job.girths["wrist_girth"].value_mm
        ring, strokes, dims = coil_round(job.outline("wrist", girth), girth, self.coil_diameter, d)
        strokes.append(loop_at(ring, -12, self.loop_pin, d, "loop_left", self.loop_pin / 2 + d))
        strokes.append(loop_at(ring, 12, self.loop_pin, d, "loop_right", self.loop_pin / 2 + d))
        label = say("drawing.wrist", girth=girth)
        yield section_sheet(say("drawing.on_the_wrist"), strokes, dims, label)
        loop_sheet = pin_sheet(self.loop_pin, d, say("drawing.end_loop"))
        drop = self.hanging(job)
        # It hangs from the inside of the loop's lowest place.
        hung = shifted(drop.strokes, 0.0, -self.loop_pin / 2) if drop else ()
        # Then there is no room for a dimension below it.
        shown = loop_sheet.dimensions[: 1 if drop else None]
        with_drop = (*loop_sheet.strokes, *hung)
        yield loop_sheet.model_copy(update={"strokes": with_drop, "dimensions": shown})

    def put_right(self, bench: OnBench, tryon: TryOn) -> PuttingRight | None:
        """Return what a try-on asks for: another coil, or the same one opened or closed."""
        return felt(tryon, comfortable="coil_tight", stays_on="coil_loose")


def _joins(drop: Made) -> bool:
    """Return whether a drop's own loop is closed round what it hangs in, or opens for it."""
    told = any(one.takes_in for one in drop.steps)
    return told or (drop.ends is not None and drop.ends[0].opens)
