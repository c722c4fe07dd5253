"""Cells of a page that were too narrow for their lines, in drawings that have an event a line."""

from collections.abc import Iterator

from nomarium.sheets.sheet import Row, Sheet


def in_whole_lines(sheet: Sheet) -> Sheet:
    """A narrow sheet whose cells have an event a line, with the lines made one that go on below: where the next begins with a
    small letter, or the line ends with a hyphen or a comma. A time below its title is the layout's own matter."""
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
        if above.endswith(("-", "–")) and line[:1].isalnum():
            found[-1] = f"{above}{line}"
        elif line[:1].islower() or above.endswith((",", "&")):
            found[-1] = f"{above} {line}"
        else:
            found.append(line)
    return "\n".join(found)
