"""Bought head and eye pins: lengths of wire with one end done, that loops are bent from."""

from jamreel.core.advice import Advice
from jamreel.core.advice.parts import pin_reaches
from jamreel.core.bench.steps import Step
from jamreel.core.forming.chosen import Wire
from jamreel.core.parts.base import Bought, Stretches, part_step, size_of
from jamreel.core.path.moves import developed_length

PIN_LENGTH_RANGE = (10.0, 150.0)


class BoughtPin:
    """A pin of some kind, head or eye, and length [mm], and what is made from it."""

    def __init__(self, key: str, wire: Wire, length: float, stretches: Stretches) -> None:
        self._key, self._wire, self._length = key, wire, length
        self.takes = sum(developed_length(moves, wire.d) for _, moves in stretches)

    @property
    def bought(self) -> Bought:
        """It as it is bought; what stays of it weighs."""
        return Bought(
            self._key, size_of(self._wire.d, self._length), 1, self._wire.mass(self.takes)
        )

    @property
    def snipped(self) -> Step:
        """The step that takes off what stands over."""
        over = max(self._length - self.takes, 0.0)
        return part_step("pin_snip", cautions=("eyes",), over=over, pin_length=self._length)

    @property
    def advice(self) -> Advice | None:
        """Whether it is long enough."""
        return pin_reaches(self._length, self.takes)
