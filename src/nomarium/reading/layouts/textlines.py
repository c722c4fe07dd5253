"""One line of text: its date, its time, and what else it says; and the row of a list that it comes to."""

import re
from collections.abc import Iterator, Sequence
from typing import Final, NamedTuple

from nomarium.reading.cells.bookkeeping import keeps_books
from nomarium.reading.cells.spokentimes import in_clocks
from nomarium.reading.cells.times import in_figures
from nomarium.reading.cells.weekdaypairs import with_both_weekdays, with_days_apart
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.layouts.lineforms import clocked, with_day_in_figures, with_month_behind
from nomarium.reading.layouts.linerepeats import (
    WEEKLY,
    repeat_in,
    weekly_from,
    without_plural,
    without_starting,
)
from nomarium.reading.layouts.linetimes import (
    ARRIVAL,
    EDGES,
    LEADING,
    are_counted,
    end_in,
    reads_as_time,
    time_in,
    with_clock_in_column,
)
from nomarium.reading.layouts.proseforms import HERALD
from nomarium.reading.rows.datewithin import (
    LEADING_WORDS,
    DateWithin,
    date_within,
    names_several,
    with_days_before,
)

BULLET: Final = re.compile(
    r"^\s*(?:#{1,6}\s+|(?:[-*+]\s+)?\[[ xX]?\]\s+|[-*•–+·▪»›]\s+|\d{1,2}[)]\s+|(?:[\u2190-\u21ff\u2300-\u27bf\u2b00-\u2bff\U0001f300-\U0001faff]\ufe0f?\s*)+)"
)
"""What begins a line of a list: a sign, a number, a picture."""
HEADING: Final = re.compile(r"^\s*#{1,6}\s+")
MARKS: Final = re.compile(r"\*\*|__|`|(?<!\w)[*_](?=\S)|(?<=\S)[*_](?!\w)")
_LATE: Final = r"(?:late|close|closing|dusk|dark|sunset)\b"
_TILL_LATE: Final = (
    r"(?i)(?<![\d.:/-])(\d{1,2}(?:[:.h]\d\d)?(?:\s?[ap]\.?m\.?)?)\s*"
    rf"(?:(?:to|till?|until)\s*{_LATE}|[–—-]\s*{_LATE}(?=\s*(?:[,;:.()|–—-]|$)|\s+(?:in|at|on|with|for)\b))"
    r"(?P<ends>(?=\s*(?:[,;:.()|–—-]|$)))?"
)
"""Behind a dash other words may go on, `12:30 – Closing words`."""
_WEEK_OF: Final = r"(?i)\bweek\s+(?:of|commencing|beginning|starting)\s+(?=\d|[A-Z]\w*\.?,?\s+(?:\w+\.?,?\s+){0,3}\d{1,2}(?:st|nd|rd|th)?\b)"
_WEEK_RANGE: Final = re.compile(
    r"(?i)^(?:the\s+)?(?:week|woche|semaine|semana|settimana)\s*:?\s+(?=(?:[^\W\d_]{2,9}\.?,?\s+)?\d{1,2}(?:st|nd|rd|th|\.)?(?:\s+[^\W\d_]{3,9}\.?)?\s*(?:[–—-]|to\b|bis\b|au\b)\s*(?:[^\W\d_]{2,9}\.?,?\s+)?\d{1,2}(?:st|nd|rd|th|\.)?\s+[^\W\d_]{3})"
)
"""Before the first and last day of a week, `Week 16-20 November`."""
_AT_LATEST: Final = re.compile(
    r"(?i)[\s,(]*\b(?:at the (?:very )?latest|spätestens|au plus tard|a más tardar|uiterlijk)\b\)?"
)
_LATEST: Final = ("latest", "spätestens", "plus tard", "tardar", "uiterlijk")
"""What such a line has in it."""
_BY_DAY: Final = re.compile(
    r"(?i)(?P<what>[^\W\d_][^()]*?)\s*\((?:due\s+)?by\s+(?P<day>[^()]*(?:\d{1,2}(?:st|nd|rd|th)?\s+[^\W\d_]{3,}|[^\W\d_]{3,}\.?\s+\d{1,2}\b|\d{1,2}[./]\d{1,2})[^()]*)\)"
)
_WEEK_TO: Final = r"(?i)\b(?:week|wk)\.?\s+(?:ending|ends)\s+(?=\d|[A-Z])"
_BRACKETS: Final = str.maketrans("[]{}", "()()")
_COUNTED_DAY: Final = re.compile(
    r"(?i)(?:day|tag|jour|d[ií]a|giorno|dag)\s+\d{1,2}\s*[:,(–—-]\s*(?P<weekday>[^\W\d_]{2,10})\.?(?=\s*(?:[:,)–—-]|\d|$))"
)
"""The number of a day before its weekday, `Day 1 – Wednesday`."""
_NUMBERED: Final = re.compile(r"^\d{1,2}\.\s+(?!(?:bis|til|till|au|al|[–—-])\s*\d)(\S+)")
_COLUMNS: Final = r"\s*(?:\.\s?){4,}\s*|\s*…{2,}\s*|(?:(?<![.!?:;,])\s{2,}|\s*\t\s*|\s{3,})(?=\S)"
"""What parts the columns of a line: a tab, spaces, or a row of dots."""
LEADS: Final = r"(?i)[\s,:]+(?:by|on|from|at|until|the|inclusive|incl\.?|bis|ab|am|vom|von|van|fra|från|dal|del|du|jusqu['’]au|hasta|tot|op|entro)$"
"""Words that lead to a date, where it stood."""
_FIGURES: Final = re.compile(
    r"(?i)(?:(?:from|at|um|ab|to|until|till|by|before|after)\s+)?\d{1,2}\.\d{1,2}(?:\s?[a-z]{1,2})?(?:\s*(?:[-–—]|to|until|till|bis)\s*\d{1,2}\.\d{1,2})?"
)
"""Figures with a dot, that are a date only where a line begins with them: `from 9.15`, `3.9m`."""
_LEAST_WORDS: Final = 7
"""Words from which on a line that ends as a sentence does is one."""
_VERB: Final = r"(?i)\b(?:will (?:be|take)|takes? place|is to be)\b"
"""What an entry of a list does without."""
_ENTRY: Final = r"\s*(?:[–—:,|-]\s*)?(?!(?:is|are|was|were|will|has|to|and|or|on|in|at|sharp)\b)[^\W\d_a-z]"
"""What follows the time with which an entry of a programme begins."""
ALL_DAY: Final = re.compile(
    r"(?i)(all[ -]day|whole day|full day|ganztägig|ganztags|(?:toute )?la journée|todo el día|(?:de )?hele dag|dia (?:inteiro|todo)|tutto il giorno|cały dzień|hela dagen|heldag|終日|全天)(?![a-zà-ÿ])[\s,:–—-]*"
)
DAILY: Final = r"(?i)(?<![^\W\d_])(?:daily|each day|every day|täglich|jeden tag|tous les jours|chaque jour|a diario|todos los días|ogni giorno|dagelijks)(?![^\W\d_])"
_INCLUSIVE: Final = r"(?i)[\s,;]*(?:\((?:both )?(?:inclusive|inclus(?:ifs?)?|incl\.?|inkl\.?|einschließlich|inclusief|compris)\)|(?:(?<=[\s,;])|^)(?:both )?(?:inclusive|inclus(?:ifs?)?|incl\.?|inkl\.?|einschließlich|inclusief|compris))(?=[\s.,;:–—-]|$)"
"""Beside a first and a last day: an end date is its last day."""
_WEEKDAY_BEHIND: Final = re.compile(
    r"\s*\|?\s*(?:\((?P<name>[^\W\d_]{2,10})\.?\)|(?P<plain>[^\W\d_]{2,10})\.?\s*\|)\s*"
)
"""A weekday behind its date, in brackets or in a column of its own."""
_YEAR_AND_COLON: Final = r"(?<=[^\W\d]\s(?:2[5-9]|[3-9]\d)):(?=\s+[^\W\d])"
"""The colon right behind a year of two figures, `12 Sep 26: Fair`: no hour is so late."""
_ALIGNED: Final = re.compile(r"(?P<month>[^\W\d_]{3,9}\.?)\s{2,}(?=\d\s)")
"""A month and a day of one figure that stands below those of two, `Oct  1`: no columns of their own."""


