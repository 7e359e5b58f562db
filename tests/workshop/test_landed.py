"""A database as it was left before entries had names: it migrates, opens, and loses no tick."""

import json
import os
import sqlite3
import subprocess
import sys
from pathlib import Path
from typing import Any

import pytest

from tests.conftest import ROOT

KEPT = ROOT / "tests" / "kept" / "landed-3.sql"
LOOK = """
import json, sys
import django
django.setup()
from django.contrib.auth.models import User
from django.test import Client
from jamreel.workshop.models import Tick
client = Client()
client.force_login(User.objects.get(username="kept"), "django.contrib.auth.backends.ModelBackend")
pieces = [client.get(f"/api/pieces/{n}").json() for n in range(1, 7)]
ticks = [
    [t.piece_id, t.kind, t.key, t.planned, t.actual, t.named_by, t.what]
    for t in Tick.objects.filter(undone_at__isnull=True).order_by("id")
]
wire = next(w["key"] for w in pieces[0]["standing"]["wires"])
taken_back = client.post(
    "/api/pieces/1/ticks",
    json.dumps({"kind": "cut", "key": wire, "ticked": False}),
    content_type="application/json",
)
board = client.get("/api/board").json()
print(json.dumps({"pieces": pieces, "ticks": ticks, "back": taken_back.status_code,
                  "after": taken_back.json(), "board": board}))
"""


@pytest.fixture(scope="module")
def opened(tmp_path_factory: pytest.TempPathFactory) -> dict[str, Any]:
    """The kept database, migrated and opened by programs of their own, as a maker's would be."""
    data = tmp_path_factory.mktemp("landed")
    db = sqlite3.connect(data / "jamreel.sqlite3")
    db.executescript(KEPT.read_text())
    db.close()
    env = os.environ | {"JAMREEL_DATA": str(data), "PYTHONPATH": str(ROOT / "src")}
    env["DJANGO_SETTINGS_MODULE"] = "jamreel.site.settings"

    def run(*command: str) -> str:
        done = subprocess.run(
            [sys.executable, *command], env=env, capture_output=True, text=True, timeout=120
        )
        assert done.returncode == 0, done.stderr
        return done.stdout

    run("-m", "django", "migrate", "-v0")
    found: dict[str, Any] = json.loads(run("-c", LOOK))
    return found


def old_ticks() -> list[tuple[Any, ...]]:
    db = sqlite3.connect(":memory:")
    db.executescript(KEPT.read_text())
    asked = "select piece_id, kind, key, planned_mm, actual_mm from workshop_tick"
    return list(db.execute(f"{asked} where undone_at is null order by id"))


def by_name(opened: dict[str, Any], name: str) -> dict[str, Any]:
    return next(piece for piece in opened["pieces"] if piece["name"] == f"Kept {name}")


def test_every_tick_is_kept_with_its_lengths(opened: dict[str, Any]) -> None:
    kept = [tuple(tick[:5]) for tick in opened["ticks"]]
    assert kept == [
        (p, kind, key, planned, actual) for p, kind, key, planned, actual in old_ticks()
    ]
    assert {tick[5] for tick in opened["ticks"]} == {1}
    # What it was comes from the plan that was frozen with it.
    assert all(tick[6]["says"] for tick in opened["ticks"])


def test_every_piece_opens_with_a_plan(opened: dict[str, Any]) -> None:
    for piece in opened["pieces"]:
        assert piece["problems"] == []
        assert piece["plan"]["figures"]
        assert piece["brief"]["schema"] == 3


def test_presets_took_the_place_of_three_constructions(opened: dict[str, Any]) -> None:
    kinds = {piece["name"]: piece["brief"]["piece"]["kind"] for piece in opened["pieces"]}
    assert kinds["Kept strung-bracelet"] == "linked_bracelet"
    assert kinds["Kept chain-necklace"] == "pendant_chain"
    assert kinds["Kept forehead-chain"] == "forehead_drops"


def test_what_was_cut_is_found_again_by_its_length(opened: dict[str, Any]) -> None:
    bangle = by_name(opened, "bangle")
    (wire,) = bangle["standing"]["wires"]
    assert wire["verdict"] in ("right", "long", "short")
    links = by_name(opened, "links")
    old = [row for row in old_ticks() if row[0] == links["id"] and row[1] == "cut"]
    wires = links["standing"]["wires"]
    assert len(wires) == len(old)
    for one in wires:
        assert one["verdict"] != "not_needed"
        assert "/" in one["key"]


def test_nothing_that_was_cut_is_asked_for_again(opened: dict[str, Any]) -> None:
    links = by_name(opened, "links")
    done = {wire["key"] for wire in links["standing"]["wires"]}
    assert not done & set(links["standing"]["open_wires"])
    wanted = sum(cut["quantity"] for cut in links["plan"]["cuts"])
    assert len(links["standing"]["open_wires"]) == wanted - len(done)
    asked = {
        (cut["piece_id"], cut["key"])
        for group in opened["board"]["groups"]
        for lane in group["lanes"]
        for cut in lane["cuts"]
    }
    assert not asked & {(links["id"], key) for key in done}


def test_a_tick_of_then_can_be_taken_back_now(opened: dict[str, Any]) -> None:
    assert opened["back"] == 200
    assert opened["after"]["standing"].get("wires", []) == []
    assert opened["after"]["standing"]["open_wires"]


def test_the_kept_file_is_of_the_format_that_landed() -> None:
    db = sqlite3.connect(":memory:")
    db.executescript(Path(KEPT).read_text())
    columns = {row[1] for row in db.execute("pragma table_info(workshop_piece)")}
    assert "frozen_plan" in columns
    applied = [
        row[0] for row in db.execute("select name from django_migrations where app='workshop'")
    ]
    assert sorted(applied)[-1].startswith("0003")
