"""What the options of a build come to; what makes no sense is a UsageError, which names the option."""

import os
import sys
from collections.abc import Sequence
from pathlib import Path
from typing import TYPE_CHECKING, BinaryIO
from urllib.parse import urlsplit

from nomarium.building.options import BuildOptions
from nomarium.cli.optionvalues import field_option, wrong
from nomarium.cli.outputs import check_outputs
from nomarium.reading.options import ReadingOptions
from nomarium.sources.opening import Opened

if TYPE_CHECKING:
    from nomarium.sources.daysoff import Skipping


def target_option(output: str, split_by: Sequence[str]) -> "Path | BinaryIO":
    """Where a build goes, when that is a place that its events can go to."""
    if output == "-":
        if split_by:
            raise wrong(
                "--split-by makes several files, and - is one stream.",
                "Give a folder: -o calendars/",
            )
        return sys.stdout.buffer
    path = Path(output)
    if split_by:
        if path.is_file() or path.suffix.lower() in (".ics", ".json", ".html", ".csv", ".xlsx"):
            raise wrong(
                f"--split-by makes several files, and {output} is one.",
                "Give a folder: -o calendars/",
            )
        return path
    if path.is_dir():
        raise wrong(f"{output} is a folder.", "Name a file in it, or give --split-by.")
    if path.suffix.lower() not in (".ics", ".csv", ".xlsx", ".json", ".html"):
        raise wrong(
            f"{output} does not say by its ending what it is to be.",
            "Name it like events.ics (a calendar file), events.json (jCal), events.csv or events.xlsx (a table), events.html (a page).",
        )
    if not path.parent.is_dir():
        raise wrong(f"There is no folder {path.parent}.", "Make it first.")
    return path


def check_files(
    output: str, rejects: str | None, sources: Sequence[str], others: Sequence[str | None]
) -> None:
    """Raises UsageError where what a build writes is a file that it reads: a source, or one of the `others`. A calendar
    may be brought up to date."""
    check_outputs({"-o": output, "--rejects": rejects}, sources, others, updates="-o")


def named_by_source(how: BuildOptions, found: Opened, reading: ReadingOptions) -> BuildOptions:
    """The options with the name that the source gives itself: a plan in its settings, a calendar file in its head, when
    the sources are one of these and nothing else."""
    sheets, calendars = found.sheets, found.calendars
    if calendars and not sheets and calendars[0].name:
        return how._replace(calendar_name=calendars[0].name)
    if reading.layout != "plan" and not any(sheet.name for sheet in sheets):
        return how
    from nomarium.school.finding import plans_in, setting_of

    plans, others = plans_in(sheets, reading)
    called = setting_of(plans[0], "Calendar name") if len(plans) == 1 and not others else ""
    return how._replace(calendar_name=called, identity_name=called) if called else how


def by_rule_option(repeats: str, output: str) -> bool:
    if repeats not in ("dated", "rule"):
        raise wrong(f"--repeats {repeats} is neither dated nor rule.", "Use one of them.")
    what = {".csv": "table", ".xlsx": "table", ".html": "page"}.get(Path(output).suffix.lower())
    if repeats == "rule" and what:
        raise wrong(
            f"--repeats rule: a {what} holds dated events.", "Leave it out, or write a calendar file."
        )
    return repeats == "rule"


def method_option(method: str | None, output: str) -> str:
    """METHOD of the calendar file."""
    if method is None:
        return ""
    if method.casefold() != "request":
        raise wrong(
            f"--method {method} is none that a build can have.", "Use request, or recall to take events back."
        )
    if Path(output).suffix.lower() in (".csv", ".xlsx", ".html"):
        raise wrong("--method request makes a calendar file.", "Name it like invitations.ics.")
    return "REQUEST"


