"""Which field a heading names: by its known spellings in five languages, and nearly so, never recklessly."""

import re
from collections.abc import Iterator, Mapping, Sequence
from functools import lru_cache
from pathlib import Path
from types import MappingProxyType
from typing import Final, Literal, NamedTuple

from nomarium.model.limits import LONGEST_CELL
from nomarium.model.wording import nearest
from nomarium.reading.cells.times import Times, read_times
from nomarium.reading.cells.weeks import heads_weeks
from nomarium.reading.cells.words import fold
from nomarium.reading.options import Order

FIELDS: Final = (
    "summary", "date", "start", "end", "end-date", "time", "when", "duration", "all-day", "location",
    "description", "categories", "audience", "organizer", "attendees", "rsvp", "url", "conference", "status", "privacy", "busy",
    "reminder", "color", "priority", "geo", "timezone", "uid", "repeat", "repeat-times", "repeat-until", "except", "also-on", "week", "day",
    "class", "teacher", "room", "group", "division", "term", "label", "period", "person",
)  # fmt: skip
"""The fields of an event (docs/reading-tables.md), as `--column` and `--set` name them."""

PARTS: Final = (
    "optional-attendees", "private", "reminder-on", "reminder-date", "reminder-time", "more-categories",
    "cancelled", "confirmed", "milestone",
)  # fmt: skip
"""Columns that say a piece of a field; found by their headings."""

DATE_FIELDS: Final = frozenset({"date", "end-date", "when", "start", "end", "reminder-date", "milestone"})


class HeadingMatch(NamedTuple):
    """What a heading seems to name."""

    field: str
    is_weak: bool = False
    """It counts only when no other column claims the field."""
    near: str = ""
    """The known spelling, when the heading only resembles it."""


class HeadingUnit(NamedTuple):
    """What the brackets of a heading say: "Date (dd/mm/yyyy)", "Length (min)"."""

    date_order: Order = ""
    length_secs: int | None = None
    meridiem: str = ""
    """am or pm, for times that say neither."""
    is_utc: bool = False
    week: Literal["", "begins", "ends"] = ""
    """Whether the dates under it begin weeks, or end them."""
    times: Times | None = None
    """When the day of each date begins, `Due (11.59pm)`."""


NO_UNIT = HeadingUnit()

_BRACKETS = r"[(\[{]([^)\]}]*)[)\]}]"
_TIME_IN_HEADING = r"(?i)(?<!\d[./])(?:\d{1,2}(?:[:.h]\d\d)?\s?(?:[ap]\.?m\.?)?\s?[-–]\s?)?\d{1,2}(?:[:.h]\d\d(?:\s?[ap]\.?m\b\.?)?|\s?[ap]\.?m\b\.?)(?![\d./-])|\bnoon\b"
_LENGTH_UNITS: Final = {
    word: secs
    for secs, words in (
        (60, "m min mins minutes minute minuten minuti minutos minuter minutter minuty minut"),
        (3600, "h hr hrs hour hours heure heures std stdn stunde stunden hora horas ora ore uur uren tim timmar timer godz godziny godzin"),
        (86_400, "day days tag tage jour jours dia dias giorno giorni dag dagen dagar dage dzien dni"),
        (604_800, "week weeks wks wochen semaines semanas settimane weken veckor uger uker tygodnie"),
    )
    for word in words.split()
}  # fmt: skip
"""Seconds of the words, folded, that say in what a length is counted."""
_LENGTH: Final = r"length|duration|lasts|run(?:ning)? time|dauer|lange|duree|duracion|duur|lengte|durata|duracao|langd|varighe[dt]|czas trwania|kesto"
_LENGTH_IN: Final = rf"({_LENGTH})(?: (?:in|en|em|i|w))? (\w+)"
"""A heading of a length with its unit in words, `Length in minutes`."""
_LENGTHS: Final = ("length ", "duration ", "lasts ", "run ", "running ", "dauer ", "lange ", "duree ", "duracion ", "duur ", "lengte ", "durata ",
                   "duracao ", "langd ", "varighe", "czas trw", "kesto ")  # fmt: skip
