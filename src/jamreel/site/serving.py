"""Serving: the demo on this machine, or a bench for real behind a reverse proxy."""

import contextlib
import gc
import os
import socket
import sys
from typing import Any

from jamreel.core.words import say

PORTS_TO_TRY = 20
SWITCH_S = 0.001
# So long may the first line of a request be.
LONGEST_LINE = 4000


def free_port(wanted: int) -> int:
    """Return the wanted port, or the next one that is free. Raises OSError when none is."""
    for port in range(wanted, wanted + PORTS_TO_TRY):
        with socket.socket(socket.AF_INET, socket.SOCK_STREAM) as probe:
            probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
            try:
                probe.bind(("127.0.0.1", port))
            except OSError:
                continue
            return port
    raise OSError(say("running.no_port", low=wanted, high=wanted + PORTS_TO_TRY - 1))


def serve_demo(wanted: int, *, only_prepare: bool = False) -> int:
    """Prepare the demo's database, print the address, and serve until interrupted.

    Prepared and served in one process: loading everything twice would double the start. The first
    time it is prepared while the page is built.
    """
    from jamreel.site.keeping import NotKept

    os.environ["JAMREEL_DEMO"] = "1"
    try:
        _prepare("demo_bench")
    except NotKept as error:
        print(say("running.cant_start", why=error), file=sys.stderr)
        return 1
    if only_prepare:
        return 0
    port = free_port(wanted)
    print(say("running.at", port=port), flush=True)
    return _run(f"127.0.0.1:{port}", threads=4)


def serve() -> int:
    """Bring the database up to date and serve it as the environment says, until stopped."""
    from django.db import DatabaseError

    from jamreel.site.keeping import NotKept, damaged

    try:
        _prepare()
        from jamreel.workshop.accounts import clear_closed

        clear_closed()
    except NotKept as error:
        print(say("running.cant_start", why=error), file=sys.stderr)
        return 1
    except DatabaseError as error:
        print(say("running.cant_start", why=damaged(error)), file=sys.stderr)
        return 1
    from jamreel.site.environment import ENV

    print(say("running.listens", bind=ENV.bind), flush=True)
    return _run(ENV.bind, ENV.threads, ENV.processes)


def _prepare(*commands: str) -> None:
    # What is made from here on is for its owner only.
    os.umask(0o077)
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "jamreel.site.settings")
    from django.core.management import call_command

    import jamreel.site.wsgi  # noqa: F401  # sets Django up
    from jamreel.site.environment import DATABASE
    from jamreel.site.keeping import refuse_another_release

    refuse_another_release(DATABASE)
    call_command("migrate", verbosity=0, interactive=False, skip_checks=True)
    for command in commands:
        call_command(command, verbosity=0, skip_checks=True)


def _run(bind: str, threads: int, processes: int = 1) -> int:
    from django.db import connections
    from gunicorn import util
    from gunicorn.app.base import BaseApplication

    from jamreel.core.closures import registered_closures
    from jamreel.core.families import registered
    from jamreel.core.late import load_all
    from jamreel.core.parts import registered_parts
    from jamreel.site.wsgi import application

    # All kinds and libraries are loaded once, before the processes part.
    for every in (registered, registered_parts, registered_closures, load_all):
        every()
    settings: dict[str, Any] = {
        "bind": bind,
        # A process for each core: what is worked out holds up only those of its own process. What
        # must be counted or locked over all of them is in files.
        "workers": processes,
        "threads": threads,
        "umask": 0o077,
        "loglevel": "warning",
        "preload_app": True,
        "timeout": 60,
        "graceful_timeout": 20,
        # A connection that is kept open stays with its process: one would have a queue while the
        # other stands idle.
        "keepalive": 5 if processes == 1 else 0,
        "limit_request_line": LONGEST_LINE,
        "limit_request_fields": 60,
        "limit_request_field_size": 8000,
    }

    class Server(BaseApplication):  # type: ignore[misc]  # gunicorn has no types
        """Gunicorn with what is already loaded."""

        def load_config(self) -> None:
            for key, value in settings.items():
                self.cfg.set(key, value)

        def load(self) -> object:
            return application

    util.write_error = _write_problem
    # One hand's keystroke asks the database some thirty times, and each time waits for whoever
    # is working something out: for a millisecond, not for five.
    sys.setswitchinterval(SWITCH_S)
    # What is loaded stays: a full collection that looks through all of it holds every thread for a
    # quarter of a second.
    gc.collect()
    gc.freeze()
    # The worker is forked: it must not share the parent's connection to the database.
    connections.close_all()
    Server().run()
    return 0


def _write_problem(sock: Any, status: int, reason: str, says: str) -> None:
    """Answer what never reached the application as it would have answered: with a problem body."""
    from jamreel.api.errors import problem_of

    # The only thing of it that is too long is its first line.
    problem = problem_of(414 if "Request Line is too large" in says else status)
    body = problem.content
    head = (
        f"HTTP/1.1 {problem.status_code} {problem.reason_phrase}\r\nConnection: close\r\n"
        f"Content-Type: {problem['Content-Type']}\r\nContent-Length: {len(body)}\r\n\r\n"
    )
    with contextlib.suppress(OSError):
        sock.sendall(head.encode("latin-1") + body)
