"""What the sampled cells of one column are, worked out when asked."""

import datetime as dt
import re
from collections.abc import Callable, Iterable, Sequence
from functools import cached_property
from itertools import pairwise

from nomarium.model.cell import Cell
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.choices import read_status
from nomarium.reading.cells.dates import is_stopped_day
from nomarium.reading.cells.halves import without_half, without_session
from nomarium.reading.cells.moments import read_moment
from nomarium.reading.cells.placewords import is_place
from nomarium.reading.cells.times import Times, may_be_class, read_times
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.columns.daycells import begins_week, looks_like_date
from nomarium.sheets.sheet import cell_text

ANSWERS = frozenset("yes no y n true false ✓ ✔ oui non ja nein si".split())
_HALVES = frozenset(
    "am pm eve morning afternoon evening night matin apres-midi soir vormittag nachmittag abend".split()
)
_REPEATING = r"(?i)days\b|\b(?:every|each|weekly)\b"
_OPEN = frozenset(("", "tbc", "tba", "tbd", "-", "–", "—", "n/a", "none"))
"""What stands where there is no date or time, or none yet."""
_HALF = r"(?:\b[ap]\.?m\b|morning|afternoon|evening)"
_CLEAR_TIME = rf"(?i)\d[:h]\d\d|\d\.\d\d ?[-–]|\d ?[ap]\.?m\b|{_HALF}\W{{0,3}}\d{{1,2}}(?:[:.]\d\d| ?[-–] ?\d)|\d[.:]\d\d\W{{0,3}}{_HALF}"
_HAS_CLOCK = r"(?i)\d[.:h][0-5]\d(?!\d)|\d ?[ap]\.?m\b"
_CLOCK = r"(?i)(?:[01]?\d|2[0-4])(?:[.:h][0-5]\d)?(?:[ap]\.?m\.?)?|[ap]\.?m\.?|noon|midday|midnight|and|to|"
"""A time of day, or what stands between two; also nothing."""
_CLOCK_FIGURES = r"(?:[01]?\d|2[0-4])[0-5]\d(?:\s?[-–]\s?(?:[01]?\d|2[0-4])[0-5]\d)?"
_DOTTED = r"\s*\d{1,2}\.\d\d(?:\s?[-–]\s?\d{1,2}\.\d\d)?\s*"
_HALF_DOTTED = r"\s*(?:\d{1,2}\s?[-–]\s?\d{1,2}\.[0-5]\d|\d{1,2}\.[0-5]\d\s?[-–]\s?\d{1,2})\s*"
"""From an hour to another one, of which one has minutes: `10-12.30` is no date, and where it stands `9-11` is none."""
_HOURS = r"\s*(?:1?\d|2[0-4])(?:\.[0-5]\d)?\s?[-–]\s?(?:1?\d|2[0-4])(?:\.[0-5]\d)?\s*"
HOURS_TO_HOURS = r"(?:[01]?\d|2[0-4])(?:[.:][0-5]\d)?\s?[-–]\s?(?:[01]?\d|2[0-4])(?:[.:][0-5]\d)?"
_HOLDS_CLOCK = r"\d[:.h]\d\d|\d\s?[ap]\.?m|\d\s?[-–]\s?\d"
_HOUR = r"(?:[01]?\d|2[0-4])(?:[.:][0-5]\d)?"
_DOTTED_TIME = r"(?:1?\d|2[0-3])\.[0-5][05]"
_DAYS_BEFORE = r"(?i)(?:\d{1,2}(?:st|nd|rd|th)?\s*(?:,|&|\+|and\b|und\b|et\b)\s*)+(?=\d)"
"""Days before the last one of several, `7, 8 and 10 November`."""
_PAIRS = r"(\d+)\.(\d+)"
_SOME_WEEKS = r"(?:un)?gerade|(?:im)?paires?|(?:im|ím)?par(?:es)?|(?:dis)?pari|oneven|o?jämna?|udda|(?:nie)?parzyst[yea]|odd|even|alternate|every other|(?:odd|even|alternate|every other|[a-d1-4]) ?(?:wks?|weeks?)|(?:wks?|weeks?) ?(?:[a-d1-4]|odd|even)"
_OF_WEEKS = r"(?i)\b(?:weeks?|wks?|odd|even|a ?/ ?b|wochen?|semaines?|semanas?|settiman[ae]|weken|vecka|veckor|tydzień)\b"
_CURRENCIES = "£$€"
MOSTLY = 0.8  # the share of a column's cells that must read as something for the column to be taken as it
_BETWEEN_DAYS = r"[\s,;/&+–—-]+(?:(?:and|et|und|to|every|each|on)(?![^\W_]))?|^(?:every|each|on)\s"
_ALL_DAYS = frozenset(("daily", "weekdays", "weekends"))
MOST_DIFFERENT = 100  # different cells of a column that are looked at


