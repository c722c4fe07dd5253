"""Calendar files to events: RFC 5545 text with everything that happens to it in real life.

The file is searched for its VEVENTs as bytes, and each is unfolded and decoded by itself: most need
neither mending nor a look at their parameters twice, since every property's head is remembered.
"""

import copy
import datetime as dt
from collections import Counter

from nomarium.ical.contentlines import decoded, mended, parsed, property_head, unfolder_of
from nomarium.ical.frame import blocks_in, read_frame, with_plain_ends
from nomarium.ical.memos import MomentMemo
from nomarium.ical.octets import unescaped
from nomarium.ical.plainevents import PlainEvents
from nomarium.ical.values import UnknownZone
from nomarium.ical.vevent import Properties, alarm_secs, event_details, recurrence_of
from nomarium.model.entry import Entry, Instant
from nomarium.model.event import Event
from nomarium.model.problem import Place, Problem, note
from nomarium.model.wording import counted
from nomarium.reckoning.values import length_of
from nomarium.reckoning.zones import in_zone

_DAY = dt.timedelta(days=1)
_ONCE = frozenset(
    "UID DTSTAMP SEQUENCE DTSTART DTEND DURATION SUMMARY LOCATION DESCRIPTION STATUS CLASS TRANSP URL PRIORITY "
    "GEO COLOR ORGANIZER RECURRENCE-ID".split()
)
_MANY = frozenset("CATEGORIES ATTENDEE RRULE EXRULE RDATE EXDATE".split())
_OWN = "X-NOMARIUM-"
_BASE = "X-NOMARIUM-BASE"
_BARE_CONFERENCE = "CONFERENCE;VALUE=URI"
"""What the field holds; one with a label or features is kept as a line (RFC 7986, 5.11)."""


_LEFT_OUT = {
    "VTODO": ("to-do",), "VJOURNAL": ("journal entry", "journal entries"), "VFREEBUSY": ("free-busy report",),
}  # fmt: skip
_SHOWN = 60
"""Characters of a line that a note shows."""
_BEYOND = "Its dates go beyond the years 1 to 9999."
_COUNTED = {
    "line-unread": ("line",),
    "value-unfit": ("line or value", "lines or values"),
    "stamp-floating": ("stamp",),
    "controls-removed": ("control character",),
}
_CONTROLS = bytes([*range(9), 11, 12, *range(14, 32), 127])
"""Control characters but for tabs and line ends: no text may hold them (RFC 5545, 3.3.11)."""


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
        self.read = 0
        """Components, VEVENTs and others, as they were met."""
        self.left_out = 0
        """Components that are no events."""
        self.bases: dict[int, str] = {}
        """X-NOMARIUM-BASE of events that have it, by their lines: what is known of their source."""
        self.gone: list[str] = []
        """X-NOMARIUM-GONE: events that are not to come back."""

    def with_entries(self, entries: list[Entry]) -> "CalendarRead":
        """The same with other entries."""
        other = copy.copy(self)
        other.entries = entries
        return other


def read_calendar(data: bytes, file: str, zone_name: str | None = None, unfit: int = 0) -> CalendarRead:
    """Read a calendar file, which messages call `file`. What cannot be read is a problem each. `zone_name` is
    the IANA zone of times whose own zone nothing explains; `unfit` is how many lines were left out before."""
    data = with_plain_ends(data)
    plain = data.translate(None, _CONTROLS)
    reader = _Reader(plain, file, zone_name)
    reader.counts.update({"controls-removed": len(data) - len(plain), "value-unfit": unfit})
    return reader.read()


