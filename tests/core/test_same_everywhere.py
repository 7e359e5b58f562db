"""What is said of one thing in several places is the same: sum, drawing, the Rule, the steps."""

import json
from collections.abc import Iterator
from copy import deepcopy
from itertools import pairwise
from typing import Any

import pytest
from shapely.geometry import GeometryCollection, LinearRing, LineString

from jamreel.core.closures.base import registered_closures
from jamreel.core.families.base import registered
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.palette import Palette
from jamreel.core.parts.base import Made, registered_parts
from jamreel.core.path.moves import Bend, Move, Straight
from jamreel.core.plan import Plan, plan_raw
from jamreel.core.shop import Shop
from jamreel.core.values import Stroke
from jamreel.core.wire.metals import metals
from tests.conftest import EXAMPLES
from tests.core.families import advice

KINDS = sorted(registered())
PARTS = sorted(registered_parts())
CLOSURES = sorted(registered_closures())
D = 1.0
ONE = Palette(Wire(D, "1 mm", metals()["copper"], "dead_soft", 70.0))
BRACELET = json.loads((EXAMPLES / "linked-bracelet.json").read_text())


def example(kind: str) -> dict[str, Any]:
    text = (EXAMPLES / f"{kind.replace('_', '-')}.json").read_text()
    brief: dict[str, Any] = json.loads(text)
    return brief


def numbers(thing: Any, name: str = "") -> Iterator[tuple[str, float]]:
    """Yield every number that a brief's piece chooses, by its name."""
    if isinstance(thing, dict):
        for key, value in thing.items():
            yield from numbers(value, key)
    elif isinstance(thing, (list, tuple)):
        for value in thing:
            yield from numbers(value, name)
    elif isinstance(thing, (int, float)) and not isinstance(thing, bool):
        yield name, float(thing)


def chosen_in(kind: str, brief: dict[str, Any]) -> set[tuple[str, float]]:
    piece = registered()[kind].model_validate(brief["piece"])
    return {(name, round(value, 4)) for name, value in numbers(piece.model_dump())}


# What a step calls a choice where its own name is shorter.
PINS = ("pin", "hook_pin", "eye_pin", "tip_pin", "loop_pin", "ring_pin", "catch_pin", "bow_pin",
        "ring", "core", "core_wire", "string_pin")  # fmt: skip
CALLED = {"pin": PINS, "form": ("form",), "core": PINS, "broad": PINS}


@pytest.mark.parametrize("kind", KINDS)
def test_numbers_in_steps_are_those_of_the_figures_and_choices(kind: str) -> None:
    brief = example(kind)
    plan = plan_raw(deepcopy(brief), Shop())
    figures = {f.id: f.value_mm for f in plan.figures} | {
        "gap": next((f.value_mm for f in plan.figures if f.id in ("opening", "ear_gap")), -1.0)
    }
    # Shaped on the maker's own step, where one is near enough.
    figures["former"] = figures.get("step", figures.get("former", -1.0))
    choices = chosen_in(kind, brief)
    compared = 0
    for step in plan.steps:
        for name, value in step.figures.items():
            if name in figures and step.id not in ("cut", "take", "round"):
                assert value == pytest.approx(figures[name], abs=1e-3), (step.id, name)
                compared += 1
            elif name in CALLED:
                known = {v for n, v in choices if n in CALLED[name]} | _wire_pins(plan)
                assert any(value == pytest.approx(v, abs=1e-3) for v in known), (step.id, name)
                compared += 1
    assert compared or kind in ("linked_necklace", "pendant_chain", "tiara_base")


def _wire_pins(plan: Plan) -> set[float]:
    """Pins of the bends that the plan itself lists: joins have one of their own."""
    return {bend.pin for bend in plan.bends}


