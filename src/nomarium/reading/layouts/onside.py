"""Lists that lie on their side: a label in each row, `When`, `What`, `Where`, and an event in each column beside them."""

from collections.abc import Sequence
from typing import Final

from nomarium.model.cell import Cell
from nomarium.model.problem import note
from nomarium.reading.cells.placewords import is_place
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.columns.daycells import looks_like_date
from nomarium.reading.columns.headings import FIELDS, match_exactly
from nomarium.reading.layouts.eventlist import list_in
from nomarium.reading.layouts.layout import NotRead, Reading, Top, not_read
from nomarium.reading.layouts.rosterslots import Slot
from nomarium.reading.layouts.slots import time_of
from nomarium.reading.rows.when import NOTHING
from nomarium.sheets.sheet import Row, Sheet, cell_text, is_blank

_SAYS_WHEN: Final = frozenset(("date", "when", "start"))


def look(top: Top) -> Reading | NotRead:
    """Read a sheet as a list on its side, or say why it is none."""
    sheet = top.sheet
    rows = [row for _, row in top.rows if not is_blank(row)]
    if not lies_on_side(rows) or not _has_dates(rows, top.seen or top.lexicon):
        message = f"{sheet.title} has no labels of events one below the other."
        return not_read(sheet, "no-weekdays", "it lies on no side", "date-column-missing", message)
    listed = turned(sheet, rows)
    return list_in(Top(listed, top.options._replace(header_row=1), True), listed, top.seen)


def turned(sheet: Sheet, rows: Sequence[Sequence[Cell]]) -> Sheet:
    """A sheet that lies on its side with its columns as rows, and a note of it."""
    width = max(map(len, rows))
    columns: list[Row] = [(n + 1, [row[n] if n < len(row) else "" for row in rows]) for n in range(width)]
    told = note("layout-side", "It lies on its side: each column is read as a row.").at(sheet.place())
    return sheet._replace(
        read_rows=lambda: columns, merged=(), notes=(*sheet.notes, told), unit="column", first_column=0
    )


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


def are_no_names(slots: Sequence[Slot], head: Sequence[Cell], lexicon: Lexicon) -> bool:
    """Whether labels are numbers of periods, or the headings of a list that lies on its side."""
    labels = {slot.label for slot in slots}
    if all(label.isdigit() for label in labels if label):
        return True
    if sum(fold(label).strip(" .") in lexicon.weekdays for label in labels) * 2 > len(labels):
        return True  # weekdays down
    texts = [text for text in (*labels, cell_text(head[0])) if text]
    heads = [text for text in texts if len(text) > 1 and not text[-1].isdecimal() and not is_place(text)]
    timed = {slot.label for slot in slots if time_of(slot.cell) is not NOTHING}
    named = 0  # A, Van 1 and a hall are none; nor are Open and Close over no times
    for text in heads:
        match = match_exactly(text)
        named += match is not None and (text in timed or match.field not in ("time", "start", "end"))
    return named * 2 > len(texts) > 1
