"""Web pages as tables and lines; where a page says its events to machines (schema.org, JSON-LD), that is the table."""

import json
import re
from collections.abc import Iterator
from html.parser import HTMLParser
from typing import Final

from nomarium.sheets.documents import ENTRY, HEADING, Document, Table
from nomarium.sheets.sheet import Area

_UNSEEN: Final = frozenset(
    ("script", "style", "head", "template", "noscript", "svg", "select", "button", "nav")
)
_BLOCKS: Final = frozenset(
    "p div li h1 h2 h3 h4 h5 h6 section article header footer main tr dt dd blockquote pre address figcaption ul ol table body".split()
)
_HEADINGS: Final = frozenset("h1 h2 h3 h4 h5 h6".split())
_NEVER_END: Final = frozenset("br hr img input meta link wbr col area base embed source track".split())
_MOST_SPANNED: Final = 200
SAID: Final = ("Event", "Start", "End", "Location", "Description", "URL")


def page_document(text: str) -> Document:
    """The tables and lines of a page."""
    reader = _Page()
    reader.feed(text)
    reader.close()
    reader.end_line()
    said = [row for block in reader.said for row in _events_said(block)]
    if said:  # each event once: the visible table says the same
        return Document([Table([list(SAID), *said], [], "")], [])
    return Document(reader.tables, reader.lines)


class _Page(HTMLParser):
    def __init__(self) -> None:
        super().__init__(convert_charrefs=True)
        self.tables: list[Table] = []
        self.lines: list[str] = []
        self.said: list[str] = []
        """Texts of JSON-LD."""
        self._line: list[str] = []
        self._mark = ""
        """What marks the line that begins."""
        self._unseen: list[str] = []
        self._said: list[str] | None = None
        self._table: _Grid | None = None
        self._depth = 0

    def handle_starttag(self, tag: str, attrs: list[tuple[str, str | None]]) -> None:
        given = {name: value or "" for name, value in attrs}
        if tag == "script" and "ld+json" in given.get("type", ""):
            self._said = []
        if tag in _NEVER_END:
            if tag == "br":
                self._put("\n")
            return
        is_hidden = (
            "hidden" in given
            or given.get("aria-hidden") == "true"
            or re.search(r"display\s*:\s*none", given.get("style", ""))
        )
        if self._unseen or tag in _UNSEEN or is_hidden:
            self._unseen.append(tag)
            return
        if tag == "table":
            self._depth += 1
            if self._depth == 1:
                self.end_line()
                self._table = _Grid(Document([], self.lines).last_line())
        elif self._table is not None and tag == "caption":
            self._table.above = ""
        elif self._table is not None and tag == "tr" and self._depth == 1:
            self._table.row()
        elif self._table is not None and tag in ("td", "th") and self._depth == 1:
            self._table.cell(given.get("colspan", ""), given.get("rowspan", ""))
        elif tag in _BLOCKS:
            self._put("\n")
            self._mark = ENTRY if tag == "li" else HEADING if tag in _HEADINGS else self._mark

    def handle_endtag(self, tag: str) -> None:
        if tag == "script" and self._said is not None:
            self.said.append("".join(self._said))
            self._said = None
        if self._unseen:
            if tag in self._unseen:
                while self._unseen.pop() != tag:
                    pass
            return
        if tag == "table" and self._depth:
            self._depth -= 1
            if not self._depth and self._table is not None:
                self.tables.append(self._table.table())
                self._table = None
        elif tag in _BLOCKS:
            self._put("\n")
            self._mark = "" if tag == "li" or tag in _HEADINGS else self._mark

    def handle_data(self, data: str) -> None:
        if self._said is not None:
            self._said.append(data)
        elif not self._unseen:
            self._put(re.sub(r"\s+", " ", data))

    def _put(self, text: str) -> None:
        if self._table is not None:
            self._table.put(text)
        elif text == "\n":
            self.end_line()
        else:
            self._line.append(text)

    def end_line(self) -> None:
        text = " ".join("".join(self._line).split())
        self._line = []
        if text:
            self.lines.append(self._mark + text)
            self._mark = ""


class _Grid:
    """A table in the making, with its spans."""

    def __init__(self, above: str) -> None:
        self.above = above
        self._rows: list[list[str]] = []
        self._merged: list[Area] = []
        self._taken: dict[tuple[int, int], bool] = {}
        self._at: tuple[int, int] | None = None

    def row(self) -> None:
        self._rows.append([])
        self._at = None

    def cell(self, across: str, down: str) -> None:
        if not self._rows:
            self.row()
        cells, here = self._rows[-1], len(self._rows) - 1
        while self._taken.get((here, len(cells))):
            cells.append("")
        at = len(cells)
        wide, high = (
            min(int(text), _MOST_SPANNED) if text.isdigit() and int(text) else 1 for text in (across, down)
        )
        cells += [""] * wide
        for row in range(here + 1, here + high):
            self._taken.update({(row, column): True for column in range(at, at + wide)})
        if wide > 1 or high > 1:
            self._merged.append(Area(here, at, here + high - 1, at + wide - 1))
        self._at = here, at

    def put(self, text: str) -> None:
        if self._at is not None:
            row, at = self._at
            self._rows[row][at] += text

    def table(self) -> Table:
        rows = [
            ["\n".join(" ".join(line.split()) for line in cell.split("\n") if line.strip()) for cell in row]
            for row in self._rows
        ]
        return Table(rows, self._merged, self.above)


def _events_said(block: str) -> Iterator[list[str]]:
    """The events of a block of JSON-LD (schema.org), in the order of `SAID`."""
    try:
        yield from _events_in(json.loads(block))
    except (ValueError, RecursionError):
        return


def _events_in(value: object) -> Iterator[list[str]]:
    if isinstance(value, list):
        for one in value:
            yield from _events_in(one)
    elif isinstance(value, dict):
        kinds = value.get("@type")
        names = kinds if isinstance(kinds, list) else [kinds]
        if any(isinstance(name, str) and name.endswith("Event") for name in names) and value.get("startDate"):
            place = value.get("location")
            where = place.get("name") or place.get("address") if isinstance(place, dict) else place
            listed = (
                value.get("name"),
                value.get("startDate"),
                value.get("endDate"),
                where,
                value.get("description"),
                value.get("url"),
            )
            yield [one if isinstance(one, str) else "" for one in listed]
        else:
            for inside in value.values():
                yield from _events_in(inside)
