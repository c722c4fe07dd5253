"""The times that stand in the cells of drawings, and what is left of each line without its own."""

import re
from typing import NamedTuple

from nomarium.reading.cells.lengths import without_length
from nomarium.reading.cells.placewords import is_place
from nomarium.reading.cells.times import Times, read_times
from nomarium.reading.cells.verses import is_verse
from nomarium.reading.cells.words import ENGLISH, fold
from nomarium.reading.rows.datewithin import COUNTED
from nomarium.reading.rows.when import NOTHING, Part

_TIME_FIRST = re.compile(
    r"^(?P<time>\d[\d:.h]*\s?(?:[ap]\.?m\.?)?(?:\s?[-–—]\s?\d[\d:.h]*\s?(?:[ap]\.?m\.?)?)?|noon|midnight)(?:\s+|:\s+|\s*[-–—]\s+)(?P<text>\D.*)$",
    re.IGNORECASE | re.DOTALL,
)
_TIME_THEN_FIGURE = re.compile(
    r"^(?P<time>\d[\d:.h]*\s?(?:[ap]\.?m\.?)?(?:\s?[-–—]\s?\d[\d:.h]*\s?(?:[ap]\.?m\.?)?)?|noon|midnight):?\s+(?P<text>\d{1,3}(?:[^\W\d_]|\s[^\W\d_]{3}).*)$",
    re.IGNORECASE | re.DOTALL,
)
"""A clear time before a title that begins with a figure, `9am 1st XI`, `15:30 4x4 relay`."""
_CLOCK = r"(?:\d{1,2}(?:[:.h]\d{2})?\s?(?:[ap]\.?m\b\.?)?|noon|midday|midnight)"
_TIME_LAST = re.compile(
    rf"^(?P<text>.*?[^\s,(–—-])[\s,(–—-]+(?:(?P<lead>from|at|um|@)\s*|(?:von|à|de)\s+)?(?P<time>{_CLOCK}(?:\s?(?:[-–—]|to|till?|until|bis|à)\s?{_CLOCK})?)\)?$",
    re.IGNORECASE | re.DOTALL,
)
_ARRIVAL = r"(?i)\s(?P<time>\d[\d.:]*\s?(?:[ap]\.?m\.?)?)\s+for$"
_LONGEST_TITLE = 200
"""Characters of an entry among whose words a time is looked for: a longer one is prose."""
_MARKS = ",;(–—-"
_HAS_WORD = re.compile(r"[^\W\d_]")
_GOES_ON = re.compile(
    r"(?i)(?:to|till?|until|for|or|and|then|not|instead|by|before|after|[ap]\.?m|bis|und|oder|et|ou|jusqu)\b"
)
"""How what stands behind a time begins that says more about it."""
_SHARP = re.compile(r"(?i)^(?:onwards?|sharp|prompt|start|o'clock|hrs?|uhr|uur)\b[\s,]*")
CLEAR_CLOCK = r"(?i)\d[:.h]\d\d|\d\s?[ap]\.?m\b"
"""A time that is no other number."""
_CLEAR = re.compile(rf"{CLEAR_CLOCK}|noon|midday|midnight")
_HOURS = r"(?:[1-9]|1[0-2])(?:\s?(?:[-–—]|to|till?|until|bis|à)\s?(?:[1-9]|1[0-2]))?"
_BARE_HOURS = r"(?<![\w.:/-])(?:[1-9]|1[0-2])\s?[-–—]\s?(?:[1-9]|1[0-2])(?![\w/.:-])"
_SCORED = r"(?i)\b(?:v|vs|beat|lost|won|score|results?|[wld])\b"
_COUNTED = COUNTED | frozenset(
    "pp pg race chapter exercise form group route yr age aged grade under klasse jahrgang stufe classe clase curso klas groep gruppe groupe".split()
)
NUMBERED = r"(?i)\b(?:rooms?|raum|salle|sala|versions?|sections?|chapters?|pages?|psalms?|exercises?|ex\.?|figure|fig\.|paragraph|para\.?|articles?|clauses?|verses?|§)$"
"""Words whose number has a dot, `Room 9.15`."""
_NOON, _SEVEN = 12 * 3600, 7 * 3600
_ENDS = re.compile(r"(?i)\b(?:until|till?|by|before|after|ends?|finish(?:es)?|bis|jusqu.à)$")
"""Words behind which a time is no start."""


