"""Filling to length: which counts come nearest, and how to spend what is left."""

import math
from collections.abc import Callable, Container, Iterator
from dataclasses import dataclass, replace
from functools import partial
from itertools import chain
from typing import Any, TypeVar

from jamreel.core.closures.base import Closure, Fastened
from jamreel.core.errors import Refusal
from jamreel.core.fit.thickness import inside_girth_of
from jamreel.core.forming.palette import Palette
from jamreel.core.interlace.base import MOST_ROWS
from jamreel.core.makeup.compose import Composition, Maker, compose
from jamreel.core.makeup.sequence import Entries, Entry, MakeUp
from jamreel.core.parts.base import Varies, near
from jamreel.core.parts.so_far import SoFar

MOST_RINGS, MOST_PROPOSALS, NEARBY = 4, 6, 2
# The furthest that anything but rows and mm is counted; how often the line to the count is drawn.
MOST_COUNTED, STRAIGHT_LINES = 390, 4
# Parts laid out in all trials together, and what a trial takes at least: about a second's work.
MOST_WORK, FEWEST_LAID = 30_000, 90
# Of more values of one knob only those near the right one are tried: they are counts, and lengthen.
MANY_VALUES = 20
# What a change beside the plain count has to win by [mm], where neither fits: makers count first.
CHANGE_COSTS_MM = 0.4
# An extender hangs down behind, another closure is another piece of work: last resorts.
DEAR_COSTS_MM = {"extender": 3.0, "closure": 2.0}


# A count, an option, or another closure whole.
Settable = int | str | Closure


@dataclass(frozen=True)
class Edit:
    """One value to set in the make-up, by its path below the piece."""

    path: tuple[str | int, ...]
    value: Settable | SoFar | None


@dataclass(frozen=True)
class Knob:
    """Something that may be set anew: what kind of change, where, and the values to try.

    ``alike`` are further places that get the same value.
    """

    key: str
    name: str
    path: tuple[str | int, ...]
    now: Settable
    values: tuple[Settable, ...]
    alike: tuple[tuple[str | int, ...], ...] = ()

    def edits(self, value: Settable) -> tuple[Edit, ...]:
        """Return what sets it to a value."""
        return tuple(Edit(path, value) for path in (self.path, *self.alike))


@dataclass(frozen=True)
class Filled:
    """A way to come near the length: its edits, and what the piece then measures [mm].

    ``beside`` is the kind of change that it makes beside the count, '' for none; ``links`` is the
    link of an extender at which it is right, ``got`` what it measures there.
    """

    edits: tuple[Edit, ...]
    knobs: tuple[tuple[Knob, Settable], ...]
    beside: str
    finished: float
    got: float
    off: float
    links: int = 0


# The settings of one trial.
Picked = tuple[tuple[Knob, Settable], ...]
AnyMakeUp = TypeVar("AnyMakeUp", bound=MakeUp)
Measured = Callable[[Composition], float]


def inside_of(composition: Composition) -> float:
    """Return the inside girth of a composition [mm]; see ``fit.thickness.inside_girth_of``."""
    return inside_girth_of(composition.segments)


def finished_of(composition: Composition) -> float:
    """Return the finished length of a composition [mm]."""
    return composition.finished


def beside_of(composition: Composition) -> float:
    """Return the length of what lies outside the line of a composition [mm]."""
    return composition.beside_length


def counted_entry(entries: Entries) -> int | None:
    """Return the entry that a fit is counted by: one marked to fill, else that of most length.

    Args:
        entries: of one line.

    Source: common practice.
    """
    marked = [i for i, entry in enumerate(entries) if entry.fill]
    if marked:
        return marked[0]
    able = [i for i, e in enumerate(entries) if e.times or e.evenly]
    return max(able, key=lambda i: entries[i].times, default=None)


