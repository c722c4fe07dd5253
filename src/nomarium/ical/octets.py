"""The lowest layer of a calendar file: escaped text, folded lines, CRLF (RFC 5545, 3.1 and 3.3.11)."""

import re
from collections.abc import Iterable, Iterator

MAX_OCTETS = 75
"""The longest line, its CRLF not counted (RFC 5545, 3.1)."""

_CONTROLS = r"[\x00-\x08\x0b\x0c\x0e-\x1f\x7f]"
"""What a text value may not hold: every control character but tab and the line break."""


def escaped(text: str) -> str:
    r"""A text value as RFC 5545, 3.3.11 writes it.

    >>> escaped("Oak; ash, elm")
    'Oak\\; ash\\, elm'
    """
    if "\\" in text:
        text = text.replace("\\", "\\\\")
    if ";" in text:
        text = text.replace(";", "\\;")
    if "," in text:
        text = text.replace(",", "\\,")
    if not text.isprintable():  # line breaks and controls are rare: one C-speed test passes most by
        text = text.replace("\r\n", "\n").replace("\r", "\n").replace("\n", "\\n")
        text = text.replace("\x0b", "\\n").replace("\x85", "\\n")
        text = re.sub(_CONTROLS, "", text).replace("\u2028", "\\n").replace("\u2029", "\\n")
    return text


def bare(text: str) -> str:
    """A value that is no text, an address say, without the control characters and line ends that would end its line."""
    return text if text.isprintable() else re.sub(r"[\x00-\x1f\x7f]", "", text)


def unescaped(text: str) -> str:
    r"""The text that `escaped` wrote.

    >>> unescaped(r"Oak\; ash\nelm")
    'Oak; ash\nelm'
    """
    if "\\" not in text:
        return text
    if "\\\\" not in text:
        plain = text.replace("\\,", ",").replace("\\n", "\n").replace("\\;", ";")
        if "\\" not in plain:
            return plain
    return re.sub(r"\\(.)", lambda m: "\n" if m[1] in "nN" else m[1], text, flags=re.DOTALL)


def folded(line: str) -> str:
    """A content line with its CRLF, cut into pieces of at most 75 octets and never inside a character."""
    if len(line) <= MAX_OCTETS and line.isascii():
        return line + "\r\n"
    if line.isascii():
        if len(line) < 2 * MAX_OCTETS:
            return f"{line[:MAX_OCTETS]}\r\n {line[MAX_OCTETS:]}\r\n"
        pieces = [line[:MAX_OCTETS]]
        step = MAX_OCTETS - 1  # a space opens each further line
        pieces += [line[at : at + step] for at in range(MAX_OCTETS, len(line), step)]
        return "\r\n ".join(pieces) + "\r\n"
    octets = line.encode("utf-8", "replace")
    if len(octets) <= MAX_OCTETS:
        return line + "\r\n"
    return "\r\n ".join(_cut(octets)) + "\r\n"


def _cut(octets: bytes) -> Iterator[str]:
    at, room = 0, MAX_OCTETS
    while len(octets) - at > room:
        end = at + room
        while octets[end] & 0xC0 == 0x80:  # inside a character of several octets: step back to its first
            end -= 1
        yield octets[at:end].decode()
        at, room = end, MAX_OCTETS - 1
    yield octets[at:].decode()


def unfolded(text: str) -> list[str]:
    """The content lines of a calendar file, however its lines end and wherever they are folded."""
    text = text.replace("\r\n", "\n").replace("\r", "\n")
    if "\n " in text or "\n\t" in text:
        text = text.replace("\n ", "").replace("\n\t", "")
    return [line for line in text.split("\n") if line]


def unfolded_lines(raw_lines: Iterable[str]) -> Iterator[str]:
    """The content lines of a file that was written here, one by one."""
    line = ""
    for raw in raw_lines:
        raw = raw.rstrip("\r\n")
        if raw[:1] == " ":
            line += raw[1:]
            continue
        if line:
            yield line
        line = raw
    if line:
        yield line


def parameter(text: str) -> str:
    """A parameter value, quoted where it must be, with RFC 6868's carets for what quotes cannot hold."""
    if not text.isprintable() or "^" in text or '"' in text:
        text = text.replace("^", "^^").replace("\r\n", "\n").replace("\r", "\n")
        text = text.replace("\n", "^n").replace('"', "^'")
        text = re.sub(_CONTROLS, "", text)
    return f'"{text}"' if any(mark in text for mark in ":;,") else text
