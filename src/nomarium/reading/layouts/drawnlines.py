"""A drawing within a text: times down and places or days across, its columns apart by spaces."""

from collections.abc import Iterator, Sequence
from functools import partial
from itertools import takewhile
from typing import Final, NamedTuple

from nomarium.model.problem import Problem, note
from nomarium.model.wording import listed
from nomarium.reading.layouts.columnlines import LEAST_COLUMNS, cells_of, pieces_of, with_others
from nomarium.reading.layouts.layout import NotRead, Reading, Top, not_read
from nomarium.reading.layouts.linetimes import reads_as_time
from nomarium.sheets.sheet import Row, Sheet

_LEAST_ROWS: Final = 2


class _Drawing(NamedTuple):
    begin: int
    end: int
    """Before which line of the text it ends."""
    rows: list[Row]
    """Its headings first."""


def drawing_of_lines(top: Top, lines: Sequence[Row]) -> Reading | NotRead | None:
    """A text that draws times down and places or days across; why that has no events, or None where it draws no such thing."""
    texts = _texts_of(lines)
    drawing = next(_drawings(texts), None)
    if drawing is None:
        return None
    above, below = texts[: drawing.begin], texts[drawing.end :]
    other = next((number for number, text in (*above, *below) if _begins_with_time(text)), None)
    if other is not None:
        message = f"Columns are drawn under line {drawing.rows[0][0]}, and line {other} has a time of its own: together they cannot be read."
        remedy = "Save the drawing and the lines as files of their own; or, if nothing is drawn: --as text."
        return not_read(top.sheet, "no-lines", "a part of it is drawn", "text-mixed", message, remedy)
    from nomarium.reading.layouts import daysheet, grid  # few texts draw anything

    rows = [*_alone(above), *drawing.rows]
    sheet = top.sheet._replace(read_rows=lambda: rows, unit="line", read_lines=None)
    tried = [look(Top(sheet, top.options, top.is_whole)) for look in (daysheet.look, grid.look)]
    reading = next((one for one in tried if isinstance(one, Reading) and not one.problems), None)
    if reading is None:  # its shape is known, and only its day is not
        return next((one for one in tried if isinstance(one, NotRead) and one.why == "day-unnamed"), None)
    others = len(_alone(below))
    return reading._replace(
        layout="text",
        events=partial(with_others, reading, others),
        notes=(_told(sheet, [drawing]), *reading.notes),
    )


def several_drawings(sheet: Sheet) -> Sheet | None:
    """A text in which several days are drawn one below the other, as a sheet of cells; None for any other."""
    texts = _texts_of(list(sheet.read_lines())) if sheet.read_lines is not None else []
    drawings = list(_drawings(texts))
    if len(drawings) < 2:
        return None
    within = {number for one in drawings for number, _ in one.rows}
    if any(_begins_with_time(text) for number, text in texts if number not in within):
        return None
    rows: list[Row] = []
    seen = 0
    for drawing in drawings:
        rows += [*_alone(texts[seen : drawing.begin]), *drawing.rows]
        seen = drawing.end
    rows += _alone(texts[seen:])
    told = _told(sheet, drawings)
    return sheet._replace(
        read_rows=lambda: rows, unit="line", read_lines=None, is_text=False, notes=(*sheet.notes, told)
    )


def _told(sheet: Sheet, drawings: Sequence[_Drawing]) -> Problem:
    numbers = listed([str(one.rows[0][0]) for one in drawings])
    message = f"Read as a drawing: the columns under line{'s' * (len(drawings) > 1)} {numbers}."
    return note("text-columns", message, "If it is none: --as text.").at(sheet.place())


def _texts_of(lines: Sequence[Row]) -> list[tuple[int, str]]:
    return [(number, str(row[0]).expandtabs() if row else "") for number, row in lines]


def _alone(texts: Sequence[tuple[int, str]]) -> list[Row]:
    return [(at, [one.strip()]) for at, one in texts if one.strip()]


def _begins_with_time(text: str) -> bool:
    pieces = pieces_of(text)
    return bool(pieces) and (reads_as_time(pieces[0][1]) or reads_as_time(pieces[0][1].partition(" ")[0]))


def _drawings(texts: Sequence[tuple[int, str]]) -> Iterator[_Drawing]:
    """The drawings of a text: a row of headings, and right below it rows that begin with times."""
    n = 0
    while n < len(texts) - _LEAST_ROWS:
        has_columns = "  " in texts[n][1] and "  " in texts[n + 1][1]  # few lines have
        drawing = _drawn_from(texts, n) if has_columns else None
        if drawing is not None and not _follows_times(texts, n):
            yield drawing
            n = drawing.end
        else:
            n += 1


def _follows_times(texts: Sequence[tuple[int, str]], n: int) -> bool:
    """Whether a line of the same paragraph above one begins with a time: then it is one of a programme, and heads nothing."""
    above = takewhile(str.strip, (texts[at][1] for at in range(n - 1, -1, -1)))
    return any(map(_begins_with_time, above))


def _drawn_from(texts: Sequence[tuple[int, str]], n: int) -> _Drawing | None:
    number, text = texts[n]
    columns = pieces_of(text)
    if text.startswith("    "):
        columns.insert(0, (0, ""))  # the times have no heading
    if len(columns) < LEAST_COLUMNS or reads_as_time(columns[0][1]):
        return None
    rows: list[Row] = [(number, [piece for _, piece in columns])]
    for at, below in texts[n + 1 :]:
        cells = cells_of(below, columns) if below.strip() else None
        if cells is None or not reads_as_time(cells[0]):
            break
        rows.append((at, cells))
    if len(rows) > _LEAST_ROWS and all(len(list(filter(None, cells))) > 1 for _, cells in rows[1:]):
        return _Drawing(n, n + len(rows), rows)
    return None
