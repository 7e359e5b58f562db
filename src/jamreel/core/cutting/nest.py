"""Nesting: which cut comes off which reel, offcut or length, with the least waste.

What is weighed: wire that is used or scrapped, each millimetre by where it lies. Offcuts weigh
least, so they go first unless that scraps more than it saves; then lengths that are cut already,
then reels; what would have to be bought weighs most. A remnant of the keep-length or more is no
scrap. Every piece that is opened weighs a little besides, so that one long remnant is left rather
than several short ones.
"""

import math
import time
from collections.abc import Sequence
from dataclasses import dataclass
from functools import partial
from typing import Literal

import numpy as np
from ortools.sat.python import cp_model

from jamreel.core.cutting.columns import Class, Column, relax, whole_plan
from jamreel.core.cutting.fullest import Floats, fullest
from jamreel.core.errors import Refusal
from jamreel.core.values import Frozen

StockKind = Literal["offcut", "length", "reel", "buy"]
# What a millimetre weighs by where it comes from, in hundredths; common practice, no source.
WEIGHT: dict[StockKind, int] = {"offcut": 40, "length": 90, "reel": 100, "buy": 250}
# What opening a piece weighs: half a millimetre of reel wire.
OPEN = 500
# Lengths are solved in tenths of a millimetre: finer than any hand cuts.
TENTHS = 10
ORDER: tuple[StockKind, ...] = ("offcut", "length", "reel", "buy")


class Wanted(Frozen):
    """A length to cut [mm], so many of it; ``trim`` is lost at each cut beside the length."""

    id: str
    length: float
    quantity: int = 1


class Rack(Frozen):
    """A piece of wire to cut from [mm]."""

    id: str
    kind: StockKind
    length: float


class Laid(Frozen):
    """One piece of wire with what is cut from it, longest first, and what is left [mm].

    ``scrap`` is a remnant too short to keep.
    """

    rack: Rack
    cuts: tuple[str, ...]
    used: float
    left: float
    scrap: float


class Nest(Frozen):
    """A cutting plan, how good it is known to be, and the hand's plan beside it.

    ``weight`` and ``bound`` compare plans [mm of reel wire]; ``gap`` is what a better plan could
    still save, as a share. ``unplaced`` did not fit on anything.
    """

    laid: tuple[Laid, ...]
    unplaced: tuple[str, ...]
    scrap: float
    weight: float
    bound: float
    gap: float
    optimal: bool
    seconds: float
    hand_scrap: float
    hand_weight: float
    hand_opened: int
    opened: int


@dataclass(frozen=True)
class _Sum:
    """The problem in whole tenths: kinds of cut by length, pieces of wire, the keep-length."""

    lengths: list[int]
    counts: list[int]
    ids: list[list[str]]
    racks: list[Rack]
    rooms: list[int]
    keep: int
    kerf: int


def nest(
    cuts: Sequence[Wanted],
    racks: Sequence[Rack],
    keep: float,
    kerf: float = 0.0,
    seconds: float = 2.0,
) -> Nest:
    """Return the best plan found for cutting some lengths from some pieces of wire.

    Args:
        cuts: what is wanted.
        racks: what there is; all of one metal, section, size and temper.
        keep: a shorter remnant is scrap [mm]. Of a reel nothing is.
        kerf: lost at each cut [mm].
        seconds: to search for at most.

    Returns:
        The plan, proven or within ``NEAR_ENOUGH`` of its bound where time allows. Of plans that
        weigh the same any may come out.

    Raises:
        Refusal: a length or a piece of wire that is none.

    Source: the one-dimensional cutting-stock problem, solved by constraint programming (OR-Tools
        CP-SAT); optimality is proven by its bound.
    """
    started = time.perf_counter()
    problem = _in_tenths(cuts, racks, keep, kerf)
    by_hand = _first_fit(problem)
    filled = _filled(problem)
    start = min(by_hand, filled, key=lambda plan: _weight(problem, plan))
    best, bound = _best(problem, start, started + seconds)
    weight = _weight(problem, best)
    bound = min(max(bound, _least(problem)), weight)
    optimal = weight - bound < 0.5
    hand = _weight(problem, by_hand)
    laid, unplaced = _as_laid(problem, best)
    hand_laid, _ = _as_laid(problem, by_hand)
    return Nest(
        laid=laid,
        unplaced=unplaced,
        scrap=sum(one.scrap for one in laid),
        weight=_mm(weight),
        bound=_mm(bound),
        gap=0.0 if weight == 0 else max(0.0, (weight - bound) / weight),
        optimal=optimal,
        seconds=time.perf_counter() - started,
        hand_scrap=sum(one.scrap for one in hand_laid),
        hand_weight=_mm(hand),
        hand_opened=len(hand_laid),
        opened=len(laid),
    )


