"""Clock times and ranges of them, as people write them."""

import datetime as dt
import re
from functools import lru_cache
from typing import NamedTuple

from nomarium.model.refusal import Refusal, too_long
from nomarium.reading.cells.natives import native_time
from nomarium.reading.cells.spokentimes import in_clocks
from nomarium.reading.cells.timewords import (
    AFTER,
    ALL_DAY_WORDS,
    BEFORE,
    FIRST_OF_LEADS,
    LAST_OF_AFTER,
    OPEN_ENDS,
    UNKNOWN_WORDS,
)
from nomarium.reading.cells.words import fold

DAY_SECS = 86_400
_NOON, _MIDNIGHT = DAY_SECS // 2, 0
_TEN = 10 * 3600


class Clock(NamedTuple):
    """A time of day as written."""

    secs: int
    """Seconds since midnight, 0 to 86,400 (24:00, an end only)."""
    has_meridiem: bool = False
    """Whether am or pm was said, or a word such as noon: then nothing about it is open."""
    is_doubtful: bool = False
    """Whether the hour is 1 to 6 with neither am, pm nor a leading zero: likely an afternoon."""


class Times(NamedTuple):
    """What a cell says about times."""

    start: Clock | None = None
    end: Clock | None = None
    is_all_day: bool = False
    is_unknown: bool = False
    """The cell says that the time is not known yet (TBC, TBA, ?)."""
    notes: tuple[str, ...] = ()


_WORD_TIMES = {
    _NOON: "noon midday midi mittag mittags mediodia middag meio-dia mezzogiorno południe",
    _MIDNIGHT: "midnight minuit mitternacht medianoche middernacht meia-noite mezzanotte midnatt midnat północ",
}
_CLOCK_WORDS = {word: secs for secs, words in _WORD_TIMES.items() for word in words.split()}
_CLOCK = r"""(?x)(?P<hour>\d{1,2})
        (?:\s?[:.hu]\s?(?P<minute>\d{2})(?::(?P<second>\d{2})(?:[.,]\d+)?)?|\s?[hu](?!\w)|h?)
        \s?(?P<meridiem>[ap](?:\.?\s?m\b\.?|\b\.?))?$"""
_COMPACT = r"(?P<hour>\d{1,2})(?P<minute>\d{2})\s?(?:h|hrs|hours)?\s?(?P<meridiem>[ap]\.?m?\.?)?$"
_RANGE = r"\s*(?:[-~/]|\bto\b|\buntil\b|\btill?\b|\bthrough\b|\bbis\b|\btot\b|\bjusqu'a\b|\ba\b|\bal\b|\bau\b|\bto\b|\bas\b|\bdo\b|\balle\b|\btil\b|\bpana la\b|до|по)\s*"
_HOUR_WORDS = r"\s?(?:\bo'clock\b|\buhr\b|\buur\b|\bheures?\b|\bhoras?\b|\bhrs?\b)\s?"
_ZONE_AFTER = r"(?P<times>.*\d.*?)\s*(?P<rest>\([^)]+\)|\b[A-Z]{2,5})"
_SPACED_MERIDIEM = r"\b([ap])\. ?m\b"
_AFTER_MIDDAY = r"12(?:[:.]00)?\s?(?:noon|midday)|12(?:[:.]00)?\s?(?P<night>midnight)"

_HOURS = "one two three four five six seven eight nine ten eleven twelve".split()
_IN_WORDS = rf"(?i)\b(?:half past|(?:an? )?(?P<quarter>quarter) (?:past|(?P<to>to))) (?P<hour>1[0-2]|[1-9]|{'|'.join(_HOURS)})\b(?![:.]\d)"

_MINUTES = {"five": 5, "ten": 10, "twenty": 20, "twenty-five": 25, "twenty five": 25}
_MINUTES_IN_WORDS = (
    rf"(?i)\b(?P<minutes>twenty[- ]five|twenty|ten|five) (?:(?P<past>past)|(?<=at ten )to|(?<=at five )to|(?<=at twenty )to|(?<=at twenty[- ]five )to) "
    rf"(?P<hour>1[0-2]|[1-9]|{'|'.join(_HOURS)})\b(?![:.]\d)"
)
"""Minutes past an hour, or behind *at* to one: `ten to three` alone may be from ten o'clock to three."""
_OF_CLOCK = rf"(?i)\b(?P<hour>{'|'.join(_HOURS)}) o['’]?clock\b"
_IN_HALF = r"(?i)(?P<time>(?<![\d:.])(?:(?<=at )|(?<=from ))(?:1[0-2]|[1-9])|(?<![\d:.])(?:1[0-2]|[1-9])[:.][0-5]\d)(?: o['’]?clock)? (?:in the (?:(?P<morning>morning)|afternoon|evening)|at night)\b"
"""A time and the half of the day in words; of a mere hour only behind what leads to a time."""

