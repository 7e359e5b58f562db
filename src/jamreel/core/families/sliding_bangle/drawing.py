"""The oval and one loop of the sliding-loop bangle, as geometry."""

import math

import numpy as np

from jamreel.core.body.outline import Ring
from jamreel.core.families.sliding_bangle.sizes import Sizes
from jamreel.core.path.lines import circle, points_of
from jamreel.core.values import Dimension, Sheet, Stroke
from jamreel.core.words import say
from jamreel.core.workpiece.drawing import (
    across,
    loop_at,
    pin_dimensions,
    point_on,
    ring_round,
    section_sheet,
)
from jamreel.core.workpiece.job import Job


def section(z: Sizes, job: Job) -> Sheet:
    """Return the wrist with the bangle round it, its loops on top."""
    wrist = job.outline("wrist", z.wrist.value_mm)
    gap = z.ease.value_mm / (2 * math.pi)
    ring, strokes, low = ring_round(wrist, z.ease, gap, z.d)
    strokes += _wire(z, ring)
    # Loops stand out beyond the second layer of wire; the dimension clears them.
    overlap = Dimension(
        a=point_on(ring, -z.overlap / 2),
        b=point_on(ring, z.overlap / 2),
        value_mm=z.overlap,
        label=say("drawing.overlap"),
        offset_mm=z.d * 2 + z.loop_width,
    )
    return section_sheet(
        say("drawing.on_the_wrist"),
        strokes,
        [across(wrist, low, z.d, say("drawing.wrist_across")), overlap],
        say("drawing.wrist", girth=z.wrist.value_mm),
    )


def _wire(z: Sizes, ring: Ring) -> list[Stroke]:
    """Return the wire round the wrist and its two loops, the ends lying one over the other."""
    half = z.overlap / 2
    run = np.append(np.arange(-half, ring.length + half, 1.0), ring.length + half)
    # The first end lies outside; past the second loop it comes down over a short ramp.
    ramp = np.clip((half + 14 - run) / 14, 0, 1)
    lift = z.d * 1.1 * ramp * ramp * (3 - 2 * ramp)
    body = Stroke(part="centre", points=points_of(ring.at(run, lift)), width_mm=z.d)
    loops = (("loop_up", -half), ("loop_down", half))
    return [body, *(loop_at(ring, at, z.pin, z.d, part, z.d * 0.55) for part, at in loops)]


def loop_sheet(z: Sizes) -> Sheet:
    """Return one loop square on: the pin, the loop round it, and the wire that runs in it."""
    rows = (("pin", z.pin / 2, 0.0), ("loop_up", (z.pin + z.d) / 2, z.d), ("runner", z.d / 2, 0.0))
    return Sheet(
        id="loop",
        title=say("drawing.loop"),
        stations=("make_up",),
        strokes=tuple(
            Stroke(part=part, points=circle((0.0, 0.0), r), closed=True, width_mm=width)
            for part, r, width in rows
        ),
        dimensions=pin_dimensions(z.pin, z.loop_width / 2),
    )
