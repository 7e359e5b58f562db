"""Bench strips of pieces other than one short wire."""

import io
import json
from typing import Any

import pdfplumber
import pytest

from jamreel.core.cutting.cuts import Cut
from jamreel.core.plan import BriefRefused, Plan, plan_raw
from jamreel.core.shop import Shop
from jamreel.core.units import format_length
from jamreel.workshop.papers.bench_strip import (
    MOST_TILES,
    TILE_MM,
    Paper,
    _rows,
    bench_strip,
    paper_of,
    strip_of,
    tiles,
)
from jamreel.workshop.papers.making_card import making_card
from tests.conftest import EXAMPLES

MM = 72 / 25.4


def plan_of(name: str, **parts: Any) -> Plan:
    brief = {**json.loads((EXAMPLES / f"{name}.json").read_text()), **parts}
    return plan_raw(brief, Shop())


def pages(plan: Plan, shop: Shop | None = None) -> list[Any]:
    body = bench_strip(plan, "Ærø's chain", "a4", shop or Shop())
    with pdfplumber.open(io.BytesIO(body)) as pdf:
        return [(page.extract_text(), page.lines) for page in pdf.pages]


def cut_of(length: float) -> Cut:
    plan = plan_of("sliding-bangle")
    return plan.cuts[0].model_copy(update={"length_mm": length})


@pytest.mark.parametrize(
    ("length", "ends"),
    [(100, [100]), (270, [270]), (270.5, [270, 270.5]), (813, [270, 540, 810, 813])],
)
def test_tiles_cover_a_wire_end_to_end(length: float, ends: list[float]) -> None:
    found = tiles(cut_of(length), 270)
    assert [tile.to_mm for tile in found] == ends
    assert [tile.from_mm for tile in found] == [0, *ends[:-1]]
    assert {tile.of for tile in found} == {len(ends)}


def test_every_cut_of_a_piece_is_printed() -> None:
    plan = plan_of("linked-bracelet")
    (text, _), *more = pages(plan)
    assert more == []
    # What is cut alike is printed once.
    labels = {cut.label for cut in plan.cuts}
    assert len(labels) == 3
    assert all(text.count(f"{label} · ") <= 1 and label in text for label in labels)
    assert "Ærø" in text


def test_a_long_chain_goes_over_pages_and_every_page_has_its_check_bars() -> None:
    brief = json.loads((EXAMPLES / "linked-necklace.json").read_text())
    ring = {"kind": "jump_ring", "pin": "4"}
    piece = {**brief["piece"], "length": "1400", "entries": [{"part": ring, "times": 92}]}
    plan = plan_of("linked-necklace", piece=piece)
    coil = next(cut for cut in plan.cuts if cut.id.startswith("coil/"))
    assert coil.length_mm == pytest.approx(1419, abs=5)
    found = pages(plan.model_copy(update={"cuts": (coil,)}))
    assert len(found) == 2  # three tiles a page
    for text, lines in found:
        lengths = [(line["x1"] - line["x0"]) / MM for line in lines]
        assert any(length == pytest.approx(100, abs=0.05) for length in lengths)
        assert "4 in" in text
    assert "part 6 of 6" in found[-1][0]


def test_an_inch_bench_prints_inches() -> None:
    text = pages(plan_of("sliding-bangle"), Shop(unit="in"))[0][0]
    assert "9 21/32 in" in text  # 245.5 mm


def test_labels_of_close_marks_stand_on_lines_of_their_own() -> None:
    assert _rows([0, 1.5, 14.8, 122.8]) == [2, 1, 0, 0]
    assert _rows([122.8, 230.8, 244.0, 245.5]) == [0, 0, 1, 2]


def test_marks_are_true_to_a_tenth_over_all_tiles() -> None:
    # Stringing wire of over a third of a metre: marks on both tiles, counted from their join.
    plan = plan_of("linked-choker")
    cut = next(c for c in plan.cuts if c.id.endswith("/string_run"))
    assert len(tiles(cut, 270)) == 2
    ((_, lines),) = pages(plan.model_copy(update={"cuts": (cut,)}))
    found = []
    for line in lines:
        upright = abs(line["x1"] - line["x0"]) < 0.01
        dashed = bool(line.get("dash") and line["dash"][0])
        if upright and not dashed and line["linewidth"] == pytest.approx(0.5):
            tile = round(line["top"] / MM / 46) - 1
            found.append(line["x0"] / MM - 12 + 270 * tile)
    wanted = sorted({0.0, cut.length_mm, *(m.at_mm for m in cut.marks)})
    assert sorted(set(found)) == pytest.approx(wanted, abs=0.1)


def card_of(plan: Plan, paper: Paper = "a4", shop: Shop | None = None) -> Any:
    body = making_card(plan, "Ærø's links", "Tobin Arkwell", paper, shop or Shop())
    return pdfplumber.open(io.BytesIO(body))


@pytest.mark.parametrize("name", ["linked-bracelet", "drop-earring", "sliding-bangle"])
@pytest.mark.parametrize("paper", ["a4", "letter"])
def test_a_making_card_is_one_page_with_every_cut_pin_and_part(name: str, paper: Paper) -> None:
    plan = plan_of(name)
    with card_of(plan, paper) as pdf:
        (page,) = pdf.pages
        text = page.extract_text()
        inside = page.within_bbox((0, 0, page.width, page.height)).extract_text()
    assert "Ærø's links" in text
    assert "Tobin Arkwell" in text
    assert text == inside
    for cut in plan.cuts:
        assert format_length(cut.length_mm, "mm").split()[0] in text, cut.label
    for need in plan.needs:
        assert str(need.quantity) in text
        assert need.size in text
    for bend in plan.bends:
        # What is folded is bent on no pin.
        assert bend.pin == 0 or format_length(bend.tool_mm or bend.pin, "mm") in text
    words = " ".join(text.split())
    for i, one in enumerate(plan.steps, 1):
        assert f"{i} " in words
        assert one.title.split(":")[-1].strip() in words
    # What can hurt is said on paper too.
    for caution in plan.cautions:
        assert caution.says.split()[0] in text


