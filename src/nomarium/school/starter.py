"""What stands in an explained plan to fill in: a worked example small enough to understand in every sheet."""

from collections.abc import Iterable, Sequence
from typing import NamedTuple

from nomarium.model.cell import Cell
from nomarium.school.planheads import plain
from nomarium.school.settings import MOVES, NAMES, RESTARTS
from nomarium.sheets.sheet import cell_text


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
        "rotation", "Only where blocks rotate: which block meets when. A class whose Period is a block meets whenever its block does.",
        (("Label", "The label."), ("Period", "The period."), ("Block", "The block that meets then.")),
        (("A", "1", "Red"), ("B", "1", "Blue"), ("C", "1", "Red")),
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
        "enrolments", "Who attends which class; build --split-by person makes a calendar for each.",
        (("Person", "As it is written in People, or a new name."), ("Class", "The class's code; several parted by commas.")),
        (("J. Wren", "KN1"), ("S. Lark", "KN1, RG2")),
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
DATES = frozenset(("First day", "Last day", "Date"))
TIMES = frozenset(("Start", "End"))
LAST_WORDS = (
    "The rows are a worked example: write yours over them.", "Sheets and columns that you do not need may be deleted; one of Timetable, Cycle and Events must stay.",
    "Then: nomarium survey FILE, nomarium build FILE -o year.ics, nomarium tally FILE",
)  # fmt: skip
"""What stands below the explanation of the sheets."""

TIMETABLE_SHEETS = (
    ("Timetable", (
        ("", "Monday", "Tuesday", "Wednesday", "Thursday", "Friday"),
        ("8:30-9:30", "Knots\nRigging loft", "", "Knots\nRigging loft", "", "Sails\nSail loft"),
        ("9:35-10:35", "", "Steam\nSteam shed", "", "Steam\nSteam shed", ""),
        ("10:35-10:50", "Break", "Break", "Break", "Break", "Break"),
        ("10:50-11:50", "Sails\nSail loft", "", "", "Knots\nRigging loft", ""),
    ), (14, 18, 18, 18, 18, 18)),
    ("Terms", (("Name", "First day", "Last day"), ("Autumn", "2026-09-08", "2026-12-18")), (20, 14, 14)),
    ("Days off", (("Name", "First day", "Last day"), ("Thanksgiving", "2026-10-12", "")), (20, 14, 14)),
)  # fmt: skip
"""The starter of a drawn week: (sheet, rows, widths of columns)."""
TIMETABLE_WORDS = (
    ("Sheet", "What to write"),
    (
        "Timetable",
        "Your week as you draw it: times or periods down, weekdays or labels across, a class in each cell, its room on the second line.",
    ),
    ("Terms", "From when to when classes are taught."),
    ("Days off", "Dates without school; the last day only where there are several."),
    ("", "Write yours over the example, then: nomarium survey FILE, and nomarium build FILE -o week.ics"),
)

_OWN_CHOICE = ("settings", "cycle", "bells")
"""Tables that may well be right as they stand: they say how the year is made, not what is in it."""


def is_untouched(name: str, rows: Iterable[Sequence[Cell]]) -> bool:
    """Whether a plan's table holds rows of the worked example and no others."""
    example = next((one for one in SHEETS if one.name == name and name not in _OWN_CHOICE), None)
    if example is None:
        return False
    known = {tuple(text for text in row if text) for row in example.rows}
    said = [tuple(text for cell in row if (text := cell_text(cell))) for row in rows]
    filled = [texts for texts in said if texts and texts != tuple(heading for heading, _ in example.columns)]
    drawn = {
        tuple(text for text in row if text)
        for title, rows, _ in TIMETABLE_SHEETS
        if plain(title) == name
        for row in rows
    }
    known = known if not set(filled) <= drawn else drawn
    return bool(filled) and all(texts in known for texts in filled)
