"""Families: one construction each, registering itself when its module is imported.

Adding one touches its own package, its test and its drawing; nothing else knows their names.
"""

import importlib
import pkgutil
from typing import Annotated

from jamreel.core.families.base import Construction, registered
from jamreel.core.tagged_union import TaggedUnion

for _module in sorted(m.name for m in pkgutil.iter_modules(__path__)):
    importlib.import_module(f"{__name__}.{_module}")

Piece = Annotated[Construction, TaggedUnion(registered)]

__all__ = ["Construction", "Piece", "registered"]
