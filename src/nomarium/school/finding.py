"""Which sheets are plans, before anything of them is read."""

import re
from collections.abc import Mapping, Sequence
from itertools import islice
from pathlib import PurePath

from nomarium.model.refusal import Refusal
from nomarium.reading.cells.offwords import is_off, is_term
from nomarium.reading.cells.weekdaycodes import WeekdayCodes
from nomarium.reading.cells.words import ENGLISH, fold
from nomarium.reading.options import ReadingOptions
from nomarium.school.dailyweeks import numbers_periods
from nomarium.school.datewords import looks_like_date
from nomarium.school.daysheets import with_days_above
from nomarium.school.drawnheads import are_cycle_letters, letter_columns
from nomarium.school.drawnlines import is_time
from nomarium.school.drawnweeks import drawn_week
from nomarium.school.headless import with_headings
from nomarium.school.keydates import key_dates
from nomarium.school.kind import Kind
from nomarium.school.kinds import asked_table, kind_of
from nomarium.school.planheads import NOT_ASKED, asked_headings, field_of, plain
from nomarium.school.plantables import cut_table, is_plan, table_name
from nomarium.school.sidebyside import one_below_the_other
from nomarium.sheets.sheet import Sheet, cell_text


def plans_in(sheets: Sequence[Sheet], options: ReadingOptions) -> tuple[list[list[Sheet]], list[Sheet]]:
    """The sheets that are plans, each of which is one file, and the other sheets; all of them are one plan where that
    was asked for."""
    if options.layout not in (None, "plan", "timetable"):
        return [], list(sheets)
    if options.layout in ("plan", "timetable"):
        return [[one if one.name else one._replace(name=PurePath(one.file).stem) for one in sheets]], []
    by_file: dict[str, list[Sheet]] = {}
    for sheet in sheets:
        by_file.setdefault(sheet.file, []).append(sheet)
    plans, others = list[list[Sheet]](), list[Sheet]()
    for group in by_file.values():
        if _is_one(group, options):
            plans.append(group)
        else:
            others += group
    return plans, others


def shows_plan(sheets: Sequence[Sheet]) -> bool:
    """Whether what the tables of a folder hold is a plan, whatever they are called."""
    return any(_kind(sheet).table in _SIGNS for sheet in sheets)


def timetables_in(sheets: Sequence[Sheet]) -> list[list[Sheet]]:
    """The sheets, file by file, of those files in which one is a timetable as schools have them."""
    by_file: dict[str, list[Sheet]] = {}
    for sheet in sheets:
        by_file.setdefault(sheet.file, []).append(sheet)
    return [
        group
        for group in by_file.values()
        if any(_kind(sheet).table == "timetable" or numbers_periods(sheet) for sheet in group)
    ]


def are_of_the_year(sheets: Sequence[Sheet]) -> bool:
    """Whether sheets are terms, days off or letter days, and nothing that happens."""
    return all(
        _kind(sheet).table in ("terms", "daysoff", "cycle")
        or key_dates(with_headings(sheet), NOT_ASKED) is not None
        or _names_edges(sheet)
        for sheet in sheets
    )


def _names_edges(sheet: Sheet) -> bool:
    """Whether all that a sheet says beside its dates is that something begins or ends, or that there is no school."""
    dated = [row for _, row in islice(sheet.rows(), 40) if any(map(looks_like_date, row))]
    texts = [text for row in dated for cell in row if (text := cell_text(cell)) and not looks_like_date(cell)]
    return bool(texts) and all(
        is_off(text) or is_term(text) or re.fullmatch(_EDGES, fold(text)) for text in texts
    )


_EDGES = r"(?:(?:first|last) (?:day|date)|start(?:s|ing)?|end(?:s|ing)?|begin(?:s|ning)?|finish(?:es)?|from|to|until|begin date|(?:start|end) date)\W*"


def labels_of_sheets(sheets: Sequence[Sheet]) -> frozenset[str]:
    """The labels of a cycle after which sheets are called, in their compared form: those that a sheet with the cycle names, or
    letters from A on."""
    names = {plain(sheet.name): sheet.name.strip() for sheet in sheets if sheet.name}
    letters = {name for name in names.values() if re.fullmatch("[A-Z]", name)}
    if are_cycle_letters(letters):
        return frozenset(map(plain, letters))
    for sheet in sheets:
        if (table := table_name(sheet.name)) not in (None, "cycle"):
            continue
        rows = [row for _, row in islice(sheet.rows(), _MOST_ROWS)]
        cells = {plain(text) for row in rows for cell in row if (text := cell_text(cell))}
        called = cells & (names.keys() - {plain(sheet.name)})
        if len(called) > 1 and _kind(sheet).table == "cycle":
            return frozenset(called)
        if table == "cycle":
            labels = {cell_text(row[0]) for row in rows if row} | {
                cell_text(row[1]) for row in rows if len(row) > 1
            }
            return frozenset(plain(label) for label in labels if label and field_of(label, "cycle") is None)
    return frozenset()