_FORMS = "Write it like 9:30, 14:05 or 2:05 pm."


def read_times(text: str) -> Times | Refusal:
    """A cell that holds a time, a range of times, or a word for neither.

    >>> read_times("1–2:30pm").start.secs // 3600
    13
    """
    return too_long(text) or _times_of(text)


@lru_cache(maxsize=4096)  # a line of text asks for the same ones again and again
def _times_of(text: str) -> Times | Refusal:
    times = _times_in(text)
    if isinstance(times, Times):
        return times
    if text[-1:] == ")" and (lasting := _with_length(text)) is not None:
        return lasting
    if not (more := re.fullmatch(_ZONE_AFTER, text)) or isinstance(_times_in(more["times"]), Refusal):
        return times
    remedy = "Write the time alone, like 9:30; a time zone is named with --timezone or in a column “Time zone”."  # fmt: skip
    return Refusal("time-rest", f"“{more['rest']}” after the time is not read.", remedy)


def _with_length(text: str) -> Times | Refusal | None:
    """From when to when, with how long that is in brackets behind, `9:00-10:00 (60 min)`: both must agree."""
    from nomarium.reading.cells.lengths import length_behind, without_length

    bare, length = without_length(text)
    times, secs = _times_in(bare), length_behind(text)
    if secs is None or not isinstance(times, Times) or times.start is None or times.end is None:
        return None
    if (times.end.secs - times.start.secs - secs) % _NOON == 0:
        return times
    return Refusal("time-length", f"The time does not last “{length.strip(' ()')}”.", "Correct one of them.")


_HALF = r"(?P<half>[ap])(?:\.?m\.?|fternoon)|(?P<morning>morning)|evening"
_HALVES = ("am", "a.m", "pm", "p.m", "morning", "afternoon", "evening")
_HALVES_LAST = ("noon", "noon)", "ning", "ning)", "m)", "m.)")
"""What begins such a half, and what ends one that stands behind; `9 am` needs no more."""
_ONE_TIME = r"(?P<first>\d{1,2}(?:[:.]\d\d)?)(?P<rest>\s?-\s?\d[^()]*)?"
_HALF_FIRST = rf"^(?:{_HALF})\s*[:,(-]?\s*{_ONE_TIME}\)?$"
"""A half of the day before its time, `PM 1:30`, `AM (9.00)`, `Morning 9-12`."""
_HALF_LAST = rf"^{_ONE_TIME}\s*[,(-]\s*(?:{_HALF})\)?$"
"""The same behind it, `1.30 (afternoon)`."""


def _with_half(plain: str) -> str:
    """A text whose half of the day stands apart from its time, with it right behind that; no noon is in the morning."""
    apart = re.match(_HALF_FIRST, plain) or re.match(_HALF_LAST, plain)
    if apart is None:
        return plain
    if not apart["rest"] and len(apart["first"]) <= len("12"):
        return plain  # AM1, Morning 2: the number of a session
    half = "a" if apart["morning"] or (apart["half"] == "a" and "fternoon" not in plain) else "p"
    if half == "a" and apart["first"].startswith("12"):
        return plain
    return f"{apart['first']} {half}m{apart['rest'] or ''}"


_EITHER_OR = r"[\d:.]+ ?[ap]\.?m\.? ?/ ?[\d:.]+ ?[ap]\.?m\.?"
"""Two whole times with a stroke between, `4pm/7pm`."""


def either_or(text: str) -> Refusal:
    """Two times of which nothing says whether the second is the end of the first."""
    first, _, second = (part.strip() for part in text.partition("/"))
    message = f"“{text}” could be from the first time to the second, or two times."
    return Refusal("time-unread", message, f"Write it like {first}–{second}, or like {first} & {second}.")


