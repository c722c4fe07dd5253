"""What a heading stands for by the cells under it, where that is another field than its words say."""

import datetime as dt
import re
from collections.abc import Sequence
from typing import Final

from nomarium.model.cell import Cell
from nomarium.reading.cells.moments import Moment, read_moment
from nomarium.reading.cells.times import DAY_SECS, Times, read_times
from nomarium.reading.cells.words import ENGLISH, Lexicon
from nomarium.reading.columns.column import Column
from nomarium.reading.columns.contents import MOSTLY, Contents
from nomarium.reading.columns.daycells import about_days
from nomarium.reading.columns.headings import normal
from nomarium.sheets.sheet import cell_text

ARRIVING: Final = frozenset(
    (
        *("arr", "arrives", "arrival", "arrival time", "arrival date", "arrive", "arriving", "check in", "checkin"),
        *("anreise", "ankunft", "arrivee", "llegada", "aankomst", "arrivo", "chegada", "przyjazd", "ankomst"),
    )
)  # fmt: skip
LEAVING: Final = frozenset(
    (
        *("leaves", "leave", "leaving", "leaving date", "dep", "departs", "departure", "departure time", "departure date"),
        *("depart", "departing", "check out", "checkout"),
        *("abreise", "abfahrt", "salida", "vertrek", "partenza", "partida", "wyjazd", "avresa", "avreise"),
    )
)  # fmt: skip
HEADS_TIMES = "it heads times, and not what happens"
_NAMES = frozenset(
    (
        "group",
        "class",
        "room",
        "teacher",
        "audience",
        "division",
        "label",
        "term",
        "person",
        "location",
        "description",
        "period",
    )
)
"""Fields of words: a column of dates is none of them, whatever its heading."""


_SHORT = 4
"""Shorter cells may be letters of weeks or of days, `A`, `Odd`."""
_PEOPLE = frozenset(("organizer", "attendees", "optional-attendees", "audience"))
"""Fields of people, or of groups of them."""
_LONGEST_NIGHT = 14 * 3600
"""How long what ends on the next morning lasts at most, in seconds."""


_LONGEST_WAIT = 6 * 3600
"""How long before something begins people are called to it at most, in seconds."""


def coming_and_going(columns: list[Column], contents: list[Contents]) -> dict[int, str]:
    """The columns of times, or of dates, of which one says when people come and the other when they go. Where going stands
    first, and is earlier on most rows or in the night before, it is a journey: it begins with leaving."""
    headed = [
        [c.at for c in columns if c.how != "asked" and normal(c.heading) in words and contents[c.at].cells]
        for words in (ARRIVING, LEAVING)
    ]
    called = {normal(c.heading): c.at for c in columns if c.how != "asked" and contents[c.at].cells}
    for one, other in (*_OUT_AND_BACK, *_ON_AND_OFF):
        at = called.get(one, -1), called.get(other, -1)
        are_clocks = "time" in one or any(
            contents[n].are_clear_times or contents[n].are_clock_figures for n in at if n >= 0
        )
        if min(at) >= 0 and are_clocks and all(_are_times(contents[n]) for n in at):
            begin, end = at if _is_earlier(contents[at[0]], contents[at[1]], False) else reversed(at)
            return {begin: "start", end: "end"}
    for are_alike, fields in (
        (_are_times, ("start", "end")),
        (are_moments, ("start", "end")),
        (_are_dates, ("date", "end-date")),
    ):
        pair = [[at for at in places if are_alike(contents[at])] for places in headed]
        if all(len(places) == 1 for places in pair):
            (come,), (go,) = pair
            heading = next(normal(c.heading) for c in columns if c.at == go)
            is_journey = go < come and _is_earlier(contents[go], contents[come], heading.startswith("dep"))
            begin, end = (go, come) if is_journey else (come, go)
            return {begin: fields[0], end: fields[1]} | _times_beside(columns, contents, begin, end)
    return {}


def _times_beside(columns: list[Column], contents: list[Contents], begin: int, end: int) -> dict[int, str]:
    """The columns of times that are called after two of dates, `Arrive time` beside `Arrive`."""
    called = {normal(c.heading): c.at for c in columns if c.how == "heading" or not c.field}
    pairs = [
        (called.get(f"{normal(columns[at].heading)} time", -1), field)
        for at, field in ((begin, "start"), (end, "end"))
    ]
    return {at: field for at, field in pairs if at >= 0 and _are_times(contents[at])}


def are_moments(about: Contents) -> bool:
    """Whether every cell is a date with a time."""
    return about.dates >= MOSTLY and all(
        isinstance(cell, dt.datetime) or (isinstance(cell, str) and ":" in cell) for cell in about.different
    )


def _are_dates(about: Contents) -> bool:
    return about.dates >= MOSTLY


