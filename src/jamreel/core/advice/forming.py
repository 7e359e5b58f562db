"""Is there a former near enough?"""

import math

from jamreel.core.advice import Advice, advise
from jamreel.core.forming.tools import Former

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
