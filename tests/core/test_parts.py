"""Parts and closures: what each takes and adds, done again on paper."""

import math
import subprocess
import sys
from dataclasses import replace
from pathlib import Path
from typing import Any

import pytest

from jamreel.core.closures import registered_closures
from jamreel.core.closures.base import Closure
from jamreel.core.closures.broad_hook import BroadHook
from jamreel.core.closures.crook_hook import CrookHook
from jamreel.core.closures.folded_hook import FoldedHook
from jamreel.core.closures.own_hook import OwnHook
from jamreel.core.closures.s_hook import SHook
from jamreel.core.closures.spring_clasp import SpringClasp
from jamreel.core.closures.toggle import Toggle
from jamreel.core.errors import Refusal
from jamreel.core.families import registered
from jamreel.core.families.linked import LinkedBracelet
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.palette import Palette
from jamreel.core.makeup.checks import make_up_advice
from jamreel.core.makeup.compose import compose
from jamreel.core.makeup.loops import loops_of
from jamreel.core.parts import Part, registered_parts
from jamreel.core.parts.base import Made
from jamreel.core.parts.beads import OneBead
from jamreel.core.parts.chain import BoughtChain
from jamreel.core.parts.coil import Coil
from jamreel.core.parts.coil_bead import CoilBead
from jamreel.core.parts.curved_link import CurvedLink
from jamreel.core.parts.dangle import Dangle
from jamreel.core.parts.eye_link import EyeLink
from jamreel.core.parts.figure_eight import FigureEight
from jamreel.core.parts.finding import Finding
from jamreel.core.parts.jump_ring import JumpRing
from jamreel.core.parts.linked_bead import LinkedBead
from jamreel.core.parts.own_link import OwnLink
from jamreel.core.parts.own_shape import OwnMove
from jamreel.core.parts.ring_link import RingLink
from jamreel.core.parts.spacer_coil import SpacerCoil
from jamreel.core.parts.tassel import Section, Tassel
from jamreel.core.path.moves import developed_length
from jamreel.core.plan import BriefRefused, Plan, plan_raw
from jamreel.core.shop import Shop
from jamreel.core.wire.metals import metals
from tests.conftest import ROOT
from tests.core.families import example

D = 0.812
WIRE = Palette(Wire(D, "20 AWG", metals()["copper"], "half_hard", 210.0))
ONE = Palette(Wire(1.0, "1.00 mm", metals()["copper"], "half_hard", 210.0))


def takes(made: Made, which: int = 0) -> float:
    use = made.wires[which]
    return sum(developed_length(moves, use.wire.d) for _, moves in use.stretches)


def advice(made: Made) -> set[str]:
    return {a.id for a in made.advice if a is not None}


@pytest.mark.parametrize("part", [cls.model_validate({}) for cls in registered_parts().values()])
def test_every_part_says_what_it_is_and_is_drawn_as_long_as_it_is(part: Part) -> None:
    made = part.make(WIRE)
    assert part.says
    assert made.strokes
    assert made.minutes > 0
    assert made.thickness > 0
    assert made.wires or made.bought
    strokes = [one for stroke in made.strokes for one in stroke.copies]
    xs = [x for s in strokes for x, _ in s.points]
    ys = [y for s in strokes for _, y in s.points]
    if part.role == "drop":
        assert made.hang > 0
        # To the middle of the lowest wire, or to its outside.
        assert -min(ys) == pytest.approx(made.hang, abs=D)
    else:
        # Loops reach past their bearing points by their own wire, not more.
        assert min(xs) >= -2.5 * D
        assert max(xs) <= made.length + 2.5 * D or part.kind == "ear_wire"
        assert max(xs) >= made.length - D


@pytest.mark.parametrize("name", sorted(registered_closures()))
def test_every_closure_adds_the_inside_lengths_of_its_halves(name: str) -> None:
    closure: Closure = registered_closures()[name].model_validate({})
    made = closure.make(ONE)
    assert made.length == made.receiving.length + made.holding.length
    assert closure.says
    for half in (made.receiving, made.holding):
        xs = [x for s in half.strokes for one in s.copies for x, _ in one.points]
        if xs:
            # End caps swallow the ends of the body; a bar goes on behind its loops.
            over = {"end_caps": 6, "bar_pin": 12}.get(name, 3)
            assert min(xs) >= -over
            assert max(xs) <= half.length + over


