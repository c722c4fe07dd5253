"""Tables whose headings say what happens, or in which term, and whose cells list days: `Road`, `Recycling`, `Refuse` over
`4 Jan, 18 Jan, 1 Feb`."""

import datetime as dt
import re
from typing import Final, NamedTuple

from nomarium.model.cell import Cell
from nomarium.model.problem import note
from nomarium.reading.cells.titleparts import followed
from nomarium.reading.cells.words import fold
from nomarium.reading.columns.datelists import days_in
from nomarium.reading.columns.daycells import looks_like_date
from nomarium.reading.columns.headings import match_exactly
from nomarium.reading.layouts.codes import is_idle
from nomarium.reading.layouts.eventlist import list_in
from nomarium.reading.layouts.layout import NotRead, Reading, Top, not_read
from nomarium.reading.layouts.monthheads import month_head
from nomarium.sheets.sheet import Row, cell_text, is_blank

_HEAD_ROWS: Final = 20
_HEADINGS: Final = ("Date", "Title")
_OF_ALL: Final = frozenset(("location", "room", "description", "categories", "organizer", "url", "time"))
"""What a column beside the days may say of all that happens in its row."""
_TERM: Final = (
    r"(?:.*\b)?(?:autumn|fall|winter|spring|summer|michaelmas|lent|trinity|hilary|terms?|semesters?|trimesters?|quarters?|halfs?|half year|dates?|days?"
    r"|[tq]\s?[1-4]|automne|hiver|printemps|ete|trimestre|semestre|herbst|fruhling|fruhjahr|sommer|halbjahr|termine?)\b.*"
)
"""Headings that say when and not what: the days below them are of what begins their row."""


_NUMBERS: Final = r"(?i)\d{1,2}(?:st|nd|rd|th)?(?:(?:\s*[,;&/+]\s*|\s+and\s+)\d{1,2}(?:st|nd|rd|th)?)*"
"""Days by their numbers alone."""


class _Columns(NamedTuple):
    head: Row
    days: dict[int, str]
    """Column of days → its heading."""
    others: tuple[int, ...]
    body: tuple[Row, ...]
    above: tuple[Row, ...]
    are_months: bool
    """Whether each row begins with its month, and its cells have the numbers of days."""


def look(top: Top) -> Reading | NotRead:
    """Read a table of labels against headings whose cells list days as a list of these, or say why it is none."""
    sheet = top.sheet
    columns = _columns_of(top)
    if columns is None:
        message = f"{sheet.title} has no days listed under headings that say what happens."
        return not_read(sheet, "no-weekdays", "its cells list no days", "date-column-missing", message)
    number, head = columns.head
    are_terms = not columns.are_months and all(
        re.fullmatch(_TERM, fold(heading)) for heading in columns.days.values()
    )

    def rows() -> list[Row]:
        found: list[Row] = [(number, [*_HEADINGS, *(cell_text(head[at]) for at in columns.others)])]
        for at, row in columns.body:
            label = cell_text(row[0])
            said = [row[n] if n < len(row) else "" for n in columns.others]
            dated = [n for n in columns.days if n < len(row) and cell_text(row[n])]
            if not dated:
                found.append((at, ["", " ".join(filter(None, map(cell_text, row)))]))
            for n in dated:
                if not is_idle(cell_text(row[n])):
                    heading = columns.days[n]
                    is_all = not label or columns.are_months
                    title = label if are_terms and label else heading if is_all else followed(label, heading)
                    found.append((at, [row[n], title, *said]))
        return found

    named = ", ".join(f"“{heading}”" for heading in columns.days.values())
    what = "what begins a row" if are_terms else "what begins a row, with the heading"
    what = "what the heading says, in the month that begins the row" if columns.are_months else what
    message = f"The cells under {named} list days: on each is {what}."
    told = note("layout-head-days", message, "If not: --as events.").at(sheet.place())
    above = [(n, " ".join(filter(None, map(cell_text, row)))) for n, row in columns.above]
    listed = sheet._replace(
        read_rows=rows,
        merged=(),
        notes=(*sheet.notes, told),
        said_above=(*sheet.said_above, *above),
    )
    return list_in(Top(listed, top.options._replace(header_row=number), top.is_whole), listed, top.seen)


def _in_month(cell: Cell, month: Cell) -> Cell:
    """A cell that has the numbers of days, `3, 17`, with the month of its row behind them; any other as it is."""
    text = cell_text(cell)
    named = f"{month:%B %Y}" if isinstance(month, dt.date) else cell_text(month)
    return f"{text} {named}" if re.fullmatch(_NUMBERS, text) else cell


def _columns_of(top: Top) -> _Columns | None:
    """The columns, where every cell right of the labels lists days or says that there are none, and some list several."""
    rows = [one for one in top.sheet.rows() if not is_blank(one[1])]
    for at, (number, row) in enumerate(rows[:_HEAD_ROWS]):
        headed = [n for n, cell in enumerate(row) if n and cell_text(cell)]
        below = rows[at + 1 :]
        are_months = len(below) > 1 and all(row and month_head(row[0], top.lexicon) for _, row in below)
        body = (
            [(n, [row[0], *(_in_month(cell, row[0]) for cell in row[1:])]) for n, row in below]
            if are_months
            else below
        )
        if len(headed) < 2 or not body:
            continue
        if any(looks_like_date(cell, top.lexicon) for cell in row) or not all(r[0] != "" for _, r in body):
            return None
        fields = {n: match.field for n in headed if (match := match_exactly(cell_text(row[n])))}
        others = tuple(n for n in headed if fields.get(n) in _OF_ALL)
        days = {n: cell_text(row[n]) for n in headed if n not in others}
        cells = [r[n] for _, r in body for n in days if n < len(r) and cell_text(r[n])]
        width = max(len(r) for _, r in body)
        unheaded = [
            n
            for n in range(1, width)
            if n not in headed and any(n < len(r) and cell_text(r[n]) for _, r in body)
        ]
        if len(days) < 2 or unheaded:
            return None
        counts = [days_in(cell, top.lexicon) for cell in cells if not is_idle(cell_text(cell))]
        if max(counts, default=0) < 2 or not all(counts):
            return None
        return _Columns((number, row), days, others, tuple(body), tuple(rows[:at]), are_months)
    return None
