"""Parts and closures as hands make them: order of moves, what lies in a loop, lists of beads."""

import itertools
import json
import math
import re
from collections.abc import Iterator
from copy import deepcopy
from typing import Any

import pytest
import shapely
from shapely.geometry import LineString, Point

from jamreel.core.bench.steps import Step
from jamreel.core.closures import registered_closures
from jamreel.core.closures.crook_hook import CrookHook
from jamreel.core.closures.folded_hook import FoldedHook
from jamreel.core.closures.s_hook import SHook
from jamreel.core.closures.toggle import Toggle
from jamreel.core.errors import Refusal
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.palette import Palette
from jamreel.core.parts import Part, registered_parts
from jamreel.core.parts.base import Made
from jamreel.core.parts.beads import BeadRow, OneBead
from jamreel.core.parts.chain import BoughtChain
from jamreel.core.parts.coil import Coil
from jamreel.core.parts.coil_bead import CoilBead
from jamreel.core.parts.curved_link import CurvedLink
from jamreel.core.parts.dangle import Dangle
from jamreel.core.parts.eye_link import EyeLink
from jamreel.core.parts.finding import Finding
from jamreel.core.parts.linked_bead import LinkedBead
from jamreel.core.parts.ring_link import RingLink
from jamreel.core.parts.spacer_coil import SpacerCoil
from jamreel.core.parts.swag import Swag
from jamreel.core.parts.tassel import Section, Tassel
from jamreel.core.path.moves import Kink, PlaneTurn, Straight, developed_length
from jamreel.core.plan import BriefRefused, Plan, plan_raw, propose_raw
from jamreel.core.shop import Shop
from jamreel.core.wire.gauges import WireSize
from jamreel.core.wire.holes import circles_factor, room_for
from jamreel.core.wire.metals import metals
from tests.conftest import EXAMPLES

D = 1.0
ONE = Palette(Wire(D, "1 mm", metals()["copper"], "half_hard", 210.0))
FILES = sorted(path.stem for path in EXAMPLES.glob("*.json"))
BRACELET = json.loads((EXAMPLES / "linked-bracelet.json").read_text())
SMALL_PEARL_SMALL = (OneBead(bead=3), OneBead(bead=6, stuff="pearl"), OneBead(bead=3))


def example(name: str) -> dict[str, Any]:
    brief: dict[str, Any] = json.loads((EXAMPLES / f"{name}.json").read_text())
    return brief


def planned(name: str, **piece: Any) -> Plan:
    brief = example(name)
    return plan_raw({**brief, "piece": {**brief["piece"], **piece}}, Shop())


def bracelet(entries: list[dict[str, Any]], **more: Any) -> Plan:
    piece = {"kind": "linked_bracelet", "entries": entries, "counted": False, **more}
    return plan_raw({**deepcopy(BRACELET), "piece": piece}, Shop())


def said(plan: Plan) -> set[str]:
    return {one.id for one in plan.advice}


def takes(made: Made, which: int = 0) -> float:
    use = made.wires[which]
    return sum(developed_length(moves, use.wire.d) for _, moves in use.stretches)


# --- The order of steps ---------------------------------------------------------------------------

# What must be in a loop, what closes it; what is bent last; what heats, and what heat spoils.
IN = {
    "first_in",
    "tassel_in",
    "next_link_first",
    "hang_in",
    "body_in",
    "eye_body",
    "tassel_hang",
    "roll_over",
}
CLOSES = {
    "wrapped_first", "tassel_top", "lattice_wrapped", "lattice_close",
    "wrapped_second", "hang_wrapped", "join_loop", "bind", "bind_half", "eye_close",
    "tassel_close", "roll_close", "loops_close",
}  # fmt: skip
OPENS = {
    "first_open",
    "tassel_head",
    "wrapped_open",
    "hang_open",
    "join_open",
    "eye_join",
    "tassel_open",
    "roll",
    "side_loops",
    "lattice_base",
    "lattice_last",
}
BINDS, CROOKS = {"bind", "join_loop", "loops_close"}, {"crook"}
HEATS, COLD = {"torch"}, {"glue"}


def every_sequence() -> Iterator[tuple[str, tuple[Step, ...]]]:
    """Yield the steps of every part and closure, with each option that it has."""
    for kind, part in registered_parts().items():
        for choices in options_of(part):
            yield f"{kind} {choices}", part.model_validate(choices).make(ONE).steps
    for kind, closure in registered_closures().items():
        for choices in options_of(closure):
            made = closure.model_validate(choices).make(ONE)
            yield f"{kind} {choices}, receiving", made.receiving.steps
            yield f"{kind} {choices}, holding", made.holding.steps


def options_of(cls: Any) -> Iterator[dict[str, Any]]:
    yield {}
    for choice in cls.choices():
        if choice.type == "option" and choice.name not in ("stuff", "colour"):
            yield from ({choice.name: option} for option in choice.options)
        elif choice.type == "flag":
            yield {choice.name: not choice.default}


def at(steps: tuple[Step, ...], names: set[str]) -> list[int]:
    return [i for i, one in enumerate(steps) if one.id.rpartition("/")[2] in names]


SEQUENCES = dict(every_sequence())


@pytest.mark.parametrize("name", sorted(SEQUENCES))
def test_what_must_be_in_a_loop_goes_in_after_it_is_bent_and_before_it_is_closed(name: str) -> None:
    steps = SEQUENCES[name]
    puts, closes, opens = at(steps, IN), at(steps, CLOSES), at(steps, OPENS)
    if "on_ring" in name and "holding" in name:
        # The half is closed for itself, and hung in its ring while that is open.
        assert at(steps, {"hang_on_ring"}) < at(steps, {"ring_close"})
        return
    # Everything that is put in is closed behind it, and nothing is closed that is empty.
    assert len(puts) == len(closes)
    for put, close in zip(puts, closes, strict=True):
        assert put < close
        if opens:
            assert min(opens) < put
    for bound in at(steps, BINDS):
        assert all(bound < crook for crook in at(steps, CROOKS))
    ids = [one.id for one in steps]
    assert len(set(ids)) == len(ids)


