"""The clock of the bench: timers, step clocks and the log go by it, whatever a browser's says."""

from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from datetime import datetime

from django.utils import timezone

_standing: ContextVar[datetime | None] = ContextVar("standing", default=None)


def now() -> datetime:
    """Return what the server's clock says."""
    return _standing.get() or timezone.now()


@contextmanager
def standing_at(moment: datetime) -> Iterator[None]:
    """Have the clock stand at a moment: what a demo tells of days that are gone."""
    token = _standing.set(moment)
    try:
        yield
    finally:
        _standing.reset(token)
