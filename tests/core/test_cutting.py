"""Allowances by school, long wires, wire off the reel, and sections in a plan."""

import math
from typing import Any

import pytest

from jamreel.core.cutting.cuts import of_cut, wire_key
from jamreel.core.forming.law import Law
from jamreel.core.forming.springback import sprung_diameter
from jamreel.core.plan import BriefRefused, Plan, plan_raw
from jamreel.core.shop import Shop
from jamreel.core.wire.sections import Round
from jamreel.core.wire.sense import gauge_chart, nearest_gauges, passes
from tests.core.families import D14, advice, example, figure, ledger, loop

SHOP = Shop()


def cut_by(kind: str = "sliding_bangle", **cutting: Any) -> Plan:
    return plan_raw({**example(kind), "cutting": cutting}, SHOP)


def length(plan: Plan) -> float:
    return plan.cuts[0].length_mm


def test_four_schools_of_margin() -> None:
    exact = cut_by(school="exact", margin="7")
    assert length(cut_by(school="fixed", margin="7")) == pytest.approx(length(exact) + 7)
    # A loop on the 2.6 pin that took 13.6 instead of 13.29: both loops take that much more.
    plain = loop(2.6, D14)
    sample = cut_by(school="sample", sample_pin="2.6", sample_took="13.6")
    assert length(sample) - length(exact) == pytest.approx(2 * (13.6 - plain))
    assert ledger(sample, "sample") == pytest.approx(2 * (13.6 - plain))
    # Of a hand that nothing is known of, 1.1133 times both loops are long enough 19 times in 20.
    record = cut_by(school="record", margin="4")
    assert length(record) - length(exact) == pytest.approx(0.1133 * 2 * plain, rel=1e-3)
    assert "usual spread" in advice(record)["no_record"]


def test_a_sample_tight_enough_to_take_less_wire_shortens_the_cut() -> None:
    hook = cut_by("hook_bracelet", school="exact")
    took = 0.97 * loop(5, hook.cuts[0].wire_mm)
    tight = cut_by("hook_bracelet", school="sample", sample_pin="5", sample_took=took)
    # Bends of less than three quarters of a turn are no loops: the trial says nothing of them.
    loops = sum(bend.takes_mm for bend in hook.bends if bend.angle >= 1.5 * math.pi)
    assert 0 < loops < sum(bend.takes_mm for bend in hook.bends)
    assert length(tight) - length(hook) == pytest.approx(loops * (0.97 - 1))
    assert all(mark.at_mm <= length(tight) for mark in tight.cuts[0].marks)


@pytest.mark.parametrize(
    ("cutting", "field"),
    [
        ({"school": "sample"}, "cutting.sample_pin"),
        ({"school": "sample", "sample_pin": "2.6"}, "cutting.sample_took"),
        ({"school": "sample", "sample_pin": "2.6", "sample_took": "133"}, "cutting.sample_took"),
        ({"shortest": "900"}, "cutting.shortest"),
        ({"longest": "20"}, "cutting.longest"),
    ],
)
def test_what_can_not_be_is_refused_by_name(cutting: dict[str, str], field: str) -> None:
    with pytest.raises(BriefRefused) as refused:
        cut_by(**cutting)
    assert refused.value.problems[0].field == field


def test_short_wires_are_cut_long_enough_to_hold() -> None:
    held = cut_by("ear_cuff", trim="1.5", shortest="90")
    assert length(held) == pytest.approx(90)
    assert ledger(held, "handling") > 0
    assert length(cut_by("ear_cuff", shortest="10")) < 90


def rings(times: int, **cutting: Any) -> Plan:
    brief = example("linked_necklace")
    entries = [{"id": "many", "part": {"kind": "jump_ring", "pin": "4"}, "times": times}]
    piece = {**brief["piece"], "length": "2000", "entries": entries}
    return plan_raw({**brief, "piece": piece, "cutting": cutting}, SHOP)


def test_a_long_coil_is_split_or_worked_off_the_reel() -> None:
    d = 0.127 * 92 ** ((36 - 20) / 39)
    # Copper at 210 off a pin of 4: the coil springs open.
    inside = sprung_diameter(4, Round(diameter=d), Law(117000, 210))
    once = math.pi * (inside + d)
    coil = next(c for c in rings(200).cuts if c.id.startswith("coil/jump_ring"))
    assert coil.quantity == 3
    assert coil.length_mm == pytest.approx(67 * once + 3, abs=0.01)
    assert coil.length_mm <= 1500
    assert [of_cut(wire_key(coil, n)) for n in (1, 2, 3)] == [(coil.id, n) for n in (1, 2, 3)]
    assert [(share.entry, share.count) for share in coil.shares] == [("many", 200)]
    pulled = next(c for c in rings(200, off_reel=True).cuts if c.id == coil.id)
    assert (pulled.quantity, pulled.off_reel) == (1, True)
    assert pulled.length_mm == pytest.approx(200 * once, abs=0.02)
    assert "long_wire" in advice(cut_by("sliding_bangle", longest="200"))


