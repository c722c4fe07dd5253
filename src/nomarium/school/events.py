"""What a plan puts on calendars: meetings, the plan's own events, banners for labels, weeks and days off."""

import datetime as dt
from collections import Counter, defaultdict
from collections.abc import Iterator, Mapping
from itertools import pairwise
from typing import TYPE_CHECKING

from nomarium.model.event import Details, Event
from nomarium.model.recurrence import Recurrence, Rule
from nomarium.model.templates import filled, uses
from nomarium.model.uids import lasting_uid
from nomarium.model.wording import WEEKDAYS
from nomarium.reading.cells.people import read_list
from nomarium.reckoning.starts import starts
from nomarium.reckoning.zones import after_gap, change_dates, local_time_kind, zone_named
from nomarium.school.meetings import Meeting
from nomarium.school.plan import Plan
from nomarium.school.planheads import plain
from nomarium.school.timetable import Slot
from nomarium.school.year import SchoolDay

if TYPE_CHECKING:
    from zoneinfo import ZoneInfo

_DAY = dt.timedelta(days=1)


class _DayClock(dict[int, dt.datetime]):
    """The local times of one date by seconds after its midnight, moved on where the clock skips them."""

    def __init__(self, date: dt.date, zone: "ZoneInfo | None") -> None:
        self._midnight = dt.datetime(date.year, date.month, date.day)
        self._zone = zone if zone is not None and date in change_dates(zone, date.year) else None

    def __missing__(self, secs: int) -> dt.datetime:
        time = self._midnight + dt.timedelta(seconds=secs)
        if self._zone is not None and local_time_kind(time, self._zone) == "skipped":
            time = after_gap(time, self._zone)
        self[secs] = time
        return time


def meeting_events(plan: Plan, identity_name: str, share: range) -> Iterator[Event]:
    """The meetings of all classes as events, in the order of dates and times; those of a share of whole days. As their row
    they have the number of their slot, from 1."""
    zone_name = plan.settings.zone
    zone = zone_named(zone_name) if zone_name else None
    says_week = uses(plan.settings.title, "week") or uses(plan.settings.notes, "week")
    said: dict[tuple[object, ...], tuple[str, str, Details, str]] = {}
    names = class_names(plan)
    numbers = {id(slot): n for n, slot in enumerate(plan.slots, start=1)}
    counts: dict[str, int] = {}
    day: SchoolDay | None = None
    clock, ordinal = _DayClock(dt.date.min, None), ""
    for n in share:
        meeting = plan.meetings[n]
        slot, bells = meeting.slot, meeting.bells
        if meeting.day is not day:
            day, counts = meeting.day, {}
            clock = _DayClock(day.date, zone)
            ordinal = str(day.date.toordinal())
        code = plain(slot.code)
        counts[code] = count = counts.get(code, 0) + 1
        uid = lasting_uid(identity_name, "meeting", code, ordinal, str(count))
        start = clock[meeting.start_secs]
        end = max(start, clock[meeting.end_secs])
        week = meeting.day.week if says_week else 0
        key = id(slot), meeting.label, id(bells[0]), len(bells), meeting.day.term, week
        text = said.get(key) if n not in plan.lessons else _said(plan, meeting, n, names)
        if text is None:
            text = said[key] = _said(plan, meeting, n, names)
        summary, description, details, room = text
        yield Event(
            summary,
            start,
            end,
            zone_name,
            room,
            description,
            details._replace(uid=uid),
            numbers.get(id(slot), 0),
        )


