"""Composed pieces: a make-up solved to a length, whatever part of the body it is for."""

from abc import abstractmethod
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from typing import Any, ClassVar

from jamreel.core.advice import Advice
from jamreel.core.advice.closing import should_release
from jamreel.core.advice.joining import not_to_length
from jamreel.core.bench.steps import Step, step
from jamreel.core.errors import Refusal
from jamreel.core.families.base import Construction, Job, usually
from jamreel.core.fit.tryon import PuttingRight
from jamreel.core.forming.chosen import Wire
from jamreel.core.makeup.checks import make_up_advice, weakest_of
from jamreel.core.makeup.compose import Composition, compose
from jamreel.core.makeup.fill import (
    Edit,
    Filled,
    Measured,
    changed,
    counted_entry,
    fill,
    finished_of,
    reached,
)
from jamreel.core.makeup.sequence import MakeUp
from jamreel.core.parts.chain import BoughtChain
from jamreel.core.result import Plan, PlannedBend, Proposal, ProposedEdit, Strength
from jamreel.core.values import Drawings, PlusMinus, Sheet
from jamreel.core.words import say
from jamreel.core.workpiece.assemble import Fit, Row, assemble
from jamreel.core.workpiece.ledger import Book
from jamreel.core.workpiece.parts_wire import Wires, counted, needs_of, wires_of
from jamreel.core.workpiece.sequence_drawing import rule_of, sequence_sheet
from jamreel.core.workpiece.steps import press_in_step

COMPOSE = "makeup.compose.compose"


@dataclass(frozen=True)
class Target:
    """What a make-up is to come to [mm]: the figure, its doubt, and how it is measured."""

    wanted: float
    doubt: float
    measure: Measured = finished_of


@dataclass(frozen=True)
class Worked:
    """A make-up worked out for a job: what it is made of, and how far it is from its target.

    ``memo`` keeps what a construction works out more than once.
    """

    job: Job
    wire: Wire
    laid: Composition
    target: Target
    got: float
    memo: dict[str, Any] = field(default_factory=dict, compare=False)

    @property
    def off(self) -> float:
        """What it comes to, less what is wanted [mm]."""
        return self.got - self.target.wanted


