"""A make-up laid out: where every part lies, what runs through it, and how long it comes to."""

import hashlib
from collections import Counter
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property, lru_cache
from itertools import pairwise

from jamreel.core.choices import Asking
from jamreel.core.closures.base import Closure, Fastened
from jamreel.core.errors import Refusal
from jamreel.core.fit.thickness import Lies, Segment
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.palette import Palette
from jamreel.core.forming.tight import refuse_breaking
from jamreel.core.makeup.beside import as_hung, over_ends
from jamreel.core.makeup.sequence import CLOSURE, HUNG, RINGS, STRING, MakeUp, Unit, alone, laid_out
from jamreel.core.parts import lengthening
from jamreel.core.parts.base import End, Made, Part, Stretches, WireUse, pulls_at
from jamreel.core.parts.drawn import drawn, laid
from jamreel.core.parts.ends import Loop, LoopKind
from jamreel.core.path.moves import Straight
from jamreel.core.words import voice

# The wire that runs through what has holes.
STRING_RUN = "string_run"


@dataclass(frozen=True)
class Lying:
    """A part at its place along the piece [mm], with what it is called.

    A ``drop`` hangs instead of lying in the line.
    """

    unit: Unit
    made: Made
    name: str
    drop: bool
    at: float
    length: float


@dataclass(frozen=True)
class Kind:
    """What is made alike of a piece: its name for good, what it comes to, how often it is made,
    what it is called, of which sort it is, and the outermost entry that holds it."""

    key: str
    made: Made
    times: int
    name: str
    sort: str
    top: str


@dataclass(frozen=True)
class Run:
    """A stretch of strung parts on one wire, with its loops: its name, where it starts, what it
    strings."""

    key: str
    at: float
    strung: float
    reach: float
    parts: tuple[Lying, ...]

    @property
    def length(self) -> float:
        """From bearing point to bearing point [mm]."""
        return self.strung + 2 * self.reach


@dataclass(frozen=True)
class Joint:
    """Two neighbours that hang in each other, by name."""

    left: str
    right: str
    left_end: End
    right_end: End
    path: str


@dataclass(frozen=True)
class Composition:
    """A piece laid out, lengths in mm."""

    parts: tuple[Lying, ...]
    beside: tuple[Lying, ...]
    runs: tuple[Run, ...]
    fastened: Fastened
    closure_name: str
    string: Wire
    passes: int
    string_end: Made
    body: float
    segments: tuple[Segment, ...] = field(repr=False)

    @property
    def finished(self) -> float:
        """From the bearing point of one closure half to that of the other [mm]."""
        return self.body + self.fastened.length

    @property
    def beside_length(self) -> float:
        """Length of what lies outside the line [mm]."""
        return sum(p.length for p in self.beside if not p.drop)

    @property
    def body_at(self) -> float:
        """Where the body starts, behind the receiving half [mm]."""
        return self.fastened.receiving.length

    @cached_property
    def kinds(self) -> tuple[Kind, ...]:
        """What is made of it, closure halves first, each kind once."""
        found = [
            Kind(CLOSURE, half, 1, self.closure_name, CLOSURE, CLOSURE)
            for half in (self.fastened.receiving, self.fastened.holding)
        ]
        every = (*self.parts, *self.beside)
        times = Counter(part.unit.key for part in every)
        firsts = {part.unit.key: part for part in reversed(every)}
        # In the order in which they lie.
        for key in dict.fromkeys(part.unit.key for part in every):
            part = firsts[key]
            kind, top = part.unit.part.kind, part.unit.top
            found.append(Kind(key, part.made, times[key], part.name, kind, top))
        return tuple(found)

    @cached_property
    def joints(self) -> tuple[Joint, ...]:
        """The places where one thing hangs in another, each kind once, from left to right."""
        return tuple(_joints(self))

    @property
    def stuffs(self) -> frozenset[str]:
        """What its beads are made of."""
        once = {id(one.unit.part): one.unit.part for one in (*self.parts, *self.beside)}
        return frozenset(stuff for part in once.values() for stuff in part.stuffs)

    @property
    def brittle(self) -> bool:
        """Whether anything in it breaks at a knock."""
        return any(p.made.brittle for p in self.parts)


