"""Pieces: starting, saving, walking back and forth through revisions.

A brief is kept as it was typed, whether or not it gives a plan; each save is a new revision. The
piece's ``version`` moves with every change, and a save from an older version is refused.
"""

import json
import time
from collections.abc import Callable
from datetime import date
from typing import Any

from django.db import transaction
from django.utils import timezone
from pydantic import ValidationError

from jamreel.core.draft import MOST_CHARS, mended
from jamreel.core.families import registered
from jamreel.core.plan import BriefRefused, Plan, read_brief
from jamreel.core.shop import Shop
from jamreel.core.spelled_out import spelled_out, with_names
from jamreel.workshop.models import Piece, Revision, Wearer, Workshop
from jamreel.workshop.ownership import row, rows
from jamreel.workshop.planning import (
    Planned,
    brief_for_planning,
    plan_of,
    shop_for,
    shop_of,
    standing_ticks,
    work_out,
    work_out_with,
)
from jamreel.workshop.quotas import count_bytes, room_for, room_for_bytes, room_for_revision
from jamreel.workshop.thinning import EVERY, thin
from jamreel.workshop.turns import Turn, derived, facts_of, take_turn, whole_piece, worked_by

# What the bench may take to work out pieces that its settings have changed for [s].
REFRESH_S = 0.2


class StaleSave(Exception):
    """A save made from an older version; carries the piece as it stands now."""

    def __init__(self, piece: Piece) -> None:
        super().__init__(f"piece {piece.pk} has moved on to version {piece.version}")
        self.piece = piece


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


def to_keep(brief: dict[str, Any], shop: Shop) -> dict[str, Any]:
    """Return a brief as it is kept: each of its entries with a name, and as soon as it can be read
    every choice spelled out, so that a default that changes later moves nothing.

    What was noted at a try-on is no part of a piece: it is on record, or still being typed.
    """
    found = {key: value for key, value in brief.items() if key != "tryon"}
    piece = found.get("piece")
    if isinstance(piece, dict):
        found["piece"] = with_names(piece)
    try:
        whole = spelled_out(found, read_brief(found, shop))
    except (BriefRefused, RecursionError):
        return found
    # One that just fits may not fit with all that it leaves open.
    return whole if len(json.dumps(whole, ensure_ascii=False)) <= MOST_CHARS else found


# So many changes back a plan is looked for where what is typed gives none, and so many runs of
# typing beyond these.
MOST_BACK, RUNS_BACK = 4, 4


def plan_before(piece: Piece, planned: Planned, shop: Shop) -> Plan | None:
    """Return the last plan that a piece had, where what is typed now gives none.

    Args:
        piece: whose changes are walked back, one by one, then a run of typing at once.
        planned: the piece as it stands.
        shop: the workshop's settings.
    """
    revision = piece.head
    if revision is None:
        return None
    for n in range(0 if planned.plan else MOST_BACK + RUNS_BACK):
        revision = ((revision.burst if n >= MOST_BACK else None) or revision).parent
        if revision is None:
            return None
        brief = brief_for_planning(piece, revision.brief)
        found = work_out_with(brief, shop_for(piece, shop), standing_ticks(piece)).plan
        if found is not None:
            return found
    return None


def shown(piece: Piece, planned: Planned) -> dict[str, Any]:
    """Return the brief of a piece as a screen can work with it: without what can't be read."""
    brief = piece.head.brief if piece.head else {}
    brief = brief if planned.sound else mended(brief)
    return {"piece": {}, "wire": {}, **brief}


def start_piece(
    workshop: Workshop,
    name: str,
    brief: dict[str, Any],
    wearer: Wearer | None = None,
    due: date | None = None,
) -> Piece:
    """Return a new piece with its first revision, which says how its bare numbers are meant.

    Raises:
        BriefRefused: a brief that can't be kept (see ``core.draft``), or no room for one more.
    """
    shop = shop_of(workshop)
    brief = to_keep({"unit": shop.unit, "gauge_system": shop.gauge_system, **brief}, shop)
    piece = Piece(workshop=workshop, name=name, wearer=wearer, due=due)
    planned = work_out(brief_for_planning(piece, brief), shop)
    _sound(planned)
    room_for(workshop, Piece)
    room_for_bytes(workshop, len(json.dumps(brief)))
    state = derived(planned, shop, facts_of(piece, planned, []), [])
    piece.waits_for, piece.state = state.pop("waits_for"), state
    piece.worked_by = worked_by(workshop)
    with transaction.atomic():
        piece.save()
        size = len(json.dumps(brief))
        piece.head = Revision.objects.create(
            workshop=workshop, piece=piece, brief=brief, size=size, saved_at=timezone.now()
        )
        count_bytes(workshop, size)
        piece.save(update_fields=["head"])
    return piece


