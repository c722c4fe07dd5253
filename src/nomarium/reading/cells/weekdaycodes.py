"""Weekdays as courses write them: `Mon/Wed`, `MWF`, `TTh`, `TR`, `M-F`, `Mo We Fr`. What a doubtful code means is settled
by the other cells of its column, or asked for."""

import re
from collections.abc import Iterable, Iterator, Mapping
from functools import cache
from typing import Final, NamedTuple

from nomarium.model.cell import Cell
from nomarium.model.limits import LONGEST_CELL
from nomarium.model.refusal import Refusal
from nomarium.model.wording import WEEKDAYS, listed
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.sheets.sheet import cell_text

_LETTERS: Final[tuple[tuple[str, int], ...]] = (
    ("M", 0), ("T", 1), ("W", 2), ("R", 3), ("H", 3), ("TH", 3), ("F", 4), ("S", 5), ("U", 6),
    ("MO", 0), ("TU", 1), ("WE", 2), ("FR", 4), ("SA", 5), ("SU", 6),
    ("MON", 0), ("TUE", 1), ("TUES", 1), ("WED", 2), ("THU", 3), ("THUR", 3), ("THURS", 3), ("FRI", 4), ("SAT", 5), ("SUN", 6),
)  # fmt: skip
_BEFORE_SUNDAY: Final = -2
"""Before any day: a Sunday that begins a week is day -1."""
_ALL = {
    "weekdays": range(5),
    "everyday": range(7),
    "daily": range(5),
    "everyweekday": range(5),
    "weekends": (5, 6),
    "weekend": (5, 6),
}
_PARTS = r"\s*(?:[,;/&+·|]|\b(?:and|et|und|y|e|en|och|og|ja|i)\b|(?<=[^\W\d_]{2}[\s.])\s*u\.?(?=\s+[^\W\d_]{2})|\s)\s*"
"""What stands between weekdays. `Di u. Do` has an *and*, `S U` a Sunday."""
_EVERY = (
    r"(?i)^(?:every|each|weekly(?: on)?|on|from|chaque|tous les|les?|du|jeden?|von|todos (?:los|os)|todas as|los|el|de|cada|"
    r"dal?|ogni|van|elke|från|fra|varje|hver)\s+(?=\w)"
)
_RANGE = r"(?i)\s*(?:[-–—]|(?<=[^\s,;/&+])\s+(?:to|through|thru|t/m|bis|au|à|al?|ao|tot|till?)\s+(?=\w))\s*"
"""What stands between the first and the last weekday. `ti og to` ends with a Thursday."""
_EXCEPT = (
    r"(?i)\s*[,;(]?\s*\b(?:except(?:ing)?|excluding|excl?\b\.?|but not|not|sauf|außer|ausser|ohne|excepto|salvo|exceto|eccetto|tranne|"
    r"behalve|utom|undtagen)\s+(?=\S)"
)
"""What stands before the weekdays that others are without, `Mon to Fri except Wed`."""

_AROUND: Final = frozenset(
    "and et und en och og ja every each weekly on from chaque tous les le du jede jeden von todos los os todas as el de cada da dal ogni van "
    "elke fran fra varje hver to through thru bis au al ao tot till til except excluding excl exc but not sauf ausser ohne excepto "
    "salvo exceto eccetto tranne behalve utom undtagen".split()
)
"""Those words (folded) that are no weekdays themselves."""

Days = tuple[int, ...]
"""Weekdays in the order in which they stand, 0 for Monday."""


_Runs = Iterator[tuple[tuple[int, ...], tuple[str, ...]]]


class _Way(NamedTuple):
    """One way to read a code: its days, and the letters that it takes them for."""

    days: Days
    letters: frozenset[str]