class Maker:
    """Makes parts once and hands them out again; a piece has few kinds and many repeats."""

    def __init__(self, wires: Palette) -> None:
        self._wires = wires
        self._known: dict[tuple[str, float], tuple[Part, Made, str, bool]] = {}
        self._others: dict[tuple[str, Part, float], tuple[Part, Made, str, bool]] = {}

    def lay(self, unit: Unit, at: float, length: float | None = None) -> Lying:
        """Return a unit at its place; as long as it is made where no length is given."""
        place = (unit.key, unit.stretch)
        known = self._known.get(place)
        if known is None or known[0] is not unit.part:
            known = self._known[place] = self._another(unit)
        _, made, name, drop = known
        return Lying(unit, made, name, drop, at, made.length if length is None else length)

    def made(self, unit: Unit) -> Made:
        """Return what a unit comes to."""
        return self.lay(unit, 0.0).made

    def _another(self, unit: Unit) -> tuple[Part, Made, str, bool]:
        """Return an entry's part as it is now: while a fit is sought it changes back and forth."""
        wanted = (unit.made_of, unit.part, unit.stretch)
        found = self._others.get(wanted)
        if found is None:
            drop = unit.part.role == "drop"
            found = self._others[wanted] = (unit.part, self._make(unit), unit.part.says, drop)
        return (unit.part, *found[1:])

    def _make(self, unit: Unit) -> Made:
        place = f"piece.{unit.path}"
        try:
            wires = self._wires.made_of(unit.made_of)
        except Refusal as refusal:
            raise refusal.at(f"{place}.{refusal.field}") from None
        try:
            made = _made(unit.part, wires, voice())
        except Refusal as refusal:
            of_entry = unit.path == unit.entry or refusal.field.startswith("so_far")
            under = place if of_entry else f"{place}.part"
            raise refusal.at(f"{under}.{refusal.field}") from None
        if unit.stretch != 1.0:
            made = made.but(length=made.length * unit.stretch)
        return in_its_metal(made, self._wires.body)


# A keystroke changes one part; the others are made as they were.
@lru_cache(maxsize=1024)
def _made(part: Part, wires: Palette, voice: tuple[str, str]) -> Made:
    """Return a part as made; ``voice`` is what its steps are said in."""
    made = part.make(wires)
    _sound(part, made)
    return made


def _sound(part: Asking, made: Made) -> None:
    """Refuse what would snap while it is made."""
    for use in made.wires:
        refuse_breaking(part, use.wire, (move for _, moves in use.stretches for move in moves))


def in_its_metal(made: Made, body: Wire) -> Made:
    """Return a part with its wire drawn in its own metal, where that is not the body's."""
    colours = {use.wire.metal.colour for use in made.wires}
    if len(colours) != 1 or colours == {body.metal.colour}:
        return made
    tone = colours.pop()
    strokes = tuple(s if s.tone else s.model_copy(update={"tone": tone}) for s in made.strokes)
    return replace(made, strokes=strokes)


def compose(
    makeup: MakeUp, wires: Palette, maker: Maker | None = None, units: Sequence[Unit] | None = None
) -> Composition:
    """Return a make-up laid out along x from the receiving half's bearing point.

    Args:
        makeup: sequence, closure and string.
        wires: that parts are made of, by what they are for.
        maker: keeps parts that were made before; a new one when None.
        units: the sequence when it is not the make-up's own.

    Raises:
        Refusal: at the field of the part that can't be made.
    """
    maker = maker or Maker(wires)
    string = wires.of(STRING, makeup.string)
    if makeup.string_ends == "through" and not makeup.closure.strung_through:
        got = makeup.closure.says
        raise Refusal("string_no_way", got=got, field="piece.string_ends")
    end = string_end(makeup, string)
    reaches = end.length
    parts: list[Lying] = []
    runs: list[Run] = []
    units = makeup.units() if units is None else units
    every = as_hung(makeup, with_rings(makeup, _as_made(makeup, units, maker)), maker.made)
    fastened = _fastened(over_ends(makeup.closure, every, maker.made), wires)
    at = fastened.receiving.length
    for strung, members in _stretches(every):
        if strung:
            run = _strung(members, maker, at, reaches)
            runs.append(run)
            parts += run.parts
            at += run.length
        else:
            part = maker.lay(members[0], at)
            parts.append(part)
            at += part.length
    body = at - fastened.receiving.length
    middle = fastened.receiving.length + body / 2
    if makeup.hung and not makeup.mirrored:
        parts.append(maker.lay(alone(makeup.hung, HUNG), middle))
    # What hangs from the middle hangs in its middle, not behind what lies there.
    centred = {id(p): replace(p, at=middle) for p in parts if p.unit.top == HUNG}
    parts = [centred.get(id(p), p) for p in parts]
    if centred:
        runs = [replace(run, parts=tuple(centred.get(id(p), p) for p in run.parts)) for run in runs]
    return Composition(
        parts=tuple(parts),
        beside=tuple(maker.lay(unit, 0.0) for unit in makeup.beside()),
        runs=_told_apart(runs),
        fastened=fastened,
        closure_name=makeup.closure.says,
        string=string,
        passes=makeup.passes,
        string_end=end,
        body=body,
        segments=_round_a_body(parts, runs, fastened, end),
    )


