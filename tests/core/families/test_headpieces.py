"""Circlet, tiara base and the band over the crown."""

import math

import pytest
from scipy.optimize import brentq
from scipy.special import ellipe

from jamreel.core.body.outline import half_ellipse
from tests.core.families import D14, example, figure, girths, ledger, loop, planned, steps, tried

CIRCLET = {**example("circlet"), "measures": girths(head_girth=548)}
TIARA = {**example("tiara_base"), "measures": girths(head_girth=548)}
BAND = {**example("crown_band"), "measures": girths(crown_arc=326)}


def test_a_circlet_leaves_what_the_ribbon_bridges() -> None:
    plan = planned(CIRCLET, bridged="55", loop_pin="2.6")
    inner = 548 + 3 - 55
    centre = inner * (1 + math.pi * D14 / 551)
    assert figure(plan, "centre_line") == pytest.approx(centre)
    assert figure(plan, "cut") == pytest.approx(centre + 2 * loop(2.6, D14) + 3)
    assert figure(plan, "opening") == 55


@pytest.mark.parametrize(("word", "ease"), [("snug", 0), ("comfortable", 3), ("loose", 5)])
def test_a_head_has_ease_words_of_its_own(word: str, ease: float) -> None:
    plan = planned({**CIRCLET, "ease": {"school": "fixed", "word": word}})
    assert figure(plan, "worn") == 548 + ease
    assert plan.fit_word == word


def test_the_ribbon_takes_up_what_is_off() -> None:
    shorter = tried(CIRCLET, inside_girth="558")
    assert (shorter.verdict, shorter.amount_label) == ("ribbon_shorter", "tie shorter by")
    assert shorter.amount_mm == pytest.approx(7)
    assert tried(CIRCLET, inside_girth="544").verdict == "ribbon_longer"
    assert tried(CIRCLET, comfortable=False).verdict == "ribbon_ease"
    assert tried(CIRCLET, stays_on=False).verdict == "ribbon_tighten"


def test_a_circlet_follows_a_measured_head() -> None:
    measured = girths(head_girth=548, head_breadth=146, head_length=196)
    plan = planned({**CIRCLET, "measures": measured})
    across = next(d for d in plan.drawings.sheets[0].dimensions if d.label == "head across")
    assert across.value_mm == pytest.approx(146)


def test_a_tiara_covers_its_share_of_the_head() -> None:
    plan = planned(TIARA, share=0.55)
    assert figure(plan, "inner_arc") == pytest.approx(0.55 * 548)
    assert ledger(plan, "less_rest") == pytest.approx(-0.45 * 548)
    assert plan.inside_girth_mm is None
    assert plan.fit_word == "sized"
    assert "try_on_tiara" in steps(plan)


def test_a_band_stops_above_the_ears() -> None:
    plan = planned(BAND, above_ear="18")
    inner = 326 - 2 * 18
    assert figure(plan, "inner_arc") == inner
    wire = 0.127 * 92 ** (24 / 39)
    assert figure(plan, "centre_line") == pytest.approx(inner * (1 + math.pi * wire / 652))
    assert "try_on_band" in steps(plan)
    # Between its ends lies the rest of the head: no figure that a maker could use.
    assert plan.answers.fit == "inner_arc"
    assert "opening" not in {f.id for f in plan.figures}


def test_a_band_over_the_crown_is_half_an_ellipse() -> None:
    """Its ends stand the head's breadth apart; its former is as round as its top."""
    measured = {**BAND, "measures": girths(crown_arc=340, head_breadth=150)}
    plan = planned(measured, above_ear="0")
    assert figure(plan, "ends_apart") == pytest.approx(150, abs=0.01)
    # The half ellipse 150 wide and 340 long, its height found beside SciPy's elliptic integral.
    high = brentq(lambda b: 2 * b * ellipe(1 - (75 / b) ** 2) - 340, 76, 200)
    assert plan.formers[0].target_mm == pytest.approx(2 * 75**2 / high, abs=0.01)
    sprung = plan.formers[0].former_mm
    assert sprung < plan.formers[0].target_mm
    # Cut short above the ears its ends stand a little closer.
    short = figure(planned(measured, above_ear="20"), "ends_apart")
    assert 146 < short < 150
    skin = next(s for s in plan.drawings.sheets[0].strokes if s.part == "skin")
    wide = max(x for x, _ in skin.points) - min(x for x, _ in skin.points)
    tall = max(y for _, y in skin.points) - min(y for _, y in skin.points)
    assert wide == pytest.approx(150, abs=0.1)
    assert tall == pytest.approx(high, abs=0.1)  # the half that it goes over


def test_a_band_over_the_crown_is_drawn_from_the_front_with_its_ends_apart() -> None:
    plan = planned({**BAND, "measures": girths(crown_arc=340, head_breadth=150)}, above_ear="20")
    sheet = plan.drawings.sheets[0]
    assert sheet.title == "Over the crown, from the front"
    assert [label.text for label in sheet.labels] == ["crown 340.0 mm"]
    assert [s.part for s in sheet.strokes] == ["skin", "body", "loop_left", "loop_right"]
    ends = next(one for one in sheet.dimensions if one.label == "ends apart")
    assert ends.value_mm == figure(plan, "ends_apart")
    (left, low), (right, other) = ends.a, ends.b
    assert low == pytest.approx(other, abs=0.01)
    assert right - left == pytest.approx(ends.value_mm, abs=0.3)
    # An arc of 20 up a side that is nearly upright there.
    assert low == pytest.approx(19.9, abs=0.3)


def test_no_half_ellipse_is_flatter_than_a_head() -> None:
    assert half_ellipse(150, 160) is None
    assert half_ellipse(100, 500) is None
    found = half_ellipse(150, 75 * math.pi)
    assert found is not None
    assert found.through == pytest.approx(75)  # a half circle


def test_headpieces_are_bent_by_feel_at_the_try_on() -> None:
    for brief in (TIARA, BAND):
        assert tried(brief, comfortable=False).verdict == "spread_ends"
        assert tried(brief, stays_on=False).verdict == "close_ends"
        assert tried(brief, comfortable=True).settled


def test_weight_and_pressure_are_looked_at_when_worn() -> None:
    for brief in (CIRCLET, TIARA, BAND):
        caution = next(c for c in planned(brief).cautions if c.id == "head")
        assert "pressure" in caution.says
