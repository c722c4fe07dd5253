"""A month drawn as a calendar: weekdays across, a row a week, day numbers with entries under or inside."""

import datetime as dt
import re
from collections import Counter
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from itertools import pairwise

from nomarium.model.account import Account
from nomarium.model.cell import Cell
from nomarium.model.event import Event
from nomarium.model.problem import Problem, note
from nomarium.model.wording import counted
from nomarium.reading.cells.words import Lexicon
from nomarium.reading.layouts.drawn import (
    DrawnEntry,
    date_part,
    entries_of_cell,
    events_of,
    merged_from,
)
from nomarium.reading.layouts.layout import NotRead, Reading, Top, not_read
from nomarium.reading.layouts.monthtitles import (
    NUMBERED,
    bare_titles,
    day_number,
    days_headed,
    month_above,
    month_below,
    month_of,
    title_month,
)
from nomarium.reading.layouts.narrowcells import in_whole_lines
from nomarium.reading.options import ReadingOptions
from nomarium.reading.rows.datewithin import date_within
from nomarium.reading.rows.lone import is_remark
from nomarium.sheets.sheet import Row, Sheet, cell_text, is_blank

_WEEK = dt.timedelta(days=7)
_DAY = dt.timedelta(days=1)


@dataclass
class _Drawing:
    """What has been found so far, going down a sheet."""

    month: tuple[int, int] | None = None
    """(year, month) of the latest title."""
    weekdays: dict[int, int] = field(default_factory=dict)
    """0-based column → weekday, of the latest row of weekdays."""
    dates: dict[int, dt.date] = field(default_factory=dict)
    entries: list[DrawnEntry | Problem] = field(default_factory=list)
    notes: list[tuple[int, str]] = field(default_factory=list)
    beside: list[tuple[int, str]] = field(default_factory=list)
    """(row number, text) of what stands right of the days."""
    months_seen: list[tuple[int, int]] = field(default_factory=list)
    refused: str = ""
    """Why the latest row of day numbers could not be read; "" when it could."""


def look(top: Top) -> Reading | NotRead:
    """Read a sheet as one or more drawn months, or say why it is none."""
    top = Top(in_whole_lines(top.sheet), top.options, top.is_whole)
    sheet, options, lexicon = top.sheet, top.options, top.of_weekdays
    rows = [(number, row) for number, row in sheet.rows() if not is_blank(row)]
    head = next((at for at, (_, row) in enumerate(rows) if days_headed(row, lexicon)), None)
    if head is None:
        message = f"{sheet.title} is no drawn month: no row names the weekdays."
        remedy = "Put the names of the weekdays above the weeks."
        return not_read(sheet, "no-month", "it is no drawn month", "month-none", message, remedy)
    if _names_beside(rows, head, lexicon):
        message = f"{sheet.title} has names beside its days: it is a roster."
        return not_read(sheet, "no-month", "names stand beside its days", "month-none", message)
    drawing = _Drawing(
        month=month_of(sheet.name, lexicon, options)
        or month_below(rows[head + 1 :], lexicon, options)
        or month_above(rows[:head], lexicon, options)
    )
    titles = bare_titles(rows, lexicon)
    for number, row in rows:
        if number in titles and drawing.month is not None:
            year, month = drawing.month
            drawing.month, drawing.dates = (year + (titles[number] < month), titles[number]), {}
            drawing.notes.append((number, next(filter(None, map(cell_text, row)))))
            continue
        _take_row(sheet, drawing, number, row, lexicon, options)
    _take_lines_below(drawing, rows, lexicon)
    if not drawing.months_seen and drawing.month is None and has_day_numbers(rows[head + 1 :]):
        message = f"{sheet.title} is drawn as a month, and nothing says which month it is."
        remedy = "Write the month and the year above the weekdays, such as April 2027."
        return not_read(
            sheet, "month-unnamed", "nothing says which month it is", "month-unnamed", message, remedy
        )
    if not drawing.months_seen and not drawing.refused:
        message = f"{sheet.title} has weekdays and no day numbers under them."
        return not_read(sheet, "no-month", "it has no day numbers", "month-none", message, "Number the days.")
    named = ", ".join(
        f"{dt.date(2000, month, 1):%B} {year}" for year, month in dict.fromkeys(drawing.months_seen)
    )
    told = [note("layout-month", f"Read as a drawn month: {named}.").at(sheet.place())]
    if drawing.beside:
        number, text = drawing.beside[0]
        message = f"{counted(len(drawing.beside), 'cell stands', 'cells stand')} right of the days, in none of them, and {'is' if len(drawing.beside) == 1 else 'are'} not read: “{text}”."
        told.append(
            note("month-beside", message, "To make events of them, write them under a day.").at(
                sheet.place(number)
            )
        )

    def events(account: Account) -> Iterator[Event]:
        notes = [*drawing.notes, *drawing.beside]
        account.ledger.read += len(notes)
        for number, text in notes:
            account.note_row(number, text)
        yield from events_of(sheet, drawing.entries, options, account)

    return Reading(sheet, "month", events, (*sheet.notes, *told))


