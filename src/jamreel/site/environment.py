"""What the environment says, and the files of an installation: whole, and for their owner only."""

import os
import secrets
import sys
from dataclasses import dataclass
from pathlib import Path
from typing import Any, NoReturn

from jamreel.core.draft import MOST_CHARS
from jamreel.core.words import say
from jamreel.workshop.csv_text import MOST_TEXT

ROOT = Path(__file__).resolve().parents[3]
# A secret shorter than this was never written whole.
SHORTEST_SECRET = 50
# What one request may send: the longest text that any field admits, however JSON writes it, so that
# nothing is turned away for the length of its request.
MOST_BODY = 12 * max(MOST_CHARS, MOST_TEXT) + 20_000


@dataclass(frozen=True)
class Environment:
    """Everything that is set from outside; docs/running tells what each is for."""

    data: Path
    frontend: Path
    demo: bool
    hosts: tuple[str, ...]
    bind: str
    https: bool
    hsts_seconds: int
    proxy: bool
    sign_up: bool
    threads: int
    processes: int
    log: str


def _read() -> Environment:
    given = os.environ
    hosts = given.get("JAMREEL_HOSTS", "127.0.0.1,localhost,testserver")
    return Environment(
        data=Path(given.get("JAMREEL_DATA") or ROOT / "var"),
        frontend=Path(given.get("JAMREEL_FRONTEND") or ROOT / "frontend" / "dist"),
        demo=_flag("JAMREEL_DEMO", False),
        hosts=tuple(host.strip() for host in hosts.split(",") if host.strip()),
        bind=given.get("JAMREEL_BIND", "127.0.0.1:8720"),
        https=_flag("JAMREEL_HTTPS", False),
        hsts_seconds=_whole("JAMREEL_HSTS_SECONDS", 3600, 0, 10**9),
        proxy=_flag("JAMREEL_PROXY", False),
        sign_up=_choice("JAMREEL_SIGN_UP", "open", ("open", "closed")) == "open",
        threads=_whole("JAMREEL_THREADS", 4, 1, 64),
        processes=_whole("JAMREEL_PROCESSES", os.cpu_count() or 1, 1, 64),
        log=_choice("JAMREEL_LOG", "off", ("off", "json")),
    )


def _flag(name: str, default: bool) -> bool:
    return _choice(name, "1" if default else "0", ("0", "1")) == "1"


def _choice(name: str, default: str, known: tuple[str, ...]) -> str:
    given = os.environ.get(name, "") or default
    if given not in known:
        _stop("choice", name=name, given=given, known=say("running.or").join(known))
    return given


def _whole(name: str, default: int, low: int, high: int) -> int:
    given = os.environ.get(name, "") or str(default)
    if not (given.isascii() and given.isdecimal()) or not low <= int(given[:12]) <= high:
        _stop("whole", name=name, given=given, low=low, high=high)
    return int(given)


def _stop(key: str, **values: object) -> NoReturn:
    sys.exit(say("running.cant_start", why=say(f"running.{key}", **values)))


ENV = _read()
DATABASE = ENV.data / "jamreel.sqlite3"


def secret() -> str:
    """Return the secret of this installation, made on its first run and readable by it alone.

    It is written whole or not at all: into a file of its own, which is then given its name, unless
    another first start was faster.

    Raises:
        SystemExit: where it can't be written, or what is there is no secret, in a sentence.
    """
    kept = ENV.data / "secret_key"
    try:
        _own_folder(ENV.data)
        if not kept.exists():
            _write_once(kept, secrets.token_urlsafe(SHORTEST_SECRET))
        # The database and all that is beside it takes after the file that is made first.
        os.close(os.open(DATABASE, os.O_RDWR | os.O_CREAT, 0o600))
        found = kept.read_text()
    except OSError as error:
        _stop("not_written", file=error.filename or kept, why=error.strerror)
    if len(found) < SHORTEST_SECRET:
        _stop("no_secret", file=kept)
    return found


def _own_folder(folder: Path) -> None:
    """Make a folder that only its owner can look into."""
    folder.mkdir(parents=True, exist_ok=True)
    if folder.stat().st_mode & 0o077 and folder.stat().st_uid == os.getuid():
        folder.chmod(0o700)


def _write_once(kept: Path, text: str) -> None:
    mine = kept.with_name(f".{kept.name}-{os.getpid()}-{secrets.token_hex(4)}")
    try:
        with os.fdopen(os.open(mine, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600), "w") as file:
            file.write(text)
            file.flush()
            os.fsync(file.fileno())
        os.link(mine, kept)
    except FileExistsError:
        pass  # another first start was faster: its secret is the one
    finally:
        mine.unlink(missing_ok=True)


def logging_of(env: Environment) -> dict[str, Any]:
    """Return how is logged: a line of JSON for each request and each fault, or faults only."""
    formatter = "json" if env.log == "json" else "plain"
    return {
        "version": 1,
        "disable_existing_loggers": False,
        "formatters": {
            "json": {"()": "jamreel.site.json_lines.JsonLines"},
            "plain": {"format": "%(levelname)s %(message)s"},
        },
        "handlers": {"lines": {"class": "logging.StreamHandler", "formatter": formatter}},
        "root": {"handlers": ["lines"], "level": "WARNING"},
        "loggers": {
            "jamreel": {"level": "INFO" if env.log == "json" else "ERROR"},
            # Every answer is a line of ours already; a fault's trace is still its own.
            "django.request": {"level": "ERROR"},
            "django.security": {"level": "ERROR"},
        },
    }