def test_a_wrapped_linked_bead_on_paper() -> None:
    made = LinkedBead(bead=6, pin=3, wraps=2, tail=0).make(WIRE)
    assert made.length == pytest.approx(6 + 2 * (1.624 + 3 + 0.812))
    a_loop = 1.624 + math.pi * 3.812 + 2 * math.hypot(2 * math.pi * D, D)
    assert takes(made) == pytest.approx(6 + 2 * a_loop)
    assert takes(LinkedBead(bead=6, tail=12).make(WIRE)) == pytest.approx(6 + 2 * a_loop + 24)
    three = LinkedBead(bead=6, beads=3, wraps=3).make(WIRE)
    assert three.length == pytest.approx(18 + 2 * (3 * D + 3 + D))
    assert three.bought[0].quantity == 3


def test_plain_loops_bear_at_their_inside_and_open_first() -> None:
    made = EyeLink(stem=8, pin=3).make(WIRE)
    assert made.length == pytest.approx(8 + 2 * (3 + D))
    assert takes(made) == pytest.approx(8 + 2 * math.pi * (3 + D))
    wrapped = EyeLink(stem=8, pin=3, loops="wrapped").make(WIRE)
    assert made.holds[0].newtons < wrapped.holds[0].newtons
    assert [s.id for s in wrapped.steps].index("next_link_first") < [
        s.id for s in wrapped.steps
    ].index("wrapped_second")


def test_rings_add_their_inside_and_eights_two_of_them() -> None:
    ring = JumpRing(pin=5).make(WIRE)
    inner = WIRE.body.sprung(5)
    assert 5 < inner < 5.3
    assert (ring.length, takes(ring)) == pytest.approx((inner, math.pi * (inner + D)))
    eight = FigureEight(pin=4).make(WIRE)
    assert eight.length == pytest.approx(8 + D)
    assert takes(eight) == pytest.approx(2 * math.pi * (4 + D))
    assert "thin_for_loop" in advice(JumpRing(pin=9).make(WIRE))
    soldered = JumpRing(pin=5, soldered=True).make(WIRE)
    assert not soldered.ends[0].opens if soldered.ends else False
    assert any("torch" in s.cautions for s in soldered.steps)


def test_a_coil_over_a_coil_keeps_the_wire_that_went_into_it() -> None:
    made = CoilBead(core_wire=0.8, core=2, turns=5, bare_turns=0, lead=0).make(WIRE)
    # Wound on a rod of 1.0, that it goes over the core wire.
    cord = 1.0 + 2 * D
    along = 5 * math.hypot(math.pi * (2 + cord), cord)
    assert made.length == pytest.approx(5 * cord)
    assert takes(made, 1) == pytest.approx(along)  # the core wire runs through the cord
    per_turn = math.hypot(math.pi * (1.0 + D), D)
    assert takes(made, 0) == pytest.approx(along / D * per_turn)
    # By volume: the fine wire fills the annulus of the cord to pi / 4, as round wire does.
    volume = takes(made, 0) * math.pi * D**2 / 4
    annulus = math.pi / 4 * (cord**2 - 1.0**2) * along
    assert volume / annulus == pytest.approx(math.pi / 4, rel=0.02)


def test_spacers_cut_from_a_long_coil_come_to_the_coil() -> None:
    spacer = SpacerCoil(core=1.6, turns=3, lost=0.5).make(WIRE)
    coil = Coil(core=1.6, turns=35).make(WIRE)
    assert 10 * takes(spacer) == pytest.approx(takes(coil))
    assert spacer.wires[0].off_coil
    assert 10 * spacer.length == pytest.approx(coil.length * 30 / 35)


def test_a_curved_link_bears_across_its_chord() -> None:
    link = CurvedLink(form=30, arc=26, pin=2.5)
    made = link.make(WIRE)
    radius = (30 + D) / 2
    half = 26 / radius / 2
    chord = 2 * radius * math.sin(half) + 2 * (2.5 + D) * math.cos(half)
    assert made.length == pytest.approx(chord)
    assert takes(made) == pytest.approx(26 + 2 * math.pi * (2.5 + D))
    assert advice(made) == set()
    assert advice(CurvedLink(stand="alike").make(WIRE)) == {"links_twist"}
    with pytest.raises(Refusal) as refused:
        CurvedLink(arc=15).make(WIRE)  # 16 turns of 0.4 and three beads of 3 take 15.4
    assert (refused.value.key, refused.value.field) == ("wraps_over", "arc")


