"""What every test may use: the worked brief, a bench with its user, a signed-in client."""

import json
import os
import random

# Playwright's sync API runs an event loop in the test's thread; Django would refuse to query there.
os.environ.setdefault("DJANGO_ALLOW_ASYNC_UNSAFE", "true")

from collections.abc import Sequence
from copy import deepcopy
from pathlib import Path
from typing import Any, TypeVar

import pytest
from django.conf import settings
from django.contrib.auth.models import User
from django.core.cache import cache
from django.test import Client
from hypothesis import settings as hypothesis_settings

from jamreel.workshop.models import Workshop

# `make test` takes samples, the same each time, so that a change is judged by itself; `make prove`
# goes through all, and draws others from run to run.
PROVE = bool(os.environ.get("JAMREEL_PROVE"))


def samples(usual: int, whole: int) -> int:
    """Return how many cases of a sweep are gone through."""
    return whole if PROVE else usual


T = TypeVar("T")


def some_of(rows: Sequence[T], usual: int) -> list[T]:
    """Return so many rows of a sweep, the same from run to run and in their order; or all."""
    if PROVE:
        return list(rows)
    picked = random.Random(len(rows)).sample(range(len(rows)), min(usual, len(rows)))
    return [rows[n] for n in sorted(picked)]


# A busy machine is slow now and then; that is no finding.
hypothesis_settings.register_profile(
    "patient", deadline=None, derandomize=not PROVE, max_examples=samples(30, 200)
)
hypothesis_settings.load_profile("patient")

# A hash that takes its time is for those who guess: hundreds of tests sign somebody up.
settings.PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]

# Each of several test processes counts tries by itself.
_WORKER = os.environ.get("PYTEST_XDIST_WORKER", "alone")
settings.CACHES["default"]["LOCATION"] = settings.DATA / f"tries-{_WORKER}"
settings.CACHES["close_views"]["LOCATION"] = settings.DATA / f"close-views-{_WORKER}"
settings.SLOTS = settings.DATA / f"slots-{_WORKER}"

# Files that take longest, the longest first: dealt out in this order, so that no process is left
# with a long one when the other is done.
LONGEST = (
    "browser/test_accessible.py",
    "browser/test_slice.py",
    "load/test_load.py",
    "workshop/test_running.py",
    "browser/test_at_bench.py",
    "browser/test_parts.py",
    "browser/test_hold.py",
    "browser/test_reels.py",
    "core/test_limits.py",
    "workshop/test_wearers.py",
    "validation/test_nesting.py",
    "core/test_interlace.py",
    "core/test_make_up.py",
    "workshop/test_stock.py",
    "core/test_formats.py",
    "validation/test_sections.py",
    "core/test_bound.py",
)


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    """Put the longest files first, within each as they stand."""
    ranks = {name: n for n, name in enumerate(LONGEST)}
    folder = Path(__file__).parent

    def rank(item: pytest.Item) -> int:
        inside = item.path.is_relative_to(folder)
        name = item.path.relative_to(folder).as_posix() if inside else ""
        return ranks.get(name, len(LONGEST))

    items.sort(key=rank)


def shared_folder(factory: pytest.TempPathFactory) -> Path:
    """Return a folder of this run, the same for each of several test processes."""
    own = factory.getbasetemp()
    return own if _WORKER == "alone" else own.parent


ROOT = Path(__file__).parents[1]
EXAMPLES = ROOT / "docs" / "examples"
WORKED: dict[str, Any] = json.loads((EXAMPLES / "sliding-bangle.json").read_text())


@pytest.fixture(autouse=True)
def no_tries_yet() -> None:
    """Tries are counted over requests; each test begins without any."""
    cache.clear()


@pytest.fixture
def brief() -> dict[str, Any]:
    """A brief with a known answer: wrist 158, hand pass 205, 14 AWG half-hard copper."""
    return deepcopy(WORKED)


@pytest.fixture
def bench(db: None) -> Workshop:
    workshop = Workshop.objects.create(name="Reed Bench")
    workshop.members.add(User.objects.create_user("reed", password="willow-and-wire-7"))
    return workshop


@pytest.fixture
def client(bench: Workshop) -> Client:
    signed_in = Client()
    signed_in.force_login(bench.members.get(), backend=settings.AUTHENTICATION_BACKENDS[1])
    return signed_in


def put_away(client: Client, what: str, number: int) -> None:
    """Put something of the client's bench away."""
    answer = client.post(
        "/api/archive", {"what": what, "id": number}, content_type="application/json"
    )
    assert answer.status_code == 204, answer.content


@pytest.fixture
def stranger(db: None) -> Client:
    """Somebody signed in at another bench."""
    other = Workshop.objects.create(name="Sedge Bench")
    user = User.objects.create_user("sedge", password="osier-and-brass-8")
    other.members.add(user)
    signed_in = Client()
    signed_in.force_login(user, backend=settings.AUTHENTICATION_BACKENDS[1])
    return signed_in
