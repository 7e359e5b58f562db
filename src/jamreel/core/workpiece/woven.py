"""Woven bodies of a piece: rows, working wires, board; how far a wire goes; how they look close."""

from collections.abc import Callable
from dataclasses import replace

import numpy as np

from jamreel.core.errors import Refusal
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.palette import Palette
from jamreel.core.interlace.base import Interlaced, Weaving
from jamreel.core.interlace.bound import Bound
from jamreel.core.interlace.cells import Ball, Cell, Strand
from jamreel.core.interlace.relax import settled
from jamreel.core.interlace.space import spaced
from jamreel.core.interlace.working import rows_of
from jamreel.core.makeup.compose import Composition
from jamreel.core.result import WovenBody, WovenWire
from jamreel.core.shop import WovenSample
from jamreel.core.units import Mm, Unit, parse_length
from jamreel.core.values import Frozen
from jamreel.core.words import say

# Points of a strand lie so many wires apart: a turn round a bar is a dozen of them.
SHOWN_APART = 0.5
# While rows are woven, so many of them are shown.
BEGUN_ROWS = 2.5
# A strand is shown by so many points at most.
MOST_SHOWN = 2500
Place = tuple[float, float, float]


def woven_bodies(composition: Composition) -> tuple[WovenBody, ...]:
    """Return the woven bodies of a piece, each kind once.

    Args:
        composition: the piece laid out.

    Source: ``interlace.base``.
    """
    found = []
    for kind in composition.kinds:
        weaving = kind.made.weaving
        if isinstance(weaving, Weaving):
            found.append(_body(kind.key, kind.name, kind.times, weaving))
        elif isinstance(weaving, Bound):
            found.append(_bound(kind.key, kind.name, kind.times, weaving))
    return tuple(found)


def _bound(entry: str, name: str, times: int, bound: Bound) -> WovenBody:
    """Return what is bound, not woven in rows: there is nothing to count, but to look at."""
    return WovenBody(
        entry=entry,
        label=name,
        times=times,
        rows=1,
        row_name="",
        rows_name="",
        pitch_mm=bound.long,
        width_mm=bound.width,
        thickness_mm=bound.thickness,
        before_mm=0.0,
        behind_mm=0.0,
        beads=(0,),
        pegs_mm=(),
        rows_at={},
        sampled="",
        wires=(),
        marks_mm=bound.marks,
        weaving=bound,
    )


def _body(entry: str, name: str, times: int, weaving: Weaving) -> WovenBody:
    body, rows = weaving.body, weaving.part.rows
    _, row_name = weaving.part.unit(0.0)
    wires = tuple(
        WovenWire(
            id=f"{entry}/{one.key}",
            label=say(f"cut.{one.key}"),
            count=one.count,
            takes_mm=tuple(weaving.taken(one, row) for row in one.takes),
            spare=weaving.spare,
            more_mm=one.uneven,
            tails_mm=sum(weaving.tails(one)) + one.start + one.end,
            starts_after=tuple(one.left_out + share.first for share in weaving.shares(one)),
            whole=one.whole,
        )
        for one in body.wires.worked
    )
    return WovenBody(
        entry=entry,
        label=name,
        times=times,
        rows=rows,
        row_name=row_name,
        rows_name=weaving.part.rows_name,
        pitch_mm=body.size.pitch,
        width_mm=body.size.width,
        thickness_mm=body.size.thickness,
        before_mm=body.size.before,
        behind_mm=body.size.behind,
        beads=tuple(_counted(row) for row in body.wires.beads),
        pegs_mm=body.size.pegs,
        rows_at=_rows_at(weaving),
        sampled=weaving.sampled,
        wires=wires,
        weaving=weaving,
    )


def _rows_at(weaving: Weaving) -> dict[str, float]:
    """Return how many rows are done at each step: while rows are woven, the third one is begun."""
    body, rows = weaving.body, float(weaving.rows)
    begun = {one.id: 1.0 if one.id.endswith("_first") else 0.0 for one in body.work.begin}
    # What is woven already is shown, and the row after it begun.
    done = weaving.part.done
    begun_rows = done.count + 0.5 if done else BEGUN_ROWS
    woven = {one.id: min(begun_rows, rows) for one in body.work.row_steps}
    whole = {one.id: rows for one in body.work.finish}
    return {**begun, **woven, "woven_join": rows, **whole}


def _counted(row: tuple[object, ...]) -> int:
    return sum(getattr(one, "times", 1) for one in row)