"""How such headings begin."""
_COUNT: Final = r"(?:(?:no of|number of|nr of|how many|anzahl|nombre de|nombre d|nb de|numero de|numero di|numero|n[o.]? de|n o de|aantal|antal|liczba) )?"
_BARE_LENGTH: Final = rf"{_COUNT}(\w+)"
_NO_BARE_LENGTHS: Final = frozenset(
    "m h day tag jour dia giorno dag dzien hour heure hora horas ora ore std uur tim timer tid godz week".split()
)
"""Units that are the heading of something else where they stand alone."""
_PLACEHOLDER = r"(?:column|col|field|spalte|colonne|columna|kolom|unnamed|f|c)?\s*:?\s*\d*|[a-z]"


@lru_cache(maxsize=1)
def spellings() -> dict[str, HeadingMatch]:
    """Every known spelling, normalised, and what it names."""
    table: dict[str, HeadingMatch] = {}
    path = Path(__file__).parents[1] / "data" / "headings.txt"
    for line in path.read_text("utf-8").splitlines():
        field, colon, words = line.partition(":")
        if colon and not line.startswith("#"):
            strong, weak = HeadingMatch(field), HeadingMatch(field, is_weak=True)
            for word in words.strip().split(", "):
                if word.startswith("~"):
                    table.setdefault(word[1:], weak)
                else:
                    table.setdefault(word, strong)
    for field in FIELDS:
        table.setdefault(field.replace("-", " "), HeadingMatch(field))
    return table


@lru_cache(maxsize=1)
def _vocabulary() -> frozenset[str]:
    """Every word of the known spellings."""
    return frozenset(word for spelling in spellings() for word in spelling.split())


@lru_cache(maxsize=2048)  # the headings are compared with every row that is no event
def normal(heading: str) -> str:
    """A heading as spellings are compared: folded, brackets and signs gone, single spaces.

    >>> normal("Start_Date (dd/mm/yyyy) *")
    'start date'
    """
    if len(heading) > LONGEST_CELL:
        return ""  # no heading that is known
    text = re.sub(r"(?<=[a-zà-ÿ])(?=[A-Z])", " ", heading)  # StartDate
    text = re.sub(r"(?<=\w)['’]s\b", "s", text)  # What's on
    text = fold(re.sub(_BRACKETS, " ", text)) or fold(text)
    return " ".join(re.sub(r"[^\w]|_", " ", text).split())


_SHORT: Final[Mapping[str, str]] = MappingProxyType(
    {
        "crse": "course", "crs": "course", "cls": "class", "subj": "subject", "sec": "section", "sect": "section", "instr": "instructor",
        "inst": "instructor", "tchr": "teacher", "rm": "room", "bldg": "building", "loc": "location", "beg": "begin", "strt": "start", "fin": "finish",
        "tm": "time", "dt": "date", "wkday": "weekday", "wkdays": "weekdays", "mtg": "meeting", "desc": "description", "ttl": "title", "num": "number",
        "nbr": "number", "cd": "code", "dept": "department", "sched": "schedule", "prd": "period", "sem": "semester", "dur": "duration", "grp": "group",
    }
)  # fmt: skip
"""Words as exports shorten them in their headings."""


def in_full(heading: str) -> str:
    """A heading with its shortened words written out.

    >>> in_full("crse title")
    'course title'
    """
    words = normal(heading).split()
    return (
        " ".join(_SHORT.get(word, word) for word in words) if not _SHORT.keys().isdisjoint(words) else heading
    )


_NO_SLIPS: Final = frozenset(("material", "materials", "terminal", "contract", "contracts", "book by"))
"""Words that are nearly a heading of another language, or of another form, and mean something else."""


def match_heading(heading: str) -> HeadingMatch | None:
    """The field that a heading names, or nearly names, or None."""
    exact = match_exactly(heading)
    plain = normal(heading)
    if exact is None and (long := in_full(heading)) != heading:
        return match_exactly(long)
    if exact is not None or len(plain) < 5 or plain in _NO_SLIPS:
        return exact
    table = spellings()
    # a slip of the finger leaves the length and most letters as they were: few candidates to compare
    known = [one for one in table if abs(len(one) - len(plain)) <= 2 and len(one) >= 5 and one[0] == plain[0]]
    import difflib

    # “time of event” is no slip for “title of event”: a word that is known is meant as it stands
    words = set(plain.split()) & _vocabulary()
    slips = [one for one in known if words <= set(one.split()) and _begin_alike(plain, one)]
    close = difflib.get_close_matches(plain, slips, n=3, cutoff=0.87)
    close = [one for one in close if table[one].field in _WORDS_ONLY or _is_slip(plain, one)]
    fields = {table[one].field for one in close}
    if len(fields) == 1:
        return HeadingMatch(table[close[0]].field, table[close[0]].is_weak, close[0])
    return None


