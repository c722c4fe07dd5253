"""The letters and the ruled lines of a PDF's pages (ISO 32000-1), read in a process of its own: a few octets of such a file can
keep a reader busy for minutes, or fill the memory."""

import contextlib
import json
import os
import select
from collections.abc import Callable
from itertools import pairwise
from pathlib import Path
from typing import TYPE_CHECKING, Final, NamedTuple

from nomarium.model.errors import SourceError
from nomarium.model.limits import LONGEST_READER_SECS, MOST_PAGES, MOST_READER_OCTETS
from nomarium.model.problem import Place, Problem
from nomarium.sheets.guards import limit_this_process

if TYPE_CHECKING:
    import pypdfium2 as pdfium

_Place = Callable[[float, float], tuple[float, float]]
"""A point of the page as it lies → as it is shown."""
_Box = tuple[float, float, float, float]
_PageSaid = tuple[list[tuple[str, float, float, float, float]], list[_Box], bool, int, float]
"""A page as the process that reads it hands it over."""
_Said = tuple[str, list[_PageSaid]]
"""Why there are no pages, or nothing; and the pages."""
_HYPHENS: Final = (0x2, 0xAD, 0xFFFE)
"""How the reader gives a hyphen at the end of a line."""
_SHORTEST: Final = 6.0
"""Points: shorter strokes are ticks and dots, and rule nothing."""


class Letter(NamedTuple):
    """A letter and the box of its line of type, in points from the upper left corner of the page."""

    text: str
    left: float
    top: float
    right: float
    bottom: float


class Rule(NamedTuple):
    """A line from left to right or from top to bottom."""

    left: float
    top: float
    right: float
    bottom: float


class Page(NamedTuple):
    """What stands on a page."""

    letters: list[Letter]
    rules: list[Rule]
    is_picture: bool
    """Whether it has a picture, and so may be a scan."""
    sideways: int
    """Letters that do not stand upright, which are not among the others."""
    height: float


def read_pages(path: Path, name: str) -> list[Page]:
    """The pages of a PDF. Raises SourceError for one that is locked or damaged, or takes too much to be read."""
    try:
        import pypdfium2  # noqa: F401  # asked for here, so that what is missing is told and not found in the child
    except ImportError as error:
        message = f"{name} is a PDF document, and what reads such files is not installed."
        remedy = (
            'Install it: pip install "nomarium[documents]"; or save the document as .docx, .xlsx or .csv.'
        )
        raise _refusal("source-kind", message, remedy, name) from error
    why, pages = _in_child(path, name) if hasattr(os, "fork") else _extracted(path)
    if why == "locked":
        message = f"{name} is locked with a password."
        raise _refusal("source-locked", message, "Save it without one and build that.", name)
    if why == "pages":
        message = f"{name} is not read: it has more than {MOST_PAGES} pages."
        raise _refusal(
            "source-beyond", message, "Save the pages that matter as a document of their own.", name
        )
    if why:
        message = f"{name} is a PDF document that was cut short or damaged."
        raise _refusal("source-broken", message, "Fetch or save it again.", name)
    return [
        Page([Letter(*one) for one in letters], [Rule(*one) for one in rules], is_picture, sideways, height)
        for letters, rules, is_picture, sideways, height in pages
    ]


def _in_child(path: Path, name: str) -> _Said:
    """What a process of its own reads, within limits of memory and time."""
    reading, writing = os.pipe()
    child = os.fork()
    if child == 0:
        os.close(reading)
        _read_and_end(path, writing)
    os.close(writing)
    parts: list[bytes] = []
    try:
        while select.select([reading], [], [], LONGEST_READER_SECS)[0]:
            block = os.read(reading, 1 << 20)
            if not block:
                break
            parts.append(block)
        else:
            os.kill(child, 9)
    finally:
        os.close(reading)
        _, status = os.waitpid(child, 0)
    if os.WIFSIGNALED(status):
        why = f"reading it takes more than {MOST_READER_OCTETS >> 20} MB of memory or {LONGEST_READER_SECS} seconds"
        remedy = "It may be damaged, or made to do harm; save its text as .docx or .csv and build that."
        raise _refusal("source-beyond", f"{name} is not read: {why}.", remedy, name)
    try:
        why, pages = json.loads(b"".join(parts))
    except ValueError:
        return "broken", []
    return why, pages


def _read_and_end(path: Path, writing: int) -> None:
    with contextlib.suppress(
        OSError, ValueError
    ):  # where there are no such limits, the time is watched from outside
        limit_this_process(LONGEST_READER_SECS)
    try:
        data = json.dumps(_extracted(path)).encode()
        while data:
            data = data[os.write(writing, data) :]
    except MemoryError:
        os.abort()
    except BaseException:
        os._exit(1)
    os._exit(0)


