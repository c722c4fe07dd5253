"""Columns to fields: by what the person said, by heading, then by content; each with its evidence."""

import datetime as dt
import re
from collections.abc import Sequence

from nomarium.model.cell import Cell
from nomarium.reading.cells.howmany import counts_weeks
from nomarium.reading.cells.memo import looks_like_zone
from nomarium.reading.cells.words import ENGLISH, Lexicon
from nomarium.reading.columns.asked import asked_fields
from nomarium.reading.columns.bycontent import LIMITS, by_content, free_texts, is_idle
from nomarium.reading.columns.cellssay import (
    another_field,
    are_letters,
    are_whole,
    coming_and_going,
    status_of,
)
from nomarium.reading.columns.column import WEEKS_LONG, Column, with_rivals, without_weak_rivals
from nomarium.reading.columns.contents import MOSTLY, Contents
from nomarium.reading.columns.coursenames import with_course_names
from nomarium.reading.columns.dayparts import without_sessions
from nomarium.reading.columns.head import TableHead
from nomarium.reading.columns.headings import DATE_FIELDS, match_heading, normal
from nomarium.reading.columns.milestones import with_milestones, without_limits
from nomarium.reading.columns.sides import with_free_sides
from nomarium.reading.columns.whenwords import says_begin
from nomarium.reading.options import ReadingOptions
from nomarium.sheets.sheet import Sheet, cell_text

_LOOSE_WORDS = frozenset(
    "from to at on de a du au le von bis an van tot desde hasta para until till in first last".split()
)
"""Headings so short that their cells must bear them out."""
_DESCRIPTIVE = frozenset(
    "description details beschreibung omschrijving beschrijving descripcion detail".split()
)
_LENGTHS = (int, float, dt.timedelta)


def _may_have_days(column: Column, contents: Contents) -> bool:
    """Whether a column may hold dates, in whatever language: not one of times, whatever else a cell of it holds."""
    if column.field not in ("start", "end"):
        return column.field in DATE_FIELDS
    if contents.times == 1 or (contents.times > 0.5 and not contents.dates):
        return False
    return not contents.cells or not contents.are_clock_figures  # 0930


_DAYS = frozenset("days tage jours dias dagen giorni dagar dage dni".split())
_OF_HOURS = frozenset(("opening", "closing"))
"""Headings of hours; over dates they say what is on, an opening."""
_CLOCK = r"(?i)\d[:h.]\d\d\b|\d\s?[ap]\.?m\b"


def assign_columns(
    sheet: Sheet,
    head: TableHead,
    rows: Sequence[Sequence[Cell]],
    options: ReadingOptions,
    lexicon: Lexicon = ENGLISH,
) -> list[Column]:
    """Take each column for a field, from its heading and from a sample of the table's rows."""
    width = max([len(head.headings), *(len(row) for row in rows)])
    headings = [*head.headings, *[""] * (width - len(head.headings))]
    contents = [Contents([row[n] if n < len(row) else "" for row in rows], lexicon) for n in range(width)]
    asked = asked_fields(options, headings, sheet.first_column)
    columns = [_by_heading(n, headings[n], contents[n], asked.get(n)) for n in range(width)]
    columns = with_free_sides(without_limits(_checked_by_content(columns, contents), contents))
    if any(c.field in ("conference", "rsvp") or _may_join(c.heading) for c in columns):
        from nomarium.reading.columns.links import with_links

        columns = with_links(columns, contents)
    if not any(c.field == "summary" and c.how == "heading" and not c.is_weak for c in columns):
        columns = [
            c._replace(field="", how="") if c.field == "person" and c.how == "heading" else c for c in columns
        ]
    if any(c.field == "class" for c in columns):
        columns = with_course_names(columns, contents)
    columns = _with_summary(_without_idle_titles(without_sessions(columns, contents), contents), contents)
    columns = by_content(columns, contents)
    columns = without_weak_rivals(_with_repeat_end(columns, contents))
    columns = _with_halves(with_milestones(with_rivals(columns), contents), contents)
    columns = _without_weeks_long(columns, contents)
    beside_weekdays = any(c.field == "day" and contents[c.at].weekdays >= MOSTLY for c in columns)
    return [
        c._replace(
            has_days=_may_have_days(c, contents[c.at]) and not (beside_weekdays and contents[c.at].are_hours),
            is_clock=c.field in ("start", "end") and contents[c.at].times > 0.5,
        )
        for c in columns
    ]


