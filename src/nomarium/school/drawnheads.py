"""What heads the days of a drawn week: weekdays, labels, the letters of a cycle, and the titles over it that name a week."""

import re
from collections.abc import Collection, Iterable, Mapping, Sequence
from string import ascii_uppercase
from typing import Final

from nomarium.model.cell import Cell
from nomarium.model.limits import LONGEST_CELL
from nomarium.model.refusal import Refusal
from nomarium.model.wording import WEEKDAYS
from nomarium.reading.cells.weekdaycodes import WeekdayCodes
from nomarium.reading.cells.weekdayslips import is_like_weekday
from nomarium.reading.cells.words import ENGLISH, Lexicon, fold
from nomarium.reading.layouts.namedslots import is_break
from nomarium.school.codes import weekday_of
from nomarium.school.drawncells import Grid
from nomarium.school.drawnlines import Slot, is_period, is_time, slot_in
from nomarium.school.planheads import field_of, plain
from nomarium.sheets.sheet import Row, cell_text

_TOP_ROWS: Final = 12
_LEAST_LETTERS: Final = 3
"""Letters that a row must have to be the days of a cycle: two could be two teams."""
_LABEL: Final = r"(?i)(?:(?:cycle\s*)?(?:day|jour)|letter)\s*[-:]?\s*(?P<code>(?<![^\W\d_])[A-Z]|\d{1,2})|(?P<letter>[A-Z])[- ]day"
_SEVERAL_DAYS: Final = r"(?i)[/,&–—-]|\b(?:to|and)\b|^week(?:days|ends?)$"
"""What shows that a heading names several days, and is no code such as MWF."""
_DAY_AND_PERIOD: Final = r"(?P<day>[^\W\d_]{2,9})\.?[\s/,-]*(?P<period>(?:(?i:period|per|p)\.?\s*)?\d{1,2}|\(?\d{1,2}(?:[:.h]\d\d)?(?:\s?[ap]m)?\s?[-–]\s?\d{1,2}(?:[:.h]\d\d)?(?:\s?[ap]m)?\)?)"
_LEAST_WEEKDAYS: Final = 3
"""Weekdays of another language that a row must name."""
_MOST_WEEKS: Final = 4
_LEAST_HEADS: Final = 4
"""Columns headed by a day and a period each that a row must have to be such a one."""
_WEEK: Final = r"(?i).*?\b(?:week|wk)\.?\s*(?P<after>[A-D]|[12])\b.*|(?P<before>[A-D])\s*(?:week|wk)\b.*"
_WEEK_IN_TITLE: Final = r"(?i)[\s(–:,-]*\b(?:(?:week|wk)\.?\s*(?:[A-D]|[12])\b|[A-D]\s*(?:week|wk)\b).*"
_NAME_IN_TITLE: Final = r"(?i)(?!(?:(?:the|our|full|weekly|school|class)\s+)*(?:time ?table|schedule|plan|classes|lessons|odd|even|from|first|second)\b)\w[\w.'’/-]*(?:\s[\w.'’/-]+){0,2}"
"""What stands before a week in a title and says whose it is: a few words."""
_DAY_AND_WEEK: Final = (
    r"(?i)(?:(?:week|wk)\s*(?=[A-D12]))?(?P<before>[A-D]|(?<=[k\s])[12])\s*[-–:]?\s+(?P<day>[^\W\d]+)|"
    r"(?P<first>[^\W\d]+)\s*[-–:]?\s*\(?\s*(?:(?:week|wk)\s*(?P<after>[A-D1-4])|(?<=[\s(])(?P<letter>[A-D]))\s*\)?"
)
CORNERS: Final = r"(?i)(?:start|end|from|to|begin|finish|begins|ends|starts|finishes|time|times|period|periods|day|days|hour|hours|block|slot|lesson|heures?|zeit|uhrzeit|hora|horas|horario|jour|tag|stunde|std\.?|seance|séance|p[ée]riode|periodo|bloque|bloc|ora|uur|uren|lesuur|lesson|lektion|tid|tunti|klo|kello|godzina|lekcja|#|no\.?|per\.?|pd\.?|/|\\|\s)*"
"""What may stand beside the days without being one."""


