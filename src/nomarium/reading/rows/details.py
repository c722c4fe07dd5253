"""The fields that few events have, from the values of a row's cells."""

import datetime as dt
from collections.abc import Sequence
from typing import TYPE_CHECKING

from nomarium.model.cell import Cell
from nomarium.model.event import FACETS, NO_DETAILS, Details, Person, asked_to_reply
from nomarium.model.problem import column_letter
from nomarium.reading.cells.memo import REPEAT_FIELDS, CellMemo, FieldValue, repeat_memo
from nomarium.reading.columns.table import TableReading
from nomarium.reading.rows.when import NOTHING, Part, When
from nomarium.reading.rows.whenreader import WhenReader
from nomarium.sheets.sheet import cell_text

if TYPE_CHECKING:
    from nomarium.model.recurrence import Recurrence


def details_of(
    values: dict[str, FieldValue],
    when: When,
    reminder_secs: int | None,
    recurrence: "Recurrence | None" = None,
) -> Details:
    """The details of an event. An event without any gets the one shared value for that."""
    busy = values.get("busy")
    may_be = "TENTATIVE" if when.is_tentative or busy == "TENTATIVE" else ""
    details = Details(
        categories=tuple(
            dict.fromkeys((*(values.get("categories") or ()), *(values.get("more-categories") or ())))
        ),
        audience=values.get("audience") or (),
        organizer=values.get("organizer"),
        attendees=_attendees(values),
        url=values.get("url") or "",
        conference=values.get("conference") or "",
        status=values.get("status") or may_be,
        privacy=_privacy(values),
        busy=True if busy == "TENTATIVE" else busy,
        reminder_secs=reminder_secs,
        color=values.get("color") or "",
        priority=values.get("priority"),
        geo=values.get("geo"),
        uid=values.get("uid") or "",
        facets=tuple((name, values[name]) for name in FACETS if values.get(name)),
        recurrence=recurrence,
    )
    return NO_DETAILS if details == NO_DETAILS else details


def status_of(values: dict[str, FieldValue], is_cancelled: bool) -> str:
    """The status that the cells of a row say together: cancelled beats all, an answer under `Confirmed` nothing else."""
    if is_cancelled or values.get("cancelled"):
        return "CANCELLED"
    answer = values.get("confirmed")
    stated: str = values.get("status") or ""
    return stated or ("" if answer is None else "CONFIRMED" if answer else "TENTATIVE")


def _attendees(values: dict[str, FieldValue]) -> tuple[Person, ...]:
    """Those who must come and those who may, each asked for an answer when the row says so (RFC 5545, 3.2.17)."""
    people = (values.get("attendees") or ()) + (values.get("optional-attendees") or ())
    return tuple(map(asked_to_reply, people)) if values.get("rsvp") else people


def _privacy(values: dict[str, FieldValue]) -> str:
    """PUBLIC, PRIVATE or CONFIDENTIAL from a sensitivity and a yes or no, the stricter of the two."""
    privacy: str = values.get("privacy") or ""
    return "PRIVATE" if values.get("private") and privacy in ("", "PUBLIC") else privacy


def _lead_of(values: dict[str, FieldValue], when: When, day: Part, time: Part) -> int | None:
    """How long before the start the alarm is, in seconds: a length, or the time from a moment of its own."""
    if values.get("reminder-on") is False:
        return None
    length: int | None = values.get("reminder")
    if length is not None or day.first is None or time.start is None:
        return length
    start = when.start if isinstance(when.start, dt.datetime) else dt.datetime.combine(when.start, dt.time())
    at = dt.datetime.combine(day.first, dt.time()) + dt.timedelta(seconds=time.start.secs)
    return max(round((start - at).total_seconds()), 0)


def rest_fields(when: WhenReader) -> list[tuple[str, CellMemo, int]]:
    """The fields that few tables have, of those that this one has: each with its memo and its column."""
    names = (
        "categories", "audience", "organizer", "attendees", "optional-attendees", "rsvp", "url", "conference", "status",
        "cancelled", "confirmed", "more-categories", "privacy", "private", "busy", "reminder", "reminder-on", "color", "priority", "geo", "uid", *FACETS,
    )  # fmt: skip
    rest = [(name, *when.value(name)) for name in names if name in when.known]
    options = when.reading.options
    for name in REPEAT_FIELDS if when.known & set(REPEAT_FIELDS) else ():
        default = options.defaults.get(name, "")
        heading = when.reading.columns[when.at[name]].heading if name in when.at else ""
        memo = repeat_memo(name, when.reading.decisions.lexicon, default, options.cycle, heading)
        rest.append((name, memo, when.at.get(name, -1)))
    return rest


def reminder_of(
    reader: WhenReader, row: Sequence[Cell], when: When, values: dict[str, FieldValue]
) -> int | None:
    """The alarm's lead in seconds, from a length or from a reminder's date and time."""
    moment = []
    for field in ("reminder-date", "reminder-time"):
        if field not in reader.at or not values.get("reminder-on"):
            return _lead_of(values, when, NOTHING, NOTHING)
        if field not in reader.parts:
            reader.parts[field] = reader.part_memo(field)
        moment.append(reader.parts[field][row[reader.at[field]]])
    return _lead_of(values, when, *moment)


def extra_columns(reading: TableReading) -> list[tuple[int, str]]:
    """Where the columns stand that have no field and go into the description, and their headings."""
    return [
        (c.at, c.heading or f"Column {column_letter(c.at + reading.sheet.first_column)}")
        for c in reading.columns
        if (reading.options.keep_extra or c.is_kept) and c.is_ignored and c.how != "asked"
    ]


def with_extra(row: Sequence[Cell], extra: Sequence[tuple[int, str]], description: str) -> str:
    """A description with the cells of columns that have no field, each after its heading."""
    lines = [f"{heading}: {text}" for n, heading in extra if (text := cell_text(row[n]))]
    return "\n".join([description, *lines] if description else lines)
