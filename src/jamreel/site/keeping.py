"""Backups of a bench that is in use, putting one back, and holding the database against itself."""

import argparse
import os
import shutil
import sqlite3
import sys
from collections.abc import Callable, Iterator
from contextlib import closing
from datetime import UTC, datetime
from pathlib import Path

from jamreel.core.words import say

GOOD, BAD = 0, 1
NAMED = "jamreel-*.sqlite3"
# What stood first in every database from before 0.1.0.
_BEFORE_RELEASE = "0001_initial"


class NotKept(Exception):
    """A backup that could not be made or put back, in a sentence."""


def run(chosen: argparse.Namespace) -> int:
    """Run one of the commands. Returns 0, or 1 with what is wrong on standard output."""
    os.umask(0o077)
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "jamreel.site.settings")
    import django

    django.setup()
    from django.db import DatabaseError

    from jamreel.site.environment import DATABASE, ENV

    try:
        if chosen.command == "backup":
            print(backup(DATABASE, chosen.to or ENV.data / "backups", chosen.keep))
        elif chosen.command == "restore":
            print(say("keeping.before_kept", file=restore(chosen.backup, DATABASE)))
        else:
            refuse_another_release(DATABASE)
            return _check()
    except (sqlite3.DatabaseError, DatabaseError) as error:
        print(say("keeping.failed", why=damaged(error)), file=sys.stderr)
        return BAD
    except (NotKept, OSError) as error:
        print(say("keeping.failed", why=error), file=sys.stderr)
        return BAD
    return GOOD


def damaged(error: Exception) -> str:
    """Return what to say of a database that can't be read, and what to do."""
    from jamreel.site.environment import DATABASE, ENV

    folder = ENV.data / "backups"
    copies = sorted(folder.glob(NAMED))
    if not copies:
        return say("keeping.damaged_no_copy", file=DATABASE, why=error, folder=folder)
    return say("keeping.damaged", file=DATABASE, why=error, copy=copies[-1])


def backup(database: Path, folder: Path, keep: int = 14) -> Path:
    """Return a consistent copy of a database, checked after it was written.

    Args:
        database: that may be in use: writers go on meanwhile.
        folder: of the copies; made if need be, for its owner only.
        keep: how many copies are kept in it, the newest; at least one.

    Raises:
        NotKept: the copy is not what it should be; what was there stays.

    Source: the online backup of SQLite, which copies one state of the whole.
    """
    if keep < 1:
        raise NotKept(say("keeping.keep_one", keep=keep))
    folder.mkdir(parents=True, exist_ok=True, mode=0o700)
    stamp = datetime.now(UTC).strftime("%Y%m%dT%H%M%S%f")
    done = folder / f"jamreel-{stamp}.sqlite3"
    half = folder / f".{done.name}"
    try:
        _copy(database, half)
        _sound(half)
        os.replace(half, done)
    finally:
        half.unlink(missing_ok=True)
    # By their names, which go by the time; a clock set back would have them kept rather than lost.
    every = sorted(folder.glob(NAMED))
    for old in [one for one in every if one != done][: max(0, len(every) - keep)]:
        old.unlink(missing_ok=True)
    return done


def _copy(source: Path, to: Path) -> None:
    if not source.exists() or not source.stat().st_size:
        raise NotKept(say("keeping.none_there", file=source))
    os.close(os.open(to, os.O_WRONLY | os.O_CREAT, 0o600))
    with (
        closing(sqlite3.connect(f"file:{source}?mode=ro", uri=True, timeout=30)) as one,
        closing(sqlite3.connect(to)) as other,
    ):
        one.backup(other)
        # A file by itself, without a journal beside it.
        other.execute("PRAGMA journal_mode=DELETE")
    with to.open("rb") as file:
        os.fsync(file.fileno())


def _sound(copy: Path) -> None:
    """Refuse a file that is no whole database of ours. Raises NotKept."""
    try:
        with closing(sqlite3.connect(f"file:{copy}?mode=ro", uri=True)) as found:
            said = [row[0] for row in found.execute("PRAGMA integrity_check")]
            loose = found.execute("PRAGMA foreign_key_check").fetchall()
            ours = found.execute("SELECT COUNT(*) FROM django_migrations WHERE app='workshop'")
            count = ours.fetchone()[0]
    except sqlite3.DatabaseError as error:
        raise NotKept(say("keeping.not_ours", file=copy, why=error)) from None
    if said != ["ok"] or loose or not count:
        raise NotKept(say("keeping.copy_damaged", file=copy, why=said[0], loose=len(loose)))


def refuse_another_release(database: Path) -> None:
    """Refuse a database that this release can't bring up to date. Raises NotKept."""
    if not database.exists() or not database.stat().st_size:
        return
    with closing(sqlite3.connect(f"file:{database}?mode=ro", uri=True)) as found:
        try:
            rows = found.execute("SELECT name FROM django_migrations WHERE app='workshop'")
            done = {name for (name,) in rows}
        except sqlite3.DatabaseError:
            return  # not one of ours yet, or damaged: the next step says so
    folder = Path(__file__).parents[1] / "workshop" / "migrations"
    if done <= {path.stem for path in folder.glob("0*.py")}:
        return
    when = "before_release" if _BEFORE_RELEASE in done else "newer_release"
    raise NotKept(say(f"keeping.{when}", file=database))


def restore(chosen: Path, database: Path) -> Path:
    """Put a backup in the place of the database, and bring it up to date.

    Args:
        chosen: the backup; it stays where it is.
        database: to be replaced, while nothing serves it.

    Returns:
        Where the database that was there is kept.

    Raises:
        NotKept: the backup is damaged, or something still serves the database.
    """
    _sound(chosen)
    refuse_another_release(chosen)
    kept = database.with_name("before-restore.sqlite3")
    if database.exists() and database.stat().st_size:
        half = database.with_name(".before-restore.sqlite3")
        try:
            _alone(database)
            _copy(database, half)
        except sqlite3.DatabaseError:
            # What can't be read is kept as it is: something may still be got out of it.
            shutil.copyfile(database, half)
        os.replace(half, kept)
    fresh = database.with_name(".restored.sqlite3")
    _copy(chosen, fresh)
    for beside in ("-wal", "-shm"):
        database.with_name(database.name + beside).unlink(missing_ok=True)
    os.replace(fresh, database)
    from django.core.management import call_command

    call_command("migrate", verbosity=0, interactive=False, skip_checks=True)
    return kept


def _alone(database: Path) -> None:
    """Refuse while another process has the database open. Raises NotKept."""
    try:
        with closing(sqlite3.connect(database, timeout=0, isolation_level=None)) as found:
            found.execute("PRAGMA wal_checkpoint(TRUNCATE)")
            # Leaving the journal takes the database for oneself: nobody else may have it open.
            found.execute("PRAGMA journal_mode=DELETE")
    except sqlite3.OperationalError as error:
        if "locked" not in str(error):
            raise
        raise NotKept(say("keeping.in_use")) from None


def _check() -> int:
    from jamreel.workshop.integrity import CHECKS

    wrong = 0
    for name, check in CHECKS.items():
        found = list(_first(check))
        wrong += len(found)
        print(f"{say(f'check.{name}')}: {'' if found else say('keeping.good')}")
        for says in found:
            print(f"  {says}")
    print(say("keeping.wrong", count=wrong) if wrong else say("keeping.all_well"))
    return BAD if wrong else GOOD


def _first(check: Callable[[], Iterator[str]], most: int = 20) -> Iterator[str]:
    for i, says in enumerate(check()):
        if i == most:
            yield say("keeping.more")
            return
        yield says
