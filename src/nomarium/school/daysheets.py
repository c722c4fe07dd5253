"""Groups, teachers or rooms across and periods or times down, or turned, of days that a column says or after which sheets are
called: drawn weeks, once each day is put over its columns."""

import re
from collections import Counter
from collections.abc import Collection, Iterator, Mapping, Sequence
from functools import partial
from itertools import islice, pairwise
from typing import Final, NamedTuple

from nomarium.model.cell import Cell
from nomarium.model.problem import note
from nomarium.model.wording import listed
from nomarium.reading.cells.placewords import is_place
from nomarium.reading.cells.words import ENGLISH
from nomarium.reading.columns.headings import match_heading
from nomarium.school.cellparts import look_of
from nomarium.school.codes import weekday_of
from nomarium.school.daylines import with_column_of_days
from nomarium.school.drawnheads import are_cycle_letters, days_named, texts_but_corners, week_of
from nomarium.school.drawnlines import slot_in
from nomarium.school.drawnowners import first_parts, kind_of_heading
from nomarium.school.planheads import field_of
from nomarium.school.roomcolumns import ROOM
from nomarium.school.turning import turn
from nomarium.sheets.sheet import Row, Sheet, cell_text

_HEAD_ROWS: Final = 12
_MOST_ROWS: Final = 120
_CALLED: Final = r"(?i)\b(?:timetable|time table|schedule|classes|lessons|plan)\b"
"""What the name of a sheet may say beside its day."""


class _Drawing(NamedTuple):
    """Where the drawing of one day is, in its rows or in these turned."""

    at: int
    """Index of the row of names."""
    names: dict[int, str]
    """Column → whose it is."""
    days: int = -1
    """The column of days; -1: there is none."""
    corner: str = ""
    """What the names are where no heading says so: `Teacher`, `Group`, or nothing for rooms."""
    is_headed: bool = False
    """Whether a heading beside the names says what they are."""


def day_of(name: str, labels: frozenset[str] = frozenset()) -> str:
    """The weekday, with its week, or the label after which a sheet is called, as it stands there; nothing for any other name.
    `labels` are known ones, in their compared form."""
    called = re.sub(_CALLED, "", name).strip(" -–_:")
    return called if called and len(days_named(called, labels, ENGLISH)) == 1 else ""


def with_days_above(sheet: Sheet, labels: frozenset[str] = frozenset()) -> Sheet | None:
    """The sheet with each day over its columns of classes, or beside its rows of them; None where neither its name nor a column
    says days, or it has no periods or times down or across. A list of classes with headings of its own has the day of the sheet's name
    in a column before them."""
    day = day_of(sheet.name, labels)
    rows = list(islice(sheet.rows(), _MOST_ROWS + 1))
    if not rows or len(rows) > _MOST_ROWS:
        return None
    if not day and (parted := with_column_of_days(rows, labels)) is not None:
        rows, sheet = parted, sheet._replace(first_column=sheet.first_column - 1)
    if (drawing := _drawing(rows, labels, has_days=not day)) is not None:
        return _told(sheet._replace(read_rows=partial(_day_above, rows, drawing, day)), drawing)
    if day and (drawing := _drawing(turn(rows), labels, has_days=False)) is not None:
        found = sheet._replace(read_rows=partial(_day_beside, rows, drawing, day))
        return _told(found._replace(first_column=sheet.first_column - 1), drawing)
    if weekday_of(day) is not None and (head := _list_head(rows)) is not None:
        return sheet._replace(
            read_rows=partial(_day_in_list, rows, head, day), first_column=sheet.first_column - 1
        )
    return None


def _list_head(rows: Sequence[Row]) -> int | None:
    """The row of headings of a list of classes with their periods or times, which says no days itself; None without one."""
    for number, row in rows[:_HEAD_ROWS]:
        fields = {field for cell in row if (field := field_of(cell_text(cell), "timetable")) is not None}
        if (
            "class" in fields
            and fields & {"period", "time", "start"}
            and not fields & {"label", "week", "meets"}
        ):
            return number
    return None


