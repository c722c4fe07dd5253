"""Why a table is no list: it lacks dates or titles, has no rows, or is for another recipe."""

import datetime as dt
import re
from collections.abc import Sequence
from itertools import combinations, islice
from typing import Final

from nomarium.model.cell import Cell
from nomarium.model.problem import column_letter
from nomarium.reading.cells.people import PERSON
from nomarium.reading.cells.weeks import is_numbered_week
from nomarium.reading.cells.words import ENGLISH, Lexicon, fold
from nomarium.reading.columns.asked import heading_missing
from nomarium.reading.columns.column import Column
from nomarium.reading.columns.daycells import looks_like_date
from nomarium.reading.columns.head import TableHead
from nomarium.reading.columns.headedyears import years_of
from nomarium.reading.columns.headings import match_exactly, normal, unit_of
from nomarium.reading.columns.lexicons import lexicon_for, weekday_columns
from nomarium.reading.columns.timesinwords import says_time
from nomarium.reading.layouts.layout import NotRead, not_read
from nomarium.reading.options import ReadingOptions
from nomarium.reading.rows.yearly import is_yearly
from nomarium.sheets.sheet import SENT, Sheet, cell_text, is_blank


def without_rows(sheet: Sheet) -> NotRead:
    message = f"{sheet.title} has headings and no rows."
    remedy = "Check that this is the right file: an empty calendar must not replace a full one."
    return not_read(sheet, "no-rows", "it has no rows under its headings", "table-empty", message, remedy)


def misfit(sheet: Sheet, columns: Sequence[Column], options: ReadingOptions) -> NotRead | None:
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


def missing_field(
    sheet: Sheet, columns: Sequence[Column], options: ReadingOptions, head: TableHead, lexicon: Lexicon
) -> NotRead | None:
    """A sheet without a required field, unless `--set` gives it."""
    fields = {c.field for c in columns if c.field != "start" or c.has_days or not c.filled} | set(
        options.defaults
    )
    has_date = fields & {"date", "when", "start", "milestone"} or (
        fields & {"week", "day"} and options.day_one
    )
    there = ", ".join(f"“{c.heading}”" for c in columns if c.heading) or "no headings"
    if not has_date:
        return _without_dates(sheet, columns, options, fields, there)
    is_headed = any(c.field in ("date", "when") and c.how != "content" for c in columns)
    if not is_headed and any(c.is_ignored and _are_lists_of_days(c, lexicon) for c in columns):
        message = f"Cells of several columns of {sheet.title} list days, and none is headed as the date."
        remedy = "Head each column with what is on then, or give each event a row of its own."
        return not_read(sheet, "no-dates", "its cells list days", "date-column-missing", message, remedy)
    years = years_of([c.heading for c in columns])
    if len(years) > 1 and all(columns[at].has_days or not columns[at].filled for at in years):
        message = f"Years head columns of {sheet.title}: the dates under each are of that year."
        return not_read(sheet, "no-dates", "years head its columns", "date-column-missing", message)
    if (bare := _days_without_months(columns, lexicon)) is not None:
        message = (
            f"The column “{bare.heading}” of {sheet.title} holds days, and nothing in it says of which month."
        )
        remedy = "Write the months with them, or a row with the month alone above them: “November 2026”."
        return not_read(
            sheet, "no-dates", "its dates are days without a month", "date-no-month", message, remedy
        )
    titles = [text for c in columns if c.field == "summary" for text in c.samples]
    if "milestone" in fields and any(map(_names_dates, titles)):
        message = (
            f"“{titles[0]}” heads a row of {sheet.title}, and not a column: it seems to lie on its side."
        )
        return not_read(sheet, "no-dates", "it lies on its side", "date-column-missing", message)
    if _heads_a_roster(sheet, head):
        message = f"The first row of {sheet.title} is headed by dates: it is no list."
        return not_read(sheet, "no-dates", "dates head its columns", "date-column-missing", message)
    times_above = not fields & {"time", "start", "when"} and _has_times_above(sheet, head)
    if _is_planner(columns) or _has_weekdays_above(sheet, head, lexicon) or times_above:
        message = f"{'Times' if times_above else 'Weekdays or months'} head columns of {sheet.title}: it is no list."
        return not_read(
            sheet, "no-dates", "what heads its columns is no field", "date-column-missing", message
        )
    if not fields & {"summary", "class"} and not options.title:
        message = f"No column of {sheet.title} says what each event is called (it has {there})."
        remedy = _titles_asked(columns, fields, options)
        reason = "nothing says what its events are called"
        return not_read(sheet, "no-titles", reason, "summary-column-missing", message, remedy)
    return None


