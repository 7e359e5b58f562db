"""What was done beside what is wanted: every verdict, and where one passes into another."""

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jamreel.core.bench.steps import Step
from jamreel.core.cutting.cuts import Cut, of_cut, wire_key
from jamreel.core.plan import Plan, plan_raw
from jamreel.core.result import Need
from jamreel.core.shop import Shop
from jamreel.core.workpiece.records import (
    Record,
    done_steps,
    lacking,
    open_wires,
    record_of_step,
    standing,
)
from tests.core.families import example


@pytest.fixture(scope="module")
def plan() -> Plan:
    return plan_raw(example("linked_bracelet"), Shop())


@pytest.fixture(scope="module")
def links(plan: Plan) -> Cut:
    return next(cut for cut in plan.cuts if cut.id == "e1/linked_bead")


def record(cut: Cut, number: int, off: float = 0.0, **more: Any) -> Record:
    planned = more.pop("planned", cut.length_mm)
    return Record(
        kind="cut",
        key=wire_key(cut, number),
        planned=planned,
        actual=cut.length_mm + off,
        stock=more.pop("stock", cut.stock),
        says=cut.label,
    )


def test_a_key_says_its_cut_and_its_number(links: Cut) -> None:
    assert wire_key(links, 3) == "e1/linked_bead#3"
    assert of_cut("e1/linked_bead#3") == ("e1/linked_bead", 3)
    name, number = of_cut("wire")
    assert (name, number) == ("wire", 1)


@pytest.mark.parametrize(
    ("off", "planned_off", "verdict", "known"),
    [
        (0.0, 0.0, "right", False),
        (0.49, 5.0, "right", False),
        (-0.49, 5.0, "right", False),
        (0.6, 5.0, "long", False),
        (-0.6, 5.0, "short", False),
        # The plan stands where it stood when it was cut: the maker knew.
        (0.6, 0.0, "long", True),
        (-4.0, 0.04, "short", True),
        (-4.0, 0.06, "short", False),
    ],
)
def test_a_wire_beside_its_cut(
    plan: Plan, links: Cut, off: float, planned_off: float, verdict: str, known: bool
) -> None:
    one = record(links, 1, off, planned=links.length_mm + planned_off)
    (wire,) = standing(plan, [one]).wires
    assert (wire.verdict, wire.known) == (verdict, known)
    assert wire.by_mm == pytest.approx(abs(off))
    assert wire.settled == (verdict == "right" or known)


@given(off=st.floats(-30, 30), number=st.integers(1, 10))
def test_a_wire_serves_or_another_is_wanted_never_both(
    plan: Plan, links: Cut, off: float, number: int
) -> None:
    one = record(links, number, off, planned=links.length_mm + 9)
    now = standing(plan, [one])
    still = [key for key in now.open_wires if of_cut(key)[0] == links.id]
    serves = now.wires[0].verdict in ("right", "long")
    assert len(still) == links.quantity - serves
    assert one.key not in still


def test_of_too_many_those_that_are_off_go_first(plan: Plan, links: Cut) -> None:
    records = [record(links, n, planned=0.0) for n in range(1, links.quantity + 1)]
    records[2] = record(links, 3, 4.0, planned=0.0)
    extra = record(links, links.quantity + 1)
    now = standing(plan, [*records, extra])
    surplus = [wire.key for wire in now.wires if wire.verdict == "not_needed"]
    assert surplus == [wire_key(links, 3)]
    assert not [key for key in now.open_wires if of_cut(key)[0] == links.id]


def test_of_another_wire_none_serves(plan: Plan, links: Cut) -> None:
    now = standing(plan, [record(links, 1, stock="brass/half_hard/round")])
    (wire,) = now.wires
    assert wire.verdict == "other_wire"
    assert not wire.settled
    assert len([k for k in now.open_wires if of_cut(k)[0] == links.id]) == links.quantity


def test_a_wire_whose_stock_nobody_wrote_down_is_taken_for_the_plans(
    plan: Plan, links: Cut
) -> None:
    (wire,) = standing(plan, [record(links, 1, stock="")]).wires
    assert wire.verdict == "right"


def test_what_is_no_longer_needed_is_offered_where_it_could_serve(plan: Plan, links: Cut) -> None:
    def offers(length: float, stock: str = links.stock) -> dict[str, float]:
        one = Record(kind="cut", key="old/wire#1", planned=1.0, actual=length, stock=stock)
        (wire,) = standing(plan, [one]).wires
        assert wire.verdict == "not_needed"
        return {of_cut(fits.key)[0]: fits.spare_mm for fits in wire.serves}

    assert offers(links.length_mm + 3)[links.id] == pytest.approx(3)
    assert offers(links.length_mm - 0.4)[links.id] == 0
    assert links.id not in offers(links.length_mm - 0.6)
    assert offers(links.length_mm + 3, "brass/half_hard/round") == {}