def _is_name(text: str) -> bool:
    """Whether a text is a name with its number, `Van 1`, `U 9`, `A 5`: the words stand before times too, and none before an hour alone."""
    name, _, number = text.rpartition(" ")
    if not (number.isdecimal() and len(number) < 3):
        return False
    return ("A" <= name <= "Z" and len(name) == 1) or name.rstrip(".").casefold() in _BEFORE_SPANS


_BEFORE_SPANS = frozenset(("van", "von", "de", "des"))
"""What leads from one time to another."""


def _without_lead(plain: str) -> str:
    """A text without the word or the sign that leads to its time."""
    first = re.match(r"@|[^\W\d_]+", plain)
    return re.sub(BEFORE, "", plain) if first is not None and first[0] in FIRST_OF_LEADS else plain


def _times_in(text: str) -> Times | Refusal:
    if clock := plain_clock(text):
        return Times(clock)
    plain = plain_time_text(text)
    if plain in UNKNOWN_WORDS:
        return Times(is_unknown=True)
    if plain in ALL_DAY_WORDS:
        return Times(is_all_day=True)
    # every time has a figure, or a word such as noon: most titles are spared the patterns
    has_word = any(map(plain.__contains__, _CLOCK_WORDS))
    if _is_name(text.strip()) or not (has_word or any(map(str.isdigit, plain))):
        return Refusal("time-unread", f"“{text}” is not a time.", _FORMS)
    plain = re.sub(
        _SPACED_MERIDIEM, r"\1m", in_clocks(plain)
    )  # as Spanish writes it; "a" alone parts a range
    plain = re.sub(AFTER, "", plain) if plain.endswith(LAST_OF_AFTER) else plain
    if not plain[:1].isdigit():
        plain = _without_lead(plain)
        plain = _with_half(plain) if plain.startswith(_HALVES) else plain
        if not has_word and not plain[:1].isdigit():
            return Refusal("time-unread", f"“{text}” is not a time.", _FORMS)
    elif plain.endswith(_HALVES_LAST):
        plain = _with_half(plain)
    single = read_clock(plain)
    if isinstance(single, Clock):
        return Times(single)
    if re.fullmatch(r"\d{1,2}\.\s?-\s?\d{1,2}\.", plain):
        return Refusal("time-unread", f"“{text}” is not a time.", _FORMS)  # the first to the second lesson
    if (held := _held_after_arrival(plain)) is not None:
        return held
    if "/" in plain and re.fullmatch(_EITHER_OR, plain):
        return either_or(text)
    pieces = re.split(_RANGE, plain)
    if len(pieces) == 2 and (not pieces[1] or pieces[1] in UNKNOWN_WORDS or pieces[1] in OPEN_ENDS):
        start = read_clock(pieces[0])
        return start if isinstance(start, Refusal) else Times(start, notes=("end-unknown",))
    pieces = [piece for piece in pieces if piece]
    if len(pieces) != 2:  # the cell as it stands, and not as it was prepared
        return single._replace(message=f"“{text}” is not a time.") if single.code == "time-unread" else single
    start, end = read_clock(pieces[0]), read_clock(pieces[1])
    if isinstance(start, Refusal):
        return start
    if isinstance(end, Refusal):
        return end
    return settle_range(start, end)


SURE_CLOCK = r"(?i)\d[:h]\d\d|\d\s?[ap]\.?m\b"
"""A time that is no other number; `9.15` may be one."""
_CLASS_OR_HOUR = re.compile(r"\d{1,2}\s?[aApP]|\d{1,2}\s?/\s?\d{1,2}")
_ARRIVAL = r"(?P<arrival>\d.*?) for (?P<start>\d.*)"
_LONGEST_ARRIVAL = 90 * 60


def _held_after_arrival(plain: str) -> Times | None:
    """`7 for 7.30`: people come at the first time, and it starts at the second; None for any other text. With no am or pm it is
    as open as an hour before seven: few sit down to a meal at half past seven in the morning."""
    match = re.fullmatch(_ARRIVAL, plain) if " for " in plain else None
    if match is None:
        return None
    arrival, start = read_clock(match["arrival"]), read_clock(match["start"])
    if isinstance(arrival, Refusal) or isinstance(start, Refusal):
        return None
    is_told = arrival.has_meridiem  # 9am for 9.30
    settled = settle_range(arrival, start)
    arrival, start = settled.start or arrival, settled.end or start
    if start.secs < arrival.secs and not start.has_meridiem:
        start = Clock(start.secs + _NOON, True)  # 12.30 for 1
    if not 0 < start.secs - arrival.secs <= _LONGEST_ARRIVAL:
        return None
    if is_told:
        start = start._replace(has_meridiem=True, is_doubtful=False)
    is_open = not start.has_meridiem and start.secs < _TEN
    return Times(start._replace(is_doubtful=start.is_doubtful or is_open), notes=("arrival-first",))