class WeekdayCodes:
    """What the cells of one column say about weekdays. `asked` (`--weekdays`) beats what they show."""

    def __init__(self, cells: Iterable[Cell], lexicon: Lexicon, asked: Mapping[str, str] = {}) -> None:
        self._lexicon = lexicon
        self._asked = {code.casefold(): text for code, text in asked.items()}
        self._sure: set[str] = set()
        self.texts = list(dict.fromkeys(text for cell in cells if (text := cell_text(cell))))
        for text in (one for one in self.texts if len(one) <= LONGEST_CELL):
            for part in re.split(_PARTS, text):
                ways = _ways(part)
                if len({way.days for way in ways}) == 1:
                    self._sure |= set.intersection(*(set(way.letters) for way in ways))
        self.are_days = bool(self.texts) and all(
            not isinstance(self.read(one), Refusal) for one in self.texts
        )
        """Whether every filled cell names weekdays and nothing else: only then is a lone `F` or `S` one."""

    def read(self, cell: Cell) -> Days | Refusal:
        """The weekdays of a cell."""
        text = cell_text(cell)
        if len(text) > LONGEST_CELL:
            return _no_days(text)
        if text.casefold() in self._asked:
            return self._of(self._asked[text.casefold()])
        return self._of(text)

    def run_together(self, text: str) -> bool:
        """Whether a text holds weekdays without anything between them, `MWF`, or a code whose meaning was asked for."""
        every = re.split(_PARTS, text)
        parts = [part for part in every if fold(part).strip(".") not in self._lexicon.weekdays]
        is_asked = any(one.casefold() in self._asked for one in (text, *every))
        return is_asked or any(len(way.days) > 1 for part in parts for way in _ways(part))

    def _of(self, text: str) -> Days | Refusal:
        text = text.strip()
        every = re.match(_EVERY, text)
        if every is not None and fold(every[0]).strip() not in self._lexicon.weekdays:  # on & fr: onsdag
            text = text[every.end() :]
        everything = _ALL.get(re.sub(r"[\s-]", "", fold(text)))
        if everything is not None:
            return tuple(everything)
        whole, *less = re.split(_EXCEPT, text, maxsplit=1)
        if whole and less:
            return self._without(whole, less[0].removesuffix(")"))
        found: list[int] = []
        for part in re.split(_PARTS, re.sub(_RANGE, "-", text.strip().removesuffix("."))):
            if not part:
                continue
            days = self._span(part)
            if isinstance(days, Refusal):
                return days
            found += days
        return tuple(dict.fromkeys(found)) or _no_days(text)

    def _without(self, whole: str, less: str) -> Days | Refusal:
        days, others = self._of(whole), self._of(less)
        if isinstance(days, Refusal) or isinstance(others, Refusal):
            return days if isinstance(days, Refusal) else others
        left = tuple(day for day in days if day not in others)
        return left if left and set(others) < set(days) else _no_days(f"{whole}, not {less}")

    def _span(self, part: str) -> Days | Refusal:
        ends = [self._part(end) for end in part.split("-")]
        refusal = next((end for end in ends if isinstance(end, Refusal)), None)
        if refusal is not None:
            return refusal
        known = [end for end in ends if not isinstance(end, Refusal)]
        if len(known) == 1:
            return known[0]
        if all(len(end) == 1 for end in known) and len(known) > 2:  # M-W-F
            return tuple(end[0] for end in known)
        if len(known) != 2 or any(len(end) != 1 for end in known):
            return _no_days(part)
        first, last = known[0][0], known[1][0]
        return tuple((first + n) % 7 for n in range((last - first) % 7 + 1))

    def _part(self, part: str) -> Days | Refusal:
        word = fold(part).strip(" .")
        for known in (word, word.removesuffix("s")):
            if known in self._lexicon.weekdays and len(known) > 2:
                return (self._lexicon.weekdays[known],)
        if part.casefold() in self._asked:
            return self._of(self._asked[part.casefold()])
        ways = _ways(part.strip(" .")) if word != "month" else []  # Mo, n, Th: no code, a word
        if not ways:
            in_words = self._lexicon.weekdays.get(word)
            return _no_days(part) if in_words is None else (in_words,)
        meanings = {way.days for way in ways}
        if len(meanings) > 1:  # the letters that other cells are sure to use settle it
            meanings = {way.days for way in ways if self._fits(way)} or meanings
        if len(meanings) == 1:
            return meanings.pop()
        shown = " or ".join(sorted(listed([WEEKDAYS[day] for day in days]) for days in meanings))
        said = [
            " ".join(WEEKDAYS[day][:3] for day in days)
            for days in sorted(meanings, key=lambda one: (len(one), one))
        ]
        remedy = " or ".join(f'--weekdays "{part}={days}"' for days in said)
        message = f"“{part}” could be {shown}."
        return Refusal("weekday-ambiguous", message, f"Say which: {remedy}.", "several")

    def _fits(self, way: _Way) -> bool:
        """Whether a reading takes letters for what other cells of the column are sure to take them for. Where `TR` is
        Tuesday and Thursday, `TH` is not."""
        for code, single, others in (("TH", "H", ("R",)), ("SU", "U", ())):
            if code not in way.letters and single not in way.letters:
                continue
            if code in self._sure or any(other in self._sure for other in others):
                return code in way.letters
            if single in self._sure:
                return single in way.letters
        return False


def words_of_weekdays(texts: Iterable[str], are_scandinavian: bool = False) -> frozenset[str]:
    """The words (folded) of texts that could be names of weekdays in some language: those that stand between them are none, but for
    `on` and `to`, which are Wednesday and Thursday in Scandinavia."""
    return frozenset(
        word
        for text in texts
        for word in re.findall(r"[^\W\d_]+", fold(text))
        if len(word) > 1 and (word not in _AROUND or (are_scandinavian and word in ("on", "to")))
    )


def _no_days(text: str) -> Refusal:
    return Refusal("weekday-unknown", f"“{text}” names no weekday.", "Write it like Mon/Wed, MWF or Monday.")


@cache
def _ways(text: str) -> tuple[_Way, ...]:
    """Every way to read letters run together as weekdays in the order of the week (`SuTTh` begins with Sunday)."""
    if not text.isascii() or not text.isalpha() or len(text) > 20:
        return ()
    if text != text.upper() and text != text.lower():
        pieces = re.findall(r"[A-Z][a-z]*|[a-z]+", text)  # TuTh: capitals begin a day each
    else:
        pieces = []
    runs = _runs(text.upper(), _BEFORE_SUNDAY, tuple(piece.upper() for piece in pieces))
    return tuple(_Way(tuple(day % 7 for day in days), frozenset(letters)) for days, letters in runs)


def _runs(rest: str, after: int, pieces: tuple[str, ...], had_tuesday: bool = False) -> _Runs:
    """Letters as days that come after one another, each with the letters of its code. A Sunday may begin the week."""
    if not rest:
        yield (), ()
        return
    for letters, day in _LETTERS:
        if not rest.startswith(letters) or (pieces and letters != pieces[0]):
            continue
        places = (-1, day) if day == 6 else (day, 3) if letters == "T" and had_tuesday else (day,)
        for one in places:
            if one > after:
                has_tuesday = had_tuesday or one == 1
                for more, used in _runs(rest[len(letters) :], one, pieces[1:], has_tuesday):
                    yield (one, *more), (letters, *used)
