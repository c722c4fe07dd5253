"""`nomarium check`: what is wrong with a calendar although every event of it can be read."""

from collections import Counter
from pathlib import Path
from typing import TYPE_CHECKING, Annotated

import typer

from nomarium.cli import options as opt
from nomarium.cli.asked import Asked, takes_sources
from nomarium.cli.panels import FIRST
from nomarium.cli.render import rest_text, say, say_json, say_problems, shortened
from nomarium.model.wording import counted

if TYPE_CHECKING:
    from collections.abc import Iterator, Sequence

    from nomarium.checking.finding import Finding
    from nomarium.model.problem import Problem

EXAMPLE = "Example: nomarium check year.xlsx --allow clash-group"


@takes_sources
def check(
    asked: Asked,
    allow: Annotated[
        list[str] | None,
        typer.Option(
            "--allow",
            metavar="CODE",
            help="Take this kind of finding as it is; * at its end takes all that begin so.",
            rich_help_panel=FIRST,
        ),
    ] = None,
    details: opt.Details = False,
    json: opt.Json = False,
) -> None:
    """Find clashes of teachers, rooms, classes, groups and people, doubles, times that a clock change skips or repeats, and
    what in a calendar file breaks RFC 5545."""
    from nomarium.checking.check import checked
    from nomarium.cli.progress import counting

    allowed = _allowed(allow or [])
    reading = asked.reading()
    with asked.taken(reading) as taken, counting("Checking") as progress:
        found, count = checked(taken.sources.listed, taken.window, reading.zone, progress)
        problems, notes = taken.problems(), taken.notes()
    findings = [*found, *_moved(notes), *(one for source in asked.named for one in _of_file(source))]
    findings = [one for one in findings if one.code not in allowed]
    if json:
        said = [{**one._asdict(), "events": [event._asdict() for event in one.events]} for one in findings]
        say_json({"findings": said, "events": count, "problems": problems})
    else:
        say_problems(problems)
        _print(findings, count, details)
    raise typer.Exit(1 if findings or problems else 0)


def _allowed(texts: "Sequence[str]") -> frozenset[str]:
    """The codes that are taken as they are."""
    from nomarium.checking.conformance import RFC_CODES
    from nomarium.checking.finding import CODES
    from nomarium.cli.optionvalues import wrong

    known = (*CODES, *RFC_CODES)
    found = set[str]()
    for text in texts:
        named = [
            code for code in known if code == text or (text.endswith("*") and code.startswith(text[:-1]))
        ]
        if not named:
            raise wrong(f"--allow {text} is no kind of finding.", f"The kinds are {', '.join(known)}.")
        found.update(named)
    return frozenset(found)


def _moved(notes: "Sequence[Problem]") -> "Iterator[Finding]":
    """Times of spreadsheets that a clock change skips: reading has moved them on, and says so."""
    from nomarium.checking.finding import Finding, Party

    for note in notes:
        if note.code == "time-skipped":
            yield Finding("clock-skipped", "", (), (Party("", "", "", "", str(note.place)),), note.message)


def _of_file(source: str) -> "Sequence[Finding]":
    """What in a calendar file breaks the standard; nothing for other sources."""
    from nomarium.checking.conformance import conformance
    from nomarium.sheets.opening import is_calendar_file

    path = Path(source)
    if source == "-" or "://" in source or not path.is_file() or not is_calendar_file(path):
        return ()
    octets = path.read_bytes()
    return () if octets.lstrip(b"\xef\xbb\xbf \r\n\t").startswith(b"[") else conformance(octets, source)


def _print(findings: "Sequence[Finding]", count: int, details: bool) -> None:
    kinds = Counter(one.code for one in findings)
    for code, number in kinds.items():
        say(f"{code}: {counted(number, 'finding')}")
        shown, rest = shortened([one for one in findings if one.code == code], details)
        for one in shown:
            say(f"  {one.message}")
            for event in one.events:
                when = f", {event.start.replace('T', ' ')[:16]}" if event.start else ""
                say(f"      {event.source}{when}" + (f"  “{event.summary}”" if event.summary else ""))
        if rest:
            say(f"  {rest_text(rest, 'finding')}")
    if findings:
        say(
            f"{counted(len(findings), 'finding')} in {counted(count, 'event')}. To take a kind as it is: --allow CODE."
        )
    else:
        say(f"{counted(count, 'event')} checked: nothing found.")
