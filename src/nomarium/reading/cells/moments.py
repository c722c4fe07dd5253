"""What one cell says about when: days, times, or both. Each distinct cell is read once."""

import datetime as dt
import re
import unicodedata
from functools import lru_cache
from typing import Literal, NamedTuple

from nomarium.model.cell import Cell
from nomarium.model.refusal import BEYOND, Refusal, too_long
from nomarium.reading.cells.dateremarks import (
    AROUND,
    days_between,
    is_cut_year,
    opens_range,
    rest_refused,
    says_called_off,
    without_count,
    without_remark,
)
from nomarium.reading.cells.dates import Day, DayReading, figures_day, is_stopped_day, read_days
from nomarium.reading.cells.feastdays import without_feast
from nomarium.reading.cells.fourfigures import hours_with_colons
from nomarium.reading.cells.isointervals import with_dash
from nomarium.reading.cells.natives import native_date
from nomarium.reading.cells.serials import from_serial
from nomarium.reading.cells.spokentimes import in_clocks
from nomarium.reading.cells.times import (
    DAY_SECS,
    Clock,
    Times,
    clock_of_number,
    clock_of_time,
    plain_clock,
    read_times,
)
from nomarium.reading.cells.words import Lexicon

Role = Literal["date", "time", "either"]
"""What a column holds: it settles what a bare number means."""

ROLES: dict[str, Role] = {
    "date": "date", "end-date": "date", "when": "date", "start": "either", "end": "either",
    "time": "time", "reminder-date": "date", "reminder-time": "time",
    "milestone": "date",
}  # fmt: skip
"""The role of each field that says when."""


class Moment(NamedTuple):
    """Everything that a cell says about when, the day's readings still open."""

    first: Day | None = None
    last: Day | None = None
    start: Clock | None = None
    end: Clock | None = None
    is_all_day: bool = False
    is_unknown: bool = False
    offset_secs: int | None = None
    """The offset from UTC that the cell states; None: it states none."""
    notes: tuple[str, ...] = ()


_ISO_DATE = r"(\d{4})-(\d\d)-(\d\d)"
_ISO_MOMENT = (
    r"(?i)(\d{4})-?(\d\d)-?(\d\d)[T ]\s?(\d\d):?(\d\d)(?::?(\d\d)(?:[.,]\d+)?)?\s?(Z|[+-]\d\d:?\d\d)?"
)
_FIGURES = r"(\d{1,2})([/.-])(\d{1,2})\2(\d{4})(?:[ ,]+(.+))?"
_CLOCK_FIRST = r"(?i)^(?P<times>[^,]*?(?:\d\s?[ap]\.?m\.?|\d[:.h]\d\d|noon|midnight|\dh)\b\.?)[\s,]+(?:on\s+)?(?P<days>.*\d.*)$"
_JOINT = r"(?i)^(?:[,@;|/–—-]|at\b|um\b|à\b|om\b|a las\b|from\b)\s*"
_DOTTED_TIME = r"(?<![\d.])(\d{1,2}\.\d{1,2}\.) (?=(?:[01]?\d|2[0-4])\.(?:00|1[3-9]|[2-5]\d)(?![.\d]))"
"""A day without its year before a time with a dot, which no date can be."""
_EPOCH_YEARS = (1899, 1900, 1904)
"""Years in which workbooks keep times that were typed without a date."""


def read_moment(cell: Cell, role: Role, lexicon: Lexicon, counts_1904: bool = False) -> Moment | Refusal:
    """Read a cell that is not blank. `counts_1904` is the workbook's date system, for plain numbers."""
    try:
        return _moment_of(cell, role, lexicon, counts_1904)
    except OverflowError:
        return BEYOND


