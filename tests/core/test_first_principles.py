"""Figures of parts, closures and woven bodies beside sums from first principles, done by hand.

Wire of 1.0 mm whose metal yields at 200 MPa: its section bears 200 / 6 = 33.33 N mm.
"""

import math

import numpy as np
import pytest

from jamreel.core.body.outline import hull_with_finger
from jamreel.core.closures.base import Closure
from jamreel.core.closures.broad_hook import BroadHook
from jamreel.core.closures.crook_hook import CrookHook
from jamreel.core.closures.doubled_hook import DoubledHook
from jamreel.core.closures.folded_hook import FoldedHook
from jamreel.core.closures.s_hook import SHook
from jamreel.core.closures.toggle import Toggle
from jamreel.core.errors import Refusal
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.palette import Palette
from jamreel.core.interlace.braid.geometry import PlainBraid
from jamreel.core.interlace.braid.part import Braid
from jamreel.core.interlace.bundle.part import Bundle
from jamreel.core.interlace.channel.part import Channel
from jamreel.core.interlace.strand_ends import BOUND_TURNS, HELD_MM, StrandEnd
from jamreel.core.interlace.wound_ring.part import WoundRing
from jamreel.core.parts.base import Made, WireUse
from jamreel.core.parts.bought_ring import BoughtRing
from jamreel.core.parts.ear_wire import EarWire
from jamreel.core.parts.jump_ring import JumpRing
from jamreel.core.parts.split_ring import SplitRing
from jamreel.core.path.moves import developed_length
from jamreel.core.wire.metals import metals
from jamreel.core.workpiece.feel import grips, opened, presses

D = 1.0
WIRE = Wire(D, "1.0", metals()["copper"], "half_hard", 200.0)
PALETTE = Palette(body=WIRE)
# Plastic moment of a round section, yield times d cubed over 6 [N mm].
MOMENT = 200.0 * D**3 / 6


def length_of(use: WireUse, but: str = "") -> float:
    rows = [moves for name, moves in use.stretches if not but or not name.startswith(but)]
    return sum(developed_length(moves, use.wire.d) for moves in rows)


def holds(made: Made) -> dict[str, float]:
    return {hold.key: hold.newtons for hold in made.holds}


def test_a_broad_hook_is_as_wide_as_its_bow_and_half_a_loop_at_each_side() -> None:
    closure = BroadHook(hook_pin=6, catch_pin=10, loop_pin=3, shank=12, catch_leg=8).make(PALETTE)
    hook, catch = closure.holding, closure.receiving
    # The bow passes the catch of 10 with half a millimetre to spare at each side of its two wires.
    broad = 10 - 2 * D - 1
    # Middles of its legs lie broad + d apart; beyond each half a loop of 3, its wire and a half.
    assert hook.width == pytest.approx((broad + D) + 2 * (3 / 2 + D))
    assert catch.width == pytest.approx((10 + D) + 2 * (3 / 2 + D))
    assert hook.thickness == 6 + 2 * D
    # Two wires each, at the radius of the middle of the wire on its pin.
    assert holds(hook)["hook"] == pytest.approx(2 * MOMENT / ((6 + D) / 2))
    assert holds(catch)["plain_loop"] == pytest.approx(2 * MOMENT / ((3 + D) / 2))
    # Inside of the loop, its wire, the shank, and half the pin to where it bears.
    assert hook.length == pytest.approx(3 + D + 12 + 3)
    assert catch.length == pytest.approx(3 + D + 8 + 5)
    # Two loops, two shanks, two crooks over the pin, and the bow between them.
    legs = 2 * (math.pi * (3 + D) + 12 + math.pi * (6 + D) / 2)
    assert length_of(hook.wires[0]) == pytest.approx(legs + math.pi * (broad + D) / 2)


