"""Sums of cords: the lark's head on a ring, knots, what goes into a cord end."""

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


def least_insert(cord: float) -> float:
    """Return how far a cord goes into its end, two cords and 4 mm at least; common practice."""
    return max(INSERT * cord, LEAST_INSERT)
