"""The chain necklace and the forehead chain: whole links, and where they hang."""

import math

import pytest

from jamreel.core.body.outline import usual_outline
from jamreel.core.fit.fall import hang
from jamreel.core.shop import LANDMARKS, Shop
from jamreel.core.workpiece.chain import whole_links
from jamreel.core.workpiece.chest import landing
from tests.core.families import advice, example, figure, girths, ledger, planned, tried

NECK = {**example("chain_necklace"), "measures": girths(neck_base_girth=371)}
BROW = {**example("forehead_chain"), "measures": girths(brow_arc=183, parting_arc=97)}


def test_a_fraction_of_a_link_is_never_cut() -> None:
    assert [whole_links(length, 4.2) for length in (400, 402, 404)] == [95, 96, 96]
    assert whole_links(1, 8) == 1
    for length in ("433", "460.5", "519"):
        plan = planned(NECK, length=length, pitch="4.2", clasp="13")
        links = ledger(plan, "links") / 4.2
        assert links == pytest.approx(round(links))
        assert abs(figure(plan, "finished") - float(length)) <= 2.1 + 1e-9


def test_the_front_is_what_the_back_leaves() -> None:
    plan = planned(NECK, length="500", pendant_mass=0, pendant_drop="0")
    outline = usual_outline("neck", 371)
    front = figure(plan, "finished") - 371 / 2
    assert figure(plan, "front") == pytest.approx(front, abs=1e-6)
    assert figure(plan, "fall") == pytest.approx(hang(2 * outline.across, front).sag, abs=1e-6)


def test_a_pendant_pulls_it_lower_and_its_drop_comes_on_top() -> None:
    bare = planned(NECK, pendant_mass=0, pendant_drop="0")
    light, heavy = (planned(NECK, pendant_mass=m, pendant_drop="30") for m in (2, 40))
    assert figure(bare, "fall") < figure(light, "fall") < figure(heavy, "fall")
    assert figure(heavy, "fall_pendant") == pytest.approx(figure(heavy, "fall") + 30)
    assert heavy.mass_g - light.mass_g == pytest.approx(38)


def test_body_words_come_from_the_landmarks() -> None:
    assert landing(20, LANDMARKS) == "above the hollow of the throat"
    assert landing(80, LANDMARKS) == "below the collarbone, above the upper chest"
    assert landing(900, LANDMARKS) == "below the waist"
    assert landing(80, ()) == "no landmarks are given"
    own = Shop.model_validate({"landmarks": [{"name": "third button", "below": "90"}]})
    assert landing(100, own.landmarks) == "below the third button"


@pytest.mark.parametrize(
    ("length", "style"),
    [("320", "collar"), ("455", "princess"), ("495", None), ("550", "matinee")],
)
def test_style_names_are_said_where_a_length_has_one(length: str, style: str | None) -> None:
    small = {**NECK, "measures": girths(neck_base_girth=250)}
    says = advice(planned(small, length=length)).get("style")
    assert (says is None) == (style is None)
    assert style is None or f"called {style}:" in (says or "")


def test_a_chain_that_fell_wrong_is_put_right_in_links() -> None:
    plan = planned(NECK, length="500")
    fall = figure(plan, "fall")
    brief = {**NECK, "piece": {**NECK["piece"], "length": "500"}}
    assert tried(brief, fall=f"{fall + 1:.1f}").settled
    off, on = tried(brief, fall=f"{fall + 16:.1f}"), tried(brief, fall=f"{fall - 16:.1f}")
    assert (off.verdict, on.verdict) == ("links_off", "links_on")
    assert off.amount_mm is not None
    assert off.amount_mm % 3.5 == pytest.approx(0, abs=1e-9)
    # A V of that length falls about 0.6 mm for each mm of chain.
    assert off.amount_mm == pytest.approx(16 / 0.55, abs=4)
    assert tried(brief, comfortable=False).verdict == "where_fell"


def test_three_chains_meet_at_the_ring() -> None:
    plan = planned(BROW, pitch="3.2", ring="6", drape="12")
    side = (183 + 12 - 6) / 2
    links = round(side / 3.2)
    assert figure(plan, "side_chain") == pytest.approx(links * 3.2)
    assert figure(plan, "brow_line") == pytest.approx(2 * links * 3.2 + 6)
    down = round((97 - 3) / 3.2) * 3.2
    assert figure(plan, "parting_chain") == pytest.approx(down)
    assert [(c.id, c.quantity) for c in plan.cuts] == [("side", 2), ("parting", 1)]
    assert plan.mass_g == pytest.approx(0.007 * (2 * links * 3.2 + down))


def test_the_forehead_is_drawn_with_the_ring_in_the_middle() -> None:
    sheet = planned(BROW).drawings.sheets[0]
    ring = next(s for s in sheet.strokes if s.part == "less_ring")
    assert sum(x for x, _ in ring.points) / len(ring.points) == pytest.approx(0, abs=0.01)
    side = next(s for s in sheet.strokes if s.part == "side_chains")
    assert side.points[0][0] == pytest.approx(-side.points[-1][0], abs=0.01)
    assert math.isclose(min(y for _, y in side.points), side.points[40][1])


def test_try_ons_of_the_forehead_chain() -> None:
    assert tried(BROW, comfortable=False).verdict == "forehead_tight"
    assert tried(BROW, stays_on=False).verdict == "forehead_slips"
