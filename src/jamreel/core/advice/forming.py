"""Is there a former near enough?"""

import math
from collections.abc import Iterator, Sequence

from jamreel.core.advice import Advice, advise
from jamreel.core.bench.steps import Step
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.tight import HARD_TEMPERS, Tight
from jamreel.core.forming.tools import Former, Outfit
from jamreel.core.words import say

# What the nearest step may change the inside girth by before the maker is told: mm, and share.
GIRTH_TOLERANCE_MM, GIRTH_TOLERANCE = 4.0, 0.03


def former_near(former: Former) -> Advice | None:
    """Return a warning when there is no former, or the nearest step misses by much.

    Source: common practice, no source for the tolerance.
    """
    if former.tool_mm is None:
        return advise("no_former", "check", "tools", former=former.former_mm)
    if former.result_mm is None:
        return advise("springs_straight", "fix", "wire.temper", tool=former.tool_mm)
    off = math.pi * (former.result_mm - former.target_mm)
    if abs(off) <= max(GIRTH_TOLERANCE_MM, GIRTH_TOLERANCE * math.pi * former.target_mm):
        return None
    return advise(
        "former_wide" if off > 0 else "former_tight",
        "check",
        "tools",
        tool=former.tool_mm,
        former=former.former_mm,
        result=former.result_mm,
        off=abs(off),
    )


def lacking(steps: Sequence[Step], outfit: Outfit) -> Iterator[Advice]:
    """Yield what the bench does not have that a step wants, each thing once, at its first step.

    Args:
        steps: of the piece.
        outfit: of the bench.

    Source: plain comparison.
    """
    said: set[str] = set()
    for step in steps:
        for thing in step.wants:
            if thing not in said and not getattr(outfit, thing):
                said.add(thing)
                if thing == "torch":
                    yield advise("no_torch", "check", "tools", step=step.title)
                else:
                    named = say(f"outfit.{thing}")
                    yield advise("lacks", "check", "tools", step=step.title, thing=named)


def yield_measured(reel: str, measured: float, table: float) -> Advice:
    """Return that springback goes by a trial.

    Args:
        reel: that was tried.
        measured: yield that its trial showed [MPa].
        table: yield of its temper [MPa].

    Source: plain report.
    """
    return advise("yield_measured", "note", "wire", reel=reel, measured=measured, table=table)


def no_hardening(wire: Wire) -> Advice | None:
    """Return a note where hardening was asked for and no constants are published.

    Args:
        wire: that springs back.

    Source: data/metals.toml, a metal at a time.
    """
    if not wire.hardening or wire.law.hardens:
        return None
    return advise("no_hardening", "note", "making.springback", metal=wire.metal.name)


def bend_tight(tight: Tight | None, *, torch: bool) -> Advice | None:
    """Return what to do about a bend that asks more of a wire than it bears.

    Args:
        tight: the bend that asks most of all.
        torch: whether the bench has one.

    Source: ``forming.tight.tightest``; what helps is common practice.
    """
    if tight is None:
        return None
    wire = tight.wire
    if "anneal" in wire.metal.takes and wire.temper != "dead_soft":
        key = "bend_anneal" if torch else "bend_torchless"
    else:
        key = "bend_wider" if wire.temper == "dead_soft" else "bend_softer"
    return advise(
        key,
        "check" if wire.temper in HARD_TEMPERS or key == "bend_softer" else "note",
        "wire.temper",
        bend=say(f"bend.{tight.label}"),
        wire=wire.label,
        temper=say(f"temper.{wire.temper}"),
        metal=wire.metal.name,
        pin=tight.pin,
        strain=100 * tight.strain,
        bears=100 * tight.bears,
        least=tight.least,
    )