def test_a_folded_ring_link_is_its_ring_and_two_legs_rolled_over_the_ring_before() -> None:
    made = RingLink(pin=9, roll_pin=3, bead=4, hook_pin=2, play=1).make(ONE)
    # R (2 pi - 2 asin(d / 2R)) + 2 (corner + 3/4 pi (p + d) + bead + pi (h + d) / 2 + play)
    radius = 5.0
    ring = radius * (2 * math.pi - 2 * math.asin(1 / (2 * radius)))
    leg = 1.57 + 0.75 * math.pi * (3 + 1) + 4 + 0.5 * math.pi * (2 + 1) + 1
    assert takes(made) == pytest.approx(ring + 2 * leg, abs=0.01)
    assert takes(made) == pytest.approx(71.8, abs=0.05)
    assert made.length == pytest.approx(9 + 1 + 3)
    assert made.bought[0].quantity == 2
    ids = [s.id for s in made.steps]
    # Through the neighbour before the legs are hooked on their own ring.
    assert ids.index("roll_over") < ids.index("roll_close") < ids.index("hook_on_own")
    with pytest.raises(Refusal) as refused:
        RingLink(pin=4, bead=4).make(WIRE)
    assert refused.value.field == "bead"


def test_moves_of_ones_own_are_told_one_by_one_with_their_marks() -> None:
    moves = [
        {"move": "straight", "length": "10"},
        {"move": "bend", "degrees": 180, "pin": "4"},
        {"move": "straight", "length": "6"},
        {"move": "corner", "degrees": 90, "side": "right"},
    ]
    made = registered_parts()["own_link"].model_validate({"moves": moves}).make(ONE)
    (step,) = made.steps
    d = made.wires[0].wire.d
    # The bend takes half a turn on its middle line, pi (4 + d) / 2.
    corner = 10 + math.pi * (4 + d) / 2 + 6
    assert "at 10.0 mm bend 180° on the 4.0 mm pin, to the left" in step.says
    assert f"at {corner:.1f} mm a sharp corner of 90°, to the right" in step.says


def test_what_hangs_reaches_as_far_as_its_parts() -> None:
    dangle = Dangle(bead=8, beads=2, loops="plain", pin=3).make(WIRE)
    assert dangle.hang == pytest.approx(3 + D + 16 + 0.6)
    assert dangle.wires == ()  # a bought head pin is not cut from the reel
    assert Dangle(foot="curl").make(WIRE).wires
    section = Section(row=(OneBead(bead=4),), times=3)
    tassel = Tassel(strands=4, sections=(section,), head=(), pin=1.5, strand_loop=6).make(WIRE)
    fine = 0.5
    head = (3 * D + 3 + D) + (4 * D + 6 + D)
    each = (3 * fine + 1.5 + fine) + 4 + (4 * fine + 1.5 + fine)
    assert tassel.hang == pytest.approx(head + 3 * each + fine)
    assert [(b.key, b.quantity) for b in tassel.bought if b.quantity] == [("bead", 12)]
    assert [use.quantity for use in tassel.wires] == [1, 12]
    assert "strands_jostle" in advice(tassel)
    assert "strands_jostle" not in advice(Tassel(strands=3).make(WIRE))


def test_chain_and_findings_are_as_long_as_was_measured() -> None:
    chain = BoughtChain(links=24, pitch=3.5, mass_per_m=9).make(WIRE)
    assert chain.length == 84
    assert chain.mass == pytest.approx(0.756)
    assert Finding(length=15).make(WIRE).length == 15
    assert Finding(length=15, hangs=True).make(WIRE).hang == 15


def test_a_link_of_ones_own_bears_at_its_furthest_insides() -> None:
    eight = OwnLink(
        moves=(
            OwnMove(move="bend", degrees=360, pin=4),
            OwnMove(move="bend", degrees=360, pin=4, side="right"),
        )
    ).make(WIRE)
    assert eight.length == pytest.approx(FigureEight(pin=4).make(WIRE).length, abs=0.01)
    assert takes(eight) == pytest.approx(2 * math.pi * (4 + D))
    with pytest.raises(Refusal) as refused:
        OwnLink(moves=(OwnMove(move="straight"), OwnMove(move="bend", degrees=0))).make(WIRE)
    assert refused.value.field == "moves.1.degrees"
    with pytest.raises(Refusal) as refused:
        OwnLink(moves=(OwnMove(move="turn", degrees=90),)).make(WIRE)
    assert refused.value.key == "no_shape"


