"""All the sheets of a build: which read as events, in which layout, and which are passed over."""

import re
from collections import Counter
from collections.abc import Iterator, Sequence
from itertools import islice

from nomarium.model.errors import UsageError
from nomarium.model.problem import Problem, column_letter, note
from nomarium.model.wording import counted, listed
from nomarium.reading.cells.longtext import with_long_cells_cut
from nomarium.reading.cells.oftenwords import often_in
from nomarium.reading.columns.asked import asked_columns, heading_missing
from nomarium.reading.columns.column import Column
from nomarium.reading.columns.daycells import looks_like_date
from nomarium.reading.columns.halvesabove import with_halves_said
from nomarium.reading.columns.headings import match_exactly
from nomarium.reading.columns.saidofall import lone_texts, said_of_drawing
from nomarium.reading.columns.severalweekdays import with_each_weekday
from nomarium.reading.columns.weekdayletters import with_weekdays_of_letters
from nomarium.reading.layouts.layout import LAYOUTS, NotRead, Reading, Top
from nomarium.reading.options import ReadingOptions
from nomarium.reading.rows.blocks import sheets_that_title
from nomarium.reading.tables import tables_of
from nomarium.sheets.sheet import TOP_ROWS, RowsAgain, Sheet, cell_text, is_blank

_DRAWN = ("day", "grid", "month", "matrix", "planner", "roster", "wall")
"""Layouts whose title dates them."""
_CLOCK = r"(?i)\d{1,2}[:.]\d\d(?:\s*[ap]\.?m\.?)?(?:\s*[-–—]\s*\d{1,2}[:.]\d\d(?:\s*[ap]\.?m\.?)?)?|\d{1,2}\s*[ap]\.?m\.?"
_WEEKDAY = r"(?i)(?:mon|tues|wednes|thurs|fri|satur|sun)day\W*.*"

__all__ = ("NotRead", "Reading", "Readings", "read_sheet", "read_sheets")


class Readings:
    """What was found in the sheets of all sources."""

    def __init__(self) -> None:
        self.readings: list[Reading] = []
        self.passed_over: list[NotRead] = []
        self.unread: list[NotRead] = []
        """Those that keep the build from being written: nothing else of their file reads, or they were asked for."""
        self.refused: list[Sheet] = []
        """Sheets that hold something and cannot be read as a whole."""
        self.problems: list[Problem] = []
        self.notes: list[Problem] = []


def read_sheets(sheets: Sequence[Sheet], options: ReadingOptions, whole: bool = False) -> Readings:
    """Decide how each sheet is read. A sheet that reads as nothing is passed over and named;
    when it is the only one, or was asked for by name, that is a problem."""
    found = Readings()
    not_read: list[NotRead] = []
    if options.hidden_rows and sheets and all(sheet.hidden is None for sheet in sheets):
        message = f"--hidden-rows is of no use: nothing says which rows of {sheets[0].file} are hidden."
        raise UsageError(
            Problem("usage", message, "Leave the option out; .xlsx and .ods say which rows are.")
        )
    looked_at: list[tuple[Sheet, Reading | NotRead]] = []
    for sheet in _apart(sheets, options):
        if sheet.heads:
            sheet = sheet._replace(heads=_used(sheet, looked_at))
        looked_at.append((sheet, read_sheet(sheet, options, whole)))
    if len(looked_at) > 1:
        from nomarium.reading.doubtfulsheets import without_pages_about

        looked_at = without_pages_about(looked_at, options)
    titled = sheets_that_title([sheet for sheet, reading in looked_at if _is_list(reading)], options)
    for sheet, first in looked_at:
        reading = (
            read_sheet(sheet._replace(part_title=sheet.name), options, whole)
            if sheet.name in titled
            else first
        )
        if isinstance(reading, NotRead):
            not_read.append(reading)
            continue
        found.readings.append(reading)
        found.notes += reading.notes
        found.problems += reading.problems
    if options.codes and found.readings and not any(map(_uses_codes, found.readings)):
        where = sheets[0].file if sheets else "the source"
        message = f"--set-code is of no use: {where} is read as no roster and no wall planner, and no column of it names sessions by these codes."
        raise UsageError(Problem("usage", message, "Leave it out, or say --as roster."))
    if len(found.readings) > 1:
        from nomarium.reading.doubtfulsheets import doubtful_sheets

        found.problems += doubtful_sheets(found.readings, options)
    asked = {name.casefold() for name in options.sheets}
    files_read = {reading.sheet.file for reading in found.readings}
    in_documents = {name for sheet in sheets for _, name in sheet.heads}
    wanted = [
        one for one in not_read
        if one.sheet.name.casefold() in asked or one.sheet.file not in files_read or (one.sheet.part and one.why != "blank")
        or one.why in ("month-unnamed", "day-unnamed") or (one.sheet.name in in_documents and _may_be_events(one))
        or _is_like_others(one, found.readings)
    ]  # fmt: skip
    wanted = [one for one in wanted if one.why != "undated" or _is_all_of_file(one, wanted)]
    found.unread = wanted
    found.passed_over = [one for one in not_read if one not in wanted]
    found.refused = [one.sheet for one in wanted if one.why != "blank"]
    found.refused += [reading.sheet for reading in found.readings if reading.problems]
    found.problems += _telling(wanted, bool(found.problems))
    found.problems += _headings_missing(found.readings, options)
    return found


