"""An empty, explained plan to fill in: a worked example small enough to understand in every sheet."""

import csv
import datetime as dt
import io
from collections.abc import Iterator
from typing import Any, NamedTuple

from nomarium.school.plantables import TITLES
from nomarium.school.settings import MOVES, NAMES, RESTARTS


class PlanSheet(NamedTuple):
    """A sheet of the starter plan."""

    name: str
    what: str
    columns: tuple[tuple[str, str], ...]
    """(heading, what to write in it)"""
    rows: tuple[tuple[str, ...], ...]
    choices: dict[str, tuple[str, ...]] = {}  # noqa: RUF012 - never changed


SHEETS = (
    PlanSheet(
        "settings", "What holds for the whole year. A row may be left out: the value shown is what holds then.",
        (("Setting", "The setting's name; they are all here."), ("Value", "Its value.")),
        (
            ("Calendar name", "School year"), ("Time zone", "America/Halifax"), ("School days", "Mon-Fri"), ("Cycle moves", MOVES[0]),
            ("Cycle starts", "the first school day"), ("First label", "A"), ("Cycle restarts", RESTARTS[0]), ("Event title", "{name}"),
            ("Event notes", "{teacher}"), ("Join periods", "yes"), ("Join gap", "10 min"), ("Show labels", "yes"), ("Show weeks", "no"),
            ("Show days off", "yes"),
        ),
        {"Setting": NAMES},
    ),
    PlanSheet(
        "terms", "The stretches of dates in which school is held.",
        (("Name", "What the term is called."), ("First day", "Its first date."), ("Last day", "Its last date; it is part of the term."),
         ("Division", "Only where a division has terms of its own.")),
        (("Autumn", "2026-09-08", "2026-12-18", ""), ("Winter", "2027-01-05", "2027-03-26", "")),
    ),
    PlanSheet(
        "daysoff", "Dates without school.",
        (("Name", "Why."), ("First day", "The date, or the first one."), ("Last day", "The last date, when there are several."),
         ("Cycle", "hold: the label waits; pass: it is used up. Blank: as the cycle moves."), ("Division", "Only that division."),
         ("Kind", "A word for the category of its banner.")),
        (("Thanksgiving", "2026-10-12", "", "", "", "Holiday"), ("Staff days", "2026-11-05", "2026-11-06", "", "", "Closure")),
        {"Cycle": ("hold", "pass")},
    ),
    PlanSheet(
        "cycle", "The labels that the school days take in turn.",
        (("Label", "A short label, such as A or 1."), ("Name", "What a day with it is called."),
         ("Weekday", "Only for a cycle that moves by weekday."), ("Week", "Only for A and B weeks by weekday.")),
        (("A", "A day", "", ""), ("B", "B day", "", ""), ("C", "C day", "", "")),
    ),
    PlanSheet(
        "specialdays", "School days that are not as usual.",
        (("Date", "The date."), ("Last day", "When it is several days."), ("Label", "Its label; none: no label and no classes."),
         ("Cycle", "What comes next: follow (the label after it), hold (the one it would have had), pass (the one after that)."),
         ("Bells", "The bell schedule of that day."), ("Division", "Only that division."), ("Name", "What is special.")),
        (("2026-10-30", "", "", "", "Late start", "", "Fog watch"), ("2026-12-18", "", "none", "", "", "", "Regatta")),
        {"Cycle": ("follow", "hold", "pass")},
    ),
    PlanSheet(
        "bells", "When each period is.",
        (("Schedule", "Blank for the regular one."), ("Label", "Only for days with that label or weekday."), ("Division", "Only that division."),
         ("Period", "The period's short name."), ("Start", "When it starts."), ("End", "When it ends."), ("Name", "What the period is called.")),
        (
            ("", "", "", "1", "8:30", "9:30", ""), ("", "", "", "2", "9:35", "10:35", ""), ("", "", "", "3", "10:50", "11:50", ""),
            ("Late start", "", "", "1", "10:00", "10:40", ""), ("Late start", "", "", "2", "10:45", "11:25", ""),
            ("Late start", "", "", "3", "11:30", "12:10", ""),
        ),
    ),
    PlanSheet(
        "timetable", "Which class meets when: a row for each class and its labels and periods.",
        (("Class", "The class's code."), ("Label", "The labels on which it meets: A, or A, C, or A-C; blank: all."),
         ("Period", "The periods: 1, or 1, 3, or 1-2."), ("Title", "What the class is called."), ("Room", "Where."),
         ("Teacher", "Who; several parted by a semicolon."), ("Group", "Who takes it."), ("Term", "Only in that term."),
         ("Division", "Whose bells ring."), ("Notes", "For the event's notes.")),
        (
            ("KN1", "A, C", "1", "Knots", "Rigging loft", "R. Finch", "Apprentices", "", "", ""),
            ("RG2", "B", "1-2", "Rigging", "Main slip", "O. Tern", "Journeymen", "", "", "Bring gloves."),
            ("ST3", "", "3", "Steam bending", "Steam shed", "R. Finch; O. Tern", "Journeymen", "", "", ""),
        ),
    ),
    PlanSheet(
        "names", "What codes are called, everywhere at once.",
        (("Code", "As it is written in the other sheets."), ("Name", "What people call it."), ("Kind", "class, teacher, room, group …; blank: everything of that code."),
         ("Room", "Where the class is, when its rows do not say."), ("Keep", "no: the class is left out of the calendars."),
         ("Color", "A CSS colour name."), ("Categories", "Parted by commas.")),
        (("KN1", "Knots and splices", "class", "", "yes", "teal", "Rope work"),),
        {"Keep": ("yes", "no"), "Kind": ("class", "teacher", "room", "group", "label", "period", "division", "term")},
    ),
    PlanSheet(
        "people", "Who is who. Addresses go into Events, never into class meetings.",
        (("Name", "As it is written in the other sheets."), ("Email", "An e-mail address."), ("Groups", "Groups that the person is in, parted by commas.")),
        (("R. Finch", "finch@saltmarsh.example", "Staff"), ("O. Tern", "tern@saltmarsh.example", "Staff")),
    ),
    PlanSheet(
        "lessons", "What each meeting of a class is about, in order.",
        (("Class", "The class's code."), ("Title", "The lesson."), ("Notes", "For the event's notes."), ("Meetings", "How many meetings it takes; blank: one.")),
        (("KN1", "Bowline", "", ""), ("KN1", "Splices", "Bring a fid.", "2")),
    ),
    PlanSheet(
        "events", "Everything else, as in any event list; repeats may speak of the year: every A day, every school day.",
        (("Title", "What it is."), ("Date", "Its first date."), ("Start", "When it starts; blank: all day."), ("End", "When it ends."),
         ("Location", "Where."), ("Repeat", "How it repeats, in words."), ("Audience", "Groups who should see it."), ("Description", "Notes.")),
        (("Assembly", "2026-09-08", "12:00", "12:20", "Sail loft", "every A day", "Staff", ""), ("Open day", "2026-12-05", "", "", "Main slip", "", "", "")),
    ),
)  # fmt: skip
_DATES = frozenset(("First day", "Last day", "Date"))
_TIMES = frozenset(("Start", "End"))
_READY = 400
"""Rows that have their formats and drop-downs."""


