"""A date among other words: `Regatta, Sat 12 September, 10am, main slip`."""

import re
from itertools import accumulate
from typing import Final, NamedTuple

from nomarium.reading.cells.moments import Moment, read_moment
from nomarium.reading.cells.othermonths import with_months_of
from nomarium.reading.cells.words import Lexicon, fold

COUNTED = frozenset(
    "week day year room period term round heat match game session lesson class leg stage part unit no nr issue volume vol edition bulletin number runde spieltag journee jornada".split()
)
"""Words whose number is none of a date."""
_EVENTS = frozenset(("day", "match", "game", "session", "lesson"))
"""Words that end a title before its date as often as they are counted."""
_LEADS_ON = frozenset(("a", "the", "of", "la", "le", "el", "der", "den", "del", "dal"))
"""Words that a date may hold, and that begin what follows where they stand last."""
_MOST_OF_DATE = 16
"""Words of the longest range of dates with its times."""
_LEAST_UNKNOWN = 4
"""Letters from which on an unknown word is none that a date begins or ends with."""
_AROUND_DATES = frozenset(
    "from between until till since week weeks semaine woche semana settimana desde vanaf noon midday midnight hours heures horas stunden "
    "morning afternoon evening beginning commencing starting ending".split()
)
_WITHIN_DATES = _AROUND_DATES | frozenset(
    "through thru hasta vanaf inclusive beginnend onward onwards hour heure hora year gada godine roku circa partir starts start "
    "godz godzina orele pukul dalle alle clock midi mittag mittags mediodia minuit mitternacht medianoche middernacht middag "
    "confirmed announced decided unknown confirmar confirmer bepalen full whole toute journee entiere ganztagig ganztags todo hele "
    "allday".split()
)
"""Words of four letters or more that stand between the first and the last word of a date with its times."""
_DENIED = frozenset("no not without except excluding skip kein keine keinen sin geen sem ingen".split())
_HELD = frozenset(("class", "lesson", "session", "game", "match"))
"""What is not held on a day, where the other words stand before: its number counts nothing."""
_MOST_TERMS = 6
"""Above it a number behind `term` is a day: `Half term 26 October`."""
_OF_TERMS = frozenset(
    "autumn winter spring summer fall michaelmas hilary trinity lent easter half first second third".split()
)
"""Words that name a term, whose number is that of a day: `Spring term 5 January`."""
_CLOCK_AFTER = re.compile(r"(?i)(?:[ap]\.?m\b|uhr\b|uur\b|hrs?\b|o['’]clock\b|heures?\b|horas?\b)")
"""Words behind figures that are a time, `7.30 pm`."""
_NAMED = frozenset(
    "good easter palm whit shrove ash maundy holy black cyber boxing pancake advent remembrance mothering trinity rose spy".split()
)
"""Words that make a weekday behind them the name of a feast."""
_COUNTED_BY_DASH = re.compile(r"\d{1,2}\s*[-–—:]\s*([^\W\d_]{2,})")
"""A number, and a weekday behind a dash."""
_EDGES: Final = " ,;:()–—-"
_SPAN = (
    r"(?i)(?<![\w.:/-])(?:[01]?\d|2[0-4])(?:[.:][0-5]\d)?(?:\s?[ap]\.?m\b\.?)?\s?(?:[–—-]|to|till?|until)\s?"
    r"(?:[01]?\d|2[0-4])(?:[.:][0-5]\d)?(?P<half>\s?[ap]\.?m\b)?(?![\w/]|[.:]\d)"
)

_DOTTED_TIME: Final = re.compile(r"(?:[01]?\d|2[0-4])\.(?:00|1[3-9]|[2-5]\d)")
"""Two figures with a dot between them that are a time: no one writes the month before a day so."""
_OTHER_DAYS: Final = re.compile(
    r"(?i)(?<![\d.:/-])\b(?:\d{1,2}(?:st|nd|rd|th)?\s*(?:,|&|\+|\band\b|\bet\b|\bund\b)\s*(?:and\s+)?)+$"
)
"""Days before the last one of a date, `12, 13 and`."""
_YEAR: Final = re.compile(r"(?:19|20)\d\d\b(?!\s?[-–:.h])")
_NUMBERED = frozenset(
    "group table team set court lane grade form section bay gate crew boat squad pool block floor slip loft shed berth dock hall studio lab "
    "gruppe groupe grupo gruppo equipe tisch halle raum salle sala zimmer".split()
)
"""Words that a number stands behind, `Group 2, 7 December`; `Group 2 October` is none of it."""
_COUNTS = frozenset(("for", "of", "nos", "numbers", "per", "x"))
"""Words before a number of people or things, `Tea for 12, 28 January`."""
_NUMBER_FIRST = re.compile(r"\d{1,2}\s*,\s*")
LEADING_WORDS: Final = frozenset(
    "from on by until till the du dal del il el vom von ab am bis van tot vanaf den dès le".split()
)
"""What leads to a date with which a line begins."""


class DateWithin(NamedTuple):
    """A date among other words."""

    moment: Moment
    rest: str
    """What stands around it; a zero character is where it stood."""
    text: str
    """The date as it is written."""