def main_knob(makeup: MakeUp, line: str = "entries") -> Knob | None:
    """Return the count that the fit of a line is first of all made by.

    Entries that are marked beside the first, and counted by the same, are counted alike: two sides
    of a middle.
    """
    entries: Entries = getattr(makeup, line)
    first = counted_entry(entries)
    if first is None:
        return None
    knob = _count_of(entries, first, line)
    marked = [i for i, entry in enumerate(entries) if entry.fill and i != first]
    others = [_count_of(entries, i, line) for i in marked]
    alike = tuple(one.path for one in others if one.path[2:] == knob.path[2:])
    return replace(knob, alike=alike)


def _count_of(entries: Entries, i: int, line: str) -> Knob:
    entry = entries[i]
    if entry.evenly:
        filler = entry.group[1].part
        own = filler.counted_in if filler is not None else None
        if own is not None:
            turns: int = getattr(filler, own)
            return Knob(own, _name(entry), (line, i, "group", 1, "part", own), turns, ())
        return Knob("count", _name(entry), (line, i, "fillers"), entry.fillers, ())
    field = entry.part.counted_in if entry.part is not None else None
    if field is not None:
        now: int = getattr(entry.part, field)
        return Knob(field, _name(entry), (line, i, "part", field), now, ())
    return Knob("count", _name(entry), (line, i, "times"), entry.times, ())


def most_counted(main: Knob) -> int:
    """Return the furthest that a knob is counted."""
    return MOST_ROWS if main.key in ("rows", "along") else MOST_COUNTED


def _able(
    makeup: MakeUp, main: Knob | None, beside: Container[str] | None, laid: Composition | None
) -> Iterator[Knob]:
    """Yield what may be varied beside the count, as the piece is laid out now."""
    rings = laid is None or _takes_rings(makeup, laid)
    for knob in small_knobs(makeup, main):
        if (beside is None or knob.key in beside) and (rings or knob.key != "rings"):
            yield knob


def _takes_rings(makeup: MakeUp, laid: Composition) -> bool:
    """Return whether rings can hang at both ends of a body: in a single opening each. A row would
    turn over in a ring, caps take no loop, and a stiff core's loops are what the closure hangs
    in."""
    strung = {id(part) for run in laid.runs for part in run.parts}
    lying = [part for part in laid.parts if not part.drop]
    for part, side in ((lying[0], 0), (lying[-1], 1)) if lying else ():
        if id(part) in strung:
            if makeup.string_ends != "wrapped":
                return False
            continue
        ends = part.made.ends
        if ends is None or ends[1 - side if part.unit.turned else side].count > 1:
            return False
    return True


def small_knobs(makeup: MakeUp, main: Knob | None) -> Iterator[Knob]:
    """Yield what the remainder can be spent by, one at a time."""
    if makeup.closure.fastens:
        rings = tuple(range(MOST_RINGS + 1))
        yield Knob("rings", "", ("rings",), makeup.rings or 0, rings)
    counted = {one[:2] for one in (main.path, *main.alike)} if main is not None else set()
    for i, entry in enumerate(makeup.entries):
        part, path = entry.part, ("entries", i)
        if part is None:
            continue
        varies = part.varies()
        if path in counted:
            # What the line is counted by is not varied once more.
            varies = tuple(v for v in varies if v.field != part.counted_in)
        elif part.spaces:
            yield Knob("spacer", part.says, (*path, "times"), entry.times, near(entry.times, 4))
        yield from (_knob(one, part.says, (*path, "part")) for one in varies)
    yield from (_knob(one, "", ("closure",)) for one in makeup.closure.varies())
    others = makeup.closure.others()
    if others:
        yield Knob("closure", "", ("closure",), makeup.closure, others)


def _knob(one: Varies, name: str, path: tuple[str | int, ...]) -> Knob:
    return Knob(one.key, name, (*path, one.field), one.now, one.values)


def _name(entry: Entry) -> str:
    if entry.evenly and entry.group[1].part is not None:
        return entry.group[1].part.says
    return entry.says


def changed(makeup: AnyMakeUp, edits: tuple[Edit, ...]) -> AnyMakeUp:
    """Return a make-up with some values set."""
    for edit in edits:
        makeup = _set(makeup, edit.path, edit.value)
    return makeup


