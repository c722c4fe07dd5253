"""Content lines of calendar files as they are met: unfolded, mended, cut into name, parameters and value
(RFC 5545, 3.1; RFC 6868)."""

import re
from collections.abc import Callable
from typing import NamedTuple

_NAME = r"[A-Za-z0-9-]+"
_HEAD = rf"{_NAME}(?:;[^=:;\"]+=(?:\"[^\"]*\"|[^\";:,]*)(?:,(?:\"[^\"]*\"|[^\";:,]*))*)*"
_PARAMETER = r";([^=:;\"]+)=((?:\"[^\"]*\"|[^\";:,]*)(?:,(?:\"[^\"]*\"|[^\";:,]*))*)"
_TEXTS = r"(?i)(?:SUMMARY|DESCRIPTION|LOCATION|COMMENT|CONTACT|X-[A-Z0-9-]+)[;:]"
_OPEN_QUOTE = r"[A-Z][A-Z0-9-]*;[A-Z-]+=\"[^\"]*$"
"""A property whose quoted parameter does not end."""
_FOLDED_FROM = 70
"""Octets from which a line may have been cut by folding, although nothing but its length says so."""


_STRICT = re.compile(
    rf"{_NAME}(?:;{_NAME}=(?:\"[^\"\x00-\x08\x0a-\x1f\x7f]*\"|[^\";:,\x00-\x08\x0a-\x1f\x7f]*)"
    r"(?:,(?:\"[^\"\x00-\x08\x0a-\x1f\x7f]*\"|[^\";:,\x00-\x08\x0a-\x1f\x7f]*))*)*(?=:)"
)
"""What stands before the colon of a line that any reader takes (RFC 5545, 3.1)."""


class PropertyHead(NamedTuple):
    """What stands before the colon of a content line."""

    name: str
    """In upper case."""
    params: dict[str, str]
    """By upper-case name, quotes and carets resolved; several values stay parted by commas."""


def property_head(line: str, colon: int) -> PropertyHead | None:
    """The head of a line whose value begins after `colon`, or None when that colon is inside quotes or
    the line is no content line at all."""
    text = line[:colon]
    if not re.fullmatch(_HEAD, text):
        return None
    name = text.partition(";")[0].upper()
    params = {key.upper(): _plain(value) for key, value in re.findall(_PARAMETER, text)}
    return PropertyHead(name, params)


def strict_head(line: str) -> str:
    """What stands before the colon of a content line, by the letter of RFC 5545, 3.1; blank when it is none."""
    match = _STRICT.match(line)
    return match[0] if match else ""


def parsed(line: str) -> tuple[PropertyHead, str] | None:
    """A content line's head and value; None when it is none."""
    match = re.match(rf"({_HEAD}):", line)
    if match is None:
        match = re.match(r'([^:"]*(?:"[^"]*"[^:"]*)*):', line)  # parameters out of order: keep the name
        name = re.match(_NAME, line)
        if match is None or name is None:
            return None
        return PropertyHead(name[0].upper(), {}), line[match.end() :]
    head = property_head(line, match.end() - 1)
    return (head, line[match.end() :]) if head else None


def _plain(text: str) -> str:
    text = text.replace('"', "")
    if "^" in text:
        text = re.sub(r"\^([n'^])", lambda m: {"n": "\n", "'": '"', "^": "^"}[m[1]], text)
    return text


Unfolder = Callable[[bytes], bytes]
"""Takes the folds out of a piece of a file before it is decoded: a fold may cut a character in two."""


def unfolder_of(data: bytes) -> Unfolder:
    """How the pieces of a file are unfolded, LF its line ends: looked at once, not for each event."""
    if b"\n\t" in data or b"\n\n" in data:  # blank lines before a fold are met, too
        return lambda piece: re.sub(rb"\n+[ \t]", b"", piece)
    return lambda piece: piece.replace(b"\n ", b"")


def decoded(octets: bytes) -> str:
    """UTF-8, or Windows-1252 where it is not."""
    try:
        return octets.decode("utf-8")
    except UnicodeDecodeError:
        return octets.decode("cp1252", "replace")


def mended(lines: list[str]) -> tuple[list[str], int]:
    """Lines without a name joined to the one before: folded without a space, or broken in the middle of a text.
    With it the number of lines that can be neither, which are passed over."""
    whole: list[str] = []
    passed_over = 0
    half = ""
    for line in lines:
        if half and parsed(line) is None and parsed(half + line) is not None:
            whole.append(half + line)
            half, passed_over = "", passed_over - 1
            continue
        half = ""
        if parsed(line) is not None:
            whole.append(line)
        elif not line.strip():
            continue
        elif re.match(_OPEN_QUOTE, line):  # broken inside a quoted parameter: its other half may follow
            half, passed_over = line, passed_over + 1
        elif whole and len(whole[-1].encode()) >= _FOLDED_FROM:
            whole[-1] += line
        elif whole and re.match(_TEXTS, whole[-1]):
            whole[-1] += "\\n" + line
        else:
            passed_over += 1
    return whole, passed_over


def split_list(text: str, mark: str = ",") -> list[str]:
    r"""A value cut at its unescaped commas (or another mark).

    >>> split_list(r"Launches,Oak\, ash")
    ['Launches', 'Oak\\, ash']
    """
    if "\\" not in text:
        return text.split(mark)
    return re.findall(rf"(?:^|(?<={mark}))((?:\\.|[^\\{mark}])*)", text)