def _is_like_others(unread: NotRead, readings: Sequence[Reading]) -> bool:
    if not readings:
        return False
    from nomarium.reading.doubtfulsheets import is_like_others

    return is_like_others(unread, readings)


def _may_be_events(unread: NotRead) -> bool:
    """Whether a table of a document, of which other parts are read, holds times beside words, and nothing else says what it is: its
    dates may stand where nobody looked."""
    if unread.why not in ("no-dates", "no-rows", "no-titles"):
        return False
    cells = [cell_text(cell) for _, row in Top(unread.sheet, ReadingOptions()).rows for cell in row]
    is_weekly = any(re.fullmatch(_WEEKDAY, text) for text in cells)
    days = sum(any(map(str.isalpha, text)) and looks_like_date(text) for text in cells)
    return not is_weekly and (days > 1 or any(re.fullmatch(_CLOCK, text) for text in cells))


def _is_all_of_file(unread: NotRead, others: Sequence[NotRead]) -> bool:
    """Whether nothing else of its file is unread; the words around a table have no dates of their own to miss."""
    return not any(one.sheet.file == unread.sheet.file and one.why != "undated" for one in others)


def _used(lines: Sheet, looked_at: Sequence[tuple[Sheet, Reading | NotRead]]) -> tuple[tuple[int, str], ...]:
    """The lines over tables that have dated the rows of these."""
    dated = {
        sheet.name
        for sheet, reading in looked_at
        if sheet.file == lines.file
        and isinstance(reading, Reading)
        and (reading.sheet.dates_above or reading.layout in _DRAWN)
    }
    return tuple(head for head in lines.heads if head[1] in dated)


def _uses_codes(reading: Reading) -> bool:
    return reading.layout in ("roster", "wall") or reading.has_sessions


def _is_list(reading: Reading | NotRead) -> bool:
    return isinstance(reading, Reading) and reading.table is not None and not reading.sheet.part


def _apart(sheets: Sequence[Sheet], options: ReadingOptions) -> Iterator[Sheet]:
    """The tables of all sheets, without their hidden rows when that was asked for."""
    for one in map(with_halves_said, map(with_long_cells_cut, sheets)):
        sheet = _telling_hidden_columns(_without_hidden(one, options), options)
        if not _is_text(sheet):
            sheet = with_weekdays_of_letters(sheet)
        elif options.layout is None:
            from nomarium.reading.layouts.drawnlines import several_drawings  # few sources are text

            sheet = several_drawings(sheet) or sheet
        if options.layout in (None, "plan", "events") and options.header_row is None:
            parts = list(tables_of(sheet))
            are_lines = len(parts) > 1 and _is_text(sheet)
            yield from (
                parts if not are_lines or all(_has_columns(Top(p, options)) for p in parts) else [sheet]
            )
        else:
            yield sheet


def _without_hidden(sheet: Sheet, options: ReadingOptions) -> Sheet:
    """A sheet whose hidden rows are told of, and left out when that was asked for."""
    hidden = sheet.hidden
    if not hidden:
        return sheet
    count = sum(not is_blank(row) for number, row in sheet.rows() if number in hidden)
    if not count:
        return sheet
    if options.hidden_rows == "skip":
        shown = RowsAgain(lambda: (row for row in sheet.rows() if row[0] not in hidden))
        told = note("rows-hidden", f"{counted(count, 'hidden row')} left out, as asked.")
        return sheet._replace(read_rows=shown, notes=(*sheet.notes, told.at(sheet.place())))
    message = (
        f"{counted(count, 'row')} that a filter or a person hides {'is' if count == 1 else 'are'} read too."
    )
    told = note("rows-hidden", message, "To leave them out: --hidden-rows skip.")
    return sheet._replace(notes=(*sheet.notes, told.at(sheet.place())))


