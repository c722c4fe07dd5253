"""Tables drawn with bars in a text: a row of headings over a row of dashes, as Markdown has them."""

import re
from collections.abc import Sequence
from typing import Final

from nomarium.sheets.documents import Document, Table

_DASHES: Final = re.compile(r"\s*\|?\s*:?-{2,}:?\s*(?:\|\s*:?-{2,}:?\s*)*\|?\s*")


def has_tables(lines: Sequence[str]) -> bool:
    """Whether some line is the row of dashes under a table's headings."""
    return any(_begins_table(lines, n) for n in range(len(lines) - 1))


def tables_and_lines(lines: Sequence[str]) -> Document:
    """The tables of a text, and its lines, blank where a table stands."""
    tables: list[Table] = []
    struck: list[str] = []
    rest = [line.rstrip("\n") for line in lines]
    n = 0
    while n < len(rest) - 1:
        if not _begins_table(rest, n):
            n += 1
            continue
        end = n + 2
        while end < len(rest) and "|" in rest[end]:
            end += 1
        struck += [one for line in rest[n:end] for one in re.findall(_STRUCK, line)]
        rows = [_cells(re.sub(_STRUCK, " ", rest[at])) for at in range(n, end) if at != n + 1]
        width = max(map(len, rows))
        at = next((at for at in range(n, 0, -1) if rest[at - 1].strip()), 0)
        above = _bare(rest[at - 1]) if at else ""
        tables.append(Table([[*row, *[""] * (width - len(row))] for row in rows], [], above, at))
        rest[n:end] = [""] * (end - n)
        n = end
    return Document(tables, rest, struck=tuple(struck))


def _begins_table(lines: Sequence[str], n: int) -> bool:
    return "|" in lines[n] and "|" in lines[n + 1] and _DASHES.fullmatch(lines[n + 1]) is not None


def _cells(line: str) -> list[str]:
    """The cells of a row; a bar behind a backslash is one of a cell."""
    text = line.strip().removeprefix("|").removesuffix("|")
    return [_bare(re.sub(_BREAK, "\n", cell).replace("\\|", "|")) for cell in re.split(r"(?<!\\)\|", text)]


_STRUCK: Final = r"~~(?=\S)([^|]*?\S)~~"
"""What is crossed out in a cell."""
_BREAK = r"(?i)\s*<br\s*/?>\s*"
"""What parts the lines of a cell."""


def _bare(text: str) -> str:
    """A text without the marks of headings, of bold and of slanted words."""
    return re.sub(r"^#{1,6}\s+|\*\*|__|(?<!\w)[*_](?=\S)|(?<=\S)[*_](?!\w)|`", "", text.strip()).strip()
