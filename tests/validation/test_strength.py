"""Where a piece gives: plastic hinges, beside figures of the trade and a limit analysis.

- Figures of the trade (common practice, no source): 1.0 wire at 210 MPa on a 6 mm pin opens at
  10.0 N; 20 AWG at 210 MPa across 12.8 bends through at 5.8 N; a ring of it, 12 inside and not
  soldered, opens at 2.9 N.
- Plastic collapse of a ring pulled across: upper and lower bounds of limit analysis, any text on
  plasticity. Both are worked here with numpy and scipy, not with the formula.
"""

import math

import numpy as np
import pytest
from scipy.optimize import linprog

from jamreel.core.closures.base import registered_closures
from jamreel.core.closures.folded_hook import FoldedHook
from jamreel.core.closures.s_hook import SHook
from jamreel.core.closures.toggle import Toggle
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.palette import Palette
from jamreel.core.forming.strength import bar_force, opening_force, oval_force, plastic_moment
from jamreel.core.parts.linked_bead import LinkedBead
from jamreel.core.path.moves import developed_length
from jamreel.core.plan import plan_raw
from jamreel.core.shop import Shop
from jamreel.core.wire.gauges import awg_diameter
from jamreel.core.wire.metals import metals
from jamreel.core.wire.sections import Flat, HalfRound, Round
from tests.core.families import advice, example

D20 = awg_diameter(20)
MOMENT = 210 * D20**3 / 6


def copper(d: float, section: object = None) -> Wire:
    return Wire(d, f"{d} mm", metals()["copper"], "half_hard", 210.0, section)  # type: ignore[arg-type]


def test_the_trades_figures() -> None:
    assert opening_force(plastic_moment(1 / 6, 210), 3.5) == pytest.approx(10.0, abs=0.01)
    assert bar_force(MOMENT, 12 + D20) == pytest.approx(5.8, abs=0.05)
    assert opening_force(MOMENT, (12 + D20) / 2) == pytest.approx(2.9, abs=0.05)


def collapse_of_a_ring(radius: float, moment: float, elements: int = 180) -> float:
    """Largest pull across a thin ring whose bending moment nowhere passes its plastic moment.

    The lower bound theorem as a linear programme over a quarter: at the load the quarter carries
    half the pull and a moment m; along it the moment is m - (F / 2) R (1 - cos) and so on.
    """
    turn = np.linspace(0, math.pi / 2, elements)
    # Unknowns F and m, the moment under the load; bending at angle t from the load:
    lever = radius * np.sin(turn) / 2
    rows = np.column_stack([-lever, np.ones_like(turn)])
    limit = np.full(2 * elements, moment)
    found = linprog([-1, 0], A_ub=np.vstack([rows, -rows]), b_ub=limit, bounds=[(0, None)] * 2)
    assert found.x is not None
    return float(found.x[0])


def test_a_closed_ring_goes_oval_at_four_moments_over_its_radius() -> None:
    for radius, moment in ((6.4, MOMENT), (33.0, 301.0)):
        bound = collapse_of_a_ring(radius, moment)
        assert oval_force(moment, radius) == pytest.approx(bound, rel=1e-6)


def test_a_bar_and_ring_holds_what_its_ring_does() -> None:
    made = Toggle(ring_pin=12, bar=18).make(Palette(copper(D20)))
    assert made.hold is not None
    assert made.hold.newtons == pytest.approx(2.92, abs=0.01)
    soldered = Toggle(ring_pin=12, bar=18, soldered=True).make(Palette(copper(D20)))
    assert soldered.hold is not None
    assert (soldered.hold.key, round(soldered.hold.newtons, 2)) == ("toggle_bar", 5.85)


def test_the_eye_of_a_folded_hook_counts_among_its_holds() -> None:
    made = FoldedHook(hook_pin=5).make(Palette(copper(1.0)))
    hook = 2 * 35 / 3.0
    assert min(h.newtons for h in made.holding.holds if h.key == "hook") == pytest.approx(hook)
    # The loop that it hangs by is one wire on a pin of 3, and opens first.
    assert made.hold is not None
    assert made.hold.newtons == pytest.approx(35 / 2.0)


def test_a_wrapped_loop_goes_oval_long_before_its_stem_stretches() -> None:
    (hold,) = LinkedBead(pin=3).make(Palette(copper(D20))).holds
    assert hold.newtons == pytest.approx(4 * MOMENT / ((3 + D20) / 2))
    assert hold.newtons < 0.4 * 210 * math.pi * D20**2 / 4


def test_other_sections_bend_by_their_own_plastic_modulus() -> None:
    flat = copper(1.0, Flat(width=4.0, thickness=1.0, edges="sharp"))
    assert flat.moment == pytest.approx(210 * 4 * 1 / 4)
    assert copper(2.0, Round(diameter=2.0)).moment == pytest.approx(210 * 8 / 6)


def test_half_round_strains_by_its_farther_fibre() -> None:
    """Its neutral line lies 4 r / 3 pi from the flat; the round side is further from it."""
    wire = copper(1.0, HalfRound(flat=2.0))
    far = 1 - 4 / (3 * math.pi)
    assert wire.fibre == pytest.approx(2 * far)
    assert wire.strain_on(50.0) == pytest.approx(far / (25 + 4 / (3 * math.pi)))
    assert copper(1.0).strain_on(3.0) == pytest.approx(1 / 4)


def test_the_wire_that_binds_an_s_hook_is_cut() -> None:
    made = SHook(wraps=4).make(Palette(copper(1.0)))
    binding = next(use for use in made.holding.wires if use.key == "s_hook_binding")
    assert binding.wire.d == 0.5
    length = sum(developed_length(moves, 0.5) for _, moves in binding.stretches)
    # Four turns round two wires side by side, half a binding wire out, climbing by its thickness.
    turn = math.hypot(2 * 1.0 + math.pi * 1.0 + math.pi * 0.5, 0.5)
    assert length == pytest.approx(4 * turn + 2 * 15)


@pytest.mark.parametrize("kind", sorted(registered_closures()))
def test_a_closure_of_the_finest_wire_is_never_passed_in_silence(kind: str) -> None:
    brief = example("linked_bracelet")
    fine = {"size": "0.3 mm", "metal": "copper", "temper": "dead_soft"}
    piece = {**brief["piece"], "closure": {"kind": kind, "wire": "0.3 mm"}}
    if "wire" not in registered_closures()[kind].model_fields:
        piece["closure"].pop("wire")
    plan = plan_raw({**brief, "wire": fine, "piece": piece}, Shop())
    made = registered_closures()[kind].model_validate({}).make(Palette(copper(0.3)))
    if made.hold is not None:
        assert "hook_weak" in advice(plan)


@pytest.mark.parametrize("kind", ["hook_bracelet", "choker", "neck_ring"])
def test_a_ring_that_hooks_with_the_finest_wire_is_never_passed_in_silence(kind: str) -> None:
    fine = {"size": "0.3 mm", "metal": "copper", "temper": "dead_soft"}
    plan = plan_raw({**example(kind), "wire": fine}, Shop())
    # 70 MPa x 0.3^3 / 6 over a radius of some 3: a tenth of a newton.
    assert plan.weakest is not None
    assert plan.weakest.newtons < 0.15
    assert {"hook_weak", "frail"} <= set(advice(plan))
