"""Who gets in, and whose rows they see."""

import io
import json
import re
from typing import Any

import pytest
from django.conf import settings
from django.db import connection
from django.test import Client
from django.test.utils import CaptureQueriesContext
from ninja.openapi.schema import OpenAPISchema

from jamreel.api import api
from jamreel.workshop.hands import Sample, note_sample
from jamreel.workshop.models import LogEntry, Photo, Piece, TryOnRecord, Wait, Wearer, Workshop
from jamreel.workshop.pieces import start_piece
from jamreel.workshop.stock import add_stock, amount_of
from jamreel.workshop.wearers import keep_readings
from tests.conftest import PROVE

DOCUMENT = api.get_openapi_schema()
OPEN = {"/api/session", "/api/session/demo", "/api/session/sign-in", "/api/session/sign-up"}


def operations() -> list[tuple[str, str]]:
    return [(p, m) for p, methods in DOCUMENT["paths"].items() for m in methods]


def call(client: Client, method: str, path: str, body: Any = None) -> Any:
    return client.generic(
        method.upper(), path, json.dumps(body or {}), content_type="application/json"
    )


@pytest.mark.parametrize(("path", "method"), operations())
def test_everything_but_the_door_needs_a_session(db: None, path: str, method: str) -> None:
    if path in OPEN:
        return
    answer = call(Client(), method, re.sub(r"\{\w+\}", "1", path))
    assert answer.status_code == 401
    assert answer["Content-Type"] == "application/problem+json"
    assert answer.json()["title"] == "Sign in first"


@pytest.mark.parametrize(("path", "method"), operations())
def test_every_write_needs_the_pages_token(bench: Workshop, path: str, method: str) -> None:
    if method == "get":
        return
    strict = Client(enforce_csrf_checks=True)
    strict.force_login(bench.members.get(), backend=settings.AUTHENTICATION_BACKENDS[1])
    answer = call(strict, method, re.sub(r"\{\w+\}", "1", path))
    assert answer.status_code == 403, answer.content
    strict.get("/")
    token = strict.cookies[settings.CSRF_COOKIE_NAME].value
    with_token = strict.generic(
        method.upper(),
        re.sub(r"\{\w+\}", "1", path),
        "{}",
        content_type="application/json",
        headers={"X-CSRFToken": token},
    )
    # The demo refuses outside demo mode, by its own sentence and not by the token.
    assert with_token.status_code != 403 or path.endswith("/demo")


def test_nobody_reaches_anothers_rows(
    bench: Workshop, brief: dict[str, Any], stranger: Client
) -> None:
    wearer = Wearer.objects.create(workshop=bench, name="Alder Finch")
    keep_readings(bench, wearer.pk, "wrist_girth", [{"value": "158"}])
    piece = start_piece(bench, "Bangle", brief, wearer)
    tryon = TryOnRecord.objects.create(
        workshop=bench, piece=piece, noted={}, answer={}, noted_at=piece.created_at
    )
    reel = {"kind": "reel", "wire": {"size": "14 awg"}, "amount": "5 m"}
    stock = add_stock(bench, reel)
    record = note_sample(bench, Sample("loop", stock.pk, {"pin": "3", "took": "15"}))
    entry = LogEntry.objects.create(
        workshop=bench,
        name="Bangle",
        piece=piece,
        finished_on=piece.created_at.date(),
        finished_at=piece.created_at,
    )
    photo = Photo.objects.create(
        workshop=bench, entry=entry, picture=b"x", width=1, height=1, at=piece.created_at
    )
    wait = Wait.objects.create(
        workshop=bench, piece=piece, key="x", began_at=piece.created_at, ends_at=piece.created_at
    )
    ids = {
        "piece_id": piece.pk,
        "record_id": record.pk,
        "entry_id": entry.pk,
        "photo_id": photo.pk,
        "wait_id": wait.pk,
        "wearer_id": wearer.pk,
        "tryon_id": tryon.pk,
        "stock_id": stock.pk,
        "form": "svg",
    }
    bodies: dict[str, Any] = {
        "brief": {"version": 1, "brief": {}},
        "undo": {"version": 1},
        "redo": {"version": 1},
        "tryons": {"noted": {}},
        "answer": {"noted": {}},
        "card": {"name": "Mine"},
        "ticks": {"kind": "cut", "key": "bangle"},
        "finish": {"finished": True},
        "settle": {"key": "bangle", "way": "keep"},
        "readings": {"site": "wrist_girth", "readings": []},
        "movements": {"amount": "1 m", "reason": "used"},
        "spoil": {"amount": "1 m"},
        "weigh": {"reading": "80 g"},
        "trial": {"former": "56", "came_off": "60"},
        "go": {"key": "cut"},
        "done": {"key": "cut"},
        "undone": {"key": "cut"},
        "count": {"key": "cut", "counted": 1},
        "tell": {"key": "cut", "told": {}},
        "so-far": {"entry": "e1", "over": "20", "version": 1},
        "aside": {"aside": True, "why": "not mine"},
        "note": {"note": "mine"},
        str(stock.pk): {"stock": reel},
        "{stock_id}": {"stock": reel},
    }
    tried = 0
    for path, method in operations():
        if "{" not in path:
            continue
        if path.endswith("/calliper"):
            path += "?key=cut&what=inside"
        body = bodies.get(path.rsplit("/", 1)[-1], {"name": "Mine"})
        if path.endswith("/photos"):
            sent = {"photo": io.BytesIO(b"no picture")}
            answer = stranger.post(path.format(**ids), sent)
        else:
            answer = call(stranger, method, path.format(**ids), body)
        assert answer.status_code == 404, (method, path, answer.content)
        tried += 1
    assert tried >= 12
    taken = call(
        stranger, "post", "/api/pieces", {"name": "x", "brief": {}, "wearer_id": wearer.pk}
    )
    assert taken.status_code == 404
    assert stranger.get("/api/bench").json()["pieces"] == []
    assert stranger.get("/api/wearers").json() == []
    assert stranger.get("/api/stock").json()["stock"] == []
    assert stranger.get("/api/board", {"pieces": piece.pk}).status_code == 404
    assert stranger.get("/api/devices/scale", {"stock_id": stock.pk}).status_code == 404
    archived = ("piece", piece.pk), ("wearer", wearer.pk), ("stock", stock.pk), ("entry", entry.pk)
    for what, number in archived:
        for path in ("archive", "archive/back", "archive/delete"):
            asked = {"what": what, "id": number}
            assert call(stranger, "post", f"/api/{path}", asked).status_code == 404, (what, path)
    assert stranger.get("/api/archive").json() == {"things": []}
    # A tick of one's own piece can't take another's wire.
    mine = call(stranger, "post", "/api/pieces", {"name": "Mine", "brief": brief}).json()
    path = f"/api/pieces/{mine['id']}/ticks"
    theirs = {"kind": "cut", "key": "bangle", "stock_id": stock.pk}
    assert call(stranger, "post", path, theirs).status_code == 404
    assert amount_of(stock) == 5000
    assert Piece.objects.get(pk=piece.pk).name == "Bangle"


