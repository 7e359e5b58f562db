"""Stock in and out as CSV: a piece of stock a row, checked as a whole, imported all or not at all.

Columns are documented in docs/format; units stand in the header.
"""

from dataclasses import dataclass
from typing import Any

from django.db import transaction

from jamreel.core.plan import BriefRefused
from jamreel.core.words import say, speaking
from jamreel.workshop.csv_text import Unreadable, numbered, read_rows, write_rows
from jamreel.workshop.models import Movement, Stock, Workshop
from jamreel.workshop.planning import shop_of
from jamreel.workshop.quotas import room_for
from jamreel.workshop.stock import WIRE_KINDS, amounts, hang_all, on_rack, read_stock

COLUMNS = (
    "kind", "name", "wire", "section", "metal", "temper", "amount [mm or pieces]",
    "tare [g]", "price", "low [mm or pieces]", "size [mm]", "hole [mm]",
)  # fmt: skip
MOST_ROWS = 2000


@dataclass(frozen=True)
class RefusedLine:
    """A line that can't be imported, and why."""

    line: int
    says: str


@dataclass(frozen=True)
class StockImport:
    """What an import would do, or did."""

    count: int
    refused: list[RefusedLine]
    imported: bool


def stock_csv(workshop: Workshop) -> str:
    """Return the rack as CSV."""
    have = amounts(workshop)
    return write_rows(
        COLUMNS,
        (
            [
                stock.kind,
                stock.name,
                "" if stock.wire.get("section") else str(stock.wire.get("size", "")),
                _section(stock.wire.get("section") or {}),
                stock.wire.get("metal", ""),
                stock.wire.get("temper", ""),
                _figure(have.get(stock.pk, 0.0)),
                _figure(stock.tare_g or None),
                _figure(stock.price),
                _figure(stock.low or None),
                _figure(stock.size_mm),
                _figure(stock.hole_mm),
            ]
            for stock in on_rack(workshop)
        ),
    )


def _figure(value: float | None) -> str:
    """Return a figure to a millionth, so that what goes out comes back as it was."""
    return "" if value is None else f"{round(value, 6):.15g}"


def _section(section: dict[str, Any]) -> str:
    """Return a section as ``flat; width=3.5 mm; thickness=1.9 mm``, '' for round wire."""
    shape = str(section.get("shape", ""))
    return "; ".join([shape, *(f"{k}={v}" for k, v in section.items() if k != "shape")])


def _section_typed(text: str) -> dict[str, Any] | None:
    """Return a section as it is typed in a brief, None for round wire."""
    shape, *rest = (part.strip() for part in text.split(";"))
    if not shape or shape == "round":
        return None
    pairs = (part.partition("=") for part in rest if part)
    values: dict[str, Any] = {key.strip(): value.strip() for key, _, value in pairs}
    strands = str(values.get("strands", ""))
    if strands.isascii() and strands.isdecimal() and len(strands) < 4:
        values["strands"] = int(strands)
    return {"shape": shape, **values}


def import_stock(workshop: Workshop, text: str, *, commit: bool) -> StockImport:
    """Return what importing CSV does; nothing is kept without ``commit`` or with a line refused."""
    shop = shop_of(workshop)
    with speaking(shop.language, shop.unit):
        try:
            header, rows = read_rows(text)
        except Unreadable as error:
            return StockImport(0, [RefusedLine(error.line, error.says)], False)
        if not rows or "kind" not in header:
            return StockImport(0, [RefusedLine(1, say("import_stock.header"))], False)
        if len(rows) > MOST_ROWS:
            says = say("import_stock.too_long", count=len(rows), most=MOST_ROWS)
            return StockImport(0, [RefusedLine(1, says)], False)
    refused: list[RefusedLine] = []
    found: list[tuple[Stock, float]] = []
    for line, row in numbered(rows):
        try:
            found.append(read_stock(workshop, _typed(row)))
        except BriefRefused as error:
            refused.append(RefusedLine(line, " ".join(p.says for p in error.problems)))
    if refused or not commit:
        return StockImport(len(found), refused, False)
    room_for(workshop, Stock, len(found))
    room_for(workshop, Movement, len(found))
    with transaction.atomic():
        hang_all(found)
    return StockImport(len(found), [], True)


def _typed(row: dict[str, Any]) -> dict[str, Any]:
    """Return a CSV row as stock is typed. Lengths are millimetres whatever the shop works in."""

    def cell(start: str) -> str:
        found = next((v for k, v in row.items() if k and k.startswith(start)), "") or ""
        return found.strip()

    kind = cell("kind")
    section = _section_typed(cell("section"))
    # Of wire that is not round its section says all; the size then counts for nothing.
    size = cell("wire") or ("1 mm" if section else "")
    wire = {"size": size, "section": section, "metal": cell("metal"), "temper": cell("temper")}

    def length(start: str) -> str:
        value = cell(start)
        return f"{value} mm" if value else ""

    long = kind in WIRE_KINDS
    return {
        "kind": kind,
        "name": cell("name"),
        "wire": {key: value for key, value in wire.items() if value},
        "amount": length("amount") if long else cell("amount"),
        "tare": cell("tare"),
        "price": cell("price"),
        "low": length("low") if long else cell("low"),
        "size": length("size"),
        "hole": length("hole"),
    }
