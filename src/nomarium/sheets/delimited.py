"""Text with a delimiter (CSV and its kin, RFC 4180 and looser) as rows of cells."""

import csv
import re
from collections import Counter
from collections.abc import Callable, Iterable, Iterator, Sequence
from functools import partial
from itertools import islice
from pathlib import Path

from nomarium.model.cell import Cell
from nomarium.model.errors import EmptySourceError, SourceError
from nomarium.model.problem import Place, Problem, note
from nomarium.sheets.bounds import bounded
from nomarium.sheets.encoding import TextKind, text_kind
from nomarium.sheets.sheet import Row, RowsAgain, Sheet
from nomarium.sheets.spaces import has_wide_spaces, plain_spaced

DELIMITERS = {",": "comma", ";": "semicolon", "\t": "tab", "|": "pipe"}
_NONE = "\x1f"
"""What parts nothing: lines of text."""
_TABLES = (".csv", ".tsv", ".tab")
_GAP = re.compile(r"(?<=[^\s,])\s{2,}(?=[^\s,])")
_SAMPLE_LINES = 200
_BOUNDED_ROWS = 1_000
"""Rows that are looked at together to find the columns: a row of a million cells would be a million columns."""
_LONG_RECORD = 200
"""Lines in one record after which a quote must have been forgotten."""


def open_delimited(path: Path, name: str) -> Sheet:
    """A delimited text file as one sheet. Raises SourceError when it is empty or no text."""
    kind = text_kind(path, name)
    with path.open(encoding=kind.encoding, newline="") as file:
        try:
            sample = list(islice(file, _SAMPLE_LINES))
        except UnicodeError as error:
            raise _broken_text(name, kind.encoding) from error
    if not any(line.strip() for line in sample):
        raise EmptySourceError(
            Problem("source-empty", f"{name} is empty.", "Check that it was saved.", Place(name))
        )
    skip = 0
    declared = re.fullmatch(r"\ufeff?\"?sep=(.)\"?\s*", sample[0])
    if declared:  # a first line that some spreadsheet exports use to name the delimiter
        delimiter, skip = declared[1], 1
    else:
        delimiter = find_delimiter(sample, may_be_text=not name.lower().endswith(_TABLES))
    notes = kind.notes
    if delimiter not in (_NONE, "\t" if name.lower().endswith((".tsv", ".tab")) else ","):
        called = DELIMITERS.get(delimiter, repr(delimiter))
        notes += (note("delimiter", f"Cells are parted by a {called}.").at(Place(name)),)
    rows, first = _reader(path, name, kind, delimiter, skip), _blank_columns(sample[skip:], delimiter)
    sheet = Sheet(
        name, "", RowsAgain(partial(_from_column, rows, first) if first else rows), first_column=first, notes=notes,
        read_lines=_lines(path, name, kind),
    )  # fmt: skip
    if any(map(has_wide_spaces, sample)):
        sheet = plain_spaced(sheet)
    return sheet if delimiter == _NONE else unpacked(sheet)


def _blank_columns(lines: Sequence[str], delimiter: str) -> int:
    """How many columns at the left of a short text are blank throughout, as when a drawing was put somewhere into a sheet: they are
    no part of it, as they are none in a workbook."""
    filled = [line for line in lines if line.strip(f"{delimiter}\r\n\ufeff ")]
    if len(lines) + 1 >= _SAMPLE_LINES or not all(line.startswith(delimiter) for line in filled):
        return 0
    return min((len(line) - len(line.lstrip(delimiter)) for line in filled), default=0)


def _from_column(rows: Callable[[], Iterator[Row]], first: int) -> Iterator[Row]:
    for number, row in rows():
        yield number, row[first:]


def _lines(path: Path, name: str, kind: TextKind) -> Callable[[], Iterator[Row]]:
    """The same file line by line, each a row of one cell."""

    def lines() -> Iterator[Row]:
        with path.open(encoding=kind.encoding) as file:
            try:
                yield from ((number, [_unquoted(line.rstrip("\n"))]) for number, line in enumerate(file, 1))
            except UnicodeError as error:
                raise _broken_text(name, kind.encoding) from error

    return lines


def _unquoted(line: str) -> str:
    """A line without the quotes of the one cell that it is."""
    if line[:1] != '"' or line[-1:] != '"':
        return line
    cells = split_cell(line)
    return str(cells[0]) if len(cells) == 1 else line


def find_delimiter(lines: Sequence[str], may_be_text: bool = False) -> str:
    """The delimiter under which most records have the same number of cells, more than one."""
    if may_be_text and _are_lines(lines):
        return _NONE
    best, best_score = ",", (0.0, 0)
    for delimiter in DELIMITERS:
        if not any(delimiter in line for line in lines):
            continue
        try:
            widths = [
                len(row) for row in csv.reader(lines, delimiter=delimiter, skipinitialspace=True) if row
            ]
        except csv.Error:
            continue
        wide = Counter(width for width in widths if width > 1)
        if not wide:
            continue
        width, _ = max(wide.items(), key=lambda item: (item[1], item[0]))
        near = sum(count for other, count in wide.items() if abs(other - width) <= 1)
        score = (round(near / len(widths), 1), width)
        if score > best_score:
            best, best_score = delimiter, score
    return best


