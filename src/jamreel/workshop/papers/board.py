"""The board of a woven body at 1:1: where its bars or legs lie, where the pegs stand, its rows."""

from collections.abc import Iterator

from jamreel.core.plan import Plan
from jamreel.core.result import WovenBody
from jamreel.core.shop import Shop
from jamreel.core.units import format_length
from jamreel.core.values import Label, Stroke
from jamreel.core.words import say, voice
from jamreel.workshop.papers.bench_strip import Paper
from jamreel.workshop.papers.outline import printed

# A peg is drawn so wide [mm]; what lies beyond its rows is held by pegs so far off.
PEG_MM, BEYOND_MM = 2.0, 6.0
# Rows are ticked no nearer than this [mm].
LEAST_ROW_MM = 1.0
TICK_MM, TENTH_MM = 2.0, 4.0


def board_paper(plan: Plan, name: str, paper: Paper, shop: Shop) -> bytes:
    """Return the board of a piece's first body that has one as PDF at 1:1.

    Args:
        plan: of a piece that has one.
        name: of the piece.
        paper: ``a4`` or ``letter``, laid across.
        shop: gives unit and language.
    """
    body = next(one for one in plan.woven if has_board(one))
    return printed(
        plan,
        tuple(board_strokes(body)),
        say("paper.board"),
        name,
        paper,
        shop,
        labels=tuple(row_labels(body)),
    )


def has_board(body: WovenBody) -> bool:
    """Return whether a body is laid on a board: woven in rows, or marked and bound."""
    return bool(body.wires or body.marks_mm)


def board_strokes(body: WovenBody) -> Iterator[Stroke]:
    """Yield what is drawn of a board: its rows' outline, lines of bars with pegs at their ends, and
    a tick for every row or a line across at every mark. Rows begin at x = 0.

    Args:
        body: of a plan.
    """
    long, half = body.rows * body.pitch_mm, body.width_mm / 2
    yield Stroke(
        part="board", points=((0.0, -half), (long, -half), (long, half), (0.0, half)), closed=True
    )
    ends = (-body.before_mm - BEYOND_MM, long + body.behind_mm + BEYOND_MM)
    for y in body.pegs_mm:
        yield Stroke(part="board", points=((ends[0], y), (ends[1], y)))
        for x in ends:
            yield Stroke(part="board", points=_square(x, y), closed=True)
    for x in body.marks_mm:
        yield Stroke(part="board", points=((x, -half), (x, half + TENTH_MM)))
    for row in rows_ticked(body) if body.wires else ():
        x = row * body.pitch_mm
        tall = TENTH_MM if row % 10 == 0 else TICK_MM
        yield Stroke(part="board", points=((x, half), (x, half + tall)))


def rows_ticked(body: WovenBody) -> range:
    """Return the rows that are ticked: every one, or every fifth or tenth where they are close."""
    each = next(n for n in (1, 5, 10, 50, 100) if n * body.pitch_mm >= LEAST_ROW_MM or n == 100)
    return range(0, body.rows + 1, each)


def row_labels(body: WovenBody) -> Iterator[Label]:
    """Yield the number of every tenth row, above its tick; of marks how far they are from the
    middle."""
    middle = body.rows * body.pitch_mm / 2
    for x in body.marks_mm:
        text = format_length(abs(x - middle), voice()[1], 1)
        yield Label(at=(x, body.width_mm / 2 + TENTH_MM + 1.0), text=text)
    if not body.wires:
        return
    for row in rows_ticked(body):
        if row and row % 10 == 0:
            at = (row * body.pitch_mm, body.width_mm / 2 + TENTH_MM + 1.0)
            yield Label(at=at, text=str(row))


def _square(x: float, y: float) -> tuple[tuple[float, float], ...]:
    r = PEG_MM / 2
    return ((x - r, y - r), (x + r, y - r), (x + r, y + r), (x - r, y + r))
