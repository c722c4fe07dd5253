"""Lists whose dates stand in rows of their own, above the rows that they date."""

import re
from collections import Counter
from collections.abc import Iterator, Sequence
from itertools import islice, pairwise

from nomarium.model.cell import Cell
from nomarium.model.problem import column_letter, note
from nomarium.reading.cells.bookkeeping import keeps_books
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.columns.contents import Contents
from nomarium.reading.columns.daycells import looks_like_date
from nomarium.reading.columns.headings import match_exactly, match_heading
from nomarium.reading.layouts.eventlist import list_in
from nomarium.reading.layouts.layout import NotRead, Reading, Top, not_read
from nomarium.reading.rows.sectiondate import LABEL, date_of_title, days_of_title
from nomarium.sheets.sheet import Row, Sheet, cell_text, is_blank

_TIME = r"\d{1,2}(?:[:.]\d\d)?\s?[ap]\.?m\.?|\d{1,2}:\d\d"
_HOURS_BEHIND = rf"(?i)[\s,(]+(?:from\s+|at\s+)?(?:\d{{1,2}}(?:\.\d\d)?\s?[–-]\s?)?(?:{_TIME})(?:\s*(?:[–-]|to|until|till)\s*(?:{_TIME}))?\)?$"
"""Hours behind the date over a table whose rows have times of their own, `10am-4pm`."""


def look(top: Top) -> Reading | NotRead:
    """Read a sheet as a list whose dates stand in rows of their own."""
    lexicon = top.of_both
    head = _head_under_titles(top.rows, lexicon)
    dated = _dated_by_sections(top, lexicon, head)
    if dated is not None:
        if head is not None and top.options.header_row is None:
            top = Top(top.sheet, top.options._replace(header_row=head), top.is_whole)
        said = _with_phrases(top, dated, lexicon)
        if said is not None:
            return list_in(said, dated, top.seen)
    message = f"{top.sheet.title} has no rows that hold a date alone."
    return not_read(top.sheet, "no-sections", "it has no dates", "date-column-missing", message)


def _with_phrases(top: Top, dated: Sheet, lexicon: Lexicon) -> Top | None:
    """The top of a sheet, with the options by which the column of its sections is that of the dates where some are headed by phrases,
    `Tuesdays 12 January – 16 March 2027`; None where no headings say what stands below these."""
    titles = [row[at] for _, row in top.rows if (at := _title_at(row, lexicon)) is not None]
    if all(date_of_title(title, lexicon) for title in titles):
        return top
    if all(sum(match_exactly(cell_text(cell)) is not None for cell in row) < 2 for _, row in top.rows):
        return None
    width = max(len(row) for _, row in islice(dated.rows(), len(top.rows)))
    letter = column_letter(dated.first_column + width - 1)
    return Top(top.sheet, top.options._replace(columns={**top.options.columns, letter: "date"}), top.is_whole)


def _dated_by_sections(top: Top, lexicon: Lexicon, head: int | None) -> Sheet | None:
    """The sheet with one more column, right of all others, that holds the date of each row's section; None when
    no rows hold a date and nothing else, or one that is not the day of the whole table. `head`: the row of the headings, if it stands under titles."""
    sheet, rows_at_top = top.sheet, top.rows
    titles = [(number, at) for number, row in rows_at_top if (at := _title_at(row, lexicon)) is not None]
    titles = titles if len(titles) > 1 else _beside_title(rows_at_top, lexicon) or titles
    if len(titles) < 2 and not (titles and _heads_a_day(rows_at_top, titles[0], lexicon)):
        return None
    (first_number, title_at), lengths = titles[0], Counter(len(row) for _, row in rows_at_top)
    width = max((length for length, count in lengths.items() if count > 1), default=max(lengths))

    headings = next(([*map(cell_text, row)] for number, row in rows_at_top if number == head), None)

    def rows() -> Iterator[Row]:
        date: Cell = ""
        for number, row in sheet.rows():
            cells = [*row, *[""] * (width - len(row))]
            at = title_at if number == first_number else _title_at(row, lexicon) if len(titles) > 1 else None
            if at is not None:
                date = days_of_title(cells[at], lexicon)
                if len(titles) == 1 and isinstance(date, str):
                    date = re.sub(_HOURS_BEHIND, "", date)
                cells = [
                    "" if n == at or re.fullmatch(_NTH_DAY, cell_text(cell)) else cell
                    for n, cell in enumerate(cells)
                ]
                cells = cells if head is not None or len(titles) > 1 else [""] * len(cells)
            fits = len(cells) == width  # what is too wide has no place for a date: it is told as such
            if fits and not is_blank(row):
                is_dated = _is_dated(row, title_at, width) and [*map(cell_text, row)] != headings
                cells.append(date if at is not None or is_dated else "")
            yield number, cells

    first = next(row for number, row in rows_at_top if number == first_number)
    text = " ".join(filter(None, map(cell_text, first)))
    message = f"Rows that hold a date alone date the rows below them: row {first_number} is “{text}”."
    if len(titles) == 1:
        message = f"The date over the table is that of its rows: row {first_number} is “{text}”."
        if re.search(_HOURS_BEHIND, text):
            message += " Its times are those of the whole day; a row without one of its own lasts all day."
    told = note("date-sections", message).at(sheet.place())
    return sheet._replace(read_rows=rows, notes=(*sheet.notes, told), dates_above=True)


