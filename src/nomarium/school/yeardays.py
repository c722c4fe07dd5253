"""The dates of the terms before they have labels, and the rows that fall where no school can be."""

import datetime as dt
from collections.abc import Sequence
from typing import NamedTuple

from nomarium.model.problem import Problem
from nomarium.school.planheads import plain
from nomarium.school.plantables import Item
from nomarium.school.yeartables import DayOff, Special, YearRows


class YearDay(NamedTuple):
    """A date of a term."""

    date: dt.date
    term: str
    is_open: bool
    """Whether anybody has school."""
    is_taught: bool
    """Whether its weekday is a taught one."""
    off: list[DayOff]
    specials: list[Special]
    closed: frozenset[str]

    @property
    def special(self) -> Special | None:
        """The special day of the whole school, when it has school."""
        return next((one for one in self.specials if not one.division), None) if self.is_open else None


_SPECIAL = "Name the bells, the label or the effect on the cycle in a column Bells, Label or Cycle; or take the row out."


def misplaced(days: Sequence[YearDay], rows: YearRows) -> list[Problem]:
    """Special days and dated labels must fall on days on which there can be school, and say what is special where there is."""
    found = list[Problem]()
    dated = {row.date: row for row in rows.cycle if row.date is not None}
    by_date = {day.date: day for day in days}
    wanted: list[tuple[dt.date, Item, str]] = [
        (row.first, row.item, row.division) for row in rows.specials if not row.is_range
    ]
    if rows.terms:
        wanted += [(date, row.item, "") for date, row in dated.items()]
    for date, item, division in wanted:
        field = "date" if item.table.name == "cycle" else "first"
        day = by_date.get(date)
        if day is None or (not day.term and rows.terms):
            if not rows.terms and dated:
                continue
            near = min(
                rows.terms,
                key=lambda term: min(abs((term.first - date).days), abs((term.last - date).days)),
                default=None,
            )
            beside = (
                f" The nearest, {near.name} ({near.item.called}), runs from {near.first} to {near.last}."
                if near
                else ""
            )
            message = f"{date} is outside every term.{beside}"
            found.append(item.problem("special-outside", field, message, "Correct the date or the terms."))
            continue
        off = [one for one in day.off if not one.division or plain(one.division) == plain(division)]
        if off:
            message = f"{date} is a day off, {off[0].name} ({off[0].called})."
            found.append(item.problem("special-on-day-off", field, message, "Take one of the two rows out."))
    for row in rows.specials:
        if row.is_range and not any(row.first <= day.date <= row.last and day.is_open for day in days):
            message = f"No school day is from {row.first} to {row.last}."
            found.append(
                row.item.problem("special-outside", "first", message, "Correct the dates or the terms.")
            )
        said = (row.label, row.effect, row.bells, row.name, row.division)
        if not any(said) and row.first in by_date and by_date[row.first].is_taught:
            message = f"{row.first} is a school day anyway, and the row does not say what is special on it."
            found.append(row.item.problem("special-idle", "first", message, _SPECIAL))
    return found
