"""The whole slice as a maker does it: once by mouse, once by keyboard alone."""

import io
import re
from typing import Any

import pdfplumber
import pytest
from playwright.sync_api import Locator, Page, expect

from jamreel.workshop.models import Piece
from tests.browser.paths import path

pytestmark = pytest.mark.browser
SLUGS = {"Measure": "measure", "Make-up": "make_up", "Cut": "cut", "Form": "form", "Fit": "fit"}


def answer(page: Page) -> Locator:
    """The one figure of the station."""
    return page.locator("p[aria-live] span.figures.font-bold")


def open_piece(page: Page, name: str, station: str) -> None:
    piece = Piece.objects.filter(name__startswith=name).order_by("pk")[0]
    page.goto(f"/pieces/{piece.pk}/{SLUGS[station]}")
    stations = page.get_by_role("navigation", name="Stations")
    # The station that was open before has labels of its own.
    expect(stations.locator("[aria-current=page]")).to_contain_text(station)
    expect(page.get_by_role("status").first).to_have_text("saved")


def test_a_bangle_by_mouse_from_wearer_to_finished(page: Page) -> None:
    page.get_by_role("link", name="Wearers").click()
    # What is typed before the wearers have come goes into a form that is drawn anew.
    expect(page.get_by_role("rowheader", name="Tobin Arkwell")).to_be_visible()
    page.get_by_label("New wearer").fill("Wren Halloway")
    page.get_by_label("Part or note").fill("the Kingfisher")
    page.get_by_role("button", name="Add").click()
    expect(page.get_by_role("heading", name="Wren Halloway")).to_be_visible()
    page.get_by_role("button", name="Start", exact=True).click()
    expect(page.get_by_role("heading", name="Wren’s sliding-loop bangle")).to_be_visible()
    # Measure: values appear as they are typed, and can be kept with the wearer.
    for i, value in enumerate(("158", "158.5", "157.5")):
        page.get_by_label(f"Wrist girth, reading {i + 1}").fill(value)
    page.get_by_label("Hand pass girth, reading 1").fill("205")
    expect(answer(page)).to_contain_text("171.0")
    page.get_by_role("button", name="Keep with Wren Halloway").click()
    expect(page.get_by_text("These are Wren Halloway’s readings.")).to_be_visible()
    page.get_by_role("radio", name="share of the girth, loose").click()
    expect(answer(page)).to_contain_text("177.0")
    page.get_by_role("radio", name="fixed ease, comfortable").click()
    # Make-up: nonsense gets a sentence and no number; mending it brings the number back.
    page.get_by_role("link", name=re.compile("^needs something Make-up|Make-up")).click()
    page.get_by_label("Wire", exact=True).fill("0.08")
    expect(page.get_by_text("Has the decimal point slipped?").first).to_be_visible()
    # What there was stays to be looked at, and says that it is from before.
    expect(answer(page)).to_contain_text(re.compile(r"216\.0.*before"))
    page.get_by_label("Wire", exact=True).fill("14 awg")
    page.get_by_role("radio", name="copper", exact=True).click()
    expect(answer(page)).to_contain_text("216.0")
    # Cut: printed, ticked, with the length as cut.
    page.get_by_role("link", name=re.compile("Cut")).click()
    expect(answer(page)).to_contain_text("245.5")
    strip = page.request.get(
        page.get_by_role("link", name="Bench strip").first.get_attribute("href") or ""
    )
    with pdfplumber.open(io.BytesIO(strip.body())) as pdf:
        assert "245.5 mm" in pdf.pages[0].extract_text()
    page.get_by_label("Length as cut, if it differs").fill("245")
    page.get_by_role("button", name="Cut: tick it off").click()
    expect(page.get_by_role("heading", name="Cut already")).to_contain_text("1 wire, still right")
    # Form: four steps in order.
    page.get_by_role("link", name=re.compile("Form")).click()
    # Annealed for its tight loops it is soft, and springs less than as it was bought.
    expect(answer(page)).to_contain_text("49.0")
    for box in page.get_by_role("checkbox").all():
        box.click()
        expect(box).to_be_checked()
    expect(page.get_by_role("link", name=re.compile("Form formed"))).to_be_visible()
    # Fit: too big, what to do about it, done, and it fits.
    page.get_by_role("link", name=re.compile("Fit")).click()
    page.get_by_label("Inside girth by tape, fully open").fill("216")
    expect(page.get_by_text("snip 24.3 mm, loop included")).to_be_visible()
    page.get_by_role("button", name="Record this try-on").click()
    expect(answer(page)).to_contain_text("11.0")
    page.get_by_role("button", name="That is done").click()
    page.get_by_label("Passes the hand?").get_by_role("radio", name="Yes").click()
    page.get_by_label("Inside girth by tape, fully open").fill("205.5")
    expect(page.get_by_text("It came out as planned")).to_be_visible()
    page.get_by_role("button", name="Record this try-on").click()
    page.get_by_role("button", name="It fits: finished").click()
    expect(page.get_by_role("link", name=re.compile("Fit finished"))).to_be_visible()
    page.get_by_role("link", name="Bench", exact=True).click()
    done = page.get_by_role("region", name="Done")
    expect(done.get_by_role("link", name=re.compile("Wren’s sliding-loop bangle"))).to_be_visible()


