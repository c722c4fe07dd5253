"""From what the cells of a row say about when, to the start and end of its event."""

import datetime as dt
from typing import TYPE_CHECKING, NamedTuple

from nomarium.model.refusal import BEYOND, Refusal
from nomarium.model.wording import clock_text, counted
from nomarium.reading.cells.lengths import WholeDays
from nomarium.reading.cells.times import DAY_SECS, Clock, end_after
from nomarium.reading.rows.betweendays import REPEATED, rule_between, weekly_or_long
from nomarium.reckoning.zones import after_gap, elapsed, in_zone, local_time_kind

if TYPE_CHECKING:
    from zoneinfo import ZoneInfo

    from nomarium.model.recurrence import Recurrence, Rule

_DAY = dt.timedelta(days=1)
_LONGEST_NIGHT = dt.timedelta(hours=14)


class Part(NamedTuple):
    """What one cell says, its days settled."""

    first: dt.date | None = None
    last: dt.date | None = None
    start: Clock | None = None
    end: Clock | None = None
    is_all_day: bool = False
    is_unknown: bool = False
    offset_secs: int | None = None
    notes: tuple[str, ...] = ()
    refusal: Refusal | None = None
    plain_day: dt.date | None = None
    """The day, when the cell holds one day and nothing else."""
    plain_time: dt.time | None = None
    """The time, when the cell holds one time about which nothing is open, and nothing else."""


NOTHING = Part()


class Blame(NamedTuple):
    """A row that makes no event: the field whose cell is at fault, and why."""

    field: str
    refusal: Refusal


class When(NamedTuple):
    """The start and the exclusive end of an event; dates for an all-day one."""

    start: dt.date | dt.datetime
    end: dt.date | dt.datetime
    zone: str | None
    is_tentative: bool = False
    notes: tuple[str, ...] = ()
    """Codes of `NOTES`."""
    recurrence: "Recurrence | None" = None
    """How it repeats, as the cell of its date says."""
    rule: "Rule | None" = None
    """How a first day, a last day and times repeat in between: on each day, or on one weekday."""


class Said(NamedTuple):
    """The parts of one row that say when."""

    date: Part = NOTHING
    start: Part = NOTHING
    end: Part = NOTHING
    end_date: Part = NOTHING
    time: Part = NOTHING
    duration_secs: int | None = None
    is_all_day: bool | None = None
    zone_name: str | None = None
    zone: "ZoneInfo | None" = None
    spans: str = "whole"
    """What a first day, a last day and times are: an event each day (`daily`), one long one (`whole`), what a repeat
    says (`repeat`), beside weekdays in this row (`weeks`), or open ("")."""
    weekdays: tuple[int, ...] = ()
    """What a column of weekdays says, 0 for Monday."""


_DAYS_FROM_A_TIME = Refusal(
    "length-days", "A length in days beside a start time leaves open when each day ends.",
    "Write it in hours, or give the last day and the end time.",
)  # fmt: skip
END_MISSING = Refusal(
    "end-missing", "It goes on until a later day and has a start time, but no end time.", "Give it an end time, or no times at all."
)  # fmt: skip
_SHORT_LENGTH = 6 * 3600
"""Seconds: shorter lengths are not of days, and not of half ones."""
NOTES = {
    "meridiem-shared": "An end without am or pm takes the first such time after its start.",
    "title-span": "A title that says until which day it lasts is an event until then.",
    "length-behind": "The length in brackets behind a title is that of its event.",
    "arrival-first": "The first of two times with “for” between is when people come: it starts at the second, in the evening where nothing says otherwise.",
    "midnight-end": "An end at midnight (00:00) is read as 24:00, the end of its day.",
    "midnight-start": "A date without a time, in a column whose other cells have one, is read as 00:00.",
    "all-day-beats-times": "The row says all day and gives times too: the times are left out.",
    "all-day-untimed": "The row says that it is not all day and gives no time: it is all-day.",
    "all-day-to-midnight": "An all-day event that ends at 00:00 ends on the day before.",
    "time-unknown": "The time is not known yet: the event is all-day and tentative.",
    "cell-dash": "A dash or “n/a” in place of a time or a last day is read as a blank.",
    "moment-to-moment": "A day with a time, a dash, and another day with a time are one long event.",
    "date-feast": "The name of a feast or a holiday beside a date is not read, but for its weekday.",
    "day-unread": "What stands in the column of weekdays and is none is not used.",
    "date-remark": "Words in brackets, or a star, after a date are a remark and not read.",
    "end-unknown": "The end is not known yet: the event has the default length.",
    "afternoon-doubt": "A time without am or pm is read by the 24-hour clock: 1:30 is in the night. "
    "If the afternoon is meant, write 1:30 pm or 13:30.",
    "week-span": "A date that begins (or ends) a week stands for all seven days of it.",
    "next-morning": "An end earlier than its start is on the next day (it lasts less than 14 hours).",
    "spans-daily": "A first day, a last day and times within a day are an event on each of these days (--spans whole: one long event).",
    "repeat-end-open": "A start, and a last day of a row that repeats, without an end: each date has its length, or the default one.",
    "spans-weekly": "A weekday, a first and a last day and times are an event every week.",
    "serial-number": "A plain number among the dates is read as a spreadsheet's day number.",
    "time-skipped": "The clock change skips this local time: it is moved on by the gap.",
    "heading-time": "The time that stands in the heading of the dates is theirs.",
    "time-repeated": "The clock change repeats this local time: the first is taken.",
    "to-utc": "A time with an offset from UTC, and no --timezone: it is written in UTC.",
}
"""Decisions about a row that are told, by code."""


