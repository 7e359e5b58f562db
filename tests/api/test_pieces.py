"""Pieces over the API: as typed in, problems out, live enough to type by."""

import io
import json
from typing import Any

import pdfplumber
import pytest
from django.test import Client

from jamreel.workshop.models import Piece
from tests.conftest import put_away
from tests.counting import calls


def put(client: Client, path: str, body: dict[str, Any]) -> Any:
    return client.put(path, json.dumps(body), content_type="application/json")


def post(client: Client, path: str, body: dict[str, Any]) -> Any:
    return client.post(path, json.dumps(body), content_type="application/json")


@pytest.fixture
def piece(client: Client, brief: dict[str, Any]) -> dict[str, Any]:
    answer = post(client, "/api/pieces", {"name": "Bangle", "brief": brief, "due": "2026-12-04"})
    assert answer.status_code == 201
    started: dict[str, Any] = answer.json()
    return started


def test_a_piece_comes_with_its_plan(piece: dict[str, Any]) -> None:
    assert piece["plan"]["schema"] == "0.2"
    assert piece["plan"]["cuts"][0]["length_mm"] == pytest.approx(245.53, abs=0.01)
    assert piece["plan"]["advice"][0]["try"]
    assert piece["waits_for"] == "cut"
    assert not piece["can_undo"]


def test_a_save_answers_with_plan_or_problems_and_keeps_both(
    client: Client, piece: dict[str, Any]
) -> None:
    path = f"/api/pieces/{piece['id']}/brief"
    brief = {**piece["brief"], "wire": {"size": "0.08"}}
    saved = put(client, path, {"version": 1, "brief": brief}).json()
    assert saved["plan"] is None
    assert saved["problems"][0]["field"] == "wire.size"
    assert "0.8 mm" in saved["problems"][0]["says"]
    assert saved["brief"] == brief
    stale = put(client, path, {"version": 1, "brief": piece["brief"]})
    assert stale.status_code == 409
    assert (stale.json()["version"], stale.json()["brief"]) == (2, brief)
    back = post(client, f"/api/pieces/{piece['id']}/undo", {"version": 2}).json()
    assert back["brief"] == piece["brief"]
    assert back["can_redo"]


@pytest.mark.parametrize(
    ("body", "status"),
    [
        (b'{"version": 1, "brief": {"wire": {"size": NaN}}}', 400),
        (b"{", 400),
        (b'{"version": true, "brief": {}}', 422),
        (b'{"version": 1, "brief": []}', 422),
        (b'{"version": 0, "brief": {}}', 422),
    ],
)
def test_what_is_no_save_is_refused(
    client: Client, piece: dict[str, Any], body: bytes, status: int
) -> None:
    path = f"/api/pieces/{piece['id']}/brief"
    answer = client.put(path, body, content_type="application/json")
    assert answer.status_code == status
    assert answer.json()["status"] == status
    assert client.get(f"/api/pieces/{piece['id']}").json()["version"] == 1


def test_planning_without_keeping(client: Client, brief: dict[str, Any]) -> None:
    worked = post(client, "/api/plan", {"brief": brief}).json()
    assert worked["plan"]["figures"][0]["value_mm"] == pytest.approx(245.53, abs=0.01)
    assert post(client, "/api/plan", {"brief": {"wire": 3}}).json()["plan"] is None
    assert not Piece.objects.exists()


def test_what_a_keystroke_costs_does_not_grow_with_how_many_there_were(
    client: Client, piece: dict[str, Any], django_assert_max_num_queries: Any
) -> None:
    path = f"/api/pieces/{piece['id']}/brief"
    version, costs = 1, []

    def keystroke() -> None:
        nonlocal version
        trim = f"{1 + version / 10:.1f}"
        brief = {**piece["brief"], "cutting": {"trim": trim}}
        version = put(client, path, {"version": version, "brief": brief}).json()["version"]

    keystroke()
    with django_assert_max_num_queries(45):
        keystroke()
    for _ in range(12):
        costs.append(calls(keystroke))
    assert max(costs) < 60_000
    assert max(costs) < 1.1 * min(costs)


