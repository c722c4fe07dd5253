"""A month matrix: what happens down, months across, and the days of each month in the cells."""

import datetime as dt
import re
from collections.abc import Collection, Sequence
from functools import partial

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem, note
from nomarium.model.wording import counted
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.columns.headings import match_exactly
from nomarium.reading.layouts.codes import is_idle
from nomarium.reading.layouts.drawn import DrawnEntry, after_remarks, date_part
from nomarium.reading.layouts.layout import NotRead, Reading, Top, not_read
from nomarium.reading.layouts.monthheads import Month, months_across, months_by_letter, with_years
from nomarium.reading.layouts.onside import turned
from nomarium.reading.layouts.slippedmonths import slipped_months
from nomarium.reading.layouts.slots import time_of
from nomarium.reading.layouts.unusedcolumns import unused_columns
from nomarium.reading.rows.when import NOTHING, Part
from nomarium.sheets.sheet import Row, cell_text, is_blank

_FEW = 2
_SPAN_OF_DAYS = r"^\s*\d{1,2}\s*(?:[-–&]|\band\b)\s*\d{1,2}"
_BEFORE_TIME = r"(?i),\s*(?:at\s+|@\s*)?(?=\d{1,2}(?:[:.]\d\d)?\s?[ap]\.?m|\d{1,2}:\d\d|noon\b)"
"""What parts a day from its time, `20th, 2pm`, and no two days."""
_PIECE = (
    r"(?:(?P<weekday>[^\W\d_]+)\.?\s+)?(?P<first>\d{1,2})(?:st|nd|rd|th|er|\.)?(?:[\s-]+(?P<month>(?!noon|midday)[^\W\d_]{3,})\.?)?"
    r"(?:\s*[-–]\s*(?P<last>\d{1,2})(?:st|nd|rd|th|er|\.)?)?(?:\s*(?:[@(,]|\s(?:at|from)\s)?\s*(?P<time>(?:\d[\d:.]*\s?(?:[ap]m)?\s?[-–]\s?)?(?:\d[\d:.]*\s?(?:[ap]m|h)|\d{1,2}[:.]\d\d|noon|midday))\)?)?"
)


def look(top: Top) -> Reading | NotRead:
    """Read a sheet as a month matrix, or say why it is none."""
    sheet, lexicon = top.sheet, top.lexicon
    rows = [(number, row) for number, row in sheet.rows() if not is_blank(row)]
    at, heads = _head(rows, lexicon)
    whole = top
    if not heads:
        above = _titles(rows)
        lying = turned(sheet, [row for _, row in rows[above:]])
        at, heads = _head([*lying.rows()], lexicon)
        if heads:
            top = Top(lying, top.options, top.is_whole)
            sheet, rows, at = lying, [*rows[:above], *lying.rows()], at + above
    if not heads or not min(heads):
        message = f"{sheet.title} is no month matrix: no months head columns of days."
        return not_read(sheet, "no-matrix", "it is no month matrix", "matrix-none", message)
    months = with_years(whole, list(heads.values()), rows[: at + 1])
    if isinstance(months, Problem):
        return NotRead(sheet, "month-unnamed", "nothing says which year it is", months)
    body, head = rows[at + 1 :], rows[at][1]
    entries, others, idle = _entries(top, body, head, dict(zip(heads, months, strict=True)))
    message = "Read as a month matrix: months across, and the days of each in the cells."
    notes = [note("layout-matrix", message).at(sheet.place())]
    notes += unused_columns(sheet, head, body, {*range(min(heads)), *heads})
    if idle:
        message = f"{counted(idle, 'cell says', 'cells say')} that there is no day (a dash, “TBC” …)."
        notes.append(note("slots-idle", message).at(sheet.place()))
    others = [*rows[:at], *others]

    events = partial(after_remarks, sheet, entries, top.options, others)
    problems = tuple(slipped_months(sheet, *rows[at], body, heads))
    return Reading(sheet, "matrix", events, (*sheet.notes, *notes), problems)


def _titles(rows: Sequence[Row]) -> int:
    """How many rows above a drawing hold one text alone."""
    full = (n for n, (_, row) in enumerate(rows) if sum(map(bool, map(cell_text, row))) > 1)
    return next(full, 0)


