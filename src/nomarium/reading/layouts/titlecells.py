"""Cells that hold a title and its time, and perhaps its place on a line of its own: a column for each of them."""

import re
from collections.abc import Iterator
from itertools import islice
from typing import Final

from nomarium.model.cell import Cell
from nomarium.model.problem import note
from nomarium.model.wording import counted
from nomarium.reading.cells.placewords import is_place
from nomarium.reading.cells.times import Times, read_times
from nomarium.reading.columns.table import TableReading
from nomarium.reading.columns.timesinwords import holds_time
from nomarium.sheets.sheet import Row, Sheet

_LOOKED_AT: Final = 40
_LEAST: Final = 2
_SURE: Final = r"(?i)\d\s?[ap]\.?m\b|\d[:h]\d\d|\d\.\d\d\s?[-–—]\s?\d{1,2}\.\d\d|noon|\d\s?uhr\b"
"""A time that can be nothing else."""
_DOTTED: Final = r"(?:^|[\s(])(?:0?[7-9]|1\d|2[0-3])\.[0-5][05](?:$|[\s):,])"
_FIVES: Final = r"(?<!\d)\d{1,2}\.[0-5][05](?!\d)"
_TIME_FIRST: Final = r"(?i)(?:\d{1,2}(?:[:.]\d\d)?\s?[ap]\.?m\b|\d{1,2}[:h]\d\d\b)"
_SAYING_WHEN: Final = frozenset(("time", "start", "end", "duration", "class"))
_GIVEN: Final = _SAYING_WHEN | {"all-day"}


def with_cells_apart(sheet: Sheet, table: TableReading) -> Sheet | None:
    """The sheet with two more columns, for the times and the places that its cells of titles hold, on lines of their own or
    among their words; None where fewer than half of these cells hold one time, as nearly everywhere, and not all of them begin
    with it."""
    title = table.column("summary")
    if title is None or _SAYING_WHEN & {column.field for column in table.columns}:
        return None
    if table.options.title or table.options.defaults.keys() & _GIVEN:
        return None
    if any(
        re.search(_SURE, text) for c in table.columns if c.field in ("date", "when") for text in c.samples
    ):
        return None
    heads, at = table.head.header_rows, title.at
    first = (row for number, row in islice(sheet.rows(), _LOOKED_AT) if number not in heads)
    lines = [
        found for row in first if at < len(row) and (found := _lines(row[at])) and any(map(_says_much, found))
    ]
    timed = [found for found in lines if _has_time(found)]
    are_sure = any(re.search(_SURE, line) for found in timed for line in found) or _are_dotted_times(timed)
    is_usual = len(timed) >= _LEAST and len(timed) * 2 >= len(lines)
    begin_so = bool(timed) and all(len(found) == 1 and re.match(_TIME_FIRST, found[0]) for found in timed)
    if not are_sure or not (is_usual or begin_so):
        return None
    width = max(len(table.head.headings), len(table.columns))

    def rows() -> Iterator[Row]:
        for number, row in sheet.rows():
            whole = [*row, *[""] * (width - len(row))]
            if number in heads:
                yield number, [*whole, "Time", "Where"]
            else:
                whole[at], time, place = _apart(whole[at])
                yield number, [*whole, time, place]

    first_timed = " ".join(" ".join(timed[0]).split())
    message = (
        f"Cells that hold a title and its time, such as “{first_timed[:60]}”, are a column for each (and for the place, where it "
        "has a line of its own)."
    )
    remedy = "To keep the titles as they are: --set all-day=yes."
    told = [note("title-cells", message, remedy).at(sheet.place(None, at))]
    several = [
        (number, row[at])
        for number, row in sheet.rows()
        if number not in heads and at < len(row) and _says_several(row[at])
    ]
    if several:
        number, text = several[0]
        message = f"{counted(len(several), 'title says', 'titles say')} more than one time, and so last all day: “{text}”."
        told.append(
            note("title-timed", message, "Write each on a row of its own.").at(sheet.place(number, at))
        )
    return sheet._replace(read_rows=rows, notes=(*sheet.notes, *told))


def _are_dotted_times(timed: list[list[str]]) -> bool:
    """Whether two titles or more say one time with a dot each, most of them of a working day, and figures count nothing and are
    not all that tells them apart: `9.00 Oars`, `Tar (10.30)`; not `Chapter 9.10`, `Chapter 9.20`."""
    from nomarium.reading.layouts.celltimes import NUMBERED  # few lists have such cells

    texts = [found[0] for found in timed if len(found) == 1]
    said = [match for text in texts if (match := re.search(_FIVES, text))]
    if not len(said) == len(texts) == len(timed) >= _LEAST:
        return False
    if any(
        re.search(NUMBERED, text[: one.start()].rstrip(" (")) for text, one in zip(texts, said, strict=True)
    ):
        return False
    rests = {text[: one.start()] + text[one.end() :] for text, one in zip(texts, said, strict=True)}
    return len(rests) > 1 and sum(re.search(_DOTTED, text) is not None for text in texts) * 2 >= len(texts)


def _says_several(cell: Cell) -> bool:
    lines = _lines(cell)
    return len(lines) == 1 and holds_time(lines[0]) and not _among_words(lines[0])[1]


def _says_much(line: str) -> bool:
    return any(map(str.isalnum, line))


def _has_time(lines: list[str]) -> bool:
    """Whether a cell has a time: on a line of its own, or one among the words of its only line."""
    if len(lines) > 1:
        return any(map(_is_time, lines))
    return any(map(str.isdigit, lines[0])) and bool(_among_words(lines[0])[1])


def _among_words(line: str) -> tuple[str, str]:
    """The title and the one time of a line; no time where it says none, several, or nothing else."""
    from nomarium.reading.layouts.linetimes import time_in  # few lists have such cells

    time, rest = time_in(line)
    is_one = (
        bool(time)
        and not time_in(rest)[0]
        and not holds_time(rest)
        and re.search(r"[^\W\d_]{2}", rest) is not None
    )
    return (rest, time) if is_one else (line, "")


def _apart(cell: Cell) -> tuple[Cell, str, str]:
    """The title, the time and the place of a cell."""
    lines = _lines(cell)
    if len(lines) == 1 and any(map(str.isdigit, lines[0])):
        return *_among_words(lines[0]), ""
    if len(lines) < 2:
        return cell, "", ""
    timed = next((line for line in lines[1:] if _is_time(line)), lines[0] if _is_time(lines[0]) else "")
    time, beside = _time_and_place(timed) if timed else ("", "")
    others = [line for line in lines if line != timed]
    place = beside or (others.pop() if len(others) > 1 and is_place(others[-1]) else "")
    return "\n".join(others), time, place


def _time_and_place(line: str) -> tuple[str, str]:
    """A line that is a time, or one and then a place, `7 PM, Chart room`."""
    from nomarium.reading.layouts.linetimes import time_in  # few lists have such cells

    time, rest = time_in(line)
    return (time, rest) if rest and is_place(rest) else (line, "")


def _lines(cell: Cell) -> list[str]:
    return [line.strip() for line in cell.split("\n") if line.strip()] if isinstance(cell, str) else []


def _is_time(line: str) -> bool:
    """Whether a line is a time that can be nothing else, or says that something lasts all day."""
    from nomarium.reading.layouts.linetimes import reads_as_time  # few lists have such cells

    times = read_times(line)
    is_whole = reads_as_time(line) or (isinstance(times, Times) and times.is_all_day)
    return is_whole or bool(_time_and_place(line)[1])