def test_a_doubled_hook_reaches_from_loop_to_loop() -> None:
    closure = DoubledHook(shank=10, hook_pin=5, apart=12, loop_pin=2.5, catch_pin=6).make(PALETTE)
    hook, catch = closure.holding, closure.receiving
    # Middles of the loops 12 apart, and outside of each half its pin and a wire.
    assert hook.width == catch.width == pytest.approx(12 + 2 * (2.5 / 2 + D))
    assert hook.thickness == 2 * D
    assert holds(hook)["hook"] == pytest.approx(2 * MOMENT / 3)
    assert holds(catch) == {"plain_loop": pytest.approx(2 * MOMENT / 1.75)}
    assert closure.passes is not None
    assert closure.passes.width == 2 * D
    # The arms of the catch run out from its legs, whose middles are a pin and a wire apart.
    bow, arms, feet, loops = math.pi * 7 / 2, 12 - 7, 6, 2 * math.pi * 3.5
    assert length_of(catch.wires[0]) == pytest.approx(bow + arms + feet + loops)


def test_an_ear_wire_hangs_from_the_top_of_its_bow() -> None:
    made = EarWire(bow_pin=9, front=4, back=14, pin=2).make(PALETTE)
    # Half the bow down to its side, the front, the loop and its wire.
    assert made.length == pytest.approx(9 / 2 + 4 + 2 + D)
    takes = 14 + math.pi * 10 / 2 + 4 + math.pi * 3
    assert length_of(made.wires[0]) == pytest.approx(takes)
    assert holds(made)["plain_loop"] == pytest.approx(MOMENT / 1.5)


def test_bought_rings_weigh_their_turns_and_split_ones_lie_double() -> None:
    split, bought = SplitRing(inner=6, ring_wire=0.8).make(PALETTE), BoughtRing(
        inner=10, ring_wire=2
    ).make(PALETTE)  # fmt: skip
    assert (split.thickness, split.length) == (1.6, 6)
    assert split.width == pytest.approx(7.6)
    assert (bought.thickness, bought.width, bought.length) == (2, 14, 10)
    # Tori: pi times the mean diameter, times the section; steel 7.85, brass 8.53 g/cm3.
    turn = math.pi * 6.8 * math.pi * 0.4**2
    assert split.mass == pytest.approx(2 * turn * 7.85e-3)
    assert bought.mass == pytest.approx(math.pi * 12 * math.pi * 1.0**2 * 8.53e-3)


@pytest.mark.parametrize("closure", [Toggle(soldered=True), SHook(into="soldered_ring")])
def test_a_ring_of_a_closure_is_soldered_as_any_other(closure: Closure) -> None:
    keys = [step.id for step in closure.make(PALETTE).receiving.steps]
    ring = [step.id for step in JumpRing(soldered=True).make(PALETTE).steps]
    # Closed first; then one heat, the quench and the pickle, in this order.
    assert keys[1:] == ring[-3:] == ["ring_solder", "ring_quench", "ring_pickle"]


def strand_end(kind: str) -> StrandEnd:
    binding = Wire(0.5, "0.5", WIRE.metal, "dead_soft", 100.0)
    return StrandEnd(kind, WIRE, 4, 2.0, binding, 3.0, 8.0)  # type: ignore[arg-type]


def test_strands_end_as_long_as_what_they_go_round() -> None:
    band = BOUND_TURNS * 0.5
    # Round a pin of 3, two wires thick: pi times pin and thickness.
    round_it = math.pi * 5
    fold, hook, eye = (strand_end(kind) for kind in ("fold", "hook", "eye"))
    assert sum(mm for _, mm in fold.takes) == pytest.approx(2 * band + round_it)
    # A hook: the shank out, half round, back past the pin and half the shank.
    assert sum(mm for _, mm in hook.takes) == pytest.approx(band + 8 + round_it / 2 + 3 + 4)
    assert sum(mm for _, mm in eye.takes) == pytest.approx(2 * band + round_it + HELD_MM)
    assert hook.reach == pytest.approx(band + 8 + 1.5)
    assert eye.reach == fold.reach == pytest.approx(band + 3)
    # All wires of it open together.
    assert hook.holds[0].newtons == pytest.approx(4 * MOMENT / 2)
    assert fold.holds == ()


