"""Chain in a U: hung from both loops of the bead above it, by links or by length."""

import math
from typing import Any

import pytest
from scipy.optimize import brentq

from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import Made
from jamreel.core.parts.draped_bead import DrapedBead
from jamreel.core.parts.linked_bead import LinkedBead
from jamreel.core.plan import BriefRefused, Plan, plan_raw
from jamreel.core.shop import Shop
from jamreel.core.wire.metals import metals
from tests.core.families import figure

ONE = Palette(Wire(0.8, "0.8 mm", metals()["copper"], "dead_soft", 70))


def sag(span: float, length: float) -> float:
    """A catenary by its own equations: length = 2 a sinh(span / 2a)."""
    a = brentq(lambda a: 2 * a * math.sinh(span / (2 * a)) - length, span / 50, 1000 * span)
    return float(a * (math.cosh(span / (2 * a)) - 1))


def lowest(made: Made) -> float:
    return -min(y for one in made.strokes for c in one.copies for _, y in c.points)


@pytest.mark.parametrize("links", [10, 15, 40])
@pytest.mark.parametrize("loops", ["wrapped", "plain"])
def test_a_chain_falls_as_a_catenary_between_the_loops(links: int, loops: str) -> None:
    bead = LinkedBead.model_validate({"loops": loops}).make(ONE)
    made = DrapedBead.model_validate({"loops": loops, "links": links}).make(ONE)
    assert made.length == pytest.approx(bead.length)
    assert made.hang == pytest.approx(sag(bead.length, 3.5 * links), rel=1e-6)
    # Drawn as it hangs: to the outside of its lowest link, half of 2 mm further.
    assert lowest(made) == pytest.approx(made.hang + 1, abs=1.2)
    assert [use.stretches for use in made.wires] == [use.stretches for use in bead.wires]


def test_a_length_takes_the_links_that_come_nearest() -> None:
    made = DrapedBead.model_validate({"chain_length": 50}).make(ONE)
    # 50 / 3.5 is 14.3.
    assert made.hang == pytest.approx(sag(made.length, 14 * 3.5), rel=1e-6)
    cut = next(step for step in made.steps if step.id == "drape_cut")
    assert "14 links, 49.0 mm" in cut.says


def test_several_are_nested_and_each_is_bought() -> None:
    three = DrapedBead.model_validate({"chains": 3, "links": 12, "more_links": 5, "pin": 5})
    made = three.make(ONE)
    assert made.hang == pytest.approx(sag(made.length, 22 * 3.5), rel=1e-6)
    chains = [one for one in made.bought if one.key == "chain"]
    assert [round(one.mass_g / (9.0 * 3.5 / 1000)) for one in chains] == [12, 17, 22]
    crowded = three.model_copy(update={"pin": 1.2}).make(ONE)
    assert "loop_full" in {a.id for a in crowded.advice if a}
    near = three.model_copy(update={"more_links": 1}).make(ONE)
    assert "strands_touch" in {a.id for a in near.advice if a}


def planned(**part: Any) -> Plan:
    entry = {"id": "e1", "part": {"kind": "draped_bead", **part}, "times": 3}
    piece = {"kind": "linked_bracelet", "counted": False, "entries": [entry]}
    brief = {
        "measures": {"wrist_girth": {"readings": [{"value": "160"}]}},
        "piece": piece,
        "wire": {"size": "0.8 mm", "temper": "dead_soft"},
    }
    return plan_raw(brief, Shop())


def test_what_hangs_in_a_wrapped_loop_is_in_it_before_it_is_wound_shut() -> None:
    ids = [one.id for one in planned().steps if one.id.startswith("e1/")]
    order = [one.partition("/")[2] for one in ids]
    assert order.index("drape_cut") < order.index("first_open") < order.index("drape_first")
    assert order.index("drape_first") < order.index("wrapped_first")
    assert order.index("wrapped_open") < order.index("drape_other")
    assert order.index("drape_other") < order.index("wrapped_second")


def test_plain_loops_are_opened_once_more_for_it() -> None:
    order = [one.id.partition("/")[2] for one in planned(loops="plain").steps]
    assert order.index("plain_second") < order.index("drape_plain")


def test_a_bought_eye_is_opened_for_it_before_the_bead_goes_on() -> None:
    plan = planned(stock="eye_pin", pin_length="60")
    order = [one.id.partition("/")[2] for one in plan.steps]
    assert order.index("drape_eye") < order.index("thread") < order.index("drape_other")
    assert order.index("drape_other") < order.index("wrapped_second")


def test_a_chain_that_can_not_hang_is_refused_with_how_many_would() -> None:
    with pytest.raises(BriefRefused) as refused:
        planned(links=3)
    (problem,) = refused.value.problems
    assert problem.field == "piece.entries.0.part.links"
    plan = planned(links=int(problem.expected.split()[0]))
    assert figure(plan, "finished") > 0
    with pytest.raises(BriefRefused) as refused:
        planned(chain_length="8")
    assert refused.value.problems[0].field == "piece.entries.0.part.chain_length"


def test_many_links_are_drawn_as_lines() -> None:
    bead = LinkedBead().make(ONE)
    many = DrapedBead.model_validate({"chains": 4, "links": 200, "pin": 6}).make(ONE)
    few = DrapedBead.model_validate({"chains": 1, "links": 20}).make(ONE)
    # A line for each chain; a stroke for each link.
    assert len(many.strokes) == len(bead.strokes) + 4
    assert len(few.strokes) == len(bead.strokes) + 20
