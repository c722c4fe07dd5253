"""The dates of a series, settled: those that people took out, put back, moved or changed by themselves."""

import datetime as dt
from collections.abc import Sequence
from typing import NamedTuple

from nomarium.history.settling.choices import OF_A_DATE, Choice, Prefer, chosen, has_edits
from nomarium.history.settling.fields import FIELDS, value_of
from nomarium.history.settling.marks import NO_MARKS, OWN, Marks
from nomarium.history.settling.units import (
    Unit,
    as_entry,
    dates_of_rule,
    day_of,
    left_out_of,
    on_date,
    same_date,
)
from nomarium.model.entry import Entry
from nomarium.model.event import Event


class SettledDate(NamedTuple):
    """A date of a series with something of its own."""

    event: Event
    original: dt.date | dt.datetime
    """The start that it replaces, by the settled series."""
    marks: Marks
    edited: Entry


class Lost(NamedTuple):
    """A date that people changed and the source no longer has."""

    day: dt.date
    edited: Entry


class SettledSeries(NamedTuple):
    """A series as it is settled."""

    event: Event
    marks: Marks
    dates: Sequence[SettledDate]
    choices: Sequence[Choice]
    """Of the dates."""
    lost: Sequence[Lost]
    """What is to be asked about."""
    dropped: int
    """Dates that people changed and that went because the source is preferred."""
    has_other_dates: bool
    """Whether people took dates out or put some back."""


def with_dates(choice: Choice, given: Unit | None, source: Entry, edited: Unit, prefer: Prefer) -> SettledSeries:  # fmt: skip
    """Settle the dates of a series whose fields are settled: `choice`."""
    assert edited.main is not None
    event, marks, has_other = _with_dates_out(choice, given, source, edited.main)
    whole = as_entry(event)
    of_source, of_edited = dates_of_rule(source), dates_of_rule(edited.main)
    of_given = dates_of_rule(given.main) if given is not None and given.main is not None else of_edited
    of_whole = dates_of_rule(whole)
    dates, choices, lost, dropped = list[SettledDate](), list[Choice](), list[Lost](), 0
    for day, entry in edited.dates.items():
        old = same_date(day, of_edited, of_given)
        now = same_date(day, of_edited, of_source)
        here = same_date(day, of_edited, of_whole) or now
        before, known = _before(given, old)
        mine = on_date(source, now) if now is not None else None
        if mine is None:
            if before is not None and not has_edits(before, known, entry, OF_A_DATE):
                continue
            if prefer == "source":
                dropped += 1
                continue
            if prefer == "" and given is not None:
                lost.append(Lost(day, entry))
                continue
            dates.append(SettledDate(_as_date_of(entry, event), _original(event, here or day), OWN, entry))
            continue
        # what people said of one date stands, whatever the source says of all of them
        one = chosen(before, known, mine, entry, prefer or ("edited" if before else ""), OF_A_DATE)
        choices.append(one)
        usual = on_date(whole, here) if here is not None else None
        if usual is None or one.marks.refused or _differs(usual, one.event):
            dates.append(SettledDate(one.event, _original(event, here or day), one.marks, entry))
    return SettledSeries(event, marks, dates, choices, lost, dropped, has_other)


def _before(given: Unit | None, day: dt.date | None) -> tuple[Entry | None, Marks]:
    """A date as the calendar was given it, and what is known of it."""
    if given is None or given.main is None or day is None:
        return None, NO_MARKS
    if day in given.dates:
        return given.dates[day], given.marks.get(day, NO_MARKS)
    return on_date(given.main, day), NO_MARKS


def _with_dates_out(
    choice: Choice, given: Unit | None, source: Entry, edited: Entry
) -> tuple[Event, Marks, bool]:
    """The series with the dates that it leaves out, on either side; whether people have some of their own."""
    event, recurrence = choice.event, choice.event.details.recurrence
    if recurrence is None:
        return event, choice.marks, False
    of_whole = dates_of_rule(as_entry(event))
    of_source, of_edited = dates_of_rule(source), dates_of_rule(edited)

    def here(days: frozenset[dt.date], there: Sequence[dt.date]) -> frozenset[dt.date]:
        return frozenset(found for day in days if (found := same_date(day, there, of_whole)) is not None)

    mine, says = here(left_out_of(source), of_source), here(left_out_of(edited), of_edited)
    theirs = says
    if given is None or given.main is None:
        was, base = mine, says if given is None else mine
    else:
        of_given, known = dates_of_rule(given.main), given.of_main
        was = here(left_out_of(given.main), of_given)
        base = (was - here(known.added, of_given)) | here(known.dropped, of_given)
        if edited.event.details.sequence < given.main.event.details.sequence:
            behind = here(known.lagging, of_given)
            theirs = (theirs - behind) | (base & behind)
    # a date is taken out or it is not: what both sides changed they changed alike
    settled = frozenset(
        day for day in mine | theirs | was | base
        if ((day in mine) if (day in theirs) == (day in base) else (day in theirs))
    )  # fmt: skip
    added, dropped = settled - mine, mine - settled
    lagging = frozenset(day for day in settled ^ says if day not in added | dropped)
    left_out = tuple(_original(event, day) for day in sorted(settled))
    details = event.details._replace(recurrence=recurrence._replace(left_out=left_out))
    marks = choice.marks._replace(added=added, dropped=dropped, lagging=lagging)
    return event._replace(details=details), marks, bool(added or dropped)


def _original(event: Event, day: dt.date) -> dt.date | dt.datetime:
    """The start of a series on a date."""
    return dt.datetime.combine(day, event.start.time()) if isinstance(event.start, dt.datetime) else day


def _as_date_of(entry: Entry, event: Event) -> Event:
    details = entry.event.details._replace(recurrence=None, uid=event.details.uid)
    return entry.event._replace(details=details)


def _differs(usual: Entry, event: Event) -> bool:
    one = as_entry(event)
    return any(value_of(field, usual) != value_of(field, one) for field in FIELDS if field != "repeat")


def days_of(dates: Sequence[SettledDate]) -> list[dt.date]:
    return [day_of(one.original) for one in dates]