def _extracted(path: Path) -> _Said:
    """The pages as plain lists, or why there are none."""
    import pypdfium2 as pdfium

    try:
        document = pdfium.PdfDocument(str(path))
    except pdfium.PdfiumError as error:
        return "locked" if "assword" in str(error) else "broken", []
    if len(document) > MOST_PAGES:
        return "pages", []
    try:
        return "", [_page(document[n]) for n in range(len(document))]
    except pdfium.PdfiumError:
        return "broken", []


def _page(page: "pdfium.PdfPage") -> _PageSaid:
    import pypdfium2.raw as raw

    left, bottom, right, top = page.get_bbox()
    turned = page.get_rotation() // 90 % 4
    width, height = right - left, top - bottom

    def placed(x: float, y: float) -> tuple[float, float]:
        """A point of the page as it is shown: from the upper left, turned as the page is."""
        x, y = x - left, y - bottom
        return ((x, height - y), (y, x), (width - x, y), (height - y, width - x))[turned]

    letters, sideways = _letters(page, placed, turned)
    rules: list[_Box] = []
    is_picture = False
    for one in page.get_objects(max_depth=4):
        if one.type == raw.FPDF_PAGEOBJ_PATH:
            rules += _rules(one, placed)
        elif one.type == raw.FPDF_PAGEOBJ_IMAGE:
            is_picture = True
    return letters, rules, is_picture, sideways, width if turned % 2 else height


def _letters(
    page: "pdfium.PdfPage", placed: _Place, turned: int
) -> tuple[list[tuple[str, float, float, float, float]], int]:
    import ctypes
    import math

    import pypdfium2.raw as raw

    text = page.get_textpage()
    box = raw.FS_RECTF()
    letters: list[tuple[str, float, float, float, float]] = []
    sideways = 0
    for n in range(raw.FPDFText_CountChars(text)):
        code = raw.FPDFText_GetUnicode(text, n)
        letter = "-" if code in _HYPHENS else chr(code) if code < 0x110000 else ""
        if not letter.strip() or not letter.isprintable():
            continue
        if not raw.FPDFText_GetLooseCharBox(text, n, ctypes.byref(box)):
            continue
        angle = raw.FPDFText_GetCharAngle(text, n) + turned * math.pi / 2
        if abs(math.sin(angle / 2)) > 0.2:
            sideways += 1
            continue
        (x0, y0), (x1, y1) = placed(box.left, box.top), placed(box.right, box.bottom)
        letters.append((letter, *_rounded(min(x0, x1), min(y0, y1), max(x0, x1), max(y0, y1))))
    return letters, sideways


def _rules(path: "pdfium.PdfObject", placed: _Place) -> list[_Box]:
    """The straight strokes of a path, and the edges of its rectangles; a thin rectangle is one stroke."""
    import ctypes

    import pypdfium2.raw as raw

    a, b, c, d, e, f = path.get_matrix().get()
    points: list[tuple[float, float] | None] = []
    first: tuple[float, float] | None = None
    for n in range(min(raw.FPDFPath_CountSegments(path), 20_000)):
        segment = raw.FPDFPath_GetPathSegment(path, n)
        x, y = ctypes.c_float(), ctypes.c_float()
        raw.FPDFPathSegment_GetPoint(segment, ctypes.byref(x), ctypes.byref(y))
        point = placed(a * x.value + c * y.value + e, b * x.value + d * y.value + f)
        kind = raw.FPDFPathSegment_GetType(segment)
        if kind == raw.FPDF_SEGMENT_MOVETO:
            points.append(None)
            first = point
        points.append(point if kind != raw.FPDF_SEGMENT_BEZIERTO else None)
        if raw.FPDFPathSegment_GetClose(segment) and first is not None:
            points.append(first)
    found = []
    for one, other in pairwise(points):
        if one is None or other is None:
            continue
        left, right = sorted((one[0], other[0]))
        top, bottom = sorted((one[1], other[1]))
        if min(right - left, bottom - top) < 1.5 and max(right - left, bottom - top) >= _SHORTEST:
            found.append(_rounded(left, top, right, bottom))
    return found


def _rounded(left: float, top: float, right: float, bottom: float) -> _Box:
    return round(left, 2), round(top, 2), round(right, 2), round(bottom, 2)


def _refusal(code: str, message: str, remedy: str, name: str) -> SourceError:
    return SourceError(Problem(code, message, remedy, Place(name)))
