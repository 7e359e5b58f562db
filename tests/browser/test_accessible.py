"""axe finds nothing on any view, on laptop and tablet, in light and dark; nothing is cut off, and
all there is to press is large enough for a thumb."""

import pytest
from playwright.sync_api import Page, expect

from tests.browser.conftest import assert_accessible
from tests.browser.paths import path
from tests.conftest import PROVE

pytestmark = [pytest.mark.browser, pytest.mark.season]

VIEWS = [
    "/",
    "/wearers/{Tobin Arkwell}",
    "/tools",
    "/pieces/{Ferryman's bangle}/measure",
    "/pieces/{Ferryman's bangle}/make_up",
    "/pieces/{Ferryman's bangle}/cut",
    "/pieces/{Toll bangle}/form",
    "/pieces/{Ring of keys}/fit",
    "/pieces/{Moon bangle}/measure",
    "/pieces/{Towrope bangle}/make_up",
    "/pieces/{Weather bangle}/cut",
    "/wearers/cast",
    "/pieces/{Rowlock cuff}/measure",
    "/pieces/{Sluice chain}/make_up",
    "/pieces/{Reed circlet}/form",
    "/pieces/{Quill ear cuff}/measure",
    "/pieces/{Millrace choker}/make_up",
    "/pieces/{Mooring bracelet}/fit",
    "/pieces/{Weathervane chain}/measure",
    "/pieces/{Sluice bracelet}/make_up",
    "/pieces/{Quill drops}/form",
    "/pieces/{Mourning strand}/cut",
    "/pieces/{Moonlit brow}/make_up",
    "/pieces/{Vane and tassel}/fit",
    "/pieces/{Rowlock cuff}/make_up",
    "/pieces/{Heron's-neck knots}/make_up",
    "/pieces/{Weir-gate ladder}/form",
    "/reels",
    "/cutting",
    "/hand",
    "/log",
    "/day",
    "/archive",
    "/pieces/{Toll bangle}/bench",
    "/pieces/{Sluice bracelet}/bench",
    "/pieces/{Landing-stage bangle}/bench",
]


@pytest.fixture
def door(page: Page) -> Page:
    page.get_by_role("button", name="Leave").click()
    expect(page.get_by_role("button", name="Open the demo bench")).to_be_visible()
    return page


def test_the_door(door: Page) -> None:
    assert_accessible(door)
    door.get_by_role("button", name="I have none yet").click()
    door.get_by_label("What the bench is called").fill("Osier Bench")
    door.get_by_label("Name", exact=True).fill("osier")
    door.get_by_label("Password").fill("123")
    door.get_by_role("button", name="Make the bench").click()
    expect(door.get_by_text("This password is too short")).to_be_visible()
    assert_accessible(door)
    door.get_by_label("Password").fill("green-sticks-11")
    door.get_by_role("button", name="Make the bench").click()
    expect(door.get_by_role("heading", name="Osier Bench")).to_be_visible()
    expect(door.get_by_text("Nothing on the bench yet")).to_be_visible()


@pytest.mark.parametrize(
    ("size", "theme", "turn"),
    [((1280, 800), "Light", 0), ((820, 1180), "Dark", 1)],
    ids=["laptop", "tablet"],
)
def test_every_view_in_both_themes(
    page: Page, size: tuple[int, int], theme: str, turn: int
) -> None:
    """Every view in every theme and at every size, each once: colours go by the theme alone, what
    is cut off or small by the size. `make test` looks at each in one of the two, by turns."""
    page.set_viewport_size({"width": size[0], "height": size[1]})
    if theme == "Dark":
        before = ground(page)
        page.get_by_role("button", name="Dark", exact=True).click()
        assert ground(page) != before
    for view in VIEWS if PROVE else VIEWS[turn::2]:
        page.goto(path(view))
        page.locator("h1").wait_for()
        page.wait_for_load_state("networkidle")
        assert_accessible(page)
        wide = page.evaluate("document.documentElement.scrollWidth - innerWidth")
        assert wide <= 0, f"{view} runs {wide} px off the {size[0]} px screen"
        assert too_small(page) == [], view


def ground(page: Page) -> str:
    """Return the colour that the page lies on."""
    found: str = page.evaluate("getComputedStyle(document.documentElement).backgroundColor")
    return found


def too_small(page: Page) -> list[str]:
    """Return what there is to press that is too small for a thumb, with its height."""
    small: list[str] = page.evaluate(
        """() => [...document.querySelectorAll("button, a, select, input")]
          // Labels on the Rule repeat what the ledger's rows, which are large, do.
          .filter(e => !e.closest("[data-rule]"))
          // A box is pressed by its label.
          .map(e => e.type === "checkbox" ? e.closest("label") ?? e : e)
          .map(e => [e.textContent.slice(0, 30), e.getBoundingClientRect()])
          .filter(([, box]) => box.width > 1 && Math.max(box.height, 0) < 43.5)
          .map(([text, box]) => `${text} ${Math.round(box.height)}`)"""
    )
    return small
