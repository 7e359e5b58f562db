"""A bead plan as a maker lays it out: the largest first, evenly, then what fills between."""


def laid_evenly(large: int, fillers: int) -> tuple[int, ...]:
    """Return how many fillers lie before, between and behind large beads.

    Inner gaps are alike; each end has half a gap, so that the pattern closes evenly where the ends
    meet. What does not divide goes to the gaps from the middle outwards, the same left and right
    as far as it will.

    Args:
        large: number of large beads.
        fillers: number of beads that fill between.

    Returns:
        ``large + 1`` counts that add up to ``fillers``.

    Example:
        >>> laid_evenly(3, 12)
        (2, 4, 4, 2)
        >>> laid_evenly(3, 13)
        (2, 5, 4, 2)

    Source: common practice.
    """
    if large == 0:
        return (fillers,)
    gap = fillers // large
    first = gap // 2
    gaps = [first, *[gap] * (large - 1), gap - first]
    order = sorted(range(large + 1), key=lambda i: (abs(i - large / 2), i))
    for i in range(fillers - gap * large):
        gaps[order[i % len(order)]] += 1
    return tuple(gaps)
