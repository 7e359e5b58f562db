"""One change of a piece: read and worked out before anything is locked, then written at once.

Every change counts the piece's ``turn`` up, and is written only while the turn is still the one it
was worked out from: whoever comes second works it out again. So the database is locked for the
writing alone, and no answer is made from what is no longer so.
"""

import json
import random
import time
from collections.abc import Callable
from copy import deepcopy
from dataclasses import dataclass, field
from datetime import timedelta
from functools import partial
from typing import Any

from django.db import transaction
from django.http import Http404
from django.utils import timezone

from jamreel.core.result import Figure
from jamreel.core.shop import Shop
from jamreel.core.words import speaking
from jamreel.core.workpiece.records import Record, done_steps
from jamreel.workshop.models import Piece, Revision, Tick, TryOnRecord, Workshop
from jamreel.workshop.ownership import rows
from jamreel.workshop.planning import (
    Planned,
    brief_for_planning,
    code,
    hand_kept,
    record_of,
    shop_for,
    shop_of,
    work_out_with,
)
from jamreel.workshop.quotas import count_bytes
from jamreel.workshop.stations import Facts, station_states, waits_for

# Keystrokes in one field, each within this of the last, are undone in one step.
BURST = timedelta(seconds=3)
_FIXED = ("id", "workshop_id", "created_at")
# What a change may change of the piece itself.
CHANGES = tuple(
    field.attname for field in Piece._meta.concrete_fields if field.attname not in _FIXED
)
# So often a change is worked out again when others come first, after so long at most [s].
TRIES, WHILE_S = 25, 0.02


class Moved(Exception):
    """The piece was changed while a change of it was worked out."""


class Busy(Exception):
    """Others were always faster; asking again helps."""


class PutAway(Exception):
    """The piece was put away: nothing is recorded on it any more."""


@dataclass
class Turn:
    """A piece as it will be: its head, the ticks that stand, its try-ons, and what is written."""

    piece: Piece
    bench: Shop
    head: Revision
    ticks: list[Tick]
    tryons: list[TryOnRecord]
    writes: list[Callable[[], object]] = field(default_factory=list)
    changed: bool = False
    _known: tuple[object, Planned] | None = field(default=None, init=False, repr=False)

    @classmethod
    def of(cls, workshop: Workshop, piece_id: int) -> "Turn":
        """Return a piece as it is. Raises Http404, and PutAway."""
        piece = whole_piece(workshop, piece_id)
        if piece.put_away_at is not None:
            raise PutAway
        assert piece.head is not None  # set when the piece is started
        standing = [tick for tick in piece.ticks.all() if tick.undone_at is None]
        shop = shop_of(piece.workshop)
        return cls(piece, shop, piece.head, standing, list(piece.tryons.all()))

    @property
    def is_cut(self) -> bool:
        """Whether any wire of it is cut."""
        return any(tick.kind == "cut" for tick in self.ticks)

    @property
    def shop(self) -> Shop:
        """The settings that it goes by: those of the bench, or with the hand of its first cut."""
        return shop_for(self.piece, self.bench) if self.is_cut else self.bench

    @property
    def planned(self) -> Planned:
        """The piece worked out as it will be."""
        brief = brief_for_planning(self.piece, self.head.brief)
        # By what it is worked out from: a tick or a wearer may be changed in its place.
        asked = (deepcopy(brief), self.shop, [record_of(tick) for tick in self.ticks])
        if self._known is None or self._known[0] != asked:
            self._known = (asked, work_out_with(brief, self.shop, self.ticks))
        return self._known[1]

    def then(self, write: Callable[[], object]) -> None:
        """Write something beside the piece, in its turn."""
        self.writes.append(write)
        self.changed = True

    def revise(self, brief: dict[str, Any], changed: str) -> None:
        """Give it another brief; ``changed`` names the one field in which that differs, or ''."""
        before, now = self.head, timezone.now()
        since = now - before.saved_at
        # A clock that was set back has not made a burst of what was typed since.
        goes_on = bool(changed) and before.field == changed and timedelta(0) <= since < BURST
        self.head = Revision(
            workshop=self.piece.workshop,
            piece=self.piece,
            parent=before,
            burst_id=(before.burst_id or before.pk) if goes_on else None,
            brief=brief,
            size=len(json.dumps(brief)),
            field=changed,
            saved_at=now,
        )
        self.piece.version += 1
        self.then(partial(count_bytes, self.piece.workshop, self.head.size))

    def go_to(self, revision: Revision) -> None:
        """Make an earlier or later revision its head."""
        self.head = revision
        self.piece.version += 1
        self.changed = True

    def keep(self, tick: Tick) -> Tick:
        """Keep a tick, new or changed."""
        if tick not in self.ticks:
            self.ticks.append(tick)
        self.then(tick.save)
        return tick

    def take_back(self, tick: Tick) -> None:
        """Take a tick back; its row stays."""
        tick.undone_at = timezone.now()
        self.ticks = [one for one in self.ticks if one is not tick]
        self.then(tick.save)

    def new_tick(self, record: Record, amount: float | None) -> Tick:
        """Return a tick that keeps a record, with what was really cut or taken."""
        return Tick(
            workshop=self.piece.workshop,
            piece=self.piece,
            kind=record.kind,
            key=record.key,
            planned=record.planned,
            actual=amount,
            what=record.model_dump(include={"says", "stock", "figures", "follows"}),
            revision=self.head,
            ticked_at=timezone.now(),
        )

    def write(self, planned: Planned) -> None:
        """Write it all, worked out as it will be. Raises Moved, with nothing written."""
        piece = self.piece
        facts = facts_of(piece, planned, self.tryons)
        state = derived(planned, self.shop, facts, self.tryons)
        with transaction.atomic():
            if self.head.pk is None:
                self.head.save()
                self.head.fresh = True
            now = rows(Piece, piece.workshop).filter(pk=piece.pk, turn=piece.turn)
            piece.turn += 1
            piece.head = self.head
            if not self.is_cut:
                piece.hand = None
            elif piece.hand is None:
                piece.hand = hand_kept(self.bench)
            piece.waits_for, piece.state = state.pop("waits_for"), state
            piece.worked_by = worked_by(piece.workshop)
            # Written only where nobody came between; otherwise nothing of it is.
            if not now.update(**{name: getattr(piece, name) for name in CHANGES}):
                raise Moved
            for write in self.writes:
                write()


