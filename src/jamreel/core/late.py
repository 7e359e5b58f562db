"""Libraries that take long to load, loaded when first used: most commands never need them."""

from importlib import import_module
from types import ModuleType
from typing import Any

_LATE: list["_Late"] = []


class _Late(ModuleType):
    """Stands for a module until something of it is asked for. Python's own lock on imports holds
    off other threads meanwhile."""

    def __getattr__(self, name: str) -> Any:
        found = getattr(import_module(self.__name__), name)
        setattr(self, name, found)
        return found


def late(name: str) -> ModuleType:
    """Return a module that is loaded when something of it is first used.

    Args:
        name: in full; ModuleNotFoundError is raised at first use where there is none.
    """
    module = _Late(name)
    _LATE.append(module)
    return module


def load_all() -> None:
    """Load all of them now: a server's processes part with them, instead of each by itself."""
    for module in _LATE:
        import_module(module.__name__)
