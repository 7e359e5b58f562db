"""Pieces: starting, saving, walking back and forth through revisions.

A brief is kept as it was typed, whether or not it gives a plan; each save is a new revision. The
piece's ``version`` moves with every change, and a save from an older version is refused.
"""

import json
from collections.abc import Callable
from datetime import timedelta
from functools import lru_cache
from typing import Any

from django.db import transaction
from django.utils import timezone
from pydantic import ValidationError

from jamreel.core.families import registered
from jamreel.core.plan import Plan, read_shop
from jamreel.core.result import Figure
from jamreel.core.shop import Shop
from jamreel.core.upgrade import upgraded, with_names
from jamreel.core.words import speaking
from jamreel.core.workpiece.earlier import found_again
from jamreel.core.workpiece.records import done_steps
from jamreel.workshop.models import Piece, Revision, Tick, Wearer, Workshop
from jamreel.workshop.ownership import row, rows
from jamreel.workshop.planning import (
    OLD_NAMES,
    Planned,
    brief_for_planning,
    plan_of,
    record_of,
    standing_ticks,
    work_out,
)
from jamreel.workshop.stations import Facts, StationState, station_states, waits_for

# Keystrokes in one field, each within this of the last, are undone in one step.
BURST = timedelta(seconds=3)
MOST_BRIEF_CHARS = 100_000


class StaleSave(Exception):
    """A save made from an older version; carries the piece as it stands now."""

    def __init__(self, piece: Piece) -> None:
        super().__init__(f"piece {piece.pk} has moved on to version {piece.version}")
        self.piece = piece


def shop_of(workshop: Workshop) -> Shop:
    """Return a workshop's settings as the core reads them."""
    return _shop_read(json.dumps(workshop.shop))


# Settings change seldom and are read with every request.
@lru_cache(maxsize=64)
def _shop_read(typed: str) -> Shop:
    return read_shop(json.loads(typed))


def sites_of(brief: dict[str, Any], shop: Shop) -> tuple[tuple[str, ...], tuple[str, ...]]:
    """Return the sites that a brief's construction wants measured, and those that help."""
    typed = brief.get("piece") or {}
    cls = registered().get(str(typed.get("kind")))
    if cls is None:
        return (), ()
    try:
        wanted = cls.model_validate(typed, context={"unit": brief.get("unit") or shop.unit}).wants()
    except ValidationError:
        wanted = cls.sites
    return wanted, tuple(site for site in cls.helps if site not in wanted)


def facts_of(piece: Piece, planned: Planned) -> Facts:
    """Return what has happened to a piece so far."""
    records = list(piece.tryons.all())
    last = records[-1] if records else None
    done = done_steps(planned.plan, planned.records) if planned.plan else frozenset()
    return Facts(
        standing=planned.standing,
        steps=done,
        tried=last is not None,
        put_right=last is not None and not last.done and not last.answer.get("settled", False),
        finished=piece.finished_at is not None,
    )


def states_of(planned: Planned, shop: Shop, facts: Facts) -> dict[str, StationState]:
    """Return the state of a piece's stations, in the workshop's language."""
    with speaking(shop.language, shop.unit):
        return station_states(planned.plan, planned.problems, facts)


def settle(piece: Piece, shop: Shop, planned: Planned | None = None) -> Planned:
    """Work out a piece's brief and store where it stands; every write ends with this."""
    planned = planned or plan_of(piece, shop)
    _rename(piece, planned, shop)
    facts = facts_of(piece, planned)
    states = states_of(planned, shop, facts)
    piece.waits_for = waits_for(states, facts)
    piece.state = {
        "stations": {key: vars(state) for key, state in states.items()},
        "answer": _answer(piece, planned.plan, piece.waits_for),
        "made_of": _made_of(planned.plan),
        "guessed": planned.plan is not None and any(g.guessed for g in planned.plan.girths),
    }
    piece.save()
    return planned