class TextLine(NamedTuple):
    number: int
    text: str
    date: str
    """The date as it is written; nothing where it has none."""
    time: str
    rest: str
    """What else it says."""
    is_bullet: bool
    has_time: bool = False
    """Whether its date has a time with it."""
    repeat: str = ""
    """`every Monday for 8 weeks`, where its date says when that begins, and it or the count when it ends."""
    without: str = ""
    """The days on which what repeats is not held."""
    indent: int = 0
    """Blanks before it."""
    parted: str = ""
    """Its text with a sign between its columns, which a tab or several spaces part."""


def _all_day_in(rest: str) -> tuple[str, str] | None:
    """`all day` and the rest of a line that says so beside a time in brackets, `Festival, all day (bus leaves 6:45)`."""
    whole = ALL_DAY.search(rest)
    time = time_in(rest)[0] if whole is not None else ""
    is_span = re.search(r"\d\s?[-–—]\s?\d", time) is not None  # (leave 8.15, back 16.00)
    if whole is None or not time or is_span or time_in(re.sub(r"\([^()]*\)", "", rest))[0]:
        return None
    before = rest[: whole.start()].rstrip(" ,:–—-")
    return "all day", f"{before} {rest[whole.end() :]}".strip()


def is_sentence(line: TextLine) -> bool:
    """Whether a line is prose, and no entry of a list: `Next meeting: Tuesday 20 October, 7pm.` is one."""
    if line.is_bullet or not line.text.rstrip().endswith((".", "!", "?")):
        return False
    if (
        line.date
        and re.match(r"\s*[–—:-]", line.text.removeprefix(line.date))
        and line.text.startswith(line.date)
    ):
        return False  # Sat 3 Oct – Boat jumble, Main slip. All welcome.
    if re.search(r"\b[ap]\.m\.$", line.text.rstrip()) and not re.search(_VERB, line.text):
        return False
    if line.time and not line.date and re.match(f"{re.escape(line.time)}{_ENTRY}", line.text):
        return False  # 10.00 Panel: wood or steel?
    label = re.match(r"[^:.!?]{3,50}:\s+", line.text)
    if (
        label is not None
        and not re.search(r"(?i)\b(?:has|have|is|are|will|was|were)\b", label[0])
        and line.date
        and line.text[label.end() :].startswith(line.date)
    ):
        return False
    return len(line.text.split()) >= (_LEAST_WORDS if line.date else _LEAST_WORDS - 2)


