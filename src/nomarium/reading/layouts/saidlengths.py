"""Lines beside a drawing that say how long what stands in it lasts: `All classes 45 minutes`."""

import re
from collections.abc import Iterable, Sequence
from typing import Final, NamedTuple

from nomarium.model.problem import note
from nomarium.reading.options import ReadingOptions
from nomarium.sheets.sheet import Row, Sheet, cell_text

_OF_ALL: Final = r"\b(?:all|each|every|class(?:es)?|lessons?|sessions?|appointments?|slots?|periods?|cours|séances?|stunden?|lecciones|clases)\b"
_LENGTH: Final = r"(?i)(?<![\d.:–-])(?P<number>\d{1,3}(?:[.,]5)?)[\s-]*(?P<unit>min(?:ute)?s?\b\.?|minuten|hours?|hrs?|h\b|heures?|stunden?)"
_NO_LENGTH: Final = (
    r"\b(?:before|early|late|between|break|notice|after|arrive|every \d+ min|apart|avant|vor)\b"
)
_HOURS: Final = "h"


class SaidLength(NamedTuple):
    """How long everything lasts, and the line that says it."""

    secs: int
    text: str

    @property
    def told(self) -> str:
        return f"Lines that say only when they begin last as long as “{self.text}” says."


def said_length(rows: Iterable[Row]) -> SaidLength | None:
    """The length that one of the rows says that hold one text alone; None where none does, or two differ."""
    found: dict[int, str] = {}
    for _, row in rows:
        if len(row) > 1 and row[0] and row[1]:
            continue  # most rows of most tables
        filled = [cell for cell in row if cell]
        text = cell_text(filled[0]) if len(filled) == 1 else ""
        if not text or not re.search(_OF_ALL, text.casefold()):
            continue
        lengths = list(re.finditer(_LENGTH, text))
        if len(lengths) == 1 and not re.search(_NO_LENGTH, text.casefold()):
            number = float(lengths[0]["number"].replace(",", "."))
            is_hours = lengths[0]["unit"].casefold().startswith((_HOURS, "stunde"))
            found.setdefault(round(number * (3600 if is_hours else 60)), text)
    secs = next(iter(found), 0)
    return SaidLength(secs, found[secs]) if len(found) == 1 and secs else None


def with_length_said(
    sheet: Sheet, rows: Sequence[Row], options: ReadingOptions
) -> tuple[Sheet, ReadingOptions]:
    """A list whose rows last as long as a line above or among its first ones says, with a note, where they say no end themselves; as
    they are where none does, or the person says it."""
    length = said_length(rows) if options.default_length_secs is None else None
    if length is None:
        return sheet, options
    message = f"Rows that say only when they begin last as long as “{length.text}” says."
    told = note("lines-run-on", message, "If they do not: --default-length 1h.").at(sheet.place())
    return sheet._replace(notes=(*sheet.notes, told)), options._replace(default_length_secs=length.secs)
