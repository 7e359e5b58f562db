"""The wire that a piece or a part of it is made of, with the facts that its rules need."""

from collections.abc import Mapping
from dataclasses import dataclass, field, fields, replace
from functools import cached_property
from typing import Any

from jamreel.core.forming.law import Law
from jamreel.core.forming.springback import sprung_diameter
from jamreel.core.forming.strength import plastic_moment
from jamreel.core.wire.gauges import WireSize
from jamreel.core.wire.metals import WORKED, Metal, OwnMetal, Temper, WireChoice, metal_of
from jamreel.core.wire.sections import Round, Section, Twisted, round_area


@dataclass(frozen=True)
class Wire:
    """The chosen wire: diameter d [mm], what it is called, its metal, temper and yield [MPa].

    ``hardening`` says whether its springback counts with the metal's published hardening.
    """

    d: float
    label: str
    metal: Metal
    temper: Temper
    yield_mpa: float
    section: Section | None = None
    hardening: bool = False

    @cached_property
    def law(self) -> Law:
        """How its metal answers to strain; it hardens where that was chosen and is published."""
        k, n = (self.metal.strain_k, self.metal.strain_n) if self.hardening else (None, None)
        return Law(self.metal.youngs, self.yield_mpa, k, n)

    @cached_property
    def shape(self) -> Section:
        """Its section, round where no other was chosen."""
        return self.section or Round(diameter=self.d)

    @cached_property
    def area(self) -> float:
        """Area of its section [mm2]."""
        return self.section.area if self.section is not None else round_area(self.d)

    @cached_property
    def bend_adds(self) -> float:
        """What a bend on a pin adds to the pin, to give the diameter of its centre-line [mm]: d
        of round wire, twice the neutral offset of any other."""
        return self.d if self.section is None else 2 * self.section.neutral_offset

    @property
    def moment(self) -> float:
        """Bending moment at which it gives [N mm]."""
        return plastic_moment(self.shape.plastic_modulus, self.yield_mpa)

    def radius_on(self, pin: float) -> float:
        """Return the radius [mm] of its centre-line on a pin."""
        return (pin + self.bend_adds) / 2

    def strain_on(self, pin: float) -> float:
        """Return the strain of its farther fibre on a pin, d / (D + d) of round wire."""
        return self.fibre / (pin + self.bend_adds)

    def bend_limit(self, worked: float | None = None) -> float:
        """Return the strain of its farther fibre at the tightest bend that it takes.

        Args:
            worked: true strain of cold work since it was soft; that of its temper if not given.

        Source: ``Metal.bend_radius``, published bend radii and wrap tests.
        """
        if worked is None:
            worked = WORKED[self.temper]
        radius = self.metal.bend_radius(worked)
        if isinstance(self.section, Twisted):
            # Every strand is bent by itself, further out or further in.
            return 1 / (2 * radius + 1)
        return self.strain_on(2 * radius * self.fibre)

    @property
    def key(self) -> str:
        """What wire on a rack has to be to stand in for it: metal, temper, section, size."""
        return stock_key(self.metal.id, self.temper, self.shape)

    @cached_property
    def fibre(self) -> float:
        """Twice the way from the neutral line to the farther fibre [mm]: the thickness of what is
        alike on both sides, more of half-round wire, one strand of what is twisted."""
        if isinstance(self.section, Twisted):
            return self.section.strand
        offset = self.shape.neutral_offset
        return 2 * max(offset, self.shape.thickness - offset)

    def mass(self, length: float) -> float:
        """Return the mass [g] of a length of it [mm]."""
        return section_mass(self.area, length, self.metal.density)

    def sprung(self, former: float) -> float:
        """Return the inside diameter [mm] that this wire opens to off a former."""
        found = self._sprung.get(former)
        if found is None:
            found = self._sprung[former] = sprung_diameter(former, self.shape, self.law)
        return found

    # A piece bends the same wire on the same few pins again and again.
    @cached_property
    def _sprung(self) -> dict[float, float]:
        return {}

    def __hash__(self) -> int:
        return self._hash

    # Handed to another process it is what was chosen: a hash is another one there, and what it is
    # written down as must not hang on what was asked of it before.
    def __getstate__(self) -> dict[str, Any]:
        return {one.name: getattr(self, one.name) for one in fields(self)}

    @cached_property
    def _hash(self) -> int:
        return hash((self.d, self.metal, self.temper, self.yield_mpa, self.section))

    @property
    def softened(self) -> "Wire":
        """It as soft as a torch makes it."""
        return replace(self, temper="dead_soft", yield_mpa=self.metal.yields["dead_soft"])

    def of_size(self, size: WireSize | None) -> "Wire":
        """Return wire of the same metal and temper in another size, or this one for None."""
        if size is None:
            return self
        return replace(self, d=size.diameter_mm, label=size.label, section=None)

    def of_diameter(self, diameter: float) -> "Wire":
        """Return wire of the same metal and temper, so many mm thick."""
        return replace(self, d=diameter, label=f"{diameter:.2f} mm", section=None)


