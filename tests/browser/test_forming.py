"""Form as a maker uses it: the wire after every step, tabs beside it, a trial, tools."""

import re
from typing import Any

import pytest
from playwright.sync_api import Page, expect

from tests.browser.test_slice import open_piece


@pytest.mark.elsewhere
def test_the_wire_is_played_step_by_step_with_the_arrow_keys(page: Page) -> None:
    open_piece(page, "Millrace choker", "Form")
    slider: Any = page.get_by_role("slider").first
    expect(slider).to_have_attribute("aria-valuetext", "as cut")
    page.keyboard.press("ArrowRight")
    expect(slider).to_have_attribute("aria-valuetext", re.compile("Curl the tip"))
    page.keyboard.press("ArrowRight")
    expect(page.get_by_role("status").filter(has_text="Bend the hook")).to_be_visible()
    # What is bent is enlarged above the whole wire.
    expect(page.locator("[data-drawn=stage]")).to_have_count(2)
    page.keyboard.press("ArrowLeft")
    page.keyboard.press("ArrowLeft")
    page.keyboard.press("ArrowLeft")
    expect(slider).to_have_attribute("aria-valuetext", "as cut")


@pytest.mark.elsewhere
def test_a_step_shows_its_own_wire(page: Page) -> None:
    open_piece(page, "Millrace choker", "Form")
    page.get_by_text(re.compile("^Eye on the")).hover()
    expect(page.get_by_role("slider").first).to_have_attribute("aria-valuetext", re.compile("Eye"))
    expect(page.get_by_text(re.compile("quarter-hard, .* of what it bears"))).to_be_visible()


@pytest.mark.elsewhere
def test_the_oval_comes_to_print_and_to_cut(page: Page) -> None:
    open_piece(page, "Rowlock cuff", "Form")
    page.get_by_role("tab", name="Oval").click()
    expect(page.get_by_text("On your round tools it comes within")).to_be_visible()
    for name, start in (("Print it at full size", b"%PDF"), ("SVG", b"<?xml"), ("DXF", b"  0")):
        link = page.get_by_role("link", name=name, exact=True)
        answer = page.request.get(link.get_attribute("href") or "")
        assert answer.body().startswith(start)
    page.get_by_role("tab", name="Feel").click()
    expect(page.get_by_text("pressed with 5 N")).to_be_visible()


@pytest.mark.elsewhere
def test_what_it_came_off_at_is_noted_where_it_is_formed(page: Page) -> None:
    open_piece(page, "Rowlock cuff", "Form")
    page.get_by_role("tab", name="Formers").click()
    page.get_by_label("Came off at").fill("20")
    page.get_by_role("button", name="Note", exact=True).click()
    expect(page.get_by_text("Wire springs open when it comes off")).to_be_visible()
    page.get_by_label("Came off at").fill("52.4")
    page.get_by_role("button", name="Note", exact=True).click()
    expect(page.get_by_text(re.compile(r"Gives at \d+ MPa"))).to_be_visible()
    page.get_by_role("button", name="Take it back").click()
    expect(page.get_by_text("Wind a turn on a former")).to_be_visible()


@pytest.mark.elsewhere
def test_a_bench_without_a_torch_is_told_to_buy_softer(page: Page) -> None:
    open_piece(page, "Millrace choker", "Form")
    expect(page.get_by_text("Make it soft: ring wire")).to_be_visible()
    page.get_by_role("link", name="Tools").click()
    page.get_by_role("checkbox", name="torch").click()
    page.get_by_role("button", name="Save").click()
    expect(page.get_by_role("status")).to_have_text("saved")
    page.get_by_role("link", name="Bench", exact=True).click()
    open_piece(page, "Millrace choker", "Form")
    expect(page.get_by_role("heading", name="Curl the tip on 2.0 mm")).to_be_visible()
    expect(page.get_by_text("Make it soft: ring wire")).to_have_count(0)
