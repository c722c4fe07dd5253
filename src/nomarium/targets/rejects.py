"""Rejected rows as a table of their own, to be mended and built again."""

import csv
import io
from collections.abc import Sequence
from pathlib import Path

from nomarium.model.account import RejectedRow
from nomarium.sheets.sheet import cell_text
from nomarium.targets.replacing import replace_file
from nomarium.targets.workbooks import Book, guarded, workbook_bytes

REASON = "Reason for rejection"


def write_rejects(tables: Sequence[Sequence[RejectedRow]], path: Path) -> None:
    """Write each table's rejected rows with its headings and a last column of reasons.

    An .xlsx gets a sheet a table; a .csv gets one table with the headings of all.
    """
    tables = [rows for rows in tables if rows]
    if path.suffix.lower() == ".xlsx":
        _write_workbook(tables, path)
        return
    headings = list(dict.fromkeys(h for rows in tables for h in _named(rows[0])))
    text = io.StringIO()
    writer = csv.writer(text)
    writer.writerow([*headings, REASON])
    for rows in tables:
        for row in rows:
            cells = dict(zip(_named(row), map(cell_text, row.cells), strict=False))
            writer.writerow(
                [*(guarded(cells.get(heading, "")) for heading in headings), guarded(_reason(row))]
            )
    data = text.getvalue().encode("utf-8-sig")  # the mark tells spreadsheet applications that it is UTF-8
    replace_file(path, lambda file: file.write(data))


def _named(row: RejectedRow) -> list[str]:
    """The headings, each different, one for every cell."""
    names: list[str] = []
    for n in range(max(len(row.headings), len(row.cells))):
        name = row.headings[n] if n < len(row.headings) and row.headings[n] else f"Column {n + 1}"
        names.append(name if name not in names else f"{name} {n + 1}")
    return names


def _reason(row: RejectedRow) -> str:
    return " ".join(f"{p.message} {p.remedy}".strip() for p in row.reasons)


def _write_workbook(tables: Sequence[Sequence[RejectedRow]], path: Path) -> None:
    def fill(book: Book) -> None:
        bold = book.add_format({"bold": True})
        for number, rows in enumerate(tables, 1):
            page = book.add_worksheet(f"Rejected {number}" if len(tables) > 1 else "Rejected")
            page.write_row(0, 0, [*_named(rows[0]), REASON], bold)
            for at, row in enumerate(rows, 1):
                texts = [cell_text(cell) for cell in row.cells]
                page.write_row(at, 0, texts)
                page.write_string(at, max(len(row.headings), len(texts)), _reason(row))
            page.autofit()

    data = workbook_bytes("Rejected rows", fill)
    replace_file(path, lambda file: file.write(data))
