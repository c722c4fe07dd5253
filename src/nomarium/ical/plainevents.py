"""The commonest events of a calendar file by the shortest way: a start, an end, texts, perhaps a category, a status, a stamp of
the last change.

The heads of an event's lines are looked up all at once, since most events of a file have the same; what its other lines say
together is worked out once. Everything here could be left to the reader of all events, at about three times the cost.
"""

import datetime as dt
import re
from typing import Final, NamedTuple

from nomarium.ical.frame import Frame
from nomarium.ical.memos import MomentMemo, StampMemo
from nomarium.ical.octets import unescaped
from nomarium.ical.vevent import Properties, alarm_secs, event_details, recurrence_of
from nomarium.model.entry import Entry, Instant
from nomarium.model.event import FACETS, Details, Event

_DAY = dt.timedelta(days=1)
_WHOLE = re.compile(r"[0-9]{1,9}").fullmatch
_MOST_SHAPES: Final = 5_000
_MOST_RESTS: Final = 20_000
_TEXTS: Final = ("UID", "DTSTAMP", "SEQUENCE", "SUMMARY", "LOCATION", "DESCRIPTION")
_STAMPS: Final = ("LAST-MODIFIED", "CREATED")
_MANY: Final = frozenset(("CATEGORIES",))
_REST: Final = frozenset(
    ("CATEGORIES", "STATUS", "CLASS", "TRANSP", "PRIORITY", "URL", "COLOR", "X-NOMARIUM-AUDIENCE",
     *(f"X-NOMARIUM-{name.upper()}" for name in (*FACETS, "periods")))
)  # fmt: skip
"""Properties whose values say the same whatever else the event has."""
_UID_AT: Final = Details._fields.index("uid")

_REMINDER_AT: Final = Details._fields.index("reminder_secs")
_KNOWN: Final = frozenset((*_TEXTS, *_STAMPS, *_REST, "RRULE"))

_Parted = tuple[str, str, str]
"""A line: its head, the colon, its value."""
_Rest = tuple[tuple[object, ...], tuple[object, ...]]


class _Shape(NamedTuple):
    """Where the properties of events stand whose lines have the same heads; -1: nowhere."""

    texts: tuple[int, ...]
    """UID, DTSTAMP, SEQUENCE, SUMMARY, LOCATION, DESCRIPTION."""
    start: int
    end: int
    starts: MomentMemo
    ends: MomentMemo | None
    rest: tuple[int, ...]
    """The lines that the details are made of."""
    stamps: tuple[tuple[str, int], ...]
    """Lines of stamps that are kept: their heads, and where they stand."""
    rests: dict[tuple[str, ...], _Rest | None]
    rule: int


class _Alarm(NamedTuple):
    """An alarm, as a reminder of an event that is called as it says, or as lines for any other."""

    secs: int | None
    text: str
    kept: tuple[str, ...]