def _day_in_list(rows: Sequence[Row], head: int, day: str) -> Iterator[Row]:
    """The rows of a list with their day before them."""
    for number, row in rows:
        is_below = number > head and any(map(cell_text, row))
        yield number, ["Day" if number == head else day if is_below else "", *row]


def _told(sheet: Sheet, drawing: _Drawing) -> Sheet:
    """The sheet with a note where nothing but their place says that names are groups."""
    names = [name for name in drawing.names.values() if look_of(name) != "group"]
    if drawing.is_headed or not names or drawing.corner != "Group":
        return sheet
    message = (
        f"What stands over or beside the classes of a day ({listed(names[:4])}) is taken for their group."
    )
    told = note("drawn-owner", message, "If it is another, say so in a table Names or People.")
    return sheet._replace(notes=(*sheet.notes, told.at(sheet.place())))


def _drawing(rows: Sequence[Row], labels: frozenset[str], has_days: bool) -> _Drawing | None:
    """The first row of names, with lines below it that begin with periods or times, behind their days where they
    have such."""
    for at, (_, row) in enumerate(rows[:_HEAD_ROWS]):
        below = [one for _, one in rows[at + 1 :] if len(list(filter(None, map(cell_text, one)))) > 1]
        filled = sorted({n for one in below for n, cell in enumerate(one) if cell_text(cell)})
        days = filled.pop(0) if has_days and filled else -1
        if days >= 0 and not _are_days(below, days, labels):
            continue
        left = next((n for n in filled if not _are_lines(below, n)), 0)
        names = {n: text for n, cell in enumerate(row) if n >= left and (text := cell_text(cell))}
        beside = texts_but_corners(row[:left])
        if any(map(_heads_dates, beside)):
            return None  # a roster: its numbers are those of days
        if not any(n < left for n in filled) or any(map(_is_line, beside)) or not _are_names(names.values()):
            continue
        columns = [[cell_text(one[n]) for one in below if n < len(one)] for n in names]
        are_known = all(look_of(name) == "group" or is_place(name) for name in names.values())
        are_lists = not are_known and any(map(_are_of_list, columns)) and not all(map(_are_of_list, columns))
        is_drawn = not are_lists and (not has_days or _are_owners(names.values(), columns))
        is_headed = any(kind_of_heading(cell_text(cell)) for cell in row[: min(names)])
        corner = _corner(names.values(), [text for column in columns for text in column if text])
        return _Drawing(at, names, days, corner, is_headed) if is_drawn else None
    return None


def _heads_dates(text: str) -> bool:
    match = match_heading(text)
    return match is not None and match.field == "date" and not match.is_weak


def _are_days(rows: Sequence[Sequence[Cell]], column: int, labels: frozenset[str]) -> bool:
    """Whether what stands in a column are days, two or more."""
    texts = {text for row in rows if column < len(row) and (text := cell_text(row[column]))}
    return are_cycle_letters(texts) or (
        len(texts) > 1 and all(len(days_named(text, labels, ENGLISH)) == 1 for text in texts)
    )


def _are_of_list(texts: Sequence[str]) -> bool:
    """Whether the cells of a column are all rooms, teachers or numbers: those of a list, whatever heads it."""
    filled = [text for text in texts if text]
    return len(filled) > 0 and all(map(_is_of_list, filled))


def _is_of_list(text: str) -> bool:
    is_one = re.search(r"[\n(,;/]|\s[-–—]\s", text) is None
    return is_one and (look_of(text) is not None or is_place(text) or text.isdecimal())


def _are_owners(names: Collection[str], columns: Sequence[Sequence[str]]) -> bool:
    """Whether columns are those of groups, teachers or rooms: as their names look, or since they have classes in common."""
    if len(names) == 1 or all(look_of(name) or is_place(name) for name in names):
        return True
    parts = first_parts((str(n), text) for n, column in enumerate(columns) for text in column if text)
    counts = Counter(part for some in parts.values() for part in some)
    return sum(count > 1 for count in counts.values()) * 3 >= len(counts) > 0


