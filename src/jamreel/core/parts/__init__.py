"""Parts, one file each, registering itself; imports path, wire, forming and bench only.

Adding one touches its own file, its test and its words; nothing else knows their names.
"""

import functools
import importlib
import operator
import pkgutil
from typing import TYPE_CHECKING, Annotated, Any

from pydantic import Field

from jamreel.core.parts.base import Part, registered_parts

_HELPERS = {"base", "pictures", "beads", "ends", "own_shape"}
for _module in sorted(m.name for m in pkgutil.iter_modules(__path__) if m.name not in _HELPERS):
    importlib.import_module(f"{__name__}.{_module}")

if TYPE_CHECKING:
    AnyPart = Part
else:
    AnyPart: Any = Annotated[
        functools.reduce(operator.or_, registered_parts().values()), Field(discriminator="kind")
    ]


def lengthening(pin: float) -> Part:
    """Return the part that is added at the back to reach a length, of some inner diameter [mm]."""
    cls = next(cls for cls in registered_parts().values() if cls.lengthens)
    return cls.model_validate({"pin": pin})


__all__ = ["AnyPart", "Part", "lengthening", "registered_parts"]
