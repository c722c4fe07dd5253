"""Web pages as tables and lines; where a page says its events to machines (schema.org, JSON-LD), that is the table."""

import json
import re
from collections.abc import Iterator
from html.parser import HTMLParser
from typing import Final

from nomarium.sheets.documents import ENTRY, HEADING, Document, Table
from nomarium.sheets.sheet import Area

_UNSEEN: Final = frozenset("script style head template noscript svg select button nav".split())
_STRUCK: Final = frozenset("del s strike".split())
_OF_TABLE: Final = frozenset("table tr td th tbody thead tfoot caption".split())
_BLOCKS: Final = frozenset(
    "p div li h1 h2 h3 h4 h5 h6 section article header footer main tr dt dd blockquote pre address figcaption ul ol table body".split()
)
_ENTRIES: Final = frozenset(("article", "section", "li", "blockquote"))
_HEADINGS: Final = frozenset("h1 h2 h3 h4 h5 h6".split())
_NEVER_END: Final = frozenset("br hr img input meta link wbr col area base embed source track".split())
_MOST_NESTED: Final = 40
"""Tables within tables; text of deeper ones is that of the last."""
_MOST_SPANNED: Final = 200
_DATED: Final = r"\b\d{1,2}\b.*\b20\d\d\b|\b20\d\d\b.*\b\d{1,2}\b"
"""A day and a year: a date, as far as a page tells without its words being read."""
SAID: Final = ("Event", "Start", "End", "Location", "Description", "URL", "Status")


def page_document(text: str) -> Document:
    """The tables and lines of a page."""
    reader = _Page()
    reader.feed(text)
    reader.close()
    reader.end_struck()
    reader.end_line()
    said = [row for block in reader.said for row in _events_said(block)]
    if said:  # each event once: the visible table says the same
        titles = [" ".join(row[0].casefold().split()) for row in said]
        seen = (" ".join(text.split()) for text in _seen(reader.document))
        beside = [
            text
            for text in seen
            if re.search(_DATED, text) and not any(map(text.casefold().__contains__, titles))
        ]
        return Document([Table([list(SAID), *said], [])], [], tuple(dict.fromkeys(beside)))
    return reader.document._replace(struck=tuple(reader.struck))


def _seen(document: Document) -> Iterator[str]:
    """The lines that people see of a page, a row of a table as one."""
    yield from document.lines
    for table in document.tables:
        yield from (" ".join(row) for row in table.rows)


def _unshown(moment: str, shown: str) -> str:
    """What an element `time` says to machines (HTML, section 4.5.14) of a day that it shows, and does not show: its year, its time of
    day. Moments in UTC are left, for they need not be those of the place.

    >>> _unshown("2026-12-05T10:00", "5 Dec"), _unshown("2026-12-05", "5 Dec 2026")
    (' 2026, 10:00', '')
    """
    said = re.fullmatch(
        r"(?P<year>\d{4})-\d\d-\d\d(?:[T ](?P<time>\d\d:\d\d)(?::\d\d(?:\.\d+)?)?(?:[+-]\d\d:?\d\d)?)?",
        moment.strip(),
    )
    is_day = re.search(r"(?<!\d)\d{1,2}(?!\d)", shown) and re.search(r"[^\W\d_]{3}", shown)
    has_time = re.search(r"(?i)\d[:.h]\d\d|\d\s?[ap]\.?m\b", shown) is not None
    if said is None or not is_day or has_time:
        return ""
    year = "" if re.search(r"\d{4}|['’]\d\d", shown) else f" {said['year']}"
    return f"{year}, {said['time']}" if said["time"] not in (None, "00:00") else year


_WIDE = r" *(?:[\u2001\u2003]|\xa0(?: ?\xa0){2,}) *"
"""What stands for a tab on a page: a wide space, or several that do not break."""