def _is_earlier(one: Contents, other: Contents, by_night: bool) -> bool:
    """Whether the times, or the dates, of a column are earlier than those beside them in another on most rows; `by_night`, also
    in the night before."""
    pairs = [(_moment_key(a), _moment_key(b)) for a, b in zip(one.cells, other.cells, strict=False)]
    known = [(a, b) for a, b in pairs if a and b]
    return sum(
        a <= b or (by_night and len(a) == len(b) == 1 and b[0] + DAY_SECS - a[0] < _LONGEST_NIGHT)
        for a, b in known
    ) * 2 > len(known)


def is_just_before(one: Contents, other: Contents) -> bool:
    """Whether the times of a column are some hours at most before those beside them in another on most rows: they are no ends."""
    pairs = [(_moment_key(a), _moment_key(b)) for a, b in zip(one.cells, other.cells, strict=False)]
    known = [b[0] - a[0] for a, b in pairs if len(a) == len(b) == 1]
    return sum(0 < secs < _LONGEST_WAIT for secs in known) * 2 > len(known)


def _moment_key(cell: Cell) -> tuple[int, ...]:
    """A time or a date as numbers that grow with it, in whatever order its figures are read; nothing for other cells."""
    if isinstance(cell, dt.date):
        return (cell.year, cell.month, cell.day)
    times = read_times(cell_text(cell))
    if isinstance(times, Times) and times.start:
        return (times.start.secs,)
    moment = read_moment(cell, "date", ENGLISH)
    if not isinstance(moment, Moment) or moment.first is None:
        return ()
    reading = moment.first.readings[0]
    return (reading.year or 0, reading.month, reading.day)


def _are_times(about: Contents) -> bool:
    """Whether every cell can be a time, also a figure alone."""
    read = [read_times(cell_text(cell)) for cell in about.different if isinstance(cell, (str, int))]
    clocks = all(isinstance(one, Times) and (one.start is not None or one.is_unknown) for one in read)
    return clocks and all(isinstance(cell, (str, int, dt.time)) for cell in about.different)


def are_whole(about: Contents) -> bool:
    """Whether every cell is a whole number, with a word before it or none: `Day 8`."""
    return all(re.fullmatch(r"[^\W\d]*\s*\d{1,3}", cell_text(cell)) for cell in about.different)


def another_field(
    field: str, about: Contents, columns: list[Column], contents: list[Contents], has_date: bool
) -> tuple[str, str] | None:
    """What a heading of words, of when, of a week or of a period stands for by its cells, where that is another field."""
    if field == "summary" and (about.are_clear_times or about.say_only_times):
        return "", HEADS_TIMES
    if field == "summary" and not has_date and about.dates >= (0.5 if _has_other_title(columns) else 1):
        return "when", "its cells are dates"  # Appointment, Termin
    if field in _NAMES and about.begins_with_dates and about.dates >= MOSTLY:
        are_rooms = field in ("location", "room") and has_date and about.are_numbered_rooms
        return None if are_rooms else ("", "its cells are dates")
    if field in _PEOPLE and (about.dates >= MOSTLY or about.are_clear_times):
        return "", "its cells are dates or times"  # Invited, Host
    if field in ("day", "week") and _is_no_day(field, about, columns, contents):
        return "", "its cells are dates or times"
    if field in _NAMES and about.hold_timed_weekdays:
        return "", "its cells are weekdays with times"
    if field == "time" and not has_date and about.dates >= MOSTLY:
        return "when", "its cells are dates with times"
    if field == "when" and any(c.field == "date" and contents[c.at].dates for c in columns):
        return _when_beside_a_date(columns, about)
    if field == "when" and not about.dates and about.times >= MOSTLY and _has_weekdays(contents):
        return "time", "its cells are times, beside weekdays"
    if field in ("period", "label") and about.are_clear_times and not says_time(columns):
        return "time", "its cells are times"
    if field == "week" and about.dates >= MOSTLY:
        return "date", "its cells are dates"
    return None


def _is_no_day(field: str, about: Contents, columns: Sequence[Column], contents: Sequence[Contents]) -> bool:
    """Whether a column headed as that of weekdays or weeks holds times, or dates that are not those of the rows again: a workbook shows
    these as weekdays."""
    if about.are_clear_times:
        return True
    dated = [contents[c.at].cells for c in columns if c.field in ("date", "when", "start")]
    return field == "day" and about.dates >= MOSTLY and bool(dated) and about.cells not in dated


def _has_weekdays(contents: list[Contents]) -> bool:
    return any(max(one.weekdays, one.weekday_lists) >= MOSTLY for one in contents)


def _has_other_title(columns: list[Column]) -> bool:
    return sum(c.field == "summary" and c.how == "heading" for c in columns) > 1


