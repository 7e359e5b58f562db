"""Every judgement call at its edge: silent on the near side, said with its figures on the far."""

from collections.abc import Callable
from typing import Any

import pytest

from jamreel.core.advice import Advice
from jamreel.core.advice import closing as c
from jamreel.core.advice import joining as j
from jamreel.core.advice import opening as o
from jamreel.core.advice import parts as p
from jamreel.core.advice import sliding as s
from jamreel.core.advice.cutting import longer_than_handled
from jamreel.core.advice.forming import former_near
from jamreel.core.advice.making import cut_differs
from jamreel.core.cutting.cuts import Cut, Cutting
from jamreel.core.forming.tools import Former
from jamreel.core.plan import Plan, plan_raw
from jamreel.core.shop import Shop
from tests.core.families import advice, example


def to_length(off: float, doubt: float, unit: float) -> Advice | None:
    return j.not_to_length(off, doubt, unit, "bead", (9, 8))


Rule = Callable[..., Advice | None]

# A rule; what it lets pass, if only just; what it no longer does; what it then says, and how
# gravely. Common practice, no source, unless the rule names one.
EDGES: list[tuple[Rule, tuple[Any, ...], tuple[Any, ...], str, str]] = [
    (p.hole_passes, (0.863, 0.812), (0.861, 0.812), "hole_small", "fix"),
    (p.hole_passes, (1.675, 0.812, 2), (1.673, 0.812, 2), "hole_small_for_more", "fix"),
    (p.few_wraps, (2,), (1,), "few_wraps", "check"),
    (p.thin_for_links, (1.0, 6.0), (1.0, 6.1), "thin_for_loop", "check"),
    (p.jostling, (4.0, 3, 12.0), (4.0, 4, 12.0), "jostling", "check"),
    (p.strands_jostle, (2, 7.9, False), (2, 8.0, False), "large_beads_jostle", "note"),
    (p.strands_jostle, (2, 12.0, True), (3, 12.0, False), "large_beads_jostle", "note"),
    (p.links_twist, (False,), (True,), "links_twist", "fix"),
    (p.no_core, (1.0, 1.0), (0.9, 1.0), "core_small", "check"),
    (c.hook_passes, (4.7, 5.0), (4.8, 5.0), "hook_wide", "fix"),
    (c.bar_holds, (16.0, 12.0), (15.9, 12.0), "bar_short", "fix"),
    (c.bar_passes, (5.9, 1.6, 4.0), (5.8, 1.6, 4.0), "bar_stuck", "fix"),
    (c.opens_easily, (10.0,), (9.9,), "hook_weak", "check"),
    (c.stronger_than_loops, (9.0, 9.0, "loop"), (9.0, 8.9, "loop"), "parts_open_first", "note"),
    (c.two_hands, (True,), (False,), "two_hands", "note"),
    (c.should_release, (None, False), (None, True), "never_releases", "fix"),
    (c.should_release, (99.0, False), (20.1, True), "releases_late", "fix"),
    (c.should_release, (5.0, False), (19.9, True), "releases", "note"),
    (j.loop_admits, (1.2, (1.0,), "hook", "eye"), (1.19, (1.0,), "hook", "eye"),
     "loop_small", "fix"),
    (j.loop_admits, (1.8, (1.0, 0.6), "a", "b"), (1.79, (1.0, 0.6), "a", "b"), "loop_full", "fix"),
    (p.strands_jostle, (3, 4.0, False), (4, 3.0, False), "strands_jostle", "check"),
    (p.strands_jostle, (9, 4.0, True), (9, 4.0, False), "strands_jostle", "check"),
    (p.strands_jostle, (9, 2.9, False), (9, 3.0, False), "strands_jostle", "check"),
    (p.ring_soft, (9.0, 1.0, False), (9.1, 1.0, False), "ring_soft", "note"),
    (p.ring_soft, (7.0, 1.0, True), (7.1, 1.0, True), "ring_soft", "note"),
    (p.strands_touch, (3.0, 3.0), (2.9, 3.0), "strands_touch", "check"),
    (p.wound_by_hand, (999.0, False), (1000.0, False), "wound_by_hand", "note"),
    (p.wound_by_hand, (5000.0, True), (5000.0, False), "wound_by_hand", "note"),
    (p.pin_reaches, (30.0, 30.0), (30.0, 30.1), "pin_short", "fix"),
    (s.charm_slides, (1.9, 1.6), (1.8, 1.6), "charm_ring", "fix"),
    (s.charms_fit, (4, 8.0, 32.0), (5, 8.0, 39.9), "charms_many", "fix"),
    (j.ends_differ, ("bead", "bead", False), ("bead", "coil", False), "ends_differ", "note"),
    (j.ends_differ, ("bead", "coil", True), ("coil", "bead", False), "ends_differ", "note"),
    (j.heavy_earring, (10.0,), (10.1,), "heavy_earring", "check"),
    (to_length, (8.0, 1.4, 16.0), (8.1, 1.4, 16.0), "make_up_long", "fix"),
    (to_length, (-3.0, 3.0, 2.0), (-3.1, 3.0, 2.0), "make_up_short", "fix"),
    (j.nothing_in_it, (1,), (0,), "empty_sequence", "fix"),
    (o.hangs_loose, (200.0, 150.0), (201.0, 150.0), "hangs_loose", "note"),
    (o.falls_off, (199.0, 200.0), (200.0, 200.0), "falls_off", "fix"),
    (o.falls_off, (500.0, None), (500.0, 200.0), "falls_off", "fix"),
    (s.overlap_long, (50.0, 150.0), (50.1, 150.0), "overlap_long", "check"),
    (s.overlap_short, (15.0,), (14.9,), "overlap_short", "check"),
    (s.loop_loose, (4.0, 1.6), (4.1, 1.6), "loop_loose", "note"),
    (s.pin_missing, (2.6, 2.75), (2.6, 2.76), "pin_missing", "note"),
    (s.pin_missing, (2.6, 2.6), (2.6, None), "no_pins", "note"),
    (cut_differs, (100.5, 100.0), (99.4, 100.0), "cut_shorter", "check"),
    (cut_differs, (None, 100.0), (100.6, 100.0), "cut_longer", "check"),
]  # fmt: skip


