"""A PDF document as sheets: its tables, ruled or not, those that go on over pages made one, and its lines."""

from bisect import bisect_right
from collections.abc import Sequence
from pathlib import Path
from typing import Final, NamedTuple

from nomarium.model.errors import SourceError
from nomarium.model.problem import LINES, Place, Problem, note
from nomarium.model.wording import counted, listed
from nomarium.sheets.documents import those_above, years_said
from nomarium.sheets.pdfcolumns import blocks_of
from nomarium.sheets.pdfgrids import Grid, grids_of
from nomarium.sheets.pdfmargins import running_lines, without_lines
from nomarium.sheets.pdfpages import Page, read_pages
from nomarium.sheets.pdfparagraphs import whole_lines
from nomarium.sheets.pdftext import Line, lines_of
from nomarium.sheets.sheet import Area, Row, Sheet

_SAME_PLACE: Final = 8.0
"""Points by which the columns of a table that goes on may stand elsewhere on the next page."""


_LEAST_HEADINGS: Final = 3
"""Pieces of a line that may stand over the columns of a table."""


class _Table(NamedTuple):
    pages: tuple[int, ...]
    number: int
    rows: list[list[str]]
    merged: list[Area]
    edges: tuple[float, ...]
    above: str
    above_line: int
    """The number of the line above it, of all pages; 0 for none."""
    head_line: int
    """The same of the line with which the text above it begins."""


class _Item(NamedTuple):
    """A table, or a line, of a page."""

    top: float
    line: Line | None
    rows: list[list[str]] | None = None
    merged: tuple[Area, ...] = ()
    edges: tuple[float, ...] = ()


def open_pdf(path: Path, name: str) -> list[Sheet]:
    """The tables and lines of a PDF. Raises SourceError when it cannot be read, or a page holds a picture and no text."""
    pages = read_pages(path, name)
    scanned = [n for n, page in enumerate(pages, 1) if not page.letters and page.is_picture]
    if scanned:
        which = (
            f"Page {scanned[0]} is a picture"
            if len(scanned) == 1
            else f"Pages {listed(list(map(str, scanned)))} are pictures"
        )
        message = f"{which} without text in {name}, as a scanner makes it."
        remedy = "Have its text recognized, or type the dates into a table."
        raise SourceError(Problem("source-scanned", message, remedy, Place(name)))
    running = running_lines(pages)
    items = [_items(without_lines(page, lines)) for page, lines in zip(pages, running, strict=True)]
    tables = _joined(items)
    years = years_said([item.line.text for page in items for item in page if item.line is not None])
    sheets = [
        _table_sheet(table, name)._replace(said_above=those_above(years, table.above_line))
        for table in tables
    ]
    heads = tuple((table.head_line, sheet.name) for table, sheet in zip(tables, sheets, strict=True))
    lines = _lines_sheet(items, name)
    if lines is not None:
        sheets.append(lines._replace(heads=heads))
    blank = [n for n, page in enumerate(pages, 1) if not page.letters]
    return _with_notes(sheets, name, sum(map(len, running)), sum(page.sideways for page in pages), blank)


def _with_notes(
    sheets: list[Sheet], name: str, running: int, sideways: int, blank: Sequence[int]
) -> list[Sheet]:
    """The sheets with what was passed over told at the first of them."""
    told = []
    if running:
        message = f"Running heads and feet of its pages are passed over: {counted(running, 'line')}."
        told.append(note("page-margins", message).at(Place(name)))
    if sideways:
        message = f"Letters that stand sideways are not read: {sideways}."
        told.append(note("letters-sideways", message).at(Place(name)))
    if blank:
        which = f"Page {blank[0]} has" if len(blank) == 1 else f"Pages {listed(list(map(str, blank)))} have"
        told.append(
            note("page-blank", f"{which} no text.", "Look whether it is blank there too.").at(Place(name))
        )
    if told and sheets:
        sheets[0] = sheets[0]._replace(notes=(*told, *sheets[0].notes))
    return sheets


