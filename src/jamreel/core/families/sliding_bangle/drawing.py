"""The Rule, the oval and the former of the sliding-loop bangle, as geometry."""

import math

import numpy as np

from jamreel.core.body.outline import Ring
from jamreel.core.cutting.cuts import Cut
from jamreel.core.families.sliding_bangle.sizes import Sizes
from jamreel.core.values import (
    Dimension,
    Drawings,
    PlusMinus,
    RuleDrawing,
    Sheet,
    Span,
    Stroke,
)
from jamreel.core.words import say
from jamreel.core.workpiece.drawing import (
    across,
    circle,
    former_sheet,
    loop_at,
    pin_dimensions,
    point_on,
    points_of,
    ring_round,
    section_sheet,
)
from jamreel.core.workpiece.job import Job

# Spans of the Rule that are more than one ledger line.
_BEHIND = {"centre": ("hand_pass", "beyond_hand", "half_wire", "loops_meet", "centre")}


def drawings(z: Sizes, cut: Cut, job: Job) -> Drawings:
    """Return the bangle's drawings [mm]."""
    return Drawings(
        rule=_rule(z, cut), sheets=(_section(z, job), _loop(z), former_sheet(z.former, z.d))
    )


def _rule(z: Sizes, cut: Cut) -> RuleDrawing:
    spans, at = [], 0.0
    for line in cut.lines:
        kind = "part" if line.id.startswith("loop") else "trim"
        spans.append(
            Span(
                id=line.id,
                label=line.label,
                from_mm=at,
                to_mm=at + line.value_mm,
                kind="body" if line.id == "centre" else kind,
                ledger=_BEHIND.get(line.id, (line.id,)),
            )
        )
        at += line.value_mm
    body = next(s for s in spans if s.kind == "body")
    return RuleDrawing(
        length_mm=cut.length_mm,
        spans=tuple(spans),
        ticks_mm=tuple(mark.at_mm for mark in cut.marks),
        band=PlusMinus(value=body.to_mm, plus_minus=z.hand.plus_minus_mm),
        width_mm=z.d,
    )


def _section(z: Sizes, job: Job) -> Sheet:
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


def _loop(z: Sizes) -> Sheet:
    """Return one loop square on: the pin, the loop round it, and the wire that runs in it."""
    rows = (("pin", z.pin / 2, 0.0), ("loop_up", (z.pin + z.d) / 2, z.d), ("runner", z.d / 2, 0.0))
    return Sheet(
        id="loop",
        title=say("drawing.loop"),
        stations=("make_up",),
        strokes=tuple(
            Stroke(part=part, points=circle((0.0, 0.0), r, 72), closed=True, width_mm=width)
            for part, r, width in rows
        ),
        dimensions=pin_dimensions(z.pin, z.loop_width / 2),
    )