def tab_to(page: Page, wanted: Locator) -> None:
    """Press Tab until the wanted element has the focus; a maker has no other way."""
    for _ in range(120):
        if wanted.evaluate("element => element === document.activeElement"):
            return
        page.keyboard.press("Tab")
    raise AssertionError(f"not reached by Tab: {wanted}")


def type_into(page: Page, label: str, text: str) -> None:
    tab_to(page, page.get_by_label(label, exact=True))
    page.keyboard.press("Control+A")
    page.keyboard.type(text)


def test_the_same_by_keyboard_alone(page: Page) -> None:
    # The quick way to a cut, kept as a piece.
    type_into(page, "Wrist girth", "158")
    type_into(page, "Hand pass girth", "205")
    expect(page.get_by_role("region", name="Straight to the cut")).to_contain_text("245.5")
    tab_to(page, page.get_by_role("button", name="Keep it as a piece"))
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="sliding-loop bangle", exact=True)).to_be_visible()
    page.locator("body").focus()
    # Stations by their numbers; from inside a field with Alt.
    page.keyboard.press("1")
    expect(answer(page)).to_contain_text("171.0")
    type_into(page, "Wrist girth, reading 2", "158.6")
    expect(answer(page)).to_contain_text("171.3")
    tab_to(page, page.get_by_role("radio", name="fixed ease, comfortable"))
    page.keyboard.press("ArrowUp", delay=80)
    page.keyboard.press("ArrowUp", delay=80)
    expect(page.get_by_role("radio", name="fixed ease, snug")).to_be_checked()
    expect(answer(page)).to_contain_text("164.3")
    page.keyboard.press("Control+Z")
    page.keyboard.press("Control+Z")
    expect(page.get_by_role("radio", name="fixed ease, comfortable")).to_be_checked()
    expect(answer(page)).to_contain_text("171.3")
    page.keyboard.press("2")
    type_into(page, "Loop pin", "3.0")
    expect(answer(page)).to_contain_text("216.4")
    page.keyboard.press("Alt+3")
    tab_to(page, page.get_by_role("button", name="Cut: tick it off"))
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="Cut already")).to_be_visible()
    page.keyboard.press("4")
    for title in ("Loop up", "Shape on", "Thread", "Loop down"):
        box = page.get_by_role("checkbox", name=re.compile(title))
        tab_to(page, box)
        page.keyboard.press("Space")
        expect(box).to_be_checked()
    page.keyboard.press("5")
    type_into(page, "Inside girth by tape, fully open", "205")
    expect(page.get_by_text("It came out as planned")).to_be_visible()
    tab_to(page, page.get_by_role("button", name="Record this try-on"))
    page.keyboard.press("Enter")
    tab_to(page, page.get_by_role("button", name="It fits: finished"))
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="Open it again")).to_be_visible()


@pytest.mark.elsewhere
def test_each_digit_typed_is_one_request_and_moves_the_drawing(page: Page) -> None:
    open_piece(page, "Ferryman's bangle", "Measure")
    field = page.get_by_label("Hand pass girth, reading 3")
    rule = page.locator("[data-drawn=rule]")
    field.fill("205")
    expect(page.get_by_role("status").first).to_have_text("saved")
    sent: list[str] = []
    page.on("request", lambda one: sent.append(f"{one.method} {one.url.rpartition('/')[2]}"))
    for value in ("206", "207", "208"):
        before = rule.inner_html()
        field.fill(value)
        expect(page.get_by_role("status").first).to_have_text("saved")
        page.wait_for_function(
            "before => document.querySelector('[data-drawn=rule]').innerHTML !== before", arg=before
        )
    assert sent == ["PUT brief"] * 3


