"""Open ends: nothing fastens, the piece is tied, hung or pinned by its last loops."""

from typing import ClassVar, Literal

from jamreel.core.closures.base import NOTHING, Closure, Fastened
from jamreel.core.forming.palette import Palette


class OpenEnds(Closure):
    """No closure."""

    fastens: ClassVar[bool] = False

    kind: Literal["open_ends"] = "open_ends"

    def make(self, wires: Palette) -> Fastened:
        """Return two ends that add nothing."""
        return Fastened(NOTHING, NOTHING)
