"""Work that is counted rather than timed: the same on a busy machine as on a quiet one."""

import cProfile
from collections.abc import Callable
from typing import Any

# SQLite tells of every so many steps of its own machine.
_EVERY = 10


def calls(work: Callable[[], object]) -> int:
    """Return how many functions a piece of work calls, Python's own included."""
    profile = cProfile.Profile()
    profile.runcall(work)
    return sum(one.callcount for one in profile.getstats())


def steps_of_database(work: Callable[[], object]) -> int:
    """Return how many steps SQLite's machine takes for a piece of work, to the nearest ten."""
    from django.db import connection

    taken = 0

    def tell() -> int:
        nonlocal taken
        taken += _EVERY
        return 0

    connection.ensure_connection()
    kept: Any = connection.connection
    kept.set_progress_handler(tell, _EVERY)
    try:
        work()
    finally:
        kept.set_progress_handler(None, 0)
    return taken