_WORDS_ONLY: Final = frozenset(
    (
        *("summary", "location", "description", "categories", "audience", "organizer", "attendees", "url", "conference"),
        *("class", "teacher", "room", "group", "division", "term", "person", "optional-attendees", "more-categories"),
    )
)  # fmt: skip
"""Fields that move no date: what is nearly one of their headings may be of another language or form."""
_SHORTEST_SLIP: Final = 4


def _is_slip(plain: str, known: str) -> bool:
    """Whether a heading differs from a known one as slips of the finger do, and as other words seldom do: two letters in the wrong
    order, one left out or typed twice. A `Backup date`, a `List date` are no slips.

    >>> [_is_slip(one, "last date") for one in ("lsat date", "last dte", "lasst date", "list date", "late date")]
    [True, True, True, False, False]
    """
    mine, theirs = plain.split(), known.split()
    return len(mine) == len(theirs) and all(
        one == other or _slipped(one, other) for one, other in zip(mine, theirs, strict=True)
    )


def _slipped(word: str, known: str) -> bool:
    if len(word) == len(known):
        differ = [n for n, (one, other) in enumerate(zip(word, known, strict=True)) if one != other]
        return len(differ) == 2 and differ[1] == differ[0] + 1 and sorted(word) == sorted(known)
    longer, shorter = (word, known) if len(word) > len(known) else (known, word)
    without = [n for n in range(len(longer)) if longer[:n] + longer[n + 1 :] == shorter]
    if not without:
        return False
    is_inner = 0 < without[0] < len(longer) - 1
    is_twice = any(longer[n] in longer[max(0, n - 1) : n] + longer[n + 1 : n + 2] for n in without)
    return is_twice if longer is word else is_inner and len(known) >= _SHORTEST_SLIP


def _begin_alike(one: str, other: str) -> bool:
    """Whether two headings of as many words have the same first letters: “day rate” is no slip for “day date”."""
    mine, theirs = one.split(), other.split()
    return len(mine) != len(theirs) or all(a[0] == b[0] for a, b in zip(mine, theirs, strict=True))


def match_exactly(heading: str) -> HeadingMatch | None:
    """The field that a heading names by a known spelling. One in two languages may name it in either."""
    table = spellings()
    plain = normal(heading)
    if not plain:
        return None
    return next((table[form] for form in _forms(heading, plain) if form in table), None)


_SHORTEST_PLURAL: Final = 3


def _forms(heading: str, plain: str) -> Iterator[str]:
    """A heading as it stands, without a number or an opening article, and each part of "Date / Fecha"."""
    yield plain
    numbered = (
        plain if re.search(r"\d[./]\d", heading) else re.sub(r"\s*\d+$", "", plain)
    )  # no date, w/c 24.5.27
    yield re.sub(r"^(?:the|event|evt|your)\s+", "", plain) if numbered == plain else numbered
    yield re.sub(r"\s*(?:19|20)\d\d(?: ?(?:19|20)?\d\d)?$", "", plain)
    yield (
        plain.removesuffix("s") if len(plain) > _SHORTEST_PLURAL else plain
    )  # WBS is no WB, the beginning of a week
    yield plain.replace(" ", "")
    if (
        plain.startswith(_LENGTHS)
        and (said := re.fullmatch(_LENGTH_IN, plain)) is not None
        and said[2] in _LENGTH_UNITS
    ):
        yield said[1]
    if re.search(r"[a-z][A-Z]", heading):
        yield normal(re.sub(r"(?<=[a-z])(?=[A-Z])", " ", heading))  # RoomName, of an export
    if heading.rstrip(" *").endswith("?") or plain.startswith("please "):
        from nomarium.reading.columns.questions import answered  # few headings ask

        yield from answered(plain)
    lines = [normal(line) for line in heading.split("\n")]
    named = {match.field if (match := spellings().get(line)) else "" for line in lines}
    if len(lines) > 1 and len(named) == 1:
        yield lines[0]  # in two languages, but no `Last` over `updated`
    parts = [normal(part) for part in re.split(r"\s*[/|]\s*|\s+-\s+", heading)]
    if len(parts) > 1 and len({spellings()[p].field for p in parts if p in spellings()}) == 1:
        yield from (part for part in parts if len(part) > 1)  # not the “H/A” of home and away


