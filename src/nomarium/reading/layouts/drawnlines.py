"""A drawing within a text: times down and places or days across, its columns apart by spaces."""

from collections.abc import Sequence
from functools import partial
from typing import Final

from nomarium.model.problem import note
from nomarium.reading.layouts.columnlines import LEAST_COLUMNS, cells_of, pieces_of, with_others
from nomarium.reading.layouts.layout import NotRead, Reading, Top
from nomarium.reading.layouts.linetimes import reads_as_time
from nomarium.sheets.sheet import Row

_LEAST_ROWS: Final = 2


def drawing_of_lines(top: Top, lines: Sequence[Row]) -> Reading | NotRead | None:
    """A text that draws times down and places or days across; why that has no events, or None where it draws no such thing."""
    drawn = _drawn(lines)
    if drawn is None:
        return None
    from nomarium.reading.layouts import daysheet, grid  # few texts draw anything

    above, rows, below = drawn
    sheet = top.sheet._replace(read_rows=lambda: [*above, *rows], unit="line", read_lines=None)
    tried = [look(Top(sheet, top.options, top.is_whole)) for look in (daysheet.look, grid.look)]
    reading = next((one for one in tried if isinstance(one, Reading) and not one.problems), None)
    if reading is None:  # its shape is known, and only its day is not
        return next((one for one in tried if isinstance(one, NotRead) and one.why == "day-unnamed"), None)
    message = f"Read as a drawing: the columns under line {rows[0][0]}."
    told = note("text-columns", message, "If it is none: --as text.").at(sheet.place())
    return reading._replace(
        layout="text", events=partial(with_others, reading, below), notes=(told, *reading.notes)
    )


def _drawn(lines: Sequence[Row]) -> tuple[list[Row], list[Row], int] | None:
    """The lines above a drawing, its rows with the headings first, and how many lines stand below it."""
    texts = [(number, str(row[0]).expandtabs() if row else "") for number, row in lines]
    for n, (number, text) in enumerate(texts[:-_LEAST_ROWS]):
        columns = pieces_of(text)
        if text.startswith("    "):
            columns.insert(0, (0, ""))  # the times have no heading
        if len(columns) < LEAST_COLUMNS or reads_as_time(columns[0][1]):
            continue
        rows: list[Row] = [(number, [piece for _, piece in columns])]
        for at, below in texts[n + 1 :]:
            cells = cells_of(below, columns) if below.strip() else None
            if cells is None or not reads_as_time(cells[0]):
                break
            rows.append((at, cells))
        if len(rows) > _LEAST_ROWS and all(len(list(filter(None, cells))) > 1 for _, cells in rows[1:]):
            above: list[Row] = [(at, [one.strip()]) for at, one in texts[:n] if one.strip()]
            rest = texts[n + len(rows) :]
            return above, rows, sum(bool(one.strip()) for _, one in rest)
    return None