@pytest.mark.elsewhere
def test_nothing_typed_is_lost_on_reload_or_without_a_connection(page: Page) -> None:
    open_piece(page, "Ferryman's bangle", "Make-up")
    wire = page.get_by_label("Wire", exact=True)
    wire.fill("not a w")
    page.reload()
    expect(wire).to_have_value("not a w")
    expect(page.get_by_text("can't be read as a wire size").first).to_be_visible()
    page.context.set_offline(True)
    wire.fill("16 awg")
    expect(page.get_by_text("not saved yet, trying again")).to_be_visible()
    page.context.set_offline(False)
    expect(page.get_by_role("status").first).to_have_text("saved")
    page.reload()
    expect(wire).to_have_value("16 awg")
    page.get_by_role("button", name="Undo").click()
    expect(wire).not_to_have_value("16 awg")
    page.get_by_role("button", name="Redo").click()
    expect(wire).to_have_value("16 awg")


def test_what_is_typed_in_other_forms_outlives_a_reload_too(page: Page) -> None:
    page.get_by_role("link", name="Tools").click()
    page.get_by_label("Diameters").first.fill("40 50 55")
    page.reload()
    expect(page.get_by_label("Diameters").first).to_have_value("40  50  55")
    page.get_by_role("button", name="Save").click()
    expect(page.get_by_role("status")).to_have_text("saved")
    page.goto(path("/wearers/{Tobin Arkwell}"))
    first = page.get_by_role("textbox", name=re.compile("Wrist girth.* 3")).first
    first.fill("161 mm")
    page.goto("/reels")
    page.get_by_role("button", name="Add stock").click()
    page.get_by_label("What you call it").fill("found under the bench")
    page.reload()
    page.get_by_role("button", name="Add stock").click()
    expect(page.get_by_label("What you call it")).to_have_value("found under the bench")
    page.goto(path("/wearers/{Tobin Arkwell}"))
    expect(first).to_have_value("161 mm")
    # Whoever signs out takes what was not saved along.
    page.get_by_role("button", name="Leave").click()
    expect(page.get_by_role("button", name="Open the demo bench")).to_be_visible()
    assert page.evaluate("Object.keys(sessionStorage).filter(k => k.includes('typed'))") == []


@pytest.mark.elsewhere
@pytest.mark.parametrize("keep", ["Keep what is here", "Take what is there"])
def test_a_stale_tab_is_told_and_shown_both_versions(page: Page, keep: str) -> None:
    open_piece(page, "Ferryman's bangle", "Make-up")
    other = page.context.new_page()
    other.goto(page.url)
    other.get_by_label("Wire", exact=True).fill("16 awg")
    expect(other.get_by_role("status").first).to_have_text("saved")
    page.get_by_label("Wire", exact=True).fill("12 awg")
    panel = page.get_by_role("alert")
    expect(panel.get_by_role("cell", name="12 awg")).to_be_visible()
    expect(panel.get_by_role("cell", name="16 awg")).to_be_visible()
    panel.get_by_role("button", name=keep).click()
    wanted = "12 awg" if keep.startswith("Keep") else "16 awg"
    expect(page.get_by_label("Wire", exact=True)).to_have_value(wanted)
    expect(page.get_by_role("status").first).to_have_text("saved")
    other.reload()
    expect(other.get_by_label("Wire", exact=True)).to_have_value(wanted)


@pytest.mark.elsewhere
def test_two_tabs_tick_the_same_cut_and_the_other_is_told(page: Page) -> None:
    open_piece(page, "Ferryman's bangle", "Cut")
    other = page.context.new_page()
    other.goto(page.url)
    tick = "Cut: tick it off"
    expect(other.get_by_role("button", name=tick)).to_be_visible()
    page.get_by_role("button", name=tick).click()
    expect(page.get_by_role("heading", name="Cut already")).to_be_visible()
    other.get_by_role("button", name=tick).click()
    expect(other.get_by_text("ticked off in another tab")).to_be_visible()
    expect(other.get_by_role("button", name="Take the tick back")).to_be_visible()


