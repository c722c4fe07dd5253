"""Lists of classes whose blocks nothing but the drawn week knows: `Red`, `Knots` beside a week of Red, Blue and Green."""

from typing import Final

from nomarium.school.plancolumns import columns_of
from nomarium.school.planheads import plain
from nomarium.sheets.sheet import Sheet, cell_text

_MOSTLY: Final = 0.8
_LEAST: Final = 2
_WHEN: Final = frozenset(("label", "period", "meets", "start", "time", "first"))


def block_columns(sheet: Sheet, drawn: frozenset[str]) -> dict[str, int] | None:
    """The columns of classes and of their blocks, where a column without another meaning holds what the cells of weeks that are
    `drawn` (compared form) say; None where there is none, or where the classes themselves are drawn."""
    rows = list(sheet.rows())
    at, columns, ignored = columns_of(rows, "timetable")
    if at < 0 or "class" not in columns or columns.keys() & _WHEN:
        return None
    below = [row for _, row in rows[at + 1 :]]

    def texts(column: int) -> list[str]:
        return [text for row in below if column < len(row) and (text := plain(cell_text(row[column])))]

    if drawn.intersection(texts(columns["class"])):
        return None
    for column, _ in ignored:
        blocks = texts(column)
        known = [text for text in blocks if text in drawn]
        if len({*known}) >= _LEAST and len(known) >= _MOSTLY * len(blocks):
            return {"class": columns["class"], "period": column}
    return None
