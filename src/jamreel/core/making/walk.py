"""Walks through the steps of a piece of parts as hands would, and names the first law they break.

It keeps what stands open, what is shut and what hangs in what, goes by what steps declare, and in
the end holds that against the make-up itself.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from typing import Literal

from jamreel.core.bench.steps import Opening, Step
from jamreel.core.makeup.sequence import STRING
from jamreel.core.making.order import Order, Round
from jamreel.core.making.things import CLOSING, Mouth, Things

Stands = Literal["absent", "open", "opens", "shut"]
Where = tuple[int, Opening]
LINKING, THREADING, RINGS, USED, HEAT, FORCE, TRIAL = 1, 3, 4, 5, 7, 8, 10
FORCED = frozenset({"malleted", "hammered"})
TRIED, LAST_IN = "half", "close"


@dataclass(frozen=True)
class Broken:
    """A law of the order of hands that a step breaks, by its number, and the thing it breaks at."""

    law: int
    step: str
    thing: str


@dataclass
class _Bench:
    """What lies on the bench while the steps are walked through."""

    things: Things
    left: Where | None
    stands: dict[Where, Stands] = field(default_factory=dict)
    joined: list[bool] = field(default_factory=list)
    done: set[int] = field(default_factory=set)
    beaded: set[int] = field(default_factory=set)
    glued: bool = False
    tried: bool = False

    def name(self, thing: int) -> str:
        return self.things.sorts[self.things.sort_of[thing]].name

    def mouth(self, where: Where) -> Mouth | None:
        return self.things.mouth(*where)


def walk(things: Things, order: Order, steps: Sequence[Step], *, tried: bool) -> Broken | None:
    """Return the first law that the steps of a piece break, None where they break none.

    Args:
        things: of the piece, as its make-up has them.
        order: what each round makes, and what is left until the length was tried.
        steps: in the order in which they are told.
        tried: whether its length has to be tried.

    Source: the laws of the order of hands.
    """
    bench = _Bench(things, order.left, joined=[pair.slides for pair in things.pairs])
    for at, number in enumerate(things.sort_of):
        sort = things.sorts[number]
        if not sort.steps:
            bench.done.add(at)
        for side, mouth in sort.mouths.items():
            there = mouth.made < 0 and not things.closes(number)
            bench.stands[at, side] = _at_rest(mouth) if there else "absent"
    last: int | None = None
    for one, thing in _unrolled(things, order.rounds, steps):
        if last is not None and thing != last:
            _lay_down(bench, last)
            bench.done.add(last)
        if thing is not None and thing != last:
            _take_up(bench, thing)
        broken = _apply(bench, one, thing)
        if broken is not None:
            return broken
        last = thing
    if last is not None:
        _lay_down(bench, last)
    return _finished(bench, tried=tried)


def _at_rest(mouth: Mouth) -> Stands:
    """Return how an opening stands that nobody holds open: it opens again, or is shut."""
    return "opens" if mouth.takes is not None and mouth.shut is None else "shut"


def _unrolled(
    things: Things, rounds: Sequence[Round], steps: Sequence[Step]
) -> Iterator[tuple[Step, int | None]]:
    """Yield every step with every thing that it is done to, round by round; None for a step that is
    for the piece as a whole."""
    number = {n: one for one in rounds for n in one.sorts}
    keys = {key: n for n, sort in enumerate(things.sorts) for key in sort.keys}
    row: list[Step] = []
    at: Round | None = None
    for one in steps:
        sort = keys.get(one.thing)
        here = number.get(sort) if sort is not None else None
        if here is not at and at is not None:
            yield from _one_by_one(things, at, row, keys)
            row = []
        at = here
        if here is None:
            yield one, None
        else:
            row.append(one)
    if at is not None:
        yield from _one_by_one(things, at, row, keys)


def _one_by_one(
    things: Things, at: Round, row: Sequence[Step], keys: dict[str, int]
) -> Iterator[tuple[Step, int | None]]:
    of_sort: dict[int, list[Step]] = {}
    for one in row:
        of_sort.setdefault(keys[one.thing], []).append(one)
    for thing in at.things:
        for one in of_sort.get(things.sort_of[thing], ()):
            yield one, thing


def _apply(bench: _Bench, one: Step, thing: int | None) -> Broken | None:
    """Do a step to a thing, or to the piece as a whole."""
    if one.id == TRIED:
        return _try(bench, one)
    if thing is None and one.id == LAST_IN and bench.left is not None:
        thing, bench.left = bench.left[0], None
    if thing is None:
        return None
    for side in _sides(bench, thing, one.makes):
        bench.stands[thing, side] = "open"
    broken = _take(bench, one, thing) or _spoil(bench, one, thing)
    if broken is not None:
        return broken
    for side in _now(bench, thing, one.shuts):
        if bench.stands[thing, side] == "absent":
            return Broken(USED, one.id, bench.name(thing))
        missing = _strung_later(bench, thing)
        if missing is not None:
            return Broken(THREADING, one.id, bench.name(missing))
        bench.stands[thing, side] = "shut"
    return None


def _take_up(bench: _Bench, thing: int) -> None:
    """Take a thing in hand: what was bought of it is there."""
    for side, mouth in bench.things.sorts[bench.things.sort_of[thing]].mouths.items():
        if mouth.made < 0 and bench.stands[thing, side] == "absent":
            bench.stands[thing, side] = _at_rest(mouth)


def _lay_down(bench: _Bench, thing: int) -> None:
    """Leave a thing as it is: what no step of its own makes is there, and nobody holds open what
    no step of its own shuts."""
    sort = bench.things.sorts[bench.things.sort_of[thing]]
    for side, mouth in sort.mouths.items():
        if bench.stands[thing, side] == "open" and mouth.shut is None:
            bench.stands[thing, side] = _at_rest(mouth)
        told = any(
            side in one.makes or ("body" in one.makes and mouth.to_body) for one in sort.steps
        )
        if bench.stands[thing, side] == "absent" and not told:
            bench.stands[thing, side] = _at_rest(mouth)


def _sides(bench: _Bench, thing: int, called: Sequence[Opening]) -> Iterator[Opening]:
    """Yield the openings of a thing that a step calls by their side, or the one to the body."""
    mouths = bench.things.sorts[bench.things.sort_of[thing]].mouths
    for side, mouth in mouths.items():
        if side in called or ("body" in called and mouth.to_body):
            yield side


def _now(bench: _Bench, thing: int, called: Sequence[Opening]) -> Iterator[Opening]:
    """Yield the openings of a thing that are closed now: one waits until the length was tried."""
    yield from (side for side in _sides(bench, thing, called) if (thing, side) != bench.left)


def _take(bench: _Bench, one: Step, thing: int) -> Broken | None:
    """Hang in an opening what of its neighbours is there."""
    if one.takes_in:
        _lay_down(bench, thing)
    for side in _now(bench, thing, one.takes_in):
        for n, other, theirs in bench.things.pairs_of.get((thing, side), ()):
            if bench.joined[n] or bench.stands.get((other, theirs), "absent") == "absent":
                continue
            if bench.stands[thing, side] == "shut" and bench.stands[other, theirs] == "shut":
                return Broken(RINGS if side == "ring" else LINKING, one.id, bench.name(thing))
            if bench.stands[thing, side] == "absent":
                return Broken(USED, one.id, bench.name(thing))
            bench.joined[n] = True
    return None


def _strung_later(bench: _Bench, thing: int) -> int | None:
    """Return what should be on a string of which an end is closed, and is not made yet."""
    row = (what for what, string in bench.things.threaded if string == thing)
    return next((what for what in row if what not in bench.done), None)


def _spoil(bench: _Bench, one: Step, thing: int) -> Broken | None:
    """Return what heat, force or a finish of a step would spoil of the thing it is done to."""
    if "glue" in one.cautions:
        bench.glued = True
    elif "torch" in one.cautions:
        near = [thing, *_hanging_in(bench, thing)]
        spoilt = next((what for what in near if what in bench.beaded), None)
        if bench.glued or spoilt is not None:
            return Broken(HEAT, one.id, bench.name(thing if spoilt is None else spoilt))
    elif one.works in FORCED and thing in bench.beaded:
        return Broken(FORCE, one.id, bench.name(thing))
    if one.beads and bench.things.sorts[bench.things.sort_of[thing]].made.brittle:
        bench.beaded.add(thing)
    return None


def _hanging_in(bench: _Bench, thing: int) -> Iterator[int]:
    """Yield what hangs in a thing by now."""
    for side in bench.things.sorts[bench.things.sort_of[thing]].mouths:
        for n, other, _ in bench.things.pairs_of.get((thing, side), ()):
            if bench.joined[n]:
                yield other


def _try(bench: _Bench, one: Step) -> Broken | None:
    """Try the length: something that decides it has to be open still."""
    bench.tried = True
    last = [
        bench.joined[n]
        for n, pair in enumerate(bench.things.pairs)
        if _closing(bench, pair.one[0]) != _closing(bench, pair.other[0])
    ]
    strings = [where for where in bench.stands if _is_string(bench, where[0])]
    shut = strings and all(bench.stands[where] == "shut" for where in strings)
    if bench.glued or (all(last) and last) or (shut and not last):
        return Broken(TRIAL, one.id, "")
    return None


def _closing(bench: _Bench, thing: int) -> bool:
    return bool(set(bench.things.sorts[bench.things.sort_of[thing]].keys) & CLOSING)


def _is_string(bench: _Bench, thing: int) -> bool:
    return STRING in bench.things.sorts[bench.things.sort_of[thing]].keys


def _finished(bench: _Bench, *, tried: bool) -> Broken | None:
    """Hold what there is against the make-up: every pair joined, the length tried."""
    for n, pair in enumerate(bench.things.pairs):
        if not bench.joined[n]:
            return Broken(USED, "", bench.name(pair.one[0]))
    for thing, side in bench.stands:
        if bench.stands[thing, side] == "absent" and (thing, side) in bench.things.pairs_of:
            return Broken(USED, "", bench.name(thing))
    if tried and not bench.tried:
        return Broken(TRIAL, "", "")
    return None