def _rename(piece: Piece, planned: Planned, shop: Shop) -> None:
    """Give ticks of an earlier format the names that what they are for has now."""
    old = [tick for tick in standing_ticks(piece) if tick.named_by == OLD_NAMES]
    if not old or planned.plan is None:
        return
    again = found_again([record_of(tick) for tick in old], planned.plan)
    for tick in old:
        first, *others = again[tick.key]
        for record in others:
            Tick.objects.create(
                workshop=tick.workshop,
                piece=piece,
                kind=record.kind,
                key=record.key,
                planned=record.planned,
                actual=record.actual,
                what=tick.what,
                ticked_at=tick.ticked_at,
            )
        tick.kind, tick.key, tick.named_by = first.kind, first.key, OLD_NAMES + 1
        tick.planned, tick.actual = first.planned, first.actual
        tick.save(update_fields=["kind", "key", "named_by", "planned", "actual"])


def _answer(piece: Piece, plan: Plan | None, waits: str) -> dict[str, Any] | None:
    """Return the one figure that a piece shows on the bench, by what it waits for."""
    if plan is None:
        return None
    records = list(piece.tryons.all())
    last = records[-1] if records else None
    if waits == "put_right" and last is not None and last.answer.get("amount_mm") is not None:
        amount = last.answer["amount_mm"]
        return Figure(id="to_do", label=last.answer["amount_label"], value_mm=amount).model_dump()
    station = {"try_on": "fit", "put_right": "fit", "done": "cut"}.get(waits, waits)
    wanted = getattr(plan.answers, station)
    figure = next((f for f in plan.figures if f.id == wanted), None)
    return figure.model_dump() if figure else None


def _made_of(plan: Plan | None) -> str:
    return f"{plan.says} · {plan.wire} {plan.metal}" if plan else ""


def _head(piece: Piece) -> Revision:
    assert piece.head is not None  # set when the piece is started
    return piece.head


def present(brief: dict[str, Any]) -> dict[str, Any]:
    """Return a brief as kept in the present format, each of its entries with a name."""
    found: dict[str, Any] = upgraded(brief)
    piece = found.get("piece")
    return {**found, "piece": with_names(piece)} if isinstance(piece, dict) else found


def start_piece(
    workshop: Workshop,
    name: str,
    brief: dict[str, Any],
    wearer: Wearer | None = None,
    due: Any = None,
) -> Piece:
    """Return a new piece with its first revision, which says how its bare numbers are meant."""
    shop = shop_of(workshop)
    brief = present({"unit": shop.unit, "gauge_system": shop.gauge_system, **brief})
    piece = Piece(workshop=workshop, name=name, wearer=wearer, due=due)
    # Worked out before anything is locked; what follows finds it remembered.
    work_out(brief_for_planning(piece, brief), shop)
    with transaction.atomic():
        piece.save()
        piece.head = Revision.objects.create(
            workshop=workshop, piece=piece, brief=brief, saved_at=timezone.now()
        )
        settle(piece, shop)
    return piece


def save_brief(
    workshop: Workshop, piece_id: int, version: int, brief: dict[str, Any]
) -> tuple[Piece, Planned]:
    """Save a brief as a new revision, in the present format and with a name for every entry.

    Raises:
        StaleSave: ``version`` is not the piece's version.
    """
    brief, shop = present(brief), shop_of(workshop)
    planned = plan_of(_to_plan(workshop, piece_id, version), shop, brief)
    with transaction.atomic():
        piece = _current(workshop, piece_id, version)
        before = present(_head(piece).brief)
        if brief == before:
            return piece, planned
        _add_revision(piece, brief, changed_field(before, brief))
        return piece, settle(piece, shop)


