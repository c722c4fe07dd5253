"""How an event repeats: rules as plain data (RFC 5545, 3.3.10), added and left-out dates."""

import datetime as dt
from typing import NamedTuple

FREQUENCIES = ("YEARLY", "MONTHLY", "WEEKLY", "DAILY", "HOURLY", "MINUTELY", "SECONDLY")
"""From the longest period to the shortest."""


class Rule(NamedTuple):
    """A recurrence rule whose parts are known to make sense by themselves."""

    freq: str
    interval: int = 1
    times: int | None = None
    """COUNT: how many starts there are."""
    until: dt.date | dt.datetime | None = None
    """The last possible start, inclusive: a date takes in its whole day; a date-time is local, or in
    UTC when `until_is_utc`."""
    until_is_utc: bool = False
    months: tuple[int, ...] = ()
    weeks: tuple[int, ...] = ()
    """ISO week numbers by `week_start`, -1 is the year's last."""
    year_days: tuple[int, ...] = ()
    month_days: tuple[int, ...] = ()
    weekdays: tuple[tuple[int, int], ...] = ()
    """(ordinal, weekday): (0, 2) is every Wednesday, (-1, 4) the last Friday; 0 is Monday."""
    hours: tuple[int, ...] = ()
    minutes: tuple[int, ...] = ()
    seconds: tuple[int, ...] = ()
    positions: tuple[int, ...] = ()
    """BYSETPOS: which of a period's starts are kept, from 1, or -1 from the end."""
    week_start: int = 0

    @property
    def is_endless(self) -> bool:
        return self.times is None and self.until is None


class Recurrence(NamedTuple):
    """Everything that makes one event many."""

    rules: tuple[Rule, ...] = ()
    excluding: tuple[Rule, ...] = ()
    """Rules whose starts are left out (EXRULE of RFC 2445, still met in files)."""
    also_on: tuple[dt.date | dt.datetime, ...] = ()
    """More starts, local in the event's zone; a date beside a timed event means its time of day."""
    also_until: tuple[tuple[dt.datetime, dt.datetime], ...] = ()
    """(start, end) of added starts with an end of their own (RDATE;VALUE=PERIOD)."""
    left_out: tuple[dt.date | dt.datetime, ...] = ()
    """Starts that do not happen; a date leaves out every start on it."""
    starts_itself: bool = True
    """Whether the event's own start is an occurrence even where no rule says so: yes in a calendar
    file, as applications show it; no in a spreadsheet, whose date is where the count begins."""
    keeps_length: bool = False
    """True: each occurrence lasts as long on the clock; False: exactly as long in elapsed time."""
    on_school_days: bool = False
    """Whether days off are taken away before a position (the last school day) is looked for."""
