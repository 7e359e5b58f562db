"""What every part declares, and what it answers: lengths, wire, steps, picture.

A part has one of three roles. A ``link`` has a loop at each end and hangs in its neighbours'
loops; what is ``strung`` has a hole and shares one wire with its neighbours; a ``drop`` has one
loop and hangs from the joint at which it stands, taking no length of its own there.
"""

from abc import ABC, abstractmethod
from collections.abc import Mapping
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any, ClassVar, Literal

from jamreel.core.advice import Advice
from jamreel.core.advice.joining import Row, rows_meet
from jamreel.core.bench.steps import Opening, Step, step
from jamreel.core.choices import Asking
from jamreel.core.fit.thickness import Lies
from jamreel.core.forming.band import Lengthwise
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.palette import Palette
from jamreel.core.forming.strength import opening_force, oval_force, pulling_force
from jamreel.core.parts.so_far import SoFar
from jamreel.core.path.moves import Move, developed_length
from jamreel.core.tagged_union import Kinds
from jamreel.core.units import format_length
from jamreel.core.values import Point, Stroke
from jamreel.core.words import say, voice

Role = Literal["link", "strung", "drop"]
Stretches = tuple[tuple[str, tuple[Move, ...]], ...]
# Beads are sold in half millimetres; common practice.
BEAD_STEP_MM = 0.5
PARTS: Kinds["Part"] = Kinds()


@dataclass(frozen=True)
class End:
    """What an end is joined by: a loop of some inner diameter and wire [mm], and whether it can be
    opened to be joined.

    What it hangs in takes its wire, ``strands`` of it side by side; what is ``around`` is so thick
    instead, and what goes over it has to pass its bindings, ``bound`` thicker [mm]. A row of
    ``count`` openings has their middles ``apart`` [mm]; strands of one that ``spreads`` are set as
    far apart as what they hang in. What is ``hooked_on`` is made round what is there, and can't
    begin a piece.
    """

    inner: float
    wire: float
    opens: bool = True
    strands: int = 1
    around: float = 0.0
    bound: float = 0.0
    count: int = 1
    apart: float = 0.0
    spreads: bool = False
    hooked_on: bool = False

    @property
    def span(self) -> float:
        """From the middle of its first opening to that of the last [mm]."""
        return (self.count - 1) * self.apart

    def in_row(self, count: int, apart: float) -> "End":
        """Return so many of it side by side.

        Args:
            count: of openings.
            apart: from middle to middle [mm].
        """
        return replace(self, count=count, apart=apart) if count > 1 else self

    @property
    def in_loop(self) -> tuple[float, ...]:
        """What lies of it in the loop that it hangs in, each as thick as it is [mm]."""
        return ((self.around or self.wire) + self.bound,) * self.strands


@dataclass(frozen=True)
class WireUse:
    """A wire that a part is made of, as named stretches of moves from left to right.

    What is ``off_coil`` comes off one wire however often it is made: rings and spacers are cut from
    a long coil. What is ``off_reel`` is bent at the end of a reel and then cut. In the part's
    picture the stretch ``held`` begins ``at`` a place [mm] and runs to the right, the whole turned,
    and rolled about it [rad]; what is ``wound`` has the axis of its turns to the right, bent to an
    ``arc`` of some radius [mm] where it lies on one. ``eye`` are the axes of the picture in space
    instead: right, up and towards the eye. ``shown`` are the strokes that show it where no path of
    moves does: what is coiled twice, or folded back over itself. What is ``woven`` goes over and
    under others row by row; no step bends it by itself. A ``technique`` of its own takes so much of
    it ``by_sum``, and is cut ``cut_for`` so much [mm]; of wire without one it is read off its
    moves. A string, a strand or a core ``runs`` so often all along its part, a folded one twice.
    """

    key: str
    wire: Wire
    stretches: Stretches
    quantity: int = 1
    off_coil: bool = False
    off_reel: bool = False
    held: str = "body"
    turn: float = 0.0
    roll: float = 0.0
    wound: bool = False
    arc: float = 0.0
    eye: tuple[tuple[float, float, float], ...] = ()
    shown: tuple[Stroke, ...] = ()
    at: Point = (0.0, 0.0)
    woven: bool = False
    technique: str = ""
    by_sum: float = 0.0
    cut_for: float = 0.0
    runs: int = 0


@dataclass(frozen=True)
class Size:
    """How big something bought is: a name for it that is the same on every bench, and what it says
    in the maker's unit."""

    name: str
    says: str


