"""The former of a rigid piece on an oval body: worked out for a plan, and drawn."""

import numpy as np

from jamreel.core.body.outline import Array, Outline
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.oval import (
    OvalFormer,
    bent_to_spring,
    block,
    course_along,
    nearest_by_rounds,
)
from jamreel.core.path.lines import points_of, whole
from jamreel.core.shop import Shop
from jamreel.core.values import Dimension, Sheet, Stroke
from jamreel.core.words import say

# Of the line's points every so manieth is kept: a millimetre and a half apart.
EVERY = 2


def oval_former(
    outline: Outline, gap: float, length: float, wire: Wire, shop: Shop, kept: float
) -> OvalFormer:
    """Return the former of a wire that lies along a body.

    Args:
        outline: of the body.
        gap: from the skin to the wire [mm].
        length: of what is bent, its centre-line [mm].
        wire: that is bent.
        shop: gives the maker's round tools.
        kept: share of the springback that malleting leaves.

    Source: ``forming.oval``.
    """
    inwards = wire.shape.neutral_offset
    offset = gap + inwards
    target = course_along(outline, offset, length)
    bent = bent_to_spring(target, wire.shape, wire.law, kept)
    wood = block(bent, inwards)
    across, through = np.ptp(wood, axis=0).tolist()
    tools = (*shop.formers, *shop.pins)
    return OvalFormer(
        length_mm=length,
        target=whole(_thinned(target.points())),
        bent=whole(_thinned(bent.points())),
        block=whole(wood),
        across_mm=across,
        through_mm=through,
        wire_mm=wire.shape.thickness,
        rounds=nearest_by_rounds(outline, offset, tools, wire.shape, wire.law, kept),
    )


def _thinned(line: Array) -> Array:
    """Return fewer points of a line, its ends and its middle among them."""
    middle = len(line) // 2
    back, on = line[middle::-1], line[middle + 1 :]
    left = back[::EVERY] if (len(back) - 1) % EVERY == 0 else np.vstack([back[::EVERY], back[-1:]])
    right = on[EVERY - 1 :: EVERY]
    right = right if len(on) % EVERY == 0 else np.vstack([right, on[-1:]])
    return np.vstack([left[::-1], right])


def oval_sheet(oval: OvalFormer) -> Sheet:
    """Return the wire as it is bent, over the former to cut and the line that it springs to."""
    low = min(y for _, y in oval.block)
    lowest = min(y for line in (oval.block, oval.bent, oval.target) for _, y in line)
    half = oval.across_mm / 2
    return Sheet(
        id="oval",
        title=say("drawing.oval"),
        stations=("form",),
        strokes=(
            Stroke(part="former", points=points_of(np.array(oval.block)), closed=True),
            Stroke(part="bent", points=points_of(np.array(oval.bent)), width_mm=oval.wire_mm),
            Stroke(part="target", points=points_of(np.array(oval.target))),
        ),
        dimensions=(
            Dimension(
                a=(-half, low),
                b=(half, low),
                value_mm=oval.across_mm,
                label=say("drawing.block"),
                offset_mm=lowest - low - oval.wire_mm - 6,
            ),
        ),
    )
