"""The making card: a piece on one page, to prop up behind the wire."""

import io
import math

from reportlab.lib.colors import HexColor
from reportlab.lib.pagesizes import A4, LETTER
from reportlab.lib.units import mm
from reportlab.lib.utils import simpleSplit
from reportlab.pdfbase.pdfmetrics import stringWidth
from reportlab.pdfgen.canvas import Canvas

from jamreel.core.plan import Plan
from jamreel.core.result import WovenBody
from jamreel.core.shop import Shop
from jamreel.core.units import format_column, format_length
from jamreel.core.values import Placed, Sheet, Stroke
from jamreel.core.words import say, speaking
from jamreel.workshop.papers.bench_strip import INK, RULE, Paper, fit_name, register_fonts
from jamreel.workshop.papers.curved import drawn_through

EDGE = 14.0
GUTTER = 8.0
SIZES = {"a4": A4, "letter": LETTER}
# Boxes of the row plan: how wide [mm], so many side by side, so many in all.
BOX, BOXES, MOST_BOXES = 9.0, 20, 240
# The same colours as on the screen (frontend/src/styles.css).
TONES = {
    "reed": "#7E9A52", "slate": "#5B7C99", "amber": "#C98A2B", "brick": "#A5503B",
    "plum": "#7C4E75", "chalk": "#E9E6DC", "ink": "#2B3A42", "bought": "#A9B4B0",
}  # fmt: skip


def making_card(plan: Plan, name: str, whom: str, paper: Paper, shop: Shop) -> bytes:
    """Return the making card of a plan as PDF: drawing, parts, cuts, pins, order.

    Args:
        plan: of the piece.
        name: of the piece.
        whom: it is for, or ''.
        paper: ``a4`` or ``letter``, upright.
        shop: gives unit and language.
    """
    register_fonts()
    out = io.BytesIO()
    width, height = (side / mm for side in SIZES[paper])
    canvas = Canvas(out, pagesize=SIZES[paper], pageCompression=1, invariant=1)
    with speaking(shop.language, shop.unit):
        canvas.setTitle(f"{say('paper.making_card')}: {name}")
        card = _Card(canvas, plan, shop, width, height)
        card.draw(name, whom)
        if any(body.wires for body in plan.woven):
            canvas.showPage()
            card.row_plan(name)
    canvas.showPage()
    canvas.save()
    return out.getvalue()


def rows_a_box(rows: int) -> int:
    """Return how many rows a box of the row plan stands for, so that they go on a page."""
    return next(n for n in (1, 5, 10, 50) if rows <= n * MOST_BOXES)


