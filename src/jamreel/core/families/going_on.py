"""On the way: what shows early of a piece of parts, and the rest planned from there."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

from jamreel.core.advice.making import AS_CUT_TOLERANCE_MM
from jamreel.core.bench.steps import Step
from jamreel.core.cutting.cuts import of_cut
from jamreel.core.errors import Refusal
from jamreel.core.families.base import Job
from jamreel.core.interlace.base import MOST_ROWS, Weaving
from jamreel.core.interlace.body import Takes
from jamreel.core.makeup.compose import Composition
from jamreel.core.makeup.fill import Edit, Knob, changed, fill, main_knob
from jamreel.core.makeup.sequence import MOST_TIMES, MakeUp
from jamreel.core.parts.so_far import MOST_DONE, SoFar, ToldSoFar
from jamreel.core.result import GoneOn, ProposedEdit, Way
from jamreel.core.units import Mm
from jamreel.core.words import say
from jamreel.core.workpiece.parts_wire import wires_of

if TYPE_CHECKING:
    from jamreel.core.families.composed import Composed, OnPiece

# A row or link made further from its plan than this was miscounted, or is of another sort.
LEAST_RATIO, MOST_RATIO = 0.5, 2.0


@dataclass(frozen=True)
class _Made:
    """An entry as a make-up has it: so many, each so long [mm], what they are called, and how they
    are woven where they are."""

    count: int
    each: float
    name: str
    weaving: Weaving | None


def go_on(piece: "Composed", job: Job, told: ToldSoFar) -> GoneOn:
    """Return what follows from what is made so far of an entry.

    Args:
        piece: as it is written down.
        job: what the maker decided.
        told: by the maker.

    Raises:
        Refusal: an entry that is not counted, or figures that can't be so, at their field.

    Source: plain ratios: what is not made yet comes out as what is made did.
    """
    before = changed(piece, piece.counted_out(job))
    at = next((n for n, one in enumerate(before.entries) if one.id == told.entry), None)
    if at is None or not before.entries[at].countable:
        raise Refusal("so_far_entry", got=told.entry, field="entry")
    # Figures of an earlier time say nothing of how it was planned at first.
    plain = changed(before, (Edit(("entries", at, "so_far"), None),))
    first = _made_of(plain, plain.worked(job).laid, at)
    planned = before.worked(job)
    so_far = _read(told, first, planned, job)
    main = main_knob(before)
    own = main if main is not None and main.path[:2] == ("entries", at) else None
    most = _most_of(own) if own is not None else first.count
    if so_far.count > most:
        raise Refusal("so_far_more", got=so_far.count, field="count", most=most)
    now = changed(plain, (Edit(("entries", at, "so_far"), so_far),))
    counts = _counts(now, job, told, so_far, own)
    found = changed(now, counts)
    worked = found.worked(job)
    made = _made_of(found, worked.laid, at)
    reaches, joins = _goes_on(made.weaving, so_far)
    gone = GoneOn(
        entry=told.entry,
        label=made.name,
        done=so_far.count,
        in_all=made.count,
        planned=_made_of(before, planned.laid, at).count,
        each_mm=so_far.each,
        planned_each_mm=first.each,
        reaches=reaches,
        joins_after=joins,
        finished_mm=worked.laid.finished,
        off_mm=worked.off,
        says=(),
        edits=tuple(_edits(piece, at, so_far, counts)),
    )
    says = [*_said(gone, told, made.weaving)]
    reach = _cut_for(now, job, own, gone) if own is not None else gone.in_all
    if reach < gone.in_all:
        says.append(say("going_on.cut_for", count=reach))
    return gone.model_copy(update={"says": tuple(says)})


def _most_of(knob: Knob) -> int:
    """Return how many of an entry a piece can have at most."""
    return MOST_ROWS if knob.key == "rows" else MOST_TIMES


def _counts(
    now: "Composed", job: Job, told: ToldSoFar, so_far: SoFar, own: Knob | None
) -> tuple[Edit, ...]:
    """Return the counts that the rest is planned with: the maker's own, else those that come
    nearest, and never fewer than are made."""
    if own is not None and told.in_all is not None:
        least, most = so_far.count, _most_of(own)
        if not least <= told.in_all <= most:
            key = "so_far_fewer" if told.in_all < least else "so_far_more"
            raise Refusal(key, got=told.in_all, field="in_all", least=least, most=most)
        return (Edit(own.path, told.in_all),)
    target = now.target(job)
    ways = fill(now, job.wires, target.wanted, target.doubt, target.measure, beside=())
    edits = ways[0].edits if ways else ()
    return tuple(
        _no_fewer(edit, so_far) if own and edit.path == own.path else edit for edit in edits
    )


def _goes_on(weaving: Weaving | None, so_far: SoFar) -> tuple[int | None, tuple[int, ...]]:
    """Return up to which row the wire in hand goes, None where nobody read what is left of it, and
    behind which rows new ones join."""
    shares = _shares(weaving) if so_far.left is not None else ()
    begun = [one for one in shares if one[0] <= max(so_far.count - 1, so_far.begun)]
    if not begun:
        return None, ()
    reaches = sum(begun[-1])
    return reaches, tuple(first for first, _ in shares if first >= reaches)


def _cut_for(now: "Composed", job: Job, own: Knob, gone: GoneOn) -> int:
    """Return for how many the wires reach that are cut already and don't grow any more: all of
    them, or as many as are made at least."""
    cut = {of_cut(key)[0]: long for key, long in job.cut.items()}
    mine = {key: long for key, long in cut.items() if key.startswith(f"{gone.entry}/")}

    def reach(count: int) -> bool:
        tried = changed(now, (Edit(own.path, count),))
        laid = tried.worked(job).laid
        wires = wires_of(tried, laid, job.cuts_by, tried.sets, job.ratio_of(laid.finished))
        return all(
            one.cut.length_mm <= mine[one.cut.id] + AS_CUT_TOLERANCE_MM
            for one in wires
            if one.cut.id in mine and not (one.pictured and one.pictured.woven)
        )

    if not mine or reach(gone.in_all):
        return gone.in_all
    # The more there are, the longer is what carries them.
    low, high = gone.done, gone.in_all
    while high - low > 1:
        middle = (low + high) // 2
        low, high = (middle, high) if reach(middle) else (low, middle)
    return low


def ways_of(makeup: MakeUp, laid: Composition, steps: Sequence[Step]) -> Iterator[Way]:
    """Yield the entries that can be told on the way.

    Args:
        makeup: as written down.
        laid: the piece laid out.
        steps: of it, some of which name the entry.

    Source: plain counting.
    """
    named = {one.way for one in steps}
    for at, entry in enumerate(makeup.entries):
        if entry.id in named:
            made = _made_of(makeup, laid, at)
            weaving = made.weaving
            wire = (
                "" if not _shares(weaving) or weaving is None else say(f"cut.{_most(weaving).key}")
            )
            yield Way(
                entry=entry.id,
                label=made.name,
                count=made.count,
                done=entry.done,
                each_mm=made.each,
                wire=wire,
            )


def _made_of(makeup: MakeUp, laid: Composition, at: int) -> _Made:
    """Return an entry as it is laid out; of a mirrored make-up one half."""
    entry = makeup.entries[at]
    lying = [one for one in laid.parts if one.unit.top == entry.id and not one.drop]
    if not lying:
        raise Refusal("so_far_entry", got=entry.says, field="entry")
    weaving = lying[0].made.weaving
    if isinstance(weaving, Weaving):
        name = weaving.part.rows_name
        return _Made(weaving.rows, weaving.body.size.pitch, name, weaving)
    long = sum(one.length for one in lying) / (2 if makeup.mirrored else 1)
    name = say("going_on.each_side", name=entry.says) if makeup.mirrored else entry.says
    return _Made(entry.times, long / max(entry.times, 1), name, None)


def _read(told: ToldSoFar, plain: _Made, now: "OnPiece", job: Job) -> SoFar:
    """Return what was told as it is planned with."""
    if told.over <= 0:
        raise Refusal("so_far_over", got=Mm(told.over), field="over")
    count = told.count
    if told.happened == "lost_count" or count is None:
        count = max(1, round(told.over / plain.each))
    if count < 1:
        raise Refusal("so_far_none", got=count, field="count")
    if count > MOST_DONE:
        raise Refusal("so_far_more", got=count, field="count", most=MOST_DONE)
    each = told.over / count
    if not LEAST_RATIO <= each / plain.each <= MOST_RATIO:
        likely = count * plain.each
        raise Refusal("so_far_far", got=Mm(told.over), field="over", count=count, likely=likely)
    left = 0.0 if told.happened == "ran_out" else told.left
    weaving = plain.weaving
    if weaving is None or left is None or not _shares(weaving):
        return SoFar(count=count, over=told.over)
    # The wire in hand is that of the plan as it stands, which knows of earlier joins.
    made = next(
        one.made.weaving for one in now.laid.parts if one.unit.top == told.entry and not one.drop
    )
    held = made if isinstance(made, Weaving) else weaving
    begun, took = _in_hand(held, count, left, told.entry, job)
    return SoFar(count=count, over=told.over, left=left, took=took, begun=begun)


def _most(weaving: Weaving) -> Takes:
    """Return the working wire of which a row takes most."""
    return max(weaving.body.wires.worked, key=lambda one: max(one.takes))


def _shares(weaving: Weaving | None) -> tuple[tuple[int, int], ...]:
    """Return from which row and over how many each wire goes of which a row takes most."""
    if weaving is None:
        return ()
    most = _most(weaving)
    return () if most.whole else tuple((one.first, one.rows) for one in weaving.shares(most))


def _in_hand(
    weaving: Weaving, count: int, left: float, entry: str, job: Job
) -> tuple[int, float | None]:
    """Return behind which row the wire in hand was begun, and what of it went into rows [mm]."""
    most = _most(weaving)
    shares = weaving.shares(most)
    n = max(i for i, one in enumerate(shares) if one.first < count or i == 0)
    start, end = weaving.tails(most)
    start += most.start if n == 0 else 0.0
    end += most.end if n == len(shares) - 1 else 0.0
    cut = start + shares[n].takes + end
    name = f"{entry}/{most.key}"
    real = next((long for key, long in job.cut.items() if of_cut(key)[0] == name), None)
    cut = real if n == 0 and real else cut
    # As cut it has its flush cuts, which are snipped by now.
    cut -= 2 * job.cutting.trim if n == 0 and real else 0.0
    took = cut - start - left
    if took <= 0:
        raise Refusal("so_far_left", got=Mm(left), field="left", likely=max(0.0, cut - start))
    return shares[n].first, took


def _no_fewer(edit: Edit, so_far: SoFar) -> Edit:
    """Return a count that is no less than what is made already."""
    fewer = isinstance(edit.value, int) and edit.value < so_far.count
    return Edit(edit.path, so_far.count) if fewer else edit


# Lengths of what is made so far: in millimetres, whatever the brief's bare numbers are meant in.
_LENGTHS = ("over", "left", "took")


def _edits(
    piece: "Composed", at: int, so_far: SoFar, counts: tuple[Edit, ...]
) -> Iterator[ProposedEdit]:
    typed = {
        key: f"{round(one, 3)} mm" if key in _LENGTHS else f"{one}"
        for key, one in so_far.model_dump(exclude_none=True).items()
    }
    yield ProposedEdit(path=("entries", at, "so_far"), value=typed)
    for one in counts:
        if isinstance(one.value, int):
            yield ProposedEdit(path=one.path, value=one.value)
    if piece.counted:
        yield ProposedEdit(path=("counted",), value=0)


def _said(gone: GoneOn, told: ToldSoFar, weaving: Weaving | None) -> Iterator[str]:
    """Yield what follows, in words."""
    if told.happened == "lost_count":
        yield say("going_on.counted", count=gone.done, name=gone.label)
    key = "going_on.each" if abs(gone.each_mm - gone.planned_each_mm) >= 0.005 else "going_on.same"
    yield say(key, each=gone.each_mm, planned=gone.planned_each_mm)
    more = gone.in_all - gone.done
    values = {"more": more, "in_all": gone.in_all, "planned": gone.planned, "name": gone.label}
    yield say("going_on.more" if more else "going_on.enough", **values)
    if weaving is None or gone.reaches is None:
        return
    if gone.reaches >= gone.in_all:
        yield say("going_on.lasts")
        return
    yield say(
        "going_on.joins" if gone.reaches > gone.done else "going_on.joins_here",
        name=gone.label,
        reaches=gone.reaches,
        after=", ".join(map(str, gone.joins_after)),
    )