def _sound(planned: Planned) -> None:
    if not planned.sound:
        raise BriefRefused(planned.problems)


def save_brief(
    workshop: Workshop, piece_id: int, version: int, brief: dict[str, Any]
) -> tuple[Piece, Planned]:
    """Save a brief as a new revision, with every choice spelled out.

    Raises:
        StaleSave: ``version`` is not the piece's version.
        BriefRefused: a brief that can't be kept (see ``core.draft``).
    """
    brief = to_keep(brief, shop_of(workshop))

    def change(turn: Turn) -> None:
        _current(turn, version)
        before = turn.head.brief
        if brief == before:
            return
        room_for_revision(turn.piece)
        room_for_bytes(workshop, len(json.dumps(brief)))
        turn.revise(brief, changed_field(before, brief))
        _sound(turn.planned)

    piece, planned = take_turn(workshop, piece_id, change)
    if piece.version % EVERY == 0:
        thin(piece)
    return piece, planned


def _current(turn: Turn, version: int) -> None:
    if turn.piece.version != version:
        raise StaleSave(turn.piece)


def undo(workshop: Workshop, piece_id: int, version: int) -> tuple[Piece, Planned]:
    """Step back past the last change; a burst of typing goes at once."""
    return _move(workshop, piece_id, version, undo_target)


def redo(workshop: Workshop, piece_id: int, version: int) -> tuple[Piece, Planned]:
    """Step forward to what was last undone."""
    return _move(workshop, piece_id, version, redo_target)


def _head(piece: Piece) -> Revision:
    assert piece.head is not None  # set when the piece is started
    return piece.head


def undo_target(piece: Piece) -> Revision | None:
    """Return the revision that undo goes to, or None at the first."""
    head = _head(piece)
    return (head.burst or head).parent


def can_move(piece: Piece) -> tuple[bool, bool]:
    """Return whether there is anything to undo, and to redo, without loading it."""
    head = _head(piece)
    # Before a burst there is always what it began from.
    return bool(head.burst_id or head.parent_id), not head.fresh and head.next.exists()


def redo_target(piece: Piece) -> Revision | None:
    """Return the revision that redo goes to, or None: the newest next one, its burst's end."""
    following = _head(piece).next.order_by("-pk").first()
    if following is None:
        return None
    return rows(Revision, piece.workshop).filter(burst=following).last() or following


def _move(
    workshop: Workshop, piece_id: int, version: int, to: Callable[[Piece], Revision | None]
) -> tuple[Piece, Planned]:
    def change(turn: Turn) -> None:
        _current(turn, version)
        target = to(turn.piece)
        if target is not None:
            turn.go_to(target)

    return take_turn(workshop, piece_id, change)


def change_card(
    workshop: Workshop, piece_id: int, name: str, wearer_id: int | None, due: date | None
) -> tuple[Piece, Planned]:
    """Change a piece's name, wearer or date. Raises Http404 for a wearer who is not there."""
    wearer = row(Wearer, workshop, wearer_id) if wearer_id else None

    def change(turn: Turn) -> None:
        turn.piece.name, turn.piece.due, turn.piece.wearer = name, due, wearer
        turn.changed = True

    return take_turn(workshop, piece_id, change)


def refresh(workshop: Workshop, seconds: float = REFRESH_S) -> int:
    """Work out anew pieces that were last worked out by other settings or other code.

    Args:
        workshop: whose pieces.
        seconds: to spend; at least one piece is worked out.

    Returns:
        How many still wait; asking again goes on.
    """
    now, started = worked_by(workshop), time.monotonic()
    on_bench = rows(Piece, workshop).filter(put_away_at__isnull=True, finished_at__isnull=True)
    waiting = list(on_bench.exclude(worked_by=now).order_by("due", "pk").values_list("pk"))
    for done, (pk,) in enumerate(waiting):
        if done and time.monotonic() - started > seconds:
            return len(waiting) - done
        bring_up_to_date(whole_piece(workshop, pk))
    return 0


def bring_up_to_date(piece: Piece) -> Planned:
    """Return a piece's plan; where the settings or the code have changed, its state is kept anew.

    A change of the piece that comes between has the last word.
    """
    shop = shop_of(piece.workshop)
    planned, now = plan_of(piece, shop), worked_by(piece.workshop)
    if piece.worked_by != now and piece.finished_at is None:
        tryons = list(piece.tryons.all())
        state = derived(planned, shop, facts_of(piece, planned, tryons), tryons)
        piece.waits_for, piece.state, piece.worked_by = state.pop("waits_for"), state, now
        rows(Piece, piece.workshop).filter(pk=piece.pk, turn=piece.turn).update(
            waits_for=piece.waits_for, state=state, worked_by=now
        )
    return planned


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
