"""Columns to fields: by what the person said, by heading, then by content; each with its evidence."""

import datetime as dt
import re
from collections.abc import Sequence

from nomarium.model.cell import Cell
from nomarium.reading.cells.times import Times, read_times
from nomarium.reading.cells.words import ENGLISH, Lexicon
from nomarium.reading.columns.asked import asked_fields
from nomarium.reading.columns.cellssay import ARRIVING, LEAVING, another_field, are_whole, coming_and_going
from nomarium.reading.columns.column import PART_OF_DAY, Column, with_rivals, without_weak_rivals
from nomarium.reading.columns.contents import MOST_DIFFERENT, MOSTLY, Contents, name_some_weeks
from nomarium.reading.columns.head import TableHead
from nomarium.reading.columns.headings import DATE_FIELDS, is_placeholder, match_heading, normal, unit_of
from nomarium.reading.options import ReadingOptions
from nomarium.sheets.sheet import Sheet, cell_text

_LOOSE_WORDS = frozenset(
    "from to at on de a du au le von bis an van tot desde hasta para until till in first last".split()
)
"""Headings so short that their cells must bear them out."""
_DESCRIPTIVE = frozenset(
    "description details beschreibung omschrijving beschrijving descripcion detail".split()
)
_RECORD_WORDS = frozenset(
    "birth dob born naissance geburtsdatum geburtstag nacimiento geboortedatum created modified updated "
    "changed submitted printed exported hired joined paid invoice timestamp".split()
)
_LENGTHS = (int, float, dt.timedelta)


