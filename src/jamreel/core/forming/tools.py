"""The maker's own formers and pins, the place on them for every bend, and what else is there."""

import math
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

from pydantic import Field, model_validator

from jamreel.core.body.outline import superellipse_perimeter
from jamreel.core.errors import Refusal
from jamreel.core.units import Mm
from jamreel.core.values import (
    Frozen,
    Length,
    Millimetres,
    OptionalLength,
    Quantity,
    Written,
    refused,
)

ToolKind = Literal[
    "stepped mandrel",
    "tapered mandrel",
    "stepped pliers",
    "cone pliers",
    "flat pliers",
    "dowels",
    "drill shanks",
    "household",
]
TAPERED = frozenset({"tapered mandrel", "cone pliers"})
FLAT = "flat pliers"
# No mandrel for a part of the body is more oval than this.
MOST_OVAL = 2.0
LEAST_MM, MOST_MM = 0.5, 400.0
# What is half or twice as wide is no former, and no pin, for a bend.
NEAR = (0.6, 1.7)
# No jaw and no mandrel is longer [mm].
LONGEST_MM = 1000.0


class Tool(Frozen):
    """Something to bend on.

    Most have steps, each with its diameter [mm]. What tapers has one at its ``tip``, one at its
    ``base`` and the ``length`` between; flat pliers have none. ``ratio`` is breadth over depth: an
    oval one is named by its breadth.
    """

    name: str = Field(min_length=1, max_length=60)
    kind: ToolKind
    diameters: tuple[Length, ...] = Field(default=(), max_length=60)
    tip: OptionalLength = None
    base: OptionalLength = None
    length: OptionalLength = None
    ratio: float = 1.0

    @model_validator(mode="after")
    def _can_be(self) -> "Tool":
        for d in (*self.diameters, *(d for d in (self.tip, self.base) if d is not None)):
            if not LEAST_MM <= d <= MOST_MM:
                raise refused(Refusal("tool_diameter", got=Mm(d), low=LEAST_MM, high=MOST_MM))
        if not 1 <= self.ratio <= MOST_OVAL:
            raise refused(Refusal("tool_ratio", got=self.ratio, under="ratio", high=MOST_OVAL))
        if self.kind in TAPERED:
            self._tapers()
        elif self.kind != FLAT and not self.diameters:
            raise refused(Refusal("tool_no_steps", got=0, under="diameters"))
        return self

    def _tapers(self) -> None:
        for name, value in (("tip", self.tip), ("base", self.base), ("length", self.length)):
            if value is None:
                raise refused(Refusal("missing", got=None, under=name))
        tip, base, length = self._taper
        if base <= tip:
            raise refused(Refusal("tool_taper", got=Mm(base), under="base", tip=tip))
        if not 1 <= length <= LONGEST_MM:
            raise refused(Refusal("tool_length", got=Mm(length), under="length", high=LONGEST_MM))

    @property
    def _taper(self) -> tuple[float, float, float]:
        return self.tip or 0.0, self.base or 0.0, self.length or 0.0

    def as_round(self, step: float) -> float:
        """Return the round that has the girth of one of its steps [mm]."""
        return step if self.ratio == 1 else step * _as_round(self.ratio)

    def places(self, wanted: float) -> Iterator["Place"]:
        """Yield the places that it offers for a diameter [mm]: every step, or one on its taper."""
        if self.kind in TAPERED:
            tip, base, length = self._taper
            step = min(max(wanted / self.as_round(1.0), tip), base)
            yield Place(self, step, taper_place(step, tip, base, length))
        for step in self.diameters if self.kind not in TAPERED else ():
            yield Place(self, step)


@lru_cache(maxsize=64)
def _as_round(ratio: float) -> float:
    return superellipse_perimeter(0.5, 0.5 / ratio, 2.0) / math.pi


def taper_place(wanted: float, tip: float, base: float, length: float) -> float:
    """Return how far from its tip a cone has a diameter, (D - D_0) / (D_1 - D_0) jaw.

    Args:
        wanted: D [mm].
        tip: D_0 at the tip [mm].
        base: D_1 at the base [mm].
        length: from tip to base [mm].

    Returns:
        Distance from the tip [mm].

    Example:
        >>> round(taper_place(3.0, 1.5, 6.0, 30.0), 1)
        10.0

    Source: plain geometry.
    """
    return (wanted - tip) / (base - tip) * length


