"""The wire that a piece or a part of it is made of, with the facts that its rules need."""

from dataclasses import dataclass, replace

from jamreel.core.forming.springback import sprung_diameter
from jamreel.core.wire.gauges import WireSize
from jamreel.core.wire.metals import Metal, WireChoice, metal_of, yield_of


@dataclass(frozen=True)
class Wire:
    """The chosen wire: diameter d [mm], what it is called, its metal, temper and yield [MPa]."""

    d: float
    label: str
    metal: Metal
    temper: str
    yield_mpa: float

    def sprung(self, former: float) -> float:
        """Return the inside diameter [mm] that this wire opens to off a former."""
        return sprung_diameter(former, self.d, self.yield_mpa, self.metal.youngs)

    def of_size(self, size: WireSize | None) -> "Wire":
        """Return wire of the same metal and temper in another size, or this one for None."""
        if size is None:
            return self
        return replace(self, d=size.diameter_mm, label=size.label)

    def of_diameter(self, diameter: float) -> "Wire":
        """Return wire of the same metal and temper, so many mm thick."""
        return replace(self, d=diameter, label=f"{diameter:.2f} mm")


def chosen(choice: WireChoice) -> Wire:
    """Return the facts of a wire as chosen. Raises Refusal for a metal that is not known."""
    return Wire(
        choice.size.diameter_mm,
        choice.size.label,
        metal_of(choice),
        choice.temper,
        yield_of(choice),
    )
