"""Every wire through the steps of its piece: where it is annealed, and what would crack it."""

from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import replace
from typing import Any

from jamreel.core.advice import Advice, advise
from jamreel.core.bench.steps import Step, step
from jamreel.core.forming.temper import (
    FIRST,
    MALLETED,
    STEELED,
    STRAIGHTENED,
    TUMBLED,
    Track,
    Work,
    track,
    twisted_strain,
    works_of,
)
from jamreel.core.forming.tools import Outfit
from jamreel.core.wire.metals import Metal
from jamreel.core.wire.sections import Twisted
from jamreel.core.words import catalogue, say
from jamreel.core.workpiece.worked import WorkedWire

# Before the first step: strands are twisted, then worked as one.
TWISTED = "twist"
_THROUGH: dict[str, float] = {
    "straightened": STRAIGHTENED,
    "malleted": MALLETED,
    "tumbled": TUMBLED,
    "hammered": STEELED,
}


def tracked(
    wires: Sequence[WorkedWire], steps: Sequence[Step], outfit: Outfit
) -> tuple[WorkedWire, ...]:
    """Return wires with their tracks through the steps of a piece.

    Args:
        wires: every kind of wire once.
        steps: of the piece, in order.
        outfit: of the bench.

    Source: ``forming.temper.track``.
    """
    # Wires that are bent alike have one track, however long they are between their bends.
    known: dict[object, Track] = {}
    found = []
    for one in wires:
        bent = tuple(row for row in zip(one.moves, one.steps, strict=True) if row[1] is not None)
        like = (one.wire, one.bought_mpa, one.of_steps, one.order, one.works, bent)
        if like not in known:
            known[like] = track(one.begins, _works(one, steps), torch=outfit.torch)
        found.append(replace(one, track=known[like]))
    return tuple(found)


def _works(one: WorkedWire, steps: Sequence[Step]) -> Iterator[Work]:
    """Yield all that is done to a wire, in order."""
    section = one.wire.section
    if isinstance(section, Twisted):
        yield Work(TWISTED, twisted_strain(section.strand / 2, section.pitch), early=True)
    shapes = set(one.order)
    for each in steps:
        if each.id not in one.of_steps:
            continue
        yield from (work for work in one.works if work.step == each.id)
        if each.works == "softened":
            yield Work(each.id, 0.0, softens=True)
        elif each.works:
            yield Work(each.id, _THROUGH[each.works], early=each.station == "cut")
        if each.id in shapes:
            yield from works_of(one.wire, each.id, one.at(each.id))


def with_heat(
    steps: Sequence[Step], wires: Sequence[WorkedWire], outfit: Outfit
) -> tuple[Step, ...]:
    """Return steps with annealing, quenching and pickling before those that would crack a wire.

    Args:
        steps: of the piece, in order.
        wires: with their tracks.
        outfit: of the bench: without a pot of pickle the fire scale is left for the end.

    Source: common practice.
    """
    before: dict[str, list[WorkedWire]] = {}
    for one in wires:
        for stage in one.track.anneals if one.track else ():
            there = before.setdefault(stage.work.step, [])
            if one not in there:
                there.append(one)
    found: list[Step] = []
    for each in steps:
        if each.station == "form" and FIRST in before:
            found += _first_fire(before.pop(FIRST), outfit)
        if each.id in before:
            found += _of(each, _heat(before[each.id], outfit))
        found.append(each)
        hot = [one.wire.metal for one in wires if "cooled" in each.does and each.id in one.of_steps]
        if hot:
            found += _of(each, _cooled(hot[0], outfit))
    return tuple(found)


def _first_fire(wires: Sequence[WorkedWire], outfit: Outfit) -> Iterator[Step]:
    """Yield what makes all wires soft that need it, a metal at a time: they are handled alike."""
    metals = dict.fromkeys(one.wire.metal for one in wires)
    for n, metal in enumerate(metals, 1):
        for step_ in _heat([one for one in wires if one.wire.metal == metal], outfit):
            name = step_.id if n == 1 else f"{step_.id}_{n}"
            yield step_.model_copy(update={"id": name})


def _of(each: Step, rows: Iterable[Step]) -> Iterator[Step]:
    """Yield steps under the names of the step that they are done for."""
    entry, _, own = each.id.rpartition("/")
    for one in rows:
        name = f"{one.id}_{own}"
        yield one.model_copy(
            update={
                "id": f"{entry}/{name}" if entry else name,
                "of": tuple(f"{k.rpartition('/')[0]}/{name}" for k in each.of),
                "counts": each.counts,
                "sort": each.sort,
            }
        )


def _heat(wires: Sequence[WorkedWire], outfit: Outfit) -> Iterator[Step]:
    """Yield what is done to make wires of one metal soft."""
    metal = wires[0].wire.metal
    names = ", ".join(dict.fromkeys(one.cut.label for one in wires))
    note = f"metal_note.{metal.id}.anneal"
    habit = say(note if note in catalogue("en") else "metal_note.other")
    what: dict[str, Any] = {"what": say("step.heat.wires", names=names), "habit": habit}
    yield step("heat.anneal", "form", cautions=("torch",), check=True, **what)
    yield from _cooled(metal, outfit)


def _cooled(metal: Metal, outfit: Outfit) -> Iterator[Step]:
    """Yield what is done to a hot metal before it is touched again."""
    if metal.quench:
        yield step("heat.quench", "form", cautions=("torch",), metal=metal.name)
    else:
        yield step("heat.cool", "form", name="quench", metal=metal.name)
    if outfit.pickle:
        yield step("heat.pickle", "form", cautions=("pickle",), check=True)


def cracked(
    wires: Sequence[WorkedWire], title: Callable[[str], str], *, torch: bool
) -> Advice | None:
    """Return what to do about the first wire that work would crack, where no single bend does.

    Args:
        wires: with their tracks.
        title: gives what a step is called.
        torch: whether the bench has one.

    Source: ``forming.temper.track``; what helps is common practice.
    """
    for one in wires:
        stage = one.track.cracks if one.track else None
        if stage is None or (stage.work.bends and stage.work.strain > one.wire.bend_limit()):
            # A bend that alone asks too much is said as such.
            continue
        able = "anneal" in one.wire.metal.takes
        key = "work_cracks" if torch or not able else "work_cracks_torchless"
        return advise(
            key,
            "check",
            "wire.temper",
            step=title(stage.work.step),
            wire=one.wire.label,
            metal=one.wire.metal.name,
            temper=say(f"temper.{one.wire.temper}"),
            used=100 * stage.used,
            bears=100 * stage.bears,
        )
    return None