def date_within(text: str, lexicon: Lexicon) -> DateWithin | None:
    """The longest run of words that is a date or a range of dates, and what stands around it."""
    words = text.split()
    lexicon = with_months_of(words, lexicon)
    anchors = [n for n, word in enumerate(words) if _may_be_in_date(word, lexicon)]
    if not anchors:
        return None
    open_ends = [_is_of_dates(word, lexicon, _AROUND_DATES) for word in words]
    strange = [0, *accumulate(not _is_of_dates(word, lexicon, _WITHIN_DATES) for word in words)]
    clocks = _words_of_spans(words, lexicon)
    for size in range(min(len(words) - 1, _MOST_OF_DATE), 0, -1):
        for at in range(len(words) - size + 1):
            end = at + size
            if not (open_ends[at] and open_ends[end - 1] and any(at <= n < end for n in anchors)):
                continue
            if strange[end] > strange[at] and "(" not in "".join(words[at:end]):
                continue  # a remark may stand in brackets
            piece = " ".join(words[at:end]).strip(_EDGES)
            if piece.endswith((").", ")!", ")?")) and piece.count(")") > piece.count("("):
                piece = piece[:-2].rstrip(_EDGES)  # the sentence ends behind a bracket that began before
            if not any(map(str.isdigit, piece)) or _is_cut(words, at, end, piece, lexicon):
                continue
            if clocks and _is_of_spans(words, clocks, at, end):
                continue
            moment = read_moment(piece, "date", lexicon)
            if not isinstance(moment, Moment) or moment.first is None:
                continue
            if moment.first.has_short_year and _YEAR.match(" ".join(words[end : end + 1])):
                continue  # Slip 2 May 25, 2026
            return DateWithin(moment, " ".join([*words[:at], "\0", *words[end:]]), piece)
    return None


def _is_cut(words: list[str], at: int, end: int, piece: str, lexicon: Lexicon) -> bool:
    """Whether words from one on, before another, are no date as they stand among the others: a bracket is left open, or the first or
    the last of them belongs to what stands beside."""
    whole = " ".join(words[at:end])
    if whole.lstrip("(").count("(") > whole.count(")") or piece.count(")") > piece.count("("):
        return True  # Fri 18 Dec (noon dismissal): what is in brackets stays whole; Quiz (doors 6.30) 7pm
    first, before, after = fold(piece.split()[0]), fold(words[at - 1]) if at else "", words[end : end + 1]
    if first in COUNTED:
        return True
    named = at > 1 and fold(words[at - 2]) in _OF_TERMS and before == "term"
    denied = at > 1 and fold(words[at - 2]).strip("(") in _DENIED and before in _HELD  # No class 12 October
    if at and whole[0].isdigit() and not (named or denied) and _is_counted(before, piece, words[end:]):
        return True  # Round 1 – 5 September: no range
    counted = _COUNTED_BY_DASH.match(whole) if at else None
    if counted and fold(counted[1]) in lexicon.weekdays and not _names_day(words[at - 1], lexicon):
        return True  # Inset 3 - Friday 23rd October: no range
    if before in _NAMED and first.strip(",") in lexicon.weekdays:
        return True  # Good Friday 26 March 2027
    if re.fullmatch(r"\d{1,2}\.\d{1,2}", piece.split()[-1]) and _CLOCK_AFTER.match("".join(after)):
        return True  # at 7.30 pm
    return (
        _DOTTED_TIME.fullmatch(piece.strip(" |")) is not None  # Lunch will be at 12.30
        or re.search(r"\d\.\d{1,2}\.,? \d{1,2}\.$", piece) is not None  # 13.12. 3. Advent
        or piece.endswith(" we")  # On 14 September we are holding …: no Wednesday
        or words[end - 1].casefold() in _LEADS_ON  # 9.30am A day out
        or _ends_with_count(piece, after, lexicon)
    )


def _ends_with_count(piece: str, after: list[str], lexicon: Lexicon) -> bool:
    """Whether the number that ends a date with all that it needs counts what follows, `11 January 2027, 2 sessions`, and is no hour."""
    date, _, number = piece.rpartition(" ")
    if (
        not re.fullmatch(r"\d{1,2}\.?", number)
        or not after
        or not after[0][0].isalpha()
        or _CLOCK_AFTER.match(after[0])
        or (number.endswith(".") and date[-1:].isalpha())  # a las 11. Regata
    ):
        return False
    moment = read_moment(date.rstrip(" ,;:–—-"), "date", lexicon)
    return isinstance(moment, Moment) and moment.first is not None and moment.start is None


def with_days_before(found: DateWithin, lexicon: Lexicon) -> tuple[str, str, str]:
    """A date with the other days that stand before it, `12, 13 and 14 October`, `Fri 18 & Sat 19 October`; and what stands
    before and after it."""
    before, _, after = found.rest.replace("·", "").partition("\0")
    date, at = found.text, _start_of_days(before, found.text, lexicon)
    if at is not None:
        *words, last = before[:at].split() or [""]
        weekday = f"{last} " if fold(last).strip(".,") in lexicon.weekdays else ""
        date = f"{weekday}{before[at:].strip()} {found.text}"
        before = " ".join(words) if weekday else before[:at]
    return " ".join(date.replace("|", " ").split()).strip(" ,;:–—-"), before, after


