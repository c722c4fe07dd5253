"""Calendar files to events: RFC 5545 text with everything that happens to it in real life.

The file is searched for its VEVENTs as bytes, and each is unfolded and decoded by itself: most need
neither mending nor a look at their parameters twice, since every property's head is remembered.
"""

from __future__ import annotations

import datetime as dt
import re
from collections import Counter
from collections.abc import Iterator
from typing import NamedTuple

from nomarium.ical.content import decoded, head_of, mended, parsed, unfolded_octets
from nomarium.ical.filezones import FileZone, Zone, ZoneNames, read_vtimezone
from nomarium.ical.octets import unescaped
from nomarium.ical.properties import (
    Properties,
    alarm_secs,
    details_of,
    length_of,
    recurrence_of,
)
from nomarium.ical.timezones import in_zone
from nomarium.ical.values import Moment, moment_of
from nomarium.model.event import Event
from nomarium.model.problem import Place, Problem, note

_DAY = dt.timedelta(days=1)
_BEGIN = rb"(?m)^BEGIN:VEVENT[ \t]*\r?$"
_END = rb"(?m)^END:(VEVENT|VCALENDAR)[ \t]*\r?$"
_ONCE = frozenset(
    "UID DTSTAMP SEQUENCE DTSTART DTEND DURATION SUMMARY LOCATION DESCRIPTION STATUS CLASS TRANSP URL PRIORITY "
    "GEO COLOR ORGANIZER RECURRENCE-ID".split()
)
_MANY = frozenset("CATEGORIES ATTENDEE RRULE EXRULE RDATE EXDATE".split())
_OWN = "X-NOMARIUM-"
_LEFT_OUT = {"VTODO": "to-do", "VJOURNAL": "journal entry", "VFREEBUSY": "free-busy report"}


class Entry(NamedTuple):
    """One VEVENT."""

    event: Event
    """Its recurrence, if any, is in its details. Times are local in its zone."""
    zone: Zone | None = None
    """The zone of its times; not None with `event.zone` None when only the file explains the zone."""
    original: Moment | None = None
    """The start that it replaces in its series (RECURRENCE-ID)."""
    and_following: bool = False
    """Whether it holds for all later ones too (RANGE=THISANDFUTURE)."""


class CalendarRead:
    """What was found in one calendar file."""

    def __init__(self, file: str) -> None:
        self.file = file
        self.name = ""
        self.color = ""
        self.entries: list[Entry] = []
        self.problems: list[Problem] = []
        """One for each VEVENT that is no entry."""
        self.notes: list[Problem] = []
        self.left_out = 0
        """Components that are no events."""


def read_calendar(data: bytes, file: str) -> CalendarRead:
    """Read a calendar file, which messages call `file`. What cannot be read is a problem each."""
    return _Reader(_normal(data), file).read()


def _normal(data: bytes) -> bytes:
    """UTF-8 or Windows-1252 with LF or CRLF line ends, component names in upper case."""
    if data.startswith((b"\xff\xfe", b"\xfe\xff")):
        data = data.decode("utf-16", "replace").encode()
    data = data.removeprefix(b"\xef\xbb\xbf")
    if b"\n" not in data:
        data = data.replace(b"\r", b"\n")
    if b"BEGIN:VCALENDAR" not in data or re.search(rb"(?m)^[bB]egin:|^(?:BEGIN|END):.*[a-z]", data):
        data = re.sub(rb"(?im)^(?:begin|end):[a-z-]+", lambda match: match[0].upper(), data)
    return data


