"""The fall of a chain against closed values and against an equilibrium found by minimising energy.

The catenary: any statics textbook; values below computed by hand from a sinh and a cosh.
scipy.optimize.minimize (BSD): a chain of many stiff links with a weight at its middle finds the
shape of least potential energy by itself, knowing nothing of catenaries.
"""

import math

import numpy as np
import pytest
from scipy.optimize import minimize

from jamreel.core.fit.fall import hang


def v_sag(span: float, length: float) -> float:
    """A front pulled into a V by a pendant much heavier than itself, by Pythagoras."""
    return math.sqrt(length**2 - span**2) / 2


def test_closed_values() -> None:
    fall = hang(180, 220)
    assert [fall.a, fall.sag] == pytest.approx([80.418, 55.843], abs=5e-4)
    assert hang(100, 105).sag == pytest.approx(13.930, abs=5e-4)
    assert hang(115, 270).sag == pytest.approx(113.56, abs=5e-3)
    assert v_sag(115, 270) == pytest.approx(122.14, abs=5e-3)


def test_a_heavy_pendant_pulls_a_v() -> None:
    mass = 270 * 0.01
    assert hang(115, 270, 100 * mass, 0.01).sag == pytest.approx(v_sag(115, 270), abs=0.5)
    falls = [hang(115, 270, times * mass, 0.01).sag for times in (0, 0.1, 1, 10, 1000)]
    assert falls == sorted(falls)
    assert falls[-1] < v_sag(115, 270)


def least_energy_sag(span: float, length: float, pendant: float, per_mm: float) -> float:
    """Lowest point of a chain of links, by the angles that make its potential energy least."""
    half = 40
    link = length / (2 * half)
    # By symmetry the left half is enough: its links' slopes, ends tied by the span.
    weights = per_mm * link * np.ones(half)

    def heights(angles: np.ndarray) -> np.ndarray:
        return -np.cumsum(link * np.sin(angles))

    def energy(angles: np.ndarray) -> float:
        y = np.concatenate([[0.0], heights(angles)])
        return float(weights @ ((y[1:] + y[:-1]) / 2) + pendant / 2 * y[-1])

    tie = {"type": "eq", "fun": lambda a: np.sum(link * np.cos(a)) - span / 2}
    start = np.linspace(1.3, 0.2, half)
    found = minimize(  # type: ignore[call-overload]  # the stubs lack this form of constraint
        energy, start, constraints=[tie], method="SLSQP", options={"maxiter": 500, "ftol": 1e-12}
    )
    assert found.success, found.message
    return float(-heights(found.x)[-1])


@pytest.mark.parametrize(
    ("span", "length", "pendant"), [(115, 270, 0.0), (115, 270, 5.0), (125, 190, 2.0)]
)
def test_the_shape_of_least_energy(span: float, length: float, pendant: float) -> None:
    sag = hang(span, length, pendant, 0.01).sag
    assert sag == pytest.approx(least_energy_sag(span, length, pendant, 0.01), abs=0.15)


@pytest.mark.parametrize("pendant", [0.0, 3.0, 80.0])
def test_the_drawn_line_has_the_chains_length_and_sag(pendant: float) -> None:
    fall = hang(120, 260, pendant, 0.009)
    line = fall.points(2001)
    assert np.linalg.norm(np.diff(line, axis=0), axis=1).sum() == pytest.approx(260, abs=0.01)
    assert line[:, 1].min() == pytest.approx(-fall.sag)
    assert abs(line[0, 1]) < 1e-9
    assert line[1000, 0] == pytest.approx(0, abs=1e-9)


def test_what_can_not_hang_is_refused() -> None:
    for wrong in ((120, 110), (0, 10), (120, 260, -1.0), (120, 260, 1.0, 0.0)):
        with pytest.raises(ValueError, match="can't hang"):
            hang(*wrong)
