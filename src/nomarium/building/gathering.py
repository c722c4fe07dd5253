"""The events of all sources as they are drawn: what each is coloured by, and whose picture it is in."""

import datetime as dt
from collections.abc import Sequence
from pathlib import PurePath
from typing import NamedTuple

from nomarium.model.event import Event
from nomarium.pictures.shown import Shown, field_of, in_zone, shown_by
from nomarium.reckoning.window import Window
from nomarium.sources.dated import dated_events
from nomarium.sources.source import Calendars, Source
from nomarium.targets.splitting import Splitter, shown


class Asked(NamedTuple):
    """How events are to be gathered."""

    window: Window
    zone_name: str | None
    horizon: dt.date | None = None
    """The last date of series without an end."""
    color_by: str = ""
    """A field, `calendar`, or nothing: found from the events, whose own colours come first."""
    split: tuple[str, ...] = ()


class Gathered(NamedTuple):
    """The events, in the order of the sources."""

    events: Sequence[Shown]
    color_by: str
    """The field by which they are coloured; nothing where there is none."""
    parts: Sequence[tuple[str, Sequence[Shown]]] = ()
    """Of a split: each value, in order, and its events."""


class _Group(NamedTuple):
    name: str
    calendars: Calendars
    events: list[Event]


def gathered(sources: Sequence[Source], asked: Asked) -> Gathered:
    """Take every event of the sources on each of its dates. The accounts of the sources are complete then."""
    groups = [
        _Group(
            PurePath(source.place(None).file).stem or "calendar",
            source.calendars,
            [
                in_zone(event, asked.zone_name)
                for event in dated_events([source], asked.window, asked.zone_name, asked.horizon)
            ],
        )
        for source in sources
    ]
    field = asked.color_by or _field(groups)
    events, parts = list[Shown](), dict[str, list[Shown]]()
    everywhere = list[Shown]()
    splitter = Splitter(asked.split) if asked.split else None
    for group in groups:
        for event in group.events:
            one = shown_by(event, field, group.name, has_own=not asked.color_by)
            events.append(one)
            if splitter is None:
                continue
            if group.calendars.everywhere:
                everywhere.append(one)
                continue
            for value in splitter.names_of(event, group.calendars):
                parts.setdefault(shown(value), []).append(one)
    return Gathered(events, field, sorted((value, [*found, *everywhere]) for value, found in parts.items()))


def _field(groups: Sequence[_Group]) -> str:
    field = field_of(event for group in groups for event in group.events)
    return field or ("calendar" if len({group.name for group in groups if group.events}) > 1 else "")
