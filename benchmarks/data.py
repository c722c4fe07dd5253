"""Made-up files of any size, the same at every run."""

from __future__ import annotations

import datetime as dt
import random
import zipfile
from collections.abc import Iterator
from pathlib import Path
from typing import NamedTuple
from xml.sax.saxutils import escape

HEADINGS = ("Title", "Date", "Start", "End", "Location", "Description", "Categories")
_WHO = ("Apprentices", "Journeymen", "Year 1", "Year 2", "Year 3", "Évening class", "Staff", "Families")
_WHAT = (
    "keel laying",
    "rib bending",
    "planking",
    "rope work",
    "caulking",
    "sail plan",
    "varnishing",
    "launch",
    "open day",
    "lofting & lines",
)
_WHERE = (
    "Slip 1",
    "Slip 2",
    "Rigging loft",
    "Sail loft, upper floor",
    "Steam shed",
    "Paint shed (north)",
    "Drawing loft",
    "Café Å",
    "Quay; east side",
)
_KINDS = ("Workshop", "Race", "Meeting", "Trips", "Examinations", "Staff", "Families", "Élèves")
_WORDS = (
    "bring gloves and a knife the boat leaves from the outer quay all apprentices must wear boots in the yard lunch is in the loft "
    "ask at the gate when you come late the lines are drawn at full size on the floor and nobody may walk on them before noon"
).split()
_FOREIGN = ("à la marée haute", "£4.50 each", "naïve sketches", "½ hour early", "— see the board —")
_FIRST = dt.date(2026, 9, 1)


class Entry(NamedTuple):
    """A row of an event list: its date, its minutes of the day, and its texts."""

    title: str
    day: dt.date
    start: int
    end: int
    where: str
    notes: str
    kinds: str


def entries(count: int, adverse: bool = False) -> Iterator[Entry]:
    """Entries as offices keep them: few titles, places and kinds in many rows, notes of a few words to some thirty, with
    commas, quotes, other letters and a line break here and there. Adverse ones differ in every cell, so that nothing seen helps."""
    chance = random.Random(7)
    for n in range(count):
        day = _FIRST + dt.timedelta(days=chance.randrange(300))
        start = 450 + 5 * chance.randrange(100)
        end = start + 5 * chance.randrange(3, 37)
        title = f"{chance.choice(_WHO)} {chance.choice(_WHAT)}" + (
            f", group {chance.randrange(1, 9)}" if chance.random() < 0.1 else ""
        )
        where, kinds, notes = chance.choice(_WHERE), chance.choice(_KINDS), _notes(chance)
        if chance.random() < 0.25:
            kinds += f", {chance.choice(_KINDS)}"
        if adverse:
            day = dt.date(1985, 1, 1) + dt.timedelta(days=chance.randrange(30_000))
            start = chance.randrange(60, 1380)
            end, where, kinds = start + chance.randrange(1, 59), f"{where} {n}", f"{kinds} {n}"
        yield Entry(title, day, start, end, where, notes, kinds)


def _notes(chance: random.Random) -> str:
    if chance.random() < 0.08:
        return ""
    size, at = chance.randrange(3, 29), chance.randrange(len(_WORDS))
    words = [_WORDS[(at + n * 7) % len(_WORDS)] for n in range(size)]
    words[0] = words[0].capitalize()
    if chance.random() < 0.45:
        words[size // 2] += ","
    if chance.random() < 0.12:
        words[size // 3] = f'"{words[size // 3]}"'
    if chance.random() < 0.15:
        words.insert(size // 2, chance.choice(_FOREIGN))
    text = " ".join(words) + "."
    return text.replace(" ", "\n", 1) if chance.random() < 0.04 else text


def rows(count: int, adverse: bool = False) -> Iterator[tuple[str, ...]]:
    """The entries as texts, days first and times with AM and PM."""
    for one in entries(count, adverse):
        yield (
            one.title,
            f"{one.day:%d/%m/%Y}",
            _clock(one.start),
            _clock(one.end),
            one.where,
            one.notes,
            one.kinds,
        )


def _clock(minutes: int) -> str:
    hour, minute = divmod(minutes, 60)
    return f"{(hour - 1) % 12 + 1}:{minute:02} {'AM' if hour < 12 else 'PM'}"


def write_csv(path: Path, count: int, adverse: bool = False) -> None:
    import csv

    with path.open("w", newline="", encoding="utf-8") as file:
        writer = csv.writer(file)
        writer.writerow(HEADINGS)
        writer.writerows(rows(count, adverse))


def write_xlsx(path: Path, count: int) -> None:
    """With real dates and times."""
    import xlsxwriter

    with xlsxwriter.Workbook(path, {"constant_memory": True}) as book:
        date, time = book.add_format({"num_format": "yyyy-mm-dd"}), book.add_format({"num_format": "hh:mm"})
        sheet = book.add_worksheet("Events")
        sheet.write_row(0, 0, HEADINGS)
        for at, one in enumerate(entries(count), 1):
            sheet.write_string(at, 0, one.title)
            sheet.write_datetime(at, 1, dt.datetime.combine(one.day, dt.time()), date)
            sheet.write_number(at, 2, one.start / 1440, time)
            sheet.write_number(at, 3, one.end / 1440, time)
            sheet.write_row(at, 4, (one.where, one.notes, one.kinds))


def write_ods(path: Path, count: int) -> None:
    """The smallest OpenDocument workbook, dates and times as real values."""
    names = "".join(
        f' xmlns:{name}="urn:oasis:names:tc:opendocument:xmlns:{name}:1.0"'
        for name in ("office", "table", "text")
    )
    text = '<table:table-cell office:value-type="string"><text:p>{}</text:p></table:table-cell>'
    date = '<table:table-cell office:value-type="date" office:date-value="{0}"><text:p>{0}</text:p></table:table-cell>'
    time = '<table:table-cell office:value-type="time" office:time-value="PT{0}H{1}M00S"><text:p>{0}:{1}</text:p></table:table-cell>'
    with zipfile.ZipFile(path, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr("mimetype", "application/vnd.oasis.opendocument.spreadsheet")
        archive.writestr(
            "META-INF/manifest.xml",
            '<manifest:manifest xmlns:manifest="urn:oasis:names:tc:opendocument:xmlns:manifest:1.0"/>',
        )
        with archive.open("content.xml", "w") as file:
            head = "".join(map(text.format, HEADINGS))
            file.write(
                f"<office:document-content{names}><office:body><office:spreadsheet>"
                f'<table:table table:name="Events"><table:table-row>{head}</table:table-row>'.encode()
            )
            for one in entries(count):
                cells = text.format(escape(one.title)) + date.format(one.day.isoformat())
                for minutes in (one.start, one.end):
                    cells += time.format(f"{minutes // 60:02}", f"{minutes % 60:02}")
                cells += "".join(text.format(escape(cell)) for cell in (one.where, one.notes, one.kinds))
                file.write(f"<table:table-row>{cells}</table:table-row>".encode())
            file.write(b"</table:table></office:spreadsheet></office:body></office:document-content>")
