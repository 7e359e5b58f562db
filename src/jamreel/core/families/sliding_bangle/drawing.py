"""The Rule, the oval and the former of the sliding-loop bangle, as geometry."""

import math

import numpy as np

from jamreel.core.body.outline import (
    WRIST_EXPONENT,
    WRIST_RATIO,
    Array,
    Ring,
    hull_with_finger,
    outline_points,
    semi_axes,
)
from jamreel.core.cutting.cuts import Cut
from jamreel.core.families.base import Job
from jamreel.core.families.sliding_bangle.sizes import Sizes
from jamreel.core.fit.ease import FingerEase
from jamreel.core.values import (
    Dimension,
    Drawings,
    PlusMinus,
    Point,
    RuleDrawing,
    Sheet,
    Span,
    Stroke,
)
from jamreel.core.words import say

# Spans of the Rule that are more than one ledger line.
_BEHIND = {"centre": ("hand_pass", "beyond_hand", "half_wire", "loops_meet", "centre")}


def drawings(z: Sizes, cut: Cut, job: Job) -> Drawings:
    """Return the bangle's drawings [mm]."""
    return Drawings(rule=_rule(z, cut), sheets=(_section(z, job), _loop(z), _former(z)))


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
    a, b = semi_axes(z.wrist.value_mm, WRIST_RATIO, WRIST_EXPONENT)
    wrist, normals = outline_points(a, b, WRIST_EXPONENT, 360)
    strokes = [Stroke(part="body", points=_points(wrist[::3]), closed=True)]
    low = b
    if isinstance(job.ease, FingerEase):
        belt, out, circle = hull_with_finger(wrist, job.ease.finger)
        strokes.append(Stroke(part="finger", points=_points(circle[::3]), closed=True))
        ring = Ring(belt, out, z.d / 2)
        low = b + job.ease.finger
    else:
        ring = Ring(wrist, normals, z.ease.value_mm / (2 * math.pi) + z.d / 2)
    strokes.extend(_wire(z, ring))
    # Loops stand out beyond the second layer of wire; the dimension clears them.
    top = b + z.d * 2 + z.loop_width
    return Sheet(
        id="section",
        title=say("drawing.on_the_wrist"),
        stations=("measure", "fit"),
        strokes=tuple(strokes),
        dimensions=(
            Dimension(
                a=(-a, 0.0),
                b=(a, 0.0),
                value_mm=2 * a,
                label=say("drawing.wrist_across"),
                offset_mm=-(low + z.d + 9),
            ),
            Dimension(
                a=_xy(ring.at(np.array([-z.overlap / 2]))[0]),
                b=_xy(ring.at(np.array([z.overlap / 2]))[0]),
                value_mm=z.overlap,
                label=say("drawing.overlap"),
                offset_mm=top - b,
            ),
        ),
    )


def _wire(z: Sizes, ring: Ring) -> list[Stroke]:
    """Return the wire round the wrist and its two loops, the ends lying one over the other."""
    half = z.overlap / 2
    run = np.arange(-half, ring.length + half, 1.0)
    run = np.append(run, ring.length + half)
    # The first end lies outside; past the second loop it comes down over a short ramp.
    ramp = np.clip((half + 14 - run) / 14, 0, 1)
    lift = z.d * 1.1 * ramp * ramp * (3 - 2 * ramp)
    loops = [
        Stroke(
            part=key,
            points=_circle(_xy(ring.at(np.array([at]), z.d * 0.55)[0]), (z.pin + z.d) / 2),
            closed=True,
            width_mm=z.d,
        )
        for key, at in (("loop_up", -half), ("loop_down", half))
    ]
    return [Stroke(part="centre", points=_points(ring.at(run, lift)), width_mm=z.d), *loops]


def _loop(z: Sizes) -> Sheet:
    """Return one loop square on: the pin, the loop round it, and the wire that runs in it."""
    outer = z.loop_width / 2
    rows = (("pin", z.pin / 2, 0.0), ("loop_up", (z.pin + z.d) / 2, z.d), ("runner", z.d / 2, 0.0))
    return Sheet(
        id="loop",
        title=say("drawing.loop"),
        stations=("make_up",),
        strokes=tuple(
            Stroke(part=part, points=_circle((0.0, 0.0), r, 72), closed=True, width_mm=width)
            for part, r, width in rows
        ),
        dimensions=(
            Dimension(
                a=(-z.pin / 2, 0.0),
                b=(z.pin / 2, 0.0),
                value_mm=z.pin,
                label=say("drawing.pin"),
                offset_mm=outer * 1.25,
            ),
            Dimension(
                a=(-outer, 0.0),
                b=(outer, 0.0),
                value_mm=2 * outer,
                label=say("drawing.loop_width"),
                offset_mm=-outer * 1.25,
            ),
        ),
    )


def _former(z: Sizes) -> Sheet:
    step = z.former.tool_mm or z.former.former_mm
    result = z.former.result_mm or z.former.target_mm
    # Everything rests on one lowest point, so that the opening shows at the top.
    rows = (("former", step, 0.0), ("target", z.former.target_mm, 0.0), ("result", result, z.d))
    strokes = tuple(
        Stroke(
            part=key,
            points=_circle((0.0, (diameter + width) / 2), (diameter + width) / 2, 120),
            closed=True,
            width_mm=width,
        )
        for key, diameter, width in rows
    )
    return Sheet(
        id="former",
        title=say("drawing.former"),
        stations=("form",),
        strokes=strokes,
        dimensions=(
            Dimension(
                a=(-step / 2, step / 2),
                b=(step / 2, step / 2),
                value_mm=step,
                label=say("drawing.bend_on"),
            ),
            Dimension(
                a=(-result / 2, result / 2),
                b=(result / 2, result / 2),
                value_mm=result,
                label=say("drawing.opens_to"),
                offset_mm=-(result / 2 + 10),
            ),
        ),
    )


def _circle(centre: Point, radius: float, count: int = 40) -> tuple[Point, ...]:
    turn = np.linspace(0, 2 * np.pi, count, endpoint=False)
    return _points(
        np.column_stack([centre[0] + radius * np.cos(turn), centre[1] + radius * np.sin(turn)])
    )


def _points(array: Array) -> tuple[Point, ...]:
    # Hundredths of a millimetre are finer than any line on screen or paper.
    return tuple((round(float(x), 2), round(float(y), 2)) for x, y in array)


def _xy(row: Array) -> Point:
    return (round(float(row[0]), 2), round(float(row[1]), 2))
