"""The bench strip: every cut of a plan at 1:1, with marks, check bars and joins between tiles."""

import io
import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cache
from pathlib import Path
from typing import Literal

from reportlab.lib.colors import HexColor
from reportlab.lib.pagesizes import A4, LETTER, landscape
from reportlab.lib.units import mm
from reportlab.lib.utils import simpleSplit
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.pdfgen.canvas import Canvas

from jamreel.core.cutting.cuts import Cut
from jamreel.core.errors import Refusal
from jamreel.core.plan import Plan, refuse_in_words
from jamreel.core.shop import Shop
from jamreel.core.units import Unit, format_length
from jamreel.core.words import say, speaking

Paper = Literal["a4", "letter"]
INK, RULE = HexColor("#0F222B"), HexColor("#8A9A94")
# Printers keep about 6 mm of every edge for themselves.
EDGE_MM = 12.0
ROW_MM = 46.0
TOP_MM, FOOT_MM = 34.0, 34.0
# A mark's words are this wide; beyond FLIP_MM along a tile they run to the left of their mark.
LABEL_MM, FLIP_MM = 34.0, 215.0
# Stretches of 27 cm that one file has at most, three a page: some 80 m of wire.
MOST_TILES = 300
TILE_MM: dict[Paper, float] = {"a4": 270.0, "letter": 250.0}
SIZES: dict[Paper, tuple[float, float]] = {"a4": landscape(A4), "letter": landscape(LETTER)}


def paper_of(shop: Shop) -> Paper:
    """Return the paper that a bench prints on where it says nothing else: letter with inches."""
    return "letter" if shop.unit == "in" else "a4"


@dataclass(frozen=True)
class Tile:
    """A stretch of one cut that fits across the page."""

    cut: Cut
    index: int
    of: int
    from_mm: float
    to_mm: float


def tiles(cut: Cut, tile_mm: float) -> list[Tile]:
    """Return the tiles of a cut, end to end from its left end.

    Args:
        cut: the wire.
        tile_mm: longest stretch across the page [mm].
    """
    count = math.ceil(cut.length_mm / tile_mm - 1e-9)
    return [
        Tile(cut, i, count, i * tile_mm, min(cut.length_mm, (i + 1) * tile_mm))
        for i in range(count)
    ]


@cache
def register_fonts() -> None:
    """Make the product's own faces known to the PDF writer."""
    folder = Path(__file__).parent / "fonts"
    for name, file in (
        ("Text", "SchibstedGrotesk-Regular"),
        ("Bold", "SchibstedGrotesk-Bold"),
        ("Figures", "SometypeMono-Medium"),
    ):
        pdfmetrics.registerFont(TTFont(name, folder / f"{file}.ttf"))


def bench_strip(plan: Plan, name: str, paper: Paper, shop: Shop) -> bytes:
    """Return the bench strip of a plan as PDF, in the workshop's unit.

    Args:
        plan: with its cuts and marks.
        name: of the piece.
        paper: ``a4`` or ``letter``, laid across.
        shop: gives unit and language.

    Raises:
        BriefRefused: more than anybody prints.
    """
    under = f"{plan.says} · {plan.wire} {plan.metal}"
    return _strips(
        [(cut, "") for cut in plan.cuts if cut.alike == cut.id], name, under, paper, shop
    )


def strip_of(cuts: Sequence[tuple[str, Cut]], name: str, paper: Paper, shop: Shop) -> bytes:
    """Return the bench strips of cuts of several pieces as one PDF.

    Args:
        cuts: name of the piece, and the cut.
        name: of the whole.
        paper: ``a4`` or ``letter``, laid across.
        shop: gives unit and language.

    Raises:
        BriefRefused: more than anybody prints.
    """
    rows = [(cut, piece) for piece, cut in cuts]
    pieces = ", ".join(dict.fromkeys(piece for piece, _ in cuts))
    return _strips(rows, name, pieces, paper, shop)