def test_a_cuff_of_half_round_and_a_hook_that_can_not_be() -> None:
    half = {"size": "2 mm", "section": {"shape": "half_round", "flat": "4 mm"}}
    brief = {**example("open_cuff"), "wire": half}
    plan = plan_raw(brief, SHOP)
    round_ = plan_raw({**brief, "wire": {"size": "2 mm"}}, SHOP)
    # Both are 2 mm through the bend; half-round carries its middle 4 r / 3 pi out, not r.
    worn = figure(plan, "worn")
    share = figure(plan, "inner_arc") / worn
    nearer = 2 * math.pi * (1 - 4 * 2 / (3 * math.pi)) * share
    assert figure(plan, "centre_line") == pytest.approx(figure(round_, "centre_line") - nearer)
    # Half-round of 4 holds twice the metal of round of 2.
    ratio = plan.cuts[0].length_mm / round_.cuts[0].length_mm
    assert plan.mass_g == pytest.approx(2 * ratio * round_.mass_g)
    # Plastic modulus over second moment: 1.61 against 1.70, so it springs back a little less.
    assert figure(plan, "former") > figure(round_, "former")
    assert "section_springback" not in advice(plan)
    assert "twist_first" not in advice(plan)
    twisted = {"shape": "twisted", "strands": 3, "strand": "0.8 mm", "pitch": "6 mm"}
    strands = plan_raw({**brief, "wire": {**half, "section": twisted}}, SHOP)
    assert "section_springback" in advice(strands)
    # 40 mm are held; three of 0.8 lie on a circle of 0.8 / sqrt(3).
    each = (strands.cuts[0].length_mm + 40) * math.hypot(1, 2 * math.pi * 0.8 / math.sqrt(3) / 6)
    said = next(a for a in strands.advice if a.id == "twist_first").says
    assert f"3 strands of {each:.1f} mm" in said
    # One strand opens further than a wire as thick as the bundle.
    thick = {**half, "section": {"shape": "square", "side": "1.724 mm"}}
    narrow = {**brief, "piece": {**brief["piece"], "gap": "27"}}
    assert "gap_narrow" in advice(plan_raw({**narrow, "wire": thick}, SHOP))
    fine = plan_raw({**narrow, "wire": {**half, "section": twisted}}, SHOP)
    assert "gap_narrow" not in advice(fine)
    with pytest.raises(BriefRefused, match="round wire only"):
        plan_raw({**example("hook_bracelet"), "wire": half}, SHOP)


@pytest.mark.parametrize(
    ("section", "field"),
    [
        ({"shape": "flat", "width": "1", "thickness": "3"}, "wire.section.thickness"),
        ({"shape": "square", "side": "0.01"}, "wire.section"),
        ({"shape": "twisted", "strands": 3, "strand": "0.5", "pitch": "2"}, "wire.section.pitch"),
    ],
)
def test_sections_that_can_not_be_are_refused(section: dict[str, Any], field: str) -> None:
    with pytest.raises(BriefRefused) as refused:
        plan_raw({**example("open_cuff"), "wire": {"size": "2 mm", "section": section}}, SHOP)
    assert refused.value.problems[0].field == field


def test_metals_of_ones_own_come_before_the_table() -> None:
    own = {"id": "copper", "name": "my copper", "density": 17.88}
    shop = Shop.model_validate({"metals": [own]})
    heavy, usual = (plan_raw(example("open_cuff"), s) for s in (shop, SHOP))
    assert heavy.mass_g == pytest.approx(2 * usual.mass_g)
    assert heavy.metal == "my copper"


def test_gauge_sense() -> None:
    rows = {row.number: row for row in gauge_chart()}
    assert (min(rows), max(rows)) == (6, 32)
    assert rows[20].awg_mm == pytest.approx(0.812, abs=5e-4)
    assert rows[20].swg_mm == pytest.approx(0.9144)
    assert rows[20].differ
    awg, swg = nearest_gauges(1.6)
    assert (awg.number, swg.number) == (14, 16)
    assert awg.off_mm == pytest.approx(0.0277, abs=1e-4)
    assert passes(1.0, 0.4).wires == 3
    assert passes(0.3, 0.4).wires == 0


