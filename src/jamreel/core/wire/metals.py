"""Metals by name and temper: facts from a data file, each with its source."""

import math
import tomllib
from collections.abc import Sequence
from functools import cache
from importlib.resources import files
from typing import Annotated, Any, Literal

from pydantic import Field

from jamreel.core.errors import Refusal
from jamreel.core.values import Backing, Frozen
from jamreel.core.wire.gauges import SIZE_AS_TYPED, WireSize
from jamreel.core.wire.sections import Section

Temper = Literal["dead_soft", "quarter_hard", "half_hard", "full_hard", "spring"]
Heat = Literal["solder", "ball", "anneal"]

# True strain that hammering, twisting and drawing may still give a wire before it is annealed, by
# temper; from memory, no source. How tight it may be *bent* is another figure: ``Metal.bends``.
BEARS: dict[Temper, float] = {
    "dead_soft": 0.5,
    "quarter_hard": 0.3,
    "half_hard": 0.15,
    "full_hard": 0.05,
    "spring": 0.03,
}
# True strain of the cold work that makes soft wire so hard: drawn by 1, 2, 4 and 8 gauge numbers, a
# fifth of the area each (39 numbers are a factor of 92). Source: ASTM B601, from memory.
_NUMBER = 2 * math.log(92) / 39
WORKED: dict[Temper, float] = {
    "dead_soft": 0.0,
    "quarter_hard": _NUMBER,
    "half_hard": 2 * _NUMBER,
    "full_hard": 4 * _NUMBER,
    "spring": 8 * _NUMBER,
}


class Metal(Frozen):
    """What is known of a metal; yields [MPa] by temper, density [g/cm3], modulus [MPa].

    ``strain_k`` [MPa] and ``strain_n`` are those of sigma = K eps^n where published. ``takes`` is
    what a torch at the bench can do with it, ``quench`` whether it may go from the flame into
    water, ``bends`` the least inside radius that it is bent to without cracking, in thicknesses, by
    temper (0 is flat on itself). A ``cord`` is none: it is cut off the reel, and no piece is bent
    from it.
    """

    id: str
    name: str
    density: float
    youngs: float
    colour: str
    hard: bool = False
    cord: bool = False
    backing: Backing
    source: str
    strain_k: float | None = None
    strain_n: float | None = None
    takes: tuple[Heat, ...] = ("solder", "ball", "anneal")
    quench: bool = True
    bends: dict[Temper, float]
    yields: dict[Temper, float]

    def __hash__(self) -> int:
        # What is made of a metal is remembered by it; its table of yields has no hash of its own.
        return hash((self.id, self.density, self.youngs))

    def bend_radius(self, worked: float) -> float:
        """Return the least inside radius of a bend in thicknesses.

        Args:
            worked: true strain of cold work since it was soft; ``WORKED`` of a temper.

        Returns:
            That of the hardest temper which it has reached.

        Source: data/metals.toml, a metal at a time.
        """
        reached = [temper for temper, strain in WORKED.items() if strain <= worked + 1e-9]
        return self.bends[reached[-1]]


def _bends() -> dict[Temper, float]:
    return metals()["brass"].bends


def _yields() -> dict[Temper, float]:
    return {"dead_soft": 70, "quarter_hard": 140, "half_hard": 210, "full_hard": 310, "spring": 345}


class OwnMetal(Frozen):
    """A metal of the maker's own, or the maker's figures for one that the table has."""

    id: str = Field(pattern=r"^[a-z][a-z0-9_]{0,39}$")
    name: str = Field(min_length=1, max_length=60)
    density: float = Field(gt=0.5, lt=25)
    youngs: float = Field(default=110000, gt=1000, lt=500000)
    colour: str = Field(default="#9AA3A5", pattern=r"^#[0-9A-Fa-f]{6}$")
    hard: bool = False
    takes: tuple[Heat, ...] = ("solder", "ball", "anneal")
    yields: dict[Temper, Annotated[float, Field(gt=1, lt=3000)]] = Field(default_factory=_yields)

    def as_metal(self) -> Metal:
        """Return it beside those of the table, backed by the maker's own measuring."""
        return Metal(
            **self.model_dump(exclude={"yields"}),
            backing="measured",
            source="the maker's own",
            bends=_bends(),
            yields={**_yields(), **self.yields},
        )


class WireChoice(Frozen):
    """The wire a maker chose. ``yield_mpa`` overrides the table with the maker's own figure.

    With a ``section`` the wire is of that instead of round; ``size`` then counts for nothing.
    """

    size: Annotated[WireSize, SIZE_AS_TYPED]
    metal: str = "copper"
    temper: Temper = "half_hard"
    section: Section | None = None
    yield_mpa: float | None = Field(default=None, gt=1, lt=3000)


@cache
def metals() -> dict[str, Metal]:
    """Return all metals by id, then the cords. Sources: data/metals.toml and data/cords.toml, one
    at a time."""
    found = {}
    for name in ("metals", "cords"):
        text = files(__package__).joinpath(f"data/{name}.toml").read_text(encoding="utf-8")
        rows = tomllib.loads(text).items()
        found.update({key: Metal(id=key, **facts) for key, facts in rows})
    return found


def metal_of(wire: WireChoice, own: Sequence[OwnMetal] = ()) -> Metal:
    """Return the chosen metal.

    Args:
        wire: as chosen.
        own: metals of the maker's own, which come before those of the table.

    Raises:
        Refusal: a metal that neither has.

    Source: data/metals.toml, a metal at a time.
    """
    known = all_metals(own)
    if wire.metal not in known:
        raise Refusal("metal", got=wire.metal, field="wire.metal", known=", ".join(sorted(known)))
    return known[wire.metal]


def all_metals(own: Sequence[OwnMetal] = ()) -> dict[str, Metal]:
    """Return the table's metals with the maker's own in their place or beside them, by id."""
    return {**metals(), **{one.id: one.as_metal() for one in own}} if own else metals()


def as_typed(wire: WireChoice) -> dict[str, Any]:
    """Return a wire as a maker would type it, every length with its unit.

    Args:
        wire: as read.

    Source: the format of a brief (docs/format).
    """
    typed: dict[str, Any] = {
        "size": f"{wire.size.diameter_mm:.4f} mm",
        "metal": wire.metal,
        "temper": wire.temper,
    }
    if wire.section is not None:
        typed["section"] = {
            name: f"{value} mm" if isinstance(value, float) and name != "share" else value
            for name, value in wire.section.model_dump().items()
        }
    return typed


def typed_by_key(key: str) -> dict[str, Any] | None:
    """Return a round wire as a maker would type it, from the key that it goes by on a rack.

    Args:
        key: metal, temper, section and size; see ``forming.chosen.stock_key``.

    Returns:
        The wire, its diameter to a hundredth of a millimetre; None for any other section.

    Example:
        >>> typed_by_key("copper/half_hard/round/0.81x0.81")
        {'size': '0.81 mm', 'metal': 'copper', 'temper': 'half_hard'}

    Source: ``forming.chosen.stock_key``, read backwards.
    """
    metal, _, rest = key.partition("/")
    temper, _, rest = rest.partition("/")
    shape, _, size = rest.partition("/")
    if shape != "round":
        return None
    return {"size": f"{size.partition('x')[0]} mm", "metal": metal, "temper": temper}
