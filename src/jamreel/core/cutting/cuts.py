"""Cuts: named lines that add up to a length, and marks on the straight wire."""

from collections.abc import Sequence

from pydantic import model_validator

from jamreel.core.errors import Refusal
from jamreel.core.path.moves import MarkAt
from jamreel.core.values import Frozen, Length, refused

MOST_TRIM_MM, MOST_MARGIN_MM = 20.0, 200.0


class Cutting(Frozen):
    """What is added to the net length: for two flush cuts, and as a margin.

    Source of the defaults: 1 to 2 for each flush cut, no margin (exact); common practice.
    """

    trim: Length = 1.5
    margin: Length = 0.0

    @model_validator(mode="after")
    def _sane(self) -> "Cutting":
        for name, value, high in (
            ("trim", self.trim, MOST_TRIM_MM),
            ("margin", self.margin, MOST_MARGIN_MM),
        ):
            if value > high:
                raise refused(Refusal("allowance", got=f"{value:g} mm", under=name, high=high))
        return self


class CutLine(Frozen):
    """One named part of a cut length [mm]."""

    id: str
    label: str
    value_mm: float


class Cut(Frozen):
    """A wire to cut: its lines add up to ``length_mm``; marks count from its left end."""

    id: str
    label: str
    wire: str
    wire_mm: float
    metal: str
    temper: str
    quantity: int
    length_mm: float
    lines: tuple[CutLine, ...]
    marks: tuple[MarkAt, ...]


def cut_length(lines: Sequence[CutLine]) -> float:
    """Return the cut length [mm] that named lines add up to."""
    return sum(line.value_mm for line in lines)
