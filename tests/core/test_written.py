"""A plan as it is written out: short, and read back without a loss that anybody sees."""

import json
import math
from itertools import accumulate
from pathlib import Path
from statistics import median
from typing import Any

import numpy as np
import pytest

from jamreel.core.path.lines import MOST_RUN, MOST_TURN, circle, curves, points_of, whole
from jamreel.core.plan import Plan, plan_raw
from jamreel.core.shop import Shop
from jamreel.core.values import FORMAT, LedgerLine, PlusMinus, Sheet, Stroke
from tests.conftest import EXAMPLES

NAMES = sorted(path.stem for path in EXAMPLES.glob("*.json"))
# What a usual plan may come to [bytes].
MOST_BYTES = 20_000


def planned(name: str) -> Plan:
    return plan_raw(json.loads((EXAMPLES / f"{name}.json").read_text()), Shop())


def read_back(points: list[int]) -> list[tuple[float, float]]:
    xs, ys = (list(accumulate(points[n::2])) for n in (0, 1))
    return [(x / 100, y / 100) for x, y in zip(xs, ys, strict=True)]


def test_lengths_are_written_to_a_thousandth_and_all_else_to_six_digits() -> None:
    pm = json.loads(PlusMinus(value=245.53269717, plus_minus=2.00049).model_dump_json())
    assert pm == {"value": 245.533, "plus_minus": 2.0}
    line = LedgerLine(
        id="a", label="", value_mm=1 / 3, rule="r", reason="", backing="geometry",
        inputs={"angle": 12345.678912, "small": 0.000123456789, "words": "as they are"},
    )  # fmt: skip
    assert json.loads(line.model_dump_json())["inputs"] == {
        "angle": 12345.7,
        "small": 0.000123457,
        "words": "as they are",
    }
    # Whoever computes with it has all of it.
    assert line.value_mm == line.model_dump()["value_mm"] == 1 / 3


def test_what_stands_at_its_usual_value_is_left_out() -> None:
    bare = Stroke(part="wire", points=((0.0, 0.0), (1.0, 0.0)))
    assert set(json.loads(bare.model_dump_json())) == {"part", "points"}
    told = bare.model_copy(update={"closed": True, "tone": "reed"})
    assert json.loads(told.model_dump_json()).keys() - {"part", "points"} == {"closed", "tone"}
    # The format is always said.
    assert json.loads(planned(NAMES[0]).model_dump_json())["schema"] == FORMAT


@pytest.mark.parametrize("name", ["sliding-bangle", "linked-necklace", "circlet"])
def test_strokes_read_back_to_hundredths(name: str) -> None:
    plan = planned(name)
    written: dict[str, Any] = json.loads(plan.model_dump_json())
    for sheet, told in zip(plan.drawings.sheets, written["drawings"]["sheets"], strict=True):
        strokes = zip(sheet.strokes, told.get("strokes", []), strict=True)
        for stroke, one in strokes:
            assert np.allclose(read_back(one["points"]), stroke.points, atol=0.00501)


@pytest.mark.parametrize("name", ["linked-necklace", "forehead-drops", "swag-necklace"])
def test_shapes_read_back_to_hundredths_though_each_stroke_is_written_once(name: str) -> None:
    plan = planned(name)
    written: dict[str, Any] = json.loads(plan.model_dump_json())
    for sheet, told in zip(plan.drawings.sheets, written["drawings"]["sheets"], strict=True):
        for shape, strokes in sheet.shapes.items():
            row, every = told["shapes"]["made"][shape], told["shapes"]["strokes"]
            triples = zip(row[::3], row[1::3], row[2::3], strict=True)
            for (which, x, y), stroke in zip(triples, strokes, strict=True):
                one = dict(every[which])
                points = np.array(read_back(one.pop("points"))) + np.array([x, y]) / 100
                assert np.allclose(points, stroke.points, atol=0.01001)
                drawn = json.loads(stroke.model_dump_json())
                del drawn["points"]
                assert one == drawn


def test_a_stroke_without_points_is_written_as_one() -> None:
    sheet = Sheet(
        id="a", title="", stations=("form",), shapes={"none": (Stroke(part="wire", points=()),)}
    )
    written = json.loads(sheet.model_dump_json())["shapes"]
    assert written == {"strokes": [{"part": "wire", "points": []}], "made": {"none": [0, 0, 0]}}


def test_parts_of_many_sizes_share_the_strokes_they_have_in_common() -> None:
    brief = json.loads((EXAMPLES / "linked-necklace.json").read_text())
    sizes = [{"kind": "linked_bead", "bead": 4 + n} for n in range(8)]
    brief["piece"]["entries"] = [
        {"id": f"e{n}", "part": part, "times": 4} for n, part in enumerate(sizes)
    ]
    written = json.loads(plan_raw(brief, Shop()).model_dump_json())["drawings"]["sheets"][0]
    made = {name: row[::3] for name, row in written["shapes"]["made"].items()}
    # A bead and the wire through it are its own, the loops and wraps are all beads'.
    for n in range(1, 8):
        common = set(made[f"e{n}"]) & set(made["e0"])
        assert len(made[f"e{n}"]) - len([one for one in made[f"e{n}"] if one in common]) <= 2