def plan_workbook() -> bytes:
    """The starter plan as a workbook: formats, drop-downs, a worked example, and a sheet that explains it all."""
    import xlsxwriter

    data = io.BytesIO()
    with xlsxwriter.Workbook(data, {"in_memory": True, "strings_to_urls": False}) as book:
        book.set_properties(
            {"title": "School year", "created": dt.datetime(2026, 1, 1)}
        )  # same starter, same bytes
        bold = book.add_format({"bold": True, "bg_color": "#DCE9EC", "bottom": 1})
        formats = {
            "date": book.add_format({"num_format": "yyyy-mm-dd"}),
            "time": book.add_format({"num_format": "h:mm"}),
            "": book.add_format({"num_format": "@"}),
        }
        _explain(book, bold)
        for one in SHEETS:
            _sheet(book, one, bold, formats)
    return data.getvalue()


def _sheet(book: Any, one: PlanSheet, bold: Any, formats: dict[str, Any]) -> None:
    sheet = book.add_worksheet(TITLES[one.name])
    sheet.freeze_panes(1, 0)
    for n, (heading, what) in enumerate(one.columns):
        form = "date" if heading in _DATES else "time" if heading in _TIMES else ""
        width = max(len(heading), *(len(row[n]) for row in one.rows)) + 2
        sheet.set_column(n, n, min(max(width, 9), 34), formats[form])
        sheet.write_string(0, n, heading, bold)
        sheet.write_comment(0, n, what)
        for at, row in enumerate(one.rows, 1):
            if not row[n]:
                continue
            if form == "date":
                sheet.write_datetime(at, n, dt.datetime.fromisoformat(row[n]), formats[form])
            elif form == "time":
                sheet.write_datetime(
                    at, n, dt.datetime.strptime(f"1899-12-31 {row[n]}", "%Y-%m-%d %H:%M"), formats[form]
                )
            else:
                sheet.write_string(at, n, row[n], formats[form])
        choices = one.choices.get(heading)
        if choices:
            sheet.data_validation(
                1, n, _READY, n, {"validate": "list", "source": list(choices), "error_type": "warning"}
            )


def _explain(book: Any, bold: Any) -> None:
    sheet = book.add_worksheet("How to fill it in")
    sheet.set_column(0, 0, 16)
    sheet.set_column(1, 1, 14)
    sheet.set_column(2, 2, 100)
    sheet.write_row(0, 0, ["Sheet", "Column", "What to write"], bold)
    at = 1
    for one in SHEETS:
        sheet.write_row(at, 0, [TITLES[one.name], "", one.what])
        for n, (heading, what) in enumerate(one.columns, 1):
            sheet.write_row(at + n, 1, [heading, what])
        at += len(one.columns) + 2
    for line in (
        "The rows are a worked example: write yours over them.", "Sheets and columns that you do not need may be deleted; one of Timetable, Cycle and Events must stay.",
        "Then: nomarium survey FILE, nomarium build FILE -o year.ics, nomarium tally FILE",
    ):  # fmt: skip
        sheet.write_string(at, 2, line)
        at += 1


def plan_files() -> Iterator[tuple[str, bytes]]:
    """The starter plan as CSV files: (name, contents)."""
    for one in SHEETS:
        text = io.StringIO()
        writer = csv.writer(text)
        writer.writerow([heading for heading, _ in one.columns])
        writer.writerows(one.rows)
        yield TITLES[one.name].lower().replace(" ", "-") + ".csv", text.getvalue().encode("utf-8-sig")
