"""Woven bodies as a maker uses them: turned by hand, row by row, how far a wire goes, a width that
does not suit."""

import re

import pytest
from playwright.sync_api import Page, expect

from tests.browser.conftest import assert_accessible
from tests.browser.test_slice import open_piece


@pytest.mark.elsewhere
def test_a_body_is_turned_by_arrow_keys_and_by_dragging(page: Page) -> None:
    open_piece(page, "Weir-gate ladder", "Make-up")
    view = page.locator("[data-drawn=woven]")
    expect(view).to_have_attribute("data-turn", "0 0")
    view.focus()
    page.keyboard.press("ArrowRight")
    page.keyboard.press("ArrowDown")
    expect(view).to_have_attribute("data-turn", "10 10")
    page.get_by_role("button", name="Edge", exact=True).click()
    expect(view).to_have_attribute("data-turn", "-90 0")
    view.scroll_into_view_if_needed()
    box = view.bounding_box()
    assert box is not None
    page.mouse.move(box["x"] + 60, box["y"] + 60)
    page.mouse.down()
    page.mouse.move(box["x"] + 100, box["y"] + 60)
    page.mouse.up()
    expect(view).to_have_attribute("data-turn", "-90 20")
    page.get_by_role("button", name="Face", exact=True).click()
    expect(page.locator("[data-drawn=rows]")).to_be_visible()
    assert_accessible(page)


@pytest.mark.elsewhere
def test_rows_are_shown_up_to_the_step_at_hand(page: Page) -> None:
    open_piece(page, "Weir-gate ladder", "Form")
    rows = page.get_by_role("slider", name=re.compile("^row"))
    expect(rows).to_have_attribute("aria-valuetext", re.compile("row 3 of"))
    page.get_by_text("ladder: Weave the first row").hover()
    expect(rows).to_have_attribute("aria-valuetext", re.compile("row 2 of"))
    assert_accessible(page)


@pytest.mark.elsewhere
def test_so_much_wire_goes_so_far(page: Page) -> None:
    open_piece(page, "Weir-gate ladder", "Make-up")
    asked = page.get_by_label("So much wire")
    asked.fill("1200")
    told = page.get_by_role("status").filter(has_text="rows,")
    expect(told).to_contain_text("a new one after row")
    asked.fill("40")
    expect(page.get_by_text("is not enough for a single row")).to_be_visible()
    asked.fill("60 m")
    expect(told).to_contain_text("Enough for all")
    board = page.get_by_role("link", name="Board at 1:1")
    answer = page.request.get(board.get_attribute("href") or "")
    assert answer.body().startswith(b"%PDF")


@pytest.mark.elsewhere
def test_a_sample_of_one_piece_is_kept_for_its_wire(page: Page) -> None:
    open_piece(page, "Toll-gate channel", "Make-up")
    expect(page.get_by_text("By this piece's own sample.")).to_be_visible()
    page.get_by_role("button", name="Keep it for this wire").click()
    expect(page.get_by_text("other pieces in this wire go by it")).to_be_visible()


@pytest.mark.elsewhere
def test_a_width_that_does_not_suit_its_beads_is_put_right(page: Page) -> None:
    open_piece(page, "Lock-chamber channel", "Make-up")
    expect(page.get_by_text(re.compile("A row of 16.* doesn't fit"))).to_be_visible()
    page.get_by_role("button", name=re.compile("^channel")).first.click()
    page.get_by_label("beads across").fill("3")
    expect(page.locator("[data-drawn=woven]")).to_be_visible()
    expect(page.get_by_text(re.compile(r"channel: \d+ rows"))).to_be_visible()


@pytest.mark.elsewhere
def test_a_bundle_is_turned_and_has_no_rows_to_count(page: Page) -> None:
    open_piece(page, "Five-strand bundle", "Make-up")
    view = page.locator("[data-drawn=woven]")
    view.focus()
    page.keyboard.press("ArrowDown")
    expect(view).to_have_attribute("data-turn", "10 0")
    expect(page.get_by_label("So much wire")).to_have_count(0)
    expect(page.get_by_role("slider")).to_have_count(1)
    assert_accessible(page)


@pytest.mark.elsewhere
def test_a_strand_that_ends_is_said_to_end(page: Page) -> None:
    open_piece(page, "Towpath braid", "Make-up")
    page.get_by_label("So much wire").fill("150")
    told = page.get_by_role("status").filter(has_text="beads,")
    expect(told).to_contain_text("never joined")


@pytest.mark.elsewhere
def test_cord_stands_on_the_rack_and_is_no_wire_to_choose(page: Page) -> None:
    open_piece(page, "Cord and wound ring", "Make-up")
    page.get_by_role("button", name="Wire", exact=True).click()
    expect(page.get_by_text("leather cord")).to_have_count(0)
    page.goto("/".join([*page.url.split("/")[:3], "reels"]))
    expect(page.get_by_text("waxed cord 1.5 mm")).to_be_visible()
