"""A piece of parts, made up as a maker does it: picked, counted, grouped, tried on and off."""

import io
import re

import pdfplumber
import pytest
from playwright.sync_api import Locator, Page, expect

from tests.browser.dragging import drag, middle, move_by_key, told
from tests.browser.paths import path
from tests.browser.test_slice import answer, open_piece

pytestmark = pytest.mark.browser


def rows(page: Page) -> Locator:
    return page.get_by_role("list", name="Sequence").get_by_role("listitem")


@pytest.mark.elsewhere
def test_a_bracelet_of_parts_by_mouse(page: Page) -> None:
    open_piece(page, "Ferryman's beads", "Make-up")
    expect(answer(page)).to_contain_text("173.5")
    # One more by its button, and the proposal that takes it off again.
    page.get_by_role("button", name="One linked bead more").click()
    expect(answer(page)).not_to_contain_text("173.5")
    longer = (answer(page).text_content() or "").removesuffix("mm")
    fits = page.locator("[data-proposals]").get_by_role("button", name=re.compile("^9 × linked"))
    fits.first.click()
    expect(answer(page)).to_contain_text("173.5")
    expect(fits.first).to_have_attribute("aria-pressed", "true")
    fits.first.click()
    expect(answer(page)).to_contain_text(longer)
    # A part from the shelf goes in; its own choices are asked at once, and refused by name.
    page.get_by_role("button", name="Add a part").click()
    page.get_by_role("button", name="figure-eight link").click()
    expect(rows(page)).to_have_count(2)
    page.get_by_label("loop pin").fill("90")
    expect(page.get_by_text("The loop pin of 90 mm is outside 1 mm to 30 mm").first).to_be_visible()
    # The last drawing keeps its place meanwhile, so that nothing jumps from under a press.
    expect(page.locator("[data-drawn=sequence]")).to_be_visible()
    page.get_by_label("loop pin").fill("5")
    expect(answer(page)).to_contain_text(re.compile(r"\d"))
    expect(answer(page)).not_to_contain_text(longer)
    page.get_by_role("button", name="Remove").click()
    expect(rows(page)).to_have_count(1)
    # Another closure, and the length follows.
    page.get_by_role("button", name="Closure", exact=True).click()
    page.get_by_label("Closure", exact=True).select_option("toggle")
    expect(page.get_by_text("The bar goes through end on")).to_be_visible()
    expect(answer(page)).not_to_contain_text(longer)
    card = page.request.get(
        page.get_by_role("link", name="Card", exact=True).get_attribute("href") or ""
    )
    with pdfplumber.open(io.BytesIO(card.body())) as pdf:
        assert len(pdf.pages) == 1
        text = pdf.pages[0].extract_text()
    assert "linked bead wire" in text
    assert "In it first" in text
    assert "To hand" in text


@pytest.mark.elsewhere
def test_a_sequence_by_keyboard(page: Page) -> None:
    open_piece(page, "Heron's anklet", "Make-up")
    rows(page).filter(has_text="group").first.locator("[aria-pressed]").focus()
    page.keyboard.press("Enter")
    before = answer(page).text_content() or ""
    page.keyboard.press("+")
    expect(answer(page)).not_to_contain_text(before)
    page.keyboard.press("-")
    expect(answer(page)).to_contain_text(before)
    # Down twice to the spacer in the group, doubled and taken away again.
    expect(rows(page)).to_have_count(4)
    page.keyboard.press("ArrowDown")
    page.keyboard.press("ArrowDown")
    page.keyboard.press("d")
    expect(rows(page)).to_have_count(5)
    page.keyboard.press("Delete")
    expect(rows(page)).to_have_count(4)
    # The last entry moves before the group, and undo brings it back.
    rows(page).last.locator("[aria-pressed]").focus()
    page.keyboard.press("Enter")
    page.keyboard.press("Alt+ArrowUp")
    expect(rows(page).first).to_contain_text("bead on the string")
    expect(page.get_by_role("status").first).to_have_text("saved")
    page.get_by_role("button", name="Undo", exact=True).click()
    expect(rows(page).first).to_contain_text("group")


@pytest.mark.elsewhere
def test_a_row_is_lifted_moved_and_put_down_by_the_keys_and_by_the_mouse(page: Page) -> None:
    open_piece(page, "Heron's anklet", "Make-up")
    expect(rows(page).first).to_contain_text("group")
    grips = rows(page).get_by_test_id("grip")
    grips.last.focus()
    page.keyboard.press("Space")
    expect(told(page)).to_have_text(re.compile("lifted, place 2 of 2"))
    # Rows of the group are not in its way: it goes before the group at once.
    move_by_key(page, "ArrowUp", 1)
    page.keyboard.press("Space")
    expect(rows(page).first).to_contain_text("bead on the string")
    expect(page.get_by_role("status").filter(has_text="saved")).to_be_visible()
    drag(page, grips.first, grips.last, 2)
    expect(rows(page).first).to_contain_text("group")


