"""Run for real: settings from outside, files of their owner, a full disk, the log, backups."""

import json
import os
import shutil
import sqlite3
import stat
import subprocess
import sys
from concurrent.futures import ThreadPoolExecutor
from contextlib import closing
from pathlib import Path
from typing import Any

import pytest
from django.test import Client

from jamreel.site import keeping
from jamreel.site.keeping import NotKept, refuse_another_release
from jamreel.workshop import integrity
from jamreel.workshop.models import Movement, Piece, Revision, Stock, Tick, Workshop
from jamreel.workshop.pieces import start_piece
from jamreel.workshop.stock import add_stock
from tests.conftest import ROOT

SETTINGS = "from jamreel.site import settings as s; print(s.SECRET_KEY)"
FOR_REAL = {
    "JAMREEL_HOSTS": "bench.example",
    "JAMREEL_HTTPS": "1",
    "JAMREEL_PROXY": "1",
    "JAMREEL_SIGN_UP": "closed",
    "JAMREEL_LOG": "json",
}


def run(data: Path, *command: str, **given: str) -> subprocess.CompletedProcess[str]:
    environment = {**os.environ, "JAMREEL_DATA": str(data), **given}
    environment["DJANGO_SETTINGS_MODULE"] = "jamreel.site.settings"
    # The tests' own, for the browser's sake.
    environment.pop("DJANGO_ALLOW_ASYNC_UNSAFE", None)
    return subprocess.run(
        [sys.executable, *command], env=environment, cwd=ROOT, capture_output=True, text=True
    )


def said(data: Path, expression: str, **given: str) -> str:
    code = f"from jamreel.site import settings as s; print({expression})"
    done = run(data, "-c", code, **given)
    assert done.returncode == 0, done.stderr
    return done.stdout.strip()


def test_everything_is_set_from_the_environment(tmp_path: Path) -> None:
    secure = "(s.ALLOWED_HOSTS, s.SESSION_COOKIE_SECURE, s.SECURE_SSL_REDIRECT, s.SIGN_UP_OPEN)"
    assert said(tmp_path, secure, **FOR_REAL) == "(['bench.example'], True, True, False)"
    assert said(tmp_path, "s.SECURE_HSTS_SECONDS", **FOR_REAL) == "3600"
    assert said(tmp_path, "s.SECURE_HSTS_SECONDS", JAMREEL_HSTS_SECONDS="60") == "0"
    at_home = "(s.CSRF_COOKIE_SECURE, s.SECURE_SSL_REDIRECT, s.SIGN_UP_OPEN, s.BEHIND_PROXY)"
    assert said(tmp_path, at_home) == "(False, False, True, False)"


@pytest.mark.parametrize(
    ("name", "value"),
    [
        ("JAMREEL_HTTPS", "yes"),
        ("JAMREEL_SIGN_UP", "maybe"),
        ("JAMREEL_THREADS", "²"),
        ("JAMREEL_THREADS", "0"),
        ("JAMREEL_HSTS_SECONDS", "-1"),
    ],
)
def test_a_setting_that_is_none_is_named_and_nothing_starts(
    tmp_path: Path, name: str, value: str
) -> None:
    done = run(tmp_path, "-c", SETTINGS, **{name: value})
    assert done.returncode == 1
    assert name in done.stderr
    assert "Traceback" not in done.stderr


def test_the_check_of_what_is_deployed_is_clean(tmp_path: Path) -> None:
    done = run(tmp_path, "-m", "django", "check", "--deploy", "--fail-level", "WARNING", **FOR_REAL)
    assert done.returncode == 0, done.stderr
    assert "no issues" in done.stdout


def test_files_are_for_their_owner_only(tmp_path: Path) -> None:
    data = tmp_path / "data"
    data.mkdir(mode=0o755)
    os.umask(0o022)
    assert run(data, "-m", "django", "migrate", "-v0").returncode == 0
    for path in (data, data / "jamreel.sqlite3", data / "secret_key"):
        assert stat.S_IMODE(path.stat().st_mode) & 0o077 == 0, path
    copy = run(data, "-m", "jamreel", "backup").stdout.strip()
    assert stat.S_IMODE(Path(copy).stat().st_mode) == 0o600
    assert stat.S_IMODE(Path(copy).parent.stat().st_mode) == 0o700


