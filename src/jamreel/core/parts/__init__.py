"""Parts, one file each, registering itself; imports path, wire, forming and bench only.

Adding one touches its own file, its test and its words; nothing else knows their names.
"""

from typing import Annotated

from jamreel.core.parts.base import PARTS, Part, registered_parts
from jamreel.core.tagged_union import TaggedUnion

PARTS.stand_in(__name__)

AnyPart = Annotated[Part, TaggedUnion(PARTS, Part)]


def lengthening(pin: float) -> Part:
    """Return the part that is added at the back to reach a length, of some inner diameter [mm]."""
    cls = next(cls for cls in registered_parts().values() if cls.lengthens)
    return cls.model_validate({"pin": pin})


__all__ = ["AnyPart", "Part", "lengthening", "registered_parts"]