def test_a_bundle_is_bound_in_minutes_that_grow_with_its_strands_and_bindings() -> None:
    few, more = (Bundle(along=120, bindings=n).make(PALETTE) for n in (2, 5))
    assert more.minutes - few.minutes == pytest.approx(3 * 6.0)
    free = Bundle(along=120, bindings=2, locked=False).make(PALETTE)
    bound = {use.key: use for use in few.wires}["bundle_binding"]
    loose = {use.key: use for use in free.wires}["bundle_binding"]
    # A locked start goes through the bundle once more: its thickness, and a tuck to hold by.
    tuck = dict(loose.stretches)["tuck"][0].length  # type: ignore[union-attr]
    strands = few.thickness - 2 * bound.wire.d
    assert length_of(bound) - length_of(loose) == pytest.approx(strands + tuck)


def test_the_feel_of_an_arc_ends_where_its_back_gives() -> None:
    radius = 20.0
    # Pulled at its ends an arc is bent most at its back: F R (1 - cos of the half angle).
    for half in (math.pi, 2.2, math.pi / 2):
        lever = radius * (1 - math.cos(half))
        pulled = opened(WIRE, radius, 500.0, half)
        assert pulled is not None
        assert pulled.newtons == pytest.approx(MOMENT / lever)
        held = grips(WIRE, radius, 500.0, 0.0, half)
        assert held.newtons == pytest.approx(MOMENT / lever)


def test_a_circlet_presses_with_its_weight_or_until_its_back_gives() -> None:
    # 50 g under standard gravity, 9.80665 m/s2.
    loose = presses(WIRE, 80.0, 0.0, 50.0)
    assert loose.newtons == pytest.approx(0.05 * 9.80665)
    tight = presses(WIRE, 80.0, 300.0, 50.0)
    # Both ends of the open ring pull at its back over its whole width.
    assert tight.newtons == pytest.approx(MOMENT / (2 * 80.0))
    assert loose.says != tight.says


def test_a_channel_is_as_thick_as_its_beads_or_as_a_leg_with_its_working_wire() -> None:
    made = Channel(bead=6).make(PALETTE)
    working = next(use for use in made.wires if use.woven and use.wire.d < D)
    assert made.thickness == pytest.approx(max(6.0, D + 2 * working.wire.d))
    thin = Channel(bead=2, hole=0.9).make(PALETTE)
    assert thin.thickness == pytest.approx(max(2.0, D + 2 * working.wire.d))


def test_a_plain_braid_is_about_three_strands_wide_and_two_thick() -> None:
    one = PlainBraid(1.3, 1.3 * 9)
    assert one.width == pytest.approx(2.9 * 1.3)
    assert one.thickness == pytest.approx(2 * 1.3)
    # Three strands side by side are 3 wide; crossing over each other they come a little nearer.
    assert 2 * 1.3 < one.width < 3 * 1.3
    made = Braid().make(PALETTE)
    assert made.width >= 2.9 * min(use.wire.d for use in made.wires if use.woven)


def test_a_wound_ring_is_cut_with_both_its_tails() -> None:
    short, long = (WoundRing(tail=tail).make(PALETTE).wires[0] for tail in (20, 50))
    assert length_of(long) - length_of(short) == pytest.approx(2 * 30)
    bare = length_of(long, but="tail")
    assert length_of(long) == pytest.approx(bare + 2 * 50)


@pytest.mark.parametrize("kind", [CrookHook, DoubledHook, BroadHook, FoldedHook])
def test_a_half_on_a_ring_takes_the_ring_beside_what_it_takes_itself(kind: type[CrookHook]) -> None:
    direct = kind().make(PALETTE).holding
    swings = kind(fixed="on_ring", fixed_pin=5.0).make(PALETTE).holding
    ring = JumpRing(pin=5.0).make(PALETTE)
    assert swings.minutes - direct.minutes == pytest.approx(ring.minutes) != 0
    assert swings.length - direct.length == pytest.approx(ring.length) != 0
    assert len(swings.wires) == len(direct.wires) + 1


