"""Braids, plaits, meshes, bundles, wound rings, cages, cords, threaded cores: laws over random
choices, what is refused, and what whole pieces come to."""

import json
import math
from copy import deepcopy
from itertools import pairwise
from typing import Any

import numpy as np
import pytest
from hypothesis import HealthCheck, assume, given, settings
from hypothesis import strategies as st

from jamreel.core.advice.joining import cap_deep, cap_fits
from jamreel.core.closures import registered_closures
from jamreel.core.cutting.cuts import Cut
from jamreel.core.cutting.nest import nest
from jamreel.core.cutting.problem import Rack, Wanted
from jamreel.core.errors import Refusal
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.palette import Palette, palette_of
from jamreel.core.forming.tools import Outfit
from jamreel.core.interlace import relax
from jamreel.core.interlace.bound import Bound
from jamreel.core.interlace.braid.geometry import BeadedBraid, PlainBraid
from jamreel.core.interlace.braid.part import Braid
from jamreel.core.interlace.bundle.part import Bundle
from jamreel.core.interlace.bundle.stacked import Stacked, arc_over
from jamreel.core.interlace.coil_mesh.geometry import Mesh
from jamreel.core.interlace.coil_mesh.part import CoilMesh
from jamreel.core.interlace.cord.part import Cord, cord_of, rounded
from jamreel.core.interlace.flat_plait.geometry import Plait, width_by_rule
from jamreel.core.interlace.flat_plait.part import FlatPlait
from jamreel.core.interlace.hex_stack import Pile, rows_of_pile
from jamreel.core.interlace.relax import settled
from jamreel.core.interlace.stone_cage.geometry import Cage
from jamreel.core.interlace.stone_cage.part import StoneCage
from jamreel.core.interlace.wound_ring.part import WoundRing
from jamreel.core.parts.base import Made, registered_parts
from jamreel.core.path.moves import developed_length
from jamreel.core.plan import BriefRefused, Plan, plan_raw, propose_raw
from jamreel.core.shop import Shop
from jamreel.core.wire.gauges import WireSize
from jamreel.core.wire.metals import WireChoice, metals
from tests.conftest import EXAMPLES
from tests.core.clearance import clearance
from tests.counting import calls

COPPER = metals()["copper"]
STRANDS = Wire(0.8, "0.8 mm", COPPER, "dead_soft", 70.0)
FINE = Wire(0.4, "0.4 mm", COPPER, "dead_soft", 70.0)
WIRES = Palette(STRANDS, {"winding": FINE})
LAWS = settings(
    max_examples=25,
    deadline=None,
    derandomize=True,
    suppress_health_check=[HealthCheck.differing_executors],
)


def mm(low: float, high: float) -> st.SearchStrategy[float]:
    return st.floats(low, high).map(lambda x: round(x, 3))


def use_of(made: Made, key: str) -> Any:
    return next(use for use in made.wires if use.key == key)


def long(made: Made, key: str) -> float:
    use = use_of(made, key)
    return sum(developed_length(moves, use.wire.bend_adds) for _, moves in use.stretches)


# --- strands in space


@LAWS
@given(bead=mm(4.0, 10.0), strand=mm(0.5, 1.2), gap=mm(1.5, 4.0))
def test_a_braid_with_beads_is_drawn_as_long_as_its_sum(
    bead: float, strand: float, gap: float
) -> None:
    one = BeadedBraid(bead, strand, round(gap * strand, 3))
    cell = one.cell()
    assert cell.length_of("working") == pytest.approx(18 * sum(one.takes), rel=0.003)
    # Laid roughly: where strands cross they come a little nearer than they are thick.
    assert clearance(cell) > 0.85
    for n in range(3):
        # Every third bead is on the same strand.
        line = cell.strands[n].line
        on_it = [b for b in cell.balls if np.abs(line - np.array(b.at)).sum(axis=1).min() < 0.3]
        assert len(on_it) == 2


