"""Columns that belong to one date or say several dates of a row: `Date` and `Year`; `Date 1`, `Date 2`, `Date 3`."""

import datetime as dt
import re
from collections.abc import Collection, Iterable, Iterator, Mapping, Sequence
from typing import NamedTuple

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem, note
from nomarium.model.wording import listed
from nomarium.reading.cells.words import Lexicon
from nomarium.reading.columns.column import Column
from nomarium.reading.columns.daycells import looks_like_date
from nomarium.reading.columns.head import TableHead
from nomarium.reading.columns.headings import match_exactly, normal
from nomarium.reading.options import ReadingOptions
from nomarium.sheets.sheet import Row, Sheet, cell_text

_COUNTED = frozenset(
    "day session meeting class lesson workshop part visit seance tag termin sitzung treffen sesion dia".split()
)
"""What is counted in headings over the dates of one thing, `Day 1`, `Day 2`; the time of its row holds on each."""
_YEARS = frozenset("year yr annee jahr ano jaar anno".split())


class DateJoins(NamedTuple):
    """The columns whose cells go into the first of them, which then holds the date, or several."""

    columns: tuple[int, ...]
    headings: tuple[str, ...]
    joint: str
    """What parts them in a cell: a comma between several days, a space before a year."""

    def renamed(self, head: TableHead) -> TableHead:
        """The head of the table whose first such column holds all of it."""
        headings = list(head.headings)
        headings[self.columns[0]] = ", ".join(self.headings)
        for at in self.columns[1:]:
            headings[at] = ""
        return head._replace(headings=tuple(headings))

    def asking(self, options: ReadingOptions, head: TableHead) -> ReadingOptions:
        """Options that make the column the date, if the person did not choose another field."""
        return options._replace(columns={head.headings[self.columns[0]]: "date", **options.columns})

    def told(self, sheet: Sheet, columns: list[Column], filled: Collection[str]) -> Problem:
        """A note of what was put together."""
        at = self.columns[0]
        if columns[at].field == "date":
            columns[at] = columns[at]._replace(how="heading", evidence="put together from several columns")
        named = listed([f"“{heading}”" for heading in self.headings])
        message = (
            f"Each date under {named} is an event of its row."
            if self.joint == ", "
            else f"Dates are put together from {named}."
        )
        return note("date-joined", message).at(sheet.place(None, at, columns[at].heading))

    def joined(self, rows: Iterable[Row]) -> Iterator[Row]:
        """Rows whose first such column holds what the others said; their cells are blank."""
        for number, row in rows:
            cells = [*row, *[""] * (max(self.columns) + 1 - len(row))]
            texts = [_text(cells[at]) for at in self.columns]
            said = [text for text in texts if text]
            cells[self.columns[0]] = (
                self.joint.join(said)
                if len(said) > 1
                else next((cells[at] for at in self.columns if _text(cells[at])), "")
            )
            for at in self.columns[1:]:
                cells[at] = ""
            yield number, cells


def _text(cell: Cell) -> str:
    """A cell as it stands in a list of days: a workbook's own date without its midnight."""
    if isinstance(cell, dt.datetime) and cell.time() == dt.time(0):
        return cell.date().isoformat()
    return cell_text(cell)


def find_date_joins(
    headings: Sequence[str], sample: Sequence[Sequence[Cell]], asked: Mapping[str, str], lexicon: Lexicon
) -> DateJoins | None:
    """The columns to put together, or None. A column that the person chose a field for, `asked`, stands by itself."""
    chosen = {normal(heading) for heading in asked}
    plain = [name if (name := normal(heading)) not in chosen else "" for heading in headings]
    return _numbered(headings, plain, sample, lexicon) or _with_year(headings, plain, sample, lexicon)


def _numbered(
    headings: Sequence[str], plain: Sequence[str], sample: Sequence[Sequence[Cell]], lexicon: Lexicon
) -> DateJoins | None:
    """Two columns or more headed as dates and told apart by nothing but a number."""
    is_timed = any(
        (time := match_exactly(name)) and time.field in ("time", "start") for name in plain if name
    )
    found = [
        at
        for at, name in enumerate(plain)
        if (match := re.fullmatch(r"(.+?) ?\d{1,2}", name))
        and (_heads_dates(match[1]) or (is_timed and match[1] in _COUNTED))
    ]
    if any(
        name and (ends := match_exactly(re.sub(r" ?\d+$", "", name))) is not None and ends.field == "end-date"
        for name in plain
    ):
        return None  # several stretches
    stems = {re.sub(r" ?\d+$", "", plain[at]) for at in found}
    if len(found) < 2 or len(stems) > 1 or not all(_are_dates(at, sample, lexicon) for at in found):
        return None
    if any(
        _heads_dates(name)
        for at, name in enumerate(plain)
        if at not in found and _are_dates(at, sample, lexicon)
    ):
        return None
    return DateJoins(tuple(found), tuple(headings[at] for at in found), ", ")


def _with_year(
    headings: Sequence[str], plain: Sequence[str], sample: Sequence[Sequence[Cell]], lexicon: Lexicon
) -> DateJoins | None:
    """One column of dates, none of them with a year, beside one of years."""
    years = [at for at, name in enumerate(plain) if name in _YEARS]
    dates = [at for at, name in enumerate(plain) if _heads_dates(name)]
    if len(years) != 1 or len(dates) != 1:
        return None
    texts = [cell_text(row[years[0]]) for row in sample if years[0] < len(row)]
    said = [cell_text(row[dates[0]]) for row in sample if dates[0] < len(row)]
    if not all(re.fullmatch(r"(?:19|20)\d\d", text) for text in texts if text) or not any(texts):
        return None
    if any(re.search(r"\d{4}|['’]\d\d|\d[/.-]\d+[/.-]\d", text) for text in said) or not _are_dates(
        dates[0], sample, lexicon
    ):
        return None
    return DateJoins((dates[0], years[0]), (headings[dates[0]], headings[years[0]]), " ")


def _heads_dates(name: str) -> bool:
    match = match_exactly(name) if name else None
    return match is not None and match.field == "date" and not match.is_weak


def _are_dates(at: int, sample: Sequence[Sequence[Cell]], lexicon: Lexicon) -> bool:
    cells = [row[at] for row in sample if at < len(row) and cell_text(row[at])]
    return bool(cells) and all(looks_like_date(cell, lexicon) for cell in cells[:50])
