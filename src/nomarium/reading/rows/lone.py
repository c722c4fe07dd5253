"""Rows that hold one text alone, written across the table: `SCHOOL CLOSED 13 April`, `Last updated 3 March`."""

import re
from typing import NamedTuple

from nomarium.model.event import Event
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.moments import Moment, read_moment
from nomarium.reading.cells.partmemo import last_of_range
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.columns.decisions import Decisions, resolve_day
from nomarium.reading.rows.when import Blame, Part, Said, settle
from nomarium.reading.rows.whenreader import WhenReader

_BOOKKEEPING = (
    r"(?i)\b(?:last\s+(?:updated?|changed?|modified|revised|saved)|(?:up)?dated?|updated|printed|revised|version|as\s+(?:of|at)|"
    r"correct\s+(?:as\s+)?(?:of|at)|created|modified|generated|issued|stand|mise?\s+à\s+jour|aktualisiert|page|valid\s+from|subject\s+to)\b"
)
_JOINTS = r"(?:on|from|the|le|du|am|vom|den|de|el|dal|op|van|om|für|for)"
COUNTED = frozenset(
    "week day year room period term round heat match game session lesson class leg stage part unit no nr issue volume vol edition bulletin number runde spieltag journee jornada".split()
)
"""Words whose number is none of a date."""
_EVENTS = frozenset(("day", "match", "game", "session", "lesson"))
"""Words that end a title before its date as often as they are counted."""
_MOST_WORDS = 25
"""Words of a row of a table that says an event by itself; more are a remark."""
_MOST_OF_DATE = 16
_LEAST_UNKNOWN = 4
_AROUND_DATES = frozenset(
    "from between until till since week weeks semaine woche semana settimana desde vanaf noon midday midnight hours heures horas stunden "
    "morning afternoon evening beginning commencing starting ending".split()
)
_MOST_TERMS = 6
_NAMED = frozenset(
    "good easter palm whit shrove ash maundy holy black cyber boxing pancake advent remembrance mothering trinity rose spy".split()
)
"""Words that make a weekday behind them the name of a feast."""
_SPAN = (
    r"(?i)(?<![\w.:/-])(?:[01]?\d|2[0-4])(?:[.:][0-5]\d)?(?:\s?[ap]\.?m\b\.?)?\s?(?:[–—-]|to|till?|until)\s?"
    r"(?:[01]?\d|2[0-4])(?:[.:][0-5]\d)?(?P<half>\s?[ap]\.?m\b)?(?![\w/]|[.:]\d)"
)


def lone_event(text: str, decisions: Decisions) -> tuple[str, Part] | Refusal | None:
    """The title and the days of an event that a lone text names; why not, where its date cannot be settled. None when it
    names none: it has no date, nothing but a date, or keeps the books of the table."""
    if keeps_books(text) or not any(map(str.isdigit, text)) or text.count(" ") >= _MOST_WORDS:
        return None
    found = date_within(text, decisions.lexicon)
    if found is None:
        return None
    moment = found.moment
    title = _tidy(found.rest)
    if sum(map(str.isalpha, title)) < 2 or moment.first is None:
        return None
    first = resolve_day(moment.first, decisions)
    if isinstance(first, Refusal):
        return first
    last = last_of_range(moment.last, first, decisions) if moment.last is not None else None
    if isinstance(last, Refusal):
        return last
    if last is not None and last < first:
        return Refusal("end-before-start", f"“{found.text}” ends before it starts.", "Correct the date.")
    part = Part(first, last, moment.start, moment.end, moment.is_all_day, moment.is_unknown)
    return title, part


def event_said_alone(text: str, when: WhenReader, number: int) -> Event | Refusal | None:
    """The event of a row of this number that holds this text and nothing else; None when it says none."""
    said = lone_event(text, when.reading.decisions)
    if said is None or isinstance(said, Refusal):
        return said
    title, part = said
    settled = settle(
        Said(date=part, zone_name=when.zone_name, zone=when.zone), when.reading.options.length_secs
    )
    if isinstance(settled, Blame):
        return None
    return Event(title, settled.start, settled.end, settled.zone, row_number=number)