def _head(rows: Sequence[Row], lexicon: Lexicon) -> tuple[int, dict[int, tuple[int | None, int]]]:
    """The index of the row of months, and each month by its column."""
    for at, (_, row) in enumerate(rows[:20]):
        found = {n: month for n, month in months_across(row, lexicon).items() if n}
        found = found or months_by_letter(row)
        if len(found) < 2:
            continue
        found = _over_blank(row, found, rows[at + 1 :], lexicon)
        cells = [row[n] for _, row in rows[at + 1 :] for n in found if n < len(row) and cell_text(row[n])]
        fits = sum(_is_days(cell, lexicon) for cell in cells)
        have_spans = any(re.search(_SPAN_OF_DAYS, cell_text(cell)) for cell in cells)
        counts = [cell for cell in cells if not (have_spans and _is_pair(cell_text(cell)))]
        is_counted = any(map(_is_figure, counts)) or _are_summed([row for _, row in rows[at + 1 :]], found)
        if cells and fits * 5 >= len(cells) * 3 and not is_counted:
            return at, found
    return 0, {}


def _are_summed(rows: Sequence[Sequence[Cell]], months: Collection[int]) -> bool:
    """Whether a column right of the months has the sum of each row, or the last row that of each column: they are counts, no days."""
    table = [[_number(row[n]) if n < len(row) else None for n in months] for row in rows]
    table = [numbers for numbers in table if any(number is not None for number in numbers)]
    sums = [sum(filter(None, numbers)) for numbers in table]
    width = max(map(len, rows), default=0)
    beside = (
        [_number(row[n]) for row in rows if n < len(row) and _number(row[n]) is not None]
        for n in range(max(months) + 1, width)
    )
    if len(sums) > 1 and any(numbers in (sums, [*sums, sum(sums)]) for numbers in beside):
        return True
    columns = [[number or 0 for number in column] for column in zip(*table, strict=True)]
    return min(len(table) - 1, len(columns)) >= _FEW and all(
        sum(column[:-1]) == column[-1] for column in columns
    )


def _number(cell: Cell) -> int | None:
    text = cell_text(cell)
    return int(text) if text.isdecimal() else None


def _over_blank(
    head: Sequence[Cell], found: dict[int, tuple[int | None, int]], body: Sequence[Row], lexicon: Lexicon
) -> dict[int, tuple[int | None, int]]:
    """The months with those of columns right of them that have no heading and hold days: a month is written once over its own."""
    first = min(found)
    labels = [cell_text(row[0]) for _, row in body[:1] if row]
    if not all(labels) or any(match_exactly(label) for label in labels):
        return found  # a row of numbers stands under the months, `Name | 7 | 14`: the days of a roster
    wide: dict[int, tuple[int | None, int]] = {}
    width = max((len(row) for _, row in body), default=0)
    for n in range(first, max(width, max(found) + 1)):
        days = [row[n] for _, row in body if n < len(row) and cell_text(row[n])]
        are_days = bool(days) and all(_is_days(cell, lexicon) for cell in days)
        if n in found:
            wide[n] = found[n]
        elif n - 1 in wide and are_days and not (n < len(head) and cell_text(head[n])):
            wide[n] = wide[n - 1]
    return wide


def _is_open(text: str) -> bool:
    """Whether a cell says that there is no day, or none yet."""
    return is_idle(text) or text.casefold().strip(".") in ("tbc", "tba", "tbd", "?")


def _is_figure(cell: Cell) -> bool:
    """Whether a cell is a number that no day has: the table counts something."""
    text = cell_text(cell)
    return re.fullmatch(r"\d+(?:[.,]\d+)?%?", text) is not None and not (
        text.isdecimal() and 1 <= int(text) <= 31
    )


def _is_pair(text: str) -> bool:
    """Whether a text is two days that run forward, `1,2`, where it could be a number with a comma."""
    pair = re.fullmatch(r"([1-9]\d?),([1-9]\d?)", text)
    return pair is not None and int(pair[1]) < int(pair[2]) <= 31


