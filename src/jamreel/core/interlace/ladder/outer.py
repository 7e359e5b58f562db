"""An outer bar of a ladder as it is drawn: bent to its neighbour and wound round it."""

import math
from collections.abc import Iterator

from jamreel.core.parts.pictures import wraps
from jamreel.core.values import Stroke


def outer_bar(
    y: float, inner: float, x: float, rows: float, radius: float, d: float, turns: int
) -> Iterator[Stroke]:
    """Yield an outer bar and its turns round its neighbour, as they lie.

    Args:
        y: height of the bar in the picture [mm].
        inner: height of its neighbour [mm].
        x: where it begins to be straight [mm].
        rows: how long it is straight [mm].
        radius: of the middle of its bends [mm].
        d: thickness of the bars [mm].
        turns: round its neighbour.
    """
    way = math.copysign(1.0, inner - y)
    quarter = [n * math.pi / 8 for n in range(5)]
    left = [(x - radius * math.sin(a), y + way * radius * (1 - math.cos(a))) for a in quarter]
    line = [(x - radius, inner), *left[::-1]]
    points = [*line, *((2 * x + rows - px, py) for px, py in line[::-1])]
    yield Stroke(
        part="wire", points=tuple((round(a, 2), round(b, 2)) for a, b in points), width_mm=d
    )
    for start in (x - radius - turns * d, x + rows + radius):
        yield from (
            one.model_copy(
                update={"points": tuple((a, round(b + inner, 2)) for a, b in one.points)}
            )
            for one in wraps(start, turns, d, 3 * d)
        )
