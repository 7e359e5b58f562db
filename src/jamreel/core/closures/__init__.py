"""Closures, one file each, registering itself; made of the same paths as parts."""

import importlib
import pkgutil
from typing import Annotated

from jamreel.core.closures.base import Closure, registered_closures
from jamreel.core.tagged_union import TaggedUnion

for _module in sorted(m.name for m in pkgutil.iter_modules(__path__)):
    importlib.import_module(f"{__name__}.{_module}")

AnyClosure = Annotated[Closure, TaggedUnion(registered_closures)]


def usual_closure() -> Closure:
    """Return the closure that a new piece has."""
    return next(cls for cls in registered_closures().values() if cls.usual).model_validate({})


__all__ = ["AnyClosure", "Closure", "registered_closures", "usual_closure"]