def _add_revision(piece: Piece, brief: dict[str, Any], field: str) -> None:
    head, now = _head(piece), timezone.now()
    goes_on = bool(field) and head.field == field and now - head.saved_at < BURST
    piece.head = Revision.objects.create(
        workshop=piece.workshop,
        piece=piece,
        parent=head,
        burst=(head.burst or head) if goes_on else None,
        brief=brief,
        field=field,
        saved_at=now,
    )
    piece.version += 1


def undo(workshop: Workshop, piece_id: int, version: int) -> tuple[Piece, Planned]:
    """Step back past the last change; a burst of typing goes at once."""
    return _move(workshop, piece_id, version, undo_target)


def redo(workshop: Workshop, piece_id: int, version: int) -> tuple[Piece, Planned]:
    """Step forward to what was last undone."""
    return _move(workshop, piece_id, version, redo_target)


def undo_target(piece: Piece) -> Revision | None:
    """Return the revision that undo goes to, or None at the first."""
    head = _head(piece)
    return (head.burst or head).parent


def can_move(piece: Piece) -> tuple[bool, bool]:
    """Return whether there is anything to undo, and to redo, without loading it."""
    head = _head(piece)
    return (head.burst or head).parent_id is not None, head.next.exists()


def redo_target(piece: Piece) -> Revision | None:
    """Return the revision that redo goes to, or None: the newest next one, its burst's end."""
    following = _head(piece).next.order_by("-pk").first()
    if following is None:
        return None
    return rows(Revision, piece.workshop).filter(burst=following).last() or following


def _move(
    workshop: Workshop, piece_id: int, version: int, to: Callable[[Piece], Revision | None]
) -> tuple[Piece, Planned]:
    shop = shop_of(workshop)
    piece = _current(workshop, piece_id, version)
    target = to(piece)
    if target is not None:
        plan_of(piece, shop, present(target.brief))
    with transaction.atomic():
        piece = _current(workshop, piece_id, version)
        target = to(piece)
        if target is not None:
            piece.head = target
            piece.version += 1
        return piece, settle(piece, shop)


def whole_piece(workshop: Workshop, piece_id: int) -> Piece:
    """Return a piece with all that its screen shows, in a handful of queries.

    For reading and for changes of the brief; what changes ticks or try-ons loads them anew.
    Raises Http404, the same for missing and for another's.
    """
    found = (
        rows(Piece, workshop)
        .select_related("wearer", "workshop", "head__burst")
        # Of earlier revisions it is shown only that they are there.
        .defer("head__burst__brief")
        .prefetch_related("ticks", "tryons", "wearer__readings")
        .filter(pk=piece_id)
        .first()
    )
    return found or row(Piece, workshop, piece_id)


def _to_plan(workshop: Workshop, piece_id: int, version: int) -> Piece:
    """Return a piece with what its plan takes, and no more. Raises StaleSave like ``_current``."""
    found = rows(Piece, workshop).select_related("wearer").prefetch_related("ticks")
    piece = found.filter(pk=piece_id).first() or row(Piece, workshop, piece_id)
    if piece.version != version:
        raise StaleSave(whole_piece(workshop, piece_id))
    return piece


def _current(workshop: Workshop, piece_id: int, version: int) -> Piece:
    piece = whole_piece(workshop, piece_id)
    if piece.version != version:
        raise StaleSave(piece)
    return piece


def changed_field(before: Any, after: Any, path: str = "") -> str:
    """Return the dotted path of the one field in which two briefs differ, or '' for several."""
    if isinstance(before, dict) and isinstance(after, dict):
        keys = [k for k in {**before, **after} if before.get(k) != after.get(k)]
        if len(keys) == 1:
            key = keys[0]
            return changed_field(before.get(key), after.get(key), f"{path}.{key}".strip("."))
        return path if not keys else ""
    if isinstance(before, list) and isinstance(after, list) and len(before) == len(after):
        places = [i for i, (b, a) in enumerate(zip(before, after, strict=True)) if b != a]
        if len(places) == 1:
            i = places[0]
            return changed_field(before[i], after[i], f"{path}.{i}")
        return ""
    return path