def weekly_events(plan: Plan, identity_name: str) -> Iterator[Event]:
    """The meetings of classes on weekdays as one event a row (or drawn cell) that repeats every week; the others, and
    those whose titles or notes differ from week to week, as dated events."""
    zone_name = plan.settings.zone
    zone = zone_named(zone_name) if zone_name else None
    names = class_names(plan)
    differs = any(
        uses(text, word) for text in (plan.settings.title, plan.settings.notes) for word in ("week", "term")
    )
    groups: dict[tuple[object, ...], list[int]] = defaultdict(list)
    for n, meeting in enumerate(plan.meetings):
        slot = meeting.slot
        if meets_weekly(slot) and n not in plan.lessons and not differs:
            groups[plain(slot.code), slot.place, meeting.start_secs, meeting.end_secs].append(n)
    taken = {n for group in groups.values() if len(group) > 1 for n in group}
    for (code, place, *_), group in groups.items():
        if len(group) < 2:
            continue
        first, dates = plan.meetings[group[0]], [plan.meetings[n].day.date for n in group]
        weekdays = tuple((0, day) for day in sorted({date.weekday() for date in dates}))
        rule = Rule("WEEKLY", until=dates[-1], weekdays=weekdays)
        clock = _DayClock(dates[0], zone)
        start = clock[first.start_secs]
        every = {one.date() for one in starts(rule, start) if isinstance(one, dt.datetime)}
        summary, description, details, room = _said(plan, first, group[0], names)
        details = details._replace(
            uid=lasting_uid(identity_name, "weekly", str(code), str(place), str(first.start_secs)),
            recurrence=Recurrence((rule,), left_out=tuple(sorted(every - set(dates))), keeps_length=True),
        )
        yield Event(summary, start, max(start, clock[first.end_secs]), zone_name, room, description, details)
    dated = meeting_events(plan, identity_name, range(len(plan.meetings)))
    yield from (event for n, event in enumerate(dated) if n not in taken)


def meets_weekly(slot: Slot) -> bool:
    """Whether a class meets on a weekday, whatever the cycle."""
    return slot.label in WEEKDAYS


def shares_of(plan: Plan, count: int) -> list[range]:
    """The meetings in at most this many shares of about the same size, each of whole days."""
    meetings = plan.meetings
    bounds = [0]
    for n in range(1, count):
        at = len(meetings) * n // count
        while at < len(meetings) and meetings[at].day is meetings[at - 1].day:
            at += 1
        bounds.append(at)
    bounds.append(len(meetings))
    return [range(first, end) for first, end in pairwise(bounds) if first < end]


def class_names(plan: Plan) -> dict[str, str]:
    """What each class is called in splits and tallies, by its code's compared form: its name, with the code
    after it where two classes have one name; its code where its meetings have several."""
    codes = plan.classes
    said: dict[str, set[str]] = {}
    for slot in plan.slots:
        said.setdefault(plain(slot.code), set()).add(values_of(plan, slot)["name"])
    names = {key: next(iter(some)) if len(some) == 1 else codes[key] for key, some in said.items()}
    shared = Counter(names.values())
    return {key: name if shared[name] == 1 else f"{name} ({codes[key]})" for key, name in names.items()}


def codes_by_name(plan: Plan) -> dict[str, str]:
    """The code of each class by what it is called in splits; none where nobody is known to attend one."""
    if not plan.people.classes:
        return {}
    codes = plan.classes
    return {name: codes[key] for key, name in class_names(plan).items()}


def codes_of(plan: Plan) -> dict[tuple[str, str], str]:
    """(field, what its events say) → the code that the timetable has for it."""
    names, naming = class_names(plan), plan.naming
    found: dict[tuple[str, str], str] = {}
    for slot in plan.slots:
        found["class", names[plain(slot.code)]] = slot.code
        for kind, codes in (
            ("teacher", slot.teachers),
            ("room", (slot.room,)),
            ("group", read_list(slot.group)),
        ):
            found |= {(kind, naming.name(kind, code)): code for code in codes if code}
    return found


def values_of(plan: Plan, slot: Slot) -> dict[str, str]:
    """The fields of templates that a slot fills by itself."""
    naming = plan.naming
    named = naming.of("class", slot.code)
    room = slot.room or (named.room if named else "")
    name = (named.name if named else "") or slot.title or slot.code
    return {
        "class": slot.code, "name": name, "title": slot.title, "room": naming.name("room", room) if room else "",
        "teacher": ", ".join(naming.name("teacher", one) for one in slot.teachers),
        "group": "; ".join(naming.name("group", one) for one in read_list(slot.group)),
    }  # fmt: skip


def _said(plan: Plan, meeting: Meeting, n: int, names: dict[str, str]) -> tuple[str, str, Details, str]:
    """The title, notes, details and room of a meeting."""
    slot, day, settings = meeting.slot, meeting.day, plan.settings
    values = dict(values_of(plan, slot))
    lesson = plan.lessons.get(n)
    label = plan.naming.name("label", meeting.label) if meeting.label else ""
    values |= {
        "period": meeting.period,
        "label": label,
        "term": day.term,
        "week": str(day.week) if day.week else "",
    }
    values["lesson"] = lesson.title if lesson else ""
    title = filled(settings.title, values) or values["name"]
    if lesson and not uses(settings.title, "lesson"):
        title = f"{title}: {lesson.title}"
    parts = [
        filled(settings.notes, values) if settings.notes else "",
        slot.notes,
        lesson.notes if lesson else "",
    ]
    details = _details(plan, meeting, names)
    return title, "\n".join(part for part in parts if part), details, values["room"]


