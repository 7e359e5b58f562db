"""Pieces of one wire: the base that lays it straight, finds its former and puts the plan together.

A construction says what is its own: how the body comes to its length, which stretches the wire has,
its steps, drawings and judgement calls.
"""

from abc import abstractmethod
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any, ClassVar

from jamreel.core.advice import Advice
from jamreel.core.bench.steps import Step
from jamreel.core.body.outline import Outline
from jamreel.core.cutting.cuts import Cut, Share
from jamreel.core.errors import Refusal
from jamreel.core.families.base import Construction
from jamreel.core.fit.tryon import PuttingRight, TryOn
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.oval import OvalFormer
from jamreel.core.forming.strength import Weakest
from jamreel.core.forming.temper import Work
from jamreel.core.forming.tight import refuse_breaking
from jamreel.core.forming.tools import Former
from jamreel.core.parts.base import Bought, Hold, Made
from jamreel.core.path.moves import Move
from jamreel.core.result import Feel, Need, Plan
from jamreel.core.values import PlusMinus, Sheet
from jamreel.core.words import say
from jamreel.core.workpiece.assemble import (
    Fit,
    Row,
    WiresAndSteps,
    Workings,
    as_cut,
    assemble,
    former_rows,
    wires_and_steps,
)
from jamreel.core.workpiece.drawing import former_sheet
from jamreel.core.workpiece.job import Job
from jamreel.core.workpiece.ledger import Book
from jamreel.core.workpiece.oval_former import oval_former, oval_sheet
from jamreel.core.workpiece.parts_wire import need_of, needs_beside, wires_beside
from jamreel.core.workpiece.steps import cutting_steps, press_in_step
from jamreel.core.workpiece.straight import StraightWire, Stretch, lay_straight

# What is bought for a piece of one wire, and what hangs from it, goes under these names.
PIECE, HUNG = "piece", "hung"
# The step that bends the body.
SHAPED = "shape"


@dataclass(frozen=True, kw_only=True)
class Sized:
    """What a construction comes to [mm]: its stretches, the inside diameter that the body is bent
    to (None where nothing is bent on a former), the doubt of the body's length on the Rule, and its
    figures between the cut and the former. ``own`` is whatever else the construction worked out;
    ``shapes_to`` are its moves where the stretches are those of a bar that is rolled first.
    """

    stretches: Sequence[Stretch]
    target: float | None
    finished: PlusMinus
    rows: Sequence[Row]
    answers: Mapping[str, str]
    doubt: float
    inside: PlusMinus | None = None
    fit: Fit | None = None
    offers_ease: bool = True
    own: Any = None
    shapes_to: Sequence[Move] = ()


@dataclass(frozen=True)
class OnBench:
    """A piece of one wire worked out for a job: its wire, sizes, the wire laid straight, what it is
    bent on, the wire as it is then, and how many times as much that bears in the end, at least and
    at most."""

    job: Job
    wire: Wire
    sized: Sized
    laid: StraightWire
    former: Former | None
    formed: Wire
    bears: tuple[float, float] = (1.0, 1.0)

    @property
    def worn(self) -> Wire:
        """The wire as hard as it is in the end, at least."""
        return replace(self.formed, yield_mpa=self.formed.yield_mpa * self.bears[0])

    @property
    def own(self) -> Any:
        """What the construction worked out for itself."""
        return self.sized.own

    @property
    def cut(self) -> Cut:
        """The one wire to cut."""
        return self.laid.cut


@dataclass(frozen=True)
class Along:
    """What a rigid piece lies along: the outline of the body, how far from it [mm], and the length
    of wire that is bent to it [mm]."""

    outline: Outline
    gap: float
    length: float