def _as_made(makeup: MakeUp, units: Sequence[Unit], maker: Maker) -> Sequence[Unit]:
    """Return units as long as those of their entry that are made already; what is woven goes by its
    rows itself."""
    stretch = {}
    for entry in makeup.entries:
        rows = entry.part is not None and entry.part.counted_in is not None
        if entry.so_far is None or rows:
            continue
        once = laid_out((entry.model_copy(update={"times": 1}),))
        planned = sum(part.length for unit in once if not (part := maker.lay(unit, 0.0)).drop)
        stretch[entry.id] = entry.so_far.each / planned if planned > 0 else 1.0
    if not stretch:
        return units
    return [replace(one, stretch=stretch.get(one.top, 1.0)) for one in units]


def _fastened(closure: Closure, wires: Palette) -> Fastened:
    try:
        return _closure_made(closure, wires, voice())
    except Refusal as refusal:
        raise refusal.at(f"piece.closure.{refusal.field}") from None


@lru_cache(maxsize=256)
def _closure_made(closure: Closure, wires: Palette, voice: tuple[str, str]) -> Fastened:
    made = closure.make(wires)
    for half in (made.receiving, made.holding):
        _sound(closure, half)
    receiving, holding = (in_its_metal(h, wires.body) for h in (made.receiving, made.holding))
    return replace(made, receiving=receiving, holding=holding)


def _told_apart(runs: Sequence[Run]) -> tuple[Run, ...]:
    """Return runs with names that differ where they string different things.

    A run goes by its oldest entry. Where that one has several unlike runs, each is also known by
    all that it strings.
    """
    unlike: dict[str, set[str]] = {}
    strings = [_strings(run) for run in runs]
    for run, what in zip(runs, strings, strict=True):
        unlike.setdefault(run.key, set()).add(what)
    return tuple(
        run if len(unlike[run.key]) == 1 else replace(run, key=f"{run.key}~{what}")
        for run, what in zip(runs, strings, strict=True)
    )


def _strings(run: Run) -> str:
    """Return a short name for what a run strings, the same from either end."""
    counted = sorted(Counter(part.unit.key for part in run.parts).items())
    return hashlib.sha1(repr(counted).encode(), usedforsecurity=False).hexdigest()[:6]


def with_rings(makeup: MakeUp, units: Sequence[Unit]) -> tuple[Unit, ...]:
    """Return a sequence with the rings added at the back, both ends in turn."""
    if not makeup.rings:
        return tuple(units)
    ring = replace(alone(lengthening(makeup.ring_pin), RINGS), path="ring_pin")
    left = (makeup.rings + 1) // 2
    return (*[ring] * left, *units, *[ring] * (makeup.rings - left))


def _string_loop(makeup: MakeUp, string: Wire) -> Loop:
    """Return the loop that a string ends in."""
    kind: LoopKind = "plain" if makeup.string_ends == "plain" else "wrapped"
    return Loop(kind, string, makeup.string_pin, makeup.string_wraps, makeup.string_tail)


def string_end(makeup: MakeUp, string: Wire) -> Made:
    """Return one end of the string: a loop, or wire that goes on through the closure.

    Args:
        makeup: gives the loop.
        string: the stringing wire.
    """
    if makeup.string_ends == "through":
        return Made(
            length=0.0, thickness=string.d, width=string.d, holds=(pulls_at("string", string),)
        )
    return _looped_end(_string_loop(makeup, string), string)


@lru_cache(maxsize=64)
def _looped_end(loop: Loop, string: Wire) -> Made:
    end = End(loop.pin, string.d)
    stretches = (*loop.stretches("left"), ("body", (Straight(length=0.0),)))
    use = laid(WireUse(STRING_RUN, string, stretches), left=0.0)
    return Made(
        length=loop.reach,
        thickness=loop.thickness,
        width=loop.pin + 2 * string.d,
        ends=(end, end),
        holds=(loop.hold, pulls_at("string", string)),
        strokes=drawn(use),
    )