def _are_lines(lines: Sequence[str]) -> bool:
    """Whether commas are those of sentences: a space follows each, and columns are parted by spaces, or the first line that
    has one says a date or a number, and no headings."""
    texts = [line.strip() for line in lines if line.strip()]
    with_comma = [text for text in texts if "," in text]
    if not with_comma or any(re.search(r",(?=\S)(?!\d{3}\b)", text) for text in with_comma):
        return False
    if any(delimiter in text for text in texts for delimiter in DELIMITERS if delimiter != ","):
        return False
    gaps = sum(_GAP.search(text) is not None for text in texts)
    return gaps * 2 > len(texts) or any(map(str.isdigit, with_comma[0]))


def _reader(path: Path, name: str, kind: TextKind, delimiter: str, skip: int) -> Callable[[], Iterator[Row]]:
    def rows() -> Iterator[Row]:
        with path.open(encoding=kind.encoding, newline="", buffering=1 << 17) as file:
            reader = csv.reader(file, delimiter=delimiter, skipinitialspace=True)
            try:
                if kind.odd_quotes:
                    rows = _watched(reader, name, skip)
                else:
                    rows = islice(enumerate(reader, 1), skip, None)
                yield from bounded(islice(rows, _BOUNDED_ROWS), name)
                yield from rows  # what is too wide further down is a fault of its row
            except csv.Error as error:
                raise SourceError(
                    Problem(
                        "source-broken",
                        f"{name} cannot be read after line {reader.line_num}: {error}.",
                        "Open it in a spreadsheet application and save it as CSV again.",
                        Place(name),
                    )
                ) from error
            except UnicodeError as error:
                raise _broken_text(name, kind.encoding) from error

    return rows


def _watched(reader: Iterable[list[str]], name: str, skip: int) -> Iterator[Row]:
    """Rows of a file with an odd number of quotes: refuse a record that swallowed what follows it."""
    line_before, previous = 0, None
    for number, row in enumerate(reader, 1):
        if previous is not None:
            yield previous
        line = reader.line_num  # type: ignore[attr-defined]
        if line - line_before > _LONG_RECORD:
            raise _open_quote(name, number)
        previous = (number, row) if number > skip else None
        spans_lines, line_before = line - line_before > 1, line
    if previous is not None:
        if spans_lines:
            raise _open_quote(name, previous[0])
        yield previous


def _open_quote(name: str, number: int) -> SourceError:
    return SourceError(
        Problem(
            "quote-open",
            f'A quotation mark (") opens in row {number} and never closes, so the rows after it '
            "cannot be told apart.",
            "Close it, or take it out.",
            Place(name, row=number),
        )
    )


def _broken_text(name: str, encoding: str) -> SourceError:
    return SourceError(
        Problem(
            "source-broken",
            f"{name} claims to be {encoding.upper()} text and is not: some of its bytes make no character.",
            "Save it as UTF-8.",
            Place(name),
        )
    )


def unpacked(sheet: Sheet) -> Sheet:
    """The sheet with its rows split, when whole rows stand in one cell each (a wrongly quoted export).

    Left as it is when some row has two cells already, or the texts have no delimiter in common.
    """
    texts = []
    for _, row in islice(sheet.rows(), _SAMPLE_LINES):
        filled = [cell for cell in row if cell != ""]
        if len(filled) > 1 or (filled and not isinstance(filled[0], str)):
            return sheet
        texts += [str(cell) for cell in filled]
    if len(texts) < 2 or _are_lines(texts):
        return sheet
    delimiter = find_delimiter(texts)
    widths = [len(split_cell(text, delimiter)) for text in texts]
    usual = max(widths)
    if usual < 2 or sum(width == usual for width in widths) < max(2, 0.6 * len(widths)):
        return sheet

    def rows() -> Iterator[Row]:
        for number, row in sheet.rows():
            text = next((cell for cell in row if cell != ""), "")
            yield number, split_cell(text, delimiter) if isinstance(text, str) and text else row

    called = DELIMITERS[delimiter]
    message = f"Each row stands whole in one cell; it was split at each {called}."
    told = note("one-column", message).at(sheet.place())
    return sheet._replace(read_rows=RowsAgain(rows), notes=(*sheet.notes, told))


def split_cell(text: str, delimiter: str = ",") -> list[Cell]:
    """One cell's text as the delimited record that it holds."""
    try:
        return list(next(csv.reader([text], delimiter=delimiter, skipinitialspace=True), [""]))
    except csv.Error:
        return [text]