@pytest.mark.parametrize("kind", KINDS)
def test_a_dimension_with_the_name_of_a_figure_says_the_same(kind: str) -> None:
    plan = plan_raw(deepcopy(example(kind)), Shop())
    said = {f.label.partition(",")[0]: f.value_mm for f in plan.figures}
    said |= {"clear gap": next((f.value_mm for f in plan.figures if f.id == "ear_gap"), 0.0)}
    said |= {"open": next((f.value_mm for f in plan.figures if f.id == "opening"), 0.0)}
    said |= {
        "overlap": next((f.value_mm for f in plan.figures if f.id in ("ends_over", "overlap")), 0.0)
    }
    for sheet in plan.drawings.sheets:
        for dimension in sheet.dimensions:
            if dimension.label in said:
                wanted = said[dimension.label]
                assert dimension.value_mm == pytest.approx(wanted, abs=0.01), dimension


@pytest.mark.parametrize("kind", KINDS)
def test_the_rule_the_ledger_and_the_cut_are_equally_long(kind: str) -> None:
    plan = plan_raw(deepcopy(example(kind)), Shop())
    rule = plan.drawings.rule
    lines = {line.id: line.value_mm for line in plan.ledger}
    for before, after in pairwise(sorted(rule.spans, key=lambda span: span.from_mm)):
        assert after.from_mm == pytest.approx(before.to_mm, abs=0.01)
    total = lines.get("cut") if "cut" in lines else lines.get("in_all")
    if total is not None and kind != "forehead_drops":
        assert rule.length_mm == pytest.approx(total, abs=0.01)
    if "cut" in lines:
        assert plan.cuts[0].length_mm == pytest.approx(lines["cut"])
        assert f"{lines['cut']:.1f} mm" in next(s.says for s in plan.steps if s.id == "cut")


def drawn(strokes: tuple[Stroke, ...]) -> tuple[float, float, float]:
    """Leftmost and rightmost of what is drawn, and how high, with the thickness of its lines."""
    shapes = []
    for stroke in (copy for one in strokes for copy in one.copies):
        line = (LinearRing if stroke.closed else LineString)(stroke.points)
        half = stroke.width_mm / 2
        shapes.append(line.buffer(half, cap_style="flat") if half else line)
    left, low, right, top = GeometryCollection(shapes).bounds
    return left, right, top - low


@pytest.mark.parametrize("kind", PARTS)
def test_a_part_is_as_long_in_the_ledger_as_drawn_and_as_on_the_rule(kind: str) -> None:
    part = registered_parts()[kind].model_validate({})
    made = part.make(ONE)
    if part.role == "drop":
        assert -_lowest(made) == pytest.approx(made.hang, abs=1.0)
        return
    left, right, high = drawn(made.strokes)
    outside = [end.wire for end in made.ends] if made.ends else [0.0, 0.0]
    if kind not in HANGS_OVER:
        # From outside to outside of its loops: their wire lies beyond where they bear.
        assert left == pytest.approx(-outside[0], abs=0.75)
        assert right == pytest.approx(made.length + outside[1], abs=0.75)
    if kind not in HANGS_OVER | HANGS_LOW:
        assert high == pytest.approx(made.width, abs=WIDER.get(kind, 0.04 * made.width))
    times = 1 if kind in SHUT else 3
    entries = [{"id": "many", "part": {"kind": kind}, "times": times}]
    soft = {"size": "1 mm", "temper": "dead_soft"}
    piece = {**BRACELET["piece"], "entries": entries, "counted": False, "mirrored": False}
    plan = plan_raw({**deepcopy(BRACELET), "wire": soft, "piece": piece}, Shop())
    (line,) = [one for one in plan.ledger if one.id == "many"]
    assert line.value_mm == pytest.approx(times * made.length)
    spans = [span for span in plan.drawings.rule.spans if "many" in span.ledger]
    assert sum(span.to_mm - span.from_mm for span in spans) == pytest.approx(line.value_mm)
    placed = [
        one
        for sheet in plan.drawings.sheets
        if sheet.id == "sequence"
        for one in sheet.placed
        if one.entry == "many"
    ]
    assert sum(one.length_mm * one.times for one in placed) == pytest.approx(
        line.value_mm, abs=0.05
    )


