"""The body's own eye and hook: strands that end in both need nothing more to fasten."""

from typing import ClassVar, Literal

from jamreel.core.closures.base import NOTHING, Closure, Fastened
from jamreel.core.forming.palette import Palette


class OwnEnds(Closure):
    """No halves of its own: the hook at the body's end goes into the eye at its start."""

    fastens: ClassVar[bool] = False
    by_body: ClassVar[bool] = True

    kind: Literal["own_ends"] = "own_ends"

    def make(self, wires: Palette) -> Fastened:
        """Return two ends that add nothing."""
        return Fastened(NOTHING, NOTHING)
