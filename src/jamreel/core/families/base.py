"""What every construction is given, and what it must answer."""

from abc import ABC, abstractmethod
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, ClassVar

from jamreel.core.body.readings import Girth, SiteId
from jamreel.core.cutting.cuts import Cutting
from jamreel.core.fit.ease import EaseChoice
from jamreel.core.fit.tryon import TryOn
from jamreel.core.result import Plan
from jamreel.core.shop import Shop
from jamreel.core.values import Frozen
from jamreel.core.wire.metals import WireChoice

_registry: dict[str, type["Construction"]] = {}


@dataclass(frozen=True)
class Job:
    """A brief with its girths worked out, and the shop it is made in."""

    girths: Mapping[SiteId, Girth]
    ease: EaseChoice
    wire: WireChoice
    cutting: Cutting
    made: Mapping[str, float]
    tryon: TryOn | None
    shop: Shop


class Construction(Frozen, ABC):
    """A way to build a piece: its own choices as fields, and the arithmetic in ``solve``."""

    kind: str
    family: ClassVar[str]
    sites: ClassVar[tuple[SiteId, ...]]

    @classmethod
    def __pydantic_init_subclass__(cls, **kwargs: Any) -> None:
        _registry[cls.model_fields["kind"].default] = cls

    @abstractmethod
    def solve(self, job: Job) -> Plan:
        """Return the plan of this construction.

        Raises:
            Refusal: measures or choices that this construction can't be made from.
        """


def registered() -> Mapping[str, type[Construction]]:
    """Return all constructions by kind."""
    return dict(sorted(_registry.items()))
