"""Classes whose first and last period stand in two columns: `From period`, `To period`."""

from collections.abc import Iterator
from functools import partial
from itertools import islice
from typing import Final

from nomarium.school.planheads import plain
from nomarium.sheets.sheet import Row, Sheet, cell_text

_HEAD_ROWS: Final = 40
_FIRST: Final = frozenset(
    ("fromperiod", "firstperiod", "startperiod", "periodfrom", "periodstart", "startingperiod")
)
_LAST: Final = frozenset(("toperiod", "lastperiod", "endperiod", "periodto", "periodend", "endingperiod"))


def periods_in_one(sheet: Sheet) -> Sheet | None:
    """The sheet with its periods in one column, `1-2`; None where no two columns say the first and the last."""
    for number, row in islice(sheet.rows(), _HEAD_ROWS):
        names = [plain(cell_text(cell)) for cell in row]
        first = next((n for n, name in enumerate(names) if name in _FIRST), None)
        last = next((n for n, name in enumerate(names) if name in _LAST), None)
        if first is not None and last is not None:
            return sheet._replace(read_rows=partial(_in_one, sheet, number, first, last))
    return None


def _in_one(sheet: Sheet, head: int, first: int, last: int) -> Iterator[Row]:
    for number, row in sheet.rows():
        if number < head or first >= len(row):
            yield number, row
            continue
        begin, end = cell_text(row[first]), cell_text(row[last]) if last < len(row) else ""
        both = "Period" if number == head else f"{begin}-{end}" if end and end != begin else begin
        yield number, [both if n == first else "" if n == last else cell for n, cell in enumerate(row)]
