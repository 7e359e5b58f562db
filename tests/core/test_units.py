from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jamreel.core.errors import Refusal
from jamreel.core.units import MM_PER, format_length, inch_parts, parse_length, with_unit


@pytest.mark.parametrize(
    ("typed", "mm"),
    [
        ("158", 158.0),
        ("158,5", 158.5),
        (" 15.8 cm", 158.0),
        ("0.2m", 200.0),
        ('6 3/4"', 171.45),
        ("6-3/4 in", 171.45),
        ("6¾ in", 171.45),
        ("¾″", 19.05),
        ("1 ft 2 in", 355.6),
        ("1' 2 1/2\"", 368.3),
        (205, 205.0),
        (".8 mm", 0.8),
    ],
)
def test_reads_what_a_maker_writes(typed: object, mm: float) -> None:
    assert parse_length(typed) == pytest.approx(mm, abs=1e-9)


def test_bare_numbers_take_the_makers_unit() -> None:
    assert parse_length("6.5", "in") == pytest.approx(165.1)
    assert parse_length("6 3/4", "in") == pytest.approx(171.45)
    assert parse_length("158 mm", "in") == 158.0
    assert parse_length(158, "in") == 158.0  # a JSON number is always mm


@pytest.mark.parametrize(
    ("typed", "key"),
    [
        ("", "length"),
        ("nan", "length"),
        ("inf", "length"),
        ("-5", "length"),
        (-5, "length"),
        (float("nan"), "length"),
        (float("inf"), "length"),
        (True, "length"),
        (None, "length"),
        ("12 parsecs", "length"),
        ("3 mm 4 mm", "length"),
        ("1 in 2 in", "length"),
        ("1 ft 2", "length"),
        ("1/0 in", "length"),
        ("6 3/4", "bare_fraction"),
        ("1,580", "thousands"),
    ],
)
def test_refuses_what_is_no_length(typed: object, key: str) -> None:
    with pytest.raises(Refusal) as refused:
        parse_length(typed)
    assert refused.value.key == key


@given(st.integers(1, 5000), st.sampled_from(sorted(MM_PER)))
def test_units_round_trip(hundredths: int, unit: str) -> None:
    number = Fraction(hundredths, 100)
    mm = parse_length(f"{float(number)} {unit}")
    assert mm / float(MM_PER[unit]) == pytest.approx(float(number), rel=1e-12)


@given(st.floats(7, 2000))
def test_inches_show_to_the_nearest_sixteenth(mm: float) -> None:
    whole, top, bottom = inch_parts(mm)
    assert 0 <= top < max(bottom, 1)
    assert abs((whole + top / bottom) * 25.4 - mm) <= 25.4 / 32 + 1e-9
    assert parse_length(format_length(mm, "in")) == pytest.approx(mm, abs=25.4 / 32 + 1e-9)


@given(st.sampled_from(["158", "6 3/4", "12.5"]), st.sampled_from(["mm", "in"]))
def test_a_length_with_its_unit_means_the_same_on_any_bench(typed: str, unit: str) -> None:
    if unit == "mm" and "/" in typed:
        return  # refused bare in mm, see above
    there = parse_length(typed, unit)  # type: ignore[arg-type]
    said = with_unit(typed, unit)  # type: ignore[arg-type]
    assert parse_length(said, "mm") == parse_length(said, "in") == there