def fits(closure: Closure) -> set[str]:
    """What is said of a closure, on a bracelet of ten linked beads of 1 mm wire."""
    makeup = LinkedBracelet.model_validate({"closure": closure})
    laid = compose(makeup, ONE)
    found = make_up_advice(makeup, laid, loops_of(laid), {})
    return {a.id for a in found if a is not None and a.field == "piece.closure"}


def test_hooks_pass_their_eyes_and_bars_their_rings() -> None:
    assert "hook_wide" not in fits(FoldedHook(eye_pin=5))
    assert "hook_wide" in fits(FoldedHook(eye_pin=2))  # doubled wire is 2 mm wide
    assert "hook_wide" in fits(CrookHook(tip_pin=1, eye_pin=3))
    assert "bar_short" in fits(Toggle(ring_pin=12, bar=15))
    assert not fits(Toggle(ring_pin=12, bar=16)) & {"bar_short", "bar_stuck"}


HOOK = (
    OwnMove(move="bend", degrees=360, pin=3, side="right"),
    OwnMove(move="straight", length=9),
    OwnMove(move="bend", degrees=180, pin=6),
    OwnMove(move="straight", length=9),
)


def test_a_hook_of_ones_own_bears_in_its_crook_and_has_to_pass_its_eye() -> None:
    made = OwnHook(moves=HOOK, tip=3, eye_pin=5).make(ONE)
    # From the inside of the loop over a shank of 9 to the inside of the crook, a little slanted.
    straight = 3 + 0.5 + 9 + 6 / 2
    assert made.holding.length == pytest.approx(straight, abs=0.8)
    assert takes(made.holding) == pytest.approx(math.pi * 4 + 9 + math.pi * 7 / 2 + 9)
    crook = next(hold for hold in made.holding.holds if hold.key == "hook")
    assert crook.newtons == pytest.approx(10.0, abs=0.05)  # 1.0 at 210 on a 6 mm pin
    assert "hook_wide" not in fits(OwnHook(moves=HOOK, tip=3, eye_pin=5))
    assert "hook_wide" in fits(OwnHook(moves=HOOK, tip=5, eye_pin=5))
    assert OwnHook(name="heron beak").says == "heron beak"


def test_a_hook_without_a_shape_is_refused_at_its_moves() -> None:
    brief = example("linked_bracelet")
    flat = {"kind": "own_hook", "moves": [{"move": "turn", "degrees": 90}]}
    with pytest.raises(BriefRefused) as refused:
        plan_raw({**brief, "piece": {**brief["piece"], "closure": flat}}, Shop())
    assert refused.value.problems[0].field == "piece.closure.moves"


@pytest.mark.parametrize("name", sorted(registered_closures()))
def test_every_closure_is_made_of_wire_it_cuts_and_says_how_to_make_it(name: str) -> None:
    made = registered_closures()[name].model_validate({}).make(ONE)
    for half in (made.receiving, made.holding):
        for use in half.wires:
            assert sum(developed_length(moves, use.wire.d) for _, moves in use.stretches) > 5
        if half.wires:
            assert half.steps
            assert half.minutes > 0
    if made.hold is not None:
        assert made.hold.newtons > 1
    thin = registered_closures()[name].model_validate({}).make(Palette(replace(ONE.body, d=0.6)))
    if made.hold is not None and thin.hold is not None and name != "spring_clasp":
        # Thinner wire opens sooner, whatever the closure.
        assert thin.hold.newtons < made.hold.newtons


def test_what_closures_add_on_paper() -> None:
    s = SHook(hook_pin=6, into="jump_ring", into_pin=6).make(ONE)
    assert s.length == pytest.approx(6 + 2 * 6 + 1)
    bare = SHook(hook_pin=6).make(ONE)
    assert bare.length == pytest.approx(2 * 6 + 1)
    assert bare.receiving.wires == ()
    crook = CrookHook(shank=6, hook_pin=5, wraps=3, eye_pin=5).make(ONE)
    hook = 3 * 1 + 3 + 1 + 6 + 2.5
    # Both loops of the eye are wound shut on its stem, coils meeting.
    eye = 5 + 1 + 2 * 1 + 2 * 1 + 3 + 1
    assert crook.length == pytest.approx(hook + eye)
    clasp = SpringClasp(clasp=11, ring_pin=3.5, extender=10, extender_pitch=3.5).make(ONE)
    assert clasp.length == pytest.approx(11 + 2 * ONE.body.sprung(3.5))
    assert (clasp.adds_range, clasp.range_step) == (35, 3.5)
    toggle = Toggle(ring_pin=12, loop_pin=2.5).make(ONE)
    assert toggle.length == pytest.approx(12 + 2 * 3.5)