@pytest.mark.elsewhere
def test_pointing_at_a_part_points_at_its_ledger_line(page: Page) -> None:
    open_piece(page, "Ferryman's bangle", "Measure")
    ledger = page.get_by_role("complementary", name="The ledger")
    page.get_by_role("region", name="The Rule").get_by_role(
        "button", name="Loop, turned up"
    ).hover()
    line = ledger.get_by_role("listitem").filter(has_text="Loop, turned up")
    expect(line).to_have_class(re.compile("bg-tint"))
    line.get_by_role("button").click()
    expect(line.get_by_text("path.moves.bend_length")).to_be_visible()
    expect(line.get_by_text("a published source")).to_be_visible()


def test_tools_change_what_pieces_are_shaped_on(page: Page) -> None:
    page.get_by_role("link", name="Tools").click()
    steps: Any = page.get_by_label("Diameters").first
    steps.fill("40 50 nonsense")
    page.get_by_role("button", name="Save").click()
    expect(page.get_by_text("can't be read as a length")).to_be_visible()
    steps.fill("40 49.5")
    page.get_by_role("button", name="Save").click()
    expect(page.get_by_text("can't be read as a length")).to_be_hidden()
    expect(page.get_by_role("status")).to_have_text("saved")
    page.get_by_role("link", name="Bench", exact=True).click()
    open_piece(page, "Ferryman's bangle", "Form")
    page.get_by_role("tab", name="Formers").click()
    expect(page.get_by_role("row", name=re.compile("body"))).to_contain_text("bracelet mandrel")
    expect(answer(page)).to_contain_text("49.5")


@pytest.mark.elsewhere
def test_sliding_a_chain_moves_its_fall(page: Page) -> None:
    open_piece(page, "Sluice chain", "Make-up")
    expect(answer(page)).to_contain_text("519.0")
    page.get_by_role("button", name="Piece", exact=True).click()
    slider = page.get_by_role("slider")
    tab_to(page, slider)
    for _ in range(20):
        page.keyboard.press("ArrowRight")
    expect(page.get_by_label("Length", exact=True)).to_have_value("540 mm")
    expect(answer(page)).to_contain_text("539.0")
    expect(page.get_by_text("above the lower edge of the breast")).to_be_visible()
    page.get_by_label("Construction").select_option("choker")
    expect(page.get_by_text("needs a reading")).to_be_visible()
    page.get_by_role("navigation", name="Stations").get_by_role("link", name="Measure").click()
    page.get_by_label("Neck girth, middle, reading 1").fill("331")
    expect(answer(page)).to_contain_text("341.0")


@pytest.mark.elsewhere
def test_a_whole_cast_is_entered_on_one_screen(page: Page) -> None:
    page.goto("/wearers/cast")
    page.get_by_label("New wearer 1").fill("Wren Halloway")
    page.get_by_label("Wren Halloway, Wrist girth").fill("158 / 158.5")
    page.get_by_label("Saskia Dunmere, Wrist girth").fill("15")
    page.get_by_role("button", name="Keep all").click()
    expect(page.get_by_text("Saskia Dunmere: A wrist girth of 15 mm is outside")).to_be_visible()
    page.get_by_label("Saskia Dunmere, Wrist girth").fill("151")
    page.get_by_role("button", name="Keep all").click()
    expect(page.get_by_text("3 readings kept")).to_be_visible()
    page.get_by_role("link", name="Wearers").click()
    expect(page.get_by_role("row", name=re.compile("Wren Halloway"))).to_contain_text("158.3")


@pytest.mark.elsewhere
def test_measures_go_out_and_come_in_as_csv(page: Page, tmp_path: Any) -> None:
    page.goto("/wearers/cast")
    with page.expect_download() as download:
        page.get_by_role("link", name="Get all measures").click()
    text = download.value.path().read_text()
    assert "Tobin Arkwell,the Ferryman,,wrist_girth,158.0,tape" in text
    page.goto("/wearers/cast")
    file = tmp_path / "cast.csv"
    file.write_text("name,site,value [mm]\nRobin Sallow,wrist_girth,16\n")
    page.get_by_label("A file").set_input_files(file)
    page.get_by_role("button", name="Look at it").click()
    expect(page.get_by_text("Nothing was imported.")).to_be_visible()
    file.write_text("name,site,value [mm]\nRobin Sallow,wrist_girth,162\n")
    page.get_by_label("A file").set_input_files(file)
    page.get_by_role("button", name="Look at it").click()
    page.get_by_role("button", name="Import", exact=True).click()
    expect(page.get_by_text("Imported: 1 readings of 1 wearers.")).to_be_visible()


