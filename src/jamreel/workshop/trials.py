"""What wire of this bench was tried: wound on a former and came off larger, or woven by rows. Kept
for such wire, and counted with from then on."""

from typing import Any

from django.utils import timezone

from jamreel.core.errors import Refusal
from jamreel.core.forming.trial import trial_yield
from jamreel.core.plan import in_words, refuse_in_words
from jamreel.core.shop import WovenSample
from jamreel.core.words import say
from jamreel.workshop.hands import aside_of, put_on_record, sum_up
from jamreel.workshop.models import HandRecord, Stock, Workshop
from jamreel.workshop.ownership import row, rows
from jamreel.workshop.planning import shop_of
from jamreel.workshop.shops import change_hand
from jamreel.workshop.stock import WIRE_KINDS, length_typed, wire_of


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
        on, off = former, came_off
        found = trial_of(workshop, stock, on, off)
        noted = timezone.now().isoformat()
        trial = {"former": on, "came_off": off, "yield_mpa": round(found, 2), "at": noted}
    stock.trial = trial
    stock.save(update_fields=["trial"])
    # What stands with the reel is one trial, noted anew; trials of pieces count beside it.
    before = rows(HandRecord, workshop).filter(reel=stock, kind="former", source="reel")
    changed = aside_of(workshop, before, say("hand.noted_anew" if trial else "hand.taken_back"))
    sum_up(workshop, changed)
    if trial:
        on, off, mpa = trial["former"], trial["came_off"], trial["yield_mpa"]
        put_on_record(workshop, [former_record(workshop, stock, on, off, mpa, "reel")])
    return stock


def trial_of(workshop: Workshop, reel: Stock, former: float, came_off: float) -> float:
    """Return the yield [MPa] of a reel that was wound on a former and came off larger [mm].

    Raises:
        BriefRefused: figures that no such wire gives.
    """
    shop = shop_of(workshop)
    wire = wire_of(reel.wire, shop)
    return in_words(lambda: trial_yield(wire, former, came_off), shop)


def former_record(
    workshop: Workshop, reel: Stock, former: float, came_off: float, mpa: float, source: str
) -> HandRecord:
    """Return a former test as a record, not kept yet: what it was wound on, what it came off at
    [mm], and the yield [MPa] that tells of it."""
    return HandRecord(
        workshop=workshop,
        kind="former",
        technique="former",
        stock=reel.key,
        planned=former,
        took=came_off,
        ratio=mpa,
        source=source,
        reel=reel,
    )


def keep_sample(
    workshop: Workshop, sample: WovenSample, *, kept: bool, by_sum: float = 0.0
) -> None:
    """Keep how the maker weaves a technique in some wire, in place of what was known; or forget it.

    Args:
        workshop: whose hand.
        sample: what was counted.
        kept: whether it is kept.
        by_sum: wire of as many rows by the sum [mm], nought where that was not read.

    Raises:
        StaleShop: settings that kept changing meanwhile.
    """

    def with_it(typed: dict[str, Any]) -> dict[str, Any]:
        def same(one: dict[str, Any]) -> bool:
            return (one.get("technique"), one.get("stock")) == (sample.technique, sample.stock)

        others = [one for one in typed.get("woven", []) if not same(one)]
        return {"woven": [*others, *([sample.model_dump()] if kept else [])]}

    change_hand(workshop, with_it)
    about = {"kind": "wire", "technique": sample.technique, "stock": sample.stock}
    before = rows(HandRecord, workshop).filter(source="weave", **about)
    changed = aside_of(workshop, before, say("hand.noted_anew" if kept else "hand.taken_back"))
    sum_up(workshop, changed)
    if kept and sample.tight is not None and by_sum > 0:
        took = by_sum * sample.tight
        record = HandRecord(workshop=workshop, source="weave", planned=by_sum, took=took, **about)
        put_on_record(workshop, [record])
