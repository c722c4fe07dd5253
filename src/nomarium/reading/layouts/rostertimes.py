"""The times of a roster that stand beside its dates: in a column of its rows, in rows below the dates, or over them."""

import re
from collections.abc import Collection, Iterator, Mapping, Sequence
from types import MappingProxyType
from typing import Final, Literal, NamedTuple

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem
from nomarium.reading.cells.people import INITIALED
from nomarium.reading.cells.placewords import is_place
from nomarium.reading.cells.words import fold
from nomarium.reading.columns.headings import SESSION_HEADINGS, match_exactly, normal
from nomarium.reading.layouts.layout import Top
from nomarium.reading.layouts.slots import is_clear_time, time_of
from nomarium.reading.rows.when import NOTHING, Part
from nomarium.sheets.sheet import Row, cell_text, column_texts

_SAID: Final = MappingProxyType(
    {"time": "start", "start": "start", "end": "end", "location": "location", "room": "location"}
)
"""What the fields of a heading say of the days of a roster."""
SUMS = frozenset("total totals sum count summe gesamt totaal hours on duty staffing".split())
"""What heads sums of hours or of people; `On call` and `Duty officer` head names."""
_COUNTED: Final = frozenset(
    "staff people number no numbers cover needed required headcount present available minimum min persons volunteers crew personal effectif aantal anzahl".split()
)
"""What else heads a row of how many there are."""
SAY_WHERE: Final = frozenset(
    "where location locations place places venue venues site ort lieu lugar plaats".split()
)
"""Headings of where something is; others, `Hall`, may be a place at which somebody is on duty."""
_NUMBER: Final = r"\d+(?:[.,:]\d+)?\s?(?:h|hrs?|hours?)?"


def is_sum(label: str, cells: Sequence[Cell]) -> bool:
    """Whether a row below dates sums up, `Total`, or counts who is there, `Staff on`."""
    words = re.findall(r"[a-z]+", fold(label))
    counts = not (SUMS | _COUNTED).isdisjoint(words)
    return counts and all(re.fullmatch(_NUMBER, cell_text(cell)) for cell in cells)


def are_times(body: Sequence[Row], column: int) -> bool:
    """Whether all that stands in a column is times, and some can be nothing else."""
    return _are_times([row[column] for _, row in body if column < len(row) and cell_text(row[column])])


def _are_times(cells: Sequence[Cell]) -> bool:
    return any(map(is_clear_time, cells)) and all(time_of(cell) is not NOTHING for cell in cells)


def are_sums(heading: Cell, body: Sequence[Row], column: int) -> bool:
    """Whether a column headed as sums, `Hours`, holds plain numbers: 40 and 8 are no times."""
    texts = column_texts(body, column)
    is_headed = not SUMS.isdisjoint(re.findall(r"[a-z]+", fold(cell_text(heading))))
    return is_headed and all(re.fullmatch(_NUMBER, text) for text in texts)


def are_counts(heading: Cell, body: Sequence[Row], column: int) -> bool:
    """Whether a column is headed by no word for time and holds figures alone, `Capacity`: 120 is not twenty past one."""
    texts = column_texts(body, column)
    called = normal(cell_text(heading))
    return bool(called) and called not in SESSION_HEADINGS and all(map(str.isdecimal, texts))


def unread_times(top: Top, body: Sequence[Row], unused: Mapping[int, str]) -> list[Problem]:
    """A problem of each unused column that holds times, where nothing else says any; sums of hours are none."""
    found = []
    for n, name in unused.items():
        if are_times(body, n) and SUMS.isdisjoint(re.findall(r"[a-z]+", fold(name))):
            message = f"The column {name} may say when rows are held, and is not read."
            remedy = "If it holds the times of its rows, head it “Time”; if not, take it out."
            found.append(Problem("column-when", message, remedy, top.sheet.place(None, n)))
    return found


class SaidOfDays(NamedTuple):
    """What rows among those below dates say of all the others: when and where they are, by column."""

    times: Mapping[int, Part] = MappingProxyType({})
    places: Mapping[int, str] = MappingProxyType({})
    rows: tuple[Row, ...] = ()
    problems: tuple[Problem, ...] = ()


