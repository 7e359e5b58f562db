"""Families: one construction each, registering itself when its module is imported.

Adding one touches its own package, its test and its drawing; nothing else knows their names.
"""

from typing import Annotated

import jamreel.core.interlace  # noqa: F401  (its bodies register as parts)
from jamreel.core.families.base import CONSTRUCTIONS, Construction, registered
from jamreel.core.tagged_union import TaggedUnion

CONSTRUCTIONS.stand_in(__name__)

Piece = Annotated[Construction, TaggedUnion(CONSTRUCTIONS, Construction)]

__all__ = ["Construction", "Piece", "registered"]