class _Page(HTMLParser):
    def __init__(self) -> None:
        super().__init__(convert_charrefs=True)
        self.document = Document([], [])
        self.said: list[str] = []
        """Texts of JSON-LD."""
        self._line: list[str] = []
        self._mark = ""
        """What marks the line that begins."""
        self._unseen: list[str] = []
        """Elements that are open and not to be read, from the outermost inwards."""
        self._struck: list[str] | None = None
        """The text of the element that is open and crossed out."""
        self.struck: list[str] = []
        self._said: list[str] | None = None
        self._grids: list[_Grid] = []
        """The tables that are open, each within the one before."""
        self._too_deep = 0
        self._moment, self._shown = "", list[str]()
        """What an element `time` says to machines, and what it shows."""
        self._entries = 0
        """Entries of the page that are open, each within the one before."""

    def handle_starttag(self, tag: str, attrs: list[tuple[str, str | None]]) -> None:
        given = {name: value or "" for name, value in attrs}
        if tag == "script" and "ld+json" in given.get("type", ""):
            self._said = []
        if tag in _NEVER_END:
            if tag == "br":
                self._put("\n")
            return
        if tag != "table":
            self._end_unseen_with_cell(tag)
        is_hidden = (
            "hidden" in given
            or given.get("aria-hidden") == "true"
            or re.search(r"display\s*:\s*none", given.get("style", ""))
            or (tag == "footer" and not self._entries)  # of the page, not of an entry of it
        )
        is_struck = tag in _STRUCK or re.search(r"line-through", given.get("style", "")) is not None
        if self._unseen or tag in _UNSEEN or is_hidden or is_struck:
            if is_struck and not self._unseen and not is_hidden:
                self._struck = []
            self._unseen.append(tag)
            return
        self._entries += tag in _ENTRIES
        if tag == "time":
            self._moment, self._shown = given.get("datetime", ""), []
        if tag == "table":
            self._open_table(is_for_looks=given.get("role") in ("presentation", "none"))
        elif self._grids and tag in ("caption", "tr", "td", "th"):
            self.end_line()
            self._grids[-1].begin(tag, given.get("colspan", ""), given.get("rowspan", ""))
        elif tag in _BLOCKS:
            self._put("\n")
            self._mark = ENTRY if tag == "li" else HEADING if tag in _HEADINGS else self._mark

    def handle_endtag(self, tag: str) -> None:
        if tag == "script" and self._said is not None:
            self.said.append("".join(self._said))
            self._said = None
        self._end_unseen_with_cell(tag)
        if self._unseen:
            if tag in self._unseen:
                while self._unseen.pop() != tag:
                    pass
            if not self._unseen:
                self.end_struck()
            return
        self._entries -= tag in _ENTRIES and self._entries > 0
        if tag == "time" and self._moment:
            self._put(_unshown(self._moment, "".join(self._shown)))
            self._moment = ""
        if tag == "table" and self._grids:
            self._close_table()
        elif tag in _BLOCKS:
            self._put("\n")
            self._mark = "" if tag == "li" or tag in _HEADINGS else self._mark

    def handle_data(self, data: str) -> None:
        if self._said is not None:
            self._said.append(data)
        elif self._struck is not None:
            self._struck.append(data)
        elif not self._unseen:
            self._shown.append(data)
            self._put(re.sub(r"[ \t\r\n\f]+", " ", data))

    def _end_unseen_with_cell(self, tag: str) -> None:
        """A line through a text, or what hides it, ends with the cell that it stands in, though nobody closed it."""
        if self._unseen and self._grids and tag in _OF_TABLE and _OF_TABLE.isdisjoint(self._unseen):
            self._unseen = []
            self.end_struck()

    def end_struck(self) -> None:
        """What was crossed out is over: its text is kept, to be told."""
        if text := " ".join("".join(self._struck or ()).split()):
            self.struck.append(text)
        self._struck = None

    def _open_table(self, is_for_looks: bool) -> None:
        self.end_line()
        if len(self._grids) >= _MOST_NESTED:
            self._too_deep += 1
            return
        if self._grids:
            self._grids[-1].only_places_text = True
        self._grids.append(_Grid(is_for_looks))

    def _close_table(self) -> None:
        self.end_line()
        if self._too_deep:
            self._too_deep -= 1
            return
        grid = self._grids.pop()
        table, around = grid.table(), self._around()
        if table.record and not grid.only_places_text:
            around.lines.append(table.record)
        elif grid.only_places_text or table.only_places_text:
            around.take_over(grid.content)
        else:
            around.add(table)

    def _around(self) -> Document:
        """What the text that comes next is put into."""
        return self._grids[-1].content if self._grids else self.document

    def _put(self, text: str) -> None:
        if self._grids:
            self._grids[-1].put(text)
        if text == "\n":
            self.end_line()
        else:
            self._line.append(text)

    def end_line(self) -> None:
        pieces = re.split(_WIDE, "".join(self._line))
        text = "\t".join(filter(None, (" ".join(piece.split()) for piece in pieces)))
        self._line = []
        if text:
            self._around().lines.append(self._mark + text)
            self._mark = ""


class _Grid:
    """A table in the making, with its spans; and what its cells hold, as lines and tables, should it only place them."""

    def __init__(self, only_places_text: bool) -> None:
        self.only_places_text = only_places_text
        self.content = Document([], [])
        self._caption: list[str] = []
        self._is_caption = False
        self._rows: list[list[str]] = []
        self._merged: list[Area] = []
        self._taken: dict[tuple[int, int], bool] = {}
        self._at: tuple[int, int] | None = None

    def begin(self, tag: str, across: str, down: str) -> None:
        """Begin a caption, a row or a cell."""
        self._is_caption = tag == "caption"
        if tag == "tr":
            self._row()
        elif not self._is_caption:
            self._cell(across, down)

    def _row(self) -> None:
        self._rows.append([])
        self._at = None

    def _cell(self, across: str, down: str) -> None:
        if not self._rows:
            self._row()
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
        if self._is_caption:
            self._caption.append(text)
        elif self._at is not None:
            row, at = self._at
            self._rows[row][at] += text

    def table(self) -> Table:
        rows = [
            ["\n".join(" ".join(line.split()) for line in cell.split("\n") if line.strip()) for cell in row]
            for row in self._rows
        ]
        width = max(
            map(len, rows), default=0
        )  # a cell of a row above may reach down beside the last of a row
        wide = [[*row, *[""] * (width - len(row))] for row in rows]
        return Table(wide, self._merged, " ".join("".join(self._caption).split()))


def _events_said(block: str) -> Iterator[list[str]]:
    """The events of a block of JSON-LD (schema.org), in the order of `SAID`."""
    try:
        yield from _events_in(json.loads(block))
    except (ValueError, RecursionError):
        return


def _status(said: object) -> str:
    """The status of an event as schema.org has it, in a word of a table: one that is put off is not settled."""
    name = said.rpartition("/")[2] if isinstance(said, str) else ""
    return {"EventCancelled": "cancelled", "EventPostponed": "tentative"}.get(name, "")


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
                _status(value.get("eventStatus")),
            )
            yield [one if isinstance(one, str) else "" for one in listed]
        else:
            for inside in value.values():
                yield from _events_in(inside)