def _telling_hidden_columns(sheet: Sheet, options: ReadingOptions) -> Sheet:
    """A sheet with a note of the columns that nobody sees in the workbook, and that are read all the same; not of those for which
    the person says what they are."""
    if not sheet.hidden_columns:
        return sheet
    said: dict[int, set[str]] = {}
    for _, row in islice(sheet.rows(), TOP_ROWS):
        for n, cell in enumerate(row):
            if n + sheet.first_column in sheet.hidden_columns and (text := cell_text(cell)):
                said.setdefault(n + sheet.first_column, set()).add(text)
    letters = [
        column_letter(at)
        for at, texts in sorted(said.items())
        if options.columns.keys().isdisjoint((column_letter(at), *texts))
    ]
    if not letters:
        return sheet
    are = "Columns that are" if len(letters) > 1 else "A column that is"
    message = (
        f"{are} hidden in the workbook {'are' if len(letters) > 1 else 'is'} read too: {listed(letters)}."
    )
    told = note("columns-hidden", message, f'To leave it out: --column "{letters[0]}=".')
    return sheet._replace(notes=(*sheet.notes, told.at(sheet.place())))


def _telling(not_read: Sequence[NotRead], are_others: bool) -> list[Problem]:
    """Why sheets are not read, without the blank ones of a workbook when a better reason is there too."""
    telling = [one.problem for one in not_read if one.why != "blank"]
    return telling if telling or are_others else [one.problem for one in not_read[:1]]


def read_sheet(sheet: Sheet, options: ReadingOptions, whole: bool = False) -> Reading | NotRead:
    """Decide how one sheet is read: as asked, else in the first layout that it has."""
    top = Top(sheet, options, whole)
    asked = options.layout
    is_lines = asked is None and _is_text(sheet) and not _is_headed_run(top)
    by_lines = is_lines and (sheet.is_text or not _has_columns(top))
    as_list: NotRead | None = None
    drawn: list[NotRead] = []
    of_months: NotRead | None = None
    for layout in LAYOUTS:
        if asked not in (None, "plan") and asked != layout.name and asked not in layout.asked_as:
            continue
        if layout.with_set and layout.with_set not in options.defaults:
            continue
        if layout.name == "text" and asked is None and not (is_lines or top.is_one_column):
            continue
        if by_lines and layout.name != "text":
            continue
        is_asked = asked in (layout.name, *layout.asked_as) and asked != "events"
        if (
            layout.only_after
            and not is_asked
            and not by_lines
            and (as_list is None or as_list.why not in layout.only_after)
        ):
            continue
        if layout.only_after and any(one.why == "month-unnamed" for one in drawn):
            continue  # its shape is known, and only its month is open
        reading = layout.look(top)
        if isinstance(reading, Reading):
            return _with_lines_heard(reading, top)
        if layout.name == "events" and reading.why == "month-unnamed":
            of_months = reading
        if layout.name != "events":
            drawn.append(reading)
        elif as_list is None or reading.why not in ("no-language", "no-weekdays", "no-sections"):
            # a list that has got its dates by then says more than one that had none
            if as_list is None and asked in (None, "grid"):
                top = _with_each_weekday(top)
            if layout.module == "eventlist" or reading.why == "no-titles":
                as_list = reading
            elif reading.why == "no-weeks":
                as_list = reading._replace(columns=as_list.columns if as_list else ())
    if as_list is None:  # a drawing was asked for: what its own layout says
        return drawn[0]
    unnamed = next((one for one in drawn if one.why in ("month-unnamed", "day-unnamed")), of_months)
    return unnamed or _with_remedy_of_shape(as_list, top)


def _with_each_weekday(top: Top) -> Top:
    """The top of a sheet that is no plain list, with a column a weekday where it draws several in one."""
    sheet = with_each_weekday(top.sheet, top.of_weekdays)
    return top if sheet is top.sheet else Top(sheet, top.options, top.is_whole)


def _with_lines_heard(reading: Reading, top: Top) -> Reading:
    """A reading with what lines beside it say of all of it; lists have heard them."""
    is_text = reading.layout == "text"
    if reading.table is not None and not is_text:
        return _with_days_closed(reading, reading.table.lines)
    lines = list(top.sheet.read_lines() if is_text and top.sheet.read_lines is not None else top.rows)
    problems, notes = said_of_drawing(reading.sheet, lines, top.options, is_text)
    if is_text:
        reading = _with_days_closed(reading, list(lone_texts(lines)))
    elif not reading.is_weekly:
        reading = _with_events_around(reading, top)
    return reading._replace(problems=(*reading.problems, *problems), notes=(*reading.notes, *notes))


def _with_days_closed(reading: Reading, lines: Sequence[tuple[int, str]]) -> Reading:
    """A reading whose repeating rows are not held on the days that lines beside them take out; weekly ones have heard these."""
    if reading.table is None or reading.is_weekly or not reading.may_repeat or not lines:
        return reading
    from nomarium.reading.rows.closeddays import closed_by_lines

    closed = closed_by_lines(reading.table, lines)
    return reading._replace(
        closed=closed.days,
        notes=(*reading.notes, *closed.notes),
        problems=(*reading.problems, *closed.problems),
    )


