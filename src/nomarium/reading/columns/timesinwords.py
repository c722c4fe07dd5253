"""Times that a table says in words and not in a column: its events would be all-day without a word about it."""

import re
from collections.abc import Collection, Sequence
from itertools import islice
from typing import Final

from nomarium.model.problem import Problem, note
from nomarium.reading.columns.column import Column
from nomarium.reading.columns.head import TableHead
from nomarium.reading.options import ReadingOptions
from nomarium.sheets.sheet import Row, Sheet, cell_text

_CLEAR_TIME: Final = r"(?i)(?<![\d.:])\d{1,2}(?:[:.]\d\d)?\s?[ap]\.?m\b|(?<![\d.:])\d{1,2}:\d\d(?![\d:])|(?<![\d.:])\d{1,2}h(?:\d\d)?\b|(?<![\d.:])\d{1,2}(?:[:.]\d\d)?\s?(?:uhr|uur|heures|horas)\b|\bnoon\b|(?<![\d.:])(?:1?\d|2[0-3])\.[0-5]\d\s?[-–—]\s?(?:1?\d|2[0-3])\.[0-5]\d(?![\d.])"

_DOTTED: Final = r"(?:^|[\s(])(?:1?\d|2[0-3])\.[0-5][05](?:$|[\s):,])"
"""A time with a dot, or a number that is none: nobody knows."""
_SAYS_WHEN: Final = r"(?i)\W*(?:(?:times?|starts?|begins?|from|at|open)\b|\d)"
"""How words begin that say when something is, `Starts 2pm`, `9am start`."""
_BOOKKEEPING: Final = r"(?i)(?:last\s+)?(?:printed|exported|updated|saved|changed|generated|created|downloaded|imprimé|gedruckt|as (?:of|at))\b"
"""How lines begin that say when the table itself was made."""


def times_in_words(
    sheet: Sheet,
    head: TableHead,
    columns: Sequence[Column],
    rows: Sequence[Row],
    options: ReadingOptions,
    in_titles: Collection[int] = (),
) -> list[Problem]:
    """Notes about times in titles, or in the columns that these are made of (`in_titles`), and above the table, when nothing else
    says any: no column, and none of the fields that `--set` and `--override` give."""
    fields = {column.field: column.at for column in columns}
    given = options.defaults.keys() | options.overrides.keys()
    if fields.keys() & {"end", "duration", "all-day"} or {"start", "all-day"} & given:
        return []
    titles = [*in_titles] or [at for at in (fields.get("summary"),) if at is not None]
    beside = [column.at for column in columns if column.field == "description"]
    timed = next((one for one in ("start", "time") if one in fields), "")
    if timed:
        at = fields[timed]
        untimed = [(number, row) for number, row in rows if at >= len(row) or not cell_text(row[at])]
        above = _above(sheet, head, timed, "some of its rows") if untimed else []
        return [*_in_titles(sheet, titles, untimed), *_in_words_beside(sheet, beside, untimed), *above]
    days = {fields[one] for one in ("date", "when") if one in fields}
    dates = [cell_text(row[at]) for _, row in rows for at in days if at < len(row)]
    if any(":" in text or ("when" in fields and says_time(text)) for text in dates):
        return []
    return [
        *_in_titles(sheet, titles, rows),
        *_in_words_beside(sheet, beside, rows),
        *_above(sheet, head, "start", "its rows"),
    ]


def _in_words_beside(sheet: Sheet, beside: Sequence[int], rows: Sequence[Row]) -> list[Problem]:
    """A note of times in a column of remarks, of which most have one, or begin with one."""
    for at in beside:
        texts = [(number, text) for number, row in rows if at < len(row) and (text := cell_text(row[at]))]
        timed = [(number, text) for number, text in texts if holds_time(text)]
        if timed and (len(timed) * 2 >= len(texts) or any(re.match(_SAYS_WHEN, text) for _, text in timed)):
            number, text = next((one for one in timed if re.match(_SAYS_WHEN, one[1])), timed[0])
            shown = " ".join(text.split())[:60]
            message = f"Words beside the rows hold times (row {number}: “{shown}”), and no column says them: their events last all day."
            remedy = "If these are their times, put them into a column of times."
            return [note("title-timed", message, remedy).at(sheet.place(None, at))]
    return []


def _in_titles(sheet: Sheet, titles: Sequence[int], rows: Sequence[Row]) -> list[Problem]:
    timed = [
        (number, at, text)
        for at in titles
        for number, row in rows
        if at < len(row) and says_time(text := cell_text(row[at]))
    ]
    if not timed:
        return []
    number, title_at, text = timed[0]
    remedy = "If these are their times, put them into a column of times."
    return [title_timed(f"row {number}: “{' '.join(text.split())}”", remedy).at(sheet.place(None, title_at))]


def holds_time(title: str) -> bool:
    return re.search(_CLEAR_TIME, title) is not None


def says_time(text: str) -> bool:
    """Whether a text holds a time, or with a dot what may be one."""
    return holds_time(text) or re.search(_DOTTED, text) is not None


def title_timed(example: str, remedy: str) -> Problem:
    message = f"Titles that hold a time ({example}) stay as they are, and their events last all day."
    return note("title-timed", message, remedy)


def _above(sheet: Sheet, head: TableHead, field: str, whose: str) -> list[Problem]:
    if not head.title_rows:
        return []
    above = {
        number: " ".join(filter(None, map(cell_text, row)))
        for number, row in islice(sheet.rows(), head.first_row)
    }
    for number in head.title_rows:
        match = re.search(_CLEAR_TIME, above.get(number, ""))
        if match is not None and not re.match(_BOOKKEEPING, above[number]):
            message = f"Above the table stands a time (“{above[number]}”), and {whose} have none: their events last all day."
            remedy = f'If it is the time of all: --set "{field}={match[0]}".'
            return [note("time-above", message, remedy).at(sheet.place(number))]
    return []
