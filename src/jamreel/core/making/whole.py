"""Walks through all steps of a plan, whatever it is made of, and names the first law they break.

What hangs in what is the other walker's (``making.walk``); here it is what holds for the piece as a
whole: cutting, marks, heat, force, finish, the try-on, ends and rounds.
"""

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field

from jamreel.core.bench.steps import Step
from jamreel.core.making.walk import Broken

USED, MARKS, HEAT, FORCE, FINISH = 5, 6, 7, 8, 9
TRIAL, CAPS, HOOKS, ENDS, ROUNDS = 10, 11, 12, 13, 15
# Stuffs that a flame beside them spoils, and those that a blow breaks; common practice.
BURNT = frozenset({"pearl", "stone", "glass", "wood"})
BROKEN = frozenset({"pearl", "stone", "glass"})
CLOSURE = "closure"


@dataclass
class _Piece:
    """What was done to a piece so far: to the whole, and by the entry that it was done for."""

    stuffs: frozenset[str]
    uncut: bool
    tries: bool
    marked: set[str] = field(default_factory=set)
    trimmed: set[str] = field(default_factory=set)
    holding: set[str] = field(default_factory=set)
    worked: set[str] = field(default_factory=set)
    rounds: set[str] = field(default_factory=set)
    round: str = ""
    capped: bool = False
    beaded: bool = False
    glued: bool = False
    tried: bool = False
    ended: bool = False


def walk_plan(
    steps: Sequence[Step], cut: Mapping[str, str], *, tried: bool, stuffs: frozenset[str]
) -> Broken | None:
    """Return the first law that the steps of a plan break, None where they break none.

    Args:
        steps: of the plan, in their order.
        cut: what wire is cut for, and what that wire is called.
        tried: whether it has a size that is tried before it is settled.
        stuffs: what its beads are made of.

    Source: the laws of the order of hands.
    """
    piece = _Piece(stuffs, uncut=bool(cut), tries=tried)
    for one in steps:
        entries = tuple(_entries(one))
        for law in _LAWS:
            number = law(piece, one, entries)
            if number:
                return Broken(number, one.id, one.title)
        _done(piece, one, entries)
    if steps and not piece.ended:
        return Broken(ENDS, "", "")
    unused = next((name for entry, name in cut.items() if entry not in piece.worked), None)
    return Broken(USED, "", unused) if unused is not None else None


def _entries(one: Step) -> Iterator[str]:
    """Yield the entries that a step is for, '' for the piece as a whole."""
    for key in one.stands_for:
        yield key.rpartition("/")[0].partition("/")[0]


def _done(piece: _Piece, one: Step, entries: Sequence[str]) -> None:
    """Keep what a step has done."""
    does = one.does
    # Cutting alone uses nothing.
    piece.worked.update((*entries, one.thing) if one.station == "form" else ())
    piece.uncut = piece.uncut and "cut" not in one.asks
    piece.beaded = piece.beaded or "beads" in does
    piece.glued = piece.glued or "glue" in one.cautions
    piece.tried = piece.tried or "tries" in does
    piece.capped = piece.capped or "finishes" in does
    piece.ended = "ends" in does
    if "marks" in does:
        piece.marked.update(entries)
    if "trims" in does:
        piece.trimmed.update(entries)
    if one.takes_in:
        piece.holding.add(one.thing)
    if one.round != piece.round:
        piece.rounds.add(piece.round)
        piece.round = one.round


def _uses_what_is_cut(piece: _Piece, one: Step, entries: Sequence[str]) -> int:
    # What is bought is counted off, or laid out, while the wire is on the reel still.
    bent = bool(one.bends) or one.works in ("malleted", "hammered")
    return USED if piece.uncut and bent else 0


def _marks_what_stays(piece: _Piece, one: Step, entries: Sequence[str]) -> int:
    longer = "lengthens" in one.does
    return MARKS if longer and piece.marked & {*entries, ""} else 0


def _heats_nothing_spoilt(piece: _Piece, one: Step, entries: Sequence[str]) -> int:
    beads = piece.beaded and "" in entries and bool(piece.stuffs & BURNT)
    hot = "torch" in one.cautions
    return HEAT if hot and (piece.glued or beads) else 0


def _hits_nothing_brittle(piece: _Piece, one: Step, entries: Sequence[str]) -> int:
    hits = one.works in ("malleted", "hammered")
    beads = piece.beaded and "" in entries and bool(piece.stuffs & BROKEN)
    return FORCE if hits and (beads or piece.glued) else 0


def _finishes_nothing_spoilt(piece: _Piece, one: Step, entries: Sequence[str]) -> int:
    spoilt = set(one.spoils)
    glue = piece.glued and bool(spoilt)
    beads = piece.beaded and bool(spoilt & piece.stuffs)
    return FINISH if glue or beads else 0


def _tries_before_it_settles(piece: _Piece, one: Step, entries: Sequence[str]) -> int:
    return TRIAL if "settles" in one.does and piece.tries and not piece.tried else 0


def _makes_caps_first(piece: _Piece, one: Step, entries: Sequence[str]) -> int:
    return CAPS if "caps" in one.does and piece.capped else 0


def _hammers_hooks_first(piece: _Piece, one: Step, entries: Sequence[str]) -> int:
    hook = CLOSURE in entries and one.thing in piece.holding
    return HOOKS if hook and one.works == "hammered" else 0


def _trims_last(piece: _Piece, one: Step, entries: Sequence[str]) -> int:
    # A tail is the handle that its wraps are wound by.
    wound = "wraps" in one.shapes and bool(piece.trimmed & (set(entries) - {""}))
    after = piece.ended and bool(one.bends)
    return ENDS if wound or after else 0


def _keeps_rounds_whole(piece: _Piece, one: Step, entries: Sequence[str]) -> int:
    again = one.round and one.round != piece.round and one.round in piece.rounds
    return ROUNDS if again else 0


_Law = Callable[[_Piece, Step, Sequence[str]], int]
_LAWS: tuple[_Law, ...] = (
    _uses_what_is_cut,
    _marks_what_stays,
    _heats_nothing_spoilt,
    _hits_nothing_brittle,
    _finishes_nothing_spoilt,
    _tries_before_it_settles,
    _makes_caps_first,
    _hammers_hooks_first,
    _trims_last,
    _keeps_rounds_whole,
)