@pytest.mark.parametrize(("rule", "near", "far", "key", "severity"), EDGES)
def test_a_rule_speaks_beyond_its_edge_and_not_before(
    rule: Rule, near: tuple[Any, ...], far: tuple[Any, ...], key: str, severity: str
) -> None:
    assert rule(*near) is None
    said = rule(*far)
    assert said is not None
    assert (said.id, said.severity) == (key, severity)
    assert said.says.endswith((".", "?"))
    assert said.because


def test_how_many_would_do_is_said_in_what_the_piece_is_made_of() -> None:
    long = j.not_to_length(33.0, 1.4, 16.0, "link", (9, 7))
    short = j.not_to_length(-49, 1.4, 8.0, "link", (9, 12), pairs=True)
    assert long is not None
    assert short is not None
    assert "Take 7 instead of 9 (link)" in long.try_
    assert "Take 12 instead of 9 on each side (link)" in short.try_


@pytest.mark.parametrize(
    ("opens_to", "said"),
    [(60.0, None), (61.2, None), (62.0, "former_wide"), (57.9, "former_tight")],
)
def test_a_former_that_misses_by_more_than_three_per_cent(opens_to: float, said: str) -> None:
    found = former_near(
        Former(target_mm=60, former_mm=54.7, tool="mandrel", tool_mm=55, result_mm=opens_to)
    )
    assert (found.id if found else None) == said


def test_no_former_and_wire_that_springs_straight_are_said() -> None:
    bare = Former(target_mm=60, former_mm=54.7, tool=None, tool_mm=None, result_mm=None)
    straight = bare.model_copy(update={"tool": "drum", "tool_mm": 90.0})
    keys = [found.id for found in (former_near(bare), former_near(straight)) if found]
    assert keys == ["no_former", "springs_straight"]


@pytest.mark.parametrize(
    ("length", "longest", "says"), [(1500.0, 1500.0, None), (1500.5, 1500.0, "2"), (999, 300, "4")]
)
def test_a_wire_too_long_to_handle_is_counted_in_parts(
    length: float, longest: float, says: str | None
) -> None:
    plan = plan_raw(example("sliding_bangle"), Shop())
    cut: Cut = plan.cuts[0].model_copy(update={"length_mm": length})
    found = longer_than_handled(cut, Cutting(longest=longest))
    assert (found is None) == (says is None)
    if found is not None and says is not None:
        assert says in f"{found.says} {found.try_}"
    # What is worked off the reel, and chain, is nobody's wire to handle.
    assert longer_than_handled(cut.model_copy(update={"off_reel": True}), Cutting()) is None
    assert longer_than_handled(cut.model_copy(update={"stock": ""}), Cutting()) is None


def made(kind: str, **piece: Any) -> Plan:
    brief = example(kind)
    return plan_raw({**brief, "piece": {**brief["piece"], **piece}}, Shop())


def test_rules_reach_the_plan_of_a_piece_of_parts() -> None:
    """One make-up for each mistake that the rules are there to prevent."""
    link = {"part": {"kind": "linked_bead"}, "times": 10}
    tight = {"part": {"kind": "bead", "hole": "0.6 mm"}, "times": 20}
    assert "hole_small" in advice(made("linked_bracelet", entries=[tight]))
    once = {"part": {"kind": "linked_bead", "wraps": 1}, "times": 10}
    assert "few_wraps" in advice(made("linked_bracelet", entries=[once]))
    wide = {"part": {"kind": "linked_bead", "loops": "plain", "pin": "9 mm"}, "times": 6}
    assert "thin_for_loop" in advice(made("linked_bracelet", entries=[wide]))
    flat = {"part": {"kind": "curved_link", "stand": "alike"}, "times": 4}
    assert "links_twist" in advice(made("linked_bracelet", entries=[flat]))
    stuck = {"kind": "folded_hook", "eye_pin": "2 mm", "wire": "16 awg"}
    assert "hook_wide" in advice(made("linked_bracelet", entries=[link], closure=stuck))
    short = {"kind": "toggle", "bar": "10 mm", "ring_pin": "12 mm"}
    assert "bar_short" in advice(made("linked_bracelet", entries=[link], closure=short))
    thin = {"kind": "crook_hook", "wire": "0.5 mm"}
    assert "hook_weak" in advice(made("linked_bracelet", entries=[link], closure=thin))
    few = {"part": {"kind": "linked_bead"}, "times": 3}
    assert "make_up_short" in advice(made("linked_bracelet", entries=[few]))
    tassel = {"kind": "tassel", "strands": 9, "strand_loop": "3 mm"}
    assert "strands_jostle" in advice(made("linked_necklace", hung=tassel))
    full = {"kind": "tassel", "strands": 9, "strand_loop": "1 mm"}
    assert "loop_full" in advice(made("linked_necklace", hung=full))