def _beside_title(rows: Sequence[Row], lexicon: Lexicon) -> list[tuple[int, int]]:
    """The number of the row and where its date stands, if that stands beside a title over a row of headings, or behind a label,
    `Date | 18 January 2027`, among others that stand over one."""
    over = _over_headings(rows)
    for at, (number, row) in enumerate(over):
        cells = [n for n, cell in enumerate(row) if cell_text(cell)]
        dates = [n for n in cells if looks_like_date(row[n], lexicon)]
        if len(cells) != 2 or len(dates) != 1:
            continue
        label = match_exactly(cell_text(row[cells[0]]).rstrip(" :"))
        is_labelled = dates[0] == cells[1] and label is not None and label.field in ("date", "when")
        if is_labelled or (at == 0 and len(over) == 1):
            return [(number, dates[0])]
    return []


def _over_headings(rows: Sequence[Row]) -> list[Row]:
    """The rows above the first that has more than two cells; none where no row has."""
    filled = [(number, row) for number, row in rows if not is_blank(row)]
    head = next((at for at, (_, row) in enumerate(filled) if len(list(filter(cell_text, row))) > 2), 0)
    return filled[:head]


def _heads_a_day(rows: Sequence[Row], title: tuple[int, int], lexicon: Lexicon) -> bool:
    """Whether one date above all rows is the day of all of them: they have times under a heading, and neither weekdays
    nor repeats, and the title does not say that something begins or ends on it."""
    filled = [(number, row) for number, row in rows if not is_blank(row)]
    labelled = {number for number, _ in _over_headings(rows)}
    before = [row for number, row in filled if number < title[0] and number not in labelled]
    after = [row for number, row in filled if number > title[0] and number not in labelled]
    text = next(cell_text(row[title[1]]) for number, row in filled if number == title[0])
    if any(len(list(filter(cell_text, row))) > 1 for row in before) or not after:
        return False
    if date_of_title(text, lexicon) and not _names_a_day(text):
        return False
    if any(fold(cell_text(cell)).strip() in lexicon.weekdays for cell in after[0]):
        return False
    fields = {match.field for cell in after[0] if (match := match_heading(cell_text(cell)))}
    if fields & {"date", "day", "week", "repeat", "repeat-times", "repeat-until"}:
        return False
    if fields & {"time", "start"} or _begin_with_times(after):
        return True
    return any(
        Contents([row[n] for row in after[1:] if n < len(row)], lexicon).are_clear_times
        for n in range(len(after[0]))
    )


def _begin_with_times(rows: Sequence[Sequence[Cell]]) -> bool:
    """Whether each row begins with a time of day, the later one below: `9.00`, `10.15`, with something beside it."""
    matches = [
        re.fullmatch(r"([01]?\d|2[0-3])[.:]([0-5]\d)(?:\s?[-–]\s?\d{1,2}[.:]\d\d)?", cell_text(row[0]))
        for row in rows
        if row
    ]
    secs = [int(match[1]) * 60 + int(match[2]) for match in matches if match]
    are_beside = all(any(map(cell_text, row[1:])) for row in rows)
    return len(secs) == len(rows) > 1 and are_beside and all(a < b for a, b in pairwise(secs))


def _names_a_day(text: str) -> bool:
    text = re.sub(LABEL, "", text)
    return not keeps_books(text) and not set(re.findall(r"[^\W\d]+", fold(text))) & _EDGES


_NTH_DAY = r"(?i)(?:day|jour|tag|dia|giorno|dag)\s?(?:\d{1,2}|one|two|three|four|five)"
_EDGES = frozenset(
    "from starting starts start begins beginning until till by before after since week term commencing ends ending deadline "
    "ab bis seit a partir jusqu desde hasta vanaf tot dal fino".split()
)
"""Words of a title whose date is where something begins or ends."""


def _head_under_titles(rows: Sequence[Row], lexicon: Lexicon) -> int | None:
    """The number of the first row that stands in the same words under several titles, or right under the one above all rows and
    has one known heading, that of times: it is one of headings."""
    under: dict[tuple[str, ...], list[int]] = {}
    is_under = False
    for number, row in rows:
        if is_blank(row):
            continue
        texts = tuple(cell_text(cell) for cell in row)
        may_head = sum(map(bool, texts)) > 1 and not any(map(str.isdigit, "".join(texts)))
        if is_under and may_head and any(map(match_exactly, texts)):
            under.setdefault(texts, []).append(number)
        is_under = _title_at(row, lexicon) is not None
    repeated = [numbers for numbers in under.values() if len(numbers) > 1]
    if repeated:
        return repeated[0][0]
    lone = [(texts, numbers[0]) for texts, numbers in under.items()] if len(under) == 1 else []
    fields = [match.field for text in lone[0][0] if (match := match_exactly(text))] if lone else []
    return lone[0][1] if fields in (["time"], ["start"]) else None


def _title_at(row: Sequence[Cell], lexicon: Lexicon) -> int | None:
    """Where the one filled cell of a row is, when it holds a date; beside it may stand which day it is, `Day 1`."""
    filled = [
        at for at, cell in enumerate(row) if (text := cell_text(cell)) and not re.fullmatch(_NTH_DAY, text)
    ]
    return filled[0] if len(filled) == 1 and days_of_title(row[filled[0]], lexicon) else None


def _is_dated(row: Sequence[Cell], title_at: int, width: int) -> bool:
    """Whether a row takes the date of its section: not one of headings, nor another title or a remark."""
    filled = [at for at, cell in enumerate(row) if cell_text(cell)]
    if len(filled) == 1:
        return width == 1 or filled[0] != title_at
    has_figure = any(cell_text(row[at])[:1].isdigit() for at in filled)  # Lane 1 heads a column
    return has_figure or sum(match_exactly(cell_text(row[at])) is not None for at in filled) < 2
