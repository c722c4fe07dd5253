"""Lists whose dates stand under their years: `Holiday`, `2026`, `2027` over `Thanksgiving`, `12 Oct`, `11 Oct`."""

import re
from typing import Final

from nomarium.model.problem import note
from nomarium.reading.columns.head import find_head
from nomarium.reading.columns.headedyears import years_of
from nomarium.reading.columns.table import data_rows
from nomarium.reading.layouts.eventlist import list_in
from nomarium.reading.layouts.layout import NotRead, Reading, Top, not_read
from nomarium.sheets.sheet import Row, cell_text

_YEAR: Final = re.compile(r"\b(?:19|20)\d\d\b")


def look(top: Top) -> Reading | NotRead:
    """Read a sheet whose columns are years as a list of their dates, or say why it is none."""
    sheet = top.sheet
    head = find_head(sheet, top.lexicon, top.options.header_row)
    years = years_of(head.headings) if head is not None and head.header_rows else {}
    if head is None or len(years) < 2:
        message = f"{sheet.title} has no years side by side over dates."
        return not_read(sheet, "no-weekdays", "it has no years over dates", "date-column-missing", message)
    others = [n for n, text in enumerate(head.headings) if n not in years]
    first = head.header_rows[-1]

    def rows() -> list[Row]:
        found: list[Row] = [(first, ["Date", *(head.headings[n] or f"Column {n + 1}" for n in others)])]
        for number, row in data_rows(sheet, head):
            beside = [row[n] if n < len(row) else "" for n in others]
            for n, year in years.items():
                cell = row[n] if n < len(row) else ""
                if cell_text(cell):
                    whole = (
                        cell if not isinstance(cell, str) or _YEAR.search(cell) else f"{cell.strip()} {year}"
                    )
                    found.append((number, [whole, *beside]))
        return found

    named = ", ".join(str(year) for year in years.values())
    told = note("layout-head-years", f"The dates under {named} are of these years.").at(sheet.place())
    listed = sheet._replace(read_rows=rows, merged=(), notes=(*sheet.notes, told))
    return list_in(Top(listed, top.options._replace(header_row=first), top.is_whole), listed, top.seen)
