"""The column of a table, or the ticked columns, that say on which weekdays its rows meet."""

import re
from collections.abc import Mapping, Sequence
from types import MappingProxyType
from typing import NamedTuple

from nomarium.model.cell import Cell
from nomarium.model.problem import Place, Problem, column_letter, note
from nomarium.model.refusal import Refusal
from nomarium.model.wording import WEEKDAYS, listed
from nomarium.reading.cells.choices import read_yes_no
from nomarium.reading.cells.halves import Half, in_half, without_half
from nomarium.reading.cells.times import Times, read_times
from nomarium.reading.cells.weekdaycodes import WeekdayCodes, words_of_weekdays
from nomarium.reading.cells.words import Lexicon, fold, language_name, lexicon_of
from nomarium.reading.columns.head import TableHead
from nomarium.reading.columns.headings import match_heading
from nomarium.reading.options import ReadingOptions
from nomarium.sheets.sheet import Row, Sheet, cell_text, column_texts, is_blank

UNSETTLED = frozenset(
    (
        "tba",
        "tbc",
        "tbd",
        "arr",
        "arranged",
        "by arrangement",
        "-",
        "–",
        "online",
        "asynchronous",
        "async",
        "self-paced",
        "web",
        "n/a",
    )
)
"""What stands where nothing says yet when a class meets, folded."""
_TIME = "Time"
"""The heading of a column of times that stood beside weekdays."""
_DAY_FIELDS = ("day", "date", "repeat", "when")
_TIME_FIELDS = ("start", "time")
_BESIDE = frozenset(
    ("and", "et", "und", "y", "e", "en", "of", "class", "meeting", "meets", "pattern", "session", "lesson")
)
"""Words beside `days` in headings."""


class Weekly(NamedTuple):
    """The rows of a table with the weekdays that each says."""

    at: int
    """The column that holds them, or the first of several."""
    phrases: dict[int, str]
    """Row number → its weekdays as a phrase, `every Monday and Friday`."""
    unsettled: dict[int, str]
    """Row number → its text, where it says that its days are not settled."""
    problems: tuple[Problem, ...]
    unread: dict[int, tuple[Sequence[Cell], Problem]]
    """Row number → its cells, and why its weekdays cannot be read."""
    is_coded: bool
    """Whether some cell is a code (`MWF`), or ticks: no phrase that a list would read by itself."""
    ticks: tuple[int, ...] = ()
    """The ticked columns, one a weekday."""
    times: Mapping[int, str] = MappingProxyType({})
    """Row number → the time that stands beside its weekdays; it gets a column of its own, right of all others."""
    filled: int = 0
    """How many rows have the weekday that is written above them, once for their group."""
    halves: Mapping[int, Half] = MappingProxyType({})
    """Row number → the half of the day behind its weekday, `Tues eve`, which the times of its row are in."""
    timed: tuple[int, ...] = ()
    """The columns of these times."""

    def row(self, number: int, row: Sequence[Cell], head: TableHead) -> list[Cell]:
        """A row with its phrase in the place of the weekdays; one whose days are not settled is a lone text."""
        if number in self.unsettled:
            return [self.unsettled[number]]
        cells = [*row, *[""] * (self.at + 1 - len(row))]
        if number < head.first_row and number not in head.header_rows:
            return cells
        for at in self.ticks:
            cells[at : at + 1] = [""]
        if number in head.header_rows:
            cells[self.at] = self.heading(head) if number == head.header_rows[-1] else cells[self.at]
        else:
            cells[self.at] = self.phrases.get(number, cells[self.at])
            if half := self.halves.get(number):
                for at in self.timed:
                    cells[at : at + 1] = [in_half(cell_text(cells[at]), half) if at < len(cells) else ""]
        if self.times:
            cells += [""] * (len(head.headings) - len(cells))
            is_head = number == head.header_rows[-1]
            cells[len(head.headings) :] = [_TIME if is_head else self.times.get(number, "")]
        return cells

    def told_unsettled(self, sheet: Sheet) -> tuple[Problem, ...]:
        """A note of the rows that are left out because their days are not settled."""
        if not self.unsettled:
            return ()
        shown = listed([f"row {number} ({text})" for number, text in list(self.unsettled.items())[:5]])
        message = f"Left out, for nothing says on which day they are: {shown}."
        return (note("days-unsettled", message).at(sheet.place(next(iter(self.unsettled)), self.at)),)

    def heading(self, head: TableHead) -> str:
        """The heading of the column of phrases: its own; the first and last of those that are ticked."""
        names = [head.headings[at] for at in self.ticks]
        return f"{names[0]} to {names[-1]}" if names else head.headings[self.at]

    def named(self, sheet: Sheet, head: TableHead) -> str:
        """What --column calls the column."""
        heading = self.heading(head)
        if self.ticks:
            return heading
        return heading if head.headings.count(heading) == 1 else column_letter(self.at + sheet.first_column)


