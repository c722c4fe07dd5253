"""The other dates of a row, each an event of its own, all day where no time stands with it."""

import re
from collections.abc import Sequence

from nomarium.model.account import Account
from nomarium.model.cell import Cell
from nomarium.model.event import NO_DETAILS, Details, Event
from nomarium.model.problem import note
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.titleparts import followed
from nomarium.reading.columns.table import TableReading
from nomarium.reading.rows.titles import is_no_title
from nomarium.reading.rows.when import NOTES, Blame, Part, Said, When, recurrence_of, settle
from nomarium.reading.rows.whenreader import WhenReader
from nomarium.reading.rows.yearly import is_yearly, yearly_rule
from nomarium.sheets.sheet import cell_text

_OPEN = note("milestone-open", "A date that is not known yet is no event; the others of its row are.")


class Milestones:
    """Reads the columns of dates that are events beside the row's own, called “TITLE: Heading”."""

    def __init__(self, reading: TableReading, when: WhenReader, account: Account) -> None:
        self._sheet, self._account = reading.sheet, account
        self._columns = [
            (c.at, c.heading, when.part_memo("date", at=c.at))
            for c in reading.columns
            if c.field == "milestone"
        ]
        self._last_day, self._length_secs = reading.options.repeats_until, reading.options.length_secs
        self._when = when
        self.blamed_at = -1
        """The column of the last cell that cannot be read."""

    def __bool__(self) -> bool:
        return bool(self._columns)

    def of(self, number: int, row: Sequence[Cell], summary: str) -> list[Event] | Blame:
        found: list[Event] = []
        for at, heading, memo in self._columns:
            if is_no_title(cell_text(row[at])):
                continue  # a dash: there is none
            part: Part = memo[_in_year_of(heading, row[at])]
            self.blamed_at = at
            if part.refusal is not None:
                return Blame("milestone", part.refusal)
            if part.first is None:
                if any(map(str.isalnum, text := cell_text(row[at]))):
                    self._account.count(_OPEN.at(self._sheet.place(number, at, heading), text))
                continue
            details = NO_DETAILS
            if is_yearly(heading):
                rule = yearly_rule(heading, part.first, self._last_day)
                if isinstance(rule, Refusal):
                    return Blame("milestone", rule)
                details = Details(recurrence=recurrence_of(rule))
            said = Said(date=part, zone_name=self._when.zone_name, zone=self._when.zone)
            settled = settle(said, self._length_secs)
            if isinstance(settled, Blame):
                return Blame("milestone", settled.refusal)
            for code in settled.notes:
                self._account.count(note(code, NOTES[code]).at(self._sheet.place(number, at, heading)))
            title = followed(summary, heading)
            found.append(
                Event(title, settled.start, settled.end, settled.zone, details=details, row_number=number)
            )
        return found

    def first(self, milestones: list[Event] | Blame) -> When | Blame:
        """When a row is that has nothing but milestones."""
        if isinstance(milestones, Blame):
            return milestones
        if not milestones:
            refusal = Refusal("date-missing", "The row has no date.", "Give it one, or take the row out.")
            return Blame("milestone", refusal)
        return When(milestones[0].start, milestones[0].end, None)


def _in_year_of(heading: str, cell: Cell) -> Cell:
    """A date without a year with the one year that its heading names, `20 Oct` under `Q4 2027`."""
    years = re.findall(_YEAR, heading)
    is_plain = isinstance(cell, str) and any(map(str.isdigit, cell)) and re.search(_YEAR, cell) is None
    return f"{cell} {years[0]}" if is_plain and len(years) == 1 else cell


_YEAR = r"(?<!\d)(?:19|20)\d\d(?!\d|\s?[-–/]\s?\d)"
