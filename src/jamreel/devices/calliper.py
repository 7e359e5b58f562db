"""A simulated calliper: a length to its resolution, with a little jitter and a unit switch."""

import random
from dataclasses import dataclass
from typing import Literal

MM_PER_INCH = 25.4


@dataclass
class Calliper:
    """A calliper that sends its reading as a line of text, as its cable types it.

    ``seed`` is what its jitter is drawn from; ``resolution`` and ``jitter`` [mm].
    """

    seed: str
    resolution: float = 0.01
    jitter: float = 0.015
    unit: Literal["mm", "in"] = "mm"

    def __post_init__(self) -> None:
        self._random = random.Random(self.seed)

    def reads(self, length_mm: float) -> str:
        """Return what the calliper sends with so much between its jaws, Enter included."""
        strayed = max(0.0, length_mm + self._random.uniform(-self.jitter, self.jitter))
        shown = round(strayed / self.resolution) * self.resolution
        if self.unit == "in":
            return f"{shown / MM_PER_INCH:.4f} in\r\n"
        return f"{shown:.2f} mm\r\n"
