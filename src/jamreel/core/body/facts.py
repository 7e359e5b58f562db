"""Sites, methods and population ranges: facts from data files beside this one."""

import tomllib
from functools import cache
from importlib.resources import files
from typing import Any, Literal

from jamreel.core.values import Backing, Frozen

Percentile = Literal[5, 50, 95]


class Site(Frozen):
    """A place to measure; see data/sites.toml for what each figure means."""

    id: str
    low: float
    high: float
    kind: Literal["girth", "breadth", "arc"]
    sd: float | None = None
    floor: float = 0.0


class Method(Frozen):
    """A way to take a girth; see data/methods.toml for what each figure means."""

    id: str
    thickness: float
    along: Literal["none", "middle", "outside"]
    sd: float
    kinds: tuple[str, ...]
    needs_ease: bool = False


class PopulationRange(Frozen):
    """A girth's range over a group of people [mm], with its source."""

    id: str
    site: str
    group: str
    n: int | None = None
    mean: float | None = None
    sd: float | None = None
    p5: float
    p50: float
    p95: float
    backing: Backing
    source: str

    def at(self, percentile: Percentile) -> float:
        """Return the girth [mm] at one of the percentiles that the source gives."""
        return {5: self.p5, 50: self.p50, 95: self.p95}[percentile]

    @property
    def plus_minus(self) -> float:
        """Half the width from the 5th to the 95th percentile [mm]: a guess is this vague."""
        return (self.p95 - self.p5) / 2


def _load(name: str) -> dict[str, Any]:
    return tomllib.loads(
        files(__package__).joinpath(f"data/{name}.toml").read_text(encoding="utf-8")
    )


@cache
def sites() -> dict[str, Site]:
    """Return all sites by id, in the order in which they are asked for."""
    return {key: Site(id=key, **facts) for key, facts in _load("sites").items()}


@cache
def methods() -> dict[str, Method]:
    """Return all methods by id."""
    return {key: Method(id=key, **facts) for key, facts in _load("methods").items()}


@cache
def populations() -> dict[str, PopulationRange]:
    """Return all population ranges by id."""
    return {row["id"]: PopulationRange(**row) for row in _load("populations")["range"]}
