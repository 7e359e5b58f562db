"""Does a body go into a tube that is flattened over it?"""

import math

from jamreel.core.advice import Advice, Severity, advise
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.temper import stretches_before_it_necks
from jamreel.core.forming.volume import bore_for, tube_stretch
from jamreel.core.wire.sections import Section


def tube_fits(metal: Wire, inner: float, body: Section, clear: float = 0.0) -> Advice:
    """Return whether a body goes into a tube: as it is, stretched, after annealing, or not at all.

    Args:
        metal: a wire of the tube's metal and temper.
        inner: diameter of the round tube inside [mm].
        body: section of what goes in.
        clear: between body and tube on each side [mm].

    Source: ``tube_stretch``; what metal bears, ``stretches_before_it_necks``.
    """
    bore = bore_for(body, clear)
    around = math.pi * bore
    stretch = tube_stretch(inner, around)
    needed, soft = math.log1p(stretch), metal.metal.yields["dead_soft"]
    now = stretches_before_it_necks(metal.metal, metal.temper, metal.yield_mpa)
    softened = stretches_before_it_necks(metal.metal, "dead_soft", soft)
    anneals = "anneal" in metal.metal.takes
    key: str
    severity: Severity
    if stretch == 0:
        key, severity = "tube_goes_in", "note"
    elif needed <= now:
        key, severity = "tube_stretch", "note"
    elif anneals and needed <= softened:
        key, severity = "tube_anneal", "check"
    else:
        key, severity = "tube_splits", "fix"
    return advise(
        key,
        severity,
        "piece.closure",
        around=around,
        has=math.pi * inner,
        stretch=100 * stretch,
        bears=100 * math.expm1(softened if key == "tube_splits" and anneals else now),
        least=bore,
    )
