"""Options that say what sheets, cells and codes mean, and meet nothing in the sources."""

import re
from collections.abc import Mapping, Sequence
from itertools import islice
from typing import Final

from nomarium.model.problem import Problem, note
from nomarium.model.wording import listed
from nomarium.reading.columns.headings import normal
from nomarium.reading.options import ReadingOptions
from nomarium.sheets.sheet import Sheet, cell_text

_HEAD_ROWS: Final = 40


def unmet_meanings(sheets: Sequence[Sheet], options: ReadingOptions, has_drawn_weeks: bool) -> list[Problem]:
    """A problem for each of `--table`, `--weekdays` and `--cell` that has no effect; a note where a recipe says it."""
    found: list[Problem] = []
    if options.tables:
        from nomarium.school.kinds import asked_table

        for named in options.tables:
            if not any(asked_table(sheet, {named: "?"}) is not None for sheet in sheets):
                there = listed(list(dict.fromkeys(sheet.name or sheet.file for sheet in sheets))[:12])
                found.append(
                    Problem(
                        "table-unmet",
                        f"--table names “{named}”, and no source has such a sheet.",
                        f"There are {there}." if there else "",
                    )
                )
    for code in options.weekdays:
        if not any(_has(sheet, code) for sheet in sheets):
            found.append(
                Problem(
                    "weekdays-unmet",
                    f"--weekdays names “{code}”, and no cell has it.",
                    "Leave it out, or correct it.",
                )
            )
    if options.cell and not has_drawn_weeks:
        found.append(
            Problem("cell-unmet", "--cell is of no use: nothing is read as a drawn week.", "Leave it out.")
        )
    if not options.recipe_name:
        return found
    return [note(one.code, one.message, one.remedy) for one in found]


def unmet_headings(sheets: Sequence[Sheet], options: ReadingOptions) -> list[Problem]:
    """A problem for each heading of `--column` that no sheet of a plan has; a note where a recipe says it."""
    there = met_headings(sheets, options.columns)
    problem = note if options.recipe_name else Problem
    return [
        problem(
            "heading-missing",
            f"--column names a heading “{heading}”, and no sheet of the plan has it.",
            "Correct it, or leave it out.",
        )
        for heading in options.columns
        if heading not in there
    ]


def met_headings(sheets: Sequence[Sheet], columns: Mapping[str, str]) -> dict[str, str]:
    """What `--column` says of the headings that some sheet has."""
    there = {
        normal(cell_text(cell))
        for sheet in sheets
        for _, row in islice(sheet.rows(), _HEAD_ROWS)
        for cell in row
    }
    return {heading: field for heading, field in columns.items() if normal(heading) in there}


def _has(sheet: Sheet, code: str) -> bool:
    """Whether a cell of a sheet is a code, or has it among others."""
    word = re.compile(rf"(?<!\w){re.escape(code)}(?!\w)", re.IGNORECASE)
    return any(word.search(cell_text(cell)) for _, row in sheet.rows() for cell in row)