def may_be_class(text: str) -> bool:
    """Whether an hour with one letter for its half of the day, or two hours with a stroke, are as likely classes: `7A`, `9P` and
    `7/8`, not `7A-3P` nor `7.30a`."""
    return _CLASS_OR_HOUR.fullmatch(text.strip()) is not None


def plain_clock(text: str) -> Clock | None:
    """The time of a text that is figures and colons alone, by the 24-hour clock, or that ends in am or pm, `9:15 PM`; None for
    any other."""
    half = text[-2:].casefold() if text[-1:] in "mM" else ""
    parts = (text[:-2].rstrip(" ") if half in ("am", "pm") else text).split(":")
    if not 2 <= len(parts) <= 3 or not all(part.isdecimal() and part.isascii() for part in parts):
        return None
    hour, minute, second = (*map(int, parts), 0)[:3]
    if len(parts[0]) > 2 or any(len(part) != 2 for part in parts[1:]) or minute > 59 or second > 59:
        return None
    if half:
        if not 1 <= hour <= 12:
            return None
        return Clock((hour % 12 + 12 * (half == "pm")) * 3600 + minute * 60 + second, True)
    if hour > 23:
        return None
    return Clock(hour * 3600 + minute * 60 + second, False, 1 <= hour <= 6 and text[0] != "0")


def plain_time_text(text: str) -> str:
    """A text in the form that the patterns here expect: folded, one kind of dash, single spaces."""
    plain = fold_keeping_stops(text if text.isascii() else native_time(text))
    if not plain.isascii():
        plain = re.sub("[–—‒−‐〜～]", "-", plain)
    return in_figures(" ".join(plain.split()))


def in_figures(text: str) -> str:
    """A text with its times in words as figures.

    >>> in_figures("half past 8 pm"), in_figures("Tea at a quarter to one"), in_figures("half past")
    ('8:30 pm', 'Tea at 12:45', 'half past')
    >>> in_figures("at ten to three"), in_figures("twenty past 6"), in_figures("ten to three")
    ('at 2:50', '6:20', 'ten to three')
    >>> in_figures("at two o'clock in the afternoon"), in_figures("6:30 in the evening"), in_figures("10 in the morning group")
    ('at 2:00 pm', '6:30 pm', '10 in the morning group')
    """
    if "past" in text or "quarter" in text:
        text = re.sub(_IN_WORDS, _figures_of, text)
    if " past " in text or " to " in text:
        text = re.sub(_MINUTES_IN_WORDS, _minutes_of, text)
    if "clock" in text:
        text = re.sub(_OF_CLOCK, lambda said: f"{_HOURS.index(said['hour'].casefold()) + 1}:00", text)
    if "in the " in text or "at night" in text:
        text = re.sub(_IN_HALF, lambda said: f"{said['time']} {'a' if said['morning'] else 'p'}m", text)
    return text


def _figures_of(said: re.Match[str]) -> str:
    """Half or a quarter past or to an hour."""
    words = said["hour"].casefold()
    hour = int(words) if words.isdigit() else _HOURS.index(words) + 1
    if said["to"]:
        return f"{(hour - 2) % 12 + 1}:45"
    return f"{hour}:{'15' if said['quarter'] else '30'}"


def _minutes_of(said: re.Match[str]) -> str:
    """Some minutes past an hour, or to it."""
    words, minutes = said["hour"].casefold(), _MINUTES[said["minutes"].casefold()]
    hour = int(words) if words.isdigit() else _HOURS.index(words) + 1
    return f"{hour}:{minutes:02}" if said["past"] else f"{(hour - 2) % 12 + 1}:{60 - minutes}"


def fold_keeping_stops(text: str) -> str:
    """Without case and accents, but with its full stops: they part hours from minutes."""
    return ".".join(fold(part) for part in text.split("."))


