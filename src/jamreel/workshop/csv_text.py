"""CSV in and out: read with every fault in words, written so that no spreadsheet runs a cell."""

import csv
import io
from collections.abc import Iterable, Iterator, Sequence

from jamreel.core.values import Frozen
from jamreel.core.words import say

# What a file may hold; a field longer than this is no cell of ours.
MOST_TEXT, MOST_FIELD = 200_000, 1_000
# A cell that begins with one of these is run, not shown.
_RUNS = "=+-@\t\r\n|%＝＋－＠｜％"


class RefusedLine(Frozen):
    """A line that can't be imported, and why."""

    line: int
    says: str


class Unreadable(ValueError):
    """A file that is no CSV, or has a cell too long; says so in words, with the line."""

    def __init__(self, line: int, says: str) -> None:
        super().__init__(says)
        self.line = line
        self.says = says


def read_rows(text: str) -> tuple[list[str], list[dict[str, str]]]:
    """Return the header of a CSV file and its rows by column, texts stripped.

    Args:
        text: the file; an empty line is no row, a cell that is missing is empty.

    Raises:
        Unreadable: naming the line.

    Source: RFC 4180; published.
    """
    # Line ends of every system, and one that is left alone in an old file, are line ends.
    lines = io.StringIO(text.lstrip("\ufeff").replace("\r\n", "\n").replace("\r", "\n"))
    reader = csv.reader(lines, strict=True)
    header: list[str] = []
    found = []
    try:
        for cells in reader:
            if any(len(cell) > MOST_FIELD for cell in cells):
                raise Unreadable(reader.line_num, say("import.field_long", most=MOST_FIELD))
            if not header:
                header = [cell.strip() for cell in cells]
            elif any(cell.strip() for cell in cells):
                row = dict.fromkeys(header, "")
                row.update(
                    zip(header, (armless(cell.strip()).strip() for cell in cells), strict=False)
                )
                found.append(row)
    except csv.Error as error:
        raise Unreadable(reader.line_num, say("import.no_csv", why=str(error))) from None
    return header, found


def write_rows(header: Sequence[str], rows: Iterable[Sequence[object]]) -> str:
    """Return a CSV file. Text that a spreadsheet would run has an apostrophe before it.

    Args:
        header: names of the columns.
        rows: figures as numbers, everything else as text.

    Source: RFC 4180; published. The apostrophe is common practice.
    """
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(header)
    writer.writerows([_cell(one) for one in row] for row in rows)
    return out.getvalue()


def _cell(value: object) -> object:
    return harmless(value) if isinstance(value, str) else "" if value is None else value


def harmless(text: str) -> str:
    """Return text that no spreadsheet takes for a formula.

    Example:
        >>> harmless("=1+1"), harmless("Reed")
        ("'=1+1", 'Reed')
    """
    return f"'{text}" if _is_run(text) else text


def armless(text: str) -> str:
    """Return text as it was before it was made harmless."""
    return text[1:] if text.startswith("'") and _is_run(text[1:]) else text


def _is_run(text: str) -> bool:
    # White space before it does not stop a spreadsheet.
    return text.lstrip(" \u00a0")[:1] in tuple(_RUNS)


def numbered(rows: Iterable[dict[str, str]]) -> Iterator[tuple[int, dict[str, str]]]:
    """Yield rows with the lines that they stand on, the header being the first."""
    return enumerate(rows, 2)