@pytest.mark.elsewhere
def test_a_link_of_ones_own_is_kept_on_the_shelf(page: Page) -> None:
    open_piece(page, "Ferryman's beads", "Make-up")
    page.get_by_role("button", name="Add a part").click()
    page.get_by_role("button", name="link of your own").click()
    page.get_by_label("What you call it").fill("Oxbow")
    page.get_by_role("button", name="Add a move").click()
    page.get_by_role("button", name="Keep it on the shelf").click()
    expect(page.get_by_role("button", name="On the shelf")).to_be_visible()
    page.get_by_role("link", name="Bench", exact=True).click()
    open_piece(page, "Capstan bracelet", "Make-up")
    page.get_by_role("button", name="Add a part").click()
    page.get_by_role("button", name="Oxbow").click()
    expect(rows(page).last).to_contain_text("Oxbow")


@pytest.mark.elsewhere
def test_parts_of_the_drawing_can_be_picked_and_dragged(page: Page) -> None:
    open_piece(page, "Lock-gate necklace", "Make-up")
    drawn = page.locator("[data-drawn=sequence]")
    bead = drawn.locator("g.cursor-pointer").nth(8)
    bead.click(force=True)
    expect(rows(page).locator("[aria-pressed=true]")).to_have_count(1)
    expect(page.get_by_role("region", name="The part picked out")).to_be_visible()
    # Two of a group change places where one is dragged to the other.
    before = rows(page).all_text_contents()
    runs = drawn.locator("g.cursor-pointer")

    def run_of(row: int) -> Locator:
        """The first of what is drawn of a row: pressed, it picks that row out."""
        for n in range(runs.count()):
            runs.nth(n).click(force=True)
            if rows(page).nth(row).locator("[aria-pressed=true]").count():
                return runs.nth(n)
        raise AssertionError(before[row])

    second, first = run_of(3), run_of(2)
    page.mouse.move(*middle(first))
    page.mouse.down()
    page.mouse.move(*middle(second), steps=8)
    # What it would come to lie at is marked, as what is picked is.
    expect(second.locator("rect").first).to_have_attribute("fill", "var(--color-tint)")
    page.mouse.up()
    expect(rows(page)).to_have_text([before[n] for n in (0, 1, 3, 2)])


@pytest.mark.elsewhere
def test_a_newcomer_starts_a_bracelet_that_fits_at_once(page: Page) -> None:
    page.goto(path("/wearers/{Tobin Arkwell}"))
    page.get_by_label("Start a piece").select_option(label="bracelet of parts")
    page.get_by_role("button", name="Start").click()
    expect(page.get_by_role("heading", name=re.compile("bracelet of parts"))).to_be_visible()
    page.get_by_role("link", name=re.compile(r"\bMake-up ")).click()
    fits = page.locator("[data-proposals]").get_by_role("button", pressed=True)
    expect(fits).to_have_text(re.compile("^10 × linked bead(?!,)"))
    expect(page.get_by_role("link", name=re.compile("Make-up settled"))).to_be_visible()
    expect(rows(page).first).to_contain_text("−10+")
    # A wider closure takes a link away by itself; once the count is set it stays.
    page.get_by_role("button", name="Closure", exact=True).click()
    page.get_by_label("Closure", exact=True).select_option("broad_hook")
    expect(rows(page).first).to_contain_text("−9+")
    page.get_by_role("button", name="One linked bead more").click()
    page.get_by_role("button", name="One linked bead more").click()
    expect(rows(page).first).to_contain_text("−11+")
    page.get_by_label("Closure", exact=True).select_option("spring_clasp")
    expect(answer(page)).to_contain_text("189.5")
    expect(rows(page).first).to_contain_text("−11+")


@pytest.mark.elsewhere
def test_a_hook_of_ones_own_is_bent_and_fastens(page: Page) -> None:
    open_piece(page, "Ferryman's beads", "Make-up")
    page.get_by_role("button", name="Closure", exact=True).click()
    page.get_by_label("Closure", exact=True).select_option("own_hook")
    expect(page.get_by_text("Bent move by move")).to_be_visible()
    page.get_by_label("What you call it").fill("heron beak")
    page.get_by_label("tip, across").fill("9")
    expect(page.get_by_role("link", name=re.compile("Make-up something to mend"))).to_be_visible()
    page.get_by_label("tip, across").fill("3")
    page.get_by_role("button", name="Keep it on the shelf").click()
    expect(page.get_by_role("button", name="On the shelf")).to_be_disabled()
    page.get_by_label("Length", exact=True).first.fill("none")
    expect(page.get_by_text("can't be read as a length").first).to_be_visible()
