"""What a make-up's joints, holes and holds come to, as advice."""

import math
from collections.abc import Iterator, Mapping, Sequence
from itertools import pairwise

from jamreel.core.advice import Advice
from jamreel.core.advice.closing import FIELD as CLOSURE_FIELD
from jamreel.core.advice.closing import (
    bar_holds,
    bar_passes,
    hook_passes,
    no_own_hook,
    nothing_to_hook,
    opens_easily,
    solder_spoils,
    stronger_than_loops,
)
from jamreel.core.advice.joining import (
    FIELD,
    ends_differ,
    eyes_in_cap,
    goes_by_so_far,
    hooked_on_nothing,
    loop_admits,
    nothing_in_it,
    spare_hook,
)
from jamreel.core.advice.parts import hole_passes, jostling
from jamreel.core.forming.strength import Weakest
from jamreel.core.makeup.compose import Composition
from jamreel.core.makeup.loops import Knot, Loops
from jamreel.core.makeup.sequence import CLOSURE, MakeUp
from jamreel.core.parts.base import End, Hold, Made, ends_meet
from jamreel.core.words import say

# By entry and stock key how many times as much a wire bears in the end as when it was bought: at
# least, and at most.
Worn = Mapping[tuple[str, str], tuple[float, float]]
AS_BOUGHT = (1.0, 1.0)


def weakest_of(composition: Composition, worn: Worn, closure: bool = True) -> Weakest | None:
    """Return the weakest place of a piece by name, or None where nothing is known to give.

    Args:
        composition: the piece laid out.
        worn: what its wires bear in the end: what was made soft on the way bears less.
        closure: whether the closure's own halves are looked at.

    Source: ``forming.strength``, the least of all.
    """
    rows: list[tuple[str, str, Hold]] = [
        (kind.key, kind.name, hold)
        for kind in composition.kinds
        if kind.key != CLOSURE
        for hold in kind.made.holds
    ]
    for run in composition.runs:
        rows += [(run.key, say("hold.the_string"), hold) for hold in composition.string_end.holds]
    fastened = composition.fastened
    if closure:
        name = say("hold.the_closure")
        halves = (fastened.receiving, fastened.holding)
        rows += [(CLOSURE, name, hold) for half in halves for hold in half.holds]
    if not rows:
        return None
    held = [(_held(worn, entry, hold), name, hold) for entry, name, hold in rows]
    (newtons, up_to), name, hold = min(held, key=lambda row: row[0])
    what = say(f"hold.{hold.key}")
    # A jump ring's weakest place is the jump ring.
    says = name if what.endswith(name) else say("hold.of", what=what, where=name)
    return Weakest(says, newtons, hold.key, up_to)


def _held(worn: Worn, entry: str, hold: Hold) -> tuple[float, float]:
    """Return what a place holds in the end [N]: at least, and at most."""
    least, most = worn.get((entry, hold.stock), AS_BOUGHT)
    return hold.newtons * least, hold.newtons * most


def make_up_advice(
    makeup: MakeUp, composition: Composition, loops: Loops, worn: Worn
) -> Iterator[Advice | None]:
    """Yield the advice on a make-up's parts, joints, holes, closure and strength."""
    yield nothing_in_it(len(composition.parts))
    for n, entry in enumerate(makeup.entries):
        if entry.so_far is not None:
            yield goes_by_so_far(n, entry.says, entry.so_far.count, entry.so_far.over)
    for kind in composition.kinds:
        yield from kind.made.advice
        if kind.made.hole is not None:
            yield hole_passes(kind.made.hole, composition.string.d, makeup.passes)
    for one in loops.gathered:
        yield loop_admits(one.inner, one.thick, one.loop, ", ".join(one.names))
        widest = max(one.drops, default=0.0)
        yield jostling(widest, len(one.drops), math.pi * (one.inner + widest))
    # Caps go over ends: nothing of theirs hangs in the body.
    yield from _meeting(loops.line[1:-1] if makeup.closure.swallows else loops.line)
    yield from _bare_ends(makeup, composition)
    yield from composition.fastened.mates
    yield from _own_hook(makeup, composition, loops.first)
    soldered_on = any(k.key == CLOSURE and k.made.goes_last for k in composition.kinds)
    yield solder_spoils() if soldered_on and composition.brittle else None
    yield from _closure(composition, loops.first, worn)
    lying = [p.name for p in composition.parts if not p.drop]
    if lying and composition.fastened.hold is not None:
        yield ends_differ(lying[0], lying[-1], makeup.mirrored or makeup.focal is not None)


def _meeting(line: Sequence[Knot | None]) -> Iterator[Advice | None]:
    """Yield whether neighbours hang in each other opening by opening, alike ones once."""
    told: dict[tuple[str, End, str, End], Advice | None] = {}
    for left, right in pairwise((None, *line, None)):
        if left is not None and right is not None:
            alike = (left.name, left.ends[1], right.name, right.ends[0])
            closes = isinstance(left.what, Made) or isinstance(right.what, Made)
            if alike not in told:
                told[alike] = ends_meet(*alike, CLOSURE_FIELD if closes else FIELD)
        else:
            alone = (left, 1) if left is not None else (right, 0)
            knot, side = alone
            if knot is not None and knot.ends[side].hooked_on:
                yield hooked_on_nothing(knot.name)
    yield from told.values()


def _bare_ends(makeup: MakeUp, composition: Composition) -> Iterator[Advice | None]:
    """Yield whether bare ends at both ends of the piece go into what fastens it."""
    lying = [p for p in composition.parts if not p.drop]
    for part in {id(p.made): p for p in (*lying[:1], *lying[-1:])}.values():
        if part.made.bare is not None:
            yield from makeup.closure.takes_in(part.name, *part.made.bare)
        elif makeup.closure.swallows:
            yield eyes_in_cap(part.name)
    if lying and lying[-1].made.hooked and composition.fastened.holding.ends:
        yield spare_hook(lying[-1].name, composition.closure_name)


def _own_hook(
    makeup: MakeUp, composition: Composition, into: End | None
) -> Iterator[Advice | None]:
    """Yield whether the body's own hook goes through its own eye, where nothing else fastens it."""
    lying = [p for p in composition.parts if not p.drop]
    if not makeup.closure.by_body or not lying:
        return
    hooked = lying[-1].made.hooked
    if not hooked:
        yield no_own_hook(lying[-1].name)
    elif into is None:
        yield nothing_to_hook(lying[0].name)
    else:
        yield hook_passes(hooked, into.inner)


def _closure(composition: Composition, into: End | None, worn: Worn) -> Iterator[Advice | None]:
    yield from _through(composition, into)
    hold = composition.fastened.hold
    if hold is None:
        return
    held, _ = _held(worn, CLOSURE, hold)
    yield opens_easily(held)
    inner = weakest_of(composition, worn, closure=False)
    if inner is not None:
        yield stronger_than_loops(held, inner.newtons, inner.says)


def _through(composition: Composition, into: End | None) -> Iterator[Advice | None]:
    """Yield whether hook or bar goes through what it is fastened in."""
    passes = composition.fastened.passes
    lying = [p for p in composition.parts if not p.drop]
    if passes is None or not lying:
        return
    if into is None:
        yield nothing_to_hook(lying[0].name)
    elif passes.bar:
        yield bar_holds(passes.bar, into.inner)
        yield bar_passes(into.inner, passes.width, lying[-1].made.thickness)
    else:
        yield hook_passes(passes.width, into.inner)