def test_most_parts_and_closures_are_looked_at_by_the_order() -> None:
    looked = {name.split()[0] for name, steps in SEQUENCES.items() if at(steps, IN)}
    assert {"linked_bead", "eye_link", "dangle", "tassel", "ring_link", "bare_drop"} <= looked
    assert {"folded_hook", "crook_hook", "doubled_hook", "s_hook"} <= looked


@pytest.mark.parametrize("name", FILES)
def test_heat_comes_before_glue_pearls_and_stones(name: str) -> None:
    steps = planned(name).steps
    order = [one.id for one in steps]
    hot = [i for i, one in enumerate(steps) if HEATS & set(one.cautions)]
    cold = [i for i, one in enumerate(steps) if COLD & set(one.cautions)]
    threaded = at(steps, {"thread", "legs", "wind_on", "string", "beads", "section_1"})
    if hot and (cold or threaded):
        assert max(hot) < min([*cold, *threaded])
    if "lay_out" in order:
        # Laid out before anything is joined.
        assert not [i for i in at(steps, IN) if i < order.index("lay_out")]


def test_a_soldered_ring_is_made_before_pearls_are_near() -> None:
    pearls = [{"part": {"kind": "linked_bead", "stuff": "pearl"}, "times": 9}]
    for closure in (
        {"kind": "s_hook", "into": "soldered_ring"},
        {"kind": "toggle", "soldered": True},
        {"kind": "folded_hook", "into": "soldered_ring"},
    ):
        steps = bracelet(pearls, closure=closure).steps
        hot = [i for i, one in enumerate(steps) if "torch" in one.cautions]
        assert hot
        assert max(hot) < min(at(steps, {"thread"})), closure


def test_no_torch_unless_it_is_chosen() -> None:
    for kind in registered_closures():
        made = registered_closures()[kind].model_validate({}).make(ONE)
        steps = (*made.receiving.steps, *made.holding.steps)
        assert not any("torch" in one.cautions for one in steps), kind


# --- Ends and joints ------------------------------------------------------------------------------


def test_what_is_there_takes_the_hook_and_no_second_wire_is_cut() -> None:
    links = [{"part": {"kind": "linked_bead", "pin": "4"}, "times": 9}]
    for kind in ("folded_hook", "crook_hook", "own_hook", "s_hook", "toggle", "broad_hook"):
        plan = bracelet(links, closure={"kind": kind, "into": "last_loop"})
        cut = [one.id for one in plan.cuts if one.id.startswith("closure/")]
        assert not any("eye" in one or "ring" in one or "catch" in one for one in cut), kind
        lines = {line.id: line.value_mm for line in plan.ledger}
        made = registered_closures()[kind].model_validate({"into": "last_loop"})
        wire = Wire(0.127 * 92 ** (16 / 39), "20 AWG", metals()["copper"], "half_hard", 210.0)
        half = made.make(Palette(wire))
        assert half.receiving.length == 0
        assert lines["closure"] == pytest.approx(half.holding.length, abs=1e-3)


def test_the_last_loop_has_to_let_the_hook_through() -> None:
    def fits(pin: str, **closure: Any) -> set[str]:
        links = [{"part": {"kind": "linked_bead", "pin": pin}, "times": 9}]
        return said(bracelet(links, closure={"into": "last_loop", **closure}))

    # Doubled 18 AWG is 2.05 wide, and 0.3 to spare.
    assert "hook_wide" in fits("2.3", kind="folded_hook", wire="18 awg")
    assert "hook_wide" not in fits("2.4", kind="folded_hook", wire="18 awg")
    # A bar of 18 asks a loop of at most 13.5 inside.
    assert "bar_short" in fits("14", kind="toggle")
    assert "bar_short" not in fits("13", kind="toggle")
    string = [{"part": {"kind": "bead"}, "times": 24}]
    closure = {"kind": "folded_hook", "into": "last_loop"}
    assert "nothing_to_hook" in said(bracelet(string, closure=closure, string_ends="through"))
    assert "nothing_to_hook" not in said(bracelet(string, closure=closure))


def test_a_ring_of_any_kind_receives() -> None:
    lengths = {
        into: FoldedHook(into=into, into_pin=6).make(ONE).receiving
        for into in ("jump_ring", "soldered_ring", "split_ring", "bought_ring")
    }
    assert all(half.length == pytest.approx(6) for half in lengths.values())
    assert [bool(half.wires) for half in lengths.values()] == [True, True, False, False]
    assert [bool(half.bought) for half in lengths.values()] == [False, False, True, True]
    opens = [half.ends[0].opens for half in lengths.values() if half.ends]
    assert opens == [True, False, True, False]
    gold = Palette(Wire(1.0, "1 mm", metals()["aluminium"], "half_hard", 100.0))
    with pytest.raises(Refusal) as refused:
        FoldedHook(into="soldered_ring").make(gold)
    assert refused.value.field == "into"


def test_on_a_ring_one_hand_fastens_it_and_it_holds_less() -> None:
    direct, swings = (CrookHook(fixed=how).make(ONE) for how in ("directly", "on_ring"))
    assert (direct.one_hand, swings.one_hand) == (False, True)
    assert swings.length - direct.length == pytest.approx(ONE.body.sprung(4.0))
    strong, loose = FoldedHook(), FoldedHook(fixed="on_ring", fixed_pin=8)
    held, less = strong.make(ONE).hold, loose.make(ONE).hold
    assert held is not None
    assert less is not None
    assert less.key == "jump_ring"
    assert less.newtons < held.newtons


