"""What work takes out of a wire, where it is annealed, and how hard it is in the end."""

import math
from copy import deepcopy
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.temper import (
    FIRST,
    Work,
    flattened_strain,
    stretches_before_it_necks,
    temper_of,
    track,
    twisted_strain,
    yield_after,
)
from jamreel.core.plan import Plan, plan_raw
from jamreel.core.shop import Shop
from jamreel.core.wire.metals import BEARS, Temper, metals
from tests.core.families import advice, example

TORCH = Shop.model_validate({"outfit": {"torch": True, "pickle": True}})


def wire(metal: str = "copper", temper: Temper = "half_hard", d: float = 1.0) -> Wire:
    stuff = metals()[metal]
    return Wire(d, f"{d} mm", stuff, temper, stuff.yields[temper])


def ids(plan: Plan) -> list[str]:
    return [step.id for step in plan.steps]


def test_strain_adds_up_through_and_through_and_at_each_place_by_itself() -> None:
    works = [Work("draw", 0.05), Work("edge", 0.06, "edge"), Work("end", 0.07, "end")]
    one = track(wire(), works, torch=False)
    assert [round(stage.used, 3) for stage in one.stages] == [0.05, 0.11, 0.12]
    assert one.cracks is None
    # A second time at the edge: 0.05 + 0.06 + 0.06 passes the 0.15 of half-hard.
    again = track(wire(), [*works, Work("again", 0.06, "edge")], torch=False)
    assert again.cracks is not None
    assert again.cracks.work.step == "again"
    assert again.cracks.left == 0


def test_a_bend_is_held_against_how_hard_the_wire_is_by_then() -> None:
    bend = Work("loop", 0.3, "loop", bends=True)
    # Half-hard brass bears a half, hard brass a fifth (2 t inside); hammering hardens.
    half = wire("brass", "half_hard")
    assert track(half, [bend], torch=False).cracks is None
    hammered = [Work("steel", 0.3), Work("more", 0.18)]
    soft = wire("brass", "dead_soft")
    assert track(soft, [*hammered, bend], torch=False).cracks is None
    sharp = Work("fold", 0.6, "fold", bends=True)
    cracks = track(soft, [*hammered, sharp], torch=False).cracks
    assert cracks is not None
    assert (cracks.used, round(cracks.bears, 6)) == (0.6, 0.5)
    assert track(soft, [sharp, *hammered], torch=False).cracks is None
    # Bends at two places do not add up.
    two = [bend, Work("other", 0.3, "other", bends=True)]
    assert track(half, two, torch=False).cracks is None


def test_it_is_annealed_before_the_step_that_would_crack_it() -> None:
    works = [Work("draw", 0.25), Work("loop", 0.3, "loop"), Work("steel", 0.1)]
    one = track(wire(temper="dead_soft"), works, torch=True)
    assert [stage.annealed for stage in one.stages] == [False, True, False]
    # Soft again it bears 0.5, and what was worked before counts no more.
    assert one.stages[1].used == pytest.approx(0.3)
    assert one.stages[1].bears == BEARS["dead_soft"]
    k, n = 315, 0.54
    worked = (70 / k) ** (1 / n)
    assert one.stages[1].yield_mpa == pytest.approx(k * (worked + 0.3) ** n)
    # Hardest where it was bent and hammered.
    assert one.ends["loop"] == pytest.approx(k * (worked + 0.4) ** n)
    assert one.ends[""] == pytest.approx(k * (worked + 0.1) ** n)


def test_wire_that_is_not_soft_is_annealed_once_before_its_first_step() -> None:
    works = [Work("draw", 0.05), Work("loop", 0.3, "loop"), Work("crook", 0.2, "crook")]
    one = track(wire(), works, torch=True)
    assert [(stage.work.step, stage.annealed) for stage in one.stages] == [
        (FIRST, True),
        ("draw", False),
        ("loop", False),
        ("crook", False),
    ]
    assert one.stages[0].yield_mpa == 70
    # What it was drawn counts from there.
    assert one.stages[2].used == pytest.approx(0.35)
    assert one.softened_to("loop") == pytest.approx(one.stages[1].yield_mpa)
    assert track(wire(), works[:1], torch=True).softened_to("draw") is None


@pytest.mark.parametrize("metal", ["titanium", "memory_steel", "enamelled_copper"])
def test_what_can_not_be_annealed_cracks_also_beside_a_torch(metal: str) -> None:
    one = track(wire(metal), [Work("fold", 0.3, "fold")], torch=True)
    assert not one.anneals
    assert one.cracks is not None


def test_a_bend_that_even_soft_wire_does_not_bear_cracks_after_annealing() -> None:
    one = track(wire(), [Work("fold", 0.6, "fold")], torch=True)
    assert one.anneals
    assert one.cracks is not None


def test_soldering_softens() -> None:
    works = [Work("shape", 0.1), Work("solder", 0.0, softens=True), Work("mallet", 0.02)]
    one = track(wire(), works, torch=True)
    assert [round(stage.yield_mpa) for stage in one.stages][1] == 70
    assert temper_of(metals()["copper"], one.ends[""]) == "dead_soft"


@given(st.sampled_from(sorted(metals())), st.floats(0, 0.6), st.floats(0, 0.3))
def test_work_never_softens_and_more_of_it_hardens_more(
    metal: str, strain: float, more: float
) -> None:
    stuff = metals()[metal]
    soft = stuff.yields["dead_soft"]
    once = yield_after(stuff, soft, strain)
    assert soft - 1e-6 <= once <= yield_after(stuff, soft, strain + more) + 1e-6
    # Where constants are published it does not matter whether it is worked at once or in two goes.
    if stuff.strain_k is not None:
        assert yield_after(stuff, once, more) == pytest.approx(
            yield_after(stuff, soft, strain + more), rel=1e-9
        )


