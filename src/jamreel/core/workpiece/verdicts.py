"""Answers to a try-on: the shared shape of a verdict, and the commonest ones."""

from typing import Any

from jamreel.core.fit.tryon import Change, PuttingRight, TryOn
from jamreel.core.words import say

# Within this of the plan a made piece is right: what a tape on the inside can tell [mm].
TOLERANCE_MM = 2.0


def verdict(
    key: str,
    *,
    settled: bool = False,
    amount: float | None = None,
    snip: float | None = None,
    changes: tuple[Change, ...] = (),
    **values: float | str,
) -> PuttingRight:
    """Return the verdict that the catalogue words under ``righting.<key>``."""
    known = {"amount": amount, "snip": snip, **values}
    return PuttingRight(
        verdict=key,
        settled=settled,
        says=say(f"righting.{key}.says", **known),
        because=say(f"righting.{key}.because", **known),
        amount_mm=amount,
        amount_label=None if amount is None else say(f"righting.{key}.amount"),
        snip_mm=snip,
        changes=changes,
    )


def change(figure: str, before: float, after: float) -> Change:
    """Return a figure before and after, named as in the plan."""
    return Change(label=say(f"figure.{figure}"), before_mm=before, after_mm=after)


# What a maker is asked of a fit, in the order in which the answers count.
ASKED = ("passes_hand", "goes_on", "comfortable", "stays_on")


def felt(tryon: TryOn, **values: Any) -> PuttingRight:
    """Return what to do about the first thing that is not as it should be; that it fits where all
    is.

    Args:
        tryon: what was noted.
        values: by what was asked, the verdict where it was answered no; and what the words of the
            verdicts want to know.

    Source: common practice.
    """
    wrong = (values[one] for one in ASKED if one in values and getattr(tryon, one) is False)
    key = next(wrong, None)
    more = {name: value for name, value in values.items() if name not in ASKED}
    return verdict(key, **more) if key else verdict("fits", settled=True)


def by_inside_girth(
    measured: float,
    planned: float,
    *,
    too_big: str,
    too_small: str,
    remade: float | None = None,
    tolerance: float = TOLERANCE_MM,
) -> PuttingRight:
    """Return the verdict on an inside girth by tape: as planned, too big, or too small.

    Args:
        measured: of the made piece [mm].
        planned: [mm].
        too_big: verdict that says what to do with too much; told the ``amount``.
        too_small: verdict that says what to do with too little; told the ``amount``.
        remade: the loop or eye that comes off with the excess and is made again [mm].
        tolerance: within which it came out as planned [mm].

    Source: plain arithmetic.
    """
    off = measured - planned
    if abs(off) <= tolerance:
        return verdict("as_planned", settled=True, open=measured)
    changes = (change("inside", measured, planned),)
    if off > 0:
        if remade is None:
            return verdict(too_big, amount=off, changes=changes)
        return verdict(too_big, amount=off, snip=off + remade, changes=changes, loop=remade)
    return verdict(too_small, amount=-off, changes=changes)