def _by_heading(index: int, heading: str, contents: Contents, asked: str | None) -> Column:
    texts = tuple(dict.fromkeys(cell_text(cell) for cell in contents.cells[:50]))[:2]
    column = Column(
        index,
        heading,
        samples=texts,
        filled=len(contents.cells),
        blank=contents.blank,
        has_days=False,
    )
    if asked is not None:
        return column._replace(
            field=asked, how="asked", evidence="as asked" if asked else "left out as asked"
        )
    match = match_heading(heading)
    if match is None:
        return column
    evidence = f"the heading is like “{match.near}”" if match.near else "heading"
    return column._replace(field=match.field, how="heading", evidence=evidence, is_weak=match.is_weak)


def _checked_by_content(columns: list[Column], contents: list[Contents]) -> list[Column]:
    """Headings that could mean two things, settled by what stands under them."""
    checked = []
    has_date = any(c.field in ("date", "when") and not c.is_weak and contents[c.at].dates for c in columns)
    has_week = any(c.field == "week" for c in columns)
    coming = coming_and_going(columns, contents)
    for column in columns:
        about, plain = contents[column.at], normal(column.heading)
        field, evidence = column.field, column.evidence
        if column.at in coming and column.how != "asked":
            column = column._replace(how="heading")
            field, evidence = coming[column.at], "it says when they come or when they go"
        elif column.how != "heading" or not about.cells:
            pass
        elif column.is_weak and has_date and about.weekdays >= 0.5 and re.search(LIMITS, plain):
            field = ""  # until which weekday, and not on which
        elif plain == "days" and field == "repeat" and _are_single_days(about, columns, contents, has_date):
            field, evidence = "day", "its cells are single days"
        elif as_weekdays := _of_weekdays(column, columns, contents, has_date):
            field, evidence = as_weekdays
        elif (
            field == "date"
            and column.is_weak
            and (max(about.dates, about.days) < MOSTLY or (has_week and about.weekdays >= 0.5))
        ):
            is_day = has_week or about.weekdays >= 0.5 or (not has_date and are_whole(about))
            field = "day" if is_day else ""
        elif as_length := _of_lengths(column, columns, contents, has_date):
            field, evidence = as_length
        elif (
            (column.is_weak and field in ("start", "end") and plain in _OF_HOURS and about.dates >= MOSTLY)
            or (field == "repeat-times" and (not about.holds_counts or about.dates >= MOSTLY))
            or (field == "description" and about.plain_answers >= 1)
            or (plain in ("leave", "attended") and about.texts >= 1)  # who has it; who came
            or (plain == "zone" and not any(map(looks_like_zone, about.different)))  # a part of a town
            or (field == "duration" and about.texts >= 1 and not _hold_figures(about))  # who is on at *Night*
            or (field == "location" and plain.endswith("s") and about.numbers >= MOSTLY)  # how many places
            or (field in ("location", "room") and plain not in _LOOSE_WORDS and about.show_clocks)  # Local
        ):
            field, evidence = "", ""
        elif field == "when" and not about.dates and _are_of_weekdays(about, has_date):
            field, evidence = "", "its cells are weekdays with times, or letters as of weekdays"
        elif found := another_field(field, about, columns, contents, has_date):
            field, evidence = found
        elif plain in _LOOSE_WORDS and (loose := _of_loose_words(field, about)):
            field, evidence = loose
        elif field == "categories" and about.dates >= MOSTLY:
            field = ""
        elif field in ("status", "confirmed"):
            field, evidence = status_of(field, evidence, about)
        checked.append(
            column._replace(
                field=field, evidence=evidence, how=column.how if field or column.how == "asked" else ""
            )
        )
    return _split_starts(checked, contents)


def _of_weekdays(
    column: Column, columns: list[Column], contents: list[Contents], has_date: bool
) -> tuple[str, str] | None:
    """What a column headed as that of a day is where its cells are weekdays: the day, or how a row repeats."""
    about = contents[column.at]
    if column.field not in ("date", "day", "when") or (column.field == "when" and has_date):
        return None
    has_repeat = any(c.field == "repeat" and c.filled for c in columns)
    may_span = has_repeat or (has_date and any(c.field == "end-date" and c.filled for c in columns))
    if not about.weekday_lists and may_span and about.weekdays < MOSTLY <= about.weekday_names:
        return "day", "its cells are ranges of weekdays"
    if about.weekday_lists >= MOSTLY:
        is_day = has_repeat or _are_of_dates(about, columns, contents, has_date)
        return "day" if is_day else "repeat", "its cells are lists of weekdays"
    is_day = about.weekdays >= MOSTLY and (column.is_weak or has_date or column.field in ("day", "when"))
    return ("day", "its cells are weekdays") if is_day else None


