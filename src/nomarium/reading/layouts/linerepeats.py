"""How often a line of text says that something is held, and on which days it is not: `Mondays`, `every other Tuesday`, `(not 6 May)`."""

import re
from typing import Final

from nomarium.reading.cells.oftenwords import WEEKDAY
from nomarium.reading.layouts.linetimes import EDGES

WEEKLY: Final = re.compile(
    rf"(?i)\b(?:on\s+)?(?:(?P<alternate>(?:alternate|fortnightly(?:\s+on)?)\s+)?{WEEKDAY}s(?:\s*(?:,|&|and)\s*{WEEKDAY}s)*|"
    rf"(?:every|each)\s+(?P<other>(?:other|second|2nd|third|3rd|fourth|4th)\s+)?{WEEKDAY}(?:\s*(?:,|&|and)\s*{WEEKDAY})*)\b"
)
_SHORT_DAY: Final = r"\b(?:mon|tues?|wed(?:nes)?|thu(?:rs?)?|fri|sat(?:ur)?|sun)(?:day)?(?=s?\b)"
_SHORT_WEEKLY: Final = re.compile(rf"(?i)(?:{_SHORT_DAY}s?\b\.?)(?:\s*(?:,|&|/|and)\s*{_SHORT_DAY}s?\b\.?)*")
"""Weekdays as they are shortened, `Weds`, beside a first and a last day."""
_DAYS_BEHIND: Final = re.compile(rf"(?i),\s*(?P<days>{_SHORT_WEEKLY.pattern.removeprefix('(?i)')})$")
_WITHOUT: Final = re.compile(
    r"(?i)\(?\b(?:(?:no|not)\s+(?:class(?:es)?|sessions?|lessons?|meetings?|practice|training|rehearsal|school|on)\s*(?:on\s+)?|not\s+(?:on\s+)?(?=(?:[^\W\d_]+\.?,?\s+)?\d)|"
    r"(?:except|excluding|excl?\.|but not|omitting)\s*(?:on\s+|for\s+)?):?\s*([^()]*\d[^()]*?)(?:\)|$)"
)
"""The days on which something that repeats is not held: `(no class 28 Oct)`."""
_COUNTED_WEEKS: Final = re.compile(r"(?i)\(?(?:\bfor\s+)?\b(\d{1,2})\s+(weeks|sessions|times)\b\)?")
_WEEKS_FROM: Final = re.compile(
    r"(?i)[(,]?\s*\b(?:for\s+)?(?P<count>[2-9]|[1-4]\d|two|three|four|five|six|seven|eight|nine|ten|twelve)\s+(?:consecutive\s+)?weeks\b\)?"
    r"(?!\s+(?:notice|before|after|later|earlier|old|ago|to go))"
)
"""For how many weeks from its day something is held."""
_OPEN: Final = re.compile(r"(?i)\b(?:open|closed|exhibition|display|each day|daily|course of)\b")
"""What goes on for all of them."""
_OF_DAYS: Final = re.compile(
    rf"(?i)\b({WEEKDAY})s:?\s+(?!\d{{1,2}}/\d{{1,2}}/\d)(?=\d{{1,2}}(?:st|nd|rd|th)?\s*(?:,|&|\+|and\b|/)\s*(?:and\s+)?\d{{1,2}}\b)"
)
"""Weekdays before days of them, `Tuesdays 12, 19 & 26 January`: these dates, and no others."""
_STARTING: Final = (
    r"(?i)(?:^|[\s,;]+)(?:starting|starts?|beginning|begins?|commencing|from)\s*(?:$|(?<=[\s\w])[:,–—-]\s*)"
)
"""What led to the first day of something that repeats, once this is taken out."""


def without_starting(text: str) -> str:
    """What stands beside a repeat without what led to its first day; what stands on both sides of it stays apart."""
    return re.sub(_STARTING, lambda led: ", " if led.start() and led.end() < len(text) else "", text)


def without_plural(text: str) -> str:
    """A text whose weekdays before a list of their days are single: `Tuesday 12, 19 & 26 January`."""
    return _OF_DAYS.sub(r"\1 ", text) if "days" in text.casefold() else text


def repeat_in(days: re.Match[str] | None, date: str, rest: str, has_last: bool) -> tuple[str, str, str, str]:
    """A date and what stands beside it without what says how often that is held; how often, and on which days it is not."""
    if days is None and not has_last:
        return date, rest, "", ""
    skipped = _WITHOUT.search(rest)
    held = rest.replace(skipped[0], " ").strip() if skipped is not None else rest
    if days is None:
        days, date, held = _short_days(date, held)
    repeat, held = _repeat_of(days, held, has_last) if days is not None else ("", held)
    if not repeat:
        return date, held if skipped is None else f"{held} {skipped[0]}", "", ""
    return date, held, repeat, "" if skipped is None else skipped[1].strip(EDGES)


def weekly_from(date: str, rest: str) -> tuple[str, str]:
    """How often a line with a time says that it is held, whose day has its weekday and which says for how many weeks, `10 weeks from
    Tuesday 12 January`, and what is left of it; nothing where it says none."""
    weekday = re.match(rf"(?i)(?:from\s+)?(?P<name>{WEEKDAY}|{_SHORT_DAY})", date)
    counted = _WEEKS_FROM.search(rest)
    if weekday is None or counted is None or _OPEN.search(rest):
        return "", rest
    without = f"{rest[: counted.start()].rstrip(' ,')}, {rest[counted.end() :].lstrip(' ,')}"
    without = re.sub(r"(?i)^\W*from\b|\bfrom\W*$", "", without.strip(EDGES))
    return f"every {weekday['name']} for {counted['count']} weeks", without.strip(EDGES)


def _short_days(date: str, rest: str) -> tuple[re.Match[str] | None, str, str]:
    """The weekdays that stand by themselves behind a first and a last day, or among the other parts of a line; and the two
    without them."""
    behind = _DAYS_BEHIND.search(date)
    if behind is not None and re.search(rf"(?i){_SHORT_DAY}", date[: behind.start()]) is None:
        return _SHORT_WEEKLY.match(behind["days"]), date[: behind.start()], rest
    for piece in re.split(r"\s*[,;|():]\s*|\s+[–-]\s+", rest):
        if (days := _SHORT_WEEKLY.fullmatch(piece.strip())) is not None:
            return days, date, re.sub(r"\s*\(\s*\)", "", rest.replace(piece, "", 1))
    return None, date, rest


def _repeat_of(days: re.Match[str], rest: str, has_last: bool) -> tuple[str, str]:
    """How often a line says that it is held, and what is left of it; nothing where no end of it can be told."""
    count = _COUNTED_WEEKS.search(rest)
    if count is None and not has_last:
        return "", rest
    names = re.findall(rf"(?i){WEEKDAY}|{_SHORT_DAY}", days[0])
    words = days.groupdict()
    each = "other " if words.get("alternate") else f"{words.get('other') or ''} ".lstrip()
    repeat = f"every {each}{', '.join(names[:-1])}{' and ' if len(names) > 1 else ''}{names[-1]}"
    repeat += f" for {count[1]} {count[2]}" if count else ""
    without = rest.replace(count[0], " ", 1) if count else rest
    return repeat, re.sub(r"\s*[,:–—-]\s*(?=[,:]|$)|^\s*[,:–—-]\s*", "", " ".join(without.split()))