def days_named(text: str, labels: frozenset[str], lexicon: Lexicon) -> tuple[str, ...]:
    """The weekdays by name, or the label, that a heading is: one of the `labels` that are known (compared form), `Day 3`,
    `Mon/Wed`; none where it is anything else."""
    if plain(text) in labels:
        return (text,)
    label = re.fullmatch(_LABEL, text)
    if label is not None:
        return ((label["code"] or label["letter"]).upper(),)
    text, _ = day_and_week(text, lexicon)
    if len(text) < 2 or len(text) > 30:
        return ()
    days = WeekdayCodes([text], lexicon).read(text)
    is_code = not isinstance(days, Refusal) and len(days) > 1 and not re.search(_SEVERAL_DAYS, text)
    if isinstance(days, Refusal) or is_code:
        return ()
    return tuple(WEEKDAYS[day] for day in days)


def days_across(texts: Mapping[int, str], labels: frozenset[str] = frozenset()) -> dict[int, str]:
    """The columns of a row that name days, with these as one text. `texts` are the row's, by column, `labels` known ones."""
    named = {n: days_named(text, labels, ENGLISH) for n, text in texts.items()}
    words = {fold(text).strip(" .") for n, text in texts.items() if text.isalpha()}
    if not any(named.values()) and len(words) >= _LEAST_WEEKDAYS:
        from nomarium.reading.cells.languages import weekday_lexicon

        lexicon = weekday_lexicon(frozenset(words), least=_LEAST_WEEKDAYS)
        named = {n: days_named(text, labels, lexicon) for n, text in texts.items()} if lexicon else named
    return {n: ", ".join(names) for n, names in named.items() if names}


def day_and_week(text: str, lexicon: Lexicon = ENGLISH) -> tuple[str, str]:
    """The day of a heading and the week that it names, `Mon A`, `B Tuesday`, `Wed (Week B)`; blank where it names none."""
    match = re.fullmatch(_DAY_AND_WEEK, text) if len(text) <= LONGEST_CELL else None
    day = (match["day"] or match["first"]).strip(" -–:") if match else ""
    if match is None or isinstance(WeekdayCodes([day], lexicon).read(day), Refusal) or len(day) < 2:
        return text, ""
    return day, (match["before"] or match["after"] or match["letter"]).upper()


def are_cycle_letters(texts: Iterable[str]) -> bool:
    """Whether texts are the letters of a cycle, from A on, three or more, in any order and however often each comes."""
    letters = sorted({*texts})
    return len(letters) >= _LEAST_LETTERS and "".join(letters) == ascii_uppercase[: len(letters)]


def letter_columns(row: Sequence[Cell]) -> dict[int, str]:
    """Column → letter, of a row that heads the days of a cycle by letters from A on, however often they begin again; none
    where words stand among them, or a period or a time beside them."""
    texts = {
        n: text for n, cell in enumerate(row) if (text := cell_text(cell)) and not re.fullmatch(CORNERS, text)
    }
    letters = {n: text for n, text in texts.items() if re.fullmatch("[A-Z]", text)}
    run = list(dict.fromkeys(letters.values()))
    if not are_cycle_letters(run) or run != sorted(run):
        return {}
    last = max(letters)
    is_apart = last + 1 < len(row) and not cell_text(row[last + 1])  # what stands behind a gap is a remark
    beside = {
        n: text
        for n, text in texts.items()
        if n not in letters and not (is_apart and n > last) and not (n > min(letters) and heads_parts(text))
    }
    is_line = any(
        is_period(text) or is_time(text) for text in beside.values()
    )  # of a drawing: its classes are letters
    return letters if not is_line and min(letters) >= max(beside, default=0) else {}