def _are_lines(rows: Sequence[Sequence[Cell]], column: int) -> bool:
    """Whether what stands in a column are periods, times or breaks."""
    cells = [row[column] for row in rows if column < len(row) and cell_text(row[column])]
    are_groups = all(look_of(cell_text(cell)) == "group" for cell in cells)  # 7A is no period
    return len(cells) > 0 and not are_groups and all(map(_is_line, cells))


def _is_line(cell: Cell) -> bool:
    return slot_in(0, [cell]) is not None


def _are_names(texts: Collection[str]) -> bool:
    """Whether texts may be groups, teachers or rooms: neither all periods, nor all weeks, nor headings of a list."""
    if not texts:
        return False
    are_lines = all(map(_is_line, texts)) and not all(look_of(text) == "group" for text in texts)
    return not (are_lines or all(map(week_of, texts)) or any(map(_heads_list, texts)))


def _heads_list(text: str) -> bool:
    """Whether a text is a heading of a list, `Class` or `Teacher`; `Class 1` is a group, and `Day 1` a day."""
    if any(map(str.isdigit, text)):
        return len(days_named(text, frozenset(), ENGLISH)) > 0
    return field_of(text, "timetable") is not None or len(days_named(text, frozenset(), ENGLISH)) > 0


def _corner(names: Collection[str], cells: Sequence[str]) -> str:
    """What the corner says that does not say whose the columns are: rooms by their look, teachers by theirs or where the cells say
    the groups, and else groups."""
    if all(is_place(name) or re.fullmatch(ROOM, name) for name in names):
        return ""
    if all(look_of(name) == "teacher" for name in names):
        return "Teacher"
    are_groups = any(look_of(name) == "group" for name in names)
    return "Teacher" if not are_groups and cells and all(map(_says_group, cells)) else "Group"


def _says_group(text: str) -> bool:
    """Whether a part of a cell, or a word of it, is a group by its look: `7A Tar`."""
    words = text.split()
    pairs = (f"{first} {second}" for first, second in pairwise(words))
    return any(
        look_of(piece) == "group" for piece in (*re.split(r"\s*[\n(),;/:–-]\s*", text), *words, *pairs)
    )


def _day_above(rows: Sequence[Row], drawing: _Drawing, day: str) -> Iterator[Row]:
    number, head = rows[drawing.at]
    width = max(len(row) for _, row in rows)
    columns = _with_second(drawing.names, width)
    named = _headed(head, min(columns), drawing.corner)
    names = [columns.get(n, named[n] if n < len(named) else "") for n in range(width + 1)]
    yield from rows[: drawing.at]
    here = ""
    for other, row in rows[drawing.at + 1 :]:
        if drawing.days >= 0 and len(list(filter(None, map(cell_text, row)))) < 2:
            yield other, row  # a remark
            continue
        said = cell_text(row[drawing.days]) if 0 <= drawing.days < len(row) else day
        if said and said != here:
            here = said
            yield number, []  # what stands above is no title of the first column
            yield number, names
            above = f"Day {here}" if re.fullmatch("[A-Z]", here) else here
            yield number, [above if n in columns else "" for n in range(width + 1)]
        yield other, ["" if n == drawing.days else cell for n, cell in enumerate(row)]


def _day_beside(rows: Sequence[Row], drawing: _Drawing, day: str) -> Iterator[Row]:
    at, columns = drawing.at, _with_second(drawing.names, len(rows))
    for n, (number, row) in enumerate([*rows, (rows[-1][0] + 1, [*[""] * at, columns.get(len(rows), "")])]):
        head = row[: at + 1] if n >= min(columns) else _headed(row, at + 1, drawing.corner)[: at + 1]
        yield number, [*head, day if n in columns else "", *row[at + 1 :]]


def _with_second(names: Mapping[int, str], width: int) -> dict[int, str]:
    """The columns of names; one alone has a second one, that is empty, right of all, since one day alone is no week."""
    return dict(names) if len(names) > 1 else {**names, width: next(iter(names.values()))}


def _headed(row: Sequence[Cell], width: int, corner: str) -> list[Cell]:
    """A row of names, whose corner says what these are, and nothing else."""
    said = next((text for cell in row[:width] if kind_of_heading(text := cell_text(cell))), corner)
    return [said, *[""] * (width - 1), *row[width:]]
