"""Composed pieces: a make-up solved to a length, whatever part of the body it is for."""

from abc import abstractmethod
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any, ClassVar

from jamreel.core.advice import Advice
from jamreel.core.advice.closing import should_release
from jamreel.core.advice.joining import extends, not_to_length
from jamreel.core.bench.steps import Step
from jamreel.core.closures import Closure
from jamreel.core.errors import Refusal
from jamreel.core.families.base import Construction, Job, usually
from jamreel.core.families.going_on import go_on, ways_of
from jamreel.core.fit.tryon import PuttingRight, TryOn
from jamreel.core.forming.band import Band, Lengthwise
from jamreel.core.forming.tools import Former
from jamreel.core.interlace.base import Weaving
from jamreel.core.makeup.checks import AS_BOUGHT, Worn, make_up_advice, weakest_of
from jamreel.core.makeup.compose import Composition, Lying, compose
from jamreel.core.makeup.fill import (
    Edit,
    Filled,
    Knob,
    Measured,
    Settable,
    beside_of,
    changed,
    counted_entry,
    fill,
    finished_of,
    main_knob,
    most_counted,
    right_link,
)
from jamreel.core.makeup.loops import Loops, loops_of
from jamreel.core.makeup.sequence import Entry, MakeUp
from jamreel.core.parts.so_far import ToldSoFar
from jamreel.core.result import GoneOn, Plan, Proposal, ProposedEdit
from jamreel.core.units import Mm
from jamreel.core.values import PlusMinus, Sheet
from jamreel.core.words import say
from jamreel.core.workpiece.assemble import (
    Fit,
    Row,
    WiresAndSteps,
    Workings,
    assemble,
    former_rows,
    wires_and_steps,
    worn_of,
)
from jamreel.core.workpiece.doubt import finished_doubt
from jamreel.core.workpiece.ledger import Book
from jamreel.core.workpiece.parts_steps import Trial, order_of_work
from jamreel.core.workpiece.parts_wire import needs_of, wires_of
from jamreel.core.workpiece.sequence_drawing import rule_of, sequence_sheet
from jamreel.core.workpiece.sequence_ledger import write_parts
from jamreel.core.workpiece.straight import StraightWire
from jamreel.core.workpiece.woven import woven_bodies

COMPOSE = "makeup.compose.compose"


@dataclass(frozen=True)
class Target:
    """What a make-up is to come to [mm]: the figure, its doubt, and how it is measured."""

    wanted: float
    doubt: float
    measure: Measured = finished_of


@dataclass(frozen=True)
class OnPiece:
    """A make-up worked out for a job: what it is made of, and how far it is from its target.

    ``memo`` keeps what a construction works out more than once.
    """

    job: Job
    laid: Composition
    target: Target
    got: float
    memo: dict[str, Any] = field(default_factory=dict, compare=False)

    @cached_property
    def loops(self) -> Loops:
        """What hangs in which loop of it."""
        return loops_of(self.laid)

    def know_worn(self, worn: Worn) -> None:
        """Keep how many times as hard its wires are in the end as when they were bought; what was
        worked out without that is worked out anew."""
        self.memo.clear()
        self.memo["worn"] = worn

    def as_worn(self, key: str, wires: Sequence[Lengthwise]) -> tuple[Band, Band]:
        """Return wires of an entry as hard as they are in the end: at least, and at most."""
        worn: Worn = self.memo.get("worn", {})
        shares = [worn.get((key, one.wire.key), AS_BOUGHT) for one in wires]
        pairs = list(zip(wires, shares, strict=True))
        least, most = (tuple(one.worn(share[n]) for one, share in pairs) for n in (0, 1))
        return least, most

    @property
    def link(self) -> int:
        """The link of an extender at which it is right, 0 where it has none or needs none."""
        return right_link(self.target.wanted - self.got, self.laid.fastened)

    @property
    def worn(self) -> float:
        """What it comes to, fastened where it is right [mm]."""
        return self.got + self.link * self.laid.fastened.range_step

    @property
    def off(self) -> float:
        """What it comes to, fastened where it is right, less what is wanted [mm]."""
        return self.worn - self.target.wanted


