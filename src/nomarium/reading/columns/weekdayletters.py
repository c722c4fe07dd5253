"""Weekdays that head columns as single letters, `M T W T F`: each alone could be two, in their order they are the week."""

import re
from collections.abc import Callable, Iterator, Sequence
from itertools import islice, takewhile
from typing import Final

from nomarium.model.cell import Cell
from nomarium.model.problem import note
from nomarium.model.wording import WEEKDAYS
from nomarium.reading.cells.words import fold
from nomarium.sheets.sheet import Row, RowsAgain, Sheet, cell_text

_WEEKS: Final = ("mtwtf", "mtwrf", "mtwhf", "mdmdf", "lmmjv", "lmxjv", "lmmgv", "stqqs", "mdwdv")
"""The letters of Monday to Friday in English, German, French and Spanish, Spanish, Italian, Portuguese, Dutch."""
_WEEKENDS: Final = ("ss", "sd", "sz", "")
_FROM_SUNDAY: Final = ("smtwtfs", "dlmmjvs", "dlmxjvs", "dlmmgvs", "dstqqss", "smdmdfs", "zmdwdvz")
"""A whole week that begins on a Sunday: in English, French, Spanish, Italian, Portuguese, German and Dutch."""
_HEAD_ROWS: Final = 20
_CODES: Final = (
    ("m", "mo", "mon"), ("t", "tu", "tue", "tues"), ("w", "we", "wed"), ("t", "th", "thu", "thur", "thurs", "r", "h"), ("f", "fr", "fri"),
    ("s", "sa", "sat"), ("s", "u", "su", "sun"),
)  # fmt: skip
"""English letters and short forms of Monday to Sunday."""
_LEAST_CODES: Final = 3
_NUMBERED: Final = r"(?P<letters>[A-Za-z]{1,2})\s?(?P<day>\d{1,2})"
"""A letter with the number of its day, `M 7`."""
_LEAST_NUMBERED: Final = 5
_LEFT, _BESIDE = 2, 4
"""Columns in which weekdays may stand one below the other, and the other cells that these may have."""

Named = tuple[int, Sequence[str]]
"""The first of some columns, and the weekdays of them."""


def with_weekdays_of_letters(sheet: Sheet) -> Sheet:
    """The sheet with the names of weekdays in the place of their letters, where a row of its top has these, or a column at its left
    has nothing else but a heading and a remark; and a note of it."""
    top = list(islice(sheet.rows(), _HEAD_ROWS))
    found = next(((number, *named) for number, row in top if (named := _week_in(row)) is not None), None)
    if found is None:
        return _down(sheet, top)
    head, first, names = found

    def rows() -> Iterator[Row]:
        for number, row in sheet.rows():
            yield number, [*row[:first], *names, *row[first + len(names) :]] if number == head else row

    message = f"The letters that head columns of row {head} are read as {names[0]} to {names[-1]}."
    return _renamed(sheet, rows, message, head, first)


def _down(sheet: Sheet, top: Sequence[Row]) -> Sheet:
    """The sheet with the names of weekdays in the place of letters down one of its first columns."""
    for column in range(_LEFT):
        cells = [(number, row[column] if column < len(row) else "") for number, row in top]
        named = _week_in([cell for _, cell in cells])
        if named is None or sum(bool(cell_text(cell)) for _, cell in cells) > len(named[1]) + _BESIDE:
            continue
        first, names = named
        by_row = {number: name for (number, _), name in zip(cells[first:], names, strict=False)}

        def rows(column: int = column, by_row: dict[int, str] = by_row) -> Iterator[Row]:
            for number, row in sheet.rows():
                yield number, [*row[:column], by_row[number], *row[column + 1 :]] if number in by_row else row

        message = f"The letters down the rows from {min(by_row)} on are read as {names[0]} to {names[-1]}."
        return _renamed(sheet, rows, message, min(by_row), column)
    return sheet


def _renamed(
    sheet: Sheet, rows: Callable[[], Iterator[Row]], message: str, number: int, column: int
) -> Sheet:
    told = note("weekday-letters", message, "If they are not, write other headings.")
    return sheet._replace(
        read_rows=RowsAgain(rows), notes=(*sheet.notes, told.at(sheet.place(number, column)))
    )


def _week_in(row: Sequence[Cell]) -> Named | None:
    """Where a row has the letters of a week and no other beside them, and its weekdays; or letters and short forms of three weekdays
    or more after each other, `M`, `Tu`, `W`."""
    numbered = [re.fullmatch(_NUMBERED, cell_text(cell)) for cell in row]
    if sum(match is not None for match in numbered) >= _LEAST_NUMBERED:
        found = _week_in([match["letters"] if match else "" for match in numbered])
        days = [match["day"] if match else "" for match in numbered]
        return found and (
            found[0],
            [f"{name} {day}" for name, day in zip(found[1], days[found[0] :], strict=False)],
        )
    letters = "".join(text.casefold() if len(text := cell_text(cell)) == 1 else " " for cell in row)
    for run in letters.split():
        at = letters.index(run)
        if run in _FROM_SUNDAY:
            return at, (WEEKDAYS[-1], *WEEKDAYS[:-1])
        if run[:5] in _WEEKS and run[5:] in _WEEKENDS:
            return at, WEEKDAYS[: len(run)]
    if not letters.strip():
        return None
    codes = [fold(cell_text(cell)).strip(" .") for cell in row]
    for at, code in enumerate(codes):
        fits = takewhile(lambda one: one[0] in one[1], zip(codes[at:], _CODES, strict=False))
        lengths = [len(one) for one, _ in fits]
        if code and len(lengths) >= _LEAST_CODES and min(lengths) == 1 < max(lengths):
            return at, WEEKDAYS[: len(lengths)]
    return None
