"""Columns whose cells say days, times and a place of a meeting, `MWF 0900-0950 LOFT 1`."""

import re
from collections.abc import Iterator
from functools import partial
from typing import Final

from nomarium.model.problem import note
from nomarium.reading.cells.words import fold
from nomarium.reading.columns.head import TableHead
from nomarium.reading.columns.headings import match_heading
from nomarium.reading.columns.weekdaycolumn import UNSETTLED, days_and_time
from nomarium.sheets.sheet import Row, Sheet, cell_text, is_blank

_FORM: Final = re.compile(
    r"(?i)(?P<when>[^\W\d][^\d]*?\s+\d{1,2}[:.]?\d{2}(?:\s?[ap]\.?m\.?)?\s*[-–—]\s*\d{1,2}[:.]?\d{2}(?:\s?[ap]\.?m\.?)?)[\s,;]+(?:in\s+|@\s*)?(?P<place>(?!(?:[ap]\.?\s?m\.?|[ecmpab][sd]t|gmt|utc|cet|hrs?|weekly)\s*$)[^\W_].*)"
)
_PLACE: Final = "Room"


def with_places_apart(sheet: Sheet, head: TableHead) -> Sheet | None:
    """The sheet with the places of such a column in one of their own, right of all others; None where it has none, or where some
    of its cells have another form, or another column says the places."""
    fields = {
        match.field for heading in head.headings if heading and (match := match_heading(heading)) is not None
    }
    rows = [row for number, row in sheet.rows() if number >= head.first_row and not is_blank(row)]
    if not rows or "location" in fields:
        return None
    for at in range(len(head.headings)):
        texts = [text for row in rows if at < len(row) and (text := cell_text(row[at]))]
        texts = [text for text in texts if fold(text).strip(" .") not in UNSETTLED]
        matches = [_FORM.fullmatch(text) for text in texts]
        if texts and all(match is not None and days_and_time(match["when"])[1] for match in matches):
            heading = head.headings[at]
            told = note(
                "places-apart",
                f"What stands behind the times of “{heading}” is where the class is held: “{texts[0]}”.",
            )
            placed = sheet.place(None, at, heading)
            return sheet._replace(
                read_rows=partial(_apart, sheet, head, at), notes=(*sheet.notes, told.at(placed))
            )
    return None


def _apart(sheet: Sheet, head: TableHead, at: int) -> Iterator[Row]:
    width = len(head.headings)
    for number, row in sheet.rows():
        match = _FORM.fullmatch(cell_text(row[at])) if at < len(row) and number >= head.first_row else None
        place = match["place"] if match is not None else _PLACE if number == head.header_rows[-1] else ""
        cells = [*row, *[""] * (width - len(row))]
        if match is not None:
            cells[at] = match["when"]
        yield number, [*cells[:width], place]
