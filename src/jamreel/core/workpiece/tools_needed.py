"""What lies to hand before a piece is begun: pliers, formers, cutters, and what its steps want."""

from collections.abc import Iterable, Iterator, Sequence

from jamreel.core.bench.steps import Step
from jamreel.core.forming.tools import Former, Outfit
from jamreel.core.result import PlannedBend, ToolNeeded
from jamreel.core.words import say
from jamreel.core.workpiece.straight import StraightWire


def tools_needed(
    wires: Sequence[StraightWire],
    bends: Sequence[PlannedBend],
    formers: Sequence[Former],
    steps: Sequence[Step],
    outfit: Outfit,
) -> tuple[ToolNeeded, ...]:
    """Return the tools of a piece, each once with all sizes that it is wanted for, in the order in
    which they are taken up; a size or a tool that the bench lacks stands by itself.

    Args:
        wires: that are cut.
        bends: with the maker's pliers for each.
        formers: with the maker's mandrel for each.
        steps: of the piece.
        outfit: of the bench.

    Source: plain listing of what the plan already chose.
    """
    sizes: dict[tuple[str, bool], list[float]] = {}
    rows = (*_cutters(wires), *_bent_on(bends), *_shaped_on(formers), *_wanted(steps, outfit))
    for says, lacks, size in rows:
        known = sizes.setdefault((says, lacks), [])
        if size is not None and size not in known:
            known.append(size)
    return tuple(
        ToolNeeded(says=says, sizes_mm=tuple(sorted(found)), lacks=lacks)
        for (says, lacks), found in sizes.items()
    )


_Row = tuple[str, bool, float | None]


def _cutters(wires: Iterable[StraightWire]) -> Iterator[_Row]:
    hard = {one.wire.metal.hard for one in wires}
    yield from ((say(f"tool.{'shears' if one else 'cutters'}"), False, None) for one in hard)


def _bent_on(bends: Iterable[PlannedBend]) -> Iterator[_Row]:
    for bend in bends:
        if bend.tool is not None:
            yield bend.tool, False, bend.tool_mm
        elif bend.pin > 0:
            yield say("tool.pin"), True, bend.pin
        else:
            yield say("tool.flat"), True, None


def _shaped_on(formers: Iterable[Former]) -> Iterator[_Row]:
    for one in formers:
        lacks = one.tool is None
        yield one.tool or say("tool.former"), lacks, one.former_mm if lacks else one.tool_mm


def _wanted(steps: Iterable[Step], outfit: Outfit) -> Iterator[_Row]:
    for thing in dict.fromkeys(thing for one in steps for thing in one.wants):
        yield say(f"outfit.{thing}"), not getattr(outfit, thing), None
