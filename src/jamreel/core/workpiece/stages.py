"""A wire as it is after every step that shapes it: one drawing routine for all of them."""

import math
from collections.abc import Sequence

import numpy as np

from jamreel.core.forming.temper import FIRST, temper_of
from jamreel.core.forming.temper import Stage as Temper
from jamreel.core.parts.base import WireUse
from jamreel.core.parts.drawn import kept_moves, looked_at
from jamreel.core.path.moves import Bend, Mark, Move, Straight, move_length
from jamreel.core.path.projection import View as Looking
from jamreel.core.path.projection import seen_of
from jamreel.core.path.trace import Array, Run, runs
from jamreel.core.result import Plan
from jamreel.core.values import Frozen, Point
from jamreel.core.words import say
from jamreel.core.workpiece.worked import AS_IT_COMES, WorkedWire

# The stage after the last step: the wire as it lies in its part's picture.
DONE = "done"
# A wire is drawn with about so many points, and no coarser than every so many millimetres.
POINTS, FINEST_MM = 700, 0.15


class Pin(Frozen):
    """What a bend is made on, seen square on: its middle and diameter [mm]."""

    at: Point
    diameter: float


class WireStage(Frozen):
    """A wire after some steps, to scale [mm], y upwards.

    ``line`` is all of it, ``made`` what the step of this stage bends, on ``pins``; ``ghost`` is how
    the next step bends it, from the same view. ``rest`` is more of it, where it is shown in several
    lines. ``marks`` lie on it. The first stage, with no step,
    is the wire as cut.
    """

    step: str
    title: str
    line: tuple[Point, ...]
    made: tuple[tuple[Point, ...], ...] = ()
    pins: tuple[Pin, ...] = ()
    ghost: tuple[Point, ...] = ()
    rest: tuple[tuple[Point, ...], ...] = ()
    marks: tuple[Point, ...] = ()
    length_mm: float


class TemperRow(Frozen):
    """A wire after one step of work: how much of what it bears is used, how hard it is [MPa], the
    temper that is nearest to, and whether it was annealed before or softened by the step."""

    step: str
    title: str
    place: str
    used: float
    bears: float
    yield_mpa: float
    temper: str
    annealed: bool
    cracks: bool


class WireShown(Frozen):
    """A wire of a piece through all its steps: how it looks and how hard it is, and how hard the
    finished piece is at each place."""

    id: str
    label: str
    wire_mm: float
    colour: str
    begins_mpa: float
    begins: str
    stages: tuple[WireStage, ...]
    temper: tuple[TemperRow, ...]
    ends: tuple[TemperRow, ...]


def shown(one: WorkedWire, plan: Plan) -> WireShown:
    """Return a wire of a plan through all its steps.

    Args:
        one: of ``plan.worked``.
        plan: gives what steps are called.

    Source: ``path.trace.runs``, ``forming.temper.track``.
    """
    titles = {step.id: step.title for step in plan.steps}
    metal = one.wire.metal
    rows = tuple(
        _row(one, stage, titles.get(stage.work.step, say(f"temper_row.{_own(stage.work.step)}")))
        for stage in (one.track.stages if one.track else ())
    )
    last: dict[str, TemperRow] = {}
    ends = one.track.ends if one.track else {}
    for place, yield_mpa in ends.items():
        last[place] = TemperRow(
            step="",
            title="",
            place=_place(place),
            used=0.0,
            bears=0.0,
            yield_mpa=yield_mpa,
            temper=say(f"temper.{temper_of(metal, yield_mpa)}"),
            annealed=False,
            cracks=False,
        )
    return WireShown(
        id=one.cut.id,
        label=one.cut.label,
        wire_mm=one.wire.d,
        colour=metal.colour,
        begins_mpa=one.begins.yield_mpa,
        begins=say(f"temper.{one.wire.temper}"),
        stages=stages(one, titles),
        temper=rows,
        ends=tuple(last.values()),
    )


def _own(step: str) -> str:
    """Return the word for work that is no step of the plan by its own name."""
    return "first" if step == FIRST else "twist"


def _row(one: WorkedWire, stage: Temper, title: str) -> TemperRow:
    return TemperRow(
        step=stage.work.step,
        title=title,
        place=_place(stage.work.place),
        used=stage.used,
        bears=stage.bears,
        yield_mpa=stage.yield_mpa,
        temper=say(f"temper.{temper_of(one.wire.metal, stage.yield_mpa)}"),
        annealed=stage.annealed,
        cracks=stage.cracks,
    )


def _place(key: str) -> str:
    return say(f"bend.{key.partition('~')[0]}") if key else say("temper_row.through")


def stages(one: WorkedWire, titles: dict[str, str]) -> tuple[WireStage, ...]:
    """Return a wire as cut, and after every step that shapes it.

    Args:
        one: the wire with its moves and the steps at which they are made.
        titles: what steps are called.

    Source: ``path.trace.runs``.
    """
    found = [_stage(one, "", say("stage.cut"), 0)]
    for n, step in enumerate(one.order, 1):
        found.append(_stage(one, step, titles.get(step, step), n))
    if one.pictured is not None and one.order:
        found.append(_finished(one, one.pictured))
    return tuple(found)