class _Reader:
    def __init__(self, data: bytes, file: str, zone_name: str | None) -> None:
        self.data = data
        self.blocks = list(blocks_in(data))
        self.unfolded = unfolder_of(data)
        self.frame = read_frame(data, self.blocks, self.unfolded)
        self.frame.zones.fallback = zone_name
        self.found = CalendarRead(file)
        self.names: dict[str, str] = {}
        self.memos: dict[str, MomentMemo] = {}
        self.plain = PlainEvents(self.frame, self.memos)
        self.counts = Counter[str]()
        self.first: dict[str, str] = {}
        """The code of what was counted → the first line of it, where that is known."""

    def read(self) -> CalendarRead:
        data = self.data
        line_number = at = 0
        is_cancelled = self.frame.is_cancelled
        unfolded = self.unfolded
        for start, end, is_finished in self.blocks:
            line_number += data.count(b"\n", at, start)
            at = start
            self.counts["component-unfinished"] += not is_finished
            text = decoded(unfolded(data[start:end])).strip("\r\n")
            entry = None if is_cancelled else self.plain.entry(text, line_number)
            if entry is not None:
                self.found.entries.append(entry)
            else:
                self._take(text, line_number)
        self._conclude()
        return self.found

    def _take(self, text: str, line_number: int) -> None:
        try:
            properties = self._properties(text)
            entry = self._entry(properties, line_number)
        except OverflowError:  # a length, an offset or a day beyond the years that a date can have
            self._refuse("date-beyond", "VEVENT", "", _BEYOND, "Correct it in the file.", line_number)
        except _BadEventError as bad:
            self._refuse(bad.code, bad.name, bad.value, bad.message, bad.remedy, line_number)
        else:
            self.found.entries.append(entry)
            if _BASE in properties.once:
                self.found.bases[line_number] = properties.once[_BASE][1]

    def _refuse(self, code: str, name: str, value: str, message: str, remedy: str, line_number: int) -> None:
        place = Place(self.found.file, "", line_number, "", name, "line")
        self.found.problems.append(Problem(code, message, remedy, place, value))

    def _properties(self, text: str) -> Properties:
        lines = text.split("\n")
        found = self._sorted(lines)
        if found is not None:
            return found
        whole, passed_over = mended(lines)
        self.counts["line-unread"] += passed_over
        return self._sorted(whole) or Properties()

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
            elif name == "CONFERENCE" and name not in once and head.upper() == _BARE_CONFERENCE:
                once[name] = (head, value)
            elif name in _MANY:
                many.setdefault(name, []).append((head, value))
            elif name.startswith(_OWN):
                once.setdefault(name, (head, value))
            else:
                other.append(line)
        return found

    def _learn(self, line: str, colon: int) -> str | None:
        head = property_head(line, colon)
        if head is None:
            return None
        if head.name not in ("ATTENDEE", "ORGANIZER"):  # theirs are all different
            self.names[line[:colon]] = head.name
        return head.name

    def _moment(self, name: str, pair: tuple[str, str]) -> Instant:
        head, value = pair
        memo = self.memos.get(head)
        if memo is None:
            if len(self.memos) > 5_000:
                self.memos.clear()
            memo = self.memos[head] = MomentMemo(head, self.frame.zones)
        moment = memo[value]
        if isinstance(moment, str):
            unknown = isinstance(moment, UnknownZone)
            remedy = (
                "Say which zone is meant with --timezone, such as America/Halifax."
                if unknown
                else "Correct it in the file."
            )
            raise _BadEventError(
                "timezone-unknown" if unknown else "date-unread", name, pair[1], moment, remedy
            )
        if (
            self.frame.default_zone is not None
            and moment.zone is None
            and isinstance(moment.local, dt.datetime)
        ):
            self.counts["timezone-default"] += name == "DTSTART"
            return Instant(moment.local, *self.frame.default_zone)
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
            recurrence, fault = recurrence_of(found, start, self.frame.zones, keeps)
            if fault is not None:
                name, value, message = fault
                remedy = "Correct the rule in the file."
                raise _BadEventError(
                    "rule-impossible" if "RULE" in name else "date-unread", name, value, message, remedy
                )
        zones = self.frame.zones
        reminder, other = alarm_secs(found, summary, zones, self._told)
        details = event_details(found, recurrence, reminder, other, zones, self._told)
        if self.frame.is_cancelled and details.status != "CANCELLED":
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

    def _end(self, start: Instant, once: dict[str, tuple[str, str]]) -> tuple[dt.date | dt.datetime, bool]:
        """The exclusive end, and whether each repetition lasts as long on the clock (a nominal DURATION)."""
        begins = start.local
        is_timed = isinstance(begins, dt.datetime)
        if "DTEND" in once:
            end = self._moment("DTEND", once["DTEND"])
            ends = end.local
            if isinstance(ends, dt.datetime) and isinstance(begins, dt.datetime):
                if start.zone is not None and end.zone is not None and end.zone is not start.zone:
                    ends = in_zone(ends.replace(tzinfo=end.zone), start.zone)
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

    def _end_by_length(self, start: Instant, text: str) -> tuple[dt.date | dt.datetime, bool]:
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
            ends = in_zone((ends.replace(tzinfo=start.zone).astimezone(dt.UTC) + rest), start.zone)
        else:
            ends += rest
        return ends, bool(days)

    def _told(self, code: str, line: str) -> None:
        self.counts[code] += 1
        self.first.setdefault(code, line)

    def _note(self, code: str, message: str) -> None:
        self.found.notes.append(note(code, message).at(Place(self.found.file)))

    def _conclude(self) -> None:
        frame, found = self.frame, self.found
        found.name, found.color, found.gone = frame.name, frame.color, frame.gone
        found.left_out = sum(frame.others.values())
        found.read = len(self.blocks) + found.left_out
        if found.left_out:
            listed = " and ".join(counted(n, *_LEFT_OUT[kind]) for kind, n in frame.others.items())
            self._note("component-left-out", f"{listed} in it: only events are read.")
        if frame.is_unfinished:
            self._note("calendar-unfinished", "It has no END:VCALENDAR: it may have been cut short.")
        for tzid, why in self.frame.zones.unknown.items():
            self._note("timezone-mapped", f"The zone “{tzid}” {why}.")
        said = {
            "line-unread": "{} in no form that a calendar file has: passed over.",
            "value-unfit": "{} that no strict reader would take (a stamp that is no time, a position that is none, junk): left out.",
            "stamp-floating": "{} without a zone where there must be UTC: taken for UTC.",
            "controls-removed": "{} that no text may hold: removed.",
            "component-unfinished": "{} without END:VEVENT: what there is of it was read.",
            "summary-missing": "{} without a title: called “(no title)”.",
        }
        if self.frame.default_zone:
            said["timezone-default"] = (
                "{} without a zone: read in the calendar's own, " + self.frame.default_zone[0] + "."
            )
        for code, count in self.counts.items():
            if not count:
                continue
            thing = _COUNTED.get(code, ("event",))
            line = self.first.get(code, "")
            first = f" The first is “{line[:_SHOWN]}{'…' if len(line) > _SHOWN else ''}”." if line else ""
            self._note(code, said[code].format(counted(count, *thing)) + first)


class _BadEventError(Exception):
    """A VEVENT that cannot be an event: which property, its value, why, what to do."""

    def __init__(self, code: str, name: str, value: str, message: str, remedy: str) -> None:
        super().__init__(message)
        self.code, self.name, self.value, self.message, self.remedy = code, name, value, message, remedy