def test_ticking_trying_on_and_finishing(client: Client, piece: dict[str, Any]) -> None:
    base = f"/api/pieces/{piece['id']}"
    cut = {"kind": "cut", "key": "bangle", "actual": "245.0"}
    ticked = post(client, f"{base}/ticks", cut).json()
    assert ticked["ticks"][0]["actual"] == 245.0
    (wire,) = ticked["standing"]["wires"]
    assert (wire["verdict"], wire["known"]) == ("short", True)
    assert wire["by_mm"] == pytest.approx(0.53, abs=0.01)
    assert post(client, f"{base}/ticks", cut).status_code == 409
    assert post(client, f"{base}/ticks", {**cut, "key": "other"}).status_code == 409
    noted = {"noted": {"open_inside_girth": "216"}}
    tried = post(client, f"{base}/tryons/answer", noted).json()
    assert tried["answer"]["amount_mm"] == pytest.approx(11)
    kept = post(client, f"{base}/tryons", noted).json()
    assert kept["answer_now"]["label"] == "take off"
    record = kept["tryons"][0]["id"]
    assert post(client, f"{base}/tryons/{record}/done", {}).json()["tryons"][0]["done"]
    assert post(client, f"{base}/finish", {"finished": True}).json()["waits_for"] == "done"
    put_away(client, "piece", piece["id"])
    assert client.get("/api/bench").json()["pieces"] == []


@pytest.mark.parametrize("slip", ["20.5", "2050", "about a hand", {"mm": 205}])
def test_a_slip_at_a_try_on_is_refused_at_its_field_and_touches_nothing(
    client: Client, piece: dict[str, Any], slip: Any
) -> None:
    base = f"/api/pieces/{piece['id']}"
    noted = {"noted": {"open_inside_girth": slip}}
    told = post(client, f"{base}/tryons/answer", noted).json()
    assert told["answer"] is None
    assert told["problems"][0]["field"] == "tryon.open_inside_girth"
    refused = post(client, f"{base}/tryons", noted)
    assert refused.status_code == 422
    assert refused.json()["field"] == "tryon.open_inside_girth"
    after = client.get(base).json()
    assert after["plan"] is not None
    assert (after["version"], after["brief"], after["tryons"]) == (1, piece["brief"], [])
    assert after["stations"] == piece["stations"]
    # Nor does it come in with a brief.
    brief = {**piece["brief"], "tryon": noted["noted"]}
    saved = put(client, f"{base}/brief", {"version": 1, "brief": brief}).json()
    assert saved["plan"] is not None
    assert saved["version"] == 1


@pytest.mark.parametrize(("typed", "likely"), [("2460", "246"), ("24.6", "246"), ("900", "")])
def test_a_slip_at_a_cut_is_asked_about_and_taken_when_it_is_so(
    client: Client, piece: dict[str, Any], typed: str, likely: str
) -> None:
    path = f"/api/pieces/{piece['id']}/ticks"
    cut = {"kind": "cut", "key": "bangle", "actual": typed}
    asked = post(client, path, cut)
    assert asked.status_code == 422
    problem = asked.json()["problems"][0]
    assert (problem["field"], problem["key"].startswith("cut_far")) == ("made.bangle", True)
    assert f"Was {likely}.0 mm meant?" in problem["says"] if likely else "Is it so?"
    assert client.get(f"/api/pieces/{piece['id']}").json()["ticks"] == []
    sure = post(client, path, {**cut, "sure": True}).json()
    assert sure["ticks"][0]["actual"] == float(typed)


def test_a_wrong_number_keeps_the_last_plan_to_look_at_and_nothing_to_work_by(
    client: Client, piece: dict[str, Any]
) -> None:
    base = f"/api/pieces/{piece['id']}"
    version = 1
    for typed in ("1", "1.", "1.5.", "nonsense"):
        brief = {**piece["brief"], "cutting": {"trim": typed}}
        body = {"version": version, "brief": brief}
        wrong = put(client, f"{base}/brief", body).json()
        version = wrong["version"]
    assert wrong["plan"] is None
    assert wrong["problems"][0]["field"] == "cutting.trim"
    # The last that could be read: a trim of 1 mm at either end, as the ledger says.
    cut = wrong["before"]["cuts"][0]["length_mm"]
    assert cut == pytest.approx(piece["plan"]["cuts"][0]["length_mm"], abs=4)
    assert [line["label"] for line in wrong["before"]["ledger"]] == [
        line["label"] for line in piece["plan"]["ledger"]
    ]
    assert client.get(base).json()["before"] == wrong["before"]
    for path in ("card.pdf", "strip.pdf", "wires"):
        assert client.get(f"{base}/{path}").status_code == 422
    cut_it = {"kind": "cut", "key": "bangle", "ticked": True}
    assert post(client, f"{base}/ticks", cut_it).status_code == 409