# Each construction with the measures that it needs and the figure it comes to on paper, in the
# wire that it starts with.
PIECES = [
    ("closed bangle", {"Wrist girth": "158", "Hand pass girth": "205"}, "214.4"),
    ("overlapping bangle", {"Wrist girth": "158"}, "190.4"),
    ("open cuff", {"Wrist girth": "158"}, "149.2"),
    ("wire bracelet", {"Wrist girth": "158"}, "217.9"),
    ("choker", {"Neck girth, middle": "330"}, "395.5"),
    ("circlet", {"Head girth": "560"}, "559.8"),
    ("band over the crown", {"Crown arc": "330"}, "337.7"),
    ("ear cuff", {"Ear rim depth": "8", "Ear rim, middle": "4"}, "33.7"),
    ("chain necklace", {"Neck girth, base": "380"}, "434.0"),
    ("forehead chain", {"Brow arc": "180", "Parting arc": "95"}, "22.5"),
]


def test_every_family_gives_its_cut_the_quick_way(page: Page) -> None:
    quick = page.get_by_role("region", name="Straight to the cut")
    for piece, measures, cut in PIECES:
        quick.get_by_label("Construction").select_option(label=piece)
        for site, value in measures.items():
            quick.get_by_label(site, exact=True).fill(value)
        expect(quick.locator("span.figures.font-bold")).to_contain_text(cut)
    quick.get_by_role("button", name="Keep it as a piece").click()
    expect(page.get_by_role("heading", name="forehead chain")).to_be_visible()
    # Of wire it takes the ring in its middle; its chains are fetched.
    page.get_by_role("button", name=re.compile("tick it off|All are cut")).first.click()
    expect(page.get_by_role("button", name="Take the tick back")).to_have_count(1)
    expect(page.get_by_role("link", name=re.compile("Form 0 of"))).to_be_visible()


@pytest.mark.elsewhere
def test_an_ear_cuff_is_made_and_put_right(page: Page) -> None:
    open_piece(page, "Quill ear cuff", "Make-up")
    page.get_by_label("Ends", exact=True).select_option(label="filed round")
    expect(answer(page)).to_contain_text("31.2")
    page.get_by_label("Sits on").select_option(label="the upper rim")
    page.get_by_role("navigation", name="Stations").get_by_role("link", name="Measure").click()
    expect(page.get_by_label("Ear rim, upper, reading 1")).to_have_value("3.2")
    page.get_by_role("navigation", name="Stations").get_by_role("link", name="Fit").click()
    page.get_by_label("Stays on?").get_by_role("radio", name="No").click()
    expect(page.get_by_text("Close the gap a little below")).to_be_visible()


@pytest.mark.elsewhere
def test_a_bangle_that_fits_can_be_copied(page: Page) -> None:
    open_piece(page, "Rowlock cuff", "Measure")
    page.get_by_role("radio", name="as a piece that fits").click()
    field = page.get_by_label("Inside girth of the piece that fits")
    expect(field).to_have_value("171.3 mm")
    field.fill("169")
    expect(answer(page)).to_contain_text("169.0")
    field.fill("90")
    expect(page.get_by_text("can't be one that fits a girth").first).to_be_visible()
    expect(answer(page)).to_contain_text(re.compile(r"169\.0.*before"))


@pytest.mark.elsewhere
def test_callipers_shape_the_wrist_and_contradictions_are_named(page: Page) -> None:
    open_piece(page, "Rowlock cuff", "Measure")
    page.get_by_role("button", name=re.compile("Measure more")).click()
    page.get_by_label("Wrist breadth, reading 1").fill("57")
    page.get_by_label("Wrist depth, reading 1").fill("39.5")
    expect(page.get_by_role("img", name=re.compile("wrist across 57.0 mm"))).to_be_visible()
    page.get_by_label("Wrist depth, reading 1").fill("62")
    expect(page.get_by_text("Take the wrist depth again first.").first).to_be_visible()
    page.get_by_label("Wrist depth, reading 1").focus()
    expect(page.get_by_role("img", name=re.compile("Calliper through the wrist"))).to_be_visible()