def _names_dates(text: str) -> bool:
    match = match_exactly(text)
    return match is not None and match.field in ("date", "when")


def _are_weekdays(column: Column) -> bool:
    return bool(column.samples) and all(fold(text).strip(" .") in ENGLISH.weekdays for text in column.samples)


def _without_dates(
    sheet: Sheet, columns: Sequence[Column], options: ReadingOptions, fields: set[str], there: str
) -> NotRead:
    """Why a sheet has no column of dates, and what would give it one."""
    day = next((c for c in columns if c.field == "day"), None)
    if "week" not in fields and day is not None and not day.heading and _are_weekdays(day):
        message = f"{sheet.title} names weekdays, and no heading over its columns."
        remedy = "Write one over each, such as Day, Time and Title, and say which weeks with --from and --until; for one week only: --day-one 2027-04-05."
        return not_read(sheet, "no-day-one", "it has no dates", "day-one-missing", message, remedy)
    if fields & {"week", "day"} and "summary" in fields:
        message = f"{sheet.title} counts in weeks or days and no date says where the count begins."
        remedy = "Give the date of week 1 day 1: --day-one 2027-04-05."
        return not_read(sheet, "no-day-one", "it has no dates", "day-one-missing", message, remedy)
    if sum(is_numbered_week(c.heading) for c in columns) > 1 and options.day_one is None:
        message = f"{sheet.title} counts in weeks and no date says where the count begins."
        remedy = "Give the date of week 1 day 1: --day-one 2027-04-05."
        return not_read(sheet, "no-day-one", "it has no dates", "day-one-missing", message, remedy)
    if (mixed := _dates_beside_others(columns)) is not None:
        letter = column_letter(mixed.at + sheet.first_column)
        other = next(text for text in mixed.samples if not looks_like_date(text))
        message = f"Column {letter} of {sheet.title} holds dates, and cells that are none, “{other}”."
        remedy = f'To read it as the date, and be told of each of these: --column "{letter}=date".'
        return not_read(sheet, "no-dates", "not all of its dates are", "date-column-missing", message, remedy)
    message = f"No column of {sheet.title} holds dates (it has {there})."
    for_one = "For one day only: --set date=2027-04-12."
    if (above := _day_above(sheet)) is not None:
        for_one = f"If all of it is on the day above it, “{above[1]}”: --set date={above[0]}."
    others = [c for c in columns if c.field not in ("time", "start", "end", "duration")]
    if any(map(_says_days, [text for c in others for text in (c.heading, *c.samples)])):
        for_one = "Give each row its date in a column of its own."
    remedy = f"{_column_asked(columns, 'date', options)}{for_one}"
    return not_read(sheet, "no-dates", "it has no dates", "date-column-missing", message, remedy)


def _day_above(sheet: Sheet) -> tuple[dt.date, str] | None:
    """The one day that the texts above a table say, and the last text that says it; None where they say none, or several."""
    if not sheet.said_above:
        return None
    from nomarium.reading.rows.datewithin import date_within  # few tables have texts above them

    found: dict[dt.date, str] = {}
    for number, text in sheet.said_above:
        within = date_within(f"{text} ·", ENGLISH) if number != SENT else None
        day = within.moment.first if within is not None and within.moment.last is None else None
        dates = {one.date() for one in day.readings if one.year is not None} if day is not None else set()
        found |= {one: text for one in dates if one is not None}
    return next(iter(found.items())) if len(found) == 1 else None


