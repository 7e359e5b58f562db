"""Bench mode, hand, log and day over the API: what goes in, what comes out, and what is refused."""

import io
from datetime import date
from typing import Any

import pytest
from django.test import Client
from PIL import Image

from jamreel.workshop.hands import put_on_record
from jamreel.workshop.models import HandRecord, LogEntry, Photo, Piece, Workshop
from jamreel.workshop.pieces import start_piece
from jamreel.workshop.stock import add_stock

Brief = dict[str, Any]
JSON = "application/json"


@pytest.fixture
def piece(bench: Workshop, brief: Brief) -> Piece:
    return start_piece(bench, "Bangle", {**brief, "cutting": {"school": "record"}})


def post(client: Client, path: str, body: Any, wanted: int = 200) -> Any:
    answer = client.post(path, body, content_type=JSON)
    assert answer.status_code == wanted, answer.content
    return answer.json() if answer.content else None


def test_a_piece_goes_through_bench_mode_into_the_log(client: Client, piece: Piece) -> None:
    at = f"/api/pieces/{piece.pk}/bench"
    view = client.get(at).json()
    assert view["at"] == view["steps"][0]["step"]["id"]
    cut = next(one for one in view["steps"] if one["cuts"])
    assert cut["figure"]["value"] == pytest.approx(cut["cuts"][0]["length_mm"])
    post(client, f"/api/pieces/{piece.pk}/ticks", {"kind": "cut", "key": cut["cuts"][0]["key"]})
    for _ in view["steps"]:
        now = client.get(at).json()
        step = next(one for one in now["steps"] if one["step"]["id"] == now["at"])
        for asked in step["asks"]:
            told = {asked["id"]: f"{asked['expected']:.2f}"}
            post(client, f"{at}/tell", {"key": now["at"], "told": told})
        if all(one["done"] for one in now["steps"]):
            break
        post(client, f"{at}/done", {"key": now["at"]})
    post(client, f"/api/pieces/{piece.pk}/finish", {"finished": True})
    page = client.get("/api/log?words=bang").json()
    assert [one["name"] for one in page["entries"]] == ["Bangle"]
    assert page["before"] is None
    full = client.get(f"/api/log/{page['entries'][0]['id']}").json()
    assert full["inside_made_mm"] == pytest.approx(full["inside_planned_mm"], abs=0.01)
    assert full["price"] is None
    hand = client.get("/api/hand").json()
    wire = next(one for one in hand["techniques"] if one["kind"] == "wire")
    assert (wire["name"], wire["own"]) == ("plain loop", 1)
    # As much was left as a hand leaves that takes what the sum says.
    assert wire["records"][0]["ratio"] == pytest.approx(1.0, abs=0.01)
    assert wire["low"] < wire["ratio"] < wire["long_enough"] <= wire["high"] + 1e-9
    text = client.get("/api/log.csv")
    assert text["Content-Type"].startswith("text/csv")
    assert b"Bangle" in text.content


def test_what_is_told_wrong_is_refused_at_its_field_and_kept_nowhere(
    client: Client, piece: Piece
) -> None:
    at = f"/api/pieces/{piece.pk}/bench"
    asks = {a["id"]: s["step"]["id"] for s in client.get(at).json()["steps"] for a in s["asks"]}
    wrong = post(client, f"{at}/tell", {"key": asks["inside"], "told": {"inside": "9 m"}}, 422)
    assert wrong["problems"][0]["field"] == "told.inside"
    assert "far from" in wrong["problems"][0]["says"]
    read = client.get(f"{at}/calliper", {"key": asks["inside"], "what": "inside"}).json()
    assert read["text"].endswith(" mm\r\n")
    post(client, f"{at}/tell", {"key": asks["inside"], "told": {"inside": read["text"]}})
    kept = next(s for s in client.get(at).json()["steps"] if s["step"]["id"] == asks["inside"])
    assert kept["told"]["inside"] == pytest.approx(float(read["text"].split()[0]))
    post(client, f"{at}/tell", {"key": asks["inside"], "told": {"inside": ""}})
    kept = next(s for s in client.get(at).json()["steps"] if s["step"]["id"] == asks["inside"])
    assert kept["told"] == {}
    post(client, f"{at}/done", {"key": "nothing"}, 409)
    post(client, f"{at}/count", {"key": "cut", "counted": -1}, 422)


def test_samples_and_what_is_set_aside(client: Client, bench: Workshop, brief: Brief) -> None:
    reel = add_stock(bench, {"kind": "reel", "wire": brief["wire"], "amount": "10 m"})
    body = {"kind": "loop", "stock_id": reel.pk, "pin": "2.6", "took": "14"}
    found = post(client, "/api/hand/samples", body)["techniques"][0]
    assert (found["own"], found["sureness"]) == (1, "hint")
    record = found["records"][0]["id"]
    post(client, f"/api/hand/records/{record}/aside", {"aside": True, "why": ""}, 422)
    aside = {"aside": True, "why": "pin slipped"}
    gone = post(client, f"/api/hand/records/{record}/aside", aside)["techniques"][0]
    assert (gone["own"], gone["sureness"], gone["records"][0]["why"]) == (0, "guess", "pin slipped")
    wrong = post(client, "/api/hand/samples", {**body, "took": "1 m"}, 422)
    assert wrong["problems"][0]["field"] == "took"