@pytest.mark.parametrize(
    ("names", "when"),
    [
        (["0001_initial"], "before the first release"),
        (["0001_initial", "0007_at_the_bench"], "before the first release"),
        (["0001_first", "0099_later"], "by a newer release"),
    ],
)
def test_a_database_of_another_release_is_told_in_a_sentence_and_left_alone(
    tmp_path: Path, names: list[str], when: str
) -> None:
    database = tmp_path / "jamreel.sqlite3"
    with closing(sqlite3.connect(database)) as made, made:
        made.execute("CREATE TABLE django_migrations (app TEXT, name TEXT)")
        made.executemany("INSERT INTO django_migrations VALUES ('workshop', ?)", zip(names))
    before = database.read_bytes()
    with pytest.raises(NotKept, match=when):
        refuse_another_release(database)
    assert database.read_bytes() == before


def test_the_check_of_a_database_from_before_says_so_and_calls_it_not_damaged(
    tmp_path: Path,
) -> None:
    with closing(sqlite3.connect(tmp_path / "jamreel.sqlite3")) as made, made:
        made.execute("CREATE TABLE django_migrations (app TEXT, name TEXT)")
        made.execute("INSERT INTO django_migrations VALUES ('workshop', '0001_initial')")
    done = run(tmp_path, "-m", "jamreel", "check")
    assert done.returncode == 1
    assert "before the first release" in done.stderr
    assert "backup" not in done.stderr


def test_a_database_of_this_release_or_none_at_all_is_taken(tmp_path: Path) -> None:
    database = tmp_path / "jamreel.sqlite3"
    refuse_another_release(database)
    with closing(sqlite3.connect(database)) as made, made:
        made.execute("CREATE TABLE django_migrations (app TEXT, name TEXT)")
        made.execute("INSERT INTO django_migrations VALUES ('workshop', '0001_first')")
    refuse_another_release(database)
    assert database.exists()


def test_labels_are_for_their_owner_only(
    client: Client, bench: Workshop, brief: dict[str, Any], tmp_path: Path, settings: Any
) -> None:
    settings.DATA = tmp_path
    piece = start_piece(bench, "Bangle", brief)
    assert client.post(f"/api/board/labels?pieces={piece.pk}").status_code == 200
    [label] = (tmp_path / "outbox" / f"bench-{bench.pk}").iterdir()
    assert stat.S_IMODE(label.stat().st_mode) == 0o600
    assert stat.S_IMODE(label.parent.stat().st_mode) == 0o700


def test_many_first_starts_at_once_make_one_secret(tmp_path: Path) -> None:
    with ThreadPoolExecutor(6) as pool:
        found = list(pool.map(lambda _: run(tmp_path, "-c", SETTINGS), range(6)))
    secrets = {done.stdout.strip() for done in found}
    assert [done.returncode for done in found] == [0] * 6
    assert len(secrets) == 1
    assert len(secrets.pop()) > 50
    assert [path.name for path in tmp_path.glob(".secret*")] == []


def test_a_secret_on_a_full_disk_is_whole_or_not_at_all(tmp_path: Path) -> None:
    # A limit on the size of files is a full disk to whoever writes.
    code = (
        "import resource, signal; signal.signal(signal.SIGXFSZ, signal.SIG_IGN);"
        "resource.setrlimit(resource.RLIMIT_FSIZE, (20, 20));" + SETTINGS
    )
    done = run(tmp_path, "-c", code)
    assert done.returncode == 1
    assert "disk" in done.stderr
    assert "Traceback" not in done.stderr
    assert list(tmp_path.glob("*secret*")) == list(tmp_path.glob(".*secret*")) == []
    assert run(tmp_path, "-c", SETTINGS).returncode == 0


def test_half_a_secret_is_no_secret(tmp_path: Path) -> None:
    (tmp_path / "secret_key").write_text("half")
    done = run(tmp_path, "-c", SETTINGS)
    assert done.returncode == 1
    assert "Remove it" in done.stderr


