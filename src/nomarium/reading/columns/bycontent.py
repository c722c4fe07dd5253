"""Columns that no heading names, by what stands under them: the date, the times, the weekdays and the title."""

import datetime as dt
import re
from itertools import pairwise

from nomarium.model.cell import Cell
from nomarium.reading.cells.placewords import is_place
from nomarium.reading.cells.times import Times, read_times
from nomarium.reading.cells.words import ENGLISH
from nomarium.reading.columns.cellssay import (
    HEADS_TIMES,
    are_moments,
    goes_on,
    is_just_before,
    stretch_of,
)
from nomarium.reading.columns.column import BESIDE_NAMES, ONLY_WORDS, PART_OF_DAY, Column
from nomarium.reading.columns.contents import MOST_DIFFERENT, MOSTLY, Contents, name_some_weeks
from nomarium.reading.columns.headedtitles import POSTS
from nomarium.reading.columns.headings import is_placeholder, match_heading, normal, unit_of
from nomarium.reading.columns.whenwords import (
    are_measures,
    are_of_others,
    heading_says_when,
    is_before_start,
    is_of_nature,
    is_of_record,
    is_planned_end,
    is_record_date,
    is_step,
    says_end,
)
from nomarium.sheets.sheet import cell_text

_SAYING_DAYS = frozenset(("date", "when", "start", "end", "end-date", "day", "week", "repeat"))
_LETTERS_OF_NAME = 5


def by_content(columns: list[Column], contents: list[Contents]) -> list[Column]:
    """Fill what no heading claims: the date, the times and the title, where just one column can be it."""
    filling = _Filling(columns, contents)
    filling.dates()
    filling.times()
    filling.weekdays()
    filling.place()
    filling.title()
    filling.without_list_beside()
    return columns