def with_pages(
    how: BuildOptions, asked: bool, base_url: str | None, languages: Sequence[str]
) -> BuildOptions:
    """The options with what pages need: their language, and whether a folder has some and where it stands on the web."""
    how = how._replace(language=languages[0] if languages else "en")
    if asked and not how.split_by:
        raise wrong(
            "--with-page goes with a folder of calendars.", "Give --split-by, or -o OUT.html for one page."
        )
    if base_url is None:
        return how._replace(with_pages=asked)
    if not asked:
        raise wrong("--base-url is the address of a folder with pages.", "Give --with-page too.")
    parts = urlsplit(base_url)
    if parts.scheme not in ("http", "https") or not parts.netloc or parts.query or parts.fragment:
        raise wrong(
            f"--base-url {base_url} is no address of a folder.",
            "Write it like https://school.example/calendars/.",
        )
    return how._replace(with_pages=True, base_url=base_url if base_url.endswith("/") else f"{base_url}/")


def with_workers(how: BuildOptions, workers: int | None) -> BuildOptions:
    """The options with the number of processes: for any plan when it is asked for, else what there is for large ones."""
    if workers is not None:
        return how._replace(workers=workers, share_from=1)
    here = len(os.sched_getaffinity(0)) if hasattr(os, "sched_getaffinity") else os.cpu_count() or 1
    return how._replace(workers=here)


def with_days_off(
    how: BuildOptions, skipped: "Skipping | None", show_holidays: bool, alone: bool
) -> BuildOptions:
    """The options with the dates on which nothing repeats. `alone`: there is no other source, and the public holidays are
    the events."""
    if alone and not (skipped and skipped.holidays and how.first_day and how.last_day):
        raise wrong(
            "There is no SOURCE to build from.",
            "Name a spreadsheet or a calendar file; public holidays alone need --public-holidays, --from and --until.",
        )
    if skipped is None:
        return how
    shown = tuple(skipped.holidays) if show_holidays or alone else ()
    return how._replace(days_off=skipped.days_off or None, shown_holidays=shown)


def with_withheld(
    how: BuildOptions, files: Sequence[str], found: Opened, reading: ReadingOptions
) -> BuildOptions:
    """The options with the events that calendar files hold already. Raises SourceError for a file that is none, or one
    with a series without an end, when nothing says until when."""
    if not files:
        return how
    from nomarium.building.withheld import Withheld
    from nomarium.cli.sources import opened
    from nomarium.model.errors import SourceError
    from nomarium.reckoning.window import Window
    from nomarium.sources.calendars import calendar_sources
    from nomarium.sources.dated import dated_events

    with opened(files, zone_name=reading.zone) as held:
        if held.sheets:
            raise wrong(
                f"--without {held.sheets[0].file} is no calendar file.", "Build a calendar from it first."
            )
        sources = calendar_sources(held.calendars, reading)
        events = list(dated_events(sources, Window(how.first_day, how.last_day), reading.zone))
        problems = [one for source in sources for one in source.account.all_problems()]
    if problems:
        raise SourceError(problems[0])
    own = {entry.event.details.uid for calendar in found.calendars for entry in calendar.entries}
    return how._replace(withheld=Withheld(events, own))


def color_option(name: str | None) -> str:
    if not name:
        return ""
    from nomarium.ical.colors import CSS3_COLORS
    from nomarium.reading.cells.people import read_color

    color = read_color(name, CSS3_COLORS)
    if not isinstance(color, str):
        raise wrong(f"--color: {color.message}", color.remedy)
    return color


def split_option(texts: list[str] | None) -> tuple[str, ...]:
    """The one or two fields of a split."""
    if not texts:
        return ()
    from nomarium.targets.splitting import SPLIT_FIELDS

    if len(texts) > 1:
        raise wrong(
            "--split-by is given twice.", f"Two fields go together: --split-by {','.join(texts[:2])}."
        )
    fields = [field_option(name, "--split-by") for name in texts[0].split(",")]
    for field in fields:
        if field not in SPLIT_FIELDS:
            raise wrong(f"A build cannot be split by {field}.", f"Split by one of {', '.join(SPLIT_FIELDS)}.")
    if len(fields) > 2 or len(set(fields)) < len(fields):
        raise wrong(
            f"--split-by {','.join(fields)}: a build is split by one field or by two.", "Keep two of them."
        )
    return tuple(fields)