def test_a_trial_loop_tells_of_loops_in_its_own_wire_and_of_nothing_else() -> None:
    core = {**example("core_bangle")}
    bare = plan_raw(core, SHOP)
    thick = max(bare.cuts, key=lambda one: one.wire_mm)
    # A loop of 0.84 wire on a pin of 6 takes pi (6 + 0.84) = 21.49 by the rule: 22.5
    # is a hand of 1.05: of that wire, of which this piece has no loop.
    fine = {"school": "sample", "sample_pin": "6", "sample_took": "22.5", "sample_wire": "0.84 mm"}
    cut = plan_raw({**core, "cutting": fine}, SHOP)
    assert {c.id: c.length_mm for c in cut.cuts} == {c.id: c.length_mm for c in bare.cuts}
    # Told of the core's own wire it would be a loop of a hand that no one has: it is asked about.
    own = {"school": "sample", "sample_pin": "6", "sample_took": "21.5"}
    with pytest.raises(BriefRefused) as refused:
        plan_raw({**core, "cutting": own}, SHOP)
    assert refused.value.problems[0].field == "cutting.sample_took"
    # Five per cent more than the rule in its own wire: so much more of its loops, and no more.
    d = thick.wire_mm
    took = 1.05 * math.pi * (6 + d)
    told = plan_raw({**core, "cutting": {**own, "sample_took": f"{took:.4f}"}}, SHOP)
    for before, after in zip(bare.cuts, told.cuts, strict=True):
        loops = sum(t.by_sum for t in before.techniques if t.technique == "loop")
        wanted = 0.05 * loops if abs(before.wire_mm - d) < 1e-6 else 0.0
        assert after.length_mm - before.length_mm == pytest.approx(wanted, abs=1e-3), before.id


def test_unlike_bends_of_one_shape_are_told_apart_each_with_its_pin() -> None:
    moves = [
        {"move": "bend", "pin": "3.0", "degrees": 360},
        {"move": "straight", "length": "6"},
        {"move": "bend", "pin": "5.0", "degrees": 360},
        {"move": "straight", "length": "4"},
        {"move": "bend", "pin": "1.5", "degrees": 180, "side": "right"},
    ]
    brief = example("linked_bracelet")
    entries = [{"id": "mine", "part": {"kind": "own_link", "moves": moves}, "times": 8}]
    plan = plan_raw({**brief, "piece": {**brief["piece"], "entries": entries}}, SHOP)
    bends = [one for one in plan.bends if one.id.startswith("mine/")]
    found = [(one.pin, round(math.degrees(one.angle)), one.side) for one in bends]
    assert found == [(3.0, 360, "left"), (5.0, 360, "left"), (1.5, 180, "right")]
    assert len({one.id for one in bends}) == len({one.label for one in bends}) == 3
    cut = next(c for c in plan.cuts if c.id.startswith("mine/"))
    d, trim = cut.wire_mm, 1.5
    first = math.pi * (3 + d)
    second = trim + first + 6
    third = second + math.pi * (5 + d) + 4
    at = {mark.label: mark.at_mm for mark in cut.marks if "begins" in mark.label}
    assert at == {
        "bend 2 begins": pytest.approx(second, abs=0.01),
        "bend 3 begins": pytest.approx(third, abs=0.01),
    }
    assert [one.places[0].at_mm[0] for one in bends] == [
        pytest.approx(trim),
        pytest.approx(second, abs=0.01),
        pytest.approx(third, abs=0.01),
    ]


SOFT = {"size": "0.8 mm", "metal": "copper", "temper": "dead_soft"}


def body_of(part: dict[str, Any], **cutting: Any) -> Plan:
    brief = example("linked_bracelet")
    entry = {"id": "e1", "part": part, "fill": True}
    closure = {"kind": "bought_clasp"}
    piece = {
        "kind": "linked_bracelet", "counted": True, "entries": [entry], "closure": closure,
    }  # fmt: skip
    own = {"school": "ratio", "ratio": 2.0, **cutting}
    return plan_raw({**brief, "wire": SOFT, "piece": piece, "cutting": own}, SHOP)


def test_a_ratio_reaches_strands_and_cores() -> None:
    """A strand is so many times the finished piece; of a folded one both halves are."""
    braid = body_of({"kind": "braid", "begins": "hooked"})
    strand = next(cut for cut in braid.cuts if cut.id.endswith("braid_strand"))
    assert strand.length_mm == pytest.approx(2 * figure(braid, "finished"))
    assert "ratio_more" in advice(braid)
    folded = body_of({"kind": "braid", "begins": "fold"}, ratio=3.0)
    strand = next(cut for cut in folded.cuts if cut.id.endswith("braid_strand"))
    assert strand.length_mm == pytest.approx(2 * 3 * figure(folded, "finished"))
    lattice = body_of({"kind": "lattice"})
    core = next(cut for cut in lattice.cuts if cut.id.endswith("lattice_base"))
    assert core.length_mm == pytest.approx(2 * figure(lattice, "finished"))


def test_a_coil_and_a_binding_are_no_strands() -> None:
    plan = body_of({"kind": "bundle"}, ratio=4.0)
    exact = body_of({"kind": "bundle"}, school="exact")
    for one, other in zip(plan.cuts, exact.cuts, strict=True):
        assert one.length_mm == pytest.approx(other.length_mm)


@pytest.mark.parametrize("margin", [0, 12])
@pytest.mark.parametrize("part", [{"kind": "ladder", "bead": 3}, {"kind": "lattice"}])
def test_wires_that_the_plan_splits_are_short_enough_with_their_trims(
    part: dict[str, Any], margin: float
) -> None:
    for longest in (400, 433, 470, 1500):
        cutting = {"school": "fixed", "margin": margin, "longest": longest, "trim": 3}
        plan = body_of(part, **cutting)
        assert "long_wire" not in {one.id for one in plan.advice}, longest