def may_say_weekdays(headings: Sequence[str], lexicon: Lexicon) -> bool:
    """Whether a table of these headings may say weekdays in codes: it is looked at only then."""
    return any(map(_is_of_days, headings)) or len(_ticked(headings, lexicon)) > 1


def _is_of_days(heading: str) -> bool:
    match = match_heading(heading) if heading else None
    if match is not None:
        return match.field in _DAY_FIELDS
    words = [word for word in re.findall(r"[^\W\d_]+", fold(heading)) if word not in _BESIDE]
    fields = [found.field if (found := match_heading(word)) is not None else "" for word in words]
    return (bool(words) or fold(heading) in ("meets", "pattern", "meeting pattern")) and all(
        field in _DAY_FIELDS or (field in _TIME_FIELDS and len(fields) > 1) for field in fields
    )


def _times_beside(head: TableHead, rows: Sequence[Row]) -> tuple[int, ...]:
    """The columns of times: headed so, or all of whose cells are clearly some."""
    found = []
    for at, heading in enumerate(head.headings):
        match = match_heading(heading) if heading else None
        texts = column_texts(rows, at)
        are_times = bool(texts) and all(
            re.search(_CLEARLY_A_TIME, text) and isinstance(read_times(text), Times) for text in texts
        )
        if are_times or (match is not None and match.field in _TIME_FIELDS):
            found.append(at)
    return tuple(found)


def weekdays_in(sheet: Sheet, head: TableHead, lexicon: Lexicon, options: ReadingOptions) -> Weekly | None:
    """The weekdays of a table's rows; None when it says none."""
    rows = [
        (number, row)
        for number, row in sheet.rows()
        if number >= head.first_row and not is_blank(row) and len(list(filter(cell_text, row))) > 1
    ]
    return (
        (_in_one_column(sheet, head, rows, lexicon, options) or _in_ticks(head, rows, lexicon))
        if rows
        else None
    )