def test_settings_do_not_reach_what_is_on_record(
    client: Client, bench: Workshop, brief: Brief
) -> None:
    reel = add_stock(bench, {"kind": "reel", "wire": brief["wire"], "amount": "10 m"})
    body = {"kind": "loop", "stock_id": reel.pk, "pin": "2.6", "took": "14"}
    post(client, "/api/hand/samples", body)
    view = client.get("/api/shop").json()
    forged = {"lines": [{"technique": "loop", "stock": reel.key, "n": 99, "mean": 2}]}
    shop = {**view["typed"], "hand": forged, "pricing": {"hour": 12}}
    saved = client.put("/api/shop", {"version": view["version"], "shop": shop}, content_type=JSON)
    assert saved.json()["shop"]["hand"]["lines"][0]["n"] == 1
    assert saved.json()["shop"]["pricing"]["hour"] == 12
    bad = {"version": view["version"] + 1, "shop": {"pricing": {"share": 99}}}
    refused = client.put("/api/shop", bad, content_type=JSON)
    assert refused.json()["problems"][0]["field"] == "pricing.share"


def test_photographs_are_sent_shown_to_their_bench_and_taken_out(
    client: Client, stranger: Client, bench: Workshop
) -> None:
    entry = LogEntry.objects.create(
        workshop=bench,
        name="Crown",
        finished_on=date(2026, 10, 3),
        finished_at="2026-10-03T17:00:00Z",
    )
    at = f"/api/log/{entry.pk}/photos"
    out = io.BytesIO()
    # More bytes than any other request may have.
    Image.effect_noise((2600, 2600), 90).save(out, "PNG")
    assert len(out.getvalue()) > 5_000_000
    out.seek(0)
    out.name = "crown.png"
    answer = client.post(at, {"photo": out})
    assert answer.status_code == 200, answer.content
    photo = answer.json()["photos"][0]
    shown = client.get(f"/api/log/photos/{photo}.jpg")
    assert shown["Content-Type"] == "image/jpeg"
    assert Image.open(io.BytesIO(shown.content)).size == (1600, 1600)
    assert stranger.get(f"/api/log/photos/{photo}.jpg").status_code == 404
    text = io.BytesIO(b"#!/bin/sh")
    text.name = "crown.png"
    refused = client.post(at, {"photo": text})
    assert refused.status_code == 422
    assert "JPEG, PNG or WebP" in refused.json()["problems"][0]["says"]
    assert client.delete(f"/api/log/photos/{photo}").status_code == 204
    assert not Photo.objects.exists()


def test_a_day_is_chosen_planned_and_taken_into_a_calendar(client: Client, piece: Piece) -> None:
    day = client.get("/api/day?on=2026-12-01").json()
    assert day["lanes"] == []
    assert [one["id"] for one in day["candidates"]] == [piece.pk]
    assert client.get("/api/day.ics?on=2026-12-01").status_code == 404
    body = {
        "pieces": [piece.pk],
        "hours": day["hours"],
        "there_is": day["there_is"],
        "zone": "Europe/Amsterdam",
    }
    planned = client.put("/api/day?on=2026-12-01", body, content_type=JSON).json()
    assert planned["proven"] is True
    assert planned["begins"].endswith("+01:00")
    titles = [one["title"] for one in planned["lanes"][0]["placed"]]
    steps = client.get(f"/api/pieces/{piece.pk}/bench").json()["steps"]
    assert titles == [one["step"]["title"] for one in steps]
    calendar = client.get("/api/day.ics?on=2026-12-01")
    assert calendar["Content-Type"].startswith("text/calendar")
    assert calendar.content.startswith(b"BEGIN:VCALENDAR")
    wrong = {**body, "hours": [{"start": "noon", "end": "17:00"}]}
    refused = client.put("/api/day?on=2026-12-01", wrong, content_type=JSON)
    assert refused.json()["problems"][0]["field"] == "hours.0"
    # What was planned before stands.
    assert client.get("/api/day?on=2026-12-01").json()["lanes"][0]["placed"]
    lacking = {**body, "there_is": {**day["there_is"], "hands": 0}}
    assert client.put("/api/day?on=2026-12-01", lacking, content_type=JSON).status_code == 422


def test_another_like_one_of_the_log(client: Client, piece: Piece) -> None:
    post(client, f"/api/pieces/{piece.pk}/finish", {"finished": True})
    entry = LogEntry.objects.get()
    started = post(client, f"/api/log/{entry.pk}/again", {"name": "Once more"}, 201)
    again = client.get(f"/api/pieces/{started['id']}").json()
    assert again["name"] == "Once more"
    assert again["brief"]["piece"]["kind"] == "sliding_bangle"
    post(client, f"/api/log/{entry.pk}/again", {"name": ""}, 422)
    noted = client.put(f"/api/log/{entry.pk}/note", {"note": "fits well"}, content_type=JSON)
    assert noted.json()["note"] == "fits well"


def test_all_records_count_though_the_newest_alone_are_listed(
    client: Client, bench: Workshop
) -> None:
    many = [
        HandRecord(
            workshop=bench, kind="pace", technique="wire.cut", planned=1, took=2, source="minutes"
        )
        for _ in range(100)
    ]
    put_on_record(bench, many)
    found = client.get("/api/hand").json()["techniques"][0]
    assert (found["own"], found["sureness"], len(found["records"])) == (100, "sure", 80)
    assert found["ratio"] == pytest.approx((0.36 + 200) / 100.36)
