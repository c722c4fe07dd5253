"""The record of builds as the command line meets it: where it is, what a build leaves there, `OUT@2`."""

import datetime as dt
import os
import re
from _blake2 import blake2b  # hashlib opens a library of its own, which a small build would pay for
from collections.abc import Mapping, Sequence
from pathlib import Path
from typing import TYPE_CHECKING, Protocol

from nomarium.cli.addresses import without_password

if TYPE_CHECKING:
    from nomarium.history.record import Record, State
    from nomarium.targets.replacing import WrittenFile

_STATE = r"(.+)@(\d+)"


def record_file() -> Path | None:
    """Where the record is: in the user's state folder, or where NOMARIUM_HISTORY says; None when that is `off`."""
    where = os.environ.get("NOMARIUM_HISTORY", "")
    if where.casefold() == "off":
        return None
    if where:
        return Path(where)
    from platformdirs import user_state_path

    return user_state_path("nomarium", appauthor=False) / "history.sqlite3"


def record() -> "Record | None":
    """The record of builds; None when none is kept."""
    path = record_file()
    if path is None:
        return None
    from nomarium.history.record import Record

    return Record(path)


class Kept(Protocol):
    """What of a build is kept."""

    @property
    def is_written(self) -> bool:
        """Whether there is something to keep."""

    @property
    def files(self) -> "Sequence[WrittenFile]": ...

    @property
    def event_count(self) -> int: ...

    @property
    def changes(self) -> dict[str, int]: ...


def keep_state(output: str, report: Kept, sources: Sequence[str], options: str) -> str:
    """Keep what a build has written; what to say when that cannot be done: a build never fails because of it."""
    if output == "-" or not report.is_written:
        return ""
    kept = record()
    if kept is None:
        return ""
    import sqlite3

    path = Path(output)
    names = [file.name for file in report.files] if path.is_dir() else [""]
    made_from = [(_shown(source), _digest_of(source)) for source in sources]
    try:
        _keep(kept, path, names, made_from, options, report.event_count, report.changes)
    except (sqlite3.Error, OSError) as error:
        return f"note: This build is not in the history: {error}."
    return ""


def _keep(
    kept: "Record", path: Path, names: Sequence[str], sources: Sequence[tuple[str, str]], options: str, events: int,
    changes: dict[str, int],
) -> None:  # fmt: skip
    from nomarium.history.record import MOST_OCTETS, State

    now = dt.datetime.now(dt.UTC).isoformat(timespec="seconds")
    paths = {name: path / name if name else path for name in names}
    is_kept = sum(one.stat().st_size for one in paths.values()) <= MOST_OCTETS
    state = State(os.path.realpath(path), now, now, sources, options, events, changes)
    kept.keep(
        state, _digest(paths), {name: one.read_bytes() if is_kept else None for name, one in paths.items()}
    )


def keep_files(kept: "Record", path: Path, names: Sequence[str], state: "State") -> None:
    """Keep a state that was written back."""
    _keep(kept, path, names, state.sources, state.options, state.events, {})


def _shown(source: str) -> str:
    return without_password(source) if "://" in source or source == "-" else os.path.realpath(source)


def _digest_of(source: str) -> str:
    """A digest of a file, or of those in a folder; blank for what is neither, or cannot be read."""
    path = Path(source)
    if source == "-" or "://" in source:
        return ""
    try:
        files = {one.name: one for one in path.iterdir() if one.is_file()} if path.is_dir() else {"": path}
        return _digest(files)
    except OSError:
        return ""


def _digest(files: Mapping[str, Path]) -> str:
    """A digest of files and their names, which are read a piece at a time: a district's do not fit into memory."""
    found = blake2b(digest_size=32)
    for name, path in sorted(files.items()):
        found.update(f"{name}\0".encode())
        with path.open("rb") as file:
            while piece := file.read(1 << 20):
                found.update(piece)
    return found.hexdigest()


def state_of(source: str) -> "tuple[str, int] | None":
    """The output and the number that `year.ics@2` names; None for anything else. A file that is really
    called so wins."""
    match = re.fullmatch(_STATE, source)
    if match is None or Path(source).exists() or int(match[2]) < 1:
        return None
    return os.path.realpath(match[1]), int(match[2])


def content_of(source: str) -> bytes | None:
    """The content of an earlier state of a calendar, `year.ics@2` or `calendars/finch.ics@2`; None when there is none."""
    import sqlite3

    named, kept = state_of(source), record()
    if named is None or kept is None:
        return None
    path, number = named
    for out in (path, *map(str, Path(path).parents)):
        try:
            files = kept.files(out, number)
        except (sqlite3.Error, OSError):
            return None
        if files is not None:
            return files.get("" if out == path else Path(path).relative_to(out).as_posix())
    return None
