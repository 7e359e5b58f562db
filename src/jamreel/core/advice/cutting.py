"""Is it cut long enough, and not too long to work with?"""

import math

from jamreel.core.advice import Advice, advise
from jamreel.core.cutting.cuts import Cut, Cutting


def margin_falls_back(cutting: Cutting) -> Advice | None:
    """Return a note that there is no record of the maker's own pieces to take a margin from.

    Args:
        cutting: the maker's allowances.

    Source: none needed; it says what the plan does.
    """
    if cutting.school != "record":
        return None
    return advise("no_record", "note", "cutting.school", margin=cutting.margin)


def longer_than_handled(cut: Cut, cutting: Cutting) -> Advice | None:
    """Return a warning about a wire longer than the maker works with.

    Args:
        cut: the wire.
        cutting: gives the longest that is handled.

    Source: the maker's own limit, 1,500 mm by common practice.
    """
    if not cut.stock or cut.off_reel or cut.length_mm <= cutting.longest:
        return None
    parts = math.ceil(cut.length_mm / cutting.longest)
    return advise(
        "long_wire", "note", "cutting.longest",
        length=cut.length_mm, longest=cutting.longest, parts=parts, joins=parts - 1,
    )  # fmt: skip
