"""Lengths of time as people write them."""

import datetime as dt
import re

from nomarium.model.limits import LONGEST_LENGTH_SECS
from nomarium.model.refusal import Refusal, too_long
from nomarium.reading.cells.timewords import ALL_DAY_WORDS
from nomarium.reading.cells.words import fold


class WholeDays(int):
    """The seconds of a length that is written in days or weeks alone, `2 days`."""


_UNITS = {
    "w": 604_800, "week": 604_800, "weeks": 604_800, "semaine": 604_800, "semaines": 604_800,
    "woche": 604_800, "wochen": 604_800, "semana": 604_800, "semanas": 604_800,
    "d": 86_400, "day": 86_400, "days": 86_400, "jour": 86_400, "jours": 86_400, "j": 86_400,
    "tag": 86_400, "tage": 86_400, "dia": 86_400, "dias": 86_400, "dag": 86_400, "dagen": 86_400,
    "h": 3600, "hr": 3600, "hrs": 3600, "hour": 3600, "hours": 3600, "heure": 3600, "heures": 3600,
    "std": 3600, "stunde": 3600, "stunden": 3600, "hora": 3600, "horas": 3600, "uur": 3600, "uren": 3600,
    "m": 60, "min": 60, "mins": 60, "minute": 60, "minutes": 60, "minuten": 60, "minuut": 60,
    "minuto": 60, "minutos": 60, "'": 60,
    "s": 1, "sec": 1, "secs": 1, "second": 1, "seconds": 1,
}  # fmt: skip
_ISO = r"p(?:(?P<w>\d+)w)?(?:(?P<d>\d+)d)?(?:t(?:(?P<h>\d+(?:[.,]\d+)?)h)?(?:(?P<m>\d+)m)?(?:(?P<s>\d+)s)?)?"
_COLON = r"(\d{1,3}):(\d{2})(?::(\d{2}))?"
_PART = r"(\d+(?:[.,]\d+)?|\ban?\b|\bhalf an?\b|½)\s*([^\W\d_]+|')"
_NUMBERS = {
    "one": 1, "two": 2, "three": 3, "four": 4, "five": 5, "six": 6, "seven": 7, "eight": 8, "nine": 9, "ten": 10, "twelve": 12,
    "fifteen": 15, "twenty": 20, "thirty": 30, "forty-five": 45, "forty": 40, "fifty": 50, "sixty": 60, "ninety": 90,
}  # fmt: skip
_FORMS = "Write it like 1h 30m, 90 min or 1:30."


def read_length(text: str, bare_unit_secs: int | None = None) -> int | Refusal:
    """A length in seconds. `bare_unit_secs` is the unit of a number alone; None: it is refused.

    >>> read_length("1h 30m"), read_length("1.5 hours"), read_length("PT90M"), read_length("1:30")
    (5400, 5400, 5400, 5400)
    """
    if long := too_long(text):
        return long
    secs = _secs_of(text, bare_unit_secs)
    if isinstance(secs, int) and secs > LONGEST_LENGTH_SECS:
        return Refusal("length-unread", f"“{text}” is longer than a hundred years.", _FORMS)
    return secs


_BEHIND = r"(?i)\s*\((?P<said>(?:\d[^()]*|an?|half an?)\s?(?:h|hrs?|hours?|hour|heures?|std|stunden?|min|mins|minutes?|minuten)\.?(?:\s?\d[^()]*)?)\)\s*$"
"""A length in brackets at the end of a title."""
_LONGEST_BEHIND = 12 * 3600


def length_behind(title: str) -> int | None:
    """The length in brackets behind a title, in seconds; None where it says none: `(50m)` is how far.

    >>> length_behind("Drawing 1 (1h30)"), length_behind("Carving (90 mins)"), length_behind("Swim (50m)"), length_behind("Talk (7pm)")
    (5400, 5400, None, None)
    """
    match = re.search(_BEHIND, title) if title[-1:] == ")" else None
    secs = read_length(match["said"]) if match is not None else None
    return secs if type(secs) is int and 0 < secs <= _LONGEST_BEHIND else None


def without_length(title: str) -> tuple[str, str]:
    """A title before the length in brackets behind it, and these."""
    match = re.search(_BEHIND, title) if length_behind(title) is not None else None
    return (title[: match.start()], match[0]) if match is not None else (title, "")