_OF_WHOM = ("attendees", "organizer", "teacher", "person", "group", "categories", "status", "term")
"""Fields of columns that name an event where nothing else does, `Quill: Leave`."""


_RECORD_DATES: Final = 3
"""Dates that the first row of a list may have side by side."""
_BESIDE_POSTS = {"date", "day", "week", "time", "start", "end", "description", ""}
"""Fields of the columns that may stand beside those of a rota."""


def _titles_asked(columns: Sequence[Column], fields: set[str], options: ReadingOptions) -> str:
    """What says what events are called where no column does: two columns together, one of them, each cell, one title for all."""
    words = list(dict.fromkeys(_could_be(columns, ("summary",), options)))
    both = words[:2]
    remedy = _column_asked(columns, "summary", options)
    of_whom = [c.heading for c in columns if c.heading and c.filled and c.field in _OF_WHOM]
    pair = both if len(both) == 2 else [*of_whom, *words][:2]
    if len(pair) == 2:
        remedy = f'To put two into the title: --title "{{{pair[0]}}}: {{{pair[1]}}}". {remedy}'
    named = [c for c in columns if c.heading in words]
    are_several = len(words) > 2 and (
        any(c.blank for c in named) or _share_cells(named) or _are_single_names(named)
    )
    are_posts = are_several or len({re.sub(r"\W*(?:\d+|\b\w)$", "", word) for word in words}) == 1
    are_posts = are_posts or _are_on_duty(named)
    are_posts = are_posts or all(any(map(says_time, c.samples)) for c in named)
    are_plain = all(
        looks_like_date(text) for c in columns if c.field in ("date", "when") for text in c.samples
    )
    if len(both) == 2 and are_posts and are_plain and fields - {"when"} <= _BESIDE_POSTS:
        remedy = f"If each filled cell is an event or a duty of its own: --as roster. {remedy}"
    return f"{remedy}To give all of them one title: --set summary=TITLE."


_NAME = r"(?P<of>(?:Dr|Mrs?|Ms|Miss|Mx|Fr|Rev|Sr|Prof|Frau|Herr|Mme|M)\.? )?[^\W\d_a-zà-ÿ][\w'’.-]*(?: [^\W\d_a-zà-ÿ][\w'’.-]*)?"


def _share_cells(columns: Sequence[Column]) -> bool:
    """Whether something stands under several headings, as people do who have one duty after the other."""
    return any(not set(a.samples).isdisjoint(b.samples) for a, b in combinations(columns, 2))


def _are_single_names(columns: Sequence[Column]) -> bool:
    """Whether each cell of some columns is one word with a capital."""
    cells = [text for column in columns for text in column.samples]
    return bool(cells) and all(re.fullmatch(r"[^\W\d_a-zà-ÿ][a-zà-ÿ]+", text) for text in cells)


def _are_on_duty(columns: Sequence[Column]) -> bool:
    """Whether all cells of some columns are names, `Pell & Lund`, `Dr Oakes`; of single words, only where columns share some."""
    names = [
        {part for text in c.samples for part in re.split(_BETWEEN_NAMES, text.strip()[:80])} for c in columns
    ]
    read = {name: re.fullmatch(_NAME, name) for name in set().union(*names)}
    are_sure = all(
        re.fullmatch(PERSON, name) or (one is not None and one["of"]) for name, one in read.items()
    )
    share = any(a & b for a, b in combinations(names, 2))
    return bool(read) and (are_sure or (share and all(one is not None for one in read.values())))


_BETWEEN_NAMES = r"\s*[&,/;+]\s*|\s+(?:and|und|et)\s+"