_ORDINAL_WORDS = frozenset(("first", "second", "third", "fourth", "fifth"))
_ORDINAL = r"\d{1,3}(?:st|nd|rd|th|\.|e|er|ère|º|ª)|\d{1,3}\s*(?:of|/|von|sur)\s*\d{1,3}"


class Contents:
    """What the sampled cells of one column are, worked out when asked, from the different ones."""

    def __init__(self, cells: Sequence[Cell], lexicon: Lexicon) -> None:
        self.cells = [cell for cell in cells if (cell.strip() if type(cell) is str else cell_text(cell))]
        self.blank = len(cells) - len(self.cells)
        # 1 and True are equal and not the same; texts, most cells by far, are told apart by themselves
        self.different = list(
            {cell if type(cell) is str else (type(cell), cell): cell for cell in self.cells}.values()
        )
        self.lexicon = lexicon

    @cached_property
    def dates(self) -> float:
        """The share of cells that are dates, of those that do not say that there is none yet. Cells such as `4.10` or
        `4.10-4.20` are times, unless one of them can be none."""
        texts = [cell for cell in self.different if isinstance(cell, str) and "." in cell]
        dotted = [match for text in texts if (match := re.fullmatch(_DOTTED, text))]
        are_times = all(
            int(h) < 24 and int(m) < 60 for match in dotted for h, m in re.findall(_PAIRS, match[0])
        )
        are_hours = any(re.fullmatch(_HALF_DOTTED, text) for text in texts)

        def is_date(cell: Cell) -> bool:
            if are_hours and isinstance(cell, str) and re.fullmatch(_HOURS, cell):
                return False
            if are_times and isinstance(cell, str) and re.fullmatch(_DOTTED, cell):
                return False
            return looks_like_date(cell, self.lexicon) or begins_week(cell, self.lexicon)

        return self._share_of_settled(is_date)

    @cached_property
    def are_bare_days(self) -> bool:
        """Whether all cells are two figures, a day and a month or so many of so many, `3/12`."""
        texts = [cell_text(cell) for cell in self.different]
        return bool(texts) and all(re.fullmatch(r"\s*\d{1,2}\s?/\s?\d{1,2}\s*", text) for text in texts)

    @cached_property
    def days(self) -> float:
        """The share of cells that are dates, or several days of a month, `7, 8 and 10 November`."""

        def is_of_days(cell: Cell) -> bool:
            listed = re.match(_DAYS_BEFORE, cell) if isinstance(cell, str) else None
            return looks_like_date(str(cell)[listed.end() :] if listed else cell, self.lexicon)

        return self._share_of_settled(is_of_days)

    @cached_property
    def lists_days(self) -> bool:
        """Whether most cells are dates or several of them, and one is several, `14, 16, 21 September 2026`."""
        from nomarium.reading.columns.datelists import days_in

        share = self._share_of_settled(lambda cell: days_in(cell, self.lexicon) > 0)
        return share >= MOSTLY and any(days_in(cell, self.lexicon) > 1 for cell in self.different)

    @cached_property
    def places(self) -> float:
        """The share of cells that are names of places, as their last words say."""
        return self._share(lambda cell: isinstance(cell, str) and is_place(cell))

    @property
    def begins_with_dates(self) -> bool:
        """Whether some of the first cells is a date: a column of words need not be looked at further."""
        return any(looks_like_date(cell, self.lexicon) for cell in self.different[:3])

    @cached_property
    def times(self) -> float:
        """The share of cells that are times; hours from one to another, `3-4`, where some beside them have minutes."""
        share = self._share_of_settled(_is_time)
        texts = [text for cell in self.different if (text := cell_text(cell)).casefold() not in _OPEN]
        if share and share < 1 and all(re.fullmatch(HOURS_TO_HOURS, text) for text in texts):
            return 1.0
        return share

    @property
    def may_be_classes(self) -> bool:
        """Whether the cells are times only where their heading says so: `7A`, `8A` are classes too."""
        texts = [cell for cell in self.different if isinstance(cell, str)]
        return bool(texts) and all(map(may_be_class, texts))

    @cached_property
    def are_clear_times(self) -> bool:
        """Whether the cells are times, and some can be nothing else: `9A` is a class and `4.10` a room too."""
        return (
            self.times >= MOSTLY
            and (self.numbers < MOSTLY or self._run_through_a_day)
            and any(map(self._can_only_be_a_time, self.different))
        )

    @cached_property
    def say_only_times(self) -> bool:
        """Whether every cell is a time of day, or several, and some can be nothing else: no titles, whatever heads them."""
        texts = map(cell_text, self.different)
        first = cell_text(self.different[0]) if self.different else ""
        return (
            first[:1].isdigit()
            and all(re.fullmatch(_CLOCK, word) for text in texts for word in re.split(r"[\s,&+/–-]+", text))
            and any(re.search(_HAS_CLOCK, cell_text(cell)) for cell in self.different)
        )

    @cached_property
    def date_hours(self) -> bool:
        """Whether a cell is a day with a time of day, `13 Sep 10:00`."""
        moments = (read_moment(cell, "date", self.lexicon) for cell in self.different[:MOST_DIFFERENT])
        return any(not isinstance(moment, Refusal) and moment.start is not None for moment in moments)

    @cached_property
    def show_clocks(self) -> bool:
        """Whether every cell is a time with a colon: rooms have dots."""
        texts = map(cell_text, self.different)
        return bool(self.different) and all(re.fullmatch(r"\d{1,2}:\d\d(?::\d\d)?", text) for text in texts)

    @cached_property
    def are_numbered_rooms(self) -> bool:
        """Whether all cells are a floor and a number, `4.1`, which under another heading could be days."""
        return all(re.fullmatch(r"\d{1,2}\.\d{1,3}[a-z]?", cell_text(cell)) for cell in self.different)

    @cached_property
    def are_clock_figures(self) -> bool:
        """Whether all cells are of three or four figures that a clock can show, or from one to another: `0930`, `0800-1600`."""
        texts = [cell_text(cell) for cell in self.different if cell_text(cell).casefold() not in _OPEN]
        return bool(texts) and all(re.fullmatch(_CLOCK_FIGURES, text) for text in texts)

    @cached_property
    def hold_clear_times(self) -> bool:
        """Whether two of five cells at least are times and nothing else: too many to be words."""
        clear = [cell for cell in self.different if _is_time(cell) and self._can_only_be_a_time(cell)]
        return bool(clear) and len(clear) * 5 >= len(self.different) * 2

    def _can_only_be_a_time(self, cell: Cell) -> bool:
        text = cell_text(cell)
        return re.search(_CLEAR_TIME, text) is not None or (self._run_through_a_day and text in self._dotted)

    @cached_property
    def _dotted(self) -> list[str]:
        texts = map(cell_text, self.different)
        return [text for text in texts if "." in text and re.fullmatch(_DOTTED_TIME, text)]

    @cached_property
    def _run_through_a_day(self) -> bool:
        """Whether three figures or more such as `9.00`, `9.40`, `10.20` run forward by minutes: rooms do not."""
        secs = [
            int(hours) * 60 + int(minutes)
            for text in self._dotted
            for hours, minutes in re.findall(_PAIRS, text)
        ]
        falls = sum(b <= a for a, b in pairwise(secs))
        return len(secs) > 2 and falls <= 1 and len({one % 60 for one in secs}) > 1

    @cached_property
    def weekdays(self) -> float:
        return self._share(self._is_weekday)

    @cached_property
    def timed_weekdays(self) -> float:
        """The share of cells that name weekdays with a time beside them, `Mon 3.45-4.45`, and neither a date nor, in words,
        that they repeat."""
        from nomarium.reading.columns.weekdaycolumn import timed_weekdays_in

        timed = timed_weekdays_in(self.different[:MOST_DIFFERENT], self.lexicon)

        def is_timed(cell: Cell) -> bool:
            days = timed.get(cell_text(cell), "")
            return (
                bool(days) and re.search(_REPEATING, days) is None and not looks_like_date(cell, self.lexicon)
            )

        return self._share(is_timed)

    @property
    def hold_timed_weekdays(self) -> bool:
        """Whether most cells name weekdays with a time; those of most columns of words have none in the first."""
        first = next((cell for cell in self.different if isinstance(cell, str)), "")
        return re.search(_HOLDS_CLOCK, first) is not None and self.timed_weekdays >= MOSTLY

    @cached_property
    def weekday_lists(self) -> float:
        """The share of cells that name weekdays and nothing else, or all of them; 0 when none names several."""
        if not self.texts:
            return 0.0
        said = [fold(cell_text(cell)) for cell in self.different[:MOST_DIFFERENT]]
        named = [[word for word in re.split(_BETWEEN_DAYS, text) if word] for text in said]
        if not any(self._names_several(text, words) for text, words in zip(said, named, strict=True)):
            return 0.0
        return self.weekday_names

    @cached_property
    def weekday_names(self) -> float:
        """The share of cells that name weekdays and nothing else, one, several or a range of them."""
        said = [fold(cell_text(cell)) for cell in self.different[:MOST_DIFFERENT]]
        named = [[word for word in re.split(_BETWEEN_DAYS, text) if word] for text in said]
        known = [
            bool(words) and (_ALL_DAYS.issuperset(words) or all(map(self.is_weekday_word, words)))
            for words in named
        ]
        return sum(known) / len(known) if known else 0.0

    def is_weekday_word(self, word: str) -> bool:
        """Whether a word, folded, is a weekday, or all of them: `Mondays`."""
        return word in self.lexicon.weekdays or word.removesuffix("s") in self.lexicon.weekdays

    def _names_several(self, text: str, words: list[str]) -> bool:
        """Whether a cell is more than one weekday or a range of them, which a fair may last."""
        is_range = re.search(r"[-–—]|\b(?:to|a|bis)\b", text) is not None
        is_plural = any(word not in self.lexicon.weekdays and self.is_weekday_word(word) for word in words)
        often = is_plural or text.startswith(("every ", "each ")) or _ALL_DAYS.issuperset(words)
        return bool(words) and (often or (len(words) > 1 and not is_range))

    @cached_property
    def texts(self) -> float:
        """The share of cells that hold letters; a dash among three others says only that there is nothing."""
        share = self._share_of_settled if len(self.different) > 3 else self._share
        return share(lambda cell: isinstance(cell, str) and any(map(str.isalpha, cell)))

    @cached_property
    def are_codes(self) -> bool:
        """Whether all cells are letters or numbers of a thing: `A`, `U9`, `7b`."""
        code = re.compile(r"[a-z]|[a-z]{0,2}\d{1,2}[a-z]?", re.IGNORECASE)
        return all(code.fullmatch(cell_text(cell)) for cell in self.different[:MOST_DIFFERENT])

    @cached_property
    def are_short_forms(self) -> bool:
        """Whether all cells are short forms in capitals, `WOOD`, `NAV`, as of the subject beside the title of a course."""
        short = re.compile(r"[A-Z]{2,6}\d{0,4}")
        return all(short.fullmatch(cell_text(cell)) for cell in self.different[:MOST_DIFFERENT])

    @cached_property
    def numbers(self) -> float:
        """The share of cells that are plain numbers, typed or written."""
        return self._share(lambda cell: re.fullmatch(r"\d+(?:[.,]\d+)?", cell_text(cell)) is not None)

    @property
    def are_hours(self) -> bool:
        """Whether all cells are hours of a day by themselves, with minutes or without: `7`, `10.30`."""
        texts = [cell_text(cell) for cell in self.different]
        return bool(texts) and all(re.fullmatch(_HOUR, text) for text in texts)

    @property
    def holds_counts(self) -> bool:
        """Whether some cell begins with a figure: `6 weeks`, also `1-6`, which is then refused and not passed over."""
        return any(cell_text(cell)[:1].isdecimal() for cell in self.different)

    @cached_property
    def answers(self) -> float:
        """The share of cells that are a yes or a no, or a tick."""
        return self._share(lambda cell: isinstance(cell, bool) or fold(cell_text(cell)) in ANSWERS)

    @cached_property
    def plain_answers(self) -> float:
        """The same without single letters, which may be short for anything."""
        return self._share(
            lambda cell: (
                isinstance(cell, bool) or (len(word := fold(cell_text(cell))) > 1 and word in ANSWERS)
            )
        )

    @cached_property
    def statuses(self) -> float:
        """The share of cells that say whether something will happen."""
        return self._share(lambda cell: not isinstance(read_status(cell_text(cell)), Refusal))

    @cached_property
    def halves(self) -> float:
        """The share of cells that name a part of the day and nothing else, or a session of it, `AM 1`, `Morning session`."""
        return self._share(lambda cell: without_session(cell_text(cell)) in _HALVES)

    @cached_property
    def are_counted(self) -> bool:
        """Whether most cells are one word and a number, which counts what stands beside it: `Session 1`, `Session 2`; the others
        may be titles over them."""
        texts = [cell_text(cell) for cell in self.different]
        found = [re.fullmatch(r"([^\W\d_]{2,12})\.?\s*\d{1,2}[A-Za-z]?", text) for text in texts]
        words = [one[1].casefold() for one in found if one]
        return len(words) > 1 and len(words) * 5 >= len(texts) * 3 and len(set(words)) == 1

    @cached_property
    def ordinals(self) -> float:
        """The share of cells that count and say no more, `1st`, `2 of 3`."""

        def counts(cell: Cell) -> bool:
            text = cell.strip().casefold() if isinstance(cell, str) else ""
            return text in _ORDINAL_WORDS or (text[:1].isdigit() and re.fullmatch(_ORDINAL, text) is not None)

        return self._share(counts)

    @cached_property
    def prices(self) -> float:
        """The share of cells that are sums of money, `£12`, or say that there is none."""
        texts = [cell.strip() for cell in self.different[:MOST_DIFFERENT] if isinstance(cell, str)]
        sums = [text for text in texts if _is_price(text)]
        plain = [text for text in texts if sums and re.fullmatch(r"\d+(?:[.,]\d\d)?", text)]  # 8.00 beside £5
        return (len(sums) + len(plain)) / len(self.different[:MOST_DIFFERENT]) if sums else 0.0

    def _share(self, test: Callable[[Cell], bool]) -> float:
        sample = self.different[:MOST_DIFFERENT]
        return sum(map(test, sample)) / len(sample) if sample else 0.0

    def _share_of_settled(self, test: Callable[[Cell], bool]) -> float:
        """The same of the cells that are no “TBC” and no dash, where these are not the most."""
        sample = self.different[:MOST_DIFFERENT]
        settled = [
            cell for cell in sample if not (isinstance(cell, str) and cell.strip(" .?").casefold() in _OPEN)
        ]
        are_most = len(settled) * 2 >= len(sample) > 0
        return sum(map(test, settled)) / len(settled) if are_most else self._share(test)

    def _is_weekday(self, cell: Cell) -> bool:
        """Whether a cell is a weekday, or one with its half of the day, `Tues eve`."""
        if not isinstance(cell, str):
            return False
        word = fold(cell).strip()
        if word in self.lexicon.weekdays:
            return True
        first = word.split(None, 1)[0].strip(".,(-") if " " in word else ""
        return first in self.lexicon.weekdays and without_half(word)[0] in self.lexicon.weekdays