def _may_have_days(column: Column, contents: Contents) -> bool:
    """Whether a column may hold dates, in whatever language: not one of nothing but times."""
    return column.field in DATE_FIELDS and (column.field not in ("start", "end") or contents.times < 1)


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
    columns = _checked_by_content(columns, contents)
    if any(c.field in ("conference", "rsvp") or _may_join(c.heading) for c in columns):
        from nomarium.reading.columns.links import with_links

        columns = with_links(columns, contents)
    if not any(c.field == "summary" and c.how == "heading" and not c.is_weak for c in columns):
        columns = [
            c._replace(field="", how="") if c.field == "person" and c.how == "heading" else c for c in columns
        ]
    columns = _with_summary(_without_idle_titles(_without_sessions(columns), contents), contents)
    columns = _by_content(columns, contents)
    columns = without_weak_rivals(columns)
    columns = _with_milestones(with_rivals(columns), contents)
    return [
        c._replace(
            has_days=_may_have_days(c, contents[c.at]),
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
    has_arrival = any(normal(c.heading) in ARRIVING for c in columns)
    coming = coming_and_going(columns, contents)
    for column in columns:
        about, plain = contents[column.at], normal(column.heading)
        field, evidence = column.field, column.evidence
        if column.how != "heading" or not about.cells:
            pass
        elif column.at in coming:
            field, evidence = coming[column.at], "its cells are times, of coming and of going"
        elif (
            plain == "days"
            and field == "repeat"
            and not (has_date and about.numbers >= 1)
            and not about.weekday_lists
            and (about.texts < MOSTLY or about.weekdays >= MOSTLY)
        ):
            field, evidence = "day", "its cells are single days"
        elif field in ("date", "day") and about.weekday_lists >= MOSTLY:
            field, evidence = "repeat", "its cells are lists of weekdays"
        elif (
            field in ("date", "day")
            and about.weekdays >= MOSTLY
            and (column.is_weak or has_date or field == "day")
        ):
            field, evidence = "day", "its cells are weekdays"
        elif field == "date" and column.is_weak and (has_week or about.dates < MOSTLY):
            is_day = has_week or (not has_date and (about.weekdays >= MOSTLY or are_whole(about)))
            field = "day" if is_day else ""
        elif field == "time" and plain == "hours" and (about.numbers >= 1 or _are_lengths(about)):
            field, evidence = "duration", "its cells are numbers or lengths"
        elif field == "repeat" and plain == "days" and has_date and about.numbers >= 1:
            field, evidence = "duration", "its cells are numbers of days"
        elif (field == "repeat-times" and not about.holds_counts) or (
            field == "description" and about.plain_answers >= 1
        ):
            field = ""
        elif field == "start" and plain in LEAVING and about.dates >= MOSTLY and has_arrival:
            field, evidence = "end-date", "its cells are dates, and another column says when they arrive"
        elif field == "when" and not about.dates and about.timed_weekdays >= 0.5:
            field, evidence = "", "its cells are weekdays with times"
        elif found := another_field(field, about, columns, contents, has_date):
            field, evidence = found
        elif plain in _LOOSE_WORDS and (loose := _of_loose_words(field, about)):
            field, evidence = loose
        elif field == "categories" and about.dates >= MOSTLY:
            field = ""
        elif field == "status" and not about.statuses:
            field, evidence = "", "no cell is confirmed, tentative or cancelled"
        checked.append(
            column._replace(
                field=field, evidence=evidence, how=column.how if field or column.how == "asked" else ""
            )
        )
    return _split_starts(checked, contents)


def _are_lengths(about: Contents) -> bool:
    return all(isinstance(cell, _LENGTHS) for cell in about.cells)


def _without_idle_titles(columns: list[Column], contents: list[Contents]) -> list[Column]:
    """Columns headed as titles whose cells are halves of the day, yes and no, or numbers are none, where another column
    has words."""
    headed = [c for c in columns if c.field == "summary" and c.how == "heading" and contents[c.at].cells]
    if not any(_is_idle(contents[c.at]) for c in headed):
        return columns
    words = [c for c in columns if contents[c.at].texts >= MOSTLY and not _is_idle(contents[c.at])]
    return [
        c._replace(field="", how="", evidence="its cells say nothing about what happens")
        if c.field == "summary" and c.how == "heading" and contents[c.at].cells and _is_idle(contents[c.at])
        and any(other.at != c.at and other.field in ("", "summary", "description", "teacher", "class") for other in words)
        else c
        for c in columns
    ]  # fmt: skip


_SESSION = (
    r"(?:session|period|slot|block|lesson|part|talk|workshop|activity|match|game)\s?(?:\d{1,2}|[a-d])\b.*"
)


def _without_sessions(columns: list[Column]) -> list[Column]:
    """Columns headed `Session 1`, `Session 2` are parts of a day, and none of them is the title."""
    numbered = [c for c in columns if c.how != "asked" and any(map(str.isdigit, c.heading))]
    if len(numbered) < 2:  # lettered ones go with a session of the like name
        numbered = [c for c in columns if c.how != "asked" and c.heading[-2:-1] == " "]
    parts = {c.at for c in numbered if re.fullmatch(_SESSION, c.heading.casefold())}
    if len(parts) < 2:
        return columns
    return [
        c._replace(field="", how="", is_weak=False, evidence=PART_OF_DAY) if c.at in parts else c
        for c in columns
    ]


def _is_idle(about: Contents) -> bool:
    """Whether cells answer, number or halve the day, and name nothing."""
    return about.answers >= MOSTLY or about.numbers >= MOSTLY or about.halves >= MOSTLY


def _with_milestones(columns: list[Column], contents: list[Contents]) -> list[Column]:
    """Dates in columns of their own beside the date: each is a milestone, unless it keeps books."""
    if not any(
        c.field in ("date", "when", "milestone") or (c.field == "start" and contents[c.at].dates)
        for c in columns
    ):
        return columns
    return [
        c._replace(field="milestone", how="content", evidence="its cells are dates, beside the date of the row")
        if not c.field and c.how != "asked" and c.filled and contents[c.at].dates >= MOSTLY and not is_of_record(c.heading)
        and c.heading and contents[c.at].numbers < MOSTLY
        else c
        for c in columns
    ]  # fmt: skip


def _of_loose_words(field: str, about: Contents) -> tuple[str, str] | None:
    """What `From`, `To`, `At` and the like stand for by their cells, where that is another field."""
    if field == "location":
        if about.times >= MOSTLY:
            return "start", "its cells are times"
        return ("date", "its cells are dates") if about.dates >= MOSTLY else None
    if field not in ("start", "end", "date") or about.dates or about.times:
        return None
    numbers = all(isinstance(cell, (int, float)) or cell_text(cell).isdigit() for cell in about.cells)
    return None if numbers else ("", "its cells are neither dates nor times")


def _split_starts(columns: list[Column], contents: list[Contents]) -> list[Column]:
    """Of two columns headed as starts (or ends), the one that holds dates is the date."""
    for field, date_field in (("start", "date"), ("end", "end-date")):
        claims = [c for c in columns if c.field == field]
        if len(claims) != 2:
            continue
        dated = [c for c in claims if contents[c.at].dates >= MOSTLY and not contents[c.at].times]
        if len(dated) == 1 and not any(c.field == date_field for c in columns):
            at = dated[0].at
            columns[at] = columns[at]._replace(field=date_field, evidence="heading; its cells are dates")
    return columns


def _with_summary(columns: list[Column], contents: list[Contents]) -> list[Column]:
    """Find what the event is called, when no heading says so outright."""
    if any(c.field == "summary" and not c.is_weak for c in columns):
        return columns
    described = [c for c in columns if c.field == "description" and c.how == "heading"]
    lone = next((c for c in described if normal(c.heading) in _DESCRIPTIVE), None)
    weak = next((c for c in columns if c.field == "summary"), None)
    if lone is None and weak is None and len(described) == 1 and not _free_texts(columns, contents):
        lone = described[0] if not any(c.field == "class" for c in columns) else None
    if weak is not None:
        columns[weak.at] = weak._replace(is_weak=False)
    elif lone is not None:
        evidence = "the only column that says what happens"
        columns[lone.at] = lone._replace(field="summary", how="content", evidence=evidence)
    return columns


def _free_texts(columns: list[Column], contents: list[Contents]) -> list[Column]:
    """Columns without a field whose cells are mostly words."""
    return [
        c
        for c in columns
        if not c.field and c.how != "asked" and contents[c.at].texts >= MOSTLY
        and contents[c.at].dates < 0.5 and contents[c.at].times < MOSTLY
        and contents[c.at].weekdays < MOSTLY and not _is_idle(contents[c.at])
    ]  # fmt: skip


def _possible_titles(columns: list[Column], contents: list[Contents], has_class: bool) -> list[Column]:
    """Columns of words that could be the title; beside a class, odd and even weeks are what none is called."""
    texts = [c for c in _free_texts(columns, contents) if _may_be_title(c.heading)]
    if has_class:
        texts = [c for c in texts if not name_some_weeks(c.heading, map(cell_text, contents[c.at].different))]
    return texts


def _words_of_school(columns: list[Column], contents: list[Contents]) -> list[Column]:
    """Columns of words that say something about an event, in a table that has a title for none: one of them alone
    is the title (“Term”, “Starts”, “Ends”)."""
    named = (
        "term", "label", "group", "categories", "audience", "description", "teacher", "room", "location", "attendees", "organizer", "period",
    )  # fmt: skip
    return [c for c in columns if c.field in named and c.how == "heading" and contents[c.at].texts >= MOSTLY]


def _by_content(columns: list[Column], contents: list[Contents]) -> list[Column]:
    """Fill what no heading claims: the date, the times and the title, where just one column can be it."""
    free = [c for c in columns if not c.field and c.how != "asked" and contents[c.at].cells]
    taken = {c.field for c in columns if c.field}

    def take(column: Column, field: str, evidence: str) -> None:
        columns[column.at] = column._replace(field=field, how="content", evidence=evidence)
        taken.add(field)
        free.remove(column)

    dated = [c for c in free if contents[c.at].dates >= MOSTLY and not is_of_record(c.heading)]
    named = [c for c in dated if not is_placeholder(c.heading)]
    if len(named) > 1 and not taken & {"date", "when"} and not _dated_start(columns, contents):
        for column in named:
            take(column, "milestone", "one of several columns of dates")
    elif dated and not taken & {"date", "when"} and not _dated_start(columns, contents):
        take(dated[0], "date", "its cells are dates")
        if len(dated) > 1 and is_placeholder(dated[1].heading) and "end-date" not in taken:
            take(dated[1], "end-date", "its cells are dates, right of the first date")
    timed = [c for c in free if contents[c.at].times >= MOSTLY and is_placeholder(c.heading)]
    for column in timed:
        if not taken & {"time", "start"}:
            take(column, "time", "its cells are times")
        elif "end" not in taken and not _has_ranges(columns, contents):
            take(column, "end", "its cells are times, right of the first time")
    clocks = [c for c in free if contents[c.at].times >= MOSTLY and not is_of_record(c.heading)]
    if (
        len(clocks) == 1
        and not taken & {"time", "start", "end", "when"}
        and not _says_times(columns, contents)
    ):
        take(clocks[0], "time", "the only column of times")
    elif _are_beside(clocks) and not taken & {"time", "start", "end", "when"}:
        take(clocks[0], "start", "the first of two columns of times")
        take(clocks[1], "end", "the second of two columns of times")
    elif len(clocks) == 1 and "start" in taken and not taken & {"time", "end"}:
        start = next(c for c in columns if c.field == "start")
        if clocks[0].at > start.at and contents[start.at].times:
            take(clocks[0], "end", "its cells are times, right of the start")
    for column in list(free):
        if contents[column.at].weekday_lists >= MOSTLY and "repeat" not in taken:
            take(column, "repeat", "its cells are lists of weekdays")
    for column in list(free):
        if contents[column.at].weekdays >= MOSTLY and "day" not in taken:
            take(column, "day", "its cells are weekdays")
    if "summary" not in taken:
        texts = _possible_titles(columns, contents, "class" in taken)
        unnamed = [c for c in texts if is_placeholder(c.heading)]
        if len(texts) == 1:
            take(texts[0], "summary", "the only column of words")
        elif texts and len(unnamed) == len(texts):
            title = max(texts, key=lambda c: (len(contents[c.at].different), -c.at))
            take(title, "summary", "no headings; it has the most different texts")
        elif "class" not in taken and not texts and len(words := _words_of_school(columns, contents)) == 1:
            columns[words[0].at] = words[0]._replace(
                field="summary", how="content", evidence="the only column of words"
            )
    return columns


def _are_beside(clocks: list[Column]) -> bool:
    """Whether two columns of times stand side by side, as a start and its end do; high and low water need not."""
    return len(clocks) == 2 and clocks[1].at == clocks[0].at + 1


def _may_join(heading: str) -> bool:
    """Whether a heading speaks of joining from elsewhere."""
    plain = heading.casefold()
    return any(word in plain for word in ("join", "meet", "dial", "video"))


def _may_be_title(heading: str) -> bool:
    """Whether a heading leaves open that its cells are titles: “Tag”, “From”, “Mon” and “9:00” name something else."""
    match = match_heading(heading)
    is_open = match is None or match.field in ("conference", "person")
    return is_open and normal(heading) not in ENGLISH.weekdays and unit_of(heading).times is None


def is_of_record(heading: str) -> bool:
    """Whether a heading names a date that is no event's: of birth, of the last change."""
    return not _RECORD_WORDS.isdisjoint(normal(heading).split())


def _dated_start(columns: list[Column], contents: list[Contents]) -> bool:
    return any(c.field == "start" and contents[c.at].dates >= MOSTLY for c in columns)


def _says_times(columns: list[Column], contents: list[Contents]) -> bool:
    """Whether the column of dates says times too."""
    dated = [c for c in columns if c.field == "date"]
    return any(
        isinstance(cell, dt.datetime) or ":" in cell_text(cell)
        for c in dated
        for cell in contents[c.at].different[:MOST_DIFFERENT]
    )


def _has_ranges(columns: list[Column], contents: list[Contents]) -> bool:
    timed = next((c for c in columns if c.field == "time"), None)
    if timed is None or not contents[timed.at].cells:
        return False
    first = read_times(cell_text(contents[timed.at].cells[0]))
    return isinstance(first, Times) and first.end is not None
