"""From an empty bench to the log through bench mode, by the keyboard alone, on a set clock."""

import re
from collections.abc import Callable
from datetime import UTC, datetime, timedelta
from typing import Any

import pytest
from django.contrib.auth.models import User
from playwright.sync_api import APIResponse, Locator, Page, Route, expect

from jamreel.workshop import at_bench, clock
from jamreel.workshop.models import LogEntry, Piece, Revision, StepClock, Workshop
from tests.browser.paths import path

pytestmark = pytest.mark.browser
BEGIN = datetime(2026, 11, 24, 9, 0, tzinfo=UTC)


@pytest.fixture
def set_clock(monkeypatch: pytest.MonkeyPatch) -> Callable[[float], None]:
    """Have the server's clock run from so many minutes after nine."""
    ahead = {"by": BEGIN - datetime.now(UTC)}
    monkeypatch.setattr(clock, "now", lambda: datetime.now(UTC) + ahead["by"])

    def set_to(minutes: float) -> None:
        ahead["by"] = BEGIN + timedelta(minutes=minutes) - datetime.now(UTC)

    return set_to


@pytest.fixture
def empty(page: Page, live_server: Any) -> Page:
    """A page at a bench on which there is nothing yet."""
    press(page, "button", "Leave")
    press(page, "button", "I have none yet")
    for label, text in (
        ("What the bench is called", "Osier Bench"),
        ("Name", "osier"),
        ("Password", "green-sticks-11"),
    ):
        typed(page, label, text)
    press(page, "button", "Make the bench")
    expect(page.get_by_role("heading", name="Osier Bench")).to_be_visible()
    return page


def walk_to(page: Page, wanted: Locator) -> None:
    """Go from one field, button and link to the next until it is the wanted one."""
    expect(wanted).to_be_enabled()
    for _ in range(120):
        if wanted.evaluate("it => it === document.activeElement"):
            return
        page.keyboard.press("Tab")
    raise AssertionError(f"the Tab key does not come to {wanted}")


def typed(page: Page, label: str, text: str) -> None:
    """Go to a field and type, with no mouse."""
    walk_to(page, page.get_by_label(label, exact=True).first)
    page.keyboard.press("Control+a")
    page.keyboard.type(text)


def press(page: Page, role: Any, name: str) -> None:
    """Go to a button or a link and press it, with no mouse."""
    walk_to(page, page.get_by_role(role, name=name).first)
    page.keyboard.press("Enter")


def at_step(page: Page) -> Locator:
    return page.get_by_test_id("step")


def bench_of(name: str) -> Workshop:
    return Workshop.objects.get(members=User.objects.get(username=name))


def begun(page: Page) -> Piece:
    """Start a piece straight from its measures, and open it at the bench."""
    typed(page, "Wrist girth", "158")
    typed(page, "Hand pass girth", "205")
    press(page, "button", "Keep it as a piece")
    page.wait_for_url(re.compile(r"/pieces/\d+/"))
    piece = Piece.objects.latest("pk")
    # A torch makes hard wire soft on the way, and the pickle is a wait.
    kept = Revision.objects.filter(piece=piece).latest("pk")
    kept.brief = {**kept.brief, "wire": {**kept.brief["wire"], "temper": "full_hard"}}
    Revision.objects.filter(pk=kept.pk).update(brief=kept.brief)
    shop = {"outfit": {"torch": True, "pickle": True}}
    Workshop.objects.filter(pk=piece.workshop_id).update(shop=shop, shop_version=2)
    page.reload()
    press(page, "link", "At the bench")
    expect(page.get_by_text(re.compile(r"Step 1 of \d+"))).to_be_visible()
    return piece


