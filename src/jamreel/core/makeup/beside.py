"""What goes by its neighbours: a turn round what is there, a cap over the ends that are there."""

from collections.abc import Callable, Sequence
from dataclasses import replace
from functools import lru_cache

from jamreel.core.closures.base import Closure
from jamreel.core.errors import Refusal
from jamreel.core.makeup.sequence import HUNG, MakeUp, Unit, alone
from jamreel.core.parts.base import Made, Part

# What a unit comes to.
MadeOf = Callable[[Unit], Made]


def as_hung(makeup: MakeUp, units: tuple[Unit, ...], made: MadeOf) -> tuple[Unit, ...]:
    """Return units of which what is turned round its neighbour is as long as that is thick."""
    if not any(unit.part.turned_round for unit in units):
        return units
    hung = (alone(makeup.hung, HUNG),) if makeup.hung else ()
    found, on = [], dict[str, Part]()
    for n, unit in enumerate(units):
        round_ = unit.part.turned_round
        beside = units[max(n - 1, 0) : n] if unit.turned else units[n + 1 : n + 2]
        there = hung if round_ == "middle" else beside if round_ else ()
        ends = made(there[0]).ends if there else None
        if ends is None:
            found.append(unit)
            continue
        try:
            turned = _on(unit.part, ends[0].around or ends[0].wire)
        except Refusal as refusal:
            raise refusal.at(f"piece.{unit.path}.part.{refusal.field}") from None
        # Those of one entry are made alike: the first tells.
        found.append(replace(unit, part=on.setdefault(unit.key, turned)))
    return tuple(found)


@lru_cache(maxsize=64)
def _on(part: Part, thick: float) -> Part:
    """Return a part turned round something so thick [mm], the same one each time."""
    return part.on(thick)


def over_ends(closure: Closure, units: Sequence[Unit], made: MadeOf) -> Closure:
    """Return a closure as it is made over what of the piece goes into it: the wider and the thicker
    of both bare ends."""
    if not closure.swallows or not units:
        return closure
    ends = (made(unit).bare for unit in (units[0], units[-1]))
    bare = [one for one in ends if one is not None]
    if not bare:
        return closure
    return closure.over(max(wide for wide, _ in bare), max(thick for _, thick in bare))
