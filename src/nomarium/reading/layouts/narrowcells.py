"""Cells of a page that were too narrow for their lines, in drawings that have an event a line."""

import re
from collections.abc import Iterator

from nomarium.sheets.sheet import Row, Sheet

_TIME_ALONE = r"(?i)\(?\d{1,2}(?:[.:h]\d\d)?\s?(?:[ap]\.?m\.?)?(?:\s?[-–]\s?\d{1,2}(?:[.:h]\d\d)?\s?(?:[ap]\.?m\.?)?)?\)?"


def in_whole_lines(sheet: Sheet) -> Sheet:
    """A narrow sheet whose cells have an event a line, with the lines made one that go on below: where the next begins with a
    small letter, or is a time behind words without one, or the line ends with a hyphen."""
    if not sheet.is_narrow:
        return sheet

    def rows() -> Iterator[Row]:
        for number, row in sheet.rows():
            yield number, [_whole(cell) if isinstance(cell, str) and "\n" in cell else cell for cell in row]

    return sheet._replace(read_rows=rows, is_narrow=False)


def _whole(cell: str) -> str:
    first, *more = cell.split("\n")
    found = [first]
    for line in more:
        above = found[-1]
        is_time = (
            re.fullmatch(_TIME_ALONE, line) is not None
            and not any(map(str.isdigit, above))
            and any(map(str.isalpha, above))
        )
        if above.endswith(("-", "–")) and line[:1].isalnum():
            found[-1] = f"{above}{line}"
        elif is_time or line[:1].islower() or above.endswith((",", "&")):
            found[-1] = f"{above} {line}"
        else:
            found.append(line)
    return "\n".join(found)
