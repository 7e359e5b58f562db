"""A wire drawn after each of its steps: as long as it is, and in the end its part's own picture."""

import math
from copy import deepcopy
from typing import Any

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st
from shapely import distance, points
from shapely.geometry import LineString, MultiLineString

from jamreel.core.choices import Choice
from jamreel.core.closures import registered_closures
from jamreel.core.errors import Refusal
from jamreel.core.forming.palette import palette_of
from jamreel.core.parts import registered_parts
from jamreel.core.parts.base import Made, WireUse
from jamreel.core.parts.drawn import kept_moves
from jamreel.core.path.loops import centred, turned_over
from jamreel.core.path.moves import (
    Bend,
    Fold,
    Kink,
    Move,
    PlaneTurn,
    Straight,
    Wrap,
    developed_length,
    move_length,
)
from jamreel.core.path.projection import LEAN
from jamreel.core.path.trace import runs
from jamreel.core.plan import Plan, plan_raw
from jamreel.core.shop import Shop
from jamreel.core.wire.gauges import WireSize
from jamreel.core.wire.metals import WireChoice
from jamreel.core.workpiece.stages import DONE, done_lines, stages
from jamreel.core.workpiece.worked import unsaid
from tests.core.families import example

ONE = palette_of(WireChoice(size=WireSize(diameter_mm=0.9)))
# A tassel hangs its sections side by side, and leaves out what lies behind.
SIDE_BY_SIDE = {"tassel_section"}
KINDS: dict[str, type[Any]] = {**registered_parts(), **registered_closures()}


def halves(made: Any) -> list[Made]:
    return [made] if isinstance(made, Made) else [made.receiving, made.holding]


def made_of(kind: str, **chosen: Any) -> list[Made]:
    return halves(KINDS[kind].model_validate(chosen).make(ONE))


def only_line(use: WireUse) -> tuple[tuple[float, float], ...]:
    (line,) = done_lines(use)
    return line


def wires(made: list[Made]) -> list[WireUse]:
    return [use for half in made for use in half.wires]


def drawn_length(moves: list[Move], wire: float) -> float:
    """Length of the line in space, from chord to chord."""
    found = runs(moves, wire, 0.02)
    return sum(float(np.linalg.norm(np.diff(run.points, axis=0), axis=1).sum()) for run in found)


def value_of(choice: Choice) -> st.SearchStrategy[Any]:
    """Return values of a choice near to what it usually is."""
    if choice.type == "option":
        return st.sampled_from(choice.options)
    if choice.type == "flag":
        return st.booleans()
    if choice.type == "size" or isinstance(choice.default, str):
        return st.just(choice.default or None)
    usual = float(choice.default)
    low, high = max(choice.low or 0.0, usual * 0.7), min(choice.high or 99.0, usual * 1.4 + 0.5)
    if choice.type == "whole":
        return st.integers(math.ceil(low), max(math.ceil(low), math.floor(high)))
    return st.floats(low, max(low, high))


@st.composite
def chosen(draw: st.DrawFn) -> tuple[str, dict[str, Any]]:
    kind = draw(st.sampled_from(sorted(KINDS)))
    every = {one.name: draw(value_of(one)) for one in KINDS[kind].choices()}
    return kind, {name: value for name, value in every.items() if value is not None}


@given(chosen(), st.data())
def test_a_wire_is_drawn_as_long_as_it_is_after_any_of_its_bends(
    what: tuple[str, dict[str, Any]], data: st.DataObject
) -> None:
    kind, values = what
    try:
        made = made_of(kind, **values)
    except (Refusal, ValueError):
        assume(False)
    uses = [use for use in wires(made) if developed_length(_moves(use), use.wire.d) < 2000]
    assume(uses)
    use = data.draw(st.sampled_from(uses))
    d, moves = use.wire.bend_adds, _moves(use)
    bent = data.draw(st.lists(st.booleans(), min_size=len(moves), max_size=len(moves)))
    now = [m if b else Straight(length=move_length(m, d)) for m, b in zip(moves, bent, strict=True)]
    assert drawn_length(now, d) == pytest.approx(developed_length(moves, d), rel=2e-3, abs=1e-6)