def name_some_weeks(heading: str, texts: Iterable[str]) -> bool:
    """Whether the cells under a heading name some weeks of many: `odd`, `Week B`, and `B` where the heading speaks of
    weeks; beside them `all`."""
    some = {text.casefold() for text in texts} - {"", "all", "both", "every", "weekly"}
    form = rf"{_SOME_WEEKS}|[a-d1-4]" if re.search(_OF_WEEKS, heading) else _SOME_WEEKS
    return bool(some) and all(re.fullmatch(form, text) for text in some)


def _is_price(text: str) -> bool:
    if text[:1] not in _CURRENCIES and text[-1:] not in _CURRENCIES:
        return text.casefold() in ("free", "gratis", "frei", "gratuit")
    return text.strip(f"{_CURRENCIES} -").replace(".", "").replace(",", "").isdecimal()


def _is_time(cell: Cell) -> bool:
    if not isinstance(cell, str):
        return isinstance(cell, (dt.time, dt.timedelta))
    text = cell.strip()
    digits = text[:-1] if text[-1:] in ".:" else text
    if not any(mark in digits for mark in ":.hap") and not any(map(str.isalpha, digits)):
        return False  # a number alone, or one of those that count: `1.`
    times = read_times(text) if not is_stopped_day(text) else None
    return isinstance(times, Times) and (times.start is not None or times.is_unknown or times.is_all_day)
