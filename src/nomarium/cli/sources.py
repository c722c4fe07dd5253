"""What SOURCE names on a command line: files, standard input, addresses; opened as sheets."""

import contextlib
import os
import shutil
import sys
import time
from collections.abc import Callable, Iterator, Sequence
from pathlib import Path
from typing import TYPE_CHECKING

from nomarium.cli.addresses import without_password
from nomarium.model.errors import SourceError, UsageError
from nomarium.model.problem import Place, Problem
from nomarium.sheets.opening import calendar_inside, is_calendar_file, open_source
from nomarium.sheets.sheet import Sheet
from nomarium.sources.opening import Opened

if TYPE_CHECKING:
    from nomarium.exchange.feedcache import FeedCache
    from nomarium.ical.reader import CalendarRead


@contextlib.contextmanager
def opened(
    sources: Sequence[str],
    wanted_sheets: tuple[str, ...] = (),
    zone_name: str | None = None,
    people: Sequence[str] = (),
    places: Sequence[str] = (),
    terms: Sequence[str] = (),
    look: Callable[[Path, str], None] | None = None,
) -> Iterator[Opened]:
    """The sheets and calendars of all sources, and the tables that they are joined with. `look` is given each calendar file
    and its name. Raises SourceError for the first that cannot be opened."""
    sheets, calendars = list[Sheet](), list["CalendarRead"]()
    with contextlib.ExitStack() as stack:
        for source in sources:
            path, name = stack.enter_context(_local(source))
            if is_calendar_file(path):
                from nomarium.ical.files import open_calendar

                if look is not None:
                    look(path, name)
                calendars.append(open_calendar(path, name, zone_name))
            elif (carried := calendar_inside(path, name)) is not None:
                from nomarium.ical.reader import read_calendar

                calendars.append(read_calendar(carried, name, zone_name))
            else:
                sheets.extend(
                    _tables_in(path, name, wanted_sheets)
                    if path.is_dir()
                    else open_source(path, name, wanted_sheets)
                )
        if wanted_sheets and not any(sheet.name for sheet in sheets):
            message = f"--sheet names a sheet, and {', '.join(map(without_password, sources))} has none."
            raise UsageError(Problem("sheet-unknown", message, "Leave --sheet out."))
        joined = [
            [sheet for file in files for sheet in open_source(*stack.enter_context(_local(file)), ())]
            for files in (people, places, terms)
        ]
        yield Opened(sheets, calendars, *joined)


def _tables_in(path: Path, name: str, wanted_sheets: tuple[str, ...]) -> list[Sheet]:
    """The tables of a folder: it is a source only as a plan, which their names or what they hold show. Raises SourceError for
    any other."""
    from nomarium.school.finding import shows_plan
    from nomarium.school.plantables import table_name

    named = {(table_name(one.stem) or "").partition(":")[0] for one in path.iterdir() if one.is_file()}
    message = f"{name} is a folder and holds no plan (no timetable, cycle or events)."
    no_plan = SourceError(Problem("source-folder", message, "Name the spreadsheets in it.", Place(name)))
    if named & {"timetable", "cycle", "events"}:
        return open_source(path, name, wanted_sheets)
    try:
        found = open_source(path, name, wanted_sheets)
    except SourceError as fault:  # whatever else lies in it
        raise no_plan from fault
    if not shows_plan(found):
        raise no_plan
    return found


@contextlib.contextmanager
def _local(source: str) -> Iterator[tuple[Path, str]]:
    """A file that can be read again and again, and the name to call it by."""
    earlier = _earlier(source)
    if source != "-" and "://" not in source and earlier is None:
        yield Path(source), source
        return
    import tempfile

    handle, name = tempfile.mkstemp(prefix="nomarium-")
    path = Path(name)
    try:
        called = "standard input"
        with os.fdopen(handle, "wb") as copy:
            if earlier is not None:
                called = source
                copy.write(earlier)
            elif source == "-":
                shutil.copyfileobj(sys.stdin.buffer, copy)
            else:
                from nomarium.exchange.fetch import fetch, shown_address

                called = shown_address(source)
                fetch(source, copy, time.monotonic, feed_cache())
        yield path, called
    finally:
        path.unlink(missing_ok=True)


def feed_cache() -> "FeedCache | None":
    """Where the answers of addresses are kept: in the user's cache, or where NOMARIUM_CACHE says; nowhere when that is `off`."""
    where = os.environ.get("NOMARIUM_CACHE", "")
    if where.casefold() == "off":
        return None
    from nomarium.exchange.feedcache import FeedCache

    if where:
        return FeedCache(Path(where))
    from platformdirs import user_cache_path

    return FeedCache(user_cache_path("nomarium", appauthor=False) / "feeds")


def _earlier(source: str) -> bytes | None:
    """The content of an earlier state of a calendar, `year.ics@2`; None for any other source."""
    if "@" not in source or "://" in source:
        return None
    from nomarium.cli.keptstates import content_of

    return content_of(source)


def revised(sources: Sequence[str]) -> str:
    """When the sources were last revised, as DTSTAMP is written (RFC 5545, 3.8.7.2).

    SOURCE_DATE_EPOCH, else the time of the newest file, so that the same files give the same bytes;
    now, when a source is no file.
    """
    epoch = os.environ.get("SOURCE_DATE_EPOCH", "")
    if not sources and not epoch:  # public holidays alone: nothing was revised
        epoch = "0"
    try:
        secs = float(int(epoch)) if epoch else max(map(_modified, sources))
    except (OSError, ValueError):
        secs = time.time()
    return time.strftime("%Y%m%dT%H%M%SZ", time.gmtime(max(secs, 0)))


def _modified(source: str) -> float:
    path = Path(source)
    if path.is_dir():
        return max((one.stat().st_mtime for one in path.iterdir() if one.is_file()), default=0.0)
    return path.stat().st_mtime


def calendar_name(sources: Sequence[str], output: str) -> str:
    """The calendar's name when none is given: the first source's file name without its ending."""
    if not sources:
        return Path(output).stem if output != "-" else "Public holidays"
    first = sources[0]
    if first == "-":
        return Path(output).stem if output != "-" else "calendar"
    stem = Path(first.split("?")[0]).stem if "://" in first else Path(first).stem
    return stem or "calendar"
