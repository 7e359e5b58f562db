"""Small shapes that parts are drawn from: x along the piece, y across it, in mm."""

import math
from collections.abc import Iterable, Iterator, Sequence
from functools import lru_cache
from itertools import pairwise

from jamreel.core.values import Point, Stroke

# What hangs in more strokes than this together is drawn as lines.
MOST_DRAWN = 300


# A keystroke changes one part; the rest is drawn where and as it was.
@lru_cache(maxsize=8192)
def arc_points(
    x: float, y: float, rx: float, ry: float, start: float = 0.0, turn: float = 2 * math.pi
) -> tuple[Point, ...]:
    """Return points along an ellipse's arc, coarse where it is small."""
    count = max(8, min(40, math.ceil(abs(turn) * max(rx, ry) * 1.6)))
    last = count if abs(turn) < 2 * math.pi - 1e-9 else count - 1
    return tuple(
        (round(x + rx * math.cos(a), 2), round(y + ry * math.sin(a), 2))
        for a in (start + turn * i / count for i in range(last + 1))
    )


def ring(x: float, pin: float, d: float, y: float = 0.0, tone: str = "") -> Stroke:
    """Return a loop square on, its centre at (x, y)."""
    r = (pin + d) / 2
    return Stroke(part="wire", points=arc_points(x, y, r, r), closed=True, width_mm=d, tone=tone)


def edge(x0: float, x1: float, d: float, y: float = 0.0, tone: str = "") -> Stroke:
    """Return wire running straight, or a loop seen on its edge."""
    return Stroke(part="wire", points=((round(x0, 2), y), (round(x1, 2), y)), width_mm=d, tone=tone)


def slender(x0: float, x1: float, d: float, y: float = 0.0) -> Stroke:
    """Return a loop turned square to the piece, seen almost on its edge."""
    rx = max((x1 - x0 - d) / 2, d / 2)
    return Stroke(
        part="wire",
        points=arc_points((x0 + x1) / 2, y, rx, min(rx, 0.9 * d)),
        closed=True,
        width_mm=0.8 * d,
    )


def wraps(x0: float, count: int, d: float, high: float, tone: str = "") -> list[Stroke]:
    """Return wraps side by side from x0 on, each one wire wide and so high across."""
    if count < 1:
        return []
    return [
        Stroke(
            part="wire",
            points=(
                (round(x0 + 0.4 * d, 2), round(-high / 2, 2)),
                (round(x0 + 0.6 * d, 2), round(high / 2, 2)),
            ),
            width_mm=0.86 * d,
            tone=tone,
            times=count,
            step=(d, 0.0),
        )
    ]


def bead(x: float, length: float, diameter: float, tone: str, y: float = 0.0) -> Stroke:
    """Return a bead, its centre at (x, y)."""
    return Stroke(
        part="bead", points=arc_points(x, y, length / 2, diameter / 2), closed=True, tone=tone
    )


def box(x0: float, x1: float, high: float, tone: str, y: float = 0.0) -> Stroke:
    """Return something bought, as a block with its corners taken off."""
    c = min(high, x1 - x0) * 0.22
    top, low = y + high / 2, y - high / 2
    points = (
        (x0 + c, low), (x1 - c, low), (x1, low + c), (x1, top - c),
        (x1 - c, top), (x0 + c, top), (x0, top - c), (x0, low + c),
    )  # fmt: skip
    return Stroke(part="bought", points=tuple(map(_rounded, points)), closed=True, tone=tone)


def shifted(strokes: Iterable[Stroke], dx: float, dy: float = 0.0) -> tuple[Stroke, ...]:
    """Return strokes moved along and across."""
    return tuple(
        s.model_copy(update={"points": tuple(_rounded((x + dx, y + dy)) for x, y in s.points)})
        for s in strokes
    )


def narrowed(strokes: Iterable[Stroke], by: float) -> tuple[Stroke, ...]:
    """Return strokes drawn closer together along x, as deep as they were."""
    return tuple(
        s.model_copy(
            update={
                "points": tuple(_rounded((x * by, y)) for x, y in s.points),
                "step": (s.step[0] * by, s.step[1]),
            }
        )
        for s in strokes
    )


def hung_links(
    strokes: Sequence[Stroke], line: Sequence[Point], links: int, thick: float
) -> Iterator[Stroke]:
    """Yield a link as often as it hangs along a line, each turned with it; a line for them where
    there are many.

    Args:
        strokes: of one link, from its left bearing point to the right.
        line: twice as many points as links, and one.
        links: that hang in all, on this line and others.
        thick: a link is [mm].
    """
    if links * len(strokes) > MOST_DRAWN:
        yield Stroke(
            part="wire",
            points=tuple((round(x, 2), round(y, 2)) for x, y in line),
            width_mm=0.5 * thick,
            tone="bought",
        )
        return
    for (x0, y0), (x1, y1) in pairwise(line[::2]):
        yield from turned(strokes, (x0, y0), math.atan2(y1 - y0, x1 - x0))


def turned(strokes: Iterable[Stroke], at: Point, angle: float) -> tuple[Stroke, ...]:
    """Return strokes turned about the origin [rad] and moved to a place."""
    cos, sin = math.cos(angle), math.sin(angle)

    def to(point: Point) -> Point:
        x, y = point
        return (cos * x - sin * y, sin * x + cos * y)

    return tuple(
        s.model_copy(
            update={
                "points": tuple(_rounded((p[0] + at[0], p[1] + at[1])) for p in map(to, s.points)),
                "step": to(s.step),
            }
        )
        for s in strokes
    )


def hung(strokes: Iterable[Stroke]) -> tuple[Stroke, ...]:
    """Return strokes drawn along x turned to hang down from the origin."""
    return tuple(
        s.model_copy(
            update={
                "points": tuple(_rounded((y, -x)) for x, y in s.points),
                "step": (s.step[1], -s.step[0]),
            }
        )
        for s in strokes
    )


def repeated(strokes: Iterable[Stroke], times: int, step: Point) -> Iterator[Stroke]:
    """Yield strokes drawn so many times, each a step further.

    One that is repeated already is written out along the shorter of its two rows.
    """
    for s in strokes:
        along = s if s.times >= times else s.model_copy(update={"times": times, "step": step})
        count, (dx, dy) = (times, step) if s.times >= times else (s.times, s.step)
        for n in range(count):
            yield from shifted((along,), n * dx, n * dy) if n else (along,)


def flipped(strokes: Iterable[Stroke], length: float) -> tuple[Stroke, ...]:
    """Return strokes end for end over a length."""
    return tuple(
        s.model_copy(
            update={
                "points": tuple(_rounded((length - x, y)) for x, y in s.points),
                "step": (-s.step[0], s.step[1]),
            }
        )
        for s in strokes
    )


def _rounded(point: tuple[float, float]) -> Point:
    return (round(float(point[0]), 2), round(float(point[1]), 2))
