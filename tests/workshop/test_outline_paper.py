"""The outline to bend on by hand is true to scale, over one page or several."""

import io
import json
from itertools import pairwise
from typing import Any

import pdfplumber
import pytest

from jamreel.core.plan import Plan, plan_raw
from jamreel.core.shop import Shop
from jamreel.workshop.papers.bench_strip import Paper
from jamreel.workshop.papers.outline import outline, outline_strokes, pages
from tests.conftest import EXAMPLES

MM = 72 / 25.4


def plan_of(name: str, **making: Any) -> Plan:
    brief = json.loads((EXAMPLES / f"{name}.json").read_text())
    return plan_raw({**brief, "making": {"shaped_by": "hands", **making}}, Shop())


def width_of(plan: Plan) -> float:
    xs = [x for stroke in outline_strokes(plan) for x, _ in stroke.points]
    return max(xs) - min(xs)


@pytest.mark.parametrize("name", ["open-cuff", "sliding-bangle", "neck-ring"])
def test_the_wire_on_paper_is_as_wide_as_the_piece(name: str) -> None:
    plan = plan_of(name)
    with pdfplumber.open(io.BytesIO(outline(plan, "A piece", "a4", Shop()))) as pdf:
        (page,) = pdf.pages
        # The middle of the wire is drawn as a hair line.
        fine = [c for c in page.curves if c["linewidth"] == pytest.approx(0.2 * MM, abs=0.01)]
        left = min(x for c in fine for x, _ in c["pts"])
        right = max(x for c in fine for x, _ in c["pts"])
        text = page.extract_text()
        bars = [line for line in page.lines if line["x1"] - line["x0"] > 90 * MM]
    assert (right - left) / MM == pytest.approx(width_of(plan), abs=0.1)
    assert "A piece" in text
    assert "100 mm" in text
    assert sorted(round((b["x1"] - b["x0"]) / MM, 1) for b in bars) == [100.0, 101.6]


@pytest.mark.parametrize("paper", ["a4", "letter"])
def test_a_head_takes_several_pages_that_meet(paper: Paper) -> None:
    plan = plan_of("circlet")
    strokes = outline_strokes(plan)
    with pdfplumber.open(io.BytesIO(outline(plan, "Circlet", paper, Shop()))) as pdf:
        count = len(pdf.pages)
    found = pages(strokes, 270, 130)
    assert count >= 2
    assert len(found) >= 2
    # Rows lie on each other without a gap, and all of the wire is on one of them.
    lows = sorted({page.low for page in found})
    assert all(b - a == pytest.approx(130) for a, b in pairwise(lows))
    ys = [y for stroke in strokes for _, y in stroke.points]
    assert min(lows) <= min(ys)
    assert max(lows) + 130 >= max(ys)


def test_what_is_not_shaped_has_no_outline() -> None:
    assert outline_strokes(plan_of("linked-bracelet")) == ()
    assert outline_strokes(plan_of("coil-bracelet")) == ()
