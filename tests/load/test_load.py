"""A bench under load: hands that write at once, kills, backups. How long things take under load is
printed by ``make bench``."""

import sqlite3
import subprocess
import sys
import threading
from collections import Counter
from collections.abc import Iterator
from pathlib import Path

import pytest

from tests.conftest import ROOT, samples
from tests.load.served import BRIEF, Hand, Served, trimmed

# Hands that write, how long at least, and how many saves.
WRITERS, WRITE_S, SAVES = samples(60, 200), samples(0, 30), samples(150, 2000)
KILLS = samples(15, 50)


@pytest.fixture(scope="module")
def served(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Served]:
    """Ten benches of twenty pieces, served."""
    with Served(tmp_path_factory.mktemp("load") / "data", [20] * 10) as made:
        yield made


def test_an_address_without_end_is_answered_with_a_problem_body(served: Served) -> None:
    hand = Hand(served.port).sign_in(0)
    status, said = hand.ask("GET", f"/api/log?words={'w' * 5000}")
    assert (status, said["status"]) == (414, 414)
    assert said["title"] == "Too long an address"
    # Strangers are not given the document.
    assert Hand(served.port).ask("GET", "/api/openapi.json")[0] == 404


def test_many_writers_lose_nothing_and_backups_are_whole(served: Served, tmp_path: Path) -> None:
    sessions = [Hand(served.port).sign_in(bench).cookies for bench in range(10)]
    acknowledged: list[tuple[int, int, str]] = []
    answers: Counter[int] = Counter()
    over = threading.Event()
    long_enough = threading.Event()
    threading.Timer(WRITE_S, long_enough.set).start()

    def writes(n: int) -> None:
        hand = Hand(served.port)
        hand.cookies = dict(sessions[n % 10])
        # Two hands at every second piece.
        piece = 1 + 20 * (n % 10) + (n // 10) // 2
        turn = 0
        version = hand.ask("GET", f"/api/pieces/{piece}")[1]["version"]
        while not over.is_set():
            turn += 1
            margin = f"{n}.{turn:04}"
            body = {"version": version, "brief": trimmed(margin)}
            status, said = hand.ask("PUT", f"/api/pieces/{piece}/brief", body)
            answers[status] += 1
            if status == 200:
                acknowledged.append((piece, said["version"], margin))
            version = said.get("version", version)

    threads = [threading.Thread(target=writes, args=(n,)) for n in range(WRITERS)]
    for one in threads:
        one.start()
    backups: list[Path] = []

    def enough() -> bool:
        """Whether nobody was left out, and enough was saved."""
        pieces = {piece for piece, _, _ in acknowledged}
        return len(pieces) == WRITERS // 2 and len(acknowledged) >= SAVES and len(backups) > 1

    while not enough():
        assert len(backups) < 200, answers
        copy = served.run("-m", "jamreel", "backup", "--keep", "3").strip()
        backups.append(Path(copy))
    long_enough.wait()
    over.set()
    for one in threads:
        one.join()
    # Busy is said, and asked again by the page; nothing else but another hand's version.
    assert set(answers) <= {200, 409, 503}, answers
    kept = sqlite3.connect(served.data / "jamreel.sqlite3")
    rows = kept.execute(
        "select piece_id, json_extract(brief, '$.cutting.margin'), count(*) from workshop_revision"
        " group by 1, 2"
    )
    found = {(piece, margin): count for piece, margin, count in rows}
    # Everything acknowledged is there, once; no version was given twice.
    assert all(found[piece, margin] == 1 for piece, _, margin in acknowledged)
    assert len({(piece, version) for piece, version, _ in acknowledged}) == len(acknowledged)
    assert "All is well." in served.run("-m", "jamreel", "check")
    assert backups
    assert len(list((served.data / "backups").glob("*.sqlite3"))) == min(3, len(backups))
    other = Served.__new__(Served)
    other.data, other.port = tmp_path / "restored", served.port
    other.run("-m", "jamreel", "restore", str(backups[-1]))
    assert "All is well." in other.run("-m", "jamreel", "check")
    again = sqlite3.connect(other.data / "jamreel.sqlite3")
    assert again.execute("select count(*) from workshop_piece").fetchone()[0] == 200


KILLED = """
import json, os, random, signal, sys, time
import django
django.setup()
from django.core.management import call_command
from django.db import connections
call_command("migrate", verbosity=0)
from jamreel.workshop import making
from jamreel.workshop.models import Piece, Workshop
from jamreel.workshop.pieces import save_brief, start_piece
from jamreel.workshop.stock import add_stock

brief = json.load(open(sys.argv[1]))
bench = Workshop.objects.create(name="Reed Bench")
piece = start_piece(bench, "Bangle", brief)
reel = add_stock(bench, {"kind": "reel", "wire": brief["wire"], "amount": "10000 m"})
connections.close_all()
pick = random.Random(7)
for kill in range(int(sys.argv[2])):
    heard, says = os.pipe()
    child = os.fork()
    if child == 0:
        n = 0
        while True:
            n += 1
            margin = f"{kill}.{n:04}"
            version = Piece.objects.get(pk=piece.pk).version
            save_brief(bench, piece.pk, version, {**brief, "cutting": {"margin": margin}})
            os.write(1, f"saved {margin}\\n".encode())
            os.write(says, b".")
            making.tick(bench, piece.pk, "cut", "bangle", "", reel.pk)
            os.write(says, b".")
            making.untick(bench, piece.pk, "cut", "bangle")
            os.write(says, b".")
    os.close(says)
    # So many writes are waited for, and then a moment within the next one.
    for _ in range(pick.randint(1, 8)):
        os.read(heard, 1)
    time.sleep(pick.uniform(0, 0.02))
    os.close(heard)
    os.kill(child, signal.SIGKILL)
    os.waitpid(child, 0)
    # Whatever stood is taken back, so that the next can cut.
    connections.close_all()
    try:
        making.untick(bench, piece.pk, "cut", "bangle")
    except making.NothingToTick:
        pass
    connections.close_all()
"""


def test_kills_in_the_middle_of_writes_lose_nothing(tmp_path: Path) -> None:
    served = Served.__new__(Served)
    served.data, served.port = tmp_path, 0
    done = subprocess.run(
        [sys.executable, "-c", KILLED, str(BRIEF), str(KILLS)],
        env=served.environment,
        cwd=ROOT,
        capture_output=True,
        text=True,
        timeout=240,
    )
    assert done.returncode == 0, done.stderr
    saved = [line.split()[1] for line in done.stdout.splitlines() if line.startswith("saved")]
    # Each child saved once at least before it was killed.
    assert len(saved) >= KILLS
    kept = sqlite3.connect(tmp_path / "jamreel.sqlite3")
    asked = "select json_extract(brief, '$.cutting.margin') from workshop_revision"
    found = {margin for (margin,) in kept.execute(asked)}
    assert set(saved) <= found
    # Of what a kill came into, at most one save was written and not said.
    assert len(found - set(saved) - {None, "0"}) <= KILLS + 1
    total = kept.execute("select sum(amount) from workshop_movement").fetchone()[0]
    assert total == pytest.approx(10_000_000)
    assert "All is well." in served.run("-m", "jamreel", "check")
