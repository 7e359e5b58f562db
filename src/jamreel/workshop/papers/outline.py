"""The outline: a piece's wire as it is to lie, at 1:1, to bend on by hand, over as many pages as it
takes; and the oval former to cut, with the wire as it is bent round it."""

import io
import math
from dataclasses import dataclass

from reportlab.lib.colors import HexColor
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas

from jamreel.core.forming.oval import OvalFormer
from jamreel.core.plan import Plan
from jamreel.core.shop import Shop
from jamreel.core.values import Label, Stroke
from jamreel.core.words import say, speaking
from jamreel.workshop.papers.bench_strip import (
    EDGE_MM,
    FOOT_MM,
    INK,
    SIZES,
    TILE_MM,
    TOP_MM,
    Paper,
    check_bars,
    page_head,
    register_fonts,
)
from jamreel.workshop.papers.curved import drawn_through

WIRE = HexColor("#C9D3CE")


@dataclass(frozen=True)
class Page:
    """A part of the drawing that fits on one page: its lower left corner [mm], and its place among
    the others, from above and from the left."""

    left: float
    low: float
    row: int
    column: int


def outline_strokes(plan: Plan) -> tuple[Stroke, ...]:
    """Return the wire of a piece as it lies on the body, () where a plan draws none.

    Args:
        plan: with the section of the body.
    """
    section = next((one for one in plan.drawings.sheets if one.id == "section"), None)
    shaped = any(step.id == "shape" for step in plan.steps)
    if section is None or not shaped:
        return ()
    return tuple(stroke for stroke in section.strokes if stroke.width_mm > 0)


def pages(strokes: tuple[Stroke, ...], wide: float, high: float) -> list[Page]:
    """Return the pages that a drawing takes, row by row.

    Args:
        strokes: one at least.
        wide: room on a page [mm].
        high: [mm].
    """
    half = max(stroke.width_mm for stroke in strokes) / 2
    xs = [x for stroke in strokes for x, _ in stroke.points]
    ys = [y for stroke in strokes for _, y in stroke.points]
    left, right, low, top = min(xs) - half, max(xs) + half, min(ys) - half, max(ys) + half
    columns, rows = math.ceil((right - left) / wide), math.ceil((top - low) / high)
    # What fits on one page stands in its middle.
    x0 = (left + right - columns * wide) / 2
    y0 = (low + top - rows * high) / 2
    return [
        Page(x0 + c * wide, y0 + (rows - 1 - r) * high, r, c)
        for r in range(rows)
        for c in range(columns)
    ]


def former_strokes(oval: OvalFormer) -> tuple[Stroke, ...]:
    """Return what is drawn of an oval former: the edge to cut along, and the wire on it."""
    return (
        Stroke(part="bent", points=oval.bent, width_mm=oval.wire_mm),
        Stroke(part="former", points=oval.block, closed=True),
    )


def former_paper(plan: Plan, name: str, paper: Paper, shop: Shop) -> bytes:
    """Return the oval former of a piece as PDF at 1:1.

    Args:
        plan: of a piece that has one.
        name: of the piece.
        paper: ``a4`` or ``letter``, laid across.
        shop: gives unit and language.
    """
    assert plan.oval is not None  # by whoever asks
    return printed(plan, former_strokes(plan.oval), say("paper.former"), name, paper, shop)


def outline(plan: Plan, name: str, paper: Paper, shop: Shop) -> bytes:
    """Return the outline of a piece as PDF at 1:1.

    Args:
        plan: of a piece that is shaped, see ``outline_strokes``.
        name: of the piece.
        paper: ``a4`` or ``letter``, laid across.
        shop: gives unit and language.
    """
    return printed(plan, outline_strokes(plan), say("paper.outline"), name, paper, shop)


def printed(
    plan: Plan,
    strokes: tuple[Stroke, ...],
    title: str,
    name: str,
    paper: Paper,
    shop: Shop,
    *,
    labels: tuple[Label, ...] = (),
) -> bytes:
    """Return a drawing as PDF at 1:1, over as many pages as it takes.

    Args:
        plan: gives what stands under the piece's name.
        strokes: one at least [mm].
        title: of the paper.
        name: of the piece.
        paper: ``a4`` or ``letter``, laid across.
        shop: gives unit and language.
        labels: numbers beside what is drawn.
    """
    register_fonts()
    out = io.BytesIO()
    width, height = SIZES[paper]
    canvas = Canvas(out, pagesize=(width, height), pageCompression=1, invariant=1)
    canvas.setTitle(f"{title}: {name}")
    wide, high = TILE_MM[paper], height / mm - TOP_MM - FOOT_MM
    under = f"{title} · {plan.says} · {plan.wire} {plan.metal}"
    with speaking(shop.language, shop.unit):
        for page in pages(strokes, wide, high):
            page_head(canvas, name, under, width / mm, height / mm)
            _drawn(canvas, strokes, page, wide, high)
            _labelled(canvas, labels, page)
            check_bars(canvas)
            canvas.showPage()
    canvas.save()
    return out.getvalue()


def _drawn(
    canvas: Canvas, strokes: tuple[Stroke, ...], page: Page, wide: float, high: float
) -> None:
    """Draw the wire as thick as it is, its middle as a line, cut off at the page's frame."""
    canvas.saveState()
    frame = canvas.beginPath()
    frame.rect(EDGE_MM * mm, FOOT_MM * mm, wide * mm, high * mm)
    canvas.clipPath(frame, stroke=0)
    canvas.setLineJoin(1)
    canvas.setLineCap(1)
    for colour, thick in ((WIRE, None), (INK, 0.2)):
        canvas.setStrokeColor(colour)
        for stroke in strokes:
            if thick is None and not stroke.width_mm:
                # An edge to cut along has no thickness of its own.
                continue
            canvas.setLineWidth((thick or stroke.width_mm) * mm)
            canvas.drawPath(_path(canvas, stroke, page), stroke=1, fill=0)
    canvas.restoreState()
    canvas.setFillColor(INK)
    canvas.setFont("Text", 8)
    label = say("paper.tile", row=page.row + 1, column=page.column + 1)
    canvas.drawRightString((EDGE_MM + wide) * mm, (FOOT_MM - 5) * mm, label)


def _labelled(canvas: Canvas, labels: tuple[Label, ...], page: Page) -> None:
    canvas.setFont("Figures", 7)
    for label in labels:
        x, y = EDGE_MM + label.at[0] - page.left, FOOT_MM + label.at[1] - page.low
        canvas.drawCentredString(x * mm, y * mm, label.text)


def _path(canvas: Canvas, stroke: Stroke, page: Page) -> object:
    return drawn_through(
        canvas, stroke, lambda x, y: (EDGE_MM + x - page.left, FOOT_MM + y - page.low)
    )
