"""Whether a list is one of classes, as a timetable could say them and a list cannot."""

from nomarium.reading.columns.headings import normal
from nomarium.reading.columns.table import TableReading


def is_of_classes(table: TableReading) -> bool:
    """Whether rows are the sections of courses, or courses with days and times in one cell."""
    return names_sections(table) or _names_meetings(table)


_SECTIONS = frozenset(("section", "section no", "section number", "sect", "sec"))
_COURSES = frozenset(
    "course|course no|course number|course code|course name|subject|class|class code|catalog number|crse".split(
        "|"
    )
)


def names_sections(table: TableReading) -> bool:
    """Whether rows are the sections of courses, `BOAT101` and `02`, on weekdays: together they name a class, as a timetable says it."""
    called = {normal(column.heading) for column in table.columns}
    is_class = any(c.field == "class" and normal(c.heading) in _SECTIONS for c in table.columns)
    return is_class and bool(called & _COURSES) and any(c.field in ("repeat", "day") for c in table.columns)


def _names_meetings(table: TableReading) -> bool:
    """Whether rows are courses with days and times in one cell, under a heading of times or several of them, `F 9:00-11:50; M
    15:00-15:50`, which a list cannot say."""
    named = [c for c in table.columns if c.field == "class" or normal(c.heading) in _COURSES]
    fields = {c.field for c in table.columns if c.has_days}
    if not named or (fields & {"date", "when"} and not fields & {"end", "end-date"}):
        return False  # each row is of one day
    from nomarium.reading.columns.meetingcells import are_meetings  # few lists are of classes

    whens = [c for c in table.columns if c.field in ("", "time", "when", "start", "day", "repeat", "date")]
    return any(
        are_meetings([text for text in column.samples if any(map(str.isdigit, text))], column.field == "time")
        for column in whens
    )  # others are open, TBA
