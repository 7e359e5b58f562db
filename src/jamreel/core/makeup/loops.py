"""What hangs in which loop: neighbours in each other, drops where they stand, all in one ring.

A drop between two parts hangs in the ring there, if one of the two is a ring; else in the wider of
both loops.
"""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from itertools import pairwise

from jamreel.core.makeup.compose import Composition, Lying, Run
from jamreel.core.makeup.sequence import HUNG
from jamreel.core.parts.base import End, Made


@dataclass(frozen=True)
class Gathering:
    """A loop with all that hangs in it: its name and inner diameter [mm], the names of what hangs
    there, how thick each of it is, and how wide each drop of it is [mm]."""

    loop: str
    inner: float
    names: tuple[str, ...]
    thick: tuple[float, ...]
    drops: tuple[float, ...] = ()


@dataclass(frozen=True)
class Hung:
    """A drop and what it hangs from, by name, with both ends."""

    drop: str
    host: str
    drop_end: End
    host_end: End


@dataclass(frozen=True)
class Hanging:
    """A drop as it lies, what it hangs from, by name, and both ends: the loop on one ``side`` of a
    ``knot``, a link ``in_middle`` of it, the string of a ``run``, or a part that runs through the
    middle (neither)."""

    drop: Lying
    host: str
    host_end: End
    knot: "Knot | None" = None
    side: int = 0
    in_middle: bool = False
    run: Run | None = None

    @property
    def drop_end(self) -> End:
        """The loop of the drop."""
        assert self.drop.made.ends is not None  # of what hangs
        return self.drop.made.ends[0]

    def as_named(self) -> Hung:
        """Return it by names: alike ones are the same."""
        return Hung(self.drop.name, self.host, self.drop_end, self.host_end)


@dataclass
class Knot:
    """A part of the line with its loops, left and right, and what hangs in each.

    ``what`` it is: a part as it lies, a run of strung parts, or a half of the closure.
    """

    what: Lying | Run | Made
    name: str
    ends: tuple[End, End]
    one_loop: bool
    at: float
    to: float
    turned: bool = False
    inside: tuple[list["_Inside"], list["_Inside"]] = field(default_factory=lambda: ([], []))

    def take(self, side: int, name: str, end: End, wide: float = 0.0) -> None:
        """Hang something in one of its loops; a drop is so wide [mm]."""
        self.inside[0 if self.one_loop else side].append(_Inside(name, end, wide))


@dataclass(frozen=True)
class _Inside:
    name: str
    end: End
    wide: float


@dataclass(frozen=True)
class Loops:
    """What hangs in which loop of a piece, alike ones once.

    Drops are ``hung``, what is in a loop is ``gathered``. Hook or bar goes into the ``first`` loop:
    the receiving half, or the body's own where there is none; None where a string goes on and
    nothing is there. ``line`` and ``hanging`` are what it was read from.
    """

    hung: tuple[Hung, ...]
    gathered: tuple[Gathering, ...]
    first: End | None
    line: Sequence[Knot | None] = field(repr=False, compare=False)
    hanging: tuple[Hanging, ...] = field(repr=False, compare=False)


def loops_of(laid: Composition) -> Loops:
    """Return what hangs in which loop of a piece.

    Args:
        laid: the piece laid out.

    Source: plain topology.
    """
    knots, gaps = _line(laid)
    for left, right in pairwise(knots):
        if left is not None and right is not None:
            left.take(1, right.name, right.ends[0])
            right.take(0, left.name, left.ends[1])
    hanging = tuple(_hung_from(laid, knots, gaps))
    hung = tuple(dict.fromkeys(one.as_named() for one in hanging))
    found = {
        Gathering(one.drop, one.drop_end.inner, (one.host,), one.host_end.in_loop): None
        for one in hung
    }
    # Alike parts share their ends: a row of them is looked into once.
    rows = {
        (knot.name, id(end), *((one.name, id(one.end), one.wide) for one in inside)): (
            knot.name,
            end,
            inside,
        )
        for knot in knots
        if knot is not None
        for end, inside in zip(knot.ends, knot.inside, strict=True)
    }
    for name, end, inside in rows.values():
        thick = tuple(t for one in inside for t in one.end.in_loop)
        names = tuple(dict.fromkeys(one.name for one in inside))
        drops = tuple(one.wide for one in inside if one.wide)
        found.setdefault(Gathering(name, end.inner, names, thick, drops))
    first = knots[0] if knots else None
    gathered = tuple(one for one in found if one.thick)
    return Loops(hung, gathered, first.ends[0] if first else None, knots, hanging)


Knots = Sequence[Knot | None]
Gaps = dict[int, list[Lying]]


