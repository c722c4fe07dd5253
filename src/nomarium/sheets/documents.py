"""Word and OpenDocument texts as tables, each a sheet, and the lines outside them (ECMA-376 part 1, 17; OpenDocument 1.3, 5 and 9).

What nobody sees, or what is said about the text and not in it, is passed over: headers, footers, notes, comments, deleted and
hidden text."""

import re
import zipfile
from bisect import bisect_right
from collections.abc import Iterator, Sequence
from pathlib import Path
from typing import TYPE_CHECKING, Final, NamedTuple

from nomarium.model.errors import SourceError
from nomarium.model.problem import LINES, Place, Problem, note
from nomarium.sheets.faults import DAMAGED
from nomarium.sheets.guards import check_archive
from nomarium.sheets.sheet import Area, Row, Sheet
from nomarium.sheets.struckout import STYLE, struck_note, struck_style

if TYPE_CHECKING:
    from xml.etree.ElementTree import Element

_W: Final = "{http://schemas.openxmlformats.org/wordprocessingml/2006/main}"
_TEXT: Final = "{urn:oasis:names:tc:opendocument:xmlns:text:1.0}"
_TABLE: Final = "{urn:oasis:names:tc:opendocument:xmlns:table:1.0}"
_OFFICE: Final = "{urn:oasis:names:tc:opendocument:xmlns:office:1.0}"
_PARTS: Final = {"docx": "word/document.xml", "odt": "content.xml"}
_UNSEEN_WORD: Final = frozenset(f"{_W}{name}" for name in ("del", "moveFrom", "instrText", "footnoteReference", "endnoteReference", "commentReference", "sdtPr"))  # fmt: skip
_UNSEEN_ODT: Final = frozenset(
    (
        f"{_TEXT}tracked-changes",
        f"{_TEXT}note",
        f"{_OFFICE}annotation",
        f"{_TEXT}hidden-text",
        f"{_TEXT}hidden-paragraph",
    )
)
_HEADING_STYLES: Final = (
    r"(?i)(?:heading|title|subtitle|überschrift|berschrift|titre|t[ií]tulo|kop|rubrik)\d?"
)
_MOST_REPEATED: Final = 200
"""Times that a cell of an OpenDocument table may be repeated."""


HEADING, ENTRY = "## ", "- "
"""What marks a heading, or an entry of a list, in the lines of a document, as in plain text."""


_YEAR_ALONE: Final = re.compile(r"\D*\b(?:19|20)\d\d(?:\s?[-/–—]\s?(?:20)?\d\d)?\b\D*")
"""A text with a year, or a school year, and no other figures."""
_DATED: Final = re.compile(
    r"(?:[^\W\d_].*[^\w:]\s*|)\d{1,2}(?:st|nd|rd|th)?\.?\s+(?:of\s+)?[^\W\d_]{3,}\.?,?\s+20\d\d"
)
"""A text that ends in a day with its year, `Issue 14 · Week of 1 March 2027`, or is one."""
_MOST_OF_HEADING: Final = 60
"""Characters of a heading."""
_MOST_OF_CELL: Final = 60
"""Characters of a cell of a record."""


class Table(NamedTuple):
    """A table of a document: its rows of texts, and which of its cells are merged."""

    rows: list[list[str]]
    merged: list[Area]
    above: str = ""
    """The line before it."""
    above_line: int = 0
    """The number of that line, from 1; 0 for a caption, or none."""

    @property
    def only_places_text(self) -> bool:
        """Whether it has one row or one column, and so is no table of records."""
        return len(self.rows) < 2 or max(map(len, self.rows)) < 2

    @property
    def record(self) -> str:
        """The line that one row of short cells is, a number among them, its columns parted by tabs; nothing for any other table."""
        cells = self.rows[0] if len(self.rows) == 1 else []
        is_short = all(len(cell) <= _MOST_OF_CELL and "\n" not in cell for cell in cells)
        return (
            "\t".join(cells) if len(cells) > 1 and is_short and any(map(str.isdigit, "".join(cells))) else ""
        )


