"""Lines of text under weekdays, `Mondays` over `6pm Knots, Loft 1`, or behind one: weekly events of the weeks that the person names."""

import datetime as dt
import re
from collections.abc import Mapping, Sequence
from typing import Final, NamedTuple

from nomarium.model.problem import Problem, note
from nomarium.model.wording import WEEKDAYS
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.layouts.layout import NotRead, not_read
from nomarium.reading.layouts.linesfound import Found
from nomarium.reading.layouts.weekly import without_weeks
from nomarium.reading.layouts.weeklylines import weekly_lines
from nomarium.reading.options import ReadingOptions, in_one_week
from nomarium.reading.rows.datewithin import date_within
from nomarium.sheets.sheet import Row, Sheet, cell_text

_ALONE: Final = re.compile(r"(?i)\W*(?:every\s+)?(?P<day>[^\W\d_]{2,})\W*")
_BEFORE: Final = re.compile(
    r"(?i)(?P<lead>\W*)(?:every\s+)?(?P<day>[^\W\d_]{2,})[\s.,:–-]+(?=(?:at\s+|from\s+)?\d{1,2}(?:[:.]\d\d|\s?[ap]\.?m\b|\s?(?:[ap]\.?m\.?)?\s?(?:[-–—]|to)\s?\d))"
)
"""A weekday before a time of day; of `Monday 7` the figure may be a day of the month."""
_LABEL: Final = re.compile(
    r"(?i)(?P<lead>\W*)(?:every\s+)?(?P<day>[^\W\d_]{2,})(?:\s*:|\s+[–—-])\s+(?=[^\W\d].*?(?:\d[:.]\d\d|\d\s?[ap]\.?m\b))"
)
"""A weekday before what is on and its time, `Monday: Chess, 3.30–4.30`."""
_TIMED: Final = re.compile(r"(?i)\d{1,2}[:.]\d\d|\d\s?[ap]\.?m\b|\b\d{1,2}\s?[-–—]\s?\d{1,2}\b|\bnoon\b")
_MONDAY: Final = dt.date(2040, 1, 2)
"""Of a week in which no text is dated: its days stand for the weekdays while lines are read."""
_STANDS_FOR: Final = re.compile(rf"(?:[^\W\d_]+ )?(?P<day>[2-8]) January {_MONDAY.year}")


class WeekdayLines(NamedTuple):
    """Lines whose weekdays are dates of one week, which stand for them."""

    lines: list[Row]
    passed: Mapping[int, str]
    """Lines that say when it is held, or when not, and are blank in `lines`."""
    options: ReadingOptions
    closed: frozenset[int]
    """Days (ordinals) on which nothing is held."""
    notes: tuple[Problem, ...]
    problems: tuple[Problem, ...]


def weekday_lines(
    sheet: Sheet, lines: Sequence[Row], lexicon: Lexicon, options: ReadingOptions
) -> WeekdayLines | NotRead | None:
    """The lines of a text that names weekdays over its times, or before them, and no dates but those of its weeks; why they
    cannot be read where nothing says these. None for any other text."""
    texts = {number: cell_text(row[0]) if row else "" for number, row in lines}
    days = {number: day for number, text in texts.items() if (day := _day(text, lexicon)) is not None}
    if not days or not any(_TIMED.search(texts[number]) for number in texts if number >= min(days)):
        return None
    if "date" in options.defaults and len(set(days.values())) > 1:
        message = f"{sheet.title} names weekdays, and --set date puts what is under each on one day."
        remedy = "Say from when to when they repeat, --from 2026-09-07 --until 2026-12-18; or give each weekday its date."
        return not_read(sheet, "no-weeks", "it names weekdays", "weeks-missing", message, remedy)
    if sheet.said_above or "date" in options.defaults:  # `Monday 7pm` in a message is the next one
        return None
    options = in_one_week(options)
    sheet = sheet._replace(unit="line")
    beside = weekly_lines(sheet._replace(read_rows=lambda: iter(lines), merged=()), 0, options)
    others = (text for number, text in texts.items() if number not in beside.passed)
    if any(date_within(f"{text} ·", lexicon) is not None for text in others):
        return None
    options = beside.options
    if options.repeats_from is None or options.repeats_until is None:
        is_labelled = all(
            _LABEL.match(texts[number]) for number in days
        )  # days of a week above them, perhaps
        return None if is_labelled else without_weeks(sheet, options)
    dated: list[Row] = [
        (number, ["" if number in beside.passed else _dated(texts[number], days.get(number))])
        for number, _ in lines
    ]
    message = (
        f"The weekdays of the text repeat every week from {options.repeats_from} to {options.repeats_until}."
    )
    told = note("weekly", message).at(sheet.place(min(days)))
    return WeekdayLines(dated, beside.passed, options, beside.closed, (told, *beside.notes), beside.problems)


def on_weekdays(found: Found, weekly: WeekdayLines, texts: Mapping[int, str]) -> Found:
    """What lines came to, with the weekdays again in place of the dates that stood for them."""
    rows: list[Row] = [
        (number, (_STANDS_FOR.sub(_phrase, str(cells[0])), *cells[1:])) for number, cells in found.rows
    ]
    refused = [(number, texts.get(number, text), why) for number, text, why in found.refused]
    above = [(number, text) for number, text in found.above if not _STANDS_FOR.search(text)]
    return found._replace(
        rows=rows,
        refused=refused,
        above=above,
        notes=found.notes + len(weekly.passed),
        sample=_STANDS_FOR.sub(_phrase, found.sample),
    )


def _day(text: str, lexicon: Lexicon) -> int | None:
    """The weekday that a line is, or that its time stands behind."""
    match = _ALONE.fullmatch(text) or _BEFORE.match(text) or _LABEL.match(text)
    if match is None:
        return None
    name = fold(match["day"]).strip(".")
    return lexicon.weekday(name)


def _dated(text: str, day: int | None) -> str:
    if day is None:
        return text
    date = _MONDAY + dt.timedelta(day)
    named = f"{WEEKDAYS[day]} {date.day} January {date.year}"
    match = _BEFORE.match(text) or _LABEL.match(text)
    return named if match is None else f"{match['lead']}{named} {text[match.end() :]}"


def _phrase(match: re.Match[str]) -> str:
    return f"every {WEEKDAYS[int(match['day']) - _MONDAY.day]}"
