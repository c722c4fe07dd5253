"""How one sheet is read as an event list: where the table is, what its columns are, what its dates mean."""

import re
from collections.abc import Collection, Iterator, Sequence
from itertools import chain, islice

from nomarium.model.cell import Cell
from nomarium.model.eventcolumns import columns_as_written
from nomarium.model.limits import LONGEST_CELL
from nomarium.model.problem import Problem, note
from nomarium.reading.cells.memo import REPEAT_FIELDS
from nomarium.reading.cells.moments import Moment, plain_date, read_moment
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.columns.asked import overridden_twice, without_overridden
from nomarium.reading.columns.cellssay import without_unsaid
from nomarium.reading.columns.clocks import clock_told, find_clock, morning_told, written_clock
from nomarium.reading.columns.column import Column
from nomarium.reading.columns.columnnotes import column_notes
from nomarium.reading.columns.columns import assign_columns
from nomarium.reading.columns.decisions import Decisions, told
from nomarium.reading.columns.evidence import decide
from nomarium.reading.columns.head import TableHead, find_head
from nomarium.reading.columns.headedtitles import with_headed_titles
from nomarium.reading.columns.headings import match_heading
from nomarium.reading.columns.headingzones import zones_in_headings
from nomarium.reading.columns.lexicons import lexicon_for
from nomarium.reading.columns.programmegaps import with_gaps_asked
from nomarium.reading.columns.repeatdates import telling_how_often, with_dates_said
from nomarium.reading.columns.repeatsunheard import weekly_to_the_last
from nomarium.reading.columns.saidofall import lines_of, said_of_all
from nomarium.reading.columns.sides import with_sides_as_title
from nomarium.reading.columns.spreaddates import find_spread_dates
from nomarium.reading.columns.table import TableReading, data_rows, fill_down_columns, filled_rows
from nomarium.reading.columns.timesinwords import times_in_words
from nomarium.reading.columns.titles import half_titles, title_columns, unknown_in_title
from nomarium.reading.columns.unheard import unheard
from nomarium.reading.columns.weekdaysapart import weekdays_apart
from nomarium.reading.layouts.classlists import is_of_classes
from nomarium.reading.layouts.layout import NotRead, Reading, Top, not_read
from nomarium.reading.layouts.notlists import misfit, missing_field, without_rows
from nomarium.reading.layouts.saidlengths import with_length_said
from nomarium.reading.layouts.sessiontimes import with_lengths_of_sessions, with_session_times
from nomarium.reading.layouts.titlecells import with_cells_apart
from nomarium.reading.layouts.weekdaysabove import in_parts
from nomarium.reading.options import ReadingOptions
from nomarium.reading.rows.tellingrows import held_rows, without_sections
from nomarium.reading.rows.yearly import any_year, is_yearly, yearly_heading
from nomarium.sheets.sheet import TOP_ROWS, Row, RowsAgain, Sheet, cell_text, in_one_line


def look(top: Top) -> Reading | NotRead:
    """Read a sheet as a list of events, or say why it is none."""
    return list_in(top, in_parts(top))


def look_in_its_language(top: Top) -> Reading | NotRead:
    """Read a sheet as a list whose dates are written in another language, which its own texts show."""
    if top.seen is None:
        reason = "its texts show no other language"
        message = f"No text of {top.sheet.title} names months or weekdays in another language."
        return not_read(top.sheet, "no-language", reason, "date-column-missing", message)
    return list_in(top, top.sheet, top.seen)


def list_in(top: Top, sheet: Sheet, seen: Lexicon | None = None) -> Reading | NotRead:
    """A sheet, perhaps with dates that its rows did not have, as a list."""
    sheet, options = with_length_said(sheet, top.rows, top.options)
    lined, sheet = sheet, in_one_line(sheet)
    table = read_table(sheet, options, top.is_whole, seen)
    if isinstance(table, NotRead):
        return table
    apart = with_cells_apart(lined, table)
    timed = with_session_times(lined, table) if apart is None else None
    apart = apart or timed or _with_columns_joined(lined, table)
    if apart is not None:
        apart = in_one_line(apart)
        again = read_table(apart, options, top.is_whole, seen)
        if not isinstance(again, NotRead):
            sheet, table = apart, again
    table = with_lengths_of_sessions(table)
    from nomarium.reading.rows.tableevents import TableEvents

    return Reading(
        sheet, "events", TableEvents(table), table.notes, table.problems,
        _may_repeat(table), table.is_whole, table, is_of_classes=is_of_classes(table), has_sessions=timed is not None,
    )  # fmt: skip


