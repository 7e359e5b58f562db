"""The order in which the things of a piece are made and joined.

What is made later takes what is there already. So a sort whose opening can't take waits behind the
one that has to take it; what has a flame held to it comes first, what opens again after what is
wound shut, the closure last. Within a sort, and between sorts that wait for each other, things
follow each other along the line.
"""

import heapq
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass, field
from graphlib import CycleError, TopologicalSorter

from jamreel.core.bench.steps import Opening
from jamreel.core.errors import Refusal
from jamreel.core.makeup.sequence import STRING
from jamreel.core.making.things import CLOSING, Pair, Things
from jamreel.core.words import say


@dataclass(frozen=True)
class Round:
    """Things that are made one after the other, each with all its steps, by number."""

    sorts: tuple[int, ...]
    things: tuple[int, ...]


@dataclass
class Taken:
    """The things of a sort whose opening takes anything, and what, by name; whether others of its
    own sort are among it."""

    things: set[int] = field(default_factory=set)
    names: dict[str, None] = field(default_factory=dict)
    own: bool = False


@dataclass(frozen=True)
class Order:
    """Rounds in their order; what is taken into which opening of a sort; and the opening that is
    left until the length was tried, as its thing with the side, and what hangs in it then."""

    rounds: tuple[Round, ...]
    taken: Mapping[tuple[int, Opening], "Taken"] = field(hash=False)
    left: tuple[int, Opening] | None = None
    left_name: str = ""

    def in_turn(self, made: Round) -> bool:
        """Return whether a round goes thing by thing, each into the last, and not step by step."""
        taken = (one for (sort, _), one in self.taken.items() if sort in made.sorts)
        return len(made.sorts) > 1 or any(one.own for one in taken)

    def taking(self, sort: int, sides: Iterable[Opening]) -> frozenset[int]:
        """Return the things of a sort in which any of some openings takes anything."""
        found = (self.taken.get((sort, side)) for side in sides)
        return frozenset(thing for one in found if one for thing in one.things)


def order_of(things: Things, *, tried: bool) -> Order:
    """Return the order of a piece.

    Args:
        things: of the piece.
        tried: whether its length is tried before the last loop is closed.

    Raises:
        Refusal: two openings that no order can join.

    Source: the laws of linking, of chains and of joining rings; ties by the order of the line.
    """
    if things.never:
        raise _neither(things, things.never[0])
    rounds = tuple(Round(group, _along(things, group)) for group in _groups(things, _waits(things)))
    left = _left_open(things, rounds) if tried else None
    return _joined(things, rounds, left)


def rank_of(things: Things, number: int) -> int:
    """Return when a sort is made, if nothing else decides: heat first, the closure last."""
    sort = things.sorts[number]
    if set(sort.keys) & CLOSING:
        return 5 if things.closes(number) else 0
    if STRING in sort.keys:
        return 4
    if sort.heats:
        return 0
    if sort.made.goes_last:
        return 3
    return 2 if sort.opens_again else 1


def _ranks(things: Things, waits: dict[int, set[int]]) -> list[int]:
    """Return the rank of every sort: what something with a flame waits for comes with it."""
    ranks = [rank_of(things, n) for n in range(len(things.sorts))]
    hot = [n for n, sort in enumerate(things.sorts) if sort.heats and ranks[n] == 0]
    while hot:
        for first in waits[hot.pop()]:
            if ranks[first]:
                ranks[first] = 0
                hot.append(first)
    return ranks


def _neither(things: Things, pair: Pair) -> Refusal:
    one, other = (things.sorts[things.sort_of[end[0]]].name for end in (pair.one, pair.other))
    path = things.path_of[max(pair.one[0], pair.other[0])]
    return Refusal("neither_opens", field=f"piece.{path}", got=other, one=one)


def _waits(things: Things) -> dict[int, set[int]]:
    """Return by sort the sorts that have to be made before it."""
    found: dict[int, set[int]] = {n: set() for n in range(len(things.sorts))}
    for first, then in things.one_way:
        a, b = things.sort_of[first], things.sort_of[then]
        if a != b:
            found[b].add(a)
    for thing, string in things.threaded:
        found[things.sort_of[string]].add(things.sort_of[thing])
    for n, sort in enumerate(things.sorts):
        # A string that goes on through the closure needs both its halves.
        if STRING in sort.keys and not sort.mouths:
            found[n] |= {m for m, one in enumerate(things.sorts) if set(one.keys) & CLOSING}
    return found