def _are_single_days(
    about: Contents, columns: list[Column], contents: list[Contents], has_date: bool
) -> bool:
    """Whether the cells under `Days` are a day each: no lengths, lists, phrases, dates or times."""
    are_lengths = (has_date or _begin_with_dates(columns, contents)) and _are_counts(about)
    are_others = are_lengths or about.weekday_lists or about.dates >= MOSTLY or about.are_clear_times
    return not are_others and (about.texts < MOSTLY or about.weekdays >= MOSTLY)


def _are_of_weekdays(about: Contents, has_date: bool) -> bool:
    """Whether cells are weekdays with times, or may be weekdays run together, where nothing else says the date."""
    return about.timed_weekdays >= 0.5 or (not has_date and are_letters(about))


def _are_of_dates(about: Contents, columns: list[Column], contents: list[Contents], has_date: bool) -> bool:
    """Whether weekdays are those of the dates beside them, as `Sat & Sun` are of a fair's, and not of weeks that begin."""
    begins = any(
        c.field in ("date", "start")
        and says_begin(c.heading)
        and (c.field == "date" or contents[c.at].dates > 0)
        for c in columns
    )
    return has_date and not begins and about.weekdays >= 0.5


def _of_lengths(
    column: Column, columns: Sequence[Column], contents: Sequence[Contents], has_date: bool
) -> tuple[str, str] | None:
    """What a column of hours, days or weeks is by its cells: how long, or how often."""
    field, plain, about = column.field, normal(column.heading), contents[column.at]
    if field == "time" and plain == "hours" and (about.numbers >= 1 or _are_lengths(about)):
        return "duration", "its cells are numbers or lengths"
    if field == "duration" and counts_weeks(column.heading, about.cells) and _are_timed(columns, contents):
        return "repeat-times", "it counts weeks, and the rows have times or weekdays"
    is_dated = has_date or _begin_with_dates(columns, contents)
    if field == "repeat" and plain in _DAYS and is_dated and _are_counts(about):
        return "duration", "its cells are numbers of days"
    return None


def _are_counts(about: Contents) -> bool:
    """Whether half of the cells or more are numbers, and none is a weekday."""
    return about.numbers >= 0.5 and not about.weekdays


def _begin_with_dates(columns: Sequence[Column], contents: Sequence[Contents]) -> bool:
    """Whether a column headed *Start* holds dates."""
    return any(c.field == "start" and contents[c.at].dates >= MOSTLY for c in columns)


def _are_timed(columns: Sequence[Column], contents: Sequence[Contents]) -> bool:
    """Whether rows say a time or a weekday: then weeks are those in which they meet, and no length."""
    return any(
        c.field in ("day", "repeat")
        or (
            c.field in ("time", "start", "end", "when")
            and any(re.search(_CLOCK, cell_text(cell)) for cell in contents[c.at].different)
        )
        for c in columns
        if c.filled
    )


def _hold_figures(about: Contents) -> bool:
    return any(any(map(str.isdigit, cell_text(cell))) for cell in about.different)


def _are_lengths(about: Contents) -> bool:
    return all(isinstance(cell, _LENGTHS) for cell in about.cells)


def _without_idle_titles(columns: list[Column], contents: list[Contents]) -> list[Column]:
    """Columns headed as titles whose cells are halves of the day, yes and no, or numbers are none, where another column
    has words; nor are teams A and B."""
    headed = [c for c in columns if c.field == "summary" and c.how == "heading" and contents[c.at].cells]
    idle = {c.at for c in headed if is_idle(contents[c.at]) or (c.is_weak and contents[c.at].are_codes)}
    short = {c.at for c in headed if contents[c.at].are_short_forms}
    idle |= short if len(short) < len(headed) else set()
    if not idle:
        return columns
    words = [c for c in columns if contents[c.at].texts >= MOSTLY and not is_idle(contents[c.at])]
    return [
        c._replace(field="", how="", evidence="its cells say nothing about what happens")
        if c.at in idle and any(other.at != c.at and other.field in ("", "summary", "description", "teacher", "class") for other in words)
        else c
        for c in columns
    ]  # fmt: skip


_UNTIL = frozenset(
    (
        *("until", "till", "up to", "bis", "bis zum", "jusqu au", "jusqu a", "hasta", "hasta el", "tot", "tot en met", "fino al", "fino a"),
        *("ate", "ate o", "till och med", "til og med", "do", "do dnia", "asti"),
    )
)  # fmt: skip