def test_a_fit_may_take_another_hook_or_turn_it_over() -> None:
    found = propose_raw(deepcopy(BRACELET), Shop())
    kinds = {type(edit.value) for one in found for edit in one.edits}
    assert {int, str, dict} == kinds
    for one in found:
        piece = deepcopy({**BRACELET["piece"], "rings": 0})
        for edit in one.edits:
            *steps, last = edit.path
            where: Any = piece
            for step in steps:
                where = where[step]
            where[last] = edit.value
        worn = next(
            f.value_mm
            for f in plan_raw({**BRACELET, "piece": piece}, Shop()).figures
            if f.id == "worn"
        )
        assert worn == pytest.approx(one.got_mm), one.says


@pytest.mark.parametrize("count", range(1, 8))
def test_so_many_wires_lie_in_a_loop(count: int) -> None:
    """Wires as circles: round all of them goes no smaller circle than the loop is asked to be."""
    wires = [1.0] * count
    assert room_for(wires) == pytest.approx(circles_factor(count))
    # By area no packing is denser than this.
    assert math.pi * room_for(wires) ** 2 / 4 >= count * math.pi / 4
    assert room_for([*wires, 1.0]) >= room_for(wires)


def test_two_unlike_wires_lie_side_by_side_and_many_as_if_all_were_thick() -> None:
    assert room_for([1.0, 0.4]) == pytest.approx(1.4)
    circles = [Point(0, 0).buffer(0.5, 64), Point(0.7, 0).buffer(0.2, 64)]
    both = shapely.minimum_bounding_radius(shapely.unary_union(circles)) * 2
    assert room_for([1.0, 0.4]) == pytest.approx(both, rel=1e-3)
    assert room_for([1.0, 0.1, 0.1]) == pytest.approx(1.2)
    assert room_for([]) == 0
    # More than the table has: an upper bound that grows, and is no wild one.
    factors = [circles_factor(n) for n in range(1, 25)]
    assert all(a <= b for a, b in itertools.pairwise(factors))
    # Nineteen fit in 4.863 diameters: published packings.
    assert 4.863 <= circles_factor(19) <= 4.863 * 1.1


def test_all_that_hangs_in_a_loop_is_counted() -> None:
    def ring(pin: str, drops: int) -> list[str]:
        entries: list[dict[str, Any]] = [
            {"part": {"kind": "linked_bead"}, "times": 4},
            {"part": {"kind": "jump_ring", "pin": pin}},
            {"part": {"kind": "dangle", "bead": "1.5", "hole": "0.9"}, "times": drops},
            {"part": {"kind": "linked_bead"}, "times": 4},
        ]
        return [one.says for one in bracelet(entries).advice if one.id == "loop_full"]

    # Both neighbours and three drops: five wires of 0.81 need 2.7 of them and 0.2, 2.39 in all.
    assert not ring("2.4", 3)
    assert ring("2.2", 3)
    assert not ring("2.2", 1)
    assert "5 wires" not in ring("2.2", 3)[0]
    assert "dangle" in ring("2.2", 3)[0]


def test_a_drop_hangs_in_the_ring_beside_it_or_in_the_wider_loop() -> None:
    """Five drops between a link and a ring crowd the ring, wherever they are written down."""

    def crowded(*kinds: dict[str, Any]) -> list[str]:
        drops = {"part": {"kind": "dangle", "bead": "1.5", "hole": "0.9"}, "times": 6}
        parts = [{"part": one} for one in kinds]
        plan = bracelet([*parts[:1], drops, *parts[1:]])
        return [one.says for one in plan.advice if one.id == "loop_full"]

    link = {"kind": "linked_bead", "pin": "6"}
    small = {"kind": "jump_ring", "pin": "2.2"}
    assert all("jump ring" in one for one in crowded(link, small))
    assert crowded(link, small)
    assert not crowded(link, {"kind": "linked_bead", "pin": "3"})


def test_a_drop_on_a_string_takes_it_as_often_as_it_passes() -> None:
    beads = {"part": {"kind": "bead", "hole": "3"}, "times": 12}
    drop = {"part": {"kind": "dangle", "bead": "2", "hole": "1.2", "pin": "1.2"}}

    def small(passes: int) -> bool:
        plan = bracelet([beads, drop, beads], string="0.5 mm", passes=passes)
        return bool(said(plan) & {"loop_small", "loop_full"})

    # Two of half a millimetre and 0.2 to swing are 1.2; three take 0.5 x 2.155 and 0.2.
    assert [small(n) for n in (1, 2, 3)] == [False, False, True]


def test_what_does_not_open_is_not_hung_on_what_does_not_open() -> None:
    charm = {"part": {"kind": "finding", "hangs": True}}
    links = {"part": {"kind": "jump_ring"}, "times": 30}
    closed = {"part": {"kind": "bought_ring"}}
    with pytest.raises(BriefRefused, match=r"Neither .* opens"):
        bracelet([links, closed, charm, links])
    assert bracelet([links, charm, links]).steps


@pytest.mark.parametrize("stand", ["alike", "square"])
def test_the_loops_of_a_link_stand_as_chosen(stand: str) -> None:
    for part in (
        LinkedBead.model_validate({"stand": stand}),
        EyeLink.model_validate({"stand": stand}),
        CurvedLink.model_validate({"stand": stand}),
    ):
        made = part.make(ONE)
        # A turn before a kink turns the loop; one before wraps takes the wire round its stem.
        path = [move for _, moves in made.wires[0].stretches for move in moves]
        pairs = itertools.pairwise(path)
        turns = [a.angle for a, b in pairs if isinstance(a, PlaneTurn) and isinstance(b, Kink)]
        assert [abs(t) for t in turns] == ([] if stand == "alike" else [math.pi / 2])
        assert made.steps[-1].id == "face"