def settle(row: Said, default_length_secs: int) -> When | Blame:
    """The event's start and end, or what is wrong with the row and in which field."""
    try:
        return _settled(row, default_length_secs)
    except OverflowError:
        return Blame("date", BEYOND)


def _settled(row: Said, default_length_secs: int) -> When | Blame:
    notes: list[str] = []
    for part in row[:5]:
        assert isinstance(part, Part)
        notes += part.notes
    first = row.date.first or row.start.first
    if first is None:
        remedy = "Give it a date, or take the row out."
        return Blame("date", Refusal("date-missing", "The row has no date.", remedy, "missing"))
    if row.start.first and row.start.first != first:
        message = f"The start is on {row.start.first} and the date says {first}."
        return Blame("start", Refusal("date-conflict", message, "Make them agree, or leave one blank."))
    if row.time.first and row.time.first != first:
        message = f"The time is on {row.time.first} and the date says {first}."
        remedy = "A spreadsheet turns 9-10 into a date: type times like 9:00-10:00."
        return Blame("time", Refusal("date-conflict", message, remedy))
    last = _last_day(row, first)
    if isinstance(last, Blame):
        return last
    start, end = _clock(row.time.start, row.start.start, row.date.start), _end_clock(row)
    if isinstance(start, Blame):
        return start
    says_all_day = row.is_all_day or row.time.is_all_day or row.start.is_all_day or row.date.is_all_day
    is_unknown = row.time.is_unknown or row.start.is_unknown or (row.date.is_unknown and start is None)
    if says_all_day or is_unknown or (start is None and end is None):
        if is_unknown:
            notes.append("time-unknown")
        return _all_day(row, first, last, start, end, is_unknown, notes)
    if start is None:
        remedy = "Give it a start time, or leave the end blank."
        return Blame("end", Refusal("start-missing", "There is an end time and no start time.", remedy))
    if row.end.is_unknown:
        notes.append("end-unknown")
    return _timed(row, first, last, start, end, default_length_secs, notes)


def _last_day(row: Said, first: dt.date) -> dt.date | Blame | None:
    found = [
        (name, day)
        for name, day in (
            ("date", row.date.last),
            ("start", row.start.last),
            ("end-date", row.end_date.last or row.end_date.first),
            ("end", row.end.last or row.end.first),
        )
        if day is not None
    ]
    if not found:
        return None
    name, last = found[0]
    for other, day in found[1:]:
        if day != last:
            message = f"The row ends on {last} by one cell and on {day} by another."
            return Blame(other, Refusal("date-conflict", message, "Make them agree, or leave one blank."))
    if last < first:
        message = f"It ends on {last}, before it starts on {first}."
        return Blame(name, Refusal("end-before-start", message, "Correct the first or the last day."))
    return last


def _clock(*clocks: Clock | None) -> Clock | Blame | None:
    """The one time among those that several cells give; a midnight beside another time says nothing."""
    said = [clock for clock in clocks if clock is not None]
    telling = [clock for clock in said if clock.secs] or said
    if len({clock.secs for clock in telling}) > 1:
        times = " and ".join(clock_text(clock.secs) for clock in telling)
        message = f"The row starts at two times, {times}."
        return Blame("start", Refusal("time-conflict", message, "Leave one of them blank."))
    return telling[0] if telling else None


def _end_clock(row: Said) -> Clock | None:
    ends = (row.end.start, row.time.end, row.start.end, row.date.end, row.end_date.start)
    return next((clock for clock in ends if clock is not None), None)


