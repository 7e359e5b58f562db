"""What a plan takes from the maker's hand: margins, minutes, the former; and what it says of it."""

import json
from pathlib import Path
from typing import Any

import pytest

from jamreel.core.closures import registered_closures
from jamreel.core.forming.palette import palette_of
from jamreel.core.forming.tools import Outfit
from jamreel.core.hand.belief import Taken, believe, long_enough, seen, whole_wire
from jamreel.core.hand.hand import Hand, HandLine
from jamreel.core.parts.base import registered_parts
from jamreel.core.plan import Plan, plan_raw
from jamreel.core.shop import MeasuredYield, Shop
from jamreel.core.wire.gauges import WireSize
from jamreel.core.wire.metals import WireChoice
from jamreel.core.workpiece.parts_steps import timed
from jamreel.core.workpiece.questions import questions_at

EXAMPLES = Path(__file__).parents[2] / "docs/examples"


def example(kind: str) -> dict[str, Any]:
    found: dict[str, Any] = json.loads((EXAMPLES / f"{kind}.json").read_text())
    return found


def line(technique: str, stock: str, *ratios: float) -> HandLine:
    what = seen(ratios)
    return HandLine(
        technique=technique, stock=stock, n=len(ratios), mean=what.mean, squares=what.squares
    )


def planned(kind: str, known: Hand, **making: Any) -> Plan:
    brief = {**example(kind), "cutting": {"school": "record"}, "making": making}
    return plan_raw(brief, Shop(hand=known))


def record_line(plan: Plan, n: int = 0) -> float:
    return sum(one.value_mm for one in plan.cuts[n].lines if one.id == "record")


def test_two_records_change_the_cut_by_exactly_the_line_that_is_stated() -> None:
    empty = planned("hook-bracelet", Hand())
    cut = empty.cuts[0]
    by = {one.technique: one.by_sum for one in cut.techniques}
    assert set(by) == {"bend", "loop"}
    both = Hand(lines=(line("loop", cut.stock, 1.06, 1.08),))
    changed = planned("hook-bracelet", both)
    new, old = (believe(seen([1.06, 1.08])), believe(seen([])))
    wanted = whole_wire([Taken(by["bend"], old), Taken(by["loop"], new)])
    assert record_line(changed) == pytest.approx(wanted, abs=1e-9)
    apart = changed.cuts[0].length_mm - cut.length_mm
    assert apart == pytest.approx(record_line(changed) - record_line(empty), abs=1e-9)
    said = next(one for one in changed.ledger if one.id == "record")
    assert said.value_mm == pytest.approx(wanted)
    assert "2 records" in said.reason
    assert said.backing == "measured"
    # Taken back, it is as it was.
    assert planned("hook-bracelet", Hand()).cuts[0].length_mm == cut.length_mm


def test_a_hand_that_takes_less_is_cut_shorter() -> None:
    stock = planned("hook-bracelet", Hand()).cuts[0].stock
    less = Hand(lines=(line("loop", stock, *[0.9] * 12), line("bend", stock, *[0.9] * 12)))
    assert record_line(planned("hook-bracelet", less)) < 0


def test_records_of_another_size_count_half_and_of_another_metal_not_at_all() -> None:
    own = "copper/soft/round/1.00x1.00"
    hand = Hand(
        lines=(
            line("loop", own, 1.05),
            line("loop", "copper/half_hard/round/0.80x0.80", 1.09, 1.11),
            line("loop", "brass/soft/round/1.00x1.00", 1.30),
            line("coil", own, 1.40),
        )
    )
    known = hand.of("loop", own)
    assert (known.own, known.near) == (1, 2)
    assert known.seen.n == 2.0
    # One at 1.05, and two about 1.10 that count one together.
    assert known.mean == pytest.approx((1.05 + 1.10) / 2)
    belief = believe(known.seen)
    assert 1.0 < belief.mean < known.mean < long_enough(belief)


def test_the_hand_can_be_left_out_and_both_figures_are_told() -> None:
    cut = planned("hook-bracelet", Hand()).cuts[0]
    hand = Hand(
        lines=(line("loop", cut.stock, 1.2, 1.22), line("bend", cut.stock, 1.2)),
        pace=(line("wire.cut", "", 2.0, 2.0, 2.0),),
    )
    own, usual = planned("hook-bracelet", hand), planned("hook-bracelet", hand, hand="usual")
    assert usual.cuts[0].length_mm == pytest.approx(cut.length_mm)
    assert own.cuts[0].length_mm > cut.length_mm
    for plan in (own, usual):
        told = {one.id: one for one in plan.own_and_usual}
        assert told[f"cut/{cut.id}"].own == pytest.approx(own.cuts[0].length_mm)
        assert told[f"cut/{cut.id}"].usual == pytest.approx(cut.length_mm)
        assert told[f"cut/{cut.id}"].records == 3
        assert told["minutes"].own == pytest.approx(own.minutes)
        assert told["minutes"].usual == pytest.approx(usual.minutes)
    pace = believe(seen([2.0] * 3)).mean
    assert own.minutes == pytest.approx((usual.minutes or 0.0) + 1.0 * (pace - 1))