# What does not open has nothing of its own kind beside it.
SHUT = {"bought_ring", "braid", "chain", "finding", "swag", "wound_ring"}
# An ear wire's tail stands out behind the ear; its length is to where it rests. A folded ring
# link's legs and a split ring's second turn stand beyond where they bear.
HANGS_OVER = {"ear_wire", "ring_link", "split_ring"}
# A curved link's loops go on along its arc, below the chord that its width is counted from.
HANGS_LOW = {"curved_link"}


# By how much what is drawn is wider or narrower than what it is called [mm]: bindings stand out on
# both sides, ribbons of fine wire are drawn on the beads, not beside them; a hook seen from its
# side is as wide as its bow, with some play.
WIDER = {"bundle": 0.41, "lattice": 0.81, "folded_hook": 0.88, "spring_clasp": 0.49}


def _lowest(made: Made) -> float:
    return min(y for one in made.strokes for c in one.copies for _, y in c.points)


@pytest.mark.parametrize("kind", CLOSURES)
def test_a_closure_is_as_long_in_the_ledger_as_drawn_and_as_its_steps_say(kind: str) -> None:
    closure = registered_closures()[kind].model_validate({})
    fastened = closure.make(ONE)
    piece = {**BRACELET["piece"], "closure": {"kind": kind}}
    wire = {"size": "1 mm", "temper": "dead_soft"}
    plan = plan_raw({**deepcopy(BRACELET), "wire": wire, "piece": piece}, Shop())
    lines = {line.id: line.value_mm for line in plan.ledger}
    assert lines.get("closure", 0.0) == pytest.approx(fastened.length)
    spans = [s for s in plan.drawings.rule.spans if "closure" in s.ledger]
    assert sum(s.to_mm - s.from_mm for s in spans) == pytest.approx(fastened.length)
    choices = {round(v, 4) for _, v in numbers(closure.model_dump())}
    for half in (fastened.receiving, fastened.holding):
        for step in half.steps:
            for name in set(step.figures) & {"pin", "wraps", "fold", "bar", "apart", "depth"}:
                value = step.figures[name]
                # Its eye has two wraps whatever the hook has; arms are as long as the wire says.
                known = choices | {2.0} | {m.pin for m in _moves(half) if isinstance(m, Bend)}
                arms = [m.length for m in _moves(half) if isinstance(m, Straight)]
                known |= {sum(arms[n : n + 3]) for n in range(len(arms))} | set(arms)
                known |= {a + b for a, b in pairwise(arms)} | {a + arms[-1] for a in arms}
                # Legs bent on a pin stand a wire further apart, middle to middle.
                known |= {pin + 1.0 for pin in known}
                assert any(value == pytest.approx(v, abs=0.01) for v in known), (step.id, name)
        if half.strokes and half.length > 1 and kind not in ("end_caps", "bought_clasp"):
            _, right, high = drawn(half.strokes)
            far = half.ends[1].wire if half.ends else 0.0
            assert right == pytest.approx(half.length + far, abs=1.2)
            assert high == pytest.approx(half.width, abs=WIDER.get(kind, 0.04 * half.width))


def _moves(half: Made) -> Iterator[Move]:
    for use in half.wires:
        for _, moves in use.stretches:
            yield from moves


def test_one_bend_too_tight_is_said_once_for_the_whole_piece() -> None:
    hard = {**deepcopy(BRACELET), "wire": {**BRACELET["wire"], "temper": "full_hard"}}
    plan = plan_raw(hard, Shop())
    assert sum(one.id.startswith("bend_") for one in plan.advice) <= 1
    assert "bend_torchless" in advice(plan)