def lexicon_of(rows: Sequence[Row]) -> Lexicon:
    """English, or the language in which a row at the top names three weekdays or more."""
    for _, row in rows[:_TOP_ROWS]:
        words = frozenset(
            fold(text).strip(" .")
            for cell in row
            if (text := re.sub(r"\s+[A-D1-4]$", "", cell_text(cell))).strip(".").isalpha()
            and not re.fullmatch(CORNERS, text)
        )
        if len(words) >= 3 and len(words & ENGLISH.weekdays.keys()) < len(words) - 1:
            from nomarium.reading.cells.languages import weekday_lexicon

            known = weekday_lexicon(words, least=max(3, len(words) - 1)) if len(words) <= 9 else None
            if known is not None:
                return known
    return ENGLISH


def week_of(text: str) -> str:
    """The week that a title names, `Week A`; nothing for any other."""
    match = re.fullmatch(_WEEK, text.strip())
    return (match["after"] or match["before"]).upper() if match else ""


def without_week(text: str) -> str:
    """Whose a title is that may name a week, too: `7A` of `7A – Week B`; nothing where it says no more than the week, or what
    any title says."""
    bare = re.sub(_WEEK_IN_TITLE, "", text).strip(" -–—:,()")
    is_whole = bare == text.strip()
    bare = bare if is_whole else re.sub(r"(?i)^(?:time ?table|schedule)\s*(?:[:–-]|of|for)\s*", "", bare)
    return bare if is_whole or re.fullmatch(_NAME_IN_TITLE, bare) else ""


def heads_weeks(cell: Cell) -> bool:
    """Whether a cell heads a column of weeks, those of a planner; `Week A Monday` is a day."""
    text = cell_text(cell)
    return re.match(r"(?i)(?:week(?!days?\b|ends?\b|ly\b)|wk|w/[bc])", text) is not None and not (
        day_and_week(text)[1] or week_of(text)
    )


def same_under_each(row: Sequence[Cell], left: range, days: Collection[int]) -> dict[int, str]:
    """Column → its text, of a row below days that says the same under each, two texts or more, that are not all headings
    of a list (`Class`, `Room`), and nothing left of them."""
    found = {n: text for n in range(min(days), len(row)) if (text := cell_text(row[n]))}
    under: dict[int, list[str]] = {}
    for n, text in found.items():
        under.setdefault(max(day for day in days if day <= n), []).append(text)
    sequences = list(under.values())
    are_same = len(sequences) == len(days) and all(one == sequences[0] for one in sequences)
    are_headings = all(field_of(text, "timetable") is not None for text in found.values())
    is_beside = bool(texts_but_corners(row[left.start : left.stop]))
    return found if are_same and len(sequences[0]) > 1 and not are_headings and not is_beside else {}


def days_and_periods(row: Sequence[Cell]) -> dict[int, tuple[str, str]]:
    """Column → weekday and period or time, of a row that heads columns by both, `Mon 1`, `Mon 2`, `Tue 1`; none of any other."""
    matches = {
        n: match for n, cell in enumerate(row) if (match := re.fullmatch(_DAY_AND_PERIOD, cell_text(cell)))
    }
    days = {n: match["day"] for n, match in matches.items() if weekday_of(match["day"]) is not None}
    is_such = (
        len(days) >= _LEAST_HEADS
        and len(set(map(str.casefold, days.values()))) > 1
        and len(days) == len(matches)
        and not _are_dates([(weekday_of(day), matches[n]["period"]) for n, day in days.items()])
    )
    return {n: (day, matches[n]["period"].strip("()")) for n, day in days.items()} if is_such else {}


def _are_dates(days: Sequence[tuple[int | None, str]]) -> bool:
    """Whether weekdays, each of which comes once, have numbers that rise as they do: days of a month, `Mon 7`, `Tue 8`."""
    first = {int(number) - (weekday or 0) if number.isdecimal() else None for weekday, number in days}
    return len(first) == 1 and None not in first


