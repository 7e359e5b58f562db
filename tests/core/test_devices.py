"""The bench's instruments: what they send, how they stray, and what is read of it."""

import re
from statistics import mean

import pytest

from jamreel.core.errors import Refusal
from jamreel.devices.calliper import Calliper
from jamreel.devices.readings import GRAMS_PER, parse_mass
from jamreel.devices.scale import Scale


def figures(line: str) -> float:
    found = re.match(r"[\d.]+", line)
    assert found is not None
    return float(found[0])


def test_the_same_seed_reads_the_same() -> None:
    assert Calliper("7/2").reads(0.812) == Calliper("7/2").reads(0.812)
    assert Scale("7/2").reads(12.34) == Scale("7/2").reads(12.34)
    assert len({Calliper(str(n)).reads(0.812) for n in range(40)}) > 1


def test_a_calliper_strays_no_further_than_its_jitter_and_to_both_sides() -> None:
    read = [figures(Calliper(str(n)).reads(5.0)) for n in range(300)]
    assert max(read) <= 5.0 + 0.015 + 0.0051
    assert min(read) >= 5.0 - 0.015 - 0.0051
    assert mean(read) == pytest.approx(5.0, abs=0.002)
    assert min(read) < 5.0 < max(read)


def test_one_calliper_strays_anew_each_time() -> None:
    calliper = Calliper("x", jitter=0.5)
    assert len({calliper.reads(9.0) for _ in range(12)}) > 6


@pytest.mark.parametrize(("unit", "line"), [("mm", "25.40 mm\r\n"), ("in", "1.0000 in\r\n")])
def test_a_calliper_sends_its_unit_and_enter(unit: str, line: str) -> None:
    assert Calliper("x", jitter=0.0, unit=unit).reads(25.4) == line  # type: ignore[arg-type]


def test_a_calliper_shows_its_last_digit_and_nothing_finer() -> None:
    assert Calliper("x", resolution=0.05, jitter=0.0).reads(0.812) == "0.80 mm\r\n"
    assert Calliper("x", jitter=0.0).reads(0.8149) == "0.81 mm\r\n"


def test_nothing_between_the_jaws_is_never_less_than_nothing() -> None:
    assert all(figures(Calliper(str(n), jitter=1.0).reads(0.0)) >= 0 for n in range(20))
    assert all(figures(Scale(str(n), jitter=1.0).reads(0.0)) >= 0 for n in range(20))


@pytest.mark.parametrize(
    ("unit", "line"), [("g", "62.2 g\r\n"), ("oz", "2.194 oz\r\n"), ("ozt", "2.000 ozt\r\n")]
)
def test_a_scale_sends_grams_or_ounces(unit: str, line: str) -> None:
    assert Scale("x", jitter=0.0, unit=unit).reads(62.2) == line


@pytest.mark.parametrize("unit", sorted(GRAMS_PER))
def test_what_a_scale_sends_is_read_back(unit: str) -> None:
    line = Scale("x", resolution=0.01, jitter=0.0, unit=unit).reads(31.1)
    places = 0.1 if unit in ("g",) else 0.0006
    assert parse_mass(line) == pytest.approx(31.1, abs=places * GRAMS_PER[unit])


@pytest.mark.parametrize(
    ("typed", "grams"),
    [
        ("12,5", 12.5),
        (".5 g", 0.5),
        (" + 3 G ", 3.0),
        ("1 kg", 1000.0),
        ("1 dwt", 1.55517384),
        # 20 pennyweight are a troy ounce, 5 carat a gram.
        ("20 dwt", 31.1034768),
        ("5 ct", 1.0),
        ("16 oz", 453.59237),
    ],
)
def test_masses_as_makers_type_them(typed: str, grams: float) -> None:
    assert parse_mass(typed) == pytest.approx(grams)


@pytest.mark.parametrize(
    "typed", ["", "g", "-3 g", "3 stone", "3 4 g", "1e9", "1 kg 2", None, "2t"]
)
def test_what_is_no_mass_gives_no_number(typed: object) -> None:
    with pytest.raises(Refusal) as refused:
        parse_mass(typed)
    assert refused.value.key == "mass"
