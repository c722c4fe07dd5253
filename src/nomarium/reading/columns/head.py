"""Where the table is in a sheet: title rows above it, its headings (one row or two), its first row."""

import re
from collections import Counter
from collections.abc import Sequence
from itertools import islice, pairwise
from typing import NamedTuple

from nomarium.model.cell import Cell
from nomarium.reading.cells.words import ENGLISH, Lexicon
from nomarium.reading.columns.daycells import lists_dates, looks_like_date, tells_day
from nomarium.reading.columns.firstentry import is_entry
from nomarium.reading.columns.headings import match_exactly
from nomarium.sheets.sheet import Row, Sheet, cell_text, is_blank

_BEGINS_WITH_CLOCK = r"(?i)(?:[01]?\d|2[0-3])(?:[.:h][0-5]\d\b|\s?[ap]\.?m\b)"
_HOLDS_DATE = r"\d{1,2}\s+[^\W\d_]{3,}\.?,?\s+\d{4}|[^\W\d_]{3,}\.?\s+\d{1,2},?\s+\d{4}|\d{4}-\d\d-\d\d"
"""What no heading holds but one of a column of that date."""
_WIDE = 3
"""Columns of a table whose title is one cell, and no row of it."""
HEAD_ROWS = 60
"""How many rows from the top may hold the headings."""


class TableHead(NamedTuple):
    """The headings of a table and where it begins."""

    headings: tuple[str, ...]
    """One a column, "" where there is none; of two rows of headings, both texts."""
    first_row: int
    """Row number of the first row of data."""
    header_rows: tuple[int, ...] = ()
    """Row numbers of the headings; none for a table without."""
    title_rows: tuple[int, ...] = ()
    """Rows above the headings that hold something: they count as notes."""
    blank_rows: int = 0
    """Blank rows above the headings."""
    rows_above: int = 0
    """All rows above the headings (the first row of data, without them), blank or not."""


def find_head(sheet: Sheet, lexicon: Lexicon = ENGLISH, header_row: int | None = None) -> TableHead | None:
    """Find the headings of a sheet, or None when it is blank. `header_row` (0: no headings) settles it."""
    top = list(islice(sheet.rows(), HEAD_ROWS))
    filled = [(number, row) for number, row in top if not is_blank(row)]
    if not filled:
        return None
    if header_row is not None:
        at = next((n for n, (number, _) in enumerate(filled) if number == header_row), None)
    else:
        at = _header_at(filled, lexicon)
    if at is None:
        number, _ = filled[0]
        width = max(len(row) for _, row in filled)
        start = _first_with_date(filled, lexicon) if header_row is None else 0
        titles = tuple(n for n, _ in filled[:start])
        first = filled[start][0]
        above = _rows_before(top, first)
        return TableHead(("",) * width, first, (), titles, _blank_before(top, first), above)
    number, row = filled[at]
    headings = [cell_text(cell) for cell in row]
    rows: tuple[int, ...] = (number,)
    upper = [cell_text(cell) for cell in filled[at - 1][1]] if at and filled[at - 1][0] == number - 1 else []
    if header_row is None and _told_apart_above(upper, headings):
        headings, rows, at = _two_rows(upper, headings), (number - 1, number), at - 1
    elif at + 1 < len(filled) and filled[at + 1][0] == number + 1:
        below = filled[at + 1][1]
        if _continues_header(row, below, lexicon):
            headings = _two_rows(headings, [cell_text(cell) for cell in below])
            rows = (number, number + 1)
    first = rows[-1] + 1
    titles = tuple(n for n, _ in filled[:at])
    above = _rows_before(top, rows[0])
    return TableHead(tuple(headings), first, rows, titles, _blank_before(top, rows[0]), above)


def _rows_before(top: Sequence[Row], number: int) -> int:
    return sum(other < number for other, _ in top)


def _blank_before(top: Sequence[Row], number: int) -> int:
    return sum(1 for other, row in top if other < number and is_blank(row))