def _secs_of(text: str, bare_unit_secs: int | None) -> int | Refusal:
    plain = _in_figures(" ".join(_folded(_with_fractions(text)).split()))
    if plain in ALL_DAY_WORDS:
        return WholeDays(_UNITS["day"])
    if iso := re.fullmatch(_ISO, plain):
        if any(iso.groups()):
            return round(sum(float(n.replace(",", ".")) * _UNITS[u] for u, n in iso.groupdict().items() if n))
    elif colon := re.fullmatch(_COLON, plain):
        hours, minutes, seconds = (int(part or 0) for part in colon.groups())
        if minutes < 60 and seconds < 60:
            return hours * 3600 + minutes * 60 + seconds
    elif bare_unit_secs and re.fullmatch(r"\d+(?:[.,]\d+)?", plain):
        whole = round(float(plain.replace(",", ".")) * bare_unit_secs)
        return WholeDays(whole) if bare_unit_secs >= _UNITS["day"] else whole
    elif re.fullmatch(r"\d+(?:[.,]\d+)?", plain):
        message = f"“{text}” has no unit: hours or minutes?"
        remedy = f"{_FORMS.rstrip('.')}; or say the unit of all in the heading, “Length (min)” or “Length (hours)”."
        return Refusal("length-unit", message, remedy)
    else:
        mixed = re.fullmatch(r"(\d+) ?h(?:rs?|ours?)? ?(\d{2})", plain)  # 1h30, 1 hr 15
        if mixed:
            return int(mixed[1]) * 3600 + int(mixed[2]) * 60
        secs = _in_words(plain)
        if secs is not None:
            return secs
    return Refusal("length-unread", f"“{text}” is not a length of time.", _FORMS)


def _with_fractions(text: str) -> str:
    """A text whose fractions are decimal: `1½ hours`, `2 1/4 h`."""
    if "½" not in text and "¼" not in text and "¾" not in text and "/" not in text:
        return text
    for sign, figures in (("½", "1/2"), ("¼", "1/4"), ("¾", "3/4")):
        text = text.replace(sign, f" {figures}")
    for figures, decimal in (("1/2", "5"), ("1/4", "25"), ("3/4", "75")):
        text = re.sub(rf"(?<![\d/])(\d+)\s+{figures}(?![\d/])", rf"\g<1>.{decimal}", text)
        text = re.sub(rf"(?<![\d/.]){figures}(?![\d/])", f"0.{decimal}", text)
    return text.strip()


def _in_figures(plain: str) -> str:
    """A folded text whose numbers are figures: `one and a half hours`, `an hour and a half`, `ninety minutes`."""
    if not any(word in plain for word in ("half", "quarter", *_NUMBERS)):
        return plain
    plain = re.sub(r"\b(?:a|one|1) hour and a half\b|\ban hour and a half\b", "1.5 hours", plain)
    plain = re.sub(r"\b(\w+) and a half\b", lambda match: f"{_NUMBERS.get(match[1], match[1])}.5", plain)
    plain = re.sub(r"\b(?:a )?quarter of an hour\b", "15 min", plain)
    plain = re.sub(r"\bthree quarters of an hour\b", "45 min", plain)
    return re.sub(rf"\b({'|'.join(_NUMBERS)})\b", lambda match: str(_NUMBERS[match[1]]), plain)


def _folded(text: str) -> str:
    """Folded, with the stop kept between figures only: `1.5 hrs.` is `1.5 hrs`."""
    return ".".join(fold(part) for part in re.split(r"(?<=\d)\.(?=\d)", text)).strip()


def _in_words(plain: str) -> int | None:
    total, at, smallest = 0.0, 0, _UNITS["week"]
    for part in re.finditer(_PART, plain):
        between = plain[at : part.start()].strip(" ,")
        if between not in ("", "and", "et", "und", "y", "en") or part[2] not in _UNITS:
            return None
        amount = part[1]
        number = {"a": 1.0, "an": 1.0, "half a": 0.5, "half an": 0.5, "½": 0.5}.get(amount)
        total += (float(amount.replace(",", ".")) if number is None else number) * _UNITS[part[2]]
        at, smallest = part.end(), min(smallest, _UNITS[part[2]])
    if not at or plain[at:].strip(" .,"):
        return None
    return WholeDays(round(total)) if smallest >= _UNITS["day"] else round(total)


def length_of_value(value: float | dt.time | dt.timedelta, bare_unit_secs: int | None) -> int | Refusal:
    """A workbook's own value as a length: a time or a span, or a number in the column's unit.

    A number below 1 without a unit is a fraction of a day, as workbooks keep spans.
    """
    if isinstance(value, dt.timedelta):
        return round(value.total_seconds())
    if isinstance(value, dt.time):
        return value.hour * 3600 + value.minute * 60 + value.second
    if bare_unit_secs is None and 0 < value < 1:
        return round(value * 86_400)
    return read_length(f"{value:g}", bare_unit_secs)