def _items(page: Page) -> list[_Item]:
    """The tables and lines of a page, from the top down."""
    grids = grids_of(page.letters, page.rules)
    rest = [
        one for one in page.letters
        if not any(
            grid.left <= (one.left + one.right) / 2 <= grid.right and grid.top <= (one.top + one.bottom) / 2 <= grid.bottom
            for grid in grids
        )
    ]  # fmt: skip
    found: list[_Item] = []
    for block in blocks_of(lines_of(rest)):
        if block.rows is not None:
            found.append(_Item(block.top, None, block.rows, block.merged, block.edges))
        else:
            found += [_Item(line.top, line) for line in block.lines]
    for grid in grids:  # among the lines, which are in order already
        at = next((n for n, item in enumerate(found) if item.top > grid.top), len(found))
        head = _headings(grid, found[at - 1].line if at else None)
        item = _Item(grid.top, None, grid.rows, tuple(grid.merged), grid.edges)
        if head:
            down = [
                area._replace(first_row=area.first_row + 1, last_row=area.last_row + 1)
                for area in grid.merged
            ]
            found[at - 1] = item._replace(rows=[head, *grid.rows], merged=tuple(down))
        else:
            found.insert(at, item)
    return found


def _headings(grid: Grid, line: Line | None) -> list[str]:
    """A line right above a ruled table as its headings, where each of its pieces stands over a column of its own; none
    where they do not."""
    if line is None or len(line.pieces) < _LEAST_HEADINGS or grid.top - line.bottom > line.height:
        return []
    row = [""] * len(grid.edges)
    for piece in line.pieces:
        column = bisect_right(grid.edges, (piece.left + piece.right) / 2) - 1
        if column < 0 or piece.right > grid.right + _SAME_PLACE or row[column]:
            return []
        row[column] = piece.text
    return row


def _joined(pages: Sequence[Sequence[_Item]]) -> list[_Table]:
    """The tables, those that end a page joined with what goes on at the top of the next."""
    found: list[_Table] = []
    lines = 0
    for number, page in enumerate(pages, 1):
        count, above, seen, head, before = 0, "", 0, 0, lines
        whole = dict(whole_lines([item.line for item in page if item.line is not None]))
        for n, item in enumerate(page):
            if item.rows is None:
                seen += item.line is not None
                if seen in whole:  # a title over two lines is one
                    above, head = whole[seen], before + seen
                lines += item.line is not None
                continue
            count += 1
            last = found[-1] if found else None
            goes_on = (
                n == 0 and last is not None and last.pages[-1] == number - 1
                and pages[number - 2] and pages[number - 2][-1].rows is not None and _stand_alike(last.edges, item.edges)
            )  # fmt: skip
            if goes_on and last is not None:
                down = len(last.rows)
                areas = [
                    area._replace(first_row=area.first_row + down, last_row=area.last_row + down)
                    for area in item.merged
                ]
                found[-1] = last._replace(
                    pages=(*last.pages, number), rows=[*last.rows, *item.rows], merged=[*last.merged, *areas]
                )
            else:
                found.append(
                    _Table(
                        (number,),
                        count,
                        item.rows,
                        list(item.merged),
                        item.edges,
                        above,
                        lines if above else 0,
                        head,
                    )
                )
    return found


def _stand_alike(one: Sequence[float], other: Sequence[float]) -> bool:
    return len(one) == len(other) and all(abs(a - b) < _SAME_PLACE for a, b in zip(one, other, strict=True))


def _table_sheet(table: _Table, name: str) -> Sheet:
    rows: list[Row] = [(n, row) for n, row in enumerate(table.rows, 1)]
    if table.above and len(rows) > 1:
        rows.insert(0, (0, [table.above, *[""] * (len(table.rows[0]) - 1)]))
    first, last = table.pages[0], table.pages[-1]
    called = f"page {first}" if first == last else f"pages {first}-{last}"
    return Sheet(
        name, f"{called}, table {table.number}", lambda: rows, merged=tuple(table.merged), is_narrow=True
    )


def _lines_sheet(pages: Sequence[Sequence[_Item]], name: str) -> Sheet | None:
    """The lines outside tables; None when there are none. Each page numbers its own."""
    rows: list[Row] = []
    begins: list[int] = []
    count = 0
    for page in pages:
        begins.append(count)
        lines = [item.line for item in page if item.line is not None]
        rows += [(count + number, [text]) for number, text in whole_lines(lines)]
        count += len(lines)
    if not any(str(row[0]).strip() for _, row in rows):
        return None
    return Sheet(
        name, LINES, lambda: rows, unit="line", read_lines=lambda: rows, is_text=True,
        pages=tuple(begins) if len(pages) > 1 else (),
    )  # fmt: skip
