"""Lines above and below weekly rows by which these are held less often: `Fortnightly`, `Term time only`, `* from 1 February`."""

import re
from collections.abc import Collection, Iterator
from itertools import islice
from typing import Final

from nomarium.model.limits import MOST_TABLE_ROWS
from nomarium.model.problem import Problem
from nomarium.reading.cells.oftenwords import SOME_WEEKS
from nomarium.reading.cells.words import ENGLISH
from nomarium.reading.rows.barred import barred_in
from nomarium.reading.rows.datewithin import date_within
from nomarium.reading.rows.saidbeside import TERM_TIME
from nomarium.sheets.sheet import Sheet, cell_text

_LONGEST: Final = 200
"""Longer lines are about more than when something is held."""
_NTH: Final = r"(?:1st|2nd|3rd|4th|first|second|third|fourth|last)"
_HOW_OFTEN: Final = re.compile(
    rf"(?i)\b(?:{SOME_WEEKS}|{_NTH}(?: (?:and|&) {_NTH})? weeks? (?:of|in) (?:the|each|every) month|"
    r"(?:meets?|held|runs?|take place) (?:only )?monthly|monthly (?:clubs?|class(?:es)?|meetings?|sessions?|groups?))\b"
)
_MARK: Final = re.compile(r"(?P<mark>[*†‡§#]+|\((?:\d|[a-z])\))\s*[:=–-]?\s*(?P<rest>\S.*)", re.DOTALL)


def often_lines(sheet: Sheet, heard: Collection[int], knows_days_off: bool) -> Iterator[Problem]:
    """A problem for each line beside weekly rows that says how often these are held, that they are not in holidays which nothing says, or
    when those of a mark are. `heard`: the numbers of lines whose dates are heard."""
    rows = islice(sheet.rows(), MOST_TABLE_ROWS)
    texts = [(number, [*filter(None, map(cell_text, row))]) for number, row in rows]
    lone = [(number, row[0]) for number, row in texts if len(row) == 1 and len(row[0]) <= _LONGEST]
    cells = {text for _, row in texts if len(row) > 1 for text in row} if lone else set()
    for number, text in lone:
        if text in cells:
            continue
        marked = _MARK.fullmatch(text)
        is_of_some = marked is not None and any(marked["mark"] in one for one in cells)
        place = sheet.place(number)
        if (often := _HOW_OFTEN.search(text)) is not None:
            message = (
                f"“{often[0]}” says how often, and what stands beside this line would be held every week."
            )
            remedy = "Say it in the rows of a list, “every other Monday” for Monday, and take the line out; or take it out if it is about something else."
            yield Problem("line-often", message, remedy, place, text)
        elif marked is not None and is_of_some and _says_when(marked["rest"]):
            message = f"It says when what is marked with {marked['mark']} is held, and the others would be held likewise."
            remedy = (
                "Make it a list in which each class has a First day and a Last day, and take the line out."
            )
            yield Problem("line-marked", message, remedy, place, text)
        elif number not in heard and not knows_days_off and _names_holidays(text):
            message = "It leaves out holidays, and nothing says when they are."
            remedy = "Give --days-off FILE or --public-holidays CODE; or take the line out."
            yield Problem("days-off-missing", message, remedy, place, text)


def _says_when(text: str) -> bool:
    return date_within(f"{text} ·", ENGLISH) is not None or barred_in(text, ENGLISH) is not None


def _names_holidays(text: str) -> bool:
    barred = barred_in(text, ENGLISH)
    return (barred is not None and barred.are_holidays) or TERM_TIME.search(text) is not None
