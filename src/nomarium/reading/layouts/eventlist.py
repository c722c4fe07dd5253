"""How one sheet is read as an event list: where the table is, what its columns are, what its dates mean."""

import re
from collections.abc import Collection, Iterator, Sequence
from functools import partial
from itertools import chain, islice

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem, column_letter, note
from nomarium.reading.cells.memo import REPEAT_FIELDS
from nomarium.reading.cells.moments import Moment, plain_date, read_moment
from nomarium.reading.cells.words import ENGLISH, Lexicon, fold
from nomarium.reading.columns.asked import heading_missing, overridden_twice, without_overridden
from nomarium.reading.columns.clocks import clock_told, find_clock
from nomarium.reading.columns.column import Column
from nomarium.reading.columns.columnnotes import column_notes
from nomarium.reading.columns.columns import assign_columns
from nomarium.reading.columns.datejoins import DateJoins, find_date_joins
from nomarium.reading.columns.dateparts import DateParts, find_date_parts
from nomarium.reading.columns.decisions import Decisions, told
from nomarium.reading.columns.evidence import decide
from nomarium.reading.columns.head import TableHead, find_head, looks_like_date
from nomarium.reading.columns.headings import match_heading, normal, unit_of
from nomarium.reading.columns.lexicons import lexicon_for
from nomarium.reading.columns.runningmonths import RunningMonths, find_running_months
from nomarium.reading.columns.sides import with_sides_as_title
from nomarium.reading.columns.table import TableReading, data_rows, fill_down_columns, filled_rows
from nomarium.reading.columns.timesinwords import times_in_words
from nomarium.reading.columns.titles import half_titles, title_columns, unknown_in_title
from nomarium.reading.columns.unheard import begun_column, unheard
from nomarium.reading.layouts.layout import NotRead, Reading, Top, not_read
from nomarium.reading.layouts.titlecells import with_cells_apart
from nomarium.reading.options import ReadingOptions
from nomarium.reading.rows.yearly import is_yearly
from nomarium.sheets.sheet import TOP_ROWS, Row, RowsAgain, Sheet, cell_text, in_one_line, is_blank


def look(top: Top) -> Reading | NotRead:
    """Read a sheet as a list of events, or say why it is none."""
    return list_in(top, top.sheet)


def look_in_its_language(top: Top) -> Reading | NotRead:
    """Read a sheet as a list whose dates are written in another language, which its own texts show."""
    if top.seen is None:
        reason = "its texts show no other language"
        message = f"No text of {top.sheet.title} names months or weekdays in another language."
        return not_read(top.sheet, "no-language", reason, "date-column-missing", message)
    return list_in(top, top.sheet, top.seen)


def list_in(top: Top, sheet: Sheet, seen: Lexicon | None = None) -> Reading | NotRead:
    """A sheet, perhaps with dates that its rows did not have, as a list."""
    lined, sheet = sheet, in_one_line(sheet)
    table = read_table(sheet, top.options, top.is_whole, seen)
    if isinstance(table, NotRead):
        return table
    if (apart := with_cells_apart(lined, table)) is not None:
        apart = in_one_line(apart)
        again = read_table(apart, top.options, top.is_whole, seen)
        if not isinstance(again, NotRead):
            sheet, table = apart, again
    from nomarium.reading.rows.reader import read_events

    return Reading(
        sheet, "events", partial(read_events, table), table.notes, table.problems,
        _may_repeat(table), table.is_whole, table,
    )  # fmt: skip


_MAY_BE_RANGE = r"[–—]|\s-\s|\bto\b|\d-\d"