class Document(NamedTuple):
    """What a document holds."""

    tables: list[Table]
    lines: list[str]
    """The lines outside tables."""
    beside: tuple[str, ...] = ()
    """What people see of it that may be other events than those that it says to machines."""
    struck: tuple[str, ...] = ()
    """What is crossed out in it, and stands in none of its tables and lines."""

    def add(self, table: Table) -> None:
        """Take a table that follows its lines; the cells of one that only places text are lines, too."""
        if table.only_places_text:
            cells = (cell for row in table.rows for cell in row)
            self.lines.extend(
                [table.record] if table.record else [line for cell in cells for line in cell.split("\n")]
            )
        else:
            self.tables.append(table if table.above else self._under_last_line(table))

    def take_over(self, other: "Document") -> None:
        """Take the lines and tables of a part of it that ends here."""
        shift = len(self.lines)
        for table in other.tables:
            if table.above_line:
                self.tables.append(table._replace(above_line=table.above_line + shift))
            else:
                self.tables.append(table if table.above else self._under_last_line(table))
        self.lines.extend(other.lines)

    def _under_last_line(self, table: Table) -> Table:
        at = next((n for n in range(len(self.lines), 0, -1) if self.lines[n - 1].strip()), 0)
        above = self.lines[at - 1].removeprefix(HEADING).removeprefix(ENTRY) if at else ""
        return table._replace(above=" ".join(above.split()), above_line=at)


def sheets_of(document: Document, name: str) -> list[Sheet]:
    """A document as sheets: one for each table, and one for its lines."""
    years = years_said(document.lines)
    sheets = [
        _table_sheet(table, n, name)._replace(said_above=those_above(years, table.above_line))
        for n, table in enumerate(document.tables, 1)
    ]
    if any(line.strip() for line in document.lines):
        rows: list[Row] = [(number, [line]) for number, line in enumerate(document.lines, 1)]
        heads = tuple(
            (table.above_line, sheet.name) for table, sheet in zip(document.tables, sheets, strict=True)
        )
        sheets.append(
            Sheet(name, LINES, lambda: rows, unit="line", read_lines=lambda: rows, is_text=True, heads=heads)
        )
    if document.beside and sheets:
        more = f" and {len(document.beside) - 1} more" if len(document.beside) > 1 else ""
        message = f"The events that the page says to machines are read; of its text, “{document.beside[0][:80]}”{more} may be another one."
        remedy = "If it is, save the text of the page as a file, and read that, too."
        sheets[0] = _with_note(sheets[0], note("page-beside", message, remedy).at(Place(name)))
    if document.struck and sheets:
        quoted = [f"“{text}”" for text in document.struck]
        sheets[0] = _with_note(sheets[0], struck_note("text", quoted, Place(name)))
    return sheets


def _with_note(sheet: Sheet, one: Problem) -> Sheet:
    return sheet._replace(notes=(*sheet.notes, one))


def years_said(lines: Sequence[str]) -> list[tuple[int, str]]:
    """The headings among lines that name a year, alone or in the date of the paper, by their numbers: they date what stands in tables
    below them."""
    plain = [line.removeprefix(HEADING).removeprefix(ENTRY) for line in lines]
    return [
        (number, text)
        for number, text in enumerate(plain, 1)
        if len(text) <= _MOST_OF_HEADING
        and (_YEAR_ALONE.fullmatch(text) or _DATED.fullmatch(text))
        and not text.rstrip().endswith((".", "!", "?"))
    ]


def those_above(said: Sequence[tuple[int, str]], line: int) -> tuple[tuple[int, str], ...]:
    """What is said down to a line."""
    return tuple(said[: bisect_right(said, line, key=lambda one: one[0])])


def _table_sheet(table: Table, number: int, name: str) -> Sheet:
    rows: list[Row] = [(n, row) for n, row in enumerate(table.rows, 1)]
    is_more = len(table.rows) > 1 or any(
        map(str.isdigit, "".join(map(str, table.rows[0] if table.rows else ())))
    )
    if table.above and is_more:
        width = max(map(len, table.rows))
        rows.insert(0, (0, [table.above, *[""] * (width - 1)]))
    return Sheet(name, f"table {number}", lambda: rows, merged=tuple(table.merged))


