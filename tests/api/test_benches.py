"""The bench, cards, facts and settings over the API."""

import json
from typing import Any

import pytest
from django.test import Client

from jamreel.core.families import registered


def send(client: Client, method: str, path: str, body: dict[str, Any]) -> Any:
    return client.generic(method, path, json.dumps(body), content_type="application/json")


def start(client: Client, brief: dict[str, Any], name: str, **more: Any) -> dict[str, Any]:
    new = {"name": name, "brief": brief, **more}
    answer: dict[str, Any] = send(client, "POST", "/api/pieces", new).json()
    return answer


def test_the_bench_lists_what_is_due_first(client: Client, brief: dict[str, Any]) -> None:
    start(client, brief, "Later", due="2026-12-20")
    start(client, brief, "Undated")
    start(client, brief, "Sooner", due="2026-12-01")
    pieces = client.get("/api/bench").json()["pieces"]
    assert [p["name"] for p in pieces] == ["Sooner", "Later", "Undated"]
    assert pieces[0]["answer"]["id"] == "cut"
    assert pieces[0]["made_of"] == "sliding-loop bangle · 14 AWG (1.63 mm) copper"


def test_a_card_is_changed_without_touching_the_brief(
    client: Client, brief: dict[str, Any]
) -> None:
    piece = start(client, brief, "Bangle")
    path = f"/api/pieces/{piece['id']}/card"
    changed = send(client, "PUT", path, {"name": "Ferry bangle", "due": "2026-12-04"}).json()
    assert (changed["name"], changed["due"], changed["version"]) == (
        "Ferry bangle",
        "2026-12-04",
        piece["version"],
    )
    assert send(client, "PUT", path, {"name": ""}).json()["field"] == "name"
    assert send(client, "PUT", path, {"name": "x", "due": "soon"}).status_code == 422


def test_facts_describe_every_construction_so_that_a_screen_can_ask_for_it(client: Client) -> None:
    facts = client.get("/api/facts").json()
    kinds = {kind["kind"]: kind for kind in facts["kinds"]}
    assert set(kinds) == set(registered())
    ear = {choice["name"]: choice for choice in kinds["ear_cuff"]["choices"]}
    assert ear["ends"]["options"] == ["filed", "curled", "balled"]
    assert (ear["grip"]["type"], ear["grip"]["low"], ear["grip"]["high"]) == ("number", 0.3, 1.0)
    presets = {one["name"]: one for kind in facts["kinds"] for one in kind["presets"]}
    assert set(presets) == {"strung_bracelet", "chain_necklace", "forehead_chain"}
    assert presets["strung_bracelet"]["says"] == "strung bracelet"
    assert [line["name"] for line in kinds["forehead_drops"]["lines"]] == ["entries", "parting"]
    assert kinds["open_cuff"]["lines"] == []
    assert kinds["open_cuff"]["choices"][-1]["type"] == "length"
    sites = {site["id"] for site in facts["sites"]}
    for kind in kinds.values():
        assert set(kind["sites"]) | set(kind["helps"]) <= sites
    assert {m["id"] for m in facts["methods"]} >= {"tape", "calliper", "piece"}


@pytest.mark.parametrize("kind", sorted(registered()))
def test_a_piece_of_every_construction_starts_from_its_kind_alone(
    client: Client, kind: str
) -> None:
    piece = start(client, {"piece": {"kind": kind}, "wire": {"size": "14 awg"}}, kind)
    if not piece["sites"]:
        assert piece["plan"] is not None  # what hangs from an ear needs no measure
        return
    assert piece["plan"] is None
    assert piece["waits_for"] == "measure"
    assert {p["key"] for p in piece["problems"]} == {"no_reading"}
    assert [p["field"] for p in piece["problems"]] == [f"measures.{s}" for s in piece["sites"]]


def test_an_ear_cuff_asks_for_the_rim_where_it_sits(client: Client) -> None:
    brief = {"piece": {"kind": "ear_cuff", "place": "lower"}, "wire": {"size": "1 mm"}}
    assert start(client, brief, "Cuff")["sites"] == ["ear_rim_depth", "ear_rim_lower"]
    brief["piece"]["place"] = "lobe"
    assert start(client, brief, "Cuff")["sites"] == ["ear_rim_depth", "ear_rim_middle"]
    nothing = start(client, {"piece": {"kind": "anklet"}}, "Cuff")
    assert nothing["sites"] == []
    assert nothing["plan"] is None


def test_an_inch_bench_keeps_meaning_when_it_turns_metric(
    client: Client, brief: dict[str, Any]
) -> None:
    settings = {"version": 1, "shop": {"unit": "in"}}
    assert send(client, "PUT", "/api/shop", settings).status_code == 200
    brief["measures"]["wrist_girth"]["readings"] = [{"value": "6 1/4"}]
    brief["measures"]["hand_pass_girth"]["readings"] = [{"value": "8"}]
    brief["cutting"] = {}
    piece = start(client, brief, "Bangle")
    assert piece["brief"]["unit"] == "in"
    before = piece["plan"]["cuts"][0]["length_mm"]
    send(client, "PUT", "/api/shop", {"version": 2, "shop": {"unit": "mm"}})
    after = client.get(f"/api/pieces/{piece['id']}").json()
    assert after["plan"]["cuts"][0]["length_mm"] == before
    assert after["plan"]["steps"][1]["title"].endswith(" mm")


def test_a_wearer_is_changed_and_keeps_a_history(client: Client) -> None:
    wearer = send(client, "POST", "/api/wearers", {"name": "Alder", "part": "Reed"}).json()
    path = f"/api/wearers/{wearer['id']}"
    changed = send(client, "PUT", path, {"name": "Alder Finch", "note": "left-handed"}).json()
    assert (changed["name"], changed["part"], changed["note"]) == ("Alder Finch", "", "left-handed")
    for value in ("158", "160"):
        reading = {"value": value, "taken": "2026-11-02T18:40"}
        send(client, "PUT", f"{path}/readings", {"site": "wrist_girth", "readings": [reading]})
    history = client.get("/api/wearers").json()[0]["readings"]
    assert [(r["typed"]["value"], r["replaced"]) for r in history] == [
        ("160", False),
        ("158", True),
    ]
    assert history[0]["typed"]["taken"].startswith("2026-11-02T18:40")
    cleared = send(client, "PUT", f"{path}/readings", {"site": "wrist_girth", "readings": []})
    assert cleared.json()["girths"] == []
