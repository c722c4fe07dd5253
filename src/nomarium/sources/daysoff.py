"""The dates that --days-off and --public-holidays name."""

from collections.abc import Sequence
from typing import NamedTuple

from nomarium.model.entry import Series
from nomarium.model.event import Event
from nomarium.model.problem import Problem
from nomarium.reading.options import ReadingOptions
from nomarium.reading.reading import read_sheets
from nomarium.reckoning.daysoff import DaysOff, EndlessDays, PublicHolidays, named_days
from nomarium.reckoning.series import dates_of
from nomarium.reckoning.window import Window
from nomarium.sources.calendars import calendar_sources
from nomarium.sources.lists import ListSource
from nomarium.sources.opening import Opened


class Skipping(NamedTuple):
    """Dates on which nothing repeats, None when none were given; and what is wrong with their lists."""

    days_off: DaysOff | None = None
    holidays: Sequence[PublicHolidays] = ()
    problems: Sequence[Problem] = ()


def skipping(opened: Opened, codes: Sequence[str], reading: ReadingOptions) -> Skipping:
    """Read lists of days off, which may do without names, and find the public holidays of these codes."""
    split = [code for text in codes for code in text.replace(",", " ").split()]
    holidays = [PublicHolidays(code, reading.languages) for code in split]
    plain = ReadingOptions(
        defaults={"summary": "Day off"}, date_order=reading.date_order, school_year=reading.school_year,
        languages=reading.languages, repeats_until=reading.repeats_until,
    )  # fmt: skip
    found = read_sheets(opened.sheets, plain, whole=True)
    problems = list(found.problems)
    events: list[Event] = []
    endless: list[EndlessDays] = []
    window = Window(last=reading.repeats_until)
    lists = [ListSource(one) for one in found.readings if not one.problems]
    for source in (*lists, *calendar_sources(opened.calendars, plain, may_be_endless=True)):
        for item in source.events():
            if isinstance(item, Series) and item.is_endless:
                endless.append(EndlessDays(item))
            else:
                events += [one.event for one in dates_of(item, window)]
        problems += [one for account in source.accounts for one in account.all_problems()]
    return Skipping(DaysOff(named_days(events), [*endless, *holidays]), holidays, problems)
