"""Gauge sense: what a diameter is called, what it is nearly called, what the same word means."""

from collections.abc import Callable, Iterator

from jamreel.core.values import Frozen
from jamreel.core.wire.gauges import awg_diameter, swg_diameter, swg_table
from jamreel.core.wire.holes import CIRCLES, wires_through

FIRST, LAST = 6, 32
# The same number in two systems is another wire when the diameters differ by more than this.
SAME_SHARE = 0.02


class GaugeRow(Frozen):
    """One number, and what it is in both systems [mm, in]."""

    number: int
    awg_mm: float
    awg_in: float
    swg_mm: float
    swg_in: float
    differ: bool


class Near(Frozen):
    """The gauge nearest to a diameter in one system, and by how much it is off [mm]."""

    system: str
    number: int
    diameter_mm: float
    off_mm: float


class Through(Frozen):
    """How many wires of a diameter pass a hole; ``most`` is where counting stops."""

    wires: int
    most: int


def gauge_chart() -> tuple[GaugeRow, ...]:
    """Return both gauge systems side by side, 6 to 32."""
    rows = []
    for number in range(FIRST, LAST + 1):
        awg, swg = awg_diameter(number), swg_diameter(number)
        rows.append(
            GaugeRow(
                number=number,
                awg_mm=awg,
                awg_in=awg / 25.4,
                swg_mm=swg,
                swg_in=swg / 25.4,
                differ=two_wires(awg, swg),
            )
        )
    return tuple(rows)


def two_wires(one: float, other: float) -> bool:
    """Return whether two diameters under one word are two wires.

    Args:
        one: [mm].
        other: [mm].

    Source: common practice: two percent.
    """
    return abs(one - other) > SAME_SHARE * max(one, other)


def nearest_gauges(diameter: float) -> tuple[Near, Near]:
    """Return the nearest AWG and the nearest SWG to a diameter.

    Args:
        diameter: [mm], over 0.

    Returns:
        One of each system; of two equally near the thicker.

    Example:
        >>> [(n.system, n.number) for n in nearest_gauges(0.9)]
        [('AWG', 19), ('SWG', 20)]

    Source: ASTM B258; BS 3737.
    """
    return (
        _nearest("AWG", diameter, range(3, 41), awg_diameter),
        _nearest("SWG", diameter, swg_table(), swg_diameter),
    )


def _nearest(
    system: str, diameter: float, numbers: Iterator[int] | range | dict[int, float],
    size: Callable[[int], float],
) -> Near:  # fmt: skip
    number = min(numbers, key=lambda n: (abs(size(n) - diameter), n))
    found = size(number)
    return Near(system=system, number=number, diameter_mm=found, off_mm=found - diameter)


def passes(hole: float, wire: float) -> Through:
    """Return how many wires pass a hole; see ``holes.wires_through``."""
    return Through(wires=wires_through(hole, wire), most=len(CIRCLES))
