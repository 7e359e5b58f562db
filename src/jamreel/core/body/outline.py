"""Outlines of the body in section: rounded oblongs, fuller than an ellipse."""

import math
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
import numpy.typing as npt

from jamreel.core.errors import Refusal
from jamreel.core.roots import root
from jamreel.core.units import Mm

Array = npt.NDArray[np.float64]

# Breadth over depth, and the superellipse's exponent, when only the girth was read: common
# practice, from memory. A head is longer than it is broad.
SHAPES: dict[str, tuple[float, float]] = {
    "wrist": (1.39, 2.5),
    "neck": (1.10, 2.0),
    "head": (1 / 1.29, 2.4),
    "ankle": (1 / 1.2, 2.2),
    "arm": (1.1, 2.0),
}
SQUAREST, ROUNDEST = 4.0, 1.8
_NODES, _WEIGHTS = np.polynomial.legendre.leggauss(96)


def _radius(theta: Array, a: float, b: float, n: float) -> tuple[Array, Array]:
    """Return the polar radius of |x/a|^n + |y/b|^n = 1 and its derivative by the angle."""
    c, s = np.cos(theta), np.sin(theta)
    u, v = (c / a) ** n, (s / b) ** n
    r = (u + v) ** (-1 / n)
    slope = r / (u + v) * ((c / a) ** (n - 1) * s / a - (s / b) ** (n - 1) * c / b)
    return r, slope


def superellipse_perimeter(a: float, b: float, n: float) -> float:
    """Return the perimeter of the superellipse |x/a|^n + |y/b|^n = 1.

    Four times the arc length over a quarter, by Gauss-Legendre quadrature in the polar angle.

    Args:
        a: semi-axis across [mm], over 0.
        b: semi-axis through [mm], over 0.
        n: exponent, 2 (ellipse) to 4.

    Returns:
        Perimeter [mm], to about 1e-7 relative for semi-axes within 1 : 3.

    Raises:
        ValueError: a or b not positive, or n outside 1.8 to 4.

    Example:
        >>> round(superellipse_perimeter(35, 25, 2.0), 4)
        189.8068

    Source: arc length of a polar curve, any calculus textbook.
    """
    if not (a > 0 and b > 0 and 1.8 <= n <= 4):
        raise ValueError(f"superellipse needs a, b > 0 and n in 1.8 to 4, got {a}, {b}, {n}")
    theta = (_NODES + 1) * math.pi / 4
    r, slope = _radius(theta, a, b, n)
    return float(4 * math.pi / 4 * np.sum(_WEIGHTS * np.hypot(r, slope)))


@lru_cache(maxsize=64)
def _unit_perimeter(ratio: float, n: float) -> float:
    return superellipse_perimeter(ratio, 1.0, n)


def semi_axes(girth: float, ratio: float, n: float) -> tuple[float, float]:
    """Return the semi-axes of the superellipse of a given girth and breadth : depth ratio.

    Args:
        girth: perimeter [mm], over 0.
        ratio: breadth over depth.
        n: exponent.

    Returns:
        Semi-axes across and through [mm].

    Example:
        >>> a, b = semi_axes(160.0, 1.39, 2.5)
        >>> round(2 * a, 1), round(2 * b, 1)
        (56.6, 40.7)

    Source: plain geometry (perimeters scale with size).
    """
    b = girth / _unit_perimeter(ratio, n)
    return ratio * b, b


@dataclass(frozen=True)
class Outline:
    """A superellipse: semi-axes across and through [mm], and its exponent."""

    across: float
    through: float
    exponent: float

    @property
    def girth(self) -> float:
        """Perimeter [mm]."""
        return superellipse_perimeter(self.across, self.through, self.exponent)

    def points(self, count: int = 360) -> "tuple[Array, Array]":
        """Return points from the top clockwise and their outward normals."""
        return outline_points(self.across, self.through, self.exponent, count)