def _set(value: Any, path: tuple[str | int, ...], new: object) -> Any:
    if not path:
        return new
    step, *rest = path
    if isinstance(value, tuple):
        at = int(step)
        return (*value[:at], _set(value[at], tuple(rest), new), *value[at + 1 :])
    return value.model_copy(update={step: _set(getattr(value, str(step)), tuple(rest), new)})


def fill(
    makeup: MakeUp,
    wires: Palette,
    wanted: float,
    doubt: float,
    measure: Measured = inside_of,
    *,
    beside: Container[str] | None = None,
    line: str = "entries",
) -> tuple[Filled, ...]:
    """Return the best few ways to bring a make-up to a wanted measure, the best first.

    The main count is tried near where it should be, alone and with one other change at a time. A
    fit within the doubt of the measure counts as exact; of equals, the one with fewer changes wins.

    Args:
        makeup: as it is.
        wires: of the piece.
        wanted: inside girth or length [mm].
        doubt: uncertainty of the measure [mm].
        measure: what is compared with ``wanted``.
        beside: kinds of change that may be made beside the count; all where None.
        line: the list of entries that is counted.

    Returns:
        Up to six ways. None is more than half a counted unit off where a nearer one exists.

    Raises:
        Refusal: a part that can't be made.

    Source: exhaustive search over the counts near by; in a make-up of hundreds of unlike parts
        only the first that vary are tried.
    """
    maker = Maker(wires)
    main = main_knob(makeup, line)

    def tried(edits: tuple[Edit, ...]) -> Composition | None:
        try:
            return compose(changed(makeup, edits), wires, maker)
        except Refusal:
            return None

    counts = _counts(main, tried, wanted, measure) if main else (0,)
    able = _able(makeup, main, beside, tried(()))
    # What every trial costs goes by how many parts are laid out.
    trials = MOST_WORK // max(len(makeup.units()), FEWEST_LAID)
    knobs = [None, *_as_many(able, trials // max(len(counts), 1))]

    def measured(picked: Picked) -> tuple[Composition, float] | None:
        laid = tried(_edits(picked))
        got = _got(laid, measure) if laid is not None and laid.segments else None
        return (laid, got) if laid is not None and got is not None else None

    def short(picked: Picked) -> bool:
        come = measured(picked)
        return come is not None and come[1] < wanted

    ways = _trials(main, counts, knobs, short)
    return tuple(_best(list(_filled(ways, measured, main, wanted)), doubt))


def _edits(picked: Picked) -> tuple[Edit, ...]:
    return tuple(edit for knob, value in picked for edit in knob.edits(value))


def _filled(
    ways: Iterator[Picked],
    measured: Callable[[Picked], tuple[Composition, float] | None],
    main: Knob | None,
    wanted: float,
) -> Iterator[Filled]:
    """Yield what each way comes to; one that changes nothing beside the count is left out."""
    plainly = dict[Settable, float]()
    for picked in ways:
        come = measured(picked)
        if come is None:
            continue
        laid, got = come
        count = next((v for k, v in picked if k is main), 0)
        other = next((k.key for k, _ in picked if k is not main), "")
        if not other:
            plainly[count] = got
        elif abs(plainly.get(count, math.inf) - got) < 1e-9 and not laid.fastened.adds_range:
            continue
        links = right_link(wanted - got, laid.fastened)
        got += links * laid.fastened.range_step
        yield Filled(_edits(picked), picked, other, laid.finished, got, got - wanted, links)


def _as_many(knobs: Iterator[Knob], trials: int) -> Iterator[Knob]:
    """Yield as many knobs as can all be tried within so many trials of each count."""
    for knob in knobs:
        trials -= len(knob.values)
        if trials < 0:
            return
        yield knob


def _trials(
    main: Knob | None,
    counts: tuple[int, ...],
    knobs: list[Knob | None],
    short: Callable[[Picked], bool],
) -> Iterator[Picked]:
    """Yield every count near by, alone and with every value of one other knob; of a knob with very
    many values those beside the right one, as what is counted only grows."""
    for count in counts:
        for knob in knobs:
            values = knob.values if knob else (0,)
            if knob is not None and len(values) > MANY_VALUES:
                values = _near_right(values, partial(_set_to, main, count, knob), short)
            for value in values:
                picked = _picked(main, count, knob, value)
                if picked is not None:
                    yield picked


def _near_right(
    values: tuple[Settable, ...],
    set_to: Callable[[Settable], Picked],
    short: Callable[[Picked], bool],
) -> tuple[Settable, ...]:
    """Return the last of some growing values that comes out short, and the first that does not."""
    low, high = 0, len(values)
    while low < high:
        middle = (low + high) // 2
        if short(set_to(values[middle])):
            low = middle + 1
        else:
            high = middle
    return values[max(low - 1, 0) : low + 1]


def right_link(short: float, fastened: Fastened) -> int:
    """Return the link of an extender at which a piece comes nearest to its length, 0 for none.

    Args:
        short: what it lacks, fastened at its shortest [mm].
        fastened: the closure as made.

    Source: plain arithmetic.
    """
    step = fastened.range_step
    if short <= 0 or step <= 0:
        return 0
    return min(round(short / step), round(fastened.adds_range / step))


def _got(laid: Composition, measure: Measured) -> float | None:
    try:
        return measure(laid)
    except ValueError:
        return None  # so short, or so thick, that nothing is left inside


def _picked(main: Knob | None, count: int, knob: Knob | None, value: Settable) -> Picked | None:
    """Return the settings of one trial, or None where the second changes nothing."""
    if knob is not None and value == knob.now:
        return None
    return _set_to(main, count, knob, value)


def _set_to(main: Knob | None, count: int, knob: Knob | None, value: Settable) -> Picked:
    rows: list[tuple[Knob, Settable]] = [(main, count)] if main is not None else []
    return (*rows, *(((knob, value),) if knob is not None else ()))


def _counts(
    main: Knob,
    tried: Callable[[tuple[Edit, ...]], Composition | None],
    wanted: float,
    measure: Measured,
) -> tuple[int, ...]:
    """Return the counts near the one that comes to the wanted measure, by a straight line."""
    now = int(main.now) if isinstance(main.now, int) else 0
    base = max(now, 2)
    one, two = (tried(main.edits(n)) for n in (base, base + 2))
    if one is None or two is None:
        return (now,)
    step = (two.finished + two.beside_length - one.finished - one.beside_length) / 2
    got = _got(one, measure)
    if step <= 0 or got is None:
        return (now,)
    most = most_counted(main)
    near = base
    for _ in range(STRAIGHT_LINES):
        further = round((wanted - got) / step)
        near = min(max(near + further, 1), most)
        # Round a body a piece does not grow quite evenly: far off, the line is drawn once more.
        laid = tried(main.edits(near)) if abs(further) > NEARBY else None
        got = _got(laid, measure) if laid is not None else None
        if got is None:
            break
    least = 0 if main.key == "count" else 1
    return tuple(range(max(least, near - NEARBY), min(near + NEARBY, most) + 1))


def _best(found: list[Filled], doubt: float) -> Iterator[Filled]:
    """Yield the best of each kind of change, then what else is near, in order of merit."""

    def merit(one: Filled) -> tuple[float, bool, float]:
        changes = sum(k.now != v for k, v in one.knobs)
        past = max(0.0, abs(one.off) - doubt)
        costs = DEAR_COSTS_MM.get(one.beside, 0.0)
        if past and one.beside:
            costs = max(costs, CHANGE_COSTS_MM)
        return (round(past + costs, 2), bool(one.beside), abs(one.off) + 0.01 * changes)

    order = sorted(found, key=merit)
    plain = [one for one in order if not one.beside]
    firsts = {one.beside: one for one in reversed(order) if one.beside}.values()
    # The two plain counts on either side are what a maker compares first.
    chosen = sorted(chain(plain[:2], firsts), key=merit)[:MOST_PROPOSALS]
    yield from chosen
