"""At the bench: ticking off cuts, steps and what is fetched; try-ons.

Each is one turn of a piece (see ``turns``): worked out first, then written at once.
"""

from collections.abc import Sequence
from functools import partial
from typing import Any

from django.http import Http404
from django.utils import timezone

from jamreel.core.cutting.cuts import of_cut
from jamreel.core.errors import Refusal
from jamreel.core.fit.tryon import PuttingRight
from jamreel.core.plan import BriefRefused, Plan
from jamreel.core.result import Need
from jamreel.core.shop import Shop
from jamreel.core.units import Mm, parse_length
from jamreel.core.words import problem, speaking
from jamreel.core.workpiece.records import Record, lacking, record_of_step
from jamreel.workshop.models import Piece, Stock, Tick, TryOnRecord, Workshop
from jamreel.workshop.ownership import row
from jamreel.workshop.planning import (
    Planned,
    brief_for_planning,
    shop_for,
    standing_ticks,
    work_out_with,
)
from jamreel.workshop.stock import give_back, parse_count, use
from jamreel.workshop.turns import Turn, take_turn


class NothingToTick(Exception):
    """The plan has no such cut or step, or there is no plan."""


class AlreadyTicked(Exception):
    """Another tab was first."""


def tick(
    workshop: Workshop,
    piece_id: int,
    kind: str,
    key: str,
    actual: str = "",
    stock_id: int | None = None,
    *,
    scrap_rest: bool = False,
    sure: bool = False,
) -> None:
    """Tick off a wire that was cut, a step, or beads that were fetched, and keep what it was.

    Cut and stock move together or not at all.

    Args:
        workshop: whose piece.
        piece_id: the piece.
        kind: ``cut``, ``step``, or ``need`` for beads and findings.
        key: of the step or need, or of one wire; a cut's own id ticks all wires that are cut like
            it, whomever they are for.
        actual: length as cut, or how many were taken, as typed; as planned when empty.
        stock_id: what it was cut or taken from, when it came off the rack.
        scrap_rest: whether what is left of that is scrap.
        sure: a length far from what was planned was asked about, and is so.

    Raises:
        NothingToTick: the plan has no such cut or step.
        AlreadyTicked: it is ticked already.
        BriefRefused: the actual amount can't be read, or is more than the rack has; or what it is
            taken from is something else than is wanted, or was put away.
    """
    stock = row(Stock, workshop, stock_id) if stock_id is not None else None

    def change(turn: Turn) -> None:
        planned = turn.planned
        needs = {n.key_of(share): n for n in _needs(planned) for share in n.shares}
        for record in _to_tick(planned, kind, key):
            amount = _as_typed(actual, record, turn.shop)
            if not sure:
                _no_slip(amount, record, turn.shop)
            made = _keep(turn, record, amount)
            if stock is not None and amount is not None:
                need = needs.get(record.key) if record.kind == "need" else None
                wanted = need.kind if need else record.stock
                turn.then(partial(use, stock, amount, made, wanted, scrap_rest=scrap_rest))

    take_turn(workshop, piece_id, change)


def _needs(planned: Planned) -> Sequence[Need]:
    return planned.plan.needs if planned.plan else ()


def _to_tick(planned: Planned, kind: str, key: str) -> Sequence[Record]:
    """Return the records that a tick makes, each as planned."""
    if planned.plan is None:
        raise NothingToTick
    find = {"cut": _wires, "step": _steps, "need": _shares}[kind]
    known, found = find(planned.plan, planned, key)
    if not known:
        raise NothingToTick
    if not found:
        raise AlreadyTicked
    return found


def _wires(plan: Plan, planned: Planned, key: str) -> tuple[bool, list[Record]]:
    """Return whether a wire or cut is known, and what of it is still to be cut."""
    cuts = {cut.id: cut for cut in plan.cuts}
    wanted = [one for one in planned.standing.open_wires if one == key]
    if not wanted and key in cuts:
        alike = {cut.id for cut in plan.cuts if cut.alike == cuts[key].alike}
        wanted = [one for one in planned.standing.open_wires if of_cut(one)[0] in alike]
    found = []
    for one in wanted:
        cut = cuts[of_cut(one)[0]]
        found.append(
            Record(kind="cut", key=one, planned=cut.length_mm, says=cut.label, stock=cut.stock)
        )
    done = {record.key for record in planned.records if record.kind == "cut"}
    return key in cuts or bool(wanted) or key in done, found


def _steps(plan: Plan, planned: Planned, key: str) -> tuple[bool, list[Record]]:
    done = {record.key for record in planned.records if record.kind == "step"}
    for step in plan.steps:
        if key == step.id or key in step.stands_for:
            keys = step.stands_for if key == step.id else (key,)
            open_keys = [one for one in keys if one not in done]
            return True, [record_of_step(plan.steps, step, one) for one in open_keys]
    return False, []


def _shares(plan: Plan, planned: Planned, key: str) -> tuple[bool, list[Record]]:
    for need in plan.needs:
        keys = [need.key_of(share) for share in need.shares]
        if key == need.id or key in keys:
            lacks = lacking(need, planned.records)
            wanted = lacks if key == need.id else {k: n for k, n in lacks.items() if k == key}
            says = f"{need.size}, {need.label}"
            return True, [
                Record(kind="need", key=one, planned=count, says=says)
                for one, count in wanted.items()
            ]
    return False, []