def test_a_card_of_very_many_kinds_still_holds_every_step() -> None:
    brief = json.loads((EXAMPLES / "linked-bracelet.json").read_text())
    sorts: tuple[dict[str, Any], ...] = tuple(
        {"part": {"kind": "linked_bead", "bead": f"{4 + n / 4}", "pin": f"{2 + n / 8}"}}
        for n in range(16)
    )
    plan = plan_of("linked-bracelet", piece={**brief["piece"], "entries": sorts})
    assert len(plan.steps) > 60
    with card_of(plan) as pdf:
        (page,) = pdf.pages
        numbers = {
            word["text"].rstrip("!")
            for word in page.extract_words(x_tolerance=1, y_tolerance=1)
            if word["x0"] > page.width / 2
        }
        assert {str(i) for i in range(1, len(plan.steps) + 1)} <= numbers
        assert max(c["bottom"] for c in page.chars) < page.height - 10 * MM


def test_a_making_card_of_an_inch_bench_is_in_inches() -> None:
    plan = plan_of("linked-bracelet")
    with card_of(plan, shop=Shop(unit="in")) as pdf:
        text = pdf.pages[0].extract_text()
    assert " in" in text
    assert format_length(plan.cuts[0].length_mm, "mm") not in text


def test_a_card_draws_the_piece_within_the_page_and_true_to_proportion() -> None:
    plan = plan_of("linked-bracelet")
    sheet = next(s for s in plan.drawings.sheets if s.id == "sequence")
    xs = [
        at + x
        for one in sheet.placed
        for at in (one.at[0],)
        for stroke in sheet.shapes[one.shape]
        for x, _ in stroke.points
    ]
    with card_of(plan) as pdf:
        page = pdf.pages[0]
        drawn = [c for c in page.curves if c["top"] / MM < 85]
        assert drawn
        left, right = min(c["x0"] for c in drawn), max(c["x1"] for c in drawn)
        assert 10 * MM < left < right < page.width - 10 * MM
        tall = max(c["bottom"] for c in drawn) - min(c["top"] for c in drawn)
    ys = [
        one.at[1] + y for one in sheet.placed for s in sheet.shapes[one.shape] for _, y in s.points
    ]
    wide_mm, tall_mm = max(xs) - min(xs), max(ys) - min(ys)
    assert (right - left) / tall == pytest.approx(wide_mm / tall_mm, rel=0.25)


def test_a_strip_longer_than_anybody_prints_is_refused_by_name() -> None:
    fits, over = (cut_of(TILE_MM["a4"] * MOST_TILES + more) for more in (-1, 1))
    assert strip_of([("Bangle", fits)], "x", "a4", Shop()).startswith(b"%PDF")
    with pytest.raises(BriefRefused) as refused:
        strip_of([("Bangle", over)], "x", "a4", Shop())
    assert refused.value.problems[0].field == "cuts"
    assert str(MOST_TILES) in refused.value.problems[0].says


def test_the_strip_of_an_inch_bench_has_an_inch_ruler() -> None:
    def ruler(unit: str) -> list[tuple[str, float]]:
        shop = Shop.model_validate({"unit": unit})
        pdf = strip_of([("Bangle", cut_of(240.0))], "x", paper_of(shop), shop)
        with pdfplumber.open(io.BytesIO(pdf)) as document:
            words = document.pages[0].extract_words()
        small = [w for w in words if w["bottom"] - w["top"] < 7 and w["text"].isdecimal()]
        row = min((w["top"] for w in small), default=0.0)
        return [(w["text"], (w["x0"] + w["x1"]) / 2) for w in small if abs(w["top"] - row) < 1]

    inches, metric = ruler("in"), ruler("mm")
    assert [text for text, _ in inches] == [str(n) for n in range(10)]
    # Points are a seventy-second of an inch.
    assert inches[9][1] - inches[0][1] == pytest.approx(9 * 72, abs=1)
    assert [text for text, _ in metric] == [str(10 * n) for n in range(25)]
    assert metric[24][1] - metric[0][1] == pytest.approx(240 * 72 / 25.4, abs=2)


def test_paper_follows_the_bench() -> None:
    assert paper_of(Shop(unit="in")) == "letter"
    assert paper_of(Shop()) == "a4"


@pytest.mark.parametrize("name", ["W" * 120, "Ж" * 120, "Ærø's chain", ""])
def test_a_name_of_120_wide_letters_fits_its_line(name: str) -> None:
    plan = plan_of("linked-bracelet")
    for body in (
        bench_strip(plan, name, "a4", Shop()),
        making_card(plan, name, "", "letter", Shop()),
    ):
        with pdfplumber.open(io.BytesIO(body)) as pdf:
            page = pdf.pages[0]
            head = [c for c in page.chars if c["top"] < 60 and "Bold" in c["fontname"]]
            assert max((c["x1"] for c in head), default=0) <= page.width - 10
            # What stands at the right of the same line is not written over.
            right = [c["x0"] for c in head if c["x0"] > page.width / 2 and c["size"] == 11]
            mine = [c["x1"] for c in head if c["text"] in "WЖ…" and c["size"] != 11]
            assert not right or not mine or max(mine) < min(right)
