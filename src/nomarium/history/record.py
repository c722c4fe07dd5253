"""The record of builds: each state of an output with what it was made from, in one SQLite file, the last twenty of each."""

import json
import sqlite3
import zlib
from collections.abc import Iterator, Mapping, Sequence
from contextlib import closing, contextmanager
from pathlib import Path
from typing import Final, NamedTuple

MOST_STATES: Final = 20
"""States that are kept of one output."""
MOST_OCTETS: Final = 32 * 1024 * 1024
"""The largest state whose content is kept; of larger ones only what they were made from."""
_WAIT_SECS: Final = 5.0
_TABLES: Final = """
create table if not exists states (
    id integer primary key, out text not null, written text not null, again text not null, digest text not null,
    sources text not null, options text not null, events integer not null, changes text not null
);
create index if not exists states_by_out on states (out, id);
create table if not exists files (
    state integer not null references states (id) on delete cascade, name text not null, content blob,
    primary key (state, name)
);
"""


class State(NamedTuple):
    """One state of an output."""

    out: str
    """Its absolute path."""
    written: str
    """When it was written first, ISO 8601 in UTC …"""
    again: str
    """… and when a build last gave the same."""
    sources: Sequence[tuple[str, str]]
    """What it was made from, each with a digest of its content; blank where that is not known."""
    options: str
    events: int
    changes: Mapping[str, int]
    """Against the state before: new, changed, moved, removed …"""


class Output(NamedTuple):
    """An output with builds."""

    path: str
    builds: int
    last: str
    events: int


@contextmanager
def opened(path: Path, writes: bool) -> Iterator[sqlite3.Connection]:
    """The file of the record, in one transaction where it `writes`: it waits for another build that is writing."""
    if writes:
        path.parent.mkdir(parents=True, exist_ok=True)
    elif not path.exists():
        raise FileNotFoundError(path)
    with closing(sqlite3.connect(path, timeout=_WAIT_SECS, isolation_level=None)) as base:
        base.execute("pragma foreign_keys = on")
        if not writes:
            yield base
            return
        base.execute("begin immediate")
        try:
            yield base
        except BaseException:
            base.execute("rollback")
            raise
        base.execute("commit")


@contextmanager
def _with_tables(path: Path) -> Iterator[sqlite3.Connection]:
    with opened(path, writes=True) as base:
        for statement in filter(str.strip, _TABLES.split(";\n")):
            base.execute(statement)
        yield base


class Record:
    """The record in a file. Every method raises sqlite3.Error or OSError when it cannot be read or written."""

    def __init__(self, path: Path) -> None:
        self._path = path

    def keep(self, state: State, digest: str, files: Mapping[str, bytes | None]) -> None:
        """Keep a state, with its files by name (None for content that is not kept); one that is as the last one is no new
        state, and its date is noted there."""
        state = state._replace(out=_in_unicode(state.out), options=_in_unicode(state.options))
        with _with_tables(self._path) as base:
            last = base.execute(
                "select id, digest from states where out = ? order by id desc limit 1", (state.out,)
            ).fetchone()
            if last is not None and last[1] == digest:
                base.execute("update states set again = ? where id = ?", (state.again, last[0]))
                return
            row = (
                state.out,
                state.written,
                state.again,
                digest,
                json.dumps(list(state.sources)),
                state.options,
                state.events,
                json.dumps(dict(state.changes)),
            )
            made = base.execute(
                "insert into states (out, written, again, digest, sources, options, events, changes) values (?,?,?,?,?,?,?,?)",
                row,
            )
            for name, content in files.items():
                packed = zlib.compress(content, 1) if content is not None else None
                base.execute("insert into files values (?,?,?)", (made.lastrowid, name, packed))
            base.execute(
                "delete from states where out = ? and id not in (select id from states where out = ? order by id desc limit ?)",
                (state.out, state.out, MOST_STATES),
            )

    def outputs(self) -> list[Output]:
        """Every output with builds, the latest first."""
        with opened(self._path, writes=False) as base:
            rows = base.execute(
                "select out, count(*), max(again), (select events from states b where b.out = a.out order by id desc limit 1) "
                "from states a group by out order by max(again) desc"
            )
            return [Output(*row) for row in rows]

    def states(self, out: str) -> list[State]:
        """The states of an output, the last one first."""
        with opened(self._path, writes=False) as base:
            rows = base.execute(
                "select out, written, again, sources, options, events, changes from states where out = ? order by id desc",
                (_in_unicode(out),),
            )
            return [
                State(
                    path,
                    written,
                    again,
                    [(name, digest) for name, digest in json.loads(sources)],
                    options,
                    events,
                    json.loads(changes),
                )
                for path, written, again, sources, options, events, changes in rows
            ]

    def files(self, out: str, number: int) -> dict[str, bytes] | None:
        """The files of the number-th last state, by name; None when there is none, or it was too large to keep."""
        with opened(self._path, writes=False) as base:
            found = base.execute(
                "select id from states where out = ? order by id desc limit 1 offset ?",
                (_in_unicode(out), number - 1),
            ).fetchone()
            if found is None:
                return None
            rows = base.execute(
                "select name, content from files where state = ? order by name", (found[0],)
            ).fetchall()
        return (
            {name: zlib.decompress(content) for name, content in rows}
            if all(content is not None for _, content in rows)
            else None
        )


def _in_unicode(text: str) -> str:
    """A text as the database takes it: octets of a file name that are no UTF-8 are written out."""
    return text.encode("utf-8", "backslashreplace").decode()
