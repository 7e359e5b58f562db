"""Databases of each landed state: they migrate, open, and pass the check; what could be saved then
and not be opened again opens now."""

import json
import os
import sqlite3
import subprocess
import sys
from pathlib import Path
from typing import Any

import pytest

from tests.conftest import ROOT

KEPT = ROOT / "tests" / "kept"
STATES = {
    "landed-1": "0001",
    "landed-2": "0002",
    "landed-3": "0003",
    "landed-4": "0004",
    "landed-5": "0005",
}
LOOK = """
import json
import django
django.setup()
from django.contrib.auth.models import User
from django.test import Client
from jamreel.workshop.models import Piece, Wearer
client = Client()
client.force_login(User.objects.get(username="kept"), "django.contrib.auth.backends.ModelBackend")
ids = Piece.objects.order_by("id").values_list("id", flat=True)
pieces = [client.get(f"/api/pieces/{n}") for n in ids]
bad = [p.json() for p in pieces if p.status_code == 200 and not p.json()["readable"]]

def send(method, path, body):
    return client.generic(method, path, json.dumps(body), content_type="application/json")

after = []
for i, one in enumerate(bad):
    path = f"/api/pieces/{one['id']}"
    if i % 2:
        done = send("POST", path + "/undo", {"version": one["version"]})
    else:
        brief = {**one["brief"], "piece": {"kind": "sliding_bangle"}}
        done = send("PUT", path + "/brief", {"version": one["version"], "brief": brief})
    after.append([done.status_code, done.json().get("readable")])
print(json.dumps({
    "status": [p.status_code for p in pieces],
    "bench": client.get("/api/bench").status_code,
    "board": client.get("/api/board").status_code,
    "bad": bad,
    "after": after,
    "wearers": list(Wearer.objects.order_by("id").values_list("name", flat=True)),
    "users": list(User.objects.order_by("id").values_list("username", flat=True)),
}))
"""


def opened(name: str, data: Path) -> dict[str, Any]:
    """A kept database, migrated, looked at and checked by programs of their own."""
    db = sqlite3.connect(data / "jamreel.sqlite3")
    db.executescript((KEPT / f"{name}.sql").read_text())
    db.close()
    env = os.environ | {"JAMREEL_DATA": str(data), "PYTHONPATH": str(ROOT / "src")}
    env["DJANGO_SETTINGS_MODULE"] = "jamreel.site.settings"

    def run(*command: str) -> str:
        done = subprocess.run(
            [sys.executable, *command], env=env, capture_output=True, text=True, timeout=120
        )
        assert done.returncode == 0, done.stdout + done.stderr
        return done.stdout

    run("-m", "django", "migrate", "-v0")
    found: dict[str, Any] = json.loads(run("-c", LOOK))
    found["check"] = run("-m", "jamreel", "check")
    return found


@pytest.mark.parametrize("name", STATES)
def test_the_kept_file_is_of_its_state(name: str) -> None:
    db = sqlite3.connect(":memory:")
    db.executescript((KEPT / f"{name}.sql").read_text())
    applied = db.execute("select max(name) from django_migrations where app='workshop'")
    assert applied.fetchone()[0].startswith(STATES[name])


@pytest.mark.parametrize("name", STATES)
def test_a_database_of_each_landed_state_opens(name: str, tmp_path: Path) -> None:
    found = opened(name, tmp_path)
    assert set(found["status"]) == {200}
    assert (found["bench"], found["board"]) == (200, 200)
    assert "All is well." in found["check"]
    assert len(set(found["wearers"])) == len(found["wearers"])
    if name == "landed-4":
        _what_could_not_be_opened(found)


def _what_could_not_be_opened(found: dict[str, Any]) -> None:
    assert found["wearers"] == ["Wren of Reed", "Wren of Reed (2)", "Wren of Reed (3)"]
    assert found["users"] == ["kept", "sedge"]
    bad = {one["name"]: one for one in found["bad"]}
    assert sorted(bad) == ["Bad 0", "Bad 1", "Bad 2", "Bad 3"]
    fields = {name: one["problems"][0]["field"] for name, one in bad.items()}
    assert fields["Bad 0"] == "piece"
    assert fields["Bad 1"] == "note"
    assert fields["Bad 2"].startswith("deep")
    # What can be read of it is there, and each can be mended or put back.
    assert all(one["plan"] is None and one["can_undo"] for one in bad.values())
    assert bad["Bad 1"]["brief"]["measures"]["wrist_girth"]["readings"]
    assert found["after"] == [[200, True]] * 4
