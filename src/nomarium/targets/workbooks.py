"""Rows of texts and numbers as a CSV or workbook."""

import csv
import datetime as dt
import io
from collections.abc import Sequence
from typing import BinaryIO

from nomarium.targets.rejects import guarded


def write_rows(rows: Sequence[Sequence[str | int | float]], kind: str, title: str, target: BinaryIO) -> None:
    """Write rows, headings first, as `csv` or `xlsx`; texts stay texts."""
    if kind == "csv":
        text = io.StringIO()
        writer = csv.writer(text)
        for row in rows:
            writer.writerow([guarded(cell) if isinstance(cell, str) else cell for cell in row])
        target.write(text.getvalue().encode("utf-8-sig"))
        return
    import xlsxwriter

    data = io.BytesIO()
    with xlsxwriter.Workbook(data, {"in_memory": True, "strings_to_urls": False}) as book:
        book.set_properties({"title": title, "created": dt.datetime(2026, 1, 1)})
        bold = book.add_format({"bold": True, "bg_color": "#DCE9EC", "bottom": 1})
        sheet = book.add_worksheet(title)
        sheet.freeze_panes(1, 1)
        for at, row in enumerate(rows):
            for column, cell in enumerate(row):
                if isinstance(cell, str):
                    sheet.write_string(at, column, cell, bold if at == 0 else None)
                else:
                    sheet.write_number(at, column, cell)
        sheet.autofit()
    target.write(data.getvalue())
