"""What is asked of a maker when a step is done, and what the answers tell of the hand."""

from collections.abc import Iterator

from jamreel.core.bench.steps import Asked, Step
from jamreel.core.cutting.cuts import Cut, CutLine
from jamreel.core.errors import Refusal
from jamreel.core.result import Plan
from jamreel.core.units import Mm
from jamreel.core.values import Frozen
from jamreel.core.words import say
from jamreel.core.workpiece.ledger import ALLOWANCES
from jamreel.core.workpiece.records import COUNTS

# Of a hand that takes less or more than this of the sum, something else was measured.
LEAST_RATIO, MOST_RATIO = 0.5, 2.0
# Rows are counted over so much [mm]; common practice.
ROWS_OVER_MM = 20.0
# The step that makes wire soft before it is formed.
ANNEALED = "heat.anneal"
# So many leftovers are asked for at one step: more would hold up the work.
MOST_ASKED = 3


class Question(Frozen):
    """Something that is known when a step is done: a length, or a ``count``; what it most likely
    is, and the cut, former or body that it is about."""

    id: str
    asks: Asked
    label: str
    expected: float | None
    count: bool = False
    about: str = ""


class OneFigure(Frozen):
    """The one number of a step: a length [mm], or a ``count``, and what it is called."""

    label: str
    value: float
    count: bool


# What a hand needs first of all that a step speaks of; common practice, no source.
FIRST = (
    *("more", "length", "former", "pin", "inner", "body", "finished", "inside", "gap", "overlap"),
    *("tail", "at", "up", "rows", "turns", "wraps", "beads", "strands", "count"),
)


def figure_at(step: Step) -> OneFigure | None:
    """Return the one number of a step, None where it speaks of none.

    Args:
        step: of a plan.

    Source: common practice, no source.
    """
    key = next((one for one in FIRST if step.figures.get(one)), None)
    if key is None:
        return None
    label = say(f"standing.figure.{key}")
    return OneFigure(label=label, value=step.figures[key], count=key in COUNTS)


class Told(Frozen):
    """What an answer tells: planned and taken of a technique in a class of wire, or a length that
    was planned and made."""

    kind: str
    technique: str
    stock: str
    planned: float
    took: float


def questions_at(plan: Plan, step: Step) -> tuple[Question, ...]:
    """Return what is known when a step is done, none of which has to be told.

    Args:
        plan: of the piece.
        step: one of its steps.

    Source: common practice, no source.
    """
    return tuple(one for asks in step.asks for one in _ASK[asks](plan, step))


def _left(plan: Plan, step: Step) -> Iterator[Question]:
    """Yield the leftovers of wires that a maker's hand has a say in."""
    entries = {key.partition("/")[0] for key in step.stands_for if "/" in key}
    cuts = [cut for cut in plan.cuts if cut.techniques and not cut.off_reel]
    mine = [cut for cut in cuts if _entry(cut) in entries] if entries else cuts
    found = [c for c in mine if (entries or "/" not in c.id) and not c.id.startswith("coil/")]
    for cut in found[:MOST_ASKED]:
        spare = sum(line.value_mm for line in cut.lines if line.id in ALLOWANCES[1:])
        looser = sum(one.cut_for - one.by_sum for one in cut.techniques)
        yield Question(
            id=f"left/{cut.id}",
            asks="left",
            label=say("asked.left", wire=cut.label),
            expected=max(0.0, spare + looser),
            about=cut.id,
        )


def _entry(cut: Cut) -> str:
    return cut.id.partition("/")[0] if "/" in cut.id else ""


def _came_off(plan: Plan, step: Step) -> Iterator[Question]:
    """Yield what the body came off its former at; what was softened on the way says nothing of the
    wire as it hangs on the rack."""
    former = next((one for one in plan.formers if one.tool_mm is not None), None)
    soft = any(one.work == ANNEALED or one.works == "softened" for one in plan.steps)
    if former is not None and former.tool_mm is not None and plan.cuts and not soft:
        yield Question(
            id="came_off",
            asks="came_off",
            label=say("asked.came_off", former=former.tool_mm),
            expected=former.result_mm,
            about=plan.cuts[0].stock,
        )


def _rows(plan: Plan, step: Step) -> Iterator[Question]:
    entries = {key.partition("/")[0] for key in step.stands_for}
    for body in plan.woven:
        if body.entry in entries and body.wires:
            yield Question(
                id=f"rows/{body.entry}",
                asks="rows",
                label=say("asked.rows", over=ROWS_OVER_MM, rows=body.rows_name),
                expected=round(ROWS_OVER_MM / body.pitch_mm),
                count=True,
                about=body.entry,
            )


def _finished(plan: Plan, step: Step) -> Iterator[Question]:
    if plan.finished_length_mm is not None:
        yield Question(
            id="finished",
            asks="finished",
            label=say("asked.finished"),
            expected=plan.finished_length_mm.value,
        )


def _inside(plan: Plan, step: Step) -> Iterator[Question]:
    if plan.inside_girth_mm is not None:
        yield Question(
            id="inside",
            asks="inside",
            label=say("asked.inside"),
            expected=plan.inside_girth_mm.value,
        )


def _cut(plan: Plan, step: Step) -> Iterator[Question]:
    # Each wire is told by itself, where it is cut.
    yield from ()


_ASK = {
    "left": _left,
    "came_off": _came_off,
    "rows": _rows,
    "finished": _finished,
    "inside": _inside,
    "cut": _cut,
}


def told_by_leftover(cut: Cut, actual: float, left: float) -> tuple[Told, ...]:
    """Return what a leftover tells of the techniques of its wire: what it took was cut less left.

    Where a wire goes through several techniques, all of them took alike more than their sums.

    Args:
        cut: as planned.
        actual: length as cut [mm].
        left: snipped off at its end [mm].

    Raises:
        Refusal: more left than was cut, or a ratio that no hand has.

    Source: plain arithmetic.
    """
    if left >= actual:
        raise Refusal("left_more_than_cut", got=Mm(left), field="left", cut=actual)
    by_sum = sum(one.by_sum for one in cut.techniques)
    straight = sum(_straight(line) for line in cut.lines) - sum(
        one.cut_for for one in cut.techniques
    )
    first = next((line.value_mm for line in cut.lines if line.id == "trim_left"), 0.0)
    took = actual - left - first - straight
    if by_sum <= 0 or not LEAST_RATIO <= took / by_sum <= MOST_RATIO:
        likely = max(0.0, actual - first - straight - by_sum)
        raise Refusal("left_far", got=Mm(left), field="left", likely=likely)
    ratio = took / by_sum
    return tuple(
        Told(
            kind="wire",
            technique=one.technique,
            stock=cut.stock,
            planned=one.by_sum,
            took=one.by_sum * ratio,
        )
        for one in cut.techniques
    )


def _straight(line: CutLine) -> float:
    return 0.0 if line.id in ALLOWANCES else line.value_mm
