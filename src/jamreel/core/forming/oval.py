"""Formers for bodies that are not round: the curve to bend to, place by place.

A piece that is to lie along an oval is bent tighter at every place by what springs back there: the
target's curvature with its springback is the former's curvature, and that is drawn by integrating.
"""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import combinations

import numpy as np
from pydantic import Field

from jamreel.core.body.outline import Array, Outline
from jamreel.core.forming.law import Law
from jamreel.core.forming.springback import sprung_curvature
from jamreel.core.forming.tools import Place, Tool
from jamreel.core.values import Millimetres, Point, Written
from jamreel.core.wire.sections import Section

# Points of the body's outline, and the longest piece of one curvature on the wire [mm].
OUTLINE_POINTS, PIECE_MM = 1440, 0.75
# Curvatures that springback is worked out for; between them it is interpolated.
CURVATURES = 400
# Of a maker's round places so many are tried, at so many points of a quarter of the oval.
MOST_ROUNDS, QUARTER_POINTS = 16, 24
# Less wire than this is not bent on a place of its own [mm]; common practice, no source.
LEAST_RUN_MM = 5.0
# What lies further off than this is another oval [mm]; common practice, no source.
MOST_OFF_MM = 5.0
# Three places are only offered where they come nearer by so much [mm]; common practice, no source.
WORTH_A_THIRD_MM = 0.3


@dataclass(frozen=True)
class Course:
    """A line from its middle to one end, in pieces of one curvature each, mirrored to the other.

    ``lengths`` [mm] and ``curvatures`` [1/mm], both of shape (n,). In its middle it runs level.
    """

    lengths: Array
    curvatures: Array

    @property
    def length(self) -> float:
        """Of both halves together [mm]."""
        return 2 * float(np.sum(self.lengths))

    def half(self) -> Array:
        """Return points from the middle to one end, shape (n + 1, 2) [mm]: the middle at the
        origin, running to the right and turning down."""
        turns = self.lengths * self.curvatures
        heading = np.concatenate([[0.0], np.cumsum(turns)[:-1]]) + turns / 2
        # The chord of an arc is shorter than the arc.
        chord = self.lengths * np.sinc(turns / (2 * np.pi))
        ahead = np.column_stack([chord * np.cos(heading), -chord * np.sin(heading)])
        return np.vstack([[(0.0, 0.0)], np.cumsum(ahead, axis=0)])

    def points(self) -> Array:
        """Return points from end to end, shape (2 n + 1, 2) [mm]."""
        right = self.half()
        return np.vstack([right[::-1] * (-1, 1), right[1:]])


def course_along(outline: Outline, offset: float, length: float) -> Course:
    """Return the line that lies parallel to a body, its middle at the top.

    An outline is even: with its middle at the bottom it is the same line.

    Args:
        outline: of the body.
        offset: from the skin to the line [mm].
        length: of the line [mm].

    Source: parallel curves; plain geometry.
    """
    points, normals = outline.points(OUTLINE_POINTS)
    turned = np.unwrap(np.arctan2(normals[:, 0], normals[:, 1]))
    turned = np.concatenate([turned, [2 * np.pi + turned[0]]]) - turned[0]
    chords = np.hypot(*np.diff(np.vstack([points, points[:1]]), axis=0).T)
    bends = np.diff(turned)
    steps = chords / np.sinc(bends / (2 * np.pi)) + offset * bends
    run = np.concatenate([[0.0], np.cumsum(steps)])
    # Beyond a full round it goes on as it began.
    count = max(2, math.ceil(length / 2 / PIECE_MM))
    at = np.linspace(0, length / 2, count + 1)
    around, rest = np.divmod(at, run[-1])
    headings = 2 * np.pi * around + np.interp(rest, run, turned)
    lengths = np.diff(at)
    return Course(lengths, np.maximum(np.diff(headings) / lengths, 0.0))


def bent_to_spring(course: Course, section: Section, law: Law, kept: float = 1.0) -> Course:
    """Return the curve to bend wire to, so that it springs to a course.

    Args:
        course: as it is to lie, its centroid line.
        section: of the wire.
        law: of its metal.
        kept: share of the springback that malleting leaves.

    Returns:
        The same lengths with the curvature of every piece before it springs back; where the target
        is straight, as much as still springs straight.

    Source: ``sprung_curvature``, the other way round by interpolation.
    """
    most = float(course.curvatures.max())
    fibre = max(section.neutral_offset, section.thickness - section.neutral_offset)
    gives = law.gives_at / fibre
    high = max(2 * most, 2 * gives)
    while sprung_curvature(high, section, law, kept) < most:
        high *= 1.5
    bent = np.geomspace(gives, high, CURVATURES)
    bent = np.concatenate([[0.0], bent]) if kept < 1 else bent
    left = np.array([sprung_curvature(float(k), section, law, kept) for k in bent])
    return Course(course.lengths, np.interp(course.curvatures, left, bent))