def _all_day(
    row: Said, first: dt.date, last: dt.date | None, start: Clock | None, end: Clock | None,
    is_unknown: bool, notes: list[str],
) -> When | Blame:  # fmt: skip
    if last is None and row.duration_secs is not None and start is None:
        if row.duration_secs % DAY_SECS or not row.duration_secs:
            message = "The row has a length and no start time."
            remedy = "Give it a start time, or leave its length out."
            return Blame("duration", Refusal("start-missing", message, remedy))
        last = first + (row.duration_secs // DAY_SECS - 1) * _DAY
    elif row.duration_secs is not None and 0 < row.duration_secs < _SHORT_LENGTH and start is None:
        message = "The row has a length of hours, a first and a last day, and no start time."
        return Blame(
            "duration", Refusal("start-missing", message, "Give it a start time, or clear its length.")
        )
    elif last is not None and (too_long := _days_too_many(row.duration_secs or 0, first, last)) is not None:
        return Blame("duration", too_long)
    last = last or first
    open_weeks = weekly_or_long(row.weekdays, row.spans, first, last)
    if open_weeks is not None:
        return Blame("end-date", open_weeks)
    if (start and start.secs) or (end and end.secs not in (0, DAY_SECS)):
        if not is_unknown:
            notes.append("all-day-beats-times")
    elif end is not None and end.secs == 0 and last > first:
        last -= _DAY
        notes.append("all-day-to-midnight")
    if row.is_all_day is False and start is None and end is None and not is_unknown:
        notes.append("all-day-untimed")
    return When(first, last + _DAY, None, is_unknown, tuple(notes))


def _days_too_many(length_secs: int, first: dt.date, last: dt.date) -> Refusal | None:
    """Why a length in days cannot be that from a first to a last day: fewer may be nights, or days of work, and
    the last of some weeks need not be over."""
    days, there = length_secs // DAY_SECS, (last - first).days + 1
    if days <= there + (0 if days % 7 else 6):
        return None
    message = f"The length is {counted(days, 'day')}, and from {first} to {last} it is {there}."
    return Refusal("length-conflict", message, "Correct it or leave it blank.")


def _timed(
    row: Said, first: dt.date, last: dt.date | None, start: Clock, end: Clock | None,
    default_length_secs: int, notes: list[str],
) -> When | Blame:  # fmt: skip
    if start.secs == DAY_SECS:
        message = "24:00 ends a day and cannot start one."
        return Blame("start", Refusal("time-impossible", message, "Write 0:00 of the next day."))
    if start.is_doubtful:
        notes.append("afternoon-doubt")
    begins = _moment(first, start.secs)
    if end is None and last is not None and last > first:
        end = _end_of_each(row, first, last, start, default_length_secs, notes)
    if end is not None and last is not None and last > first and not _has_both_ends(row):
        rule = rule_between(row.weekdays, row.spans, first, last, start, end, notes)
        if isinstance(rule, Refusal):
            return Blame("end-date", rule)
        if rule is not None:
            each = row._replace(spans="whole")
            days = (last - first).days + 1
            if rule.freq == "DAILY" and row.duration_secs in (
                days * DAY_SECS,
                days * (end.secs - start.secs),
            ):
                each = each._replace(duration_secs=None)  # the length of all of them together
            alone = _timed(each, first, None, start, end, default_length_secs, notes)
            return alone if isinstance(alone, Blame) else alone._replace(rule=rule)
    if end is not None:
        ends = _end(first, last, start, end, begins, notes)
        if isinstance(ends, Blame):
            return ends
        is_one = row.spans not in REPEATED
        if is_one and row.duration_secs is not None and _length(begins, ends, row.zone) != row.duration_secs:
            message = f"The length is not the time from {begins:%H:%M} to {ends:%H:%M}."
            return Blame("duration", Refusal("length-conflict", message, "Correct it or leave it blank."))
    elif isinstance(row.duration_secs, WholeDays):
        return Blame("duration", _DAYS_FROM_A_TIME)
    elif row.duration_secs is not None:
        ends = elapsed(begins, dt.timedelta(seconds=row.duration_secs), row.zone)
        if last is not None and ends.date() not in (last, last + _DAY):
            message = f"With its length it ends on {ends.date()}, but its last day is {last}."
            return Blame("duration", Refusal("length-conflict", message, "Correct one of them."))
    elif last is not None and last > first:
        return Blame("end", END_MISSING)
    else:
        ends = elapsed(begins, dt.timedelta(seconds=default_length_secs), row.zone)
    return _in_its_zone(row, begins, ends, notes)


def _has_both_ends(row: Said) -> bool:
    """Whether a row says its last moment as one, a day with its time."""
    return bool(row.end.first and row.end.start) or "moment-to-moment" in row.date.notes + row.start.notes


def _end_of_each(
    row: Said, first: dt.date, last: dt.date, start: Clock, default_length_secs: int, notes: list[str]
) -> Clock | None:
    """The end of each date of a row that is held on several from a first to a last day, and says no end: after its length,
    or the usual one where a weekday or a repeat shows that it is held again. None where nothing does."""
    is_weekly = bool(row.weekdays) and (last - first).days > 6
    if row.duration_secs is None and not is_weekly and row.spans not in REPEATED:
        return None
    secs = start.secs + (row.duration_secs if row.duration_secs is not None else default_length_secs)
    if secs > DAY_SECS or (row.spans == "whole" and not is_weekly):
        return None
    if row.spans in REPEATED:
        notes.append("repeat-end-open")
    return Clock(secs, True)


def _end(
    first: dt.date,
    last: dt.date | None,
    start: Clock,
    end: Clock,
    begins: dt.datetime,
    notes: list[str],
) -> dt.datetime | Blame:
    is_stated, last = last is not None, last or first
    if last == first and end.secs == 0 and start.secs > 0:
        notes.append("midnight-end")
        end = Clock(DAY_SECS, True)
    if last == first and end.secs < start.secs and start.has_meridiem and not end.has_meridiem:
        end = end_after(start, end)
        notes.append("meridiem-shared")
    ends = _moment(last, end.secs)
    if ends < begins and not is_stated and ends + _DAY - begins < _LONGEST_NIGHT:
        notes.append("next-morning")
        return ends + _DAY
    if ends < begins:
        message = f"It ends at {clock_text(end.secs)}, before it starts at {clock_text(start.secs)}."
        remedy = "Correct the times; for an end past midnight give the end date too."
        return Blame("end", Refusal("end-before-start", message, remedy))
    return ends


def _moment(day: dt.date, secs: int) -> dt.datetime:
    return dt.datetime(day.year, day.month, day.day) + dt.timedelta(seconds=secs)


def _length(start: dt.datetime, end: dt.datetime, zone: "ZoneInfo | None") -> int:
    if zone is None:
        return round((end - start).total_seconds())
    a, b = start.replace(tzinfo=zone), end.replace(tzinfo=zone)
    return round(b.timestamp() - a.timestamp())


def _in_its_zone(row: Said, begins: dt.datetime, ends: dt.datetime, notes: list[str]) -> When:
    """The event in its zone: offsets that cells state are turned into it, clock changes are told."""
    offset = next((p.offset_secs for p in (row.start, row.date) if p.offset_secs is not None), None)
    if offset is not None:
        end_offset = row.end.offset_secs if row.end.offset_secs is not None else offset
        begins, ends = _utc(begins, offset), _utc(ends, end_offset)
        if row.zone is None or row.zone_name == "UTC":
            if row.zone is None:
                notes.append("to-utc")
            return When(begins.replace(tzinfo=None), ends.replace(tzinfo=None), "UTC", False, tuple(notes))
        begins, ends = in_zone(begins, row.zone), in_zone(ends, row.zone)
    elif row.zone is not None:
        begins, ends = _over_changes(begins, ends, row.zone, notes)
    return When(begins, ends, row.zone_name, False, tuple(notes))


def _over_changes(
    begins: dt.datetime, ends: dt.datetime, zone: "ZoneInfo", notes: list[str]
) -> tuple[dt.datetime, dt.datetime]:
    moved = []
    for moment in (begins, ends):
        kind = local_time_kind(moment, zone)
        if kind == "skipped":
            notes.append("time-skipped")
            moment = after_gap(moment, zone)
        elif kind == "repeated" and "time-repeated" not in notes:
            notes.append("time-repeated")
        moved.append(moment)
    return moved[0], max(moved)


def _utc(moment: dt.datetime, offset_secs: int) -> dt.datetime:
    return (moment - dt.timedelta(seconds=offset_secs)).replace(tzinfo=dt.UTC)


def recurrence_of(rule: "Rule") -> "Recurrence":
    """What a rule makes of a row: its dates, each as long on the clock as the row's own."""
    from nomarium.model.recurrence import Recurrence

    return Recurrence((rule,), starts_itself=False, keeps_length=True)
