"""Workbooks (.xlsx, .xlsm, .xlsb, .xls, .ods) as sheets, through python-calamine."""

from collections.abc import Callable, Iterator, Mapping, Sequence
from functools import cache
from itertools import islice
from pathlib import Path
from typing import TYPE_CHECKING

from nomarium.model.errors import SourceError, UsageError
from nomarium.model.problem import Place, Problem, column_letter, note
from nomarium.model.wording import counted
from nomarium.sheets.bounds import bounded
from nomarium.sheets.delimited import unpacked
from nomarium.sheets.faults import Extras, counts_from_1904, ods_extras, xlsx_extras
from nomarium.sheets.guards import check_archive, check_area, check_in_child, check_ods
from nomarium.sheets.quiet import quiet
from nomarium.sheets.sheet import Area, Row, RowsAgain, Sheet
from nomarium.sheets.spaces import with_plain_spaces
from nomarium.sheets.struckout import struck_note

if TYPE_CHECKING:
    from python_calamine import CalamineSheet, CalamineWorkbook

    from nomarium.model.cell import Cell


def open_workbook(path: Path, name: str, kind: str, wanted: tuple[str, ...] = ()) -> list[Sheet]:
    """The sheets of a workbook in its order: all, or those (and the named tables) in `wanted`.

    Raises SourceError when it cannot be opened, UsageError for a name that it does not have.
    """
    import python_calamine as calamine

    if kind in ("xlsx", "ods", "xlsb"):
        check_archive(path, name)
    if kind == "ods":
        check_ods(path, name)
    if kind in ("xls", "xlsb"):
        check_in_child(path, name)
    try:
        with quiet():
            book = calamine.load_workbook(str(path), load_tables=bool(wanted) and kind == "xlsx")
        # worksheets only: a chart sheet has no cells
        sheets = [meta for meta in book.sheets_metadata if "Work" in str(meta.typ)]
        names = [meta.name for meta in sheets]
        tables = list(book.table_names or []) if wanted and kind == "xlsx" else []
        chosen = _chosen(names, tables, wanted, name)
        extras = _extras(path, kind, names)
        for sheet_name, found_there in extras.items():
            check_area(*found_there.reach, name, sheet_name)
        if any(one.is_unplaced for one in extras.values()):
            check_in_child(path, name)
        from_1904 = kind == "xlsx" and counts_from_1904(path)
        hidden = (
            [] if wanted else [meta.name for meta in sheets if not str(meta.visible).endswith(".Visible")]
        )
        found = [
            _table(book, one, name, from_1904, extras)
            if one in tables and one not in names
            else _sheet(book, one, name, kind, extras.get(one), from_1904)
            for one in chosen
            if one not in hidden
        ]
        if hidden and found:
            found[0] = found[0]._replace(notes=(*found[0].notes, _hidden(hidden, name)))
        return found
    except calamine.PasswordError as error:
        raise SourceError(
            Problem(
                "source-locked",
                f"{name} is protected by a password.",
                "Save a copy without a password and build that.",
                Place(name),
            )
        ) from error
    except (calamine.CalamineError, OSError) as error:
        raise SourceError(_broken(name, str(error))) from error
    except BaseException as error:
        raise _as_refusal(error, name) from error


def _as_refusal(error: BaseException, name: str) -> BaseException:
    """What to raise for an error of the reader, which is compiled: a damaged file can end in its own panic."""
    is_panic = type(error).__name__ == "PanicException"
    return SourceError(_broken(name, "it is damaged inside")) if is_panic else error


def _hidden(names: list[str], file: str) -> Problem:
    listed = ", ".join(f"“{one}”" for one in names)
    message = f"{counted(len(names), 'hidden sheet')} passed over: {listed}."
    return note("sheets-hidden", message, f'To read it: --sheet "{names[0]}".').at(Place(file))


def _broken(name: str, why: str) -> Problem:
    return Problem(
        "source-broken",
        f"{name} cannot be read as a workbook ({why.strip().rstrip('.') or 'it is damaged inside'}).",
        "It may be cut short or damaged: open it in a spreadsheet application and save it again.",
        Place(name),
    )


def _chosen(names: list[str], tables: list[str], wanted: tuple[str, ...], file: str) -> list[str]:
    if not wanted:
        return names
    known = {one.casefold(): one for one in [*tables, *names]}
    missing = [one for one in wanted if one.casefold() not in known]
    if missing:
        there = ", ".join(f"“{one}”" for one in [*names, *tables])
        raise UsageError(
            Problem(
                "sheet-unknown",
                f"{file} has no sheet or table named “{missing[0]}”; it has {there}.",
                "Name one of these with --sheet.",
                Place(file),
            )
        )
    return list(dict.fromkeys(known[one.casefold()] for one in wanted))


def _extras(path: Path, kind: str, names: list[str]) -> dict[str, Extras]:
    if kind == "ods":
        return ods_extras(path)
    if kind == "xlsx":
        return xlsx_extras(path, names)
    return {}


