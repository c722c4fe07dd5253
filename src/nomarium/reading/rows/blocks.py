"""Titles over blocks of rows: a table whose headings stand again under each, such as one block a class."""

import re
from collections.abc import Sequence
from itertools import islice

from nomarium.model.cell import Cell
from nomarium.model.problem import LINES, Problem, note
from nomarium.reading.cells.memo import FieldValue
from nomarium.reading.cells.words import fold
from nomarium.reading.columns.lexicons import lexicon_for
from nomarium.reading.columns.table import TableReading, data_rows
from nomarium.reading.options import ReadingOptions
from nomarium.reading.rows.faults import repeats_headings
from nomarium.sheets.sheet import TOP_ROWS, Sheet, cell_text

# compiled when a table has blocks: few do
_CLASS = r"(?:class|klasse|classe|clase|klas|form|year|grade|group)\s+\S.*|\d{1,2}\s?[a-z]{1,2}"
_ROOM = r"(?:room|raum|salle|sala|lokaal|lab|hall|loft|shed|slip|studio|court|pitch|berth|quay|ward)\s+\S.*"
_UNTITLED = r"(?:sheet|tabelle|feuil(?:le)?|hoja|blad|foglio|arkusz|planilha|table|page|pages)\s*\d*.*"
"""Names that a program gives its sheets."""
_OF_REPORT = r"(?:page|seite|p\.)\s*\d+\b.*|(?:(?:report|list) )?(?:run|printed|generated|exported|created|produced|downloaded|as (?:of|at))\b.*\d.*"
"""What a program writes over the rows of a report, or where its pages end: no title of them."""


def sheets_that_title(sheets: Sequence[Sheet], options: ReadingOptions) -> frozenset[str]:
    """The names of sheets that say of their rows what these do not: of several lists in one workbook, those that are neither
    given by a program nor about when."""
    lexicon = lexicon_for(options)
    names = [sheet.name for sheet in sheets if sheet.name and sheet.name != LINES and not sheet.part_title]
    if len(set(names)) < 2 or len({sheet.file for sheet in sheets}) > 1:
        return frozenset()
    return frozenset(
        name for name in names
        if not re.fullmatch(_UNTITLED, fold(name)) and not re.search(r"\d{4}|\d\d[/-]\d\d", name)
        and not any(lexicon.knows(word) or word in _OF_TIME for word in re.findall(r"[^\W\d_]+", fold(name)))
    )  # fmt: skip


_OF_TIME = frozenset(
    "term semester trimester quarter week day month year half autumn spring summer winter today date dates am pm".split()
)


class Blocks:
    """Follows the titles over the blocks of one table."""

    def __init__(self, reading: TableReading) -> None:
        self._headings = reading.headings
        self._lexicon = reading.decisions.lexicon
        self._pending: tuple[int, str] | None = None
        self._ends_page = False
        self.title = ""
        """The title over the rows that are read now; nothing when there is none."""
        self.is_on = (
            bool(reading.head.header_rows) and not reading.sheet.dates_above and self._has_blocks(reading)
        )
        self.row = max(reading.head.title_rows, default=None)
        """Where that stands, when the table begins under it."""
        self._is_sheet = bool(reading.sheet.part_title) and reading.sheet.part_title == reading.sheet.name
        if reading.sheet.part_title:
            self.is_on, self.title = True, self._title([reading.sheet.part_title])
        elif self.is_on and reading.head.title_rows:
            last = max(reading.head.title_rows)
            self.title = next(
                (self._title(row) for number, row in reading.sheet.rows() if number == last), ""
            )

    def _has_blocks(self, reading: TableReading) -> bool:
        before = ""
        for _, row in islice(data_rows(reading.sheet, reading.head), TOP_ROWS):
            if len(row) - row.count("") > 1:  # the commonest row by far
                if before and repeats_headings(row, self._headings):
                    return True
                before = ""
            elif any(map(cell_text, row)):
                before = self._title(row)
        return False

    def _title(self, row: Sequence[Cell]) -> str:
        """The lone text of a row, unless it names a month or a weekday: that is when, and not what."""
        filled = [text for cell in row if (text := cell_text(cell))]
        if len(filled) != 1 or re.fullmatch(_OF_REPORT, fold(filled[0])):
            return ""
        is_when = any(self._lexicon.knows(word) for word in re.findall(r"\w+", fold(filled[0])))
        return "" if is_when else filled[0]

    def note(self, number: int, row: Sequence[Cell]) -> int | None:
        """A row that is a note; gives the row of the title that has become one of a block, when it has."""
        if text := self._title(row):
            self._pending = (number, text)
            return None
        pending, self._pending = self._pending, None
        if not repeats_headings(row, self._headings):
            texts = [text for cell in row if (text := cell_text(cell))]
            self._ends_page = len(texts) == 1 and re.fullmatch(_OF_REPORT, fold(texts[0])) is not None
            return None
        if pending or not self._ends_page:  # else the block goes on over the page
            self.title = pending[1] if pending else ""
        return pending[0] if pending else None

    def of_row(self) -> dict[str, FieldValue]:
        """What the title over an event's row says of it: a category, and its class or room where it names one."""
        self._pending = None
        return self._said()

    def _said(self) -> dict[str, FieldValue]:
        if not self.title:
            return {}
        word = fold(self.title)
        field = "class" if re.fullmatch(_CLASS, word) else "room" if re.fullmatch(_ROOM, word) else ""
        return {"more-categories": (self.title,), **({field: self.title} if field else {})}

    def told(self) -> Problem:
        named = self._said()
        as_what = next((f" and its {field}" for field in ("class", "room") if field in named), "")
        where = "the sheet's name," if self._is_sheet else "over a block"
        return note(
            "block-title",
            f"“{self.title}”, {where} is the category of its rows{as_what}.".replace(", over", " over"),
        )
