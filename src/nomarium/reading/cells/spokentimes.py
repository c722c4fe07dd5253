"""Times as other languages say them among words: `zwischen 14 und 16 Uhr`, `dalle 14 alle 16`, `de 2 a 4 de la tarde`, `8h du soir`."""

import re
from functools import cache
from typing import Final

_HOUR: Final = r"(?P<{0}>[01]?\d|2[0-4])(?:\s?(?P<{0}by>[.:hu])\s?(?P<{0}min>[0-5]\d)(?!\d))?(?P<{0}half>\s?[ap]\.?m\b\.?)?"
_UNIT: Final = r"(?P<{0}>\s?(?:h(?:eures?|oras?|s)?|u|uhr|uur)\b\.?)?"
_HALVES: Final = (
    r"de la ma[nñ]ana|da manh[aã]|del mattino|du matin|morgens|vormittags|'s ochtends",
    r"de la tarde|de la noche|da tarde|da noite|del pomeriggio|di sera|du soir|de l['’]apr[eè]s[- ]midi|nachmittags|abends|'s middags|'s avonds",
)
"""Words behind a time in the first half of the day, and in the second."""
_HALF: Final = rf"(?:\s(?:(?P<am>{_HALVES[0]})|(?P<pm>{_HALVES[1]}))(?!\w))?"
_FROM: Final = (
    r"(?P<hours>dalle(?:\s+ore)?|das|desde\s+las|entre\s+(?:les|las|as)|tra\s+le|fra\s+le|h\.?)|"
    r"de|d[eè]s|von|van|desde|entre|zwischen|tussen|mellan|mellem|mellom|between"
)
"""Words before the first of two times; the first of them stand before hours and nothing else."""
_TO: Final = r"[-–—]|(?:[aà]|a\s+las|bis|tot|alle(?:\s+ore)?|[aà]s|hasta\s+las|et|y(?:\s+las)?|e(?:\s+(?:le|as))?|und|en|och|og|and)\b"
_SPAN: Final = (
    rf"(?i)(?<![\w.:/,-])(?:(?P<lead>{_FROM})\s+)?{_HOUR.format('first')}{_UNIT.format('unit')}\s*(?P<to>{_TO})\s*{_HOUR.format('last')}{_UNIT.format('of')}{_HALF}"
    r"(?![\w/]|[:.]\d)(?P<ends>(?=\s*(?:[,;:.()|–—]|$)))?"
)
_SINGLE: Final = rf"(?i)(?<![\w.:/,-])(?:(?:a\s+las?|[aà]s?|um|om|alle|ore)\s+)?{_HOUR.format('first')}{_UNIT.format('unit')}{_HALF.removesuffix('?')}"
_MINUTES_BEHIND: Final = r"(?i)(?<![\d:.])(\d{1,2})\s?(?:uhr|heures?)\s?([0-5]\d)(?![\d:])"
"""`14 Uhr 30`."""
_STARTING: Final = r"(?i)\b[aà]\s+partir\s+d(?:as?|es?)\s+(?:las\s+)?(?=\d{1,2}\s?(?:[:hu.]|$))"
_FLEMISH: Final = r"(?<![\d:.])([01]?\d|2[0-4])(?:u([0-5]\d)?|[.:]([0-5]\d)\s?u)(?!\w|\.?\s*\d)"
"""`14u`, `14u30`, `14.30 u`; `14.10 u. 15.10` are days."""
_SAID: Final = rf"(?i)\b(?:{_FROM})\s+\d|\d\s?[-–—].*\d\s?u\b|\d\s?u\s?[-–—]|\d\s?u(?:\d\d)?\b|\bpartir\b|\d\s?(?:uhr|heures?)\s?\d\d|\d.*\s(?:{'|'.join(_HALVES)})"
"""What the patterns above need: most texts have nothing of it."""
_HINTS: Final = frozenset(
    "de des dès von van das dalle desde entre zwischen tussen tra fra mellan mellem mellom between h u uhr heure heures partir manha manhã "
    "mañana manana matin mattino tarde noche noite pomeriggio sera soir après apres morgens vormittags nachmittags abends ochtends middags "
    "avonds".split()
)
"""Words of which one stands in every text that has such a time: the patterns are made for no other."""
_WORD: Final = r"[^\W\d_]+"


def in_clocks(text: str) -> str:
    """A text with such times as clocks.

    >>> in_clocks("atelier de 14 à 16 heures"), in_clocks("zwischen 14 und 16.30 Uhr"), in_clocks("dalle 14 alle 16")
    ('atelier 14:00-16:00', '14:00-16:30', '14:00-16:00')
    >>> in_clocks("de 2 a 4 de la tarde"), in_clocks("8h du soir"), in_clocks("14u30 - 16u")
    ('2:00 pm-4:00 pm', '8:00 pm', '14:30-16:00')
    >>> in_clocks("von 10 bis 12 Jahren"), in_clocks("de 14 a 16 de noviembre"), in_clocks("de 2h")
    ('von 10 bis 12 Jahren', 'de 14 a 16 de noviembre', 'de 2h')
    """
    if not any(map(str.isdigit, text)) or _HINTS.isdisjoint(re.findall(_WORD, text.casefold())):
        return text
    said, span, single = _patterns()
    if said.search(text) is None:
        return text
    text = re.sub(_MINUTES_BEHIND, r"\1:\2", re.sub(_STARTING, "ab ", text))
    text = span.sub(_both, text)
    text = re.sub(_FLEMISH, lambda at: f"{at[1]}:{at[2] or at[3] or '00'}", text)
    return single.sub(_one, text)


@cache
def _patterns() -> tuple[re.Pattern[str], ...]:
    """Made when the first text needs them."""
    return tuple(map(re.compile, (_SAID, _SPAN, _SINGLE)))


def _both(said: re.Match[str]) -> str:
    units = [unit.strip(" .").casefold() for unit in (said["unit"], said["of"]) if unit]
    marks = [mark.casefold() for mark in (said["firstby"], said["lastby"]) if mark]
    is_of_lead = said["lead"] is not None and (
        units or {":", "h", "u"} & {*marks} or said["firsthalf"] or said["lasthalf"]
    )
    is_alone = said["hours"] is not None and said["ends"] is not None
    if not (is_of_lead or is_alone or said["am"] or said["pm"] or "u" in (*units, *marks)):
        return said[0]
    if said["lead"] is None and not re.match(r"[-–—]|(?i:tot|a|à|bis)$", said["to"]):
        return said[0]  # 3 et 4 h: two times, or lengths
    return f"{_clock(said, 'first')}-{_clock(said, 'last')}"


def _one(said: re.Match[str]) -> str:
    return _clock(said, "first")


def _clock(said: re.Match[str], which: str) -> str:
    hour, minute, half = int(said[which]), said[f"{which}min"] or "00", (said[f"{which}half"] or "").strip()
    if not half and 0 < hour <= 12:
        half = "am" if said["am"] else "pm" if said["pm"] else ""
    return f"{hour}:{minute}{' ' if half else ''}{half}"