def size_of(*lengths: float, words: str = "{}") -> Size:
    """Return a size of one length or several [mm].

    Args:
        lengths: across, then along.
        words: what stands round the lengths, where they alone don't tell.
    """
    unit = voice()[1]
    in_mm, says = (
        words.format(" × ".join(format_length(one, as_) for one in lengths)) for as_ in ("mm", unit)
    )
    return Size(in_mm, says)


def size_in_words(says: str) -> Size:
    """Return a size that is no length."""
    return Size(says, says)


@dataclass(frozen=True)
class Bought:
    """Something not made of wire that the part takes: how many, and its size; in mm where one
    figure says it."""

    key: str
    size: Size
    quantity: int = 1
    mass_g: float = 0.0
    size_mm: float | None = None


@dataclass(frozen=True)
class Varies:
    """A number or an option that a fit may set anew: what the change is called, the field that it
    stands in, how it stands now, and the values to try."""

    key: str
    field: str
    now: int | str
    values: tuple[int | str, ...]


@dataclass(frozen=True)
class Hold:
    """A place that bears the pull: its name in the catalogue, the force it holds [N], and the wire
    that holds it, by its stock key, '' for what is bought. The wire as bought: softer wire holds
    less in proportion."""

    key: str
    newtons: float
    stock: str = ""


class Interlacing:
    """How a part is woven or bound; the floor above knows of it."""


@dataclass(frozen=True)
class Made:
    """A part as made, lengths in mm.

    ``length`` runs from bearing point to bearing point, ``thickness`` stands out from the skin,
    ``width`` lies across, ``hang`` is how far a drop reaches below its joint,
    ``hole`` what a string has to pass. Round a body it ``lies`` straight, as a bead does, or bends;
    ``pieces`` are the alike ones that turn in each other, where it is a row of them. Both ends of
    ``one_loop`` are the same one: a ring holds its neighbours and what hangs there all at once.
    ``bare`` ends that go into a cap are so wide and thick. What is ``hooked`` ends at its right in
    a hook of its own, so wide. What ``goes_last`` is put on parts that have to be there.
    ``weaving`` is how it is woven or bound, where it is; its wires that run ``lengthwise`` are bent
    to the wearer with it.
    """

    length: float
    thickness: float
    width: float
    hang: float = 0.0
    ends: tuple[End, End] | None = None
    hole: float | None = None
    wires: tuple[WireUse, ...] = ()
    bought: tuple[Bought, ...] = ()
    holds: tuple[Hold, ...] = ()
    strokes: tuple[Stroke, ...] = ()
    steps: tuple[Step, ...] = ()
    minutes: float = 0.0
    brittle: bool = False
    lies: Lies = "straight"
    pieces: int = 1
    one_loop: bool = False
    bare: tuple[float, float] | None = None
    hooked: float = 0.0
    goes_last: bool = False
    advice: tuple[Advice | None, ...] = ()
    weaving: Interlacing | None = None
    lengthwise: tuple[Lengthwise, ...] = ()

    def but(self, **changes: Any) -> "Made":
        """Return it with some of it made otherwise."""
        return replace(self, **changes)

    @cached_property
    def mass(self) -> float:
        """What it weighs, its wires without tails and what is bought for it [g]."""
        wire = sum(
            use.wire.mass(developed_length(moves, use.wire.d)) * use.quantity
            for use in self.wires
            for name, moves in use.stretches
            if not name.startswith("tail")
        )
        return wire + sum(one.mass_g * one.quantity for one in self.bought)


def ends_meet(one: str, one_end: End, other: str, other_end: End, field: str) -> Advice | None:
    """Return what to do about two ends that can't be hung in each other.

    Args:
        one: what has the one end.
        one_end: of it.
        other: what has the other.
        other_end: of it.
        field: the choice that it belongs to.
    """
    if one_end.spreads or other_end.spreads:
        return None
    return rows_meet(_row(one, one_end), _row(other, other_end), field)


def _row(name: str, end: End) -> Row:
    return Row(name, end.count, end.span, end.inner, end.wire)