def _in_one_column(
    sheet: Sheet, head: TableHead, rows: Sequence[Row], lexicon: Lexicon, options: ReadingOptions
) -> Weekly | None:
    """The weekdays of a column whose cells all name some, with times or without, but for those that are not settled."""
    for at, heading in enumerate(head.headings):
        texts = {number: text for number, row in rows if at < len(row) and (text := cell_text(row[at]))}
        said = {
            n: days_and_time(text) for n, text in texts.items() if fold(text).strip(" .") not in UNSETTLED
        }
        if _may_say_how_often(heading, [days for days, _ in said.values()]):
            continue
        halves: dict[int, Half] = {}
        timed = _times_beside(head, rows) if any(without_half(days)[1] for days, _ in said.values()) else ()
        if timed:
            halves = {n: without_half(days)[1] for n, (days, time) in said.items() if not time}
            said |= {n: (without_half(said[n][0])[0], "") for n in halves}
        is_of_days = _is_of_days(heading)
        days_said = [days for days, _ in said.values()]
        names, rivals = lexicon, tuple[str, ...]()
        are_timed = bool(said) and all(time for _, time in said.values())
        if (is_of_days or are_timed) and not options.languages:
            names, rivals = _lexicon_of(days_said, lexicon, head.headings)
        codes = WeekdayCodes(days_said, names, options.weekdays)
        read = {number: codes.read(days) for number, (days, _) in said.items()}
        known = sum(not isinstance(days, Refusal) or days.why == "several" for days in read.values())
        beside = sum(bool(time) and not isinstance(read[n], Refusal) for n, (_, time) in said.items())
        is_sure = codes.are_days or (is_of_days and known * 2 >= len(read)) or beside * 4 >= len(read) * 3
        if not known or not is_sure:
            continue
        filled = {} if any(time for _, time in said.values()) else _written_once(at, texts, rows)
        if (len(said) + len(filled)) * 2 < len(rows) and not is_of_days:
            continue
        unsettled = {n: _called(row, at) for n, row in rows if n in texts and n not in said}
        of_row = dict(rows)
        refused = {n: days for n, days in read.items() if isinstance(days, Refusal)}
        told = {n: days.problem(sheet.place(n, at, heading), texts[n]) for n, days in refused.items()}
        problems = [problem for n, problem in told.items() if refused[n].why == "several"]
        unread = {n: (of_row[n], problem) for n, problem in told.items() if refused[n].why != "several"}
        if rivals:
            first = next(iter(said))
            problems.append(_between(rivals, sheet.place(first, at, heading), texts[first]))
        phrases = {n: _phrase(days) for n, days in read.items() if not isinstance(days, Refusal)}
        times = {n: time for n, (_, time) in said.items() if time}
        phrases |= {n: phrases[above] for n, above in filled.items() if above in phrases}
        is_coded = bool(times) or any(
            codes.run_together(days) or re.search(_LETTER, days) for days, _ in said.values()
        )
        return Weekly(
            at,
            phrases,
            unsettled,
            tuple(problems),
            unread,
            is_coded,
            times=times,
            filled=len(filled),
            halves=halves,
            timed=timed,
        )
    return None


def _may_say_how_often(heading: str, texts: Sequence[str]) -> bool:
    """Whether single letters stand under a heading such as `Repeat`, which are weekly and monthly as soon as weekdays."""
    match = match_heading(heading) if heading else None
    is_of_repeats = match is not None and match.field == "repeat" and "day" not in fold(heading)
    return (
        is_of_repeats and bool(texts) and all(text.strip().upper() in ("D", "W", "M", "Y") for text in texts)
    )


_LETTER = r"(?<!\w)[A-Za-z](?!\w)"
"""A weekday by one letter, as in `T/Th`."""
_WITH_TIME = (
    r"(?P<days>[^\d]*?[^\W\d])[\s.,:(–-]*?\b(?P<time>\d.*?|noon.*?)\)?",
    r"(?P<time>\d[\d:.]*\s*(?:[ap]\.?m\.?)?\s*[-–—]\s*\d[\d:.]*\s*(?:[ap]\.?m\.?)?)[\s,]+(?P<days>[^\d]+)",
)


def _lexicon_of(
    texts: Sequence[str], lexicon: Lexicon, headings: Sequence[str]
) -> tuple[Lexicon, tuple[str, ...]]:
    """The names of the language in which a column says its weekdays: those known, unless another one knows more of them. With
    the languages between which nothing tells, where there are such."""
    words = words_of_weekdays(texts)
    if all(word.removesuffix("s") in lexicon.weekdays for word in words):
        return lexicon, ()
    from nomarium.reading.cells.languages import rivals_of_weekdays, weekday_lexicon

    beside = frozenset(map(fold, headings))
    scandinavian = words_of_weekdays(texts, are_scandinavian=True)
    known = weekday_lexicon(scandinavian, beside=beside) if scandinavian != words else None
    known = known or weekday_lexicon(words, beside=beside)
    rivals = rivals_of_weekdays(words) if known is None else ()
    language = known or (lexicon_of(rivals[0], with_short=True) if rivals else None)
    return (lexicon.extended(language) if language is not None else lexicon), rivals


def _between(rivals: Sequence[str], place: Place, text: str) -> Problem:
    """The problem of weekdays that are others in each of some languages."""
    names = " or ".join(map(language_name, rivals))
    message = f"“{text}” could be {names}, and is another weekday in each."
    remedy = f"Say which with --language, such as --language {rivals[0]}."
    return Problem("language-ambiguous", message, remedy, place, text)


