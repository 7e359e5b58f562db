"""Strands side by side in one layer or two, with what binds them and how they bow out."""

import math
from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property
from itertools import pairwise

import numpy as np

from jamreel.core.forming.band import Lengthwise
from jamreel.core.forming.chosen import Wire
from jamreel.core.interlace.bindings import Binding
from jamreel.core.interlace.bound import SectionKind
from jamreel.core.interlace.space import Array

# Strands that end in a cap stand so far over [mm]; common practice.
BARE_MM = 8.0


@dataclass(frozen=True)
class Lane:
    """A strand in its place: of what section, which wire, how wide it lies, where its middle is
    across the bundle, and in which layer [mm]."""

    kind: SectionKind
    wire: Wire
    wide: float
    y: float
    layer: int
    stops: bool


@dataclass(frozen=True)
class Stacked:
    """Strands side by side in one layer or two, lengths in mm: ``long`` from end to end of the
    straight part, each of its ``bindings`` with its middle ``at`` a place of it, how far the
    outermost strands bow out between them, and how far bare ends go into a cap."""

    lanes: tuple[Lane, ...]
    long: float
    bindings: tuple[Binding, ...]
    at: tuple[float, ...]
    opened: float
    over: float = BARE_MM

    @cached_property
    def width(self) -> float:
        """Bound, over all strands of a layer [mm]."""
        return sum(one.wide for one in self.lanes if one.layer == 0)

    @cached_property
    def thickness(self) -> float:
        """Of its layers [mm]."""
        first = [one for one in self.lanes if one.layer == 0]
        layers = 1 + max(one.layer for one in self.lanes)
        return layers * max(thick_of(one) for one in first)

    @cached_property
    def gaps(self) -> tuple[tuple[float, float], ...]:
        """Where strands are free between two bindings: from, to [mm]."""
        return tuple((a, b) for (_, a), (b, _) in pairwise(self.bands))

    @property
    def bands(self) -> tuple[tuple[float, float], ...]:
        """Where bindings lie: from, to [mm]."""
        rows = zip(self.at, self.bindings, strict=True)
        return tuple((x - one.band / 2, x + one.band / 2) for x, one in rows)

    @property
    def lengthwise(self) -> Iterator[Lengthwise]:
        """Its strands, each as far out as its layer lies."""
        thick = self.thickness / (1 + max(one.layer for one in self.lanes))
        for (wire, layer), count in Counter((one.wire, one.layer) for one in self.lanes).items():
            yield Lengthwise(wire, count, (0.5 + layer) * thick - self.thickness / 2)

    def bow_of(self, lane: Lane) -> float:
        """Return how far a strand bows out between bindings [mm]: the outermost all the way."""
        reach = max(abs(one.y) for one in self.lanes)
        return self.opened * lane.y / reach if reach else 0.0

    def bowed(self, lane: Lane) -> float:
        """Return how much longer a strand is for its bows [mm]."""
        bow = abs(self.bow_of(lane))
        return sum(arc_over(b - a, bow) - (b - a) for a, b in self.gaps)

    def line(self, lane: Lane) -> Array:
        """Return a strand's middle line, n by 3 [mm]."""
        thick = self.thickness / (1 + max(one.layer for one in self.lanes))
        z = (0.5 + lane.layer) * thick - self.thickness / 2
        points, bow = [[0.0, lane.y, z]], self.bow_of(lane)
        for a, b in self.gaps:
            share = np.linspace(0.0, 1.0, 13 if bow else 2)
            out = lane.y + bow * (1 - (2 * share - 1) ** 2)
            points += [[a + s * (b - a), y, z] for s, y in zip(share, out, strict=True)]
        points.append([self.long, lane.y, z])
        return np.array(points)


def thick_of(lane: Lane) -> float:
    """Return how thick a strand is in its bundle [mm]."""
    return lane.wide if lane.kind == "twisted" else lane.wire.d


def arc_over(chord: float, high: float) -> float:
    """Return the arc over a chord, R 2 asin(c / 2R), R = (c^2 / 4 + h^2) / 2h.

    Args:
        chord: c [mm].
        high: h, of its middle over the chord, up to half of it [mm].

    Example:
        >>> round(arc_over(2.0, 1.0), 4), arc_over(30.0, 0.0)
        (3.1416, 30.0)

    Source: plain geometry.
    """
    if high < 1e-9:
        return chord
    radius = (chord * chord / 4 + high * high) / (2 * high)
    return 2 * radius * math.asin(min(1.0, chord / (2 * radius)))