def test_a_swirl_takes_its_spiral_and_lies_on_the_face() -> None:
    plain, swirled = (
        LinkedBead.model_validate({"ends_in": how, "swirl_turns": 3, "tail": 0}).make(ONE)
        for how in ("away", "swirl")
    )
    # r = 1 + theta / 2 pi from the middle out: by hand with small straight steps.
    points = [
        (r * math.cos(t), r * math.sin(t))
        for t in (6 * math.pi * i / 6000 for i in range(6001))
        for r in (1.0 + t / (2 * math.pi),)
    ]
    spiral = LineString(points).length
    assert takes(swirled) - takes(plain) == pytest.approx(2 * spiral, rel=1e-4)
    assert swirled.thickness == pytest.approx(max(6, 4 * D))
    thin = LinkedBead.model_validate({"ends_in": "swirl", "bead": 2})
    assert thin.make(ONE).thickness == pytest.approx(4 * D)


@pytest.mark.parametrize("face", ["away", "inside", "outside"])
def test_an_end_is_pressed_in_on_the_face_that_is_chosen(face: str) -> None:
    steps = LinkedBead.model_validate({"ends_in": face}).make(ONE).steps
    tails = next(one for one in steps if one.id == "tails")
    word = {"away": "away from the skin", "inside": "inside", "outside": "outside"}[face]
    assert word in tails.says
    assert tails.check


# --- Beads ----------------------------------------------------------------------------------------


def test_a_list_stands_wherever_one_bead_stood() -> None:
    row = {"row": [one.model_dump() for one in SMALL_PEARL_SMALL]}
    one = LinkedBead(bead=6).make(ONE)
    listed = LinkedBead.model_validate(row).make(ONE)
    assert listed.length - one.length == pytest.approx(6)
    assert takes(listed) - takes(one) == pytest.approx(6)
    assert listed.thickness == one.thickness
    assert sum(b.quantity for b in listed.bought) == 3
    assert {b.size_mm for b in listed.bought} == {3.0, 6.0}
    for cls, counted in ((Dangle, 3), (RingLink, 6), (CurvedLink, 3)):
        part: Part = cls.model_validate({**row, **({"pin": 20} if cls is RingLink else {})})
        made = part.make(ONE)
        assert sum(b.quantity for b in made.bought if b.key == "bead") == counted, cls
    assert "pearl" in Dangle.model_validate(row).stuffs


def test_a_list_on_a_string_is_its_beads_one_by_one() -> None:
    row = [{"bead": b, "colour": "reed"} for b in ("4", "8", "8", "4")]
    listed = bracelet([{"id": "s", "part": {"kind": "bead", "row": row}, "times": 6}])
    each = [{"part": {"kind": "bead", "bead": b}} for b in ("4", "8", "8", "4")]
    grouped = bracelet([{"id": "s", "group": each, "times": 6}])
    pick = ("finished", "worn", "wire_in_all")
    for name in pick:
        one, other = (
            next(f.value_mm for f in plan.figures if f.id == name) for plan in (listed, grouped)
        )
        assert one == pytest.approx(other), name
    assert {(n.size, n.quantity) for n in listed.needs if n.kind == "bead"} == {
        (n.size, n.quantity) for n in grouped.needs if n.kind == "bead"
    }


def test_the_narrowest_hole_of_a_list_decides() -> None:
    row = BeadRow((OneBead(hole=2.0), OneBead(hole=1.0, times=3)))
    assert row.passes(0.95) is None
    assert row.passes(1.0) is not None
    assert (row.count, row.length, row.widest) == (4, 16, 4)
    assert BeadRow(()).passes(5.0) is None


@pytest.mark.parametrize(
    ("row", "field"),
    [
        ([{"bead": "0.1"}], "piece.entries.0.part.row.0.bead"),
        ([{"bead": "4"}, {"hole": "many"}], "piece.entries.0.part.row.1.hole"),
        ([{"times": 0}], "piece.entries.0.part.row.0.times"),
        ([{"glitter": 1}], "piece.entries.0.part.row.0.glitter"),
        ("beads", "piece.entries.0.part.row"),
        ([{}] * 13, "piece.entries.0.part.row"),
    ],
)
def test_a_list_of_nonsense_is_refused_at_its_place(row: Any, field: str) -> None:
    with pytest.raises(BriefRefused) as refused:
        bracelet([{"part": {"kind": "linked_bead", "row": row}}])
    assert field in {one.field for one in refused.value.problems}


def test_bought_pins_serve_as_wire() -> None:
    eye = LinkedBead(stock="eye_pin", pin_length=40, loops="plain").make(ONE)
    wire = LinkedBead(loops="plain").make(ONE)
    assert eye.wires == ()
    assert eye.length == pytest.approx(wire.length)
    # Bead and one loop; the first eye is there already.
    used = 6 + math.pi * (3 + D)
    snip = next(one for one in eye.steps if one.id == "pin_snip")
    assert snip.figures["over"] == pytest.approx(40 - used, abs=1e-3)
    assert next(b for b in eye.bought if b.key == "eye_pin").mass_g == pytest.approx(
        ONE.body.mass(used)
    )
    short = Dangle(bead=10, beads=4, pin_length=45).make(ONE)
    assert "pin_short" in {a.id for a in short.advice if a}
    assert "pin_short" not in {a.id for a in Dangle(pin_length=50).make(ONE).advice if a}