def _strips(
    cuts: Sequence[tuple[Cut, str]], name: str, under: str, paper: Paper, shop: Shop
) -> bytes:
    count = sum(math.ceil(cut.length_mm / TILE_MM[paper]) for cut, _ in cuts)
    if count > MOST_TILES:
        refuse_in_words(Refusal("strip_long", got=count, field="cuts", most=MOST_TILES), shop)
    register_fonts()
    out = io.BytesIO()
    width, height = SIZES[paper]
    canvas = Canvas(out, pagesize=(width, height), pageCompression=1, invariant=1)
    canvas.setTitle(f"{say('paper.bench_strip')}: {name}")
    with speaking(shop.language, shop.unit):
        for page in _pages(cuts, TILE_MM[paper], height / mm):
            page_head(canvas, name, under, width / mm, height / mm)
            for row, (tile, colour, piece) in enumerate(page):
                y = height / mm - TOP_MM - row * ROW_MM - 12
                _tile(canvas, tile, y, shop, colour, piece)
            check_bars(canvas)
            canvas.showPage()
    canvas.save()
    return out.getvalue()


def _pages(
    cuts: Sequence[tuple[Cut, str]], tile_mm: float, height_mm: float
) -> Iterator[list[tuple[Tile, str, str]]]:
    rows = int((height_mm - TOP_MM - FOOT_MM) // ROW_MM)
    every = [(tile, cut.colour, piece) for cut, piece in cuts for tile in tiles(cut, tile_mm)]
    for start in range(0, len(every), rows):
        yield every[start : start + rows]


def _text(canvas: Canvas, font: str, size: float, x: float, y: float, text: str) -> None:
    canvas.setFont(font, size)
    canvas.drawString(x * mm, y * mm, text)


def _line(canvas: Canvas, x1: float, y1: float, x2: float, y2: float, width: float = 0.4) -> None:
    canvas.setLineWidth(width)
    canvas.line(x1 * mm, y1 * mm, x2 * mm, y2 * mm)


# A name is set smaller where it is long, and cut where even that is too wide [pt].
NAME_PT, LEAST_PT = 15.0, 8.0


def fit_name(name: str, room: float, most: float = NAME_PT) -> tuple[str, float]:
    """Return a name as it fits on one line, and the size it is set in [pt].

    Args:
        name: of a piece.
        room: width of the line [mm].
        most: largest size [pt].
    """
    wide = pdfmetrics.stringWidth(name, "Bold", most) / mm
    size = max(LEAST_PT, min(most, most * room / wide)) if wide else most
    while name and pdfmetrics.stringWidth(name, "Bold", size) / mm > room:
        name = f"{name[:-2]}…"
    return name, size


def page_head(canvas: Canvas, name: str, under: str, width: float, height: float) -> None:
    """Write what a page is of: the piece, what it is made of, and to print it at full size."""
    canvas.setFillColor(INK)
    canvas.setStrokeColor(INK)
    room = width - 2 * EDGE_MM - canvas.stringWidth(say("paper.full_size"), "Bold", 11) / mm - 6
    fitted, size = fit_name(name, room)
    _text(canvas, "Bold", size, EDGE_MM, height - 17, fitted)
    line = simpleSplit(under, "Text", 9.5, (width - 90) * mm)[:1]
    _text(canvas, "Text", 9.5, EDGE_MM, height - 23, line[0] if line else "")
    canvas.setFont("Bold", 11)
    canvas.drawRightString((width - EDGE_MM) * mm, (height - 17) * mm, say("paper.full_size"))
    canvas.setFont("Text", 9.5)
    canvas.drawRightString((width - EDGE_MM) * mm, (height - 23) * mm, say("paper.check_first"))


def _tile(canvas: Canvas, tile: Tile, y: float, shop: Shop, colour: str, piece: str) -> None:
    cut, left = tile.cut, EDGE_MM
    right = left + tile.to_mm - tile.from_mm
    label = f"{cut.label} · {cut.wire} {cut.metal}, {cut.temper}"
    if cut.quantity > 1:
        label = f"{cut.quantity} × {label}"
    if piece:
        label = f"{piece}: {label}"
    if tile.of > 1:
        label += " · " + say("paper.part", n=tile.index + 1, of=tile.of)
    canvas.setFillColor(INK)
    # Length first: a last tile may be too short for anything at its right end.
    _text(canvas, "Figures", 12, left, y + 12.5, format_length(cut.length_mm, shop.unit))
    _text(canvas, "Text", 8.5, left + 28, y + 13, label)
    canvas.setStrokeColor(HexColor(colour))
    _line(canvas, left, y, right, y, cut.wire_mm * mm)
    _scale(canvas, tile, y, shop.unit)
    _marks(canvas, tile, y, shop)
    _joins(canvas, tile, left, right, y)


# A ruler's smallest part [mm], which parts are drawn tallest and taller, and how many to a label.
RULERS: dict[Unit, tuple[float, int, int]] = {"mm": (1.0, 10, 5), "in": (25.4 / 16, 16, 8)}


def _scale(canvas: Canvas, tile: Tile, y: float, unit: Unit) -> None:
    """Draw a ruler in the maker's unit along a tile."""
    step, tall, middle = RULERS[unit]
    canvas.setStrokeColor(RULE)
    canvas.setFillColor(INK)
    canvas.setFont("Figures", 6)
    first, last = math.ceil(tile.from_mm / step - 1e-6), math.floor(tile.to_mm / step + 1e-6)
    for n in range(first, last + 1):
        x = EDGE_MM + n * step - tile.from_mm
        height = 3.0 if n % tall == 0 else 2.2 if n % middle == 0 else 1.4
        _line(canvas, x, y + 5, x, y + 5 + height, 0.25)
        if n % tall == 0:
            label = str(n if unit == "mm" else n // tall)
            canvas.drawCentredString(x * mm, (y + 8.8) * mm, label)


def _marks(canvas: Canvas, tile: Tile, y: float, shop: Shop) -> None:
    canvas.setStrokeColor(INK)
    ends = [(0.0, say("paper.cut_here")), (tile.cut.length_mm, say("paper.cut_here"))]
    every = sorted([*ends, *((m.at_mm, m.label) for m in tile.cut.marks)])
    here = [(at, label) for at, label in every if tile.from_mm <= at <= tile.to_mm]
    for (at, label), low in zip(here, _rows([at - tile.from_mm for at, _ in here]), strict=True):
        x = EDGE_MM + at - tile.from_mm
        _line(canvas, x, y - 4 - 4.6 * low, x, y + 3.5, 0.5)
        flip = at - tile.from_mm > FLIP_MM
        canvas.setFont("Text", 7)
        # Marks are set off with a rule: fractions, down to the first.
        text = f"{label} {format_length(at, shop.unit, inches='fractions')}"
        draw = canvas.drawRightString if flip else canvas.drawString
        draw((x - 0.8 if flip else x + 0.8) * mm, (y - 6.2 - 4.6 * low) * mm, text)


def _rows(places: list[float]) -> list[int]:
    """Return the line below the wire on which each mark is labelled.

    Close marks go to lines of their own. Their words run to the right, past the next marks, so the
    first of a cluster goes lowest; at the right edge, where words run left, the last does.
    """
    rows = [0] * len(places)
    for i in range(1, len(places)):
        close = places[i] - places[i - 1] < LABEL_MM
        rows[i] = rows[i - 1] + 1 if close else 0
    start = 0
    for i in range(1, len(places) + 1):
        if i == len(places) or rows[i] == 0:
            if places[i - 1] < FLIP_MM:
                rows[start:i] = rows[start:i][::-1]
            start = i
    return rows


def _joins(canvas: Canvas, tile: Tile, left: float, right: float, y: float) -> None:
    canvas.setDash(2, 2)
    for x, joined, index in (
        (left, tile.index > 0, tile.index),
        (right, tile.index < tile.of - 1, tile.index + 1),
    ):
        if joined:
            _line(canvas, x, y - 22, x, y + 4, 0.5)
            canvas.setFont("Bold", 8)
            text = say("paper.join", n=index)
            draw = canvas.drawString if x == left else canvas.drawRightString
            draw((x + 1 if x == left else x - 1) * mm, (y - 25) * mm, text)
    canvas.setDash()


def check_bars(canvas: Canvas) -> None:
    """Draw the two bars by which a print is checked."""
    canvas.setStrokeColor(INK)
    canvas.setFillColor(INK)
    for y, length, label in ((20.0, 100.0, "100 mm"), (11.0, 101.6, "4 in")):
        _line(canvas, EDGE_MM, y, EDGE_MM + length, y, 0.9)
        for x in (EDGE_MM, EDGE_MM + length):
            _line(canvas, x, y - 2, x, y + 2, 0.9)
        _text(canvas, "Figures", 8, EDGE_MM + length + 3, y - 1, label)