def test_a_belt_over_a_finger_is_as_long_as_two_tangents_and_two_arcs() -> None:
    # A round wrist of radius R, a finger of radius r below it: their middles lie R + r apart.
    big, small = 25.0, 8.0
    turn = np.linspace(0, 2 * math.pi, 3600, endpoint=False)
    belt, normals, _ = hull_with_finger(big * np.column_stack([np.cos(turn), np.sin(turn)]), 16.0)
    apart = big + small
    tangent = math.sqrt(apart**2 - (big - small) ** 2)
    lean = math.asin((big - small) / apart)
    wanted = 2 * tangent + big * (math.pi + 2 * lean) + small * (math.pi - 2 * lean)
    closed = np.vstack([belt, belt[:1]])
    assert np.hypot(*np.diff(closed, axis=0).T).sum() == pytest.approx(wanted, rel=1e-3)
    # Normals are one long, and point away from the middle.
    assert np.hypot(*normals.T) == pytest.approx(1.0)
    assert ((belt - belt.mean(axis=0)) * normals).sum(axis=1).min() > 0


@pytest.mark.parametrize("bindings", [2, 5])
def test_two_bindings_from_one_length_save_a_handle(bindings: int) -> None:
    own = {"along": 120, "bindings": bindings, "handle": 12}
    bare = Bundle.model_validate({**own, "handle": 0}).make(PALETTE)
    each, two = (
        Bundle.model_validate({**own, "bound_from": how}).make(PALETTE) for how in ("each", "two")
    )
    alone = length_of({use.key: use for use in bare.wires}["bundle_binding"])
    held = {use.key: use for use in each.wires}["bundle_binding"]
    assert length_of(held) == pytest.approx(alone + 2 * 12)
    assert held.quantity == bindings
    by_key = {use.key: use for use in two.wires}
    pair = by_key["bundle_two_bindings"]
    # Held at the start of each, and once at the end.
    assert length_of(pair) == pytest.approx(2 * alone + 3 * 12)
    assert pair.quantity == bindings // 2
    single = by_key.get("bundle_binding")
    assert (single.quantity if single else 0) == bindings % 2
    # What is held is cut off: the piece weighs the same.
    assert two.mass == pytest.approx(bare.mass)


def test_bindings_at_the_ends_have_turns_of_their_own() -> None:
    """Three turns within and seven at both ends: each once round the bundle is alike."""
    own = {"along": 120, "bindings": 5, "turns": 3, "handle": 0, "locked": False}
    alike = Bundle.model_validate(own).make(PALETTE)
    unlike = Bundle.model_validate({**own, "end_turns": 7}).make(PALETTE)
    within = {use.key: use for use in alike.wires}["bundle_binding"]
    by_key = {use.key: use for use in unlike.wires}
    assert by_key["bundle_binding"].quantity == 3
    assert length_of(by_key["bundle_binding"]) == pytest.approx(length_of(within))
    ends = by_key["bundle_end_binding"]
    assert ends.quantity == 2
    # A binding has n turns in front and n - 1 behind: four more are eight halves more.
    two = Bundle.model_validate({**own, "turns": 4}).make(PALETTE)
    once = length_of({use.key: use for use in two.wires}["bundle_binding"]) - length_of(within)
    assert length_of(ends) == pytest.approx(length_of(within) + 4 * once)
    told = next(step for step in unlike.steps if step.id == "bundle_outwards")
    assert "3 turns each, 7 at both ends" in told.says
    assert alike.length == pytest.approx(unlike.length)


def test_bindings_that_do_not_go_on_are_refused_with_how_many_do() -> None:
    wide = {"along": 30, "bindings": 9, "turns": 8, "end_turns": 12}
    with pytest.raises(Refusal) as refused:
        Bundle.model_validate(wide).make(PALETTE)
    assert refused.value.key == "bindings_many"
    most = int(refused.value.values["most"])
    assert Bundle.model_validate({**wide, "bindings": most}).make(PALETTE).length > 0
    with pytest.raises(Refusal):
        Bundle.model_validate({**wide, "bindings": most + 1}).make(PALETTE)
