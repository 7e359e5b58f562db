"""Every fault is a problem body (RFC 9457), whatever was sent; nothing that is sent is a 500."""

import json
from datetime import timedelta
from typing import Any

import pytest
from django.conf import settings
from django.db import OperationalError
from django.test import Client
from django.utils import timezone

from jamreel.core.draft import DEEPEST, MOST_CHARS
from jamreel.workshop import pieces as workshop_pieces
from jamreel.workshop.csv_text import MOST_FIELD, MOST_TEXT
from jamreel.workshop.models import Piece, Revision, Workshop
from jamreel.workshop.pieces import start_piece
from jamreel.workshop.stock import add_stock
from jamreel.workshop.turns import Moved, Turn

Row = dict[str, Any]
REEL = {"kind": "reel", "wire": {"size": "1 mm", "metal": "copper"}, "amount": "10 m"}


def send(client: Client, method: str, path: str, body: Any) -> Any:
    raw = body if isinstance(body, (str, bytes)) else json.dumps(body)
    return client.generic(method, path, raw, content_type="application/json")


def problem(answer: Any, status: int) -> Row:
    assert answer.status_code == status, answer.content[:300]
    assert answer["Content-Type"] == "application/problem+json"
    body: Row = answer.json()
    assert body["status"] == status
    assert body["title"]
    assert body["detail"].endswith((".", "?"))
    return body


@pytest.fixture
def piece(bench: Workshop, brief: Row) -> Piece:
    return start_piece(bench, "Bangle", brief)


def test_an_address_that_is_none_and_a_way_that_is_not_asked(client: Client) -> None:
    problem(client.get("/api/nowhere"), 404)
    problem(client.get("/api/pieces/1"), 404)
    problem(client.get("/api/pieces/" + "9" * 40), 404)
    answer = send(client, "PATCH", "/api/bench", {})
    problem(answer, 405)
    assert "GET" in answer["Allow"]


def test_a_body_that_is_too_long_is_turned_away_unread(client: Client) -> None:
    long = "x" * (settings.DATA_UPLOAD_MAX_MEMORY_SIZE + 1)
    problem(send(client, "POST", "/api/plan", long), 413)


@pytest.mark.parametrize(
    ("body", "says"),
    [
        ('{"brief": {"wire": {"size": 1e999}}}', "more than a number can be"),
        ('{"brief": NaN}', "not a number"),
        ('{"brief": {}, "brief": {}}', "twice"),
        ('{"brief": ' + "[" * 5000 + "]" * 5000 + "}", "nested too deep"),
        (b'{"brief": "\xff"}', "utf-8"),
    ],
)
def test_a_body_that_is_no_json_says_why(client: Client, body: str, says: str) -> None:
    assert says in problem(send(client, "POST", "/api/plan", body), 400)["detail"]


def test_only_json_is_taken(client: Client, db: None) -> None:
    given = {"user": "reed", "password": "willow-and-wire-7"}
    problem(client.post("/api/session/sign-in", given), 415)
    problem(client.post("/api/plan", {"brief": "{}"}), 415)


def test_a_write_without_the_pages_token_is_a_problem_too(bench: Workshop) -> None:
    strict = Client(enforce_csrf_checks=True)
    strict.force_login(bench.members.get(), backend=settings.AUTHENTICATION_BACKENDS[1])
    assert "Reload" in problem(send(strict, "POST", "/api/plan", {"brief": {}}), 403)["detail"]


def test_a_fault_of_ours_is_a_problem_and_leaves_its_trace(
    bench: Workshop, monkeypatch: pytest.MonkeyPatch, caplog: pytest.LogCaptureFixture
) -> None:
    def breaks(*given: Any) -> None:
        raise RuntimeError("a wire too short")

    monkeypatch.setattr("jamreel.api.bench.refresh", breaks)
    client = Client(raise_request_exception=False)
    client.force_login(bench.members.get(), backend=settings.AUTHENTICATION_BACKENDS[1])
    answer = client.get("/api/bench")
    assert "nothing was saved" in problem(answer, 500)["detail"]
    assert "a wire too short" not in answer.content.decode()
    assert answer["X-Request-ID"]
    assert any(record.exc_info for record in caplog.records)