def said_of_days(top: Top, rows: Sequence[Row], columns: Sequence[int]) -> SaidOfDays:
    """The times and the places of the days that head columns, where a row below the dates holds them and is headed so, `Kick-off`
    or `Venue`. Where several rows are headed by one of these, nothing tells whose each is."""
    headed: dict[str, list[Row]] = {}
    doubts = list[Problem]()
    labels = [_label(row[: columns[0]]) for _, row in rows]
    for (number, row), label in zip(rows, labels, strict=True):
        field = _SAID.get(_field_of_label(row[: columns[0]]), "")
        cells = [row[n] for n in columns if n < len(row) and cell_text(row[n])]
        if field == "location" and normal(label) not in SAY_WHERE:
            others = [cell_text(cell) for other, row in rows if other != number for cell in row[columns[0] :]]
            field = _field_of_place(
                [one for one in labels if one != label], list(map(cell_text, cells)), others
            )
        elif field == "location" and any(re.fullmatch(INITIALED, cell_text(cell)) for cell in cells):
            field = ""
        if field == "doubt":
            doubts.append(_place_or_duty(top, number, label, cell_text(cells[0])))
        elif field and cells and (field == "location" or _are_times(cells)):
            headed.setdefault(field, []).append((number, row))
    if doubts:
        return SaidOfDays(problems=tuple(doubts))
    taken = tuple(row for found in headed.values() for row in found)
    if not taken or len(taken) == len(rows) or ("end" in headed and "start" not in headed):
        return SaidOfDays()
    problems = [
        Problem("column-when", f"Rows {found[0][0]} and {found[1][0]} are both headed “{cell_text(found[0][1][0])}”, and nothing says of which rows.",
                "Write what they say into the cells themselves, “v Harbour 10:00”.", top.sheet.place(found[1][0]))
        for found in headed.values() if len(found) > 1
    ]  # fmt: skip
    first = {field: found[0][1] for field, found in headed.items()}
    times = {n: time_of(cell) for n, cell in _under(first.get("start", ()), columns)}
    for n, cell in _under(first.get("end", ()), columns):
        if n in times:
            times[n] = times[n]._replace(end=time_of(cell).start)
    places = {n: cell_text(cell) for n, cell in _under(first.get("location", ()), columns)}
    return SaidOfDays(times, places, taken, tuple(problems))


def _field_of_place(
    labels: Sequence[str], texts: Sequence[str], others: Collection[str]
) -> Literal["location", "doubt", ""]:
    """What a row headed `Hall` or `Pitch` says: where all else is, what is on in one of several rooms, or who is on duty there.
    `labels` and `others` are what heads the other rows and stands in them."""
    if any(map(is_place, labels)) or not texts or not set(texts).isdisjoint(others):
        return ""
    if all(is_place(text) or any(map(str.isdigit, text)) for text in texts):
        return "location"
    return "" if any(re.fullmatch(INITIALED, text) for text in texts) else "doubt"


def _place_or_duty(top: Top, number: int, label: str, text: str) -> Problem:
    message = f"Below “{label}”, “{text}” may be where all else of its day is, or who is on duty there."
    remedy = "Head the row “Venue” if it says where; “Duty in the hall” or the like if not."
    return Problem("column-when", message, remedy, top.sheet.place(number), text)


def _field_of_label(left: Sequence[Cell]) -> str:
    """The field that the one text left of the dates names, as a heading does."""
    match = match_exactly(_label(left))
    return match.field if match is not None else ""


def _label(left: Sequence[Cell]) -> str:
    """The one text left of the dates; nothing where there are several."""
    texts = [text for cell in left if (text := cell_text(cell))]
    return texts[0] if len(texts) == 1 else ""


def _under(row: Sequence[Cell], columns: Sequence[int]) -> Iterator[tuple[int, Cell]]:
    return ((n, row[n]) for n in columns if n < len(row) and cell_text(row[n]))


def number_periods(rows: Sequence[Row], at: int, columns: Sequence[int]) -> bool:
    """Whether bare numbers that head columns are those of periods: their times stand in the row above or below."""
    if not all(cell_text(rows[at][1][n]).isdecimal() for n in columns):
        return False
    beside = (rows[near][1] for near in (at - 1, at + 1) if 0 <= near < len(rows))
    return any(_are_times([cell for _, cell in _under(row, columns)]) for row in beside)


def times_over(top: Top, above: Sequence[Row], columns: Sequence[int]) -> list[Problem]:
    """A problem of the last row above the dates that holds times over them: they are of what stands below, and not read."""
    for number, row in reversed(above):
        over = [row[n] for n in columns if n < len(row) and cell_text(row[n])]
        if len(over) > 1 and _are_times(over):
            text = cell_text(over[0])
            message = f"Row {number} holds times over the dates, and is not read: “{text}”."
            remedy = (
                "Write each time into the cell of its date, “12 September 2026 10:00”; or take the row out."
            )
            return [Problem("column-when", message, remedy, top.sheet.place(number, columns[0]), text)]
    return []
