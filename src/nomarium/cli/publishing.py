"""How `publish` goes about it: what it reads, what is on record, what it says."""

import sqlite3
import sys
from collections.abc import Callable
from pathlib import Path
from typing import TYPE_CHECKING, NamedTuple, cast

from nomarium.building.build import collected
from nomarium.building.options import BuildOptions
from nomarium.building.report import BuildReport
from nomarium.building.settling import notes_of, problems_of
from nomarium.cli import buildoptions as meant
from nomarium.cli.asked import Asked
from nomarium.cli.keptstates import record_file
from nomarium.cli.optionvalues import length_option, wrong
from nomarium.cli.passwords import login_for
from nomarium.cli.progress import counting
from nomarium.cli.render import say, say_json, say_notes, say_problems
from nomarium.cli.sources import calendar_name, revised
from nomarium.exchange import publishing, withdrawing
from nomarium.exchange.discovery import NewCalendar, find_calendar
from nomarium.exchange.fetch import shown_address
from nomarium.exchange.session import Login, Session, Waiting
from nomarium.history.publications import Publication, Publications
from nomarium.model.problem import Problem, note
from nomarium.model.wording import counted
from nomarium.reckoning.window import Window

if TYPE_CHECKING:
    from nomarium.history.settling.choices import Prefer
    from nomarium.history.settling.identity import Coming
    from nomarium.reading.options import ReadingOptions


class Target(NamedTuple):
    """Where it goes, and how."""

    to: str
    calendar: str | None
    part: str | None
    prefer: str
    parallel: int
    ca_file: str | None
    invites: bool
    is_dry: bool
    waiting: Waiting


class Build(NamedTuple):
    """What is to be made of the sources."""

    repeats: str
    show_holidays: bool
    reminder: str | None
    expect: int | None
    name: str | None


def check_prefer(prefer: str | None) -> None:
    if prefer not in (None, "source", "edited"):
        raise wrong(f"--prefer {prefer} is neither source nor edited.", "Use one of them.")


def published(
    target: Target, asked: Asked, build: Build, user: str | None, json: bool, details: bool
) -> bool:
    """Publish, say what was done, and whether all is well."""
    reading = asked.reading()
    report, coming, how = _events(asked, build, reading)
    if report.problems:
        _say(report, None, target, 0, "", json, details)
        return False
    login = login_for(target.to, user)
    with _Session(target, login) as session, counting("Publishing") as progress:
        part = target.part or how.calendar_name
        notes: list[Problem] = []
        known, keep = _record(target, part, notes)
        zone = next((one.event.zone for one in coming if one.event.zone and one.event.zone != "UTC"), "")
        url = _address(session, target, known, zone)
        if url:
            window = Window(how.first_day, how.last_day)
            wanted = publishing.Asked(
                part, how.dtstamp, reading.zone, cast("Prefer", target.prefer), window, target.invites, target.parallel, target.is_dry
            )  # fmt: skip
            done = publishing.publish(session, url, known, coming, wanted, keep, progress)
            report.problems += [*problems_of(done.outcome, shown_address(url)), *done.problems]
            settled, report.settled = notes_of(done.outcome, shown_address(url))
            report.notes += [*settled, *notes]
        else:
            done = None
    _say(report, done, target, session.requests, url or target.calendar or "", json, details, len(coming))
    return not report.problems


def withdrawn(
    target: Target, asked: Asked, user: str | None, name: str | None, json: bool, details: bool
) -> bool:
    """Take back what was published, say what was left, and whether all is well."""
    first, last = asked.window()
    if last is not None:
        raise wrong("--withdraw takes back what is on a day or later.", "Leave --until out.")
    login = login_for(target.to, user)
    notes: list[Problem] = []
    part = target.part or name or _only_part(target, asked)
    with _Session(target, login) as session, counting("Withdrawing") as progress:
        known, keep = _record(target, part, notes)
        url = _address(session, target, known, "", makes=False)
        if not url:
            raise wrong(f"There is no calendar “{target.calendar}” on the server.", "Check --calendar.")
        reading = asked.reading()
        dtstamp = target.waiting.now().strftime("%Y%m%dT%H%M%SZ")
        wanted = publishing.Asked(
            part, dtstamp, reading.zone, "", Window(), False, target.parallel, target.is_dry
        )
        done = withdrawing.withdraw(session, url, known, first, wanted, keep, progress)
    problems = list(done.problems)
    if not done.deleted and not done.shortened and not problems:
        when = f" from {first} on" if first else ""
        message = f"There is nothing of “{part}” in it{when}."
        problems.append(
            Problem("recall-nothing", message, "Check --as-part, which set it is, and the address.")
        )
    edited = [one.summary for one in done.edited]
    if json:
        facts = {"calendar": shown_address(url), "created": 0, "updated": done.shortened, "deleted": done.deleted, "unchanged": done.left,
                 "kept": 0, "edited": edited, "foreign": done.foreign, "requests": session.requests, "problems": problems, "notes": notes}  # fmt: skip
        say_json(facts)
        return not problems
    say_problems(problems)
    say_notes(notes, sys.stdout, details)
    if edited:
        say(
            f"note: {counted(len(edited), 'of them was', 'of them were')} changed by people: {', '.join(edited[:5])}{' …' if len(edited) > 5 else ''}."
        )
    verb = "Would take" if target.is_dry else "Took"
    more = f", {counted(done.shortened, 'series ends', 'series end')} before it" if done.shortened else ""
    say(
        f"{verb} {counted(done.deleted, 'event')} out of {shown_address(url)}{more}; {done.left} of “{part}” and {done.foreign} others stay."
    )
    say(counted(session.requests, "request"))
    return not problems