def test_a_full_disk_is_a_sentence_and_leaves_what_was_there(
    client: Client, bench: Workshop, brief: dict[str, Any]
) -> None:
    from django.db import connection

    piece = start_piece(bench, "Bangle", brief)
    with connection.cursor() as cursor:
        # Tests before this one may have left free pages in the file: those are filled first.
        (free,) = cursor.execute("PRAGMA freelist_count").fetchone()
        (size,) = cursor.execute("PRAGMA page_size").fetchone()
        cursor.execute("CREATE TABLE filler (bytes BLOB)")
        cursor.execute(f"INSERT INTO filler VALUES (zeroblob({free * size}))")
        (pages,) = cursor.execute("PRAGMA page_count").fetchone()
        cursor.execute(f"PRAGMA max_page_count = {pages}")
    try:
        long = {**brief, "note": "x" * 90_000}
        body = json.dumps({"version": 1, "brief": long})
        answer = client.put(f"/api/pieces/{piece.pk}/brief", body, "application/json")
        assert answer.status_code == 507
        assert "full" in answer.json()["detail"]
        assert client.get(f"/api/pieces/{piece.pk}").json()["version"] == 1
    finally:
        with connection.cursor() as cursor:
            cursor.execute("PRAGMA max_page_count = 1073741823")


def test_a_line_of_the_log_tells_a_request_and_no_body(tmp_path: Path) -> None:
    code = """
import django; django.setup()
from django.core.management import call_command
call_command("migrate", verbosity=0)
from django.test import Client
client = Client(raise_request_exception=False)
given = '{"user": "reed", "password": "hidden-word", "workshop": "Reed Bench"}'
at = {"HTTP_HOST": "bench.example", "secure": True}
client.post("/api/session/sign-up", given, "application/json", **at)
client.get("/healthz", HTTP_HOST="bench.example")
import jamreel.api.session as session
def breaks(*given): raise RuntimeError("a trace of its own")
session._session = breaks
client.get("/api/session", **at)
"""
    done = run(tmp_path, "-c", code, **{**FOR_REAL, "JAMREEL_SIGN_UP": "open"})
    lines = [json.loads(line) for line in done.stderr.splitlines()]
    assert done.returncode == 0, done.stderr
    assert "hidden-word" not in done.stderr
    asked = {line["path"]: line for line in lines if line["says"] == "request"}
    assert asked["/healthz"]["status"] == 200
    assert asked["/api/session"]["status"] == 500
    fault = next(line for line in lines if "trace" in line)
    assert "a trace of its own" in fault["trace"]
    assert fault["request_id"] == asked["/api/session"]["request_id"]


def test_health_is_asked_without_a_session(db: None) -> None:
    answer = Client().get("/healthz")
    assert (answer.status_code, answer.json()) == (200, {"status": "ok"})


# ---- backups


