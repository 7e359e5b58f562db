import pytest

from jamreel.core.body.readings import Guess, Measure, Reading, expanded_uncertainty, girth_at
from jamreel.core.errors import Refusals


def measure(*values: float | None, **how: object) -> Measure:
    return Measure(readings=tuple(Reading(value=v, **how) for v in values))


def refused(found: Measure | None) -> str:
    with pytest.raises(Refusals) as several:
        girth_at("wrist_girth", found)
    return several.value.refusals[0].key


def test_mean_spread_and_standard_error_of_three() -> None:
    girth = girth_at("hand_pass_girth", measure(205, 204, 207))
    assert girth.value_mm == pytest.approx(205.3333, abs=1e-4)
    assert girth.spread_mm == 3
    assert girth.standard_error_mm == pytest.approx(0.8819, abs=1e-4)
    assert girth.plus_minus_mm == pytest.approx(2 * 0.8819, abs=1e-3)


def test_readings_that_agree_are_no_better_than_their_method() -> None:
    assert expanded_uncertainty([158, 158, 158], 1.5) == pytest.approx(2 * 1.5 / 3**0.5)


def test_blank_slots_are_no_readings() -> None:
    girth = girth_at("wrist_girth", measure(158, None, None))
    assert (girth.count, girth.standard_error_mm, girth.plus_minus_mm) == (1, None, 2.0)


@pytest.mark.parametrize(
    ("method", "thickness", "off"),
    [("tape", 9.0, 0.0), ("string", 2.0, 6.2832), ("strap", 2.0, 12.5664), ("wire", None, 3.1416)],
)
def test_a_strap_over_reads_by_its_thickness(
    method: str, thickness: float | None, off: float
) -> None:
    girth = girth_at("wrist_girth", measure(170, method=method, thickness=thickness))
    assert girth.value_mm == pytest.approx(170 - off, abs=1e-4)
    assert girth.corrections_mm == pytest.approx((-off,), abs=1e-4)


def test_from_a_piece_that_fits_its_ease_is_taken_off() -> None:
    girth = girth_at("wrist_girth", measure(171, method="piece", ease=13.0))
    assert girth.value_mm == 158
    assert refused(measure(171, method="piece")) == "piece_without_ease"


def test_readings_over_the_limit_ask_for_another_and_contradictions_are_refused() -> None:
    assert not girth_at("wrist_girth", measure(158, 161)).ask_another
    assert girth_at("wrist_girth", measure(158, 161.5)).ask_another
    assert girth_at("wrist_girth", measure(100, 102.5)).ask_another  # 2 % is less than 3 mm
    assert refused(measure(158, 178)) == "readings_apart"
    assert refused(measure(158, 158.5, 178)) == "readings_outlier"


def test_out_of_range_readings_suggest_the_likely_slip() -> None:
    with pytest.raises(Refusals) as several:
        girth_at("wrist_girth", measure(158, 1580))
    (slip,) = several.value.refusals
    assert slip.field == "measures.wrist_girth.readings.1.value"
    assert slip.values["likely"] == 158
    with pytest.raises(Refusals) as several:
        girth_at("wrist_girth", measure(6.2))  # inches without saying so
    assert several.value.refusals[0].values["likely"] == pytest.approx(157.48)


def test_a_guess_carries_its_range_until_a_reading_replaces_it() -> None:
    guess = Guess(population="wrist_women", percentile=95)
    guessed = girth_at("wrist_girth", Measure(guess=guess))
    assert (guessed.value_mm, guessed.plus_minus_mm, guessed.guessed) == (164, 13, True)
    assert "Heinz" in (guessed.source or "")
    known = Measure(guess=guess, readings=(Reading(value=158),))
    assert not girth_at("wrist_girth", known).guessed
    assert refused(Measure(guess=Guess(population="hand_men"))) == "population"
    assert refused(None) == "no_reading"