class PlainEvents:
    """Reads the plain ones among the VEVENTs of a file."""

    def __init__(self, frame: Frame, memos: dict[str, MomentMemo]) -> None:
        self._frame, self._memos = frame, memos
        self._stamps = StampMemo(frame.zones)
        self._shapes: dict[tuple[str, ...], _Shape | None] = {}
        self._alarms: dict[str, _Alarm | None] = {}
        """Lines of an alarm → what it comes to; None for one that needs a closer look."""
        self._is_told = False

    def entry(self, text: str, line_number: int) -> Entry | None:
        """The entry of a VEVENT; None when something about it needs a closer look."""
        text, mark, alarm_text = text.partition("\nBEGIN:VALARM\n")
        parts = [line.partition(":") for line in text.split("\n")]
        heads = tuple([head for head, _, _ in parts])
        shape = self._shapes.get(heads)
        if shape is None:
            if heads in self._shapes:
                return None
            if len(self._shapes) > _MOST_SHAPES:
                self._shapes.clear()
            shape = self._shapes[heads] = self._shape(heads)
            if shape is None:
                return None
        when = _when(shape, parts)
        details = self._details(shape, parts, heads, alarm_text if mark else "", when[0]) if when else None
        if when is None or details is None:
            return None
        start, end_local = when
        local, zone_name, zone = start
        _, _, _, summary_at, location_at, description_at = shape.texts
        new = tuple.__new__  # what Event(…) does, without the cost of its defaults
        event = new(Event, (
            unescaped(parts[summary_at][2]), local, end_local, zone_name,
            unescaped(parts[location_at][2]) if location_at >= 0 else "",
            unescaped(parts[description_at][2]) if description_at >= 0 else "", details, line_number,
        ))  # fmt: skip
        return new(Entry, (event, zone, None, False))

    def _details(
        self, shape: _Shape, parts: list[_Parted], heads: tuple[str, ...], alarm_text: str, start: Instant
    ) -> Details | None:
        """All that is neither when nor a text; None where something about it is odd. `alarm_text`: the lines of its alarm."""
        (uid_at, dtstamp_at, sequence_at, summary_at, _, _) = shape.texts
        summary = parts[summary_at][2] if summary_at >= 0 else ""
        sequence = parts[sequence_at][2] if sequence_at >= 0 else "0"
        dtstamp = self._stamps[parts[dtstamp_at][2]] if dtstamp_at >= 0 else ""
        if (
            not summary
            or summary.isspace()
            or not (sequence == "0" or _WHOLE(sequence))
            or (dtstamp_at >= 0 and not dtstamp)
        ):
            return None
        other: tuple[str, ...] = ()
        for head, at in shape.stamps:
            stamp = self._stamps[parts[at][2]]
            if not stamp:
                return None
            other += (f"{head}:{stamp}",)
        rest: _Rest | None = _NO_REST
        if shape.rest:
            key = tuple([parts[at][2] for at in shape.rest])
            rest = shape.rests.get(key) or self._rest_of(shape, heads, key)
        if rest is None:
            return None
        before, after = rest
        if alarm_text:
            alarm = self._alarms[alarm_text] if alarm_text in self._alarms else self._alarm(alarm_text)
            if alarm is None:
                return None
            if alarm.secs is not None and alarm.text in ("", unescaped(summary)):
                before = (*before[:_REMINDER_AT], alarm.secs, *before[_REMINDER_AT + 1 :])
            else:
                other += alarm.kept
        if shape.rule >= 0:
            ruled = Properties()
            ruled.many["RRULE"] = [("RRULE", parts[shape.rule][2])]
            recurrence, fault = recurrence_of(ruled, start, self._frame.zones, False)
            if fault is not None or recurrence is None:
                return None
            after = (after[0], recurrence)
        # what Details(…) does, without the cost of its defaults
        return tuple.__new__(Details, (
            *before, unescaped(parts[uid_at][2].strip()) if uid_at >= 0 else "", *after, int(sequence), dtstamp, other,
        ))  # fmt: skip

    def _shape(self, heads: tuple[str, ...]) -> _Shape | None:
        """Where the properties of such an event stand; None for one that has others, or one of them twice."""
        dated = [head for head in heads if head not in _KNOWN]
        may_float = not all("TZID=" in head for head in dated)
        if (
            not 1 <= len(dated) <= 2
            or not dated[0].startswith("DTSTART")
            or (len(dated) == 2 and not dated[1].startswith("DTEND"))
            or len(set(heads)) < len(heads)
            or (may_float and self._frame.default_zone is not None)
        ):
            return None
        at = {head: n for n, head in enumerate(heads)}
        memos = [self._memos.setdefault(head, MomentMemo(head, self._frame.zones)) for head in dated]
        texts = tuple([at.get(name, -1) for name in _TEXTS])
        return _Shape(
            texts, at[dated[0]], at[dated[-1]], memos[0], memos[1] if len(memos) == 2 else None,
            tuple(n for n, head in enumerate(heads) if head in _REST),
            tuple((head, n) for n, head in enumerate(heads) if head in _STAMPS), {}, at.get("RRULE", -1),
        )  # fmt: skip

    def _rest_of(self, shape: _Shape, heads: tuple[str, ...], values: tuple[str, ...]) -> _Rest | None:
        """What the other lines say, in the order of the fields; None where one of them says something odd."""
        found = Properties()
        for at, value in zip(shape.rest, values, strict=True):
            head = heads[at]
            if head in _MANY:
                found.many[head] = [(head, value)]
            else:
                found.once[head] = (head, value)
        self._is_told = False
        details = event_details(found, None, None, (), self._frame.zones, self._told)
        if self._is_told or details.other:
            return None
        if len(shape.rests) >= _MOST_RESTS:
            shape.rests.clear()
        rest = shape.rests[values] = _around_uid(details)
        return rest

    def _alarm(self, text: str) -> _Alarm | None:
        """The one alarm that ends an event, from the lines after its beginning."""
        if len(self._alarms) >= _MOST_RESTS:
            self._alarms.clear()
        self._alarms[text] = None
        lines = text.split("\n")
        if lines[-1] != "END:VALARM" or "BEGIN:" in text or lines.count("END:VALARM") != 1:
            return None
        said = unescaped(next((line[12:] for line in lines if line.startswith("DESCRIPTION:")), ""))
        found = Properties()
        found.parts = ["BEGIN:VALARM", *lines]
        self._is_told = False
        secs, _ = alarm_secs(found, said, self._frame.zones, self._told)
        _, kept = alarm_secs(found, f"not {said}", self._frame.zones, self._told)
        if not self._is_told:
            self._alarms[text] = _Alarm(secs, said, kept)
        return self._alarms[text]

    def _told(self, _code: str, _line: str) -> None:
        self._is_told = True


def _when(shape: _Shape, parts: list[_Parted]) -> tuple[Instant, dt.date] | None:
    """The start and the end, in the start's own time; None where these need a closer look."""
    start = shape.starts[parts[shape.start][2]]
    if type(start) is not Instant:
        return None
    local, _, zone = start
    if shape.ends is None:
        if type(local) is not dt.date or local.year == dt.MAXYEAR:
            return None
        return start, local + _DAY
    end = shape.ends[parts[shape.end][2]]
    if (
        type(end) is not Instant
        or zone is not end[2]
        or type(local) is not type(end[0])
        or not local < end[0]
    ):
        return None
    return start, end[0]


def _around_uid(details: Details) -> _Rest:
    """The fields before the UID, and the facets and the recurrence after it."""
    fields: tuple[object, ...] = tuple(details)
    return fields[:_UID_AT], fields[_UID_AT + 1 : _UID_AT + 3]


_NO_REST: Final = _around_uid(Details())
