"""What a workbook's reader passes over in silence: error values, formulas never computed, hidden rows, crossed-out cells.

The library that reads workbooks gives a blank for the first two. A blank is an answer, an error is not, so
the markup is looked through for them (ECMA-376 part 1, 18.3.1.4 and 18.3.1.73; OpenDocument 1.3, 19.385 and 19.749).
"""

import re
import struct
import zipfile
import zlib
from collections.abc import Iterable, Mapping
from pathlib import Path
from types import MappingProxyType
from typing import IO, NamedTuple
from xml.etree.ElementTree import ParseError

from nomarium.sheets.sheet import Area
from nomarium.sheets.struckout import STYLE, Struck, left_of, struck_in, struck_style, text_left_of

DAMAGED = (
    zipfile.BadZipFile,
    zlib.error,
    struct.error,
    EOFError,
    KeyError,
    OSError,
    NotImplementedError,
    RuntimeError,
    ValueError,
)
"""How the unpacking of a damaged archive ends."""
_BLOCK = 1 << 20
_LONGEST_CELL = 1 << 16
"""Octets of one cell's markup that may straddle two blocks."""

_XLSX_CELL = re.compile(rb'<c r="([A-Z]+)(\d+)"([^>]*?)(?:/>|>(.*?)</c>)', re.DOTALL)
_VALUE = re.compile(rb"<v[^>]*>([^<]+)</v>")
_HIDDEN_ROW = re.compile(rb'<row\b[^>]*\shidden="(?:1|true)"[^>]*>')
_HIDDEN_COLUMNS = re.compile(rb'<col\b[^>]*\shidden="(?:1|true)"[^>]*>')
_FIRST_AND_LAST = re.compile(rb'\s(?:min|max)="(\d{1,5})"')
_WIDEST = 16_384
"""Columns that a sheet may have."""
_ROW_NUMBER = re.compile(rb'\sr="(\d+)"')
_FAR = re.compile(rb"""\sr\s*=\s*["']\s*(?:([A-Za-z]{2,})(\d+)|([A-Za-z]?)(\d{6,}))""")
"""A cell beyond column Z, or a cell or a row beyond row 99,999: what is nearer cannot reach far, in whatever order it stands."""
_FAR_AS_USUAL = re.compile(rb' r="(?:([A-Za-z]{2,})(\d+)|([A-Za-z]?)(\d{6,}))')
_PERHAPS_UNUSUAL = (b"'", b"\n", b"\t", b"\r", b" =", b"= ")
"""What stands in every markup of an unusual form: the first are found ten times as fast."""
_UNUSUAL = (b"r='", b"r =", b"r= ", b"\nr=", b"\tr=", b"\rr=", b"r\n", b"r\t", b"r=\n", b"r=\t")
"""How a program may write where a cell is, and hardly one does."""
_WIDEST_SURE = 280
"""Columns of which 100,000 rows are no more cells than a sheet may have."""
_FEW_UNPLACED = 1_000
"""Cells that do not say where they are and cannot reach far."""
_NUMBERED = re.compile(rb"""\sr\s*=\s*["']\s*[A-Za-z]*(\d+)""")
UNCOMPUTED = "a formula without a saved result"


class Extras(NamedTuple):
    """What stands in a sheet's markup besides the values."""

    faults: dict[tuple[int, int], str]
    """(row number, 0-based column) → the error's name."""
    merged: tuple[Area, ...] = ()
    hidden: frozenset[int] = frozenset()
    """The numbers of rows that a filter or a person hides."""
    hidden_columns: frozenset[int] = frozenset()
    """The 0-based columns that a person hides."""
    reach: tuple[int, int] = (0, 0)
    """How many rows down and columns across its cells reach, where that is far."""
    is_unplaced: bool = False
    """Whether many of its cells do not say where they are, so that how far they reach is not known."""
    left: Mapping[tuple[int, int], str] = MappingProxyType({})
    """What is left of cells that are crossed out, by row number and 0-based column."""


class _Seen:
    """What a sheet's markup holds, as far as it has been looked through."""

    def __init__(self) -> None:
        self.faults = dict[tuple[int, int], str]()
        self.hidden = set[int]()
        self.hidden_columns = set[int]()
        self.left = dict[tuple[int, int], str]()
        self.rows = self.columns = 0
        """How far its cells reach."""
        self.defined = 0
        """Columns of an OpenDocument sheet whose look is said."""
        self.unplaced = 0
        """Cells that do not say where they are."""

    def extras(self) -> Extras:
        return Extras(
            self.faults,
            (),
            frozenset(self.hidden),
            frozenset(self.hidden_columns),
            (self.rows, self.columns),
            self.unplaced > _FEW_UNPLACED,
            self.left,
        )


