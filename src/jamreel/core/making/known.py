"""Orders and walks that are known already: they hang on what hangs in what, not on sizes."""

from functools import lru_cache

from jamreel.core.bench.steps import Step
from jamreel.core.making.order import Order, order_of
from jamreel.core.making.things import Things
from jamreel.core.making.walk import Broken, walk


class Declared:
    """Steps, equal where they do the same to the same things, whatever figures they speak of."""

    def __init__(self, steps: tuple[Step, ...]) -> None:
        self.steps = steps
        self.declared = tuple(
            (
                one.id,
                one.thing,
                one.makes,
                one.takes_in,
                one.shuts,
                one.works,
                one.cautions,
                one.does,
            )
            for one in steps
        )

    def __hash__(self) -> int:
        return hash(self.declared)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Declared) and self.declared == other.declared


# A keystroke changes figures more often than what hangs in what: then the order is known already.
# Few are kept: one of a thousand parts holds on to half a megabyte.
@lru_cache(maxsize=32)
def known_order(things: Things, tried: bool, voice: tuple[str, str]) -> Order:
    """Return the order of a piece, said in a ``voice``. Raises Refusal like ``order_of``."""
    return order_of(things, tried=tried)


@lru_cache(maxsize=32)
def known_walk(things: Things, order: Order, declared: Declared, tried: bool) -> Broken | None:
    """Return the first law that steps break, like ``walk``."""
    return walk(things, order, declared.steps, tried=tried)
