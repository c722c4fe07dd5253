"""How one sheet is read as an event list: where the table is, what its columns are, what its dates mean."""

import re
from collections.abc import Iterator, Sequence
from itertools import chain, islice
from typing import NamedTuple

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem, column_letter, note
from nomarium.reading.cells.words import ENGLISH, Lexicon, fold
from nomarium.reading.columns.columns import Column, assign_columns, heading_missing
from nomarium.reading.columns.dateparts import DateParts, find_date_parts
from nomarium.reading.columns.decisions import Decisions, told
from nomarium.reading.columns.evidence import decide
from nomarium.reading.columns.head import TableHead, find_head
from nomarium.reading.columns.headings import match_heading, normal
from nomarium.reading.options import ReadingOptions
from nomarium.sheets.sheet import Row, Sheet, cell_text, is_blank

SAMPLE_ROWS = 500
"""Rows of data looked at to tell what a column is."""


class TableReading(NamedTuple):
    """Everything decided about one sheet before its rows become events."""

    sheet: Sheet
    head: TableHead
    columns: tuple[Column, ...]
    decisions: Decisions
    options: ReadingOptions
    problems: tuple[Problem, ...] = ()
    """What keeps the table as a whole from being read."""
    notes: tuple[Problem, ...] = ()
    parts: DateParts | None = None
    """The columns over which dates are spread, when they are."""

    def column(self, field: str) -> Column | None:
        """The column of a field, the first when two agree."""
        return next((c for c in self.columns if c.field == field and c.twin_of is None), None)

    @property
    def headings(self) -> tuple[str, ...]:
        return tuple(c.heading for c in self.columns)

    def rows(self) -> Iterator[Row]:
        """The rows of data, what merged cells and `--fill-down` say filled in."""
        data = _data_rows(self.sheet, self.head)
        rows = _filled(self.sheet, data, _fill_down(self.headings, self.options))
        return self.parts.joined(rows) if self.parts else rows


class NotRead(NamedTuple):
    """A sheet that does not read as events, and why."""

    sheet: Sheet
    reason: str
    problem: Problem
    """The same as a problem, for when nothing else reads as events either."""


def read_table(
    sheet: Sheet, options: ReadingOptions, whole: bool = False, seen: Lexicon | None = None
) -> TableReading | NotRead:
    """Decide how a sheet is read. `whole` looks at every row even where a part would settle it.

    `seen` are the names by which dates are told from other texts, when English is not enough.
    """
    lexicon = lexicon_for(options)
    seen = seen or lexicon
    head = find_head(sheet, seen, options.header_row)
    if head is None:
        reason = "it is blank"
        return NotRead(sheet, reason, _nothing("table-blank", f"{sheet.title} is blank.", "", sheet))
    rows = _data_rows(sheet, head)
    first_rows = list(islice(rows, SAMPLE_ROWS))
    data: Iterator[Row] = chain(first_rows, rows)
    sample = [row for _, row in first_rows if not is_blank(row)]
    if not sample:
        message = f"{sheet.title} has headings and no rows."
        remedy = "Check that this is the right file: an empty calendar must not replace a full one."
        problem = _nothing("table-empty", message, remedy, sheet)
        return NotRead(sheet, "it has no rows under its headings", problem)
    parts = find_date_parts(head.headings, sample, options.columns)
    if parts is not None:
        data = parts.joined(_filled(sheet, data, _fill_down(head.headings, options)))
        first_rows = list(islice(data, SAMPLE_ROWS))
        data = chain(first_rows, data)
        sample = [row for _, row in first_rows if not is_blank(row)]
        head = parts.renamed(head)
    asked = parts.asking(options, head) if parts else options
    columns, notes = assign_columns(sheet, head, sample, asked, seen)
    weekdays = frozenset() if options.languages else _unknown_weekdays(columns, sample, seen)
    if weekdays:
        from nomarium.reading.cells.languages import weekday_lexicon
        from nomarium.reading.cells.words import language_name

        known = weekday_lexicon(weekdays)
        if known is not None:
            lexicon, seen = lexicon.extended(known), seen.extended(known)
            columns, notes = assign_columns(sheet, head, sample, asked, seen)
            message = f"Weekdays have names in {language_name(known.languages[-1])}."
            notes.append(note("date-language", message).at(sheet.place()))
    if parts is not None:
        notes.append(parts.told(sheet, columns))
    if options.keep_extra:
        notes = [one for one in notes if one.code != "column-unused"]
    missing = _misfit(sheet, columns, options) or _missing(sheet, columns, options)
    if missing is not None:
        return missing
    notes += _timed_titles(sheet, columns, first_rows)
    data = data if parts else _filled(sheet, data, ())
    decisions = decide(sheet, columns, data, options, lexicon, whole)
    return TableReading(
        sheet, head, tuple(columns), decisions, options, decisions.problems,
        (*sheet.notes, *notes, *told(decisions, sheet)), parts,
    )  # fmt: skip


_TIME_IN_FRONT = r"(?i)\d{1,2}(?:[:h]\d\d|\s?[ap]\.?m\b).*"


def _timed_titles(sheet: Sheet, columns: Sequence[Column], rows: Sequence[Row]) -> list[Problem]:
    """A note when titles begin with times and nothing else in the table says any: their events will be all-day."""
    fields = {column.field: column.at for column in columns}
    title_at = fields.get("summary")
    if title_at is None or fields.keys() & {"start", "end", "time", "when", "duration"}:
        return []
    timed = [
        (number, text)
        for number, row in rows
        if title_at < len(row) and re.match(_TIME_IN_FRONT, text := cell_text(row[title_at]))
    ]
    dates = (cell_text(row[fields["date"]]) for _, row in rows if fields.get("date", len(row)) < len(row))
    if not timed or any(":" in text for text in dates):
        return []
    number, text = timed[0]
    message = f"Titles that begin with a time (row {number}: “{text}”) stay as they are, and their events last all day."
    remedy = "If these are their times, put them into a column of their own."
    return [note("title-timed", message, remedy).at(sheet.place(None, title_at))]


