"""Where a necklace falls: a chain hung between the shoulder points, with or without a pendant."""

import math
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from jamreel.core.roots import root

Array = npt.NDArray[np.float64]


@dataclass(frozen=True)
class Fall:
    """A hanging front: span and length [mm], the catenary's parameter a [mm] and where its low
    point would lie left of the middle, x0 [mm] (0 without a pendant), and the sag [mm]."""

    span: float
    length: float
    a: float
    x0: float
    sag: float

    def points(self, count: int = 81) -> Array:
        """Return the line from left to right, (0, 0) between the shoulder points, y downwards < 0.

        Args:
            count: number of points, odd, so that the middle is one of them.

        Returns:
            Points of shape (count, 2) [mm].

        Source: the two catenary arcs that ``hang`` solved.
        """
        x = np.linspace(-self.span / 2, self.span / 2, count)
        top = math.cosh((self.x0 + self.span / 2) / self.a)
        y = self.a * (np.cosh((self.x0 + np.abs(x)) / self.a) - top)
        return np.column_stack([x, y])

    def place(self, along: float) -> tuple[float, float]:
        """Return the place so far along the line from its left end [mm], y downwards < 0.

        Args:
            along: 0 to its length [mm]; beyond it, its nearer end.

        Source: ``points``, straight between them.
        """
        line = self.points(401)
        run = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(line, axis=0).T))])
        at = along / self.length * run[-1]
        x, y = (float(np.interp(at, run, line[:, axis])) for axis in (0, 1))
        return x, y

    def chord(self, start: float, end: float) -> float:
        """Return how far two places of the line, so far along it [mm], are from each other [mm]."""
        return math.dist(self.place(start), self.place(end))


def hang(span: float, length: float, pendant: float = 0.0, per_mm: float = 1.0) -> Fall:
    """Return how a chain hangs between two points at the same height.

        without a pendant: length = 2 a sinh(span / 2a), sag = a (cosh(span / 2a) - 1)
        with one: two catenary arcs that meet at a kink, sinh(x0 / a) = M / (2 m a)

    Args:
        span: between the points [mm], over 0.
        length: of the hanging chain [mm], over the span.
        pendant: mass M at the middle [g], not negative.
        per_mm: mass m of the chain per mm [g], over 0.

    Returns:
        The fall. As the pendant grows it approaches a V.

    Raises:
        ValueError: a chain not longer than the span, or masses that can't be.

    Example:
        >>> fall = hang(180, 220)
        >>> round(fall.a, 3), round(fall.sag, 3)
        (80.418, 55.843)

    Source: the catenary and a catenary with a point load; statics textbooks, published.
    """
    if not (span > 0 and length > span and pendant >= 0 and per_mm > 0):
        raise ValueError(f"can't hang {length:g} mm over {span:g} mm with {pendant:g} g")
    half, load = span / 2, pendant / (2 * per_mm)

    def start(a: float) -> float:
        return a * math.asinh(load / a)

    def miss(a: float) -> float:
        return a * (math.sinh((start(a) + half) / a) - load / a) - length / 2

    # Down to where sinh still is a number; upwards a chain pulled straight never gets there.
    a = root(miss, half / 300, 1e3 * (half + load) * span / (length - span))
    x0 = start(a)
    sag = a * (math.cosh((x0 + half) / a) - math.cosh(x0 / a))
    return Fall(span=span, length=length, a=a, x0=x0, sag=sag)


def length_that_falls(span: float, sag: float) -> float:
    """Return how long a chain is that falls so far between two points at the same height.

        sag = a (cosh(span / 2a) - 1), length = 2 a sinh(span / 2a)

    Args:
        span: between the points [mm], over 0.
        sag: how far its middle falls below them [mm], not negative.

    Returns:
        Length [mm]; the span itself for no sag.

    Raises:
        ValueError: a span or a sag that can't be.

    Example:
        >>> round(length_that_falls(180, 55.843), 2)
        220.0

    Source: the catenary; statics textbooks, published.
    """
    if not (span > 0 and sag >= 0):
        raise ValueError(f"no chain falls {sag:g} mm over {span:g} mm")
    if sag < 1e-6 * span:
        return span
    half = span / 2
    # A flat chain is a parabola, a = span^2 / 8 sag; a deep one hangs closer.
    a = root(lambda x: x * (math.cosh(half / x) - 1) - sag, half / 300, half**2 / sag + sag)
    return 2 * a * math.sinh(half / a)
