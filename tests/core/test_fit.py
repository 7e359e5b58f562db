import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from jamreel.core.errors import Refusal
from jamreel.core.fit.ease import (
    EaseTable,
    FingerEase,
    FixedEase,
    ProportionalEase,
    ease_of,
    ease_options,
    finger_ease,
    word_for,
)
from jamreel.core.fit.sliding import centre_length, inside_girth, overlap_at

TABLE = EaseTable()


def test_the_three_schools() -> None:
    assert ease_of(FixedEase(word="snug"), 158, TABLE).value_mm == 6
    assert ease_of(ProportionalEase(word="loose"), 150, TABLE).value_mm == pytest.approx(18)
    assert ease_of(FingerEase(finger=14), 150, TABLE).value_mm == pytest.approx(18.21, abs=0.005)
    own = ease_of(FixedEase(word=None, amount=9.5), 158, TABLE)
    assert (own.value_mm, own.backing, own.word) == (9.5, "chosen", None)


@given(st.floats(90, 260), st.floats(8, 29))
def test_a_thicker_finger_asks_for_more_ease(girth: float, finger: float) -> None:
    assert 0 < finger_ease(girth, finger) < finger_ease(girth, finger + 1)


def test_exactly_one_option_is_marked_as_chosen() -> None:
    for choice in (
        FixedEase(word="snug"),
        ProportionalEase(word="comfortable"),
        FingerEase(finger=17),
        FixedEase(word=None, amount=10),
        ProportionalEase(word=None, percent=7),
    ):
        chosen = [e for e in ease_options(choice, 158, TABLE) if e.chosen]
        assert len(chosen) == 1
        assert chosen[0].value_mm == ease_of(choice, 158, TABLE).value_mm


@pytest.mark.parametrize(
    ("ease", "word"),
    [(-2, "too_tight"), (6, "snug"), (12, "comfortable"), (20, "loose"), (29, "too_loose")],
)
def test_words_for_an_ease(ease: float, word: str) -> None:
    assert word_for(ease, TABLE) == word


def test_no_ease_and_too_much_ease_are_refused() -> None:
    with pytest.raises(Refusal, match="no_ease"):
        ease_of(FixedEase(word=None), 158, TABLE)
    with pytest.raises(Refusal, match="too_much_ease"):
        ease_of(FixedEase(word=None, amount=90), 158, TABLE)
    with pytest.raises(ValidationError):
        FingerEase(finger=2)
    with pytest.raises(ValidationError):
        EaseTable(fixed_mm={"snug": 13, "comfortable": 6, "loose": 22})


@given(st.floats(150, 260), st.floats(0.5, 3), st.floats(2, 12), st.floats(0, 80))
def test_overlap_and_inside_girth_undo_each_other(
    opened: float, wire: float, width: float, overlap: float
) -> None:
    centre = centre_length(opened, wire, width)
    assert inside_girth(centre, wire, width) == pytest.approx(opened)
    assert overlap_at(centre, wire, inside_girth(centre, wire, overlap)) == pytest.approx(
        overlap, abs=1e-9
    )
