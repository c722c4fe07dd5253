"""Empty, explained spreadsheets to fill in, whose headings are read as they stand: events, and a plan."""

import csv
import io
from collections.abc import Iterator, Sequence
from functools import partial
from typing import NamedTuple

from nomarium.school.plantables import EXPLANATION, TITLES
from nomarium.school.starter import DATES, LAST_WORDS, SHEETS, TIMES, TIMETABLE_SHEETS, TIMETABLE_WORDS
from nomarium.targets.workbooks import Book, Form, Format, head_format, workbook_bytes, write_form

_ROWS_READY = 1_000
"""Rows that have their formats and drop-downs …"""
_PLAN_ROWS_READY = 400
"""… and those of each table of a plan."""


class StarterColumn(NamedTuple):
    """A column of the starter file."""

    heading: str
    what: str
    """What to write in it, for the explanation sheet."""
    examples: tuple[str, str]
    choices: tuple[str, ...] = ()
    form: Form = ""


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
    StarterColumn("Repeat", "How it repeats, in words: every Monday until 18 Dec 2026, first Friday of the month.", ("", "")),
    StarterColumn("Except", "Dates on which it does not happen, parted by semicolons.", ("", "")),
    StarterColumn("Also on", "Further dates, parted by semicolons.", ("", "")),
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
    return workbook_bytes("Events", partial(_fill_events, example_mark=example_mark))


def _fill_events(book: Book, example_mark: str) -> None:
    bold = head_format(book)
    grey = {"italic": True, "font_color": "#707070"}
    formats: dict[Form, str] = {"date": "yyyy-mm-dd", "time": "h:mm", "": "General"}
    plain = {form: book.add_format({"num_format": code}) for form, code in formats.items()}
    example = {form: book.add_format({"num_format": code, **grey}) for form, code in formats.items()}
    page = book.add_worksheet("Events")
    page.freeze_panes(1, 1)
    for n, column in enumerate(EVENT_COLUMNS):
        width = max(len(column.heading), *(len(text) for text in column.examples)) + 2
        page.set_column(n, n, min(max(width, 9), 32), plain[column.form])
        page.write_string(0, n, column.heading, bold)
        page.write_comment(0, n, column.what)
        for row, text in enumerate(column.examples, 1):
            shown = (example_mark if n == 0 else "") + text
            write_form(page, row, n, shown, column.form, example[column.form])
        if column.choices:
            rule = {"validate": "list", "source": list(column.choices), "error_title": column.heading,
                    "error_message": column.what[:255]}  # fmt: skip
            page.data_validation(1, n, _ROWS_READY, n, rule)
    _explain_events(book, bold, example_mark)


def _explain_events(book: Book, bold: Format, example_mark: str) -> None:
    page = book.add_worksheet("How to fill it in")
    page.set_column(0, 0, 14)
    page.set_column(1, 1, 90)
    page.write_row(0, 0, ["Column", "What to write"], bold)
    for row, column in enumerate(EVENT_COLUMNS, 1):
        page.write_row(row, 0, [column.heading, column.what])
    at = len(EVENT_COLUMNS) + 2
    mark = example_mark.strip()
    for line in (
        f"One event a row. The rows that begin with {mark} are examples: build leaves them out.",
        "Columns may be moved, and those that stay empty deleted.",
        "Then: nomarium survey FILE, and nomarium build FILE -o events.ics",
    ):
        page.write_row(at, 0, ["", line])
        at += 1


def plan_workbook() -> bytes:
    """The starter plan as a workbook: formats, drop-downs, a worked example, and a sheet that explains it all."""
    return workbook_bytes("School year", _fill_plan)


def _fill_plan(book: Book) -> None:
    bold = head_format(book)
    codes: dict[Form, str] = {"date": "yyyy-mm-dd", "time": "h:mm", "": "@"}
    formats = {form: book.add_format({"num_format": code}) for form, code in codes.items()}
    _explain_plan(book, bold)
    for one in SHEETS:
        page = book.add_worksheet(TITLES[one.name])
        page.freeze_panes(1, 0)
        for n, (heading, what) in enumerate(one.columns):
            form: Form = "date" if heading in DATES else "time" if heading in TIMES else ""
            width = max(len(heading), *(len(row[n]) for row in one.rows)) + 2
            page.set_column(n, n, min(max(width, 9), 34), formats[form])
            page.write_string(0, n, heading, bold)
            page.write_comment(0, n, what)
            for at, row in enumerate(one.rows, 1):
                write_form(page, at, n, row[n], form, formats[form])
            if choices := one.choices.get(heading):
                rule = {"validate": "list", "source": list(choices), "error_type": "warning"}
                page.data_validation(1, n, _PLAN_ROWS_READY, n, rule)


def _explain_plan(book: Book, bold: Format) -> None:
    page = book.add_worksheet(EXPLANATION)
    page.set_column(0, 0, 16)
    page.set_column(1, 1, 14)
    page.set_column(2, 2, 100)
    page.write_row(0, 0, ["Sheet", "Column", "What to write"], bold)
    at = 1
    for one in SHEETS:
        page.write_row(at, 0, [TITLES[one.name], "", one.what])
        for n, (heading, what) in enumerate(one.columns, 1):
            page.write_row(at + n, 1, [heading, what])
        at += len(one.columns) + 2
    for line in LAST_WORDS:
        page.write_string(at, 2, line)
        at += 1


def timetable_workbook() -> bytes:
    """The least that makes a calendar of a week: a drawn week, the terms, the days off; each with an example."""
    return workbook_bytes("Timetable", _fill_timetable)


def _fill_timetable(book: Book) -> None:
    bold = head_format(book)
    _rows(book, bold, EXPLANATION, TIMETABLE_WORDS, (16, 100))
    for name, rows, widths in TIMETABLE_SHEETS:
        _rows(book, bold, name, rows, widths)


def _rows(book: Book, bold: Format, name: str, rows: Sequence[Sequence[str]], widths: Sequence[int]) -> None:
    """A sheet of texts, its first row the headings."""
    page = book.add_worksheet(name)
    wrap = book.add_format({"text_wrap": True, "valign": "top"})
    for n, row in enumerate(rows):
        page.write_row(n, 0, row, bold if n == 0 else wrap)
    for n, width in enumerate(widths):
        page.set_column(n, n, width)


def teacher_sheet(name: str, labels: Sequence[str], lines: Sequence[tuple[str, str]]) -> bytes:
    """A sheet for one teacher to fill in: a column a label, a row a period (its name and its time)."""
    rows = [["", *labels], *([f"{period} ({time})", *[""] * len(labels)] for period, time in lines)]

    def fill(book: Book) -> None:
        _rows(book, head_format(book), f"Timetable - {name}"[:31], rows, [18, *[20] * len(labels)])

    return workbook_bytes(f"Timetable - {name}", fill)


def plan_files() -> Iterator[tuple[str, bytes]]:
    """The starter plan as CSV files: (name, contents)."""
    for one in SHEETS:
        text = io.StringIO()
        writer = csv.writer(text)
        writer.writerow([heading for heading, _ in one.columns])
        writer.writerows(one.rows)
        yield TITLES[one.name].lower().replace(" ", "-") + ".csv", text.getvalue().encode("utf-8-sig")
