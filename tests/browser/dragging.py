"""A row dragged by its grip as a hand does it: lifted, over another row, put down."""

import re

from playwright.sync_api import Locator, Page, expect


def middle(of: Locator) -> tuple[float, float]:
    """Return where the middle of something is on the screen [px]."""
    box = of.bounding_box()
    assert box is not None
    return box["x"] + box["width"] / 2, box["y"] + box["height"] / 2


def told(page: Page) -> Locator:
    """Return where a screen reader is told how the dragging goes."""
    return page.get_by_role("status").filter(has_text=re.compile(r"place \d+ of \d+"))


def move_by_key(page: Page, key: str, place: int) -> None:
    """Press an arrow key until what is lifted is said to be over a place.

    The keys are listened to a moment after it was said to be lifted, so that a first press can come
    too early; at either end a press more changes nothing.
    """
    there = re.compile(f"over place {place} of")
    for _ in range(20):
        page.keyboard.press(key)
        page.wait_for_timeout(200)
        if there.search(told(page).text_content() or ""):
            break
    expect(told(page)).to_have_text(there)


def drag(page: Page, grip: Locator, to: Locator, place: int) -> None:
    """Drag a row by its grip with the mouse, over another row, until that is said to be there."""
    page.mouse.move(*middle(grip))
    page.mouse.down()
    page.mouse.move(*middle(to), steps=6)
    expect(told(page)).to_have_text(re.compile(f"over place {place} of"))
    page.mouse.up()


def drag_by_finger(page: Page, grip: Locator, to: Locator, place: int) -> None:
    """Drag a row by its grip with a finger; see ``drag``."""
    finger = page.context.new_cdp_session(page)
    (x0, y0), (x1, y1) = middle(grip), middle(to)
    path = [("touchStart", x0, y0), ("touchMove", x0, (y0 + y1) / 2), ("touchMove", x1, y1)]
    for kind, x, y in path:
        finger.send("Input.dispatchTouchEvent", {"type": kind, "touchPoints": [{"x": x, "y": y}]})
    expect(told(page)).to_have_text(re.compile(f"over place {place} of"))
    finger.send("Input.dispatchTouchEvent", {"type": "touchEnd", "touchPoints": []})
