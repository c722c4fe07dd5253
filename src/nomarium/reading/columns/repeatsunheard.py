"""Columns that say how rows repeat, or until when, or when they are not held, by headings or in notes, and are read as something
else: each stops the table, for rows would be held too often or too seldom unseen."""

import re
from collections.abc import Sequence

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem
from nomarium.reading.cells.words import Lexicon
from nomarium.reading.columns.column import Column
from nomarium.reading.columns.columnnotes import called, letter_of
from nomarium.reading.columns.daycells import about_days
from nomarium.reading.columns.whenwords import says_begin, says_end, speaks_of_begin
from nomarium.reading.options import ReadingOptions
from nomarium.sheets.sheet import Sheet, cell_text

_MOVED = (
    r"(?i)(?:new|revised|rearranged|rescheduled|changed|amended|moved|postponed|nouvelle|neues|nueva|nieuwe)"
    r"(?: (?:date|dates|day|to|for|until|datum|fecha))*"
)
_UNTIL = r"(?i)(?:repeat|recur).*"
_NOT_ON = r"(?i)(?:no|not)\b(?!\.| (?:before|after|later|earlier|until|till)\b).*"
_OFF = r"(?i).*\b(?:off|breaks?|closed|closures?|holidays?|cancell?ed|half[ -]?terms?|miss(?:ed|ing)?|skip(?:ped|s)?|away)\b.*"
_REPEATED = r"(?i)(?:repeat|recur).*|.*\bevery\b.*"
_OFTEN = frozenset(
    "every each weekly fortnightly monthly daily alternate jede jeden jeder jedes wöchentlich chaque tous toutes cada".split()
)
_FIRST_WORD = r"[^\W\d_]+"
_COUNT_OF_MEETINGS = r"(?i)(?:no\.?|nr\.?|number|#)?\s*(?:of\s+)?(?:weeks|wks|sessions|classes|lessons|meetings|wochen|termine|s[ée]ances|semaines|sesiones|semanas|lessen|weken)"
_LONGEST_REPEAT = 60
_WEEK = 7


def repeats_in_notes(
    sheet: Sheet, columns: Sequence[Column], rows: Sequence[Sequence[Cell]], lexicon: Lexicon
) -> dict[int, Problem]:
    """A problem for a column of notes of which a cell says how its row repeats, and nothing else: `every Wed in Dec`; and for one of
    which every cell does, where it would be the titles."""
    if any(c.field in ("repeat", "day", "repeat-times") for c in columns):
        return {}
    from nomarium.reading.cells.repeats import Repeat, read_repeat

    found: dict[int, Problem] = {}
    for column in columns:
        is_title = column.field == "summary" and column.how == "content"
        if not (column.field == "description" or is_title) or column.how == "asked":
            continue
        texts = dict.fromkeys(cell_text(row[column.at]) for row in rows if column.at < len(row))
        often = [text for text in texts if len(text) < _LONGEST_REPEAT and _says_often(text)]
        if is_title and len(often) < sum(map(bool, texts)):
            continue
        text = next((text for text in often if isinstance(read_repeat(text, lexicon), Repeat)), None)
        if text is None:
            continue
        name = column.heading or letter_of(sheet, column)
        only = "be the title of its event" if is_title else "only be its description"
        message = f"“{text}” in the column {called(sheet, column)} says how a row repeats, and would {only}."
        remedy = f'If rows repeat: --column "{name}=repeat"; to keep the words as they are: --column "{name}={column.field}".'
        found[column.at] = Problem(
            "column-when", message, remedy, sheet.place(None, column.at, column.heading)
        )
    return found


def _says_often(text: str) -> bool:
    first = re.match(_FIRST_WORD, text)
    return first is not None and first[0].casefold() in _OFTEN


def moved_dates(sheet: Sheet, columns: Sequence[Column], repeats: bool) -> dict[int, Problem]:
    """A problem for each column that moves, repeats or leaves out its rows by its heading, and is taken for nothing or for
    dates of events beside them."""
    is_told = any(c.field in ("repeat", "day") for c in columns)
    fields = {c.field for c in columns if c.filled}
    on_weekdays = repeats or ("day" in fields and not fields & {"date", "when"})
    is_weekly = on_weekdays and not fields & {"end-date", "repeat-until"}
    found = _repeated_milestones(sheet, columns)
    for column in columns:
        if column.field not in ("milestone", "") or column.how == "asked" or not column.filled:
            continue
        heading, is_dated = column.heading, column.field == "milestone"
        if is_dated and is_told and re.fullmatch(_OFF, heading):
            says, remedy = "when a row is not held", f'Say so: --column "{heading}=except"'
        elif is_dated and re.fullmatch(_MOVED, heading):
            says, remedy = "to which date a row is moved", "Write the new date in the place of the old one"
        elif is_dated and re.fullmatch(_NOT_ON, heading):
            says, remedy = "when a row is not held", f'Say so: --column "{heading}=except"'
        elif is_dated and is_weekly and says_end(heading):
            says, remedy = "until when a row is held", f'Say so: --column "{heading}=end-date"'
        elif is_dated and re.fullmatch(_UNTIL, heading) and is_told:
            says, remedy = "until when a row repeats", f'Say so: --column "{heading}=repeat-until"'
        elif is_dated and re.fullmatch(_UNTIL, heading):
            says, remedy = (
                "until when a row repeats, and nothing says how",
                "Say how in a column headed Repeat",
            )
        elif not is_dated and re.fullmatch(_REPEATED, heading):
            says, remedy = "how a row repeats", f'Say so: --column "{heading}=repeat"'
        else:
            continue
        message = f"The column {called(sheet, column)} seems to say {says}."
        remedy = f'{remedy}; or leave it out with --column "{heading}=".'
        found[column.at] = Problem("column-moved", message, remedy, sheet.place(None, column.at, heading))
    return found