class OneWire(Construction):
    """Base of constructions of one wire. ``cut_role`` is what the wire is called."""

    cut_role: ClassVar[str]
    # How often what hangs from it hangs there.
    hung_times: ClassVar[int] = 2

    @abstractmethod
    def sized(self, job: Job, wire: Wire, book: Book) -> Sized:
        """Return the sizes, writing the terms of the cut into the book.

        Raises:
            Refusal: measures or choices that this construction can't be made from.
        """

    @abstractmethod
    def forming(self, bench: OnBench) -> Iterator[Step]:
        """Yield the steps between cutting and the last look at the ends."""

    @abstractmethod
    def sheets(self, bench: OnBench) -> Iterator[Sheet]:
        """Yield the drawings beside that of the former."""

    @abstractmethod
    def put_right(self, bench: OnBench, tryon: TryOn) -> PuttingRight | None:
        """Return what a try-on asks for."""

    @abstractmethod
    def hold(self, bench: OnBench) -> Hold | None:
        """Return the place that gives first, or None where nothing is known to give."""

    def along(self, bench: OnBench) -> Along | None:
        """Return the body that it lies along, None where it is round or hangs free."""
        return None

    def feels(self, bench: OnBench, mass: float) -> Iterator[Feel]:
        """Yield how it feels: what it gives, what opens it.

        Args:
            bench: the piece worked out.
            mass: of all of it [g].
        """
        yield from ()

    def formed(self, job: Job, wire: Wire) -> Wire:
        """Return the wire as it is when it is shaped: rolled or annealed before, say."""
        return wire

    def works(self, bench: OnBench) -> Sequence[Work]:
        """Return what its steps do to the wire that is no bend."""
        return ()

    def own_advice(self, bench: OnBench) -> Iterator[Advice | None]:
        """Yield the judgement calls of this construction."""
        yield from ()

    def bought(self) -> tuple[Bought, ...]:
        """Return what is bought for it beside its wire."""
        return ()

    @property
    def stuffs(self) -> frozenset[str]:
        """What beads that hang from it are made of."""
        return frozenset()

    def hanging(self, job: Job) -> Made | None:
        """Return what hangs from it, ``hung_times`` times, or None.

        Raises:
            Refusal: a part that can't be made.
        """
        return None

    def first_steps(self, bench: OnBench) -> Sequence[Step]:
        """Return cutting, marking and squaring."""
        return cutting_steps(bench.cut, bench.job.cutting, hard=bench.wire.metal.hard)

    def last_steps(self) -> Sequence[Step]:
        """Return the last look at the ends."""
        return (press_in_step(),)

    def as_cut(self, bench: OnBench) -> Advice | None:
        """Return what is to be said of a wire cut to another length than planned."""
        return as_cut(bench.job, bench.cut)

    def solve(self, job: Job) -> Plan:
        """Return the plan. Raises Refusal like ``sized``.

        What is annealed on the way is soft when it is shaped: then it is planned once more so.
        """
        wire = job.wires.body
        formed = self.formed(job, wire)
        bench, book = self._on_bench(job, wire, formed)
        through = self._wires_and_steps(bench)
        soft = next((one.softened_to(SHAPED) for one in through.wires if not one.entry), None)
        if soft is not None and formed is wire:
            bench, book = self._on_bench(job, wire, replace(wire, yield_mpa=soft))
            through = self._wires_and_steps(bench)
        track = next((one.track for one in through.wires if not one.entry), None)
        if track is not None:
            least, most = (mpa / bench.formed.yield_mpa for mpa in track.ends_at)
            bench = replace(bench, bears=(least, most))
        return assemble(job, self.kind, self.family, self._workings(bench, book), through)

    def _wires_and_steps(self, bench: OnBench) -> WiresAndSteps:
        """Return its wires through the steps of its making."""
        wires = (self._shaped(bench), *self._wires_hung(bench.job))
        steps = (*self.first_steps(bench), *self.forming(bench), *self.last_steps())
        return wires_and_steps(bench.job, wires, steps, self.stuffs)

    def _on_bench(self, job: Job, wire: Wire, formed: Wire) -> tuple[OnBench, Book]:
        book = Book(formed.bend_adds)
        sized = self.sized(job, wire, book)
        self._sound(wire, sized.stretches)
        whole = job.ratio_of(sized.finished.value)
        laid = lay_straight(self.cut_role, sized.stretches, wire, job.cuts_by, whole)
        book.trims(laid.cut)
        former = None if sized.target is None else job.former(formed, sized.target)
        return OnBench(job, wire, sized, laid, former, formed), book

    def _sound(self, wire: Wire, stretches: Sequence[Stretch]) -> None:
        """Refuse what would snap while it is made."""
        moves = (move for stretch in stretches for move in stretch.moves)
        try:
            refuse_breaking(self, wire, moves)
        except Refusal as refusal:
            raise refusal.at(f"piece.{refusal.field}") from None

    def _workings(self, bench: OnBench, book: Book) -> Workings:
        sized, former = bench.sized, bench.former
        cut = book.total("cut", "path.moves.developed_length")
        answers = dict(sized.answers)
        if former is not None:
            answers["form"] = "former" if former.tool_mm is None else "step"
        drawn = () if former is None else (former_sheet(former, bench.formed.d),)
        oval = self._oval(bench)
        return Workings(
            finished=sized.finished,
            inside=sized.inside,
            fit=sized.fit,
            offers_ease=sized.offers_ease,
            ledger=book.lines,
            rows=[("cut", cut, None), *sized.rows, *former_rows(former)],
            answers=answers,
            formers=() if former is None else (former,),
            advice=(self.as_cut(bench), *self.own_advice(bench)),
            rule=bench.laid.rule(sized.doubt),
            sheets=(*self.sheets(bench), *drawn, *((oval_sheet(oval),) if oval else ())),
            oval=oval,
            righting=self.put_right(bench, tried) if (tried := bench.job.tried) else None,
            needs=self._needs(bench.job),
            weakest=self._weakest(bench),
            feels=lambda mass: self.feels(bench, mass),
            stuffs=self.stuffs,
        )

    def _shaped(self, bench: OnBench) -> StraightWire:
        """Return the wire with what it shapes to, where that is another than it is cut from."""
        laid = replace(bench.laid, works=tuple(self.works(bench)))
        if bench.formed is bench.wire or not bench.sized.shapes_to:
            return laid
        return replace(laid, shapes_as=bench.formed, shapes_to=tuple(bench.sized.shapes_to))

    def _oval(self, bench: OnBench) -> OvalFormer | None:
        along, job = self.along(bench), bench.job
        if along is None:
            return None
        rounds = along.outline, along.gap, along.length
        return oval_former(*rounds, bench.formed, job.shop, job.kept)

    def _needs(self, job: Job) -> tuple[Need, ...]:
        hung = self.hanging(job)
        return (
            *(need_of(one, (Share(entry=PIECE, count=one.quantity),)) for one in self.bought()),
            *(needs_beside(HUNG, hung, self.hung_times) if hung else ()),
        )

    def _wires_hung(self, job: Job) -> tuple[StraightWire, ...]:
        hung = self.hanging(job)
        return wires_beside(HUNG, hung, self.hung_times, job.cuts_by) if hung else ()

    def _weakest(self, bench: OnBench) -> Weakest | None:
        hold = self.hold(bench)
        if hold is None:
            return None
        # It holds in proportion to the yield.
        up_to = hold.newtons * bench.bears[1] / bench.bears[0]
        return Weakest(say(f"hold.{hold.key}"), hold.newtons, hold.key, up_to)


def step_on(former: Former | None) -> float:
    """Return what the body is bent on [mm]: the maker's step, or the ideal former."""
    assert former is not None  # by the construction that has one
    return former.tool_mm or former.former_mm
