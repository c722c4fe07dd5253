"""Pages as the target: one with every event, or a folder of calendars with a page for each and one that leads to them."""

import datetime as dt
from collections.abc import Iterable, Mapping, Sequence
from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING, BinaryIO, NamedTuple
from urllib.parse import quote

from nomarium.model.event import Event
from nomarium.pictures.names import Names, names_in
from nomarium.pictures.page.page import folder_text, page_text
from nomarium.pictures.page.words import words_in
from nomarium.pictures.shown import Day, Show, field_of, in_order, keys_of, shown_by, without_labels
from nomarium.reckoning.series import dates_of
from nomarium.reckoning.window import Window
from nomarium.sources.source import Calendars
from nomarium.targets.calendarfile import CalendarHead
from nomarium.targets.calendars import CalendarTarget
from nomarium.targets.identities import Identities
from nomarium.targets.onefile import OneFileTarget
from nomarium.targets.replacing import WrittenFile, replace_file
from nomarium.targets.splitting import Splitter, shown

if TYPE_CHECKING:
    from nomarium.targets.target import Shared


class PageLook(NamedTuple):
    """What a page says beside its events."""

    name: str
    language: str = "en"
    days: Mapping[dt.date, Day] = {}
    """What plans know of the dates."""
    base_url: str = ""
    """Where the folder is to stand on the web, with a slash at its end; nothing: links are relative."""

    def names(self, events: Iterable[Event]) -> Names:
        """Names of months and weekdays in its language, for the zone of its events."""
        zones = (event.zone for event in events if event.zone and event.zone != "UTC")
        return names_in(self.language, next(zones, None))


def page_of(events: Sequence[Event], heading: str, look: PageLook) -> str:
    """The page of some events."""
    field = field_of(events)
    found = without_labels((shown_by(event, field) for event in events), look.days)
    first = min((one.event.first_day for one in found), default=dt.date(1970, 1, 1))
    last = max((one.event.last_day for one in found), default=first)
    labels = len(events) - len(found)
    show = Show(heading, in_order(found), first, last, keys_of(found), look.days, labels)
    return page_text(show, look.names(events))


class PageTarget(OneFileTarget):
    """One page."""

    def __init__(self, target: Path | None, identities: Identities, look: PageLook) -> None:
        super().__init__(target, identities)
        self._look = look
        self._events: list[Event] = []

    def _take(self, event: Event, uid: str) -> None:
        self._events.append(event)

    def _write(self, file: BinaryIO) -> None:
        _put(page_of(self._events, self._look.name, self._look), file)


class FolderWithPages(CalendarTarget):
    """A folder of calendars, each with a page of its own, and a page that leads to all of them."""

    def __init__(
        self, target: Path | None, head: CalendarHead, dtstamp: str, split_by: Sequence[str], afresh: bool,
        cancel_removed: bool, identities: Identities, window: Window, look: PageLook,
    ) -> None:  # fmt: skip
        super().__init__(target, head, dtstamp, split_by, afresh, cancel_removed, identities, window)
        self._folder_of_pages = target
        self._look = look
        self._values = Splitter(split_by)
        self._events: dict[str, list[Event]] = {}
        self._of_all: list[Event] = []

    def _add(self, event: Event, block: str, last_start: dt.date | None, calendars: Calendars) -> None:
        super()._add(event, block, last_start, calendars)
        dated = (
            [event] if last_start is None else [one.event for one in dates_of(event, Window(last=last_start))]
        )
        if calendars.everywhere:
            self._of_all += dated
            return
        for value in self._values.names_of(event, calendars):
            self._events.setdefault(shown(value), []).extend(dated)

    @property
    def shared(self) -> "Shared | None":
        """None: the pages need every event here."""
        return None

    def finish(self) -> list[WrittenFile]:
        """Write the calendars, then their pages, then the one that leads to them."""
        written = super().finish()
        folder = self._folder_of_pages
        if folder is None:
            return written
        linked = []
        for file in written:
            events = [*self._events.get(file.value, ()), *self._of_all]
            name = page_name(file.name)
            text = page_of(events, f"{self._look.name} – {file.value}", self._look)
            replace_file(folder / name, partial(_put, text))
            linked.append(_link(file, name, self._look))
        names = self._look.names(event for events in self._events.values() for event in events)
        replace_file(folder / _INDEX, partial(_put, folder_text(self._look.name, names, linked)))
        return written


_INDEX = "index.html"


def page_name(file_name: str) -> str:
    """What the page of a calendar file is called; none is the one that leads to all.

    >>> page_name("staff/a-plover.ics"), page_name("index.ics")
    ('staff/a-plover.html', 'index-calendar.html')
    """
    stem = file_name.removesuffix(".ics")
    return f"{stem}.html" if stem != "index" else "index-calendar.html"


def _put(text: str, file: BinaryIO) -> None:
    file.write(text.encode("utf-8", "replace"))


def _link(file: WrittenFile, page: str, look: PageLook) -> dict[str, object]:
    """How a calendar of a folder is reached: relative to it, or under its address on the web."""
    words = words_in(look.language)
    count = f"{file.event_count:,} {words['event' if file.event_count == 1 else 'events']}"
    base = look.base_url
    address = f"{base}{quote(file.name)}"
    subscribe = f"webcal:{address.partition(':')[2]}" if base else ""
    return {"name": file.value, "count": count, "page": quote(page), "file": address, "subscribe": subscribe}
