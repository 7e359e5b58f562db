"""The make-up as a maker writes it down: entries, groups, repeats, a focal, a mirror.

What may follow what: any part may follow any other. Neighbours that are strung share one wire,
links hang in each other's loops, a drop hangs from the place at which it stands. An empty sequence
is the neutral element. Two ends of which neither opens can't be joined, and the plan says so.
"""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Annotated, Any, ClassVar, Literal

from pydantic import Field, SerializeAsAny, field_validator, model_validator

import jamreel.core.interlace  # noqa: F401  (its bodies register as parts)
from jamreel.core.bench.steps import Step
from jamreel.core.choices import Asking, choice
from jamreel.core.closures import AnyClosure, usual_closure
from jamreel.core.cutting.cuts import Cut
from jamreel.core.errors import Refusal
from jamreel.core.forming.chosen import Wire
from jamreel.core.makeup.layout import laid_evenly
from jamreel.core.parts import AnyPart, Part
from jamreel.core.parts.so_far import SoFar
from jamreel.core.values import Frozen, Length, OptionalCount, OptionalLength, refused
from jamreel.core.wire.gauges import OptionalSize
from jamreel.core.words import say

MOST_TIMES, MOST_UNITS, DEEPEST = 400, 1200, 4
# Each kind of part is made, drawn and told by itself: this many take a plan a second.
MOST_KINDS = 100
# Names of what is no entry, so that no entry may have them.
FOCAL, HUNG, RINGS, STRING, CLOSURE = "focal", "hung", "rings", "string", "closure"
RESERVED = frozenset({FOCAL, HUNG, RINGS, STRING, CLOSURE, "coil", "piece"})


class Entry(Frozen):
    """A part, or a group of entries, so many times.

    ``id`` is its name for good: kept when it is moved, grouped or turned, new when it is doubled.
    ``graduate_to`` lets a bead grow or shrink over the repeats. ``fill`` marks what the solver may
    count anew. A group laid out ``evenly`` has two parts: the first ``times`` times, and the second
    in the gaps before, between and behind, ``fillers`` of them in all. ``made_of`` names a wire of
    the maker's own in the palette. ``so_far`` is what of it is made already: the rest is planned
    from there.
    """

    id: str = Field(default="", pattern=r"^[a-z0-9]{0,16}$")
    part: SerializeAsAny[AnyPart] | None = None
    group: tuple["Entry", ...] = Field(default=(), max_length=40)
    times: Annotated[int, Field(ge=0, le=MOST_TIMES)] = 1
    graduate_to: OptionalLength = None
    fill: bool = False
    evenly: bool = False
    fillers: Annotated[int, Field(ge=0, le=MOST_TIMES)] = 0
    made_of: str = Field(default="", max_length=30)
    so_far: SoFar | None = None

    @model_validator(mode="after")
    def _one_of_both(self) -> "Entry":
        if (self.part is None) == (not self.group):
            raise refused(Refusal("entry_empty", got=None, under="part"))
        if self.evenly and [e.part is None for e in self.group] != [False, False]:
            raise refused(Refusal("evenly_two", got=len(self.group), under="group"))
        if self.id in RESERVED:
            raise refused(Refusal("entry_name", got=self.id, under="id"))
        return self

    @property
    def says(self) -> str:
        """What it is called: its part, or what its group holds."""
        if self.part is not None:
            return self.part.says
        names = (
            say("part.so_many", count=one.times, name=one.says) if one.times > 1 else one.says
            for one in self.group
        )
        return say("part.grouped", names=", ".join(names))

    @property
    def countable(self) -> bool:
        """Whether it can be counted on the way: rows, or parts and groups one by one."""
        if self.evenly or self.graduate_to is not None:
            return False
        if self.part is None:
            return True
        lying = self.part.role != "drop" and len(self.part.unfolded()) == 1
        return lying and self.part.counted_in in (None, "rows")

    @property
    def done(self) -> int:
        """How many of it are made already."""
        return self.so_far.count if self.so_far is not None else 0


Entries = tuple[Entry, ...]