def test_a_measured_yield_moves_the_former_and_says_by_how_much() -> None:
    brief = example("closed-bangle")
    bare = plan_raw(brief, Shop())
    trial = MeasuredYield(stock=bare.cuts[0].stock, reel="a reel", yield_mpa=300, records=3)
    shop = Shop(measured=(trial,))
    own = plan_raw(brief, shop)
    usual = plan_raw({**brief, "making": {"hand": "usual"}}, shop)
    told = next(one for one in own.own_and_usual if one.id == "former")
    assert told.own == pytest.approx(own.formers[0].former_mm)
    assert told.usual == pytest.approx(bare.formers[0].former_mm)
    assert told.records == 3
    assert usual.formers[0].former_mm == pytest.approx(bare.formers[0].former_mm)
    assert own.formers[0].former_mm != pytest.approx(bare.formers[0].former_mm, abs=0.1)


def test_a_weave_goes_by_its_own_name_and_its_sum_without_the_spare() -> None:
    brief = example("linked-bracelet")
    brief["piece"]["entries"] = [{"id": "e1", "part": {"kind": "ladder"}, "times": 1}]
    brief["cutting"] = {"school": "record"}
    bare = plan_raw(brief, Shop())
    cut = next(one for one in bare.cuts if any(t.technique == "ladder" for t in one.techniques))
    woven = next(one for one in cut.techniques if one.technique == "ladder")
    assert woven.cut_for == pytest.approx(1.05 * woven.by_sum)
    hand = Hand(lines=(line("ladder", cut.stock, 1.08, 1.1, 1.09, 1.08),))
    again = next(one for one in plan_raw(brief, Shop(hand=hand)).cuts if one.id == cut.id)
    added = sum(one.value_mm for one in again.lines if one.id == "record")
    belief = believe(seen([1.08, 1.1, 1.09, 1.08]))
    # What it is cut for in all is the 95 % point of the sum, whatever the spare had added.
    assert woven.cut_for + added == pytest.approx(woven.by_sum * long_enough(belief), rel=1e-6)


WIRE = palette_of(WireChoice(size=WireSize(diameter_mm=0.9)))


@pytest.mark.parametrize("kind", sorted(registered_parts()))
def test_every_part_has_minutes_for_each_of_its_steps(kind: str) -> None:
    made = registered_parts()[kind].model_validate({}).make(WIRE)
    rows = [(one, 1) for one in made.steps]
    once, thrice = ([one for one, _ in timed(rows, made.minutes, n)] for n in (1, 3))
    assert all(one.minutes > 0 or one.waits > 0 for one in once)
    # Beads have no step of their own: they are strung.
    assert not once or sum(one.minutes for one in once) >= made.minutes - 1e-9
    assert [one.minutes for one in thrice] == pytest.approx([3 * one.minutes for one in once])


@pytest.mark.parametrize("kind", sorted(registered_closures()))
def test_every_closure_has_minutes_for_each_of_its_steps(kind: str) -> None:
    fastened = registered_closures()[kind].model_validate({}).make(WIRE)
    for half in (fastened.receiving, fastened.holding):
        steps = [one for one, _ in timed([(one, 1) for one in half.steps], half.minutes, 1)]
        assert all(one.minutes > 0 or one.waits > 0 for one in steps), kind


@pytest.mark.parametrize("kind", sorted(path.stem for path in EXAMPLES.glob("*.json")))
def test_every_step_of_every_construction_takes_time(kind: str) -> None:
    plan = plan_raw(example(kind), Shop())
    idle = [one.id for one in plan.steps if one.minutes <= 0 and one.waits <= 0]
    assert idle == []
    assert plan.minutes == pytest.approx(sum(one.minutes for one in plan.steps))
    assert all(one.work and one.times >= 1 for one in plan.steps)


def test_beads_take_their_minutes_where_they_are_strung() -> None:
    plan = plan_raw(example("strung-bracelet"), Shop())
    strung = next(one for one in plan.steps if one.work.startswith("composed.string"))
    beads = sum(need.quantity for need in plan.needs if need.kind == "bead")
    assert strung.minutes == pytest.approx(4.0 + 0.1 * beads)


@pytest.mark.parametrize("kind", sorted(path.stem for path in EXAMPLES.glob("*.json")))
def test_heat_comes_before_glue_and_tries_before_what_can_not_be_undone(kind: str) -> None:
    plan = plan_raw(example(kind), Shop(outfit=Outfit(torch=True, pickle=True)))
    order = [step.work for step in plan.steps]
    fire = [n for n, step in enumerate(plan.steps) if "torch" in step.takes]
    glue = [n for n, step in enumerate(plan.steps) if step.waits_in == "glue"]
    assert not fire or not glue or max(fire) < min(glue)
    if "sliding.charms" in order:
        assert order.index("sliding.try_on") < order.index("sliding.charms")
    assert order[-1].endswith(("press_in", "wire.feel"))
    # What is soldered wants hands and torch together; nothing else holds the torch.
    assert all(("torch" in s.takes) == ("torch" in s.wants) for s in plan.steps)


@pytest.mark.parametrize(("torch", "asked"), [(False, ["came_off"]), (True, [])])
def test_what_came_off_a_former_is_asked_of_wire_as_it_was_bought(
    torch: bool, asked: list[str]
) -> None:
    brief = example("sliding-bangle")
    brief["wire"] = {**brief["wire"], "temper": "full_hard"}
    plan = plan_raw(brief, Shop(outfit=Outfit(torch=torch, pickle=True)))
    assert any(one.work == "heat.anneal" for one in plan.steps) is torch
    found = [one.id for step in plan.steps for one in questions_at(plan, step)]
    assert [one for one in found if one == "came_off"] == asked
