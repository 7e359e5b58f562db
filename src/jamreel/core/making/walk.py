"""Walks through the steps of a piece of parts as hands would, and names the first law they break.

It keeps what stands open, what is shut and what hangs in what, goes by what steps declare, and in
the end holds that against the make-up itself.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from typing import Literal

from jamreel.core.bench.steps import Opening, Step
from jamreel.core.making.order import Order, Round
from jamreel.core.making.things import CLOSING, Mouth, Sort, Things

Stands = Literal["absent", "open", "opens", "shut"]
Where = tuple[int, Opening]
LINKING, THREADING, RINGS, USED, HEAT, FORCE, TRIAL = 1, 3, 4, 5, 7, 8, 10
FORCED = frozenset({"malleted", "hammered"})
SPOILING = frozenset({"torch", "glue"})
TRIED, LAST_IN = "half", "close"


@dataclass(frozen=True)
class Broken:
    """A law of the order of hands that a step breaks, by its number, and the thing it breaks at."""

    law: int
    step: str
    thing: str


@dataclass(frozen=True)
class _Act:
    """A step as it is done to every thing of a sort: which openings it makes, takes something into
    and shuts; whether it heats, hits or glues, and whether it puts brittle beads on."""

    step: Step
    makes: tuple[Opening, ...]
    takes: tuple[Opening, ...]
    shuts: tuple[Opening, ...]
    spoils: bool
    beads: bool


@dataclass
class _Bench:
    """What lies on the bench while the steps are walked through."""

    things: Things
    left: Where | None
    joined: list[bool]
    stands: dict[Where, Stands] = field(default_factory=dict)
    done: set[int] = field(default_factory=set)
    beaded: set[int] = field(default_factory=set)
    glued: bool = False
    tried: bool = False

    def name(self, thing: int) -> str:
        """What a thing is called."""
        return self.things.sorts[self.things.sort_of[thing]].name


def walk(things: Things, order: Order, steps: Sequence[Step], *, tried: bool) -> Broken | None:
    """Return the first law that the steps of a piece break, None where they break none.

    Args:
        things: of the piece, as its make-up has them.
        order: what each round makes, and what is left until the length was tried.
        steps: in the order in which they are told.
        tried: whether its length has to be tried.

    Source: the laws of the order of hands.
    """
    bench = _Bench(things, order.left, [pair.slides for pair in things.pairs])
    worked = {one.thing for one in steps}
    for number, sort in enumerate(things.sorts):
        # Bought, and nothing is done to it.
        idle = worked.isdisjoint(sort.keys) and (not sort.steps or not sort.made.wires)
        there = idle or (sort.there and not things.closes(number))
        rest: list[tuple[Opening, Stands]] = [
            (side, _at_rest(mouth) if there else "absent") for side, mouth in sort.mouths.items()
        ]
        bench.done.update(things.members[number] if idle else ())
        for thing in things.members[number]:
            for side, stands in rest:
                bench.stands[thing, side] = stands
    for made, row in _by_round(things, order.rounds, steps):
        broken = _round(bench, made, row) if made else _whole(bench, row[0])
        if broken is not None:
            return broken
    return _finished(bench, tried=tried)


def _at_rest(mouth: Mouth) -> Stands:
    """Return how an opening stands that nobody holds open: it opens again, or is shut."""
    return "opens" if mouth.takes is not None and mouth.shut is None else "shut"


def _by_round(
    things: Things, rounds: Sequence[Round], steps: Sequence[Step]
) -> Iterator[tuple[Round | None, list[Step]]]:
    """Yield the steps that follow each other in a round; None and one step for what is done to the
    piece as a whole."""
    number = {n: one for one in rounds for n in one.sorts}
    of_thing = {key: number.get(n) for n, sort in enumerate(things.sorts) for key in sort.keys}
    row: list[Step] = []
    at: Round | None = None
    for one in steps:
        here = of_thing.get(one.thing)
        if row and here is not at:
            yield at, row
            row = []
        at = here
        if here is None:
            yield None, [one]
        else:
            row.append(one)
    if row:
        yield at, row


def _round(bench: _Bench, made: Round, row: Sequence[Step]) -> Broken | None:
    """Do the steps of a round thing by thing."""
    sorts = bench.things.sorts
    acts = {
        n: [_act(sorts[n], one) for one in row if one.thing in sorts[n].keys] for n in made.sorts
    }
    done = {n: [one for one in acts[n] if one is not None] for n in made.sorts}
    for thing in made.things:
        number = bench.things.sort_of[thing]
        if acts[number]:
            broken = _make(bench, thing, sorts[number], done[number])
            if broken is not None:
                return broken
    return None


def _act(sort: Sort, one: Step) -> _Act | None:
    """Return a step as it is done to a thing of a sort, None where it does nothing to openings,
    beads or what spoils."""
    spoils = one.works in FORCED or bool(SPOILING & set(one.cautions))
    beads = "beads" in one.does and sort.made.brittle
    rows = (one.makes, one.takes_in, one.shuts)
    if not spoils and not beads and not any(rows):
        return None
    makes, takes, shuts = (
        tuple(
            side
            for side, mouth in sort.mouths.items()
            if side in called or ("body" in called and mouth.to_body)
        )
        for called in rows
    )
    return _Act(one, makes, takes, shuts, spoils, beads)


def _make(bench: _Bench, thing: int, sort: Sort, acts: Sequence[_Act]) -> Broken | None:
    """Do the steps of a round to one thing, and lay it down."""
    stands, strung = bench.stands, thing in bench.things.strings
    for side, mouth in sort.mouths.items():
        # What was bought of it is there.
        if mouth.made < 0 and stands[thing, side] == "absent":
            stands[thing, side] = _at_rest(mouth)
    for act in acts:
        for side in act.makes:
            stands[thing, side] = "open"
        broken = _take(bench, thing, act) if act.takes else None
        if act.spoils and broken is None:
            broken = _spoil(bench, act.step, thing)
        if act.beads:
            bench.beaded.add(thing)
        for side in act.shuts if broken is None else ():
            if stands[thing, side] == "open" and (thing, side) != bench.left and not strung:
                stands[thing, side] = "shut"
            else:
                broken = _shut(bench, thing, act)
        if broken is not None:
            return broken
    if not sort.all_told:
        _lay_down(bench, thing, sort)
    bench.done.add(thing)
    return None


def _whole(bench: _Bench, one: Step) -> Broken | None:
    """Do a step to the piece as a whole."""
    if one.id == TRIED:
        return _try(bench, one)
    if one.id != LAST_IN or bench.left is None:
        return None
    (thing, _), bench.left = bench.left, None
    sort = bench.things.sorts[bench.things.sort_of[thing]]
    act = _act(sort, one)
    return _make(bench, thing, sort, [act] if act else [])


def _lay_down(bench: _Bench, thing: int, sort: Sort) -> None:
    """Leave a thing as it is: what no step of its own makes is there, and nobody holds open what
    no step of its own shuts."""
    stands = bench.stands
    for side, mouth in sort.mouths.items():
        now = stands[thing, side]
        if (now == "open" and mouth.shut is None) or (now == "absent" and not mouth.said):
            stands[thing, side] = _at_rest(mouth)


def _take(bench: _Bench, thing: int, act: _Act) -> Broken | None:
    """Hang in an opening what of its neighbours is there."""
    stands, things = bench.stands, bench.things
    for side in act.takes:
        here = (thing, side)
        if here == bench.left:
            continue
        if stands[here] == "absent":
            _lay_down(bench, thing, things.sorts[things.sort_of[thing]])
        for n, other, theirs in things.pairs_of.get(here, ()):
            there = stands.get((other, theirs), "absent")
            if bench.joined[n] or there == "absent":
                continue
            if stands[here] == "shut" and there == "shut":
                return Broken(RINGS if side == "ring" else LINKING, act.step.id, bench.name(thing))
            if stands[here] == "absent":
                return Broken(USED, act.step.id, bench.name(thing))
            bench.joined[n] = True
    return None


def _shut(bench: _Bench, thing: int, act: _Act) -> Broken | None:
    """Shut openings of a thing for good."""
    missing = None
    if thing in bench.things.strings:
        row = (what for what, string in bench.things.threaded if string == thing)
        missing = next((what for what in row if what not in bench.done), None)
    if missing is not None:
        return Broken(THREADING, act.step.id, bench.name(missing))
    for side in act.shuts:
        if (thing, side) == bench.left:
            continue
        if bench.stands[thing, side] == "absent":
            return Broken(USED, act.step.id, bench.name(thing))
        bench.stands[thing, side] = "shut"
    return None


def _spoil(bench: _Bench, one: Step, thing: int) -> Broken | None:
    """Return what heat, force or glue of a step would spoil of the thing it is done to."""
    if "glue" in one.cautions:
        bench.glued = True
    elif "torch" in one.cautions:
        near = [thing, *_hanging_in(bench, thing)]
        spoilt = next((what for what in near if what in bench.beaded), None)
        if bench.glued or spoilt is not None:
            return Broken(HEAT, one.id, bench.name(thing if spoilt is None else spoilt))
    elif one.works in FORCED and thing in bench.beaded:
        return Broken(FORCE, one.id, bench.name(thing))
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
    things = bench.things
    closing = {n for n, sort in enumerate(things.sorts) if set(sort.keys) & CLOSING}
    last = [
        bench.joined[n]
        for n, pair in enumerate(things.pairs)
        if (things.sort_of[pair.one[0]] in closing) != (things.sort_of[pair.other[0]] in closing)
    ]
    ends = [stands for (thing, _), stands in bench.stands.items() if thing in things.strings]
    shut = ends and all(stands == "shut" for stands in ends)
    # A string that goes on through the closure is drawn tight and run back after the try-on.
    runs_on = any(not things.sorts[things.sort_of[string]].mouths for string in things.strings)
    if bench.glued or (all(last) and last and not runs_on) or (shut and not last):
        return Broken(TRIAL, one.id, "")
    return None


def _finished(bench: _Bench, *, tried: bool) -> Broken | None:
    """Hold what there is against the make-up: every pair joined, the length tried."""
    if not all(bench.joined):
        pair = bench.things.pairs[bench.joined.index(False)]
        return Broken(USED, "", bench.name(pair.one[0]))
    for where, stands in bench.stands.items():
        # What was to be shut for good is, and what something hangs in was made.
        if stands == "open" or (stands == "absent" and where in bench.things.pairs_of):
            return Broken(USED, "", bench.name(where[0]))
    return Broken(TRIAL, "", "") if tried and not bench.tried else None