@pytest.mark.parametrize(
    ("says", "status", "words"),
    [
        ("database is locked", 503, "busy"),
        ("database or disk is full", 507, "full"),
        ("attempt to write a readonly database", 507, "only be read"),
        ("disk I/O error", 507, "only be read"),
    ],
)
def test_busy_and_full_are_said(
    client: Client, monkeypatch: pytest.MonkeyPatch, says: str, status: int, words: str
) -> None:
    def breaks(*given: Any) -> None:
        raise OperationalError(says)

    monkeypatch.setattr("jamreel.api.bench.refresh", breaks)
    answer = client.get("/api/bench")
    assert words in problem(answer, status)["detail"]
    assert ("Retry-After" in answer) is (status == 503)


def test_whom_others_always_outrun_is_told_to_come_again(
    client: Client, piece: Piece, brief: Row, monkeypatch: pytest.MonkeyPatch
) -> None:
    def outrun(turn: Turn, planned: Any) -> None:
        raise Moved

    monkeypatch.setattr(Turn, "write", outrun)
    changed = {**brief, "cutting": {"trim": "3"}}
    answer = send(client, "PUT", f"/api/pieces/{piece.pk}/brief", {"version": 1, "brief": changed})
    problem(answer, 503)
    assert answer["Retry-After"]


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"piece": [1]}, "piece"),
        ({"note": "\ud800"}, "note"),
        ({"measures": None}, "measures"),
        ({"measures": [158]}, "measures"),
        ({"piece": {"kind": "linked_bracelet", "entries": {"a": 1}}}, "piece.entries"),
        ({"x": json.loads("[" * 260 + "]" * 260)}, "x.0.0.0.0.0"),
        ({"x": "y" * MOST_CHARS}, ""),
    ],
)
def test_what_could_not_be_opened_again_is_not_kept(
    client: Client, piece: Piece, brief: Row, change: Row, field: str
) -> None:
    before = Revision.objects.count()
    sent = {**brief, **change}
    saved = send(client, "PUT", f"/api/pieces/{piece.pk}/brief", {"version": 1, "brief": sent})
    assert problem(saved, 422)["field"] == field
    started = send(client, "POST", "/api/pieces", {"name": "Another", "brief": sent})
    assert problem(started, 422)["field"] == field
    planned = send(client, "POST", "/api/plan", {"brief": sent}).json()
    assert planned["plan"] is None
    assert planned["problems"][0]["field"] == field
    assert Revision.objects.count() == before
    assert client.get(f"/api/pieces/{piece.pk}").json()["version"] == 1


def test_the_longest_and_the_deepest_brief_is_kept(
    client: Client, piece: Piece, brief: Row
) -> None:
    free = MOST_CHARS - len(json.dumps({**brief, "x": ""}, ensure_ascii=False)) - 60
    deep = json.loads("[" * (DEEPEST - 1) + "]" * (DEEPEST - 1))
    for change in ({"x": "\u0416" * (free - 20)}, {"x": deep}):
        now = Piece.objects.get(pk=piece.pk).version
        body = {"version": now, "brief": {**brief, **change}}
        saved = send(client, "PUT", f"/api/pieces/{piece.pk}/brief", body)
        assert saved.status_code == 200, saved.content[:200]


