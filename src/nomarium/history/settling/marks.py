"""What a settled calendar keeps of its source, where people have it otherwise: a digest a field, so that the next build
knows who has changed what since. In an event it is X-NOMARIUM-BASE, of events that are gone the calendar's X-NOMARIUM-GONE."""

import datetime as dt
import re
from collections.abc import Iterable, Iterator, Mapping
from types import MappingProxyType
from typing import Final, NamedTuple

from nomarium.history.settling.fields import FIELDS, Field

_NOTHING: Final[Mapping[Field, str]] = MappingProxyType({})
_OWN, _BACK, _UNSEEN = "own", "back", "unseen"
_TOKEN: Final = re.compile(r"([a-z]+)([=!])([0-9a-f]{10})")
_DATE: Final = re.compile(r"[+~-]\d{4}-\d\d-\d\d")


class Marks(NamedTuple):
    """What is known of one event, beside what stands in it. Without any, it is as the source said."""

    is_own: bool = False
    """Whether people added it: no source has it."""
    is_back: bool = False
    """Whether people had deleted it, and it is there because the source changed it afterwards."""
    is_unseen: bool = False
    """Whether the calendar did not have it yet when it was written: that it lacks is no deletion."""
    base: Mapping[Field, str] = _NOTHING
    """What the source said where the event says something else, as digests."""
    refused: Mapping[Field, str] = _NOTHING
    """What the calendar said when the source was taken instead, as digests: a calendar that has not been brought up to date
    says it again."""
    added: frozenset[dt.date] = frozenset()
    """Dates that the series leaves out because people took them out …"""
    dropped: frozenset[dt.date] = frozenset()
    """… and dates that the source leaves out and people put back."""
    lagging: frozenset[dt.date] = frozenset()
    """Dates that the source took out or put back, and the calendar had not yet."""


NO_MARKS: Final = Marks()
OWN: Final = Marks(is_own=True)


def marks_text(marks: Marks) -> str:
    """Marks as the value of X-NOMARIUM-BASE; blank where there are none."""
    return " ".join(_tokens(marks))


def _tokens(marks: Marks) -> Iterator[str]:
    if marks.is_own:
        yield _OWN
    if marks.is_back:
        yield _BACK
    if marks.is_unseen:
        yield _UNSEEN
    for sign, digests in (("=", marks.base), ("!", marks.refused)):
        yield from (f"{field}{sign}{digests[field]}" for field in FIELDS if field in digests)
    for sign, days in (("+", marks.added), ("-", marks.dropped), ("~", marks.lagging)):
        yield from (f"{sign}{day.isoformat()}" for day in sorted(days))


def marks_in(text: str) -> Marks:
    """The marks of a value; what is none of them is passed over.

    >>> marks_in("own").is_own, marks_in("x") == marks_in(""), dict(marks_in("location=0123456789 x").base)
    (True, True, {'location': '0123456789'})
    """
    words = text.split()
    digests: dict[str, dict[Field, str]] = {"=": {}, "!": {}}
    days: dict[str, set[dt.date]] = {"+": set(), "-": set(), "~": set()}
    names = {str(field): field for field in FIELDS}
    for word in words:
        match = _TOKEN.fullmatch(word)
        if match is not None and match[1] in names:
            digests[match[2]][names[match[1]]] = match[3]
        elif _DATE.fullmatch(word):
            try:
                days[word[0]].add(dt.date.fromisoformat(word[1:]))
            except ValueError:
                continue
    return Marks(
        _OWN in words,
        _BACK in words,
        _UNSEEN in words,
        MappingProxyType(digests["="]),
        MappingProxyType(digests["!"]),
        frozenset(days["+"]),
        frozenset(days["-"]),
        frozenset(days["~"]),
    )


class Gone(NamedTuple):
    """An event that is not to come back."""

    is_deleted: bool
    """Whether people deleted it; else the source dropped it."""
    digest: str
    """Of what it was."""


def gone_texts(gone: Mapping[str, Gone]) -> list[str]:
    """Events that are not to come back, by UID, as values of X-NOMARIUM-GONE."""
    return [f"{'deleted' if one.is_deleted else 'dropped'} {one.digest} {uid}" for uid, one in gone.items()]


def gone_in(texts: Iterable[str]) -> dict[str, Gone]:
    """The same read."""
    found = {}
    for text in texts:
        match = re.fullmatch(r"(deleted|dropped) ([0-9a-f]{10}) (.+)", text)
        if match:
            found[match[3]] = Gone(match[1] == "deleted", match[2])
    return found
