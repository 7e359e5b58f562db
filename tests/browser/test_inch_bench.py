"""A bench that works in inches: typed, read and printed in inches, nothing changed by looking."""

import io
import re

import pdfplumber
import pytest
from playwright.sync_api import Page, expect

from tests.browser.conftest import assert_accessible
from tests.browser.paths import path
from tests.browser.test_slice import answer, open_piece

pytestmark = pytest.mark.browser


def to_inches(page: Page) -> None:
    page.get_by_role("link", name="Tools").click()
    page.get_by_label("Lengths", exact=True).select_option("in")
    page.get_by_role("button", name="Save").click()
    expect(page.get_by_text("saved", exact=True)).to_be_visible()


def shop(page: Page) -> dict[str, object]:
    found: dict[str, object] = page.request.get("/api/shop").json()["shop"]
    return found


def nothing_odd(page: Page) -> None:
    text = page.locator("body").inner_text()
    assert not re.search(r"\bin in\b|\b0 \d+/\d+|undefined|NaN", text), text
    assert_accessible(page)


def test_an_inch_bench_types_and_reads_inches_and_changes_no_other(page: Page) -> None:
    before = shop(page)
    to_inches(page)
    now = shop(page)
    # The same tools, to the micrometre, whatever they were typed as.
    assert now["formers"] == before["formers"]
    assert now["pins"] == before["pins"]
    mandrel = page.get_by_label("Diameters").first
    expect(mandrel).to_have_value(re.compile(r"^1\.575, 1\.693, "))
    # Adding one in inches leaves the others exactly what they were.
    mandrel.fill(f"{mandrel.input_value()}, 2 3/4")
    page.get_by_role("button", name="Save").click()
    expect(page.get_by_text("saved", exact=True)).to_be_visible()
    old = before["formers"][0]["diameters"]  # type: ignore[index]
    assert shop(page)["formers"][0]["diameters"] == [*old, 69.85]  # type: ignore[index]
    nothing_odd(page)
    for section, title in (("Reels", "Reels"), ("Wearers", "Wearers"), ("Bench", "Heron Barge")):
        page.get_by_role("link", name=section, exact=True).click()
        expect(page.get_by_role("heading", level=1, name=title)).to_be_visible()
        nothing_odd(page)


@pytest.mark.elsewhere
def test_a_piece_of_the_metric_bench_is_the_same_in_inches(page: Page) -> None:
    open_piece(page, "Ferryman's bangle", "Cut")
    expect(answer(page)).to_contain_text("mm")
    plan = page.request.get(path("/api/pieces/{Ferryman's bangle}")).json()["plan"]
    to_inches(page)
    same = page.request.get(path("/api/pieces/{Ferryman's bangle}")).json()["plan"]
    assert [c["length_mm"] for c in same["cuts"]] == [c["length_mm"] for c in plan["cuts"]]
    assert [f["tool_mm"] for f in same["formers"]] == [f["tool_mm"] for f in plan["formers"]]
    page.get_by_role("link", name="Bench", exact=True).click()
    for station in ("Measure", "Make-up", "Cut", "Form", "Fit"):
        open_piece(page, "Ferryman's bangle", station)
        expect(answer(page)).to_contain_text("in")
        nothing_odd(page)
        page.get_by_role("link", name="Bench", exact=True).click()
    strip = page.request.get(path("/api/pieces/{Ferryman's bangle}/strip.pdf?paper=a4"))
    with pdfplumber.open(io.BytesIO(strip.body())) as pdf:
        text = pdf.pages[0].extract_text()
    assert re.search(r"\d+ \d+/\d+ in", text)
    assert " mm" not in text.replace("(1.63 mm)", "").replace("100 mm", "")


@pytest.mark.elsewhere
def test_the_rule_draws_every_part_by_its_outline_and_says_where_it_does_not(page: Page) -> None:
    open_piece(page, "Sluice bracelet", "Make-up")
    rule = page.locator("[data-drawn=rule]")
    expect(rule).to_have_attribute("data-step", "outlines")
    # Thirty beads, both halves of the closure, and the string's ends: placed, not stretched.
    placed = rule.locator("use")
    expect(placed).to_have_count(30 + 2 + 2)
    scales = {
        tuple(re.findall(r"scale\(([\d.]+)\)", t or ""))
        for t in (one.get_attribute("transform") for one in placed.all())
    }
    assert len({s[0] for s in scales}) == 1
    assert page.get_by_text("simplified").count() == 0
    page.set_viewport_size({"width": 820, "height": 1180})
    page.get_by_role("link", name="Bench", exact=True).click()
    open_piece(page, "Lock-gate necklace", "Make-up")
    expect(rule).to_have_attribute("data-step", "beads")
    expect(page.get_by_text("simplified: beads and bars")).to_be_visible()
    expect(page.get_by_text("both halves alike")).to_be_visible()


@pytest.mark.elsewhere
def test_form_shows_the_part_at_hand(page: Page) -> None:
    open_piece(page, "Sluice bracelet", "Form")
    part = page.locator("[data-drawn=part]")
    # Laying out comes first: a step about the whole shows the whole alone.
    expect(page.locator("[data-drawn=sequence]")).to_be_visible()
    expect(part).to_have_count(0)
    page.get_by_role("checkbox", name=re.compile("Make the ring")).first.focus()
    expect(part).to_have_attribute("aria-label", re.compile("bearing to bearing"))