def test_a_ring_goes_round_the_edge_of_what_is_drilled() -> None:
    def ring(pin: str) -> set[str]:
        slab = {
            "kind": "finding", "hangs": True, "drilled": True,
            "edge": "3", "thickness": "4", "inner": "2",
        }  # fmt: skip
        entries: list[dict[str, Any]] = [
            {"part": {"kind": "linked_bead", "pin": "8"}, "times": 4},
            {"part": {"kind": "jump_ring", "pin": pin}},
            {"part": slab},
            {"part": {"kind": "linked_bead", "pin": "8"}, "times": 4},
        ]
        return said(bracelet(entries))

    made = Finding(hangs=True, drilled=True, edge=3, thickness=4).make(ONE)
    assert made.ends is not None
    assert made.ends[0].around == pytest.approx(5)  # sqrt(3 squared + 4 squared)
    # Beside it both neighbours' wires of 0.81: 5 + 1.62 and 0.2 to swing.
    assert "loop_full" in ring("6.4")
    assert "loop_full" not in ring("6.8")


def test_links_lost_at_a_cut_are_bought_and_weigh_nothing_in_the_piece() -> None:
    cut, opened = BoughtChain(links=20).make(ONE), BoughtChain(links=20, links_lost=0).make(ONE)
    assert [b.key for b in cut.bought] == ["chain", "chain_lost"]
    assert [b.key for b in opened.bought] == ["chain"]
    assert cut.mass == opened.mass
    assert cut.length == opened.length


# --- Parts put right ------------------------------------------------------------------------------


def test_each_sort_of_section_of_a_tassel_has_its_step_from_the_top() -> None:
    """Three strands of two long sections over two short ones, the middle strand one short section
    less: six long ones, three short ones on all strands and two on the longer ones, counted."""
    long = Section(row=(OneBead(bead=2.0, times=2), OneBead(bead=5.0)), times=2)
    short = Section(row=(OneBead(bead=3.0),), times=2)
    made = Tassel(strands=3, sections=(long, short), shorter=1).make(ONE)
    rows = [one for one in made.steps if one.id.startswith("section")]
    assert [one.times for one in rows] == [2 * 3, 1 * 3, 1 * 2]
    assert [one.figures["beads"] for one in rows] == [3, 1, 1]
    assert "2 × 2.0 mm, 5.0 mm" in rows[0].says
    # From the second row on the section above is hung in before the upper loop is wound shut.
    for one in rows[1:]:
        assert one.says.index("section above") < one.says.index("wraps")
    # All of them are there before the head takes them.
    assert made.steps.index(rows[-1]) < [one.id for one in made.steps].index("tassel_head")


def test_a_tassels_strands_go_in_before_its_head_is_closed() -> None:
    made = Tassel().make(ONE)
    order = [one.id for one in made.steps]
    assert order.index("tassel_open") < order.index("tassel_hang") < order.index("tassel_close")
    two = Section(row=(OneBead(bead=2), OneBead(bead=5), OneBead(bead=2)))
    uneven = Tassel(strands=5, sections=(Section(times=3), two), shorter=1).make(ONE)
    # Three sections on all five strands, the last on every second one less.
    sections = [use.quantity for use in uneven.wires[1:]]
    assert sections == [15, 3]
    assert len({use.key for use in uneven.wires}) == len(uneven.wires)
    many = Tassel(strands=9, strand_loop=1.2).make(ONE)
    assert "loop_full" in {a.id for a in many.advice if a}
    with pytest.raises(Refusal) as refused:
        Tassel(sections=(Section(row=(OneBead(times=40),), times=11),)).make(ONE)
    assert refused.value.field == "sections"


def test_a_curved_link_is_wound_by_two_counts() -> None:
    made = CurvedLink(beads=3, bead=3, end_turns=5, turns_between=3, tail=0).make(ONE)
    turns, d = 2 * 5 + 2 * 3, 0.4
    assert takes(made, 1) == pytest.approx(turns * math.hypot(math.pi * (1 + d), d) + 9)
    hands = [CurvedLink.model_validate({"hand": hand}) for hand in ("right", "left")]
    signs = [
        [
            m.angle
            for _, moves in p.make(ONE).wires[0].stretches
            for m in moves
            if isinstance(m, PlaneTurn)
        ]
        for p in hands
    ]
    assert signs[0] == [-signs[1][0]]
    order = [one.id for one in made.steps]
    assert order.index("hammer_middle") < order.index("wind_on")
    bare = CurvedLink(beads=0, tail=0).make(ONE)
    assert takes(bare, 1) == pytest.approx(10 * math.hypot(math.pi * (1 + d), d))


def test_coil_beads_carry_bare_turns_of_their_core_wire() -> None:
    plain, bare = (CoilBead(bare_turns=n, lead=0).make(ONE) for n in (0, 3))
    core, wire, n = 2.0, 0.8, 3
    assert bare.length - plain.length == pytest.approx(2 * n * wire)
    more = 2 * n * math.hypot(math.pi * (core + wire), wire)
    assert takes(bare, 1) - takes(plain, 1) == pytest.approx(more)
    assert takes(bare, 0) == pytest.approx(takes(plain, 0))


def test_the_fine_coil_of_a_bead_is_wound_on_a_rod_of_its_own() -> None:
    """0.3 on a rod of 1.0 is 1.6 across; ten turns of that lie on a rod of 2.0 at 3.6 in the
    middle, and the core wire of 0.8 runs in the middle of it."""
    fine = WireSize(diameter_mm=0.3)
    bead = CoilBead(turns=10, bare_turns=0, lead=0, core_wire=0.8, first_rod=1.0, core=2, wire=fine)
    made = bead.make(ONE)
    cord = 1.0 + 2 * 0.3
    along = 10 * math.hypot(math.pi * (2 + cord), cord)
    assert made.length == pytest.approx(10 * cord)
    assert made.thickness == pytest.approx(2 + 2 * cord)
    assert takes(made, 0) == pytest.approx(along / 0.3 * math.hypot(math.pi * 1.3, 0.3))
    assert takes(made, 1) == pytest.approx(along)
    wound = next(step for step in made.steps if step.id == "first_coil")
    assert wound.figures == pytest.approx({"core": 1.0, "long": along}, rel=1e-4)
    # Blank is in the middle of what goes over the core wire.
    assert bead.model_copy(update={"first_rod": None}).on_rod == pytest.approx(1.0)
    with pytest.raises(Refusal) as refused:
        bead.model_copy(update={"first_rod": 0.85}).make(ONE)
    assert (refused.value.key, refused.value.field) == ("first_rod", "first_rod")
    loose = bead.model_copy(update={"first_rod": 1.3}).make(ONE)
    assert "rod_loose" in {a.id for a in loose.advice if a}