def _with_columns_joined(sheet: Sheet, table: TableReading) -> Sheet | None:
    """The sheet with times and their halves of the day, or how often and every how many, in one column; None for most."""
    headings = [c.heading.casefold().replace(".", "") for c in table.columns if c.is_ignored]
    if not any("pm" in heading or "interval" in heading or "every" in heading for heading in headings):
        return None
    from nomarium.reading.layouts.columnsjoined import with_columns_joined

    return with_columns_joined(sheet, table)


_MAY_BE_RANGE = r"[–—]|\s-\s|\bto\b|\d-\d"


def _may_repeat(table: TableReading) -> bool:
    """Whether rows may repeat: as they say, or between a first and a last day with times."""
    fields = {column.field for column in table.columns} | set(table.options.defaults)
    if not fields.isdisjoint(REPEAT_FIELDS) or table.decisions.has_unread or table.says_often:
        return True
    if any(
        column.field in ("date", "when", "milestone") and is_yearly(column.heading)
        for column in table.columns
    ):
        return True
    date = table.column("date") or table.column("when")
    return (
        "end-date" in fields
        or {"end", "time"} <= fields
        or (date is not None and _has_ranges(table, date.at))
    )


def _has_ranges(table: TableReading, at: int) -> bool:
    """Whether some date at the top of a table is a range of days."""
    cells = {
        row[at] for _, row in islice(table.rows(), TOP_ROWS) if at < len(row) and isinstance(row[at], str)
    }
    return any(
        isinstance(moment := read_moment(cell, "date", table.decisions.lexicon), Moment)
        and moment.last is not None
        for cell in cells
        if isinstance(cell, str) and re.search(_MAY_BE_RANGE, cell) and plain_date(cell) is None
    )


def _as_written(head: TableHead, options: ReadingOptions) -> ReadingOptions:
    """The options for a table that a build has written: its words are no times, and its headings mean what they say."""
    ours = columns_as_written(tuple(head.headings))
    return (
        options._replace(columns=ours | dict(options.columns), clock=options.clock or "24")
        if ours
        else options
    )


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
        return not_read(sheet, "blank", "it is blank", "table-blank", f"{sheet.title} is blank.")
    first_rows = list(islice(rows := data_rows(sheet, head), TOP_ROWS))
    data: Iterator[Row] = chain(first_rows, rows)
    sample = held_rows(first_rows, head.headings)
    if not sample:
        return without_rows(sheet)
    options = _as_written(head, options)
    parts = find_spread_dates(sheet, head, sample, options, seen)
    if parts is not None:
        data = parts.joined(
            filled_rows(sheet, data, fill_down_columns(head.headings, options, sheet.first_column))
        )
        first_rows = list(islice(data, TOP_ROWS))
        data = chain(first_rows, data)
        head = parts.renamed(head)
        sample = held_rows(first_rows, head.headings)
    asked = parts.asking(options, head) if parts else options
    columns = assign_columns(sheet, head, telling := without_sections(sample, seen), asked, seen)
    if (coded := _with_weekdays_in_words(sheet, head, columns, seen, options)) is not None:
        return coded
    notes: list[Problem] = []
    if not options.languages and (known := _lexicon_of_unknown_weekdays(columns, sample, seen)) is not None:
        from nomarium.reading.cells.words import language_name

        lexicon, seen = lexicon.extended(known), seen.extended(known)
        columns = assign_columns(sheet, head, telling, asked, seen)
        message = f"Weekdays have names in {language_name(known.languages[-1])}."
        notes.append(note("date-language", message).at(sheet.place()))
    columns = without_unsaid(without_overridden(columns, options), telling, seen)
    if (often := telling_how_often(columns, sample, seen)) is not None:
        return read_table(*with_dates_said(sheet, head.headings, often, options), whole, seen)
    options, of_titles = with_headed_titles(sheet, columns, *with_sides_as_title(sheet, columns, options))
    missing = misfit(sheet, columns, options) or missing_field(sheet, columns, options, head, seen)
    missing = missing or _rota_in(sheet, head, columns, sample, options)
    if missing is not None:
        return missing._replace(columns=tuple(columns))
    options = weekly_to_the_last(columns, options)
    in_titles = title_columns(options.title, head.headings, sheet.first_column, {})[0].values()
    notes = [*column_notes(sheet, columns, options.keep_extra, in_titles), *notes, *of_titles]
    notes += [parts.told(sheet, columns, options.fill_down)] if parts else []
    lines = tuple(lines_of(sheet, head, first_rows))
    beside, told_beside = said_of_all(sheet, head, columns, options, lines)
    problems = (*_problems_of(sheet, head, columns, options, first_rows, telling, seen, in_titles), *beside)
    notes += [*times_in_words(sheet, head, columns, first_rows, options, in_titles), *told_beside]
    data = data if parts else filled_rows(sheet, data, ())
    table = TableReading(
        sheet, head, tuple(columns), Decisions(lexicon), options, problems, tuple(notes), parts, lines
    )
    return _settled(table, data, sample, whole, len(first_rows) < TOP_ROWS, telling is not sample)


