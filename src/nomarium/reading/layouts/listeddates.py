"""A line that says one thing and several dates of it: `Garden waste: 5 Oct, 2 Nov, 7 Dec 2026`."""

import re
from typing import Final, NamedTuple

from nomarium.reading.cells.moments import Moment, read_moment
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.layouts.linetimes import time_in, with_clocks
from nomarium.reading.layouts.textlines import is_named
from nomarium.reading.rows.datewithin import COUNTED

_PARTS: Final = r"\s*(?:[,;&+]|\b(?:and|und|et|y)\b)\s*(?:and\s+)?"
_LABEL_FIRST: Final = re.compile(r"^(?P<label>[^:]{2,60}?)\s*(?::|\s[–—-])\s+(?P<dates>\S.*)$")
_DATES_FIRST: Final = re.compile(r"^(?P<dates>[^:]+?)\s*(?::|\s[–—-])\s+(?P<label>\D{2,60})$")
_FIGURES_FIRST: Final = re.compile(
    r"(?P<dates>\d{1,2}\.\d{1,2}\.(?:\d{2,4})?(?:(?:,\s*|\s+und\s+)\d{1,2}\.\d{1,2}\.(?:\d{2,4})?)+)[\s:,–-]+(?P<label>[^\W\d].*)"
)
"""`25.12., 26.12. Weihnachten`."""
_FIGURES: Final = re.compile(r"\d{1,2}/\d{1,2}|\d{1,2}\.\d{1,2}\.")
_COUNTED: Final = rf"\b(?:{'|'.join(sorted(COUNTED))})\s+\d{{1,2}}$"
"""A label that ends with its number, `Menu week 1`."""
_YEAR: Final = r"\b(\d{4})$"


class Listed(NamedTuple):
    title: str
    dates: str
    """As one cell of a list has them, with their years."""
    time: str


def listed_dates(text: str, lexicon: Lexicon) -> Listed | None:
    """The dates of a line, each with the year that stands after a later one, and the time that stands after the last; None
    for a line of another kind."""
    clocked = with_clocks(text)
    figures = _FIGURES_FIRST.match(clocked)
    if figures is not None and not any(map(str.isdigit, time_in(figures["label"])[1])):
        time, label = time_in(figures["label"])
        return Listed(label.strip(" :–—-,"), figures["dates"], time)
    for form in (_LABEL_FIRST, _DATES_FIRST):
        match = form.match(clocked)
        if match is None or any(map(str.isdigit, re.sub(_COUNTED, "", fold(match["label"])))):
            continue
        pieces = [piece.strip() for piece in re.split(_PARTS, match["dates"].strip(" ,;")) if piece.strip()]
        time = ""
        if not _FIGURES.fullmatch(pieces[-1]):
            time, last = time_in(pieces.pop())
            pieces += filter(None, [last.strip(" .,;")])
        pieces = _with_their_months(pieces, lexicon)
        months = [_month_of(piece, lexicon) for piece in pieces]
        if len(pieces) > 1 and None not in months:
            return Listed(
                match["label"].strip(" :–—-"), _with_years(pieces, [month or 0 for month in months]), time
            )
    return None


def _with_their_months(pieces: list[str], lexicon: Lexicon) -> list[str]:
    """Pieces of which a bare day, `1` before `2 September 2026`, has the month of the next one."""
    found: list[str] = []
    month = ""
    for piece in reversed(pieces):
        named = re.fullmatch(
            r"(?:[^\W\d_]+\.?\s+)?\d{1,2}(?:st|nd|rd|th|\.)?\s+(?P<month>[^\W\d_]{3,}\.?)(?:,?\s+\d{4})?",
            piece,
        )
        if named is not None and fold(named["month"]).strip(".") in lexicon.months:
            month = named["month"]
        bare = re.fullmatch(r"(?:(?P<weekday>[^\W\d_]+)\.?\s+)?\d{1,2}(?:st|nd|rd|th)?", piece)
        is_bare = bare is not None and (
            not bare["weekday"] or fold(bare["weekday"]).strip(".") in lexicon.weekdays
        )
        found.append(f"{piece} {month}" if is_bare and month else piece)
    return found[::-1]


def _month_of(piece: str, lexicon: Lexicon) -> int | None:
    """The month of a text that is a date with its name, and nothing else."""
    moment = read_moment(piece, "date", lexicon)
    if (
        not isinstance(moment, Moment)
        or moment.first is None
        or moment.last is not None
        or moment.start is not None
    ):
        return None
    months = {reading.month for reading in moment.first.readings}
    if _FIGURES.fullmatch(piece):
        return 0  # which of the two is the month, its column settles
    return months.pop() if is_named(piece, lexicon) and len(months) == 1 else None


def _with_years(pieces: list[str], months: list[int]) -> str:
    """Dates that run on, with the year of the next one that says it; over the end of a year it is the one before."""
    found: list[str] = []
    year, following = "", 0
    for piece, month in zip(reversed(pieces), reversed(months), strict=True):
        said = re.search(_YEAR, piece)
        if said is not None:
            year = said[1]
        elif year:
            year = str(int(year) - (month > following))
            piece = f"{piece} {year}"
        found.append(piece)
        following = month
    return ", ".join(reversed(found))
