"""Nothing typed is lost when the session ends, the disk is full, or a piece holds rubbish."""

import json
import re
from typing import Any

import pytest
from django.contrib.sessions.models import Session
from playwright.sync_api import Page, Route, expect

from jamreel.workshop.models import Piece, Revision
from tests.browser.conftest import assert_accessible

pytestmark = [pytest.mark.browser, pytest.mark.django_db(transaction=True)]
USER = {"user": "Osier", "password": "osier-and-brass-8", "workshop": "Osier Bench"}


def own_bench(page: Page) -> None:
    """Leave the demo, and make a bench of one's own at the door."""
    page.get_by_role("button", name="Leave").click()
    page.get_by_role("button", name="I have none yet").click()
    page.get_by_label("What the bench is called").fill(USER["workshop"])
    page.get_by_label("Name", exact=True).fill(USER["user"])
    page.get_by_label("Password").fill(USER["password"])
    page.get_by_role("button", name="Make the bench").click()
    expect(page.get_by_role("heading", name="Osier Bench")).to_be_visible()


def start(page: Page) -> None:
    """Keep a piece from the quick way."""
    page.get_by_label("Wrist girth").fill("158")
    page.get_by_label("Hand pass girth").fill("205")
    page.get_by_role("button", name=re.compile("Keep")).first.click()
    expect(page.get_by_role("button", name="Undo")).to_be_visible()


def test_signed_out_elsewhere_one_signs_in_again_over_the_work(page: Page) -> None:
    own_bench(page)
    start(page)
    page.goto(f"/pieces/{Piece.objects.latest('pk').pk}/measure")
    expect(page.get_by_text("saved", exact=True)).to_be_visible()
    Session.objects.all().delete()
    wrist = page.get_by_label("Wrist girth, reading 1")
    wrist.fill("161.5")
    dialog = page.get_by_role("dialog")
    expect(dialog.get_by_text("You are signed out")).to_be_visible()
    assert_accessible(page)
    dialog.get_by_label("Password").fill("a guess")
    dialog.get_by_role("button", name="Sign in").click()
    expect(dialog.get_by_text("don't go together")).to_be_visible()
    dialog.get_by_label("Password").fill(USER["password"])
    dialog.get_by_role("button", name="Sign in").click()
    expect(dialog).to_be_hidden()
    expect(page.get_by_text("saved", exact=True)).to_be_visible()
    expect(wrist).to_have_value("161.5")
    kept = Piece.objects.latest("pk").head
    assert kept is not None
    assert kept.brief["measures"]["wrist_girth"]["readings"][0]["value"] == "161.5"


@pytest.mark.elsewhere
def test_a_save_that_is_turned_away_says_why_and_keeps_what_is_typed(page: Page) -> None:
    piece = Piece.objects.get(name="Ferryman's bangle")
    page.goto(f"/pieces/{piece.pk}/measure")
    says = "The disk of the bench is full: nothing can be saved until there is room."

    def full(route: Route) -> None:
        body = {"type": "x", "title": "The disk is full", "status": 422, "detail": says}
        route.fulfill(status=422, content_type="application/problem+json", body=json.dumps(body))

    page.route("**/brief", full)
    wrist = page.get_by_label("Wrist girth, reading 1")
    wrist.fill("163")
    expect(page.get_by_role("alert").get_by_text("Not saved. " + says)).to_be_visible()
    expect(wrist).to_have_value("163")
    page.unroute("**/brief")
    page.reload()
    expect(page.get_by_label("Wrist girth, reading 1")).to_have_value("163")
    expect(page.get_by_text("saved", exact=True)).to_be_visible()


@pytest.mark.elsewhere
@pytest.mark.parametrize("way", ["Leave it out and go on", "Back to the version before"])
def test_a_piece_that_holds_rubbish_opens_and_is_mended_or_put_back(page: Page, way: str) -> None:
    piece = Piece.objects.get(name="Ferryman's bangle")
    assert piece.head is not None
    brief: dict[str, Any] = {**piece.head.brief, "cutting": ["no", "object"], "note": "\ud800"}
    bad = Revision.objects.create(
        workshop=piece.workshop, piece=piece, parent=piece.head, brief=brief,
        saved_at=piece.head.saved_at,
    )  # fmt: skip
    Piece.objects.filter(pk=piece.pk).update(head=bad, version=piece.version + 1)
    page.goto(f"/pieces/{piece.pk}/make_up")
    told = page.get_by_role("alert")
    expect(told.get_by_text("Part of this piece can't be read")).to_be_visible()
    expect(told.get_by_text(re.compile("half a character"))).to_be_visible()
    expect(told.get_by_text(re.compile("An object is wanted"))).to_be_visible()
    assert_accessible(page)
    told.get_by_role("button", name=way).click()
    expect(told).to_be_hidden()
    expect(page.get_by_role("link", name="Bench strip").first).to_be_visible()
    now = Piece.objects.get(pk=piece.pk).head
    assert now is not None
    assert "note" not in now.brief
    assert (now.pk == piece.head.pk) is (way.startswith("Back"))


def test_an_account_is_looked_after_and_left(page: Page) -> None:
    own_bench(page)
    page.get_by_role("link", name="Account").click()
    expect(page.get_by_text("signed in as osier")).to_be_visible()
    assert_accessible(page)
    form = page.locator("form").filter(has_text="New password")
    form.get_by_label("Password as it is").fill(USER["password"])
    form.get_by_label("New password").fill("osier")
    form.get_by_role("button", name="Change the password").click()
    expect(form.get_by_text(re.compile("too short|too similar"))).to_be_visible()
    form.get_by_label("New password").fill("sedge-and-silver-9")
    form.get_by_role("button", name="Change the password").click()
    expect(page.get_by_text("The password is changed.")).to_be_visible()
    page.get_by_role("button", name="Delete my account").click()
    last = page.locator("form").filter(has_text="Delete it all")
    last.get_by_label("Password as it is").fill("sedge-and-silver-9")
    last.get_by_role("button", name="Delete it all").click()
    expect(page.get_by_role("button", name="Open the demo bench")).to_be_visible()


@pytest.mark.elsewhere
def test_what_two_tabs_type_on_one_piece_is_kept_apart(page: Page) -> None:
    piece = Piece.objects.get(name="Ferryman's bangle")
    page.goto(f"/pieces/{piece.pk}/measure")
    other = page.context.new_page()
    other.goto(f"/pieces/{piece.pk}/measure")
    for tab in (page, other):
        expect(tab.get_by_text("saved", exact=True)).to_be_visible()
    page.context.set_offline(True)
    page.get_by_label("Wrist girth, reading 1").fill("160")
    other.get_by_label("Wrist girth, reading 1").fill("170")
    for tab in (page, other):
        expect(tab.get_by_text("not saved yet, trying again")).to_be_visible()
    kept = page.evaluate(
        "Object.keys(localStorage).filter((key) => key.startsWith('jamreel.unsaved.'))"
    )
    assert len(kept) == 2
    other.close()
    page.context.set_offline(False)
    expect(page.get_by_text("saved", exact=True)).to_be_visible()
    expect(page.get_by_label("Wrist girth, reading 1")).to_have_value("160")
    page.get_by_role("button", name="Leave").click()
    expect(page.get_by_role("button", name="Open the demo bench")).to_be_visible()
    left = page.evaluate("Object.keys(localStorage).filter((key) => key.includes('unsaved'))")
    assert left == []