def _header_at(filled: Sequence[Row], lexicon: Lexicon) -> int | None:
    """The index of the row of headings: the one with the most known headings, two at least."""
    scores = []
    for at, (_, row) in enumerate(filled[:30]):
        texts = [cell_text(cell) for cell in row if cell != ""]
        short = [text for text in texts if len(text) < 60]
        known = {match.field for text in short if (match := match_exactly(text))}
        dates = any(tells_day(cell, lexicon) for cell in row)
        dates = dates and not _heads_a_chart(known, at, filled, lexicon)
        dates |= len(known) > 1 and _is_one_of_times(at, filled)
        scores.append(0 if dates or len(texts) < 2 else len(known))
        if at == 0 and scores[0] >= 2 and scores[0] >= len(texts) - 1:
            if _beside_key(0, filled, lexicon) is None:
                return 0  # the usual case: a plain table with its headings on top
            break
    best = scores.index(max(scores))
    if scores[best] < 2:
        return _unknown_headings_at(filled, scores, lexicon)
    table = _beside_key(best, filled, lexicon)
    if table is None:
        return best
    found = _header_at(filled[table], lexicon)
    return None if found is None else found + (table.start or 0)


def _unknown_headings_at(filled: Sequence[Row], scores: Sequence[int], lexicon: Lexicon) -> int | None:
    """The index of a row with too few known headings: short texts that are followed by a row with a date."""
    least_below = 1
    for at, (_, row) in enumerate(filled[:30]):
        filled_cells = [cell for cell in row if cell != ""]
        if any(tells_day(cell, lexicon) or lists_dates(cell, lexicon) for cell in filled_cells):
            is_wide = any(sum(cell != "" for cell in below) >= _WIDE for _, below in filled[at + 1 : 30])
            if len(filled_cells) > 1 or not is_wide:
                return None
            least_below = 2
            continue  # a week, or a day, in the title of a wide table
        if len(filled_cells) < 2:
            continue
        if is_entry(row, filled[at + 1 :], lexicon):
            return None
        all_short = all(isinstance(cell, str) and len(cell) < 40 for cell in filled_cells)
        below = filled[at + 1][1] if at + 1 < len(filled) else ()
        followed = sum(cell != "" for cell in below) >= least_below and any(
            looks_like_date(cell, lexicon) or lists_dates(cell, lexicon) for cell in below
        )
        is_timed = any(re.match(_BEGINS_WITH_CLOCK, cell_text(cell)) for cell in filled_cells)
        is_timed = is_timed or any(re.search(_HOLDS_DATE, cell_text(cell)) for cell in filled_cells)
        if all_short and (followed or (scores[at] and not is_timed)):  # `10:00-10:45 | Lofting | Room 4`
            return at
    return None


def _is_one_of_times(at: int, filled: Sequence[Row]) -> bool:
    """Whether a row says a time where another says one, too: `10:00 | Talk | Hall` heads nothing."""
    texts = [(n, cell_text(cell)) for n, cell in enumerate(filled[at][1])]
    clocks = [n for n, text in texts if text[:1].isdigit() and re.match(_BEGINS_WITH_CLOCK, text)]
    return any(
        sum(n < len(row) and bool(re.match(_BEGINS_WITH_CLOCK, cell_text(row[n]))) for _, row in filled[:30])
        > 1
        for n in clocks
    )


def _beside_key(at: int, filled: Sequence[Row], lexicon: Lexicon) -> slice | None:
    """The rows of a table with dates above or, apart, below rows without any that one heads: what these say of codes. None where
    those headings are the table's own."""
    below = filled[at + 1 :]
    if not below or _has_date(below[0], lexicon):
        return None
    apart = next((n for n, (a, b) in enumerate(pairwise(filled[at:])) if b[0] > a[0] + 1), len(below))
    own, others = below[:apart], below[apart:]
    if any(_has_date(row, lexicon) for row in own):
        return None
    if at > _WIDE and not any(_has_date(row, lexicon) for row in others):
        return slice(at) if sum(_has_date(row, lexicon) for row in filled[:at]) > 1 else None
    are_rows = len(own) > 1 and all(sum(cell != "" for cell in row) > 1 for _, row in own)
    are_dated = are_rows and sum(_has_date(row, lexicon) for row in others) > 1
    return slice(at + 1 + apart, len(filled)) if are_dated else None


