"""Which columns somebody means who names a heading or a letter."""

from collections.abc import Sequence

from nomarium.model.problem import Problem, column_letter
from nomarium.model.wording import nearest
from nomarium.reading.columns.column import Column
from nomarium.reading.columns.headings import normal
from nomarium.reading.options import ReadingOptions
from nomarium.sheets.sheet import Sheet

_SAYING_WHEN = {
    "date": ("date", "day", "week"), "end-date": ("end-date",), "start": ("start",), "end": ("end", "duration"), "time": ("time", "start", "end"),
    "when": ("when", "date", "start", "end", "time"), "duration": ("duration", "end"), "all-day": ("all-day",), "repeat": ("repeat",),
    "except": ("except",), "also-on": ("also-on",), "week": ("week",), "day": ("day",), "reminder": (),
}  # fmt: skip
"""The columns that give way to a value for all rows."""
_SAYING_MORE = {"date": ("when",), "start": ("when", "time"), "end": ("when", "time"), "time": ("when",)}


def asked_fields(options: ReadingOptions, headings: Sequence[str], first_column: int) -> dict[int, str]:
    """The field that `--column` or a recipe gives a column, by its place; nothing for the others.

    A heading is meant as a whole, brackets and all; one that no column has so, without its brackets and signs if that
    is one column; a letter where no heading is that text.
    """
    found: dict[int, str] = {}
    for asked, field in options.columns.items():
        for at in asked_columns(asked, headings, first_column):
            found.setdefault(at, field)
    return found


def asked_columns(asked: str, headings: Sequence[str], first_column: int) -> list[int]:
    """The places of the columns that somebody means by a heading or a letter."""
    exact = [
        at for at, heading in enumerate(headings) if heading.casefold().strip() == asked.casefold().strip()
    ]
    if exact:
        return exact
    plain = normal(asked)
    alike = [at for at, heading in enumerate(headings) if plain and normal(heading) == plain]
    if len(alike) == 1:
        return alike
    return [at for at in range(len(headings)) if column_letter(at + first_column) == asked and not alike]


def without_overridden(columns: list[Column], options: ReadingOptions) -> list[Column]:
    """The columns without those that say when and give way to `--override`."""
    fields = {part for field in options.overrides for part in _SAYING_WHEN.get(field, ())}
    return [
        column._replace(field="", how="asked", evidence="read past: --override")
        if column.field in fields
        else column
        for column in columns
    ]


def overridden_twice(sheet: Sheet, columns: Sequence[Column], options: ReadingOptions) -> list[Problem]:
    """A problem for each column that says more than what `--override` gives in its place."""
    found = []
    for field in options.overrides:
        for column in columns:
            if column.field in _SAYING_MORE.get(field, ()):
                message = (
                    f"“{column.heading}” says more than the {field}, and --override {field}= cannot part it."
                )
                remedy = f'Give all of it anew: --override "{column.field}=…"; or leave the option out.'
                place = sheet.place(None, column.at, column.heading)
                found.append(Problem("override-unfit", message, remedy, place))
    return found


def heading_missing(sheet: Sheet, headings: Sequence[str], heading: str, option: str) -> Problem:
    """The problem of a heading that an option names and no table has."""
    there = [one for one in headings if one]
    near = nearest(heading, there)
    remedy = f"Did you mean “{near}”?" if near else f"The headings are {', '.join(f'“{h}”' for h in there)}."
    message = f"{option} names a heading “{heading}” that {sheet.title} does not have."
    return Problem("heading-missing", message, remedy, sheet.place())
