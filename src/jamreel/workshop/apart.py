"""Work that takes long, or may take much memory, is done in a process of its own.

The server's own processes stay light and quick: what is done apart gives way to whoever types
(``NICE``), and ends at its bounds. Such a process is forked from one that has all it may need
loaded already, so that it starts within some milliseconds. Nothing here knows of Django or of rows:
what is handed over and comes back are plain values.
"""

import multiprocessing
import os
import resource
from collections.abc import Callable
from multiprocessing.connection import Connection
from typing import Any, TypeVar

Result = TypeVar("Result")

# How far it gives way to others.
NICE = 15
# Loaded once, before the first work is done.
LOADED = (
    "jamreel.workshop.apart",
    "jamreel.workshop.pictures",
    "jamreel.core.bench.day.schedule",
    "jamreel.core.workpiece.woven",
    "jamreel.workshop.apart_loaded",
)
_context = multiprocessing.get_context("forkserver")
_context.set_forkserver_preload(list(LOADED))


# So long an ended process may take to say how it ended [s].
ENDING_S = 5.0


class Spent(Exception):
    """The work came to one of its bounds: of time, of memory, or the system ended it."""


class Broken(Exception):
    """Its process ended by itself, with nothing said: a fault of ours, no bound."""


def apart(work: Callable[..., Result], *given: Any, seconds: float, megabytes: int) -> Result:
    """Return what some work gives that is done in a process of its own.

    Args:
        work: a function of a module, with what it is given and gives plain values.
        given: what it is given.
        seconds: of processor it may take; it is waited for ten times as long.
        megabytes: of memory it may take beside what is loaded.

    Raises:
        Spent: it took more, or the system ended it.
        Broken: its process ended by itself.
        Exception: whatever the work raises.
    """
    here, there = _context.Pipe()
    child = _context.Process(target=_do, args=(there, work, given, seconds, megabytes), daemon=True)
    child.start()
    there.close()
    try:
        if not here.poll(10 * seconds):
            raise Spent("it took too long")
        done, found = here.recv()
    except EOFError:
        child.join(ENDING_S)
        # A signal ended it where the code is negative: that of its bounds is one.
        if child.exitcode is None or child.exitcode < 0:
            raise Spent("its process was ended") from None
        raise Broken(f"its process ended with {child.exitcode}") from None
    finally:
        here.close()
        child.kill()
        child.join()
        child.close()
    if isinstance(found, MemoryError):
        raise Spent("it took too much memory")
    if not done:
        raise found
    return found  # type: ignore[no-any-return]


def _do(
    to: Connection, work: Callable[..., Any], given: Any, seconds: float, megabytes: int
) -> None:
    """Do some work within its bounds and send what it gives."""
    os.nice(NICE)
    most = _mapped() + megabytes * 1024 * 1024
    resource.setrlimit(resource.RLIMIT_AS, (most, most))
    whole = max(1, round(seconds + 0.5))
    resource.setrlimit(resource.RLIMIT_CPU, (whole, whole + 1))
    try:
        to.send((True, work(*given)))
    except MemoryError:
        to.send((False, MemoryError()))
    except Exception as error:
        to.send((False, error))
    finally:
        to.close()


def _mapped() -> int:
    """Return how much memory this process has mapped [bytes]."""
    with open("/proc/self/statm") as told:
        return int(told.read().split()[0]) * resource.getpagesize()
