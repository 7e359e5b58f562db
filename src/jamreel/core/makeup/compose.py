"""A make-up laid out: where every part lies, what runs through it, and how long it comes to."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from functools import cached_property
from itertools import pairwise

from jamreel.core.closures.base import Fastened
from jamreel.core.errors import Refusal
from jamreel.core.fit.thickness import Segment
from jamreel.core.forming.chosen import Wire
from jamreel.core.makeup.sequence import MakeUp, Unit
from jamreel.core.parts.base import End, Made, Part, Stretches, WireUse, pulls_at
from jamreel.core.parts.ends import loop_end, loop_picture, reach
from jamreel.core.parts.jump_ring import JumpRing
from jamreel.core.path.moves import Straight


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
class Run:
    """A stretch of strung parts on one wire, with its loops: where it starts, what it strings."""

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
    string: Wire
    string_end: Made
    joints: tuple[Joint, ...]
    body: float
    _segments: dict[float, float] = field(repr=False)

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
    def segments(self) -> list[Segment]:
        """Length at each thickness, closure included."""
        return [Segment(length=n, thickness=t) for t, n in self._segments.items() if n > 0]

    @property
    def brittle(self) -> bool:
        """Whether anything in it breaks at a knock."""
        return any(p.made.brittle for p in self.parts)


class Maker:
    """Makes parts once and hands them out again; a piece has few kinds and many repeats."""

    def __init__(self, wire: Wire) -> None:
        self._wire = wire
        # The part is kept beside what was made of it, so that its id stays its own.
        self._known: dict[int, tuple[Part, Made, str, bool]] = {}

    def lay(self, unit: Unit, at: float, length: float | None = None) -> Lying:
        """Return a unit at its place; as long as it is made where no length is given."""
        known = self._known.get(id(unit.part))
        if known is None:
            made = self._make(unit)
            known = (unit.part, made, unit.part.says, unit.part.role == "drop")
            self._known[id(unit.part)] = known
        _, made, name, drop = known
        return Lying(unit, made, name, drop, at, made.length if length is None else length)

    def _make(self, unit: Unit) -> Made:
        try:
            return unit.part.make(self._wire)
        except Refusal as refusal:
            place = f"piece.{unit.path}"
            under = place if unit.path in ("focal", "hung") else f"{place}.part"
            raise refusal.at(f"{under}.{refusal.field}") from None


def compose(
    makeup: MakeUp, wire: Wire, maker: Maker | None = None, units: Sequence[Unit] | None = None
) -> Composition:
    """Return a make-up laid out along x from the receiving half's bearing point.

    Args:
        makeup: sequence, closure and string.
        wire: that parts without one of their own are made of.
        maker: keeps parts that were made before; a new one when None.
        units: the sequence when it is not the make-up's own.

    Raises:
        Refusal: at the field of the part that can't be made.
    """
    maker = maker or Maker(wire)
    string = wire.of_size(makeup.string)
    try:
        fastened = makeup.closure.make(wire)
    except Refusal as refusal:
        raise refusal.at(f"piece.closure.{refusal.field}") from None
    every = with_rings(makeup, makeup.units() if units is None else units)
    reaches = reach("wrapped", string, makeup.string_pin, makeup.string_wraps)
    parts: list[Lying] = []
    runs: list[Run] = []
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
    end = string_end(makeup, string, reaches)
    beside = [maker.lay(unit, 0.0) for unit in makeup.beside()]
    return Composition(
        tuple(parts),
        tuple(beside),
        tuple(runs),
        fastened,
        string,
        end,
        tuple(_joints(makeup, parts, runs, fastened, end)),
        at - fastened.receiving.length,
        _by_thickness(parts, runs, fastened, end),
    )


def with_rings(makeup: MakeUp, units: Sequence[Unit]) -> tuple[Unit, ...]:
    """Return a sequence with the rings added at the back, both ends in turn."""
    ring = Unit(JumpRing(pin=makeup.ring_pin), "rings")
    left = (makeup.rings + 1) // 2
    return (*[ring] * left, *units, *[ring] * (makeup.rings - left))


def string_end(makeup: MakeUp, string: Wire, reaches: float) -> Made:
    """Return one end of the string: a wrapped loop.

    Args:
        makeup: gives the loop.
        string: the stringing wire.
        reaches: from the last bead to the bearing point [mm].
    """
    end = End(makeup.string_pin, string.d, True, "any")
    return Made(
        length=reaches,
        thickness=3 * string.d,
        width=makeup.string_pin + 2 * string.d,
        ends=(end, end),
        holds=(pulls_at("string", string),),
        strokes=tuple(loop_picture("wrapped", string, makeup.string_pin, makeup.string_wraps)),
    )


def string_use(makeup: MakeUp, run: Run, string: Wire) -> WireUse:
    """Return the wire of a strung run, tails and wrapped loops at both ends; the body is as long
    as what it strings, once for each pass."""

    def end(side: str) -> Stretches:
        pin, wraps, tail = makeup.string_pin, makeup.string_wraps, makeup.string_tail
        return loop_end("wrapped", string, pin, wraps, tail, side)

    body = (Straight(length=run.strung * makeup.passes),)
    return WireUse("string_run", string, (*end("left"), ("body", body), *end("right")))


def _stretches(units: Sequence[Unit]) -> Iterator[tuple[bool, list[Unit]]]:
    """Yield runs of strung units whole, everything else one by one.

    A drop beside a strung part hangs on its string.
    """
    i = 0
    while i < len(units):
        j = i
        while j < len(units) and units[j].part.role in ("strung", "drop"):
            j += 1
        if any(u.part.role == "strung" for u in units[i:j]):
            yield True, list(units[i:j])
            i = j
        else:
            yield False, [units[i]]
            i += 1


def _strung(units: Sequence[Unit], maker: Maker, at: float, reaches: float) -> Run:
    start, x = at, at + reaches
    parts = []
    for unit in units:
        part = maker.lay(unit, x)
        if part.drop and part.made.ends:
            # A drop's loop takes its own wire's thickness of the string.
            part = maker.lay(unit, x, part.made.ends[0].wire)
        parts.append(part)
        x += part.length
    return Run(start, x - start - reaches, reaches, tuple(parts))


def _joints(
    makeup: MakeUp, parts: list[Lying], runs: list[Run], fastened: Fastened, end: Made
) -> Iterator[Joint]:
    """Yield the places where one thing hangs in another, each kind once, from left to right."""
    ends = end.ends
    assert ends is not None  # a string ends in loops
    row: list[tuple[str, tuple[End, End], str]] = []
    if fastened.receiving.ends:
        row.append((makeup.closure.says, fastened.receiving.ends, "closure"))
    in_run = {id(p): run for run in runs for p in run.parts}
    last: Run | None = None
    for part in parts:
        run = in_run.get(id(part))
        if run is not None:
            if run is not last:
                row.append((part.name, ends, part.unit.path))
            last = run
        elif not part.drop and part.made.ends:
            a, b = part.made.ends
            row.append((part.name, (b, a) if part.unit.turned else (a, b), part.unit.path))
    if fastened.holding.ends:
        row.append((makeup.closure.says, fastened.holding.ends, "closure"))
    seen: set[tuple[str, End, str, End]] = set()
    for (left, one, path), (right, two, _) in pairwise(row):
        alike = (left, one[1], right, two[0])
        if alike not in seen:
            seen.add(alike)
            yield Joint(left, right, one[1], two[0], path)


def _by_thickness(
    parts: list[Lying], runs: list[Run], fastened: Fastened, end: Made
) -> dict[float, float]:
    found: dict[float, float] = {}
    rows = [(p.made.thickness if not p.drop else end.thickness, p.length) for p in parts]
    rows += [(end.thickness, 2 * run.reach) for run in runs]
    rows += [(half.thickness, half.length) for half in (fastened.receiving, fastened.holding)]
    for thickness, length in rows:
        found[thickness] = found.get(thickness, 0.0) + length
    return found