def named(entries: Entries, prefix: str) -> Entries:
    """Return entries with a name for each that has none: the first free number after a prefix.

    Args:
        entries: as read.
        prefix: of the list that they stand in, so that two lists of a piece share no name.

    Source: plain counting; the same entries always get the same names.
    """
    taken = set(names_of(entries))
    fresh = (name for n in range(1, 10_000) if (name := f"{prefix}{n}") not in taken)

    def walk(rows: Entries) -> Entries:
        return tuple(
            row.model_copy(update={"id": row.id or next(fresh), "group": walk(row.group)})
            for row in rows
        )

    return walk(entries) if "" in taken else entries


def names_of(entries: Entries) -> Iterator[str]:
    """Yield the name of every entry, groups before what they hold."""
    for entry in entries:
        yield entry.id
        yield from names_of(entry.group)


@dataclass(frozen=True)
class Unit:
    """One part at its place in the sequence.

    ``entry`` names the entry it comes from and ``top`` the outermost one that holds it, ``size``
    tells graduated ones apart; ``path`` is the field, for errors. As made it is so many times as
    long (``stretch``) as its sum says.
    """

    part: Part
    entry: str
    top: str
    path: str
    size: str = ""
    made_of: str = ""
    turned: bool = False
    stretch: float = 1.0

    @property
    def key(self) -> str:
        """The name of what is made alike: the entry, and the size of a graduated one."""
        return f"{self.entry}~{self.size}" if self.size else self.entry


def alone(part: Part, name: str) -> Unit:
    """Return a part that stands in no list, under a name that no entry has."""
    return Unit(part, name, name, name)


class MakeUp(Asking):
    """A sequence with its closure, and the string that runs through what has holes.

    ``mirrored`` lays the entries out, then the focal, then the entries the other way round;
    ``hung`` hangs from the middle. ``counted`` lets the plan count the entries to the length, as it
    does for entries that nobody has set. ``rings`` are added at the back to reach the length, as
    many as it takes where nobody says how many. The string ends in wrapped loops, or plain ones
    where it is stiff, or goes ``through`` the closure and back into the parts.
    """

    # The lists of entries that the piece has; the first is its own line.
    lines: ClassVar[tuple[str, ...]] = ("entries",)

    entries: Entries = Field(default=(), max_length=60)
    focal: SerializeAsAny[AnyPart] | None = None
    hung: SerializeAsAny[AnyPart] | None = None
    mirrored: bool = False
    counted: bool | None = None
    closure: SerializeAsAny[AnyClosure] = Field(default_factory=usual_closure)
    rings: OptionalCount = choice(None, 0, 12)
    ring_pin: Length = choice(3.5, 2, 12)
    string: OptionalSize = None
    string_ends: Literal["wrapped", "plain", "through"] = "wrapped"
    string_pin: Length = choice(2.5, 1, 12)
    string_wraps: int = choice(3, 1, 8)
    string_tail: Length = choice(20.0, 0, 150)
    passes: Literal[1, 2, 3] = 1

    @field_validator("entries")
    @classmethod
    def _named(cls, entries: Entries) -> Entries:
        return named(entries, "e")

    @model_validator(mode="after")
    def _hung_hangs(self) -> "MakeUp":
        if self.hung is not None and self.hung.role != "drop":
            raise refused(Refusal("hung_drop", got=self.hung.kind, under="hung"))
        seen: set[str] = set()
        for line in self.lines:
            for name in names_of(getattr(self, line)):
                if name in seen:
                    raise refused(Refusal("entry_twice", got=name, under=line))
                seen.add(name)
        return self

    @model_validator(mode="before")
    @classmethod
    def _counts(cls, typed: Any) -> Any:
        """Say whether the plan counts the entries where nobody said it: while nobody set them."""
        if not isinstance(typed, Mapping) or typed.get("counted") is not None:
            return typed
        if cls.model_fields["counted"].default is not None:
            return {name: one for name, one in typed.items() if name != "counted"}
        return {**typed, "counted": "entries" not in typed}

    def units(self) -> tuple[Unit, ...]:
        """Return the sequence from left to right, one unit a part.

        Raises:
            Refusal: more parts than a piece can have, or groups nested too deep.
        """
        focal = self.focal.unfolded() if self.focal else ()
        middle = [
            replace(alone(part, FOCAL), size=str(i) if len(focal) > 1 else "")
            for i, part in enumerate(focal)
        ]
        # Without a mirror the middle is wherever the finished piece has it: compose lays it there.
        if self.hung and self.mirrored:
            middle.append(alone(self.hung, HUNG))
        return laid_out(self.entries, middle, self.mirrored)

    def beside(self) -> tuple[Unit, ...]:
        """Return parts that are made for the piece and lie outside its line."""
        return tuple(unit for line in self.lines[1:] for unit in self.line(line))

    def counted_off(self, core: Cut, wire: Wire) -> Step | None:
        """Return how what runs through all is counted off a coil, None where it is cut by length.

        Args:
            core: its cut.
            wire: that it is of.
        """
        return None

    def line(self, name: str) -> tuple[Unit, ...]:
        """Return one of the lists of the piece as units. Raises Refusal like ``units``."""
        return self.units() if name == self.lines[0] else laid_out(getattr(self, name), root=name)


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
    count = _count(entries, root, 0) * (1 + mirrored) + len(middle)
    if count > MOST_UNITS:
        raise Refusal("too_many_parts", got=count, field=f"piece.{root}", most=MOST_UNITS)
    half = tuple(_expanded(entries, root, ""))
    mirrored = mirrored and not (len(half) == 1 and not middle and half[0].part.counted_in)
    once = {id(unit): unit for unit in half}
    turned = {at: replace(unit, turned=not unit.turned) for at, unit in once.items() if mirrored}
    every = (*half, *middle, *(turned[id(unit)] for unit in reversed(half) if mirrored))
    kinds = len({unit.key for unit in (*once.values(), *middle)})
    if kinds > MOST_KINDS:
        raise Refusal("too_many_kinds", got=kinds, field=f"piece.{root}", most=MOST_KINDS)
    return every