def open_document(path: Path, name: str, kind: str) -> list[Sheet]:
    """The tables and lines of a `docx` or an `odt`. Raises SourceError when it is damaged."""
    check_archive(path, name)
    try:
        with zipfile.ZipFile(path) as archive:
            data = archive.read(_PARTS[kind])
    except DAMAGED as error:
        raise _broken(name) from error
    root = parsed_xml(data, name)
    body = root.find(f"{_W}body") if kind == "docx" else root.find(f"{_OFFICE}body/{_OFFICE}text")
    if body is None:
        raise _broken(name)
    struck = _without_struck_word(body) if kind == "docx" else _without_struck_odt(root, body)
    found = Document([], [], struck=struck)
    for piece in _pieces_of_word(body) if kind == "docx" else _pieces_of_odt(body):
        if isinstance(piece, str):
            found.lines.extend(piece.split("\n"))
        else:
            found.add(piece)
    return sheets_of(found, name)


def _without_struck_word(body: "Element") -> tuple[str, ...]:
    """Empty the runs that are crossed out, and give their texts."""
    found = []
    for run in body.iter(f"{_W}r"):
        looks = [run.find(f"{_W}rPr/{_W}{name}") for name in ("strike", "dstrike")]
        is_struck = any(one is not None and one.get(f"{_W}val") not in ("0", "false", "off") for one in looks)
        if is_struck and (text := _word_text(run)).strip():
            found.append(" ".join(text.split()))
            run.clear()
    return tuple(found)


def _without_struck_odt(root: "Element", body: "Element") -> tuple[str, ...]:
    """Empty what has a style that is crossed out, and give its texts."""
    styles = {struck_style(one) for one in root.iter(STYLE)} - {""}
    found = []
    for tag in (f"{_TEXT}p", f"{_TEXT}h", f"{_TEXT}span") if styles else ():
        for element in body.iter(tag):
            if element.get(f"{_TEXT}style-name") in styles and (text := _odt_text(element)).strip():
                found.append(" ".join(text.split()))
                tail = element.tail
                element.clear()
                element.tail = tail
    return tuple(found)


def parsed_xml(data: bytes, name: str) -> "Element":
    """The root of an XML document. Raises SourceError for one that is damaged, or defines entities."""
    from xml.etree.ElementTree import ParseError

    from defusedxml import DefusedXmlException
    from defusedxml.ElementTree import fromstring

    try:
        root: Element = fromstring(data, forbid_dtd=True)
    except DefusedXmlException as error:
        message = f"{name} defines entities of its own (a DOCTYPE): such a file can be made to do harm."
        raise SourceError(
            Problem("source-broken", message, "Save it again from a text application.", Place(name))
        ) from error
    except (ParseError, ValueError, RecursionError) as error:
        raise _broken(name) from error
    return root


def _broken(name: str) -> SourceError:
    message = f"{name} is a document that was cut short or damaged."
    return SourceError(Problem("source-broken", message, "Fetch or save it again.", Place(name)))


def _pieces_of_word(body: "Element") -> "Iterator[str | Table]":
    for child in body:
        if child.tag == f"{_W}p":
            yield _word_mark(child) + _word_text(child)
        elif child.tag == f"{_W}tbl":
            yield _word_table(child)
        elif child.tag in (f"{_W}sdt", f"{_W}sdtContent", f"{_W}ins", f"{_W}customXml", f"{_W}smartTag"):
            yield from _pieces_of_word(child)


def _word_mark(paragraph: "Element") -> str:
    """What marks a paragraph that is a heading or an entry of a list; nothing for others, and for blank ones."""
    style = paragraph.find(f"{_W}pPr/{_W}pStyle")
    is_heading = style is not None and re.match(_HEADING_STYLES, style.get(f"{_W}val", "")) is not None
    is_entry = paragraph.find(f"{_W}pPr/{_W}numPr") is not None
    if not (is_heading or is_entry) or not _word_text(paragraph).strip():
        return ""
    return HEADING if is_heading else ENTRY