def take_turn(
    workshop: Workshop, piece_id: int, change: Callable[[Turn], None]
) -> tuple[Piece, Planned]:
    """Return a piece after a change of it, with its plan.

    Args:
        workshop: whose piece.
        piece_id: the piece.
        change: says on a turn what becomes of the piece; reads and works out, writes nothing.

    Raises:
        Busy: it was changed by others again and again meanwhile.
    """
    for _ in range(TRIES):
        turn = Turn.of(workshop, piece_id)
        change(turn)
        if not turn.changed:
            return turn.piece, turn.planned
        # Worked out here, so that what the lock is taken for is the writing.
        planned = turn.planned
        try:
            turn.write(planned)
        except Moved:
            # Those who come in one another's way do not come back together.
            time.sleep(random.uniform(0, WHILE_S))
            continue
        return turn.piece, planned
    raise Busy


def whole_piece(workshop: Workshop, piece_id: int) -> Piece:
    """Return a piece with all that its screen shows, in a handful of queries.

    Raises Http404, the same for missing and for another's.
    """
    every = (
        rows(Piece, workshop).select_related("head", "wearer").prefetch_related("ticks", "tryons")
    )
    try:
        found = every.get(pk=piece_id)
    except Piece.DoesNotExist:
        raise Http404("no such piece") from None
    found.workshop = workshop
    return found


def worked_by(workshop: Workshop) -> str:
    """Return by which settings and which code a piece's state is worked out now."""
    return f"{workshop.shop_version} {code()}"


def facts_of(piece: Piece, planned: Planned, tryons: list[TryOnRecord]) -> Facts:
    """Return what has happened to a piece so far."""
    last = tryons[-1] if tryons else None
    done = done_steps(planned.plan, planned.records) if planned.plan else frozenset()
    return Facts(
        standing=planned.standing,
        steps=done,
        tried=last is not None,
        put_right=last is not None and not last.done and not last.answer.get("settled", False),
        finished=piece.finished_at is not None,
    )


def derived(
    planned: Planned, shop: Shop, facts: Facts, tryons: list[TryOnRecord]
) -> dict[str, Any]:
    """Return what the bench shows of a piece without planning it: its state, as JSON."""
    with speaking(shop.language, shop.unit):
        states = station_states(planned.plan, planned.problems, facts)
    waits, plan = waits_for(states, facts), planned.plan
    return {
        "waits_for": waits,
        "stations": {key: vars(state) for key, state in states.items()},
        "answer": _answer(planned, waits, tryons),
        "made_of": f"{plan.says} · {plan.wire} {plan.metal}" if plan else "",
        "guessed": plan is not None and any(girth.guessed for girth in plan.girths),
    }


def _answer(planned: Planned, waits: str, tryons: list[TryOnRecord]) -> dict[str, Any] | None:
    """Return the one figure that a piece shows on the bench, by what it waits for."""
    plan = planned.plan
    if plan is None:
        return None
    last = tryons[-1] if tryons else None
    if waits == "put_right" and last is not None and last.answer.get("amount_mm") is not None:
        amount, label = last.answer["amount_mm"], last.answer["amount_label"]
        return Figure(id="to_do", label=label, value_mm=amount).model_dump()
    station = {"try_on": "fit", "put_right": "fit", "done": "cut"}.get(waits, waits)
    wanted = getattr(plan.answers, station)
    figure = next((f for f in plan.figures if f.id == wanted), None)
    return figure.model_dump() if figure else None
