"""Lines that have no date and no time that could be read, and may all the same be events."""

import re
from typing import Final

from nomarium.model.refusal import Refusal
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.layouts import linerefusals
from nomarium.reading.layouts.linetimes import SAME_TIME
from nomarium.reading.layouts.textlines import TextLine, is_sentence
from nomarium.reading.layouts.vaguedates import is_like_a_date
from nomarium.reading.layouts.weekdaylines import begins_with_weekday

OF_WEEK: Final = re.compile(
    r"(?i)(?:week|wk|kw|v|vecka|uke|uge|semaine|sem|semana|settimana|viikko|vko|tydzień|tydz)\b\.?\s*\d{1,2}\b\s*[:–—-]?\s*[^\W\d]{3}"
)
"""A week by its number, and what is on in it: `Week 44: Half term`."""
_HOUR_FIRST: Final = re.compile(r"(?:[1-9]|1[0-2])\s+[A-ZÀ-Þ]")
_DATE_IN_FIGURES: Final = re.compile(
    r"(?:0?[1-9]|1[0-2])[/.](?:19|20)\d\d\b|(?:19|20)\d\d([/.-])(?:0?[1-9]|1[0-2])\1(?:0?[1-9]|[12]\d|3[01])(?!\d)|"
    r"(?:0?[1-9]|[12]\d|3[01])([/.-])(?:0?[1-9]|[12]\d|3[01])\2(?:(?:19|20)\d\d|[2-4]\d)(?![\d.,/-])"
)
"""A date that nothing could read: a month without a day, `09/2026  Induction`, or figures with others right behind."""
_PART_OF_MONTH: Final = re.compile(
    r"(?i)\W*(?:by\s+|from\s+)?(?:the\s+)?(?:end|middle|beginning|start|early|mid|late|ende|anfang|mitte|fin|début|mi)[\s-]+(?:of\s+|de\s+|d['’])?(?P<month>[^\W\d_]{3,})\.?\s*(?:\d{4}\s*)?[:–—-]\s*\S"
)
"""A part of a month and what is on: `by end of Feb – offers`."""
_CLOCK_IN: Final = re.compile(
    r"(?i)(?<![\d:.])(?:[01]?\d|2[0-3]):[0-5]\d(?![\d:])|\b\d{1,2}\s?[ap]\.?m\b|\b\d{1,2}\s?(?:uhr|uur)\b|(?<![\d.+-])(?<!\d )0\d[0-5]\d(?!\s?\d|[.-]\d)"
)
"""A time that nothing could read."""
_OF_WEEKDAY: Final = re.compile(
    r"[^\W\d_]{2,}\.?\s*[:|–—-]\s*(?!(?i:closed|open\b|by appointment))[^\W\d_]{2}"
)
"""A word, and what is on: `Monday: swimming`."""
OF_ALL: Final = re.compile(
    r"(?i)(?:^|[.;]\s+)(?:all|both|each|every)\s+(?:\w+\s+){0,2}(?:events?|concerts?|talks?|meetings?|sessions?|matches|games?|lectures?|films?|classes|walks?|services?|evenings?|rehearsals?|practices?|training|courses?|lessons?|fixtures?|trips?|days?|dates?|times?|workshops?|performances?|shows?)\b|"
    r"(?:^|[.;]\s+)(?:all|both|each|every(?:thing|one|body)?)\s+(?:from|at|starts?|begins?|runs?|are|is|will|lasts?|between|\d)\b|"
    r"^we (?:\w+ )?(?:meet|gather|practi[sc]e|rehearse|train|row|sail|sing|start|begin)\b|"
    r"\bunless (?:otherwise )?(?:stated|shown|noted|indicated)\b|^(?:times?|start|kick-?off|doors)\b.*\b(?:all|each|every)\b|^(?:daily|each day|every day)\s+(?:from\s+)?\d"
)
"""Words by which a line says something of all others."""
FROM_NOW: Final = re.compile(
    r"(?i)\b(?:tomorrow|tonight|(?:this|next|the coming)\s+(?:(?:mon|tues|wednes|thurs|fri|satur|sun)day|week|weekend|morning|afternoon|evening)|morgen|heute|demain|ce soir|mañana|hoy|(?:lun|mar|mercre|jeu|vendre|same)di prochain|dimanche prochain|(?:nächste[nrs]?|kommende[nrs]?)\s+(?:woche|(?:mon|diens|donners|frei|sams|sonn)tag|mittwoch))\b"
)
"""Words for a day that count from when a text was written."""