def _mm(weight: float) -> float:
    """Return a weight in millimetres of reel wire."""
    return weight / TENTHS / WEIGHT["reel"]


def _in_tenths(cuts: Sequence[Wanted], racks: Sequence[Rack], keep: float, kerf: float) -> _Sum:
    kinds: dict[int, list[str]] = {}
    for cut in cuts:
        if not cut.length > 0 or not math.isfinite(cut.length):
            raise Refusal("cut_length", got=f"{cut.length:g} mm", field=f"cuts.{cut.id}")
        # Up to the next tenth, so that nothing is cut short.
        tenths = math.ceil(round(cut.length * TENTHS, 6))
        kinds.setdefault(tenths, []).extend([cut.id] * cut.quantity)
    order = sorted(kinds, reverse=True)
    for rack in racks:
        if rack.length < 0 or not math.isfinite(rack.length):
            raise Refusal("rack_length", got=f"{rack.length:g} mm", field=f"racks.{rack.id}")
    # Short offcuts before long ones: what is nearly used up goes first.
    ranked = sorted(racks, key=lambda r: (ORDER.index(r.kind), r.length, r.id))
    return _Sum(
        order,
        [len(kinds[length]) for length in order],
        [kinds[length] for length in order],
        ranked,
        [math.floor(round(r.length * TENTHS, 6)) for r in ranked],
        round(keep * TENTHS),
        math.ceil(round(kerf * TENTHS, 6)),
    )


Plan = list[list[int]]


def _first_fit(problem: _Sum) -> Plan:
    """Return the hand's plan: longest first, each on the first piece that has room for it."""
    plan = [[0] * len(problem.lengths) for _ in problem.racks]
    left = list(problem.rooms)
    for kind, (length, count) in enumerate(zip(problem.lengths, problem.counts, strict=True)):
        for _ in range(count):
            takes = length + problem.kerf
            at = next((b for b, room in enumerate(left) if room >= takes), None)
            if at is not None:
                left[at] -= takes
                plan[at][kind] += 1
    return plan