def test_a_piece_from_an_empty_bench_to_the_log_by_keyboard(
    empty: Page, set_clock: Callable[[float], None]
) -> None:
    page = empty
    set_clock(0)
    piece = begun(page)
    bench = bench_of("osier")
    steps = at_bench.at_bench(bench, piece.pk).steps
    waiting = next(one.step for one in steps if one.step.waits)
    expect(at_step(page)).to_have_text(steps[0].step.title)
    # Page Up at the first step stays; a pedal's Space and Page Down go on.
    page.keyboard.press("PageUp")
    expect(at_step(page)).to_have_text(steps[0].step.title)
    page.keyboard.press("Space")
    expect(at_step(page)).to_have_text(steps[1].step.title)
    # The one wire is cut, then the cutting is done.
    assert "cut" in steps[1].step.asks
    page.keyboard.press("PageDown")
    expect(page.get_by_role("button", name="Done, go on")).to_be_enabled()
    page.keyboard.press("PageDown")
    expect(at_step(page)).to_have_text(steps[2].step.title)
    at = 2
    while steps[at].step.id != waiting.id:
        page.keyboard.press("Space")
        at += 1
        expect(at_step(page)).to_have_text(steps[at].step.title)
    page.keyboard.press("Space")
    # It is left alone: a press does not hurry it.
    timer = page.get_by_role("timer")
    expect(timer).to_have_text(re.compile(r"^(10:00|9:5\d)$"))
    page.keyboard.press("Space")
    expect(timer).to_be_visible()
    # In the middle of the wait the page is loaded anew: the server's clock has run on.
    set_clock(6)
    page.reload()
    expect(page.get_by_role("timer")).to_have_text(re.compile(r"^[34]:\d\d$"))
    # Another tab goes on with the step first.
    set_clock(20)
    other = page.context.new_page()
    other.goto(page.url)
    expect(other.get_by_text("Time is up", exact=True)).to_be_visible()
    other.keyboard.press("Space")
    following = steps[at + 1].step.title
    expect(at_step(other)).to_have_text(following)
    # This one sees it before long, and stands at the same step.
    expect(at_step(page)).to_have_text(following)
    # A tab that is not looked at asks for nothing meanwhile.
    page.evaluate(
        """() => {
          Object.defineProperty(document, "visibilityState", { value: "hidden" });
          document.dispatchEvent(new Event("visibilitychange"));
        }"""
    )
    other.keyboard.press("Space")
    after = steps[at + 2].step.title
    expect(at_step(other)).to_have_text(after)
    other.close()
    # Pressed before it has seen that: it is told, and shows where the piece stands.
    page.keyboard.press("Space")
    expect(page.get_by_text("ticked off in another tab")).to_be_visible()
    expect(at_step(page)).to_have_text(after)
    _to_the_end(page, bench, piece)
    press(page, "link", "See the log")
    expect(page.get_by_role("heading", name="Log")).to_be_visible()
    entry = LogEntry.objects.get(workshop=bench)
    assert entry.inside_made_mm == 172
    assert entry.minutes is not None
    expect(page.get_by_role("heading", name=entry.name)).to_be_visible()
    expect(page.get_by_text("172.0").first).to_be_visible()


def _to_the_end(page: Page, bench: Workshop, piece: Piece) -> None:
    """Press on to the last step, telling the girth where it is asked, and into the log."""
    for _ in range(40):
        found = at_bench.at_bench(bench, piece.pk)
        if all(one.done for one in found.steps):
            break
        step = next(one for one in found.steps if one.step.id == found.at)
        expect(at_step(page)).to_have_text(step.step.title)
        if any(asked.id == "inside" for asked in step.asks):
            typed(page, "Inside girth", "400")
            page.keyboard.press("Enter")
            expect(page.get_by_text("is far from")).to_be_visible()
            typed(page, "Inside girth", "172")
            page.keyboard.press("Enter")
            expect(page.get_by_text("kept", exact=True)).to_be_visible()
        # Page Down goes on from within a field, too.
        page.keyboard.press("PageDown")
        expect(at_step(page)).not_to_have_text(step.step.title)
    expect(at_step(page)).to_have_text("All steps are done")
    page.keyboard.press("Space")
    expect(at_step(page)).to_have_text("It is in the log")


def counted(page: Page, piece: Piece, key: str, times: int) -> None:
    """Wait until the server has counted as much as the screen shows."""
    for _ in range(100):
        if StepClock.objects.filter(piece=piece, key=key, counted=times).exists():
            return
        page.wait_for_timeout(100)
    raise AssertionError(f"{times} were never counted")


