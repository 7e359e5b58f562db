"""Cross-sections of wire: area, bounds, neutral offset, second and plastic moments.

Bending is through the thickness, the flat side (where there is one) inwards.
"""

import math
from abc import abstractmethod
from functools import cache
from typing import TYPE_CHECKING, Annotated, Literal

from pydantic import Field, model_validator

from jamreel.core.errors import Refusal
from jamreel.core.roots import root
from jamreel.core.units import Mm
from jamreel.core.values import Frozen, Length, refused
from jamreel.core.words import say

FINEST_MM, THICKEST_MM = 0.1, 30.0
# Radius of the circle on which strands lie, over their diameter: two, three and four strands.
TWIST_RADIUS = {2: 0.5, 3: 1 / math.sqrt(3), 4: 1 / math.sqrt(2)}


def round_area(diameter: float) -> float:
    """Return the area of a round section, pi d^2 / 4.

    Args:
        diameter: wire diameter [mm], over 0.

    Returns:
        Area [mm2].

    Example:
        >>> round(round_area(2.0), 4)
        3.1416

    Source: plain geometry.
    """
    return math.pi * diameter**2 / 4


def round_second_moment(diameter: float) -> float:
    """Return the second moment of area of a round section about a diameter, pi d^4 / 64.

    Args:
        diameter: wire diameter [mm], over 0.

    Returns:
        Second moment [mm4].

    Example:
        >>> round(round_second_moment(2.0), 4)
        0.7854

    Source: plain geometry; any statics textbook.
    """
    return math.pi * diameter**4 / 64


class _Section(Frozen):
    """Base of all sections: checked bounds, and what each has to say."""

    if TYPE_CHECKING:
        # Fields of some sections, figures of others [mm]: across, and through the bend.
        @property
        def width(self) -> float: ...
        @property
        def thickness(self) -> float: ...

    @property
    @abstractmethod
    def area(self) -> float:
        """Area [mm2]."""

    @property
    def neutral_offset(self) -> float:
        """Centroid from the inner face [mm]."""
        return self.thickness / 2

    @property
    @abstractmethod
    def second_moment(self) -> float:
        """Second moment about the bending axis through the centroid [mm4]."""

    @property
    @abstractmethod
    def plastic_modulus(self) -> float:
        """Plastic modulus about the bending axis [mm3]."""

    @property
    def take_up(self) -> float:
        """Wire in a length of it, over the length: 1 but for twisted strands."""
        return 1.0

    @property
    def label(self) -> str:
        """What it is called."""
        kind = getattr(self, "shape", "")
        return say(f"section.{kind}", width=self.width, thickness=self.thickness)

    @model_validator(mode="after")
    def _sane(self) -> "_Section":
        for name, value in (("width", self.width), ("thickness", self.thickness)):
            if not FINEST_MM <= value <= THICKEST_MM:
                raise refused(
                    Refusal(
                        "section_range",
                        got=Mm(value),
                        under=name if name in type(self).model_fields else None,
                        low=FINEST_MM,
                        high=THICKEST_MM,
                    )
                )
        return self


class Round(_Section):
    """Round wire of a ``diameter`` [mm]."""

    shape: Literal["round"] = "round"
    diameter: Length

    @property
    def width(self) -> float:
        """The diameter."""
        return self.diameter

    @property
    def thickness(self) -> float:
        """The diameter."""
        return self.diameter

    @property
    def area(self) -> float:
        """See ``round_area``."""
        return round_area(self.diameter)

    @property
    def second_moment(self) -> float:
        """See ``round_second_moment``."""
        return round_second_moment(self.diameter)

    @property
    def plastic_modulus(self) -> float:
        """d^3 / 6."""
        return self.diameter**3 / 6


class Square(_Section):
    """Square wire with a ``side`` [mm], bent flat."""

    shape: Literal["square"] = "square"
    side: Length

    @property
    def width(self) -> float:
        """The side."""
        return self.side

    @property
    def thickness(self) -> float:
        """The side."""
        return self.side

    @property
    def area(self) -> float:
        """a^2."""
        return self.side**2

    @property
    def second_moment(self) -> float:
        """a^4 / 12."""
        return self.side**4 / 12

    @property
    def plastic_modulus(self) -> float:
        """a^3 / 4."""
        return self.side**3 / 4


class HalfRound(_Section):
    """Half-round wire, its flat of ``flat`` [mm] inwards."""

    shape: Literal["half_round"] = "half_round"
    flat: Length

    @property
    def width(self) -> float:
        """The flat."""
        return self.flat

    @property
    def thickness(self) -> float:
        """Half of the flat."""
        return self.flat / 2

    @property
    def area(self) -> float:
        """pi r^2 / 2."""
        return math.pi * self.thickness**2 / 2

    @property
    def neutral_offset(self) -> float:
        """4 r / 3 pi from the flat."""
        return 4 * self.thickness / (3 * math.pi)

    @property
    def second_moment(self) -> float:
        """r^4 (pi / 8 - 8 / 9 pi)."""
        return self.thickness**4 * (math.pi / 8 - 8 / (9 * math.pi))

    @property
    def plastic_modulus(self) -> float:
        """First moment of both halves of the area about the line that halves it."""
        return _half_disc_plastic() * self.thickness**3