def test_wearers_and_their_readings(client: Client, brief: dict[str, Any]) -> None:
    wearer = post(client, "/api/wearers", {"name": "Alder Finch"}).json()
    path = f"/api/wearers/{wearer['id']}/readings"
    bad = put(client, path, {"site": "wrist_girth", "readings": [{"value": "58"}]})
    assert bad.status_code == 422
    assert bad.json()["field"] == "measures.wrist_girth.readings.0.value"
    good = [{"value": "158"}, {"value": "159"}]
    kept = put(client, path, {"site": "wrist_girth", "readings": good}).json()
    assert kept["girths"][0]["value_mm"] == 158.5
    del brief["measures"]["wrist_girth"]
    new = {"name": "For Alder", "brief": brief, "wearer_id": wearer["id"]}
    piece = post(client, "/api/pieces", new).json()
    assert piece["plan"]["inside_girth_mm"]["value"] == 171.5
    assert piece["wearer"]["name"] == "Alder Finch"


def test_a_whole_cast_at_once(client: Client) -> None:
    cells = [
        {"name": "Alder", "part": "the Reed", "site": "wrist_girth", "reading": {"value": "158"}},
        {"name": "Alder", "site": "neck_base_girth", "reading": {"value": "380"}},
        {"name": "Wren", "site": "head_girth", "reading": {"value": "56"}},
    ]
    wrong = post(client, "/api/cast", {"cells": cells, "commit": True}).json()
    assert not wrong["imported"]
    assert wrong["refused"][0]["line"] == 2
    assert client.get("/api/wearers").json() == []
    cells[2]["reading"] = {"value": "560"}
    assert post(client, "/api/cast", {"cells": cells, "commit": True}).json()["imported"]
    assert {w["name"] for w in client.get("/api/wearers").json()} == {"Alder", "Wren"}
    out = client.get("/api/measures.csv").content.decode()
    assert "Alder,the Reed,,neck_base_girth,380" in out
    again = post(client, "/api/measures", {"text": out}).json()
    assert (again["readings"], again["new_names"], again["imported"]) == (3, [], False)


def test_a_childs_piece_carries_the_cautions_that_concern_children(
    client: Client, brief: dict[str, Any]
) -> None:
    child = post(client, "/api/wearers", {"name": "Lio", "is_child": True}).json()
    new = {"name": "Band", "brief": brief, "wearer_id": child["id"]}
    piece = post(client, "/api/pieces", new).json()
    assert "child" in {c["id"] for c in piece["plan"]["cautions"]}
    assert piece["brief"]["child"] is False


def test_settings_are_refused_by_field_and_change_every_piece(
    client: Client, piece: dict[str, Any]
) -> None:
    shop = client.get("/api/shop").json()
    words = {"snug": 20, "comfortable": 13, "loose": 22}
    bad = {"ease": {"neck": {"fixed_mm": words}}}
    refused = put(client, "/api/shop", {"version": shop["version"], "shop": bad})
    assert refused.json()["field"] == "ease.neck.fixed_mm"
    tins = {"formers": [{"name": "tin", "kind": "household", "diameters": ["52"]}]}
    saved = put(client, "/api/shop", {"version": shop["version"], "shop": tins}).json()
    assert saved["shop"]["formers"][0]["diameters"] == [52.0]
    after = client.get(f"/api/pieces/{piece['id']}").json()
    assert after["plan"]["formers"][0]["tool"] == "tin"
    late = put(client, "/api/shop", {"version": shop["version"], "shop": tins})
    assert late.status_code == 409


MM = 72 / 25.4