def _take_lines_below(drawing: _Drawing, rows: Sequence[Row], lexicon: Lexicon) -> None:
    """Take lines below the last week for what they are: they stand alone in their rows, under its first day, and name another."""
    by_row: dict[int, list[DrawnEntry | Problem]] = {}
    for one in drawing.entries:
        by_row.setdefault(one.row if isinstance(one, DrawnEntry) else one.place.row or 0, []).append(one)
    for number, row in reversed(rows):
        texts = list(filter(None, map(cell_text, row)))
        entries = by_row.get(number, [])
        entry = entries[0] if len(entries) == 1 else None
        if len(texts) != 1 or not isinstance(entry, DrawnEntry) or entry.column > min(drawing.weekdays):
            break
        found, day = date_within(texts[0], lexicon), entry.date.first
        if found is None or found.moment.first is None or day is None:
            break
        if any((one.month, one.day) == (day.month, day.day) for one in found.moment.first.readings):
            break
        drawing.entries.remove(entry)
        drawing.notes.append((number, texts[0]))


def _names_beside(rows: Sequence[Row], head: int, lexicon: Lexicon) -> bool:
    """Whether names stand left of the weekdays under one row of days, as on a roster of one stretch of days."""
    columns = sorted(days_headed(rows[head][1], lexicon))
    numbers = [n for n, (_, row) in enumerate(rows) if n > head and _runs_on(row, columns)]
    if numbers[:1] != [head + 1] or any(_runs_on(row, columns) for _, row in rows[head + 2 :]):
        return False
    body = [row for _, row in rows[head + 2 :] if any(n < len(row) and cell_text(row[n]) for n in columns)]
    for at in range(columns[0]):
        beside = [row[at] for row in body if at < len(row) and cell_text(row[at])]
        names = [cell for cell in beside if isinstance(cell, str) and re.search(r"[^\W\d_]{3}", cell)]
        if len(set(names)) > 1 and len(names) * 3 >= len(body) * 2:
            return True
    return False


def _runs_on(row: Sequence[Cell], columns: Sequence[int]) -> bool:
    """Whether the cells below weekdays are numbers of days, or short dates, each later than the one before."""
    texts = [cell_text(row[n]) for n in columns if n < len(row)]
    parts = [re.findall(r"\d+", text) for text in texts if re.fullmatch(_SHORT_DAY, text)]
    return len(parts) > _LEAST_DAYS and any(
        all(0 < int(b) - int(a) < 4 or int(b) < 4 < 25 < int(a) for a, b in pairwise(days))
        for days in zip(*parts, strict=False)
    )


_OF_WEEK = (
    r"(?i)(?:(?:week|wk|w|kw|semaine|sem\.?|woche|uke|uge|vecka|v)\.?\s?)?\d{1,2}|(?:(?:week|wk)\s?)?[a-d]"
)
"""What stands left of a week and numbers it, or says which of a cycle it is."""
_SHORT_DAY = r"(?:\d{4}-)?(?:[^\W\d_]{3,9}[ .-]+)?\d{1,2}(?:[/.-]\d{1,2})?(?:[/.-]\d{2,4})?\.?(?:[ .-]?[^\W\d_]{2,9}\.?)?"
_LEAST_DAYS = 3
"""Days of a row from which on it is one of days."""


