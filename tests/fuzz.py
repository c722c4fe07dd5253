"""A seeded mutator over everything that is read: `python tests/fuzz.py COUNT [SEED]` tries so many damaged inputs and prints
each that ends in another way than 0, 1 or 2, or takes more than five seconds or a gigabyte."""

from __future__ import annotations

import csv
import functools
import html
import io
import json
import os
import random
import signal
import sys
import tempfile
import time
import zipfile
from collections.abc import Iterator
from pathlib import Path
from typing import NamedTuple

from helpers import nomarium
from pdf_maker import pdf

LONGEST_SECS = 5
ODD = (
    "\x00", "\x1b[31m", "\r", "\n", "\u202e", "²", "٣", "é", "🛶", "'", '"', ",", ";", "\t", "[", "{", "=", "-", ":", "/", "%", "#N/A", "9" * 400,
    "0001-01-01", "9999-12-31", "31/12/9999", "1e400", "-1", "inf", "nan", "99999999999", "every day", "FREQ=SECONDLY", "UNTIL=99991231T235959Z",
    "INTERVAL=0", "COUNT=999999999", "P99999999D", "BEGIN:VEVENT", "END:VEVENT", "BEGIN:X", "DTSTART:00010101T000000", "RRULE:FREQ=HOURLY",
    "24:00", "00:00", "noon", "TBC", "M-F", "MTWTF", "Day 1", "week A", "../../x", "http://", "A" * 300, "( " * 100, "1, " * 100,
    "30.11.", "5-7", "w/c", "Week 3", "Term 2", "from 9 to", "until", " am ", "pm", " – ", "Mon–Fri", "(TBC)", "7/8", "11-12 & 14", "31 & 1",
    "1er", "1.–3. Dezember", "same time", "ditto", "Monday", "29 February", "September", "2026", "9.15", "lundi", " | ", "Room 3", "Dates:",
)  # fmt: skip
"""What is put into inputs: each has ended some program somewhere."""


class Input(NamedTuple):
    """A file to damage, and the command that reads it."""

    name: str
    data: bytes
    arguments: tuple[str, ...] = (
        "build",
        "{}",
        "-o",
        "o.ics",
        "--from",
        "2026-01-01",
        "--until",
        "2027-12-31",
        "--partial",
    )


