"""What is believed of a maker's ratio, took over planned, and how long the next wire has to be.

A ratio is normal with unknown mean and spread; the belief is normal-inverse-gamma, so the next
ratio is Student's t.
"""

import math
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

# Before anything is known: mean 1, a spread of 3 % between wires of one maker and of 5 % between
# makers. From memory.
USUAL_MEAN, USUAL_SPREAD, BETWEEN = 1.0, 0.03, 0.05
FIRST_KAPPA = (USUAL_SPREAD / BETWEEN) ** 2
FIRST_ALPHA = 3.0
FIRST_BETA = FIRST_ALPHA * USUAL_SPREAD**2
Sureness = Literal["guess", "hint", "fair", "sure"]
# From so many records on a ratio is more than a hint, and may be sure, if its mean is as well known
# as that; from memory.
MORE_THAN_A_HINT, ENOUGH, WELL_KNOWN = 3, 8, 0.012
# Long enough 19 times in 20.
SURE = 0.95


@dataclass(frozen=True)
class Seen:
    """Ratios in short: how many (in weight), their mean, and the sum of squares about it."""

    n: float = 0.0
    mean: float = 0.0
    squares: float = 0.0

    def __add__(self, other: "Seen") -> "Seen":
        """Return both together; nothing seen is the neutral element."""
        n = self.n + other.n
        if n == 0:
            return self
        apart = other.mean - self.mean
        mean = self.mean + apart * other.n / n
        return Seen(n, mean, self.squares + other.squares + apart**2 * self.n * other.n / n)

    def weighing(self, factor: float) -> "Seen":
        """Return it with every ratio counting so much."""
        return Seen(self.n * factor, self.mean, self.squares * factor)


def seen(ratios: Iterable[float]) -> Seen:
    """Return ratios in short.

    Args:
        ratios: took over planned.

    Example:
        >>> seen([1.06, 1.08])
        Seen(n=2.0, mean=1.07, squares=0.0002)

    Source: plain arithmetic.
    """
    every = list(ratios)
    if not every:
        return Seen()
    mean = math.fsum(every) / len(every)
    squares = math.fsum((one - mean) ** 2 for one in every)
    return Seen(float(len(every)), round(mean, 15), round(squares, 15))


@dataclass(frozen=True)
class Belief:
    """What is believed of a ratio: its ``mean``, how much weight that has (``kappa``), and its
    variance about it (``alpha``, ``beta``)."""

    mean: float
    kappa: float
    alpha: float
    beta: float

    @property
    def freedom(self) -> float:
        """Degrees of freedom of the next ratio."""
        return 2 * self.alpha

    @property
    def scale(self) -> float:
        """Scale of the next ratio."""
        return math.sqrt(self.beta * (self.kappa + 1) / (self.alpha * self.kappa))

    @property
    def spread(self) -> float:
        """Standard deviation of ratios about their mean, as far as it is known."""
        return math.sqrt(self.beta / self.alpha)

    @property
    def sure_mean(self) -> float:
        """Scale of what is not known of the mean itself."""
        return math.sqrt(self.beta / (self.alpha * self.kappa))


def believe(what: Seen) -> Belief:
    """Return what is believed of a maker's ratio.

        kappa = kappa0 + n, m = (kappa0 m0 + n rbar) / kappa, alpha = alpha0 + n/2,
        beta = beta0 + S/2 + kappa0 n (rbar - m0)^2 / (2 kappa)

    Args:
        what: ratios that were seen, none at first.

    Returns:
        A belief that shrinks towards 1 while there are few.

    Example:
        >>> found = believe(seen([1.06, 1.08]))
        >>> round(found.mean, 4), round(long_enough(found), 4)
        (1.0593, 1.1254)

    Source: conjugate normal-inverse-gamma of any Bayesian textbook; its first figures from memory.
    """
    kappa = FIRST_KAPPA + what.n
    far = (what.mean - USUAL_MEAN) ** 2
    return Belief(
        mean=(FIRST_KAPPA * USUAL_MEAN + what.n * what.mean) / kappa,
        kappa=kappa,
        alpha=FIRST_ALPHA + what.n / 2,
        beta=FIRST_BETA + what.squares / 2 + FIRST_KAPPA * what.n * far / (2 * kappa),
    )


def long_enough(belief: Belief, sure: float = SURE) -> float:
    """Return the ratio that the next wire stays under, so often as is asked.

    Args:
        belief: about the ratio.
        sure: share of wires, 0.95 for 19 in 20.

    Example:
        >>> round(long_enough(believe(Seen())), 4)
        1.1133

    Source: Student's t with 2 alpha degrees of freedom about the mean.
    """
    return belief.mean + t_point(sure, belief.freedom) * belief.scale


def t_point(share: float, freedom: float) -> float:
    """Return the point that Student's t stays under so often.

    Args:
        share: between 0 and 1.
        freedom: degrees of freedom, whole or not.

    Example:
        >>> round(t_point(0.95, 6.0), 4)
        1.9432

    Source: SciPy's inverse of the distribution function.
    """
    # Only plans with a margin from the record come here; the others are spared the import.
    from scipy.special import stdtrit

    return float(stdtrit(freedom, share))


@dataclass(frozen=True)
class Taken:
    """Wire of one technique in one wire: so much by the sum [mm], and what is believed of it."""

    planned: float
    belief: Belief


def whole_wire(techniques: Iterable[Taken], sure: float = SURE) -> float:
    """Return how much more than its sum a wire of several techniques takes, so often as is asked.

    Means and variances add, weighted by planned length; degrees of freedom by Welch and
    Satterthwaite.

    Args:
        techniques: what goes into each; what stays straight takes what it is long.
        sure: share of wires, 0.95 for 19 in 20.

    Returns:
        Length [mm] to add to the sum, less than nothing for a hand that takes less.

    Example:
        >>> round(whole_wire([Taken(100.0, believe(Seen()))]), 2)
        11.33

    Source: Welch-Satterthwaite; published.
    """
    every = [one for one in techniques if one.planned > 0]
    if not every:
        return 0.0
    variances = [(one.planned * one.belief.scale) ** 2 for one in every]
    total = sum(variances)
    shares = (
        (v / total) ** 2 / one.belief.freedom for v, one in zip(variances, every, strict=True)
    )
    more = sum(one.planned * (one.belief.mean - 1) for one in every)
    return more + t_point(sure, 1 / sum(shares)) * math.sqrt(total)


def sureness(what: Seen) -> Sureness:
    """Return how sure a ratio is: by how many records there are, and how they agree.

    Args:
        what: ratios that were seen.

    Example:
        >>> sureness(Seen()), sureness(seen([1.06, 1.08])), sureness(seen([1.03, 1.04] * 6))
        ('guess', 'hint', 'sure')

    Source: from memory.
    """
    if what.n == 0:
        return "guess"
    if what.n < MORE_THAN_A_HINT:
        return "hint"
    return "sure" if what.n >= ENOUGH and believe(what).sure_mean < WELL_KNOWN else "fair"