class _Filling:
    """The columns on their way: what is taken, and what is free."""

    def __init__(self, columns: list[Column], contents: list[Contents]) -> None:
        self._columns, self._contents = columns, contents
        self._free = [c for c in columns if not c.field and c.how != "asked" and contents[c.at].cells]
        self._taken = {c.field for c in columns if c.field}

    def _take(self, column: Column, field: str, evidence: str) -> None:
        self._columns[column.at] = column._replace(field=field, how="content", evidence=evidence)
        self._taken.add(field)
        self._free = [c for c in self._free if c is not column]

    def _about(self, column: Column) -> Contents:
        return self._contents[column.at]

    def dates(self) -> None:
        """The date, a first and a last day, or several days of a row."""
        dated = [c for c in self._free if self._about(c).dates >= MOSTLY and not is_record_date(c.heading)]
        dated = [
            c
            for c in dated
            if not (self._about(c).are_bare_days and are_of_others(c.heading, self._about(c)))
            and not are_measures(c.heading, self._about(c), "day" in self._taken)
        ]  # so many of so many
        dated = dated or self._listing_days()
        if "day" in self._taken:  # the end of a weekday's weeks is not the date of a row
            dated = [c for c in dated if not says_end(c.heading)]
        named = [c for c in dated if not is_placeholder(c.heading)]
        if self._taken & {"date", "when"} or _dated_start(self._columns, self._contents):
            planned = [c for c in dated if is_planned_end(c.heading)]
            if len(planned) == 1 and not self._taken & {"end-date", "end", "day", "repeat"}:
                self._take(planned[0], "end-date", "the last day, by its heading")
            return
        if (stretch := stretch_of(self._columns, self._contents)) is not None:
            first, last = (self._columns[at] for at in stretch)
            fields = ("start", "end") if are_moments(self._about(first)) else ("date", "end-date")
            self._take(first, fields[0], "the first day, by its heading and that of the last")
            self._take(last, fields[1], "the last day, by its heading and that of the first")
        elif len(named) > 1:
            steps = [c for c in self._free if self._about(c).dates >= MOSTLY and is_step(c.heading)]
            for column in (*named, *(c for c in steps if c not in named)):
                self._take(column, "milestone", "one of several columns of dates")
        elif dated:
            self._take(dated[0], "date", "its cells are dates")
            is_end = (
                len(dated) > 1
                and is_placeholder(dated[1].heading)
                and not goes_on(*(self._about(one).cells for one in dated[:2]))
            )
            if is_end and "end-date" not in self._taken:
                self._take(dated[1], "end-date", "its cells are dates, right of the first date")

    def _listing_days(self) -> list[Column]:
        """A column whose cells list days: one without a heading, else the only one, where nothing else says when."""
        listing = [c for c in self._free if self._about(c).lists_days and not is_record_date(c.heading)]
        bare = [c for c in listing if is_placeholder(c.heading)][:1]
        is_only = len(listing) == 1 and self._taken.isdisjoint(_SAYING_DAYS)
        return bare or (listing if is_only else [])

    def without_list_beside(self) -> None:
        """No last days, where dates stand between what is on and other words that nothing uses: a list goes on beside itself."""
        for column, words in pairwise(self._columns):
            is_guessed = (
                column.field == "end-date" and column.how == "content" and is_placeholder(column.heading)
            )
            are_words = (
                not words.field and self._about(words).texts >= MOSTLY and is_placeholder(words.heading)
            )
            before = self._columns[column.at - 1] if column.at else column
            if is_guessed and are_words and before.field == "summary":
                self._columns[column.at] = column._replace(field="", how="", evidence="")

    def times(self) -> None:
        """The time, or a start and an end."""
        free = [c for c in self._free if self._about(c).times >= MOSTLY and not self._about(c).may_be_classes]
        timed = [c for c in free if is_placeholder(c.heading)]
        for column in timed:
            if not self._taken & {"time", "start"}:
                self._take(column, "time", "its cells are times")
            elif "end" not in self._taken and not _has_ranges(self._columns, self._contents):
                self._take(column, "end", "its cells are times, right of the first time")
        clocks = [
            c
            for c in free
            if c in self._free
            and not are_of_others(c.heading, self._about(c))
            and not is_of_record(c.heading)
            and not is_of_nature(c.heading)
            and not is_before_start(c.heading)
        ]
        clocks = [c for c in clocks if c.evidence != HEADS_TIMES] or clocks[:1]
        is_timed = bool(self._taken & {"time", "start", "end"}) or any(
            c.field == "when" and self._about(c).date_hours for c in self._columns
        )
        spans = [c for c in clocks if _are_spans(self._about(c))]
        if len(clocks) > 1 and len(spans) == 1 and not is_timed:
            self._take(spans[0], "time", "the only column of times from one to another")
        elif len(clocks) == 1 and not is_timed and not _says_times(self._columns, self._contents):
            self._take(clocks[0], "time", "the only column of times")
        elif _are_beside(clocks) and not is_timed:
            self._take(clocks[0], "start", "the first of two columns of times")
            self._take(clocks[1], "end", "the second of two columns of times")
        elif len(clocks) == 1 and "start" in self._taken and not self._taken & {"time", "end"}:
            start = next(c for c in self._columns if c.field == "start")
            is_right = clocks[0].at > start.at and clocks[0].evidence != HEADS_TIMES
            is_right = is_right and not is_just_before(self._about(clocks[0]), self._about(start))
            if is_right and self._about(start).times:
                self._take(clocks[0], "end", "its cells are times, right of the start")

    def weekdays(self) -> None:
        """Weekdays, alone or several a cell."""
        for column in list(self._free):
            if self._about(column).weekday_lists >= MOSTLY and "repeat" not in self._taken:
                self._take(column, "repeat", "its cells are lists of weekdays")
        for column in list(self._free):
            is_limit = re.search(LIMITS, normal(column.heading)) is not None
            if self._about(column).weekdays >= MOSTLY and "day" not in self._taken and not is_limit:
                self._take(column, "day", "its cells are weekdays")

        days = [c for c in self._columns if c.field in ("day", "date") and self._about(c).weekdays >= MOSTLY]
        dated = [c for c in self._columns if c.field in ("date", "when", "week") and c not in days]
        weeks = [c for c in self._columns if days and not dated and _number_weeks(c, self._about(c))]
        if len(weeks) == 1:
            self._take(weeks[0], "week", "its cells are numbers of weeks, beside weekdays")

    def place(self) -> None:
        """The place, where one column without a heading names places."""
        if self._taken & {"location", "room"}:
            return
        placed = [c for c in self._free if is_placeholder(c.heading) and self._about(c).places >= MOSTLY]
        if len(placed) == 1 and len(_possible_titles(self._columns, self._contents, False)) > 1:
            self._take(placed[0], "location", "no headings; its cells are names of places")

    def title(self) -> None:
        """The title, where just one column can be it."""
        if (
            "summary" in self._taken
            or sum(c.evidence == PART_OF_DAY and c.filled > 0 for c in self._columns) > 1
        ):
            return  # what happens stands under the parts of the day
        if "class" in self._taken and self._taken & {"day", "repeat", "repeat-times"}:
            return  # classes that repeat are what happens, whatever words stand beside them
        texts = _possible_titles(self._columns, self._contents, "class" in self._taken)
        named = [c for c in texts if normal(c.heading) not in _BESIDE_TITLES]
        if not all(normal(c.heading) in _STANDS_IN for c in named):
            texts = named  # who stands in is no more what happens than whom they stand in for
        words = _words_of_school(self._columns, self._contents)
        if words and texts and all(normal(c.heading) in _STANDS_IN for c in texts):
            return
        groups = [c for c in words if c.field == "group" and not self._is_coded(c)]
        if len(groups) == 1 and all(self._is_beside(c) for c in texts):
            texts, words = [], groups  # a group, and the codes or the address of it
        placed = [c for c in texts if is_place(c.heading) and not is_placeholder(c.heading)]
        if len(placed) < len(texts) or any(self._is_counted(c) for c in self._columns):
            texts = [c for c in texts if c not in placed]  # Pool, beside Gala
            if len(placed) == 1 and not self._taken & {"location", "room"}:
                self._take(placed[0], "location", "its heading is a kind of place")
        texts = [c for c in texts if not self._about(c).are_counted] or texts
        texts = [c for c in texts if re.search(_OF_NUMBERS, normal(c.heading)) is None] or texts
        if len(texts) == 1:
            self._take(texts[0], "summary", BESIDE_NAMES if self._are_names_once() else ONLY_WORDS)
        elif texts and all(is_placeholder(c.heading) for c in texts):
            title = max(texts, key=lambda c: (len(self._about(c).different), -c.at))
            self._take(title, "summary", "no headings; it has the most different texts")
        elif not texts and "class" not in self._taken:
            if "organizer" in self._taken:  # Booked by, For: what it is booked for
                words = [c for c in words if normal(c.heading) in _FOR_WHAT] or words
            if len(words) == 1:
                self._columns[words[0].at] = words[0]._replace(
                    field="summary", how="content", evidence=ONLY_WORDS
                )

    def _is_counted(self, column: Column) -> bool:
        """Whether a column without a field counts what happens in words, `Round 1`."""
        about = self._about(column)
        return (
            not column.field and column.how != "asked" and about.texts >= MOSTLY and about.ordinals >= MOSTLY
        )

    def _is_coded(self, column: Column) -> bool:
        """Whether the cells of a column are codes or addresses, `B100`, `ida@example.org`, and no words."""
        return all(re.fullmatch(_CODED, cell_text(cell)) for cell in self._about(column).different)

    def _is_beside(self, column: Column) -> bool:
        """Whether a column says what an event has beside its title."""
        return normal(column.heading) in _BESIDE_TITLES or self._is_coded(column)

    def _are_names_once(self) -> bool:
        """Whether a column of classes has names, each in one row: they are what happens as much as the words beside them."""
        column = next((c for c in self._columns if c.field == "class"), None)
        names = self._about(column).different if column is not None else []
        return (
            column is not None
            and len(names) == column.filled > 1
            and sum(map(_is_name, names)) * 2 > len(names)
        )


