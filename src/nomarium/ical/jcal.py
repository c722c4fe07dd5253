"""jCal, the JSON form of calendar files, to content lines and back (RFC 7265)."""

import json
import re
from collections.abc import Callable, Iterable, Iterator
from typing import Any, TextIO, TypeAlias

from nomarium.ical.contentlines import parsed, split_list
from nomarium.ical.octets import bare, escaped, folded, parameter, unescaped

Json: TypeAlias = Any
"""What a JSON document is read as (RFC 7265, 3)."""
_TYPES = {
    name: kind
    for kind, names in {
        "date-time": "dtstart dtend due recurrence-id exdate rdate dtstamp created last-modified completed",
        "duration": "duration trigger",
        "recur": "rrule exrule",
        "uri": "url attach tzurl image conference source",
        "cal-address": "attendee organizer",
        "integer": "priority sequence percent-complete repeat",
        "float": "geo",
        "utc-offset": "tzoffsetfrom tzoffsetto",
        "text": "summary description location categories class status transp uid comment contact resources "
        "related-to prodid version calscale method name color tzid tzname action request-status",
    }.items()
    for name in names.split()
}
"""The type of each property's value when no VALUE says otherwise (RFC 5545, 3.8; RFC 7986)."""

_LISTS = frozenset(("categories", "resources", "exdate", "rdate", "freebusy"))
_DATE = r"(\d{4})-?(\d\d)-?(\d\d)"
_DATE_TIME = rf"{_DATE}T(\d\d):?(\d\d):?(\d\d)(Z?)"


def write_jcal(lines: Iterable[str], target: TextIO) -> None:
    """Write the unfolded content lines of one VCALENDAR as a jCal document, component by component."""
    depth = 0
    head: list[Json] = []
    stack: list[list[Json]] = []
    written = 0
    for line in lines:
        if line.startswith("BEGIN:"):
            depth += 1
            if depth > 1:
                stack.append([line[6:].lower(), [], []])
        elif line.startswith("END:"):
            depth -= 1
            if depth == 1:
                opening = f'["vcalendar",{_json(head)},[\n' if not written else ",\n"
                target.write(opening + _json(stack.pop()))
                written += 1
            elif depth > 1:
                done = stack.pop()
                stack[-1][2].append(done)
        else:
            (stack[-1][1] if stack else head).append(_property(line))
    target.write("\n]]\n" if written else f'["vcalendar",{_json(head)},[]]\n')


def _json(value: Json) -> str:
    return json.dumps(value, ensure_ascii=False, separators=(",", ":"))


def _property(line: str) -> list[Json]:
    """A content line as [name, parameters, type, value …] (RFC 7265, 3.4)."""
    found = parsed(line)
    assert found is not None
    head, value = found
    name = head.name.lower()
    params = {key.lower(): text for key, text in head.params.items() if key != "VALUE"}
    kind = head.params.get("VALUE", "").lower() or _TYPES.get(name, "unknown")
    values = split_list(value) if name in _LISTS else [value]
    if name == "geo":
        return [name, params, kind, [float(part) for part in value.split(";")]]
    return [name, params, kind, *(_value(kind, text) for text in values)]


def _value(kind: str, text: str) -> Json:
    if kind == "text":
        return unescaped(text)
    if kind in ("date", "date-time"):
        return _dashed(text)
    if kind == "period":
        return [_dashed(part) for part in text.split("/")]
    if kind == "recur":
        return _recur(text)
    if kind == "utc-offset":
        return f"{text[:3]}:{text[3:5]}" + (f":{text[5:]}" if text[5:] else "")
    if kind == "integer" and re.fullmatch(r"-?\d+", text):
        return int(text)
    return text


def _dashed(text: str) -> str:
    """A date or date-time with the signs that jCal wants; a duration as it stands."""
    if match := re.fullmatch(_DATE_TIME, text):
        year, month, day, hour, minute, second, utc = match.groups()
        return f"{year}-{month}-{day}T{hour}:{minute}:{second}{utc}"
    if match := re.fullmatch(_DATE, text):
        return "-".join(match.groups())
    return text


def _recur(text: str) -> dict[str, Json]:
    found: dict[str, Json] = {}
    for piece in text.split(";"):
        name, _, value = piece.partition("=")
        items = [int(part) if re.fullmatch(r"-?\d+", part) else part for part in value.split(",")]
        if name == "UNTIL":
            found["until"] = _dashed(value)
        elif name:
            found[name.lower()] = items[0] if len(items) == 1 else items
    return found


def lines_of(document: Json, drop: Callable[[], None]) -> Iterator[str]:
    """The folded content lines of a parsed jCal document: one VCALENDAR or a list of them.

    A name or a type that RFC 7265, 3.3 and 3.4 do not allow could begin lines of its own: such a property or component
    is left out, and `drop` is told. Raises ValueError when it is no jCal.
    """
    calendars = [document] if document and isinstance(document[0], str) else document
    for calendar in calendars:
        yield from map(folded, _component_lines(calendar, drop))


def _component_lines(component: Json, drop: Callable[[], None]) -> Iterator[str]:
    try:
        name, properties, parts = component
        if not _is_name(name):
            drop()
            return
        yield f"BEGIN:{name.upper()}"
        for one in properties:
            line = _line(*one)
            if line:
                yield line
            else:
                drop()
        for part in parts:
            yield from _component_lines(part, drop)
        yield f"END:{name.upper()}"
    except (TypeError, ValueError, AttributeError, KeyError, IndexError) as error:
        raise ValueError("not a component of jCal") from error


def _is_name(text: Json) -> bool:
    return re.fullmatch(r"[A-Za-z0-9-]+", text) is not None and text.upper() not in ("BEGIN", "END")


def _line(name: str, params: dict[str, Json], kind: str, *values: Json) -> str:
    """The content line of a property; blank where a name in it is none."""
    if not all(map(_is_name, (name, kind, *params))):
        return ""
    head = name.upper()
    for key, text in params.items():
        if key.upper() == "VALUE":  # its place is the type (RFC 7265, 3.4)
            continue
        texts = text if isinstance(text, list) else [text]
        head += f";{key.upper()}={','.join(parameter(str(one)) for one in texts)}"
    if kind not in ("unknown", _TYPES.get(name)):
        head += f";VALUE={kind.upper()}"
    if name == "geo":
        return bare(f"{head}:{';'.join(str(part) for part in values[0])}")
    texts = [_text(kind, value) for value in values]
    return f"{head}:{','.join(texts if kind == 'text' else map(bare, texts))}"


def _text(kind: str, value: Json) -> str:
    if kind == "text":
        return ";".join(map(escaped, value)) if isinstance(value, list) else escaped(str(value))
    if kind == "recur":
        pairs = ((key, item if isinstance(item, list) else [item]) for key, item in value.items())
        return ";".join(
            f"{key.upper()}={','.join(_plain(str(one)) for one in items)}" for key, items in pairs
        )
    if kind == "period":
        return "/".join(_plain(part) for part in (value if isinstance(value, list) else value.split("/")))
    if kind in ("date", "date-time"):
        return _plain(value)
    if kind == "utc-offset":
        return str(value).replace(":", "")
    return str(value)


def _plain(text: str) -> str:
    """A date or date-time without its signs; anything else as it stands."""
    is_moment = re.fullmatch(_DATE, text) or re.fullmatch(_DATE_TIME, text)
    return text.replace("-", "").replace(":", "") if is_moment else text