NUMBER = "9" * 30
# Field at fault, how it is asked, what is sent; {p} stands for a piece, {s} for a reel.
FINDINGS: list[tuple[str, str, Any]] = [
    ("pieces", "GET /api/board?pieces=%C2%B2", ""),
    ("wearer_id", "POST /api/pieces", {"name": "A", "brief": {}, "wearer_id": 2**70}),
    ("name", "POST /api/pieces", {"name": "Two\rlines", "brief": {}}),
    ("name", "POST /api/wearers", {"name": "Wren\u202egnirB"}),
    ("name", "POST /api/wearers", {"name": "\ud800"}),
    ("amount", "POST /api/stock/{s}/movements", {"amount": "²", "reason": "used"}),
    ("amount", "POST /api/stock/{s}/movements", {"amount": NUMBER, "reason": "bought"}),
    ("amount", "POST /api/stock", {"stock": {**REEL, "amount": NUMBER}}),
    ("price", "POST /api/stock", {"stock": {**REEL, "price": "1e6"}}),
    ("price", "POST /api/stock", {"stock": {**REEL, "price": "٣"}}),
    ("name", "POST /api/stock", {"stock": {**REEL, "name": "x" * 81}}),
    ("wire", "POST /api/stock", {"stock": {**REEL, "wire": ["1 mm"]}}),
    ("actual", "POST /api/pieces/{p}/ticks", {"kind": "cut", "key": "a", "actual": "\ud800"}),
    ("version", "POST /api/pieces/{p}/undo", {"version": 2**80}),
]


@pytest.mark.parametrize(("field", "asked", "body"), FINDINGS)
def test_digits_that_are_none_and_text_that_is_none_name_their_field(
    client: Client, bench: Workshop, piece: Piece, field: str, asked: str, body: Any
) -> None:
    reel = add_stock(bench, REEL)
    method, path = asked.format(p=piece.pk, s=reel.pk).split(" ")
    found = problem(send(client, method, path, body), 422)
    assert found["field"].split(".")[0] == field
    assert found["detail"]


@pytest.mark.parametrize("taken", ["9999-12-31T23:59:59-12:00", "0001-01-01T00:00", "²026-10-03"])
def test_a_reading_from_the_end_of_time_is_refused(
    client: Client, bench: Workshop, taken: str
) -> None:
    wearer = send(client, "POST", "/api/wearers", {"name": "Wren"}).json()
    body = {"site": "wrist_girth", "readings": [{"value": "158", "taken": taken}]}
    answer = send(client, "PUT", f"/api/wearers/{wearer['id']}/readings", body)
    assert problem(answer, 422)["field"] == "readings.0.taken"
    line = f"name,site,value [mm],taken\nWren,wrist_girth,158,{taken}\n"
    done = send(client, "POST", "/api/measures", {"text": line, "commit": True}).json()
    assert [one["line"] for one in done["refused"]] == [2]
    assert not done["imported"]


@pytest.mark.parametrize(
    ("text", "line"),
    [
        ("name,site,value [mm]\nWren,wrist_girth," + "1" * (MOST_FIELD + 1) + "\n", 2),
        ('name,site,value [mm]\nWren,wrist_girth,"158\n', 2),
        ("name,site,value [mm]\n" + "W" * 81 + ",wrist_girth,158\n", 2),
        ("name,site,value [mm]\nWr\x07en,wrist_girth,158\n", 2),
    ],
)
def test_a_cell_that_is_none_names_its_line(client: Client, text: str, line: int) -> None:
    done = send(client, "POST", "/api/measures", {"text": text, "commit": True})
    assert done.status_code == 200
    assert done.json()["refused"][0]["line"] == line
    assert done.json()["refused"][0]["says"]


def test_line_ends_of_every_system_are_line_ends(client: Client) -> None:
    for end in ("\n", "\r\n", "\r"):
        text = end.join(
            ["name,site,value [mm]", "Wren,wrist_girth,158", "Sedge,wrist_girth,160", ""]
        )
        done = send(client, "POST", "/api/measures", {"text": text}).json()
        assert (done["names"], done["refused"]) == (["Sedge", "Wren"], [])


