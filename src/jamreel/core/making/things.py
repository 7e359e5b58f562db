"""The things of a piece of parts: each with its openings, and what is to hang in what at the end.

An opening is there from a step on, or from the start where it is bought; it takes what hangs in it
at a step of its own, before it is shut for good, or whenever it is opened again; or never.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from functools import cached_property
from itertools import pairwise
from typing import NamedTuple

from jamreel.core.bench.steps import Opening, Step
from jamreel.core.makeup.compose import Composition, Kind, Lying
from jamreel.core.makeup.loops import Hanging, Knot, Loops
from jamreel.core.makeup.sequence import CLOSURE, STRING
from jamreel.core.parts.base import End, Made
from jamreel.core.words import say

MIDDLE: Opening = "middle"
RECEIVING, HOLDING = f"{CLOSURE}.receiving", f"{CLOSURE}.holding"
CLOSING = frozenset({RECEIVING, HOLDING})
# A drop slides on what it hangs from with so much play [mm]; common practice.
SLIDE_PLAY_MM = 0.2


@dataclass(frozen=True)
class Mouth:
    """An opening of one sort of thing, by the places of steps in the list of its sort.

    It is there from step ``made`` on, -1 from the start; it takes what hangs in it just before step
    ``takes``, None where it never does; ``told`` where that step says so itself. ``shut`` is the
    step that closes it for good. Of a closure's half one is ``to_body``;
    ``said`` where a step says that it makes it. It is made ``round_it`` where the very first
    step makes it round what hangs there: that has to be there.
    """

    side: Opening
    made: int
    takes: int | None
    told: bool = False
    shut: int | None = None
    to_body: bool = False
    said: bool = False
    round_it: bool = False


@dataclass(frozen=True)
class Sort:
    """What is made alike: the names of its kinds for good, what it is called, how one is made,
    its steps, and its openings by the side that they lie on."""

    keys: tuple[str, ...]
    name: str
    made: Made
    steps: tuple[Step, ...]
    mouths: dict[Opening, Mouth] = field(hash=False)
    sort: str = ""

    @cached_property
    def told(self) -> tuple[object, ...]:
        """All of it that an order hangs on: two that tell the same are made in the same order."""
        made = self.made
        does = (self.heats, made.brittle, made.goes_last, bool(self.steps), bool(made.wires))
        return (self.keys, self.name, does, tuple(self.mouths.items()))

    @cached_property
    def taking(self) -> dict[Opening, bool]:
        """Of each opening whether it ever takes what hangs in it."""
        return {side: one.takes is not None for side, one in self.mouths.items()}

    @cached_property
    def all_told(self) -> bool:
        """Whether steps say of every opening when it is made and when it is shut for good."""
        return all(one.said and one.shut is not None for one in self.mouths.values())

    @property
    def there(self) -> bool:
        """Whether it is there from the start: bought, and nothing is done to it first."""
        return not self.steps and all(one.made < 0 for one in self.mouths.values())

    @property
    def heats(self) -> bool:
        """Whether a flame is held to it."""
        return any("torch" in one.cautions for one in self.steps)

    @property
    def opens_again(self) -> bool:
        """Whether every opening of it that takes something can be opened again."""
        taking = [one for one in self.mouths.values() if one.takes is not None]
        return bool(taking) and all(one.shut is None for one in taking)


class Pair(NamedTuple):
    """Two openings that hang in each other at the end, each as the number of its thing and the
    side; a drop ``slides`` on what has none."""

    one: tuple[int, Opening]
    other: tuple[int, Opening]
    slides: bool = False


@dataclass(frozen=True, eq=False)
class Things:
    """The things of a piece from left to right: of each the number of its sort; the pairs that hang
    in each other; and what is threaded on which string, by numbers.

    Those of two pieces are equal where one order holds for both, whatever the sizes are.
    """

    sorts: tuple[Sort, ...]
    sort_of: tuple[int, ...]
    pairs: tuple[Pair, ...]
    threaded: tuple[tuple[int, int], ...]
    path_of: tuple[str, ...]

    @cached_property
    def _told(self) -> tuple[object, ...]:
        return (tuple(one.told for one in self.sorts), self.sort_of, self.pairs, self.threaded)

    @cached_property
    def _hash(self) -> int:
        return hash(self._told)

    def __hash__(self) -> int:
        return self._hash

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Things) and self._told == other._told

    @cached_property
    def pairs_of(self) -> dict[tuple[int, Opening], list[tuple[int, int, Opening]]]:
        """By opening: the number of each pair that it is in, with the other's thing and side."""
        found: dict[tuple[int, Opening], list[tuple[int, int, Opening]]] = {}
        for n, pair in enumerate(self.pairs):
            one, other = pair.one, pair.other
            found.setdefault(one, []).append((n, *other))
            found.setdefault(other, []).append((n, *one))
        return found

    @cached_property
    def members(self) -> tuple[tuple[int, ...], ...]:
        """Of every sort its things, from left to right."""
        found: list[list[int]] = [[] for _ in self.sorts]
        for thing, sort in enumerate(self.sort_of):
            found[sort].append(thing)
        return tuple(tuple(row) for row in found)

    def closes(self, number: int) -> bool:
        """Return whether a sort is a half of the closure that is put on when the length was tried:
        one that hangs in nothing (a cap), or takes the body and has no flame held to it."""
        sort = self.sorts[number]
        if not set(sort.keys) & CLOSING:
            return False
        ends = [(thing, side) for thing in self.members[number] for side in sort.mouths]
        joined = [end for end in ends if end in self.pairs_of]
        if joined and sort.heats and not sort.made.goes_last:
            return False
        return not joined or any(self.takes(*end) for end in joined)

    @cached_property
    def strings(self) -> frozenset[int]:
        """The strings among them, by number."""
        return frozenset(string for _, string in self.threaded)

    @cached_property
    def _taking(self) -> tuple[tuple[Pair, bool, bool], ...]:
        """Of every pair whether the one opening ever takes the other, and the other the one."""
        of = [self.sorts[sort].taking for sort in self.sort_of]
        return tuple(
            (pair, of[pair.one[0]][pair.one[1]], of[pair.other[0]][pair.other[1]])
            for pair in self.pairs
        )

    @cached_property
    def one_way(self) -> tuple[tuple[int, int], ...]:
        """Pairs of which only one opening takes, or is made round the other: first the other, then
        the one that takes it."""
        found = []
        for pair, one, other in self._taking:
            mine, theirs = (self._made_round(end) for end in (pair.one, pair.other))
            if one != other or mine != theirs:
                takes = mine if mine != theirs else one
                ends = (pair.other[0], pair.one[0]) if takes else (pair.one[0], pair.other[0])
                found.append(ends)
        return tuple(found)

    def _made_round(self, end: tuple[int, Opening]) -> bool:
        mouth = self.sorts[self.sort_of[end[0]]].mouths.get(end[1])
        return mouth is not None and mouth.round_it

    @cached_property
    def never(self) -> tuple[Pair, ...]:
        """Pairs of which neither opening ever takes the other."""
        rows = self._taking
        return tuple(pair for pair, one, other in rows if not (one or other or pair.slides))

    def takes(self, thing: int, side: Opening) -> bool:
        """Return whether an opening ever takes what hangs in it."""
        return self.sorts[self.sort_of[thing]].taking.get(side, False)