def _is_days(cell: Cell, lexicon: Lexicon) -> bool:
    return isinstance(cell, dt.date) or bool(_pieces(cell_text(cell), lexicon)) or _is_open(cell_text(cell))


def _pieces(text: str, lexicon: Lexicon) -> list[re.Match[str]]:
    """The days that a cell lists; none when something else stands in it."""
    found = [
        re.fullmatch(_PIECE, piece.strip())
        for piece in re.split(r"[,;&+/\n]|\band\b|\bet\b|\bund\b", re.sub(_BEFORE_TIME, " ", text))
        if piece.strip()
    ]
    matches = [match for match in found if match is not None]
    known = all(
        (not match["weekday"] or fold(match["weekday"]) in lexicon.weekdays)
        and (not match["month"] or fold(match["month"]) in lexicon.months)
        for match in matches
    )
    return matches if known and len(matches) == len(found) else []


def _entries(
    top: Top, body: Sequence[Row], head: Sequence[Cell], months: dict[int, Month]
) -> tuple[list[DrawnEntry | Problem], list[Row], int]:
    """The events of the cells, the rows that have none, and how many cells say that nothing happens."""
    fields = {
        n: match.field if (match := match_exactly(cell_text(head[n]))) else ""
        for n in range(min(months))
        if n < len(head)
    }
    title_at = next((n for n, field in fields.items() if field in ("summary", "class", "")), 0)
    time_at = next((n for n, field in fields.items() if field in ("time", "start")), None)
    place_at = next((n for n, field in fields.items() if field in ("location", "room")), None)
    entries, others, idle = list[DrawnEntry | Problem](), list[Row](), 0
    for number, row in body:
        filled = [n for n in months if n < len(row) and cell_text(row[n])]
        title = cell_text(row[title_at])
        if not filled:
            others.append((number, row))
            continue
        time = time_of(row[time_at]) if time_at is not None and time_at < len(row) else NOTHING
        place = cell_text(row[place_at]) if place_at is not None and place_at < len(row) else ""
        for n in filled:
            if _is_open(cell_text(row[n])):
                idle += 1
            else:
                entries += _of_cell(top, (number, n), row[n], months[n], title, time, place)
    return entries, others, idle


def _of_cell(
    top: Top, at: tuple[int, int], cell: Cell, month: Month, title: str, time: Part, location: str
) -> list[DrawnEntry | Problem]:
    """The events of one cell."""
    text, place = cell_text(cell), top.sheet.place(*at)
    named = f"{dt.date(*month, 1):%B %Y}"
    if not title:
        return [
            Problem("summary-missing", "Nothing says what happens.", "Give the row a title.", place, text)
        ]
    if isinstance(cell, dt.date):
        if (cell.year, cell.month) != month:
            return [
                Problem("matrix-month", f"{cell:%Y-%m-%d} is not in {named}.", "Correct it.", place, text)
            ]
        return [
            DrawnEntry(
                *at, title, date_part(dt.date(cell.year, cell.month, cell.day)), time, location, cell=text
            )
        ]
    pieces = _pieces(text, top.lexicon)
    if not pieces:
        message = f"The cell names no day of {named}."
        return [
            Problem("matrix-day", message, "Write the number of the day, or leave it blank.", place, text)
        ]
    found: list[DrawnEntry | Problem] = []
    for piece in pieces:
        try:
            first, last = (dt.date(*month, int(piece[name] or piece["first"])) for name in ("first", "last"))
        except ValueError:
            message = f"{named} has no day {piece[0]}."
            found.append(Problem("date-impossible", message, "Correct it.", place, text))
            continue
        if piece["month"] and top.lexicon.months[fold(piece["month"])] != month[1]:
            found.append(
                Problem("matrix-month", f"“{piece[0]}” is not in {named}.", "Correct it.", place, text)
            )
            continue
        weekday = top.lexicon.weekdays.get(fold(piece["weekday"] or ""))
        if weekday is not None and first.weekday() != weekday:
            message = f"{first} is no {piece['weekday']}."
            found.append(Problem("date-weekday", message, "Correct the day or the weekday.", place, text))
            continue
        own = time_of(piece["time"]) if piece["time"] else time
        found.append(DrawnEntry(*at, title, date_part(first, last), own, location, cell=text))
    return found