def string_use(makeup: MakeUp, run: Run, composition: Composition) -> WireUse:
    """Return the wire of a strung run; the body is as long as what it strings, once for each pass.

    Wrapped loops have their tails; what goes through the closure takes its length, and a tail at
    each end goes back into the parts.
    """
    body = ("body", (Straight(length=run.strung * makeup.passes),))
    if makeup.string_ends == "through":
        return WireUse(STRING_RUN, composition.string, _through(makeup, run, composition, body))

    loop = _string_loop(makeup, composition.string)
    stretches = (*loop.stretches("left"), body, *loop.stretches("right"))
    return WireUse(STRING_RUN, composition.string, stretches)


def _through(
    makeup: MakeUp, run: Run, composition: Composition, body: tuple[str, tuple[Straight, ...]]
) -> Stretches:
    fastened, tail = composition.fastened, makeup.string_tail
    last = composition.body_at + composition.body
    closure = fastened.receiving.length * (
        abs(run.at - composition.body_at) < 1e-6
    ) + fastened.holding.length * (abs(run.at + run.length - last) < 1e-6)
    rows = (("tail_left", tail), body, ("closure", closure), ("tail_right", tail))
    return tuple(
        (key, what if isinstance(what, tuple) else (Straight(length=what),))
        for key, what in rows
        if what
    )


def _stretches(units: Sequence[Unit]) -> Iterator[tuple[bool, list[Unit]]]:
    """Yield runs of strung units whole, everything else one by one.

    A drop beside a strung part hangs on its string, but one that hangs from the middle hangs in a
    ring that stands there.
    """
    i = 0
    while i < len(units):
        j = i
        if units[i].top == HUNG and i and units[i - 1].part.role == "link":
            yield False, [units[i]]
            i += 1
            continue
        while j < len(units) and units[j].part.role in ("strung", "drop"):
            j += 1
        run = list(units[i:j])
        if any(u.part.role == "strung" for u in run):
            yield True, run
        else:
            # Drops with no string among them, or one part that is neither.
            yield from ((False, [unit]) for unit in run or [units[i]])
        i = max(j, i + 1)


def _strung(units: Sequence[Unit], maker: Maker, at: float, reaches: float) -> Run:
    start, x = at, at + reaches
    # The oldest of its entries: short names were given first.
    key = min((u.entry for u in units if u.part.role == "strung"), key=lambda e: (len(e), e))
    parts = []
    for unit in units:
        part = maker.lay(unit, x)
        if part.drop and part.made.ends:
            # A drop's loop takes its own wire's thickness of the string.
            part = maker.lay(unit, x, part.made.ends[0].wire)
        parts.append(part)
        x += part.length
    return Run(key, start, x - start - reaches, reaches, tuple(parts))


def _joints(piece: Composition) -> Iterator[Joint]:
    ends, fastened, closure = piece.string_end.ends, piece.fastened, piece.closure_name
    row: list[tuple[str, tuple[End, End], str] | None] = []
    if fastened.receiving.ends:
        row.append((closure, fastened.receiving.ends, "closure"))
    in_run = {id(p): run for run in piece.runs for p in run.parts}
    last: Run | None = None
    for part in piece.parts:
        run = in_run.get(id(part))
        if run is not None:
            # A string that goes through what is next to it hangs in nothing.
            if run is not last:
                row.append((part.name, ends, part.unit.path) if ends else None)
            last = run
        elif not part.drop and part.made.ends:
            a, b = part.made.ends
            row.append((part.name, (b, a) if part.unit.turned else (a, b), part.unit.path))
    if fastened.holding.ends:
        row.append((closure, fastened.holding.ends, "closure"))
    seen: set[tuple[str, End, str, End]] = set()
    for before, after in pairwise(row):
        if before is None or after is None:
            continue
        (left, one, path), (right, two, _) = before, after
        alike = (left, one[1], right, two[0])
        if alike not in seen:
            seen.add(alike)
            yield Joint(left, right, one[1], two[0], path)


def _round_a_body(
    parts: list[Lying], runs: list[Run], fastened: Fastened, end: Made
) -> tuple[Segment, ...]:
    """Return what lies round a body, closure included, alike things together."""
    found: Counter[tuple[float, float, Lies]] = Counter()
    for part in parts:
        made = part.made
        if part.drop:
            # Its loop hangs on the string, which bends.
            found[part.length, end.thickness, "bends"] += 1
        else:
            found[part.length / made.pieces, made.thickness, made.lies] += made.pieces
    for run in runs:
        found[run.reach, end.thickness, end.lies] += 2
    for half in (fastened.receiving, fastened.holding):
        found[half.length / half.pieces, half.thickness, half.lies] += half.pieces
    return tuple(
        Segment(length=length, thickness=thickness, lies=lies, count=count)
        for (length, thickness, lies), count in found.items()
        if length > 0
    )