def things_of(laid: Composition, loops: Loops, string_steps: Sequence[Step]) -> Things:
    """Return the things of a piece.

    Args:
        laid: the piece laid out.
        loops: what hangs in which loop of it.
        string_steps: of what runs through its strung parts, none where nothing does.

    Source: ``makeup.loops``.
    """
    return _Gathered(laid, tuple(string_steps)).things(loops)


_Sides = tuple[Opening, Opening]
_RING: _Sides = ("ring", "ring")
_STRAIGHT: _Sides = ("left", "right")
_TURNED: _Sides = ("right", "left")


class _Gathered:
    """Things as they are found along the line."""

    def __init__(self, laid: Composition, string_steps: tuple[Step, ...]) -> None:
        self.laid = laid
        self.sorts = [*_sorts(laid), *_string(laid, string_steps)]
        self.number = {key: n for n, sort in enumerate(self.sorts) for key in sort.keys}
        self.sort_of: list[int] = []
        self.paths: list[str] = []
        self.seen: dict[int, int] = {}
        self.threaded: dict[tuple[int, int], None] = {}

    def add(self, what: object, key: str, path: str) -> int:
        """Return the number of a thing, a new one where it has none."""
        number = self.seen.get(id(what))
        if number is None:
            number = self.seen[id(what)] = len(self.sort_of)
            self.sort_of.append(self.number[key])
            self.paths.append(path)
        return number

    def things(self, loops: Loops) -> Things:
        """Return the things, and what hangs in what of them."""
        laid = self.laid
        in_run = {id(part): run for run in laid.runs for part in run.parts}
        if RECEIVING in self.number:
            self.add(laid.fastened.receiving, RECEIVING, "closure")
        for part in (*laid.parts, *laid.beside):
            number = self.add(part, part.unit.key, part.unit.path)
            run = in_run.get(id(part))
            if run is not None:
                self.threaded[number, self.add(run, STRING, part.unit.path)] = None
        if HOLDING in self.number:
            self.add(laid.fastened.holding, HOLDING, "closure")
        ends = [None if knot is None else self._ends(knot) for knot in loops.line]
        pairs = [Pair(a[1], b[0]) for a, b in pairwise(ends) if a is not None and b is not None]
        for one in loops.hanging:
            pairs += self._hung(one)
        return Things(
            tuple(self.sorts),
            tuple(self.sort_of),
            tuple(pairs),
            tuple(self.threaded),
            tuple(self.paths),
        )

    def _ends(self, knot: Knot) -> tuple[tuple[int, Opening], tuple[int, Opening]]:
        """Return both openings of a part of the line, by the number of its thing."""
        number = self.seen[id(knot.what)]
        left, right = _RING if knot.one_loop else _TURNED if knot.turned else _STRAIGHT
        return (number, left), (number, right)

    def _hung(self, one: Hanging) -> Iterator[Pair]:
        """Yield a drop as a pair with what it hangs from."""
        drop = self.seen[id(one.drop)]
        loop: Opening = "ring" if one.drop.made.one_loop else "left"
        if one.run is not None:
            self.threaded[drop, self.add(one.run, STRING, "string")] = None
        elif one.knot is not None:
            there = self._ends(one.knot)[one.side]
            host = one.knot.what
            if not one.in_middle or not isinstance(host, Lying):
                yield Pair((drop, loop), there)
                return
            # On a chain that goes through: closed round a link, in one that is opened, or slid on.
            ends: tuple[tuple[int, Opening], tuple[int, Opening]] = (
                (drop, loop),
                (there[0], MIDDLE),
            )
            mouths = (self.sorts[self.sort_of[thing]].mouths.get(side) for thing, side in ends)
            takes = any(mouth is not None and mouth.takes is not None for mouth in mouths)
            room = one.drop_end.inner - SLIDE_PLAY_MM
            yield Pair(*ends, slides=not takes and host.made.thickness <= room)