class Composed(MakeUp, Construction):
    """Base of the composed pieces. A subclass says what the piece is measured against.

    ``sets`` is how often the whole is made: two for a pair.
    """

    # What is of the string has a place of its own on the screen.
    first: ClassVar[tuple[str, ...]] = ("mirrored", "rings", "ring_pin")
    usual_wire: ClassVar[Mapping[str, str]] = usually("20 awg")
    asks: ClassVar[tuple[str, ...]] = ("inside_girth", "comfortable", "stays_on")
    # Whether it has a length that is tried before it is closed.
    tries: ClassVar[bool] = True

    @abstractmethod
    def target(self, job: Job) -> Target:
        """Return what the make-up is to come to."""

    def target_beside(self, job: Job) -> Target | None:
        """Return what the line beside the piece's own is to come to, where it has one."""
        return None

    @abstractmethod
    def against(self, worked: OnPiece, book: Book) -> None:
        """Write what the finished length is held against into the ledger."""

    @abstractmethod
    def rows(self, worked: OnPiece) -> list[Row]:
        """Return the figures beside those of every composed piece."""

    @abstractmethod
    def answers(self) -> dict[str, str]:
        """Return the figure that each station is about."""

    @abstractmethod
    def sheets(self, worked: OnPiece) -> tuple[Sheet, ...]:
        """Return the drawings beside that of the sequence."""

    @property
    def in_cap(self) -> float | None:
        """As far as its closure takes them."""
        return self.closure.in_cap

    def own_advice(self, worked: OnPiece) -> Iterator[Advice | None]:
        """Yield what only this construction has to say."""
        yield from ()

    def fit(self, worked: OnPiece) -> Fit | None:
        """Return how it fits a girth, or None for a piece that hangs."""
        return None

    def forms(self, worked: OnPiece) -> tuple[Step, ...]:
        """Return the steps in which the whole is bent, none for what bends by itself."""
        return ()

    def bends(self, worked: OnPiece) -> tuple[Step, ...]:
        """Return the steps in which the finished piece is bent to its wearer."""
        return ()

    def formers(self, worked: OnPiece) -> tuple[Former, ...]:
        """Return what it is bent on, none for what bends by itself."""
        return ()

    def inside(self, worked: OnPiece) -> PlusMinus | None:
        """Return the inside girth, or None for a piece that has none."""
        return None

    def put_right(self, worked: OnPiece, tryon: TryOn) -> PuttingRight | None:
        """Return the answer to a try-on."""
        return None

    @property
    def must_release(self) -> bool:
        """Whether a closure that never lets go could hurt, whoever wears it."""
        return False

    @property
    def sets(self) -> int:
        """How often the whole is made."""
        return 1

    def worked(self, job: Job) -> OnPiece:
        """Return the make-up laid out for a job.

        Raises:
            Refusal: parts that can't be made, or nothing to lay out.
        """
        target = self.target(job)
        laid = compose(self, job.wires)
        if laid.finished <= 0:
            raise Refusal("no_parts", got=len(laid.parts), field="piece.entries")
        try:
            got = target.measure(laid)
        except ValueError:
            raise Refusal("parts_too_thick", got=Mm(laid.finished), field="piece.entries") from None
        return OnPiece(job, laid, target, got)

    def solve(self, job: Job) -> Plan:
        """Return the plan of the make-up as it stands; what fits better is proposed apart.

        Where the plan counts the entries, the counts are those that fit best.
        """
        edits = self.counted_out(job)
        makeup = changed(self, edits)
        worked = makeup.worked(job)
        laid = worked.laid
        wires = wires_of(makeup, laid, job.cuts_by, makeup.sets, job.ratio_of(laid.finished))
        through = makeup._through(worked, wires)
        worn = worn_of(through)
        soft = {key: share for key, share in worn.items() if share[0] != AS_BOUGHT[0]}
        if makeup.formers(worked) and soft:
            # What was made soft on the way springs back less: that shows when it has its steps.
            worked.know_worn(soft)
            through = makeup._through(worked, wires)
        own = makeup._workings(worked, through, edits)
        return assemble(job, self.kind, self.family, own, through)

    def _through(self, worked: OnPiece, wires: Sequence[StraightWire]) -> WiresAndSteps:
        """Return its wires through its steps."""
        steps = order_of_work(
            self,
            worked.laid,
            wires,
            self.worn_cautions,
            self.forms(worked),
            self.sets,
            self._trial(worked),
            worked.loops,
            self.bends(worked),
        )
        return wires_and_steps(worked.job, wires, steps, worked.laid.stuffs)

    def _trial(self, worked: OnPiece) -> Trial | None:
        """Return how the length is tried before the piece is closed, where it has one to try."""
        lone = sum(not part.drop for part in worked.laid.parts) == 1
        if not self.tries or (lone and not worked.laid.fastened.length and not worked.laid.runs):
            return None
        unit, name = self.counted_unit(worked)
        both = self.mirrored or self.focal is not None
        return Trial(name, unit, both)

    def counts_beside(self) -> tuple[str, ...]:
        """Return what the plan may set beside the count to come to the length."""
        return ()

    def counted_out(self, job: Job) -> tuple[Edit, ...]:
        """Return the counts that the plan takes to come to the length, line by line."""
        if not self.counted:
            return ()
        edits = self._counted(job, self.target(job), self.lines[0])
        beside = self.target_beside(job)
        return edits + (self._counted(job, beside, self.lines[1]) if beside else ())

    def _counted(self, job: Job, target: Target, line: str) -> tuple[Edit, ...]:
        beside = self.counts_beside() if line == self.lines[0] else ()
        found = fill(
            self, job.wires, target.wanted, target.doubt, target.measure, beside=beside, line=line
        )
        return found[0].edits if found else ()

    def _workings(
        self, worked: OnPiece, through: WiresAndSteps, counted_out: tuple[Edit, ...]
    ) -> Workings:
        job, laid, pm = worked.job, worked.laid, worked.target.doubt
        book = Book(job.wires.body.d)
        self.against(worked, book)
        worn = worn_of(through)
        formers = self.formers(worked)
        made = finished_doubt(laid, job.hand)
        in_all = sum(one.length_mm * one.quantity for one in through.cuts)
        answers = self.answers()
        if formers:
            answers["form"] = "former" if formers[0].tool_mm is None else "step"
        right = laid.finished - (worked.got - worked.target.wanted)
        middle = self.mirrored or self.focal is not None or self.hung is not None
        return Workings(
            finished=PlusMinus(value=laid.finished, plus_minus=made),
            inside=self.inside(worked),
            fit=self.fit(worked),
            ledger=book.lines,
            rows=[
                ("finished", laid.finished, made),
                ("body", laid.body, None),
                ("wire_in_all", in_all or None, None),
                ("off_length", abs(worked.off), None),
                *self.rows(worked),
                *(row for former in formers for row in former_rows(former)),
            ],
            answers=answers if in_all else {**answers, "cut": "body"},
            advice=tuple(_once(self._judged(worked, worn))),
            rule=rule_of(
                laid,
                PlusMinus(value=right, plus_minus=pm),
                centre=middle,
                mirrored=self.mirrored,
                made=self.sets,
                strands=self.passes,
            ),
            sheets=(sequence_sheet(laid), *self.sheets(worked)),
            righting=self.put_right(worked, tried) if (tried := job.tried) else None,
            needs=needs_of(laid, self.sets),
            weakest=weakest_of(laid, worn),
            stuffs=laid.stuffs,
            tried=self._trial(worked) is not None,
            ways=tuple(ways_of(self, laid, through.steps)),
            counted_out=_as_proposed(counted_out),
            woven=woven_bodies(laid),
            formers=formers,
        )

    def _judged(self, worked: OnPiece, worn: Worn) -> Iterator[Advice | None]:
        laid, job = worked.laid, worked.job
        yield from make_up_advice(self, laid, worked.loops, worn)
        fastened = laid.fastened
        yield extends(
            worked.link, worked.got, worked.worn, fastened.adds_range, fastened.range_step
        )
        unit, name = self.counted_unit(worked)
        counts = self._would_do(worked, unit)
        yield not_to_length(worked.off, worked.target.doubt, unit, name, counts, self.mirrored)
        yield from self.own_advice(worked)
        if self.family == "necklace":
            weakest = weakest_of(laid, worn)
            force = weakest.newtons if weakest else None
            yield should_release(force, job.child or self.must_release)

    def _would_do(self, worked: OnPiece, unit: float) -> tuple[int, int]:
        """Return how many there are of what it is counted by, and how many would do: by what one is
        long, then by what the piece comes to with so many."""
        main = main_knob(self)
        now = main.now if main is not None and isinstance(main.now, int) else 1
        once = unit * (2 if self.mirrored else 1)
        most = most_counted(main) if main is not None else now
        right = min(max(1, now - round(worked.off / once)), most)
        if main is not None and abs(right - now) > 1 and worked.off:
            try:
                off = changed(self, main.edits(right)).worked(worked.job).off
            except Refusal:
                return now, right  # more than can be laid out: about so many
            right = min(max(1, right - round(off / once)), most)
        return now, right

    def go_on(self, job: Job, told: ToldSoFar) -> GoneOn:
        """Return what follows from what is made so far. Raises Refusal like ``going_on.go_on``."""
        return go_on(self, job, told)

    def propose(self, job: Job) -> tuple[Proposal, ...]:
        """Return the best few ways to bring the make-up to its length, the best first."""
        target = self.target(job)
        makeup = changed(self, self.counted_out(job))
        every = fill(makeup, job.wires, target.wanted, target.doubt, target.measure)
        return tuple(self._proposal(job, one, target) for one in every)

    def _proposal(self, job: Job, one: Filled, target: Target) -> Proposal:
        changes = [
            (k, v)
            for k, v in one.knobs
            if k.key in ("count", "links", "rows", "along", "turns") or v != k.now
        ]
        says = ""
        for knob, value in changes:
            said = _said(knob, value)
            says = say("proposal.and", first=says, then=said) if says else said
        if one.links:
            right = say("proposal.at_link", link=one.links, got=one.got)
            says = say("proposal.and", first=says or say("proposal.now"), then=right)
        return Proposal(
            says=says or say("proposal.now"),
            edits=_as_proposed(one.edits),
            finished_mm=one.finished,
            got_mm=one.got,
            off_mm=one.off,
            exact=abs(one.off) <= target.doubt,
            word=self.word_of(job, one.got),
            now=all(k.now == v for k, v in one.knobs),
        )

    def word_of(self, job: Job, got: float) -> str:
        """Return the ease word of a measure, '' where there is none."""
        return ""

    def counted_unit(self, worked: OnPiece) -> tuple[float, str]:
        """Return the length of what the piece is counted by [mm], and its name."""
        at = counted_entry(self.entries)
        if at is None:
            return 1.0, say("part.body")
        entry = self.entries[at]
        lying = [p for p in worked.laid.parts if p.unit.top == entry.id]
        return unit_of(entry, [(p.unit.entry, _grows(p), p.name) for p in lying])

    @property
    def worn_cautions(self) -> tuple[str, ...]:
        """Cautions that stand at the try-on."""
        return {"necklace": ("neck",), "headpiece": ("head",), "earring": ("lobe",)}.get(
            self.family, ()
        )

    def write_parts(self, worked: OnPiece, book: Book, to: str) -> None:
        """Write what the sequence comes to, entry by entry, then the string and the closure."""
        write_parts(self.entries, worked.laid, book, to)