def _line(laid: Composition) -> tuple[list[Knot | None], Gaps]:
    """Return what hangs in each other from left to right, and the drops in the gap before each.

    A string that goes on through what is next to it, and what goes into a cap, hang in nothing and
    are None.
    """
    knots: list[Knot | None] = []
    gaps: Gaps = {}
    in_run = {id(part): run for run in laid.runs for part in run.parts}
    seen: set[int] = set()
    fastened = laid.fastened
    _put(knots, fastened.receiving, laid.closure_name, fastened.receiving, 0.0)
    for part in laid.parts:
        run = in_run.get(id(part))
        if run is not None:
            if id(run) not in seen:
                seen.add(id(run))
                end = laid.string_end
                if end.ends:
                    knots.append(Knot(run, part.name, end.ends, False, run.at, run.at + run.length))
                else:
                    knots.append(None)
        elif part.drop:
            gaps.setdefault(len(knots), []).append(part)
        else:
            _put(knots, part, part.name, part.made, part.at, turned=part.unit.turned)
    _put(knots, fastened.holding, laid.closure_name, fastened.holding, laid.body_at + laid.body)
    return knots, gaps


def _put(
    knots: list[Knot | None],
    what: Lying | Made,
    name: str,
    made: Made,
    at: float,
    *,
    turned: bool = False,
) -> None:
    if made.ends:
        a, b = made.ends
        ends = (b, a) if turned else (a, b)
        knots.append(Knot(what, name, ends, made.one_loop, at, at + made.length, turned))
    elif made.bare:
        # What goes into a cap hangs in no loop.
        knots.append(None)


def _hung_from(laid: Composition, knots: Knots, gaps: Gaps) -> Iterator[Hanging]:
    """Yield the drops with what each hangs from, and hang them there."""
    middle = laid.body_at + laid.body / 2
    thread = End(0.0, laid.string.d, strands=laid.passes)
    for run in laid.runs:
        for part in run.parts:
            if part.drop and part.made.ends:
                yield Hanging(part, laid.string.label, thread, run=run)
    bare = next((p for p in laid.parts if _is_across(p, middle)), None)
    for at, drops in gaps.items():
        for drop in drops:
            if not drop.made.ends:
                continue
            in_middle = drop.unit.top == HUNG
            through = next((r for r in laid.runs if r.at < middle < r.at + r.length), None)
            if in_middle and through is not None:
                yield Hanging(drop, laid.string.label, thread, run=through)
                continue
            if in_middle and bare is not None and bare.made.bare:
                yield Hanging(drop, bare.name, _passed_over(bare.made))
                continue
            chain = next((k for k in knots if k and _is_chain(k, middle)), None)
            if in_middle and chain is not None:
                yield Hanging(drop, chain.name, chain.ends[0], chain, in_middle=True)
                continue
            host = _middle(knots, middle) if in_middle else _host(knots, at)
            if host is not None:
                knot, side = host
                knot.take(side, drop.name, drop.made.ends[0], drop.made.width)
                yield Hanging(drop, knot.name, knot.ends[side], knot, side)


def _passed_over(made: Made) -> End:
    """Return what a loop goes over that hangs round a body: its section, corner to corner where it
    is flat, and its bindings."""
    wide, thick = made.bare or (made.width, made.thickness)
    across = math.hypot(wide, thick) if wide > thick else thick
    return End(0.0, thick, around=across, bound=max(made.thickness - thick, 0.0))


def _is_chain(knot: Knot, middle: float) -> bool:
    """Return whether a row of links runs through the middle of the line."""
    what = knot.what
    links = isinstance(what, Lying) and what.made.pieces > 1
    return links and knot.at < middle < knot.to


def _is_across(part: Lying, middle: float) -> bool:
    """Return whether a part without loops of its own runs through the middle of the line."""
    return part.made.bare is not None and part.at < middle < part.at + part.length


def _host(knots: Knots, at: int) -> tuple[Knot, int] | None:
    """Return the loop that a drop in a gap hangs in."""
    left = knots[at - 1] if at else None
    right = knots[at] if at < len(knots) else None
    if left is None or right is None:
        return (left, 1) if left else (right, 0) if right else None
    if left.one_loop != right.one_loop:
        return (left, 1) if left.one_loop else (right, 0)
    return (left, 1) if left.ends[1].inner >= right.ends[0].inner else (right, 0)


def _middle(knots: Knots, middle: float) -> tuple[Knot, int] | None:
    """Return the loop next to the middle of the line."""
    near = [
        (abs(place - middle), i, knot, side)
        for i, knot in enumerate(knots)
        if knot is not None
        for side, place in enumerate((knot.at, knot.to))
    ]
    if not near:
        return None
    _, _, knot, side = min(near, key=lambda row: (row[0], not row[2].one_loop, row[1]))
    return knot, side
