"""What a slip of the hand does not take away: a piece, a plan, a length of wire, a reading."""

import re

import pytest
from playwright.sync_api import Page, expect

from tests.browser.conftest import assert_accessible
from tests.browser.paths import path


def test_a_piece_that_is_put_away_comes_back_on_the_spot_or_from_the_archive(page: Page) -> None:
    page.get_by_role("link", name=re.compile("Ring of keys")).first.click()
    page.get_by_role("button", name="Change").first.click()
    page.get_by_role("button", name="Put the piece away").click()
    expect(page.get_by_text("Ring of keys is in the archive now.")).to_be_visible()
    page.get_by_role("status").get_by_role("button", name="Undo").click()
    expect(page.get_by_role("link", name=re.compile("Ring of keys")).first).to_be_visible()
    page.get_by_role("link", name=re.compile("Ring of keys")).first.click()
    page.get_by_role("button", name="Change").first.click()
    page.get_by_role("button", name="Put the piece away").click()
    expect(page.get_by_text("Ring of keys is in the archive now.")).to_be_visible()
    page.get_by_role("link", name="Archive").click()
    expect(page.get_by_text("Ring of keys", exact=True)).to_be_visible()
    assert_accessible(page)
    page.get_by_role("button", name="Delete for good").click()
    expect(page.get_by_text(re.compile("With it go: saved changes"))).to_be_visible()
    page.get_by_role("button", name="Keep it").click()
    page.get_by_role("button", name="Bring it back").click()
    expect(page.get_by_text("Nothing was put away.")).to_be_visible()


@pytest.mark.elsewhere
def test_a_slip_at_the_try_on_is_said_at_its_field_and_takes_no_plan_away(page: Page) -> None:
    page.goto(path("/pieces/{Ferryman's bangle}/fit"))
    field = page.get_by_label("Inside girth by tape, fully open")
    field.fill("20.5")
    page.get_by_role("button", name="Record this try-on").click()
    expect(page.get_by_text(re.compile("20.5 mm")).first).to_be_visible()
    expect(page.get_by_text("changed in another tab")).to_have_count(0)
    # The plan stands, there and at the other stations.
    expect(page.get_by_role("link", name="At the bench")).to_be_visible()
    page.reload()
    expect(field).to_have_value("20.5")
    field.fill("205")
    page.get_by_role("button", name="Record this try-on").click()
    expect(field).to_have_value("")
    expect(page.get_by_text(re.compile("Tried on")).first).to_be_visible()


@pytest.mark.elsewhere
def test_a_slip_at_the_cut_is_asked_about_and_a_cut_undone_on_the_board(page: Page) -> None:
    page.goto(path("/pieces/{Ferryman's bangle}/cut"))
    board = page.locator("[data-drawn=board]")
    board.locator("button[aria-pressed]").first.click()
    board.get_by_label("Length as cut").fill("2460")
    board.get_by_role("button", name="It is cut").click()
    expect(board.get_by_text("Was 246.0 mm meant?")).to_be_visible()
    board.get_by_label("Length as cut").fill("246")
    board.get_by_role("button", name="It is cut").click()
    expect(page.get_by_text("Cut: bangle wire.")).to_be_visible()
    page.get_by_role("status").get_by_role("button", name="Undo").click()
    expect(board.locator("button[aria-pressed]").first).to_be_visible()


@pytest.mark.elsewhere
def test_nothing_from_before_can_be_ticked_or_printed(page: Page) -> None:
    page.goto(path("/pieces/{Ferryman's bangle}/measure"))
    page.get_by_label("Wrist girth, reading 1").fill("15.8.3")
    expect(page.get_by_text("Nothing of it can be cut, ticked or printed")).to_be_visible()
    expect(page.get_by_role("link", name="Bench strip")).to_have_count(0)
    page.goto(path("/pieces/{Ferryman's bangle}/form"))
    expect(page.get_by_role("checkbox").first).to_be_disabled()
    assert_accessible(page)
    page.goto(path("/pieces/{Ferryman's bangle}/measure"))
    page.get_by_label("Wrist girth, reading 1").fill("158")
    expect(page.get_by_text("Nothing of it can be cut")).to_have_count(0)
    page.goto(path("/pieces/{Ferryman's bangle}/form"))
    expect(page.get_by_role("checkbox").first).to_be_enabled()


@pytest.mark.elsewhere
def test_a_reading_by_strap_stays_one_on_the_wearer_s_page_and_with_the_whole_cast(
    page: Page,
) -> None:
    page.goto("/wearers")
    page.get_by_role("link", name=re.compile("Tobin Arkwell")).click()
    page.get_by_label("How the Wrist girth was taken").select_option("strap")
    page.get_by_label("Its thickness").fill("2")
    page.get_by_label("How held").fill("arm hanging")
    for n, value in enumerate(("170", "171", "170.5"), 1):
        page.get_by_label(f"Wrist girth, reading {n}").fill(value)
    page.get_by_role("button", name="Keep", exact=True).click()
    expect(page.get_by_role("link", name=re.compile("Tobin Arkwell"))).to_be_visible()
    expect(page.get_by_text("157.9").first).to_be_visible()
    page.get_by_role("link", name="Enter a whole cast").click()
    cell = page.get_by_label("Tobin Arkwell, Wrist girth")
    expect(cell).to_have_value("170 / 171 / 170.5")
    cell.fill("170 / 171.5 / 170.5")
    page.get_by_role("button", name="Keep all").click()
    expect(page.get_by_text("3 readings kept")).to_be_visible()
    page.get_by_role("link", name="Wearers").click()
    # Still read along the strap's outside: 170.67 less twice pi times its thickness.
    expect(page.get_by_text("158.1").first).to_be_visible()
