"""Workbooks: the one place that knows how ours look, so that the same contents are the same bytes."""

import csv
import datetime as dt
import io
from collections.abc import Callable, Sequence
from typing import Any, BinaryIO, Literal, TypeAlias

from nomarium.model.cell import FAULT_TEXTS

Book: TypeAlias = Any
"""A workbook of XlsxWriter, which has no types of its own."""
Page: TypeAlias = Any
"""One of its worksheets."""
Format: TypeAlias = Any
Form = Literal["date", "time", ""]
"""What a cell of a starter file holds; nothing: a text."""
_CREATED = dt.datetime(2026, 1, 1)
_TEXTS_STAY = {"strings_to_urls": False, "strings_to_formulas": False, "strings_to_numbers": False}


def write_workbook(target: BinaryIO, title: str, fill: Callable[[Book], None], is_long: bool = False) -> None:
    """Write a workbook; texts stay texts, nothing in them becomes a formula, a number or a link. `is_long`: its rows are
    written in their order and not held."""
    import xlsxwriter

    # a long one goes to the disk row by row; a file in memory leaves nothing behind when it is interrupted
    options = {**_TEXTS_STAY, "constant_memory" if is_long else "in_memory": True}
    with xlsxwriter.Workbook(target, options) as book:
        book.set_properties({"title": title, "created": _CREATED})
        fill(book)


def workbook_bytes(title: str, fill: Callable[[Book], None]) -> bytes:
    """The same in memory."""
    data = io.BytesIO()
    write_workbook(data, title, fill)
    return data.getvalue()


def head_format(book: Book) -> Format:
    """How headings look."""
    return book.add_format({"bold": True, "bg_color": "#DCE9EC", "bottom": 1})


def write_form(page: Page, row: int, column: int, text: str, form: Form, look: Format) -> None:
    """Write a text as the date (ISO) or the time (H:MM) that it is; nothing for a blank one."""
    if not text:
        return
    if form == "date":
        page.write_datetime(row, column, dt.datetime.fromisoformat(text), look)
    elif form == "time":
        page.write_datetime(row, column, dt.datetime.strptime(f"1899-12-31 {text}", "%Y-%m-%d %H:%M"), look)
    else:
        page.write_string(row, column, text, look)


def guarded(text: str) -> str:
    """A text that no spreadsheet application takes for a formula or an error; reading it back drops the apostrophe.

    >>> guarded("=1+1"), guarded("Slip 1")
    ("'=1+1", 'Slip 1')
    """
    return f"'{text}" if text[:1] in ("=", "+", "-", "@", "\t", "\r") or is_fault(text) else text


def is_fault(text: str) -> bool:
    """Whether a text would be read as a spreadsheet's error value."""
    return text[:1] in ("#", "e", "E") and text.casefold() in FAULT_TEXTS


def write_rows(rows: Sequence[Sequence[str | int | float]], kind: str, title: str, target: BinaryIO) -> None:
    """Write rows, headings first, as `csv` or `xlsx`."""
    if kind == "csv":
        text = io.StringIO()
        writer = csv.writer(text)
        for row in rows:
            writer.writerow([guarded(cell) if isinstance(cell, str) else cell for cell in row])
        target.write(text.getvalue().encode("utf-8-sig"))
        return

    def fill(book: Book) -> None:
        bold = head_format(book)
        page = book.add_worksheet(title)
        page.freeze_panes(1, 1)
        for at, row in enumerate(rows):
            for column, cell in enumerate(row):
                if isinstance(cell, str):
                    page.write_string(at, column, cell, bold if at == 0 else None)
                else:
                    page.write_number(at, column, cell)
        page.autofit()

    target.write(workbook_bytes(title, fill))