def has_day_numbers(rows: Sequence[Row]) -> bool:
    """Whether some row has several cells that begin with the numbers of days after each other; `9-5` in each are hours."""
    for _, row in rows:
        begins = {
            n: match
            for n, cell in enumerate(row)
            if (match := re.match(r"\d{1,2}(?!\d|\s?[-–]\s?\d)", cell_text(cell)))
        }
        runs = Counter(int(match[0]) - n for n, match in begins.items() if NUMBERED.match(match.string))
        if runs and max(runs.values()) > 2:
            return True
    return False


def _take_row(
    sheet: Sheet,
    drawing: _Drawing,
    number: int,
    row: Sequence[Cell],
    lexicon: Lexicon,
    options: ReadingOptions,
) -> None:
    filled = [(n, cell) for n, cell in enumerate(row) if cell_text(cell)]
    title = title_month(filled, lexicon, options)
    if title is not None:
        drawing.month = title
        drawing.dates = {}
        drawing.notes.append((number, " ".join(cell_text(cell) for _, cell in filled)))
        return
    if weekdays := days_headed(row, lexicon):
        drawing.weekdays, drawing.dates = weekdays, {}
        return
    if not drawing.weekdays or drawing.month is None:
        drawing.notes.append((number, " ".join(cell_text(cell) for _, cell in filled)))
        return
    if len(filled) == 1 and filled[0][0] <= min(drawing.weekdays) and is_remark(cell_text(filled[0][1])):
        drawing.notes.append((number, cell_text(filled[0][1])))
        return
    filled = _without_beside(drawing, number, filled)
    if _take_numbers(sheet, drawing, number, filled):
        return
    for column, cell in filled:
        _take_entry(sheet, drawing, number, column, cell_text(cell))


def _without_beside(
    drawing: _Drawing, number: int, filled: Sequence[tuple[int, Cell]]
) -> list[tuple[int, Cell]]:
    """The cells of a row but the number of its week, left of the days, and remarks right of them: these are in no day."""
    columns = sorted(drawing.weekdays)
    step = min(b - a for a, b in pairwise(columns))
    inside = []
    for column, cell in filled:
        is_week = column < columns[0] and re.fullmatch(_OF_WEEK, cell_text(cell)) is not None
        if column >= columns[-1] + step:
            drawing.beside.append((number, cell_text(cell)))
        elif not is_week:
            inside.append((column, cell))
    return inside


def _take_numbers(sheet: Sheet, drawing: _Drawing, number: int, filled: Sequence[tuple[int, Cell]]) -> bool:
    """Take a row of day numbers, when it is one: every cell begins with the day that its column has."""
    numbered: list[tuple[int, int, str]] = []
    others: list[tuple[int, Cell]] = []
    for column, cell in filled:
        weekday = _weekday_at(drawing, column)
        day, rest = day_number(cell)
        if weekday is None:
            continue
        if day is not None:
            numbered.append((column, day, rest))
        elif column in drawing.weekdays:
            others.append((column, cell))
        # else an entry beside the number, in a column of its own
    if not numbered:
        return False
    dates = [_date_for(drawing, column, day) for column, day, _ in numbered]
    if all(date and drawing.dates.get(one[0]) == date for one, date in zip(numbered, dates, strict=True)):
        return False  # 1st XI on the 1st
    if others:
        if all(dates) and _in_one_week(drawing, numbered, dates) and _are_of_next_week(drawing, numbered):
            without = [_without_number(sheet, number, *one) for one in others]
            drawing.entries += without
            drawing.dates, drawing.refused = {}, without[0].message
            return True
        return False
    if all(dates) and _in_one_week(drawing, numbered, dates):
        anchor_column, anchor = numbered[0][0], dates[0]
        assert anchor is not None
        drawing.dates = {
            column: anchor + (_offset(drawing, column) - _offset(drawing, anchor_column)) * _DAY
            for column in drawing.weekdays
        }
        assert drawing.month is not None
        drawing.months_seen.append(drawing.month)
        drawing.refused = ""
        taken = {column for column, _, _ in numbered}
        for column, _, rest in numbered:
            if rest:
                _take_entry(sheet, drawing, number, column, rest)
        for column, cell in filled:
            if column not in taken:
                _take_entry(sheet, drawing, number, column, cell_text(cell))
        return True
    bare = sum(not rest for _, _, rest in numbered)
    runs = {day - _offset(drawing, column) for column, day, _ in numbered}
    if bare >= 2 and (bare == len(numbered) or len(runs) == 1):
        _refuse_numbers(sheet, drawing, number, numbered)
        return True
    return False