def _filled(problem: _Sum) -> Plan:
    """Return a plan that fills piece by piece, offcuts first, each as well as the cuts allow."""
    takes = [length + problem.kerf for length in problem.lengths]
    left = list(problem.counts)
    plan = [[0] * len(takes) for _ in problem.racks]
    reels = sum(r for rack, r in zip(problem.racks, problem.rooms, strict=True) if is_reel(rack))
    spare = reels >= sum(n * take for n, take in zip(left, takes, strict=True))
    for b, rack in enumerate(problem.racks):
        if is_reel(rack):
            # Of a reel nothing is scrap: it takes what is left, the longest first.
            room = problem.rooms[b]
            for kind, take in enumerate(takes):
                plan[b][kind] = min(left[kind], room // take)
                room -= plan[b][kind] * take
        else:
            elsewhere = WEIGHT["reel"] if spare else _MISSING
            worth = partial(_worth, problem, b, elsewhere)
            plan[b] = list(fullest(takes, left, problem.rooms[b], worth) or plan[b])
        left = [have - taken for have, taken in zip(left, plan[b], strict=True)]
    return plan


def _worth(problem: _Sum, b: int, elsewhere: int, used: Floats) -> Floats:
    """Return what it saves to use so much of a piece, rather than wire that weighs more."""
    rack, room = problem.racks[b], problem.rooms[b]
    committed = np.where(room - used < problem.keep, room, used)
    opened = np.where(used > 0, float(OPEN), 0.0)
    saves: Floats = elsewhere * used - WEIGHT[rack.kind] * committed - opened
    return saves


def is_reel(rack: Rack) -> bool:
    """Return whether a piece is a reel, of which nothing is scrap."""
    return rack.kind == "reel"


def _weight(problem: _Sum, plan: Plan) -> int:
    """Return what a plan weighs: used and scrapped wire by where it lies, and what is missing."""
    total = 0
    placed = [0] * len(problem.lengths)
    for rack, room, row in zip(problem.racks, problem.rooms, plan, strict=True):
        used = _used(problem, row)
        if used:
            total += OPEN + WEIGHT[rack.kind] * (used + _scrap(problem, rack, room - used))
        placed = [a + b for a, b in zip(placed, row, strict=True)]
    missing = sum(
        (count - done) * (length + problem.kerf)
        for count, done, length in zip(problem.counts, placed, problem.lengths, strict=True)
    )
    return total + _MISSING * missing


# A cut that is not placed weighs more than any wire that could be opened for it.
_MISSING = 20_000


def _used(problem: _Sum, row: list[int]) -> int:
    return sum(n * (length + problem.kerf) for n, length in zip(row, problem.lengths, strict=True))


def _scrap(problem: _Sum, rack: Rack, left: int) -> int:
    return 0 if is_reel(rack) or left >= problem.keep else left


def _best(problem: _Sum, start: Plan, deadline: float) -> tuple[Plan, float]:
    """Return the best plan found until a deadline, and a bound on what any plan weighs.

    Patterns first where pieces are alike or many; what they leave open is searched piece by piece.
    """
    if not problem.lengths or not problem.racks:
        return start, float(_weight(problem, start))
    best, bound = start, float(_least(problem))
    if _weight(problem, best) - bound < max(0.5, NEAR_ENOUGH * bound):
        return best, bound
    classes, members = _classes(problem)
    many = len(problem.racks) * len(problem.lengths) > MANY_CELLS
    if many or max(each.count for each in classes) >= ALIKE:
        found, low = _by_patterns(problem, start, classes, members, deadline)
        best, bound = min(best, found, key=lambda p: _weight(problem, p)), max(bound, low)
    left = deadline - time.perf_counter()
    if _weight(problem, best) - bound >= 0.5 and left > 0.1:
        found, low = _piece_by_piece(problem, best, left)
        best, bound = min(best, found, key=lambda p: _weight(problem, p)), max(bound, low)
    return best, bound


# A plan this near to its bound is not searched any further: less wire than a file takes off.
NEAR_ENOUGH = 1e-4
# From so many cells, or so many pieces alike, patterns come first.
MANY_CELLS, ALIKE = 700, 4


def _least(problem: _Sum) -> int:
    """Return what the wire alone weighs, were nothing scrapped and the lightest taken first.

    Opening a piece counts by the share of it that is used, or once in all: no plan opens for less.
    """
    rooms = [(WEIGHT[k.kind], r) for k, r in zip(problem.racks, problem.rooms, strict=True) if r]
    by_share = _lightest(problem, [(weight + OPEN / room, room) for weight, room in rooms])
    once = OPEN if rooms and problem.counts else 0
    return math.ceil(max(by_share, once + _lightest(problem, rooms)) - 1e-6)


def _lightest(problem: _Sum, rates: Sequence[tuple[float, int]]) -> float:
    """Return what the wanted wire weighs at the lightest rates, and what is missing then."""
    pieces = zip(problem.counts, problem.lengths, strict=True)
    wanted = sum(n * (length + problem.kerf) for n, length in pieces)
    total = 0.0
    for rate, room in sorted(rates):
        taken = min(room, wanted)
        total += rate * taken
        wanted -= taken
    return total + _MISSING * wanted


def _classes(problem: _Sum) -> tuple[list[Class], list[list[int]]]:
    """Return pieces of wire that are alike as classes, and which pieces each stands for."""
    members: dict[tuple[StockKind, int], list[int]] = {}
    for b, (rack, room) in enumerate(zip(problem.racks, problem.rooms, strict=True)):
        members.setdefault((rack.kind, room), []).append(b)
    classes = [
        Class(room, len(found), WEIGHT[kind], problem.keep, OPEN, endless=kind == "reel")
        for (kind, room), found in members.items()
    ]
    return classes, list(members.values())


def _by_patterns(
    problem: _Sum,
    start: Plan,
    classes: list[Class],
    members: list[list[int]],
    deadline: float,
) -> tuple[Plan, float]:
    """Return a plan put together from patterns, and the bound of their relaxation."""
    takes = [length + problem.kerf for length in problem.lengths]
    of = {b: c for c, found in enumerate(members) for b in found}
    first = {
        Column(of[b], tuple(row), classes[of[b]].cost(_used(problem, row)))
        for b, row in enumerate(start)
        if any(row)
    }
    ordered = sorted(first, key=lambda column: (column.of, column.counts))
    now = time.perf_counter()
    half = now + 0.6 * (deadline - now)
    bound, columns = relax(takes, problem.counts, classes, ordered, _MISSING, half)
    # Where every piece that is opened weighs all of it, plans differ by whole pieces only.
    grain = _grain(problem)
    if grain and np.isfinite(bound):
        bound = float(math.ceil(round(bound / grain, 6)) * grain)
    left = deadline - time.perf_counter()
    whole = whole_plan(takes, problem.counts, classes, columns, _MISSING, 0.7 * left)
    if whole is None:
        return start, bound
    plan = [[0] * len(takes) for _ in problem.racks]
    free = [list(found) for found in members]
    for column in whole:
        plan[free[column.of].pop(0)] = list(column.counts)
    return plan, bound


def _grain(problem: _Sum) -> int:
    """Return what the weights of all plans are multiples of, 0 where they are of nothing coarse."""
    pieces = list(zip(problem.racks, problem.rooms, strict=True))
    if any(is_reel(rack) or room > problem.keep for rack, room in pieces):
        return 0
    return math.gcd(*(OPEN + WEIGHT[rack.kind] * room for rack, room in pieces))


def _piece_by_piece(problem: _Sum, hint: Plan, seconds: float) -> tuple[Plan, float]:
    """Return the best plan that a search over every piece finds, and its bound."""
    model = cp_model.CpModel()
    takes = [length + problem.kerf for length in problem.lengths]
    cells: list[list[cp_model.IntVar]] = []
    terms: list[cp_model.LinearExpr] = []
    opened: list[cp_model.IntVar] = []
    for b, room in enumerate(problem.rooms):
        row = [
            model.new_int_var(0, min(count, room // (length + problem.kerf)), f"x{b}_{k}")
            for k, (length, count) in enumerate(zip(problem.lengths, problem.counts, strict=True))
        ]
        used = cp_model.LinearExpr.weighted_sum(row, takes)
        is_open = model.new_bool_var(f"open{b}")
        model.add(used <= room).only_enforce_if(is_open)
        model.add(used == 0).only_enforce_if(is_open.negated())
        opened.append(is_open)
        cells.append(row)
        terms.append(_weighs(model, problem, b, used, is_open, hint))
        for x, n in zip(row, hint[b], strict=True):
            model.add_hint(x, n)
        model.add_hint(is_open, any(hint[b]))
    for k, (length, count) in enumerate(zip(problem.lengths, problem.counts, strict=True)):
        left_out = model.new_int_var(0, count, f"missing{k}")
        model.add(sum(row[k] for row in cells) + left_out == count)
        model.add_hint(left_out, count - sum(row[k] for row in hint))
        terms.append(_MISSING * (length + problem.kerf) * left_out)
    _break_ties(model, problem, cells, opened)
    model.minimize(sum(terms))
    solver = cp_model.CpSolver()
    solver.parameters.max_time_in_seconds = seconds
    solver.parameters.num_workers = 4
    solver.parameters.random_seed = 1
    status = solver.solve(model)
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return hint, -math.inf
    plan = [[solver.value(x) for x in row] for row in cells]
    return plan, solver.best_objective_bound


def _weighs(
    model: cp_model.CpModel,
    problem: _Sum,
    b: int,
    used: cp_model.LinearExpr,
    is_open: cp_model.IntVar,
    hint: Plan,
) -> cp_model.LinearExpr:
    """Return what a piece of wire weighs in the search: all of it, unless its remnant is kept."""
    rack, room = problem.racks[b], problem.rooms[b]
    if is_reel(rack):
        return WEIGHT[rack.kind] * used + OPEN * is_open
    kept = model.new_bool_var(f"kept{b}")
    committed = model.new_int_var(0, room, f"committed{b}")
    model.add(used <= room - problem.keep).only_enforce_if(kept)
    model.add(committed >= used)
    model.add(committed >= room).only_enforce_if(kept.negated(), is_open)
    spent = _used(problem, hint[b])
    keeps = room - spent >= problem.keep
    model.add_hint(kept, keeps)
    model.add_hint(committed, spent if keeps or not spent else room)
    return cp_model.LinearExpr.weighted_sum([is_open, committed], [OPEN, WEIGHT[rack.kind]])


def _break_ties(
    model: cp_model.CpModel,
    problem: _Sum,
    cells: list[list[cp_model.IntVar]],
    opened: Sequence[cp_model.IntVar],
) -> None:
    """Let pieces that are alike be opened in order, the fuller first: one of many equal plans."""
    for b in range(1, len(problem.racks)):
        one, two = problem.racks[b - 1], problem.racks[b]
        if (one.kind, problem.rooms[b - 1]) == (two.kind, problem.rooms[b]):
            model.add(opened[b - 1] >= opened[b])
            first, second = (
                sum(x * n for x, n in zip(cells[i], problem.lengths, strict=True))
                for i in (b - 1, b)
            )
            model.add(first >= second)


def _as_laid(problem: _Sum, plan: Plan) -> tuple[tuple[Laid, ...], tuple[str, ...]]:
    """Return a plan piece by piece, cuts longest first, and the ids of what was left out."""
    waiting = [list(ids) for ids in problem.ids]
    laid = []
    for rack, room, row in zip(problem.racks, problem.rooms, plan, strict=True):
        ids = tuple(waiting[k].pop(0) for k, n in enumerate(row) for _ in range(n))
        used = _used(problem, row)
        if ids:
            laid.append(
                Laid(
                    rack=rack,
                    cuts=ids,
                    used=used / TENTHS,
                    left=(room - used) / TENTHS,
                    scrap=_scrap(problem, rack, room - used) / TENTHS,
                )
            )
    return tuple(laid), tuple(one for ids in waiting for one in ids)