def let_go(course: Course, section: Section, law: Law, kept: float = 1.0) -> Course:
    """Return what a bent course springs to, place by place; see ``sprung_curvature``.

    Args:
        course: as bent.
        section: of the wire.
        law: of its metal.
        kept: share of the springback that malleting leaves.

    Source: ``sprung_curvature``.
    """
    left = [sprung_curvature(float(k), section, law, kept) for k in course.curvatures]
    return Course(course.lengths, np.array(left))


def block(course: Course, inwards: float) -> Array:
    """Return the closed outline of a former to cut from wood: the wire's inner face, closed across
    its gap.

    Args:
        course: to bend to, its centroid line.
        inwards: from that line to the inner face of the wire [mm].

    Returns:
        Points of shape (n, 2) [mm], clockwise. What would run over itself is left out: the ends of
        a long wire lie side by side on it.

    Source: parallel curves; plain geometry.
    """
    turned = np.concatenate([[0.0], np.cumsum(course.lengths * course.curvatures)])
    right = course.half() - inwards * np.column_stack([np.sin(turned), np.cos(turned)])
    over = (turned > np.pi) | ((np.arange(len(right)) > 2) & (right[:, 0] < 0))
    last = int(np.argmax(over)) if over.any() else len(right)
    kept = right[:last]
    return np.vstack([kept, kept[:0:-1] * (-1, 1)])


class RoundPlace(Written):
    """A round place of the maker's to bend part of an oval on, so far from its middle [mm]."""

    tool: str
    tool_mm: Millimetres
    at_mm: Millimetres | None
    from_mm: Millimetres
    to_mm: Millimetres


class ByRounds(Written):
    """An oval bent on round tools: the places of a quarter of it, from its middle to its side, and
    how near it comes to the target [mm]."""

    places: tuple[RoundPlace, ...]
    off_mm: Millimetres


@dataclass(frozen=True)
class _Round:
    place: Place
    curvature: float


# A keystroke changes the piece; what the maker has to bend it on seldom.
@lru_cache(maxsize=256)
def nearest_by_rounds(
    outline: Outline,
    offset: float,
    tools: tuple[Tool, ...],
    section: Section,
    law: Law,
    kept: float,
) -> ByRounds | None:
    """Return which two or three round places come nearest to an oval, None where none can.

    Every arc runs on into the next; a quarter turns a right angle over its own length, which leaves
    two places no choice of where one ends, and three a little.

    Args:
        outline: of the body.
        offset: from the skin to the wire's centroid line [mm].
        tools: what the maker has.
        section: of the wire.
        law: of its metal.
        kept: share of the springback that malleting leaves.

    Source: plain geometry of arcs; ``sprung_curvature``.
    """
    whole = outline.girth + 2 * math.pi * offset
    quarter = course_along(outline, offset, whole / 2)
    length = quarter.length / 2
    mean = math.pi / 2 / length
    rounds = _rounds(tools, mean, section, law, kept)
    flat_first = float(quarter.curvatures[0]) < mean
    tries = [*_pairs(rounds, length), *_triples(rounds, length)]
    if not tries:
        return None
    arcs = np.array([row for _, row in tries])
    if not flat_first:
        arcs = arcs[:, ::-1]
    off = _off(arcs, quarter, length)
    two = [i for i, (found, _) in enumerate(tries) if len(found) == 2]
    three = [i for i, (found, _) in enumerate(tries) if len(found) == 3]
    best = min(two, key=lambda i: off[i], default=None)
    third = min(three, key=lambda i: off[i], default=None)
    if best is None or (third is not None and off[third] < off[best] - WORTH_A_THIRD_MM):
        best = third
    assert best is not None  # there were tries
    if off[best] > MOST_OFF_MM:
        return None
    by_curvature = {one.curvature: one.place for one in tries[best][0]}
    arcs_of = [(by_curvature[float(bent)], float(run)) for bent, run in arcs[best] if run > 0]
    return ByRounds(places=tuple(_one_after_the_other(arcs_of)), off_mm=float(off[best]))


def _one_after_the_other(arcs: Sequence[tuple[Place, float]]) -> Iterator[RoundPlace]:
    """Yield the places of a quarter, each where the one before ends; lengths in mm."""
    at = 0.0
    for place, run in arcs:
        yield RoundPlace(
            tool=place.tool.name, tool_mm=place.step, at_mm=place.at, from_mm=at, to_mm=at + run
        )
        at += run


