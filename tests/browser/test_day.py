"""The day plan in the browser: pieces chosen, dragged by mouse and by finger, hours put wrong."""

import re

import pytest
from playwright.sync_api import Locator, Page, expect

from jamreel.workshop.models import DayPlan
from tests.browser.dragging import drag, drag_by_finger

pytestmark = pytest.mark.browser


def lanes(page: Page) -> Locator:
    """The names of the pieces on the strip, from the top."""
    return page.get_by_test_id("strip").get_by_role("link")


def chosen(page: Page, *names: str) -> None:
    """Open the day and choose pieces for it, one after the other."""
    page.goto("/day")
    beside = page.get_by_role("complementary", name="What is chosen for the day")
    for n, name in enumerate(names, 1):
        beside.get_by_role("button", name=name).click()
        expect(lanes(page)).to_have_count(n)
    expect(page.get_by_text("all done,")).to_be_visible()


def test_a_lane_is_dragged_first_by_the_mouse(page: Page) -> None:
    chosen(page, "Ferryman's bangle", "Quill ear cuff", "Mooring bracelet")
    grips = page.get_by_test_id("grip")
    drag(page, grips.nth(2), grips.nth(0), 1)
    expect(lanes(page).first).to_contain_text("Mooring bracelet")
    kept = DayPlan.objects.latest("pk")
    assert kept.chosen["first"] == kept.chosen["pieces"][0] == kept.found["placed"][0]["job"]


def test_a_lane_is_dragged_by_a_finger_and_the_page_stays_where_it_is(page: Page) -> None:
    chosen(page, "Ferryman's bangle", "Quill ear cuff")
    grips = page.get_by_test_id("grip")
    drag_by_finger(page, grips.nth(0), grips.nth(1), 2)
    expect(lanes(page).first).to_contain_text("Quill ear cuff")
    assert page.evaluate("scrollY") == 0


def test_hours_that_are_none_are_told_and_stay_as_they_were_typed(page: Page) -> None:
    chosen(page, "Quill ear cuff")
    until = page.get_by_label("Stretch 1 to")
    until.fill("half past")
    until.press("Tab")
    expect(page.get_by_text(re.compile("half past"))).to_be_visible()
    expect(until).to_have_value("half past")
    until.fill("12:00")
    with page.expect_response(re.compile("/api/day")):
        until.press("Tab")
    expect(page.get_by_text(re.compile("half past"))).to_have_count(0)
    assert DayPlan.objects.latest("pk").chosen["hours"][0] == ["09:00", "12:00"]


def test_what_is_late_whatever_comes_first_says_so(page: Page) -> None:
    chosen(page, "Reed circlet")
    page.get_by_label("Day", exact=True).fill("2027-03-01")
    page.get_by_role("button", name="Reed circlet").click()
    expect(page.get_by_text("would be late if it were the only one")).to_be_visible()
    expect(page.get_by_text("leave out")).to_have_count(0)