def test_each_coil_of_a_bead_has_a_sample_of_its_own() -> None:
    fine = WireSize(diameter_mm=0.3)
    bead = CoilBead(turns=10, bare_turns=0, lead=0, core_wire=0.8, first_rod=1.0, core=2, wire=fine)
    by_sum = bead.make(ONE)
    # A metre of fine wire that gave a tenth less coil than it could; then 100 of coil, a tenth
    # less bead.
    could = 1000 * 0.3 / math.hypot(math.pi * 1.3, 0.3)
    first = bead.model_copy(update={"sample_wire": 1000.0, "sample_coil": 0.9 * could}).make(ONE)
    assert takes(first, 0) == pytest.approx(takes(by_sum, 0) / 0.9, rel=1e-6)
    assert takes(first, 1) == pytest.approx(takes(by_sum, 1))
    could = 100 * 1.6 / math.hypot(math.pi * 3.6, 1.6)
    second = bead.model_copy(update={"sample_cord": 100.0, "sample_bead": 0.9 * could}).make(ONE)
    for n in (0, 1):
        assert takes(second, n) == pytest.approx(takes(by_sum, n) / 0.9, rel=1e-6)
    with pytest.raises(Refusal) as refused:
        bead.model_copy(update={"sample_cord": 100.0}).make(ONE)
    assert (refused.value.key, refused.value.field) == ("sample_half", "sample_bead")


def test_a_sample_tells_what_a_hand_takes() -> None:
    by_sum = Coil(core=1, turns=400, wire=WireSize(diameter_mm=0.812))
    hand = by_sum.model_copy(update={"sample_wire": 3000.0, "sample_coil": 305.0})
    # As loose as the sample: 3 m for 305 of coil.
    wanted = 400 * 0.812 * 3000 / 305
    assert takes(hand.make(ONE)) == pytest.approx(wanted, rel=1e-3)
    assert takes(by_sum.make(ONE)) == pytest.approx(400 * 0.812 * 3000 / 423.7, rel=1e-3)
    assert "wound_by_hand" in {a.id for a in by_sum.make(ONE).advice if a}
    assert "wound_by_hand" not in {a.id for a in hand.make(ONE).advice if a}
    for half in ({"sample_wire": 3000.0}, {"sample_coil": 305.0}):
        with pytest.raises(Refusal) as refused:
            by_sum.model_copy(update=half).make(ONE)
        assert refused.value.key == "sample_half"
    with pytest.raises(Refusal) as refused:
        by_sum.model_copy(update={"sample_wire": 300.0, "sample_coil": 305.0}).make(ONE)
    assert refused.value.key == "sample_short"


def test_a_long_coil_is_wound_in_goes() -> None:
    assert Coil(turns=100, rod=150).make(ONE).steps[0].figures.get("goes") is None
    assert Coil(turns=400, rod=150).make(ONE).steps[0].figures["goes"] == 3
    # Of three turns and half a turn lost, 42 come off 150 mm.
    spacer = SpacerCoil(turns=3, lost=0.5, rod=150).make(ONE)
    assert spacer.steps[0].figures["per_go"] == 42
    # Beads of 18.8 stand 6 apart: six take 142.8, seven would take 167.6.
    assert CoilBead(rod=150).make(ONE).steps[1].figures["per_go"] == 6


def test_coils_and_rings_may_be_of_twisted_wire_and_strings_not() -> None:
    twisted = {
        "size": "1 mm", "metal": "copper", "temper": "dead_soft",
        "section": {"shape": "twisted", "strands": 2, "strand": "0.5", "pitch": "3"},
    }  # fmt: skip
    coil = [{"part": {"kind": "coil", "turns": 20}, "times": 8}]

    def with_palette(role: str) -> Plan:
        piece = {"kind": "linked_bracelet", "entries": coil, "counted": False}
        brief = {**deepcopy(BRACELET), "piece": piece, "palette": {role: twisted}}
        return plan_raw(brief, Shop())

    wound = next(cut for cut in with_palette("winding").cuts if cut.id.endswith("/coil"))
    assert wound.wire_mm == pytest.approx(1.0)
    assert with_palette("rings").cuts
    with pytest.raises(BriefRefused) as refused:
        with_palette("string")
    assert refused.value.problems[0].field == "palette.string.section"


# --- Pieces ---------------------------------------------------------------------------------------


def test_five_turns_are_cut_and_worn_as_four_and_a_bit() -> None:
    plan = planned("coil-bracelet-drops", turns=5)
    one_turn = math.pi * (56 + 0.6)
    assert plan.cuts[0].length_mm == pytest.approx(5 * one_turn)
    loops = 2 * math.pi * (3 + 0.6) + 2 * 1.5
    assert plan.finished_length_mm is not None
    assert plan.finished_length_mm.value == pytest.approx(5 * one_turn - loops)
    assert 4 < plan.finished_length_mm.value / one_turn < 5
    assert "straighten" not in {one.id for one in plan.steps}
    pins = next(need for need in plan.needs if need.label == "head pins")
    assert pins.quantity == 2


