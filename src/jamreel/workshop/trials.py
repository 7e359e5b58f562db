"""What wire of this bench was tried: wound on a former and came off larger, or woven by rows. Kept
for such wire, and counted with from then on."""

from collections.abc import Callable
from typing import Any

from django.utils import timezone

from jamreel.core.errors import Refusal
from jamreel.core.forming.trial import trial_yield
from jamreel.core.plan import in_words, refuse_in_words
from jamreel.core.shop import WovenSample
from jamreel.workshop.models import Stock, Workshop
from jamreel.workshop.ownership import row
from jamreel.workshop.planning import shop_of
from jamreel.workshop.shops import StaleShop, change_shop
from jamreel.workshop.stock import WIRE_KINDS, length_typed, wire_of

# So often settings that somebody else is saving are read again.
TRIES = 5


def note_trial(workshop: Workshop, stock_id: int, typed: dict[str, Any]) -> Stock:
    """Keep what a wire came off a former at with its reel; the bench's plans go by it.

    With neither length given, what was kept is taken back.

    Args:
        workshop: whose rack.
        stock_id: of the reel.
        typed: ``former`` and ``came_off``, as typed.

    Raises:
        BriefRefused: naming the field that can't be used.
        StaleShop: settings that kept changing meanwhile.
    """
    stock, shop = row(Stock, workshop, stock_id), shop_of(workshop)
    if stock.kind not in WIRE_KINDS:
        refuse_in_words(Refusal("trial_no_wire_here", got=stock.name, field="stock"), shop)
    former, came_off = (length_typed(typed, name, shop) for name in ("former", "came_off"))
    trial: dict[str, Any] = {}
    if former is not None or came_off is not None:
        for name, value in (("former", former), ("came_off", came_off)):
            if value is None:
                refuse_in_words(Refusal("missing", got=None, field=name), shop)
        assert former is not None  # both are given
        assert came_off is not None
        on, off, wire = former, came_off, wire_of(stock.wire, shop)
        found = in_words(lambda: trial_yield(wire, on, off), shop)
        noted = timezone.now().isoformat()
        trial = {"former": on, "came_off": off, "yield_mpa": round(found, 2), "at": noted}
    stock.trial = trial
    stock.save(update_fields=["trial"])
    _count_with(workshop, stock)
    return stock


def keep_sample(workshop: Workshop, sample: WovenSample, *, kept: bool) -> None:
    """Keep how the maker weaves a technique in some wire, in place of what was known; or forget it.

    Args:
        workshop: whose hand.
        sample: what was counted.
        kept: whether it is kept.

    Raises:
        StaleShop: settings that kept changing meanwhile.
    """

    def with_it(typed: dict[str, Any]) -> dict[str, Any]:
        def same(one: dict[str, Any]) -> bool:
            return (one.get("technique"), one.get("stock")) == (sample.technique, sample.stock)

        others = [one for one in typed.get("woven", []) if not same(one)]
        return {"woven": [*others, *([sample.model_dump()] if kept else [])]}

    _change(workshop, with_it)


def _count_with(workshop: Workshop, stock: Stock) -> None:
    """Put the yield of a reel into the settings in place of what stood there for such wire."""

    def with_it(typed: dict[str, Any]) -> dict[str, Any]:
        kept = [one for one in typed.get("measured", []) if one.get("stock") != stock.key]
        if stock.trial:
            mpa = stock.trial["yield_mpa"]
            kept.append({"stock": stock.key, "reel": stock.name, "yield_mpa": mpa})
        return {"measured": kept}

    _change(workshop, with_it)


def _change(workshop: Workshop, change: Callable[[dict[str, Any]], dict[str, Any]]) -> None:
    """Change some of the settings, whoever saves others meanwhile."""
    for n in range(TRIES):
        fresh = Workshop.objects.get(pk=workshop.pk)
        typed = fresh.shop if isinstance(fresh.shop, dict) else {}
        try:
            change_shop(fresh, fresh.shop_version, {**typed, **change(typed)})
        except StaleShop:
            if n == TRIES - 1:
                raise
        else:
            return
