"""What was published taken back: every event of a set, or those from a date on (`history.recall`)."""

import datetime as dt
from collections.abc import Sequence
from typing import NamedTuple

from nomarium.exchange.collection import Collection
from nomarium.exchange.publishing import Asked, Here, Keep, Progress, Task, is_same_unit, look, refused, sent
from nomarium.exchange.resources import calendar_text, resources
from nomarium.exchange.session import Session
from nomarium.history.publications import Publication
from nomarium.history.settling.settle import Settled, touches
from nomarium.history.settling.units import Unit, as_entry, last_start_of
from nomarium.model.entry import Entry
from nomarium.model.event import Event
from nomarium.model.problem import Problem
from nomarium.reckoning.window import Window

_DAY = dt.timedelta(days=1)


class Withdrawn(NamedTuple):
    """What was taken back, or would be."""

    deleted: int
    shortened: int
    """Series that began before and now end before the date."""
    edited: Sequence[Event]
    """Those of them that people had changed."""
    left: int
    """Of the set, before the date."""
    foreign: int
    problems: Sequence[Problem]


def withdraw(
    session: Session, url: str, known: Publication | None, first: dt.date | None, asked: Asked, keep: Keep,
    progress: Progress | None = None,
) -> Withdrawn:  # fmt: skip
    """Take back all that a set put into a calendar, or what of it is on a date or later. Others' events stay."""
    collection = Collection(session, url)
    here = look(collection, known, asked)
    tasks, edited = list[Task](), list[Event]()
    for uid, unit in here.units.by_uid.items():
        if not touches(unit, Window(first=first)):
            continue
        path, etag = here.places[uid]
        given = here.given.by_uid.get(uid) if here.given is not None else None
        if given is not None and not is_same_unit(given, unit):
            edited.append(unit.shown)
        shorter = _shortened(unit, first) if first is not None else None
        if shorter is None:
            tasks.append(Task("deleted", uid, path, etag, "", ""))
        else:
            one = resources(shorter, asked.part, asked.dtstamp, asked.invites)[uid]
            tasks.append(Task("updated", uid, path, etag, one.text, one.blocks))
    left = len(here.units.by_uid) - sum(task.what == "deleted" for task in tasks)
    deleted = sum(task.what == "deleted" for task in tasks)
    found = Withdrawn(deleted, len(tasks) - deleted, edited, left, len(here.foreign), [])
    if asked.is_dry:
        return found
    blocks, places, problems = dict(here.blocks), dict(here.places), list[Problem]()
    count = 0
    try:
        for task, answer in sent(collection, tasks, asked.parallel, progress):
            if answer.status in (200, 201, 204, 404, 410):
                count += task.what == "deleted"
                blocks.pop(task.uid, None)
                if task.what == "deleted":
                    places.pop(task.uid, None)
                else:
                    blocks[task.uid] = task.blocks
                    places[task.uid] = task.path, answer.headers.get("etag", "")
            else:
                problems.append(refused(task, answer, url))
    finally:
        keep(_state(here, url, blocks, places))
    return found._replace(deleted=count, problems=problems)


def _state(here: Here, url: str, blocks: dict[str, str], places: dict[str, tuple[str, str]]) -> Publication:
    return Publication(url, here.token, calendar_text(blocks, ()), places, here.foreign)


def _shortened(unit: Unit, first: dt.date) -> list[Settled] | None:
    """A series that began before a date, with an end before it; None for what begins then or later, or has one date."""
    main = unit.main
    recurrence = main.event.details.recurrence if main is not None else None
    if main is None or recurrence is None or main.event.first_day >= first:
        return None
    rules = tuple(
        rule._replace(until=first - _DAY, until_is_utc=False, times=None) for rule in recurrence.rules
    )
    also_on = tuple(day for day in recurrence.also_on if _day(day) < first)
    details = main.event.details._replace(recurrence=recurrence._replace(rules=rules, also_on=also_on))
    event = main.event._replace(details=details)
    kept = [(None, Entry(event, main.zone)), *((day, one) for day, one in unit.dates.items() if day < first)]
    uid, sequence = details.uid, details.sequence + 1
    return [
        Settled(
            one.event,
            uid,
            sequence,
            _start(event, day),
            last_start=last_start_of(one.event, as_entry(one.event).zone),
        )
        for day, one in kept
    ]


def _start(event: Event, day: dt.date | None) -> dt.date | dt.datetime | None:
    if day is None or not isinstance(event.start, dt.datetime):
        return day
    return dt.datetime.combine(day, event.start.time())


def _day(moment: dt.date | dt.datetime) -> dt.date:
    return moment.date() if isinstance(moment, dt.datetime) else moment