def _has_date(row: Row, lexicon: Lexicon) -> bool:
    return any(looks_like_date(cell, lexicon) for cell in row[1])


def _heads_a_chart(known: set[str], at: int, filled: Sequence[Row], lexicon: Lexicon) -> bool:
    """Whether a row with dates heads a list all the same: one beside which bars are drawn under dates. Most of the row
    below it is none, and dates stand under its headings."""
    if len(known) < 3 or not known & {"date", "start", "when"} or at + 1 >= len(filled):
        return False
    row, below = filled[at][1], filled[at + 1][1]
    under = [n for n, cell in enumerate(row) if looks_like_date(cell, lexicon)]
    barred = sum(n < len(below) and not looks_like_date(below[n], lexicon) for n in under)
    return barred == len([n for n in under if n < len(below)]) and any(
        looks_like_date(c, lexicon) for c in below
    )


def _first_with_date(filled: Sequence[Row], lexicon: Lexicon) -> int:
    """The first row of a table without headings. A week alone in its row is a title over what follows."""
    for at, (_, row) in enumerate(filled):
        tells = tells_day if sum(cell != "" for cell in row) > 1 else looks_like_date
        if any(tells(cell, lexicon) for cell in row):
            while at and is_entry(filled[at - 1][1], filled[at:], lexicon):
                at -= 1
            return at
    return 0


def _continues_header(row: Sequence[Cell], below: Sequence[Cell], lexicon: Lexicon) -> bool:
    """Whether a second row of headings follows: texts under headings that span several columns."""
    texts = [cell_text(cell) for cell in below if cell != ""]
    known = sum(1 for text in texts if len(text) < 40 and match_exactly(text))
    if known < 2 or any(looks_like_date(cell, lexicon) for cell in below):
        return False
    gaps = sum(
        1
        for n, cell in enumerate(below)
        if cell != "" and (n >= len(row) or row[n] == "") and cell_text(cell)
    )
    return gaps >= 1 and known >= len(texts) / 2


_SAYING_WHEN = frozenset(("date", "time", "start", "end", "end-date", "when"))


def _told_apart_above(upper: Sequence[str], lower: Sequence[str]) -> bool:
    """Whether headings of dates and times that come twice stand under different ones, each over the first of its columns: `Out`
    and `Back` over `Date`, `Time`, `Date`, `Time`."""
    fields = {text: match.field for text in lower if text and (match := match_exactly(text)) is not None}
    twice = {text for text, field in fields.items() if lower.count(text) > 1 and field in _SAYING_WHEN}
    if len(twice) < 2 or sum(map(bool, upper)) < 2:
        return False
    over, carried = "", list[tuple[str, str]]()
    for n, text in enumerate(lower):
        over = (upper[n] if n < len(upper) else "") or over
        carried += [(over, text)] if text in twice else []
    return len(set(carried)) == len(carried) and all(over for over, _ in carried)


def _two_rows(upper: list[str], lower: list[str]) -> list[str]:
    """Headings over two rows: the upper one holds for the columns to its right until the next."""
    width = max(len(upper), len(lower))
    upper += [""] * (width - len(upper))
    lower += [""] * (width - len(lower))
    joined, above = [], ""
    for high, low in zip(upper, lower, strict=True):
        above = high or (above if low else "")
        joined.append(f"{above} {low}".strip())
    return _told_below(joined, lower)


def _told_below(joined: list[str], lower: list[str]) -> list[str]:
    """Where both texts together name no field and the lower one does (`When` over `From`), the lower one,
    if no other column is told the same."""
    whole, below = ([match_exactly(text) for text in texts] for texts in (joined, lower))
    fields = Counter(match.field for both in zip(whole, below, strict=True) if (match := both[0] or both[1]))
    return [
        low if match is None and lone is not None and fields[lone.field] == 1 else text
        for text, low, match, lone in zip(joined, lower, whole, below, strict=True)
    ]