def _sorts(laid: Composition) -> Iterator[Sort]:
    """Yield what is made alike, what several entries have alike once; closure halves first."""
    alike: dict[tuple[str, tuple[str, ...], tuple[bool, ...]], list[Kind]] = {}
    halves = {id(laid.fastened.receiving): RECEIVING, id(laid.fastened.holding): HOLDING}
    for kind in laid.kinds:
        if kind.key == CLOSURE:
            half = kind.made
            key = halves.pop(id(half), None)
            if key and (half.steps or half.ends or half.bought):
                yield _sort((key,), kind, half="right" if key == RECEIVING else "left")
        elif kind.made.steps:
            opens = tuple(end.opens for end in kind.made.ends or ())
            told = (kind.sort, tuple(one.says for one in kind.made.steps), opens)
            alike.setdefault(told, []).append(kind)
        else:
            alike[kind.key, (), ()] = [kind]
    for kinds in alike.values():
        yield _sort(tuple(dict.fromkeys(kind.key for kind in kinds)), kinds[0])


def _sort(keys: tuple[str, ...], kind: Kind, half: Opening | None = None) -> Sort:
    made = kind.made
    sides: tuple[Opening, ...] = ("ring",) if made.one_loop else ("left", "right")
    mouths = {}
    for side, end in zip(sides, made.ends or (), strict=False):
        to_body = half is not None and side in (half, "ring")
        mouths[side] = _mouth(made, end, side, (side, "body") if to_body else (side,))
    if made.pieces > 1 and made.ends:
        mouths[MIDDLE] = _mouth(made, made.ends[0], MIDDLE, (MIDDLE,))
    return Sort(keys, kind.name, made, made.steps, mouths, kind.sort)


def _string(laid: Composition, steps: tuple[Step, ...]) -> Iterator[Sort]:
    """Yield the string, where something is strung; its loops are closed by steps of their own."""
    if not laid.runs:
        return
    made = laid.string_end
    mouths: dict[Opening, Mouth] = {}
    if made.ends:
        sides: tuple[Opening, Opening] = ("left", "right")
        for side, end in zip(sides, made.ends, strict=True):
            mouths[side] = _mouth(made.but(steps=steps), end, side, (side,))
    name = say("join.string" if any(one.shuts for one in steps) else "join.core")
    yield Sort((STRING,), name, made, steps, mouths, STRING)


def _mouth(made: Made, end: End, side: Opening, called: tuple[Opening, ...]) -> Mouth:
    """Return an opening as its steps tell it; what they don't tell follows from its end."""
    steps, here, to_body = made.steps, set(called), "body" in called

    def at(does: str) -> int | None:
        return next((n for n, one in enumerate(steps) if here & set(getattr(one, does))), None)

    first, takes, shut = at("makes"), at("takes_in"), at("shuts")
    said = first is not None
    if first is None:
        first = len(steps) - 1 if made.wires and steps and takes is None else -1
    told = takes is not None
    if takes is None and shut is not None:
        takes = shut if shut > first else None
    elif takes is None and end.opens:
        takes = len(steps)
    return Mouth(side, first, takes, told, shut, to_body, said, told and first == takes == 0)