def test_offers_come_nearest_first_and_three_at_most() -> None:
    brief = example("linked_bracelet")
    brief["piece"] = {
        "kind": "linked_bracelet",
        "counted": False,
        "entries": [
            {"id": f"b{n}", "part": {"kind": "linked_bead", "bead": str(4 + n), "pin": "3"}}
            for n in range(5)
        ],
    }
    plan = plan_raw(brief, Shop())
    one = Record(kind="cut", key="old/wire#1", actual=500, stock=plan.cuts[-1].stock)
    cut = next(cut for cut in plan.cuts if cut.id == "b0/linked_bead")
    (wire,) = standing(plan, [one.model_copy(update={"stock": cut.stock})]).wires
    spares = [fits.spare_mm for fits in wire.serves]
    assert len(spares) == 3
    assert spares == sorted(spares)


def test_several_of_one_key_are_counted_by_number(plan: Plan, links: Cut) -> None:
    records = [record(links, n) for n in (2, 5, 9)]
    still = [key for key in open_wires(plan.cuts, records) if of_cut(key)[0] == links.id]
    assert len(still) == links.quantity - 3
    assert not {"e1/linked_bead#2", "e1/linked_bead#5", "e1/linked_bead#9"} & set(still)
    assert len(set(still)) == len(still)


def figured(**figures: float) -> Step:
    return Step(id="e1/loop", station="form", title="Loop", says="", figures=figures)


def with_steps(plan: Plan, *steps: Step) -> Plan:
    return plan.model_copy(update={"steps": steps})


@pytest.mark.parametrize(
    ("then", "now", "changed"),
    [
        ({"pin": 3.0}, {"pin": 3.0}, False),
        ({"pin": 3.0}, {"pin": 3.04}, False),
        ({"pin": 3.0}, {"pin": 3.5}, True),
        ({"place_1": 20.0}, {"place_1": 24.5}, True),
        ({"count": 4}, {"count": 5}, True),
        # What nobody spoke of then can't have changed.
        ({}, {"pin": 3.0}, False),
        ({"pin": 3.0}, {}, False),
    ],
)
def test_a_step_beside_what_it_was(
    plan: Plan, then: dict[str, float], now: dict[str, float], changed: bool
) -> None:
    done = Record(kind="step", key="e1/loop", figures=then)
    (step,) = standing(with_steps(plan, figured(**now)), [done]).steps
    assert step.verdict == ("changed" if changed else "right")
    assert bool(step.changes) == changed


def test_a_count_that_changed_is_said_without_millimetres(plan: Plan) -> None:
    done = Record(kind="step", key="e1/loop", figures={"count": 4, "pin": 3})
    (step,) = standing(with_steps(plan, figured(count=6, pin=4)), [done]).steps
    count, pin = step.changes
    assert "mm" not in count
    assert "mm" in pin
    assert "4" in count
    assert "6" in count


def test_an_order_that_was_turned_round_is_said(plan: Plan) -> None:
    first = Step(id="a", station="form", title="First", says="")
    second = Step(id="b", station="form", title="Second", says="")
    done = record_of_step([first, second], second, "b")
    assert done.follows == "a"
    (right,) = standing(with_steps(plan, first, second), [done]).steps
    assert right.verdict == "right"
    (turned,) = standing(with_steps(plan, second, first), [done]).steps
    assert turned.verdict == "changed"
    assert "First" in turned.changes[0]


def test_a_step_that_went_keeps_its_words(plan: Plan) -> None:
    done = Record(kind="step", key="gone/loop", says="Loop of the third row")
    (step,) = standing(plan, [done]).steps
    assert (step.verdict, step.says) == ("not_needed", "Loop of the third row")


def test_a_step_is_done_when_it_is_done_for_all(plan: Plan) -> None:
    one = next(step for step in plan.steps if step.stands_for)
    keys = one.stands_for
    some = [Record(kind="step", key=key) for key in keys[:-1]]
    assert one.id not in done_steps(plan, some)
    assert one.id in done_steps(plan, [*some, Record(kind="step", key=keys[-1])])


@pytest.fixture(scope="module")
def beads(plan: Plan) -> Need:
    return next(need for need in plan.needs if need.label == "beads")


@pytest.mark.parametrize(
    ("fetched", "verdict", "by"), [(0, "right", 0), (-3, "more", 3), (2, "fewer", 2)]
)
def test_beads_beside_how_many_are_wanted(
    plan: Plan, beads: Need, fetched: int, verdict: str, by: int
) -> None:
    (share,) = beads.shares
    key = beads.key_of(share)
    done = Record(kind="need", key=key, actual=share.count + fetched)
    (now,) = standing(plan, [done]).needs
    assert (now.verdict, now.by) == (verdict, by)
    assert lacking(beads, [done]) == ({key: 3} if verdict == "more" else {})


def test_beads_of_an_entry_that_went_are_not_needed(plan: Plan) -> None:
    done = Record(kind="need", key="gone/bead", actual=5, says="6 mm beads")
    (now,) = standing(plan, [done]).needs
    assert (now.verdict, now.fetched, now.says) == ("not_needed", 5, "6 mm beads")


def test_nothing_done_leaves_everything_open(plan: Plan) -> None:
    now = standing(plan, [])
    assert (now.wires, now.steps, now.needs) == ((), (), ())
    assert len(now.open_wires) == sum(cut.quantity for cut in plan.cuts if cut.stock)
