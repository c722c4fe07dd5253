"""Lists that lie on their side: a label in each row, `When`, `What`, `Where`, and an event in each column beside them."""

from collections.abc import Sequence
from typing import Final

from nomarium.model.cell import Cell
from nomarium.model.problem import note
from nomarium.reading.cells.words import Lexicon
from nomarium.reading.columns.daycells import looks_like_date
from nomarium.reading.columns.headings import FIELDS, match_exactly
from nomarium.reading.layouts.eventlist import list_in
from nomarium.reading.layouts.layout import NotRead, Reading, Top, not_read
from nomarium.sheets.sheet import Row, cell_text, is_blank

_SAYS_WHEN: Final = frozenset(("date", "when", "start"))


def look(top: Top) -> Reading | NotRead:
    """Read a sheet as a list on its side, or say why it is none."""
    sheet = top.sheet
    rows = [row for _, row in top.rows if not is_blank(row)]
    if not lies_on_side(rows) or not _has_dates(rows, top.seen or top.lexicon):
        message = f"{sheet.title} has no labels of events one below the other."
        return not_read(sheet, "no-weekdays", "it lies on no side", "date-column-missing", message)
    width = max(map(len, rows))
    turned: list[Row] = [(n + 1, [row[n] if n < len(row) else "" for row in rows]) for n in range(width)]
    told = note("layout-side", "It lies on its side: each column is read as a row.").at(sheet.place())
    listed = sheet._replace(
        read_rows=lambda: turned, merged=(), notes=(*sheet.notes, told), unit="column", first_column=0
    )
    return list_in(Top(listed, top.options._replace(header_row=1), True), listed, top.seen)


def lies_on_side(rows: Sequence[Sequence[Cell]]) -> bool:
    """Whether most rows begin with the name of a field, each another one."""
    labels, rows = _labels(rows), _beside_labels(rows)
    return len(set(labels)) > 1 and len(labels) * 2 > len(rows) and len(rows) <= len(FIELDS)


def names_events_on_side(rows: Sequence[Sequence[Cell]], lexicon: Lexicon) -> bool:
    """Whether rows may lie on their side, and one of them says when and one what each event is called: below dates stand no
    names then."""
    labels, rows = _labels(rows), _beside_labels(rows)
    has_titles = bool({"summary", "class"}.intersection(labels))
    return has_titles and len(labels) * 2 >= len(rows) and _has_dates(rows, lexicon)


def _beside_labels(rows: Sequence[Sequence[Cell]]) -> list[Sequence[Cell]]:
    """The rows that hold more than one cell: a title is none of them."""
    return [row for row in rows if sum(map(bool, map(cell_text, row))) > 1]


def _labels(rows: Sequence[Sequence[Cell]]) -> list[str]:
    """The fields that the first cells of rows name."""
    texts = [
        text for row in _beside_labels(rows) if len(text := cell_text(row[0])) > 1
    ]  # A is a group, and no “à”
    return [match.field for text in texts if (match := match_exactly(text)) is not None]


def _has_dates(rows: Sequence[Sequence[Cell]], lexicon: Lexicon) -> bool:
    """Whether a row that says when holds dates, one in each column that has anything."""
    for row in rows:
        match = match_exactly(cell_text(row[0]))
        cells = [cell for cell in row[1:] if cell_text(cell)]
        says_when = match is not None and match.field in _SAYS_WHEN
        if says_when and cells and all(looks_like_date(cell, lexicon) for cell in cells):
            return True
    return False
