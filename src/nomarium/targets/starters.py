"""An empty, explained spreadsheet of events to fill in, whose headings `build` reads as they stand."""

import csv
import datetime as dt
import io
from typing import NamedTuple

_ROWS_READY = 1_000
"""Rows that have their formats and drop-downs."""


class StarterColumn(NamedTuple):
    """A column of the starter file."""

    heading: str
    what: str
    """What to write in it, for the explanation sheet."""
    examples: tuple[str, str]
    choices: tuple[str, ...] = ()
    form: str = ""
    """date, time or nothing."""


_YES_NO = ("yes", "no")

EVENT_COLUMNS = (
    StarterColumn("Title", "What the event is called. Needed.", ("Keel laying", "Harbour open day")),
    StarterColumn("Date", "Its date, or its first date. Needed.", ("2027-04-12", "2027-06-05"), form="date"),
    StarterColumn("Start", "When it starts. Blank makes an all-day event.", ("9:00", ""), form="time"),
    StarterColumn("End", "When it ends. Blank takes the default length, an hour.", ("10:30", ""), form="time"),
    StarterColumn("End date", "Its last date, when it is not the first one; that day is part of it.", ("", "2027-06-06"), form="date"),
    StarterColumn("All day", "yes: the times are left out.", ("", "yes"), _YES_NO),
    StarterColumn("Location", "Where it is.", ("Slip 1", "Main slip")),
    StarterColumn("Description", "Notes for those who open the event.", ("Bring gloves.", "")),
    StarterColumn("Categories", "Kinds of event, parted by commas.", ("Launches", "Public, Launches")),
    StarterColumn("Audience", "Groups who should see it, parted by commas; build --split-by audience makes a calendar for each.", ("Apprentices", "Apprentices, Families")),
    StarterColumn("Organizer", "A name, an e-mail address, or Name <address>.", ("Maren Quill <maren@saltmarsh.example>", "")),
    StarterColumn("Attendees", "People in the same form, parted by semicolons.", ("", "")),
    StarterColumn("URL", "An address on the web.", ("", "https://saltmarsh.example/open-day")),
    StarterColumn("Status", "confirmed, tentative or cancelled.", ("confirmed", "tentative"), ("confirmed", "tentative", "cancelled")),
    StarterColumn("Privacy", "public, private or confidential.", ("", "public"), ("public", "private", "confidential")),
    StarterColumn("Busy", "yes: the time counts as taken; no: it stays free.", ("yes", "no"), _YES_NO),
    StarterColumn("Reminder", "How long before the start an alarm is shown: 15 min, 1 h, 2 days.", ("15 min", "")),
    StarterColumn("Color", "A CSS colour name, such as teal.", ("", "teal")),
    StarterColumn("Priority", "high, medium or low.", ("", ""), ("high", "medium", "low")),
    StarterColumn("Time zone", "An IANA zone, when it is not the one that build is given.", ("", "")),
    StarterColumn("UID", "A lasting identity of your own. Blank: one is made.", ("", "")),
)  # fmt: skip


def starter_csv(example_mark: str) -> bytes:
    """The starter as CSV: headings and two example rows."""
    text = io.StringIO()
    writer = csv.writer(text)
    writer.writerow([column.heading for column in EVENT_COLUMNS])
    for n in (0, 1):
        cells = [column.examples[n] for column in EVENT_COLUMNS]
        writer.writerow([example_mark + cells[0], *cells[1:]])
    return text.getvalue().encode("utf-8-sig")


def starter_workbook(example_mark: str) -> bytes:
    """The starter as a workbook: formats, drop-downs, and a sheet that explains each column."""
    import xlsxwriter

    data = io.BytesIO()
    properties = {"in_memory": True, "strings_to_urls": False}
    with xlsxwriter.Workbook(data, properties) as book:
        # a fixed date, so that the same starter is the same bytes
        book.set_properties({"title": "Events", "created": dt.datetime(2026, 1, 1)})
        bold = book.add_format({"bold": True, "bg_color": "#DCE9EC", "bottom": 1})
        grey = {"italic": True, "font_color": "#707070"}
        formats = {"date": "yyyy-mm-dd", "time": "h:mm", "": "General"}
        plain = {form: book.add_format({"num_format": code}) for form, code in formats.items()}
        example = {form: book.add_format({"num_format": code, **grey}) for form, code in formats.items()}
        sheet = book.add_worksheet("Events")
        sheet.freeze_panes(1, 1)
        for n, column in enumerate(EVENT_COLUMNS):
            width = max(len(column.heading), *(len(text) for text in column.examples)) + 2
            sheet.set_column(n, n, min(max(width, 9), 32), plain[column.form])
            sheet.write_string(0, n, column.heading, bold)
            sheet.write_comment(0, n, column.what)
            for row, text in enumerate(column.examples, 1):
                _write(
                    sheet,
                    row,
                    n,
                    (example_mark if n == 0 else "") + text,
                    column.form,
                    example[column.form],
                )
            _validate(sheet, n, column)
        _explain(book, bold, example_mark)
    return data.getvalue()


def _write(sheet, row: int, column: int, text: str, form: str, style) -> None:  # type: ignore[no-untyped-def]
    if not text:
        return
    if form == "date":
        sheet.write_datetime(row, column, dt.datetime.fromisoformat(text), style)
    elif form == "time":
        sheet.write_datetime(row, column, dt.datetime.strptime(f"1899-12-31 {text}", "%Y-%m-%d %H:%M"), style)
    else:
        sheet.write_string(row, column, text, style)


def _validate(sheet, n: int, column: StarterColumn) -> None:  # type: ignore[no-untyped-def]
    if column.choices:
        rule = {"validate": "list", "source": list(column.choices), "error_title": column.heading,
                "error_message": column.what[:255]}  # fmt: skip
        sheet.data_validation(1, n, _ROWS_READY, n, rule)


def _explain(book, bold, example_mark: str) -> None:  # type: ignore[no-untyped-def]
    sheet = book.add_worksheet("How to fill it in")
    sheet.set_column(0, 0, 14)
    sheet.set_column(1, 1, 90)
    sheet.write_row(0, 0, ["Column", "What to write"], bold)
    for row, column in enumerate(EVENT_COLUMNS, 1):
        sheet.write_row(row, 0, [column.heading, column.what])
    at = len(EVENT_COLUMNS) + 2
    sheet.write_row(
        at,
        0,
        [
            "",
            f"One event a row. The rows that begin with {example_mark.strip()} are examples: build leaves them out.",
        ],
    )
    sheet.write_row(at + 1, 0, ["", "Columns may be moved, and those that stay empty deleted."])
    sheet.write_row(at + 2, 0, ["", "Then: nomarium survey FILE, and nomarium build FILE -o events.ics"])