def weeks_counted(
    sheet: Sheet, columns: Sequence[Column], rows: Sequence[Sequence[Cell]], lexicon: Lexicon
) -> dict[int, Problem]:
    """A problem for a column that nothing uses and that counts weeks or sessions, where a row begins and ends on one weekday, weeks
    apart: it may be held once a week, and would be one long event."""
    counted = next((c for c in columns if c.is_ignored and c.how != "asked" and _counts_meetings(c)), None)
    first = next((c for c in columns if c.field in ("date", "start") and c.has_days), None)
    last = next((c for c in columns if c.field == "end-date" or (c.field == "end" and c.has_days)), None)
    if counted is None or first is None or last is None or any(c.field in ("day", "repeat") for c in columns):
        return {}
    for row in rows:
        days = about_days((row[c.at] for c in (first, last) if c.at < len(row)), lexicon)
        if len(days) == 2 and days[1] - days[0] > _WEEK and (days[1] - days[0]) % _WEEK == 0:
            message = f"The column {called(sheet, counted)} seems to say how often a row is held between its first and its last day."
            remedy = f'Say on which weekday in a column headed Day; or leave it out with --column "{counted.heading}=".'
            place = sheet.place(None, counted.at, counted.heading)
            return {counted.at: Problem("column-moved", message, remedy, place)}
    return {}


def _counts_meetings(column: Column) -> bool:
    """Whether a column that nothing uses counts weeks or sessions, more than one in some row."""
    is_headed = re.fullmatch(_COUNT_OF_MEETINGS, column.heading.strip()) is not None
    return is_headed and any(text.isdecimal() and int(text[:4]) > 1 for text in column.samples)


def _repeated_milestones(sheet: Sheet, columns: Sequence[Column]) -> dict[int, Problem]:
    """A problem for each column that says how rows repeat which have several dates, none of them the date of the row."""
    dated = [c.heading for c in columns if c.field == "milestone"]
    if not dated or any(c.field in ("date", "when") or (c.field == "start" and c.has_days) for c in columns):
        return {}
    found = {}
    for column in columns:
        if column.field in ("repeat", "repeat-times", "repeat-until") and column.filled:
            message = f"The column {called(sheet, column)} says how a row repeats, and nothing says which of its dates does."
            named = " or ".join(f'--column "{heading}=date"' for heading in dated[-2:])
            remedy = f'Say which: {named}; or leave it out with --column "{column.heading}=".'
            place = sheet.place(None, column.at, column.heading)
            found[column.at] = Problem("column-moved", message, remedy, place)
    return found


def begun_column(columns: Sequence[Column]) -> Column | None:
    """The column that says when rows begin which are held on a weekday, where none says how long they go on."""
    fields = {"end-date" if c.field == "end" and c.has_days else c.field for c in columns if c.filled}
    if "day" not in fields or fields & {"end-date", "repeat", "repeat-times", "repeat-until", "week"}:
        return None
    begun = next((c for c in columns if c.field in ("date", "start") and c.has_days and _begins(c)), None)
    if begun is None or begun.how == "asked" or any(":" in text for text in begun.samples):
        return None
    return begun


def _begins(column: Column) -> bool:
    return says_begin(column.heading) or (column.how == "content" and speaks_of_begin(column.heading))


def begun_without_end(sheet: Sheet, columns: Sequence[Column]) -> dict[int, Problem]:
    """A problem where a column says when rows begin and another on which weekday, and nothing how long they go on."""
    begun = begun_column(columns)
    if begun is None:
        return {}
    day = next(c for c in columns if c.field == "day")
    message = f"The column {called(sheet, begun)} says when rows begin and {called(sheet, day)} on which weekday, and nothing says until when."
    remedy = (
        "Give each row its last day, or a number of weeks, "
        f'or give --until DATE; if each is held once: --column "{begun.heading}=date".'
    )
    return {begun.at: Problem("column-moved", message, remedy, sheet.place(None, begun.at, begun.heading))}


def weeks_or_one(sheet: Sheet, columns: Sequence[Column]) -> dict[int, Problem]:
    """A problem where columns say a weekday, the day rows begin and their last day, and nothing says a time: they are held
    every week, or are long."""
    by_field = {"end-date" if c.field == "end" and c.has_days else c.field: c for c in columns if c.filled}
    begun = by_field.get("date") or by_field.get("start")
    if begun is None or not says_begin(begun.heading) or not {"day", "end-date"} <= by_field.keys():
        return {}
    if (
        by_field.keys() & {"time", "when", "repeat", "repeat-times", "repeat-until", "all-day"}
        or not begun.has_days
    ):
        return {}
    if by_field.get("start", begun) is not begun or any(":" in text for text in begun.samples):
        return {}
    last = by_field["end-date"]
    message = (
        f"The columns {called(sheet, begun)} and {called(sheet, last)} stand beside weekdays, and nothing says a time: "
        "an event every week, or one long event?"
    )
    remedy = "Say which: --set repeat=weekly or --spans whole."
    return {last.at: Problem("weekly-open", message, remedy, sheet.place(None, last.at, last.heading))}


def weekly_to_the_last(columns: Sequence[Column], options: ReadingOptions) -> ReadingOptions:
    """Options by which rows that say a weekday and the day they begin are held weekly to the end that `--until` says."""
    if options.last_repeat is None or begun_column(columns) is None or "end-date" in options.defaults:
        return options
    return options._replace(defaults={"repeat": "weekly", **options.defaults})
