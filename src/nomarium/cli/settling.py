"""`--edited` and `--prefer`: what people changed in the calendar since the last build, and what the last build was."""

from collections.abc import Sequence
from pathlib import Path
from typing import TYPE_CHECKING, Final, cast

from nomarium.building.options import BuildOptions
from nomarium.cli.optionvalues import wrong
from nomarium.cli.outputs import is_same
from nomarium.reading.options import ReadingOptions

if TYPE_CHECKING:
    from nomarium.history.settling.choices import Prefer
    from nomarium.history.settling.units import Units
    from nomarium.ical.reader import CalendarRead

_PREFERRED: Final = ("source", "edited")
_OURS: Final = b"-//Nomarium//Nomarium"
_SETTLED: Final = (b"X-NOMARIUM-BASE", b"X-NOMARIUM-GONE", b"x-nomarium-base", b"x-nomarium-gone")


def with_edits(
    how: BuildOptions, edited: Sequence[str] | None, prefer: str | None, reading: ReadingOptions
) -> BuildOptions:
    """The options with what a build is settled with. Without `--edited` that is what earlier builds were settled with, where
    their calendar is built again. Raises SourceError for a calendar that cannot be read whole."""
    if prefer is not None and prefer not in _PREFERRED:
        raise wrong(f"--prefer {prefer} is neither source nor edited.", "Use one of them.")
    if prefer is not None and not edited:
        raise wrong(
            "--prefer says whose change wins, and there are none to settle.",
            "Give the calendar that people changed: --edited CALENDAR.",
        )
    output = how.output
    files = _files(output, bool(how.split_by)) if isinstance(output, Path) and not how.afresh else []
    if not edited and not any(map(_is_settled, files)):
        return how
    if isinstance(output, Path) and not how.split_by and output.suffix.lower() not in (".ics", ".json"):
        raise wrong(
            f"--edited settles a calendar, and {output} is none.", "Build a calendar file (.ics or .json)."
        )
    from nomarium.history.settling.units import Units, units_in, with_all_of
    from nomarium.targets.settled import Edited

    if not edited:
        built = units_in(_read([str(file) for file in files], reading), reading.zone)
        return how._replace(edited=Edited(built, built, str(output), option=f"--edited {output} "))
    theirs = units_in(_read(edited, reading), reading.zone)._replace(gone={})
    given, parts = _given(files, edited, reading)
    if given is not None and len(parts) > 1:  # whose calendar was not given has not been changed
        theirs = with_all_of(theirs, given, parts)
    name = ", ".join(Path(one).name if "://" not in one else _shown(one) for one in edited)
    return how._replace(edited=Edited(Units(theirs.by_uid), given, name, cast("Prefer", prefer or "")))


def _given(
    files: Sequence[Path], edited: Sequence[str], reading: ReadingOptions
) -> "tuple[Units | None, list[frozenset[str]]]":
    """What the last build wrote, and the UIDs of each of its files; None where that is not known."""
    from nomarium.history.settling.units import units_in

    named: list[str] = []
    for file in files:
        if not any("://" not in one and is_same(Path(one), file) for one in edited):
            named += [str(file)] if _is_ours(file) else []
            continue
        # it was changed where it stands: what the build wrote is in the history, if anywhere
        from nomarium.cli.keptstates import content_of

        kept = f"{file}@1"
        if content_of(kept) is not None:
            named.append(kept)
    if not named:
        return None, []
    read = _read(named, reading)
    parts = [frozenset(entry.event.details.uid for entry in one.entries) for one in read]
    return units_in(read, reading.zone), parts


def _read(sources: Sequence[str], reading: ReadingOptions) -> "Sequence[CalendarRead]":
    from nomarium.cli.sources import opened
    from nomarium.model.errors import SourceError
    from nomarium.model.problem import Place, Problem

    with opened(sources, zone_name=reading.zone) as found:
        if found.sheets:
            raise wrong(
                f"--edited {found.sheets[0].file} is no calendar file.",
                "Give the calendar as it is exported.",
            )
        for calendar in found.calendars:
            if calendar.problems:  # an event that is not read would be taken for one that people deleted
                raise SourceError(calendar.problems[0])
            for entry in calendar.entries:
                if entry.and_following:
                    place = Place(calendar.file, "", entry.event.row_number, "", "RECURRENCE-ID", "line")
                    message = f"“{entry.event.summary}” is changed from a date on (RANGE=THISANDFUTURE): that cannot be settled."
                    remedy = "End the series there in the calendar and begin a new one."
                    raise SourceError(Problem("edited-range", message, remedy, place))
        return list(found.calendars)


def _files(output: Path, is_split: bool) -> list[Path]:
    """The calendar files that a build left there."""
    if is_split:
        return sorted(path for path in output.rglob("*.ics") if _is_ours(path)) if output.is_dir() else []
    return [output] if output.is_file() else []


def _is_ours(path: Path) -> bool:
    with path.open("rb") as file:
        return _OURS in file.read(1024)


def _is_settled(path: Path) -> bool:
    if path.suffix.lower() not in (".ics", ".json"):
        return False
    if not _is_ours(path):
        return False
    import mmap

    with path.open("rb") as file, mmap.mmap(file.fileno(), 0, access=mmap.ACCESS_READ) as data:
        return any(data.find(mark) >= 0 for mark in _SETTLED)


def _shown(address: str) -> str:
    from nomarium.cli.addresses import without_password

    return without_password(address)
