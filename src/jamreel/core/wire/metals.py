"""Metals by name and temper: facts from a data file, each with its source."""

import tomllib
from functools import cache
from importlib.resources import files
from typing import Annotated, Literal

from pydantic import Field

from jamreel.core.errors import Refusal
from jamreel.core.values import Backing, Frozen
from jamreel.core.wire.gauges import SIZE_AS_TYPED, WireSize
from jamreel.core.wire.sections import round_area

Temper = Literal["dead_soft", "quarter_hard", "half_hard", "full_hard", "spring"]


class Metal(Frozen):
    """What is known of a metal; yields [MPa] by temper, density [g/cm3], modulus [MPa]."""

    id: str
    name: str
    density: float
    youngs: float
    colour: str
    hard: bool = False
    backing: Backing
    source: str
    yields: dict[Temper, float]


class WireChoice(Frozen):
    """The wire a maker chose. ``yield_mpa`` overrides the table with the maker's own figure."""

    size: Annotated[WireSize, SIZE_AS_TYPED]
    metal: str = "copper"
    temper: Temper = "half_hard"
    yield_mpa: float | None = Field(default=None, gt=1, lt=3000)


@cache
def metals() -> dict[str, Metal]:
    """Return all metals by id. Sources: data/metals.toml, a metal at a time."""
    text = files(__package__).joinpath("data/metals.toml").read_text(encoding="utf-8")
    return {key: Metal(id=key, **facts) for key, facts in tomllib.loads(text).items()}


def metal_of(wire: WireChoice) -> Metal:
    """Return the chosen metal.

    Raises:
        Refusal: a metal that the table does not have.
    """
    if wire.metal not in metals():
        raise Refusal(
            "metal", got=wire.metal, field="wire.metal", known=", ".join(sorted(metals()))
        )
    return metals()[wire.metal]


def yield_of(wire: WireChoice) -> float:
    """Return the yield stress [MPa] of the chosen metal and temper, or the maker's own."""
    return wire.yield_mpa or metal_of(wire).yields[wire.temper]


def wire_mass(diameter: float, length: float, density: float) -> float:
    """Return the mass of a round wire, density times area times length.

    Args:
        diameter: wire diameter [mm].
        length: cut length [mm].
        density: [g/cm3].

    Returns:
        Mass [g].

    Example:
        >>> round(wire_mass(1.0, 1000.0, 8.94), 3)
        7.021

    Source: plain geometry.
    """
    return density * 1e-3 * round_area(diameter) * length