def test_standing_on_edge_a_half_reaches_out_by_its_width() -> None:
    flat, edge = (SHook(lies=lies).make(ONE).holding for lies in ("flat", "standing"))
    # Hammered to 0.8, and bound with wire half as thick on both sides.
    assert flat.thickness == pytest.approx(1 + 2 * 0.5)
    assert edge.thickness == flat.width == 8
    assert BroadHook().make(ONE).holding.width > BroadHook().make(ONE).holding.thickness


def test_the_pictures_in_the_docs_are_what_is_drawn_today(tmp_path: Path) -> None:
    tool = ROOT / "tools" / "part_pictures.py"
    subprocess.run([sys.executable, str(tool), "--out", str(tmp_path)], check=True)
    kept = ROOT / "docs" / "parts"
    assert {p.name for p in tmp_path.iterdir()} == {p.name for p in kept.iterdir()}
    for drawn in tmp_path.iterdir():
        assert drawn.read_text() == (kept / drawn.name).read_text(), drawn.name


@pytest.mark.parametrize(
    "kind",
    [*registered().values(), *registered_parts().values(), *registered_closures().values()],
    ids=lambda cls: cls.__name__,
)
def test_no_kind_shows_more_than_five_choices_at_first(kind: Any) -> None:
    choices = kind.choices()
    first = [one.name for one in choices if one.first]
    assert len(first) <= 5
    assert set(kind.first) <= set(first)
    if len(choices) > 5:
        assert len(first) >= 3


def test_what_a_piece_alone_asks_is_shown_first() -> None:
    own = {"linked_necklace": {"length", "falls"}, "drop_earring": {"drop", "pair"}}
    for kind, names in own.items():
        assert names <= {one.name for one in registered()[kind].choices() if one.first}


@pytest.mark.parametrize(
    ("core", "wire", "said"), [("0.64 mm", "22 awg", False), ("0.5 mm", "22 awg", True)]
)
def test_wire_round_its_own_thickness_is_no_thin_core(core: str, wire: str, said: bool) -> None:
    plan = _coiled({"kind": "coil", "core": core, "wire": wire})
    assert ("core_small" in {one.id for one in plan.advice}) is said
    assert not {one.id for one in plan.advice if one.id.startswith("work_cracks")}


def test_a_coil_that_is_wound_in_its_turn_is_no_solid_wire() -> None:
    """Coils of 0.3 on 0.6 are 1.2 wide, and go round a rod of 1.0 all the same."""
    part = {"kind": "coil_bead", "wire": "0.3 mm", "core_wire": "0.6 mm", "core": "1.0 mm"}
    assert "core_small" not in {one.id for one in _coiled(part).advice}


def _coiled(part: dict[str, Any]) -> Plan:
    entry = {"id": "e1", "part": part, "times": 2}
    piece = {"kind": "linked_bracelet", "counted": False, "entries": [entry]}
    brief = {"measures": {"wrist_girth": {"readings": [{"value": "160"}]}}, "piece": piece}
    return plan_raw({**brief, "wire": {"size": "0.8 mm", "temper": "dead_soft"}}, Shop())


@pytest.mark.parametrize(
    ("typed", "mm"),
    [("20 awg", 0.8118), ("20 ga", 0.8118), ("20 swg", 0.9144), ("1.2", 1.2), (2, 2.0)],
)
def test_what_a_coil_is_wound_on_may_be_a_gauge(typed: object, mm: float) -> None:
    # ASTM B258 and BS 3737 for the gauges; a bare number is a length.
    assert Coil.model_validate({"core": typed}).core == pytest.approx(mm, abs=5e-5)


def test_a_gauge_that_is_in_no_table_is_refused_at_the_core() -> None:
    with pytest.raises(BriefRefused) as refused:
        _coiled({"kind": "coil", "core": "77 swg"})
    assert refused.value.problems[0].field == "piece.entries.0.part.core"
