import itertools
import math

import pytest

from tests.core.families import advice, example, figure, girths, ledger, planned, steps, tried

BRIEF = {**example("strung_bracelet"), "measures": girths(wrist_girth=164)}


def test_the_string_is_longer_than_the_wrist_by_its_thickness() -> None:
    plan = planned(BRIEF, brittle=False, bead="6", closure_length="15", closure_thickness="6")
    # One thickness all round: Steiner.
    assert ledger(plan, "string") == pytest.approx(164 + 13 + math.pi * 6)
    assert ledger(plan, "thickness") == pytest.approx(math.pi * 6)


def test_only_whole_beads_are_strung_and_the_fit_speaks_of_what_was_got() -> None:
    plan = planned(BRIEF, brittle=False, bead="10")
    beads = figure(plan, "beads") / 10
    assert beads == pytest.approx(round(beads))
    inside = figure(plan, "worn")
    assert abs(inside - 177) <= 5.2
    assert f"{inside:.1f} mm inside" in advice(plan)["bead_count"]
    assert plan.inside_girth_mm is not None
    assert plan.inside_girth_mm.value == inside


def test_the_wire_has_tails_and_goes_through_the_closure() -> None:
    plan = planned(BRIEF, tail="45")
    made = figure(plan, "beads")
    assert figure(plan, "cut") == pytest.approx(made + 20 + 2 * 45 + 3)
    assert [s.id for s in plan.drawings.rule.spans if s.kind == "body"] == ["beads"]


def test_big_beads_sit_on_a_polygon() -> None:
    assert "polygon" in advice(planned(BRIEF, bead="14"))
    assert "polygon" not in advice(planned(BRIEF, bead="3"))


def test_it_is_tried_before_it_is_finished() -> None:
    order = steps(planned(BRIEF))
    assert order.index("string") < order.index("try_first") < order.index("finish")


def test_try_ons_count_beads() -> None:
    inside = figure(planned(BRIEF), "worn")
    off = tried(BRIEF, inside_girth=f"{inside + 17:.1f}")
    assert (off.verdict, off.amount_mm) == ("beads_off", 16)
    assert "2 beads" in off.says
    assert tried(BRIEF, inside_girth=f"{inside - 9:.1f}").verdict == "beads_on"
    assert tried(BRIEF, inside_girth=f"{inside + 2:.1f}").settled
    assert tried(BRIEF, comfortable=False).verdict == "beads_on"
    assert tried(BRIEF, stays_on=False).verdict == "beads_off"


def test_every_bead_is_drawn_where_it_sits() -> None:
    section = planned(BRIEF).drawings.sheets[0]
    beads = [s for s in section.strokes if s.part.startswith("bead ")]
    assert len(beads) == figure(planned(BRIEF), "beads") / 8
    centres = [
        (sum(x for x, _ in b.points) / len(b.points), sum(y for _, y in b.points) / len(b.points))
        for b in beads
    ]
    gaps = [math.dist(a, b) for a, b in itertools.pairwise(centres)]
    # Touching, give or take the bend of the wrist.
    assert max(gaps) < 8.6
    assert min(gaps) > 7.0


def test_small_parts_are_no_toy() -> None:
    assert any(c.id == "beads" and "infants" in c.says for c in planned(BRIEF).cautions)
