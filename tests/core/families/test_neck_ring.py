"""The neck ring and the choker share their arithmetic; the site and the ease words differ."""

import math

import pytest

from jamreel.core.body.outline import usual_outline
from tests.core.families import advice, example, figure, girths, ledger, planned, steps, tried

RING = {
    **example("neck_ring"),
    "measures": girths(neck_base_girth=372),
    "wire": {"size": "3.2 mm", "metal": "brass", "temper": "half_hard"},
}
CHOKER = {**example("choker"), "measures": girths(neck_girth=327)}


def test_the_ring_rests_on_the_base_and_the_choker_round_the_middle() -> None:
    assert figure(planned(RING), "worn") == 372 + 10
    assert figure(planned(RING), "finished") == pytest.approx(382 + math.pi * 3.2)
    assert figure(planned(CHOKER), "worn") == 327 + 10
    assert ledger(planned(CHOKER), "neck_girth") == 327


@pytest.mark.parametrize(("word", "ease"), [("snug", 6), ("comfortable", 10), ("loose", 13)])
def test_a_neck_has_ease_words_of_its_own(word: str, ease: float) -> None:
    brief = {**CHOKER, "ease": {"school": "fixed", "word": word}}
    plan = planned(brief)
    assert figure(plan, "worn") == 327 + ease
    assert plan.fit_word == word


def test_it_goes_on_sideways_when_pulling_would_bend_it() -> None:
    across = 2 * min(usual_outline("neck", 372).across, usual_outline("neck", 372).through)
    says = advice(planned(RING))["twist_open_neck"]
    assert f"Pulled open by {across:.1f} mm" in says
    assert "try_on_neck" in steps(planned(RING))


def test_springy_wire_thin_enough_opens_and_closes() -> None:
    steel = {"size": "1 mm", "metal": "memory_steel", "temper": "spring"}
    # Its curled tip takes a wider pin: memory steel snaps on one of 2.
    assert "twist_open_neck" not in advice(planned({**RING, "wire": steel}, tip_pin="5"))


def test_a_choker_too_tight_asks_for_a_new_wire_and_too_loose_loses_some() -> None:
    assert tried(CHOKER, inside_girth="330").verdict == "hooked_small"
    big = tried(CHOKER, inside_girth="345")
    assert big.amount_mm == pytest.approx(8)
    assert tried(CHOKER, comfortable=True).settled
