"""Tables that say when their rows are held by how often alone, `2nd Tuesday`, and by no date: that column is the date."""

from collections.abc import Iterator, Sequence
from functools import partial
from typing import Final

from nomarium.model.cell import Cell
from nomarium.model.problem import column_letter, note
from nomarium.model.refusal import Refusal
from nomarium.model.wording import WEEKDAYS, listed
from nomarium.reading.cells.repeatphrases import may_say_repeat
from nomarium.reading.cells.repeats import Repeat, read_repeat
from nomarium.reading.cells.words import ENGLISH, Lexicon
from nomarium.reading.columns.column import Column
from nomarium.reading.options import ReadingOptions
from nomarium.sheets.sheet import Row, Sheet, cell_text

_LONGEST_CODE: Final = 30
_DATED: Final = frozenset(("date", "when", "milestone", "week", "week-span"))
_MAY_SAY: Final = frozenset(("", "repeat", "day", "label"))


def telling_how_often(
    columns: Sequence[Column], rows: Sequence[Sequence[Cell]], lexicon: Lexicon
) -> Column | None:
    """The column that says how often rows are held, where none says when, and at least half of its cells are repeats, some of them of
    weekdays or days of a month, or every so many weeks; None for most tables."""
    if any(c.field in _DATED or (c.field == "start" and c.has_days) for c in columns):
        return None
    telling = [
        c
        for c in columns
        if c.field in _MAY_SAY and c.filled and c.how != "asked" and _tells(c, rows, lexicon)
    ]
    are_days = any(c.field == "day" and c not in telling for c in columns)
    return telling[0] if len(telling) == 1 and not are_days else None  # of which weekday, another column says


def with_dates_said(
    sheet: Sheet, headings: Sequence[str], often: Column, options: ReadingOptions
) -> tuple[Sheet, ReadingOptions]:
    """A sheet whose dates are what a column says of how often its rows are held, with a note, and the options that read it so."""
    is_alone = list(headings).count(often.heading) == 1
    name = often.heading if is_alone else column_letter(often.at + sheet.first_column)
    message = f"“{name}” says how often the rows are held, and no column has dates: it is when they are."
    told = note("repeats-are-dates", message).at(sheet.place(None, often.at, often.heading))
    in_words = partial(_in_words, sheet, often.at)
    return (
        sheet._replace(read_rows=in_words, notes=(*sheet.notes, told)),
        options._replace(columns={name: "date", **options.columns}),
    )


def _in_words(sheet: Sheet, at: int) -> Iterator[Row]:
    """The rows of a sheet whose mere weekdays, `Tuesday`, are those of every week among phrases that say more."""
    from nomarium.reading.cells.weekdaycodes import WeekdayCodes  # slow to compile, and seldom needed

    codes = WeekdayCodes((), ENGLISH)
    for number, row in sheet.rows():
        text = cell_text(row[at]) if at < len(row) else ""
        days = codes.read(text) if 1 < len(text) <= _LONGEST_CODE else None
        if days is None or isinstance(days, Refusal):
            yield number, row
        else:
            yield number, [*row[:at], f"every {listed([WEEKDAYS[day] for day in days])}", *row[at + 1 :]]


def _tells(column: Column, rows: Sequence[Sequence[Cell]], lexicon: Lexicon) -> bool:
    texts = {text for row in rows if column.at < len(row) and (text := cell_text(row[column.at]))}
    said = [read_repeat(text, lexicon) for text in texts if may_say_repeat(text, lexicon)]
    repeats = [one for one in said if isinstance(one, Repeat)]
    return any(map(_is_no_mere_week, repeats)) and len(repeats) * 2 >= len(texts)


def _is_no_mere_week(repeat: Repeat) -> bool:
    """Whether a repeat is more than weekdays of every week, which other tables say, too."""
    rule = repeat.rule
    is_in_month = rule.freq in ("MONTHLY", "YEARLY") and bool(rule.weekdays or rule.month_days)
    return is_in_month or (rule.freq == "WEEKLY" and rule.interval > 1 and bool(rule.weekdays))