_ORDERS: Mapping[str, Order] = MappingProxyType({"dmy": "dmy", "mdy": "mdy", "ymd": "ymd"})


def unit_of(heading: str) -> HeadingUnit:
    """The unit that a heading gives.

    >>> unit_of("Date (dd/mm/yyyy)").date_order, unit_of("Length (min)").length_secs
    ('dmy', 60)
    """
    if len(heading) > LONGEST_CELL:
        return NO_UNIT
    order: Order = ""
    length = None
    within = re.findall(_BRACKETS, heading)
    candidates = within or [heading]
    for text in candidates:
        plain = fold(text).strip()
        may_be_form = not plain.isalpha() or set(plain) <= set("djtmya")  # most headings are words
        if may_be_form and re.fullmatch(r"[djtmya]{1,4}(?:[/.\- ]?[djtmya]{1,4}){2}.*", plain):
            shape = re.sub(r"(.)\1+", r"\1", _in_english(re.sub(r"[^djtmya]", "", plain)))
            order = _ORDERS.get(shape, order)
        length = _LENGTH_UNITS.get(plain.removeprefix("in ").strip(), length)
    bare = normal(heading)
    if bare.startswith(_LENGTHS) and (said := re.fullmatch(_LENGTH_IN, bare)) is not None:
        length = _LENGTH_UNITS.get(said[2], length)
    if (said := re.fullmatch(_BARE_LENGTH, bare)) is not None and (
        bare != said[1] or bare not in _NO_BARE_LENGTHS
    ):
        length = _LENGTH_UNITS.get(said[1], length)
    words = set(re.sub(r"[^a-z ]", "", fold(heading)).split())
    halves = [half for half in ("am", "pm") if half in words]
    half = halves[0] if len(halves) == 1 and heading.strip() != "Am" else ""  # *time* in Irish
    return HeadingUnit(
        order, length, half, bool(words & {"utc", "gmt"}), _week_of(bare, within), _times_in(heading)
    )


def _week_of(bare: str, within: Sequence[str]) -> Literal["", "begins", "ends"]:
    """Whether the dates under a heading begin weeks, or end them, as it says itself or in brackets."""
    return heads_weeks(bare) or next(filter(None, (heads_weeks(normal(text)) for text in within)), "")


def _times_in(heading: str) -> Times | None:
    """The time that a heading says beside its word, in brackets or after it."""
    if not any(map(str.isdigit, heading)) and "noon" not in heading:
        return None
    match = re.search(_TIME_IN_HEADING, heading)
    times = read_times(match[0].strip()) if match else None
    return times if isinstance(times, Times) and times.start else None


def _in_english(letters: str) -> str:
    """The letters of a date's form as d, m and y: German has T and J for them, French J and A."""
    if "t" in letters:
        return letters.replace("t", "d").replace("j", "y")
    return letters.replace("j", "d").replace("a", "y")


def is_placeholder(heading: str) -> bool:
    """Whether a heading says nothing: blank, `Column1`, `Unnamed: 3`, a letter."""
    return re.fullmatch(_PLACEHOLDER, fold(heading).strip()) is not None


def near_field(text: str) -> str | None:
    """The field that a person may have meant on the command line."""
    match = match_heading(text)
    if match and match.field in FIELDS:
        return match.field
    return nearest(fold(text), FIELDS) or None


SESSION_HEADINGS: Final = frozenset(
    ("session", "sessions", "sitting", "slot", "part", "half day", "shift", "period")
)
"""Headings of what part of the day a row is held in: a name of it, or its times."""


def heads_times(heading: str) -> bool:
    """Whether a heading is that of times, `Time` or `Start`."""
    match = match_exactly(heading)
    return match is not None and match.field in ("time", "start")
