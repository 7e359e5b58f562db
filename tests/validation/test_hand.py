"""A maker's hand against a reference library, and against makers of whom everything is known.

Student's t, the normal and the gamma distribution: SciPy. The check values are those of the
handbook of the trade; the first figures of the belief (5 % between makers, 3 % within) are from
memory.
"""

import math

import numpy as np
import pytest
from scipy import stats

from jamreel.core.hand.belief import (
    FIRST_ALPHA,
    FIRST_BETA,
    FIRST_KAPPA,
    Seen,
    Taken,
    believe,
    long_enough,
    seen,
    t_point,
    whole_wire,
)

MAKERS = 10_000


@pytest.mark.parametrize(
    ("ratios", "mean", "point"),
    [
        ((), 1.0, 1.1133),
        ((1.06, 1.08), 1.0593, 1.1254),
        ((1.04, 1.06, 1.07, 1.08, 1.10), 1.0653, 1.1214),
    ],
)
def test_the_values_of_the_handbook(ratios: tuple[float, ...], mean: float, point: float) -> None:
    belief = believe(seen(ratios))
    assert belief.mean == pytest.approx(mean, abs=1e-4)
    assert long_enough(belief) == pytest.approx(point, abs=1e-4)
    # The same point by a library, with the posterior written out.
    n, r = len(ratios), np.array(ratios)
    kappa, alpha = 0.36 + n, 3 + n / 2
    m = (0.36 + r.sum()) / kappa
    far = 0.36 * n * (r.mean() - 1) ** 2 / (2 * kappa) if n else 0.0
    beta = 3 * 0.03**2 + ((r - r.mean()) ** 2).sum() / 2 + far if n else 3 * 0.03**2
    scale = math.sqrt(beta * (kappa + 1) / (alpha * kappa))
    by_scipy = stats.t(df=2 * alpha, loc=m, scale=scale).ppf(0.95)
    assert long_enough(belief) == pytest.approx(by_scipy, abs=1e-9)


@pytest.mark.parametrize("freedom", [2.5, 6.0, 7.31, 40.0, 1e5])
def test_points_of_students_t(freedom: float) -> None:
    for share in (0.5, 0.9, 0.95, 0.975):
        assert t_point(share, freedom) == pytest.approx(stats.t.ppf(share, freedom), abs=1e-8)


def _held(draws: np.ndarray, records: int) -> float:
    """Return in what share of makers the wire after so many records was long enough."""
    long = 0
    for row in draws:
        long += row[records] <= long_enough(believe(seen(row[:records].tolist())))
    return long / len(draws)


@pytest.mark.parametrize("records", [0, 1, 2, 5, 20])
def test_makers_drawn_from_the_belief_cut_long_enough_19_times_in_20(records: int) -> None:
    random = np.random.default_rng(20261127 + records)
    variance = 1 / random.gamma(FIRST_ALPHA, 1 / FIRST_BETA, MAKERS)
    mean = random.normal(1.0, np.sqrt(variance / FIRST_KAPPA))
    draws = random.normal(mean[:, None], np.sqrt(variance)[:, None], (MAKERS, records + 1))
    assert 0.94 <= _held(draws, records) <= 0.98


@pytest.mark.parametrize(
    ("records", "least", "most"),
    [(0, 0.92, 0.96), (1, 0.92, 0.96), (2, 0.93, 0.97), (5, 0.93, 0.97), (20, 0.93, 0.97)],
)
def test_a_maker_who_takes_seven_percent_more(records: int, least: float, most: float) -> None:
    random = np.random.default_rng(7 + records)
    draws = random.normal(1.07, 0.03, (MAKERS, records + 1))
    assert least <= _held(draws, records) <= most


def test_several_techniques_in_one_wire_add_by_welch_and_satterthwaite() -> None:
    rows = [(30.0, [1.06, 1.08]), (120.0, [1.01, 0.99, 1.02]), (12.0, [])]
    taken = [Taken(mm, believe(seen(ratios))) for mm, ratios in rows]
    variances = [(one.planned * one.belief.scale) ** 2 for one in taken]
    freedom = sum(variances) ** 2 / sum(
        v**2 / one.belief.freedom for v, one in zip(variances, taken, strict=True)
    )
    mean = sum(one.planned * (one.belief.mean - 1) for one in taken)
    wanted = mean + stats.t.ppf(0.95, freedom) * math.sqrt(sum(variances))
    assert whole_wire(taken) == pytest.approx(wanted, abs=1e-9)


def test_one_technique_alone_is_its_own_point_and_none_adds_nothing() -> None:
    belief = believe(seen([1.06, 1.08]))
    assert whole_wire([Taken(50.0, belief)]) == pytest.approx(50 * (long_enough(belief) - 1))
    assert whole_wire([]) == 0.0
    assert whole_wire([Taken(0.0, belief)]) == 0.0


def test_what_was_seen_adds_up_in_any_order() -> None:
    ratios = [1.04, 1.06, 1.07, 1.08, 1.10, 0.97]
    every = seen(ratios)
    for cut in range(len(ratios) + 1):
        both = seen(ratios[cut:]) + seen(ratios[:cut])
        assert (both.n, both.mean) == pytest.approx((every.n, every.mean))
        assert both.squares == pytest.approx(np.var(ratios) * len(ratios), abs=1e-12)
    assert Seen() + every == every
    half = seen(ratios).weighing(0.5)
    assert (half.n, half.mean, half.squares) == pytest.approx((3.0, every.mean, every.squares / 2))