@pytest.fixture(scope="module")
def empty(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """The folder of a bench that has just been made."""
    folder = tmp_path_factory.mktemp("empty")
    assert run(folder, "-m", "django", "migrate", "-v0").returncode == 0
    return folder


@pytest.fixture
def kept(tmp_path: Path, empty: Path) -> Path:
    """A small database of ours, with a row in it."""
    shutil.copytree(empty, tmp_path, dirs_exist_ok=True)
    database = tmp_path / "jamreel.sqlite3"
    change(
        database,
        "insert into workshop_workshop"
        " (name, shop, shop_version, hand, hand_version, tools_away, kept_bytes)"
        " values ('Kept', '{}', 1, '{}', 1, '[]', 0)",
    )
    return database


def change(database: Path, sql: str) -> None:
    with closing(sqlite3.connect(database)) as found:
        found.execute(sql)
        found.commit()


def names_in(database: Path) -> list[str]:
    found = sqlite3.connect(database)
    names = [name for (name,) in found.execute("select name from workshop_workshop")]
    found.close()
    return names


def test_a_backup_is_whole_and_so_many_are_kept(kept: Path) -> None:
    folder = kept.parent / "copies"
    made = [keeping.backup(kept, folder, keep=3) for _ in range(5)]
    assert sorted(folder.iterdir()) == sorted(made[2:])
    assert names_in(made[-1]) == ["Kept"]
    with pytest.raises(NotKept):
        keeping.backup(kept, folder, keep=0)


def test_a_backup_of_what_is_damaged_is_not_kept(kept: Path) -> None:
    folder = kept.parent / "copies"
    good = keeping.backup(kept, folder)
    for beside in ("-wal", "-shm"):
        kept.with_name(kept.name + beside).unlink(missing_ok=True)
    raw = bytearray(kept.read_bytes())
    raw[5000:60_000] = b"\x00" * 55_000
    kept.write_bytes(raw)
    with pytest.raises((NotKept, sqlite3.DatabaseError)):
        keeping.backup(kept, folder)
    assert list(folder.iterdir()) == [good]


def test_a_restored_backup_is_what_it_was_and_what_was_there_is_kept(kept: Path) -> None:
    copy = keeping.backup(kept, kept.parent / "copies")
    change(kept, "update workshop_workshop set name = 'Later'")
    done = run(kept.parent, "-m", "jamreel", "restore", str(copy))
    assert done.returncode == 0, done.stderr
    assert names_in(kept) == ["Kept"]
    assert names_in(kept.parent / "before-restore.sqlite3") == ["Later"]


def test_nothing_is_restored_from_rubbish_or_under_a_server(kept: Path, tmp_path: Path) -> None:
    rubbish = tmp_path / "rubbish.sqlite3"
    rubbish.write_text("no database at all" * 100)
    done = run(kept.parent, "-m", "jamreel", "restore", str(rubbish))
    assert done.returncode == 1
    assert "no database of Jam Reel" in done.stderr
    copy = keeping.backup(kept, kept.parent / "copies")
    serves = sqlite3.connect(kept)
    serves.execute("select count(*) from workshop_workshop").fetchone()
    try:
        held = run(kept.parent, "-m", "jamreel", "restore", str(copy))
        assert held.returncode == 1
        assert "stop serving it" in held.stderr
    finally:
        serves.close()
    assert names_in(kept) == ["Kept"]


# ---- checks


@pytest.fixture
def worked(bench: Workshop, brief: dict[str, Any]) -> Piece:
    from jamreel.workshop import making

    stock = add_stock(bench, {"kind": "reel", "wire": brief["wire"], "amount": "10 m"})
    piece = start_piece(bench, "Bangle", brief)
    making.tick(bench, piece.pk, "cut", "bangle", "", stock.pk)
    making.untick(bench, piece.pk, "cut", "bangle")
    making.tick(bench, piece.pk, "cut", "bangle", "", stock.pk)
    return piece


def faults() -> dict[str, list[str]]:
    found = {name: list(check()) for name, check in integrity.CHECKS.items()}
    return {name: says for name, says in found.items() if says}


def test_a_bench_that_was_worked_at_is_well(worked: Piece) -> None:
    assert faults() == {}


def test_each_check_finds_what_it_is_for(worked: Piece) -> None:
    stock = Stock.objects.get()
    last = Movement.objects.order_by("pk").last()
    assert last is not None
    Movement.objects.filter(pk=last.pk).update(amount=-20_000)
    assert set(faults()) == {"stock"}
    Movement.objects.filter(pk=last.pk).update(amount=last.amount)
    other = Workshop.objects.create(name="Other")
    Revision.objects.filter(piece=worked).update(workshop=other)
    assert set(faults()) == {"rows"}
    Revision.objects.filter(piece=worked).update(workshop=worked.workshop)
    Piece.objects.filter(pk=worked.pk).update(waits_for="measure")
    assert set(faults()) == {"pieces"}
    Piece.objects.filter(pk=worked.pk).update(waits_for="form")
    tick = Tick.objects.filter(undone_at__isnull=True).get()
    Movement.objects.create(
        workshop=worked.workshop, stock=stock, tick=tick, amount=900, reason="returned",
        at=tick.ticked_at,
    )  # fmt: skip
    assert set(faults()) == {"ticks"}


@pytest.mark.parametrize("harm", ["torn", "rubbish"])
def test_a_damaged_database_is_told_in_words_with_what_to_do(kept: Path, harm: str) -> None:
    data = kept.parent
    copy = keeping.backup(kept, data / "backups")
    for beside in ("-wal", "-shm"):
        kept.with_name(kept.name + beside).unlink(missing_ok=True)
    raw = bytearray(kept.read_bytes())
    raw[100:60_000] = b"\x00" * 59_900
    kept.write_bytes(bytes(raw) if harm == "torn" else b"no database at all" * 4000)
    for command in ("check", "serve"):
        done = run(data, "-m", "jamreel", command, JAMREEL_BIND="127.0.0.1:0")
        assert done.returncode == 1, command
        assert f"jamreel restore {copy}" in done.stderr
        assert "Traceback" not in done.stderr
    done = run(data, "-m", "jamreel", "restore", str(copy))
    assert done.returncode == 0, done.stderr
    assert names_in(kept) == ["Kept"]
    assert (data / "before-restore.sqlite3").read_bytes()[:50] == kept_start(harm, raw)
    assert "All is well." in run(data, "-m", "jamreel", "check").stdout


def kept_start(harm: str, torn: bytearray) -> bytes:
    return bytes(torn[:50]) if harm == "torn" else (b"no database at all" * 4)[:50]