def _sheet(
    book: "CalamineWorkbook", sheet_name: str, file: str, kind: str, extras: Extras | None, from_1904: bool
) -> Sheet:
    held: list[CalamineSheet] = []

    def data() -> "CalamineSheet":
        if not held:  # parsed when first asked for, and once
            with quiet():
                held.append(book.get_sheet_by_name(sheet_name))
        return held[0]

    sheet = data()
    areas = tuple(Area(*start, *end) for start, end in sheet.merged_cell_ranges or ())
    first = sheet.start[1] if sheet.start else 0
    left = extras.left if extras else {}
    return with_plain_spaces(
        unpacked(
            Sheet(
                file,
                sheet_name,
                RowsAgain(_numbered(data, file, sheet_name, _by_row(left, first))),
                first_column=first,
                merged=_within(areas or (extras.merged if extras else ()), sheet.end),
                faults=extras.faults if extras else {},
                hidden=extras.hidden if extras else frozenset() if kind in ("xlsx", "ods") else None,
                hidden_columns=extras.hidden_columns if extras else frozenset(),
                notes=_crossed_out(left, file, sheet_name),
                counts_1904=from_1904,
            )
        )
    )


def _crossed_out(left: Mapping[tuple[int, int], str], file: str, sheet_name: str) -> tuple[Problem, ...]:
    cells = [f"{column_letter(column)}{row}" for row, column in left]
    return (struck_note("cell", cells, Place(file, sheet_name)),) if cells else ()


def _by_row(left: Mapping[tuple[int, int], str], first_column: int) -> dict[int, dict[int, str]]:
    """What is left of crossed-out cells: row number → index in the row → text."""
    rows = dict[int, dict[int, str]]()
    for (row, column), text in left.items():
        rows.setdefault(row, {})[column - first_column] = text
    return rows


def _without_crossed_out(rows: Iterator[Row], left: dict[int, dict[int, str]]) -> Iterator[Row]:
    for number, cells in rows:
        here = left.get(number)
        yield number, [here.get(n, cell) for n, cell in enumerate(cells)] if here else cells


def _within(areas: Sequence[Area], end: tuple[int, int] | None) -> tuple[Area, ...]:
    """Merged areas as far as there are cells: some run to the last row that a sheet can have. One that begins below another
    of its column, before that ends, is none."""
    last_row, last_column = end or (-1, -1)
    found, ends = [], dict[int, int]()
    for area in sorted(areas):
        is_there = area.first_row <= last_row and area.first_column <= last_column
        if is_there and area.first_row > ends.get(area.first_column, -1):
            ends[area.first_column] = area.last_row
            found.append(area._replace(last_row=min(area.last_row, last_row)))
    return tuple(found)


def _numbered(
    data: "Callable[[], CalamineSheet]", file: str, sheet_name: str, left: dict[int, dict[int, str]]
) -> Callable[[], Iterator[Row]]:
    """The rows of a sheet, again and again, of crossed-out cells what is left; those of a long one that is nearly blank are held,
    for each look at all its rows would cost as much as at full ones."""
    held: list[Row] = []

    @cache
    def is_nearly_blank() -> bool:
        return data().total_height > _LONG and _is_sparse(read(), data().total_height)

    def read() -> Iterator[Row]:
        rows = bounded(enumerate(_all_rows(data, file), 1), file, sheet_name)
        yield from _without_crossed_out(rows, left) if left else rows

    def rows() -> Iterator[Row]:
        if held:
            return iter(held)
        if is_nearly_blank():
            held.extend(read())
            return iter(held)
        return read()

    return rows


_LONG = 50_000
_AT_ONCE = 1_000


def _all_rows(data: "Callable[[], CalamineSheet]", file: str) -> "Iterator[list[Cell]]":
    """The rows of a sheet, many at once: a value that the reader cannot make ends in a panic."""
    rows = None
    while True:
        try:
            with quiet():
                rows = data().iter_rows() if rows is None else rows
                held = list(islice(rows, _AT_ONCE))
        except BaseException as error:
            raise _as_refusal(error, file) from error
        if not held:
            return
        yield from held


def _is_sparse(rows: Iterator[Row], row_count: int) -> bool:
    """Whether less than a tenth of so many rows are there: the others are blank, and were passed over."""
    most = row_count // 10
    return sum(1 for _ in islice(rows, most)) < most


def _table(
    book: "CalamineWorkbook", table_name: str, file: str, from_1904: bool, extras: dict[str, Extras]
) -> Sheet:
    """A named table: its headings, then its rows, numbered as the sheet numbers them."""
    table = book.get_table_by_name(table_name)
    first_row, first_column = table.start or (1, 0)

    def rows() -> Iterator[Row]:
        yield first_row, list(table.columns)
        below = enumerate(table.to_python(), first_row + 1)
        yield from _without_crossed_out(below, _by_row(left, first_column))

    on = extras.get(table.sheet)
    left = on.left if on else {}
    return Sheet(
        file,
        table_name,
        rows,
        first_column=first_column,
        faults=on.faults if on else {},
        hidden_columns=on.hidden_columns if on else frozenset(),
        notes=_crossed_out(left, file, table.sheet),
        counts_1904=from_1904,
    )