def read_clock(text: str) -> Clock | Refusal:
    """One time of day, in a text that `plain_time_text` has prepared.

    >>> read_clock("9h30").secs == read_clock("0930").secs == read_clock("9.30 a.m.").secs
    True
    """
    if text in _CLOCK_WORDS:
        return Clock(_CLOCK_WORDS[text], True)
    special = re.fullmatch(_AFTER_MIDDAY, text) if text[:2] == "12" else None
    if special:
        return Clock(_MIDNIGHT if special["night"] else _NOON, True)
    plain = re.sub(_HOUR_WORDS, "h", text).removesuffix("h") if not text.isdigit() else text
    plain = plain.strip().rstrip(".") if not plain.endswith("m.") else plain.strip()
    match = re.match(_CLOCK, plain) or (re.match(_COMPACT, plain) if len(plain) >= 3 else None)
    if match is None:
        return Refusal("time-unread", f"“{text}” is not a time.", _FORMS)
    parts = match.groupdict()
    hour, minute, second = (int(parts.get(name) or 0) for name in ("hour", "minute", "second"))
    meridiem = parts.get("meridiem")
    if minute > 59 or second > 59 or hour > 24 or (hour == 24 and (minute or second)):
        return Refusal("time-impossible", f"There is no time {text}.", _FORMS)
    if not meridiem:
        doubtful = 1 <= hour <= 6 and not text.startswith("0")
        return Clock(hour * 3600 + minute * 60 + second, False, doubtful)
    if hour > 12 or hour == 0:
        if meridiem[0] == "p" and 12 < hour < 24:
            return Clock(hour * 3600 + minute * 60 + second, True)  # 14:30 pm says it twice
        return Refusal("time-impossible", f"There is no time {text}: am and pm go with 1 to 12.", _FORMS)
    hour = hour % 12 + (12 if meridiem[0] == "p" else 0)
    return Clock(hour * 3600 + minute * 60 + second, True)


def settle_range(start: Clock, end: Clock) -> Times:
    """A range in which one am or pm may stand for both ends.

    `1–2:30pm` starts at 13:00, `11–1pm` at 11:00; `7pm–9` ends at 21:00.
    """
    if end.has_meridiem and not start.has_meridiem and 3600 <= start.secs < _NOON + 3600:
        end_secs = end.secs or DAY_SECS
        half = start.secs % _NOON
        later = half + _NOON
        is_pm = later < end_secs and end_secs > _NOON
        return Times(Clock(later if is_pm else half, True), Clock(end.secs, True))
    if start.has_meridiem and not end.has_meridiem:
        shared = end_after(start, end)
        if shared != end:
            return Times(start, shared, notes=("meridiem-shared",))
    return Times(start, end)


def end_after(start: Clock, end: Clock) -> Clock:
    """An end with no am or pm beside a start that has one: the first such time after the start; twelve after an evening is
    midnight, as in `7pm–12`."""
    if end.secs > start.secs or end.has_meridiem or not 3600 <= end.secs < _NOON + 3600:
        return end
    half = end.secs % _NOON
    after = Clock(half, True) if end.secs >= _NOON else end
    return next((Clock(secs, True) for secs in (half, half + _NOON) if secs > start.secs), after)


def clock_of_number(value: float, role_is_time: bool = True) -> Clock | Refusal:
    """A workbook's number in a column of times: a fraction of a day, an hour, or 9.3 typed for 9:30."""
    if 0 <= value < 1 or value == 1:
        return Clock(round(value * DAY_SECS), True)
    if role_is_time and value == int(value) and value <= 24:
        return read_clock(str(int(value)))
    if role_is_time and value == int(value) and 100 <= value <= 2400:
        return read_clock(str(int(value)))
    if role_is_time and value < 24:
        minutes = round((value - int(value)) * 100, 4)
        if minutes in (15, 30, 45, 10, 20, 40) and minutes != 50:
            return read_clock(f"{int(value)}:{int(minutes):02}")
    return Refusal(
        "time-number",
        f"The number {value:g} could mean several times.",
        f"Type it with a colon, such as {int(value) % 24}:30.",
    )


def clock_of_time(value: dt.time) -> Clock:
    """A workbook's own time, to the second: nothing about it is open."""
    return Clock(value.hour * 3600 + value.minute * 60 + value.second + (value.microsecond >= 500_000), True)
