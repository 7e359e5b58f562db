"""A composition drawn: on the Rule, laid out to work on, round a body, hanging down."""

import math
from collections.abc import Iterator, Sequence
from itertools import groupby
from typing import Any, NamedTuple

import numpy as np

from jamreel.core.body.outline import Array, Outline
from jamreel.core.fit.ease import Ease
from jamreel.core.interlace.base import Weaving
from jamreel.core.makeup.compose import Composition, Lying
from jamreel.core.makeup.sequence import CLOSURE, STRING
from jamreel.core.parts.base import Made
from jamreel.core.parts.pictures import hung
from jamreel.core.path.lines import circle, points_of
from jamreel.core.values import (
    Label,
    Placed,
    PlusMinus,
    RuleDrawing,
    Sheet,
    Span,
    SpanRows,
    StationName,
    Stroke,
)
from jamreel.core.words import say
from jamreel.core.workpiece.drawing import across, ring_round, section_sheet
from jamreel.core.workpiece.sequence_ledger import ledger_line

# Round a body, parts shorter than this are drawn as one band with their neighbours [mm].
FINEST_MM = 1.2
# The Rule names parts one by one up to so many.
MOST_NAMED = 6


def tone_of(made: Made) -> str:
    """Return the tone of a part's largest filled shape, '' for wire."""
    return next((s.tone for s in made.strokes if s.tone), "")


def rule_of(
    composition: Composition,
    band: PlusMinus,
    *,
    centre: bool,
    mirrored: bool = False,
    made: int = 1,
    strands: int = 1,
) -> RuleDrawing:
    """Return the Rule of a piece: every part in its place, its thickness and its colour.

    Args:
        composition: the piece laid out.
        band: where its end may rightly lie [mm].
        centre: whether its middle is marked.
        mirrored: whether both halves are alike.
        made: how often the whole is made.
        strands: of the string, side by side.
    """
    fastened, length = composition.fastened, composition.finished
    spans = [_half("closure_left", 0.0, fastened.receiving)]
    for i, run in enumerate(composition.runs):
        for key, at in (("a", run.at), ("b", run.at + run.reach + run.strung)):
            spans.append(
                Span(
                    id=f"string_{i}{key}",
                    label=say("part.string_loop"),
                    from_mm=at,
                    to_mm=at + run.reach,
                    kind="part",
                    ledger=("string_loops",),
                    width_mm=composition.string.d * 1.6,
                )
            )
    spans += [_span_of(i, row) for i, row in enumerate(_in_rows(composition.parts))]
    spans.append(_half("closure_right", length - fastened.holding.length, fastened.holding))
    spans.sort(key=lambda span: (span.from_mm, span.to_mm))
    at_middle = composition.body_at + composition.body / 2
    middle = (at_middle,) if centre else ()
    return RuleDrawing(
        length_mm=length,
        spans=tuple(span for span in spans if span.to_mm > span.from_mm),
        groups=_groups(composition),
        ticks_mm=(
            0.0,
            composition.body_at,
            *middle,
            composition.body_at + composition.body,
            length,
        ),
        band=band,
        width_mm=composition.string.d,
        mirror_mm=at_middle if mirrored else None,
        made=made,
        strands=strands if composition.runs else 1,
        strung_mm=tuple((run.at, run.at + run.length) for run in composition.runs),
    )


def _in_rows(parts: Sequence[Lying]) -> Iterator[list[Lying]]:
    """Yield neighbours that are alike and lie side by side, together."""
    row: list[Lying] = []
    for part in parts:
        if part.length <= 0:
            continue
        last = row[-1] if row else None
        if last is not None and not (
            last.made is part.made
            and last.unit.turned == part.unit.turned
            and abs(last.at + last.length - part.at) < 1e-6
            and abs(last.length - part.length) < 1e-9
        ):
            yield row
            row = []
        row.append(part)
    if row:
        yield row


def _span_of(number: int, row: list[Lying]) -> Span:
    first, last = row[0], row[-1]
    return Span(
        id=f"p{number}",
        label=first.name,
        from_mm=first.at,
        to_mm=last.at + last.length,
        kind="body",
        ledger=(ledger_line(first.unit.top),),
        width_mm=first.made.width,
        tone=tone_of(first.made),
        times=len(row),
        rows=_rows_of(first) if len(row) == 1 else None,
    )


