"""What a sequence comes to, as ledger lines: an entry a line, then the string and the closure."""

from jamreel.core.makeup.compose import Composition, Lying
from jamreel.core.makeup.sequence import CLOSURE, FOCAL, HUNG, RINGS, STRING, Entries
from jamreel.core.words import say
from jamreel.core.workpiece.ledger import Book

_COMPOSE = "makeup.compose.compose"
# Parts that stand in no entry, and the words of their lines.
_ALONE = ((FOCAL, "focal"), (HUNG, "hung"), (RINGS, "rings_back"))
# The lines that are no entry's, by what is drawn.
LINE_OF = {RINGS: "rings_back", STRING: "string_loops", CLOSURE: "closure"}


def ledger_line(top: str) -> str:
    """Return the id of the ledger line that explains a part, by the outermost entry of it."""
    return LINE_OF.get(top, top)


def write_parts(entries: Entries, laid: Composition, book: Book, to: str) -> None:
    """Write a sequence as terms of a total.

    Args:
        entries: as written down.
        laid: the piece laid out.
        book: to write in.
        to: id of the total.
    """
    lying: dict[str, list[Lying]] = {}
    for part in laid.parts:
        lying.setdefault(part.unit.top, []).append(part)
    for entry in entries:
        own = lying.get(entry.id, [])
        if not own:
            continue
        count = len(own)
        label = say("part.group", count=count)
        if entry.part is not None:
            name = entry.part.says
            label = say("part.times", name=name, count=count) if count > 1 else name
        value, each = sum(p.length for p in own), own[0].length
        book.named(
            entry.id, label, value, "entry", _COMPOSE, "geometry", to, count=count, each=each
        )
    for top, key in _ALONE:
        value = sum(p.length for p in lying.get(top, ()))
        if value:
            book.term(key, value, _COMPOSE, "geometry", to)
    loops = sum(2 * run.reach for run in laid.runs)
    if loops:
        rule = "path.loops.wrapped_loop_reach"
        book.term("string_loops", loops, rule, "geometry", to, runs=len(laid.runs))
    halves = laid.fastened
    if halves.length:
        receiving, holding = halves.receiving.length, halves.holding.length
        rule = "closures.base.Fastened"
        book.term(
            "closure", halves.length, rule, "geometry", to, receiving=receiving, holding=holding
        )
