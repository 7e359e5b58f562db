"""The ground under it: secrets, database settings, free ports, the page."""

import os
import socket
import stat
import subprocess
import sys
from pathlib import Path

import pytest
from django.conf import settings
from django.db import connection
from django.test import Client

from jamreel.site.serving import PORTS_TO_TRY, free_port


def test_the_database_is_in_wal_mode_with_foreign_keys_and_patience(db: None) -> None:
    with connection.cursor() as cursor:
        assert cursor.execute("PRAGMA journal_mode").fetchone()[0] == "wal"
        assert cursor.execute("PRAGMA foreign_keys").fetchone()[0] == 1
        assert cursor.execute("PRAGMA busy_timeout").fetchone()[0] >= 5000
    assert settings.DATABASES["default"]["OPTIONS"]["transaction_mode"] == "IMMEDIATE"


def test_a_secret_is_made_on_the_first_run_kept_and_readable_by_its_owner_alone(
    tmp_path: Path,
) -> None:
    script = "from jamreel.site import settings; print(settings.SECRET_KEY)"
    environment = {**os.environ, "JAMREEL_DATA": str(tmp_path / "data")}
    secrets = [
        subprocess.run(
            [sys.executable, "-c", script],
            env=environment,
            capture_output=True,
            text=True,
            check=True,
        ).stdout
        for _ in range(2)
    ]
    assert secrets[0] == secrets[1]
    assert len(secrets[0].strip()) > 50
    kept = tmp_path / "data" / "secret_key"
    assert stat.S_IMODE(kept.stat().st_mode) == 0o600


def test_another_port_is_taken_when_one_is_taken() -> None:
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        port = taken.getsockname()[1]
        found = free_port(port)
        assert port < found < port + PORTS_TO_TRY


def test_every_address_but_the_api_is_the_page(client: Client) -> None:
    for path in ("/", "/pieces/3/cut", "/wearers"):
        answer = client.get(path)
        assert answer.status_code == 200
        assert settings.CSRF_COOKIE_NAME in answer.cookies
        assert answer["Cache-Control"] == "no-store"
    assert client.get("/api/nowhere").status_code == 404


def test_a_front_end_that_was_not_built_says_so(
    client: Client, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(settings, "FRONTEND", tmp_path)
    answer = client.get("/")
    assert answer.status_code == 503
    assert b"make build" in answer.content


def test_scripts_and_fonts_ship_with_it() -> None:
    page = (settings.FRONTEND / "index.html").read_text()
    assert "http" not in page.replace("http-equiv", "")
    styles = "".join(p.read_text() for p in (settings.FRONTEND / "assets").glob("*.css"))
    assert "@font-face" in styles
    assert "url(http" not in styles
