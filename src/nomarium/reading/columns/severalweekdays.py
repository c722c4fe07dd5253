"""Columns of a drawn week that are headed by several weekdays, `Mon-Fri`, `Sat & Sun`: one for each of them."""

import re
from collections.abc import Iterator, Sequence
from itertools import islice
from typing import Final

from nomarium.model.cell import Cell
from nomarium.model.problem import note
from nomarium.model.wording import WEEKDAYS, listed
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.sheets.sheet import Area, Row, Sheet, cell_text

_HEAD_ROWS: Final = 20
_OTHERS: Final = 3
"""Headings beside the weekdays, at most: a name, a group, a sum."""
_FEWEST: Final = 2
"""Headings that name weekdays, at least."""
_TWO_WORDS: Final = r"[^\W\d_]{2,10}\.?\s?[-–/&+]\s?[^\W\d_]{2,10}\.?"
_TO: Final = r"\s*(?:[-–—]|\b(?:to|till?|until|through|thru|bis|a|au|t/m)\b)\s*"
_AND: Final = r"\s*(?:[,;/&+]|\b(?:and|et|und|y|en)\b)\s*"
_SETS: Final = {"weekdays": range(5), "weekday": range(5), "weekend": range(5, 7), "weekends": range(5, 7)}


def with_each_weekday(sheet: Sheet, lexicon: Lexicon) -> Sheet:
    """The sheet with a column a weekday, where the first row that names weekdays over columns has cells that name several; the
    sheet itself where none does, or one day would stand over two columns."""
    top = list(islice(sheet.rows(), _HEAD_ROWS))
    head = next(((n, row) for n, row in top if _names_weekdays(row, lexicon)), None)
    if head is None and (other := _in_another_language(top)) is not None:
        lexicon, head = other
    if head is None:
        return sheet
    number, headings = head
    days = [weekdays_named(cell_text(cell), lexicon) for cell in headings]
    each = [day for named in days for day in named]
    if all(len(named) < 2 for named in days) or len(each) != len(set(each)):
        return sheet
    own = [at for at, named in enumerate(days) for _ in range(max(1, len(named)))]
    width = max(len(row) for _, row in top)
    own += range(len(days), width)  # rows may be longer than their head
    names = [
        WEEKDAYS[day] if named else cell
        for cell, named in zip(headings, days, strict=True)
        for day in named or (0,)
    ]

    def rows() -> Iterator[Row]:
        for at, row in sheet.rows():
            yield (
                at,
                names if at == number else [*(row[n] if n < len(row) else "" for n in own), *row[width:]],
            )

    several = [cell_text(cell) for cell, named in zip(headings, days, strict=True) if len(named) > 1]
    message = f"What stands under {listed([f'“{text}”' for text in several])} is of each of these weekdays."
    return sheet._replace(
        read_rows=rows,
        merged=tuple(_spread(area, own) for area in sheet.merged),
        faults={(at, n): fault for (at, column), fault in sheet.faults.items() for n, of in enumerate(own) if of == column},
        own_columns=tuple(own),
        notes=(*sheet.notes, note("weekdays-several", message).at(sheet.place(number))),
    )  # fmt: skip


def weekdays_named(text: str, lexicon: Lexicon) -> tuple[int, ...]:
    """The weekdays that a heading names and nothing else, 0 for Monday; nothing for another heading.

    >>> from nomarium.reading.cells.words import ENGLISH
    >>> [weekdays_named(text, ENGLISH) for text in ("Mon-Wed, Fri", "Weekend", "Sat", "Mon class")]
    [(0, 1, 2, 4), (5, 6), (5,), ()]
    """
    said = fold(text).strip(" .:")
    if said in _SETS:
        return tuple(_SETS[said])
    found: list[int] = []
    for part in re.split(_AND, said):
        ends = [_weekday(word, lexicon) for word in re.split(_TO, part)]
        known = [day for day in ends if day is not None]
        if len(known) != len(ends) or len(ends) > 2:
            return ()
        found += [(known[0] + n) % 7 for n in range((known[-1] - known[0]) % 7 + 1)]
    return tuple(found)


def _in_another_language(rows: Sequence[Row]) -> tuple[Lexicon, Row] | None:
    """The first row with a range of weekdays in a language other than English, `Mo-Mi`, and what these are in it."""
    for number, row in rows:
        texts = [text for cell in row if isinstance(cell, str) and (text := cell_text(cell))]
        if len(texts) < _FEWEST or not any(re.fullmatch(_TWO_WORDS, text) for text in texts):
            continue
        from nomarium.reading.cells.languages import weekday_lexicon  # few sheets that are no lists come here

        words = frozenset(word for text in texts for word in re.findall(r"[^\W\d_]+", fold(text)))
        known = weekday_lexicon(words, least=max(_FEWEST, len(words) - _OTHERS))
        if known is not None and _names_weekdays(row, known):
            return known, (number, row)
    return None


def _weekday(word: str, lexicon: Lexicon) -> int | None:
    return lexicon.weekday(word.strip(" ."))


def _names_weekdays(row: Sequence[Cell], lexicon: Lexicon) -> bool:
    """Whether two cells or more of a row name weekdays, and few others stand beside them."""
    texts = [text for cell in row if isinstance(cell, str) and (text := cell_text(cell))]
    named = sum(bool(weekdays_named(text, lexicon)) for text in texts)
    return named > 1 and len(texts) - named <= _OTHERS


def _spread(area: Area, own: Sequence[int]) -> Area:
    """A merged area over the columns that stand for those of the source."""
    within = [n for n, at in enumerate(own) if area.first_column <= at <= area.last_column]
    return area._replace(first_column=within[0], last_column=within[-1]) if within else area
