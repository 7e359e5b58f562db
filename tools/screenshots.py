"""Takes the pictures in docs/screenshots from the demo data, the same from run to run.

``python tools/screenshots.py [--out FOLDER] [--only NAME ...]``
"""

import argparse
import os
import subprocess
import sys
import tempfile
import time
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path

from playwright.sync_api import Browser, Page, sync_playwright

ROOT = Path(__file__).resolve().parents[1]
PORT = 8790
TODAY = "2026-11-24"
LAPTOP, TABLET = (1280, 800), (820, 1180)
FLAGS = ["--no-sandbox", "--disable-gpu", "--disable-quic", "--disable-background-networking"]


@dataclass(frozen=True)
class View:
    """A picture to take: where, what must be drawn first, on which screen, in which theme."""

    name: str
    path: str
    drawn: str
    size: tuple[int, int] = LAPTOP
    theme: str = "light"


# Pieces are numbered in the order in which the demo makes them.
VIEWS = (
    View("door", "", "main"),
    View("bench", "/", "h2#quick"),
    View("measure", "/pieces/1/measure", "[data-drawn=section]"),
    View("make-up", "/pieces/1/make_up", "[data-drawn=loop]"),
    View("cut", "/pieces/1/cut", "[data-drawn=wire]"),
    View("form", "/pieces/4/form", "[data-drawn=stage]"),
    View("fit", "/pieces/2/fit", "ol"),
    View("woven", "/pieces/36/form", "[data-drawn=woven]"),
    View("at-bench", "/pieces/2/bench", "[data-testid=drawing] svg"),
    View("at-bench-dark", "/pieces/35/bench", "[role=timer]", theme="dark"),
    View("at-bench-tablet", "/pieces/40/bench", "[data-testid=drawing] canvas, svg", size=TABLET),
    View("hand", "/hand", "svg"),
    View("log", "/log", "article"),
    View("day", "/day", "[data-testid=strip] svg"),
    View("reels", "/reels", "table"),
    View("cutting", "/cutting", "[data-drawn=board]"),
    View("wearers", "/wearers/1", "[data-drawn=figure]"),
    View("cast", "/wearers/cast", "table"),
    View("tools", "/tools", "form"),
)


@contextmanager
def demo_server() -> Iterator[str]:
    """Serve a fresh demo bench, made for a fixed day, and yield its address."""
    with tempfile.TemporaryDirectory() as data:
        environment = {
            **os.environ,
            "JAMREEL_DATA": data,
            "JAMREEL_DEMO": "1",
            "DJANGO_SETTINGS_MODULE": "jamreel.site.settings",
        }
        for command in (["migrate", "-v0"], ["demo_bench", "--today", TODAY]):
            admin = [sys.executable, "-m", "django", *command]
            subprocess.run(admin, env=environment, check=True, cwd=ROOT)
        gunicorn = [sys.executable, "-m", "gunicorn", "--bind", f"127.0.0.1:{PORT}"]
        gunicorn += ["--threads", "4", "--log-level", "error", "jamreel.site.wsgi:application"]
        with subprocess.Popen(gunicorn, env=environment, cwd=ROOT) as server:
            try:
                yield wait_for(f"http://127.0.0.1:{PORT}")
            finally:
                server.terminate()


def wait_for(address: str) -> str:
    """Return the address once it answers. Raises TimeoutError after 20 s."""
    for _ in range(100):
        try:
            urllib.request.urlopen(address, timeout=1)
        except OSError:
            time.sleep(0.2)
        else:
            return address
    raise TimeoutError(address)


def open_page(browser: Browser, view: View) -> Page:
    """Return a page of the view's size and theme, everything that moves switched off."""
    width, height = view.size
    context = browser.new_context(
        viewport={"width": width, "height": height},
        color_scheme="dark" if view.theme == "dark" else "light",
        reduced_motion="reduce",
        locale="en-GB",
        timezone_id="UTC",
    )
    return context.new_page()


def take(browser: Browser, address: str, view: View, out: Path) -> None:
    """Take one picture."""
    page = open_page(browser, view)
    page.goto(address)
    if view.path:
        page.get_by_role("button", name="Open the demo bench").click()
        page.get_by_role("navigation", name="Sections").wait_for()
        page.goto(address + view.path)
    page.locator(view.drawn).first.wait_for()
    page.evaluate("document.fonts.ready")
    page.wait_for_timeout(250)
    page.screenshot(path=out / f"{view.name}.png", animations="disabled")
    page.context.close()


def main() -> None:
    """Take the pictures asked for, or all of them."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--out", type=Path, default=ROOT / "docs" / "screenshots")
    parser.add_argument("--only", nargs="*")
    chosen = parser.parse_args()
    chosen.out.mkdir(parents=True, exist_ok=True)
    with demo_server() as address, sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=FLAGS)
        for view in VIEWS:
            if not chosen.only or view.name in chosen.only:
                take(browser, address, view, chosen.out)
        browser.close()


if __name__ == "__main__":
    main()
