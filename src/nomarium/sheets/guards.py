"""What is looked at before a workbook is read, so that none can take the machine with it: sizes, and for the old binary
kinds whether a process of its own survives the reading."""

import contextlib
import os
import re
import struct
import zipfile
import zlib
from collections.abc import Iterator
from pathlib import Path
from typing import Final
from xml.parsers import expat

from nomarium.model.errors import SourceError
from nomarium.model.limits import (
    MOST_BLANK_ROWS,
    MOST_CELLS,
    MOST_COLUMNS,
    MOST_RATIO,
    MOST_READER_OCTETS,
    MOST_UNPACKED_OCTETS,
    SMALL_PART_OCTETS,
)
from nomarium.model.problem import Place, Problem
from nomarium.sheets.faults import DAMAGED

_BLOCK: Final = 1 << 20
_SURELY_SMALL: Final = 1 << 18
"""Packed octets that cannot unpack to more than a few hundred megabytes, whatever they are."""
_LONGEST_SECS: Final = 120
_MARGIN: Final = 64
"""Octets by which a packed part may be larger than what it holds."""


def check_archive(path: Path, name: str) -> None:
    """Raises SourceError for a workbook whose parts unpack to more than they may, whatever they declare."""
    with _damage_told(name), zipfile.ZipFile(path) as archive:
        parts = archive.infolist()
        if sum(part.compress_size for part in parts) > path.stat().st_size:
            raise _refusal(
                name,
                "its parts lie over one another",
                "It is damaged, or made to do harm: do not open it.",
            )
        total = 0
        for part in parts:
            total += max(part.file_size, _real_size(path, part))
            is_dense = part.file_size > MOST_RATIO * max(part.compress_size, 1)
            if total > MOST_UNPACKED_OCTETS or (part.file_size > SMALL_PART_OCTETS and is_dense):
                limit = (
                    f"{MOST_UNPACKED_OCTETS >> 20} MB, and a large part {MOST_RATIO} times its packed size"
                )
                why = f"it unpacks to more than a workbook may ({limit})"
                raise _refusal(name, why, "Save the table as .csv and build that.")


@contextlib.contextmanager
def _damage_told(name: str) -> Iterator[None]:
    """Turns what ends the unpacking of a damaged archive into a SourceError."""
    try:
        yield
    except (*DAMAGED, expat.ExpatError) as error:
        raise _refusal(name, "it was cut short or damaged", "Fetch or save it again.") from error


def _real_size(path: Path, part: zipfile.ZipInfo) -> int:
    """To how much a part really unpacks, as far as that could be too much: what it declares is only a claim."""
    if part.compress_size < _SURELY_SMALL and part.file_size + _MARGIN >= part.compress_size:
        return 0
    unpacker, size = zlib.decompressobj(-15), 0
    if part.compress_type != zipfile.ZIP_DEFLATED:
        return part.compress_size
    # the packed octets, from behind the part's own head (APPNOTE.TXT, 4.3.7): what it declares would end the reading
    with path.open("rb") as raw:
        raw.seek(part.header_offset)
        raw.seek(sum(struct.unpack("<26xHH", raw.read(30))), os.SEEK_CUR)
        left = part.compress_size
        while left > 0 and size <= MOST_UNPACKED_OCTETS:
            block = raw.read(min(_BLOCK, left))
            if not block:
                break
            left -= len(block)
            while block and size <= MOST_UNPACKED_OCTETS:
                size += len(unpacker.decompress(block, _BLOCK))
                block = unpacker.unconsumed_tail
    return size


def check_area(row_count: int, column_count: int, name: str, sheet_name: str) -> None:
    """Raises SourceError for a sheet whose cells are too many to be held, mostly because one stands far from the others."""
    if row_count * column_count > MOST_CELLS:
        why = f"the sheet “{sheet_name}” reaches {row_count:,} rows down and {column_count:,} columns across, more than {MOST_CELLS:,} cells"
        raise _refusal(name, why, "Delete what stands far below or beside the table, and save it again.")


