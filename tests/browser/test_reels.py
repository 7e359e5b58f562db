"""The rack and the cut board: a reel weighed, wires cut off the rack, one spoiled, one undone."""

import io
import re
from typing import Any

import pdfplumber
import pytest
from playwright.sync_api import Page, expect

from tests.browser.test_slice import open_piece

pytestmark = pytest.mark.browser


def test_a_reel_is_added_weighed_and_used(page: Page) -> None:
    page.get_by_role("link", name="Reels", exact=True).click()
    expect(page.get_by_text("“16” means two wires on this rack")).to_be_visible()
    page.get_by_role("button", name="Add stock").click()
    page.get_by_label("Size", exact=True).fill("0.08 mm")
    page.get_by_label("How long").fill("2 m")
    page.get_by_label("Empty reel, g").fill("20")
    page.get_by_role("button", name="Put it on the rack").click()
    expect(page.get_by_text("Has the decimal point slipped?")).to_be_visible()
    page.get_by_label("Size", exact=True).fill("0.8 mm")
    page.get_by_label("What you call it").fill("new reel")
    page.get_by_role("button", name="Put it on the rack").click()
    page.get_by_role("button", name=re.compile("^new reel")).click()
    beside = page.get_by_role("complementary", name="About what is picked out")
    expect(beside).to_contain_text("2000")
    # The scale by its button, then as its cable types: text and Enter.
    beside.get_by_role("button", name="Read scale").click()
    expect(beside.get_by_label("On the scale")).to_have_value(re.compile(r"^2\d\.\d g$"))
    beside.get_by_label("On the scale").fill("24.5 g")
    page.keyboard.press("Enter")
    expect(beside.get_by_text("Good to ± 11 mm")).to_be_visible()
    expect(beside).to_contain_text("1001")
    beside.get_by_label("Write", exact=True).select_option("used")
    beside.get_by_label("How much").fill("5 m")
    beside.get_by_role("button", name="Write").click()
    expect(beside.get_by_text("There are only")).to_be_visible()


@pytest.mark.elsewhere
def test_what_a_size_means(page: Page) -> None:
    page.goto("/reels")
    page.get_by_label("A size").fill("20 swg")
    page.get_by_label("Hole").fill("2 mm")
    page.get_by_role("button", name="Ask").click()
    expect(page.get_by_text("is nearest to 19 AWG (0.91) and to 20 SWG (0.91)")).to_be_visible()
    expect(page.get_by_text("2 such wires pass a hole of 2 mm")).to_be_visible()


@pytest.mark.elsewhere
def test_wires_are_cut_off_the_rack_spoiled_and_given_back(page: Page) -> None:
    open_piece(page, "Ferryman's beads", "Cut")
    board = page.locator("[data-drawn=board]")
    wires = board.get_by_role("button", name="linked bead wire, 80.9 mm")
    expect(wires).to_have_count(9)
    wires.first.click()
    page.get_by_role("button", name="It is cut").click()
    expect(wires).to_have_count(8)
    expect(page.get_by_text("1 of 9 cut")).to_be_visible()
    # A spoiled length leaves as many to cut, and is laid out anew.
    jar = board.get_by_text(re.compile("offcut 262"))
    expect(jar.first).to_be_visible()
    wires.first.click()
    page.get_by_role("button", name="Spoiled").click()
    expect(wires).to_have_count(8)
    page.get_by_role("button", name="All are cut, none from the rack").click()
    expect(page.get_by_text("9 of 9 cut")).to_be_visible()
    page.get_by_role("button", name="Take the tick back").first.click()
    expect(wires).to_have_count(9)


def test_several_pieces_are_laid_out_together(page: Page, monkeypatch: Any) -> None:
    page.get_by_role("link", name="Lay several pieces out together").click()
    expect(page.get_by_role("heading", name=re.compile("Cutting"))).to_contain_text("28 pieces")
    expect(page.get_by_role("heading", name="To buy")).to_be_visible()
    page.get_by_role("checkbox", name="Heron's anklet").uncheck()
    expect(page.get_by_role("heading", name=re.compile("Cutting"))).to_contain_text("27 pieces")
    strips = page.get_by_role("link", name="All bench strips").get_attribute("href") or ""
    with pdfplumber.open(io.BytesIO(page.request.get(strips).body())) as pdf:
        assert len(pdf.pages) > 5
    page.get_by_role("button", name="Print labels").click()
    expect(page.get_by_text("labels in the outbox")).to_be_visible()


@pytest.mark.elsewhere
def test_a_cuff_of_half_round_wire(page: Page) -> None:
    open_piece(page, "Rowlock cuff", "Make-up")
    page.get_by_label("Section", exact=True).select_option("half_round")
    expect(page.get_by_text("4.00 mm half-round").first).to_be_visible()
    page.get_by_label("Flat", exact=True).fill("0.01")
    expect(page.get_by_text("outside 0.1 mm to 30 mm").first).to_be_visible()
    page.get_by_label("Section", exact=True).select_option("round")
    page.get_by_text("Allowances").click()
    page.get_by_label("Margin by").select_option("sample")
    expect(page.get_by_text("The pin of the trial loop is missing").first).to_be_visible()


@pytest.mark.elsewhere
def test_beads_are_taken_from_their_tray_and_put_back(page: Page) -> None:
    open_piece(page, "Ferryman's beads", "Cut")
    trays = page.locator("[data-drawn=trays]")
    expect(trays.get_by_label("Tray for 6.0 mm slate blue glass")).to_contain_text(
        "slate glass 6 mm (84 there)"
    )
    trays.get_by_role("button", name="Taken").first.click()
    expect(trays.get_by_role("button", name="Taken")).to_have_count(0)
    trays.get_by_role("button", name="Put back").click()
    expect(trays.get_by_role("button", name="Put back")).to_have_count(0)
    trays.get_by_role("button", name="Taken").first.click()
    expect(trays.get_by_role("button", name="Put back")).to_be_visible()
    page.get_by_role("link", name="Reels", exact=True).click()
    expect(page.get_by_role("button", name=re.compile("^slate glass 6 mm"))).to_contain_text("75")


@pytest.mark.elsewhere
def test_a_reel_of_half_round_serves_a_cuff_of_it(page: Page) -> None:
    page.goto("/reels")
    page.get_by_role("button", name="Add stock").click()
    page.get_by_label("Section", exact=True).select_option("half_round")
    page.get_by_label("How long").fill("1 m")
    page.get_by_label("What you call it").fill("half-round copper")
    page.get_by_role("button", name="Put it on the rack").click()
    expect(page.get_by_role("button", name=re.compile("^half-round copper(?!,)"))).to_be_visible()
    page.get_by_role("link", name="Bench", exact=True).click()
    open_piece(page, "Rowlock cuff", "Make-up")
    page.get_by_label("Section", exact=True).select_option("half_round")
    expect(page.get_by_text("4.00 mm half-round").first).to_be_visible()
    page.get_by_role("link", name=re.compile(r"\bCut ")).click()
    expect(page.locator("[data-drawn=board]")).to_contain_text("half-round copper")