class _Reader:
    def __init__(self, data: bytes, file: str) -> None:
        self.data = data
        self.found = CalendarRead(file)
        self.names: dict[str, str] = {}
        self.moments: dict[tuple[str, str], Moment | str] = {}
        self.zones = ZoneNames({}, {})
        self.methods: list[str] = []
        self.default_zone: tuple[str, Zone] | None = None
        self.counts = Counter[str]()
        self.is_cancelled = False

    def read(self) -> CalendarRead:
        blocks = list(self._blocks())
        self._read_frame(blocks)
        self.is_cancelled = self._is_cancelled()
        line_number, at = 1, 0
        for start, end in blocks:
            line_number += self.data.count(b"\n", at, start)
            at = start
            self._take(decoded(unfolded_octets(self.data[start:end])), line_number)
        self._conclude()
        return self.found

    def _blocks(self) -> Iterator[tuple[int, int]]:
        """Where the text of each VEVENT is, from after its BEGIN to before its END or what comes instead."""
        begins = [(match.start(), match.end()) for match in re.finditer(_BEGIN, self.data)]
        find_end = re.compile(_END).search
        for number, (_, start) in enumerate(begins):
            limit = begins[number + 1][0] if number + 1 < len(begins) else len(self.data)
            end = find_end(self.data, start, limit)
            if end is None or end[1] != b"VEVENT":
                self.counts["component-unfinished"] += 1
            yield start, end.start() if end else limit

    def _read_frame(self, blocks: list[tuple[int, int]]) -> None:
        """Everything around the events: the calendar's own properties, its zones, other components."""
        own: dict[str, FileZone] = {}
        hints: dict[str, str] = {}
        zone_lines: list[str] | None = None
        depth = 0
        begun = ended = 0
        others = Counter[str]()
        at = 0
        for start, end in [*blocks, (len(self.data), len(self.data))]:
            for line in decoded(unfolded_octets(self.data[at:start])).replace("\r", "\n").split("\n"):
                if line == "BEGIN:VTIMEZONE":
                    zone_lines = []
                elif line == "END:VTIMEZONE" and zone_lines is not None:
                    tzid, zone, hint = read_vtimezone(zone_lines)
                    zone_lines = None
                    hints[tzid] = hint
                    if zone is not None:
                        own[tzid] = zone
                elif zone_lines is not None:
                    zone_lines.append(line)
                elif line.startswith("BEGIN:"):
                    kind = line[6:].strip()
                    begun += kind == "VCALENDAR"
                    if kind in _LEFT_OUT and depth <= 1:
                        others[kind] += 1
                    depth += kind not in ("VCALENDAR", "VEVENT")
                    if kind == "VCALENDAR":
                        depth = 0
                        self.methods.append("")
                elif line.startswith("END:"):
                    ended += line[4:].strip() == "VCALENDAR"
                    depth -= line[4:].strip() not in ("VCALENDAR", "VEVENT") and depth > 0
                elif depth == 0 and line:
                    self._calendar_property(line)
            at = end
        self.zones = ZoneNames(own, hints)
        self.found.left_out = sum(others.values())
        if others:
            listed = " and ".join(f"{n:,} {_LEFT_OUT[kind]}{_plural(n)}" for kind, n in others.items())
            self._note("component-left-out", f"{listed} in it: only events are read.")
        if begun > ended:
            self._note("calendar-unfinished", "It has no END:VCALENDAR: it may have been cut short.")

    def _calendar_property(self, line: str) -> None:
        found = parsed(line)
        if found is None:
            return
        name, value = found[0].name, unescaped(found[1]).strip()
        if name in ("NAME", "X-WR-CALNAME") and not self.found.name:
            self.found.name = value
        elif name == "COLOR":
            self.found.color = value.casefold()
        elif name == "METHOD" and self.methods:
            self.methods[-1] = value.upper()
        elif name == "X-WR-TIMEZONE":
            zone_name, zone = self.zones.find(value)
            if zone_name and zone is not None and zone_name != "UTC":
                self.default_zone = zone_name, zone

    def _is_cancelled(self) -> bool:
        """Whether the whole file withdraws its events (RFC 5546, 3.2.5)."""
        return bool(self.methods) and all(method == "CANCEL" for method in self.methods)

    def _take(self, text: str, line_number: int) -> None:
        try:
            entry = self._entry(self._properties(text), line_number)
        except _BadEventError as bad:
            place = Place(self.found.file, "", line_number, "", bad.name, "line")
            self.found.problems.append(Problem(bad.code, bad.message, bad.remedy, place, bad.value))
            return
        self.found.entries.append(entry)

    def _properties(self, text: str) -> Properties:
        lines = text.replace("\r\n", "\n").split("\n")
        found = self._sorted(lines)
        return found if found is not None else self._sorted(mended(lines)) or Properties()

    def _sorted(self, lines: list[str]) -> Properties | None:
        """The properties of a VEVENT; None when some line is no content line."""
        found = Properties()
        once, many, other, names = found.once, found.many, found.other, self.names
        inside = 0
        for line in lines:
            if not line:
                continue
            head, colon, value = line.partition(":")
            if head == "BEGIN":
                inside += 1
            elif head == "END" and inside:
                inside -= 1
                found.parts.append(line)
                continue
            if inside:
                found.parts.append(line)
                continue
            name = names.get(head)
            if name is None and (not colon or (name := self._learn(line, len(head))) is None):
                read = parsed(line)
                if read is None:
                    return None
                name, value = read[0].name, read[1]
                head = line[: len(line) - len(value) - 1]
            if name in _ONCE:
                if name not in once:
                    once[name] = (head, value)
            elif name in _MANY:
                many.setdefault(name, []).append((head, value))
            elif name.startswith(_OWN):
                once.setdefault(name, (head, value))
            else:
                other.append(line)
        return found

    def _learn(self, line: str, colon: int) -> str | None:
        head = head_of(line, colon)
        if head is None:
            return None
        if head.name not in ("ATTENDEE", "ORGANIZER"):  # theirs are all different
            self.names[line[:colon]] = head.name
        return head.name

    def _moment(self, name: str, pair: tuple[str, str]) -> Moment:
        moment = self.moments.get(pair)
        if moment is None:
            if len(self.moments) > 50_000:
                self.moments.clear()
            moment = self.moments[pair] = moment_of(*pair, self.zones)
        if isinstance(moment, str):
            unknown = "zone" in moment
            remedy = (
                "Name an IANA zone there, such as America/Halifax." if unknown else "Correct it in the file."
            )
            raise _BadEventError(
                "timezone-unknown" if unknown else "date-unread", name, pair[1], moment, remedy
            )
        if self.default_zone is not None and moment.zone is None and isinstance(moment.local, dt.datetime):
            self.counts["timezone-default"] += name == "DTSTART"
            return Moment(moment.local, *self.default_zone)
        return moment

    def _entry(self, found: Properties, line_number: int) -> Entry:
        once = found.once
        if "DTSTART" not in once:
            raise _BadEventError(
                "start-missing", "VEVENT", "", "The event has no DTSTART.", "Give it one in the file."
            )
        start = self._moment("DTSTART", once["DTSTART"])
        end, keeps = self._end(start, once)
        summary = unescaped(once["SUMMARY"][1]) if "SUMMARY" in once else ""
        if not summary.strip():
            self.counts["summary-missing"] += 1
            summary = "(no title)"
        recurrence = None
        if found.many:
            recurrence, fault = recurrence_of(found, start, self.zones, keeps)
            if fault is not None:
                name, value, message = fault
                remedy = "Correct the rule in the file."
                raise _BadEventError(
                    "rule-impossible" if "RULE" in name else "date-unread", name, value, message, remedy
                )
        reminder, other = alarm_secs(found, summary)
        details = details_of(found, recurrence, reminder, other)
        if self.is_cancelled and details.status != "CANCELLED":
            details = details._replace(status="CANCELLED")
        location = unescaped(once["LOCATION"][1]) if "LOCATION" in once else ""
        description = unescaped(once["DESCRIPTION"][1]) if "DESCRIPTION" in once else ""
        event = Event(summary, start.local, end, start.zone_name, location, description, details, line_number)
        if "RECURRENCE-ID" not in once:
            return Entry(event, start.zone)
        head, _ = once["RECURRENCE-ID"]
        replaced = self._moment("RECURRENCE-ID", once["RECURRENCE-ID"])
        following = "RANGE=THISANDFUTURE" in head.upper()
        return Entry(event, start.zone, replaced, following)

    def _end(self, start: Moment, once: dict[str, tuple[str, str]]) -> tuple[dt.date | dt.datetime, bool]:
        """The exclusive end, and whether each repetition lasts as long on the clock (a nominal DURATION)."""
        begins = start.local
        is_timed = isinstance(begins, dt.datetime)
        if "DTEND" in once:
            end = self._moment("DTEND", once["DTEND"])
            ends = end.local
            if isinstance(ends, dt.datetime) and isinstance(begins, dt.datetime):
                if start.zone is not None and end.zone is not None and end.zone is not start.zone:
                    ends = in_zone(ends.replace(tzinfo=end.zone), start.zone)  # type: ignore[arg-type]
            elif is_timed:
                ends = dt.datetime.combine(ends, dt.time(0))
            elif isinstance(ends, dt.datetime):
                ends = ends.date() + _DAY if ends.time() > dt.time(0) else ends.date()
            if ends < begins:
                message = f"It ends at {ends}, before it starts at {begins}."
                raise _BadEventError(
                    "end-before-start", "DTEND", once["DTEND"][1], message, "Correct it in the file."
                )
            if not is_timed and ends == begins:  # 3.8.2.2 asks for a later one; written for one day
                ends += _DAY
            return ends, False
        if "DURATION" in once:
            return self._end_by_length(start, once["DURATION"][1])
        return (begins if is_timed else begins + _DAY), False

    def _end_by_length(self, start: Moment, text: str) -> tuple[dt.date | dt.datetime, bool]:
        length = length_of(text)
        if length is None:
            raise _BadEventError(
                "length-unread", "DURATION", text, f"“{text}” is no duration.", "Correct it in the file."
            )
        if length < dt.timedelta(0):
            message = f"A duration of {text} ends before it starts."
            raise _BadEventError("end-before-start", "DURATION", text, message, "Correct it in the file.")
        begins = start.local
        if not isinstance(begins, dt.datetime):
            return begins + max(dt.timedelta(-(-length // _DAY)), _DAY), False
        days, rest = dt.timedelta(length.days), dt.timedelta(seconds=length.seconds)
        ends = begins + days  # 3.3.6: days are nominal, hours exact
        if rest and start.zone is not None:
            ends = in_zone((ends.replace(tzinfo=start.zone).astimezone(dt.UTC) + rest), start.zone)  # type: ignore[arg-type]
        else:
            ends += rest
        return ends, bool(days)

    def _note(self, code: str, message: str) -> None:
        self.found.notes.append(note(code, message).at(Place(self.found.file)))

    def _conclude(self) -> None:
        for tzid, why in self.zones.unknown.items():
            self._note("timezone-mapped", f"The zone “{tzid}” {why}.")
        said = {
            "component-unfinished": "{} without END:VEVENT: what there is of it was read.",
            "summary-missing": "{} without a title: called “(no title)”.",
        }
        if self.default_zone:
            said["timezone-default"] = (
                "{} without a zone: read in the calendar's own, " + self.default_zone[0] + "."
            )
        for code, count in self.counts.items():
            if not count:
                continue
            self._note(code, said[code].format(f"{count:,} event{_plural(count)}"))


class _BadEventError(Exception):
    """A VEVENT that cannot be an event: which property, its value, why, what to do."""

    def __init__(self, code: str, name: str, value: str, message: str, remedy: str) -> None:
        super().__init__(message)
        self.code, self.name, self.value, self.message, self.remedy = code, name, value, message, remedy


def _plural(count: int) -> str:
    return "" if count == 1 else "s"