def names_several(found: DateWithin, lexicon: Lexicon) -> bool:
    """Whether other days stand before a date, so that it is not the only one."""
    return _start_of_days(found.rest.partition("\0")[0], found.text, lexicon) is not None


def _start_of_days(before: str, date: str, lexicon: Lexicon) -> int | None:
    """Where earlier days of the month of a date begin in what stands before it. In `no. 12, Friday 2 October`, `Group 2, 7
    October` and `Loft 1, from 6 October` numbers count something, and so does one before a weekday that it has not."""
    others = _OTHER_DAYS.search(before)
    if others is None or fold(date.split()[0]) in LEADING_WORDS:
        return None
    at, words = others.start(), before[: others.start()].split()
    word = fold(words[-1]).strip(".,(") if words else ""
    if word in COUNTED or (
        fold(date.split()[0]).strip(".,") in lexicon.weekdays and word not in lexicon.weekdays
    ):
        return None  # Tea for 12, Thu 28 January
    if word in _NUMBERED | _COUNTS and (number := _NUMBER_FIRST.match(before, at)) is not None:
        at = number.end()
    listed = re.findall(r"\d{1,2}", before[at:])
    days = [int(number) for number in (*listed, *re.findall(r"\d{1,2}", date)[:1])]
    return at if listed and days == sorted(set(days)) else None


def _names_day(word: str, lexicon: Lexicon) -> bool:
    bare = fold(word).strip(".,;:()")
    return bare in lexicon.weekdays or bare in lexicon.months


def _may_be_in_date(word: str, lexicon: Lexicon) -> bool:
    """Whether a word can be what makes a text a date: the name of a month, or figures with a sign or letters among them."""
    if any(map(str.isdigit, word)):
        return (
            re.search(r"\d[-/.]\w|\d{8}|\d\D*[^\W\d_]{3}|[^\W\d_]{3}\D*\d", word) is not None
            or not word.isascii()
        )
    return any(part in lexicon.months for part in re.split(r"['’/–-]", fold(word).strip(".,;:()")))


def _is_of_dates(word: str, lexicon: Lexicon, known: frozenset[str]) -> bool:
    """Whether a date can have a word: one of four letters or more that is no name of a day or a month cannot, but for those
    that are `known`."""
    bare = word.strip(".,;:()")
    if len(bare) < _LEAST_UNKNOWN or not bare.isascii() or not bare.isalpha():
        return True
    folded = fold(bare)
    return folded in lexicon.months or folded in lexicon.weekdays or folded in known


def _is_counted(word: str, piece: str, after: list[str]) -> bool:
    """Whether a number after a word is not that of a day: `Round 1 – 5 September`, `Year 9 May ball`, `Day 3 October 5`; that of
    `Open day 17 October` is."""
    has_other = bool(after) and re.match(r"\d{1,2}\b(?![:.]\d)", after[0]) is not None
    number = re.match(r"\d+", piece)
    if word == "term" and number is not None and int(number[0]) > _MOST_TERMS:
        return False
    return word in COUNTED and (
        word not in _EVENTS or has_other or re.match(r"\d+\s*[–—-]", piece) is not None
    )


def _words_of_spans(words: list[str], lexicon: Lexicon) -> list[tuple[int, int]]:
    """From which word to which, exclusive, a text has times from one to another, `8.30 – 10.30am`, that are no days."""
    text, at = " ".join(words), 0
    found: list[tuple[int, int]] = []
    pattern = re.compile(_SPAN)
    while match := pattern.search(text, at):
        at = match.end()
        if _is_day_of(text[: match.start()], lexicon):  # September 9 – 2:00 PM
            at = match.start() + 1 + match[0][1:2].isdigit()
            continue
        figures = [int(number) for number in re.findall(r"\d+", match[0])]
        if match["half"] or ":" in match[0] or ("." in match[0] and not all(1 <= n <= 12 for n in figures)):
            found.append((text.count(" ", 0, match.start()), text.count(" ", 0, match.end()) + 1))
    return found


def _is_day_of(before: str, lexicon: Lexicon) -> bool:
    """Whether what stands before a number is a month without a day of its own: the number is that."""
    said = re.search(r"(?:(\d{1,2})(?:st|nd|rd|th|\.)?\s+(?:of\s+)?)?([^\W\d_]{3,})\.?\s$", before)
    return said is not None and not said[1] and fold(said[2]) in lexicon.months


def _is_of_spans(words: list[str], spans: list[tuple[int, int]], first: int, end: int) -> bool:
    """Whether a run of words cuts a span of times, begins with it, or has no figures but those of spans."""
    if any(a == first for a, _ in spans):
        return True
    if any(a < end and first < b and not (first <= a and b <= end) for a, b in spans):
        return True
    return not any(
        any(map(str.isdigit, words[n])) for n in range(first, end) if not any(a <= n < b for a, b in spans)
    )
