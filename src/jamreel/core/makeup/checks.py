"""What a make-up's joints, holes and holds come to, as advice."""

from collections.abc import Iterator

from jamreel.core.advice import Advice
from jamreel.core.advice.closing import bar_passes, opens_easily, stronger_than_loops
from jamreel.core.advice.joining import ends_differ, loop_admits, neither_opens, nothing_in_it
from jamreel.core.advice.parts import hole_passes
from jamreel.core.forming.strength import Weakest
from jamreel.core.makeup.compose import Composition
from jamreel.core.makeup.sequence import CLOSURE, MakeUp
from jamreel.core.parts.base import Hold
from jamreel.core.words import say


def weakest_of(composition: Composition, closure: bool = True) -> Weakest | None:
    """Return the weakest place of a piece by name, or None where nothing is known to give.

    Args:
        composition: the piece laid out.
        closure: whether the closure's own halves are looked at.

    Source: ``forming.strength``, the least of all.
    """
    rows: list[tuple[str, Hold]] = [
        (kind.name, hold)
        for kind in composition.kinds
        if kind.key != CLOSURE
        for hold in kind.made.holds
    ]
    if composition.runs:
        rows += [(say("hold.the_string"), hold) for hold in composition.string_end.holds]
    fastened = composition.fastened
    if closure:
        halves = (fastened.receiving, fastened.holding)
        rows += [(say("hold.the_closure"), hold) for half in halves for hold in half.holds]
    if not rows:
        return None
    name, hold = min(rows, key=lambda row: row[1].newtons)
    what = say(f"hold.{hold.key}")
    # A jump ring's weakest place is the jump ring.
    says = name if what.endswith(name) else say("hold.of", what=what, where=name)
    return Weakest(says, hold.newtons, hold.key)


def make_up_advice(makeup: MakeUp, composition: Composition) -> Iterator[Advice | None]:
    """Yield the advice on a make-up's parts, joints, holes, closure and strength."""
    yield nothing_in_it(len(composition.parts))
    for kind in composition.kinds:
        yield from kind.made.advice
        if kind.made.hole is not None:
            yield hole_passes(kind.made.hole, composition.string.d, makeup.passes)
    for joint in composition.joints:
        left, right = joint.left_end, joint.right_end
        yield neither_opens(joint.left, joint.right, left.opens or right.opens)
        yield loop_admits(left.inner, right.wire, joint.left, joint.right)
        yield loop_admits(right.inner, left.wire, joint.right, joint.left)
    yield from composition.fastened.mates
    yield from _closure(composition)
    lying = [p.name for p in composition.parts if not p.drop]
    if lying and composition.fastened.hold is not None:
        yield ends_differ(lying[0], lying[-1], makeup.mirrored or makeup.focal is not None)


def _closure(composition: Composition) -> Iterator[Advice | None]:
    lying = [p for p in composition.parts if not p.drop]
    passes = composition.fastened.passes
    if passes is not None and lying:
        yield bar_passes(passes.through, passes.width, lying[-1].made.thickness)
    hold = composition.fastened.hold
    if hold is None:
        return
    yield opens_easily(hold.newtons)
    inner = weakest_of(composition, closure=False)
    if inner is not None:
        yield stronger_than_loops(hold.newtons, inner.newtons, inner.says)