def test_what_hangs_in_a_coil_has_to_open_or_fit() -> None:
    charm = {"kind": "finding", "hangs": True}
    order = [one.id for one in planned("coil-bracelet-drops", hung=charm).steps]
    # What does not open goes in before its loop is closed.
    assert order.index("take_left") < order.index("first") < order.index("take_right")
    assert order.index("take_right") < order.index("last")
    thick = {"kind": "bare_drop", "loops": "plain", "wire": "3.5 mm", "pin": "4"}
    assert "loop_small" in said(planned("coil-bracelet-drops", hung=thick))
    with pytest.raises(BriefRefused) as refused:
        planned("coil-bracelet-drops", hung={"kind": "bead"})
    assert refused.value.problems[0].field == "piece.hung"


def test_of_five_charms_four_fit() -> None:
    plan = planned("bangle-with-charms")
    overlap = next(f.value_mm for f in plan.figures if f.id == "overlap")
    assert 4 * 8 <= overlap < 5 * 8
    (many,) = [one for one in plan.advice if one.id == "charms_many"]
    assert "4 fit" in many.says
    assert "charms_many" not in said(planned("bangle-with-charms", charms=4))
    assert "charm_ring" in said(planned("bangle-with-charms", charm_ring="1.8"))
    none = planned("bangle-with-charms", charms=0)
    assert not none.needs
    assert not said(none) & {"charms_many", "charm_ring"}


def test_two_chains_of_a_swag_fall_twenty_five_apart() -> None:
    made = Swag(span=80, first_fall=10, fall_apart=25, link=BoughtChain(links=1, pitch=3)).make(ONE)
    # To half a link of chain: its catenary is held against sums in tests/validation.
    strands = Swag(span=80, first_fall=10, fall_apart=25, link=BoughtChain(links=1, pitch=3))
    upper, lower = (one.sag for one in strands._strands(BoughtChain(links=1, pitch=3).make(ONE)))
    assert lower - upper == pytest.approx(25, abs=2.5)
    assert made.hang == pytest.approx(lower)
    assert [b.size.says for b in made.bought if b.key == "chain"] == [
        "28 links of 3.0 mm",
        "37 links of 3.0 mm",
    ]
    assert made.length == pytest.approx(28 * 3)
    assert made.ends is not None
    assert made.ends[0].strands == 2
    thick = BoughtChain(links=1, pitch=3, thickness=12)
    close = Swag(strands=3, fall_apart=3, link=thick).make(ONE)
    assert "strands_touch" in {a.id for a in close.advice if a}
    with pytest.raises(Refusal) as refused:
        Swag(link=Dangle()).make(ONE)
    assert refused.value.field == "link"
    with pytest.raises(Refusal):
        Swag(span=600, link=BoughtChain(links=1, pitch=0.8)).make(ONE)


def test_a_swag_of_links_takes_the_wire_of_all_its_strands() -> None:
    link = EyeLink(stem=4)
    made = Swag(span=60, strands=3, link=link).make(ONE)
    one = link.make(ONE)
    counts = [b for b in made.wires if b.key == "eye_link"]
    lengths = [round(counts[0].quantity * takes(one), 3)]
    strands = list(Swag(span=60, strands=3, link=link)._strands(one))
    assert lengths == [round(sum(s.links for s in strands) * takes(one), 3)]
    assert [s.sag for s in strands] == sorted(s.sag for s in strands)
    assert all(s.length > 60 for s in strands)


# --- Steps and schools ----------------------------------------------------------------------------


def with_making(name: str, **making: Any) -> Plan:
    return plan_raw({**example(name), "making": making}, Shop())


def test_tempered_patterned_and_reel_curved_wire_is_not_drawn_straight() -> None:
    def straightened(name: str, wire: dict[str, Any], **making: Any) -> bool:
        brief = {**example(name), "making": making}
        brief["wire"] = {**brief["wire"], **wire}
        return any(one.id == "straighten" for one in plan_raw(brief, Shop()).steps)

    assert straightened("sliding-bangle", {})
    assert not straightened("sliding-bangle", {}, straighten="as_reeled")
    assert not straightened("sliding-bangle", {"temper": "spring"})
    assert not straightened("coil-bracelet", {})
    twisted = {"shape": "twisted", "strands": 2, "strand": "1", "pitch": "8"}
    assert not straightened("open-cuff", {"section": twisted})


def test_hands_take_the_outline_and_hammers_do_what_they_do() -> None:
    by_hand = with_making("open-cuff", shaped_by="hands")
    shape = next(one for one in by_hand.steps if one.id == "shape")
    assert "From the middle" in shape.says
    order = [one.id for one in with_making("open-cuff", hammer="both").steps]
    assert order.index("shape") < order.index("mallet") < order.index("steel")
    usual = [one.id for one in with_making("open-cuff").steps]
    assert not {"mallet", "steel"} & set(usual)


def test_finishing_comes_last_but_one_in_its_own_order_and_names_what_it_spoils() -> None:
    plan = with_making("open-cuff", finish=["polish", "tumble", "hallmark"])
    order = [one.id for one in plan.steps]
    assert order.index("hallmark") < order.index("tumble") < order.index("polish")
    assert order[-1] == "press_in"
    assert not any(one.startswith("spoils") for one in said(plan))
    pearls = with_making("own-last-loop", finish=["tumble", "patina"])
    assert {"spoils_pearl", "spoils_glass"} <= said(pearls)
    gold = example("open-cuff")
    gold["wire"] = {**gold["wire"], "metal": "gold_filled"}
    assert "spoils_coating" in said(plan_raw({**gold, "making": {"finish": ["file"]}}, Shop()))
    caps = {**example("linked-bracelet"), "making": {"finish": ["tumble"]}}
    caps["piece"] = {**caps["piece"], "closure": {"kind": "end_caps"}}
    assert "spoils_glue" in said(plan_raw(caps, Shop()))


