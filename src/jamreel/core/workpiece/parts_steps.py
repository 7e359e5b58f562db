"""The order of work of a piece of parts: cutting, every kind of part, putting together."""

from collections.abc import Iterator, Sequence

from jamreel.core.bench.steps import Asked, Step, step
from jamreel.core.interlace.base import Weaving
from jamreel.core.makeup.compose import Composition, Kind
from jamreel.core.makeup.sequence import CLOSURE, MakeUp
from jamreel.core.parts.base import Made
from jamreel.core.words import say
from jamreel.core.workpiece.steps import press_in_step
from jamreel.core.workpiece.straight import StraightWire


def order_of_work(
    makeup: MakeUp,
    laid: Composition,
    wires: Sequence[StraightWire],
    worn: tuple[str, ...],
    forms: tuple[Step, ...] = (),
    sets: int = 1,
) -> tuple[Step, ...]:
    """Return the steps of a composed piece.

    Args:
        makeup: as written down.
        laid: the piece laid out.
        wires: that it is cut from.
        worn: cautions that stand at the try-on.
        forms: how the whole is bent once it is threaded.
        sets: how often the whole is made, 2 for a pair.
    """
    steps = (
        *_cutting(wires),
        step("composed.lay_out", "form", check=True, finished=laid.finished),
        *_parts(laid, sets),
        *_together(makeup, laid, forms),
        step("composed.try_on", "fit", cautions=worn, check=True),
        press_in_step(),
    )
    silent = sum(kind.made.minutes * kind.times for kind in laid.kinds if not kind.made.steps)
    return _with_minutes(steps, sets * silent)


def _with_minutes(steps: tuple[Step, ...], more: float) -> tuple[Step, ...]:
    """Return steps with the minutes of what has none of its own: beads are strung, or laid out."""
    at = next(
        (n for n, one in enumerate(steps) if one.work in STRINGING),
        next(n for n, one in enumerate(steps) if one.work == "composed.lay_out"),
    )
    longer = steps[at].model_copy(update={"minutes": steps[at].minutes + more})
    return (*steps[:at], longer, *steps[at + 1 :])


def _cutting(wires: Sequence[StraightWire]) -> Iterator[Step]:
    if not wires:
        return
    count = sum(one.cut.quantity for one in wires)
    sizes = len({(one.cut.stock, round(one.cut.length_mm, 2), one.cut.label) for one in wires})
    hard = any(one.wire.metal.hard for one in wires)
    cautions = ("eyes", "whip", "hard") if hard else ("eyes", "whip")
    yield step("composed.cut", "cut", cautions=cautions, check=True, count=count, sizes=sizes)
    yield step("composed.ends", "cut", cautions=("ends",))


def _parts(laid: Composition, sets: int) -> Iterator[Step]:
    """Yield the steps of the parts; what is made alike for several entries is one step of them all.

    What needs a torch comes first: no pearl, stone or glue is near it yet. The body comes before
    its closure: the first half is tried on before the last end is closed.
    """
    alike: dict[tuple[str, tuple[str, ...]], list[Kind]] = {}
    for kind in sorted(laid.kinds, key=_when):
        if kind.made.steps:
            sort = (kind.sort, tuple(one.says for one in kind.made.steps))
            alike.setdefault(sort, []).append(kind)
    for kinds in alike.values():
        count = sum(kind.times for kind in kinds)
        name = kinds[0].name
        part = say("part.times", name=name, count=count) if count > 1 else name
        counts: dict[str, int] = {}
        for kind in kinds:
            counts[kind.key] = counts.get(kind.key, 0) + kind.times
        keys, several = tuple(counts), len(counts) > 1
        made = kinds[0].made
        last = made.steps[-1].id
        for one in timed(made.steps, made.minutes, count * sets):
            asks = (*one.asks, *(_asks(made) if one.id == last else ()))
            yield one.model_copy(
                update={
                    "id": f"{keys[0]}/{one.id}",
                    "asks": asks,
                    "of": tuple(f"{key}/{one.id}" for key in keys) if several else (),
                    "counts": tuple(counts.values()),
                    "title": say("step.of_part", part=part, title=one.title),
                    "sort": kinds[0].sort,
                    "figures": {**one.figures, "count": count},
                }
            )


def _asks(made: Made) -> tuple[Asked, ...]:
    """Return what is known when a part is done: what was snipped off, and how its rows came out."""
    wired = any(not use.off_coil for use in made.wires)
    rows: tuple[Asked, ...] = ("rows",) if isinstance(made.weaving, Weaving) else ()
    return (*rows, *(("left",) if wired else ()))


def timed(steps: Sequence[Step], minutes: float, times: int) -> tuple[Step, ...]:
    """Return the steps of a part with what they take for so many of it.

    Args:
        steps: of one.
        minutes: that one takes in all [min].
        times: how many are made.

    Source: what no step says for itself is shared out alike; common practice, no source.
    """
    said = sum(one.minutes for one in steps)
    silent = sum(one.minutes == 0 for one in steps)
    rest = max(0.0, minutes - said) / silent if silent else 0.0
    return tuple(
        one.model_copy(
            update={"times": times * one.times, "minutes": times * (one.minutes or rest)}
        )
        for one in steps
    )


def _when(kind: Kind) -> int:
    """Return when a part is made: heat first, what is put on others after them, then the closure;
    one that is soldered on goes last for all its heat."""
    if kind.key == CLOSURE and (kind.made.goes_last or not _heats(kind)):
        return 3
    return 0 if _heats(kind) else 2 if kind.made.goes_last else 1


def _heats(kind: Kind) -> bool:
    return any("torch" in one.cautions for one in kind.made.steps)


STRUNG = {"wrapped": "string", "plain": "core", "through": "string_through"}
STRINGING = frozenset(f"composed.{key}" for key in STRUNG.values())


def _together(makeup: MakeUp, laid: Composition, forms: tuple[Step, ...]) -> Iterator[Step]:
    """Yield putting it together: the first half is tried on before the last closure."""
    if laid.runs:
        tail, pin = makeup.string_tail, makeup.string_pin
        key = f"composed.{STRUNG[makeup.string_ends]}"
        stiff = makeup.string_ends == "plain"
        yield (
            step(key, "form", check=True, pin=pin)
            if stiff
            else step(key, "form", check=True, tail=tail)
        )
        yield from forms
    if any(part.drop for part in laid.parts):
        yield step("composed.drops", "form", check=True)
    yield step("composed.half", "form", check=True, half=laid.finished / 2)
    yield step("composed.close", "form", check=True)
