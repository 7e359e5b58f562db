"""One at a time: what costs much is done once at a time for a bench, and a few at a time in all.

Held by locks on files, so that it holds for all of the server's processes; a lock goes with the
process that has it.
"""

import fcntl
import os
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from django.conf import settings

# So much costly work is done at once, whoever asks: one core is always left to those who type.
AT_ONCE = max(1, (os.cpu_count() or 2) - 1)


@contextmanager
def alone(what: str, bench: int) -> Iterator[bool]:
    """Give whether this is the only one of its kind for a bench, and one of few in all; it stays so
    until the end of the block.

    Args:
        what: kind of work, a plain word.
        bench: number of the bench.
    """
    folder = Path(settings.SLOTS)
    folder.mkdir(mode=0o700, exist_ok=True)
    with open(folder / f"{what}-{bench}", "wb") as mine:
        if not _taken(mine.fileno()):
            yield False
            return
        for n in range(AT_ONCE):
            with open(folder / f"any-{n}", "wb") as slot:
                if _taken(slot.fileno()):
                    yield True
                    return
        yield False


def _taken(lock: int) -> bool:
    """Return whether a lock that nobody else has is ours now."""
    try:
        fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
    except BlockingIOError:
        return False
    return True
