"""What is drawn is what was worked out: single wires on the body, to scale."""

import json
import math
from copy import deepcopy
from itertools import pairwise
from typing import Any

import pytest

from jamreel.core.plan import Plan, plan_raw
from jamreel.core.shop import Shop
from jamreel.core.values import Sheet, Stroke
from tests.conftest import EXAMPLES
from tests.core.families import example


def planned(kind: str, **piece: Any) -> Plan:
    brief = example(kind)
    brief["piece"].update(piece)
    return plan_raw(brief, Shop())


def figure(plan: Plan, name: str) -> float:
    return next(one.value_mm for one in plan.figures if one.id == name)


def stroke(sheet: Sheet, part: str) -> Stroke:
    return next(one for one in sheet.strokes if one.part == part)


def apart(a: tuple[float, float], b: tuple[float, float]) -> float:
    return math.dist(a, b)


def length_of(points: Any) -> float:
    return sum(math.dist(a, b) for a, b in pairwise(points))


@pytest.mark.parametrize("grip", [0.5, 0.7, 0.9])
@pytest.mark.parametrize("roomier", [0.5, 1.5, 3.0])
def test_an_ear_cuff_is_drawn_round_its_rim(grip: float, roomier: float) -> None:
    plan = planned("ear_cuff", grip=grip, roomier=roomier)
    inner, gap = figure(plan, "ear_inner"), figure(plan, "ear_gap")
    sheet = plan.drawings.sheets[0]
    ring, rim = stroke(sheet, "body_wire"), stroke(sheet, "skin")
    d = ring.width_mm
    # The ring's inside is what its centre-line leaves.
    for point in ring.points:
        assert 2 * math.hypot(*point) == pytest.approx(inner + d, abs=0.03)
    # Its filed ends lie a gap apart along the inside.
    chord = (inner + d) * math.sin(gap / inner)
    assert apart(ring.points[0], ring.points[-1]) == pytest.approx(chord, abs=0.03)
    # The gap is at the left, where the rim comes in.
    assert ring.points[0][0] < 0
    heights = [y for _, y in rim.points]
    thick = max(heights) - min(heights)
    assert gap == pytest.approx(grip * thick, abs=0.02)
    # From its edge, the rim reaches into the ring by all its depth; half the room is behind it.
    right = max(x for x, _ in rim.points)
    assert inner / 2 - right == pytest.approx(roomier / 2, abs=0.02)
    assert min(x for x, _ in rim.points) < -inner / 2


def test_the_edge_of_an_ears_rim_is_round_and_stands_within_the_rim() -> None:
    plan = planned("ear_cuff")
    rim = stroke(plan.drawings.sheets[0], "skin")
    right = max(x for x, _ in rim.points)
    half = max(y for _, y in rim.points)
    centre = right - half
    rounded = [(x, y) for x, y in rim.points if x > centre + 1e-6]
    assert len(rounded) > 10
    for x, y in rounded:
        assert math.hypot(x - centre, y) == pytest.approx(half, abs=0.02)


@pytest.mark.parametrize("kind", ["closed_bangle", "overlap_bangle"])
def test_a_ring_is_drawn_as_long_as_it_is(kind: str) -> None:
    plan = planned(kind)
    sheet = next(one for one in plan.drawings.sheets if any(s.part == "body" for s in one.strokes))
    drawn = sum(length_of(s.points) for s in sheet.strokes if s.part in ("body", "body_end"))
    # Drawn round a wrist that is an oval, with the same room all round; an end that passes over
    # the other is lifted off it.
    lifted = 0.04 if kind == "overlap_bangle" else 0.02
    assert drawn == pytest.approx(figure(plan, "centre_line"), rel=lifted)


def test_a_closed_bangle_hangs_by_what_hand_and_wrist_differ() -> None:
    plan = planned("closed_bangle")
    wrist = next(line for line in plan.ledger if line.id == "hand_pass_girth")
    inside = figure(plan, "inside")
    assert inside == wrist.value_mm
    brief = example("closed_bangle")
    read = float(brief["measures"]["wrist_girth"]["readings"][0]["value"])
    assert figure(plan, "hang") == pytest.approx(inside - read, abs=1)
    looser = planned("closed_bangle", over_hand="6")
    assert figure(looser, "hang") - figure(plan, "hang") == pytest.approx(6)
    assert figure(looser, "inside") - inside == pytest.approx(6)


