"""What was really done at the bench, held against what the plan wants now.

A record says of one wire, step or need what it was for and how it was done. It stays with that
thing, whatever becomes of the plan, or is said to be no longer needed; never does it pass to
another by itself.
"""

from collections.abc import Iterable, Iterator, Sequence
from typing import Literal

from pydantic import Field

from jamreel.core.advice.making import AS_CUT_TOLERANCE_MM
from jamreel.core.bench.steps import Step
from jamreel.core.cutting.cuts import Cut, of_cut, wire_key
from jamreel.core.result import Need, Plan
from jamreel.core.values import Frozen
from jamreel.core.words import catalogue, say

# A figure within this of what it was is the same: rounding, not a change of mind [mm].
SAME_MM = 0.05
MOST_OFFERED = 3

RecordKind = Literal["cut", "step", "need"]
WireVerdict = Literal["right", "long", "short", "other_wire", "not_needed"]


class Record(Frozen):
    """One thing done: its key in the plan of then, and what it was.

    ``planned`` and ``actual`` are lengths [mm] of a wire, counts of a need. ``stock`` is what the
    wire had to be, ``figures`` what the step spoke of, ``follows`` the step that came before it.
    """

    kind: RecordKind
    key: str
    planned: float | None = None
    actual: float | None = None
    says: str = ""
    stock: str = ""
    figures: dict[str, float] = Field(default_factory=dict)
    follows: str = ""


class Fits(Frozen):
    """A wire that is still wanted and could be made of one that was cut, and what that leaves."""

    key: str
    says: str
    wanted_mm: float
    spare_mm: float


class WireNow(Frozen):
    """A wire that was cut, and what it is to the plan of now.

    ``by_mm`` is how much too long or too short; ``known`` tells that the maker cut it so knowingly,
    the plan not having moved since. ``serves`` are wires still wanted that it could become.
    """

    key: str
    says: str
    verdict: WireVerdict
    actual_mm: float
    wanted_mm: float | None
    by_mm: float
    known: bool
    serves: tuple[Fits, ...] = ()

    @property
    def settled(self) -> bool:
        """Whether nothing is left to do about it."""
        return self.verdict == "right" or self.known


class StepNow(Frozen):
    """A step that was done, and whether it still is as planned; what has changed, in words."""

    key: str
    says: str
    verdict: Literal["right", "changed", "not_needed"]
    changes: tuple[str, ...] = ()


class NeedNow(Frozen):
    """Beads or findings that were fetched, and by how many they are too few or too many."""

    key: str
    says: str
    verdict: Literal["right", "more", "fewer", "not_needed"]
    fetched: int
    by: int


class Standing(Frozen):
    """All that was done to a piece, held against its plan; and the wires it wants besides."""

    wires: tuple[WireNow, ...] = ()
    steps: tuple[StepNow, ...] = ()
    needs: tuple[NeedNow, ...] = ()
    open_wires: tuple[str, ...] = ()


def standing(plan: Plan, records: Sequence[Record]) -> Standing:
    """Return how what was done stands to a plan.

    Args:
        plan: what is wanted now.
        records: what was done, each standing.

    Source: plain comparison; a wire is right within half a millimetre, what a flush cut varies by
        (common practice).
    """
    cuts = [record for record in records if record.kind == "cut"]
    wires = tuple(_wires_now(plan.cuts, cuts))
    wanted = open_wires(plan.cuts, cuts)
    return Standing(
        wires=tuple(_with_offers(wire, cuts, wanted, plan.cuts) for wire in wires),
        steps=tuple(_steps_now(plan.steps, [r for r in records if r.kind == "step"])),
        needs=tuple(_needs_now(plan.needs, [r for r in records if r.kind == "need"])),
        open_wires=wanted,
    )


def open_wires(cuts: Sequence[Cut], records: Sequence[Record]) -> tuple[str, ...]:
    """Return the keys of wires that are wanted and not there: not cut, or cut too short to serve.

    Args:
        cuts: of the plan.
        records: wires that were cut.
    """
    serving = {now.key for now in _wires_now(cuts, records) if _serves(now)}
    taken: dict[str, set[int]] = {}
    filled: dict[str, int] = {}
    for record in records:
        name, number = of_cut(record.key)
        taken.setdefault(name, set()).add(number)
        filled[name] = filled.get(name, 0) + (record.key in serving)
    found: list[str] = []
    for cut in cuts:
        if cut.stock:
            used = taken.get(cut.id, set())
            missing = cut.quantity - filled.get(cut.id, 0)
            free = (n for n in range(1, cut.quantity + len(used) + 1) if n not in used)
            found += [wire_key(cut, next(free)) for _ in range(missing)]
    return tuple(found)


def _serves(now: WireNow) -> bool:
    return now.verdict in ("right", "long") or (now.verdict == "short" and now.known)


def _wires_now(cuts: Iterable[Cut], records: Sequence[Record]) -> Iterator[WireNow]:
    """Yield each wire that was cut; of more than are wanted those that are off go first."""
    wanted = {cut.id: cut for cut in cuts}
    by_cut: dict[str, list[WireNow]] = {}
    for record in records:
        cut = wanted.get(of_cut(record.key)[0])
        by_cut.setdefault(of_cut(record.key)[0], []).append(_wire_now(record, cut))
    for key, found in by_cut.items():
        cut = wanted.get(key)
        order = sorted(found, key=lambda now: (not _serves(now), now.verdict != "right"))
        surplus = {now.key for now in order[cut.quantity if cut else 0 :]}
        for now in found:
            lost = now.key in surplus and now.verdict != "other_wire"
            yield (
                now.model_copy(
                    update={
                        "verdict": "not_needed",
                        "wanted_mm": None,
                        "by_mm": 0.0,
                        "known": False,
                    }
                )
                if lost
                else now
            )


