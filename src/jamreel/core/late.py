"""Libraries that take long to load, loaded when first used: most commands never need them."""

import sys
from importlib.util import LazyLoader, find_spec, module_from_spec
from types import ModuleType

_LATE: list[ModuleType] = []


def late(name: str) -> ModuleType:
    """Return a module that is loaded when something of it is first used.

    Args:
        name: in full.

    Raises:
        ModuleNotFoundError: there is none.
    """
    if name in sys.modules:
        return sys.modules[name]
    spec = find_spec(name)
    if spec is None or spec.loader is None:
        raise ModuleNotFoundError(name)
    spec.loader = LazyLoader(spec.loader)
    module = sys.modules[name] = module_from_spec(spec)
    spec.loader.exec_module(module)
    _LATE.append(module)
    return module


def load_all() -> None:
    """Load all of them now: a server's processes part with them, instead of each by itself."""
    for module in _LATE:
        # Any name of it will do.
        dir(module)