def skin_and_wire(plan: Plan) -> tuple[float, float]:
    """Return how high the wrist stands in the drawing and how high the ring does."""
    sheet = next(one for one in plan.drawings.sheets if any(s.part == "skin" for s in one.strokes))
    skin = [y for _, y in stroke(sheet, "skin").points]
    wire = [y for s in sheet.strokes if s.part in ("body", "body_end") for _, y in s.points]
    return max(skin) - min(skin), max(wire) - min(wire)


def test_a_looser_bangle_is_drawn_wider_round_the_same_wrist() -> None:
    tight, loose = planned("closed_bangle"), planned("closed_bangle", over_hand="12")
    (skin, wire), (same, wider) = skin_and_wire(tight), skin_and_wire(loose)
    assert skin == pytest.approx(same)
    # 12 mm of girth is 12 / pi across.
    assert wider - wire == pytest.approx(12 / math.pi, rel=0.1)


def every_point(sheet: Sheet) -> list[tuple[float, float]]:
    shapes = [p for strokes in sheet.shapes.values() for s in strokes for p in s.points]
    return [*(p for s in sheet.strokes for p in s.points), *shapes]


@pytest.mark.parametrize(
    "kind",
    [
        "sliding_bangle",
        "closed_bangle",
        "overlap_bangle",
        "open_cuff",
        "hook_bracelet",
        "choker",
        "neck_ring",
        "circlet",
        "crown_band",
        "ear_cuff",
        "coil_bracelet",
        "linked_bracelet",
        "linked_necklace",
        "pendant_chain",
        "drop_earring",
        "forehead_drops",
    ],
)
def test_every_drawing_is_made_of_numbers_within_arms_reach(kind: str) -> None:
    plan = plan_raw(deepcopy(example(kind)), Shop())
    assert plan.drawings.sheets
    for sheet in plan.drawings.sheets:
        points = every_point(sheet)
        assert points
        assert all(math.isfinite(x) and math.isfinite(y) for x, y in points)
        assert max(abs(n) for point in points for n in point) < 1500
        # Whatever is set down has a shape, and no shape is left lying about.
        assert {one.shape for one in sheet.placed} == set(sheet.shapes)
        for dimension in sheet.dimensions:
            assert math.isfinite(dimension.value_mm)


@pytest.mark.parametrize("name", sorted(path.stem for path in EXAMPLES.glob("*.json")))
def test_dimensions_say_how_long_their_line_is(name: str) -> None:
    """A line is as long as it says, where it is straight across."""
    brief = json.loads((EXAMPLES / f"{name}.json").read_text())
    for sheet in plan_raw(brief, Shop()).drawings.sheets:
        for one in sheet.dimensions:
            if abs(one.a[1] - one.b[1]) < 0.01:
                assert apart(one.a, one.b) == pytest.approx(one.value_mm, rel=0.03, abs=0.5)


def test_a_chain_is_drawn_between_its_points_as_low_as_it_hangs() -> None:
    plan = planned("pendant_chain")
    sheet = next(one for one in plan.drawings.sheets if one.id == "fall")
    (line, loop, hung) = (stroke(sheet, part) for part in ("links", "pendant_loop", "pendant"))
    (dimension,) = sheet.dimensions
    xs, ys = zip(*line.points, strict=True)
    # It hangs from both ends of the dimension, and its pendant from its lowest point.
    assert (min(xs), max(xs)) == pytest.approx((dimension.a[0], dimension.b[0]), abs=0.02)
    assert (ys[0], ys[-1]) == pytest.approx((0.0, 0.0), abs=0.02)
    assert loop.points[0] == pytest.approx((0.0, min(ys)), abs=0.05)
    assert max(y for _, y in hung.points) == pytest.approx(loop.points[-1][1], abs=0.05)
    drop = min(ys) - min(y for _, y in hung.points)
    assert drop == pytest.approx(3 * (loop.points[0][1] - loop.points[-1][1]), abs=0.1)
    assert length_of(line.points) == pytest.approx(figure(plan, "front"), rel=5e-3)


@pytest.mark.parametrize("kind", ["linked_bracelet", "linked_necklace", "pendant_chain"])
def test_the_rule_reaches_from_end_to_end(kind: str) -> None:
    plan = plan_raw(deepcopy(example(kind)), Shop())
    spans = plan.drawings.rule.spans
    assert min(span.from_mm for span in spans) == pytest.approx(0, abs=0.01)
    end = max(span.to_mm for span in spans)
    assert end == pytest.approx(figure(plan, "finished"), abs=0.5)