def test_bends_alike_are_one_with_their_places_on_each_wire() -> None:
    brief = json.loads((EXAMPLES / "linked-necklace.json").read_text())
    sizes = [{"kind": "linked_bead", "bead": 4 + n, "pin": pin} for n, pin in enumerate("332")]
    brief["piece"]["entries"] = [
        {"id": f"e{n}", "part": part, "times": 9} for n, part in enumerate(sizes)
    ]
    plan = plan_raw(brief, Shop())
    loops = [one for one in plan.bends if one.places[0].cut.startswith("e")]
    assert [[on.cut for on in one.places] for one in loops] == [
        ["e0/linked_bead", "e1/linked_bead"],
        ["e2/linked_bead"],
    ]
    marks = {cut.id: {m.label: m.at_mm for m in cut.marks} for cut in plan.cuts}
    for on in (on for one in loops for on in one.places):
        # A loop is bent where its wraps end, the other one where its stem ends.
        at = marks[on.cut]
        assert on.at_mm == (at["wraps, left ends"], at["stem, right ends"])


def test_a_usual_plan_is_short() -> None:
    sizes = [len(planned(name).model_dump_json(by_alias=True)) for name in NAMES]
    assert median(sizes) < MOST_BYTES


@pytest.mark.parametrize("radius", [1.3, 31.0, 180.0])
def test_a_thinned_circle_is_round_to_the_eye(radius: float) -> None:
    turn = np.linspace(0, 2 * np.pi, 400)
    line = np.column_stack([radius * np.cos(turn), radius * np.sin(turn)])
    thin = np.array(points_of(line))
    assert len(thin) < len(line) / 4
    # The middle of each curve lies within a hair of the circle: at most a thousandth of its width.
    found = np.array([(a, *c) for a, c in zip(thin, curves(thin.tolist(), False), strict=False)])
    middles = np.hypot(*np.einsum("k,nkx->xn", [1 / 8, 3 / 8, 3 / 8, 1 / 8], found))
    assert abs(radius - middles).max() < max(2 * radius / 1000, 0.01)
    assert np.ptp(thin, axis=0) == pytest.approx(np.ptp(line, axis=0), abs=0.01)


def test_corners_and_ends_stay_where_they_are() -> None:
    along = np.column_stack([np.linspace(0, 100, 50), np.zeros(50)])
    bent = np.vstack([along, [[100.0, 50.0], [0.0, 50.0]]])
    assert points_of(along) == ((0, 0), (100, 0))
    assert points_of(bent) == ((0, 0), (100, 0), (100, 50), (0, 50))
    assert len(whole(along)) == 50


def test_no_step_of_a_thinned_line_turns_or_goes_too_far() -> None:
    x = np.linspace(0, 200, 900)
    line = np.column_stack([x, 30 * np.sin(x / 15)])
    thin = np.array(points_of(line))
    steps = np.diff(thin, axis=0)
    ways = np.unwrap(np.arctan2(steps[:, 1], steps[:, 0]))
    # Twice each: a chord stands for what lies on both sides of its ends.
    assert np.abs(np.diff(ways)).max() < 2 * MOST_TURN
    assert np.hypot(*steps.T).max() < 2 * MOST_RUN * 200


def test_curves_go_round_a_circle_and_straight_where_it_is_straight() -> None:
    round_one = circle((3.0, 4.0), 50.0)
    for (x, y), (out, into, end) in zip(round_one, curves(round_one, closed=True), strict=True):
        # The middle of a cubic curve, by its own formula.
        middle = [
            (a + 3 * b + 3 * c + d) / 8 for a, b, c, d in zip((x, y), out, into, end, strict=True)
        ]
        assert math.dist(middle, (3.0, 4.0)) == pytest.approx(50.0, abs=0.02)
    line = [(0.0, 0.0), (3.0, 4.0), (6.0, 8.0)]
    for out, into, end in curves(line, closed=False):
        assert all(4 * x == pytest.approx(3 * y) for x, y in (out, into, end))


def test_a_corner_stays_one() -> None:
    first, second = curves([(0.0, 0.0), (3.0, 0.0), (3.0, 3.0)], closed=False)
    assert first == ((1.0, 0.0), (2.0, 0.0), (3.0, 0.0))
    assert [pytest.approx(p) for p in ((3, 1), (3, 2), (3, 3))] == list(second)


SMOOTH = json.loads((Path(__file__).parents[1] / "data" / "smooth_lines.json").read_text())


@pytest.mark.parametrize("row", SMOOTH, ids=[row["what"] for row in SMOOTH])
def test_lines_are_round_on_paper_as_they_are_on_the_screen(row: dict[str, Any]) -> None:
    """The screen's own test reads the same figures, which were worked out by hand."""
    found = list(curves([(x, y) for x, y in row["points"]], row["closed"]))
    assert np.allclose(found, row["curves"], atol=2e-4)