def looks_taught(sheet: Sheet) -> bool:
    """Whether a sheet looks as if it said when something is taught: by its name, by weekdays or by times."""
    kind = _kind(sheet)
    cells = [cell for _, row in islice(sheet.rows(), 40) for cell in row if cell_text(cell)]
    codes = WeekdayCodes((), ENGLISH)
    weekdays = sum(
        len(text) > 1 and not isinstance(codes.read(text), Refusal) for text in map(cell_text, cells)
    )
    times = sum(is_time(cell) or re.search(_CLOCK, cell_text(cell)) is not None for cell in cells)
    heads = any(
        len({field_of(cell_text(cell), "timetable") for cell in row} & _TAUGHT) > 1
        for _, row in islice(sheet.rows(), 40)
    )
    return bool(kind.table or kind.hint) or weekdays > 1 or times > 1 or (weekdays > 0 and times > 0) or heads


def is_called_timetable(sheet: Sheet) -> bool:
    """Whether the name of a sheet can only be that of a timetable, bells or a rotation."""
    return re.search(_TIMETABLES, re.sub(r"[_-]", " ", sheet.name)) is not None


_TIMETABLES = r"(?i)\b(?:time ?tables?|bells?|bell schedule|rotation|stundenplan|horario|emploi du temps|lesrooster|orario)\b"


def _kind(
    sheet: Sheet, labels: frozenset[str] = frozenset(), headings: Mapping[str, str] = NOT_ASKED
) -> Kind:
    """What a sheet is taken for, with its days over its classes. `labels` are known ones, in their compared form."""
    sheet = one_below_the_other(sheet)
    return kind_of(with_days_above(sheet, labels) or sheet, headings=headings)


def _is_one(group: Sequence[Sheet], options: ReadingOptions) -> bool:
    """Whether the sheets of a file are a plan: as their names say, or as several of them show together."""
    if len(group) == 1 and not group[0].name:
        return False
    if any(asked_table(sheet, options.tables) for sheet in group):
        return True
    if is_plan((sheet.name for sheet in group), not PurePath(group[0].file).suffix):
        return True
    if len(group) < 2:
        return _draws_labels(group[0])
    group = [sheet for sheet in group if not sheet.is_text]  # the lines beside the tables of a document
    asked = asked_headings(options.columns)
    labels = labels_of_sheets(group)
    kinds = [_kind(sheet, labels, asked) for sheet in group]
    if any(kind.table.partition(":")[0] in _SIGNS for kind in kinds):
        return True
    if any(kind.table == "terms" for kind in kinds) and any(map(numbers_periods, group)):
        return True
    return any(_names_sheets(sheet, kind, group) for sheet, kind in zip(group, kinds, strict=True))


def _draws_labels(sheet: Sheet) -> bool:
    """Whether a sheet is a week drawn with the labels of a cycle, `A` to `F` or `Day 1` to `Day 6`."""
    top = [row for _, row in islice(sheet.rows(), _MOST_ROWS + 1)]
    labels = any(
        letter_columns(row)
        or sum(re.fullmatch(_NUMBERED_DAY, cell_text(cell)) is not None for cell in row) > 1
        for row in top[:_HEAD_ROWS]
    )
    return labels and len(top) <= _MOST_ROWS and drawn_week(sheet) is not None


_NUMBERED_DAY = r"(?i)(?:day|jour)\s*\d{1,2}"


def _names_sheets(sheet: Sheet, kind: Kind, group: Sequence[Sheet]) -> bool:
    """Whether a sheet gives dates the labels after which two other sheets are called, `Keel` and `Rib`, or that head columns
    of another."""
    at = kind.columns.get("label", -1) if kind.table == "cycle" else -1
    labels = {plain(cell_text(row[at])) for _, row in sheet.rows() if at < len(row)} if at >= 0 else set()
    labels.discard("")
    others = [other for other in group if other is not sheet]
    return sum(plain(other.name) in labels for other in others) > 1 or any(
        len(labels.intersection(plain(cell_text(cell)) for cell in row)) > 1
        for other in others
        for _, row in islice(other.rows(), _HEAD_ROWS)
    )


_HEAD_ROWS = 12
_MOST_ROWS = 400
"""Rows of a sheet in which the labels of a cycle are looked for."""
_CLOCK = r"(?<!\d)\d{1,2}[:h]\d\d(?!\d)"
_TAUGHT = frozenset(("class", "period", "teacher", "room", "group", "label"))
"""Fields of a timetable: a sheet whose headings say two of them looks taught."""
_SIGNS = frozenset(("timetable", "bells", "rotation"))
"""Tables that make a plan of the workbook in which they are found."""


def setting_of(sheets: Sequence[Sheet], name: str) -> str:
    """A setting of a plan as it stands, blank when there is none."""
    sheet = next((one for one in sheets if table_name(one.name) == "settings"), None)
    if sheet is None:
        return ""
    table, _, _ = cut_table(sheet, "settings")
    return next(
        (item.text("value") for item in table.items if plain(item.text("setting")) == plain(name)), ""
    )