_WEEK_NUMBER = r"(?i)(?:week|wk|w|woche|kw|cw|semaine|sem|s|semana|settimana|sett|vecka|v|uke|uge|viikko|vko)\.?\s*(?P<number>\d{1,2})"
"""The number of a week, with a word for it or its first letter."""
_MOST_TERMS = 4
_FOR_WHAT = frozenset(("for", "pour", "fur", "para", "voor"))
"""What heads those for whom something is on, or, beside who booked a room, what for."""
_OF_NUMBERS = r"(?:^|\s)(?:no|nos|nr|num|number|ref|reference|id|code|nummer|kennung|numéro)$"
"""How headings end of what counts or names rows for their keepers, `Change no.`: such a column is no title beside another one."""
_WHO_IS_NOT = r"\b(?:absen\w*|away|missing|replac\w*|instead|cover(?:ed|ing)? for|abwesend|fehlend\w*)\b"
"""Words of a heading below which those stand who do not come: what happens is the class that is covered."""
_CODED = r"[A-Z]{1,4}[-/ ]?\d{2,}[A-Za-z]?|\S+@\S+|(?:https?://|www\.)\S+"
_BESIDE_TITLES = POSTS | frozenset(
    "bring equipment material materials kit level age ages cost price fee fees capacity trainer coach lecturer presenter facilitator minister supervisor sponsor "
    "transport dress food catering refreshments attendance email telephone phone type format".split()
)
"""Headings of what an event has beside its title."""
_STANDS_IN = frozenset(
    ("backup", "back up", "reserve", "deputy", "standby", "stand by", "stand in", "alternate", "relief")
)
"""Headings of those who come if others do not."""
_PLACE_AND_DATE = 2
"""Columns of a table that says where and when, and nothing else."""
LIMITS = (
    r"\b(?:due|deadline|closes|closing|by|until|before|return|hand ?in|abgabe|frist|limite|remise|entrega)\b"
)
"""Words of a heading whose weekday ends something, and is not when the row's event is."""


def _number_weeks(column: Column, about: Contents) -> bool:
    """Whether the cells of a column are numbers of weeks, `S37`: one without a field, or that of terms, of which there are few."""
    if column.field not in ("", "term") or column.how == "asked":
        return False
    found = [re.fullmatch(_WEEK_NUMBER, cell_text(cell)) for cell in about.different]
    numbers = [int(match["number"]) for match in found if match is not None]
    return len(numbers) == len(found) > 0 and (not column.field or max(numbers) > _MOST_TERMS)


