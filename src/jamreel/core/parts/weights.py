"""What bought things weigh when nobody put them on a scale.

Figures from memory, for a total that is not off by all of them.
"""

import math

STEEL, BRASS = 7.85, 8.53
"""Densities [g/cm3]; from memory, as in the table of metals."""
CHAIN_G_PER_M = 9.0
CLASP_G_PER_MM = 0.055
RIBBON_G_PER_MM = 0.003
COMB_G, SOLDER_G = 3.0, 0.05
CAP_WALL_MM = 0.5


def split_ring_mass(inner: float, wire: float) -> float:
    """Return the mass of two turns of steel wire, 2 pi (D + d) times its area.

    Args:
        inner: D [mm].
        wire: d [mm].

    Returns:
        Mass [g].

    Example:
        >>> round(split_ring_mass(4.0, 0.7), 3)
        0.089

    Source: plain geometry; density from memory.
    """
    return STEEL * 1e-3 * 2 * math.pi * (inner + wire) * math.pi * wire**2 / 4


def end_cap_mass(width: float, length: float) -> float:
    """Return the mass of a brass cap: a tube with a plate, walls half a millimetre thick.

    Args:
        width: outside [mm].
        length: [mm].

    Returns:
        Mass [g].

    Example:
        >>> round(end_cap_mass(7.0, 9.0), 2)
        1.01

    Source: plain geometry; wall and density from memory.
    """
    return BRASS * 1e-3 * CAP_WALL_MM * (math.pi * width * length + math.pi * width**2 / 4)
