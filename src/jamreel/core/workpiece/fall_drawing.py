"""The chest from the front: where a necklace falls, in millimetres and in body words."""

from collections.abc import Sequence

import numpy as np

from jamreel.core.body.outline import Array
from jamreel.core.fit.fall import Fall
from jamreel.core.parts.base import Made
from jamreel.core.parts.pictures import narrowed, shifted
from jamreel.core.path.lines import circle, points_of
from jamreel.core.shop import Landmark
from jamreel.core.values import Dimension, Label, Sheet, Stroke
from jamreel.core.words import say


def landing(below: float, landmarks: tuple[Landmark, ...]) -> str:
    """Return in body words where a fall lands.

    Args:
        below: below the shoulder points [mm].
        landmarks: places of the body, each so far below.

    Source: landmarks are common practice, from memory, and the maker's to edit.
    """
    order = sorted(landmarks, key=lambda mark: mark.below)
    above = [mark.name for mark in order if mark.below <= below]
    under = [mark.name for mark in order if mark.below > below]
    if above and under:
        return say("landing.between", above=above[-1], under=under[0])
    if under:
        return say("landing.above", under=under[0])
    return say("landing.below", above=above[-1]) if above else say("landing.nowhere")


def rounded(corners: Array, rounds: int = 3) -> Array:
    """Return an open line with its corners cut off, ends kept.

    Args:
        corners: shape (n, 2).
        rounds: how often every corner is cut.

    Source: Chaikin 1974, corner cutting; published.
    """
    line = corners
    for _ in range(rounds):
        near, far = 0.75 * line[:-1] + 0.25 * line[1:], 0.25 * line[:-1] + 0.75 * line[1:]
        cut = np.stack([near, far], axis=1).reshape(-1, 2)
        line = np.vstack([line[:1], cut, line[-1:]])
    return line


def fall_sheet(
    fall: Fall,
    span: float,
    thick: float,
    drop: float,
    landmarks: tuple[Landmark, ...],
    swags: Sequence[Made] = (),
) -> Sheet:
    """Return the chest seen from the front with the chain as it hangs, landmarks at the side.

    Args:
        fall: as it hangs.
        span: between the shoulder points [mm].
        thick: thickness of what hangs [mm].
        drop: how far a pendant hangs below it [mm].
        landmarks: places of the body.
        swags: that hang in its middle, drawn as they are.
    """
    deep = max(fall.sag + drop + 40, 190.0)
    wide = span * 1.5
    # Neck, shoulders and chest: only the neck's breadth is measured, the rest is an idea of a body.
    half = span / 2
    right = (
        (half * 0.8, 46.0), (half * 0.84, 18.0), (half * 1.02, 0.0), (wide * 0.74, -16.0),
        (wide * 0.9, -34.0), (wide * 0.95, -80.0), (wide * 0.86, -deep),
    )  # fmt: skip
    side = points_of(rounded(np.array(right)))
    body = (*((-x, y) for x, y in reversed(side)), *side)
    strokes = [Stroke(part="skin", points=body, closed=True)]
    labels = []
    for mark in landmarks:
        if mark.below < deep - 4:
            y = -mark.below
            line = ((wide * 0.72, y), (wide * 0.96, y))
            strokes.append(Stroke(part=f"landmark {mark.name}", points=line))
            labels.append(Label(at=(wide, y), text=mark.name, anchor="start"))
    strokes += _line(fall, thick, max((swag.length for swag in swags), default=0.0))
    for swag in swags:
        strokes += _in_front(swag, fall)
    if drop and not swags:
        hung = circle((0.0, -fall.sag - drop + drop / 3), drop / 3)
        cord = ((0.0, -fall.sag), (0.0, -fall.sag - drop / 3))
        strokes.append(Stroke(part="pendant_loop", points=cord, width_mm=1.0))
        strokes.append(Stroke(part="pendant", points=hung, closed=True))
    sag = Dimension(
        a=(-half, 0.0), b=(half, 0.0), value_mm=fall.span, label=say("drawing.apart"), offset_mm=56
    )
    labels.append(Label(at=(-wide * 0.56, -fall.sag - 6), text=say("drawing.falls", sag=fall.sag)))
    return Sheet(
        id="fall",
        title=say("drawing.fall"),
        stations=("measure", "make_up", "fit"),
        strokes=tuple(strokes),
        dimensions=(sag,),
        labels=tuple(labels),
    )


def _line(fall: Fall, thick: float, left_out: float) -> tuple[Stroke, ...]:
    """Return the line as it hangs, without so much of its middle [mm]: a swag hangs there."""
    line = fall.points()
    if not left_out:
        return (Stroke(part="links", points=points_of(line), width_mm=thick),)
    x, y = fall.place((fall.length - left_out) / 2)
    left = np.vstack([line[line[:, 0] < x], [(x, y)]])
    sides = (("links", left), ("links right", left[::-1] * (-1, 1)))
    return tuple(Stroke(part=name, points=points_of(p), width_mm=thick) for name, p in sides)


def _in_front(swag: Made, fall: Fall) -> tuple[Stroke, ...]:
    """Return a swag where it hangs: from the two points of the line that its ends come to."""
    x, y = fall.place((fall.length - swag.length) / 2)
    copies = (copy for stroke in swag.strokes for copy in stroke.copies)
    drawn = shifted(narrowed(copies, -2 * x / swag.length), x, y)
    return tuple(s.model_copy(update={"part": f"swag {i}"}) for i, s in enumerate(drawn))