@pytest.mark.elsewhere
def test_repeats_are_counted_by_presses_and_taken_back(page: Page) -> None:
    bench = Workshop.objects.get(name="Heron Barge")
    piece = Piece.objects.get(workshop=bench, name="Threaded bangle")
    steps = at_bench.at_bench(bench, piece.pk).steps
    many = next(one.step for one in steps if one.step.times > 2 and "cut" not in one.step.asks)
    at_bench.go_to(bench, piece.pk, many.id)
    page.goto(f"/pieces/{piece.pk}/bench")
    expect(at_step(page)).to_have_text(many.title)
    expect(page.get_by_text(f"1 of {many.times}", exact=True)).to_be_visible()
    page.keyboard.press("Space")
    expect(page.get_by_text(f"2 of {many.times}", exact=True)).to_be_visible()
    # A tap on the drawing goes on as well.
    page.get_by_test_id("drawing").click()
    expect(page.get_by_text(f"3 of {many.times}", exact=True)).to_be_visible()
    # Only then is one the count after the one that is taken back.
    counted(page, piece, many.id, 2)
    page.keyboard.press("PageUp")
    expect(page.get_by_text(f"2 of {many.times}", exact=True)).to_be_visible()
    counted(page, piece, many.id, 1)
    page.reload()
    expect(page.get_by_text(f"2 of {many.times}", exact=True)).to_be_visible()
    page.get_by_role("button", name="All of them are done").click()
    expect(at_step(page)).not_to_have_text(many.title)


@pytest.mark.elsewhere
def test_every_press_counts_however_quick_they_come(page: Page) -> None:
    bench = Workshop.objects.get(name="Heron Barge")
    piece = Piece.objects.get(workshop=bench, name="Threaded bangle")
    steps = at_bench.at_bench(bench, piece.pk).steps
    many = next(one.step for one in steps if one.step.times > 5 and "cut" not in one.step.asks)
    at_bench.go_to(bench, piece.pk, many.id)
    page.goto(f"/pieces/{piece.pk}/bench")
    expect(page.get_by_text(f"1 of {many.times}", exact=True)).to_be_visible()
    # Nothing is waited for between them.
    for _ in range(5):
        page.keyboard.press("Space")
    expect(page.get_by_text(f"6 of {many.times}", exact=True)).to_be_visible()
    counted(page, piece, many.id, 5)
    page.reload()
    expect(page.get_by_text(f"6 of {many.times}", exact=True)).to_be_visible()


def test_an_answer_that_is_older_than_the_presses_takes_none_of_them_back(page: Page) -> None:
    bench = Workshop.objects.get(name="Heron Barge")
    piece = Piece.objects.get(workshop=bench, name="Threaded bangle")
    steps = at_bench.at_bench(bench, piece.pk).steps
    many = next(one.step for one in steps if one.step.times > 5 and "cut" not in one.step.asks)
    at_bench.go_to(bench, piece.pk, many.id)
    begun: list[tuple[Route, APIResponse]] = []
    counts: list[Route] = []
    page.route("**/bench/go", lambda route: begun.append((route, route.fetch())))
    page.route("**/bench/count", lambda route: counts.append(route))
    page.goto(f"/pieces/{piece.pk}/bench")
    for _ in range(3):
        expect(page.get_by_role("button", name="One more, go on")).to_be_enabled()
        page.keyboard.press("Space")
    expect(page.get_by_text(f"4 of {many.times}", exact=True)).to_be_visible()
    # The clock's answer, made before any of them was counted, comes while they are on their way.
    for route, answer in begun:
        route.fulfill(response=answer)
    page.wait_for_timeout(300)
    expect(page.get_by_text(f"4 of {many.times}", exact=True)).to_be_visible()
    page.keyboard.press("Space")
    page.unroute("**/bench/count")
    for route in counts:
        route.continue_()
    counted(page, piece, many.id, 4)
    expect(page.get_by_text(f"5 of {many.times}", exact=True)).to_be_visible()


