"""Plans of pieces, worked out once and remembered.

A plan follows from the brief, the shop, what was done, and the code. By these it is remembered, so
that a board of many pieces, or a save that looks again under the lock, plans nothing twice.
"""

import hashlib
import json
from collections import OrderedDict
from collections.abc import Sequence
from dataclasses import dataclass, field
from functools import cache, lru_cache
from pathlib import Path
from threading import Lock
from typing import Any, NoReturn

import jamreel.core
from jamreel.core.draft import unsound
from jamreel.core.errors import Refusal
from jamreel.core.plan import BriefRefused, Plan, in_words, plan_raw, read_shop, refuse_in_words
from jamreel.core.shop import Shop
from jamreel.core.words import Problem
from jamreel.core.workpiece.records import Record, Standing, standing
from jamreel.workshop.models import Piece, Tick, Workshop

# So many plans are remembered; one of 200 parts takes about a megabyte.
MOST_REMEMBERED = 120


@dataclass(frozen=True)
class Planned:
    """A brief worked out as far as it goes: a plan, or the problems that stand in its way; what was
    done, and how that stands to the plan. Of a brief that is not ``sound`` as ``core.draft`` has it
    the problems say why."""

    plan: Plan | None
    problems: tuple[Problem, ...]
    records: tuple[Record, ...] = ()
    standing: Standing = field(default_factory=Standing)
    sound: bool = True


_remembered: OrderedDict[tuple[str, ...], Planned] = OrderedDict()
_lock = Lock()


def work_out(brief: Any, shop: Shop, records: Sequence[Record] = ()) -> Planned:
    """Return the plan of a brief as typed, or its problems; remembered where it was asked before.

    Args:
        brief: as typed.
        shop: the workshop's settings.
        records: what was done to the piece.
    """
    key = _key(brief, shop, [record.model_dump() for record in records])
    return _known(key) or _keep(key, _work_out(brief, shop, tuple(records)))


def shop_of(workshop: Workshop) -> Shop:
    """Return a workshop's settings as the core reads them, with what is known of its hand."""
    kept = (workshop.shop, workshop.hand)
    known = workshop.__dict__.get("_shop_read")
    # A request asks several times; what it was read from is held beside it, and has to be the same.
    if known is None or any(a is not b for a, b in zip(known[0], kept, strict=True)):
        shop = workshop.shop if isinstance(workshop.shop, dict) else {}
        known = (kept, _shop_read(json.dumps({**shop, **workshop.hand})))
        workshop.__dict__["_shop_read"] = known
    found: Shop = known[1]
    return found


# Settings change seldom and are read with every request.
@lru_cache(maxsize=64)
def _shop_read(typed: str) -> Shop:
    """Return settings as typed; those that can't be read any more are as they come."""
    kept = json.loads(typed)
    kept = kept if isinstance(kept, dict) else {}
    for _ in range(len(kept) + 1):
        try:
            return read_shop(kept)
        except BriefRefused as refused:
            wrong = {problem.field.partition(".")[0] for problem in refused.problems}
            kept = {key: value for key, value in kept.items() if key not in wrong}
    return Shop()


def refuse(workshop: Workshop, refusal: Refusal) -> NoReturn:
    """Raise BriefRefused: one thing that can't be used, in the words of the bench."""
    refuse_in_words(refusal, shop_of(workshop))


def plan_of(piece: Piece, shop: Shop) -> Planned:
    """Return a piece's brief worked out with what was done to it.

    Args:
        piece: whose head and ticks count.
        shop: the workshop's settings.
    """
    return work_out_with(brief_for_planning(piece), shop_for(piece, shop), standing_ticks(piece))


def shop_for(piece: Piece, shop: Shop) -> Shop:
    """Return the settings that a piece goes by: once its first wire was cut, what was known of the
    hand then, so that no wire comes out otherwise than the ones before it.

    Args:
        piece: whose plan is wanted.
        shop: the workshop's settings.
    """
    return shop.model_copy(update=_hand_read(json.dumps(piece.hand))) if piece.hand else shop


@lru_cache(maxsize=256)
def _hand_read(kept: str) -> dict[str, Any]:
    found = read_shop(json.loads(kept))
    return {"hand": found.hand, "woven": found.woven}