@dataclass(frozen=True)
class Known:
    """What a bench knows of metals: those of its own, by the key of a wire the yield [MPa] that a
    reel of it came out at, and whether springback counts with hardening."""

    metals: tuple[OwnMetal, ...] = ()
    yields: Mapping[str, float] = field(default_factory=dict)
    hardening: bool = False


# A bench that has found out nothing by itself.
UNKNOWN = Known()


def chosen(choice: WireChoice, known: Known = UNKNOWN) -> Wire:
    """Return the facts of a wire as chosen.

    Args:
        choice: size or section, metal, temper.
        known: what the bench knows of metals.

    Raises:
        Refusal: a metal that is not known.

    Source: data/metals.toml, a metal at a time.
    """
    metal, section = metal_of(choice, known.metals), choice.section
    wire = Wire(
        section.thickness if section is not None else choice.size.diameter_mm,
        section.label if section is not None else choice.size.label,
        metal,
        choice.temper,
        choice.yield_mpa or metal.yields[choice.temper],
        section,
        known.hardening,
    )
    measured = None if choice.yield_mpa else known.yields.get(wire.key)
    return replace(wire, yield_mpa=measured) if measured else wire


def stock_key(metal: str, temper: str, section: Section) -> str:
    """Return a key that wires have in common when one may be cut for the other.

    Args:
        metal: its id.
        temper: its id.
        section: diameters are told apart to hundredths of a millimetre.

    Source: common practice.
    """
    size = f"{section.width:.2f}x{section.thickness:.2f}"
    return f"{metal}/{temper}/{section.shape}/{size}"


def section_mass(area: float, length: float, density: float) -> float:
    """Return the mass of a length of wire, density times area times length.

    Args:
        area: of the section [mm2].
        length: [mm].
        density: [g/cm3].

    Returns:
        Mass [g].

    Example:
        >>> round(section_mass(0.7854, 1000.0, 8.94), 3)
        7.021

    Source: plain geometry.
    """
    return density * 1e-3 * area * length


def length_of_mass(mass: float, tare: float, area: float, density: float) -> float:
    """Return the length of wire on a reel that was weighed, (mass - tare) / (density area).

    Args:
        mass: of the reel with its wire [g].
        tare: of the empty reel [g].
        area: of the wire's section [mm2].
        density: [g/cm3].

    Returns:
        Length [mm].

    Raises:
        ValueError: less than the empty reel weighs.

    Example:
        >>> round(length_of_mass(50.0 + 7.0215, 50.0, 0.785398, 8.94))
        1000

    Source: plain geometry.
    """
    if mass < tare:
        raise ValueError("that is less than the empty reel")
    return (mass - tare) / (density * 1e-3 * area)
