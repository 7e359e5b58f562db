"""Is it cut long enough, and not too long to work with?"""

import math

from jamreel.core.advice import Advice, advise
from jamreel.core.cutting.cuts import Cut, Cutting


def no_record(cutting: Cutting, techniques: bool, records: int) -> Advice | None:
    """Return a note that no record says how the maker works such wire.

    Args:
        cutting: the maker's allowances.
        techniques: whether the piece has wires in which a hand has a say.
        records: that its margins rest on.

    Source: none needed; it says what the plan does.
    """
    if cutting.school != "record" or records or not techniques:
        return None
    return advise("no_record", "note", "cutting.school")


def by_ratio(cut: Cut, cutting: Cutting, whole: float) -> Advice | None:
    """Return what a ratio comes to beside the sum, where that is how the maker cuts.

    Args:
        cut: of a string, a strand, a core, or the wire of a piece of one.
        cutting: the maker's allowances.
        whole: what the ratio multiplies [mm].

    Source: plain arithmetic.
    """
    if cutting.school != "ratio":
        return None
    more = sum(line.value_mm for line in cut.lines if line.id == "ratio")
    total, wanted = cut.length_mm - more, cutting.ratio * whole
    key = "ratio_more" if more > 0 else "ratio_short"
    return advise(
        key,
        "note" if more > 0 else "check",
        "cutting.ratio",
        label=cut.label,
        ratio=cutting.ratio,
        wanted=wanted,
        total=total,
        apart=abs(wanted - total),
    )


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