_CLEARLY_A_TIME = r"(?i)\d[:.h]\d\d|\d\s?[ap]\.?m|noon|\d\s*[-–—]\s*\d|\d\s?(?:h|u|uhr|uur)(?!\w)"


def days_and_time(text: str) -> tuple[str, str]:
    """The days of a cell and the time beside them, `MWF 9:00-9:50`; blank when it has none."""
    for form in _WITH_TIME:
        match = re.fullmatch(form, text.strip(), re.IGNORECASE | re.DOTALL)
        if match is None or not re.search(_CLEARLY_A_TIME, match["time"]):
            continue  # Sat 12 is a date
        if isinstance(read_times(match["time"].strip()), Times):
            days, half = without_half(match["days"].strip(" ,:–-("))
            return days, in_half(match["time"].strip(), half)
    return text, ""


def timed_weekdays_in(cells: Sequence[Cell], lexicon: Lexicon) -> dict[str, str]:
    """Those texts of cells that are weekdays with a time beside them, `Mon 3.45-4.45`, `lundi 9h-10h`, each with its days."""
    texts = [cell_text(cell) for cell in cells if isinstance(cell, str)]
    said = {text: days for text, (days, time) in zip(texts, map(days_and_time, texts), strict=True) if time}
    if not said:
        return {}
    names, _ = _lexicon_of([*said.values()], lexicon, ())
    return {text: days for text, days in said.items() if WeekdayCodes([days], names).are_days}


def _written_once(at: int, texts: Mapping[int, str], rows: Sequence[Row]) -> dict[int, int]:
    """Blank row → the row above that its weekday stands in, where a day is written once over the rows of its group: left
    of what they hold, and most groups have two rows or more."""
    if not texts or rows[0][0] not in texts or len(texts) == len(rows):
        return {}
    if any(any(map(cell_text, row[:at])) for _, row in rows):
        return {}
    found, sizes, above = dict[int, int](), list[int](), 0
    for number, _ in rows:
        if number in texts:
            above = number
            sizes.append(1)
        else:
            found[number] = above
            sizes[-1] += 1
    return found if sum(size > 1 for size in sizes) * 2 > len(sizes) else {}


def _in_ticks(head: TableHead, rows: Sequence[Row], lexicon: Lexicon) -> Weekly | None:
    """The weekdays of several columns, one headed by each, in which the rows that meet then are ticked."""
    columns = _ticked(head.headings, lexicon)
    if len(columns) < 2:
        return None
    phrases, unticked = dict[int, str](), dict[int, str]()
    for number, row in rows:
        marks = {day: row[at] for at, day in columns if at < len(row) and cell_text(row[at])}
        if not all(_is_mark(cell) for cell in marks.values()):
            return None
        ticked = tuple(day for day, cell in marks.items() if read_yes_no(cell) is not False)
        if ticked:
            phrases[number] = _phrase(ticked)
        else:
            unticked[number] = _called(row, columns[0][0])
    return Weekly(columns[0][0], phrases, unticked, (), {}, True, tuple(at for at, _ in columns))


def _ticked(headings: Sequence[str], lexicon: Lexicon) -> list[tuple[int, int]]:
    """(column, weekday) of the headings that are a weekday each, no two the same."""
    headed = [(at, WeekdayCodes([text], lexicon).read(text)) for at, text in enumerate(headings) if text]
    found = [(at, days[0]) for at, days in headed if not isinstance(days, Refusal) and len(days) == 1]
    return found if len({day for _, day in found}) == len(found) else []


def _is_mark(cell: Cell) -> bool:
    return cell_text(cell) in ("x", "X", "*", "•", "●") or isinstance(read_yes_no(cell), bool)


def _called(row: Sequence[Cell], at: int) -> str:
    return next((text for n, cell in enumerate(row) if n != at and (text := cell_text(cell))), "")


def _phrase(days: Sequence[int]) -> str:
    return f"every {listed([WEEKDAYS[day] for day in days])}"