def _count(entries: Entries, path: str, depth: int) -> int:
    """Return how many parts entries come to, counted without laying any of them out.

    Raises:
        Refusal: groups nested too deep.
    """
    if depth > DEEPEST:
        raise Refusal("too_deep", got=depth, field=f"piece.{path}", most=DEEPEST)
    return sum(_count_of(entry, f"{path}.{i}.group", depth) for i, entry in enumerate(entries))


def _count_of(entry: Entry, path: str, depth: int) -> int:
    if entry.part is not None:
        return entry.times * len(entry.part.unfolded()) if entry.times else 0
    if entry.evenly:
        # Both are parts: so much is checked when they are read.
        large, small = (len(one.part.unfolded()) for one in entry.group if one.part is not None)
        return entry.times * large + entry.fillers * small
    inner = _count(entry.group, path, depth + 1)
    return entry.times * inner


def _expanded(entries: Entries, path: str, top: str) -> Iterator[Unit]:
    for i, entry in enumerate(entries):
        here, above = f"{path}.{i}", top or entry.id
        if not entry.times and not entry.evenly:
            continue
        if entry.part is not None:
            yield from _repeated(entry, here, above)
        elif entry.evenly:
            yield from _spread(entry, here, above)
        else:
            once = tuple(_expanded(entry.group, f"{here}.group", above))
            for _ in range(entry.times):
                yield from once


def _units(entry: Entry, path: str, top: str) -> tuple[Unit, ...]:
    """Return an entry once: its part, or what its part unfolds into, each under a size of its
    own."""
    assert entry.part is not None  # by the caller
    parts = entry.part.unfolded()
    if entry.so_far is not None:
        parts = tuple(part.going_on(entry.so_far) for part in parts)
    return tuple(
        Unit(part, entry.id, top, path, str(i) if len(parts) > 1 else "", entry.made_of)
        for i, part in enumerate(parts)
    )


def _repeated(entry: Entry, path: str, top: str) -> Iterator[Unit]:
    once = _units(entry, path, top)
    if entry.graduate_to is None or entry.times < 2 or len(once) > 1:
        for _ in range(entry.times):
            yield from once
        return
    for i in range(entry.times):
        part = once[0].part.graded(entry.graduate_to, i / (entry.times - 1))
        yield replace(once[0], part=part, size=part.graded_size)


def _spread(entry: Entry, path: str, top: str) -> Iterator[Unit]:
    large, small = (_units(e, f"{path}.group.{i}", top) for i, e in enumerate(entry.group))
    for i, fillers in enumerate(laid_evenly(entry.times, entry.fillers)):
        for _ in range(fillers):
            yield from small
        if i < entry.times:
            yield from large