def _wire_now(record: Record, cut: Cut | None) -> WireNow:
    actual, wanted = record.actual or 0.0, cut.length_mm if cut else None
    off = actual - wanted if wanted is not None else 0.0
    verdict: WireVerdict = "right"
    if cut is None:
        verdict = "not_needed"
    elif record.stock and record.stock != cut.stock:
        verdict = "other_wire"
    elif abs(off) > AS_CUT_TOLERANCE_MM:
        verdict = "long" if off > 0 else "short"
    known = (
        verdict in ("long", "short")
        and record.planned is not None
        and wanted is not None
        and abs(record.planned - wanted) <= SAME_MM
    )
    says = record.says or (cut.label if cut else record.key)
    return WireNow(
        key=record.key,
        says=says,
        verdict=verdict,
        actual_mm=actual,
        wanted_mm=wanted,
        by_mm=abs(off),
        known=known,
    )


def _with_offers(
    now: WireNow, records: Sequence[Record], wanted: Sequence[str], cuts: Sequence[Cut]
) -> WireNow:
    """Return a wire that does not serve with those still wanted that it could become."""
    if now.settled or now.verdict == "long":
        return now
    record = next(r for r in records if r.key == now.key)
    by_id = {cut.id: cut for cut in cuts}
    found: dict[str, Fits] = {}
    for key in wanted:
        cut = by_id[of_cut(key)[0]]
        spare = now.actual_mm - cut.length_mm
        if cut.stock == record.stock and spare >= -AS_CUT_TOLERANCE_MM and cut.id not in found:
            found[cut.id] = Fits(
                key=key, says=cut.label, wanted_mm=cut.length_mm, spare_mm=max(spare, 0.0)
            )
    nearest = sorted(found.values(), key=lambda one: (one.spare_mm, one.key))
    return now.model_copy(update={"serves": tuple(nearest[:MOST_OFFERED])})


def done_steps(plan: Plan, records: Iterable[Record]) -> frozenset[str]:
    """Return the steps of a plan that are done for every entry that they are for."""
    done = {record.key for record in records if record.kind == "step"}
    return frozenset(step.id for step in plan.steps if done.issuperset(step.stands_for))


def record_of_step(steps: Sequence[Step], step: Step, key: str) -> Record:
    """Return what is kept of a step when it is done.

    Args:
        steps: of the plan, in order.
        step: that was done.
        key: which of the steps that it stands for.
    """
    same = [one.id for one in steps if one.station == step.station]
    at = same.index(step.id)
    return Record(
        kind="step",
        key=key,
        says=step.title,
        figures=step.figures_for(key),
        follows=same[at - 1] if at else "",
    )


def _steps_now(steps: Sequence[Step], records: Sequence[Record]) -> Iterator[StepNow]:
    by_key = {key: step for step in steps for key in step.stands_for}
    order = {key: n for n, step in enumerate(steps) for key in step.stands_for}
    for record in records:
        step = by_key.get(record.key)
        if step is None:
            yield StepNow(key=record.key, says=record.says or record.key, verdict="not_needed")
            continue
        changes = list(_changes(record.figures, step.figures_for(record.key)))
        if record.follows in order and order[record.follows] > order[record.key]:
            changes.append(say("standing.order", before=by_key[record.follows].title))
        verdict: Literal["right", "changed"] = "changed" if changes else "right"
        yield StepNow(key=record.key, says=step.title, verdict=verdict, changes=tuple(changes))


def _changes(then: dict[str, float], now: dict[str, float]) -> Iterator[str]:
    """Yield in words what a step spoke of otherwise when it was done."""
    for name, was in then.items():
        value = now.get(name)
        if value is not None and abs(value - was) > SAME_MM:
            key = f"standing.figure.{name}"
            label = say(key) if key in catalogue("en") else name.replace("_", " ")
            counts = name in COUNTS
            sentence = "standing.count_changed" if counts else "standing.changed"
            yield say(sentence, what=label, was=was, now=value)


# Figures of steps that are numbers, not lengths.
COUNTS = frozenset(
    {
        "count",
        "more",
        "wraps",
        "beads",
        "turns",
        "strands",
        "links",
        "sizes",
        "n",
        "sides",
        "drop",
        "rows",
    }
)


def _needs_now(needs: Sequence[Need], records: Sequence[Record]) -> Iterator[NeedNow]:
    wanted = {need.key_of(share): (need, share.count) for need in needs for share in need.shares}
    for record in records:
        fetched = round(record.actual or 0)
        need, count = wanted.get(record.key, (None, 0))
        says = f"{need.size}, {need.label}" if need else record.says or record.key
        verdict: Literal["right", "more", "fewer", "not_needed"] = "not_needed"
        if need is not None:
            verdict = "right" if fetched == count else "more" if fetched < count else "fewer"
        yield NeedNow(
            key=record.key, says=says, verdict=verdict, fetched=fetched, by=abs(count - fetched)
        )


def lacking(need: Need, records: Iterable[Record]) -> dict[str, int]:
    """Return what of a need is still to be fetched: how many, by the key of each share.

    Args:
        need: of the plan.
        records: what was fetched.
    """
    fetched = {r.key: round(r.actual or 0) for r in records if r.kind == "need"}
    rows = {need.key_of(share): share.count for share in need.shares}
    lacks = {key: count - fetched.get(key, 0) for key, count in rows.items()}
    return {key: count for key, count in lacks.items() if count > 0}
