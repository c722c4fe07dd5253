"""Lines of a diary whose months and days stand in columns: `JAN   9   Seed order` over `     23   Annual meeting`, or days alone under
a title with their month."""

import re
from collections.abc import Sequence
from itertools import pairwise
from typing import Final, NamedTuple

from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.layouts.monthlines import month_in

_DAYS: Final = (
    r"(?P<day>\d{1,2})(?:st|nd|rd|th)?(?:\s?(?P<sign>[-–/&+])\s?(?P<last>\d{1,2})(?:st|nd|rd|th)?)?"
)
_MONTH_AND_DAY: Final = re.compile(
    rf"\s*(?P<month>[^\W\d_]{{3,9}})\.?(?:\s+|\t){_DAYS}(?:\s{{2,}}|\t)\s*(?P<rest>\S.*)"
)
_DAY: Final = re.compile(rf"\s*{_DAYS}(?:\s{{2,}}|\t)\s*(?P<rest>\S.*)")
_LEAST: Final = 3
_MOSTLY: Final = 0.7
_TITLES: Final = 3
"""Lines above the days, at most, of which one names their month."""


class _Day(NamedTuple):
    at: int
    """Its index among the lines."""
    match: re.Match[str]
    month: str


def with_months_beside(lines: Sequence[tuple[int, str]], lexicon: Lexicon) -> dict[int, str]:
    """Number of a line → the line with its date at its beginning, `23 JAN: Annual meeting`; nothing where the lines are no diary in columns."""
    apart = sum("  " in text or "\t" in text for _, text in lines)
    filled = [at for at, (_, text) in enumerate(lines) if text.strip()]
    if apart < _LEAST or apart < _MOSTLY * (len(filled) - _TITLES):
        return {}
    months = {
        at: match
        for at in filled
        if (match := _MONTH_AND_DAY.fullmatch(lines[at][1])) is not None
        and fold(match["month"]) in lexicon.months
    }
    days = {
        at: match for at in filled if at not in months and (match := _DAY.fullmatch(lines[at][1])) is not None
    }
    if months:
        found = _under_months(filled, months, days)
    else:
        title = next(
            (month for at in filled[:_TITLES] if (month := month_in(lines[at][1].strip(), lexicon))), None
        )
        found = [_Day(at, match, title) for at, match in days.items()] if title is not None else []
    is_diary = len(found) >= _LEAST and days and len(found) >= _MOSTLY * (len(filled) - 1)
    if not is_diary or not all(_goes_on(one, other) for one, other in pairwise(found)):
        return {}
    return {lines[one.at][0]: _dated(one) for one in found}


def _under_months(
    filled: Sequence[int], months: dict[int, re.Match[str]], days: dict[int, re.Match[str]]
) -> list[_Day]:
    found, month = list[_Day](), ""
    for at in filled:
        month = months[at]["month"] if at in months else month
        match = months.get(at) or days.get(at)
        if match is not None and month:
            found.append(_Day(at, match, month))
    return found


def _goes_on(one: _Day, other: _Day) -> bool:
    """Whether a day is not before the one above it in the same month."""
    return one.month != other.month or int(one.match["day"]) <= int(other.match["day"]) <= 31


def _dated(one: _Day) -> str:
    match = one.match
    sign = {"/": " & ", "&": " & ", "+": " & "}.get(match["sign"] or "", match["sign"] or "")
    return f"{match['day']}{sign}{match['last'] or ''} {one.month}: {match['rest']}"