def test_signing_up_in_and_out(db: None) -> None:
    client = Client()
    new = {"user": "heron", "password": "long-legged-9", "workshop": "Heron's Reeds"}
    client.get("/")
    client.defaults["HTTP_X_CSRFTOKEN"] = client.cookies[settings.CSRF_COOKIE_NAME].value
    assert (
        call(client, "post", "/api/session/sign-up", {**new, "password": "123"}).json()["field"]
        == "password"
    )
    assert call(client, "post", "/api/session/sign-up", new).json()["workshop"] == "Heron's Reeds"
    assert client.get("/api/session").json()["signed_in"]
    assert call(client, "post", "/api/session/sign-out").json()["signed_in"] is False
    again = call(client, "post", "/api/session/sign-up", new)
    assert (again.status_code, again.json()["field"]) == (422, "user")
    wrong = call(client, "post", "/api/session/sign-in", {**new, "password": "guess"})
    assert wrong.status_code in (403, 422)
    signed = call(
        client, "post", "/api/session/sign-in", {"user": "heron", "password": "long-legged-9"}
    )
    assert signed.json()["user"] == "heron"


def test_guessing_passwords_is_locked_out(bench: Workshop) -> None:
    client = Client()
    client.get("/")
    client.defaults["HTTP_X_CSRFTOKEN"] = client.cookies[settings.CSRF_COOKIE_NAME].value
    for _ in range(settings.AXES_FAILURE_LIMIT + 1):
        call(client, "post", "/api/session/sign-in", {"user": "reed", "password": "guess"})
    right = {"user": "reed", "password": "willow-and-wire-7"}
    assert call(client, "post", "/api/session/sign-in", right).status_code == 429


def test_the_page_allows_nothing_from_elsewhere(client: Client) -> None:
    policy = client.get("/")["Content-Security-Policy"]
    assert "default-src 'none'" in policy
    assert "unsafe" not in policy
    assert "http" not in policy


def test_what_is_typed_is_meant_as_something_that_the_document_has() -> None:
    found = set(re.findall(r'"x-meant-as": "(\w+)"', json.dumps(DOCUMENT)))
    assert {"Brief_as_typed", "Reading_as_typed", "PuttingRight"} <= found
    assert found <= DOCUMENT["components"]["schemas"].keys()


@pytest.mark.skipif(not PROVE, reason="the library takes its time: make prove")
def test_the_document_is_the_librarys_own() -> None:
    theirs = OpenAPISchema(api, "/api/")
    for path, operations in theirs["paths"].items():
        for method, operation in operations.items():
            ours = DOCUMENT["paths"][path][method]
            assert ours["operationId"] == operation["operationId"]
            assert ours.get("requestBody") == operation.get("requestBody"), path
            for status, answer in operation["responses"].items():
                if int(status) < 400 and "." not in path.rpartition("/")[2]:
                    assert ours["responses"][status] == answer, (path, status)


def test_who_asks_and_their_bench_are_read_at_once(client: Client) -> None:
    with CaptureQueriesContext(connection) as asked:
        assert client.get("/api/session").json()["workshop"] == "Reed Bench"
    tables = [re.search(r'FROM "(\w+)"', one["sql"]) for one in asked.captured_queries]
    assert [found[1] for found in tables if found] == [
        "django_session", "workshop_workshop_members",
    ]  # fmt: skip