def sample_of(body: WovenBody) -> WovenSample:
    """Return what the sample of a piece tells of the maker's hand, to be kept for such wire.

    Args:
        body: a woven body of a plan.

    Raises:
        Refusal: a body without a sample of its own.

    Source: plain ratios.
    """
    weaving = body.weaving
    if not isinstance(weaving, Weaving) or weaving.part.sample is None:
        raise Refusal("no_sample", got=body.label, field="sample_rows")
    return WovenSample(
        technique=weaving.part.kind,
        stock=weaving.body.wires.working.key,
        pitch=round(body.pitch_mm / _usual_pitch(weaving), 4),
        tight=round(weaving.tight, 4) if weaving.read else None,
        rows=weaving.part.sample_rows,
    )


def _usual_pitch(weaving: Weaving) -> float:
    """Return the pitch that a body has in a hand of which nothing is known [mm]."""
    by_sum = weaving.part.model_copy(update={"sample_rows": 0, "sample_took": None})
    return by_sum.body(replace(weaving.wires, hands=())).size.pitch


def sample_by_rows(body: WovenBody, rows: int, over: float) -> WovenSample | None:
    """Return what rows counted on a finished body tell of the maker's hand, None for what has none.

    Args:
        body: a woven body of a plan.
        rows: counted.
        over: so much of it [mm].

    Raises:
        Refusal: a pitch that no hand weaves.

    Source: plain ratios; what wire goes into it stays as it was known.
    """
    weaving = body.weaving
    if not isinstance(weaving, Weaving):
        return None
    pitch = over / rows / _usual_pitch(weaving) if rows else 0.0
    low, high = 0.5, 4.0
    if not low <= pitch <= high:
        likely = over / body.pitch_mm
        raise Refusal("rows_far", got=rows, field="rows", likely=round(likely))
    hand = weaving.wires.hand(weaving.part.kind, weaving.body.wires.working)
    return WovenSample(
        technique=weaving.part.kind,
        stock=weaving.body.wires.working.key,
        pitch=round(pitch, 4),
        tight=hand.tight if hand else None,
        rows=max(1, rows),
    )


def sampled_sum(body: WovenBody) -> float:
    """Return the wire of a body's own sample by the sum [mm], nought where it was not read."""
    weaving = body.weaving
    sample = weaving.part.sample if isinstance(weaving, Weaving) else None
    return sample.wire / weaving.tight if sample and sample.wire else 0.0


def kept_for(body: WovenBody) -> WovenSample:
    """Return what is kept of the maker's hand for such a body, to be forgotten.

    Args:
        body: a woven body of a plan.

    Raises:
        Refusal: nothing is kept.

    Source: ``Palette.hand``.
    """
    weaving = body.weaving
    hand = weaving.part.hand(weaving.wires) if isinstance(weaving, Weaving) else None
    if hand is None:
        raise Refusal("no_sample", got=body.label, field="sample_rows")
    return WovenSample(
        technique=hand.technique, stock=hand.stock, pitch=hand.pitch, tight=hand.tight, rows=1
    )


class GoesSoFar(Frozen):
    """How far a length of working wire goes: whole rows, how long they are [mm], what is left of it
    [mm], and how many such wires the whole body takes, with the rows after which each begins."""

    wire_mm: float
    rows: int
    long_mm: float
    left_mm: float
    wires: int
    starts_after: tuple[int, ...]


def goes_so_far(body: WovenBody, typed: object, unit: Unit = "mm") -> GoesSoFar:
    """Return how far so much of its working wire goes, the wire of which a row takes most.

    Args:
        body: a woven body of a plan.
        typed: length of one wire as the maker wrote it.
        unit: of a bare number.

    Raises:
        Refusal: no length, or a wire that is not enough for a single row.

    Source: ``interlace.working.rows_of``.
    """
    try:
        wire = parse_length(typed, unit)
    except Refusal as refusal:
        raise refusal.at("wire") from None
    if not body.wires:
        raise Refusal("nothing_woven", got=body.label, field="wire")
    one = max(body.wires, key=lambda wire: max(wire.takes_mm))
    takes = tuple(one.spare * row + one.more_mm for row in one.takes_mm)
    rows, left = rows_of(wire, takes, one.tails_mm)
    if rows == 0:
        raise Refusal("wire_for_no_row", got=Mm(wire), field="wire", least=one.tails_mm + takes[0])
    upto = min(rows, body.rows)
    if upto < rows:
        used = sum(takes[n % len(takes)] for n in range(upto)) + one.tails_mm
        left = wire - used
    starts = (0,) if one.whole else tuple(range(0, body.rows, rows))
    return GoesSoFar(
        wire_mm=wire,
        rows=upto,
        long_mm=upto * body.pitch_mm,
        left_mm=left,
        wires=len(starts) * one.count,
        starts_after=starts,
    )