def _moment_of(cell: Cell, role: Role, lexicon: Lexicon, counts_1904: bool) -> Moment | Refusal:
    if role != "time" and (day := plain_date(cell)):
        return Moment(certain(day))
    if isinstance(cell, str):
        return _remembered(cell.strip(), role, lexicon, counts_1904)
    if isinstance(cell, dt.datetime):
        return _of_datetime(cell, role)
    if isinstance(cell, dt.date):
        if role != "date" and cell.year in _EPOCH_YEARS:  # 24:00 typed in a column of times
            return Moment(start=Clock(DAY_SECS if cell.day == 1 else 0, True))
        return Moment(certain(cell))
    if isinstance(cell, dt.time):
        return Moment(start=clock_of_time(cell))
    if isinstance(cell, dt.timedelta):
        secs = round(cell.total_seconds())
        if 0 <= secs <= DAY_SECS:
            return Moment(start=Clock(secs, True))
        return Refusal(
            "time-impossible",
            "A time cannot be over 24 hours.",
            "Put a length in a column of its own.",
        )
    if isinstance(cell, bool):
        return Refusal("date-unread", "A yes or no is no date and no time.")
    return _of_number(float(cell), role, counts_1904)


@lru_cache(maxsize=8192)  # a column is sampled, heard as evidence and read: each text once for all of it
def _remembered(text: str, role: Role, lexicon: Lexicon, counts_1904: bool) -> Moment | Refusal:
    return read_moment_text(text, role, lexicon, counts_1904)


def plain_date(cell: Cell) -> dt.date | None:
    """The date of a cell that needs no look at its column: an ISO date, or a workbook's own. None for any other."""
    if type(cell) is str:
        if len(cell) == 10 and cell[4] == cell[7] == "-" and cell.isascii():
            try:
                return dt.date.fromisoformat(cell)
            except ValueError:
                return None
    elif type(cell) is dt.date and cell.year not in _EPOCH_YEARS:
        return cell
    return None


def certain(day: dt.date) -> Day:
    """A day about which nothing is open."""
    return Day((DayReading("", day.year, day.month, day.day),))


def _of_datetime(cell: dt.datetime, role: Role) -> Moment:
    if cell.microsecond:  # a serial number's fraction is seldom a whole second
        cell = (cell + dt.timedelta(microseconds=500_000)).replace(microsecond=0)
    clock = Clock(cell.hour * 3600 + cell.minute * 60 + cell.second, True)
    if role == "time" or (role == "either" and cell.year in _EPOCH_YEARS):
        return Moment(start=clock)
    return Moment(certain(cell.date()), start=clock)


def _of_number(value: float, role: Role, counts_1904: bool) -> Moment | Refusal:
    if role != "time":
        moment = from_serial(value, counts_1904)
        if moment is not None:
            clock = (
                None
                if value == int(value)
                else Clock((moment.hour * 60 + moment.minute) * 60 + moment.second, True)
            )
            return Moment(certain(moment.date()), start=clock, notes=("serial-number",))
        text = f"{value:.0f}"
        if value == int(value) and len(text) == 8:
            return read_moment_text(text, role, Lexicon({}, {}))
        if role == "date":
            remedy = "Write it like 2027-04-12 or 12 April 2027."
            return Refusal("date-unread", f"The number {value:g} is not a date.", remedy)
    clock_read = clock_of_number(value)
    return clock_read if isinstance(clock_read, Refusal) else Moment(start=clock_read)


