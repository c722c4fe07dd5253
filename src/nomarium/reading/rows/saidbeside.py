"""What the words beside a repeat say of when it is held, its title and its notes: from when, until when, not when, how often. What is not
understood stops the row: it would be held on other days than it says."""

import datetime as dt
import re
from collections.abc import Iterable
from typing import Final, NamedTuple

from nomarium.model.problem import Problem, note
from nomarium.model.recurrence import Rule
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.dates import Day, Days, read_days
from nomarium.reading.cells.oftenwords import SOME_WEEKS
from nomarium.reading.cells.repeats import Repeat
from nomarium.reading.cells.words import Lexicon
from nomarium.reading.rows.barred import barred_in, days_at_start
from nomarium.reading.rows.when import Blame

_BEGINS: Final = re.compile(
    r"(?i)(?<![\w-])(?:starts?|starting|begins?|beginning|commenc(?:es|ing)|first (?:class|session|lesson|meeting|date|one)|from|ab|à partir du|dès le)\s*:?\s+(?:(?:on|from|the)\s+)*"
)
_ENDS: Final = re.compile(
    r"(?i)(?<![\w-])(?:until|till|til|ends?|ending|finish(?:es|ing)?|last (?:class|session|lesson|meeting|date|one)|up to|through|bis|jusqu['’]au)\s*:?\s+(?:(?:on|the)\s+)*"
)
_PARTS: Final = r"[;,.()\[\]\n–—]|\s-\s"
_DAY: Final = r"(?:mon|tues?|wed(?:nes)?|thu(?:rs)?|fri|sat(?:ur)?|sun)(?:day)?s?"
_NTH: Final = r"(?:1st|2nd|3rd|4th|5th|first|second|third|fourth|fifth|last)"
_OFTEN: Final = re.compile(
    rf"(?i)(?:held\s+|meets\s+|runs\s+)?(?:{SOME_WEEKS}|every (?:other|second|2nd|third|3rd|fourth|4th) {_DAY}|alternat(?:e|ing) {_DAY}|alt\.? {_DAY}|"
    rf"monthly|{_NTH}(?:\s*(?:&|and|/|\+)\s*{_NTH})* {_DAY}(?: (?:of|in) (?:the|each|every) month| monthly)?|weeks? [a-d]|weeks? \d{{1,2}}(?:\s*(?:&|and|-|to)\s*\d{{1,2}})*|one[- ]off|once|"
    r"\d{1,2} (?:weeks?|sessions?|classes|lessons|meetings)(?: (?:course|programme|program|block))?)(?:\s+only)?(?:\s+(?:from|starting|beginning|with)\b.*)?"
)
"""A clause that says how often, and nothing else."""
TERM_TIME: Final = re.compile(
    r"(?i)\b(?:in |during )?term[- ]?time only\b|\bterm only\b|\bduring term(?:[- ]?time)?\b|\b(?:außer|nicht) (?:in )?(?:den )?(?:schul)?ferien\b|"
    r"\bnur (?:in|während) der schulzeit\b|\b(?:hors|sauf|excepté)(?: pendant)?(?: les)? vacances(?: scolaires)?\b|\b(?:en|pendant la) période scolaire\b|"
    r"\b(?:salvo|excepto)(?: en)?(?: las)? vacaciones\b|\b(?:escluse|tranne|eccetto)(?: le)? vacanze\b|\b(?:niet|behalve) in (?:de )?(?:school)?vakanties?\b|"
    r"\bexceto(?: nas)? férias\b|\b(?:inte|ej) (?:på )?lov\b"
)
_ONLY: Final = re.compile(r"(?i)\s*(?:only|alone)\b")
_ALSO: Final = re.compile(r"(?i)\b(?:also|plus|extra|additional)(?:\s+[^\W\d_]+)?(?:\s+on)?\s*:?\s+(?=.*\d)")


class Heard(NamedTuple):
    """What words beside a repeat come to."""

    left_out: tuple[Days, ...] = ()
    notes: tuple[Problem, ...] = ()


