"""How near the strands of a body come to each other."""

from itertools import combinations

import numpy as np
from scipy.spatial import cKDTree

from jamreel.core.interlace.cells import Cell
from jamreel.core.interlace.space import Array, spaced

# Lines are compared in points so many of the thinner wire apart: 0.3 % of a distance, at most.
FINE = 0.08
# Along one wire, what is nearer than so many of its thickness is no other strand.
SAME_STRETCH = 2.6


def clearance(cell: Cell) -> float:
    """Return how near the strands of a body come to each other, as a share of (d1 + d2) / 2.

    The cell is looked at between two of its own kind.

    Args:
        cell: whose strands run on from cell to cell.

    Returns:
        1 where strands touch, less where they would lie in each other.

    Source: nearest points of two sets (SciPy's k-d tree).
    """
    clouds = _clouds(cell.repeated(3))
    nearest = [np.inf]
    for role, d, points, at in clouds:
        if role == "working":
            nearest.append(_within(points, at, d) / d)
    for (_, d1, one, _), (_, d2, two, _) in combinations(clouds, 2):
        apart = np.asarray(cKDTree(one).query(two)[0])
        nearest.append(float(apart.min()) / ((d1 + d2) / 2))
    return min(nearest)


def _clouds(cell: Cell) -> list[tuple[str, float, Array, Array]]:
    """Return each wire as points with how far along it each lies [mm]; strands that run on into
    each other are one wire."""
    finest = min(one.d for one in cell.strands) * FINE
    wires: list[tuple[str, float, list[Array]]] = []
    for one in cell.strands:
        line = spaced(one.line, finest)
        for known in wires:
            joins = np.linalg.norm(known[2][-1][-1] - line[0]) < one.d / 2
            if known[0] == one.role and known[1] == one.d and joins and one.runs_on:
                known[2].append(line)
                break
        else:
            wires.append((one.role, one.d, [line]))
    found = []
    for role, d, lines in wires:
        points = np.vstack(lines)
        run = np.linalg.norm(np.diff(points, axis=0), axis=1)
        found.append((role, d, points, np.concatenate([[0.0], np.cumsum(run)])))
    return found


def _within(points: Array, at: Array, d: float) -> float:
    """Return how near a wire comes to itself [mm], stretches next to each other apart."""
    pairs = cKDTree(points).query_pairs(1.5 * d, output_type="ndarray")
    if not len(pairs):
        return 1.5 * d
    apart = np.abs(at[pairs[:, 0]] - at[pairs[:, 1]]) > SAME_STRETCH * d
    pairs = pairs[apart]
    if not len(pairs):
        return 1.5 * d
    return float(np.linalg.norm(points[pairs[:, 0]] - points[pairs[:, 1]], axis=1).min())
