"""Families: one construction each, registering itself when its module is imported.

Adding one touches its own package, its test and its drawing; nothing else knows their names.
"""

import functools
import importlib
import operator
import pkgutil
from typing import TYPE_CHECKING, Annotated, Any

from pydantic import Field

from jamreel.core.families.base import Construction, registered

for _module in sorted(m.name for m in pkgutil.iter_modules(__path__) if m.name != "base"):
    importlib.import_module(f"{__name__}.{_module}")

if TYPE_CHECKING:
    Piece = Construction
else:
    _kinds = list(registered().values())
    Piece: Any = functools.reduce(operator.or_, _kinds)
    # A union of one is no union, and takes no discriminator.
    if len(_kinds) > 1:
        Piece = Annotated[Piece, Field(discriminator="kind")]

__all__ = ["Construction", "Piece", "registered"]
