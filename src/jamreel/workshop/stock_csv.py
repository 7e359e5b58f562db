"""Stock in and out as CSV: a piece of stock a row, checked as a whole, imported all or not at all.

Columns are documented in docs/format; units stand in the header.
"""

from typing import Any

from django.db import transaction

from jamreel.core.plan import BriefRefused
from jamreel.core.values import Frozen
from jamreel.core.words import say, speaking
from jamreel.workshop.csv_text import RefusedLine, Unreadable, numbered, read_rows, write_rows
from jamreel.workshop.models import Movement, Stock, Workshop
from jamreel.workshop.planning import shop_of
from jamreel.workshop.quotas import room_for
from jamreel.workshop.stock import WIRE_KINDS, amounts, hang_all, on_rack, read_stock

COLUMNS = (
    "kind", "name", "wire", "section", "metal", "temper", "amount [mm or pieces]",
    "tare [g]", "price", "low [mm or pieces]", "size [mm]", "hole [mm]",
)  # fmt: skip
MOST_ROWS = 2000


class StockImport(Frozen):
    """What an import would do, or did; with anything refused, nothing is brought in."""

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
            return _refused(error.line, error.says)
        if not rows or "kind" not in header:
            return _refused(1, say("import_stock.header"))
        if len(rows) > MOST_ROWS:
            says = say("import_stock.too_long", count=len(rows), most=MOST_ROWS)
            return _refused(1, says)
    refused: list[RefusedLine] = []
    found: list[tuple[Stock, float]] = []
    for line, row in numbered(rows):
        try:
            found.append(read_stock(workshop, _typed(row)))
        except BriefRefused as error:
            refused.append(RefusedLine(line=line, says=" ".join(p.says for p in error.problems)))
    if refused or not commit:
        return StockImport(count=len(found), refused=refused, imported=False)
    room_for(workshop, Stock, len(found))
    room_for(workshop, Movement, len(found))
    with transaction.atomic():
        hang_all(found)
    return StockImport(count=len(found), refused=[], imported=True)


def _refused(line: int, says: str) -> StockImport:
    return StockImport(count=0, refused=[RefusedLine(line=line, says=says)], imported=False)


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
