"""What hands make, over the API: bead lists, how a piece is made, the outline to print."""

import json
from typing import Any

import pytest
from django.test import Client

from tests.api.test_benches import send, start
from tests.conftest import EXAMPLES


def example(name: str) -> dict[str, Any]:
    brief: dict[str, Any] = json.loads((EXAMPLES / f"{name}.json").read_text())
    return brief


def test_an_outline_is_printed_of_what_is_shaped_and_of_nothing_else(
    client: Client, stranger: Client
) -> None:
    cuff = start(client, example("open-cuff"), "Cuff")
    path = f"/api/pieces/{cuff['id']}/outline.pdf"
    answer = client.get(path, {"paper": "letter"})
    assert answer.status_code == 200
    assert answer.content.startswith(b"%PDF")
    assert client.get(path, {"paper": "a0"}).status_code == 422
    assert stranger.get(path).status_code == 404
    links = start(client, example("linked-bracelet"), "Links")
    assert client.get(f"/api/pieces/{links['id']}/outline.pdf").status_code == 404


def test_how_a_piece_is_made_is_kept_and_changes_its_steps(client: Client) -> None:
    brief = example("open-cuff")
    piece = start(client, brief, "Cuff")
    brief["making"] = {"shaped_by": "hands", "hammer": "steel", "finish": ["polish"]}
    body = {"version": piece["version"], "brief": brief}
    saved = send(client, "PUT", f"/api/pieces/{piece['id']}/brief", body).json()
    steps = [one["id"] for one in saved["plan"]["steps"]]
    assert {"shape", "steel", "polish"} <= set(steps)
    assert saved["brief"]["making"].items() >= brief["making"].items()
    brief["making"] = {"hammer": "anvil", "finish": ["gild"]}
    body = {"version": saved["version"], "brief": brief}
    wrong = send(client, "PUT", f"/api/pieces/{piece['id']}/brief", body).json()
    assert {one["field"] for one in wrong["problems"]} == {"making.hammer", "making.finish.0"}
    # What was typed is kept all the same.
    assert wrong["brief"]["making"] == brief["making"]


def test_a_list_of_beads_is_wrong_at_the_bead_that_is_wrong(client: Client) -> None:
    brief = example("own-last-loop")
    brief["piece"]["entries"][0]["part"]["row"][1]["hole"] = "a hair"
    piece = start(client, brief, "Pearls")
    fields = [one["field"] for one in piece["problems"]]
    assert fields == ["piece.entries.0.part.row.1.hole"]


def test_the_shelf_says_what_a_list_and_a_piece_ask(client: Client) -> None:
    facts = client.get("/api/facts").json()
    assert [one["name"] for one in facts["beads"]][:2] == ["bead", "bead_length"]
    kinds = {one["kind"]: one for one in facts["kinds"]}
    assert kinds["coil_bracelet"]["hangs"]
    assert not kinds["open_cuff"]["hangs"]
    parts = {one["kind"]: one for one in facts["parts"]}
    assert parts["tassel"]["defaults"]["sections"]
    assert parts["swag"]["defaults"]["link"]["kind"] == "chain"
    swirl = next(one for one in parts["linked_bead"]["choices"] if one["name"] == "swirl_turns")
    assert (swirl["if_field"], swirl["if_values"]) == ("ends_in", ["swirl"])
    hook = next(one for one in facts["closures"] if one["kind"] == "folded_hook")
    ring = next(one for one in hook["choices"] if one["name"] == "into_pin")
    assert "own" not in ring["if_values"]
    assert len(ring["if_values"]) == 4


@pytest.mark.parametrize("name", ["brooch", "swag-necklace", "tassel-of-sections"])
def test_a_piece_of_the_new_forms_is_kept_tried_on_and_undone(client: Client, name: str) -> None:
    brief = example(name)
    piece = start(client, brief, name)
    assert piece["problems"] == []
    assert piece["plan"]["figures"]
    changed = {**brief, "piece": {**brief["piece"], "rings": 2}}
    body = {"version": piece["version"], "brief": changed}
    saved = send(client, "PUT", f"/api/pieces/{piece['id']}/brief", body).json()
    before, after = (one["plan"]["finished_length_mm"]["value"] for one in (piece, saved))
    # One that is counted by the plan is counted anew.
    assert after > before or brief["piece"].get("counted")
    assert after != before


def test_half_a_character_is_refused_in_words(client: Client) -> None:
    answer = send(client, "POST", "/api/plan", {"brief": {"piece": {"kind": "\ud800"}}})
    assert answer.status_code < 500
    assert "half a character" in answer.content.decode()
