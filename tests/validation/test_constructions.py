"""Worked values of the constructions, and of the split ring.

Split ring opened by pulling its ends apart: any statics textbook, by Castigliano's theorem; here
checked by integrating the bending moment round the ring from first principles.
The rest are sums a maker can do on paper: common practice, no source.
"""

import json
import math
from typing import Any

import numpy as np
import pytest
from scipy.optimize import brentq

from jamreel.core.forming.stiffness import elastic_opening, opening_strain
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
    # (9.5 pi - 2.8) x (9.5 + 1.2908) / 9.5: the gap is clear inside.
    assert figure(plan, "centre_line") == pytest.approx(30.72, abs=0.005)


def test_circlet_for_a_head_of_560() -> None:
    plan = planned("circlet", {"size": "14 awg"}, {"bridged": "40"}, head_girth=560)
    assert figure(plan, "inner_arc") == 523
    assert figure(plan, "centre_line") == pytest.approx(527.75, abs=0.005)


def test_five_turns_of_889_mean_a_coil_near_56() -> None:
    plan = planned(
        "coil_bracelet",
        {"size": 0.62, "metal": "memory_steel", "temper": "spring"},
        {"turns": 5, "coil_diameter": "56", "whole_turns": False},
        wrist_girth=160,
    )
    turns = next(line.value_mm for line in plan.ledger if line.id == "turns")
    assert turns == pytest.approx(889, rel=0.005)


def test_a_cuff_opened_by_20_takes_a_set() -> None:
    assert opening_strain(2.0, 29, 20) == pytest.approx(0.0050, abs=5e-5)
    assert elastic_opening(2.0, 29, 210 / 117000) < 20
    cuff = planned("open_cuff", {"size": 2.0}, {"gap": "25"}, wrist_girth=168)
    advice = next(a for a in cuff.advice if a.id == "gap_narrow")
    assert "takes a set" in advice.says
    assert "0.18 %" in advice.says
    assert "Make the gap" in advice.try_


def framed(radius: float, elements: int = 400) -> tuple[float, float]:
    """Half a split ring as a frame of straight beams, held at its back, E I = 1: how far its end
    moves under a unit force along the tangent, and the bending moment at the back."""
    angles = np.linspace(0, math.pi, elements + 1)
    x, y = radius * np.sin(angles), -radius * np.cos(angles)
    stiff = np.zeros((3 * (elements + 1),) * 2)
    axial = 1e6  # it bends, it does not stretch
    for n in range(elements):
        dx, dy = x[n + 1] - x[n], y[n + 1] - y[n]
        long = math.hypot(dx, dy)
        c, s = dx / long, dy / long
        turn = np.kron(np.eye(2), np.array([[c, s, 0], [-s, c, 0], [0, 0, 1]]))
        a, b, d, e, f = axial / long, 12 / long**3, 6 / long**2, 4 / long, 2 / long
        local = np.array(
            [
                [a, 0, 0, -a, 0, 0],
                [0, b, d, 0, -b, d],
                [0, d, e, 0, -d, f],
                [-a, 0, 0, a, 0, 0],
                [0, -b, -d, 0, b, -d],
                [0, d, f, 0, -d, e],
            ]
        )
        at = slice(3 * n, 3 * n + 6)
        stiff[at, at] += turn.T @ local @ turn
    force = np.zeros(len(stiff))
    force[-3] = 1.0
    moved = np.zeros(len(stiff))
    moved[3:] = np.linalg.solve(stiff[3:, 3:], force[3:])
    return float(moved[-3]), float(-(stiff @ moved)[2])


@pytest.mark.parametrize(("radius", "thickness"), [(29.0, 2.0), (8.0, 1.2)])
def test_the_split_ring_as_a_frame_of_beams(radius: float, thickness: float) -> None:
    """Beside a finite-element model: plain frame elements, any textbook of structural analysis."""
    half, moment = framed(radius)
    strain = abs(moment) * thickness / 2 / (2 * half) * 20
    assert opening_strain(thickness, radius, 20) == pytest.approx(strain, rel=2e-3)
    yields = opening_strain(thickness, radius, elastic_opening(thickness, radius, 210 / 117000))
    assert yields == pytest.approx(0.001795, abs=1e-6)


def test_a_strung_bracelet_loses_its_thickness() -> None:
    strung = json.loads((EXAMPLES / "strung-bracelet.json").read_text())["piece"]
    del strung["kind"]
    strung["entries"][0]["part"]["stuff"] = "wood"
    plan = planned("linked_bracelet", {"size": 0.5}, strung, wrist_girth=160)
    # 160 + 13 inside with 8 mm beads and a closure of 20, 3 thick: 176 and 20 go round.
    assert figure(plan, "body") == 176
    # Solved again by SciPy: 22 beads on their polygon, both halves of the clasp straight.
    inner = brentq(
        lambda r: 22 * 2 * math.asin(4 / (r + 4)) + 2 * 2 * math.atan(5 / (r + 1.5)) - 2 * math.pi,
        10,
        60,
    )
    assert figure(plan, "worn") == pytest.approx(2 * math.pi * inner, abs=1e-6)
    assert figure(plan, "finished") - figure(plan, "worn") == pytest.approx(23.1, abs=0.1)