def read_moment_text(text: str, role: Role, lexicon: Lexicon, counts_1904: bool = False) -> Moment | Refusal:
    """Read a text without outer spaces."""
    if long := too_long(text):
        return long
    if role != "date" and (clock := plain_clock(text)):
        return Moment(start=clock)
    if text[:4].isdigit():  # an ISO date begins so, and figures with the day or the month first do not
        if (iso := re.fullmatch(_ISO_DATE, text)) and role != "time":
            day = DayReading("", int(iso[1]), int(iso[2]), int(iso[3]))
            if day.date() is None:
                return Refusal(
                    "date-impossible", f"There is no such date as {text}.", "Check its month and day."
                )
            return Moment(Day((day,)))
        if (iso := re.fullmatch(_ISO_MOMENT, text)) and not _is_range(iso):
            return _of_iso(text, iso, role)
        if "/" in text and role != "time":
            text = with_dash(text)
    elif role != "time" and (figures := re.fullmatch(_FIGURES, text)):
        figured = figures_day(int(figures[1]), int(figures[3]), int(figures[4]))
        rest = read_times(figures[5]) if figures[5] else Times()
        if figured.readings and isinstance(rest, Times):
            return _joined(figured, None, rest)
    text = hours_with_colons(in_clocks(tidy(text))) if role == "date" else tidy(text)
    if text[:1] in AROUND and role != "time":
        text = text.strip(AROUND)
    if ". " in text:
        text = re.sub(_DOTTED_TIME, r"\1, ", text)  # 23.09. 19.30
    if role == "time":
        said = read_times(text)
        if isinstance(said, Refusal):
            whole = _days_and_times(text, lexicon)
            if isinstance(whole, Moment) and whole.start is not None:
                return whole  # a date with it is welcome: the row compares it with its date column
            return said
        return of_times(said)
    says_date = is_stopped_day(text) or ("/" in text and any(map(str.isdigit, text)))
    times = read_times(text) if role == "either" and not says_date else None
    if isinstance(times, Times):
        return of_times(times)
    if _is_serial(text):
        return _of_number(float(text), role, counts_1904)
    may_be_of = text[:1] in "wWsS"
    if may_be_of and (week := _week_by_date(text, lexicon)) is not None:
        return week  # Week of 4 January
    if may_be_of and (counted := _day_of_counted_week(text, lexicon)) is not None:
        return counted  # Week 1, September 29
    whole = _days_and_times(text, lexicon)
    if isinstance(whole, Moment) and whole.last is None and whole.end is None and opens_range(text):
        return Refusal("date-open", f"“{text}” says a first day, and no last one.", _OPEN_REMEDY)
    if isinstance(whole, Refusal) and whole.why == "unlike" and times is not None:
        return times  # nothing in it is like a date: say that it is no time
    if isinstance(whole, Refusal) and role == "date":
        said = read_times(text)
        if isinstance(said, Times) and said.is_unknown:
            return of_times(said)
    if not isinstance(whole, Refusal):
        return whole
    of_week = _numbered_week(text) or (None if may_be_of else _week_by_date(text, lexicon))
    return of_week or _beside_feast(text, lexicon) or whole


def _beside_feast(text: str, lexicon: Lexicon) -> Moment | None:
    """The date beside the name of a feast; None where there is none."""
    bare = without_feast(text)
    read = _days_and_times(bare, lexicon) if bare is not None else None
    return read._replace(notes=(*read.notes, "date-feast")) if isinstance(read, Moment) else None


def _numbered_week(text: str) -> Moment | Refusal | None:
    """A week that is named by its number; None when it is none."""
    from nomarium.reading.cells.weeks import numbered_week

    try:
        numbered = numbered_week(text)
    except ValueError:
        return Refusal("date-impossible", f"There is no week {text}.", "Check the year and the week.")
    if numbered is None:
        return None
    first, last = numbered
    return Moment(certain(first), certain(last) if last > first else None)


def _week_by_date(text: str, lexicon: Lexicon) -> Moment | None:
    """A week that is named by the date on which it begins, or ends; None when it is none."""
    from nomarium.reading.cells.weeks import date_of_week, date_of_week_end

    named = date_of_week(text)
    ended = "" if named else date_of_week_end(text)
    edge = _days_and_times(named or ended, lexicon) if named or ended else None
    if not isinstance(edge, Moment) or edge.last is not None or edge.start is not None:
        return None
    return edge._replace(notes=(*edge.notes, "week-ended" if ended else "week-span"))