@functools.cache
def seeds() -> tuple[Input, ...]:
    """One whole input of each kind."""
    listed = (
        "Event,Date,Start,End,Repeat,Location,Categories,Status,Geo,Priority,Except\n"
        "Launch,2026-09-07,9:00,10:30,,Slip 1,\"boats, races\",confirmed,44.6;-63.5,2,\n"
        "Knots,7 Sept 2026,9.15am,,every Monday until 5 Oct 2026,Loft,,,,,14 Sept 2026\n"
        "Fair,05/10/2026,,,,Yard,,tentative,,,\n"
    )  # fmt: skip
    weekly = "Class,Days,Start,End,Room\nRigging,MWF,9:00,9:50,L2\nSteam,TTh,1:00,2:15,S4\nSails,TBA,,,\n"
    drawn = ",Monday,Tuesday,Wednesday\n9:00-9:50,Knots (L2),,Sails (S4)\n10:00-10:50,Break,Break,Break\n11:00-11:50,,Steam (S4),\n"
    calendar = (
        "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//Saltmarsh//EN\r\nBEGIN:VTIMEZONE\r\nTZID:Harbour\r\nBEGIN:STANDARD\r\n"
        "DTSTART:20261101T020000\r\nTZOFFSETFROM:-0300\r\nTZOFFSETTO:-0400\r\nRRULE:FREQ=YEARLY;BYMONTH=11;BYDAY=1SU\r\nEND:STANDARD\r\n"
        "END:VTIMEZONE\r\nBEGIN:VEVENT\r\nUID:1\r\nDTSTAMP:20260101T000000Z\r\nDTSTART;TZID=Harbour:20260907T090000\r\nDURATION:PT1H\r\n"
        "RRULE:FREQ=WEEKLY;BYDAY=MO,WE;COUNT=9\r\nEXDATE;TZID=Harbour:20260914T090000\r\nSUMMARY:Knots\\, splices\r\nGEO:44.6;-63.5\r\n"
        "ATTENDEE;CN=\"M. Quill\":mailto:quill@saltmarsh.example\r\nBEGIN:VALARM\r\nACTION:DISPLAY\r\nTRIGGER:-PT15M\r\nEND:VALARM\r\n"
        "END:VEVENT\r\nEND:VCALENDAR\r\n"
    )  # fmt: skip
    jcal = json.dumps(
        ["vcalendar", [["version", {}, "text", "2.0"]], [["vevent", [
            ["uid", {}, "text", "1"], ["dtstart", {"tzid": "America/Halifax"}, "date-time", "2026-09-07T09:00:00"],
            ["rrule", {}, "recur", {"freq": "DAILY", "count": 3}], ["summary", {}, "text", "Knots"]], []]]]
    )  # fmt: skip
    roster = ",Mon 7 Sep 2026,Tue 8 Sep 2026,Wed 9 Sep 2026,Thu 10 Sep 2026\nQuill,E,L,off,E\nTiller,L,E,E,\nBosun,off,,L,L\n\nE = 6-2\nL = 2-10\n"
    month = "September 2026,,,,,,\nMon,Tue,Wed,Thu,Fri,Sat,Sun\n,1,2,3,4,5,6\n7,8,9,10,11,12,13\nTerm begins,,9am Fair,,,Race 2-4,\n14,15,16,17,18,19,20\n"
    text = (
        "Saltmarsh School of Boatbuilding\nDates for your diary\n\nSeptember 2026\nMon 7   Term begins\nWed 9   9.15-10.30 Fair, Slip 1\n"
        "Tue 22 – Fri 25: Regatta week (Apprentices)\n\nParents' evening will be held on Thursday 8 October 2026 at 6 pm in the main\nloft.\n"
        "Sail repair: every Tuesday from 6 October to 8 December, 4.15–5.30pm\nNo sail repair on 13 October\n* 12, 14 & 16 Oct  Launches\n"
    )  # fmt: skip
    recipe = 'timezone = "America/Halifax"\ndate_order = "dmy"\nonly = ["title=K*"]\n[columns]\nEvent = "summary"\n'
    return (
        Input("list.csv", listed.encode()),
        Input("weekly.csv", weekly.encode()),
        Input("drawn.csv", drawn.encode()),
        Input("calendar.ics", calendar.encode()),
        Input("calendar.json", jcal.encode()),
        Input("roster.csv", roster.encode()),
        Input("month.csv", month.encode()),
        *(Input(f"text.{ending}", made) for ending, made in documents(text).items()),
        Input("list.xlsx", book(list(csv.reader(listed.splitlines())))),
        Input("plan.xlsx", plan()),
        Input("list.ods", ods()),
        Input("r.toml", recipe.encode(), ("build", "list.csv", "-o", "o.ics", "--recipe", "{}")),
        Input("list.csv", listed.encode(), ("survey", "{}")),
        Input("calendar.ics", calendar.encode(), ("build", "{}", "-o", "o.csv", "--repeats", "dated")),
        Input("weekly.csv", weekly.encode(), ("tally", "{}", "--by", "class", "--from", "2026-09-07", "--until", "2026-12-18")),
    )  # fmt: skip


