"""The wires of a composition: what is cut, how often, and the bends on each."""

import math
import re
from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass

from jamreel.core.cutting.cuts import Cut, Cutting
from jamreel.core.makeup.compose import Composition, string_use
from jamreel.core.makeup.sequence import MakeUp
from jamreel.core.parts.base import Bought, Made, WireUse
from jamreel.core.path.moves import BendAt, Straight, developed_length
from jamreel.core.result import Need
from jamreel.core.words import say
from jamreel.core.workpiece.straight import Stretch, lay_straight


@dataclass(frozen=True)
class Wires:
    """The cuts of a piece, and the bends on them by the name of their cut."""

    cuts: tuple[Cut, ...]
    bends: tuple[tuple[str, BendAt], ...]


def counted(composition: Composition) -> Iterator[tuple[Made, int]]:
    """Yield each thing made, closure halves first, with how often it is made."""
    fastened = composition.fastened
    yield fastened.receiving, 1
    yield fastened.holding, 1
    every = (*composition.parts, *composition.beside)
    times = Counter(id(part.made) for part in every)
    seen = set()
    for part in every:
        if id(part.made) not in seen:
            seen.add(id(part.made))
            yield part.made, times[id(part.made)]


def uses_of(makeup: MakeUp, composition: Composition) -> Iterator[tuple[WireUse, int]]:
    """Yield the wires of a piece with how many of each are cut."""
    for made, times in counted(composition):
        for use in made.wires:
            yield use, use.quantity * times
    for run in composition.runs:
        yield string_use(makeup, run, composition.string), 1


def wires_of(makeup: MakeUp, composition: Composition, cutting: Cutting, sets: int = 1) -> Wires:
    """Return the cuts of a piece, alike ones together, and their bends.

    Args:
        makeup: gives the string's loops.
        composition: the piece laid out.
        cutting: trims and margin of every cut.
        sets: how often the whole is made, 2 for a pair.

    Source: plain counting.
    """
    found: dict[tuple[object, ...], tuple[WireUse, int]] = {}
    for use, times in uses_of(makeup, composition):
        alike = (use.key, use.wire.d, use.stretches)
        known = found.get(alike, (use, 0))[1]
        found[alike] = (use, known + times * sets)
    cuts, bends = [], []
    names: Counter[str] = Counter()
    for use, times in found.values():
        names[use.key] += 1
        number = names[use.key]
        cut, on_it = _cut(use, times, cutting)
        if number > 1:
            cut = cut.model_copy(
                update={"id": f"{use.key}_{number}", "label": f"{cut.label} {number}"}
            )
        cuts.append(cut)
        bends += [(cut.label, bend) for bend in on_it]
    return Wires(tuple(cuts), tuple(bends))


def _cut(use: WireUse, times: int, cutting: Cutting) -> tuple[Cut, tuple[BendAt, ...]]:
    if use.joined:
        # A coil that rings or spacers are cut from: one wire, and only its own ends are trimmed.
        return _coil(use, times, cutting), ()
    rows = [
        Stretch(key, moves, "body" if key == "body" and _straight(moves) else "part")
        for key, moves in use.stretches
    ]
    laid = lay_straight(use.key, rows, use.wire, cutting)
    return laid.cut.model_copy(update={"quantity": times}), laid.bends


def _coil(use: WireUse, times: int, cutting: Cutting) -> Cut:
    """Return the wire of a coil that things are cut from: off the reel, or in lengths to handle."""
    once = sum(developed_length(moves, use.wire.d) for _, moves in use.stretches)
    coils = 1 if cutting.off_reel else max(1, math.ceil(once * times / cutting.longest))
    each = math.ceil(times / coils)
    trimmed = cutting.model_copy(update={"trim": 0.0}) if cutting.off_reel else cutting
    stretches = [Stretch("coil_of", (Straight(length=once * each),), "body")]
    cut = lay_straight(use.key, stretches, use.wire, trimmed).cut
    return cut.model_copy(
        update={
            "marks": cut.marks[:1] + cut.marks[-1:],
            "quantity": math.ceil(times / each),
            "off_reel": cutting.off_reel,
        }
    )


def _straight(moves: tuple[object, ...]) -> bool:
    return all(isinstance(move, Straight) for move in moves)


def needs_of(composition: Composition, sets: int = 1) -> tuple[Need, ...]:
    """Return what is bought for a piece, alike things together.

    Args:
        composition: the piece laid out.
        sets: how often the whole is made.

    Source: plain counting.
    """
    found: dict[tuple[str, str], tuple[Bought, int]] = {}
    for made, times in counted(composition):
        for bought in made.bought:
            key = (bought.key, bought.size)
            known = found.get(key, (bought, 0))[1]
            found[key] = (bought, known + bought.quantity * times * sets)
    return tuple(
        Need(
            id=_need_id(key, size),
            kind="bead" if key == "bead" else "finding",
            label=say(f"need.{key}"),
            size=size,
            size_mm=bought.size_mm,
            quantity=count,
            mass_g=bought.mass_g * count,
        )
        for (key, size), (bought, count) in found.items()
    )


def _need_id(key: str, size: str) -> str:
    """Return a name that stays with what is needed, whatever else comes into the piece."""
    return re.sub(r"[^a-z0-9.]+", "-", f"{key} {size}".lower()).strip("-")[:60]