class Composed(MakeUp, Construction):
    """Base of the composed pieces. A subclass says what the piece is measured against.

    ``sets`` is how often the whole is made: two for a pair.
    """

    usual_wire: ClassVar[Mapping[str, str]] = usually("20 awg")
    asks: ClassVar[tuple[str, ...]] = ("inside_girth", "comfortable", "stays_on")

    @abstractmethod
    def target(self, job: Job) -> Target:
        """Return what the make-up is to come to."""

    @abstractmethod
    def against(self, worked: Worked, book: Book) -> None:
        """Write what the finished length is held against into the ledger."""

    @abstractmethod
    def rows(self, worked: Worked) -> list[Row]:
        """Return the figures beside those of every composed piece."""

    @abstractmethod
    def answers(self) -> dict[str, str]:
        """Return the figure that each station is about."""

    @abstractmethod
    def sheets(self, worked: Worked) -> tuple[Sheet, ...]:
        """Return the drawings beside that of the sequence."""

    def own_advice(self, worked: Worked) -> Iterator[Advice | None]:
        """Yield what only this construction has to say."""
        yield from ()

    def fit(self, worked: Worked) -> Fit | None:
        """Return how it fits a girth, or None for a piece that hangs."""
        return None

    def inside(self, worked: Worked) -> PlusMinus | None:
        """Return the inside girth, or None for a piece that has none."""
        return None

    def put_right(self, worked: Worked) -> PuttingRight | None:
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

    def worked(self, job: Job) -> Worked:
        """Return the make-up laid out for a job.

        Raises:
            Refusal: parts that can't be made, or nothing to lay out.
        """
        wire, target = job.wire_facts(), self.target(job)
        laid = compose(self, wire)
        if laid.finished <= 0:
            raise Refusal("no_parts", got=len(laid.parts), field="piece.entries")
        try:
            got = target.measure(laid)
        except ValueError:
            raise Refusal(
                "parts_too_thick", got=f"{laid.finished:.1f} mm", field="piece.entries"
            ) from None
        return Worked(job, wire, laid, target, got)

    def solve(self, job: Job) -> Plan:
        """Return the plan of the make-up as it stands; what fits better is proposed apart.

        As long as the maker has set no entries, the counts are those that fit best.
        """
        edits = self.counted_out(job)
        makeup = changed(self, edits)
        return makeup._as_it_stands(job, edits)

    def counted_out(self, job: Job) -> tuple[Edit, ...]:
        """Return the counts that an untouched make-up takes to come to its length."""
        if "entries" in self.model_fields_set:
            return ()
        target = self.target(job)
        found = fill(
            self, job.wire_facts(), target.wanted, target.doubt, target.measure, plain=True
        )
        return found[0].edits if found else ()

    def _as_it_stands(self, job: Job, counted_out: tuple[Edit, ...]) -> Plan:
        worked = self.worked(job)
        laid, wire = worked.laid, worked.wire
        book = Book(wire.d)
        self.against(worked, book)
        wires = wires_of(self, laid, job.cutting, self.sets)
        weakest = weakest_of(laid)
        needs = needs_of(laid, self.sets)
        pm = worked.target.doubt
        in_all = sum(cut.length_mm * cut.quantity for cut in wires.cuts)
        wire_g = sum(cut.mass_g * cut.quantity for cut in wires.cuts)
        return assemble(
            job,
            wire,
            kind=self.kind,
            family=self.family,
            finished=PlusMinus(value=laid.finished, plus_minus=0.0),
            inside=self.inside(worked),
            fit=self.fit(worked),
            ledger=book.lines,
            rows=[
                ("finished", laid.finished, None),
                ("body", laid.body, None),
                ("wire_in_all", in_all or None, None),
                ("off_length", abs(worked.off), None),
                *self.rows(worked),
            ],
            answers=self.answers() if in_all else {**self.answers(), "cut": "finished"},
            cuts=wires.cuts,
            bends=_bends(job, wire, wires),
            steps=(
                *_cut_steps(wires, wire),
                *_part_steps(self, laid),
                *self.closing_steps(laid),
            ),
            advice=(
                *_once(make_up_advice(self, laid)),
                not_to_length(
                    reached(worked.off, laid.fastened.adds_range), pm, *self.counted_unit(worked)
                ),
                *self.own_advice(worked),
                should_release(weakest.newtons if weakest else None, job.child or self.must_release)
                if self.family == "necklace"
                else None,
            ),
            drawings=Drawings(
                rule=rule_of(
                    laid,
                    PlusMinus(value=laid.finished - worked.off, plus_minus=pm),
                    self.mirrored or self.focal is not None or self.hung is not None,
                ),
                sheets=(sequence_sheet(laid), *self.sheets(worked)),
            ),
            righting=self.put_right(worked),
            mass_g=wire_g + sum(need.mass_g for need in needs),
            needs=needs,
            weakest=Strength(says=weakest.says, newtons=weakest.newtons, grams=weakest.grams)
            if weakest
            else None,
            minutes=self.sets * sum(made.minutes * n for made, n in counted(laid)),
            counted_out=_as_proposed(counted_out),
        )

    def propose(self, job: Job) -> tuple[Proposal, ...]:
        """Return the best few ways to bring the make-up to its length, the best first."""
        wire, target = job.wire_facts(), self.target(job)
        makeup = changed(self, self.counted_out(job))
        every = fill(makeup, wire, target.wanted, target.doubt, target.measure)
        return tuple(self._proposal(job, one, target) for one in every)

    def _proposal(self, job: Job, one: Filled, target: Target) -> Proposal:
        changes = [(k, v) for k, v in one.knobs if k.key in ("count", "links") or v != k.now]
        says = ""
        for knob, value in changes:
            key = (
                f"{knob.key}_none" if value == 0 and knob.key in ("rings", "extender") else knob.key
            )
            said = say(f"proposal.{key}", count=value, name=knob.name)
            says = say("proposal.and", first=says, then=said) if says else said
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

    def counted_unit(self, worked: Worked) -> tuple[float, str]:
        """Return the length of what the piece is counted by [mm], and its name."""
        at = counted_entry(self)
        if at is None:
            return 1.0, say("part.body")
        entry = self.entries[at]
        lying = [p for p in worked.laid.parts if p.unit.path.startswith(f"entries.{at}")]
        if isinstance(entry.part, BoughtChain):
            return entry.part.pitch, say("part.chain_link")
        if entry.part is not None and lying:
            return max(lying[0].length, 0.1), entry.part.says
        if entry.evenly and lying:
            filler = next((p for p in lying if p.unit.path.endswith(".group.1")), lying[0])
            return max(filler.length, 0.1), filler.name
        once = sum(p.length for p in lying) / max(entry.times, 1)
        return max(once, 0.1), say("part.repeat")

    def closing_steps(self, laid: Composition) -> tuple[Step, ...]:
        """Return putting it together: the first half is tried on before the last closure."""
        together: list[Step] = []
        if laid.runs:
            together.append(step("composed.string", "form", check=True, tail=self.string_tail))
        if any(p.drop for p in laid.parts):
            together.append(step("composed.drops", "form", check=True))
        return (
            step("composed.lay_out", "form", check=True, finished=laid.finished),
            *together,
            step("composed.half", "form", check=True, half=laid.finished / 2),
            step("composed.close", "form", check=True),
            step("composed.try_on", "fit", cautions=self.worn_cautions, check=True),
            press_in_step(),
        )

    @property
    def worn_cautions(self) -> tuple[str, ...]:
        """Cautions that stand at the try-on."""
        return {"necklace": ("neck",), "headpiece": ("head",), "earring": ("lobe",)}.get(
            self.family, ()
        )

    def write_parts(self, worked: Worked, book: Book, to: str) -> None:
        """Write what the sequence comes to, entry by entry, as terms of a total."""
        laid = worked.laid
        for i, entry in enumerate(self.entries):
            root = f"entries.{i}"
            own = [p for p in laid.parts if f"{p.unit.path}.".startswith(f"{root}.")]
            if not own:
                continue
            label = say("part.group", count=len(own))
            if entry.part is not None:
                name = entry.part.says
                label = say("part.times", name=name, count=len(own)) if len(own) > 1 else name
            value = sum(p.length for p in own)
            book.named(
                f"entry_{i}", label, value, "entry", COMPOSE, "geometry", to,
                count=len(own), each=own[0].length,
            )  # fmt: skip
        for path, key in (("focal", "focal"), ("hung", "hung"), ("rings", "rings_back")):
            value = sum(p.length for p in laid.parts if p.unit.path == path)
            if value:
                book.term(key, value, COMPOSE, "geometry", to)
        loops = sum(2 * run.reach for run in laid.runs)
        if loops:
            rule = "path.loops.wrapped_loop_reach"
            book.term("string_loops", loops, rule, "geometry", to, runs=len(laid.runs))
        if laid.fastened.length:
            book.term(
                "closure", laid.fastened.length, "closures.base.Fastened", "geometry", to,
                receiving=laid.fastened.receiving.length, holding=laid.fastened.holding.length,
            )  # fmt: skip