def time_and_text(text: str) -> tuple[Part, str]:
    """An entry's time, at its beginning or its end, and the rest of it.

    >>> time_and_text("9:00 Assembly")[1], time_and_text("3 boats launched")[1]
    ('Assembly', '3 boats launched')
    """
    if text[-1:] == ")":
        bare, length = without_length(text)
        if length:  # Drawing 1 (1h30): no time of day
            time, title = time_and_text(bare)
            return time, f"{title}{length}"
    for match in (_TIME_FIRST.match(text), _TIME_THEN_FIGURE.match(text), _TIME_LAST.match(text)):
        if match is None or _ENDS.search(match["text"]):
            continue
        if match.re is _TIME_THEN_FIGURE and not _may_begin_so(match):
            continue
        times, title = read_times(match["time"]), match["text"].strip(" :")
        if isinstance(times, Times) and times.start is not None and _is_time(match, times):
            if (arrival := re.search(_ARRIVAL, title)) is not None:  # Dinner 7 for 7.30
                whole = read_times(f"{arrival['time']} for {match['time']}")
                times, title = (
                    (whole, title[: arrival.start()].rstrip()) if isinstance(whole, Times) else (times, title)
                )
            return _part(times), title
    return _time_within(text)


def _may_begin_so(match: re.Match[str]) -> bool:
    """Whether a time before a figure is clear, and what the figure begins is no other time and no day, `5 June`."""
    first, _, second = match["text"].partition(" ")
    is_day = first.isdigit() and fold(second.split(" ")[0]).strip(".,") in ENGLISH.months
    return _CLEAR.search(match["time"]) is not None and not (is_day or says_more_times(match["text"]))


def _time_within(text: str) -> tuple[Part, str]:
    """The one time that stands between the words of an entry, `Knots 9:00-11:00, Moss`, and the words without it; NOTHING where it
    may count something, or where more is said about when."""
    if len(text) > _LONGEST_TITLE or "\n" in text or not (_CLEAR.search(text) or says_more_times(text)):
        return NOTHING, text
    from nomarium.reading.layouts.linetimes import joined, time_among  # slow to compile, and seldom needed

    said, before, behind = time_among(text)
    times = read_times(said)
    lead, rest = text[len(before) :].lstrip(), behind.lstrip(f" ){_MARKS}")
    is_said = rest[:1].isalpha() or (not rest.strip(" .") and text.rstrip(" .")[-1:].isalpha())  # 18:00 Uhr
    if not (isinstance(times, Times) and times.start and _HAS_WORD.search(before) and is_said):
        return NOTHING, text
    is_apart = before.rstrip()[-1:] in _MARKS or behind.lstrip(" )")[:1] in _MARKS
    is_clear = _CLEAR.search(said) is not None
    if _GOES_ON.match(rest) or not (is_apart or is_clear or not lead[:1].isdigit()):
        return NOTHING, text
    is_of_date = before.rstrip().endswith("(") and not behind.lstrip().startswith(")")  # Camp (2-4 Sept)
    if not is_clear and (is_of_date or fold(rest.split()[0]).strip(".,;)") in ENGLISH.months):
        return NOTHING, text
    if not is_clear and not _are_hours(before.rstrip(f" {_MARKS}"), said, times):
        return NOTHING, text
    kept = _SHARP.sub("", rest, count=1)
    title = (
        joined(before, behind)
        if kept == rest and is_apart
        else " ".join(filter(None, (before.rstrip(" :"), kept)))
    )
    return (NOTHING, text) if says_more_times(title) else (_part(times), title)


def _part(times: Times) -> Part:
    return Part(start=times.start, end=times.end, notes=times.notes)


class CellLine(NamedTuple):
    """One event of a drawn cell."""

    title: str
    time: Part
    place: str
    text: str
    """Its line, or its lines, as they stand."""

    @property
    def says_several(self) -> bool:
        """Whether it says more than one time, and not which of them is its own."""
        return self.time is not NOTHING and says_more_times(self.title)


def says_more_times(title: str) -> bool:
    """Whether what is left of a text without its time says another one."""
    return re.search(CLEAR_CLOCK, title) is not None or any(
        not counts(title[: match.start()]) for match in re.finditer(_BARE_HOURS, title)
    )


def counts(before: str) -> bool:
    """Whether words end in one whose number is no hour, `Year 7-9`."""
    word = (fold(before).split() or [""])[-1].lstrip("([").rstrip(".:")
    return word in _COUNTED or word.removesuffix("s") in _COUNTED