def _with_events_around(reading: Reading, top: Top) -> Reading:
    """A drawing with the events that lines above and below it say."""
    lines = [line for line in lone_texts(top.rows) if re.search(r"\d", line[1])]
    if not lines:
        return reading
    from nomarium.reading.columns.decisions import Decisions
    from nomarium.reading.rows.linesaround import Around, with_events_around

    first = next(number for number, row in top.rows if not is_blank(row))
    known = Around(reading.sheet, Decisions(top.lexicon, top.options.date_order), top.options, title=first)
    may_repeat = reading.may_repeat or any(often_in(text) for _, text in lines)
    return reading._replace(events=with_events_around(reading.events, known, lines), may_repeat=may_repeat)


def _is_text(sheet: Sheet) -> bool:
    """Whether a sheet may be lines of text, when nothing says so: a table of text is one still."""
    return sheet.is_text or (
        sheet.read_lines is not None and sheet.file.lower().endswith((".txt", ".md", ".markdown"))
    )


def _has_columns(top: Top) -> bool:
    """Whether the rows of a text are those of a table: most have as many cells, and several."""
    widths = Counter(len(row) for _, row in top.rows if not is_blank(row))
    (width, often), *_ = widths.most_common(1) or [(0, 0)]
    return width > 1 and often > 1 and often >= 0.8 * sum(widths.values())


def _is_headed_run(top: Top) -> bool:
    """Whether rows of one width follow each other below a row of headings, and all others are lines of one text: a table with a
    title above it and remarks below."""
    filled = [row for _, row in top.rows if not is_blank(row)]
    width = max(map(len, filled), default=0)
    if width < 3 or sum(len(row) == width for row in filled) < 3:
        return False
    inside = [at for at, row in enumerate(filled) if len(row) == width]
    run = filled[inside[0] : inside[-1] + 1]
    if len(run) != len(inside) or any(len(row) > 1 for row in filled if len(row) != width):
        return False
    headings = [cell_text(cell) for cell in run[0]]
    are_words = not any(map(str.isdigit, "".join(headings)))
    return are_words and any(match_exactly(text) is not None for text in headings)


def _with_remedy_of_shape(missing: NotRead, top: Top) -> NotRead:
    """Why a table without a column of dates is none, with what to do as its shape suggests."""
    remedy = _remedy_of_shape(top, missing.columns) if missing.why == "no-dates" else ""
    return missing._replace(problem=missing.problem._replace(remedy=remedy)) if remedy else missing


def _remedy_of_shape(top: Top, columns: Sequence[Column]) -> str:
    from nomarium.reading.layouts.notlists import seems_dated
    from nomarium.reading.layouts.onside import lies_on_side
    from nomarium.reading.layouts.weekdays import has_weekdays

    rows = [row for _, row in top.rows]
    lexicon = top.of_both
    if lies_on_side(rows):
        return "It seems to lie on its side: copy it and paste it transposed, with a row for each event."
    dated = [
        column.heading
        for column in columns
        if column.heading and not column.field and seems_dated(column, rows, lexicon)
    ]
    if dated:
        last = f'; and if that is the last day: --column "{dated[1]}=end-date"' if len(dated) > 1 else ""
        return f'Say which column is the date: --column "{dated[0]}=date"{last}.'
    if any(sum(looks_like_date(cell, lexicon) for cell in row) > 1 for row in rows):
        return (
            "Its dates stand across: put times into the first column (a grid), or make a row for each event."
        )
    if has_weekdays(top, lexicon) and top.options.day_one is None:
        if top.options.repeats_from is not None or top.options.repeats_until is not None:
            return "Its weekdays are known, but not when what stands under them begins: write a time into each cell, or left of each line; a list needs a heading over each column, such as Day, Time and Title."
        return (
            "For one week, say which: --day-one 2027-04-12; for one that repeats: --from DATE --until DATE."
        )
    return ""


def _headings_missing(readings: Sequence[Reading], options: ReadingOptions) -> list[Problem]:
    """Headings that `--column` or `--fill-down` name and no table has."""
    tables = [reading.table for reading in readings if reading.table]
    if not tables:
        return []
    named = [(heading, "--column") for heading in options.columns] + [
        (heading, "--fill-down") for heading in options.fill_down
    ]
    if options.recipe_name:
        named = [(heading, f"The recipe {options.recipe_name}") for heading, _ in named]
    return [
        heading_missing(tables[0].sheet, tables[0].headings, heading, option)
        for heading, option in named
        if not any(asked_columns(heading, table.headings, table.sheet.first_column) for table in tables)
    ]