def _rows_of(part: Lying) -> SpanRows | None:
    weaving = part.made.weaving
    if not isinstance(weaving, Weaving):
        return None
    body, rows = weaving.body, weaving.rows
    first = body.size.behind if part.unit.turned else body.size.before
    return SpanRows(from_mm=part.at + first, pitch_mm=body.size.pitch, count=rows)


def _half(key: str, at: float, made: Made) -> Span:
    return Span(
        id=key,
        label=say(f"part.{key}"),
        from_mm=at,
        to_mm=at + made.length,
        kind="part",
        ledger=("closure",),
        width_mm=min(made.width, 8.0) if made.length else 0.0,
        tone=tone_of(made),
    )


def _groups(composition: Composition) -> tuple[Span, ...]:
    """Return the names below the Rule: neighbours of one entry together, few enough to read."""
    fastened, length = composition.fastened, composition.finished
    lying = [p for p in composition.parts if p.length > 0]
    rows: list[Span] = []
    for key, members in groupby(lying, key=lambda p: ledger_line(p.unit.top)):
        found = list(members)
        rows.append(_group(f"g{len(rows)}", found, key))
    if len(rows) > MOST_NAMED:
        rows = [
            Span(
                id="g0",
                label=say("part.all", count=len(lying)),
                from_mm=composition.body_at,
                to_mm=composition.body_at + composition.body,
                kind="body",
                ledger=(),
            )
        ]
    halves = [
        _half("closure_left", 0.0, fastened.receiving),
        _half("closure_right", length - fastened.holding.length, fastened.holding),
    ]
    return tuple(s for s in (halves[0], *rows, halves[1]) if s.to_mm > s.from_mm)


def _group(key: str, found: list[Lying], ledger: str) -> Span:
    names = {p.name for p in found}
    name = found[0].name if len(names) == 1 else say("part.group", count=len(found))
    many = len(names) == 1 and len(found) > 1
    return Span(
        id=key,
        label=say("part.times", name=name, count=len(found)) if many else name,
        from_mm=found[0].at,
        to_mm=found[-1].at + found[-1].length,
        kind="body",
        ledger=(ledger,),
    )


def sequence_sheet(composition: Composition) -> Sheet:
    """Return the piece laid out as it lies on the bench, each kind of part drawn once."""
    shapes: dict[str, tuple[Stroke, ...]] = {}
    placed: list[Placed] = []
    fastened, length = composition.fastened, composition.finished

    def put(name: str, made: Made, at: float, entry: str, **more: Any) -> None:
        shapes.setdefault(name, made.strokes)
        long = round(more.pop("length_mm", made.length), 4)
        place = (round(at, 2), 0.0)
        placed.append(Placed(shape=name, at=place, entry=entry, length_mm=long, **more))

    for run in composition.runs:
        end = composition.string_end
        put(STRING, end, run.at, STRING)
        put(STRING, end, run.at + run.length - end.length, STRING, mirrored=True)
    if fastened.receiving.length:
        put("receiving", fastened.receiving, 0.0, CLOSURE)
    # What hangs is drawn first, what it hangs from over it.
    for part in composition.parts:
        if part.drop:
            unit, at = part.unit, part.at + part.length / 2
            put(unit.key, part.made, at, unit.entry, mirrored=unit.turned, length_mm=part.length)
    for row in _in_rows([part for part in composition.parts if not part.drop]):
        first, unit = row[0], row[0].unit
        again = {"times": len(row), "pitch_mm": round(first.length, 4)} if len(row) > 1 else {}
        put(unit.key, first.made, first.at, unit.entry, mirrored=unit.turned, **again)
    if fastened.holding.length:
        put("holding", fastened.holding, length - fastened.holding.length, CLOSURE)
    return Sheet(
        id="sequence",
        title=say("drawing.sequence"),
        stations=("make_up", "form"),
        shapes=shapes,
        placed=tuple(placed),
    )