def _may_repeat(table: TableReading) -> bool:
    """Whether rows may repeat: as they say, or between a first and a last day with times."""
    fields = {column.field for column in table.columns} | set(table.options.defaults)
    if not fields.isdisjoint(REPEAT_FIELDS) or table.decisions.has_unread:
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
    rows = data_rows(sheet, head)
    first_rows = list(islice(rows, TOP_ROWS))
    data: Iterator[Row] = chain(first_rows, rows)
    sample = [row for _, row in first_rows if not is_blank(row)]
    if not sample:
        return _without_rows(sheet)
    parts = _date_parts(head, sample, options, seen)
    if parts is not None:
        data = parts.joined(
            filled_rows(sheet, data, fill_down_columns(head.headings, options, sheet.first_column))
        )
        first_rows = list(islice(data, TOP_ROWS))
        data = chain(first_rows, data)
        sample = [row for _, row in first_rows if not is_blank(row)]
        head = parts.renamed(head)
    asked = parts.asking(options, head) if parts else options
    columns = assign_columns(sheet, head, sample, asked, seen)
    if (coded := _with_weekdays_in_words(sheet, head, columns, seen, options)) is not None:
        return coded
    notes: list[Problem] = []
    if not options.languages and (known := _lexicon_of_unknown_weekdays(columns, sample, seen)) is not None:
        from nomarium.reading.cells.words import language_name

        lexicon, seen = lexicon.extended(known), seen.extended(known)
        columns = assign_columns(sheet, head, sample, asked, seen)
        message = f"Weekdays have names in {language_name(known.languages[-1])}."
        notes.append(note("date-language", message).at(sheet.place()))
    columns = without_overridden(columns, options)
    options, of_sides = with_sides_as_title(sheet, columns, options)
    missing = _misfit(sheet, columns, options) or _missing(sheet, columns, options, head)
    if missing is not None:
        return missing._replace(columns=tuple(columns))
    options = _weekly_to_the_last(columns, options)
    in_titles = title_columns(options.title, head.headings, sheet.first_column, {})[0].values()
    notes = [
        *column_notes(sheet, columns, options.keep_extra, in_titles),
        *notes,
        *of_sides,
        *([parts.told(sheet, columns, options.fill_down)] if parts else ()),
        *times_in_words(sheet, head, columns, first_rows, {**options.defaults, **options.overrides}),
    ]
    problems = _problems_of(sheet, head, columns, options, first_rows, seen, in_titles)
    data = data if parts else filled_rows(sheet, data, ())
    table = TableReading(
        sheet, head, tuple(columns), Decisions(lexicon), options, tuple(problems), tuple(notes), parts
    )
    return _settled(table, data, sample, whole, len(first_rows) < TOP_ROWS)


def _without_rows(sheet: Sheet) -> NotRead:
    message = f"{sheet.title} has headings and no rows."
    remedy = "Check that this is the right file: an empty calendar must not replace a full one."
    return not_read(sheet, "no-rows", "it has no rows under its headings", "table-empty", message, remedy)


def _date_parts(
    head: TableHead, sample: Sequence[Sequence[Cell]], options: ReadingOptions, seen: Lexicon
) -> DateParts | DateJoins | RunningMonths | None:
    """The columns that say a date together, or the one whose days need the month above them; None in most tables."""
    return (
        find_date_parts(head.headings, sample, options.columns)
        or find_date_joins(head.headings, sample, options.columns, seen)
        or find_running_months(sample, seen)
    )


def _with_weekdays_in_words(
    sheet: Sheet, head: TableHead, columns: Sequence[Column], lexicon: Lexicon, options: ReadingOptions
) -> TableReading | NotRead | None:
    """A dated sheet read with phrases for its codes of weekdays (`MWF`, ticks); None when it has none."""
    others = [column.heading for column in columns if column.field in ("", "day", "repeat")]
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
    in_words = sheet._replace(read_rows=rows)
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
    lexicon: Lexicon,
    in_titles: Collection[int],
) -> list[Problem]:
    """What keeps a table from being read although its columns are known: something in it would be lost."""
    sample = [row for _, row in rows if not is_blank(row)]
    return [
        *overridden_twice(sheet, columns, options),
        *unknown_in_title(sheet, head.headings, columns, options.title),
        *half_titles(sheet, columns, rows, options),
        *unheard(sheet, columns, sample, lexicon, in_titles, _says_how_long(options)),
    ]