def hand_kept(shop: Shop) -> dict[str, Any]:
    """Return what is kept of the hand with a piece whose first wire is cut."""
    return shop.model_dump(mode="json", include={"hand", "woven"})


def work_out_with(typed: Any, shop: Shop, ticks: Sequence[Tick]) -> Planned:
    """Return a brief worked out with what was done to its piece.

    Args:
        typed: as the core is to read it.
        shop: the workshop's settings.
        ticks: that stand.
    """
    return work_out(typed, shop, [record_of(tick) for tick in ticks])


def brief_for_planning(piece: Piece, brief: Any = None) -> Any:
    """Return a piece's brief as the core is to read it: a child's piece says so.

    Args:
        piece: gives the wearer, and its head's brief where no other is meant.
        brief: as kept.
    """
    if brief is None:
        brief = piece.head.brief if piece.head else {}
    if not isinstance(brief, dict):
        return brief
    found = {key: value for key, value in brief.items() if key != "tryon"}
    if piece.wearer is not None and piece.wearer.is_child:
        return {**found, "child": True}
    return found


def standing_ticks(piece: Piece) -> list[Tick]:
    """Return a piece's ticks that were not taken back."""
    return [tick for tick in piece.ticks.all() if tick.undone_at is None]


def record_of(tick: Tick) -> Record:
    """Return a tick as the core reads it."""
    what = {k: v for k, v in tick.what.items() if k in Record.model_fields}
    return Record(
        **{**what, "kind": tick.kind, "key": tick.key, "planned": tick.planned}, actual=tick.actual
    )


def _work_out(brief: Any, shop: Shop, records: tuple[Record, ...]) -> Planned:
    faults = unsound(brief, shop)
    if faults:
        return Planned(None, faults, records, sound=False)
    try:
        plan = plan_raw(brief, shop, records)
    except BriefRefused as refused:
        return Planned(None, refused.problems, records)
    return Planned(plan, (), records, in_words(lambda: standing(plan, records), shop))


def _key(*parts: Any) -> tuple[str, ...]:
    """Return what a plan is remembered by: its inputs, each as a short hash, and the code."""
    return (code(), *(_hash(part) for part in parts))


def _hash(part: Any) -> str:
    try:
        text = part.model_dump_json() if isinstance(part, Shop) else json.dumps(part, default=str)
    except RecursionError:
        # Far deeper than any brief that is kept: all such are refused alike.
        text = "nested"
    return hashlib.blake2b(text.encode(errors="replace"), digest_size=16).hexdigest()


# What derives a piece's state from its plan, beside the core.
_DERIVES = ("planning.py", "stations.py", "turns.py")


@cache
def code() -> str:
    """Return a name for the code that plans and states of pieces are worked out by."""
    here = Path(__file__).parent
    return fingerprint(Path(jamreel.core.__file__).parent, [here / name for name in _DERIVES])


def fingerprint(folder: Path, beside: Sequence[Path]) -> str:
    """Return a name for what stands in a folder's files and in some beside it: the same content has
    the same name, whenever and wherever it was written.

    Args:
        folder: with all below it, but what Python keeps there for itself.
        beside: further files.
    """
    kept = [one for one in folder.rglob("*") if one.is_file() and one.parent.name != "__pycache__"]
    found = hashlib.blake2b(jamreel.__version__.encode(), digest_size=12)
    for path in (*sorted(kept), *beside):
        name = path.relative_to(folder) if path in kept else path.name
        content = path.read_bytes()
        found.update(f"\0{name}\0{len(content)}\0".encode())
        found.update(content)
    return found.hexdigest()


def _known(key: tuple[str, ...]) -> Planned | None:
    with _lock:
        found = _remembered.get(key)
        if found is not None:
            _remembered.move_to_end(key)
        return found


def _keep(key: tuple[str, ...], planned: Planned) -> Planned:
    with _lock:
        _remembered[key] = planned
        while len(_remembered) > MOST_REMEMBERED:
            _remembered.popitem(last=False)
    return planned


def forget_plans() -> None:
    """Let go of everything that is remembered."""
    with _lock:
        _remembered.clear()