def _moves(use: WireUse) -> list[Move]:
    return [move for _, row in use.stretches for move in row]


def usual_role(kind: str) -> str:
    return registered_parts()[kind].model_validate({}).role


@pytest.mark.parametrize("kind", sorted(KINDS))
def test_after_its_last_step_a_wire_is_its_parts_own_picture(kind: str) -> None:
    for half in made_of(kind):
        for use in half.wires:
            if use.key in SIDE_BY_SIDE:
                continue
            strokes = [s for s in half.strokes if s.part == "wire"]
            assert strokes
            # Every point of the wire as it is when done lies in the picture, and the picture shows
            # no wire elsewhere: but what hangs down in the picture runs to the right here.
            hangs = kind in registered_parts() and usual_role(kind) == "drop"
            picture = [
                LineString([(-y, x) if hangs else (x, y) for x, y in copy.points])
                for stroke in strokes
                for copy in stroke.copies
            ]
            done = points([point for line in done_lines(use) for point in line])
            assert distance(MultiLineString(picture), done).max() < 0.1, use.key


def test_a_loop_sits_centred_on_its_stem_and_its_wraps_lie_round_it() -> None:
    (link,) = made_of("linked_bead", stand="alike")
    (use,) = link.wires
    moves, held = kept_moves(use)
    found = runs(moves, use.wire.d, 0.05)
    axes, origin = found[held].frame, found[held].points[0]
    for run in found:
        seen = (run.points - origin) @ axes
        if isinstance(run.move, Bend):
            # Its middle lies on the line of the stem, in the paper.
            assert seen[:, 1:].mean(axis=0) == pytest.approx([0, 0], abs=0.02)
        if isinstance(run.move, Wrap):
            # Along the stem it takes a wire a turn, and goes no further out than a wire.
            assert np.ptp(seen[:, 0]) == pytest.approx(2 * use.wire.d, abs=0.35)
            assert abs(seen[:, 1]).max() <= 1.35 * use.wire.d


def test_square_loops_lean_and_those_in_the_paper_are_to_scale() -> None:
    (alike,) = made_of("eye_link", stand="alike", pin="4")
    (square,) = made_of("eye_link", stand="square", pin="4")
    # The right one: 4 + 0.9 across its middle line; square to the paper it leans up by its share.
    right = [y for x, y in only_line(alike.wires[0]) if x > alike.length - 4]
    assert max(right) - min(right) == pytest.approx(4.9, abs=0.05)
    leaning = [y for x, y in only_line(square.wires[0]) if x > square.length - 4]
    assert max(leaning) - min(leaning) == pytest.approx(LEAN * 4.9, abs=0.05)


def test_a_kink_takes_no_wire_and_turns_in_the_plane() -> None:
    path: list[Move] = [Straight(length=3), Kink(angle=math.pi / 2), Straight(length=2)]
    assert developed_length(path, 1.0) == 5
    assert runs(path, 1.0)[-1].points[-1] == pytest.approx([3, 2, 0])
    other = [path[0], Kink(angle=math.pi / 2, side="right"), path[2]]
    assert runs(other, 1.0)[-1].points[-1] == pytest.approx([3, -2, 0])


def test_doubled_wire_makes_its_crook_twice_in_one_place() -> None:
    """Out and back along two wires that lie side by side: the crooks are one wire apart."""
    crook = turned_over(Bend(angle=math.pi, pin=5))
    leg, tip = Straight(length=8), Straight(length=2)
    out: list[Move] = [leg, *crook, tip]
    back: list[Move] = [tip, *crook, leg]
    found = runs([*out, Fold(), *back], 1.0, 0.1)
    first, second = (run.points for run in found if isinstance(run.move, Bend))
    assert second[::-1] - first == pytest.approx(
        np.tile([0.0, 1.0, 0.0], (len(first), 1)), abs=0.02
    )
    assert found[-1].points[-1] == pytest.approx([0, 1, 0], abs=1e-9)


