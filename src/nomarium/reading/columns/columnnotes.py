"""What is said about columns: those that nothing uses, those that were guessed, milestones."""

from collections.abc import Collection, Sequence

from nomarium.model.problem import Problem, column_letter, note
from nomarium.reading.columns.column import Column
from nomarium.sheets.sheet import Sheet


def column_notes(
    sheet: Sheet, columns: Sequence[Column], keeps_extra: bool, in_titles: Collection[int]
) -> list[Problem]:
    """The notes of the columns; those `in_titles` are used by a template."""
    notes = []
    columns = [c for c in columns if c.at not in sheet.heard]
    unused = [
        c
        for c in columns
        if c.is_ignored and not c.is_kept and c.how != "asked" and c.filled and c.at not in in_titles
    ]
    if unused and not keeps_extra:
        named = ", ".join(called(sheet, c) for c in unused)
        message = f"Not used: the column{'s' if len(unused) > 1 else ''} {named}."
        notes.append(
            note(
                "column-unused",
                message,
                f"--keep-extra puts {'them' if len(unused) > 1 else 'it'} into the description.",
            ).at(sheet.place())
        )
    for column in columns:
        if column.is_kept:
            message = f"It names halves of the day and no column says the time: its cells go into the description, “{column.heading}: {column.samples[0]}”."
            leave = f'--column "{column.heading or letter_of(sheet, column)}="'
            remedy = f'If their times are known: --set-code "{column.samples[0]}=9:00-12:00"; to leave it out: {leave}.'
            notes.append(
                note("column-half", message, remedy).at(sheet.place(None, column.at, column.heading))
            )
        elif column.field == "milestone":
            message = (
                "Each date of it is an event of its own, called “TITLE: " + (column.heading or "…") + "”."
            )
            remedy = f'To leave it out: --column "{column.heading}=".'
            notes.append(note("milestones", message, remedy).at(sheet.place(None, column.at, column.heading)))
        elif sheet.dates_above and column is columns[-1] and not column.heading:
            continue  # made of the dates above the rows, which are told
        elif column.how == "content" or "is like" in column.evidence:
            message = f"Read as the {column.field}: {column.evidence}."
            remedy = (
                f'If it is not, say so with --column "{column.heading or letter_of(sheet, column)}=FIELD".'
            )
            place = sheet.place(None, column.at, column.heading)
            notes.append(note("column-guessed", message, remedy).at(place))
    return notes


def called(sheet: Sheet, column: Column) -> str:
    return f"“{column.heading}”" if column.heading else letter_of(sheet, column)


def letter_of(sheet: Sheet, column: Column) -> str:
    return column_letter(column.at + sheet.first_column)
