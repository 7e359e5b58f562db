"""Laws that hold for any make-up: what lies in it adds up, is cut, is counted and is drawn."""

import math
from collections import Counter
from itertools import pairwise
from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from jamreel.core.cutting.cuts import Cutting
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.palette import Palette
from jamreel.core.interlace.cord.part import Cord
from jamreel.core.makeup.compose import compose
from jamreel.core.makeup.fill import changed, fill, inside_of
from jamreel.core.makeup.loops import loops_of
from jamreel.core.makeup.sequence import Entry, MakeUp
from jamreel.core.parts import Part, registered_parts
from jamreel.core.path.trace import trace
from jamreel.core.plan import BriefRefused, plan_raw
from jamreel.core.result import Plan
from jamreel.core.shop import Shop
from jamreel.core.wire.metals import metals
from jamreel.core.workpiece.parts_wire import uses_of, wires_of
from jamreel.core.workpiece.straight import CutsBy
from tests.core.families import example, figure

WIRE = Palette(Wire(0.812, "20 AWG", metals()["copper"], "half_hard", 210.0))
# Every part that lies in the line, as the shelf offers it.
LINE = [
    part
    for cls in registered_parts().values()
    # Cord as thin as goes round every wire: thicker on thin wire is refused.
    if (part := cls.model_validate({"thick": 1.0} if cls is Cord else {})).role != "drop"
]

parts = st.sampled_from(LINE)
singles = st.builds(Entry, part=parts, times=st.integers(1, 4))
groups = st.builds(
    Entry, group=st.lists(singles, min_size=1, max_size=3).map(tuple), times=st.integers(1, 3)
)
entries = st.lists(st.one_of(singles, groups), min_size=1, max_size=5).map(tuple)
makeups = st.builds(
    MakeUp,
    entries=entries,
    focal=st.one_of(st.none(), parts),
    mirrored=st.booleans(),
    rings=st.integers(0, 3),
)


def times_of(rows: tuple[Entry, ...]) -> Counter[str]:
    """Count parts by hand, group by group."""
    found: Counter[str] = Counter()
    for row in rows:
        inner = Counter({row.part.kind: 1}) if row.part is not None else times_of(row.group)
        for key, count in inner.items():
            found[key] += count * row.times
    return found


@settings(max_examples=60)
@given(makeups)
def test_parts_lie_end_to_end_and_add_up_to_the_length(makeup: MakeUp) -> None:
    laid = compose(makeup, WIRE)
    loops = sum(2 * run.reach for run in laid.runs)
    assert laid.body == pytest.approx(sum(p.length for p in laid.parts) + loops)
    assert laid.finished == pytest.approx(laid.body + laid.fastened.length)
    at = laid.body_at
    for before, after in pairwise(laid.parts):
        gap = after.at - before.at - before.length
        # Only a string's own loops lie between neighbours.
        assert min(abs(gap - n * makeup_reach(laid)) for n in (0, 1, 2)) < 1e-6
    assert laid.parts[0].at >= at - 1e-9
    assert sum(s.total for s in laid.segments) == pytest.approx(laid.finished)


def makeup_reach(laid: Any) -> float:
    return laid.runs[0].reach if laid.runs else 0.0


@settings(max_examples=60)
@given(makeups)
def test_every_part_is_there_as_often_as_was_written(makeup: MakeUp) -> None:
    wanted = times_of(makeup.entries)
    if makeup.mirrored:
        wanted = Counter({key: 2 * count for key, count in wanted.items()})
    if makeup.focal is not None:
        wanted[makeup.focal.kind] += 1
    laid = compose(makeup, WIRE)
    found = Counter(p.unit.part.kind for p in laid.parts if p.unit.top != "rings")
    assert found == +wanted
    assert sum(p.unit.top == "rings" for p in laid.parts) == makeup.rings


def drawn_length(moves: Any, d: float) -> float:
    """Length of the centre-line as it runs through space, added up point by point."""
    line = trace(moves, d, step=0.02)
    return float(np.linalg.norm(np.diff(line, axis=0), axis=1).sum())


@settings(max_examples=25)
@given(makeups)
def test_the_wire_that_is_cut_is_as_long_as_it_runs_through_space(makeup: MakeUp) -> None:
    laid = compose(makeup, WIRE)
    cutting = Cutting(trim=1.5)
    by_id = {used.id: used for used in uses_of(makeup, laid)}
    for wire in wires_of(makeup, laid, CutsBy(cutting)):
        used = by_id[wire.cut.id]
        runs = sum(drawn_length(moves, used.use.wire.d) for _, moves in used.use.stretches)
        times = used.times / wire.cut.quantity if used.use.off_coil else 1
        assert wire.cut.length_mm - 3 == pytest.approx(runs * times, rel=2e-3, abs=0.05)


