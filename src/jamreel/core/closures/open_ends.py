"""Open ends: nothing fastens, the piece is tied, hung or pinned by its last loops."""

from typing import Literal

from jamreel.core.closures.base import NOTHING, Closure, Fastened
from jamreel.core.forming.chosen import Wire


class OpenEnds(Closure):
    """No closure."""

    kind: Literal["open_ends"] = "open_ends"

    def make(self, wire: Wire) -> Fastened:
        """Return two ends that add nothing."""
        return Fastened(NOTHING, NOTHING, None)