@settings(max_examples=5, deadline=None, derandomize=True)
@given(loop=st.sampled_from([2.6, 3.0, 3.6, 4.2]), strands=st.sampled_from([8, 12]))
def test_a_plait_pulled_tight_takes_what_the_sum_says(loop: float, strands: int) -> None:
    one = Plait(strands, 1.0, loop, width_by_rule(strands, 1.0, loop))
    cell = settled(one.cell())
    drawn = cell.length_of("working") / strands / cell.advance
    # Near to where it jams the wires of many strands have no way to slip.
    assert drawn == pytest.approx(one.take_up, rel=0.035 if loop >= 3 else 0.07)
    assert clearance(cell) > 0.96
    # Over one, under one: along a strand every crossing is on the other face than the last.
    line = one.cell().strands[0].line
    z = line[:: len(line) // (2 * strands), 2]
    inner = [v for n, v in enumerate(z[: 2 * strands]) if n % strands]
    assert all(a * b < 0 for a, b in pairwise(inner[: strands - 1]))


@LAWS
@given(
    d=mm(0.5, 1.2),
    mandrel=mm(3.0, 8.0),
    pitch=mm(2.1, 3.0),
    rod=mm(0.5, 1.5),
    coils=st.integers(2, 6),
)
def test_meshed_coils_keep_their_distance(
    d: float, mandrel: float, pitch: float, rod: float, coils: int
) -> None:
    mandrel = round(max(mandrel, 4 * d + 2 * rod * d), 3)
    one = Mesh(coils, d, mandrel, round(pitch * d, 3), round(rod * d, 3))
    cell = one.cell()
    drawn = cell.length_of("working") / coils
    assert drawn == pytest.approx(one.turn, rel=0.002)
    assert clearance(cell) >= 0.98
    # Pressed, a turn keeps its wire and gets wider.
    flat = Mesh(coils, d, mandrel, one.pitch, one.rod, 2 * d + one.rod)
    assert flat.turn == one.turn
    assert flat.width > one.width
    assert flat.cell().length_of("working") / coils == pytest.approx(one.turn, rel=0.004)


# --- laws of the sums


@LAWS
@given(d=mm(0.3, 1.5), six=mm(7.0, 14.0), more=mm(0.1, 3.0))
def test_a_longer_pitch_never_takes_more(d: float, six: float, more: float) -> None:
    assert PlainBraid(d, six * d).take_up > PlainBraid(d, (six + more) * d).take_up > 1
    near, far = Plait(8, d, 2.6 * d, 8 * d), Plait(8, d, (2.6 + more) * d, 8 * d)
    assert near.take_up > far.take_up > 1


@LAWS
@given(wires=st.integers(1, 40), d=mm(0.3, 1.5), former=mm(8.0, 40.0), more=mm(0.1, 5.0))
def test_a_wound_ring_grows_with_its_turns_and_its_former(
    wires: int, d: float, former: float, more: float
) -> None:
    one = Pile(wires, d, former)
    assert sum(one.rows) == wires
    # Each row is one longer or shorter than the last; only the outermost may be shorter than that.
    for a, b in pairwise(one.rows[:-1]):
        assert abs(a - b) == 1
    # A pile that rounds up to a hexagon lies further out than the next one.
    assert Pile(wires + 4, d, former).takes > one.takes
    assert Pile(wires, d, former + more).takes > one.takes
    assert one.outside >= former + 2 * d - 1e-9
    assert rows_of_pile(1) == (1,)
    assert Pile(1, d, former).takes == pytest.approx(math.pi * (former + d))


@LAWS
@given(girth=mm(40, 140), k=st.integers(2, 12), d=mm(0.5, 1.2), tail=mm(40, 90))
def test_marks_of_a_cage_lie_alike_from_both_ends_and_within(
    girth: float, k: int, d: float, tail: float
) -> None:
    one = Cage(girth, k, d, tail)
    marks, cut = one.marks(), one.cut()
    assert [cut - x for x in reversed(marks)] == pytest.approx(list(marks))
    assert 0 < marks[0] < marks[-1] < cut
    assert cut > girth + 2 * tail


def laid_of(bundle: Bundle) -> Stacked:
    binding = bundle.binding(WIRES)
    return bundle._laid(STRANDS, binding)


@LAWS
@given(
    along=st.integers(40, 220),
    strands=st.integers(2, 12),
    bindings=st.integers(1, 9),
    turns=st.integers(2, 8),
    kind=st.sampled_from(["square", "round", "half_round", "patterned", "twisted"]),
    layers=st.sampled_from(["one", "two"]),
    stops=st.integers(0, 3),
    end_turns=st.integers(0, 9),
)
def test_bindings_of_a_bundle_never_overlap_and_lie_alike_within(
    along: int, strands: int, bindings: int, turns: int, kind: Any, layers: Any, stops: int,
    end_turns: int,
) -> None:  # fmt: skip
    bundle = Bundle(
        along=along,
        side_by_side=strands,
        bindings=bindings,
        turns=turns,
        end_turns=end_turns,
        section=kind,
        layers=layers,
        centre_stops=min(stops, strands - 2),
    )
    # What does not go on is refused.
    last = end_turns or turns
    assume(((bindings - 1) * max(turns, (turns + last) / 2, last) + last) * 0.4 <= along)
    laid = laid_of(bundle)
    assert all(b[0] - a[1] >= -1e-9 for a, b in pairwise(laid.bands))
    assert laid.bands[0][0] >= -1e-9
    assert laid.bands[-1][1] <= along + 1e-9
    assert [along - x for x in reversed(laid.at)] == pytest.approx(list(laid.at))
    made = bundle.make(WIRES)
    for use in made.wires:
        if use.key.startswith("bundle_strand"):
            # Marks lie alike from both ends.
            runs = [developed_length(moves, use.wire.bend_adds) for _, moves in use.stretches]
            assert runs == pytest.approx(runs[::-1])
            assert sum(runs) >= along - 1e-6


def test_strands_that_bow_out_and_strands_that_lie_outside_are_longer() -> None:
    flat = Bundle(bindings=3, side_by_side=5).make(WIRES)
    open_ = Bundle(bindings=3, side_by_side=5, opened=6.0).make(WIRES)
    assert long(open_, "bundle_strand") > long(flat, "bundle_strand")
    assert open_.width == pytest.approx(flat.width + 12.0)
    # A bow of h over c is the arc of a circle.
    r = (20.0**2 / 4 + 5.0**2) / 10.0
    assert arc_over(20.0, 5.0) == pytest.approx(2 * r * math.asin(10.0 / r))
    stacked = Bundle(layers="two", centre_stops=0).make(WIRES)
    cuts = sorted(long(stacked, use.key) for use in stacked.wires if "strand" in use.key)
    assert cuts[1] - cuts[0] == pytest.approx(2 * math.pi * 0.8)


def test_twisted_strands_are_cut_longer_by_the_sum_or_by_what_was_measured() -> None:
    plain = Bundle(section="square", centre_stops=0)
    twisted = plain.model_copy(update={"section": "twisted"})
    measured = twisted.model_copy(update={"twist_left": 98.0})
    body = [long(one.make(WIRES), "bundle_strand") for one in (plain, twisted, measured)]
    assert body[1] > body[0]
    loops = 2 * math.pi * (3.2 + 0.8)
    assert body[2] - loops == pytest.approx((body[0] - loops) / 0.98)


@LAWS
@given(width=mm(2, 30), thick=mm(0.5, 6), less=mm(0, 5), wide=mm(2, 30), high=mm(0.5, 6))
def test_a_cap_that_fits_fits_what_is_smaller(
    width: float, thick: float, less: float, wide: float, high: float
) -> None:
    if cap_fits("x", width, thick, wide, high) is None:
        smaller = max(width - less, 0.1), max(thick - less, 0.1)
        assert cap_fits("x", *smaller, wide, high) is None
    if cap_deep("x", 6.0, width) is None:
        assert cap_deep("x", 6.0, max(width - less, 0.1)) is None


# --- what the hand takes


def test_a_sample_of_a_braid_scales_only_what_crosses() -> None:
    braid = Braid(each=1, begins="hooked", rows=60, sample_rows=30, sample_over=40.0)
    made = braid.make(WIRES)
    weaving: Any = made.weaving
    row = weaving.body.wires.worked[0]
    # All three strands of thirty crossings: a tenth more of what crosses, none of the length.
    took = 30 * 3 * (row.firm + 1.1 * (row.takes[0] - row.firm))
    read = braid.model_copy(update={"sample_took": round(took, 6)}).make(WIRES)
    tight: Any = read.weaving
    assert tight.tight == pytest.approx(1.1)
    assert tight.every_row(row)[0] == pytest.approx(row.firm + 1.1 * (row.takes[0] - row.firm))
    with pytest.raises(Refusal, match="sample_woven"):
        # Less wire than the braid is long.
        braid.model_copy(update={"sample_took": 3 * 40.0 - 1}).make(WIRES)


def test_folded_wires_are_half_as_many_and_have_their_fold_in_the_middle() -> None:
    hooked = Braid(each=2, begins="hooked", rows=60).make(WIRES)
    folded = Braid(each=2, begins="fold", rows=60).make(WIRES)
    assert use_of(hooked, "braid_strand").quantity == 6
    use = use_of(folded, "braid_strand")
    assert use.quantity == 3
    keys = [key for key, _ in use.stretches]
    # Half of what it is longer, both ends alike, the fold between.
    assert [key for key in keys if key in ("rows", "fold")] == ["rows", "fold", "rows"]
    assert keys[0] == keys[-1] == "tail_end"
    assert 1.6 < long(folded, "braid_strand") / long(hooked, "braid_strand") < 2.0


# --- refused, with what would do


@pytest.mark.parametrize(
    ("part", "key", "field"),
    [
        (Braid(each=3), "fold_uneven", "each"),
        (Braid(braided="beads", each=1, gap=0.8, begins="hooked"), "gap_braided", "gap"),
        (Braid(braided="beads", each=4, hole=1.0), "hole_woven", "hole"),
        (FlatPlait(plait_width=2.0), "plait_narrow", "plait_width"),
        (FlatPlait(sample_rows=14), "sample_rows", "sample_rows"),
        (CoilMesh(turn_pitch=1.2), "coils_near", "turn_pitch"),
        (CoilMesh(pressed_to=1.6), "pressed_thin", "pressed_to"),
        (CoilMesh(pressed_to=12.0), "pressed_thick", "pressed_to"),
        (CoilMesh(closed="round", coils=5), "coils_even", "coils"),
        (CoilMesh(closed="round", rod_wire=3.0), "rods_thick", "rod_wire"),
        (Bundle(bindings=15, turns=40), "bindings_many", "bindings"),
        (Bundle(bindings=3, turns=6, binding_apart=2.0), "bindings_overlap", "binding_apart"),
        (Bundle(bindings=3, binding_apart=80.0), "bindings_beyond", "binding_apart"),
        (Bundle(side_by_side=3, centre_stops=2), "all_stop", "centre_stops"),
        (Bundle(side_by_side=3, turns=1), "one_turn", "turns"),
        (Bundle(opened=30.0), "opened_wide", "opened"),
        (WoundRing(turns=30, bindings=6), "ring_bound", "turns"),
        (StoneCage(girth_by="pear", stone_length=20, stone_width=22), "pear_short", "stone_length"),
        (StoneCage(girth_by="measured", stone_girth=200), "girth_off", "stone_girth"),
        (StoneCage(tail=20.0), "bail_tail", "tail"),
        (StoneCage(base=1.5), "base_sharp", "base"),
        (StoneCage(bindings=5, turns=40), "cage_bound", "turns"),
        (Cord(hangs_on=0.5), "ring_thin", "hangs_on"),
        (Cord(insert=2.0), "insert_short", "insert"),
        (Cord(knots=2, knot_took=10.0), "knot_less", "knot_took"),
        (Cord(cord_beads=3, hole=2.0), "hole_woven", "hole"),
    ],
)
def test_what_cannot_be_made_is_refused_at_its_field(part: Any, key: str, field: str) -> None:
    with pytest.raises(Refusal) as refused:
        part.make(WIRES)
    assert (refused.value.key, refused.value.field) == (key, field)


def test_a_lacing_wire_has_to_go_through_the_loops() -> None:
    thick = Palette(STRANDS, {"winding": Wire(1.5, "1.5 mm", COPPER, "dead_soft", 70.0)})
    with pytest.raises(Refusal, match="lacing_thick"):
        FlatPlait(lacing="front").make(thick)


def test_skipping_saves_lacing_wire_and_the_first_crossing_may_differ() -> None:
    def laced(**choices: Any) -> float:
        return long(FlatPlait(rows=80, lacing="front", **choices).make(WIRES), "plait_lacing")

    assert laced(skipped=4) < laced(skipped=2) < laced(skipped=0)
    assert laced(skipped=2, first_skipped=0) != laced(skipped=2)
    one, two = (laced(lacing_crosses=x) for x in ("cross_one", "cross_two"))
    # One wire there and back is as long as two, less what the second one is held by.
    assert one == pytest.approx(2 * (two - 60) + 60)


def test_a_twisted_tube_is_shorter_than_its_coils() -> None:
    straight = CoilMesh(closed="round", rows=60)
    twisted = straight.model_copy(update={"twist": 120.0})
    assert twisted.make(WIRES).length < straight.make(WIRES).length
    # Coils and rods lean with it, and are as long as they were.
    for key in ("mesh_coil", "mesh_rod"):
        assert long(twisted.make(WIRES), key) == long(straight.make(WIRES), key)


def test_a_pressed_tube_is_half_as_wide_and_twice_as_thick() -> None:
    band, tube = CoilMesh(coils=8), CoilMesh(coils=8, closed="pressed")
    one, two = band.shaped(WIRES), tube.shaped(WIRES)
    half = Mesh(4, 0.8, 5.0, one.mesh.pitch, 0.8, one.mesh.pressed)
    assert two.width == pytest.approx(half.width + half.overlap)
    assert two.thickness == pytest.approx(2 * one.thickness)
    assert (one.rods, two.rods) == (7, 8)


def test_the_stone_is_bought_by_size_and_weighed() -> None:
    made = StoneCage().make(WIRES)
    stone = next(one for one in made.bought if one.key == "stone")
    # An ellipsoid of quartz: 30 x 22 x 5.
    assert stone.mass_g == pytest.approx(math.pi / 6 * 30 * 22 * 5 * 2.65e-3, rel=1e-6)
    assert made.hang == pytest.approx(5 + 0.8 + 6 + 30 + 0.8)


@pytest.mark.parametrize("part", [Bundle(), WoundRing(), StoneCage(), Cord()])
def test_bound_bodies_are_looked_at_from_all_sides(part: Any) -> None:
    bound = part.make(WIRES).weaving
    assert isinstance(bound, Bound)
    cell = bound.whole()
    assert {one.role for one in cell.strands} <= set(bound.wires)
    every = np.vstack([one.line for one in cell.strands])
    assert np.isfinite(every).all()
    assert np.ptp(every[:, 2]) > 0


def test_a_smooth_line_goes_through_its_points() -> None:
    points = np.array([[0.0, 0, 0], [1, 2, 0], [3, 2, 1], [4, 0, 1]])
    line = rounded(points)
    for point in points:
        assert np.linalg.norm(line - point, axis=1).min() < 1e-9


# --- whole pieces, wrist 160


BRACELET: dict[str, Any] = json.loads((EXAMPLES / "linked-bracelet.json").read_text())


def brief_of(
    part: dict[str, Any], closure: dict[str, Any], size: str, temper: str = "dead_soft"
) -> dict[str, Any]:
    brief = deepcopy(BRACELET)
    brief["measures"] = {"wrist_girth": {"readings": [{"value": "160"}, {"value": "160.5"}]}}
    brief["wire"] = {"size": size, "metal": "copper", "temper": temper}
    brief["palette"] = {"winding": {"size": "0.4 mm", "metal": "copper", "temper": "dead_soft"}}
    entry = {"id": "e1", "part": part, "times": 1, "fill": True}
    brief["piece"] = {**brief["piece"], "entries": [entry], "closure": closure}
    return brief


def solved(brief: dict[str, Any]) -> tuple[Plan, bool]:
    ways = propose_raw(deepcopy(brief), Shop())
    best = next((way for way in ways if way.exact), ways[0])
    for edit in best.edits:
        place: Any = brief["piece"]
        for step in edit.path[:-1]:
            place = place[step]
        place[edit.path[-1]] = edit.value
    return plan_raw(brief, Shop()), best.exact


def cut(plan: Plan, key: str) -> Cut:
    return next(one for one in plan.cuts if one.id.endswith(f"/{key}"))


def finished(plan: Plan) -> float:
    return next(f.value_mm for f in plan.figures if f.id == "finished")


HOOK = {"kind": "folded_hook", "wire": "1.2 mm"}
RIBBON_ENDS = {"kind": "end_caps", "cap_of": "ribbon_end", "cap_width": "11", "cap_opening": "2.5"}
TUBE_CAPS = {
    "kind": "end_caps",
    "cap_of": "tube",
    "tube": "17",
    "cap": "16",
    "depth": "13",
    "plate": "domed",
}


def test_a_braid_with_beads_for_a_wrist() -> None:
    part = {"kind": "braid", "braided": "beads", "each": 1, "begins": "hooked", "bead": "6"}
    brief = brief_of({**part, "hole": "1.2"}, HOOK, "0.8 mm")
    plan, _ = solved(brief)
    # Whole beads: within half of one.
    assert abs(propose_raw(brief, Shop())[0].off_mm) <= 7.6 / 2
    beads = plan.woven[0].rows
    assert [need.quantity for need in plan.needs if need.kind == "bead"] == [beads]
    # All three strands are alike: one cut, three of it.
    assert cut(plan, "braid_strand").quantity == 3
    one = BeadedBraid(6, 0.8, 1.6)
    crosses, straight = one.takes
    least = beads * (crosses + straight)
    assert cut(plan, "braid_strand").length_mm > least + 60


def test_a_braid_that_fastens_itself() -> None:
    part = {"kind": "braid", "each": 2, "finishes": "hook", "pin": "6"}
    plan, exact = solved(brief_of(part, {"kind": "own_ends"}, "0.6 mm"))
    assert exact
    assert not [a for a in plan.advice if a.severity == "fix"]
    eye = {**part, "finishes": "eye"}
    said = {a.id for a in solved(brief_of(eye, {"kind": "own_ends"}, "0.6 mm"))[0].advice}
    assert "no_own_hook" in said
    small = {**part, "pin": "1.5"}
    said = {a.id for a in solved(brief_of(small, {"kind": "own_ends"}, "0.6 mm"))[0].advice}
    assert "hook_wide" in said


def test_a_plait_of_twelve_with_overlay_and_ribbon_ends() -> None:
    part = {"kind": "flat_plait", "strands": "12", "lacing": "front", "skipped": 2}
    plan, exact = solved(brief_of(part, RIBBON_ENDS, "0.6 mm"))
    assert exact
    assert not [a for a in plan.advice if a.severity == "fix"]
    strand = cut(plan, "plait_strand")
    assert strand.quantity == 12
    assert cut(plan, "plait_lacing").quantity == 2
    titles = [one.id.rpartition("/")[2] for one in plan.steps]
    assert titles.index("plait_bind") < titles.index("plait_lace") < titles.index("glued")
    assert next(one for one in plan.steps if one.id.endswith("/glued")).waits >= 480
    narrow = {**RIBBON_ENDS, "cap_width": "5"}
    said = {a.id for a in solved(brief_of(part, narrow, "0.6 mm"))[0].advice}
    assert "cap_narrow" in said
    low = {**RIBBON_ENDS, "cap_opening": "1.2"}
    assert "cap_low" in {a.id for a in solved(brief_of(part, low, "0.6 mm"))[0].advice}


def test_a_coil_mesh_is_pickled_where_there_is_a_pot() -> None:
    part = {"kind": "coil_mesh", "coils": 4, "mandrel": "4"}
    brief = brief_of(part, TUBE_CAPS, "0.8 mm", "half_hard")
    plan = plan_raw(brief, Shop(outfit=Outfit(torch=True, pickle=True)))
    told = [one.id.partition("/")[2] for one in plan.steps]
    assert told.index("pickle_mesh_anneal") == told.index("mesh_rods") - 1


def test_a_coil_mesh_with_caps_from_tube() -> None:
    part = {"kind": "coil_mesh", "coils": 4, "mandrel": "4"}
    plan, exact = solved(brief_of(part, TUBE_CAPS, "0.8 mm", "half_hard"))
    assert exact
    assert not [a for a in plan.advice if a.severity == "fix"]
    assert (cut(plan, "mesh_coil").quantity, cut(plan, "mesh_rod").quantity) == (4, 3)
    said = {a.id for a in plan.advice}
    assert said & {"tube_goes_in", "tube_stretch", "tube_anneal"}
    # Soft before the coils are meshed and once more before they are pressed, cooled both times.
    told = [one.id.partition("/")[2] for one in plan.steps]
    first, again = told.index("mesh_anneal"), told.index("mesh_anneal_again")
    assert told[first : first + 3] == ["mesh_anneal", "quench_mesh_anneal", "mesh_rods"]
    assert told[again : again + 3] == [
        "mesh_anneal_again",
        "quench_mesh_anneal_again",
        "mesh_press",
    ]
    shallow = {**TUBE_CAPS, "depth": "5"}
    said = {a.id for a in solved(brief_of(part, shallow, "0.8 mm"))[0].advice}
    assert "cap_shallow" in said


@pytest.mark.parametrize(
    ("tube", "steps"),
    [
        # Round the body lie 2 x 10 + 2 pi = 26.3; inside 9 there are 28.3, inside 8.2 there are
        # 25.8, and inside 6.6 there are 20.7: a quarter too little for hard metal.
        ("9", ["tube", "cap_ring", "glued"]),
        ("8.2", ["tube_open", "cap_ring", "glued"]),
        ("6.6", ["tube_soft", "tube_half", "tube_soft_again", "tube_open", "cap_ring", "glued"]),
    ],
)
def test_a_tube_is_stretched_only_where_it_has_to_be_and_soft_before_each_pull(
    tube: str, steps: list[str]
) -> None:
    caps = {"kind": "end_caps", "cap_of": "tube", "tube": tube}
    hard = palette_of(WireChoice(size=WireSize(diameter_mm=0.8), metal="brass", temper="half_hard"))
    made = registered_closures()["end_caps"].model_validate(caps).over(12, 2).make(hard)
    assert [one.id for one in made.receiving.steps] == steps
    fits = next(one for one in made.receiving.advice if one is not None)
    assert (fits.id == "tube_goes_in") == (steps[0] == "tube")


@pytest.mark.parametrize(
    ("kind", "rows"), [("ladder", "ladder_return"), ("knot_row", "knot_row"), ("braid", "braid")]
)
def test_kinks_are_warned_of_where_wire_is_drawn_through(kind: str, rows: str) -> None:
    made = registered_parts()[kind].model_validate({}).make(WIRES)
    warned = {one.id for one in made.steps if "kinks" in one.cautions}
    assert warned
    assert all(name.startswith(rows) for name in warned)


@pytest.mark.parametrize(("bindings", "key"), [(3, "bundle_middle"), (4, "bundle_pair")])
def test_the_middle_is_bound_only_where_a_binding_lies_there(bindings: int, key: str) -> None:
    made = Bundle(bindings=bindings).make(WIRES)
    (first,) = [one for one in made.steps if one.id == "bundle_middle"]
    assert first.work == f"part.{key}"
    if bindings == 4:
        # Two marks, as far on both sides of the middle, which has none.
        one, other = first.figures["one"], first.figures["other"]
        assert one + other == pytest.approx(Bundle().along)
        assert one < other


def test_twisted_strands_are_marked_when_they_are_twisted() -> None:
    order = [one.id for one in Bundle(every_other="twisted", bindings=3).make(WIRES).steps]
    assert order.index("bundle_twist") < order.index("bundle_mark") < order.index("bundle_middle")


def test_a_bundle_of_five_with_three_bindings_hook_and_catch() -> None:
    part = {"kind": "bundle", "side_by_side": 5, "bindings": 3}
    closure = {"kind": "broad_hook", "wire": "1.3 mm"}
    plan, exact = solved(brief_of(part, closure, "1.0 mm", "half_hard"))
    assert exact
    # The body is what hook and catch leave, some 38 of 1.3 wire on common dowels; one recorded
    # piece, and dowels differ by a millimetre.
    adds = finished(plan) - next(f.value_mm for f in plan.figures if f.id == "body")
    assert adds == pytest.approx(38, abs=1.5)
    assert cut(plan, "bundle_strand").quantity == 4
    assert cut(plan, "bundle_strand~2").quantity == 1
    assert cut(plan, "bundle_binding").quantity == 3
    assert cut(plan, "bundle_strand~2").length_mm < cut(plan, "bundle_strand").length_mm


def threaded(kind: str) -> dict[str, Any]:
    brief: dict[str, Any] = json.loads((EXAMPLES / f"{kind}.json").read_text())
    return brief


def test_a_bangle_threaded_on_a_core_with_a_toggle() -> None:
    plan, exact = solved(threaded("core-bangle"))
    assert exact
    coils = next(one for one in plan.cuts if one.id.endswith("filling_coil"))
    assert coils.quantity == 10
    said = {a.id for a in plan.advice}
    assert said & {"core_narrow", "core_springs"}
    ids = [one.id for one in plan.steps]
    assert ids.index("core") < ids.index("core_form") < ids.index("half") < ids.index("string_last")
    former = next(f.value_mm for f in plan.figures if f.id == "former")
    inner = next(f.value_mm for f in plan.figures if f.id == "core_inside")
    # Half-hard brass springs open.
    assert former < inner < finished(plan) / math.pi
    closed = threaded("core-bangle")
    closed["measures"]["hand_pass_girth"] = {"readings": [{"value": "205"}]}
    closed["piece"]["closure"] = {"kind": "open_ends"}
    assert "core_hand" in {a.id for a in plan_raw(closed, Shop()).advice}


def test_five_turns_with_coils_and_beads() -> None:
    plan, exact = solved(threaded("core-coil"))
    assert exact
    beads = [need.quantity for need in plan.needs if need.kind == "bead"]
    assert beads == [30]
    wanted = 5 * math.pi * (60 + 0.6)
    assert finished(plan) == pytest.approx(wanted, abs=0.5)
    inside = next(f.value_mm for f in plan.figures if f.id == "coil_inside")
    # Beads of 6 stand in over wire of 0.6 by 2.7.
    assert inside == pytest.approx(math.pi * (60.6 - 6))


def test_parts_on_a_core_need_a_hole() -> None:
    brief = threaded("core-bangle")
    brief["piece"]["entries"] = [{"id": "e1", "part": {"kind": "linked_bead"}, "times": 3}]
    with pytest.raises(BriefRefused, match="does not go on a core"):
        plan_raw(brief, Shop())


def necklace(falls: str) -> dict[str, Any]:
    brief: dict[str, Any] = json.loads((EXAMPLES / "linked-necklace.json").read_text())
    brief["wire"] = {"size": "1 mm", "metal": "copper", "temper": "half_hard"}
    brief["palette"] = {"winding": {"size": "0.5 mm", "metal": "copper", "temper": "dead_soft"}}
    cord = {"kind": "cord"}
    brief["piece"] = {
        "kind": "linked_necklace",
        "mirrored": True,
        "falls": falls,
        "entries": [{"id": "e1", "part": cord, "fill": True}],
        "focal": {"kind": "wound_ring", "wound": 7},
        "closure": {"kind": "end_caps", "cap_of": "coil"},
    }
    return brief


def test_a_cord_necklace_that_falls_as_far_as_is_wanted() -> None:
    plan, exact = solved(necklace("120"))
    assert exact
    fall = next(f.value_mm for f in plan.figures if f.id == "fall")
    assert fall == pytest.approx(120, abs=1.0)
    cord = cut(plan, "cord")
    assert cord.quantity == 2
    assert cord.stock.startswith("waxed_cotton/")
    assert not [a for a in plan.advice if a.severity == "fix"]
    # The ring is there before the cord is hung on it.
    names = [one.id.rpartition("/")[2] for one in plan.steps]
    assert names.index("wound_bind") < names.index("cord_head")
    with pytest.raises(BriefRefused, match="lies on the shoulders"):
        plan_raw(necklace("5"), Shop())


def test_a_cage_for_a_stone_of_thirty_by_twenty_two_by_five() -> None:
    brief = necklace("120")
    brief["piece"] = {
        "kind": "pendant_chain",
        "entries": [{"id": "e1", "part": {"kind": "chain"}, "fill": True}],
        "focal": {"kind": "jump_ring", "pin": "4.5"},
        "hung": {"kind": "stone_cage"},
    }
    brief["wire"]["size"] = "0.8 mm"
    plan, exact = solved(brief)
    assert exact
    assert cut(plan, "cage_strand").quantity == 4
    # Girth of the ellipse, once round with the strand, four pulls and two tails.
    pulls = 4 * 2 * (math.hypot(4.0, 0.8) - 4.0)
    want = 82.17 + math.pi * 0.8 + pulls + 120 + 2 * 1.5
    assert cut(plan, "cage_strand").length_mm == pytest.approx(want, abs=0.5)
    assert [need.label for need in plan.needs if need.label == "stone"]


def test_cord_is_no_wire_for_a_bangle() -> None:
    brief = threaded("core-bangle")
    brief["wire"]["metal"] = "leather"
    with pytest.raises(BriefRefused, match="no wire to bend"):
        plan_raw(brief, Shop())
    assert cord_of("leather", 2.0).metal.cord


def test_sixteen_strands_alike_are_one_cut() -> None:
    part = {"kind": "flat_plait", "strands": "16"}
    plan, _ = solved(brief_of(part, {**RIBBON_ENDS, "cap_width": "14"}, "0.6 mm"))
    strands = [one for one in plan.cuts if "plait_strand" in one.id]
    assert [one.quantity for one in strands] == [16]


def test_sixteen_strands_are_nested_on_one_reel_with_the_rest() -> None:
    strands = [Wanted(id=f"strand {n}", length=400.0) for n in range(16)]
    rest = [Wanted(id=f"ring {n}", length=31.0) for n in range(6)]
    rack = [Rack(id="reel", kind="reel", length=7000.0), Rack(id="jar", kind="offcut", length=430)]
    found = nest([*strands, *rest], rack, 60.0, 0.0, 1.0)
    assert not found.unplaced
    on_reel = next(one for one in found.laid if one.rack.id == "reel")
    # The jar's offcut takes a strand, or nearly all of it small pieces: nothing is left over twice.
    assert sum(cut.startswith("strand") for cut in on_reel.cuts) >= 15
    assert on_reel.left == pytest.approx(7000 - on_reel.used, abs=0.11)


def test_a_finger_ring_is_wound_to_the_finger_and_its_room() -> None:
    brief: dict[str, Any] = json.loads((EXAMPLES / "finger-ring.json").read_text())
    plan = plan_raw(deepcopy(brief), Shop())
    former = next(f.value_mm for f in plan.figures if f.id == "former")
    assert former == pytest.approx((54.25 + 1.0) / math.pi)
    # Seven turns in rows of 2, 3, 2 of 0.8 on that former, three in a hundred looser, and tails.
    d, three = 0.8, math.sqrt(3) * 0.8
    turns = math.pi * sum(m * (former + d + j * three) for j, m in enumerate((2, 3, 2)))
    assert cut(plan, "wound_wire").length_mm == pytest.approx(1.03 * turns + 60 + 2 * 1.5, abs=0.5)
    wide = deepcopy(brief)
    wide["piece"]["entries"][0]["part"].update({"wound": 40, "turns": 2})
    assert "ring_wide" in {a.id for a in plan_raw(wide, Shop()).advice}
    brief["piece"]["entries"].append({"part": {"kind": "jump_ring"}})
    with pytest.raises(BriefRefused, match="one wound ring"):
        plan_raw(brief, Shop())
    with pytest.raises(BriefRefused, match="finger girth"):
        plan_raw({**wide, "measures": {}}, Shop())


@pytest.mark.parametrize(
    "part",
    [
        Braid(rows=120, each=4),
        FlatPlait(rows=80, strands="16", lacing="both"),
        CoilMesh(rows=90, coils=12),
        Bundle(side_by_side=12, every_other="twisted", bindings=9),
        StoneCage(side_by_side=9),
        WoundRing(wound=19, turns=2),
    ],
)
def test_a_keystroke_makes_any_of_them_in_few_calls(part: Any) -> None:
    part.make(WIRES)
    changed = {"tail": 61.0} if hasattr(part, "tail") else {}
    assert calls(lambda: part.model_copy(update=changed).make(WIRES)) < 30_000


def test_one_folded_cord_carries_its_ring_in_the_middle_and_charms_clear_the_pile() -> None:
    brief = necklace("150")
    cord = {"kind": "cord", "goes": "both"}
    brief["piece"].update(
        entries=[{"id": "e1", "part": cord, "fill": True}],
        mirrored=False,
        focal=None,
        hung={"kind": "wound_ring", "wound": 7, "hangs": True},
    )
    plan, exact = solved(brief)
    assert exact
    assert cut(plan, "cord").quantity == 1
    # It hangs on the cord, not in the closure's rings.
    assert not [a for a in plan.advice if a.severity == "fix"]
    charmed = necklace("150")
    charmed["piece"]["hung"] = {"kind": "own_link", "hangs": True}
    charmed["piece"]["hung"]["moves"] = [{"move": "bend", "degrees": 360, "pin": "2"}]
    said = {a.id for a in solved(charmed)[0].advice}
    # A loop of 2 does not go round a pile of 2.7.
    assert "loop_small" in said


def test_caps_that_are_soldered_on_come_last_and_keep_away_from_beads() -> None:
    soldered = {**RIBBON_ENDS, "fixed_by": "soldered"}
    plan, _ = solved(brief_of({"kind": "flat_plait"}, soldered, "0.6 mm"))
    ids = [one.id.rpartition("/")[2] for one in plan.steps]
    assert ids.index("plait_bind") < ids.index("soldered")
    assert "solder_spoils" not in {a.id for a in plan.advice}
    part = {"kind": "braid", "braided": "beads", "each": 1, "ends": "bare", "hole": "1.2"}
    plan, _ = solved(brief_of(part, soldered, "0.6 mm"))
    assert "solder_spoils" in {a.id for a in plan.advice}
    wood, _ = solved(brief_of({**part, "stuff": "wood"}, soldered, "0.6 mm"))
    assert "solder_spoils" not in {a.id for a in wood.advice}


def test_what_a_row_takes_is_told_as_this_hand_takes_it() -> None:
    part = {"kind": "braid", "each": 1, "begins": "hooked", "sample_rows": 30, "sample_over": "36"}
    by_sum = solved(brief_of(part, HOOK, "0.8 mm"))[0].woven[0]
    took = 30 * 3 * (by_sum.pitch_mm + 1.2 * (by_sum.wires[0].takes_mm[0] - by_sum.pitch_mm))
    read = solved(brief_of({**part, "sample_took": f"{took:.3f}"}, HOOK, "0.8 mm"))[0].woven[0]
    excess = read.wires[0].takes_mm[0] - read.pitch_mm
    assert excess == pytest.approx(1.2 * (by_sum.wires[0].takes_mm[0] - by_sum.pitch_mm), rel=1e-4)


def test_paddles_are_as_wide_as_was_measured_and_no_wider_than_their_metal() -> None:
    brief: dict[str, Any] = json.loads((EXAMPLES / "forged-bangle.json").read_text())
    plain = plan_raw(deepcopy(brief), Shop())
    wide, tapered = deepcopy(brief), deepcopy(brief)
    wide["piece"].update(ends="paddles", paddle_width="5.2")
    tapered["piece"].update(ends="paddles", paddle_taper="6")
    bars = [plan_raw(deepcopy(one), Shop()).cuts[0].length_mm for one in (wide, tapered)]
    assert bars[0] != pytest.approx(plain.cuts[0].length_mm, abs=0.01)
    assert bars[1] != pytest.approx(plain.cuts[0].length_mm, abs=0.01)
    wide["piece"]["paddle_width"] = "14"
    with pytest.raises(BriefRefused, match="goes no wider"):
        plan_raw(wide, Shop())


@pytest.mark.parametrize(
    "body",
    [
        Plait(16, 1.0, 2.6, width_by_rule(16, 1.0, 2.6)),
        Plait(8, 1.0, 4.2, width_by_rule(8, 1.0, 4.2)),
        PlainBraid(1.0, 7.0),
    ],
)
def test_what_pulling_tight_may_cost_is_bounded_by_what_a_round_costs(body: Any) -> None:
    cell = body.cell()
    counted: list[float] = []

    class Counted(relax._Bodies):
        def push_apart(self) -> None:
            counted.append(self.costs(1))
            super().push_apart()

    real, relax._Bodies = relax._Bodies, Counted  # type: ignore[misc]
    try:
        pulled = settled(cell)
    finally:
        relax._Bodies = real  # type: ignore[misc]
    # Large bodies go fewer rounds, small ones no more than are of use; none costs more than it may,
    # but for the rounds that any body is given.
    assert relax.FEWEST <= len(counted) <= relax.ROUNDS
    assert sum(counted) <= relax.WORK * 1.1 or len(counted) == relax.FEWEST
    assert not pulled.packed


@pytest.mark.parametrize(("through", "pin"), [(None, 5.0), (3.0, 4.0), (0.5, 2.0)])
def test_a_bail_is_turned_on_what_goes_through_it(through: float | None, pin: float) -> None:
    cage = StoneCage(goes_through=through)
    known = StoneCage(bail=pin)
    made, wanted = cage.make(WIRES), known.make(WIRES)
    assert made.hang == pytest.approx(wanted.hang)
    assert made.ends is not None
    assert made.ends[0].inner == pytest.approx(pin)
    with pytest.raises(Refusal) as refused:
        StoneCage(bail=2.5, goes_through=4.0).make(WIRES)
    assert (refused.value.key, refused.value.field) == ("bail_small", "bail")
