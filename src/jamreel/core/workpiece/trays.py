"""Which tray of beads or findings may serve a need, as far as its size and its name tell."""

import math
import typing
from collections.abc import Sequence

from jamreel.core.parts.beads import DENSITY, Colour
from jamreel.core.result import Need
from jamreel.core.words import say

# Beads of one label differ by so much [mm]; common practice, no source.
SAME_SIZE_MM = 0.15


def size_apart(need: Need, size_mm: float | None) -> float:
    """Return how far a tray's size is from what is needed [mm], infinite where either is not known.

    Args:
        need: what is wanted.
        size_mm: of what lies in the tray [mm].

    Source: plain arithmetic.
    """
    if need.size_mm is None or size_mm is None:
        return math.inf
    return round(abs(need.size_mm - size_mm), 6)


def tray_fits(need: Need, size_mm: float | None, name: str) -> bool:
    """Return whether a tray holds what is needed; a name that says nothing may be anything.

    Args:
        need: what is wanted.
        size_mm: of what lies in the tray [mm].
        name: that the maker gave it.

    Source: sizes within 0.15 mm are alike; common practice, no source.
    """
    alike = size_apart(need, size_mm) <= SAME_SIZE_MM
    if need.kind != "bead" or not alike:
        return alike
    stuffs = [say(f"stuff.{stuff}") for stuff in DENSITY]
    # A colour goes by its first word: who writes "slate" means slate blue.
    colours = [say(f"choice_option.colour.{c}").split()[0] for c in typing.get_args(Colour)]
    return all(_agree(words, need.size, name.lower()) for words in (stuffs, colours))


def _agree(words: Sequence[str], wanted: str, name: str) -> bool:
    named = [word for word in words if word in name]
    return not named or any(word in wanted for word in named)
