"""The coil that fills: cut to the turns that a gap on its core takes."""

from typing import ClassVar, Literal

from jamreel.core.parts.coil import Coiled
from jamreel.core.values import Length


class FillingCoil(Coiled):
    """A close coil that is counted in its own turns: in gaps alike it is alike everywhere."""

    counted_in: ClassVar[str | None] = "turns"

    kind: Literal["filling_coil"] = "filling_coil"
    turns: int = 12
    core: Length = 2.2