@dataclass(frozen=True)
class Place:
    """A place on a tool: the step, or on a taper how far from the tip [mm] to mark it."""

    tool: Tool
    step: float
    at: float | None = None

    @property
    def diameter(self) -> float:
        """The round that it bends to [mm]; of an oval place the round of its girth."""
        return self.tool.as_round(self.step)


class Outfit(Frozen):
    """What else the bench has: diameters of ``punches`` for doming [mm], and whether each of the
    others is there. What most benches begin with is taken to be there; common practice."""

    punches: tuple[Length, ...] = Field(default=(), max_length=60)
    block: bool = True
    mallet: bool = True
    hammer: bool = True
    mill: bool = False
    torch: bool = False
    pickle: bool = False
    tumbler: bool = False

    @model_validator(mode="after")
    def _real_punches(self) -> "Outfit":
        for d in self.punches:
            if not LEAST_MM <= d <= MOST_MM:
                raise refused(
                    Refusal("tool_diameter", got=Mm(d), under="punches", low=LEAST_MM, high=MOST_MM)
                )
        return self

    def nearest_punch(self, wanted: float) -> float | None:
        """Return the punch nearest to a diameter [mm], of two the smaller; None without any."""
        return min(self.punches, key=lambda d: (abs(d - wanted), d), default=None)


class Former(Written):
    """What to bend a piece's body on.

    ``target_mm`` is the inside diameter wanted, ``former_mm`` the ideal former for it, ``tool``
    and ``tool_mm`` the nearest step the maker has (``at_mm`` from the tip of what tapers, ``ratio``
    over 1 where it is oval), and ``result_mm`` what wire off that step opens to, give or take
    ``doubt_mm`` where that is known. ``tool`` is None when there is no tool to bend on. ``off_mm``
    is how much longer or shorter the inside comes out. A ``band`` of several wires tells nothing
    of one of them.
    """

    target_mm: Millimetres
    former_mm: Millimetres
    tool: str | None
    tool_mm: Millimetres | None
    result_mm: Millimetres | None
    at_mm: Millimetres | None = None
    ratio: Quantity = 1.0
    off_mm: Millimetres | None = None
    turns: int = 1
    doubt_mm: Millimetres | None = None
    band: bool = False


def nearest_place(wanted: float, tools: Sequence[Tool], *, oval: bool = False) -> Place | None:
    """Return the place nearest to a diameter [mm], or None without tools.

    Of two equally near the smaller is taken: a curve is easier opened than closed. Loops of one
    diameter always come to one place, so that they match.

    Args:
        wanted: diameter [mm].
        tools: what the maker has.
        oval: whether an oval one will do.

    Source: plain comparison.
    """
    places = [place for tool in tools if oval or tool.ratio == 1 for place in tool.places(wanted)]
    return min(places, key=lambda one: (abs(one.diameter - wanted), one.diameter), default=None)


def flat_pliers(tools: Sequence[Tool]) -> Tool | None:
    """Return the flat pliers among the tools, for folds and corners, or None."""
    return next((tool for tool in tools if tool.kind == FLAT), None)


def choose_former(
    target: float, former: float, tools: Sequence[Tool], sprung: Callable[[float], float]
) -> Former:
    """Return the former for a target diameter, with what the nearest real step does to it.

    Args:
        target: inside diameter wanted [mm].
        former: the ideal former [mm].
        tools: what the maker has.
        sprung: the inside diameter that it opens to off a former [mm], infinite where it springs
            straight.

    Source: ``springback.sprung_diameter``, ``band.opens_to``.
    """
    found = nearest_place(former, tools, oval=True)
    if found is None or not NEAR[0] <= found.diameter / former <= NEAR[1]:
        return Former(target_mm=target, former_mm=former, tool=None, tool_mm=None, result_mm=None)
    result = sprung(found.diameter)
    straight = math.isinf(result)
    return Former(
        target_mm=target,
        former_mm=former,
        tool=found.tool.name,
        tool_mm=found.step,
        result_mm=None if straight else result,
        at_mm=found.at,
        ratio=found.tool.ratio,
        off_mm=None if straight else math.pi * (result - target),
    )