def _as_proposed(edits: tuple[Edit, ...]) -> tuple[ProposedEdit, ...]:
    return tuple(ProposedEdit(path=e.path, value=e.value) for e in edits)


def _once(advice: Iterator[Advice | None]) -> tuple[Advice, ...]:
    """Return advice with what would be said twice said once."""
    found = {(a.id, a.says): a for a in advice if a is not None}
    return tuple(found.values())


def _bends(job: Job, wire: Wire, wires: Wires) -> tuple[PlannedBend, ...]:
    """Return each kind of bend once, named by the wire that it is on."""
    d = {cut.label: cut.wire_mm for cut in wires.cuts}
    found: dict[str, PlannedBend] = {}
    for label, bend in wires.bends:
        # Wraps go round the wire's own stem: nothing to bend them on.
        if bend.label == "wraps":
            continue
        named = bend.model_copy(update={"label": f"{label}: {say(f'bend.{bend.label}')}"})
        if named.label not in found:
            found[named.label] = job.on_pin(wire.of_diameter(d[label]), named)
    return tuple(found.values())


def _cut_steps(wires: Wires, wire: Wire) -> tuple[Step, ...]:
    if not wires.cuts:
        return ()
    count = sum(cut.quantity for cut in wires.cuts)
    cautions = ("eyes", "whip", "hard") if wire.metal.hard else ("eyes", "whip")
    return (
        step(
            "composed.cut", "cut", cautions=cautions, check=True, count=count, sizes=len(wires.cuts)
        ),
        step("composed.ends", "cut", cautions=("ends",)),
    )


def _part_steps(makeup: Composed, laid: Composition) -> Iterator[Step]:
    """Yield the steps of each kind of part once, named after it."""
    kinds: dict[str, int] = {}
    every = (*laid.parts, *laid.beside)
    names = {id(p.made): (p.unit.part.kind, p.name) for p in every}
    for half in (laid.fastened.receiving, laid.fastened.holding):
        names[id(half)] = ("closure", makeup.closure.says)
    seen: set[tuple[str, tuple[str, ...]]] = set()
    # The body before its closure: the first half is tried on before the last end is closed.
    halves = {id(laid.fastened.receiving), id(laid.fastened.holding)}
    order = sorted(counted(laid), key=lambda row: id(row[0]) in halves)
    for made, count in order:
        kind, name = names[id(made)]
        # Graduated beads are made alike.
        alike = (kind, tuple(s.says for s in made.steps))
        if alike in seen or not made.steps:
            continue
        seen.add(alike)
        kinds[kind] = kinds.get(kind, 0) + 1
        number = str(kinds[kind]) if kinds[kind] > 1 else ""
        label = say("part.times", name=name, count=count) if count > 1 else name
        for one in made.steps:
            yield one.model_copy(
                update={
                    "id": f"{kind}{number}-{one.id}",
                    "title": say("step.of_part", part=label, title=one.title),
                }
            )
