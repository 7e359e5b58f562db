"""Masses by hand: beads, wire, parts and whole pieces."""

import math
from typing import Any

import pytest

from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.palette import Palette
from jamreel.core.makeup.compose import compose
from jamreel.core.makeup.sequence import Entry, MakeUp
from jamreel.core.parts import registered_parts
from jamreel.core.parts.beads import DENSITY, OneBead, bead_mass, bought_bead
from jamreel.core.plan import plan_raw
from jamreel.core.shop import Shop
from jamreel.core.wire.metals import metals
from jamreel.core.workpiece.weights import Scale, hanging_of
from tests.core.families import example

D = 0.8
WIRE = Wire(D, "0.80 mm", metals()["copper"], "half_hard", 210.0)
PALETTE = Palette(WIRE)
COPPER = 8.94e-3  # [g/mm3]


def part(kind: str, **choices: Any) -> Any:
    return registered_parts()[kind].model_validate(choices)


@pytest.mark.parametrize(
    ("across", "along", "hole", "stuff", "grams"),
    [
        # pi / 6 8^3 = 268.08, less pi / 4 8 = 6.28, of 2.5 mg a cubic millimetre.
        (8.0, 8.0, 1.0, "glass", 0.6545),
        # pi / 6 6^2 12 = 226.19 less pi / 4 1.5^2 12 = 21.21, of 8.5.
        (6.0, 12.0, 1.5, "metal", 1.7424),
        (10.0, 10.0, 2.0, "wood", 0.3445),
        # A hole wider than the bead leaves nothing, never less.
        (2.0, 2.0, 2.5, "stone", 0.0),
    ],
)
def test_a_bead_weighs_its_ellipsoid_less_its_hole(
    across: float, along: float, hole: float, stuff: Any, grams: float
) -> None:
    assert bead_mass(across, along, hole, stuff) == pytest.approx(grams, abs=5e-5)


@pytest.mark.parametrize("stuff", sorted(DENSITY))
def test_a_bead_twice_as_long_and_broad_weighs_eight_times_as_much(stuff: Any) -> None:
    one, eight = bead_mass(5, 5, 1, stuff), bead_mass(10, 10, 2, stuff)
    assert eight == pytest.approx(8 * one)
    assert one > 0


def test_a_bead_is_bought_by_its_size_and_both_sizes_where_they_differ() -> None:
    ball = bought_bead(OneBead(bead=6), 4)
    rod = bought_bead(OneBead(bead=4, bead_length=9, colour="plum"), 1)
    assert "×" not in ball.size.name
    assert "4.0 mm × 9.0 mm" in rod.size.says
    assert "plum" in rod.size.name
    assert ball.quantity == 4
    assert ball.mass_g == pytest.approx(bead_mass(6, 6, 1, "glass"))


def test_a_metre_of_wire_weighs_its_section_by_its_density() -> None:
    assert WIRE.mass(1000) == pytest.approx(math.pi / 4 * D**2 * 1000 * COPPER, rel=1e-6)


def test_a_ring_weighs_its_turn() -> None:
    made = part("jump_ring", pin="4").make(PALETTE)
    turn = math.pi * (PALETTE.body.sprung(4) + D)
    assert made.mass == pytest.approx(math.pi / 4 * D**2 * turn * COPPER, rel=1e-3)


def test_a_linked_bead_weighs_its_bead_and_its_wire_without_the_tails() -> None:
    short, long = (
        part("linked_bead", bead="6", hole="1", tail=tail).make(PALETTE).mass
        for tail in ("12", "30")
    )
    assert short == pytest.approx(long)
    bare = bead_mass(6, 6, 1, "glass")
    wire = short - bare
    # Two loops of 3 mm, wraps and the stretch through the bead.
    least = math.pi / 4 * D**2 * (2 * math.pi * (3 + D) + 6) * COPPER
    assert least < wire < 4 * least


def test_a_row_weighs_its_parts() -> None:
    beads = Entry.model_validate({"part": {"kind": "bead", "bead": "6"}, "times": 5})
    ring = Entry.model_validate({"part": {"kind": "jump_ring"}, "times": 2})
    laid = compose(MakeUp(entries=(beads, ring)), PALETTE)
    weigh = Scale(laid.kinds)
    by_kind: dict[str, list[float]] = {}
    for lying in laid.parts:
        by_kind.setdefault(lying.unit.part.kind, []).append(weigh(lying))
    assert by_kind["bead"] == [pytest.approx(bead_mass(6, 6, 1, "glass"))] * 5
    assert len(set(by_kind["jump_ring"])) == 1


def test_a_piece_weighs_its_wire_and_what_is_bought_for_it() -> None:
    for kind in ("linked_bracelet", "linked_necklace", "drop_earring"):
        plan = plan_raw(example(kind), Shop())
        wire = sum(cut.mass_g * cut.quantity for cut in plan.cuts)
        bought = sum(need.mass_g for need in plan.needs)
        assert plan.mass_g == pytest.approx(wire + bought, rel=1e-6)
        assert wire > 0


def test_what_hangs_reaches_as_far_as_its_lowest_part() -> None:
    ring = Entry.model_validate({"part": {"kind": "jump_ring", "pin": "4"}, "times": 3})
    laid = compose(MakeUp(entries=(ring,), rings=0), PALETTE)
    assert hanging_of(laid) == pytest.approx(max(p.at + p.length for p in laid.parts))
    assert hanging_of(laid) >= 12