class Part(Asking, ABC):
    """A part of a make-up: its own choices as fields, and what it comes to in ``make``."""

    kind: str
    # How it joins its neighbours, where its maker does not hang it.
    joins: ClassVar[Role]
    # The field that a graduation changes.
    grades: ClassVar[str | None] = None
    # The field that it is counted in, where that is not how often it stands in the sequence.
    counted_in: ClassVar[str | None] = None
    # Whether it may be added at the back to reach a length.
    lengthens: ClassVar[bool] = False

    @classmethod
    def __pydantic_init_subclass__(cls, **kwargs: Any) -> None:
        PARTS.add(cls)

    @property
    def role(self) -> Role:
        """How it joins its neighbours."""
        # A field that is not there is looked for by pydantic at length; most parts have none.
        return "drop" if self.__dict__.get("hangs", False) else self.joins

    @abstractmethod
    def make(self, wires: Palette) -> Made:
        """Return the part as made of the wires of a palette.

        Raises:
            Refusal: choices from which the part can't be made.
        """

    def varies(self) -> tuple[Varies, ...]:
        """Return what of it may be set anew to reach a length."""
        return ()

    def unfolded(self) -> tuple["Part", ...]:
        """Return it as it lies in the sequence: a list of beads on a string is its beads."""
        return (self,)

    def going_on(self, so_far: SoFar) -> "Part":
        """Return it as it goes on from what is made already; most parts are made as they are."""
        return self

    @property
    def turned_round(self) -> Literal["", "next", "middle"]:
        """What it is turned round, so that its length goes by that: what lies next to its right
        end, or what hangs from the middle of the piece."""
        return ""

    def on(self, thick: float) -> "Part":
        """Return it turned round something so thick [mm]. Raises Refusal where another thickness
        was typed."""
        return self

    @property
    def stuffs(self) -> frozenset[str]:
        """What its beads are made of."""
        return frozenset()

    @property
    def spaces(self) -> bool:
        """Whether it is small enough that one more or less only spends a remainder."""
        return False

    def unit(self, length: float) -> tuple[float, str]:
        """Return the length of what it is counted by [mm], and what that is called.

        Args:
            length: of the part as made [mm].
        """
        return max(length, 0.1), self.says

    @property
    def says(self) -> str:
        """What it is called."""
        return say(f"shelf.{self.kind}.name")

    def graded(self, to: float, share: float) -> "Part":
        """Return the part a share (0 to 1) of the way to another size, in steps of beads sold."""
        if self.grades is None:
            return self
        size: float = getattr(self, self.grades)
        step = round((size + (to - size) * share) / BEAD_STEP_MM) * BEAD_STEP_MM
        return self.model_copy(update={self.grades: step})

    @property
    def graded_size(self) -> str:
        """The size that a graduation changes, '' where there is none."""
        return f"{getattr(self, self.grades):g}" if self.grades else ""


def registered_parts() -> Mapping[str, type[Part]]:
    """Return all parts by kind."""
    return PARTS.every()


def opens_at(key: str, wire: Wire, pin: float, wires: int = 1) -> Hold:
    """Return the hold of a hook or a ring that is not soldered.

    Args:
        key: its name in the catalogue.
        wire: that it is made of.
        pin: inner diameter of its bend [mm].
        wires: side by side.
    """
    return Hold(key, opening_force(wire.moment, wire.radius_on(pin), wires), wire.key)


def ovals_at(key: str, wire: Wire, pin: float) -> Hold:
    """Return the hold of a loop that is soldered or wrapped shut: it goes oval, or its stem
    stretches, whichever comes first.

    Args:
        key: its name in the catalogue.
        wire: that it is made of.
        pin: inner diameter [mm].
    """
    oval = oval_force(wire.moment, wire.radius_on(pin))
    return Hold(key, min(oval, pulling_force(wire.area, wire.yield_mpa)), wire.key)


def pulls_at(key: str, wire: Wire) -> Hold:
    """Return the hold of wire that is pulled straight: it stretches.

    Args:
        key: its name in the catalogue.
        wire: that it is made of.
    """
    return Hold(key, pulling_force(wire.area, wire.yield_mpa), wire.key)


def near(now: int, by: int, least: int = 0) -> tuple[int, ...]:
    """Return the whole numbers round one, none under the least."""
    return tuple(range(max(least, now - by), now + by + 1))


def part_step(
    key: str,
    *,
    name: str = "",
    cautions: tuple[str, ...] = (),
    check: bool = False,
    opening: Opening | None = None,
    **v: Any,
) -> Step:
    """Return a step of forming a part, under ``step.part.<key>``."""
    v.setdefault("what", say("join.neighbour"))
    return step(
        f"part.{key}", "form", name=name, cautions=cautions, check=check, opening=opening, **v
    )