def _groups(things: Things, waits: dict[int, set[int]]) -> Iterator[tuple[int, ...]]:
    """Yield the sorts in their order, those that wait for each other together."""
    first = {n: (row[0] if row else 0) for n, row in enumerate(things.members)}
    one_of = {n: n for n in waits}
    together: dict[int, tuple[int, ...]] = {n: (n,) for n in waits}
    while True:
        graph = {
            head: {one_of[w] for n in group for w in waits[n]} - {head}
            for head, group in together.items()
        }
        sorter = TopologicalSorter(graph)
        try:
            sorter.prepare()
            break
        except CycleError as error:
            circle = sorted(set(error.args[1]))
            members = tuple(sorted(n for head in circle for n in together.pop(head)))
            together[members[0]] = members
            one_of |= dict.fromkeys(members, members[0])
    ranks = _ranks(things, waits)
    ready: list[tuple[int, int, int]] = []
    while sorter.is_active():
        for head in sorter.get_ready():
            rank = min(ranks[n] for n in together[head])
            heapq.heappush(ready, (rank, first[head], head))
        _, _, head = heapq.heappop(ready)
        yield together[head]
        sorter.done(head)


def _along(things: Things, group: Iterable[int]) -> tuple[int, ...]:
    """Return the things of sorts along the line; what can't take comes before what takes it."""
    inside = set(group)
    members = sorted(thing for n in inside for thing in things.members[n])
    waits = [
        (first, then)
        for first, then in things.one_way
        if things.sort_of[first] in inside and things.sort_of[then] in inside
    ]
    if all(first < then for first, then in waits):
        return tuple(members)
    sorter = TopologicalSorter(dict.fromkeys(members, ()))
    for first, then in waits:
        sorter.add(then, first)
    try:
        return tuple(sorter.static_order())
    except CycleError:
        thing = members[0]
        name = things.sorts[things.sort_of[thing]].name
        path = things.path_of[thing]
        raise Refusal("no_order", field=f"piece.{path}", got=name) from None


def _left_open(things: Things, rounds: tuple[Round, ...]) -> tuple[int, Opening] | None:
    """Return the opening of the body that takes the closure last, where no half of the closure
    takes the body when the length was tried."""
    if any(things.closes(n) and sort.mouths for n, sort in enumerate(things.sorts)):
        return None
    order = {thing: n for n, one in enumerate(rounds) for thing in one.things}
    found = []
    for pair in things.pairs:
        for body, closing in ((pair.one, pair.other), (pair.other, pair.one)):
            theirs = set(things.sorts[things.sort_of[closing[0]]].keys)
            own = set(things.sorts[things.sort_of[body[0]]].keys)
            if not theirs & CLOSING or own & (CLOSING | {STRING}) or not things.takes(*body):
                continue
            if order[body[0]] > order[closing[0]]:
                found.append((body[0], body[1]))
    return max(found, default=None)


def _joined(things: Things, rounds: tuple[Round, ...], left: tuple[int, Opening] | None) -> Order:
    """Return what is taken into what when things are made in rounds."""
    at_once = [one.there and not things.closes(n) for n, one in enumerate(things.sorts)]
    there = [at_once[sort] for sort in things.sort_of]
    the_last = say("join.last")
    done = [pair.slides for pair in things.pairs]
    taken: dict[tuple[int, Opening], Taken] = {}
    left_name = ""
    for one in rounds:
        for thing in one.things:
            number = things.sort_of[thing]
            for side, mouth in things.sorts[number].mouths.items():
                if mouth.takes is None:
                    continue
                names, own = [], False
                for n, other, _ in things.pairs_of.get((thing, side), ()):
                    if done[n] or not there[other]:
                        continue
                    done[n] = True
                    theirs = things.sort_of[other]
                    last = theirs == number
                    own = own or last
                    names.append(the_last if last else things.sorts[theirs].name)
                if names and (thing, side) == left:
                    left_name = in_one(names)
                elif names:
                    row = taken.setdefault((number, side), Taken())
                    row.things.add(thing)
                    row.own = row.own or own
                    row.names |= dict.fromkeys(names)
            there[thing] = True
    missing = next((pair for n, pair in enumerate(things.pairs) if not done[n]), None)
    if missing is not None:
        raise _neither(things, missing)
    return Order(rounds, taken, left if left_name else None, left_name)


def in_one(names: Iterable[str]) -> str:
    """Return names as one list in words, each once."""
    said = ""
    for name in dict.fromkeys(names):
        said = say("join.also", first=said, then=name) if said else name
    return said