def upright(page: Any) -> list[tuple[float, float]]:
    """Vertical strokes of a page as (x from the strip's left end, height), both in mm."""
    return [
        ((line["x0"] / MM) - 12.0, (line["bottom"] - line["top"]) / MM)
        for line in page.lines
        if abs(line["x0"] - line["x1"]) < 1e-3
    ]


@pytest.mark.parametrize("paper", ["a4", "letter"])
def test_the_bench_strip_is_true_to_scale(
    client: Client, piece: dict[str, Any], paper: str
) -> None:
    answer = client.get(f"/api/pieces/{piece['id']}/strip.pdf?paper={paper}")
    with pdfplumber.open(io.BytesIO(answer.content)) as pdf:
        (page,) = pdf.pages
        across = [(line["x1"] - line["x0"]) / MM for line in page.lines if line["x1"] > line["x0"]]
        assert any(length == pytest.approx(100.0, abs=0.1) for length in across)
        assert any(length == pytest.approx(101.6, abs=0.1) for length in across)
        places = [x for x, height in upright(page) if height > 7]
        for mark in piece["plan"]["cuts"][0]["marks"]:
            assert any(x == pytest.approx(mark["at_mm"], abs=0.1) for x in places), mark
        assert "Print at 100 %" in page.extract_text()


def test_a_long_wire_goes_over_tiles_that_join(client: Client, piece: dict[str, Any]) -> None:
    brief = {**piece["brief"], "cutting": {"trim": "1.5", "margin": "120"}}
    path = f"/api/pieces/{piece['id']}"
    longer = put(client, f"{path}/brief", {"version": 1, "brief": brief}).json()
    cut = longer["plan"]["cuts"][0]
    assert cut["length_mm"] > 270
    answer = client.get(f"{path}/strip.pdf?paper=a4")
    with pdfplumber.open(io.BytesIO(answer.content)) as pdf:
        (page,) = pdf.pages  # two tiles, one above the other
        text = page.extract_text()
        assert text.count("join 1") == 2
        assert "part 2 of 2" in text
        assert any(x == pytest.approx(270, abs=0.1) for x, h in upright(page) if h > 25)
        end = cut["length_mm"] - 270
        assert any(x == pytest.approx(end, abs=0.1) for x, h in upright(page) if h > 7)


def test_a_keystroke_asks_the_database_little(
    client: Client, piece: dict[str, Any], django_assert_max_num_queries: Any
) -> None:
    brief = {**piece["brief"], "cutting": {"trim": "2"}}
    path = f"/api/pieces/{piece['id']}/brief"
    with django_assert_max_num_queries(20):
        saved = put(client, path, {"version": 1, "brief": brief})
    assert saved.status_code == 200
    assert saved.json()["can_undo"]


def test_what_can_be_undone_and_redone_is_said_through_a_burst(
    client: Client, piece: dict[str, Any]
) -> None:
    path = f"/api/pieces/{piece['id']}"
    assert (piece["can_undo"], piece["can_redo"]) == (False, False)
    for n, trim in enumerate(("2", "2.1", "2.15")):
        cutting = {**piece["brief"]["cutting"], "trim": trim}
        brief = {**piece["brief"], "cutting": cutting}
        now = put(client, f"{path}/brief", {"version": 1 + n, "brief": brief}).json()
        assert (now["can_undo"], now["can_redo"]) == (True, False)
    # Three digits of one number are one step.
    back = post(client, f"{path}/undo", {"version": now["version"]}).json()
    assert back["brief"]["cutting"] == piece["brief"]["cutting"]
    assert (back["can_undo"], back["can_redo"]) == (False, True)
    again = post(client, f"{path}/redo", {"version": back["version"]}).json()
    assert again["brief"]["cutting"]["trim"] == "2.15"
    assert (again["can_undo"], again["can_redo"]) == (True, False)


def test_settings_that_change_are_read_anew(client: Client, piece: dict[str, Any]) -> None:
    shop = client.get("/api/shop").json()
    typed = {**shop["typed"], "keep_length": "95"}
    assert put(client, "/api/shop", {"version": shop["version"], "shop": typed}).status_code == 200
    assert client.get("/api/shop").json()["shop"]["keep_length"] == 95
