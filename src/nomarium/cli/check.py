"""`nomarium check`: what is wrong with a calendar although every event of it can be read."""

import datetime as dt
from collections import Counter
from pathlib import Path
from typing import TYPE_CHECKING, Annotated

import typer

from nomarium.cli import options as opt
from nomarium.cli.asked import FOLLOWED, Asked, takes_sources
from nomarium.cli.panels import FIRST
from nomarium.cli.render import rest_text, say, say_json, say_problems, shortened
from nomarium.model.wording import counted

if TYPE_CHECKING:
    from collections.abc import Sequence

    from nomarium.checking.finding import Finding

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
    if reading.repeats_until is None:
        reading = reading._replace(horizon=dt.date.today() + FOLLOWED)
    of_files: list[Finding] = []
    with (
        asked.taken(reading, lambda path, name: of_files.extend(_of_file(path, name))) as taken,
        counting("Checking") as progress,
    ):
        found, count = checked(taken.sources.listed, taken.window, reading.zone, progress, reading.horizon)
        problems = taken.problems()
    findings = [one for one in (*found, *of_files) if one.code not in allowed]
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


def _of_file(path: Path, name: str) -> "Sequence[Finding]":
    """What in a calendar file breaks the standard; nothing for jCal, which another one rules (RFC 7265)."""
    from nomarium.checking.conformance import conformance

    octets = path.read_bytes()
    return () if octets.lstrip(b"\xef\xbb\xbf \r\n\t").startswith(b"[") else conformance(octets, name)


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