@cache
def _half_disc_plastic() -> float:
    """Plastic modulus of a half disc of radius 1 about an axis along its flat."""

    def below(y: float) -> float:
        return y * math.sqrt(1 - y * y) + math.asin(y)

    y = root(lambda h: below(h) - math.pi / 4, 0.0, 1.0, within=1e-14)
    # First moment about the flat: all of it is 2/3; of what lies above y, 2/3 (1 - y^2)^(3/2).
    above = 2 / 3 * (1 - y * y) ** 1.5
    return float(2 * above - 2 / 3)


class Flat(_Section):
    """Flat strip, ``width`` by ``thickness`` [mm], edges sharp or fully rounded."""

    shape: Literal["flat"] = "flat"
    width: Length
    thickness: Length
    edges: Literal["sharp", "rounded"] = "rounded"

    @model_validator(mode="after")
    def _lies_flat(self) -> "Flat":
        if self.thickness > self.width:
            got = (Mm(self.width), Mm(self.thickness))
            raise refused(Refusal("flat_on_edge", got=got, under="thickness"))
        return self

    @property
    def area(self) -> float:
        """w t, or (w - t) t + pi t^2 / 4 with rounded edges."""
        w, t = self.width, self.thickness
        return w * t if self.edges == "sharp" else (w - t) * t + math.pi * t * t / 4

    @property
    def second_moment(self) -> float:
        """w t^3 / 12, or (w - t) t^3 / 12 + pi t^4 / 64."""
        w, t = self.width, self.thickness
        if self.edges == "sharp":
            return w * t**3 / 12
        return (w - t) * t**3 / 12 + math.pi * t**4 / 64

    @property
    def plastic_modulus(self) -> float:
        """w t^2 / 4, or (w - t) t^2 / 4 + t^3 / 6."""
        w, t = self.width, self.thickness
        return w * t * t / 4 if self.edges == "sharp" else (w - t) * t * t / 4 + t**3 / 6


class Patterned(_Section):
    """Patterned strip by its bounds; ``fills`` is the share of them that is metal."""

    shape: Literal["patterned"] = "patterned"
    width: Length
    thickness: Length
    fills: float = Field(default=0.8, gt=0.1, le=1)

    @property
    def area(self) -> float:
        """Its share of the bounds."""
        return self.width * self.thickness * self.fills

    @property
    def second_moment(self) -> float:
        """Its share of the bounds' own: an estimate, on the low side for a solid back."""
        return self.fills * self.width * self.thickness**3 / 12

    @property
    def plastic_modulus(self) -> float:
        """Its share of the bounds' own, likewise."""
        return self.fills * self.width * self.thickness**2 / 4


class Twisted(_Section):
    """Strands of one diameter twisted together, ``pitch`` a full turn [mm]."""

    shape: Literal["twisted"] = "twisted"
    strands: Literal[2, 3, 4] = 2
    strand: Length
    pitch: Length

    @model_validator(mode="after")
    def _untwists(self) -> "Twisted":
        least = least_pitch(self.strands, self.strand)
        if self.pitch < least:
            raise refused(Refusal("twist_tight", got=Mm(self.pitch), under="pitch", least=least))
        return self

    @property
    def width(self) -> float:
        """Outer diameter: 2, 2.155 or 2.414 strands."""
        return self.strand * (1 + 2 * TWIST_RADIUS[self.strands])

    @property
    def thickness(self) -> float:
        """Outer diameter."""
        return self.width

    @property
    def take_up(self) -> float:
        """See ``twist_take_up``."""
        return twist_take_up(self.strands, self.strand, self.pitch)

    @property
    def area(self) -> float:
        """Area of all strands, as much longer as each is than the twist."""
        return self.strands * round_area(self.strand) * self.take_up

    @property
    def second_moment(self) -> float:
        """That of the strands side by side: they slide on each other."""
        return self.strands * round_second_moment(self.strand)

    @property
    def plastic_modulus(self) -> float:
        """That of the strands side by side."""
        return self.strands * self.strand**3 / 6


def twist_take_up(strands: int, strand: float, pitch: float) -> float:
    """Return how much longer each strand is than the twist, sqrt(1 + (2 pi rho / p)^2).

    Args:
        strands: two, three or four.
        strand: diameter d of each [mm]; rho is d / 2, d / sqrt(3) or d / sqrt(2).
        pitch: p, length of a full turn [mm].

    Returns:
        Take-up, over 1.

    Example:
        >>> round(twist_take_up(3, 0.5, 5.0), 4)
        1.0638

    Source: length of a helix; published.
    """
    return math.hypot(1, 2 * math.pi * TWIST_RADIUS[strands] * strand / pitch)


def least_pitch(strands: int, strand: float) -> float:
    """Return the tightest pitch at which strands still lie beside each other.

        neighbours touch where (p / m) cos(lead) = d, tan(lead) = p / (2 pi rho)

    Args:
        strands: m, two, three or four.
        strand: d [mm].

    Returns:
        Pitch [mm]; tighter than this strands would have to pass through each other.

    Example:
        >>> round(least_pitch(3, 0.5), 2)
        2.67

    Source: plain geometry of strands on an unrolled cylinder.
    """
    round_ = 2 * math.pi * TWIST_RADIUS[strands] * strand
    # p / sqrt(1 + (p / round)^2) = m d, solved for p.
    wanted = strands * strand
    return wanted / math.sqrt(1 - (wanted / round_) ** 2)


Section = Annotated[
    Round | Square | HalfRound | Flat | Patterned | Twisted, Field(discriminator="shape")
]
SHAPES = ("round", "square", "half_round", "flat", "patterned", "twisted")
