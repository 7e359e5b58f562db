"""Drawings that constructions share: a wire round an outline, a former, small circles."""

import math

import numpy as np

from jamreel.core.body.outline import Outline, Ring, hull_with_finger
from jamreel.core.fit.ease import Ease
from jamreel.core.forming.tools import Former
from jamreel.core.path.lines import circle, points_of
from jamreel.core.values import Dimension, Label, Point, Sheet, StationName, Stroke
from jamreel.core.words import say


def ring_round(
    outline: Outline, ease: Ease | None, gap: float, d: float
) -> tuple[Ring, list[Stroke], float]:
    """Return the line of a wire round a body, the strokes of the body, and its lowest point [mm].

    Args:
        outline: of the body.
        ease: with one finger under the ring, when it is of that school.
        gap: from skin to wire all round [mm] (ease / 2 pi).
        d: wire diameter [mm].
    """
    points, normals = outline.points()
    strokes = [Stroke(part="skin", points=points_of(points[::3]), closed=True)]
    low = outline.through
    if ease is not None and ease.school == "finger" and ease.parameter:
        belt, out, finger = hull_with_finger(points, ease.parameter)
        strokes.append(Stroke(part="finger", points=points_of(finger[::3]), closed=True))
        return Ring(belt, out, d / 2), strokes, low + ease.parameter
    return Ring(points, normals, gap + d / 2), strokes, low


def wire_along(
    ring: Ring, start: float, end: float, d: float, part: str = "body_wire", lift: float = 0.0
) -> Stroke:
    """Return the wire along a ring from one distance to another, counted from the top [mm]."""
    count = max(12, math.ceil(abs(end - start) / 1.5))
    return Stroke(
        part=part, points=points_of(ring.at(np.linspace(start, end, count), lift)), width_mm=d
    )


def point_on(ring: Ring, run: float, lift: float = 0.0) -> Point:
    """Return the point of a ring at a distance from the top, lifted outwards [mm]."""
    x, y = ring.at(np.array([run]), lift)[0]
    return (round(float(x), 2), round(float(y), 2))


def loop_at(ring: Ring, run: float, pin: float, d: float, part: str, lift: float = 0.0) -> Stroke:
    """Return a loop as a circle on a ring."""
    centre = point_on(ring, run, lift)
    return Stroke(part=part, points=circle(centre, (pin + d) / 2), closed=True, width_mm=d)


def across(outline: Outline, low: float, d: float, label: str) -> Dimension:
    """Return the dimension of a body's breadth, below everything that is drawn."""
    return Dimension(
        a=(-outline.across, 0.0),
        b=(outline.across, 0.0),
        value_mm=2 * outline.across,
        label=label,
        offset_mm=-(low + d + 9),
    )


def coil_round(
    outline: Outline, girth: float, coil: float, d: float
) -> tuple[Ring, list[Stroke], list[Dimension]]:
    """Return one turn of a coil round a wrist: its line, its strokes and its dimensions.

    Args:
        outline: of the wrist.
        girth: of the wrist [mm].
        coil: inside diameter of the coil as it comes [mm].
        d: thickness of its wire [mm].
    """
    gap = (math.pi * coil - girth) / (2 * math.pi)
    ring, strokes, low = ring_round(outline, None, max(gap, 0.0), d)
    strokes.append(wire_along(ring, 0, ring.length, d, "body"))
    a, b = (point_on(ring, ring.length * share, -d / 2) for share in (0.75, 0.25))
    dimension = Dimension(
        a=a,
        b=b,
        value_mm=math.dist(a, b),
        label=say("drawing.coil"),
        offset_mm=outline.through + 12,
    )
    return ring, strokes, [across(outline, low, d, say("drawing.wrist_across")), dimension]


def section_sheet(
    title: str,
    strokes: list[Stroke],
    dimensions: list[Dimension],
    label: str,
    stations: tuple[StationName, ...] = ("measure", "fit"),
    at: Point = (0.0, 0.0),
) -> Sheet:
    """Return the section of a body with a piece round it, the body's measure written at a place
    inside."""
    return Sheet(
        id="section",
        title=title,
        stations=stations,
        strokes=tuple(strokes),
        dimensions=tuple(dimensions),
        labels=(Label(at=at, text=label),),
    )


def former_dimensions(
    step: float, middle: float, result: float | None, below: float
) -> tuple[Dimension, ...]:
    """Return what a former is wide, and the inside that it opens to under it [mm].

    Args:
        step: width of the former.
        middle: how high its middle lies over the lowest point.
        result: inside diameter let go, None of what springs straight.
        below: how far under the lowest point the latter is written.
    """
    on = Dimension(
        a=(-step / 2, middle), b=(step / 2, middle), value_mm=step, label=say("drawing.bend_on")
    )
    if result is None:
        return (on,)
    opens = Dimension(
        a=(-result / 2, result / 2),
        b=(result / 2, result / 2),
        value_mm=result,
        label=say("drawing.opens_to"),
        offset_mm=-(result / 2 + below),
    )
    return (on, opens)


def former_sheet(former: Former, d: float) -> Sheet:
    """Return the former, the target and what wire off the maker's step springs to, one over the
    other; all rest on one lowest point, so that the opening shows at the top."""
    step = former.tool_mm or former.former_mm
    # Without a tool the ideal former is drawn, which springs to the target; wire that springs
    # straight off the maker's tool has no ring to draw.
    result = former.target_mm if former.tool_mm is None else former.result_mm
    rows = [("former", step, 0.0), ("target", former.target_mm, 0.0)]
    if result is not None:
        rows.append(("result", result, d))
    below = 0.0 if result is None else 0.12 * result + 3
    strokes = tuple(
        Stroke(
            part=part,
            points=circle((0.0, (diameter + width) / 2), (diameter + width) / 2),
            closed=True,
            width_mm=width,
        )
        for part, diameter, width in rows
    )
    return Sheet(
        id="former",
        title=say("drawing.former"),
        stations=("form",),
        strokes=strokes,
        dimensions=former_dimensions(step, step / 2, result, below),
    )


def pin_sheet(pin: float, d: float, title: str) -> Sheet:
    """Return one loop square on: the pin and the wire round it."""
    outer = pin / 2 + d
    rows = (("pin", pin / 2, 0.0), ("loop", (pin + d) / 2, d))
    return Sheet(
        id="loop",
        title=title,
        stations=("make_up",),
        strokes=tuple(
            Stroke(part=part, points=circle((0.0, 0.0), r), closed=True, width_mm=width)
            for part, r, width in rows
        ),
        dimensions=pin_dimensions(pin, outer),
    )


def pin_dimensions(pin: float, outer: float) -> tuple[Dimension, Dimension]:
    """Return the dimensions of a loop: the pin above, the width outside below."""
    return (
        Dimension(
            a=(-pin / 2, 0.0),
            b=(pin / 2, 0.0),
            value_mm=pin,
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
    )