@pytest.mark.elsewhere
def test_a_round_goes_link_by_link_by_presses_and_back(page: Page) -> None:
    bench = Workshop.objects.get(name="Heron Barge")
    piece = Piece.objects.get(workshop=bench, name="Ferryman's beads")
    links = [one.step for one in at_bench.at_bench(bench, piece.pk).steps if one.step.round]
    first, taking, *others = links
    at_bench.go_to(bench, piece.pk, first.id)
    page.goto(f"/pieces/{piece.pk}/bench")
    expect(page.get_by_text(f"One after the other, {first.times} times")).to_be_visible()
    # The first link has nothing to take; the second is hung in it before it is wound shut.
    for one in (first, *others, first, taking):
        expect(at_step(page)).to_have_text(one.title)
        page.keyboard.press("Space")
    expect(at_step(page)).to_have_text(others[0].title)
    expect(page.get_by_text(f"2 of {first.times}", exact=True)).to_be_visible()
    # Presses run ahead of the server; a page that is loaded anew begins where that is.
    counted(page, piece, taking.id, 1)
    page.keyboard.press("PageUp")
    expect(at_step(page)).to_have_text(taking.title)
    counted(page, piece, taking.id, 0)
    page.reload()
    expect(at_step(page)).to_have_text(taking.title)


@pytest.mark.elsewhere
def test_two_pieces_are_worked_on_in_turn_and_the_bench_shows_what_waits(
    page: Page, set_clock: Callable[[float], None]
) -> None:
    set_clock(0)
    bench = Workshop.objects.get(name="Heron Barge")
    piece = Piece.objects.get(workshop=bench, name="Landing-stage bangle")
    steps = at_bench.at_bench(bench, piece.pk).steps
    glued = next(one.step for one in steps if one.step.waits_in == "glue")
    at_bench.go_to(bench, piece.pk, glued.id)
    at_bench.done(bench, piece.pk, glued.id)
    page.goto(path("/pieces/{Toll bangle}/bench"))
    expect(page.get_by_text("Step 3 of 11")).to_be_visible()
    chip = page.get_by_role("link", name=re.compile("Landing-stage bangle"))
    expect(chip).to_contain_text(re.compile(r"(1 h 00 min|59:\d\d)"))
    chip.click()
    expect(page.get_by_role("timer")).to_be_visible()
    page.get_by_role("main").get_by_role("link", name="Toll bangle").click()
    expect(page.get_by_text("Step 3 of 11")).to_be_visible()
    page.get_by_role("button", name="Lay down").click()
    page.wait_for_url(re.compile("/form$"))
    page.goto("/")
    held = page.get_by_role("region", name="In hand")
    expect(held).to_contain_text("Landing-stage bangle")
    expect(held).not_to_contain_text("Toll bangle")
    set_clock(61)
    page.reload()
    expect(page.get_by_role("region", name="In hand")).to_contain_text("time is up")


@pytest.mark.elsewhere
def test_the_signal_can_be_switched_off_and_stays_off(page: Page) -> None:
    page.goto(path("/pieces/{Toll bangle}/bench"))
    for name in ("Sound and mark", "Mark only"):
        page.get_by_role("button", name=name).click()
    page.reload()
    expect(page.get_by_role("button", name="No signal")).to_be_visible()


def test_a_body_is_planned_on_from_the_rows_that_are_woven(page: Page) -> None:
    where = path("/pieces/{Weir-gate ladder}/bench")
    piece = Piece.objects.get(name="Weir-gate ladder")
    at_bench.go_to(piece.workshop, piece.pk, "e1/ladder_return")
    page.goto(where)
    page.get_by_text("How far is it?").click()
    page.get_by_label("Made: rows").fill("10")
    page.get_by_label("They measure, first to last").fill("4")
    page.get_by_role("button", name="What follows").click()
    expect(page.get_by_label("They measure, first to last")).to_have_attribute(
        "aria-invalid", "true"
    )
    page.get_by_label("They measure, first to last").fill("50")
    page.get_by_role("button", name="What follows").click()
    follows = page.get_by_role("status").filter(has_text="in all")
    expect(follows).to_contain_text("Each comes out at 5.00 mm")
    page.get_by_role("button", name="Plan on from here").click()
    expect(page.get_by_text(re.compile("^10 are made: "))).to_be_visible()
    # It stands in the make-up, too, where it can be forgotten.
    page.goto(path("/pieces/{Weir-gate ladder}/make_up"))
    expect(page.get_by_text("10 of ladder are made, 50.0 mm long")).to_be_visible()