def _settled(
    table: TableReading, data: Iterator[Row], sample: Sequence[Sequence[Cell]], whole: bool, is_short: bool
) -> TableReading:
    """The table with what its dates and times settle together. `is_short`: the sample is all of it."""
    sheet, columns, options, lexicon = table.sheet, table.columns, table.options, table.decisions.lexicon
    if whole:
        data = iter(held := list(data))
        sample = [row for _, row in held]
    clock = find_clock(sheet, columns, sample, options, lexicon, whole or is_short)
    above = None
    if sheet.name or sheet.said_above or table.head.title_rows:
        from nomarium.reading.columns.yearsabove import year_above

        above = year_above(sheet, table.head)
    decisions = decide(sheet, columns, data, options, lexicon, whole, above)._replace(clock=clock)
    notes = [*table.notes, *told(decisions, sheet), *(one.at(sheet.place()) for one in clock_told(clock))]
    return table._replace(
        decisions=decisions, problems=(*decisions.problems, *table.problems), notes=(*sheet.notes, *notes)
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
            found = [re.split(_BETWEEN_WEEKDAYS, fold(text).strip()) for text in texts if text]
            words = frozenset(word for some in found for word in some if word)
            if len(words) <= 7 and all(map(str.isalpha, words)) and not words <= lexicon.weekdays.keys():
                return words
    return frozenset()


def _misfit(sheet: Sheet, columns: Sequence[Column], options: ReadingOptions) -> NotRead | None:
    """A sheet that lacks a heading of the recipe: the recipe is for another kind of spreadsheet."""
    if not options.recipe_name or len(options.sheets) > 1:
        return None
    there = {normal(c.heading) for c in columns} | {column_letter(c.at + sheet.first_column) for c in columns}
    for heading, field in options.columns.items():
        if field and heading not in there and normal(heading) not in there:
            problem = heading_missing(
                sheet, [c.heading for c in columns], heading, f"The recipe {options.recipe_name}"
            )
            return NotRead(sheet, "other-recipe", "it does not fit the recipe", problem)
    return None


def _says_how_long(options: ReadingOptions) -> bool:
    """Whether options say, as columns would, how long rows go on that begin on a day."""
    is_asked = not options.defaults.keys().isdisjoint(("repeat", "end-date")) or bool(options.spans)
    return is_asked or not options.tells_repeats


def _weekly_to_the_last(columns: Sequence[Column], options: ReadingOptions) -> ReadingOptions:
    """Options by which rows that say a weekday and the day they begin are held weekly to the end that `--until` says."""
    if options.last_repeat is None or begun_column(columns) is None or "end-date" in options.defaults:
        return options
    return options._replace(defaults={"repeat": "weekly", **options.defaults})


def _missing(
    sheet: Sheet, columns: Sequence[Column], options: ReadingOptions, head: TableHead
) -> NotRead | None:
    """A sheet without a required field, unless `--set` gives it."""
    fields = {c.field for c in columns if c.field != "start" or c.has_days or not c.filled} | set(
        options.defaults
    )
    has_date = fields & {"date", "when", "start", "milestone"} or (
        fields & {"week", "day"} and options.day_one
    )
    there = ", ".join(f"“{c.heading}”" for c in columns if c.heading) or "no headings"
    if not has_date and fields & {"week", "day"} and "summary" in fields:
        message = f"{sheet.title} counts in weeks or days and no date says where the count begins."
        remedy = "Give the date of week 1 day 1: --day-one 2027-04-05."
        return not_read(sheet, "no-day-one", "it has no dates", "day-one-missing", message, remedy)
    if not has_date:
        message = f"No column of {sheet.title} holds dates (it has {there})."
        remedy = f"{_column_asked(columns, 'date', options)}For one day only: --set date=2027-04-12."
        return not_read(sheet, "no-dates", "it has no dates", "date-column-missing", message, remedy)
    if _heads_a_roster(sheet, head):
        message = f"The first row of {sheet.title} is headed by dates: it is no list."
        return not_read(sheet, "no-dates", "dates head its columns", "date-column-missing", message)
    if _is_planner(columns):
        message = f"Weekdays or months head columns of {sheet.title}: it is no list."
        return not_read(
            sheet, "no-dates", "weekdays or months head its columns", "date-column-missing", message
        )
    if not fields & {"summary", "class"} and not options.title:
        message = f"No column of {sheet.title} says what each event is called (it has {there})."
        words = list(dict.fromkeys(_could_be(columns, ("summary",), options)))
        both = words[:2]
        remedy = _column_asked(columns, "summary", options)
        if len(both) == 2:
            remedy = f'To put two into the title: --title "{{{words[0]}}}: {{{words[1]}}}". {remedy}'
        are_posts = len(words) > 2 or len({re.sub(r"\W*(?:\d+|\b\w)$", "", word) for word in words}) == 1
        if len(both) == 2 and are_posts and fields <= {"date", "day", ""}:
            remedy = f"If each filled cell is an event or a duty of its own: --as roster. {remedy}"
        remedy += "To give all of them one title: --set summary=TITLE."
        reason = "nothing says what its events are called"
        return not_read(sheet, "no-titles", reason, "summary-column-missing", message, remedy)
    return None


_LABELS = frozenset(
    "name names staff person people employee member post duty role steward room class team crew "
    "time times hour hours slot slots session sessions period periods".split()
)


def _heads_a_roster(sheet: Sheet, head: TableHead) -> bool:
    """Whether a table without headings begins with a row of dates or times behind a word that heads labels, `Name` or `Time`:
    what stands under it may be dates too, of hours that a spreadsheet took for them."""
    if head.header_rows:
        return False
    first = next((row for number, row in sheet.rows() if number == head.first_row), ())
    texts = [text for cell in first if (text := cell_text(cell))]
    if len(texts) < 3 or fold(texts[0]) not in _LABELS:
        return False
    others = [cell for cell in first if cell_text(cell)][1:]
    return all(map(looks_like_date, others)) or all(unit_of(text).times for text in texts[1:])


def _is_planner(columns: Sequence[Column]) -> bool:
    """Whether columns that nothing else claims are headed by weekdays, or columns of dates by months: what happens, or
    when, stands under them."""
    free = [fold(c.heading).strip() for c in columns if c.filled and c.field in ("", "milestone")]
    dated = [fold(c.heading).strip() for c in columns if c.filled and c.field == "milestone"]
    return (
        sum(word in ENGLISH.weekdays for word in free) > 1
        or sum(word in ENGLISH.months for word in dated) > 1
    )


def _column_asked(columns: Sequence[Column], field: str, options: ReadingOptions) -> str:
    """How to say which column has a field, by the headings of those that could have it."""
    free = _could_be(columns, ("date", "when") if field == "date" else (field,), options)
    if not free:
        return ""
    others = f" (or “{'”, “'.join(free[1:4])}”)" if len(free) > 1 else ""
    return f'Say which one does: --column "{free[0]}={field}"{others}. '


def _could_be(columns: Sequence[Column], fields: Sequence[str], options: ReadingOptions) -> list[str]:
    """The headings of the columns that nothing uses and that could be one of these fields by their cells; a heading
    that is a time heads what happens then."""
    from nomarium.reading.columns.candidates import candidate
    from nomarium.reading.layouts.slots import time_of
    from nomarium.reading.rows.when import NOTHING

    lexicon = lexicon_for(options)
    return [c.heading for c in columns if c.is_ignored and c.heading and c.filled and c.how != "asked"
            and time_of(c.heading) is NOTHING and not set(fields).isdisjoint(candidate(c, lexicon).fields)]  # fmt: skip