def _says_days(text: str) -> bool:
    """Whether a heading or a cell says a day, or a month, in some form: then the rows are not all of one day."""
    has_days = (
        re.search(
            r"(?i)\b\d{1,2}(?:st|nd|rd|th)?\s+[^\W\d_]{3,9}\.?,?\s+\d{4}\b|\b(?:mon|tue|wed|thu|fri|sat|sun)[a-z]{0,6}\.?,? \d{1,2}\b(?![:.]\d)|\d{1,2}\.\d{1,2}\.|\b\d{1,2}/\d{1,2}\b|\d(?:st|nd|rd|th)\b",
            text,
        )
        is not None
    )
    words = [word.strip(" .") for word in fold(text).split()]
    names_month = words[:1] != [] and words[0] in ENGLISH.months and all(word.isdigit() for word in words[1:])
    return has_days or names_month or looks_like_date(text)


_LABELS = frozenset(
    "date dates day days datum jour name names staff person people employee member post duty role steward room class team crew "
    "time times hour hours slot slots session sessions period periods".split()
)


_CLOCK = r"(?i)\d[:.]\d\d|\d\s?[ap]\.?m\b"
_DAY = r"(?:(?P<before>[^\W\d_]{2,})[.,]{0,2}\s+)?(?:0?[1-9]|[12]\d|3[01])(?:st|nd|rd|th|\.)?(?:,?\s+(?P<after>[^\W\d_]{2,})\.?)?"


def _days_without_months(columns: Sequence[Column], lexicon: Lexicon) -> Column | None:
    """The column of the date, where it has bare days of a month, `5`, or with their weekdays, `Sat 5`, `5th Sat`."""
    date = next(
        (c for c in columns if c.field in ("date", "when") and c.how == "heading" and c.samples), None
    )
    if date is None:
        return None
    if any("/" in text or (len(text) > 3 and text[:4].isdigit()) for text in date.samples):
        return None  # 05/09/2026 or 2026-09-05: no pattern is needed
    if not all(
        re.fullmatch(_DAY, text) or (re.match(_DAY, text) and re.search(_CLOCK, text))
        for text in date.samples
    ):
        return None
    from nomarium.reading.layouts.monthheads import day_and_clock

    days = [re.fullmatch(_DAY, day_and_clock(text)[0]) for text in date.samples]
    is_bare = all(
        day is not None and all(fold(word) in lexicon.weekdays for word in day.groups() if word)
        for day in days
    )
    return date if is_bare else None


def _heads_a_roster(sheet: Sheet, head: TableHead) -> bool:
    """Whether a table without headings begins with a row of dates or times behind a word that heads labels, `Name` or `Time`:
    what stands under it may be dates too, of hours that a spreadsheet took for them."""
    if head.header_rows:
        return False
    first = next((row for number, row in sheet.rows() if number == head.first_row), ())
    texts = [text for cell in first if (text := cell_text(cell))]
    filled = [cell for cell in first if cell_text(cell)]
    dated = [n for n, cell in enumerate(filled) if looks_like_date(cell)]
    if len(dated) > _RECORD_DATES and dated[-1] - dated[0] == len(dated) - 1 and len(filled) < len(dated) + 4:
        return True  # a column of posts beside the names, one of sums behind the dates
    if len(filled) > 2 and not cell_text(first[0]):
        return all(map(looks_like_date, filled))
    if len(texts) < 3 or fold(texts[0]) not in _LABELS:
        return False
    others = filled[1:]
    return all(map(looks_like_date, others)) or all(unit_of(text).times for text in texts[1:])


def _has_times_above(sheet: Sheet, head: TableHead) -> bool:
    """Whether a row above the headings holds a time in each of several columns: those of a drawing that lies on its side."""
    if not head.title_rows:
        return False
    from nomarium.reading.layouts.slots import is_clear_time

    for number, row in islice(sheet.rows(), head.first_row):
        cells = [cell for cell in row if cell_text(cell)]
        if number in head.title_rows and len(cells) > 2 and sum(map(is_clear_time, cells)) >= len(cells) - 1:
            return True
    return False