def _rota_in(
    sheet: Sheet,
    head: TableHead,
    columns: Sequence[Column],
    sample: Sequence[Sequence[Cell]],
    options: ReadingOptions,
) -> NotRead | None:
    """Why a table is a rota, and no list; None for most: only what no heading claims can be a post."""
    if not any(c.how == "content" or (c.is_ignored and c.filled) for c in columns):
        return None
    from nomarium.reading.layouts.turns import rotating_posts

    return rotating_posts(sheet, head, columns, sample, options)


def _with_weekdays_in_words(
    sheet: Sheet, head: TableHead, columns: Sequence[Column], lexicon: Lexicon, options: ReadingOptions
) -> TableReading | NotRead | None:
    """A dated sheet read with phrases for its codes of weekdays (`MWF`, ticks); None when it has none."""
    others = [
        column.heading
        for column in columns
        if column.field in ("", "day", "repeat") or (column.field == "summary" and column.how == "content")
    ]
    is_dated = any(column.field in ("date", "when") for column in columns)
    if not is_dated or not others:
        return None
    from nomarium.reading.columns.weekdaycolumn import may_say_weekdays, weekdays_in

    if not may_say_weekdays(others, lexicon):
        return None
    weekly = weekdays_in(sheet, head, lexicon, options)
    if weekly is None or weekly.named(sheet, head) in options.columns:
        return None
    if not weekly.is_coded and not weekly.problems:
        return None
    rows = RowsAgain(lambda: ((number, weekly.row(number, row, head)) for number, row in sheet.rows()))
    asked = {weekly.named(sheet, head): "repeat", **options.columns}
    in_words = sheet._replace(read_rows=rows, notes=(*sheet.notes, *weekly.told_unsettled(sheet)))
    table = read_table(in_words, options._replace(columns=asked), True, lexicon)
    return (
        table if isinstance(table, NotRead) else table._replace(problems=(*weekly.problems, *table.problems))
    )


def _problems_of(
    sheet: Sheet,
    head: TableHead,
    columns: Sequence[Column],
    options: ReadingOptions,
    rows: Sequence[Row],
    sample: Sequence[Sequence[Cell]],
    lexicon: Lexicon,
    in_titles: Collection[int],
) -> list[Problem]:
    """What keeps a table from being read although its columns are known: something in it would be lost. `sample`: those of its rows
    by which the columns were told apart."""
    return [
        *overridden_twice(sheet, columns, options),
        *unknown_in_title(sheet, head.headings, columns, options.title),
        *half_titles(sheet, columns, rows, options),
        *([] if options.title else _dated_titles(sheet, columns, sample, lexicon)),
        *zones_in_headings(sheet, columns, options),
        *weekdays_apart(sheet, columns, lexicon),
        *(_event_above(sheet, head, columns, lexicon) if len(head.title_rows) > 1 else ()),
        *unheard(sheet, columns, sample, lexicon, in_titles, _says_how_long(options), options.keep_extra),
    ]


def _event_above(sheet: Sheet, head: TableHead, columns: Sequence[Column], lexicon: Lexicon) -> list[Problem]:
    if not any(column.has_days and column.filled for column in columns):
        return []  # the date above is that of the rows
    from nomarium.reading.columns.eventabove import event_above  # few tables have several rows above them

    return event_above(sheet, head, lexicon)


def _said_above(
    sheet: Sheet, head: TableHead, columns: Sequence[Column], options: ReadingOptions, lexicon: Lexicon
) -> list[Problem]:
    """Notes of dates and places above a table of which its rows know nothing."""
    from nomarium.reading.columns.eventabove import limits_above, place_above

    places = {"location", "room"}
    have_places = any(c.field in places for c in columns)
    have_places = have_places or not places.isdisjoint((*options.defaults, *options.overrides))
    have_dates = any(column.has_days and column.filled for column in columns)
    return [
        *(limits_above(sheet, head, lexicon) if have_dates else ()),
        *([] if have_places else place_above(sheet, head)),
    ]