def with_days_over_periods(rows: Iterable[Row]) -> list[Row]:
    """Rows of a sheet in which one that heads columns by days with their periods, `Mon 1`, `Mon 2`, `Tue 1`, is a row of days
    over one of periods."""
    found: list[Row] = []
    listed = list(rows)
    for at, (number, row) in enumerate(listed):
        slots = days_and_periods(row)
        if not slots:
            found.append((number, row))
            continue
        if _numbers_weeks(slots) and _has_lines(listed[at + 1 :], min(slots)):
            found.append(
                (
                    number,
                    [
                        f"{slots[n][0]} Week {slots[n][1]}" if n in slots else cell
                        for n, cell in enumerate(row)
                    ],
                )
            )
            continue
        days = {n: day.casefold() for n, (day, _) in slots.items()}
        is_first = {n: days.get(n - 1, "") != day for n, day in days.items()}
        found.append(
            (number, [(slots[n][0] if is_first[n] else "") if n in slots else "" for n in range(len(row))])
        )
        found.append((number, [slots[n][1] if n in slots else cell for n, cell in enumerate(row)]))
    return found


def _numbers_weeks(slots: Mapping[int, tuple[str, str]]) -> bool:
    """Whether the numbers behind weekdays are those of weeks in turn, `Mon 1`, `Tue 1` … `Mon 2`, `Tue 2`: each goes with all days
    before the next one comes."""
    weeks: dict[str, list[str]] = {}
    for _, (day, number) in sorted(slots.items()):
        weeks.setdefault(number, []).append(day.casefold())
    in_turn = [number for _, (_, number) in sorted(slots.items())]
    return (
        list(weeks) == [str(n) for n in range(1, len(weeks) + 1)]
        and in_turn == sorted(in_turn)
        and 2 <= len(weeks) <= _MOST_WEEKS
        and all(days == weeks["1"] and len(days) >= _LEAST_WEEKDAYS for days in weeks.values())
    )


def _has_lines(below: Sequence[Row], first: int) -> bool:
    """Whether the rows below are lines of a drawing, a period or a time left of the days of each."""
    left = [cells for _, row in below if any(map(cell_text, cells := row[:first]))]
    return sum(slot_in(0, cells) is not None for cells in left) * 2 > len(left)


def texts_but_corners(cells: Iterable[Cell]) -> list[str]:
    """The texts of cells that are no corner of a drawing."""
    return [text for cell in cells if (text := cell_text(cell)) and not re.fullmatch(CORNERS, text)]


def heads_parts(text: str) -> bool:
    """Whether a text beside days, or beside periods, says what part of a class stands there: `Class`, `Room` or `Teacher`."""
    is_name = any(map(str.isdigit, text))
    return not is_name and field_of(text, "timetable") in ("class", "group", "teacher", "room")


def headings_among(
    grid: Grid,
    at: int,
    days: Collection[int],
    others: Collection[int],
    beside: Sequence[int],
    lines: Sequence[Sequence[tuple[int, Slot | None]]],
) -> dict[tuple[int, int], str]:
    """The headings between days that name none, or right beside them and nearly name one, over columns of which half the lines or
    more are filled; what says parts of classes, times or breaks is none of them. `others` are days of other weeks in the row; `at` and the first of each of `lines` are places of rows."""
    used = {column + right for column in (*days, *others) for right in beside}
    found: dict[tuple[int, int], str] = {}
    for column in set(range(max(min(days) - 1, 0), max(days) + 2)) - used:
        text = grid.filled(at, column)
        if not min(days) < column < max(days) and not is_like_weekday(text):
            continue
        if not text or field_of(text, "timetable") or is_break(text) or re.fullmatch(CORNERS, text):
            continue
        if sum(bool(grid.filled(n, column)) for (n, _), *_ in lines) * 2 >= len(lines) > 0:
            found[grid.place(at, column)] = text
    return found


def heads_names(text: str) -> bool:
    """Whether a corner says that the lines of a drawing are groups, teachers or rooms."""
    is_name = any(map(str.isdigit, text))  # Form 1
    return not is_name and field_of(text, "timetable") in ("group", "teacher", "room")