class Held(NamedTuple):
    """When a row is held without its words."""

    repeat: Repeat | None
    """What its cell of repeats says; None where its date does."""
    rule: Rule | None
    first: dt.date

    @property
    def is_of_each_week(self) -> bool:
        """Whether it is of every week or day, so that words could say more."""
        rule = self.repeat.rule if self.repeat is not None else self.rule
        return rule is None or (rule.interval == 1 and rule.freq in ("DAILY", "WEEKLY"))

    @property
    def is_counted(self) -> bool:
        """Whether it says itself how many times, or how long."""
        of_cell = self.repeat is not None and (self.repeat.times or self.repeat.span)
        return bool(of_cell) or (self.rule is not None and self.rule.times is not None)

    def agrees(self, day: Day, is_first: bool) -> bool:
        """Whether a first or a last day is that of the row, or the row says another one itself, which counts."""
        if self.repeat is not None and (self.repeat.first if is_first else self.repeat.last) is not None:
            return True
        until = self.rule.until if self.rule is not None else None
        edge = self.first if is_first else until
        return edge is not None and any(
            (one.month, one.day) == (edge.month, edge.day) for one in day.readings
        )


def heard_beside(
    held: Held, words: Iterable[tuple[str, str]], lexicon: Lexicon, knows_days_off: bool
) -> Heard | Blame:
    """What the words beside a repeat say of when it is not held, (field, text) each; a blame for what they say that the row does not."""
    left_out, notes = list[Days](), list[Problem]()
    for field, text in words:
        if not text or len(text) > _LONGEST:
            continue
        barred = barred_in(text, lexicon)
        if barred is not None:
            if barred.are_holidays and knows_days_off:
                continue
            if barred.are_holidays:
                return Blame(field, _holidays(barred.text))
            if barred.days is None:
                message = f"“{barred.text}” says when the row is not held, and its days cannot be read."
                remedy = "Write them like “not 15 February 2027”, or into a column “Except”."
                return Blame(field, Refusal("except-unread", message, remedy))
            left_out += barred.days
            message = f"“{barred.text}” in the words of a row leaves these dates out of it."
            notes.append(note("except-said", message, "If it does not, take the words out."))
            continue
        if not knows_days_off and (of_term := TERM_TIME.search(text)) is not None:
            return Blame(field, _holidays(of_term[0]))
        if clause := says_more(text, held, lexicon):
            return Blame(field, _unread(clause))
    return Heard(tuple(left_out), tuple(notes))


_LONGEST: Final = 300
"""Longer texts are descriptions of what is on."""


def says_more(text: str, held: Held, lexicon: Lexicon) -> str:
    """The clause of a text by which something is held in fewer weeks, or on other days, than `held` says; nothing where none does."""
    return _how_often(text, held, lexicon) or _bounded(text, held, lexicon)


def _holidays(clause: str) -> Refusal:
    message = f"“{clause}” leaves out holidays, and nothing says when they are."
    remedy = "Give --days-off FILE or --public-holidays CODE; or take the words out."
    return Refusal("days-off-missing", message, remedy)


def _unread(clause: str) -> Refusal:
    message = f"“{clause}” seems to say when the row is held, and the row would be held on other days, too."
    remedy = "Say it where the days are said: “Mondays fortnightly from 15 February 2027”; or give the row its First day and its Last day; if it says nothing of when, take the words out."
    return Refusal("held-unread", message, remedy)


def _how_often(text: str, held: Held, lexicon: Lexicon) -> str:
    """The clause of a text that says how often, or on which dates alone or besides, where the repeat itself is of every week or day;
    nothing for none."""
    if not held.is_of_each_week:
        return ""
    for part in (part.strip() for part in re.split(_PARTS, text)):
        if _OFTEN.fullmatch(part) and not (held.is_counted and part[:1].isdigit()):
            return part
    first = re.search(r"\d", text)
    said, is_dated = days_at_start(text[first.start() :], lexicon) if first is not None else ("", False)
    if first is not None and is_dated and _ONLY.match(text[first.start() + len(said) :]):
        return f"{said} only"
    also = _ALSO.search(text)
    is_other = also is not None and days_at_start(text[also.end() :], lexicon)[1]
    return text[also.start() :].strip() if also is not None and is_other else ""


def _bounded(text: str, held: Held, lexicon: Lexicon) -> str:
    """The clause of a text that says another first or last day than the row; nothing where none does."""
    for pattern, is_first in ((_BEGINS, True), (_ENDS, False)):
        for match in pattern.finditer(text):
            said, is_dated = days_at_start(text[match.end() :], lexicon)
            days = read_days(said, lexicon) if said and is_dated else None
            if isinstance(days, Days) and not days.rest and not held.agrees(days.first, is_first):
                return f"{match[0]}{said}"
    return ""