class _Session(Session):
    def __init__(self, target: Target, login: Login) -> None:
        super().__init__(login, target.waiting, target.ca_file, target.parallel)

    def __enter__(self) -> "_Session":
        return self

    def __exit__(self, *_: object) -> None:
        self.close()


def _events(
    asked: Asked, build: Build, reading: "ReadingOptions"
) -> "tuple[BuildReport, list[Coming], BuildOptions]":
    """The events of the sources, as a build would write them."""
    sources = asked.named
    first, last = asked.window()
    called = build.name or calendar_name(sources, "calendar.ics")
    how = BuildOptions(
        output=None, calendar_name=called, identity_name=called, dtstamp=revised(sources), first_day=first, last_day=last,
        reminder_secs=length_option(build.reminder, "--reminder") if build.reminder else None, expected=build.expect,
        by_rule=meant.by_rule_option(build.repeats, "calendar.ics"),
    )  # fmt: skip
    skipped = asked.skipping(reading)
    how = meant.with_days_off(how, skipped, build.show_holidays, not sources)
    if skipped is not None and skipped.problems:
        report = BuildReport()
        report.problems += skipped.problems
        return report, [], how
    with asked.opened(reading) as found, counting("Reading") as progress:
        how = how if build.name else meant.named_by_source(how, found, reading)
        report, coming = collected(found, reading, how, progress)
    return report, coming, how


def _address(
    session: Session, target: Target, known: Publication | None, zone: str, makes: bool = True
) -> str:
    """The address of the calendar; nothing where one would have to be made and is not."""
    if known is not None and known.url:
        return known.url
    new = NewCalendar(target.calendar, _zone_text(zone)) if target.calendar else None
    return find_calendar(session, target.to, new, makes and not target.is_dry)


def _zone_text(zone: str) -> str:
    """A zone as a calendar server takes it (RFC 4791, 5.2.2)."""
    if not zone:
        return ""
    import datetime as dt

    from nomarium.ical.vtimezone import vtimezone

    text = vtimezone(zone, dt.date(2020, 1, 1), dt.date(2040, 1, 1))
    return f"BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//Nomarium//Nomarium//EN\r\n{text}END:VCALENDAR\r\n"


def _key(target: Target) -> str:
    return f"{target.to.rstrip('/')} {target.calendar or ''}".strip()


def _record(
    target: Target, part: str, notes: list[Problem]
) -> tuple[Publication | None, Callable[[Publication], None]]:
    """What is on record of the calendar, and what takes a new record. Nothing is lost by a record that cannot be kept: the next
    run asks."""
    path: Path | None = record_file()
    if path is None:
        return None, lambda _: None
    kept, key = Publications(path), _key(target)

    def keep(state: Publication) -> None:
        try:
            kept.keep(key, part, state)
        except (sqlite3.Error, OSError) as error:
            notes.append(note("history-broken", f"What was published is not on record: {error}."))

    try:
        return kept.load(key, part), keep
    except (sqlite3.Error, OSError, ValueError, KeyError) as error:
        notes.append(note("history-broken", f"What was published before cannot be read: {error}."))
        return None, keep


def _only_part(target: Target, asked: Asked) -> str:
    if asked.named:
        called = calendar_name(asked.named, "calendar.ics")
        reading = asked.reading()
        how = BuildOptions(output=None, calendar_name=called, identity_name=called, dtstamp="")
        with asked.opened(reading) as found:
            return meant.named_by_source(how, found, reading).calendar_name
    path = record_file()
    try:
        parts = Publications(path).parts(_key(target)) if path is not None else []
    except (sqlite3.Error, OSError):
        parts = []
    if len(parts) == 1:
        return parts[0]
    listed = f" On record are {', '.join(parts)}." if parts else ""
    raise wrong(
        f"Which set of sources is to be taken back is not known.{listed}",
        "Name the source, or --as-part NAME.",
    )


def _say(
    report: BuildReport, done: "publishing.Published | None", target: Target, requests: int, url: str, json: bool, details: bool,
    count: int = 0,
) -> None:  # fmt: skip
    called = shown_address(url) if "://" in url else url or shown_address(target.to)
    if json:
        counts = {
            name: getattr(done, name) if done else 0
            for name in ("created", "updated", "deleted", "unchanged", "kept", "foreign")
        }
        if done is None and url and not report.problems:
            counts["created"] = count
        facts = {"calendar": called, **counts, "requests": requests, "ledger": report.ledger.as_dict(), "edited": report.settled,
                 "problems": report.problems, "notes": report.notes}  # fmt: skip
        say_json(facts)
        return
    say_problems(report.problems)
    say_notes(report.notes, sys.stdout, details)
    say(str(report.ledger))
    if report.problems and (done is None or not (done.created or done.updated or done.deleted)):
        say(f"Nothing was sent: {counted(len(report.problems), 'problem')}.", sys.stderr)
        return
    if done is None:
        say(f"Would make the calendar “{url}” and send {counted(count, 'event')}.")
        return
    parts = [(done.created, "created"), (done.updated, "updated"), (done.deleted, "deleted"), (done.unchanged, "unchanged"),
             (done.kept, "kept as people changed them")]  # fmt: skip
    said = ", ".join(f"{number:,} {what}" for number, what in parts if number) or "nothing"
    verb = "Would send to" if target.is_dry else "Published to"
    others = f"; {counted(done.foreign, 'other event')} not touched" if done.foreign else ""
    say(f"{verb} {called}: {said}{others}. {counted(requests, 'request')}.")