def documents(text: str) -> dict[str, bytes]:
    """A text as itself and as each document that has lines and a table, by the ending of its file."""
    lines = html.escape(text, quote=False).splitlines()
    table = [["Event", "Date", "Time"], ["Launch", "7 Sept 2026", "9:00"], ["Fair", "5 Oct 2026", "10.30 am"]]
    paragraphs = "".join(f"<p>{line}</p>" for line in lines)
    rows = "".join("<tr>" + "".join(f"<td>{cell}</td>" for cell in row) + "</tr>" for row in table)
    said = '<script type="application/ld+json">{"@type":"Event","name":"Launch","startDate":"2026-09-07T09:00"}</script>'
    page = f"<html><body><h1>Dates</h1>{paragraphs}<table>{rows}</table>{said}</body></html>"
    word = "http://schemas.openxmlformats.org/wordprocessingml/2006/main"
    word_lines = "".join(f"<w:p><w:r><w:t>{line}</w:t></w:r></w:p>" for line in lines)
    word_rows = "".join(
        "<w:tr>"
        + "".join(f"<w:tc><w:p><w:r><w:t>{cell}</w:t></w:r></w:p></w:tc>" for cell in row)
        + "</w:tr>"
        for row in table
    )
    letter = (
        f'<w:document xmlns:w="{word}"><w:body>{word_lines}<w:tbl>{word_rows}</w:tbl></w:body></w:document>'
    )
    space = "urn:oasis:names:tc:opendocument:xmlns"
    open_lines = "".join(f"<text:p>{line}</text:p>" for line in lines)
    note = (
        f'<office:document-content xmlns:office="{space}:office:1.0" xmlns:text="{space}:text:1.0">'
        f"<office:body><office:text>{open_lines}</office:text></office:body></office:document-content>"
    )
    mail = (
        "From: office@saltmarsh.example\nDate: Tue, 1 Sep 2026 09:00:00 -0300\nSubject: Dates\nMIME-Version: 1.0\n"
        f'Content-Type: multipart/alternative; boundary="b"\n\n--b\nContent-Type: text/plain; charset=utf-8\n\n{text}\n'
        f"--b\nContent-Type: text/html; charset=utf-8\n\n{page}\n--b--\n"
    )
    return {
        "txt": text.encode(),
        "md": ("| Event | Date |\n|---|---|\n| Launch | 7 Sept 2026 |\n\n" + text).encode(),
        "html": page.encode(),
        "eml": mail.encode(),
        "docx": packed({"word/document.xml": letter}),
        "odt": packed({"mimetype": "application/vnd.oasis.opendocument.text", "content.xml": note}),
        "pdf": pdf([(50, 60 + 14 * number, line) for number, line in enumerate(text.splitlines())]),
    }


def packed(parts: dict[str, str]) -> bytes:
    data = io.BytesIO()
    with zipfile.ZipFile(data, "w", zipfile.ZIP_DEFLATED) as archive:
        for name, text in parts.items():
            archive.writestr(name, text)
    return data.getvalue()


def book(rows: list[list[str]], more: dict[str, list[list[str]]] | None = None) -> bytes:
    import openpyxl

    made = openpyxl.Workbook()
    page = made.active
    assert page is not None
    for row in rows:
        page.append(row)
    for name, listed in (more or {}).items():
        other = made.create_sheet(name)
        for row in listed:
            other.append(row)
    data = io.BytesIO()
    made.save(data)
    return data.getvalue()


def plan() -> bytes:
    terms = [["Name", "First day", "Last day"], ["Autumn", "2026-09-07", "2026-12-18"]]
    bells = [["Period", "Start", "End"], ["1", "8:30", "9:30"], ["2", "9:40", "10:40"]]
    off = [["Name", "First day"], ["Fair", "2026-10-12"]]
    classes = [
        ["Class", "Day", "Period", "Room"],
        ["Knots", "Day 1", "1", "L2"],
        ["Steam", "Day 2", "1-2", "S4"],
    ]
    return book(classes, {"Terms": terms, "Bells": bells, "Days off": off})


def ods() -> bytes:
    cells = "".join(
        "<table:table-row>" + "".join(f'<table:table-cell office:value-type="string"><text:p>{text}</text:p></table:table-cell>' for text in row) + "</table:table-row>"
        for row in (["Event", "Date"], ["Launch", "2026-09-07"], ["Fair", "2026-10-05"])
    )  # fmt: skip
    space = "urn:oasis:names:tc:opendocument:xmlns"
    content = (
        f'<office:document-content xmlns:office="{space}:office:1.0" xmlns:table="{space}:table:1.0" xmlns:text="{space}:text:1.0">'
        f'<office:body><office:spreadsheet><table:table table:name="A">{cells}</table:table></office:spreadsheet></office:body></office:document-content>'
    )  # fmt: skip
    manifest = f'<m:manifest xmlns:m="{space}:manifest:1.0"><m:file-entry m:full-path="/" m:media-type="application/vnd.oasis.opendocument.spreadsheet"/></m:manifest>'
    return packed(
        {
            "mimetype": "application/vnd.oasis.opendocument.spreadsheet",
            "META-INF/manifest.xml": manifest,
            "content.xml": content,
        }
    )