def paragraphs_of(lines: Sequence[tuple[int, str]]) -> Iterator[list[tuple[int, str]]]:
    current: list[tuple[int, str]] = []
    for number, text in lines:
        if current and HEADING.match(text):
            yield current
            current = []
        if text.strip():
            current.append((number, text))
        elif current:
            yield current
            current = []
    if current:
        yield current


def text_line(number: int, text: str, lexicon: Lexicon) -> TextLine:
    bare, is_bullet = _without_mark(text, lexicon)
    aligned = _ALIGNED.match(bare)
    if aligned is not None and fold(aligned["month"]).strip(".") in lexicon.months:
        bare = f"{aligned['month']} {bare[aligned.end() :]}"
    parted = " ".join(re.sub(_COLUMNS, " | ", bare).split())
    line = _text_line(number, " ".join(bare.split()), parted, is_bullet, lexicon)
    return _with_its_end(line)._replace(parted=parted)


def _with_its_end(line: TextLine) -> TextLine:
    """A line that says behind its title when what has begun at its time ends, with both as its time: `14.00 Interviews (until 16.30)`."""
    end, rest = end_in(line.rest) if line.time or line.has_time else ("", "")
    time, date = (line.time, line.date) if not line.has_time else time_in(line.date)
    if not end or not time or re.search(r"[-–—]|\b(?:to|until|till?|bis|for)\b|all day", time):
        return line
    return line._replace(date=date, time=f"{time}-{end}", rest=rest, has_time=False)


_HERALDS: Final = re.compile(
    rf"(?i)\W*(?:{HERALD}|reminder|advance notice)\W+(?=[^\W\d_]{{0,9}}\.?,?\s?\d.*[^\W\d_]{{4}})"
)
"""What stands before a date and says that it comes: no title of what is on then."""