def _has_weekdays_above(sheet: Sheet, head: TableHead, lexicon: Lexicon) -> bool:
    """Whether a table without headings begins with a row of weekdays, `w/c | Mon | Tue | Wed`, or stands right under one."""
    if head.header_rows:
        return False
    last = head.first_row + _LAST_ABOVE
    rows = [row for number, row in islice(sheet.rows(), last) if number <= last and not is_blank(row)]
    return any(len(weekday_columns(row, lexicon, _BESIDE_WEEKDAYS)) >= _LEAST_WEEKDAYS for row in rows[-3:])


_LAST_ABOVE = 1
"""Rows below the first one in which a title may stand."""
_BESIDE_WEEKDAYS, _LEAST_WEEKDAYS = 3, 3
"""Columns beside weekdays, at most, and how many weekdays head a planner."""


def _is_planner(columns: Sequence[Column]) -> bool:
    """Whether columns that nothing else claims are headed by weekdays, or columns of dates by months: what happens, or
    when, stands under them."""
    free = [fold(c.heading).strip() for c in columns if c.filled and c.field in ("", "milestone")]
    dated = [fold(c.heading).strip() for c in columns if c.filled and c.field == "milestone"]
    return (
        sum(word in ENGLISH.weekdays for word in free) > 1
        or sum(word in ENGLISH.months for word in dated) > 1
    )


def _are_lists_of_days(column: Column, lexicon: Lexicon) -> bool:
    """Whether one of the first cells of a column lists several days."""
    from nomarium.reading.columns.datelists import days_in

    return any(days_in(text, lexicon) > 1 for text in column.samples)


def _dates_beside_others(columns: Sequence[Column]) -> Column | None:
    """The column without a heading of whose cells half are dates, or more, and not enough for it to be read so."""
    for column in columns:
        dated = sum(map(looks_like_date, column.samples))
        if not column.heading and column.is_ignored and dated and dated * 2 >= len(column.samples) > dated:
            return column
    return None


def _column_asked(columns: Sequence[Column], field: str, options: ReadingOptions) -> str:
    """How to say which column has a field, by the headings of those that could have it."""
    free = _could_be(columns, ("date", "when") if field == "date" else (field,), options)
    timed = {"time", "start"} & {c.field for c in columns} or _could_be(columns, ("time",), options)
    if field == "date" and timed:
        free = [
            heading for heading in free if not is_yearly(heading)
        ]  # when people were born, beside their times
    if not free:
        return ""
    others = f" (or “{'”, “'.join(free[1:4])}”)" if len(free) > 1 else ""
    return f'Say which one does: --column "{free[0]}={field}"{others}. '


def seems_dated(column: Column, rows: Sequence[Sequence[Cell]], lexicon: Lexicon) -> bool:
    """Whether some cells of a column look like dates, and not all of them are figures with a fraction."""
    dates = sum(looks_like_date(row[column.at], lexicon) for row in rows if column.at < len(row))
    return dates > 1 and not _are_measures(column)


def _are_measures(column: Column) -> bool:
    """Whether cells are figures with a fraction, `4.1`, that look like days without a year."""
    return all(re.fullmatch(r"\d{1,3}[.,]\d{1,2}", text) for text in column.samples)


def _could_be(columns: Sequence[Column], fields: Sequence[str], options: ReadingOptions) -> list[str]:
    """The headings of the columns that nothing uses and that could be one of these fields by their cells; a heading
    that is a time heads what happens then."""
    from nomarium.reading.columns.candidates import candidate
    from nomarium.reading.layouts.slots import time_of
    from nomarium.reading.rows.when import NOTHING

    lexicon = lexicon_for(options)
    of_days = set(ENGLISH.weekdays) if "date" in fields else set()
    return [c.heading for c in columns if fold(c.heading).strip() not in of_days and c.is_ignored and c.heading and c.filled and c.how != "asked"
            and time_of(c.heading) is NOTHING and not ("date" in fields and _are_measures(c)) and not set(fields).isdisjoint(candidate(c, lexicon).fields)]  # fmt: skip