def usual_outline(part: str, girth: float) -> Outline:
    """Return the outline of a part of the body from its girth alone.

    Args:
        part: ``wrist``, ``neck``, ``head``, ``ankle`` or ``arm``.
        girth: perimeter [mm].

    Returns:
        The superellipse of that girth with the part's usual proportion.

    Source: proportions are common practice, from memory.
    """
    ratio, exponent = SHAPES[part]
    across, through = semi_axes(girth, ratio, exponent)
    return Outline(across, through, exponent)


def measured_outline(part: str, girth: float, breadth: float, depth: float) -> Outline:
    """Return the outline on which girth, breadth and depth agree, by solving for the exponent.

    Args:
        part: the part of the body, for its usual proportion.
        girth: perimeter [mm].
        breadth: across [mm].
        depth: through [mm].

    Returns:
        The superellipse with these three.

    Raises:
        Refusal: no exponent from 1.8 to 4 fits; ``which`` names the reading to take again.

    Example:
        >>> round(measured_outline("wrist", 189.8068, 70, 50).exponent, 3)
        2.0

    Source: plain geometry, solved by ``roots.root``.
    """
    a, b = breadth / 2, depth / 2

    def miss(n: float) -> float:
        return superellipse_perimeter(a, b, n) - girth

    if miss(ROUNDEST) > 0 or miss(SQUAREST) < 0:
        raise Refusal(
            "contradiction",
            got=(Mm(girth), Mm(breadth), Mm(depth)),
            low=miss(ROUNDEST) + girth,
            high=miss(SQUAREST) + girth,
            which=odd_one(part, girth, breadth, depth),
        )
    return Outline(a, b, root(miss, ROUNDEST, SQUAREST, within=1e-10))


def half_ellipse(breadth: float, arc: float) -> Outline | None:
    """Return the ellipse whose upper half is a breadth wide and an arc long.

    Args:
        breadth: 2 a, where the half stands [mm].
        arc: over its top from side to side [mm].

    Returns:
        The whole ellipse, its half height b ``through``; None where b would be under a quarter or
        over four times a: no head.

    Example:
        >>> round(half_ellipse(150.0, 340.0).through, 1)
        136.9

    Source: plain geometry, solved by ``roots.root``.
    """
    a = breadth / 2

    def miss(b: float) -> float:
        return superellipse_perimeter(a, b, 2.0) / 2 - arc

    low, high = a / 4, 4 * a
    if miss(low) > 0 or miss(high) < 0:
        return None
    return Outline(a, root(miss, low, high, within=1e-9), 2.0)


def width_above(ellipse: Outline, above: float) -> float:
    """Return how wide an ellipse is where an arc of some length upwards from its side ends.

    Args:
        ellipse: exponent 2.
        above: along it from the widest place [mm].

    Returns:
        Width [mm].

    Example:
        On a circle of radius 60, 20 along it is a third of a radian.

        >>> round(width_above(Outline(60.0, 60.0, 2.0), 20.0), 1)
        113.4

    Source: plain geometry, by the trapezium rule.
    """
    turn = np.linspace(0.0, np.pi / 2, 1000)
    x, y = ellipse.across * np.cos(turn), ellipse.through * np.sin(turn)
    run = np.concatenate([[0.0], np.cumsum(np.hypot(np.diff(x), np.diff(y)))])
    return 2 * float(np.interp(above, run, x))


def odd_one(part: str, girth: float, breadth: float, depth: float) -> str:
    """Return which of girth, breadth and depth fits the other two least.

    Breadth and depth are held against what is usual for the girth: both off the same way speaks
    against the girth, otherwise the one that is further off is at fault.

    Args:
        part: the part of the body.
        girth: [mm].
        breadth: [mm].
        depth: [mm].

    Source: common practice, no source.
    """
    usual = usual_outline(part, girth)
    broad = math.log(breadth / (2 * usual.across))
    deep = math.log(depth / (2 * usual.through))
    if broad * deep > 0 and min(abs(broad), abs(deep)) > 0.5 * max(abs(broad), abs(deep)):
        return "girth"
    return "breadth" if abs(broad) > abs(deep) else "depth"


