"""What the tests share: tables written as text become files, the real program runs, judges read."""

from __future__ import annotations

import csv
import datetime as dt
import io
import signal
from collections.abc import Iterable, Sequence
from contextlib import redirect_stderr, redirect_stdout
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import icalendar
import openpyxl

from nomarium.cli.main import run


@dataclass(frozen=True)
class Outcome:
    """What a run of the program left behind."""

    status: int
    out: str
    err: str

    @property
    def text(self) -> str:
        return self.out + self.err


def nomarium(*arguments: object) -> Outcome:
    """Run the program in this process, as the console script would."""
    out, err = io.StringIO(), io.StringIO()
    status: Any = None
    with redirect_stdout(out), redirect_stderr(err):
        try:
            run([str(argument) for argument in arguments])
        except SystemExit as end:
            status = end.code
    return Outcome(int(status or 0), out.getvalue(), err.getvalue())


def csv_file(folder: Path, text: str, name: str = "events.csv", encoding: str = "utf-8") -> Path:
    """A text file from a literal; outer blank lines and the literal's indentation are not part of it."""
    lines = [line.strip() for line in text.strip("\n").splitlines()]
    path = folder / name
    path.write_bytes(("\n".join(lines).rstrip() + "\n").encode(encoding))
    return path


def workbook(
    folder: Path,
    rows: Sequence[Sequence[object]],
    merged: Sequence[str] = (),
    name: str = "events.xlsx",
    more: dict[str, Sequence[Sequence[object]]] | None = None,
    from_1904: bool = False,
) -> Path:
    """A workbook of one sheet called Events, and `more` sheets."""
    book = openpyxl.Workbook()
    if from_1904:
        book.epoch = openpyxl.utils.datetime.CALENDAR_MAC_1904
    sheet = book.active
    sheet.title = "Events"
    for row in rows:
        sheet.append(row)
    for area in merged:
        sheet.merge_cells(area)
    for title, table in (more or {}).items():
        other = book.create_sheet(title)
        for row in table:
            other.append(row)
    book.save(folder / name)
    return folder / name


def events_in(path: Path) -> list[icalendar.Event]:
    """The events of a calendar file as an independent library reads them."""
    return list(icalendar.Calendar.from_ical(path.read_bytes()).walk("VEVENT"))


def plain(event: icalendar.Event) -> str:
    """An event in one line: summary, start, exclusive end, and place, when it has one."""
    start = event.decoded("DTSTART")
    end = event.decoded("DTEND") if "DTEND" in event else start
    place = f" @ {event['LOCATION']}" if "LOCATION" in event else ""
    return f"{event['SUMMARY']} {_moment(start)}/{_moment(end)}{place}"


def _moment(moment: dt.date) -> str:
    if isinstance(moment, dt.datetime):
        return f"{moment:%Y-%m-%dT%H:%M}" + ("Z" if moment.tzinfo and not moment.utcoffset() else "")
    return moment.isoformat()


def built(source: Path, *arguments: object) -> list[str]:
    """Build a source that must succeed, and give its events in one line each."""
    target = source.with_suffix(".ics")
    outcome = nomarium("build", source, "-o", target, *arguments)
    assert outcome.status == 0, outcome.text
    return [plain(event) for event in events_in(target)]


def refused(source: Path, *arguments: object) -> str:
    """Build a source that must be refused without writing anything, and give what was said."""
    target = source.with_suffix(".ics")
    outcome = nomarium("build", source, "-o", target, *arguments)
    assert outcome.status == 1, outcome.text
    assert not target.exists()
    return outcome.text


def read_or_refused(
    source: Path, rows: Iterable[Iterable[str]], *arguments: object
) -> tuple[list[str] | None, str]:
    """The events of rows in one line each, or nothing where they are refused and nothing is written; and what was said."""
    with source.open("w", newline="", encoding="utf-8") as file:
        csv.writer(file).writerows(rows)
    target = source.with_suffix(".ics")
    outcome = nomarium("build", source, "-o", target, *arguments)
    assert outcome.status in (0, 1), outcome.text
    assert target.exists() is (outcome.status == 0)
    return ([plain(event) for event in events_in(target)] if target.exists() else None), outcome.text


def interruptible() -> None:
    """A process that was started in the background may have been told not to hear of Ctrl-C, and its children with it."""
    signal.signal(signal.SIGINT, signal.SIG_DFL)
