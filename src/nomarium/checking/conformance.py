"""Whether a calendar file keeps to RFC 5545, line by line, and what a strict reader would do where it does not."""

import re
from collections import Counter
from collections.abc import Iterator, Sequence
from typing import Final, NamedTuple

from nomarium.checking.finding import Finding, Party
from nomarium.ical.contentlines import PropertyHead, decoded, parsed
from nomarium.reckoning.rules import RuleFault, parse_rule

RFC_CODES: Final = (
    "rfc-line-end", "rfc-line-long", "rfc-line", "rfc-control", "rfc-structure", "rfc-missing", "rfc-doubled", "rfc-value",
    "rfc-zone", "rfc-order", "rfc-alarm",
)  # fmt: skip
_LONGEST: Final = 75
_ONCE: Final = frozenset(
    "UID DTSTAMP DTSTART DTEND DURATION CLASS CREATED DESCRIPTION GEO LAST-MODIFIED LOCATION ORGANIZER PRIORITY SEQUENCE STATUS "
    "SUMMARY TRANSP URL RECURRENCE-ID".split()
)
"""What a VEVENT may have once (RFC 5545, 3.6.1)."""
_DATE, _MOMENT = r"\d{8}", r"\d{8}T\d{6}Z?"
_DURATION = r"[+-]?P(?:\d+W|(?:\d+D)?(?:T(?=\d)(?:\d+H)?(?:\d+M)?(?:\d+S)?)?)"
_VALUES: Final = {
    "DTSTAMP": (r"\d{8}T\d{6}Z", "a time in UTC"),
    "CREATED": (r"\d{8}T\d{6}Z", "a time in UTC"),
    "LAST-MODIFIED": (r"\d{8}T\d{6}Z", "a time in UTC"),
    "DTSTART": (rf"{_DATE}|{_MOMENT}", "a date or a time"),
    "DTEND": (rf"{_DATE}|{_MOMENT}", "a date or a time"),
    "RECURRENCE-ID": (rf"{_DATE}|{_MOMENT}", "a date or a time"),
    "DURATION": (_DURATION, "a length"),
    "SEQUENCE": (r"\d+", "a whole number"),
    "PRIORITY": (r"\d", "a figure from 0 to 9"),
    "STATUS": (r"(?i)TENTATIVE|CONFIRMED|CANCELLED", "TENTATIVE, CONFIRMED or CANCELLED"),
    "TRANSP": (r"(?i)OPAQUE|TRANSPARENT", "OPAQUE or TRANSPARENT"),
    "GEO": (r"[+-]?\d+(?:\.\d+)?;[+-]?\d+(?:\.\d+)?", "two numbers parted by a semicolon"),
}


class _Line(NamedTuple):
    """An unfolded line, and the number of its first one in the file."""

    number: int
    head: PropertyHead
    value: str


class _Component(NamedTuple):
    name: str
    number: int
    lines: list[_Line]
    inside: "list[_Component]"


def conformance(octets: bytes, file: str) -> list[Finding]:
    """What of a file breaks the standard, in the order of its lines."""
    checker = _Checker(file)
    checker.check_octets(octets)
    root = checker.parsed(octets)
    for calendar in root.inside:
        checker.check_calendar(calendar)
    return sorted(checker.findings, key=lambda one: _line_of(one))


def _line_of(finding: Finding) -> int:
    match = re.search(r"line (\d+)$", finding.events[0].source)
    return int(match[1]) if match else 0