def test_without_published_constants_it_goes_along_the_tempers() -> None:
    bronze = metals()["bronze"]
    # Dead soft to half-hard is two gauge numbers of drawing: from 1.024 to 0.812, 18 to 20 AWG.
    apart = 2 * math.log((0.127 * 92 ** (18 / 39)) / (0.127 * 92 ** (16 / 39)))
    assert yield_after(bronze, bronze.yields["dead_soft"], apart) == pytest.approx(
        bronze.yields["half_hard"]
    )
    assert yield_after(bronze, bronze.yields["spring"], 1.0) == bronze.yields["spring"]


def test_metal_necks_at_n_less_what_it_was_worked() -> None:
    aluminium = metals()["aluminium"]
    # Considere: d sigma / d eps = sigma, here by difference, on K (eps_0 + eps)^n.
    worked = (35 / 180) ** (1 / 0.20)
    necks = stretches_before_it_necks(aluminium, "dead_soft", 35)

    def stress(eps: float) -> float:
        return float(180 * (worked + eps) ** 0.20)

    slope = (stress(necks + 1e-6) - stress(necks - 1e-6)) / 2e-6
    assert slope == pytest.approx(stress(necks), rel=1e-6)
    assert necks == pytest.approx(0.20 - worked)
    # Bronze has no published n: then what its temper bears counts.
    assert stretches_before_it_necks(metals()["bronze"], "half_hard", 380) == BEARS["half_hard"]


def test_strains_of_hammering_and_twisting() -> None:
    assert flattened_strain(2.0, 1.0) == pytest.approx(math.log(2) / 2)
    assert flattened_strain(1.0, 1.2) == 0
    # A lead of 45 degrees at the surface shears by 1.
    assert twisted_strain(1.0, 2 * math.pi) == pytest.approx(1 / math.sqrt(3))


def looped(temper: str, shop: Shop, **wire_: Any) -> Plan:
    brief = deepcopy(example("hook_bracelet"))
    brief["wire"] = {"size": "2 mm", "metal": "copper", "temper": temper, **wire_}
    return plan_raw(brief, shop)


def test_a_bench_with_a_torch_anneals_before_the_tight_bends_and_says_how_long() -> None:
    plan = looped("full_hard", TORCH)
    names = ids(plan)
    # The tip on 2 asks 2 / (2 + 2): half of it, where hard wire bears a fifth.
    at = names.index("tip")
    assert names[at - 3 : at] == ["anneal", "quench", "pickle"]
    by_id = {step.id: step for step in plan.steps}
    assert by_id["anneal"].cautions == ("torch",)
    assert by_id["pickle"].cautions == ("pickle",)
    assert by_id["pickle"].waits == 10
    assert not {"bend_anneal", "bend_torchless"} & set(advice(plan))
    assert {"torch", "pickle"} <= {caution.id for caution in plan.cautions}
    without = looped("full_hard", Shop())
    assert not any(name.startswith("anneal") for name in ids(without))
    told = next(a for a in without.advice if a.id == "bend_torchless")
    # What avoids it: softer wire, or 2 t inside.
    assert "softer" in told.try_
    assert "8.0 mm" in told.try_
    assert plan.minutes is not None
    assert without.minutes is not None
    assert plan.minutes > without.minutes


def test_soft_wire_needs_no_torch() -> None:
    plan = looped("dead_soft", TORCH, size="1.6 mm")
    assert not any("anneal" in name for name in ids(plan))


def test_nickel_silver_is_not_quenched() -> None:
    plan = looped("full_hard", TORCH, metal="nickel_silver")
    by_id = {step.id: step for step in plan.steps}
    assert by_id["quench"].title == "Let it cool"
    assert by_id["quench"].waits > 0


def test_all_wires_of_a_piece_that_need_it_are_annealed_in_one_fire() -> None:
    hard = deepcopy(example("linked_bracelet"))
    hard["wire"] = {**hard["wire"], "temper": "full_hard"}
    plan = plan_raw(hard, TORCH)
    names = ids(plan)
    assert len(set(names)) == len(names)
    (fire,) = [step for step in plan.steps if step.id.rpartition("/")[2].startswith("anneal")]
    # Before anything is formed, and every wire by its name.
    assert names.index(fire.id) == next(
        n for n, step in enumerate(plan.steps) if step.station == "form"
    )
    for wire_ in plan.worked:
        if wire_.track and wire_.track.anneals:
            assert wire_.cut.label in fire.title
    # Two metals are handled one after the other.
    brief = deepcopy(hard)
    brief["palette"] = {"closure": {"size": "1 mm", "metal": "nickel_silver", "temper": "spring"}}
    two = ids(plan_raw(brief, TORCH))
    assert {"anneal", "quench", "anneal_2", "quench_2"} <= set(two)


def test_a_bench_without_a_torch_is_told_of_the_step_that_wants_one() -> None:
    plan = plan_raw(deepcopy(example("closed_bangle")), Shop())
    assert "no_torch" in advice(plan)
    assert "no_torch" not in advice(plan_raw(deepcopy(example("closed_bangle")), TORCH))


def test_work_that_adds_up_past_what_is_borne_is_said_by_its_step() -> None:
    plan = plan_raw(deepcopy(example("forged_bangle")), Shop())
    told = advice(plan)["work_cracks_torchless"]
    # Soft bar that was rolled, then hammered to paddles: from memory it bears a half.
    assert "bears about 50 %" in told
