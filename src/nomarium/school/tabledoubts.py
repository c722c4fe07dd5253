"""What is said of sheets that could be two tables of a plan, that cannot be read, or that are none."""

from itertools import islice

from nomarium.model.problem import Problem, note
from nomarium.reading.columns.head import looks_like_date
from nomarium.school.kinds import Kind
from nomarium.school.planheads import HEADINGS
from nomarium.school.plantables import TITLES, near_table
from nomarium.sheets.sheet import Sheet, cell_text, is_blank

_MEANS = {
    "terms": "say when school is held", "daysoff": "say when there is none",
    "events": "are events like any other",
}  # fmt: skip
"""What the rows of tables mean that could be either."""


def called(sheet: Sheet) -> str:
    """A sheet as messages name it."""
    return sheet.name or sheet.file


def doubtful(sheet: Sheet, kind: Kind) -> Problem:
    """A sheet that could be either of two tables, with what its first rows would mean."""
    one, other = TITLES[kind.table], TITLES[kind.other]
    message = f"{called(sheet)} could be {one} ({kind.why}) or {other}."
    dated = (row for _, row in sheet.rows() if any(map(looks_like_date, row)))
    shown = [", ".join(text for cell in row if (text := cell_text(cell))) for row in islice(dated, 2)]
    if shown:
        message += f" As {one}, {' and '.join(f'“{text}”' for text in shown)} {_MEANS[kind.table]}; as {other}, {_MEANS[kind.other]}."
    remedy = (
        f'Say which: --table "{called(sheet)}={one.lower()}" or --table "{called(sheet)}={other.lower()}".'
    )
    return Problem("table-doubtful", message, remedy, sheet.place())


def unread(sheet: Sheet, kind: Kind) -> Problem:
    """A sheet that a plan would be wrong without, and that cannot be read."""
    title = TITLES[kind.hint]
    message = f"{called(sheet)} is called as {title} would be, and it does not read as that."
    there = ", ".join(words.split(", ")[0] for words in HEADINGS[kind.hint].values())
    remedy = f'Give it headings ({there}); if it is none, leave it out: --table "{called(sheet)}=".'
    return Problem("table-unread", message, remedy, sheet.place())


def passed_over(sheet: Sheet, kind: Kind, notes: list[Problem]) -> None:
    """Note that a sheet is no part of a plan; one that is blank says nothing."""
    if all(is_blank(row) for _, row in sheet.rows()):
        return
    if kind.why == "as asked":
        notes.append(note("plan-sheet-unused", f"“{called(sheet)}” is left out, as asked.").at(sheet.place()))
        return
    near = near_table(sheet.name)
    hint = f" Did you mean {near}?" if near else ""
    message = f"The sheet “{called(sheet)}” is no part of a plan: it is passed over.{hint}"
    remedy = f'If it is: --table "{called(sheet)}=TABLE".'
    notes.append(note("plan-sheet-unused", message, remedy).at(sheet.place()))
