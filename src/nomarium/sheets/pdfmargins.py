"""Running heads and feet of pages: lines at their edges that come back on most of them, or say only which page it is."""

import re
from collections.abc import Sequence
from typing import Final

from nomarium.sheets.pdfpages import Page
from nomarium.sheets.pdftext import Line, lines_of

_LINES: Final = 2
"""Lines from the top and from the bottom of a page that may be its running head and foot."""
_EDGE: Final = 42.0
"""Points from the edge of a page within which stands what a printer adds."""
_MARGIN: Final = 64.0
"""The same for the heads and feet of a document."""
_OF_PRINTERS: Final = r"(?i)(?:page|seite|p\.)?\s*\d{1,3}(?:\s*(?:/|of|de|von|sur)\s*\d{1,3})?|.*://\S+.*"
"""A page's number, an address."""
_PRINTED: Final = r"(?i)\d{1,2}[/.]\d{1,2}[/.]\d{2,4},?\s+\d{1,2}:\d\d(?:\s?[ap]m)?(?:\s.*)?"
"""The moment of printing, at one edge where an address or a number stands at the other: a row of dates looks like it."""
_COUNTING: Final = r"(?i)\b(?:page|seite|pagina|página|sida|side|p|pg)\b|\b(?:of|de|von|sur|van)\s*\d+|^\W*\d+\W*$|\d\s*/\s*\d"
"""Words and signs beside the number of a page: `Week 5` counts something else."""


def running_lines(pages: Sequence[Page]) -> list[list[Line]]:
    """The running heads and feet of each page. One that is the same on every page stays on the first: it may be the title. What
    stands in a ruled table, in columns, or close to the text is none, for rows come back too."""
    edges = [_edge_lines(page) for page in pages]
    places: dict[str, dict[int, tuple[int, ...]]] = {}
    for number, lines in enumerate(edges, 1):
        for line in lines:
            numbers = tuple(int(figures[:9]) for figures in re.findall(r"[0-9]+", line.text))
            places.setdefault(_mask(line.text), {}).setdefault(number, numbers)
    return [
        [
            line
            for line in lines
            if _is_running(line, number, lines, page, places[_mask(line.text)], len(pages))
        ]
        for number, (page, lines) in enumerate(zip(pages, edges, strict=True), 1)
    ]


def _is_running(
    line: Line,
    number: int,
    lines: Sequence[Line],
    page: Page,
    places: dict[int, tuple[int, ...]],
    page_count: int,
) -> bool:
    """Whether a line is part of a page and not of its text. `places` are the numbers in it on each page that has it."""
    if _is_at_edge(line, page, _EDGE):
        if re.fullmatch(_OF_PRINTERS, line.text):
            return True
        if re.fullmatch(_PRINTED, line.text) and line.bottom < _EDGE:
            last = lines[-1]
            return _is_at_edge(last, page, _EDGE) and re.fullmatch(_OF_PRINTERS, last.text) is not None
    if len(places) < 2 or len(places) * 3 < page_count * 2 or not _is_at_edge(line, page, _MARGIN):
        return False
    if any(
        rule.top <= line.bottom and rule.bottom >= line.top
        for rule in page.rules
        if rule.bottom - rule.top > rule.right - rule.left
    ):
        return False  # a line of a table stands beside it
    first = min(places)
    steps = {
        tuple(b - a for a, b in zip(places[first], numbers, strict=True)): at - first
        for at, numbers in places.items()
    }
    if all(not any(step) for step in steps):
        return number > first and len(line.pieces) == 1 and _stands_apart(line, page)
    counts = all(set(step) <= {0, by} for step, by in steps.items())
    return counts and re.search(_COUNTING, line.text) is not None


def _stands_apart(line: Line, page: Page) -> bool:
    """Whether more than the space between two lines is between a line and the others."""
    nearest = min(
        (
            max(one.top - line.bottom, line.top - one.bottom) for one in page.letters
            if one.top >= line.bottom or one.bottom <= line.top
        ),
        default=line.height,
    )  # fmt: skip
    return nearest > 0.6 * line.height


def without_lines(page: Page, lines: Sequence[Line]) -> Page:
    """The page without the letters of some of its lines."""
    if not lines:
        return page
    return page._replace(
        letters=[
            one for one in page.letters
            if not any(line.top <= (one.top + one.bottom) / 2 <= line.bottom for line in lines)
        ]
    )  # fmt: skip


def _edge_lines(page: Page) -> list[Line]:
    lines = lines_of(page.letters)
    return lines[:_LINES] + lines[max(len(lines) - _LINES, _LINES) :]


def _is_at_edge(line: Line, page: Page, within: float) -> bool:
    return line.bottom < within or line.top > page.height - within


def _mask(text: str) -> str:
    """A line as it comes back on other pages, whatever its page's number."""
    return re.sub(r"\d+", "0", text).strip().casefold()
