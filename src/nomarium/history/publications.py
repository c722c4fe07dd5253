"""The record of what was put on calendar servers: each set of sources in each calendar, in the file that keeps the builds."""

import json
import zlib
from collections.abc import Mapping
from pathlib import Path
from types import MappingProxyType
from typing import Final, NamedTuple

from nomarium.history.record import opened

_TABLE: Final = """
create table if not exists publications (
    calendar text not null, part text not null, state blob not null, primary key (calendar, part)
)
"""
_NONE: Final[Mapping[str, tuple[str, str]]] = MappingProxyType({})


class Publication(NamedTuple):
    """What is known of one set of sources in one calendar."""

    url: str = ""
    """The address of the calendar, as it was found."""
    token: str = ""
    """What to ask the server with for what has changed since (RFC 6578)."""
    text: str = ""
    """The calendar that was put there, with what is known of its sources (`settling.marks`)."""
    places: Mapping[str, tuple[str, str]] = _NONE
    """By UID: path and ETag."""
    foreign: frozenset[str] = frozenset()
    """Paths of what is not ours."""
    pending: Mapping[str, tuple[str, str]] = _NONE
    """What was about to be sent, by UID: path and text, blank for what was to be removed. Whether it was is not known."""
    fresh: frozenset[str] = frozenset()
    """UIDs of what was created after the token: what has changed since it lists them, unless they are gone again."""


class Publications:
    """The record in a file. Every method raises sqlite3.Error or OSError when it cannot be read or written."""

    def __init__(self, path: Path) -> None:
        self._path = path

    def load(self, calendar: str, part: str) -> Publication | None:
        """What is known; None when nothing is."""
        if not self._path.exists():
            return None
        with opened(self._path, writes=True) as base:
            base.execute(_TABLE)
            row = base.execute(
                "select state from publications where calendar = ? and part = ?", (calendar, part)
            ).fetchone()
        if row is None:
            return None
        facts = json.loads(zlib.decompress(row[0]))
        return Publication(
            facts["url"], facts["token"], facts["text"], _pairs(facts["places"]), frozenset(facts["foreign"]), _pairs(facts["pending"]),
            frozenset(facts["fresh"]),
        )  # fmt: skip

    def parts(self, calendar: str) -> list[str]:
        """The sets of sources that were put into a calendar."""
        if not self._path.exists():
            return []
        with opened(self._path, writes=True) as base:
            base.execute(_TABLE)
            rows = base.execute("select part from publications where calendar = ? order by part", (calendar,))
            return [part for (part,) in rows]

    def keep(self, calendar: str, part: str, state: Publication) -> None:
        """Keep what is known now."""
        facts = state._asdict() | {
            "places": dict(state.places), "pending": dict(state.pending), "foreign": sorted(state.foreign), "fresh": sorted(state.fresh),
        }  # fmt: skip
        packed = zlib.compress(json.dumps(facts).encode(), 1)
        with opened(self._path, writes=True) as base:
            base.execute(_TABLE)
            base.execute("insert or replace into publications values (?,?,?)", (calendar, part, packed))


def _pairs(listed: Mapping[str, list[str]]) -> Mapping[str, tuple[str, str]]:
    return {key: (one, other) for key, (one, other) in listed.items()}