def _word_text(element: "Element") -> str:
    parts: list[str] = []
    for child in element:
        tag = child.tag
        if tag in _UNSEEN_WORD:
            continue
        if tag == f"{_W}r" and child.find(f"{_W}rPr/{_W}vanish") is not None:
            continue
        if tag == f"{_W}t":
            parts.append(child.text or "")
        elif tag == f"{_W}tab":
            parts.append("\t")
        elif tag in (f"{_W}br", f"{_W}cr"):
            parts.append("\n")
        elif tag == f"{_W}noBreakHyphen":
            parts.append("-")
        else:
            parts.append(_word_text(child))
    return "".join(parts)


def _word_table(table: "Element") -> Table:
    rows: list[list[str]] = []
    merged: list[Area] = []
    open_down: dict[int, int] = {}
    for row in table.iter(f"{_W}tr"):
        if row.find(f"{_W}trPr/{_W}del") is not None or row.find(f"{_W}trPr/{_W}hidden") is not None:
            continue
        cells: list[str] = []
        for cell in row.iterfind(f"{_W}tc"):
            span = _number(cell.find(f"{_W}tcPr/{_W}gridSpan"), f"{_W}val")
            down = cell.find(f"{_W}tcPr/{_W}vMerge")
            at, here = len(cells), len(rows)
            text = "\n".join(_word_text(one) for one in cell.iter(f"{_W}p")).strip()
            goes_on = down is not None and down.get(f"{_W}val", "continue") == "continue"
            if goes_on and at in open_down:
                first = open_down[at]
                merged[first] = merged[first]._replace(last_row=here)
                text = ""
            elif down is not None:
                open_down[at] = len(merged)
                merged.append(Area(here, at, here, at + span - 1))
            elif span > 1:
                merged.append(Area(here, at, here, at + span - 1))
            cells += [text, *[""] * (span - 1)]
        rows.append(cells)
    return Table(
        rows,
        [area for area in merged if area.last_row > area.first_row or area.last_column > area.first_column],
    )


def _number(element: "Element | None", attribute: str) -> int:
    text = element.get(attribute, "1") if element is not None else "1"
    return min(int(text), _MOST_REPEATED) if text.isdigit() and int(text) else 1


def _pieces_of_odt(body: "Element", mark: str = "") -> "Iterator[str | Table]":
    for child in body:
        if child.tag in (f"{_TEXT}p", f"{_TEXT}h"):
            text = _odt_text(child)
            yield (HEADING if child.tag == f"{_TEXT}h" else mark) * bool(text.strip()) + text
        elif child.tag == f"{_TABLE}table":
            yield _odt_table(child)
        elif child.tag not in _UNSEEN_ODT:
            yield from _pieces_of_odt(child, ENTRY if child.tag == f"{_TEXT}list-item" else mark)


def _odt_text(element: "Element") -> str:
    parts = [element.text or ""]
    for child in element:
        if child.tag == f"{_TEXT}s":
            parts.append(" " * _number(child, f"{_TEXT}c"))
        elif child.tag == f"{_TEXT}tab":
            parts.append("\t")
        elif child.tag == f"{_TEXT}line-break":
            parts.append("\n")
        elif child.tag not in _UNSEEN_ODT:
            parts.append(_odt_text(child))
        parts.append(child.tail or "")
    return "".join(parts)


def _odt_table(table: "Element") -> Table:
    rows: list[list[str]] = []
    merged: list[Area] = []
    for row in table.iter(f"{_TABLE}table-row"):
        cells: list[str] = []
        for cell in row:
            if cell.tag not in (f"{_TABLE}table-cell", f"{_TABLE}covered-table-cell"):
                continue
            text = "\n".join(_odt_text(one) for one in cell.iter(f"{_TEXT}p")).strip()
            across = _number(cell, f"{_TABLE}number-columns-spanned")
            down = _number(cell, f"{_TABLE}number-rows-spanned")
            if across > 1 or down > 1:
                at, here = len(cells), len(rows)
                merged.append(Area(here, at, here + down - 1, at + across - 1))
            cells += [text] * _number(cell, f"{_TABLE}number-columns-repeated")
        rows += [list(cells) for _ in range(_number(row, f"{_TABLE}number-rows-repeated"))]
    return Table(rows, merged)