def _details(plan: Plan, meeting: Meeting, names: dict[str, str]) -> Details:
    """What of a meeting is kept as data: in categories for people, in facets for splits and tallies."""
    slot = meeting.slot
    naming, values = plan.naming, values_of(plan, slot)
    named = naming.of("class", slot.code)
    facets = {
        "class": names[plain(slot.code)], "teacher": "; ".join(naming.name("teacher", one) for one in slot.teachers),
        "room": values["room"], "group": values["group"], "division": slot.division, "term": meeting.day.term, "label": meeting.label,
        "period": meeting.period, "periods": str(len(meeting.bells)) if len(meeting.bells) > 1 else "",
    }  # fmt: skip
    categories = (*(named.categories if named else ()), values["name"])
    return Details(
        categories=tuple(dict.fromkeys(categories)),
        audience=read_list(values["group"]),
        color=named.color if named else "",
        facets=tuple((name, value) for name, value in facets.items() if value),
    )


def banners(plan: Plan, identity_name: str) -> Iterator[Event]:
    """All-day events about the year itself, which go into every calendar."""
    settings, year = plan.settings, plan.year

    def banner(kind: str, summary: str, first: dt.date, last: dt.date, category: str = "") -> Event:
        uid = lasting_uid(identity_name, kind, summary if kind == "day off" else "", str(first.toordinal()))
        details = Details(categories=(category,) if category else (), busy=False, uid=uid)
        return Event(summary, first, last + _DAY, details=details)

    if settings.show_labels:
        for day in year.days:
            text = label_title(plan, day)
            if text:
                yield banner("label", text, day.date, day.date)
    if settings.show_weeks:
        weeks: dict[tuple[str, int], list[SchoolDay]] = defaultdict(list)
        for day in year.days:
            weeks[day.term, day.week].append(day)
        for (term, number), days in weeks.items():
            label = next((day.week_label for day in days if day.week_label), "")
            title = f"{term} week {number}" + (f" ({label})" if label else "")
            yield banner("week", title.strip(), days[0].date, days[-1].date)
    if settings.show_days_off:
        for row in plan.rows.days_off:
            yield banner("day off", row.name, row.first, row.last, row.kind)


def label_title(plan: Plan, day: SchoolDay) -> str:
    """What a school day is called: the Cycle's Name, else `Day 3`, with the special day's Name after it."""
    name = plan.year.label_names.get(day.label, "")
    if not name and day.label:
        called = plan.naming.name("label", day.label)
        name = called if called != day.label or plain(called).startswith("day") else f"Day {day.label}"
    special = day.special.name if day.special else ""
    return " – ".join(part for part in (name, special) if part)


def days_without_school(plan: Plan) -> frozenset[int]:
    """The days off of the whole school, by ordinal: what repeats by the calendar skips them."""
    return frozenset(
        ordinal
        for row in plan.rows.days_off
        if not row.division
        for ordinal in range(row.first.toordinal(), row.last.toordinal() + 1)
    )


def addressed(plan: Plan, event: Event) -> Event:
    """An event whose people have the addresses that People has."""
    details = event.details
    if not details.attendees and not details.organizer:
        return event
    organizer = plan.people.addressed(details.organizer) if details.organizer else None
    attendees = tuple(one for person in details.attendees for one in plan.people.invited(person))
    return event._replace(details=details._replace(organizer=organizer, attendees=attendees))


def persons_of(plan: Plan, codes_by_name: Mapping[str, str], event: Event) -> tuple[str, ...]:
    """The people of the plan whose calendar an event belongs in; `codes_by_name` are those of classes that somebody
    attends."""
    facets = dict(event.details.facets)
    teachers = tuple(part.strip() for part in facets.get("teacher", "").split(";"))
    codes = tuple(
        one.name for one in plan.people.persons if plan.naming.name("teacher", one.name) in teachers
    )
    groups = (*event.details.audience, *read_list(facets.get("group", "")))
    code = codes_by_name.get(facets.get("class", ""), "")
    return plan.people.names_of((*teachers, *codes), groups, code)