@settings(max_examples=60)
@given(makeups)
def test_every_wire_says_whom_it_is_for(makeup: MakeUp) -> None:
    laid = compose(makeup, WIRE)
    parts = Counter(part.unit.entry for part in laid.parts)
    for used in uses_of(makeup, laid):
        for share in used.shares:
            if share.entry in parts and used.use.key != "string_run":
                assert share.count == used.use.quantity * parts[share.entry]
    # A string passes what it strings, and nothing that lies elsewhere.
    strings = sum(u.times for u in uses_of(makeup, laid) if u.use.key == "string_run")
    assert strings == len(laid.runs)


@settings(max_examples=40)
@given(entries, st.one_of(st.none(), parts))
def test_a_mirrored_piece_is_the_same_from_either_end(
    rows: tuple[Entry, ...], focal: Part | None
) -> None:
    laid = compose(MakeUp(entries=rows, focal=focal, mirrored=True), WIRE)
    lengths = [p.length for p in laid.parts]
    assert lengths == lengths[::-1]
    middle = laid.body_at + laid.body / 2
    for one, other in zip(laid.parts, reversed(laid.parts), strict=True):
        assert one.at + one.length - middle == pytest.approx(middle - other.at, abs=1e-6)


@settings(max_examples=30, deadline=None)
@given(makeups, st.floats(130, 260))
def test_every_way_to_fill_measures_what_it_says(makeup: MakeUp, wanted: float) -> None:
    for one in fill(makeup, WIRE, wanted, 1.0):
        laid = compose(changed(makeup, one.edits), WIRE)
        assert laid.finished == pytest.approx(one.finished)
        made = laid.fastened
        assert one.got == pytest.approx(inside_of(laid) + one.links * made.range_step)
        assert one.off == pytest.approx(one.got - wanted)
        # Too short is fastened at the nearest link of an extender; too long stays so.
        short = wanted - inside_of(laid)
        assert (one.links > 0) <= (short > 0 and made.adds_range > 0)
        if 0 < short < made.adds_range:
            assert abs(one.off) <= made.range_step / 2 + 1e-9


def planned_or_none(brief: dict[str, Any]) -> Plan | None:
    try:
        return plan_raw(brief, Shop())
    except BriefRefused:
        return None


@settings(max_examples=25, deadline=None)
@given(makeups, st.floats(140, 200))
def test_the_plan_of_any_make_up_is_whole(makeup: MakeUp, wrist: float) -> None:
    piece = {**makeup.model_dump(mode="json"), "kind": "linked_bracelet"}
    brief = {
        **example("linked_bracelet"),
        "measures": {"wrist_girth": {"readings": [{"value": wrist}]}},
        "piece": piece,
        "wire": {"size": "0.812 mm"},
    }
    laid = compose(makeup, WIRE)
    ends = [(one.left_end, one.right_end) for one in laid.joints]
    ends += [(one.drop_end, one.host_end) for one in loops_of(laid).hung]
    plan = planned_or_none(brief)
    if plan is None:
        # Both are shut before they can meet, or would burn.
        assert any(not one.opens and not other.opens for one, other in ends)
        return
    assert figure(plan, "finished") == pytest.approx(laid.finished)
    rule = plan.drawings.rule
    edges = sorted((span.from_mm, span.to_mm) for span in rule.spans)
    assert edges[0][0] == pytest.approx(0)
    assert edges[-1][1] == pytest.approx(laid.finished)
    assert all(b[0] >= a[1] - 1e-6 for a, b in pairwise(edges))
    terms = {line.id: line for line in plan.ledger}
    assert terms["in_all"].value_mm == pytest.approx(laid.finished)
    assert terms["fastened"].value_mm == pytest.approx(inside_of(laid))
    beads = sum(n.quantity for n in plan.needs if n.kind == "bead")
    by_hand = sum(b.quantity for part in laid.parts for b in part.made.bought if b.key == "bead")
    assert beads == by_hand
    assert plan.mass_g >= sum(c.mass_g * c.quantity for c in plan.cuts) - 1e-9
    sheet = next(s for s in plan.drawings.sheets if s.id == "sequence")
    assert {one.shape for one in sheet.placed} <= set(sheet.shapes)
    assert all(
        math.isfinite(v) for one in sheet.shapes.values() for s in one for p in s.points for v in p
    )