class StrandShown(Frozen):
    """A wire of a cell in space: what it is, its thickness and colour, the ``row`` of the cell at
    which it is laid and how many rows it goes, its middle line [mm]."""

    role: str
    wire_mm: float
    colour: str
    row: int
    rows: int
    points: tuple[Place, ...]


class BeadShown(Frozen):
    """A bead of a cell in space: its middle, across and along its hole [mm], whether the hole runs
    along the body, its colour, and the row at which it is threaded, with the share of it that is
    laid then."""

    at: Place
    across_mm: float
    along_mm: float
    lengthwise: bool
    colour: str
    row: float


class WovenShown(Frozen):
    """What repeats in a woven body, in space: x along it, y across it, z towards the eye [mm].

    Each cell holds ``cell_rows`` and lies ``advance_mm`` behind the last one; strands lie ``over``
    the beads, or run through them. What is not ``settled`` is shown as it is laid: it lies a
    little wider than it does when it is pulled tight.
    """

    entry: str
    label: str
    rows: int
    row_name: str
    cell_rows: int
    advance_mm: float
    over: bool
    settled: bool
    strands: tuple[StrandShown, ...]
    beads: tuple[BeadShown, ...]


# What pulls a packed body tight, or None where it is still under way: its part and its wires.
Pulls = Callable[[Interlaced, Palette], Cell | None]


def tightened(part: Interlaced, wires: Palette) -> Cell:
    """Return a packed body of close strands as it lies when it is pulled tight.

    Takes up to a second; of plain values, so that it can be done in another process.

    Args:
        part: with its choices.
        wires: that it is made of.

    Source: ``interlace.settle``.
    """
    body = part.body(wires)
    return body.look.close(settled) if body.look.close is not None else settled(body.look.cell())


def shown_woven(body: WovenBody, pulls: Pulls = tightened) -> WovenShown:
    """Return a woven body as it is looked at from all sides.

    Args:
        body: of a plan.
        pulls: gives it pulled tight, or None: then it is shown as laid.

    Raises:
        TypeError: a body that was read back from a kept plan.

    Source: ``interlace.cells``; what is packed close is pulled tight first (``settle``).
    """
    weaving = body.weaving
    tight = True
    if isinstance(weaving, Bound):
        cell = weaving.whole()
    elif isinstance(weaving, Weaving):
        cell, tight = _close(weaving, pulls)
    else:
        raise TypeError("a body as planned, not as kept")
    working = [one for one in cell.strands if one.role == "working"]
    by_row = any(one.row for one in working)
    rows = 1 if by_row else cell.rows
    return WovenShown(
        entry=body.entry,
        label=body.label,
        rows=body.rows,
        row_name=body.row_name,
        cell_rows=cell.rows,
        advance_mm=cell.advance,
        over=cell.under,
        settled=tight,
        strands=tuple(_strand(one, weaving.wire_of(one.role), rows) for one in cell.strands),
        beads=tuple(map(_bead, cell.balls)),
    )


def _close(weaving: Weaving, pulls: Pulls) -> tuple[Cell, bool]:
    """Return a woven body's cell looked at closely, and whether it is as it lies in the end."""
    part, wires = weaving.part.one_row, weaving.wires
    body = part.body(wires)
    laid = body.look.close(lambda cell: cell) if body.look.close is not None else body.look.cell()
    if body.look.close is None and not laid.packed:
        return laid, True
    tight = pulls(part, wires)
    return (laid, False) if tight is None else (tight, True)


def _strand(one: Strand, wire: Wire, rows: int) -> StrandShown:
    apart = max(SHOWN_APART * one.d, one.length / MOST_SHOWN)
    bar = one.role == "bar"
    # A bar is straight; what is laid beside others is cut up, so that it lies over and under them.
    line = one.line if bar and len(one.line) == 2 else spaced(one.line, apart)
    points = np.round(line, 2).tolist()
    return StrandShown(
        role=one.role,
        wire_mm=one.d,
        colour=wire.metal.colour,
        row=one.row,
        rows=0 if bar else rows,
        points=tuple((x, y, z) for x, y, z in points),
    )


def _bead(ball: Ball) -> BeadShown:
    return BeadShown(
        at=ball.at,
        across_mm=ball.across,
        along_mm=ball.along,
        lengthwise=ball.axis[0] > ball.axis[1],
        colour=ball.colour,
        row=ball.row,
    )
