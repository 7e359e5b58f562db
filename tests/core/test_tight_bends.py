"""Bends too tight for their metal: said where annealing helps, refused where nothing does."""

import math
from typing import Any

import pytest

from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.tight import least_pin, tightest
from jamreel.core.path.moves import Bend, Fold, Move, Wrap
from jamreel.core.plan import BriefRefused, plan_raw
from jamreel.core.shop import Shop
from jamreel.core.wire.metals import BEARS, Temper, metals
from tests.core.families import advice, example, planned


def wire(metal: str, temper: Temper, d: float) -> Wire:
    stuff = metals()[metal]
    return Wire(d, f"{d} mm", stuff, temper, stuff.yields[temper])


def bend(pin: float) -> Move:
    return Bend(angle=math.pi, pin=pin, label="loop")


@pytest.mark.parametrize(
    ("temper", "pin", "tight"),
    [
        # 1 / (D + 1) against a half, 0.3, 0.15, a few hundredths.
        ("dead_soft", 1.0, False),
        ("dead_soft", 0.99, True),
        ("quarter_hard", 2.34, False),
        ("quarter_hard", 2.33, True),
        ("half_hard", 5.67, False),
        ("half_hard", 5.66, True),
        ("full_hard", 19.1, False),
        ("full_hard", 18.9, True),
        ("spring", 32.4, False),
        ("spring", 32.3, True),
    ],
)
def test_the_outer_fibre_against_what_the_temper_bears(
    temper: Temper, pin: float, tight: bool
) -> None:
    found = tightest(wire("copper", temper, 1.0), [bend(40), bend(pin)])
    assert (found is not None) == tight
    if found is not None:
        assert found.pin == pin
        assert found.strain == pytest.approx(1 / (pin + 1))
        assert found.strain > BEARS[temper]


def test_the_tightest_pin_is_where_the_strain_is_just_borne() -> None:
    one = wire("brass", "half_hard", 1.6)
    least = least_pin(one, 0.15)
    assert one.strain_on(least) == pytest.approx(0.15)
    assert least == pytest.approx(1.6 / 0.15 - 1.6)
    assert least_pin(one, 1.0) == 0.0


def test_wire_is_wrapped_on_its_own_stem_unless_it_is_hard() -> None:
    wraps, fold = Wrap(turns=2, core=1.0, label="wraps"), Fold(label="fold")
    assert tightest(wire("copper", "half_hard", 1.0), [wraps, fold]) is None
    hard = tightest(wire("copper", "full_hard", 1.0), [wraps])
    assert hard is not None
    assert hard.strain == pytest.approx(0.5)
    folded = tightest(wire("copper", "spring", 1.0), [fold])
    assert folded is not None
    assert folded.strain == pytest.approx(1.0)


def looped(metal: str, temper: str, pin: str) -> dict[str, Any]:
    brief = example("coil_bracelet")
    wire_ = {"size": "0.6 mm", "metal": metal, "temper": temper}
    return {**brief, "wire": wire_, "piece": {**brief["piece"], "loop_pin": pin}}


def test_memory_steel_on_a_2_mm_pin_is_refused_and_on_its_usual_3_is_not() -> None:
    assert plan_raw(looped("memory_steel", "spring", "3"), Shop()).cuts
    with pytest.raises(BriefRefused) as refused:
        plan_raw(looped("memory_steel", "spring", "2"), Shop())
    (problem,) = refused.value.problems
    assert (problem.field, problem.key) == ("piece.loop_pin", "bend_breaks")
    # 0.6 / 2.6 = 23 %, and 0.6 / 0.2 - 0.6 = 2.4.
    assert "asks 23 %" in problem.says
    assert "2.4 mm or more" in problem.says


def test_full_hard_brass_on_a_2_mm_pin_is_to_be_annealed() -> None:
    plan = plan_raw(looped("brass", "full_hard", "2"), Shop())
    found = next(a for a in plan.advice if a.id == "bend_torchless")
    assert found.severity == "check"
    assert "asks 23 %" in found.says
    assert "softer" in found.try_
    torch = Shop.model_validate({"outfit": {"torch": True}})
    warm = plan_raw(looped("brass", "full_hard", "2"), torch)
    assert any(step.id == "anneal" for step in warm.steps)


def test_what_can_not_be_annealed_is_bought_softer() -> None:
    plan = plan_raw(looped("titanium", "half_hard", "2"), Shop())
    assert "bend_softer" in advice(plan)


def test_a_part_that_would_snap_is_refused_at_its_own_pin() -> None:
    brief = example("linked_bracelet")
    steel = {"size": "0.8 mm", "metal": "memory_steel", "temper": "spring"}
    entries = [{"part": {"kind": "eye_link", "pin": "2.5"}, "times": 6}]
    with pytest.raises(BriefRefused) as refused:
        planned({**brief, "wire": steel}, entries=entries, closure={"kind": "open_ends"})
    assert refused.value.problems[0].field == "piece.entries.0.part.pin"
    closure = {"kind": "broad_hook", "loop_pin": "2.2"}
    rings = [{"part": {"kind": "jump_ring", "pin": "8"}, "times": 6}]
    with pytest.raises(BriefRefused) as refused:
        planned({**brief, "wire": steel}, entries=rings, closure=closure)
    assert refused.value.problems[0].field == "piece.closure.loop_pin"