def _keep(turn: Turn, record: Record, amount: float | None) -> Tick:
    """Return the tick that keeps a record; of beads fetched before, it now says more."""
    standing = (t for t in turn.ticks if (t.kind, t.key) == ("need", record.key))
    before = next(standing, None) if record.kind == "need" else None
    if before is None:
        return turn.keep(turn.new_tick(record, amount))
    before.actual = before.planned = (before.actual or 0.0) + (amount or 0.0)
    return turn.keep(before)


def _as_typed(actual: str, record: Record, shop: Shop) -> float | None:
    """Return the amount as typed, or as planned. Raises BriefRefused at what was made."""
    if not actual.strip() or record.planned is None:
        return record.planned
    with speaking(shop.language, shop.unit):
        try:
            wire = record.kind == "cut"
            return parse_length(actual, shop.unit) if wire else parse_count(actual)
        except Refusal as refusal:
            raise BriefRefused((problem(refusal.at(f"made.{record.key}")),)) from None


# Wire cut so many times longer or shorter than planned is asked about; common practice, no source.
FAR = 1.5


def _no_slip(amount: float | None, record: Record, shop: Shop) -> None:
    """Ask about a length that looks like a slip. Raises BriefRefused with what may be meant."""
    if record.kind != "cut" or not record.planned or amount is None:
        return
    if record.planned / FAR <= amount <= record.planned * FAR:
        return
    slips = (amount / 10, amount * 10, amount * 25.4, amount / 25.4)
    likely = next((s for s in slips if record.planned / FAR <= s <= record.planned * FAR), None)
    refusal = Refusal(
        "cut_far_guess" if likely else "cut_far",
        got=Mm(amount),
        field=f"made.{record.key}",
        planned=record.planned,
        likely=likely,
    )
    with speaking(shop.language, shop.unit):
        raise BriefRefused((problem(refusal),))


def untick(workshop: Workshop, piece_id: int, kind: str, key: str) -> None:
    """Take a tick back, and what it took off the rack.

    A cut's own id takes back all wires that are cut like it, a step's or need's id all that it
    stands for.
    """

    def change(turn: Turn) -> None:
        keys = _stands_for(turn.planned.plan, kind, key)
        name_of = (lambda one: of_cut(one.key)[0]) if kind == "cut" else (lambda one: one.key)
        standing = [one for one in turn.ticks if one.kind == kind]
        found = [one for one in standing if one.key == key or name_of(one) in keys]
        if not found:
            raise NothingToTick
        for one in found:
            turn.take_back(one)
            turn.then(partial(give_back, one))

    take_turn(workshop, piece_id, change)


def _stands_for(plan: Plan | None, kind: str, key: str) -> frozenset[str]:
    """Return the names that a cut, step or need stands for, itself among them."""
    if plan is None:
        return frozenset({key})
    if kind == "cut":
        alike = next((cut.alike for cut in plan.cuts if cut.id == key), None)
        return frozenset(cut.id for cut in plan.cuts if alike and cut.alike == alike)
    if kind == "step":
        return frozenset(k for s in plan.steps if s.id == key for k in s.stands_for)
    return frozenset(n.key_of(share) for n in plan.needs if n.id == key for share in n.shares)


def judge(piece: Piece, noted: dict[str, Any], shop: Shop) -> PuttingRight:
    """Return what a piece's plan answers to a try-on as noted; nothing is kept.

    Args:
        piece: as it stands.
        noted: as typed, by the names of ``core.fit.tryon.TryOn``.
        shop: the workshop's settings.

    Raises:
        BriefRefused: a reading that can't be read, or can't have been taken on this piece.
        NothingToTick: nothing was noted, or there is no plan to judge it by.
    """
    brief = {**brief_for_planning(piece), "tryon": noted}
    planned = work_out_with(brief, shop_for(piece, shop), standing_ticks(piece))
    wrong = tuple(one for one in planned.problems if one.field.startswith("tryon"))
    if wrong:
        raise BriefRefused(wrong)
    if planned.plan is None or planned.plan.putting_right is None:
        raise NothingToTick
    return planned.plan.putting_right


def record_tryon(workshop: Workshop, piece_id: int, noted: dict[str, Any]) -> None:
    """Keep a try-on as noted, with the answer to it. What can't be right touches nothing.

    Raises:
        BriefRefused: a reading that can't be read, or can't have been taken on this piece.
        NothingToTick: nothing was noted, or there is no plan to judge it by.
    """

    def change(turn: Turn) -> None:
        answer = judge(turn.piece, noted, turn.bench)
        record = TryOnRecord(
            workshop=workshop,
            piece=turn.piece,
            noted=noted,
            answer=answer.model_dump(mode="json"),
            revision=turn.head,
            noted_at=timezone.now(),
        )
        turn.tryons.append(record)
        turn.then(record.save)

    take_turn(workshop, piece_id, change)


def mark_put_right(workshop: Workshop, piece_id: int, tryon_id: int) -> None:
    """Say that what a try-on asked for is done; the piece waits for the next try-on.

    Raises Http404 for a try-on of another piece.
    """

    def change(turn: Turn) -> None:
        record = next((one for one in turn.tryons if one.pk == tryon_id), None)
        if record is None:
            raise Http404("no such try-on")
        record.done = True
        turn.then(record.save)

    take_turn(workshop, piece_id, change)
