"""Lists whose rows name a session or a half of the day, where words beside the table say when these are: `AM = 9-12; PM = 1-4`, or
`--set-code` does."""

import re
from collections.abc import Iterator
from itertools import islice
from typing import Final

from nomarium.model.problem import Problem, note
from nomarium.model.wording import listed
from nomarium.reading.columns.column import Column
from nomarium.reading.columns.headings import SESSION_HEADINGS, normal
from nomarium.reading.columns.table import TableReading
from nomarium.sheets.sheet import Row, Sheet, cell_text

_LOOKED_AT: Final = 2000
"""Rows of the longest table that is looked at."""
_BARE: Final = r"^(\d{1,2})\s*[-–]\s*(\d{1,2})$"
"""Hours alone, which could be days of a month."""
_MOST_NAMES: Final = 12
_SAYING_WHEN: Final = frozenset(("time", "start", "end", "when", "class", "week"))


def with_session_times(sheet: Sheet, table: TableReading) -> Sheet | None:
    """The sheet with one more column, for the times of the session that each row names; None where rows say a time, or nothing
    beside the table says when each of their sessions is."""
    fields = {column.field for column in table.columns if column.filled}
    if _SAYING_WHEN & fields or not {"date", "summary"} <= fields:
        return None
    named = next(filter(_names_sessions, table.columns), None)
    rows = list(islice(sheet.rows(), _LOOKED_AT + 1)) if named is not None else []
    if named is None or len(rows) > _LOOKED_AT:
        return None
    from nomarium.reading.layouts.codes import times_of_names

    names = {cell_text(row[named.at]) for _, row in table.rows() if named.at < len(row)} - {""}
    asked = {code.casefold(): text for code, text in table.options.codes.items()}
    times = times_of_names(rows, names) if len(names) <= _MOST_NAMES and not asked else {}
    times = {name: text for name in names if (text := asked.get(name.casefold()))} or times
    if not names or times.keys() != names:
        return None
    heads, width = table.head.header_rows, max(len(table.head.headings), len(table.columns))

    def timed() -> Iterator[Row]:
        for number, row in sheet.rows():
            whole = [*row, *[""] * (width - len(row))]
            is_wide = sum(map(bool, map(cell_text, row))) > 1
            said = re.sub(_BARE, r"\1:00-\2:00", times.get(cell_text(whole[named.at]), "")) if is_wide else ""
            yield number, [*whole, "Time" if number in heads else said]

    shown = listed([f"{name} ({times[name]})" for name in sorted(names)])
    message = f"When the rows are is said {'by --set-code' if asked else 'beside the table'}: {shown}."
    told = note("session-times", message).at(sheet.place(None, named.at, named.heading))
    return sheet._replace(read_rows=timed, notes=(*sheet.notes, told), heard=sheet.heard | {named.at})


def with_lengths_of_sessions(table: TableReading) -> TableReading:
    """The table with a problem where rows name their session and how long they last, and nothing says when a session begins."""
    fields = {column.field for column in table.columns if column.filled}
    named = next(filter(_names_sessions, table.columns), None)
    if named is None or "duration" not in fields or fields & {"time", "start", "end", "when"}:
        return table
    cells = (cell_text(row[named.at]) for _, row in islice(table.rows(), _LOOKED_AT) if named.at < len(row))
    names = [*{name.casefold(): name for name in cells if name}.values()][:_MOST_NAMES]
    if not names:
        return table
    message = f"The rows say how long they last, and only “{named.heading}” when: nothing says at what time {listed([f'“{one}”' for one in names])} begin."
    asked = " ".join(f'--set-code "{name}=TIME"' for name in names)
    remedy = f"Say when each begins: {asked}; or leave the lengths out."
    place = table.sheet.place(None, named.at, named.heading)
    return table._replace(problems=(*table.problems, Problem("start-missing", message, remedy, place)))


def _names_sessions(column: Column) -> bool:
    is_session = column.is_ignored and normal(column.heading) in SESSION_HEADINGS
    return column.how != "asked" and column.filled > 0 and (column.is_kept or is_session)
