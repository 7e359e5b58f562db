"""The oval former on paper and as files: true to scale, read back by other programs."""

import io
import json
import math
import re
from itertools import pairwise
from typing import Any
from xml.etree import ElementTree

import ezdxf
import pdfplumber
import pytest

from jamreel.core.forming.oval import OvalFormer
from jamreel.core.plan import Plan, plan_raw
from jamreel.core.shop import Shop
from jamreel.core.values import Point
from jamreel.workshop.papers.former_files import former_dxf, former_svg
from jamreel.workshop.papers.outline import former_paper
from tests.conftest import EXAMPLES

MM = 72 / 25.4
RIGID = ["open-cuff", "choker", "circlet", "forged-bangle", "closed-bangle"]


def planned(name: str, **wire: str) -> tuple[Plan, OvalFormer]:
    brief = json.loads((EXAMPLES / f"{name}.json").read_text())
    plan = plan_raw({**brief, "wire": {**brief["wire"], **wire}}, Shop())
    assert plan.oval is not None
    return plan, plan.oval


def length(points: list[Point]) -> float:
    return sum(math.dist(a, b) for a, b in pairwise(points))


@pytest.mark.parametrize("name", RIGID)
def test_the_drawn_wire_is_as_long_as_what_is_bent(name: str) -> None:
    _, oval = planned(name)
    for line in (oval.bent, oval.target):
        assert length(list(line)) == pytest.approx(oval.length_mm, rel=1e-3)
    xs = [x for x, _ in oval.block]
    assert max(xs) - min(xs) == pytest.approx(oval.across_mm, abs=0.02)


@pytest.mark.parametrize("name", RIGID)
def test_svg_reads_back_at_the_right_length_and_scale(name: str) -> None:
    _, oval = planned(name)
    svg = ElementTree.fromstring(former_svg(oval, Shop()))
    width = float(svg.attrib["width"].removesuffix("mm"))
    box = [float(part) for part in svg.attrib["viewBox"].split()]
    # A user unit is a millimetre.
    assert width == pytest.approx(box[2])
    paths = {
        one.attrib["id"]: [
            (float(x), float(y)) for x, y in re.findall(r"(-?[\d.]+) (-?[\d.]+)", one.attrib["d"])
        ]
        for one in svg.iter("{http://www.w3.org/2000/svg}path")
    }
    assert length(paths["wire"]) == pytest.approx(oval.length_mm, rel=1e-3)
    assert length(paths["check_bar"]) == pytest.approx(100)
    xs = [x for x, _ in paths["cut"]]
    assert max(xs) - min(xs) == pytest.approx(oval.across_mm, abs=0.02)
    # Nothing is cut off.
    every = [point for line in paths.values() for point in line]
    assert all(box[0] <= x <= box[0] + box[2] and box[1] <= y <= box[1] + box[3] for x, y in every)


@pytest.mark.parametrize("name", RIGID)
def test_dxf_reads_back_in_millimetres(name: str) -> None:
    _, oval = planned(name)
    drawing = ezdxf.read(io.StringIO(former_dxf(oval).decode()))  # type: ignore[attr-defined]
    assert drawing.units == 4
    assert not drawing.audit().errors
    by_layer: dict[str, Any] = {one.dxf.layer: one for one in drawing.modelspace()}
    wire = [(x, y) for x, y, *_ in by_layer["WIRE"].get_points()]
    assert length(wire) == pytest.approx(oval.length_mm, rel=1e-3)
    assert by_layer["CUT"].closed
    assert not by_layer["WIRE"].closed
    bar = by_layer["CHECK_BAR"]
    assert bar.dxf.start.distance(bar.dxf.end) == pytest.approx(100)


@pytest.mark.parametrize(("name", "pages"), [("open-cuff", 1), ("circlet", 2)])
def test_the_paper_is_true_to_scale(name: str, pages: int) -> None:
    # Soft wire hardly springs: a head's former is taller than a page.
    plan, oval = planned(name, temper="dead_soft") if pages > 1 else planned(name)
    with pdfplumber.open(io.BytesIO(former_paper(plan, "A piece", "a4", Shop()))) as pdf:
        assert len(pdf.pages) >= pages
        page = pdf.pages[0]
        bars = [line for line in page.lines if line["x1"] - line["x0"] > 90 * MM]
        assert sorted(round((b["x1"] - b["x0"]) / MM, 1) for b in bars) == [100.0, 101.6]
        if pages == 1:
            fine = [c for c in page.curves if c["linewidth"] == pytest.approx(0.2 * MM, abs=0.01)]
            widths = [max(x for x, _ in c["pts"]) - min(x for x, _ in c["pts"]) for c in fine]
            # The edge to cut along, and the middle of the wire round it.
            assert min(widths) / MM == pytest.approx(oval.across_mm, abs=0.05)
            assert "Oval former" in page.extract_text()


def test_what_hangs_round_or_slides_has_no_oval() -> None:
    for name in ("sliding-bangle", "coil-bracelet", "linked-bracelet"):
        path = EXAMPLES / f"{name}.json"
        assert plan_raw(json.loads(path.read_text()), Shop()).oval is None
