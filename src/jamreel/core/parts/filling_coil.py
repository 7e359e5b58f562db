"""The coil that fills: cut to the turns that a gap on its core takes."""

from typing import ClassVar, Literal

from jamreel.core.choices import like
from jamreel.core.parts.base import Varies
from jamreel.core.parts.coil import Coiled
from jamreel.core.wire.gauges import CoreSize

# What is left is less than a turn of all coils together.
MOST_LEFT = 60


class FillingCoil(Coiled):
    """A close coil that is counted in its own turns: in gaps alike it is alike everywhere."""

    counted_in: ClassVar[str | None] = "turns"

    kind: Literal["filling_coil"] = "filling_coil"
    turns: int = like(Coiled, "turns", 12)
    core: CoreSize = like(Coiled, "core", 2.2)

    def varies(self) -> tuple[Varies, ...]:
        """Return its turns: a coil that stands by itself takes what the others leave."""
        return (Varies("last_turns", "turns", self.turns, tuple(range(1, MOST_LEFT + 1))),)