def _unknown_weekdays(
    columns: Sequence[Column], sample: Sequence[Sequence[Cell]], lexicon: Lexicon
) -> frozenset[str]:
    """The words (folded) of a column that is headed as a day's and names no weekdays that are known; else none."""
    for column in columns:
        named = match_heading(column.heading) if not column.field and column.how != "asked" else None
        if column.field == "day" or (named is not None and named.field == "date" and named.is_weak):
            texts = (cell_text(row[column.at]) for row in sample if column.at < len(row))
            words = frozenset(fold(text).strip() for text in texts if text)
            if len(words) <= 7 and all(map(str.isalpha, words)) and not words <= lexicon.weekdays.keys():
                return words
    return frozenset()


def lexicon_for(options: ReadingOptions) -> Lexicon:
    """The names that dates are read with until the table shows that it needs others."""
    if not options.languages:
        return ENGLISH
    from nomarium.reading.cells.languages import asked_lexicon

    return asked_lexicon(options.languages)


def _misfit(sheet: Sheet, columns: Sequence[Column], options: ReadingOptions) -> NotRead | None:
    """A sheet that lacks a heading of the recipe: the recipe is for another kind of spreadsheet."""
    if not options.recipe_name or len(options.sheets) > 1:
        return None
    there = {normal(c.heading) for c in columns} | {column_letter(c.at + sheet.first_column) for c in columns}
    for heading, field in options.columns.items():
        if field and heading not in there and normal(heading) not in there:
            problem = heading_missing(sheet, columns, heading, f"The recipe {options.recipe_name}")
            return NotRead(sheet, "it does not fit the recipe", problem)
    return None


def _missing(sheet: Sheet, columns: Sequence[Column], options: ReadingOptions) -> NotRead | None:
    """A sheet without a required field, unless `--set` gives it."""
    fields = {c.field for c in columns} | set(options.defaults)
    has_date = fields & {"date", "when", "start"} or (fields & {"week", "day"} and options.day_one)
    there = ", ".join(f"“{c.heading}”" for c in columns if c.heading) or "no headings"
    if not has_date and fields & {"week", "day"} and "summary" in fields:
        message = f"{sheet.title} counts in weeks or days and no date says where the count begins."
        remedy = "Give the date of week 1 day 1: --day-one 2027-04-05."
        return NotRead(sheet, "it has no dates", _nothing("day-one-missing", message, remedy, sheet))
    if not has_date:
        message = f"No column of {sheet.title} holds dates (it has {there})."
        remedy = 'Say which one does: --column "HEADING=date"; for one day only: --set date=2027-04-12.'
        return NotRead(sheet, "it has no dates", _nothing("date-column-missing", message, remedy, sheet))
    if not fields & {"summary", "class"}:
        message = f"No column of {sheet.title} says what each event is called (it has {there})."
        remedy = 'Say which one does: --column "HEADING=summary".'
        problem = _nothing("summary-column-missing", message, remedy, sheet)
        return NotRead(sheet, "nothing says what its events are called", problem)
    return None


def _nothing(code: str, message: str, remedy: str, sheet: Sheet) -> Problem:
    return Problem(code, message, remedy, sheet.place())


def _data_rows(sheet: Sheet, head: TableHead) -> Iterator[Row]:
    """The rows from the first row of data on."""
    return islice(sheet.rows(), *_from(sheet, head))


def _from(sheet: Sheet, head: TableHead) -> tuple[int, None]:
    first_number = next((number for number, _ in sheet.rows()), 1)
    return max(head.first_row - first_number, 0), None


def _fill_down(headings: Sequence[str], options: ReadingOptions) -> tuple[int, ...]:
    wanted = {heading.casefold() for heading in options.fill_down}
    return tuple(at for at, heading in enumerate(headings) if heading.casefold() in wanted)


def _filled(sheet: Sheet, rows: Iterator[Row], fill_down: tuple[int, ...]) -> Iterator[Row]:
    """The rows of data; a cell merged over several rows says its value in each of them."""
    spans = {
        (row, column): (area.first_row, area.first_column)
        for area in sheet.merged
        if area.last_row > area.first_row
        for row in range(area.first_row + 1, area.last_row + 1)
        for column in (area.first_column,)
    }
    if not spans and not fill_down:
        return rows
    return _fill(rows, spans, fill_down, sheet.first_column)


def _fill(
    rows: Iterator[Row],
    spans: dict[tuple[int, int], tuple[int, int]],
    fill_down: tuple[int, ...],
    offset: int,
) -> Iterator[Row]:
    above: dict[int, Cell] = {}
    merged: dict[tuple[int, int], Cell] = {}
    starts = set(spans.values())
    for number, row in rows:
        cells = list(row)
        for column in range(len(cells)):
            at = (number - 1, column + offset)
            if at in starts:
                merged[at] = cells[column]
            elif at in spans and cells[column] == "":
                cells[column] = merged.get(spans[at], "")
        if not is_blank(cells):
            for column in fill_down:
                if column < len(cells):
                    if cell_text(cells[column]):
                        above[column] = cells[column]
                    else:
                        cells[column] = above.get(column, "")
        yield number, cells