# A keystroke seldom changes the body.
@lru_cache(maxsize=64)
def outline_points(a: float, b: float, n: float, count: int) -> tuple[Array, Array]:
    """Return points evenly spaced along a superellipse, and its outward normals there.

    Args:
        a: semi-axis across [mm].
        b: semi-axis through [mm].
        n: exponent.
        count: number of points; the first is at the top (0, b), going clockwise.

    Returns:
        Points and unit normals, each of shape (count, 2).

    Source: plain geometry.
    """
    t = np.linspace(0, 2 * np.pi, 2000, endpoint=False)
    theta = np.pi / 2 - t
    c, s = np.cos(theta), np.sin(theta)
    r = (np.abs(c / a) ** n + np.abs(s / b) ** n) ** (-1 / n)
    dense = np.column_stack([r * c, r * s])
    closed = np.vstack([dense, dense[:1]])
    run = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(closed, axis=0).T))])
    at = np.linspace(0, run[-1], count, endpoint=False)
    points = np.column_stack([np.interp(at, run, closed[:, k]) for k in (0, 1)])
    gradient = np.column_stack(
        [
            np.sign(points[:, k]) * np.abs(points[:, k] / m) ** (n - 1) / m
            for k, m in ((0, a), (1, b))
        ]
    )
    normals = gradient / np.linalg.norm(gradient, axis=1, keepdims=True)
    for kept in (points, normals):
        kept.setflags(write=False)
    return points, normals


class Ring:
    """A closed line round a body, by the distance run along it, with outward normals.

    Made from an outline by moving every point outwards along its normal, which lengthens a
    convex outline by 2 pi times the offset (Steiner). Runs clockwise from the top.
    """

    def __init__(self, outline: Array, normals: Array, offset: float) -> None:
        points = outline + offset * normals
        self._points = np.vstack([points, points[:1]])
        self._normals = np.vstack([normals, normals[:1]])
        self._run = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(self._points, axis=0).T))])

    @property
    def length(self) -> float:
        """Length of the ring [mm]."""
        return float(self._run[-1])

    def at(self, run: Array, lift: Array | float = 0.0) -> Array:
        """Return points at distances ``run`` [mm] from the top, lifted outwards by ``lift``."""
        where = np.mod(run, self.length)
        xy = np.column_stack([np.interp(where, self._run, self._points[:, k]) for k in (0, 1)])
        out = np.column_stack([np.interp(where, self._run, self._normals[:, k]) for k in (0, 1)])
        out /= np.linalg.norm(out, axis=1, keepdims=True)
        return xy + np.reshape(lift, (-1, 1)) * out


def hull_with_finger(outline: Array, finger: float) -> tuple[Array, Array, Array]:
    """Return the belt round a wrist with a finger under it, at the wrist's lowest point.

    Args:
        outline: points of the wrist, shape (n, 2) [mm].
        finger: the finger's thickness [mm].

    Returns:
        Belt points from the top clockwise, their outward normals, and the finger's circle, each
        of shape (m, 2).

    Source: convex hull (scipy.spatial), plain geometry.
    """
    turn = np.linspace(0, 2 * np.pi, 90, endpoint=False)
    low = float(outline[:, 1].min())
    circle = np.column_stack(
        [finger / 2 * np.cos(turn), low - finger / 2 + finger / 2 * np.sin(turn)]
    )
    # Only a finger under the piece wants it: loading takes longer than a plan.
    from scipy.spatial import ConvexHull

    cloud = np.vstack([outline, circle])
    hull = cloud[ConvexHull(cloud).vertices][::-1]
    start = int(np.argmax(hull[:, 1] - 1e-6 * np.abs(hull[:, 0])))
    belt = _even(np.roll(hull, -start, axis=0), 360)
    ahead = np.roll(belt, -1, axis=0) - np.roll(belt, 1, axis=0)
    normals = np.column_stack([-ahead[:, 1], ahead[:, 0]])
    return belt, normals / np.linalg.norm(normals, axis=1, keepdims=True), circle


def _even(polygon: Array, count: int) -> Array:
    closed = np.vstack([polygon, polygon[:1]])
    run = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(closed, axis=0).T))])
    at = np.linspace(0, run[-1], count, endpoint=False)
    return np.column_stack([np.interp(at, run, closed[:, k]) for k in (0, 1)])
