"""Finding a crossing, beside SciPy's own."""

import math
from collections.abc import Callable

import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.optimize import brentq

from jamreel.core.roots import MOST_STEPS, root

CURVES: dict[str, tuple[Callable[[float], float], float, float]] = {
    "square": (lambda x: x * x - 2, 0.0, 2.0),
    "cosine": (lambda x: math.cos(x) - x, 0.0, 1.0),
    "catenary": (lambda a: 2 * a * math.sinh(100 / a) - 260, 20.0, 2000.0),
    "steep": (lambda x: math.exp(40 * x) - 5, -1.0, 1.0),
    "step": (lambda x: -1.0 if x < 0.7311 else 1.0, 0.0, 1.0),
    "falling": (lambda x: 5 - x**3, 0.0, 3.0),
}


@pytest.mark.parametrize("name", sorted(CURVES))
def test_the_crossing_is_where_scipy_finds_it(name: str) -> None:
    curve, low, high = CURVES[name]
    found = root(curve, low, high)
    assert found == pytest.approx(brentq(curve, low, high, xtol=1e-13), abs=1e-9)
    assert low <= found <= high


@given(st.floats(-50, 50), st.floats(0.01, 20), st.floats(0.1, 40))
def test_a_straight_line_is_met_exactly(at: float, slope: float, reach: float) -> None:
    found = root(lambda x: slope * (x - at), at - reach, at + 0.7 * reach)
    assert found == pytest.approx(at, abs=1e-9)


def test_few_looks_do() -> None:
    looks = 0

    def curve(x: float) -> float:
        nonlocal looks
        looks += 1
        return math.tanh(x - 1.2) + 0.1 * x

    root(curve, -40.0, 60.0)
    # Halving alone takes some fifty.
    assert looks < 22


def test_an_end_that_is_the_crossing_is_it() -> None:
    assert root(lambda x: x - 3, 3.0, 8.0) == 3.0
    assert root(lambda x: x - 8, 3.0, 8.0) == 8.0


@pytest.mark.parametrize(
    "curve", [lambda x: x * x + 1, lambda x: -1.0, lambda x: math.nan, lambda x: math.inf]
)
def test_without_a_crossing_there_is_no_number(curve: Callable[[float], float]) -> None:
    with pytest.raises(ValueError, match="unlike signs"):
        root(curve, -1.0, 1.0)


def test_a_wild_function_ends_within_the_steps_allowed() -> None:
    looks = 0

    def wild(x: float) -> float:
        nonlocal looks
        looks += 1
        return -1.0 if x < 1e-30 else 1e30

    root(wild, -1.0, 1e9)
    assert looks <= MOST_STEPS + 2


def test_it_stops_as_near_as_asked() -> None:
    looks = []
    for within in (1e-2, 1e-12):
        count = 0

        def curve(x: float) -> float:
            nonlocal count
            count += 1
            return math.exp(x) - 3

        found = root(curve, 0.0, 5.0, within)
        assert abs(found - math.log(3)) <= within
        looks.append(count)
    assert looks[0] < looks[1]
