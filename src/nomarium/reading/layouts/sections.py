"""Lists whose dates stand in rows of their own, above the rows that they date."""

from collections import Counter
from collections.abc import Iterator, Sequence

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem, note
from nomarium.reading.cells.words import Lexicon
from nomarium.reading.columns.head import looks_like_date
from nomarium.reading.columns.headings import match_exactly
from nomarium.reading.layouts.eventlist import list_in
from nomarium.reading.layouts.layout import NotRead, Reading, Top
from nomarium.sheets.sheet import Row, Sheet, cell_text, is_blank


def look(top: Top) -> Reading | NotRead:
    """Read a sheet as a list whose dates stand in rows of their own."""
    dated = _dated_by_sections(top, top.seen or top.of_weekdays)
    if dated is not None:
        return list_in(top, dated, top.seen)
    message = f"{top.sheet.title} has no rows that hold a date alone."
    return NotRead(
        top.sheet,
        "no-sections",
        "it has no dates",
        Problem("date-column-missing", message, place=top.sheet.place()),
    )


def _dated_by_sections(top: Top, lexicon: Lexicon) -> Sheet | None:
    """The sheet with one more column, right of all others, that holds the date of each row's section; None when
    fewer than two rows hold a date and nothing else."""
    sheet, rows_at_top = top.sheet, top.rows
    titles = [(number, at) for number, row in rows_at_top if (at := _title_at(row, lexicon)) is not None]
    if len(titles) < 2:
        return None
    (first_number, title_at), lengths = titles[0], Counter(len(row) for _, row in rows_at_top)
    width = max((length for length, count in lengths.items() if count > 1), default=max(lengths))

    def rows() -> Iterator[Row]:
        date: Cell = ""
        for number, row in sheet.rows():
            cells = [*row, *[""] * (width - len(row))]
            at = _title_at(row, lexicon)
            if at is not None:
                date, cells[at] = cells[at], ""
            fits = len(cells) == width  # what is too wide has no place for a date: it is told as such
            if fits and not is_blank(row):
                cells.append(date if at is not None or _is_dated(row, title_at, width) else "")
            yield number, cells

    text = cell_text(next(row for number, row in rows_at_top if number == first_number)[title_at])
    message = f"Rows that hold a date alone date the rows below them: row {first_number} is “{text}”."
    told = note("date-sections", message).at(sheet.place())
    return sheet._replace(read_rows=rows, notes=(*sheet.notes, told), dates_above=True)


def _title_at(row: Sequence[Cell], lexicon: Lexicon) -> int | None:
    """Where the one filled cell of a row is, when it holds a date."""
    filled = [at for at, cell in enumerate(row) if cell_text(cell)]
    return filled[0] if len(filled) == 1 and looks_like_date(row[filled[0]], lexicon) else None


def _is_dated(row: Sequence[Cell], title_at: int, width: int) -> bool:
    """Whether a row takes the date of its section: not one of headings, nor another title or a remark."""
    filled = [at for at, cell in enumerate(row) if cell_text(cell)]
    if len(filled) == 1:
        return width == 1 or filled[0] != title_at
    return sum(match_exactly(cell_text(row[at])) is not None for at in filled) < 2