class _Checker:
    def __init__(self, file: str) -> None:
        self.file = file
        self.findings: list[Finding] = []
        self._seen = Counter[str]()
        self._zones = set[str]()
        """Zones that nothing explains and that were told."""

    def tell(self, code: str, number: int, message: str, component: "_Component | None" = None) -> None:
        """Write a finding down, of each kind of a file the first hundred."""
        self._seen[code] += 1
        if self._seen[code] > 100:
            return
        lines = {line.head.name: line.value for line in component.lines} if component else {}
        party = Party(
            lines.get("SUMMARY", ""), _iso(lines.get("DTSTART", "")), _iso(lines.get("DTEND", "")), lines.get("UID", ""), f"{self.file}, line {number}"
        )  # fmt: skip
        self.findings.append(Finding(code, "", (), (party,), message))

    def check_octets(self, octets: bytes) -> None:
        """Line ends, lengths and control characters (RFC 5545, 3.1)."""
        lines = octets.split(b"\n")
        bare_ends = b"\r\n" not in octets
        if bare_ends and len(lines) > 2:
            message = f"No line ends with CR and LF, all {len(lines) - 1:,} with LF alone: a strict reader takes the file for one line."
            self.tell("rfc-line-end", 1, message)
        for number, line in enumerate(lines[:-1] if lines[-1] == b"" else lines, start=1):
            is_last = number == len(lines)
            if not bare_ends and not line.endswith(b"\r") and not (is_last and not line):
                message = "The line does not end with CR and LF: a strict reader takes it and the next one for one line."
                self.tell("rfc-line-end", number, message)
            bare = line.removesuffix(b"\r")
            if len(bare) > _LONGEST:
                message = f"The line has {len(bare)} octets, and may have {_LONGEST}: a strict reader refuses it or cuts it."
                self.tell("rfc-line-long", number, message)
            if re.search(rb"[\x00-\x08\x0b-\x1f\x7f]", bare):
                self.tell(
                    "rfc-control",
                    number,
                    "The line holds a control character, which no text may: a strict reader refuses the file.",
                )

    def parsed(self, octets: bytes) -> _Component:
        """The components of the file, one in another."""
        root = _Component("", 0, [], [])
        stack = [root]
        for number, line in _unfolded(octets):
            found = parsed(line) if line.strip() else None
            if found is None:
                if line.strip():
                    self.tell(
                        "rfc-line",
                        number,
                        f"“{line[:60]}” is no property with a name and a value: a strict reader stops here.",
                    )
                continue
            head, value = found
            if head.name == "BEGIN":
                component = _Component(value.strip().upper(), number, [], [])
                stack[-1].inside.append(component)
                stack.append(component)
            elif head.name == "END":
                if len(stack) == 1 or stack[-1].name != value.strip().upper():
                    open_one = stack[-1].name or "nothing"
                    self.tell(
                        "rfc-structure", number, f"END:{value.strip()} stands where {open_one} is open."
                    )
                if len(stack) > 1:
                    stack.pop()
            else:
                stack[-1].lines.append(_Line(number, head, value))
        for component in stack[1:]:
            self.tell(
                "rfc-structure",
                component.number,
                f"BEGIN:{component.name} has no END: a strict reader drops it.",
            )
        return root

    def check_calendar(self, calendar: _Component) -> None:
        """What a VCALENDAR must have, and what is in it (RFC 5545, 3.6)."""
        if calendar.name != "VCALENDAR":
            self.tell("rfc-structure", calendar.number, f"{calendar.name} stands outside a VCALENDAR.")
            self.check_part(calendar, frozenset(), False)
            return
        self._needs(calendar, ("PRODID", "VERSION"))
        zones = frozenset(
            line.value
            for zone in calendar.inside
            if zone.name == "VTIMEZONE"
            for line in zone.lines
            if line.head.name == "TZID"
        )
        has_method = any(line.head.name == "METHOD" for line in calendar.lines)
        for part in calendar.inside:
            self.check_part(part, zones, has_method)

    def check_part(self, part: _Component, zones: frozenset[str], has_method: bool) -> None:
        """A component of a calendar: VEVENTs, as all that this program reads."""
        if part.name != "VEVENT":
            return
        self._needs(part, ("UID", "DTSTAMP", *(() if has_method else ("DTSTART",))))
        counts = Counter(line.head.name for line in part.lines)
        for line in part.lines:
            if line.head.name in _ONCE and counts[line.head.name] > 1:
                counts[line.head.name] = 0  # told once
                self.tell(
                    "rfc-doubled",
                    line.number,
                    f"{line.head.name} is there more than once: readers differ in which one they take.",
                    part,
                )
            self._check_value(line, part)
            zone = line.head.params.get("TZID")
            if zone is not None and zone not in (zones | self._zones) and not zone.startswith("/"):
                self._zones.add(zone)
                self.tell(
                    "rfc-zone",
                    line.number,
                    f"No VTIMEZONE explains “{zone}”: a strict reader does not know when this is.",
                    part,
                )
        self._check_ends(part)
        for alarm in part.inside:
            if alarm.name == "VALARM":
                missing = [
                    name
                    for name in ("ACTION", "TRIGGER")
                    if not any(line.head.name == name for line in alarm.lines)
                ]
                if missing:
                    self.tell(
                        "rfc-alarm",
                        alarm.number,
                        f"The alarm has no {' and no '.join(missing)}: a strict reader drops it.",
                        part,
                    )

    def _needs(self, component: _Component, names: Sequence[str]) -> None:
        there = {line.head.name for line in component.lines}
        for name in names:
            if name not in there:
                message = f"The {component.name} has no {name}: a strict reader refuses it."
                self.tell("rfc-missing", component.number, message, component)

    def _check_value(self, line: _Line, part: _Component) -> None:
        name, value = line.head.name, line.value.strip()
        if name == "RRULE":
            parts = dict(one.partition("=")[::2] for one in value.upper().split(";"))
            rule = parse_rule(value)
            if "COUNT" in parts and "UNTIL" in parts:
                self.tell(
                    "rfc-value",
                    line.number,
                    "RRULE has both COUNT and UNTIL: readers differ in which one they take.",
                    part,
                )
            elif isinstance(rule, RuleFault):
                self.tell(
                    "rfc-value",
                    line.number,
                    f"RRULE “{value}” is no rule: a strict reader drops the repeats.",
                    part,
                )
            return
        known = _VALUES.get(name)
        if known is not None and not re.fullmatch(known[0], value):
            self.tell(
                "rfc-value",
                line.number,
                f"{name} “{value[:60]}” is not {known[1]}: a strict reader drops the event.",
                part,
            )
        elif name in ("DTSTART", "DTEND", "RECURRENCE-ID") and (len(value) == 8) != (
            line.head.params.get("VALUE", "").upper() == "DATE"
        ):
            what = "a date without VALUE=DATE" if len(value) == 8 else "a time with VALUE=DATE"
            self.tell("rfc-value", line.number, f"{name} is {what}: a strict reader drops the event.", part)

    def _check_ends(self, part: _Component) -> None:
        """DTEND against DTSTART and DURATION (RFC 5545, 3.6.1 and 3.8.2.2)."""
        first = {line.head.name: line for line in reversed(part.lines)}
        start, end = first.get("DTSTART"), first.get("DTEND")
        if end is not None and "DURATION" in first:
            self.tell(
                "rfc-doubled", end.number, "The event has DTEND and DURATION: it may have one of them.", part
            )
        if start is None or end is None:
            return
        a, b = start.value.strip(), end.value.strip()
        if (len(a) == 8) != (len(b) == 8):
            self.tell(
                "rfc-value",
                end.number,
                "DTSTART and DTEND are not of one type: one is a date, the other a time.",
                part,
            )
        elif len(a) == len(b) and start.head.params.get("TZID") == end.head.params.get("TZID") and b < a:
            self.tell(
                "rfc-order",
                end.number,
                f"DTEND {b} is before DTSTART {a}: a strict reader drops the event.",
                part,
            )


def _iso(text: str) -> str:
    """A date or time of a calendar file as ISO 8601 has it; anything else as it stands."""
    return re.sub(
        r"^(\d{4})(\d\d)(\d\d)(?:T(\d\d)(\d\d)(\d\d)Z?)?$",
        lambda m: f"{m[1]}-{m[2]}-{m[3]}" + (f"T{m[4]}:{m[5]}:{m[6]}" if m[4] else ""),
        text,
    )


def _unfolded(octets: bytes) -> Iterator[tuple[int, str]]:
    """The lines with the numbers of their first ones."""
    number, held = 0, b""
    begin = 1
    for line in octets.split(b"\n"):
        number += 1
        line = line.removesuffix(b"\r")
        if line[:1] in (b" ", b"\t") and held:
            held += line[1:]
            continue
        if held:
            yield begin, decoded(held)
        held, begin = line, number
    if held:
        yield begin, decoded(held)