def keeps_books(text: str) -> bool:
    """Whether a text speaks of the table itself: when it was changed, printed or is valid."""
    return re.search(_BOOKKEEPING, text) is not None


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
    anchors = [n for n, word in enumerate(words) if _may_be_in_date(word, lexicon)]
    if not anchors:
        return None
    open_ends = [_may_begin_date(word, lexicon) for word in words]
    clocks = _words_of_spans(words)
    for size in range(min(len(words) - 1, _MOST_OF_DATE), 0, -1):
        for at in range(len(words) - size + 1):
            if not (open_ends[at] and open_ends[at + size - 1] and any(at <= n < at + size for n in anchors)):
                continue
            piece = " ".join(words[at : at + size]).strip(" ,;:()–—-")
            if not any(map(str.isdigit, piece)) or fold(piece.split()[0]) in COUNTED:
                continue
            if at and piece[0].isdigit() and _is_counted(fold(words[at - 1]), piece, words[at + size :]):
                continue  # Round 1 – 5 September: no range
            if at and fold(words[at - 1]) in _NAMED and fold(piece.split()[0]) in lexicon.weekdays:
                continue  # Good Friday 26 March 2027
            if piece.endswith(" we"):
                continue  # On 14 September we are holding …: no Wednesday
            if clocks and _is_of_spans(words, clocks, at, at + size):
                continue
            moment = read_moment(piece, "date", lexicon)
            if isinstance(moment, Moment) and moment.first is not None:
                return DateWithin(moment, " ".join([*words[:at], "\0", *words[at + size :]]), piece)
    return None


def _may_be_in_date(word: str, lexicon: Lexicon) -> bool:
    """Whether a word can be what makes a text a date: the name of a month, or figures with a sign or letters among them."""
    if any(map(str.isdigit, word)):
        return (
            re.search(r"\d[-/.]\w|\d{8}|\d\D*[^\W\d_]{3}|[^\W\d_]{3}\D*\d", word) is not None
            or not word.isascii()
        )
    return any(part in lexicon.months for part in re.split(r"['’/–-]", fold(word).strip(".,;:()")))


def _may_begin_date(word: str, lexicon: Lexicon) -> bool:
    """Whether a date can begin or end with a word: one of four letters or more that is no name of a day or a month cannot,
    but for those that lead to it, or that times have."""
    bare = word.strip(".,;:()")
    if len(bare) < _LEAST_UNKNOWN or not bare.isascii() or not bare.isalpha():
        return True
    folded = fold(bare)
    return folded in lexicon.months or folded in lexicon.weekdays or folded in _AROUND_DATES


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


def _words_of_spans(words: list[str]) -> list[tuple[int, int]]:
    """From which word to which, exclusive, a text has times from one to another, `8.30 – 10.30am`, that are no days."""
    text = " ".join(words)
    found: list[tuple[int, int]] = []
    for match in re.finditer(_SPAN, text):
        figures = [int(number) for number in re.findall(r"\d+", match[0])]
        if match["half"] or ":" in match[0] or ("." in match[0] and not all(1 <= n <= 12 for n in figures)):
            found.append((text.count(" ", 0, match.start()), text.count(" ", 0, match.end()) + 1))
    return found


def _is_of_spans(words: list[str], spans: list[tuple[int, int]], first: int, end: int) -> bool:
    """Whether a run of words cuts a span of times, begins with it, or has no figures but those of spans."""
    if any(a == first for a, _ in spans):
        return True
    if any(a < end and first < b and not (first <= a and b <= end) for a, b in spans):
        return True
    return not any(
        any(map(str.isdigit, words[n])) for n in range(first, end) if not any(a <= n < b for a, b in spans)
    )


def _tidy(rest: str) -> str:
    """What stands around a date without the signs and small words that joined them."""
    before, _, after = rest.partition("\0")
    before = re.sub(rf"(?i)(?:[\s,;:(–—-]|\b{_JOINTS}\b\.?)+$", "", before.strip())
    after = re.sub(r"^[\s,;:)–—-]+", "", after.strip())
    return " ".join(f"{before} {after}".split()).strip(" ,;:–—-")