def xlsx_extras(path: Path, sheet_names: list[str]) -> dict[str, Extras]:
    """What each sheet of an .xlsx or .xlsm workbook holds besides its values, by sheet name."""
    found: dict[str, Extras] = {}
    try:
        with zipfile.ZipFile(path) as archive:
            struck = struck_in(archive)
            for name, part in _xlsx_parts(archive).items():
                if name in sheet_names:
                    found[name] = _seen_in(archive, part, struck).extras()
    except DAMAGED:
        return found  # what the reader of values could read, we do not refuse for its wrapping
    return found


def counts_from_1904(path: Path) -> bool:
    """Whether a workbook's plain date numbers count from 1904 (ECMA-376 part 1, 18.2.28)."""
    try:
        with zipfile.ZipFile(path) as archive:
            head = archive.read("xl/workbook.xml")
    except DAMAGED:
        return False
    return re.search(rb'date1904="(?:1|true)"', head) is not None


def _xlsx_parts(archive: zipfile.ZipFile) -> dict[str, str]:
    from html import unescape

    workbook = archive.read("xl/workbook.xml").decode("utf-8", "replace")
    relations = archive.read("xl/_rels/workbook.xml.rels").decode("utf-8", "replace")
    targets = {}
    for tag in re.findall(r"<(?:\w+:)?Relationship\b[^>]*>", relations):
        identity, target = re.search(r'\bId="([^"]*)"', tag), re.search(r'\bTarget="([^"]*)"', tag)
        if identity and target:
            targets[identity[1]] = target[1]
    parts = {}
    for tag in re.findall(r"<(?:\w+:)?sheet\b[^>]*>", workbook):
        name, relation = re.search(r'\bname="([^"]*)"', tag), re.search(r'\br:id="([^"]*)"', tag)
        if name and relation and relation[1] in targets:
            part = targets[relation[1]]
            parts[unescape(name[1])] = part.lstrip("/") if part.startswith("/") else f"xl/{part}"
    return parts


def _seen_in(archive: zipfile.ZipFile, part: str, struck: Struck | None) -> _Seen:
    """What the markup of a sheet holds."""
    seen = _Seen()
    with archive.open(part) as file:
        rest = b""
        while block := file.read(_BLOCK):
            text = rest + block
            _measure(text, seen)
            if b" hidden=" in text:
                seen.hidden.update(
                    int(row[1]) for tag in _HIDDEN_ROW.findall(text) if (row := _ROW_NUMBER.search(tag))
                )
                for tag in _HIDDEN_COLUMNS.findall(text):
                    numbers = [int(number) for number in _FIRST_AND_LAST.findall(tag)]
                    seen.hidden_columns.update(
                        range(min(numbers, default=1) - 1, min(max(numbers, default=0), _WIDEST))
                    )
            if struck or b't="e"' in text or b"<f" in text:
                _look_at_cells(text, struck, seen)
            cut = text.rfind(b"</row>")
            rest = text[cut:] if cut > 0 else text[-_LONGEST_CELL:]
    if seen.columns > _WIDEST_SURE:  # rows that are near enough in other sheets count in this one
        with archive.open(part) as file:
            while block := file.read(_BLOCK):
                seen.rows = max(seen.rows, _highest(_NUMBERED.findall(block + file.read(_LONGEST_CELL))))
    return seen


def _look_at_cells(text: bytes, struck: Struck | None, seen: _Seen) -> None:
    """The faulty and the crossed-out cells of some markup."""
    for cell in _XLSX_CELL.finditer(text):
        attributes, content = cell[3], cell[4] or b""
        if fault := _xlsx_fault(attributes, content):
            seen.faults[_at(cell)] = fault
        if struck and content and (left := left_of(attributes, content, struck)) is not None:
            seen.left[_at(cell)] = left


def _at(cell: re.Match[bytes]) -> tuple[int, int]:
    return int(cell[2]), _column_index(cell[1].decode())


def _measure(text: bytes, seen: _Seen) -> None:
    """How far the rows and cells of some markup reach, as far as that matters: down from row 100,000, across from Z."""
    place_count = text.count(b' r="')
    is_usual = not (any(sign in text for sign in _PERHAPS_UNUSUAL) and any(sign in text for sign in _UNUSUAL))
    far = (_FAR_AS_USUAL if is_usual else _FAR).findall(text)
    letters = max((one[0].upper() for one in far), key=lambda one: (len(one), one), default=b"") or b"Z"
    seen.columns = max(seen.columns, _column_index(letters[:6].decode()) + 1)
    seen.rows = max(seen.rows, _highest(one[1] or one[3] for one in far))
    # each value is begun and ended, whatever its prefix
    value_count = text.count(b"v>") // 2 + text.count(b"is>") // 2
    seen.unplaced += max(value_count - place_count, 0)


