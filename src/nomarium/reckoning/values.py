"""Texts of dates, times, offsets and lengths as RFC 5545 writes them (3.3.4 to 3.3.6 and 3.3.14), liberally read."""

import datetime as dt
import re

_MOMENT = r"(\d{4})-?(\d\d)-?(\d\d)(?:[T ]?(\d\d):?(\d\d)(?::?(\d\d)(?:\.\d+)?)?\s?(Z|[+-]\d\d:?\d\d)?)?"
_is_plain = re.compile(r"[0-9]{8}T(?:[01][0-9]|2[0-3])[0-5][0-9][0-5][0-9]").fullmatch
_OFFSET = r"([+-])?(\d\d):?(\d\d)(?::?(\d\d))?"


_LENGTH = r"([+-])?P(?=.)(?:(\d{1,9})W)?(?:(\d{1,9})D)?(?:T(?:(\d{1,9})H)?(?:(\d{1,9})M)?(?:(\d{1,9})S)?)?"


def moment_of(text: str) -> tuple[dt.date | dt.datetime, dt.timedelta | None] | None:
    """A date, or a local date-time with its offset from UTC (None where it states none; Z is none at all). None when
    it is in no such form. Raises ValueError when there is no such moment.

    >>> moment_of("20270412T090000Z")
    (datetime.datetime(2027, 4, 12, 9, 0), datetime.timedelta(0))
    """
    if (local := plain_moment(text)) is not None:
        return local, None
    if len(text) == 8 and text.isascii() and text.isdigit():
        return dt.date.fromisoformat(text), None
    match = re.fullmatch(_MOMENT, text, re.IGNORECASE)
    if match is None:
        return None
    year, month, day, hour, minute, second, offset = match.groups()
    date = dt.date(int(year), int(month), int(day))
    if hour is None:
        return date, None
    is_midnight = int(hour) == 24 and int(minute) == 0  # no hour of RFC 5545, yet met
    time = dt.time(0) if is_midnight else dt.time(int(hour), int(minute), min(int(second or 0), 59))
    local = dt.datetime.combine(date, time) + dt.timedelta(days=is_midnight)
    return local, offset_of(offset) if offset else None


def plain_moment(text: str) -> dt.datetime | None:
    """A date-time of fifteen signs, `20270412T090000`, the form of nearly every one; None for other texts, and for odd seconds and
    hours. Raises ValueError when there is no such moment."""
    return dt.datetime.fromisoformat(text) if _is_plain(text) else None


def offset_of(text: str) -> dt.timedelta | None:
    """An offset from UTC (3.3.14), with or without a colon; Z is none at all. None when it is in no such form.

    >>> offset_of("-0330") == -dt.timedelta(hours=3, minutes=30), offset_of("Z")
    (True, datetime.timedelta(0))
    """
    text = text.strip()
    if text in ("Z", "z"):
        return dt.timedelta(0)
    match = re.fullmatch(_OFFSET, text)
    if match is None:
        return None
    size = dt.timedelta(hours=int(match[2]), minutes=int(match[3]), seconds=int(match[4] or 0))
    return -size if match[1] == "-" else size


def length_of(text: str) -> dt.timedelta | None:
    """A DURATION value (3.3.6), or None.

    >>> length_of("-PT15M") == -dt.timedelta(minutes=15), length_of("P1DT2H").days
    (True, 1)
    """
    match = re.fullmatch(_LENGTH, text.strip().upper())
    if match is None:
        return None
    weeks, days, hours, minutes, seconds = (int(part or 0) for part in match.groups()[1:])
    try:
        length = dt.timedelta(weeks=weeks, days=days, hours=hours, minutes=minutes, seconds=seconds)
    except OverflowError:
        return None
    return -length if match[1] == "-" else length