def _day_of_counted_week(text: str, lexicon: Lexicon) -> Moment | Refusal | None:
    """The day behind the number of a week; None when it is none."""
    from nomarium.reading.cells.weeks import date_of_counted_week

    date, may_be_year = date_of_counted_week(text)
    day = _days_and_times(date, lexicon) if date else None
    if not isinstance(day, Moment):
        return None
    if may_be_year and not isinstance(_days_and_times(text, lexicon), Refusal):
        message = f"“{text}” could be {date} in a week of that number, or the day before the month and a short year."
        return Refusal("date-unread", message, "Put the number of the week into a column of its own.")
    return day


_DIRECTIONS = dict.fromkeys((0x200E, 0x200F, *range(0x202A, 0x202F), *range(0x2066, 0x206A)))
"""Marks of the direction of writing, which some programs put into dates."""


def tidy(text: str) -> str:
    """Full-width forms made plain, spaces single, dates of other scripts in plain words."""
    text = text.replace("t/m", "-").replace("tot en met", "-")  # Dutch: up to and including
    text = text.removesuffix(":")  # Monday 5 October 2026:
    if text[-1:] == ")" and (numbered := re.fullmatch(_NUMBERED_WEEK, text.strip())) is not None:
        text = numbered["days"]
    if text.isascii():
        return " ".join(text.split())
    text = unicodedata.normalize("NFKC", text.replace("º", "o").replace("ª", "a"))
    return native_date(" ".join(text.translate(_DIRECTIONS).split()))


def _is_serial(text: str) -> bool:
    """A serial number that a workbook's export left as text: five figures, perhaps with a fraction."""
    return re.fullmatch(r"[1-9]\d{4}(?:\.\d+)?", text) is not None


def _is_range(iso: re.Match[str]) -> bool:
    """Whether what follows the time after a hyphen is another time, `2027-03-13 10:00-12:00`, and no offset from UTC:
    it is later, or no zone is so far from it. A time to the second, or after a T, is a program's, and has an offset."""
    rest = iso[7] or ""
    if rest[:1] != "-":
        return False
    hours, minutes = int(rest[1:3]), int(rest[-2:])
    is_written = ":" in rest and iso[6] is None and "T" not in iso[0].upper()
    is_later = (hours, minutes) > (int(iso[4]), int(iso[5]))
    return (is_written and is_later) or hours > 12 or minutes % 15 != 0


def _of_iso(text: str, iso: re.Match[str], role: Role) -> Moment | Refusal:
    day = DayReading("", int(iso[1]), int(iso[2]), int(iso[3]))
    hour, minute, second = int(iso[4]), int(iso[5]), int(iso[6] or 0)
    secs = hour * 3600 + minute * 60 + second
    if day.date() is None or minute > 59 or second > 59 or secs > DAY_SECS:
        return Refusal("date-impossible", f"There is no such moment as {text}.", "Check its figures.")
    offset = None
    if iso[7]:
        zone = iso[7].upper().replace(":", "")
        offset = (
            0 if zone == "Z" else (int(zone[1:3]) * 3600 + int(zone[3:]) * 60) * (-1 if zone[0] == "-" else 1)
        )
    if role == "time" and day.year in _EPOCH_YEARS:
        return Moment(start=Clock(secs, True))
    return Moment(Day((day,)), start=Clock(secs, True), offset_secs=offset)


_OPEN_REMEDY = (
    "Write the day alone where it is the only one, “12 January”; else both, “12 January – 26 March”."
)
_NO_TIME = r"[\s,;@|–—-]*\d{1,2}/\d{1,2}|[\s,;]*\d{1,2}\.(?:(?:0?[1-9]|1[0-2])\.)?"
"""What is a second day behind a first, `7/12, 9/12`, `12.12., 13.12.`, or counts what follows, `6.12., 2. Advent`, and is no time."""
_NUMBERED_WEEK = r"(?i)(?:(?:week|wk|w|woche|kw|semaine|sem|semana)\.?\s*)?\d{1,2}\s*\((?P<days>[^()]*\d[^()]*[^\W\d_]{3}[^()]*|[^()]*[^\W\d_]{3}[^()]*\d[^()]*)\)"
"""The number of a week before its days, `1 (30 Nov-4 Dec)`."""
_TWO_YEARS = r"\d{1,2}(?:\s[^\W\d_]{2,4})?\s[^\W\d_]{3,}\.?\s\d\d,?\s20[0-5]\d(?!\d|\s?[-–—:.h])"
"""A day, its month, a short year and a long one, or another day in front, its year, and no time: `1 September 29, 2026`."""