def _are_beside(clocks: list[Column]) -> bool:
    """Whether two columns of times stand side by side, as a start and its end do; high and low water need not, and `Slot 1`
    and `Slot 2` are two of a kind."""
    if len(clocks) != 2 or clocks[1].at != clocks[0].at + 1:
        return False
    if any(is_of_nature(c.heading) for c in clocks):
        return False
    first, second = (re.sub(r"\s*(?:\d+|\b[a-d])$", "", normal(c.heading)) for c in clocks)
    return first != second or is_placeholder(clocks[0].heading)


def is_idle(about: Contents) -> bool:
    """Whether cells answer, number, price or halve the day, and name nothing."""
    return (
        about.answers >= MOSTLY
        or about.numbers >= MOSTLY
        or about.halves >= MOSTLY
        or about.ordinals >= MOSTLY
        or about.prices >= MOSTLY
    )


def free_texts(columns: list[Column], contents: list[Contents]) -> list[Column]:
    """Columns without a field whose cells are mostly words."""
    return [
        c
        for c in columns
        if not c.field and c.how != "asked" and contents[c.at].texts >= MOSTLY
        and contents[c.at].dates < 0.5 and contents[c.at].times < MOSTLY
        and contents[c.at].weekdays < MOSTLY and not is_idle(contents[c.at])
    ]  # fmt: skip


def _possible_titles(columns: list[Column], contents: list[Contents], has_class: bool) -> list[Column]:
    """Columns of words that could be the title; beside a class, odd and even weeks are what none is called."""
    texts = [
        c
        for c in free_texts(columns, contents)
        if _may_be_title(c.heading)
        and (is_placeholder(c.heading) or not heading_says_when(c.heading, contents[c.at], has_class, MOSTLY))
    ]
    if has_class:  # the class is the title where another column has words now and then
        named = next((contents[c.at].different for c in columns if c.field == "class"), [])
        are_names = sum(map(_is_name, named)) * 2 > len(named)
        texts = [
            c
            for c in texts
            if re.search(_WHO_IS_NOT, normal(c.heading)) is None
            and normal(c.heading) not in _BESIDE_TITLES
            and c.blank * (10 if are_names else 2) <= c.filled
            and not (are_names and len(named) > len(contents[c.at].different))  # courses, and who gives them
            and not name_some_weeks(c.heading, map(cell_text, contents[c.at].different))
        ]
    return texts


def _is_name(cell: Cell) -> bool:
    """Whether a cell is a name of some words, and no code of a class."""
    return (
        isinstance(cell, str)
        and sum(map(str.isalpha, cell)) >= _LETTERS_OF_NAME - (cell[1:2].islower())
        and not any(map(str.isdigit, cell))
    )


def _words_of_school(columns: list[Column], contents: list[Contents]) -> list[Column]:
    """Columns of words that say something about an event, in a table that has a title for none: one of them alone
    is the title (“Term”, “Starts”, “Ends”). A place is where, and a title only where nothing stands beside it but when."""
    named = set("term label group categories audience description teacher attendees organizer period".split())
    if sum(c.filled > 0 for c in columns) == _PLACE_AND_DATE:
        named |= {"room", "location"}
    return [c for c in columns if c.field in named and c.how == "heading" and contents[c.at].texts >= MOSTLY]


def _may_be_title(heading: str) -> bool:
    """Whether a heading leaves open that its cells are titles: “Tag”, “From”, “Mon” and “9:00” name something else."""
    match = match_heading(heading)
    is_open = match is None or match.field in ("conference", "person")
    return is_open and normal(heading) not in ENGLISH.weekdays and unit_of(heading).times is None


def _dated_start(columns: list[Column], contents: list[Contents]) -> bool:
    return any(c.field == "start" and contents[c.at].dates >= MOSTLY for c in columns)


def _says_times(columns: list[Column], contents: list[Contents]) -> bool:
    """Whether the column of dates says times too."""
    dated = [c for c in columns if c.field == "date"]
    return any(
        isinstance(cell, dt.datetime) or re.search(r"\d[:h]\d\d", cell_text(cell))
        for c in dated
        for cell in contents[c.at].different[:MOST_DIFFERENT]
    )


def _has_ranges(columns: list[Column], contents: list[Contents]) -> bool:
    timed = next((c for c in columns if c.field == "time"), None)
    return timed is not None and _are_spans(contents[timed.at])


def _are_spans(about: Contents) -> bool:
    """Whether a column's first cell has times from one to another."""
    first = read_times(cell_text(about.cells[0])) if about.cells else None
    return isinstance(first, Times) and first.end is not None