def without_unsaid(columns: list[Column], rows: Sequence[Sequence[Cell]], lexicon: Lexicon) -> list[Column]:
    """The columns, of which those headed as weekdays or weeks beside dates are none where no cell names one, and those of when to
    remind where none says whether: they are told as not used."""
    if not any(c.field in ("date", "when") and c.filled for c in columns):
        return columns

    reminds = any(c.field == "reminder-on" for c in columns)

    def says_nothing(column: Column) -> bool:
        if column.field in ("reminder-date", "reminder-time"):
            return not reminds and column.how == "heading"
        if column.field not in ("day", "week") or column.how != "heading" or not column.filled:
            return False
        about = Contents([row[column.at] if column.at < len(row) else "" for row in rows], lexicon)
        if column.field == "day" and (about.weekdays or about.weekday_lists or about.weekday_names):
            return False
        texts = list(map(cell_text, about.different))
        return not any(any(map(str.isdigit, text)) or len(text) < _SHORT for text in texts)

    evidence = "its cells do not say it"
    return [c._replace(field="", how="", evidence=evidence) if says_nothing(c) else c for c in columns]


def are_letters(about: Contents) -> bool:
    """Whether all cells are a few letters, as weekdays run together are, `MWF`, `TTh`."""
    texts = map(cell_text, about.different)
    return bool(about.different) and all(
        re.fullmatch(r"(?:[A-Z][a-z]{0,3}[\s/,&-]*){1,7}", text) for text in texts
    )


def status_of(field: str, evidence: str, about: Contents) -> tuple[str, str]:
    """What a heading of a status is: answers under `Confirmed`, else words for one, else nothing."""
    if field == "confirmed" and about.answers >= MOSTLY:
        return field, evidence
    return ("status", evidence) if about.statuses else ("", "no cell is confirmed, tentative or cancelled")


def _when_beside_a_date(columns: list[Column], about: Contents) -> tuple[str, str]:
    """What a column headed `When` is where another is the date: the time, or the date again; never nothing unseen."""
    if about.dates >= MOSTLY:
        return "date", "its cells are dates"
    if about.times < MOSTLY and says_time(columns):
        return "", "its cells are neither dates nor times"
    return "time", "another column is the date"


def says_time(columns: list[Column]) -> bool:
    return any(c.field in ("time", "start") for c in columns)


_FIRST = r"(.*\S)\s(?:starts?|begins?|commences?|from|(?:start|begin|starting)\s(?:date|day|on)|first\s(?:date|day))"
_LAST = (
    r"(.*\S)\s(?:ends?|finish(?:es)?|to|until|till|(?:end|finish|ending)\s(?:date|day|on)|last\s(?:date|day))"
)
_BEFORE_IT = frozenset(
    "booking bookings application applications registration registrations enrolment enrollment entry entries ticket tickets sale sales "
    "signup sign voting nomination nominations submission submissions consultation".split()
)
"""What has a stretch of its own before the event."""


_OUT_AND_BACK: Final = (
    ("out", "back"),
    ("out", "return"),
    ("out", "in"),
    ("collected", "returned"),
    ("pick up", "drop off"),
    ("collect", "return"),
    ("opening", "closing"),
    ("opening date", "closing date"),
)
"""Headings of two columns that say from when until when something is away."""
_ON_AND_OFF: Final = (
    ("on", "off"),
    ("sign in", "sign out"),
    ("signed in", "signed out"),
    ("clock in", "clock out"),
    ("time on", "time off"),
    ("on duty", "off duty"),
    ("sign on", "sign off"),
    ("time in", "time out"),
)
"""The same of times only."""


def stretch_of(columns: list[Column], contents: list[Contents]) -> tuple[int, int] | None:
    """The one pair of columns of dates that are headed alike, one as the first and the other as the last day, `Hire start date`
    and `Hire end date`; None when there is none, or several."""
    dated = [c for c in columns if not c.field and c.how != "asked" and contents[c.at].dates >= MOSTLY]
    firsts = {m[1]: c.at for c in dated if (m := re.fullmatch(_FIRST, normal(c.heading)))}
    lasts = {m[1]: c.at for c in dated if (m := re.fullmatch(_LAST, normal(c.heading)))}
    pairs = [(firsts[name], lasts[name]) for name in firsts.keys() & lasts.keys() if _BEFORE_IT.isdisjoint(name.split())]  # fmt: skip
    called = {normal(c.heading): c.at for c in dated}
    pairs += [(called[out], called[back]) for out, back in _OUT_AND_BACK if out in called and back in called]
    return pairs[0] if len(pairs) == 1 else None


def goes_on(first: Sequence[Cell], second: Sequence[Cell]) -> bool:
    """Whether a column of dates begins after another one has ended, as a list does that goes on beside itself: no last days of
    what begins on the days of the other."""
    before, after = about_days(first), about_days(second)
    return min(len(before), len(after)) >= _LEAST_OF_LIST and max(before) < min(after)


_LEAST_OF_LIST: Final = 3
"""Dates of a list, at least."""
