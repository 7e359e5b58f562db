"""Finding where a function crosses nought, without the time that a large library takes to load.

A plan from the shell solves some five equations in a few microseconds each; loading SciPy for them
takes twenty times as long as all the planning. The tests hold this against SciPy's own.
"""

import math
from collections.abc import Callable

MOST_STEPS = 200


def root(miss: Callable[[float], float], low: float, high: float, within: float = 1e-12) -> float:
    """Return where a continuous function crosses nought between two places.

    Args:
        miss: the function, of unlike signs at the two places.
        low: one place.
        high: the other.
        within: how near the crossing the answer has to be, beside rounding.

    Returns:
        The place; the nearest to nought of all that were tried.

    Raises:
        ValueError: like signs at both places, or a function that gives no number.

    Example:
        >>> round(root(lambda x: x * x - 2, 0.0, 2.0), 9)
        1.414213562

    Source: Chandrupatla 1997, a new hybrid quadratic/bisection algorithm for finding the zero of a
        nonlinear function, Advances in Engineering Software 28(3).
    """
    a, b = high, low
    fa, fb = miss(a), miss(b)
    if fa == 0 or fb == 0:
        return a if fa == 0 else b
    if not fa * fb < 0:
        raise ValueError("the function must have unlike signs at both places")
    share = 0.5
    for _ in range(MOST_STEPS):
        x = a + share * (b - a)
        fx = miss(x)
        # Of the old bracket the end of unlike sign stays, the other is kept for the curve.
        if (fx < 0) == (fa < 0):
            c, fc = a, fa
        else:
            c, fc, b, fb = b, fb, a, fa
        a, fa = x, fx
        best, fbest = (a, fa) if abs(fa) < abs(fb) else (b, fb)
        least = (4e-16 * abs(best) + within) / abs(b - a)
        if fbest == 0 or least > 0.5:
            return best
        share = min(max(_share(a, fa, b, fb, c, fc), least), 1 - least)
    raise ValueError("no crossing was found")


def _share(a: float, fa: float, b: float, fb: float, c: float, fc: float) -> float:
    """Return where to look next as a share of the bracket: by a parabola where that is safe."""
    along, across = (a - b) / (c - b), (fa - fb) / (fc - fb)
    if not (across**2 < along and (1 - across) ** 2 < 1 - along):
        return 0.5
    share = fa / (fb - fa) * fc / (fb - fc) + (c - a) / (b - a) * fa / (fc - fa) * fb / (fc - fb)
    return share if math.isfinite(share) else 0.5
