"""Debian's Chromium against the built front end and a live server with the demo bench."""

from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from django.conf import settings
from django.test import Client
from playwright.sync_api import Browser, Page, Playwright, expect

from jamreel.workshop.models import Workshop
from tests.conftest import shared_folder
from tests.demo_made import put_back

ROOT = Path(__file__).parents[2]
AXE = (ROOT / "frontend/node_modules/axe-core/axe.min.js").read_text()
# How long to wait for what must come, not for how long it may take: machines are busy at times.
expect.set_options(timeout=20_000)
FLAGS = ["--no-sandbox", "--disable-gpu", "--disable-quic", "--disable-background-networking"]


@pytest.fixture(scope="session")
def browser(playwright: Playwright) -> Iterator[Browser]:
    chromium = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=FLAGS)
    yield chromium
    chromium.close()


@pytest.fixture
def demo(
    request: pytest.FixtureRequest,
    django_db_reset_sequences: None,
    monkeypatch: pytest.MonkeyPatch,
    tmp_path_factory: pytest.TempPathFactory,
) -> None:
    """The demo bench, as it was made."""
    monkeypatch.setattr(settings, "DEMO", True)
    whole = request.node.get_closest_marker("season") is not None
    put_back(shared_folder(tmp_path_factory), whole=whole)


@pytest.fixture
def page(
    request: pytest.FixtureRequest, browser: Browser, demo: None, live_server: Any
) -> Iterator[Page]:
    """A laptop's page at the demo bench, signed in; blank for a test that begins elsewhere."""
    context = browser.new_context(
        base_url=live_server.url,
        viewport={"width": 1280, "height": 800},
        reduced_motion="reduce",
        locale="en-GB",
        timezone_id="UTC",
    )
    name = settings.SESSION_COOKIE_NAME
    context.add_cookies([{"name": name, "value": session(), "url": live_server.url}])
    opened = context.new_page()
    opened.set_default_timeout(40_000)
    complaints: list[str] = []
    opened.on("pageerror", lambda error: complaints.append(str(error)))
    opened.on(
        "console",
        lambda message: (
            complaints.append(message.text)
            if message.type == "error" and not expected(message.text)
            else None
        ),
    )
    if request.node.get_closest_marker("elsewhere") is None:
        opened.goto("/")
        expect(opened.get_by_role("heading", name="Heron Barge")).to_be_visible()
    yield opened
    context.close()
    assert complaints == []


def session() -> str:
    """Return the key of a session of the demo's maker."""
    client = Client()
    backend = settings.AUTHENTICATION_BACKENDS[1]
    client.force_login(Workshop.objects.order_by("pk")[0].members.get(), backend=backend)
    return client.cookies[settings.SESSION_COOKIE_NAME].value


def expected(complaint: str) -> bool:
    """Chromium also reports refusals that a test asks for, and the line that it cuts itself."""
    return "status of 4" in complaint or "ERR_INTERNET_DISCONNECTED" in complaint


def assert_accessible(page: Page) -> None:
    """Run axe on the page as it stands; its list of violations must be empty."""
    page.evaluate(AXE)
    found = page.evaluate("axe.run(document, {resultTypes: ['violations'], preload: false})")
    violations = [
        (v["id"], v["help"], [n["html"][:140] for n in v["nodes"]][:4]) for v in found["violations"]
    ]
    assert violations == []
