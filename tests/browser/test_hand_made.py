"""Lists of beads, how a piece is made, and a coil's drops, as a maker enters them."""

import re

import pytest
from playwright.sync_api import Page, expect

from tests.browser.test_slice import answer, open_piece

pytestmark = pytest.mark.browser


@pytest.mark.elsewhere
def test_one_bead_becomes_a_list_and_the_length_follows(page: Page) -> None:
    open_piece(page, "Ferryman's beads", "Make-up")
    before = answer(page).text_content() or ""
    page.get_by_role("list", name="Sequence").locator("[aria-pressed]").first.click()
    inspector = page.get_by_role("region", name="The part picked out")
    inspector.get_by_role("button", name="Make it a list of beads").click()
    listed = inspector.get_by_role("region", name="Beads, in order")
    expect(listed.get_by_role("listitem")).to_have_count(1)
    # The same bead, now in a list: nothing moves.
    expect(answer(page)).to_have_text(before)
    listed.get_by_role("button", name="Add a bead").click()
    listed.get_by_label("size").nth(1).fill("3")
    expect(answer(page)).not_to_have_text(before)
    listed.get_by_label("hole").nth(1).fill("wide")
    expect(listed.get_by_label("hole").nth(1)).to_have_attribute("aria-invalid", "true")
    listed.get_by_role("button", name="Take bead 2 away").click()
    expect(answer(page)).to_have_text(before)


@pytest.mark.elsewhere
def test_only_what_matters_is_asked(page: Page) -> None:
    open_piece(page, "Towpath pearls", "Make-up")
    page.get_by_role("button", name="Closure", exact=True).click()
    expect(page.get_by_label("eye pin")).to_have_count(0)
    page.get_by_label("goes into").select_option("split_ring")
    expect(page.get_by_label("that ring, inside")).to_be_visible()
    page.get_by_label("goes into").select_option("own")
    expect(page.get_by_label("eye pin")).to_be_visible()
    expect(page.get_by_label("that ring, inside")).to_have_count(0)


@pytest.mark.elsewhere
def test_a_cuff_is_shaped_by_hand_on_a_printed_outline(page: Page) -> None:
    open_piece(page, "Rowlock cuff", "Form")
    page.get_by_text("How it is made").click()
    page.get_by_label("Shaped", exact=True).select_option("hands")
    expect(page.get_by_text("Bend to the outline by hand")).to_be_visible()
    link = page.get_by_role("link", name="Print the outline at full size")
    body = page.request.get(link.get_attribute("href") or "").body()
    assert body.startswith(b"%PDF")
    page.get_by_role("button", name="tumbled").click()
    expect(page.get_by_text("With steel shot, water and a drop of soap")).to_be_visible()


@pytest.mark.elsewhere
def test_what_hangs_in_a_coil_is_chosen_and_taken_away(page: Page) -> None:
    open_piece(page, "Toll-bell coil", "Make-up")
    expect(page.get_by_text("turns are cut and worn as")).to_be_visible()
    page.get_by_label("Hung in both end loops").select_option("tassel")
    expect(page.get_by_role("region", name="The head's beads")).to_be_visible()
    page.get_by_label("Hung in both end loops").select_option("")
    expect(page.get_by_role("region", name="The head's beads")).to_have_count(0)
    expect(page.get_by_role("status").first).to_have_text(re.compile("saved"))
