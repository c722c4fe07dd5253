"""How the events of lists, drawn sheets and calendar files came about: from the cells, or the lines, to the date."""

import datetime as dt
from collections.abc import Callable, Iterator, Sequence
from typing import NamedTuple

from nomarium.model.entry import Series
from nomarium.model.event import Event
from nomarium.model.trail import Step
from nomarium.reading.cells.repeatsaid import said
from nomarium.reading.columns.decisions import Decisions
from nomarium.reading.columns.describe import describe_column
from nomarium.reading.layouts.layout import Reading
from nomarium.reckoning.series import dates_of
from nomarium.reckoning.window import Window
from nomarium.sheets.sheet import Row, cell_text
from nomarium.sources.edits import EditedSource
from nomarium.sources.lists import ListSource
from nomarium.sources.source import Source


class Traced(NamedTuple):
    """An event on a date, with what it comes from."""

    event: Event
    item: Event | Series
    """What the source gave: with its repeat, if it has one."""
    original: Event | Series
    """The same before it was renamed or picked."""
    source: Source
    is_taken: bool = True
    """False: --only or --leave-out took it out."""


class Looked(NamedTuple):
    """What was found on a date, and around it where that is nothing."""

    traced: list[Traced]
    """The events that touch the date, also those that are left out as asked."""
    before: Event | None
    """Of the events that are asked about the last one before the date …"""
    after: Event | None
    """… and the first one after it."""


def look_at(
    sources: Sequence[Source], date: dt.date, wanted: Callable[[Event], bool], window: Window, horizon: dt.date, zone_name: str | None
) -> Looked:  # fmt: skip
    """Go through the events of sources once, which completes their accounts. `wanted` are those asked about; repeats are
    followed to the `horizon`."""
    traced = list[Traced]()
    before: Event | None = None
    after: Event | None = None
    for source in sources:
        here = window._replace(last=window.last or horizon).also_without(source.days_off)
        pairs = (
            source.pairs() if isinstance(source, EditedSource) else ((item, item) for item in source.events())
        )
        for original, edited in pairs:
            item = edited if edited is not None else original
            repeats = isinstance(item, Series) or item.details.recurrence is not None
            for one in dates_of(item, here if repeats else window, zone_name):
                event = one.event
                if event.first_day <= date <= event.last_day:
                    traced.append(Traced(event, item, original, source, edited is not None))
                elif edited is None or not wanted(event):
                    continue
                elif event.first_day > date and (after is None or event.first_day < after.first_day):
                    after = event
                elif event.last_day < date and (before is None or event.last_day > before.last_day):
                    before = event
    return Looked(traced, before, after)


def list_steps(traced: Traced, reading: Reading, zone_name: str | None) -> list[Step]:
    """The way from the cells of a row (or a drawn sheet) to an event of it."""
    event, sheet = traced.event, reading.sheet
    row = next((row for row in sheet.rows() if row[0] == event.row_number), None)
    where = str(sheet.place(event.row_number or None))
    steps = list(_cell_steps(reading, row)) if reading.table is not None and row is not None else []
    if not steps:
        cells = [
            " ⏎ ".join(text.splitlines()) for cell in (row[1] if row else ()) if (text := cell_text(cell))
        ]
        drawn = f"drawn as a {reading.layout}" if reading.layout != "events" else "the row"
        shown = " | ".join(cells[:8]) + (" …" if len(cells) > 8 else "")
        steps = [Step("row", where, f"{drawn}: {shown}" if shown else drawn)]
        steps += [Step("evidence", "", one.message) for one in reading.notes]
    account = traced.source.account
    steps += [
        Step("note", str(one.place), one.message)
        for one in account.all_notes()
        if one.place.row == event.row_number
    ]
    steps += _repeat_steps(traced)
    steps += edit_steps(traced)
    if event.zone and zone_name and not event.is_all_day:
        steps.append(Step("zone", "", f"Its times are in {event.zone}."))
    return steps


def _cell_steps(reading: Reading, row: Row) -> Iterator[Step]:
    table = reading.table
    assert table is not None
    for column in table.columns:
        text = cell_text(row[1][column.at]) if column.at < len(row[1]) else ""
        if not column.field or not text:
            continue
        how = describe_column(column, table.decisions)
        place = reading.sheet.place(row[0], column.at, column.heading)
        yield Step(
            column.field,
            str(place),
            f"“{' ⏎ '.join(text.splitlines())}” is the {_named(column.field)}: {how}",
        )
    yield from _order_step(table.decisions)


def _order_step(decisions: Decisions) -> Iterator[Step]:
    if decisions.order_evidence:
        yield Step("dates", "", f"Dates in figures are read {decisions.order_evidence}.")


def _named(field: str) -> str:
    return {"summary": "title", "audience": "group who should see it"}.get(field, field)


def _repeat_steps(traced: Traced) -> Iterator[Step]:
    """How what repeats came by this date."""
    item = traced.original
    event = item if isinstance(item, Event) else item.main.event if item.main is not None else None
    recurrence = event.details.recurrence if event is not None else None
    if event is None or recurrence is None:
        return
    for rule in recurrence.rules:
        yield Step(
            "repeat", "", f"It repeats {said(rule, recurrence.on_school_days)}, from {event.first_day} on."
        )
    if traced.event.first_day in {_date(one) for one in recurrence.also_on}:
        yield Step("repeat", "", f"{traced.event.first_day} is added as a date of its own.")


def _date(moment: dt.date | dt.datetime) -> dt.date:
    return moment.date() if isinstance(moment, dt.datetime) else moment


def edit_steps(traced: Traced) -> Iterator[Step]:
    """What was made of an event after it was read."""
    before, after = traced.original, traced.item
    if isinstance(before, Series) or isinstance(after, Series):
        return
    for field in ("summary", "location", "description"):
        old, new = str(getattr(before, field)), str(getattr(after, field))
        if old != new:
            yield Step("asked", "", f"The {_named(field)} “{old}” becomes “{new}”, as asked.")


def calendar_steps(traced: Traced) -> list[Step]:
    """What a calendar file itself knows of an event of it."""
    event, item = traced.event, traced.original
    where = str(traced.source.place(event.row_number or None))
    steps = [Step("entry", where, f"“{event.summary}” stands in the file.")]
    if isinstance(item, Series) and item.main is not None:
        steps += _repeat_steps(traced)
        for entry in item.replacing:
            if entry.original is not None and entry.event.row_number == event.row_number:
                place = str(traced.source.place(entry.event.row_number))
                steps.append(
                    Step(
                        "replaced",
                        place,
                        f"This date of the series was moved here from {entry.original.local}.",
                    )
                )
    facets = [f"{name} {value}" for name, value in event.details.facets if name != "periods"]
    if facets:
        steps.append(Step("made from", "", f"An earlier build noted: {', '.join(facets)}."))
    if event.details.status:
        steps.append(Step("status", "", f"Its status is {event.details.status.lower()}."))
    return steps + list(edit_steps(traced))


def list_source_of(source: Source) -> ListSource | None:
    """The list behind a source, edited or not; None where it is none."""
    inner = source.inner if isinstance(source, EditedSource) else source
    return inner if isinstance(inner, ListSource) else None
