"""The dates that --days-off and --public-holidays name."""

from collections.abc import Sequence
from typing import TYPE_CHECKING, NamedTuple

from nomarium.reading.options import ReadingOptions

if TYPE_CHECKING:
    from nomarium.model.event import Event
    from nomarium.model.problem import Problem
    from nomarium.reckoning.daysoff import DaysOff, PublicHolidays


class Skipping(NamedTuple):
    """Dates on which nothing repeats, None when none were given; and what is wrong with their lists."""

    days_off: "DaysOff | None" = None
    holidays: "Sequence[PublicHolidays]" = ()
    problems: "list[Problem]" = []  # noqa: RUF012 - never changed


def skipping(files: Sequence[str], codes: Sequence[str], reading: ReadingOptions) -> Skipping:
    """Read the lists of days off and find the public holidays."""
    if not files and not codes:
        return Skipping()
    from nomarium.reckoning.daysoff import DaysOff, PublicHolidays, days_of

    split = [code for text in codes for code in text.replace(",", " ").split()]
    holidays = [PublicHolidays(code, reading.languages) for code in split]
    events: list[Event] = []
    problems: list[Problem] = []
    for file in files:
        found, wrong = _listed(file, reading)
        events += found
        problems += wrong
    return Skipping(DaysOff(days_of(events), holidays), holidays, problems)


def _listed(file: str, reading: ReadingOptions) -> "tuple[list[Event], list[Problem]]":
    """The events of a list of days off, which may do without names."""
    from nomarium.cli.sources import opened
    from nomarium.ical.merging import merged
    from nomarium.reading.notebook import Notebook
    from nomarium.reading.reading import read_sheets
    from nomarium.reckoning.series import Window, series_occurrences

    plain = ReadingOptions(
        defaults={"summary": "Day off"}, date_order=reading.date_order, school_year=reading.school_year,
        languages=reading.languages, repeats_until=reading.repeats_until,
    )  # fmt: skip
    events: list[Event] = []
    with opened([file], ()) as found:
        tables = read_sheets(found.sheets, plain, whole=True)
        problems = list(tables.problems)
        window = Window(last=reading.repeats_until)
        for table in tables.readings:
            notebook = Notebook()
            events += table.events(notebook)
            problems += notebook.problems
        for calendar in found.calendars:
            problems += calendar.problems
            for series in merged(calendar.entries).series:
                if not series.is_endless or window.last:
                    events += [one.event for one in series_occurrences(series, window)]
    return events, problems