def _text_line(number: int, shown: str, parted: str, is_bullet: bool, lexicon: Lexicon) -> TextLine:
    plain = re.sub(_YEAR_AND_COLON, " :", clocked(_with_spaces(parted.translate(_BRACKETS)), lexicon))
    plain = with_month_behind(with_days_apart(with_both_weekdays(plain, lexicon), lexicon), lexicon)
    if (led := re.match(r"([^\W\d_]{2,10})\.?\s*[-–—:]\s*(?=\d)", plain)) and fold(
        led[1]
    ) in lexicon.weekdays:
        plain = f"{led[1]} {plain[led.end() :]}"  # Wed - 18 Nov - Trip
    if (heralded := _HERALDS.match(plain)) is not None:
        plain = plain[heralded.end() :]
    first, sign, behind = plain.partition(" | ")
    if sign and fold(first).strip(".,") in lexicon.weekdays:
        plain = f"{first} {behind}"  # a column of weekdays beside that of the dates
    leading = ARRIVAL.match(plain) or LEADING.match(plain)
    if (
        leading
        and reads_as_time(leading[1])
        and not _is_of_month(leading, lexicon)
        and not are_counted("", leading[1], plain[leading.end() :])
    ):  # 10.00 Welcome
        rest = plain[leading.end() :].strip(EDGES)
        found = _date_in(rest, lexicon)
        if found is None or found.moment.start is not None or not _is_clear(found.text, lexicon):
            return TextLine(number, shown, "", leading[1], rest, is_bullet)
        date, before, after = with_days_before(found, lexicon)  # 10.00 Sat 12 September: Trials
        return TextLine(number, shown, date, leading[1], _around(rest, before, after).strip(EDGES), is_bullet)
    plain = without_plural(plain)
    days = WEEKLY.search(plain)
    searched = (
        plain if days is None else f"{plain[: days.start()].rstrip(' ,')}, {plain[days.end() :].lstrip(' ,')}"
    )
    found = _date_in(searched, lexicon)
    if found is None:
        time, rest = time_in(plain)
        if not time and (whole := ALL_DAY.match(plain)) is not None:
            time, rest = "all day", plain[whole.end() :]
        return TextLine(number, shown, "", time, rest.strip(" |"), is_bullet)
    date, before, after = with_days_before(found, lexicon)
    rest = _around(searched, before, after)
    beside = _WEEKDAY_BEHIND.match(after)
    if beside is not None and fold(named := beside["name"] or beside["plain"]) in lexicon.weekdays:
        date, rest = f"{named} {date}", _around(searched, before, after[beside.end() :])
    rest = with_clock_in_column(rest, date)
    has_time, has_last = found.moment.start is not None, found.moment.last is not None
    time, rest = (
        ("", re.sub(r"^h\b\.?\s*", "", rest)) if has_time else _all_day_in(rest) or time_in(rest)
    )  # 9:00 h.
    if (whole := ALL_DAY.match(rest)) is not None and not time:
        time, rest = "all day", rest[whole.end() :]  # All day Saturday 24 October
    if has_time and (has_last or names_several(found, lexicon)):  # 26 to 30 Oct, 9am - 3pm: times of each day
        own, dates = time_in(date)
        if re.search(r"[-–—]|\bto\b|\buntil\b", own) and not time_in(dates)[0]:
            date, time, has_time = dates, own, False
    rest = re.sub(_INCLUSIVE, "", rest) if has_last else rest
    if has_last or names_several(found, lexicon):
        rest = re.sub(DAILY, "", rest)
    date, rest, repeat, without = repeat_in(days, date, rest, has_last)
    if not (repeat or has_last) and (has_time or time not in ("", "all day")):
        repeat, rest = weekly_from(date, rest)
    rest = without_starting(rest) if repeat else rest
    return TextLine(number, shown, date, time, rest.strip(EDGES), is_bullet, has_time, repeat, without)


def _with_spaces(text: str) -> str:
    """A text whose commas all stand between words without a space, `7 Dec 2026,6pm,Board`, with one behind each; those between
    figures stay."""
    return text if ", " in text else re.sub(r",(?=[^\W\d_])|(?:(?<=[^\W\d_])|(?<=\d{4})),(?=\d)", ", ", text)


def _without_mark(text: str, lexicon: Lexicon) -> tuple[str, bool]:
    """A line without the mark or the number of a list, and whether it had one. `8. September` has none."""
    is_bullet = BULLET.match(text) is not None and HEADING.match(text) is None
    bare = MARKS.sub("", BULLET.sub("", text)).strip()
    if "w" in bare or "W" in bare:
        bare = _with_week_behind(re.sub(_WEEK_OF, "w/c ", re.sub(_WEEK_TO, "w/e ", bare)))
    bare = with_day_in_figures(in_figures(in_clocks(bare)))
    bare = _with_deadline_first(re.sub(_TILL_LATE, _open_end, bare))
    counted = _COUNTED_DAY.match(bare)
    if counted is not None and fold(counted["weekday"]) in lexicon.weekdays:
        bare = bare[counted.start("weekday") :]  # Day 1 – Wednesday
    numbered = _NUMBERED.match(bare)
    if numbered is not None and fold(numbered[1]).strip(".,:;–-") not in lexicon.months:
        return bare[numbered.start(1) :], True
    return bare, is_bullet