def test_a_ratio_is_shown_beside_the_sum() -> None:
    def cut(**cutting: Any) -> Plan:
        brief = example("sliding-bangle")
        return plan_raw({**brief, "cutting": {**brief.get("cutting", {}), **cutting}}, Shop())

    by_sum, twice = cut(), cut(school="ratio", ratio=2)
    finished = by_sum.finished_length_mm
    assert finished is not None
    assert twice.cuts[0].length_mm == pytest.approx(2 * finished.value)
    (more,) = [one for one in twice.advice if one.id == "ratio_more"]
    apart = 2 * finished.value - by_sum.cuts[0].length_mm
    assert f"{apart:.1f} mm" in more.says
    # One and a half times a wrist of 158 is less than the sum: the sum is cut, and it is said.
    girth = cut(school="ratio", ratio=1.5, ratio_of="girth")
    assert girth.cuts[0].length_mm == pytest.approx(by_sum.cuts[0].length_mm)
    assert "ratio_short" in said(girth)
    with pytest.raises(BriefRefused) as refused:
        cut(school="ratio", ratio=0.5)
    assert refused.value.problems[0].field == "cutting.ratio"


def test_only_what_runs_through_the_whole_is_cut_by_ratio() -> None:
    strung = example("strung-bracelet")
    plan = plan_raw({**strung, "cutting": {"school": "ratio", "ratio": 2}}, Shop())
    (string,) = plan.cuts
    assert plan.finished_length_mm is not None
    assert string.length_mm == pytest.approx(2 * plan.finished_length_mm.value)
    links = example("linked-bracelet")
    usual, ratio = (
        plan_raw({**links, "cutting": {"school": school}}, Shop()) for school in ("exact", "ratio")
    )
    assert [c.length_mm for c in ratio.cuts] == [c.length_mm for c in usual.cuts]


def test_a_bar_of_curled_tips_takes_its_curls_and_two_loops() -> None:
    plain, curled = (
        Toggle.model_validate({"tips": tips}).make(ONE) for tips in ("plain", "curled")
    )
    loop = math.pi * (2.5 + D)
    # Three wires flattened and three quarters of a turn on one and a half, at either tip.
    tips = 2 * (3 * D + 1.5 * math.pi * (1.5 * D + D) / 2)
    assert takes(curled.holding) - takes(plain.holding) == pytest.approx(loop + tips)
    assert curled.length == pytest.approx(plain.length)


def test_an_eye_has_as_many_wraps_as_chosen_and_none_leave_two_plain_loops() -> None:
    eye = [CrookHook(eye_wraps=n).make(ONE).receiving for n in (0, 2, 3)]
    assert [half.length for half in eye] == pytest.approx([10, 14, 16])
    assert not any(isinstance(m, Straight) and m.length for _, ms in eye[0].wires[0].stretches
                   for m in ms)  # fmt: skip
    holds = [min(hold.newtons for hold in half.holds) for half in eye]
    assert holds[0] < holds[1] == holds[2]


def test_an_s_hook_is_bound_round_the_body_and_hammered_before() -> None:
    order = [one.id for one in SHook().make(ONE).holding.steps]
    assert order == ["s_bows", "hammer_hook", "body_in", "bind_half"]


def test_a_swag_is_told_how_far_apart_its_points_hang() -> None:
    def told(span: str) -> list[str]:
        focal = {**example("swag-necklace")["piece"]["focal"], "span": span}
        plan = planned("swag-necklace", focal=focal)
        return [one.says for one in plan.advice if one.id in ("swag_deeper", "swag_flatter")]

    assert not told("60")
    (deeper,) = told("80")
    assert "fall deeper" in deeper
    (flatter,) = told("40")
    assert "fall less" in flatter
    # What it says is a span that is right: planned for it, nothing is left to say.
    wanted = re.findall(r"hang ([\d.]+) mm apart", deeper)[0]
    assert not told(wanted)
    # The lowest strand is drawn as deep as the figure says.
    plan = planned("swag-necklace")
    low = next(f.value_mm for f in plan.figures if f.id == "fall_pendant")
    sheet = next(one for one in plan.drawings.sheets if one.id == "fall")
    drawn = [y for s in sheet.strokes if s.part.startswith("swag") for _, y in s.points]
    assert -min(drawn) == pytest.approx(low, abs=1.5)


def test_rings_that_are_soldered_are_soldered_quenched_and_pickled() -> None:
    brief = json.loads((EXAMPLES / "linked-bracelet.json").read_text())
    ring = {"kind": "jump_ring", "soldered": True}
    brief["piece"]["entries"].append({"id": "three", "part": ring, "times": 3})
    bench = Shop.model_validate({"outfit": {"torch": True, "pickle": True}})
    plan = plan_raw(brief, bench)
    mine = [one for one in plan.steps if one.id.startswith("three/")]
    assert [one.id.partition("/")[2] for one in mine] == [
        "rings",
        "ring_in",
        "ring_close",
        "ring_solder",
        "ring_quench",
        "ring_pickle",
    ]
    heat, _, pot = mine[3:]
    assert heat.takes == ("hands", "torch")
    assert "torch" in heat.cautions
    assert (pot.waits, pot.waits_in) == (10.0, "pickle")
    assert "pickle" in pot.cautions
    # Each takes the one before it while it is open.
    assert [one.times for one in mine] == [3, 2, 3, 3, 3, 3]
    assert all(one.minutes > 0 for one in mine)
    # Before the beads are there to be spoiled.
    ids = [one.id for one in plan.steps]
    beads = [one.id for one in plan.steps if "linked_bead" in one.work or "bead" in one.id]
    assert all(ids.index(heat.id) < ids.index(one) for one in beads)
    # Left open, they are closed and no more.
    brief["piece"]["entries"][-1]["part"] = {"kind": "jump_ring"}
    opened = plan_raw(brief, bench)
    assert not any("solder" in one.id for one in opened.steps)
