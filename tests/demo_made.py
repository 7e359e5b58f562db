"""The demo bench, made once for all test processes and put back for each test that asks for it."""

import fcntl
import os
import sqlite3
from contextlib import closing
from datetime import date
from pathlib import Path

from django.db import connection

from jamreel.workshop.demo import build

TODAY = date(2026, 11, 24)


def put_back(shared: Path, *, whole: bool) -> None:
    """Fill this test's database with the demo as it was made.

    Args:
        shared: a folder of all test processes.
        whole: with its season's log, which takes a while; few tests look at it.
    """
    made = shared / f"demo-{'whole' if whole else 'bare'}.sqlite3"
    connection.ensure_connection()
    ours: sqlite3.Connection = connection.connection
    with made.with_suffix(".lock").open("w") as lock:
        # Who comes second waits until it is made.
        fcntl.flock(lock, fcntl.LOCK_EX)
        if not made.exists():
            build(TODAY, whole=whole)
            half = made.with_suffix(".half")
            with closing(sqlite3.connect(half)) as kept:
                ours.backup(kept)
            os.replace(half, made)
            return
    with closing(sqlite3.connect(made)) as kept:
        kept.backup(ours)