def _open_end(match: re.Match[str]) -> str:
    """A time that lasts till late, as one whose end nothing says; among other words without it."""
    time = f"{match[1]}:00" if match[1].isdigit() else match[1]
    return time if match["ends"] is None else f"{time} till"


def _with_deadline_first(text: str) -> str:
    """A line that says by when, `Oak (by 4 December)`, `Tar: 15 January at the latest`, with a word for that first."""
    late = _AT_LATEST.search(text) if any(word in text for word in _LATEST) else None
    if late is not None:
        return f"Deadline: {text[: late.start()]}{text[late.end() :]}"
    by = _BY_DAY.match(text) if ")" in text and "by " in text else None
    behind = text[by.end() :].strip(" :–—-") if by is not None else ""
    if by is None or (behind and text[by.end()] not in ":–—- "):
        return text
    return f"Deadline: {by['what']}{f' ({behind})' if behind else ''}: {by['day']}"


def _with_week_behind(text: str) -> str:
    """`Week 16-20 November: Trials` without its first word, which stands behind where nothing else does."""
    week = _WEEK_RANGE.match(text)
    if week is None:
        return text
    days = text[week.end() :]
    return (
        f"{days.rstrip(' :')} – week"
        if re.search(r"\d(?:st|nd|rd|th|\.)?\s+[^\W\d_]{3,9}\.?(?:,?\s+\d{4})?\s*:?\s*$", days)
        else days
    )


def _date_in(plain: str, lexicon: Lexicon) -> DateWithin | None:
    """The date among the words of a line; `12.5 km` is none."""
    if not any(map(str.isdigit, plain)) or keeps_books(plain):
        return None
    found = date_within(f"{plain} ·", lexicon)
    is_figure = found is not None and _FIGURES.fullmatch(found.text) is not None
    return None if found is None or (is_figure and not plain.startswith(found.text)) else found


def _around(plain: str, before: str, after: str) -> str:
    """What a line says beside its date. Words that follow right after a label and the date go on with the label, `Round 1:
    12 September Heron v Tern`; behind a comma they are another piece."""
    follows = plain[: plain.rfind(after.strip())] if re.match(r"\s*\w", after) else ","
    is_whole = re.match(r"\s*[.!]\s+[A-Z]", after) is not None or (
        re.search(r"[.!]\s*$", follows) is not None and re.match(r"\s+[A-Z]\w*\s+[a-z]", after) is not None
    )
    is_label = before.rstrip().endswith(":") and re.search(r"[,;|–—-]\s*$", follows) is None and not is_whole
    first = re.sub(LEADS, "", _unopened(before.strip(EDGES)))
    if first.count("(") > first.count(")") and after.count(")") <= after.count("("):
        first = f"{first})"  # Budget (deadline 31 January)
    is_lead = fold(first) in LEADING_WORDS and not before.rstrip().endswith(":")
    pieces = ("" if is_lead else first, after.strip(EDGES))
    is_column = before.rstrip().endswith("|") or after.lstrip().startswith("|")
    joint = (
        ". "
        if is_whole
        else ": "
        if is_label
        else " | "
        if is_column
        else " "
        if pieces[1].startswith("(")
        else ", "
    )
    return joint.join(part for part in pieces if part)


def _unopened(text: str) -> str:
    """A text without the bracket that the date behind it stood in."""
    while text.count("(") > text.count(")") and text.endswith("("):
        text = text[:-1].rstrip(EDGES)
    return text.lstrip(")") if text.count(")") > text.count("(") else text


def _is_of_month(leading: re.Match[str], lexicon: Lexicon) -> bool:
    """Whether what looks like a time is days of a month: `19–23 Oct`."""
    after = leading.string[leading.end() :].split()
    are_days = re.fullmatch(r"\d{1,2}(?:\s?[-–—]\s?\d{1,2})?", leading[1]) is not None
    return are_days and bool(after) and fold(after[0]).strip(".,:;") in lexicon.months


def _is_clear(date: str, lexicon: Lexicon) -> bool:
    """Whether a date has more than figures of a day and a month, which could count something."""
    words = [fold(word).strip(".,") for word in date.split()]
    return (
        any(word in lexicon.months or word in lexicon.weekdays for word in words)
        or re.search(r"\d{4}", date) is not None
    )


def is_named(date: str, lexicon: Lexicon) -> bool:
    """Whether a date has the name of a month."""
    return any(fold(word).strip(".,") in lexicon.months for word in date.split())
