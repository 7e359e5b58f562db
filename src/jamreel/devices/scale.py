"""A simulated bench scale: what lies on it, to its resolution, with a little jitter."""

import random
from dataclasses import dataclass

from jamreel.devices.readings import GRAMS_PER


@dataclass
class Scale:
    """A scale that sends its reading as a line of text.

    ``seed`` is what its jitter is drawn from: the same seed strays the same way. ``resolution`` [g]
    is its last digit; ``jitter`` [g] how far a reading strays; ``unit`` its unit switch.
    """

    seed: str
    resolution: float = 0.1
    jitter: float = 0.05
    unit: str = "g"

    def __post_init__(self) -> None:
        self._random = random.Random(self.seed)

    def reads(self, grams: float) -> str:
        """Return what the scale sends with so much on it, Enter included."""
        strayed = max(0.0, grams + self._random.uniform(-self.jitter, self.jitter))
        shown = round(strayed / self.resolution) * self.resolution
        places = 1 if self.unit == "g" else 3
        return f"{shown / GRAMS_PER[self.unit]:.{places}f} {self.unit}\r\n"