def lines_of_cell(text: str) -> list[CellLine]:
    """The events of a drawn cell, one a line. A line that is a time and nothing else is that of the title above it, or, where
    that has one, of the title below; and the name of a place below such a time is its place.

    >>> [(one.title, one.place) for one in lines_of_cell("Regatta\\n10am–4pm\\nMain slip\\nSupper")]
    [('Regatta', 'Main slip'), ('Supper', '')]
    """
    bare = (part.strip(" \t•*-") or part.strip() for part in text.splitlines())
    lines = [line for part in bare for line in _each_timed(part) if line]
    found, waiting, may_have_place = list[CellLine](), NOTHING, False
    for line in lines:
        alone = time_alone(line) if len(lines) > 1 else NOTHING
        if alone is not NOTHING and found and found[-1].time is NOTHING and waiting is NOTHING:
            found[-1] = found[-1]._replace(time=alone, text=f"{found[-1].text} {line}")
            may_have_place = True
        elif alone is not NOTHING and waiting is NOTHING and line is not lines[-1]:
            waiting, may_have_place = alone, False
        elif may_have_place and is_place(line):
            found[-1] = found[-1]._replace(place=line)
            may_have_place = False
        else:
            time, title = time_and_text(line)
            if waiting is not NOTHING:  # a time above one that has its own leaves open which is which
                time, title = waiting, line
            found.append(CellLine(title, time, "", line))
            may_have_place, waiting = waiting is not NOTHING, NOTHING
    return found


def _each_timed(line: str) -> list[str]:
    """The parts of a line each of which has a title and a time of its own, `Assembly 9am, Chapel 10am`; else the line."""
    return timed_parts(line, r"[,;/]|\s&\s")


def timed_parts(line: str, between: str = r"[,;/\n]|\s&\s") -> list[str]:
    """The parts of a text, each of which has a title and a time of its own; else the text."""
    parts = [part.strip() for part in re.split(between, line)]
    if len(parts) < 2 or not all(part and part[-1:] != "(" for part in parts):
        return [line]
    said = [time_and_text(part) for part in parts]
    are_timed = all(time is not NOTHING and re.search(r"[^\W\d_]{3}", title) for time, title in said)
    return parts if are_timed and not any(says_more_times(title) for _, title in said) else [line]


def time_alone(line: str) -> Part:
    """What a line says that is a clear time and nothing else; NOTHING for any other."""
    times = read_times(line) if not line.isdigit() else None
    if not isinstance(times, Times):
        return NOTHING
    is_clear = _CLEAR.search(line) or re.fullmatch(_HOURS, line) or re.search(r"[^\W\d_]{3}", line)  # 10 Uhr
    if times.start is None or not is_clear:
        return Part(is_all_day=True) if times.is_all_day else NOTHING
    return _part(times)


def _is_time(match: re.Match[str], times: Times) -> bool:
    """Whether figures at an end of a text are a time, and count nothing: they are clear, are led to, or are hours from one to
    the other as people work, `Sale 10-4`; `Rooms 9-12` and `Heron 3-2` are none."""
    text = match["time"].strip()
    if _CLEAR.search(text):
        is_last = match.re is _TIME_LAST
        is_number = is_last and "." in text and re.search(NUMBERED, match["text"])
        return not (is_number or (is_last and is_verse(match["text"], text)))
    is_first = match.re is _TIME_FIRST
    if is_first and re.fullmatch(r"\d{1,4}\.?", text):
        return False  # 1. Heat
    if not is_first and (match["lead"] or not re.fullmatch(_HOURS, text)):
        return re.fullmatch(_HOURS, text) is not None
    if not is_first:
        return _are_hours(match["text"], text, times)
    from nomarium.reading.layouts.linetimes import are_counted  # slow to compile, and seldom needed

    return not are_counted("", text, match["text"])


def _are_hours(before: str, hours: str, times: Times) -> bool:
    """Whether mere hours behind words are from one to the other as people work, and count nothing, and are no score."""
    from nomarium.reading.layouts.linetimes import is_no_time  # slow to compile, and seldom needed

    if (
        counts(before)
        or is_no_time(before, hours)
        or re.search(_SCORED, before)
        or times.start is None
        or times.end is None
    ):
        return False
    begins, ends = (clock.secs + _NOON * (clock.secs < _SEVEN) for clock in (times.start, times.end))
    return begins < ends
