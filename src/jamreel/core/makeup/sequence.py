"""The make-up as a maker writes it down: entries, groups, repeats, a focal, a mirror.

What may follow what: any part may follow any other. Neighbours that are strung share one wire,
links hang in each other's loops, a drop hangs from the place at which it stands. An empty sequence
is the neutral element. Two ends of which neither opens can't be joined, and the plan says so.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Annotated, ClassVar, Literal

from pydantic import Field, SerializeAsAny, model_validator

from jamreel.core.choices import Asking
from jamreel.core.closures import AnyClosure
from jamreel.core.closures.spring_clasp import SpringClasp
from jamreel.core.errors import Refusal
from jamreel.core.makeup.layout import laid_evenly
from jamreel.core.parts import AnyPart, Part
from jamreel.core.values import Frozen, Length, OptionalLength, refused
from jamreel.core.wire.gauges import OptionalSize

MOST_TIMES, MOST_UNITS, DEEPEST = 400, 1200, 4


class Entry(Frozen):
    """A part, or a group of entries, so many times.

    ``graduate_to`` lets a bead grow or shrink over the repeats. ``fill`` marks what the solver may
    count anew. A group laid out ``evenly`` has two parts: the first ``times`` times, and the second
    in the gaps before, between and behind, ``fillers`` of them in all.
    """

    part: SerializeAsAny[AnyPart] | None = None
    group: tuple["Entry", ...] = Field(default=(), max_length=40)
    times: Annotated[int, Field(ge=0, le=MOST_TIMES)] = 1
    graduate_to: OptionalLength = None
    fill: bool = False
    evenly: bool = False
    fillers: Annotated[int, Field(ge=0, le=MOST_TIMES)] = 0

    @model_validator(mode="after")
    def _one_of_both(self) -> "Entry":
        if (self.part is None) == (not self.group):
            raise refused(Refusal("entry_empty", got=None, under="part"))
        if self.evenly and [e.part is None for e in self.group] != [False, False]:
            raise refused(Refusal("evenly_two", got=len(self.group), under="group"))
        return self


Entries = tuple[Entry, ...]


@dataclass(frozen=True)
class Unit:
    """One part at its place in the sequence; ``path`` is the entry it comes from."""

    part: Part
    path: str
    turned: bool = False


class MakeUp(Asking):
    """A sequence with its closure, and the string that runs through what has holes.

    ``mirrored`` lays the entries out, then the focal, then the entries the other way round;
    ``hung`` hangs from the focal, or where it would be.
    ``rings`` are jump rings added at the back to reach the length.
    """

    ranges: ClassVar[dict[str, tuple[float, float]]] = {
        "rings": (0, 12),
        "ring_pin": (2, 12),
        "string_pin": (1, 12),
        "string_wraps": (1, 8),
        "string_tail": (0, 150),
    }

    entries: Entries = Field(default=(), max_length=60)
    focal: SerializeAsAny[AnyPart] | None = None
    hung: SerializeAsAny[AnyPart] | None = None
    mirrored: bool = False
    closure: SerializeAsAny[AnyClosure] = SpringClasp()
    rings: int = 0
    ring_pin: Length = 3.5
    string: OptionalSize = None
    string_pin: Length = 2.5
    string_wraps: int = 3
    string_tail: Length = 20.0
    passes: Literal[1, 2, 3] = 1

    @model_validator(mode="after")
    def _hung_hangs(self) -> "MakeUp":
        if self.hung is not None and self.hung.role != "drop":
            raise refused(Refusal("hung_drop", got=self.hung.kind, under="hung"))
        return self

    def units(self) -> tuple[Unit, ...]:
        """Return the sequence from left to right, one unit a part.

        Raises:
            Refusal: more parts than a piece can have, or groups nested too deep.
        """
        middle = (("focal", self.focal), ("hung", self.hung))
        return laid_out(
            self.entries, [Unit(part, path) for path, part in middle if part], self.mirrored
        )

    def beside(self) -> tuple[Unit, ...]:
        """Return parts that are made for the piece and lie outside its line."""
        return ()


def laid_out(
    entries: Entries, middle: Sequence[Unit] = (), mirrored: bool = False, root: str = "entries"
) -> tuple[Unit, ...]:
    """Return entries as units from left to right.

    Args:
        entries: the sequence, or its left half.
        middle: what stands in the middle.
        mirrored: whether the entries follow once more, the other way round.
        root: name of the field that the entries stand in.

    Raises:
        Refusal: more parts than a piece can have, or groups nested too deep.

    Source: plain counting.
    """
    half = tuple(_expanded(entries, root, 0))
    back = tuple(Unit(u.part, u.path, not u.turned) for u in reversed(half)) if mirrored else ()
    every = (*half, *middle, *back)
    if len(every) > MOST_UNITS:
        raise Refusal("too_many_parts", got=len(every), field=f"piece.{root}", most=MOST_UNITS)
    return every


def _expanded(entries: Entries, path: str, depth: int) -> Iterator[Unit]:
    if depth > DEEPEST:
        raise Refusal("too_deep", got=depth, field=f"piece.{path}", most=DEEPEST)
    for i, entry in enumerate(entries):
        here = f"{path}.{i}"
        if entry.part is not None:
            yield from _repeated(entry, here)
        elif entry.evenly:
            yield from _spread(entry, here)
        else:
            once = tuple(_expanded(entry.group, f"{here}.group", depth + 1))
            if len(once) * entry.times > MOST_UNITS:
                count = len(once) * entry.times
                raise Refusal("too_many_parts", got=count, field=f"piece.{here}", most=MOST_UNITS)
            for _ in range(entry.times):
                yield from once


def _repeated(entry: Entry, path: str) -> Iterator[Unit]:
    assert entry.part is not None  # by the caller
    if entry.graduate_to is None or entry.times < 2:
        unit = Unit(entry.part, path)
        for _ in range(entry.times):
            yield unit
        return
    for i in range(entry.times):
        yield Unit(entry.part.graded(entry.graduate_to, i / (entry.times - 1)), path)


def _spread(entry: Entry, path: str) -> Iterator[Unit]:
    large, small = entry.group
    assert large.part is not None  # checked when the entry was made
    assert small.part is not None
    for i, fillers in enumerate(laid_evenly(entry.times, entry.fillers)):
        for _ in range(fillers):
            yield Unit(small.part, f"{path}.group.1")
        if i < entry.times:
            yield Unit(large.part, f"{path}.group.0")