def _grows(part: Lying) -> float:
    """Return the length of a part without what is the same however many rows it has [mm]."""
    weaving = part.made.weaving
    if not isinstance(weaving, Weaving):
        return part.length
    size = weaving.body.size
    return part.length - size.before - size.behind


def unit_of(entry: Entry, lying: list[tuple[str, float, str]]) -> tuple[float, str]:
    """Return the length of what an entry is counted by [mm], and its name.

    Args:
        entry: that is counted.
        lying: its parts as they lie: the name of the inner entry, length [mm], what it is called.

    Source: plain counting.
    """
    if entry.part is not None and len(entry.part.unfolded()) > 1:
        return max(sum(row[1] for row in lying) / max(entry.times, 1), 0.1), entry.part.says
    if entry.part is not None and lying:
        return entry.part.unit(lying[0][1])
    if entry.part is not None:
        return entry.part.unit(0.0)
    if entry.evenly and lying:
        small = entry.group[1].id
        _, length, name = next((row for row in lying if row[0] == small), lying[0])
        return max(length, 0.1), name
    once = sum(length for _, length, _ in lying) / max(entry.times, 1)
    return max(once, 0.1), say("part.repeat")


def length_beside(wanted: float, doubt: float) -> Target:
    """Return a target for what lies outside the line [mm]."""
    return Target(wanted, doubt, beside_of)


def _said(knob: Knob, value: Settable) -> str:
    """Return one change in words."""
    if isinstance(value, Closure):
        return say("proposal.closure", name=value.says)
    if isinstance(value, str):
        return say(f"proposal.{knob.key}_{value}")
    none = value == 0 and knob.key in ("rings", "extender")
    return say(
        f"proposal.{knob.key}_none" if none else f"proposal.{knob.key}", count=value, name=knob.name
    )


def _as_proposed(edits: tuple[Edit, ...]) -> tuple[ProposedEdit, ...]:
    return tuple(
        ProposedEdit(
            path=e.path, value=e.value.as_typed() if isinstance(e.value, Closure) else e.value
        )
        for e in edits
    )


def _once(advice: Iterator[Advice | None]) -> Iterator[Advice]:
    """Yield advice, what would be said twice once."""
    yield from {(a.id, a.says): a for a in advice if a is not None}.values()