def _rounds(
    tools: Sequence[Tool], mean: float, section: Section, law: Law, kept: float
) -> list[_Round]:
    """Return the round places that may bend an oval of some mean curvature, flattest first, of
    alike ones one, and no more than a few."""
    found: dict[float, _Round] = {}
    for tool in tools:
        if tool.ratio == 1:
            wanted = np.linspace(0.3, 2.5, 8) / mean * 2
            for place in (place for d in wanted for place in tool.places(float(d))):
                if 0.25 / mean < place.diameter / 2 < 4 / mean:
                    bent = 1 / (place.diameter / 2 + section.neutral_offset)
                    left = sprung_curvature(bent, section, law, kept)
                    found.setdefault(round(place.diameter, 1), _Round(place, left))
    rows = sorted(found.values(), key=lambda one: one.curvature)
    pick = np.linspace(0, len(rows) - 1, min(MOST_ROUNDS, len(rows))).round().astype(int)
    return [rows[i] for i in dict.fromkeys(pick.tolist())]


Try = tuple[tuple[_Round, ...], tuple[tuple[float, float], ...]]


def _pairs(rounds: Sequence[_Round], length: float) -> list[Try]:
    """Return two places each, with the length on each: together they turn a right angle."""
    found: list[Try] = []
    for a, b in combinations(rounds, 2):
        apart = b.curvature - a.curvature
        on_b = (math.pi / 2 - a.curvature * length) / apart if apart > 1e-9 else -1.0
        if LEAST_RUN_MM < on_b < length - LEAST_RUN_MM:
            arcs = ((a.curvature, length - on_b), (b.curvature, 0.0), (b.curvature, on_b))
            found.append(((a, b), arcs))
    return found


def _triples(rounds: Sequence[_Round], length: float) -> list[Try]:
    """Return three places each, the middle one over a share of the quarter."""
    found: list[Try] = []
    for a, b, c in combinations(rounds, 3):
        apart = c.curvature - a.curvature
        for share in (0.2, 0.35, 0.5) if apart > 1e-9 else ():
            on_b = share * length
            left = math.pi / 2 - b.curvature * on_b - a.curvature * (length - on_b)
            on_c = left / apart
            on_a = length - on_b - on_c
            if min(on_a, on_b, on_c) > LEAST_RUN_MM:
                arcs = ((a.curvature, on_a), (b.curvature, on_b), (c.curvature, on_c))
                found.append(((a, b, c), arcs))
    return found


def _off(arcs: Array, quarter: Course, length: float) -> Array:
    """Return how far each row of three arcs lies from a quarter at most [mm], both about their
    own middles; ``arcs`` is of shape (tries, 3, 2): curvature and length."""
    at = np.linspace(0, length, QUARTER_POINTS)
    run = np.concatenate([[0.0], np.cumsum(quarter.lengths)])
    line = quarter.half()
    target = np.column_stack([np.interp(at, run, line[:, k]) for k in (0, 1)])
    target[:, 1] -= target[-1, 1]
    curvature, lengths = np.maximum(arcs[:, :, 0], 1e-9), arcs[:, :, 1]
    start = np.cumsum(lengths, axis=1) - lengths
    heading = np.cumsum(curvature * lengths, axis=1) - curvature * lengths
    x, y = np.zeros((len(arcs), len(at))), np.zeros((len(arcs), len(at)))
    for n in range(3):
        on = np.clip(at[None, :] - start[:, n, None], 0, lengths[:, n, None])
        first = heading[:, n, None]
        last = first + curvature[:, n, None] * on
        x += (np.sin(last) - np.sin(first)) / curvature[:, n, None]
        y += (np.cos(last) - np.cos(first)) / curvature[:, n, None]
    y -= y[:, -1:]
    return np.asarray(np.hypot(x - target[:, 0], y - target[:, 1]).max(axis=1))


class OvalFormer(Written):
    """The former of a piece that lies along an oval body.

    All lines [mm] have their middle at the origin: ``target`` as it is to lie and ``bent`` as it is
    bent, centre-lines of the wire from end to end, ``length_mm`` long; ``block`` is the closed
    outline of a former to cut from wood. ``across_mm`` by ``through_mm`` is that block. ``rounds``
    comes nearest on the maker's round tools. The lines are written out once, in the drawing.
    """

    length_mm: Millimetres
    target: tuple[Point, ...] = Field(exclude=True)
    bent: tuple[Point, ...] = Field(exclude=True)
    block: tuple[Point, ...] = Field(exclude=True)
    across_mm: Millimetres
    through_mm: Millimetres
    wire_mm: Millimetres
    rounds: ByRounds | None