def test_a_loop_before_its_stem_is_the_mirror_image_of_one_behind() -> None:
    bend = Bend(angle=2 * math.pi, pin=3)
    stem = Straight(length=10)
    behind = runs([stem, *centred(bend, first=False)], 1.0, 0.1)[-1].points
    before = runs([*centred(bend, first=True), stem], 1.0, 0.1)
    frame, origin = before[-1].frame, before[-1].points[0]
    loop = (before[0].points - origin) @ frame
    assert loop[:, 0].min() == pytest.approx(-(behind[:, 0].max() - 10), abs=1e-6)
    assert loop[:, 0].max() == pytest.approx(0, abs=1e-6)


def planned(name: str) -> Plan:
    return plan_raw(deepcopy(example(name)), Shop())


@pytest.mark.parametrize(
    "name", ["choker", "circlet", "linked_bracelet", "linked_armlet", "brooch"]
)
def test_every_wire_of_a_plan_has_a_stage_for_each_of_its_steps_and_keeps_its_length(
    name: str,
) -> None:
    plan = planned(name)
    assert plan.worked
    ids = [step.id for step in plan.steps]
    for wire in plan.worked:
        found = stages(wire, {})
        assert [one.step for one in found][: 1 + len(wire.order)] == ["", *wire.order]
        # In the order of work.
        assert [ids.index(step) for step in wire.order] == sorted(map(ids.index, wire.order))
        whole = developed_length(wire.moves, wire.wire.bend_adds)
        assert [one.length_mm for one in found if one.step != DONE] == pytest.approx(
            [whole] * (1 + len(wire.order))
        )
        # As cut it is straight.
        assert LineString(found[0].line).length == pytest.approx(whole, rel=1e-3)
        # What one stage shows as coming is what the next one bends.
        for stage in found[1:]:
            assert stage.made or stage.step == DONE
        assert not found[-1].ghost


def test_what_was_only_held_is_snipped_off_in_the_end() -> None:
    plan = planned("linked_bracelet")
    bead = next(wire for wire in plan.worked if wire.cut.id.endswith("/linked_bead"))
    *_, last, done = stages(bead, {})
    tails = [move.length for move in bead.moves if isinstance(move, Straight)]
    assert done.step == DONE
    assert last.length_mm - done.length_mm == pytest.approx(tails[0] + tails[-1])


@pytest.mark.parametrize("kind", sorted(KINDS))
def test_every_bend_of_a_part_is_made_at_a_step_that_says_so(kind: str) -> None:
    brief = deepcopy(example("linked_bracelet"))
    if kind in registered_closures():
        brief["piece"]["closure"] = {"kind": kind}
    else:
        ring = {"part": {"kind": "jump_ring"}, "times": 1}
        row = [{"part": {"kind": kind}, "times": 1}, ring]
        brief["piece"]["entries"] = [*row, *row]
    soft = {"size": "0.8 mm", "metal": "copper", "temper": "dead_soft"}
    plan = plan_raw({**brief, "wire": soft}, Shop())
    assert unsaid(plan.worked, {step.id: step for step in plan.steps}) == set()


def test_a_swirl_lies_in_the_paper_on_its_wraps() -> None:
    plain, swirl = (
        made_of("linked_bead", ends_in=way, swirl_turns=2.5)[0] for way in ("away", "swirl")
    )
    across = [np.ptp(np.array(only_line(one.wires[0])), axis=0) for one in (plain, swirl)]
    # Two turns and a half of 0.9 wire, begun on a wire of 0.9: over 4 across, where wraps are 2.7.
    assert across[1][1] > across[0][1] - 0.1
    lows = [min(y for _, y in only_line(one.wires[0])) for one in (plain, swirl)]
    assert lows[1] < lows[0] - 1.2


def test_turns_of_the_plane_are_kept_for_what_comes_after() -> None:
    """A quarter turn takes the next bend out of the paper."""
    path: list[Move] = [
        Straight(length=5),
        PlaneTurn(angle=math.pi / 2),
        Bend(angle=math.pi, pin=4),
    ]
    end = runs(path, 1.0, 0.1)[-1].points[-1]
    assert end == pytest.approx([5, 0, 5], abs=1e-9)