def check_ods(path: Path, name: str) -> None:
    """Raises SourceError for an OpenDocument workbook that repeats filled cells or rows beyond what a table has, or whose
    markup is broken: its reader would look for the end of a table for ever."""
    rest = last_row = b""
    cell_count, row_count = 0, 1
    with _damage_told(name), zipfile.ZipFile(path) as archive, archive.open("content.xml") as file:
        while block := file.read(_BLOCK):
            text = rest + block
            if b'-repeated="' in text:
                for cell in _REPEATED_CELL.finditer(text):
                    times = int(cell[1][:12]) if b"value-type" in cell[0] else 0
                    cell_count += times
                    if times > MOST_COLUMNS:
                        raise _repeats(name)
                for row in _REPEATED_ROW.finditer(text):
                    times = int(row[1][:12]) if b"value-type" in row[2] else 0
                    row_count = max(row_count, times)
                    if times > MOST_BLANK_ROWS:
                        raise _repeats(name)
            cut = text.rfind(b"</table:table-row>")
            if cut > 0:
                last_row = text[text.rfind(b"<table:table-row", 0, cut) : cut]
            rest = text[cut:] if cut > 0 else text[-_BLOCK:]
        if not _ends_well(last_row + rest):
            _check_markup(archive)
    if cell_count * row_count > _MANY_REPEATED:
        check_in_child(path, name)


def _ends_well(last: bytes) -> bool:
    """Whether the last row of the last table and all that holds it end. An end that is missing further up is no harm: the
    reader of cells takes the next for it."""
    around = b"<office:document-content><office:body><office:spreadsheet><table:table>"
    with contextlib.suppress(expat.ExpatError):
        expat.ParserCreate().Parse(around + last, True)
        return True
    return False


def _check_markup(archive: zipfile.ZipFile) -> None:
    """Raises ExpatError where the markup of an OpenDocument workbook is broken: its reader would look for the end of a table
    for ever."""

    def refuse(*_: object) -> None:
        message = "XML with a document type"
        raise ValueError(message)

    parser = expat.ParserCreate()
    parser.StartDoctypeDeclHandler = refuse  # no entity of its own is let in
    with archive.open("content.xml") as file:
        while block := file.read(_BLOCK):
            parser.Parse(block)
        parser.Parse(b"", True)


_REPEATED_CELL = re.compile(rb'<table:table-cell\b[^>]*?number-columns-repeated="(\d+)"[^>]*>')
_REPEATED_ROW = re.compile(
    rb'<table:table-row\b[^>]*?number-rows-repeated="(\d+)"[^>]*(?<!/)>(.*?)</table:table-row>', re.DOTALL
)
_MANY_REPEATED: Final = 5_000_000


def _repeats(name: str) -> SourceError:
    why = f"it repeats filled cells beyond {MOST_COLUMNS:,} columns or {MOST_BLANK_ROWS:,} rows"
    return _refusal(name, why, "Delete what is repeated beside or below the table, and save it again.")


def check_in_child(path: Path, name: str) -> None:
    """Raises SourceError for a workbook that a process of its own does not survive reading, within a limit of memory: the
    old binary kinds say in a few octets how much is to be held. Where there is no fork, nothing is checked."""
    if not hasattr(os, "fork"):
        return
    child = os.fork()
    if child == 0:
        _read_and_end(path)
    _, status = os.waitpid(child, 0)
    if os.WIFSIGNALED(status):
        why = f"reading it takes more than {MOST_READER_OCTETS >> 20} MB of memory or {_LONGEST_SECS} seconds"
        raise _refusal(
            name, why, "It may be damaged: open it in a spreadsheet application and save it as .xlsx."
        )


def limit_this_process(longest_secs: int) -> None:
    """Silence the errors of this process, a child that reads a file, and limit its memory and its time. Raises OSError or
    ValueError where there are no such limits."""
    import resource

    silent = os.open(os.devnull, os.O_WRONLY)
    os.dup2(silent, 2)
    with open("/proc/self/statm", encoding="ascii") as file:  # noqa: PTH123
        octets = int(file.read().split()[0]) * resource.getpagesize() + MOST_READER_OCTETS
    resource.setrlimit(resource.RLIMIT_AS, (octets, octets))
    resource.setrlimit(resource.RLIMIT_CPU, (longest_secs, longest_secs))
    resource.setrlimit(resource.RLIMIT_CORE, (0, 0))


def _read_and_end(path: Path) -> None:
    try:
        limit_this_process(_LONGEST_SECS)
        import python_calamine as calamine

        book = calamine.load_workbook(str(path))
        for sheet_name in book.sheet_names:
            book.get_sheet_by_name(sheet_name)
    except MemoryError:
        os.abort()
    except BaseException:
        os._exit(1)
    os._exit(0)


def _refusal(name: str, why: str, remedy: str) -> SourceError:
    return SourceError(Problem("source-beyond", f"{name} is not read: {why}.", remedy, Place(name)))