_OF_MONTH: Final = re.compile(
    r"(?i)\W*(?:the\s+)?(?:first|second|third|fourth|last|[1-4](?:st|nd|rd|th))\s+(?P<day>[^\W\d_]{3,})\.?(?:\s+(?:of|in)\s+\w+(?:\s+\w+)?)?\s*[:|–—-]\s*[^\W\d_]{2}"
)
"""A weekday by its number in a month, and what is on: `First Saturday – Market`."""
_FROM_ANOTHER: Final = re.compile(
    r"(?i)\b(?:an?|one|two|three|\d{1,2})\s+(?:days?|weeks?|months?|fortnights?)\s+(?:later|after(?:wards)?|earlier|before)\b|"
    r"\bthe\s+(?:following|next)\s+(?:day|week|month|morning|afternoon|evening|(?:mon|tues|wednes|thurs|fri|satur|sun)day)\b|"
    r"\b(?:eine?|zwei|drei)\s+(?:tage?|wochen?)\s+später\b|\b(?:une?|deux|trois)\s+(?:jours?|semaines?)\s+plus\s+tard\b"
)
"""Words for a day that count from that of another event."""


_EACH: Final = re.compile(
    r"(?i)\b(?:(?:every|each)\s+(?:other\s+|second\s+)?(?:week|month|fortnight|(?:mon|tue|wed|thu|fri|sat|sun)\w*)\b|"
    r"(?:first|second|third|fourth|last|[1-4](?:st|nd|rd|th))\s+(?:mon|tue|wed|thu|fri|sat|sun)\w*\s+(?:of|in)\b)"
)
"""On which days again and again what stands before is on: `Fire alarms first Mon of each quarter`."""
_WORD: Final = re.compile(r"[^\W\d_]{3,}\W")
_DAYS_ALONE: Final = re.compile(
    r"(?i)\b\d{1,2}(?:st|nd|rd|th)\s*(?:[-–—&]|to|and|or|until|till)\s*(?:the\s+)?\d{1,2}(?:st|nd|rd|th)\b|"
    r"\bon\s+(?:the\s+)?\d{1,2}(?:st|nd|rd|th)?\s*(?:or|and|&|,)\s*(?:the\s+)?\d{1,2}(?:st|nd|rd|th)?\b(?![.:]\d)|"
    r"\b(?:on|by|until|from)\s+the\s+\d{1,2}(?:st|nd|rd|th)\b(?!\s+(?:floor|of\b|[^\W\d]))"
)
"""Days without their month: `closed 21st to 3rd`, `not on 22 or 29`."""
TO_FOLLOW: Final = re.compile(
    r"(?i)\b(?:tb[acd]|to be (?:arranged|announced|confirmed|decided|agreed)|dates? to follow|wird noch bekannt\w*|à confirmer|por confirmar)\b"
)
"""Words for a day that is not known yet."""


def _repeats_behind_words(text: str) -> bool:
    """Whether a text says how often something is on that it names before."""
    *_, last = None, *_EACH.finditer(text)
    return last is not None and _WORD.search(text[: last.start()]) is not None


def left_open(
    line: TextLine, lexicon: Lexicon, follows_time: bool, heads: bool, opens: bool
) -> Refusal | None:
    """Why such a line may be an event; None for a note. `follows_time`: it stands right below a line with a time, under a date;
    `heads`: others with a date or a time stand under it; it `opens` a paragraph."""
    if is_like_a_date(line.text, lexicon) or _DATE_IN_FIGURES.match(line.text):
        return linerefusals.UNREAD
    if (
        (part := _PART_OF_MONTH.match(line.text))
        and fold(part["month"]) in lexicon.months
        and not is_sentence(line)
    ):
        return linerefusals.UNREAD
    if _CLOCK_IN.search(line.text) and not is_sentence(line):
        return linerefusals.UNREAD
    if _OF_WEEKDAY.match(line.text) and begins_with_weekday(line.text, lexicon):
        return linerefusals.NO_WEEK
    if line.is_bullet or not is_sentence(line):
        if _FROM_ANOTHER.search(line.text) or SAME_TIME.search(line.text):
            return linerefusals.FROM_ANOTHER
        if _DAYS_ALONE.search(line.text):
            return linerefusals.UNREAD
        if not (heads and opens) and _repeats_behind_words(line.text):
            return linerefusals.REPEATED
    if (named := _OF_MONTH.match(line.text)) is not None and fold(named["day"]).removesuffix(
        "s"
    ) in lexicon.weekdays:
        return linerefusals.OF_MONTH
    if follows_time and _HOUR_FIRST.match(line.text):
        return linerefusals.HOUR
    return linerefusals.NUMBERED if OF_WEEK.match(line.text) and not heads else None


def why_asked(text: str) -> Refusal | None:
    """Why a sentence that says a time and no date is asked about: it is of all events, or counts from today; None where it is of none."""
    if OF_ALL.search(text):
        return linerefusals.OF_ALL_TIMES
    return linerefusals.FROM_NOW if FROM_NOW.search(text) else None