def _days_and_times(text: str, lexicon: Lexicon) -> Moment | Refusal:
    days = read_days(text, lexicon)
    if isinstance(days, Refusal) and text[:1].isalpha() and ("-" in text or "–" in text or " to " in text):
        from nomarium.reading.cells.weekdaypairs import with_both_weekdays

        paired = read_days(with_both_weekdays(text, lexicon), lexicon)
        days = days if isinstance(paired, Refusal) else paired
    if isinstance(days, Refusal):
        figures = sum(map(str.isdigit, text)) + ("noon" in (low := text.casefold()) or "midnight" in low)
        clock_first = re.match(_CLOCK_FIRST, text) if figures > 1 else None  # a time and a day
        if clock_first:
            turned = read_days(clock_first["days"], lexicon)
            times = read_times(clock_first["times"])
            if not isinstance(turned, Refusal) and not turned.rest and isinstance(times, Times):
                return _joined(turned.first, turned.last, times)
        return days
    if not days.rest:
        return Moment(days.first, days.last)
    rest = re.sub(_JOINT, "", days.rest).strip("() ")
    if days.first.has_short_year and re.search(_TWO_YEARS, text):
        message = f"“{rest[:4]}” behind the date could be its year, or a time."
        return Refusal(
            "date-rest", message, "Write the year in four figures, or the time with a colon, 20:30."
        )
    if is_cut_year(rest):
        remedy = "Write the year in four figures, or the time with a colon, 2:06."
        return Refusal("date-rest", f"“{rest}” behind the date is no year, and hardly a time.", remedy)
    times = read_times(rest) if rest else Times()
    if isinstance(times, Refusal) or re.fullmatch(_NO_TIME, days.rest):
        bare = without_remark(text)
        if bare is not None and not says_called_off(text[len(bare) :].strip(" ()")):
            said = _days_and_times(bare, lexicon)
            return said if isinstance(said, Refusal) else said._replace(notes=(*said.notes, "date-remark"))
        bare, count = without_count(text)
        counted = _days_and_times(bare, lexicon) if count and days.last is not None else None
        if (
            isinstance(counted, Moment)
            and counted.last
            and days_between(counted.first, counted.last) == count
        ):
            return counted
        # “5 April 2027 9:30 – 7 April 2027 16:00”: a moment, a dash, a moment
        ends = re.split(r"\s+(?:[-–—~]|to|until|bis|au|al|tot)\s+", text, maxsplit=1)
        if len(ends) == 2:
            first, last = (_days_and_times(end, lexicon) for end in ends)
            if isinstance(first, Moment) and isinstance(last, Moment) and last.start and not first.last:
                return Moment(first.first, last.first, first.start, last.start, notes=("moment-to-moment",))
        if not isinstance(read_days(rest.lstrip("; &+"), lexicon), Refusal):
            return Refusal("date-several", f"“{text}” names several days.", "Give each day a row of its own.")
        remedy = times.remedy if isinstance(times, Refusal) else ""
        return rest_refused(days.rest, remedy)
    return _joined(days.first, days.last, times)


def _joined(first: Day, last: Day | None, times: Times) -> Moment:
    return of_times(times)._replace(first=first, last=last)


def of_times(times: Times) -> Moment:
    """Times alone as a moment."""
    return Moment(
        start=times.start,
        end=times.end,
        is_all_day=times.is_all_day,
        is_unknown=times.is_unknown,
        notes=times.notes,
    )