def _are_of_next_week(drawing: _Drawing, numbered: Sequence[tuple[int, int, str]]) -> bool:
    """Whether several cells are the bare numbers of the days a week on."""
    bare = [(column, day) for column, day, rest in numbered if not rest]
    return len(bare) > 1 and all(
        column in drawing.dates and (drawing.dates[column] + _WEEK).day == day for column, day in bare
    )


def _without_number(sheet: Sheet, number: int, column: int, cell: Cell) -> Problem:
    message = "The cell stands among the numbers of days and does not begin with that of its own."
    remedy = "Begin it with the number, or put it under the row of the numbers."
    return Problem("month-stray", message, remedy, sheet.place(number, column), cell_text(cell))


def _weekday_at(drawing: _Drawing, column: int) -> int | None:
    """The weekday of a column: its own, or that of the nearest one to the left."""
    left = [n for n in drawing.weekdays if n <= column]
    return drawing.weekdays[max(left)] if left else None


def _offset(drawing: _Drawing, column: int) -> int:
    return sorted(drawing.weekdays).index(max(n for n in drawing.weekdays if n <= column))


def _date_for(drawing: _Drawing, column: int, day: int) -> dt.date | None:
    """The date with this number under this weekday, in the month drawn or at the edge of its neighbours."""
    assert drawing.month is not None
    year, month = drawing.month
    weekday = _weekday_at(drawing, column)
    first = dt.date(year, month, 1)
    for shift in (0, -1, 1):
        base = (
            first
            if not shift
            else (first - _DAY).replace(day=1)
            if shift < 0
            else (first + 31 * _DAY).replace(day=1)
        )
        try:
            date = base.replace(day=day)
        except ValueError:
            continue
        near = shift == 0 or (day > 22 if shift < 0 else day < 14)
        if near and date.weekday() == weekday:
            return date
    return None


def _in_one_week(
    drawing: _Drawing, numbered: Sequence[tuple[int, int, str]], dates: Sequence[dt.date | None]
) -> bool:
    anchors = {
        date - _offset(drawing, column) * _DAY
        for (column, _, _), date in zip(numbered, dates, strict=True)
        if date is not None
    }
    return len(anchors) == 1


def _refuse_numbers(
    sheet: Sheet, drawing: _Drawing, number: int, numbered: Sequence[tuple[int, int, str]]
) -> None:
    assert drawing.month is not None
    year, month = drawing.month
    column, day, _ = next(
        ((c, d, r) for c, d, r in numbered if _date_for(drawing, c, d) is None), numbered[0]
    )
    named = f"{dt.date(year, month, 1):%B} {year}"
    message = f"Day {day} of {named} does not fall on the weekday that heads its column."
    remedy = f"Correct the number, or the month above it if this is not {named}."
    drawing.entries.append(Problem("month-weekday", message, remedy, sheet.place(number, column), str(day)))
    drawing.dates, drawing.refused = {}, message


def _take_entry(sheet: Sheet, drawing: _Drawing, number: int, column: int, text: str) -> None:
    """Take a cell's entries: a line each; a merged band goes on to its last column's day."""
    own = max((n for n in drawing.weekdays if n <= column), default=None)
    day = drawing.dates.get(own) if own is not None else None
    if day is None:
        if not drawing.dates and drawing.months_seen and not drawing.refused:
            drawing.notes.append((number, text))
            return
        message = "The cell stands in no day of the drawn month."
        remedy = "Put it under a day's number, or take it out."
        if drawing.refused:
            message, remedy = "The numbers of its week could not be read.", "Correct them first."
        drawing.entries.append(Problem("month-stray", message, remedy, sheet.place(number, column), text))
        return
    area = merged_from(sheet).get((number, column))
    last = day
    if area is not None and area.last_column > area.first_column:
        last_column = area.last_column - sheet.first_column
        last = max(date for n, date in drawing.dates.items() if n <= last_column)
    drawing.entries += entries_of_cell(sheet, number, column, text, date_part(day, last))