def _finished(one: WorkedWire, use: WireUse) -> WireStage:
    """Return the wire as it is in the part's picture: what was only held is snipped off."""
    moves, _ = kept_moves(use)
    d = one.wire.bend_adds
    line, *rest = done_lines(use)
    return WireStage(
        step=DONE,
        title=say("stage.done"),
        line=line,
        rest=tuple(rest),
        length_mm=sum(move_length(move, d) for move in moves),
    )


def _stage(one: WorkedWire, step: str, title: str, done: int) -> WireStage:
    d, order = one.wire.bend_adds, one.order
    now = _laid(one, frozenset(order[:done]))
    made = [run for run, at in zip(now, one.steps, strict=True) if at == step and step]
    held = max(range(len(now)), key=lambda n: move_length(one.moves[n], d))
    flat = _View(now, made, held)
    coming = _laid(one, frozenset(order[: done + 1])) if done < len(order) else ()
    # Looked at as the wire is now; where nothing is bent yet, square on the first bend.
    looked = step or (order[done] if done < len(order) else "")
    same = [run for run, at in zip(coming, one.steps, strict=False) if at == looked]
    marks = [run.points[0] for run in now if isinstance(run.move, Mark)]
    pins = tuple(
        Pin(at=flat.point(run.middle), diameter=run.move.pin)
        for run in made
        # A body is bent on a former, and drawn as it springs.
        if run.middle is not None and isinstance(run.move, Bend) and run.move.label != AS_IT_COMES
    )
    return WireStage(
        step=step,
        title=title,
        line=flat.points(now),
        made=tuple(flat.points([run]) for run in made if len(run.points) > 1),
        pins=pins,
        ghost=_View(coming, same, held).points(coming) if coming else (),
        marks=tuple(flat.point(at) for at in marks),
        length_mm=sum(move_length(move, d) for move in one.moves),
    )


def _laid(one: WorkedWire, done: frozenset[str]) -> tuple[Run, ...]:
    """Return where a wire lies when some steps are done: all other moves are still straight."""
    d = one.wire.bend_adds
    moves = [
        move if at is None or at in done else _still_straight(move, d)
        for move, at in zip(one.moves, one.steps, strict=True)
    ]
    total = sum(move_length(move, d) for move in moves)
    return runs(moves, d, max(FINEST_MM, total / POINTS))


def _still_straight(move: Move, wire: float) -> Move:
    return Straight(length=move_length(move, wire))


class _View(Looking):
    """A way to look at a wire while it is worked: square on what is being bent, its longest stretch
    level, and that stretch's middle at the origin: what is held stays where it is."""

    def __init__(self, laid: Sequence[Run], made: Sequence[Run], held: int) -> None:
        frame = made[0].frame if made else np.eye(3)
        out = frame[:, 2]
        if abs(out[2]) > SQUARE_ON:
            # Seen from the side that it was seen from before: turning it over is a step of its own.
            out = out * math.copysign(1.0, out[2])
        at, along = _middle(laid[held])
        level = along - (along @ out) * out
        if np.linalg.norm(level) < LEAST_LEVEL:
            level = frame[:, 0]
        right = level / np.linalg.norm(level)
        super().__init__(at, np.column_stack([right, np.cross(out, right), out]))

    def point(self, at: Array) -> Point:
        x, y = np.round(self.seen(at[np.newaxis])[0, :2], 2).tolist()
        return (x, y)

    def points(self, laid: Sequence[Run]) -> tuple[Point, ...]:
        return _line(self, laid)


def _line(view: Looking, laid: Sequence[Run]) -> tuple[Point, ...]:
    """Return a path as it is seen, in one line."""
    seen = [seen_of(run, view)[:, :2] for run in laid if len(run.points) > 1]
    rows = np.vstack([seen[0][:1], *(one[1:] for one in seen)]) if seen else np.zeros((1, 2))
    return tuple((x, y) for x, y in np.round(rows, 2).tolist())


def done_lines(use: WireUse) -> list[tuple[Point, ...]]:
    """Return a wire as it lies in its part's picture when it is done, what is held snipped off.

    Args:
        use: the wire, with its place in the picture.

    Returns:
        One line, or those by which it is shown.

    Source: ``parts.drawn``: the same path, looked at in the same way.
    """
    if use.shown:
        return [copy.points for stroke in use.shown for copy in stroke.copies]
    look = looked_at(use)
    x0, y0 = use.at
    line = look.bent(np.array(_line(look.view, look.path)))
    return [tuple((round(x + x0, 2), round(y + y0, 2)) for x, y in line.tolist())]


# Planes of bends that lie so nearly in the plane before are looked at from the same side; a
# stretch that points so nearly at the eye has no direction to be laid level by.
SQUARE_ON, LEAST_LEVEL = 0.9, 1e-6


def _middle(run: Run) -> tuple[Array, Array]:
    """Return the middle of a run and the direction of the wire there."""
    n = len(run.points) - 1
    before, after = run.points[n // 2], run.points[n - n // 2]
    if n % 2 == 0 and n > 0:
        before, after = run.points[n // 2 - 1], run.points[n // 2 + 1]
        return run.points[n // 2], after - before
    return (before + after) / 2, after - before
