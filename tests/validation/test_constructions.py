"""Worked values of the constructions, and of the split ring.

Split ring opened by pulling its ends apart: any statics textbook, by Castigliano's theorem; here
checked by integrating the bending moment round the ring from first principles.
The rest are sums a maker can do on paper: common practice, no source.
"""

import json
import math
from typing import Any

import pytest
from scipy.integrate import quad

from jamreel.core.forming.opening import elastic_opening, opening_strain
from jamreel.core.plan import Plan, plan_raw
from jamreel.core.shop import Shop
from tests.conftest import EXAMPLES


def planned(kind: str, wire: dict[str, Any], own: dict[str, Any], **girths: float) -> Plan:
    measures = {site: {"readings": [{"value": v}]} for site, v in girths.items()}
    return plan_raw({"measures": measures, "piece": {"kind": kind, **own}, "wire": wire}, Shop())


def figure(plan: Plan, key: str) -> float:
    return next(f.value_mm for f in plan.figures if f.id == key)


def test_closed_bangle_for_a_hand_of_200() -> None:
    plan = planned("closed_bangle", {"size": "12 awg"}, {}, wrist_girth=158, hand_pass_girth=200)
    assert figure(plan, "closed_diameter") == pytest.approx(63.66, abs=0.005)
    assert figure(plan, "centre_line") == pytest.approx(206.45, abs=0.005)
    assert figure(plan, "hang") == 42


def test_ear_cuff_on_a_rim_8_deep_and_4_thick() -> None:
    plan = planned("ear_cuff", {"size": "16 awg"}, {}, ear_rim_depth=8, ear_rim_middle=4)
    assert figure(plan, "ear_inner") == 9.5
    assert figure(plan, "ear_gap") == pytest.approx(2.8)
    assert figure(plan, "centre_line") == pytest.approx(31.10, abs=0.005)


def test_circlet_for_a_head_of_560() -> None:
    plan = planned("circlet", {"size": "14 awg"}, {"bridged": "40"}, head_girth=560)
    assert figure(plan, "inner_arc") == 523
    assert figure(plan, "centre_line") == pytest.approx(527.75, abs=0.005)


def test_five_turns_of_889_mean_a_coil_near_56() -> None:
    plan = planned(
        "coil_bracelet",
        {"size": 0.62, "metal": "memory_steel", "temper": "spring"},
        {"turns": 5, "coil_diameter": "56"},
        wrist_girth=160,
    )
    turns = next(line.value_mm for line in plan.ledger if line.id == "turns")
    assert turns == pytest.approx(889, rel=0.005)


def test_a_cuff_opened_by_20_takes_a_set() -> None:
    assert opening_strain(2.0, 29, 20) == pytest.approx(0.0050, abs=5e-5)
    assert pytest.approx(0.0018, abs=1e-5) == 210 / 117000
    assert elastic_opening(2.0, 29, 210, 117000) < 20
    cuff = planned("open_cuff", {"size": 2.0}, {"gap": "25"}, wrist_girth=168)
    advice = next(a for a in cuff.advice if a.id == "roll_on")
    assert "take a set" in advice.says
    assert "0.18 %" in advice.says
    assert "Roll it on edgewise" in advice.try_


def test_the_split_ring_by_integration() -> None:
    # Ends pulled apart by F along the tangent at the gap: M = F R (1 + cos a) round the ring,
    # delta = integral M (dM/dF) R da / EI; strain at the back = M_max c / EI.
    radius, thickness = 29.0, 2.0
    opened = 2 * quad(lambda a: radius**3 * (1 + math.cos(a)) ** 2, 0, math.pi)[0]
    strain_per_force = 2 * radius * thickness / 2
    strain = strain_per_force / opened * 20
    assert opening_strain(thickness, radius, 20) == pytest.approx(strain, rel=1e-9)


def test_a_strung_bracelet_loses_its_thickness() -> None:
    strung = json.loads((EXAMPLES / "strung-bracelet.json").read_text())["piece"]
    del strung["kind"]
    strung["entries"][0]["part"]["stuff"] = "wood"
    plan = planned("linked_bracelet", {"size": 0.5}, strung, wrist_girth=160)
    # 160 + 13 inside with 8 mm beads and a closure of 20, 3 thick: 176 and 20 go round.
    assert figure(plan, "body") == 176
    assert figure(plan, "finished") - figure(plan, "worn") == pytest.approx(23.4, abs=0.1)