def _dated_titles(
    sheet: Sheet, columns: Sequence[Column], sample: Sequence[Sequence[Cell]], lexicon: Lexicon
) -> list[Problem]:
    """Problems of titles that hold days of their own; most hold no figures."""
    titles = [text for c in columns if c.field == "summary" for text in c.samples]
    if sum(any(map(str.isdigit, text)) for text in titles) * 2 < max(len(titles), 1):
        return []
    from nomarium.reading.rows.datedtitles import dated_titles

    return dated_titles(sheet, columns, sample, lexicon)


def _settled(
    table: TableReading,
    data: Iterator[Row],
    sample: Sequence[Sequence[Cell]],
    whole: bool,
    is_short: bool,
    has_months: bool,
) -> TableReading:
    """The table with what its dates and times settle together. `is_short`: the sample is all of it; `has_months`: rows may hold
    months alone."""
    sheet, columns, options, lexicon = table.sheet, table.columns, table.options, table.decisions.lexicon
    if whole:
        data = iter(held := list(data))
        sample = [row for _, row in held]
    above = None
    headed = [c.heading for c in columns if c.has_days and any(map(str.isdigit, c.heading))]
    if sheet.name or sheet.said_above or table.head.title_rows or headed:
        from nomarium.reading.columns.yearsabove import year_above

        above = year_above(sheet, table.head, headed)
    if above is None and has_months:
        from nomarium.reading.columns.yearsabove import year_of_months

        above = year_of_months(islice(sheet.rows(), TOP_ROWS), lexicon)
    decisions = decide(sheet, columns, data, options, lexicon, whole, above)
    clock = find_clock(sheet, columns, sample, options, decisions.lexicon, whole or is_short)
    ours = not options.clock and bool(columns_as_written(tuple(c.heading for c in columns)))
    clock, of_nights = written_clock(clock) if ours else (clock, [])
    decisions = decisions._replace(clock=clock)
    if yearly_heading(table):
        window = any_year(options.repeats_from)
        decisions = decisions._replace(window=window, window_evidence="", is_near=False)
    notes = [
        *table.notes,
        *(_said_above(sheet, table.head, columns, options, lexicon) if table.head.title_rows else ()),
        *told(decisions, sheet),
        *(one.at(sheet.place()) for one in (*clock_told(clock), *morning_told(clock), *of_nights)),
    ]
    if not any(column.field == "end" and column.filled for column in columns):
        from nomarium.reading.columns.slotlengths import slots_told

        notes += slots_told(sheet, columns, sample, options)
    problems = (*decisions.problems, *table.problems)
    return with_gaps_asked(
        table._replace(decisions=decisions, problems=problems, notes=(*sheet.notes, *notes))
    )


def _lexicon_of_unknown_weekdays(
    columns: Sequence[Column], sample: Sequence[Sequence[Cell]], seen: Lexicon
) -> Lexicon | None:
    """The names of the language in which a column says weekdays that are not known; None when all are, or none is."""
    words = _unknown_weekdays(columns, sample, seen)
    if not words:
        return None
    from nomarium.reading.cells.languages import weekday_lexicon

    return weekday_lexicon(words)


_BETWEEN_WEEKDAYS = r"\s*(?:[/,&+]|\b(?:und|et|y|en|og|och|i|e)\b)\s*"


def _unknown_weekdays(
    columns: Sequence[Column], sample: Sequence[Sequence[Cell]], lexicon: Lexicon
) -> frozenset[str]:
    """The words (folded) of a column that is headed as a day's and names no weekdays that are known; else none."""
    for column in columns:
        named = match_heading(column.heading) if not column.field and column.how != "asked" else None
        if column.field == "day" or (named is not None and named.field == "date" and named.is_weak):
            texts = (cell_text(row[column.at]) for row in sample if column.at < len(row))
            found = [
                re.split(_BETWEEN_WEEKDAYS, fold(text).strip())
                for text in texts
                if 0 < len(text) <= LONGEST_CELL
            ]
            words = frozenset(word for some in found for word in some if word)
            if len(words) <= 7 and all(map(str.isalpha, words)) and not words <= lexicon.weekdays.keys():
                return words
    return frozenset()


def _says_how_long(options: ReadingOptions) -> bool:
    """Whether options say, as columns would, how long rows go on that begin on a day."""
    is_asked = not options.defaults.keys().isdisjoint(("repeat", "end-date")) or bool(options.spans)
    return is_asked or not options.tells_repeats