def damaged(data: bytes, chance: random.Random) -> bytes:
    """The same with a few things wrong; a part of a zip is damaged inside as often as the whole."""
    if data.startswith(b"PK") and chance.random() < 0.7:
        return _zip_damaged(data, chance)
    for _ in range(chance.choice((1, 1, 2, 4))):
        at = chance.randrange(len(data) + 1)
        length = chance.choice((0, 1, 3, 20))
        odd = chance.choice(ODD).encode()
        kind = chance.randrange(7)
        if kind == 0:
            data = data[:at] + odd + data[at + length :]
        elif kind == 1:
            data = data[:at]
        elif kind == 2:
            data = data[:at] + bytes(chance.randrange(256) for _ in range(length)) + data[at + length :]
        elif kind == 3:
            data = data[:at] + data[at : at + 60] * chance.choice((2, 50)) + data[at + 60 :]
        elif kind == 4:  # what patterns take the square of, or more
            piece = chance.choice(
                (odd[:12], data[at : at + chance.choice((1, 2, 6, 12))], b" ", b"\t", b"-", b"a ")
            )
            data = data[:at] + piece * chance.choice((300, 3_000, 12_000)) + data[at:]
        elif kind == 5:
            lines = data.splitlines(keepends=True) or [b""]
            chance.shuffle(lines)
            data = b"".join(lines)
        else:
            words = data.split(b",") if b"," in data else data.split(b":")
            words[chance.randrange(len(words))] = odd
            data = (b"," if b"," in data else b":").join(words)
    return data


def _zip_damaged(data: bytes, chance: random.Random) -> bytes:
    made = io.BytesIO()
    with (
        zipfile.ZipFile(io.BytesIO(data)) as archive,
        zipfile.ZipFile(made, "w", zipfile.ZIP_DEFLATED) as new,
    ):
        names = archive.namelist()
        hit = chance.choice(names)
        for name in names:
            part = archive.read(name)
            if name == hit:
                part = damaged(b"," + part, chance)
            new.writestr(name, part)
    return made.getvalue()


def inputs(count: int, seed: int) -> Iterator[tuple[int, Input]]:
    """So many damaged inputs, each by its own number: the same ones for the same seed."""
    whole = seeds()
    for number in range(count):
        chance = random.Random(f"{seed} {number}")
        one = whole[number % len(whole)]
        yield number, one._replace(data=damaged(one.data, chance))


def outcome_of(one: Input, folder: Path) -> str:
    """What is wrong with how a damaged input ended; nothing where it ended as it should. Runs in `folder`."""
    (folder / "list.csv").write_bytes(seeds()[0].data)
    (folder / one.name).write_bytes(one.data)
    for left in folder.glob("o.*"):
        left.unlink()
    before = Path.cwd()
    os.chdir(folder)
    previous = signal.signal(signal.SIGPROF, _too_long)
    signal.setitimer(signal.ITIMER_PROF, LONGEST_SECS)  # of the processor: a busy machine is no fault of ours
    try:
        outcome = nomarium(*(word.replace("{}", one.name) for word in one.arguments))
    except TimeoutError:
        return f"takes more than {LONGEST_SECS} s"
    finally:
        signal.setitimer(signal.ITIMER_PROF, 0)
        signal.signal(signal.SIGPROF, previous)
        os.chdir(before)
    if outcome.status not in (0, 1, 2):
        return f"ends with {outcome.status}: {outcome.text[-300:]}"
    if "\x1b" in outcome.text or "Traceback" in outcome.text:
        return f"says {outcome.text[-300:]!r}"
    return ""


def _too_long(*_: object) -> None:
    raise TimeoutError


def main() -> None:
    import resource

    count, seed = int(sys.argv[1]), int(sys.argv[2]) if len(sys.argv) > 2 else 1
    began, bad = time.monotonic(), 0
    with tempfile.TemporaryDirectory() as name:
        for number, one in inputs(count, seed):
            wrong = outcome_of(one, Path(name))
            if wrong:
                bad += 1
                kept = Path(f"fuzz-{seed}-{number}-{one.name}")
                kept.write_bytes(one.data)
                sys.stdout.write(f"{kept}: {' '.join(one.arguments)}: {wrong}\n")
    peak = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss // 1024
    sys.stdout.write(
        f"{count:,} inputs, {bad} ended badly, {time.monotonic() - began:.0f} s, {peak} MB at most\n"
    )
    sys.exit(bool(bad))


if __name__ == "__main__":
    main()