class _Card:
    """Draws one card; y runs down the page from the top."""

    def __init__(self, canvas: Canvas, plan: Plan, shop: Shop, width: float, height: float) -> None:
        self.canvas, self.plan, self.shop = canvas, plan, shop
        self.width, self.height = width, height

    def draw(self, name: str, whom: str) -> None:
        """Draw the whole card."""
        self._head(name, whom)
        self._drawing(37.0, 40.0)
        column = (self.width - 2 * EDGE - GUTTER) / 2
        self._lists(88.0, column)
        self._order(EDGE + column + GUTTER, 88.0, column)

    def text(self, font: str, size: float, x: float, y: float, words: str) -> None:
        """Write words with their baseline at y."""
        self.canvas.setFont(font, size)
        self.canvas.setFillColor(INK)
        self.canvas.drawString(x * mm, (self.height - y) * mm, words)

    def name(self, name: str) -> None:
        """Write what a page is of, on one line however long it is."""
        fitted, size = fit_name(name, self.width - 2 * EDGE, 18)
        self.text("Bold", size, EDGE, 18, fitted)

    def _head(self, name: str, whom: str) -> None:
        plan = self.plan
        self.name(name)
        made = " · ".join(w for w in (plan.says, whom, f"{plan.wire} {plan.metal}") if w)
        self.text("Text", 10, EDGE, 24, made)
        wanted = {plan.answers.make_up, plan.answers.fit, plan.answers.cut}
        rows = [f for f in plan.figures if f.id in wanted][:3]
        told = [f"{f.label} {format_length(f.value_mm, self.shop.unit)}" for f in rows]
        room = (self.width - 2 * EDGE) * mm
        while len(told) > 1 and stringWidth("   ".join(told), "Figures", 12) > room:
            told.pop()
        self.text("Figures", 12, EDGE, 32, "   ".join(told))

    def _drawing(self, top: float, tall: float) -> None:
        sheet = next((s for s in self.plan.drawings.sheets if "make_up" in s.stations), None)
        if sheet is None:
            return
        rows = list(_strokes(sheet))
        xs = [x for s in rows for x, _ in s.points]
        ys = [y for s in rows for _, y in s.points]
        if not xs or max(xs) <= min(xs):
            return
        room = self.width - 2 * EDGE
        scale = min(room / (max(xs) - min(xs)), (tall - 4) / max(max(ys) - min(ys), 1.0), 2.5)
        x0 = EDGE + (room - scale * (max(xs) - min(xs))) / 2 - scale * min(xs)
        y0 = self.height - top - tall / 2 - scale * (max(ys) + min(ys)) / 2
        for stroke in rows:
            self._stroke(stroke, scale, x0, y0)

    def _stroke(self, stroke: Stroke, scale: float, x0: float, y0: float) -> None:
        canvas = self.canvas
        path = drawn_through(canvas, stroke, lambda x, y: (x0 + x * scale, y0 + y * scale))
        # A tone that is no name is the colour of another metal.
        own = stroke.tone if stroke.tone.startswith("#") else self.plan.colour
        tone = TONES.get(stroke.tone, own)
        wire = stroke.width_mm > 0
        canvas.setStrokeColor(HexColor(tone) if wire else INK)
        canvas.setLineWidth(max(stroke.width_mm * scale, 0.12) * mm if wire else 0.4)
        canvas.setFillColor(HexColor(tone))
        filled = stroke.closed and not wire and bool(stroke.tone)
        canvas.drawPath(path, stroke=1, fill=1 if filled else 0)

    def _cuts(self) -> list[tuple[str, str]]:
        cuts = sorted(self.plan.cuts, key=lambda c: -c.length_mm)
        lengths = format_column([cut.length_mm for cut in cuts], self.shop.unit)
        return [
            (f"{cut.quantity} × {length}", f"{cut.label}, {cut.wire} {cut.metal}, {cut.temper}")
            for cut, length in zip(cuts, lengths, strict=True)
        ]

    def _needs(self) -> list[tuple[str, str]]:
        return [(f"{n.quantity} ×", f"{n.label}, {n.size}") for n in self.plan.needs]

    def _pins(self) -> list[tuple[str, str]]:
        bends = [b for b in self.plan.bends if b.pin > 0]
        pins = format_column([b.tool_mm or b.pin for b in bends], self.shop.unit)
        return [(pin, b.label) for pin, b in zip(pins, bends, strict=True)]

    def _tools(self) -> list[tuple[str, str]]:
        """Return what is wanted that no list of pins names: cutters, formers, hammers, a torch."""
        pins = {bend.tool for bend in self.plan.bends if bend.tool_mm is not None}
        rows = [one for one in self.plan.tools if one.says not in pins]
        said = [say("paper.lacks", what=one.says) if one.lacks else one.says for one in rows]
        return [("·", " · ".join(said))] if said else []

    def _mind(self) -> list[tuple[str, str]]:
        """Return the cautions, each with the numbers of the steps at which it stands."""
        numbers = {
            c.id: [str(i) for i, s in enumerate(self.plan.steps, 1) if c.id in s.cautions]
            for c in self.plan.cautions
        }
        return [
            (f"! {', '.join(numbers[c.id][:3])}{' …' * (len(numbers[c.id]) > 3)}", c.says)
            for c in self.plan.cautions
        ]

    def _lists(self, top: float, wide: float) -> None:
        """Write what to cut, take, bend on and mind, closer together where there is much of it."""
        tables = [
            (say("paper.cuts"), self._cuts()),
            (say("paper.parts"), self._needs()),
            (say("paper.tools"), self._tools()),
            (say("paper.pins"), self._pins()),
            (say("paper.mind"), self._mind()),
        ]
        laid = [
            (title, [(figure, self._lines(words, wide - 26, 8.5)) for figure, words in rows])
            for title, rows in tables
            if rows
        ]
        tall = sum(10 + sum(5 + 3.8 * (len(ls) - 1) for _, ls in rows) for _, rows in laid)
        tight = min(1.0, (self.height - EDGE - top) / tall)
        y = top
        for title, rows in laid:
            self._title(title, EDGE, y, wide)
            y += 2 * tight
            for figure, lines in rows:
                y += 5 * tight
                self.text("Figures", 9 * tight, EDGE, y, figure)
                for n, line in enumerate(lines):
                    y += 3.8 * tight if n else 0
                    self.text("Text", 8.5 * tight, EDGE + 26, y, line)
            y += 8 * tight

    def _order(self, x: float, top: float, wide: float) -> None:
        """Write the order of work; where a page can't hold it all, in titles alone."""
        self._title(say("paper.order"), x, top, wide)
        steps = self.plan.steps
        room = self.height - EDGE - top - 2
        lines = [self._lines(one.says, wide - 7, 8) for one in steps]
        if 5.0 * len(steps) + 3.6 * sum(map(len, lines)) > room:
            lines = [[] for _ in steps]
        tight = min(1.0, room / (5.0 * max(len(steps), 1)))
        y = top + 2
        for i, (one, says) in enumerate(zip(steps, lines, strict=True), 1):
            y += 5 * tight
            self.text("Figures", 8.5 * tight, x, y, str(i))
            self.text("Bold", 8.5 * tight, x + 7, y, one.title)
            if one.cautions:
                self.text("Bold", 8.5 * tight, x + 4.6, y, "!")
            for line in says:
                y += 3.6
                self.text("Text", 8, x + 7, y, line)

    def row_plan(self, name: str) -> None:
        """Draw the rows of what is woven on a page of their own: a box for every row, or for
        several where there are very many."""
        self.name(name)
        y = 30.0
        for body in (one for one in self.plan.woven if one.wires):
            tall = self._rows_tall(body)
            if y > 30.0 and y + tall > self.height - EDGE:
                self.canvas.showPage()
                y = 30.0
            self._rows(body, y)
            y += tall

    def _rows_tall(self, body: WovenBody) -> float:
        lines = math.ceil(math.ceil(body.rows / rows_a_box(body.rows)) / BOXES)
        return 16 + 5 * len(body.wires) + (BOX + 4) * lines

    def _rows(self, body: WovenBody, top: float) -> None:
        """Draw the rows of one body."""
        each, y = rows_a_box(body.rows), top
        told = {"what": body.label, "rows": body.rows, "row": body.rows_name}
        self.text("Bold", 11, EDGE, y, say("paper.row_plan", pitch=body.pitch_mm, **told))
        for wire in body.wires:
            y += 5
            takes = sum(wire.takes_mm) / len(wire.takes_mm)
            key = "paper.row_wire" if wire.spare > 1 else "paper.row_sampled"
            words = {"count": wire.count, "label": wire.label, "row": body.row_name}
            self.text("Text", 9, EDGE, y, say(key, takes=takes, times=wire.spare, **words))
        y += 5
        if each == 1:
            self.text("Text", 9, EDGE, y, say("paper.row_boxes", row=body.row_name))
        else:
            said = say("paper.row_boxes_many", each=each, row=body.rows_name)
            self.text("Text", 9, EDGE, y, said)
        begins = {row // each for wire in body.wires for row in wire.starts_after if row}
        for n in range(math.ceil(body.rows / each)):
            x, down = EDGE + BOX * (n % BOXES), y + 3 + (BOX + 4) * (n // BOXES)
            self._box(x, down, begins=n in begins)
            last = min((n + 1) * each, body.rows)
            self.text("Figures", 6.5, x + 1, down + 3, str(last))
            beads = body.beads[n % len(body.beads)]
            if each == 1 and beads and len(body.beads) > 1:
                self.text("Figures", 6.5, x + 1, down + BOX + 2.6, str(beads))

    def _box(self, x: float, y: float, *, begins: bool) -> None:
        canvas, low = self.canvas, self.height - y - BOX
        canvas.setStrokeColor(RULE)
        canvas.setLineWidth(0.6)
        canvas.rect(x * mm, low * mm, BOX * mm, BOX * mm)
        if begins:
            canvas.setStrokeColor(INK)
            canvas.setLineWidth(2.4)
            canvas.line(x * mm, low * mm, x * mm, (low + BOX) * mm)

    def _lines(self, words: str, wide: float, size: float) -> list[str]:
        found: list[str] = simpleSplit(words, "Text", size, wide * mm)
        return found

    def _title(self, title: str, x: float, y: float, wide: float) -> None:
        self.text("Bold", 10.5, x, y, title)
        self.canvas.setStrokeColor(RULE)
        self.canvas.setLineWidth(0.5)
        under = (self.height - y - 1.5) * mm
        self.canvas.line(x * mm, under, (x + wide) * mm, under)


def _strokes(sheet: Sheet) -> list[Stroke]:
    """Return all strokes of a sheet in one frame, what is placed set down where it lies."""
    rows = [one for stroke in sheet.strokes for one in stroke.copies]
    shapes = {
        name: [one for stroke in strokes for one in stroke.copies]
        for name, strokes in sheet.shapes.items()
    }
    for placed in sheet.placed:
        for n in range(placed.times):
            for stroke in shapes.get(placed.shape, ()):
                points = tuple(_at(placed, n, x, y) for x, y in stroke.points)
                rows.append(stroke.model_copy(update={"points": points}))
    return rows


def _at(placed: Placed, n: int, x: float, y: float) -> tuple[float, float]:
    along = placed.at[0] + n * placed.pitch_mm
    return (along + (placed.length_mm - x if placed.mirrored else x), placed.at[1] + y)
