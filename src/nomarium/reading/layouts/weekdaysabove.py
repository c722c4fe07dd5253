"""Weekly lists in parts, each under the weekday it is for: a line `Monday`, the rows of Monday below it."""

from collections.abc import Iterator, Sequence

from nomarium.model.cell import Cell
from nomarium.model.problem import note
from nomarium.model.wording import listed
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.columns.head import TableHead, find_head
from nomarium.reading.columns.headings import match_heading
from nomarium.reading.layouts.layout import Top
from nomarium.reading.rows.faults import repeats_headings
from nomarium.sheets.sheet import Row, Sheet, cell_text


def in_parts(top: Top) -> Sheet:
    """The sheet of a list with the weekdays that stand above its rows in these; as it is where none do, which is found out at the
    least cost."""
    alone = [row for _, row in top.rows if row and row[0] and not any(row[1:])]
    if not alone or not any(_weekday_alone(row, top.of_weekdays) for row in alone):
        return top.sheet
    lexicon = top.of_weekdays
    head = find_head(top.sheet, lexicon, top.options.header_row)
    parted = _in_parts(top.sheet, top.rows, head, lexicon) if head is not None else None
    return top.sheet if parted is None else parted


def _in_parts(sheet: Sheet, rows: Sequence[Row], head: TableHead, lexicon: Lexicon) -> Sheet | None:
    """The sheet with the weekday of each part in a column, `Day`, behind all others; None where its first rows, `rows`, do not begin
    below a line that is one, or say weekdays themselves."""
    if not head.header_rows:
        return None
    below = [(number, row) for number, row in rows if number > head.header_rows[-1]]
    first = next((n for n, row in below if sum(map(bool, map(cell_text, row))) > 1), None)
    lone = {number: day for number, row in rows if (day := _weekday_alone(row, lexicon))}
    if first is None or not lone or min(lone) > first:
        return None
    if any(
        fold(cell_text(cell)).strip() in lexicon.weekdays for n, row in below if n not in lone for cell in row
    ):
        return None
    places = {n for number, row in rows if number in lone for n, cell in enumerate(row) if cell_text(cell)}
    named = [match_heading(head.headings[n]) for n in places if n < len(head.headings)]
    if any(match is not None and match.field in ("date", "day") for match in named):
        return None  # they stand in their own column, written once a group
    width = max(len(row) for _, row in rows)
    title = {fold(text) for _, row in rows for cell in row if (text := cell_text(cell))}
    heading = next(name for name in ("Day", "Weekday", "On the day") if fold(name) not in title)

    def in_rows() -> Iterator[Row]:
        day = ""
        for number, row in sheet.rows():
            wide = [*row, *([""] * (width - len(row)))]
            if number == head.header_rows[-1]:
                yield number, [*wide, heading]
            elif alone := _weekday_alone(row, lexicon):
                day = alone
                yield number, [*([""] * width), day]  # beside the columns: a note
            elif repeats_headings(row, head.headings):
                yield number, wide
            else:
                is_row = sum(map(bool, map(cell_text, row))) > 1
                yield number, [*wide, day if is_row else ""] if len(row) <= width else row

    days = listed(list(dict.fromkeys(lone.values())))
    told = note("days-above", f"The rows below a line that is a weekday ({days}) are held on that day.")
    return sheet._replace(read_rows=in_rows, notes=(*sheet.notes, told.at(sheet.place(min(lone)))))


def _weekday_alone(row: Sequence[Cell], lexicon: Lexicon) -> str:
    """The weekday that a row says and nothing else, `Monday`, `TUESDAYS:`; else nothing."""
    texts = [text for cell in row if (text := cell_text(cell))]
    if len(texts) != 1:
        return ""
    said = texts[0].strip(" .:–-")
    if fold(said) in lexicon.weekdays:
        return said
    return said[:-1] if fold(said[:-1]) in lexicon.weekdays and fold(said[-1]) == "s" else ""