def _highest(numbers: Iterable[bytes]) -> int:
    """The greatest of some numbers of rows: eleven digits are beyond every sheet, and thousands of them would be slow."""
    return max((int(one[:11]) for one in numbers), default=0)


def _xlsx_fault(attributes: bytes, content: bytes) -> str:
    if b't="e"' in attributes:
        value = _VALUE.search(content)
        return value[1].decode("utf-8", "replace") if value else "#N/A"
    if b"<f" in content and b't="str"' not in attributes and not _VALUE.search(content):
        return UNCOMPUTED
    return ""


def _column_index(letters: str) -> int:
    index = 0
    for letter in letters:
        index = index * 26 + ord(letter) - 64
    return index - 1


_PERHAPS_EXTRA = (b'-spanned="', b'"error"', b':visibility="', b"-line-through-")


def _has_extras(archive: zipfile.ZipFile) -> bool:
    """Whether anything in an OpenDocument workbook is merged, faulty, hidden or crossed out."""
    look = re.compile(
        rb'-spanned="(?!1")|value-type="error"|table:visibility="[cf]|-line-through-(?:style|type)="(?!none)'
    )
    with archive.open("content.xml") as file:
        rest = b""
        while block := file.read(_BLOCK):
            text = rest + block
            # a plain search first: the pattern is slow on the many megabytes that have neither
            if any(sign in text for sign in _PERHAPS_EXTRA) and look.search(text):
                return True
            rest = block[-100:]
    return False


def ods_extras(path: Path) -> dict[str, Extras]:
    """Merged areas, faulty and crossed-out cells and hidden rows of each sheet of an OpenDocument workbook, by sheet name."""
    try:
        with zipfile.ZipFile(path) as archive:
            if not _has_extras(archive):
                return {}  # nothing to find: spare the second reading
            with archive.open("content.xml") as file:
                return _extras_in(file)
    except (*DAMAGED, ParseError):
        return {}


def _extras_in(file: IO[bytes]) -> dict[str, Extras]:
    """Row by row, each let go when it has been looked at."""
    from defusedxml.ElementTree import iterparse

    table = "{urn:oasis:names:tc:opendocument:xmlns:table:1.0}"
    extras: dict[str, Extras] = {}
    seen, merged, row_index = _Seen(), list[Area](), 0
    struck: frozenset[str] = frozenset()
    for event, element in iterparse(file, events=("start", "end")):
        if event == "start":
            if element.tag == f"{table}table":
                seen, merged, row_index = _Seen(), [], 0
            continue
        if element.tag == STYLE and (name := struck_style(element)):
            struck |= {name}
        elif element.tag == f"{table}table":
            extras[element.get(f"{table}name", "")] = seen.extras()._replace(merged=tuple(merged))
        elif element.tag == f"{table}table-column":
            count = _times(element.get(f"{table}number-columns-repeated"))
            if element.get(f"{table}visibility", "visible") != "visible":
                seen.hidden_columns.update(range(seen.defined, min(seen.defined + count, _WIDEST)))
            seen.defined += count
        elif element.tag == f"{table}table-row":
            column = 0
            for cell in element:
                wide = _times(cell.get(f"{table}number-columns-spanned"))
                high = _times(cell.get(f"{table}number-rows-spanned"))
                if wide > 1 or high > 1:
                    merged.append(Area(row_index, column, row_index + high - 1, column + wide - 1))
                if any(key.endswith("}value-type") and value == "error" for key, value in cell.items()):
                    seen.faults[row_index + 1, column] = "".join(cell.itertext()).strip() or "#N/A"
                if struck and (text := "".join(cell.itertext())):
                    is_whole = cell.get(f"{table}style-name") in struck
                    left = "" if is_whole else text_left_of(cell, struck)
                    if left != text:
                        seen.left[row_index + 1, column] = left.strip()
                column += _times(cell.get(f"{table}number-columns-repeated"))
            repeated = _times(element.get(f"{table}number-rows-repeated"))
            if element.get(f"{table}visibility", "visible") != "visible" and repeated < _BLOCK:
                seen.hidden.update(range(row_index + 1, row_index + 1 + repeated))
            row_index += repeated
            element.clear()
    return extras


def _times(text: str | None) -> int:
    """How many rows or columns something spans, or how often it comes; once where the text is no such number."""
    return min(int(text), _BLOCK) if text and re.fullmatch(r"[1-9]\d{0,8}", text) else 1