def round_body(
    composition: Composition, outline: Outline, ease: Ease, part: str, girth: float
) -> Sheet:
    """Return the section of a body with the piece round it, its closure at the back."""
    gap = max(ease.value_mm, 0.0) / (2 * math.pi)
    # Everything lies on the skin's own parallel; what is thicker reaches further out.
    ring, strokes, low = ring_round(outline, None, gap, 0.0)
    scale = ring.length / max(composition.finished, 1e-9)
    # The body's middle lies in front, opposite the closure.
    start_at = ring.length / 2 - scale * (composition.body_at + composition.body / 2)
    thickest = max((p.made.thickness for p in composition.parts), default=0.0)
    rows = [row for p in composition.parts if not p.drop for row in _seen_from_the_edge(p)]
    fastened, length = composition.fastened, composition.finished
    for half, at in (
        (fastened.receiving, 0.0),
        (fastened.holding, length - fastened.holding.length),
    ):
        rows.append(_Seen(at, at + half.length, half.thickness, half.thickness / 2, closure=True))
    rows = [row for row in rows if row.closure or row.end - row.start >= FINEST_MM]
    # Where a bead has its centre, and a link its line: looked up on the ring all at once.
    runs = [_along(row.start, row.end, bool(row.tone)) for row in rows]
    lifts = np.repeat([row.lift for row in rows], [len(run) for run in runs])
    found = ring.at(start_at + scale * np.concatenate(runs), lifts)
    places = np.split(found, np.cumsum([len(run) for run in runs])[:-1])
    shapes: dict[str, tuple[Stroke, ...]] = {}
    placed: list[Placed] = []
    for i, (row, points) in enumerate(zip(rows, places, strict=True)):
        if row.tone:
            wide = round(min(row.thick, (row.end - row.start) * 1.02) / 2, 2)
            name = f"{row.tone} {wide}"
            if name not in shapes:
                round_one = circle((0.0, 0.0), wide)
                shapes[name] = (Stroke(part="bead", points=round_one, closed=True, tone=row.tone),)
            x, y = (round(float(value), 2) for value in points[0])
            placed.append(Placed(shape=name, at=(x, y)))
        else:
            name = f"closure {i}" if row.closure else f"link {i}"
            strokes.append(
                Stroke(part=name, points=points_of(points), width_mm=max(row.thick, 0.4))
            )
    dims = [across(outline, low + thickest, 0.0, say(f"drawing.{part}_across"))]
    sheet = section_sheet(
        say(f"drawing.on_the_{part}"),
        strokes,
        dims,
        say(f"drawing.{part}", girth=girth),
        ("measure", "fit"),
    )
    return sheet.model_copy(update={"shapes": shapes, "placed": tuple(placed)})


class _Seen(NamedTuple):
    """What is seen on its edge: from, to, how thick, how far its middle lies from the skin [mm],
    its tone where it is a bead, and whether it is the closure's."""

    start: float
    end: float
    thick: float
    lift: float
    tone: str = ""
    closure: bool = False


def _seen_from_the_edge(part: Lying) -> Iterator[_Seen]:
    """Yield what is seen of a part on its edge; a body that bends is a band, with the beads of its
    rows on it."""
    made, end = part.made, part.at + part.length
    weaving, middle = made.weaving, made.thickness / 2
    if weaving is None:
        yield _Seen(part.at, end, made.thickness, middle, tone_of(made))
        return
    beads = weaving.body.wires.beads if isinstance(weaving, Weaving) else ()
    if not any(beads) or not made.lengthwise or not isinstance(weaving, Weaving):
        yield _Seen(part.at, end, made.thickness, middle)
        return
    band = max(one.wire.shape.thickness for one in made.lengthwise)
    yield _Seen(part.at, end, band, middle)
    size = weaving.body.size
    for n in range(weaving.rows):
        at, row = part.at + size.before + n * size.pitch, beads[n % len(beads)]
        if row:
            high = max(one.bead for one in row)
            yield _Seen(at, at + size.pitch, high, middle, row[0].colour)


def _along(start: float, end: float, bead: bool) -> Array:
    """Return the places of a part along the piece that its drawing needs [mm]."""
    if bead:
        return np.array([(start + end) / 2])
    inset = min(0.4, (end - start) / 8)
    return np.linspace(start + inset, end - inset, max(2, math.ceil((end - start) / 4)) + 1)


def hanging_sheet(
    composition: Composition, drop: float, stations: tuple[StationName, ...]
) -> Sheet:
    """Return a piece that hangs straight down, with its length."""
    shapes: dict[str, tuple[Stroke, ...]] = {}
    placed: list[Placed] = []
    widest = 4.0
    for part in composition.parts:
        name = part.unit.key
        if name not in shapes:
            shapes[name] = part.made.strokes if part.drop else hung(part.made.strokes)
        placed.append(Placed(shape=name, at=(0.0, round(-part.at, 2)), entry=part.unit.entry))
        widest = max(widest, part.made.width)
    label = say("drawing.hangs", length=drop)
    return Sheet(
        id="hanging",
        title=say("drawing.hanging"),
        stations=stations,
        shapes=shapes,
        placed=tuple(placed),
        dimensions=(),
        labels=(Label(at=(widest, -drop / 2), text=label, anchor="start"),),
    )