def test_a_file_as_long_as_is_promised_is_read(client: Client) -> None:
    header = "name,site,value [mm]\n"
    # Every character of it as long as JSON can make it.
    text = header + "\U0001f9f5" * (MOST_TEXT - len(header))
    raw = json.dumps({"text": text})
    assert len(raw) < settings.DATA_UPLOAD_MAX_MEMORY_SIZE
    assert send(client, "POST", "/api/measures", raw).status_code == 200
    longer = send(client, "POST", "/api/measures", {"text": text + "x"})
    assert problem(longer, 422)["field"] == "text"


def test_a_metal_that_was_taken_off_does_not_close_the_rack(client: Client) -> None:
    own = {"name": "Reed brass", "density": 8.5}
    shop = client.get("/api/shop").json()
    metals = [{"id": "reed_brass", **own}]
    kept = send(
        client, "PUT", "/api/shop", {"version": shop["version"], "shop": {"metals": metals}}
    )
    assert kept.status_code == 200
    stock = {**REEL, "wire": {"size": "1 mm", "metal": "reed_brass"}}
    assert send(client, "POST", "/api/stock", {"stock": stock}).status_code == 201
    send(client, "PUT", "/api/shop", {"version": shop["version"] + 1, "shop": {}})
    [row] = client.get("/api/stock").json()["stock"]
    assert row["diameter_mm"] is None
    assert "reed_brass" in row["problem"]


def test_answers_with_data_are_not_kept_by_any_cache(client: Client, piece: Piece) -> None:
    for path in ("/api/bench", f"/api/pieces/{piece.pk}", "/api/stock.csv", "/api/nowhere"):
        answer = client.get(path)
        assert answer["Cache-Control"] == "no-store"
        assert "camera=()" in answer["Permissions-Policy"]


def test_settings_of_old_that_can_not_be_read_open_the_bench(
    client: Client, bench: Workshop
) -> None:
    Workshop.objects.filter(pk=bench.pk).update(shop={"unit": "in", "formers": "a mandrel"})
    answer = client.get("/api/shop").json()
    assert answer["shop"]["unit"] == "in"
    assert client.get("/api/bench").status_code == 200


def test_the_bench_of_a_clock_that_was_set_back_keeps_what_came_last(
    client: Client, piece: Piece, brief: Row, monkeypatch: pytest.MonkeyPatch
) -> None:
    bare = timezone.now
    for i, days in enumerate((0, -400, -401)):
        monkeypatch.setattr(timezone, "now", lambda d=days: bare() + timedelta(days=d))
        changed = {**brief, "cutting": {"trim": str(i + 1)}}
        body = {"version": i + 1, "brief": changed}
        assert send(client, "PUT", f"/api/pieces/{piece.pk}/brief", body).status_code == 200
    # Each of them is a step of its own, in the order in which they came.
    for trim in ("2", "1"):
        now_at = Piece.objects.get(pk=piece.pk).version
        back = send(client, "POST", f"/api/pieces/{piece.pk}/undo", {"version": now_at})
        assert back.json()["brief"]["cutting"]["trim"] == trim


def test_whatever_an_old_row_holds_the_piece_opens(client: Client, piece: Piece) -> None:
    for held in ([1], "a brief", 7, {"piece": {"entries": 3}}, {"unit": ["in"]}, {"schema": 99}):
        Revision.objects.filter(piece=piece).update(brief=held)
        found = client.get(f"/api/pieces/{piece.pk}").json()
        assert found["plan"] is None
        assert found["problems"][0]["says"]
        assert isinstance(found["brief"]["piece"], dict)
        assert isinstance(found["brief"]["wire"], dict)
        assert client.get(f"/api/pieces/{piece.pk}/proposals").json() == {"proposals": []}
        assert client.get("/api/board", {"pieces": piece.pk}).status_code == 200
    assert workshop_pieces.refresh(piece.workshop) == 0
