"""On the way: a maker tells how far a piece is, and the rest of it is planned from there."""

from collections import Counter
from collections.abc import Iterator, Mapping
from copy import deepcopy
from dataclasses import dataclass
from typing import Any

from jamreel.core.cutting.cuts import Cut, of_cut
from jamreel.core.plan import Plan, go_on_raw
from jamreel.core.result import GoneOn, Need, ProposedEdit
from jamreel.core.workpiece.records import Standing
from jamreel.workshop.making import NothingToTick
from jamreel.workshop.models import Piece, Workshop
from jamreel.workshop.pieces import save_brief
from jamreel.workshop.planning import (
    Planned,
    brief_for_planning,
    plan_of,
    record_of,
    shop_for,
    shop_of,
    standing_ticks,
    work_out_with,
)
from jamreel.workshop.turns import PutAway, whole_piece


@dataclass(frozen=True)
class Wires:
    """Wires of one cut: what it is called, its length [mm], how many."""

    label: str
    length_mm: float
    count: int


@dataclass(frozen=True)
class OnTheWay:
    """What follows from what is made so far: what was cut already and serves, what is still to be
    cut, and what is to be bought more, by its need with how many."""

    gone: GoneOn
    serves: tuple[Wires, ...]
    to_cut: tuple[Wires, ...]
    to_buy: tuple[tuple[Need, int], ...]


def what_follows(workshop: Workshop, piece_id: int, told: Mapping[str, Any]) -> OnTheWay:
    """Return what follows from what is made so far; nothing is kept.

    Args:
        workshop: whose bench.
        piece_id: the piece.
        told: as typed, see ``core.parts.so_far.ToldSoFar``.

    Raises:
        BriefRefused: figures that can't be so, under ``so_far``.
        NothingToTick: a piece without a plan.
    """
    piece = whole_piece(workshop, piece_id)
    return _followed(piece, told)[0]


def plan_on(workshop: Workshop, piece_id: int, version: int, told: Mapping[str, Any]) -> None:
    """Keep what is made so far, and with it the plan of the rest. Raises like ``what_follows``.

    Raises:
        StaleSave: ``version`` is not the piece's version.
        PutAway: the piece was put away.
    """
    piece = whole_piece(workshop, piece_id)
    if piece.put_away_at is not None:
        raise PutAway
    _, brief = _followed(piece, told)
    save_brief(workshop, piece_id, version, brief)


def _followed(piece: Piece, told: Mapping[str, Any]) -> tuple[OnTheWay, dict[str, Any]]:
    shop = shop_for(piece, shop_of(piece.workshop))
    before = plan_of(piece, shop_of(piece.workshop)).plan
    if before is None or piece.head is None:
        raise NothingToTick
    ticks = standing_ticks(piece)
    gone = go_on_raw(brief_for_planning(piece), shop, dict(told), [record_of(t) for t in ticks])
    brief = edited(piece.head.brief, gone.edits)
    now = work_out_with(brief_for_planning(piece, brief), shop, ticks)
    if now.plan is None:
        raise NothingToTick
    cuts = {cut.id: cut for cut in now.plan.cuts}
    return (
        OnTheWay(
            gone=gone,
            serves=tuple(_serving(now.standing, cuts)),
            to_cut=tuple(_open(now, cuts)),
            to_buy=tuple(_more(before, now.plan)),
        ),
        brief,
    )


def edited(brief: Mapping[str, Any], edits: tuple[ProposedEdit, ...]) -> dict[str, Any]:
    """Return a brief as kept with some values of its piece set.

    Args:
        brief: as kept.
        edits: by the path below the piece.
    """
    found = deepcopy(dict(brief))
    for edit in edits:
        at: Any = found["piece"]
        for step in edit.path[:-1]:
            at = at[step]
        value = bool(edit.value) if edit.path == ("counted",) else edit.value
        at[edit.path[-1]] = value
    return found


def _serving(standing: Standing, cuts: Mapping[str, Cut]) -> Iterator[Wires]:
    """Yield the wires that were cut and serve as they are."""
    serve = (one for one in standing.wires if one.settled or one.verdict == "long")
    counts = Counter(of_cut(one.key)[0] for one in serve)
    for key, count in counts.items():
        if key in cuts:
            yield Wires(cuts[key].label, cuts[key].length_mm, count)


def _open(now: Planned, cuts: Mapping[str, Cut]) -> Iterator[Wires]:
    counts = Counter(of_cut(key)[0] for key in now.standing.open_wires)
    for key, count in counts.items():
        yield Wires(cuts[key].label, cuts[key].length_mm, count)


def _more(before: Plan, after: Plan) -> Iterator[tuple[Need, int]]:
    """Yield what is to be bought beyond what the plan of before wanted."""
    had = {need.id: need.quantity for need in before.needs}
    for need in after.needs:
        more = need.quantity - had.get(need.id, 0)
        if more > 0:
            yield need, more
