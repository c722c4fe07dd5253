"""The other dates of a row, each an event of its own, all day where no time stands with it."""

import re
from collections.abc import Sequence
from typing import Final

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

_OF_PLACE: Final = ("room", "period")

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

    def of(self, number: int, row: Sequence[Cell]) -> list[tuple[str, When]] | Blame:
        """The heading of each date that a row has in these columns, and when it is."""
        found: list[tuple[str, When]] = []
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
            rule = yearly_rule(heading, part.first, self._last_day) if is_yearly(heading) else None
            if isinstance(rule, Refusal):
                return Blame("milestone", rule)
            said = Said(date=part, zone_name=self._when.zone_name, zone=self._when.zone)
            settled = settle(said, self._length_secs)
            if isinstance(settled, Blame):
                return Blame("milestone", settled.refusal)
            for code in settled.notes:
                self._account.count(note(code, NOTES[code]).at(self._sheet.place(number, at, heading)))
            found.append((heading, settled._replace(rule=rule)))
        return found

    def events(self, event: Event, found: Sequence[tuple[str, When]]) -> list[Event]:
        """The events of a row with these dates. Each has what `event`, made from the same row, has; where that is of a date of its
        own, it comes first, and it alone has a place, people and notes."""
        has_own, said = self._when.has_dates, event.details
        if has_own:
            facets = tuple((name, text) for name, text in said.facets if name not in _OF_PLACE)
            said = Details(
                said.categories,
                said.audience,
                status=said.status,
                privacy=said.privacy,
                color=said.color,
                facets=facets,
            )
        elif "reminder-date" in self._when.at:
            said = said._replace(reminder_secs=None)  # a moment before one of them is none before all
        made = [event] if has_own else []
        for heading, when in found:
            details = said._replace(
                uid="" if len(found) > 1 else said.uid,
                status=said.status or ("TENTATIVE" if when.is_tentative else ""),
                recurrence=recurrence_of(when.rule) if when.rule is not None else None,
            )
            details = NO_DETAILS if details == NO_DETAILS else details
            one = event._replace(
                summary=followed(event.summary, heading),
                start=when.start,
                end=when.end,
                zone=when.zone,
                details=details,
            )
            made.append(one._replace(location="", description="") if has_own else one)
        return made

    def first(self, milestones: Sequence[tuple[str, When]] | Blame) -> When | Blame:
        """When a row is that has nothing but milestones."""
        if isinstance(milestones, Blame):
            return milestones
        if not milestones:
            refusal = Refusal("date-missing", "The row has no date.", "Give it one, or take the row out.")
            return Blame("milestone", refusal)
        return milestones[0][1]._replace(notes=(), is_tentative=False)


def _in_year_of(heading: str, cell: Cell) -> Cell:
    """A date without a year with the one year that its heading names, `20 Oct` under `Q4 2027`."""
    years = re.findall(_YEAR, heading)
    is_plain = isinstance(cell, str) and any(map(str.isdigit, cell)) and re.search(_YEAR, cell) is None
    return f"{cell} {years[0]}" if is_plain and len(years) == 1 else cell


_YEAR = r"(?<!\d)(?:19|20)\d\d(?!\d|\s?[-–/]\s?\d)"
