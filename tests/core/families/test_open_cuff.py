import math

import pytest

from jamreel.core.body.outline import usual_outline
from jamreel.core.plan import BriefRefused, plan_raw, read_shop
from jamreel.core.shop import Shop
from tests.core.families import advice, example, figure, girths, ledger, planned, steps, tried

BRIEF = {**example("open_cuff"), "measures": girths(wrist_girth=166)}


def test_the_sums_on_paper() -> None:
    plan = planned(BRIEF, gap="33")
    inner = 166 + 13 - 33
    assert figure(plan, "inner_arc") == inner
    centre = inner * (1 + math.pi * 2.0 / 179)
    assert figure(plan, "centre_line") == pytest.approx(centre)
    assert ledger(plan, "half_wire_arc") == pytest.approx(centre - inner)
    assert figure(plan, "cut") == pytest.approx(centre + 3)
    assert figure(plan, "opening") == 33


def test_a_wider_gap_takes_less_wire() -> None:
    cuts = [figure(planned(BRIEF, gap=str(gap)), "cut") for gap in (25, 30, 38)]
    assert cuts == sorted(cuts, reverse=True)
    assert cuts[0] - cuts[1] == pytest.approx(5 * (1 + math.pi * 2.0 / 179))


def test_opening_it_to_go_on_is_judged_by_the_wrists_thin_side() -> None:
    # Its depth, less the tenth that flesh gives.
    wants = 0.9 * 2 * usual_outline("wrist", 166).through
    says = advice(planned(BRIEF, gap="25"))["gap_narrow"]
    assert f"pulled open by {wants - 25:.1f} mm more" in says
    radius = 179 / (2 * math.pi) + 1.0
    strain = 100 * 2.0 * (wants - 25) / (3 * math.pi * radius**2)
    assert f"{strain:.2f} % strain" in says
    spring = next(s for s in planned(BRIEF, gap="25").steps if s.id == "try_on_cuff")
    assert f"open by {wants - 25:.1f} mm and no more" in spring.says
    # A gap that the wrist fits needs no word, one that springs open and back is said.
    assert not {"gap_narrow", "springs_on"} & set(advice(planned(BRIEF, gap=f"{wants + 0.1}")))
    springs = 210 / 117000 * 3 * math.pi * radius**2 / 2.0
    inside = planned(BRIEF, gap=f"{wants - springs + 0.1}")
    assert f"springs open by {springs - 0.1:.1f} mm" in advice(inside)["springs_on"]
    assert "gap_narrow" in advice(planned(BRIEF, gap=f"{wants - springs - 0.1}"))


def test_how_much_flesh_gives_is_the_makers_to_say() -> None:
    depth = 2 * usual_outline("wrist", 166).through
    for flesh in (0.0, 0.25):
        plan = plan_raw({**BRIEF, "piece": {**BRIEF["piece"], "gap": "20"}}, Shop(flesh=flesh))
        assert f"pulled open by {(1 - flesh) * depth - 20:.1f} mm" in advice(plan)["gap_narrow"]
    for flesh in (-0.01, 0.41):
        with pytest.raises(BriefRefused, match="0 to 40 %") as refused:
            read_shop({"flesh": flesh})
        assert refused.value.problems[0].field == "flesh"


def test_its_ends_are_rounded_and_it_is_made_oval() -> None:
    order = steps(planned(BRIEF))
    assert order.index("rounded") < order.index("shape") < order.index("wrist")
    assert order[-2:] == ["try_on_cuff", "press_in"]
    wide = planned(BRIEF, gap="39")
    says = next(s.says for s in wide.steps if s.id == "try_on_cuff")
    assert "Don't pull it open" in says


def test_try_ons() -> None:
    assert tried(BRIEF, inside_girth="186").amount_mm == pytest.approx(7)
    assert tried(BRIEF, inside_girth="186").verdict == "cuff_big"
    assert tried(BRIEF, inside_girth="174").verdict == "cuff_small"
    assert tried(BRIEF, goes_on=False).verdict == "cuff_stuck"
    assert tried(BRIEF, stays_on=False).verdict == "cuff_loose"


def test_the_drawing_is_open_by_the_gap() -> None:
    section = planned(BRIEF).drawings.sheets[0]
    wire = next(s for s in section.strokes if s.part == "body")
    (x1, y1), (x2, y2) = wire.points[0], wire.points[-1]
    # Straight across a gap of 30 along the curve, half a wire further out.
    assert math.hypot(x2 - x1, y2 - y1) == pytest.approx(30 * (1 + math.pi * 2 / 179), abs=1.5)
    assert max(y1, y2) < 0
