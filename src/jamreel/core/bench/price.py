"""What a piece cost, and what it could be sold for, by the maker's own figures."""

from pydantic import Field, model_validator

from jamreel.core.errors import Refusal
from jamreel.core.values import Frozen, refused

MOST_SHARE = 10.0


class Pricing(Frozen):
    """The maker's own figures, in the maker's one ``currency`` as it is written there: what an hour
    is worth, what every piece bears of the bench's running (``overheads``), and what is put on all
    that (``share``)."""

    hour: float = Field(default=0.0, ge=0, lt=1e6)
    overheads: float = Field(default=0.0, ge=0, lt=1e6)
    share: float = 0.0
    currency: str = Field(default="", max_length=8)

    @model_validator(mode="after")
    def _sane(self) -> "Pricing":
        if not 0 <= self.share <= MOST_SHARE:
            got, high = f"{100 * self.share:g} %", 100 * MOST_SHARE
            raise refused(Refusal("out_of_range", got=got, under="share", low=0.0, high=high))
        return self


def missing_for_price(pricing: Pricing, unpriced: str, material: float | None) -> tuple[str, ...]:
    """Return what a price lacks: ``hour`` what an hour is worth, ``material`` what some of it cost.

    Args:
        pricing: the maker's figures.
        unpriced: names of what went into the piece and has no price.
        material: what the rest cost, None where nothing of it is known.

    Example:
        >>> missing_for_price(Pricing(), "brass reel", 3.2)
        ('hour', 'material')

    Source: plain accounting.
    """
    lacks = {"hour": pricing.hour <= 0, "material": bool(unpriced) or material is None}
    return tuple(name for name, is_so in lacks.items() if is_so)


def cost_of(material: float, minutes: float, pricing: Pricing) -> float:
    """Return what a piece cost: material, hours, overheads.

    Args:
        material: what went into it, in the maker's money.
        minutes: at the bench.
        pricing: the maker's figures.

    Example:
        >>> cost_of(12.0, 90.0, Pricing(hour=20, overheads=3))
        45.0

    Source: common practice.
    """
    return material + minutes / 60 * pricing.hour + pricing.overheads


def price_of(material: float, minutes: float, pricing: Pricing) -> float:
    """Return what a piece could be sold for: its cost, and the maker's share on it.

    Args:
        material: what went into it, in the maker's money.
        minutes: at the bench.
        pricing: the maker's figures.

    Example:
        >>> price_of(12.0, 90.0, Pricing(hour=20, overheads=3, share=0.2))
        54.0

    Source: common practice.
    """
    return cost_of(material, minutes, pricing) * (1 + pricing.share)
