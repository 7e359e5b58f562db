"""Handbook values of fit: the finger's belt and population rows as the sources print them.

Machinery's Handbook: length of an open belt. Checked as the exact tangent construction below.
Heinz, Peterson, Johnson & Kerk (2003), Journal of Statistics Education 11(2), and Johnson (1996),
ibid. 4(1): the rows themselves are recomputed from the packages that carry them in a later check;
here only that what is offered is what is printed.
"""

import math

import pytest

from jamreel.core.body.facts import populations
from jamreel.core.fit.ease import finger_ease


@pytest.mark.parametrize(("girth", "finger", "ease"), [(160, 15, 19.55), (150, 14, 18.21)])
def test_one_finger(girth: float, finger: float, ease: float) -> None:
    assert finger_ease(girth, finger) == pytest.approx(ease, abs=0.005)
    # For touching circles the straight runs are 2 sqrt(R r) each, by Pythagoras.
    wide, narrow = girth / (2 * math.pi), finger / 2
    straight = 2 * math.sqrt(wide * narrow)
    wrapped = math.pi + 2 * math.asin((wide - narrow) / (wide + narrow))
    belt = 2 * straight + wide * wrapped + narrow * (2 * math.pi - wrapped)
    assert finger_ease(girth, finger) == pytest.approx(belt - girth, abs=1e-9)


@pytest.mark.parametrize(
    ("key", "n", "mean", "sd", "percentiles"),
    [
        ("wrist_women", 260, 150.6, 8.49, (138, 150, 164)),
        ("wrist_men", 247, 171.9, 9.08, (158, 171, 188)),
        ("wrist_men_all", 252, 182.3, 9.34, (168, 183, 198)),
    ],
)
def test_population_rows(
    key: str, n: int, mean: float, sd: float, percentiles: tuple[float, ...]
) -> None:
    row = populations()[key]
    assert (row.n, row.mean, row.sd) == (n, mean, sd)
    assert tuple(row.at(p) for p in (5, 50, 95)) == percentiles
    # A bell curve of that mean and deviation has its 5th and 95th percentile 1.645 sd away.
    assert row.at(95) - row.at(5) == pytest.approx(2 * 1.645 * sd, rel=0.08)