def _with_repeat_end(columns: list[Column], contents: list[Contents]) -> list[Column]:
    """A column of days headed `Until`, beside one that says how often and another for the end, is until when rows repeat."""
    if not any(c.field == "repeat" for c in columns):
        return columns
    ends = [c for c in columns if c.field in ("end", "end-date")]
    of_day = [c for c in ends if contents[c.at].times >= MOSTLY]
    return [
        c._replace(field="repeat-until", how="heading", evidence="heading, beside a repeat")
        if c in ends and len(ends) > 1 and c.how != "asked" and normal(c.heading) in _UNTIL
        and (contents[c.at].dates >= MOSTLY or (of_day and not contents[c.at].times))
        else c
        for c in columns
    ]  # fmt: skip


def _with_halves(columns: list[Column], contents: list[Contents]) -> list[Column]:
    """Halves of the day are kept as words where no column says the time of day, whatever heads them."""
    if any(c.field in ("time", "start", "end", "when") and contents[c.at].times for c in columns):
        return columns
    return [
        c._replace(field="", how="", is_kept=True, evidence="its cells are halves of the day")
        if c.field in ("", "time", "start", "period")
        and c.how != "asked"
        and c.filled
        and contents[c.at].halves >= MOSTLY
        else c
        for c in columns
    ]


def _without_weeks_long(columns: list[Column], contents: list[Contents]) -> list[Column]:
    """How many weeks a row without times lasts, beside its first and its last day, is no repeat."""
    filled = {c.field for c in columns if c.filled}
    if "repeat-times" not in filled:
        return columns
    is_timed = filled & {"time", "day", "repeat", "duration", "when"} or any(
        c.field in ("start", "end") and contents[c.at].times for c in columns
    )
    if is_timed or not filled & {"end", "end-date"}:
        return columns
    return [
        c._replace(field="", how="", evidence=WEEKS_LONG)
        if c.field == "repeat-times" and c.how != "asked" and counts_weeks(c.heading, contents[c.at].cells)
        else c
        for c in columns
    ]


def _of_loose_words(field: str, about: Contents) -> tuple[str, str] | None:
    """What `From`, `To`, `At` and the like stand for by their cells, where that is another field."""
    if field == "location":
        if about.times >= MOSTLY and not about.may_be_classes:
            return "start", "its cells are times"
        return ("date", "its cells are dates") if about.dates >= MOSTLY else None
    if field not in ("start", "end", "date") or about.dates or about.times:
        return None
    numbers = all(isinstance(cell, (int, float)) or cell_text(cell).isdigit() for cell in about.cells)
    return None if numbers else ("", "its cells are neither dates nor times")


def _split_starts(columns: list[Column], contents: list[Contents]) -> list[Column]:
    """Of two columns headed as starts (or ends), the one that holds dates is the date; so is one that does, where others say
    the weekday or the times."""
    says_more = any(c.field in ("day", "time") and c.filled for c in columns)
    for field, date_field in (("start", "date"), ("end", "end-date")):
        claims = [c for c in columns if c.field == field]
        if len(claims) != 2 and not (len(claims) == 1 and says_more and claims[0].how == "heading"):
            continue
        dated = [c for c in claims if contents[c.at].dates >= MOSTLY and not contents[c.at].times]
        if len(claims) == 1:
            dated = [c for c in dated if not any(map(_has_clock, contents[c.at].different))]
        if len(dated) == 1 and not any(c.field == date_field for c in columns):
            at = dated[0].at
            columns[at] = columns[at]._replace(field=date_field, evidence="heading; its cells are dates")
    return columns


def _has_clock(cell: Cell) -> bool:
    """Whether a date has a time of day beside it."""
    if isinstance(cell, dt.datetime):
        return cell.time() != dt.time()
    return isinstance(cell, str) and re.search(r"\d[:h]\d|\d\s?[ap]\.?m", cell.casefold()) is not None


def _with_summary(columns: list[Column], contents: list[Contents]) -> list[Column]:
    """Find what the event is called, when no heading says so outright."""
    if any(c.field == "summary" and not c.is_weak for c in columns):
        return columns
    described = [c for c in columns if c.field == "description" and c.how == "heading"]
    lone = next((c for c in described if normal(c.heading) in _DESCRIPTIVE), None)
    weak = next((c for c in columns if c.field == "summary"), None)
    if lone is None and weak is None and len(described) == 1 and not free_texts(columns, contents):
        lone = described[0] if not any(c.field == "class" for c in columns) else None
    if weak is not None:
        columns[weak.at] = weak._replace(is_weak=False)
    elif lone is not None:
        evidence = "the only column that says what happens"
        columns[lone.at] = lone._replace(field="summary", how="content", evidence=evidence)
    return columns


def _may_join(heading: str) -> bool:
    """Whether a heading speaks of joining from elsewhere."""
    plain = heading.casefold()
    return any(word in plain for word in ("join", "meet", "dial", "video"))
